// Circuits that have no place on their board.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, const Circuit& c, const CircuitResult& r,
          std::vector<Snag>& into) {
    if (c.slot == 0 || !r.placed)
        into.push_back(
            {&self, Severity::Stop, c.id,
             fmt::format("{}: {} has no place for it", nameOfRun(in.project, c.id), in.project.boards[c.board].name),
             ""});
    else if (r.clash)
        into.push_back({&self, Severity::Stop, c.id,
                        fmt::format("{}: another circuit stands in the same slot", nameOfRun(in.project, c.id)), ""});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const CircuitId id = s.about.as<Circuit>();
    const Circuit& c = in.project.circuits[id];
    const BoardId board = c.board;
    if (const int slot = firstFreeSlot(in.project, board, c.poles, id))
        out.push_back(
            {fmt::format("Put it at slot {}", slot), [=](Project& p) { p.circuits.change(id)->slot = slot; }});
    const int slots = in.project.boards[board].slots;
    for (int more : {12, 18, 24, 30, 42, 54, 60, 66, 72, 84})
        if (more > slots) {
            out.push_back({fmt::format("{} slots for {}", more, in.project.boards[board].name), [=](Project& p) {
                               p.boards.change(board)->slots = more;
                               const int to = firstFreeSlot(p, board, p.circuits[id].poles, id);
                               if (to) p.circuits.change(id)->slot = to;
                           }});
            break;
        }
    return out;
}

} // namespace

extern const CheckRule overfullRule;
const CheckRule overfullRule{.id = "overfull", .remedies = remedies, .circuit = find};

} // namespace lintel
