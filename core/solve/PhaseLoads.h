#pragma once
// What each circuit puts on its phases, and the line and neutral currents of a board.

#include "core/solve/Topology.h"

namespace lintel {

/// Apparent power of a load in W + j var; the volts across it and its phases turn amperes into VA. Horsepower takes the
/// full-load current of the book's motor table at the system's voltage; nothing where the table has none. Kvar of a
/// capacitor are negative.
Complex powerOf(double amount, LoadUnit unit, double powerFactor, VoltageSystem system, int poles,
                const RuleBook& book);
/// What a demand rule that goes by pieces has to know of `quantity` loads of `each` VA: how many, and what is over, at
/// least, or small.
void countPieces(KindSum& k, const DemandRule& rule, double each, double quantity, double factor = 1);
/// Amperes of each line of a load or board of so many poles.
Amps ampsOf(double va, VoltageSystem system, int poles);

/// Line currents A, B, C and the neutral, as phasor sums:
/// I_A = conj(S_an/V_an) + conj(S_ab/V_ab) − conj(S_ca/V_ca), and so on in turn.
struct LineCurrents {
    std::array<double, 3> lines{};
    double neutral = 0;
};
LineCurrents lineCurrents(const PhaseLoad& load, VoltageSystem system);
/// What a load on the secondary of a transformer is on its primary. Delta–wye: a line-neutral load becomes one between
/// lines.
PhaseLoad onPrimary(const PhaseLoad& secondary, VoltageSystem secondarySystem, VoltageSystem primarySystem);

/// Imbalance (max − mean)/mean in %, and the phasor that the level gauge shows, over the lines in use.
double imbalanceOf(const std::array<double, 3>& va, int lines);
Complex leanOf(const std::array<double, 3>& va, int lines);

/// Fills a circuit: lines, power, kinds; places its slots. Its loads by kind are added to `into`, what it has to
/// `present`.
void loadCircuit(const Project& project, const RuleBook& book, const Topology& topology, const Circuit& circuit,
                 const Board& board, CircuitResult& result, KindSums& into, Results::Present& present);

} // namespace lintel
