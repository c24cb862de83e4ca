#pragma once
// What a text covers on a drawing.

#include "core/drawing/Drawing.h"

namespace lintel {

/// mm on the drawing.
struct TextBox {
    double left, top, right, bottom;
};

/// Of a text so wide, `above` and `below` mm from its base line; the box around it where it is turned.
TextBox boxAround(const TextMark& text, double width, double above, double below);
/// The same by the widths of the sheets' face: from its base line to the height of its capitals.
TextBox boxOf(const TextMark& text);

} // namespace lintel
