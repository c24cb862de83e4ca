#include "core/drawing/PlaceDrawing.h"

#include "core/drawing/TextBox.h"

#include <algorithm>
#include <optional>

namespace lintel {

void placeDrawing(Drawing& sheet, const Drawing& part, double k, Point off) {
    const auto at = [&](Point p) { return p * k + off; };
    const std::size_t first = sheet.marks.size();
    for (std::size_t i = 0; i < part.marks.size(); ++i) {
        Mark m = part.marks[i];
        sheet.on(part.layerAt(i));
        std::visit(
            [&]<class M>(M& x) {
                if constexpr (std::is_same_v<M, LineMark> || std::is_same_v<M, FillMark>)
                    for (Point& p : x.points) p = at(p);
                if constexpr (std::is_same_v<M, CircleMark>) x.centre = at(x.centre), x.radius *= k;
                if constexpr (std::is_same_v<M, CurveMark>) x.a = at(x.a), x.b = at(x.b), x.c = at(x.c);
                if constexpr (std::is_same_v<M, TextMark>) x.at = at(x.at), x.size *= k, x.within *= k;
                if constexpr (std::is_same_v<M, LinesMark>)
                    for (Point& p : x.ends) p = at(p);
                if constexpr (std::is_same_v<M, PictureMark>)
                    x.at = at(x.at), x.perPixel *= k, x.least = at(x.least), x.most = at(x.most);
                if constexpr (!std::is_same_v<M, FillMark> && !std::is_same_v<M, TextMark> &&
                              !std::is_same_v<M, PictureMark>)
                    x.width *= k;
            },
            m);
        sheet.marks.push_back(std::move(m));
    }
    for (SymbolMark s : part.symbols) {
        s.from += first;
        s.end += first;
        s.at = at(s.at);
        s.size *= k;
        sheet.symbols.push_back(s);
    }
    for (ThingMarks t : part.things) {
        t.from += first;
        t.end += first;
        sheet.things.push_back(t);
    }
    sheet.on(Layer::Sheet);
    const auto takeOver = [&](const auto& places, auto& to) {
        for (auto place : places) {
            const Point a = at({place.left, place.top});
            const Point b = at({place.right, place.bottom});
            place.left = a.x;
            place.top = a.y;
            place.right = b.x;
            place.bottom = b.y;
            to.push_back(std::move(place));
        }
    };
    takeOver(part.hotspots, sheet.hotspots);
    takeOver(part.headings, sheet.headings);
    takeOver(part.lists, sheet.lists);
}

namespace {

/// The part of a line within the box (after Liang and Barsky); nothing: none of it.
std::optional<std::pair<Point, Point>> cutLine(Point a, Point b, const CutBox& box) {
    double from = 0, to = 1;
    const double dx = b.x - a.x, dy = b.y - a.y;
    struct Edge {
        double p, q;
        bool open; ///< a line along it is not in the box
    };
    for (const auto& [p, q, open] : {Edge{-dx, a.x - box.left, false}, Edge{dx, box.right - a.x, true},
                                     Edge{-dy, a.y - box.top, false}, Edge{dy, box.bottom - a.y, true}}) {
        if (p == 0) {
            if (q < 0 || (open && q == 0)) return std::nullopt;
            continue;
        }
        const double t = q / p;
        if (p < 0)
            from = std::max(from, t);
        else
            to = std::min(to, t);
    }
    if (from > to) return std::nullopt;
    return std::pair{a + (b - a) * from, a + (b - a) * to};
}

/// The part of a filled area within the box, edge by edge (after Sutherland and Hodgman).
std::vector<Point> cutArea(std::vector<Point> area, const CutBox& box) {
    const auto cut = [&](auto inside, auto crossing) {
        std::vector<Point> next;
        for (std::size_t i = 0; i < area.size(); ++i) {
            const Point a = area[i], b = area[(i + 1) % area.size()];
            if (inside(a)) next.push_back(a);
            if (inside(a) != inside(b)) next.push_back(crossing(a, b));
        }
        area = std::move(next);
    };
    const auto atX = [](double x) {
        return [x](Point a, Point b) { return Point{x, a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x)}; };
    };
    const auto atY = [](double y) {
        return [y](Point a, Point b) { return Point{a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y), y}; };
    };
    cut([&](Point p) { return p.x >= box.left; }, atX(box.left));
    cut([&](Point p) { return p.x <= box.right; }, atX(box.right));
    cut([&](Point p) { return p.y >= box.top; }, atY(box.top));
    cut([&](Point p) { return p.y <= box.bottom; }, atY(box.bottom));
    return area;
}

/// Takes the marks of a drawing one after another to the cut one.
class Cutter {
public:
    Cutter(const Drawing& whole, const CutBox& within) : from(whole), box(within) {}
    Drawing made() {
        std::vector<std::size_t> first; // of each mark, and behind the last: where it begins in the cut one
        auto symbol = from.symbols.begin();
        for (std::size_t i = 0; i < from.marks.size(); ++i) {
            first.push_back(to.marks.size());
            while (symbol != from.symbols.end() && symbol->end <= i) ++symbol;
            to.on(from.layerAt(i));
            if (symbol != from.symbols.end() && symbol->from <= i) {
                if (box.holds(symbol->at)) to.marks.push_back(from.marks[i]);
                continue;
            }
            std::visit([&](const auto& mark) { cut(mark); }, from.marks[i]);
        }
        first.push_back(to.marks.size());
        for (SymbolMark s : from.symbols) {
            if (!box.holds(s.at)) continue;
            s.from = first[s.from];
            s.end = first[s.end];
            to.symbols.push_back(s);
        }
        for (ThingMarks t : from.things) {
            t.from = first[t.from];
            t.end = first[t.end];
            if (t.from < t.end) to.things.push_back(t);
        }
        for (Hotspot h : from.hotspots) {
            h.left = std::max(h.left, box.left);
            h.top = std::max(h.top, box.top);
            h.right = std::min(h.right, box.right);
            h.bottom = std::min(h.bottom, box.bottom);
            if (h.left < h.right && h.top < h.bottom) to.hotspots.push_back(h);
        }
        to.on(Layer::Sheet);
        return std::move(to);
    }

private:
    const Drawing& from;
    const CutBox& box;
    Drawing to;

    void cut(const LineMark& m) {
        if (std::all_of(m.points.begin(), m.points.end(), [&](Point p) { return box.holds(p); }))
            return to.marks.push_back(m);
        LineMark part = m;
        part.closed = false;
        part.points.clear();
        const auto end = [&] {
            if (part.points.size() > 1) to.marks.push_back(part);
            part.points.clear();
        };
        const std::size_t n = m.points.size();
        for (std::size_t i = 0; i + 1 < n + (m.closed ? 1 : 0); ++i) {
            const auto line = cutLine(m.points[i], m.points[(i + 1) % n], box);
            if (!line) {
                end();
                continue;
            }
            if (part.points.empty() || part.points.back() != line->first) {
                end();
                part.points.push_back(line->first);
            }
            part.points.push_back(line->second);
        }
        end();
    }
    void cut(const FillMark& m) {
        FillMark part{cutArea(m.points, box), m.ink};
        if (part.points.size() > 2) to.marks.push_back(std::move(part));
    }
    void cut(const CircleMark& m) {
        if (box.holds(m.centre)) to.marks.push_back(m);
    }
    void cut(const CurveMark& m) {
        if (box.holds(m.a) && box.holds(m.b) && box.holds(m.c)) return to.marks.push_back(m);
        constexpr int steps = 24;
        LineMark line;
        line.width = m.width;
        line.ink = m.ink;
        for (int i = 0; i <= steps; ++i) {
            const double t = double(i) / steps;
            line.points.push_back(m.a * ((1 - t) * (1 - t)) + m.b * (2 * t * (1 - t)) + m.c * (t * t));
        }
        cut(line);
    }
    void cut(const TextMark& m) {
        const TextBox text = boxOf(m);
        if (box.holds({(text.left + text.right) / 2, (text.top + text.bottom) / 2})) to.marks.push_back(m);
    }
    void cut(const LinesMark& m) {
        LinesMark part = m;
        part.ends.clear();
        for (std::size_t i = 1; i < m.ends.size(); i += 2)
            if (const auto line = cutLine(m.ends[i - 1], m.ends[i], box)) {
                part.ends.push_back(line->first);
                part.ends.push_back(line->second);
            }
        if (!part.ends.empty()) to.marks.push_back(std::move(part));
    }
    void cut(const PictureMark& m) {
        if (m.perPixel == 0) { // whole, or not at all
            if (box.holds(m.least) && box.holds(m.most)) to.marks.push_back(m);
            return;
        }
        PictureMark part = m;
        const bool had = m.most.x > m.least.x;
        part.least = {had ? std::max(m.least.x, box.left) : box.left, had ? std::max(m.least.y, box.top) : box.top};
        part.most = {had ? std::min(m.most.x, box.right) : box.right,
                     had ? std::min(m.most.y, box.bottom) : box.bottom};
        if (part.most.x > part.least.x && part.most.y > part.least.y) to.marks.push_back(std::move(part));
    }
};

} // namespace

Drawing cutDrawing(const Drawing& drawing, const CutBox& box) { return Cutter(drawing, box).made(); }

} // namespace lintel
