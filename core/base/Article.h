#pragma once
// "a" or "an" before a figure or a word, as it is spoken: an 80 A device, an 18 kA breaker, a 100 A bus.

#include <string>
#include <string_view>

namespace lintel {

/// "an 80", "a 100", "an 11 000": what begins with eight, eleven or eighteen; "an enclosed device", "a UPS".
inline std::string withArticle(std::string_view what) {
    if (what.empty()) return "a";
    const auto digit = [&](std::size_t i) { return i < what.size() && what[i] >= '0' && what[i] <= '9'; };
    std::size_t digits = 0;
    while (digit(digits)) ++digits;
    const bool eleven = what.starts_with("11") || what.starts_with("18");
    const bool spoken = digits ? what[0] == '8' || (eleven && digits == 2)
                               : std::string_view("aeioAEIO").find(what[0]) != std::string_view::npos;
    return (spoken ? "an " : "a ") + std::string(what);
}

} // namespace lintel
