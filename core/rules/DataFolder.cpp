#include "core/rules/DataFolder.h"

#include "core/project/ProjectFile.h"

namespace lintel {

namespace fs = std::filesystem;

Outcome<RuleBook> loadRuleBook(const std::string& id, const std::map<std::string, double>& ownValues) {
    const fs::path file = dataFolder() / "rulebooks" / (id + ".json");
    std::error_code ec;
    if (id.find('/') != std::string::npos || !fs::exists(file, ec))
        return Error{"rule book", "there is no rule book \"" + id + "\"", "Choose another one on Basis."};
    return RuleBook::load(file, ownValues);
}

std::vector<ShippedProject> shippedProjects(const std::string& folder) {
    std::vector<ShippedProject> list;
    std::error_code ec;
    for (const auto& e : fs::directory_iterator(dataFolder() / folder, ec))
        if (e.path().extension() == ".lintel")
            if (auto p = loadProject(e.path())) {
                list.push_back({e.path(), p->basis.title, p->extra.text("about")});
            }
    std::sort(list.begin(), list.end(), [](const auto& a, const auto& b) { return a.file.stem() < b.file.stem(); });
    return list;
}

} // namespace lintel
