// The one reader of quantities: what people type, in all the ways they type it, and what it must not make of it.

#include "core/base/Typed.h"
#include "core/base/Utf8.h"
#include "tests/Building.h"

#include <cmath>
#include <fmt/format.h>

using namespace lintel;

TEST_CASE("numbers as people type them, fractions too") {
    const std::pair<const char*, double> good[] = {{"7.5", 7.5}, {"7,5", 7.5}, {"1,200", 1200}, {"1 200", 1200}, {"1.200,5", 1200.5}, {"1,200.5", 1200.5}, {"−3", -3}, {"-3", -3}, {"1/2", 0.5}, {"7-1/2", 7.5}, {"7 1/2", 7.5}, {"7½", 7.5}, {"¾", 0.75}, {"3/16", 0.1875}, {" 12 ", 12}, {"0.049", 0.049}, {"1e3", 1000}};
    for (const auto& [text, value] : good) {
        INFO(text);
        REQUIRE(typedNumber(text));
        CHECK(*typedNumber(text) == Approx(value));
    }
    for (const char* bad : {"", "abc", "7-", "1/0", "7-3/2", "1/2/3", "12a", "30/2x", "1,2,3", "nan", "inf", "--3", "7 1/2 1", "½½", "1/", "/2"}) {
        INFO(bad);
        CHECK_FALSE(typedNumber(bad));
    }
}

TEST_CASE("a quantity is converted, or refused with what may be typed") {
    struct Case { const char *text, *unit; double value; };
    const Case good[] = {{"1.2 kVA", "VA", 1200}, {"1.2kVA", "VA", 1200}, {"600 VA", "kVA", 0.6}, {"1,200", "VA", 1200}, {"1 200 VA", "VA", 1200}, {"10 A", "A", 10}, {"30 mA", "mA", 30}, {"0.03 A", "mA", 30}, {"22 kA", "kA", 22}, {"22000 A", "kA", 22}, {"95 °F", "°C", 35}, {"35", "°C", 35}, {"32F", "°C", 0}, {"5.75 %", "%", 5.75}, {"5.75", "%", 5.75}, {"7-1/2 hp", "hp", 7.5}, {"1/2 hp", "hp", 0.5}, {"100 ft", "m", 30.48}, {"100 feet", "m", 30.48}, {"6\"", "m", 0.1524}, {"250 mm", "m", 0.25}, {"0.8 Ω", "Ω", 0.8}, {"35 mΩ", "Ω", 0.035}, {"35 mohm", "Ω", 0.035}, {"2.5 K·m/W", "K·m/W", 2.5}, {"12.47 kV", "V", 12470}, {"3", "", 3}, {"1.5 MVA", "kVA", 1500}};
    for (const Case& c : good) {
        INFO(c.text << " for " << c.unit);
        const auto v = readTyped(c.text, c.unit);
        REQUIRE(v);
        CHECK(*v == Approx(c.value));
    }
    const std::pair<const char*, const char*> bad[] = {{"10 VA", "A"}, {"1.5 kW", "VA"}, {"1.5 hp", "VA"}, {"30/2", "kA"}, {"10 A 3", "A"}, {"A", "A"}, {"", "A"}, {"12 parsec", "m"}, {"20 A", ""}, {"1.2.3 kVA", "VA"}, {"1,2,3", "A"}, {"5 %%", "%"}, {"30 A/2", "A"}, {"30 mW", "W"}, {"5 mVA", "VA"}, {"1 MΩ", "Ω"}, {"1 MOHM", "Ω"}, {"10VA extra", "VA"}};
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
        // A sign put in anywhere: the same value only where the sign means nothing, else another value or a refusal; never a piece of it.
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
