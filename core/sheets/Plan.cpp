#include "core/base/Format.h"
#include "core/plan/Measure.h"
#include "core/sheets/Sheets.h"
#include "core/sheets/Words.h"

#include <fmt/format.h>
#include <numbers>

namespace lintel {
namespace {

constexpr double scale = 10; ///< mm of drawing to a metre: 1:100

Point turned(Point p, double degrees) {
    const double a = degrees * std::numbers::pi / 180;
    return {p.x * std::cos(a) - p.y * std::sin(a), p.x * std::sin(a) + p.y * std::cos(a)};
}

Ink wireInk(std::uint32_t n) {
    constexpr Ink inks[] = {Ink::Wire1, Ink::Wire2, Ink::Wire3, Ink::Wire4, Ink::Wire5, Ink::Wire6};
    return inks[n % 6];
}

struct Painter {
    const SheetInput& in;
    LevelId level;
    const PlanStyle& style;
    Drawing d, tags;

    static Point mm(Point p) { return p * scale; }
    double sym(double v) const { return v * style.symbolScale; }
    double txt(double v) const { return v * style.textScale; }

    Ink inkOf(CircuitId id) const {
        const Circuit* c = in.project.circuits.find(id);
        if (!c) return Ink::Ink;
        const CircuitResult& r = in.results.of(id);
        switch (style.colour) {
        case PlanColour::Circuit: return wireInk(id.value);
        case PlanColour::Board: return wireInk(c->board.value);
        case PlanColour::Phase: return c->poles > 1 || r.lines[0] < 0 ? Ink::Ink : phaseInk(in.project.basis, in.project.boards[c->board].system, r.lines[0]);
        case PlanColour::Drop: return r.run.dropOwn > r.run.need.ownLimit || r.run.dropTotal > r.run.need.totalLimit ? Ink::Stop : r.run.dropOwn > 0.8 * r.run.need.ownLimit ? Ink::Check : Ink::Accent;
        }
        return Ink::Ink;
    }
    bool shown(const DeviceType& y) const { return y.kind == LoadKind::Lighting ? style.lighting : style.power; }

    void building() {
        if (style.roomNames)
            for (const Room& r : in.project.rooms) {
                if (r.level != level) continue;
                const Point c = mm(centreOf(r.outline));
                d.text({c.x, c.y}, r.name, txt(3), Align::Centre, true, Ink::Faint);
                d.text({c.x, c.y + txt(3.6)}, r.number, txt(2.4), Align::Centre, false, Ink::Faint);
            }
        // Drawn wide and then again narrower in paper: ends and corners join by themselves.
        for (int pass = 0; pass < 2; ++pass)
            for (const Wall& w : in.project.walls) {
                if (w.level != level) continue;
                const double len = distance(w.a, w.b), half = w.thickness / 2;
                if (len < 1e-9) continue;
                const Point u = (w.b - w.a) * (1 / len);
                const double width = w.thickness * scale - (pass == 0 ? 0 : 0.7);
                const Point off = u * (half - (pass == 0 ? 0 : 0.035));
                d.line(mm(w.a - off), mm(w.b + off), width, pass == 0 ? Ink::Quiet : Ink::Paper);
            }
    }

    void wiring() {
        std::map<CircuitId, std::vector<const Device*>> circuits;
        for (const Device& x : in.project.devices)
            if (x.level == level && x.circuit && shown(in.project.deviceTypes[x.type])) circuits[x.circuit].push_back(&x);
        for (const auto& [id, devices] : circuits) {
            const Circuit& c = in.project.circuits[id];
            const Board& b = in.project.boards[c.board];
            const Ink ink = inkOf(id);
            const Point from = b.level == level ? b.at : devices.front()->at;
            const auto order = chainOrder(from, devices.data(), devices.size());
            for (std::size_t i = 1; i < order.size(); ++i) {
                const Point p = mm(devices[order[i - 1]]->at), q = mm(devices[order[i]]->at);
                const Point m = (p + q) * 0.5, n{-(q.y - p.y), q.x - p.x};
                const double len = std::hypot(n.x, n.y);
                const double sag = std::min(4.0, len * 0.08);
                Point bend = m;
                if (len > 0.1) bend = m + n * (sag / len * (n.y > 0 || (n.y == 0 && n.x > 0) ? 1 : -1) * 2);
                d.marks.push_back(CurveMark{trim(p, bend), bend, trim(q, bend), sym(0.3), ink});
            }
            homeRun(id, c, b, mm(devices[order.front()]->at), ink);
        }
    }
    Point trim(Point p, Point towards) const {
        const double len = distance(p, towards);
        return len > sym(3) ? p + (towards - p) * (sym(2.1) / len) : p;
    }

    /// From the device nearest to the board, towards it: an arrow, a tick for each line and a long one for the neutral.
    void homeRun(CircuitId id, const Circuit& c, const Board& b, Point at, Ink ink) {
        const Point board = b.level == level ? mm(b.at) : at + Point{30, 0};
        const double len = distance(at, board);
        if (len < sym(9)) return;
        const Point u = (board - at) * (1 / len), n{-u.y, u.x};
        const double reach = std::min(sym(13.0), len - sym(4));
        const Point tip = at + u * reach;
        d.line(at + u * sym(2.2), tip, sym(0.3), ink);
        for (double side : {1.0, -1.0}) d.line(tip, tip - u * sym(2.0) + n * sym(0.9 * side), sym(0.3), ink);
        const int ticks = c.poles + (c.poles == 1 ? 1 : 0);
        for (int i = 0; i < ticks; ++i) {
            const double half = sym(c.poles == 1 && i == ticks - 1 ? 1.7 : 1.1);
            const Point m = at + u * (reach * 0.55 + sym(i * 1.1));
            d.line(m + n * half + u * sym(0.5), m - n * half - u * sym(0.5), sym(0.25), ink);
        }
        if (style.tags) { // kept until the symbols are drawn, so that none hides a tag
            const bool right = u.x >= -0.2;
            const std::string name = nameOf(in.project, id);
            if (len < reach + sym(3.6) + txt(1.45 * double(name.size()))) { // no room before the board: the tag rides on the arrow
                tags.text(at + u * (reach * 0.5) + Point{0, u.y > 0.3 ? txt(3.4) : -txt(1.3)}, name, txt(2.3), Align::Centre, true, ink);
                tags.lastText()->halo = true;
                return;
            }
            tags.text(tip + Point{sym(right ? 1.4 : -1.4), u.y > 0.7 ? txt(2.4) : u.y < -0.7 ? -txt(0.6) : txt(0.85)}, name, txt(2.3), right ? Align::Left : Align::Right, true, ink);
            tags.lastText()->halo = true;
        }
    }

    void devices() {
        for (const Device& x : in.project.devices) {
            if (x.level != level) continue;
            const DeviceType& y = in.project.deviceTypes[x.type];
            if (!shown(y)) continue;
            const Point p = mm(x.at);
            drawSymbol(d, y.symbol, p, x.turn, inkOf(x.circuit), sym(4.2));
            if (!x.tag.empty() && style.tags) d.text(p + turned({0, sym(y.onWall ? 3.4 : 3) + txt(1.2)}, x.turn) + Point{0, txt(0.8)}, x.tag, txt(2.2), Align::Centre, false, Ink::Quiet);
            const double r = sym(2.4);
            d.hotspots.push_back({x.id, p.x - r, p.y - r, p.x + r, p.y + r});
        }
    }
    void boards() {
        for (const Board& b : in.project.boards) {
            if (b.level != level) continue;
            const Point p = mm(b.at);
            std::vector<Point> corners;
            for (Point c : {Point{-3.6, -1.3}, Point{3.6, -1.3}, Point{3.6, 1.3}, Point{-3.6, 1.3}}) corners.push_back(p + turned(c * style.symbolScale, b.turn));
            d.marks.push_back(FillMark{corners, Ink::Ink});
            d.text(p + turned({0, sym(1.8) + txt(std::abs(turned({0, 1}, b.turn).x) > 0.5 ? 0.6 : 2.4)}, b.turn) + Point{0, txt(0.9)}, b.name, txt(2.6), std::abs(turned({0, 1}, b.turn).x) > 0.5 ? (turned({0, 1}, b.turn).x > 0 ? Align::Left : Align::Right) : Align::Centre, true);
            d.lastText()->halo = true;
            const double r = sym(3.8);
            d.hotspots.push_back({b.id, p.x - r, p.y - r, p.x + r, p.y + r});
        }
        for (const Transformer& t : in.project.transformers) {
            if (t.level != level) continue;
            const Point p = mm(t.at);
            d.marks.push_back(CircleMark{p - Point{sym(1.1), 0}, sym(1.9), sym(0.35), Ink::Ink, false});
            d.marks.push_back(CircleMark{p + Point{sym(1.1), 0}, sym(1.9), sym(0.35), Ink::Ink, false});
            d.text(p + Point{0, sym(2.2) + txt(2.6)}, t.name, txt(2.4), Align::Centre, true);
            d.lastText()->halo = true;
            d.hotspots.push_back({t.id, p.x - sym(3.5), p.y - sym(2.5), p.x + sym(3.5), p.y + sym(5)});
        }
    }
};

} // namespace

void drawSymbol(Drawing& d, Symbol symbol, Point at, double turn, Ink ink, double size) {
    const double r = size / 2, w = 0.32 * size / 4.2;
    const auto p = [&](double x, double y) { return at + turned({x * r, y * r}, turn); };
    const auto circle = [&](double k, bool filled = false) {
        d.marks.push_back(CircleMark{at, r * k, 0, Ink::Paper, true});
        d.marks.push_back(CircleMark{at, r * k, w, ink, filled});
    };
    const auto line = [&](double a, double b, double c, double e) { d.line(p(a, b), p(c, e), w, ink); };
    switch (symbol) {
    case Symbol::Receptacle: circle(0.82); line(-0.3, -0.76, -0.3, 0.76); line(0.3, -0.76, 0.3, 0.76); line(0, -0.82, 0, -1.25); break;
    case Symbol::Quad: circle(0.82); line(-0.3, -0.76, -0.3, 0.76); line(0.3, -0.76, 0.3, 0.76); line(-0.76, 0, 0.76, 0); line(0, -0.82, 0, -1.25); break;
    case Symbol::Special: {
        circle(0.82);
        d.marks.push_back(FillMark{{p(-0.5, 0.35), p(0.5, 0.35), p(0, -0.5)}, ink});
        line(0, -0.82, 0, -1.25);
        break;
    }
    case Symbol::Luminaire: {
        const std::vector<Point> box{p(-1.7, -0.55), p(1.7, -0.55), p(1.7, 0.55), p(-1.7, 0.55)};
        d.marks.push_back(FillMark{box, Ink::Paper});
        d.marks.push_back(LineMark{box, w, ink, false, true});
        line(-1.7, 0, 1.7, 0);
        break;
    }
    case Symbol::Downlight: circle(0.7); line(-0.7, 0, 0.7, 0); line(0, -0.7, 0, 0.7); break;
    case Symbol::Switch: d.marks.push_back(CircleMark{at, r * 0.32, w, ink, true}); line(0, 0, 0.7, 0.9); line(0.7, 0.9, 1.15, 0.6); break;
    case Symbol::Motor: circle(1); d.text(at + Point{0, r * 0.45}, "M", r * 1.28, Align::Centre, true, ink); break;
    case Symbol::Equipment: {
        const std::vector<Point> box{p(-0.95, -0.95), p(0.95, -0.95), p(0.95, 0.95), p(-0.95, 0.95)};
        d.marks.push_back(FillMark{box, Ink::Paper});
        d.marks.push_back(LineMark{box, w, ink, false, true});
        line(-0.95, -0.95, 0.95, 0.95);
        line(-0.95, 0.95, 0.95, -0.95);
        break;
    }
    case Symbol::Heater: {
        const std::vector<Point> box{p(-1.3, -0.6), p(1.3, -0.6), p(1.3, 0.6), p(-1.3, 0.6)};
        d.marks.push_back(FillMark{box, Ink::Paper});
        d.marks.push_back(LineMark{box, w, ink, false, true});
        for (double x : {-0.65, 0.0, 0.65}) line(x, -0.6, x, 0.6);
        break;
    }
    case Symbol::Data: { // a triangle on the wall
        const std::vector<Point> three{p(-0.9, 0.8), p(0.9, 0.8), p(0, -0.8)};
        d.marks.push_back(FillMark{three, Ink::Paper});
        d.marks.push_back(LineMark{three, w, ink, false, true});
        line(0, -0.8, 0, -1.25);
        break;
    }
    case Symbol::Detector: circle(0.9); d.text(at + Point{0, r * 0.4}, "S", r * 1.15, Align::Centre, true, ink); break;
    case Symbol::CallPoint: {
        const std::vector<Point> box{p(-0.8, -0.8), p(0.8, -0.8), p(0.8, 0.8), p(-0.8, 0.8)};
        d.marks.push_back(FillMark{box, Ink::Paper});
        d.marks.push_back(LineMark{box, w, ink, false, true});
        d.marks.push_back(CircleMark{at, r * 0.35, w, ink, true});
        break;
    }
    case Symbol::Sounder: {
        const std::vector<Point> horn{p(-0.5, -0.4), p(0.8, -0.95), p(0.8, 0.95), p(-0.5, 0.4)};
        d.marks.push_back(FillMark{horn, Ink::Paper});
        d.marks.push_back(LineMark{horn, w, ink, false, true});
        line(-0.5, 0, -1.2, 0);
        break;
    }
    case Symbol::Emergency: circle(0.7, true); line(-1.2, 0, 1.2, 0); line(0, -1.2, 0, 1.2); break;
    case Symbol::Exit: {
        const std::vector<Point> box{p(-1.2, -0.6), p(1.2, -0.6), p(1.2, 0.6), p(-1.2, 0.6)};
        d.marks.push_back(FillMark{box, Ink::Paper});
        d.marks.push_back(LineMark{box, w, ink, false, true});
        d.marks.push_back(FillMark{{p(-0.6, -0.4), p(-0.6, 0.4), p(0.6, 0)}, ink});
        break;
    }
    case Symbol::Junction: circle(0.6); d.text(at + Point{0, r * 0.3}, "J", r * 0.85, Align::Centre, false, ink); break;
    }
}

Drawing planDrawing(const SheetInput& in, LevelId level, const PlanStyle& style) {
    Painter p{in, level, style, {}, {}};
    p.building();
    if (style.wiring) p.wiring();
    p.devices();
    p.boards();
    p.d.marks.insert(p.d.marks.end(), p.tags.marks.begin(), p.tags.marks.end());
    p.d.title = in.project.levels.has(level) ? in.project.levels[level].name : "";
    return p.d;
}

Drawing planSheet(const SheetInput& in, LevelId level, const std::string& number) {
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    const auto grow = [&](Point p) { left = std::min(left, p.x), top = std::min(top, p.y), right = std::max(right, p.x), bottom = std::max(bottom, p.y); };
    for (const Wall& w : in.project.walls)
        if (w.level == level) grow(w.a), grow(w.b);
    for (const Device& x : in.project.devices)
        if (x.level == level) grow(x.at);
    for (const Board& b : in.project.boards)
        if (b.level == level) grow(b.at);
    if (right < left) left = top = 0, right = bottom = 10;
    Drawing d;
    d.number = number;
    d.paper = in.book.metric() ? "A1" : "ARCH D";
    d.width = paperSize(d.paper).width;
    d.height = paperSize(d.paper).height;
    const double margin = 16, w = d.width - 2 * margin - 30, h = d.height - 2 * margin - 50;
    // The usual scales of the country, the largest that fits.
    struct Scale { double denominator; const char* words; };
    const std::vector<Scale> scales = in.project.basis.units == UnitSystem::Imperial
                                          ? std::vector<Scale>{{24, "1/2″ = 1′ 0″"}, {32, "3/8″ = 1′ 0″"}, {48, "1/4″ = 1′ 0″"}, {64, "3/16″ = 1′ 0″"}, {96, "1/8″ = 1′ 0″"}, {192, "1/16″ = 1′ 0″"}, {384, "1/32″ = 1′ 0″"}}
                                          : std::vector<Scale>{{20, "1:20"}, {25, "1:25"}, {50, "1:50"}, {100, "1:100"}, {200, "1:200"}, {500, "1:500"}};
    Scale chosen = scales.back();
    for (const Scale& s : scales)
        if ((right - left) * 1000 / s.denominator <= w && (bottom - top) * 1000 / s.denominator <= h) { chosen = s; break; }
    const double k = 100 / chosen.denominator; // from 1:100, where the floor is drawn
    PlanStyle style;
    style.symbolScale = 1.15 / k; // marks keep their size on paper
    style.textScale = 1.2 / k;
    const Drawing floor = planDrawing(in, level, style);
    d.title = floor.title + " plan";
    const Point off{margin + 15 + (w - (right - left) * 10 * k) / 2 - left * 10 * k, margin + 32 + (h - (bottom - top) * 10 * k) / 2 - top * 10 * k};
    const auto at = [&](Point p) { return p * k + off; };
    for (Mark m : floor.marks) {
        std::visit(
            [&]<class M>(M& x) {
                if constexpr (std::is_same_v<M, LineMark> || std::is_same_v<M, FillMark>)
                    for (Point& p : x.points) p = at(p);
                if constexpr (std::is_same_v<M, CircleMark>) x.centre = at(x.centre), x.radius *= k;
                if constexpr (std::is_same_v<M, CurveMark>) x.a = at(x.a), x.b = at(x.b), x.c = at(x.c);
                if constexpr (std::is_same_v<M, TextMark>) x.at = at(x.at), x.size *= k, x.within *= k;
                if constexpr (!std::is_same_v<M, FillMark> && !std::is_same_v<M, TextMark>) x.width *= k;
            },
            m);
        d.marks.push_back(std::move(m));
    }
    for (Hotspot s : floor.hotspots) {
        const Point a = at({s.left, s.top}), b = at({s.right, s.bottom});
        d.hotspots.push_back({s.thing, a.x, a.y, b.x, b.y});
    }
    d.text({margin, 20}, floor.title.empty() ? "PLAN" : floor.title + ": power and lighting", 5, Align::Left, true);
    d.text({d.width - margin, 20}, fmt::format("{} · issue {}{} · scale {}", in.project.basis.title, in.project.basis.issue, in.project.basis.issueDate.empty() ? "" : " · " + in.project.basis.issueDate, chosen.words), 3.4, Align::Right);
    d.line({margin, 23.5}, {d.width - margin, 23.5}, 0.5);
    footStrip(d, in, margin);
    return d;
}

} // namespace lintel
