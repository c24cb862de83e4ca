#pragma once
// The designer's own columns of a circuit or board as one line of words, for typing and reading.

#include "core/base/Error.h"
#include "core/project/Project.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace lintel {

/// "Panel: left; Tag: K-4". Empty: none.
std::string ownTextsLine(const std::map<std::string, std::string>& texts);
/// The same line typed for one of many: headings that it names are set, or taken away where nothing stands behind the
/// colon; others stay.
std::optional<Error> mergeOwnTexts(std::map<std::string, std::string>& texts, const std::string& line);
/// The reverse: these and no others. An error says which part cannot be read, and nothing changes.
std::optional<Error> setOwnTexts(std::map<std::string, std::string>& texts, const std::string& line);

/// The headings of all such columns of a project, in the order of their letters.
std::vector<std::string> ownHeadings(const Project& project);
/// What circuits and boards say under one of them, each once: what is typed again is offered.
std::vector<std::string> ownEntries(const Project& project, const std::string& heading);

} // namespace lintel
