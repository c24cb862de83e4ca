#pragma once
// A voltage system: the volts between its lines and to its neutral, and its wires. Any can be entered; those that the
// trade uses most have names here. It is written as it is read: "480Y/277" and "400/230" are wyes, "480D" three lines
// without a neutral, "240D/120" a delta with a high leg, "120/240" one phase with its middle, "230" one line and a
// neutral, "12470Y/7200" and "11000D" medium voltage.

#include "core/base/Quantity.h"

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace lintel {

/// Nominal volts of a system. `lineNeutral` is 0 where there is no neutral. On the high-leg delta, B is the high leg
/// and carries no line-neutral load.
struct SystemFacts {
    int phases; ///< 3, or 1 for single-phase two- and three-wire
    int lines;  ///< ungrounded conductors: 3, 2 or 1
    int wires;  ///< with the neutral
    Volts lineLine, lineNeutral;
    bool highLeg = false;
};

class VoltageSystem {
public:
    enum class Shape : std::uint8_t { Wye, Delta, HighLeg, ThreeWire, TwoWire };

    constexpr VoltageSystem() = default; ///< 480Y/277
    constexpr VoltageSystem(Shape shape, int lineLine, int lineNeutral)
        : between(std::uint16_t(lineLine)), toNeutral(std::uint16_t(lineNeutral)), form(shape) {}
    constexpr auto operator<=>(const VoltageSystem&) const = default;

    constexpr Shape shape() const { return form; }
    constexpr SystemFacts facts() const {
        const Volts ll{double(between)}, ln{double(toNeutral)};
        switch (form) {
        case Shape::Wye:
            return {3, 3, 4, ll, ln};
        case Shape::Delta:
            return {3, 3, 3, ll, Volts{0}};
        case Shape::HighLeg:
            return {3, 3, 4, ll, ln, true};
        case Shape::ThreeWire:
            return {1, 2, 3, ll, ln};
        case Shape::TwoWire:
            break;
        }
        return {1, 1, 2, ll, ll};
    }

    static const VoltageSystem Y480, Y208, Y600, S240, D240H, D480, Y400, Y415, S230, S120, Y380;

private:
    std::uint16_t between = 480, toNeutral = 277;
    Shape form = Shape::Wye;
};
inline constexpr VoltageSystem VoltageSystem::Y480{Shape::Wye, 480, 277};
inline constexpr VoltageSystem VoltageSystem::Y208{Shape::Wye, 208, 120};
inline constexpr VoltageSystem VoltageSystem::Y600{Shape::Wye, 600, 347};
inline constexpr VoltageSystem VoltageSystem::S240{Shape::ThreeWire, 240, 120};
inline constexpr VoltageSystem VoltageSystem::D240H{Shape::HighLeg, 240, 120};
inline constexpr VoltageSystem VoltageSystem::D480{Shape::Delta, 480, 0};
inline constexpr VoltageSystem VoltageSystem::Y400{Shape::Wye, 400, 230};
inline constexpr VoltageSystem VoltageSystem::Y415{Shape::Wye, 415, 240};
inline constexpr VoltageSystem VoltageSystem::S230{Shape::TwoWire, 230, 0};
inline constexpr VoltageSystem VoltageSystem::S120{Shape::TwoWire, 120, 0};
inline constexpr VoltageSystem VoltageSystem::Y380{Shape::Wye, 380, 220};

constexpr SystemFacts factsOf(VoltageSystem s) { return s.facts(); }

/// Nominal volts up to which conductors and devices are sized; what lies above is told, and left to others.
inline constexpr Volts lowVoltageUpTo{1000};
constexpr bool isMediumVoltage(VoltageSystem s) { return factsOf(s).lineLine > lowVoltageUpTo; }

/// Whether it is one of those that are used at 50 Hz, with cables by their cross-section.
bool isMetric(VoltageSystem system);

/// As it is written in files, lists and labels, in volts: "480Y/277", "400/230", "120/240", "240D/120", "480D", "230".
std::string wordOf(VoltageSystem system);

/// What a person or a list calls a system: as above, also with "V" and "kV", without the Y, the smaller voltage first
/// ("277/480"), by the volts alone of a wye ("480Y"), or with Δ for D. Nothing where the volts do not go together: a
/// wye's are 1 to √3 (within 2 %), those of a high leg and of one phase with its middle 1 to 2; from 50 V to 46 kV.
std::optional<VoltageSystem> systemFrom(std::string_view text);
/// What may be typed for a system.
extern const char* const systemHelp;

/// Those that are offered first; the lowest choices of each kind of practice in the order of their use.
std::span<const VoltageSystem> usualSystems();
/// Medium voltages at which utilities supply, as primaries.
std::span<const VoltageSystem> usualMediumVoltages();

/// Whether what a list or a nameplate says and what a system gives is one and the same: 460 V on 480 V.
constexpr bool sameVolts(double listed, double given) {
    const double apart = given > listed ? given - listed : listed - given;
    return apart <= 0.06 * listed;
}

/// Volts across a load of so many poles.
constexpr Volts voltsAcross(VoltageSystem s, int poles) {
    const SystemFacts f = factsOf(s);
    return poles == 1 && f.lineNeutral.v > 0 ? f.lineNeutral : f.lineLine;
}

} // namespace lintel
