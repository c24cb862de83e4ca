// The riser and the one-line of many buildings, read back from what is drawn: which line joins what, and where words
// stand.

#include "core/base/DataPath.h"
#include "core/drawing/TextWidth.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "core/sheets/RiserPlaces.h"
#include "core/sheets/Sheets.h"
#include "tests/Building.h"

#include <map>
#include <numeric>
#include <set>

using namespace lintel;

namespace {

using Feeds = std::multiset<std::pair<Ref, Ref>>;

bool touches(const Hotspot& h, Point p) {
    const double e = 1e-6;
    const bool level =
        (std::abs(p.y - h.top) < e || std::abs(p.y - h.bottom) < e) && p.x > h.left - e && p.x < h.right + e;
    const bool upright =
        (std::abs(p.x - h.left) < e || std::abs(p.x - h.right) < e) && p.y > h.top - e && p.y < h.bottom + e;
    return level || upright;
}

/// The places of boards, transformers and sources: of a thing's hotspots that of its box or circle comes last.
std::map<Ref, Hotspot> placesOf(const Drawing& d) {
    std::map<Ref, Hotspot> places;
    for (const Hotspot& h : d.hotspots) places[h.thing] = h;
    return places;
}

/// Whatever a line of the drawing joins, by following it: nothing of the project is asked.
Feeds feedsDrawn(const Drawing& d) {
    const auto places = placesOf(d);
    Feeds feeds;
    for (const Mark& m : d.marks) {
        const auto* line = std::get_if<LineMark>(&m);
        if (!line || line->closed || line->width != 0.5) continue;
        const Point start = line->points.front(), end = line->points.back();
        Ref from, to;
        for (const auto& [thing, h] : places) {
            if (touches(h, start)) from = thing;
            if (touches(h, end)) to = thing;
        }
        if (from && to && from != to) feeds.insert({from, to});
    }
    return feeds;
}

Feeds feedsOf(const Project& p, const Results& r) {
    Feeds feeds;
    for (Ref thing : r.order)
        if (const NodeResult& n = *r.node(thing); n.parent && !n.looped) feeds.insert({n.parent, thing});
    for (const Board& b : p.boards)
        if (const Circuit* c = p.circuits.find(b.alternate.as<Circuit>()))
            feeds.insert({c->board, b.id});
        else if (b.alternate)
            feeds.insert({b.alternate, b.id});
    // Large equipment: what takes all lines of a switchboard or motor control centre, motors there, and capacitors.
    for (const Circuit& c : p.circuits) {
        const Board& b = p.boards[c.board];
        const CircuitResult& n = r.of(c.id);
        if (n.feeder || n.va <= 0 || !n.placed) continue;
        const bool large = c.poles == factsOf(b.system).lines, motor = n.kind == LoadKind::Motor;
        const bool heavy = b.use == BoardUse::Switchboard || b.use == BoardUse::Busway;
        if ((heavy && large) || (b.use == BoardUse::MotorControl && (large || motor)) ||
            (n.kind == LoadKind::Capacitor && !n.mixed))
            feeds.insert({b.id, c.id});
    }
    return feeds;
}

bool onStretch(Point p, Point a, Point b) {
    const double long2 = (b.x - a.x) * (b.x - a.x) + (b.y - a.y) * (b.y - a.y);
    const double t =
        long2 > 0 ? std::clamp(((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / long2, 0.0, 1.0) : 0;
    return std::hypot(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y)) < 0.02;
}

/// Which lines a reader takes for one wire: those of which one ends on another. A number for each mark.
std::vector<std::size_t> wiresOf(const std::vector<const LineMark*>& lines) {
    std::vector<std::size_t> wire(lines.size());
    std::iota(wire.begin(), wire.end(), 0);
    const auto top = [&](std::size_t i) {
        while (wire[i] != i) i = wire[i];
        return i;
    };
    for (std::size_t i = 0; i < lines.size(); ++i)
        for (std::size_t k = 0; k < lines.size(); ++k)
            for (Point end : {lines[i]->points.front(), lines[i]->points.back()})
                for (std::size_t n = 1; i != k && n < lines[k]->points.size(); ++n)
                    if (onStretch(end, lines[k]->points[n - 1], lines[k]->points[n])) wire[top(i)] = top(k);
    for (std::size_t i = 0; i < lines.size(); ++i) wire[i] = top(i);
    return wire;
}

/// Feeders that are drawn as one wire with one that leaves another thing: the two sides of a transformer, say.
int joinedWrongly(const Drawing& d) {
    const auto places = placesOf(d);
    std::vector<const LineMark*> lines;
    for (const Mark& m : d.marks)
        if (const auto* line = std::get_if<LineMark>(&m); line && !line->closed && line->width >= 0.5)
            lines.push_back(line);
    const std::vector<std::size_t> wire = wiresOf(lines);
    std::map<std::size_t, Ref> leaves;
    int wrong = 0;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        Ref from, to;
        for (const auto& [thing, h] : places) {
            if (touches(h, lines[i]->points.front())) from = thing;
            if (touches(h, lines[i]->points.back())) to = thing;
        }
        if (!from || !to || from == to) continue; // within a thing, or between two sheets
        const auto [known, first] = leaves.try_emplace(wire[i], from);
        wrong += !first && known->second != from;
    }
    return wrong;
}

void wordsOnPaper(const Drawing& d) {
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) {
            INFO(t->text);
            const double wide = std::min(t->within > 0 ? t->within : 1e9, textWidth(t->text, t->size, t->bold));
            const double left = t->at.x - (t->align == Align::Left ? 0 : t->align == Align::Centre ? wide / 2 : wide);
            CHECK(left >= 0);
            CHECK(left + wide <= d.width);
            CHECK(t->at.y > 0);
            CHECK(t->at.y < d.height);
        }
}

/// A switchboard that feeds LP-2 to LP-6.
struct FiveBoards : OneBoard {
    std::vector<BoardId> boards;
    FiveBoards() {
        p.boards.change(board)->use = BoardUse::Switchboard;
        for (int i = 2; i <= 6; ++i) {
            Board b;
            b.name = "LP-" + std::to_string(i);
            b.onPlan = false;
            b.level = p.levels.begin()->id;
            boards.push_back(addBoard(p, b));
            feedFrom(p, boards.back(), board);
        }
    }
};

} // namespace

TEST_CASE("the lines of forty risers and one-lines, followed from end to end, give the tree of the project and nothing "
          "else") {
    for (std::uint32_t seed = 1; seed <= 40; ++seed) {
        INFO("seed " << seed);
        Project p = randomBuilding(seed, 2 + int(seed) % 16);
        if (seed % 2) equip(p, seed);
        const Results r = solve(p, nec());
        for (RiserLayout layout : {RiserLayout::ByFloor, RiserLayout::OneLine}) {
            const auto sheets = riserDiagram({p, nec(), r}, layout, "E-501");
            const RiserExtent extent = riserExtent({p, nec(), r}, layout);
            REQUIRE(sheets.size() == extent.pages);
            CHECK(sheets.front().paper == extent.paper);
            for (const Drawing& d : sheets) wordsOnPaper(d);
            if (sheets.size() == 1) CHECK(feedsDrawn(sheets.front()) == feedsOf(p, r));
            for (double width : {300.0, 600.0}) {
                const Drawing bare = riserBare({p, nec(), r}, layout, width);
                CHECK(feedsDrawn(bare) == feedsOf(p, r));
                CHECK(joinedWrongly(bare) == 0);
            }
        }
        // Boards of a higher floor stand higher on the sheet.
        const auto places = placesOf(riserBare({p, nec(), r}, RiserLayout::ByFloor, 400));
        for (const Board& x : p.boards)
            for (const Board& y : p.boards)
                if (p.levels[x.level].elevation > p.levels[y.level].elevation)
                    CHECK(places.at(x.id).bottom < places.at(y.id).top);
    }
}

TEST_CASE("the demos' risers show each feeder with its own device, size and length, and the alternate supply as a line "
          "of its own") {
    const Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const Results r = solve(p, nec());
    for (RiserLayout layout : {RiserLayout::ByFloor, RiserLayout::OneLine}) {
        const auto sheets = riserDiagram({p, nec(), r}, layout, "E-501");
        REQUIRE(sheets.size() == 1);
        CHECK(sheets[0].paper == "ARCH D");
        CHECK(feedsDrawn(sheets[0]) == feedsOf(p, r));
        const std::string words = "\n" + sheets[0].words();
        for (const char* name :
             {"MDS", "HM-1", "LP-1", "LP-2", "T-1", "Utility", "G-1", "F-2", "400/3", "4 × 500 kcmil, #3 gnd",
              "EMT 3, 81 ft, 0.3 %", "F-18, alternate", "ATS-1", "M-1", "GD-1"}) {
            INFO(name);
            CHECK(words.find("\n" + std::string(name) + "\n") != std::string::npos);
        }
        int devices = 0; // one for each feeder that leaves a circuit of a board, and one in the legend
        for (const Mark& m : sheets[0].marks)
            if (const auto* l = std::get_if<LineMark>(&m);
                l && l->closed && l->points.size() == 4 && std::abs(l->points[1].x - l->points[0].x - 2.4) < 1e-9)
                ++devices;
        int feeders = 0;
        for (Ref thing : r.order) feeders += bool(r.node(thing)->via);
        for (const auto& [from, to] : feedsOf(p, r)) feeders += to.is<Circuit>();
        CHECK(devices == feeders + 1);
    }
}

TEST_CASE("a transformer between boards of one floor, fed from below: its two sides are not joined") {
    const Project p = *loadProject(dataFolder() / "starters" / "us-480.lintel");
    REQUIRE(p.transformers.size() == 1);
    const Results r = solve(p, nec());
    for (double width : {300.0, 600.0}) {
        const Drawing d = riserBare({p, nec(), r}, RiserLayout::ByFloor, width);
        CHECK(feedsDrawn(d) == feedsOf(p, r));
        CHECK(joinedWrongly(d) == 0);
    }
}

TEST_CASE("an empty project and a board on no floor have a riser") {
    Project empty;
    for (RiserLayout layout : {RiserLayout::ByFloor, RiserLayout::OneLine}) {
        const auto sheets = riserDiagram({empty, nec(), solve(empty, nec())}, layout);
        REQUIRE(sheets.size() == 1);
        CHECK(sheets[0].paper == "Tabloid");
    }
    OneBoard w;
    const Results r = w.solved();
    CHECK(riserDiagram({w.p, nec(), r}, RiserLayout::ByFloor)[0].words().find("LP-1") != std::string::npos);
}

TEST_CASE("forty boards go on one ARCH D, eighty on one ARCH E1, more go on beyond a match line on further sheets") {
    const auto papers = [](const Project& p, RiserLayout layout) {
        const Results r = solve(p, nec());
        const auto sheets = riserDiagram({p, nec(), r}, layout, "E-501");
        std::vector<std::string> all;
        for (const Drawing& d : sheets) all.push_back(d.paper);
        if (sheets.size() == 1) CHECK(feedsDrawn(sheets[0]) == feedsOf(p, r));
        return all;
    };
    CHECK(papers(tower(8, 5), RiserLayout::ByFloor) == std::vector<std::string>{"ARCH D"});
    CHECK(papers(tower(8, 5), RiserLayout::OneLine) == std::vector<std::string>{"ARCH D"});
    CHECK(papers(tower(8, 10), RiserLayout::ByFloor) == std::vector<std::string>{"ARCH E1"});

    const Project big = tower(40, 5);
    const Results r = solve(big, nec());
    const auto sheets = riserDiagram({big, nec(), r}, RiserLayout::ByFloor, "E-501");
    REQUIRE(sheets.size() > 1);
    std::multiset<Ref> shown;
    for (std::size_t i = 0; i < sheets.size(); ++i) {
        CHECK(sheets[i].paper == "ARCH E1");
        CHECK(sheets[i].number == (i == 0 ? "E-501" : "E-501." + std::to_string(i + 1)));
        const std::string words = sheets[i].words();
        if (i + 1 < sheets.size())
            CHECK(words.find("Match line: goes on below on E-501." + std::to_string(i + 2)) != std::string::npos);
        if (i > 0) CHECK(words.find("Match line: goes on above on E-501") != std::string::npos);
        for (const auto& [thing, h] : placesOf(sheets[i])) shown.insert(thing);
        wordsOnPaper(sheets[i]);
    }
    for (const Board& b : big.boards) CHECK(shown.count(b.id) >= 1);
}

TEST_CASE("what is put somewhere by hand on the riser stays there, and every line still joins what it joined") {
    for (std::uint32_t seed = 1; seed <= 30; ++seed) {
        INFO("seed " << seed);
        Project p = randomBuilding(seed, 4 + int(seed) % 14);
        if (seed % 3) equip(p, seed);
        const Results r = solve(p, nec());
        const Feeds feeds = feedsOf(p, r);
        Random random(seed);
        const auto& order = r.order;
        for (int k = 0; k < 12; ++k) {
            const Ref thing = order[std::size_t(random(int(order.size())))];
            const std::vector<Ref> beside = drawnBeside(p, r, thing);
            if (beside.empty()) continue;
            if (random(4) == 0) setLineLower(p, thing, random(8));
            if (random(4) == 0) setWordsLift(p, thing, random(40));
            if (random(3) == 0)
                setGapBefore(p, thing, random(120));
            else if (random(2) == 0)
                (void)moveBeside(p, r, thing, random(2) ? 1 : -1);
            else
                placeBehind(p, thing, beside[std::size_t(random(int(beside.size())))]);
        }
        REQUIRE_FALSE(validate(p));
        for (RiserLayout layout : {RiserLayout::ByFloor, RiserLayout::OneLine})
            CHECK(feedsDrawn(riserBare({p, nec(), r}, layout, 500)) == feeds);
    }
}

TEST_CASE("while a distribution grows, the rows of the riser on the screen stay as they were as long as they fit") {
    for (unsigned seed = 1; seed <= 12; ++seed) {
        INFO("seed " << seed);
        Project p = randomBuilding(seed, 3 + int(seed) % 12);
        const double width = 300 + 60 * double(seed % 4);
        const Results r = solve(p, nec());
        std::optional<std::size_t> rows;
        const Drawing first = riserBare({p, nec(), r}, RiserLayout::ByFloor, width, {}, &rows);
        REQUIRE(rows);
        CHECK(first.marks == riserBare({p, nec(), r}, RiserLayout::ByFloor, width).marks); // the best there is
        for (std::size_t way = 0; way < 3; ++way) {                                        // whichever was there before
            std::optional<std::size_t> kept = way;
            const Drawing d = riserBare({p, nec(), r}, RiserLayout::ByFloor, width, {}, &kept);
            CHECK(feedsDrawn(d) == feedsOf(p, r));
            CHECK(joinedWrongly(d) == 0);
            CHECK(d.width <= std::max(width, first.width) + 1);
            if (kept != way) CHECK(kept == rows); // it had become too wide
        }
    }
}

TEST_CASE("boards below one switchboard are drawn in the order that somebody gives them, with the room he wants") {
    FiveBoards w;
    std::vector<BoardId>& boards = w.boards;
    const Results r = w.solved();
    const auto drawn = [&] {
        const auto places = placesOf(riserBare({w.p, nec(), r}, RiserLayout::OneLine, 2000));
        std::vector<std::pair<double, std::string>> by;
        for (BoardId b : boards) by.push_back({places.at(b).left, nameOf(w.p, b)});
        std::sort(by.begin(), by.end());
        std::string names;
        for (const auto& [left, name] : by) names += (names.empty() ? "" : " ") + name;
        return names;
    };
    CHECK(drawn() == "LP-2 LP-3 LP-4 LP-5 LP-6");
    REQUIRE(moveBeside(w.p, r, boards[4], -1));
    CHECK(drawn() == "LP-2 LP-3 LP-4 LP-6 LP-5");
    REQUIRE(moveBeside(w.p, r, boards[4], -1));
    REQUIRE(moveBeside(w.p, r, boards[0], 1));
    CHECK(drawn() == "LP-3 LP-2 LP-6 LP-4 LP-5");
    placeBehind(w.p, boards[3], {});
    CHECK(drawn() == "LP-5 LP-3 LP-2 LP-6 LP-4");
    CHECK_FALSE(moveBeside(w.p, r, boards[3], -1)); // it is the first
    // What is added stands at the end; what is let go, where it would by itself.
    Board b;
    b.name = "LP-7";
    boards.push_back(addBoard(w.p, b));
    feedFrom(w.p, boards.back(), w.board);
    const Results more = w.solved();
    const auto places = placesOf(riserBare({w.p, nec(), more}, RiserLayout::OneLine, 2000));
    CHECK(places.at(boards.back()).left > places.at(boards[2]).left);
    const double before = places.at(boards[2]).left - places.at(boards[4]).right;
    setGapBefore(w.p, boards[2], 60);
    const auto wide = placesOf(riserBare({w.p, nec(), more}, RiserLayout::OneLine, 2000));
    CHECK(wide.at(boards[2]).left - wide.at(boards[4]).right == Approx(before + 60));
    for (BoardId id : boards) (void)letPlaceGo(w.p, id);
    CHECK(w.p.riserPlaces.empty());
    boards.pop_back();
    CHECK(drawn() == "LP-2 LP-3 LP-4 LP-5 LP-6");
    // What is removed takes its place along.
    placeBehind(w.p, boards[2], {});
    removeBoard(w.p, boards[2]);
    CHECK(w.p.riserPlaces.empty());
}

TEST_CASE("a feeder's bend and its words are nudged by hand, stay there, and are let go again") {
    FiveBoards w;
    const std::vector<BoardId>& boards = w.boards;
    const Results r = w.solved();
    const BoardId first = boards.front();
    // The lowest level stretch of all lines, and the height of the words of the first feeder above its board.
    const auto drawn = [&] { return riserBare({w.p, nec(), r}, RiserLayout::OneLine, 400); };
    const auto wordsAbove = [&] {
        const Drawing d = drawn();
        double board = 0, words = 1e9;
        for (const Hotspot& h : d.hotspots)
            if (h.thing == Ref(first)) {
                board = std::max(board, h.bottom);
                words = std::min(words, h.top);
            }
        return board - words;
    };
    const double height = drawn().height, above = wordsAbove();
    setWordsLift(w.p, first, 20);
    CHECK(wordsAbove() == Approx(above + 20));
    CHECK(drawn().height == Approx(height + 20));
    setLineLower(w.p, first, 6);
    CHECK(feedsDrawn(drawn()) == feedsOf(w.p, r));
    CHECK(placeByHand(w.p, first).lower == 6);
    const auto read = readProject(writeProject(w.p), "nudges");
    REQUIRE(read);
    CHECK(read->riserPlaces == w.p.riserPlaces);
    setLineLower(w.p, first, 1000);
    REQUIRE_FALSE(validate(w.p));
    CHECK(letPlaceGo(w.p, first));
    CHECK(drawn().height == Approx(height));
    setWordsLift(w.p, first, 5);
    setWordsLift(w.p, first, 0);
    CHECK(w.p.riserPlaces.empty());
}
