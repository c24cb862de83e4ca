#include "core/base/Geometry.h"

namespace lintel {

bool contains(const std::vector<Point>& o, Point p) {
    bool in = false;
    for (size_t i = 0, j = o.size() - 1; i < o.size(); j = i++)
        if ((o[i].y > p.y) != (o[j].y > p.y) && p.x < (o[j].x - o[i].x) * (p.y - o[i].y) / (o[j].y - o[i].y) + o[i].x)
            in = !in;
    return in;
}

double areaOf(const std::vector<Point>& o) {
    double twice = 0;
    for (size_t i = 0; i < o.size(); ++i) {
        const Point a = o[i], b = o[(i + 1) % o.size()];
        twice += a.x * b.y - b.x * a.y;
    }
    return std::abs(twice) / 2;
}

Point centreOf(const std::vector<Point>& o) {
    if (o.empty()) return {};
    double twice = 0;
    Point sum;
    for (size_t i = 0; i < o.size(); ++i) {
        const Point a = o[i], b = o[(i + 1) % o.size()];
        const double cross = a.x * b.y - b.x * a.y;
        twice += cross;
        sum = sum + (a + b) * cross;
    }
    if (std::abs(twice) < 1e-9) {
        for (Point p : o) sum = sum + p;
        return sum * (1.0 / double(o.size()));
    }
    return sum * (1.0 / (3 * twice));
}

} // namespace lintel
