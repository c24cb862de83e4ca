// Metric sizing by hand: each figure is worked out in the comment beside it from the tables of BS 7671.

#include "core/check/Check.h"
#include "core/solve/RunParts.h"
#include "core/solve/TesterReadings.h"
#include "tests/World.h"

using namespace lintel;

TEST_CASE("a cooker on flat twin and earth, clipped direct: every figure by hand") {
    MetricBoard w;
    const CircuitId c = w.run(7.2, 20);
    const Results results = w.results();
    const CircuitResult& r = results.of(c);
    CHECK(r.load.v == Approx(31.30).margin(0.01)); // 7 200 / 230
    CHECK(r.device == 32);
    CHECK(r.kindOfDevice == DeviceKind::TypeB);
    CHECK(w.mm2(r.run.size) == 4); // 37 A ≥ 32 A; 2.5 mm² carries 27
    CHECK(r.run.why == Governing::Load);
    CHECK(r.run.ampacity == Approx(37));
    CHECK(r.run.dropOwn == Approx(2.995).margin(0.01)); // 11 mV · 31.30 · 20 = 6.887 V
    CHECK(w.mm2(r.run.ground) == 1.5);
    CHECK(r.run.earth->zs == Approx(0.751f).margin(0.004));    // 0.35 + (4.61 + 12.1)·1.2·20/1000
    CHECK(r.run.earth->limit == Approx(1.366f).margin(0.001)); // 230·0.95/(5·32)
    CHECK(r.run.earth->amps == Approx(291).margin(2));         // 218.5/0.751
    CHECK(r.run.earth->needed == Approx(0.80).margin(0.01));   // 291·√0.1/115
    CHECK(r.run.running == Approx(58.6).margin(0.1));          // 30 + (31.3/37)²·40
    CHECK(r.run.longest.v == Approx(33.4).margin(0.1));        // 11.5 V / (11 mV · 31.3)
    CHECK(r.run.earth->longest == Approx(50.5).margin(0.4));   // (1.366 − 0.35)/(16.71·1.2)
    CHECK(r.run.earth->seconds == Approx(0.1f));
    // Close to the board, 2.5/1.5 on 16 A: 0.15 + 23.4·5/1000 = 0.267 Ω, 818 A. For 0.1 s that would be 2.25 mm²; the
    // class 3 device lets 15 000 A²s through at most: √15 000/115 = 1.065 mm².
    w.p.sources.change(w.source)->ze = 0.15;
    const CircuitId close = w.run(3.6, 5);
    CHECK(w.size(close) == "2.5"); // 1.5/1.0 would not stand it: 1.065 mm² of 1.0
    const Results again = w.results();
    CHECK(again.of(close).run.earth->byEnergy);
    CHECK(again.of(close).run.earth->needed == Approx(1.065f).margin(0.002));
    CHECK(again.of(close).run.earth->ok);
}

TEST_CASE("ambient and grouping: In over the factors, in single cores in trunking") {
    MetricBoard w;
    const CircuitId c = w.run(3.68, 10);
    Run& r = runOf(w.p, c);
    r.cable = "single-core 70 °C", r.method = "B", r.ambient = 40, r.grouped = 5;
    // 16 A / (0.87 · 0.57) = 32.3 A: 4 mm² carries 32, 6 mm² carries 41.
    CHECK(w.size(c) == "6");
    CHECK(w.results().of(c).run.why == Governing::Bundling);
    CHECK(w.results().of(c).run.ampacity == Approx(41 * .87 * .57));
    r.grouped = 0;
    CHECK(w.size(c) == "2.5"); // 16/0.87 = 18.4 A: 1.5 mm² carries 17.5
    CHECK(w.results().of(c).run.why == Governing::Ambient);
    r.ambient = 30, r.insulated = 0.4;
    CHECK(w.size(c) == "4"); // 16/0.51 = 31.4 A: 4 mm² carries 32
    r.ambient = 75;          // no such cable in such heat
    CHECK(w.results().of(c).run.state == Sizing::NoneFits);
}

TEST_CASE("a circuit under 30 % of its grouped capacity does not load its group") {
    MetricBoard w;
    std::vector<CircuitId> circuits;
    for (double kW : {3.6, 3.6, 3.6, 0.2}) {
        circuits.push_back(w.run(kW, 10));
        w.p.circuits.change(circuits.back())->bundle = 1;
        runOf(w.p, circuits.back()).cable = "single-core 70 °C";
    }
    const Results r = w.results();
    CHECK(r.of(circuits[0]).run.need.cable->circuits == 3);
    CHECK(r.of(circuits[0]).run.need.cable->ignored == false);
    CHECK(r.of(circuits[3]).run.need.cable->ignored);
    // 16/0.70 = 22.9 A: 2.5 mm² carries 24. With four it would be 16/0.65 = 24.6 A and 4 mm².
    CHECK(w.size(circuits[0]) == "2.5");
    for (const Load& l : w.p.loads) w.p.loads.change(l.id)->amount = 3.6;
    CHECK(w.size(circuits[0]) == "4");
}

TEST_CASE("a three-phase circuit where the usual cable is flat twin and earth: the multicore of its material and "
          "temperature") {
    MetricBoard w;
    w.p.basis.branchCable = "flat twin and earth";
    const CircuitId one = w.run(3.6, 10), three = w.run(10, 10, 3);
    const Results r = w.results();
    const auto cable = [&](CircuitId c) { return bs().cables.types[std::size_t(r.of(c).run.need.cable->type)].name; };
    CHECK(cable(one) == "flat twin and earth");
    CHECK(cable(three) == "multicore 70 °C");
    CHECK(r.of(three).load.v == Approx(14.43).margin(0.01)); // 10 000 / (400·√3)
    CHECK(r.of(three).run.adequate());
    // Chosen by hand it stays, and the snag says so.
    runOf(w.p, three).cable = "flat twin and earth";
    CHECK(w.results().of(three).run.state == Sizing::NoneFits);
}

TEST_CASE("a ring: both ways together, on its rated device") {
    MetricBoard w;
    const CircuitId c = w.run(4.6, 60, 1, LoadKind::Receptacle);
    w.p.circuits.change(c)->ring = true;
    const Results results = w.results();
    const CircuitResult& r = results.of(c);
    CHECK(r.device == 32); // 20 A of load; the ring's device
    CHECK(w.mm2(r.run.size) == 2.5);
    CHECK(r.run.dropOwn == Approx(2.348).margin(0.01));    // 18 mV · 20 A · 60/4 = 5.4 V
    CHECK(r.run.earth->zs == Approx(0.701).margin(0.004)); // 0.35 + (7.41 + 12.1)·1.2·60/4/1000
    w.p.circuits.change(c)->ring = false;
    runOf(w.p, c).length = 20;
    CHECK(w.size(c) == "2.5"); // a radial: 20 A device, 27 A
    runOf(w.p, c).method = "103";
    w.p.circuits.change(c)->ring = true;
    CHECK(w.size(c) == "6"); // each leg 20 A at least: 4 mm² carries 17.5 in a stud wall
}

TEST_CASE("a spur of a ring loses volts and adds to the loop in one cable, not in two") {
    MetricBoard w;
    Project& p = w.p;
    const LevelId level = p.levels.begin()->id;
    p.basis.slack = 0;
    const CircuitId c = addCircuit(p, w.board, 1, "Sockets");
    p.circuits.change(c)->ring = true;
    runOf(p, c).lengthBy = LengthBy::Entered, runOf(p, c).length = 60;
    DeviceType t;
    t.name = "Socket outlet", t.load = 2200;
    const DeviceTypeId type = p.deviceTypes.add(t);
    const auto socket = [&](Point at, double watts) {
        Device d;
        d.type = type, d.level = level, d.at = at, d.load = watts, d.circuit = c;
        return p.devices.add(d);
    };
    socket({0, 0}, 2200);
    const DeviceId far = socket({5, 1}, 2400);
    const Results onRing = w.results();
    CHECK(onRing.of(c).load.v == Approx(20));
    CHECK(onRing.of(c).run.dropOwn == Approx(2.348).margin(0.01)); // 18 mV · 20 A · 60/4 = 5.4 V
    p.devices.change(far)->spur = true;
    const Results results = w.results();
    const RunResult& r = results.of(c).run;
    CHECK(w.mm2(r.size) == 2.5);
    CHECK(double(r.need.cable->spur) == Approx(6)); // 5 + 1 m from the nearest point of the ring
    CHECK(r.dropOwn == Approx((5.4 + 18e-3 * 10.435 * 6) / 230 * 100).margin(0.01)); // and 2 400/230 A over 6 m
    CHECK(r.earth->zs == Approx(0.35 + 19.51 * 1.2 * (15 + 6) / 1000).margin(0.004));
    CHECK(double(r.earth->has) == Approx(1.5)); // at its end one protective conductor carries all of the fault
    CHECK(r.longest.v == Approx((11.5 - 1.127) / 5.4 * 60).margin(0.3)); // of the ring, the spur as it is
    CHECK(double(r.earth->longest) ==
          Approx((1.366 - 0.35 - 19.51 * 1.2 * 6 / 1000) / (19.51 * 1.2 / 4 / 1000)).epsilon(0.02));
    CHECK(explain(p, bs(), results, c).text().find("6 m out from the ring") != std::string::npos);
}

TEST_CASE(
    "how soon a fault has to be over: sockets up to 63 A, what is fixed up to 32 A; in Australia by what hangs on it") {
    MetricBoard w;
    const CircuitId fixed = w.run(8.5, 10), socket = w.run(8.5, 10, 1, LoadKind::Receptacle); // 37 A on 40
    const auto allowed = [&](CircuitId c, const char* book) {
        return double(solve(w.p, bookOf(book)).of(c).run.earth->allowed);
    };
    for (const char* book : {"bs-7671", "iec-60364"}) {
        CHECK(allowed(fixed, book) == Approx(5));    // above 32 A
        CHECK(allowed(socket, book) == Approx(0.4)); // up to 63 A
    }
    const CircuitId small = w.run(2, 10);
    CHECK(allowed(small, "bs-7671") == Approx(0.4));
    w.p.basis.branchCable = "";
    CHECK(allowed(small, "as-nzs-3000") == Approx(5));
    CHECK(allowed(socket, "as-nzs-3000") == Approx(0.4));
}

TEST_CASE("an insulated supply: the second fault drives half the voltage round") {
    MetricBoard w;
    const CircuitId c = w.run(7.2, 20);
    const double zs = double(w.results().of(c).run.earth->zs), tn = double(w.results().of(c).run.earth->limit);
    w.p.sources.change(w.source)->earthing = Earthing::IT;
    const Results r = w.results();
    const EarthFault& e = *r.of(c).run.earth;
    CHECK(tn == Approx(1.366).margin(0.001));
    CHECK(double(e.limit) == Approx(0.683).margin(0.001)); // 230/2 · 0.95 / (5 · 32)
    CHECK(w.mm2(r.of(c).run.size) > 4);                    // 4 mm² has Zs 0.751 Ω: raised
    CHECK(r.of(c).run.why == Governing::LoopImpedance);
    CHECK(zs > double(e.limit));
    CHECK(double(e.zs) <= double(e.limit));
    CHECK(double(e.amps) == Approx(115 * 0.95 / double(e.zs)).epsilon(0.001));
    // Without a neutral it is the voltage between lines: 400/2 · 0.95 / (5 · 16) = 2.375 Ω.
    MetricBoard three(0.35, VoltageSystem{VoltageSystem::Shape::Delta, 400, 0});
    three.p.sources.change(three.source)->earthing = Earthing::IT;
    const CircuitId motor = three.run(7.2, 20, 3);
    three.p.circuits.change(motor)->device = DeviceKind::TypeB;
    three.p.circuits.change(motor)->heldBreaker = 16;
    CHECK(double(three.results().of(motor).run.earth->limit) == Approx(2.375).margin(0.001));
}

TEST_CASE("a motor's lines withstand what their device lets through: its overload stands apart") {
    MetricBoard w;
    w.p.sources.change(w.source)->faultKA = 5;
    w.p.sources.change(w.source)->ze = 0.35;
    const CircuitId c = w.run(2.2, 10, 1, LoadKind::Motor); // 9.57 A
    w.p.circuits.change(c)->device = DeviceKind::TypeC;
    w.p.circuits.change(c)->heldBreaker = 16;
    // A type C of up to 16 A lets 42 000 A²s through at up to 6 kA: √42 000/115 = 1.782 mm². 1.5 mm² would carry the
    // load.
    CHECK(w.size(c) == "2.5");
    const Results r = w.results();
    CHECK(double(r.of(c).run.earth->line) == Approx(1.782).margin(0.002));
    CHECK(r.of(c).run.why == Governing::FaultWithstand);
    CHECK(w.mm2(r.of(c).run.sizeForAmpacity) < 2);
    // The same load without a motor: the device protects against overload too.
    const CircuitId heater = w.run(2.2, 10);
    w.p.circuits.change(heater)->device = DeviceKind::TypeC;
    w.p.circuits.change(heater)->heldBreaker = 16;
    CHECK(w.results().of(heater).run.earth->line == 0);
    // Held at 1.5 mm² it is a snag.
    runOf(w.p, c).heldSize = "1.5";
    const Results held = w.results();
    CHECK_FALSE(held.of(c).run.earth->ok);
    const auto snags = findSnags(w.p, bs(), held);
    const auto told = std::find_if(snags.begin(), snags.end(), [&](const Snag& s) {
        return s.rule->id == std::string("loop") && s.about == Ref(c);
    });
    REQUIRE(told != snags.end());
    // Two of them side by side have 3 mm².
    runOf(w.p, c).heldSets = 2;
    CHECK(w.results().of(c).run.earth->lineWithstands);
    CHECK(told->text.find("lines of 1.50 mm² where 1.78 mm² withstands what its device lets through") !=
          std::string::npos);
}

TEST_CASE("an armoured cable: its armour, or a conductor beside it, brings the fault back") {
    MetricBoard w(0.02);
    const CircuitId c = w.run(30, 80, 3);
    Run& run = runOf(w.p, c);
    run.cable = "armoured 90 °C", run.method = "E";
    Results r = w.results();
    // 43.3 A, 50 A device, 6 mm² carries 56. Drop 6.8 mV · 43.3 · 80 = 23.6 V of 400 = 5.9 %: 10 mm², 4.0 mV, 13.9
    // V, 3.46 %.
    CHECK(w.size(c) == "10");
    CHECK(r.of(c).run.why == Governing::VoltageDrop);
    CHECK(r.of(c).run.dropOwn == Approx(3.464).margin(0.01));
    CHECK(r.of(c).run.earth->armour);
    CHECK(r.of(c).run.ground == -1);
    // Three-core without neutral: armour 4.0 mΩ/m at 20 °C, ·1.18 at 60 °C; line 1.83·1.28 = 2.34 mΩ/m; 0.02 + 80·(4.72
    // + 2.31) = 0.583 Ω.
    CHECK(r.of(c).run.earth->zs == Approx(0.583).margin(0.006));
    CHECK(r.of(c).run.earth->limit == Approx(0.874).margin(0.001)); // type B, 50 A: 218.5/250
    run.protectiveBy = ProtectiveBy::ArmourAndSeparate;
    r = w.results();
    CHECK(w.mm2(r.of(c).run.ground) == 10);
    CHECK(r.of(c).run.earth->zs < 0.42);
    run.protectiveBy = ProtectiveBy::Auto;
    run.method = "D";
    // In the ground: 50 A needs 10 mm² (58 A).
    CHECK(r.of(c).run.size == bs().find("10"));
    CHECK(w.results().of(c).run.need.ambient == 20);
    run.soil = 1.5; // 1.10 more
    CHECK(w.results().of(c).run.ampacity == Approx(58 * 1.1));
}

TEST_CASE("the loop governs: the line is raised until the device opens, and not where raising is of no use") {
    MetricBoard w;
    const CircuitId c = w.run(3.5, 15);
    w.p.circuits.change(c)->device = DeviceKind::TypeD;
    // D16: limit 218.5/320 = 0.683 Ω. 2.5/1.5: 0.35 + 23.4·15 = 0.70; 4/1.5: 0.35 + 20.05·15/1000 = 0.651.
    CHECK(w.size(c) == "4");
    CHECK(w.results().of(c).run.why == Governing::LoopImpedance);
    CHECK(w.results().of(c).run.earth->zs == Approx(0.651).margin(0.003));
    const Working working = explain(w.p, bs(), w.results(), c);
    CHECK(std::count_if(working.steps.begin(), working.steps.end(), [](const WorkingStep& s) { return s.governs; }) ==
          1);
    CHECK(std::any_of(working.steps.begin(), working.steps.end(),
                      [](const WorkingStep& s) { return s.governs && s.what == "Limit" && s.cited == "Table 41.3"; }));
    w.p.sources.change(w.source)->ze = 20; // an electrode: no copper helps
    w.p.sources.change(w.source)->earthing = Earthing::TT;
    CHECK(w.size(c) == "1.5");
    CHECK_FALSE(w.results().of(c).run.earth->ok);
    w.p.circuits.change(c)->residual = 30;
    CHECK(w.results().of(c).run.earth->ok);
    CHECK(w.results().of(c).run.earth->limit == Approx(1667).margin(1));
    CHECK(w.results().of(c).run.earth->allowed == Approx(0.2f));
}

TEST_CASE("separate protective conductors by Table 54.7, raised before the lines are") {
    MetricBoard w;
    const CircuitId c = w.run(60, 25, 3);
    Run& run = runOf(w.p, c);
    run.cable = "single-core 70 °C", run.method = "B";
    // 86.6 A, 100 A device (type B, which goes to 125 A): 35 mm² carries 110; protective 16 mm².
    CHECK(w.size(c) == "35");
    w.p.sources.change(w.source)->ze = 0.05;
    const Results r = w.results();
    CHECK(r.of(c).kindOfDevice == DeviceKind::TypeB);
    CHECK(w.mm2(r.of(c).run.ground) == 16);
    run.heldGround = "10";
    CHECK(w.mm2(w.results().of(c).run.ground) == 10);
}

TEST_CASE("fault levels with the voltage factor, a motor's curve, and least sizes by use") {
    MetricBoard w;
    w.p.sources.change(w.source)->kind = SourceKind::UtilityTransformer;
    w.p.sources.change(w.source)->kva = 800, w.p.sources.change(w.source)->percentZ = 5;
    CHECK(w.results().of(w.source).fault.threePhase == Approx(25.40).margin(0.01)); // 1.1 · 800/(√3·0.4)/0.05
    const CircuitId pump = w.run(4, 10, 3, LoadKind::Motor);
    CHECK(w.results().of(pump).kindOfDevice == DeviceKind::TypeD);
    CHECK(w.results().of(pump).device == 6); // 5.77 A
    w.p.sources.change(w.source)->ze = 0.8;
    const CircuitId light = w.run(0.2, 5, 1, LoadKind::Lighting), socket = w.run(0.2, 5, 1, LoadKind::Receptacle);
    CHECK(w.size(light) == "1"); // Table 52.3
    CHECK(w.size(socket) == "1.5");
    w.p.basis.smallestByUse = {{"lighting", "1.5"}, {"receptacle", "2.5"}};
    CHECK(w.size(light) == "1.5");
    CHECK(w.size(socket) == "2.5");
    w.p.basis.lightingDropLimit = 0.02;
    CHECK(w.results().of(light).run.why == Governing::VoltageDrop);
}

TEST_CASE("a substation of its own: more may be lost in all, as each book has it") {
    MetricBoard w;
    w.p.basis.branchDropLimit = 20; // only the whole counts here
    const CircuitId socket = w.run(3, 20), light = w.run(0.4, 20, 1, LoadKind::Lighting);
    const auto limits = [&](const char* book, double all, double lighting) {
        w.p.basis.ruleBook = book;
        w.p.basis.totalDropLimit = all, w.p.basis.lightingDropLimit = lighting;
        const Results r = solve(w.p, bookOf(book));
        return std::pair{r.of(socket).run.need.totalLimit, r.of(light).run.need.totalLimit};
    };
    CHECK(limits("bs-7671", 5, 3) == std::pair{5.0, 3.0});
    w.p.sources.change(w.source)->ownSubstation = true;
    CHECK(limits("bs-7671", 5, 3) == std::pair{8.0, 6.0});       // Table 4Ab
    CHECK(limits("iec-60364", 5, 3) == std::pair{8.0, 6.0});     // Table G.52.1
    CHECK(limits("as-nzs-3000", 5, 0) == std::pair{7.0, 7.0});   // 3.6.2
    CHECK(limits("as-nzs-3000", 4, 0) == std::pair{6.0, 6.0});   // the office's own is stricter by 1 %
    CHECK(limits("as-nzs-3000", 6.5, 0) == std::pair{7.0, 7.0}); // never above the book's
    CHECK(limits("as-nzs-3000", 9, 0) == std::pair{9.0, 9.0});   // and never below what the basis says
    w.p.basis.ruleBook = "as-nzs-3000", w.p.basis.totalDropLimit = 5;
    const RuleBook& book = bookOf("as-nzs-3000");
    const std::string told = explain(w.p, book, solve(w.p, book), socket).text();
    CHECK(told.find("5 % of the basis, and more from a substation of the installation's own") != std::string::npos);
    CHECK(told.find("AS/NZS 3000, 3.6.2") != std::string::npos);
}

TEST_CASE(
    "earthing and main bonding conductors: half of the earthing conductor, or by the neutral with a combined supply") {
    RunResult run;
    const auto bond = [&](const char* size, Earthing earthing) {
        run.size = bs().find(size), run.sets = 1, run.need.cable.make().earthing = earthing;
        const Bonding b = bondingOf(run, Material::Copper, bs());
        return std::pair{bs().sizes()[std::size_t(b.electrode)].mm2, bs().sizes()[std::size_t(b.jumper)].mm2};
    };
    CHECK(bond("16", Earthing::TNS) == std::pair{16.0, 10.0}); // 8 mm² at least
    CHECK(bond("25", Earthing::TNS) == std::pair{16.0, 10.0});
    CHECK(bond("10", Earthing::TNS) == std::pair{10.0, 6.0});
    CHECK(bond("185", Earthing::TNS) == std::pair{95.0, 25.0}); // 25 mm² need not be passed
    CHECK(bond("25", Earthing::TNCS).second == 10);             // Table 54.8: up to 35 mm² of neutral
    CHECK(bond("50", Earthing::TNCS).second == 16);
    CHECK(bond("95", Earthing::TNCS).second == 25);
    CHECK(bond("120", Earthing::TNCS).second == 35);
    CHECK(bond("240", Earthing::TNCS).second == 50);
}

TEST_CASE("drop at the temperature under load, where the basis asks for it") {
    MetricBoard w;
    const CircuitId c = w.run(7.2, 20);
    w.p.basis.dropWhenWarm = true;
    // Ct = (230 + 70 − (1 − (31.3/37)²)·40)/300 = 0.9621; 2.995 % · 0.9621.
    CHECK(w.results().of(c).run.dropOwn == Approx(2.881).margin(0.01));
}

TEST_CASE("demand of the trade's guidance: lighting 90 %, socket circuits the largest and half of the rest") {
    MetricBoard w;
    w.run(4, 10, 1, LoadKind::Lighting);
    for (double kW : {6.0, 4.0, 2.0}) w.run(kW, 10, 1, LoadKind::Receptacle);
    CHECK(w.results().of(w.board).demand == Approx(4000 * .9 + 6000 + .5 * 6000));
    w.p.basis.occupancy = Occupancy::Dwelling; // 66 %; the rest 40 %
    CHECK(w.results().of(w.board).demand == Approx(4000 * .66 + 6000 + .4 * 6000));
}

TEST_CASE("what a tester reads: cold conductors, both legs of a ring, and four fifths of the limit") {
    MetricBoard w;
    const CircuitId c = w.run(3, 20);
    Run& run = runOf(w.p, c);
    run.heldSize = "2.5";
    run.heldGround = "1.5";
    const Results r = w.results();
    // 7.41 and 12.1 mΩ/m at 20 °C (IEC 60228): 19.51 · 20 = 0.390 Ω.
    const TesterReadings t = testerReadings(r.of(c).run, bs());
    REQUIRE(t.known);
    CHECK(t.r1 == Approx(0.00741));
    CHECK(t.r2 == Approx(0.0121));
    CHECK(t.together == Approx(0.3902).margin(0.0001));
    // Type B 16 A: 230 · 0.95 / 80 = 2.731 Ω; a tester may read 2.185.
    CHECK(r.of(c).device == 16);
    CHECK(t.zsMost == Approx(2.185).margin(0.001));
    // A ring of 80 m: (r1 + r2) · 80 / 4 is the same 0.390 Ω.
    w.p.circuits.change(c)->ring = true;
    run.length = 80;
    const TesterReadings ring = testerReadings(w.results().of(c).run, bs());
    CHECK(ring.together == Approx(0.3902).margin(0.0001));
    // A residual-current device opens it: nothing is asked of the loop but its own limit.
    w.p.circuits.change(c)->residual = 30;
    CHECK(testerReadings(w.results().of(c).run, bs()).zsMost == 0);
    CHECK_FALSE(testerReadings(RunResult{}, bs()).known);
    runOf(w.p, c).lengthBy = LengthBy::Reach; // nobody knows how long it is
    CHECK_FALSE(testerReadings(w.results().of(c).run, bs()).known);
}
