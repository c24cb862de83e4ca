#include "core/plan/Snap.h"

#include <numbers>

namespace lintel {

SnapResult snapPoint(const Project& p, LevelId level, Point at, double reach, const Point* from, double grid) {
    SnapResult s;
    double best = reach;
    for (const Wall& w : p.walls) {
        if (w.level != level) continue;
        for (Point end : {w.a, w.b})
            if (distance(at, end) < best) best = distance(at, end), s.at = end, s.onEnd = true, s.wall = w.id;
    }
    if (s.onEnd) return s;
    s.at = {std::round(at.x / grid) * grid, std::round(at.y / grid) * grid};
    if (from) { // square to the last point
        if (std::abs(at.x - from->x) < reach)
            s.at.x = from->x, s.square = true;
        else if (std::abs(at.y - from->y) < reach)
            s.at.y = from->y, s.square = true;
    }
    for (const Wall& w : p.walls) {
        if (w.level != level) continue;
        const Point near = nearestOnSegment(s.at, w.a, w.b);
        if (distance(s.at, near) < best) {
            best = distance(s.at, near);
            s.at = near;
            s.onWall = true;
            s.wall = w.id;
        }
    }
    return s;
}

SnapResult snapToFaces(const std::vector<std::pair<Point, Point>>& lines, Point at, double reach, double standOff,
                       double least) {
    SnapResult s;
    s.at = at;
    double best = reach;
    for (const auto& [a, b] : lines) {
        if (std::max(a.x, b.x) < at.x - reach || std::min(a.x, b.x) > at.x + reach ||
            std::max(a.y, b.y) < at.y - reach || std::min(a.y, b.y) > at.y + reach)
            continue;
        const double length = distance(a, b);
        const Point near = nearestOnSegment(at, a, b);
        if (length < least || distance(at, near) >= best) continue;
        const Point along = (b - a) * (1 / length);
        Point out{-along.y, along.x};
        if (dot(at - near, out) < 0) out = out * -1;
        best = distance(at, near);
        s.at = near + out * standOff;
        s.onWall = true;
        s.turn = std::fmod(std::atan2(out.y, out.x) * 180 / std::numbers::pi - 90 + 720, 360.0);
    }
    return s;
}

Alignment alignToPeers(const Project& p, LevelId level, Point at, double reach, const std::vector<Ref>& except) {
    Alignment a{at, {}, {}};
    double bestX = 1e18, bestY = 1e18;
    for (const Device& d : p.devices) {
        if (d.level != level || std::find(except.begin(), except.end(), Ref(d.id)) != except.end()) continue;
        const double far = distance(d.at, at);
        if (std::abs(d.at.x - at.x) < reach && far < bestX) bestX = far, a.upright = d.at;
        if (std::abs(d.at.y - at.y) < reach && far < bestY) bestY = far, a.level = d.at;
    }
    if (a.upright) a.at.x = a.upright->x;
    if (a.level) a.at.y = a.level->y;
    return a;
}

std::optional<Point> snapToLines(const std::vector<std::pair<Point, Point>>& lines, Point at, double reach,
                                 bool endsOnly) {
    std::optional<Point> end, on;
    double nearEnd = reach, nearOn = reach;
    for (const auto& [a, b] : lines) {
        if (std::max(a.x, b.x) < at.x - reach || std::min(a.x, b.x) > at.x + reach ||
            std::max(a.y, b.y) < at.y - reach || std::min(a.y, b.y) > at.y + reach)
            continue;
        for (Point e : {a, b})
            if (const double d = distance(e, at); d < nearEnd) nearEnd = d, end = e;
        const Point n = nearestOnSegment(at, a, b);
        if (const double d = distance(n, at); d < nearOn) nearOn = d, on = n;
    }
    return end || endsOnly ? end : on;
}

Point snapToCeiling(const Room& r, Point at) {
    if (r.gridX <= 0 || r.gridY <= 0) return at;
    return {r.gridFrom.x + (std::floor((at.x - r.gridFrom.x) / r.gridX + 1e-9) + 0.5) * r.gridX,
            r.gridFrom.y + (std::floor((at.y - r.gridFrom.y) / r.gridY + 1e-9) + 0.5) * r.gridY};
}

SnapResult snapToWall(const Project& p, LevelId level, Point at, double reach, double standOff) {
    SnapResult s;
    s.at = at;
    double best = reach;
    for (const Wall& w : p.walls) {
        if (w.level != level) continue;
        const Point near = nearestOnSegment(at, w.a, w.b);
        const double d = distance(at, near);
        const double len = distance(w.a, w.b);
        if (d - w.thickness / 2 > best || len < 1e-6) continue;
        best = d - w.thickness / 2;
        const Point along = (w.b - w.a) * (1 / len);
        Point out{-along.y, along.x}; // square to the wall, on the side of the hand
        if (dot(at - near, out) < 0) out = out * -1;
        // Along the wall to the nearest 5 cm.
        const double t = std::round(dot(near - w.a, along) / 0.05) * 0.05;
        s.at = w.a + along * t + out * (w.thickness / 2 + standOff);
        s.onWall = true;
        s.wall = w.id;
        s.turn = std::fmod(std::atan2(out.y, out.x) * 180 / std::numbers::pi - 90 + 720, 360.0);
    }
    return s;
}

} // namespace lintel
