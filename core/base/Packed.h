#pragma once
// A text made small (zlib) and written in letters that every file takes (base 64), in pieces that a text of a project
// may hold.

#include <optional>
#include <string>
#include <vector>

namespace lintel {

std::vector<std::string> packed(const std::string& text);
/// Nothing: it is damaged, or unpacks to more than a project may hold.
std::optional<std::string> unpacked(const std::vector<std::string>& pieces);

} // namespace lintel
