#include "core/sheets/RiserEquipment.h"

#include <algorithm>

namespace lintel {
namespace {

bool isDrawn(const Board& b, const Circuit& c, const CircuitResult& r) {
    if (c.use != CircuitUse::Load || r.feeder || r.va <= 0 || !r.placed) return false;
    if (r.kind == LoadKind::Capacitor && !r.mixed) return true;
    if (b.use == BoardUse::MotorControl) return r.kind == LoadKind::Motor || c.poles == factsOf(b.system).lines;
    return (b.use == BoardUse::Switchboard || b.use == BoardUse::Busway) && c.poles == factsOf(b.system).lines;
}

} // namespace

std::vector<CircuitId> riserEquipment(const Project& p, const Results& results) {
    std::vector<CircuitId> out;
    for (Ref thing : results.order) {
        const Board* b = p.boards.find(thing.as<Board>());
        if (!b) continue;
        const std::size_t first = out.size();
        for (CircuitId c : results.on(b->id))
            if (isDrawn(*b, p.circuits[c], results.of(c))) out.push_back(c);
        std::sort(out.begin() + std::ptrdiff_t(first), out.end(),
                  [&](CircuitId x, CircuitId z) { return p.circuits[x].slot < p.circuits[z].slot; });
    }
    return out;
}

} // namespace lintel
