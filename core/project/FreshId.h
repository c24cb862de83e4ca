#pragma once
// New things do not take the id of something that is gone while a tick, a remark, a sheet number or a view still tells
// of it.

#include "core/project/Project.h"

#include <algorithm>
#include <utility>

namespace lintel {

/// Puts a thing into its table under an id that nothing in the project knows.
template <class T> Id<T> addFresh(Project& project, Table<T> Project::*table, T thing) {
    std::uint32_t known = (project.*table).highest();
    const auto note = [&](const auto& rows) {
        for (const auto& row : rows)
            if (row.about.template is<T>()) known = std::max(known, row.about.value);
    };
    note(project.ticks);
    note(project.remarks);
    note(project.sheetNumbers);
    note(project.riserPlaces);
    note(project.placedViews);
    thing.id = {known + 1};
    return (project.*table).put(std::move(thing)).id;
}

} // namespace lintel
