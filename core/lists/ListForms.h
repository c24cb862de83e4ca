#pragma once
// How a project lays its lists out: which columns, in which order, under which headings and title; in which order and
// groups its rows stand. Figures stay what they are.

#include "core/lists/List.h"

namespace lintel {

/// The form that the project has of a list; null: the list is as it comes.
const ListForm* listForm(const Project& project, const std::string& key);
/// Whether rows can stand together by one of its columns: not where the list has groups of its own.
bool canGroup(const List& list);
/// A list laid out by a form. A row whose first cell is empty goes on from the row above it and stays there. With
/// groups, what is added up at the foot is added up in each. At least one column is shown; what stands in the first
/// cell of a total goes on standing there.
List formed(List list, const ListForm* form);
/// Worked out and laid out.
List formedList(const SheetInput& in, const ListKind& kind);
/// All columns of a list in the order of its form, hidden ones too.
std::vector<ListFormColumn> columnsOf(const List& list, const ListForm* form);
/// The list has this form from now on; one that changes nothing goes. `list` is the list as it comes.
void shapeList(Project& project, const List& list, ListForm form);

} // namespace lintel
