#pragma once
// Where the data that ships with Lintel is: rule books, starters, demos.

#include "core/base/Error.h"
#include "core/rules/RuleBook.h"

#include <filesystem>

namespace lintel {

/// $LINTEL_DATA, else share/lintel beside the program's folder, else the source tree it was built from.
std::filesystem::path dataFolder();
/// The rule book of that id.
Outcome<RuleBook> loadRuleBook(const std::string& id, const std::map<std::string, double>& ownValues = {});

struct ShippedProject {
    std::filesystem::path file;
    std::string name, about;
};
std::vector<ShippedProject> shippedProjects(const std::string& folder); ///< "demos" or "starters", by name

} // namespace lintel
