// Equipment whose nameplate marks its circuit: the minimum circuit ampacity and the largest device (440.4(B), 440.35).
// The figures are worked out here from the markings and Table 310.16, not by the program.

#include "core/check/Check.h"
#include "core/project/CircuitFacts.h"
#include "core/project/ProjectFile.h"
#include "tests/World.h"

using namespace lintel;

namespace {

CircuitId marked(OneBoard& w, double amps, double ampacity, double device, LoadKind kind = LoadKind::Cooling) {
    const CircuitId id = w.circuit(amps, LoadUnit::A, 3, 50, kind);
    for (const Load& l : w.p.loads)
        if (l.circuit == id) {
            Load& own = *w.p.loads.change(l.id);
            own.nameplate.ampacity = ampacity;
            own.nameplate.device = device;
        }
    return id;
}
std::string size(const Results& r, CircuitId id) { return nec().sizes()[std::size_t(r.of(id).run.size)].name; }

} // namespace

TEST_CASE("the nameplate's ampacity takes the place of 125 %, and its device of 175 %") {
    // 60 A of compressors and fans, marked MCA 68.5, MOCP 80. At 75 °C #6 carries 65 A, #4 85 A. Without the markings:
    // 1.25 · 60 = 75 A, and 1.75 · 60 = 105 → 100 A.
    OneBoard w(VoltageSystem::Y480);
    const CircuitId plate = marked(w, 60, 68.5, 80), bare = w.circuit(60, LoadUnit::A, 3, 50, LoadKind::Cooling);
    const Results r = w.solved();
    CHECK(r.of(plate).load.v == Approx(60));
    CHECK(r.of(plate).required.v == Approx(68.5));
    CHECK(r.of(plate).device == 80);
    CHECK(size(r, plate) == "4");
    CHECK(r.of(bare).required.v == Approx(75));
    CHECK(r.of(bare).device == 100);
    CHECK(size(r, bare) == "4");
}

TEST_CASE("the device of a nameplate is the standard rating at or below it, never less than the conductors need") {
    struct {
        double amps, ampacity, most, device;
    } const rows[] = {
        {26, 31, 45, 45},   // marked at a standard rating
        {26, 31, 48, 45},   // between two
        {26, 31, 0, 35},    // none marked: the next rating above the ampacity
        {26, 31, 34, 35},   // no standard rating from 31 to 34: told, and the conductors stay protected
        {12, 0, 15, 15},    // only a device: 1.25 · 12 = 15 A needed, 1.75 · 12 = 21 → 20 without it
        {12, 0, 60, 20},    // one that does not limit
        {10, 12.4, 15, 15}, // below the smallest breaker of the basis, which the nameplate does not allow
    };
    for (const auto& row : rows) {
        INFO(row.amps << " A, MCA " << row.ampacity << ", MOCP " << row.most);
        OneBoard w(VoltageSystem::Y480);
        w.p.basis.smallestBreaker = 20;
        const CircuitId id = marked(w, row.amps, row.ampacity, row.most);
        CHECK(w.solved().of(id).device == row.device);
    }
}

TEST_CASE("what has no nameplate on the same circuit is added to what is marked") {
    // MCA 20 of a unit, and 10 A of continuous lighting: 20 + 12.5 = 32.5 A.
    OneBoard w(VoltageSystem::Y480);
    const CircuitId id = marked(w, 16, 20, 30);
    Load light;
    light.circuit = id, light.amount = 10, light.unit = LoadUnit::A, light.poles = 3, light.kind = LoadKind::Lighting;
    light.continuous = true;
    w.p.loads.add(light);
    const CircuitResult r = w.solved().of(id);
    CHECK(r.load.v == Approx(26));
    CHECK(r.required.v == Approx(32.5));
    CHECK(r.device == 35); // its nameplate allows 30: a snag
    // Two pieces of it: twice the ampacity, and each allows the same device.
    OneBoard two(VoltageSystem::Y480);
    const CircuitId pair = marked(two, 16, 20, 60);
    for (const Load& l : two.p.loads) two.p.loads.change(l.id)->quantity = 2;
    CHECK(two.solved().of(pair).required.v == Approx(40));
    CHECK(two.solved().of(pair).device == 60);
}

TEST_CASE("a heater with a nameplate is protected by its device: its conductors carry as much") {
    // 24 A of heating, marked 30 and 45 A: no motor, so that 240.4 asks the conductors to suit the device. #10 carries
    // 35 A at 75 °C, which is a standard rating: 45 A takes #8 with 50 A, and 60 A #6 with 65 A.
    OneBoard w(VoltageSystem::Y480);
    const CircuitId id = marked(w, 24, 30, 45, LoadKind::Heating), larger = marked(w, 24, 30, 60, LoadKind::Heating);
    const Results r = w.solved();
    CHECK(r.of(id).device == 45);
    CHECK(size(r, id) == "8");
    CHECK(r.of(larger).device == 60);
    CHECK(size(r, larger) == "6");
}

TEST_CASE("a device on the plan has the nameplate of its type") {
    OneBoard w(VoltageSystem::Y480);
    DeviceType unit;
    unit.name = "Rooftop unit", unit.symbol = Symbol::Motor, unit.kind = LoadKind::Cooling, unit.load = 26;
    unit.unit = LoadUnit::A, unit.poles = 3, unit.nameplate = {31, 45};
    const DeviceTypeId type = w.p.deviceTypes.add(unit);
    const CircuitId id = addCircuit(w.p, w.board, 3, "RTU-2");
    Device d;
    d.type = type, d.level = w.p.levels.begin()->id, d.circuit = id;
    w.p.devices.add(d);
    const CircuitResult r = w.solved().of(id);
    CHECK(r.required.v == Approx(31));
    CHECK(r.device == 45);
    // Typed the wrong way round it is told at the circuit, and put right in the type.
    w.p.deviceTypes.change(type)->nameplate = {45, 31};
    const auto snags = findSnags(w.p, nec(), w.solved());
    const auto told =
        std::find_if(snags.begin(), snags.end(), [](const Snag& s) { return s.rule->id == std::string("nameplate"); });
    REQUIRE(told != snags.end());
    remediesFor({w.p, nec(), w.solved()}, *told).front().apply(w.p);
    CHECK(w.p.deviceTypes[type].nameplate == Nameplate{31, 45});
}

TEST_CASE("markings are typed, said in the workings, and come back from the file") {
    OneBoard w(VoltageSystem::Y480);
    const CircuitId id = w.circuit(60, LoadUnit::A, 3, 50, LoadKind::Cooling);
    const auto type = [&](const char* fact, const char* text) { return circuitFact(fact)->write(w.p, id, text); };
    CHECK_FALSE(type("mca", "68.5 A"));
    CHECK_FALSE(type("Nameplate MOCP", "80"));
    CHECK(type("mocp", "80 kW"));
    CHECK(type("mocp", "-5"));
    CHECK(type("mca", "about 60"));
    CHECK(circuitFact("mca")->read(w.p, w.p.circuits[id]) == "68.5");
    const Results r = w.solved();
    const Working told = explain(w.p, nec(), r, id);
    const auto step = [&](const std::string& what) -> const WorkingStep* {
        for (const WorkingStep& s : told.steps)
            if (s.what == what) return &s;
        return nullptr;
    };
    REQUIRE(step("Nameplate"));
    CHECK(step("Nameplate")->value == "68.5 A");
    CHECK(step("Nameplate")->cited.find("440.35") != std::string::npos);
    REQUIRE(step("Nameplate's device"));
    CHECK(step("Nameplate's device")->value == "80 A");
    CHECK(step("Nameplate's device")->cited.find("440.4(B)") != std::string::npos);
    CHECK_FALSE(step("Compressor"));
    const auto back = readProject(writeProject(w.p), "again");
    REQUIRE(back);
    CHECK(*back == w.p);
    CHECK_FALSE(type("mca", ""));
    CHECK(loadsOf(w.p, id).listed.size() == 1);
    CHECK(w.p.loads[loadsOf(w.p, id).listed.front()].nameplate.ampacity == 0);
}
