#pragma once
// A board below another thing, for tests.

#include "core/project/Operations.h"

namespace lintel {

/// A board of 42 places with a main as large as its bus, on a feeder of no length to speak of.
inline BoardId boardBelow(Project& p, Ref from, const std::string& name, VoltageSystem system, double bus = 225) {
    Board b;
    b.name = name, b.system = system, b.bus = b.main = bus, b.ratingKA = 65, b.slots = 42;
    const BoardId id = addBoard(p, b);
    feedFrom(p, id, from);
    Run& run = runOfNode(p, id);
    run.lengthBy = LengthBy::Entered;
    run.length = 0.001;
    return id;
}

} // namespace lintel
