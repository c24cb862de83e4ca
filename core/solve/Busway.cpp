#include "core/solve/Busway.h"

#include "core/solve/Solver.h"

namespace lintel {
namespace {

constexpr double milli = 1e-3;

/// Of copper, whose resistance falls off a little more than that of aluminium: the larger current.
double barsAt(double celsius) { return coldFactor(Material::Copper, celsius) / coldFactor(Material::Copper, 20); }

/// The loop of an earth fault over `metres`, with the bars as cold as the fault finds them, or warm.
Complex barLoop(const Board& b, double metres, double factor) {
    return Complex{b.barLoopR20 * factor, b.barLoopX} * metres * milli;
}

/// What a load on fewer than all lines loses over a balanced one, in shares of its own voltage: out by its line and
/// back by the neutral, as if nothing on the other lines made up for it; between two of three lines, out and back. The
/// most that it can be.
double backFactor(int poles, int lines) {
    if (poles >= lines) return 1;
    return poles == 1 ? 2 : 2 / root3;
}

/// The fault at a tap-off: the fed end's, less the bars up to it.
FaultPoint faultAlong(const FaultPoint& fed, const Board& b, const Circuit& c, double celsius, VoltageSystem system) {
    const double warm = b.barR20 > 0 ? b.barR / b.barR20 : 1;
    const Complex hotLoop = barLoop(b, placeAlong(b, c), std::max(1.0, warm));
    const double metres = c.along.value_or(0);
    const Complex cold = barOhmsCold(b, metres, celsius);
    const Complex ground = barLoop(b, metres, barsAt(celsius)) - cold; // the way back; the line is in `cold`
    const Complex back{std::max(0.0, ground.real()), std::max(0.0, ground.imag())};
    FaultPoint at = afterRun(fed, cold, back, hotLoop, system);
    const bool barsMissing = placeAlong(b, c) > 0 && (!barsKnown(b) || b.barLoopR20 <= 0);
    at.runsUnknown = fed.runsUnknown || barsMissing || (!c.along && b.barLength <= 0);
    return at;
}

} // namespace

Complex barOhmsCold(const Board& b, double metres, double celsius) {
    return Complex{b.barR20 * barsAt(celsius), b.barX} * metres * milli;
}
Complex barOhmsWarm(const Board& b, double metres) { return Complex{b.barR, b.barX} * metres * milli; }

CircuitStart startOf(const Results& r, BoardId id) {
    const BoardResult& board = r.of(id);
    return {board.fault, board.dropTotal, board.dropKnown};
}
CircuitStart startOf(const Results& r, const Circuit& c) {
    if (const auto& tap = r.of(c.id).tap) return {tap->fault, tap->dropTotal, tap->dropKnown};
    return startOf(r, c.board);
}

void Solver::settleTaps(const Board& b) {
    if (b.use != BoardUse::Busway) return;
    const BoardResult& n = r.boards[b.id.value];
    struct Hung {
        const Circuit* circuit;
        double at, va;
    };
    std::vector<Hung> taps;
    double all = 0;
    for (const Circuit* c : t.of(b.id)) {
        const CircuitResult& cr = r.circuits[c->id.value];
        const double va = cr.feeder ? (cr.standby ? 0 : r.node(cr.feeds)->demand) : cr.va;
        taps.push_back({c, placeAlong(b, *c), va});
        all += va;
    }
    std::stable_sort(taps.begin(), taps.end(), [](const Hung& x, const Hung& y) { return x.at < y.at; });
    const SystemFacts facts = factsOf(b.system);
    const double powerFactor = n.demand > 0 ? std::min(1.0, n.demandPower.real() / n.demand) : p.basis.powerFactor;
    const double sine = std::sqrt(std::max(0.0, 1 - powerFactor * powerFactor));
    const double amps = n.parent ? n.run.need.dropAmps.v : demandOf(n);
    const double ohms = (b.barR * powerFactor + b.barX * sine) * milli;                    // for one metre
    const double percent = (facts.lines == 3 ? root3 : 2) * ohms / facts.lineLine.v * 100; // for one A·m
    double beyond = amps, moment = 0; // A that flow past; A·m of what hangs before
    for (const Hung& tap : taps) {
        TapPoint& at = r.circuits[tap.circuit->id.value].tap.make();
        at.dropOwn = percent * backFactor(tap.circuit->poles, facts.lines) * (moment + beyond * tap.at);
        at.dropTotal = n.dropTotal + at.dropOwn;
        at.dropKnown = n.dropKnown && (tap.at == 0 ? tap.circuit->along.has_value() : barsKnown(b));
        at.fault = n.fault.known ? faultAlong(n.fault, b, *tap.circuit, p.basis.faultCelsius, b.system) : FaultPoint{};
        const double own = all > 0 ? amps * tap.va / all : 0;
        beyond -= own;
        moment += own * tap.at;
    }
}

} // namespace lintel
