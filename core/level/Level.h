#pragma once
// Levelling: the arrangement of a board's circuits that spreads its load most evenly over the phases.
// Least (max − min) phase load; ties by fewest moves. Exact branch and bound over the phases that circuits sit on, not over
// permutations of slots; an assignment counts only when it can really be placed. Pinned circuits and three-pole devices stay.

#include "core/solve/Results.h"

#include <functional>

namespace lintel {

struct Arrangement {
    std::vector<std::pair<CircuitId, int>> places; ///< circuits that move, and their new slots
    std::array<double, 3> phaseVa{};               ///< as it will be
    double spread = 0;                             ///< max − min, VA
    double imbalance = 0;                          ///< %
    double bound = 0;                              ///< VA; no arrangement whatever has a smaller spread
    bool proven = false;                           ///< nothing better exists; otherwise the search ran out of `effort`
};

/// The best arrangement there is. `effort`: how many positions may be looked at before the best so far is given back, so
/// that the same input always gives the same answer. `cancelled` is asked now and then.
Arrangement levelBoard(const Project& project, const Results& results, BoardId board, long effort = 2'000'000, const std::function<bool()>& cancelled = {});

/// The best that one move (a shift or a swap of two) does; no places when none helps.
Arrangement levelByOneMove(const Project& project, const Results& results, BoardId board);

/// What these places come to: for showing the effect of a move before it is made.
Arrangement arrangementOf(const Project& project, const Results& results, BoardId board, std::vector<std::pair<CircuitId, int>> places);
/// As it stands, with no places.
Arrangement asItStands(const Project& project, const Results& results, BoardId board);

void applyArrangement(Project& project, const Arrangement& arrangement);

} // namespace lintel
