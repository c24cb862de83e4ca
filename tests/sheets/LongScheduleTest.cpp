// Schedules with more rows than a page holds: they go on with their headings, the tally on the last, and nothing is
// lost, split or off the paper.

#include "core/compose/SheetSet.h"
#include "core/sheets/FormFit.h"
#include "core/sheets/Sheets.h"
#include "tests/TextsApart.h"
#include "tests/World.h"

#include <fmt/format.h>
#include <map>

using namespace lintel;

namespace {

/// A board full of circuits of one to three poles in turn, each with a name of its own; the last places are free.
struct Full : OneBoard {
    std::vector<std::string> names;
    Full(BoardForm form, int slots, const std::string& ending = "", bool onePole = false)
        : OneBoard(VoltageSystem::Y208, slots) {
        p.boards.change(board)->form = form;
        for (int i = 0; int(names.size()) < slots; ++i) {
            const int poles = onePole ? 1 : 1 + i % 3;
            const CircuitId c = addCircuit(p, board, poles, "");
            if (!c || p.circuits[c].slot < 1) {
                if (c) p.circuits.remove(c);
                break;
            }
            names.push_back(fmt::format("Load-{:03}{}", i, ending));
            p.circuits.change(c)->name = names.back();
            Load l;
            l.circuit = c;
            l.amount = 180;
            l.poles = poles;
            p.loads.add(l);
        }
    }
};

/// How often each word stands in the texts of some drawings.
std::map<std::string, int> wordsOf(const std::vector<Drawing>& drawings) {
    std::map<std::string, int> words;
    for (const Drawing& d : drawings) {
        std::string text;
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m)) text += t->text + " ";
        for (std::size_t from = 0; from < text.size();) {
            const std::size_t to = text.find(' ', from);
            ++words[text.substr(from, to - from)];
            from = to + 1;
        }
    }
    return words;
}

/// Each name once; on two columns one on either side may go on over the break between two pages, and is named again.
void eachOnce(const std::vector<std::string>& names, const std::vector<Drawing>& pages, BoardForm form,
              std::size_t breaks) {
    const auto words = wordsOf(pages);
    std::size_t again = 0;
    for (const std::string& name : names) {
        INFO(name);
        REQUIRE(words.count(name) == 1);
        CHECK(words.at(name) <= 2);
        again += words.at(name) > 1;
    }
    CHECK(again <= (form == BoardForm::TwoColumn ? 2 * breaks : 0));
}

void nothingOff(const Drawing& d) {
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) {
            INFO(d.number << ": " << t->text);
            CHECK(boxOf(*t).bottom <= d.height);
            CHECK(boxOf(*t).right <= d.width);
        }
    for (const Hotspot& h : d.hotspots) CHECK(h.bottom <= d.height);
    CHECK(textsOnTexts(d) == std::vector<std::string>());
}

} // namespace

TEST_CASE("a schedule of any length goes on over the sheets that it takes: each circuit once, the tally on the last") {
    for (BoardForm form : {BoardForm::TwoColumn, BoardForm::SingleColumn, BoardForm::Ways})
        for (int slots : {84, 108, 168, 252}) {
            INFO(wordOf(form) << " " << slots);
            const Full w(form, slots);
            const Results r = w.solved();
            const SheetInput in{w.p, nec(), r};
            const ScheduleSheets sheets = scheduleSheets(in, w.board);
            std::vector<Drawing> pages;
            for (std::size_t page = 0; page < sheets.all; ++page)
                pages.push_back(panelSchedule(in, w.board, "E-601", page));
            if (slots >= 168 && form != BoardForm::TwoColumn) CHECK(sheets.table > 1);
            eachOnce(w.names, pages, form, sheets.table - 1);
            for (std::size_t page = 0; page < sheets.all; ++page) {
                nothingOff(pages[page]);
                const std::string said = pages[page].words();
                const bool last = page + 1 == sheets.table;
                INFO("page " << page);
                CHECK(!pages[page].headings.empty() == (page < sheets.table));
                CHECK((said.find("Load tally") != std::string::npos) == last);
                CHECK((said.find("This schedule goes on") != std::string::npos) == (page + 1 < sheets.table));
                if (page + 1 < sheets.table)
                    CHECK(said.find(fmt::format("see sheet E-601.{}.", page + 2)) != std::string::npos);
                CHECK(pages[page].number == (page == 0 ? "E-601" : fmt::format("E-601.{}", page + 1)));
            }
        }
}

TEST_CASE("long names make a schedule go on rather than have its rows run into one another") {
    const std::string longName =
        " receptacles along the north wall of the great hall and in the corridor behind it, with "
        "those of the cleaners";
    for (BoardForm form : {BoardForm::TwoColumn, BoardForm::SingleColumn}) {
        INFO(wordOf(form));
        const Full w(form, 84, longName, true);
        const Results r = w.solved();
        const SheetInput in{w.p, nec(), r};
        const ScheduleSheets sheets = scheduleSheets(in, w.board);
        CHECK(sheets.table > 1);
        std::vector<Drawing> pages;
        for (std::size_t page = 0; page < sheets.all; ++page) {
            pages.push_back(panelSchedule(in, w.board, "E-601", page));
            nothingOff(pages.back());
            CHECK(textsOnTexts(pages.back()) == std::vector<std::string>());
        }
        CHECK(wordsOf(pages).at("cleaners") == int(w.names.size()));
    }
}

TEST_CASE("a circuit of three poles stands on one page; where that cannot be, its poles go on with its name") {
    // Three poles on the left from the first row, on the right from the second: no row begins with both.
    OneBoard w(VoltageSystem::Y208, 252);
    w.p.boards.change(w.board)->form = BoardForm::TwoColumn;
    const auto put = [&](int slot, int poles) {
        const CircuitId c = addCircuit(w.p, w.board, poles, fmt::format("At-{}", slot));
        w.p.circuits.change(c)->slot = slot;
        Load l;
        l.circuit = c;
        l.amount = 300;
        l.poles = poles;
        w.p.loads.add(l);
    };
    put(2, 1);
    for (int row = 0; row + 3 <= 126; row += 3) put(1 + 2 * row, 3);
    for (int row = 1; row + 3 <= 126; row += 3) put(2 + 2 * row, 3);
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    const ScheduleSheets sheets = scheduleSheets(in, w.board);
    REQUIRE(sheets.table > 1);
    std::vector<Drawing> pages;
    for (std::size_t page = 0; page < sheets.all; ++page) {
        pages.push_back(panelSchedule(in, w.board, "E-601", page));
        nothingOff(pages.back());
    }
    const auto words = wordsOf(pages);
    int twice = 0;
    for (const Circuit& c : w.p.circuits) {
        INFO(c.name);
        REQUIRE(words.count(c.name) == 1);
        CHECK(words.at(c.name) <= 2);
        twice += words.at(c.name) == 2;
    }
    const int breaks = int(sheets.table) - 1; // at each of them one on the left, on the right, or on both
    CHECK(twice >= breaks);
    CHECK(twice <= 2 * breaks);
}

TEST_CASE("views of a long schedule are no higher than the sheet, and hold every circuit once") {
    for (BoardForm form : {BoardForm::SingleColumn, BoardForm::TwoColumn, BoardForm::Ways})
        for (double height : {180.0, 260.0, 540.0}) {
            INFO(wordOf(form) << " " << height);
            const Full w(form, 126);
            const Results r = w.solved();
            const auto parts = panelScheduleParts({w.p, nec(), r}, w.board, height);
            for (const Drawing& d : parts) CHECK(d.height <= height + 0.5);
            eachOnce(w.names, parts, form, parts.size() - 1);
        }
}

TEST_CASE("the set names the sheets of a long schedule, those of its notes after them") {
    Full w(BoardForm::SingleColumn, 168, "", true);
    for (const Circuit& c : w.p.circuits)
        w.p.circuits.change(c.id)->note = "Note of its own for " + c.name + ", which whoever builds it has to read";
    const Results r = w.solved();
    std::vector<std::string> titles;
    for (const SheetEntry& e : sheetSet({w.p, nec(), r}))
        if (e.kind == SheetKind::Schedule) titles.push_back(e.title);
    const ScheduleSheets sheets = scheduleSheets({w.p, nec(), r}, w.board);
    REQUIRE(titles.size() == sheets.all);
    REQUIRE(sheets.table > 1);
    REQUIRE(sheets.all > sheets.table);
    CHECK(titles[1] == titles[0] + ", sheet 2");
    CHECK(titles[sheets.table] == titles[0] + ", notes");
}

TEST_CASE("a section that goes on over the break between two sheets is named again") {
    Full w(BoardForm::Ways, 168, "", true);
    for (const auto& [name, from, to] : {std::tuple{"Kitchen", 1, 30}, {"Hall", 31, 160}}) {
        Section s;
        s.board = w.board;
        s.name = name;
        s.from = from;
        s.to = to;
        w.p.sections.add(s);
    }
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    REQUIRE(scheduleSheets(in, w.board).table > 1);
    CHECK(panelSchedule(in, w.board, "E-601", 0).words().find("continued") == std::string::npos);
    CHECK(panelSchedule(in, w.board, "E-601", 1).words().find("Circuits, continued: Hall") != std::string::npos);
}
