// Outlets whose load is not known: receptacles, lighting track, lampholders, multioutlet assemblies, signs, show
// windows.

#include "core/base/Format.h"
#include "core/bench/BenchInputs.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::vector<BenchField> fields(const RuleBook&) {
    using T = BenchField::Type;
    return {{.key = "receptacles",
             .label = "Receptacle straps",
             .value = "10",
             .least = 0,
             .most = 1e5,
             .help = "Single, duplex or triple: one strap each."},
            {.key = "more",
             .label = "Receptacles in fours or more",
             .value = "0",
             .least = 0,
             .most = 1e5,
             .help = "Each receptacle of a device made up of four or more."},
            {.key = "lampholders", .label = "Heavy-duty lampholders", .value = "0", .least = 0, .most = 1e5},
            {.key = "track",
             .label = "Lighting track",
             .type = T::Length,
             .value = "0 ft",
             .unit = "ft",
             .least = 0,
             .most = 1e5},
            {.key = "multioutlet",
             .label = "Multioutlet assembly",
             .type = T::Length,
             .value = "0 ft",
             .unit = "ft",
             .least = 0,
             .most = 1e5,
             .help = "Where appliances are unlikely to be used together."},
            {.key = "together",
             .label = "… used together",
             .type = T::Length,
             .value = "0 ft",
             .unit = "ft",
             .least = 0,
             .most = 1e5,
             .help = "Where appliances are likely to be used together."},
            {.key = "signs", .label = "Sign circuits", .value = "0", .least = 0, .most = 1e4},
            {.key = "showWindow",
             .label = "Show window",
             .type = T::Length,
             .value = "0 ft",
             .unit = "ft",
             .least = 0,
             .most = 1e5},
            {.key = "other", .label = "Other outlets", .value = "0", .least = 0, .most = 1e5},
            unitsField()};
}

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    BenchAnswer a;
    a.working.title = "Load of outlets";
    a.columns = {"Outlets", "Count", "VA"};
    const RuleTables& t = book.tables;
    double sum = 0;
    const auto add = [&](const char* what, double count, const std::string& counted, double each,
                         const std::string& cited) {
        if (count <= 0) return;
        const double va = count * each;
        a.working.step(what, fmt::format("{} × {} VA", counted, figures(each)), number(va) + " VA", cited);
        a.rows.push_back({what, counted, number(va)});
        sum += va;
    };
    const auto whole = [&](const char* key) {
        const double v = in.number(key);
        if (v != std::floor(v)) in.refuse(key, fmt::format("{} is not a whole number", v));
        return v;
    };
    const auto pieces = [&](const char* what, const char* key, double each, const std::string& cited) {
        add(what, whole(key), number(whole(key)), each, cited);
    };
    /// Each so many feet or part of them.
    const auto along = [&](const char* what, const char* key, double per, double each, const std::string& cited) {
        const double ft = inFeet(in.length(key)), count = std::ceil(ft / per - 1e-9);
        add(what, count, fmt::format("{} ft: {}", number(ft, ft == std::floor(ft) ? 0 : 1), number(count)), each,
            cited);
    };
    pieces("Receptacle straps", "receptacles", t.receptacleOutlet, book.cite("receptacleOutlet"));
    pieces("Receptacles in fours or more", "more", t.moreReceptacles, book.cite("moreReceptacles"));
    pieces("Heavy-duty lampholders", "lampholders", t.heavyLampholder, book.cite("heavyLampholder"));
    along("Lighting track", "track", t.trackPer, t.trackVA, book.cite("trackLighting"));
    along("Multioutlet assembly", "multioutlet", t.multioutletPer, t.multioutletVA, book.cite("multioutlet"));
    along("Multioutlet assembly, used together", "together", t.multioutletTogether, t.multioutletVA,
          book.cite("multioutlet"));
    pieces("Sign circuits", "signs", t.signLeast, book.cite("sign"));
    along("Show window", "showWindow", 1, t.showWindow, book.cite("showWindow"));
    pieces("Other outlets", "other", t.receptacleOutlet, book.cite("receptacleOutlet"));
    if (sum <= 0) in.refuse("receptacles", "there is no outlet", "Give a number or a length above zero.");
    a.working.step("Together", "", number(sum) + " VA", "");
    a.working.governs();
    a.figure("connected_VA", "Load", number(sum) + " VA", sum);
    a.cautions.push_back("demand factors come after this: receptacle loads by 220.47, lighting by 220.45");
    return a;
}

} // namespace

extern const BenchKind outletsBench;
const BenchKind outletsBench{
    "outlets", "Load of outlets",
    "What outlets count whose load is not known: receptacles, track, lampholders, multioutlet assemblies, signs.",
    fields, work};

} // namespace lintel
