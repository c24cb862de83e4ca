#pragma once
// When a device opens an earth fault, in words and for programs: one place, so that a fault that it does not open is
// never given a time.

#include "core/base/Format.h"
#include "core/solve/Results.h"

#include <fmt/format.h>

#include <optional>

namespace lintel {

/// The longest that a fault is reckoned with: the adiabatic rule holds no longer (BS 7671 and IEC 60364-5-54, 543.1.3).
inline constexpr double longestFault = 5;

/// Seconds until the fault at the far end is open; nothing: its device does not open it within `longestFault`.
inline std::optional<double> openingTime(const EarthFault& e) {
    return double(e.seconds) <= longestFault + 1e-6 ? std::optional(double(e.seconds)) : std::nullopt;
}
/// "open in 0.1 s", "not open within 5 s".
inline std::string openingWords(const EarthFault& e) {
    const auto after = openingTime(e);
    return after ? fmt::format("open in {} s", figures(*after)) : "not open within 5 s";
}

} // namespace lintel
