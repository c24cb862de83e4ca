// A breaker held by hand below what its load needs.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult& r,
          std::vector<Snag>& into) {
    if (c.use == CircuitUse::Load && r.deviceHeld && r.device + 1e-6 < r.required.v)
        into.push_back({&self, Severity::Stop, c.id,
                        fmt::format("{}: breaker held at {} A, {} A is needed", nameOfRun(in.project, c.id),
                                    rating(r.device), figures(r.required.v)),
                        in.book.cite(r.feeder ? "continuousFeederDevice" : "continuousDevice")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    const double needed = in.results.of(id).deviceNeeded;
    std::vector<Remedy> out;
    if (needed > 0)
        out.push_back({fmt::format("Hold {} A", rating(needed)),
                       [=](Project& p) { p.circuits.change(id)->heldBreaker = needed; }});
    out.push_back({"Let it be sized", [=](Project& p) { p.circuits.change(id)->heldBreaker.reset(); }});
    return out;
}

} // namespace

extern const CheckRule heldBreakerRule;
const CheckRule heldBreakerRule{.id = "held-breaker", .remedies = remedies, .circuit = find};

} // namespace lintel
