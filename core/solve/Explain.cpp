#include "core/base/Format.h"
#include "core/solve/Busway.h"
#include "core/solve/EquipmentSize.h"
#include "core/solve/RunParts.h"
#include "core/solve/Solver.h"
#include "core/solve/States.h"

#include <fmt/format.h>
#include <set>

namespace lintel {
namespace {

std::string ohms(Complex z) {
    return fmt::format("{:.2f} {} j{:.2f} mΩ", z.real() * 1000, z.imag() < 0 ? "−" : "+", std::abs(z.imag()) * 1000);
}
std::string amps(Amps a) { return figures(a.v) + " A"; }
std::string volts(VoltageSystem s) { return number(factsOf(s).lineLine.v); }
/// A; that a source gives at its rating.
Amps ratedAmps(const Source& s) {
    const SystemFacts f = factsOf(s.system);
    return ampsOf(s.kva * 1000, s.system, f.phases == 3 ? 3 : f.lines);
}

/// Tells of one thing, step by step.
class Explainer {
public:
    Explainer(const Project& project, const RuleBook& rulebook, const Results& results)
        : p(project), book(rulebook), r(results), rules(sizingRules(project.basis, rulebook)) {}

    Working circuit(const Circuit& c);
    Working node(Ref thing, const NodeResult& n);

private:
    const Project& p;
    const RuleBook& book;
    const Results& r;
    SizingRules rules;
    Working w;

    std::string lengthText(Metres length) const {
        return rules.units == UnitSystem::Imperial ? number(inFeet(length)) + " ft" : number(length.v) + " m";
    }
    void branch(const Circuit& c, const CircuitResult& cr);
    void horsepower(const Circuit& c, const Board& b);
    /// Of a busway's tap-off: what the bars up to it cost.
    void alongBars(const Circuit& c);
    void ups(const Board& b);
    /// Where more may be lost than the basis says: why.
    void dropLimit(Ref thing, bool lighting);
    void conductors(Ref thing, const RunResult& run);

    void source(const Source& s, const NodeResult& n);
    void utilityTransformer(const Source& s, const NodeResult& n);
    void generator(const Source& s);
    void service(const NodeResult& n);

    void current(const NodeResult& n);
    void transformerDevice(const Transformer& x);
    void continuous(const NodeResult& n);
    void impedance(const NodeResult& n);
    void feeder(Ref thing, const NodeResult& n);
    void states(Ref thing);
    void secondary(const Transformer& x, const NodeResult& n);

    void faults(const FaultPoint& f, const std::string& where);
    void faultImpedances(const FaultPoint& f);
};

// ---- circuits ----

Working Explainer::circuit(const Circuit& c) {
    const CircuitResult& cr = r.of(c.id);
    w.title = nameOf(p, c.id) + (c.name.empty() ? "" : " " + c.name);
    if (c.use == CircuitUse::Spare)
        w.step("Spare", "a breaker with no load", rating(cr.device) + " A", "");
    else if (c.use == CircuitUse::Reserved)
        w.step("Reserved", "a place kept free for a device to come", "", "");
    else
        branch(c, cr);
    return w;
}

void Explainer::branch(const Circuit& c, const CircuitResult& cr) {
    const Board& b = p.boards[c.board];
    if (!book.metric()) horsepower(c, b);
    (void)branchLoad(c, b, cr, smallestBreakerOf(p.basis, cr.kind), book, &w); // as it was worked out
    if (cr.deviceHeld) {
        const std::string needed = cr.deviceNeeded > 0 ? rating(cr.deviceNeeded) + " A" : "more than the series has";
        w.step("Device", fmt::format("held by hand; {} is needed", needed), rating(cr.device) + " A",
               book.cite("rating"));
    }
    dropLimit(c.id, cr.kind == LoadKind::Lighting);
    alongBars(c);
    conductors(c.id, cr.run);
    faults(startOf(r, c).fault, cr.tap ? "where it hangs on " + b.name : "at " + b.name);
    if (cr.faultEnd <= 0) return;
    w.step("Fault level, far end",
           fmt::format("{} of run added, conductors at {} °C", lengthText(cr.run.need.length),
                       figures(p.basis.faultCelsius)),
           figures(cr.faultEnd) + " kA", "");
}

void Explainer::horsepower(const Circuit& c, const Board& b) {
    const auto tell = [&](const std::string& name, double hp, int poles) {
        const double across = voltsAcross(b.system, poles).v;
        const Cited flc = book.motorAmps(hp, across, poles == 3);
        w.step("Full-load current",
               fmt::format("{}: {} hp, {} V, {}", name, figures(hp), number(across),
                           poles == 3 ? "three-phase" : "single-phase"),
               flc.value > 0 ? figures(flc.value) + " A" : "not in the table", flc.table ? *flc.table : "");
    };
    for (const Load& l : p.loads)
        if (l.circuit == c.id && l.unit == LoadUnit::hp) tell(l.name, l.amount, l.poles);
    std::set<DeviceTypeId> told;
    for (const Device& d : p.devices) {
        if (d.circuit != c.id) continue;
        const DeviceType& y = p.deviceTypes[d.type];
        if (y.unit == LoadUnit::hp && told.insert(y.id).second) tell(y.name, d.load.value_or(y.load), y.poles);
    }
}

void Explainer::alongBars(const Circuit& c) {
    const Board& b = p.boards[c.board];
    const TapPoint& tap = *r.of(c.id).tap;
    if (!r.of(c.id).tap) return;
    const std::string where = c.along ? lengthText(Metres{*c.along}) + " along " + b.name
                                      : "nobody says where on " + b.name + ": the far end";
    w.step("Drop in the bars",
           fmt::format("{}; {} mΩ/m + j {} mΩ/m, each metre with what hangs beyond it", where, figures(b.barR),
                       figures(b.barX)),
           tap.dropKnown ? percent(tap.dropOwn) : "not known", "its maker's data");
    w.step("Bars up to it, in a fault",
           c.along ? fmt::format("{} at {} °C", lengthText(Metres{*c.along}), figures(p.basis.faultCelsius))
                   : "nobody says where: as at the fed end",
           ohms(barOhmsCold(b, c.along.value_or(0), p.basis.faultCelsius)), "its maker's data");
}

void Explainer::ups(const Board& b) {
    const UpsLoad& load = *r.of(b.id).ups;
    if (load.losses <= 0) return;
    std::string how = b.efficiency > 0 ? fmt::format("{} kW / {} − {} kW", kilo(load.out.real()),
                                                     percent(b.efficiency * 100), kilo(load.out.real()))
                                       : std::string();
    if (b.rechargeKW > 0)
        how += fmt::format("{}{} kW while its battery is charged", how.empty() ? "" : " + ", figures(b.rechargeKW));
    w.step("Takes beside", how, fmt::format("{} kW", kilo(load.losses)), "its maker's data");
}

void Explainer::dropLimit(Ref thing, bool lighting) {
    const TotalDropLimit limit = totalDropLimit(p.basis, book, fromOwnSubstation(p, r, thing), lighting);
    if (!limit.raised()) return;
    w.step("Limit of drop in all",
           fmt::format("{} % of the basis, and more from a substation of the installation's own", rating(limit.basis)),
           rating(limit.allowed) + " %", book.cite("ownSubstation"));
}

void Explainer::conductors(Ref thing, const RunResult& run) {
    RunResult again = run;
    sizeRun(again, rules, book, &w);
    partsOf(p, book, r, thing, &w);
}

// ---- boards, transformers and sources ----

Working Explainer::node(Ref thing, const NodeResult& n) {
    w.title = nameOf(p, thing);
    NodeResult again = n;
    findDemand(n.kinds, p.basis, book, again, &w);
    if (const Board* b = p.boards.find(thing.as<Board>())) ups(*b);
    if (const Source* s = p.sources.find(thing.as<Source>())) {
        source(*s, n);
        return w;
    }
    const Transformer* x = p.transformers.find(thing.as<Transformer>());
    current(n);
    if (x)
        transformerDevice(*x);
    else
        continuous(n);
    (void)equipmentSize(p, book, r, thing, &w);
    if (n.parent) {
        impedance(n);
        feeder(thing, n);
    }
    faults(n.fault, "at " + nameOf(p, thing));
    states(thing);
    if (x) secondary(*x, n);
    return w;
}

void Explainer::source(const Source& s, const NodeResult& n) {
    if (s.kind == SourceKind::UtilityTransformer) utilityTransformer(s, n);
    if (s.kind == SourceKind::Generator) {
        generator(s);
        (void)equipmentSize(p, book, r, s.id, &w);
    } else
        service(n);
    faults(n.fault, "at the supply");
}

void Explainer::utilityTransformer(const Source& s, const NodeResult& n) {
    w.step("Supply",
           s.utilityMVA > 0
               ? fmt::format("{} kVA, {} % Z at {} V, and {} MVA of the utility before it, X/R {}", number(s.kva),
                             figures(s.percentZ), volts(s.system), figures(s.utilityMVA), figures(s.utilityXR))
               : fmt::format("{} kVA / ({} V·√3) / {} %, infinite behind it", number(s.kva), volts(s.system),
                             figures(s.percentZ)),
           figures(n.fault.worst()) + " kA", "");
    if (s.utilityKV <= 0) return;
    const bool three = factsOf(s.system).phases == 3;
    w.step("Primary current",
           fmt::format("{} kVA / {} kV{}", number(s.kva), figures(s.utilityKV), three ? " / √3" : ""),
           figures(s.kva / s.utilityKV / (three ? root3 : 1)) + " A", "");
}

void Explainer::generator(const Source& s) {
    const SourceResult& g = r.of(s.id);
    w.step("Takes over", "the demand of all boards that change over to it", kilo(g.standby) + " kVA", "");
    w.step("Largest start",
           fmt::format("{} kVA less the motor of {} kVA that adds most, and {} kVA while it starts", kilo(g.standby),
                       kilo(g.startRunningVa), kilo(g.startVa)),
           kilo(g.peak) + " kVA", "");
    w.step("Gives", fmt::format("{} kVA, × {} for the moment of a start", rating(s.kva), figures(s.peakShare)),
           fmt::format("{} kVA", figures(s.kva * s.peakShare)), "its maker's data");
    const double share = book.tables.generatorConductor;
    w.step("Conductors from it", fmt::format("{} × {} %", amps(ratedAmps(s)), number(share * 100)),
           amps(ratedAmps(s) * share), book.cite("generator"));
}

void Explainer::service(const NodeResult& n) {
    const double share = n.demand > 0 ? std::min(1.0, n.continuous / n.demand) : 0;
    const double needed = demandOf(n) * (1 + p.basis.growth) * (1 + (book.continuousFactor - 1) * share);
    const double standard = book.ratingAtOrAbove(needed);
    w.step("Service",
           fmt::format("{} A with {} % of what is continuous, next standard rating", figures(needed),
                       figures((book.continuousFactor - 1) * 100)),
           standard > 0 ? rating(standard) + " A at least" : "past the series", book.cite("rating"));
}

void Explainer::current(const NodeResult& n) {
    w.step("Demand current", fmt::format("{} kVA balanced", kilo(n.demand)), amps(n.demandAmps), "");
    if (n.heaviestAmps > n.demandAmps)
        w.step("Heaviest phase",
               fmt::format("phasor currents {} / {} / {} A, in the proportion of demand", figures(n.phaseAmps[0]),
                           figures(n.phaseAmps[1]), figures(n.phaseAmps[2])),
               amps(n.heaviestAmps), "");
    if (p.basis.growth > 0)
        w.step("Growth", fmt::format("× {:.2f}", 1 + p.basis.growth), amps(n.run.need.load), "Basis");
}

void Explainer::transformerDevice(const Transformer& x) {
    const TransformerResult& t = r.of(x.id);
    w.step("Rated current",
           fmt::format("{} kVA: primary {} A, secondary {} A", rating(x.kva), figures(t.primaryAmps.v),
                       figures(t.secondaryAmps.v)),
           percent(t.use * 100) + " used", "");
    const double share = bandOf(book.tables.transformerPrimaryOnly, t.primaryAmps.v);
    w.step("Primary device",
           fmt::format("{} A × {} % = {} A, {}", figures(t.primaryAmps.v), number(share * 100),
                       figures(t.primaryAmps.v * share),
                       nextRatingAllowed(book.tables.transformerPrimaryOnly, t.primaryAmps.v)
                           ? "next standard rating"
                           : "the standard rating below"),
           rating(transformerPrimaryRating(t.primaryAmps.v, book)) + " A", book.cite("transformer"));
}

void Explainer::continuous(const NodeResult& n) {
    if (n.continuous <= 0 || !n.parent || book.continuousFactor <= 1) return;
    w.step(
        "Continuous",
        fmt::format("{} % of {} kVA continuous added", figures((book.continuousFactor - 1) * 100), kilo(n.continuous)),
        amps(n.run.need.required), book.cite("continuousFeederDevice"));
}

/// How the impedance at a node comes together.
void Explainer::impedance(const NodeResult& n) {
    if (!n.fault.known || n.run.size < 0) return;
    const FaultPoint& above = beforeFeeder(r, n);
    const bool three = above.threePhase > 0;
    const Complex run = coldOhms(n.run.ohms, n.run.need, book, p.basis.faultCelsius);
    if (above.known)
        w.step("Impedance at " + nameOf(p, n.parent), three ? "each line" : "line–line, out and back",
               ohms(three ? above.z1 : above.zll), "");
    std::string how = "no length is known";
    if (n.run.need.lengthKnown)
        how = fmt::format("{}{}, conductors at {} °C", n.run.sets > 1 ? fmt::format("{} sets of ", n.run.sets) : "",
                          sizeWords(book, n.run.size), figures(p.basis.faultCelsius));
    w.step("Its run adds", how, ohms(three ? run : 2.0 * run), book.cite("impedance"));
}

void Explainer::feeder(Ref thing, const NodeResult& n) {
    if (n.via) alongBars(p.circuits[n.via]);
    if (n.via)
        w.step("Device",
               fmt::format("{} in {}", nameOf(p, n.via), nameOf(p, n.parent)) +
                   (r.of(n.via).deviceHeld ? ", held by hand" : ""),
               rating(n.run.need.device) + " A", book.cite("rating"));
    dropLimit(thing, false);
    conductors(thing, n.run);
    if (thing.is<Board>() && r.of(thing.as<Board>()).supply) bondingOf(n.run, p.basis.electrodeMaterial, book, &w);
}

void Explainer::states(Ref thing) {
    for (const StateSolution* state : statesOf(p, r, thing)) {
        const NodeResult& on = *state->results.node(thing);
        const std::string what = "On " + nameOf(p, state->source);
        if (!on.fault.known) {
            w.step(what, "nothing feeds it in this state", "", "");
            continue;
        }
        w.step(what,
               fmt::format("three-phase or line–line {} kA, line–ground {} kA",
                           figures(std::max(on.fault.threePhase, on.fault.lineLine)), figures(on.fault.lineGround)),
               fmt::format("{} kA, {} lost{}", figures(on.fault.worst()), percent(on.dropTotal),
                           on.dropKnown ? "" : " at least"),
               "");
    }
}

void Explainer::secondary(const Transformer& x, const NodeResult& n) {
    if (n.fault.known) {
        const double ratio = factsOf(x.secondary).lineLine.v / factsOf(x.primary).lineLine.v;
        const bool three = factsOf(x.secondary).phases == 3;
        w.step("Seen from its secondary",
               fmt::format("× ({} / {})² = {:.4f}", volts(x.secondary), volts(x.primary), ratio * ratio),
               ohms((three ? n.fault.z1 : n.fault.zll) * ratio * ratio), "");
        w.step("Its winding",
               fmt::format("({} V)² / {} kVA · {} %, X/R {}", volts(x.secondary), rating(x.kva), figures(x.percentZ),
                           figures(x.xOverR)),
               ohms(transformerOhms(x)), "");
    }
    const TransformerResult& t = r.of(x.id);
    if (!x.restartsDrop)
        w.step("Drop below it",
               fmt::format("{} before it, {} in it at its load{}", percent(t.dropTotal), percent(t.regulation),
                           x.boost == 0  ? std::string()
                           : x.boost > 0 ? fmt::format(", less {} by its taps", percent(x.boost))
                                         : fmt::format(", and {} by its taps", percent(-x.boost))),
               percent(t.dropBelow), "");
    faults(r.of(x.id).secondary, fmt::format("secondary, {} %Z, X/R {}", figures(x.percentZ), figures(x.xOverR)));
}

// ---- fault levels ----

void Explainer::faults(const FaultPoint& f, const std::string& where) {
    if (!f.known) {
        w.step("Fault level", "no source stands at the top of its feed path", "not known", "");
        return;
    }
    std::string kinds = f.threePhase > 0 ? fmt::format("three-phase {} kA, ", figures(f.threePhase)) : "";
    kinds += fmt::format("line–line {} kA, line–neutral {} kA, line–ground {} kA", figures(f.lineLine),
                         figures(f.lineNeutral), figures(f.lineGround));
    w.step("Fault level, " + where, kinds, figures(f.worst()) + " kA", book.cite("faultDevice"));
    w.step("Conductors in it",
           f.runsUnknown                ? "a run before it has no length and counts as none: the most there can be"
           : p.basis.faultCelsius <= 20 ? "cold, for the largest fault"
                                        : "as the basis asks; cold ones give more",
           figures(p.basis.faultCelsius) + " °C", "Basis");
    if (f.motors > 0)
        w.step("Motors' share", "4 × the full-load current of all motors of the system, in the figures above",
               figures(f.motors) + " kA", "Basis");
    if (f.limited) w.step("Let-through", "the device above limits it", "", "its maker's data");
    faultImpedances(f);
    w.step("Asymmetry, " + where,
           fmt::format("X/R {}: κ = 1.02 + 0.98·e^(−3/{}) = {:.2f}", figures(f.xOverR()), figures(f.xOverR()),
                       f.peakFactor()),
           figures(f.peak()) + " kA peak", "IEC 60909-0");
}

void Explainer::faultImpedances(const FaultPoint& f) {
    const auto loop = [&](const char* what, Complex z, double kA) {
        if (kA <= 0) return;
        w.step(fmt::format("Impedance, {}", what), ohms(z), fmt::format("|Z| {:.2f} mΩ", magnitude(z) * 1000), "");
    };
    if (f.threePhase > 0)
        loop("each line", f.z1, f.threePhase);
    else
        loop("line–line, out and back", f.zll, f.lineLine);
    loop("line–neutral, out and back", f.zln, f.lineNeutral);
    loop("line–ground, out and back", f.zlg, f.lineGround);
}

} // namespace

Working explain(const Project& p, const RuleBook& book, const Results& r, Ref thing) {
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) {
        const CircuitResult& cr = r.of(c->id);
        if (cr.standby) // as it is while it feeds
            for (const auto& state : r.states)
                if (!state->results.of(c->id).standby) return explain(state->project, book, state->results, cr.feeds);
        if (cr.feeder) return explain(p, book, r, cr.feeds);
        return Explainer(p, book, r).circuit(*c);
    }
    const NodeResult* n = r.node(thing);
    return n ? Explainer(p, book, r).node(thing, *n) : Working{};
}

} // namespace lintel
