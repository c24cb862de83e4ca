// Each sum of the bench against figures worked by hand, and what it says to nonsense.

#include "core/bench/Bench.h"
#include "core/bench/BenchInputs.h"
#include "core/bench/BenchSheet.h"
#include "core/sheets/WorkingSheet.h"
#include "tests/bench/Answer.h"
#include <fmt/format.h>

using namespace lintel;
using nlohmann::json;

TEST_CASE("bench conductor: 16 A, 120 V, 150 ft") {
    // 12 AWG 9.60 V = 8.0 %, 10 AWG 4.8 %, 8 AWG 2·16·0.78·0.15 = 3.744 V = 3.12 %, 6 AWG 2·16·0.49·0.15 = 2.352 V
    // = 1.96 %.
    const BenchAnswer a = answer("conductor", {{"load", "16 A"}, {"length", "150 ft"}});
    CHECK(figure(a, "device_A") == 20);
    CHECK(figure(a, "drop_before_percent") == Approx(8.0));
    CHECK(a["size"] == "6");
    CHECK(figure(a, "drop_V") == Approx(2.352));
    CHECK(figure(a, "drop_percent") == Approx(1.96));
    CHECK(a["governing"] == "voltage drop");
    CHECK(a["ground"] == "6"); // 12 AWG × 26.24/6.53 = 26.24 kcmil
    CHECK(figure(a, "longest_m") == Approx(feet(150 * 3 / 1.96).v));
    // 3 × 0.0507 in² = 0.1521 in²; 1/2 EMT holds 0.122, 3/4 0.213.
    CHECK(a["conduit"] == "3/4");
    CHECK(figure(a, "fill_percent") == Approx(100 * 0.1521 / 0.533).epsilon(1e-3));
    CHECK(figure(answer("conductor", {{"load", "16 A"}, {"length", "150 ft"}, {"limit", 8.5}, {"total", 9}}),
                 "drop_percent") == Approx(8.0));
}

TEST_CASE("bench conductor: the load in any unit comes to the same") {
    // 10 A at 208 V, three poles: 3 602.7 VA.
    const double va = 10 * 208 * root3;
    for (const auto& load : {std::string("10 A"), fmt::format("{:f} VA", va), fmt::format("{:f} kVA", va / 1000),
                             fmt::format("{:f} W", va * 0.8), fmt::format("{:f}kW", va * 0.8 / 1000)})
        CHECK(figure(answer("conductor", {{"load", load}, {"poles", 3}, {"powerFactor", 0.8}}), "load_A") ==
              Approx(10).epsilon(1e-4));
    const BenchAnswer hp = answer("conductor", {{"load", "10 hp"}, {"poles", 3}, {"system", "480Y/277"}});
    CHECK(figure(hp, "load_A") == 14);
    CHECK(figure(hp, "required_A") == Approx(17.5));
    CHECK(figure(hp, "device_A") == 35);
}

TEST_CASE("bench conductor: hot, on a roof, bundled, aluminium, in parallel") {
    struct Case {
        json entered;
        const char* size;
        int sets;
        double ampacity;
        const char* source;
    };
    const Case cases[] = {
        {{{"load", "72 A"}, {"poles", 2}, {"ambient", 40}, {"conductors", 6}, {"length", ""}},
         "3",
         1,
         115 * 0.91 * 0.8,
         "4 AWG: 95 · 0.91 · 0.8 = 69.2 < 72"},
        {{{"load", "50 A"}, {"poles", 3}, {"ambient", 35}, {"roof", true}, {"length", ""}},
         "4",
         1,
         95 * 0.58,
         "35 + 33 = 68 °C: 0.58; 6 AWG 75 · 0.58 = 43.5; 4 AWG 55.1"},
        {{{"load", "100 A"}, {"poles", 3}, {"material", "aluminium"}, {"length", ""}},
         "1",
         1,
         100,
         "1 AWG aluminium carries 100 A at 75 °C"},
        {{{"load", "760 A"}, {"poles", 3}, {"length", ""}},
         "500",
         2,
         760,
         "2 × 500 kcmil carry 760 A, 800 A is the next rating above"},
        {{{"load", "40 A"}, {"poles", 2}, {"wiring", "NM cable"}, {"length", ""}},
         "8",
         1,
         40,
         "NM cable at 60 °C: 8 AWG 40 A"},
        {{{"load", "105 A"}, {"poles", 3}, {"wiring", "free air"}, {"length", ""}, {"insulation", "THW"}},
         "2",
         1,
         115,
         "310.17 gives 4 AWG 125 A, but terminals go by 310.16"},
        {{{"load", "100 A"}, {"poles", 3}, {"wiring", "free air"}, {"length", ""}, {"ambient", 50}},
         "3",
         1,
         100,
         "3 AWG: 165 · 0.82 = 135 A in free air, 100 A at its terminals; in conduit 94 A"},
        {{{"load", "100 A"}, {"poles", 3}, {"length", ""}, {"ambient", 50}}, "2", 1, 106.6, "2 AWG: 130 · 0.82"},
        {{{"load", "20 A"}, {"continuous", 100}, {"length", ""}},
         "10",
         1,
         35,
         "20 · 1.25 = 25 A; 12 AWG held to 20 A"}};
    for (const Case& c : cases) {
        INFO(c.source);
        const BenchAnswer a = answer("conductor", c.entered);
        CHECK(a["size"] == c.size);
        CHECK(figure(a, "sets") == c.sets);
        CHECK(figure(a, "ampacity_A") == Approx(c.ampacity));
    }
}

TEST_CASE("bench ocpd: continuous loads, fuses, what a conductor may have") {
    const BenchAnswer a = answer("ocpd", {{"noncontinuous", "12 A"}, {"continuous", "20 A"}, {"size", "8"}});
    CHECK(figure(a, "required_A") == Approx(37)); // 12 + 25
    CHECK(figure(a, "device_A") == 40);
    CHECK(figure(a, "largest_A") == 50);
    CHECK(figure(answer("ocpd", {{"noncontinuous", "0 A"}, {"continuous", "16 A"}, {"fullRated", true}}), "device_A") ==
          20);
    CHECK(figure(answer("ocpd", {{"noncontinuous", "4.6 A"}, {"device", "time-delay fuse"}}), "device_A") == 6);
    CHECK(figure(answer("ocpd", {{"noncontinuous", "600.5 A"}, {"device", "fuse"}}), "device_A") == 601);
    CHECK(figure(answer("ocpd", {{"noncontinuous", "65 A"}, {"size", "4"}, {"receptacles", true}}), "largest_A") ==
          80); // 85 A, the rating below
    CHECK(figure(answer("ocpd", {{"noncontinuous", "65 A"}, {"size", "4"}}), "largest_A") == 90);  // the next above
    CHECK(figure(answer("ocpd", {{"noncontinuous", "16 A"}, {"size", "12"}}), "largest_A") == 20); // 240.4(D)
    CHECK(figure(answer("ocpd", {{"noncontinuous", "400 A"}, {"size", "1000"}, {"material", "copper"}}), "largest_A") ==
          600); // 545 A: 600 is the next
}

TEST_CASE("bench drop: three-phase by hand") {
    // √3 · 100 A · (0.31·0.9 + 0.060·0.4359) · 0.2 = 10.57 V = 2.20 % of 480 V
    const BenchAnswer a = answer("drop", {{"load", "100 A"},
                                          {"system", "480Y/277"},
                                          {"poles", 3},
                                          {"powerFactor", 0.9},
                                          {"length", "200 ft"},
                                          {"size", "4"}});
    CHECK(figure(a, "drop_V") == Approx(10.57).margin(0.01));
    CHECK(figure(a, "drop_percent") == Approx(2.2025).epsilon(1e-3));
    CHECK(figure(a, "longest_m") == Approx(feet(200 * 3 / 2.2025).v).epsilon(1e-3));
    // In metres the same run is as long.
    CHECK(figure(answer("drop", {{"load", "100 A"},
                                 {"system", "480Y/277"},
                                 {"poles", 3},
                                 {"powerFactor", 0.9},
                                 {"length", 60.96},
                                 {"units", "metric"},
                                 {"size", "4"}}),
                 "drop_V") == Approx(10.57).margin(0.01));
    CHECK(answer("drop", {{"length", "500 ft"}}).cautions.size() == 1);
}

TEST_CASE("bench fault: transformers and runs in a row") {
    // 25 kVA 1φ 240 V 1.6 %: 104.17 / 0.016 = 6 510 A.
    const BenchAnswer small = answer("fault", {{"system", "120/240"}, {"kva", 25}, {"percentZ", 1.6}, {"path", ""}});
    CHECK(figure(small, "line_line_kA") == Approx(6.510).margin(0.001));
    // 1 500 kVA 480 V 5.75 %: 1 804.2 / 0.0575 = 31.38 kA. All of it inductive, then 75 kVA 4.5 %, resistance nil:
    // 8.832 mΩ · (208/480)² = 1.6584 mΩ; own 0.045 · 208²/75000 = 25.958 mΩ; 208/√3/27.617 mΩ = 4.348 kA.
    const BenchAnswer row =
        answer("fault", {{"xOverR", 1000}, {"path", json{"transformer 75 kVA 4.5 % X/R 1000 208Y/120"}}});
    CHECK(row.rows[0][2] == "31.4");
    CHECK(figure(row, "three_phase_kA") == Approx(4.348).margin(0.001));
    CHECK(figure(row, "next_rating_kA") == 10);
    // 100 ft of 500 kcmil, two sets, from 31.38 kA: cold R 0.029·0.1/2·254.5/309.5 = 1.1923 mΩ, X 2.4 mΩ on 1.4520 +
    // j8.7119.
    const double z = std::hypot(1.4520 + 1.1923, 8.7119 + 2.4);
    CHECK(figure(answer("fault", {{"path", "run 100 ft 500 x2 copper steel"}}), "three_phase_kA") ==
          Approx(480 / root3 / z).epsilon(1e-3));
    // The same in other people's words.
    const double two = figure(answer("fault", {{"path", "run 100 ft 500 x2 copper steel"}}), "three_phase_kA");
    for (const char* line :
         {"run 100 feet 500 kcmil x2 Cu EMT", "run 100' 2 x 500 kcmil copper steel", "run 30.48 m 2 × 500 kcmil",
          "Run 2 sets of 500 kcmil in EMT, 100 ft, Cu", "run 100ft 2x 500"})
        CHECK(figure(answer("fault", {{"path", line}}), "three_phase_kA") == Approx(two));
    const double small75 =
        figure(answer("fault", {{"path", "transformer 75 kVA 4.5 % X/R 2 208Y/120"}}), "three_phase_kA");
    for (const char* line : {"transformer 0.075 MVA Z 4.5% X/R=2 208/120 V", "transformer 75kVA, 4.5 %Z, 208Y/120V"})
        CHECK(figure(answer("fault", {{"path", line}}), "three_phase_kA") == Approx(small75));
    CHECK(figure(answer("fault", {{"path", "run 1,200 ft 4/0 Al PVC"}}), "three_phase_kA") ==
          Approx(figure(answer("fault", {{"path", "run 365.76 m 4/0 aluminium PVC"}}), "three_phase_kA")));
    for (const char* line :
         {"run 100 500 copper", "run 100 ft", "run 100 ft 500 x2 copper green", "transformer 75 4.5 % 208Y/120",
          "transformer 1,500 5.75 % 480/277", "transformer 75 kVA 4.5 % 208Y/100", "cable 30 m", "run",
          "run 100 kVA 500", "transformer 75 kVA 4.5 % X/R two 208Y/120"})
        CHECK_THROWS_WITH(answer("fault", {{"path", line}}), Catch::Contains(line));
    // Motors of 300 kVA: 4 · 360.8 A = 1.443 kA more.
    CHECK(figure(answer("fault", {{"motors", 300}, {"path", ""}}), "three_phase_kA") ==
          Approx(31.38 + 1.443).margin(0.01));
    // κ = 1.02 + 0.98 e^(−3/6) = 1.6144; peak = √2 · 1.6144 · 31.38 = 71.64 kA.
    CHECK(figure(answer("fault", {{"path", ""}}), "peak_kA") == Approx(71.64).margin(0.05));
    // A generator by its subtransient reactance: 500 kVA, 12 %: 601.4 / 0.12 = 5.012 kA.
    CHECK(figure(answer("fault", {{"source", "generator"}, {"kva", 500}, {"percentZ", 12}, {"path", ""}}),
                 "three_phase_kA") == Approx(5.012).margin(0.001));
}

TEST_CASE("bench conduit: mixed sizes and kinds") {
    // 3 × 0.3237 + 0.0824 = 1.0535 in²: EMT 1-1/2 holds 0.814, 2 holds 1.342.
    const BenchAnswer a = answer("conduit", {{"conductors", "3 × 4/0; 1 × 4"}});
    CHECK(a["conduit"] == "2");
    CHECK(figure(a, "fill_percent") == Approx(100 * 1.0535 / 3.356).epsilon(1e-4));
    CHECK(answer("conduit", {{"conductors", "1x250"}})["allowed_percent"] == 53.0); // one conductor
    CHECK(answer("conduit", {{"conductors", "2x250"}})["allowed_percent"] == 31.0);
    CHECK(answer("conduit", {{"conductors", "2 × 12 THW; 3 12 XHHW-2"}})["conductors"] == 5);
    CHECK(figure(answer("conduit", {{"conductors", "2 × 12 THW; 3 12 XHHW-2"}}), "area_in2") ==
          Approx(2 * 0.0260 + 3 * 0.0181));
    const BenchAnswer full = answer("conduit", {{"conductors", "40 × 1000"}});
    CHECK(full["conduit"] == "");
    CHECK(full.cautions.size() == 1);
}

TEST_CASE("bench motor, one phase, and the overload of a low service factor") {
    const BenchAnswer a =
        answer("motor", {{"hp", 2}, {"system", "120/240"}, {"poles", 2}, {"serviceFactor", 1}, {"nameplate", 11}});
    CHECK(figure(a, "flc_A") == 12);
    CHECK(figure(a, "conductor_A") == 15);
    CHECK(figure(a, "device_A") == 30);
    CHECK(figure(a, "overload_A") == Approx(12.65));
    CHECK(figure(answer("motor", {{"hp", 2}, {"system", "120/240"}, {"poles", 2}, {"device", "time-delay fuse"}}),
                 "device_A") == 25); // 21 → 25
}

TEST_CASE("bench transformer: 75 kVA, 480 to 208") {
    const BenchAnswer a = answer("transformer", {{"load", "60 kVA"}});
    CHECK(figure(a, "kva") == 75);
    CHECK(figure(a, "primary_A") == Approx(90.21).margin(0.01));
    CHECK(figure(a, "secondary_A") == Approx(208.2).margin(0.05));
    CHECK(figure(a, "primary_device_A") == 125);      // 112.8
    CHECK(figure(a, "primary_device_most_A") == 225); // 225.5, the rating below
    CHECK(figure(a, "secondary_device_A") == 300);    // 260.2
    CHECK(a["size"] == "350");                        // 310 A at 75 °C, no next rating up
    CHECK(a["jumper"] == "2");                        // 350 kcmil copper
    CHECK(figure(a, "fault_kA") == Approx(4.626).margin(0.005));
    // Small ones: below 9 A the share is 167 %, below 2 A 300 %, and no next rating.
    CHECK(figure(answer("transformer", {{"kva", 3}, {"load", "2 kVA"}}), "primary_device_A") ==
          6); // 3.61 A · 1.67 = 6.03 A: a fuse
}

TEST_CASE("bench egc and capacitor") {
    CHECK(answer("egc", {{"device", 100}})["ground"] == "8");
    CHECK(answer("egc", {{"device", 100}, {"material", "aluminium"}})["ground"] == "6");
    CHECK(answer("egc", {{"device", 200}, {"needed", "3/0"}, {"used", "250"}})["ground"] ==
          "4"); // 26.24 · 250/167.8 = 39.1 kcmil
    const BenchAnswer service = answer("egc", {{"device", 400}, {"serviceLines", "500"}, {"sets", 2}});
    CHECK(service["electrode"] == "2/0"); // 1 000 kcmil
    CHECK(service["jumper"] == "2/0");
    const BenchAnswer large = answer("egc", {{"device", 1600}, {"serviceLines", "500"}, {"sets", 4}});
    CHECK(large["electrode"] == "3/0"); // no more than that for an electrode
    CHECK(large["jumper"] == "250");    // 12.5 % of 2 000 kcmil
    // 250.122(A): 40 A asks for #10 by its table, and lines of #12 for no more than #12, raised or not.
    CHECK(answer("egc", {{"device", 40}})["ground"] == "10");
    CHECK(answer("egc", {{"device", 40}, {"needed", "12"}, {"used", "12"}})["ground"] == "12");
    CHECK(answer("egc", {{"device", 40}, {"needed", "14"}, {"used", "12"}})["ground"] == "12");
    // 250.66: 4/0 aluminium lines, electrode conductor of #4 copper or #2 aluminium.
    const json aluminium{{"device", 200}, {"material", "aluminium"}, {"serviceLines", "4/0"}};
    json both = aluminium;
    both["electrodeMaterial"] = "aluminium";
    CHECK(answer("egc", aluminium)["electrode"] == "4");
    CHECK(answer("egc", both)["electrode"] == "2");
    // 100 kW from 0.75 to 0.95: 100 · (0.88192 − 0.32868) = 55.3 kvar; 60 kvar at 480 V: 72.2 A, conductors 97.4 A.
    const BenchAnswer c = answer("capacitor", {{"faultKA", 20}});
    CHECK(figure(c, "kvar") == Approx(55.32).margin(0.01));
    CHECK(figure(c, "bank_kvar") == 60);
    CHECK(figure(c, "current_A") == Approx(72.17).margin(0.01));
    CHECK(figure(c, "conductor_A") == Approx(97.43).margin(0.01));
    CHECK(figure(c, "resonance") == Approx(std::sqrt(480 * root3 * 20000 / 60000)).epsilon(1e-6));
}

TEST_CASE("bench demand: loads in a list, and what is there already") {
    const BenchAnswer a = answer("demand", {{"of", "loads"},
                                            {"system", "208Y/120"},
                                            {"loads", {"80 × receptacle 180 VA", "lighting 8.5 kVA continuous"}}});
    CHECK(figure(a, "connected_VA") == 22900);
    CHECK(figure(a, "demand_VA") == 20700); // 12 200 + 8 500
    CHECK(figure(a, "required_A") == Approx((20700 + 0.25 * 8500) / 208 / root3));
    // 25 hp 34 A and two of 30 hp 40 A at 480 V: 114 A + a quarter of 40.
    const BenchAnswer motors =
        answer("demand", {{"of", "loads"}, {"system", "480Y/277"}, {"loads", {"motor 25 hp", "2 × motor 30 hp"}}});
    CHECK(figure(motors, "amps") == Approx(124));
    const BenchAnswer more = answer("demand", {{"of", "existing and new"},
                                               {"system", "208Y/120"},
                                               {"peak", "80 kVA"},
                                               {"added", "20 kVA"},
                                               {"service", 400}});
    CHECK(figure(more, "demand_VA") == 120000); // 1.25 · 80 + 20
    CHECK(figure(more, "left_A") == Approx(400 - 120000.0 / 208 / root3));
}

TEST_CASE("bench: nonsense gets a message that names the field") {
    struct Case {
        const char* kind;
        json entered;
        const char* where;
        const char* what;
    };
    const Case cases[] = {
        {"conductor", {{"lenght", "10 ft"}}, "conductor.lenght", "no such field"},
        {"conductor", {{"load", "-5 A"}}, "conductor.load", "above zero"},
        {"conductor", {{"load", "0"}}, "conductor.load", "above zero"},
        {"conductor", {{"load", "sixteen"}}, "conductor.load", "is not a load"},
        {"conductor", {{"load", "90000 A"}}, "conductor.load", "no standard device"},
        {"conductor", {{"load", "5500 A"}, {"largest", "1/0"}}, "conductor.load", "no conductor of the book"},
        {"conductor", {{"length", "-3 ft"}}, "conductor.length", "outside"},
        {"conductor", {{"length", "1e9 ft"}}, "conductor.length", "outside"},
        {"conductor", {{"powerFactor", 0}}, "conductor.powerFactor", "outside"},
        {"conductor", {{"ambient", 90}}, "conductor.ambient", "outside"},
        {"conductor", {{"ambient", 80}, {"insulation", "THW"}}, "conductor.ambient", "may not be used"},
        {"conductor", {{"poles", 3}, {"system", "120/240"}}, "conductor.poles", "has 2 lines"},
        {"conductor", {{"system", "480D"}}, "conductor.poles", "no neutral"},
        {"conductor", {{"size", "13"}}, "conductor.size", "no choice"},
        {"conductor",
         {{"load", "700 hp"}, {"poles", 3}, {"system", "480Y/277"}},
         "conductor.load",
         "not in table 430.250"},
        {"conductor", {{"load", json::array({1})}}, "conductor.load", "found a list"},
        {"motor", {{"hp", -1}}, "motor.hp", "outside"},
        {"motor", {{"hp", "nan"}}, "motor.hp", "not a number"},
        {"motors", {{"motors", ""}}, "motors.motors", "no motors"},
        {"motors", {{"motors", "three of them"}}, "motors.motors", "not a motor"},
        {"conduit", {{"conductors", ""}}, "conduit.conductors", "no conductors"},
        {"conduit", {{"conductors", "3 × 13"}}, "conduit.conductors", "no conductor size"},
        {"conduit", {{"conductors", "3 × 1250"}}, "conduit.conductors", "no area"},
        {"fault", {{"path", "run 500"}}, "fault.path", "no length"},
        {"fault", {{"path", "run 10 ft 12 gold"}}, "fault.path", "not understood"},
        {"fault", {{"path", "bus 10 ft"}}, "fault.path", "begins with run or transformer"},
        {"fault", {{"path", "transformer 75 kVA 208Y/120"}}, "fault.path", "it needs its kVA"},
        {"transformer", {{"load", "9000 kVA"}}, "transformer.load", "past the standard series"},
        {"transformer", {{"primary", "120/240"}}, "transformer.secondary", "three phases"},
        {"egc", {{"device", 7000}}, "egc.device", "outside"},
        {"egc", {{"needed", "12"}}, "egc.used", "both sizes"},
        {"capacitor", {{"from", 0.98}}, "capacitor.to", "below"},
        {"demand", {{"of", "a castle"}}, "demand.of", "no choice"},
        {"demand", {{"of", "loads"}, {"loads", "80 × teapot 180 VA"}}, "demand.loads", "no load kind"},
        {"demand", {{"of", "loads"}, {"loads", ""}}, "demand.loads", "no loads"},
        {"demand", {{"of", "dwellings, optional"}, {"units", 2}}, "demand.units", "three dwellings"},
        {"drop", {{"size", "700"}}, "drop.size", "no impedance"}};
    for (const Case& c : cases) {
        INFO(c.kind << " " << c.entered.dump());
        const auto a = bench(*benchKind(c.kind), c.entered, nec());
        REQUIRE_FALSE(a);
        CHECK(a.error().where == c.where);
        CHECK_THAT(a.error().what, Catch::Contains(c.what));
    }
    CHECK_FALSE(bench(*benchKind("drop"), json::array(), nec()));
    CHECK(benchKind("teapot") == nullptr);
}

TEST_CASE("bench: every sum answers on its own defaults, with a working that prints") {
    for (const BenchKind* k : benchKinds()) {
        INFO(k->name);
        const BenchAnswer a = answer(k->name, json::object());
        CHECK(a.figures.size() >= 1);
        CHECK(a.working.steps.size() >= 1);
        for (const WorkingStep& s : a.working.steps) CHECK_FALSE(s.what.empty());
        CHECK(a.json().contains("working"));
        const auto sheets = workingSheets(a, sheetHead("Job 12", "Company", nec()));
        REQUIRE(sheets.size() >= 1);
        std::string words;
        for (const Drawing& d : sheets) words += d.words();
        CHECK_THAT(words,
                   Catch::Contains("Job 12") && Catch::Contains(a.working.title) && Catch::Contains("Checked by"));
        for (const BenchFigure& f : a.figures) CHECK_THAT(words, Catch::Contains(f.label));
    }
}

TEST_CASE("bench: made a circuit of a board, in its voltage only") {
    OneBoard w;
    const BenchAnswer a =
        answer("conductor", {{"name", "Kiln"}, {"load", "24 A"}, {"poles", 2}, {"length", "80 ft"}, {"ambient", 35}});
    REQUIRE(a.circuit);
    const auto id = makeCircuit(w.p, w.board, *a.circuit);
    REQUIRE(id);
    const CircuitResult r = w.solved().of(*id);
    CHECK(r.load.v == Approx(24));
    CHECK(r.device == 25);
    CHECK(nec().sizes()[std::size_t(r.run.size)].name == a["size"]);
    CHECK(r.run.dropOwn == Approx(figure(a, "drop_percent")));
    BenchCircuit other = *a.circuit;
    other.system = VoltageSystem::Y480;
    const auto refused = makeCircuit(w.p, w.board, other);
    REQUIRE_FALSE(refused);
    CHECK_THAT(refused.error().what, Catch::Contains("480Y/277"));
    for (int i = 0; i < 30 && makeCircuit(w.p, w.board, *a.circuit); ++i) {
    }
    CHECK_THAT(makeCircuit(w.p, w.board, *a.circuit).error().what, Catch::Contains("no place"));
}

TEST_CASE("bench lists are read by the one reader: fractions, thousands, units of conductors, and nothing is dropped") {
    const auto full = [](const char* motors) { return figure(answer("motors", {{"motors", motors}}), "conductor_A"); };
    CHECK(full("1 × 7-1/2 hp") == Approx(1.25 * 11)); // 430.250, 460 V: 11 A
    CHECK(full("7.5 hp") == full("1 x 7½ hp"));
    CHECK(full("2*1/2 hp") == Approx(2.25 * 1.1));
    CHECK_THROWS_WITH(answer("motors", {{"motors", "2 × 30 hp wound 5"}}), Catch::Contains("is not a motor"));
    CHECK_THROWS_WITH(answer("motors", {{"motors", "22 kW"}}), Catch::Contains("is not a motor"));
    // 40 A of which all is continuous counts as 50 A beside the motors: 11 · 1.25 + 50.
    CHECK(figure(answer("motors", {{"motors", "7-1/2 hp"}, {"other", 40}, {"continuous", 100}}), "conductor_A") ==
          Approx(63.75));
    CHECK(figure(answer("motors", {{"motors", "7-1/2 hp"}, {"other", 40}}), "conductor_A") == Approx(53.75));
    const auto fill = [](const char* list) { return figure(answer("conduit", {{"conductors", list}}), "area_in2"); };
    CHECK(fill("4 x 250 kcmil") == Approx(4 * 0.397));
    CHECK(fill("4 3/0 AWG") == Approx(4 * 0.2679));
    CHECK(fill("4 × 250kcmil; 1 #4 THHN") == Approx(4 * 0.397 + 0.0824));
    CHECK_THROWS_WITH(answer("conduit", {{"conductors", "4 250 kcmil THHN green"}}),
                      Catch::Contains("is not a number"));
    const auto demand = [](const char* loads) {
        return figure(answer("demand", {{"of", "loads"}, {"loads", loads}}), "connected_VA");
    };
    CHECK(demand("80 × receptacle 1,180 VA") == Approx(94400));
    CHECK(demand("lighting 8 500 VA continuous") == Approx(8500));
    CHECK_THROWS_WITH(answer("demand", {{"of", "loads"}, {"loads", "lighting 8 kVA dimmed"}}),
                      Catch::Contains("\"dimmed\" is not understood"));
}

TEST_CASE("bench ocpd: the largest device of a conductor in sets, in the heat, beside others, at cool terminals") {
    const auto largest = [](json entered) { return figure(answer("ocpd", std::move(entered)), "largest_A"); };
    CHECK(largest({{"size", "1/0"}}) == 150); // 150 A at 75 °C
    // Two sets: 300 A.
    CHECK(largest({{"size", "1/0"}, {"sets", 2}}) == 300);
    // 170 · 0.91 (40 °C) · 0.5 (12 conductors) = 77.35 each, 154.7 A: the next rating above is 175.
    const BenchAnswer hot = answer("ocpd", {{"size", "1/0"}, {"sets", 2}, {"ambient", 40}, {"conductors", 12}});
    CHECK(figure(hot, "carries_A") == Approx(154.7));
    CHECK(figure(hot, "largest_A") == 175);
    CHECK(largest({{"size", "1/0"}, {"sets", 2}, {"ambient", 40}, {"conductors", 12}, {"receptacles", true}}) == 150);
    // 4 AWG: 85 A at 75 °C, 70 A at 60 °C.
    CHECK(largest({{"size", "4"}}) == 90);
    CHECK(largest({{"size", "4"}, {"terminals", "60"}}) == 70);
    // 3 AWG at 60 °C carries 85 A, 90 is the next; above 100 A its terminals count at 75 °C, where it carries 100.
    CHECK(largest({{"size", "3"}, {"terminals", "60"}}) == 90);
    CHECK(largest({{"size", "12"}}) == 20); // 240.4(D)
    // 12 AWG beside 29 others: 30 · 0.45 = 13.5 A, protected by 15.
    CHECK(largest({{"size", "12"}, {"conductors", 30}}) == 15);
}

TEST_CASE("bench demand: 220.83, 220.86, 220.88, 220.82 with storage, 630.11") {
    // 1 500 ft²: 4 500 + 3 000 + 1 500 general, range 12, dryer 5, heater 4.5 kW: 30 500 VA. 8 000 + 0.4 · 22 500 = 17
    // 000.
    const json home{
        {"of", "dwelling, existing"}, {"dryers", "5 kW"}, {"appliances", "water heater 4.5 kW"}, {"cooling", "6 kW"}};
    CHECK(figure(answer("demand", home), "demand_VA") == Approx(23000)); // and 6 kVA of new cooling in full
    json kept = home;
    kept["newClimate"] = false; // nothing is added: its 6 kVA are among all loads, 8 000 + 0.4 · 28 500
    CHECK(figure(answer("demand", kept), "demand_VA") == Approx(19400));
    json heaters = home;
    heaters["heating"] = "10 kW";
    heaters["heatingUnits"] = 3;
    CHECK(figure(answer("demand", heaters), "demand_VA") == Approx(27000)); // the larger, in full
    heaters["heatingUnits"] = 5; // with the other loads: 8 000 + 0.4 · 32 500, and the cooling
    CHECK(figure(answer("demand", heaters), "demand_VA") == Approx(27000));
    heaters["heating"] = "8 kW";
    CHECK(figure(answer("demand", heaters), "demand_VA") == Approx(8000 + 0.4 * 30500 + 6000));
    // School, 30 VA/ft²: 3 + 0.75 · 17 + 0.25 · 10 = 18.25.
    CHECK(figure(answer("demand", {{"of", "school"}, {"area", 100000}, {"total", "3000 kVA"}}), "demand_VA") ==
          Approx(1825000));
    CHECK(figure(answer("demand", {{"of", "school"}, {"area", 100000}, {"total", "200 kVA"}}), "demand_VA") ==
          Approx(200000));
    struct Kitchen {
        double connected, electric, mixed;
    };
    for (const Kitchen& k : {Kitchen{150, 120, 150},
                             {200, 160, 200},
                             {300, 170, 250},
                             {348, 184, 272.85},
                             {800, 410, 476.25},
                             {1000, 510, 516.3}}) {
        INFO(k.connected);
        const auto of = [&](bool electric) {
            return figure(answer("demand", {{"of", "restaurant"},
                                            {"total", fmt::format("{} kVA", k.connected)},
                                            {"allElectric", electric}}),
                          "demand_VA") /
                   1000;
        };
        CHECK(of(true) == Approx(k.electric));
        CHECK(of(false) == Approx(k.mixed));
    }
    // 220.82(C): 9 kW of thermal storage counts in full, against 65 % of 12 kW of heating.
    const json optional{{"of", "dwelling, optional"}, {"ranges", ""}, {"dryers", ""}, {"heating", "12 kW"}};
    json storage = optional;
    storage["storage"] = "9 kW";
    CHECK(figure(answer("demand", storage), "demand_VA") - figure(answer("demand", optional), "demand_VA") ==
          Approx(9000 - 7800));
    // Four at 60 % duty: 0.78 of 24 000 VA each; 2 in full, 85 % and 70 %: 3.55 · 18 720.
    CHECK(figure(answer("demand", {{"of", "arc welders"}, {"system", "480Y/277"}, {"welders", "4 × 50 A 60 %"}}),
                 "demand_VA") == Approx(3.55 * 18720));
    // Six: two more of 60 %. Motor-generator at 55 % duty: the row of 60 %, 0.81.
    CHECK(
        figure(answer("demand",
                      {{"of", "arc welders"}, {"system", "480Y/277"}, {"welders", "6 × 10 kVA 55 % motor-generator"}}),
               "demand_VA") == Approx(4.75 * 8100));
    // Nothing is sized at medium voltage: the sum says so. A transformer takes it as its primary, by 450.3(A).
    for (const char* kind : {"conductor", "drop", "ocpd", "motor"})
        CHECK_THROWS_WITH(answer(kind, {{"system", "12.47 kV"}}), Catch::Contains("this sum is for up to"));
    CHECK_THROWS_WITH(answer("transformer", {{"secondary", "4160Y/2400"}}), Catch::Contains("this sum is for up to"));
    const json unit{{"kva", 1500}, {"load", "1000 kVA"}, {"secondary", "480Y/277"}, {"percentZ", 5.75}};
    json byField = unit, bySystem = unit;
    byField["primaryKV"] = 12.47;
    bySystem["primary"] = "12470Y/7200";
    CHECK(figure(answer("transformer", bySystem), "primary_device_most_A") == 450);
    CHECK(figure(answer("transformer", bySystem), "primary_fuse_most_A") ==
          figure(answer("transformer", byField), "primary_fuse_most_A"));
    // Resistance welders, 480 V: 60 A at 25 % duty 0.5 · 28 800 VA; two of 40 A fed by themselves 0.7 · 19 200 VA each:
    // the largest, 14 400, and 60 % of 26 880.
    const json spot{{"of", "resistance welders"}, {"system", "480"}};
    const auto of = [&](const char* list) {
        json all = spot;
        all["resistanceWelders"] = list;
        return all;
    };
    CHECK(figure(answer("demand", of("60 A 25 %; 2 × 40 A automatic")), "demand_VA") == Approx(14400 + 0.6 * 26880));
    CHECK(figure(answer("demand", of("1 x 50A manual")), "demand_VA") == Approx(12000));
    CHECK_THROWS_WITH(answer("demand", of("60 A 60 %")), Catch::Contains("ends at a duty cycle of 50 %"));
    CHECK_THROWS_WITH(answer("demand", of("60 A")), Catch::Contains("no duty cycle"));
}

TEST_CASE("bench: outlets whose load is not known, 220.14 and 220.43") {
    const BenchAnswer a = answer("outlets", {{"receptacles", 10},
                                             {"more", 6},
                                             {"lampholders", 2},
                                             {"track", "25 ft"},
                                             {"multioutlet", "12 ft"},
                                             {"together", "12 ft"},
                                             {"signs", 1},
                                             {"showWindow", "10 ft"},
                                             {"other", 3}});
    // 1800 + 540 + 1200 + 13 · 150 + 3 · 180 + 12 · 180 + 1200 + 2000 + 540
    CHECK(figure(a, "connected_VA") == Approx(1800 + 540 + 1200 + 1950 + 540 + 2160 + 1200 + 2000 + 540));
    CHECK(a.rows.size() == 9);
    CHECK(figure(answer("outlets", {{"receptacles", 0}, {"track", "2.5 ft"}}), "connected_VA") ==
          Approx(300)); // a part of 2 ft counts as 2 ft
    CHECK_THROWS_WITH(answer("outlets", {{"receptacles", 0}}), Catch::Contains("there is no outlet"));
    CHECK_THROWS_WITH(answer("outlets", {{"receptacles", 2.5}}), Catch::Contains("not a whole number"));
}

TEST_CASE("bench: motors of direct current by Table 430.247, devices at 150 %, magnetic-only at 250 %") {
    const BenchAnswer a = answer("motor", {{"hp", 25}, {"current", "direct"}, {"armature", "240"}});
    CHECK(figure(a, "flc_A") == Approx(89));
    CHECK(figure(a, "conductor_A") == Approx(111.25));
    CHECK(figure(a, "device_limit_A") == Approx(133.5));
    CHECK(figure(a, "device_A") == 150);
    CHECK(figure(a, "instantaneous_A") == Approx(222.5));
    CHECK(figure(a, "overload_A") == Approx(111.25));
    for (const auto& [hp, volts, amps] : {std::tuple{0.5, "90", 6.8},
                                          {5.0, "180", 27.0},
                                          {7.5, "500", 13.6},
                                          {10.0, "550", 16.0},
                                          {200.0, "240", 675.0},
                                          {100.0, "500", 164.0},
                                          {3.0, "120", 25.0}}) {
        INFO(hp << " hp, " << volts << " V");
        CHECK(figure(answer("motor", {{"hp", hp}, {"current", "direct"}, {"armature", volts}}), "flc_A") ==
              Approx(amps));
    }
    CHECK_THROWS_WITH(answer("motor", {{"hp", 25}, {"current", "direct"}, {"armature", "90"}}),
                      Catch::Contains("not in table"));
    // Power over volts: a larger motor, or a lower voltage, takes more; each row within what an efficiency of 55 to 95
    // % gives.
    const MotorTable& t = nec().tables.motorDirect;
    for (const MotorTable::Row& r : t.rows)
        for (std::size_t i = 0; i < t.volts.size(); ++i)
            if (r.amps[i] > 0) {
                const double efficiency = r.hp * 746 / (r.amps[i] * t.volts[i]);
                INFO(r.hp << " hp, " << t.volts[i] << " V");
                CHECK(efficiency > 0.45);
                CHECK(efficiency < 0.97);
            }
}

TEST_CASE("bench: limits before they are rounded are values of their own") {
    const BenchAnswer a = answer("motor", {{"hp", 10}, {"system", "480Y/277"}}); // 14 A
    CHECK(figure(a, "device_limit_A") == Approx(35));
    CHECK(figure(a, "device_ceiling_limit_A") == Approx(56));
    CHECK(figure(a, "device_ceiling_A") == 50);
    const BenchAnswer t = answer("transformer", {{"load", "60 kVA"}}); // 75 kVA: 90.2 A, 208.2 A
    CHECK(figure(t, "primary_device_limit_A") == Approx(225.5).margin(0.1));
    CHECK(figure(t, "secondary_device_limit_A") == Approx(260.2).margin(0.1));
}

TEST_CASE("bench: transformers with a medium-voltage primary, 450.3(A)") {
    const nlohmann::json common = {{"load", "1400 kVA"}, {"growth", 0},  {"powerFactor", 1}, {"secondary", "480Y/277"},
                                   {"percentZ", 5.75},   {"length", ""}, {"largest", "600"}, {"primaryKV", "12.47 kV"}};
    const auto with = [&](nlohmann::json more) {
        nlohmann::json all = common;
        all.update(more);
        return answer("transformer", all);
    };
    // 1500 kVA: 69.4 A at 12.47 kV, 1804 A at 480 V.
    const BenchAnswer any = with(nlohmann::json::object());
    CHECK(figure(any, "kva") == 1500);
    CHECK(figure(any, "primary_A") == Approx(69.45).margin(0.02));
    CHECK(figure(any, "primary_device_limit_A") == Approx(416.7).margin(0.2)); // 600 %
    CHECK(figure(any, "primary_device_most_A") == 450);
    CHECK(figure(any, "primary_fuse_most_A") == 225); // 300 %: 208.4
    CHECK(figure(any, "secondary_device_A") == 2500); // 125 %: 2255
    CHECK(any["primary_device_A"].is_null());         // not without a secondary device
    const BenchAnswer watched = with({{"supervised", "yes"}});
    CHECK(figure(watched, "primary_device_A") == 225);                                             // 300 %, alone
    CHECK(figure(watched, "secondary_device_limit_A") == Approx(4510.5).margin(1));                // 250 %
    CHECK(figure(with({{"percentZ", 7}}), "primary_device_limit_A") == Approx(277.8).margin(0.2)); // 400 %
    CHECK_THROWS_WITH(with({{"percentZ", 12}}), Catch::Contains("450.3(A)"));
}

TEST_CASE("bench: fault levels with a utility before the transformer, a voltage factor and warm conductors") {
    // 1 500 kVA 480 V 5.75 %: 8.832 mΩ, infinite 31.38 kA. Utility 500 MVA: 0.4608 mΩ more, both inductive: 29.82 kA.
    const nlohmann::json stiff = {
        {"kva", 1500}, {"percentZ", 5.75}, {"xOverR", 1000}, {"path", nlohmann::json::array()}};
    CHECK(figure(answer("fault", stiff), "three_phase_kA") == Approx(31.38).margin(0.01));
    nlohmann::json soft = stiff;
    soft["utilityMVA"] = 500;
    soft["utilityXR"] = 1000;
    CHECK(figure(answer("fault", soft), "three_phase_kA") ==
          Approx(480 / std::sqrt(3.0) / (8.832 + 0.4608)).margin(0.02));
    nlohmann::json raised = stiff;
    raised["c"] = 1.05;
    CHECK(figure(answer("fault", raised), "three_phase_kA") == Approx(31.38 * 1.05).margin(0.02));
    nlohmann::json far = {{"path", {"run 300 feet 1/0 copper steel"}}}, warm = far;
    warm["celsius"] = "75 °C";
    CHECK(figure(answer("fault", warm), "three_phase_kA") < figure(answer("fault", far), "three_phase_kA") * 0.95);
}

TEST_CASE("bench: a choice is known by its beginning, and choices that hold commas are told apart") {
    // 25 hp at 480 V: 34 A by Table 430.250; magnetic-only and design B 1 100 %.
    CHECK(figure(answer("motor", {{"hp", "25 hp"}, {"design", "B"}}), "instantaneous_A") == Approx(374));
    CHECK_THROWS_WITH(answer("motor", {{"design", "C"}}), Catch::Contains("other; B, energy-efficient"));
    CHECK_THROWS_WITH(answer("demand", {{"of", "dwelling"}}), Catch::Contains("there is no choice \"dwelling\""));
    CHECK(answer("conduit", {{"nipple", "Y"}})["allowed_percent"] ==
          answer("conduit", {{"nipple", "yes"}})["allowed_percent"]);
}

TEST_CASE("bench: no figure where a sum works none out") {
    // 220.83 has no neutral of its own: its column stays empty, and there is no figure of it.
    const BenchAnswer a = answer("demand", {{"of", "dwelling, existing"}});
    CHECK(a["neutral_VA"].is_null());
    for (const auto& row : a.rows) CHECK(row.back().empty());
    CHECK(a.json()["rows"][0]["Neutral VA"].is_null());
    // 5 kVA at 4.5 % on 120 V: 5 000 / 120 / 0.045 = 926 A, also in the working.
    CHECK_THAT(answer("transformer", {{"load", "3 kVA"}, {"secondary", "120"}}).text(),
               Catch::Contains("infinite primary  → 0.926 kA"));
    // A held size that does not do says so in its working.
    const std::string held = answer("conductor", {{"load", "60 A"}, {"size", "10"}, {"length", "20"}}).text();
    CHECK_THAT(held, Catch::Contains("#10: 35.0 A  → < 60.0 A"));
    CHECK_THAT(held, Catch::Contains("60 A is above 35.0 A  → not protected"));
}
