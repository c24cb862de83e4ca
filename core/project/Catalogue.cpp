#include "core/project/Catalogue.h"

#include "core/base/Parse.h"

#include <map>

namespace lintel {

Project catalogueOf(const Project& p) {
    Project c;
    c.basis.title = p.basis.company.empty() ? "Catalogue" : p.basis.company;
    c.deviceTypes = p.deviceTypes;
    c.recipes = p.recipes;
    return c;
}

const DeviceType* typeByName(const Project& p, const std::string& name) {
    for (const DeviceType& t : p.deviceTypes)
        if (sameWord(t.name, name)) return &t;
    return nullptr;
}

TakenTypes takeTypes(Project& p, const Project& catalogue) {
    TakenTypes out;
    std::map<DeviceTypeId, DeviceTypeId> here; // of a type of the catalogue, in the project
    for (const DeviceType& t : catalogue.deviceTypes) {
        if (const DeviceType* known = typeByName(p, t.name)) {
            DeviceType as = t;
            as.id = known->id;
            as.name = known->name;
            // A text that the catalogue leaves empty says nothing: what the project has stays.
            for (std::string DeviceType::*text : {&DeviceType::protection, &DeviceType::connection, &DeviceType::mark,
                                                  &DeviceType::lamp, &DeviceType::description, &DeviceType::picture})
                if ((as.*text).empty()) as.*text = known->*text;
            here[t.id] = known->id;
            if (as == *known)
                ++out.same;
            else
                *p.deviceTypes.change(as.id) = as, ++out.changed;
            continue;
        }
        DeviceType fresh = t;
        fresh.id = {};
        here[t.id] = p.deviceTypes.add(fresh);
        ++out.added;
    }
    for (const Recipe& r : catalogue.recipes) {
        bool known = false;
        for (const Recipe& o : p.recipes) known = known || sameWord(o.roomKind, r.roomKind);
        if (known) continue;
        Recipe fresh = r;
        fresh.id = {};
        for (RecipePart& part : fresh.parts) part.type = here[part.type];
        p.recipes.add(fresh);
        ++out.recipes;
    }
    return out;
}

} // namespace lintel
