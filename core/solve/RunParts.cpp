#include "core/solve/RunParts.h"

#include "core/base/Format.h"
#include "core/project/Operations.h"
#include "core/project/Raceway.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/Procedure.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// A neutral that a multiwire group shares is in the raceway once: with `whose` where that is of the group, else with
/// the first of it.
bool neutralIsAnothers(const Project& p, const Results& r, const Circuit& c, CircuitId whose) {
    if (!neutralGroup(c)) return false;
    CircuitId first = c.id;
    for (CircuitId id : r.on(c.board)) {
        const Circuit& o = p.circuits[id];
        if (neutralGroup(o) != neutralGroup(c) || !shareRaceway(c, o)) continue;
        if (id == whose) return true;
        first = std::min(first, id);
    }
    return first != c.id;
}

} // namespace

RunParts partsOf(const RunResult& run, const RunPartsNeed& need, const RuleBook& book, Working* w) {
    RunParts parts;
    if (run.size < 0) return parts;
    const RunNeed& n = run.need;
    parts.lines = n.poles;
    parts.ground = run.ground;
    parts.isolated = run.isolated;
    parts.neutral = run.neutralSize;
    parts.neutrals = run.neutrals;
    if (w && n.poles > 1) (void)neutralOf(run, book, w);
    if (n.wiring != Wiring::Conduit) return parts;
    const ConduitType* type = need.conduit.empty() ? nullptr : book.conduit(need.conduit);
    for (const ConduitType& t : book.tables.conduits)
        if (!type && (t.raceway == n.raceway || (n.raceway == Raceway::Aluminium && t.name == "RMC"))) type = &t;
    if (!type || !need.insulation) return parts;
    parts.conduitType = type->name;
    std::vector<ConduitConductor> in{{run.size, n.poles, need.insulation}};
    const auto add = [&](SizeIndex size, int count) {
        if (size >= 0 && count > 0) in.push_back({size, count, need.insulation});
    };
    add(parts.neutral, parts.neutrals);
    add(std::max(parts.ground, need.ground), 1); // one serves all circuits of a raceway
    add(parts.isolated, 1);
    add(run.size, need.sharing);
    for (const ConduitConductor& c : need.others) in.push_back(c);
    parts.conduit = conduitFor(*type, in, book, w, need.nipple);
    return parts;
}

RunParts partsOf(const Project& p, const RuleBook& book, const Results& r, Ref thing, Working* w) {
    const RunResult* run = r.run(thing);
    if (!run) return {};
    bool standby = false;
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>()); c && r.of(c->id).feeder) {
        thing = r.of(c->id).feeds;
        standby = r.of(c->id).standby;
    }
    RunPartsNeed need;
    const auto told = [&](const Run* e) {
        if (w && e && e->nonlinear > 0.5 && run->need.poles == 3 && run->need.neutral)
            w->step("Neutral counted",
                    fmt::format("{} % of the load is nonlinear: the neutral carries as much as a line",
                                number(e->nonlinear * 100)),
                    fmt::format("{} conductors", run->need.conductors), book.cite("neutralCounts"));
    };
    const Run* entered = standby ? p.runs.find(p.boards[thing.as<Board>()].alternateRun) : enteredRun(p, thing);
    need.conduit = p.basis.conduit;
    told(entered);
    if (entered) {
        need.nipple = entered->nipple;
        if (!entered->conduit.empty())
            need.conduit = entered->conduit;
        else if (entered->raceway)
            need.conduit.clear();
    }
    need.insulation = book.insulation(p.basis.insulationType);
    if (!need.insulation) need.insulation = &book.insulationFor(p.basis.insulation);
    if (entered) need.sharing = entered->sharing;
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>()); c && racewayGroup(*c))
        for (CircuitId other : r.on(c->board)) {
            const Circuit& o = p.circuits[other];
            const CircuitResult& x = r.of(other);
            if (o.id == c->id || !shareRaceway(*c, o) || x.feeder || x.run.size < 0) continue;
            const int neutrals = neutralIsAnothers(p, r, o, c->id) ? 0 : x.run.neutrals;
            const bool alike = x.run.neutralSize == x.run.size;
            need.others.push_back({x.run.size, x.run.need.poles + (alike ? neutrals : 0), need.insulation});
            if (!alike && neutrals > 0) need.others.push_back({x.run.neutralSize, neutrals, need.insulation});
            need.ground = std::max(need.ground, x.run.ground);
        }
    return partsOf(*run, need, book, w);
}

Bonding bondingOf(const RunResult& run, Material own, const RuleBook& book, Working* w) {
    Bonding b;
    if (run.size < 0) return b;
    if (book.metric()) { // the earthing conductor as any protective one; main bonding half of it, or by the neutral
                         // where that is earthed by the supplier
        const CableRules& c = book.cables;
        const double line = book.sizes()[std::size_t(run.size)].mm2 * run.sets;
        double earth = protectiveArea(c, line);
        if (const auto it = c.groundOfLine.find(run.size); it != c.groundOfLine.end())
            earth = book.sizes()[std::size_t(it->second)].mm2 * run.sets;
        double bond = std::clamp(earth * c.bondingShare, c.bondingLeast, c.bondingMost);
        const bool combined = run.need.cable->earthing == Earthing::TNCS && !c.bondingCombined.empty();
        for (auto it = c.bondingCombined.rbegin(); combined && it != c.bondingCombined.rend(); ++it)
            if (line <= it->first + 1e-9) bond = it->second;
        const auto size = [&](double mm2) {
            for (SizeIndex s = 0; s < SizeIndex(book.sizes().size()); ++s)
                if (book.sizes()[std::size_t(s)].mm2 >= mm2 - 1e-9 && book.sizes()[std::size_t(s)].at20[0] > 0)
                    return s;
            return SizeIndex(book.sizes().size()) - 1;
        };
        b.electrode = size(earth / run.sets);
        b.electrodes = run.sets;
        b.jumper = size(bond);
        if (w) {
            w->step("Earthing conductor", fmt::format("lines of {} mm² in all", figures(line)),
                    (b.electrodes > 1 ? fmt::format("{} × ", b.electrodes) : "") + sizeWords(book, b.electrode),
                    book.cite("protective"));
            w->step("Main bonding",
                    combined ? fmt::format("TN-C-S: by the neutral, {} mm²", figures(line))
                             : fmt::format("half of {} mm², from {} to {}", figures(earth), figures(c.bondingLeast),
                                           figures(c.bondingMost)),
                    sizeWords(book, b.jumper), book.cite("bonding"));
        }
        return b;
    }
    const double kcmil = book.sizes()[std::size_t(run.size)].kcmil * run.sets;
    b.electrode = book.bondingFor(kcmil, run.need.material, own);
    b.jumper = book.jumperFor(kcmil, run.need.material, own);
    if (w) {
        const std::string lines =
            fmt::format("lines of {} kcmil {} in all", number(kcmil, kcmil < 250 ? 1 : 0), wordOf(run.need.material));
        w->step("Grounding electrode conductor", lines, fmt::format("{} {}", sizeWords(book, b.electrode), wordOf(own)),
                book.cite("electrode"));
        w->step("Bonding jumper", lines, fmt::format("{} {}", sizeWords(book, b.jumper), wordOf(own)),
                book.cite("jumper"));
    }
    return b;
}

} // namespace lintel
