#pragma once
// A working as pages to print and sign: what was worked out, its figures, each step with its rule, the deciding one
// marked.

#include "core/bench/Bench.h"
#include "core/sheets/TextPages.h"

namespace lintel {

std::vector<Drawing> workingSheets(const Working& working, const SheetHead& head);
/// With the figures, list and cautions of a bench sum above its steps.
std::vector<Drawing> workingSheets(const BenchAnswer& answer, const SheetHead& head);

/// The steps as rows from where the pages stand on, with their headings, repeated on each further page.
void putSteps(TextPages& pages, const std::vector<WorkingStep>& steps);

} // namespace lintel
