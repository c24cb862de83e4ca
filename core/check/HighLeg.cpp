// A line-neutral load on the high leg of a delta.

#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/project/Slots.h"

#include <fmt/format.h>

namespace lintel {
namespace {

bool highLegThere(const CheckInput& in) {
    return std::any_of(in.project.boards.begin(), in.project.boards.end(),
                       [](const Board& b) { return factsOf(b.system).highLeg; });
}

void find(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult& r,
          std::vector<Snag>& into) {
    if (c.poles == 1 && r.lines[0] == 1 && r.va > 0 && factsOf(in.project.boards[c.board].system).highLeg)
        into.push_back({&self, Severity::Stop, c.id,
                        fmt::format("{}: a 120 V load stands on B, the high leg", nameOfRun(in.project, c.id)), ""});
}

/// To the first free slot on a line.
MovePlan toLine(const Project& p, CircuitId id, int line) {
    const Board& b = p.boards[p.circuits[id].board];
    const auto map = slotMap(p, b.id);
    for (int slot = 1; slot <= b.slots; ++slot)
        if (!map[std::size_t(slot)] && lineOfSlot(b, slot) == line)
            if (const MovePlan plan = planMove(p, id, slot); plan.possible) return plan;
    return {};
}
int slotIn(const MovePlan& plan, CircuitId id) {
    for (const auto& [c, slot] : plan.places)
        if (c == id) return slot;
    return 0;
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const CircuitId id = s.about.as<Circuit>();
    for (const int line : {0, 2}) // on either of the lines that have 120 V
        if (const MovePlan plan = toLine(in.project, id, line); plan.possible)
            out.push_back(
                {fmt::format("Move it to slot {}, on {}{}", slotIn(plan, id), line ? 'C' : 'A',
                             plan.places.size() > 1 ? fmt::format(", {} more with it", plan.places.size() - 1) : ""),
                 [id, line](Project& p) { applyMove(p, toLine(p, id, line)); }});
    return out;
}

} // namespace

extern const CheckRule highLegRule;
const CheckRule highLegRule{.id = "high-leg", .remedies = remedies, .circuit = find, .worthLooking = highLegThere};

} // namespace lintel
