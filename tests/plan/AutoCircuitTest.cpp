#include "core/plan/AutoCircuit.h"
#include "core/exchange/LoadList.h"
#include "core/plan/CircuitMissing.h"
#include "core/route/Trays.h"
#include "tests/plan/Floor.h"

#include <set>

using namespace lintel;

namespace {
Catchment all(const Floor& f, std::vector<Serving> boards) {
    Catchment k;
    k.level = f.level;
    k.boards = std::move(boards);
    return k;
}
} // namespace

TEST_CASE("receptacles are circuited by number and by share of the breaker, alike on each circuit") {
    Floor f;
    const DeviceTypeId outlet = f.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true);
    const BoardId board = f.board("LP-1", {0.3, 5});
    for (int i = 0; i < 20; ++i) f.device(outlet, {0.5 + 0.5 * i, 1});
    f.p.catchments.add(all(f, {{board, {}, false}}));
    f.p.basis.circuitPoints = 8;
    // 180 VA at 120 V is 1.5 A; 0.8 · 20 A = 16 A takes ten; eight points are fewer. 20 devices: three circuits, of 7,
    // 7 and 6.
    const CircuitingReport r = circuitAutomatically(f.p, nec(), {f.level});
    CHECK(r.circuits == 3);
    CHECK(r.devices == 20);
    CHECK(r.left.empty());
    std::map<CircuitId, int> count;
    for (const Device& d : f.p.devices) ++count[d.circuit];
    for (const auto& [c, n] : count) CHECK((c && (n == 7 || n == 6)));
    f.p.basis.circuitPoints = 0; // by amps alone: 20 · 1.5 = 30 A, two circuits of ten
    const CircuitingReport again = circuitAutomatically(f.p, nec(), {f.level});
    CHECK(again.remade == 3);
    CHECK(again.circuits == 2);
}

TEST_CASE("a circuit does not cross the building for a few points more") {
    Floor f;
    const DeviceTypeId light = f.type("Panel", Symbol::Luminaire, LoadKind::Lighting, 40, false);
    const BoardId board = f.board("LL-1", {0.3, 5});
    for (int i = 0; i < 4; ++i) f.device(light, {30.0 + i, 1}), f.device(light, {2.0 + i, 1});
    f.p.catchments.add(all(f, {{board, {}, false}}));
    CHECK(circuitAutomatically(f.p, nec(), {f.level}).circuits == 2); // eight points would do for one, 28 m apart
    std::map<CircuitId, double> left, right;
    for (const Device& d : f.p.devices) {
        if (!left.count(d.circuit)) left[d.circuit] = right[d.circuit] = d.at.x;
        left[d.circuit] = std::min(left[d.circuit], d.at.x), right[d.circuit] = std::max(right[d.circuit], d.at.x);
    }
    for (const auto& [c, x] : left) CHECK(right[c] - x < 5);
}

TEST_CASE("the same project gives the same circuits; pinned and hand-made ones are not touched") {
    Floor f;
    const DeviceTypeId outlet = f.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true);
    const BoardId board = f.board("LP-1", {0.3, 5});
    for (int i = 0; i < 30; ++i) f.device(outlet, {0.4 + std::fmod(i * 3.7, 11), 0.5 + std::fmod(i * 1.3, 5)});
    f.p.catchments.add(all(f, {{board, {}, false}}));
    const CircuitId byHand = circuitToBoard(f.p, {{1}, {2}}, board);
    Project a = f.p, b = f.p;
    circuitAutomatically(a, nec(), {f.level});
    circuitAutomatically(b, nec(), {f.level});
    CHECK(a == b);
    CircuitId pinned;
    for (const Circuit& c : a.circuits)
        if (c.automatic) pinned = c.id;
    a.circuits.change(pinned)->pinned = true;
    std::vector<DeviceId> before, after;
    for (const Device& d : a.devices)
        if (d.circuit == pinned) before.push_back(d.id);
    f.device(outlet, {2, 2});
    Device extra = f.p.devices[{31}];
    a.devices.put(extra);
    circuitAutomatically(a, nec(), {f.level});
    for (const Device& d : a.devices)
        if (d.circuit == pinned) after.push_back(d.id);
    CHECK(after == before);
    CHECK(a.devices[{1}].circuit == byHand);
    CHECK(a.devices[{31}].circuit);
    checkWhole(a, solve(a, nec()));
}

TEST_CASE("the matrix of a catchment: lighting apart, life safety alone, large motors to the motor control centre") {
    Floor f;
    const DeviceTypeId outlet = f.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true),
                       light = f.type("Panel", Symbol::Luminaire, LoadKind::Lighting, 32, false),
                       exit = f.type("Exit sign", Symbol::Exit, LoadKind::Lighting, 5, true),
                       small = f.type("Fan", Symbol::Motor, LoadKind::Motor, 2000, false, 3),
                       large = f.type("Pump", Symbol::Motor, LoadKind::Motor, 60000, false, 3);
    f.p.deviceTypes.change(exit)->lifeSafety = true;
    const BoardId power = f.board("LP-1", {1, 5}), lighting = f.board("LL-1", {2, 5}), safe = f.board("LS-1", {3, 5}),
                  motors = f.board("MCC-1", {11, 5}, 42, BoardUse::MotorControl);
    f.p.boards.change(motors)->bus = 800;
    const DeviceId o = f.device(outlet, {4, 1}), l = f.device(light, {4, 2}), e = f.device(exit, {5, 1}),
                   fan = f.device(small, {9, 1}), pump = f.device(large, {9, 2});
    f.p.catchments.add(all(f, {{power, {"receptacle", "motor"}, false},
                               {lighting, {"lighting"}, false},
                               {safe, {}, true},
                               {motors, {"motor"}, false}}));
    const CircuitingReport r = circuitAutomatically(f.p, nec(), {f.level});
    CHECK(r.left.empty());
    const auto boardOf = [&](DeviceId d) { return f.p.circuits[f.p.devices[d].circuit].board; };
    CHECK(boardOf(o) == power);
    CHECK(boardOf(l) == lighting);
    CHECK(boardOf(e) == safe);
    CHECK(boardOf(pump) == motors); // 60 kVA at 208 V: 167 A, above 100 A
    CHECK(boardOf(fan) == motors);  // 5.6 A: a motor control centre is as good as a panelboard, and nearer
    CHECK(f.p.circuits[f.p.devices[fan].circuit].poles == 3);

    // Nothing takes heating here: it is left, with the reason.
    const DeviceId heater = f.device(f.type("Heater", Symbol::Heater, LoadKind::Heating, 1500, true), {2, 2});
    const CircuitingReport more = circuitAutomatically(f.p, nec(), {f.level});
    REQUIRE(more.left.size() == 1);
    CHECK(more.left[0].device == heater);
    CHECK(more.left[0].why.find("takes heating") != std::string::npos);
}

TEST_CASE("a smaller catchment wins over the level, a full board passes on, and where none is given one is proposed") {
    Floor f;
    const DeviceTypeId heater =
        f.type("Heater", Symbol::Heater, LoadKind::Heating, 1500, true); // 12.5 A: a circuit each
    const BoardId near = f.board("LP-1", {1, 5}, 4), far = f.board("LP-2", {11, 5}, 42),
                  kitchen = f.board("LP-K", {11, 1}, 42);
    Catchment k = all(f, {{kitchen, {}, false}});
    k.outline = {{6, 0}, {12, 0}, {12, 4}, {6, 4}};
    f.p.catchments.add(k);
    f.p.catchments.add(all(f, {{near, {}, false}, {far, {}, false}}));
    std::vector<DeviceId> store;
    for (int i = 0; i < 6; ++i) store.push_back(f.device(heater, {0.5 + 0.5 * i, 1}));
    const DeviceId inKitchen = f.device(heater, {9, 1});
    circuitAutomatically(f.p, nec(), {f.level});
    std::map<BoardId, int> got;
    for (DeviceId d : store) ++got[f.p.circuits[f.p.devices[d].circuit].board];
    CHECK(got[near] == 4);
    CHECK(got[far] == 2);
    CHECK(f.p.circuits[f.p.devices[inKitchen].circuit].board == kitchen);

    Floor bare;
    const DeviceTypeId outlet = bare.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true);
    for (int i = 0; i < 24; ++i) bare.device(outlet, {0.5 + 0.4 * i, 1});
    CHECK(circuitAutomatically(bare.p, nec(), {bare.level}).left.size() == 24);
    CHECK(bare.p.boards.empty());
    const CircuitingReport proposed = circuitAutomatically(bare.p, nec(), {bare.level}, true);
    CHECK(proposed.left.empty());
    REQUIRE(proposed.boards.size() == 1);
    const Board& b = bare.p.boards[proposed.boards[0]];
    Floor plain; // a panelboard and no catchment: it serves its level
    const DeviceTypeId plainOutlet = plain.type("Receptacle", Symbol::Receptacle, LoadKind::Receptacle, 180, true);
    plain.board("LP-1", {1, 5});
    for (int i = 0; i < 6; ++i) plain.device(plainOutlet, {1.0 + i, 1});
    const CircuitingReport implied = circuitAutomatically(plain.p, nec(), {plain.level}, true);
    CHECK(implied.circuits == 1);
    CHECK(implied.boards.empty());

    CHECK(b.slots == 12); // two or three circuits
    CHECK(b.bus == 60);   // 24 · 180 VA · 1.25 at 208 V: 15 A
}

TEST_CASE("along the trays: on at the nearest place, round the corner, up the riser, and off again") {
    Floor f;
    const LevelId upper = f.p.levels.add({{}, "Upper", 4, 3, {}});
    Tray t;
    t.level = f.level, t.path = {{1, 5}, {11, 5}, {11, 1}}, t.height = 2.6;
    f.p.trays.add(t);
    const Place from{f.level, {2, 5.5}, 1.5}, to{f.level, {10, 1.5}, 0.45};
    {
        const TrayGraph g(f.p);
        const auto r = g.route(from, to);
        REQUIRE(r);
        CHECK(r->off == Approx(0.5 + 1));
        CHECK(r->along == Approx((11 - 2) + (5 - 1.5)));
        const auto m = measure(f.p, from, to, &g, RouteBy::Auto);
        CHECK(m->byTray);
        CHECK(m->across.v == Approx(1.5 + 12.5));
        CHECK(m->up.v == Approx(2.6 - 1.5));
        CHECK(m->down.v == Approx(2.6 - 0.45));
        CHECK(m->total.v == Approx((14 + 1.1 + 2.15) * 1.05));
        CHECK_FALSE(measure(f.p, from, to, &g, RouteBy::Direct)->byTray);
        // A device beside the board keeps off the tray by itself, and takes it when told to.
        const Place beside{f.level, {2.5, 5.5}, 0.45};
        CHECK_FALSE(measure(f.p, from, beside, &g, RouteBy::Auto)->byTray);
        CHECK(measure(f.p, from, beside, &g, RouteBy::Trays)->byTray);
        CHECK_FALSE(g.route(from, {upper, {11, 1}, 0}));
    }
    Tray riser;
    riser.level = f.level, riser.path = {{11, 1}}, riser.riseTo = upper;
    f.p.trays.add(riser);
    Tray above;
    above.level = upper, above.path = {{11, 1}, {3, 1}}, above.height = 2.5;
    f.p.trays.add(above);
    const TrayGraph g(f.p);
    const auto r = g.route(from, {upper, {4, 2}, 1});
    REQUIRE(r);
    CHECK(r->rise == Approx(4));
    CHECK(r->along == Approx(9 + 4 + 7));
    CHECK(r->off == Approx(0.5 + 1));
    CHECK(r->trays.size() == 3);
}

TEST_CASE("a circuit by tray is measured along it in the solution, and the tray knows what lies in it; a traced one "
          "goes as drawn") {
    OneBoard w;
    const LevelId level = w.p.levels.begin()->id;
    Board& b = *w.p.boards.change(w.board);
    b.level = level, b.at = {0, 0}, b.height = 1.5;
    Tray t;
    t.level = level, t.path = {{0, 1}, {20, 1}, {20, 9}}, t.height = 2.5;
    const TrayId tray = w.p.trays.add(t);
    Device d;
    d.type = w.p.deviceTypes.add({}), d.level = level, d.at = {19, 8};
    const CircuitId c = circuitToBoard(w.p, {w.p.devices.add(d)}, w.board);
    // 1 m to the tray, 20 m and 7 m along it, 1 m off: 29 m.
    CHECK(w.solved().of(c).run.need.length.v == Approx((29 + 1 + 2.05) * 1.05));
    const auto loads = trayLoads(w.p);
    REQUIRE(loads.count(tray));
    CHECK(loads.at(tray).runs == std::vector<Ref>{c});
    Run& run = runOf(w.p, c);
    run.lengthBy = LengthBy::Traced;
    run.trace = {{0, 0}, {3, 4}, {19, 4}, {19, 8}}; // 5 + 16 + 4
    CHECK(w.solved().of(c).run.need.length.v == Approx((25 + 1.2 + 2.25) * 1.05));
    CHECK(trayLoads(w.p).empty());
}

TEST_CASE("the luminaires of one switch leg stay on one circuit, unless they are too many for it") {
    Floor f;
    const DeviceTypeId light = f.type("Panel", Symbol::Luminaire, LoadKind::Lighting, 100, false);
    const BoardId board = f.board("LL-1", {0.3, 5});
    // Six legs of five, their luminaires mixed over the floor: 30 · 100 VA = 25 A, two circuits at 80 % of 20 A.
    for (int i = 0; i < 30; ++i) {
        const DeviceId d = f.device(light, {0.5 + 0.35 * i, 1.0 + i % 3});
        f.p.devices.change(d)->leg = std::string(1, char('a' + i % 6));
    }
    f.p.catchments.add(all(f, {{board, {}, false}}));
    f.p.basis.circuitPoints = 0;
    circuitAutomatically(f.p, nec(), {f.level});
    std::map<std::string, std::set<CircuitId>> of;
    std::map<CircuitId, int> count;
    for (const Device& d : f.p.devices) {
        REQUIRE(d.circuit);
        of[d.leg].insert(d.circuit);
        ++count[d.circuit];
    }
    for (const auto& [leg, circuits] : of) CHECK(circuits.size() == 1);
    for (const auto& [c, n] : count) CHECK(n <= 19); // 16 A takes nineteen
    // A leg of thirty cannot be kept whole: all are circuited all the same.
    for (const Device& d : f.p.devices) f.p.devices.change(d.id)->leg = "a";
    const CircuitingReport r = circuitAutomatically(f.p, nec(), {f.level});
    CHECK(r.left.empty());
    CHECK(r.devices == 30);
}

TEST_CASE("a fire alarm shares its circuit with nothing, drawn or listed") {
    Floor f;
    const DeviceTypeId panel = f.type("Fire alarm panel", Symbol::Receptacle, LoadKind::Equipment, 100, false);
    const DeviceTypeId data = f.type("Data cabinet", Symbol::Receptacle, LoadKind::Equipment, 100, false);
    const BoardId board = f.board("LP-1", {0.3, 5});
    const DeviceId fire = f.device(panel, {1, 1});
    for (int i = 0; i < 4; ++i) f.device(data, {1.5 + i, 1});
    f.p.catchments.add(all(f, {{board, {}, false}}));
    circuitAutomatically(f.p, nec(), {f.level});
    const CircuitId alone = f.p.devices[fire].circuit;
    REQUIRE(alone);
    for (const Device& d : f.p.devices)
        if (d.id != fire) CHECK(d.circuit != alone);

    OneBoard w;
    for (const char* name : {"Fire alarm panel", "Data cabinet", "Access control", "Smoke vents, north"}) {
        Load l;
        l.name = name;
        l.amount = 100;
        w.p.loads.add(l);
    }
    circuitMissing(w.p, nec());
    std::map<std::string, CircuitId> on;
    for (const Load& l : w.p.loads) on[l.name] = l.circuit;
    CHECK(on["Data cabinet"] == on["Access control"]);
    CHECK(on["Fire alarm panel"] != on["Data cabinet"]);
    CHECK(on["Smoke vents, north"] != on["Data cabinet"]);
    CHECK(on["Smoke vents, north"] != on["Fire alarm panel"]);
}
