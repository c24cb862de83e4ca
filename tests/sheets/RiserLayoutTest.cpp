// The riser of many buildings: everything on its own floor, no two boxes over one another, no line through a box.

#include "core/sheets/Sheets.h"
#include "tests/Building.h"

using namespace lintel;

namespace {
struct Box { Ref thing; double l, t, r, b; };
bool apart(const Box& x, const Box& y) { return x.r < y.l || y.r < x.l || x.b < y.t || y.b < x.t; }
/// Whether a straight stretch, upright or level, runs through the inside of a box.
bool through(Point a, Point b, const Box& x) {
    const double e = 0.15, l = std::min(a.x, b.x), r = std::max(a.x, b.x), t = std::min(a.y, b.y), m = std::max(a.y, b.y);
    return l < x.r - e && r > x.l + e && t < x.b - e && m > x.t + e;
}
} // namespace

TEST_CASE("risers of forty buildings") {
    for (std::uint32_t seed = 1; seed <= 40; ++seed) {
        INFO("seed " << seed);
        const Project p = randomBuilding(seed, 2 + int(seed) % 16);
        const Results r = solve(p, nec());
        for (const Drawing& d : {riserDiagram({p, nec(), r}), riserBare({p, nec(), r}, 1.5)}) {
            std::vector<Box> boxes;
            for (const Hotspot& h : d.hotspots) // a box of a board is 34 mm wide and 18.5 high
                if (h.thing.is<Board>() && std::abs(h.right - h.left - 34) < 0.01 && std::abs(h.bottom - h.top - 18.5) < 0.01) boxes.push_back({h.thing, h.left, h.top, h.right, h.bottom});
            CHECK(boxes.size() == p.boards.size());
            for (std::size_t i = 0; i < boxes.size(); ++i)
                for (std::size_t k = i + 1; k < boxes.size(); ++k) CHECK(apart(boxes[i], boxes[k]));
            // Boards of a higher floor stand higher on the sheet.
            for (const Box& x : boxes)
                for (const Box& y : boxes) {
                    const double ex = p.levels[p.boards[x.thing.as<Board>()].level].elevation, ey = p.levels[p.boards[y.thing.as<Board>()].level].elevation;
                    if (ex > ey) CHECK(x.b < y.t);
                    if (ex == ey) CHECK(x.t == Approx(y.t));
                }
            int lines = 0;
            for (const Mark& m : d.marks) {
                const auto* l = std::get_if<LineMark>(&m);
                if (!l || l->closed || l->width != 0.5 || l->points.size() < 2) continue;
                if (l->points.size() == 2 && std::abs(l->points[0].y - 20) < 0.01) continue; // the rule below the title
                ++lines;
                for (std::size_t i = 1; i < l->points.size(); ++i) {
                    const Point a = l->points[i - 1], b = l->points[i];
                    CHECK((std::abs(a.x - b.x) < 1e-6 || std::abs(a.y - b.y) < 1e-6));
                    for (const Box& x : boxes) CHECK_FALSE(through(a, b, x));
                }
            }
            CHECK(lines >= int(p.boards.size()));
            for (const Mark& m : d.marks)
                if (const auto* t = std::get_if<TextMark>(&m)) CHECK((t->at.x > 0 && t->at.x < d.width && t->at.y > 0 && t->at.y < d.height));
        }
    }
}

TEST_CASE("an empty project, a board on no floor, a building of a hundred boards") {
    Project empty;
    CHECK(riserDiagram({empty, nec(), solve(empty, nec())}).paper == "Tabloid");
    OneBoard w;
    const Results r = w.solved();
    CHECK(riserDiagram({w.p, nec(), r}).words().find("LP-1") != std::string::npos);
    const Project big = randomBuilding(3, 100);
    const Results rb = solve(big, nec());
    const Drawing d = riserDiagram({big, nec(), rb});
    CHECK((d.paper == "ARCH D" || d.paper == "roll"));
    CHECK(d.width >= 914);
}
