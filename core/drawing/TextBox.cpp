#include "core/drawing/TextBox.h"

#include "core/drawing/TextWidth.h"

#include <algorithm>

namespace lintel {

TextBox boxAround(const TextMark& t, double width, double above, double below) {
    const double left = t.align == Align::Left ? 0 : t.align == Align::Centre ? -width / 2 : -width;
    if (t.turn == 0) return {t.at.x + left, t.at.y - above, t.at.x + left + width, t.at.y + below};
    TextBox box{1e18, 1e18, -1e18, -1e18};
    for (Point corner : {Point{left, -above}, {left + width, -above}, {left, below}, {left + width, below}}) {
        const Point at = t.at + turned(corner, t.turn);
        box.left = std::min(box.left, at.x);
        box.right = std::max(box.right, at.x);
        box.top = std::min(box.top, at.y);
        box.bottom = std::max(box.bottom, at.y);
    }
    return box;
}

TextBox boxOf(const TextMark& t) {
    const double width = textWidth(t.text, t.size, t.bold);
    return boxAround(t, t.within > 0 ? std::min(width, t.within) : width, t.size * 0.75, 0);
}

} // namespace lintel
