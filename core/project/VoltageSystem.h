#pragma once
// The voltage systems a building is served at, by the names the trade gives them.

#include "core/base/EnumText.h"
#include "core/base/Quantity.h"

namespace lintel {

enum class VoltageSystem : std::uint8_t { Y480, Y208, Y600, S240, D240H, D480, Y400, Y415, S230, S120, Y380 };
template <> struct EnumText<VoltageSystem> {
    static constexpr std::pair<VoltageSystem, const char*> words[] = {
        {VoltageSystem::Y480, "480Y/277"}, {VoltageSystem::Y208, "208Y/120"},  {VoltageSystem::Y600, "600Y/347"},
        {VoltageSystem::S240, "120/240"},  {VoltageSystem::D240H, "240D/120"}, {VoltageSystem::D480, "480D"},
        {VoltageSystem::Y400, "400/230"},  {VoltageSystem::Y415, "415/240"},   {VoltageSystem::S230, "230"},
        {VoltageSystem::S120, "120"},      {VoltageSystem::Y380, "380/220"}};
};

/// Nominal volts of a system. `lineNeutral` is 0 where there is no neutral. On the high-leg delta, B is the high leg
/// and carries no line-neutral load.
struct SystemFacts {
    int phases; ///< 3, or 1 for single-phase two- and three-wire
    int lines;  ///< ungrounded conductors: 3, 2 or 1
    int wires;  ///< with the neutral
    Volts lineLine, lineNeutral;
    bool highLeg = false;
};
constexpr SystemFacts factsOf(VoltageSystem s) {
    switch (s) {
    case VoltageSystem::Y480:
        return {3, 3, 4, Volts{480}, Volts{277}};
    case VoltageSystem::Y208:
        return {3, 3, 4, Volts{208}, Volts{120}};
    case VoltageSystem::Y600:
        return {3, 3, 4, Volts{600}, Volts{347}};
    case VoltageSystem::S240:
        return {1, 2, 3, Volts{240}, Volts{120}};
    case VoltageSystem::D240H:
        return {3, 3, 4, Volts{240}, Volts{120}, true};
    case VoltageSystem::D480:
        return {3, 3, 3, Volts{480}, Volts{0}};
    case VoltageSystem::Y400:
        return {3, 3, 4, Volts{400}, Volts{230}};
    case VoltageSystem::Y415:
        return {3, 3, 4, Volts{415}, Volts{240}};
    case VoltageSystem::S230:
        return {1, 1, 2, Volts{230}, Volts{230}};
    case VoltageSystem::S120:
        return {1, 1, 2, Volts{120}, Volts{120}};
    case VoltageSystem::Y380:
        return {3, 3, 4, Volts{380}, Volts{220}};
    }
    return {3, 3, 4, Volts{480}, Volts{277}};
}
/// Whether it is one of those that are used at 50 Hz, with cables by their cross-section.
constexpr bool isMetric(VoltageSystem s) {
    return s == VoltageSystem::Y400 || s == VoltageSystem::Y415 || s == VoltageSystem::S230 || s == VoltageSystem::Y380;
}
/// Volts across a load of so many poles.
constexpr Volts voltsAcross(VoltageSystem s, int poles) {
    const SystemFacts f = factsOf(s);
    return poles == 1 && f.lineNeutral.v > 0 ? f.lineNeutral : f.lineLine;
}

} // namespace lintel
