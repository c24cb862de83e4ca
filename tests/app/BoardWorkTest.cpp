// A day at the boards, by mouse and keys alone: editing in the row, moving, copying, changing many, levelling, another
// size, names, lists of loads. Undone at the end, the project is as it was.

#include "app/boards/BoardCards.h"
#include "app/boards/BoardPicker.h"
#include "app/boards/CircuitsPage.h"
#include "app/boards/GroupCard.h"
#include "app/boards/ImportPage.h"
#include "app/boards/LevelCard.h"
#include "app/frame/DrawingView.h"
#include "tests/app/AppTest.h"

#include <QAbstractItemModelTester>
#include <QCheckBox>
#include <QClipboard>
#include <QMimeData>
#include <QTableView>
#include <QTreeWidget>

#include <fstream>
#include <set>

using namespace lintel;

namespace {

struct AtBoards : Driven {
    BoardsStage& stage = window.boards();
    BoardView& v = stage.board();
    QString said;
    AtBoards() {
        openDemo();
        window.go(Stage::Boards);
        on("SP-1");
        QObject::connect(&s, &Session::said, &window, [this](const QString& t, bool) { said = t; });
    }
    void on(const char* board_) {
        s.select(board(board_));
        pump();
        v.setFocus();
    }
    void to(int slot) { click(v, v.slotBox(slot).center()); }
    QLineEdit* editor() {
        for (auto* e : v.findChildren<QLineEdit*>())
            if (e->isVisible()) return e;
        return nullptr;
    }
    /// Types into the row, as a person does: the first key opens the editor.
    void typeHere(const QString& text) {
        QTest::keyClicks(&v, text.left(1));
        REQUIRE(editor());
        type(*editor(), text.mid(1));
    }
    template <class T> void settle(T& thing) {
        for (int i = 0; i < 6000 && !thing.ready(); ++i) QTest::qWait(10);
        REQUIRE(thing.ready());
        pump();
    }
    const Circuit& at(int slot) { return s.project().circuits[Driven::at("SP-1", slot)]; }
    CircuitId idAt(int slot) { return Driven::at("SP-1", slot); }
    QPushButton* button(const char* name) {
        auto* b = window.findChild<QPushButton*>(name);
        REQUIRE(b);
        return b;
    }
    void press(const char* name) { click(*button(name), {12, 10}); }
    void undoAll(const Project& start) {
        for (int i = 0; i < 300 && s.canUndo(); ++i) s.undo();
        pump();
        CHECK(s.project() == start);
    }
};

} // namespace

TEST_CASE("at the boards: a row is written with Tab, circuits are inserted, shifted, swapped, tied, spared, reserved, "
          "removed") {
    AtBoards d;
    const Project start = d.s.project();
    d.to(51); // a space
    d.typeHere("Oyster bar");
    d.key(*d.editor(), Qt::Key_Tab); // takes it and goes on to the load
    REQUIRE(d.idAt(51));
    CHECK(d.at(51).name == "Oyster bar");
    REQUIRE(d.editor());
    d.type(*d.editor(), "1.8 kVA");
    d.key(*d.editor(), Qt::Key_Tab);
    d.type(*d.editor(), "20");
    d.key(*d.editor(), Qt::Key_Return);
    CHECK_FALSE(d.editor());
    CHECK(d.at(51).heldBreaker == 20.0);
    CHECK(d.s.solution().results.of(d.idAt(51)).va == Approx(1800));
    CHECK(d.v.selectedSlot() == 53); // Enter goes down, to the fact from which Tab came: the next row is written on
    d.typeHere("Ice machine");
    d.key(*d.editor(), Qt::Key_Tab);
    d.type(*d.editor(), "3 kVA");
    // What its breaker comes to by itself is shown as soon as that is worked out.
    d.key(*d.editor(), Qt::Key_Tab);
    d.pump();
    CHECK(d.editor()->text() == "25"); // 3 000 VA at 120 V
    d.key(*d.editor(), Qt::Key_Escape);
    CHECK(d.at(53).name == "Ice machine");
    CHECK_FALSE(d.at(53).heldBreaker);
    d.s.undo();
    d.s.undo();
    d.pump();
    REQUIRE_FALSE(d.idAt(53));
    // A load that is none is refused in words, and nothing changes.
    d.to(51);
    d.v.goTo(51, "load");
    d.typeHere("lots");
    d.key(*d.editor(), Qt::Key_Return);
    CHECK(d.said.contains("“lots” is not a load"));
    CHECK(d.s.solution().results.of(d.idAt(51)).va == Approx(1800));
    // Arrows and Shift choose a range, Insert opens a row, Alt shifts.
    d.to(1);
    d.key(d.v, Qt::Key_Down);
    CHECK(d.v.selectedSlot() == 3);
    d.key(d.v, Qt::Key_Right);
    CHECK(d.v.selectedSlot() == 4);
    d.key(d.v, Qt::Key_Left);
    d.key(d.v, Qt::Key_Down, Qt::ShiftModifier);
    d.key(d.v, Qt::Key_Down, Qt::ShiftModifier);
    CHECK(d.v.chosen().size() == 3); // 3, 5, 7
    d.key(d.v, Qt::Key_P, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(d.at(5).pinned);
    d.act("pin");
    CHECK_FALSE(d.at(5).pinned);
    d.to(53);
    d.key(d.v, Qt::Key_Up); // the circuit above the gap
    const CircuitId oyster = d.idAt(51);
    d.key(d.v, Qt::Key_Insert);
    CHECK(d.s.project().circuits[oyster].slot == 53);
    CHECK_FALSE(d.idAt(51));
    d.to(53);
    d.key(d.v, Qt::Key_Up, Qt::AltModifier);
    CHECK(d.s.project().circuits[oyster].slot == 51);
    d.key(d.v, Qt::Key_Right, Qt::AltModifier);
    CHECK(d.s.project().circuits[oyster].slot == 52);
    // Duplicate, swap two, tie two, spare, reserve, remove.
    d.act("circuitDuplicate");
    CHECK(d.s.project().circuits[d.v.chosen().front()].name == "Oyster bar");
    const CircuitId twin = d.v.chosen().front();
    CHECK(twin != oyster);
    const CircuitId one = d.idAt(1), three = d.idAt(3);
    d.to(1);
    QTest::mouseClick(&d.v, Qt::LeftButton, Qt::ControlModifier, d.v.slotBox(3).center().toPoint());
    d.pump();
    d.act("circuitSwap");
    CHECK(d.s.project().circuits[one].slot == 3);
    CHECK(d.s.undoLabel().startsWith("Swap"));
    d.act("circuitTie");
    CHECK(d.s.project().circuits[one].tie > 0);
    CHECK(d.s.project().circuits[one].tie == d.s.project().circuits[three].tie);
    d.to(1);
    d.key(d.v, Qt::Key_Down, Qt::AltModifier); // both go: what is below makes room
    CHECK(d.s.project().circuits[one].slot == d.s.project().circuits[three].slot + 2);
    d.to(60);
    d.act("circuitSpare");
    CHECK(d.at(60).use == CircuitUse::Spare);
    d.to(59);
    d.act("circuitReserve");
    CHECK(d.at(59).use == CircuitUse::Reserved);
    d.s.select(twin);
    d.pump();
    d.v.setFocus();
    d.key(d.v, Qt::Key_Delete);
    CHECK_FALSE(d.s.project().circuits.has(twin));
    d.undoAll(start);
}

TEST_CASE("at the boards: copy and paste within, between boards, from and to a spreadsheet; fill down; change many "
          "seen first") {
    AtBoards d;
    const Project start = d.s.project();
    d.to(1);
    d.key(d.v, Qt::Key_Down, Qt::ShiftModifier);
    d.key(d.v, Qt::Key_C, Qt::ControlModifier);
    const QString text = QApplication::clipboard()->text();
    CHECK(text.startsWith("Circuit\tServes\tLoad"));
    CHECK(text.contains("SP-1-1\tStall 25 receptacles"));
    d.to(51);
    d.key(d.v, Qt::Key_V, Qt::ControlModifier);
    CHECK(d.at(51).name == "Stall 25 receptacles");
    CHECK(d.at(53).name == "Stall 27 receptacles");
    d.on("LP-2");
    const std::size_t before = d.s.project().circuits.size();
    d.key(d.v, Qt::Key_End);
    d.key(d.v, Qt::Key_V, Qt::ControlModifier);
    CHECK(d.s.project().circuits.size() == before + 2);
    CHECK(d.s.project().circuits[d.v.chosen().front()].board == d.board("LP-2"));
    // A block of a spreadsheet.
    d.on("SP-1");
    d.to(52);
    QApplication::clipboard()->setText("Ice cream\t1.2 kVA\t20\nCrêpes\t3 kW\t30/2\n");
    d.key(d.v, Qt::Key_V, Qt::ControlModifier);
    CHECK(d.at(52).name == "Ice cream");
    CHECK(d.at(54).name == "Crêpes");
    CHECK(d.at(54).poles == 2);
    // Fill the breaker down.
    d.v.goTo(52, "breaker");
    d.pump();
    d.key(d.v, Qt::Key_Down, Qt::ShiftModifier);
    d.act("circuitFillDown");
    CHECK(d.at(54).heldBreaker == 20.0);
    // Change many, across boards, through the list of all circuits.
    d.act("allCircuits");
    CircuitsPage& page = d.stage.circuits();
    REQUIRE(page.isVisible());
    d.type(*page.filter(), "kind:kitchen va>2000");
    CHECK(page.model().rowCount() > 5);
    d.key(*page.filter(), Qt::Key_Down);
    QTest::keyClick(page.table(), Qt::Key_A, Qt::ControlModifier);
    d.pump();
    const auto chosen = page.chosen();
    CHECK(int(chosen.size()) == page.model().rowCount());
    std::set<BoardId> boards;
    for (CircuitId c : chosen) boards.insert(d.s.project().circuits[c].board);
    CHECK(boards.size() > 1);
    d.press("changeMany");
    GroupCard& group = d.stage.group();
    REQUIRE(group.isVisible());
    auto* fact = group.findChild<QComboBox*>("groupFact");
    fact->setCurrentIndex(fact->findText("Note"));
    d.type(*group.findChild<QLineEdit*>("groupValue"), "check with caterer");
    d.settle(group);
    CHECK(group.effectText().contains("No size, device or snag changes"));
    CHECK(d.s.project().circuits[chosen.front()].note.empty()); // seen, not done
    fact->setCurrentIndex(fact->findText("Size"));
    d.type(*group.findChild<QLineEdit*>("groupValue"), "6");
    d.settle(group);
    CHECK(group.effectText().contains("runs change"));
    d.press("groupApply");
    for (CircuitId c : chosen) CHECK(d.s.project().runs[d.s.project().circuits[c].run].heldSize == "6");
    CHECK(d.s.undoLabel().startsWith("Size of"));
    // A cell of the table is edited in place.
    d.key(*page.filter(), Qt::Key_A, Qt::ControlModifier);
    d.type(*page.filter(), "board:sp-1 \"ice cream\"");
    REQUIRE(page.model().rowCount() == 1);
    CHECK(page.model().setData(page.model().index(0, CircuitsModel::Note), "by the door", Qt::EditRole));
    d.pump();
    CHECK(d.at(52).note == "by the door");
    d.key(*page.filter(), Qt::Key_Escape);
    CHECK_FALSE(page.isVisible());
    d.undoAll(start);
}

TEST_CASE("at the boards: a drag onto the board beside shows what moves there and what both come to; the schedule "
          "beside follows") {
    AtBoards d;
    const Project start = d.s.project();
    d.stage.setBeside(BoardsStage::Beside::Board, d.board("SP-2"));
    d.pump();
    BoardView& other = d.stage.other();
    REQUIRE(other.isVisible());
    CHECK(other.board() == d.board("SP-2"));
    const CircuitId griddle = d.idAt(31);
    const auto there = [&](int slot) {
        return QPointF(d.v.mapFromGlobal(other.mapToGlobal(other.slotBox(slot).center().toPoint())));
    };
    const QPointF from = d.v.slotBox(31).center();
    QTest::mousePress(&d.v, Qt::LeftButton, {}, from.toPoint());
    d.move(d.v, from + QPointF(20, 4), Qt::LeftButton);
    d.move(d.v, there(29), Qt::LeftButton);
    CHECK(other.effectText().contains("make room"));
    CHECK(other.effectText().contains("SP-1 19.7 % → "));
    CHECK(d.s.project() == start); // shown, not done
    QTest::mouseRelease(&d.v, Qt::LeftButton, {}, there(29).toPoint());
    d.pump();
    CHECK(d.s.project().circuits[griddle].board == d.board("SP-2"));
    CHECK(d.s.project().circuits[griddle].slot == 29);
    CHECK(d.s.undoLabel().endsWith("to SP-2"));
    for (const Circuit& c : d.s.project().circuits)
        if (c.board == d.board("SP-2")) CHECK_FALSE(d.s.solution().results.of(c.id).clash);
    // Fed from another board by its name.
    d.on("SP-1");
    d.to(35);
    const CircuitId bain = d.idAt(35);
    d.act("circuitRefeed");
    auto* pick = d.stage.findChild<QLineEdit*>("boardPickerText");
    REQUIRE(pick);
    d.type(*pick, "SP-2");
    d.key(*pick, Qt::Key_Return);
    CHECK(d.s.project().circuits[bain].board == d.board("SP-2"));
    d.on("SP-1");
    d.stage.setBeside(BoardsStage::Beside::Schedule);
    d.pump();
    auto* sheet = d.stage.findChild<DrawingView*>("schedulePreview");
    const auto shows = [&](const std::string& words) {
        for (const auto& m : sheet->drawing().marks)
            if (const auto* t = std::get_if<TextMark>(&m); t && t->text.find(words) != std::string::npos) return true;
        return false;
    };
    CHECK(shows("Stall 33 juicer"));
    d.to(39);
    d.v.goTo(39, "serves");
    d.typeHere("Cider press");
    d.key(*d.editor(), Qt::Key_Return);
    d.pump();
    CHECK(shows("Cider press")); // the sheet follows each edit
    CHECK_FALSE(shows("Stall 33 juicer"));
    d.undoAll(start);
}

TEST_CASE("at the boards: the slider of moves, the proof, another size, names by pattern") {
    AtBoards d;
    const Project start = d.s.project();
    d.press("level");
    LevelCard& level = d.stage.level();
    d.settle(level);
    const auto& choices = level.choices();
    REQUIRE(choices.byMoves.size() > 3);
    level.moves()->setFocus();
    d.key(*level.moves(), Qt::Key_Home);
    CHECK(d.v.proposal().empty());
    d.key(*level.moves(), Qt::Key_Right);
    d.key(*level.moves(), Qt::Key_Right);
    CHECK(d.v.proposal() == choices.byMoves[2].places);
    CHECK(level.proofText() == "proven best for so many moves");
    CHECK(d.s.project() == start);
    const double wanted = choices.byMoves[2].imbalance;
    d.key(level, Qt::Key_Return);
    CHECK(d.s.undoLabel() == "Level SP-1");
    CHECK(d.s.solution().results.of(d.board("SP-1")).imbalance == Approx(wanted).margin(1e-6));
    CHECK(d.v.proposal().empty());
    // New references at once, on the plan and the schedule: the name is made from the slot.
    for (const auto& [c, slot] : choices.byMoves[2].places)
        CHECK(nameOf(d.s.project(), c) == "SP-1-" + std::to_string(slot));
    // A smaller board: what would not fit is listed before it is done.
    d.press("size");
    SizeCard& size = d.stage.size();
    REQUIRE(size.isVisible());
    size.choose(42);
    CHECK(size.details()->count() > 4);
    bool says = false;
    for (int i = 0; i < size.details()->count(); ++i)
        says = says || size.details()->item(i)->text().contains("no place");
    CHECK(says);
    size.choose(54);
    d.press("sizeApply");
    CHECK(d.s.project().boards[d.board("SP-1")].slots == 54);
    d.v.setFocus();
    d.s.select(d.board("SP-1"));
    d.pump();
    REQUIRE(d.window.facts().view().editRow("Slots"));
    auto* slots = d.window.facts().view().findChild<QLineEdit*>("factEditor");
    REQUIRE(slots);
    slots->selectAll();
    d.type(*slots, "12");
    d.key(*slots, Qt::Key_Return);
    CHECK(d.s.project().boards[d.board("SP-1")].slots == 54); // refused: not all would fit
    // Names.
    d.press("nameFromRooms");
    NamesCard& names = d.stage.names();
    REQUIRE(names.isVisible());
    names.pattern()->selectAll();
    d.type(*names.pattern(), "{what}: {numbers}");
    d.press("namesApply");
    CHECK(d.s.project().basis.namePattern == "{what}: {numbers}");
    d.undoAll(start);
}

TEST_CASE(
    "at the boards: a list of loads comes in, is mended, mapped by drag, taken in, and compared with the next one") {
    AtBoards d;
    const Project start = d.s.project();
    const auto write = [&](const char* name, const std::string& text) {
        std::ofstream(d.path(name).toStdString(), std::ios::binary) << text;
        return d.path(name);
    };
    const QString first =
        write("list.csv", "Tag;Description;Wattage;Volts;Phases;Panel\nEF-1;Exhaust fan;750;120;1;LP-2\nEF-2;Exhaust "
                          "fan;1500;208;3;LP-2\nCU-7;Condenser;-4;208;3;LP-9\nX-1;Display;zwei;120;1;LP-2\n");
    d.stage.openImport(first);
    ImportPage& page = d.stage.import();
    d.settle(page);
    REQUIRE(page.loads().list().rows.size() == 4);
    CHECK(page.loads().list().entering() == 0); // "Wattage" means nothing to us
    // The field is dragged onto its column.
    auto* heads = static_cast<ListHeader*>(page.table()->horizontalHeader());
    QMimeData mime;
    mime.setData(ListHeader::mimeType, QByteArray::number(int(ListField::Amount)));
    const QPoint at(heads->sectionViewportPosition(ListModel::firstCell + 2) + 8, 8);
    QDragEnterEvent enter(at, Qt::CopyAction, &mime, Qt::LeftButton, {});
    QApplication::sendEvent(heads->viewport(), &enter);
    QDropEvent drop(at, Qt::CopyAction, &mime, Qt::LeftButton, {});
    QApplication::sendEvent(heads->viewport(), &drop);
    d.pump();
    CHECK(page.settings().columns[2] == int(ListField::Amount));
    auto* unit = page.findChild<QComboBox*>("listUnit");
    unit->setCurrentIndex(unit->findText("W"));
    Q_EMIT unit->activated(unit->currentIndex());
    d.pump();
    CHECK(page.loads().list().entering() == 2);
    CHECK(page.summary().contains("2 with problems stay out"));
    // One is mended in place, one is left out by its tick.
    ListModel& m = page.model();
    QAbstractItemModelTester tester(&m);
    CHECK(m.data(m.index(3, 1), Qt::DisplayRole).toString().contains("“zwei” is not a load"));
    CHECK(m.setData(m.index(3, ListModel::firstCell + 2), "200", Qt::EditRole));
    CHECK(page.loads().list().entering() == 3);
    CHECK(m.setData(m.index(0, 0), Qt::Unchecked, Qt::CheckStateRole));
    CHECK(page.loads().list().entering() == 2);
    CHECK(m.setData(m.index(0, 0), Qt::Checked, Qt::CheckStateRole));
    CHECK(d.s.project() == start); // nothing has entered
    page.findChild<QCheckBox*>("listCircuits")->setChecked(true);
    d.press("listAccept");
    CHECK_FALSE(page.isVisible());
    CHECK(d.s.undoLabel() == "Take in list.csv");
    const auto tagged = [&](const std::string& tag) -> const Load* {
        for (const Load& l : d.s.project().loads)
            if (l.tag == tag) return &l;
        return nullptr;
    };
    REQUIRE(tagged("EF-2"));
    CHECK(tagged("EF-2")->amount == 1500);
    CHECK(tagged("EF-2")->poles == 3);
    CHECK(d.s.project().circuits[tagged("EF-2")->circuit].board == d.board("LP-2"));
    CHECK_FALSE(tagged("CU-7"));
    // The next issue of it.
    d.stage.openImport(write("again.csv",
                             "Tag,Description,W,Volts,Phases,Panel\nEF-1,Exhaust fan,900,120,1,LP-2\nEF-2,Exhaust "
                             "fan,1500,208,3,LP-2\nEF-3,Exhaust fan,700,120,1,LP-7\n"));
    d.settle(page);
    CHECK(page.summary().contains("1 new"));
    CHECK(page.summary().contains("1 changed"));
    CHECK(page.summary().contains("1 the same"));
    CHECK(page.summary().contains("1 no longer in the list (X-1)"));
    CHECK(page.summary().contains("boards made: LP-7"));
    CHECK(m.data(m.index(0, 1), Qt::DisplayRole).toString() == "load 750 W → 900 W");
    page.findChild<QCheckBox*>("listRemoveGone")->setChecked(true);
    d.press("listAccept");
    CHECK(tagged("EF-1")->amount == 900);
    CHECK_FALSE(tagged("X-1"));
    CHECK(d.board("LP-7"));
    // What is left open: the one that came without a circuit is told, and gets one.
    d.act("loadReport");
    REQUIRE(d.stage.report().isVisible());
    const auto told = [&](const QString& words) {
        return !d.stage.report().lines()->findItems(words, Qt::MatchContains, 0).isEmpty();
    };
    CHECK(told("EF-3"));
    CHECK(told("LP-4")); // its demand is more than its bus carries
    CHECK(d.stage.report().lines()->topLevelItem(0)->text(1).contains("no circuit"));
    d.press("reportApply");
    CHECK_FALSE(told("EF-3"));
    CHECK(tagged("EF-3")->circuit);
    // A file that is none says so and changes nothing.
    const Project now = d.s.project();
    d.stage.openImport(write("noise.xlsx", "PK\x03\x04 nothing"));
    d.settle(page);
    CHECK(d.said.contains("noise.xlsx"));
    d.press("listCancel");
    CHECK(d.s.project() == now);
    d.undoAll(start);
}

TEST_CASE("at the boards: in every card Tab comes to the button that does it, then to Drop; Esc drops it and nothing "
          "is done") {
    AtBoards d;
    const Project before = d.s.project();
    for (const char* name : {"level", "size", "names"}) {
        INFO(name);
        d.on("SP-1");
        d.act(QString(name) == "level" ? "levelBoard" : QString(name) == "size" ? "sizeBoard" : "nameCircuits");
        auto* card = d.window.findChild<BoardCard*>(QString(name) + "Card");
        REQUIRE(card);
        REQUIRE(card->isVisible());
        // From the first field of the card on, by the order of Tab.
        std::vector<QString> order;
        QWidget* first = nullptr;
        for (QWidget* w : card->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly))
            if (w->focusPolicy() & Qt::TabFocus && !w->objectName().endsWith("Apply") &&
                !w->objectName().endsWith("Cancel")) {
                first = w;
                break;
            }
        REQUIRE(first);
        QWidget* w = first;
        do {
            if (w->focusPolicy() & Qt::TabFocus && w->parent() == card) order.push_back(w->objectName());
            w = w->nextInFocusChain();
        } while (w != first);
        REQUIRE(order.size() >= 3);
        CHECK(order[order.size() - 2] == QString(name) + "Apply");
        CHECK(order.back() == QString(name) + "Cancel");
        QTest::keyClick(card, Qt::Key_Escape);
        d.pump();
        CHECK_FALSE(card->isVisible());
        CHECK(d.s.project() == before);
    }
}
