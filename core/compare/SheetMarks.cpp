#include "core/compare/SheetMarks.h"

#include "core/base/Parse.h"
#include "core/drawing/TextBox.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace lintel {
namespace {

constexpr double margin = 16, stripRoom = 100,
                 footRoom = 50; // mm that belong to the sheet, not to what is drawn
constexpr double near = 3.2;    // mm between what is one cloud
constexpr double around = 1.1, scallop = 4.5, bulge = 1.1, pen = 0.35;

Cloud cloudOf(const TextMark& t) {
    const TextBox box = boxOf(t);
    return {box.left, box.top, box.right, box.bottom + t.size * 0.1};
}

bool belongs(const Drawing& d, Point at) {
    if (at.y > d.height - margin || at.y < margin * 0.4) return false;
    if (d.titleBlock == TitlePlace::Foot) return at.y < d.height - footRoom;
    return d.titleBlock == TitlePlace::None || at.x < d.width - stripRoom;
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

bool isWord(const std::string& t) {
    const auto digit = [](char c) { return c >= '0' && c <= '9'; };
    return std::none_of(t.begin(), t.end(), digit) && std::any_of(t.begin(), t.end(), isLetter);
}

/// The texts of a drawing, each with what makes it the same text in another state: its thing; else the word that stands
/// before it in its row, wherever the row has moved to; else, on a sheet of rows, its place.
class Texts {
public:
    explicit Texts(const Drawing& drawing) : d(drawing) {
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m)) {
                all.push_back(t);
                rows[std::lround(t->at.y * 4)].push_back(t);
            }
    }
    const std::vector<const TextMark*>& list() const { return all; }
    std::pair<Ref, std::string> key(const TextMark& t) const {
        if (const Ref thing = thingAt(d, t.at)) return {thing, t.text};
        constexpr std::size_t sentence = 12; // bytes; a note is itself wherever it stands
        if (d.titleBlock != TitlePlace::None || isWord(t.text) || t.text.size() > sentence) return {Ref(), t.text};
        const TextMark *label = nullptr, *note = nullptr;
        for (const TextMark* o : rows.at(std::lround(t.at.y * 4))) {
            if (o->at.x < t.at.x && isWord(o->text) && (!label || o->at.x > label->at.x)) label = o;
            if (o->at.x > t.at.x && o->text.size() > sentence && (!note || o->at.x < note->at.x)) note = o;
        }
        if (!label) label = note; // the number before a note
        if (label) return {Ref(), label->text + " | " + t.text};
        return {Ref(), std::to_string(std::lround(t.at.x)) + "/" + std::to_string(std::lround(t.at.y)) + " " + t.text};
    }

private:
    const Drawing& d;
    std::vector<const TextMark*> all;
    std::map<long, std::vector<const TextMark*>> rows;
};

bool touch(const Cloud& a, const Cloud& b) {
    return a.left - near < b.right && b.left - near < a.right && a.top - near < b.bottom && b.top - near < a.bottom;
}

} // namespace

std::vector<Cloud> cloudsOf(const Drawing& before, const Drawing& after) {
    std::map<std::pair<Ref, std::string>, int> was;
    const Texts earlier(before), later(after);
    for (const TextMark* t : earlier.list()) ++was[earlier.key(*t)];
    std::map<Ref, std::vector<Cloud>> ofThings;
    std::vector<Cloud> clouds;
    for (const TextMark* t : later.list()) {
        if (!belongs(after, t->at)) continue;
        const auto key = later.key(*t);
        if (int& n = was[key]; n > 0)
            --n;
        else if (key.first)
            ofThings[key.first].push_back(cloudOf(*t));
        else
            clouds.push_back(cloudOf(*t));
    }
    // A row that has changed all over is one cloud.
    constexpr std::size_t allOver = 3;
    for (const auto& [thing, boxes] : ofThings) {
        if (boxes.size() < allOver) {
            clouds.insert(clouds.end(), boxes.begin(), boxes.end());
            continue;
        }
        Cloud whole = boxes.front();
        for (const Cloud& c : boxes)
            whole = {std::min(whole.left, c.left), std::min(whole.top, c.top), std::max(whole.right, c.right),
                     std::max(whole.bottom, c.bottom)};
        clouds.push_back(whole);
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

namespace {
/// On a sheet of rows in its margin, one a row; on a diagram beside each cloud.
void drawTriangles(Drawing& d, const std::vector<Cloud>& clouds, const std::string& mark) {
    constexpr double half = 2.9, high = 5, inMargin = 5.5;
    std::vector<Point> at;
    for (const Cloud& c : clouds) {
        const bool right = c.left > d.width / 2 && d.titleBlock == TitlePlace::None;
        const double beside = c.left - around - half - 2.2;
        const Point p{d.titleBlock == TitlePlace::None ? (right ? d.width - inMargin : inMargin)
                      : beside > 4                     ? beside
                                                       : c.right + around + half + 2.2,
                      (c.top + c.bottom) / 2 + high / 2};
        const bool taken = std::any_of(at.begin(), at.end(), [&](Point o) {
            return std::abs(o.x - p.x) < 2 * half && std::abs(o.y - p.y) < high + 0.5;
        });
        if (!taken) at.push_back(p);
    }
    for (Point p : at) {
        d.marks.push_back(FillMark{{{p.x - half, p.y}, {p.x + half, p.y}, {p.x, p.y - high}}, Ink::Paper});
        d.marks.push_back(
            LineMark{{{p.x - half, p.y}, {p.x + half, p.y}, {p.x, p.y - high}}, pen, Ink::Stop, false, true});
        d.text({p.x, p.y - 0.8}, mark, mark.size() > 1 ? 1.9 : 2.4, Align::Centre, true, Ink::Stop);
    }
}
} // namespace

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
    }
    if (!mark.empty()) drawTriangles(d, clouds, mark);
}

Drawing markedSince(const std::vector<SheetEntry>& earlier, const SheetEntry& now, const Basis& basis) {
    Drawing d = now.draw();
    const auto same =
        std::find_if(earlier.begin(), earlier.end(), [&](const SheetEntry& e) { return e.key == now.key; });
    const Drawing before = same == earlier.end() ? Drawing() : same->draw();
    drawClouds(d, cloudsOf(before, d), basis.revisions.empty() ? std::string() : basis.revisions.back().mark);
    return d;
}

} // namespace lintel
