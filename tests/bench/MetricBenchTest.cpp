// The metric sums of the bench, by hand.

#include "tests/bench/Answer.h"

using namespace lintel;
using nlohmann::json;

TEST_CASE("bench cable: a shower of 9.5 kW over 18 m, every figure by hand") {
    // 41.3 A, 50 A device; flat twin and earth clipped direct: 6 mm² carries 47, 10 mm² 64.
    const BenchAnswer a = answer("cable", {{"load", "9.5 kW"}, {"length", "18 m"}, {"residual", 0}, {"ze", 0.35}});
    CHECK(figure(a, "load_A") == Approx(41.30).margin(0.01));
    CHECK(figure(a, "device_A") == 50);
    CHECK(figure(a, "size_mm2") == 10);
    CHECK(figure(a, "capacity_A") == 64);
    CHECK(figure(a, "drop_V") == Approx(3.271).margin(0.005));       // 4.4 mV · 41.3 · 18
    CHECK(figure(a, "running_C") == Approx(46.7).margin(0.1));       // 30 + (41.3/64)²·40
    CHECK(figure(a, "withstand_kA") == Approx(1.15));                // 115 · 10
    CHECK(figure(a, "protective_mm2") == 4);
    CHECK(figure(a, "zs_ohm") == Approx(0.489).margin(0.003));       // 0.35 + (1.83 + 4.61)·1.2·18/1000
    CHECK(figure(a, "zs_limit_ohm") == Approx(0.874).margin(0.001)); // B50
    CHECK(a["longest_by"] == "drop");
    CHECK(figure(a, "longest_m") == Approx(63.3).margin(0.1));       // 11.5 V / (4.4 mV · 41.3)
    REQUIRE(a.circuit);
    CHECK(a.circuit->run.cable == "flat twin and earth");
    MetricBoard w;
    const auto made = makeCircuit(w.p, w.board, *a.circuit);
    REQUIRE(made);
    CHECK(w.results().of(*made).run.size == bs().find("10"));
}

TEST_CASE("bench loop: against Table 41.3, an electrode, and how long it may be") {
    const BenchAnswer a = answer("loop", {{"rating", 32}, {"device", "type C"}, {"size", "4"}, {"length", "15 m"}, {"ze", 0.35}});
    CHECK(figure(a, "zs_limit_ohm") == Approx(0.683).margin(0.001));
    CHECK(figure(a, "zs_ohm") == Approx(0.651).margin(0.003)); // 0.35 + (4.61 + 12.1)·1.2·15/1000
    CHECK(a["holds"] == true);
    CHECK(figure(a, "longest_m") == Approx(16.6).margin(0.3)); // (0.683 − 0.35)/0.02005
    const BenchAnswer tt = answer("loop", {{"rating", 32}, {"size", "4"}, {"ze", 25}, {"earthing", "TT"}});
    CHECK(tt["holds"] == false);
    CHECK(figure(tt, "longest_m") == 0);
    CHECK(answer("loop", {{"rating", 32}, {"size", "4"}, {"ze", 25}, {"earthing", "TT"}, {"residual", 30}})["holds"] == true);
    // An insulated supply, second fault: 115 · 0.95 / (5 · 32) = 0.683 Ω for type B too, where 1.366 Ω would do.
    CHECK(figure(answer("loop", {{"rating", 32}, {"device", "type B"}, {"size", "4"}, {"earthing", "IT"}}), "zs_limit_ohm") == Approx(0.683).margin(0.001));
    CHECK(figure(answer("loop", {{"rating", 32}, {"device", "type B"}, {"size", "4"}}), "zs_limit_ohm") == Approx(1.366).margin(0.001));
    // Armour: three cores of 16 mm², 80 A moulded-case for a board: 5 s allowed.
    const BenchAnswer arm = answer("loop", {{"rating", 80}, {"device", "moulded-case"}, {"cable", "armoured 90 °C"}, {"poles", 3}, {"size", "16"}, {"length", "20 m"}, {"ze", 0.05}, {"distribution", true}});
    // R1 = 1.15·1.28 = 1.472, armour 3.6·1.18 = 4.248 mΩ/m: 0.05 + 20·5.72 mΩ = 0.164 Ω.
    CHECK(figure(arm, "zs_ohm") == Approx(0.164).margin(0.002));
    CHECK(figure(arm, "zs_limit_ohm") == Approx(218.5 / 960).margin(0.001));
}

TEST_CASE("bench ring: both ways round, and what it may not be") {
    const BenchAnswer a = answer("ring", {{"length", "70 m"}, {"floor", 120}, {"rating", 40}});
    CHECK(figure(a, "size_mm2") == 2.5);
    CHECK(figure(a, "drop_V") == Approx(8.19).margin(0.01));   // 18 mV · 26 · 70/4
    CHECK(figure(a, "zs_ohm") == Approx(0.760).margin(0.004)); // 0.35 + 19.51·1.2·70/4/1000
    CHECK(a.cautions.size() >= 2);                             // 40 A, and 120 m²
    const BenchAnswer spur = answer("ring", {{"length", "70 m"}, {"rating", 32}, {"spur", "3 m"}, {"spurLoad", 13}});
    CHECK(figure(spur, "drop_V") == Approx(8.19 + 0.702).margin(0.01));      // 18 mV · 13 · 3
    CHECK(figure(spur, "zs_ohm") == Approx(0.760 + 0.0702).margin(0.004));   // 19.51·1.2·3/1000
    CHECK_THAT(spur.working.text(), Catch::Contains("+ 0.702 V along the spur = 8.89 V"));
}

TEST_CASE("bench pfc: kvar by the tangents, and the order of resonance") {
    const BenchAnswer a = answer("pfc", {{"kW", 100}, {"from", 0.75}, {"to", 0.95}, {"transformer", 500}, {"percentZ", 4}});
    CHECK(figure(a, "kvar") == Approx(55.32).margin(0.02)); // 100·(0.8819 − 0.3287)
    CHECK(figure(a, "step_kvar") == 60);
    CHECK(figure(a, "device_A") == 125);                    // 86.6 A · 1.43 = 123.8
    CHECK(figure(a, "resonance") == Approx(14.43).margin(0.02)); // √(500·100/4/60)
    CHECK_FALSE(bench(*benchKind("pfc"), {{"from", 0.95}, {"to", 0.9}}, bs()));
}

TEST_CASE("bench maximum-demand: load groups of AS/NZS 3000 Table C1, phases levelled, one load pinned") {
    const RuleBook& book = bookOf("as-nzs-3000");
    const auto ask = [&](const json& entered) { auto a = bench(*benchKind("maximum-demand"), entered, book); REQUIRE(a); return *a; };
    // 24 points: 3 + 2 A. 32 outlets: 10 + 5 A. Range 10 kW at 50 %: 21.74 A. Heating 4.6 kW at 75 %: 15 A. In all 56.74 A.
    const BenchAnswer a = ask({{"items", json::array({"lighting 24 points 60 W", "sockets 32 points 100 W", "cooking 10 kW", "heating 4.6 kW"})}});
    CHECK(figure(a, "demand_A") == Approx(5 + 15 + 21.74 + 15).margin(0.02));
    // On three phases: the range alone, 21.74; lighting and heating, 20; sockets, 15: nothing levels it better.
    const BenchAnswer t = ask({{"supply", "three-phase"}, {"items", json::array({"lighting 24 points 60 W", "sockets 32 points 100 W", "cooking 10 kW", "heating 4.6 kW"})}});
    CHECK(figure(t, "demand_A") == Approx(21.74).margin(0.02));
    CHECK(figure(t, "spread_A") == Approx(6.74).margin(0.05));
    const BenchAnswer pinned = ask({{"supply", "three-phase"}, {"items", json::array({"cooking 10 kW on L3", "heating 9.2 kW on L3", "lighting 20 points 60 W"})}});
    CHECK(figure(pinned, "demand_A") == Approx(21.74 + 30).margin(0.02));
    CHECK(pinned.rows[0][1] == "L3, pinned");
    const BenchAnswer whole = ask({{"supply", "three-phase"}, {"items", json::array({"heating 13.8 kW three-phase"})}});
    CHECK(figure(whole, "demand_A") == Approx(15).margin(0.01)); // 13.8/3 at 75 %
    // Table C1, several living units: 4 on one phase: lighting 6, sockets 10 + 4·5, ranges 15, heating 75 % of 4 · 4.6 kW.
    const json flat = json::array({"lighting 20 points 60 W", "sockets 20 points 100 W", "cooking 8 kW", "heating 4.6 kW"});
    CHECK(figure(ask({{"dwellings", 4}, {"items", flat}}), "demand_A") == Approx(6 + 30 + 15 + 60));
    // 36 on three phases: 12 on each: 5 + 12·0.25, 15 + 12·3.75, 12·2.8, 12 · 15.
    CHECK(figure(ask({{"supply", "three-phase"}, {"dwellings", 36}, {"items", flat}}), "demand_A") == Approx(8 + 60 + 33.6 + 180));
    CHECK(figure(ask({{"dwellings", 30}, {"items", json::array({"lighting 20 points 60 W", "sockets 20 points 100 W"})}}), "demand_A") == Approx(15 + 50 + 57));
    CHECK_FALSE(bench(*benchKind("maximum-demand"), {{"dwellings", 4}}, bs())); // no such table
    for (const char* bad : {"teapot 3 kW", "lighting", "cooking -3 kW", "cooking 0 kW"}) CHECK_FALSE(bench(*benchKind("maximum-demand"), {{"items", json::array({bad})}}, book));
    CHECK_FALSE(bench(*benchKind("maximum-demand"), {{"items", json::array({"cooking 3 kW on L2"})}}, book)); // one phase
}

TEST_CASE("bench: a sum is refused with a book that it is not for") {
    const auto a = bench(*benchKind("cable"), json::object(), nec());
    REQUIRE_FALSE(a);
    CHECK_THAT(a.error().what, Catch::Contains("NEC 2023 does not go by cables"));
    CHECK_FALSE(bench(*benchKind("conductor"), json::object(), bs()));
    CHECK(bench(*benchKind("fault"), json::object(), bs()));
    for (const char* kind : {"cable", "loop", "ring", "pfc", "maximum-demand"})
        for (const char* id : {"bs-7671", "iec-60364", "as-nzs-3000"}) {
            INFO(kind << " " << id);
            CHECK(bench(*benchKind(kind), json::object(), bookOf(id)));
        }
    const json bad[] = {{{"load", "0 A"}, {"rating", -3}}, {{"cable", "string"}}, {{"method", "Z"}}, {{"length", "x"}}, {{"ambient", 500}}, {{"size", "3"}}, {{"load", "90000 kW"}}};
    for (const json& entered : bad) {
        INFO(entered.dump());
        CHECK_FALSE(bench(*benchKind("cable"), entered, bs()));
    }
}
