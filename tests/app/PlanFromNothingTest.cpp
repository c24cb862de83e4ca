// A floor from nothing, on the interface: a drawing linked and scaled, rooms taken from it, a recipe, a catchment,
// circuits, and the lengths of the runs against ones measured by hand.

#include "app/frame/PreviewCard.h"
#include "app/frame/UnderlayShelf.h"
#include "app/plan/PlanCards.h"
#include "core/check/Check.h"
#include "tests/app/AppTest.h"

#include <QLabel>
#include <QPlainTextEdit>
#include <QSpinBox>
#include <QTableWidget>

#include <fstream>

using namespace lintel;

namespace {

/// Two rooms of 6 m by 4 m as closed outlines, with their numbers and names, in millimetres; `extra` goes to the
/// entities.
std::string twoRooms(const std::string& extra = "") {
    const auto rect = [](int x0, int y0, int x1, int y1) {
        std::string s = "0\nLWPOLYLINE\n8\nROOMS\n90\n4\n70\n1\n";
        for (const auto& [x, y] : {std::pair{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}})
            s += "10\n" + std::to_string(x) + "\n20\n" + std::to_string(y) + "\n";
        return s;
    };
    const auto text = [](int x, int y, const char* words) {
        return "0\nTEXT\n8\nNAMES\n10\n" + std::to_string(x) + "\n20\n" + std::to_string(y) + "\n40\n250\n1\n" +
               std::string(words) + "\n";
    };
    return "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" +
           rect(0, -4000, 6000, 0) + rect(6200, -4000, 12200, 0) + text(1000, -2000, "Workroom") +
           text(1000, -2500, "101") + text(7000, -2000, "Workroom") + text(7000, -2500, "102") + extra +
           "0\nENDSEC\n0\nEOF\n";
}
void write(const QString& file, const std::string& text) {
    std::ofstream out(file.toStdString(), std::ios::binary);
    out << text;
}

struct Nothing : Driven {
    LevelId level;
    Nothing() {
        Project p;
        p.basis.units = UnitSystem::Metric;
        level = p.levels.add({{}, "Ground", 0, 3, {}});
        Source src;
        src.name = "Utility", src.system = VoltageSystem::Y208;
        p.sources.add(src);
        DeviceType y;
        y.name = "Receptacle";
        p.deviceTypes.add(y);
        y.name = "Panel", y.symbol = Symbol::Luminaire, y.kind = LoadKind::Lighting, y.load = 40, y.onWall = false,
        y.height = 2.9, y.lumens = 4000;
        p.deviceTypes.add(y);
        REQUIRE_FALSE(s.begin(p));
        window.go(Stage::Plan);
        pump();
    }
    PlanStage& stage() { return window.plan(); }
    PlanView& plan() { return window.plan().plan(); }
    void press(const char* name) {
        auto* b = stage().findChild<QAbstractButton*>(name);
        REQUIRE(b);
        QTest::mouseClick(b, Qt::LeftButton);
        pump();
    }
    void choose(QListWidget* list, const QString& text) {
        for (int i = 0; i < list->count(); ++i)
            if (list->item(i)->text() == text) {
                list->scrollToItem(list->item(i));
                click(*list->viewport(), list->visualItemRect(list->item(i)).center());
                return;
            }
        FAIL("no such row: " << text.toStdString());
    }
    void at(Point p, Qt::KeyboardModifiers m = {}) { click(plan(), plan().toScreen(p), m); }
    void link(const QString& file) {
        stage().linkUnderlay(file);
        REQUIRE(s.underlays().settle());
        pump();
        key(plan(), Qt::Key_F);
    }
};

} // namespace

TEST_CASE("from an empty floor: drawing, rooms, recipe, catchment, circuits, tray, trace; lengths as measured by hand; "
          "undone to nothing") {
    Nothing d;
    const Project start = d.s.project();
    write(d.path("floor.dxf"), twoRooms());
    d.link(d.path("floor.dxf"));
    const UnderlayId underlay = d.s.project().underlays.begin()->id;
    CHECK(d.plan().mode() == PlanMode::Underlay);
    CHECK(d.stage().findChild<QLabel*>("underlayState")->text().contains("scale by its header"));

    // The drawing is said to be 5 % too small: two corners that are 6.3 m apart; and back again with feet.
    d.press("underlayScale");
    d.at({0.02, 0.03}); // the hand is drawn to the corner
    d.at({6.01, 0.02});
    d.type(d.plan(), "6.3");
    d.key(d.plan(), Qt::Key_Return);
    CHECK(d.s.project().underlays[underlay].scale == Approx(0.00105));
    d.act("undo");

    // Rooms from its closed outlines, numbered and named by the texts in them.
    d.key(d.plan(), Qt::Key_R);
    REQUIRE(d.stage().findChild<QComboBox*>("roomLayers")->currentText() == "ROOMS (2)");
    d.press("roomsFromLayer");
    CHECK(d.plan().preview()->words().contains("2 rooms would be made"));
    d.key(d.plan(), Qt::Key_Return);
    REQUIRE(d.s.project().rooms.size() == 2);
    CHECK(nameOf(d.s.project(), Ref(RoomId{1})) == "Workroom 101");
    CHECK(areaOf(d.s.project().rooms[{2}].outline) == Approx(24));
    for (RoomId r : {RoomId{1}, RoomId{2}}) {
        d.s.select(r);
        d.pump();
        d.fact("Kind", "workroom");
    }

    // A recipe: outlets along the walls, 5 m apart at most; panels to 300 lux.
    auto* kinds = d.stage().findChild<QListWidget*>("roomKinds");
    d.choose(kinds, "workroom");
    d.press("recipeEdit");
    RecipeCard& card = *d.stage().recipeCard();
    REQUIRE(card.isVisible());
    QTest::mouseClick(card.findChild<QPushButton*>("recipeAdd"), Qt::LeftButton);
    QTest::mouseClick(card.findChild<QPushButton*>("recipeAdd"), Qt::LeftButton);
    d.pump();
    card.table()->item(0, 2)->setText("5 m");
    auto* type = qobject_cast<QComboBox*>(card.table()->cellWidget(1, 0));
    type->setCurrentIndex(1);
    Q_EMIT type->activated(1);
    d.pump();
    auto* by = qobject_cast<QComboBox*>(card.table()->cellWidget(1, 1));
    by->setCurrentIndex(by->findText("grid to lux"));
    Q_EMIT by->activated(by->currentIndex());
    d.pump();
    d.choose(kinds, "workroom");
    d.press("recipeApply");
    // Outlets: 20 m of wall, four. Panels: 300 · 24 / (4000 · 0.6 · 0.8) = 3.75, four.
    CHECK(d.plan().preview()->words().contains("2 rooms: 16 placed, 0 shifted, 0 removed"));
    d.key(d.plan(), Qt::Key_Return);
    CHECK(d.s.project().devices.size() == 16);
    d.press("recipeApply");
    CHECK(d.plan().preview()->words().contains("Nothing would change"));
    d.key(d.plan(), Qt::Key_Escape);

    // A board between the rooms' fronts, a catchment of the whole level, and circuits.
    d.key(d.plan(), Qt::Key_P);
    d.choose(d.stage().palette_(), "New board");
    d.at({6.1, 4.6});
    const BoardId board = d.board("LP-1");
    REQUIRE(board);
    CHECK(distance(d.s.project().boards[board].at, {6.1, 4.6}) < 0.001);
    d.key(d.plan(), Qt::Key_Escape);
    d.s.edit("fed", [&](Project& p) {
        p.boards.change(board)->system = VoltageSystem::Y208;
        feedFrom(p, board, p.sources.begin()->id);
    });
    d.pump();
    d.key(d.plan(), Qt::Key_K);
    d.press("catchmentWhole");
    REQUIRE(d.stage().matrixCard()->isVisible());
    CHECK(d.stage().matrixCard()->table()->item(0, 1)->checkState() == Qt::Checked);
    d.key(d.plan(), Qt::Key_C);
    d.press("circuitLevel");
    // 16 devices: outlets of 8 · 180 VA are 12 A; lights of 8 · 40 VA. Two circuits.
    CHECK(d.plan().preview()->words().contains("16 devices on 2 circuits"));
    d.key(d.plan(), Qt::Key_Return);
    REQUIRE(d.s.project().circuits.size() == 2);
    for (const Device& x : d.s.project().devices) CHECK(x.circuit);

    // By hand: up from the board (1.5 m) to the route 0.3 m below the ceiling (2.7 m), across to the farthest outlet,
    // down to 0.45 m; 5 % more.
    CircuitId outlets, lights;
    for (const Circuit& c : d.s.project().circuits)
        (d.s.solution().results.of(c.id).kind == LoadKind::Lighting ? lights : outlets) = c.id;
    double across = 0;
    const Device* farthest = nullptr;
    for (const Device& x : d.s.project().devices)
        if (x.circuit == outlets && std::abs(x.at.x - 6.1) + std::abs(x.at.y - 4.6) > across)
            across = std::abs(x.at.x - 6.1) + std::abs(x.at.y - 4.6), farthest = &x;
    const auto length = [&](CircuitId c) { return d.s.solution().results.of(c).run.need.length.v; };
    CHECK(length(outlets) == Approx((1.2 + across + 2.25) * 1.05));
    CHECK(across > 8);

    // A tray along the front takes the way: 0.4 m to it, along to below the farthest outlet, off to it.
    d.key(d.plan(), Qt::Key_T);
    d.at({-0.2, 4.2});
    d.at({12.4, 4.2});
    d.key(d.plan(), Qt::Key_Return);
    REQUIRE(d.s.project().trays.size() == 1);
    CHECK(d.s.project().trays[{1}].height == Approx(2.7));
    const double off = 0.4 + std::abs(farthest->at.y - 4.2);
    if (off < across / 2) CHECK(length(outlets) == Approx((1.2 + off + std::abs(farthest->at.x - 6.1) + 2.25) * 1.05));
    CHECK(length(lights) > 0);

    // Traced by hand, with one leg typed: 3.4 up the sheet, 5 across, and on to a corner.
    d.s.select(outlets);
    d.key(d.plan(), Qt::Key_G);
    d.at({6.1, 4.6});
    QTest::mouseMove(&d.plan(), d.plan().toScreen({6.1, 2}).toPoint());
    d.move(d.plan(), d.plan().toScreen({6.1, 2}));
    d.type(d.plan(), "3.4");
    d.key(d.plan(), Qt::Key_Return);
    d.at({1.1, 1.2});
    d.key(d.plan(), Qt::Key_Return);
    const Run& run = d.s.project().runs[d.s.project().circuits[outlets].run];
    REQUIRE(run.lengthBy == LengthBy::Traced);
    REQUIRE(run.trace.size() == 3);
    CHECK(run.trace[1].y == Approx(1.2).margin(0.02));
    CHECK(length(outlets) == Approx((1.2 + 3.4 + 5 + 2.25) * 1.05).epsilon(0.01));

    // Runs, Boards and the sheets know of it at once.
    CHECK(d.s.solution().results.of(board).connected == Approx(8 * 180 + 8 * 40));
    d.window.go(Stage::Runs);
    d.pump();
    const SheetInput in = d.s.sheetInput(d.s.solution());
    const Drawing sheet = planDrawing(in, d.level);
    CHECK(sheet.words().find("Workroom") != std::string::npos);
    CHECK(std::any_of(sheet.marks.begin(), sheet.marks.end(),
                      [](const Mark& m) { return std::holds_alternative<LinesMark>(m); })); // the drawing lies below

    while (d.s.canUndo()) d.act("undo");
    CHECK(d.s.project() == start);
}

TEST_CASE("walls, doors and rooms by mouse and by typed lengths; a wall's end takes its neighbours along") {
    Nothing d;
    d.key(d.plan(), Qt::Key_W);
    d.at({1, 1});
    d.move(d.plan(), d.plan().toScreen({5, 1}));
    d.type(d.plan(), "7.2");
    d.key(d.plan(), Qt::Key_Return);
    d.move(d.plan(), d.plan().toScreen({8.2, 3}));
    d.type(d.plan(), "5m");
    d.key(d.plan(), Qt::Key_Return);
    d.at({1, 6});
    d.at({1, 1});
    d.key(d.plan(), Qt::Key_Return);
    REQUIRE(d.s.project().walls.size() == 4);
    CHECK(d.s.project().walls[{1}].b.x == Approx(8.2));
    CHECK(d.s.project().walls[{2}].b.y == Approx(6));
    d.key(d.plan(), Qt::Key_P);
    d.choose(d.stage().palette_(), "Door");
    d.at({4, 6.05});
    REQUIRE(d.s.project().openings.size() == 1);
    CHECK(d.s.project().openings[{1}].wall == WallId{3});
    CHECK(d.s.project().openings[{1}].along == Approx(4.2).margin(0.06)); // from (8.2, 6)
    d.choose(d.stage().palette_(), "Sink");
    d.at({4, 1.3}); // its back to the wall
    REQUIRE(d.s.project().furnishings.size() == 1);
    CHECK(d.s.project().furnishings[{1}].at.y == Approx(1.075 + 0.25 + 0.02));
    d.key(d.plan(), Qt::Key_R);
    d.press("roomsFromWalls");
    d.key(d.plan(), Qt::Key_Return);
    REQUIRE(d.s.project().rooms.size() == 1);
    CHECK(areaOf(d.s.project().rooms[{1}].outline) == Approx((7.2 - 0.15) * (5 - 0.15)).epsilon(0.002));
    // The lower right corner is drawn out by a metre: both walls follow.
    d.key(d.plan(), Qt::Key_V);
    d.at({8.2, 3.5});
    REQUIRE(d.s.selection().is<Wall>());
    d.drag(d.plan(), d.plan().toScreen({8.2, 6}), d.plan().toScreen({9.2, 6}));
    CHECK(d.s.project().walls[{2}].b.x == Approx(9.2).margin(0.05));
    CHECK(d.s.project().walls[{3}].a == d.s.project().walls[{2}].b);
}

TEST_CASE("devices in a row, along a wall, as a grid; mirrored, copied, in an array") {
    Nothing d;
    d.s.edit("walls", [&](Project& p) {
        Wall w;
        w.level = d.level, w.a = {0, 0}, w.b = {12, 0};
        p.walls.add(w);
        Room r;
        r.level = d.level, r.name = "Hall", r.outline = {{0, 0.1}, {12, 0.1}, {12, 8}, {0, 8}};
        p.rooms.add(r);
        Opening o;
        o.wall = {1}, o.along = 6, o.width = 2;
        p.openings.add(o);
    });
    d.pump();
    d.key(d.plan(), Qt::Key_F);
    d.key(d.plan(), Qt::Key_P);
    auto* how = d.stage().findChild<QComboBox*>("placeHow");
    auto* spacing = d.stage().findChild<QLineEdit*>("placeSpacing");
    d.choose(d.stage().palette_(), "Receptacle");
    how->setCurrentIndex(2);
    spacing->setText("4 m");
    Q_EMIT spacing->editingFinished();
    d.at({3, 0.3});
    CHECK(d.s.project().devices.size() == 2); // at 2, 6 and 10 m: the middle one would stand in the door
    how->setCurrentIndex(1);
    d.choose(d.stage().palette_(), "Panel");
    d.at({1, 7}), d.at({11, 7});
    CHECK(d.s.project().devices.size() == 2 + 4); // ten metres at 3.33
    how->setCurrentIndex(3);
    d.stage().findChild<QSpinBox*>("placeRows")->setValue(2);
    d.stage().findChild<QSpinBox*>("placeColumns")->setValue(3);
    d.at({6, 4});
    CHECK(d.s.project().devices.size() == 6 + 6);
    CHECK(d.s.selectionList().size() == 6); // what was placed is chosen
    d.key(d.plan(), Qt::Key_Escape);
    d.key(d.plan(), Qt::Key_C, Qt::ControlModifier);
    d.move(d.plan(), d.plan().toScreen({6, 12}));
    d.key(d.plan(), Qt::Key_V, Qt::ControlModifier);
    CHECK(d.s.project().devices.size() == 18);
    const Project before = d.s.project();
    d.key(d.plan(), Qt::Key_X);
    d.key(d.plan(), Qt::Key_X);
    for (const Device& x : d.s.project().devices) CHECK(distance(x.at, before.devices[x.id].at) < 1e-9);
    auto* array = d.stage().findChild<QLineEdit*>("arrayOf");
    array->setText("2 x 2 at 1 m x 1 m");
    d.key(*array, Qt::Key_Return);
    CHECK(d.s.project().devices.size() == 18 + 3 * 6);
    // To a light level: 300 · 12 · 7.9 / (4000 · 0.6 · 0.8) = 14.8, fifteen; and off every circuit again.
    d.key(d.plan(), Qt::Key_P);
    d.choose(d.stage().palette_(), "Panel");
    how->setCurrentIndex(5);
    const std::size_t had = d.s.project().devices.size();
    d.at({6, 5});
    CHECK(d.s.project().devices.size() >= had + 15);
    CHECK(d.s.project().devices.size() <= had + 16);
    d.key(d.plan(), Qt::Key_Escape);
    const std::vector<Ref> placed = d.s.selectionList();
    d.s.edit("board", [&](Project& p) {
        Board b;
        b.name = "LP-1", b.level = d.level, b.at = {1, 9};
        const BoardId id = addBoard(p, b);
        std::vector<DeviceId> ids;
        for (Ref r : placed) ids.push_back(r.as<Device>());
        circuitToBoard(p, ids, id);
    });
    d.pump();
    d.s.select(placed);
    d.key(d.plan(), Qt::Key_C);
    auto* circuit = d.plan().circuitCard()->findChild<QComboBox*>("circuitChoice");
    circuit->setCurrentIndex(circuit->findText("off their circuits"));
    CHECK(d.plan().circuitCard()->findChild<QLabel*>("circuitEffect")->text().contains("leave their circuits"));
    d.key(d.plan(), Qt::Key_Return);
    for (Ref r : placed) CHECK_FALSE(d.s.project().devices[r.as<Device>()].circuit);
    int undone = 0;
    while (d.s.canUndo() && d.s.project().devices.size() > 0) d.act("undo"), ++undone;
    CHECK(undone == 10);
}

TEST_CASE(
    "a drawing that changes is marked until it is linked anew; a missing and a broken one say so; layers and crop") {
    Nothing d;
    write(d.path("floor.dxf"), twoRooms());
    d.link(d.path("floor.dxf"));
    const Underlay& u = *d.s.project().underlays.begin();
    CHECK_FALSE(d.s.underlays().changedSinceLinked(u));
    write(d.path("floor.dxf"), twoRooms("0\nLINE\n8\nNEW\n10\n3000\n20\n0\n11\n3000\n21\n-4000\n"));
    d.s.underlays().readAgain(u);
    REQUIRE(d.s.underlays().settle());
    d.pump();
    CHECK(d.s.underlays().changedSinceLinked(u));
    CHECK(d.s.underlays().entry(u)->difference.added.size() == 1);
    CHECK(d.stage().findChild<QLabel*>("underlayState")->text().contains("1 line new, 0 gone"));
    d.press("underlayAgain");
    CHECK_FALSE(d.s.underlays().changedSinceLinked(*d.s.project().underlays.begin()));
    // A layer is switched off in the list.
    auto* layers = d.stage().findChild<QListWidget*>("underlayLayers");
    for (int i = 0; i < layers->count(); ++i)
        if (layers->item(i)->text() == "NEW") layers->item(i)->setCheckState(Qt::Unchecked);
    d.pump();
    CHECK(d.s.project().underlays.begin()->hiddenLayers == std::vector<std::string>{"NEW"});
    d.press("underlayCrop");
    d.at({1, 1}), d.at({5, 3});
    CHECK(d.s.project().underlays.begin()->crop.size() == 2);

    QString said;
    QObject::connect(&d.s, &Session::said, [&](const QString& message, bool) { said = message; });
    write(d.path("letter.dxf"), "Dear Sir,\nthe drawing follows.\n");
    d.link(d.path("letter.dxf"));
    CHECK(said.contains("not a DXF drawing"));
    d.link(d.path("nowhere.dxf"));
    CHECK(said.contains("cannot be opened"));
    QImage(60, 40, QImage::Format_RGB32).save(d.path("scan.png"));
    d.link(d.path("scan.png"));
    CHECK(d.stage().findChild<QLabel*>("underlayState")->text().contains("scale it by two points"));
    CHECK(d.s.project().underlays.size() == 4);
}

TEST_CASE("facts of types, levels and several devices at once; a new type like another") {
    Nothing d;
    d.s.edit("devices", [&](Project& p) {
        for (int i = 0; i < 3; ++i) {
            Device x;
            x.type = {1}, x.level = d.level, x.at = {1.0 + i, 1};
            p.devices.add(x);
        }
        p.devices.change({2})->load = 500;
    });
    d.pump();
    d.s.select(std::vector<Ref>{DeviceId{1}, DeviceId{2}, DeviceId{3}});
    d.pump();
    CHECK(d.factValue("Load of each") == "differ");
    d.fact("Load of each", "240");
    for (const Device& x : d.s.project().devices) CHECK(x.load == 240.0);
    d.fact("Height", "1.1 m");
    for (const Device& x : d.s.project().devices) CHECK(*x.height == Approx(1.1));
    d.fact("Type", "Panel");
    for (const Device& x : d.s.project().devices) CHECK(x.type == DeviceTypeId{2});
    d.act("undo"), d.act("undo"), d.act("undo");
    CHECK(d.s.project().devices[{2}].load == 500.0);

    d.key(d.plan(), Qt::Key_P);
    d.choose(d.stage().palette_(), "Receptacle");
    d.press("typeNew");
    CHECK(d.factValue("Name") == "Receptacle (new)");
    d.fact("Name", "Weatherproof receptacle");
    d.fact("Protection", "IP44");
    d.fact("Load", "300");
    d.at({3, 3});
    REQUIRE(d.s.project().devices.size() == 4);
    const DeviceType& y = d.s.project().deviceTypes[d.s.project().devices[{4}].type];
    CHECK(y.name == "Weatherproof receptacle");
    CHECK(y.protection == "IP44");
    CHECK(y.load == 300);

    d.s.select(d.level);
    d.pump();
    d.fact("Height", "3.6 m");
    d.fact("Name", "Street level");
    CHECK(d.s.project().levels[d.level].height == Approx(3.6));
    CHECK(d.stage().findChild<QComboBox*>("levels")->currentText() == "Street level");
}

TEST_CASE("what one draws does not move the plan under the hand, and F shows the whole floor") {
    Nothing d;
    const QPointF before = d.plan().toScreen({1, 1}), far = d.plan().toScreen({6, 5});
    d.key(d.plan(), Qt::Key_W);
    for (Point p : {Point{1, 1}, {6, 1}, {6, 5}}) d.at(p);
    d.key(d.plan(), Qt::Key_Return);
    d.pump();
    REQUIRE(d.s.project().walls.size() == 2);
    CHECK(d.plan().toScreen({1, 1}) == before);
    CHECK(d.plan().toScreen({6, 5}) == far);
    d.key(d.plan(), Qt::Key_F);
    d.pump();
    CHECK(d.plan().toScreen({1, 1}) != before);
    CHECK(d.plan().rect().contains(d.plan().toScreen({6, 5}).toPoint()));
}

TEST_CASE("keyed notes: typed, set down twice, chosen again, moved, renumbered and taken back") {
    Nothing d;
    d.s.edit("Walls", [&](Project& p) {
        for (const auto& [a, b] : {std::pair{Point{0, 0}, Point{12, 0}}, {Point{12, 0}, Point{12, 8}}}) {
            Wall w;
            w.level = d.level, w.a = a, w.b = b;
            p.walls.add(w);
        }
    });
    d.pump();
    const Project start = d.s.project();
    d.key(d.plan(), Qt::Key_F);
    d.key(d.plan(), Qt::Key_P);
    auto* text = d.stage().findChild<QPlainTextEdit*>("noteText");
    REQUIRE(text);
    CHECK_FALSE(text->isVisible());
    d.choose(d.stage().palette_(), "New keyed note");
    REQUIRE(text->isVisible());
    CHECK_FALSE(d.stage().findChild<QWidget*>("placeHow")->isVisible());
    d.at({3, 3}); // nothing is said yet
    CHECK(d.s.project() == start);
    text->setFocus();
    QTest::keyClicks(text, "Confirm the height with the architect.");
    d.at({3, 3});
    d.at({6, 3});
    REQUIRE(d.s.project().keyedNotes.size() == 2);
    CHECK(text->toPlainText() == "Confirm the height with the architect."); // for the next place
    text->selectAll();
    QTest::keyClicks(text, "By others.");
    d.at({9, 3});
    const auto note = [&](std::uint32_t id) { return d.s.project().keyedNotes[KeyedNoteId{id}]; };
    CHECK(note(1).number == 1);
    CHECK(note(2).number == 1);
    CHECK(note(3).number == 2);
    CHECK(note(3).at.x == Approx(9).margin(0.06));
    // One that is there is chosen from the list, and keeps its number.
    d.choose(d.stage().palette_(), "1  Confirm the height with the architect.");
    d.at({3, 6});
    CHECK(note(4).number == 1);
    // Selected by a click, moved by the hand, its text changed for all its places.
    d.key(d.plan(), Qt::Key_V);
    d.at({9, 3});
    CHECK(d.s.selection() == Ref(KeyedNoteId{3}));
    d.drag(d.plan(), d.plan().toScreen({9, 3}), d.plan().toScreen({10, 4}));
    CHECK(note(3).at.x == Approx(10).margin(0.1));
    d.at({3, 6});
    d.fact("Text", "Confirm the height.");
    CHECK(note(1).text == "Confirm the height.");
    CHECK(note(4).text == "Confirm the height.");
    d.fact("Number", "2");
    CHECK(note(1).number == 1); // that one says something else
    d.key(*d.window.facts().view().findChild<QLineEdit*>("factEditor", Qt::FindDirectChildrenOnly), Qt::Key_Escape);
    d.fact("Number", "7");
    CHECK(note(1).number == 7);
    d.fact("Stands on", "lighting plan");
    CHECK(note(4).on == NoteOn::Lighting);
    d.key(d.plan(), Qt::Key_Delete);
    CHECK(d.s.project().keyedNotes.size() == 3);
    while (d.s.project() != start) d.act("undo");
}
