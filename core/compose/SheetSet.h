#pragma once
// The set of sheets of a project, in the order they are bound.

#include "core/sheets/Sheets.h"

namespace lintel {

/// A sheet that somebody left out of the set.
struct SheetLeftOut {
    SheetKind kind = SheetKind::Schedule;
    Ref about;
    std::string title;
};
std::vector<SheetLeftOut> sheetsLeftOut(const SheetInput& in);
/// Plans by system, riser, one-line, diagrams of boards, then a schedule for each board; composed sheets stand among
/// those of which they show some, and what is shown there has no sheet of its own. The drawings are made on demand;
/// The project, rule book and results of `in` must outlive the list.
std::vector<SheetEntry> sheetSet(const SheetInput& in);

} // namespace lintel
