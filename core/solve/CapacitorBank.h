#pragma once
// A capacitor bank for a board or a service, by what the solution knows of it.

#include "core/base/Error.h"
#include "core/project/Project.h"
#include "core/rules/RuleBook.h"
#include "core/solve/Results.h"

namespace lintel {

/// tan φ of a power factor.
double tangentOf(double powerFactor);
/// The next usual step of so many kvar; of more than the largest so many of these. What is asked for where the book has
/// no steps.
double capacitorStep(double kvar, const RuleBook& book);
/// 5, 7, 11 or 13 where a resonance of this order lies within a half of it; 0: it does not.
int harmonicNear(double order);

struct CapacitorBank {
    double kW = 0, kvar = 0;              ///< demand of the board as it is, what capacitors it has counted
    double powerFactor = 1;               ///< of that
    double needed = 0;                    ///< kvar: P·(tan φ − tan φ of the wanted power factor)
    double bank = 0;                      ///< kvar: the next usual step; several of the largest where one is not enough
    double after = 1;                     ///< power factor then
    bool leading = false;                 ///< the bank gives more than the board takes
    double ampsBefore = 0, ampsAfter = 0; ///< demand current of the board
    double ampsOfBank = 0, conductorAmps = 0; ///< its own, and what its conductors have to carry
    double order = 0;     ///< of the harmonic at which it resonates: √(Sk″/Q); 0: the fault level is not known
    int nearHarmonic = 0; ///< 5, 7, 11 or 13 where the resonance lies within a half of it; 0: it does not
};
/// An error where the board has no three lines, no load, or a power factor at least as good.
Outcome<CapacitorBank> capacitorBankFor(const Project& project, const RuleBook& book, const Results& results,
                                        BoardId board, double wanted);

/// A circuit on all lines of the board with a bank of so many kvar. An error where it has no place.
Outcome<CircuitId> addCapacitorBank(Project& project, BoardId board, double kvar);

} // namespace lintel
