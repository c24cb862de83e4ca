#pragma once
// The data that ships with Lintel: rule books, starters, demos.

#include "core/base/DataPath.h"
#include "core/base/Error.h"
#include "core/rules/RuleBook.h"

#include <filesystem>

namespace lintel {

/// The rule book of that id.
Outcome<RuleBook> loadRuleBook(const std::string& id, const std::map<std::string, double>& ownValues = {});

struct ShippedProject {
    std::filesystem::path file;
    std::string name, about;
};
std::vector<ShippedProject> shippedProjects(const std::string& folder); ///< "demos" or "starters", by name

} // namespace lintel
