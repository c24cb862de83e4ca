// Demand of a list of loads, a dwelling, many dwellings, a store, or what is there already with something added.

#include "core/solve/Demand.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/project/TypedLoads.h"

#include "core/base/Format.h"
#include "core/bench/ListLine.h"
#include "core/bench/Run.h"
#include "core/rules/KindTitle.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>
#include <numeric>

namespace lintel {
namespace {

constexpr const char *asLoads = "loads", *dwellingStandard = "dwelling, standard",
                     *dwellingOptional = "dwelling, optional", *manyStandard = "dwellings, standard",
                     *manyOptional = "dwellings, optional", *store = "store", *existing = "existing and new",
                     *dwellingExisting = "dwelling, existing", *school = "school", *restaurant = "restaurant",
                     *welders = "arc welders", *resistanceWelders = "resistance welders";

std::vector<BenchField> fields(const RuleBook& book) {
    using T = BenchField::Type;
    const std::vector<std::string> homes{dwellingStandard, dwellingOptional, dwellingExisting, manyStandard,
                                         manyOptional};
    std::vector<std::string> occupancies;
    for (const auto& [name, va] : book.tables.areaLighting) occupancies.push_back(name);
    const auto with = [](std::vector<std::string> list, std::initializer_list<const char*> more) {
        for (const char* m : more) list.push_back(m);
        return list;
    };
    return {
        {.key = "of",
         .label = "Demand of",
         .type = T::Choice,
         .value = dwellingStandard,
         .choices = {asLoads, dwellingStandard, dwellingOptional, dwellingExisting, manyStandard, manyOptional, store,
                     school, restaurant, welders, resistanceWelders, existing}},
        systemField("120/240"),
        {.key = "units",
         .label = "Dwellings",
         .value = "20",
         .least = 1,
         .most = 10000,
         .only = {manyStandard, manyOptional}},
        {.key = "area",
         .label = "Area (of each)",
         .value = "1500",
         .unit = "ft²",
         .least = 0,
         .most = 1e8,
         .only = with(homes, {store, school})},
        {.key = "smallAppliance",
         .label = "Small-appliance circuits",
         .value = "2",
         .least = 0,
         .most = 100,
         .only = homes},
        {.key = "laundry", .label = "Laundry circuits", .value = "1", .least = 0, .most = 100, .only = homes},
        {.key = "ranges",
         .label = "Ranges",
         .type = T::Lines,
         .value = "12 kW",
         .help = "One line each: 12 kW, or 20 × 12 kW",
         .only = homes},
        {.key = "dryers",
         .label = "Dryers",
         .type = T::Lines,
         .value = "5.5 kW",
         .help = "One line each: 5.5 kW",
         .only = homes},
        {.key = "appliances",
         .label = "Fixed appliances",
         .type = T::Lines,
         .value = "",
         .help = "One line each: water heater 4.5 kW; add 120 V to count it on the neutral",
         .only = homes},
        {.key = "heating", .label = "Heating", .type = T::Load, .value = "0 kW", .unit = "kW", .only = homes},
        {.key = "heatingUnits",
         .label = "Heaters with own control",
         .value = "1",
         .least = 1,
         .most = 1000,
         .only = {dwellingOptional, dwellingExisting}},
        {.key = "storage",
         .label = "Heating that runs on and on",
         .type = T::Load,
         .value = "0 kW",
         .unit = "kW",
         .help = "Thermal storage: it counts in full.",
         .only = {dwellingOptional}},
        {.key = "newClimate",
         .label = "Cooling or heating is added",
         .type = T::Flag,
         .value = "yes",
         .only = {dwellingExisting}},
        {.key = "heatPumpBackup",
         .label = "Heat pump's backup",
         .type = T::Load,
         .value = "0 kW",
         .unit = "kW",
         .only = {dwellingOptional}},
        {.key = "cooling",
         .label = "Cooling or heat pump",
         .type = T::Load,
         .value = "0 kW",
         .unit = "kW",
         .only = homes},
        {.key = "vehicle", .label = "Vehicle charging", .type = T::Load, .value = "0 kW", .unit = "kW", .only = homes},
        {.key = "largestMotor",
         .label = "Largest motor",
         .type = T::Load,
         .value = "0 kW",
         .unit = "kW",
         .help = "A quarter of it is added.",
         .only = {dwellingStandard, manyStandard}},
        {.key = "occupancy",
         .label = "Lighting by area of",
         .type = T::Choice,
         .value = "retail",
         .choices = occupancies,
         .only = {store}},
        {.key = "unitLoad",
         .label = "Unit load",
         .value = "auto",
         .unit = "VA/ft²",
         .least = 0,
         .most = 100,
         .help = "Auto: the rule book's.",
         .only = {store}},
        {.key = "lighting",
         .label = "Lighting connected",
         .type = T::Load,
         .value = "0 kVA",
         .unit = "kVA",
         .only = {store}},
        {.key = "receptacles", .label = "Receptacles", .value = "80", .least = 0, .most = 1e6, .only = {store}},
        {.key = "showWindow",
         .label = "Show window",
         .value = "30",
         .unit = "ft",
         .least = 0,
         .most = 1e5,
         .only = {store}},
        {.key = "sign", .label = "Outside sign", .type = T::Load, .value = "1.2 kVA", .unit = "kVA", .only = {store}},
        {.key = "other", .label = "Other load", .type = T::Load, .value = "0 kVA", .unit = "kVA", .only = {store}},
        {.key = "building",
         .label = "Lighting demand of",
         .type = T::Choice,
         .value = "other",
         .choices = benchWords<Occupancy>(),
         .only = {asLoads}},
        {.key = "loads",
         .label = "Loads",
         .type = T::Lines,
         .value = "80 × receptacle 180 VA\nlighting 8.5 kVA continuous",
         .help = "One line each: 80 × receptacle 180 VA; add continuous where it is, pf 0.8",
         .only = {asLoads}},
        {.key = "total",
         .label = "Load connected",
         .type = T::Load,
         .value = "300 kVA",
         .unit = "kVA",
         .only = {school, restaurant}},
        {.key = "allElectric",
         .label = "All electric",
         .type = T::Flag,
         .value = "yes",
         .help = "No: part of the cooking and heating burns fuel.",
         .only = {restaurant}},
        {.key = "welders",
         .label = "Welders",
         .type = T::Lines,
         .value = "2 × 40 A 60 %\n1 × 12 kVA 30 % motor-generator",
         .help = "One line each: rated primary load and duty cycle; add motor-generator where it is one",
         .only = {welders}},
        {.key = "resistanceWelders",
         .label = "Resistance welders",
         .type = T::Lines,
         .value = "1 × 60 A 25 %\n2 × 40 A automatic",
         .help = "One line each: actual primary load and duty cycle; or rated load and automatic (seam, fed by itself) "
                 "or manual",
         .only = {resistanceWelders}},
        {.key = "peak",
         .label = "Largest demand measured",
         .type = T::Load,
         .value = "80 kVA",
         .unit = "kVA",
         .only = {existing}},
        {.key = "added", .label = "Load added", .type = T::Load, .value = "20 kVA", .unit = "kVA", .only = {existing}},
        {.key = "service",
         .label = "Service",
         .value = "auto",
         .unit = "A",
         .least = 1,
         .most = 6000,
         .only = {existing}}};
}

struct Sum {
    const BenchInputs& in;
    const RuleBook& book;
    BenchAnswer a{};
    VoltageSystem system;
    double connected = 0, demand = 0, neutral = 0;
    Working& w = a.working;

    Sum(const BenchInputs& inputs, const RuleBook& rules) : in(inputs), book(rules), system(inputs.system("system")) {
        a.columns = {"Item", "Connected VA", "Demand VA", "Neutral VA"};
    }

    double volts() const { return factsOf(system).lineLine.v * (factsOf(system).phases == 3 ? root3 : 1); }
    double va(const char* key) const {
        const auto l = loadFrom(in.text(key), LoadUnit::kW);
        if (!l || l->amount < 0)
            in.refuse(key, "\"" + in.text(key) + "\" is not a load", "Type 2.5 kW, 1200 VA or 6 A.");
        return vaOf(key, *l);
    }
    double vaOf(const char* key, const BenchLoad& l) const {
        const int poles = factsOf(system).lines > 1 ? 2 : 1;
        const double v = magnitude(powerOf(l.amount, l.unit, 1, system, poles, book));
        if (v <= 0 && l.amount > 0)
            in.refuse(key, "that horsepower is not in the motor table at this voltage", "Give it in VA or A.");
        return v;
    }
    void item(const std::string& name, double c, double d, double n) {
        connected += c, demand += d, neutral += n;
        a.rows.push_back({name, lintel::number(c), lintel::number(d), lintel::number(n)});
    }
    /// One that counts only together with others: `group` follows.
    void member(const std::string& name, double c) {
        connected += c;
        a.rows.push_back({name, lintel::number(c), "", ""});
    }
    void group(double d) {
        demand += d;
        a.rows.push_back({"Group", "", lintel::number(d), ""});
    }
    struct Item {
        std::string name;
        double va;
        int count;
        bool onNeutral;
    };
    std::vector<Item> items(const char* key) const {
        std::vector<Item> out;
        for (const std::string& l : in.lines(key)) {
            const auto read = readLoadLine(l);
            if (!read) in.refuse(key, "\"" + l + "\" is not a load", "Write one line each: water heater 4.5 kW");
            if (read->load.amount <= 0 || read->load.amount > 1e9)
                in.refuse(key, "\"" + l + "\" is not a load above zero");
            const bool onNeutral = read->after == "120 V" || read->after == "120V";
            if (!onNeutral && !read->after.empty())
                in.refuse(key, "\"" + l + "\": \"" + read->after + "\" is not understood",
                          "Behind the load only 120 V may stand.");
            out.push_back({read->name.empty() ? std::string(key) : read->name, vaOf(key, read->load), int(read->count),
                           onNeutral});
        }
        return out;
    }
    double byRule(LoadKind kind, const std::vector<Item>& list, double& all) {
        KindSums kinds{};
        const DemandRule& rule = book.demand(kind, Occupancy::Dwelling);
        for (const Item& i : list) {
            KindSum k;
            k.p = k.dp = i.va * i.count;
            k.largest = i.va;
            countPieces(k, rule, i.va, i.count);
            kinds[std::size_t(kind)].add(k);
            all += i.va * i.count;
        }
        return list.empty() ? 0 : demandOf(kind, kinds, Basis{}, book, &w);
    }
    double stepped(const std::string& what, double v) {
        KindSums kinds{};
        KindSum& k = kinds[std::size_t(LoadKind::DwellingGeneral)];
        k.p = k.dp = v;
        k.count = 1;
        const double d = demandOf(LoadKind::DwellingGeneral, kinds, Basis{}, book, nullptr);
        std::string formula;
        double from = 0;
        for (const auto& [upTo, factor] : book.demand(LoadKind::DwellingGeneral, Occupancy::Dwelling).steps) {
            if (const double part = std::max(0.0, std::min(v, upTo) - from); part > 0)
                formula += fmt::format("{}{} VA × {} %", formula.empty() ? "" : " + ", lintel::number(part),
                                       figures(factor * 100));
            from = upTo;
        }
        w.step(what, formula, lintel::number(d) + " VA",
               book.demand(LoadKind::DwellingGeneral, Occupancy::Dwelling).table);
        return d;
    }
    /// Lighting and receptacles by area, small-appliance and laundry circuits of one dwelling.
    double general(double count) {
        const RuleTables& t = book.tables;
        const double area = in.number("area"), small = in.number("smallAppliance"), laundry = in.number("laundry");
        if (small < t.smallApplianceLeast)
            a.cautions.push_back(
                fmt::format("a dwelling has at least {} small-appliance circuits", t.smallApplianceLeast));
        w.step("General lighting",
               fmt::format("{}{} ft² × {} VA/ft²", count > 1 ? fmt::format("{} × ", lintel::number(count)) : "",
                           lintel::number(area), figures(t.dwellingLighting)),
               lintel::number(count * area * t.dwellingLighting) + " VA", book.cite("areaLightingDwelling"));
        w.step("Small appliances",
               fmt::format("{}{} × {} VA", count > 1 ? fmt::format("{} × ", lintel::number(count)) : "",
                           lintel::number(small), lintel::number(t.smallAppliance)),
               lintel::number(count * small * t.smallAppliance) + " VA", book.cite("smallAppliance"));
        if (laundry > 0)
            w.step("Laundry",
                   fmt::format("{}{} × {} VA", count > 1 ? fmt::format("{} × ", lintel::number(count)) : "",
                               lintel::number(laundry), lintel::number(t.laundry)),
                   lintel::number(count * laundry * t.laundry) + " VA", book.cite("laundry"));
        return count * (area * t.dwellingLighting + small * t.smallAppliance + laundry * t.laundry);
    }
    void finish(double leastAmps = 0) {
        const double amps = demand / volts();
        w.step("Service or feeder",
               fmt::format("{} VA / {} V{}", lintel::number(demand), lintel::number(factsOf(system).lineLine.v),
                           factsOf(system).phases == 3 ? " / √3" : ""),
               figures(amps) + " A", "");
        w.governs();
        const double device = book.ratingAtOrAbove(std::max(amps, leastAmps));
        a.figures.insert(a.figures.begin(),
                         {{"connected_VA", "Connected", lintel::number(connected) + " VA", connected},
                          {"demand_VA", "Demand", lintel::number(demand) + " VA", demand},
                          {"amps", "Current", figures(amps) + " A", amps}});
        a.figure("device_A", "Device", device > 0 ? rating(device) + " A" : "past the series", device);
        if (leastAmps > amps)
            a.cautions.push_back(
                fmt::format("this method asks for a service of {} A at least", lintel::number(leastAmps)));
        if (neutral <= 0) // not worked out by this method: no figure, rather than none of it
            for (std::vector<std::string>& row : a.rows) row.back().clear();
        if (neutral > 0) {
            double na = neutral / volts();
            const double over = na - book.tables.neutralAbove;
            w.step("Neutral",
                   fmt::format("{} VA / {} V{}", lintel::number(neutral), lintel::number(factsOf(system).lineLine.v),
                               factsOf(system).phases == 3 ? " / √3" : ""),
                   figures(na) + " A", book.cite("neutral"));
            if (over > 0) {
                na = book.tables.neutralAbove + over * book.tables.neutralAboveFactor;
                w.step("Neutral above 200 A",
                       fmt::format("{} A + {} % of {} A", lintel::number(book.tables.neutralAbove),
                                   lintel::number(book.tables.neutralAboveFactor * 100), figures(over)),
                       figures(na) + " A", book.cite("neutral"));
            }
            a.figure("neutral_VA", "Neutral", lintel::number(neutral) + " VA", neutral);
            a.figure("neutral_A", "Neutral current", figures(na) + " A", na);
        }
    }
    void dwellingService() {
        const double device = a["device_A"].get<double>();
        const RuleTables& t = book.tables;
        if (device < t.dwellingServiceFrom || device > t.dwellingServiceTo || factsOf(system).phases != 1) return;
        for (Material m : {Material::Copper, Material::Aluminium})
            for (SizeIndex s = 0; s < SizeIndex(book.sizes().size()); ++s)
                if (book.ampacity(s, m, 75) >= device * t.dwellingServiceShare - 1e-9) {
                    w.step("Service conductors",
                           fmt::format("{} A × {} % = {} A: {} {} carries {} A at 75 °C", figures(device),
                                       figures(t.dwellingServiceShare * 100), figures(device * t.dwellingServiceShare),
                                       sizeWords(book, s), wordOf(m), figures(book.ampacity(s, m, 75))),
                           "", book.cite("dwellingService"));
                    a.figure(m == Material::Copper ? "service_copper" : "service_aluminium",
                             m == Material::Copper ? "Service in copper" : "Service in aluminium", sizeWords(book, s),
                             book.sizes()[std::size_t(s)].name);
                    break;
                }
    }

    void standard(double count) {
        const RuleTables& t = book.tables;
        const double g = general(count), net = stepped("General, small appliances, laundry", g);
        item("General, small appliances, laundry", g, net, net);
        double c = 0;
        const double range = byRule(LoadKind::Range, items("ranges"), c);
        if (c > 0) item("Ranges", c, range, range * t.neutralCooking);
        c = 0;
        const double dryer = byRule(LoadKind::Dryer, items("dryers"), c);
        if (c > 0) item("Dryers", c, dryer, dryer * t.neutralCooking);
        double fixed = 0, fixedNeutral = 0;
        int n = 0;
        for (const Item& i : items("appliances"))
            fixed += i.va * i.count, fixedNeutral += i.onNeutral ? i.va * i.count : 0, n += i.count;
        if (n > 0) {
            const double factor = n >= t.appliancesFrom ? t.appliancesFactor : 1;
            w.step("Fixed appliances",
                   fmt::format("{} of them, {} VA × {} %", n, lintel::number(fixed), figures(factor * 100)),
                   lintel::number(fixed * factor) + " VA", book.cite("appliances"));
            item("Fixed appliances", fixed, fixed * factor, fixedNeutral * factor);
        }
        const double heat = va("heating"), cool = va("cooling");
        if (heat + cool > 0) {
            w.step("Heating or cooling",
                   fmt::format("the larger of {} and {} VA", lintel::number(heat), lintel::number(cool)),
                   lintel::number(std::max(heat, cool)) + " VA",
                   book.demand(LoadKind::Heating, Occupancy::Other).table);
            item("Heating or cooling", heat + cool, std::max(heat, cool), 0);
        }
        vehicle();
        if (const double m = va("largestMotor"); m > 0) {
            w.step("Largest motor", fmt::format("25 % of {} VA", lintel::number(m)), lintel::number(m / 4) + " VA",
                   book.cite("motorFeeder"));
            item("Largest motor, 25 %", 0, m / 4, 0);
        }
        finish();
    }
    void vehicle() {
        if (const double v = va("vehicle"); v > 0) {
            const double each = book.demand(LoadKind::Vehicle, Occupancy::Dwelling).minimumEach,
                         least = std::max(v, each);
            w.step("Vehicle charging", fmt::format("{} VA, {} VA at least", lintel::number(v), lintel::number(each)),
                   lintel::number(least) + " VA", book.demand(LoadKind::Vehicle, Occupancy::Other).table);
            item("Vehicle charging", v, least, 0);
        }
    }
    double nameplates(double& neutralVa, const char* method = "dwellingOptional") {
        double sum = 0;
        for (const char* key : {"ranges", "dryers", "appliances"}) {
            double c = 0;
            for (const Item& i : items(key)) {
                c += i.va * i.count;
                if (key == std::string("appliances") && i.onNeutral) neutralVa += i.va * i.count;
                std::string what = i.name;
                what.front() = upper(what.front());
                w.step(what,
                       fmt::format("{}{} VA, nameplate", i.count > 1 ? fmt::format("{} × ", i.count) : "",
                                   lintel::number(i.va)),
                       "", book.cite(method));
            }
            sum += c;
        }
        return sum;
    }
    void optional() {
        const RuleTables& t = book.tables;
        const double g = general(1);
        double neutralFixed = 0;
        const double all = g + nameplates(neutralFixed), first = std::min(all, t.optionalFirst), rest = all - first;
        const double d = first + rest * t.optionalRest;
        w.step("General loads",
               fmt::format("{} VA + {} % of {} VA", lintel::number(first), lintel::number(t.optionalRest * 100),
                           lintel::number(rest)),
               lintel::number(d) + " VA", book.cite("dwellingOptional"));
        // The neutral is always worked out by the standard method: 220.61.
        Working quiet;
        std::swap(quiet, w);
        double c = 0;
        const double n = stepped("", g) + byRule(LoadKind::Range, items("ranges"), c) * t.neutralCooking +
                         [&] {
                             double dryers =
                                 0; // nameplate here, as its own demand is not below 5 kVA only for the load itself
                             for (const Item& i : items("dryers")) dryers += i.va * i.count;
                             return dryers;
                         }() *
                             t.neutralCooking +
                         neutralFixed;
        std::swap(quiet, w);
        item("General loads", all, d, n);
        const double heat = va("heating"), cool = va("cooling"), backup = va("heatPumpBackup");
        const int units = in.whole("heatingUnits");
        const double heatShare = units >= t.optionalManyFrom ? t.optionalHeatMany : t.optionalHeatFew;
        const double storage = va("storage");
        const double pump = cool + backup * t.optionalBackup, warm = heat * heatShare;
        if (storage > 0)
            w.step("Heating that runs on and on", fmt::format("{} VA × 100 %", lintel::number(storage)),
                   lintel::number(storage) + " VA", book.cite("dwellingOptional"));
        if (cool + heat + backup + storage > 0) {
            if (cool > 0 || backup > 0)
                w.step(backup > 0 ? "Heat pump" : "Cooling",
                       backup > 0 ? fmt::format("{} VA + {} % of {} VA", lintel::number(cool),
                                                lintel::number(t.optionalBackup * 100), lintel::number(backup))
                                  : fmt::format("{} VA × 100 %", lintel::number(cool)),
                       lintel::number(pump) + " VA", book.cite("dwellingOptional"));
            if (heat > 0)
                w.step("Heating",
                       fmt::format("{} VA × {} %, {} with own control", lintel::number(heat),
                                   lintel::number(heatShare * 100), units),
                       lintel::number(warm) + " VA", book.cite("dwellingOptional"));
            item("Heating or cooling", cool + heat + backup + storage, std::max({pump, warm, storage}), 0);
        }
        vehicle();
        finish(t.optionalLeastAmps);
    }
    /// A dwelling that stands already, with what is added to it: 220.83(A) without, (B) with new cooling or heating.
    void existingDwelling() {
        const RuleTables& t = book.tables;
        const double g = general(1);
        double neutralFixed = 0;
        const double heat = va("heating"), cool = va("cooling");
        const bool added = in.flag("newClimate");
        const bool heatWithOthers = in.whole("heatingUnits") >= t.existingManyFrom;
        double others = g + nameplates(neutralFixed, "existingDwelling");
        if (!added)
            others += std::max(heat, cool);
        else if (heatWithOthers)
            others += heat;
        const double first = std::min(others, t.existingFirst), rest = others - first,
                     d = first + rest * t.existingRest;
        w.step(added ? "All other loads" : "All loads",
               fmt::format("{} VA + {} % of {} VA", lintel::number(first), lintel::number(t.existingRest * 100),
                           lintel::number(rest)),
               lintel::number(d) + " VA", book.cite("existingDwelling"));
        item(added ? "All other loads" : "All loads", others, d, 0);
        if (added) {
            const double warm = heatWithOthers ? 0 : heat, climate = std::max(warm, cool);
            w.step("Cooling or heating",
                   fmt::format("the larger of {} and {} VA, in full", lintel::number(cool), lintel::number(warm)),
                   lintel::number(climate) + " VA", book.cite("existingDwelling"));
            item("Cooling or heating", cool + warm, climate, 0);
        }
        vehicle();
        finish();
    }
    void ofSchool() {
        const double area = in.number("area"), total = va("total");
        if (area <= 0) in.refuse("area", "the method goes by the load of a square foot", "Give the floor area.");
        const double each = total / area;
        double counted = 0, from = 0;
        std::string formula;
        for (const Band& b : book.tables.school) {
            const double part = std::max(0.0, std::min(each, b.upTo) - from);
            if (part > 0)
                formula += fmt::format("{}{} × {} %", formula.empty() ? "" : " + ", figures(part),
                                       lintel::number(b.value * 100));
            counted += part * b.value;
            from = b.upTo;
        }
        w.step("Load of a square foot", fmt::format("{} VA / {} ft²", lintel::number(total), lintel::number(area)),
               figures(each) + " VA/ft²", book.cite("school"));
        w.step("Demand of a square foot", formula, figures(counted) + " VA/ft²", book.cite("school"));
        item("School", total, counted * area, 0);
        finish();
    }
    void ofRestaurant() {
        const double total = va("total");
        const bool electric = in.flag("allElectric");
        for (const auto& row : electric ? book.tables.restaurantElectric : book.tables.restaurantMixed) {
            if (total > row.upTo * 1000) continue;
            const double over = total - row.from * 1000, d = row.base * 1000 + row.share * over;
            w.step(electric ? "All electric" : "Not all electric",
                   row.base > 0 ? fmt::format("{} kVA + {} % of what is over {} kVA", lintel::number(row.base, 1),
                                              lintel::number(row.share * 100), lintel::number(row.from))
                                : fmt::format("{} VA × {} %", lintel::number(total), lintel::number(row.share * 100)),
                   lintel::number(d) + " VA", book.cite("restaurant"));
            item("Restaurant", total, d, 0);
            break;
        }
        finish();
    }
    /// By duty cycle each, then the largest two in full and less of the others.
    void ofWelders() {
        std::vector<double> effective;
        for (const std::string& l : in.lines("welders")) {
            auto read = readLoadLine(l);
            const char* help = "Write one line each: 2 × 40 A 60 %, with motor-generator where it is one.";
            if (!read || read->load.amount <= 0 || read->count > 1000)
                in.refuse("welders", "\"" + l + "\" is not a welder", help);
            std::string after = read->after;
            const std::string word = "motor-generator";
            const std::size_t at = after.find(word);
            const bool generator = at != std::string::npos;
            if (generator) after = trimmed(after.substr(0, at) + after.substr(at + word.size()));
            const auto duty = readTyped(after, "%");
            if (after.empty() || !duty || *duty <= 0 || *duty > 100)
                in.refuse("welders", "\"" + l + "\" has no duty cycle from 1 to 100 %", help);
            const auto& rows = generator ? book.tables.welderGenerator : book.tables.welderNonmotor;
            const double factor =
                std::find_if(rows.begin(), rows.end(), [&](const Band& b) { return *duty <= b.upTo + 1e-9; })->value;
            const double each = vaOf("welders", read->load);
            w.step(l,
                   fmt::format("{} VA × {} for a duty cycle of {} %", lintel::number(each), figures(factor),
                               figures(*duty)),
                   lintel::number(each * factor) + " VA", book.cite("welders"));
            for (int i = 0; i < int(read->count); ++i) effective.push_back(each * factor);
            member(l, each * read->count);
        }
        std::sort(effective.rbegin(), effective.rend());
        const auto& shares = book.tables.welderShares;
        std::string formula;
        double d = 0;
        for (std::size_t i = 0; i < effective.size(); ++i) {
            const double share = shares[std::min(i, shares.size() - 1)];
            d += effective[i] * share;
            if (i < 6)
                formula += fmt::format("{}{} × {} %", i ? " + " : "", lintel::number(effective[i]),
                                       lintel::number(share * 100));
        }
        if (effective.size() > 6)
            formula += fmt::format(" + {} more × {} %", effective.size() - 6, lintel::number(shares.back() * 100));
        w.step("Conductors for the group", formula, lintel::number(d) + " VA", book.cite("welderGroup"));
        group(d);
        a.cautions.push_back("this is for the conductors: the device may be up to twice the rated current (630.12)");
        finish();
    }
    /// Where current and duty cycle are known and stay, by the duty; else a share of the rated current. Then the
    /// largest in full and less of all others.
    void ofResistanceWelders() {
        const RuleTables& t = book.tables;
        const char* help = "Write one line each: 2 × 40 A 25 %, or 2 × 40 A automatic, or 2 × 40 A manual.";
        std::vector<double> effective;
        for (const std::string& l : in.lines("resistanceWelders")) {
            const auto read = readLoadLine(l);
            if (!read || read->load.amount <= 0 || read->count > 1000)
                in.refuse("resistanceWelders", "\"" + l + "\" is not a welder", help);
            const double each = vaOf("resistanceWelders", read->load);
            double factor = t.resistanceAutomatic;
            std::string why = "seam or fed by itself, its duty varies";
            if (sameWord(read->after, "manual")) {
                factor = t.resistanceManual;
                why = "worked by hand, its duty varies";
            } else if (!sameWord(read->after, "automatic")) {
                const auto duty = readTyped(read->after, "%");
                if (read->after.empty() || !duty || *duty <= 0)
                    in.refuse("resistanceWelders", "\"" + l + "\" has no duty cycle, and neither automatic nor manual",
                              help);
                const auto row = std::find_if(t.resistanceWelder.begin(), t.resistanceWelder.end(),
                                              [&](const Band& b) { return *duty <= b.upTo + 1e-9; });
                if (row == t.resistanceWelder.end())
                    in.refuse("resistanceWelders",
                              fmt::format("{} ends at a duty cycle of {} %", book.cite("resistanceWelders"),
                                          rating(t.resistanceWelder.back().upTo)),
                              "Write automatic or manual for one whose duty varies.");
                factor = row->value;
                why = fmt::format("a duty cycle of {} %", figures(*duty));
            }
            w.step(l, fmt::format("{} VA × {}: {}", lintel::number(each), figures(factor), why),
                   lintel::number(each * factor) + " VA", book.cite("resistanceWelders"));
            for (int i = 0; i < int(read->count); ++i) effective.push_back(each * factor);
            member(l, each * read->count);
        }
        std::sort(effective.rbegin(), effective.rend());
        const double others = std::accumulate(effective.begin() + (effective.empty() ? 0 : 1), effective.end(), 0.0),
                     largest = effective.empty() ? 0 : effective.front(), d = largest + t.resistanceOthers * others;
        w.step("Conductors for the group",
               fmt::format("{} VA of the largest + {} VA × {} %", lintel::number(largest), lintel::number(others),
                           lintel::number(t.resistanceOthers * 100)),
               lintel::number(d) + " VA", book.cite("resistanceGroup"));
        group(d);
        a.cautions.push_back(
            "this is for the conductors: the device may be up to three times the rated current (630.32)");
        finish();
    }
    void many() {
        const double count = in.number("units");
        if (count < 3) in.refuse("units", "this method is for three dwellings or more", "Choose the standard method.");
        const double g = general(count);
        double neutralFixed = 0;
        const double appliances = nameplates(neutralFixed) * count,
                     climate = std::max(va("heating"), va("cooling")) * count, all = g + appliances + climate;
        const double share = bandOf(count);
        w.step("Connected",
               fmt::format("{} VA general + {} VA appliances + {} VA heating or cooling", lintel::number(g),
                           lintel::number(appliances), lintel::number(climate)),
               lintel::number(all) + " VA", book.cite("multifamily"));
        w.step(
            "Demand",
            fmt::format("{} dwellings: {} VA × {} %", lintel::number(count), lintel::number(all), figures(share * 100)),
            lintel::number(all * share) + " VA", book.cite("multifamily"));
        item("Dwellings", all, all * share, 0);
        if (va("vehicle") > 0) vehicle();
        finish();
    }
    double bandOf(double dwellings) const {
        for (const Band& b : book.tables.multifamily)
            if (dwellings <= b.upTo + 1e-9) return b.value;
        return book.tables.multifamily.back().value;
    }
    void ofStore() {
        const RuleTables& t = book.tables;
        const double outlets = in.number("receptacles") * t.receptacleOutlet;
        KindSums kinds{};
        kinds[std::size_t(LoadKind::Receptacle)].p = kinds[std::size_t(LoadKind::Receptacle)].dp = outlets;
        const double receptacles = outlets > 0 ? demandOf(LoadKind::Receptacle, kinds, Basis{}, book, &w) : 0;
        item("Receptacles", outlets, receptacles, receptacles);
        const double unit = in.maybe("unitLoad").value_or(book.areaLighting(in.text("occupancy"))),
                     byArea = unit * in.number("area"), entered = va("lighting"), light = std::max(byArea, entered);
        w.step("General lighting",
               fmt::format("the larger of {} ft² × {} VA/ft² = {} VA and {} VA connected",
                           lintel::number(in.number("area")), figures(unit), lintel::number(byArea),
                           lintel::number(entered)),
               lintel::number(light) + " VA", book.cite("areaLighting"));
        // Where the occupancy has a demand of its own for lighting (220.45: hotels, warehouses).
        Basis building;
        building.occupancy = fromWord<Occupancy>(in.text("occupancy")).value_or(Occupancy::Other);
        const auto lightingDemand = [&](double v, Working* told) {
            KindSums of{};
            of[std::size_t(LoadKind::Lighting)].p = of[std::size_t(LoadKind::Lighting)].dp = v;
            return v > 0 ? demandOf(LoadKind::Lighting, of, building, book, told) : 0;
        };
        const bool stepped = lightingDemand(light, nullptr) < light - 1e-9;
        const double lightDemand = lightingDemand(light, stepped ? &w : nullptr);
        if (stepped)
            a.cautions.push_back(
                "the demand of 220.45 is not for rooms where all the lighting burns at once, such as ballrooms");
        item("General lighting", entered, lightDemand, lightDemand);
        const double window = in.number("showWindow") * t.showWindow;
        if (window > 0)
            w.step(
                "Show window",
                fmt::format("{} ft × {} VA/ft", lintel::number(in.number("showWindow")), lintel::number(t.showWindow)),
                lintel::number(window) + " VA", book.cite("showWindow"));
        if (window > 0) item("Show window", window, window, window);
        double sign = va("sign");
        if (sign > 0) {
            sign = std::max(sign, t.signLeast);
            w.step("Outside sign", fmt::format("{} VA at least", lintel::number(t.signLeast)),
                   lintel::number(sign) + " VA", book.cite("sign"));
            item("Outside sign", sign, sign, sign);
        }
        const double other = va("other");
        if (other > 0) {
            item("Other", other, other, 0);
            a.cautions.push_back("the other load is taken as between lines: it adds nothing to the neutral");
        }
        // The unit loads of the book hold the addition for continuous loads already; one of the designer's own, and
        // lighting that is connected, do not.
        const bool own = in.maybe("unitLoad").has_value();
        const double lighting = std::max(lightingDemand(byArea, nullptr) * (own ? book.continuousFactor : 1),
                                         book.continuousFactor * lightingDemand(entered, nullptr)),
                     others = window + sign, continuous = lightDemand + others;
        const double device = demand - lightDemand + lighting + (book.continuousFactor - 1) * others,
                     amps = device / volts();
        w.step("Lighting with its addition",
               fmt::format("the larger of {}{} VA by area{} and {} × {} VA connected",
                           own ? fmt::format("{} × ", book.continuousFactor) : "",
                           lintel::number(lightingDemand(byArea, nullptr)), own ? "" : ", which holds it,",
                           book.continuousFactor, lintel::number(lightingDemand(entered, nullptr))),
               lintel::number(lighting) + " VA", book.cite("areaLighting"));
        w.step("With continuous loads",
               fmt::format("{} VA + {} VA of lighting + {} × {} VA of other continuous loads",
                           lintel::number(demand - continuous), lintel::number(lighting), book.continuousFactor,
                           lintel::number(others)),
               lintel::number(device) + " VA", book.cite("continuousFeederDevice"));
        w.step("Device",
               fmt::format("{} VA / {} V{} = {} A, next standard rating", lintel::number(device),
                           lintel::number(factsOf(system).lineLine.v), factsOf(system).phases == 3 ? " / √3" : "",
                           figures(amps)),
               rating(book.ratingAtOrAbove(amps)) + " A", book.cite("rating"));
        finish();
        a.figure("continuous_VA", "Continuous", lintel::number(continuous) + " VA", continuous);
        a.figure("required_VA", "With additions", lintel::number(device) + " VA", device);
        a.figure("required_A", "Needed", figures(amps) + " A", amps);
        for (BenchFigure& f : a.figures)
            if (f.key == "device_A")
                f.value = book.ratingAtOrAbove(amps), f.text = rating(book.ratingAtOrAbove(amps)) + " A";
    }
    void ofLoads() {
        KindSums kinds{};
        Basis basis;
        basis.occupancy = in.choice<Occupancy>("building");
        for (const std::string& l : in.lines("loads")) {
            std::string words;
            for (const auto& [kind, word] : EnumText<LoadKind>::words)
                words += (words.empty() ? "" : ", ") + std::string(word);
            const auto read = readLoadLine(l);
            if (!read)
                in.refuse("loads", "\"" + l + "\" is not a load",
                          "Write one line each: 80 × receptacle 180 VA. Kinds: " + words);
            const auto kind = fromWord<LoadKind>(read->name);
            if (!kind)
                in.refuse("loads", "\"" + l + "\": there is no load kind \"" + read->name + "\"", "Kinds: " + words);
            std::string after = read->after;
            const std::string always = "continuous";
            const bool continuous = after.size() >= always.size() &&
                                    after.compare(after.size() - always.size(), always.size(), always) == 0;
            if (continuous) after = trimmed(after.substr(0, after.size() - always.size()));
            double pf = 1;
            if (after.rfind("pf", 0) == 0) {
                pf = typedNumber(after.substr(2)).value_or(0);
                after.clear();
            }
            if (!after.empty())
                in.refuse("loads", "\"" + l + "\": \"" + after + "\" is not understood",
                          "Behind the load may stand pf 0.8, and continuous.");
            const double count = read->count;
            const BenchLoad* load = &read->load;
            if (load->amount <= 0 || load->amount > 1e9 || !(pf > 0.01 && pf <= 1))
                in.refuse("loads", "\"" + l + "\": amounts are above zero, power factors from 0.01 to 1");
            const int poles = load->unit == LoadUnit::hp && factsOf(system).phases == 3 ? 3
                              : factsOf(system).lines > 1                               ? 2
                                                                                        : 1;
            const Complex each = powerOf(load->amount, load->unit, pf, system, poles, book);
            if (magnitude(each) <= 0)
                in.refuse("loads", "\"" + l + "\": not in the motor table at this voltage", "Give it in VA or A.");
            const DemandRule& rule = book.demand(*kind, basis.occupancy);
            KindSum k;
            k.p = k.dp = each.real() * count, k.q = k.dq = each.imag() * count;
            const double va = magnitude(each);
            k.continuous = continuous ? va * count : 0;
            k.count = count, k.largest = va, k.second = count >= 2 ? va : 0;
            k.over = rule.each > 0 ? std::max(0.0, va - rule.each) * count : 0;
            k.minimum = std::max(rule.minimumEach, va) * count;
            kinds[std::size_t(*kind)].add(k);
        }
        NodeResult n;
        findDemand(kinds, basis, book, n, &w);
        if (n.connected <= 0) in.refuse("loads", "there are no loads", "Write one line each: 80 × receptacle 180 VA");
        for (std::size_t i = 0; i < loadKinds; ++i)
            if (kinds[i].va() > 0)
                a.rows.push_back({kindTitle(LoadKind(i), book), lintel::number(kinds[i].va()),
                                  lintel::number(n.demandByKind[i]), ""});
        connected = n.connected, demand = n.demand;
        finish();
        const double required = (n.demand + (book.continuousFactor - 1) * n.continuous) / volts();
        w.step("With continuous loads",
               fmt::format("{} % of {} VA added", figures((book.continuousFactor - 1) * 100),
                           lintel::number(n.continuous)),
               figures(required) + " A", book.cite("continuousFeederDevice"));
        a.figure("required_A", "Needed", figures(required) + " A", required);
        for (BenchFigure& f : a.figures)
            if (f.key == "device_A")
                f.value = book.ratingAtOrAbove(required), f.text = rating(book.ratingAtOrAbove(required)) + " A";
    }
    void withExisting() {
        const double peak = va("peak"), added = va("added"), factor = book.tables.existingFactor;
        w.step("Existing load",
               fmt::format("{} VA measured × {} %", lintel::number(peak), lintel::number(factor * 100)),
               lintel::number(peak * factor) + " VA", book.cite("existing"));
        item("Existing, measured", peak, peak * factor, 0);
        item("Added", added, added, 0);
        finish();
        if (const auto service = in.maybe("service")) {
            const double left = *service - demand / volts();
            a.figure("left_A", "Left of the service", figures(left) + " A", left);
            if (left < 0)
                a.cautions.push_back(
                    fmt::format("the service of {} A is {} A too small", figures(*service), figures(-left)));
        }
    }
};

BenchAnswer work(const BenchInputs& in, const RuleBook& book) {
    Sum s(in, book);
    const std::string of = in.text("of");
    s.w.title = "Demand of " + of;
    if (of == dwellingStandard)
        s.standard(1), s.dwellingService();
    else if (of == dwellingOptional)
        s.optional(), s.dwellingService();
    else if (of == dwellingExisting)
        s.existingDwelling(), s.dwellingService();
    else if (of == school)
        s.ofSchool();
    else if (of == restaurant)
        s.ofRestaurant();
    else if (of == welders)
        s.ofWelders();
    else if (of == resistanceWelders)
        s.ofResistanceWelders();
    else if (of == manyStandard)
        s.standard(in.number("units"));
    else if (of == manyOptional)
        s.many();
    else if (of == store)
        s.ofStore();
    else if (of == existing)
        s.withExisting();
    else
        s.ofLoads();
    return std::move(s.a);
}

} // namespace

extern const BenchKind demandBench;
const BenchKind demandBench{"demand", "Demand",
                            "Connected load, demand and service current of loads, dwellings, a store, or an existing "
                            "service with something added.",
                            fields, work};

} // namespace lintel
