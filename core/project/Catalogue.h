#pragma once
// The company's own types of devices and loads, kept in a file apart. A catalogue is a project file that holds types
// and nothing else, so any project can serve as one.

#include "core/project/Project.h"

namespace lintel {

/// A project with the types (and the room recipes made of them) of this one, and nothing else.
Project catalogueOf(const Project& project);

struct TakenTypes {
    int added = 0, changed = 0, same = 0, recipes = 0;
};
/// Types of a catalogue by name, whatever the case: new ones are added, ones that differ take over what the catalogue
/// says. Recipes for kinds of room that have none yet come along.
TakenTypes takeTypes(Project& project, const Project& catalogue);

/// The type of that name; null: none.
const DeviceType* typeByName(const Project& project, const std::string& name);

} // namespace lintel
