#include "core/plan/ApplyRecipe.h"

#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/base/Whole.h"
#include "core/plan/FindRooms.h"
#include "core/plan/Snap.h"

#include <fmt/format.h>
#include <numbers>
#include <unordered_map>

namespace lintel {
namespace {

constexpr double standOff = 0.12; ///< of a symbol's middle from the face of its wall, m
constexpr double nearest = 0.05;  ///< m: two places closer than this are one
constexpr int mostSpots = 100000; ///< in a row, or by the recipe of a room
constexpr double pi = std::numbers::pi;

/// The room's own axes: along its longest side, and square to it; and its size in them.
struct Axes {
    Point u{1, 0}, v{0, 1}, least, most; ///< corners in u, v
    double width = 0, depth = 0;
    double turn() const { return std::atan2(u.y, u.x) * 180 / pi; }
    Point at(double x, double y) const { return u * (least.x + x * width) + v * (least.y + y * depth); }
};
Axes axesOf(const Room& r) {
    Axes a;
    double longest = 0;
    for (std::size_t i = 0; i < r.outline.size(); ++i) {
        const Point p = r.outline[i], q = r.outline[(i + 1) % r.outline.size()];
        if (distance(p, q) > longest + 1e-6) longest = distance(p, q), a.u = (q - p) * (1 / longest);
    }
    if (a.u.x < -1e-9 || (std::abs(a.u.x) < 1e-9 && a.u.y < 0)) a.u = a.u * -1;
    a.v = {-a.u.y, a.u.x};
    a.least = {1e18, 1e18}, a.most = {-1e18, -1e18};
    for (Point p : r.outline) {
        a.least = {std::min(a.least.x, dot(p, a.u)), std::min(a.least.y, dot(p, a.v))};
        a.most = {std::max(a.most.x, dot(p, a.u)), std::max(a.most.y, dot(p, a.v))};
    }
    a.width = a.most.x - a.least.x, a.depth = a.most.y - a.least.y;
    return a;
}
double signedArea(const std::vector<Point>& o) {
    double twice = 0;
    for (std::size_t i = 0; i < o.size(); ++i)
        twice += o[i].x * o[(i + 1) % o.size()].y - o[(i + 1) % o.size()].x * o[i].y;
    return twice / 2;
}
double facing(Point inward) { return std::fmod(std::atan2(inward.y, inward.x) * 180 / pi - 90 + 720, 360.0); }
Point tidy(Point p) { return {std::round(p.x * 1000) / 1000, std::round(p.y * 1000) / 1000}; }

/// A door as the room sees it: between two places along its perimeter.
struct DoorInRoom {
    double from = 0, to = 0;
    Point latch; ///< on the face of the wall, inside the room
    Point inward;
    bool passage = false; ///< an opening without a leaf
};
std::vector<DoorInRoom> doorsOf(const Project& p, const Room& room) {
    std::vector<DoorInRoom> out;
    for (const Opening& o : p.openings) {
        const Wall* w = p.walls.find(o.wall);
        if (!w || w->level != room.level || o.kind == OpeningKind::Window || distance(w->a, w->b) < 1e-6) continue;
        const Point u = (w->b - w->a) * (1 / distance(w->a, w->b)), middle = w->a + u * o.along;
        double walked = 0;
        for (std::size_t i = 0; i < room.outline.size(); ++i) {
            const Point a = room.outline[i], b = room.outline[(i + 1) % room.outline.size()];
            const double length = distance(a, b);
            if (length > 1e-6 && distance(nearestOnSegment(middle, a, b), middle) < w->thickness / 2 + 0.08 &&
                std::abs(dot(u, (b - a) * (1 / length))) > 0.95) {
                const Point along = (b - a) * (1 / length);
                const double at = dot(middle - a, along);
                DoorInRoom d;
                d.from = walked + at - o.width / 2, d.to = walked + at + o.width / 2;
                const bool ccw = signedArea(room.outline) > 0;
                d.inward = ccw ? Point{-along.y, along.x} : Point{along.y, -along.x};
                // The latch lies at the end away from the hinge, and the switch a hand's breadth beyond it.
                const Point towards = (o.hingeAtEnd ? u * -1.0 : u);
                const Point face =
                    middle + d.inward * (w->thickness / 2); // of the wall itself: outlines may be drawn on its middle
                d.latch = face + towards * (o.width / 2 + 0.2);
                if (dot(d.latch - a, along) < 0.1 || dot(d.latch - a, along) > length - 0.1)
                    d.latch = face - towards * (o.width / 2 + 0.2); // no wall left there
                d.passage = o.kind == OpeningKind::Opening;
                out.push_back(d);
            }
            walked += length;
        }
    }
    return out;
}

} // namespace

int luminairesFor(double lux, double area, double lumens, double utilisation, double maintenance) {
    const double each = lumens * utilisation * maintenance;
    return each > 0 && lux > 0 && area > 0 ? wholeWithin(std::ceil(lux * area / each - 1e-9), 0, mostSpots) : 0;
}

std::pair<int, int> gridFor(int count, double width, double depth) {
    if (count < 1 || width <= 0 || depth <= 0) return {0, 0};
    std::pair<int, int> best{1, count};
    double least = 1e18;
    for (int rows = 1; rows <= count; ++rows) {
        const int columns = (count + rows - 1) / rows;
        const double cost =
            std::abs(std::log((width / columns) / (depth / rows))) + 3.0 * (rows * columns - count) / count;
        if (cost < least - 1e-12) least = cost, best = {rows, columns};
    }
    return best;
}

std::vector<Spot> gridSpots(const Room& r, int rows, int columns, bool ceiling) {
    std::vector<Spot> out;
    if (rows < 1 || columns < 1 || r.outline.size() < 3) return out;
    const Axes a = axesOf(r);
    // What is met twice lies within 5 cm: looked for in squares of that size.
    std::unordered_multimap<std::uint64_t, Point> bySquare;
    const auto square = [](double v) { return long(std::floor(v / nearest)); };
    const auto key = [](long x, long y) { return (std::uint64_t(std::uint32_t(x)) << 32) | std::uint32_t(y); };
    const auto there = [&](Point p) {
        for (long x = square(p.x) - 1; x <= square(p.x) + 1; ++x)
            for (long y = square(p.y) - 1; y <= square(p.y) + 1; ++y)
                for (auto [it, end] = bySquare.equal_range(key(x, y)); it != end; ++it)
                    if (distance(it->second, p) < nearest) return true;
        return false;
    };
    for (int y = 0; y < rows; ++y)
        for (int x = 0; x < columns; ++x) {
            Point p = a.at((x + 0.5) / columns, (y + 0.5) / rows);
            if (ceiling && r.gridX > 0 && r.gridY > 0) p = snapToCeiling(r, p);
            p = tidy(p);
            if (!contains(r.outline, p) || there(p)) continue;
            bySquare.emplace(key(square(p.x), square(p.y)), p);
            out.push_back({p, std::round(a.turn() * 100) / 100});
        }
    return out;
}

std::vector<Spot> gridOfCount(const Room& r, int count, bool ceiling) {
    const Axes a = axesOf(r);
    const double share = a.width * a.depth > 0 ? std::clamp(areaOf(r.outline) / (a.width * a.depth), 0.2, 1.0) : 1;
    std::vector<Spot> out;
    for (int wanted = wholeWithin(std::ceil(count / share - 1e-9), 0, mostSpots), tries = 0; tries < 40;
         ++tries, ++wanted) {
        const auto [rows, columns] = gridFor(wanted, a.width, a.depth);
        out = gridSpots(r, rows, columns, ceiling);
        if (int(out.size()) >= count) break;
    }
    return out;
}

std::vector<Spot> wallSpots(const Project& p, const Room& r, double spacing) {
    std::vector<Spot> out;
    if (r.outline.size() < 3 || spacing <= 0.05) return out;
    std::vector<double> ends{0};
    for (std::size_t i = 0; i < r.outline.size(); ++i)
        ends.push_back(ends.back() + distance(r.outline[i], r.outline[(i + 1) % r.outline.size()]));
    const double round = ends.back();
    const bool ccw = signedArea(r.outline) > 0;
    const auto place = [&](double s) {
        s = std::fmod(s + round, round);
        std::size_t i = 0;
        while (i + 2 < ends.size() && ends[i + 1] <= s) ++i;
        const Point a = r.outline[i], b = r.outline[(i + 1) % r.outline.size()];
        const double length = ends[i + 1] - ends[i];
        const Point u = (b - a) * (1 / length), in = ccw ? Point{-u.y, u.x} : Point{u.y, -u.x};
        const double along =
            length > 0.5 ? std::clamp(s - ends[i], 0.2, length - 0.2) : length / 2; // clear of the corner
        Spot spot{tidy(a + u * along + in * standOff), facing(in)};
        // Where the outline is drawn on the middle of a wall, its face lies farther in.
        if (const SnapResult w = snapToWall(p, r.level, spot.at + in * 0.1, 0.3, standOff);
            w.onWall && contains(r.outline, w.at) && std::abs(std::remainder(w.turn - spot.turn, 360.0)) < 1)
            spot.at = tidy(w.at);
        out.push_back(spot);
    };
    auto doors = doorsOf(p, r);
    std::sort(doors.begin(), doors.end(), [](const auto& x, const auto& y) { return x.from < y.from; });
    if (doors.empty()) {
        const int n = wholeWithin(std::ceil(round / spacing - 1e-9), 1, mostSpots);
        for (int i = 0; i < n; ++i) place((i + 0.5) * round / n);
        return out;
    }
    for (std::size_t i = 0; i < doors.size(); ++i) { // each stretch from one door to the next, round the corners
        const double from = doors[i].to, to = i + 1 < doors.size() ? doors[i + 1].from : doors.front().from + round;
        if (to - from < 0.6) continue; // narrower than two feet
        const int n = wholeWithin(std::ceil((to - from) / spacing - 1e-9), 1, mostSpots);
        for (int k = 0; k < n; ++k) place(from + (k + 0.5) * (to - from) / n);
    }
    return out;
}

std::vector<Spot> doorSpots(const Project& p, const Room& r) {
    std::vector<Spot> out;
    for (const DoorInRoom& d : doorsOf(p, r))
        if (!d.passage) out.push_back({tidy(d.latch + d.inward * standOff), facing(d.inward)});
    return out;
}

std::vector<Spot> spotsFor(const Project& p, const Room& r, const RecipePart& part, std::vector<std::string>* notes) {
    const DeviceType& y = p.deviceTypes[part.type];
    const auto note = [&](std::string text) {
        if (notes) notes->push_back(std::move(text));
        return std::vector<Spot>{};
    };
    const double area = areaOf(r.outline);
    // A recipe for rooms of the wrong scale, or with a spacing in the wrong unit, is told rather than carried out for
    // minutes.
    const auto tooMany = [&](double wanted) { return wanted > limits::devicesOfRecipe; };
    const auto refuse = [&](double wanted) {
        return note(fmt::format("{}: the recipe asks for {} of them in one room of {} m², and {} are the most: look at "
                                "the recipe and at the scale of the plan",
                                y.name, number(wanted), number(area), number(limits::devicesOfRecipe)));
    };
    const Axes a = axesOf(r);
    switch (part.by) {
    case RecipeBy::GridCount:
        return gridSpots(r, part.rows, part.columns, !y.onWall);
    case RecipeBy::GridSpacing:
        if (part.value <= 0) return note(fmt::format("{}: a grid needs a spacing", y.name));
        if (const double wanted = std::ceil(a.depth / part.value) * std::ceil(a.width / part.value); tooMany(wanted))
            return refuse(wanted);
        return gridSpots(r, wholeWithin(std::ceil(a.depth / part.value - 1e-9), 1, mostSpots),
                         wholeWithin(std::ceil(a.width / part.value - 1e-9), 1, mostSpots), !y.onWall);
    case RecipeBy::GridLux:
        if (y.lumens <= 0)
            return note(fmt::format("{}: its lumens are not known, so no count to {} lux", y.name, part.value));
        if (const int wanted =
                luminairesFor(part.value, area, y.lumens, p.basis.lightUtilisation, p.basis.lightMaintenance);
            tooMany(wanted))
            return refuse(wanted);
        else
            return gridOfCount(r, wanted, !y.onWall);
    case RecipeBy::GridLoad: {
        const double watts = y.unit == LoadUnit::kW || y.unit == LoadUnit::kVA ? y.load * 1000 : y.load;
        if (watts <= 0 || y.unit == LoadUnit::A || y.unit == LoadUnit::hp)
            return note(fmt::format("{}: its load is not known in watts, so no count to {} W/m²", y.name, part.value));
        if (tooMany(part.value * area / watts)) return refuse(std::round(part.value * area / watts));
        return gridOfCount(r, wholeWithin(std::round(part.value * area / watts), 1, mostSpots), !y.onWall);
    }
    case RecipeBy::Walls: {
        double round = 0;
        for (std::size_t i = 0; i < r.outline.size(); ++i)
            round += distance(r.outline[i], r.outline[(i + 1) % r.outline.size()]);
        if (part.value > 0.05 && tooMany(round / part.value)) return refuse(std::ceil(round / part.value));
        return wallSpots(p, r, part.value);
    }
    case RecipeBy::Doors:
        return doorSpots(p, r);
    case RecipeBy::Furnishing: {
        std::vector<Spot> out;
        for (const Furnishing& f : p.furnishings) {
            if (f.level != r.level || f.kind != part.furnishing || !contains(r.outline, f.at)) continue;
            Spot s{tidy(f.at), f.turn};
            if (y.onWall)
                if (const SnapResult w = snapToWall(p, r.level, f.at, 1.6, standOff);
                    w.onWall && contains(r.outline, w.at))
                    s = {tidy(w.at), w.turn};
            out.push_back(s);
        }
        return out;
    }
    case RecipeBy::Middle:
        return {{tidy(centreOf(r.outline)), a.turn()}};
    }
    return {};
}

std::vector<RoomId> roomsOfKind(const Project& p, const std::string& kind) {
    std::vector<RoomId> out;
    for (const Room& r : p.rooms)
        if (kind.empty() ? !r.kind.empty() : r.kind == kind) out.push_back(r.id);
    return out;
}

RecipeReport applyRecipes(Project& p, const std::vector<RoomId>& rooms) {
    RecipeReport report;
    std::map<RoomId, std::vector<DeviceId>> placedIn;
    std::map<LevelId, std::vector<DeviceId>> astray; // of rooms that are gone: drawn anew, found anew or merged
    std::map<std::pair<LevelId, DeviceTypeId>, std::vector<DeviceId>> standing;
    for (const Device& d : p.devices) {
        standing[{d.level, d.type}].push_back(d.id);
        if (d.recipe && d.room) (p.rooms.has(d.room) ? placedIn[d.room] : astray[d.level]).push_back(d.id);
    }
    for (RoomId id : rooms) {
        const Room room = p.rooms[id];
        std::erase_if(astray[room.level], [&](DeviceId d) {
            if (!contains(room.outline, p.devices[d].at)) return false;
            p.devices.change(d)->room = id;
            placedIn[id].push_back(d);
            return true;
        });
        const Recipe* recipe = nullptr;
        for (const Recipe& r : p.recipes)
            if (!room.kind.empty() && r.roomKind == room.kind) recipe = &r;
        if (!recipe) {
            ++report.without;
            continue;
        }
        ++report.rooms;
        struct Wanted {
            Spot spot;
            std::string leg;
            bool met = false;
        };
        std::map<DeviceTypeId, std::vector<Wanted>> wanted;
        for (const RecipePart& part : recipe->parts) {
            std::vector<std::string> notes;
            for (const Spot& s : spotsFor(p, room, part, &notes)) wanted[part.type].push_back({s, part.leg});
            for (std::string& n : notes) report.notes.push_back(nameOf(p, Ref(id)) + ": " + n);
        }
        // Those that a hand has moved stand for the place nearest to them; the others go to the places left, nearest
        // first, with their circuits.
        std::map<DeviceTypeId, std::vector<DeviceId>> free;
        std::vector<DeviceId> surplus;
        const auto nearest = [&](std::vector<Wanted>& list, Point at) {
            Wanted* best = nullptr;
            for (Wanted& w : list)
                if (!w.met && (!best || distance(w.spot.at, at) < distance(best->spot.at, at) - 1e-9)) best = &w;
            return best;
        };
        for (DeviceId d : placedIn[id]) {
            const Device& x = p.devices[d];
            if (distance(x.at, x.placed) > 0.005) {
                ++report.kept;
                if (Wanted* w = nearest(wanted[x.type], x.at)) w->met = true;
            } else {
                free[x.type].push_back(d);
            }
        }
        for (auto& [type, list] : free) {
            std::vector<DeviceId> rest;
            for (DeviceId d : list) { // those that stand right already
                auto& w = wanted[type];
                const auto it = std::find_if(w.begin(), w.end(), [&](const Wanted& x) {
                    return !x.met && distance(x.spot.at, p.devices[d].at) < 0.005;
                });
                if (it == w.end())
                    rest.push_back(d);
                else
                    it->met = true;
            }
            for (DeviceId d : rest) {
                Wanted* w = nearest(wanted[type], p.devices[d].at);
                if (!w) {
                    surplus.push_back(d);
                    continue;
                }
                w->met = true;
                Device& x = *p.devices.change(d);
                x.at = x.placed = w->spot.at, x.turn = w->spot.turn, x.leg = w->leg;
                ++report.shifted;
            }
        }
        for (DeviceId d : surplus) p.devices.remove(d), ++report.removed;
        // Whatever else stands where one of the same kind is wanted, put there by hand or for another room, is not
        // doubled.
        constexpr double same = 0.15; // m
        for (auto& [type, list] : wanted) {
            const bool all = std::all_of(list.begin(), list.end(), [](const Wanted& w) { return w.met; });
            const auto here = standing.find({room.level, type});
            if (all || here == standing.end()) continue;
            for (DeviceId d : here->second) {
                const Device* x = p.devices.find(d);
                if (!x || (x->recipe && x->room == id) || !contains(room.outline, x->at)) continue;
                if (Wanted* w = nearest(list, x->at); w && distance(w->spot.at, x->at) < same) {
                    w->met = true;
                    ++report.kept;
                }
            }
        }
        for (const auto& [type, list] : wanted)
            for (const Wanted& w : list) {
                if (w.met) continue;
                Device x;
                x.type = type, x.level = room.level, x.at = x.placed = w.spot.at, x.turn = w.spot.turn, x.leg = w.leg,
                x.recipe = recipe->id, x.room = id;
                p.devices.add(std::move(x));
                ++report.placed;
            }
    }
    return report;
}

std::vector<Point> rowSpots(Point a, Point b, double spacing) {
    const double length = distance(a, b);
    if (length < 1e-6 || spacing <= 0.01) return {a};
    const int n = wholeWithin(std::ceil(length / spacing - 1e-6), 0, 2000);
    std::vector<Point> out;
    for (int i = 0; i <= n; ++i) out.push_back(tidy(a + (b - a) * (double(i) / n)));
    return out;
}

} // namespace lintel
