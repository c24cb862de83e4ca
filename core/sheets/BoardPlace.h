#pragma once
// Where a board stands, in words.

#include "core/project/Project.h"

namespace lintel {

/// "Electrical 005, Ground floor": its place in words, else its room on the plan, and its floor; empty: nothing is
/// said.
inline std::string boardPlace(const Project& p, const Board& b) {
    const Level* level = p.levels.find(b.level);
    std::string where = b.location;
    if (where.empty() && level && b.onPlan)
        if (const RoomId room = roomAt(p, b.level, b.at)) where = nameOf(p, room);
    if (level) where += (where.empty() ? "" : ", ") + level->name;
    return where;
}

} // namespace lintel
