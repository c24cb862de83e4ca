// Ring finals on the wrong device, of the wrong shape, or serving too large a floor.

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/check/Check.h"

#include <fmt/format.h>
#include <map>
#include <set>

namespace lintel {
namespace {

/// m² that each circuit of socket outlets serves: a room that several of them share counts in equal parts.
std::map<CircuitId, double> floorsServed(const CheckInput& in) {
    std::map<RoomId, std::set<CircuitId>> rooms;
    for (const Device& d : in.project.devices)
        if (const Circuit* c = in.project.circuits.find(d.circuit);
            c && in.results.of(c->id).kind == LoadKind::Receptacle)
            if (const RoomId room = roomAt(in.project, d.level, d.at)) rooms[room].insert(c->id);
    std::map<CircuitId, double> out;
    for (const auto& [room, circuits] : rooms)
        for (CircuitId c : circuits) out[c] += areaOf(in.project.rooms[room].outline) / double(circuits.size());
    return out;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    const CableRules& rules = in.book.cables;
    const bool radials = in.book.metric() && in.project.basis.occupancy == Occupancy::Dwelling &&
                         !rules.radialArea.empty(); // guidance for households
    if (!in.results.present.has(Results::Trait::Ring) && !radials) return;
    const auto floors = floorsServed(in);
    std::map<CircuitId, std::pair<int, int>> points; // on the ring, on spurs
    for (const Device& d : in.project.devices)
        if (const Circuit* c = in.project.circuits.find(d.circuit); c && c->ring)
            ++(d.spur ? points[c->id].second : points[c->id].first);
    for (const auto& [id, floor] : floors) { // a radial circuit of sockets, by its device
        const Circuit& c = in.project.circuits[id];
        const CircuitResult& r = in.results.of(id);
        if (!radials || c.ring || c.use != CircuitUse::Load || c.poles != 1 || r.feeder) continue;
        const auto most = std::find_if(rules.radialArea.begin(), rules.radialArea.end(),
                                       [&](const auto& x) { return r.device <= x.first + 1e-9; });
        if (most != rules.radialArea.end() && floor > most->second + 1e-9)
            into.push_back(
                {&self, Severity::Check, id,
                 fmt::format("{}: serves {} m², {} m² is usual for a radial behind {} A", nameOfRun(in.project, c.id),
                             number(floor), number(most->second), rating(r.device)),
                 in.book.cite("radial")});
    }
    if (!in.results.present.has(Results::Trait::Ring)) return;
    for (const Circuit& c : in.project.circuits) {
        if (!c.ring || c.use != CircuitUse::Load) continue;
        const CircuitResult& r = in.results.of(c.id);
        const std::string name = nameOfRun(in.project, c.id);
        if (!in.book.metric()) {
            into.push_back({&self, Severity::Stop, c.id, name + ": a ring, which " + in.book.title + " does not know",
                            in.book.title});
            continue;
        }
        if (c.poles != 1)
            into.push_back({&self, Severity::Stop, c.id, fmt::format("{}: a ring on {} poles", name, c.poles),
                            in.book.cite("ring")});
        else if (r.device > rules.ringDevice + 1e-9)
            into.push_back({&self, Severity::Stop, c.id,
                            fmt::format("{}: a ring behind {} A, {} A is the most", name, rating(r.device),
                                        rating(rules.ringDevice)),
                            in.book.cite("ring")});
        else if (r.load.v > rules.ringDevice + 1e-9)
            into.push_back(
                {&self, Severity::Stop, c.id,
                 fmt::format("{}: {} A on a ring of {} A", name, figures(r.load.v), rating(rules.ringDevice)),
                 in.book.cite("ring")});
        if (const auto it = floors.find(c.id); it != floors.end() && it->second > rules.ringArea + 1e-9)
            into.push_back({&self, Severity::Check, c.id,
                            fmt::format("{}: serves {} m², {} m² is usual for one ring", name, number(it->second),
                                        number(rules.ringArea)),
                            in.book.cite("ring")});
        if (const auto it = points.find(c.id); it != points.end() && it->second.second > it->second.first)
            into.push_back({&self, Severity::Check, c.id,
                            fmt::format("{}: {} on unfused spurs, {} on the ring itself", name,
                                        counted(it->second.second, "point"), it->second.first),
                            in.book.cite("radial")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    std::vector<Remedy> out;
    const CircuitResult& r = in.results.of(id);
    if (in.book.metric() && in.project.circuits[id].poles == 1 && r.device > in.book.cables.ringDevice &&
        r.load.v <= in.book.cables.ringDevice)
        out.push_back(
            {fmt::format("Hold {} A", rating(in.book.cables.ringDevice)),
             [=, amps = in.book.cables.ringDevice](Project& p) { p.circuits.change(id)->heldBreaker = amps; }});
    const bool ring = in.project.circuits[id].ring;
    int spurs = 0, points = 0;
    for (const Device& d : in.project.devices)
        if (d.circuit == id) ++(d.spur ? spurs : points);
    const int more = (spurs - points + 1) / 2;
    if (ring && spurs > points)
        out.push_back({more == 1 ? "Take a point from a spur into the ring"
                                 : fmt::format("Take {} points from spurs into the ring", more),
                       [=](Project& p) {
                           std::vector<DeviceId> into;
                           for (const Device& d : p.devices)
                               if (d.circuit == id && d.spur && int(into.size()) < more) into.push_back(d.id);
                           for (DeviceId d : into) p.devices.change(d)->spur = false;
                       }});
    const auto floors = floorsServed(in);
    const double floor = floors.count(id) ? floors.at(id) : 0;
    const bool household = in.project.basis.occupancy == Occupancy::Dwelling && !in.book.cables.radialArea.empty();
    if (ring && (!household || floor <= in.book.cables.radialArea.front().second))
        out.push_back({"Make it a radial", [=](Project& p) {
                           p.circuits.change(id)->ring = false;
                           p.circuits.change(id)->heldBreaker.reset();
                       }});
    const double most = ring ? in.book.cables.ringArea : !household ? 0 : in.book.cables.radialArea.front().second;
    // Its outlets, from one end to the other, over as many circuits as it takes.
    const auto divide = [id](Project& p, int parts) {
        const Circuit like = p.circuits[id];
        std::vector<DeviceId> all;
        for (const Device& d : p.devices)
            if (d.circuit == id) all.push_back(d.id);
        std::sort(all.begin(), all.end(), [&](DeviceId a, DeviceId b) {
            return std::tuple(p.devices[a].level, p.devices[a].at.x, p.devices[a].at.y) <
                   std::tuple(p.devices[b].level, p.devices[b].at.x, p.devices[b].at.y);
        });
        for (int i = 1; i < parts; ++i) {
            const auto from = all.begin() + std::ptrdiff_t(all.size()) * i / parts,
                       to = all.begin() + std::ptrdiff_t(all.size()) * (i + 1) / parts;
            Circuit& c = *p.circuits.change(circuitToBoard(p, {from, to}, like.board));
            c.ring = like.ring, c.residual = like.residual, c.residualType = like.residualType;
        }
    };
    if (most > 0 && floor > most)
        for (int parts = 2; parts <= std::min(points + spurs, 8); ++parts) {
            Project trial = in.project;
            divide(trial, parts);
            const Results after = solve(trial, in.book);
            const auto then = floorsServed({trial, in.book, after});
            if (!std::all_of(then.begin(), then.end(), [&](const auto& x) {
                    return (x.first != id && in.project.circuits.has(x.first)) || x.second <= most + 1e-9;
                }))
                continue;
            out.push_back(
                {fmt::format("Divide its outlets over {} circuits", parts), [=](Project& p) { divide(p, parts); }});
            break;
        }
    return out;
}

} // namespace

extern const CheckRule ringRule;
const CheckRule ringRule{.id = "ring", .remedies = remedies, .find = find};

} // namespace lintel
