// Walls of a dwelling along which a receptacle is farther than its reach. Doors and openings part a room's wall into
// wall spaces, each of which has its own; windows do not.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/check/Rooms.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double atWall = 0.5;  ///< m from the wall, within which a receptacle of the room stands at it
constexpr double inWall = 0.1;  ///< m beyond the outline, within which it stands in the wall itself
constexpr double onLine = 0.01; ///< m from the outline: of two rooms that share the wall it may belong to either

double around(const std::vector<Point>& o) {
    double sum = 0;
    for (std::size_t i = 0; i < o.size(); ++i) sum += distance(o[i], o[(i + 1) % o.size()]);
    return sum;
}
Point along(const std::vector<Point>& o, double s) {
    for (std::size_t i = 0; i < o.size(); ++i) {
        const double side = distance(o[i], o[(i + 1) % o.size()]);
        if (s <= side && side > 0) return o[i] + (o[(i + 1) % o.size()] - o[i]) * (s / side);
        s -= side;
    }
    return o.front();
}
/// m along an outline to what is nearest to a point, and how far that is.
struct OnOutline {
    double at = 0, off = 0;
};
OnOutline nearestOn(const std::vector<Point>& o, Point p) {
    OnOutline best{0, 1e300};
    double from = 0;
    for (std::size_t i = 0; i < o.size(); ++i) {
        const Point a = o[i], b = o[(i + 1) % o.size()], on = nearestOnSegment(p, a, b);
        if (const double off = distance(p, on); off < best.off) best = {from + distance(a, on), off};
        from += distance(a, b);
    }
    return best;
}

/// What counts for the spacing: one for general use, no higher than the book has it.
bool counts(const CheckInput& in, const Device& d) {
    const DeviceType& t = in.project.deviceTypes[d.type];
    return (t.symbol == Symbol::Receptacle || t.symbol == Symbol::Quad) &&
           d.height.value_or(t.height) <= feet(in.book.tables.spacingHighest).v + 1e-6;
}
/// Whether a receptacle so far from the room's wall is one of the room's, and not one on the other side of the wall.
bool serves(const CheckInput& in, const Room& room, const Device& d, double off) {
    if (off <= onLine || contains(room.outline, d.at)) return off < atWall;
    return off <= inWall && !roomAt(in.project, d.level, d.at);
}
/// Where receptacles stand along the wall of a room.
std::vector<double> receptaclesAlong(const CheckInput& in, const Room& room) {
    std::vector<double> places;
    for (const Device& d : in.project.devices) {
        if (d.level != room.level || !counts(in, d)) continue;
        if (const OnOutline on = nearestOn(room.outline, d.at); serves(in, room, d, on.off)) places.push_back(on.at);
    }
    std::sort(places.begin(), places.end());
    return places;
}

/// A stretch along the outline; `to` may lie beyond its beginning, after a whole turn.
struct Stretch {
    double from = 0, to = 0;
};
/// The doors and openings of a room's wall, by where they begin.
std::vector<Stretch> doorsAlong(const CheckInput& in, const Room& room) {
    std::vector<Stretch> doors;
    const double whole = around(room.outline);
    for (const Opening& o : in.project.openings) {
        const Wall* w = o.kind == OpeningKind::Window ? nullptr : in.project.walls.find(o.wall);
        if (!w || w->level != room.level) continue;
        const double length = distance(w->a, w->b);
        if (length <= 0) continue;
        const Point way = (w->b - w->a) * (1 / length);
        const OnOutline one = nearestOn(room.outline, w->a + way * (o.along - o.width / 2)),
                        other = nearestOn(room.outline, w->a + way * (o.along + o.width / 2));
        const double near = w->thickness / 2 + inWall;
        if (one.off > near || other.off > near) continue;
        double from = std::min(one.at, other.at), to = std::max(one.at, other.at);
        if (to - from > whole / 2) std::tie(from, to) = std::pair(to, from + whole); // over the first corner
        if (to - from > o.width / 2) doors.push_back({from, to});
    }
    std::sort(doors.begin(), doors.end(), [](const Stretch& a, const Stretch& b) { return a.from < b.from; });
    return doors;
}
/// The wall between doors; without doors all of it, from its first receptacle around to that again.
std::vector<Stretch> wallSpaces(const std::vector<Stretch>& doors, double whole) {
    std::vector<Stretch> spaces;
    for (std::size_t i = 0; i < doors.size(); ++i) {
        const double next = i + 1 < doors.size() ? doors[i + 1].from : doors[0].from + whole;
        if (next > doors[i].to) spaces.push_back({doors[i].to, next});
    }
    return spaces;
}

/// A stretch of wall without a receptacle. Between two of them it may be twice the reach, from one to a door the reach;
/// a wall space without any may be short.
struct Gap {
    Stretch wall;
    bool atBegin = true, atEnd = true; ///< whether a receptacle stands there
    double allowed = 0;                ///< m
    double length() const { return wall.to - wall.from; }
    double excess() const { return allowed > 0 ? length() / allowed : 0; }
};
/// The one that is worst, by what it may be.
Gap worstGap(const CheckInput& in, const Room& room) {
    const double whole = around(room.outline), reach = feet(in.book.tables.spacingReach).v,
                 shortest = feet(in.book.tables.spacingShortest).v;
    const std::vector<double> places = receptaclesAlong(in, room);
    Gap worst;
    const auto look = [&](double from, double to, bool atBegin, bool atEnd) {
        const double allowed = atBegin && atEnd ? 2 * reach : atBegin || atEnd ? reach : shortest;
        const Gap g{{from, to}, atBegin, atEnd, allowed};
        if (g.excess() > worst.excess()) worst = g;
    };
    const std::vector<Stretch> spaces = wallSpaces(doorsAlong(in, room), whole);
    if (spaces.empty()) { // around
        if (places.empty()) look(0, whole, false, false);
        for (std::size_t i = 0; i < places.size(); ++i)
            look(places[i], i + 1 < places.size() ? places[i + 1] : places[0] + whole, true, true);
        return worst;
    }
    for (const Stretch& space : spaces) {
        std::vector<double> own;
        for (double at : places)
            for (double turn : {0.0, whole})
                if (at + turn >= space.from && at + turn <= space.to) own.push_back(at + turn);
        std::sort(own.begin(), own.end());
        if (own.empty()) {
            look(space.from, space.to, false, false);
            continue;
        }
        look(space.from, own.front(), false, true);
        look(own.back(), space.to, true, false);
        for (std::size_t i = 0; i + 1 < own.size(); ++i) look(own[i], own[i + 1], true, true);
    }
    return worst;
}

std::string wordsOf(const CheckInput& in, const Gap& g) {
    const auto inFt = [](double metres) { return number(inFeet(Metres{metres}), 1); };
    if (g.atBegin && g.atEnd)
        return fmt::format("{} ft of wall without a receptacle, {} ft is the most", inFt(g.length()),
                           number(2 * in.book.tables.spacingReach));
    if (g.atBegin || g.atEnd)
        return fmt::format("{} ft of wall from a receptacle to a door, {} ft is the most", inFt(g.length()),
                           number(in.book.tables.spacingReach));
    return fmt::format("{} ft of wall without any receptacle; each wall of {} ft and more has one", inFt(g.length()),
                       number(in.book.tables.spacingShortest));
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (in.project.basis.occupancy != Occupancy::Dwelling) return;
    for (const auto& [level, rooms] : roomsOfKinds(in, in.book.tables.spacingRooms))
        for (const Room* r : rooms)
            if (r->outline.size() >= 3)
                if (const Gap g = worstGap(in, *r); g.excess() > 1.001)
                    into.push_back({&self, Severity::Check, r->id,
                                    fmt::format("{}: {}", nameOf(in.project, Ref(r->id)), wordsOf(in, g)),
                                    in.book.cite("outletSpacing")});
}

/// Where receptacles are missing in a gap, along the outline.
std::vector<double> missing(const CheckInput& in, const Gap& g) {
    const double reaches = g.length() / feet(in.book.tables.spacingReach).v;
    // Each reaches to both sides: between two the ends are reached already, to a door one end is.
    const int ends = g.atBegin + g.atEnd, needed = std::max(1, int(std::ceil((reaches - ends) / 2 - 1e-9)));
    std::vector<double> out;
    for (int i = 0; i < needed; ++i)
        out.push_back(g.wall.from + g.length() * ((g.atBegin ? 2 : 1) + 2 * i) / (2 * needed + ends));
    return out;
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const Room& room = in.project.rooms[s.about.as<Room>()];
    const DeviceType* type = nullptr;
    for (const DeviceType& t : in.project.deviceTypes)
        if (!type && t.symbol == Symbol::Receptacle && t.height <= feet(in.book.tables.spacingHighest).v) type = &t;
    if (!type) return out;
    const Gap g = worstGap(in, room);
    const double whole = around(room.outline);
    std::vector<Device> list;
    for (double at : missing(in, g)) {
        Device d;
        d.level = room.level, d.type = type->id;
        d.at = along(room.outline, std::fmod(at + whole, whole));
        list.push_back(d);
    }
    out.push_back({list.size() == 1 ? std::string("Place a receptacle in the middle of it")
                                    : fmt::format("Place {} receptacles along it", list.size()),
                   [list](Project& p) {
                       for (const Device& d : list) p.devices.add(d);
                   }});
    out.push_back(
        {"It is not a room that people live in", [id = room.id](Project& p) { p.rooms.change(id)->kind = "store"; }});
    return out;
}

} // namespace

extern const CheckRule outletSpacingRule;
const CheckRule outletSpacingRule{.id = "outlet-spacing", .remedies = remedies, .find = find};

} // namespace lintel
