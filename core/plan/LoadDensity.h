#pragma once
// Connected load by area: of each room, and of a floor.

#include "core/solve/Results.h"

namespace lintel {

struct LoadDensity {
    double va = 0, lightingVa = 0, squareMetres = 0;
    int devices = 0;
    double perSquareMetre() const { return squareMetres > 0 ? va / squareMetres : 0; }
};
/// What stands in the room; loads that are listed and not drawn have no place.
LoadDensity densityOf(const Project& project, const Results& results, const Room& room);
/// All rooms of a level, and the level: rooms' areas, all devices on it.
struct LevelDensity {
    std::vector<std::pair<RoomId, LoadDensity>> rooms;
    LoadDensity level;
};
LevelDensity densityOf(const Project& project, const Results& results, LevelId level);
/// "12.4 VA/m²" or "1.15 VA/ft²".
std::string densityWords(const LoadDensity& density, UnitSystem units);

} // namespace lintel
