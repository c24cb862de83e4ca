#pragma once
// Rooms found from what is drawn: the faces that the walls of a level enclose, or closed polylines of the underlay.

#include "core/plan/Underlay.h"
#include "core/project/Project.h"

namespace lintel {

/// A wall as straight pieces: itself, or a curved one cut so that no piece turns by more than 7.5°.
std::vector<Point> pathOf(const Wall& wall);

/// The outlines that walls enclose, each inside the faces of its walls, from the top left on. Ends that stop within
/// half a wall's thickness of another wall count as joined to it; doors do not open a room.
std::vector<std::vector<Point>> enclosedByWalls(const Project& project, LevelId level, double leastArea = 0.6);

struct FoundRooms {
    std::vector<Room> rooms; ///< new ones, numbered on where the drawing gives none
    int known = 0;           ///< outlines that a room of the level stands in already
    int leftOut = 0;         ///< texts inside that are too long to belong to a name
    int offPlan = 0;         ///< outlines with a corner too far away for any plan
};
/// Makes rooms of them where none stands yet. Texts of the underlay inside one become its number and name.
FoundRooms roomsFromWalls(const Project& project, LevelId level, const std::vector<DxfDrawing::Text>& texts = {});
/// Closed polylines of a layer, larger than `leastArea` m²; of one that lies in another, both.
FoundRooms roomsFromUnderlay(const Project& project, const Underlay& underlay, const UnderlayContent& content,
                             const std::string& layer, double leastArea = 1.5);

/// "007" after "006": the next number that is free.
std::string freeRoomNumber(const Project& project, const std::string& like = "001");
double ceilingOf(const Project& project, const Room& room);
/// Kinds are known by the names of rooms: "Store 2" is a store, where the project has stores. Empty: none is named.
std::string roomKindByName(const Project& project, const std::string& name);

} // namespace lintel
