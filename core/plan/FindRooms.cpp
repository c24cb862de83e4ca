#include "core/plan/FindRooms.h"

#include "core/base/Limits.h"
#include "core/base/Parse.h"

#include "core/base/Bulge.h"

#include <fmt/format.h>
#include <set>

namespace lintel {

std::vector<Point> pathOf(const Wall& w) {
    return arcOfBulge(w.a, w.b, w.bulge);
} // y goes down: positive bulges turn clockwise on the sheet

double ceilingOf(const Project& p, const Room& r) {
    if (r.ceiling) return *r.ceiling;
    const Level* l = p.levels.find(r.level);
    return l ? l->height : 3;
}

namespace {

struct Side {
    Point a, b;
    double half;
};

/// Where two lines cross; the middle between them when they run alike.
Point crossing(Point p, Point u, Point q, Point v) {
    const double det = u.x * v.y - u.y * v.x;
    if (std::abs(det) < 1e-6) return (p + q) * 0.5;
    const double t = ((q.x - p.x) * v.y - (q.y - p.y) * v.x) / det;
    return p + u * t;
}

struct Graph {
    std::vector<Point> nodes;
    struct Edge {
        int from, to;
        double half;
    };
    std::vector<Edge> edges; ///< both ways, twin at i ^ 1
    int node(Point p) {
        for (std::size_t i = 0; i < nodes.size(); ++i)
            if (distance(nodes[i], p) < 0.02) return int(i);
        nodes.push_back(p);
        return int(nodes.size()) - 1;
    }
};

} // namespace

std::vector<std::vector<Point>> enclosedByWalls(const Project& p, LevelId level, double leastArea) {
    std::vector<Side> sides;
    for (const Wall& w : p.walls) {
        if (w.level != level) continue;
        const auto path = pathOf(w);
        for (std::size_t i = 1; i < path.size(); ++i)
            if (distance(path[i - 1], path[i]) > 1e-6) sides.push_back({path[i - 1], path[i], w.thickness / 2});
    }
    // Ends that stop short of another wall, or just beyond it, are drawn to it.
    for (std::size_t i = 0; i < sides.size(); ++i)
        for (Point* end : {&sides[i].a, &sides[i].b}) {
            double best = 1e9;
            Point to = *end;
            for (std::size_t j = 0; j < sides.size(); ++j) {
                if (j == i) continue;
                const Point near = nearestOnSegment(*end, sides[j].a, sides[j].b);
                const double d = distance(near, *end),
                             corner = std::min(distance(*end, sides[j].a), distance(*end, sides[j].b));
                if (d > sides[j].half + 0.03) continue;
                const bool atCorner = corner < sides[j].half + 0.03;
                const double rank = atCorner ? corner : d + 0.5;
                if (rank < best)
                    best = rank, to = !atCorner                                                 ? near
                                      : distance(*end, sides[j].a) < distance(*end, sides[j].b) ? sides[j].a
                                                                                                : sides[j].b;
            }
            *end = to;
        }
    // Cut where they cross or meet.
    Graph g;
    std::set<std::pair<int, int>> drawn;
    for (std::size_t i = 0; i < sides.size(); ++i) {
        const Point u = sides[i].b - sides[i].a;
        const double len2 = dot(u, u);
        if (len2 < 1e-6) continue;
        std::vector<double> cuts{0, 1};
        for (std::size_t j = 0; j < sides.size(); ++j) {
            if (j == i) continue;
            const Side& o = sides[j];
            if (std::max(o.a.x, o.b.x) < std::min(sides[i].a.x, sides[i].b.x) - 0.1 ||
                std::min(o.a.x, o.b.x) > std::max(sides[i].a.x, sides[i].b.x) + 0.1)
                continue;
            for (Point q : {o.a, o.b})
                if (distance(nearestOnSegment(q, sides[i].a, sides[i].b), q) < 0.02)
                    cuts.push_back(std::clamp(dot(q - sides[i].a, u) / len2, 0.0, 1.0));
            const Point v = o.b - o.a;
            const double det = u.x * v.y - u.y * v.x;
            if (std::abs(det) < 1e-9) continue;
            const double t = ((o.a.x - sides[i].a.x) * v.y - (o.a.y - sides[i].a.y) * v.x) / det,
                         s = ((o.a.x - sides[i].a.x) * u.y - (o.a.y - sides[i].a.y) * u.x) / det;
            if (t > 0 && t < 1 && s > 0 && s < 1) cuts.push_back(t);
        }
        std::sort(cuts.begin(), cuts.end());
        for (std::size_t k = 1; k < cuts.size(); ++k) {
            const int a = g.node(sides[i].a + u * cuts[k - 1]), b = g.node(sides[i].a + u * cuts[k]);
            if (a == b || !drawn.insert({std::min(a, b), std::max(a, b)}).second) continue;
            g.edges.push_back({a, b, sides[i].half});
            g.edges.push_back({b, a, sides[i].half});
        }
    }
    // Loose ends enclose nothing.
    std::vector<int> degree(g.nodes.size(), 0);
    std::vector<char> gone(g.edges.size(), 0);
    for (const auto& e : g.edges) ++degree[std::size_t(e.from)];
    for (bool again = true; again;) {
        again = false;
        for (std::size_t i = 0; i < g.edges.size(); i += 2)
            if (!gone[i] && (degree[std::size_t(g.edges[i].from)] == 1 || degree[std::size_t(g.edges[i].to)] == 1)) {
                gone[i] = gone[i + 1] = 1;
                --degree[std::size_t(g.edges[i].from)], --degree[std::size_t(g.edges[i].to)];
                again = true;
            }
    }
    std::vector<std::vector<int>> around(g.nodes.size());
    const auto angle = [&](int e) {
        const Point d =
            g.nodes[std::size_t(g.edges[std::size_t(e)].to)] - g.nodes[std::size_t(g.edges[std::size_t(e)].from)];
        return std::atan2(d.y, d.x);
    };
    for (std::size_t i = 0; i < g.edges.size(); ++i)
        if (!gone[i]) around[std::size_t(g.edges[i].from)].push_back(int(i));
    for (auto& list : around) std::sort(list.begin(), list.end(), [&](int a, int b) { return angle(a) < angle(b); });
    // Faces: at each corner the next side round from where one came.
    std::vector<char> used(g.edges.size(), 0);
    std::vector<std::vector<Point>> out;
    for (std::size_t start = 0; start < g.edges.size(); ++start) {
        if (gone[start] || used[start]) continue;
        std::vector<int> face;
        for (int e = int(start); !used[std::size_t(e)];) {
            used[std::size_t(e)] = 1;
            face.push_back(e);
            const auto& list = around[std::size_t(g.edges[std::size_t(e)].to)];
            const auto twin = std::find(list.begin(), list.end(), e ^ 1);
            e = twin == list.begin() ? list.back() : *(twin - 1);
        }
        double twice = 0;
        for (int e : face) {
            const Point a = g.nodes[std::size_t(g.edges[std::size_t(e)].from)],
                        b = g.nodes[std::size_t(g.edges[std::size_t(e)].to)];
            twice += a.x * b.y - b.x * a.y;
        }
        if (twice <= 0) continue; // the outside of all
        // Straight stretches become one side; then each side moves in by half its wall.
        std::vector<Side> round;
        for (int e : face) {
            const Side s{g.nodes[std::size_t(g.edges[std::size_t(e)].from)],
                         g.nodes[std::size_t(g.edges[std::size_t(e)].to)], g.edges[std::size_t(e)].half};
            if (!round.empty()) {
                const Point u = round.back().b - round.back().a, v = s.b - s.a;
                if (std::abs(u.x * v.y - u.y * v.x) < 1e-3 * std::sqrt(dot(u, u) * dot(v, v)) && dot(u, v) > 0 &&
                    std::abs(round.back().half - s.half) < 1e-6) {
                    round.back().b = s.b;
                    continue;
                }
            }
            round.push_back(s);
        }
        if (round.size() > 3) {
            const Point u = round.back().b - round.back().a, v = round.front().b - round.front().a;
            if (std::abs(u.x * v.y - u.y * v.x) < 1e-3 * std::sqrt(dot(u, u) * dot(v, v)) && dot(u, v) > 0 &&
                std::abs(round.back().half - round.front().half) < 1e-6)
                round.front().a = round.back().a, round.pop_back();
        }
        std::vector<Point> outline;
        const auto inner =
            [](const Side& s) { // the line of its face, on the inside (to the right of its way on the sheet)
                const Point u = (s.b - s.a) * (1 / distance(s.a, s.b));
                return std::pair{s.a + Point{-u.y, u.x} * s.half, u};
            };
        for (std::size_t i = 0; i < round.size(); ++i) {
            const auto [pa, ua] = inner(round[(i + round.size() - 1) % round.size()]);
            const auto [pb, ub] = inner(round[i]);
            if (std::abs(ua.x * ub.y - ua.y * ub.x) < 1e-3) { // the same line, another thickness: a step
                outline.push_back(pa + ua * dot(round[i].a - pa, ua));
                outline.push_back(pb + ub * dot(round[i].a - pb, ub));
            } else {
                outline.push_back(crossing(pa, ua, pb, ub));
            }
        }
        double inside = 0;
        for (std::size_t i = 0; i < outline.size(); ++i)
            inside +=
                outline[i].x * outline[(i + 1) % outline.size()].y - outline[(i + 1) % outline.size()].x * outline[i].y;
        if (inside / 2 < leastArea) continue;
        for (Point& q : outline) q = {std::round(q.x * 1000) / 1000, std::round(q.y * 1000) / 1000};
        out.push_back(std::move(outline));
    }
    std::sort(out.begin(), out.end(), [](const auto& x, const auto& y) {
        const Point a = centreOf(x), b = centreOf(y);
        return std::abs(a.y - b.y) > 1.5 ? a.y < b.y : a.x < b.x;
    });
    return out;
}

std::string freeRoomNumber(const Project& p, const std::string& like) {
    std::set<std::string> taken;
    for (const Room& r : p.rooms) taken.insert(r.number);
    if (!taken.count(like)) return like;
    const std::size_t at = like.find_last_not_of("0123456789") + 1;
    const std::string stem = like.substr(0, at), digits = like.substr(at);
    int n = digits.empty() || digits.size() > 7 ? 1 : std::stoi(digits);
    std::string text;
    do text = stem + fmt::format("{:0{}}", ++n, digits.empty() ? 1 : digits.size());
    while (taken.count(text));
    return text;
}

namespace {

constexpr std::size_t longestName = 120; // bytes

FoundRooms roomsOf(const Project& p, LevelId level, const std::vector<std::vector<Point>>& outlines,
                   const std::vector<DxfDrawing::Text>& texts) {
    FoundRooms found;
    Project trial = p; // so that each new number counts as taken for the next
    std::string number = "001";
    for (const Room& r : p.rooms)
        if (r.level == level && !r.number.empty() && r.number.find_first_not_of("0123456789") == std::string::npos &&
            r.number >= number)
            number = r.number;
    for (const auto& o : outlines) {
        const Point c = centreOf(o);
        bool there = false;
        for (const Room& r : trial.rooms) {
            if (r.level != level) continue;
            const double a = areaOf(o), b = areaOf(r.outline);
            there |=
                (contains(r.outline, c) || contains(o, centreOf(r.outline))) && std::min(a, b) > 0.6 * std::max(a, b);
        }
        if (there) {
            ++found.known;
            continue;
        }
        Room r;
        r.level = level;
        r.outline = o;
        std::vector<const DxfDrawing::Text*> inside;
        for (const auto& t : texts)
            if (contains(o, t.at)) inside.push_back(&t);
        std::sort(inside.begin(), inside.end(),
                  [](const auto* x, const auto* y) { return std::tie(x->at.y, x->at.x) < std::tie(y->at.y, y->at.x); });
        for (const auto* t : inside) {
            const bool digits = t->words.size() <= 8 && t->words.find_first_of("0123456789") != std::string::npos &&
                                t->words.find(' ') == std::string::npos;
            if (digits && r.number.empty())
                r.number = t->words;
            else if (digits || t->words.find_first_of("0123456789") != std::string::npos)
                continue;
            else if (r.name.size() + t->words.size() > longestName)
                ++found.leftOut; // a paragraph of notes, not what the room is called
            else
                r.name += (r.name.empty() ? "" : " ") + t->words;
        }
        if (r.name.empty()) r.name = "Room";
        if (r.number.empty()) r.number = number = freeRoomNumber(trial, number);
        r.kind = roomKindByName(p, r.name);
        trial.rooms.add(r);
        found.rooms.push_back(std::move(r));
    }
    return found;
}

} // namespace

std::string roomKindByName(const Project& p, const std::string& name) {
    std::string lower;
    for (char c : name) lower += lintel::lower(c);
    std::string best;
    const auto take = [&](const std::string& kind) {
        if (!kind.empty() && lower.find(kind) != std::string::npos && kind.size() > best.size()) best = kind;
    };
    for (const Recipe& r : p.recipes) take(r.roomKind);
    for (const Room& r : p.rooms) take(r.kind);
    return best;
}

FoundRooms roomsFromWalls(const Project& p, LevelId level, const std::vector<DxfDrawing::Text>& texts) {
    return roomsOf(p, level, enclosedByWalls(p, level), texts);
}

FoundRooms roomsFromUnderlay(const Project& p, const Underlay& u, const UnderlayContent& c, const std::string& layer,
                             double leastArea) {
    const UnderlayPlacing at = placingOf(u, c);
    std::vector<std::vector<Point>> outlines;
    int offPlan = 0;
    for (const auto& o : c.drawing.outlines) {
        if (o.layer >= c.drawing.layers.size() || c.drawing.layers[o.layer].name != layer) continue;
        std::vector<Point> corners;
        for (Point q : o.corners) corners.push_back(at(q));
        if (areaOf(corners) < leastArea) continue;
        const bool far = std::any_of(corners.begin(), corners.end(), [](Point q) {
            return !(std::abs(q.x) <= limits::coordinate && std::abs(q.y) <= limits::coordinate);
        });
        if (far)
            ++offPlan;
        else
            outlines.push_back(std::move(corners));
    }
    std::sort(outlines.begin(), outlines.end(), [](const auto& x, const auto& y) {
        const Point a = centreOf(x), b = centreOf(y);
        return std::abs(a.y - b.y) > 1.5 ? a.y < b.y : a.x < b.x;
    });
    FoundRooms found = roomsOf(p, u.level, outlines, textsOf(u, c));
    found.offPlan = offPlan;
    return found;
}

} // namespace lintel
