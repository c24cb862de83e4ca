#include "core/exchange/DxfPlan.h"

#include "core/base/PlainName.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

#include <set>

namespace lintel {

DxfOptions sheetDxf(const SheetInput& in) {
    DxfOptions options;
    options.says = [&p = in.project](Ref thing) {
        std::vector<std::pair<std::string, std::string>> says;
        const Device* d = p.devices.find(thing.as<Device>());
        if (!d) return says;
        const DeviceType& type = p.deviceTypes[d->type];
        says.emplace_back("TYPE", type.name);
        says.emplace_back("CIRCUIT", d->circuit ? nameOf(p, d->circuit) : std::string());
        const RoomId room = roomAt(p, d->level, d->at);
        says.emplace_back("ROOM", room ? nameOf(p, room) : std::string());
        says.emplace_back("TAG", d->tag);
        says.emplace_back("LOAD", type.load > 0 ? fmt::format("{:g} {}", type.load, wordOf(type.unit)) : std::string());
        return says;
    };
    return options;
}

Outcome<DxfLeftOut> writePlanDxf(const SheetInput& in, LevelId level, const std::filesystem::path& file) {
    constexpr double full = 100; // a plan is drawn 1:100
    const bool inches = in.project.basis.units == UnitSystem::Imperial;
    DxfOptions options = sheetDxf(in);
    options.inches = inches;
    options.unit = inches ? full / 25.4 : full;
    PlanStyle style;
    style.colour = PlanColour::Plain;
    return writeDxf(planDrawing(in, level, style), file, options);
}

std::vector<std::pair<LevelId, std::string>> planFiles(const Project& p) {
    std::vector<std::pair<LevelId, std::string>> out;
    std::set<std::string> taken;
    for (const Level& l : p.levels) {
        if (planSystems(p, l.id).empty()) continue;
        const std::string first = "plan_" + plainName(l.name, 120);
        std::string name = first;
        for (int n = 2; !taken.insert(name).second; ++n) name = fmt::format("{}_{}", first, n);
        out.emplace_back(l.id, name);
    }
    return out;
}

} // namespace lintel
