// lintel-cli sheets: the set with its numbers, and which of them stay.

#include "cli/Commands.h"
#include "core/check/Assumptions.h"
#include "core/issue/Issues.h"
#include "core/project/ProjectFile.h"

#include <algorithm>
#include <filesystem>
#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

namespace lintel {
namespace {

void print(const std::vector<SheetEntry>& set, bool json) {
    nlohmann::ordered_json list = nlohmann::ordered_json::array();
    for (const SheetEntry& e : set) {
        if (json)
            list.push_back({{"number", e.number}, {"title", e.title}, {"paper", e.paper}, {"kept", e.kept}});
        else
            std::cout << fmt::format("{:12} {:4} {:10} {}\n", e.number, e.kept ? "kept" : "", e.paper, e.title);
    }
    if (json) std::cout << list.dump(1) << "\n";
}

/// "E-603=E-610"
std::optional<Error> give(Project& p, const std::vector<SheetEntry>& set, const std::string& order) {
    const std::size_t equals = order.find('=');
    if (equals == std::string::npos)
        return Error{order, "a number is given as OLD=NEW", "For example E-603=E-610; E-603= lets go of it."};
    const std::string from = order.substr(0, equals);
    const auto sheet = std::find_if(set.begin(), set.end(), [&](const SheetEntry& e) { return e.number == from; });
    if (sheet == set.end()) return Error{order, "there is no sheet " + from, "lintel-cli sheets FILE lists them."};
    return renumber(p, set, *sheet, order.substr(equals + 1));
}

} // namespace

int runSheets(const SheetsOrder& o) {
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    Project next = (*s)->project;
    // Listed and not drawn: the input of a set has to live only as long as its sheets are drawn.
    const auto setOf = [&](const Project& p) { return issueSet({p, (*s)->book, (*s)->results}); };
    if (o.anew) next.sheetNumbers = {};
    for (const std::string& order : o.numbers)
        if (const auto bad = give(next, setOf(next), order)) return fail(*bad);
    const auto set = setOf(next);
    if (o.keep) keepNumbers(next, set);
    if (next == (*s)->project) {
        print(set, o.json);
        return 0;
    }
    const std::string to = o.out.empty() ? o.file : o.out;
    if (!std::filesystem::exists(o.file) && o.out.empty())
        return fail({o.file, "a project as it was issued is not written over", "Give --out FILE."});
    if (const auto bad = saveProject(next, to)) return fail(*bad);
    print(setOf(next), o.json);
    std::cerr << "lintel-cli: written to " << to << "\n";
    return 0;
}

} // namespace lintel
