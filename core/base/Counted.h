#pragma once
// A number with its noun: "1 board", "3 boards".

#include <fmt/format.h>

#include <string>
#include <string_view>

namespace lintel {

/// `many`: where it is not the one with an "s".
template <class N> std::string counted(N n, std::string_view one, std::string_view many = {}) {
    if (n == N(1)) return fmt::format("1 {}", one);
    return many.empty() ? fmt::format("{} {}s", n, one) : fmt::format("{} {}", n, many);
}

} // namespace lintel
