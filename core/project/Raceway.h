#pragma once
// Which circuits of a board lie together: those of one bundle, or of one multiwire group, which has one neutral too.

#include "core/project/Project.h"

namespace lintel {

/// The multiwire group whose neutral a circuit shares; 0: it has its own.
inline int neutralGroup(const Circuit& c) { return c.poles == 1 ? c.multiwire : 0; }
/// The same for all circuits of a board that lie in one raceway, and for no other; 0: it has its own. A bundle counts
/// before a multiwire group, whose raceway has a number below 0.
inline int racewayGroup(const Circuit& c) { return c.bundle ? c.bundle : -neutralGroup(c); }
/// Whether two circuits lie in one raceway.
inline bool shareRaceway(const Circuit& a, const Circuit& b) {
    const bool loads = a.use == CircuitUse::Load && b.use == CircuitUse::Load;
    return loads && a.board == b.board && racewayGroup(a) && racewayGroup(a) == racewayGroup(b);
}

} // namespace lintel
