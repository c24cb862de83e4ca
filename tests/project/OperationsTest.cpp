#include "core/project/CircuitFacts.h"
#include "core/project/Document.h"
#include "core/project/LoadWords.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/World.h"

#include <fstream>

using namespace lintel;

TEST_CASE("moving a circuit: shift to a free slot, swap with what stands there, refused with a reason") {
    OneBoard w;
    const CircuitId a = w.circuit(100), b = w.circuit(200),
                    three = w.circuit(900, LoadUnit::VA, 3); // slots 1, 2, 3-5-7
    REQUIRE(w.p.circuits[three].slot == 3);
    MovePlan plan = planMove(w.p, a, 9);
    CHECK(plan.possible);
    CHECK_FALSE(plan.swap);
    plan = planMove(w.p, a, 2);
    CHECK(plan.possible);
    CHECK(plan.swap);
    applyMove(w.p, plan);
    CHECK(w.p.circuits[a].slot == 2);
    CHECK(w.p.circuits[b].slot == 1);
    CHECK(planMove(w.p, a, 3).possible); // the three-pole one goes to 2-4-6
    w.circuit(300);                      // slot 4: now three poles do not fit where one stood
    plan = planMove(w.p, a, 3);
    CHECK(plan.possible); // they make room by one row, and nothing else moves
    CHECK_FALSE(plan.swap);
    CHECK(plan.places == std::vector<std::pair<CircuitId, int>>{{a, 3}, {three, 5}});
    CHECK_FALSE(planMove(w.p, three, 41).possible);
    w.p.circuits.change(b)->pinned = true;
    CHECK(planMove(w.p, a, 1).reason == "LP-1-1 is pinned");
    // Three one-pole circuits change places with a three-pole one.
    OneBoard v;
    for (int i = 0; i < 3; ++i) v.p.circuits.change(v.circuit(100))->slot = 2 + 2 * i;
    const CircuitId t = v.circuit(900, LoadUnit::VA, 3);
    v.p.circuits.change(t)->slot = 1;
    plan = planMove(v.p, t, 2);
    REQUIRE(plan.possible);
    CHECK(plan.places.size() == 4);
    applyMove(v.p, plan);
    checkWhole(v.p, v.solved());
    for (const Circuit& c : v.p.circuits) CHECK_FALSE(v.solved().of(c.id).clash);
}

TEST_CASE("removing a level: what is drawn and placed on it goes, boards stay on no level, nothing points at it, and "
          "undo brings it back") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        Document document(*loadProject(dataFolder() / "demos" / (std::string(name) + ".lintel")));
        const Project start = document.project();
        for (const Level& l : start.levels) {
            INFO(name << ", " << l.name);
            document.edit("Remove level", [&](Project& p) { removeLevel(p, l.id); });
            const Project& p = document.project();
            REQUIRE_FALSE(validate(p));
            CHECK_FALSE(p.levels.has(l.id));
            CHECK(p.boards.size() == start.boards.size());
            CHECK(p.circuits.size() == start.circuits.size());
            for (const Board& b : p.boards)
                CHECK(b.level == (start.boards[b.id].level == l.id ? LevelId{} : start.boards[b.id].level));
            for (const Device& d : start.devices) CHECK(p.devices.has(d.id) == (d.level != l.id));
            for (const Opening& o : p.openings) CHECK(p.walls.has(o.wall));
            for (const Tray& t : p.trays) CHECK(t.riseTo != l.id);
            checkWhole(p, solve(p, bookOf(p.basis.ruleBook)));
            document.undo();
            CHECK(document.project() == start);
        }
    }
}

TEST_CASE("feeding a board: loops, wrong voltages and full boards are refused with a reason") {
    OneBoard w;
    Board sub;
    sub.name = "LP-2";
    const BoardId two = addBoard(w.p, sub);
    CHECK_FALSE(refuseFeed(w.p, two, w.board));
    feedFrom(w.p, two, w.board);
    REQUIRE(w.p.circuits.has(w.p.boards[two].feed.as<Circuit>()));
    CHECK(w.p.circuits[w.p.boards[two].feed.as<Circuit>()].poles == 3);
    CHECK(refuseFeed(w.p, w.board, two)->what == "LP-2 is itself fed from LP-1: that would be a loop");
    CHECK(refuseFeed(w.p, two, two)->what == "LP-2 cannot feed itself");
    sub.name = "HL-1";
    sub.system = VoltageSystem::Y480;
    const BoardId other = addBoard(w.p, sub);
    CHECK(refuseFeed(w.p, other, w.board)->what == "HL-1 takes 480Y/277 V; LP-1 gives 208Y/120 V");
    w.p.boards.change(w.board)->slots = 5;
    sub.name = "LP-3", sub.system = VoltageSystem::Y208;
    const BoardId three = addBoard(w.p, sub);
    CHECK(refuseFeed(w.p, three, w.board)->what.find("no place") != std::string::npos);
    // Fed from elsewhere: the circuit that fed it goes.
    const std::size_t before = w.p.circuits.size();
    feedFrom(w.p, two, w.source);
    CHECK(w.p.circuits.size() == before - 1);
    CHECK(w.solved().of(two).parent == Ref(w.source));
}

TEST_CASE("a loop in a file is found and nothing hangs") {
    OneBoard w;
    Board sub;
    sub.name = "LP-2";
    const BoardId two = addBoard(w.p, sub);
    feedFrom(w.p, two, w.board);
    const CircuitId back = addCircuit(w.p, two, 3, "LP-1");
    w.p.boards.change(w.board)->feed = back;
    const Results r = w.solved();
    CHECK(r.of(w.board).looped);
    CHECK(r.of(two).looped);
    CHECK(r.order.size() == 3);
    CHECK(r.feedPath(two, w.p).empty());
}

TEST_CASE("removing a circuit leaves its loads unfed and what it fed without a feed") {
    OneBoard w;
    const CircuitId c = w.circuit(500);
    Board sub;
    sub.name = "LP-2";
    const BoardId two = addBoard(w.p, sub);
    feedFrom(w.p, two, w.board);
    const CircuitId f = w.p.boards[two].feed.as<Circuit>();
    removeCircuit(w.p, c);
    removeCircuit(w.p, f);
    CHECK_FALSE(w.p.boards[two].feed);
    CHECK_FALSE(w.p.loads.begin()->circuit);
    CHECK(w.p.circuits.empty());
    removeBoard(w.p, two);
    CHECK_FALSE(w.p.boards.has(two));
}

TEST_CASE("a circuit is named after its devices and their room") {
    OneBoard w;
    const LevelId level = w.p.levels.begin()->id;
    w.p.rooms.add({{}, level, "011", "Prep", "", {{0, 0}, {5, 0}, {5, 4}, {0, 4}}, {}, 0, 0, {}, {}});
    const DeviceTypeId y = w.p.deviceTypes.add({});
    std::vector<DeviceId> devices;
    for (int i = 0; i < 3; ++i) {
        Device d;
        d.type = y, d.level = level, d.at = {1.0 + i, 1};
        devices.push_back(w.p.devices.add(d));
    }
    const CircuitId c = circuitToBoard(w.p, devices, w.board);
    CHECK(w.p.circuits[c].name == "Receptacles, Prep 011");
    CHECK(nameOf(w.p, c) == "LP-1-1");
    const CircuitId other = circuitToBoard(w.p, {devices[0]}, w.board);
    CHECK(w.p.devices[devices[0]].circuit == other); // it left the first
    CHECK(w.solved().of(c).points == 2);
    CHECK(freeBoardName(w.p, "LP-1") == "LP-2");
}

TEST_CASE("the kind of a load by the words of its name, from a list that is data") {
    const auto list = LoadWords::load(dataFolder() / "words" / "load-kinds.json");
    REQUIRE(list);
    struct Case {
        const char* name;
        std::optional<LoadKind> kind;
    };
    for (const Case& c : {Case{"Receptacles", LoadKind::Receptacle},
                          {"Receptacles, Lighting store 4", LoadKind::Receptacle},
                          {"Lighting", LoadKind::Lighting},
                          {"Unit heater UH-3", LoadKind::Heating},
                          {"RTU-1", LoadKind::Cooling},
                          {"Door operator", LoadKind::Motor},
                          {"Exhaust fans", LoadKind::Motor},
                          {"Unit heater receptacle", LoadKind::Receptacle},
                          {"Water heater", LoadKind::WaterHeating},
                          {"Fan coil unit", LoadKind::Cooling},
                          {"BLAST CHILLER", LoadKind::Refrigeration},
                          {"Passenger lift", LoadKind::Vertical},
                          {"EV charger 2", LoadKind::Vehicle},
                          {"Exit signs", LoadKind::Lighting},
                          {"Kiln", std::nullopt},
                          {"", std::nullopt},
                          {", lighting", std::nullopt},
                          {"Fantastic", std::nullopt}}) {
        INFO(c.name);
        CHECK(list->kindOf(c.name) == c.kind);
    }
    // Typed in either order, and into a list that names no kinds.
    OneBoard w;
    const CircuitId named = addCircuit(w.p, w.board, 1, ""), later = addCircuit(w.p, w.board, 1, "");
    const auto type = [&](CircuitId c, const char* fact, const char* text) {
        CHECK_FALSE(circuitFact(fact)->write(w.p, c, text));
    };
    type(named, "serves", "Counter receptacles"), type(named, "load", "1.2 kVA");
    type(later, "load", "1.2 kVA"), type(later, "serves", "Counter receptacles");
    for (CircuitId c : {named, later})
        for (const Load& l : w.p.loads)
            if (l.circuit == c) CHECK(l.kind == LoadKind::Receptacle);
    const std::filesystem::path bad = std::filesystem::temp_directory_path() / "lintel-words.json";
    for (const auto& [text, says] : {std::pair{R"({"kinds": {"lamp": ["x"]}})", "there is no load kind"},
                                     {R"({"kinds": {"motor": ["fan"], "cooling": ["fan"]}})", "stands for"},
                                     {"[]", "no \"kinds\""},
                                     {"{", ""}}) {
        std::ofstream(bad) << text;
        const auto refused = LoadWords::load(bad);
        REQUIRE_FALSE(refused);
        CHECK(refused.error().text().find(says) != std::string::npos);
    }
    std::filesystem::remove(bad);
}
