#pragma once
// Puts many things on composed sheets at one go: all schedules, all diagrams of boards, all lists.

#include "core/compose/ComposedSheet.h"

namespace lintel {

/// All things of a kind that stand on no composed sheet and are not left out: schedules and diagrams in the order of
/// the feeds, from the sources down; lists in the order in which they are bound. Only Schedule, Diagram and List.
std::vector<ShownThing> thingsToCompose(const SheetInput& in, SheetKind kind);

/// Puts the things on as many new sheets as they take, in their order. `project` is that of `in`, or a copy of it.
std::vector<ComposedSheetId> composeTogether(const SheetInput& in, Project& project,
                                             const std::vector<ShownThing>& things,
                                             SheetPaper paper = SheetPaper::Usual);

/// What the basis wants together on sheets and what stands on none yet, by kind: schedules, diagrams of boards. Empty
/// where nothing is to be done.
struct TogetherProposal {
    SheetKind kind = SheetKind::Schedule;
    std::vector<ShownThing> things;
};
std::vector<TogetherProposal> proposedTogether(const SheetInput& in);

/// Takes proposals up: what has room on the last sheet that shows only such things goes there, the rest on new ones.
/// Sheets that there are keep their numbers. The sheets that something was put on.
std::vector<ComposedSheetId> takeUp(const SheetInput& in, Project& project,
                                    const std::vector<TogetherProposal>& proposals);

} // namespace lintel
