#pragma once
// A board again, with everything that hangs on it.

#include "core/base/Error.h"
#include "core/project/Project.h"

namespace lintel {

/// The board under a new name with its feeder, circuits, their runs, listed loads and sections. What stands on the plan
/// becomes listed loads of the copy, as a device stands in one place only. Feeders of boards below it become spares.
/// Descriptions, names of runs and notes that hold the old name follow. An error where the name is taken or empty, or
/// the feeding board has no place.
Outcome<BoardId> copyBoard(Project& project, BoardId board, const std::string& name);

// ---- parts of it, for copies of more than a board ----

/// A copy, and what became of each circuit of the first one.
struct BoardCopy {
    BoardId board;
    std::map<CircuitId, CircuitId> circuits;
};
/// The same, fed from nothing and taken over by nothing. Requires: nothing is called `name`.
BoardCopy copyUnfed(Project& project, BoardId board, const std::string& name);
/// The name of a run where `from` has become `to`.
std::string nameOfCopy(const std::string& text, const std::string& from, const std::string& to);
/// The device of a feeder, as it is held and set.
void takeDevice(Circuit& to, const Circuit& from);

} // namespace lintel
