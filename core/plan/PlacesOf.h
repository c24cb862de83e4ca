#pragma once
// Where a thing stands on the plans, so that choosing it elsewhere finds it there.

#include "core/project/Project.h"

#include <vector>

namespace lintel {

struct PlaceOnPlan {
    LevelId level;
    Point at; ///< m
};
/// A circuit stands where its devices do, and where its board does if none of them is drawn; a load where its circuit
/// does; a room in its middle. Empty: it stands on no plan.
std::vector<PlaceOnPlan> placesOf(const Project& project, Ref thing);

} // namespace lintel
