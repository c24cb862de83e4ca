// The commands of lintel-cli: everything the core does, without a window. See docs/command-line.md.

#include "cli/Commands.h"
#include "core/base/Json.h"
#include "core/base/Parse.h"
#include "core/bench/Bench.h"
#include "core/bench/BenchSheet.h"
#include "core/check/Assumptions.h"
#include "core/compare/SheetMarks.h"
#include "core/exchange/DxfPlan.h"
#include "core/exchange/ResultsText.h"
#include "core/issue/Issues.h"
#include "core/plan/ApplyRecipe.h"
#include "core/plan/AutoCircuit.h"
#include "core/plan/FindRooms.h"
#include "core/plan/LinkedFiles.h"
#include "core/plan/LoadDensity.h"
#include "core/project/Catalogue.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"
#include "core/sheets/WorkingSheet.h"
#include "render/IssueFiles.h"
#include "render/Painter.h"
#include "render/PdfFile.h"
#include "render/SvgFile.h"
#include "render/UnderlayFile.h"

#include "core/sheets/DoorCard.h"
#include <CLI/CLI.hpp>
#include <QDir>
#include <QGuiApplication>
#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

using namespace lintel;
namespace fs = std::filesystem;

namespace lintel {

int fail(const Error& e) {
    std::cerr << "lintel-cli: " << e.text() << "\n";
    return 1;
}

Outcome<std::shared_ptr<Solved>> openSolved(const std::string& file) {
    std::error_code none;
    const std::size_t at = file.rfind('@');
    const bool issue = at != std::string::npos && !fs::exists(file, none);
    auto p = loadProject(issue ? file.substr(0, at) : file);
    if (!p) return p.error();
    if (issue) {
        const Issue* wanted = findIssue(*p, file.substr(at + 1));
        if (!wanted) return Error{file, "there is no issue of that mark", "lintel-cli issues FILE lists them."};
        p = projectOf(*p, wanted->id);
        if (!p) return p.error();
    }
    auto book = loadRuleBook(p->basis.ruleBook, p->basis.ownValues);
    if (!book) return book.error();
    auto s = std::make_shared<Solved>(Solved{*p, *book, {}});
    s->results = solve(s->project, s->book);
    return s;
}

std::function<std::shared_ptr<const UnderlayContent>(const Underlay&)> underlaysOf(const std::string& projectFile) {
    const auto read = std::make_shared<std::map<std::string, std::shared_ptr<const UnderlayContent>>>();
    return [read, projectFile](const Underlay& u) -> std::shared_ptr<const UnderlayContent> {
        const auto [it, fresh] = read->try_emplace(u.file);
        if (!fresh) return it->second;
        auto content = readUnderlay(underlayFile(u, projectFile));
        if (!content)
            std::cerr << "lintel-cli: " << content.error().text() << "\n";
        else
            it->second = *content;
        return it->second;
    };
}

void drawOffscreen() {
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
}

Ref findNamed(const Solved& s, const std::string& name) {
    const Ref byId = refFrom(name);
    if (s.results.knows(byId)) return byId;
    for (Ref r : s.results.order)
        if (nameOf(s.project, r) == name) return r;
    for (const Circuit& c : s.project.circuits)
        if (nameOf(s.project, c.id) == name) return c.id;
    return {};
}
Error notNamed(const std::string& name) {
    return {name, "there is no board, transformer, source or circuit of that name",
            "Names are as on the schedules, for instance LK-1 or LK-1-14."};
}

} // namespace lintel

namespace {

/// What has no place in a DXF file is told, once a file.
std::optional<Error> tellDxf(const Outcome<DxfLeftOut>& done, const fs::path& to) {
    if (!done) return done.error();
    std::cout << to.string() << "\n";
    if (done->pictures > 0)
        std::cerr << fmt::format("lintel-cli: {}: {} left out\n", to.string(),
                                 done->pictures == 1 ? "a picture is" : fmt::format("{} pictures are", done->pictures));
    return std::nullopt;
}

struct IssueOrder {
    std::string file, out;
    std::string since; ///< an earlier file, whose differences are clouded; empty: none
    bool dxf = false;
};

int issue(const IssueOrder& order, int argc, char** argv) {
    const std::string &file = order.file, &out = order.out, &since = order.since;
    const bool dxf = order.dxf;
    auto s = openSolved(file);
    if (!s) return fail(s.error());
    std::shared_ptr<Solved> before;
    if (!since.empty()) {
        auto earlier = openSolved(since);
        if (!earlier) return fail(earlier.error());
        before = *earlier;
    }
    drawOffscreen();
    QGuiApplication app(argc, argv);
    std::error_code ec;
    fs::create_directories(out, ec);
    if (ec) return fail({out, "the folder cannot be made: " + ec.message(), "Choose another one."});
    const SheetInput in{(*s)->project, (*s)->book, (*s)->results, underlaysOf(file), file};
    std::optional<SheetInput> inBefore;
    std::vector<SheetEntry> setBefore;
    if (before) {
        inBefore.emplace(SheetInput{before->project, before->book, before->results, in.underlays, since});
        setBefore = issueSet(*inBefore);
    }
    std::vector<Drawing> all;
    for (const SheetEntry& e : issueSet(in)) {
        Drawing d = before ? markedSince(setBefore, e, (*s)->project.basis) : e.draw();
        const fs::path to = fs::path(out) / (e.file + ".pdf");
        if (auto bad = writePdf({d}, QString::fromStdString(to.string()), pdfAbout((*s)->project, e.title)))
            return fail(*bad);
        std::cout << to.string() << "\n";
        if (e.number == "E-501") {
            const fs::path svg = fs::path(out) / (e.file + ".svg");
            if (auto bad = writeSvg(d, QString::fromStdString(svg.string()))) return fail(*bad);
            std::cout << svg.string() << "\n";
        }
        if (dxf) {
            const fs::path drawing = fs::path(out) / (e.file + ".dxf");
            if (auto bad = tellDxf(writeDxf(d, drawing, sheetDxf(in)), drawing)) return fail(*bad);
        }
        all.push_back(std::move(d));
    }
    if (all.empty()) return fail({file, "there is nothing to issue: the project has no boards", ""});
    const fs::path set = fs::path(out) / "all_sheets.pdf";
    if (auto bad =
            writePdf(all, QString::fromStdString(set.string()), pdfAbout((*s)->project, (*s)->project.basis.title)))
        return fail(*bad);
    std::cout << set.string() << "\n";
    if (const auto cards = allDoorCards(in); !cards.empty()) {
        const fs::path to = fs::path(out) / "door_cards.pdf";
        if (auto bad = writePdf(cards, QString::fromStdString(to.string()), pdfAbout((*s)->project, "Door cards")))
            return fail(*bad);
        std::cout << to.string() << "\n";
    }
    if (dxf)
        for (const auto& [level, name] : planFiles((*s)->project)) {
            const fs::path to = fs::path(out) / (name + ".dxf");
            if (auto bad = tellDxf(writePlanDxf(in, level, to), to)) return fail(*bad);
        }
    const auto snags = findSnags((*s)->project, (*s)->book, (*s)->results);
    const auto stops =
        std::count_if(snags.begin(), snags.end(), [](const Snag& x) { return x.severity == Severity::Stop; });
    if (stops)
        std::cerr << fmt::format("lintel-cli: {} stop {} remain: see `lintel-cli solve`\n", stops,
                                 stops == 1 ? "snag" : "snags");
    return 0;
}

int copyShipped(const std::string& folder, const std::string& name, const std::string& to, bool force) {
    for (const ShippedProject& s : shippedProjects(folder))
        if (s.file.stem() == name) {
            std::error_code ec;
            if (fs::exists(to, ec) && !force)
                return fail({to, "there is a file of that name already", "Choose another name, or add --force."});
            auto p = loadProject(s.file);
            if (!p) return fail(p.error());
            p->extra.drop("about");
            if (auto bad = saveProject(*p, to)) return fail(*bad);
            for (const LinkedFile& linked : linkedFiles(*p)) { // drawings and pictures go along
                ec.clear();
                const fs::path copy = besideProject(linked.name, to);
                fs::create_directories(copy.parent_path(), ec);
                fs::copy_file(besideProject(linked.name, s.file), copy, fs::copy_options::overwrite_existing, ec);
                if (ec)
                    return fail(
                        {textOfPath(copy), "the file cannot be written: " + ec.message(), "Choose another folder."});
            }
            std::cout << to << "\n";
            return 0;
        }
    std::string names;
    for (const ShippedProject& s : shippedProjects(folder))
        names += (names.empty() ? "" : ", ") + s.file.stem().string();
    return fail({name, "there is no such one in " + folder, "There is: " + names});
}

/// One sum of the bench: fields from a JSON text, a file or standard input; "key=value" words go over them.
int runBench(const std::string& name, const std::string& input, const std::vector<std::string>& words, bool text,
             bool list, const std::string& bookId, const std::string& pdf, const std::string& job,
             const std::string& company, int argc, char** argv) {
    if (name.empty()) {
        for (const BenchKind* k : benchKinds()) std::cout << fmt::format("{:12} {}\n", k->name, k->about);
        return 0;
    }
    const BenchKind* kind = benchKind(name);
    if (!kind) {
        std::string known;
        for (const BenchKind* k : benchKinds()) known += (known.empty() ? "" : ", ") + std::string(k->name);
        return fail({name, "there is no such sum on the bench", "There is: " + known});
    }
    auto book = loadRuleBook(!bookId.empty() ? bookId : kind->books == BenchFor::Cables ? "bs-7671" : "nec-2023");
    if (!book) return fail(book.error());
    if (!kind->suits(*book)) return fail(unsuited(*kind, *book));
    if (list) {
        for (const BenchField& f : kind->fields(*book)) {
            std::string about = f.help;
            if (!f.choices.empty()) about += (about.empty() ? "" : " ") + choicesOf(f);
            std::string value = f.value;
            std::replace(value.begin(), value.end(), '\n', ';');
            const bool bare = !f.unit.empty() && !value.empty() && value.find(f.unit) == std::string::npos &&
                              !isLetter(value.back()) && f.type != BenchField::Type::Choice;
            std::cout << fmt::format("{:16} {:28} {}{}{}\n", f.key, f.label, value, bare ? " " + f.unit : "",
                                     about.empty() ? "" : "   (" + about + ")");
        }
        return 0;
    }
    std::string json = "{}";
    if (input == "-")
        json.assign(std::istreambuf_iterator<char>(std::cin), {});
    else if (!input.empty() && input.front() == '{')
        json = input;
    else if (!input.empty()) {
        auto read = readText(input);
        if (!read) return fail(read.error());
        json = *read;
    }
    auto parsed = parseJson(json, "bench");
    if (!parsed)
        return fail({parsed.error().where, parsed.error().what,
                     "Give an object such as {\"load\": \"16 A\"}, a file, or - for standard input."});
    nlohmann::json& entered = *parsed;
    for (const std::string& w : words) {
        const auto at = w.find('=');
        if (at == std::string::npos || at == 0) return fail({w, "expected key=value", "For instance load=16A."});
        if (entered.is_object()) entered[w.substr(0, at)] = w.substr(at + 1);
    }
    auto answer = bench(*kind, entered, *book);
    if (!answer) return fail(answer.error());
    if (!pdf.empty()) {
        drawOffscreen();
        QGuiApplication app(argc, argv);
        if (auto bad = writePdf(workingSheets(*answer, sheetHead(job, company, *book)), QString::fromStdString(pdf),
                                PdfAbout{answer->working.title, company, job}))
            return fail(*bad);
    }
    std::cout << (text ? answer->text() : answer->json().dump(1) + "\n");
    return 0;
}

/// Why a thing is as it is.
int runExplain(const std::string& file, const std::string& name, bool json, const std::string& pdf, int argc,
               char** argv) {
    auto s = openSolved(file);
    if (!s) return fail(s.error());
    const Project& p = (*s)->project;
    const Ref found = findNamed(**s, name);
    if (!found) return fail(notNamed(name));
    const Working w = explain(p, (*s)->book, (*s)->results, found);
    if (!pdf.empty()) {
        drawOffscreen();
        QGuiApplication app(argc, argv);
        if (auto bad =
                writePdf(workingSheets(w, sheetHead(p, (*s)->book)), QString::fromStdString(pdf), pdfAbout(p, w.title)))
            return fail(*bad);
        std::cout << pdf << "\n";
        return 0;
    }
    if (json)
        std::cout << w.json().dump(1) << "\n";
    else
        std::cout << w.text();
    return 0;
}

/// The larger steps of the plan without a window: rooms, recipes, circuits. Tells what was done; writes where it is
/// told to.
struct PlanSteps {
    bool rooms = false, recipes = false, circuit = false, propose = false, density = false;
    std::string to;
};
int runPlan(const std::string& file, const PlanSteps& steps, bool json) {
    auto s = openSolved(file);
    if (!s) return fail(s.error());
    Project p = (*s)->project;
    nlohmann::ordered_json out = nlohmann::ordered_json::object();
    std::vector<LevelId> levels;
    for (const Level& l : p.levels) levels.push_back(l.id);
    if (steps.rooms) {
        int made = 0, known = 0, leftOut = 0;
        for (LevelId level : levels) {
            std::vector<DxfDrawing::Text> texts;
            for (const Underlay& u : p.underlays)
                if (u.level == level) {
                    auto content = readUnderlay(underlayFile(u, file));
                    if (!content)
                        std::cerr << "lintel-cli: " << content.error().text() << "\n";
                    else
                        for (auto& t : textsOf(u, **content)) texts.push_back(t);
                }
            const FoundRooms found = roomsFromWalls(p, level, texts);
            for (const Room& r : found.rooms) p.rooms.add(r);
            made += int(found.rooms.size());
            known += found.known;
            leftOut += found.leftOut;
        }
        out["rooms"] = {{"made", made}, {"known", known}, {"long_texts_left_out", leftOut}};
    }
    if (steps.recipes) {
        const RecipeReport r = applyRecipes(p, roomsOfKind(p, ""));
        out["recipes"] = {
            {"rooms", r.rooms}, {"withoutRecipe", r.without}, {"placed", r.placed}, {"shifted", r.shifted},
            {"kept", r.kept},   {"removed", r.removed},       {"notes", r.notes}};
    }
    if (steps.circuit) {
        const CircuitingReport r = circuitAutomatically(p, (*s)->book, levels, steps.propose);
        nlohmann::ordered_json boards = nlohmann::ordered_json::array(), left = nlohmann::ordered_json::array();
        for (const auto& b : r.shares)
            boards.push_back(
                {{"board", p.boards[b.board].name}, {"circuits", b.circuits}, {"devices", b.devices}, {"va", b.va}});
        for (const auto& l : r.left)
            left.push_back({{"device", nameOf(p, Ref(l.device))}, {"id", textOf(l.device)}, {"why", l.why}});
        nlohmann::ordered_json proposed = nlohmann::ordered_json::array();
        for (BoardId b : r.boards) proposed.push_back(p.boards[b].name);
        out["circuiting"] = {{"devices", r.devices}, {"circuits", r.circuits}, {"remade", r.remade},
                             {"boards", boards},     {"proposed", proposed},   {"left", left}};
    }
    if (steps.density) {
        const Results results = solve(p, (*s)->book);
        nlohmann::ordered_json list = nlohmann::ordered_json::array();
        for (LevelId level : levels) {
            const LevelDensity d = densityOf(p, results, level);
            nlohmann::ordered_json rooms = nlohmann::ordered_json::array();
            for (const auto& [room, x] : d.rooms)
                rooms.push_back({{"room", nameOf(p, Ref(room))},
                                 {"squareMetres", x.squareMetres},
                                 {"va", x.va},
                                 {"lightingVa", x.lightingVa},
                                 {"vaPerSquareMetre", x.perSquareMetre()}});
            list.push_back({{"level", p.levels[level].name},
                            {"va", d.level.va},
                            {"squareMetres", d.level.squareMetres},
                            {"vaPerSquareMetre", d.level.perSquareMetre()},
                            {"rooms", rooms}});
        }
        out["density"] = list;
    }
    if (json) {
        std::cout << out.dump(1) << "\n";
    } else {
        if (out.contains("rooms"))
            std::cout << fmt::format("rooms       {} made, {} there already\n", out["rooms"]["made"].get<int>(),
                                     out["rooms"]["known"].get<int>());
        if (out.contains("recipes"))
            std::cout << fmt::format(
                "recipes     {} rooms: {} placed, {} shifted, {} kept as moved by hand, {} removed\n",
                out["recipes"]["rooms"].get<int>(), out["recipes"]["placed"].get<int>(),
                out["recipes"]["shifted"].get<int>(), out["recipes"]["kept"].get<int>(),
                out["recipes"]["removed"].get<int>());
        if (out.contains("recipes"))
            for (const auto& n : out["recipes"]["notes"]) std::cout << "            " << n.get<std::string>() << "\n";
        if (out.contains("circuiting")) {
            std::cout << fmt::format("circuiting  {} devices on {} circuits, {} left\n",
                                     out["circuiting"]["devices"].get<int>(), out["circuiting"]["circuits"].get<int>(),
                                     out["circuiting"]["left"].size());
            for (const auto& b : out["circuiting"]["boards"])
                std::cout << fmt::format("            {:10} {} circuits, {:.1f} kVA\n", b["board"].get<std::string>(),
                                         b["circuits"].get<int>(), b["va"].get<double>() / 1000);
            for (const auto& l : out["circuiting"]["left"])
                std::cout << fmt::format("            left: {} ({}): {}\n", l["device"].get<std::string>(),
                                         l["id"].get<std::string>(), l["why"].get<std::string>());
        }
        if (out.contains("density"))
            for (const auto& l : out["density"])
                for (const auto& r : l["rooms"])
                    std::cout << fmt::format("density     {:14} {:28} {:9.1f} m² {:10.0f} VA {:8.1f} VA/m²\n",
                                             l["level"].get<std::string>(), r["room"].get<std::string>(),
                                             r["squareMetres"].get<double>(), r["va"].get<double>(),
                                             r["vaPerSquareMetre"].get<double>());
    }
    if (!steps.to.empty())
        if (auto bad = saveProject(p, steps.to)) return fail(*bad);
    return 0;
}

/// What the reading of every list can be told.
void addListOptions(CLI::App& command, LoadsOrder& order, const std::string& columns) {
    command.add_option("FILE", order.file, "A .lintel project")->required();
    command.add_option("LIST", order.list, "A CSV or XLSX file")->required();
    command.add_option("--columns", order.columns,
                       "What each column means: " + columns + "; by itself guessed by heading");
    command.add_option("--header", order.header, "The row of headings, from 1, or none");
    command.add_option("--unit", order.unit, "Of loads that do not say theirs");
    command.add_option("--decimal", order.decimal, "point or comma");
    command.add_option("--delimiter", order.delimiter, "Of a CSV: one sign, or tab");
    command.add_option("--encoding", order.encoding, "Of a CSV: UTF-8, Windows-1252 …");
    command.add_option("--sheet", order.sheet, "Of an XLSX: the name of the sheet");
    command.add_option("--out", order.out, "The project to write; without it FILE itself");
    command.add_flag("--dry-run", order.dryRun, "Say what it would do, and write nothing");
    command.add_flag("--json", order.json, "As JSON");
}

/// Every command with its options and what it does. The values stand here as they are parsed.
class Program {
public:
    Program(int count, char** given) : argc(count), argv(given) {
        app.require_subcommand(1);
        app.set_version_flag("--version", LINTEL_VERSION);
        addSolve();
        addIssue();
        addNew();
        addBench();
        addPlan();
        addExplain();
        addExport();
        addReport();
        addReview();
        addLevel();
        addTypes();
        addLoads();
        addFeeders();
        addModel();
        addIssues();
        addForms();
        addLists();
        addCompare();
    }
    int run() {
        CLI11_PARSE(app, argc, argv);
        for (const auto& [command, work] : commands)
            if (*command) return work();
        return 1; // require_subcommand: never
    }

private:
    int argc;
    char** argv;
    CLI::App app{"Lintel: circuits, boards, feeders and their sheets, from the command line"};
    std::vector<std::pair<CLI::App*, std::function<int()>>> commands;
    // Of several commands.
    std::string file, out = "sheets", to, from, pdf;
    bool json = false, workings = false, force = false;
    // Of one each.
    std::string since, starter = "us-480", demo = "saltmarket-hall", kind, input, bookId, thing, job, company;
    std::vector<std::string> words;
    bool dxf = false, text = false, fieldsOnly = false;
    PlanSteps steps;
    ExportOrder files;
    ReportCommand report;
    ReviewCommand review;
    LevelOrder level;
    LoadsOrder loads;
    ModelOrder model;
    IssuesOrder issues;
    FormsOrder forms;
    ListsOrder lists;
    SheetsOrder sheets;
    CompareOrder comparison;
    MergeOrder merge;

    void does(CLI::App& command, std::function<int()> work) { commands.emplace_back(&command, std::move(work)); }

    void addSolve() {
        auto* solveCommand = app.add_subcommand("solve", "Work out a project and print boards, circuits and snags");
        solveCommand->add_option("FILE", file, "A .lintel project")->required();
        solveCommand->add_flag("--json", json, "Everything as JSON, with units in the names");
        solveCommand->add_flag("--workings", workings, "With --json: how each number came about");
        auto* assumptionsCommand =
            app.add_subcommand("assumptions", "What the results rest on: assumed, given, held, own values");
        assumptionsCommand->add_option("FILE", file, "A .lintel project")->required();
        assumptionsCommand->add_flag("--json", json, "As JSON");
        does(*solveCommand, [this] { return runSolve(); });
        does(*assumptionsCommand, [this] { return runAssumptions(); });
    }
    void addIssue() {
        auto* issueCommand = app.add_subcommand("issue", "Write all sheets of a project as PDF (and the riser as SVG)");
        issueCommand->add_option("FILE", file, "A .lintel project")->required();
        issueCommand->add_option("--out", out, "The folder to write to")->capture_default_str();
        issueCommand->add_option("--since", since, "An earlier file: what has changed on each sheet is clouded");
        issueCommand->add_flag("--dxf", dxf, "Each sheet as DXF too, and each floor in the units of the building");
        does(*issueCommand, [this] { return issue({file, out, since, dxf}, argc, argv); });
    }
    void addNew() {
        auto* newCommand = app.add_subcommand("new", "Begin a project from a starter");
        newCommand->add_option("FILE", to, "The project to write")->required();
        newCommand->add_option("--starter", starter, "Which starter")->capture_default_str();
        newCommand->add_flag("--force", force, "Replace a file of that name");
        auto* demoCommand = app.add_subcommand("demo", "Write a copy of a demo project");
        demoCommand->add_option("FILE", to, "The project to write")->required();
        demoCommand->add_option("--name", demo, "Which demo")->capture_default_str();
        demoCommand->add_flag("--force", force, "Replace a file of that name");
        does(*newCommand, [this] { return copyShipped("starters", starter, to, force); });
        does(*demoCommand, [this] { return copyShipped("demos", demo, to, force); });
    }
    void addBench() {
        auto* benchCommand =
            app.add_subcommand("bench", "A one-off sum without a project: JSON in, JSON out, with its working");
        benchCommand->add_option("KIND", kind, "Which sum; none: lists them");
        benchCommand->add_option("INPUT", input, "A JSON object, a file that holds one, or - for standard input");
        benchCommand->add_option("--with", words, "key=value, over what INPUT gives")->take_all();
        benchCommand->add_flag("--text", text, "For people instead of JSON");
        benchCommand->add_flag("--fields", fieldsOnly, "The fields of KIND with their defaults");
        benchCommand->add_option("--book", bookId, "The rule book; by itself the one that the sum is for");
        benchCommand->add_option("--pdf", pdf, "Also as a page to print");
        benchCommand->add_option("--job", job, "On the page: the job");
        benchCommand->add_option("--company", company, "On the page: the company");
        does(*benchCommand,
             [this] { return runBench(kind, input, words, text, fieldsOnly, bookId, pdf, job, company, argc, argv); });
    }
    void addPlan() {
        auto* planCommand = app.add_subcommand(
            "plan", "The larger steps of the plan: rooms from walls, recipes, circuits; and load by area");
        planCommand->add_option("FILE", file, "A .lintel project")->required();
        planCommand->add_flag("--rooms", steps.rooms, "Rooms from walls, named by the drawings below them");
        planCommand->add_flag("--recipes", steps.recipes, "Give every room what the recipe of its kind says");
        planCommand->add_flag("--circuit", steps.circuit, "Circuit what has no circuit, by catchments");
        planCommand->add_flag("--propose", steps.propose, "With --circuit: boards where a device lies in no catchment");
        planCommand->add_flag("--density", steps.density, "Load by area of each room");
        planCommand->add_option("--out", steps.to, "The project to write; without it nothing is written");
        planCommand->add_flag("--json", json, "As JSON");
        does(*planCommand, [this] { return runPlan(file, steps, json); });
    }
    void addExplain() {
        auto* explainCommand =
            app.add_subcommand("explain", "Why a board, transformer or circuit is as it is, step by step");
        explainCommand->add_option("FILE", file, "A .lintel project")->required();
        explainCommand->add_option("NAME", thing, "Its name or id, for instance LK-1-14")->required();
        explainCommand->add_flag("--json", json, "As JSON");
        explainCommand->add_option("--pdf", pdf, "As a page to print");
        does(*explainCommand, [this] { return runExplain(file, thing, json, pdf, argc, argv); });
    }
    void addExport() {
        auto* filesCommand = app.add_subcommand("export", "All files of a set in one go, loose or as one archive");
        filesCommand->add_option("FILE", files.file, "A .lintel project, or FILE@MARK: as it was issued")->required();
        filesCommand->add_option("--out", files.out, "The folder to write to")->capture_default_str();
        filesCommand
            ->add_option("--files", files.kinds,
                         "Which: " + choiceWords<IssueFile>() + "; by themselves sheets, dxf, lists, project")
            ->delimiter(',');
        filesCommand->add_option("--sheets", files.sheets, "Only these sheets, by number: E-101,E-501")->delimiter(',');
        filesCommand->add_option("--name", files.name,
                                 "How files are called: {job}, {title}, {issue}, {date}, {status}, {what}; by itself "
                                 "\"{job}-{issue} {what}\"");
        filesCommand->add_flag("--zip", files.archive, "One archive instead of loose files");
        filesCommand->add_flag("--replace", files.replace, "Files of the same names are replaced");
        does(*filesCommand, [this] { return runExport(files, argc, argv); });
    }
    void addReport() {
        auto* reportCommand = app.add_subcommand("report", "The calculations as a PDF to hand in");
        reportCommand->add_option("FILE", report.file, "A .lintel project")->required();
        reportCommand->add_option("--of", report.of, "Only this board, transformer or supply with all it feeds");
        reportCommand->add_flag("--path", report.path, "With --of: only the way from the supply to it");
        reportCommand
            ->add_option("--depth", report.depth, "summary, runs (each circuit in a row) or everything (workings)")
            ->capture_default_str();
        reportCommand->add_option("--out", report.out, "The PDF to write")->capture_default_str();
        does(*reportCommand, [this] { return runReport(report, argc, argv); });
    }
    void addReview() {
        auto* reviewCommand = app.add_subcommand("review", "What was ticked, what has changed since, and the remarks");
        reviewCommand->add_option("FILE", review.file, "A .lintel project")->required();
        reviewCommand->add_flag("--json", review.json, "As JSON");
        does(*reviewCommand, [this] { return runReview(review); });
    }
    void addLevel() {
        auto* levelCommand =
            app.add_subcommand("level", "Level a board: the best for each number of moves, with proof");
        levelCommand->add_option("FILE", level.file, "A .lintel project, or a bare board as JSON")->required();
        levelCommand->add_option("--board", level.board, "The board, by name");
        levelCommand->add_option(
            "--together", level.together,
            "Instead: the boards under this board, transformer or source, by turning their phases");
        levelCommand->add_option("--moves", level.moves, "At most so many circuits moved; without it the best there is")
            ->check(CLI::Range(0, 1200));
        levelCommand->add_option("--out", level.out, "The project to write, levelled; without it nothing is written");
        levelCommand->add_flag("--json", level.json, "As JSON");
        does(*levelCommand, [this] { return runLevel(level); });
    }
    void addTypes() {
        auto* typesCommand =
            app.add_subcommand("types", "The catalogue of types: take one in, or write the project's own");
        typesCommand->require_subcommand(1);
        auto* takeCommand =
            typesCommand->add_subcommand("take", "Types of a catalogue (or of any project) into a project, by name");
        takeCommand->add_option("FILE", file, "A .lintel project")->required();
        takeCommand->add_option("FROM", from, "The catalogue")->required();
        auto* writeCommand = typesCommand->add_subcommand("write", "The types of a project as a catalogue");
        writeCommand->add_option("FILE", file, "A .lintel project")->required();
        writeCommand->add_option("TO", to, "The catalogue to write")->required();
        does(*takeCommand, [this] { return takeFrom(); });
        does(*writeCommand, [this] { return writeTypes(); });
    }
    void addLoads() {
        auto* loadsCommand =
            app.add_subcommand("loads", "Lists of loads: in from CSV or XLSX, out, and what they leave open");
        loadsCommand->require_subcommand(1);
        auto* importCommand =
            loadsCommand->add_subcommand("import", "Read a list into a project; by tag where it was read in before");
        addListOptions(*importCommand, loads, "tag,name,-,load,volts");
        importCommand->add_flag("--remove-gone", loads.removeGone, "Remove loads that the list no longer has");
        importCommand->add_flag("--circuit", loads.circuit, "Then give loads without a circuit one");
        auto* exportCommand = loadsCommand->add_subcommand("export", "Write the listed loads of a project");
        exportCommand->add_option("FILE", loads.file, "A .lintel project")->required();
        exportCommand->add_option("LIST", loads.list, "The CSV or XLSX file to write")->required();
        exportCommand->add_option("--delimiter", loads.delimiter, "Of a CSV: one sign, or tab");
        auto* checkCommand = loadsCommand->add_subcommand(
            "check", "Loads with no circuit, circuits with no cable, boards too small or too large");
        checkCommand->add_option("FILE", loads.file, "A .lintel project")->required();
        checkCommand->add_flag("--json", loads.json, "As JSON");
        does(*importCommand, [this] { return runLoadsImport(loads); });
        does(*exportCommand, [this] { return runLoadsExport(loads); });
        does(*checkCommand, [this] { return runLoadsCheck(loads); });
    }
    void addFeeders() {
        auto* feedersCommand = app.add_subcommand("feeders", "Schedules of feeders: in from CSV or XLSX, and out");
        feedersCommand->require_subcommand(1);
        auto* feedersIn = feedersCommand->add_subcommand(
            "import", "Read a schedule into a project: boards, transformers and loads arise, what is written is held");
        addListOptions(*feedersIn, loads, "feeder,from,to,-,load,conductors");
        auto* feedersOut =
            feedersCommand->add_subcommand("export", "Write the feeders of a project, as they are sized");
        feedersOut->add_option("FILE", loads.file, "A .lintel project")->required();
        feedersOut->add_option("LIST", loads.list, "The CSV or XLSX file to write")->required();
        feedersOut->add_option("--delimiter", loads.delimiter, "Of a CSV: one sign, or tab");
        does(*feedersIn, [this] { return runFeedersImport(loads); });
        does(*feedersOut, [this] { return runFeedersExport(loads); });
    }
    void addModel() {
        auto* command = app.add_subcommand(
            "model", "A building model (IFC, gbXML) into a project: levels, rooms, walls, doors, electrical things");
        command->add_option("FILE", model.file, "A .lintel project")->required();
        command->add_option("MODEL", model.model, "The model: .ifc or .xml")->required();
        command->add_option("--out", model.out, "Write here and leave FILE as it is");
        command->add_flag("--remove-gone", model.removeGone, "Remove what came from the model and is no longer in it");
        command->add_flag("--dry-run", model.dryRun, "Say what would change, and write nothing");
        command->add_flag("--json", model.json, "As JSON");
        does(*command, [this] { return runModel(model); });
    }
    void addIssues() {
        auto* issuesCommand = app.add_subcommand("issues", "What went out: list, the project as it was, a new issue");
        issuesCommand->add_option("FILE", issues.file, "A .lintel project")->required();
        issuesCommand->add_flag("--json", issues.json, "As JSON");
        issuesCommand->add_option("--show", issues.show, "Write the project as it was at this mark, with --out");
        issuesCommand->add_option("--make", issues.make, "Make an issue of this mark; next: the one after the last");
        issuesCommand->add_option("--for", issues.state, "for comment, for tender, for construction, as built")
            ->capture_default_str();
        issuesCommand->add_option("--date", issues.date, "The day on which it goes out");
        issuesCommand->add_option("--reason", issues.reason, "What is new, for the table of revisions");
        issuesCommand->add_option("--by", issues.by, "Who issues it");
        issuesCommand->add_option("--checked", issues.checked, "Who checked it");
        issuesCommand->add_option("--accept", issues.accept, "Who takes on what stands in the way");
        issuesCommand->add_option("--out", issues.out, "The file to write; without it FILE itself");
        does(*issuesCommand, [this] { return runIssues(issues); });
    }
    void addForms() {
        auto* formsCommand =
            app.add_subcommand("forms", "Schedule forms: what there are, a company's file, which board has which");
        formsCommand->add_option("FILE", forms.file, "A .lintel project");
        formsCommand->add_flag("--figures", forms.figures, "What columns can be made of");
        formsCommand->add_option("--take", forms.take, "Take the forms of a file, by name");
        formsCommand->add_option("--write", forms.write, "Write all forms to a file of their own");
        formsCommand->add_option("--use", forms.use, "Draw boards by the form of this name");
        formsCommand->add_option("--board", forms.boards, "Which boards; all: those of its kind")
            ->allow_extra_args(false);
        formsCommand->add_option("--out", forms.out, "The project to write; without it FILE itself");
        does(*formsCommand, [this] { return runForms(forms); });
    }
    void addLists() {
        auto* listsCommand = app.add_subcommand(
            "lists", "Feeders, transformers, motors, take-off and other lists, to the terminal or as CSV or XLSX");
        listsCommand->add_option("FILE", lists.file, "A .lintel project")->required();
        listsCommand->add_option("KEY", lists.keys, "Which lists; none: all");
        listsCommand->add_option("--out", lists.out,
                                 "An .xlsx with a sheet for each, a .csv of one, or a folder of CSV files");
        listsCommand->add_flag("--json", lists.json, "As JSON");
        auto* sheetsCommand =
            app.add_subcommand("sheets", "The sheets of the set with their numbers, and which of them stay");
        sheetsCommand->add_option("FILE", sheets.file, "A .lintel project")->required();
        sheetsCommand
            ->add_option("--number", sheets.numbers, "OLD=NEW: a sheet keeps this number; OLD=: by the order again")
            ->allow_extra_args(false);
        sheetsCommand->add_option("--title", sheets.titles,
                                  "NUMBER=TITLE: a sheet is called so; NUMBER=: as usual again");
        sheetsCommand->add_option("--leave", sheets.leave, "Leave sheets out of the set, by number")->delimiter(',');
        sheetsCommand->add_option("--back", sheets.back,
                                  "Take sheets back that were left out, by their titles; all: every one");
        sheetsCommand
            ->add_option("--compose", sheets.compose,
                         "Put sheets together on a new one, by numbers and keys of lists: E-601,E-602,feeders; or all "
                         "schedules, diagrams or lists, on as many sheets as they take; or what the basis proposes: "
                         "proposed")
            ->allow_extra_args(false);
        sheetsCommand->add_option("--paper", sheets.paper, "Of new sheets: " + choiceWords<SheetPaper>());
        sheetsCommand->add_option("--apart", sheets.apart, "Take composed sheets apart again, by number")
            ->delimiter(',');
        sheetsCommand->add_flag("--keep", sheets.keep, "All keep the numbers that they have");
        sheetsCommand->add_flag("--anew", sheets.anew, "First number all by the order again");
        sheetsCommand->add_option("--out", sheets.out, "The project to write; without it FILE itself");
        sheetsCommand->add_flag("--json", sheets.json, "As JSON");
        does(*listsCommand, [this] { return runLists(lists); });
        does(*sheetsCommand, [this] { return runSheets(sheets); });
    }
    void addCompare() {
        auto* compareCommand =
            app.add_subcommand("compare", "What was entered differently in two files, and what follows from it");
        compareCommand->add_option("FILES", comparison.files, "BEFORE and AFTER; or what git gives to a diff driver")
            ->required()
            ->expected(2, 7);
        auto* asJson = compareCommand->add_flag("--json", comparison.json, "As JSON");
        auto* asText = compareCommand->add_flag("--text", comparison.text, "As text, which it is without saying so");
        compareCommand->add_option("--pdf", comparison.pdf, "As pages to print: the file to write")
            ->excludes(asJson)
            ->excludes(asText);
        asJson->excludes(asText);
        auto* mergeCommand =
            app.add_subcommand("merge", "Two people's work on one project together; what is left to decide by name");
        mergeCommand->add_option("BASE", merge.base, "What both began with")->required();
        mergeCommand->add_option("OURS", merge.ours, "One's work")->required();
        mergeCommand->add_option("THEIRS", merge.theirs, "The other's")->required();
        mergeCommand->add_option("--out", merge.out, "The project to write; without it nothing is written");
        mergeCommand->add_flag("--json", merge.json, "As JSON");
        does(*compareCommand, [this] { return runCompare(comparison, argc, argv); });
        does(*mergeCommand, [this] { return runMerge(merge); });
    }

    int runSolve() const {
        auto s = openSolved(file);
        if (!s) return fail(s.error());
        if (json)
            std::cout << resultsJson((*s)->input(), workings).dump(1) << "\n";
        else
            std::cout << resultsText((*s)->input());
        return 0;
    }
    int runAssumptions() const {
        auto s = openSolved(file);
        if (!s) return fail(s.error());
        if (json)
            std::cout << assumptionsJson((*s)->input()).dump(1) << "\n";
        else
            std::cout << assumptionsText((*s)->input());
        return 0;
    }
    int writeTypes() const {
        const auto p = loadProject(file);
        if (!p) return fail(p.error());
        Project catalogue = catalogueOf(*p);
        relinkFiles(catalogue, file, to);
        if (auto bad = saveProject(catalogue, to)) return fail(*bad);
        std::cout << fmt::format("{}: {} types\n", to, p->deviceTypes.size());
        return 0;
    }
    int takeFrom() const {
        auto p = loadProject(file);
        if (!p) return fail(p.error());
        auto catalogue = loadProject(from);
        if (!catalogue) return fail(catalogue.error());
        relinkFiles(*catalogue, from, file);
        const TakenTypes t = takeTypes(*p, *catalogue);
        if (auto bad = saveProject(*p, file)) return fail(*bad);
        std::cout << fmt::format("{} types added, {} changed, {} the same; {} recipes\n", t.added, t.changed, t.same,
                                 t.recipes);
        return 0;
    }
};

} // namespace

namespace lintel {

int runCommandLine(int argc, char** argv) {
    try {
        return Program(argc, argv).run();
    } catch (const std::bad_alloc&) {
        return fail({"", "there is not enough memory for it", "Nothing was written."});
    } catch (const std::exception& e) {
        return fail({"", std::string("it could not be done: ") + e.what(),
                     "Nothing was changed. Please report it with the file."});
    }
}

} // namespace lintel
