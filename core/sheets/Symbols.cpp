// Our own drawings of devices, openings and furniture, to the usual standards of the trade.

#include "core/sheets/Symbols.h"

#include "core/plan/FindRooms.h"

#include <numbers>

namespace lintel {

namespace {
void drawMarks(Drawing& d, Symbol symbol, Point at, double turn, Ink ink, double size) {
    const double r = size / 2, w = 0.32 * size / 4.2;
    const auto p = [&](double x, double y) { return at + turned({x * r, y * r}, turn); };
    const auto circle = [&](double k, bool filled = false) {
        d.marks.push_back(CircleMark{at, r * k, 0, Ink::Paper, true});
        d.marks.push_back(CircleMark{at, r * k, w, ink, filled});
    };
    const auto line = [&](double a, double b, double c, double e) { d.line(p(a, b), p(c, e), w, ink); };
    switch (symbol) {
    case Symbol::Receptacle:
        circle(0.82);
        line(-0.3, -0.76, -0.3, 0.76);
        line(0.3, -0.76, 0.3, 0.76);
        line(0, -0.82, 0, -1.25);
        break;
    case Symbol::Quad:
        circle(0.82);
        line(-0.3, -0.76, -0.3, 0.76);
        line(0.3, -0.76, 0.3, 0.76);
        line(-0.76, 0, 0.76, 0);
        line(0, -0.82, 0, -1.25);
        break;
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
    case Symbol::Downlight:
        circle(0.7);
        line(-0.7, 0, 0.7, 0);
        line(0, -0.7, 0, 0.7);
        break;
    case Symbol::Switch:
        d.marks.push_back(CircleMark{at, r * 0.32, w, ink, true});
        line(0, 0, 0.7, 0.9);
        line(0.7, 0.9, 1.15, 0.6);
        break;
    case Symbol::Motor:
        circle(1);
        d.text(at + Point{0, r * 0.45}, "M", r * 1.28, Align::Centre, true, ink);
        break;
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
    case Symbol::Detector:
        circle(0.9);
        d.text(at + Point{0, r * 0.4}, "S", r * 1.15, Align::Centre, true, ink);
        break;
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
    case Symbol::Emergency:
        circle(0.7, true);
        line(-1.2, 0, 1.2, 0);
        line(0, -1.2, 0, 1.2);
        break;
    case Symbol::Exit: {
        const std::vector<Point> box{p(-1.2, -0.6), p(1.2, -0.6), p(1.2, 0.6), p(-1.2, 0.6)};
        d.marks.push_back(FillMark{box, Ink::Paper});
        d.marks.push_back(LineMark{box, w, ink, false, true});
        d.marks.push_back(FillMark{{p(-0.6, -0.4), p(-0.6, 0.4), p(0.6, 0)}, ink});
        break;
    }
    case Symbol::Junction:
        circle(0.6);
        d.text(at + Point{0, r * 0.3}, "J", r * 0.85, Align::Centre, false, ink);
        break;
    }
}
} // namespace

void drawSymbol(Drawing& d, Symbol symbol, Point at, double turn, Ink ink, double size) {
    const std::size_t from = d.marks.size();
    drawMarks(d, symbol, at, turn, ink, size);
    d.symbols.push_back({from, d.marks.size(), symbol, at, turn, size, ink});
}

FurnishingSize usualSize(FurnishingKind k) {
    switch (k) {
    case FurnishingKind::Column:
        return {0.4, 0.4};
    case FurnishingKind::Stair:
        return {1.2, 3.6};
    case FurnishingKind::Shaft:
        return {1.0, 1.0};
    case FurnishingKind::Desk:
        return {1.6, 0.8};
    case FurnishingKind::Table:
        return {1.2, 0.8};
    case FurnishingKind::Counter:
        return {2.4, 0.65};
    case FurnishingKind::Till:
        return {0.6, 0.6};
    case FurnishingKind::Shelving:
        return {1.8, 0.5};
    case FurnishingKind::Bed:
        return {1.0, 2.0};
    case FurnishingKind::Sink:
        return {0.8, 0.5};
    case FurnishingKind::Basin:
        return {0.5, 0.4};
    case FurnishingKind::Toilet:
        return {0.4, 0.65};
    case FurnishingKind::Shower:
        return {0.9, 0.9};
    case FurnishingKind::Cooker:
        return {0.75, 0.65};
    case FurnishingKind::Refrigerator:
        return {0.7, 0.7};
    case FurnishingKind::Bench:
        return {2.0, 0.7};
    }
    return {1, 1};
}

void drawKeyedNote(Drawing& d, Point at, int number, double radius) {
    std::vector<Point> corners;
    for (int i = 0; i < 6; ++i) {
        const double a = i * std::numbers::pi / 3;
        corners.push_back(at + Point{std::cos(a), std::sin(a)} * radius);
    }
    d.marks.push_back(FillMark{corners, Ink::Paper});
    d.marks.push_back(LineMark{corners, radius * 0.1, Ink::Ink, false, true});
    const double size = radius * 1.05;
    constexpr double capital = 0.714; // of the size of letters
    d.text({at.x, at.y + size * capital / 2}, std::to_string(number), size, Align::Centre, true, Ink::Ink,
           radius * 1.5);
}

void drawFurnishing(Drawing& d, const Furnishing& f, double scale, Ink ink) {
    const FurnishingSize usual = usualSize(f.kind);
    const double w = (f.width > 0 ? f.width : usual.width) / 2, h = (f.depth > 0 ? f.depth : usual.depth) / 2;
    const auto p = [&](double x, double y) { return (f.at + turned({x * w, y * h}, f.turn)) * scale; }; // 1 is its edge
    const auto line = [&](double a, double b, double c, double e) { d.line(p(a, b), p(c, e), 0.18, ink); };
    const auto frame = [&](double k = 1) {
        d.marks.push_back(LineMark{{p(-k, -k), p(k, -k), p(k, k), p(-k, k)}, 0.18, ink, false, true});
    };
    const auto ring = [&](double x, double y, double r) {
        d.marks.push_back(CircleMark{p(x, y), r * std::min(w, h) * scale, 0.18, ink, false});
    };
    switch (f.kind) {
    case FurnishingKind::Column:
        d.marks.push_back(FillMark{{p(-1, -1), p(1, -1), p(1, 1), p(-1, 1)}, Ink::Rule});
        frame();
        break;
    case FurnishingKind::Stair: {
        frame();
        const int steps = std::max(3, int(std::lround(2 * h / 0.28)));
        for (int i = 1; i < steps; ++i) line(-1, -1 + 2.0 * i / steps, 1, -1 + 2.0 * i / steps);
        line(0, 0.95, 0, -0.8), line(0, -0.8, -0.25, -0.6), line(0, -0.8, 0.25, -0.6);
        break;
    }
    case FurnishingKind::Shaft:
        frame();
        line(-1, -1, 1, 1);
        line(-1, 1, 1, -1);
        break;
    case FurnishingKind::Till:
        frame();
        d.marks.push_back(LineMark{{p(-0.6, -0.6), p(0.6, -0.6), p(0.6, 0.1), p(-0.6, 0.1)}, 0.18, ink, false, true});
        line(-0.6, 0.5, 0.6, 0.5);
        break;
    case FurnishingKind::Shelving:
        frame();
        line(-1, 0, 1, 0);
        break;
    case FurnishingKind::Bed:
        frame();
        line(-1, -0.55, 1, -0.55);
        break;
    case FurnishingKind::Sink:
        frame();
        ring(-0.3, 0, 0.7);
        line(0.4, -0.6, 0.4, 0.6);
        line(0.7, -0.6, 0.7, 0.6);
        break;
    case FurnishingKind::Basin:
        frame();
        ring(0, 0.1, 0.65);
        break;
    case FurnishingKind::Toilet:
        d.marks.push_back(LineMark{{p(-1, -1), p(1, -1), p(1, -0.5), p(-1, -0.5)}, 0.18, ink, false, true});
        ring(0, 0.25, 0.95);
        break;
    case FurnishingKind::Shower:
        frame();
        line(-1, -1, 1, 1);
        line(-1, 1, 1, -1);
        ring(0, 0, 0.2);
        break;
    case FurnishingKind::Cooker:
        frame();
        for (double x : {-0.45, 0.45})
            for (double y : {-0.45, 0.45}) ring(x, y, 0.3);
        break;
    case FurnishingKind::Refrigerator:
        frame();
        line(-1, 0.75, 1, 0.75);
        line(-1, -1, 1, 0.75);
        break;
    case FurnishingKind::Counter:
        frame();
        line(-1, 0.6, 1, 0.6);
        break;
    case FurnishingKind::Desk:
        frame();
        d.marks.push_back(CircleMark{p(0, 1.5), 0.22 * scale, 0.18, ink, false});
        break;
    case FurnishingKind::Table:
    case FurnishingKind::Bench:
        frame();
        break;
    }
}

std::pair<Point, Point> spanOf(const Opening& o, const Wall& w) {
    const double length = distance(w.a, w.b);
    const Point u = length > 1e-9 ? (w.b - w.a) * (1 / length) : Point{1, 0};
    return {w.a + u * (o.along - o.width / 2), w.a + u * (o.along + o.width / 2)};
}

void drawOpening(Drawing& d, const Opening& o, const Wall& w, double scale, Ink ink) {
    const auto [a, b] = spanOf(o, w);
    const double length = distance(a, b);
    if (length < 1e-6) return;
    const Point u = (b - a) * (1 / length), n = Point{-u.y, u.x} * (o.otherSide ? -1 : 1);
    const double half = w.thickness / 2;
    const auto mm = [&](Point p) { return p * scale; };
    for (Point end : {a, b}) d.line(mm(end - n * half), mm(end + n * half), 0.25, ink); // the reveals
    const auto leaf = [&](Point hinge, Point latch, double width) {
        const Point tip = hinge + n * width, to = latch;
        d.line(mm(hinge), mm(tip), 0.3, ink);
        // A quarter circle as a curve whose middle lies on it.
        const Point along = (to - hinge) * (1 / std::max(1e-9, distance(hinge, to)));
        d.marks.push_back(CurveMark{mm(tip), mm(hinge + (along + n) * width), mm(hinge + along * width), 0.12, ink});
    };
    switch (o.kind) {
    case OpeningKind::Door:
        o.hingeAtEnd ? leaf(b, a, length) : leaf(a, b, length);
        break;
    case OpeningKind::DoubleDoor:
        leaf(a, b, length / 2), leaf(b, a, length / 2);
        break;
    case OpeningKind::Window:
        for (double k : {-half, 0.0, half}) d.line(mm(a + n * k), mm(b + n * k), 0.18, ink);
        break;
    case OpeningKind::Opening:
        break;
    }
}

} // namespace lintel
