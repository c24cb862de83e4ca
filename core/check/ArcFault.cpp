// Circuits of a dwelling in rooms where an arc-fault device is asked for, without one.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/check/Rooms.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (in.project.basis.occupancy != Occupancy::Dwelling) return;
    const RuleTables& t = in.book.tables;
    for (const auto& [id, room] : circuitsIn(in, roomsOfKinds(in, t.arcFaultRooms), true)) {
        const Circuit& c = in.project.circuits[id];
        if (c.arcFault || !c.unprotected.empty() || c.poles != 1 || in.results.of(id).device > t.arcFaultAmps ||
            std::abs(factsOf(in.project.boards[c.board].system).lineNeutral.v - 120) > 1)
            continue;
        into.push_back({&self, Severity::Stop, id,
                        fmt::format("{}: outlets in {} without arc-fault protection", nameOfRun(in.project, c.id),
                                    nameOf(in.project, Ref(room->id))),
                        in.book.cite("arcFault")});
    }
}

std::vector<Remedy> remedies(const CheckInput&, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    return {{"Fit an arc-fault breaker", [=](Project& p) { p.circuits.change(id)->arcFault = true; }},
            {"Record: protected at the first outlet",
             [=](Project& p) { p.circuits.change(id)->unprotected = "arc-fault protection at the first outlet"; }}};
}

} // namespace

extern const CheckRule arcFaultRule;
const CheckRule arcFaultRule{.id = "arc-fault", .remedies = remedies, .find = find};

} // namespace lintel
