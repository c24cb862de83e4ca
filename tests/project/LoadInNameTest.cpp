// Rows typed into one cell: which amount is the load of the circuit, and where it is left to the designer.

#include "core/project/LoadInName.h"

#include <catch2/catch.hpp>

using namespace lintel;

namespace {

void reads(const char* typed, const char* name, double amount, LoadUnit unit, int poles = 0) {
    INFO(typed);
    const auto said = loadInName(typed);
    REQUIRE(said);
    CHECK(said->name == name);
    CHECK(said->load.amount == Approx(amount));
    CHECK(said->load.unit == unit);
    CHECK(said->poles == poles);
}

} // namespace

TEST_CASE("the load that a description ends with or holds") {
    reads("Copier 1.5kW", "Copier", 1.5, LoadUnit::kW);
    reads("Open office lighting 1,200 VA", "Open office lighting", 1200, LoadUnit::VA);
    reads("EF-1 1/2 hp", "EF-1", 0.5, LoadUnit::hp);
    reads("RTU-1 7-1/2 hp 3P", "RTU-1", 7.5, LoadUnit::hp, 3);
    reads("RTU-2 (10 HP), 3-pole", "RTU-2", 10, LoadUnit::hp, 3);
    reads("Water heater: 4.5 kW 208V", "Water heater: 208V", 4.5, LoadUnit::kW);
    reads("WH 4.5 kW 208V 2P", "WH 208V", 4.5, LoadUnit::kW, 2);
    reads("2 kVA rack, room 104", "rack, room 104", 2, LoadUnit::kVA);
    reads("Jet fan - 0.75 kw", "Jet fan", 0.75, LoadUnit::kW);
}

TEST_CASE("a description whose amount may be something else is left alone") {
    for (const char* typed : {"Sign 20 A",              // as well its breaker
                              "Receptacles 1200",       // no unit
                              "Heaters 3 x 1.5 kW",     // one of three
                              "Heaters (3) 1.5 kW",     //
                              "Heaters 1.5 kW each",    //
                              "Heaters 3 200 W",        // three of 200, or 3200
                              "Pumps 2 1/2 hp",         // two, or two and a half
                              "Fan 1 kW and pump 2 kW", // which?
                              "1.5 kW",                 // no name would be left
                              "Lights 0 W", "West wing", ""}) {
        INFO(typed);
        CHECK_FALSE(loadInName(typed));
    }
}
