#include "core/plan/PlacesOf.h"

namespace lintel {

std::vector<PlaceOnPlan> placesOf(const Project& p, Ref thing) {
    const auto middle = [](const std::vector<Point>& points) {
        Point sum;
        for (Point at : points) sum = sum + at;
        return points.empty() ? sum : sum * (1 / double(points.size()));
    };
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) {
        std::vector<PlaceOnPlan> all;
        for (const Device& d : p.devices)
            if (d.circuit == c->id) all.push_back({d.level, d.at});
        return all.empty() ? placesOf(p, c->board) : all;
    }
    if (const Load* l = p.loads.find(thing.as<Load>()))
        return l->circuit ? placesOf(p, l->circuit) : std::vector<PlaceOnPlan>{};
    if (const Board* b = p.boards.find(thing.as<Board>()); b && b->onPlan && b->level) return {{b->level, b->at}};
    if (const Transformer* t = p.transformers.find(thing.as<Transformer>()); t && t->onPlan && t->level)
        return {{t->level, t->at}};
    if (const Source* s = p.sources.find(thing.as<Source>()); s && s->onPlan && s->level) return {{s->level, s->at}};
    if (const Device* d = p.devices.find(thing.as<Device>())) return {{d->level, d->at}};
    if (const Room* r = p.rooms.find(thing.as<Room>())) return {{r->level, centreOf(r->outline)}};
    if (const Wall* w = p.walls.find(thing.as<Wall>())) return {{w->level, (w->a + w->b) * 0.5}};
    if (const Opening* o = p.openings.find(thing.as<Opening>())) return placesOf(p, o->wall);
    if (const Furnishing* f = p.furnishings.find(thing.as<Furnishing>())) return {{f->level, f->at}};
    if (const Tray* t = p.trays.find(thing.as<Tray>())) return {{t->level, middle(t->path)}};
    if (const Catchment* k = p.catchments.find(thing.as<Catchment>()); k && !k->outline.empty())
        return {{k->level, centreOf(k->outline)}};
    if (const KeyedNote* n = p.keyedNotes.find(thing.as<KeyedNote>())) return {{n->level, n->at}};
    return {};
}

} // namespace lintel
