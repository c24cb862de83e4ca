#pragma once
// How the files of an issue are called: a pattern with places for the job, the issue and what the file holds.

#include "core/base/Error.h"
#include "core/project/Project.h"

#include <optional>
#include <set>
#include <string>
#include <vector>

namespace lintel {

/// "{job}-{issue} {what}"
extern const char* const usualFilePattern;
/// The places that a pattern may have, without braces: job, title, issue, date, status, what.
const std::vector<std::string>& filePlaces();
/// A place that does not exist, a brace that is not closed, or no place for what the file holds.
std::optional<Error> refuseFilePattern(const std::string& pattern);

/// A name without its ending: "SH-204-T1 E-101 Ground floor lighting". Signs that some system refuses in the name of a
/// file become "_"; at most 180 bytes, of which `what` is never cut as long as it alone has room.
std::string fileNameOf(const std::string& pattern, const Project& project, const std::string& what);

/// Two files of one folder never have the same name, whatever its capitals: the second is "name (2)".
class UniqueNames {
public:
    std::string of(const std::string& name, const std::string& ending);

private:
    std::set<std::string> taken; ///< in capitals
};

} // namespace lintel
