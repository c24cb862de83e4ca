#pragma once
// The cut sheets of the project's types, several on a sheet.

#include "core/sheets/Sheets.h"

namespace lintel {

/// Numbered from `first` on, with border and title block; types that stand on a composed sheet are left out. Empty:
/// there are none.
std::vector<Drawing> cutSheets(const SheetInput& in, int first);

} // namespace lintel
