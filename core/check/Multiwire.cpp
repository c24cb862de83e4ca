// Circuits that share a neutral and stand on the same line: the neutral would carry their sum.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/project/Slots.h"

#include <map>
#include <set>

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    if (!in.results.present.has(Results::Trait::Multiwire)) return;
    std::map<std::pair<BoardId, int>, std::vector<const Circuit*>> groups;
    for (const Circuit& c : in.project.circuits)
        if (c.multiwire) groups[{c.board, c.multiwire}].push_back(&c);
    for (const auto& [key, list] : groups) {
        std::map<int, const Circuit*> onLine;
        for (const Circuit* c : list) {
            const CircuitResult& r = in.results.of(c->id);
            if (c->poles != 1)
                into.push_back({&self, Severity::Check, c->id,
                                nameOfRun(in.project, c->id) + ": a multiwire group is of one-pole circuits",
                                in.book.cite("multiwire")});
            else if (r.placed) {
                const auto [it, fresh] = onLine.emplace(r.lines[0], c);
                if (!fresh)
                    into.push_back({&self, Severity::Stop, c->id,
                                    fmt::format("{} and {} share a neutral on the same line: it carries {} A of both",
                                                nameOf(in.project, it->second->id), nameOf(in.project, c->id),
                                                figures(in.results.of(it->second->id).load.v + r.load.v)),
                                    in.book.cite("multiwireNeutral")});
            }
        }
        if (list.size() == 1)
            into.push_back({&self, Severity::Note, list[0]->id,
                            nameOfRun(in.project, list[0]->id) + ": the only circuit of its multiwire group",
                            in.book.cite("multiwire")});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const CircuitId id = s.about.as<Circuit>();
    const Circuit& c = in.project.circuits[id];
    std::vector<Remedy> out{{"Give it a neutral of its own", [=](Project& p) {
                                 const BoardId board = p.circuits[id].board;
                                 const int group = p.circuits[id].multiwire;
                                 p.circuits.change(id)->multiwire = 0;
                                 std::vector<CircuitId> left;
                                 for (const Circuit& o : p.circuits)
                                     if (o.board == board && o.multiwire == group) left.push_back(o.id);
                                 if (left.size() == 1)
                                     p.circuits.change(left[0])->multiwire = 0; // one alone is no group
                             }}};
    std::set<int> used;
    for (const Circuit& o : in.project.circuits)
        if (o.board == c.board && o.multiwire == c.multiwire && o.id != id) used.insert(in.results.of(o.id).lines[0]);
    const Board& b = in.project.boards[c.board];
    const auto taken = slotMap(in.project, c.board);
    for (int slot = 1; slot <= b.slots; ++slot)
        if (c.poles == 1 && !c.pinned && !c.tie && !taken[std::size_t(slot)] && !used.count(lineOfSlot(b, slot)) &&
            s.severity == Severity::Stop) {
            out.push_back({fmt::format("Move it to slot {}, on another line", slot), [=](Project& p) {
                               if (!slotMap(p, p.circuits[id].board)[std::size_t(slot)])
                                   p.circuits.change(id)->slot = slot;
                           }});
            break;
        }
    return out;
}

} // namespace

extern const CheckRule multiwireRule;
const CheckRule multiwireRule{.id = "multiwire", .remedies = remedies, .find = find};

} // namespace lintel
