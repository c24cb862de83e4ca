#include "core/compose/SheetSet.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/FormEdits.h"
#include "core/figures/Words.h"
#include "core/project/ProjectFile.h"
#include "core/sheets/DoorCard.h"
#include "tests/World.h"

#include <set>

using namespace lintel;

namespace {
struct Demo {
    Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    Results r = solve(p, nec());
    SheetInput in() const { return {p, nec(), r}; }
    BoardId board(const std::string& name) const {
        for (const Board& b : p.boards)
            if (b.name == name) return b.id;
        return {};
    }
};
/// Without blanks and ends of lines: what is broken into lines reads as it was.
std::string closeTogether(std::string text) {
    std::erase_if(text, [](char c) { return c == ' ' || c == '\n'; });
    return text;
}
bool holds(const Drawing& d, const std::string& text) {
    return ("\n" + d.words()).find("\n" + text + "\n") != std::string::npos;
}
/// All marks that say this and nothing else.
std::vector<TextMark> textsOf(const Drawing& d, const std::string& text) {
    std::vector<TextMark> out;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m); t && t->text == text) out.push_back(*t);
    return out;
}
} // namespace

TEST_CASE("the demo is of the size it should be") {
    const Demo d;
    CHECK(d.p.boards.size() >= 12);
    CHECK(d.p.levels.size() == 4);
    CHECK(d.p.rooms.size() == 19);
    CHECK(d.p.circuits.size() >= 270);
    CHECK(d.p.devices.size() >= 400);
}

TEST_CASE("a panel schedule holds every circuit once, with breaker, size and figures in the column of its phase") {
    const Demo d;
    const BoardId lp1 = d.board("LP-1");
    const Drawing s = panelSchedule(d.in(), lp1, "E-602");
    CHECK(s.paper == "Letter");
    CHECK(holds(s, "PANEL SCHEDULE"));
    CHECK(holds(s, "LP-1"));
    CHECK(holds(s, "208Y/120 V, 3φ 4W"));
    CHECK(holds(s, "400 A / 350 A breaker"));
    for (const Circuit& c : d.p.circuits)
        if (c.board == lp1 && c.use == CircuitUse::Load) {
            INFO(c.name);
            CHECK(closeTogether(s.words()).find(closeTogether(servesWords(d.p, d.r, c.id))) != std::string::npos);
        }
    CHECK(holds(s, "Total"));
    CHECK(s.words().find("Circuit 27: 25.5 % own, 25.7 % total drop at 479 ft, over its limit") !=
          std::string::npos); // an installer must not take #12 for right
    // Circuit 16 is two-pole on rows 8 and 9 (B and C): half of 5 200 VA on each, beside those letters in the middle.
    std::string beside;
    for (const TextMark& va : textsOf(s, "2\u00a0600")) {
        double least = 1e9;
        std::string nearest;
        for (const char* line : {"A", "B", "C"})
            for (const TextMark& letter : textsOf(s, line))
                if (const double away = std::abs(letter.at.y - va.at.y);
                    std::abs(letter.at.x - s.width / 2) < 6 && away < least)
                    least = away, nearest = line;
        CHECK(least < 0.5);
        beside += nearest;
    }
    CHECK(beside == "BC");
    // By the form with a column for each line, in those of B and C.
    Project byPhase = d.p;
    REQUIRE_FALSE(chooseForm(byPhase, nec(), lp1, "Two columns, by phase", true));
    const SheetInput in{byPhase, nec(), d.r};
    const Drawing split = panelSchedule(in, lp1, "E-602");
    auto figures = textsOf(split, "2\u00a0600");
    REQUIRE(figures.size() == 2);
    std::sort(figures.begin(), figures.end(), [](const TextMark& a, const TextMark& z) { return a.at.y < z.at.y; });
    for (int k = 0; k < 2; ++k) {
        double head = 0;
        for (const TextMark& t : textsOf(split, k ? "C" : "B"))
            if (t.bold && t.align == Align::Right) head = t.at.x; // the right half's head comes last
        CHECK(figures[std::size_t(k)].at.x == Approx(head));
    }
    // Everything stays on the sheet.
    for (const Mark& m : s.marks)
        if (const auto* t = std::get_if<TextMark>(&m))
            CHECK((t->at.x >= 0 && t->at.x <= s.width && t->at.y >= 0 && t->at.y <= s.height));
}

TEST_CASE("boards of every size and form make a schedule that stays on its sheet") {
    for (int slots : {2, 12, 18, 30, 42, 60, 84})
        for (BoardForm form : {BoardForm::TwoColumn, BoardForm::SingleColumn})
            for (VoltageSystem v : {VoltageSystem::Y208, VoltageSystem::S240}) {
                if (form == BoardForm::SingleColumn && slots > 42) continue;
                OneBoard w(v, slots);
                w.p.boards.change(w.board)->form = form;
                for (int i = 0; i < slots; ++i) w.circuit(1200 + i);
                const Results r = w.solved();
                const Drawing s = panelSchedule({w.p, nec(), r}, w.board);
                INFO(slots << " slots");
                double lowest = 0;
                for (const Mark& m : s.marks)
                    if (const auto* t = std::get_if<TextMark>(&m)) lowest = std::max(lowest, t->at.y);
                CHECK(lowest <= s.height - 4);
            }
}

TEST_CASE("notes of a schedule are never cut: what has no room goes on on further sheets, to the last word") {
    for (int slots : {12, 42, 84})
        for (int notes : {3, 9, 40, 160}) {
            INFO(slots << " slots, " << notes << " notes");
            OneBoard w(VoltageSystem::Y208, slots);
            for (int i = 0; i < std::min(slots, 84); ++i) {
                const CircuitId c = w.circuit(600);
                if (i < notes)
                    w.p.circuits.change(c)->note = "noted " + std::to_string(i) +
                                                   (notes > 100 ? std::string(260, 'x') + " end" + std::to_string(i)
                                                                : " by the designer on site, with what the owner said "
                                                                  "about it and about the ceiling below");
            }
            const Results r = w.solved();
            const SheetInput in{w.p, nec(), r};
            const std::size_t pages = schedulePages(in, w.board);
            std::string words;
            for (std::size_t page = 0; page < pages; ++page) {
                const Drawing s = panelSchedule(in, w.board, "E-601", page);
                CHECK(s.number == (page == 0 ? "E-601" : "E-601." + std::to_string(page + 1)));
                words += closeTogether(s.words());
                double foot = s.height;
                for (const Mark& m : s.marks)
                    if (const auto* t = std::get_if<TextMark>(&m); t && t->text.find("Sheet E-601") == 0)
                        foot = t->at.y;
                for (const Mark& m : s.marks)
                    if (const auto* t = std::get_if<TextMark>(&m); t && t->at.y < foot - 0.1) {
                        CHECK(t->at.y < foot - 5);
                        const double wide = textWidth(t->text, t->size, t->bold);
                        if (t->align == Align::Left && t->within == 0) CHECK(t->at.x + wide < s.width);
                    }
            }
            for (int i = 0; i < std::min(slots, notes); ++i) {
                CHECK(words.find("noted" + std::to_string(i)) != std::string::npos);
                if (notes > 100) CHECK(words.find("end" + std::to_string(i)) != std::string::npos);
            }
            if (std::min(slots, notes) >= 40) CHECK(pages > 1);
            std::size_t listed = 0;
            for (const SheetEntry& e : sheetSet(in)) listed += e.number.rfind("E-601", 0) == 0;
            CHECK(listed == pages);
        }
}

TEST_CASE("a long name on a schedule stands in as many lines as it takes, is whole and never squeezed") {
    OneBoard w(VoltageSystem::Y208, 42);
    const CircuitId c = w.circuit(600);
    w.p.circuits.change(c)->name = "Receptacles of the long gallery and of the two stores behind";
    const Results r = w.solved();
    const Drawing s = panelSchedule({w.p, nec(), r}, w.board);
    CHECK(closeTogether(s.words()).find(closeTogether(w.p.circuits[c].name)) != std::string::npos);
    for (const Mark& m : s.marks)
        if (const auto* t = std::get_if<TextMark>(&m);
            t && (t->text.find("gallery") != std::string::npos || t->text.find("behind") != std::string::npos))
            CHECK(textWidth(t->text, t->size, t->bold) * 0.85 <= t->within);
}

TEST_CASE("plan sheets: one system each at the largest usual scale that fits, every home run, a legend, and what is on "
          "no plan") {
    const Demo d;
    const Drawing lighting = planSheets(d.in(), {1}, "E-101", PlanSystem::Lighting).front(),
                  power = planSheets(d.in(), {1}, "E-201", PlanSystem::Power).front();
    for (const Drawing* s : {&lighting, &power}) {
        CHECK(s->words().find("\n1/4″ = 1′ 0″\n") != std::string::npos);
        CHECK(holds(*s, "Servery"));
        CHECK(holds(*s, "Legend"));
        for (const Mark& m : s->marks) // black and white: no colour tells one circuit from another
            if (const auto* t = std::get_if<TextMark>(&m)) CHECK((t->ink < Ink::PhaseBlack));
    }
    // Each circuit on the sheet of its system, and on no other.
    for (const char* tag : {"LP-1-1", "LP-1-9", "LP-2-3"}) {
        CHECK(holds(power, tag));
        CHECK_FALSE(holds(lighting, tag));
    }
    CHECK(holds(lighting, "MDS-7"));
    CHECK_FALSE(holds(power, "MDS-7"));
    // Whatever is drawn is in the legend; whatever is on no plan is told.
    std::set<std::string> names;
    for (const Device& x : d.p.devices)
        if (x.level == LevelId{1}) names.insert(d.p.deviceTypes[x.type].name);
    for (const std::string& name : names) {
        INFO(name);
        CHECK(closeTogether(lighting.words() + power.words()).find(closeTogether(name)) != std::string::npos);
    }
    std::set<CircuitId> drawn;
    for (const Device& x : d.p.devices) drawn.insert(x.circuit);
    const std::string told = closeTogether(power.words());
    int missing = 0;
    for (const Circuit& c : d.p.circuits)
        if (c.board == d.board("LP-2") && c.use == CircuitUse::Load && !d.r.of(c.id).feeder && !drawn.count(c.id)) {
            ++missing;
            CHECK(told.find((missing == 1 ? "LP-2:" : ",") + std::to_string(c.slot)) != std::string::npos);
        }
    CHECK(missing > 3);
}

TEST_CASE("sheet set: plans, diagrams, riser, one-line, a schedule for each board, all with names of their own") {
    const Demo d;
    const SheetInput in = d.in();
    std::vector<std::string> files;
    for (const SheetEntry& e : sheetSet(in)) {
        files.push_back(e.file);
        CHECK(e.draw().number == e.number);
    }
    CHECK(files == std::vector<std::string>{"E-101_Ground_floor_lighting",
                                            "E-102_Upper_floor_lighting",
                                            "E-201_Ground_floor_power",
                                            "E-202_Upper_floor_power",
                                            "E-203_Roof_deck_power",
                                            "E-301_HM-2_diagram",
                                            "E-302_MDS_diagram",
                                            "E-501_riser",
                                            "E-502_one-line",
                                            "E-601_EV-1",
                                            "E-602_HL-1",
                                            "E-603_HM-1",
                                            "E-604_HM-2",
                                            "E-605_LP-1",
                                            "E-606_LP-2",
                                            "E-607_LP-3",
                                            "E-608_LP-4",
                                            "E-609_LS-1",
                                            "E-610_MDS",
                                            "E-611_SP-1",
                                            "E-612_SP-2",
                                            "E-613_SP-3"});
}

TEST_CASE("how things are written") {
    CHECK(breakerWords(20, 1) == "20");
    CHECK(breakerWords(30, 2) == "30/2");
    CHECK(elevationWords(0, UnitSystem::Imperial) == "±0′ 0″");
    CHECK(elevationWords(4.572, UnitSystem::Imperial) == "+15′ 0″");
    CHECK(elevationWords(-0.15, UnitSystem::Imperial) == "−0′ 6″");
    CHECK(lengthWords(feet(172), UnitSystem::Imperial) == "172 ft");
    CHECK(lengthWords(Metres{52.44}, UnitSystem::Metric) == "52.4 m");
    OneBoard w;
    const CircuitId c = w.circuit(16, LoadUnit::A, 1, 150);
    CHECK(conductorWords(w.solved().of(c).run, nec()) == "2 #6, #6 gnd");
}

TEST_CASE("a schedule stays within its page, however many slots and notes there are") {
    for (int slots : {12, 42, 60, 84}) {
        OneBoard w(VoltageSystem::Y208, slots);
        for (int i = 0; i < slots; ++i)
            runOf(w.p, w.circuit(500 + i, LoadUnit::VA, 1, 200, LoadKind(i % 8), i % 3 == 0)).heldSize =
                i % 2 ? "8" : ""; // a note for every other one
        const Results r = w.solved();
        const Drawing s = panelSchedule({w.p, nec(), r}, w.board, "E-601");
        INFO(slots << " slots on " << s.paper);
        CHECK(s.paper == (slots > 64 ? "Legal" : "Letter"));
        double lowest = 0;
        for (const Mark& m : s.marks)
            if (const auto* t = std::get_if<TextMark>(&m);
                t && t->text.find("Sheet") == std::string::npos && t->text.find("NEC 2023") == std::string::npos)
                lowest = std::max(lowest, t->at.y);
        CHECK(lowest < s.height - 11 - 4); // above the foot strip
        CHECK(s.words().find("Notes") != std::string::npos);
    }
}

TEST_CASE("things without a name are drawn on the plan all the same") {
    OneBoard w;
    Transformer t;
    t.level = w.p.levels.begin()->id;
    w.p.transformers.add(t);
    Board b;
    b.level = t.level;
    w.p.boards.add(b);
    const Results r = w.solved();
    const Drawing d = planDrawing({w.p, nec(), r}, t.level);
    CHECK(d.hotspots.size() >= 2);
}

TEST_CASE("a schedule says where the board is and what it stands in") {
    OneBoard w;
    Board& b = *w.p.boards.change(w.board);
    b.level = w.p.levels.begin()->id, b.location = "Riser cupboard", b.enclosure = "NEMA 3R",
    b.mounting = Mounting::Flush;
    addCircuit(w.p, w.board, 1, "chiller", CircuitUse::Reserved);
    const Results r = w.solved();
    const std::string words = panelSchedule({w.p, nec(), r}, w.board).words();
    CHECK(words.find("Riser cupboard, Ground · NEMA 3R · flush") != std::string::npos);
    CHECK(words.find("Reserved: chiller") != std::string::npos);
}

TEST_CASE("door cards: every place of every board, each circuit once, on cards that hold what they say") {
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        const Project p = *loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel"));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        const SheetInput in{p, book, r};
        for (const Board& b : p.boards) {
            std::string words;
            for (const Drawing& card : doorCards(in, b.id)) {
                words += card.words();
                for (const Mark& m : card.marks)
                    if (const auto* t = std::get_if<TextMark>(&m)) {
                        INFO(demo << " " << b.name << ": " << t->text);
                        CHECK((t->at.x >= 0 && t->at.x <= card.width && t->at.y >= 0 && t->at.y <= card.height));
                        if (t->within <= 0 && t->align == Align::Left)
                            CHECK(t->at.x + textWidth(t->text, t->size, t->bold) <= card.width);
                    }
            }
            words = closeTogether("\n" + words);
            for (CircuitId id : r.on(b.id)) {
                const Circuit& c = p.circuits[id];
                if (c.slot < 1 || b.slots < 1) continue;
                INFO(demo << " " << b.name << " " << c.name);
                CHECK(words.find(closeTogether(placesWords(b, c) + servesWords(p, r, id))) != std::string::npos);
            }
        }
    }
    // 84 slots with names of 60 letters take more than one card; nothing is left out.
    OneBoard w(VoltageSystem::Y208, 84);
    for (int i = 0; i < 80; ++i)
        w.p.circuits.change(w.circuit(600))->name =
            "Receptacles of the north reading room, gallery and stair " + std::to_string(100 + i);
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    const auto cards = doorCards(in, w.board);
    CHECK(cards.size() > 1);
    std::string words;
    for (const Drawing& card : cards) words += card.words();
    for (int i = 0; i < 80; ++i) CHECK(words.find(std::to_string(100 + i)) != std::string::npos);
}
