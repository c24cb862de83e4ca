#include "core/solve/ConductorSizing.h"
#include "tests/World.h"

using namespace lintel;

namespace {
std::string sizeName(const RunResult& r) { return r.size < 0 ? "" : nec().sizes()[std::size_t(r.size)].name; }
std::string groundName(const RunResult& r) { return r.ground < 0 ? "" : nec().sizes()[std::size_t(r.ground)].name; }
} // namespace

TEST_CASE("branch circuits by hand") {
    struct Case {
        double amount;
        LoadUnit unit;
        int poles;
        bool continuous;
        double device;
        const char *size, *ground;
        const char* source;
    };
    // 208Y/120, 90 °C copper, 75 °C terminals, 30 °C, alone in its raceway.
    const Case cases[] = {
        {10, LoadUnit::A, 1, false, 20, "12", "12", "10 A: the smallest breaker; 12 AWG by 240.4(D)"},
        {18, LoadUnit::A, 1, true, 25, "10", "10", "18 · 1.25 = 22.5 → 25 A; 240.4(D) holds 12 AWG to 20 A"},
        {16, LoadUnit::A, 1, true, 20, "12", "12", "16 · 1.25 = 20 A"},
        {40, LoadUnit::A, 2, false, 40, "8", "10", "8 AWG: 50 A at 75 °C"},
        {52, LoadUnit::A, 3, false, 60, "6", "10", "8 AWG carries 50; 6 AWG 65 A"},
        {100, LoadUnit::A, 3, true, 125, "1", "6", "125 A of terminals at 75 °C: 2 AWG carries 115, 1 AWG 130"},
        {176, LoadUnit::A, 3, false, 200, "3/0", "6", "2/0 carries 175 at 75 °C, 3/0 200"}};
    for (const Case& c : cases) {
        INFO(c.source);
        OneBoard w;
        const CircuitId id = w.circuit(c.amount, c.unit, c.poles, -1, LoadKind::Equipment, c.continuous);
        const Results r = w.solved();
        CHECK(r.of(id).device == c.device);
        CHECK(sizeName(r.of(id).run) == c.size);
        CHECK(groundName(r.of(id).run) == c.ground);
    }
}

TEST_CASE("the next rating above the ampacity is allowed, but not for receptacles") {
    // 47 A: 50 A breaker. 60 °C terminals: 8 AWG 40 A, 6 AWG 55 A. At 75 °C: 8 AWG 50 A carries it exactly.
    OneBoard w;
    const CircuitId id = w.circuit(47, LoadUnit::A, 2);
    CHECK(sizeName(w.solved().of(id).run) == "8");
    w.p.basis.terminals75 = false;
    CHECK(sizeName(w.solved().of(id).run) == "6");
    w.p.basis.terminals75 = true;
    // 72 A: 80 A breaker over 4 AWG (85 A). With 40 °C and 4–6 in the raceway: 95 · 0.91 · 0.8 = 69.2 A < 72; 3
    // AWG 83.7 A.
    const CircuitId hot = w.circuit(72, LoadUnit::A, 2);
    CHECK(sizeName(w.solved().of(hot).run) == "4");
    runOf(w.p, hot).ambient = 40;
    runOf(w.p, hot).sharing = 3;
    CHECK(sizeName(w.solved().of(hot).run) == "3");
    const RunResult run = w.solved().of(hot).run;
    CHECK(run.ampacity == Approx(115 * 0.91 * 0.8));
    CHECK((run.why == Governing::Bundling || run.why == Governing::Ambient));
}

TEST_CASE("motors: conductor at 125 %, breaker at 250 %, ground no larger than the lines") {
    OneBoard w(VoltageSystem::Y480);
    w.p.basis.smallestBranch = "14";
    const CircuitId id = w.circuit(14, LoadUnit::A, 3, -1, LoadKind::Motor, false, 0.85); // 10 hp at 460 V
    const CircuitResult r = w.solved().of(id);
    CHECK(r.required.v == Approx(17.5)); // 430.22
    CHECK(r.device == 35);               // 14 · 2.5 = 35 A (430.52)
    CHECK(sizeName(r.run) == "14");      // 20 A at 75 °C; 240.4(D) does not hold for motors (240.4(G))
    CHECK(groundName(r.run) == "14");    // 10 AWG by the device, never larger than the lines
}

TEST_CASE("parallel sets start at 1/0 and only where one of the preferred largest does not do") {
    OneBoard w(VoltageSystem::Y480);
    const CircuitId one = w.circuit(370, LoadUnit::A, 3), two = w.circuit(450, LoadUnit::A, 3);
    const Results r = w.solved();
    CHECK(r.of(one).run.sets == 1);
    CHECK(sizeName(r.of(one).run) == "500"); // 380 A for a 400 A breaker, the next rating up
    CHECK(r.of(two).run.sets == 2);
    CHECK(sizeName(r.of(two).run) == "4/0"); // 450 A breaker: 2 · 230 = 460 A; 3/0 gives 400
    CHECK(groundName(r.of(two).run) == "2");
}

TEST_CASE("aluminium") {
    OneBoard w(VoltageSystem::Y480);
    w.p.basis.branchMaterial = Material::Aluminium;
    const CircuitId id = w.circuit(95, LoadUnit::A, 3);
    const RunResult r = w.solved().of(id).run;
    CHECK(r.need.device == 100);
    CHECK(sizeName(r) == "1");   // 100 A at 75 °C
    CHECK(groundName(r) == "6"); // 250.122
}

TEST_CASE("drop raises the size, the ground with it, and names its reason") {
    // 120 V, 16 A, 150 ft: 12 AWG 8.0 %, 10 AWG 4.8 %, 8 AWG 3.1 %, 6 AWG 2.0 %; limit 3 %.
    OneBoard w;
    const CircuitId id = w.circuit(16, LoadUnit::A, 1, 150);
    const RunResult r = w.solved().of(id).run;
    CHECK(sizeName(r) == "6");
    CHECK(r.why == Governing::VoltageDrop);
    CHECK(r.steps == 3);
    CHECK(r.dropBefore == Approx(8.0));
    CHECK(r.dropOwn == Approx(1.96));
    CHECK(inFeet(r.longest) == Approx(3.0 / 1.96 * 150).epsilon(1e-3));
    CHECK(r.groundRaised);
    CHECK(groundName(r) == "6"); // 12 AWG for 20 A, times 26.24/6.53: 6 AWG
    const Working why = explain(w.p, nec(), w.solved(), id);
    int governing = 0;
    for (const WorkingStep& s : why.steps)
        if (s.governs) {
            ++governing;
            CHECK(s.what == "Drop, #6");
        }
    CHECK(governing == 1);
    CHECK(why.text().find("2·16.0·0.490·150/1000") != std::string::npos);
}

TEST_CASE("upsizing stops at the ceiling and the size stays") {
    OneBoard w;
    const CircuitId id = w.circuit(16, LoadUnit::A, 1, 600);
    const RunResult r = w.solved().of(id).run;
    CHECK(r.state == Sizing::PastCeiling);
    CHECK(sizeName(r) == "12");
    w.p.basis.upsizingCeiling = 20;
    CHECK(w.solved().of(id).run.state == Sizing::Sized);
    CHECK(w.solved().of(id).run.dropOwn <= 3);
}

TEST_CASE("drop judged on a share of the rating does not put that load in the schedule") {
    OneBoard w;
    const CircuitId id = w.circuit(180, LoadUnit::VA, 1, 150);
    CHECK(sizeName(w.solved().of(id).run) == "12");
    runOf(w.p, id).dropBasis = DropBasis::Share; // 80 % of 20 A = 16 A
    CHECK(sizeName(w.solved().of(id).run) == "6");
    CHECK(w.solved().of(id).va == Approx(180));
    CHECK(w.solved().of(id).load.v == Approx(1.5));
}

TEST_CASE("a held size never changes, and says when it is too small") {
    OneBoard w;
    const CircuitId id = w.circuit(40, LoadUnit::A, 2);
    runOf(w.p, id).heldSize = "10";
    RunResult r = w.solved().of(id).run;
    CHECK(r.state == Sizing::Held);
    CHECK(sizeName(r) == "10");
    CHECK(r.tooSmall);
    runOf(w.p, id).heldSize = "4";
    r = w.solved().of(id).run;
    CHECK(sizeName(r) == "4");
    CHECK_FALSE(r.tooSmall);
    CHECK(r.why == Governing::Held);
}

TEST_CASE("the total limit raises a run that keeps its own") {
    OneBoard w;
    w.p.runs.change(w.p.boards[w.board].run)->length = 0.001;
    const CircuitId id = w.circuit(10, LoadUnit::A, 1, 80); // 12 AWG: 2·10·2.0·0.08 = 3.2 V = 2.67 %
    CHECK(sizeName(w.solved().of(id).run) == "12");
    w.p.basis.totalDropLimit = 2;
    const RunResult r = w.solved().of(id).run;
    CHECK(sizeName(r) == "10"); // 1.6 %
    CHECK(r.dropTotal <= 2);
}

TEST_CASE("transformer primary and secondary") {
    OneBoard w(VoltageSystem::Y480);
    Transformer t;
    t.name = "T-1", t.kva = 75;
    const TransformerId id = w.p.transformers.add(t);
    feedFrom(w.p, id, w.board);
    Board b;
    b.name = "LP-9", b.main = 225;
    const BoardId below = addBoard(w.p, b);
    feedFrom(w.p, below, id);
    const Results r = w.solved();
    CHECK(r.of(id).primaryAmps.v == Approx(90.21).epsilon(1e-3));
    CHECK(r.of(id).secondaryAmps.v == Approx(208.2).epsilon(1e-3));
    CHECK(r.of(id).run.need.device == 125);    // 90.2 · 1.25 = 112.8 → 125 A (450.3(B))
    CHECK(sizeName(r.of(id).run) == "2");      // 115 A at 75 °C; 125 A is the next rating above it (240.4(B))
    CHECK(sizeName(r.of(below).run) == "4/0"); // 225 A main: 230 A; no next rating up on a secondary (240.21(C))
    CHECK(r.of(below).run.ground == -1);
}

TEST_CASE(
    "properties over many runs: more load or length never gives a smaller conductor, wider limits never a larger") {
    std::uint32_t seed = 11;
    const auto random = [&](double lo, double hi) {
        return lo + (hi - lo) * ((seed = seed * 1664525u + 1013904223u) >> 8) / double(1 << 24);
    };
    const auto area = [](const RunResult& r) {
        return r.size < 0 ? 1e9 : nec().sizes()[std::size_t(r.size)].kcmil * r.sets;
    };
    const SizingRules rules = sizingRules(Basis{}, nec());
    for (int i = 0; i < 1500; ++i) {
        RunNeed n;
        n.system = i % 2 ? VoltageSystem::Y208 : VoltageSystem::Y480;
        n.poles = 1 + i % 3;
        n.smallest = nec().find("12");
        n.load = n.dropAmps = Amps{random(1, 700)};
        n.required = n.load * random(1, 1.25);
        n.device = nec().ratingAtOrAbove(n.required.v);
        n.ambient = random(10, 60);
        n.conductors = 2 + int(random(0, 8));
        n.lengthKnown = true;
        n.length = Metres{random(1, 150)};
        SizingRules free = rules;
        free.ceiling = 40;
        const auto sized = [&](const RunNeed& need) {
            RunResult r;
            r.need = need;
            sizeRun(r, free, nec());
            return r;
        };
        const RunResult base = sized(n);
        INFO(n.load.v << " A, " << n.length.v << " m, " << n.ambient << " °C, " << n.conductors << " conductors, "
                      << n.poles << " poles");
        if (base.state != Sizing::Sized) continue;
        CHECK(base.dropOwn <= n.ownLimit + 1e-6);
        CHECK(base.ampacity + 1e-6 >= n.load.v);
        CHECK(area(base) + 1e-6 >= nec().sizes()[std::size_t(base.sizeForAmpacity)].kcmil * base.setsForAmpacity);
        RunNeed longer = n;
        longer.length = n.length * 1.5;
        CHECK(area(sized(longer)) + 1e-6 >= area(base));
        RunNeed looser = n;
        looser.ownLimit = 10, looser.totalLimit = 20;
        CHECK(area(sized(looser)) <= area(base) + 1e-6);
    }
}
