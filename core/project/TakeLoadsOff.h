#pragma once
// What hangs on a circuit, taken off it: listed loads and devices on plan stay, without a circuit.

#include "core/project/Project.h"

namespace lintel {

/// `wanted` is asked of each load, and of the type of each device. Whether there was any.
template <class Wanted> bool takeLoadsOff(Project& p, CircuitId circuit, Wanted wanted) {
    std::vector<LoadId> loads;
    for (const Load& l : p.loads)
        if (l.circuit == circuit && wanted(l)) loads.push_back(l.id);
    std::vector<DeviceId> devices;
    for (const Device& d : p.devices)
        if (d.circuit == circuit && wanted(p.deviceTypes[d.type])) devices.push_back(d.id);
    for (const LoadId l : loads) p.loads.change(l)->circuit = {};
    for (const DeviceId d : devices) p.devices.change(d)->circuit = {};
    return !loads.empty() || !devices.empty();
}
/// All of it.
inline bool takeLoadsOff(Project& p, CircuitId circuit) {
    return takeLoadsOff(p, circuit, [](const auto&) { return true; });
}

} // namespace lintel
