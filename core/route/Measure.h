#pragma once
// How long a run is, from where its ends stand: up from one end to the route below the ceiling, across along the walls,
// down to the other end. Levels apart are added to the rise.

#include "core/project/Project.h"

namespace lintel {

class TrayGraph;

/// One way. `slack` of the basis is in `total` only.
struct Measured {
    Metres up, across, down, total;
    bool byTray = false;
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
/// Nothing where the thing has no level, or does not stand on its plan.
std::optional<Place> placeOf(const Project& project, Ref node);

/// Between two places. Nothing when either has no level.
std::optional<Measured> measure(const Project& project, const Place& from, const Place& to);
/// How a branch run is measured.
struct MeasureBy {
    LengthBy by = LengthBy::Reach;
    RouteBy route = RouteBy::Auto;
    const std::vector<Point>* trace = nullptr; ///< of a traced run
    const TrayGraph* trays = nullptr;
};
MeasureBy measureBy(const Run* run, const TrayGraph* trays);
/// From the board: to the farthest device (reach); to the nearest and then through all, always to the next nearest
/// (chain); or along the way drawn by hand, straight from point to point, with the rises at the board and at its last
/// device (traced). `devices`: pointers to the circuit's devices, in any order.
std::optional<Measured> measureCircuit(const Project& project, const Board& board, const MeasureBy& by,
                                       const Device* const* devices, std::size_t count);
/// A run between two enclosures of the distribution. Those that stand beside one another on a floor, at most
/// `besideEachOther` apart, are joined straight; others as measureBetween says.
inline constexpr double besideEachOther = 1.0; ///< m
std::optional<Measured> measureFeeder(const Project& project, const Place& from, const Place& to, const MeasureBy& by);
/// A run between two places: along its own trace where it is traced, by trays, or up, across and down.
std::optional<Measured> measureBetween(const Project& project, const Place& from, const Place& to, const MeasureBy& by);
/// How far along a chain each device hangs, in the order they are wired, slack included. Empty where it cannot be
/// measured.
std::vector<std::pair<const Device*, Metres>> alongChain(const Project& project, const Board& board,
                                                         const MeasureBy& by, const Device* const* devices,
                                                         std::size_t count);
/// Round a ring: through its devices as a chain, and from the last back to the board.
std::optional<Measured> measureRing(const Project& project, const Board& board, const Device* const* devices,
                                    std::size_t count, const TrayGraph* trays = nullptr);
/// Out from the nearest point of a ring to one that hangs on a spur, with slack; 0 where none of `devices` is on the
/// ring itself.
Metres spurLength(const Project& project, const Device& onSpur, const Device* const* devices, std::size_t count);
/// The devices of a chain in the order they are wired: nearest to the board first, then always the next nearest.
std::vector<std::size_t> chainOrder(Point from, const Device* const* devices, std::size_t count);

} // namespace lintel
