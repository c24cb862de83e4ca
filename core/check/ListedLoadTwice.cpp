// A board that carries the load of its list, and circuits that are in that load.

#include "core/check/Check.h"
#include "core/project/LoadWords.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Load& l : in.project.loads) {
        const Circuit* c = in.project.circuits.find(l.circuit);
        if (!c || l.name != listedLoadName) continue;
        int others = 0;
        for (CircuitId other : in.results.on(c->board))
            others += other != c->id && in.results.of(other).va > 0 && !in.results.of(other).standby;
        if (others > 0)
            into.push_back(
                {&self, Severity::Check, c->id,
                 fmt::format("{}: the load of its list counts beside {} of its own", in.project.boards[c->board].name,
                             others == 1 ? "a circuit" : fmt::format("{} circuits", others)),
                 ""});
    }
}

std::vector<Remedy> remedies(const CheckInput&, const Snag& s) {
    return {{"Remove the load of its list", [circuit = s.about.as<Circuit>()](Project& p) {
                 std::vector<LoadId> listed;
                 for (const Load& l : p.loads)
                     if (l.circuit == circuit && l.name == listedLoadName) listed.push_back(l.id);
                 for (LoadId l : listed) p.loads.remove(l);
                 removeCircuit(p, circuit);
             }}};
}

} // namespace

extern const CheckRule listedLoadTwiceRule;
const CheckRule listedLoadTwiceRule{
    .id = "listed-load-twice", .remedies = remedies, .find = find, .worthLooking = [](const CheckInput& in) {
        return in.results.present.has(Results::Trait::ListedLoad);
    }};

} // namespace lintel
