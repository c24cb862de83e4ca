#pragma once
// The rooms of a plan in which people are protected, and what stands in them: shared by the rules that go by room.

#include "core/check/Check.h"

#include <map>

namespace lintel {

/// The rooms of these kinds, by level. Kinds are compared in small letters.
std::map<LevelId, std::vector<const Room*>> roomsOfKinds(const CheckInput& in, const std::vector<std::string>& kinds);
/// For each circuit the first room of these in which one of its receptacles (or, with `all`, any device) stands.
std::map<CircuitId, const Room*> circuitsIn(const CheckInput& in,
                                            const std::map<LevelId, std::vector<const Room*>>& rooms, bool all);
bool isReceptacle(const DeviceType& type);

} // namespace lintel
