#pragma once
// What fault level a board, or a device in it, may stand at: one answer for snags, lists, facts and profiles.

#include "core/project/Project.h"

#include <algorithm>

namespace lintel {

/// kA: its own rating, or that of its tested pair with the device that feeds it, whichever is larger.
inline double holdsKA(const Board& b) { return std::max(b.ratingKA, b.seriesKA); }
/// kA of a device in a board: its own rating where it has one; the tested pair of the board counts for it too.
inline double holdsKA(const Board& b, const Circuit& c) { return std::max(c.heldKA.value_or(b.ratingKA), b.seriesKA); }
/// Whether a fault level is above it by more than what rounding makes of a figure.
inline bool faultExceeds(double kA, double holds) { return kA > holds * 1.0005; }

} // namespace lintel
