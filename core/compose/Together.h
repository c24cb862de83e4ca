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

} // namespace lintel
