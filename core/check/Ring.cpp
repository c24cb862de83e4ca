// Ring finals on the wrong device, of the wrong shape, or serving too large a floor.

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
        if (const Circuit* c = in.project.circuits.find(d.circuit); c && in.results.of(c->id).kind == LoadKind::Receptacle)
            if (const RoomId room = roomAt(in.project, d.level, d.at)) rooms[room].insert(c->id);
    std::map<CircuitId, double> out;
    for (const auto& [room, circuits] : rooms)
        for (CircuitId c : circuits) out[c] += areaOf(in.project.rooms[room].outline) / double(circuits.size());
    return out;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.results.present.ring) return;
    const auto floors = floorsServed(in);
    for (const Circuit& c : in.project.circuits) {
        if (!c.ring || c.use != CircuitUse::Load) continue;
        const CircuitResult& r = in.results.of(c.id);
        const std::string name = nameOf(in.project, c.id) + " " + c.name;
        if (!in.book.metric()) {
            into.push_back({&self, Severity::Stop, c.id, name + ": a ring, which " + in.book.title + " does not know", in.book.title});
            continue;
        }
        if (c.poles != 1) into.push_back({&self, Severity::Stop, c.id, fmt::format("{}: a ring on {} poles", name, c.poles), in.book.cite("ring")});
        else if (r.device > in.book.cables.ringDevice + 1e-9) into.push_back({&self, Severity::Stop, c.id, fmt::format("{}: a ring behind {} A, {} A is the most", name, rating(r.device), rating(in.book.cables.ringDevice)), in.book.cite("ring")});
        else if (r.load.v > in.book.cables.ringDevice + 1e-9) into.push_back({&self, Severity::Stop, c.id, fmt::format("{}: {} A on a ring of {} A", name, figures(r.load.v), rating(in.book.cables.ringDevice)), in.book.cite("ring")});
        if (const auto it = floors.find(c.id); it != floors.end() && it->second > in.book.cables.ringArea + 1e-9)
            into.push_back({&self, Severity::Check, c.id, fmt::format("{}: serves {} m², {} m² is usual for one ring", name, number(it->second), number(in.book.cables.ringArea)), in.book.cite("ring")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    std::vector<Remedy> out;
    const CircuitResult& r = in.results.of(id);
    if (in.book.metric() && in.project.circuits[id].poles == 1 && r.device > in.book.cables.ringDevice && r.load.v <= in.book.cables.ringDevice)
        out.push_back({fmt::format("Hold {} A", rating(in.book.cables.ringDevice)), [=, amps = in.book.cables.ringDevice](Project& p) { p.circuits.change(id)->heldBreaker = amps; }});
    out.push_back({"Make it a radial", [=](Project& p) {
                       p.circuits.change(id)->ring = false;
                       p.circuits.change(id)->heldBreaker.reset();
                   }});
    if (s.severity == Severity::Check)
        out.push_back({"Take half of its outlets to a new circuit", [=](Project& p) {
                           std::vector<DeviceId> devices;
                           for (const Device& d : p.devices)
                               if (d.circuit == id) devices.push_back(d.id);
                           std::sort(devices.begin(), devices.end(), [&](DeviceId a, DeviceId b) { return std::pair(p.devices[a].at.x, p.devices[a].at.y) < std::pair(p.devices[b].at.x, p.devices[b].at.y); });
                           devices.erase(devices.begin(), devices.begin() + std::ptrdiff_t(devices.size() / 2));
                           if (!devices.empty()) {
                               const CircuitId made = circuitToBoard(p, devices, p.circuits[id].board);
                               p.circuits.change(made)->ring = true;
                               p.circuits.change(made)->residual = p.circuits[id].residual;
                           }
                       }});
    return out;
}

} // namespace

extern const CheckRule ringRule;
const CheckRule ringRule{.id = "ring", .remedies = remedies, .find = find};

} // namespace lintel
