#pragma once
// Places of a board on which nothing stands, without a search through the circuits of all boards.

#include "core/project/Operations.h"

#include <algorithm>

namespace lintel {

/// From place `from` to place `to`, both within; `circuits`: those of the board.
inline int freePlaces(const Project& p, const Board& b, std::span<const CircuitId> circuits, int from, int to) {
    const auto map = slotMap(p, b, circuits);
    return int(std::count(map.begin() + from, map.begin() + std::max(from, std::min(to, b.slots) + 1), CircuitId{}));
}
inline int freePlaces(const Project& p, const Board& b, std::span<const CircuitId> circuits) {
    return freePlaces(p, b, circuits, 1, b.slots);
}

} // namespace lintel
