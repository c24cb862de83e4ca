#pragma once
// The designer's own columns of a circuit or board as one line of words, for typing and reading.

#include "core/base/Error.h"

#include <map>
#include <optional>
#include <string>

namespace lintel {

/// "Panel: left; Tag: K-4". Empty: none.
std::string ownTextsLine(const std::map<std::string, std::string>& texts);
/// The same line typed for one of many: headings that it names are set, or taken away where nothing stands behind the
/// colon; others stay.
std::optional<Error> mergeOwnTexts(std::map<std::string, std::string>& texts, const std::string& line);
/// The reverse: these and no others. An error says which part cannot be read, and nothing changes.
std::optional<Error> setOwnTexts(std::map<std::string, std::string>& texts, const std::string& line);

} // namespace lintel
