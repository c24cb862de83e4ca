// What stands in a feed, and what takes over from it: figures by hand.

#include "core/solve/States.h"
#include "core/check/Check.h"
#include "core/project/AddBelow.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "core/sheets/Sheets.h"
#include "core/solve/EquipmentSize.h"
#include "tests/Building.h"

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
    CHECK(equipmentSize(w.p, nec(), r, g)->needed == Approx(50).epsilon(1e-9)); // no motor starts: what runs
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

TEST_CASE("conductors from a generator carry 115 % of its rated current up to the first device") {
    TwoBoards w;
    const SourceId g = w.generator(100);
    const BoardId ats = insertInFeed(w.p, w.ls, BoardUse::TransferSwitch);
    alternateFrom(w.p, ats, g);
    const BoardId gd = protectAlternate(w.p, ats, 80);
    w.p.boards.change(gd)->bus = 100;
    REQUIRE_FALSE(validate(w.p));
    const Results r = w.solved();
    // 100 kVA at 480 V: 120.3 A, × 1.15 = 138.3 A: 1/0 of 150 A at 75 °C. Behind its 80 A device, 60.1 A: #4 of 85 A.
    CHECK(r.of(gd).run.need.required.v == Approx(138.3).margin(0.1));
    CHECK(nec().sizes()[std::size_t(r.of(gd).run.size)].name == "1/0");
    CHECK(nec().sizes()[std::size_t(r.of(ats).alternateRun->size)].name == "4");
    // Its neutral goes through: the electrode is that of the service. A switch of four poles makes it a system of its
    // own.
    CHECK_FALSE(separatelyDerived(w.p, g));
    w.p.boards.change(ats)->switchesNeutral = true;
    CHECK(separatelyDerived(w.p, g));
    CHECK(separatelyDerived(w.p, w.source));
    removeBoard(w.p, gd);
    CHECK(w.p.boards[ats].alternate == Ref(g));
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
                         BoardUse::Ups, BoardUse::CtCabinet}) {
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

TEST_CASE("a transfer switch takes over what the board behind it was taken over by") {
    TwoBoards w;
    const SourceId g = w.generator();
    alternateFrom(w.p, w.ls, g);
    const RunId run = w.p.boards[w.ls].alternateRun;
    const BoardId ats = insertInFeed(w.p, w.ls, BoardUse::TransferSwitch);
    CHECK(w.p.boards[ats].alternate == Ref(g));
    CHECK(w.p.boards[ats].alternateRun == run);
    CHECK_FALSE(w.p.boards[w.ls].alternate);
    REQUIRE_FALSE(validate(w.p));
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

TEST_CASE("two hundred buildings with equipment in their feeds: sound, whole in each state, and as before without it") {
    int states = 0, standby = 0;
    for (std::uint32_t seed = 1; seed <= 200; ++seed) {
        INFO("seed " << seed);
        const Project plain = randomBuilding(seed, 2 + int(seed) % 12);
        Project p = plain;
        equip(p, seed);
        REQUIRE_FALSE(validate(p));
        REQUIRE(*readProject(writeProject(p), "equipped") == p);
        const Results r = solve(p, nec());
        checkWhole(p, r);
        for (const Circuit& c : p.circuits)
            if (r.of(c.id).standby) {
                ++standby;
                CHECK(r.of(c.id).va == 0);
            }
        for (const auto& state : r.states) {
            ++states;
            checkWhole(state->project, state->results);
            // What hangs below carries the same in every state, and nothing of it is lost on the way to a generator.
            Complex carried;
            for (BoardId b : state->takers) carried += state->results.of(b).phases.total();
            if (p.sources[state->source].kind == SourceKind::Generator)
                CHECK(std::abs(state->results.of(state->source).phases.total() - carried) < 0.01);
            for (Ref node : state->below) {
                const NodeResult &normal = *r.node(node), &on = *state->results.node(node);
                // Where several change over, one of them may leave what hangs on another.
                if (state->takers.size() == 1) CHECK(on.connected == Approx(normal.connected).margin(0.01));
                if (!state->takesOver(node.as<Board>()) && normal.run.size >= 0) CHECK(on.run.size == normal.run.size);
            }
        }
        // Taken out again, each board carries what it carried and is fed from what fed it.
        std::vector<BoardId> equipment;
        for (const Board& b : p.boards)
            if (passesOn(b.use) || b.use == BoardUse::Busway) equipment.push_back(b.id);
        for (BoardId b : equipment) // a busway from which something else takes over has a tap-off more
            for (const Board& taker : std::vector<Board>(p.boards.begin(), p.boards.end()))
                if (const Circuit* c = p.circuits.find(taker.alternate.as<Circuit>());
                    c && c->board == b && p.boards[b].use == BoardUse::Busway)
                    alternateFrom(p, taker.id, {});
        for (BoardId b : equipment) removeBoard(p, b);
        REQUIRE_FALSE(validate(p));
        const Results before = solve(plain, nec()), after = solve(p, nec());
        for (const Board& b : plain.boards) {
            CHECK(p.boards[b.id].feed == b.feed);
            CHECK(p.boards[b.id].run == b.run);
            CHECK(after.of(b.id).demand == Approx(before.of(b.id).demand).margin(0.01));
        }
    }
    CHECK(states > 50);
    CHECK(standby > 10);
}

TEST_CASE("feeds and alternates that go in a circle, however they were entered, are solved to an end") {
    for (std::uint32_t seed = 1; seed <= 150; ++seed) {
        INFO("seed " << seed);
        Random r(seed);
        Project p = randomBuilding(seed, 3 + int(seed) % 6);
        equip(p, seed);
        std::vector<Ref> anything;
        for (const Board& b : p.boards) anything.push_back(b.id);
        for (const Transformer& t : p.transformers) anything.push_back(t.id);
        for (const Source& s : p.sources) anything.push_back(s.id);
        for (const Circuit& c : p.circuits) anything.push_back(c.id);
        const auto any = [&] { return anything[std::size_t(r(int(anything.size())))]; };
        std::vector<BoardId> boards;
        for (const Board& b : p.boards) boards.push_back(b.id);
        for (BoardId b : boards) { // as a file could have it: nothing asks whether it makes sense
            if (r(3) == 0) p.boards.change(b)->alternate = any();
            if (r(6) == 0) p.boards.change(b)->feed = any();
        }
        const Results results = solve(p, nec());
        CHECK(results.order.size() == p.boards.size() + p.transformers.size() + p.sources.size());
        for (const auto& state : results.states) CHECK(state->results.order.size() == results.order.size());
        (void)findSnags(p, nec(), results);
        for (BoardId b : boards) (void)explain(p, nec(), results, b);
        for (const Circuit& c : p.circuits) (void)explain(p, nec(), results, c.id);
        (void)riserDiagram({p, nec(), results}, RiserLayout::OneLine, "E-502");
    }
}

TEST_CASE("enclosures beside one another are joined straight, others by way of the ceiling") {
    TwoBoards w;
    const LevelId ground = w.p.levels.begin()->id; // 3 m high, runs 0.3 m below the ceiling, 5 % of slack
    const auto place = [&](BoardId b, double x, double height) {
        Board& board = *w.p.boards.change(b);
        board.level = ground, board.onPlan = true, board.at = {x, 5}, board.height = height;
    };
    w.p.runs.change(w.p.boards[w.ls].run)->lengthBy = LengthBy::Reach;
    place(w.board, 2, 1.5);
    place(w.ls, 2.9, 1.5);
    CHECK(w.solved().of(w.ls).run.need.length.v == Approx(0.9 * 1.05));
    place(w.ls, 2.9, 1.1); // a lower enclosure: 0.4 m down
    CHECK(w.solved().of(w.ls).run.need.length.v == Approx((0.9 + 0.4) * 1.05));
    place(w.ls, 3.2, 1.5); // 1.2 m up, 1.2 m across, 1.2 m down
    CHECK(w.solved().of(w.ls).run.need.length.v == Approx((1.2 + 1.2 + 1.2) * 1.05));
    Level upper;
    upper.name = "Upper", upper.elevation = 4;
    const LevelId above = w.p.levels.add(upper);
    place(w.ls, 2.9, 1.5);
    w.p.boards.change(w.ls)->level = above; // one above the other is not beside: up to 6.7 m and down to 5.5 m
    CHECK(w.solved().of(w.ls).run.need.length.v == Approx((5.2 + 0.9 + 1.2) * 1.05));
}

TEST_CASE("metric: what opens a fault behind equipment is the breaker before it, its own fuses or its own breaker") {
    MetricBoard w;
    Board b;
    b.name = "DB-9", b.system = VoltageSystem::Y400, b.form = BoardForm::Ways, b.slots = 36;
    const BoardId db = addBoard(w.p, b);
    feedFrom(w.p, db, w.board);
    enter(w.p, w.p.boards[db].run, 30);
    const BoardId ds = insertInFeed(w.p, db, BoardUse::Disconnect);
    enter(w.p, w.p.boards[db].run, 3);
    const CircuitId feeder = w.p.boards[ds].feed.as<Circuit>();
    w.p.circuits.change(feeder)->heldBreaker = 50;
    w.p.circuits.change(feeder)->device = DeviceKind::TypeB;
    const CircuitId c = addCircuit(w.p, db, 3, "Pump");
    Load l;
    l.circuit = c, l.amount = 15, l.unit = LoadUnit::kW, l.poles = 3;
    w.p.loads.add(l);
    enter(w.p, w.p.circuits[c].run, 10);
    REQUIRE_FALSE(validate(w.p));
    const auto run = [&] { return w.results().of(db).run; };
    CHECK(run().need.cable->device == DeviceKind::TypeB);
    CHECK_FALSE(run().need.cable->unguarded);
    // 230 V × 0.95 / (5 × 50 A).
    CHECK(run().earth->limit == Approx(0.874).margin(0.001));
    w.p.boards.change(ds)->main = 63;
    CHECK(run().need.cable->device == DeviceKind::FuseGG);
    CHECK(run().need.device == 63);
    w.p.boards.change(ds)->use = BoardUse::ServiceDisconnect;
    CHECK(run().need.cable->device == bs().cables.usualLarge);
}

TEST_CASE("metric: a generator is part of the loop of what it takes over, and a circuit that then opens late is told") {
    MetricBoard w(0.02);
    w.p.boards.change(w.board)->ratingKA = 36;
    const BoardId ats = insertInFeed(w.p, w.board, BoardUse::TransferSwitch);
    Source g;
    g.name = "G-1", g.kind = SourceKind::Generator, g.kva = 20, g.subtransient = 20, g.xOverR = 1000,
    g.system = VoltageSystem::Y400;
    const SourceId id = w.p.sources.add(g);
    alternateFrom(w.p, ats, id);
    for (RunId run : {w.p.boards[ats].run, w.p.boards[ats].alternateRun, w.p.boards[w.board].run}) {
        w.p.runs.change(run)->lengthBy = LengthBy::Entered;
        w.p.runs.change(run)->length = 0.001;
    }
    const CircuitId c = w.run(5, 20);
    w.p.circuits.change(c)->heldBreaker = 32;
    w.p.circuits.change(c)->device = DeviceKind::TypeC;
    const Results r = w.results();
    REQUIRE(r.states.size() == 1);
    const RunResult &normal = r.of(c).run, &on = r.states.front()->results.of(c).run;
    // X" = 0.2 · 400² / 20 000 = 1.6 Ω; the limit of C32 is 218.5 / 320 = 0.683 Ω.
    CHECK(normal.earth->limit == Approx(0.683).margin(0.001));
    CHECK(normal.earth->inTime);
    CHECK(on.size == normal.size);
    CHECK(on.earth->zs > 1.6f);
    CHECK(on.earth->zs < 1.75f);
    CHECK_FALSE(on.earth->inTime);
    const auto snags = findSnags(w.p, bs(), r);
    CHECK(std::any_of(snags.begin(), snags.end(), [](const Snag& s) {
        return s.text == "LP-1: on G-1 the devices of 1 circuit do not open in time";
    }));
}
