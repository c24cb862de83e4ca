#include "core/solve/CapacitorBank.h"

#include "core/base/Format.h"
#include "core/project/Operations.h"

#include <cmath>
#include <fmt/format.h>

namespace lintel {

double tangentOf(double powerFactor) { return std::sqrt(std::max(0.0, 1 - powerFactor * powerFactor)) / powerFactor; }

double capacitorStep(double kvar, const RuleBook& book) {
    const std::vector<double>& steps = book.tables.capacitorSteps;
    if (steps.empty()) return kvar;
    for (double step : steps)
        if (step >= kvar - 1e-9) return step;
    return steps.back() * std::ceil(kvar / steps.back() - 1e-9);
}

int harmonicNear(double order) {
    for (int harmonic : {5, 7, 11, 13})
        if (std::abs(order - harmonic) < 0.5) return harmonic;
    return 0;
}

Outcome<CapacitorBank> capacitorBankFor(const Project& p, const RuleBook& book, const Results& r, BoardId id,
                                        double wanted) {
    const Board& b = p.boards[id];
    if (!r.knows(id)) return Error{b.name, "it is not worked out yet", "Try again in a moment."};
    if (passesOn(b.use)) return Error{b.name, "it has no places for circuits", "Choose the board that it feeds."};
    if (factsOf(b.system).lines != 3)
        return Error{b.name,
                     "capacitors hang between three lines, and it has " + std::to_string(factsOf(b.system).lines),
                     "Choose a three-phase board."};
    const BoardResult& n = r.of(id);
    CapacitorBank out;
    out.kW = n.demandPower.real() / 1000;
    out.kvar = n.demandPower.imag() / 1000;
    const double kva = std::hypot(out.kW, out.kvar);
    if (out.kW <= 0) return Error{b.name, "it carries no load", "Enter its loads first."};
    out.powerFactor = out.kW / kva;
    if (out.kvar <= 0 || out.powerFactor >= wanted - 1e-9)
        return Error{
            b.name,
            fmt::format("its power factor is {:.3f}{} already", out.powerFactor, out.kvar < 0 ? ", leading," : ""),
            "Ask for a better one."};
    out.needed = out.kvar - out.kW * tangentOf(wanted);
    out.bank = capacitorStep(out.needed, book);
    const double left = out.kvar - out.bank, then = std::hypot(out.kW, left);
    out.after = out.kW / then;
    out.leading = left < 0;
    const double toAmps = 1000 / (std::sqrt(3.0) * factsOf(b.system).lineLine.v);
    out.ampsBefore = kva * toAmps;
    out.ampsAfter = then * toAmps;
    out.ampsOfBank = out.bank * toAmps;
    out.conductorAmps = out.ampsOfBank * book.tables.capacitorConductor;
    if (n.fault.known && n.fault.worst() > 0) {
        const double faultKva = std::sqrt(3.0) * factsOf(b.system).lineLine.v * n.fault.worst();
        out.order = std::sqrt(faultKva / out.bank);
        out.nearHarmonic = harmonicNear(out.order);
    }
    return out;
}

Outcome<CircuitId> addCapacitorBank(Project& p, BoardId id, double kvar) {
    const Board& b = p.boards[id];
    if (!firstFreeSlot(p, id, 3))
        return Error{b.name, "it has no free place for three poles", "Make room, or give it more places."};
    std::string name = "Capacitor bank";
    for (int n = 2; std::any_of(p.circuits.begin(), p.circuits.end(), [&](const Circuit& c) { return c.name == name; });
         ++n)
        name = fmt::format("Capacitor bank {}", n);
    const CircuitId made = addCircuit(p, id, 3, name);
    Load bank;
    bank.name = name;
    bank.circuit = made;
    bank.kind = LoadKind::Capacitor;
    bank.amount = kvar;
    bank.unit = LoadUnit::kvar;
    bank.poles = 3;
    p.loads.add(bank);
    return made;
}

} // namespace lintel
