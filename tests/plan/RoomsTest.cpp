#include "core/base/Utf8.h"
#include "core/plan/ApplyRecipe.h"
#include "core/plan/FindRooms.h"
#include "tests/plan/Floor.h"

#include <numbers>

using namespace lintel;

TEST_CASE("rooms are found inside the faces of their walls, through doors, joints and corners not quite met") {
    Floor f;
    auto rooms = enclosedByWalls(f.p, f.level);
    REQUIRE(rooms.size() == 3);
    // Between faces: 6 − 0.2 by 4 − 0.2; the corridor 12 − 0.2 by 2 − 0.2.
    CHECK(areaOf(rooms[0]) == Approx(5.8 * 3.8));
    CHECK(areaOf(rooms[1]) == Approx(5.8 * 3.8));
    CHECK(areaOf(rooms[2]) == Approx(11.8 * 1.8));
    CHECK(centreOf(rooms[0]).x == Approx(3));
    CHECK(rooms[0].size() == 4);
    // A partition that stops a hand short of the wall still closes; one that ends in the middle of a room does not.
    Wall w;
    w.level = f.level, w.thickness = 0.2, w.a = {3, 0.08}, w.b = {3, 3.93};
    const WallId partition = f.p.walls.add(w);
    CHECK(enclosedByWalls(f.p, f.level).size() == 4);
    f.p.walls.change(partition)->b = {3, 2};
    CHECK(enclosedByWalls(f.p, f.level).size() == 3);
    // A half-round bay of 2 m radius on the south wall encloses half a disc less its walls.
    w.a = {4, 6}, w.b = {8, 6}, w.bulge = -1, w.thickness = 0.01;
    f.p.walls.add(w);
    rooms = enclosedByWalls(f.p, f.level);
    REQUIRE(rooms.size() == 4);
    CHECK(areaOf(rooms[3]) == Approx(std::numbers::pi * 4 / 2 - 4 * 0.1).epsilon(0.015));
    CHECK(centreOf(rooms[3]).y > 6.5);
}

TEST_CASE("found rooms are numbered on, named by the drawing, and not found twice") {
    Floor f;
    Recipe r;
    r.roomKind = "store";
    f.p.recipes.add(r);
    std::vector<DxfDrawing::Text> texts(2);
    texts[0].at = {2, 1}, texts[0].words = "Dry store";
    texts[1].at = {2, 1.5}, texts[1].words = "014";
    FoundRooms found = roomsFromWalls(f.p, f.level, texts);
    REQUIRE(found.rooms.size() == 3);
    CHECK(found.rooms[0].name == "Dry store");
    CHECK(found.rooms[0].number == "014");
    CHECK(found.rooms[0].kind == "store"); // there is a recipe for stores
    CHECK(found.rooms[1].number == "001");
    CHECK(found.rooms[2].number == "002");
    for (Room& x : found.rooms) f.p.rooms.add(x);
    found = roomsFromWalls(f.p, f.level);
    CHECK(found.rooms.empty());
    CHECK(found.known == 3);
}

TEST_CASE("rooms from a drawing: a name is taken whole, and a paragraph of notes is not a name") {
    Floor f;
    std::vector<DxfDrawing::Text> texts(2);
    texts[0].at = {2, 1}, texts[0].words = std::string(59, 'x') + "ä";
    texts[1].at = {2, 1.5};
    for (int i = 0; i < 40; ++i) texts[1].words += "ÿÿÿ";
    const FoundRooms found = roomsFromWalls(f.p, f.level, texts);
    CHECK(found.rooms[0].name == texts[0].words); // it was cut after 60 bytes, in the midst of a letter
    CHECK(isUtf8(found.rooms[0].name));
    CHECK(found.leftOut == 1);
}

TEST_CASE("the lumen method: 500 lux on 48 m² with 4 000 lm each") {
    // N = 500 · 48 / (4000 · 0.6 · 0.8) = 12.5
    CHECK(luminairesFor(500, 48, 4000, 0.6, 0.8) == 13);
    CHECK(luminairesFor(400, 48, 4000, 0.6, 0.8) == 10); // 10.0 exactly
    CHECK(luminairesFor(400, 48, 0, 0.6, 0.8) == 0);
    CHECK(gridFor(12, 8, 6) == std::pair{3, 4});
    CHECK(gridFor(6, 12, 2) == std::pair{1, 6});
    CHECK(gridFor(2, 2, 5) == std::pair{2, 1});
}

TEST_CASE("a grid follows its room: even, inside, on the panels of the ceiling") {
    Floor f;
    Room r = f.p.rooms[f.room("office", {0, 0}, {8, 6})];
    auto spots = gridSpots(r, 2, 4, true);
    REQUIRE(spots.size() == 8);
    CHECK(spots[0].at == Point{1, 1.5});
    CHECK(spots[7].at == Point{7, 4.5});
    r.gridX = r.gridY = 0.6; // panels from the corner: middles at 0.3, 0.9, 1.5 …
    spots = gridSpots(r, 2, 4, true);
    for (const Spot& s : spots) {
        CHECK(std::fmod(s.at.x - 0.3 + 1e-9, 0.6) == Approx(0).margin(1e-6));
        CHECK(std::fmod(s.at.y - 0.3 + 1e-9, 0.6) == Approx(0).margin(1e-6));
    }
    // An L of 28 m²: as many as asked stand inside it.
    r.gridX = r.gridY = 0;
    r.outline = {{0, 0}, {8, 0}, {8, 2}, {3, 2}, {3, 6}, {0, 6}};
    spots = gridOfCount(r, 6, true);
    CHECK(spots.size() >= 6);
    CHECK(spots.size() <= 8);
    for (const Spot& s : spots) CHECK(contains(r.outline, s.at));
}

TEST_CASE("outlets along walls: none farther than half the spacing, none in a door, each on its wall facing in") {
    Floor f;
    const RoomId store = f.room("store", {0.1, 0.1}, {5.9, 3.9});
    const Room& r = f.p.rooms[store];
    const auto spots = wallSpots(f.p, r, 3.6576); // 12 feet
    // The perimeter is 19.2 m less a door of 0.9: 18.3 m, 5.003 spacings, so six.
    CHECK(spots.size() == 6);
    for (const Spot& s : spots) {
        CHECK(contains(r.outline, s.at));
        double wall = 1e9;
        for (std::size_t i = 0; i < 4; ++i)
            wall = std::min(wall, distance(s.at, nearestOnSegment(s.at, r.outline[i], r.outline[(i + 1) % 4])));
        CHECK(wall == Approx(0.12).margin(0.002));
        CHECK_FALSE((s.at.y > 3.5 && std::abs(s.at.x - 2) < 0.45)); // the door
    }
    for (double x = 0.2; x < 5.9; x += 0.1) { // no place along the north wall farther than six feet, along the walls
        double near = 1e9;
        for (const Spot& s : spots) near = std::min(near, orthogonal(s.at, {x, 0.1}));
        CHECK(near < 1.8288 + 0.4);
    }
    // The switch at the latch: hinge at the wall's first end, so latch at 2 + 0.45, and 0.2 beyond.
    const auto doors = doorSpots(f.p, r);
    REQUIRE(doors.size() == 1);
    CHECK(doors[0].at.x == Approx(2.65));
    CHECK(doors[0].at.y == Approx(3.9 - 0.12));
    CHECK(doors[0].turn == Approx(180));
}

TEST_CASE("a recipe gives every room of its kind the same, follows changes, and leaves alone what a hand has moved") {
    Floor f;
    const DeviceTypeId outlet = f.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true),
                       light = f.type("Panel", Symbol::Luminaire, LoadKind::Lighting, 32, false),
                       toggle = f.type("Switch", Symbol::Switch, LoadKind::Lighting, 0, true),
                       till = f.type("Till outlet", Symbol::Quad, LoadKind::Receptacle, 360, true);
    f.p.deviceTypes.change(light)->lumens = 4000;
    const RoomId store = f.room("store", {0.1, 0.1}, {5.9, 3.9}), second = f.room("store", {6.1, 0.1}, {11.9, 3.9});
    f.room("corridor", {0.1, 4.1}, {11.9, 5.9});
    Furnishing t;
    t.level = f.level, t.kind = FurnishingKind::Till, t.at = {1, 0.6};
    f.p.furnishings.add(t);
    Recipe r;
    r.roomKind = "store";
    r.parts = {{outlet, RecipeBy::Walls, 3.6576, 1, 1, {}, ""},
               {light, RecipeBy::GridLux, 300, 1, 1, {}, "a"},
               {toggle, RecipeBy::Doors, 0, 1, 1, {}, "a"},
               {till, RecipeBy::Furnishing, 0, 1, 1, FurnishingKind::Till, ""}};
    const RecipeId recipe = f.p.recipes.add(r);
    RecipeReport report = applyRecipes(f.p, roomsOfKind(f.p, ""));
    CHECK(report.rooms == 2);
    CHECK(report.without == 1);
    CHECK(f.count(outlet) == 12);
    // 300 lux on 5.8 · 3.8 = 22.04 m²: 6612 / 1920 = 3.4, so four each.
    CHECK(f.count(light) == 8);
    CHECK(f.count(toggle) == 2);
    CHECK(f.count(till) == 1);
    CHECK(report.placed == 23);
    CHECK(report.notes.empty());
    for (const Device& d : f.p.devices) {
        if (d.type == light) CHECK(d.leg == "a");
        if (d.type == till) CHECK(d.at.y == Approx(0.1 + 0.12)); // on the wall behind the till
    }
    const Project once = f.p;
    report = applyRecipes(f.p, roomsOfKind(f.p, ""));
    CHECK(f.p == once); // again: nothing

    // One moved by hand stays, and stands for one of those wanted.
    DeviceId moved;
    for (const Device& d : f.p.devices)
        if (d.type == outlet && d.room == store) moved = d.id;
    const Point there = f.p.devices[moved].at + Point{0, 0.3};
    f.p.devices.change(moved)->at = there;
    report = applyRecipes(f.p, {store});
    CHECK(report.kept == 1);
    CHECK(report.placed == 0);
    CHECK(f.p.devices[moved].at == there);
    CHECK(f.count(outlet) == 12);

    // A wider spacing takes some away, the moved one not; what shifts keeps its circuit.
    const BoardId board = f.board("LP-1", {0.3, 5});
    std::vector<DeviceId> inSecond;
    for (const Device& d : f.p.devices)
        if (d.type == outlet && d.room == second) inSecond.push_back(d.id);
    const CircuitId c = circuitToBoard(f.p, inSecond, board);
    f.p.recipes.change(recipe)->parts[0].value = 6.2; // 18.3 / 6.2: three
    report = applyRecipes(f.p, {store, second});
    CHECK(f.count(outlet) == 3 + 3);
    CHECK(report.removed == 6);
    CHECK(f.p.devices.has(moved));
    int on = 0;
    for (const Device& d : f.p.devices) on += d.circuit == c;
    CHECK(on == 3);

    f.p.deviceTypes.change(light)->lumens = 0;
    report = applyRecipes(f.p, {store});
    REQUIRE(report.notes.size() == 1);
    CHECK(report.notes[0].find("lumens") != std::string::npos);
}

TEST_CASE("a recipe run again never doubles what stands there, whatever happened to the room") {
    Floor f;
    const DeviceTypeId outlet = f.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true);
    const RoomId store = f.room("store", {0.1, 0.1}, {5.9, 3.9});
    Recipe r;
    r.roomKind = "store";
    r.parts = {{outlet, RecipeBy::Walls, 3.6576, 1, 1, {}, ""}};
    f.p.recipes.add(r);
    applyRecipes(f.p, {store});
    REQUIRE(f.count(outlet) == 6);
    const BoardId board = f.board("LP-1", {0.3, 5});
    std::vector<DeviceId> all;
    for (const Device& d : f.p.devices) all.push_back(d.id);
    const CircuitId circuit = circuitToBoard(f.p, all, board);
    const auto onCircuit = [&] {
        return std::count_if(f.p.devices.begin(), f.p.devices.end(),
                             [&](const Device& d) { return d.circuit == circuit; });
    };

    // Taken away and drawn anew: another room to the project, the same to the people in it.
    f.p.rooms.remove(store);
    const RoomId anew = f.room("store", {0.1, 0.1}, {5.9, 3.9});
    RecipeReport report = applyRecipes(f.p, {anew});
    CHECK(report.placed == 0);
    CHECK(report.shifted == 0);
    CHECK(f.count(outlet) == 6);
    CHECK(onCircuit() == 6);

    // Made one with what was its neighbour: 6 stay as they can, and what is missing comes.
    f.p.rooms.remove(anew);
    const RoomId large = f.room("store", {0.1, 0.1}, {11.9, 3.9});
    report = applyRecipes(f.p, {large});
    const int now = f.count(outlet);
    CHECK(report.removed == 0);
    CHECK(now == 6 + report.placed);
    CHECK(onCircuit() == 6);
    CHECK(applyRecipes(f.p, {large}).placed == 0);
    CHECK(f.count(outlet) == now);

    // One that a hand put where one is wanted stays the only one there.
    Floor g;
    const DeviceTypeId same = g.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true);
    const RoomId room = g.room("store", {0.1, 0.1}, {5.9, 3.9});
    Recipe again = r;
    again.parts[0].type = same;
    g.p.recipes.add(again);
    const auto spots = wallSpots(g.p, g.p.rooms[room], 3.6576);
    REQUIRE(spots.size() == 6);
    g.device(same, spots[2].at + Point{0.05, 0.05});
    report = applyRecipes(g.p, {room});
    CHECK(report.placed == 5);
    CHECK(report.kept == 1);
    CHECK(g.count(same) == 6);
}

TEST_CASE("a recipe that asks for tens of thousands in one room says so and places none") {
    Project p;
    const LevelId level = p.levels.add({{}, "Ground", 0, 3, {}});
    Room hall;
    hall.level = level;
    hall.kind = "hall";
    hall.name = "Hall";
    hall.outline = {{0, 0}, {900, 0}, {900, 900}, {0, 900}}; // drawn in millimetres, taken as metres
    const RoomId id = p.rooms.add(hall);
    DeviceType y;
    y.name = "Panel luminaire";
    y.lumens = 4000;
    y.load = 40;
    y.unit = LoadUnit::W;
    RecipePart part;
    part.type = p.deviceTypes.add(y);
    const std::pair<RecipeBy, double> cases[] = {
        {RecipeBy::GridLux, 500}, {RecipeBy::GridSpacing, 2.4}, {RecipeBy::GridLoad, 10}, {RecipeBy::Walls, 0.1}};
    for (const auto& [by, value] : cases) {
        INFO(int(by));
        Project q = p;
        part.by = by;
        part.value = value;
        Recipe recipe;
        recipe.roomKind = "hall";
        recipe.parts = {part};
        q.recipes.add(recipe);
        const RecipeReport r = applyRecipes(q, {id});
        CHECK(r.placed == 0);
        REQUIRE(r.notes.size() == 1);
        CHECK(r.notes[0].find("are the most") != std::string::npos);
        CHECK(r.notes[0].find("Panel luminaire") != std::string::npos);
    }
}
