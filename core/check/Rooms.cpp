#include "core/check/Rooms.h"
#include "core/base/Parse.h"

namespace lintel {

std::map<LevelId, std::vector<const Room*>> roomsOfKinds(const CheckInput& in, const std::vector<std::string>& kinds) {
    std::map<LevelId, std::vector<const Room*>> out;
    for (const Room& r : in.project.rooms) {
        std::string kind = r.kind;
        for (char& c : kind) c = lower(c);
        if (std::find(kinds.begin(), kinds.end(), kind) != kinds.end()) out[r.level].push_back(&r);
    }
    return out;
}

bool isReceptacle(const DeviceType& t) {
    return t.symbol == Symbol::Receptacle || t.symbol == Symbol::Quad || t.symbol == Symbol::Special;
}

std::map<CircuitId, const Room*> circuitsIn(const CheckInput& in,
                                            const std::map<LevelId, std::vector<const Room*>>& rooms, bool all) {
    std::map<CircuitId, const Room*> out;
    if (rooms.empty()) return out;
    for (const Device& d : in.project.devices) {
        if (!d.circuit || out.count(d.circuit)) continue;
        const auto here = rooms.find(d.level);
        if (here == rooms.end() || (!all && !isReceptacle(in.project.deviceTypes[d.type]))) continue;
        for (const Room* r : here->second)
            if (contains(r->outline, d.at)) {
                out[d.circuit] = r;
                break;
            }
    }
    return out;
}

} // namespace lintel
