#pragma once
// A conflict of a merge, decided by a person: the value that it had before, ours or theirs.

#include "core/base/Error.h"
#include "core/compare/Merge.h"

#include <optional>

namespace lintel {

/// The project with that side of the conflict: a field has that side's value; a thing as a whole is as that side had
/// it, or is removed. An Error: there is nothing to choose, the thing is there no more, or the value does not fit.
Outcome<Project> decided(const Project& project, const MergeConflict& conflict, MergeSide side);
/// Which side the project has now; nothing: it has been given another value, or there is nothing to choose.
std::optional<MergeSide> sideOf(const Project& project, const MergeConflict& conflict);

} // namespace lintel
