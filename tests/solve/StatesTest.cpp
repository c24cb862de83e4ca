// What stands in a feed, and what takes over from it: figures by hand.

#include "core/solve/States.h"
#include "core/project/Validation.h"
#include "tests/World.h"

using namespace lintel;

namespace {

void enter(Project& p, RunId run, double feetLong, const std::string& held = "") {
    Run& r = *p.runs.change(run);
    r.lengthBy = LengthBy::Entered;
    r.length = feet(feetLong).v;
    r.heldSize = held;
}

/// A 480 V utility that feeds MDS, and MDS a board LS-1 through a breaker.
struct TwoBoards : OneBoard {
    BoardId ls;
    TwoBoards() : OneBoard(VoltageSystem::Y480) {
        p.boards.change(board)->name = "MDS";
        p.boards.change(board)->main = p.boards.change(board)->bus = 400;
        Board b;
        b.name = "LS-1";
        b.system = VoltageSystem::Y480;
        b.bus = 100;
        ls = addBoard(p, b);
        feedFrom(p, ls, board);
        enter(p, p.boards[ls].run, 10);
        const CircuitId c = addCircuit(p, ls, 3, "Smoke exhaust");
        Load l;
        l.circuit = c, l.amount = 50, l.unit = LoadUnit::kVA, l.poles = 3;
        p.loads.add(l);
        enter(p, p.circuits[c].run, 10);
    }
    SourceId generator(double kva = 50) {
        Source g;
        g.name = "G-1", g.kind = SourceKind::Generator, g.kva = kva, g.subtransient = 15, g.xOverR = 1000,
        g.system = VoltageSystem::Y480;
        return p.sources.add(g);
    }
};

} // namespace

TEST_CASE("what passes on adds its runs and nothing else: lengths that add up lose and limit the same") {
    TwoBoards w;
    enter(w.p, w.p.boards[w.ls].run, 100, "1");
    const Results whole = w.solved();
    const BoardId ds = insertInFeed(w.p, w.ls, BoardUse::Disconnect);
    CHECK(w.p.boards[ds].name == "DS-1");
    CHECK(w.p.boards[ds].bus == 100);
    CHECK(w.p.boards[ds].feed.is<Circuit>());
    enter(w.p, w.p.boards[ds].run, 60, "1");
    enter(w.p, w.p.boards[w.ls].run, 40, "1");
    REQUIRE_FALSE(validate(w.p));
    const Results parted = w.solved();
    checkWhole(w.p, parted);
    CHECK(parted.of(w.ls).dropTotal == Approx(whole.of(w.ls).dropTotal));
    CHECK(parted.of(w.ls).fault.threePhase == Approx(whole.of(w.ls).fault.threePhase));
    CHECK(parted.of(w.ls).fault.lineGround == Approx(whole.of(w.ls).fault.lineGround));
    CHECK(parted.of(ds).demand == Approx(50000));
    CHECK(parted.of(w.board).demand == Approx(whole.of(w.board).demand));
    CHECK(parted.feedPath(w.ls, w.p) == std::vector<Ref>{w.source, w.board, ds, w.ls});
}

TEST_CASE("a fused disconnect protects what hangs on it; without fuses the breaker before it does") {
    TwoBoards w;
    const BoardId ds = insertInFeed(w.p, w.ls, BoardUse::Disconnect);
    const CircuitId feeder = w.p.boards[ds].feed.as<Circuit>();
    w.p.circuits.change(feeder)->heldBreaker = 200;
    CHECK(w.solved().of(w.ls).run.need.device == 200);
    w.p.boards.change(ds)->main = 100;
    CHECK(w.solved().of(w.ls).run.need.device == 100);
    CHECK(w.solved().of(ds).run.need.device == 200);
}

TEST_CASE(
    "conductors up to the service disconnect are the supply's: a feeder with a protective conductor begins there") {
    TwoBoards w;
    const BoardId sd = insertInFeed(w.p, w.board, BoardUse::ServiceDisconnect);
    const BoardId meter = insertInFeed(w.p, sd, BoardUse::Meter);
    w.p.boards.change(sd)->main = 400;
    w.p.boards.change(w.board)->main = 0;
    const Results r = w.solved();
    CHECK(r.of(meter).supply == Ref(w.source));
    CHECK(r.of(sd).supply == Ref(w.source));
    CHECK_FALSE(r.of(w.board).supply);
    CHECK(r.of(meter).run.ground == -1);
    CHECK(r.of(sd).run.ground == -1);
    // Table 250.122: 400 A, copper: #3.
    REQUIRE(r.of(w.board).run.ground >= 0);
    CHECK(nec().sizes()[std::size_t(r.of(w.board).run.ground)].name == "3");
    CHECK(r.of(w.board).run.need.device == 400);
}

TEST_CASE("each state is solved by itself: demand, drop and fault on the generator by hand") {
    TwoBoards w;
    const BoardId ats = insertInFeed(w.p, w.ls, BoardUse::TransferSwitch);
    const SourceId g = w.generator();
    REQUIRE_FALSE(refuseAlternate(w.p, ats, g));
    alternateFrom(w.p, ats, g);
    enter(w.p, w.p.boards[ats].run, 10);
    enter(w.p, w.p.boards[w.ls].run, 0.001);
    enter(w.p, w.p.boards[ats].alternateRun, 200, "3");
    REQUIRE_FALSE(validate(w.p));
    const Results r = w.solved();
    checkWhole(w.p, r);
    REQUIRE(r.states.size() == 1);
    const StateSolution& on = *r.states.front();
    CHECK(on.source == g);
    CHECK(on.takers == std::vector<BoardId>{ats});
    CHECK(on.below == std::vector<Ref>{ats, w.ls});
    // What the generator carries, and the utility without it.
    CHECK(r.of(g).standby == Approx(50000));
    CHECK(r.of(g).used == Approx(1.0));
    CHECK(on.results.of(g).demand == Approx(50000));
    CHECK(on.results.of(w.board).demand == Approx(0).margin(1e-9));
    CHECK_FALSE(on.results.of(w.board).fault.known);
    CHECK(r.of(w.board).demand == Approx(50000));
    // 60.14 A over 200 ft of #3 in steel (Table 9: 0.25 Ω for 1 000 ft), unity power factor: √3 · 60.14 · 0.05 = 5.21 V
    // of 480: 1.085 %.
    CHECK(on.results.of(ats).dropTotal == Approx(1.085).margin(0.003));
    CHECK(r.of(w.ls).dropTotal < 0.2);
    // 60.14 A / 0.15 = 401 A at its terminals. Its reactance is 480² / 50 000 · 0.15 = 0.6912 Ω; 200 ft of #3 add,
    // cold, 0.2 · 0.25 · 0.822 = 0.0411 Ω and 0.2 · 0.059 = 0.0118 Ω: 277.1 / |0.0411 + j0.7030| = 393.6 A.
    CHECK(r.of(g).fault.threePhase == Approx(0.401).margin(0.001));
    CHECK(on.results.of(ats).fault.threePhase == Approx(0.3936).margin(0.0005));
    CHECK(largestFault(w.p, r, w.ls).kA == Approx(r.of(w.ls).fault.worst()));
    CHECK_FALSE(largestFault(w.p, r, w.ls).source);
    CHECK(statesOf(w.p, r, w.ls).size() == 1);
    CHECK(statesOf(w.p, r, w.board).empty());
    // The conductors from the generator are on the results of the normal state too.
    CHECK(nec().sizes()[std::size_t(r.of(ats).alternateRun->size)].name == "3");
}

TEST_CASE("a circuit on standby carries nothing, and is sized for what it takes over") {
    TwoBoards w;
    const SourceId g = w.generator(100);
    Board e;
    e.name = "EDS", e.system = VoltageSystem::Y480, e.bus = 225;
    const BoardId eds = addBoard(w.p, e);
    feedFrom(w.p, eds, g);
    enter(w.p, w.p.boards[eds].run, 20);
    const BoardId ats = insertInFeed(w.p, w.ls, BoardUse::TransferSwitch);
    alternateFrom(w.p, ats, eds);
    enter(w.p, w.p.boards[ats].alternateRun, 30);
    REQUIRE_FALSE(validate(w.p));
    const CircuitId standby = w.p.boards[ats].alternate.as<Circuit>();
    REQUIRE(standby);
    CHECK(w.p.circuits[standby].board == eds);
    CHECK(fedBy(w.p, standby) == Ref(ats));
    const Results r = w.solved();
    checkWhole(w.p, r);
    CHECK(r.of(standby).feeder);
    CHECK(r.of(standby).standby);
    CHECK(r.of(standby).va == 0);
    CHECK(r.of(eds).connected == Approx(0).margin(1e-9));
    CHECK(r.of(w.source).connected == Approx(50000));
    // 60.1 A, not continuous: 70 A is the next standard rating, and protects #6 of 65 A at 75 °C (240.4(B)).
    CHECK(r.of(standby).device == 70);
    CHECK(nec().sizes()[std::size_t(r.run(standby)->size)].name == "6");
    CHECK(r.run(standby)->need.length.v == Approx(feet(30).v));
    CHECK(r.of(g).standby == Approx(50000));
    // The feeder of EDS is that of the state in which it carries something.
    CHECK(r.of(eds).run.size == r.states.front()->results.of(eds).run.size);

    alternateFrom(w.p, ats, {});
    REQUIRE_FALSE(validate(w.p));
    CHECK_FALSE(w.p.circuits.has(standby));
    CHECK(w.solved().states.empty());
}

TEST_CASE("the worst fault is that of any state") {
    TwoBoards w;
    const BoardId ats = insertInFeed(w.p, w.ls, BoardUse::TransferSwitch);
    Source second;
    second.name = "Utility 2", second.system = VoltageSystem::Y480, second.faultKA = 42, second.xOverR = 4;
    const SourceId other = w.p.sources.add(second);
    alternateFrom(w.p, ats, other);
    for (RunId run : {w.p.boards[ats].run, w.p.boards[ats].alternateRun, w.p.boards[w.ls].run}) enter(w.p, run, 0.001);
    const Results r = w.solved();
    CHECK(largestFault(w.p, r, w.ls).kA == Approx(42).margin(0.1));
    CHECK(largestFault(w.p, r, w.ls).source == other);
    CHECK(largestFault(w.p, r, w.board).source == SourceId{});
}

TEST_CASE("putting something into a feed and taking it out again leaves the feed as it was") {
    for (BoardUse use : {BoardUse::ServiceDisconnect, BoardUse::Meter, BoardUse::Disconnect, BoardUse::TransferSwitch,
                         BoardUse::Ups}) {
        TwoBoards w;
        const Board before = w.p.boards[w.ls];
        const std::size_t runs = w.p.runs.size();
        const BoardId it = insertInFeed(w.p, w.ls, use);
        CHECK(w.p.boards[w.ls].feed == Ref(it));
        CHECK(w.p.boards[it].feed == before.feed);
        CHECK(w.p.boards[it].run == before.run);
        removeBoard(w.p, it);
        REQUIRE_FALSE(validate(w.p));
        CHECK(w.p.boards[w.ls] == before);
        CHECK(w.p.runs.size() == runs);
    }
}

TEST_CASE("what passes on holds no circuits, takes its system from its feed, and feeds without a breaker") {
    TwoBoards w;
    const BoardId ds = insertInFeed(w.p, w.ls, BoardUse::Disconnect);
    {
        Project bad = w.p;
        Circuit c;
        c.board = ds;
        bad.circuits.add(c);
        REQUIRE(validate(bad));
        CHECK(validate(bad)->what.find("DS-1") != std::string::npos);
    }
    {
        Project bad = w.p;
        bad.boards.change(w.ls)->use = BoardUse::Disconnect;
        bad.boards.change(w.ls)->slots = 0;
        REQUIRE(validate(bad)); // it holds a circuit
    }
    Board b;
    b.name = "LP-9", b.system = VoltageSystem::Y208;
    const BoardId low = addBoard(w.p, b);
    REQUIRE(refuseFeed(w.p, low, ds));
    CHECK(refuseFeed(w.p, low, ds)->what == "LP-9 takes 208Y/120 V; DS-1 gives 480Y/277 V");
    w.p.boards.change(low)->system = VoltageSystem::Y480;
    CHECK_FALSE(refuseFeed(w.p, low, ds));
    const std::size_t circuits = w.p.circuits.size();
    feedFrom(w.p, low, ds);
    CHECK(w.p.circuits.size() == circuits);
    CHECK(w.p.boards[low].feed == Ref(ds));
    // A loop, in the feed or in what takes over.
    CHECK(refuseFeed(w.p, ds, w.ls));
    CHECK(refuseAlternate(w.p, ds, w.ls));
    CHECK_FALSE(refuseAlternate(w.p, ds, w.generator()));
    // Two hang on it and a circuit feeds one thing: they hang free when it goes.
    removeBoard(w.p, ds);
    REQUIRE_FALSE(validate(w.p));
    CHECK_FALSE(w.p.boards[low].feed);
    CHECK_FALSE(w.p.boards[w.ls].feed);
}
