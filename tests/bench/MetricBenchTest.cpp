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
    CHECK(figure(a, "drop_V") == Approx(3.271).margin(0.005)); // 4.4 mV · 41.3 · 18
    CHECK(figure(a, "running_C") == Approx(46.7).margin(0.1)); // 30 + (41.3/64)²·40
    CHECK(figure(a, "withstand_kA") == Approx(1.15));          // 115 · 10
    CHECK(figure(a, "protective_mm2") == 4);
    CHECK(figure(a, "zs_ohm") == Approx(0.489).margin(0.003));       // 0.35 + (1.83 + 4.61)·1.2·18/1000
    CHECK(figure(a, "zs_limit_ohm") == Approx(0.874).margin(0.001)); // B50
    CHECK(a["longest_by"] == "drop");
    CHECK(figure(a, "longest_m") == Approx(63.3).margin(0.1)); // 11.5 V / (4.4 mV · 41.3)
    REQUIRE(a.circuit);
    CHECK(a.circuit->run.cable == "flat twin and earth");
    MetricBoard w;
    const auto made = makeCircuit(w.p, w.board, *a.circuit);
    REQUIRE(made);
    CHECK(w.results().of(*made).run.size == bs().find("10"));
}

TEST_CASE("bench loop: against Table 41.3, an electrode, and how long it may be") {
    const BenchAnswer a =
        answer("loop", {{"rating", 32}, {"device", "type C"}, {"size", "4"}, {"length", "15 m"}, {"ze", 0.35}});
    CHECK(figure(a, "zs_limit_ohm") == Approx(0.683).margin(0.001));
    CHECK(figure(a, "zs_ohm") == Approx(0.651).margin(0.003)); // 0.35 + (4.61 + 12.1)·1.2·15/1000
    CHECK(a["holds"] == true);
    CHECK(figure(a, "longest_m") == Approx(16.6).margin(0.3)); // (0.683 − 0.35)/0.02005
    const BenchAnswer tt = answer("loop", {{"rating", 32}, {"size", "4"}, {"ze", 25}, {"earthing", "TT"}});
    CHECK(tt["holds"] == false);
    CHECK(figure(tt, "longest_m") == 0);
    CHECK(answer("loop", {{"rating", 32}, {"size", "4"}, {"ze", 25}, {"earthing", "TT"}, {"residual", 30}})["holds"] ==
          true);
    // An insulated supply, second fault: 115 · 0.95 / (5 · 32) = 0.683 Ω for type B too, where 1.366 Ω would do.
    CHECK(figure(answer("loop", {{"rating", 32}, {"device", "type B"}, {"size", "4"}, {"earthing", "IT"}}),
                 "zs_limit_ohm") == Approx(0.683).margin(0.001));
    CHECK(figure(answer("loop", {{"rating", 32}, {"device", "type B"}, {"size", "4"}}), "zs_limit_ohm") ==
          Approx(1.366).margin(0.001));
    // Armour: three cores of 16 mm², 80 A moulded-case for a board: 5 s allowed.
    const BenchAnswer arm = answer("loop", {{"rating", 80},
                                            {"device", "moulded-case"},
                                            {"cable", "armoured 90 °C"},
                                            {"poles", 3},
                                            {"size", "16"},
                                            {"length", "20 m"},
                                            {"ze", 0.05},
                                            {"distribution", true}});
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
    CHECK(figure(spur, "drop_V") == Approx(8.19 + 0.702).margin(0.01));    // 18 mV · 13 · 3
    CHECK(figure(spur, "zs_ohm") == Approx(0.760 + 0.0702).margin(0.004)); // 19.51·1.2·3/1000
    CHECK_THAT(spur.working.text(), Catch::Contains("+ 0.702 V along the spur = 8.89 V"));
}

TEST_CASE("bench pfc: kvar by the tangents, and the order of resonance") {
    const BenchAnswer a =
        answer("pfc", {{"kW", 100}, {"from", 0.75}, {"to", 0.95}, {"transformer", 500}, {"percentZ", 4}});
    CHECK(figure(a, "kvar") == Approx(55.32).margin(0.02)); // 100·(0.8819 − 0.3287)
    CHECK(figure(a, "step_kvar") == 60);
    CHECK(figure(a, "device_A") == 125);                         // 86.6 A · 1.43 = 123.8
    CHECK(figure(a, "resonance") == Approx(14.43).margin(0.02)); // √(500·100/4/60)
    CHECK_FALSE(bench(*benchKind("pfc"), {{"from", 0.95}, {"to", 0.9}}, bs()));
}

TEST_CASE("bench maximum-demand: load groups of AS/NZS 3000 Table C1, phases levelled, one load pinned") {
    const RuleBook& book = bookOf("as-nzs-3000");
    const auto ask = [&](const json& entered) {
        auto a = bench(*benchKind("maximum-demand"), entered, book);
        REQUIRE(a);
        return *a;
    };
    // 24 points: 3 + 2 A. 32 outlets: 10 + 5 A. Range 10 kW at 50 %: 21.74 A. Heating 4.6 kW at 75 %: 15 A. In
    // all 56.74 A.
    const BenchAnswer a =
        ask({{"items",
              json::array({"lighting 24 points 60 W", "sockets 32 points 100 W", "cooking 10 kW", "heating 4.6 kW"})}});
    CHECK(figure(a, "demand_A") == Approx(5 + 15 + 21.74 + 15).margin(0.02));
    // On three phases: the range alone, 21.74; lighting and heating, 20; sockets, 15: nothing levels it better.
    const BenchAnswer t =
        ask({{"supply", "three-phase"},
             {"items",
              json::array({"lighting 24 points 60 W", "sockets 32 points 100 W", "cooking 10 kW", "heating 4.6 kW"})}});
    CHECK(figure(t, "demand_A") == Approx(21.74).margin(0.02));
    CHECK(figure(t, "spread_A") == Approx(6.74).margin(0.05));
    const BenchAnswer pinned =
        ask({{"supply", "three-phase"},
             {"items", json::array({"cooking 10 kW on L3", "heating 9.2 kW on L3", "lighting 20 points 60 W"})}});
    CHECK(figure(pinned, "demand_A") == Approx(21.74 + 30).margin(0.02));
    CHECK(pinned.rows[0][1] == "L3, pinned");
    const BenchAnswer whole = ask({{"supply", "three-phase"}, {"items", json::array({"heating 13.8 kW three-phase"})}});
    CHECK(figure(whole, "demand_A") == Approx(15).margin(0.01)); // 13.8/3 at 75 %
    // Table C1, several living units: 4 on one phase: lighting 6, sockets 10 + 4·5, ranges 15, heating 75 % of 4 · 4.6
    // kW.
    const json flat =
        json::array({"lighting 20 points 60 W", "sockets 20 points 100 W", "cooking 8 kW", "heating 4.6 kW"});
    CHECK(figure(ask({{"dwellings", 4}, {"items", flat}}), "demand_A") == Approx(6 + 30 + 15 + 60));
    // 36 on three phases: 12 on each: 5 + 12·0.25, 15 + 12·3.75, 12·2.8, 12 · 15.
    CHECK(figure(ask({{"supply", "three-phase"}, {"dwellings", 36}, {"items", flat}}), "demand_A") ==
          Approx(8 + 60 + 33.6 + 180));
    CHECK(
        figure(ask({{"dwellings", 30}, {"items", json::array({"lighting 20 points 60 W", "sockets 20 points 100 W"})}}),
               "demand_A") == Approx(15 + 50 + 57));
    CHECK_FALSE(bench(*benchKind("maximum-demand"), {{"dwellings", 4}}, bs())); // no such table
    for (const char* bad : {"teapot 3 kW", "lighting", "cooking -3 kW", "cooking 0 kW"})
        CHECK_FALSE(bench(*benchKind("maximum-demand"), {{"items", json::array({bad})}}, book));
    CHECK_FALSE(
        bench(*benchKind("maximum-demand"), {{"items", json::array({"cooking 3 kW on L2"})}}, book)); // one phase
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
    const json bad[] = {{{"load", "0 A"}, {"rating", -3}},
                        {{"cable", "string"}},
                        {{"method", "Z"}},
                        {{"length", "x"}},
                        {{"ambient", 500}},
                        {{"size", "3"}},
                        {{"load", "90000 kW"}}};
    for (const json& entered : bad) {
        INFO(entered.dump());
        CHECK_FALSE(bench(*benchKind("cable"), entered, bs()));
    }
}

TEST_CASE("bench: sets that lie together are grouped, apart they are not; harmonics count; how circuits lie chooses "
          "the row") {
    const json incomer = {{"load", "900 A"}, {"rating", 900}, {"poles", "3"}, {"cable", "single-core 90 °C"},
                          {"method", "B"},   {"size", "240"}, {"sets", 3},    {"length", "6"},
                          {"limit", 50}};
    CHECK(figure(answer("cable", incomer), "capacity_A") == Approx(3 * 450 * 0.70)); // 4E1A, 4C1: three circuits
    json apart = incomer;
    apart["setsApart"] = "yes";
    CHECK(figure(answer("cable", apart), "capacity_A") == Approx(3 * 450));
    const json tray = {{"load", "100 A"}, {"poles", "3"}, {"cable", "multicore 90 °C"}, {"method", "E"}, {"size", "35"},
                       {"circuits", 3},   {"limit", 50}};
    const double one = figure(answer("cable", {{"load", "100 A"},
                                               {"poles", "3"},
                                               {"cable", "multicore 90 °C"},
                                               {"method", "E"},
                                               {"size", "35"},
                                               {"limit", 50}}),
                              "capacity_A");
    CHECK(figure(answer("cable", tray), "capacity_A") == Approx(one * 0.82)); // 4C1, perforated tray
    json bunched = tray;
    bunched["lying"] = "bunched or enclosed";
    CHECK(figure(answer("cable", bunched), "capacity_A") == Approx(one * 0.70));
    json waves = tray;
    waves["circuits"] = 1;
    waves["thirdHarmonic"] = "25 %";
    CHECK(figure(answer("cable", waves), "capacity_A") == Approx(one * 0.86));
    const BenchAnswer a = answer("cable", apart);
    REQUIRE(a.circuit);
    CHECK(a.circuit->run.heldSize == "240");
    CHECK(a.circuit->run.heldSets == 3);
    CHECK(a.circuit->run.setsApart);
}

TEST_CASE("bench: the adiabatic rule by itself") {
    // √(1500² · 0.4) / 115 = 8.25 mm². 16 mm² stand 1.5 kA for (115 · 16 / 1500)² = 1.505 s.
    const BenchAnswer a = answer("adiabatic", {{"current", "1.5 kA"}, {"time", 0.4}, {"size", "16"}});
    CHECK(figure(a, "least_mm2") == Approx(8.25).margin(0.005));
    CHECK(figure(a, "size_mm2") == 10);
    CHECK(figure(a, "longest_s") == Approx(1.5047).margin(0.001));
    CHECK(a["withstands"] == true);
    CHECK(figure(answer("adiabatic", {{"energy", "18000 A²s"}}), "least_mm2") == Approx(std::sqrt(18000.0) / 115));
    CHECK(figure(answer("adiabatic", {{"conductor", "separate"}, {"insulation", "90"}, {"current", 1000}, {"time", 1}}),
                 "least_mm2") == Approx(1000.0 / 176));
    CHECK(figure(answer("adiabatic", {{"conductor", "armour"}, {"current", 1000}, {"time", 1}}), "least_mm2") ==
          Approx(1000.0 / 51));
    CHECK_THROWS_WITH(answer("adiabatic", {{"time", "12 s"}}), Catch::Contains("outside"));
}

TEST_CASE("bench: earthing, main bonding and supplementary bonding") {
    const BenchAnswer a = answer("bonding", {{"size", "25"}, {"earthing", "TN-C-S"}});
    CHECK(figure(a, "earthing_mm2") == 16);     // 54.7
    CHECK(figure(a, "main_bonding_mm2") == 10); // 54.8, neutral up to 35 mm²
    CHECK(figure(answer("bonding", {{"size", "70"}, {"earthing", "TN-C-S"}}), "main_bonding_mm2") == 25);
    CHECK(figure(answer("bonding", {{"size", "70"}, {"earthing", "TN-S"}}), "main_bonding_mm2") ==
          25); // half of 35, next size: 25
    CHECK(figure(answer("bonding", {{"size", "16"}, {"earthing", "TN-S"}}), "main_bonding_mm2") ==
          10); // half of 16 is 8
    CHECK(figure(answer("bonding", {{"protective1", "2.5"}, {"protective2", "4"}}), "supplementary_mm2") == 4);
    CHECK(figure(answer("bonding", {{"protective1", "2.5"}, {"protective2", "4"}, {"protected", "yes"}}),
                 "supplementary_mm2") == 2.5);
    CHECK(figure(answer("bonding", {{"protective1", "16"}}), "supplementary_mm2") ==
          10); // to an extraneous part: half of it
}

TEST_CASE("bench: rewirable, cartridge and plug fuses") {
    // 30 A of BS 3036 on a cable clipped direct: 30 / 0.725 = 41.4 A, so 6 mm² (47 A) and not 4 mm² (37 A).
    const json rewirable = {
        {"load", "28 A"}, {"rating", 30}, {"device", "rewirable fuse"}, {"limit", 50}, {"length", "10"}};
    const BenchAnswer a = answer("cable", rewirable);
    CHECK(figure(a, "size_mm2") == 6);
    CHECK(figure(a, "zs_limit_ohm") == Approx(1.04).margin(0.002)); // Table 41.2: 230 · 0.95 / 210 A
    json breaker = rewirable;
    breaker["device"] = "type B";
    breaker["rating"] = 32;
    CHECK(figure(answer("cable", breaker), "size_mm2") == 4); // 37 A carry a breaker of 32
    for (const auto& [device, rating, ohms] : {std::tuple{"cartridge fuse", 32, 0.91},
                                               {"cartridge fuse", 16, 2.30},
                                               {"plug fuse", 13, 2.30},
                                               {"plug fuse", 3, 15.6},
                                               {"rewirable fuse", 5, 9.10},
                                               {"rewirable fuse", 20, 1.68}}) {
        INFO(device << " " << rating);
        CHECK(figure(answer("loop", {{"device", device}, {"rating", rating}}), "zs_limit_ohm") ==
              Approx(ohms).epsilon(0.01));
    }
    CHECK(bs().ratingAtOrAbove(21, DeviceKind::Rewirable) == 30);
    CHECK(bs().ratingAtOrAbove(21, DeviceKind::Cartridge) == 32);
    CHECK(bs().ratingAtOrAbove(14, DeviceKind::Plug) == 0);
    CHECK(bookOf("as-nzs-3000").ratingAtOrAbove(10, DeviceKind::Rewirable) == 0); // not of that book
}

TEST_CASE("bench: AS/NZS, the loop of a supply that nobody knows, and load groups of Appendix C") {
    const RuleBook& as = bookOf("as-nzs-3000");
    const auto ask = [&](const char* kind, const json& entered) {
        auto a = bench(*benchKind(kind), entered, as);
        INFO((a ? std::string() : a.error().text()));
        REQUIRE(a);
        return *a;
    };
    // Type C of 20 A opens at once at 7.5 times: 0.8 · 230 V / 150 A = 1.227 Ω for the run alone.
    const BenchAnswer a =
        ask("loop", {{"device", "type C"}, {"rating", 20}, {"ze", "auto"}, {"earthing", "TN-C-S"}, {"length", "30"}});
    CHECK(figure(a, "loop_limit_ohm") == Approx(0.8 * 230 / 150).margin(0.001));
    CHECK(figure(a, "loop_ohm") > 0);
    CHECK_FALSE(bench(*benchKind("loop"), {{"ze", "auto"}}, bs())); // no such rule there
    const auto amps = [&](const char* line, const char* occupancy = "dwelling") {
        return figure(ask("maximum-demand", {{"occupancy", occupancy}, {"items", json::array({line})}}), "demand_A");
    };
    CHECK(amps("instantaneous 9.2 kW") == Approx(40 * 0.333));              // E
    CHECK(amps("water 3.68 kW") == Approx(16));                             // F
    CHECK(amps("outdoor 1.15 kW") == Approx(5 * 0.75));                     // A(ii)
    CHECK(amps("outlets15 2 points 3.45 kW") == Approx(10));                // B(ii): 10 A, however many
    CHECK(amps("pool 2.3 kW") == Approx(7.5));                              // G
    CHECK(amps("instantaneous 9.2 kW", "hotel") == Approx(40));             // C2, C: the largest in full
    CHECK(amps("outlets15 2 points 3.45 kW", "hotel") == Approx(15 + 7.5)); // C2, B(iii)
}

TEST_CASE("bench: a cooker whose control unit has a socket counts 5 A more") {
    const auto amps = [&](const char* line) {
        return figure(answer("maximum-demand", {{"items", json::array({line})}}), "demand_A");
    };
    CHECK(amps("cooking 11.5 kW with socket") == Approx(amps("cooking 11.5 kW") + 5));
    CHECK_THROWS_WITH(answer("maximum-demand", {{"items", json::array({"heating 3 kW with socket"})}}),
                      Catch::Contains("not understood"));
}

TEST_CASE("bench: the protective conductor is held against what its device lets through where the run begins too") {
    // 6 A type B on 230 V / 0.047 Ω · 1.1 = 5.38 kA. Class 3 of EN 60898-1, up to 6 kA: 35 000 A²s; up to 3 kA: 15 000.
    // √35 000 / 115 = 1.627 mm², √15 000 / 115 = 1.065 mm²; 1 mm² is too small at both ends.
    const json cable = {{"load", "5 A"}, {"device", "type B"}, {"rating", 6},    {"size", "1"},
                        {"ze", 0.047},   {"earthing", "TN-S"}, {"length", "10"}, {"cable", "multicore 70 °C"}};
    const BenchAnswer a = answer("cable", cable);
    CHECK(figure(a, "adiabatic_mm2") == Approx(1.065).margin(0.001));
    CHECK(figure(a, "adiabatic_here_mm2") == Approx(1.627).margin(0.001));
    CHECK_THAT(a.text(), Catch::Contains("where the run begins: 1.63 mm²"));
    const BenchAnswer loop = answer(
        "loop",
        {{"device", "type B"}, {"rating", 6}, {"size", "1"}, {"ze", 0.047}, {"earthing", "TN-S"}, {"length", "10"}});
    CHECK(figure(loop, "adiabatic_here_mm2") == Approx(1.627).margin(0.001));
    // 80 A is above what the class is given for: I²t of the 0.1 s that it may take, (230 · 1.1 / 0.35)² · 0.1.
    const BenchAnswer large = answer("loop", {{"device", "type B"}, {"rating", 80}, {"size", "16"}, {"length", "5"}});
    CHECK(figure(large, "adiabatic_here_mm2") == Approx(std::sqrt(std::pow(230 * 1.1 / 0.35, 2) * 0.1) / 115));
}

TEST_CASE("bench: a fault that its device does not open is given no time") {
    // 230 · 0.95 / (0.35 + more) is at most 624 A: less than the 5 s current of a 250 A fuse, and than 5 times 200 A.
    for (const json& in : {json{{"device", "gG fuse"}, {"rating", 250}, {"cable", "armoured 90 °C"}, {"size", "120"}},
                           json{{"device", "type B"}, {"rating", 125}, {"cable", "armoured 90 °C"}, {"size", "50"}}}) {
        const BenchAnswer a = answer("loop", in);
        CHECK(a["holds"] == false);
        CHECK(a["seconds"].is_null());
        CHECK_THAT(a.text(), Catch::Contains("not open within 5 s"));
    }
}

TEST_CASE("bench: held parallel sets are explained by their own figures, not by those of the least size") {
    // Table 4D1A, B, three-phase: 240 mm² 346 A; three circuits together 0.70 (Table 4C1): 346 · 0.7 · 3 = 726.6 A.
    const BenchAnswer a = answer("cable", {{"load", "945 A"},
                                           {"cable", "single-core 70 °C"},
                                           {"method", "B"},
                                           {"poles", "3"},
                                           {"size", "240"},
                                           {"sets", "3"},
                                           {"length", "10"}});
    CHECK(figure(a, "capacity_A") == Approx(726.6).margin(0.1));
    CHECK_THAT(a.text(), Catch::Contains("346 A × Cg 0.700 × 3 sets  → Iz 727 A < 1"));
    CHECK_THAT(a.text(), Catch::Contains("3 sets of 240 mm²; 4 sets of 300 mm² carry it  → too small"));
}
