#include "core/solve/Solve.h"

#include "core/base/Format.h"
#include "core/plan/Measure.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/Demand.h"
#include "core/solve/Fault.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>

namespace lintel {
namespace {


/// The steps of one solution over one snapshot.
struct Solver {
    const Project& p;
    const RuleBook& book;
    Results& r;
    Topology t;
    SizingRules rules;
    SizeIndex smallestBranch = 0;

    Solver(const Project& project, const RuleBook& rulebook, Results& results) : p(project), book(rulebook), r(results), rules(sizingRules(project.basis, rulebook)) {
        smallestBranch = std::max(0, book.find(p.basis.smallestBranch));
    }

    void all() {
        r.circuits.assign(p.circuits.highest() + 1, {});
        r.boards.assign(p.boards.highest() + 1, {});
        r.transformers.assign(p.transformers.highest() + 1, {});
        r.sources.assign(p.sources.highest() + 1, {});
        t = findTopology(p, r);
        for (auto it = t.order.rbegin(); it != t.order.rend(); ++it) gather(*it);
        for (Ref node : t.order) settle(node);
    }

    // ---- from the leaves up: loads, phases, demand ----

    void gather(Ref node) {
        if (node.is<Board>()) gatherBoard(p.boards[node.as<Board>()]);
        NodeResult& n = *r.node(node);
        findDemand(n.kinds, p.basis, book, n);
        if (node.is<Transformer>()) finishTransformer(p.transformers[node.as<Transformer>()]);
        if (node.is<Source>()) finishLines(n, p.sources[node.as<Source>()].system);
        // Straight up where no circuit stands between: from a source or a transformer.
        if (n.parent && !n.via && !n.looped) passUp(node, *r.node(n.parent));
    }

    void passUp(Ref node, NodeResult& parent) {
        const NodeResult& n = *r.node(node);
        for (std::size_t k = 0; k < loadKinds; ++k) parent.kinds[k].add(n.kinds[k]);
        parent.phases.add(n.phases);
        for (std::size_t i = 0; i < 3; ++i) parent.phaseVa[i] += n.phaseVa[i];
    }

    void gatherBoard(const Board& b) {
        BoardResult& n = r.boards[b.id.value];
        std::vector<char> taken(std::size_t(b.slots) + 1, 0);
        for (const Circuit* c : t.of(b.id)) {
            CircuitResult& cr = r.circuits[c->id.value];
            cr.feeds = t.circuitFeeds[c->id.value];
            cr.feeder = bool(cr.feeds);
            loadCircuit(p, book, t, *c, b, cr, n.kinds);
            for (int i = 0; i < c->poles && cr.placed; ++i) {
                char& slot = taken[std::size_t(slotOfPole(b, c->slot, i, c->poles))];
                if (slot) cr.clash = true;
                else ++n.slotsUsed;
                slot = 1;
            }
            PhaseLoad load = ownLoad(*c, b, cr);
            if (cr.feeder && !r.node(cr.feeds)->looped) {
                const NodeResult& below = *r.node(cr.feeds);
                for (std::size_t k = 0; k < loadKinds; ++k) n.kinds[k].add(below.kinds[k]);
                load.add(throughFeeder(*c, b, cr, below));
                cr.power += below.phases.total();
                cr.va = magnitude(cr.power);
            }
            n.phases.add(load);
            const auto byLine = load.byLine();
            for (std::size_t i = 0; i < 3; ++i) {
                // A schedule passes distribution equipment's loads through line by line, also across a transformer.
                const bool through = cr.feeder && c->poles == 3 && cr.placed && !r.node(cr.feeds)->looped;
                cr.phaseVa[i] = through ? r.node(cr.feeds)->phaseVa[i] : magnitude(byLine[i]);
                n.phaseVa[i] += cr.phaseVa[i];
            }
        }
        finishLines(n, b.system);
    }

    /// Loads that hang on the circuit itself, on its lines. A circuit without a slot counts in totals, evenly.
    PhaseLoad ownLoad(const Circuit& c, const Board& b, const CircuitResult& cr) const {
        PhaseLoad load;
        const int lines = factsOf(b.system).lines;
        if (cr.power == Complex()) return load;
        if (!cr.placed) {
            for (int i = 0; i < lines; ++i) load.ln[std::size_t(i)] = cr.power / double(lines);
        } else if (c.poles == 1 || lines == 1) {
            load.ln[std::size_t(cr.lines[0])] = cr.power;
        } else if (c.poles == 2) {
            load.ll[between(cr.lines[0], cr.lines[1], lines)] = cr.power;
        } else {
            for (auto& x : load.ln) x = cr.power / 3.0;
        }
        return load;
    }
    static std::size_t between(int a, int b, int lines) {
        if (lines == 2) return 0;
        return std::size_t((a + 1) % 3 == b ? a : b);
    }

    /// What a board or transformer below puts on the lines of the circuit that feeds it.
    PhaseLoad throughFeeder(const Circuit& c, const Board& b, const CircuitResult& cr, const NodeResult& below) const {
        const int lines = factsOf(b.system).lines;
        if (c.poles == 3 || !cr.placed) return below.phases; // three lines keep their letters whatever the slot
        PhaseLoad out;
        if (c.poles == 1 || lines == 1) {
            out.ln[std::size_t(std::max(0, cr.lines[0]))] = below.phases.total();
        } else {
            out.ln[std::size_t(cr.lines[0])] += below.phases.ln[0];
            out.ln[std::size_t(cr.lines[1])] += below.phases.ln[1] + below.phases.ln[2];
            out.ll[between(cr.lines[0], cr.lines[1], lines)] += below.phases.ll[0] + below.phases.ll[1] + below.phases.ll[2];
        }
        return out;
    }

    void finishLines(NodeResult& n, VoltageSystem system) {
        const LineCurrents i = lineCurrents(n.phases, system);
        n.phaseAmps = i.lines;
        n.neutralAmps = i.neutral;
        const SystemFacts f = factsOf(system);
        n.imbalance = imbalanceOf(n.phaseVa, f.lines);
        n.lean = leanOf(n.phaseVa, f.lines);
        findDemand(n.kinds, p.basis, book, n);
        n.demandAmps = ampsOf(n.demand, system, f.phases == 3 ? 3 : f.lines);
        const double most = *std::max_element(i.lines.begin(), i.lines.end());
        n.heaviestAmps = Amps{n.connected > 0 ? most * std::min(1.0, n.demand / n.connected) : 0};
    }

    void finishTransformer(const Transformer& x) {
        TransformerResult& n = r.transformers[x.id.value];
        n.secondaryAmpsByPhase = lineCurrents(n.phases, x.secondary).lines;
        const std::array<double, 3> schedule = n.phaseVa; // line by line as schedules pass them through
        n.phases = onPrimary(n.phases, x.secondary, x.primary);
        finishLines(n, x.primary);
        n.phaseVa = schedule;
        const auto rated = [&](VoltageSystem s) { return Amps{x.kva * 1000 / (factsOf(s).lineLine.v * (factsOf(x.secondary).phases == 3 ? root3 : 1))}; };
        n.primaryAmps = rated(x.primary);
        n.secondaryAmps = rated(x.secondary);
        n.use = n.demand / (x.kva * 1000);
    }

    // ---- from the source down: devices, conductors with their drop, fault ----

    void settle(Ref node) {
        NodeResult& n = *r.node(node);
        if (auto* s = p.sources.find(node.as<Source>())) {
            n.fault = atSource(*s);
            n.dropTotal = 0;
            return;
        }
        if (auto* x = p.transformers.find(node.as<Transformer>())) settleTransformer(*x);
        if (auto* b = p.boards.find(node.as<Board>())) settleBoard(*b);
    }

    struct Above {
        VoltageSystem system = VoltageSystem::Y480;
        double drop = 0;
        FaultPoint fault;
        int poles = 3;
        double device = 0; ///< of the feeding circuit, 0: none stands there
        bool deviceHeld = false;
    };
    Above above(const NodeResult& n) const {
        Above a;
        if (auto* s = p.sources.find(n.parent.as<Source>())) {
            a.system = s->system;
            a.fault = r.of(s->id).fault;
            a.poles = factsOf(s->system).phases == 3 ? 3 : factsOf(s->system).lines;
        } else if (auto* x = p.transformers.find(n.parent.as<Transformer>())) {
            a.system = x->secondary;
            a.fault = r.of(x->id).secondary;
            a.drop = r.of(x->id).dropBelow;
            a.poles = factsOf(x->secondary).phases == 3 ? 3 : factsOf(x->secondary).lines;
        } else if (auto* b = p.boards.find(n.parent.as<Board>())) {
            a.system = b->system;
            a.fault = r.of(b->id).fault;
            a.drop = r.of(b->id).dropTotal;
            a.poles = n.via ? p.circuits[n.via].poles : 3;
        }
        return a;
    }

    RunNeed feederNeed(Ref node, const NodeResult& n, const Above& a, RunId runId) const {
        RunNeed need;
        need.feeder = true;
        need.poles = a.poles;
        need.system = a.system;
        need.material = p.basis.feederMaterial;
        need.conductors = a.poles == 3 ? 3 : a.poles + (factsOf(a.system).lines == 1 ? 1 : 0);
        need.smallest = smallestBranch;
        need.ownLimit = p.basis.feederDropLimit;
        need.totalLimit = p.basis.totalDropLimit;
        need.totalBefore = a.drop;
        const double growth = 1 + p.basis.growth;
        need.load = Amps{std::max(n.demandAmps.v, n.heaviestAmps.v) * growth};
        const double continuousShare = n.demand > 0 ? std::min(1.0, n.continuous / n.demand) : 0;
        need.required = need.load * (1 + (book.continuousFactor - 1) * continuousShare);
        need.dropAmps = need.load;
        need.dropPowerFactor = n.demand > 0 ? std::min(1.0, n.demandPower.real() / n.demand) : p.basis.powerFactor;
        applyRun(need, runId);
        if (need.lengthKnown) return need;
        const auto to = placeOf(p, node), from = n.parent ? placeOf(p, n.parent) : std::nullopt;
        if (to && from)
            if (auto m = measure(p, *from, *to)) takeLength(need, *m);
        return need;
    }
    void takeLength(RunNeed& need, const Measured& m) const {
        need.lengthKnown = true;
        need.length = m.total;
        need.up = m.up, need.across = m.across, need.down = m.down;
    }
    void applyRun(RunNeed& need, RunId id) const {
        need.raceway = p.basis.raceway;
        need.ambient = p.basis.ambient;
        const Run* run = p.runs.find(id);
        if (!run) return;
        if (run->material) need.material = *run->material;
        if (run->raceway) need.raceway = *run->raceway;
        if (run->ambient) need.ambient = *run->ambient;
        need.conductors += run->sharing;
        if (!run->heldSize.empty()) need.held = book.find(run->heldSize), need.heldSets = run->heldSets;
        if (run->lengthBy == LengthBy::Entered) need.lengthKnown = true, need.length = Metres{run->length};
    }

    void settleTransformer(const Transformer& x) {
        TransformerResult& n = r.transformers[x.id.value];
        if (!n.parent) return;
        const Above a = above(n);
        RunNeed need = feederNeed(x.id, n, a, x.run);
        need.device = deviceOfFeeder(n, x);
        need.load = Amps{std::max(need.load.v, 0.0)};
        n.run.need = need;
        sizeRun(n.run, rules, book);
        finishNode(n, a);
        n.secondary = afterTransformer(n.fault, x);
        const double load = n.demand / (x.kva * 1000), pf = n.demand > 0 ? n.demandPower.real() / n.demand : 1;
        const double rr = x.percentZ / std::hypot(1.0, x.xOverR), xx = rr * x.xOverR;
        n.regulation = load * (rr * pf + xx * std::sqrt(std::max(0.0, 1 - pf * pf)));
        n.dropBelow = x.restartsDrop ? 0 : n.dropTotal + n.regulation;
    }
    /// The device that feeds a transformer: 125 % of its rated primary current, the next standard rating allowed.
    double deviceOfFeeder(const TransformerResult& n, const Transformer&) {
        if (!n.via) return book.ratingAtOrAbove(n.primaryAmps.v * book.transformerPrimary);
        const Circuit& c = p.circuits[n.via];
        CircuitResult& cr = r.circuits[n.via.value];
        cr.load = cr.required = Amps{std::max(n.demandAmps.v, n.heaviestAmps.v)};
        cr.deviceNeeded = book.ratingAtOrAbove(std::max(n.primaryAmps.v * book.transformerPrimary, cr.required.v));
        cr.deviceHeld = c.heldBreaker.has_value();
        cr.device = c.heldBreaker.value_or(cr.deviceNeeded);
        return cr.device;
    }

    void settleBoard(const Board& b) {
        BoardResult& n = r.boards[b.id.value];
        if (n.parent) {
            const Above a = above(n);
            RunNeed need = feederNeed(b.id, n, a, b.run);
            if (n.via) {
                const Circuit& c = p.circuits[n.via];
                CircuitResult& cr = r.circuits[n.via.value];
                cr.load = need.load;
                cr.required = c.fullRated ? need.load : need.required;
                if (c.fullRated) need.required = need.load;
                cr.deviceNeeded = std::max(p.basis.smallestBreaker, book.ratingAtOrAbove(cr.required.v));
                if (book.ratingAtOrAbove(cr.required.v) == 0) cr.deviceNeeded = 0;
                cr.deviceHeld = c.heldBreaker.has_value();
                cr.device = need.device = c.heldBreaker.value_or(cr.deviceNeeded);
            } else {
                // Fed straight from a source or a transformer: its own main protects the conductors, and 250.122 does not
                // size what bonds them.
                need.device = b.main > 0 ? b.main : b.bus;
                need.groundWanted = false;
                if (n.parent.is<Transformer>()) need.nextRatingAllowed = false;
            }
            n.run.need = need;
            sizeRun(n.run, rules, book);
            finishNode(n, a);
        }
        const double limit = b.main > 0 ? std::min(b.main, b.bus) : b.bus;
        n.use = std::max(n.demandAmps.v, n.heaviestAmps.v) / limit;
        for (const Circuit* c : t.of(b.id))
            if (!r.circuits[c->id.value].feeder) settleBranch(*c, b, n);
    }

    void finishNode(NodeResult& n, const Above& a) const {
        n.dropTotal = a.drop + n.run.dropOwn;
        n.run.dropTotal = n.dropTotal;
        n.fault = a.fault.known ? afterRun(a.fault, n.run.ohms, n.run.need.material, a.system) : FaultPoint{};
    }

    void settleBranch(const Circuit& c, const Board& b, const BoardResult& board) {
        CircuitResult& cr = r.circuits[c.id.value];
        if (c.use == CircuitUse::Spare) {
            cr.device = c.heldBreaker.value_or(p.basis.smallestBreaker);
            cr.deviceHeld = c.heldBreaker.has_value();
            return;
        }
        const bool loaded = cr.va > 0;
        cr.load = ampsOf(cr.va, b.system, c.poles);
        const double continuous = loaded ? cr.continuousVa / cr.va : 0;
        const double motor = ampsOf(cr.largestMotorVa, b.system, c.poles).v;
        const double rest = cr.load.v - motor;
        const double add = c.fullRated ? 0 : book.continuousFactor - 1;
        cr.required = Amps{rest * (1 + add * std::min(1.0, continuous)) + motor * book.motorConductor};
        const double wanted = motor > 0 ? rest * (1 + add * continuous) + motor * book.motorDevice : cr.required.v;
        const double rating = book.ratingAtOrAbove(wanted);
        cr.deviceNeeded = rating > 0 ? std::max(rating, motor > 0 ? book.ratings().front() : p.basis.smallestBreaker) : 0;
        cr.deviceHeld = c.heldBreaker.has_value();
        cr.device = c.heldBreaker.value_or(cr.deviceNeeded);
        cr.run.need = branchNeed(c, b, cr, board);
        sizeRun(cr.run, rules, book);
        if (board.fault.known) cr.faultEnd = atBranchEnd(board.fault, cr.run.ohms, cr.run.need.material, b.system, c.poles);
    }

    RunNeed branchNeed(const Circuit& c, const Board& b, const CircuitResult& cr, const BoardResult& board) const {
        RunNeed need;
        need.poles = c.poles;
        need.system = b.system;
        need.load = cr.load;
        need.required = cr.required;
        need.device = cr.device;
        need.motor = cr.largestMotorVa > 0;
        need.nextRatingAllowed = !cr.receptacles;
        need.material = p.basis.branchMaterial;
        need.conductors = c.poles == 1 ? 2 : c.poles;
        need.smallest = smallestBranch;
        need.ownLimit = p.basis.branchDropLimit;
        need.totalLimit = p.basis.totalDropLimit;
        need.totalBefore = board.dropTotal;
        applyRun(need, c.run);
        const Run* run = p.runs.find(c.run);
        const DropBasis by = run && run->dropBasis != DropBasis::Default ? run->dropBasis : p.basis.branchDropBasis;
        need.dropByShare = by == DropBasis::Share;
        need.dropAmps = need.dropByShare ? Amps{std::max(cr.device * p.basis.ratingShare, cr.load.v)} : cr.load;
        need.dropPowerFactor = cr.va > 0 ? std::min(1.0, cr.power.real() / cr.va) : 1;
        if (!need.lengthKnown) {
            const auto devices = t.devicesOf(c.id);
            if (!devices.empty())
                if (auto m = measureCircuit(p, b, run ? run->lengthBy : LengthBy::Reach, devices.begin(), devices.size())) takeLength(need, *m);
        }
        return need;
    }
};

} // namespace

bool Results::knows(Ref x) const {
    if (x.is<Circuit>()) return x.value < circuits.size();
    return node(x) != nullptr;
}

const NodeResult* Results::node(Ref x) const {
    if (x.is<Board>() && x.value < boards.size()) return &boards[x.value];
    if (x.is<Transformer>() && x.value < transformers.size()) return &transformers[x.value];
    if (x.is<Source>() && x.value < sources.size()) return &sources[x.value];
    return nullptr;
}

const RunResult* Results::run(Ref x) const {
    if (x.is<Circuit>() && x.value < circuits.size()) {
        const CircuitResult& c = circuits[x.value];
        return c.feeder && node(c.feeds) ? &node(c.feeds)->run : &c.run;
    }
    return x.is<Source>() ? nullptr : node(x) ? &node(x)->run : nullptr;
}

std::vector<Ref> Results::feedPath(Ref thing, const Project& p) const {
    std::vector<Ref> path;
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) {
        path.push_back(thing);
        thing = c->board;
    }
    for (std::size_t guard = 0; thing && node(thing) && guard <= order.size(); ++guard) {
        if (node(thing)->looped) return {};
        path.push_back(thing);
        thing = node(thing)->parent;
    }
    std::reverse(path.begin(), path.end());
    return path;
}

Results solve(const Project& entered, const RuleBook& book) {
    Results r;
    Solver(entered, book, r).all();
    return r;
}

Working explain(const Project& p, const RuleBook& book, const Results& r, Ref thing) {
    Working w;
    const SizingRules rules = sizingRules(p.basis, book);
    const auto amps = [](Amps a) { return figures(a.v) + " A"; };
    const auto faults = [&](const FaultPoint& f, const std::string& where) {
        if (!f.known) {
            w.step("Fault level", "no source stands at the top of its feed path", "not known", "");
            return;
        }
        w.step("Fault level, " + where, f.threePhase > 0 ? fmt::format("three-phase {} kA, line–line {} kA, line–neutral {} kA", figures(f.threePhase), figures(f.lineLine), figures(f.lineNeutral))
                                                         : fmt::format("line–line {} kA, line–neutral {} kA", figures(f.lineLine), figures(f.lineNeutral)),
               figures(f.worst()) + " kA", book.cite("faultDevice"));
    };
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) {
        const CircuitResult& cr = r.of(c->id);
        if (cr.feeder) return explain(p, book, r, cr.feeds);
        const Board& b = p.boards[c->board];
        w.title = nameOf(p, c->id) + (c->name.empty() ? "" : " " + c->name);
        if (c->use == CircuitUse::Spare) {
            w.step("Spare", "a breaker with no load", figures(cr.device) + " A", "");
            return w;
        }
        w.step("Load", fmt::format("{} VA / {} V{}", number(cr.va), number(voltsAcross(b.system, c->poles).v), c->poles == 3 ? " / √3" : ""), amps(cr.load), "");
        if (cr.continuousVa > 0 && !c->fullRated)
            w.step("Continuous", fmt::format("{} A + 25 % of {} A continuous", figures(cr.load.v), figures(cr.load.v * cr.continuousVa / std::max(1.0, cr.va))), amps(cr.required), book.cite("continuousDevice"));
        if (cr.largestMotorVa > 0) {
            const double m = ampsOf(cr.largestMotorVa, b.system, c->poles).v;
            w.step("Motor", fmt::format("{} A × {} % for the conductor", figures(m), number(book.motorConductor * 100)), amps(cr.required), book.cite("motorConductor"));
            w.step("Motor device", fmt::format("{} A × {} %, next standard rating", figures(m), number(book.motorDevice * 100)), figures(cr.deviceNeeded) + " A", book.cite("motorDevice"));
        }
        w.step("Device", cr.deviceHeld ? fmt::format("held by hand; {} A is needed", figures(cr.deviceNeeded)) : fmt::format("{} A → next standard rating{}", figures(cr.required.v), cr.deviceNeeded == p.basis.smallestBreaker ? ", or the smallest of the basis" : ""),
               figures(cr.device) + " A", book.cite("rating"));
        RunResult again = cr.run;
        sizeRun(again, rules, book, &w);
        faults(r.of(b.id).fault, "at " + b.name);
        if (cr.faultEnd > 0) w.step("Fault level, far end", fmt::format("{} of run added, conductors at 20 °C", rules.units == UnitSystem::Imperial ? number(inFeet(cr.run.need.length)) + " ft" : number(cr.run.need.length.v) + " m"), figures(cr.faultEnd) + " kA", "");
        return w;
    }
    const NodeResult* n = r.node(thing);
    if (!n) return w;
    w.title = nameOf(p, thing);
    NodeResult again = *n;
    findDemand(n->kinds, p.basis, book, again, &w);
    if (const Source* s = p.sources.find(thing.as<Source>())) {
        if (s->kind == SourceKind::UtilityTransformer)
            w.step("Supply", fmt::format("{} kVA / ({} V·√3) / {} %, infinite behind it", number(s->kva), number(factsOf(s->system).lineLine.v), figures(s->percentZ)), figures(n->fault.worst()) + " kA", "");
        faults(n->fault, "at the supply");
        return w;
    }
    w.step("Demand current", fmt::format("{} kVA balanced", kilo(n->demand)), amps(n->demandAmps), "");
    if (n->heaviestAmps > n->demandAmps) w.step("Heaviest phase", fmt::format("phasor currents {} / {} / {} A, in the proportion of demand", figures(n->phaseAmps[0]), figures(n->phaseAmps[1]), figures(n->phaseAmps[2])), amps(n->heaviestAmps), "");
    if (p.basis.growth > 0) w.step("Growth", fmt::format("× {:.2f}", 1 + p.basis.growth), amps(n->run.need.load), "Basis");
    if (const Transformer* x = p.transformers.find(thing.as<Transformer>())) {
        const TransformerResult& tr = r.of(x->id);
        w.step("Rated current", fmt::format("{} kVA: primary {} A, secondary {} A", rating(x->kva), figures(tr.primaryAmps.v), figures(tr.secondaryAmps.v)), percent(tr.use * 100) + " used", "");
        w.step("Primary device", fmt::format("{} A × {} % = {} A, next standard rating", figures(tr.primaryAmps.v), number(book.transformerPrimary * 100), figures(tr.primaryAmps.v * book.transformerPrimary)), figures(tr.run.need.device) + " A", book.cite("transformer"));
    } else if (n->continuous > 0 && n->parent) {
        w.step("Continuous", fmt::format("25 % of {} kVA continuous added", kilo(n->continuous)), amps(n->run.need.required), book.cite("continuousFeederDevice"));
    }
    if (n->parent) {
        if (n->via) w.step("Device", fmt::format("{} in {}", nameOf(p, n->via), nameOf(p, n->parent)), figures(n->run.need.device) + " A", book.cite("rating"));
        RunResult run = n->run;
        sizeRun(run, rules, book, &w);
    }
    faults(n->fault, "at " + nameOf(p, thing));
    if (const Transformer* x = p.transformers.find(thing.as<Transformer>()))
        faults(r.of(x->id).secondary, fmt::format("secondary, {} %Z, X/R {}", figures(x->percentZ), figures(x->xOverR)));
    return w;
}

} // namespace lintel
