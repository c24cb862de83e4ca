// What a book says of its region: words, papers, and what a board there usually is.

#include "core/project/AddBelow.h"
#include "core/rules/KindTitle.h"
#include "tests/World.h"

using namespace lintel;

TEST_CASE("each book has the words and papers of its region") {
    CHECK(nec().word(TradeWord::Device) == "Breaker");
    CHECK(nec().word(TradeWord::Earth) == "ground");
    CHECK(nec().word(TradeWord::ScheduleHeading) == "PANEL SCHEDULE");
    CHECK(nec().trade.papers.drawing == "ARCH D");
    CHECK(nec().trade.papers.text == "Letter");
    CHECK(kindTitle(LoadKind::Receptacle, nec()) == "Receptacles");
    for (const char* id : {"bs-7671", "iec-60364", "as-nzs-3000"}) {
        INFO(id);
        const RuleBook& book = bookOf(id);
        CHECK(book.word(TradeWord::Device) == "Device");
        CHECK(book.word(TradeWord::Earth) == "earth");
        CHECK(book.word(TradeWord::LineC) == "L3");
        CHECK(book.trade.papers.drawing == "A1");
        CHECK(book.trade.papers.riser.back() == "A0");
        CHECK(kindTitle(LoadKind::Receptacle, book) == "Socket outlets");
        CHECK(kindTitle(LoadKind::Lighting, book) == "Lighting");
    }
}

TEST_CASE("a new panelboard is like those of the project; the first is what the region of the book usually has") {
    Project none;
    const Board metric = newPanelboard(none, bs().trade.board.system);
    CHECK(metric.name == "DB-1");
    CHECK(metric.form == BoardForm::Ways);
    CHECK(metric.system == VoltageSystem::Y400);
    const Board american = newPanelboard(none, nec().trade.board.system);
    CHECK(american.name == "LP-1");
    CHECK(american.form == BoardForm::TwoColumn);
    CHECK(american.system == VoltageSystem::Y208);
    OneBoard w(VoltageSystem::Y480);
    w.p.boards.change(w.board)->form = BoardForm::SingleColumn;
    const Board another = newPanelboard(w.p, nec().trade.board.system);
    CHECK(another.name == "LP-2");
    CHECK(another.system == VoltageSystem::Y480);
    CHECK(another.form == BoardForm::SingleColumn);
}
