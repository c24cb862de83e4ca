#include "core/solve/Fault.h"

namespace lintel {
namespace {

Complex withRatio(double magnitude, double xOverR) {
    const double r = magnitude / std::hypot(1.0, xOverR);
    return {r, r * xOverR};
}

/// The voltage that drives a line-neutral fault.
double neutralVolts(const SystemFacts& s) {
    return s.phases == 3 ? s.lineLine.v / (s.highLeg ? 2 : root3) : s.lineNeutral.v;
}

void currents(FaultPoint& f, VoltageSystem system) {
    const SystemFacts s = factsOf(system);
    const auto kA = [&](double volts, Complex z) {
        return magnitude(z) > 0 ? f.factor * volts / magnitude(z) / 1000 : 0.0;
    };
    f.threePhase = s.phases == 3 ? kA(s.lineLine.v / root3, f.z1) + f.motors : 0;
    f.lineLine = s.lines > 1 ? kA(s.lineLine.v, f.zll) + (s.phases == 3 ? f.motors * root3 / 2 : f.motors) : 0;
    f.lineNeutral = s.lineNeutral.v > 0 ? kA(neutralVolts(s), f.zln) : 0;
    f.lineGround = s.lineNeutral.v > 0 ? kA(neutralVolts(s), f.zlg) : 0;
}

} // namespace

double FaultPoint::xOverR() const {
    const double w = worst();
    const Complex z = w <= 0 ? z1 : w == threePhase ? z1 : w == lineLine ? zll : w == lineNeutral ? zln : zlg;
    return z.real() > 0 ? z.imag() / z.real() : 1000;
}
double FaultPoint::peakFactor() const {
    const double x = xOverR();
    return x > 0 ? 1.02 + 0.98 * std::exp(-3 / x) : 1.02;
}

FaultPoint given(double kA, double xOverR, VoltageSystem system, double factor) {
    Source s;
    s.system = system;
    s.kind = SourceKind::FaultLevel;
    s.faultKA = kA;
    s.xOverR = xOverR;
    return atSource(s, factor);
}

void limitTo(FaultPoint& f, double kA, VoltageSystem system) {
    if (f.worst() <= kA) return;
    f.motors = 0;
    currents(f, system);
    const double k = f.worst() / kA;
    if (k > 1) f.z1 *= k, f.zll *= k, f.zln *= k, f.zlg *= k;
    f.limited = true;
    currents(f, system);
}

void addMotors(FaultPoint& f, double va, VoltageSystem system) {
    if (!f.known || va <= 0) return;
    const SystemFacts s = factsOf(system);
    f.motors = 4 * va / (s.lineLine.v * (s.phases == 3 ? root3 : 1)) / 1000;
    currents(f, system);
}

double coldFactor(Material m, double celsius) {
    const double tau = m == Material::Copper ? 234.5 : 228;
    return (tau + celsius) / (tau + 75);
}

namespace {
/// Ω of the utility before its transformer, at the secondary: U²/S of its three-phase fault level.
Complex utilityOhms(const Source& s, double factor) {
    if (s.kind != SourceKind::UtilityTransformer || s.utilityMVA <= 0) return {};
    const double v = factsOf(s.system).lineLine.v;
    return withRatio(factor * v * v / (s.utilityMVA * 1e6), s.utilityXR);
}
} // namespace

FaultPoint atSource(const Source& s, double factor) {
    FaultPoint f;
    f.factor = factor;
    f.known = true;
    const SystemFacts v = factsOf(s.system);
    const bool byLevel = s.kind == SourceKind::FaultLevel || s.kind == SourceKind::ExistingBoard;
    const double percent = s.kind == SourceKind::Generator ? s.subtransient : s.percentZ;
    if (v.phases == 3) {
        const double magnitude = byLevel ? factor * v.lineLine.v / root3 / (s.faultKA * 1000)
                                         : v.lineLine.v * v.lineLine.v / (s.kva * 1000) * percent / 100;
        f.z1 = f.zln = withRatio(magnitude, s.xOverR);
        if (const Complex before = utilityOhms(s, factor); before != Complex())
            f.z1 += before, f.zln += before * (2.0 / 3); // delta–wye: its own zero sequence only
        f.zll = f.z1 * 2.0;
        if (s.kind == SourceKind::ExistingBoard && s.faultLN > 0)
            f.zln = withRatio(factor * neutralVolts(v) / (s.faultLN * 1000), s.xOverR);
    } else {
        const double magnitude = byLevel ? factor * v.lineLine.v / (s.faultKA * 1000)
                                         : v.lineLine.v * v.lineLine.v / (s.kva * 1000) * percent / 100;
        f.zll = f.z1 = withRatio(magnitude, s.xOverR);
        f.zln = v.lines == 2 ? f.zll / 3.0 : f.zll;
        // Between two lines of the utility: out by one and back by the other; half a winding sees a quarter of it.
        if (const Complex before = 2.0 * utilityOhms(s, factor); before != Complex())
            f.zll += before, f.z1 = f.zll, f.zln += v.lines == 2 ? before / 4.0 : before;
        if (s.kind == SourceKind::ExistingBoard && s.faultLN > 0)
            f.zln = withRatio(factor * neutralVolts(v) / (s.faultLN * 1000), s.xOverR);
    }
    f.zlg = s.ze > 0 ? Complex{s.ze, 0} : f.zln;
    f.loop = f.zlg;
    currents(f, s.system);
    return f;
}

FaultPoint afterRun(const FaultPoint& from, Complex cold, Complex coldGround, Complex hotLoop, VoltageSystem system) {
    FaultPoint f = from;
    f.z1 += cold;
    f.zll += 2.0 * cold;
    f.zln += 2.0 * cold; // out by the line, back by a neutral of its size
    f.zlg += cold + coldGround;
    f.loop += hotLoop;
    currents(f, system);
    return f;
}

const FaultPoint& beforeFeeder(const Results& r, const NodeResult& n) {
    if (n.via && r.of(n.via).tap) return r.of(n.via).tap->fault;
    return n.parent.is<Transformer>() ? r.of(n.parent.as<Transformer>()).secondary : r.node(n.parent)->fault;
}

FaultPoint afterFeeder(const FaultPoint& before, VoltageSystem above, VoltageSystem system, const NodeResult& n,
                       const Project& p, const RuleBook& book) {
    if (!before.known) return {};
    FaultPoint from = before;
    if (n.via)
        if (const auto& limit = p.circuits[n.via].letThroughKA) limitTo(from, *limit, above);
    const double celsius = p.basis.faultCelsius;
    FaultPoint f = afterRun(from, coldOhms(n.run.ohms, n.run.need, book, celsius),
                            coldOhms(n.run.groundOhms, n.run.need, book, celsius), n.run.earth->added, system);
    f.runsUnknown = f.runsUnknown || !n.run.need.lengthKnown || n.run.state == Sizing::OutsideTables;
    return f;
}

VoltageSystem faultSystem(const Board& b, VoltageSystem above) {
    const SystemFacts own = factsOf(b.system), from = factsOf(above);
    const bool fewer = own.phases == 1 && from.phases == 3 && std::abs(own.lineNeutral.v - from.lineNeutral.v) < 1;
    return fewer ? b.system : above;
}

Complex coldOhms(Complex ohms, const RunNeed& n, const RuleBook& book, double celsius) {
    const double factor = n.cable->type < 0
                              ? coldFactor(n.material, celsius)
                              : warmer(celsius) / warmer(book.cables.types[std::size_t(n.cable->type)].celsius);
    return {ohms.real() * factor, ohms.imag()};
}

double atBranchEnd(const FaultPoint& board, Complex cold, VoltageSystem system, int poles) {
    const SystemFacts s = factsOf(system);
    const Complex loop = poles == 3 ? board.z1 + cold : (poles == 2 ? board.zll : board.zln) + 2.0 * cold;
    const double volts = poles == 3   ? s.lineLine.v / root3
                         : poles == 2 ? s.lineLine.v
                                      : neutralVolts(s),
                 ohmsAll = magnitude(loop);
    return ohmsAll > 0 ? board.factor * volts / ohmsAll / 1000 : 0;
}

Complex transformerOhms(const Transformer& t) {
    const double v = factsOf(t.secondary).lineLine.v;
    return withRatio(v * v / (t.kva * 1000) * t.percentZ / 100, t.xOverR);
}

FaultPoint afterTransformer(const FaultPoint& p, const Transformer& t) {
    FaultPoint f;
    f.known = p.known;
    f.runsUnknown = p.runsUnknown;
    f.factor = p.factor;
    if (!p.known) return f;
    const SystemFacts s = factsOf(t.secondary), in = factsOf(t.primary);
    const double ratio = s.lineLine.v / in.lineLine.v, square = ratio * ratio;
    const Complex own = transformerOhms(t);
    if (s.phases == 3) {
        f.z1 = p.z1 * square + own;
        f.zll = 2.0 * f.z1;
        f.zln = (2.0 * f.z1 + own) / 3.0;
    } else {
        f.zll = f.z1 = p.zll * square + own;
        f.zln = s.lines == 2 ? p.zll * (square / 4) + own / 3.0 : f.zll;
    }
    f.zlg = f.loop = f.zln;
    currents(f, t.secondary);
    return f;
}

} // namespace lintel
