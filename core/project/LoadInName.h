#pragma once
// An amount that stands in the description of a circuit, as people type a whole row into one cell.

#include "core/project/TypedLoads.h"

#include <string>

namespace lintel {

struct LoadInName {
    std::string name; ///< what is left of the description
    TypedLoad load;   ///< always with its unit
    int poles = 0;    ///< where they are said, "3P"; 0: nowhere
};

/// "Copier 1.5 kW", "EF-1, 1/2 hp", "RTU-1 (7-1/2 hp) 3P". Nothing where the description has no amount in VA, W, hp or
/// a multiple of them, more than one, one of several ("3 × 1.5 kW", "2 kW each"), or no other word. Amperes are left
/// alone: they may as well be those of the breaker.
std::optional<LoadInName> loadInName(const std::string& description);

} // namespace lintel
