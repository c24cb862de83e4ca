#include "core/compare/SheetMarks.h"

#include "core/sheets/TextWidth.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace lintel {
namespace {

constexpr double margin = 16, stripRoom = 100; // mm that belong to the sheet, not to what is drawn
constexpr double near = 3.2;                   // mm between what is one cloud
constexpr double around = 1.1, scallop = 4.5, bulge = 1.1, pen = 0.35;

Cloud boxOf(const TextMark& t) {
    const double width = std::min(textWidth(t.text, t.size, t.bold), t.within > 0 ? t.within : 1e9);
    const double x = t.align == Align::Right ? t.at.x - width : t.align == Align::Centre ? t.at.x - width / 2 : t.at.x;
    return {x, t.at.y - t.size * 0.75, x + width, t.at.y + t.size * 0.1};
}

bool belongs(const Drawing& d, Point at) {
    if (at.y > d.height - margin || at.y < margin * 0.4) return false;
    return !d.titleBlock || at.x < d.width - stripRoom;
}

/// The smallest hotspot around a text.
Ref thingAt(const Drawing& d, Point at) {
    Ref best;
    double least = 1e18;
    for (const Hotspot& h : d.hotspots) {
        const double area = (h.right - h.left) * (h.bottom - h.top);
        if (at.x >= h.left && at.x <= h.right && at.y >= h.top && at.y <= h.bottom && area < least) {
            least = area;
            best = h.thing;
        }
    }
    return best;
}

/// Where a text was, for what belongs to no thing: in whole millimetres; anywhere on a diagram, whose parts shift.
std::string placeOf(const Drawing& d, const TextMark& t) {
    if (d.titleBlock) return t.text;
    return std::to_string(std::lround(t.at.x)) + "/" + std::to_string(std::lround(t.at.y)) + " " + t.text;
}

bool touch(const Cloud& a, const Cloud& b) {
    return a.left - near < b.right && b.left - near < a.right && a.top - near < b.bottom && b.top - near < a.bottom;
}

} // namespace

std::vector<Cloud> cloudsOf(const Drawing& before, const Drawing& after) {
    std::map<std::pair<Ref, std::string>, int> was;
    const auto key = [](const Drawing& d, const TextMark& t) {
        const Ref thing = thingAt(d, t.at);
        return std::pair(thing, thing ? t.text : placeOf(d, t));
    };
    for (const Mark& m : before.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) ++was[key(before, *t)];
    std::vector<Cloud> clouds;
    for (const Mark& m : after.marks) {
        const auto* t = std::get_if<TextMark>(&m);
        if (!t || !belongs(after, t->at)) continue;
        if (int& n = was[key(after, *t)]; n > 0)
            --n;
        else
            clouds.push_back(boxOf(*t));
    }
    // What lies near one another grows together, until nothing does any more.
    for (bool grown = true; grown;) {
        grown = false;
        std::vector<Cloud> together;
        for (const Cloud& c : clouds) {
            const auto other =
                std::find_if(together.begin(), together.end(), [&](const Cloud& o) { return touch(o, c); });
            if (other == together.end()) {
                together.push_back(c);
                continue;
            }
            *other = {std::min(other->left, c.left), std::min(other->top, c.top), std::max(other->right, c.right),
                      std::max(other->bottom, c.bottom)};
            grown = true;
        }
        clouds = std::move(together);
    }
    return clouds;
}

void drawClouds(Drawing& d, const std::vector<Cloud>& clouds, const std::string& mark) {
    for (const Cloud& c : clouds) {
        const double l = c.left - around, t = c.top - around, r = c.right + around, b = c.bottom + around;
        // Scallops along each side, bulging outwards.
        const auto side = [&](Point from, Point to, Point out) {
            const double length = std::hypot(to.x - from.x, to.y - from.y);
            const int n = std::max(1, int(std::lround(length / scallop)));
            for (int i = 0; i < n; ++i) {
                const auto at = [&](double k) {
                    return Point{from.x + (to.x - from.x) * k, from.y + (to.y - from.y) * k};
                };
                const Point mid = at((i + 0.5) / n);
                d.marks.push_back(CurveMark{at(double(i) / n),
                                            {mid.x + out.x * bulge, mid.y + out.y * bulge},
                                            at(double(i + 1) / n),
                                            pen,
                                            Ink::Stop});
            }
        };
        side({l, t}, {r, t}, {0, -1});
        side({r, t}, {r, b}, {1, 0});
        side({r, b}, {l, b}, {0, 1});
        side({l, b}, {l, t}, {-1, 0});
        if (mark.empty()) continue;
        // The triangle at the left, or where there is no room at the right.
        constexpr double half = 2.9, high = 5;
        const double x = l - half - 2.2 > 4 ? l - half - 2.2 : r + half + 2.2, y = (t + b) / 2 + high / 2;
        d.marks.push_back(FillMark{{{x - half, y}, {x + half, y}, {x, y - high}}, Ink::Paper});
        d.marks.push_back(LineMark{{{x - half, y}, {x + half, y}, {x, y - high}}, pen, Ink::Stop, false, true});
        d.text({x, y - 0.8}, mark, mark.size() > 1 ? 1.9 : 2.4, Align::Centre, true, Ink::Stop);
    }
}

Drawing markedSince(const std::vector<SheetEntry>& earlier, const SheetEntry& now, const Basis& basis) {
    Drawing d = now.draw();
    const auto same =
        std::find_if(earlier.begin(), earlier.end(), [&](const SheetEntry& e) { return e.title == now.title; });
    const Drawing before = same == earlier.end() ? Drawing() : same->draw();
    drawClouds(d, cloudsOf(before, d), basis.revisions.empty() ? std::string() : basis.revisions.back().mark);
    return d;
}

} // namespace lintel
