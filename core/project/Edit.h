#pragma once
// A change of the project as a list of (before, after). Doing, undoing, the recovery journal, the preview of a remedy
// and the difference of two issues are all this one thing.

#include "core/base/Error.h"
#include "core/project/Project.h"

#include <variant>

namespace lintel {

/// One thing before and after; null where it was not there.
template <class T> struct Change {
    std::optional<T> before, after;
    bool operator==(const Change&) const = default;
};
using AnyChange =
    std::variant<Change<Basis>, Change<Level>, Change<Wall>, Change<Room>, Change<DeviceType>, Change<Source>,
                 Change<Transformer>, Change<Board>, Change<Circuit>, Change<Run>, Change<Load>, Change<Device>,
                 Change<Section>, Change<Underlay>, Change<Opening>, Change<Furnishing>, Change<Recipe>,
                 Change<Catchment>, Change<Tray>, Change<ScheduleForm>, Change<Issue>, Change<Tick>, Change<Remark>,
                 Change<SheetNumber>, Change<RiserPlace>, Change<ComposedSheet>, Change<PlacedView>, Change<ListForm>,
                 Change<KeyedNote>>;

/// `label`: what the person did, as the menu says it after "Undo".
struct Edit {
    std::string label;
    std::vector<AnyChange> changes;
    bool empty() const { return changes.empty(); }
    /// What it touches, by kind: "7 circuits, 2 boards, the basis".
    std::string words() const;
    /// Each thing by name and what became of it, at most `most` lines and then how many more: "LP-1-13: changed".
    std::vector<std::string> lines(const Project& before, const Project& after, std::size_t most) const;
    bool operator==(const Edit&) const = default;
};

/// What turns `before` into `after`. Costs what differs, not what there is.
Edit difference(const Project& before, const Project& after, std::string label);
void apply(const Edit& edit, Project& project);
Edit reversed(const Edit& edit);

/// For the journal: one edit as one line of JSON.
std::string writeEdit(const Edit& edit);
Outcome<Edit> readEdit(const std::string& line);

} // namespace lintel
