// Worked by hand, from first principles and the tables.

#include "core/level/Level.h"
#include "core/project/Slots.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/Demand.h"
#include "core/solve/Fault.h"
#include "core/solve/PhaseLoads.h"
#include "tests/World.h"

using namespace lintel;

TEST_CASE("80 receptacles of 180 VA: 14 400 VA connected, 12 200 VA demand") {
    // 10 000 at 100 % + 4 400 at 50 % = 12 200 VA (220.47).
    OneBoard w;
    for (int c = 0; c < 10; ++c) {
        const CircuitId id = w.circuit(180, LoadUnit::VA, 1, -1, LoadKind::Receptacle);
        for (const Load& l : w.p.loads)
            if (l.circuit == id) w.p.loads.change(l.id)->quantity = 8;
    }
    const Results r = w.solved();
    CHECK(r.of(w.board).connected == Approx(14400));
    CHECK(r.of(w.board).demand == Approx(12200));
    CHECK(r.of(w.source).demand == Approx(12200)); // its own connected total, not a rule upon a rule
    checkWhole(w.p, r);
}

TEST_CASE("demand is taken on a node's own connected total, never a product down the tree") {
    // Two boards of 80 receptacles below one switchboard: 28 800 connected; 10 000 + 0.5 · 18 800 = 19 400, not 2 · 12
    // 200.
    OneBoard w(VoltageSystem::Y208, 84);
    for (int k = 0; k < 2; ++k) {
        Board b;
        b.name = "SUB-" + std::to_string(k);
        const BoardId id = addBoard(w.p, b);
        feedFrom(w.p, id, w.board);
        const CircuitId c = addCircuit(w.p, id, 1, "receptacles");
        Load l;
        l.circuit = c, l.amount = 14400, l.kind = LoadKind::Receptacle;
        w.p.loads.add(l);
    }
    const Results r = w.solved();
    CHECK(r.of(w.board).connected == Approx(28800));
    CHECK(r.of(w.board).demand == Approx(19400));
}

TEST_CASE("a 1 500 ft² dwelling with 12 kW range and 5.5 kW dryer: 18 600 VA, 77.5 A") {
    // 1 500 · 3 + 2 · 1 500 + 1 500 = 9 000; 3 000 + 0.35 · 6 000 = 5 100; range 8 000 (220.55); dryer 5 500 (220.54).
    OneBoard w(VoltageSystem::S240);
    w.p.basis.occupancy = Occupancy::Dwelling;
    w.circuit(9000, LoadUnit::VA, 2, -1, LoadKind::DwellingGeneral);
    w.circuit(12, LoadUnit::kW, 2, -1, LoadKind::Range);
    w.circuit(5.5, LoadUnit::kW, 2, -1, LoadKind::Dryer);
    const Results r = w.solved();
    CHECK(r.of(w.board).demandByKind[std::size_t(LoadKind::DwellingGeneral)] == Approx(5100));
    CHECK(r.of(w.board).demandByKind[std::size_t(LoadKind::Range)] == Approx(8000));
    CHECK(r.of(w.board).demandByKind[std::size_t(LoadKind::Dryer)] == Approx(5500));
    CHECK(r.of(w.board).demand == Approx(18600));
    CHECK(r.of(w.board).demandAmps.v == Approx(77.5));
}

TEST_CASE("kitchen equipment, dryers, motors, and heating against cooling") {
    struct Case {
        std::vector<std::pair<LoadKind, double>> loads;
        double demand;
        const char* source;
    };
    const Case cases[] = {
        {{{LoadKind::Kitchen, 5000}, {LoadKind::Kitchen, 4000}, {LoadKind::Kitchen, 1000}},
         9000,
         "220.56: 10 000 at 90 %, the largest two are 9 000"},
        {{{LoadKind::Kitchen, 8000}, {LoadKind::Kitchen, 8000}, {LoadKind::Kitchen, 500}, {LoadKind::Kitchen, 500}},
         16000,
         "220.56: 17 000 at 80 % = 13 600, but not less than 16 000"},
        {{{LoadKind::Dryer, 4000}}, 5000, "220.54: 5 000 at least"},
        {{{LoadKind::Motor, 4000}, {LoadKind::Motor, 2000}}, 7000, "430.24: 6 000 + 25 % of 4 000"},
        {{{LoadKind::Motor, 4000}, {LoadKind::Motor, 2000}, {LoadKind::Vertical, 15000}},
         24750,
         "430.24: 21 000 + 25 % of the one largest, 15 000"},
        {{{LoadKind::Motor, 4000}, {LoadKind::Vertical, 4000}}, 9000, "430.24: of two equal ones, one"},
        {{{LoadKind::Heating, 9000}, {LoadKind::Cooling, 12000}},
         15000,
         "220.60: the larger of the two, and 25 % of its compressor (430.24, 440.33)"},
        {{{LoadKind::Heating, 9000}, {LoadKind::Cooling, 9000}}, 9000, "220.60: one of two equal ones"},
        {{{LoadKind::Range, 8000}}, 6400, "220.55 column B: 80 % of 8 000, less than column C's 8 000"},
        {{{LoadKind::Range, 3000}, {LoadKind::Range, 3000}}, 4500, "220.55 column A: two at 75 %"},
        {{{LoadKind::Range, 3000}, {LoadKind::Range, 6000}}, 7200, "220.55 note 3: 80 % of 3 000 and 80 % of 6 000"},
        {{{LoadKind::Range, 12000}, {LoadKind::Range, 12000}, {LoadKind::Range, 3000}},
         13400,
         "220.55 note 3: column C of two, 11 000, and 80 % of 3 000; less than column C of three, 14 000"},
        {{{LoadKind::Range, 8750}, {LoadKind::Range, 8750}, {LoadKind::Range, 8750}},
         14000,
         "220.55 column C of three, less than 55 % of 26 250"},
        {{{LoadKind::Range, 16000}}, 9600, "220.55 note 1: 8 000 + 5 % for each of 4 kW over 12"}};
    for (const Case& c : cases) {
        INFO(c.source);
        OneBoard w(VoltageSystem::S240);
        for (const auto& [kind, va] : c.loads) w.circuit(va, LoadUnit::VA, 2, -1, kind);
        CHECK(w.solved().of(w.board).demand == Approx(c.demand));
    }
}

TEST_CASE("220.55, column C: the last row that has a figure of its own, and the first that is worked out") {
    // 25 ranges: 40 kW. From 26 on 15 kW and 1 kW for each.
    for (const auto& [count, demand] : {std::pair{24, 39'000.0}, {25, 40'000.0}, {26, 41'000.0}}) {
        INFO(count);
        OneBoard w(VoltageSystem::S240, 84);
        for (int i = 0; i < count; ++i) w.circuit(12'000, LoadUnit::VA, 2, -1, LoadKind::Range);
        CHECK(w.solved().of(w.board).demand == Approx(demand));
    }
}

TEST_CASE("voltage drop: 120 V, 16 A, copper in steel, 150 ft") {
    struct Case {
        const char* size;
        double percent;
    };
    // 2 · 16 · R · 0.150 / 120 with R of Table 9: 9.6 V, 5.76 V, 3.74 V, 2.35 V.
    for (const Case& c : {Case{"12", 8.0}, {"10", 4.8}, {"8", 3.12}, {"6", 1.96}}) {
        RunNeed n;
        n.system = VoltageSystem::Y208;
        n.poles = 1;
        CHECK(dropPercent(n, nec().find(c.size), 1, Amps{16}, feet(150), nec()) == Approx(c.percent).epsilon(1e-6));
    }
    RunNeed three; // √3 · 100 · (0.31 · 0.9 + 0.060 · 0.4359) · 0.2 / 480 = 2.203 %
    three.system = VoltageSystem::Y480;
    three.poles = 3;
    three.dropPowerFactor = 0.9;
    CHECK(dropPercent(three, nec().find("4"), 1, Amps{100}, feet(200), nec()) == Approx(2.2025).epsilon(1e-3));
    CHECK(dropPercent(three, nec().find("4"), 2, Amps{100}, feet(200), nec()) == Approx(1.10125).epsilon(1e-3));
}

TEST_CASE("fault levels at transformer terminals") {
    Source s;
    s.system = VoltageSystem::Y480;
    s.kind = SourceKind::UtilityTransformer;
    s.kva = 1500;
    s.percentZ = 5.75;
    CHECK(atSource(s).threePhase == Approx(31.38).epsilon(2e-4)); // 1 500 / (√3 · 0.48) / 0.0575
    s.system = VoltageSystem::S240;
    s.kva = 25;
    s.percentZ = 1.6;
    CHECK(atSource(s).lineLine == Approx(6.510).epsilon(2e-4));          // 25 000 / 240 / 0.016
    CHECK(atSource(s).lineNeutral == Approx(1.5 * 6.510).epsilon(2e-4)); // by convention
}

TEST_CASE("fault level through a transformer and a run, by hand") {
    // Source 20 kA, X/R 4 at 480 V: |Z| = 277.13/20 000 = 13.856 mΩ.
    Source s;
    s.faultKA = 20, s.xOverR = 4;
    const FaultPoint f = atSource(s);
    CHECK(f.threePhase == Approx(20));
    CHECK(f.lineLine == Approx(20 * root3 / 2));
    // 75 kVA, 4 %, X/R 1.5 at 208 V: 208²/75 000 · 0.04 = 23.07 mΩ; R = 12.80, X = 19.20. Source referred by (208/480)²
    // = 0.18778: R = 0.6311, X = 2.5243. Sum 13.43 + j21.72 = 25.54 mΩ; 120.09/25.54 mΩ = 4.702 kA.
    Transformer t;
    t.kva = 75, t.percentZ = 4, t.xOverR = 1.5;
    CHECK(std::abs(transformerOhms(t)) == Approx(0.023074).epsilon(1e-4));
    const FaultPoint after = afterTransformer(f, t);
    CHECK(after.threePhase == Approx(4.702).epsilon(1e-3));
    // 100 ft of 3/0 in steel, R at 20 °C: 0.079 · 254.5/309.5 = 0.06496; 6.496 + j5.2 mΩ more: 19.93 + j26.92 = 33.50
    // mΩ; 3.585 kA.
    const ConductorSize& c = nec().sizes()[std::size_t(nec().find("3/0"))];
    const Complex run =
        Complex{c.resistance[0][std::size_t(Raceway::Steel)], c.reactance[std::size_t(Raceway::Steel)]} * feet(100).v;
    CHECK(afterRun(after, {run.real() * coldFactor(Material::Copper), run.imag()},
                   {run.real() * coldFactor(Material::Copper), run.imag()}, {}, VoltageSystem::Y208)
              .threePhase == Approx(3.585).epsilon(1e-3));
}

TEST_CASE("line and neutral currents are phasor sums") {
    PhaseLoad even;
    even.ln = {1200.0, 1200.0, 1200.0};
    const LineCurrents i = lineCurrents(even, VoltageSystem::Y208);
    CHECK(i.lines[0] == Approx(1200 / (208 / root3)));
    CHECK(i.neutral == Approx(0).margin(1e-9));
    PhaseLoad one;
    one.ln = {1200.0, 0.0, 0.0};
    CHECK(lineCurrents(one, VoltageSystem::Y208).neutral == Approx(1200 / (208 / root3)));
    PhaseLoad two; // between A and B: the same in both, nothing in C or the neutral
    two.ll = {2080.0, 0.0, 0.0};
    const LineCurrents t = lineCurrents(two, VoltageSystem::Y208);
    CHECK(t.lines[0] == Approx(10));
    CHECK(t.lines[1] == Approx(10));
    CHECK(t.lines[2] == Approx(0).margin(1e-9));
    CHECK(t.neutral == 0);
    PhaseLoad single; // 120/240: 1 200 W on A and 600 W on B leave 5 A in the neutral
    single.ln = {1200.0, 600.0, 0.0};
    CHECK(lineCurrents(single, VoltageSystem::S240).neutral == Approx(5));
    // A load on one phase of the secondary of a delta–wye transformer flows in two lines of the primary.
    const PhaseLoad primary = onPrimary(one, VoltageSystem::Y208, VoltageSystem::Y480);
    const LineCurrents p = lineCurrents(primary, VoltageSystem::Y480);
    CHECK(p.lines[0] == Approx(1200.0 / 480));
    CHECK(p.lines[1] == Approx(1200.0 / 480));
    CHECK(p.lines[2] == Approx(0).margin(1e-9));
    // Power is kept, also of a load between lines.
    two.ll = {Complex{2080, 300}, 0.0, Complex{500, -100}};
    CHECK(std::abs(onPrimary(two, VoltageSystem::Y208, VoltageSystem::Y480).total() - two.total()) < 1e-9);
}

TEST_CASE("slots and phases") {
    Board b;
    b.slots = 42;
    const auto line = [&](int slot) { return lineOfSlot(b, slot); };
    CHECK(line(1) == 0);
    CHECK(line(2) == 0);
    CHECK(line(3) == 1);
    CHECK(line(4) == 1);
    CHECK(line(5) == 2);
    CHECK(line(6) == 2);
    CHECK(line(7) == 0);
    CHECK(line(42) == 2);
    CHECK(slotsTaken(b, 7, 3) == std::vector<int>{7, 9, 11});
    CHECK(slotsTaken(b, 40, 2) == std::vector<int>{40, 42});
    CHECK(slotsTaken(b, 41, 2).empty());
    b.system = VoltageSystem::S240;
    CHECK(line(1) == 0);
    CHECK(line(3) == 1);
    CHECK(line(5) == 0);
    CHECK(line(6) == 0);
    b.system = VoltageSystem::Y400;
    b.form = BoardForm::Ways;
    CHECK(line(1) == 0);
    CHECK(line(2) == 1);
    CHECK(line(3) == 2);
    CHECK(line(4) == 0);
    CHECK(slotsTaken(b, 4, 3) == std::vector<int>{4, 5, 6});
    CHECK(slotsTaken(b, 5, 3).empty()); // a three-pole device takes a whole way
}

TEST_CASE("schedules split a two-pole load in halves and a three-pole load in thirds") {
    OneBoard w;
    const CircuitId two = w.circuit(3000, LoadUnit::VA, 2), three = w.circuit(9000, LoadUnit::VA, 3);
    const Results r = w.solved();
    CHECK(r.of(two).phaseVa == std::array<double, 3>{1500, 1500, 0});
    for (double va : r.of(three).phaseVa) CHECK(va == Approx(3000));
    CHECK(r.of(w.board).phaseVa[0] == Approx(4500));
    CHECK(r.of(w.board).phaseVa[2] == Approx(3000));
    CHECK(r.of(w.board).imbalance == Approx((4500 - 4000) / 4000.0 * 100));
}

TEST_CASE("loads in W, kW, VA, kVA and A come to the same power") {
    const double va = 2080 * 2;
    CHECK(std::abs(powerOf(va, LoadUnit::VA, 0.8, VoltageSystem::Y208, 2, nec())) == Approx(va));
    CHECK(std::abs(powerOf(va / 1000, LoadUnit::kVA, 0.8, VoltageSystem::Y208, 2, nec())) == Approx(va));
    CHECK(std::abs(powerOf(va * 0.8, LoadUnit::W, 0.8, VoltageSystem::Y208, 2, nec())) == Approx(va));
    CHECK(std::abs(powerOf(va * 0.8 / 1000, LoadUnit::kW, 0.8, VoltageSystem::Y208, 2, nec())) == Approx(va));
    CHECK(std::abs(powerOf(20, LoadUnit::A, 0.8, VoltageSystem::Y208, 2, nec())) == Approx(va));
    CHECK(powerOf(20, LoadUnit::A, 0.8, VoltageSystem::Y208, 2, nec()).real() == Approx(va * 0.8));
    CHECK(std::abs(powerOf(20, LoadUnit::A, 1, VoltageSystem::Y480, 3, nec())) == Approx(20 * 480 * root3));
    CHECK(ampsOf(9000, VoltageSystem::Y208, 3).v == Approx(24.98).epsilon(1e-3));
}
