#pragma once
// The tables of a calculation report: each a List over the part of the project that it tells of.

#include "core/check/Assumptions.h"
#include "core/lists/List.h"
#include "core/report/ReportScope.h"

namespace lintel {

/// Each source with what it is and the fault level it gives.
List supplyTable(const SheetInput& in, const ReportScope& scope);
/// Connected and demand of each board and transformer, against its rating.
List loadTable(const SheetInput& in, const ReportScope& scope);
/// The runs that feed boards and transformers: device, conductors, what they carry, what decided.
List feederTable(const SheetInput& in, const ReportScope& scope);
/// Of each board: the drop up to it, and the circuit on it that loses most.
List dropTable(const SheetInput& in, const ReportScope& scope);
/// Fault levels at each board, the largest of all states against what it holds.
List faultTable(const SheetInput& in, const ReportScope& scope);
/// Metric books: of each board the circuit whose loop impedance comes nearest to its limit.
List loopTable(const SheetInput& in, const ReportScope& scope);
/// Branch circuits board by board: load, device, conductors, length, drop.
List runTable(const SheetInput& in, const ReportScope& scope);
/// What counts though nobody entered it, or in place of what would be worked out.
List assumptionTable(const ReportScope& scope, const std::vector<Assumption>& assumptions);
/// What is open: stops, checks and notes.
List snagTable(const SheetInput& in, const ReportScope& scope, const std::vector<Snag>& snags);

} // namespace lintel
