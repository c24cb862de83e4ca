// A two- or three-pole load carried on fewer phases than it has.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult& r,
          std::vector<Snag>& into) {
    if (r.mostPoles > c.poles)
        into.push_back({&self, Severity::Stop, c.id,
                        fmt::format("{}: a {}-pole load stands on a {}-pole breaker", nameOfRun(in.project, c.id),
                                    r.mostPoles, c.poles),
                        ""});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const CircuitId id = s.about.as<Circuit>();
    const Circuit& c = in.project.circuits[id];
    const int poles = std::min(in.results.of(id).mostPoles, factsOf(in.project.boards[c.board].system).lines);
    // Where it stands if that fits, else the first place that does.
    Project trial = in.project;
    trial.circuits.change(id)->poles = poles;
    trial.circuits.change(id)->slot = 0;
    const MovePlan here = planMove(trial, id, c.slot);
    const int slot = here.possible ? c.slot : firstFreeSlot(in.project, c.board, poles, id);
    if (poles > c.poles && slot && !(c.pinned && slot != c.slot) && unitOf(in.project, id).size() == 1)
        out.push_back({slot == c.slot ? fmt::format("Make it {}-pole where it stands", poles)
                                      : fmt::format("Make it {}-pole at slot {}", poles, slot),
                       [=](Project& p) {
                           Circuit& k = *p.circuits.change(id);
                           k.poles = poles;
                           k.slot = slot;
                       }});
    const int has = c.poles;
    out.push_back({fmt::format("The load is {}-pole", has), [=](Project& p) {
                       std::vector<LoadId> loads;
                       for (const Load& l : p.loads)
                           if (l.circuit == id && l.poles > has) loads.push_back(l.id);
                       for (LoadId l : loads) p.loads.change(l)->poles = has;
                   }});
    return out;
}

} // namespace

extern const CheckRule polesRule;
const CheckRule polesRule{.id = "poles", .remedies = remedies, .circuit = find};

} // namespace lintel
