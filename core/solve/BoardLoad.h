#pragma once
// What a board is loaded with, and what it may be: one answer for the solution, snags, lists, facts and overlays.

#include "core/solve/Results.h"

#include <algorithm>

namespace lintel {

/// A of demand by which a node is judged: the balanced current, or the heaviest phase where that is more.
inline double demandOf(const NodeResult& n) { return std::max(n.demandAmps.v, n.heaviestAmps.v); }
/// A that a board may carry: its bus, or its main device where that is smaller.
inline double mostAmps(const Board& b) { return b.main > 0 ? std::min(b.main, b.bus) : b.bus; }

} // namespace lintel
