// A value of a rule book that stands just at the edge of what can be right, and just beyond it: what is refused and
// what is taken, each said by the place in the book, the value and the words of the refusal.

#include "core/base/TextFile.h"
#include "core/rules/RuleBook.h"
#include "tests/World.h"

#include <nlohmann/json.hpp>

using namespace lintel;
using json = nlohmann::ordered_json;

namespace {

constexpr const char *nec2023 = "nec-2023", *bs7671 = "bs-7671", *anz = "as-nzs-3000";
/// In place of a refusal: the book is taken.
constexpr const char* taken = nullptr;

struct Edge {
    const char *book, *place; ///< a JSON pointer
    const char* value;        ///< in JSON; nothing: the place is left out
    const char* says;         ///< part of the refusal
};

json bookOf(const char* id) { return json::parse(*readText(dataFolder() / "rulebooks" / (std::string(id) + ".json"))); }

void hold(const std::vector<Edge>& edges) {
    std::map<std::string, json> books;
    for (const char* id : {nec2023, bs7671, anz}) books[id] = bookOf(id);
    for (const Edge& e : edges) {
        INFO(e.book << " " << e.place << " = " << e.value);
        json book = books[e.book];
        const json::json_pointer place(e.place);
        if (*e.value) {
            book[place] = json::parse(e.value);
        } else {
            REQUIRE(book.contains(place));
            book[place.parent_pointer()].erase(place.back());
        }
        const auto read = RuleBook::parse(book.dump(), "edge.json");
        if (e.says == taken) {
            INFO((read ? std::string() : read.error().text()));
            CHECK(read);
        } else {
            REQUIRE_FALSE(read);
            CHECK_THAT(read.error().text(), Catch::Contains(e.says));
        }
    }
}

} // namespace

TEST_CASE("edges of a book: series rise, from the first value to the last") {
    hold({
        {nec2023, "/ratings/amps/0", "0", "rising order"},
        {nec2023, "/ratings/amps/0", "0.5", taken},
        {nec2023, "/ratings/amps/1", "15", "rising order"},
        {nec2023, "/ratings/amps", "[]", "there are no ratings"},
        {nec2023, "/frames/0", "0", "the values must rise"},
        {nec2023, "/frames/0", "0.5", taken},
        {nec2023, "/frames/1", "100", "the values must rise"},
        {nec2023, "/switches", "[]", "there are no values"},
        {nec2023, "/conductors/rows/1/1", "4.11", "sizes must rise in area"},
        {bs7671, "/conductors/rows/1/0", "\"1\"", "sizes must rise in area"},
        {bs7671, "/conductors/rows/0/0", "\"0\"", "sizes must rise in area"},
        {bs7671, "/conductors/rows", "[]", "there are no rows"},
        {bs7671, "/conductors/rows/0/0", "\"one\"", "sizes must rise in area"},
        {anz, "/drop/columns/1", "45", "the temperatures must rise"},
        {bs7671, "/ring/radials/1", "[20, 50]", "radials must rise"},
        {bs7671, "/ring/radials/1", "[20, 75]", taken},
    });
}

TEST_CASE("edges of a book: conductors carry more when larger and hotter, and have their metal's resistance") {
    hold({
        {nec2023, "/conductors/rows/1/3", "20", "a hotter insulation must carry more"}, // as much at 75 °C as at 60
        {nec2023, "/conductors/rows/1/4", "25", "a hotter insulation must carry more"}, // as much at 90 °C as at 75
        {nec2023, "/conductors/rows/1/2", "15", "a larger conductor must carry more"},  // as much as #14
        {nec2023, "/conductors/rows/2/5", "15", "a larger conductor must carry more"},  // aluminium as #12
        // #14: 4.11 kcmil, 2.0826 mm². At 0.0213 Ω·mm²/m 10.228 mΩ/m, 3.1174 Ω per 1000 ft; 4 % more is 3.2421.
        {nec2023, "/conductors/rows/0/8", "3.241", taken},
        {nec2023, "/conductors/rows/0/8", "3.243", "resistance times area"},
        // Aluminium at 0.0351: 16.854 mΩ/m, 5.1371 Ω per 1000 ft; 4 % less is 4.9316.
        {nec2023, "/conductors/rows/0/9", "4.933", taken},
        {nec2023, "/conductors/rows/0/9", "4.930", "resistance times area"},
        // Alternating current finds no less than 0.93 and no more than 1.6 of the direct 3.14 Ω: 2.9202 and 5.024.
        {nec2023, "/conductors/rows/0/12", "2.921", taken},
        {nec2023, "/conductors/rows/0/12", "2.919", "far from the direct-current one"},
        {nec2023, "/conductors/rows/0/14", "5.023", taken},
        {nec2023, "/conductors/rows/0/14", "5.025", "far from the direct-current one"},
        // 2.5 mm² at 20 °C: 0.0181 / 2.5 = 7.24 Ω/km, 8 % either way 6.661 to 7.819; the cables' own rows then hang on
        // it, so only what is refused is held here.
        {bs7671, "/conductors/rows/2/1", "7.83", "resistance times area"},
        {bs7671, "/conductors/rows/2/1", "6.65", "resistance times area"},
        {bs7671, "/conductors/rows/16/2", "0.1092",
         "resistance times area"}, // aluminium, 300 mm²: 0.0303 / 300 = 0.101
        // 310.17 and 310.20 by size and by insulation.
        {nec2023, "/freeAir/rows/1/1", "25", "a larger conductor must carry more"},
        {nec2023, "/freeAir/rows/1/2", "30", "a larger conductor must carry more"},
        {nec2023, "/freeAir/rows/0/2", "25", "a hotter insulation must carry more"},
        {nec2023, "/messenger/rows/0/6", "44", "a hotter insulation must carry more"},
        {nec2023, "/freeAir/rows/0/0", "\"15\"", "there is no conductor size"},
        // Cables: as much as the size before is refused, and three cores may carry what two do.
        {bs7671, "/cables/types/0/methods/0/rows/1/1", "16", "a larger conductor must carry more"},
        {bs7671, "/cables/types/4/methods/0/rows/0/2", "\"no number\"", "expected a number"},
        {anz, "/cables/types/1/methods/0/rows/0/2", "18.2", taken},
        {anz, "/cables/types/1/methods/0/rows/0/2", "18.3", "three loaded conductors"},
        {bs7671, "/cables/types/0/methods", "[]", "there is no"},
    });
}

TEST_CASE("edges of a book: volts lost by a cable are those of its conductor, hot") {
    // Flat twin and earth, 2.5 mm², 70 °C: 7.41 Ω/km at 20 °C, 1 + 0.00393 · 50 warmer 8.866; two ways 17.73 mV/A·m.
    // From 5 % less, 16.85, to 10 % more, 19.50.
    hold({
        {bs7671, "/cables/types/0/drop/0/rows/2/1", "16.95", taken},
        {bs7671, "/cables/types/0/drop/0/rows/2/1", "16.75", "resistance is far from"},
        {bs7671, "/cables/types/0/drop/0/rows/2/1", "19.4", taken},
        {bs7671, "/cables/types/0/drop/0/rows/2/1", "19.7", "resistance is far from"},
        {bs7671, "/cables/types/0/drop/0/rows/2/1", "null", "it has an ampacity and no resistance"},
        {anz, "/cables/types/1/fromResistance/reactance", "[[\"1.5\", 0.05]]", "it has an ampacity and no reactance"},
        {anz, "/cables/types/1/fromResistance/reactance", "[[\"1.5\", 0.049]]", "cannot be right here"},
        {anz, "/cables/types/1/fromResistance/reactance", "[[\"1.5\", 0.31]]", "cannot be right here"},
        {anz, "/cables/types/1/fromResistance/reactance", "[[\"1.5\"]]", "a row of reactances"},
    });
}

TEST_CASE("edges of a book: corrections fall, and stay within what a factor can be") {
    hold({
        {nec2023, "/ambient/rows/1/0", "10", "hotter air must carry less"},
        {nec2023, "/ambient/rows/1/1", "1.29", "hotter air must carry less"},
        {nec2023, "/ambient/rows/1/3", "1.15", "hotter air must carry less"},
        {nec2023, "/ambient/rows/15/1", "0.1", "hotter air must carry less"}, // after none none again
        {nec2023, "/bundling/rows/1/0", "3", "more conductors must carry less"},
        {nec2023, "/bundling/rows/1/1", "1.0", "more conductors must carry less"},
        {nec2023, "/protective/rows/1/0", "15", "does not follow"},
        {nec2023, "/protective/rows/1/1", "\"14\"", taken}, // the same size for two ratings is no mistake
        {nec2023, "/protective/rows/2/2", "\"12\"", "does not follow"},
        {nec2023, "/parallel/smallest", "\"1/00\"", "no conductor size"},
        {bs7671, "/lying/soil/factors/1/0", "0.5", "the rows must rise"},
        {bs7671, "/lying/soil/factors/1/1", "1.28", taken},
        {bs7671, "/lying/soil/factors/1/1", "1.29", "their factor fall"},
        {bs7671, "/lying/soil/factors/0/1", "2", taken},
        {bs7671, "/lying/soil/factors/0/1", "2.01", "cannot be right here"},
        {bs7671, "/lying/insulation/factors/5/1", "0", "cannot be right here"},
        {bs7671, "/lying/insulation/factors", "[]", "there are no rows"},
        {bs7671, "/lying/soil/factors/0", "[0.5]", "a row is [value, factor]"},
        {nec2023, "/continuous/factor", "1", taken},
        {nec2023, "/continuous/factor", "0.99", "cannot be right here"},
        {nec2023, "/motor/conductor", "10", taken},
        {nec2023, "/motor/conductor", "10.1", "cannot be right here"},
    });
}

TEST_CASE("edges of a book: motors, transformers, conduit, grounding") {
    hold({
        {nec2023, "/motor/threePhase/rows/0/2", "4.4", "a higher voltage must take less current"},
        {nec2023, "/motor/threePhase/rows/1/1", "4.4", "a larger motor must take more current"},
        {nec2023, "/motor/threePhase/rows/1/0", "0.5", "horsepower must rise"},
        {nec2023, "/motor/devices/breaker/0", "1", taken},
        {nec2023, "/motor/devices/breaker/0", "0.99", "a ceiling must not lie below the share"},
        {nec2023, "/motor/devices/breaker/1", "2.5", taken},
        {nec2023, "/motor/devices/breaker/1", "2.49", "a ceiling must not lie below the share"},
        {nec2023, "/motor/devices/breaker/4", "\"wire\"", "of the motor or of the device"},
        {nec2023, "/motor/devices/breaker", "[1, 2, 3, 4]", "five figures"},
        {nec2023, "/motor/devices/lever", "[2.5, 4.0, 100, 3.0, \"motor\"]", "not a device"},
        {nec2023, "/motor/overload/other", "1.3", taken},
        {nec2023, "/motor/overload/other", "1.31", "cannot be right here"}, // more than the most that is allowed
        {nec2023, "/motor/instantaneousMost", "8.0", taken},
        {nec2023, "/motor/instantaneousMost", "7.9", "cannot be right here"},
        {nec2023, "/transformer/primaryOnly/1/0", "2", "the rows must rise"},
        {nec2023, "/transformer/primaryOnly/1/1", "3.0", "their share fall"},
        {nec2023, "/transformer/primaryOnly/2/0", "12", "has no end"},
        {nec2023, "/transformer/primaryOnly", "[]", "has no end"},
        {nec2023, "/transformer/primaryWithSecondary", "6", taken},
        {nec2023, "/transformer/primaryWithSecondary", "6.1", "cannot be right here"},
        {nec2023, "/transformer/above1000/any/0/1", "6.1", "six times the current"},
        {nec2023, "/transformer/above1000/any/0/2", "6.0", taken},
        {nec2023, "/transformer/above1000/any/0/2", "6.1", "a fuse may have no more"},
        {nec2023, "/transformer/above1000/any/0/4", "3.0", taken},
        {nec2023, "/transformer/above1000/any/0/4", "3.1", "a fuse may have no more"},
        {nec2023, "/transformer/above1000/any/0/5", "1", taken},
        {nec2023, "/transformer/above1000/any/0/5", "0.9", "a fuse may have no more"},
        {nec2023, "/transformer/above1000/any/1/0", "6", "more impedance allows less"},
        {nec2023, "/transformer/above1000/any/1/1", "6.0", "more impedance allows less"},
        // ½ in EMT, 0.622 in inside: π/4 · 0.622² = 0.30386 in², 0.6 % either way.
        {nec2023, "/conduit/types/0/rows/0/2", "0.3056", taken},
        {nec2023, "/conduit/types/0/rows/0/2", "0.3058", "not that of its inside diameter"},
        {nec2023, "/conduit/types/0/rows/0/2", "0.3019", "not that of its inside diameter"},
        {nec2023, "/conduit/types/0/rows/1", "[\"3/4\", 0.622, 0.304]", "a larger trade size must have a larger area"},
        {nec2023, "/conduit/types", "[]", "there is no conduit"},
        {nec2023, "/conduit/fill/nipple", "1", taken},
        {nec2023, "/conduit/fill/nipple", "1.1", "cannot be right here"},
        {nec2023, "/conduit/fill/one", "0.1", taken},
        {nec2023, "/conduit/fill/one", "0.09", "cannot be right here"},
        // THHN #14, 0.111 in: π/4 · 0.111² = 0.009677 in², 2 % either way.
        {nec2023, "/insulations/types/0/rows/0/2", "0.00986", taken},
        {nec2023, "/insulations/types/0/rows/0/2", "0.00988", "not that of its diameter"},
        {nec2023, "/insulations/types/0/rows/1", "[\"12\", 0.111, 0.0097]",
         "a larger conductor must have a larger area"},
        {nec2023, "/insulations/types", "[]", "no insulation"},
        {nec2023, "/bonding/rows/1/0", "66.36", "the rows must rise"},
        {nec2023, "/bonding/rows/1/2", "\"8\"", "the rows must rise"},
        {nec2023, "/bonding/rows/1/3", "\"6\"", "the rows must rise"},
        {nec2023, "/bonding/beyondShare", "0.05", taken},
        {nec2023, "/bonding/beyondShare", "0.04", "cannot be right here"},
    });
}

TEST_CASE("edges of a book: demand") {
    hold({
        {nec2023, "/demand/0/steps", "[]", "the last step has no end"},
        {nec2023, "/demand/1/steps/1/0", "3000", "steps must rise"},
        {nec2023, "/demand/1/steps/2/0", "130000", "the last step has no end"},
        {nec2023, "/demand/6/factors", "[]", "there are no factors"},
        {nec2023, "/demand/6/largest", "1", taken},
        {nec2023, "/demand/6/largest", "3", "the largest one or two"},
        {nec2023, "/demand/6/largest", "1.5", "the largest one or two"},
        {nec2023, "/demand/6/factors/2", "1.1", "must not rise with the count"},
        {nec2023, "/demand/8/demand/1", "8000", "demand must rise with the count"}, // as much as one range
        {nec2023, "/demand/8/demand", "[]", "the table is empty"},
        {nec2023, "/demand/8/small/0/upTo", "0", "groups of small ratings"},
        {nec2023, "/demand/8/small/1/from", "3499", "groups of small ratings"},
        {nec2023, "/demand/8/small/0/factors/1/0", "1", "must not rise with the count"},
        {nec2023, "/demand/8/small/0/factors/1/1", "0.8", taken},
        {nec2023, "/demand/8/small/0/factors/1/1", "0.81", "must not rise with the count"},
        {nec2023, "/demand/8/small/0/factors", "[[1, 0.8]]", "has no end"},
        {nec2023, "/demand/13/with", "\"noise\"", "no load kind"},
        {nec2023, "/demand/0/method", "\"guess\"", "no demand method"},
        {nec2023, "/demand/1/occupancy", "\"ship\"", "no occupancy"},
        {anz, "/demand/8/factors", "[1, 0.75]", "give three factors"},
        {anz, "/demand/8/factors/2", "0.76", "must not rise with the count"},
        {anz, "/demand/0/first", "1", taken},
        {anz, "/demand/0/first", "0.9", "at least one point"},
        {anz, "/demand/0/more", "0.9", "at least one point"},
        {anz, "/manyDwellings/groups/lighting/0/1", "2", taken},
        {anz, "/manyDwellings/groups/lighting/0/1", "1", "do not follow one another"},
        {anz, "/manyDwellings/groups/lighting/1/0", "5", "do not follow one another"},
        {anz, "/manyDwellings/groups/lighting/2/0", "20", "do not follow one another"},
        {anz, "/manyDwellings/groups/lighting/0/2", "0", taken},
        {anz, "/manyDwellings/groups/lighting/0/2", "-1", "do not follow one another"},
        {anz, "/manyDwellings/groups/lighting/1/3", "-0.1", "do not follow one another"},
        {anz, "/manyDwellings/groups/lighting/0", "[2, 5, 6]", "a row is"},
        {nec2023, "/restaurant/allElectric/0/2", "0", "between 0 and 1"},
        {nec2023, "/restaurant/notAllElectric/0/2", "1.01", "between 0 and 1"},
        // 160 kVA and a tenth of 125 kVA are 172.5.
        {nec2023, "/restaurant/allElectric/2/1", "172.41", taken},
        {nec2023, "/restaurant/allElectric/2/1", "172.39", "begin where the one before it ends"},
        {nec2023, "/restaurant/allElectric/2/1", "172.61", "begin where the one before it ends"},
        {nec2023, "/restaurant/allElectric/1/3", "201", "begin where the one before it ends"},
        {nec2023, "/restaurant/allElectric", "[]", "there are no rows"},
        {nec2023, "/welders/nonmotor/1/0", "20", "the rows must rise"},
        {nec2023, "/welders/nonmotor/1/1", "0.45", taken},
        {nec2023, "/welders/nonmotor/1/1", "0.44", "the rows must rise"},
        {nec2023, "/welders/motorGenerator/8/0", "99", "the last row is of 100 %"},
        {nec2023, "/welders/motorGenerator/8/1", "0.99", "the last row is of 100 %"},
        {nec2023, "/welders/nonmotor", "[]", "the last row is of 100 %"},
        {nec2023, "/welders/resistance/rows/1/0", "5", "the rows must rise"},
        {nec2023, "/welders/resistance/rows/1/1", "0.22", taken},
        {nec2023, "/welders/resistance/rows/1/1", "0.21", "the rows must rise"},
        {nec2023, "/welders/resistance/rows", "[]", "there are no rows"},
        {nec2023, "/welders/shares", "[]", "there are no shares"},
        {nec2023, "/outletLoads/trackVA", "2000", taken},
        {nec2023, "/outletLoads/trackVA", "2001", "cannot be right here"},
        {nec2023, "/outletLoads/moreReceptacles", "0", "cannot be right here"},
        {nec2023, "/dwellingService/share", "0.5", taken},
        {nec2023, "/dwellingService/share", "0.49", "cannot be right here"},
        {bs7671, "/drop/ownSubstation/total", "5", taken},
        {bs7671, "/drop/ownSubstation/total", "4.9", "below the usual ones"},
        {bs7671, "/drop/ownSubstation/lighting", "20", taken},
        {bs7671, "/drop/ownSubstation/lighting", "20.1", "at most 20 %"},
        {bs7671, "/drop/ownSubstation/usualLighting", "0", "below the usual ones"},
    });
}

TEST_CASE("edges of a book: earth faults, their times and their devices") {
    hold({
        {bs7671, "/earthFault/finalSeconds/0", "5", taken},
        {bs7671, "/earthFault/finalSeconds/0", "5.1", "must not have a longer time"},
        {bs7671, "/earthFault/finalSeconds/3", "0", "must not have a longer time"},
        {bs7671, "/earthFault/finalUpToSockets", "32", taken},
        {bs7671, "/earthFault/finalUpToSockets", "31", "at least as much as others"},
        {bs7671, "/earthFault/trips/type B/energy/rows/1/1", "15000", "energy must rise"},
        {bs7671, "/earthFault/trips/type B/energy/rows/2/1", "35000", "energy must rise"},
        {bs7671, "/earthFault/trips/type B/energy/rows/0/2", "15000", taken},
        {bs7671, "/earthFault/trips/type B/energy/rows/0/2", "14999", "energy must rise"},
        {bs7671, "/earthFault/trips/type B/trips", "1", "it never opens"},
        {bs7671, "/earthFault/trips/type B/trips", "1.01", taken},
        {bs7671, "/earthFault/trips/rewirable fuse/capacityShare", "1", taken},
        {bs7671, "/earthFault/trips/rewirable fuse/capacityShare", "1.01", "between 0.5 and 1"},
        {bs7671, "/earthFault/trips/rewirable fuse/capacityShare", "0.5", "between 0.5 and 1"},
        {bs7671, "/earthFault/trips/rewirable fuse/capacityShare", "0.51", taken},
        {bs7671, "/earthFault/trips/plug fuse/fuse/0/1", "10",
         "currents of fuses must rise"}, // as much for 0.4 s as for 5 s
        {bs7671, "/earthFault/trips/plug fuse/fuse/0/2", "3", "currents of fuses must rise"}, // no more than its rating
        {bs7671, "/earthFault/trips/plug fuse/fuse/1/2", "10",
         "currents of fuses must rise"}, // no more than the smaller one
        {bs7671, "/earthFault/trips/plug fuse/fuse/1/2", "13.5", taken},
        {bs7671, "/earthFault/trips/plug fuse/fuse/0", "[3, 80, 60]",
         "currents of fuses must rise"}, // as much as the next larger one
        {bs7671, "/earthFault/trips/plug fuse/fuse/0", "[3, 80, 59]", taken},
        {bs7671, "/earthFault/trips/plug fuse/fuse/0/1", "null", "the smallest fuse needs its currents for both times"},
        {bs7671, "/earthFault/trips/plug fuse/fuse/1/1", "null", taken},
        {bs7671, "/earthFault/usualMotor", "\"fuse\"", "no such device among those that trip"},
        {bs7671, "/protective/k/copper", "[143, 143]", "a hotter insulation must have a larger k"},
        {bs7671, "/protective/kArmour", "[51]", ""},
        {bs7671, "/protective/byLine", "", "either byLine or groundOfLine"},
        {anz, "/protective/byLine", "[[16, 0]]", "either byLine or groundOfLine"},
        {anz, "/earthFault/unknownSupplyShare", "0.3", "between 0.3 and 1"},
        {anz, "/earthFault/unknownSupplyShare", "0.31", taken},
        {anz, "/earthFault/unknownSupplyShare", "1", "between 0.3 and 1"},
        {bs7671, "/lying/buried/share", "1", taken},
        {bs7671, "/least/mm2/toasting", "2.5", "no load kind"},
        {bs7671, "/earthFault/plainResidual/0", "5", "no load kind"},
    });
}

TEST_CASE("edges of a book: shares, from the least to the most that can be right") {
    struct Limits {
        const char* place;
        double least, most;
    };
    const Limits all[] = {
        {"/motor/directDevice", 1, 3},
        {"/motor/directInstantaneous", 1, 4},
        {"/motor/woundRotor", 1, 4},
        {"/motor/overload/serviceFactor", 1, 1.4},      // no more than its most
        {"/motor/overload/otherMost", 1.15, 2},         // no less than the usual setting
        {"/motor/overload/serviceFactorMost", 1.25, 2}, // as before
        {"/motor/hermetic/conductor", 1, 2},
        {"/motor/hermetic/device", 1, 4},
        {"/motor/instantaneousDesignBMost", 11, 30},
        {"/transformer/primaryWithSecondary", 1, 6},
        {"/bonding/beyondShare", 0.05, 1},
        {"/conduit/fill/one", 0.1, 1},
        {"/conduit/fill/two", 0.1, 1},
        {"/conduit/fill/more", 0.1, 1},
        {"/conduit/fill/nipple", 0.1, 1},
        {"/conduit/fill/countsUpFrom", 0.5, 1},
        {"/areaLighting/dwelling", 0.1, 20},
        {"/dwelling/appliances/factor", 0.1, 1},
        {"/dwelling/optional/rest", 0.1, 1},
        {"/dwelling/optional/heatPumpBackup", 0.1, 1},
        {"/dwelling/optional/heatFew", 0.1, 1},
        {"/dwelling/optional/heatMany", 0.1, 1},
        {"/existingDwelling/rest", 0.1, 1},
        {"/existing/factor", 1, 3},
        {"/dwellingService/share", 0.5, 1},
        {"/neutral/cooking", 0.1, 1},
        {"/neutral/aboveFactor", 0.1, 1},
        {"/capacitor/conductor", 1, 3},
        {"/capacitor/ofMotorConductor", 0.1, 1},
        {"/generator/conductor", 1, 3},
    };
    const json good = bookOf(nec2023);
    for (const Limits& l : all) {
        INFO(l.place);
        const auto takes = [&](double value) {
            json book = good;
            const json::json_pointer place(l.place);
            REQUIRE(book.contains(place));
            book[place] = value;
            return bool(RuleBook::parse(book.dump(), "edge.json"));
        };
        CHECK(takes(l.least));
        CHECK_FALSE(takes(l.least - 0.001));
        CHECK(takes(l.most));
        CHECK_FALSE(takes(l.most + 0.001));
    }
}
