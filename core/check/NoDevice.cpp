// A load that no standard device is rated for.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/TakeLoadsOff.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.results.present.has(Results::Trait::NoDevice)) return;
    for (const Circuit& c : in.project.circuits)
        if (const CircuitResult& r = in.results.of(c.id);
            c.use == CircuitUse::Load && r.required.v > 0 && r.deviceNeeded == 0)
            into.push_back({&self, Severity::Stop, c.id,
                            fmt::format("{}: no standard device is rated {} A or more", nameOfRun(in.project, c.id),
                                        figures(r.required.v)),
                            in.book.cite("rating")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const CircuitId id = s.about.as<Circuit>();
    for (const Load& l : in.project.loads)
        if (l.circuit == id) { // one load that is much too large is most often a slip of the unit
            const LoadId load = l.id;
            if (l.unit == LoadUnit::kVA || l.unit == LoadUnit::kW)
                out.push_back({fmt::format("Read {} as {} {}", l.name.empty() ? "it" : l.name, number(l.amount),
                                           l.unit == LoadUnit::kVA ? "VA" : "W"),
                               [=](Project& p) {
                                   Load& x = *p.loads.change(load);
                                   x.unit = x.unit == LoadUnit::kVA ? LoadUnit::VA : LoadUnit::W;
                               }});
            break;
        }
    out.push_back({"Take its loads off the circuit", [=](Project& p) { takeLoadsOff(p, id); }});
    return out;
}

} // namespace

extern const CheckRule noDeviceRule;
const CheckRule noDeviceRule{.id = "no-device", .remedies = remedies, .find = find};

} // namespace lintel
