#include "core/route/Trays.h"

#include <limits>
#include <mutex>
#include <queue>

namespace lintel {
namespace {
constexpr double never = std::numeric_limits<double>::infinity();
constexpr double joins = 0.3; ///< m: trays that come this near are one
constexpr double beside =
    3; ///< a metre beside the trays counts as so many on them: a run stays on its tray as long as it can
} // namespace

struct TrayGraph::Parts {
    const Project& p;
    struct Node {
        LevelId level;
        Point at;
    };
    struct Edge {
        int a, b;
        double length;
        TrayId tray;
        bool riser;
    };
    std::vector<Node> nodes;
    std::vector<Edge> edges;
    std::vector<std::vector<int>> at;
    struct Search {
        std::vector<double> far;
        std::vector<int> by;                        ///< the edge that leads here; −1: from the start
        std::vector<double> off;                    ///< beside the tray at its start
        std::vector<std::pair<int, Point>> entries; ///< by edge: where the place's way meets it
        std::vector<int> entry;                     ///< which of them the way to a node began with
    };
    mutable std::map<std::tuple<std::uint32_t, double, double>, Search> kept;
    mutable std::mutex keeping; ///< circuits are measured on several threads

    explicit Parts(const Project& project) : p(project) {
        struct Piece {
            LevelId level;
            Point a, b;
            TrayId tray;
        };
        std::vector<Piece> pieces;
        for (const Tray& t : p.trays)
            for (std::size_t i = 1; i < t.path.size(); ++i) pieces.push_back({t.level, t.path[i - 1], t.path[i], t.id});
        const auto node = [&](LevelId level, Point q) {
            for (std::size_t i = 0; i < nodes.size(); ++i)
                if (nodes[i].level == level && distance(nodes[i].at, q) < joins) return int(i);
            nodes.push_back({level, q});
            return int(nodes.size()) - 1;
        };
        for (const Piece& x : pieces) { // cut where another tray, or a riser, touches it
            const Point u = x.b - x.a;
            const double length = distance(x.a, x.b);
            if (length < 1e-6) continue;
            std::vector<double> cuts{0, length};
            const auto touch = [&](LevelId level, Point q) {
                if (level == x.level && distance(nearestOnSegment(q, x.a, x.b), q) < joins)
                    cuts.push_back(std::clamp(dot(q - x.a, u) / length, 0.0, length));
            };
            for (const Piece& y : pieces) {
                if (&y == &x || y.level != x.level) continue;
                touch(y.level, y.a), touch(y.level, y.b);
                const Point v = y.b - y.a;
                const double det = u.x * v.y - u.y * v.x;
                if (std::abs(det) < 1e-9) continue;
                const double s = ((y.a.x - x.a.x) * v.y - (y.a.y - x.a.y) * v.x) / det,
                             r = ((y.a.x - x.a.x) * u.y - (y.a.y - x.a.y) * u.x) / det;
                if (s > 0 && s < 1 && r > 0 && r < 1) cuts.push_back(s * length);
            }
            for (const Tray& t : p.trays)
                if (t.riseTo && !t.path.empty()) touch(t.level, t.path.front()), touch(t.riseTo, t.path.front());
            std::sort(cuts.begin(), cuts.end());
            for (std::size_t i = 1; i < cuts.size(); ++i) {
                const int a = node(x.level, x.a + u * (cuts[i - 1] / length)),
                          b = node(x.level, x.a + u * (cuts[i] / length));
                if (a != b)
                    edges.push_back(
                        {a, b, distance(nodes[std::size_t(a)].at, nodes[std::size_t(b)].at), x.tray, false});
            }
        }
        for (const Tray& t : p.trays)
            if (t.riseTo && !t.path.empty() && p.levels.has(t.level) && p.levels.has(t.riseTo)) {
                const int a = node(t.level, t.path.front()), b = node(t.riseTo, t.path.front());
                edges.push_back(
                    {a, b, std::abs(p.levels[t.level].elevation - p.levels[t.riseTo].elevation), t.id, true});
            }
        at.resize(nodes.size());
        for (std::size_t i = 0; i < edges.size(); ++i)
            at[std::size_t(edges[i].a)].push_back(int(i)), at[std::size_t(edges[i].b)].push_back(int(i));
    }
    bool onLevel(const Edge& e, LevelId level) const { return !e.riser && nodes[std::size_t(e.a)].level == level; }
    Point meets(const Edge& e, Point q) const {
        return nearestOnSegment(q, nodes[std::size_t(e.a)].at, nodes[std::size_t(e.b)].at);
    }

    const Search& from(const Place& place) const {
        const std::lock_guard lock(keeping);
        auto [it, fresh] = kept.try_emplace({place.level.value, place.at.x, place.at.y});
        Search& s = it->second;
        if (!fresh) return s;
        s.far.assign(nodes.size(), never), s.by.assign(nodes.size(), -1), s.off.assign(nodes.size(), 0),
            s.entry.assign(nodes.size(), -1);
        using Item = std::pair<double, int>;
        std::priority_queue<Item, std::vector<Item>, std::greater<>> next;
        const auto offer = [&](int n, double d, int by, double off, int entry) {
            const auto i = std::size_t(n);
            if (d < s.far[i] - 1e-12) s.far[i] = d, s.by[i] = by, s.off[i] = off, s.entry[i] = entry, next.push({d, n});
        };
        for (std::size_t i = 0; i < edges.size(); ++i) {
            if (!onLevel(edges[i], place.level)) continue;
            const Point m = meets(edges[i], place.at);
            const double off = orthogonal(place.at, m);
            s.entries.push_back({int(i), m});
            offer(edges[i].a, beside * off + distance(m, nodes[std::size_t(edges[i].a)].at), -1, off,
                  int(s.entries.size()) - 1);
            offer(edges[i].b, beside * off + distance(m, nodes[std::size_t(edges[i].b)].at), -1, off,
                  int(s.entries.size()) - 1);
        }
        for (std::size_t i = 0; i < nodes.size(); ++i) // a riser alone on its level is walked to as well
            if (nodes[i].level == place.level &&
                std::all_of(at[i].begin(), at[i].end(), [&](int e) { return edges[std::size_t(e)].riser; })) {
                s.entries.push_back({at[i].empty() ? -1 : at[i].front(), nodes[i].at});
                offer(int(i), beside * orthogonal(place.at, nodes[i].at), -1, orthogonal(place.at, nodes[i].at),
                      int(s.entries.size()) - 1);
            }
        while (!next.empty()) {
            const auto [d, n] = next.top();
            next.pop();
            if (d > s.far[std::size_t(n)]) continue;
            for (int e : at[std::size_t(n)]) {
                const Edge& edge = edges[std::size_t(e)];
                offer(edge.a == n ? edge.b : edge.a, d + edge.length, e, s.off[std::size_t(n)],
                      s.entry[std::size_t(n)]);
            }
        }
        return s;
    }
};

TrayGraph::TrayGraph(const Project& p) : parts(std::make_unique<Parts>(p)) {}
TrayGraph::~TrayGraph() = default;
bool TrayGraph::empty() const { return parts->edges.empty(); }

std::optional<TrayRoute> TrayGraph::route(const Place& from, const Place& to) const {
    const Parts& g = *parts;
    if (g.edges.empty()) return std::nullopt;
    const auto& s = g.from(from);
    double best = never, bestOff = 0;
    int node = -1, edge = -1, straight = -1;
    Point exit;
    for (std::size_t i = 0; i < g.edges.size(); ++i) {
        const auto& e = g.edges[i];
        if (!g.onLevel(e, to.level)) continue;
        const Point m = g.meets(e, to.at);
        const double off = orthogonal(to.at, m);
        for (int n : {e.a, e.b}) {
            const double d = s.far[std::size_t(n)] + distance(m, g.nodes[std::size_t(n)].at) + beside * off;
            if (d < best - 1e-12) best = d, bestOff = off, node = n, edge = int(i), exit = m, straight = -1;
        }
        for (std::size_t k = 0; k < s.entries.size(); ++k) // on and off the same piece
            if (s.entries[k].first == int(i) && !e.riser) {
                const double d =
                    beside * (orthogonal(from.at, s.entries[k].second) + off) + distance(s.entries[k].second, m);
                if (d < best - 1e-12) best = d, bestOff = off, node = -1, edge = int(i), exit = m, straight = int(k);
            }
    }
    for (std::size_t i = 0; i < g.nodes.size(); ++i)
        if (g.nodes[i].level == to.level && s.far[i] < never &&
            std::all_of(g.at[i].begin(), g.at[i].end(), [&](int e) { return g.edges[std::size_t(e)].riser; })) {
            const double off = orthogonal(to.at, g.nodes[i].at);
            if (s.far[i] + beside * off < best - 1e-12)
                best = s.far[i] + beside * off, bestOff = off, node = int(i),
                edge = g.at[i].empty() ? -1 : g.at[i].front(), exit = g.nodes[i].at, straight = -1;
        }
    if (best == never || edge < 0) return std::nullopt;
    TrayRoute r;
    r.path.push_back({to.level, to.at});
    r.path.push_back({to.level, exit});
    r.trays.push_back(g.edges[std::size_t(edge)].tray);
    double offStart = 0;
    TrayId first = g.edges[std::size_t(edge)].tray;
    if (straight >= 0) {
        const Point m = s.entries[std::size_t(straight)].second;
        r.along = distance(m, exit);
        r.path.push_back({from.level, m});
        offStart = orthogonal(from.at, m);
    } else {
        r.along = distance(exit, g.nodes[std::size_t(node)].at);
        for (int n = node;;) {
            r.path.push_back({g.nodes[std::size_t(n)].level, g.nodes[std::size_t(n)].at});
            const int by = s.by[std::size_t(n)];
            if (by < 0) {
                const auto& [e, m] = s.entries[std::size_t(s.entry[std::size_t(n)])];
                r.along += distance(m, g.nodes[std::size_t(n)].at);
                r.path.push_back({from.level, m});
                if (e >= 0) r.trays.push_back(g.edges[std::size_t(e)].tray), first = g.edges[std::size_t(e)].tray;
                offStart = s.off[std::size_t(n)];
                break;
            }
            const auto& e = g.edges[std::size_t(by)];
            (e.riser ? r.rise : r.along) += e.length;
            r.trays.push_back(e.tray);
            n = e.a == n ? e.b : e.a;
        }
    }
    r.path.push_back({from.level, from.at});
    r.off = offStart + bestOff;
    const auto heightOf = [&](TrayId id, LevelId level) {
        const Tray& t = g.p.trays[id];
        const Level* l = g.p.levels.find(level);
        return t.riseTo && l ? l->height - g.p.basis.routeBelowCeiling : t.height;
    };
    r.height = heightOf(first, from.level);
    r.heightEnd = heightOf(g.edges[std::size_t(edge)].tray, to.level);
    std::reverse(r.path.begin(), r.path.end());
    std::reverse(r.trays.begin(), r.trays.end());
    r.trays.erase(std::unique(r.trays.begin(), r.trays.end()), r.trays.end());
    return r;
}

std::optional<Measured> measure(const Project& p, const Place& from, const Place& to, const TrayGraph* trays,
                                RouteBy by) {
    const auto direct = measure(p, from, to);
    if (!direct || !trays || by == RouteBy::Direct) return direct;
    const auto r = trays->route(from, to);
    // By itself a run takes the tray where that leaves less than half of its way to be made beside it.
    if (!r || (by == RouteBy::Auto && r->off > direct->across.v / 2)) return direct;
    Measured m;
    m.up = Metres{std::abs(r->height - from.height)};
    m.across = Metres{r->off + r->along + r->rise};
    m.down = Metres{std::abs(r->heightEnd - to.height)};
    m.total = (m.up + m.across + m.down) * (1 + p.basis.slack);
    m.byTray = true;
    return m;
}

std::map<TrayId, TrayLoad> trayLoads(const Project& p) {
    std::map<TrayId, TrayLoad> out;
    const TrayGraph graph(p);
    if (graph.empty()) return out;
    const auto add = [&](Ref what, RunId run, const std::optional<Place>& from, const std::optional<Place>& to) {
        const Run* r = p.runs.find(run);
        if (!from || !to || (r && (r->lengthBy == LengthBy::Entered || r->lengthBy == LengthBy::Traced))) return;
        const auto m = measure(p, *from, *to, &graph, r ? r->route : RouteBy::Auto);
        if (!m || !m->byTray) return;
        const auto way = graph.route(*from, *to);
        for (TrayId t : way->trays) out[t].runs.push_back(what);
    };
    std::map<CircuitId, std::vector<const Device*>> devices;
    for (const Device& d : p.devices)
        if (d.circuit) devices[d.circuit].push_back(&d);
    for (const Circuit& c : p.circuits) {
        const Board* b = p.boards.find(c.board);
        const auto it = devices.find(c.id);
        if (!b || it == devices.end()) continue;
        const Device* farthest = *std::max_element(it->second.begin(), it->second.end(), [&](auto* x, auto* y) {
            return orthogonal(b->at, x->at) < orthogonal(b->at, y->at);
        });
        add(c.id, c.run, placeOf(p, Ref(b->id)), placeOf(p, *farthest));
    }
    const auto above = [&](Ref feed) {
        if (const Circuit* c = p.circuits.find(feed.as<Circuit>())) feed = c->board;
        return placeOf(p, feed);
    };
    for (const Board& b : p.boards) add(b.id, b.run, above(b.feed), placeOf(p, Ref(b.id)));
    for (const Transformer& t : p.transformers) add(t.id, t.run, above(t.feed), placeOf(p, Ref(t.id)));
    return out;
}

} // namespace lintel
