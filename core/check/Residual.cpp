// Circuits that the metric standards want watched by a residual-current device: socket outlets, wet rooms, lighting of
// dwellings, everything behind an earth electrode.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/check/Rooms.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.book.metric()) return;
    const CableRules& rules = in.book.cables;
    const auto wet = circuitsIn(in, roomsOfKinds(in, rules.residualRooms), true);
    const bool lighting = std::find(rules.residualLighting.begin(), rules.residualLighting.end(),
                                    wordOf(in.project.basis.occupancy)) != rules.residualLighting.end();
    for (const Circuit& c : in.project.circuits) {
        const CircuitResult& r = in.results.of(c.id);
        if (c.use != CircuitUse::Load || r.feeder || r.va <= 0) continue;
        const CableNeed& n = *r.run.need.cable;
        // Additional protection is one of so many mA at most; a larger one protects against fire, or an earth fault of
        // a TT supply, and counts as none for it.
        if (n.residual > 0 && double(n.residual) <= rules.residualMA) continue;
        if (!c.unprotected.empty()) continue;
        std::string why;
        if (r.kind == LoadKind::Receptacle && r.device <= rules.residualSocketAmps + 1e-9)
            why = fmt::format("socket outlets on {} A", rating(r.device));
        else if (const auto it = wet.find(c.id); it != wet.end())
            why = "it serves " + nameOf(in.project, Ref(it->second->id));
        else if (lighting && r.kind == LoadKind::Lighting)
            why = in.project.basis.occupancy == Occupancy::Dwelling ? "lighting of a dwelling" : "a lighting circuit";
        else if (n.earthing == Earthing::TT && n.residual <= 0)
            why = "the supply is TT";
        if (why.empty()) continue;
        into.push_back(
            {&self, Severity::Stop, c.id,
             n.residual > 0
                 ? fmt::format("{}: a residual-current device of {} mA where {} mA is the most: {}",
                               nameOfRun(in.project, c.id), rating(double(n.residual)), rating(rules.residualMA), why)
                 : fmt::format("{}: no residual-current device, and {}", nameOfRun(in.project, c.id), why),
             in.book.cite("residualWhere")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    const double mA = in.book.cables.residualMA;
    std::vector<Remedy> out{{fmt::format("Combined breaker of {} mA", number(mA)),
                             [=](Project& p) { p.circuits.change(id)->residual = mA; }}};
    for (const Section& sec : in.project.sections)
        if (sec.residual <= 0 && sec.holds(in.project.circuits[id]))
            out.push_back({fmt::format("{} mA in front of {}", number(mA), sec.name),
                           [=, section = sec.id](Project& p) { p.sections.change(section)->residual = mA; }});
    out.push_back({"Record: left out by risk assessment", [=](Project& p) {
                       p.circuits.change(id)->unprotected = "left out by a documented risk assessment";
                   }});
    return out;
}

} // namespace

extern const CheckRule residualRule;
const CheckRule residualRule{.id = "residual", .remedies = remedies, .find = find};

} // namespace lintel
