#pragma once
// What has changed on a sheet since an earlier state of it, as clouds around it: by the texts of the drawing itself, so
// that a figure that merely follows is marked as well as one that was entered.

#include "core/sheets/Sheets.h"

namespace lintel {

/// mm on the sheet.
struct Cloud {
    double left, top, right, bottom;
};

/// Around the texts of `after` that `before` does not have. A text that belongs to a thing (see Drawing::hotspots) is
/// looked for among those of the same thing wherever it stands, a figure by the word before it in its row, any other
/// where it stood. What lies near, or makes up most of a row, is one cloud.
/// The title block and the margin, with the place in the set, are left out.
std::vector<Cloud> cloudsOf(const Drawing& before, const Drawing& after);

/// Draws them, with triangles that hold the mark of the revision: in the margin of a schedule, one a row; beside each
/// cloud of a diagram. An empty mark: without.
void drawClouds(Drawing& sheet, const std::vector<Cloud>& clouds, const std::string& mark);

/// A sheet of the set with clouds for what has changed since the same sheet of an earlier set; a sheet that
/// was not there is clouded all over. The mark is that of the last revision in the basis.
Drawing markedSince(const std::vector<SheetEntry>& earlier, const SheetEntry& now, const Basis& basis);

} // namespace lintel
