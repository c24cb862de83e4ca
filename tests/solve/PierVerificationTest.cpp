// The ten hand checks of Brindle Pier in docs/verification.md, worked apart in plain arithmetic from the tables'
// printed values.

#include "core/project/ProjectFile.h"
#include "tests/World.h"

using namespace lintel;

TEST_CASE("Brindle Pier: ten results by hand, as in docs/verification.md") {
    const Project p = *loadProject(dataFolder() / "demos" / "brindle-pier.lintel");
    const Results r = solve(p, bs());
    const auto board = [&](const std::string& name) -> const BoardResult& {
        for (const Board& b : p.boards)
            if (b.name == name) return r.of(b.id);
        throw std::runtime_error("no board " + name);
    };
    const auto circuit = [&](const std::string& name) -> const CircuitResult& {
        for (const Circuit& c : p.circuits)
            if (nameOf(p, c.id) == name) return r.of(c.id);
        throw std::runtime_error("no circuit " + name);
    };
    const auto mm2 = [&](SizeIndex s) { return s < 0 ? 0 : bs().sizes()[std::size_t(s)].mm2; };

    // 1  Substation: 0.4²/0.8 · 5 % = 10 mΩ; 1.1 · 230.94 V / 10 mΩ.
    CHECK(r.of(p.sources.begin()->id).fault.threePhase == Approx(25.40).margin(0.01));
    // 2  MSB: R = 10/√26 = 1.961, X = 9.806 mΩ; three sets of 240 mm² over 6 m: 0.0754·6/3 = 0.151, 0.22/√3·6/3 =
    // 0.254. |2.112 + j10.060| = 10.279 mΩ.
    CHECK(board("MSB").fault.threePhase == Approx(24.71).margin(0.02));
    // 3  DB-3: 80 A; 16 mm² armoured on a tray carries 99 A. 2.5 mV · 70.0 A · 19.8 m = 3.46 V of 400.
    CHECK(mm2(board("DB-3").run.size) == 16);
    CHECK(board("DB-3").run.dropOwn == Approx(0.866).margin(0.004));
    // 4  DB-3, Zs: 19.8 m · (2.5/√3 + 3.2·1.18) = 19.8 · 5.219 = 103.3 mΩ, nearly all resistance, on j10.1 + 3.1 mΩ
    // before it.
    CHECK(board("DB-3").run.earth->zs == Approx(0.107).margin(0.0015));
    // 5  DB-3/3 Range: 12 000/(√3·400) = 17.32 A, B20, 2.5 mm² carries 24. 15 mV · 17.32 · 14 = 3.64 V.
    CHECK(circuit("DB-3/3").load.v == Approx(17.32).margin(0.005));
    CHECK(circuit("DB-3/3").run.dropOwn == Approx(0.909).margin(0.004));
    CHECK(circuit("DB-3/3").run.earth->zs == Approx(0.107 + 0.2456).margin(0.003)); // 14·(8.66 + 7.41·1.2)/1000
    // 6  DB-3/2/L2, ring: 45.3 m round: 18 mV · 6.52 · 45.3/4 = 1.33 V; (9.0 + 12.1·1.2)·45.4/4 = 267 mΩ on 107.
    const CircuitResult& ring = circuit("DB-3/2/L2");
    CHECK(ring.run.need.length.v == Approx(45.26).margin(0.01));
    CHECK(ring.run.dropOwn == Approx(0.018 * 6.522 * ring.run.need.length.v / 4 / 230 * 100).epsilon(0.005));
    CHECK(ring.run.earth->zs == Approx(0.374).margin(0.004));
    // 7  DB-1/1/L3 Ticket hall lighting: 4 · 110 W / 0.95 = 463 VA, 2.01 A; R1 + R2 = 28 · (14.5 + 18.1·1.2) = 1.01 Ω
    // on 0.26.
    CHECK(circuit("DB-1/1/L3").va == Approx(463.2).margin(0.1));
    CHECK(circuit("DB-1/1/L3").run.earth->zs == Approx(1.275).margin(0.015));
    // 8  DB-7/1/L1, held 2.5 mm²: 19 mV · 0.95 · 7.32 A · 140 m = 18.5 V; 34 m would keep the 3 % of lighting.
    CHECK(circuit("DB-7/1/L1").run.dropOwn == Approx(8.04).margin(0.02));
    CHECK(circuit("DB-7/1/L1").run.state == Sizing::Held);
    // 9  DB-6/1 Smoke fan on D10: 218.5/200 = 1.0925 Ω. 1.5 mm²: 38 · (15.6 + 12.1·1.28) = 1.18 Ω alone is too
    // much; 2.5 mm²: 38 · (9.24 + 9.48) = 0.711 on 0.129.
    CHECK(mm2(circuit("DB-6/1").run.size) == 2.5);
    CHECK(circuit("DB-6/1").run.why == Governing::LoopImpedance);
    CHECK(circuit("DB-6/1").run.earth->zs == Approx(0.840).margin(0.004));
    // 10 DB-1, demand: lighting 1.389·0.9 = 1.25; sockets 2.1 + 0.75 = 2.85; heating 9 + 6.75 = 15.75; motor 0.94;
    // equipment 4.0: by P and Q 24.5 kVA, not the sum's 24.8.
    CHECK(board("DB-1").demand == Approx(24500).margin(80));
    CHECK(board("DB-1").demandByKind[std::size_t(LoadKind::Heating)] == Approx(15750));
    CHECK(board("DB-1").demandByKind[std::size_t(LoadKind::Receptacle)] == Approx(2850));
}

TEST_CASE("where a system has no neutral, an earth fault is driven by a line's voltage over the root of three") {
    const auto limit = [](VoltageSystem system) {
        MetricBoard w(0.35, system);
        const CircuitId c = w.run(4, 20, 3);
        return solve(w.p, bs()).of(c).run.earth->limit;
    };
    const double wye = limit(VoltageSystem::Y400), delta = limit(VoltageSystem{VoltageSystem::Shape::Delta, 400, 0});
    REQUIRE(wye > 0);
    CHECK(delta / wye == Approx(400 / std::sqrt(3.0) / 230));
}
