#pragma once
// The one reader of quantities that people type: a number, in any of the ways that people write one, and a unit. It
// converts, or it refuses with what may be typed. It never drops what it did not understand.

#include "core/base/Error.h"

#include <optional>
#include <string>
#include <string_view>

namespace lintel {

/// "7.5", "7,5", "1,200", "1 200", "1.200,5", "−3", "1/2", "7-1/2", "7 1/2", "7½": a number and nothing else. `decimal`
/// decides where a sign could be both ("1,250").
std::optional<double> typedNumber(std::string_view text, char decimal = '.');

/// A quantity for a place that keeps it in `unit`: "A", "mA", "kA", "V", "kV", "VA", "kVA", "W", "kW", "hp", "kvar",
/// "Ω", "m", "mm", "ft", "°C", "°", "%", "K·m/W", "lm", "lx", "mΩ/m"; empty: a number without a unit. A bare number is
/// in that unit; another unit of the same kind is converted ("1.2 kVA" for VA is 1200, "95 °F" for °C is 35, "0.2" for
/// % is 0.2
/// %). Refused: anything else, with `what` it is and what may be typed.
Outcome<double> readTyped(std::string_view text, std::string_view unit, char decimal = '.');

/// A share of one: "0.85", "85 %". `what` it is ("a power factor") begins the refusal of anything else.
Outcome<double> readShare(std::string_view text, const char* what, char decimal = '.');

/// Takes "3 ×", "3x", "3 *" off the front of a text: the number; nothing where no such sign follows one, and the text
/// stays.
std::optional<int> takeCount(std::string& text);

struct TypedSize {
    int sets = 0;     ///< 0: not said
    std::string size; ///< as rule books name it, without # and unit: "12", "3/0", "250", "2.5"
};
/// "12", "#12", "3/0 AWG", "250 kcmil", "2.5 mm²", "2,5", "2 × 250", "4x3/0 AWG". Nothing where it is no size of a
/// conductor; whether a book has it is for the book to say.
std::optional<TypedSize> typedSize(std::string_view text);

/// "3", "3ph", "3~", "3P", "1P+N", "three-phase", "1φ", "2-pole": 1, 2 or 3, of poles or phases.
std::optional<int> typedPoles(std::string_view text, char decimal = '.');

struct TypedVolts {
    double volts = 0;          ///< the higher, where a system is written with two
    std::optional<int> phases; ///< where they are written beside
};
/// "480", "400 V", "0.4 kV", "208/120", "208Y/120 V", "460/3/60", "208 V 1 ph", "400V 3~ 50 Hz".
std::optional<TypedVolts> typedVolts(std::string_view text, char decimal = '.');

} // namespace lintel
