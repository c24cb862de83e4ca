// The diagram of a board: every circuit with its device, conductors and figures in its own column, whole and apart from
// its neighbours, however many there are and however long their names.

#include "core/sheets/BoardDiagram.h"
#include "core/drawing/TextBox.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/Words.h"
#include "core/project/ProjectFile.h"
#include "core/sheets/TitleBlock.h"
#include "tests/World.h"

#include <fmt/format.h>

using namespace lintel;

namespace {

std::string closeTogether(std::string text) {
    std::erase_if(text, [](char c) { return c == ' ' || c == '\n'; });
    return text;
}

/// What stands in the column of a circuit, from the left to the right and from the top down.
std::string columnOf(const Drawing& d, CircuitId circuit) {
    const auto spot =
        std::find_if(d.hotspots.begin(), d.hotspots.end(), [&](const Hotspot& h) { return h.thing == Ref(circuit); });
    if (spot == d.hotspots.end()) return "";
    std::string words;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m))
            if (t->at.x > spot->left - 0.01 && t->at.x < spot->right + 0.01 && t->at.y > spot->top &&
                t->at.y < spot->bottom + 0.01)
                words += t->text + "\n";
    return words;
}

/// No text leaves the frame, and none lies on another.
void checkApart(const Drawing& d) {
    const SheetFrame f = footFrame(d);
    std::vector<std::pair<TextBox, std::string>> boxes;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) {
            if (t->at.y > d.height - 10) continue; // the line below the border
            const TextBox box = boxOf(*t);
            INFO(d.title << ": " << t->text);
            CHECK(box.left >= f.left);
            CHECK(box.right <= f.right);
            CHECK(box.top >= f.top);
            boxes.push_back({box, t->text});
        }
    // No line goes through a text.
    for (const Mark& m : d.marks)
        if (const auto* line = std::get_if<LineMark>(&m); line && line->points.size() == 2) {
            const Point p = line->points[0], q = line->points[1];
            for (const auto& [box, text] : boxes) {
                constexpr double edge = 0.15;
                const bool apart = std::max(p.x, q.x) <= box.left + edge || std::min(p.x, q.x) >= box.right - edge ||
                                   std::max(p.y, q.y) <= box.top + edge || std::min(p.y, q.y) >= box.bottom - edge;
                if (!apart) FAIL_CHECK(d.title << ": a line goes through " << text);
            }
        }
    for (std::size_t i = 0; i < boxes.size(); ++i)
        for (std::size_t k = 0; k < i; ++k) {
            const auto& [a, one] = boxes[i];
            const auto& [b, other] = boxes[k];
            const bool apart = a.right <= b.left + 0.05 || b.right <= a.left + 0.05 || a.bottom <= b.top + 0.05 ||
                               b.bottom <= a.top + 0.05;
            if (!apart) FAIL_CHECK(d.title << ": " << one << " on " << other);
        }
}

} // namespace

TEST_CASE("diagrams of the demos: every circuit has a column with its device, its conductors and what it serves") {
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        const Project p = *loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel"));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        const SheetInput in{p, book, r};
        int drawn = 0;
        for (const Board& b : p.boards) {
            const std::vector<Drawing> sheets = boardDiagram(in, b.id, "E-301");
            REQUIRE(sheets.size() == boardDiagramPages(in, b.id));
            if (passesOn(b.use)) CHECK(sheets.empty());
            for (const Drawing& d : sheets) {
                CHECK(d.titleBlock == TitlePlace::Foot);
                checkApart(d);
            }
            for (CircuitId id : r.on(b.id)) {
                const Circuit& c = p.circuits[id];
                std::string column;
                for (const Drawing& d : sheets) column += columnOf(d, id);
                INFO(b.name << " " << placeWords(b, c) << "\n" << column);
                ++drawn;
                CHECK(closeTogether(column).find(closeTogether(servesWords(p, r, id))) != std::string::npos);
                if (c.use == CircuitUse::Reserved) continue;
                CHECK(column.find(deviceWords(r.of(id), c.poles, book)) != std::string::npos);
                if (c.use != CircuitUse::Load) continue;
                const SizeIndex size = r.run(id)->size;
                REQUIRE(size >= 0);
                CHECK(column.find(book.sizes()[std::size_t(size)].name) != std::string::npos);
            }
        }
        CHECK(drawn == int(p.circuits.size()));
    }
}

TEST_CASE("diagrams: eighty-four circuits with long names go on on further sheets, and nothing is lost") {
    for (const char* bookId : {"nec-2023", "bs-7671"}) {
        const RuleBook& book = bookOf(bookId);
        Project p;
        p.basis.ruleBook = bookId;
        Board b;
        b.name = "North wing lighting and receptacle panelboard, third floor";
        b.form = book.metric() ? BoardForm::SingleColumn : BoardForm::TwoColumn;
        b.system = book.metric() ? VoltageSystem::Y400 : VoltageSystem::Y208;
        b.slots = 84;
        b.description = "Lighting and receptacles of the whole of the north wing, with its stairs and plant";
        const BoardId board = p.boards.add(b);
        for (int i = 1; i <= 84; ++i) {
            Circuit c;
            c.board = board;
            c.slot = i;
            c.name = fmt::format("Receptacles of the third-floor conservation workshop, bench {}", i);
            const CircuitId id = p.circuits.add(c);
            Load l;
            l.circuit = id;
            l.name = "x";
            l.kind = LoadKind::Receptacle;
            l.amount = 1200;
            p.loads.add(l);
        }
        const Results r = solve(p, book);
        const SheetInput in{p, book, r};
        const auto sheets = boardDiagram(in, board, "E-301");
        REQUIRE(sheets.size() >= 3);
        CHECK(sheets[1].number == "E-301.2");
        std::string words;
        for (const Drawing& d : sheets) {
            checkApart(d);
            words += d.words();
            for (const Mark& m : d.marks) // nothing is squeezed until it cannot be read
                if (const auto* t = std::get_if<TextMark>(&m); t && t->within > 0 && t->at.y < footFrame(d).bottom) {
                    INFO(t->text);
                    CHECK(textWidth(t->text, t->size, t->bold) * 0.84 <= t->within);
                }
        }
        for (const Circuit& c : p.circuits) {
            std::string column;
            for (const Drawing& d : sheets) column += columnOf(d, c.id);
            CHECK(closeTogether(column).find(closeTogether(c.name)) != std::string::npos);
        }
        CHECK(words.find("goes on on E-301.2") != std::string::npos);
        CHECK(words.find("goes on from E-301\n") != std::string::npos);
        CHECK(words.find("0 of 84 places") != std::string::npos);
        CHECK(words.find("Not fed") != std::string::npos);
    }
}

TEST_CASE("diagrams: circuits hang on the bar of their section, behind its switch and residual-current device") {
    Project p;
    p.basis.ruleBook = "bs-7671";
    const RuleBook& book = bookOf("bs-7671");
    Board b;
    b.name = "DB-1";
    b.form = BoardForm::SingleColumn;
    b.system = VoltageSystem::S230;
    b.slots = 8;
    b.main = 100;
    const BoardId board = p.boards.add(b);
    for (int i = 1; i <= 6; ++i) {
        Circuit c;
        c.board = board;
        c.slot = i;
        c.name = "Circuit " + std::to_string(i);
        c.ring = i == 2;
        p.circuits.add(c);
    }
    Section s;
    s.board = board;
    s.name = "Sockets";
    s.from = 1, s.to = 3;
    s.rating = 63;
    s.residual = 30;
    p.boards.change(board)->surge = "type 2";
    const SectionId section = p.sections.add(s);
    const Results r = solve(p, book);
    const SheetInput in{p, book, r};
    const auto sheets = boardDiagram(in, board);
    REQUIRE(sheets.size() == 1);
    const Drawing& d = sheets.front();
    checkApart(d);
    const std::string words = "\n" + d.words();
    for (const char* told :
         {"Sockets", "63 A switch", "RCD 30 mA, type A", "Main switch", "100 A", "2 of 8 places", "ring"})
        CHECK(words.find(std::string("\n") + told + "\n") != std::string::npos);
    // The bar of the section is over its three circuits and over no other.
    const auto spotOf = [&](Ref thing) {
        return *std::find_if(d.hotspots.begin(), d.hotspots.end(), [&](const Hotspot& h) { return h.thing == thing; });
    };
    const Hotspot bar = spotOf(section);
    for (const Circuit& c : p.circuits) {
        const Hotspot at = spotOf(c.id);
        const double middle = (at.left + at.right) / 2;
        CHECK((middle > bar.left && middle < bar.right) == (c.slot <= 3));
    }
}

TEST_CASE("diagrams: a board without circuits has none, and one narrow view after another shows the same") {
    Project p;
    Board b;
    b.name = "LP-1";
    b.slots = 42;
    const BoardId board = p.boards.add(b);
    Results r = solve(p, nec());
    CHECK(boardDiagram({p, nec(), r}, board).empty());
    CHECK(boardDiagramBare({p, nec(), r}, board, 200).marks.empty());
    for (int i = 1; i <= 42; ++i) {
        Circuit c;
        c.board = board;
        c.slot = i;
        c.name = "Circuit " + std::to_string(i);
        p.circuits.add(c);
    }
    r = solve(p, nec());
    for (double width : {60.0, 150.0, 400.0}) {
        const Drawing d = boardDiagramBare({p, nec(), r}, board, width);
        for (const Circuit& c : p.circuits) CHECK(columnOf(d, c.id).find("20") != std::string::npos);
        for (const Hotspot& h : d.hotspots) CHECK(h.bottom <= d.height);
    }
}

TEST_CASE(
    "diagrams give the notes of the schedule under its numbers: a few below the circuits, many on a sheet apart") {
    OneBoard w;
    for (int i = 0; i < 30; ++i) w.circuit(600);
    CircuitId third;
    for (const Circuit& c : w.p.circuits)
        if (c.slot == 3) third = c.id;
    w.p.circuits.change(third)->arcFault = true;
    w.p.circuits.change(third)->note = "coordinate with the millwork";
    const auto textOf = [](const std::vector<Drawing>& sheets) {
        std::string words;
        for (const Drawing& d : sheets) words += d.words();
        return closeTogether(words);
    };
    {
        const Results r = w.solved();
        const SheetInput in{w.p, nec(), r};
        const auto sheets = boardDiagram(in, w.board, "E-301");
        REQUIRE(sheets.size() == 2);
        CHECK(boardDiagramPages(in, w.board) == 2);
        for (const Drawing& d : sheets) checkApart(d);
        CHECK(columnOf(sheets[0], third).find("1,2\n") != std::string::npos);
        CHECK(textOf(sheets).find("1Circuit3:arc-faultprotected.2Circuit3:coordinatewiththemillwork") !=
              std::string::npos);
        CHECK(textOf({sheets[0]}).find("NotesstandonE-301.2") != std::string::npos);
        CHECK(textOf({boardDiagramBare(in, w.board, 150)}).find("2Circuit3:coordinatewiththemillwork") !=
              std::string::npos);
    }
    for (const Circuit& c : w.p.circuits)
        w.p.circuits.change(c.id)->note = fmt::format(
            "{}: {}", c.slot, std::string(12, 'x') + " keep clear of the gas main, " + std::string(150, 'y'));
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    const auto sheets = boardDiagram(in, w.board, "E-301");
    REQUIRE(sheets.size() == 3);
    CHECK(boardDiagramPages(in, w.board) == 3);
    for (const Drawing& d : sheets) checkApart(d);
    CHECK(textOf({sheets[0]}).find("NotesstandonE-301.3") != std::string::npos);
    CHECK(sheets[2].number == "E-301.3");
    std::string schedule;
    for (std::size_t page = 0; page < schedulePages(in, w.board); ++page)
        schedule += closeTogether(panelSchedule(in, w.board, "E-601", page).words());
    for (const Circuit& c : w.p.circuits) {
        const std::string told = closeTogether(fmt::format("Circuit {}: {}", c.slot, c.note));
        CHECK(textOf({sheets[2]}).find(told.substr(0, 60)) != std::string::npos);
        CHECK(schedule.find(told.substr(0, 60)) != std::string::npos);
    }
}
