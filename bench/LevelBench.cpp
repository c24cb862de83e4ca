// Levelling, on boards as they are met: a mix of lighting, outlets, equipment and multi-pole loads, some pinned, some
// tied. Beside the times, how near to the bound a hundred of them come.

#include "core/level/Level.h"
#include "core/project/Operations.h"
#include "core/rules/DataFolder.h"
#include "core/solve/Solve.h"

#include <benchmark/benchmark.h>
#include <chrono>
#include <cstdio>
#include <random>

using namespace lintel;

namespace {

const RuleBook& book() {
    static const RuleBook b = [] {
        auto loaded = loadRuleBook("nec-2023");
        if (!loaded) std::fprintf(stderr, "%s\n", loaded.error().text().c_str()), std::exit(1);
        return *loaded;
    }();
    return b;
}

struct Sample {
    Project project;
    Results results;
    BoardId board;
};

Sample realistic(std::uint32_t seed, int slots) {
    Sample s;
    std::mt19937 engine(seed);
    const auto roll = [&](int n) { return int(engine() % std::uint32_t(n)); };
    Board b;
    b.name = "LP-1", b.slots = slots;
    s.board = addBoard(s.project, b);
    const auto circuit = [&](double va, int poles, LoadKind kind) {
        if (!firstFreeSlot(s.project, s.board, poles)) return;
        const CircuitId c = addCircuit(s.project, s.board, poles, "load");
        Load l;
        l.circuit = c, l.amount = va, l.poles = poles, l.kind = kind;
        s.project.loads.add(l);
        if (roll(10) == 0) s.project.circuits.change(c)->pinned = true;
    };
    const int units = slots / 42;
    for (int i = 0; i < units * (1 + roll(3)); ++i) circuit(1000 * (3 + roll(10)), 3, LoadKind::Cooling);
    for (int i = 0; i < units * (2 + roll(4)); ++i) circuit(500 * (2 + roll(9)), 2, LoadKind::Equipment);
    const double fill = 0.75 + 0.02 * roll(11);
    int tie = 0;
    while (slots - freeSlots(s.project, s.board) < fill * slots) switch (roll(4)) {
        case 0:
            circuit(180 * (2 + roll(7)), 1, LoadKind::Receptacle);
            break;
        case 1:
            circuit((28 + roll(32)) * (6 + roll(20)), 1, LoadKind::Lighting);
            break;
        case 2:
            circuit(10 * (20 + roll(150)), 1, LoadKind::Equipment);
            break;
        default:
            if (roll(12) == 0) { // a pair with tied handles
                const int first = firstFreeSlot(s.project, s.board, 2);
                if (!first) break;
                ++tie;
                for (int k = 0; k < 2; ++k) {
                    const CircuitId c = addCircuit(s.project, s.board, 1, "pair");
                    s.project.circuits.change(c)->slot = first + 2 * k, s.project.circuits.change(c)->tie = tie;
                    Load l;
                    l.circuit = c, l.amount = 180 * (2 + roll(5));
                    s.project.loads.add(l);
                }
            } else
                circuit(180 * (1 + roll(8)), 1, LoadKind::Receptacle);
        }
    s.results = solve(s.project, book());
    return s;
}

void level(benchmark::State& state) {
    const int slots = int(state.range(0));
    std::vector<Sample> samples;
    for (std::uint32_t i = 1; i <= 100; ++i) samples.push_back(realistic(i, slots));
    int near = 0, proven = 0, rounds = 0;
    double slowest = 0, worst = 0, sum = 0;
    for (auto _ : state) {
        near = proven = 0, slowest = worst = sum = 0;
        for (const Sample& s : samples) {
            const auto from = std::chrono::steady_clock::now();
            const LevelChoices c = levelBoard(s.project, s.results, s.board);
            const double ms =
                std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - from).count();
            slowest = std::max(slowest, ms), sum += ms;
            worst = std::max(worst, c.gap());
            proven += c.best().proven, near += c.best().proven || c.gap() <= 0.5;
        }
        ++rounds;
    }
    state.counters["ms_mean"] = sum / 100;
    state.counters["ms_slowest"] = slowest;
    state.counters["of100_proven_or_0.5%"] = near;
    state.counters["of100_proven"] = proven;
    state.counters["worst_gap_%"] = worst;
}
BENCHMARK(level)->Arg(42)->Arg(84)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
