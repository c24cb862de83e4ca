#include "core/bench/Run.h"

#include "core/base/Format.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>

namespace lintel {

BenchField insulationField(const RuleBook& book) {
    BenchField f{.key = "insulation",
                 .label = "Insulation",
                 .type = BenchField::Type::Choice,
                 .value = book.tables.insulations.front().name};
    for (const Insulation& i : book.tables.insulations) f.choices.push_back(i.name);
    return f;
}
BenchField terminalsField() {
    return {.key = "terminals",
            .label = "Terminals to 100 A",
            .type = BenchField::Type::Choice,
            .value = "75",
            .unit = "°C",
            .choices = {"60", "75"}};
}

std::vector<BenchField> runFields(const RuleBook& book) {
    using T = BenchField::Type;
    std::vector<std::string> wirings = benchWords<Wiring>();
    wirings.erase(wirings.begin()); // "as basis": there is none here
    std::vector<BenchField> list{
        {.key = "length",
         .label = "Length, one way",
         .type = T::Length,
         .value = "100 ft",
         .help = "Empty: drop is not judged."},
        materialField(),
        insulationField(book),
        terminalsField(),
        {.key = "wiring", .label = "Laid in", .type = T::Choice, .value = "conduit", .choices = wirings},
        conduitField(book),
        {.key = "ambient", .label = "Ambient", .value = "30", .unit = "°C", .least = -40, .most = 85},
        {.key = "roof", .label = "Close above a roof", .type = T::Flag, .value = "no"},
        {.key = "conductors",
         .label = "Loaded conductors in it",
         .value = "auto",
         .least = 1,
         .most = 1000,
         .help = "Auto: those of this run alone."},
        {.key = "limit", .label = "Drop limit", .value = "3", .unit = "%", .least = 0.01, .most = 100},
        {.key = "before", .label = "Lost before it", .value = "0", .unit = "%", .least = 0, .most = 100},
        {.key = "total", .label = "Limit of the whole", .value = "5", .unit = "%", .least = 0.01, .most = 100},
        {.key = "ceiling", .label = "Upsizing ceiling", .value = "4", .unit = "sizes", .least = 0, .most = 30},
        sizeField("smallest", "Smallest size", book, false, "12"),
        sizeField("largest", "Largest before sets", book, false, "500"),
        sizeField("size", "Size", book, true, "auto"),
        {.key = "sets", .label = "Sets", .value = "auto", .least = 1, .most = 40},
        {.key = "neutral",
         .label = "Neutral",
         .type = T::Choice,
         .value = "as the lines",
         .choices = benchWords<NeutralBy>()},
        {.key = "isolatedGround", .label = "Isolated ground", .type = T::Flag, .value = "no"},
        unitsField()};
    for (BenchField& f : list)
        for (const char* key : {"terminals", "wiring", "roof", "before", "total", "ceiling", "smallest", "largest",
                                "size", "sets", "neutral", "isolatedGround", "units"})
            f.seldom = f.seldom || f.key == key;
    return list;
}

Amps benchAmps(const BenchInputs& in, const BenchLoad& load, double pf, VoltageSystem system, int poles,
               const RuleBook& book, Working* w) {
    if (poles > factsOf(system).lines)
        in.refuse("poles", fmt::format("{} has {} lines", wordOf(system), factsOf(system).lines),
                  "Choose fewer poles or another system.");
    const double volts = voltsAcross(system, poles).v;
    if (poles == 1 && factsOf(system).lineNeutral.v <= 0)
        in.refuse("poles", fmt::format("{} has no neutral for one pole", wordOf(system)), "Choose two poles or three.");
    if (load.unit == LoadUnit::hp) {
        const Cited flc = book.motorAmps(load.amount, volts, poles == 3);
        if (flc.value <= 0) {
            const bool threePhase = poles < 3 && factsOf(system).lines == 3 &&
                                    book.motorAmps(load.amount, voltsAcross(system, 3).v, true).value > 0;
            in.refuse("load",
                      fmt::format("{} hp at {} V {} is not in table {}", lintel::number(load.amount, 2), volts,
                                  poles == 3 ? "three-phase" : "single-phase", *flc.table),
                      threePhase ? "Choose 3 poles, or give its current in A." : "Give its current in A.");
        }
        if (w)
            w->step("Full-load current",
                    fmt::format("{} hp, {} V, {}", figures(load.amount), volts,
                                poles == 3 ? "three-phase" : "single-phase"),
                    figures(flc.value) + " A", *flc.table);
        return Amps{flc.value};
    }
    const double va = magnitude(powerOf(load.amount, load.unit, pf, system, poles, book));
    const Amps amps = ampsOf(va, system, poles);
    if (w && load.unit != LoadUnit::A)
        w->step("Load",
                fmt::format("{} {}{} / {} V{}", lintel::number(load.amount, 2), wordOf(load.unit),
                            (load.unit == LoadUnit::W || load.unit == LoadUnit::kW) && pf < 1
                                ? fmt::format(" / {:.2f}", pf)
                                : "",
                            volts, poles == 3 ? " / √3" : ""),
                figures(amps.v) + " A", "");
    return amps;
}

namespace {
std::string sizeText(const RunResult& r, SizeIndex s, const RuleBook& book) {
    return (r.sets > 1 ? fmt::format("{} sets of ", r.sets) : "") + sizeWords(book, s);
}
} // namespace

void benchRun(const BenchInputs& in, RunResult& r, BenchAnswer& a, const RuleBook& book) {
    RunNeed& n = r.need;
    const Insulation& insulation = *book.insulation(in.text("insulation"));
    const ConduitType& conduit = *book.conduit(in.text("conduit"));
    n.material = in.choice<Material>("material");
    n.wiring = in.choice<Wiring>("wiring");
    const auto neutral = in.choice<NeutralBy>("neutral");
    n.neutralBy = neutral;
    n.neutralAmps = float(n.load.v);
    n.isolatedGround = in.flag("isolatedGround");
    n.neutral = neutral != NeutralBy::None && (neutral != NeutralBy::Auto || n.poles == 1 ||
                                               (n.feeder && factsOf(n.system).wires > factsOf(n.system).lines));
    n.raceway = n.wiring == Wiring::Conduit                                  ? conduit.raceway
                : n.wiring == Wiring::McCable || n.wiring == Wiring::AcCable ? Raceway::Steel
                                                                             : Raceway::Pvc;
    n.ambient = in.number("ambient") + (in.flag("roof") ? book.tables.roofAdder : 0);
    const int own = n.poles == 1 ? 2 : n.poles;
    const auto conductors = in.maybe("conductors");
    n.conductors = conductors ? std::max(own, int(*conductors)) : own;
    n.smallest = in.size("smallest", book);
    n.held = in.size("size", book);
    n.heldSets = int(in.maybe("sets").value_or(0));
    n.ownLimit = in.number("limit");
    n.totalBefore = in.number("before");
    n.totalLimit = std::max(in.number("total"), 0.01);
    if (const auto l = in.maybeLength("length")) n.lengthKnown = true, n.length = *l;
    SizingRules rules;
    rules.insulation = insulation.celsius;
    rules.terminals75 = in.text("terminals") == "75";
    rules.largestPreferred = in.size("largest", book);
    rules.ceiling = in.whole("ceiling");
    rules.units = in.units();
    rules.ambient = n.ambient;
    rules.ambientFactor = book.ambientFactor(n.ambient, insulation.celsius);
    if (rules.ambientFactor <= 0)
        in.refuse("ambient", fmt::format("{} insulation may not be used at {} °C", insulation.name, n.ambient),
                  "Choose insulation for a higher temperature.");
    if (n.held >= 0 && !book.choosable(n.held, n.material))
        in.refuse(
            "size",
            fmt::format("the book has no ampacity or impedance for {} {}", sizeWords(book, n.held), wordOf(n.material)),
            "Choose another size.");
    if (in.flag("roof"))
        a.working.step("Roof", fmt::format("{} °C added to {} °C", book.tables.roofAdder, in.number("ambient")),
                       fmt::format("{} °C", n.ambient), book.cite("roof"));
    sizeRun(r, rules, book, &a.working);
    if (r.size < 0)
        in.refuse("load",
                  fmt::format("no conductor of the book, in up to 12 sets, carries {} A under these conditions",
                              figures(n.required.v)),
                  "Divide the load over several runs, or allow a larger size before sets.");
    const auto& sizes = book.sizes();
    a.figure("size", "Conductors", sizeText(r, r.size, book) + " " + wordOf(n.material),
             sizes[std::size_t(r.size)].name);
    a.figure("sets", "", fmt::format("{}", r.sets), r.sets);
    a.figure("ampacity_A", "Carries", figures(r.ampacity) + " A", r.ampacity);
    RunPartsNeed need;
    need.conduit = conduit.name;
    need.insulation = &insulation;
    need.sharing = n.conductors - own;
    const RunParts parts = partsOf(r, need, book, &a.working);
    a.figure("neutral", "Neutral",
             parts.neutral >= 0 ? (parts.neutrals > 1 ? "2 × " : "") + sizeWords(book, parts.neutral) : "none",
             parts.neutral >= 0 ? sizes[std::size_t(parts.neutral)].name : "");
    if (n.groundWanted)
        a.figure("ground", "Ground", r.ground >= 0 ? sizeWords(book, r.ground) : "past the table",
                 r.ground >= 0 ? sizes[std::size_t(r.ground)].name : "");
    if (!parts.conduitType.empty()) {
        a.figure("conduit", "Conduit",
                 parts.conduit.size ? fmt::format("{}{} {}, {} % full", r.sets > 1 ? fmt::format("{} × ", r.sets) : "",
                                                  parts.conduitType, parts.conduit.size->name,
                                                  lintel::number(parts.conduit.used * 100, 1))
                 : parts.conduit.unknown ? "not known: no area for this size"
                                         : "none holds them",
                 parts.conduit.size ? parts.conduit.size->name : "");
        a.figure("fill_percent", "", lintel::number(parts.conduit.used * 100, 1) + " %", parts.conduit.used * 100);
    }
    if (n.lengthKnown) {
        const Volts lost = dropVolts(n, r.size, r.sets, n.dropAmps, n.length, book);
        a.figure("drop_V", "Lost", fmt::format("{} V, {}", figures(lost.v), percent(r.dropOwn)), lost.v);
        a.figure("drop_percent", "", percent(r.dropOwn), r.dropOwn);
        a.figure("drop_before_percent", "Before",
                 fmt::format("{} with {}", percent(r.dropBefore), sizeWords(book, r.sizeForAmpacity)), r.dropBefore);
        a.figure("drop_total_percent", "In all", percent(r.dropTotal), r.dropTotal);
    }
    if (r.longest.v > 0) a.figure("longest_m", "Longest", benchLength(r.longest, in.units()), r.longest.v);
    a.figure("governing", "Decided", r.state == Sizing::PastCeiling ? "ceiling: feed it from nearer" : wordOf(r.why),
             wordOf(r.why));
    if (r.state == Sizing::PastCeiling)
        a.cautions.push_back(
            fmt::format("{} sizes up and the drop is still over its limit: feed it from nearer", rules.ceiling));
    if (r.tooSmall)
        a.cautions.push_back(
            fmt::format("the size held is too small: {} is needed", sizeWords(book, r.sizeForAmpacity)));
    if (r.state == Sizing::Held && n.lengthKnown && (r.dropOwn > n.ownLimit || r.dropTotal > n.totalLimit))
        a.cautions.push_back("the size held loses more than the limit");
}

Run projectRun(const BenchInputs& in, const RuleBook& book) {
    Run run;
    run.material = in.choice<Material>("material");
    run.wiring = in.choice<Wiring>("wiring");
    run.conduit = in.text("conduit");
    run.raceway = book.conduit(run.conduit)->raceway;
    run.ambient = in.number("ambient");
    run.onRoof = in.flag("roof");
    run.neutral = in.choice<NeutralBy>("neutral");
    run.isolatedGround = in.flag("isolatedGround");
    if (const SizeIndex held = in.size("size", book); held >= 0)
        run.heldSize = in.text("size"), run.heldSets = int(in.maybe("sets").value_or(0));
    return run;
}

} // namespace lintel
