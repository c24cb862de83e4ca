// What a filter finds by its figures, what a comparison counts, and what is told of the whole: each by figures that are
// worked out in the comment beside them.

#include "core/check/Assumptions.h"
#include "core/check/CircuitFilter.h"
#include "core/check/Compare.h"
#include "core/project/AddBelow.h"
#include "tests/BoardBelow.h"
#include "tests/Found.h"

#include <fmt/format.h>

using namespace lintel;

TEST_CASE("a filter by each figure finds what is above and below it, and nothing where it is not known") {
    // 1 500 VA on one pole at 120 V: 12.5 A, 20 A breaker, first slot, 100 ft. The board is fed over 300 ft.
    OneBoard w;
    Run& feeder = runOf(w.p, w.board);
    feeder.length = feet(300).v;
    const CircuitId c = w.circuit(1500, LoadUnit::VA, 1, 100);
    const CircuitId unknown = w.circuit(700, LoadUnit::VA, 2);
    const Results r = w.solved();
    const auto finds = [&](CircuitId id, const std::string& text) {
        const auto filter = CircuitFilter::from(text);
        REQUIRE(filter);
        return filter->matches({w.p, nec(), r}, w.p.circuits[id]);
    };
    const RunResult& run = r.of(c).run;
    REQUIRE(run.dropTotal > run.dropOwn + 0.05);
    const std::pair<const char*, double> figures[] = {
        {"va", 1500}, {"amps", 12.5},  {"breaker", 20},       {"poles", 1},
        {"slot", 1},  {"length", 100}, {"drop", run.dropOwn}, {"total", run.dropTotal}};
    for (const auto& [key, value] : figures) {
        INFO(key);
        CHECK(finds(c, fmt::format("{}>{}", key, value * 0.98)));
        CHECK_FALSE(finds(c, fmt::format("{}>{}", key, value * 1.02)));
        CHECK(finds(c, fmt::format("{}<{}", key, value * 1.02)));
        CHECK_FALSE(finds(c, fmt::format("{}<{}", key, value * 0.98)));
    }
    for (const char* key : {"length", "drop", "total"}) {
        INFO(key);
        CHECK_FALSE(finds(unknown, std::string(key) + ">0"));
        CHECK_FALSE(finds(unknown, std::string(key) + "<1000000"));
    }
}

TEST_CASE("a comparison counts runs, devices, stops and snags, and tells what has come and gone") {
    MetricBoard before(0.2);
    const CircuitId c = before.run(3, 20);
    runOf(before.p, c).heldSize = "4", runOf(before.p, c).heldGround = "2.5";
    const auto differs = [&](auto change) {
        MetricBoard after = before;
        change(after.p);
        const Results a = before.results(), b = after.results();
        return compare({before.p, bs(), a}, {after.p, bs(), b});
    };
    CHECK(differs([](Project&) {}).nothing());
    CHECK(differs([&](Project& p) { runOf(p, c).heldSize = "6"; }).sizes == 1);
    CHECK(differs([&](Project& p) { runOf(p, c).heldGround = "4"; }).sizes == 1);
    CHECK(differs([&](Project& p) { runOf(p, c).heldSets = 2; }).sizes == 1);
    const Comparison device = differs([&](Project& p) { p.circuits.change(c)->heldBreaker = 20; });
    CHECK(device.devices == 1);
    CHECK(device.sizes == 0);
    // A breaker of 6 A before 13 A is a stop; the other way round it is gone.
    const Comparison stop = differs([&](Project& p) { p.circuits.change(c)->heldBreaker = 6; });
    CHECK(stop.stopsAfter == stop.stopsBefore + 1);
    REQUIRE(stop.newSnags.size() == 1);
    CHECK(stop.gone.empty());
    CHECK(stop.snagsAfter == stop.snagsBefore + 1);
    MetricBoard bad = before;
    bad.p.circuits.change(c)->heldBreaker = 6;
    const Results was = bad.results(), is = before.results();
    const Comparison mended = compare({bad.p, bs(), was}, {before.p, bs(), is});
    CHECK(mended.stopsBefore == 1);
    CHECK(mended.stopsAfter == 0);
    CHECK(mended.gone == stop.newSnags);
    // As many as asked for are told whole; one more, and the last line counts the rest.
    Comparison list;
    list.newSnags = {"one", "two", "three"};
    CHECK(list.list(3) == std::vector<std::string>{"New snag: one", "New snag: two", "New snag: three"});
    CHECK(list.list(2) == std::vector<std::string>{"New snag: one", "and 2 more"});
}

TEST_CASE("a board that nothing feeds is offered three places to be fed from, and no more") {
    OneBoard w;
    for (int i = 0; i < 4; ++i) boardBelow(w.p, w.board, "LP-" + std::to_string(i + 2), VoltageSystem::Y208);
    Board lost = w.p.boards[w.board];
    lost.id = {}, lost.feed = {}, lost.run = {}, lost.name = "LP-9", lost.main = 0;
    addBoard(w.p, lost);
    const Found f(w.p);
    REQUIRE(f.of("board-unfed", "LP-9"));
    CHECK(f.remedies("board-unfed").size() == 3);
}

TEST_CASE(
    "a fault level that is given is held against what is worked out, and against nothing where nothing feeds it") {
    OneBoard w;
    w.p.boards.change(w.board)->givenKA = 10;
    const Results fed = w.solved();
    const auto worked = workedOutKA({w.p, nec(), fed}, w.p.boards[w.board]);
    REQUIRE(worked);
    CHECK(*worked == Approx(20).epsilon(0.01)); // all of its source, over a millimetre
    w.p.boards.change(w.board)->feed = {};
    const Results alone = w.solved();
    CHECK_FALSE(workedOutKA({w.p, nec(), alone}, w.p.boards[w.board]));
}

TEST_CASE("motors that feed no faults are an assumption where there are motors") {
    const auto told = [](LoadKind kind) {
        OneBoard w(VoltageSystem::Y480);
        w.circuit(10, LoadUnit::kVA, 3, 20, kind);
        const Results r = w.solved();
        const auto all = assumptionsOf({w.p, nec(), r});
        return std::any_of(all.begin(), all.end(), [](const Assumption& a) { return a.what == "Motors feed faults"; });
    };
    CHECK(told(LoadKind::Motor));
    CHECK_FALSE(told(LoadKind::Heating));
}

TEST_CASE("conductors from an alternate source that nobody measured count as unknown") {
    OneBoard w(VoltageSystem::Y480);
    w.circuit(10, LoadUnit::kVA, 3, 20);
    const auto unknown = [&] {
        const Results r = w.solved();
        return unknownLengths({w.p, nec(), r});
    };
    CHECK(unknown() == 0);
    addGenerator(w.p, w.board, 100);
    CHECK(unknown() >= 1);
}
