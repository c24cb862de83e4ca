#pragma once
// What hangs at the end of a circuit, as one sign: the same on the riser and on the diagram of a board.

#include "core/sheets/Symbols.h"
#include "core/solve/Results.h"

namespace lintel {

/// By the kind of the greater part of its load, `at` in the middle, some 5 mm across, with a stub of its line above it.
void drawLoadSymbol(Drawing& d, LoadKind kind, Point at, Ink ink);

} // namespace lintel
