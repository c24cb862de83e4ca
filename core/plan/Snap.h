#pragma once
// Where a hand-held point lands on the plan: on ends of walls, on walls, square to the last point, on the grid.

#include "core/project/Project.h"

namespace lintel {

struct SnapResult {
    Point at;
    double turn = 0; ///< degrees for a thing on a wall: facing into the room
    bool onWall = false, onEnd = false, square = false;
    WallId wall;
};

/// For drawing walls and rooms. `reach`: how far (m) a snap pulls. `from`: the last point, for lines square to it.
SnapResult snapPoint(const Project& project, LevelId level, Point at, double reach, const Point* from = nullptr,
                     double grid = 0.1);

/// For things on walls: the face of the nearest wall within `reach`, on the side that `at` is on, turned to face away
/// from it.
SnapResult snapToWall(const Project& project, LevelId level, Point at, double reach, double standOff = 0.12);

/// The same for the lines of a drawing below, where no walls are drawn: the nearest line of `least` m or more is taken
/// for the face of a wall.
SnapResult snapToFaces(const std::vector<std::pair<Point, Point>>& lines, Point at, double reach,
                       double standOff = 0.12, double least = 0.8);

/// In line with other devices of the level: the nearest one in each direction whose x or y is within `reach`.
struct Alignment {
    Point at;
    std::optional<Point> upright, level; ///< the device that it stands above or below, or beside
};
Alignment alignToPeers(const Project& project, LevelId level, Point at, double reach,
                       const std::vector<Ref>& except = {});
/// The nearest end of a line within `reach`, else the nearest place on one.
std::optional<Point> snapToLines(const std::vector<std::pair<Point, Point>>& lines, Point at, double reach,
                                 bool endsOnly = false);
/// The middle of the panel of the room's ceiling grid that the point lies in.
Point snapToCeiling(const Room& room, Point at);

} // namespace lintel
