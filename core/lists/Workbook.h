#pragma once
// Lists and schedules as the sheets of a workbook: numbers are numbers, and sums are worked out again by whoever opens
// it.

#include "core/formats/Grid.h"
#include "core/lists/List.h"

namespace lintel {

/// A list as a sheet. A total that is the sum of rows above it, of its group or of all, is a formula; its notes stand
/// below.
NamedGrid sheetOf(const List& list, const std::string& job);
/// The circuits of a board by place, in the columns of its form.
List scheduleList(const SheetInput& in, BoardId board);
/// Whether there is anything for it; stops at the first thing.
bool hasWorkbook(const SheetInput& in);
/// All lists that have something to tell, then the schedule of each board with circuits.
std::vector<NamedGrid> workbookOf(const SheetInput& in);

} // namespace lintel
