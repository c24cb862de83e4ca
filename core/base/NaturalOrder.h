#pragma once
// The order in which people expect names that hold numbers.

#include <string>

namespace lintel {

/// Whether one comes before another, runs of digits as numbers: "E-99" before "E-101", "E-605.2" before "E-605.10".
bool numberBefore(const std::string& a, const std::string& b);

} // namespace lintel
