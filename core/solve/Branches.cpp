#include "core/solve/Busway.h"
#include "core/solve/Solver.h"

namespace lintel {

void Solver::settleBranches(const Board& b, Part& part) {
    const BoardResult& n = r.boards[b.id.value];
    const Earthing earthing = book.metric() ? earthingOf(b.id) : Earthing::TNS;
    for (const Circuit* c : t.of(b.id))
        if (!r.circuits[c->id.value].feeder) settleBranch(*c, b, n, earthing, part);
    if (book.metric()) relieveGroups(b, n);
}

void Solver::relieveGroups(const Board& b, const BoardResult& n) {
    std::map<int, int> light;
    for (const Circuit* c : t.of(b.id)) {
        CircuitResult& cr = r.circuits[c->id.value];
        if (!c->bundle || cr.feeder || cr.run.size < 0 || cr.run.need.cable->circuits < 2) continue;
        if (cr.run.ampacity <= 0 || cr.load.v >= book.cables.groupingIgnoredBelow * cr.run.ampacity) continue;
        cr.run.need.cable.make().ignored = true;
        ++light[c->bundle];
    }
    if (light.empty()) return;
    for (const Circuit* c : t.of(b.id)) {
        CircuitResult& cr = r.circuits[c->id.value];
        if (!c->bundle || !light.count(c->bundle) || cr.feeder || cr.run.need.cable->ignored) continue;
        cr.run.need.cable.make().circuits = std::max(1, cr.run.need.cable->circuits - light[c->bundle]);
        sizeRun(cr.run, rules, book);
        if (n.fault.known)
            cr.faultEnd = atBranchEnd(n.fault, coldOhms(cr.run.ohms, cr.run.need, book, p.basis.faultCelsius), b.system,
                                      c->poles);
    }
}

void Solver::settleBranch(const Circuit& c, const Board& b, const BoardResult& board, Earthing earthing, Part& part) {
    CircuitResult& cr = r.circuits[c.id.value];
    if (c.use == CircuitUse::Reserved) return;
    if (c.use == CircuitUse::Spare) {
        cr.device = c.heldBreaker.value_or(p.basis.smallestBreaker);
        cr.deviceHeld = c.heldBreaker.has_value();
        cr.kindOfDevice = fitted(c, cr.device, false);
        return;
    }
    const BranchLoad load = branchLoad(c, b, cr, smallestBreaker[std::size_t(cr.kind)], book);
    cr.load = load.load;
    cr.required = load.required;
    cr.deviceNeeded = load.deviceNeeded;
    part.present.note(Results::Trait::NoDevice, cr.deviceNeeded == 0 && cr.required.v > 0);
    cr.deviceHeld = c.heldBreaker.has_value();
    cr.device = c.heldBreaker.value_or(cr.deviceNeeded);
    cr.kindOfDevice = fitted(c, cr.device, cr.largestMotorVa > 0);
    cr.run.need = branchNeed(c, b, cr, earthing, part);
    sizeRun(cr.run, rules, book);
    const RunResult& run = cr.run;
    if (run.need.lengthKnown && run.size >= 0 && run.state != Sizing::Held && !board.looped &&
        run.dropBefore > run.need.totalLimit - run.need.totalBefore + 1e-9)
        part.overTotal.push_back(&c);
    if (const FaultPoint& begins = startOf(r, c).fault; begins.known)
        cr.faultEnd =
            atBranchEnd(begins, coldOhms(cr.run.ohms, cr.run.need, book, p.basis.faultCelsius), b.system, c.poles);
}

double Solver::spreadOf(const Circuit& c, const Board& b, const CircuitResult& cr, const Run* run) const {
    if (!run || c.ring || cr.va <= 0) return 1;
    if (run->points > 1) return (run->points + 1) / (2.0 * run->points);
    if (run->lengthBy != LengthBy::Chain) return 1;
    const auto devices = t.devicesOf(c.id);
    if (devices.size() < 2) return 1;
    const auto stops = alongChain(p, b, measureBy(run, trays.get()), devices.begin(), devices.size());
    if (stops.empty()) return 1;
    double moment = 0, placed = 0;
    for (const auto& [d, metres] : stops) {
        const DeviceType& y = p.deviceTypes[d->type];
        const double va = magnitude(powerOf(d->load.value_or(y.load), y.unit, y.powerFactor, b.system, y.poles, book));
        moment += va * metres.v, placed += va;
    }
    const double at = stops.back().second.v;
    if (placed <= 0 || at <= 0) return 1;
    // What is listed and not drawn hangs at the end.
    const double listed = std::max(0.0, cr.va - placed);
    return std::min(1.0, (moment + listed * at) / ((placed + listed) * at));
}

void Solver::takeSpurs(RunNeed& need, const Circuit& c, const Board& b) const {
    const auto devices = t.devicesOf(c.id);
    for (const Device* d : devices) {
        const double metres = d->spur ? spurLength(p, *d, devices.begin(), devices.size()).v : 0;
        if (metres <= 0) continue;
        const DeviceType& type = p.deviceTypes[d->type];
        const double amps = ampsOf(magnitude(powerOf(d->load.value_or(type.load), type.unit, type.powerFactor, b.system,
                                                     type.poles, book)),
                                   b.system, 1)
                                .v;
        CableNeed& cable = need.cable.make();
        cable.spur = std::max(cable.spur, float(metres));
        cable.spurLoad = std::max(cable.spurLoad, float(metres * amps));
    }
}

int Solver::multiwireConductors(const Circuit& c, const Board& b) const {
    int together = 0;
    for (const Circuit* other : t.of(b.id)) together += other->multiwire == c.multiwire && other->poles == 1;
    const SystemFacts f = factsOf(b.system);
    if (together <= 1) return 2;
    return f.phases == 3 && together < 3 ? together + 1 : together;
}

int Solver::bundleConductors(const Circuit& c, const Board& b) const {
    int all = 0;
    std::vector<int> groups;
    for (const Circuit* other : t.of(b.id)) {
        if (other->bundle != c.bundle || other->use != CircuitUse::Load || r.circuits[other->id.value].feeder) continue;
        if (other->multiwire && other->poles == 1) {
            if (std::find(groups.begin(), groups.end(), other->multiwire) != groups.end()) continue;
            groups.push_back(other->multiwire);
            all += multiwireConductors(*other, b);
        } else
            all += other->poles == 1 ? 2 : other->poles;
    }
    return all;
}

RunNeed Solver::branchNeed(const Circuit& c, const Board& b, const CircuitResult& cr, Earthing earthing,
                           Part& part) const {
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
    need.neutral = (c.poles == 1 && factsOf(b.system).lineNeutral.v > 0) || cr.split;
    if (const double volts = factsOf(b.system).lineNeutral.v; cr.split && volts > 0)
        for (const Complex& line : *cr.split)
            need.neutralAmps = std::max(need.neutralAmps, float(magnitude(line) / volts));
    need.smallest = smallestBranch[std::size_t(cr.kind)];
    need.ownLimit = p.basis.branchDropLimit;
    need.totalLimit = totalDropLimit(p.basis, book, ownSubstationAbove(b.id), cr.kind == LoadKind::Lighting).allowed;
    const CircuitStart begins = startOf(r, c);
    need.totalBefore = begins.drop;
    need.beforeKnown = begins.dropKnown;
    if (book.metric()) {
        CableNeed& cable = need.cable.make();
        cable.loopBefore = begins.fault.loop;
        cable.faultBefore = float(begins.fault.worst());
        cable.earthBefore = float(begins.fault.lineGround);
        cable.makersEnergy = float(c.letThroughEnergy.value_or(0));
        cable.earthing = earthing;
        cable.device = cr.kindOfDevice;
        watch(c, cable);
        cable.sockets = cr.kind == LoadKind::Receptacle || cr.receptacles;
        cable.ring = c.ring;
    }
    applyRun(need, c.run, part.present, cr.kind);
    const Run* run = p.runs.find(c.run);
    if (book.metric() && c.bundle) {
        int together = 0;
        for (const Circuit* other : t.of(b.id))
            together +=
                other->bundle == c.bundle && other->use == CircuitUse::Load && !r.circuits[other->id.value].feeder;
        need.cable.make().circuits = std::max(need.cable->circuits, together + (run ? run->grouped : 0));
    }
    const DropBasis by = run && run->dropBasis != DropBasis::Default ? run->dropBasis : p.basis.branchDropBasis;
    need.dropByShare = by == DropBasis::Share;
    // Circuits of one multiwire group share a raceway and a neutral.
    if (c.bundle)
        need.conductors = bundleConductors(c, b) + (run ? run->sharing : 0);
    else if (c.multiwire && c.poles == 1)
        need.conductors = multiwireConductors(c, b) + (run ? run->sharing : 0);
    need.dropAmps = need.dropByShare ? Amps{std::max(cr.device * p.basis.ratingShare, cr.load.v)} : cr.load;
    need.dropPowerFactor = cr.va > 0 ? std::min(1.0, cr.power.real() / cr.va) : 1;
    measureBranch(need, c, b, run);
    need.spread = spreadOf(c, b, cr, run);
    if (c.ring && book.metric()) takeSpurs(need, c, b);
    part.present.note(Results::Trait::NoLength, (!need.lengthKnown || need.lengthAssumed) && cr.va > 0);
    return need;
}

void Solver::measureBranch(RunNeed& need, const Circuit& c, const Board& b, const Run* run) const {
    if (need.lengthKnown) return;
    const auto devices = t.devicesOf(c.id);
    if (!devices.empty()) {
        const auto measured = c.ring
                                  ? measureRing(p, b, devices.begin(), devices.size(), trays.get())
                                  : measureCircuit(p, b, measureBy(run, trays.get()), devices.begin(), devices.size());
        if (measured) takeLength(need, *measured);
    }
    assumeLength(need);
}

} // namespace lintel
