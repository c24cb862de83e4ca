// Brindle Pier driven by mouse and keyboard: ways, loops, sections, a copied board, the metric bench.

#include "app/basis/BasisStage.h"
#include "app/bench/BenchPanel.h"
#include "app/boards/BoardView.h"
#include "app/boards/BoardsStage.h"
#include "app/runs/RunsStage.h"
#include "tests/app/AppTest.h"

#include <QComboBox>
#include <QFile>
#include <QHeaderView>
#include <QLineEdit>
#include <QScrollArea>
#include <QScrollBar>
#include <QTableView>

using namespace lintel;

namespace {
struct Pier : Driven {
    Pier() {
        QFile::copy(QString::fromStdString((dataFolder() / "demos" / "brindle-pier.lintel").string()),
                    path("pier.lintel"));
        QFile::setPermissions(path("pier.lintel"), QFile::ReadOwner | QFile::WriteOwner);
        REQUIRE(window.openFile(path("pier.lintel")));
        pump();
    }
    BoardId board(const std::string& name) const {
        for (const Board& b : s.project().boards)
            if (b.name == name) return b.id;
        return {};
    }
    CircuitId circuit(const std::string& name) const {
        for (const Circuit& c : s.project().circuits)
            if (nameOf(s.project(), c.id) == name) return c.id;
        return {};
    }
    const CircuitResult& result(const std::string& name) const { return s.solution().results.of(circuit(name)); }
};
} // namespace

TEST_CASE("a board of ways: cells to click, a three-pole way taken whole, facts of cable and loop") {
    Pier d;
    d.window.go(Stage::Boards);
    d.s.select(d.board("DB-2"));
    d.pump();
    BoardView& view = *d.window.findChild<BoardView*>("boardView");
    d.click(view, view.slotBox(7).center()); // way 3, L1
    CHECK(d.s.selection() == Ref(d.circuit("DB-2/3/L1")));
    d.click(view, view.slotBox(11).center()); // way 4 is one device: any of its rows chooses it
    CHECK(d.s.selection() == Ref(d.circuit("DB-2/4")));
    // Kiosk 1 without its residual-current device and on a long run: the loop is judged by the breaker.
    d.click(view, view.slotBox(7).center());
    d.fact("RCD", "0");
    CHECK(d.result("DB-2/3/L1").run.earth->limit == Approx(2.731f).margin(0.001)); // B16
    d.fact("Kind of device", "type D");
    d.fact("Run", "60 m");
    const CircuitResult& far = d.result("DB-2/3/L1");
    CHECK(far.run.why == Governing::LoopImpedance);
    CHECK(far.run.earth->ok);
    d.fact("Cable", "multicore 70 °C");
    d.fact("Method", "E");
    CHECK(d.s.project().runs[d.s.project().circuits[d.circuit("DB-2/3/L1")].run].method == "E");
    for (int i = 0; i < 5; ++i) d.act("undo");
    CHECK(d.s.project() == *loadProject(dataFolder() / "demos" / "brindle-pier.lintel"));
    // A three-pole device dragged onto a way with single poles says what it would do, and does not straddle ways.
    d.drag(view, view.slotBox(13).center(), view.slotBox(28).center());
    CHECK(d.s.project().circuits[d.circuit("DB-2/10")].name == "Fan coils, lounge");
    d.act("undo");
}

TEST_CASE("copying a board that has a stop snag says so first, and then copies all of it in one step") {
    Pier d;
    d.s.select(d.board("DB-3"));
    d.pump();
    const std::size_t before = d.s.project().boards.size();
    d.act("copyBoard");
    CHECK(d.s.project().boards.size() == before);
    d.act("copyBoard");
    REQUIRE(d.s.project().boards.size() == before + 1);
    const BoardId made = d.s.selection().as<Board>();
    CHECK(d.s.project().boards[made].name == "DB-9");
    CHECK(d.s.solution().results.of(made).connected == Approx(d.s.solution().results.of(d.board("DB-3")).connected));
    d.act("undo");
    CHECK(d.s.project().boards.size() == before);
    d.s.select(d.board("DB-5")); // nothing wrong in it: at once
    d.pump();
    d.act("copyBoard");
    CHECK(d.s.project().boards.size() == before + 1);
}

TEST_CASE("sections, earthing and Ze are facts; a bad one is refused in words") {
    Pier d;
    d.s.select(d.board("DB-8"));
    d.pump();
    d.fact("Sections", "Tenant 1-8 63 A 30 mA metered; Landlord 9-14");
    CHECK(d.s.project().sections.size() == 4);
    d.fact("Sections", "Tenant 1-99");
    CHECK(d.s.project().sections.size() == 4);
    d.key(*d.window.facts().view().findChild<QWidget*>("factEditor"), Qt::Key_Escape);
    const SourceId source = d.s.project().sources.begin()->id;
    d.s.select(source);
    d.pump();
    d.fact("Ze", "0.8");
    CHECK(d.s.solution().results.of(d.board("MSB")).fault.loop.real() > 0.8);
    d.fact("Earthing", "TT");
    CHECK(d.result("DB-1/1/L1").run.need.cable->earthing == Earthing::TT);
    // Any volts may be entered; what is none stays as it was typed, and is told.
    d.fact("System", "400V/231V");
    CHECK(wordOf(d.s.project().sources[source].system) == "400/231");
    d.fact("System", "400/100");
    CHECK(wordOf(d.s.project().sources[source].system) == "400/231");
    d.key(*d.window.facts().view().findChild<QWidget*>("factEditor"), Qt::Key_Escape);
    d.fact("System", "400/230");
    CHECK(d.s.project().sources[source].system == VoltageSystem::Y400);
    CHECK(d.s.solution().snags.size() > 20); // everything behind an electrode wants a residual-current device
}

TEST_CASE(
    "a project moves to another rule book of its kind with the difference seen first; the bench follows the book") {
    Pier d;
    d.window.go(Stage::Basis);
    d.pump();
    auto* book = d.window.findChild<QComboBox*>("ruleBook");
    REQUIRE(book);
    CHECK(book->findData("nec-2023") < 0); // of another kind
    book->setCurrentIndex(book->findData("iec-60364"));
    Q_EMIT book->activated(book->currentIndex());
    d.pump();
    BasisStage& basis = *d.window.findChild<BasisStage*>();
    CHECK(basis.pending());
    CHECK(basis.previewText().contains("change"));
    CHECK(d.s.project().basis.ruleBook == "bs-7671");
    basis.accept();
    d.pump();
    CHECK(d.s.solution().book->id == "iec-60364");
    CHECK(d.window.findChild<QComboBox*>("branchCable")->findData("multicore 90 °C aluminium") >=
          0); // the form has the new book's cables
    d.act("bench");
    auto* kinds = d.window.findChild<QComboBox*>("benchKind");
    CHECK(kinds->findData("cable") >= 0);
    CHECK(kinds->findData("conductor") < 0);
    d.openDemo();
    CHECK(kinds->findData("conductor") >= 0);
    CHECK(kinds->findData("ring") < 0);
}

TEST_CASE("runs of a metric project show the loop beside the drop") {
    Pier d;
    d.window.go(Stage::Runs);
    d.pump();
    auto* table = d.window.findChild<RunsStage*>()->findChild<QTableView*>();
    REQUIRE(table);
    QStringList shown;
    for (int i = 0; i < table->model()->columnCount(); ++i)
        if (!table->isColumnHidden(i)) shown << table->model()->headerData(i, Qt::Horizontal).toString();
    CHECK(shown.contains("Zs of Ω"));
    CHECK_FALSE(shown.contains("Before %"));
}

TEST_CASE("an insulated supply wants its monitor: by the fact and by the remedy, undone in one") {
    Pier d;
    d.s.select(d.s.project().sources.begin()->id);
    d.pump();
    const auto asked = [&] {
        return std::count_if(d.s.solution().snags.begin(), d.s.solution().snags.end(),
                             [](const Snag& s) { return std::string(s.rule->id) == "insulation-monitor"; });
    };
    CHECK(d.factValue("Insulation").isEmpty());
    const Project before = d.s.project();
    d.fact("Earthing", "IT");
    REQUIRE(asked() == 1);
    d.fact("Insulation", "insulation monitor, switchroom");
    CHECK(asked() == 0);
    CHECK(d.factValue("Insulation") == "insulation monitor, switchroom");
    // The second fault drives half the voltage: a loop that was in time before has half its limit.
    const double it = double(d.result("DB-3/3").run.earth->limit);
    d.act("undo");
    CHECK(asked() == 1);
    d.act("undo");
    CHECK(d.s.project() == before);
    CHECK(it == Approx(double(d.result("DB-3/3").run.earth->limit) / 2).epsilon(0.01));
}

TEST_CASE("a run of the pier moved to IEC is laid direct in the ground, and its neighbours and soil count") {
    Pier d;
    d.window.go(Stage::Runs);
    d.s.edit("Book", [](Project& p) { p.basis.ruleBook = "iec-60364"; });
    d.pump();
    d.s.select(d.board("DB-7"));
    d.pump();
    d.fact("Cable", "armoured 90 °C");
    d.fact("Method", "D2");
    const RunResult& alone = *d.s.solution().results.run(d.board("DB-7"));
    REQUIRE(alone.size >= 0);
    const double one =
        alone.ampacity /
        d.s.solution().book->cables.type("armoured 90 °C")->method("D2")->ampacity[1][std::size_t(alone.size)];
    d.fact("Laid with", "2");
    const RunResult& three = *d.s.solution().results.run(d.board("DB-7"));
    const double together =
        three.ampacity /
        d.s.solution().book->cables.type("armoured 90 °C")->method("D2")->ampacity[1][std::size_t(three.size)];
    CHECK(together / one == Approx(0.65).margin(0.005)); // B.52.18: three touching
}

TEST_CASE("a level is removed with what stands on it, said in words, and comes back") {
    Pier d;
    d.window.go(Stage::Plan);
    const Project before = d.s.project();
    QString said;
    QObject::connect(&d.s, &Session::said, [&](const QString& words, bool) { said = words; });
    d.act("removeLevel");
    CHECK(d.s.project().levels.size() == before.levels.size() - 1);
    CHECK(said.contains("devices"));
    CHECK(said.contains("stand on no level now"));
    CHECK(d.s.project().boards.size() == before.boards.size());
    d.act("undo");
    CHECK(d.s.project() == before);
    // To the last one, and once more: then it says that there is none.
    for (std::size_t i = 0; i < before.levels.size(); ++i) d.act("removeLevel");
    CHECK(d.s.project().levels.empty());
    d.act("removeLevel");
    CHECK(said == "There is no level to remove");
    for (std::size_t i = 0; i < before.levels.size(); ++i) d.act("undo");
    CHECK(d.s.project() == before);
}

TEST_CASE("a row of a way board typed from the first fact to the last: it stays in sight, and takes what people type") {
    Driven d;
    QFile::copy(QString::fromStdString((dataFolder() / "starters" / "uk-400.lintel").string()), d.path("uk.lintel"));
    QFile::setPermissions(d.path("uk.lintel"), QFile::ReadOwner | QFile::WriteOwner);
    REQUIRE(d.window.openFile(d.path("uk.lintel")));
    d.window.resize(1280, 700); // less than its twelve ways take
    d.window.go(Stage::Boards);
    d.pump();
    BoardView& view = *d.window.findChild<BoardView*>("boardView");
    auto* scroll = qobject_cast<QScrollArea*>(view.parentWidget()->parentWidget());
    REQUIRE(scroll);
    REQUIRE(scroll->verticalScrollBar()->maximum() > 0);
    d.click(view, view.slotBox(1).center());
    d.type(view, "L"); // opens the editor
    d.type(*QApplication::focusWidget(), "ights");
    for (const char* typed : {"600W", "B6", "1.5mm2", "25m"}) {
        QWidget* editor = QApplication::focusWidget();
        REQUIRE(qobject_cast<QLineEdit*>(editor));
        d.key(*editor, Qt::Key_Tab);
        d.pump();
        CHECK(scroll->verticalScrollBar()->value() == 0);
        editor = QApplication::focusWidget();
        REQUIRE(qobject_cast<QLineEdit*>(editor));
        d.type(*editor, typed);
    }
    d.key(*QApplication::focusWidget(), Qt::Key_Return);
    d.pump();
    CHECK(scroll->verticalScrollBar()->value() == 0);
    const Circuit& c = *d.s.project().circuits.begin();
    CHECK(c.name == "Lights");
    CHECK(c.heldBreaker == 6);
    CHECK(c.device == DeviceKind::TypeB);
    CHECK(d.s.project().runs[c.run].heldSize == "1.5");
    CHECK(d.s.project().runs[c.run].length == Approx(25));
    CHECK(d.s.project().loads.begin()->amount == 600);
    // Down past the foot of the window, typing there, and up again: the row at the cursor is always in sight.
    const auto seen = [&](int slot) { return view.visibleRegion().contains(view.slotBox(slot).center().toPoint()); };
    CHECK_FALSE(seen(34));
    for (int i = 0; i < 32; ++i) d.key(view, Qt::Key_Down);
    d.pump();
    CHECK(seen(34));
    d.type(view, "P"); // what it serves, where the row above was begun
    d.type(*QApplication::focusWidget(), "ump");
    d.key(*QApplication::focusWidget(), Qt::Key_Return);
    d.pump();
    REQUIRE(d.s.project().circuits.size() == 2);
    CHECK(nameOf(d.s.project(), std::next(d.s.project().circuits.begin())->id) == "DB-1/12/L1");
    CHECK(seen(35));
    d.type(view, "X");
    d.key(*QApplication::focusWidget(), Qt::Key_Escape); // nor does what is dropped take it out of sight
    d.pump();
    CHECK(seen(35));
    CHECK(view.hasFocus());
    d.s.select(Ref(d.s.project().circuits.begin()->id)); // from a snag, say
    d.pump();
    CHECK(seen(1));
}
