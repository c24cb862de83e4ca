#include "core/project/Slots.h"
#include "core/solve/MotorStart.h"
#include "core/solve/Solver.h"

namespace lintel {
namespace {

/// Which pair of lines a load between lines `a` and `b` hangs on: 0 is A–B.
std::size_t between(int a, int b, int lines) {
    if (lines == 2) return 0;
    return std::size_t((a + 1) % 3 == b ? a : b);
}

} // namespace

void Solver::gather(Ref node) {
    if (node.is<Board>()) {
        gatherFeeders(p.boards[node.as<Board>()]);
        addUpsLosses(p.boards[node.as<Board>()]);
    }
    NodeResult& n = *r.node(node);
    findDemand(n.kinds, p.basis, book, n);
    if (node.is<Transformer>()) finishTransformer(p.transformers[node.as<Transformer>()]);
    if (node.is<Source>()) finishLines(n, p.sources[node.as<Source>()].system);
    if (n.parent && !n.via && !n.looped) passUp(node, *r.node(n.parent));
}

std::size_t Solver::lineAbove(Ref node, std::size_t i) const {
    const Board* b = p.boards.find(node.as<Board>());
    return b && b->turned && factsOf(b->system).lines == 3 ? (i + std::size_t(b->turned)) % 3 : i;
}

PhaseLoad Solver::phasesAbove(Ref node) const {
    const PhaseLoad& own = r.node(node)->phases;
    if (lineAbove(node, 0) == 0) return own;
    PhaseLoad out;
    for (std::size_t i = 0; i < 3; ++i) out.ln[lineAbove(node, i)] = own.ln[i], out.ll[lineAbove(node, i)] = own.ll[i];
    return out;
}

void Solver::passUp(Ref node, NodeResult& parent) {
    const NodeResult& n = *r.node(node);
    for (std::size_t k = 0; k < loadKinds; ++k) parent.kinds[k].add(n.kinds[k]);
    parent.phases.add(phasesAbove(node));
    for (std::size_t i = 0; i < 3; ++i) parent.phaseVa[lineAbove(node, i)] += n.phaseVa[i];
    parent.largestMotorVa = std::max(parent.largestMotorVa, n.largestMotorVa);
    noteStart(parent, n.startRunningVa, n.startVa);
    if (node.is<Board>())
        for (std::size_t i = 0; i < 3; ++i) parent.neutralVa[lineAbove(node, i)] += n.neutralVa[i];
}

void Solver::gatherOwn(const Board& b, Results::Present& present) {
    BoardResult& n = r.boards[b.id.value];
    std::vector<char> taken(std::size_t(b.slots) + 1, 0);
    std::size_t place = r.onBoardFrom[b.id.value];
    for (const Circuit* c : t.of(b.id)) {
        r.onBoards[place++] = c->id;
        CircuitResult& cr = r.circuits[c->id.value];
        cr.feeds = t.circuitFeeds[c->id.value];
        cr.feeder = bool(cr.feeds);
        cr.standby = cr.feeder && r.node(cr.feeds)->via != c->id;
        loadCircuit(p, book, t, *c, b, cr, n.kinds, present);
        if (cr.largestMotorVa > 0) {
            n.largestMotorVa = std::max(n.largestMotorVa, cr.largestMotorVa);
            noteStart(n, cr.largestMotorVa, startTimesOf(*c, book) * cr.largestMotorVa);
        }
        for (int i = 0; i < c->poles && cr.placed; ++i) {
            char& slot = taken[std::size_t(slotOfPole(b, c->slot, i, c->poles))];
            if (slot)
                cr.clash = true;
            else
                ++n.slotsUsed;
            slot = 1;
        }
        if (!cr.feeder) addToBoard(*c, n, cr, ownLoad(*c, b, cr));
    }
}

void Solver::addToBoard(const Circuit& c, BoardResult& n, CircuitResult& cr, const PhaseLoad& load) {
    n.phases.add(load);
    if (!cr.feeder && c.poles == 1 && cr.placed) n.neutralVa[std::size_t(cr.lines[0])] += cr.va;
    for (std::size_t i = 0; i < 3 && cr.split && cr.placed; ++i)
        n.neutralVa[std::size_t(std::max(0, cr.lines[i]))] += magnitude((*cr.split)[i]);
    const bool through = cr.feeder && !cr.standby && !r.node(cr.feeds)->looped;
    if (through && cr.feeds.is<Board>())
        for (std::size_t i = 0; i < 3; ++i)
            n.neutralVa[c.poles == 3 || !cr.placed ? lineAbove(cr.feeds, i) : std::size_t(std::max(0, cr.lines[i]))] +=
                r.node(cr.feeds)->neutralVa[i];
    const auto byLine = load.byLine();
    // A schedule passes distribution equipment's loads through line by line, also across a transformer.
    for (std::size_t i = 0; i < 3; ++i)
        if (through && c.poles == 3 && cr.placed)
            cr.phaseVa[lineAbove(cr.feeds, i)] = r.node(cr.feeds)->phaseVa[i];
        else
            cr.phaseVa[i] = magnitude(byLine[i]);
    for (std::size_t i = 0; i < 3; ++i) n.phaseVa[i] += cr.phaseVa[i];
}

void Solver::gatherFeeders(const Board& b) {
    BoardResult& n = r.boards[b.id.value];
    for (const Circuit* c : t.feedersOf(b.id)) {
        CircuitResult& cr = r.circuits[c->id.value];
        PhaseLoad load = ownLoad(*c, b, cr);
        if (const NodeResult& below = *r.node(cr.feeds); !below.looped && !cr.standby) {
            for (std::size_t k = 0; k < loadKinds; ++k) n.kinds[k].add(below.kinds[k]);
            n.largestMotorVa = std::max(n.largestMotorVa, below.largestMotorVa);
            noteStart(n, below.startRunningVa, below.startVa);
            load.add(throughFeeder(*c, b, cr, below));
            cr.power += below.phases.total();
            cr.va = magnitude(cr.power);
        }
        addToBoard(*c, n, cr, load);
    }
    finishLines(n, b.system);
}

void Solver::addUpsLosses(const Board& b) {
    if (b.use != BoardUse::Ups) return;
    BoardResult& n = r.boards[b.id.value];
    UpsLoad& ups = n.ups.make();
    ups.out = n.demandPower;
    ups.losses = b.rechargeKW * 1000;
    if (b.efficiency > 0) ups.losses += ups.out.real() * (1 / b.efficiency - 1);
    if (ups.losses <= 0) return;
    KindSum& own = n.kinds[std::size_t(LoadKind::Equipment)];
    own.p += ups.losses;
    own.dp += ups.losses;
    own.continuous += ups.losses;
    const int lines = factsOf(b.system).lines;
    for (std::size_t i = 0; i < std::size_t(lines); ++i) {
        n.phases.ln[i] += ups.losses / lines;
        n.phaseVa[i] += ups.losses / lines;
    }
    finishLines(n, b.system);
}

PhaseLoad Solver::ownLoad(const Circuit& c, const Board& b, const CircuitResult& cr) const {
    PhaseLoad load;
    const int lines = factsOf(b.system).lines;
    if (cr.power == Complex()) return load;
    if (!cr.placed) {
        for (int i = 0; i < lines; ++i) load.ln[std::size_t(i)] = cr.power / double(lines);
        return load;
    }
    if (c.poles == 1 || lines == 1) {
        load.ln[std::size_t(cr.lines[0])] = cr.power;
        return load;
    }
    // What is entered line by line stays on its lines; the rest is spread.
    Complex even = cr.power;
    for (std::size_t i = 0; i < 3 && cr.split; ++i)
        if (const Complex own = (*cr.split)[i]; own != Complex()) {
            load.ln[std::size_t(cr.lines[i] >= 0 ? cr.lines[i] : cr.lines[0])] += own;
            even -= own;
        }
    if (c.poles == 2)
        load.ll[between(cr.lines[0], cr.lines[1], lines)] = even;
    else
        for (auto& x : load.ln) x += even / 3.0;
    return load;
}

PhaseLoad Solver::throughFeeder(const Circuit& c, const Board& b, const CircuitResult& cr,
                                const NodeResult& below) const {
    const int lines = factsOf(b.system).lines;
    if (c.poles == 3 || !cr.placed) return phasesAbove(cr.feeds); // three lines keep their letters whatever the slot
    PhaseLoad out;
    if (c.poles == 1 || lines == 1) {
        out.ln[std::size_t(std::max(0, cr.lines[0]))] = below.phases.total();
    } else {
        out.ln[std::size_t(cr.lines[0])] += below.phases.ln[0];
        out.ln[std::size_t(cr.lines[1])] += below.phases.ln[1] + below.phases.ln[2];
        out.ll[between(cr.lines[0], cr.lines[1], lines)] +=
            below.phases.ll[0] + below.phases.ll[1] + below.phases.ll[2];
    }
    return out;
}

void Solver::finishLines(NodeResult& n, VoltageSystem system) {
    const LineCurrents i = lineCurrents(n.phases, system);
    n.phaseAmps = i.lines;
    n.neutralAmps = i.neutral;
    const SystemFacts f = factsOf(system);
    n.imbalance = imbalanceOf(n.phaseVa, f.lines);
    n.lean = leanOf(n.phaseVa, f.lines);
    findDemand(n.kinds, p.basis, book, n);
    n.demandAmps = ampsOf(n.demand, system, f.lines);
    const double most = *std::max_element(i.lines.begin(), i.lines.end());
    n.heaviestAmps = Amps{n.connected > 0 ? most * std::min(1.0, n.demand / n.connected) : 0};
}

void Solver::finishTransformer(const Transformer& x) {
    TransformerResult& n = r.transformers[x.id.value];
    n.secondaryAmpsByPhase = lineCurrents(n.phases, x.secondary).lines;
    const std::array<double, 3> schedule = n.phaseVa; // line by line as schedules pass them through
    n.phases = onPrimary(n.phases, x.secondary, x.primary);
    finishLines(n, x.primary);
    n.phaseVa = schedule;
    const auto rated = [&](VoltageSystem s) {
        return Amps{x.kva * 1000 / (factsOf(s).lineLine.v * (factsOf(x.secondary).phases == 3 ? root3 : 1))};
    };
    n.primaryAmps = rated(x.primary);
    n.secondaryAmps = rated(x.secondary);
    n.use = n.demand / (x.kva * 1000);
}

} // namespace lintel
