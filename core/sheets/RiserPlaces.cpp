#include "core/sheets/RiserPlaces.h"

#include "core/base/Limits.h"
#include "core/project/Operations.h"
#include "core/sheets/RiserEquipment.h"

#include <algorithm>

namespace lintel {
namespace {

RiserPlaceId placeOf(const Project& p, Ref thing) {
    for (const RiserPlace& place : p.riserPlaces)
        if (place.about == thing) return place.id;
    return {};
}

RiserPlace& ownPlace(Project& p, Ref thing) {
    RiserPlaceId id = placeOf(p, thing);
    if (!id) {
        RiserPlace place;
        place.about = thing;
        id = p.riserPlaces.add(place);
    }
    return *p.riserPlaces.change(id);
}

/// A place that says nothing is none.
void dropIfEmpty(Project& p, RiserPlaceId id) {
    const RiserPlace* place = p.riserPlaces.find(id);
    if (place && !place->moved && place->gap <= 0 && place->lower <= 0 && place->lift <= 0) p.riserPlaces.remove(id);
}

Ref parentOf(const Project& p, const Results& r, Ref thing) {
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) return c->board;
    const NodeResult* n = r.node(thing);
    return n ? n->parent : Ref{};
}
int slotOf(const Project& p, const Results& r, Ref thing) {
    const CircuitId via = thing.is<Circuit>() ? thing.as<Circuit>() : r.node(thing)->via;
    const Circuit* c = p.circuits.find(via);
    return c ? c->slot : 0;
}

} // namespace

void sortByPlaces(const Project& p, std::vector<Ref>& beside) {
    for (const RiserPlace& place : p.riserPlaces) {
        if (!place.moved) continue;
        const auto from = std::find(beside.begin(), beside.end(), place.about);
        if (from == beside.end()) continue;
        beside.erase(from);
        const auto after = std::find(beside.begin(), beside.end(), place.after);
        beside.insert(place.after && after != beside.end() ? after + 1 : beside.begin(), place.about);
    }
}

RiserPlace placeByHand(const Project& p, Ref thing) {
    const RiserPlace* place = p.riserPlaces.find(placeOf(p, thing));
    return place ? *place : RiserPlace{};
}

std::vector<Ref> drawnBeside(const Project& p, const Results& r, Ref thing) {
    std::vector<Ref> beside;
    if (!r.knows(thing) && !p.circuits.has(thing.as<Circuit>())) return beside; // not worked out yet
    const Ref parent = parentOf(p, r, thing);
    for (Ref other : r.order) {
        const NodeResult* n = r.node(other);
        if (n && !n->looped && n->parent == parent && (parent || other.is<Source>() == thing.is<Source>()))
            beside.push_back(other);
    }
    if (parent)
        for (CircuitId c : riserEquipment(p, r))
            if (Ref(p.circuits[c].board) == parent) beside.push_back(c);
    std::stable_sort(beside.begin(), beside.end(), [&](Ref a, Ref b) {
        return std::pair(slotOf(p, r, a), nameOf(p, a)) < std::pair(slotOf(p, r, b), nameOf(p, b));
    });
    sortByPlaces(p, beside);
    if (std::find(beside.begin(), beside.end(), thing) == beside.end()) beside.clear();
    return beside;
}

bool moveBeside(Project& p, const Results& r, Ref thing, int step) {
    const std::vector<Ref> beside = drawnBeside(p, r, thing);
    const auto at = std::find(beside.begin(), beside.end(), thing);
    if (at == beside.end()) return false;
    const auto i = at - beside.begin();
    if (i + step < 0 || i + step >= std::ptrdiff_t(beside.size())) return false;
    // To the left it comes to stand behind the one before its neighbour.
    const auto after = step > 0 ? i + 1 : i - 2;
    placeBehind(p, thing, after >= 0 ? beside[std::size_t(after)] : Ref{});
    return true;
}

void placeBehind(Project& p, Ref thing, Ref after) {
    // It is moved last: what was put behind it before stays where it is now.
    RiserPlace place;
    if (const RiserPlaceId id = placeOf(p, thing)) {
        place = p.riserPlaces[id];
        p.riserPlaces.remove(id);
    }
    place.id = {};
    place.about = thing;
    place.moved = true;
    place.after = after;
    p.riserPlaces.add(place);
}

void setGapBefore(Project& p, Ref thing, double mm) {
    RiserPlace& place = ownPlace(p, thing);
    place.gap = std::clamp(mm, 0.0, limits::riserGap);
    dropIfEmpty(p, place.id);
}

void setLineLower(Project& p, Ref thing, int steps) {
    RiserPlace& place = ownPlace(p, thing);
    place.lower = std::clamp(steps, 0, limits::riserSteps);
    dropIfEmpty(p, place.id);
}

void setWordsLift(Project& p, Ref thing, double mm) {
    RiserPlace& place = ownPlace(p, thing);
    place.lift = std::clamp(mm, 0.0, limits::riserLift);
    dropIfEmpty(p, place.id);
}

bool letPlaceGo(Project& p, Ref thing) { return p.riserPlaces.remove(placeOf(p, thing)); }

} // namespace lintel
