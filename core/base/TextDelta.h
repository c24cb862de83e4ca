#pragma once
// A text told by what it takes over from another: lines of it, and lines of its own. Small where two states of one file
// have most of their lines in common.

#include <optional>
#include <string>

namespace lintel {

/// `to` told by `from`.
std::string deltaOf(const std::string& from, const std::string& to);
/// The text again; nothing: it is no delta, or one of another text.
std::optional<std::string> applyDelta(const std::string& from, const std::string& delta);

} // namespace lintel
