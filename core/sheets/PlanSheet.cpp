// A floor on a sheet: one system of it, to scale, with what a reader needs beside it.

#include "core/base/Limits.h"
#include "core/drawing/Paper.h"
#include "core/drawing/PlaceDrawing.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/Words.h"
#include "core/project/SheetNumbers.h"
#include "core/sheets/PageNumber.h"
#include "core/sheets/PlanLegend.h"
#include "core/sheets/Sheets.h"
#include "core/sheets/TitleBlock.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace lintel {
namespace {

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

/// An arrow in a ring with its letter, turned clockwise.
void northArrow(Drawing& d, Point at, double degrees) {
    constexpr double radius = 6;
    const double a = degrees * std::numbers::pi / 180;
    const Point up{std::sin(a), -std::cos(a)}, right{std::cos(a), std::sin(a)};
    d.marks.push_back(CircleMark{at, radius, 0.35, Ink::Ink, false});
    d.marks.push_back(FillMark{{at + up * radius, at + right * 2.2 - up * 3.4, at - up * 2}, Ink::Ink});
    d.path({at + up * radius, at - right * 2.2 - up * 3.4, at - up * 2}, 0.35);
    const Point letter = at + up * (radius + 3);
    d.text({letter.x, letter.y + 1.2}, "N", 3.3, Align::Centre, true);
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

} // namespace

const std::vector<PlanScale>& planScales(UnitSystem units) {
    static const std::vector<PlanScale> feet{{24, "1/2″ = 1′ 0″"},  {32, "3/8″ = 1′ 0″"}, {48, "1/4″ = 1′ 0″"},
                                             {64, "3/16″ = 1′ 0″"}, {96, "1/8″ = 1′ 0″"}, {192, "1/16″ = 1′ 0″"},
                                             {384, "1/32″ = 1′ 0″"}},
        metres{{20, "1:20"}, {25, "1:25"}, {50, "1:50"}, {100, "1:100"}, {200, "1:200"}, {500, "1:500"}};
    return units == UnitSystem::Imperial ? feet : metres;
}

std::string scaleWords(double denominator, UnitSystem units) {
    for (const PlanScale& usual : planScales(units))
        if (usual.denominator == denominator) return usual.words;
    return fmt::format("1:{:g}", denominator);
}

std::string partTitle(const std::string& title, std::size_t part, std::size_t of) {
    return fmt::format("{}{}part {} of {}", title, title.empty() ? "" : ", ", part + 1, of);
}

std::string PlanPages::title(const std::string& of, std::size_t page) const {
    if (page < parts) return parts == 1 ? of : partTitle(of, page, parts);
    const std::string rest = of + ", notes and legend";
    return beside == 1 ? rest : fmt::format("{}, sheet {}", rest, page - parts + 1);
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

namespace {

constexpr double margin = 14, legendGutter = 12;

Drawing blankSheet(const SheetInput& in) {
    Drawing d;
    d.paper = in.book.trade.papers.drawing;
    d.width = paperSize(d.paper).width;
    d.height = paperSize(d.paper).height;
    return d;
}

/// What stands beside a floor: as much of it as the strip of its sheets holds, the rest in columns on further sheets.
class BesideFloor {
public:
    /// `below`: mm of the strip that something else takes.
    BesideFloor(const SheetInput& input, LevelId level, PlanSystem system, double below) : in(input) {
        const SheetFrame frame = sheetFrame(blankSheet(in), in);
        strip = {frame.textLeft, frame.textRight, frame.freeTop, frame.freeBottom - below};
        pieces = legendPieces(in, {level, system}, strip.right - strip.left);
        inStrip = legendFits(pieces, 0, strip.bottom - strip.top);
        for (std::size_t next = inStrip; next < pieces.size(); ++sheets) next = onSheet(nullptr, next);
    }
    /// Further sheets.
    std::size_t more() const { return sheets; }
    /// Draws what the strip holds: its lower edge.
    double drawStrip(Drawing& d) const { return drawLegend(d, pieces, 0, strip).bottom; }
    /// The rest, each sheet begun by `begin` with its number among them.
    std::vector<Drawing> drawMore(const std::function<Drawing(std::size_t)>& begin) const {
        std::vector<Drawing> all;
        for (std::size_t next = inStrip; next < pieces.size();) {
            all.push_back(begin(all.size()));
            next = onSheet(&all.back(), next);
        }
        return all;
    }

private:
    const SheetInput& in;
    std::vector<LegendPiece> pieces{};
    LegendColumn strip{};
    std::size_t inStrip = 0, sheets = 0;

    /// Column by column: the first piece for which there is no room. Nothing is drawn without a sheet.
    std::size_t onSheet(Drawing* d, std::size_t next) const {
        const SheetFrame frame = sheetFrame(d ? *d : blankSheet(in), in);
        const double wide = strip.right - strip.left;
        LegendColumn column{frame.left + margin, 0, frame.top + margin, frame.bottom - margin};
        for (; column.left + wide <= frame.right - margin && next < pieces.size(); column.left += wide + legendGutter) {
            column.right = column.left + wide;
            next = d ? drawLegend(*d, pieces, next, column).next : legendFits(pieces, next, column.bottom - column.top);
        }
        return next;
    }
};

/// A floor on its sheets: at which scale, and in how many parts.
class FloorSheets {
public:
    FloorSheets(const SheetInput& input, LevelId floor, PlanSystem shown)
        : in(input), level(floor), system(shown), extent(extentOf(in, level)) {
        const SheetFrame frame = sheetFrame(blankSheet(in), in);
        width = frame.right - frame.left - 2 * margin;
        height = frame.bottom - frame.top - 2 * margin - viewTitleRoom;
        const UnitSystem units = in.project.basis.units;
        scale = scaleFor(extent, units, width, height);
        words = scale.words;
        const bool chosen = in.project.basis.planScale > 0;
        if (chosen) {
            scale.denominator = in.project.basis.planScale;
            words = scaleWords(scale.denominator, units);
        }
        k = 100 / scale.denominator; // from 1:100, where the floor is drawn
        wide = extent.width() * 10 * k;
        high = extent.height() * 10 * k;
        if (!chosen) return;
        across = partsOf(wide, width);
        down = partsOf(high, height);
    }
    std::size_t count() const { return across * down; }

    std::vector<Drawing> draw(const std::string& number) const {
        Drawing floor; // its upper left corner at 0, 0: all parts are cut along the same lines
        placeDrawing(floor, floorFor(in, level, system, k), k, {-extent.left * 10 * k, -extent.top * 10 * k});
        std::vector<Drawing> sheets;
        const BesideFloor beside(in, level, system, keyPlanRoom());
        const PlanPages pages{count(), beside.more()};
        for (std::size_t part = 0; part < count(); ++part) sheets.push_back(sheet(floor, number, part, beside));
        const std::vector<Drawing> more = beside.drawMore([&](std::size_t page) {
            Drawing d = blankSheet(in);
            d.number = pageNumber(number, count() + page);
            d.title = pages.title(title(), count() + page);
            titleBlock(d, in, "None");
            return d;
        });
        sheets.insert(sheets.end(), more.begin(), more.end());
        return sheets;
    }
    /// mm of the strip that the key plan takes; nothing where there is one sheet.
    double keyPlanRoom() const {
        if (count() == 1) return 0;
        const SheetFrame frame = sheetFrame(blankSheet(in), in);
        return keyPlanHeading + high * keyPlanScale(frame.textRight - frame.textLeft) + 4;
    }

private:
    static constexpr double viewTitleRoom = 20, keyPlanHeading = 12;
    const SheetInput& in;
    LevelId level;
    PlanSystem system;
    Extent extent;
    PlanScale scale{};
    std::string words;
    double width = 0, height = 0; ///< mm of a sheet that a floor may take
    double k = 1, wide = 0, high = 0;
    std::size_t across = 1, down = 1;

    static std::size_t partsOf(double length, double room) {
        constexpr double hair = 0.01;
        return std::size_t(std::clamp(std::ceil(length / room - hair), 1.0, double(limits::planParts)));
    }
    std::string title() const {
        return sheetTitle(in.project, {sheetKindOf(system), level}, planTitle(in.project, level, system));
    }
    /// mm of the key plan for one of the floor.
    double keyPlanScale(double room) const { return std::min(room / wide, room * 0.75 / high); }

    Drawing sheet(const Drawing& floor, const std::string& number, std::size_t part, const BesideFloor& beside) const {
        Drawing d = blankSheet(in);
        d.number = pageNumber(number, part);
        d.title = title();
        const std::string name = d.title;
        if (count() > 1) d.title = partTitle(d.title, part, count());
        const SheetFrame frame = sheetFrame(d, in);
        const std::size_t column = part % across, row = part / across;
        const double partWide = wide / double(across), partHigh = high / double(down);
        const double left = frame.left + margin + (width - partWide) / 2;
        const double top = frame.top + margin + (height - partHigh) / 2;
        if (count() == 1) {
            placeDrawing(d, floor, 1, {left, top});
        } else {
            constexpr double far = 1e6; // what stands outside the walls is shown there
            const CutBox box{column == 0 ? -far : double(column) * partWide, row == 0 ? -far : double(row) * partHigh,
                             column + 1 == across ? far : double(column + 1) * partWide,
                             row + 1 == down ? far : double(row + 1) * partHigh};
            placeDrawing(d, cutDrawing(floor, box), 1,
                         {left - double(column) * partWide, top - double(row) * partHigh});
            matchLines(d, number, part, {left, top, left + partWide, top + partHigh});
        }
        titleBlock(d, in, words);
        const double y = beside.drawStrip(d);
        if (count() > 1) keyPlan(d, number, part, {frame.textLeft, frame.textRight, y});
        viewTitle(d, frame, name, words);
        scaleBar(d, {frame.left + 170, frame.bottom - 11}, scale.denominator, in.project.basis.units);
        if (in.project.basis.north) northArrow(d, {frame.left + 285, frame.bottom - 13}, *in.project.basis.north);
        return d;
    }
    /// Where a floor goes on on another sheet.
    void matchLines(Drawing& d, const std::string& number, std::size_t part, const CutBox& box) const {
        constexpr double pen = 0.7, size = 3.3, gap = 1.6;
        const std::size_t column = part % across, row = part / across;
        d.on(Layer::Notes);
        const auto say = [&](std::size_t other, Point at, double turn, bool after) {
            const std::string to = number.empty() ? partTitle("", other, count()) : pageNumber(number, other);
            d.text({at.x + (turn == 0 ? 0
                            : after   ? gap + size * 0.75
                                      : -gap),
                    at.y + (turn != 0 ? 0
                            : after   ? gap + size * 0.75
                                      : -gap)},
                   "Match line: see " + to, size, Align::Centre, true);
            d.lastText()->turn = turn;
        };
        const double x = (box.left + box.right) / 2, y = (box.top + box.bottom) / 2;
        if (column > 0) {
            d.line({box.left, box.top}, {box.left, box.bottom}, pen, Ink::Ink, true);
            say(part - 1, {box.left, y}, -90, false);
        }
        if (column + 1 < across) {
            d.line({box.right, box.top}, {box.right, box.bottom}, pen, Ink::Ink, true);
            say(part + 1, {box.right, y}, -90, true);
        }
        if (row > 0) {
            d.line({box.left, box.top}, {box.right, box.top}, pen, Ink::Ink, true);
            say(part - across, {x, box.top}, 0, false);
        }
        if (row + 1 < down) {
            d.line({box.left, box.bottom}, {box.right, box.bottom}, pen, Ink::Ink, true);
            say(part + across, {x, box.bottom}, 0, true);
        }
        d.on(Layer::Sheet);
    }
    /// The parts of the floor, this one filled.
    void keyPlan(Drawing& d, const std::string& number, std::size_t part, const LegendColumn& at) const {
        d.text({at.left, at.top + keyPlanHeading - 4}, "Key plan", 4.6, Align::Left, true);
        const double y = at.top + keyPlanHeading;
        const double mm = keyPlanScale(at.right - at.left);
        const double w = wide * mm / double(across), h = high * mm / double(down);
        for (std::size_t i = 0; i < count(); ++i) {
            const double x = at.left + double(i % across) * w, top = y + double(i / across) * h;
            if (i == part) d.fill(x, top, w, h, Ink::Ink);
            d.box(x, top, w, h, 0.35);
            d.text({x + w / 2, top + h / 2 + 1}, number.empty() ? std::to_string(i + 1) : pageNumber(number, i), 2.8,
                   Align::Centre, true, i == part ? Ink::Paper : Ink::Ink, w - 1);
        }
    }
};

} // namespace

std::vector<Drawing> planSheets(const SheetInput& in, LevelId level, const std::string& number, PlanSystem system) {
    return FloorSheets(in, level, system).draw(number);
}

PlanPages planPages(const SheetInput& in, LevelId level, PlanSystem system) {
    if (in.project.basis.planScale <= 0) // without looking at each line beneath the floor
        return {1, BesideFloor(in, level, system, 0).more()};
    const FloorSheets floor(in, level, system);
    return {floor.count(), BesideFloor(in, level, system, floor.keyPlanRoom()).more()};
}

FloorView planOnSheet(const SheetInput& in, const FloorViewOf& of, double width, double height) {
    constexpr double edge = 12, barRoom = 8; // of what is written beside the walls; of the bar below
    Extent shown = extentOf(in, of.level);
    const bool part = of.from != of.to;
    if (part) {
        shown = {};
        shown.grow(of.from);
        shown.grow(of.to);
    }
    const double around = part ? 1 : edge;
    const UnitSystem units = in.project.basis.units;
    PlanScale scale = scaleFor(shown, units, width - 2 * around, height - 2 * around - barRoom);
    std::string words = scale.words;
    if (of.scale > 0) {
        scale.denominator = of.scale;
        words = scaleWords(of.scale, units);
    }
    const double k = 100 / scale.denominator;
    Drawing d;
    d.title = planTitle(in.project, of.level, of.system);
    d.width = std::max(shown.width() * 10 * k + 2 * around, 60.0); // as wide as its bar
    const double high = shown.height() * 10 * k + 2 * around;
    d.height = high + barRoom;
    const Point off{around - shown.left * 10 * k, around - shown.top * 10 * k};
    const Drawing floor = floorFor(in, of.level, of.system, k);
    if (part) {
        Drawing whole;
        placeDrawing(whole, floor, k, off);
        const CutBox box{around, around, around + shown.width() * 10 * k, around + shown.height() * 10 * k};
        placeDrawing(d, cutDrawing(whole, box), 1, {});
        d.box(box.left, box.top, box.right - box.left, box.bottom - box.top, 0.35, Ink::Quiet);
    } else {
        placeDrawing(d, floor, k, off);
    }
    scaleBar(d, {around + 2, d.height - 3}, scale.denominator, units);
    return {std::move(d), std::move(words)};
}

} // namespace lintel
