#pragma once
// A view that is dragged comes to lie in line with others and at the usual distance from them.

#include "core/compose/ComposedSheet.h"

namespace lintel {

/// A line that a dragged view came to lie on, mm on the sheet.
struct SnapLine {
    bool upright;
    double at;
};
struct SnappedView {
    Point at; ///< its upper left corner
    std::vector<SnapLine> lines;
};
/// `view` as it would lie at the pointer; `reach`: mm over which it is drawn to a line. Its edges are drawn to the
/// edges of the others, to the usual distance from them, and to the field; it never leaves the field where it fits into
/// it.
SnappedView snapView(const ViewSpot& view, const std::vector<ViewSpot>& others, const ViewField& field, double reach);

} // namespace lintel
