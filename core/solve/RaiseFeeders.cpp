#include "core/solve/Solver.h"

namespace lintel {

std::map<Ref, std::vector<CircuitId>> Solver::overBelow() const {
    constexpr int deepest = 64; // a loop in the feed ends there
    std::map<Ref, std::vector<CircuitId>> below;
    for (auto from = overTotal.begin(); from != overTotal.end();) { // board after board
        const BoardId board = (*from)->board;
        const auto to = std::find_if(from, overTotal.end(), [&](const Circuit* c) { return c->board != board; });
        Ref at = board;
        for (int depth = 0; at && !at.is<Source>() && depth < deepest; ++depth) {
            if (const Transformer* x = p.transformers.find(at.as<Transformer>()); x && x->restartsDrop) break;
            std::vector<CircuitId>& all = below[at];
            for (auto c = from; c != to; ++c) all.push_back((*c)->id);
            at = r.node(at)->parent;
        }
        from = to;
    }
    return below;
}

double Solver::leastMass(CircuitId id) const {
    const RunResult& run = r.circuits[id.value].run;
    return run.sizeForAmpacity < 0 ? 0 : conductorMass(run.need, run.sizeForAmpacity, run.setsForAmpacity, book);
}

double Solver::branchMass(CircuitId id, double less) const {
    constexpr double noSize = 1e6;
    const auto mass = [&](const RunResult& x) {
        return x.state == Sizing::PastCeiling || x.size < 0 ? noSize : conductorMass(x.need, x.size, x.sets, book);
    };
    const RunResult& run = r.circuits[id.value].run;
    if (less == 0) return mass(run);
    RunResult again;
    again.need = run.need;
    again.need.totalBefore -= less;
    sizeRun(again, rules, book);
    return mass(again);
}

Solver::Raise Solver::cheapestRaise(const RunResult& feeder, const std::vector<CircuitId>& over, double already) const {
    const auto branches = [&](double less) {
        double all = 0;
        for (CircuitId id : over) all += branchMass(id, less);
        return all;
    };
    // However little is lost before them, they are not smaller than what ampacity needs.
    double atBest = 0;
    for (CircuitId id : over) atBest += leastMass(id);
    Raise best;
    double least = branches(already);
    for (int k = 1; k + feeder.steps <= rules.ceiling; ++k) {
        RunResult again;
        again.need = feeder.need;
        again.need.raised = feeder.steps + k;
        sizeRun(again, rules, book);
        const double less = feeder.dropOwn - again.dropOwn;
        if (less <= 1e-9) break;
        const double more = conductorMass(again.need, again.size, again.sets, book) -
                            conductorMass(feeder.need, feeder.size, feeder.sets, book);
        if (more + atBest >= least * (1 - 1e-9)) break; // nor do more steps: they take more still
        const double all = more + branches(already + less);
        if (all >= least * (1 - 1e-9)) continue;
        least = all;
        best = {feeder.steps + k, less};
    }
    return best;
}

bool Solver::raiseCheapest() {
    raisedBoards.assign(r.boards.size(), 0);
    raisedTransformers.assign(r.transformers.size(), 0);
    if (overTotal.empty()) return false;
    const auto below = overBelow();
    bool any = false;
    std::map<Ref, double> lessAbove;
    for (Ref node : t.order) {
        const auto over = below.find(node);
        if (over == below.end()) continue;
        const NodeResult& n = *r.node(node);
        const double already = lessAbove[n.parent];
        lessAbove[node] = already;
        const RunResult& feeder = n.run;
        if (!n.parent || feeder.state != Sizing::Sized || !feeder.need.lengthKnown || feeder.size < 0) continue;
        const Raise raise = cheapestRaise(feeder, over->second, already);
        if (!raise.steps) continue;
        raised(node)[node.value] = raise.steps;
        lessAbove[node] = already + raise.less;
        any = true;
    }
    return any;
}

} // namespace lintel
