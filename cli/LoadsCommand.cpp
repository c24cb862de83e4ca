// lintel-cli loads: lists of loads in and out, and what they leave open.
#include "cli/ListReading.h"
#include "core/exchange/LoadList.h"
#include "core/plan/CircuitMissing.h"
#include "core/project/ProjectFile.h"

#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

namespace lintel {
int runLoadsImport(const LoadsOrder& o) {
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    const auto grid = gridOf(o);
    if (!grid) return fail(grid.error());
    Project p = (*s)->project;
    ListSettings settings = guessSettings(*grid, LoadUnit::kW);
    if (auto bad = readSettings(o, *grid, settings)) return fail(*bad);
    const LoadList list = readLoads(*grid, settings, p);
    const ListDifference d = compareList(p, list);
    nlohmann::ordered_json problems = nlohmann::ordered_json::array(), changed = nlohmann::ordered_json::array(),
                           gone = nlohmann::ordered_json::array();
    for (const ListRow& r : list.rows)
        for (const ListProblem& x : r.problems)
            problems.push_back({{"line", r.line}, {"column", x.column + 1}, {"stops", x.stops}, {"what", x.text}});
    for (const auto& c : d.changed) changed.push_back({{"tag", p.loads[c.load].tag}, {"what", c.what}});
    for (LoadId l : d.gone) gone.push_back(p.loads[l].tag);
    Applied applied;
    Circuited circuited;
    if (!o.dryRun) {
        applied = applyList(p, list, {o.removeGone, true});
        if (o.circuit) circuited = circuitMissing(p, (*s)->book);
        if (auto bad = saveProject(p, o.out.empty() ? o.file : o.out)) return fail(*bad);
    }
    if (o.json) {
        std::cout << nlohmann::ordered_json{{"rows", list.rows.size()},
                                            {"entering", list.entering()},
                                            {"stopped", list.stopped()},
                                            {"added", d.added.size()},
                                            {"changed", changed},
                                            {"same", d.same},
                                            {"gone", gone},
                                            {"removed", applied.removed},
                                            {"new_boards", list.newBoards},
                                            {"circuits", circuited.circuits.size()},
                                            {"left", circuited.left},
                                            {"problems", problems},
                                            {"notes", list.notes},
                                            {"circuits_changed", applied.notes}}
                         .dump(1)
                  << "\n";
        return 0;
    }
    for (const std::string& n : list.notes) std::cout << "note: " << n << "\n";
    for (const ListRow& r : list.rows)
        for (const ListProblem& x : r.problems)
            std::cout << fmt::format("line {}{}: {}{}\n", r.line,
                                     x.column >= 0 ? fmt::format(", column {}", x.column + 1) : "", x.text,
                                     x.stops ? "; left out" : "");
    std::cout << fmt::format(
        "{} rows: {} added, {} changed, {} the same, {} with problems left out; {} no longer listed{}\n",
        list.rows.size(), d.added.size(), d.changed.size(), d.same, list.stopped(), d.gone.size(),
        d.gone.empty() ? ""
        : o.removeGone ? ", removed"
                       : ", kept");
    for (const auto& c : d.changed) {
        std::string what;
        for (const std::string& w : c.what) what += (what.empty() ? "" : ", ") + w;
        std::cout << fmt::format("  {}: {}\n", (*s)->project.loads[c.load].tag, what);
    }
    for (const std::string& n : applied.notes) std::cout << "  " << n << "\n";
    if (!list.newBoards.empty()) std::cout << fmt::format("boards made: {}\n", fmt::join(list.newBoards, ", "));
    if (o.circuit)
        std::cout << fmt::format("{} loads on {} new circuits\n", circuited.loads, circuited.circuits.size());
    for (const std::string& w : circuited.left) std::cout << "  left: " << w << "\n";
    return 0;
}

int runLoadsExport(const LoadsOrder& o) {
    auto p = loadProject(o.file);
    if (!p) return fail(p.error());
    const char delimiter = o.delimiter.empty() ? ',' : o.delimiter == "tab" ? '\t' : o.delimiter[0];
    if (auto bad = writeGrid(listOf(*p), o.list, "Loads", delimiter, identityHeading)) return fail(*bad);
    std::cout << fmt::format("{}: {} loads\n", o.list, p->loads.size());
    return 0;
}

int runLoadsCheck(const LoadsOrder& o) {
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    const Project& p = (*s)->project;
    const LoadReport r = reportLoads(p, (*s)->results);
    if (!o.json) {
        std::cout << reportText(p, r);
        return 0;
    }
    nlohmann::ordered_json unfed = nlohmann::ordered_json::array(), cables = nlohmann::ordered_json::array(),
                           boards = nlohmann::ordered_json::array();
    for (LoadId l : r.unfed) unfed.push_back({{"tag", p.loads[l].tag}, {"name", p.loads[l].name}});
    for (DeviceId d : r.unfedDevices) unfed.push_back({{"tag", p.devices[d].tag}, {"name", nameOf(p, Ref(d))}});
    for (CircuitId c : r.noCable) cables.push_back({{"circuit", nameOf(p, c)}, {"serves", p.circuits[c].name}});
    for (const auto& [b, why] : r.boards) boards.push_back({{"board", p.boards[b].name}, {"why", why}});
    std::cout << nlohmann::ordered_json{{"no_circuit", unfed}, {"no_cable", cables}, {"boards", boards}}.dump(1)
              << "\n";
    return 0;
}

} // namespace lintel
