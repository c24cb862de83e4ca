// What somebody entered for those who build: each has its place on what is issued.

#include "core/compose/SheetSet.h"
#include "core/figures/Words.h"
#include "core/lists/List.h"
#include "core/sheets/BoardDiagram.h"
#include "tests/World.h"

using namespace lintel;

namespace {

/// All the words of the sheets and the notes of the lists.
std::string issued(const Project& p, const RuleBook& book) {
    const Results r = solve(p, book);
    const SheetInput in{p, book, r};
    std::string all;
    for (const SheetEntry& e : sheetSet(in)) all += e.draw().words() + "\n";
    for (const List& l : listsOf(in, false))
        for (const std::string& note : l.notes) all += note + "\n";
    return all;
}
/// Blanks and ends of lines do not count: what is broken into lines reads as it was.
bool says(const std::string& all, const std::string& text) {
    const auto close = [](std::string s) {
        std::erase_if(s, [](char c) { return c == ' ' || c == '\n'; });
        return s;
    };
    return close(all).find(close(text)) != std::string::npos;
}

} // namespace

TEST_CASE("schedules: ties, rated devices, series pairs, surge protection and how runs are laid are among the notes") {
    OneBoard w;
    std::vector<CircuitId> c;
    for (int i = 0; i < 4; ++i) c.push_back(w.circuit(600, LoadUnit::VA, 1, 40));
    for (int i = 0; i < 4; ++i) w.p.circuits.change(c[std::size_t(i)])->slot = 1 + 2 * i;
    const std::string before = issued(w.p, nec());
    CHECK_FALSE(says(before, "tied"));
    CHECK_FALSE(says(before, "rated device"));
    CHECK_FALSE(says(before, "fire-rated"));
    w.p.circuits.change(c[0])->tie = w.p.circuits.change(c[1])->tie = 3;
    w.p.circuits.change(c[2])->tie = 5; // tied to nothing
    w.p.circuits.change(c[2])->fullRated = true;
    runOf(w.p, c[1]).fireRated = runOf(w.p, c[3]).fireRated = true;
    runOf(w.p, c[2]).nipple = true;
    Board& b = *w.p.boards.change(w.board);
    b.seriesKA = 42, b.seriesDevices = "main TF-225 with branch TB-20";
    b.surge = "type 2, 80 kA a mode";
    b.lugs = Lugs::FeedThrough;
    const std::string all = issued(w.p, nec());
    CHECK(says(all, "Circuits 1, 3: handles tied, they open together."));
    CHECK(says(all, "Circuit 5: 100 %-rated device."));
    CHECK(says(all, "Circuits 3, 7: has to go on working in a fire: fire-rated cable."));
    CHECK(says(all, "Circuit 5: conduit no longer than 24 in between enclosures."));
    CHECK(says(all, "Series rating of 42 kA: main TF-225 with branch TB-20."));
    CHECK(says(all, "Surge protection: type 2, 80 kA a mode."));
    CHECK(says(all, "225 A breaker, feed-through lugs"));
    CHECK_FALSE(says(all, "Circuit 5: handles tied"));
}

TEST_CASE("metric schedules: how cables are laid beside others, apart, and through insulation") {
    MetricBoard w;
    const CircuitId c = w.circuit(3000, LoadUnit::W, 1, 60);
    runOf(w.p, c).lying = Lying::Ladder;
    runOf(w.p, c).insulated = 0.4;
    const std::string all = issued(w.p, bs());
    CHECK(says(all, "laid beside other cables: one layer, ladder or cleats."));
    CHECK(says(all, "no more than 0.4 m of it in thermal insulation."));
}

TEST_CASE("board diagrams and schedules word a neutral apart and an isolated ground in the rows of circuits") {
    OneBoard w;
    const CircuitId c = w.circuit(16, LoadUnit::A, 3, 30); // #12, as in the schedule of a three-pole 20 A circuit
    runOf(w.p, c).neutral = NeutralBy::Double;
    runOf(w.p, c).isolatedGround = true;
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    const std::string wire = "3#12, 2×#12 N, #12G, #12IG";
    CHECK(says(panelSchedule(in, w.board, "E-601").words(), wire));
    CHECK(says(boardDiagramBare(in, w.board, 400).words(), wire));
}

TEST_CASE("demand in amperes is told by its heaviest line, of boards and of supplies by the names of their lines") {
    OneBoard us;
    us.circuit(1200); // 1200 VA / (208 V / √3) = 9.99 A on line A
    const Results r = us.solved();
    CHECK(demandWords(r.of(us.board), us.p.boards[us.board]) == "9.99 A on A");
    CHECK(demandWords(r.of(us.source), us.p.sources[us.source]) == "9.99 A on A");
    MetricBoard metric;
    metric.circuit(2300, LoadUnit::W); // 2300 W / (400 V / √3) = 9.96 A
    const Results m = solve(metric.p, bs());
    CHECK(demandWords(m.of(metric.source), metric.p.sources[metric.source]) == "9.96 A on L1");
    OneBoard even;
    even.circuit(20, LoadUnit::A, 3);
    CHECK(demandWords(even.solved().of(even.board), even.p.boards[even.board]) == "20.0 A");
}

TEST_CASE("metric cables have their neutral as large as their lines, also where it is to go by its load") {
    MetricBoard w;
    const CircuitId c = w.circuit(20000, LoadUnit::W, 3, 60); // balanced: nothing in its neutral
    runOf(w.p, c).neutral = NeutralBy::Calculated;
    const RunResult run = solve(w.p, bs()).of(c).run;
    CHECK(run.neutrals == 1);
    CHECK(run.neutralSize == run.size);
    CHECK_THAT(conductorWords(run, bs()), Catch::StartsWith("4 × "));
}

TEST_CASE("the feeder list tells how a feeder is to be laid, also where no circuit feeds it") {
    OneBoard w;
    w.circuit(600);
    w.p.runs.change(w.p.boards[w.board].run)->fireRated = true;
    CHECK(says(issued(w.p, nec()), "LP-1: has to go on working in a fire: fire-rated cable."));
}

TEST_CASE("riser: supplies say their rating only where they have one, how they are earthed, and taps that are set") {
    OneBoard w(VoltageSystem::Y480);
    w.circuit(600);
    Source& s = *w.p.sources.change(w.source);
    s.kind = SourceKind::ExistingBoard, s.kva = 750; // a figure of another kind that was once chosen
    CHECK_FALSE(says(issued(w.p, nec()), "750 kVA"));
    s.kind = SourceKind::UtilityTransformer, s.percentZ = 5.5;
    CHECK(says(issued(w.p, nec()), "750 kVA, 5.5 %Z"));
    Transformer t;
    t.name = "T-1", t.kva = 45;
    t.restartsDrop = false, t.boost = 2.5;
    const TransformerId id = w.p.transformers.add(t);
    REQUIRE_FALSE(refuseFeed(w.p, id, w.board));
    feedFrom(w.p, id, w.board);
    const std::string tapped = issued(w.p, nec());
    CHECK(says(tapped, "taps: secondary +2.5 %"));
    CHECK(says(tapped, "T-1, taps: secondary +2.5 %."));

    MetricBoard m;
    m.circuit(3000, LoadUnit::W, 1, 60);
    Source& supply = *m.p.sources.change(m.source);
    supply.earthing = Earthing::TNCS, supply.ze = 0.35;
    CHECK(says(issued(m.p, bs()), "TN-C-S, Ze 0.35 Ω"));
    supply.earthing = Earthing::IT, supply.insulationMonitor = "IM-1 in the switchroom";
    CHECK(says(issued(m.p, bs()), "insulation monitored by IM-1 in the switchroom"));
}
