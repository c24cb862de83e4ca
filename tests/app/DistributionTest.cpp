// A building's distribution taken from a list, copied, put in order and given capacitors, as a designer does it.

#include "app/boards/ImportPage.h"
#include "app/riser/RiserMenu.h"
#include "bench/BigBuilding.h"
#include "core/base/Format.h"
#include "core/project/Operations.h"
#include "core/project/Validation.h"
#include "core/sheets/RiserPlaces.h"
#include "tests/app/AppTest.h"

#include <QAbstractItemModelTester>
#include <QCheckBox>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QMimeData>
#include <QPushButton>
#include <QTableView>

#include <fstream>

using namespace lintel;

namespace {

struct Distribution : Driven {
    DrawingView& drawing = window.riser().drawing();
    QString said;
    Distribution() {
        QObject::connect(&s, &Session::said, &window, [this](const QString& text, bool) { said = text; });
    }
    Ref ref(const std::string& name) const {
        for (const Board& b : s.project().boards)
            if (b.name == name) return b.id;
        for (const Transformer& t : s.project().transformers)
            if (t.name == name) return t.id;
        for (const Source& x : s.project().sources)
            if (x.name == name) return x.id;
        return {};
    }
    void onRiser() {
        window.go(Stage::Riser);
        pump();
        drawing.setFocus();
    }
    QPointF middle(const std::string& name) const {
        QPointF at;
        for (const Hotspot& h : drawing.drawing().hotspots)
            if (h.thing == ref(name)) at = drawing.toScreen({(h.left + h.right) / 2, (h.top + h.bottom) / 2});
        return at;
    }
    void choose(const std::string& name) {
        drawing.reveal(ref(name));
        pump();
        click(drawing, middle(name));
        INFO(name);
        REQUIRE(s.selection() == ref(name));
    }
    QString write(const char* name, const std::string& text) {
        std::ofstream(path(name).toStdString(), std::ios::binary) << text;
        return path(name);
    }
    ImportPage& page() { return window.boards().import(); }
    void settle() {
        REQUIRE(QTest::qWaitFor([this] { return page().ready(); }, 20000));
        pump();
    }
    template <class T> T* within(QWidget& w, const char* name) {
        T* found = w.findChild<T*>(name);
        REQUIRE(found);
        return found;
    }
};

/// Does something to the dialog that opens next.
template <class F> void inDialog(QObject& from, F f) {
    QTimer::singleShot(0, &from, [f] {
        QWidget* open = QApplication::activeModalWidget();
        REQUIRE(open);
        f(*open);
    });
}

const std::string schedule = "Feeder,From,To,Load (kVA),Volts,Ph,Breaker,Conductors,Length (ft)\n"
                             "F-1,Utility,MSB,100,480,3,400,4#500,25\n"
                             "F-2,MSB,LP-1,62,480,3,100,\"4#1, #8G\",120\n"
                             "F-3,MSB,LP-2,30,480,3,sixty,\"4#6, #10G\",60\n"
                             "F-4,MSB,Lift,20,480,3,60,\"3#6, #10G\",90\n";

} // namespace

TEST_CASE("riser: a schedule of feeders is taken in by the same page as loads, mended, and undone in one step") {
    Distribution d;
    Project start;
    start.levels.add({{}, "Ground", 0, 3, {}});
    Source s;
    s.name = "Utility";
    s.faultKA = 30;
    start.sources.add(s);
    REQUIRE_FALSE(d.s.begin(start));
    d.window.go(Stage::Boards);
    d.window.boards().openFeeders(d.write("feeders.csv", schedule));
    d.settle();
    ImportPage& page = d.page();
    ListModel& rows = page.model();
    QAbstractItemModelTester tester(&rows);
    REQUIRE(rows.rowCount() == 4);
    const auto what = [&](int row) { return rows.index(row, 1).data().toString(); };
    CHECK(what(0).startsWith("switchboard MSB made, 480Y/277 V, bus 400 A"));
    CHECK(what(2).startsWith("“sixty” is not the rating of a device"));
    CHECK(what(3).startsWith("load Lift made on MSB-"));
    CHECK(page.summary().contains("1 with problems stay out"));
    CHECK(d.s.project() == start);                                         // nothing has entered
    CHECK_FALSE(d.within<QCheckBox>(page, "listRemoveGone")->isVisible()); // nothing is removed by such a list
    // Mended in place; and what is no lift but a board is said so.
    CHECK(rows.setData(rows.index(2, ListModel::firstCell + 6), "60", Qt::EditRole));
    CHECK(what(2).startsWith("panelboard LP-2 made"));
    QTableView& table = *page.table();
    const QPoint at = table.visualRect(rows.index(3, 1)).center();
    bool met = false;
    QTimer::singleShot(0, &d.window, [&] {
        auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        REQUIRE(menu);
        for (QAction* a : menu->actions())
            if (a->text() == "panelboard") {
                met = true;
                menu->setActiveAction(a);
            }
        QTest::keyClick(menu, Qt::Key_Return);
    });
    Q_EMIT table.customContextMenuRequested(at);
    d.pump();
    REQUIRE(met);
    CHECK(what(3).startsWith("panelboard Lift made"));
    page.setMeaning(8, int(FeederField::None)); // the lengths are not wanted
    QTest::mouseClick(d.within<QPushButton>(page, "listAccept"), Qt::LeftButton);
    d.pump();
    CHECK_FALSE(page.isVisible());
    CHECK(d.said == "4 feeders added, 0 changed, 0 the same");
    const Project& p = d.s.project();
    REQUIRE_FALSE(validate(p));
    REQUIRE(d.ref("LP-2"));
    CHECK(p.runs[p.boards[d.ref("LP-1").as<Board>()].run].heldSize == "1");
    CHECK(p.runs[p.boards[d.ref("LP-1").as<Board>()].run].lengthBy == LengthBy::Reach);
    CHECK(p.boards.has(d.ref("Lift").as<Board>()));
    d.s.undo();
    CHECK(d.s.project() == start);
}

TEST_CASE("riser: a board with all below it is copied by keys and by Ctrl and mouse, and undone in one step") {
    Distribution d;
    d.openDemo();
    d.onRiser();
    const Project start = d.s.project();
    const std::size_t boards = start.boards.size(), transformers = start.transformers.size();
    d.choose("T-1");
    QTest::keyClick(&d.drawing, Qt::Key_C, Qt::ControlModifier);
    CHECK(d.said.contains("T-1 with the"));
    d.choose("MDS");
    QTest::keyClick(&d.drawing, Qt::Key_V, Qt::ControlModifier);
    d.pump();
    const Project& p = d.s.project();
    REQUIRE_FALSE(validate(p));
    CHECK(p.transformers.size() == transformers + 1);
    CHECK(p.boards.size() > boards);
    CHECK(d.s.selection().is<Transformer>());
    CHECK(d.said.contains("is a copy of T-1"));
    CHECK(d.s.undoLabel().startsWith("Copy T-1 with the"));
    d.s.undo();
    d.pump();
    CHECK(d.s.project() == start);
    // What cannot be says so and changes nothing: 480 V where 208 V is.
    d.choose("LP-1");
    QTest::keyClick(&d.drawing, Qt::Key_V, Qt::ControlModifier);
    d.pump();
    CHECK(d.s.project() == start);
    CHECK(d.said.contains("480"));
    // By mouse.
    const QPointF from = d.middle("LP-2");
    QTest::mousePress(&d.drawing, Qt::LeftButton, Qt::ControlModifier, from.toPoint());
    const QPointF to = d.middle("T-1");
    for (double k : {0.2, 0.6, 1.0}) d.move(d.drawing, from + (to - from) * k, Qt::LeftButton);
    QTest::mouseRelease(&d.drawing, Qt::LeftButton, Qt::ControlModifier, to.toPoint());
    d.pump();
    CHECK(d.s.project().boards.size() == boards + 1);
    CHECK(d.said.contains("is a copy of LP-2, fed from T-1"));
    d.s.undo();
    d.pump();
    CHECK(d.s.project() == start);
}

TEST_CASE("riser: boards are put in another order by mouse and keys, given room, and let go again") {
    Distribution d;
    d.openDemo();
    d.onRiser();
    QTest::mouseClick(d.within<QPushButton>(d.window.riser(), "riserOneLine"), Qt::LeftButton);
    d.pump();
    const Project start = d.s.project();
    const auto order = [&] {
        std::string names;
        for (Ref r : drawnBeside(d.s.project(), d.s.solution().results, d.ref("HL-1"))) names += nameOf(start, r) + " ";
        return names;
    };
    const std::string before = order();
    const std::vector<Ref> beside = drawnBeside(start, d.s.solution().results, d.ref("HL-1"));
    REQUIRE(beside.size() >= 3);
    const Ref first = beside.front(), second = beside[1];
    d.choose(nameOf(start, first));
    QTest::keyClick(&d.drawing, Qt::Key_Left, Qt::AltModifier);
    d.pump();
    CHECK(d.said == QString::fromStdString(nameOf(start, first) + " is the first of those that hang on the same"));
    CHECK(d.s.project() == start);
    QTest::keyClick(&d.drawing, Qt::Key_Right, Qt::AltModifier);
    d.pump();
    CHECK(order().rfind(nameOf(start, second) + " " + nameOf(start, first), 0) == 0);
    CHECK(d.middle(nameOf(start, second)).x() < d.middle(nameOf(start, first)).x());
    QTest::keyClick(&d.drawing, Qt::Key_Right, Qt::AltModifier | Qt::ShiftModifier);
    d.pump();
    CHECK(placeByHand(d.s.project(), first).gap == gapStep);
    // The bend of its feeder one lower, the words of its feeder further away.
    QTest::keyClick(&d.drawing, Qt::Key_Up, Qt::AltModifier);
    d.pump();
    CHECK(d.said == QString::fromStdString("The line to " + nameOf(start, first) + " goes no further"));
    QTest::keyClick(&d.drawing, Qt::Key_Down, Qt::AltModifier);
    d.pump();
    CHECK(placeByHand(d.s.project(), first).lower == 1);
    QTest::keyClick(&d.drawing, Qt::Key_Up, Qt::AltModifier | Qt::ShiftModifier);
    d.pump();
    CHECK(placeByHand(d.s.project(), first).lift == liftStep);
    for (int i = 0; i < 4; ++i) d.s.undo();
    d.pump();
    CHECK(d.s.project() == start);
    // Words and lines are slid by the mouse: 8 mm of paper, and two tracks of 3.2 mm.
    const auto grip = [&](GripSpot::Part part) {
        for (const GripSpot& g : d.drawing.drawing().grips)
            if (g.part == part && g.right - g.left > 6) return g;
        FAIL("no such grip");
        return GripSpot{};
    };
    const auto slide = [&](const GripSpot& g, double mm) {
        const Point at{(g.left + g.right) / 2, (g.top + g.bottom) / 2};
        d.drag(d.drawing, d.drawing.toScreen(at), d.drawing.toScreen({at.x, at.y + mm}));
    };
    const GripSpot words = grip(GripSpot::Part::Words);
    slide(words, words.moreIsUp ? -8 : 8);
    CHECK(placeByHand(d.s.project(), words.thing).lift == 8);
    CHECK(d.s.selection() == words.thing);
    CHECK(d.s.undoLabel() == QString::fromStdString("Words of the feeder to " + nameOf(start, words.thing)));
    d.s.undo();
    d.pump();
    const GripSpot line = grip(GripSpot::Part::Line);
    slide(line, 6.6);
    CHECK(placeByHand(d.s.project(), line.thing).lower == 2);
    d.s.undo();
    d.pump();
    slide(grip(GripSpot::Part::Line), -9); // it is as high as it can be
    CHECK(d.s.project() == start);
    // By mouse: dropped on an empty place beside another.
    d.choose(nameOf(start, second)); // it is in view
    const QPointF from = d.middle(nameOf(start, second));
    QPointF to;
    for (const Hotspot& h : d.drawing.drawing().hotspots)
        if (h.thing == first) to = d.drawing.toScreen({h.left - 1, (h.top + h.bottom) / 2});
    d.drag(d.drawing, from, to);
    CHECK(order().rfind(nameOf(start, second) + " " + nameOf(start, first), 0) == 0);
    CHECK(d.s.undoLabel() == QString::fromStdString("Move " + nameOf(start, second) + " on the riser"));
    REQUIRE_FALSE(validate(d.s.project()));
    d.s.undo();
    d.pump();
    CHECK(order() == before);
}

TEST_CASE("riser: a very large distribution is drawn beside the window, and what is shown then is of the newest edit") {
    Distribution d;
    REQUIRE_FALSE(d.s.begin(bigBuilding(150, 4)));
    d.onRiser();
    RiserStage& riser = d.window.riser();
    REQUIRE(QTest::qWaitFor([&] { return riser.isCurrent(); }, 60000));
    CHECK(d.drawing.drawing().words().find("B-149") != std::string::npos);
    // What is chosen is in sight, also a box that is wider than the view.
    for (const char* name : {"B-125", "B-3"}) {
        d.s.select(d.ref(name));
        d.pump();
        bool seen = false;
        for (const Hotspot& h : d.drawing.drawing().hotspots)
            if (h.thing == d.ref(name))
                seen = seen || QRectF(d.drawing.toScreen({h.left, h.top}), d.drawing.toScreen({h.right, h.bottom}))
                                   .intersects(QRectF(d.drawing.rect()).adjusted(20, 20, -20, -20));
        INFO(name);
        CHECK(seen);
    }
    // Two edits on one another's heels: the drawing of the first never comes in over that of the second.
    for (const char* name : {"Once", "Twice"})
        d.s.edit("Rename", [&](Project& p) { p.boards.change({150})->name = name; });
    d.pump();
    REQUIRE(QTest::qWaitFor([&] { return riser.isCurrent(); }, 60000));
    CHECK(d.drawing.drawing().words().find("Twice") != std::string::npos);
    CHECK(d.drawing.drawing().words().find("Once") == std::string::npos);
    // And it goes with the window while it is being drawn.
    d.s.edit("Rename", [&](Project& p) { p.boards.change({150})->name = "Last"; });
}

TEST_CASE("riser: a capacitor bank is sized for the board that is chosen, and added") {
    Distribution d;
    Project p;
    p.levels.add({{}, "Ground", 0, 3, {}});
    Source s;
    s.name = "Utility";
    const SourceId source = p.sources.add(s);
    Board b;
    b.name = "MSB";
    b.system = VoltageSystem::Y480;
    b.bus = b.main = 800;
    const BoardId board = addBoard(p, b);
    feedFrom(p, board, source);
    const CircuitId c = addCircuit(p, board, 3, "Chiller");
    Load l;
    l.circuit = c;
    l.amount = 300;
    l.unit = LoadUnit::kW;
    l.powerFactor = 0.75;
    l.poles = 3;
    p.loads.add(l);
    REQUIRE_FALSE(d.s.begin(p));
    d.onRiser();
    const Project start = d.s.project();
    d.choose("MSB");
    inDialog(d.window, [](QWidget& dialog) {
        auto* wanted = dialog.findChild<QLineEdit*>("capacitorWanted");
        auto* add = dialog.findChild<QPushButton*>("capacitorAdd");
        REQUIRE(wanted);
        CHECK(add->text() == "Add 175 kvar"); // 300 kW from 0.75 to 0.95 asks for 166
        for (const char* bad : {"", "good", "0.2", "1.2", "95 kW", "0.7"}) {
            INFO(bad);
            wanted->clear();
            QTest::keyClicks(wanted, bad);
            CHECK_FALSE(add->isEnabled());
            CHECK_FALSE(dialog.findChild<QLabel*>("capacitorCaution")->text().isEmpty());
        }
        wanted->clear();
        QTest::keyClicks(wanted, "90 %");
        CHECK(add->text() == "Add 120 kvar"); // 264.6 − 145.3 = 119.3
        QTest::mouseClick(add, Qt::LeftButton);
    });
    QTest::keyClick(&d.drawing, Qt::Key_C);
    d.pump();
    CHECK(d.s.project().loads.size() == 2);
    REQUIRE(d.s.selection().is<Circuit>());
    CHECK(d.s.project().circuits[d.s.selection().as<Circuit>()].name == "Capacitor bank");
    d.s.undo();
    CHECK(d.s.project() == start);
}

TEST_CASE("runs: named by a pattern, shown before it is done") {
    Distribution d;
    d.openDemo();
    const Project start = d.s.project();
    d.window.go(Stage::Runs);
    d.pump();
    inDialog(d.window, [](QWidget& dialog) {
        auto* pattern = dialog.findChild<QLineEdit*>("runPattern");
        auto* go = dialog.findChild<QPushButton*>("runNamesApply");
        auto* preview = dialog.findChild<QLabel*>("runNamesPreview");
        REQUIRE(pattern);
        CHECK(pattern->text() == "{from}-{slot}");
        pattern->clear();
        QTest::keyClicks(pattern, "W-{wire}");
        CHECK_FALSE(go->isEnabled());
        CHECK(preview->text().startsWith("“{wire}” is no place of a pattern"));
        pattern->clear();
        QTest::keyClicks(pattern, "W-{circuit}");
        CHECK(preview->text().startsWith("W-MDS-"));
        QTest::mouseClick(go, Qt::LeftButton);
    });
    d.window.runs().askNames();
    d.pump();
    for (const Circuit& c : d.s.project().circuits)
        if (nameOf(d.s.project(), c.id) == "LP-1-1") CHECK(d.s.project().runs[c.run].name == "W-LP-1-1");
    CHECK(d.s.project().basis.runPattern == "W-{circuit}");
    d.s.undo();
    CHECK(d.s.project() == start);
}

TEST_CASE("facts of a motor's circuit: its starter and what it takes at start, in words of either side of the sea") {
    Distribution d;
    Project p;
    Source s;
    s.name = "Utility";
    const SourceId source = p.sources.add(s);
    Board b;
    b.name = "MCC-1";
    b.use = BoardUse::MotorControl;
    b.system = VoltageSystem::Y480;
    const BoardId board = addBoard(p, b);
    feedFrom(p, board, source);
    const CircuitId c = addCircuit(p, board, 3, "Pump");
    Load l;
    l.circuit = c;
    l.amount = 25;
    l.unit = LoadUnit::hp;
    l.kind = LoadKind::Motor;
    l.poles = 3;
    p.loads.add(l);
    REQUIRE_FALSE(d.s.begin(p));
    d.s.select(Ref(c));
    d.pump();
    CHECK(d.factValue("Takes at start").startsWith("6 × its full load, not entered"));
    d.fact("Starter", "star-delta");
    CHECK(d.s.project().circuits[c].starter == StarterKind::StarDelta);
    CHECK(d.factValue("Takes at start").startsWith("2 × its full load"));
    d.fact("Takes at start", "3.5 ×");
    CHECK(d.s.project().circuits[c].startTimes == 3.5);
    CHECK(d.factValue("Takes at start") == "3.5 × its full load");
}

TEST_CASE("riser: a busway by one key, its bars and tap-offs by their facts, and what is wrong with it in words") {
    Distribution d;
    d.openDemo();
    d.onRiser();
    d.choose("MDS");
    const Project start = d.s.project();
    d.type(d.drawing, "w");
    const BoardId bw = d.ref("BW-1").as<Board>();
    REQUIRE(bw);
    CHECK(d.s.selection() == Ref(bw));
    CHECK(d.s.project().boards[bw].use == BoardUse::Busway);
    d.type(d.drawing, "t"); // what hangs on it is a tap-off
    const TransformerId t = d.s.selection().as<Transformer>();
    REQUIRE(t);
    const CircuitId tap = d.s.project().transformers[t].feed.as<Circuit>();
    REQUIRE(tap);
    CHECK(d.s.project().circuits[tap].board == bw);

    d.s.select(Ref(bw));
    d.pump();
    CHECK(d.factValue("Length") == "not entered");
    d.fact("Length", "200 ft");
    d.fact("R at 20 °C", "3.048 mohm/100 ft"); // as makers on that side of the sea give it
    d.fact("R when loaded", "0.125");
    d.fact("X", "0.05 ohm/km");
    d.fact("Loop to earth, R", "0.3");
    const Board& bars = d.s.project().boards[bw];
    CHECK(bars.barLength == Approx(60.96));
    CHECK(bars.barR20 == Approx(0.1));
    CHECK(bars.barR == Approx(0.125));
    CHECK(bars.barX == Approx(0.05));
    CHECK(d.factValue("X") == "0.05 mΩ/m");
    const Project before = d.s.project();
    for (const char* typed : {"0.05 Mohm/m", "half", "0.05 ohm"}) { // an M is no m, and an ohm alone has no length
        INFO(typed);
        d.fact("X", typed);
        CHECK(d.s.project() == before);
        QWidget* editor = d.window.facts().view().findChild<QLineEdit*>("factEditor", Qt::FindDirectChildrenOnly);
        REQUIRE(editor); // what was typed is still there
        d.key(*editor, Qt::Key_Escape);
    }

    d.s.select(Ref(tap));
    d.pump();
    CHECK(d.factValue("Along the busway") == "not entered");
    d.fact("Along the busway", "120 ft");
    CHECK(d.s.project().circuits[tap].along == Approx(36.576));
    CHECK(d.factValue("Along the busway").startsWith("120 ft, "));
    while (d.s.project() != start && d.s.canUndo()) d.s.undo();
    CHECK(d.s.project() == start);
}

TEST_CASE("riser: one key gives a thing the size that its load asks for") {
    Distribution d;
    d.openDemo();
    d.onRiser();
    d.s.select(d.ref("T-1"));
    d.pump();
    const TransformerId t = d.ref("T-1").as<Transformer>();
    d.s.edit("Too large", [&](Project& p) { p.transformers.change(t)->kva = 1000; });
    d.pump();
    const double load = d.s.solution().results.of(t).demand / 1000 * (1 + d.s.project().basis.growth);
    d.type(d.drawing, "z");
    const double kva = d.s.project().transformers[t].kva;
    CHECK(kva >= load);
    CHECK(kva < 1.6 * load); // the next of the series, not some larger one
    CHECK(d.said.toStdString().find("T-1: " + rating(1000) + " kVA → ") == 0);
    d.said.clear();
    d.type(d.drawing, "z");
    CHECK(d.said == "it is that size");
    d.s.undo();
    CHECK(d.s.project().transformers[t].kva == 1000);
    d.s.select(d.ref("G-1"));
    d.pump();
    d.s.edit("Too small", [&](Project& p) { p.sources.change(d.ref("G-1").as<Source>())->kva = 10; });
    d.pump();
    d.type(d.drawing, "z");
    const SourceResult& g = d.s.solution().results.of(d.ref("G-1").as<Source>());
    const Source& made = d.s.project().sources[d.ref("G-1").as<Source>()]; // it gives more for the moment of a start
    CHECK(made.kva * 1000 >= std::max(g.standby, g.peak / made.peakShare));
}

TEST_CASE("riser: the outline follows the selection, and the tree is built in it as in the drawing") {
    Distribution d;
    d.openDemo();
    d.onRiser();
    FeedTree& tree = d.window.riser().outline().tree();
    REQUIRE(tree.isVisible());
    const auto row = [&](const std::string& name) {
        for (QTreeWidgetItemIterator i(&tree); *i; ++i)
            if (FeedTree::thingOf(*i) == d.ref(name) && d.ref(name)) return *i;
        return static_cast<QTreeWidgetItem*>(nullptr);
    };
    REQUIRE(row("SP-1"));
    CHECK(row("SP-1")->parent() == row("LP-3"));
    CHECK(row("LP-4")->text(1).endsWith("124 %")); // over its bus; no more figures than a glance takes
    CHECK(row("LP-4")->text(1).startsWith("●"));
    CHECK(row("ATS-1")->text(0) == "ATS-1 ⇄");
    CHECK(row("ATS-1")->toolTip(0) == "GD-1 takes over");

    // The selection is one, whoever makes it.
    d.s.select(d.ref("SP-1"));
    d.pump();
    CHECK(tree.currentItem() == row("SP-1"));
    tree.setFocus();
    d.key(tree, Qt::Key_Down);
    CHECK(d.s.selection() == d.ref("SP-2"));

    // Letters add, as in the drawing; what was made is chosen.
    const Project before = d.s.project();
    d.type(tree, "b");
    const Ref made = d.s.selection();
    REQUIRE(made.is<Board>());
    CHECK(feedOf(d.s.project(), made).is<Circuit>());
    CHECK(d.s.project().circuits[feedOf(d.s.project(), made).as<Circuit>()].board == d.ref("SP-2").as<Board>());
    d.key(tree, Qt::Key_Delete);
    CHECK_FALSE(d.s.project().boards.has(made.as<Board>()));
    d.s.undo();
    d.s.undo();
    CHECK(d.s.project() == before);
    d.pump();

    // Dropped on another board it is fed from there; where that cannot be, the reason is said.
    const auto drop = [&](const std::string& what, const std::string& on, Qt::KeyboardModifiers keys = {}) {
        tree.setCurrentItem(row(what));
        tree.scrollToItem(row(on));
        const std::unique_ptr<QMimeData> carried(tree.model()->mimeData({tree.currentIndex()}));
        const QPoint at = tree.visualItemRect(row(on)).center();
        QDragEnterEvent enter(at, Qt::MoveAction, carried.get(), Qt::LeftButton, keys);
        QApplication::sendEvent(tree.viewport(), &enter);
        QDropEvent e(at, Qt::MoveAction, carried.get(), Qt::LeftButton, keys);
        QApplication::sendEvent(tree.viewport(), &e);
        d.pump();
    };
    drop("SP-1", "LP-1");
    CHECK(d.s.project().circuits[feedOf(d.s.project(), d.ref("SP-1")).as<Circuit>()].board ==
          d.ref("LP-1").as<Board>());
    CHECK(row("SP-1")->parent() == row("LP-1"));
    d.s.undo();
    d.pump();
    drop("SP-1", "HM-1");
    CHECK(d.said.contains("Put a transformer between them"));
    CHECK(d.s.project() == before);

    // What can be added stands below, with its key, and a click does it.
    d.s.select(d.ref("LP-1"));
    d.pump();
    QTreeWidget& adding = d.window.riser().outline().commands();
    QTreeWidgetItem* meter = nullptr;
    for (int i = 0; i < adding.topLevelItemCount(); ++i)
        if (adding.topLevelItem(i)->text(0) == "Meter") meter = adding.topLevelItem(i);
    REQUIRE(meter);
    CHECK(meter->text(1) == "E");
    adding.scrollToItem(meter);
    d.click(*adding.viewport(), adding.visualItemRect(meter).center());
    CHECK(d.s.project().boards[feedOf(d.s.project(), d.ref("LP-1")).as<Board>()].use == BoardUse::Meter);
    d.s.undo();
    d.pump();

    // The current transformers of a meter that stands elsewhere, by their key.
    d.s.select(d.ref("LP-1"));
    d.pump();
    d.type(tree, "a");
    CHECK(nameOf(d.s.project(), d.s.selection()) == "CT-1");
    CHECK(d.s.project().boards[feedOf(d.s.project(), d.ref("LP-1")).as<Board>()].use == BoardUse::CtCabinet);
    d.s.undo();
    d.pump();

    // A transformer in front is of the next size above what the board takes.
    d.s.select(d.ref("LP-2"));
    d.pump();
    d.type(tree, "r");
    const Ref between = d.s.selection();
    REQUIRE(between.is<Transformer>());
    CHECK(feedOf(d.s.project(), d.ref("LP-2")) == between);
    CHECK(d.s.project().transformers[between.as<Transformer>()].kva * 1000 >=
          d.s.solution().results.of(d.ref("LP-2").as<Board>()).demand);
    d.s.undo();
    d.pump();
    CHECK(d.s.project() == before);

    // What somebody has closed stays closed, whether figures change or something hangs elsewhere.
    row("T-2")->setExpanded(false);
    d.s.edit("Figures", [&](Project& p) { p.boards.change(d.ref("SP-1").as<Board>())->bus = 100; });
    d.pump();
    CHECK_FALSE(row("T-2")->isExpanded());
    CHECK(row("SP-1")->text(1).endsWith("65 %")); // 64.8 A of 100
    d.s.undo();
    d.pump();

    // What nothing feeds stands by itself.
    d.s.edit("Free", [&](Project& p) { clearFeed(p, d.ref("LP-2")); });
    d.pump();
    REQUIRE(row("LP-2"));
    CHECK(row("LP-2")->parent()->text(0) == "Not fed");
    CHECK_FALSE(row("T-2")->isExpanded());
    CHECK(row("T-1")->isExpanded());

    // It is put away, and the drawing takes its room.
    const int narrow = d.drawing.width();
    auto* button = d.within<QPushButton>(d.window, "riserOutline");
    QTest::mouseClick(button, Qt::LeftButton);
    d.pump();
    CHECK_FALSE(tree.isVisible());
    CHECK(d.drawing.width() > narrow + 100);
    QTest::mouseClick(button, Qt::LeftButton);
    d.pump();
    CHECK(tree.isVisible());
}
