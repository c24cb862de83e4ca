#include "core/solve/Fault.h"

namespace lintel {
namespace {

Complex withRatio(double magnitude, double xOverR) {
    const double r = magnitude / std::hypot(1.0, xOverR);
    return {r, r * xOverR};
}

/// The voltage that drives a line-neutral fault.
double neutralVolts(const SystemFacts& s) { return s.phases == 3 ? s.lineLine.v / (s.highLeg ? 2 : root3) : s.lineNeutral.v; }

void currents(FaultPoint& f, VoltageSystem system) {
    const SystemFacts s = factsOf(system);
    const auto kA = [](double volts, Complex z) { return magnitude(z) > 0 ? volts / magnitude(z) / 1000 : 0.0; };
    f.threePhase = s.phases == 3 ? kA(s.lineLine.v / root3, f.z1) : 0;
    f.lineLine = s.lines > 1 ? kA(s.lineLine.v, f.zll) : 0;
    f.lineNeutral = s.lineNeutral.v > 0 ? kA(neutralVolts(s), f.zln) : 0;
}

} // namespace

double coldFactor(Material m) {
    const double tau = m == Material::Copper ? 234.5 : 228;
    return (tau + 20) / (tau + 75);
}

FaultPoint atSource(const Source& s) {
    FaultPoint f;
    f.known = true;
    const SystemFacts v = factsOf(s.system);
    if (v.phases == 3) {
        const double magnitude = s.kind == SourceKind::FaultLevel ? v.lineLine.v / root3 / (s.faultKA * 1000) : v.lineLine.v * v.lineLine.v / (s.kva * 1000) * s.percentZ / 100;
        f.z1 = f.zln = withRatio(magnitude, s.xOverR);
        f.zll = f.z1 * 2.0;
    } else {
        const double magnitude = s.kind == SourceKind::FaultLevel ? v.lineLine.v / (s.faultKA * 1000) : v.lineLine.v * v.lineLine.v / (s.kva * 1000) * s.percentZ / 100;
        f.zll = f.z1 = withRatio(magnitude, s.xOverR);
        f.zln = v.lines == 2 ? f.zll / 3.0 : f.zll;
    }
    currents(f, s.system);
    return f;
}

FaultPoint afterRun(const FaultPoint& from, Complex ohms, Material m, VoltageSystem system) {
    FaultPoint f = from;
    const Complex z{ohms.real() * coldFactor(m), ohms.imag()};
    f.z1 += z;
    f.zll += 2.0 * z;
    f.zln += 2.0 * z; // out by the line, back by a neutral of its size
    currents(f, system);
    return f;
}

double atBranchEnd(const FaultPoint& board, Complex ohms, Material m, VoltageSystem system, int poles) {
    const SystemFacts s = factsOf(system);
    const Complex z{ohms.real() * coldFactor(m), ohms.imag()};
    const Complex loop = poles == 3 ? board.z1 + z : (poles == 2 ? board.zll : board.zln) + 2.0 * z;
    const double volts = poles == 3 ? s.lineLine.v / root3 : poles == 2 ? s.lineLine.v : neutralVolts(s), ohmsAll = magnitude(loop);
    return ohmsAll > 0 ? volts / ohmsAll / 1000 : 0;
}

Complex transformerOhms(const Transformer& t) {
    const double v = factsOf(t.secondary).lineLine.v;
    return withRatio(v * v / (t.kva * 1000) * t.percentZ / 100, t.xOverR);
}

FaultPoint afterTransformer(const FaultPoint& p, const Transformer& t) {
    FaultPoint f;
    f.known = p.known;
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
    currents(f, t.secondary);
    return f;
}

} // namespace lintel
