#pragma once
// Plane geometry on a floor, in metres: x to the right, y down the sheet (north is up).

#include <algorithm>
#include <cmath>
#include <vector>

namespace lintel {

struct Point {
    double x = 0, y = 0;
    bool operator==(const Point&) const = default;
    Point operator+(Point o) const { return {x + o.x, y + o.y}; }
    Point operator-(Point o) const { return {x - o.x, y - o.y}; }
    Point operator*(double k) const { return {x * k, y * k}; }
};
inline double dot(Point a, Point b) { return a.x * b.x + a.y * b.y; }
inline double distance(Point a, Point b) { return std::hypot(a.x - b.x, a.y - b.y); }
/// The length walked along two walls at right angles.
inline double orthogonal(Point a, Point b) { return std::abs(a.x - b.x) + std::abs(a.y - b.y); }

/// The point of the segment a–b that is nearest to p.
inline Point nearestOnSegment(Point p, Point a, Point b) {
    const Point d = b - a;
    const double len2 = dot(d, d);
    const double t = len2 > 0 ? std::clamp(dot(p - a, d) / len2, 0.0, 1.0) : 0.0;
    return a + d * t;
}
bool contains(const std::vector<Point>& outline, Point p);
double areaOf(const std::vector<Point>& outline);
Point centreOf(const std::vector<Point>& outline);

} // namespace lintel
