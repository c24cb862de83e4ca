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
            into.push_back(
                {&self, Severity::Note, s.id,
                 fmt::format("{}: {} kVA of lighting connected, {} kVA by area ({}); demand is worked out on the area",
                             s.name, kilo(connected), kilo(r.lightingFloor), in.project.basis.lightingAreaOf),
                 in.book.cite("areaLighting")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const SourceResult& r = in.results.of(s.about.as<Source>());
    const double missing = r.lightingFloor - r.kinds[std::size_t(LoadKind::Lighting)].ownVa();
    BoardId board;
    for (const Board& b : in.project.boards)
        if (!board && in.results.of(b.id).fed && firstFreeSlot(in.project, b.id, 1)) board = b.id;
    std::vector<Remedy> out;
    if (board)
        out.push_back({fmt::format("Enter the missing {} kVA as an allowance on {}", kilo(missing),
                                   in.project.boards[board].name),
                       [=](Project& p) {
                           const CircuitId c = addCircuit(p, board, 1, "Lighting, allowance by area");
                           Load l;
                           l.circuit = c, l.name = "Lighting, allowance by area", l.kind = LoadKind::Lighting,
                           l.amount = missing, l.continuous = true;
                           p.loads.add(l);
                       }});
    out.push_back({"Do not judge lighting by area", [](Project& p) { p.basis.lightingAreaOf.clear(); }});
    return out;
}

} // namespace

extern const CheckRule lightingFloorRule;
const CheckRule lightingFloorRule{.id = "lighting-floor", .remedies = remedies, .find = find};

} // namespace lintel
