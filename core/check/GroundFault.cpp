// Receptacles in rooms where people are protected by a ground-fault device, on a circuit without one.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/check/Rooms.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    const RuleTables& t = in.book.tables;
    const bool dwelling = in.project.basis.occupancy == Occupancy::Dwelling;
    for (const auto& [id, room] :
         circuitsIn(in, roomsOfKinds(in, dwelling ? t.groundFaultDwellingRooms : t.groundFaultRooms), false)) {
        const Circuit& c = in.project.circuits[id];
        const CircuitResult& r = in.results.of(id);
        const SystemFacts f = factsOf(in.project.boards[c.board].system);
        if (c.groundFault || !c.unprotected.empty() || f.lineNeutral.v <= 0 ||
            f.lineNeutral.v > t.groundFaultToGround ||
            r.device > (c.poles == 3 ? t.groundFaultThree : t.groundFaultSingle))
            continue;
        into.push_back({&self, Severity::Stop, id,
                        fmt::format("{}: receptacles in {} without ground-fault protection",
                                    nameOfRun(in.project, c.id), nameOf(in.project, Ref(room->id))),
                        in.book.cite(dwelling ? "groundFaultDwelling" : "groundFault")});
    }
}

std::vector<Remedy> remedies(const CheckInput&, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    return {{"Fit a ground-fault breaker", [=](Project& p) { p.circuits.change(id)->groundFault = true; }},
            {"Record: protected at the receptacles",
             [=](Project& p) { p.circuits.change(id)->unprotected = "ground-fault protection at the receptacles"; }}};
}

} // namespace

extern const CheckRule groundFaultRule;
const CheckRule groundFaultRule{.id = "ground-fault", .remedies = remedies, .find = find};

} // namespace lintel
