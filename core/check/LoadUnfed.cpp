// Loads without a circuit: listed loads one by one, devices on plan together by room.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Load& l : in.project.loads) {
        if (!in.results.present.has(Results::Trait::NoCircuit)) break;
        if (!l.circuit)
            into.push_back({&self, Severity::Check, l.id,
                            fmt::format("{}{}: has no circuit", l.where.empty() ? "" : l.where + ": ", l.name), ""});
    }
    std::map<std::pair<RoomId, LevelId>, std::vector<const Device*>> rooms;
    for (const Device& d : in.project.devices) {
        const DeviceType* y = in.project.deviceTypes.find(d.type);
        if (!d.circuit && y && (d.load.value_or(y->load) > 0))
            rooms[{roomAt(in.project, d.level, d.at), d.level}].push_back(&d);
    }
    for (const auto& [where, devices] : rooms) {
        const std::string place = where.first ? nameOf(in.project, where.first) : nameOf(in.project, where.second);
        const std::string what = devices.size() == 1 ? nameOf(in.project, devices.front()->id) + " has no circuit"
                                                     : fmt::format("{} devices have no circuit", devices.size());
        into.push_back({&self, Severity::Check, devices.front()->id, place + ": " + what, ""});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const Project& p = in.project;
    int poles = 1;
    std::optional<Point> at;
    LevelId level;
    std::vector<DeviceId> devices;
    const LoadId load = s.about.as<Load>();
    if (const Load* l = p.loads.find(load)) {
        poles = l->poles;
    } else if (const Device* d = p.devices.find(s.about.as<Device>())) {
        at = d->at;
        level = d->level;
        poles = p.deviceTypes[d->type].poles;
        const RoomId room = roomAt(p, d->level, d->at);
        for (const Device& o : p.devices)
            if (!o.circuit && o.type == d->type && o.level == d->level && roomAt(p, o.level, o.at) == room)
                devices.push_back(o.id);
    }
    // Nearest boards with room, low voltage first where there is nothing to tell them apart.
    std::vector<const Board*> boards;
    for (const Board& b : p.boards)
        if (factsOf(b.system).lines >= poles && firstFreeSlot(p, b.id, poles)) boards.push_back(&b);
    std::stable_sort(boards.begin(), boards.end(), [&](const Board* x, const Board* y) {
        const auto cost = [&](const Board* b) {
            return (voltsAcross(b->system, 1).v > 250 && poles == 1 ? 1e6 : 0) +
                   (b->use == BoardUse::Switchboard ? 5e5 : 0) +
                   (at ? (b->level == level ? 0 : 1e3) + (b->onPlan ? orthogonal(b->at, *at) : 500) : 0);
        };
        return cost(x) < cost(y);
    });
    for (std::size_t i = 0; i < boards.size() && i < 2; ++i) {
        const BoardId board = boards[i]->id;
        const std::string label =
            fmt::format("Circuit to {}, slot {}", boards[i]->name, firstFreeSlot(p, board, poles));
        const std::string kind = i == 0 ? "Circuit each to the board that suits it best"
                                        : "Circuit each to the board that suits it next best";
        if (load)
            out.push_back({label, [=](Project& q) { circuitLoad(q, load, board); }, kind});
        else
            out.push_back({label, [=](Project& q) { circuitToBoard(q, devices, board); }, kind});
    }
    return out;
}

} // namespace

extern const CheckRule loadUnfedRule;
const CheckRule loadUnfedRule{.id = "load-unfed", .remedies = remedies, .find = find};

} // namespace lintel
