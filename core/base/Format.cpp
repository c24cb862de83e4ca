#include "core/base/Format.h"

#include <cmath>
#include <fmt/format.h>

namespace lintel {

std::string number(double value, int decimals) {
    std::string s = fmt::format("{:.{}f}", std::abs(value), decimals);
    const std::size_t point = std::min(s.find('.'), s.size());
    for (std::size_t i = point; i > 3 && point > 4; i -= 3)
        if (i - 3 > 0) s.insert(i - 3, "\u00a0");
    if (point == 4) s.insert(1, "\u00a0");
    const bool zero = s.find_first_not_of("0.") == std::string::npos;
    return value < 0 && !zero ? "−" + s : s;
}

std::string figures(double value) {
    const double a = std::abs(value);
    if (a == 0) return "0";
    return number(value, a >= 99.95 ? 0 : a >= 9.995 ? 1 : a >= 0.9995 ? 2 : a >= 0.0995 ? 3 : 4);
}

std::string rating(double value) {
    if (value == std::floor(value)) return number(value, 0);
    // 0.25 and 0.75 are on plates, too.
    const bool tenths = std::abs(value * 10 - std::round(value * 10)) < 1e-9;
    return number(value, tenths || value > 1 ? 1 : 2);
}

std::string percent(double value) { return number(value, std::abs(value) >= 99.95 ? 0 : 1) + " %"; }

} // namespace lintel
