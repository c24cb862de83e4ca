#pragma once
// Our own drawings of devices, openings and furniture.

#include "core/drawing/Drawing.h"
#include "core/project/Project.h"

namespace lintel {

/// The symbol of a device at a place on a drawing, `size` mm across.
void drawSymbol(Drawing& d, Symbol symbol, Point at, double turnDegrees, Ink ink, double size = 4.2);

/// A hexagon with a number, `radius` mm to its corners; what lies beneath it is covered.
void drawKeyedNote(Drawing& d, Point at, int number, double radius);

struct FurnishingSize {
    double width, depth;
};
/// m, where the thing gives none.
FurnishingSize usualSize(FurnishingKind kind);
/// `scale`: mm to a metre.
void drawFurnishing(Drawing& d, const Furnishing& f, double scale, Ink ink);

/// The two ends of an opening on the middle of its wall.
std::pair<Point, Point> spanOf(const Opening& o, const Wall& w);
void drawOpening(Drawing& d, const Opening& o, const Wall& w, double scale, Ink ink);

} // namespace lintel
