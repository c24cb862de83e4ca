#include "core/base/Format.h"
#include "core/base/Geometry.h"
#include "core/base/Quantity.h"

#include <catch2/catch.hpp>

using namespace lintel;

TEST_CASE("numbers as people read them") {
    struct Case {
        double value;
        int decimals;
        const char* text;
    };
    for (const Case& c : {Case{0, 0, "0"},
                          {5, 0, "5"},
                          {999, 0, "999"},
                          {1000, 0, "1\u00a0000"},
                          {14400, 0, "14\u00a0400"},
                          {1234567, 0, "1\u00a0234\u00a0567"},
                          {1234.56, 1, "1\u00a0234.6"},
                          {-42.25, 2, "−42.25"},
                          {-0.001, 1, "0.0"},
                          {100000, 0, "100\u00a0000"}})
        CHECK(number(c.value, c.decimals) == c.text);
    for (const auto& [value, text] : {std::pair{0.0, "0"},
                                      {0.0491, "0.0491"},
                                      {0.491, "0.491"},
                                      {2.7, "2.70"},
                                      {31.38, "31.4"},
                                      {746.2, "746"},
                                      {9.999, "10.0"},
                                      {99.99, "100"}})
        CHECK(figures(value) == text);
    CHECK(kilo(14400) == "14.4");
    CHECK(percent(4.06) == "4.1 %");
    CHECK(percent(128.4) == "128 %");
}

TEST_CASE("ratings as plates have them: small ones keep their second place") {
    CHECK(rating(35) == "35");
    CHECK(rating(112.5) == "112.5");
    CHECK(rating(0.5) == "0.5");
    CHECK(rating(0.75) == "0.75"); // kVA of a control transformer: not 0.8
    CHECK(rating(0.25) == "0.25");
}

TEST_CASE("quantities multiply to what they should") {
    const Volts lost = Amps{32} * Ohms{0.21};
    CHECK(lost.v == Approx(6.72));
    const Amps back = lost / Ohms{0.21};
    CHECK(back.v == Approx(32));
    CHECK(lost / Volts{240} == Approx(0.028));
    const Ohms run = OhmsPerMetre{0.0065} * Metres{30};
    CHECK(run.v == Approx(0.195));
    CHECK(inFeet(feet(172)) == Approx(172));
    CHECK((Amps{3} + Amps{4}).v == 7);
    CHECK(Amps{3} < Amps{4});
    static_assert(!std::is_invocable_v<std::plus<>, Amps, Ohms>, "amperes and ohms must not add");
}

TEST_CASE("the nearest point of a segment, distances along walls") {
    CHECK(nearestOnSegment({5, 3}, {0, 0}, {10, 0}) == Point{5, 0});
    CHECK(nearestOnSegment({-5, 3}, {0, 0}, {10, 0}) == Point{0, 0});
    CHECK(nearestOnSegment({1, 1}, {2, 2}, {2, 2}) == Point{2, 2});
    CHECK(orthogonal({0, 0}, {3, -4}) == 7);
    CHECK(distance({0, 0}, {3, -4}) == 5);
    CHECK(areaOf({}) == 0);
    CHECK_FALSE(contains({}, {0, 0}));
}
