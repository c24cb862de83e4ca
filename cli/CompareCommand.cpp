// lintel-cli compare and merge: two states of a project in words, and two people's work put together; both also as the
// drivers that git asks.

#include "cli/Commands.h"
#include "core/compare/ComparisonSheet.h"
#include "core/compare/Merge.h"
#include "core/compare/ProjectComparison.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"
#include "core/solve/Solve.h"
#include "render/PdfFile.h"

#include <QGuiApplication>

#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

namespace lintel {
namespace {

/// A state to compare: a project, or nothing where git has no file of it.
Outcome<std::shared_ptr<Solved>> stateOf(const std::string& file) {
    if (file == "/dev/null") {
        auto book = loadRuleBook(Basis{}.ruleBook);
        if (!book) return book.error();
        auto s = std::make_shared<Solved>();
        s->book = *book;
        s->results = solve(s->project, s->book);
        return s;
    }
    return openSolved(file);
}

} // namespace

int runCompare(const CompareOrder& o, int argc, char** argv) {
    // git's external diff: path, old file, its hash, its mode, new file, its hash, its mode.
    const bool git = o.files.size() == 7;
    if (!git && o.files.size() != 2)
        return fail({"compare", "two files are wanted", "lintel-cli compare BEFORE AFTER"});
    const auto before = stateOf(git ? o.files[1] : o.files[0]);
    if (!before) return fail(before.error());
    const auto after = stateOf(git ? o.files[4] : o.files[1]);
    if (!after) return fail(after.error());
    const ProjectComparison c = compareProjects((*before)->input(), (*after)->input());
    if (git) std::cout << o.files[0] << ": ";
    if (!o.pdf.empty()) {
        drawOffscreen();
        QGuiApplication app(argc, argv);
        const Project& p = (*after)->project;
        const std::string between = fmt::format("Between {} and {}", o.files[git ? 1 : 0], o.files[git ? 4 : 1]);
        if (auto bad = writePdf(comparisonSheets(c, between, sheetHead(p, (*after)->book)),
                                QString::fromStdString(o.pdf), pdfAbout(p, "What has changed")))
            return fail(*bad);
        std::cout << o.pdf << "\n";
        return 0;
    }
    if (o.json)
        std::cout << c.json().dump(1) << "\n";
    else
        std::cout << c.text();
    return 0;
}

int runMerge(const MergeOrder& o) {
    const auto base = loadProject(o.base), ours = loadProject(o.ours), theirs = loadProject(o.theirs);
    for (const auto* p : {&base, &ours, &theirs})
        if (!*p) return fail(p->error());
    const Merged m = mergeProjects(*base, *ours, *theirs);
    if (!o.out.empty())
        if (auto bad = saveProject(m.project, o.out)) return fail(*bad);
    if (o.json) {
        nlohmann::ordered_json list = nlohmann::ordered_json::array();
        for (const MergeConflict& c : m.conflicts)
            list.push_back({{"id", c.thing.text()},
                            {"name", c.name},
                            {"field", c.field},
                            {"base", c.base},
                            {"ours", c.ours},
                            {"theirs", c.theirs},
                            {"what", c.what},
                            {"text", c.text()}});
        std::cout << nlohmann::ordered_json{{"conflicts", list}, {"notes", m.notes}}.dump(1) << "\n";
    } else {
        for (const std::string& n : m.notes) std::cout << "note: " << n << "\n";
        for (const MergeConflict& c : m.conflicts) std::cout << "conflict: " << c.text() << "\n";
        std::cout << (m.conflicts.empty() ? "merged" : fmt::format("merged, with {} to be decided", m.conflicts.size()))
                  << (o.out.empty() ? "; nothing is written without --out" : "") << "\n";
    }
    return m.conflicts.empty() ? 0 : 1;
}

} // namespace lintel
