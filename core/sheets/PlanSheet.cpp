// A floor on a sheet: one system of it, to scale, with what a reader needs beside it.

#include "core/project/Equipment.h"
#include "core/project/SheetNumbers.h"
#include "core/sheets/PlaceDrawing.h"
#include "core/sheets/Sheets.h"
#include "core/sheets/TextWidth.h"
#include "core/sheets/TitleBlock.h"
#include "core/sheets/Words.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

namespace lintel {
namespace {

bool shows(PlanSystem system, const DeviceType& type) {
    return system == PlanSystem::All || (type.kind == LoadKind::Lighting) == (system == PlanSystem::Lighting);
}

/// Where a floor lies, m.
struct Extent {
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    void grow(Point p) {
        left = std::min(left, p.x), top = std::min(top, p.y);
        right = std::max(right, p.x), bottom = std::max(bottom, p.y);
    }
    double width() const { return right - left; }
    double height() const { return bottom - top; }
};

/// All systems of a floor stand at the same place of their sheets.
Extent extentOf(const SheetInput& in, LevelId level) {
    Extent e;
    for (const Wall& w : in.project.walls)
        if (w.level == level) e.grow(w.a), e.grow(w.b);
    for (const Device& x : in.project.devices)
        if (x.level == level) e.grow(x.at);
    for (const Board& b : in.project.boards)
        if (b.standsOn(level)) e.grow(b.at);
    if (in.underlays)
        for (const Underlay& u : in.project.underlays)
            if (u.level == level && !u.hidden)
                if (const auto content = in.underlays(u); content && !content->picture)
                    for (const UnderlayLine& l : linesOf(u, *content)) e.grow(l.a), e.grow(l.b);
    if (e.right < e.left) e.left = e.top = 0, e.right = e.bottom = 10;
    return e;
}

/// The largest scale at which it fits into so many mm; the smallest where none does.
PlanScale scaleFor(const Extent& e, UnitSystem units, double w, double h) {
    for (const PlanScale& s : planScales(units))
        if (e.width() * 1000 / s.denominator <= w && e.height() * 1000 / s.denominator <= h) return s;
    return planScales(units).back();
}

/// A floor with the marks of its system, at 1:100 for another scale: marks keep their size on paper.
Drawing floorFor(const SheetInput& in, LevelId level, PlanSystem system, double k) {
    PlanStyle style;
    style.colour = PlanColour::Plain; // read in black and white too: home runs and their words tell circuits apart
    style.lighting = system != PlanSystem::Power;
    style.power = system != PlanSystem::Lighting;
    style.symbolScale = 1.15 / k;
    style.textScale = 1.2 / k;
    return planDrawing(in, level, style);
}

/// A bar in the units of the project, about 60 mm long, in four parts.
void scaleBar(Drawing& d, Point at, double denominator, UnitSystem units) {
    const bool imperial = units == UnitSystem::Imperial;
    const double unit = (imperial ? metresPerFoot : 1) * 1000 / denominator; // mm on paper
    double part = 1;
    for (double step : {1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0}) {
        part = step;
        if (step * unit * 4 >= 45) break;
    }
    for (int i = 0; i < 4; ++i) {
        const double x = at.x + i * part * unit;
        if (i % 2 == 0) d.fill(x, at.y, part * unit, 1.6, Ink::Ink);
        d.box(x, at.y, part * unit, 1.6, 0.18);
        d.text({x, at.y - 1}, fmt::format("{:g}", i * part), 2.3, Align::Centre);
    }
    d.text({at.x + 4 * part * unit, at.y - 1}, fmt::format("{:g} {}", 4 * part, imperial ? "ft" : "m"), 2.3,
           Align::Centre);
}

/// Text and symbols in the strip, from its free top down.
class Legend {
public:
    Legend(Drawing& sheet, const SheetInput& input, const SheetFrame& f, LevelId floor, PlanSystem shown)
        : d(sheet), in(input), frame(f), level(floor), system(shown), y(f.freeTop) {}

    void draw() {
        heading("Legend");
        for (const auto& [symbol, names] : symbols())
            entry(names, [&, symbol = symbol](Point at) { drawSymbol(d, symbol, at, 0, Ink::Ink, 4.6); });
        if (anyBoard(false))
            entry("Panelboard or switchboard", [&](Point at) { d.fill(at.x - 4, at.y - 1.4, 8, 2.8, Ink::Ink); });
        if (anyBoard(true))
            entry("Meter, switch or the like in a feeder", [&](Point at) { d.box(at.x - 4, at.y - 1.4, 8, 2.8, 0.4); });
        if (anyTransformer())
            entry("Transformer", [&](Point at) {
                for (double x : {-1.2, 1.2}) d.marks.push_back(CircleMark{at + Point{x, 0}, 2, 0.35, Ink::Ink, false});
            });
        if (anyCircuit())
            entry("Home run to its board: a tick for each line, a long one for the neutral", [&](Point at) {
                d.line(at + Point{-4.5, 0}, at + Point{4, 0}, 0.35);
                d.path({at + Point{2.4, -1}, at + Point{4.5, 0}, at + Point{2.4, 1}}, 0.35);
                d.line(at + Point{-1.6, 1.2}, at + Point{-0.8, -1.2}, 0.35);
                d.line(at + Point{-0.4, 2}, at + Point{0.8, -2}, 0.35);
            });
        if (system != PlanSystem::Lighting) notOnPlan();
    }

private:
    Drawing& d;
    const SheetInput& in;
    const SheetFrame& frame;
    LevelId level;
    PlanSystem system;
    double y;
    static constexpr double size = 3.2, step = 4.3, symbolRoom = 14;

    void heading(const std::string& words) {
        y += 8;
        d.text({frame.textLeft, y}, words, 4.6, Align::Left, true);
        y += 3;
    }
    template <class Draw> void entry(const std::string& words, Draw draw) {
        const auto lines = wrapText(words, frame.textRight - frame.textLeft - symbolRoom, size);
        const double height = std::max(8.0, step * double(lines.size()) + 2);
        draw(Point{frame.textLeft + 5, y + height / 2});
        double base = y + height / 2 + 1.1 - step * double(lines.size() - 1) / 2;
        for (const std::string& line : lines) {
            d.text({frame.textLeft + symbolRoom, base}, line, size);
            base += step;
        }
        y += height;
    }
    /// What stands on the sheet, by symbol: all types that are drawn by it.
    std::map<Symbol, std::string> symbols() const {
        std::set<DeviceTypeId> types;
        for (const Device& x : in.project.devices)
            if (x.level == level && shows(system, in.project.deviceTypes[x.type])) types.insert(x.type);
        std::map<Symbol, std::string> out;
        for (DeviceTypeId id : types) {
            const DeviceType& type = in.project.deviceTypes[id];
            std::string& names = out[type.symbol];
            names += (names.empty() ? "" : "; ") + type.name;
        }
        return out;
    }
    bool anyBoard(bool passing) const {
        return std::any_of(in.project.boards.begin(), in.project.boards.end(),
                           [&](const Board& b) { return b.standsOn(level) && passesOn(b.use) == passing; });
    }
    bool anyTransformer() const {
        return std::any_of(in.project.transformers.begin(), in.project.transformers.end(),
                           [&](const Transformer& t) { return t.level == level && t.onPlan; });
    }
    bool anyCircuit() const {
        return std::any_of(in.project.devices.begin(), in.project.devices.end(), [&](const Device& x) {
            return x.level == level && x.circuit && shows(system, in.project.deviceTypes[x.type]);
        });
    }
    /// Circuits of boards on this floor of whose loads nothing is drawn anywhere: a reader would look for them.
    void notOnPlan() {
        std::set<CircuitId> drawn;
        for (const Device& x : in.project.devices) drawn.insert(x.circuit);
        bool first = true;
        for (const Board& b : in.project.boards) {
            if (!b.standsOn(level)) continue;
            std::vector<const Circuit*> missing;
            for (CircuitId id : in.results.on(b.id)) {
                const Circuit& c = in.project.circuits[id];
                if (c.use == CircuitUse::Load && c.slot > 0 && !in.results.of(id).feeder && !drawn.count(id))
                    missing.push_back(&c);
            }
            if (missing.empty()) continue;
            std::sort(missing.begin(), missing.end(),
                      [](const Circuit* x, const Circuit* z) { return x->slot < z->slot; });
            if (first) heading("Circuits not on a plan"), y += 3;
            first = false;
            std::string places;
            for (const Circuit* c : missing) places += (places.empty() ? "" : ", ") + placeWords(b, *c);
            for (const std::string& line : wrapText(b.name + ": " + places, frame.textRight - frame.textLeft, size)) {
                d.text({frame.textLeft, y}, line, size);
                y += step;
            }
        }
    }
};

} // namespace

const std::vector<PlanScale>& planScales(UnitSystem units) {
    static const std::vector<PlanScale> feet{{24, "1/2″ = 1′ 0″"},  {32, "3/8″ = 1′ 0″"}, {48, "1/4″ = 1′ 0″"},
                                             {64, "3/16″ = 1′ 0″"}, {96, "1/8″ = 1′ 0″"}, {192, "1/16″ = 1′ 0″"},
                                             {384, "1/32″ = 1′ 0″"}},
        metres{{20, "1:20"}, {25, "1:25"}, {50, "1:50"}, {100, "1:100"}, {200, "1:200"}, {500, "1:500"}};
    return units == UnitSystem::Imperial ? feet : metres;
}

std::vector<PlanSystem> planSystems(const Project& p, LevelId level) {
    bool lighting = false, power = false;
    for (const Device& x : p.devices) {
        if (x.level != level) continue;
        (p.deviceTypes[x.type].kind == LoadKind::Lighting ? lighting : power) = true;
    }
    const auto here = [&](const auto& things) {
        return std::any_of(things.begin(), things.end(), [&](const auto& x) { return x.level == level; });
    };
    const bool building = here(p.walls) || here(p.underlays);
    for (const Board& b : p.boards) // boards in the void are on riser and schedules
        power = power || (b.standsOn(level) && (building || lighting));
    if (lighting && power) return {PlanSystem::Lighting, PlanSystem::Power};
    if (lighting) return {PlanSystem::Lighting};
    if (power) return {PlanSystem::Power};
    return building ? std::vector{PlanSystem::All} : std::vector<PlanSystem>{};
}

std::string planTitle(const Project& p, LevelId level, PlanSystem system) {
    const std::string name = p.levels.has(level) ? p.levels[level].name : "Plan";
    return name + (system == PlanSystem::Lighting ? " lighting" : system == PlanSystem::Power ? " power" : " plan");
}

SheetKind sheetKindOf(PlanSystem system) {
    return system == PlanSystem::Lighting ? SheetKind::Lighting
           : system == PlanSystem::Power  ? SheetKind::Power
                                          : SheetKind::Plan;
}

Drawing planSheet(const SheetInput& in, LevelId level, const std::string& number, PlanSystem system) {
    const Extent floor = extentOf(in, level);
    Drawing d;
    d.number = number;
    d.paper = in.book.metric() ? "A1" : "ARCH D";
    d.width = paperSize(d.paper).width;
    d.height = paperSize(d.paper).height;
    d.title = sheetTitle(in.project, {sheetKindOf(system), level}, planTitle(in.project, level, system));
    constexpr double margin = 14, viewTitleRoom = 20;
    const SheetFrame frame = sheetFrame(d, in);
    const double w = frame.right - frame.left - 2 * margin, h = frame.bottom - frame.top - 2 * margin - viewTitleRoom;
    const UnitSystem units = in.project.basis.units;
    const PlanScale scale = scaleFor(floor, units, w, h);
    const double k = 100 / scale.denominator; // from 1:100, where the floor is drawn
    const Point off{frame.left + margin + (w - floor.width() * 10 * k) / 2 - floor.left * 10 * k,
                    frame.top + margin + (h - floor.height() * 10 * k) / 2 - floor.top * 10 * k};
    placeDrawing(d, floorFor(in, level, system, k), k, off);
    titleBlock(d, in, scale.words);
    Legend(d, in, frame, level, system).draw();
    viewTitle(d, frame, d.title, scale.words);
    scaleBar(d, {frame.left + 170, frame.bottom - 11}, scale.denominator, units);
    return d;
}

FloorView planOnSheet(const SheetInput& in, LevelId level, PlanSystem system, double denominator, double width,
                      double height) {
    constexpr double edge = 12, barRoom = 8; // of what is written beside the walls; of the bar below
    const Extent floor = extentOf(in, level);
    const UnitSystem units = in.project.basis.units;
    PlanScale scale = scaleFor(floor, units, width - 2 * edge, height - 2 * edge - barRoom);
    std::string words = scale.words;
    if (denominator > 0) {
        scale.denominator = denominator;
        words = fmt::format("1:{:g}", denominator);
        for (const PlanScale& usual : planScales(units))
            if (usual.denominator == denominator) words = usual.words;
    }
    const double k = 100 / scale.denominator;
    Drawing d;
    d.title = planTitle(in.project, level, system);
    d.width = floor.width() * 10 * k + 2 * edge;
    d.height = floor.height() * 10 * k + 2 * edge + barRoom;
    placeDrawing(d, floorFor(in, level, system, k), k, {edge - floor.left * 10 * k, edge - floor.top * 10 * k});
    scaleBar(d, {edge, d.height - 3}, scale.denominator, units);
    return {std::move(d), std::move(words)};
}

} // namespace lintel
