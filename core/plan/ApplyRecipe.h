#pragma once
// Room recipes: every room of a kind gets the same kinds of things, at places found from its own walls, doors and
// furniture.

#include "core/project/Project.h"

namespace lintel {

struct Spot {
    Point at;
    double turn = 0;
    bool operator==(const Spot&) const = default;
};

/// Luminaires that bring `lux` to the plane: N = E·A / (Φ·utilisation·maintenance), rounded up (lumen method).
int luminairesFor(double lux, double squareMetres, double lumens, double utilisation, double maintenance);
/// Rows × columns of at least `count` in a room of these sides, as square as can be.
std::pair<int, int> gridFor(int count, double width, double depth);
/// Even places of a grid in the room's own axes (along its longest side), those inside the outline only; on the middles
/// of the ceiling grid's panels where the room has one and `ceiling` is asked.
std::vector<Spot> gridSpots(const Room& room, int rows, int columns, bool ceiling);
/// A grid that leaves at least `count` places inside the outline, however the room is shaped.
std::vector<Spot> gridOfCount(const Room& room, int count, bool ceiling);
/// On the walls of a room so that no place along them, doors apart, is farther than half of `spacing` from one.
std::vector<Spot> wallSpots(const Project& project, const Room& room, double spacing);
/// One at the latch side of each door of the room, inside it.
std::vector<Spot> doorSpots(const Project& project, const Room& room);
/// Places for one part; empty with a note where it cannot be worked out.
std::vector<Spot> spotsFor(const Project& project, const Room& room, const RecipePart& part,
                           std::vector<std::string>* notes = nullptr);

struct RecipeReport {
    int rooms = 0, without = 0;                         ///< done; of a kind that has no recipe
    int placed = 0, shifted = 0, kept = 0, removed = 0; ///< kept: moved by the designer, so left where they are
    std::vector<std::string> notes;
};
/// Gives each room what the recipe of its kind says. Done again it changes nothing; after a change of the room or the
/// recipe, what the recipe placed follows, keeping its circuit; what a hand has moved stays and counts as one of those
/// wanted. What it placed in a room that is gone belongs to the room it now stands in; nothing is put where one of the
/// same type stands already.
RecipeReport applyRecipes(Project& project, const std::vector<RoomId>& rooms);
/// The rooms of one kind, or of all when `kind` is empty.
std::vector<RoomId> roomsOfKind(const Project& project, const std::string& kind);

/// Places on the line a–b (both ends included) at a spacing not above `spacing`.
std::vector<Point> rowSpots(Point a, Point b, double spacing);

} // namespace lintel
