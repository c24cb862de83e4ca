#include "core/bench/CableRun.h"

#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/solve/OpeningTime.h"

#include <fmt/format.h>
#include <set>

namespace lintel {

std::vector<BenchField> cableFields(const RuleBook& book) {
    using T = BenchField::Type;
    std::vector<std::string> types, methods;
    std::set<std::string> seen;
    for (const CableType& t : book.cables.types) {
        types.push_back(t.name);
        for (const CableMethod& m : t.methods)
            if (seen.insert(m.name).second) methods.push_back(m.name);
    }
    std::vector<BenchField> f{
        {.key = "cable", .label = "Cable", .type = T::Choice, .value = book.cables.usualBranch, .choices = types},
        {.key = "method",
         .label = "Method",
         .type = T::Choice,
         .value = book.cables.type(book.cables.usualBranch)->methods.front().name,
         .choices = methods,
         .help = "How it is laid, as the rule book names it."},
        {.key = "length", .label = "Length", .type = T::Length, .value = "20", .unit = "m", .least = 0, .most = 100000},
        {.key = "ambient",
         .label = "Ambient",
         .value = "auto",
         .unit = "°C",
         .least = -40,
         .most = 85,
         .help = "Of the ground where the cable lies in it."},
        {.key = "circuits",
         .label = "Circuits together",
         .value = "1",
         .least = 1,
         .most = 200,
         .help = "Grouped with it, itself among them; its own further sets come on top unless they lie apart."},
        {.key = "lying",
         .label = "They lie",
         .type = T::Choice,
         .value = wordOf(Lying::Auto),
         .choices = benchWords<Lying>(),
         .help = "Which row of the grouping table counts."},
        {.key = "sets", .label = "Sets in parallel", .value = "auto", .least = 1, .most = 40},
        {.key = "setsApart",
         .label = "Sets lie apart",
         .type = T::Flag,
         .value = "no",
         .help = "They do not heat one another: each in a trunking of its own, or two diameters apart."},
        {.key = "thirdHarmonic",
         .label = "Third harmonic",
         .value = "0",
         .unit = "%",
         .least = 0,
         .most = 100,
         .help = "Of the current in the lines, where the cable has four loaded cores."},
        {.key = "insulated", .label = "In thermal insulation", .value = "0", .unit = "m", .least = 0, .most = 1000},
        {.key = "soil", .label = "Soil", .value = "auto", .unit = "K·m/W", .least = 0.1, .most = 10},
        {.key = "smallest", .label = "Smallest size", .type = T::Text, .value = "auto", .unit = "mm²"},
        {.key = "size", .label = "Held size", .type = T::Text, .value = "auto", .unit = "mm²"},
        {.key = "limit", .label = "Drop limit", .value = "5", .unit = "%", .least = 0.01, .most = 100},
        {.key = "before", .label = "Lost before it", .value = "0", .unit = "%", .least = 0, .most = 100},
        {.key = "ceiling", .label = "Upsizing ceiling", .value = "4", .unit = "sizes", .least = 0, .most = 40}};
    for (BenchField& x : f)
        for (const char* key : {"lying", "sets", "setsApart", "thirdHarmonic", "ambient", "insulated", "soil",
                                "smallest", "size", "before", "ceiling"})
            x.seldom = x.seldom || x.key == key;
    return f;
}

std::vector<BenchField> earthFields(const RuleBook& book) {
    using T = BenchField::Type;
    std::vector<std::string> devices{"usual"};
    for (const auto& [kind, band] : book.cables.trips) devices.push_back(wordOf(kind));
    return {{.key = "device", .label = "Device", .type = T::Choice, .value = "usual", .choices = devices},
            {.key = "rating",
             .label = "Its rating",
             .value = "auto",
             .unit = "A",
             .least = 0.5,
             .most = 6000,
             .seldom = true},
            {.key = "ze",
             .label = "Ze",
             .value = "0.35",
             .unit = "Ω",
             .least = 0.0001,
             .most = 10000,
             .help = book.cables.unknownSupplyShare > 0
                         ? "The earth-fault loop up to where the run begins. Auto: not known; the loop within is then "
                           "held against the share of the volts that the book leaves it."
                         : "The earth-fault loop up to where the run begins."},
            {.key = "earthing",
             .label = "Earthing",
             .type = T::Choice,
             .value = "TN-C-S",
             .choices = benchWords<Earthing>()},
            {.key = "residual",
             .label = "RCD",
             .value = "0",
             .unit = "mA",
             .least = 0,
             .most = 30000,
             .help = "Residual-current device; 0: none"},
            {.key = "protective",
             .label = "Protective conductor",
             .type = T::Choice,
             .value = "as the cable",
             .choices = benchWords<ProtectiveBy>(),
             .seldom = true},
            {.key = "distribution",
             .label = "Feeds a board",
             .type = T::Flag,
             .value = "no",
             .help = "The longer disconnection time is allowed then.",
             .seldom = true},
            {.key = "sockets",
             .label = "Socket outlets",
             .type = T::Flag,
             .value = "no",
             .help = "They have the shorter time up to a larger device.",
             .seldom = true}};
}

void takeCable(const BenchInputs& in, RunNeed& n, const RuleBook& book) {
    const CableType* t = book.cables.type(in.text("cable"));
    if (!t) in.refuse("cable", "the rule book has no cable \"" + in.text("cable") + "\"");
    const CableMethod* m = t->method(in.text("method"));
    if (!m) {
        std::string has;
        for (const CableMethod& x : t->methods) has += (has.empty() ? "" : ", ") + x.name;
        in.refuse("method", fmt::format("{} has no method \"{}\"", t->name, in.text("method")),
                  "Choose one of: " + has);
    }
    n.cable.make().type = int(t - book.cables.types.data());
    n.cable.make().method = int(m - t->methods.data());
    n.material = t->material;
    n.ambient = in.maybe("ambient").value_or(m->ground ? book.cables.groundOfTables : book.cables.airOfTables);
    n.cable.make().circuits = in.whole("circuits");
    n.cable.make().lying = in.choice<Lying>("lying");
    n.cable.make().setsApart = in.flag("setsApart");
    n.cable.make().thirdHarmonic = float(in.number("thirdHarmonic") / 100);
    n.heldSets = int(in.maybe("sets").value_or(0));
    n.cable.make().insulated = float(in.number("insulated"));
    n.cable.make().soil = float(in.maybe("soil").value_or(book.cables.soilOfTables));
    n.lengthKnown = true;
    n.length = in.length("length");
    n.ownLimit = n.totalLimit = in.number("limit");
    n.totalBefore = in.number("before");
    n.smallest = std::max(0, in.size("smallest", book));
    n.held = in.size("size", book);
    n.neutral = n.poles == 1 || n.cable->thirdHarmonic > 0;
}

void takeEarth(const BenchInputs& in, RunNeed& n, const RuleBook& book) {
    const std::string device = in.text("device");
    n.cable.make().device = book.cables.usual;
    if (const auto kind = fromWord<DeviceKind>(device))
        n.cable.make().device = *kind;
    else if (n.device > book.cables.trips.at(book.cables.usual).upTo)
        n.cable.make().device = book.cables.usualLarge;
    const auto ze = in.maybe("ze");
    if (!ze && book.cables.unknownSupplyShare <= 0)
        in.refuse("ze", "the loop before the run has to be known", "Type its ohms: measured, or by the supplier.");
    n.cable.make().loopBefore = ze.value_or(0);
    // Where the run begins the fault is largest: by the loop up to there, with the largest voltage factor of the book.
    const SystemFacts f = factsOf(n.system);
    const double u0 = f.lineNeutral.v > 0 ? f.lineNeutral.v : f.lineLine.v / root3;
    n.cable.make().earthBefore = ze ? float(book.cables.cMax * u0 / *ze / 1000) : 0;
    n.cable.make().earthing = in.choice<Earthing>("earthing");
    n.cable.make().residual = float(in.number("residual"));
    n.cable.make().protectiveBy = in.choice<ProtectiveBy>("protective");
    n.cable.make().final = !in.flag("distribution");
    n.cable.make().sockets = in.flag("sockets");
}

void adiabaticFigures(const EarthFault& e, BenchAnswer& a) {
    a.figure("adiabatic_mm2", "Adiabatic",
             fmt::format("{} mm² of {}", figures(double(e.needed)), figures(double(e.has))), double(e.needed));
    if (e.neededHere > 0)
        a.figure("adiabatic_here_mm2", "Where it begins",
                 fmt::format("{} mm² of {}", figures(double(e.neededHere)), figures(double(e.has))),
                 double(e.neededHere));
    else
        a.cautions.push_back("what the device lets through where the run begins is its maker's to say: not judged");
    if (!e.withstands)
        a.cautions.push_back(fmt::format("a protective conductor of {} mm² does not withstand the fault at its end: "
                                         "{} mm²",
                                         figures(double(e.has)), figures(double(e.needed))));
    if (!e.withstandsHere)
        a.cautions.push_back(fmt::format("a protective conductor of {} mm² does not withstand what the device lets "
                                         "through where the run begins: {} mm²",
                                         figures(double(e.has)), figures(double(e.neededHere))));
}

SizingRules cableRules(const BenchInputs& in, const RuleBook& book) {
    Basis b;
    b.units = UnitSystem::Metric;
    b.upsizingCeiling = in.whole("ceiling");
    b.largestPreferred = book.sizes().back().name;
    return sizingRules(b, book);
}

void cableFigures(const BenchInputs& in, RunResult& r, BenchAnswer& a, const RuleBook& book) {
    const RunNeed& n = r.need;
    sizeRun(r, cableRules(in, book), book, &a.working);
    if (r.size < 0)
        in.refuse("load", fmt::format("no size of {}, laid as {}, carries it", in.text("cable"), in.text("method")),
                  "Choose another cable or method, or divide the load.");
    const CableMethod& m = book.cables.types[std::size_t(n.cable->type)].methods[std::size_t(n.cable->method)];
    a.figure("cable", "Cable", conductorWords(r, book), conductorWords(r, book));
    a.figure("size_mm2", "Size", sizeOf(r, book), book.sizes()[std::size_t(r.size)].mm2);
    a.figure("sets", "", "", r.sets);
    a.figure("reason", "Decided by", wordOf(r.why), wordOf(r.why));
    a.figure("capacity_A", "Capacity Iz", figures(r.ampacity) + " A", r.ampacity);
    const double volts = dropVolts(n, r.size, r.sets, n.dropAmps, n.length, book).v + spurVolts(n, r.size, book).v;
    a.figure("drop_V", "Drop", fmt::format("{} V, {}", figures(volts), percent(r.dropOwn)), volts);
    a.figure("drop_percent", "", "", r.dropOwn);
    a.figure("running_C", "Under load", fmt::format("{} °C", figures(double(r.running))), r.running);
    const CableType& t = book.cables.types[std::size_t(n.cable->type)];
    const double k = book.cables.k[std::size_t(t.material)][t.celsius > 80],
                 withstand = k * book.sizes()[std::size_t(r.size)].mm2 * r.sets / 1000;
    a.figure("withstand_kA", "Withstands for 1 s", figures(withstand) + " kA", withstand);
    if (r.earth->known) {
        const EarthFault& e = *r.earth;
        a.figure("protective_mm2", "Protective conductor",
                 e.ground >= 0 ? sizeWords(book, e.ground) : std::string("armour"),
                 e.ground >= 0 ? nlohmann::ordered_json(book.sizes()[std::size_t(e.ground)].mm2)
                               : nlohmann::ordered_json("armour"));
        a.figure("zs_ohm", "Zs", fmt::format("{} of {} Ω", figures(double(e.zs)), figures(double(e.limit))),
                 double(e.zs));
        a.figure("zs_limit_ohm", "", "", double(e.limit));
        a.figure("fault_A", "Earth-fault current", fmt::format("{} A, {}", figures(double(e.amps)), openingWords(e)),
                 double(e.amps));
        adiabaticFigures(e, a);
        if (!e.inTime)
            a.cautions.push_back(fmt::format("Zs {} Ω is above {} Ω: the device does not open in {} s",
                                             figures(double(e.zs)), figures(double(e.limit)),
                                             figures(double(e.allowed))));
    }
    const double byDrop = r.longest.v, byLoop = r.earth->known && !r.earth->byResidual ? double(r.earth->longest) : 0;
    if (byDrop > 0 || byLoop > 0) {
        const bool loop = byLoop > 0 && (byLoop < byDrop || byDrop <= 0);
        a.figure("longest_m", "Longest",
                 fmt::format("{} m, by {}", number(loop ? byLoop : byDrop, 1), loop ? "the loop" : "drop"),
                 loop ? byLoop : byDrop);
        a.figure("longest_by", "", "", loop ? "loop" : "drop");
    }
    if (r.state == Sizing::PastCeiling)
        a.cautions.push_back(
            fmt::format("{} lost: past the upsizing ceiling, feed it from nearer", percent(r.dropOwn)));
    if (r.tooSmall) a.cautions.push_back("the held size is too small");
    if (m.unverified) a.cautions.push_back(m.table + ": not yet compared with the print");
}

Run cableOfProject(const BenchInputs& in, const RuleBook& book) {
    Run r;
    r.cable = in.text("cable");
    r.method = in.text("method");
    if (const auto t = in.maybe("ambient")) r.ambient = *t;
    r.grouped = in.whole("circuits") - 1;
    r.lying = in.choice<Lying>("lying");
    r.setsApart = in.flag("setsApart");
    r.thirdHarmonic = in.number("thirdHarmonic") / 100;
    r.insulated = in.number("insulated");
    if (const auto s = in.maybe("soil")) r.soil = *s;
    if (const SizeIndex held = in.size("size", book); held >= 0) {
        r.heldSize = book.sizes()[std::size_t(held)].name;
        r.heldSets = int(in.maybe("sets").value_or(0));
    }
    r.protectiveBy = in.choice<ProtectiveBy>("protective");
    return r;
}

} // namespace lintel
