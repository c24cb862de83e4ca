#include "core/base/Format.h"
#include "core/sheets/Sheets.h"
#include "core/sheets/Words.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double margin = 14, labelColumn = 34, boxW = 34, boxH = 18.5, pitch = 60, tagRoom = 24, circleR = 4.8, track = 4.4;

struct Node {
    Ref thing, parent;
    std::size_t band = 0;
    double x = 0, y = 0, w = boxW, h = boxH; ///< centre and size
    bool round = false;
    bool lineAbove = false; ///< a line leaves or enters at its top
};
struct Edge {
    std::size_t from, to;
    enum { Straight, Above, Below } way = Straight;
    double exitX = 0, trackY = 0;
    int level = 0; ///< number of the track, from the boxes outwards
};
struct Band {
    LevelId level;
    std::string name;
    double elevation = 0, top = 0, height = 0, boxY = 0;
    int above = 0, below = 0; ///< tracks
};

struct Layout {
    const SheetInput& in;
    std::vector<Band> bands; ///< highest first
    std::vector<Node> nodes;
    std::vector<Edge> edges;
    std::map<Ref, std::size_t> at;

    LevelId levelOf(Ref r) const {
        if (auto* b = in.project.boards.find(r.as<Board>())) return b->level;
        if (auto* t = in.project.transformers.find(r.as<Transformer>())) return t->level;
        if (auto* s = in.project.sources.find(r.as<Source>())) return s->level;
        return {};
    }

    void makeBands() {
        for (const Level& l : in.project.levels) bands.push_back({l.id, l.name, l.elevation});
        std::sort(bands.begin(), bands.end(), [](const Band& a, const Band& b) { return a.elevation > b.elevation; });
        std::vector<char> used(bands.size(), 0);
        bool none = bands.empty();
        for (Ref r : in.results.order) {
            bool found = false;
            for (std::size_t i = 0; i < bands.size(); ++i)
                if (bands[i].level == levelOf(r)) used[i] = found = true;
            none = none || !found;
        }
        for (std::size_t i = bands.size(); i-- > 0;)
            if (!used[i]) bands.erase(bands.begin() + std::ptrdiff_t(i));
        if (none) bands.push_back({{}, "Not on a floor", 0});
    }

    /// A walk down the tree puts each node as far left as it may stand: right of what stands on its floor already, never left of
    /// what feeds it, and where the line to it passes other floors, right of what stands there too. So no line that comes
    /// up or down to a node meets a box on its way, and what hangs over its own board goes straight up.
    void makeNodes() {
        std::map<Ref, std::vector<Ref>> below;
        std::vector<Ref> roots;
        for (Ref r : in.results.order) {
            const NodeResult& n = *in.results.node(r);
            if (n.parent && !n.looped) below[n.parent].push_back(r);
            else roots.push_back(r);
        }
        std::vector<double> next(bands.size(), margin + labelColumn + boxW / 2);
        const std::function<void(Ref, std::size_t, double)> walk = [&](Ref r, std::size_t parentBand, double parentX) {
            if (at.count(r)) return;
            Node n;
            n.thing = r;
            n.parent = in.results.node(r)->parent;
            n.round = !r.is<Board>();
            if (n.round) n.w = r.is<Transformer>() ? 3.4 * circleR : 2.6 * circleR, n.h = 2 * circleR;
            n.band = parentBand;
            for (std::size_t i = 0; i < bands.size(); ++i)
                if (bands[i].level == levelOf(r)) n.band = i;
            const std::size_t lo = std::min(n.band, parentBand), hi = std::max(n.band, parentBand);
            n.x = std::max(parentX, next[n.band]);
            for (std::size_t i = lo; i <= hi; ++i)
                if (i != parentBand) n.x = std::max(n.x, next[i]);
            for (std::size_t i = lo; i <= hi; ++i)
                if (i != parentBand || i == n.band) next[i] = n.x + (n.round ? pitch * 0.9 : pitch);
            at[r] = nodes.size();
            nodes.push_back(n);
            auto kids = below[r];
            // What leaves the floor first, floor by floor; then its own floor, single ones before whole trees.
            std::stable_sort(kids.begin(), kids.end(), [&](Ref a, Ref b) {
                const auto key = [&](Ref k) { return std::tuple(levelOf(k) == levelOf(r), below[k].size(), nameOf(in.project, k)); };
                return key(a) < key(b);
            });
            const double x = n.x;
            const std::size_t band = n.band;
            for (Ref k : kids) walk(k, band, x);
        };
        double start = margin + labelColumn + boxW / 2;
        for (Ref r : roots) {
            std::size_t band = 0;
            for (std::size_t i = 0; i < bands.size(); ++i)
                if (bands[i].level == levelOf(r)) band = i;
            walk(r, band, start);
            start = *std::max_element(next.begin(), next.end()); // the next tree stands clear of this one
        }
        for (std::size_t i = 0; i < nodes.size(); ++i)
            if (nodes[i].parent && at.count(nodes[i].parent) && !in.results.node(nodes[i].thing)->looped) edges.push_back({at[nodes[i].parent], i});
    }
    /// Whether anything stands between two nodes of one floor.
    bool neighbours(const Node& a, const Node& b) const {
        return a.band == b.band && std::none_of(nodes.begin(), nodes.end(), [&](const Node& n) { return n.band == a.band && n.x > a.x + 1 && n.x < b.x - 1; });
    }

    void routeEdges() {
        for (std::size_t n = 0; n < nodes.size(); ++n) {
            std::vector<Edge*> up, down;
            for (Edge& e : edges) {
                if (e.from != n) continue;
                const Node &a = nodes[e.from], &b = nodes[e.to];
                if (b.x > a.x && neighbours(a, b)) e.way = Edge::Straight;
                else if (b.band <= a.band) up.push_back(&e), e.way = Edge::Above;
                else down.push_back(&e), e.way = Edge::Below;
            }
            place(n, up);
            place(n, down);
        }
        for (const Edge& e : edges) {
            if (e.way == Edge::Above) nodes[e.from].lineAbove = true;
            if (e.way != Edge::Straight && (nodes[e.to].band > nodes[e.from].band || (e.way == Edge::Above && nodes[e.to].band == nodes[e.from].band))) nodes[e.to].lineAbove = true;
        }
        pack();
    }
    /// Exits side by side along the box, so ordered that lines of one box do not cross: those that leave the floor nearest
    /// first on the outer tracks, then those that come back to their own floor, nearest on the innermost.
    void place(std::size_t n, std::vector<Edge*>& list) {
        if (list.empty()) return;
        std::stable_sort(list.begin(), list.end(), [&](const Edge* a, const Edge* b) {
            const bool sa = nodes[a->to].band == nodes[n].band, sb = nodes[b->to].band == nodes[n].band;
            if (sa != sb) return sb;
            return sa ? nodes[a->to].x > nodes[b->to].x : nodes[a->to].x < nodes[b->to].x;
        });
        // Everything fed stands right of its feed or straight over it: exits from the middle to the right.
        const double half = nodes[n].w * 0.42, step = list.size() > 1 ? half / double(list.size() - 1) : 0;
        for (std::size_t i = 0; i < list.size(); ++i) {
            list[i]->exitX = nodes[n].x + step * double(i);
            list[i]->level = int(list.size() - 1 - i);
        }
    }
    /// Tracks of different boxes on one floor share a height where they do not overlap.
    void pack() {
        for (std::size_t band = 0; band < bands.size(); ++band)
            for (auto way : {Edge::Above, Edge::Below}) {
                struct Span { double a, b; };
                std::vector<std::vector<Span>> tracks;
                std::vector<Edge*> list;
                for (Edge& e : edges)
                    if (e.way == way && nodes[e.from].band == band) list.push_back(&e);
                std::stable_sort(list.begin(), list.end(), [&](const Edge* a, const Edge* b) { return a->from != b->from ? a->from < b->from : a->level < b->level; });
                std::size_t lastFrom = ~std::size_t(0);
                int floor = 0;
                for (Edge* e : list) {
                    if (e->from != lastFrom) floor = 0, lastFrom = e->from;
                    const Span s{std::min(e->exitX, nodes[e->to].x) - 2, std::max(e->exitX, nodes[e->to].x) + 2};
                    std::size_t t = std::size_t(floor);
                    for (;; ++t) {
                        if (t >= tracks.size()) tracks.resize(t + 1);
                        if (std::none_of(tracks[t].begin(), tracks[t].end(), [&](const Span& o) { return s.a < o.b && o.a < s.b; })) break;
                    }
                    tracks[t].push_back(s);
                    e->level = int(t);
                    floor = int(t) + 1;
                }
                (way == Edge::Above ? bands[band].above : bands[band].below) = int(tracks.size());
            }
    }

    double widthNeeded() const {
        double right = 0;
        for (const Node& n : nodes) right = std::max(right, n.x + boxW / 2);
        return right + margin + tagRoom; // the last feeder's tag stands to the right of it
    }

    double setHeights(double top, double available) {
        double needed = 0;
        for (Band& b : bands) {
            b.height = 6 + boxH + 26 + track * (b.above + b.below);
            needed += b.height;
        }
        const double stretch = std::min(1.8, std::max(1.0, available / std::max(1.0, needed)));
        double y = top;
        for (Band& b : bands) {
            b.height *= stretch;
            b.top = y;
            b.boxY = y + (b.height - track * (b.below - b.above)) / 2;
            y += b.height;
        }
        for (Node& n : nodes) n.y = bands[n.band].boxY;
        for (Edge& e : edges) {
            const Node& a = nodes[e.from];
            e.trackY = e.way == Edge::Above ? a.y - boxH / 2 - 10.5 - track * e.level : a.y + boxH / 2 + 5 + track * e.level;
        }
        return y;
    }
};

struct Painter {
    const SheetInput& in;
    Layout& l;
    Drawing& d;

    void bands(double right) {
        for (std::size_t i = 0; i < l.bands.size(); ++i) {
            const Band& b = l.bands[i];
            if (i % 2) d.fill(margin, b.top, right - margin, b.height, Ink::Wash);
            d.line({margin, b.top}, {right, b.top}, 0.12, Ink::Rule);
            d.text({margin + 3, b.boxY}, b.name, 3.4, Align::Left, true, Ink::Ink, labelColumn - 5);
            if (b.level) d.text({margin + 3, b.boxY + 4.4}, elevationWords(b.elevation, in.project.basis.units), 2.8, Align::Left, false, Ink::Quiet);
        }
        if (!l.bands.empty()) d.line({margin, l.bands.back().top + l.bands.back().height}, {right, l.bands.back().top + l.bands.back().height}, 0.12, Ink::Rule);
    }

    void edge(const Edge& e) {
        const Node &a = l.nodes[e.from], &b = l.nodes[e.to];
        const NodeResult& n = *in.results.node(b.thing);
        const bool over = n.run.size < 0 || n.run.tooSmall || n.run.dropOwn > n.run.need.ownLimit;
        const Ink ink = over ? Ink::Stop : Ink::Ink;
        const std::string tag = runTag(b.thing);
        const std::string size = n.run.size >= 0 ? conductorWords(n.run, in.book) : "–";
        const std::string run = n.run.need.lengthKnown ? lengthOf(n.run.need, in.project.basis.units) + " · " + percent(n.run.dropOwn) : "no length";
        if (e.way == Edge::Straight) {
            const double x1 = a.x + a.w / 2, x2 = b.x - b.w / 2;
            d.line({x1, a.y}, {x2, b.y}, 0.5, ink);
            const double mid = (x1 + x2) / 2, w = x2 - x1 - 1.5; // set narrower where the gap asks for it
            d.text({mid, a.y - 1.4}, tag, 2.6, Align::Centre, true);
            d.lastText()->halo = true;
            d.text({mid, a.y + 3.9}, size, 2.5, Align::Centre, false, Ink::Quiet, w);
            d.lastText()->halo = true;
            d.text({mid, a.y + 7.2}, run, 2.5, Align::Centre, false, Ink::Quiet, w);
            d.lastText()->halo = true;
            d.hotspots.push_back({b.thing, mid - w / 2, a.y - 4, mid + w / 2, a.y + 1});
            return;
        }
        const double start = e.way == Edge::Above ? a.y - a.h / 2 : a.y + a.h / 2;
        const bool fromAbove = b.band == a.band ? e.way == Edge::Above : b.band > a.band;
        const double end = fromAbove ? b.y - b.h / 2 : b.y + b.h / 2;
        d.path({{e.exitX, start}, {e.exitX, e.trackY}, {b.x, e.trackY}, {b.x, end}}, 0.5, ink);
        // Beside the last stretch, near what is fed.
        const double ly = fromAbove ? end - 8.4 - (b.round ? 8 : 0) : end + 4.4 + (b.round ? 8 : 0);
        d.text({b.x + 1.8, ly}, tag, 2.6, Align::Left, true);
        d.lastText()->halo = true;
        d.text({b.x + 1.8, ly + 3.3}, size, 2.5, Align::Left, false, Ink::Quiet, pitch - 6);
        d.lastText()->halo = true;
        d.text({b.x + 1.8, ly + 6.6}, run, 2.5, Align::Left, false, Ink::Quiet, pitch - 6);
        d.lastText()->halo = true;
        d.hotspots.push_back({b.thing, b.x - 1.5, std::min(ly - 3, end), b.x + pitch - 4, std::max(ly + 7, end)});
    }
    std::string runTag(Ref node) const {
        RunId id;
        if (auto* b = in.project.boards.find(node.as<Board>())) id = b->run;
        if (auto* t = in.project.transformers.find(node.as<Transformer>())) id = t->run;
        const Run* r = in.project.runs.find(id);
        return r && !r->name.empty() ? r->name : textOf(id);
    }

    void node(const Node& n) {
        const double left = n.x - n.w / 2, top = n.y - n.h / 2;
        const auto three = [&](const std::string& name, const std::string& one, const std::string& two) {
            // Above, where no line runs; else below.
            const double base = n.lineAbove ? top + n.h + 4.2 : top - 8.4;
            d.text({n.x, base}, name, 3.4, Align::Centre, true);
            d.lastText()->halo = true;
            d.text({n.x, base + 3.7}, one, 2.6, Align::Centre, false, Ink::Quiet);
            d.lastText()->halo = true;
            d.text({n.x, base + 7.1}, two, 2.6, Align::Centre, false, Ink::Quiet);
            d.lastText()->halo = true;
        };
        if (auto* s = in.project.sources.find(n.thing.as<Source>())) {
            circle({n.x, n.y}, circleR);
            const bool generator = s->kind == SourceKind::Generator;
            d.text({n.x, n.y + 1.3}, generator ? "G" : "U", 3.6, Align::Centre, true);
            std::string taken; // what it takes over stands in words: a transfer is no feeder
            for (const Board& b : in.project.boards)
                if (b.alternate == Ref(s->id)) taken += (taken.empty() ? "takes over " : ", ") + b.name;
            three(s->name, generator ? rating(s->kva) + " kVA, " + systemWords(s->system) : systemWords(s->system), taken.empty() ? figures(in.results.of(s->id).fault.worst()) + " kA" : taken);
        } else if (auto* t = in.project.transformers.find(n.thing.as<Transformer>())) {
            const TransformerResult& r = in.results.of(t->id);
            d.line({left, n.y}, {n.x - 1.6 * circleR, n.y}, 0.5);
            d.line({n.x + 1.6 * circleR, n.y}, {left + n.w, n.y}, 0.5);
            circle({n.x - circleR * 0.6, n.y}, circleR, r.use > 1 ? Ink::Stop : Ink::Ink);
            d.marks.push_back(CircleMark{{n.x + circleR * 0.6, n.y}, circleR, 0.5, r.use > 1 ? Ink::Stop : Ink::Ink, false});
            three(t->name, fmt::format("{} kVA · {} %Z", rating(t->kva), figures(t->percentZ)), fmt::format("{} · {} kA", percent(r.use * 100), figures(r.secondary.worst())));
        } else if (auto* b = in.project.boards.find(n.thing.as<Board>())) {
            const BoardResult& r = in.results.of(b->id);
            const bool weak = r.fault.known && r.fault.worst() > b->ratingKA, bad = weak || r.use > 1 || r.looped;
            d.fill(left, top, n.w, n.h, Ink::Paper);
            d.box(left, top, n.w, n.h, b->use == BoardUse::Switchboard ? 0.8 : 0.5, bad ? Ink::Stop : Ink::Ink);
            d.text({n.x, top + 6}, b->name, 3.9, Align::Centre, true, Ink::Ink, n.w - 3);
            d.text({n.x, top + 10.8}, fmt::format("{} A · {}", number(b->bus), percent(r.use * 100)), 2.8, Align::Centre, false, r.use > 1 ? Ink::Stop : Ink::Quiet, n.w - 2);
            d.text({n.x, top + 15}, r.fault.known ? fmt::format("{} of {} kA", faultWords(r.fault), figures(b->ratingKA)) : "not fed", 2.8, Align::Centre, false, weak ? Ink::Stop : Ink::Quiet, n.w - 2);
        }
        d.hotspots.push_back({n.thing, left, n.round ? top - 11 : top, left + n.w, top + n.h});
    }
    void circle(Point c, double r, Ink ink = Ink::Ink) {
        d.marks.push_back(CircleMark{c, r, 0, Ink::Paper, true});
        d.marks.push_back(CircleMark{c, r, 0.5, ink, false});
    }
};

} // namespace

namespace {

/// Lays out and paints on a drawing whose size is set already, below `top`.
void fill(Layout& l, Drawing& d, const SheetInput& in, double top, double bottom) {
    const double wide = l.widthNeeded();
    if (d.width > wide && l.nodes.size() > 1) { // spread over the sheet
        const double x0 = margin + labelColumn + boxW / 2, k = std::min(1.6, (d.width - margin - tagRoom - boxW / 2 - x0) / std::max(1.0, wide - margin - tagRoom - boxW / 2 - x0));
        for (Node& n : l.nodes) {
            const double moved = (n.x - x0) * (k - 1);
            for (Edge& e : l.edges)
                if (l.at[n.thing] == e.from) e.exitX += moved;
            n.x += moved;
        }
    }
    l.setHeights(top, bottom - top);
    Painter p{in, l, d};
    p.bands(d.width - margin);
    for (const Edge& e : l.edges) p.edge(e);
    for (const Node& n : l.nodes) p.node(n);
}

Layout laidOut(const SheetInput& in) {
    Layout l{in, {}, {}, {}, {}};
    l.makeBands();
    l.makeNodes();
    l.routeEdges();
    return l;
}

} // namespace

Drawing riserDiagram(const SheetInput& in, const std::string& number) {
    Drawing d;
    d.title = "Riser diagram";
    d.number = number;
    Layout l = laidOut(in);
    const double top = 26, wide = l.widthNeeded(), tall = l.setHeights(top, 0) + margin + 10;
    const std::array<const char*, 3> papers = in.book.metric() ? std::array{"A3 landscape", "A2", "A1"} : std::array{"Tabloid", "ARCH C", "ARCH D"};
    for (const char* name : papers) {
        d.paper = name;
        d.width = paperSize(name).width, d.height = paperSize(name).height;
        if (wide <= d.width && tall <= d.height) break;
    }
    if (wide > d.width || tall > d.height) { // a larger building makes a longer roll
        d.paper = "roll";
        d.width = std::max(d.width, wide), d.height = std::max(d.height, tall);
    }
    d.text({margin, 17}, "RISER DIAGRAM", 4, Align::Left, true);
    d.text({d.width - margin, 17}, fmt::format("{} · issue {}{}", in.project.basis.title, in.project.basis.issue, in.project.basis.issueDate.empty() ? "" : " · " + in.project.basis.issueDate), 3, Align::Right);
    d.line({margin, 20}, {d.width - margin, 20}, 0.5);
    fill(l, d, in, top, d.height - margin - 8);
    footStrip(d, in, margin);
    return d;
}

Drawing riserBare(const SheetInput& in, double proportion) {
    Drawing d;
    d.title = "Riser";
    Layout l = laidOut(in);
    const double wide = std::max(180.0, l.widthNeeded() - 10), tall = l.setHeights(4, 0) + 4;
    d.width = std::max(wide, tall * proportion);
    d.height = std::max(tall, d.width / proportion);
    fill(l, d, in, 4, d.height - 4);
    return d;
}

} // namespace lintel
