#include "core/solve/Solver.h"

namespace lintel {

int Solver::cableOf(const std::string& wanted, const std::string& otherwise) const {
    const CableType* type = book.cables.type(wanted);
    if (!type) type = book.cables.type(otherwise);
    return type ? int(type - book.cables.types.data()) : -1;
}

void Solver::assumeLength(RunNeed& need) const {
    if (need.lengthKnown || p.basis.unknownLength <= 0) return;
    need.lengthKnown = need.lengthAssumed = true;
    need.length = Metres{p.basis.unknownLength};
}

void Solver::takeLength(RunNeed& need, const Measured& m) const {
    need.lengthKnown = true;
    need.length = m.total;
    need.up = m.up, need.across = m.across, need.down = m.down;
}

void Solver::applyRun(RunNeed& need, RunId id, Results::Present& present, std::optional<LoadKind> use) const {
    need.raceway = racewayOfBasis;
    need.ambient = p.basis.ambient;
    need.wiring = use                                 ? wiringByUse[std::size_t(*use)]
                  : p.basis.wiring == Wiring::Default ? Wiring::Conduit
                                                      : p.basis.wiring;
    const Run* run = p.runs.find(id);
    if (book.metric()) layCable(need, run, use);
    if (!run) return;
    present.note(Results::Trait::HeldSize, !run->heldSize.empty() || !run->heldGround.empty());
    if (!run->heldGround.empty()) need.heldGround = book.find(run->heldGround);
    present.note(Results::Trait::FireRated, run->fireRated);
    present.note(Results::Trait::ListedRun, run->listedKA > 0 || run->listedVA > 0 || !run->listedConduit.empty());
    if (run->wiring != Wiring::Default) need.wiring = run->wiring;
    need.neutralBy = run->neutral;
    need.nonlinear = run->nonlinear > 0.5;
    need.isolatedGround = run->isolatedGround;
    if (run->neutral == NeutralBy::None)
        need.neutral = need.neutral && need.poles == 1; // one pole goes back by it
    else if (run->neutral != NeutralBy::Auto)
        need.neutral = factsOf(need.system).lineNeutral.v > 0;
    if (run->material) need.material = *run->material;
    if (run->raceway) need.raceway = *run->raceway;
    if (!run->conduit.empty())
        if (const ConduitType* type = book.conduit(run->conduit)) need.raceway = type->raceway;
    if (run->ambient) need.ambient = *run->ambient;
    if (run->onRoof && !book.metric()) need.ambient += book.tables.roofAdder;
    // More than half of it nonlinear: the neutral of a four-wire run carries as much as a line.
    if (need.nonlinear && need.poles == 3 && factsOf(need.system).wires == 4 && run->neutral != NeutralBy::None)
        ++need.conductors;
    need.conductors += run->sharing;
    if (!run->heldSize.empty()) {
        need.held = book.find(run->heldSize);
        need.heldSets = run->heldSets;
    }
    if (run->lengthBy == LengthBy::Entered) {
        need.lengthKnown = true;
        need.length = Metres{run->length};
    }
}

void Solver::layCable(RunNeed& need, const Run* run, std::optional<LoadKind> use) const {
    CableNeed& c = need.cable.make();
    c.type = need.feeder ? feederCable : use ? cableByUse[std::size_t(*use)] : branchCable;
    const auto firstThat = [&](const auto& does) { // of the book's types; as it is where none does
        const auto& all = book.cables.types;
        const auto it = std::find_if(all.begin(), all.end(), does);
        if (it != all.end()) c.type = int(it - all.begin());
    };
    const CableType& usual = book.cables.types[std::size_t(c.type)];
    if (run && !run->cable.empty())
        c.type = cableOf(run->cable, usual.name);
    else if (run && run->fireRated && !usual.fireRated)
        firstThat([](const CableType& x) { return x.fireRated; });
    else if (need.poles == 3 && !usual.carriesThree()) // the usual cable of this use has two cores
        firstThat([&](const CableType& x) {
            return x.carriesThree() && x.material == usual.material && x.celsius == usual.celsius && !x.single &&
                   !x.armoured();
        });
    const CableType& type = book.cables.types[std::size_t(c.type)];
    const CableMethod* m = run && !run->method.empty() ? type.method(run->method) : nullptr;
    if (!m) m = type.method(need.feeder ? p.basis.feederMethod : p.basis.branchMethod);
    c.method = m ? int(m - type.methods.data()) : 0;
    need.material = type.material;
    if (type.methods[std::size_t(c.method)].ground) need.ambient = p.basis.groundTemperature;
    c.soil = float(p.basis.soil);
    c.warm = p.basis.dropWhenWarm || !book.cables.dropColumns.empty();
    c.classShare = float(p.basis.classShare);
    if (!run) return;
    c.circuits = 1 + run->grouped;
    c.setsApart = run->setsApart;
    c.lying = run->lying;
    c.thirdHarmonic = float(run->thirdHarmonic);
    c.insulated = float(run->insulated);
    if (run->soil) c.soil = float(*run->soil);
    c.protectiveBy = run->protectiveBy;
}

void Solver::watch(const Circuit& c, CableNeed& cable) const {
    // Of its own and that of its section the one that opens first counts.
    cable.residual = float(c.residual), cable.residualType = c.residualType;
    if (const auto it = sections.find(c.board); it != sections.end())
        for (const Section* s : it->second)
            if (s->residual > 0 && s->holds(c) && (cable.residual <= 0 || float(s->residual) < cable.residual))
                cable.residual = float(s->residual), cable.residualType = s->residualType;
}

Earthing Solver::earthingOf(Ref node) const {
    for (std::size_t guard = 0; node && guard <= t.order.size(); ++guard) {
        if (const Source* s = p.sources.find(node.as<Source>())) return s->earthing;
        if (node.is<Transformer>()) return Earthing::TNS; // its neutral is earthed where it stands
        node = r.node(node)->parent;
    }
    return Earthing::TNS;
}

DeviceKind Solver::fitted(const Circuit& c, double device, bool motor) const {
    if (!book.metric() || c.device != DeviceKind::Breaker) return c.device;
    const DeviceKind kind = motor ? book.cables.usualMotor : book.cables.usual;
    constexpr double usualEnd = 63; // A
    if (device > usualEnd && p.boards[c.board].use == BoardUse::Switchboard) return book.cables.usualLarge;
    const auto band = book.cables.trips.find(kind);
    return band != book.cables.trips.end() && device <= band->second.upTo + 1e-9 ? kind : book.cables.usualLarge;
}

} // namespace lintel
