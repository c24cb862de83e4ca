#pragma once
// What stands beside a plan: what its keyed notes say; what the marks mean (the symbols that are used, home runs,
// boards); the circuits of its boards of which nothing stands on a plan.

#include "core/sheets/Sheets.h"

#include <functional>
#include <vector>

namespace lintel {

struct LegendOf {
    LevelId level{}; ///< nothing: of all floors
    PlanSystem system = PlanSystem::All;
};
/// Where it stands, mm on the sheet.
struct LegendColumn {
    double left, right, top, bottom = 1e9;
};
/// A piece of it that stays together.
struct LegendPiece {
    double height; ///< mm
    /// Draws it with its upper left corner there.
    std::function<void(Drawing&, Point)> draw;
    bool heading = false; ///< it stands above the next piece, and never at the foot of a column
};
/// The keyed notes of a floor, the legend and the circuits not on a plan, to be set in a column of this width.
std::vector<LegendPiece> legendPieces(const SheetInput& in, const LegendOf& of, double width);
/// The first piece from `from` on for which so many mm have no room; at least one has.
std::size_t legendFits(const std::vector<LegendPiece>& pieces, std::size_t from, double height);
/// Draws pieces from `from` on down the column as far as they go: the first that found no room, and the lower edge.
struct LegendDrawn {
    std::size_t next;
    double bottom;
};
LegendDrawn drawLegend(Drawing& sheet, const std::vector<LegendPiece>& pieces, std::size_t from,
                       const LegendColumn& column);
/// All of it from the top of the column down: its lower edge.
double planLegend(Drawing& sheet, const SheetInput& in, const LegendOf& of, const LegendColumn& column);

} // namespace lintel
