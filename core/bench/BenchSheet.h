#pragma once
// A bench sum as pages to print and sign.

#include "core/bench/Bench.h"
#include "core/sheets/WorkingSheet.h"

namespace lintel {

/// Its figures, list and cautions, and its steps below them.
std::vector<Drawing> workingSheets(const BenchAnswer& answer, const SheetHead& head);

} // namespace lintel
