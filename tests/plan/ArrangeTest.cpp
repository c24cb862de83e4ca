#include "core/plan/Arrange.h"
#include "core/plan/LoadDensity.h"
#include "core/plan/Snap.h"
#include "core/plan/TrayFill.h"
#include "core/sheets/PlaceLabel.h"
#include "core/sheets/Sheets.h"
#include "tests/plan/Floor.h"

#include <set>

using namespace lintel;

TEST_CASE("copies carry no circuit; a mirror twice and four quarter turns come back; an array has its steps") {
    Floor f;
    const DeviceTypeId outlet = f.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true);
    const BoardId board = f.board("LP-1", {1, 5});
    const DeviceId a = f.device(outlet, {1, 1}), b = f.device(outlet, {4, 2});
    f.p.devices.change(a)->turn = 90, f.p.devices.change(a)->tag = "R-1";
    circuitToBoard(f.p, {a, b}, board);
    const Project before = f.p;
    const std::vector<Ref> both{a, b};
    const auto copies = copyOnPlan(f.p, both, {0, 2});
    REQUIRE(copies.size() == 2);
    const Device& c = f.p.devices[copies[0].as<Device>()];
    CHECK(c.at == Point{1, 3});
    CHECK(c.turn == 90);
    CHECK_FALSE(c.circuit);
    CHECK(c.tag.empty());
    f.p = before;
    mirrorOnPlan(f.p, both, true);
    CHECK(f.p.devices[a].at.x == Approx(4));
    CHECK(f.p.devices[a].turn == Approx(270)); // it faced one way, now the other
    mirrorOnPlan(f.p, both, true);
    CHECK(f.p == before);
    for (int i = 0; i < 4; ++i) turnOnPlan(f.p, both, 90);
    CHECK(distance(f.p.devices[b].at, before.devices[b].at) < 1e-9);
    CHECK(f.p.devices[a].turn == Approx(90));
    const auto array = arrayOnPlan(f.p, {a}, 3, 2, 2, 1.5);
    CHECK(array.size() == 5);
    CHECK(f.p.devices[array.back().as<Device>()].at.x == Approx(1 + 4));
    CHECK(f.p.devices[array.back().as<Device>()].at.y == Approx(1 + 1.5));
}

TEST_CASE(
    "home runs that begin near one another share a raceway, three at most, and their conductors are derated for it") {
    Floor f;
    Source s;
    s.system = VoltageSystem::Y208;
    const BoardId board = f.board("LP-1", {11, 5});
    feedFrom(f.p, board, f.p.sources.add(s));
    const DeviceTypeId outlet = f.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true);
    std::vector<CircuitId> circuits;
    for (Point at : {Point{1, 1}, Point{1.5, 1}, Point{2, 1}, Point{2.5, 1}, Point{9, 1}})
        circuits.push_back(circuitToBoard(f.p, {f.device(outlet, at)}, board));
    CHECK(bundleHomeRuns(f.p, board, 3, 3) == 1); // four stand near: three share, one is left, the fifth is far
    std::map<int, int> count;
    for (CircuitId c : circuits) ++count[f.p.circuits[c].bundle];
    CHECK(count[1] == 3);
    CHECK(count[0] == 2);
    // Three circuits of a line and a neutral each, on three phases or fewer: at least four loaded conductors, so 80 %
    // of 310.15(C)(1).
    const Results r = solve(f.p, nec());
    for (CircuitId c : circuits)
        if (f.p.circuits[c].bundle) CHECK(r.of(c).run.need.conductors >= 3);
    CHECK(bundleHomeRuns(f.p, board, 3, 3) == 0); // what is bundled stays
    // With shared neutrals those on different lines are one multiwire group, and the snags find nothing wrong with it.
    Project shared = f.p;
    for (CircuitId c : circuits) shared.circuits.change(c)->bundle = 0;
    bundleHomeRuns(shared, board, 3, 3, true);
    std::set<int> lines;
    int grouped = 0;
    for (CircuitId c : circuits)
        if (shared.circuits[c].multiwire == 1) ++grouped, lines.insert(solve(shared, nec()).of(c).lines[0]);
    CHECK(grouped >= 2);
    CHECK(int(lines.size()) == grouped);
    // On the plan they are one arrow with all their numbers.
    PlanStyle style;
    const std::string words = planDrawing({f.p, nec(), r}, f.level, style).words();
    CHECK(words.find("LP-1-1, ") != std::string::npos);
}

TEST_CASE("load by area: a room, and a floor with what stands in no room") {
    Floor f;
    const RoomId store = f.room("store", {0, 0}, {6, 4});
    const DeviceTypeId outlet = f.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true),
                       light = f.type("Panel", Symbol::Luminaire, LoadKind::Lighting, 40, false);
    for (int i = 0; i < 3; ++i) f.device(outlet, {1.0 + i, 1});
    f.device(light, {3, 2});
    f.device(light, {9, 2}); // in no room
    const Results r = solve(f.p, nec());
    const LoadDensity d = densityOf(f.p, r, f.p.rooms[store]);
    CHECK(d.va == Approx(580));
    CHECK(d.lightingVa == Approx(40));
    CHECK(d.perSquareMetre() == Approx(580.0 / 24));
    CHECK(densityWords(d, UnitSystem::Metric) == "24.2 VA/m²");
    CHECK(densityWords(d, UnitSystem::Imperial) == "2.25 VA/ft²"); // 24.17 · 0.0929
    CHECK(densityOf(f.p, r, f.level).level.va == Approx(620));
}

TEST_CASE("a tray's fill is its conductors' area over its section") {
    Floor f;
    Source s;
    s.system = VoltageSystem::Y208;
    const BoardId board = f.board("LP-1", {0.5, 5});
    feedFrom(f.p, board, f.p.sources.add(s));
    Tray t;
    t.level = f.level, t.path = {{0, 5.5}, {12, 5.5}}, t.width = 0.1, t.depth = 0.05;
    const TrayId tray = f.p.trays.add(t);
    circuitToBoard(f.p, {f.device(f.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true), {11, 5})},
                   board);
    const TrayFill fill = trayFill(f.p, nec(), solve(f.p, nec()), tray);
    CHECK(fill.runs == 1);
    REQUIRE(fill.known);
    // 12 AWG THHN is 0.0133 in² (Chapter 9, Table 5), 8.58 mm²: two and the ground, of the same size, in 100 by 50 mm.
    CHECK(fill.area == Approx(3 * 8.581).epsilon(0.01));
    CHECK(fill.share == Approx(3 * 8.581 / 5000).epsilon(0.01));
}

TEST_CASE("where the book has no diameters of cables, a tray's fill is at least its bare conductors") {
    MetricBoard m;
    const LevelId level = m.p.levels.begin()->id;
    Board& b = *m.p.boards.change(m.board);
    b.level = level, b.at = {0, 0}, b.height = 1.5;
    Tray t;
    t.level = level, t.path = {{0, 0.5}, {20, 0.5}}, t.width = 0.1, t.depth = 0.05;
    const TrayId tray = m.p.trays.add(t);
    DeviceType y;
    y.load = 1000, y.unit = LoadUnit::W;
    Device d;
    d.type = m.p.deviceTypes.add(y), d.level = level, d.at = {18, 1};
    const CircuitId c = circuitToBoard(m.p, {m.p.devices.add(d)}, m.board);
    const Results r = m.results();
    const TrayFill fill = trayFill(m.p, bs(), r, tray);
    CHECK(fill.runs == 1);
    CHECK_FALSE(fill.known);
    // Line and neutral of its size, and the protective conductor, which is no larger.
    const double size = bs().sizes()[std::size_t(r.of(c).run.size)].mm2;
    CHECK(fill.area >= size);
    CHECK(fill.area <= 3 * size + 1e-9);
    CHECK(fill.share == Approx(fill.area / 5000));
}

TEST_CASE("tags keep off symbols and off one another where there is room") {
    PlaceLabel labels;
    labels.obstacle(0, 0, 10, 10);
    const auto at = [](double x, double y) {
        return TextMark{{x, y}, "LP-1-1", 2.3, Align::Left, true, false, Ink::Ink, 0, true};
    };
    CHECK(labels.place({at(1, 5), at(12, 5)}).at.x == 12);
    CHECK(labels.place({at(12, 5), at(12, 9)}).at.y == 9);     // the first is taken by now
    CHECK(labels.place({at(1, 5), at(12.5, 5)}).at.x == 12.5); // both covered: the one that covers less
}

TEST_CASE("guides: in line with a device above or beside; ceiling panels; lines of the drawing below") {
    Floor f;
    const DeviceTypeId light = f.type("Panel", Symbol::Luminaire, LoadKind::Lighting, 40, false);
    f.device(light, {3, 2}), f.device(light, {8, 3});
    const Alignment a = alignToPeers(f.p, f.level, {3.05, 2.97}, 0.1);
    CHECK(a.at == Point{3, 3});
    CHECK(a.upright == Point{3, 2});
    CHECK(a.level == Point{8, 3});
    CHECK_FALSE(alignToPeers(f.p, f.level, {5, 5}, 0.1).upright);
    Room r;
    r.gridX = 0.6, r.gridY = 1.2, r.gridFrom = {0.1, 0.1};
    CHECK(snapToCeiling(r, {0.75, 2.0}).x == Approx(1.0));
    CHECK(snapToCeiling(r, {0.75, 2.0}).y == Approx(1.9));
    const std::vector<std::pair<Point, Point>> lines{{{0, 0}, {4, 0}}};
    CHECK(snapToLines(lines, {3.9, 0.1}, 0.2) == Point{4, 0});
    CHECK(snapToLines(lines, {2, 0.1}, 0.2) == Point{2, 0});
    CHECK_FALSE(snapToLines(lines, {2, 0.1}, 0.2, true));
    CHECK_FALSE(snapToLines(lines, {2, 1}, 0.2));
    const SnapResult face = snapToFaces(lines, {2, 0.3}, 0.5); // below the line on the sheet: it faces down
    CHECK(face.onWall);
    CHECK(face.at.y == Approx(0.12));
    CHECK(face.turn == Approx(0).margin(1e-9));
    CHECK(snapToFaces(lines, {2, -0.3}, 0.5).turn == Approx(180));
    CHECK_FALSE(snapToFaces({{{0, 0}, {0.5, 0}}}, {0.2, 0.1}, 0.5).onWall); // too short for a wall
}
