// What must hold in every building, tried on many.

#include "bench/BigBuilding.h"
#include "core/check/Check.h"
#include "core/solve/PhaseLoads.h"
#include "tests/Building.h"

#include <nlohmann/json.hpp>
using namespace lintel;

TEST_CASE("in every building: power adds up, order holds, faults fall and drops rise downstream") {
    for (std::uint32_t seed = 1; seed <= 40; ++seed) {
        INFO("seed " << seed);
        const Project p = randomBuilding(seed, 3 + int(seed) % 12);
        const Results r = solve(p, nec());
        checkWhole(p, r);
        Complex entered;
        for (const Load& l : p.loads)
            entered +=
                powerOf(l.amount, l.unit, l.powerFactor, p.boards[p.circuits[l.circuit].board].system, l.poles, nec()) *
                l.quantity;
        const SourceResult& top = r.of(SourceId{1});
        CHECK(top.connected == Approx(std::abs(entered)));
        CHECK(std::abs(top.phases.total() - entered) <
              1e-6 * (1 + std::abs(entered))); // also through delta–wye transformers
        std::size_t at = 0;
        std::map<Ref, std::size_t> place;
        for (Ref n : r.order) place[n] = at++;
        CHECK(place.size() == p.boards.size() + p.transformers.size() + p.sources.size());
        for (Ref n : r.order) {
            const NodeResult& node = *r.node(n);
            CHECK(node.fed);
            CHECK_FALSE(node.looped);
            if (!node.parent) continue;
            CHECK(place[node.parent] < place[n]);
            const NodeResult& above = *r.node(node.parent);
            CHECK(node.connected <= above.connected + 1e-6 * (1 + above.connected));
            CHECK(node.depth == above.depth + 1);
            const FaultPoint& from =
                node.parent.is<Transformer>() ? r.of(node.parent.as<Transformer>()).secondary : above.fault;
            CHECK(node.fault.threePhase <= from.threePhase + 1e-9);
            CHECK(node.dropTotal + 1e-12 >= node.run.dropOwn);
            CHECK(r.feedPath(n, p).front() == Ref(SourceId{1}));
            CHECK(r.feedPath(n, p).back() == n);
            CHECK(node.heaviestAmps.v >= 0);
            if (node.run.size >= 0)
                CHECK(node.run.ampacity + 1e-6 >= std::min(node.run.need.load.v, node.run.ampacity));
        }
    }
}

TEST_CASE("the same building gives the same results, and an edit elsewhere does not disturb them") {
    const Project p = randomBuilding(5, 12);
    const Results a = solve(p, nec()), b = solve(p, nec());
    for (const Circuit& c : p.circuits) {
        CHECK(a.of(c.id).run.size == b.of(c.id).run.size);
        CHECK(a.of(c.id).device == b.of(c.id).device);
    }
    Project q = p;
    q.basis.designer = "somebody";
    q.rooms.add({{}, q.levels.begin()->id, "1", "Room", "", {{0, 0}, {1, 0}, {1, 1}}, {}, 0, 0, {}, {}});
    const Results c = solve(q, nec());
    for (const Board& x : p.boards) CHECK(c.of(x.id).demand == a.of(x.id).demand);
}

TEST_CASE("a building so large that all cores work on it comes out as its parts do, and always the same") {
    // The first twenty boards of both are the same; the small one is solved by one core, the large one by all.
    const Project small = bigBuilding(20, 42), large = bigBuilding(60, 42);
    REQUIRE(small.circuits.size() < 1000);
    REQUIRE(large.circuits.size() > 2000);
    const Results a = solve(small, nec()), b = solve(large, nec()), again = solve(large, nec());
    int branches = 0;
    for (const Circuit& c : small.circuits) {
        const CircuitResult &x = a.of(c.id), &y = b.of(c.id);
        REQUIRE(large.circuits[c.id] == c);
        if (x.feeder) continue;
        ++branches;
        CHECK(x.va == y.va);
        CHECK(x.device == y.device);
        CHECK(x.run.sizeForAmpacity == y.run.sizeForAmpacity);
        CHECK(x.phaseVa == y.phaseVa);
    }
    CHECK(branches == 19 * 42 + 42);
    for (const Board& x : small.boards)
        if (x.id.value > 1) CHECK(a.of(x.id).demand == b.of(x.id).demand);
    for (const Circuit& c : large.circuits) {
        CHECK(b.of(c.id).run.size == again.of(c.id).run.size);
        CHECK(b.of(c.id).faultEnd == again.of(c.id).faultEnd);
    }
    const auto snags = findSnags(large, nec(), b), twice = findSnags(large, nec(), again);
    REQUIRE(snags.size() == twice.size());
    CHECK_FALSE(snags.empty());
    for (std::size_t i = 0; i < snags.size(); ++i)
        CHECK((snags[i].text == twice[i].text && snags[i].about == twice[i].about));
    // Of one rule and severity, in the order of the circuits.
    for (std::size_t i = 1; i < snags.size(); ++i)
        if (snags[i].rule == snags[i - 1].rule && snags[i].severity == snags[i - 1].severity &&
            snags[i].about.is<Circuit>() && snags[i - 1].about.is<Circuit>())
            CHECK(snags[i - 1].about.value <= snags[i].about.value);
}

TEST_CASE("everything can say why: steps with figures, one or no governing step for a run") {
    const Project p = randomBuilding(9, 10);
    const Results r = solve(p, nec());
    const auto look = [&](Ref thing) {
        const Working w = explain(p, nec(), r, thing);
        INFO(w.text());
        CHECK_FALSE(w.title.empty());
        CHECK(w.steps.size() >= 2);
        int governing = 0;
        for (const WorkingStep& s : w.steps) {
            CHECK_FALSE(s.what.empty());
            CHECK_FALSE((s.formula.empty() && s.value.empty()));
            governing += s.governs;
        }
        CHECK(governing <= 1);
        const auto j = w.json();
        CHECK(j["steps"].size() == w.steps.size());
    };
    for (Ref n : r.order) look(n);
    for (const Circuit& c : p.circuits) look(c.id);
}

TEST_CASE("a feeder by hand: continuous load, growth, and the heaviest phase") {
    OneBoard w;
    Board sub;
    sub.name = "LP-2", sub.bus = 225;
    const BoardId two = addBoard(w.p, sub);
    feedFrom(w.p, two, w.board);
    runOfNode(w.p, two).lengthBy = LengthBy::Entered;
    const auto load = [&](int slot, double va, bool continuous) {
        const CircuitId c = addCircuit(w.p, two, 1, "x");
        w.p.circuits.change(c)->slot = slot;
        Load l;
        l.circuit = c, l.amount = va, l.continuous = continuous;
        w.p.loads.add(l);
    };
    // 7 200 VA on each phase, all continuous: 21 600 / (208 · √3) = 59.96 A; · 1.25 = 74.9 A → 80 A, 4 AWG (85 A).
    for (int slot : {1, 3, 5}) load(slot, 7200, true);
    Results r = w.solved();
    CHECK(r.of(two).demandAmps.v == Approx(59.96).epsilon(1e-3));
    CHECK(r.of(two).run.need.required.v == Approx(74.95).epsilon(1e-3));
    CHECK(r.of(two).run.need.device == 80);
    CHECK(nec().sizes()[std::size_t(r.of(two).run.size)].name == "4");
    CHECK(nec().sizes()[std::size_t(r.of(two).run.ground)].name == "8");
    w.p.basis.growth = 0.2; // 89.9 A → 90 A; 3 AWG carries 100
    r = w.solved();
    CHECK(r.of(two).run.need.device == 90);
    w.p.basis.growth = 0;
    // 6 000 VA more on A alone: its line carries 13 200 / 120.09 = 109.9 A, though balanced it would be 76.6 A.
    load(7, 6000, false);
    r = w.solved();
    CHECK(r.of(two).demandAmps.v == Approx(76.6).epsilon(2e-3));
    CHECK(r.of(two).heaviestAmps.v == Approx(109.9).epsilon(2e-3));
    CHECK(r.of(two).run.need.load.v == Approx(109.9).epsilon(2e-3));
    CHECK(r.of(two).run.need.device >= 110);
    CHECK(r.of(w.board).phaseVa[0] == Approx(13200));
}

TEST_CASE("a single-phase board on two lines of a three-phase one loads those two") {
    OneBoard w(VoltageSystem::D240H);
    Board sub;
    sub.name = "H-1", sub.system = VoltageSystem::S240;
    const BoardId two = addBoard(w.p, sub);
    CHECK_FALSE(refuseFeed(w.p, two, w.board));
    feedFrom(w.p, two, w.board);
    const CircuitId feeder = w.p.boards[two].feed.as<Circuit>();
    CHECK(w.p.circuits[feeder].poles == 2);
    const CircuitId c = addCircuit(w.p, two, 2, "x");
    Load l;
    l.circuit = c, l.amount = 4800, l.poles = 2;
    w.p.loads.add(l);
    const Results r = w.solved();
    CHECK(r.of(feeder).phaseVa[0] == Approx(2400)); // rows A and B
    CHECK(r.of(feeder).phaseVa[1] == Approx(2400));
    CHECK(r.of(w.board).connected == Approx(4800));
    CHECK(r.of(two).demandAmps.v == Approx(20));
}

TEST_CASE("snags in every building are worded, rules cited where the code asks, and remedies never throw") {
    for (std::uint32_t seed = 50; seed < 62; ++seed) {
        Project p = randomBuilding(seed, 8);
        for (Table<Board>::iterator b = p.boards.begin(); b != p.boards.end(); ++b) // hurt it
            if (b->id.value % 3 == 0) {
                const BoardId id = b->id;
                p.boards.change(id)->ratingKA = 1;
                p.boards.change(id)->slots = 3;
            }
        const Results r = solve(p, nec());
        const auto snags = findSnags(p, nec(), r);
        CHECK_FALSE(snags.empty());
        Severity last = Severity::Stop;
        for (const Snag& s : snags) {
            INFO(s.text);
            CHECK(s.severity >= last);
            last = s.severity;
            CHECK(s.about);
            CHECK(s.text.find("{}") == std::string::npos);
            for (const Remedy& m : remediesFor({p, nec(), r}, s)) {
                CHECK_FALSE(m.label.empty());
                Project q = p;
                m.apply(q);
                CHECK_FALSE(q == p);
            }
        }
    }
}
