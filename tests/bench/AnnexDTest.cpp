// Worked examples of NEC Annex D, with every intermediate figure that they print. Typed from knowledge of the annex,
// not from the program's output. Example D3 is printed with a unit load of 3 VA/ft²; the 2023 table gives 1.9, so it is
// entered.

#include "tests/bench/Answer.h"

using namespace lintel;
using nlohmann::json;

namespace {

/// With ordinary spaces between thousands.
std::string plain(std::string s) {
    for (std::size_t at; (at = s.find("\u00a0")) != std::string::npos;)
        s.replace(at, std::string("\u00a0").size(), " ");
    return s;
}
/// Whether a step of the working shows this text in its formula or value.
bool shows(const BenchAnswer& a, const std::string& what, const std::string& text) {
    for (const WorkingStep& s : a.working.steps)
        if (s.what == what && plain(s.formula + " → " + s.value).find(text) != std::string::npos) return true;
    return false;
}
/// The row of an item: connected, demand, neutral.
std::vector<std::string> row(const BenchAnswer& a, const std::string& item) {
    std::vector<std::string> out;
    for (const auto& r : a.rows)
        if (r[0] == item)
            for (std::size_t i = 1; i < r.size(); ++i) out.push_back(plain(r[i]));
    return out;
}

} // namespace

TEST_CASE("D1(a): one-family dwelling, standard method") {
    const BenchAnswer a =
        answer("demand", {{"of", "dwelling, standard"}, {"area", 1500}, {"ranges", "12 kW"}, {"dryers", "5.5 kW"}});
    CHECK(shows(a, "General lighting", "4 500 VA"));
    CHECK(shows(a, "Small appliances", "3 000 VA"));
    CHECK(shows(a, "Laundry", "1 500 VA"));
    CHECK(shows(a, "General, small appliances, laundry", "3 000 VA × 100 % + 6 000 VA × 35.0 % → 5 100 VA"));
    CHECK(row(a, "Ranges") == std::vector<std::string>{"12 000", "8 000", "5 600"});
    CHECK(row(a, "Dryers") == std::vector<std::string>{"5 500", "5 500", "3 850"});
    CHECK(figure(a, "demand_VA") == 18600);
    CHECK(figure(a, "amps") == Approx(77.5));
    CHECK(figure(a, "neutral_VA") == 14550);
    CHECK(figure(a, "neutral_A") == Approx(60.6).margin(0.05));
}

TEST_CASE("D2(a): optional method, heating larger than cooling") {
    const BenchAnswer a = answer("demand", {{"of", "dwelling, optional"},
                                            {"area", 1500},
                                            {"ranges", "12 kW"},
                                            {"dryers", "5 kW"},
                                            {"appliances", "water heater 2.5 kW; dishwasher 1.2 kW 120 V"},
                                            {"heating", "9 kW"},
                                            {"heatingUnits", 5},
                                            {"cooling", "1.38 kW"}});
    CHECK(shows(a, "General loads", "10 000 VA + 40 % of 19 700 VA → 17 880 VA"));
    CHECK(shows(a, "Heating", "9 000 VA × 40 %, 5 with own control → 3 600 VA"));
    CHECK(figure(a, "demand_VA") == 21480);
    CHECK(figure(a, "amps") == Approx(89.5));
    // Neutral: 5 100 + 70 % of 8 000 + 70 % of 5 000 + dishwasher 1 200 = 15 400 VA.
    CHECK(figure(a, "neutral_VA") == 15400);
    CHECK(figure(a, "neutral_A") == Approx(64.2).margin(0.05));
}

TEST_CASE("D2(b): optional method, cooling larger than heating") {
    const BenchAnswer a = answer("demand", {{"of", "dwelling, optional"},
                                            {"area", 1500},
                                            {"ranges", "2 × 4 kW; 5.1 kW"},
                                            {"dryers", "5 kW"},
                                            {"appliances", "water heater 4.5 kW; dishwasher 1.2 kW"},
                                            {"cooling", "42 A"},
                                            {"heating", "1.5 kW"}});
    CHECK(shows(a, "Cooling", "10 080 VA × 100 %")); // six units of 7 A at 240 V
    CHECK(shows(a, "General loads", "10 000 VA + 40 % of 22 800 VA → 19 120 VA"));
    CHECK(figure(a, "demand_VA") == 29200);
    CHECK(figure(a, "amps") == Approx(121.7).margin(0.05));
}

TEST_CASE("D2(c): optional method, heat pump with backup heat") {
    const BenchAnswer a = answer("demand", {{"of", "dwelling, optional"},
                                            {"area", 2000},
                                            {"ranges", "12 kW"},
                                            {"dryers", "5 kW"},
                                            {"appliances", "water heater 4.5 kW; dishwasher 1.2 kW"},
                                            {"cooling", "24 A"},
                                            {"heatPumpBackup", "15 kW"}});
    CHECK(shows(a, "Heat pump", "5 760 VA + 65 % of 15 000 VA → 15 510 VA"));
    CHECK(shows(a, "General loads", "10 000 VA + 40 % of 23 200 VA → 19 280 VA"));
    CHECK(figure(a, "demand_VA") == 34790);
    CHECK(figure(a, "amps") == Approx(145).margin(0.05));
}

TEST_CASE("D3: store building") {
    const json entered{{"of", "store"},     {"area", 3000},     {"unitLoad", 3},    {"lighting", "8500 VA"},
                       {"receptacles", 80}, {"showWindow", 30}, {"sign", "1200 VA"}};
    const BenchAnswer a = answer("demand", entered);
    CHECK(row(a, "Receptacles") == std::vector<std::string>{"14 400", "12 200", "12 200"});
    CHECK(row(a, "General lighting")[1] == "9 000");
    CHECK(row(a, "Show window")[1] == "6 000");
    CHECK(row(a, "Outside sign")[1] == "1 200");
    CHECK(figure(a, "continuous_VA") == 16200);
    CHECK(figure(a, "demand_VA") == 28400);
    CHECK(figure(a, "required_VA") == 32450); // 12 200 + 1.25 · 16 200
    CHECK(figure(a, "required_A") == Approx(135.2).margin(0.05));
    CHECK(figure(a, "device_A") == 150);
    // With the unit load of the 2023 edition, what is connected is the larger: 8 500 VA against 5 700.
    json now = entered;
    now["unitLoad"] = "auto";
    CHECK(row(answer("demand", now), "General lighting")[1] == "8 500");
}

TEST_CASE("D4(a): forty dwellings, half of them with ranges") {
    const auto of = [](int units, int ranges) {
        return answer("demand", {{"of", "dwellings, standard"},
                                 {"units", units},
                                 {"area", 840},
                                 {"laundry", 0},
                                 {"ranges", ranges ? std::to_string(ranges) + " × 12 kW" : ""},
                                 {"dryers", ""}});
    };
    const BenchAnswer one = of(1, 0); // 2 520 + 3 000: 3 000 + 35 % of 2 520
    CHECK(figure(one, "connected_VA") == 5520);
    CHECK(figure(one, "demand_VA") == Approx(3882));
    CHECK(figure(one, "amps") == Approx(16.2).margin(0.05));
    const BenchAnswer cooking = of(1, 1);
    CHECK(figure(cooking, "demand_VA") == Approx(11882));
    CHECK(figure(cooking, "amps") == Approx(49.5).margin(0.05));
    CHECK(figure(cooking, "neutral_VA") == Approx(9482));
    CHECK(figure(cooking, "neutral_A") == Approx(39.5).margin(0.05));
    const BenchAnswer bank = of(20, 10); // 110 400: 3 000 + 35 % of 107 400 = 40 590; ten ranges 25 kW
    CHECK(row(bank, "General, small appliances, laundry")[1] == "40 590");
    CHECK(row(bank, "Ranges")[1] == "25 000");
    CHECK(figure(bank, "demand_VA") == Approx(65590));
    CHECK(figure(bank, "amps") == Approx(273).margin(0.5));
    CHECK(figure(bank, "neutral_VA") == Approx(58090));
    CHECK(figure(bank, "neutral_A") == Approx(229).margin(0.5)); // 200 + 70 % of 42
    const BenchAnswer main =
        of(40, 20); // 220 800: 3 000 + 35 % of 117 000 + 25 % of 100 800 = 69 150; twenty ranges 35 kW
    CHECK(row(main, "General, small appliances, laundry")[1] == "69 150");
    CHECK(row(main, "Ranges")[1] == "35 000");
    CHECK(figure(main, "demand_VA") == Approx(104150));
    CHECK(figure(main, "amps") == Approx(434).margin(0.5));
    CHECK(figure(main, "neutral_VA") == Approx(93650));
    CHECK(figure(main, "neutral_A") == Approx(333).margin(0.5));
}

TEST_CASE("D4(b): the same house by the optional method") {
    // Each: 2 520 + 3 000 + range 8 000 + water heater 2 500 + heating 6 000 = 22 020 VA.
    const auto of = [](int units) {
        return answer("demand", {{"of", "dwellings, optional"},
                                 {"units", units},
                                 {"area", 840},
                                 {"laundry", 0},
                                 {"ranges", "8 kW"},
                                 {"dryers", ""},
                                 {"appliances", "water heater 2.5 kW"},
                                 {"heating", "6 kW"}});
    };
    const BenchAnswer bank = of(20), main = of(40);
    CHECK(figure(bank, "connected_VA") == 440400);
    CHECK(figure(bank, "demand_VA") == Approx(167352)); // 38 %
    CHECK(figure(bank, "amps") == Approx(697).margin(0.5));
    CHECK(figure(main, "connected_VA") == 880800);
    CHECK(figure(main, "demand_VA") == Approx(246624)); // 28 %
    CHECK(figure(main, "amps") == Approx(1027.6).margin(0.1));
}

TEST_CASE("D6: maximum demand of ranges") {
    struct Case {
        const char* ranges;
        double kW;
        const char* source;
    };
    for (const Case& c : {Case{"24 × 16 kW", 46.8, "39 kW of column C + 20 % for 4 kW over 12"},
                          {"5 × 12 kW; 2 × 12 kW; 20 × 13.5 kW; 3 × 18 kW", 49.5, "average 13.6: 45 kW + 10 %"},
                          {"12 kW", 8, "one of 12"}}) {
        INFO(c.source);
        const BenchAnswer a = answer("demand", {{"of", "dwellings, standard"},
                                                {"units", 1},
                                                {"area", 0},
                                                {"smallAppliance", 0},
                                                {"laundry", 0},
                                                {"ranges", c.ranges},
                                                {"dryers", ""}});
        CHECK(figure(a, "demand_VA") == Approx(c.kW * 1000));
    }
}

TEST_CASE("D7: service conductors of a dwelling") {
    // 175 A: 83 % is 145.25 A: 1/0 copper carries 150 A, 3/0 aluminium 155 A.
    const BenchAnswer a =
        answer("demand", {{"of", "dwelling, standard"}, {"area", 1500}, {"appliances", "furnace 20 kW"}});
    CHECK(figure(a, "amps") == Approx((18600 + 20000) / 240.0));
    CHECK(figure(a, "device_A") == 175);
    CHECK(a["service_copper"] == "1/0");
    CHECK(a["service_aluminium"] == "3/0");
}

TEST_CASE("D8: motors, their conductors, overload and devices") {
    const BenchAnswer cage =
        answer("motor", {{"hp", 25}, {"nameplate", 32}, {"serviceFactor", 1.15}, {"device", "fuse"}});
    CHECK(figure(cage, "flc_A") == 34);
    CHECK(figure(cage, "conductor_A") == Approx(42.5));
    CHECK(figure(cage, "overload_A") == Approx(40));
    CHECK(figure(cage, "device_A") == 110);         // 34 · 300 % = 102
    CHECK(figure(cage, "device_ceiling_A") == 125); // 34 · 400 % = 136, the rating below
    const BenchAnswer wound = answer(
        "motor", {{"hp", 30}, {"nameplate", 38}, {"serviceFactor", 1.15}, {"device", "fuse"}, {"rotor", "wound"}});
    CHECK(figure(wound, "flc_A") == 40);
    CHECK(figure(wound, "conductor_A") == Approx(50));
    CHECK(figure(wound, "overload_A") == Approx(47.5));
    CHECK(figure(wound, "device_A") == 60); // 40 · 150 %
    const BenchAnswer feeder = answer("motors", {{"motors", json{"25 hp", "2 × 30 hp wound"}}, {"device", "fuse"}});
    CHECK(figure(feeder, "conductor_A") == Approx(124)); // 34 + 40 + 1.25 · 40
    CHECK(figure(feeder, "device_most_A") == 190);       // 110 + 40 + 40
    CHECK(figure(feeder, "device_A") == 175);
}
