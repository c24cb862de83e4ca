#include "core/solve/PhaseLoads.h"

#include "core/project/LoadWords.h"
#include "core/project/Slots.h"

namespace lintel {
namespace {
constexpr double pi = 3.14159265358979323846;
const Complex turn120 = std::polar(1.0, 2 * pi / 3);
} // namespace

void PhaseLoad::add(const PhaseLoad& o) {
    for (std::size_t i = 0; i < 3; ++i) ln[i] += o.ln[i], ll[i] += o.ll[i];
}
std::array<Complex, 3> PhaseLoad::byLine() const {
    return {ln[0] + (ll[0] + ll[2]) * 0.5, ln[1] + (ll[1] + ll[0]) * 0.5, ln[2] + (ll[2] + ll[1]) * 0.5};
}
Complex PhaseLoad::total() const { return ln[0] + ln[1] + ln[2] + ll[0] + ll[1] + ll[2]; }

void KindSum::add(const KindSum& o) {
    p += o.p, q += o.q, dp += o.dp, dq += o.dq, continuous += o.continuous, count += o.count, over += o.over,
        minimum += o.minimum;
    for (std::size_t i = 0; i < 2; ++i) smallCount[i] += o.smallCount[i], smallVa[i] += o.smallVa[i];
    for (double x : {o.largest, o.second})
        if (x > largest)
            second = largest, largest = x;
        else if (x > second)
            second = x;
}

void countPieces(KindSum& k, const DemandRule& rule, double each, double quantity, double factor) {
    k.count = quantity;
    k.over = rule.each > 0 ? std::max(0.0, each - rule.each) * quantity : 0;
    k.minimum = std::max(rule.minimumEach, each) * quantity;
    if (const int g = rule.smallGroup(each); g >= 0)
        k.smallCount[std::size_t(g)] = quantity, k.smallVa[std::size_t(g)] = each * quantity * factor;
}

Complex powerOf(double amount, LoadUnit unit, double pf, VoltageSystem system, int poles, const RuleBook& book) {
    double va = amount;
    if (unit == LoadUnit::kvar) return {0, -amount * 1000}; // it gives what others take
    switch (unit) {
    case LoadUnit::kvar:
        break;
    case LoadUnit::VA:
        break;
    case LoadUnit::kVA:
        va = amount * 1000;
        break;
    case LoadUnit::W:
        va = amount / pf;
        break;
    case LoadUnit::kW:
        va = amount * 1000 / pf;
        break;
    case LoadUnit::hp:
        amount = book.motorAmps(amount, voltsAcross(system, poles).v, poles == 3).value;
        [[fallthrough]];
    case LoadUnit::A:
        va = amount * voltsAcross(system, poles).v * (poles == 3 ? root3 : 1);
        break;
    }
    return {va * pf, va * std::sqrt(std::max(0.0, 1 - pf * pf))};
}

Amps ampsOf(double va, VoltageSystem system, int poles) {
    return Amps{va / (voltsAcross(system, poles).v * (poles == 3 ? root3 : 1))};
}

LineCurrents lineCurrents(const PhaseLoad& s, VoltageSystem system) {
    const SystemFacts f = factsOf(system);
    LineCurrents out;
    if (f.lines == 1) {
        const double i = std::abs(s.ln[0]) / f.lineNeutral.v;
        return {{i, 0, 0}, i};
    }
    if (f.lines == 2) { // the two lines stand opposite one another about the neutral
        const Complex ia = std::conj(s.ln[0] / f.lineNeutral.v), ib = std::conj(s.ln[1] / -f.lineNeutral.v),
                      iab = std::conj(s.ll[0] / f.lineLine.v);
        return {{std::abs(ia + iab), std::abs(ib - iab), 0}, std::abs(ia + ib)};
    }
    const double vn = f.lineLine.v / root3;
    std::array<Complex, 3> van{vn, vn * std::conj(turn120), vn * turn120};
    const std::array<Complex, 3> vll{van[0] - van[1], van[1] - van[2], van[2] - van[0]};
    if (f.highLeg) { // the neutral is the middle of the winding C–A
        van[0] = -vll[2] * 0.5;
        van[2] = vll[2] * 0.5;
        van[1] = van[0] - vll[0];
    }
    std::array<Complex, 3> in, il;
    for (std::size_t i = 0; i < 3; ++i) in[i] = std::conj(s.ln[i] / van[i]), il[i] = std::conj(s.ll[i] / vll[i]);
    for (std::size_t i = 0; i < 3; ++i) out.lines[i] = std::abs(in[i] + il[i] - il[(i + 2) % 3]);
    out.neutral = std::abs(in[0] + in[1] + in[2]);
    if (out.neutral < 1e-9 * (out.lines[0] + out.lines[1] + out.lines[2])) out.neutral = 0;
    return out;
}

PhaseLoad onPrimary(const PhaseLoad& s, VoltageSystem secondary, VoltageSystem primary) {
    PhaseLoad out;
    const SystemFacts f = factsOf(secondary);
    if (f.phases == 1 || factsOf(primary).phases == 1) { // one winding: the whole between the two lines that feed it
        out.ll[0] = s.total();
        return out;
    }
    // Delta–wye: winding A of the secondary is magnetised by the primary winding A–B. A load between secondary lines a
    // and b is carried by windings a and b, whose voltages lag and lead it by 30°.
    const Complex first{0.5, -0.5 / root3}, second{0.5, 0.5 / root3};
    for (std::size_t k = 0; k < 3; ++k) {
        out.ll[k] += s.ln[k] + s.ll[k] * first;
        out.ll[(k + 1) % 3] += s.ll[k] * second;
    }
    return out;
}

double imbalanceOf(const std::array<double, 3>& va, int lines) {
    double sum = 0, most = 0;
    for (int i = 0; i < lines; ++i) sum += va[std::size_t(i)], most = std::max(most, va[std::size_t(i)]);
    const double mean = sum / lines;
    return mean > 0 ? (most - mean) / mean * 100 : 0;
}

Complex leanOf(const std::array<double, 3>& va, int lines) {
    double sum = 0;
    Complex lean;
    for (int i = 0; i < lines; ++i) {
        sum += va[std::size_t(i)];
        lean += va[std::size_t(i)] * std::polar(1.0, 2 * pi * i / lines);
    }
    return sum > 0 ? lean / sum : 0;
}

namespace {

void addNameplate(const Nameplate& marked, double each, double quantity, bool continuous, Rare<Nameplates>& rare) {
    if (marked == Nameplate()) return;
    Nameplates& into = rare.make();
    if (marked.ampacity > 0) {
        into.ampacity += marked.ampacity * quantity;
        into.va += each * quantity;
        if (continuous) into.continuousVa += each * quantity;
    }
    if (marked.device > 0) into.device = into.device > 0 ? std::min(into.device, marked.device) : marked.device;
}

} // namespace

void loadCircuit(const Project& p, const RuleBook& book, const Topology& t, const Circuit& c, const Board& b,
                 CircuitResult& r, KindSums& into, Results::Present& present) {
    present.note(Results::Trait::Multiwire, c.multiwire);
    present.note(Results::Trait::Ring, c.ring);
    r.placed = c.slot > 0;
    for (int i = 0; i < c.poles && r.placed; ++i) {
        const int s = slotOfPole(b, c.slot, i, c.poles);
        if (!s)
            r.placed = false, r.clash = true;
        else
            r.lines[std::size_t(i)] = lineOfSlot(b, s);
    }
    double most = 0;
    std::array<double, loadKinds> byKind{};
    double othersMotorVa = 0; // of what no nameplate marks
    bool othersHermetic = false;
    std::optional<KindSums> own; // of kinds whose rule goes by circuits; made only where there is one
    const auto take = [&](LoadKind kind, LoadUnit unit, Complex each, double quantity, double factor, bool continuous,
                          int poles, bool marked) {
        if (unit == LoadUnit::hp && book.demand(kind, p.basis.occupancy).extra == 0)
            kind = LoadKind::Motor; // what has horsepower is a motor
        if (unit == LoadUnit::kvar) kind = LoadKind::Capacitor;
        const Complex s = each * quantity, d = s * factor;
        r.power += s;
        const double va = magnitude(s), dva = magnitude(d);
        byKind[std::size_t(kind)] += va;
        if (continuous) r.continuousVa += va;
        const bool hermetic = (kind == LoadKind::Cooling || kind == LoadKind::Refrigeration) && unit != LoadUnit::hp;
        if (unit == LoadUnit::hp || hermetic || kind == LoadKind::Motor || kind == LoadKind::Vertical) {
            const double m = magnitude(each);
            if (m > r.largestMotorVa) {
                r.largestMotorVa = m;
                r.hermetic = hermetic;
            }
            if (!marked && m > othersMotorVa) {
                othersMotorVa = m;
                othersHermetic = hermetic;
            }
        }
        r.mostPoles = std::max(r.mostPoles, poles);
        KindSum k;
        k.p = s.real(), k.q = s.imag(), k.dp = d.real(), k.dq = d.imag();
        k.continuous = continuous ? dva : 0;
        k.largest = magnitude(each) * factor;
        k.second = quantity >= 2 ? k.largest : 0;
        countPieces(k, book.demand(kind, p.basis.occupancy), magnitude(each), quantity, factor);
        if (book.demand(kind, p.basis.occupancy).byCircuit) {
            if (!own) own.emplace();
            (*own)[std::size_t(kind)].add(k);
        } else
            into[std::size_t(kind)].add(k);
    };
    for (const Load* l : t.loadsOf(c.id)) {
        const bool shaft = l->unit == LoadUnit::W || l->unit == LoadUnit::kW;
        Complex each =
            powerOf(shaft ? l->amount / l->efficiency : l->amount, l->unit, l->powerFactor, b.system, l->poles, book);
        present.note(Results::Trait::Horsepower, l->unit == LoadUnit::hp);
        present.note(Results::Trait::ListedVolts, l->volts > 0);
        present.note(Results::Trait::ListedLoad, l->name == listedLoadName);
        if (l->duty < 1) each *= std::sqrt(l->duty);
        take(l->kind, l->unit, each, l->quantity, l->diversity * c.factor, l->continuous, l->poles,
             l->nameplate.ampacity > 0);
        addNameplate(l->nameplate, magnitude(each), l->quantity, l->continuous, r.nameplates);
        if (const double shares = l->splitA + l->splitB + l->splitC; shares > 0 && c.poles > 1) {
            const std::array<double, 3> split{l->splitA, l->splitB, l->splitC};
            auto& lines = r.split.make();
            for (std::size_t i = 0; i < 3;
                 ++i) { // of three poles by the letters of their lines, which begin with B or C in some rows
                const std::size_t part = c.poles == 3 && r.placed && r.lines[i] >= 0 ? std::size_t(r.lines[i]) : i;
                lines[i] += each * (l->quantity * split[part] / shares);
            }
        }
    }
    for (const Device* d : t.devicesOf(c.id)) {
        const DeviceType& y = p.deviceTypes[d->type];
        present.note(Results::Trait::Horsepower, y.unit == LoadUnit::hp);
        const Complex each = powerOf(d->load.value_or(y.load), y.unit, y.powerFactor, b.system, y.poles, book);
        take(y.kind, y.unit, each, 1, c.factor, y.continuous, y.poles, y.nameplate.ampacity > 0);
        addNameplate(y.nameplate, magnitude(each), 1, y.continuous, r.nameplates);
        ++r.points;
    }
    if (r.nameplates) {
        r.nameplates.make().othersMotorVa = othersMotorVa;
        r.nameplates.make().othersHermetic = othersHermetic;
        present.note(Results::Trait::Nameplate, true);
    }
    for (std::size_t k = 0; k < loadKinds && own; ++k)
        if (KindSum& sum = (*own)[k]; sum.p != 0 || sum.q != 0) {
            sum.largest = sum.ownVa(), sum.second = 0, sum.count = 1;
            into[k].add(sum);
        }
    int kindsUsed = 0;
    for (std::size_t k = 0; k < loadKinds; ++k) {
        if (byKind[k] > 0) ++kindsUsed;
        if (byKind[k] <= most) continue;
        most = byKind[k];
        r.kind = LoadKind(k);
    }
    present.note(Results::Trait::Motor, r.largestMotorVa > 0);
    if (kindsUsed > 1) r.mixed.make() = byKind;
    r.receptacles = byKind[std::size_t(LoadKind::Receptacle)] > 0 && r.points != 1;
    r.va = magnitude(r.power);
}

} // namespace lintel
