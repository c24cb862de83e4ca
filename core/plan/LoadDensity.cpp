#include "core/plan/LoadDensity.h"

#include "core/base/Quantity.h"

#include <fmt/format.h>

namespace lintel {
namespace {
/// The VA of one device: by its own amount where that is VA, W, kW or kVA; amperes and horsepower by the circuit that
/// carries it, shared.
double vaOf(const Project& p, const Results& results, const Device& d) {
    const DeviceType& y = p.deviceTypes[d.type];
    const double amount = d.load.value_or(y.load);
    switch (y.unit) {
    case LoadUnit::VA:
        return amount;
    case LoadUnit::kVA:
        return amount * 1000;
    case LoadUnit::W:
        return amount / y.powerFactor;
    case LoadUnit::kW:
        return amount * 1000 / y.powerFactor;
    case LoadUnit::kvar:
        return 0;
    default:
        break;
    }
    if (!p.circuits.has(d.circuit)) return 0;
    int sharing = 0;
    for (const Device& o : p.devices) sharing += o.circuit == d.circuit;
    return results.of(d.circuit).va / std::max(1, sharing);
}
void add(LoadDensity& to, const Project& p, const Device& d, double va) {
    to.va += va, ++to.devices;
    if (p.deviceTypes[d.type].kind == LoadKind::Lighting) to.lightingVa += va;
}
} // namespace

LoadDensity densityOf(const Project& p, const Results& results, const Room& room) {
    LoadDensity out;
    out.squareMetres = areaOf(room.outline);
    for (const Device& d : p.devices)
        if (d.level == room.level && contains(room.outline, d.at)) add(out, p, d, vaOf(p, results, d));
    return out;
}

LevelDensity densityOf(const Project& p, const Results& results, LevelId level) {
    LevelDensity out;
    for (const Room& r : p.rooms)
        if (r.level == level) {
            out.rooms.push_back({r.id, densityOf(p, results, r)});
            out.level.squareMetres += out.rooms.back().second.squareMetres;
        }
    for (const Device& d : p.devices)
        if (d.level == level) add(out.level, p, d, vaOf(p, results, d));
    return out;
}

std::string densityWords(const LoadDensity& d, UnitSystem units) {
    constexpr double footSquared = metresPerFoot * metresPerFoot;
    return units == UnitSystem::Imperial ? fmt::format("{:.2f} VA/ft²", d.perSquareMetre() * footSquared)
                                         : fmt::format("{:.1f} VA/m²", d.perSquareMetre());
}

} // namespace lintel
