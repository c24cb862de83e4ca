#pragma once
// A drawing put on another one: moved and scaled, with the layers, symbols and things of its marks.

#include "core/sheets/Drawing.h"

namespace lintel {

/// A point of `part` comes to stand at p * k + off; pens and letters are scaled too.
void placeDrawing(Drawing& sheet, const Drawing& part, double k, Point off);

} // namespace lintel
