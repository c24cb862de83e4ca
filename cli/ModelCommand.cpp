// lintel-cli model: a building model into a project.
#include "cli/Commands.h"
#include "core/exchange/TakeModel.h"
#include "core/project/Document.h"
#include "core/project/ProjectFile.h"

#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

namespace lintel {
namespace {

void printJson(const BuildingModel& m, const std::vector<ModelRow>& order, const ModelTaken& t, UnitSystem units) {
    nlohmann::ordered_json rows = nlohmann::ordered_json::array();
    for (std::size_t i = 0; i < order.size(); ++i) {
        const auto cells = cellsOf(m, order[i], units);
        rows.push_back({{"what", cells[0]},
                        {"number", cells[1]},
                        {"name", cells[2]},
                        {"storey", cells[3]},
                        {"identity", cells[6]},
                        {"changes", t.rows[i].what},
                        {"look", t.rows[i].look},
                        {"refused", t.rows[i].refused}});
    }
    std::vector<std::string> notes = m.notes;
    notes.insert(notes.end(), t.notes.begin(), t.notes.end());
    std::cout << nlohmann::ordered_json{{"added", t.added},     {"changed", t.changed}, {"same", t.same},
                                        {"refused", t.refused}, {"gone", t.gone},       {"gone_walls", t.goneWalls},
                                        {"notes", notes},       {"rows", rows}}
                     .dump(1)
              << "\n";
}

void printText(const BuildingModel& m, const std::vector<ModelRow>& order, const ModelTaken& t, UnitSystem units) {
    for (const std::string& n : m.notes) std::cout << "note: " << n << "\n";
    for (const std::string& n : t.notes) std::cout << "note: " << n << "\n";
    for (std::size_t i = 0; i < order.size(); ++i) {
        const auto cells = cellsOf(m, order[i], units);
        const std::string name = fmt::format("{} {}{}{}", cells[0], cells[1], cells[1].empty() ? "" : " ", cells[2]);
        for (const std::string& words : t.rows[i].look)
            std::cout << fmt::format("{}: {}{}\n", name, words, t.rows[i].refused ? "; left out" : "");
        if (!t.rows[i].what.empty()) std::cout << fmt::format("  {}: {}\n", name, fmt::join(t.rows[i].what, ", "));
    }
    std::cout << fmt::format("{} things: {} added, {} changed, {} the same, {} with problems left out\n", order.size(),
                             t.added, t.changed, t.same, t.refused);
    if (!t.gone.empty()) std::cout << fmt::format("no longer in the model: {}\n", fmt::join(t.gone, ", "));
    if (t.goneWalls) std::cout << fmt::format("no longer in the model: {} walls and doors\n", t.goneWalls);
}

} // namespace

int runModel(const ModelOrder& o) {
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    const auto m = readBuildingModel(o.model);
    if (!m) return fail(m.error());
    Document d((*s)->project);
    ModelTaken t;
    d.edit("Take in a building model", [&](Project& p) { t = takeModel(p, *m, {}, o.removeGone); });
    if (d.refusal()) return fail(*d.refusal());
    if (!o.dryRun)
        if (auto bad = saveProject(d.project(), o.out.empty() ? o.file : o.out)) return fail(*bad);
    const UnitSystem units = d.project().basis.units;
    if (o.json)
        printJson(*m, rowsOf(*m), t, units);
    else
        printText(*m, rowsOf(*m), t, units);
    return 0;
}

} // namespace lintel
