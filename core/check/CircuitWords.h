#pragma once
// How a snag names a circuit.

#include "core/project/Operations.h"

namespace lintel {

/// "LP-1-17 Prep receptacles"; "LP-1-17" where nobody has named it.
inline std::string circuitWords(const Project& p, const Circuit& c) {
    return nameOf(p, c.id) + (c.name.empty() ? "" : " " + c.name);
}

} // namespace lintel
