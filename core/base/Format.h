#pragma once
// Numbers as people read them here: a thin gap between thousands, no digits that mean nothing.

#include <string>

namespace lintel {

/// 14400 → "14 400" (a narrow no-break space), with so many decimals.
std::string number(double value, int decimals = 0);
/// To about three figures: 0.049, 2.7, 31.4, 746.
std::string figures(double value);
/// VA as kVA: "14.4".
inline std::string kilo(double va, int decimals = 1) { return number(va / 1000, decimals); }
std::string percent(double value);
/// A rating as its plate says it: "75", "112.5".
std::string rating(double value);

} // namespace lintel
