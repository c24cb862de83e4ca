// Lighting connected below what the rule book asks for by area: the service is worked out on the area.

#include "core/base/Format.h"
#include "core/check/Check.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Source& s : in.project.sources) {
        const SourceResult& r = in.results.of(s.id);
        const double connected = r.kinds[std::size_t(LoadKind::Lighting)].ownVa();
        if (r.lightingFloor > connected + 1)
            into.push_back({&self, Severity::Note, s.id, fmt::format("{}: {} kVA of lighting connected, {} kVA by area ({}); demand is worked out on the area", s.name, kilo(connected), kilo(r.lightingFloor), in.project.basis.lightingAreaOf), in.book.cite("areaLighting")});
    }
}

std::vector<Remedy> remedies(const CheckInput&, const Snag&) {
    return {{"Do not judge lighting by area", [](Project& p) { p.basis.lightingAreaOf.clear(); }}};
}

} // namespace

extern const CheckRule lightingFloorRule;
const CheckRule lightingFloorRule{"lighting-floor", find, remedies};

} // namespace lintel
