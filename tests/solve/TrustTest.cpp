// Mistakes that were once in the numbers, each from the text of the code or from hand arithmetic.

#include "core/figures/Words.h"
#include "core/project/ProjectFile.h"
#include "core/solve/Conduit.h"
#include "core/solve/Fault.h"
#include "core/solve/Procedure.h"
#include "core/solve/RunParts.h"
#include "tests/World.h"
#include "tests/bench/Answer.h"

#include <nlohmann/json.hpp>
using namespace lintel;

TEST_CASE("conduit: a count of conductors of one size rounds up from 0.8 (Chapter 9, Table 1, note 7)") {
    // Annex C, Table C.1: the most THHN conductors of one size in EMT.
    struct Row {
        const char* size;
        int half, threeQuarters, one, oneAndQuarter;
    };
    const Row rows[] = {{"14", 12, 22, 35, 61}, {"12", 9, 16, 26, 45}, {"10", 5, 10, 16, 28}, {"8", 3, 6, 9, 16},
                        {"6", 2, 4, 7, 12},     {"4", 1, 2, 4, 7},     {"3", 1, 1, 3, 6},     {"2", 1, 1, 3, 5},
                        {"1", 1, 1, 1, 4},      {"1/0", 1, 1, 1, 3},   {"4/0", 0, 1, 1, 1}};
    const ConduitType* emt = nec().conduit("EMT");
    REQUIRE(emt);
    const auto most = [&](const char* size, const char* trade) {
        for (int n = 200; n > 0; --n) {
            const ConduitFill f = conduitFor(*emt, {{nec().find(size), n, nec().insulation("THHN")}}, nec());
            if (!f.size) continue;
            bool fits = false; // in this trade size or a smaller one
            for (const ConduitSize& s : emt->sizes) {
                fits = fits || s.name == f.size->name;
                if (s.name == trade) break;
            }
            if (fits) return n;
        }
        return 0;
    };
    for (const Row& r : rows) {
        INFO(r.size);
        CHECK(most(r.size, "1/2") == r.half);
        CHECK(most(r.size, "3/4") == r.threeQuarters);
        CHECK(most(r.size, "1") == r.one);
        CHECK(most(r.size, "1-1/4") == r.oneAndQuarter);
    }
    const auto trade = [&](int n, const char* size) {
        return conduitFor(*emt, {{nec().find(size), n, nec().insulation("THHN")}}, nec()).size->name;
    };
    CHECK(trade(3, "2") == "1");
    CHECK(trade(3, "300") == "2");
    CHECK(trade(4, "1") == "1-1/4");
    // Of several sizes their areas are added, and nothing is rounded: 3 #2 and a #8 ground, 0.384 in² of 0.346 in 1 in:
    // 1-1/4.
    CHECK(conduitFor(*emt,
                     {{nec().find("2"), 3, nec().insulation("THHN")}, {nec().find("8"), 1, nec().insulation("THHN")}},
                     nec())
              .size->name == "1-1/4");
}

TEST_CASE("conduit: a nipple is filled to 60 % (Chapter 9, Table 1, note 4)") {
    // 4 × 4/0 THHN: 4 · 0.3237 = 1.295 in². EMT 2 holds 1.342 at 40 %, 1-1/2 1.221 at 60 % of 2.036 … 1-1/2 does not, 2
    // does at both; 4 × 3/0: 1.0716 in²: at 40 % 2, at 60 % 1-1/2 (1.2216).
    const ConduitType* emt = nec().conduit("EMT");
    const auto trade = [&](const char* size, bool nipple) {
        return conduitFor(*emt,
                          {{nec().find(size), 3, nec().insulation("THHN")},
                           {nec().find(size), 1, nec().insulation("THHN")},
                           {nec().find("8"), 1, nec().insulation("THHN")}},
                          nec(), nullptr, nipple)
            .size->name;
    };
    CHECK(trade("3/0", false) == "2");    // 1.0716 + 0.0366 = 1.1082 in² of 1.342
    CHECK(trade("3/0", true) == "1-1/2"); // of 1.2216
    CHECK(conduitFor(*emt, {{nec().find("3/0"), 4, nec().insulation("THHN")}}, nec(), nullptr, true).allowed ==
          Approx(0.6));
}

TEST_CASE("motors: the ceiling of 400 % goes by the motor's current, not by the device (430.52(C)(1) exception 2)") {
    struct Case {
        const char* hp;
        double flc, ceiling;
    };
    const Case cases[] = {{"25", 34, 125},
                          {"50", 65, 250},
                          {"75", 96, 350},
                          {"100", 124, 350}}; // 400 % of 34, 65, 96: 136, 260, 384; 300 % of 124: 372
    for (const Case& c : cases) {
        INFO(c.hp << " hp");
        const BenchAnswer a = answer("motor", {{"hp", c.hp}, {"system", "480Y/277"}});
        CHECK(figure(a, "flc_A") == c.flc);
        CHECK(figure(a, "device_ceiling_A") == c.ceiling);
    }
    // Fuses without time delay: 400 % up to a fuse of 600 A (exception 2(a)): 96 A · 4 = 384: 350 A. 156 A · 4 = 624,
    // so 300 %: 468 A, and no more than the 500 A that 300 % and the next standard rating give anyway.
    CHECK(figure(answer("motor", {{"hp", "75"}, {"system", "480Y/277"}, {"device", "fuse"}}), "device_ceiling_A") ==
          350);
    CHECK(figure(answer("motor", {{"hp", "125"}, {"system", "480Y/277"}, {"device", "fuse"}}), "device_ceiling_A") ==
          500);
    // Magnetic-only: 800 % and 1 300 %; of design B, energy-efficient, 1 100 % and 1 700 %. Overload: 125 and 140 %,
    // else 115 and 130 %.
    const BenchAnswer a = answer("motor", {{"hp", "25"}, {"system", "480Y/277"}});
    CHECK(figure(a, "instantaneous_A") == Approx(272));
    CHECK(figure(a, "instantaneous_most_A") == Approx(442));
    CHECK(figure(a, "overload_A") == Approx(42.5));
    CHECK(figure(a, "overload_most_A") == Approx(47.6));
    const BenchAnswer b = answer(
        "motor", {{"hp", "25"}, {"system", "480Y/277"}, {"design", "B, energy-efficient"}, {"serviceFactor", "1.0"}});
    CHECK(figure(b, "instantaneous_A") == Approx(374));
    CHECK(figure(b, "instantaneous_most_A") == Approx(578));
    CHECK(figure(b, "overload_A") == Approx(39.1));
    CHECK(figure(b, "overload_most_A") == Approx(44.2));
}

TEST_CASE("a protective conductor is never asked to be larger than the lines, raised or not (250.122(A))") {
    // A motor of 16 A with a 40 A breaker on #12: 250.122 gives #10 for 40 A, and the lines are #12.
    OneBoard w(VoltageSystem::Y480);
    const CircuitId c = w.circuit(14, LoadUnit::A, 3, 50, LoadKind::Motor, false, 0.85);
    w.p.circuits.change(c)->heldBreaker = 40;
    const RunResult r = w.solved().of(c).run;
    CHECK(nec().sizes()[std::size_t(r.size)].name == "12");
    CHECK(nec().sizes()[std::size_t(r.ground)].name == "12");
    CHECK_FALSE(r.groundRaised);
}

TEST_CASE("a store: the unit loads hold the addition for continuous loads already (220.42(A))") {
    // 3 000 ft² retail at 1.9 VA: 5 700 VA with its 125 %; show window 30 ft · 200 = 6 000 VA, sign 1 200 VA, 80
    // receptacles 12 200 VA.
    const BenchAnswer a = answer("demand", {{"of", "store"},
                                            {"system", "120/240"},
                                            {"area", 3000},
                                            {"occupancy", "retail"},
                                            {"receptacles", 80},
                                            {"showWindow", 30},
                                            {"sign", 1.2},
                                            {"lighting", 0},
                                            {"other", 0}});
    CHECK(figure(a, "required_VA") == Approx(12'200 + 5'700 + 1.25 * (6'000 + 1'200)));
    // 8 500 VA connected are more than its area asks for, and do not hold it: 1.25 · 8 500 = 10 625 VA.
    const BenchAnswer b = answer("demand", {{"of", "store"},
                                            {"system", "120/240"},
                                            {"area", 3000},
                                            {"occupancy", "retail"},
                                            {"receptacles", 80},
                                            {"showWindow", 30},
                                            {"sign", 1.2},
                                            {"lighting", 8.5},
                                            {"other", 0}});
    CHECK(figure(b, "required_VA") == Approx(12'200 + 10'625 + 1.25 * (6'000 + 1'200)));
    // 5 000 VA connected are less, yet with their addition more: 6 250 against 5 700.
    const BenchAnswer c = answer("demand", {{"of", "store"},
                                            {"system", "120/240"},
                                            {"area", 3000},
                                            {"occupancy", "retail"},
                                            {"receptacles", 80},
                                            {"showWindow", 30},
                                            {"sign", 1.2},
                                            {"lighting", 5},
                                            {"other", 0}});
    CHECK(figure(c, "required_VA") == Approx(12'200 + 6'250 + 1.25 * (6'000 + 1'200)));
}

TEST_CASE("parallel sets that lie together are circuits grouped together") {
    // 240 mm² singles in trunking (B) carry 402 A as three loaded conductors (Table 4D1A). Three sets in one trunking:
    // Cg 0.70: 3 · 402 · 0.70 = 844 A, not 1 206. Apart, 1 206 A.
    MetricBoard w;
    const CircuitId c = w.run(550, 20, 3); // 794 A
    lintel::Run& run = runOf(w.p, c);
    run.cable = "single-core 70 °C";
    run.method = "B";
    run.heldSize = "240";
    run.heldSets = 3;
    const double one = bs().cables.type("single-core 70 °C")->method("B")->ampacity[1][std::size_t(bs().find("240"))];
    REQUIRE(one > 300);
    CHECK(w.results().of(c).run.ampacity == Approx(3 * one * 0.70));
    run.setsApart = true;
    CHECK(w.results().of(c).run.ampacity == Approx(3 * one));
    // With another circuit beside them: four circuits, 0.65; apart, two: 0.80.
    run.grouped = 1;
    CHECK(w.results().of(c).run.ampacity == Approx(3 * one * 0.80));
    run.setsApart = false;
    CHECK(w.results().of(c).run.ampacity == Approx(3 * one * 0.65));
    // Sized by itself it takes what really carries it.
    run.heldSets = 0;
    run.heldSize.clear();
    run.grouped = 0;
    const RunResult sized = w.results().of(c).run;
    const double device = w.results().of(c).device;
    CHECK(sized.ampacity >= device);
    CHECK(sized.sets * bs().cables.type("single-core 70 °C")->method("B")->ampacity[1][std::size_t(sized.size)] *
              (sized.sets == 1   ? 1
               : sized.sets == 2 ? 0.8
               : sized.sets == 3 ? 0.7
               : sized.sets == 4 ? 0.65
                                 : 0.6) >=
          device - 1e-6);
}

TEST_CASE("BS 7671: the device of a cable in the ground is at most 0.9 of its capacity (433.1.203)") {
    // 60 kW at 400 V: 86.6 A, 100 A device: the cable has to carry 100 / 0.9 = 111.1 A.
    MetricBoard w(0.05);
    const CircuitId c = w.run(60, 30, 3);
    w.p.basis.soil = 2.5;
    w.p.basis.groundTemperature = 20;
    lintel::Run& run = runOf(w.p, c);
    run.cable = "armoured 90 °C";
    run.method = "D";
    const Results r = w.results();
    CHECK(r.of(c).device == 100);
    CHECK(r.of(c).run.ampacity >= 100 / 0.9 - 1e-6);
    const CableMethod* d = bs().cables.type("armoured 90 °C")->method("D");
    REQUIRE(d);
    SizeIndex least = 0;
    while (d->ampacity[1][std::size_t(least)] < 100 / 0.9) ++least;
    CHECK(r.of(c).run.sizeForAmpacity == least);
    // In air there is no such share, and IEC 60364 asks for none.
    CHECK(bookOf("iec-60364").cables.buriedShare == 1);
    CHECK(bs().cables.buriedShare == Approx(0.9));
    run.method = "C";
    CHECK(w.results().of(c).run.ampacity >= 100);
}

TEST_CASE("a single-phase board has single-phase fault levels") {
    // A consumer unit of one phase on a 400/230 V board: its rating is held against line–neutral, not against the
    // three-phase value.
    MetricBoard w;
    const CircuitId feeder = addCircuit(w.p, w.board, 1, "Flat");
    lintel::Run run;
    run.lengthBy = LengthBy::Entered;
    run.length = 20;
    run.heldSize = "16";
    Board flat;
    flat.run = w.p.runs.add(run);
    flat.name = "CU-1";
    flat.system = VoltageSystem::S230;
    flat.bus = flat.main = 63;
    flat.slots = 12;
    flat.form = BoardForm::SingleColumn;
    flat.feed = feeder;
    flat.ratingKA = 6;
    const BoardId id = w.p.boards.add(flat);
    const CircuitId c = addCircuit(w.p, id, 1, "load");
    Load l;
    l.circuit = c;
    l.amount = 3;
    l.unit = LoadUnit::kW;
    w.p.loads.add(l);
    const Results r = w.results();
    const FaultPoint& f = r.of(id).fault;
    const FaultPoint& above = r.of(w.board).fault;
    CHECK(above.threePhase > 5);
    CHECK(f.threePhase == 0);
    CHECK(f.lineLine == 0);
    CHECK(f.lineNeutral > 0.5);
    CHECK(f.worst() == std::max(f.lineNeutral, f.lineGround));
    // Above: 1.1 · 230.94 V / 6 kA = 42.3 mΩ with X/R 4, 10.3 + j41.1. 20 m of 16 mm² out and back, cold, 1.15 mΩ/m: 46
    // mΩ; the table gives it no reactance. |56.3 + j41.1| = 69.7 mΩ: 3.65 kA.
    CHECK(above.lineNeutral == Approx(6).margin(0.01));
    CHECK(f.lineNeutral == Approx(3.65).margin(0.03));
}

TEST_CASE("the bench reads quantities, sizes and metals as people write them") {
    const double plain = figure(
        answer("conductor", {{"load", "10 hp"}, {"poles", 3}, {"system", "480Y/277"}, {"length", "100 ft"}}), "drop_V");
    REQUIRE(plain > 0);
    for (const char* length : {"100 feet", "100'", "30.48 m", "100 FT", "1200 in"}) {
        INFO(length);
        CHECK(figure(answer("conductor", {{"load", "10 hp"}, {"poles", 3}, {"system", "480Y/277"}, {"length", length}}),
                     "drop_V") == Approx(plain));
    }
    CHECK(figure(answer("motor", {{"hp", "7-1/2"}, {"system", "480Y/277"}}), "flc_A") == 11);
    CHECK(figure(answer("motor", {{"hp", "1/2 hp"}, {"system", "480Y/277"}}), "flc_A") == Approx(1.1));
    CHECK(figure(answer("conductor", {{"load", "7-1/2 hp"}, {"poles", 3}, {"system", "480Y/277"}}), "load_A") == 11);
    CHECK(answer("conductor", {{"load", "100 A"}, {"material", "Cu"}})["size"] ==
          answer("conductor", {{"load", "100 A"}, {"material", "copper"}})["size"]);
    CHECK(answer("conductor", {{"load", "100 A"}, {"material", "AL"}})["size"] ==
          answer("conductor", {{"load", "100 A"}, {"material", "aluminium"}})["size"]);
    CHECK(answer("conductor", {{"load", "100 A"}, {"size", "250 kcmil"}})["size"] == "250");
    CHECK(answer("conductor", {{"load", "100 A"}, {"size", "4/0 AWG"}})["size"] == "4/0");
    CHECK(answer("conductor", {{"load", "100 A"}, {"size", "#1"}})["size"] == "1");
    CHECK(answer("conductor", {{"load", "30 A"}, {"ambient", "104 °F"}})["size"] ==
          answer("conductor", {{"load", "30 A"}, {"ambient", "40"}})["size"]);
    CHECK(answer("conduit", {{"conductors", {"3 × 4/0"}}, {"conduit", "emt"}})["conduit"] == "2"); // 0.971 in² of 1.342
    for (const auto& [field, text] : {std::pair{"load", "10 parsec"},
                                      {"length", "12 parsec"},
                                      {"ambient", "40 A"},
                                      {"ambient", "4 0"},
                                      {"size", "12 mm"},
                                      {"material", "gold"}}) {
        INFO(field << " " << text);
        nlohmann::json entered{{"load", "30 A"}};
        entered[field] = text;
        CHECK_FALSE(bench(*benchKind("conductor"), entered, nec()));
    }
}

TEST_CASE("a protective conductor is judged at both ends of its run") {
    // 4.85 kA to earth at the board: 1.1 · 230.9 V / 0.05238 Ω. A type B of 6 A lets 35 000 A²s through at up to 6 kA:
    // √35 000/115 = 1.627 mm².
    MetricBoard w(0.05238);
    const CircuitId c = w.run(0.2, 20, 1, LoadKind::Lighting);
    runOf(w.p, c).heldSize = "1"; // flat twin and earth 1.0/1.0
    const EarthFault e = *w.results().of(c).run.earth;
    CHECK(e.inTime);
    CHECK(e.withstands); // at its end
    CHECK(e.energyHere == Approx(35000));
    CHECK(e.neededHere == Approx(1.627).margin(0.001));
    CHECK_FALSE(e.withstandsHere);
    CHECK_FALSE(e.ok);
    // Sized, it is raised to the first with a protective conductor of at least that: 6/2.5.
    runOf(w.p, c).heldSize.clear();
    CHECK(w.size(c) == "6");
    CHECK(w.results().of(c).run.why == Governing::FaultWithstand);
    // What the maker says of the device itself: √8 000/115 = 0.778 mm².
    w.p.circuits.change(c)->letThroughEnergy = 8000;
    CHECK(w.results().of(c).run.earth->neededHere == Approx(0.778).margin(0.001));
    // Or of all of them: a third of the class, √11 667/115 = 0.939 mm².
    w.p.circuits.change(c)->letThroughEnergy.reset();
    w.p.basis.classShare = 1.0 / 3;
    CHECK(w.results().of(c).run.earth->neededHere == Approx(0.939).margin(0.001));
}

TEST_CASE("a third harmonic changes the size of four loaded cores (IEC 60364-5-52, E.52.3)") {
    // Four cores, method C: 6 mm² carry 41 A, 10 mm² 57 A, 16 mm² 76 A. 39 A behind 40 A: 40; 40/0.86 = 46.5;
    // 40·1.2/0.86 = 55.8; 40·1.5 = 60 A.
    MetricBoard w(0.05);
    w.p.basis.ruleBook = "iec-60364";
    const CircuitId c = w.run(27.02, 5, 3);
    w.p.circuits.change(c)->heldBreaker = 40;
    lintel::Run& run = runOf(w.p, c);
    run.cable = "multicore 70 °C", run.method = "C", run.neutral = NeutralBy::Calculated;
    const RuleBook& iec = bookOf("iec-60364");
    for (const auto& [harmonic, size] : {std::pair{0.0, "6"}, {0.10, "6"}, {0.20, "10"}, {0.40, "10"}, {0.50, "16"}}) {
        run.thirdHarmonic = harmonic;
        INFO(harmonic);
        const Results r = solve(w.p, iec);
        CHECK(r.of(c).load.v == Approx(39.0).margin(0.01));
        CHECK(iec.sizes()[std::size_t(r.of(c).run.sizeForAmpacity)].name == size);
    }
}

TEST_CASE("how a run lies beside others chooses the row of the grouping table") {
    // Table 4C1 of BS 7671, Table B.52.17 of IEC 60364-5-52, typed again.
    struct Row {
        Lying lying;
        double one, two, three, four, six, nine;
    };
    const Row rows[] = {
        {Lying::Bunched, 1, 0.80, 0.70, 0.65, 0.57, 0.50},    {Lying::Wall, 1, 0.85, 0.79, 0.75, 0.72, 0.70},
        {Lying::Ceiling, 0.95, 0.81, 0.72, 0.68, 0.64, 0.61}, {Lying::Tray, 1, 0.88, 0.82, 0.77, 0.73, 0.72},
        {Lying::Ladder, 1, 0.87, 0.82, 0.80, 0.79, 0.78},     {Lying::Apart, 1, 1, 1, 1, 1, 1}};
    for (const char* book : {"bs-7671", "iec-60364"}) {
        MetricBoard w;
        w.p.basis.ruleBook = book;
        const CircuitId c = w.run(3, 10);
        for (const Row& row : rows)
            for (const auto& [together, factor] :
                 {std::pair{1, row.one}, {2, row.two}, {3, row.three}, {4, row.four}, {6, row.six}, {9, row.nine}}) {
                INFO(book << ", " << wordOf(row.lying) << ", " << together);
                runOf(w.p, c).lying = row.lying, runOf(w.p, c).grouped = together - 1;
                const RuleBook& b = bookOf(book);
                CHECK(groupingFactor(solve(w.p, b).of(c).run.need, 1, b) == Approx(factor));
            }
    }
}

TEST_CASE("a correction above 1 counts: the corrected capacity decides") {
    // 2.5 mm² flat twin and earth, clipped direct, 27 A at 30 °C; at 25 °C 27 · 1.03 = 27.8 A for a device of 27.5 A.
    MetricBoard w;
    const CircuitId c = w.run(3, 10);
    w.p.circuits.change(c)->heldBreaker = 27.5;
    CHECK(w.size(c) == "4");
    runOf(w.p, c).ambient = 25;
    CHECK(w.results().of(c).run.sizeForAmpacity == bs().find("2.5"));
    CHECK(w.results().of(c).run.ampacity == Approx(27.81).margin(0.01));
}

TEST_CASE("load spread along a run loses less than all of it at the end") {
    // Ten luminaires of 1 A, evenly over 54 m: (1 + 2 + … + 10)/(10 · 10) = 0.55 of what 10 A at the end lose.
    MetricBoard w;
    const CircuitId c = w.run(2.3, 54, 1, LoadKind::Lighting);
    runOf(w.p, c).heldSize = "2.5";
    const double end = w.results().of(c).run.dropOwn;
    CHECK(end == Approx(18 * 10 * 54 / 1000.0 / 230 * 100).epsilon(0.002)); // 18 mV/A/m
    runOf(w.p, c).points = 10;
    CHECK(w.results().of(c).run.dropOwn == Approx(0.55 * end));
    CHECK(w.results().of(c).run.longest.v == Approx(3.0 / (end * 0.55) * 54 * (5.0 / 3)).epsilon(0.001)); // 5 %
    // By their places on the plan: five devices of one kind, 2 m apart, the first 3.2 m of run from the board; through
    // them in order.
    Project& p = w.p;
    const LevelId level = p.levels.begin()->id;
    p.basis.slack = 0;
    p.boards.change(w.board)->level = level, p.boards.change(w.board)->at = {0, 0},
    p.boards.change(w.board)->height = 2.4;
    DeviceType y;
    y.name = "Luminaire", y.kind = LoadKind::Lighting, y.load = 230, y.height = 2.4;
    const DeviceTypeId type = p.deviceTypes.add(y);
    const CircuitId chain = addCircuit(p, w.board, 1, "Row");
    for (int i = 0; i < 5; ++i) {
        Device d;
        d.type = type, d.level = level, d.at = {2.0 + 2 * i, 0}, d.circuit = chain;
        p.devices.add(d);
    }
    runOf(p, chain).lengthBy = LengthBy::Chain;
    const RunNeed need = w.results().of(chain).run.need;
    const double first = need.length.v - 8; // to the first, by way of the ceiling
    CHECK(first > 2);
    CHECK(need.spread == Approx((5 * first + 2 + 4 + 6 + 8) / (5 * (first + 8))));
    // 460 VA more that are listed and not drawn hang at the end; where the row itself takes nothing, all does.
    Load listed;
    listed.circuit = chain, listed.amount = 460;
    p.loads.add(listed);
    CHECK(w.results().of(chain).run.need.spread ==
          Approx((230 * (5 * first + 20) + 460 * (first + 8)) / ((5 * 230 + 460) * (first + 8))));
    p.deviceTypes.change(type)->load = 0;
    CHECK(w.results().of(chain).run.need.spread == 1);
}

TEST_CASE("a utility of so many MVA before its transformer, and conductors as warm as the basis says") {
    // 1 500 kVA, 5.75 %: 0.48² / 1.5 · 0.0575 = 8.832 mΩ; 500 MVA: 0.48² / 500 = 0.4608 mΩ, both with X/R 6: 277.1 V
    // / 9.293 mΩ = 29.82 kA.
    Source s;
    s.kind = SourceKind::UtilityTransformer, s.kva = 1500, s.percentZ = 5.75, s.xOverR = 6, s.utilityXR = 6;
    CHECK(atSource(s).threePhase == Approx(31.38).margin(0.01));
    s.utilityMVA = 500;
    CHECK(atSource(s).threePhase == Approx(29.82).margin(0.01));
    CHECK(atSource(s).lineNeutral ==
          Approx(277.128 / (8.832 + 0.4608 * 2 / 3)).margin(0.01)); // its wye sees its own zero sequence only
    // One phase, between two lines: 25 kVA, 240 V, 1.6 %: 36.864 mΩ; 50 MVA: 2 · 0.24² / 50 = 2.304 mΩ: 240 / 39.168
    // = 6.127 kA.
    Source one;
    one.kind = SourceKind::UtilityTransformer, one.system = VoltageSystem::S240, one.kva = 25, one.percentZ = 1.6,
    one.xOverR = 2, one.utilityXR = 2, one.utilityMVA = 50;
    CHECK(atSource(one).lineLine == Approx(6.127).margin(0.002));
    // Copper from 20 to 75 °C: (234.5 + 75)/(234.5 + 20) = 1.2161 times the resistance.
    CHECK(coldFactor(Material::Copper, 75) / coldFactor(Material::Copper) == Approx(1.2161).margin(0.0001));
    OneBoard w;
    const CircuitId c = w.circuit(16, LoadUnit::A, 1, 60);
    const double cold = w.solved().of(c).faultEnd;
    w.p.basis.faultCelsius = 75;
    const double warm = w.solved().of(c).faultEnd;
    CHECK(warm < cold);
    CHECK(warm > cold / 1.2161);
}

TEST_CASE("copper electrode conductors beside aluminium lines (Table 250.66)") {
    // 4/0 aluminium: #4 copper or #2 aluminium.
    RunResult run;
    run.size = nec().find("4/0"), run.sets = 1, run.need.material = Material::Aluminium;
    CHECK(nec().sizes()[std::size_t(bondingOf(run, Material::Copper, nec()).electrode)].name == "4");
    CHECK(nec().sizes()[std::size_t(bondingOf(run, Material::Aluminium, nec()).electrode)].name == "2");
    CHECK(Basis().electrodeMaterial == Material::Copper);
}

TEST_CASE("a length that nobody entered or measured is not known, and nothing is put in its place") {
    Project p = *loadProject(dataFolder() / "starters" / "us-480.lintel");
    const BoardId lp = [&] {
        for (const Board& b : p.boards)
            if (b.name == "LP-1") return b.id;
        return BoardId{};
    }();
    const CircuitId c = addCircuit(p, lp, 1, "Counter");
    Load l;
    l.circuit = c, l.amount = 1200, l.name = "Counter";
    p.loads.add(l);
    runOf(p, c).lengthBy = LengthBy::Entered, runOf(p, c).length = 20;
    Results r = solve(p, nec());
    CHECK_FALSE(r.of(lp).run.need.lengthKnown); // it stands on no plan
    CHECK_FALSE(r.of(lp).dropKnown);
    CHECK(r.of(lp).fault.runsUnknown);
    CHECK(r.of(c).run.need.lengthKnown);
    CHECK_FALSE(r.of(c).run.need.beforeKnown);
    CHECK(dropWords(r.of(c).run.dropTotal, false).starts_with("≥ "));
    CHECK(faultWords(r.of(lp).fault).starts_with("≤ "));
    p.basis.unknownLength = 30;
    r = solve(p, nec());
    CHECK(r.of(lp).run.need.lengthAssumed);
    CHECK(r.of(lp).run.need.length.v == 30);
    CHECK(lengthOf(r.of(lp).run.need, UnitSystem::Metric) == "30.0 m assumed");
    CHECK(r.of(lp).dropKnown);
    CHECK(explain(p, nec(), r, lp).text().find("neither entered nor measured") != std::string::npos);
    CHECK(explain(p, nec(), r, c).text().find("Length: as entered  → 66 ft") != std::string::npos);
    // Set down on the plan, with what feeds it, it is measured.
    p.basis.unknownLength = 0;
    for (const Transformer& t : p.transformers) p.transformers.change(t.id)->onPlan = true;
    p.boards.change(lp)->onPlan = true, p.boards.change(lp)->at = {10, 0};
    r = solve(p, nec());
    CHECK(r.of(lp).run.need.lengthKnown);
    CHECK_FALSE(r.of(lp).run.need.lengthAssumed);
}

TEST_CASE("a warehouse has a demand of its own for lighting (220.45)") {
    // 50 000 ft² at 1.2 VA/ft² (220.42(A)): 60 000 VA: 12 500 + 50 % of 47 500 = 36 250 VA. 208Y/120: 36 250 / 360.3 V
    // = 100.6 A.
    const BenchAnswer a = answer("demand", {{"of", "store"},
                                            {"system", "208Y/120"},
                                            {"area", 50000},
                                            {"occupancy", "warehouse"},
                                            {"receptacles", 0},
                                            {"showWindow", 0},
                                            {"sign", 0},
                                            {"lighting", 0},
                                            {"other", 0}});
    CHECK(figure(a, "demand_VA") == Approx(36250));
    CHECK(figure(a, "required_A") == Approx(100.6).margin(0.1));
    CHECK(std::any_of(a.cautions.begin(), a.cautions.end(),
                      [](const std::string& c) { return c.find("220.45") != std::string::npos; }));
    // A shop of that size has none: 1.9 · 50 000.
    CHECK(figure(answer("demand", {{"of", "store"},
                                   {"system", "208Y/120"},
                                   {"area", 50000},
                                   {"occupancy", "retail"},
                                   {"receptacles", 0},
                                   {"showWindow", 0},
                                   {"sign", 0},
                                   {"lighting", 0},
                                   {"other", 0}}),
                 "demand_VA") == Approx(95000));
    // 220.55, column B: three ranges of 8 kW are 55 % of 24 kW, less than the 14 kW of column C.
    const BenchAnswer ranges = answer("demand", {{"ranges", "3 × 8 kW"}});
    for (const auto& row : ranges.rows)
        if (row[0] == "Ranges") CHECK(row[2] == "13\u00a0200");
    // As JSON the cells are numbers, not text with spaces.
    const auto rows = ranges.json()["rows"];
    for (const auto& row : rows)
        if (row["Item"] == "Ranges") CHECK(row["Demand VA"] == 13200);
}

TEST_CASE("the load and the device of a circuit are told as they were worked out, with the project's own factor") {
    OneBoard w;
    const CircuitId c = w.circuit(1800, LoadUnit::VA, 1, -1, LoadKind::Lighting, true); // 15 A, all of it continuous
    const auto told = [&](const RuleBook& book) { return explain(w.p, book, solve(w.p, book), c).text(); };
    CHECK(told(nec()).find("25 % of 15.0 A continuous") != std::string::npos);
    w.p.basis.ownValues["continuous/factor"] = 1.5;
    const auto own = loadRuleBook("nec-2023", w.p.basis.ownValues);
    REQUIRE(own);
    CHECK(told(*own).find("50 % of 15.0 A continuous") != std::string::npos);
    const Results r = solve(w.p, *own);
    CHECK(r.of(c).required.v == Approx(22.5));
    CHECK(r.of(c).device == 25);
    CHECK(told(*own).find("22.5 A → next standard rating") != std::string::npos);
}

TEST_CASE("a motor beside other load: what the conductors carry and the device are told in full") {
    OneBoard w;
    const CircuitId c = w.circuit(7.5, LoadUnit::hp, 3, -1, LoadKind::Motor, false, 0.85); // 24.2 A
    Load beside;
    beside.circuit = c, beside.name = "Heater", beside.amount = 3602.7, beside.poles = 3,
    beside.powerFactor = 0.85; // 10 A
    w.p.loads.add(beside);
    const Results r = solve(w.p, nec());
    CHECK(r.of(c).required.v == Approx(10 + 24.2 * 1.25).margin(0.02));
    CHECK(r.of(c).deviceNeeded == 80); // 10 + 60.5 = 70.5 A, the next standard rating
    const std::string told = explain(w.p, nec(), r, c).text();
    CHECK(told.find("10.0 A + 24.2 A × 125 %") != std::string::npos);
    CHECK(told.find("10.0 A + 24.2 A × 250 % = 70.5 A") != std::string::npos);
}
