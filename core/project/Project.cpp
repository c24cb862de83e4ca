#include "core/project/Project.h"

namespace lintel {

std::string nameOf(const Project& p, CircuitId id) {
    const Circuit* c = p.circuits.find(id);
    if (!c) return "?";
    const Board* b = p.boards.find(c->board);
    std::string slot = c->slot > 0 ? std::to_string(c->slot) : "?";
    if (b && b->form == BoardForm::Ways && c->slot > 0)
        slot = std::to_string((c->slot - 1) / 3 + 1) + (c->poles == 3 ? "" : "/L" + std::to_string((c->slot - 1) % 3 + 1));
    return (b ? b->name : "?") + "-" + slot;
}

std::string nameOf(const Project& p, Ref r) {
    if (auto* b = p.boards.find(r.as<Board>())) return b->name;
    if (auto* t = p.transformers.find(r.as<Transformer>())) return t->name;
    if (auto* s = p.sources.find(r.as<Source>())) return s->name;
    if (r.is<Circuit>()) return nameOf(p, r.as<Circuit>());
    if (auto* l = p.loads.find(r.as<Load>())) return l->name;
    if (auto* m = p.rooms.find(r.as<Room>())) return m->number.empty() ? m->name : m->name + " " + m->number;
    if (auto* v = p.levels.find(r.as<Level>())) return v->name;
    if (r.is<Wall>()) return "wall";
    if (auto* d = p.devices.find(r.as<Device>())) {
        if (!d->tag.empty()) return d->tag;
        const DeviceType* t = p.deviceTypes.find(d->type);
        return t ? t->name : "device";
    }
    if (r.is<Run>()) {
        if (auto* run = p.runs.find(r.as<Run>()); run && !run->name.empty()) return run->name;
        for (const Circuit& c : p.circuits)
            if (c.run == r.as<Run>()) return nameOf(p, c.id);
    }
    return r.text();
}

Ref fedBy(const Project& p, CircuitId circuit) {
    for (const Board& b : p.boards)
        if (b.feed == Ref(circuit)) return b.id;
    for (const Transformer& t : p.transformers)
        if (t.feed == Ref(circuit)) return t.id;
    return {};
}

RoomId roomAt(const Project& p, LevelId level, Point at) {
    for (const Room& r : p.rooms)
        if (r.level == level && contains(r.outline, at)) return r.id;
    return {};
}

} // namespace lintel
