#include "core/check/Assumptions.h"

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/route/Measure.h"
#include "core/solve/Busway.h"
#include "core/solve/Fault.h"
#include "core/solve/Procedure.h"
#include "core/solve/States.h"

#include <fmt/format.h>
#include <map>
#include <nlohmann/json.hpp>
#include <set>

namespace lintel {

const char* meaningOf(AssumptionKind k) {
    switch (k) {
    case AssumptionKind::Assumed:
        return "nobody said; the program took a usual value";
    case AssumptionKind::Given:
        return "stands in place of a calculation";
    case AssumptionKind::Held:
        return "set by hand; never changes by itself";
    case AssumptionKind::Own:
        return "in place of the rule book's; cited as own";
    }
    return "";
}

std::optional<double> workedOutKA(const CheckInput& in, const Board& b) {
    const BoardResult& n = in.results.of(b.id);
    if (!b.givenKA) return n.fault.known ? std::optional(n.fault.worst()) : std::nullopt;
    if (!n.parent || n.looped) return std::nullopt;
    const VoltageSystem above = systemGiven(in.project, n.parent);
    const FaultPoint worked =
        afterFeeder(beforeFeeder(in.results, n), above, faultSystem(b, above), n, in.project, in.book);
    return worked.known ? std::optional(worked.worst()) : std::nullopt;
}

namespace {
/// `devices`: those of the circuit.
std::optional<Metres> lengthAsItStands(const CheckInput& in, Ref thing, const std::vector<const Device*>& devices) {
    const Project& p = in.project;
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) {
        const auto m = c->ring ? measureRing(p, p.boards[c->board], devices.data(), devices.size())
                               : measureCircuit(p, p.boards[c->board], {}, devices.data(), devices.size());
        return m ? std::optional(m->total) : std::nullopt;
    }
    const NodeResult* n = in.results.node(thing);
    if (!n || !n->parent) return std::nullopt;
    const auto to = placeOf(p, thing), from = placeOf(p, n->parent);
    if (!to || !from) return std::nullopt;
    const auto m = measureFeeder(p, *from, *to, {});
    return m ? std::optional(m->total) : std::nullopt;
}

struct List {
    const CheckInput& in;
    std::vector<Assumption> all{};
    UnitSystem units = in.project.basis.units;

    Assumption& add(AssumptionKind kind, Ref about, std::string what, std::string where, std::string entered,
                    std::string otherwise) {
        Assumption a;
        a.kind = kind, a.about = about, a.what = std::move(what), a.where = std::move(where),
        a.entered = std::move(entered), a.otherwise = std::move(otherwise);
        all.push_back(std::move(a));
        return all.back();
    }
    std::string name(Ref r) const { return r.is<Circuit>() ? nameOfRun(in.project, r) : nameOf(in.project, r); }

    // ---- nobody said ----

    /// Circuits with motors that a generator has to start, of which nobody entered what they take then.
    std::size_t unsaidStarts() const {
        std::set<CircuitId> unsaid;
        for (const auto& state : in.results.states) {
            if (in.project.sources[state->source].kind != SourceKind::Generator) continue;
            for (Ref node : state->below)
                for (CircuitId id : in.results.on(node.as<Board>()))
                    if (in.results.of(id).largestMotorVa > 0 && in.project.circuits[id].startTimes <= 0)
                        unsaid.insert(id);
        }
        return unsaid.size();
    }

    void assumed() {
        const Project& p = in.project;
        const Basis& b = p.basis;
        for (const Source& s : p.sources) {
            if (s.kind == SourceKind::UtilityTransformer && s.utilityMVA <= 0)
                add(AssumptionKind::Assumed, s.id, "Fault level of the utility", s.name, "infinite",
                    "with its MVA all are smaller")
                    .why = "none is given; infinite gives the largest";
            if (in.book.metric() && s.ze <= 0 && s.kind != SourceKind::Generator)
                add(AssumptionKind::Assumed, s.id, "Earth-fault loop of the supply", s.name,
                    fmt::format("{} Ω, worked out", figures(magnitude(in.results.of(s.id).fault.loop))),
                    "Ze as given or measured");
        }
        add(AssumptionKind::Assumed, {}, "Conductors in the largest fault", "all runs", figures(b.faultCelsius) + " °C",
            b.faultCelsius <= 20 ? "warmer ones give less" : "20 °C gives more")
            .hides = b.faultCelsius > 20;
        double motors = 0;
        for (const Source& s : p.sources)
            for (LoadKind k : {LoadKind::Motor, LoadKind::Vertical, LoadKind::Cooling, LoadKind::Refrigeration})
                motors += in.results.of(s.id).kinds[std::size_t(k)].va();
        if (!b.motorsFeedFaults && motors > 0)
            add(AssumptionKind::Assumed, {}, "Motors feed faults", "Basis", "no",
                fmt::format("4 × the current of {} kVA added", kilo(motors)))
                .hides = true;
        const int unknown = unknownLengths(in);
        if (unknown)
            add(AssumptionKind::Assumed, {}, "Lengths that nobody entered or measured",
                fmt::format("{} {}", unknown, unknown == 1 ? "run" : "runs"),
                b.unknownLength > 0 ? lengthWords(Metres{b.unknownLength}, units) + " each"
                                    : "none: no drop, nothing taken from the fault level",
                "their lengths")
                .hides = true;
        if (const std::size_t unsaid = unsaidStarts())
            add(AssumptionKind::Assumed, {}, "Current of motors while they start",
                fmt::format("{} behind a generator", counted(unsaid, "circuit")),
                fmt::format("{} × their current, a third of that by star–delta", rating(in.book.motorStart)),
                "as starter or maker say")
                .hides = true;
        for (const Transformer& t : p.transformers)
            if (const TransformerResult& r = in.results.of(t.id); t.restartsDrop && r.parent)
                add(AssumptionKind::Assumed, t.id, "Drop begins again below", t.name, "0 %",
                    fmt::format("{}, with {} of its own", percent(r.dropTotal + r.regulation), percent(r.regulation)))
                    .why = "its taps are set for that";
        for (const Transformer& t : p.transformers)
            if (t.boost != 0 && !t.restartsDrop)
                add(AssumptionKind::Assumed, t.id, "Taps raise the voltage by", t.name, percent(t.boost), "0 %").hides =
                    t.boost > 0;
    }

    // ---- in place of a calculation ----

    /// Of a busway's bars and of a UPS, as their makers give them.
    void makersFigures(const Board& b) {
        if (b.use == BoardUse::Busway && b.barR > 0)
            add(AssumptionKind::Given, b.id, "Bars of the busway", b.name,
                fmt::format("{} + j{} mΩ/m when loaded, {} cold, loop {} + j{}", figures(b.barR), figures(b.barX),
                            figures(b.barR20), figures(b.barLoopR20), figures(b.barLoopX)),
                "nothing is known of them")
                .why = "its maker's data";
        if (b.use == BoardUse::Ups && in.results.of(b.id).ups->losses > 0)
            add(AssumptionKind::Given, b.id, "What the UPS takes beside", b.name,
                kilo(in.results.of(b.id).ups->losses) + " kW", "nothing is known of it")
                .why = "its maker's data";
        if (b.use == BoardUse::Ups && b.inverterA > 0)
            add(AssumptionKind::Given, b.id, "Into a fault from its battery", b.name, figures(b.inverterA) + " A",
                "nothing is known of it")
                .why = "its maker's data";
    }

    void given() {
        const Project& p = in.project;
        for (const Source& s : p.sources) {
            if (s.kind == SourceKind::UtilityTransformer && s.utilityMVA > 0)
                add(AssumptionKind::Given, s.id, "Fault level of the utility", s.name, figures(s.utilityMVA) + " MVA",
                    "infinite");
            if (in.book.metric() && s.ownSubstation)
                add(AssumptionKind::Given, s.id, "Supplied from an own substation", s.name, "yes",
                    fmt::format("the limit of drop in all is {} %", rating(p.basis.totalDropLimit)));
            if (in.book.metric() && s.ze > 0) add(AssumptionKind::Given, s.id, "Ze", s.name, figures(s.ze) + " Ω", "");
        }
        for (const Board& b : p.boards) {
            if (b.givenKA) {
                const auto worked = workedOutKA(in, b);
                add(AssumptionKind::Given, b.id, "Fault level", b.name, figures(*b.givenKA) + " kA",
                    worked ? figures(*worked) + " kA worked out" : "nothing is known above it")
                    .hides = worked && *worked > *b.givenKA * (1 + 1e-9);
            }
            if (b.seriesKA > 0)
                add(AssumptionKind::Given, b.id, "Tested series pair", b.name, figures(b.seriesKA) + " kA",
                    fmt::format("its own {} kA, {} here", figures(b.ratingKA),
                                in.results.of(b.id).fault.known ? faultWords(in.results.of(b.id).fault) + " kA"
                                                                : "not known"))
                    .hides = in.results.of(b.id).fault.worst() > b.ratingKA;
            if (b.seriesKA > 0)
                all.back().why =
                    b.seriesDevices.empty() ? "no devices are named that were tested as one" : b.seriesDevices;
            makersFigures(b);
        }
        for (const Circuit& c : p.circuits) {
            if (in.results.of(c.id).tap && !c.along && c.use == CircuitUse::Load)
                add(AssumptionKind::Assumed, c.id, "Place of a tap-off", name(c.id),
                    "drop to the far end, faults from the fed end", "where it stands");
            if (c.letThroughKA) {
                const double there = startOf(in.results, c).fault.worst();
                add(AssumptionKind::Given, c.id, "Current let through", name(c.id), figures(*c.letThroughKA) + " kA",
                    figures(there) + " kA at its board")
                    .hides = *c.letThroughKA < there;
            }
            if (c.letThroughKA)
                all.back().why = c.letThroughData.empty() ? "no device or curve is named" : c.letThroughData;
            if (c.letThroughEnergy)
                add(AssumptionKind::Given, c.id, "Energy let through", name(c.id), number(*c.letThroughEnergy) + " A²s",
                    "at most what its class allows")
                    .hides = true;
            if (c.factor != 1)
                add(AssumptionKind::Given, c.id, "Demand factor of a circuit", name(c.id), number(c.factor, 3), "1")
                    .hides = c.factor < 1;
            const Run* run = p.runs.find(c.run);
            const CircuitResult& r = in.results.of(c.id);
            if (run && run->dropBasis == DropBasis::Load && p.basis.branchDropBasis == DropBasis::Share && !r.feeder &&
                r.run.size >= 0 && r.run.need.lengthKnown && r.run.need.load.v > 0) {
                const double share = std::max(r.device * p.basis.ratingShare, r.load.v),
                             lost = r.run.dropOwn * share / r.run.need.dropAmps.v;
                add(AssumptionKind::Given, c.id, "Drop judged on the load", name(c.id), percent(r.run.dropOwn),
                    fmt::format("{} on {} % of its breaker's rating", percent(lost),
                                figures(p.basis.ratingShare * 100)))
                    .hides = lost > r.run.need.ownLimit;
            }
            if (!c.unprotected.empty())
                add(AssumptionKind::Given, c.id, "Protection left out", name(c.id), "none",
                    "ground-fault, arc-fault or residual-current protection")
                    .why = c.unprotected;
        }
        for (const auto& [kind, factor] : p.basis.demandFactors)
            add(AssumptionKind::Given, {}, "Demand factor, " + kind, "Basis", number(factor * 100, 1) + " %",
                "the rule of " + in.book.title);
        if (p.basis.classShare < 1)
            add(AssumptionKind::Given, {}, "Breakers let through, of their class", "Basis",
                figures(p.basis.classShare * 100) + " %", "100 %")
                .hides = true;
        std::map<CircuitId, std::vector<const Device*>> devices;
        for (const Device& d : p.devices)
            if (d.circuit) devices[d.circuit].push_back(&d);
        eachRun([&](Ref thing, const Run& run, const RunResult& r) {
            if (run.lengthBy != LengthBy::Entered) return;
            const auto there = devices.find(thing.as<Circuit>());
            const auto measured =
                lengthAsItStands(in, thing, there == devices.end() ? std::vector<const Device*>{} : there->second);
            if (!measured || std::abs(measured->v - r.need.length.v) < 0.05) return;
            add(AssumptionKind::Given, thing, "Length entered",
                thing.is<Circuit>() ? name(thing) : "Feeder of " + name(thing), lengthWords(r.need.length, units),
                lengthWords(*measured, units) + " measured")
                .hides = *measured > r.need.length;
        });
    }

    // ---- by hand ----

    void held() {
        const Project& p = in.project;
        for (const Circuit& c : p.circuits) {
            const CircuitResult& r = in.results.of(c.id);
            if (c.heldBreaker && c.use == CircuitUse::Load) {
                Assumption& a = add(AssumptionKind::Held, c.id, "Device", name(c.id), rating(*c.heldBreaker) + " A",
                                    r.deviceNeeded > 0 ? rating(r.deviceNeeded) + " A" : "past the series");
                a.why = c.note;
                a.hides = r.deviceNeeded > *c.heldBreaker;
            }
            if (c.heldKA)
                add(AssumptionKind::Held, c.id, "Breaking capacity", name(c.id), figures(*c.heldKA) + " kA",
                    fmt::format("as its board, {} kA", figures(p.boards[c.board].ratingKA)));
        }
        const SizingRules rules = sizingRules(p.basis, in.book);
        eachRun([&](Ref thing, const Run& run, const RunResult& r) {
            const std::string where = thing.is<Circuit>() ? name(thing) : "Feeder of " + name(thing);
            if (!run.heldSize.empty() && r.state == Sizing::Held) {
                RunResult free;
                free.need = r.need;
                free.need.held = -1, free.need.heldSets = 0;
                sizeRun(free, rules, in.book);
                add(AssumptionKind::Held, thing, "Conductors", where, sizeOf(r, in.book), sizeOf(free, in.book)).hides =
                    r.tooSmall || (free.size > r.size && free.sets >= r.sets);
            }
            if (!run.heldGround.empty())
                add(AssumptionKind::Held, thing, "Protective conductor", where, run.heldGround, "by its device");
            if (!run.conduit.empty() && !in.book.metric())
                add(AssumptionKind::Held, thing, "Conduit", where, run.conduit,
                    p.basis.conduit.empty() ? "the usual one" : p.basis.conduit);
        });
    }

    // ---- in place of the book ----

    void own() {
        const Basis& b = in.project.basis;
        for (const std::string& text : in.book.overridden()) { // "continuous/factor: 1 instead of 1.25"
            const auto colon = text.find(": ");
            const std::string place = text.substr(0, colon);
            Assumption& a = add(AssumptionKind::Own, {}, place, "rule book",
                                colon == std::string::npos ? "" : text.substr(colon + 2), "");
            if (const auto reason = b.ownReasons.find(place); reason != b.ownReasons.end()) a.why = reason->second;
            a.hides = a.why.empty();
        }
        const Basis usual;
        const auto limit = [&](const char* what, double is, double recommended) {
            if (is > recommended + 1e-9)
                add(AssumptionKind::Own, {}, what, "Basis", figures(is) + " %",
                    fmt::format("{} % is usual", figures(recommended)))
                    .hides = true;
        };
        if (!in.book.metric()) {
            limit("Drop limit of feeders", b.feederDropLimit, usual.feederDropLimit);
            limit("Drop limit of branch circuits", b.branchDropLimit, usual.branchDropLimit);
            limit("Drop limit in all", b.totalDropLimit, usual.totalDropLimit);
        }
    }

    template <class F> void eachRun(F f) const {
        const Project& p = in.project;
        for (const Circuit& c : p.circuits)
            if (const CircuitResult& r = in.results.of(c.id); !r.feeder && c.use == CircuitUse::Load)
                if (const Run* run = p.runs.find(c.run)) f(Ref(c.id), *run, r.run);
        for (const Board& b : p.boards)
            if (const Run* run = p.runs.find(b.run); run && in.results.of(b.id).parent)
                f(Ref(b.id), *run, in.results.of(b.id).run);
        for (const Board& b : p.boards)
            if (const Run* run = p.runs.find(b.alternateRun); run && in.results.of(b.id).alternateRun)
                f(Ref(b.id), *run, *in.results.of(b.id).alternateRun);
        for (const Transformer& t : p.transformers)
            if (const Run* run = p.runs.find(t.run); run && in.results.of(t.id).parent)
                f(Ref(t.id), *run, in.results.of(t.id).run);
    }
};

} // namespace

std::vector<Assumption> assumptionsOf(const CheckInput& in) {
    List list{in};
    list.assumed();
    list.given();
    list.held();
    list.own();
    int n[4]{};
    const Basis& basis = in.project.basis;
    for (Assumption& a : list.all) {
        a.mark = fmt::format("{}{}", "AGHO"[int(a.kind)], ++n[int(a.kind)]);
        a.key = fmt::format("{}|{}|{}", lintel::wordOf(a.kind), a.what, a.about ? a.about.text() : a.where);
        if (const auto by = basis.setBy.find(a.key); by != basis.setBy.end()) a.setBy = by->second;
        const auto seen = basis.seen.find(a.key);
        if (seen == basis.seen.end()) continue;
        const std::size_t first = seen->second.find('\n'),
                          second = first == std::string::npos ? first : seen->second.find('\n', first + 1);
        if (second == std::string::npos) continue; // not as we write it
        a.seenBy = seen->second.substr(0, first);
        a.seenOn = seen->second.substr(first + 1, second - first - 1);
        a.seenValue = seen->second.substr(second + 1);
    }
    return std::move(list.all);
}

void setAssumptionsBy(Project& p, const std::vector<Assumption>& which, const std::string& who) {
    for (const Assumption& a : which) {
        if (who.empty())
            p.basis.setBy.erase(a.key);
        else
            p.basis.setBy[a.key] = who;
    }
}

void seeAssumptions(Project& p, const std::vector<Assumption>& which, const std::string& who, const std::string& day) {
    for (const Assumption& a : which) {
        if (who.empty())
            p.basis.seen.erase(a.key);
        else
            p.basis.seen[a.key] = who + "\n" + day + "\n" + a.entered;
    }
}

std::string seenWords(const Assumption& a) {
    if (a.seenBy.empty()) return "";
    if (a.seen()) return fmt::format("seen by {}, {}", a.seenBy, a.seenOn);
    return fmt::format("changed since {} saw {}, {}", a.seenBy, a.seenValue, a.seenOn);
}

std::string assumptionsText(const CheckInput& in) {
    std::string out = fmt::format("{}   {}\n", in.project.basis.title, in.book.title);
    std::optional<AssumptionKind> kind;
    for (const Assumption& a : assumptionsOf(in)) {
        if (kind != a.kind) kind = a.kind, out += fmt::format("\n{}: {}\n", lintel::wordOf(a.kind), meaningOf(a.kind));
        out += fmt::format("  {:4} {}, {}: {}", a.mark, a.what, a.where, a.entered);
        if (!a.otherwise.empty()) out += fmt::format("; otherwise: {}", a.otherwise);
        if (!a.why.empty()) out += fmt::format(" ({})", a.why);
        if (a.hides) out += "   ← without it the result would be worse";
        if (!a.setBy.empty()) out += fmt::format("; set by {}", a.setBy);
        if (!a.seenBy.empty()) out += "; " + seenWords(a);
        out += "\n";
    }
    return out;
}

nlohmann::ordered_json assumptionsJson(const CheckInput& in) {
    auto out = nlohmann::ordered_json::array();
    for (const Assumption& a : assumptionsOf(in))
        out.push_back({{"mark", a.mark},
                       {"kind", lintel::wordOf(a.kind)},
                       {"about", a.about.text()},
                       {"what", a.what},
                       {"where", a.where},
                       {"entered", a.entered},
                       {"otherwise", a.otherwise},
                       {"why", a.why},
                       {"hides_worse", a.hides},
                       {"set_by", a.setBy},
                       {"seen_by", a.seenBy},
                       {"seen_on", a.seenOn},
                       {"seen_value", a.seenValue},
                       {"seen", a.seen()}});
    return out;
}

} // namespace lintel
