#pragma once
// Loads and lengths as people type them.

#include "core/project/Choices.h"

#include <optional>
#include <string_view>

namespace lintel {

struct TypedLoad {
    double amount = 0;
    std::optional<LoadUnit> unit;
};
/// "1500", "1.5 kVA", "2kW", "10 hp".
std::optional<TypedLoad> loadFrom(std::string_view text, char decimal = '.');
std::optional<LoadUnit> loadUnitFrom(std::string_view text);

/// "172 ft", "52 m", "1' 6\"", "30" (in the units of the project): metres.
std::optional<double> metresFrom(std::string_view text, UnitSystem units);

} // namespace lintel
