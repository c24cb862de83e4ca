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

} // namespace lintel
