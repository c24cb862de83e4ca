// A motor whose horsepower has no full-load current in the rule book at its voltage: it counts as nothing.

#include "core/base/Format.h"
#include "core/check/Check.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.results.present.has(Results::Trait::Horsepower)) return;
    for (const Load& l : in.project.loads) {
        const Circuit* c = in.project.circuits.find(l.circuit);
        if (!c || l.unit != LoadUnit::hp || l.amount <= 0) continue;
        const VoltageSystem system = in.project.boards[c->board].system;
        const Cited flc = in.book.motorAmps(l.amount, voltsAcross(system, l.poles).v, l.poles == 3);
        if (flc.value <= 0)
            into.push_back(
                {&self, Severity::Stop, l.id,
                 fmt::format("{} {}: {} hp at {} V {} is not in the table and counts as nothing",
                             nameOf(in.project, c->id), nameOf(in.project, Ref(l.id)), rating(l.amount),
                             number(voltsAcross(system, l.poles).v), l.poles == 3 ? "three-phase" : "single-phase"),
                 *flc.table});
    }
    for (const Device& d : in.project.devices) {
        const Circuit* c = in.project.circuits.find(d.circuit);
        const DeviceType& t = in.project.deviceTypes[d.type];
        if (!c || t.unit != LoadUnit::hp) continue;
        const VoltageSystem system = in.project.boards[c->board].system;
        const double hp = d.load.value_or(t.load);
        if (const Cited flc = in.book.motorAmps(hp, voltsAcross(system, t.poles).v, t.poles == 3);
            hp > 0 && flc.value <= 0)
            into.push_back(
                {&self, Severity::Stop, d.id,
                 fmt::format("{} {}: {} hp at {} V {} is not in the table and counts as nothing",
                             nameOf(in.project, c->id), nameOf(in.project, Ref(d.id)), rating(hp),
                             number(voltsAcross(system, t.poles).v), t.poles == 3 ? "three-phase" : "single-phase"),
                 *flc.table});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    if (const DeviceId device = s.about.as<Device>()) {
        const DeviceTypeId type = in.project.devices[device].type;
        return {{"Take it off its circuit", [=](Project& p) { p.devices.change(device)->circuit = {}; }},
                {fmt::format("Enter all of {} in kW, shaft power without losses", in.project.deviceTypes[type].name),
                 [=](Project& p) {
                     p.deviceTypes.change(type)->load *= 0.7457;
                     p.deviceTypes.change(type)->unit = LoadUnit::kW;
                     std::vector<DeviceId> own;
                     for (const Device& d : p.devices)
                         if (d.type == type && d.load) own.push_back(d.id);
                     for (DeviceId d : own) *p.devices.change(d)->load *= 0.7457;
                 }}};
    }
    const LoadId id = s.about.as<Load>();
    const Load& l = in.project.loads[id];
    const Circuit& c = in.project.circuits[l.circuit];
    const VoltageSystem system = in.project.boards[c.board].system;
    for (int poles : {2, 3})
        if (poles != l.poles && poles <= factsOf(system).lines &&
            in.book.motorAmps(l.amount, voltsAcross(system, poles).v, poles == 3).value > 0)
            out.push_back({fmt::format("Make it a {}-pole motor", poles),
                           [=](Project& p) { p.loads.change(id)->poles = poles; }});
    const double kw = l.amount * 0.7457; // the mechanical horsepower in kW
    out.push_back({fmt::format("Enter it as {} kW, its shaft power without losses", number(kw, 2)), [=](Project& p) {
                       p.loads.change(id)->amount = kw;
                       p.loads.change(id)->unit = LoadUnit::kW;
                   }});
    return out;
}

} // namespace

extern const CheckRule horsepowerRule;
const CheckRule horsepowerRule{.id = "horsepower", .remedies = remedies, .find = find};

} // namespace lintel
