// lintel-cli: everything the core does, without a window. See docs/command-line.md.

#include "core/exchange/ResultsText.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"
#include "core/sheets/Sheets.h"
#include "render/Painter.h"

#include <CLI/CLI.hpp>
#include <QDir>
#include <QGuiApplication>
#include <fmt/format.h>
#include <iostream>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

int fail(const Error& e) {
    std::cerr << "lintel-cli: " << e.text() << "\n";
    return 1;
}

/// A project with its rule book and results, or the Error in the way.
struct Solved {
    Project project;
    RuleBook book;
    Results results;
    CheckInput input() const { return {project, book, results}; }
};
Outcome<std::shared_ptr<Solved>> open(const std::string& file) {
    auto p = loadProject(file);
    if (!p) return p.error();
    auto book = loadRuleBook(p->basis.ruleBook, p->basis.ownValues);
    if (!book) return book.error();
    auto s = std::make_shared<Solved>(Solved{*p, *book, {}});
    s->results = solve(s->project, s->book);
    return s;
}

int issue(const std::string& file, const std::string& out, int argc, char** argv) {
    auto s = open(file);
    if (!s) return fail(s.error());
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QGuiApplication app(argc, argv);
    std::error_code ec;
    fs::create_directories(out, ec);
    if (ec) return fail({out, "the folder cannot be made: " + ec.message(), "Choose another one."});
    const SheetInput in{(*s)->project, (*s)->book, (*s)->results};
    std::vector<Drawing> all;
    for (const SheetEntry& e : sheetSet(in)) {
        Drawing d = e.draw();
        const fs::path to = fs::path(out) / (e.file + ".pdf");
        if (auto bad = writePdf({d}, QString::fromStdString(to.string()), QString::fromStdString(e.title))) return fail(*bad);
        std::cout << to.string() << "\n";
        if (e.number == "E-501") {
            const fs::path svg = fs::path(out) / (e.file + ".svg");
            if (auto bad = writeSvg(d, QString::fromStdString(svg.string()))) return fail(*bad);
            std::cout << svg.string() << "\n";
        }
        all.push_back(std::move(d));
    }
    if (all.empty()) return fail({file, "there is nothing to issue: the project has no boards", ""});
    const fs::path set = fs::path(out) / "all_sheets.pdf";
    if (auto bad = writePdf(all, QString::fromStdString(set.string()), QString::fromStdString((*s)->project.basis.title))) return fail(*bad);
    std::cout << set.string() << "\n";
    const auto snags = findSnags((*s)->project, (*s)->book, (*s)->results);
    const auto stops = std::count_if(snags.begin(), snags.end(), [](const Snag& x) { return x.severity == Severity::Stop; });
    if (stops) std::cerr << fmt::format("lintel-cli: {} stop {} remain: see `lintel-cli solve`\n", stops, stops == 1 ? "snag" : "snags");
    return 0;
}

int copyShipped(const std::string& folder, const std::string& name, const std::string& to, bool force) {
    for (const ShippedProject& s : shippedProjects(folder))
        if (s.file.stem() == name) {
            std::error_code ec;
            if (fs::exists(to, ec) && !force) return fail({to, "there is a file of that name already", "Choose another name, or add --force."});
            auto p = loadProject(s.file);
            if (!p) return fail(p.error());
            p->extra.erase("about");
            if (p->extra.empty()) p->extra = {};
            if (auto bad = saveProject(*p, to)) return fail(*bad);
            std::cout << to << "\n";
            return 0;
        }
    std::string names;
    for (const ShippedProject& s : shippedProjects(folder)) names += (names.empty() ? "" : ", ") + s.file.stem().string();
    return fail({name, "there is no such one in " + folder, "There is: " + names});
}

} // namespace

int main(int argc, char** argv) {
    CLI::App app{"Lintel: circuits, boards, feeders and their sheets, from the command line"};
    app.require_subcommand(1);
    app.set_version_flag("--version", LINTEL_VERSION);
    std::string file, out = "sheets", name, to;
    bool json = false, workings = false, force = false;

    auto* solveCommand = app.add_subcommand("solve", "Work out a project and print boards, circuits and snags");
    solveCommand->add_option("FILE", file, "A .lintel project")->required();
    solveCommand->add_flag("--json", json, "Everything as JSON, with units in the names");
    solveCommand->add_flag("--workings", workings, "With --json: how each number came about");
    auto* issueCommand = app.add_subcommand("issue", "Write all sheets of a project as PDF (and the riser as SVG)");
    issueCommand->add_option("FILE", file, "A .lintel project")->required();
    issueCommand->add_option("--out", out, "The folder to write to")->capture_default_str();
    auto* newCommand = app.add_subcommand("new", "Begin a project from a starter");
    newCommand->add_option("FILE", to, "The project to write")->required();
    newCommand->add_option("--starter", name, "Which starter")->default_val("us-480");
    newCommand->add_flag("--force", force, "Replace a file of that name");
    auto* demoCommand = app.add_subcommand("demo", "Write a copy of a demo project");
    demoCommand->add_option("FILE", to, "The project to write")->required();
    demoCommand->add_option("--name", name, "Which demo")->default_val("saltmarket-hall");
    demoCommand->add_flag("--force", force, "Replace a file of that name");
    CLI11_PARSE(app, argc, argv);

    if (*newCommand) return copyShipped("starters", name.empty() ? "us-480" : name, to, force);
    if (*demoCommand) return copyShipped("demos", name.empty() ? "saltmarket-hall" : name, to, force);
    if (*issueCommand) return issue(file, out, argc, argv);
    auto s = open(file);
    if (!s) return fail(s.error());
    if (json) std::cout << resultsJson((*s)->input(), workings).dump(1) << "\n";
    else std::cout << resultsText((*s)->input());
    return 0;
}
