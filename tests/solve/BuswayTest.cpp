// A busway with its tap-offs, and a UPS with what it takes beside, against figures worked out by hand.

#include "core/solve/Busway.h"
#include "core/check/Assumptions.h"
#include "core/check/Check.h"
#include "core/project/AddBelow.h"
#include "core/project/Validation.h"
#include "core/sheets/Sheets.h"
#include "core/solve/EquipmentSize.h"
#include "core/solve/States.h"
#include "tests/World.h"

using namespace lintel;

namespace {

/// 480 V and 20 kA, X/R 4, at the fed end of 60 m of bars, with 30 kVA at 20 m and 60 kVA at 50 m.
struct Bars : OneBoard {
    CircuitId near, far;
    Bars() : OneBoard(VoltageSystem::Y480) {
        p.basis.units = UnitSystem::Metric;
        Board& b = *p.boards.change(board);
        b.name = "BW-1";
        b.use = BoardUse::Busway;
        b.form = BoardForm::Ways;
        b.bus = b.main = 225;
        b.barLength = 60;
        b.barR20 = 0.1;
        b.barR = 0.125;
        b.barX = 0.05;
        b.barLoopR20 = 0.3;
        b.barLoopX = 0.1;
        near = circuit(30, LoadUnit::kVA, 3);
        far = circuit(60, LoadUnit::kVA, 3);
        p.circuits.change(near)->along = 20;
        p.circuits.change(far)->along = 50;
    }
};

} // namespace

TEST_CASE("drop along a busway: each metre of bar carries what hangs beyond it") {
    Bars w;
    const Results r = w.solved();
    const double before = r.of(w.board).dropTotal;
    // 90 kVA at 480 V is 108.25 A, 36.08 A of it at 20 m and 72.17 A at 50 m; power factor 1.
    // For one A·m: √3 · 0.125 mΩ / 480 V = 4.5105e-7.
    CHECK(r.of(w.near).tap->dropOwn == Approx(4.5105e-5 * 108.25 * 20).epsilon(1e-4));
    CHECK(r.of(w.far).tap->dropOwn == Approx(4.5105e-5 * (36.084 * 20 + 72.169 * 50)).epsilon(1e-4));
    CHECK(r.of(w.far).tap->dropOwn == Approx(0.1953).epsilon(1e-3));
    CHECK(r.of(w.far).tap->dropKnown);
    CHECK(r.of(w.far).run.need.totalBefore == Approx(before + 0.1953).epsilon(1e-3));

    // Where nobody says where it stands, it counts at the far end: 36.084 · 20 + 72.169 · 60.
    w.p.circuits.change(w.far)->along.reset();
    CHECK(w.solved().of(w.far).tap->dropOwn == Approx(4.5105e-5 * 5051.8).epsilon(1e-4));

    // Without its maker's figures nothing is known of the drop, and nothing is made up.
    w.p.boards.change(w.board)->barR = 0;
    CHECK_FALSE(w.solved().of(w.far).tap->dropKnown);
    CHECK_FALSE(w.solved().of(w.far).run.need.beforeKnown);
}

TEST_CASE("a tap-off on fewer lines loses more of its own voltage: out by its line and back by the neutral") {
    Bars w;
    const CircuitId one = w.circuit(5, LoadUnit::kVA, 1), two = w.circuit(5, LoadUnit::kVA, 2);
    for (CircuitId c : {one, two}) w.p.circuits.change(c)->along = 20;
    const Results r = w.solved();
    // Where three lines lose I·z/277 V, one loses 2·I·z/277 V, and two lose 2·I·z/480 V: 2/√3 times as much.
    const double three = r.of(w.near).tap->dropOwn;
    CHECK(r.of(one).tap->dropOwn == Approx(2 * three));
    CHECK(r.of(two).tap->dropOwn == Approx(2 / std::sqrt(3.0) * three));
}

TEST_CASE("faults along a busway: the bars up to the tap-off in series") {
    Bars w;
    const Results r = w.solved();
    // 480/√3/20 kA = 13.856 mΩ at X/R 4: 3.361 + j13.443. 50 m of bars add 5 + j2.5: |8.361 + j15.943| = 18.002 mΩ.
    CHECK(r.of(w.far).tap->fault.threePhase == Approx(277.128 / 18.002).epsilon(1e-3));
    CHECK(r.of(w.near).tap->fault.threePhase > r.of(w.far).tap->fault.threePhase);
    CHECK(largestFault(w.p, r, w.p.circuits[w.far]).kA < largestFault(w.p, r, w.board).kA);
    // A fault to ground comes back by the protective path: 0.3 + j0.1 mΩ/m out and back.
    const FaultPoint& fed = r.of(w.board).fault;
    const FaultPoint& there = r.of(w.far).tap->fault;
    CHECK(there.zlg.real() - fed.zlg.real() == Approx(0.3 * 50e-3).epsilon(1e-6));
    CHECK(there.zlg.imag() - fed.zlg.imag() == Approx(0.1 * 50e-3).epsilon(1e-6));
    // In the loop for disconnection the bars are warm: resistance × 0.125/0.1.
    CHECK(there.loop.real() - fed.loop.real() == Approx(0.3 * 1.25 * 50e-3).epsilon(1e-6));

    // A fault that finds the bars at 75 °C: copper has (234.5 + 75)/(234.5 + 20) = 1.2161 of its resistance at 20 °C;
    // 3.361 + 5 · 1.2161 + j15.943: 18.529 mΩ, and the loop's 0.3 mΩ/m likewise.
    w.p.basis.faultCelsius = 75;
    const Results warm = w.solved();
    CHECK(warm.of(w.far).tap->fault.threePhase == Approx(277.128 / 18.529).epsilon(1e-3));
    CHECK(warm.of(w.far).tap->fault.zlg.real() - warm.of(w.board).fault.zlg.real() ==
          Approx(0.3 * 1.2161 * 50e-3).epsilon(1e-4));
    w.p.basis.faultCelsius = 20;

    // Where nobody says where it stands: the largest fault is that of the fed end, the loop that of the far end.
    w.p.circuits.change(w.far)->along.reset();
    const Results open = w.solved();
    CHECK(open.of(w.far).tap->fault.threePhase == Approx(open.of(w.board).fault.threePhase));
    CHECK(open.of(w.far).tap->fault.loop.real() - fed.loop.real() == Approx(0.3 * 1.25 * 60e-3).epsilon(1e-6));
}

TEST_CASE("what hangs on a tap-off begins with the drop and the fault of its place") {
    Bars w;
    Board below;
    below.name = "LP-2";
    below.system = VoltageSystem::Y480;
    const BoardId fed = addBoard(w.p, below);
    REQUIRE_FALSE(refuseFeed(w.p, fed, w.board));
    feedFrom(w.p, fed, w.board);
    const CircuitId tap = w.p.boards[fed].feed.as<Circuit>();
    w.p.circuits.change(tap)->along = 50;
    Run& run = runOfNode(w.p, fed);
    run.lengthBy = LengthBy::Entered;
    run.length = 10;
    const CircuitId load = addCircuit(w.p, fed, 3, "Saw");
    Load l;
    l.circuit = load, l.amount = 20, l.unit = LoadUnit::kVA, l.poles = 3;
    w.p.loads.add(l);
    const Results r = w.solved();
    CHECK(r.of(fed).run.need.totalBefore == Approx(r.of(tap).tap->dropTotal));
    CHECK(r.of(fed).dropTotal == Approx(r.of(tap).tap->dropTotal + r.of(fed).run.dropOwn));
    CHECK(r.of(fed).fault.threePhase < r.of(tap).tap->fault.threePhase);
    checkWhole(w.p, r);
    // The bars are in its workings, and where the tap-off stands.
    const std::string told = explain(w.p, nec(), r, fed).text();
    CHECK(told.find("Drop in the bars") != std::string::npos);
    CHECK(told.find("50 m along BW-1") != std::string::npos);
}

TEST_CASE("a tap-off that goes to another board stands nowhere along it yet") {
    Bars w;
    Board other = w.p.boards[w.board];
    other.id = {};
    other.name = "BW-2";
    other.run = {};
    const BoardId two = addBoard(w.p, other);
    const MovePlan plan = planMoveTo(w.p, {w.far}, two);
    REQUIRE(plan.possible);
    applyMove(w.p, plan);
    CHECK(w.p.circuits[w.far].board == two);
    CHECK_FALSE(w.p.circuits[w.far].along);
    CHECK(w.p.circuits[w.near].along == 20);
}

TEST_CASE("a busway below a source, in front of a board, and taken away again") {
    OneBoard w(VoltageSystem::Y480);
    (void)w.circuit(30, LoadUnit::kVA, 3);
    REQUIRE_FALSE(refuseBelow(w.p, w.source, NewBelow::Busway));
    const Board& made = w.p.boards[addBelow(w.p, w.source, NewBelow::Busway).as<Board>()];
    CHECK(made.name == "BW-1");
    CHECK(made.use == BoardUse::Busway);
    CHECK(made.system == VoltageSystem::Y480);
    const RunId run = w.p.boards[w.board].run;
    const BoardId front = insertInFeed(w.p, w.board, BoardUse::Busway);
    CHECK(w.p.boards[front].name == "BW-2");
    CHECK(w.p.boards[front].feed == Ref(w.source));
    const Circuit* tap = w.p.circuits.find(w.p.boards[w.board].feed.as<Circuit>());
    REQUIRE(tap);
    CHECK(tap->board == front);
    CHECK(tap->poles == 3);
    CHECK_FALSE(validate(w.p));
    const Results r = w.solved();
    CHECK(r.of(w.board).fed);
    checkWhole(w.p, r);
    // With one tap-off it gives the feed back as it was; with a load of its own, what hangs on it hangs free.
    Project loaded = w.p;
    Load l;
    l.circuit = addCircuit(loaded, front, 3, "Saw"), l.amount = 5000, l.poles = 3;
    loaded.loads.add(l);
    removeBoard(loaded, front);
    CHECK_FALSE(loaded.boards[w.board].feed);
    CHECK_FALSE(validate(loaded));
    removeBoard(w.p, front);
    CHECK(w.p.boards[w.board].feed == Ref(w.source));
    CHECK(w.p.boards[w.board].run == run);
    CHECK_FALSE(validate(w.p));
}

TEST_CASE("a UPS takes what it gives, what it loses, and what its battery is charged with") {
    OneBoard w(VoltageSystem::Y480);
    (void)w.circuit(27, LoadUnit::kW, 3, -1, LoadKind::Equipment, false, 0.9);
    const BoardId ups = insertInFeed(w.p, w.board, BoardUse::Ups);
    const Results plain = w.solved();
    CHECK(plain.of(ups).demand == Approx(30000)); // 27 kW at 0.9
    CHECK(plain.of(ups).ups->losses == 0);        // nothing is entered of it, and nothing is added

    Board& b = *w.p.boards.change(ups);
    b.efficiency = 0.9;
    b.rechargeKW = 2;
    const Results r = w.solved();
    // 27 kW / 0.9 = 30 kW, 3 kW of them lost, and 2 kW to charge: 32 kW and the 13.08 kvar of its loads.
    CHECK(r.of(ups).ups->losses == Approx(5000));
    CHECK(std::abs(r.of(ups).ups->out) == Approx(30000));
    CHECK(r.of(ups).demand == Approx(std::hypot(32000, 27000 * std::tan(std::acos(0.9)))));
    CHECK(r.of(ups).demandAmps.v == Approx(34569 / (std::sqrt(3.0) * 480)).epsilon(1e-4));
    CHECK(r.of(w.source).demand == Approx(r.of(ups).demand)); // and its supply carries it
    checkWhole(w.p, r);

    // 30 kVA behind it: 31.3 is the next. With 25 kW for 32 kVA the 27 kW ask for 34.56 kVA: 37.5.
    CHECK(equipmentSize(w.p, nec(), r, ups)->size == 31.3);
    w.p.boards.change(ups)->kva = 32;
    w.p.boards.change(ups)->kw = 25;
    const auto size = equipmentSize(w.p, nec(), w.solved(), ups);
    CHECK(size->needed == Approx(34.56));
    CHECK(size->size == 37.5);
    enterEquipmentSize(w.p, ups, size->size);
    CHECK(w.p.boards[ups].kva == 37.5);
    CHECK(w.p.boards[ups].kw == Approx(37.5 * 25 / 32)); // the same for each kVA
}

TEST_CASE("sizes by the load: transformer with growth, generator by its start, board by what is continuous") {
    OneBoard w(VoltageSystem::Y480);
    w.p.basis.growth = 0.25;
    (void)w.circuit(32, LoadUnit::kVA, 3, -1, LoadKind::Equipment, true);
    const Results r = w.solved();
    // 32 kVA is 38.49 A; with a quarter for growth 48.11, all of it continuous: × 1.25 = 60.14 A, 70 A of the series.
    const auto board = equipmentSize(w.p, nec(), r, w.board);
    REQUIRE(board);
    CHECK(std::string(board->unit) == "A");
    CHECK(board->needed == Approx(60.14).epsilon(1e-3));
    CHECK(board->size == 70);
    enterEquipmentSize(w.p, w.board, 70);
    CHECK(w.p.boards[w.board].main == 70);
    CHECK(w.p.boards[w.board].bus == 225); // a bus that holds it stays
    enterEquipmentSize(w.p, w.board, 300); // and one that does not rises with its main
    CHECK(w.p.boards[w.board].main == 300);
    CHECK(w.p.boards[w.board].bus == 300);
    enterEquipmentSize(w.p, w.board, 70);
    w.p.boards.change(w.board)->bus = 225;

    Transformer t;
    t.name = "T-1";
    t.kva = 15;
    t.run = w.p.runs.add({});
    const TransformerId id = w.p.transformers.add(t);
    feedFrom(w.p, id, w.board);
    Board lp;
    lp.name = "LP-2";
    const BoardId low = addBoard(w.p, lp);
    feedFrom(w.p, low, id);
    const CircuitId c = addCircuit(w.p, low, 3, "Oven");
    Load l;
    l.circuit = c, l.amount = 40, l.unit = LoadUnit::kVA, l.poles = 3;
    w.p.loads.add(l);
    const auto transformer = equipmentSize(w.p, nec(), w.solved(), id); // 40 kVA × 1.25 = 50: 75 kVA
    REQUIRE(transformer);
    CHECK(transformer->needed == Approx(50));
    CHECK(transformer->size == 75);
    CHECK_FALSE(equipmentSize(w.p, nec(), w.solved(), w.source)); // a utility is what it is
}

TEST_CASE("a transformer in front of a board takes over its feed, with the voltages of both sides") {
    OneBoard w; // 208Y/120 V
    (void)w.circuit(12, LoadUnit::kVA, 3);
    w.p.sources.change(w.source)->system = VoltageSystem::Y480;
    const RunId run = w.p.boards[w.board].run;
    REQUIRE_FALSE(refuseTransformerBefore(w.p, w.board));
    const TransformerId t = insertTransformer(w.p, w.board, 15);
    CHECK(w.p.transformers[t].primary == VoltageSystem::Y480);
    CHECK(w.p.transformers[t].secondary == VoltageSystem::Y208);
    CHECK(w.p.transformers[t].feed == Ref(w.source));
    CHECK(w.p.transformers[t].run == run);
    CHECK(w.p.boards[w.board].feed == Ref(t));
    CHECK(w.p.boards[w.board].run != run);
    CHECK_FALSE(validate(w.p));
    // 12 kVA on the secondary: 33.3 A there and 14.4 A at 480 V.
    const Results r = w.solved();
    CHECK(r.of(w.board).demandAmps.v == Approx(33.31).epsilon(1e-3));
    CHECK(r.of(t).demandAmps.v == Approx(14.43).epsilon(1e-3));
    CHECK(refuseTransformerBefore(w.p, w.board)); // one on another is none
    clearFeed(w.p, w.board);
    CHECK(refuseTransformerBefore(w.p, w.board)->what == "LP-1 is fed from nothing");
    // Three phases do not come of one.
    OneBoard single;
    single.p.sources.change(single.source)->system = VoltageSystem::S240;
    CHECK(refuseTransformerBefore(single.p, single.board));
}

TEST_CASE("what a maker says of a busway, and what nobody says, is listed for the checker and stands on its schedule") {
    Bars w;
    w.p.circuits.change(w.far)->along.reset();
    const Results r = w.solved();
    bool bars = false, place = false;
    for (const Assumption& a : assumptionsOf({w.p, nec(), r})) {
        if (a.about == Ref(w.board) && a.what == "Bars of the busway") {
            bars = true;
            CHECK(a.kind == AssumptionKind::Given);
            CHECK(a.why == "its maker's data");
        }
        if (a.what == "Place of a tap-off") {
            place = true;
            CHECK(a.kind == AssumptionKind::Assumed);
            CHECK(a.about == Ref(w.far)); // of the other it is known
        }
    }
    CHECK(bars);
    CHECK(place);
    std::string sheet;
    for (std::size_t page = 0; page < schedulePages({w.p, nec(), r}, w.board); ++page)
        sheet += panelSchedule({w.p, nec(), r}, w.board, "E-601", page).words();
    INFO(sheet);
    CHECK(sheet.find("BUSWAY SCHEDULE") != std::string::npos);
    CHECK(sheet.find("Circuit 1: tapped 20.0 m from the fed end.") != std::string::npos);
}
