// The one reader of quantities: what people type, in all the ways they type it, and what it must not make of it.

#include "core/base/Typed.h"
#include "core/base/Utf8.h"
#include "tests/Building.h"

#include <cmath>
#include <fmt/format.h>

using namespace lintel;

TEST_CASE("numbers as people type them, fractions too") {
    const std::pair<const char*, double> good[] = {
        {"7.5", 7.5}, {"7,5", 7.5},     {"1,200", 1200}, {"1 200", 1200},  {"1.200,5", 1200.5}, {"1,200.5", 1200.5},
        {"−3", -3},   {"-3", -3},       {"1/2", 0.5},    {"7-1/2", 7.5},   {"7 1/2", 7.5},      {"7½", 7.5},
        {"¾", 0.75},  {"3/16", 0.1875}, {" 12 ", 12},    {"0.049", 0.049}, {"1e3", 1000}};
    for (const auto& [text, value] : good) {
        INFO(text);
        REQUIRE(typedNumber(text));
        CHECK(*typedNumber(text) == Approx(value));
    }
    for (const char* bad : {"", "abc", "7-", "1/0", "7-3/2", "1/2/3", "12a", "30/2x", "120/208", "1/7", "1,2,3", "nan",
                            "inf", "--3", "7 1/2 1", "½½", "1/", "/2"}) {
        INFO(bad);
        CHECK_FALSE(typedNumber(bad));
    }
}

TEST_CASE("a quantity is converted, or refused with what may be typed") {
    struct Case {
        const char *text, *unit;
        double value;
    };
    const Case good[] = {{"1.2 kVA", "VA", 1200},
                         {"1.2kVA", "VA", 1200},
                         {"600 VA", "kVA", 0.6},
                         {"1,200", "VA", 1200},
                         {"1 200 VA", "VA", 1200},
                         {"10 A", "A", 10},
                         {"30 mA", "mA", 30},
                         {"0.03 A", "mA", 30},
                         {"22 kA", "kA", 22},
                         {"22000 A", "kA", 22},
                         {"95 °F", "°C", 35},
                         {"35", "°C", 35},
                         {"32F", "°C", 0},
                         {"5.75 %", "%", 5.75},
                         {"5.75", "%", 5.75},
                         {"7-1/2 hp", "hp", 7.5},
                         {"1/2 hp", "hp", 0.5},
                         {"100 ft", "m", 30.48},
                         {"100 feet", "m", 30.48},
                         {"6\"", "m", 0.1524},
                         {"250 mm", "m", 0.25},
                         {"0.8 Ω", "Ω", 0.8},
                         {"35 mΩ", "Ω", 0.035},
                         {"35 mohm", "Ω", 0.035},
                         {"2.5 K·m/W", "K·m/W", 2.5},
                         {"12.47 kV", "V", 12470},
                         {"3", "", 3},
                         {"1.5 MVA", "kVA", 1500}};
    for (const Case& c : good) {
        INFO(c.text << " for " << c.unit);
        const auto v = readTyped(c.text, c.unit);
        REQUIRE(v);
        CHECK(*v == Approx(c.value));
    }
    const std::pair<const char*, const char*> bad[] = {
        {"10 VA", "A"}, {"1.5 kW", "VA"}, {"1.5 hp", "VA"},    {"30/2", "kA"}, {"10 A 3", "A"},
        {"A", "A"},     {"", "A"},        {"12 parsec", "m"},  {"20 A", ""},   {"1.2.3 kVA", "VA"},
        {"1,2,3", "A"}, {"5 %%", "%"},    {"30 A/2", "A"},     {"30 mW", "W"}, {"5 mVA", "VA"},
        {"1 MΩ", "Ω"},  {"1 MOHM", "Ω"},  {"10VA extra", "VA"}};
    for (const auto& [text, unit] : bad) {
        INFO(text << " for " << unit);
        const auto v = readTyped(text, unit);
        REQUIRE_FALSE(v);
        CHECK(v.error().what.find("is not") != std::string::npos);
        CHECK(v.error().help.find("Type") == 0);
    }
    CHECK(readTyped("10 VA", "A").error().what == "“10 VA” is not a current");
    CHECK(readTyped("10 VA", "A").error().help == "Type a number, in A, mA or kA.");
}

TEST_CASE("what is put together at random reads back the same, and one sign more is never passed over") {
    Random r(9);
    const char* const unitsOf[] = {"A", "kA", "mA", "V", "VA", "kVA", "W", "kW", "hp", "Ω", "m", "%", "°C"};
    for (int i = 0; i < 3000; ++i) {
        const double value = r.between(0, 5000);
        const char* unit = unitsOf[r(int(std::size(unitsOf)))];
        const std::string text = fmt::format("{:.3f}{}{}", value, r(2) ? " " : "", unit);
        INFO(text);
        const auto v = readTyped(text, unit, '.');
        REQUIRE(v);
        CHECK(*v == Approx(std::round(value * 1000) / 1000));
        // A sign put in anywhere: the same value only where the sign means nothing, else another value or a refusal;
        // never a piece of it.
        std::string spoilt = text;
        const char sign = "x#/;!@"[r(6)];
        spoilt.insert(spoilt.begin() + r(int(text.size())), sign);
        const auto again = readTyped(spoilt, unit, '.');
        if (again && isUtf8(spoilt)) FAIL("“" << spoilt << "” was read as " << *again);
    }
}

TEST_CASE("the prefix of a squared unit is squared with it: a kA²s is a million A²s") {
    CHECK(*readTyped("8000", "A²s") == 8000);
    CHECK(*readTyped("8000 A²s", "A²s") == 8000);
    CHECK(*readTyped("0.008 kA²s", "A²s") == Approx(8000));
    CHECK(*readTyped("0.035 kA2s", "A²s") == Approx(35000));
    CHECK_FALSE(readTyped("8 kA", "A²s"));
}

TEST_CASE("volts as lists write them, with phases and hertz beside; nothing that is not understood is passed over") {
    struct Case {
        const char* text;
        double volts;
        int phases;
    };
    const Case good[] = {{"480", 480, 0},
                         {"400 V", 400, 0},
                         {"0.4 kV", 400, 0},
                         {"12.47kV", 12470, 0},
                         {"208/120", 208, 0},
                         {"120/208 V", 208, 0},
                         {"208Y/120", 208, 0},
                         {"480Y/277 V", 480, 0},
                         {"460/3/60", 460, 3},
                         {"208-1-60", 208, 1},
                         {"208 V 1 ph", 208, 1},
                         {"400V 3~ 50 Hz", 400, 3},
                         {"480V-3PH-60HZ", 480, 3},
                         {"230 V, 1φ", 230, 1},
                         {"208Y/120V 3PH 4W", 208, 3},
                         {"120/240 V 1 phase 3W", 240, 1},
                         {"115/1", 115, 1}};
    for (const Case& c : good) {
        INFO(c.text);
        const auto v = typedVolts(c.text);
        REQUIRE(v);
        CHECK(v->volts == Approx(c.volts));
        CHECK(v->phases.value_or(0) == c.phases);
    }
    for (const char* bad :
         {"", "V", "480abc", "480 A", "ca. 400", "460/3/60/x", "0", "-230", "230 V or so", "460/7", "400 kW"}) {
        INFO(bad);
        CHECK_FALSE(typedVolts(bad));
    }
}

TEST_CASE("poles and phases in words, and nothing behind them that is not understood") {
    for (const auto& [text, n] : {std::pair{"3", 3},
                                  {"3.0", 3},
                                  {"3ph", 3},
                                  {"3 ph", 3},
                                  {"3~", 3},
                                  {"3P", 3},
                                  {"1φ", 1},
                                  {"2-pole", 2},
                                  {"three-phase", 3},
                                  {"single", 1},
                                  {"Single phase", 1},
                                  {"1P+N", 1},
                                  {"TPN", 3},
                                  {"DP", 2}}) {
        INFO(text);
        REQUIRE(typedPoles(text));
        CHECK(*typedPoles(text) == n);
    }
    for (const char* bad : {"", "4", "0", "3xyz", "1.5", "30", "3 kW", "three wires or so", "P"}) {
        INFO(bad);
        CHECK_FALSE(typedPoles(bad));
    }
}

TEST_CASE("a share of one, bare or in percent") {
    CHECK(*readShare("0.85", "a power factor") == Approx(0.85));
    CHECK(*readShare("0,85", "a power factor") == Approx(0.85));
    CHECK(*readShare("85 %", "a power factor") == Approx(0.85));
    CHECK(*readShare("85%", "a power factor") == Approx(0.85));
    CHECK(readShare("0.85 lagging", "a power factor").error().what == "“0.85 lagging” is not a power factor");
}
