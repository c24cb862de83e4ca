#pragma once
// A working as pages to print and sign: what was worked out, its figures, each step with its rule, the deciding one
// marked.

#include "core/sheets/TextPages.h"
#include "core/solve/Working.h"

namespace lintel {

std::vector<Drawing> workingSheets(const Working& working, const SheetHead& head);

/// mm; of its letters, and from line to line.
inline constexpr double workingSize = 2.6, workingLeading = 4.4;
/// Pages of the same kind, and their beginning: the title as a heading on each of them.
TextPages workingPages(const Working& working, const SheetHead& head);
void beginWorking(TextPages& pages, const std::string& title);
/// The steps as rows from where the pages stand on, with their headings, repeated on each further page.
void putSteps(TextPages& pages, const std::vector<WorkingStep>& steps);

} // namespace lintel
