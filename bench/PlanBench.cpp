// The plan of a building of 3 floors, 150 rooms and some 2 000 devices over a drawing of 50 000 lines: how long a frame
// takes, laying it all out, circuiting it, and reading a drawing of 20 MB.

#include "app/frame/Theme.h"
#include "app/plan/PlanCanvas.h"
#include "core/plan/ApplyRecipe.h"
#include "core/plan/AutoCircuit.h"
#include "core/project/Operations.h"
#include "core/rules/DataFolder.h"
#include "core/solve/Solve.h"

#include <QApplication>
#include <QPainter>
#include <benchmark/benchmark.h>
#include <sstream>

using namespace lintel;

namespace {

const RuleBook& book() {
    static const RuleBook b = *loadRuleBook("nec-2023");
    return b;
}

/// Rooms of 8 m by 5 m in five rows of ten on each floor, with a door each; a recipe of outlets, panels to 400 lux and
/// a switch.
Project emptyBuilding() {
    Project p;
    DeviceType y;
    y.name = "Receptacle";
    const DeviceTypeId outlet = p.deviceTypes.add(y);
    y.name = "Panel", y.symbol = Symbol::Luminaire, y.kind = LoadKind::Lighting, y.load = 36, y.onWall = false,
    y.lumens = 5600, y.height = 2.8;
    const DeviceTypeId panel = p.deviceTypes.add(y);
    y.name = "Switch", y.symbol = Symbol::Switch, y.load = 0, y.onWall = true, y.lumens = 0;
    const DeviceTypeId toggle = p.deviceTypes.add(y);
    Recipe r;
    r.roomKind = "office";
    r.parts = {{outlet, RecipeBy::Walls, 4, 1, 1, {}, ""},
               {panel, RecipeBy::GridLux, 400, 1, 1, {}, "a"},
               {toggle, RecipeBy::Doors, 0, 1, 1, {}, "a"}};
    p.recipes.add(r);
    for (int f = 0; f < 3; ++f) {
        const LevelId level = p.levels.add({{}, "Level " + std::to_string(f), f * 4.0, 3, {}});
        Catchment k;
        k.level = level;
        for (int i = 0; i < 50; ++i) {
            const double x = i % 10 * 8.0, z = i / 10 * 5.0;
            Room m;
            m.level = level, m.kind = "office", m.number = std::to_string(f * 100 + i), m.name = "Office",
            m.outline = {{x, z}, {x + 8, z}, {x + 8, z + 5}, {x, z + 5}};
            p.rooms.add(m);
            Wall w;
            w.level = level, w.a = {x, z + 5}, w.b = {x + 8, z + 5};
            const WallId south = p.walls.add(w);
            w.a = {x, z}, w.b = {x, z + 5};
            p.walls.add(w);
            Opening o;
            o.wall = south, o.along = 2;
            p.openings.add(o);
        }
        for (int b = 0; b < 4; ++b) {
            Board d;
            d.name = "LP-" + std::to_string(f * 4 + b + 1), d.level = level, d.at = {10 + b * 20.0, 12}, d.slots = 42;
            k.boards.push_back({addBoard(p, d), {}, false});
        }
        p.catchments.add(k);
    }
    return p;
}
std::vector<LevelId> levelsOf(const Project& p) {
    std::vector<LevelId> out;
    for (const Level& l : p.levels) out.push_back(l.id);
    return out;
}
const Project& laidOut() {
    static const Project p = [] {
        Project q = emptyBuilding();
        applyRecipes(q, roomsOfKind(q, "office"));
        circuitAutomatically(q, book(), levelsOf(q));
        return q;
    }();
    return p;
}

void layOutAndCircuit(benchmark::State& state) {
    const Project start = emptyBuilding();
    std::size_t devices = 0, circuits = 0;
    for (auto _ : state) {
        Project p = start;
        applyRecipes(p, roomsOfKind(p, "office"));
        circuitAutomatically(p, book(), levelsOf(p));
        devices = p.devices.size(), circuits = p.circuits.size();
    }
    state.counters["devices"] = double(devices), state.counters["circuits"] = double(circuits);
}
BENCHMARK(layOutAndCircuit)->Unit(benchmark::kMillisecond);

PlanScene scene(bool allOnOneFloor) {
    PlanScene s;
    auto solution = std::make_shared<Solution>();
    solution->project = laidOut();
    if (allOnOneFloor) { // the worst that a floor can be: all 2 000 on it
        std::vector<DeviceId> ids;
        for (const Device& d : solution->project.devices) ids.push_back(d.id);
        for (DeviceId d : ids) {
            Device& x = *solution->project.devices.change(d);
            x.at.y += 26 * (double(x.level.value) - 1), x.level = {1};
        }
    }
    solution->book = std::make_shared<RuleBook>(book());
    solution->results = solve(solution->project, *solution->book);
    s.solution = solution;
    s.level = {1};
    s.palette = theme().palette();
    s.paper = Qt::white, s.ink = Qt::black, s.accent = s.stop = Qt::red;
    PlanScene::Layer l;
    std::uint32_t seed = 3;
    const auto random = [&](int n) { return int((seed = seed * 1664525u + 1013904223u) >> 12) % n; };
    for (int i = 0; i < 50000; ++i) {
        const double x = random(8000) / 100.0, y = random(2500) / 100.0, dx = random(200) / 100.0 - 1,
                     dy = random(200) / 100.0 - 1;
        l.lines.emplace_back(x, y, x + dx, y + dy);
        l.colours.push_back(i / 5000 % 2 ? 0xFFB0B0B0 : 0xFFC8C0B0);
    }
    s.underlays = std::make_shared<std::vector<PlanScene::Layer>>(std::vector<PlanScene::Layer>{l});
    return s;
}

/// What the interface does for each frame of a pan or a zoom.
void frame(benchmark::State& state, bool zoom) {
    PlanCanvas canvas(nullptr);
    canvas.setScene(scene(true));
    PlanSight sight{15, {10, 10}, {1280, 800}};
    canvas.look(sight);
    canvas.settle(60000);
    QImage screen(1280, 800, QImage::Format_ARGB32_Premultiplied);
    int i = 0;
    for (auto _ : state) {
        PlanSight now = sight;
        now.offset += QPointF(i % 90, i % 60);
        if (zoom) now.scale *= 1 + i % 40 * 0.01;
        ++i;
        QPainter p(&screen);
        p.fillRect(screen.rect(), Qt::white);
        canvas.paint(p, now);
    }
    state.counters["devices"] = double(laidOut().devices.size());
}
void framePanning(benchmark::State& s) { frame(s, false); }
void frameZooming(benchmark::State& s) { frame(s, true); }
BENCHMARK(framePanning)->Unit(benchmark::kMillisecond);
BENCHMARK(frameZooming)->Unit(benchmark::kMillisecond);

/// The sharp picture that follows, painted beside the interface.
void sharpPicture(benchmark::State& state) {
    const PlanScene s = scene(state.range(0) != 0);
    Drawing drawn;
    for (auto _ : state) benchmark::DoNotOptimize(paintScene(s, {15, {10, 10}, {1280, 800}}, drawn));
}
BENCHMARK(sharpPicture)->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);

void readTwentyMegabytes(benchmark::State& state) {
    std::string text = "0\nSECTION\n2\nENTITIES\n";
    int i = 0;
    while (text.size() < 20'000'000) {
        ++i;
        text += "0\nLINE\n5\n" + std::to_string(1000 + i) + "\n8\nA-WALL\n62\n7\n10\n" + std::to_string(i % 70000) +
                ".125\n20\n" + std::to_string(i % 50000) + ".5\n30\n0.0\n11\n" + std::to_string(i % 70000 + 900) +
                ".25\n21\n" + std::to_string(i % 50000 + 40) + ".75\n31\n0.0\n";
    }
    text += "0\nENDSEC\n0\nEOF\n";
    std::size_t pieces = 0;
    for (auto _ : state) {
        std::istringstream in(text);
        pieces = readDxf(in, double(text.size()), "large.dxf")->pieces.size();
    }
    state.counters["lines"] = double(pieces);
}
BENCHMARK(readTwentyMegabytes)->Unit(benchmark::kMillisecond);

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
