#pragma once
// A drawing put on another one: moved and scaled, with the layers, symbols and things of its marks.

#include "core/drawing/Drawing.h"

namespace lintel {

/// A point of `part` comes to stand at p * k + off; pens and letters are scaled too.
void placeDrawing(Drawing& sheet, const Drawing& part, double k, Point off);

/// mm on a drawing. What lies on its right or lower edge is not in it: it is in the box beside.
struct CutBox {
    double left, top, right, bottom;
    bool holds(Point p) const { return p.x >= left && p.x < right && p.y >= top && p.y < bottom; }
};
/// What of a drawing lies in a box, at its place: lines end at the edge, a text or a symbol is there whole where its
/// middle is.
Drawing cutDrawing(const Drawing& drawing, const CutBox& box);

} // namespace lintel
