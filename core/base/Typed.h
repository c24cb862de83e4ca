#pragma once
// The one reader of quantities that people type: a number, in any of the ways that people write one, and a unit. It converts, or it
// refuses with what may be typed. It never drops what it did not understand.

#include "core/base/Error.h"

#include <optional>
#include <string>
#include <string_view>

namespace lintel {

/// "7.5", "7,5", "1,200", "1 200", "1.200,5", "−3", "1/2", "7-1/2", "7 1/2", "7½": a number and nothing else. `decimal` decides
/// where a sign could be both ("1,250").
std::optional<double> typedNumber(std::string_view text, char decimal = '.');

/// A quantity for a place that keeps it in `unit`: "A", "mA", "kA", "V", "kV", "VA", "kVA", "W", "kW", "hp", "kvar", "Ω", "m", "mm", "ft",
/// "°C", "°", "%", "K·m/W", "lm", "lx"; empty: a number without a unit. A bare number is in that unit; another unit of the same kind is
/// converted ("1.2 kVA" for VA is 1200, "95 °F" for °C is 35, "0.2" for % is 0.2 %). Refused: anything else, with `what` it is and what
/// may be typed.
Outcome<double> readTyped(std::string_view text, std::string_view unit, char decimal = '.');

} // namespace lintel
