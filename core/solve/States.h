#pragma once
// States of the supply: normal, and one for each source that takes something over. Each is solved by itself, as a
// project in which the feeds are those of the state, so that demand, drop and fault follow from the same code in all of
// them.

#include "core/solve/Results.h"

#include <algorithm>

namespace lintel {

struct StateSolution {
    SourceId source;             ///< that takes over; the others are off
    std::vector<BoardId> takers; ///< boards that have changed over to it
    std::vector<Ref> below;      ///< those and all that hangs on them, each after what feeds it
    Project project;             ///< with the feeds of this state; what is in use in both is held as in the normal one
    Results results;
    /// Whether this board has changed over.
    bool takesOver(BoardId board) const { return std::find(takers.begin(), takers.end(), board) != takers.end(); }
};

/// The source at the top of a feed (a circuit, board, transformer or source); nothing: it is not fed, or goes in a
/// circle.
SourceId sourceOf(const Project& project, Ref feed);
/// Solves each state and takes from it what the normal one cannot know: the conductors and devices that are in use in
/// that state only, and what a generator carries.
void solveStates(const Project& project, const RuleBook& book, Results& results);
/// The states in which a board, transformer or circuit is fed by another source than in the normal one.
std::vector<const StateSolution*> statesOf(const Project& project, const Results& results, Ref thing);

/// Whether a source has a system of its own, with its own electrode: a generator whose neutral goes through a transfer
/// switch unswitched has that of the service.
bool separatelyDerived(const Project& project, SourceId source);

/// The largest fault current at a board in any state, and the source that gives it; no source: the normal state.
struct LargestFault {
    double kA = 0;
    SourceId source;
};
LargestFault largestFault(const Project& project, const Results& results, BoardId board);
/// The same where a circuit begins: at its board, or at its place along a busway.
LargestFault largestFault(const Project& project, const Results& results, const Circuit& circuit);

} // namespace lintel
