// The calculations on sheets of the set: what the basis asks for, with the figures of the results, once each.

#include "core/base/Format.h"
#include "core/check/Assumptions.h"
#include "core/lists/CalculationTables.h"
#include "core/lists/ListForms.h"
#include "core/project/ComposedSheets.h"
#include "core/project/SheetNumbers.h"
#include "core/report/CalculationReport.h"
#include "core/solve/States.h"
#include "tests/Demo.h"
#include "tests/TextsApart.h"

using namespace lintel;

namespace {

std::vector<SheetEntry> calculationsOf(const SheetInput& in) {
    std::vector<SheetEntry> found;
    for (SheetEntry& e : issueSet(in))
        if (e.title.rfind("Calculations", 0) == 0) found.push_back(std::move(e));
    return found;
}

std::string wordsOf(const std::vector<SheetEntry>& sheets) {
    std::string words = "\n";
    for (const SheetEntry& e : sheets) words += e.draw().words() + "\n";
    return words;
}

bool has(const std::string& words, const std::string& line) { return words.find("\n" + line + "\n") != words.npos; }

} // namespace

TEST_CASE("calculations on sheets: as the basis asks, in both demos, with the figures of the results") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        Demo d(name);
        INFO(name);
        d.p.basis.calculationSheets = CalculationSheets::Nothing;
        CHECK(calculationsOf(d.in).empty());
        d.p.basis.calculationSheets = CalculationSheets::Summary;
        const auto summary = calculationsOf(d.in);
        REQUIRE_FALSE(summary.empty());
        CHECK(summary.front().number == "E-951");
        CHECK(summary.front().title == "Calculations");
        const std::string words = wordsOf(summary);
        for (const char* title : {"How it is worked out", "Supplies", "Load and demand", "Feeders as sized",
                                  "Voltage drop", "Fault levels"})
            CHECK(has(words, title));
        CHECK(has(words, "Earth-fault loop") == d.book.metric());
        CHECK_FALSE(has(words, "Branch circuits"));
        for (const Board& b : d.p.boards) {
            INFO(b.name);
            const BoardResult& n = d.r.of(b.id);
            CHECK(has(words, b.name));
            CHECK(has(words, number(n.demand / 1000, 1)));
            if (n.fault.known && !n.fault.runsUnknown) CHECK(has(words, figures(largestFault(d.p, d.r, b.id).kA)));
        }
        d.p.basis.calculationSheets = CalculationSheets::Circuits;
        const std::string all = wordsOf(calculationsOf(d.in));
        CHECK(has(all, "Branch circuits"));
        for (const Circuit& c : d.p.circuits) {
            if (c.use != CircuitUse::Load || d.r.of(c.id).feeder || !d.r.of(c.board).fed) continue;
            INFO(nameOf(d.p, c.id));
            CHECK(has(all, nameOf(d.p, c.id)));
        }
        for (const SheetEntry& e : calculationsOf(d.in)) {
            const Drawing sheet = e.draw();
            CHECK(textsOnTexts(sheet).empty());
            for (const Mark& m : sheet.marks)
                if (const auto* t = std::get_if<TextMark>(&m)) {
                    INFO(t->text);
                    CHECK((t->at.x >= 0 && t->at.x <= sheet.width && t->at.y >= 0 && t->at.y <= sheet.height));
                }
        }
    }
}

TEST_CASE("calculations on sheets: no number twice, the index has the titles that stand on the sheets") {
    Demo d("saltmarket-hall");
    d.p.basis.calculationSheets = CalculationSheets::Circuits;
    for (const auto& [board, number] :
         {std::pair{"LP-1", "E-952"}, {"LP-2", "E-701"}, {"LP-3", "E-802"}, {"LP-4", "E-851"}})
        REQUIRE_FALSE(numberSheet(d.p, {SheetKind::Schedule, d.board(board)}, number));
    const auto set = issueSet(d.in);
    std::set<std::string> numbers;
    const std::string index = "\n" + set.front().draw().words();
    for (const SheetEntry& e : set) {
        INFO(e.number << " " << e.title);
        CHECK(numbers.insert(e.number).second);
        if (!e.kind) CHECK(e.draw().title == e.title);
        CHECK(has(index, e.number + "\n" + e.title));
    }
    CHECK(calculationsOf(d.in).front().number == "E-953");
}

TEST_CASE("calculations on sheets, in the report and among the lists are laid out by one form") {
    Demo d("saltmarket-hall");
    d.p.basis.calculationSheets = CalculationSheets::Summary;
    ListForm form;
    form.list = "drop";
    form.title = "Drop at the ends";
    form.columns = {{"Board", "Panel", false}, {"Verdict", "", true}};
    shapeList(d.p, listKind("drop")->make(d.in), form);
    const auto report = calculationReport(d.in, {});
    REQUIRE(report);
    std::string inReport = "\n";
    for (const Drawing& page : report->pages) inReport += page.words() + "\n";
    const std::string onSheets = wordsOf(calculationsOf(d.in));
    CHECK(inReport.find("Drop at the ends\n") != inReport.npos); // behind the number of its chapter
    CHECK(inReport.find("Voltage drop\n") == inReport.npos);
    CHECK(has(onSheets, "Drop at the ends"));
    CHECK(has(onSheets, "Panel"));
    CHECK_FALSE(has(onSheets, "Voltage drop"));
    CHECK(formedList(d.in, *listKind("drop")).columns.front().heading == "Panel");
    // Taken off the sheets it stays in the report; placed on a composed sheet it stands there only.
    d.p.listForms.change(d.p.listForms.begin()->id)->offSheets = true;
    CHECK_FALSE(has(wordsOf(calculationsOf(d.in)), "Drop at the ends"));
    d.p.listForms.change(d.p.listForms.begin()->id)->offSheets = false;
    const ComposedSheetId sheet = addComposedSheet(d.p);
    placeView(d.p, sheet, {SheetKind::List, {}, "drop"});
    CHECK_FALSE(has(wordsOf(calculationsOf(d.in)), "Drop at the ends"));
    int times = 0;
    for (const SheetEntry& e : issueSet(d.in)) // the index has it as the title of that sheet
        times += e.title != "Drawing index" && has("\n" + e.draw().words(), "Drop at the ends");
    CHECK(times == 1);
}

TEST_CASE("a project begun from a starter has its calculations in the set") {
    for (const char* name : {"us-208", "us-480", "us-shop", "uk-400", "uk-shop", "iec-400", "au-400"}) {
        const Project p = *loadProject(dataFolder() / "starters" / (std::string(name) + ".lintel"));
        INFO(name);
        CHECK(p.basis.calculationSheets == CalculationSheets::Summary);
    }
}
