#include "core/sheets/PlaceDrawing.h"

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
    for (Hotspot s : part.hotspots) {
        const Point a = at({s.left, s.top}), b = at({s.right, s.bottom});
        sheet.hotspots.push_back({s.thing, a.x, a.y, b.x, b.y});
    }
    for (HeadingSpot h : part.headings) {
        const Point a = at({h.left, h.top});
        const Point b = at({h.right, h.bottom});
        h.left = a.x;
        h.top = a.y;
        h.right = b.x;
        h.bottom = b.y;
        sheet.headings.push_back(h);
    }
}

} // namespace lintel
