// Small changes to the arithmetic that once went unnoticed: each figure here is worked out by hand in the comment
// beside it.

#include "core/check/Check.h"
#include "core/project/Slots.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/Fault.h"
#include "core/solve/PhaseLoads.h"
#include "core/solve/RunParts.h"
#include "tests/World.h"

#include <numbers>

using namespace lintel;

TEST_CASE("motors add to line–line faults by √3/2 of what they add to three-phase ones") {
    Source s;
    s.system = VoltageSystem::Y480;
    s.faultKA = 30;
    FaultPoint f = atSource(s);
    CHECK(f.threePhase == Approx(30));
    CHECK(f.lineLine == Approx(25.981).margin(0.001)); // 30 · √3/2
    addMotors(f, 500'000, s.system);
    // 500 kVA / (√3 · 480 V) = 601.4 A; four times that 2.4056 kA; between two lines √3/2 of it, 2.0833 kA.
    CHECK(f.threePhase == Approx(32.4056).margin(0.001));
    CHECK(f.lineLine == Approx(28.064).margin(0.001));
    CHECK(f.lineNeutral == Approx(30)); // they feed no fault to neutral
    // Single-phase, 240 V: 24 kVA are 100 A, four times that 0.4 kA whole.
    s.system = VoltageSystem::S240;
    s.faultKA = 10;
    FaultPoint one = atSource(s);
    addMotors(one, 24'000, s.system);
    CHECK(one.lineLine == Approx(10.4).margin(0.001));
}

TEST_CASE("a fault at a branch's end goes out by the line and back by its like") {
    const FaultPoint board =
        given(10, 0, VoltageSystem::Y208); // resistive, so that ohms add: 120.09 V / 10 kA = 12.009 mΩ
    const Complex cold{0.05, 0};
    // One pole: 12.009 + 2 · 50 = 112.009 mΩ at 120.09 V.
    CHECK(atBranchEnd(board, cold, VoltageSystem::Y208, 1) == Approx(1.07214).margin(0.0002));
    // Two poles: 24.018 + 100 = 124.018 mΩ at 208 V.
    CHECK(atBranchEnd(board, cold, VoltageSystem::Y208, 2) == Approx(1.67718).margin(0.0002));
    // Three poles: 12.009 + 50 = 62.009 mΩ at 120.09 V.
    CHECK(atBranchEnd(board, cold, VoltageSystem::Y208, 3) == Approx(1.93664).margin(0.0002));
}

TEST_CASE("below a delta–wye transformer a fault to neutral sees the supply in two sequences of three") {
    Transformer t;
    t.kva = 45;
    t.percentZ = 4.5;
    t.xOverR = 0; // resistive, so that ohms add
    t.primary = VoltageSystem::Y480;
    t.secondary = VoltageSystem::Y208;
    CHECK(magnitude(transformerOhms(t)) == Approx(0.043264).margin(1e-6)); // 208² / 45 000 · 4.5 %
    const FaultPoint f = afterTransformer(given(10, 0, VoltageSystem::Y480), t);
    // Supply: 277.13 V / 10 kA = 27.713 mΩ, at 208 V times (208/480)² = 5.2039 mΩ. Z1 = Z2 = 48.468 mΩ, Z0 = 43.264 mΩ.
    CHECK(f.threePhase == Approx(2.47770).margin(0.0003));  // 120.09 / 48.468 mΩ
    CHECK(f.lineLine == Approx(2.14575).margin(0.0003));    // √3/2 of it
    CHECK(f.lineNeutral == Approx(2.56967).margin(0.0003)); // 3 · 120.09 / (48.468 + 48.468 + 43.264) mΩ
    // Single-phase 240 V, 25 kVA 2 %: 46.08 mΩ; line to neutral at the terminals a third of the winding's ohms at half
    // its volts: 1.5 times.
    Transformer one;
    one.kva = 25;
    one.percentZ = 2;
    one.xOverR = 0;
    one.primary = VoltageSystem::S240;
    one.secondary = VoltageSystem::S240;
    FaultPoint stiff = given(1000, 0, VoltageSystem::S240); // 0.24 mΩ, a quarter of it seen by the half winding
    const FaultPoint g = afterTransformer(stiff, one);
    CHECK(g.lineLine == Approx(5.18135).margin(0.0005));    // 240 / (0.24 + 46.08) mΩ
    CHECK(g.lineNeutral == Approx(7.78210).margin(0.0008)); // 120 / (0.06 + 15.36) mΩ
}

TEST_CASE("the next rating above the ampacity is allowed up to 800 A, and not beyond") {
    // 240.4(B), (C). 780 A: device 800 A. Two sets of 500 kcmil carry 2 · 380 = 760 A at 75 °C, less than the load; 600
    // kcmil 2 · 420 = 840.
    OneBoard w;
    w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 2000;
    w.p.basis.largestPreferred = "500";
    w.p.basis.upsizingCeiling = 0;
    const auto sets = [](const RunResult& r) {
        return std::pair(r.sets, r.size < 0 ? std::string() : nec().sizes()[std::size_t(r.size)].name);
    };
    const CircuitId at750 = w.circuit(750, LoadUnit::A, 3);
    CHECK(w.solved().of(at750).device == 800);
    CHECK(sets(w.solved().of(at750).run) ==
          std::pair(2, std::string("500"))); // 760 A carries 750, and 800 is the next rating above 760
    // 940 A: device 1000 A. Three sets of 350 carry 930, of 400 3 · 335 = 1005 A. Next ratings are not allowed here:
    // 400 it is, though three of 400 are also the first that carry the load; so 925 A, which three of 350 would carry.
    const CircuitId at925 = w.circuit(925, LoadUnit::A, 3);
    CHECK(w.solved().of(at925).device == 1000);
    CHECK(sets(w.solved().of(at925).run) == std::pair(3, std::string("400")));
}

TEST_CASE("a neutral by its own load counts what is above 200 A at 70 %, nonlinear loads in full") {
    // 220.61(B). 300 A: 200 + 0.7 · 100 = 270 A: 300 kcmil carries 285 at 75 °C, 250 kcmil 255. Lines of 500 kcmil, no
    // smaller limit.
    RunResult run;
    run.size = nec().find("500");
    run.sets = 1;
    run.need.poles = 3;
    run.need.neutral = true;
    run.need.wiring = Wiring::McCable;
    run.need.material = Material::Copper;
    RunNeed& need = run.need;
    need.neutralBy = NeutralBy::Calculated;
    need.neutralAmps = 300;
    const auto neutral = [&] { return nec().sizes()[std::size_t(neutralOf(run, nec()).size)].name; };
    CHECK(neutral() == "300");
    need.nonlinear = true; // 300 A whole: 350 kcmil carries 310
    CHECK(neutral() == "350");
    need.nonlinear = false;
    need.neutralAmps = 200; // nothing above it: 3/0 carries 200
    CHECK(neutral() == "3/0");
    need.neutralAmps = 207; // 200 + 4.9 = 204.9 A: 4/0 carries 230
    CHECK(neutral() == "4/0");
}

TEST_CASE("a bonding jumper beyond the table is 12.5 % of the lines; main bonding is half the earthing conductor") {
    // 250.102(C)(1), note 1: 2 000 kcmil of copper lines: 250 kcmil; 1 800: 225, so 250; 2 004: 250.5, so 300.
    const auto jumper = [&](double kcmil, Material lines, Material own) {
        return nec().sizes()[std::size_t(nec().jumperFor(kcmil, lines, own))].name;
    };
    CHECK(jumper(2000, Material::Copper, Material::Copper) == "250");
    CHECK(jumper(2004, Material::Copper, Material::Copper) == "300");
    CHECK(jumper(1800, Material::Copper, Material::Copper) == "250");
    CHECK(jumper(1100, Material::Copper, Material::Copper) == "2/0"); // the last row of the table itself
    // Of another metal, by the area that its own metal would need. Aluminium lines of 2 400 kcmil and a copper jumper:
    // 2 400 · 0.125 / 1.6 = 187.5 kcmil, so 4/0; copper lines of 1 200 and one of aluminium: 240 kcmil, so 250.
    CHECK(jumper(2400, Material::Aluminium, Material::Copper) == "4/0");
    CHECK(jumper(1200, Material::Copper, Material::Aluminium) == "250");
    // 544.1.1: half of the earthing conductor, at least 6 mm² and at most 25. Lines of 70 mm²: earthing 35, half 17.5,
    // so 25 mm².
    MetricBoard w;
    RunResult run;
    run.sets = 1;
    run.need.cable.make().earthing = Earthing::TNS;
    const auto bond = [&](const char* lines) {
        run.size = bs().find(lines);
        const Bonding b = bondingOf(run, Material::Copper, bs());
        return std::pair(w.mm2(b.electrode), w.mm2(b.jumper));
    };
    CHECK(bond("70") == std::pair(35.0, 25.0));
    CHECK(bond("35") == std::pair(16.0, 10.0));      // half of 16 is 8
    CHECK(bond("10") == std::pair(10.0, 6.0));       // half of 10 is 5, at least 6
    CHECK(bond("150") == std::pair(95.0, 25.0));     // half of 75 is 37.5, at most 25; 75 is not made, 95 is
    run.need.cable.make().earthing = Earthing::TNCS; // Table 54.8: by the neutral
    CHECK(bond("35").second == 10);
    CHECK(bond("70").second == 25);
}

TEST_CASE("loads on the neutral of each line: single-pole circuits, and those of a board below through its feeder") {
    OneBoard w;
    w.circuit(1000);                  // place 1, on A
    w.circuit(2400, LoadUnit::VA, 2); // between two lines: none of it is on the neutral
    w.circuit(600);
    w.circuit(9000, LoadUnit::VA, 3);
    const Results r = w.solved();
    const auto& va = r.of(w.board).neutralVa;
    std::array<double, 3> byHand{};
    for (const Circuit& c : w.p.circuits)
        if (c.poles == 1) byHand[std::size_t(lineOfSlot(w.p.boards[w.board], c.slot))] += c.id.value == 1 ? 1000 : 600;
    for (std::size_t i = 0; i < 3; ++i) CHECK(va[i] == Approx(byHand[i]));
    CHECK(va[0] + va[1] + va[2] == Approx(1600));
}

TEST_CASE("a transformer that does not restart the drop loses its regulation at its load") {
    // 45 kVA, 3.5 %, X/R 2: R 1.5652 %, X 3.1305 %. 30 kVA at 0.8: 2/3 · (1.5652 · 0.8 + 3.1305 · 0.6) = 2.087 %.
    OneBoard w(VoltageSystem::Y480);
    const CircuitId feeder = addCircuit(w.p, w.board, 3, "T-1");
    Transformer t;
    t.name = "T-1";
    t.kva = 45;
    t.percentZ = 3.5;
    t.xOverR = 2;
    t.primary = VoltageSystem::Y480;
    t.secondary = VoltageSystem::Y208;
    t.restartsDrop = false;
    t.feed = feeder;
    const TransformerId id = w.p.transformers.add(t);
    Board below;
    below.name = "LP-2";
    below.system = VoltageSystem::Y208;
    below.main = below.bus = 150;
    below.feed = id;
    const BoardId board = w.p.boards.add(below);
    const CircuitId c = addCircuit(w.p, board, 3, "load");
    Load l;
    l.circuit = c;
    l.amount = 24;
    l.unit = LoadUnit::kW;
    l.poles = 3;
    l.powerFactor = 0.8;
    w.p.loads.add(l);
    const Results r = w.solved();
    CHECK(r.of(id).regulation == Approx(2.087).margin(0.002));
    CHECK(r.of(id).dropBelow == Approx(r.of(id).dropTotal + 2.087).margin(0.002));
    w.p.transformers.change(id)->boost = 2.5; // a tap up
    CHECK(w.solved().of(id).dropBelow == Approx(r.of(id).dropTotal + 2.087 - 2.5).margin(0.002));
    CHECK(w.solved().of(board).dropTotal == Approx(r.of(board).dropTotal - 2.5).margin(1e-6));
    w.p.transformers.change(id)->restartsDrop = true;
    CHECK(w.solved().of(id).dropBelow == 0);
}

TEST_CASE("a fault that its fuse does not clear in 5 s is counted as lasting 5 s") {
    // 100 A gG on 250 m of armoured cable: less than 520 A flows, and the fuse takes longer than any disconnection
    // time. What the conductor would need is judged for 5 s: S = I · √5 / k, with I from the loop itself.
    MetricBoard w(0.1);
    const CircuitId c = w.run(50, 250, 3);
    w.p.circuits.change(c)->device = DeviceKind::FuseGG;
    lintel::Run& run = runOf(w.p, c);
    run.cable = "single-core 70 °C";
    run.method = "B";
    run.heldSize = "35";
    run.heldGround = "16";
    const Results results = w.results();
    const auto& e = *results.of(c).run.earth;
    const double amps = double(e.amps);
    CHECK(amps ==
          Approx(359).margin(5)); // 218.5 V / (0.1 + (0.524 + 1.15) · 1.2 · 0.25) Ω, a little less with its reactance
    CHECK_FALSE(e.inTime);
    CHECK(double(e.seconds) > 5);
    CHECK(double(e.needed) ==
          Approx(amps * std::sqrt(5.0) / 143).epsilon(1e-4)); // k of a separate copper conductor at 70 °C
    CHECK(double(e.has) == Approx(16));
}

TEST_CASE("TT: fuses are held to the times of that system, 0.2 s and 1 s, not to 0.4 s and 5 s") {
    // BS 7671, Table 41.1: 0.2 s for final circuits up to 32 A, 1 s for others. Currents of gG fuses from the limits of
    // Tables 41.2 and 41.4: 32 A 220.7 A in 0.4 s; 63 A 496.6 A in 0.4 s and 280.1 A in 5 s; 100 A 520.2 A in 5 s.
    const auto limitAt = [](double device, Earthing earthing) {
        MetricBoard w(0.1);
        w.p.sources.change(w.source)->earthing = earthing;
        const CircuitId c = w.run(5, 10, 3);
        w.p.circuits.change(c)->device = DeviceKind::FuseGG;
        w.p.circuits.change(c)->heldBreaker = device;
        return double(w.results().of(c).run.earth->limit);
    };
    // 0.2 s at the I²t of 0.4 s: 220.7 · √2 = 312.1 A; 218.5 V / 312.1 A.
    CHECK(limitAt(32, Earthing::TT) == Approx(0.7001).epsilon(0.001));
    // Between 0.4 and 5 s on logarithms: 63 A falls by 12.5 in time while the current falls by 1.773, so that five
    // times less than 5 s takes 1.773^(ln 5 / ln 12.5) = 1.441 times the current, 403.5 A; 100 A as steeply, 749.3 A.
    CHECK(limitAt(63, Earthing::TT) == Approx(218.5 / 403.5).epsilon(0.001));
    CHECK(limitAt(100, Earthing::TT) == Approx(218.5 / 749.3).epsilon(0.001));
    // TN: 0.4 s and 5 s, as the tables have them: 0.99 Ω, 0.78 Ω and 0.42 Ω.
    CHECK(limitAt(32, Earthing::TNS) == Approx(0.99).margin(0.001));
    CHECK(limitAt(63, Earthing::TNS) == Approx(0.78).margin(0.001));
    CHECK(limitAt(100, Earthing::TNS) == Approx(0.42).margin(0.001));
}

TEST_CASE("armour as the protective conductor counts with the area that its resistance means") {
    // Four cores of 35 mm², 90 °C: armour of 2.0 mΩ/m at 20 °C. Steel of 0.138 Ω·mm²/m: 0.138 / 0.0020 = 69 mm²; k of
    // steel at 90 °C is 46.
    MetricBoard w(0.1);
    const CircuitId c = w.run(40, 30, 3);
    lintel::Run& run = runOf(w.p, c);
    run.cable = "armoured 90 °C";
    run.heldSize = "35";
    w.p.boards.change(w.board)->feed = w.source;
    const Results results = w.results();
    const auto& e = *results.of(c).run.earth;
    REQUIRE(e.armour);
    const double cores = results.of(c).run.need.neutral ? 69 : 0.138 / 0.0023; // three cores: 2.3 mΩ/m
    CHECK(double(e.has) == Approx(cores).epsilon(1e-3));
    CHECK(double(e.needed) ==
          Approx(std::sqrt(double(e.amps) * double(e.amps) * double(e.seconds)) / 46).epsilon(1e-3));
}

TEST_CASE("which way a board leans: by hand, on three lines and on two") {
    // S_a + a·S_b + a²·S_c over the sum, a = 1∠120°: of 300, 100, 100 the even 100 go, 200 of 500 are left.
    const auto leans = [](std::array<double, 3> va, int lines) { return leanOf(va, lines); };
    const Complex a = std::polar(1.0, 2 * std::numbers::pi / 3);
    for (const auto& [va, wanted] : {std::pair{std::array<double, 3>{300, 100, 100}, Complex(0.4)},
                                     {{100, 300, 100}, 0.4 * a},
                                     {{100, 100, 300}, 0.4 * a * a},
                                     {{200, 200, 200}, Complex(0)},
                                     {{0, 0, 0}, Complex(0)}})
        CHECK(std::abs(leans(va, 3) - wanted) < 1e-9);
    // Two lines are opposite: (300 − 100)/400.
    CHECK(std::abs(leans({300, 100, 0}, 2) - Complex(0.5)) < 1e-9);
    CHECK(std::abs(leans({100, 300, 0}, 2) + Complex(0.5)) < 1e-9);
}

TEST_CASE("the metal of a run by hand, of the smallest size too") {
    // Two #14 AWG of 2.08 mm², 100 ft one way: 2 · 2.08e-6 m² · 30.48 m · 8 890 kg/m³ = 1.127 kg. Without a length:
    // none.
    OneBoard w;
    const CircuitId c = w.circuit(500, LoadUnit::VA, 1, 100);
    w.p.circuits.change(c)->heldBreaker = 15;
    runOf(w.p, c).heldSize = "14";
    const CircuitId unknown = w.circuit(500);
    const Results r = w.solved();
    REQUIRE(r.of(c).run.size == 0);
    CHECK(conductorMass(r.of(c).run, nec()) == Approx(1.127).epsilon(0.005));
    CHECK(conductorMass(r.of(unknown).run, nec()) == 0);
}
