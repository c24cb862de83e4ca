#pragma once
// What a board is loaded with, and what it may be: one answer for the solution, snags, lists, facts and overlays.

#include "core/solve/Results.h"

#include <algorithm>

namespace lintel {

/// A of demand by which a node is judged: the balanced current, or the heaviest phase where that is more.
inline double demandOf(const NodeResult& n) { return std::max(n.demandAmps.v, n.heaviestAmps.v); }
/// Whether the heaviest phase has more than it would balanced, by more than what is rounded away.
inline bool heavierThanBalanced(const NodeResult& n) { return n.heaviestAmps.v > n.demandAmps.v * 1.005; }
/// A of demand that is told beside what a node is rated for: a transformer is rated in kVA, whatever its lines have.
inline double demandBesideRating(Ref node, const NodeResult& n) {
    return node.is<Transformer>() ? n.demandAmps.v : demandOf(n);
}
/// A that a board may carry: its bus, or its main device where that is smaller.
inline double mostAmps(const Board& b) { return b.main > 0 ? std::min(b.main, b.bus) : b.bus; }

} // namespace lintel
