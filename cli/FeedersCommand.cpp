// lintel-cli feeders: schedules of feeders in and out.
#include "cli/ListReading.h"
#include "core/exchange/FeederList.h"
#include "core/project/ProjectFile.h"

#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

namespace lintel {
namespace {

std::string joined(const std::vector<std::string>& words) { return fmt::format("{}", fmt::join(words, ", ")); }

void printJson(const FeederList& list, const FeedersApplied& a) {
    nlohmann::ordered_json rows = nlohmann::ordered_json::array();
    for (std::size_t i = 0; i < list.rows.size(); ++i) {
        const FeederRow& r = list.rows[i];
        nlohmann::ordered_json problems = nlohmann::ordered_json::array();
        for (const ListProblem& p : r.problems)
            problems.push_back({{"column", p.column + 1}, {"stops", p.stops}, {"what", p.text}});
        rows.push_back({{"line", r.line},
                        {"feeder", r.tag},
                        {"from", r.from},
                        {"to", r.to},
                        {"what", a.rows[i].what},
                        {"look", a.rows[i].look},
                        {"refused", a.rows[i].refused},
                        {"problems", problems}});
    }
    std::cout << nlohmann::ordered_json{{"added", a.added},     {"changed", a.changed},      {"same", a.same},
                                        {"refused", a.refused}, {"stopped", list.stopped()}, {"made", a.made},
                                        {"gone", a.gone},       {"notes", list.notes},       {"taken_as", a.notes},
                                        {"rows", rows}}
                     .dump(1)
              << "\n";
}

void printText(const FeederList& list, const FeedersApplied& a) {
    for (const std::string& n : list.notes) std::cout << "note: " << n << "\n";
    for (const std::string& n : a.notes) std::cout << "note: " << n << "\n";
    for (std::size_t i = 0; i < list.rows.size(); ++i) {
        const FeederRow& r = list.rows[i];
        for (const ListProblem& p : r.problems)
            std::cout << fmt::format("line {}{}: {}{}\n", r.line,
                                     p.column >= 0 ? fmt::format(", column {}", p.column + 1) : "", p.text,
                                     p.stops ? "; left out" : "");
        for (const std::string& words : a.rows[i].look)
            std::cout << fmt::format("line {}: {}{}\n", r.line, words, a.rows[i].refused ? "; left out" : "");
        if (!a.rows[i].what.empty())
            std::cout << fmt::format("  {} {} – {}: {}\n", r.tag, r.from, r.to, joined(a.rows[i].what));
    }
    std::cout << fmt::format("{} rows: {} added, {} changed, {} the same, {} with problems left out\n",
                             list.rows.size(), a.added, a.changed, a.same, list.stopped() + a.refused);
    if (!a.made.empty()) std::cout << "made: " << joined(a.made) << "\n";
    if (!a.gone.empty()) std::cout << "not in the list, kept: " << joined(a.gone) << "\n";
}

} // namespace

int runFeedersImport(const LoadsOrder& o) {
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    const auto grid = gridOf(o);
    if (!grid) return fail(grid.error());
    Project p = (*s)->project;
    FeederSettings settings = guessFeederSettings(*grid, p.basis.units);
    if (auto bad = readSettings(o, *grid, settings)) return fail(*bad);
    const FeederList list = readFeeders(*grid, settings, (*s)->book);
    const FeedersApplied applied = applyFeeders(p, (*s)->book, list);
    if (!o.dryRun)
        if (auto bad = saveProject(p, o.out.empty() ? o.file : o.out)) return fail(*bad);
    if (o.json)
        printJson(list, applied);
    else
        printText(list, applied);
    return 0;
}

int runFeedersExport(const LoadsOrder& o) {
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    const char delimiter = o.delimiter.empty() ? ',' : o.delimiter == "tab" ? '\t' : o.delimiter[0];
    const auto rows = feedersOf((*s)->project, (*s)->book, (*s)->results);
    if (auto bad = writeGrid(rows, o.list, "Feeders", delimiter)) return fail(*bad);
    std::cout << fmt::format("{}: {} feeders\n", o.list, rows.size() - 1);
    return 0;
}

} // namespace lintel
