#pragma once
// What has changed at each board, transformer, source and load that the riser draws: about it, its run or what is in
// it.

#include "core/compare/ProjectComparison.h"
#include "core/sheets/RiserOverlay.h"

namespace lintel {

/// By what is drawn; under no thing, changes that belong to none of it (rooms, types, the basis, what was removed).
std::map<Ref, ChangeCount> countChanges(const Project& after, const Results& results, const ProjectComparison& changes);

} // namespace lintel
