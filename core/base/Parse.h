#pragma once
// Numbers, loads and lengths as people type them.

#include "core/project/Choices.h"

#include <optional>
#include <string>
#include <string_view>

namespace lintel {

/// Without blanks at either end, no-break ones included.
std::string trimmed(std::string_view text);
std::string lowered(std::string_view text);
/// Equal but for case.
bool sameWord(std::string_view a, std::string_view b);

/// "1 250.5", "1.250,5", "1,250.5", "−3": which of point and comma is the decimal sign follows from the text, and where it
/// does not ("1,250", "1.250") from `decimal` ('.' or ','). Nothing when it is not a number and nothing else.
std::optional<double> numberFrom(std::string_view text, char decimal = '.');

struct TypedLoad {
    double amount = 0;
    std::optional<LoadUnit> unit;
};
/// "1500", "1.5 kVA", "2kW", "10 hp".
std::optional<TypedLoad> loadFrom(std::string_view text, char decimal = '.');
std::optional<LoadUnit> loadUnitFrom(std::string_view text);

/// "172 ft", "52 m", "1' 6\"", "30" (in the units of the project): metres.
std::optional<double> metresFrom(std::string_view text, UnitSystem units);

/// "yes", "y", "true", "1", "x" and their opposites; an empty text is no.
std::optional<bool> yesFrom(std::string_view text);

} // namespace lintel
