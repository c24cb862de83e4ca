#include "core/check/GroupEdit.h"

#include "core/project/CircuitFacts.h"

namespace lintel {

GroupEdit planGroupEdit(const CheckInput& in, const std::vector<CircuitId>& circuits, const std::string& fact,
                        const std::string& text, const std::function<bool()>& stop) {
    GroupEdit g;
    g.after = in.project;
    const CircuitFact* f = circuitFact(fact);
    if (!f) return g;
    for (CircuitId id : circuits) {
        if (stop && stop()) return g;
        if (!g.after.circuits.has(id)) continue;
        GroupEdit::Row row{id, f->read(g.after, g.after.circuits[id]), "", ""};
        if (const auto bad = f->write(g.after, id, text))
            row.refused = bad->what, row.then = row.now;
        else
            row.then = f->read(g.after, g.after.circuits[id]);
        g.changing += row.now != row.then;
        g.rows.push_back(std::move(row));
    }
    if (g.changing == 0 || (stop && stop())) return g;
    const Results r = solve(g.after, in.book);
    g.effect = compare(in, {g.after, in.book, r});
    return g;
}

} // namespace lintel
