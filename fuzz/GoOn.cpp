#include "fuzz/GoOn.h"

#include "core/check/Assumptions.h"
#include "core/compare/ProjectComparison.h"
#include "core/copy/CopyBranch.h"
#include "core/exchange/FeederList.h"
#include "core/issue/FileNames.h"
#include "core/issue/Issues.h"
#include "core/level/Level.h"
#include "core/lists/Workbook.h"
#include "core/project/Document.h"
#include "core/project/ProjectFile.h"
#include "core/project/RunNames.h"
#include "core/project/Validation.h"
#include "core/report/CalculationReport.h"
#include "core/review/Review.h"
#include "core/rules/DataFolder.h"
#include "core/sheets/RiserPlaces.h"
#include "core/solve/CapacitorBank.h"
#include "core/solve/Solve.h"

#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <functional>
#include <map>
#include <unistd.h>

namespace lintel::fuzz {

namespace {

constexpr std::size_t mostRemedies = 12;
constexpr int mostBoards = 4, mostCopied = 40;

/// Books are read once: reading one takes longer than most inputs.
const RuleBook* bookOf(const Basis& basis) {
    static std::map<std::string, Outcome<RuleBook>> books;
    if (!basis.ownValues.empty()) {
        static std::optional<RuleBook> own;
        auto book = loadRuleBook(basis.ruleBook, basis.ownValues);
        if (!book) return nullptr;
        own = std::move(*book);
        return &*own;
    }
    auto it = books.find(basis.ruleBook);
    if (it == books.end()) it = books.emplace(basis.ruleBook, loadRuleBook(basis.ruleBook)).first;
    return it->second ? &*it->second : nullptr;
}

void checkDrawing(const Drawing& d) {
    if (!(d.width > 0 && d.height > 0 && d.width < 1e7 && d.height < 1e7)) broken("a sheet has no size");
}

/// What is seen is ticked, and stays ticked while nothing changes.
void checkReview(const CheckInput& in) {
    const auto figures = reviewFigures(in);
    if (figures.empty()) return;
    Document d(in.project);
    d.edit("Tick", [&](Project& p) {
        setTick(p, figures.front(), "A", "2026-01-02");
        addRemark(p, figures.back(), "Why?", "B", "2026-01-02");
    });
    if (d.refusal()) broken("a tick makes a project that cannot be: " + d.refusal()->text());
    if (withTicks(figures, d.project()).front().state != TickState::Ticked) broken("what was ticked is not");
}

/// What somebody does on the riser, and the schedule of feeders out and in again.
void checkDistribution(const CheckInput& in) {
    const Project& p = in.project;
    const auto step = [&](const char* what, const std::function<void(Project&)>& edit) {
        Document d(p);
        d.edit(what, edit);
        if (d.refusal()) broken(std::string(what) + " makes a project that cannot be: " + d.refusal()->text());
    };
    int nodes = 0;
    for (Ref node : in.results.order) {
        if (++nodes > mostBoards) break;
        const Ref parent = in.results.node(node)->parent;
        if (branchSize(p, node) <= mostCopied)
            step("Copying", [&](Project& q) { (void)copyBranch(q, node, parent ? parent : node); });
        step("Moving", [&](Project& q) {
            (void)moveBeside(q, in.results, node, 1);
            setGapBefore(q, node, 40);
            setLineLower(q, node, 3);
            setWordsLift(q, node, 12);
        });
        const BoardId board = node.as<Board>();
        if (!board) continue;
        if (const auto bank = capacitorBankFor(p, in.book, in.results, board, 0.98))
            step("Capacitors", [&](Project& q) { (void)addCapacitorBank(q, board, bank->bank); });
    }
    if (const auto names = planRunNames(p, {usualRunPattern, true, true, true}))
        step("Naming", [&](Project& q) { applyRunNames(q, *names); });
    Grid grid;
    grid.rows = feedersOf(p, in.book, in.results);
    const FeederList list = readFeeders(grid, guessFeederSettings(grid, p.basis.units), in.book);
    step("Taking feeders in", [&](Project& q) { (void)applyFeeders(q, in.book, list); });
}

void checkDocuments(const SheetInput& in) {
    if (hasWorkbook(in) == workbookOf(in).empty()) broken("a workbook is promised and empty, or the other way round");
    if (const auto report = calculationReport(in, {}))
        for (const Drawing& page : report->pages) checkDrawing(page);
    if (fileNameOf(usualFilePattern, in.project, "what").size() > 180) broken("the name of a file is too long");
}

} // namespace

void broken(const std::string& what) {
    std::fprintf(stderr, "BROKEN: %s\n", what.c_str());
    std::abort();
}

std::filesystem::path fileOf(const std::uint8_t* data, std::size_t size, const char* ending) {
    static const std::filesystem::path folder = [] {
        std::error_code ec;
        const std::filesystem::path memory = "/dev/shm";
        const auto f = (std::filesystem::is_directory(memory, ec) ? memory : std::filesystem::temp_directory_path()) /
                       ("lintel-fuzz-" + std::to_string(::getpid()));
        std::filesystem::create_directories(f, ec);
        return f;
    }();
    const auto file = folder / (std::string("input") + ending);
    std::ofstream(file, std::ios::binary | std::ios::trunc)
        .write(reinterpret_cast<const char*>(data), std::streamsize(size));
    return file;
}

void goOn(const Project& p) {
    if (auto bad = validate(p)) broken("a project came in that cannot be: " + bad->text());
    const auto again = readProject(writeProject(p), "again");
    if (!again) broken("what was written does not open: " + again.error().text());
    if (!(*again == p)) broken("what was written comes back another");
    const RuleBook* book = bookOf(p.basis);
    if (!book) return;
    const Results r = solve(p, *book);
    const auto snags = findSnags(p, *book, r);
    const CheckInput in{p, *book, r};
    std::size_t remedies = 0;
    for (const Snag& s : snags) {
        if (remedies >= mostRemedies) break;
        for (const Remedy& remedy : remediesFor(in, s)) {
            Document d(p);
            d.edit(remedy.label, remedy.apply);
            if (d.refusal())
                broken("the remedy “" + remedy.label + "” makes a project that cannot be: " + d.refusal()->text());
            d.undoAll();
            if (!(d.project() == p)) broken("undoing a remedy does not bring the project back");
            if (++remedies >= mostRemedies) break;
        }
    }
    int boards = 0;
    for (const Board& b : p.boards) {
        if (++boards > mostBoards) break;
        const LevelChoices choices = levelBoard(p, r, b.id, 2000);
        Document d(p);
        d.edit("Level", [&](Project& q) { applyArrangement(q, choices.best()); });
        if (d.refusal()) broken("levelling makes a project that cannot be: " + d.refusal()->text());
        (void)explain(p, *book, r, b.id).text();
    }
    int circuits = 0;
    for (const Circuit& c : p.circuits) {
        if (++circuits > mostBoards) break;
        (void)explain(p, *book, r, c.id).text();
    }
    checkDistribution(in);
    checkReview(in);
    if (!compareProjects(in, in).nothing()) broken("a project differs from itself");
    const SheetInput sheets{p, *book, r};
    checkDocuments(sheets);
    int drawn = 0;
    for (const Issue& i : p.issues) {
        const auto was = projectOf(p, i.id); // or an Error
        if (was) (void)writeProject(*was);
    }
    for (const SheetEntry& e : issueSet(sheets)) {
        if (++drawn > 12) break;
        checkDrawing(e.draw());
    }
}

} // namespace lintel::fuzz
