#pragma once
// What must hold in every project whatever the design: ids resolve, numbers are in range. Design mistakes are
// snags (core/check), not errors; a project with mistakes opens.

#include "core/base/Error.h"
#include "core/project/Project.h"

namespace lintel {

/// The first thing that cannot be, or nothing. `where` reads like "boards B3.slots".
std::optional<Error> validate(const Project& project);

} // namespace lintel
