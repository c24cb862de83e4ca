#pragma once
// An arc given by its two ends and its bulge: the tangent of a quarter of the angle it turns by. Positive turns from x
// towards y.

#include "core/base/Geometry.h"
#include "core/base/Whole.h"

#include <numbers>

namespace lintel {

/// So many straight pieces that none turns by more than 7.5°, between 2 and 96.
inline int arcSteps(double angle) {
    return wholeWithin(std::ceil(std::abs(angle) / (2 * std::numbers::pi) * 48 - 1e-9), 2, 96);
}

/// From `a` to `b`, both included; straight where the bulge is 0 or the ends are one.
inline std::vector<Point> arcOfBulge(Point a, Point b, double bulge) {
    const Point chord = b - a;
    const double length = distance(a, b), angle = 4 * std::atan(bulge);
    if (length < 1e-12 || std::abs(bulge) < 1e-9 || !(std::abs(bulge) < 1e6)) return {a, b};
    const double radius = length / 2 / std::sin(angle / 2); // signed
    const Point normal{-chord.y / length, chord.x / length};
    const Point centre = (a + b) * 0.5 + normal * (radius * std::cos(angle / 2));
    const double start = std::atan2(a.y - centre.y, a.x - centre.x);
    const int n = arcSteps(angle);
    std::vector<Point> out{a};
    for (int i = 1; i < n; ++i)
        out.push_back(centre +
                      Point{std::cos(start + angle * i / n), std::sin(start + angle * i / n)} * std::abs(radius));
    out.push_back(b);
    return out;
}

} // namespace lintel
