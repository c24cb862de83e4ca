#pragma once
// What only a piece of equipment in a feed has (see passesOn).

#include "core/project/Choices.h"

namespace lintel {

/// Whether a device in such a thing is a set of fuses; else it is a breaker.
constexpr bool holdsFuses(BoardUse use) { return use == BoardUse::Disconnect || use == BoardUse::Meter; }

} // namespace lintel
