// How long it takes to tell what has changed, to put two people's work together, and to write what is handed in: with
// 500 boards and 21 000 circuits, and a floor of 2 000 devices.

#include "bench/BigBuilding.h"
#include "core/check/Assumptions.h"
#include "core/compare/Merge.h"
#include "core/compare/ProjectComparison.h"
#include "core/compare/SheetMarks.h"
#include "core/exchange/DxfPlan.h"
#include "core/report/CalculationReport.h"
#include "core/rules/DataFolder.h"

#include <benchmark/benchmark.h>

using namespace lintel;

namespace {

const RuleBook& nec() {
    static const RuleBook b = *loadRuleBook("nec-2023");
    return b;
}
const Project& before() {
    static const Project p = bigBuilding(500, 42);
    return p;
}
/// One load in `every` is larger by a half.
Project changed(std::uint32_t every, std::uint32_t from) {
    Project p = before();
    std::vector<LoadId> some;
    for (const Load& l : p.loads)
        if (l.id.value % every == from) some.push_back(l.id);
    for (LoadId id : some) p.loads.change(id)->amount *= 1.5;
    return p;
}

void compareTwo(benchmark::State& state) {
    const Project after = changed(std::uint32_t(state.range(0)), 1);
    const Results x = solve(before(), nec()), y = solve(after, nec());
    std::size_t entered = 0;
    for (auto _ : state) {
        const ProjectComparison c = compareProjects({before(), nec(), x}, {after, nec(), y});
        entered = c.entered.size();
    }
    state.counters["entered"] = double(entered);
}
BENCHMARK(compareTwo)->Arg(1000)->Arg(10)->Unit(benchmark::kMillisecond);

void mergeTwo(benchmark::State& state) {
    const Project ours = changed(20, 1), theirs = changed(20, 2);
    for (auto _ : state) benchmark::DoNotOptimize(mergeProjects(before(), ours, theirs));
}
BENCHMARK(mergeTwo)->Unit(benchmark::kMillisecond);

/// Clouds on forty schedules, with both states of each drawn.
void marksOnForty(benchmark::State& state) {
    const Project after = changed(10, 1);
    const Results x = solve(before(), nec()), y = solve(after, nec());
    const SheetInput was{before(), nec(), x}, is{after, nec(), y};
    const std::vector<SheetEntry> earlier = issueSet(was), now = issueSet(is);
    std::vector<SheetEntry> forty;
    for (const SheetEntry& e : now)
        if (e.kind == SheetKind::Schedule && forty.size() < 40) forty.push_back(e);
    for (auto _ : state)
        for (const SheetEntry& e : forty) benchmark::DoNotOptimize(markedSince(earlier, e, after.basis));
    state.counters["sheets"] = double(forty.size());
}
BENCHMARK(marksOnForty)->Unit(benchmark::kMillisecond);

void report(benchmark::State& state, ReportDepth depth) {
    const Results r = solve(before(), nec());
    const SheetInput in{before(), nec(), r};
    ReportOrder order;
    order.depth = depth;
    std::size_t pages = 0;
    for (auto _ : state) pages = calculationReport(in, order)->pages.size();
    state.counters["pages"] = double(pages);
}
BENCHMARK_CAPTURE(report, runs, ReportDepth::Runs)->Unit(benchmark::kMillisecond);

/// A floor of fifty rows of forty receptacles.
void planAsDxf(benchmark::State& state) {
    Project p;
    const LevelId level = p.levels.add({{}, "Ground floor", 0, 3, {}});
    DeviceType outlet;
    outlet.name = "Receptacle";
    const DeviceTypeId type = p.deviceTypes.add(outlet);
    for (int i = 0; i < 2000; ++i) {
        Device d;
        d.type = type, d.level = level, d.at = {i % 50 * 1.5, i / 50 * 1.5};
        p.devices.add(d);
    }
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    const std::string file = "lintel-bench-plan.dxf";
    for (auto _ : state) benchmark::DoNotOptimize(writePlanDxf(in, level, file));
    std::remove(file.c_str());
}
BENCHMARK(planAsDxf)->Unit(benchmark::kMillisecond);

} // namespace
