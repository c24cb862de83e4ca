#include "core/solve/RunParts.h"

#include "core/base/Format.h"
#include "core/solve/Procedure.h"

#include <fmt/format.h>

namespace lintel {

RunParts partsOf(const RunResult& run, const RunPartsNeed& need, const RuleBook& book, Working* w) {
    RunParts parts;
    if (run.size < 0) return parts;
    const RunNeed& n = run.need;
    parts.lines = n.poles;
    parts.ground = run.ground;
    if (need.isolated && run.ground >= 0) parts.isolated = run.ground;
    if (n.neutral) {
        parts.neutral = run.size;
        parts.neutrals = 1;
        if (need.neutral == NeutralBy::Double && n.poles > 1) {
            parts.neutrals = 2;
            if (w)
                w->step("Neutral", "double, for nonlinear loads", fmt::format("2 × {}", sizeWords(book, run.size)), "");
        } else if (need.neutral == NeutralBy::Calculated && n.poles > 1) {
            // Its own load; what is above 200 A at 70 % unless the load is nonlinear; not smaller than the protective
            // conductor.
            double amps = need.neutralAmps;
            const double above = std::max(0.0, amps - book.tables.neutralAbove);
            if (!need.nonlinear && above > 0) amps = book.tables.neutralAbove + above * book.tables.neutralAboveFactor;
            for (SizeIndex s = std::max(0, run.ground); s <= run.size; ++s)
                if (book.ampacity(s, n.material, 75) * run.sets >= amps &&
                    (run.sets == 1 || s >= book.smallestParallel())) {
                    parts.neutral = s;
                    break;
                }
            if (w)
                w->step("Neutral",
                        above > 0 && !need.nonlinear
                            ? fmt::format("{} A: {} A + {} % of the rest = {} A", figures(need.neutralAmps),
                                          figures(book.tables.neutralAbove),
                                          figures(book.tables.neutralAboveFactor * 100), figures(amps))
                            : fmt::format("its own load, {} A", figures(amps)),
                        sizeWords(book, parts.neutral), book.cite("neutral"));
        }
    }
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
    RunId id;
    const auto told = [&](const Run* e) {
        if (w && e && e->nonlinear > 0.5 && run->need.poles == 3 && run->need.neutral)
            w->step("Neutral counted",
                    fmt::format("{} % of the load is nonlinear: the neutral carries as much as a line",
                                number(e->nonlinear * 100)),
                    fmt::format("{} conductors", run->need.conductors), book.cite("neutralCounts"));
    };
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) {
        id = c->run;
    } else if (const Board* b = p.boards.find(thing.as<Board>())) {
        id = standby ? b->alternateRun : b->run;
        const SystemFacts f = factsOf(b->system);
        const BoardResult& n = r.of(b->id);
        const double most = *std::max_element(n.neutralVa.begin(), n.neutralVa.end());
        if (f.lineNeutral.v > 0 && n.connected > 0)
            need.neutralAmps = most / f.lineNeutral.v * std::min(1.0, n.demand / n.connected);
    } else if (const Transformer* t = p.transformers.find(thing.as<Transformer>()))
        id = t->run;
    const Run* entered = p.runs.find(id);
    need.conduit = p.basis.conduit;
    told(entered);
    if (entered) {
        need.neutral = entered->neutral;
        need.nonlinear = entered->nonlinear > 0.5;
        need.isolated = entered->isolatedGround;
        need.nipple = entered->nipple;
        if (!entered->conduit.empty())
            need.conduit = entered->conduit;
        else if (entered->raceway)
            need.conduit.clear();
    }
    need.insulation = book.insulation(p.basis.insulationType);
    if (!need.insulation) need.insulation = &book.insulationFor(p.basis.insulation);
    if (entered) need.sharing = entered->sharing;
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>()); c && c->bundle)
        for (const Circuit& o : p.circuits) {
            const CircuitResult& x = r.of(o.id);
            if (o.id == c->id || o.board != c->board || o.bundle != c->bundle || o.use != CircuitUse::Load ||
                x.feeder || x.run.size < 0)
                continue;
            // A neutral that a multiwire group shares is in the raceway once.
            const bool sharedNeutral =
                o.multiwire && std::any_of(p.circuits.begin(), p.circuits.end(), [&](const Circuit& q) {
                    return q.board == o.board && q.bundle == o.bundle && q.multiwire == o.multiwire && q.id < o.id;
                });
            need.others.push_back(
                {x.run.size, x.run.need.poles + (x.run.need.neutral && !sharedNeutral), need.insulation});
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
