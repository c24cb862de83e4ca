// Walls of a dwelling along which a receptacle is farther than its reach. Doors are not known to the plan yet and count
// as wall.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/check/Rooms.h"

#include <fmt/format.h>

namespace lintel {
namespace {

struct Gap {
    double length = 0, at = 0; ///< m; of its middle, along the outline
};
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
/// The longest stretch of the room's wall between receptacles that stand at it.
Gap longestGap(const CheckInput& in, const Room& room) {
    std::vector<double> places;
    const std::vector<Point>& o = room.outline;
    for (const Device& d : in.project.devices) {
        if (d.level != room.level || !isReceptacle(in.project.deviceTypes[d.type])) continue;
        double from = 0, best = 0.5, place = -1; // within half a metre of the wall
        for (std::size_t i = 0; i < o.size(); ++i) {
            const Point a = o[i], b = o[(i + 1) % o.size()], ab = b - a;
            const double side = distance(a, b);
            if (side <= 0) continue;
            const double t = std::clamp(((d.at.x - a.x) * ab.x + (d.at.y - a.y) * ab.y) / (side * side), 0.0, 1.0),
                         off = distance(d.at, a + ab * t);
            if (off < best) best = off, place = from + t * side;
            from += side;
        }
        if (place >= 0) places.push_back(place);
    }
    const double whole = around(o);
    if (places.empty()) return {whole, whole / 2};
    std::sort(places.begin(), places.end());
    Gap g;
    for (std::size_t i = 0; i < places.size(); ++i) {
        const double next = i + 1 < places.size() ? places[i + 1] : places[0] + whole, length = next - places[i];
        if (length > g.length) g = {length, std::fmod(places[i] + length / 2, whole)};
    }
    return g;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (in.project.basis.occupancy != Occupancy::Dwelling) return;
    const double reach = feet(in.book.tables.spacingReach).v;
    for (const auto& [level, rooms] : roomsOfKinds(in, in.book.tables.spacingRooms))
        for (const Room* r : rooms)
            if (r->outline.size() >= 3)
                if (const Gap g = longestGap(in, *r); g.length > 2 * reach * 1.001)
                    into.push_back({&self, Severity::Check, r->id,
                                    fmt::format("{}: {} ft of wall without a receptacle, {} ft is the most",
                                                nameOf(in.project, Ref(r->id)), number(inFeet(Metres{g.length}), 1),
                                                number(2 * in.book.tables.spacingReach)),
                                    in.book.cite("outletSpacing")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const Room& room = in.project.rooms[s.about.as<Room>()];
    const DeviceType* type = nullptr;
    for (const DeviceType& t : in.project.deviceTypes)
        if (!type && t.symbol == Symbol::Receptacle) type = &t;
    const Gap g = longestGap(in, room);
    const double reach = feet(in.book.tables.spacingReach).v;
    const auto place = [type, &room](double at) {
        Device d;
        d.level = room.level;
        if (type) d.type = type->id;
        d.at = along(room.outline, at);
        return d;
    };
    if (!type) return out;
    const int needed = std::max(1, int(std::ceil(g.length / (2 * reach) - 1e-9)) - 1);
    std::vector<Device> list;
    const double whole = around(room.outline), from = g.at - g.length / 2;
    for (int i = 1; i <= needed; ++i)
        list.push_back(place(std::fmod(from + g.length * i / (needed + 1) + whole, whole)));
    out.push_back({needed == 1 ? std::string("Place a receptacle in the middle of it")
                               : fmt::format("Place {} receptacles along it", needed),
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
