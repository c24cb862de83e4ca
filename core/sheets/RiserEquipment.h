#pragma once
// Which circuits are drawn on the riser and the one-line as things of their own, beside boards and transformers.

#include "core/project/Project.h"
#include "core/solve/Results.h"

namespace lintel {

/// Loads on all lines of a switchboard, busway or motor control centre, every motor of a motor control centre, and
/// every capacitor bank: what an office draws there. In the order of boards, and on each by place.
std::vector<CircuitId> riserEquipment(const Project& project, const Results& results);

} // namespace lintel
