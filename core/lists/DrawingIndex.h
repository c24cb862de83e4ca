#pragma once
// The first sheets of a set: which sheets there are, and what the design rests on.

#include "core/lists/List.h"

namespace lintel {

/// "E-001" and on; `set` are the sheets that follow. Each index sheet stands in the index too.
std::vector<Drawing> indexSheets(const SheetInput& in, const std::vector<SheetEntry>& set);
/// Code, supplies, conductors, limits: as the basis says them.
List basisList(const SheetInput& in);

} // namespace lintel
