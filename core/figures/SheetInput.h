#pragma once
// What sheets, lists and their figures are drawn from.

#include "core/solve/Results.h"

#include <filesystem>
#include <functional>
#include <memory>

namespace lintel {

struct UnderlayContent;

struct SheetInput {
    const Project& project;
    const RuleBook& book;
    const Results& results;
    /// Finds what the file of an underlay holds; nothing: no underlays are drawn.
    std::function<std::shared_ptr<const UnderlayContent>(const Underlay&)> underlays{};
    std::filesystem::path projectFile{}; ///< beside which the files of underlays are looked for
};

} // namespace lintel
