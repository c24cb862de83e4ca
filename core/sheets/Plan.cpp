// A floor as a drawing: underlay, building, trays, wiring by rule, devices, boards, and texts that keep out of one
// another's way.

#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/plan/ApplyRecipe.h"
#include "core/plan/FindRooms.h"
#include "core/plan/LoadDensity.h"
#include "core/project/Raceway.h"
#include "core/route/Measure.h"
#include "core/sheets/PlaceLabel.h"
#include "core/sheets/Sheets.h"
#include "core/sheets/TitleBlock.h"

#include <fmt/format.h>
#include <functional>
#include <set>

namespace lintel {
namespace {

/// How far a symbol reaches from its middle, to the side and up or down.
Point reachOf(const Drawing& d, const SymbolMark& symbol) {
    Point reach;
    const auto take = [&](Point p, double around) {
        reach.x = std::max(reach.x, std::abs(p.x - symbol.at.x) + around);
        reach.y = std::max(reach.y, std::abs(p.y - symbol.at.y) + around);
    };
    for (std::size_t i = symbol.from; i < symbol.end; ++i) {
        if (const auto* line = std::get_if<LineMark>(&d.marks[i]))
            for (Point p : line->points) take(p, line->width / 2);
        if (const auto* fill = std::get_if<FillMark>(&d.marks[i]))
            for (Point p : fill->points) take(p, 0);
        if (const auto* circle = std::get_if<CircleMark>(&d.marks[i])) take(circle->centre, circle->radius);
    }
    return reach;
}

constexpr double scale = 10; ///< mm of drawing to a metre: 1:100

Ink wireInk(std::uint32_t n) {
    constexpr Ink inks[] = {Ink::Wire1, Ink::Wire2, Ink::Wire3, Ink::Wire4, Ink::Wire5, Ink::Wire6};
    return inks[n % 6];
}

struct Painter {
    const SheetInput& in;
    LevelId level;
    const PlanStyle& style;
    Drawing d{}, tags{};
    PlaceLabel labels{};

    static Point mm(Point p) { return p * scale; }
    double sym(double v) const { return v * style.symbolScale; }
    double txt(double v) const { return v * style.textScale; }

    Ink inkOf(CircuitId id) const {
        const Circuit* c = in.project.circuits.find(id);
        if (!c) return Ink::Ink;
        const CircuitResult& r = in.results.of(id);
        switch (style.colour) {
        case PlanColour::Circuit:
            return wireInk(id.value);
        case PlanColour::Board:
            return wireInk(c->board.value);
        case PlanColour::Phase:
            return c->poles > 1 || r.lines[0] < 0
                       ? Ink::Ink
                       : phaseInk(in.project.basis, in.project.boards[c->board].system, r.lines[0]);
        case PlanColour::Plain:
            return Ink::Ink;
        case PlanColour::Drop:
            return r.run.dropOwn > r.run.need.ownLimit || r.run.dropTotal > r.run.need.totalLimit ? Ink::Stop
                   : r.run.dropOwn > 0.8 * r.run.need.ownLimit                                    ? Ink::Check
                                                                                                  : Ink::Accent;
        }
        return Ink::Ink;
    }
    bool shown(const DeviceType& y) const { return style.shows(y); }

    void underlays() {
        if (!style.underlay || !in.underlays) return;
        for (const Underlay& u : in.project.underlays) {
            if (u.level != level || u.hidden) continue;
            const auto content = in.underlays(u);
            if (!content) continue;
            if (content->picture) {
                const UnderlayPlacing at = placingOf(u, *content);
                PictureMark m{
                    underlayFile(u, in.projectFile).string(), mm(at.origin), at.scale * scale, u.turn, u.fade, {}, {}};
                if (u.crop.size() == 2)
                    m.least = mm({std::min(u.crop[0].x, u.crop[1].x), std::min(u.crop[0].y, u.crop[1].y)}),
                    m.most = mm({std::max(u.crop[0].x, u.crop[1].x), std::max(u.crop[0].y, u.crop[1].y)});
                d.marks.push_back(m);
                continue;
            }
            LinesMark lines;
            lines.width = 0.09, lines.ink = u.fade > 0.35 ? Ink::Rule : Ink::Quiet;
            for (const UnderlayLine& l : linesOf(u, *content))
                lines.ends.push_back(mm(l.a)), lines.ends.push_back(mm(l.b));
            d.marks.push_back(std::move(lines));
            for (const DxfDrawing::Text& t : textsOf(u, *content)) {
                d.text(mm(t.at), t.words, t.height * scale,
                       t.align == 0   ? Align::Left
                       : t.align == 1 ? Align::Centre
                                      : Align::Right,
                       false, Ink::Rule);
                if (std::abs(t.turn) >= 0.05) d.lastText()->turn = t.turn;
            }
        }
    }

    void building() {
        if (style.density)
            for (const Room& r : in.project.rooms)
                if (r.level == level) {
                    std::vector<Point> outline;
                    for (Point p : r.outline) outline.push_back(mm(p));
                    d.marks.push_back(FillMark{outline, Ink::Wash});
                }
        if (style.furniture)
            for (const Furnishing& f : in.project.furnishings) {
                if (f.level != level) continue;
                drawFurnishing(d, f, scale, Ink::Rule);
                const FurnishingSize usual = usualSize(f.kind);
                const double r =
                    std::max(f.width > 0 ? f.width : usual.width, f.depth > 0 ? f.depth : usual.depth) / 2 * scale;
                d.hotspots.push_back({f.id, mm(f.at).x - r, mm(f.at).y - r, mm(f.at).x + r, mm(f.at).y + r});
            }
        for (const Room& r : in.project.rooms)
            if (r.level == level && r.gridX > 0 && r.gridY > 0) ceilingGrid(r);
        if (style.roomNames || style.density)
            for (const Room& r : in.project.rooms) {
                if (r.level != level) continue;
                const Point c = mm(centreOf(r.outline));
                const double size =
                    std::min(txt(3), std::sqrt(areaOf(r.outline)) * scale / 4.5); // a small room takes small words
                d.text({c.x, c.y}, r.name, size, Align::Centre, true, Ink::Faint);
                d.text({c.x, c.y + size * 1.2}, r.number, size * 0.8, Align::Centre, false, Ink::Faint);
                if (style.density) {
                    std::vector<TextMark> places;
                    for (double k : {2.4, -1.3, 3.6, -2.5, 4.8, 6.0})
                        if (places.empty() || contains(r.outline, Point{c.x, c.y + size * k} * (1 / scale)))
                            places.push_back(
                                TextMark{{c.x, c.y + size * k},
                                         densityWords(densityOf(in.project, in.results, r), in.project.basis.units),
                                         size * 0.85,
                                         Align::Centre,
                                         true,
                                         false,
                                         Ink::Ink,
                                         0,
                                         true});
                    densities.push_back(std::move(places));
                }
            }
        walls();
        if (style.catchments)
            for (const Catchment& k : in.project.catchments) {
                if (k.level != level || k.outline.size() < 3) continue;
                LineMark m{{}, sym(0.35), wireInk(k.id.value), true, true};
                double left = 1e18, top = 1e18;
                for (Point p : k.outline)
                    m.points.push_back(mm(p)), left = std::min(left, mm(p).x), top = std::min(top, mm(p).y);
                d.marks.push_back(m);
                d.text({left + txt(0.8), top + txt(2.8)}, nameOf(in.project, Ref(k.id)), txt(2.3), Align::Left, true,
                       wireInk(k.id.value));
                d.lastText()->halo = true;
                d.hotspots.push_back({k.id, left, top, left + txt(14), top + txt(3.6)});
            }
    }
    void ceilingGrid(const Room& r) {
        LinesMark lines;
        lines.width = 0.06, lines.ink = Ink::Rule;
        Point least{1e18, 1e18}, most{-1e18, -1e18};
        for (Point p : r.outline)
            least = {std::min(least.x, p.x), std::min(least.y, p.y)},
            most = {std::max(most.x, p.x), std::max(most.y, p.y)};
        if ((most.x - least.x) / r.gridX + (most.y - least.y) / r.gridY > 400) return;
        // Each line of the grid, cut where it leaves the room.
        const auto cut = [&](bool upright, double at) {
            std::vector<double> ends;
            for (std::size_t i = 0; i < r.outline.size(); ++i) {
                Point a = r.outline[i], b = r.outline[(i + 1) % r.outline.size()];
                if (!upright) std::swap(a.x, a.y), std::swap(b.x, b.y);
                if ((a.x > at) != (b.x > at)) ends.push_back(a.y + (b.y - a.y) * (at - a.x) / (b.x - a.x));
            }
            std::sort(ends.begin(), ends.end());
            for (std::size_t i = 1; i < ends.size(); i += 2)
                for (double e : {ends[i - 1], ends[i]}) lines.ends.push_back(mm(upright ? Point{at, e} : Point{e, at}));
        };
        for (double x = r.gridFrom.x + std::ceil((least.x - r.gridFrom.x) / r.gridX) * r.gridX; x < most.x;
             x += r.gridX)
            cut(true, x);
        for (double y = r.gridFrom.y + std::ceil((least.y - r.gridFrom.y) / r.gridY) * r.gridY; y < most.y;
             y += r.gridY)
            cut(false, y);
        d.marks.push_back(std::move(lines));
    }
    void walls() {
        std::map<WallId, std::vector<const Opening*>> openings;
        for (const Opening& o : in.project.openings) openings[o.wall].push_back(&o);
        // Drawn wide and then again narrower in paper: ends and corners join by themselves. Where an opening breaks a
        // wall it is left out.
        for (int pass = 0; pass < 2; ++pass)
            for (const Wall& w : in.project.walls) {
                if (w.level != level) continue;
                const auto path = pathOf(w);
                const double width = std::max(0.2, w.thickness * scale - (pass == 0 ? 0 : 0.7));
                const Ink ink = pass == 0 ? Ink::Quiet : Ink::Paper;
                if (path.size() > 2) {
                    LineMark m{{}, width, ink, false, false};
                    for (Point p : path) m.points.push_back(mm(p));
                    d.marks.push_back(m);
                    continue;
                }
                const double len = distance(w.a, w.b), half = w.thickness / 2 - (pass == 0 ? 0 : 0.035);
                if (len < 1e-9) continue;
                const Point u = (w.b - w.a) * (1 / len);
                auto breaks = openings.count(w.id) ? openings[w.id] : std::vector<const Opening*>{};
                std::sort(breaks.begin(), breaks.end(),
                          [](const Opening* x, const Opening* y) { return x->along < y->along; });
                double from = -half;
                for (const Opening* o : breaks) {
                    const double to = o->along - o->width / 2;
                    if (to > from) d.line(mm(w.a + u * from), mm(w.a + u * to), width, ink);
                    from = std::max(from, o->along + o->width / 2);
                }
                if (len + half > from) d.line(mm(w.a + u * from), mm(w.a + u * (len + half)), width, ink);
            }
        for (const Opening& o : in.project.openings) {
            const Wall* w = in.project.walls.find(o.wall);
            if (!w || w->level != level) continue;
            drawOpening(d, o, *w, scale, Ink::Quiet);
            const auto [a, b] = spanOf(o, *w);
            const Point c = mm((a + b) * 0.5);
            const double r = std::max(0.3, o.width / 2) * scale * 0.8;
            d.hotspots.push_back({o.id, c.x - r, c.y - r, c.x + r, c.y + r});
        }
    }
    void trays() {
        for (const Tray& t : in.project.trays) {
            const bool here = t.level == level, from = t.riseTo == level;
            if (!here && !from) continue;
            if (t.riseTo && !t.path.empty()) {
                const Point c = mm(t.path.front());
                const double h = std::max(sym(1.6), t.width * scale / 2);
                d.box(c.x - h, c.y - h, 2 * h, 2 * h, sym(0.25), Ink::Quiet);
                d.line({c.x - h, c.y - h}, {c.x + h, c.y + h}, sym(0.2), Ink::Quiet),
                    d.line({c.x - h, c.y + h}, {c.x + h, c.y - h}, sym(0.2), Ink::Quiet);
                if (style.tags)
                    tags.text({c.x + h + txt(0.8), c.y + txt(0.8)}, t.name.empty() ? "riser" : t.name, txt(2),
                              Align::Left, false, Ink::Quiet);
                d.hotspots.push_back({t.id, c.x - h, c.y - h, c.x + h, c.y + h});
                continue;
            }
            const double half = t.width * scale / 2;
            for (std::size_t i = 1; i < t.path.size(); ++i) {
                const Point a = mm(t.path[i - 1]), b = mm(t.path[i]);
                const double len = distance(a, b);
                if (len < 1e-9) continue;
                const Point u = (b - a) * (1 / len), n = Point{-u.y, u.x} * half;
                // Corners: each piece reaches to the outer side of the next.
                const Point p = i > 1 ? a - u * half : a, q = i + 1 < t.path.size() ? b + u * half : b;
                d.line(p + n, q + n, sym(0.18), Ink::Quiet, true), d.line(p - n, q - n, sym(0.18), Ink::Quiet, true);
                const Point c = (a + b) * 0.5;
                const double r = std::max(half, 1.5), reach = len / 2;
                d.hotspots.push_back({t.id, c.x - (std::abs(u.x) > 0.5 ? reach : r),
                                      c.y - (std::abs(u.y) > 0.5 ? reach : r), c.x + (std::abs(u.x) > 0.5 ? reach : r),
                                      c.y + (std::abs(u.y) > 0.5 ? reach : r)});
                if (i == 1 && style.tags) {
                    const std::string size = in.project.basis.units == UnitSystem::Imperial
                                                 ? fmt::format("{:.0f}″ × {:.0f}″", t.width / metresPerFoot * 12,
                                                               t.depth / metresPerFoot * 12)
                                                 : fmt::format("{:.0f} × {:.0f} mm", t.width * 1000, t.depth * 1000);
                    tags.text(a + u * std::min(len * 0.5, txt(12)) + Point{0, txt(0.7)},
                              (t.name.empty() ? "tray" : t.name) + " " + size, txt(1.9), Align::Centre, false,
                              Ink::Quiet);
                    tags.lastText()->halo = true;
                }
            }
        }
    }

    struct HomeRun {
        std::vector<CircuitId> circuits;
        const Board* board;
        Point at;
        Ink ink;
    };
    void wiring() {
        std::map<CircuitId, std::vector<const Device*>> circuits;
        for (const Device& x : in.project.devices)
            if (x.level == level && x.circuit && shown(in.project.deviceTypes[x.type]))
                circuits[x.circuit].push_back(&x);
        std::map<std::pair<std::uint32_t, int>, HomeRun> bundles; // home runs that lie in one raceway are drawn as one
        std::vector<HomeRun> homeRuns;
        for (const auto& [id, devices] : circuits) {
            const Circuit& c = in.project.circuits[id];
            const Board& b = in.project.boards[c.board];
            const Ink ink = inkOf(id);
            const Run* run = in.project.runs.find(c.run);
            if (run && run->lengthBy == LengthBy::Traced && run->trace.size() > 1) {
                LineMark m{{}, sym(0.3), ink, false, false};
                for (Point p : run->trace) m.points.push_back(mm(p));
                d.marks.push_back(m);
            }
            const Point from = b.standsOn(level) ? b.at : devices.front()->at;
            const auto order = chainOrder(from, devices.data(), devices.size());
            if (c.ring || (run && run->lengthBy == LengthBy::Chain)) {
                for (std::size_t i = 1; i < order.size(); ++i)
                    wire(mm(devices[order[i - 1]]->at), mm(devices[order[i]]->at), ink);
                if (c.ring && order.size() > 2)
                    wire(mm(devices[order.back()]->at), mm(devices[order.front()]->at), ink);
            } else {
                branch(devices, order.front(), ink);
            }
            if (run && run->lengthBy == LengthBy::Traced && run->trace.size() > 1) continue;
            const Point start = mm(devices[order.front()]->at);
            if (const int together = racewayGroup(c)) {
                auto [it, fresh] = bundles.try_emplace({c.board.value, together}, HomeRun{{id}, &b, start, ink});
                if (!fresh) {
                    wire(start, it->second.at, ink);
                    it->second.circuits.push_back(id);
                }
            } else {
                homeRuns.push_back({{id}, &b, start, ink});
            }
        }
        for (auto& [key, h] : bundles) homeRuns.push_back(std::move(h));
        for (const HomeRun& h : homeRuns) homeRun(h);
    }
    /// From the device nearest to the board out, each next one from the nearest that has its wire already (Prim's
    /// tree): no wire runs back across the floor.
    void branch(const std::vector<const Device*>& devices, std::size_t first, Ink ink) {
        std::vector<double> far(devices.size(), 1e18);
        std::vector<std::size_t> by(devices.size(), first);
        std::vector<char> done(devices.size(), 0);
        for (std::size_t now = first, n = 1; n <= devices.size(); ++n) {
            done[now] = 1;
            if (now != first) wire(mm(devices[by[now]]->at), mm(devices[now]->at), ink);
            std::size_t next = now;
            for (std::size_t i = 0; i < devices.size(); ++i) {
                if (done[i]) continue;
                if (const double near = distance(devices[i]->at, devices[now]->at); near < far[i] - 1e-9)
                    far[i] = near, by[i] = now;
                if (next == now || far[i] < far[next] - 1e-9) next = i;
            }
            now = next;
        }
    }
    struct RoomHere {
        const Room* room;
        Point least, most;
    };
    std::vector<RoomHere> roomsHere{};
    /// The room of this level in which a place of the plan lies; null: none.
    const Room* roomAt(Point at) {
        if (roomsHere.empty())
            for (const Room& r : in.project.rooms) {
                if (r.level != level || r.outline.empty()) continue;
                RoomHere here{&r, r.outline.front(), r.outline.front()};
                for (Point p : r.outline) {
                    here.least = {std::min(here.least.x, p.x), std::min(here.least.y, p.y)};
                    here.most = {std::max(here.most.x, p.x), std::max(here.most.y, p.y)};
                }
                roomsHere.push_back(here);
            }
        for (const RoomHere& h : roomsHere)
            if (at.x >= h.least.x && at.x <= h.most.x && at.y >= h.least.y && at.y <= h.most.y &&
                contains(h.room->outline, at))
                return h.room;
        return nullptr;
    }
    void wire(Point p, Point q, Ink ink) {
        const double dx = q.x - p.x, dy = q.y - p.y, len = std::hypot(dx, dy);
        if (len < sym(1)) return;
        if (in.project.basis.wiringShape == WiringShape::Square) {
            // Along the longer side first, then square to it; a straight piece where one side is next to nothing.
            std::vector<Point> path{p};
            if (std::abs(dx) > sym(1.5) && std::abs(dy) > sym(1.5))
                path.push_back(std::abs(dx) > std::abs(dy) ? Point{q.x, p.y} : Point{p.x, q.y});
            path.push_back(q);
            path.front() = trim(path[0], path[1]), path.back() = trim(path[path.size() - 1], path[path.size() - 2]);
            const Point *a = &path.front(), *z = &path.back();
            keepOff([&](double t) { return *a + (path[1] - *a) * t; }, distance(*a, path[1]));
            keepOff([&](double t) { return *z + (path[path.size() - 2] - *z) * t; },
                    distance(*z, path[path.size() - 2]));
            d.marks.push_back(LineMark{path, sym(0.3), ink, false, false});
            return;
        }
        const Point m = (p + q) * 0.5, n{-dy, dx};
        const double sag = std::min(4.0, len * 0.08);
        const auto sagging = [&](double side) { return m + n * (sag / len * side); };
        double side = n.y > 0 || (n.y == 0 && n.x > 0) ? 1 : -1;
        // Along a wall it hangs into the room, not through the wall.
        if (const Room* room = roomAt(m * (1 / scale)))
            if (!contains(room->outline, sagging(side) * (1 / scale)) &&
                contains(room->outline, sagging(-side) * (1 / scale)))
                side = -side;
        const Point bend = sagging(2 * side);
        const Point from = trim(p, bend), to = trim(q, bend);
        const auto along = [&](double t) { // a quadratic curve
            return from * ((1 - t) * (1 - t)) + bend * (2 * t * (1 - t)) + to * (t * t);
        };
        keepOff(along, len);
        keepOff([&](double t) { return along(1 - t); }, len);
        d.marks.push_back(CurveMark{from, bend, to, sym(0.3), ink});
    }
    /// Tags stand beside the beginning of a wire of such a length, not on it.
    void keepOff(const std::function<Point(double)>& along, double length) {
        const double half = sym(0.35), step = half * 2, reach = std::min(sym(9), length);
        for (double done = 0; done < reach; done += step) {
            const Point at = along(done / length);
            labels.obstacle(at.x - half, at.y - half, at.x + half, at.y + half);
        }
    }
    Point trim(Point p, Point towards) const {
        const double len = distance(p, towards);
        return len > sym(3) ? p + (towards - p) * (sym(2.1) / len) : p;
    }

    /// From the device nearest to the board, towards it: an arrow, a tick for each line and a long one for each
    /// neutral.
    void homeRun(const HomeRun& h) {
        const Board& b = *h.board;
        const Point at = h.at, board = b.standsOn(level) ? mm(b.at) : at + Point{30, 0};
        const double len = distance(at, board);
        if (len < sym(9)) return;
        const Point u = (board - at) * (1 / len), n{-u.y, u.x};
        const double reach = std::min(sym(13.0), len - sym(4));
        const Point tip = at + u * reach;
        d.line(at + u * sym(2.2), tip, sym(0.3), h.ink);
        for (double side : {1.0, -1.0}) d.line(tip, tip - u * sym(2.0) + n * sym(0.9 * side), sym(0.3), h.ink);
        int lines = 0, neutrals = 0;
        std::set<int> shared;
        for (CircuitId id : h.circuits) {
            const Circuit& c = in.project.circuits[id];
            lines += c.poles;
            const RunResult& run = in.results.of(id).run;
            const int own = run.size >= 0 ? run.neutrals : run.need.neutral;
            const int group = neutralGroup(c);
            if (!group || shared.insert(group).second) neutrals += own;
        }
        for (int i = 0; i < lines + neutrals; ++i) {
            const double half = sym(i >= lines ? 1.7 : 1.1);
            const Point m = at + u * (reach * 0.55 + sym(i * 1.1) - sym(std::max(0, lines + neutrals - 4) * 0.9));
            d.line(m + n * half + u * sym(0.5), m - n * half - u * sym(0.5), sym(0.25), h.ink);
        }
        if (!style.tags) return;
        std::string name = nameOf(in.project, h.circuits.front());
        for (std::size_t i = 1; i < h.circuits.size(); ++i) { // "LP-1-9, 11"
            const std::string other = nameOf(in.project, h.circuits[i]);
            const std::string stem = in.project.boards[in.project.circuits[h.circuits[i]].board].name;
            name += ", " + (other.rfind(stem, 0) == 0 && other.size() > stem.size() + 1 ? other.substr(stem.size() + 1)
                                                                                        : other);
        }
        wanted.push_back(
            {name, tip, u, at + u * (reach * 0.5), h.ink, len < reach + sym(3.6) + txt(1.45 * double(name.size()))});
    }
    struct WantedTag {
        std::string words;
        Point tip, u, middle;
        Ink ink;
        bool crowded; ///< no room before the board
    };
    std::vector<std::vector<TextMark>> densities{}; ///< each with its places
    std::vector<WantedTag> wanted{};
    struct Tagged {
        const Device* device;
        Point usual; ///< place of the tag, from the device
        Point reach; ///< of its symbol, to the side and down
    };
    std::vector<Tagged> tagged{};

    /// Hexagons with their numbers, on the plans for which they are meant.
    void keyedNotes() {
        for (const KeyedNote& n : in.project.keyedNotes) {
            if (n.level != level || !style.shows(n)) continue;
            const Point p = mm(n.at);
            const double r = sym(2.5);
            drawKeyedNote(d, p, n.number, r);
            d.hotspots.push_back({n.id, p.x - r, p.y - r, p.x + r, p.y + r});
        }
    }

    /// The mark of its type, its tag, and protection and height where they are not its type's.
    std::string tagWords(const Device& x) const {
        const DeviceType& y = in.project.deviceTypes[x.type];
        std::string words;
        const auto say = [&](const std::string& part) {
            if (!part.empty()) words += (words.empty() ? "" : ", ") + part;
        };
        say(y.mark);
        say(x.tag);
        say(x.protection);
        if (x.height && *x.height != y.height) say(heightWords(*x.height, in.project.basis.units));
        return words;
    }
    /// After everything else is drawn: each tag where it covers nothing, or as little as can be.
    void placeTags() {
        for (const Hotspot& s : d.hotspots)
            if (s.thing.is<Board>() || s.thing.is<Transformer>() || s.thing.is<KeyedNote>())
                labels.obstacle(s.left, s.top, s.right, s.bottom);
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m)) labels.obstacle(*t);
        for (const auto& places : densities) tags.marks.push_back(labels.place(places));
        for (const WantedTag& w : wanted) {
            const double size = txt(2.3);
            std::vector<TextMark> places;
            const auto offer = [&](Point at, Align align) {
                places.push_back(TextMark{at, w.words, size, align, true, false, w.ink, 0, true});
            };
            const bool right = w.u.x >= -0.2;
            if (!w.crowded)
                offer(w.tip + Point{sym(right ? 1.4 : -1.4), w.u.y > 0.7    ? txt(2.4)
                                                             : w.u.y < -0.7 ? -txt(0.6)
                                                                            : txt(0.85)},
                      right ? Align::Left : Align::Right);
            offer(w.middle + Point{0, -txt(1.3)}, Align::Centre), offer(w.middle + Point{0, txt(3.4)}, Align::Centre);
            for (double step : {2.6, 5.2})
                offer(w.tip + Point{0, -txt(step) + txt(0.8)}, Align::Centre),
                    offer(w.tip + Point{0, txt(step + 1)}, Align::Centre);
            offer(w.middle + Point{txt(1.6), txt(0.8)}, Align::Left),
                offer(w.middle + Point{-txt(1.6), txt(0.8)}, Align::Right);
            tags.marks.push_back(labels.place(places));
        }
        // Where home runs are named first, their arrows are free of tags, too.
        for (const WantedTag& w : wanted) {
            const Point from = w.middle * 2 - w.tip;
            const double length = distance(from, w.tip);
            keepOff([&](double t) { return from + (w.tip - from) * t; }, length);
            keepOff([&](double t) { return w.tip + (from - w.tip) * t; }, length);
        }
        for (const Tagged& x : tagged) {
            std::vector<TextMark> places;
            const Point at = mm(x.device->at);
            const double beside = std::max(sym(2.6), x.reach.x + sym(0.5)), r = std::max(sym(2.6), x.reach.y);
            for (const auto& [place, align] : {std::pair{at + x.usual + Point{0, txt(0.8)}, Align::Centre},
                                               {at + Point{beside, txt(0.8)}, Align::Left},
                                               {at + Point{-beside, txt(0.8)}, Align::Right},
                                               {at + Point{0, -r}, Align::Centre},
                                               {at + Point{0, r + txt(1.8)}, Align::Centre},
                                               {at + Point{-sym(0.6), r + txt(1.8)}, Align::Right},
                                               {at + Point{sym(0.6), r + txt(1.8)}, Align::Left},
                                               {at + Point{-sym(0.6), -r}, Align::Right},
                                               {at + Point{sym(0.6), -r}, Align::Left}})
                places.push_back(
                    TextMark{place, tagWords(*x.device), txt(2.2), align, false, false, Ink::Quiet, 0, true});
            tags.marks.push_back(labels.place(places));
        }
    }

    void devices() {
        for (const Device& x : in.project.devices) {
            if (x.level != level) continue;
            const DeviceType& y = in.project.deviceTypes[x.type];
            if (!shown(y)) continue;
            const Point p = mm(x.at);
            d.on(y.kind == LoadKind::Lighting ? Layer::Lighting : Layer::Power);
            drawSymbol(d, y.symbol, p, x.turn, inkOf(x.circuit), sym(4.2));
            d.symbols.back().thing = x.id;
            if (!x.leg.empty() && style.tags)
                d.text(p + turned({sym(2.2), sym(y.onWall ? 2.2 : -1.2)}, x.turn), x.leg, txt(1.9), Align::Centre,
                       false, Ink::Quiet);
            const Point reach = reachOf(d, d.symbols.back());
            labels.obstacle(p.x - reach.x, p.y - reach.y, p.x + reach.x, p.y + reach.y);
            if (!tagWords(x).empty() && style.tags)
                tagged.push_back({&x, turned({0, sym(y.onWall ? 3.4 : 3) + txt(1.2)}, x.turn), reach});
            const double r = sym(2.4);
            d.hotspots.push_back({x.id, p.x - r, p.y - r, p.x + r, p.y + r});
        }
    }
    void boards() {
        for (const Board& b : in.project.boards) {
            if (!b.standsOn(level)) continue;
            const Point p = mm(b.at);
            std::vector<Point> corners;
            for (Point c : {Point{-3.6, -1.3}, Point{3.6, -1.3}, Point{3.6, 1.3}, Point{-3.6, 1.3}})
                corners.push_back(p + turned(c * style.symbolScale, b.turn));
            d.marks.push_back(FillMark{corners, passesOn(b.use) ? Ink::Paper : Ink::Ink});
            if (passesOn(b.use)) d.marks.push_back(LineMark{corners, sym(0.4), Ink::Ink, false, true});
            d.text(p + turned({0, sym(1.8) + txt(std::abs(turned({0, 1}, b.turn).x) > 0.5 ? 0.6 : 2.4)}, b.turn) +
                       Point{0, txt(0.9)},
                   b.name, txt(2.6),
                   std::abs(turned({0, 1}, b.turn).x) > 0.5
                       ? (turned({0, 1}, b.turn).x > 0 ? Align::Left : Align::Right)
                       : Align::Centre,
                   true);
            d.lastText()->halo = true;
            const double r = sym(3.8);
            d.hotspots.push_back({b.id, p.x - r, p.y - r, p.x + r, p.y + r});
        }
        for (const Transformer& t : in.project.transformers) {
            if (t.level != level || !t.onPlan) continue;
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

Drawing planDrawing(const SheetInput& in, LevelId level, const PlanStyle& style) {
    Painter p{in, level, style};
    p.d.on(Layer::Underlay);
    p.underlays();
    p.d.on(Layer::Building);
    p.building();
    p.d.on(Layer::Trays);
    if (style.trays) p.trays();
    p.d.on(Layer::Wiring);
    if (style.wiring) p.wiring();
    p.devices();
    p.d.on(Layer::Boards);
    p.boards();
    p.d.on(Layer::Notes);
    p.keyedNotes();
    p.placeTags();
    p.d.marks.insert(p.d.marks.end(), p.tags.marks.begin(), p.tags.marks.end());
    p.d.title = in.project.levels.has(level) ? in.project.levels[level].name : "";
    return p.d;
}

} // namespace lintel
