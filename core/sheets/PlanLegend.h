#pragma once
// What the marks of plans mean: the symbols that are used, home runs, boards; beside a floor also the circuits of its
// boards of which nothing stands on a plan.

#include "core/sheets/Sheets.h"

namespace lintel {

struct LegendOf {
    LevelId level{}; ///< nothing: of all floors
    PlanSystem system = PlanSystem::All;
};
/// Where it stands, mm on the sheet.
struct LegendColumn {
    double left, right, top;
};
/// Draws it from the top of the column down: its lower edge.
double planLegend(Drawing& sheet, const SheetInput& in, const LegendOf& of, const LegendColumn& column);

} // namespace lintel
