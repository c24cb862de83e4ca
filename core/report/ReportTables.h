#pragma once
// The tables of a calculation report that are no lists of their own: what is assumed and what is open.

#include "core/check/Assumptions.h"
#include "core/lists/CalculationTables.h"

namespace lintel {

/// What counts though nobody entered it, or in place of what would be worked out.
List assumptionTable(const ListScope& scope, const std::vector<Assumption>& assumptions);
/// What is open: stops, checks and notes.
List snagTable(const SheetInput& in, const ListScope& scope, const std::vector<Snag>& snags);

} // namespace lintel
