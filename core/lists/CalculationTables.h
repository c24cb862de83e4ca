#pragma once
// The results of the calculations as lists: in the report, on sheets of the set, and in spreadsheets.

#include "core/lists/List.h"
#include "core/lists/ListScope.h"

namespace lintel {

/// How it is worked out, a paragraph a row.
List methodTable(const SheetInput& in);
/// Each source with what it is and the fault level it gives.
List supplyTable(const SheetInput& in, const ListScope& scope);
/// Connected and demand of each board and transformer, against its rating.
List loadTable(const SheetInput& in, const ListScope& scope);
/// The runs that feed boards and transformers: device, conductors, what they carry, what decided.
List feederTable(const SheetInput& in, const ListScope& scope);
/// Of each board: the drop up to it, and the circuit on it that loses most.
List dropTable(const SheetInput& in, const ListScope& scope);
/// Fault levels at each board, the largest of all states against what it holds.
List faultTable(const SheetInput& in, const ListScope& scope);
/// Metric books: of each board the circuit whose loop impedance comes nearest to its limit.
List loopTable(const SheetInput& in, const ListScope& scope);
/// Branch circuits board by board: load, device, conductors, length, drop.
List runTable(const SheetInput& in, const ListScope& scope);

/// What the set has of them on sheets of its own, as the basis says, laid out by the forms of the project.
std::vector<List> calculationLists(const SheetInput& in);

} // namespace lintel
