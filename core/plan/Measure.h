#pragma once
// How long a run is, from where its ends stand: up from one end to the route below the ceiling, across along the walls,
// down to the other end. Levels apart are added to the rise.

#include "core/project/Project.h"

namespace lintel {

/// One way. `slack` of the basis is in `total` only.
struct Measured {
    Metres up, across, down, total;
};

/// A place in the building: where on which level, how high above its floor.
struct Place {
    LevelId level;
    Point at;
    double height = 0;
};

Place placeOf(const Board& b);
Place placeOf(const Transformer& t);
Place placeOf(const Source& s);
Place placeOf(const Project& project, const Device& d);
/// Nothing where the thing has no level.
std::optional<Place> placeOf(const Project& project, Ref node);

/// Between two places. Nothing when either has no level.
std::optional<Measured> measure(const Project& project, const Place& from, const Place& to);
/// From the board: to the farthest device (reach), or to the nearest and then through all, always to the next nearest (chain).
/// `devices`: pointers to the circuit's devices, in any order.
std::optional<Measured> measureCircuit(const Project& project, const Board& board, LengthBy by, const Device* const* devices, std::size_t count);
/// Round a ring: through its devices as a chain, and from the last back to the board.
std::optional<Measured> measureRing(const Project& project, const Board& board, const Device* const* devices, std::size_t count);
/// The devices of a chain in the order they are wired: nearest to the board first, then always the next nearest.
std::vector<std::size_t> chainOrder(Point from, const Device* const* devices, std::size_t count);

} // namespace lintel
