// Figures of a circuit, wordings made of them, and the forms whose columns are wordings.

#include "core/base/Format.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/FormEdits.h"
#include "core/project/ProjectFile.h"
#include "core/sheets/Sheets.h"
#include "tests/World.h"

#include <set>

using namespace lintel;

namespace {

/// A board with its results, to ask for figures and schedules.
struct Office {
    OneBoard w;
    Results results;
    const RuleBook& book;
    explicit Office(VoltageSystem system = VoltageSystem::Y208, const RuleBook& of = nec(), int slots = 42)
        : w(system, slots), book(of) {
        if (of.metric()) {
            w.p.basis.ruleBook = "bs-7671";
            w.p.basis.units = UnitSystem::Metric;
        }
    }
    SheetInput in() {
        results = solve(w.p, book);
        return {w.p, book, results};
    }
    std::string say(const std::string& wording, CircuitId circuit, std::string notes = "") {
        const SheetInput input = in();
        const auto read = Wording::from(wording);
        if (!read) throw std::runtime_error(read.error().text());
        return read->of(CircuitFacts(input, circuit, std::move(notes)));
    }
};

} // namespace

TEST_CASE("wording: a three-pole 20 A circuit as offices write it") {
    // 16 A on 20 A: #12 (310.16, 240.4(D)), ground #12 (250.122); four #12 THHN of 0.0133 in² in EMT 1/2 (0.304 in²).
    Office o;
    const CircuitId c = o.w.circuit(16, LoadUnit::A, 3, 30);
    CHECK(o.say("{count}#{size}, #{ground}G, {conduit}″C", c) == "3#12, #12G, ½″C");
    CHECK(o.say("{size}/{ground} {material}", c) == "12/12 Cu");
    CHECK(o.say("{place}", c) == "1,3,5");
    CHECK(o.say("{device}", c) == "20/3");
    CHECK(o.say("{line}", c) == "A–C");
    CHECK(o.say("{amps} A of {rating} A", c) == "16.0 A of 20 A");
    CHECK(o.say("[sets > 1: ({sets}) ]{count}#{size}", c) == "3#12");
    CHECK(o.say("[not raised: as its load asks]", c) == "as its load asks");
    CHECK(o.say("{serves}[ ({ring})]", c) == "load");
    CHECK(o.say("{{size}} [[{size}]]", c) == "{size} [12]");
}

TEST_CASE("wording: sets, aluminium, and what is empty takes its words along") {
    Office o;
    Circuit spare;
    spare.board = o.w.board, spare.slot = 2, spare.use = CircuitUse::Spare;
    const CircuitId empty = o.w.p.circuits.add(spare);
    // 360 A at 208 V, three poles: 400 A; held at two sets of 3/0 aluminium, 155 A each at 75 °C, says so.
    o.w.p.boards.change(o.w.board)->main = o.w.p.boards.change(o.w.board)->bus = 800;
    const CircuitId big = o.w.circuit(280, LoadUnit::A, 3, 50);
    Run* run = o.w.p.runs.change(o.w.p.circuits[big].run);
    run->heldSize = "3/0", run->heldSets = 2, run->material = Material::Aluminium;
    CHECK(o.say("[sets > 1: ({sets}) ]{count}#{size}[material = Al:  Al]", big) == "(2) 3#3/0 Al");
    CHECK(o.say("[held: held ]{size}", big) == "held 3/0");
    CHECK(o.say("{count}#{size}, #{ground}G", empty).empty());
    CHECK(o.say("{device}[ {conduit}″C]", empty) == "20");
    CHECK(o.say("{serves}", empty) == "Spare");
}

TEST_CASE("wording: where nobody entered a load there is a dash, where one of nothing was entered a nought") {
    Office o;
    Circuit nobody;
    nobody.board = o.w.board, nobody.slot = 2, nobody.poles = 2, nobody.name = "RTU-1";
    const CircuitId open = o.w.p.circuits.add(nobody);
    const CircuitId none = o.w.circuit(0, LoadUnit::VA, 2, 30);
    CHECK(o.say("{VA} {kVA} {amps} {kind} {kind letter}", open) == "– – – – –");
    CHECK(o.say("{VA} {kVA} {amps}", none) == "0 0.00 0");
    CHECK(o.say("{kind}", none) != "–");
    // Slot 2 and 4 are on lines A and B.
    const SheetInput in = o.in();
    const CircuitFacts facts(in, open), entered(in, none);
    CHECK(lineVaWords(facts, 0) == "–");
    CHECK(lineVaWords(facts, 1) == "–");
    CHECK(lineVaWords(facts, 2).empty());
    CHECK(poleFigure("pole VA", facts, 1) == "–");
    CHECK(poleFigure("pole VA", entered, 1) == "0");
    CHECK_FALSE(lineVa(facts, 0));
}

TEST_CASE("wording: what cannot be read is refused and says what there is") {
    for (const char* bad : {"{size", "size}", "{colour}", "[{size}", "{size}]", "[[[[[[[[{size}]", "{own }"}) {
        INFO(bad);
        CHECK_FALSE(Wording::from(bad));
    }
    CHECK_THAT(Wording::from("{colour}").error().text(), Catch::Contains("conduit kind"));
    // A colon behind words that are no condition is a colon.
    Office o;
    const CircuitId c = o.w.circuit(16, LoadUnit::A);
    CHECK(o.say("[Wire: #{size}]", c) == "Wire: #12");
    CHECK(o.say("[kind = equipment and poles < 2: one pole]", c) == "one pole");
    CHECK(o.say("[poles >= 2: several]", c).empty());
    CHECK(o.say("[material ≠ Al: Cu]", c) == "Cu");
}

TEST_CASE("wording: the designer's own column, by its heading") {
    Office o;
    const CircuitId c = o.w.circuit(16, LoadUnit::A);
    CHECK(o.say("{own Tag}", c).empty());
    o.w.p.circuits.change(c)->texts["Tag"] = "K-4";
    CHECK(o.say("[tag {own Tag}]", c) == "tag K-4");
}

TEST_CASE("figures: every key is its own, and says something of a circuit that has it all") {
    std::set<std::string> keys;
    for (const CircuitFigure& f : circuitFigures()) {
        CHECK(keys.insert(f.key).second);
        CHECK(circuitFigure(f.key) == &f);
        CHECK(std::string(f.about).size() > 5);
    }
    // 7.2 kW on one line of 230 V: 31.3 A, B32; 2.5 mm² of method C carry 27 A, 4 mm² 37 A (Table 4D5).
    Office o(*systemFrom("400/230"), bs());
    o.w.p.boards.change(o.w.board)->form = BoardForm::Ways;
    const CircuitId c = o.w.circuit(7200, LoadUnit::W, 1, 10 / 0.3048);
    o.w.p.circuits.change(c)->residual = 30;
    o.w.p.circuits.change(c)->note = "Beside the sink";
    const std::map<std::string, std::string> expected{{"way", "1"},
                                                      {"line", "L1"},
                                                      {"place", "1/L1"},
                                                      {"serves", "load"},
                                                      {"device", "B32"},
                                                      {"rating", "32"},
                                                      {"poles", "1"},
                                                      {"RCD", "A 30"},
                                                      {"size", "4"},
                                                      {"ground", "1.5"},
                                                      {"unit", "mm²"},
                                                      {"conductors", "2 × 4 + 1.5"},
                                                      {"method", "C"},
                                                      {"length", "10"},
                                                      {"amps", "31.3"},
                                                      {"carries", "37.0"},
                                                      {"VA", number(7200)},
                                                      {"kVA", "7.20"},
                                                      {"note", "Beside the sink"},
                                                      {"Zs limit", number(1667)}};
    for (const auto& [key, text] : expected) {
        INFO(key);
        CHECK(o.say("{" + key + "}", c) == text);
    }
    CHECK(o.say("{notes}", c, "2,3") == "2,3");
}

TEST_CASE("forms: columns share the width, and lines have a column each") {
    Office o;
    const Board& b = o.w.p.boards[o.w.board];
    ScheduleForm form;
    form.columns = {{"Ckt", "{pole}", 8, ColumnAlign::Centre},
                    {"Serves", "{serves}", 0, ColumnAlign::Left},
                    {"", "{phase VA}", 10, ColumnAlign::Right},
                    {"Bad", "{colour}", 6, ColumnAlign::Left}};
    const auto laid = layColumns(form, b, 92);
    REQUIRE(laid.size() == 6);
    CHECK(laid[1].width() == Approx(92 - 8 - 30 - 6));
    CHECK(laid[2].heading == "A");
    CHECK(laid[4].heading == "C");
    CHECK(laid.back().to == Approx(92));
    CHECK(laid.back().wording.of(CircuitFacts(o.in(), o.w.circuit(5, LoadUnit::A))) == "?");
    // Too much for the sheet: all are narrowed alike, none falls off it.
    for (FormColumn& c : form.columns) c.width = 60;
    CHECK(layColumns(form, b, 92).back().to == Approx(92));
}

TEST_CASE("forms: a change is for all boards of the form, or for one alone, and the shipped ones stay as they are") {
    Office o;
    Board second = o.w.p.boards[o.w.board];
    second.id = {}, second.name = "LP-2", second.run = {};
    const BoardId other = o.w.p.boards.add(second);
    Project& p = o.w.p;
    const ScheduleForm shipped = formOf(p, nec(), p.boards[other]);
    CHECK_FALSE(shipped.id);
    CHECK(boardsOfForm(p, nec(), other).size() == 2);

    const FormId all = formToChange(p, nec(), o.w.board, false);
    CHECK(formToChange(p, nec(), other, false) == all);
    p.forms.change(all)->columns.front().heading = "No.";
    CHECK(formOf(p, nec(), p.boards[other]).columns.front().heading == "No.");
    CHECK(shippedForms(nec()).front().columns.front().heading == "Ckt");

    const FormId alone = formToChange(p, nec(), other, true);
    CHECK(alone != all);
    CHECK(p.forms[alone].name == "Two columns, LP-2");
    CHECK(boardsOfForm(p, nec(), other) == std::vector{other});
    CHECK(formToChange(p, nec(), other, true) == alone); // its own already

    CHECK_FALSE(chooseForm(p, nec(), other, "two columns, by phase", true));
    CHECK(formOf(p, nec(), p.boards[o.w.board]).name == "Two columns, by phase");
    CHECK(formOf(p, nec(), p.boards[other]).name == "Two columns, by phase");
    CHECK(chooseForm(p, nec(), other, "Ways", true)); // not for this kind of board

    // The company's file holds them all; another project takes them, and what is usual there.
    const Project file = formsFile(p, nec());
    Office fresh;
    CHECK(takeForms(fresh.w.p, file) == int(file.forms.size()));
    CHECK(formOf(fresh.w.p, nec(), fresh.w.p.boards[fresh.w.board]).name == "Two columns, by phase");
    CHECK(takeForms(fresh.w.p, file) == int(file.forms.size()));
    CHECK(fresh.w.p.forms.size() == file.forms.size()); // by name: not doubled
    // So it does with the forms of lists, by their list.
    Project lists = file;
    ListForm feeders;
    feeders.list = "feeders";
    feeders.title = "Conductor schedule";
    feeders.sortBy = "From";
    lists.listForms.add(feeders);
    CHECK(takeForms(fresh.w.p, formsFile(lists, nec())) == int(file.forms.size()) + 1);
    lists.listForms.change(lists.listForms.begin()->id)->title = "Cables";
    takeForms(fresh.w.p, formsFile(lists, nec()));
    REQUIRE(fresh.w.p.listForms.size() == 1);
    CHECK(fresh.w.p.listForms.begin()->title == "Cables");
    CHECK(fresh.w.p.listForms.begin()->sortBy == "From");
    // It is read back as it was written.
    const auto read = readProject(writeProject(p), "forms");
    REQUIRE(read);
    CHECK(read->forms == p.forms);
    CHECK(read->boards == p.boards);
}

TEST_CASE("forms: widths are typed with their unit, wordings are refused before they change anything") {
    FormColumn c{"Wire", "{sized}", 11, ColumnAlign::Centre};
    CHECK_FALSE(setColumnWidth(c, "1.02 in", UnitSystem::Metric));
    CHECK(c.width == Approx(25.908));
    CHECK_FALSE(setColumnWidth(c, "1", UnitSystem::Imperial));
    CHECK(c.width == Approx(25.4));
    CHECK_FALSE(setColumnWidth(c, "30", UnitSystem::Metric));
    CHECK(columnWidthText(c, UnitSystem::Metric) == "30.0 mm");
    for (const char* bad : {"wide", "2", "-5 mm", "3 m", "1e9"}) CHECK(setColumnWidth(c, bad, UnitSystem::Metric));
    CHECK(c.width == 30);
    CHECK_FALSE(setColumnWidth(c, "auto", UnitSystem::Metric));
    CHECK(c.width == 0);
    CHECK(setColumnWording(c, "{nothing}"));
    CHECK(c.wording == "{sized}");
}

TEST_CASE("schedules: every cell of 84 slots with names of 60 letters stays within its column and on the sheet") {
    for (const char* form : {"Two columns", "Two columns, by phase"}) {
        Office o(VoltageSystem::Y208, nec(), 84);
        o.w.p.boards.change(o.w.board)->main = o.w.p.boards.change(o.w.board)->bus = 800;
        for (int i = 0; i < 40; ++i) {
            const CircuitId c = o.w.circuit(2 + i % 14, LoadUnit::A, 1 + i % 3, 40);
            o.w.p.circuits.change(c)->name = "Receptacles of the north reading room, gallery and stairs W";
            if (i % 4 == 0) o.w.p.circuits.change(c)->groundFault = true;
            if (i % 5 == 0) o.w.p.circuits.change(c)->note = "Verify the nameplate before rough-in.";
        }
        REQUIRE_FALSE(chooseForm(o.w.p, nec(), o.w.board, form, true));
        const SheetInput in = o.in();
        const Drawing d = panelSchedule(in, o.w.board);
        REQUIRE(d.headings.size() >= 12);
        int cells = 0;
        for (const Mark& mark : d.marks) {
            const TextMark* t = std::get_if<TextMark>(&mark);
            if (!t) continue;
            const double full = textWidth(t->text, t->size, t->bold),
                         wide = t->within > 0 ? std::min(full, t->within) : full,
                         left = t->align == Align::Left    ? t->at.x
                                : t->align == Align::Right ? t->at.x - wide
                                                           : t->at.x - wide / 2;
            INFO(t->text);
            CHECK(left > 5);
            CHECK(left + wide < d.width - 5);
            for (const HeadingSpot& h : d.headings)
                if (t->at.y > h.bottom && t->at.y < h.bottom + 200 && left > h.left && left < h.right &&
                    t->within > 0) {
                    ++cells;
                    CHECK(left + wide <= h.right + 0.01);
                }
        }
        CHECK(cells > 200);
    }
}

TEST_CASE("forms: words for ways of laying have the room they take, and notes are named in metric rows") {
    for (const char* id : {"bs-7671", "iec-60364", "as-nzs-3000"}) {
        const RuleBook& book = bookOf(id);
        for (const ScheduleForm& form : shippedForms(book)) {
            for (const FormColumn& c : form.columns)
                if (c.wording == "{method}")
                    for (const CableType& type : book.cables.types)
                        for (const CableMethod& m : type.methods) {
                            INFO(id << " " << m.name);
                            CHECK(textWidth(m.name, cellSize) * leastSqueeze <= c.width - cellGap + 1e-9);
                        }
            CHECK(std::any_of(form.columns.begin(), form.columns.end(),
                              [](const FormColumn& c) { return c.wording == "{notes}"; }));
        }
    }
}

TEST_CASE("wording: whatever is typed is read or refused, and says the same twice") {
    static const char* const pieces[] = {
        "{size}", "{count}", "{",         "}",  "[",  "]",  ":", "sets > 1", "not raised", " and ", "{own Tag}",
        "#",      "″C",      "{pole VA}", "[[", "]]", "{{", "≠", "<=",       "raised",     " ",     "Al"};
    Office o;
    const CircuitId c = o.w.circuit(16, LoadUnit::A, 3, 30);
    const SheetInput in = o.in();
    std::uint32_t seed = 7;
    int read = 0;
    for (int i = 0; i < 20000; ++i) {
        std::string text;
        for (int n = int(seed % 9); n >= 0; --n) {
            seed = seed * 1664525u + 1013904223u;
            text += pieces[(seed >> 16) % std::size(pieces)];
        }
        seed = seed * 1664525u + 1013904223u;
        const auto wording = Wording::from(text);
        INFO(text);
        if (!wording) {
            CHECK_FALSE(wording.error().help.empty());
            continue;
        }
        ++read;
        const CircuitFacts facts(in, c);
        CHECK(wording->of(facts) == wording->of(facts));
        CHECK(wording->of(facts).size() < 400);
    }
    CHECK(read > 1000);
}
