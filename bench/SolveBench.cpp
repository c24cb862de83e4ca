// How long the whole building takes: 500 boards and 21 000 circuits, solved from nothing, as after every keystroke.

#include "bench/BigBuilding.h"
#include "core/check/Assumptions.h"
#include "core/check/Check.h"
#include "core/compose/Together.h"
#include "core/exchange/FeederList.h"
#include "core/level/Level.h"
#include "core/lists/List.h"
#include "core/project/Edit.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"

#include <benchmark/benchmark.h>
#include <cstdio>
#include <sys/resource.h>

using namespace lintel;

namespace {

const Project& theBuilding() {
    static const Project p = bigBuilding(500, 42);
    return p;
}
const RuleBook& nec() {
    static const RuleBook b = *loadRuleBook("nec-2023");
    return b;
}

void wholeSolve(benchmark::State& state) {
    const Project& p = theBuilding();
    for (auto _ : state) benchmark::DoNotOptimize(solve(p, nec()));
    rusage use{};
    getrusage(RUSAGE_SELF, &use);
    state.counters["circuits"] = double(p.circuits.size());
    state.counters["boards"] = double(p.boards.size());
    state.counters["peak_MiB"] = double(use.ru_maxrss) / 1024;
}
BENCHMARK(wholeSolve)->Unit(benchmark::kMillisecond);

void snags(benchmark::State& state) {
    const Results r = solve(theBuilding(), nec());
    for (auto _ : state) benchmark::DoNotOptimize(findSnags(theBuilding(), nec(), r));
}
BENCHMARK(snags)->Unit(benchmark::kMillisecond);

/// Workings for one thing: the last circuit, then the switchboard with everything below it.
void workingsOfCircuit(benchmark::State& state) {
    const Results r = solve(theBuilding(), nec());
    const CircuitId last{theBuilding().circuits.highest()};
    for (auto _ : state) benchmark::DoNotOptimize(explain(theBuilding(), nec(), r, last));
}
BENCHMARK(workingsOfCircuit)->Unit(benchmark::kMicrosecond);
void workingsOfBoard(benchmark::State& state) {
    const Results r = solve(theBuilding(), nec());
    for (auto _ : state) benchmark::DoNotOptimize(explain(theBuilding(), nec(), r, theBuilding().boards.begin()->id));
}
BENCHMARK(workingsOfBoard)->Unit(benchmark::kMicrosecond);

void oneEdit(benchmark::State& state) {
    Project p = theBuilding();
    const CircuitId last{p.circuits.highest()};
    for (auto _ : state) {
        Project next = p;
        next.circuits.change(last)->name += "x";
        benchmark::DoNotOptimize(difference(p, next, "Rename"));
    }
}
BENCHMARK(oneEdit)->Unit(benchmark::kMicrosecond);

void levelOneBoard(benchmark::State& state) {
    const Results r = solve(theBuilding(), nec());
    for (auto _ : state) benchmark::DoNotOptimize(levelBoard(theBuilding(), r, BoardId{2}));
}
BENCHMARK(levelOneBoard)->Unit(benchmark::kMillisecond);

/// The lists that go on sheets, worked out and set.
void listsOnSheets(benchmark::State& state) {
    const Project& p = theBuilding();
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    for (auto _ : state) {
        benchmark::DoNotOptimize(listSheets(in, listsOf(in, true), 801));
    }
}
BENCHMARK(listsOnSheets)->Unit(benchmark::kMillisecond);

/// The set of 500 boards: its list, as after each edit while it is shown, and all its sheets drawn; with a sheet for
/// each schedule, and with all of them on composed sheets.
void set(benchmark::State& state, bool composed, bool drawn) {
    Project p = theBuilding();
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    if (composed) composeTogether(in, p, thingsToCompose(in, SheetKind::Schedule));
    std::size_t sheets = 0;
    for (auto _ : state) {
        const auto all = issueSet(in);
        sheets = all.size();
        if (drawn)
            for (const SheetEntry& e : all) benchmark::DoNotOptimize(e.draw());
    }
    state.counters["sheets"] = double(sheets);
}
BENCHMARK_CAPTURE(set, listed, false, false)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(set, drawn, false, true)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(set, composedListed, true, false)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(set, composedDrawn, true, true)->Unit(benchmark::kMillisecond);

/// The riser and the one-line of 500 boards, laid out and drawn for a screen of this width, mm.
void riser(benchmark::State& state, RiserLayout layout) {
    const Project& p = theBuilding();
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    for (auto _ : state) benchmark::DoNotOptimize(riserBare(in, layout, 300));
}
BENCHMARK_CAPTURE(riser, byFloor, RiserLayout::ByFloor)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(riser, oneLine, RiserLayout::OneLine)->Unit(benchmark::kMillisecond);

/// The riser by floor after something was added: its rows stay as they were.
void riserAfterInsertion(benchmark::State& state) {
    const Project& p = theBuilding();
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    std::optional<std::size_t> rows;
    benchmark::DoNotOptimize(riserBare(in, RiserLayout::ByFloor, 300, {}, &rows));
    for (auto _ : state) benchmark::DoNotOptimize(riserBare(in, RiserLayout::ByFloor, 300, {}, &rows));
}
BENCHMARK(riserAfterInsertion)->Unit(benchmark::kMillisecond);

/// A schedule of all feeders, read and taken in.
void feederList(benchmark::State& state) {
    const Project& p = theBuilding();
    const Results r = solve(p, nec());
    Grid grid;
    grid.rows = feedersOf(p, nec(), r);
    const FeederList list = readFeeders(grid, guessFeederSettings(grid, p.basis.units), nec());
    for (auto _ : state) {
        Project into = p;
        benchmark::DoNotOptimize(applyFeeders(into, nec(), list));
    }
    state.counters["feeders"] = double(list.rows.size());
}
BENCHMARK(feederList)->Unit(benchmark::kMillisecond);

void writeFile(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(writeProject(theBuilding()));
}
BENCHMARK(writeFile)->Unit(benchmark::kMillisecond);
void readFile(benchmark::State& state) {
    const std::string text = writeProject(theBuilding());
    for (auto _ : state) benchmark::DoNotOptimize(readProject(text, "bench"));
    state.counters["MB"] = double(text.size()) / 1e6;
}
BENCHMARK(readFile)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
