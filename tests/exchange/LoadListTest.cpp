#include "core/exchange/LoadList.h"
#include "core/base/Parse.h"
#include "core/plan/CircuitMissing.h"
#include "core/project/Document.h"
#include "core/project/ProjectFile.h"
#include "core/project/TypedLoads.h"
#include "core/project/Validation.h"
#include "tests/SourceTree.h"
#include "tests/World.h"

#include <cstdlib>
#include <fmt/format.h>
#include <fstream>
#include <unistd.h>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

struct Folder {
    fs::path path =
        fs::temp_directory_path() / ("lintel-lists-" + std::to_string(::getpid()) + "-" + std::to_string(next++));
    static inline int next = 0;
    Folder() { fs::create_directories(path); }
    ~Folder() { fs::remove_all(path); }
    fs::path file(const std::string& name, const std::string& bytes) const {
        std::ofstream(path / name, std::ios::binary) << bytes;
        return path / name;
    }
};

Grid gridOf(const std::string& csv, GridOptions options = {}) {
    Folder f;
    auto g = readGrid(f.file("list.csv", csv), options);
    if (!g) FAIL(g.error().text());
    return *g;
}
LoadList listFrom(const std::string& csv, const Project& p) {
    const Grid g = gridOf(csv);
    return readLoads(g, guessSettings(g), p);
}
bool says(const ListRow& r, const std::string& words) {
    return std::any_of(r.problems.begin(), r.problems.end(),
                       [&](const ListProblem& p) { return p.text.find(words) != std::string::npos; });
}
std::string utf16(const std::string& ascii, bool big) {
    std::string out;
    for (char c : ascii) out += big ? std::string{'\0', c} : std::string{c, '\0'};
    return out;
}

const std::string sample = "Tag,Description,Room,kW,Volts,Ph,Board,PF\nEF-1,Exhaust "
                           "fan,Plant,0.75,120,1,LP-1,0.85\nRTU-1,Roof-top unit,Roof,14.2,208,3,LP-1,0.9\n";

} // namespace

TEST_CASE("numbers as people write them") {
    struct Case {
        const char* text;
        double value;
        char decimal = '.';
    };
    const Case good[] = {{"1250", 1250},       {"1,250", 1250},      {"1,250", 1.25, ','},   {"1.250", 1.25},
                         {"1.250", 1250, ','}, {"1.250,5", 1250.5},  {"1,250.5", 1250.5},    {"7,5", 7.5},
                         {"0,750", 0.75},      {"0.750", 0.75, ','}, {" 12 500 ", 12500},    {"12\u00a0500", 12500},
                         {"\u22123", -3},      {"1e3", 1000},        {"1,234,567", 1234567}, {"1.234.567", 1234567},
                         {"1'250", 1250},      {".5", 0.5}};
    for (const Case& c : good) {
        INFO(c.text);
        REQUIRE(numberFrom(c.text, c.decimal));
        CHECK(*numberFrom(c.text, c.decimal) == Approx(c.value));
    }
    for (const char* bad :
         {"", "abc", "12 kW", "1,2,3", "1..5", "12 5 x", "--3", "1,25.0,5", "1 2,", "0x10", "nan", "inf", "1e999"}) {
        INFO(bad);
        CHECK_FALSE(numberFrom(bad));
    }
    CHECK(loadFrom("7.5 hp")->unit == LoadUnit::hp);
    CHECK(loadFrom("2kW")->amount == 2);
    CHECK_FALSE(loadFrom("2 kN"));
    CHECK_FALSE(loadFrom("-2 kW"));
    CHECK(*metresFrom("10 ft", UnitSystem::Metric) == Approx(3.048));
    CHECK(*metresFrom("1' 6\"", UnitSystem::Metric) == Approx(0.4572));
    CHECK(*metresFrom("36", UnitSystem::Imperial) == Approx(10.9728));
    CHECK_FALSE(metresFrom("far", UnitSystem::Metric));
}

TEST_CASE("a list comes in whatever its delimiter, encoding and decimal sign are") {
    OneBoard w;
    const auto check = [&](const Grid& g) {
        const LoadList list = readLoads(g, guessSettings(g), w.p);
        REQUIRE(list.rows.size() == 2);
        CHECK(list.rows[0].load.tag == "EF-1");
        CHECK(list.rows[0].load.name == "Exhaust fan");
        CHECK(list.rows[0].load.amount == Approx(0.75));
        CHECK(list.rows[0].load.unit == LoadUnit::kW);
        CHECK(list.rows[0].load.powerFactor == Approx(0.85));
        CHECK(list.rows[1].load.poles == 3);
        CHECK(list.rows[1].load.amount == Approx(14.2));
        CHECK(list.rows[1].board == "LP-1");
        CHECK(list.entering() == 2);
    };
    check(gridOf(sample));
    for (char d : {';', '\t', '|'}) {
        std::string other = sample;
        std::replace(other.begin(), other.end(), ',', d);
        const Grid g = gridOf(other);
        CHECK(g.delimiter == d);
        check(g);
    }
    std::string comma = sample; // as spreadsheets of the continent write it
    std::replace(comma.begin(), comma.end(), ',', ';');
    std::replace(comma.begin(), comma.end(), '.', ',');
    check(gridOf(comma));
    check(gridOf("\xEF\xBB\xBF" + sample));
    CHECK(gridOf("\xFF\xFE" + utf16(sample, false)).encoding == "UTF-16LE");
    check(gridOf("\xFF\xFE" + utf16(sample, false)));
    check(gridOf("\xFE\xFF" + utf16(sample, true)));
    check(gridOf(utf16(sample, false)));
    std::string lines = sample; // as written under another system
    for (std::size_t at = 0; (at = lines.find('\n', at)) != std::string::npos; at += 2) lines.replace(at, 1, "\r\n");
    check(gridOf(lines));
    // Letters of Windows-1252, found by looking and told apart from UTF-8.
    const Grid west = gridOf("Tag;Name;kW\nL\xFC-1;L\xFC"
                             "fter 5 \x80;1,5\n");
    CHECK(west.encoding == "Windows-1252");
    CHECK(west.rows[1][1] == "Lüfter 5 €");
    // Quotes with the delimiter, a line break and quotes inside.
    const Grid quoted = gridOf("Tag,Name,kW\nA-1,\"Fan, \"\"big\"\"\nroof\",2\n");
    REQUIRE(quoted.rows.size() == 2);
    CHECK(quoted.rows[1][1] == "Fan, \"big\"\nroof");
    // By hand where the guess is wrong.
    GridOptions by;
    by.delimiter = ';', by.encoding = "ISO-8859-1";
    CHECK(gridOf("Tag;Name\nA,1;B\n", by).rows[1][0] == "A,1");
}

TEST_CASE("one phase between two lines takes two poles, whether the column counts phases or poles") {
    OneBoard w; // LP-1, 208Y/120
    const std::string name = w.p.boards[w.board].name;
    const auto poles = [&](const std::string& heading, const std::string& cell, const std::string& volts,
                           const std::string& board) {
        const LoadList l = listFrom(
            "Tag,Name,kW," + heading + ",Volts,Board\nX-1,Heater,3," + cell + "," + volts + "," + board + "\n", w.p);
        REQUIRE(l.rows.size() == 1);
        return l.rows[0].load.poles;
    };
    CHECK(poles("Ph", "1", "208", name) == 2);
    CHECK(poles("Ph", "1", "120", name) == 1);
    CHECK(poles("Phase", "1ph", "208", "") == 2);
    CHECK(poles("Ph", "3", "208", name) == 3);
    CHECK(poles("Poles", "1", "208", name) == 1); // said as poles: a problem of its volts, not ours to change
    CHECK(poles("Poles", "1ph", "208", name) == 2);
    CHECK(poles("Ph", "single", "480", "") == 2);
    CHECK(poles("Ph", "1", "277", "") == 1);
    CHECK(poles("Ph", "1", "240", "") == 2);
    w.p.boards.change(w.board)->system = VoltageSystem::Y400;
    CHECK(poles("Ph", "1", "240", "") == 1); // where boards give 230 V to one pole
    CHECK(poles("Ph", "1", "230", name) == 1);
    CHECK(poles("Ph", "1", "400", name) == 2);
}

TEST_CASE("what is wrong with a row is said of its cell, and the others enter all the same") {
    OneBoard w;
    const LoadList list = listFrom("Tag,Name,kW,Volts,Phases,Board,PF,Qty,Kind\n"
                                   "A-1,Fan,1.5,120,1,LP-1,0.9,1,motor\n"
                                   "A-2,Fan,-3,120,1,LP-1,0.9,1,motor\n"
                                   "A-1,Fan,2,120,1,LP-1,0.9,1,motor\n"
                                   "A-3,Fan,two,120,1,LP-1,0.9,1,motor\n"
                                   "A-4,Fan,2,,7,LP-1,0.9,1,motor\n"
                                   "A-5,Fan,2,480,3,LP-1,0.9,1,motor\n"
                                   ",Heater,2,120,1,LP-1,90%,2,heating\n"
                                   "A-6,Fan,2,120,1,LP-1,0.9,0,wibble\n"
                                   "A-7,,,120,1,LP-1,0.9,1,motor\n"
                                   "A-8,Fan,#REF!,120,1,LP-1,0.9,1,motor\n"
                                   "A-9,Fan,1,120,1,LP-1,0.9,1,motor,extra,cells\n"
                                   "Total,,99\n\n",
                                   w.p);
    REQUIRE(list.rows.size() == 11);
    CHECK(list.rows[0].problems.empty());
    CHECK(says(list.rows[1], "below nothing"));
    CHECK(says(list.rows[2], "the tag A-1 stands in line 2 already"));
    CHECK(says(list.rows[3], "“two” is not a load"));
    CHECK(says(list.rows[4], "phases or poles"));
    CHECK(says(list.rows[5], "LP-1 gives 208 V"));
    CHECK(list.rows[5].enters()); // worth a look, and it is for the designer to say
    CHECK(says(list.rows[6], "no tag"));
    CHECK(list.rows[6].load.powerFactor == Approx(0.9));
    CHECK(says(list.rows[7], "quantity"));
    CHECK(says(list.rows[7], "taken as equipment"));
    CHECK(says(list.rows[8], "it says no load"));
    CHECK(says(list.rows[9], "error of the spreadsheet"));
    CHECK(says(list.rows[10], "11 cells under 9 headings"));
    CHECK(list.entering() == 4);
    CHECK(list.stopped() == 7);
    CHECK(list.rows[3].problems[0].column == 2);
    CHECK(list.rows[3].line == 5);
    REQUIRE_FALSE(list.notes.empty());
    CHECK(list.notes[0] == "1 row of totals passed over");
}

TEST_CASE("files that are no lists are refused in words, quickly and without filling the memory") {
    Folder f;
    const auto error = [&](const fs::path& file, GridOptions o = {}) {
        const auto g = readGrid(file, o);
        return g ? std::string("read") : g.error().text();
    };
    CHECK(error(f.path / "nothing.csv").find("cannot be opened") != std::string::npos);
    CHECK(error(f.path).find("folder") != std::string::npos);
    CHECK(error(f.file("empty.csv", "")).find("empty") != std::string::npos);
    CHECK(error(f.file("line.csv", "Tag,kW\n" + std::string(3'000'000, 'x'))).find("longer than 1 MB") !=
          std::string::npos);
    // A gigabyte in one line, as a hole in a file: it is left after the first megabytes.
    const fs::path hole = f.file("hole.csv", "Tag,kW\n");
    fs::resize_file(hole, std::uintmax_t(1) << 30);
    CHECK(error(hole).find("longer than 1 MB") != std::string::npos);
    CHECK(error(f.file("cell.csv", "Tag,kW\n\"" + std::string(50'000, 'x') + "\",1\n")).find("32767 signs") !=
          std::string::npos);
    std::string wide;
    for (int i = 0; i < 700; ++i) wide += "1,";
    CHECK(error(f.file("wide.csv", wide + "\n")).find("500 columns") != std::string::npos);
    CHECK(error(f.file("broken.xlsx", "PK\x03\x04 this is not a zip at all")).find("cannot be opened") !=
          std::string::npos);
    CHECK(error(f.file("old.xls", "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1")).find("old binary kind") != std::string::npos);
    GridOptions odd;
    odd.encoding = "EBCDIC-NOWHERE";
    CHECK(error(f.file("a.csv", sample), odd).find("no encoding") != std::string::npos);
    // Bytes that are nothing.
    std::string noise;
    std::uint32_t seed = 7;
    for (int i = 0; i < 60'000; ++i) noise += char((seed = seed * 1664525u + 1013904223u) >> 24);
    const auto g = readGrid(f.file("noise.csv", noise));
    if (g) {
        const LoadList list = readLoads(*g, guessSettings(*g), Project{});
        CHECK(list.entering() == 0);
    }
    // Stopped on the way.
    GridOptions stop;
    stop.progress = [](double) { return false; };
    CHECK(error(f.file("b.csv", sample), stop).find(readingStopped) != std::string::npos);
}

TEST_CASE("a workbook comes in with its title, merged cells, formulas and totals") {
    Folder f;
    const fs::path script = sourceTree() / "tests" / "exchange" / "make_xlsx.py";
    REQUIRE(std::system(("/usr/bin/python3 '" + script.string() + "' '" + f.path.string() + "'").c_str()) == 0);
    const auto g = readGrid(f.path / "equipment.xlsx");
    REQUIRE(g);
    CHECK(g->sheets == std::vector<std::string>{"Cover", "Equipment"});
    CHECK(g->sheet == "Equipment");
    OneBoard w;
    const ListSettings s = guessSettings(*g);
    CHECK(s.unit == LoadUnit::kW);
    const LoadList list = readLoads(*g, s, w.p);
    REQUIRE(list.rows.size() == 5);
    CHECK(list.rows[0].line == 4);
    CHECK(list.rows[1].load.where == "Plant deck"); // merged with the row above
    CHECK(list.rows[1].load.amount == 1.5);
    CHECK(says(list.rows[2], "it says no load")); // a formula that was never worked out
    CHECK(says(list.rows[3], "below nothing"));
    CHECK(says(list.rows[4], "the tag EF-2 stands in line 5 already"));
    CHECK(list.newBoards.empty()); // both rows for PP-9 are stopped
    bool formulas = false, merged = false;
    for (const std::string& n : list.notes)
        formulas = formulas || n.find("2 formulas") == 0, merged = merged || n.find("1 merged") == 0;
    CHECK(formulas);
    CHECK(merged);
    CHECK(readGrid(f.path / "empty.xlsx").error().what.find("empty") != std::string::npos);
    GridOptions o;
    o.sheet = "Nowhere";
    CHECK(readGrid(f.path / "equipment.xlsx", o).error().help.find("Cover, Equipment") != std::string::npos);
}

TEST_CASE("a list enters as one edit; the next one shows what it adds, changes and no longer has; out and in again "
          "changes nothing") {
    OneBoard w;
    Document d(w.p);
    const std::string before = writeProject(d.project());
    const LoadList first = listFrom(sample + "P-1,Pump,Pit,2.2,208,3,PP-2,0.8\n", d.project());
    CHECK(first.newBoards == std::vector<std::string>{"PP-2"});
    REQUIRE(d.edit("Import loads", [&](Project& p) {
        const Applied a = applyList(p, first);
        CHECK(a.added == 3);
        CHECK(a.boards == 1);
    }));
    REQUIRE_FALSE(validate(d.project()));
    const auto tagged = [&](const std::string& tag) -> const Load& {
        return *std::find_if(d.project().loads.begin(), d.project().loads.end(),
                             [&](const Load& l) { return l.tag == tag; });
    };
    CHECK(d.project().boards[tagged("P-1").board].name == "PP-2");
    CHECK(d.project().boards[tagged("P-1").board].system == VoltageSystem::Y208);
    CHECK(compareList(d.project(), first).same == 3);
    // The next issue of the list: one is larger, one is new, one is gone, one is sent to another board.
    d.edit("circuits", [&](Project& p) { CHECK(circuitMissing(p, nec()).circuits.size() == 3); });
    const CircuitId pump = tagged("P-1").circuit;
    REQUIRE(pump);
    const LoadList second =
        listFrom("Tag,Description,Room,kW,Volts,Ph,Board,PF\nEF-1,Exhaust "
                 "fan,Plant,1.1,120,1,LP-1,0.85\nP-1,Pump,Pit,2.2,208,3,LP-1,0.8\nP-2,Pump,Pit,2.2,208,3,PP-2,0.8\n",
                 d.project());
    const ListDifference diff = compareList(d.project(), second);
    REQUIRE(diff.added.size() == 1);
    REQUIRE(diff.changed.size() == 2);
    REQUIRE(diff.gone.size() == 1);
    CHECK(diff.changed[0].what == std::vector<std::string>{"load 0.75 kW → 1.1 kW"});
    CHECK(diff.changed[1].what == std::vector<std::string>{"board PP-2 → LP-1"});
    CHECK(d.project().loads[diff.gone[0]].tag == "RTU-1");
    Project kept = d.project();
    applyList(kept, second);
    CHECK(kept.loads.size() == 4); // what is gone stays unless it is asked for
    d.edit("Import loads", [&](Project& p) { applyList(p, second, {true, true}); });
    CHECK(d.project().loads.size() == 3);
    CHECK(tagged("P-1").circuit == pump); // it had its circuit to itself, and took it along
    CHECK(d.project().boards[d.project().circuits[pump].board].name == "LP-1");
    CHECK(tagged("EF-1").amount == 1.1);
    CHECK(tagged("EF-1").circuit);
    // Out as CSV and as XLSX, and in again.
    Folder f;
    for (const char* name : {"out.csv", "out.xlsx"}) {
        INFO(name);
        REQUIRE_FALSE(writeGrid(listOf(d.project()), f.path / name, "Loads"));
        const auto g = readGrid(f.path / name);
        REQUIRE(g);
        const LoadList again = readLoads(*g, guessSettings(*g), d.project());
        CHECK(again.stopped() == 0);
        const ListDifference none = compareList(d.project(), again);
        CHECK(none.added.empty());
        CHECK(none.changed.empty());
        CHECK(none.gone.empty());
        CHECK(none.same == 3);
    }
    d.undoAll();
    CHECK(writeProject(d.project()) == before);
}

TEST_CASE("loads without a circuit get one by rule") {
    OneBoard w;
    w.p.basis.circuitPoints = 4;
    const auto add = [&](const char* tag, double amount, LoadUnit unit, int poles, LoadKind kind, const char* where,
                         double volts = 0) {
        Load l;
        l.tag = l.name = tag, l.amount = amount, l.unit = unit, l.poles = poles, l.kind = kind, l.where = where,
        l.volts = volts, l.board = w.board;
        return w.p.loads.add(l);
    };
    for (int i = 0; i < 5; ++i)
        add(("R-" + std::to_string(i)).c_str(), 180, LoadUnit::VA, 1, LoadKind::Receptacle,
            "Hall");                                                // 1.5 A each: four to a circuit
    add("R-9", 180, LoadUnit::VA, 1, LoadKind::Receptacle, "Yard"); // another place: another circuit
    add("H-1", 1.5, LoadUnit::kW, 1, LoadKind::Heating, "Hall");    // 12.5 A: its own
    add("M-1", 10, LoadUnit::hp, 3, LoadKind::Motor, "Plant");
    const LoadId far = add("M-2", 10, LoadUnit::kW, 3, LoadKind::Motor, "Plant", 480); // the board gives 208
    const Circuited c = circuitMissing(w.p, nec());
    CHECK(c.circuits.size() == 5);
    CHECK(c.loads == 8);
    REQUIRE(c.left.size() == 1);
    CHECK(c.left[0].find("M-2: LP-1 gives 208 V") == 0);
    CHECK_FALSE(w.p.loads[far].circuit);
    const Results r = w.solved();
    for (CircuitId id : c.circuits) CHECK((r.of(id).placed && !r.of(id).clash));
    checkWhole(w.p, r);
    const LoadReport report = reportLoads(w.p, r);
    CHECK(report.unfed == std::vector<LoadId>{far});
    CHECK(report.noCable.size() == 5);  // no lengths yet
    REQUIRE(report.boards.size() == 1); // 7 poles on 42 slots
    CHECK(report.boards[0].second.find("too large: 7 of 42 slots taken; 12 would hold it") == 0);
    CHECK(reportText(w.p, report).find("M-2") != std::string::npos);
}

TEST_CASE("twenty thousand rows come in and get circuits") {
    std::string csv = "Tag,Name,kW,Volts,Phases,Board\n";
    for (int i = 0; i < 20'000; ++i)
        csv += "E-" + std::to_string(i) + ",Equipment " + std::to_string(i) + "," + std::to_string(1 + i % 9) +
               ".5,208,3,DP-" + std::to_string(i / 40) + "\n";
    Project p;
    const LoadList list = listFrom(csv, p);
    CHECK(list.entering() == 20'000);
    CHECK(list.newBoards.size() == 500);
    CHECK(applyList(p, list).added == 20'000);
    const Circuited c = circuitMissing(p, nec());
    CHECK(c.loads == 500 * 14); // 42 slots hold 14 of three poles
    CHECK(c.left.size() == std::size_t(20'000 - 500 * 14));
}

TEST_CASE("a numeric cell of a workbook is a number, whatever decimal sign texts beside it use") {
    Folder f;
    const auto file = f.path / "mixed.xlsx";
    REQUIRE_FALSE(writeGrid({{"Tag", "Load (kW)"}, {"A", "22.375"}, {"B", "7,5"}, {"C", "1,250"}, {"D", "0.125"}}, file,
                            "Loads"));
    const auto g = readGrid(file);
    REQUIRE(g);
    CHECK(g->isNumber(1, 1));
    CHECK_FALSE(g->isNumber(2, 1)); // "7,5" was written as a text
    const ListSettings s = guessSettings(*g);
    CHECK(s.decimal == ',');
    const LoadList list = readLoads(*g, s, Project());
    REQUIRE(list.rows.size() == 4);
    CHECK(list.rows[0].load.amount == 22.375);
    CHECK(list.rows[1].load.amount == 7.5);
    CHECK(list.rows[2].load.amount == 1.25);
    CHECK(list.rows[3].load.amount == 0.125);
    // Mended by hand it is a text, and goes by the sign of the list.
    Grid mended = *g;
    mended.put(1, 1, "22,375");
    CHECK_FALSE(mended.isNumber(1, 1));
    CHECK(readLoads(mended, s, Project()).rows[0].load.amount == 22.375);
}

TEST_CASE("a bare number under a heading without a unit says what it was taken for") {
    Grid g;
    g.rows = {{"Tag", "Load"}, {"A", "7.5"}, {"B", "600 VA"}, {"C", "3"}};
    g.lines = {1, 2, 3, 4};
    const auto notesOf = [](const Grid& grid) {
        return fmt::format("{}", fmt::join(readLoads(grid, guessSettings(grid, LoadUnit::kW), Project()).notes, "; "));
    };
    CHECK(notesOf(g).find("2 loads have no unit in cell or heading: taken as kW") != std::string::npos);
    g.rows[0][1] = "Load (kW)";
    CHECK(notesOf(g).find("no unit") == std::string::npos);
    g.rows[0] = {"Tag", "Load", "Unit"};
    g.rows[1].push_back("kVA");
    g.rows[3].push_back("W");
    CHECK(notesOf(g).find("no unit") == std::string::npos);
}

TEST_CASE("cells that a spreadsheet would run come back as they were, and are not run") {
    Folder f;
    const std::vector<std::vector<std::string>> rows{
        {"Tag", "Name"},     {"=1+1", "+cmd|' /C calc'!A0"}, {"@SUM(A1)", "-2+3"}, {"-7.5", "+3"},
        {"'quoted", "a\tb"}, {"'=kept", "''@too"},           {" =x", "R&D <h1>"}};
    for (const char* name : {"out.csv", "out.xlsx"}) {
        INFO(name);
        REQUIRE_FALSE(writeGrid(rows, f.path / name, "Loads"));
        const auto back = readGrid(f.path / name);
        REQUIRE(back);
        for (std::size_t r = 0; r < rows.size(); ++r)
            for (std::size_t c = 0; c < rows[r].size(); ++c) CHECK(back->rows[r][c] == rows[r][c]);
    }
    const std::string csv = *readText(f.path / "out.csv");
    for (const char* cell : {"\n=1", ",+cmd", "\n@SUM", ",-2+3", "\" =x"}) CHECK(csv.find(cell) == std::string::npos);
    CHECK(csv.find("\n-7.5") != std::string::npos); // a number needs no sign before it
}

TEST_CASE("control characters and long names never spoil a workbook or a table") {
    Folder f;
    std::string all;
    for (int c = 1; c < 32; ++c) all += char(c);
    const std::string longName(40'000, 'x'), title = "A/B:C*[1]?" + std::string(60, 'y');
    for (const char* name : {"out.csv", "out.xlsx"}) {
        INFO(name);
        REQUIRE_FALSE(writeGrid({{"Name"}, {"a" + all + "b"}, {std::string("x\xFFy")}}, f.path / name, title));
        const auto back = readGrid(f.path / name);
        REQUIRE(back);
        REQUIRE(back->rows.size() >= 3);
        CHECK(back->rows[2][0] == "x\uFFFDy");
    }
    REQUIRE_FALSE(writeGrid({{"Name"}, {longName}}, f.path / "long.xlsx", title));
    CHECK(readGrid(f.path / "long.xlsx"));
}

TEST_CASE("volts and phases of one cell: 460/3/60, 208 V 1 ph; what stands against itself is told") {
    OneBoard w(VoltageSystem::Y480);
    Grid g;
    g.rows = {{"Tag", "Load (kW)", "Volts", "Board"},
              {"P-1", "5", "460/3/60", "LP-1"},
              {"P-2", "5", "208 V 1 ph", ""},
              {"P-3", "5", "480abc", ""},
              {"P-4", "5", "480", "LP-1"}};
    g.lines = {1, 2, 3, 4, 5};
    LoadList list = readLoads(g, guessSettings(g), w.p);
    REQUIRE(list.rows.size() == 4);
    CHECK(list.rows[0].load.volts == 460);
    CHECK(list.rows[0].load.poles == 3);
    CHECK(list.rows[1].load.volts == 208);
    CHECK(list.rows[1].load.poles == 2); // one phase of 208 V lies between two lines
    CHECK(list.rows[2].stops());
    CHECK(list.rows[3].load.poles == 3);
    g.rows = {{"Tag", "Load (kW)", "Volts", "Poles"},
              {"P-1", "5", "460/3/60", "2"},
              {"P-2", "5", "460/3/60", "3"},
              {"P-3", "5", "480", "3xyz"}};
    list = readLoads(g, guessSettings(g), w.p);
    CHECK(list.rows[0].stops());
    CHECK_FALSE(list.rows[1].stops());
    CHECK(list.rows[2].stops());
}

TEST_CASE(
    "a schedule of mechanical equipment comes in as it is: V/Ph/Hz, HP beside kW, MCA and MOCP, dashes for nothing") {
    OneBoard w(VoltageSystem::Y480);
    const LoadList list = listFrom("MECHANICAL EQUIPMENT SCHEDULE,,,,,,,,,\n"
                                   "Tag,Qty,Description,Location,V/Ph/Hz,HP,MCA,MOCP,kW,Fed From\n"
                                   "RTU-1,1,Rooftop unit,Roof,480/3/60,-,68.5,80,-,LP-1\n"
                                   "RTU-2,1,Rooftop unit,Roof,460-3-60,,31,45 A,n/a,LP-1\n"
                                   "EF-2,2,Exhaust fan,Roof,120V 1ph,1/6 HP,,,,LK-1\n"
                                   "P-1,2,Pump,Mech. room,480/3,7-1/2,,,5.6,LP-1\n"
                                   "UH-1,3,Unit heater,Dock,277/1/60,,,,5.0,LP-1\n"
                                   "EWH-1,1,Water heater,Closet,208/1,—,,,4.5,LK-1\n"
                                   "X-1,1,Mystery,Closet,208/1,,,,,LK-1\n",
                                   w.p);
    REQUIRE(list.rows.size() == 7);
    const auto load = [&](std::size_t i) -> const Load& { return list.rows[i].load; };
    CHECK(load(0).volts == 480);
    CHECK(load(0).poles == 3);
    CHECK(load(0).nameplate.ampacity == 68.5);
    CHECK(load(0).nameplate.device == 80);
    CHECK(load(0).amount == 68.5); // no load is said: its ampacity is, which is more
    CHECK(load(0).unit == LoadUnit::A);
    CHECK(says(list.rows[0], "its MCA is taken"));
    CHECK(list.rows[0].enters());
    CHECK(load(1).volts == 460);
    CHECK(load(1).nameplate.device == 45);
    CHECK(load(2).amount == Approx(1 / 6.0));
    CHECK(load(2).unit == LoadUnit::hp);
    CHECK(load(2).poles == 1);
    CHECK(load(3).amount == 7.5); // hp before kW: its current stands in the table of motors
    CHECK(load(3).unit == LoadUnit::hp);
    CHECK(load(3).kind == LoadKind::Motor);
    CHECK(load(4).amount == 5);
    CHECK(load(4).unit == LoadUnit::kW);
    CHECK(load(4).volts == 277);
    CHECK(load(4).kind == LoadKind::Heating);
    CHECK(load(5).amount == 4.5);
    CHECK(load(5).poles == 2); // one phase of 208 V lies between two lines
    CHECK(list.rows[6].stops());
    const auto noted = [&](const std::string& words) {
        return std::any_of(list.notes.begin(), list.notes.end(),
                           [&](const std::string& n) { return n.find(words) != std::string::npos; });
    };
    CHECK(noted("1 row says its load in several columns: hp is taken before kVA, kW and A"));
    CHECK(noted("2 rows with an MCA say no load"));
    CHECK_FALSE(noted("no unit in cell or heading"));
    // Out and in again it is the same.
    Project p = w.p;
    (void)applyList(p, list);
    const auto rows = listOf(p);
    Grid again;
    again.rows = rows;
    for (std::size_t i = 0; i < rows.size(); ++i) again.lines.push_back(int(i) + 1);
    const ListDifference d = compareList(p, readLoads(again, guessSettings(again), p));
    CHECK(d.added.empty());
    CHECK(d.changed.empty());
    CHECK(d.same == 6);
}

TEST_CASE("a board whose name is written otherwise is told, and not taken for the one that there is") {
    OneBoard w;
    const LoadList list = listFrom("Tag,kW,Board\nA-1,2,LP1\nA-2,2,lp-1\nA-3,2,LP-2\n", w.p);
    REQUIRE(list.rows.size() == 3);
    CHECK(says(list.rows[0], "LP1 is made: is LP-1 meant?"));
    CHECK(list.rows[0].enters());
    CHECK(list.rows[1].problems.empty());
    CHECK_FALSE(says(list.rows[2], "meant"));
    CHECK(list.newBoards == std::vector<std::string>{"LP1", "LP-2"});
}

TEST_CASE("ratings of breakers and starting currents beside a load are no loads") {
    OneBoard w;
    const LoadList list = listFrom("Tag,Description,kW,Breaker (A),LRA,FLA,Load amps\n"
                                   "A-1,Fan,2.2,20,33,,\n"
                                   "A-2,Fan,,20,33,8.5,\n"
                                   "A-3,Fan,,20,33,,\n",
                                   w.p);
    REQUIRE(list.rows.size() == 3);
    CHECK(list.rows[0].load.amount == 2.2);
    CHECK(list.rows[0].load.unit == LoadUnit::kW);
    CHECK(list.rows[1].load.amount == 8.5);
    CHECK(list.rows[1].load.unit == LoadUnit::A);
    CHECK(list.rows[2].stops());
}

TEST_CASE("re-import: a circuit goes along with the only load on it, and its made name follows; else it is named") {
    OneBoard w;
    Board second;
    second.name = "LP-2", second.system = VoltageSystem::Y208, second.slots = 12, second.bus = second.main = 100;
    const BoardId two = addBoard(w.p, second);
    const auto listed = [&](const char* tag, const char* name, CircuitId c) {
        Load l;
        l.tag = tag, l.name = name, l.circuit = c, l.board = w.board, l.amount = 1000;
        return w.p.loads.add(l);
    };
    const CircuitId own = addCircuit(w.p, w.board, 1, "Pump"), shared = addCircuit(w.p, w.board, 1, "Fans"),
                    pinned = addCircuit(w.p, w.board, 1, "Heater");
    w.p.circuits.change(own)->madeName = "Pump";
    w.p.circuits.change(pinned)->pinned = true;
    const LoadId pump = listed("P-1", "Pump", own);
    const LoadId fan = listed("F-1", "Fan 1", shared);
    listed("F-2", "Fan 2", shared);
    const LoadId heater = listed("H-1", "Heater", pinned);
    Grid g;
    g.rows = {{"Tag", "Name", "Load (VA)", "Panel"},
              {"P-1", "Circulating pump", "1000", "LP-2"},
              {"F-1", "Fan 1", "1000", "LP-2"},
              {"F-2", "Fan 2", "1000", "LP-1"},
              {"H-1", "Heater", "1000", "LP-2"}};
    g.lines = {1, 2, 3, 4, 5};
    const Applied a = applyList(w.p, readLoads(g, guessSettings(g), w.p));
    CHECK(w.p.loads[pump].circuit == own);
    CHECK(w.p.circuits[own].board == two);
    CHECK(w.p.circuits[own].slot == 1);
    CHECK(w.p.circuits[own].name == "Circulating pump");
    CHECK_FALSE(w.p.loads[fan].circuit);
    CHECK(w.p.circuits[shared].board == w.board);
    CHECK_FALSE(w.p.loads[heater].circuit);
    REQUIRE(a.notes.size() == 3);
    CHECK_THAT(a.notes[0], Catch::Contains("went with its load to LP-2-1"));
    CHECK_THAT(a.notes[1], Catch::Contains("it carries others too"));
    CHECK_THAT(a.notes[2], Catch::Contains("pinned"));
    REQUIRE_FALSE(validate(w.p));
    g.rows = {{"Tag", "Name", "Load (VA)", "Panel"}, {"F-1", "Fan 1", "1000", "LP-2"}};
    const Applied gone = applyList(w.p, readLoads(g, guessSettings(g), w.p), {true, true});
    CHECK(gone.removed == 3);
    CHECK(std::any_of(gone.notes.begin(), gone.notes.end(), [](const std::string& n) {
        return n.find("carries nothing now: Circulating pump") != std::string::npos;
    }));
}

TEST_CASE("loads without a tag go out and come in again as the same loads, by an identity of their own") {
    OneBoard w;
    w.p.basis.title = "Hall";
    w.circuit(1.5, LoadUnit::kW);
    w.circuit(2.5, LoadUnit::kW);
    for (LoadId id : {LoadId{1}, LoadId{2}}) w.p.loads.change(id)->name = "Water heater";
    Load tagged;
    tagged.tag = "EF-1", tagged.name = "Fan", tagged.amount = 0.75, tagged.unit = LoadUnit::kW;
    w.p.loads.add(tagged);
    const LoadId first = w.p.loads.begin()->id;
    auto rows = listOf(w.p);
    REQUIRE(rows[0].back() == identityHeading);
    const auto read = [](std::vector<std::vector<std::string>> cells, const Project& p) {
        Grid g;
        g.rows = std::move(cells);
        for (std::size_t i = 0; i < g.rows.size(); ++i) g.lines.push_back(int(i) + 1);
        return readLoads(g, guessSettings(g), p);
    };
    const ListDifference same = compareList(w.p, read(rows, w.p));
    CHECK(same.same == 3);
    CHECK(same.added.empty());
    // One of them is given a tag and more load there: it is the same load still.
    const auto cell = [&](const char* heading) {
        return std::size_t(std::find(rows[0].begin(), rows[0].end(), heading) - rows[0].begin());
    };
    std::size_t row = 1;
    while (rows[row].back() != identityOf(w.p, first)) ++row;
    auto changed = rows;
    changed[row][cell("Tag")] = "WH-1", changed[row][cell("Load")] = "3";
    const LoadList list = read(changed, w.p);
    const ListDifference d = compareList(w.p, list);
    REQUIRE(d.changed.size() == 1);
    CHECK(d.changed[0].load == first);
    CHECK(d.changed[0].what == std::vector<std::string>{"tag – → WH-1", "load 1.5 kW → 3 kW"});
    Project p = w.p;
    (void)applyList(p, list);
    CHECK(p.loads.size() == 3);
    CHECK(p.loads[first].tag == "WH-1");
    // A row that was copied in the spreadsheet is another load, and says so.
    auto copied = rows;
    copied.push_back(rows[row]);
    const LoadList twice = read(copied, w.p);
    CHECK(says(twice.rows.back(), fmt::format("a copy of line {}: it is taken as another load", row + 1)));
    CHECK(compareList(w.p, twice).added.size() == 1);
    // Another project's loads are none of this one.
    Project other = w.p;
    other.basis.title = "Pier";
    const LoadList foreign = read(rows, other);
    CHECK(says(foreign.rows[row - 1], "no load of this project is this one: it is taken as new"));
    CHECK(compareList(other, foreign).added.size() == 2);
    // In a workbook the column is there and not shown; with tags everywhere there is none.
    Folder f;
    REQUIRE_FALSE(writeGrid(rows, f.path / "out.xlsx", "Loads", ',', identityHeading));
    const auto g = readGrid(f.path / "out.xlsx");
    REQUIRE(g);
    CHECK(compareList(w.p, readLoads(*g, guessSettings(*g), w.p)).same == 3);
    const std::string hidden = "import openpyxl, sys; sheet = openpyxl.load_workbook(sys.argv[1]).active; "
                               "sys.exit([d.hidden for d in sheet.column_dimensions.values()].count(True) != 1)";
    CHECK(std::system(("/usr/bin/python3 -c '" + hidden + "' '" + (f.path / "out.xlsx").string() + "'").c_str()) == 0);
    int n = 0;
    std::vector<LoadId> all;
    for (const Load& l : w.p.loads) all.push_back(l.id);
    for (LoadId l : all) w.p.loads.change(l)->tag = "T-" + std::to_string(++n);
    CHECK(listOf(w.p)[0].back() != identityHeading);
}
