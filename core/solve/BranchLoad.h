#pragma once
// The load of a branch circuit, what its conductors have to carry and the device it needs: worked out and told in one
// place.

#include "core/solve/Results.h"
#include "core/solve/Working.h"

namespace lintel {

struct BranchLoad {
    Amps load;               ///< at the volts of its board; entered line by line, that of the heaviest line
    Amps required;           ///< with the book's additions for continuous loads, motors and capacitors
    Amps motor;              ///< of the largest motor, as part of the load
    double deviceNeeded = 0; ///< A, the standard rating; 0: past the series
};

/// Of a circuit whose power is known (`CircuitResult::power`, `va`, `split`, `continuousVa`, `largestMotorVa`, `kind`,
/// `nameplates`). Equipment whose nameplate marks the ampacity of its circuit takes that, and no addition beside it;
/// one that marks its largest device takes the standard rating at or below, where that is no less than what is
/// required. `smallest`: the smallest breaker that the basis allows for this use, A. With `w`, each step is told as it
/// is made. Source: 210.19 and 210.20 (continuous), 430.22 and 430.52 (motors), 440.22 and 440.32 (compressors),
/// 440.4(B) and 440.35 (nameplates), 460.8 (capacitors); the factors are the book's, or the project's own.
BranchLoad branchLoad(const Circuit& circuit, const Board& board, const CircuitResult& known, double smallest,
                      const RuleBook& book, Working* w = nullptr);

} // namespace lintel
