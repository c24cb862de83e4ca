#include "core/solve/Busway.h"
#include "core/solve/Solver.h"

namespace lintel {
namespace {

/// All that turns below a node; what of it can feed a fault.
double motorVa(const NodeResult& n) {
    double va = 0;
    for (LoadKind k : {LoadKind::Motor, LoadKind::Vertical, LoadKind::Cooling, LoadKind::Refrigeration})
        va += n.kinds[std::size_t(k)].va();
    return va;
}

} // namespace

void Solver::settle(Ref node) {
    NodeResult& n = *r.node(node);
    if (auto* s = p.sources.find(node.as<Source>())) {
        n.fault = atSource(*s, voltageFactor());
        if (p.basis.motorsFeedFaults) addMotors(n.fault, motorVa(n), s->system);
        n.dropTotal = 0;
        return;
    }
    if (auto* x = p.transformers.find(node.as<Transformer>())) settleTransformer(*x);
    if (auto* b = p.boards.find(node.as<Board>())) settleBoard(*b);
}

Solver::Above Solver::above(const NodeResult& n) const {
    Above a;
    if (auto* s = p.sources.find(n.parent.as<Source>())) {
        a.system = s->system;
        a.fault = r.of(s->id).fault;
        a.poles = factsOf(s->system).phases == 3 ? 3 : factsOf(s->system).lines;
    } else if (auto* x = p.transformers.find(n.parent.as<Transformer>())) {
        a.system = x->secondary;
        a.fault = r.of(x->id).secondary;
        a.drop = r.of(x->id).dropBelow;
        a.dropKnown = x->restartsDrop || r.of(x->id).dropKnown;
        a.poles = factsOf(x->secondary).phases == 3 ? 3 : factsOf(x->secondary).lines;
    } else if (auto* b = p.boards.find(n.parent.as<Board>())) {
        a.system = b->system;
        const CircuitStart begins = n.via ? startOf(r, p.circuits[n.via]) : startOf(r, b->id);
        a.fault = begins.fault;
        a.drop = begins.drop;
        a.dropKnown = begins.dropKnown;
        a.poles = n.via ? p.circuits[n.via].poles : factsOf(b->system).phases == 3 ? 3 : factsOf(b->system).lines;
    }
    return a;
}

RunNeed Solver::feederNeed(Ref node, const NodeResult& n, const Above& a, RunId runId) {
    RunNeed need;
    need.feeder = true;
    need.poles = a.poles;
    need.system = a.system;
    need.material = p.basis.feederMaterial;
    need.conductors = a.poles == 3 ? 3 : a.poles + (factsOf(a.system).lines == 1 ? 1 : 0);
    const Board* board = p.boards.find(node.as<Board>());
    need.neutral = board && factsOf(board->system).wires > factsOf(board->system).lines &&
                   factsOf(a.system).wires > factsOf(a.system).lines;
    if (const double volts = board ? factsOf(board->system).lineNeutral.v : 0; volts > 0 && n.connected > 0)
        need.neutralAmps = float(*std::max_element(n.neutralVa.begin(), n.neutralVa.end()) / volts *
                                 std::min(1.0, n.demand / n.connected));
    need.smallest = smallestFeeder;
    need.ownLimit = p.basis.feederDropLimit;
    need.totalLimit = totalDropLimit(p.basis, book, ownSubstationAbove(n.parent), false).allowed;
    need.totalBefore = a.drop;
    need.beforeKnown = a.dropKnown;
    const double growth = 1 + p.basis.growth;
    need.load = Amps{demandOf(n) * growth};
    const double continuousShare = n.demand > 0 ? std::min(1.0, n.continuous / n.demand) : 0;
    need.required = need.load * (1 + (book.continuousFactor - 1) * continuousShare);
    need.dropAmps = need.load;
    if (node.value < raised(node).size()) need.raised = raised(node)[node.value];
    need.dropPowerFactor = n.demand > 0 ? std::min(1.0, n.demandPower.real() / n.demand) : p.basis.powerFactor;
    if (book.metric()) {
        need.cable.make().final = false;
        need.cable.make().loopBefore = a.fault.loop;
        need.cable.make().faultBefore = float(a.fault.worst());
        need.cable.make().earthBefore = float(a.fault.lineGround);
        need.cable.make().earthing = earthingOf(n.parent);
    }
    applyRun(need, runId, r.present);
    if (need.lengthKnown) return need;
    const auto to = placeOf(p, node), from = n.parent ? placeOf(p, n.parent) : std::nullopt;
    if (to && from)
        if (auto m = measureFeeder(p, *from, *to, measureBy(p.runs.find(runId), trays.get()))) takeLength(need, *m);
    assumeLength(need);
    return need;
}

void Solver::settleTransformer(const Transformer& x) {
    TransformerResult& n = r.transformers[x.id.value];
    if (!n.parent) return;
    const Above a = above(n);
    RunNeed need = feederNeed(x.id, n, a, x.run);
    need.device = deviceOfFeeder(n);
    guard(need, n.via, n.parent.is<Board>() && !n.via ? deviceBefore(n) : Before{});
    n.run.need = need;
    sizeRun(n.run, rules, book);
    finishNode(n, a, a.system);
    n.secondary = afterTransformer(n.fault, x);
    if (p.basis.motorsFeedFaults) addMotors(n.secondary, motorVa(n), x.secondary);
    const double load = n.demand / (x.kva * 1000);
    const double pf = n.demand > 0 ? n.demandPower.real() / n.demand : 1;
    const double rr = x.percentZ / std::hypot(1.0, x.xOverR);
    const double xx = rr * x.xOverR;
    n.regulation = load * (rr * pf + xx * std::sqrt(std::max(0.0, 1 - pf * pf)));
    n.dropBelow = x.restartsDrop ? 0 : n.dropTotal + n.regulation - x.boost;
}

double Solver::deviceOfFeeder(const TransformerResult& n) {
    const double wanted = transformerPrimaryRating(n.primaryAmps.v, book);
    if (!n.via) return wanted;
    const Circuit& c = p.circuits[n.via];
    CircuitResult& cr = r.circuits[n.via.value];
    cr.load = cr.required = Amps{demandOf(n)};
    cr.deviceNeeded = std::max(wanted, book.ratingAtOrAbove(cr.required.v, c.device));
    cr.deviceHeld = c.heldBreaker.has_value();
    cr.device = c.heldBreaker.value_or(cr.deviceNeeded);
    cr.kindOfDevice = fitted(c, cr.device, false);
    return cr.device;
}

void Solver::guard(RunNeed& need, CircuitId via, const Before& before) const {
    if (!book.metric()) return;
    if (!via) via = before.circuit;
    if (via) {
        need.cable.make().opener = via;
        need.cable.make().device = r.circuits[via.value].kindOfDevice;
        need.cable.make().makersEnergy = float(p.circuits[via].letThroughEnergy.value_or(0));
        watch(p.circuits[via], need.cable.make());
    } else if (before.amps > 0 && !before.supply) {
        need.cable.make().device = before.fuses ? DeviceKind::FuseGG : book.cables.usualLarge;
    } else {
        need.cable.make().unguarded = true;
    }
}

void Solver::settleBoard(const Board& b) {
    BoardResult& n = r.boards[b.id.value];
    if (n.parent) {
        const Above a = above(n);
        RunNeed need = feederNeed(b.id, n, a, b.run);
        const Before before = n.via ? Before{} : deviceBefore(n);
        if (n.via)
            feederDevice(n, need);
        else if (before.supply)
            withoutDevice(b, n.supply = before.supply, need);
        else
            need.device = before.amps; // from another board's lugs: what protects that board protects these too
        guard(need, n.via, before);
        judgeFeederDrop(need, n, b.run);
        n.run.need = need;
        sizeRun(n.run, rules, book);
        finishNode(n, a, faultSystem(b, a.system));
    }
    if (b.givenKA) n.fault = given(*b.givenKA, b.givenXR, b.system, voltageFactor());
    n.use = demandOf(n) / mostAmps(b);
    settleTaps(b);
}

void Solver::feederDevice(const NodeResult& n, RunNeed& need) {
    const Circuit& c = p.circuits[n.via];
    CircuitResult& cr = r.circuits[n.via.value];
    if (c.fullRated) need.required = need.load;
    cr.load = need.load;
    cr.required = need.required;
    const double rating = book.ratingAtOrAbove(cr.required.v, c.device);
    cr.deviceNeeded = rating > 0 ? std::max(p.basis.smallestBreaker, rating) : 0;
    r.present.note(Results::Trait::NoDevice, cr.deviceNeeded == 0 && cr.required.v > 0);
    cr.deviceHeld = c.heldBreaker.has_value();
    cr.device = need.device = c.heldBreaker.value_or(cr.deviceNeeded);
    cr.kindOfDevice = fitted(c, cr.device, false);
}

void Solver::withoutDevice(const Board& b, Ref supply, RunNeed& need) const {
    need.device = b.main > 0 ? b.main : b.bus;
    need.groundWanted = false;
    if (supply.is<Transformer>()) need.nextRatingAllowed = false;
    need.required = std::max(need.required, generatorAmps(supply));
    if (supply.is<Source>() && p.basis.occupancy == Occupancy::Dwelling && factsOf(b.system).phases == 1 &&
        need.device >= book.tables.dwellingServiceFrom && need.device <= book.tables.dwellingServiceTo)
        need.deviceShare = book.tables.dwellingServiceShare;
}

Amps Solver::generatorAmps(Ref supply) const {
    const Source* s = p.sources.find(supply.as<Source>());
    if (!s || s->kind != SourceKind::Generator || book.cite("generator").empty()) return Amps{0};
    const SystemFacts f = factsOf(s->system);
    return ampsOf(s->kva * 1000, s->system, f.phases == 3 ? 3 : f.lines) * book.tables.generatorConductor;
}

Solver::Before Solver::deviceBefore(const NodeResult& n) {
    // Boards are settled from the source down: what stands before the one above is known when it is asked for here.
    const auto known = [&](Ref above) -> std::optional<Before> {
        const Board* at = p.boards.find(above.as<Board>());
        if (!at) return Before{0, above, {}, false};
        // In metric practice the main of a board is a switch.
        if (at->main > 0 && (!book.metric() || passesOn(at->use))) return Before{at->main, {}, {}, holdsFuses(at->use)};
        const BoardResult& up = r.boards[at->id.value];
        if (up.via) return Before{r.circuits[up.via.value].device, {}, up.via, false};
        if (up.looped || !up.parent) return Before{at->bus, {}, {}, false};
        return std::nullopt;
    };
    std::vector<BoardId> way;
    Ref at = n.parent;
    std::optional<Before> before;
    while (!(before = known(at))) {
        const BoardId board = at.as<Board>();
        if (const Before& earlier = beforeLugs[board.value]; earlier.amps > 0 || earlier.supply) {
            before = earlier;
            break;
        }
        way.push_back(board);
        at = r.boards[board.value].parent;
    }
    for (BoardId id : way) beforeLugs[id.value] = *before;
    return *before;
}

void Solver::judgeFeederDrop(RunNeed& need, const NodeResult& n, RunId id) const {
    const Run* run = p.runs.find(id);
    const DropBasis by = run && run->dropBasis != DropBasis::Default ? run->dropBasis : p.basis.feederDropBasis;
    if (by == DropBasis::Connected)
        need.dropAmps = Amps{std::max(need.load.v, *std::max_element(n.phaseAmps.begin(), n.phaseAmps.end()))};
    need.dropByShare = by == DropBasis::Share && need.device > 0;
    if (need.dropByShare) need.dropAmps = Amps{std::max(need.device * p.basis.ratingShare, need.load.v)};
}

void Solver::finishNode(NodeResult& n, const Above& a, VoltageSystem system) const {
    n.dropTotal = a.drop + n.run.dropOwn;
    n.dropKnown = a.dropKnown && n.run.need.lengthKnown && n.run.state != Sizing::OutsideTables;
    n.run.dropTotal = n.dropTotal;
    n.fault = afterFeeder(a.fault, a.system, system, n, p, book);
}

} // namespace lintel
