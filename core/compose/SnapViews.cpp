#include "core/compose/SnapViews.h"

#include <algorithm>
#include <cmath>

namespace lintel {
namespace {

/// Where the near edge of something so long may come to lie, and on which line it then is.
struct Candidate {
    double at, line;
};

/// The nearest within reach, else where it is; within the field where it fits.
double snapped(double at, double length, double from, double to, const std::vector<Candidate>& all, double reach,
               std::optional<double>& line) {
    double best = reach;
    double result = at;
    for (const Candidate& c : all) {
        const double off = std::abs(c.at - at);
        if (off > best || (off == best && line)) continue;
        best = off;
        result = c.at;
        line = c.line;
    }
    if (length > to - from) return result;
    const double inside = std::clamp(result, from, to - length);
    if (inside != result) line = inside == from ? from : to;
    return inside;
}

} // namespace

SnappedView snapView(const ViewSpot& view, const std::vector<ViewSpot>& others, const ViewField& field, double reach) {
    std::vector<Candidate> x{{field.left, field.left}, {field.right - view.width, field.right}};
    std::vector<Candidate> y{{field.top, field.top}, {field.bottom - view.height, field.bottom}};
    for (const ViewSpot& o : others) {
        if (o.page != view.page || (o.view == view.view && o.part == view.part)) continue;
        x.push_back({o.left, o.left});
        x.push_back({o.right() - view.width, o.right()});
        x.push_back({o.right() + viewsAcross, o.right()});
        x.push_back({o.left - viewsAcross - view.width, o.left});
        y.push_back({o.top, o.top});
        y.push_back({o.bottom() - view.height, o.bottom()});
        y.push_back({o.bottom() + viewsBelow, o.bottom()});
        y.push_back({o.top - viewsBelow - view.height, o.top});
    }
    std::optional<double> upright;
    std::optional<double> level;
    SnappedView out;
    out.at.x = snapped(view.left, view.width, field.left, field.right, x, reach, upright);
    out.at.y = snapped(view.top, view.height, field.top, field.bottom, y, reach, level);
    if (upright) out.lines.push_back({true, *upright});
    if (level) out.lines.push_back({false, *level});
    return out;
}

} // namespace lintel
