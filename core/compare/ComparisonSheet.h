#pragma once
// A comparison as pages to print: board by board, the weightiest first, what was entered and what follows from it; what
// became of the snags.

#include "core/compare/ProjectComparison.h"
#include "core/sheets/TextPages.h"

namespace lintel {

/// `between`: the two states in words, "Issue B, 2026-10-02, and today".
std::vector<Drawing> comparisonSheets(const ProjectComparison& comparison, const std::string& between,
                                      const SheetHead& head);

} // namespace lintel
