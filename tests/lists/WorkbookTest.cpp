// The workbook of a project: read by another library, its sums worked out again.

#include "core/lists/Workbook.h"

#include "core/figures/Words.h"
#include "core/formats/Grid.h"
#include "core/project/ProjectFile.h"
#include "tests/Building.h"
#include "tests/SourceTree.h"

#include <fmt/format.h>
#include <fstream>
#include <sstream>
#include <unistd.h>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

std::vector<std::string> readBack(const std::vector<NamedGrid>& grids, const char* reader = "read_workbook.py") {
    const fs::path file = fs::temp_directory_path() / fmt::format("lintel-book-{}.xlsx", ::getpid());
    REQUIRE_FALSE(writeGrids(grids, file));
    const fs::path out = file.string() + ".txt";
    const std::string script = (sourceTree() / "tests" / "lists" / reader).string();
    REQUIRE(
        std::system(fmt::format("/usr/bin/python3 '{}' '{}' > '{}' 2> /dev/null", script, file.string(), out.string())
                        .c_str()) == 0);
    std::ifstream in(out);
    std::vector<std::string> lines;
    for (std::string line; std::getline(in, line);) lines.push_back(line);
    fs::remove(file);
    fs::remove(out);
    return lines;
}

const GridCell& cellOf(const NamedGrid& grid, const std::string& first, const std::string& heading) {
    for (const auto& row : grid.rows)
        if (!row.empty() && row[0].text == first)
            for (std::size_t c = 0; c < row.size(); ++c)
                if (grid.rows[0][c].text == heading) return row[c];
    throw std::runtime_error("no cell " + first + ", " + heading);
}

} // namespace

TEST_CASE("workbook: both demos open elsewhere, sums recompute to the same, headings stay and repeat") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        const Project p = *loadProject(dataFolder() / "demos" / (std::string(name) + ".lintel"));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        const auto lines = readBack(workbookOf({p, book, r}));
        std::size_t boards = 0, sheets = 0, sums = 0;
        for (const std::string& line : lines) {
            INFO(name << ": " << line);
            CHECK(line.find("BAD") == std::string::npos);
            CHECK(line.find("sheet ") == 0);
            CHECK(line.find("frozen True repeated True fits True") != std::string::npos);
            ++sheets;
            sums += line.find("sums 0") == std::string::npos;
            for (const Board& b : p.boards) boards += line.find("sheet " + b.name + " rows") == 0;
        }
        std::size_t withCircuits = 0;
        for (const Board& b : p.boards) withCircuits += !r.on(b.id).empty();
        CHECK(boards == withCircuits);
        CHECK(sheets > boards + 8);
        CHECK(sums >= 2);
    }
}

TEST_CASE("workbook: a spreadsheet program works the sums out to the same, and follows when numbers change") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        const Project p = *loadProject(dataFolder() / "demos" / (std::string(name) + ".lintel"));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        const auto lines = readBack(workbookOf({p, book, r}), "recompute_workbook.py");
        for (const std::string& line : lines) {
            INFO(name << ": " << line);
            CHECK(line.find("BAD") == std::string::npos);
        }
        REQUIRE(lines.size() == 1);
        CHECK(std::stoi(lines[0].substr(std::string("recomputed ").size())) >= 10);
    }
}

TEST_CASE("workbook: a total is a formula only where it is the sum of what stands above it") {
    List list{"x", "Sums & more", {{"What"}, {"A", "", Align::Right}, {"B", "%", Align::Right}}, {}, {"A note"}};
    list.group("First");
    list.add({}, {{"one"}, {"1.25", 1.25}, {"10", 10}});
    list.add({}, {{"two"}, {"2.50", 2.5}, {"20", 20}});
    list.total({{"First, all"}, {"3.75", 3.75}, {"15", 15}}); // B is a mean
    list.group("Second");
    list.add({}, {{"=three"}, {"4", 4}, {"30", 30}});
    list.total({{"Second, all"}, {"4", 4}, {"30", 30}});
    list.total({{"All"}, {"7.75", 7.75}, {"20", 20}});
    const NamedGrid grid = sheetOf(list, "Job & Co");
    using Ranges = std::vector<std::pair<std::size_t, std::size_t>>;
    CHECK(cellOf(grid, "First, all", "A").sumOf == Ranges{{2, 3}});
    CHECK(cellOf(grid, "First, all", "B, %").sumOf.empty());
    CHECK(cellOf(grid, "Second, all", "A").sumOf == Ranges{{6, 6}});
    CHECK(cellOf(grid, "All", "A").sumOf == Ranges{{2, 3}, {6, 6}});
    CHECK(cellOf(grid, "All", "B, %").sumOf.empty());
    CHECK(cellOf(grid, "one", "A").decimals == 2);
    const auto lines = readBack({grid});
    std::string all;
    for (const std::string& line : lines) all += line + "\n";
    INFO(all);
    REQUIRE(lines.size() == 1); // and "=three" is no formula
    CHECK(lines[0].find("sheet Sums & more rows 10 sums 4") == 0);
}

TEST_CASE("workbook: the schedule of a board has its circuits by place in the columns of its form") {
    const Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    for (const Board& b : p.boards) {
        if (b.name != "LP-1") continue;
        const List l = scheduleList(in, b.id);
        CHECK(l.rows.size() == r.on(b.id).size());
        for (const ListEntry& row : l.rows) {
            const Circuit& c = p.circuits[row.about.as<Circuit>()];
            INFO(nameOf(p, c.id));
            CHECK(row.cells[0].text.find(fmt::format("{}", c.slot)) == 0);
            bool serves = false;
            for (const ListCell& cell : row.cells) serves = serves || cell.text == servesWords(p, r, c.id);
            CHECK(serves);
        }
    }
}
