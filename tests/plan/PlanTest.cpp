#include "core/plan/Snap.h"
#include "core/route/Measure.h"
#include "tests/World.h"

using namespace lintel;

TEST_CASE("a run is measured up, across and down, with slack") {
    OneBoard w;
    const LevelId level = w.p.levels.begin()->id; // 3 m high, route 0.3 m below the ceiling
    Board& b = *w.p.boards.change(w.board);
    b.level = level, b.at = {0, 0}, b.height = 1.5;
    const DeviceTypeId y = w.p.deviceTypes.add({}); // at 0.45 m
    std::vector<DeviceId> ids;
    for (Point at : {Point{4, 3}, Point{10, 3}}) {
        Device d;
        d.type = y, d.level = level, d.at = at;
        ids.push_back(w.p.devices.add(d));
    }
    const CircuitId c = circuitToBoard(w.p, ids, w.board);
    const RunNeed reach = w.solved().of(c).run.need;
    REQUIRE(reach.lengthKnown);
    CHECK(reach.up.v == Approx(1.2));
    CHECK(reach.across.v == Approx(13));
    CHECK(reach.down.v == Approx(2.25));
    CHECK(reach.length.v == Approx((1.2 + 13 + 2.25) * 1.05));
    runOf(w.p, c).lengthBy = LengthBy::Chain; // to the nearest, then on to the next
    CHECK(w.solved().of(c).run.need.length.v == Approx((1.2 + 7 + 2.25 + 6) * 1.05));
    w.p.boards.change(w.board)->level = {};
    CHECK_FALSE(w.solved().of(c).run.need.lengthKnown);
}

TEST_CASE("between levels the rise is the difference in height") {
    Project p;
    const LevelId g = p.levels.add({{}, "Ground", 0, 4, {}}), roof = p.levels.add({{}, "Roof", 8, 3, {}});
    const auto m = measure(p, {g, {0, 0}, 1.5}, {roof, {6, 0}, 1.5});
    REQUIRE(m);
    CHECK(m->up.v == Approx(8 + 3 - 0.3 - 1.5));
    CHECK(m->across.v == Approx(6));
    CHECK(m->down.v == Approx(3 - 0.3 - 1.5));
    CHECK_FALSE(measure(p, {{}, {0, 0}, 0}, {g, {0, 0}, 0}));
}

TEST_CASE("snapping: ends of walls, square to the last point, the face of a wall with the turn into the room") {
    Project p;
    const LevelId l = p.levels.add({{}, "G", 0, 3, {}});
    p.walls.add({{}, l, {0, 0}, {10, 0}, 0.2, 0, {}});
    CHECK(snapPoint(p, l, {0.1, 0.15}, 0.3).at == Point{0, 0});
    CHECK(snapPoint(p, l, {0.1, 0.15}, 0.3).onEnd);
    const Point from{5, 5};
    const SnapResult s = snapPoint(p, l, {5.1, 8.04}, 0.3, &from);
    CHECK(s.square);
    CHECK(s.at.x == 5);
    SnapResult w = snapToWall(p, l, {4, 0.5}, 0.9); // below the wall on the sheet: faces down
    CHECK(w.onWall);
    CHECK(w.at.y == Approx(0.1 + 0.12));
    CHECK(w.turn == Approx(0).margin(1e-9));
    w = snapToWall(p, l, {4, -0.5}, 0.9);
    CHECK(w.at.y == Approx(-0.22));
    CHECK(w.turn == Approx(180));
    CHECK_FALSE(snapToWall(p, l, {4, 3}, 0.9).onWall);
}

TEST_CASE("areas and rooms") {
    const std::vector<Point> l{{0, 0}, {4, 0}, {4, 2}, {2, 2}, {2, 4}, {0, 4}};
    CHECK(areaOf(l) == Approx(12));
    CHECK(contains(l, {1, 3}));
    CHECK_FALSE(contains(l, {3, 3}));
    CHECK(centreOf({{0, 0}, {4, 0}, {4, 2}, {0, 2}}) == Point{2, 1});
}
