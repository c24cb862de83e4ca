// Sheets that somebody put together from views: where the views stand, that nothing on them is lost, and what becomes
// of the sheets that they had before.

#include "core/compose/ComposedSheet.h"
#include "core/check/Assumptions.h"
#include "core/compare/Merge.h"
#include "core/compose/SheetSet.h"
#include "core/compose/SnapViews.h"
#include "core/compose/Together.h"
#include "core/drawing/PlaceDrawing.h"
#include "core/figures/ScheduleForms.h"
#include "core/issue/Issues.h"
#include "core/lists/List.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/Demo.h"
#include "tests/TextsApart.h"

#include <map>
#include <random>
#include <sstream>

using namespace lintel;

namespace {

bool touch(const ViewSpot& a, const ViewSpot& b, double acrossBy, double belowBy) {
    return a.page == b.page && a.left < b.right() + acrossBy && b.left < a.right() + acrossBy &&
           a.top < b.bottom() + belowBy && b.top < a.bottom() + belowBy;
}

/// The texts of a drawing in any order, how often each.
std::map<std::string, int> textsOf(const std::vector<Drawing>& drawings) {
    std::map<std::string, int> all;
    for (const Drawing& d : drawings)
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m)) ++all[t->text];
    return all;
}

const SheetEntry* find(const std::vector<SheetEntry>& set, SheetKind kind, Ref about) {
    for (const SheetEntry& e : set)
        if (e.kind == kind && e.about == about) return &e;
    return nullptr;
}

std::vector<std::string> numbersOf(const std::vector<SheetEntry>& set) {
    std::vector<std::string> all;
    for (const SheetEntry& e : set) all.push_back(e.number + " " + e.title);
    return all;
}

} // namespace

TEST_CASE("views in rows: none on another, none over the border, none lost, in their order over the pages") {
    const ViewField field{18, 18, 812, 592};
    std::mt19937 random(7);
    for (int round = 0; round < 400; ++round) {
        std::uniform_real_distribution<double> wide(20, 790), high(15, 560), chance(0, 1);
        std::vector<ViewSize> sizes;
        const int n = 1 + round % 30;
        for (int i = 0; i < n; ++i) {
            ViewSize s{{std::uint32_t(i + 1)}, 0, wide(random), high(random), {}};
            if (chance(random) < 0.6) s.width /= 4;
            if (chance(random) < 0.6) s.height /= 4;
            sizes.push_back(s);
        }
        const bool withMoved = round % 3 == 0;
        if (withMoved) sizes[std::size_t(n / 2)].at = Point{18 + 600 * chance(random) * 0.3, 18 + 200 * chance(random)};
        if (withMoved) sizes[std::size_t(n / 2)].page = std::size_t(round % 2);
        const auto spots = layOutViews(sizes, field);
        REQUIRE(spots.size() == sizes.size());
        std::size_t page = 0;
        for (std::size_t i = 0; i < spots.size(); ++i) {
            INFO("round " << round << ", view " << i);
            CHECK(spots[i].view == sizes[i].view);
            if (sizes[i].at) {
                CHECK(spots[i].left == sizes[i].at->x);
                CHECK(spots[i].top == sizes[i].at->y);
                CHECK((spots[i].page == sizes[i].page || (n == 1 && spots[i].page == 0)));
                continue;
            }
            CHECK(spots[i].left >= field.left);
            CHECK(spots[i].top >= field.top);
            CHECK(spots[i].right() <= field.right);
            CHECK(spots[i].bottom() <= field.bottom);
            CHECK(spots[i].page >= page); // the set reads in the order of the views
            page = spots[i].page;
            for (std::size_t k = 0; k < spots.size(); ++k)
                if (k != i) CHECK_FALSE(touch(spots[i], spots[k], viewsAcross - 0.01, viewsBelow - 0.01));
        }
    }
}

TEST_CASE("a view put by hand on a further page stays there; what it goes on with comes after it; no page is empty") {
    const ViewField field{10, 10, 110, 110};
    const ViewSize byHand{{1}, 0, 40, 40, Point{60, 60}, 1};
    const ViewSize itsNext{{1}, 1, 40, 40, {}};
    const ViewSize other{{2}, 0, 90, 90, {}};
    const auto spots = layOutViews({byHand, itsNext, other}, field);
    CHECK(spots[0].page == 1);
    CHECK(spots[0].left == 60);
    CHECK(spots[1].page == 1); // on the page before, it would come ahead of its first part
    CHECK_FALSE(touch(spots[0], spots[1], viewsAcross - 0.01, viewsBelow - 0.01));
    CHECK(spots[2].page == 0);
    // On the third page by hand, though nothing stands on the second: that one is not issued empty.
    ViewSize far = byHand;
    far.page = 2;
    const auto apart = layOutViews({far, other}, field);
    CHECK(apart[0].page == 1);
    CHECK(apart[1].page == 0);
    // What finds its place by itself keeps clear of it there as on the first.
    ViewSize wide = byHand;
    wide.at = Point{10, 10};
    wide.width = 100;
    const auto under = layOutViews({other, wide, {{3}, 0, 90, 40, {}}}, field);
    CHECK(under[2].page == 1);
    CHECK(under[2].top == 10 + 40 + viewsBelow);
}

TEST_CASE("a view larger than the sheet is shown all the same, and told of") {
    const ViewField field{10, 10, 110, 110};
    const auto spots = layOutViews({{{1}, 0, 50, 50, {}}, {{2}, 0, 300, 40, {}}, {{3}, 0, 50, 50, {}}}, field);
    CHECK(spots[0].page == 0);
    CHECK(spots[1].page == 1);
    CHECK(spots[1].left == 10);
    CHECK(spots[2].page >= 1);
    CHECK_FALSE(touch(spots[1], spots[2], 0, 0));
}

TEST_CASE("of sheets made at one go none stands empty, on whatever paper; what goes on takes its pages along") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"})
        for (SheetPaper paper : {SheetPaper::Tabloid, SheetPaper::A3, SheetPaper::ArchC, SheetPaper::A0})
            for (SheetKind kind : {SheetKind::Schedule, SheetKind::Diagram, SheetKind::List}) {
                INFO(name << ", paper " << int(paper) << ", kind " << int(kind));
                const Demo d(name);
                Project p = d.p;
                const auto things = thingsToCompose(d.in, kind);
                const auto made = composeTogether(d.in, p, things, paper);
                CHECK(p.composedSheets.size() == made.size());
                CHECK(p.placedViews.size() == things.size());
                std::set<ComposedSheetId> used;
                for (const PlacedView& v : p.placedViews) used.insert(v.sheet);
                CHECK(used == std::set<ComposedSheetId>(made.begin(), made.end()));
                const SheetInput in{p, d.book, d.r};
                for (ComposedSheetId id : made)
                    for (const Drawing& page : composedPages(in, id, "E-601").pages) {
                        const auto& spots = page.hotspots;
                        CHECK(std::any_of(spots.begin(), spots.end(),
                                          [](const Hotspot& h) { return h.thing.is<PlacedView>(); }));
                    }
            }
}

TEST_CASE("all schedules of a demo on composed sheets: each once, every figure of it, and apart again as before") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        INFO(name);
        const Demo d(name);
        const auto before = numbersOf(issueSet(d.in));
        Project p = d.p;
        const auto things = thingsToCompose(d.in, SheetKind::Schedule);
        std::size_t boards = 0;
        for (const Board& b : p.boards) boards += !passesOn(b.use);
        CHECK(things.size() == boards);
        const auto made = composeTogether(d.in, p, things);
        REQUIRE(made.size() > 0);
        CHECK(made.size() < boards);
        const SheetInput in{p, d.book, d.r};
        const auto set = sheetSet(in);
        std::set<std::string> numbers;
        for (const SheetEntry& e : set) {
            CHECK(numbers.insert(e.number).second);
            CHECK(e.trouble == "");
            if (e.kind == SheetKind::Composed) CHECK(e.number.rfind("E-6", 0) == 0);
        }
        for (const ShownThing& thing : things) {
            const Board& b = p.boards[thing.about.as<Board>()];
            INFO(b.name);
            CHECK_FALSE(find(set, SheetKind::Schedule, b.id));
            std::vector<Drawing> on;
            std::size_t sheets = 0;
            for (const SheetEntry& e : set)
                if (e.shows(SheetKind::Schedule, b.id)) {
                    ++sheets;
                    on.push_back(e.draw());
                }
            CHECK(sheets == 1);
            // Every text of the schedule's own sheet, but for its heading and foot.
            const auto here = textsOf(on);
            for (std::size_t page = 0; page < schedulePages(d.in, b.id); ++page) {
                const Drawing own = panelSchedule(d.in, b.id, "", page);
                for (const Mark& m : own.marks) {
                    const auto* t = std::get_if<TextMark>(&m);
                    if (!t || t->at.y < 16.5 || t->at.y > own.height - 16) continue;
                    INFO(t->text);
                    CHECK(here.count(t->text) > 0);
                }
            }
        }
        for (ComposedSheetId id : made) endComposedSheet(p, id);
        CHECK(p.composedSheets.empty());
        CHECK(p.placedViews.empty());
        CHECK(numbersOf(issueSet({p, d.book, d.r})) == before);
    }
}

TEST_CASE("what the basis wants together is proposed; what comes later goes where there is room, numbers stay") {
    const Demo d("saltmarket-hall");
    Project p = d.p;
    const auto proposals = [&] { return proposedTogether({p, d.book, d.r}); };
    CHECK(proposals().empty()); // the demo wants nothing
    p.basis.sheetsTogether = SheetsTogether::SchedulesAndDiagrams;
    REQUIRE(proposals().size() == 2);
    CHECK(proposals()[0].kind == SheetKind::Schedule);
    CHECK(proposals()[0].things.size() == thingsToCompose(d.in, SheetKind::Schedule).size());
    CHECK(proposals()[1].kind == SheetKind::Diagram);
    CHECK(proposals()[1].things.size() == 2); // of HM-2 and MDS
    const auto made = takeUp({p, d.book, d.r}, p, proposals());
    CHECK(made.size() == p.composedSheets.size());
    CHECK(proposals().empty());
    const auto numbers = numbersOf(issueSet({p, d.book, d.r}));
    // One schedule is taken off, as if its board were new: it goes back on a sheet that is there.
    const PlacedView* off = nullptr;
    for (const PlacedView& v : p.placedViews)
        if (v.shows == SheetKind::Schedule) off = &v;
    REQUIRE(off);
    const Ref board = off->about;
    const ComposedSheetId sheet = off->sheet;
    p.placedViews.remove(off->id);
    REQUIRE(proposals().size() == 1);
    CHECK(proposals()[0].things.size() == 1);
    CHECK(takeUp({p, d.book, d.r}, p, proposals()) == std::vector<ComposedSheetId>{sheet});
    CHECK(numbersOf(issueSet({p, d.book, d.r})) == numbers);
    CHECK(std::count_if(p.placedViews.begin(), p.placedViews.end(),
                        [&](const PlacedView& v) { return v.about == board && v.sheet == sheet; }) == 1);
    // A sheet with notes beside its schedules is somebody's own: nothing is put on it.
    placeView(p, sheet, {SheetKind::Notes, {}, "By hand."});
    for (const PlacedView& v : p.placedViews)
        if (v.about == board) off = &v;
    p.placedViews.remove(off->id);
    CHECK(takeUp({p, d.book, d.r}, p, proposals()) != std::vector<ComposedSheetId>{sheet});
}

TEST_CASE("composed sheets of every kind of view: no text on another, none off the paper") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        const Demo d(name);
        Project p = d.p;
        for (SheetKind kind : {SheetKind::Schedule, SheetKind::Diagram, SheetKind::List})
            composeTogether(d.in, p, thingsToCompose(d.in, kind));
        const ComposedSheetId notes = addComposedSheet(p);
        placeView(p, notes,
                  {SheetKind::Notes, {}, "Verify nameplates before rough-in.\n\nThe owner's phone closet is locked."});
        const SheetInput in{p, d.book, d.r};
        for (const SheetEntry& e : sheetSet(in)) {
            if (e.kind != SheetKind::Composed) continue;
            INFO(name << " " << e.number << " " << e.title);
            CHECK(e.trouble == "");
            const Drawing s = e.draw();
            CHECK(textsOnTexts(s, [](const TextMark& t) { return t.turn == 0; }) == std::vector<std::string>{});
            for (const Mark& m : s.marks)
                if (const auto* t = std::get_if<TextMark>(&m)) {
                    const TextBox box = boxOf(*t);
                    INFO(t->text);
                    CHECK(box.left > 0);
                    CHECK(box.right < s.width);
                    CHECK(box.top > 0);
                    CHECK(box.bottom < s.height);
                }
        }
    }
}

TEST_CASE("a schedule with 160 long notes on a small sheet goes on in further views, every note on one") {
    OneBoard w(VoltageSystem::Y208, 42);
    for (int i = 0; i < 42; ++i)
        w.p.circuits.change(w.circuit(600))->note = "first" + std::to_string(i) + std::string(230, 'x') + " " +
                                                    std::string(230, 'y') + " last" + std::to_string(i);
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    Project p = w.p;
    const ComposedSheetId sheet = addComposedSheet(p, SheetPaper::Tabloid);
    placeView(p, sheet, {SheetKind::Schedule, w.board, {}});
    const ComposedPages pages = composedPages({p, nec(), r}, sheet, "E-601");
    CHECK(pages.pages.size() > 1);
    std::string words;
    for (std::size_t i = 0; i < pages.pages.size(); ++i) {
        CHECK(pages.pages[i].number == (i == 0 ? "E-601" : "E-601." + std::to_string(i + 1)));
        words += pages.pages[i].words();
    }
    for (int i = 0; i < 42; ++i) {
        INFO(i);
        CHECK(words.find("first" + std::to_string(i)) != std::string::npos);
        CHECK(words.find("last" + std::to_string(i) + "\n") != std::string::npos);
    }
}

TEST_CASE("a list longer than the sheet: every row once, headings on each part, notes whole") {
    List list;
    list.key = "long";
    list.title = "Long list";
    list.columns = {{"Name"}, {"Load", "kVA", Align::Right}};
    for (int i = 0; i < 400; ++i) list.add({}, {{"row" + std::to_string(i) + "."}, numberCell(i, 1)});
    list.notes = {"What a reader has to know of it, at some length, so that it takes more than one line of its own."};
    const auto parts = listParts(list, 300, 240);
    CHECK(parts.size() > 5);
    std::map<std::string, int> all = textsOf(parts);
    for (int i = 0; i < 400; ++i) CHECK(all["row" + std::to_string(i) + "."] == 1);
    CHECK(all["Name"] == int(parts.size()));
    std::string words;
    for (const Drawing& d : parts) {
        CHECK(d.height <= 241.1);
        words += d.words();
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m)) {
                CHECK(boxOf(*t).bottom <= d.height + 0.1);
                CHECK(boxOf(*t).right <= d.width + 0.1);
            }
    }
    CHECK(words.find("its own.") != std::string::npos);
}

TEST_CASE("a thing stands on one composed sheet: placed again it is taken from the other; taken off it has its own") {
    const Demo d("saltmarket-hall");
    Project p = d.p;
    const BoardId lp1 = d.board("LP-1");
    const ComposedSheetId first = addComposedSheet(p);
    const ComposedSheetId second = addComposedSheet(p, SheetPaper::ArchE1);
    placeView(p, first, {SheetKind::Schedule, lp1, {}});
    const PlacedViewId there = placeView(p, second, {SheetKind::Schedule, lp1, {}});
    CHECK(p.placedViews.size() == 1);
    const SheetInput in{p, d.book, d.r};
    auto set = sheetSet(in);
    CHECK_FALSE(find(set, SheetKind::Schedule, lp1));
    CHECK(find(set, SheetKind::Composed, second)->shows(SheetKind::Schedule, lp1));
    CHECK_FALSE(find(set, SheetKind::Composed, first)->shows(SheetKind::Schedule, lp1));
    CHECK(find(set, SheetKind::Composed, second)->title == "Panel schedule LP-1");
    CHECK(find(set, SheetKind::Composed, second)->paper == "ARCH E1");
    // A list that is placed is not among the lists on sheets of their own.
    const auto listed = [&](const std::string& title) {
        int n = 0;
        for (const SheetEntry& e : issueSet({p, d.book, d.r}))
            n += textsOf({e.draw()}).count(title) > 0 && !e.views.size();
        return n;
    };
    const std::string feeders = listKind("feeders")->make(d.in).title;
    CHECK(listed(feeders) == 1);
    placeView(p, second, {SheetKind::List, {}, "feeders"});
    CHECK(listed(feeders) == 0);
    takeOff(p, there);
    set = sheetSet({p, d.book, d.r});
    CHECK(find(set, SheetKind::Schedule, lp1));
}

TEST_CASE("a view whose board is gone is told of and draws nothing; one on another too") {
    const Demo d("saltmarket-hall");
    Project p = d.p;
    const BoardId lp4 = d.board("LP-4");
    const ComposedSheetId sheet = addComposedSheet(p);
    placeView(p, sheet, {SheetKind::Schedule, d.board("LP-1"), {}});
    const PlacedViewId second = placeView(p, sheet, {SheetKind::Schedule, lp4, {}});
    moveView(p, second, {30, 30});
    const auto trouble = [&](const Project& of) {
        const Results r = solve(of, d.book);
        const SheetInput in{of, d.book, r};
        const auto set = sheetSet(in);
        return find(set, SheetKind::Composed, sheet)->trouble;
    };
    // The one that finds its place by itself keeps clear of the one that was put there.
    CHECK(trouble(p) == "");
    moveView(p, p.placedViews.begin()->id, {40, 40});
    CHECK(trouble(p) == "Panel schedule LP-4 stands on Panel schedule LP-1");
    const auto gate = issueGate({p, d.book, d.r});
    const auto told = std::find_if(gate.begin(), gate.end(), [](const GateItem& g) {
        return g.what == "1 view on a composed sheet is not as it should be";
    });
    REQUIRE(told != gate.end());
    CHECK(told->details == std::vector<std::string>{"Panel schedule LP-4 stands on Panel schedule LP-1"});
    moveView(p, second, {700, 30});
    CHECK(trouble(p).find("LP-4 reaches over the border") != std::string::npos);
    arrangeAnew(p, sheet);
    CHECK(trouble(p) == "");
    removeBoard(p, lp4);
    CHECK(trouble(p) == "a view \"schedule\" shows what is gone: take it off");
}

TEST_CASE("a composed sheet keeps its number once it went out; a new one does not take it") {
    const Demo d("saltmarket-hall");
    Project p = d.p;
    const ComposedSheetId sheet = addComposedSheet(p);
    placeView(p, sheet, {SheetKind::Schedule, d.board("LP-1"), {}});
    const auto numberOf = [&](const Project& of, ComposedSheetId id) {
        const SheetInput in{of, d.book, d.r};
        const auto set = sheetSet(in);
        const SheetEntry* e = find(set, SheetKind::Composed, id);
        return e ? e->number : "";
    };
    const std::string number = numberOf(p, sheet);
    CHECK(number.rfind("E-6", 0) == 0);
    keepNumbers(p, sheetSet({p, d.book, d.r}));
    placeView(p, sheet, {SheetKind::Lighting, LevelId{1}, {}}); // even where another kind comes to stand first
    CHECK(numberOf(p, sheet) == number);
    Issue issue;
    issue.mark = "T1";
    issue.packed = {"x"};
    p.issues.add(issue);
    endComposedSheet(p, sheet);
    const ComposedSheetId next = addComposedSheet(p);
    CHECK(next != sheet);
    placeView(p, next, {SheetKind::Schedule, d.board("LP-1"), {}});
    CHECK(numberOf(p, next) != number);
}

TEST_CASE("a plan is drawn to its scale: a wall of ten metres is 100 mm at 1:100 and 200 mm at 1:50") {
    Project p;
    p.basis.units = UnitSystem::Metric;
    const LevelId level = p.levels.add({{}, "Ground", 0, 3, {}});
    for (Point b : {Point{10, 0}, Point{0, 6}}) {
        Wall w;
        w.level = level;
        w.b = b;
        p.walls.add(w);
    }
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    const auto widest = [&](double scale) {
        const FloorView v = planOnSheet(in, {level, PlanSystem::All, scale, {}, {}}, 700, 500);
        double least = 1e9, most = -1e9;
        for (const Mark& m : v.drawing.marks)
            if (const auto* l = std::get_if<LineMark>(&m);
                l && v.drawing.layerAt(std::size_t(&m - v.drawing.marks.data())) == Layer::Building)
                for (Point x : l->points) least = std::min(least, x.x), most = std::max(most, x.x);
        return most - least;
    };
    CHECK(widest(100) == Approx(100).margin(3)); // and the thickness of the wall
    CHECK(widest(50) == Approx(200).margin(6));
    CHECK(planOnSheet(in, {level, PlanSystem::All, 0, {}, {}}, 700, 500).scale == "1:20");
    CHECK(planOnSheet(in, {level, PlanSystem::All, 75, {}, {}}, 700, 500).scale == "1:75");
}

TEST_CASE("a dragged view snaps to others and stays on the sheet") {
    const ViewField field{18, 18, 812, 592};
    const std::vector<ViewSpot> others{{{1}, 0, 0, 18, 18, 200, 250}};
    const auto at = [&](double x, double y) { return snapView({{2}, 0, 0, x, y, 150, 100}, others, field, 3); };
    CHECK(at(226, 20).at.x == Approx(18 + 200 + viewsAcross)); // beside it, at the usual distance
    CHECK(at(226, 20).at.y == Approx(18));                     // level with it
    CHECK(at(226, 20).lines.size() == 2);
    CHECK(at(400, 300).at.x == 400); // nothing near
    CHECK(at(400, 300).lines.empty());
    CHECK(at(19, 274).at.y == Approx(18 + 250 + viewsBelow));
    CHECK(at(900, -40).at.x == Approx(812 - 150)); // never over the border
    CHECK(at(900, -40).at.y == Approx(18));
}

TEST_CASE("two people compose at once: what both entered is there after the merge") {
    const Demo d("saltmarket-hall");
    Project base = d.p, ours = base, theirs = base;
    const ComposedSheetId mine = addComposedSheet(ours);
    placeView(ours, mine, {SheetKind::Schedule, d.board("LP-1"), {}});
    theirs.boards.change(d.board("LP-2"))->description = "Kitchens and stores";
    removeBoard(theirs, d.board("LP-4"));
    const Merged merged = mergeProjects(base, ours, theirs);
    CHECK(merged.conflicts.empty());
    CHECK(merged.project.placedViews.size() == 1);
    CHECK(merged.project.boards[d.board("LP-2")].description == "Kitchens and stores");
}

namespace {
/// All ends of lines of a layer, mm.
std::vector<Point> endsOf(const Drawing& d, Layer layer) {
    std::vector<Point> all;
    for (std::size_t i = 0; i < d.marks.size(); ++i)
        if (const auto* l = std::get_if<LineMark>(&d.marks[i]); l && d.layerAt(i) == layer)
            all.insert(all.end(), l->points.begin(), l->points.end());
    return all;
}
double lengthOf(const Drawing& d, Layer layer) {
    double all = 0;
    for (std::size_t i = 0; i < d.marks.size(); ++i)
        if (const auto* l = std::get_if<LineMark>(&d.marks[i]); l && d.layerAt(i) == layer)
            for (std::size_t k = 0; k + (l->closed ? 0 : 1) < l->points.size(); ++k)
                all += distance(l->points[k], l->points[(k + 1) % l->points.size()]);
        else if (const auto* c = std::get_if<CurveMark>(&d.marks[i]); c && d.layerAt(i) == layer)
            for (double t = 0; t < 1; t += 0.01) {
                const auto at = [&](double u) {
                    return c->a * ((1 - u) * (1 - u)) + c->b * (2 * u * (1 - u)) + c->c * (u * u);
                };
                all += distance(at(t), at(t + 0.01));
            }
    return all;
}
} // namespace

TEST_CASE("cut to a box: lines end at its edge, areas and curves too, a symbol and a text whole or not at all") {
    Drawing d;
    d.on(Layer::Building);
    d.path({{-50, 10}, {50, 10}, {50, 90}, {150, 90}});
    d.on(Layer::Power);
    d.fill(80, 80, 60, 60, Ink::Ink);
    d.marks.push_back(CurveMark{{10, 50}, {60, 50}, {160, 50}});
    const std::size_t from = d.marks.size();
    d.line({95, 20}, {105, 20});
    d.symbols.push_back({from, d.marks.size(), Symbol::Receptacle, {98, 20}, 0, 5, Ink::Ink});
    const std::size_t second = d.marks.size();
    d.line({120, 20}, {130, 20});
    d.symbols.push_back({second, d.marks.size(), Symbol::Receptacle, {125, 20}, 0, 5, Ink::Ink});
    d.text({10, 30}, "inside", 3);
    d.text({300, 30}, "outside", 3);
    d.hotspots.push_back({BoardId{1}, 90, 90, 140, 140});
    const Drawing cut = cutDrawing(d, {0, 0, 100, 100});
    CHECK(endsOf(cut, Layer::Building) == std::vector<Point>{{0, 10}, {50, 10}, {50, 90}, {100, 90}});
    const auto* area = std::get_if<FillMark>(&cut.marks[1]);
    REQUIRE(area);
    CHECK(std::abs(areaOf(area->points)) == Approx(20 * 20));
    REQUIRE(cut.symbols.size() == 1);
    CHECK(cut.symbols[0].at == Point{98, 20});
    CHECK(std::get<LineMark>(cut.marks[cut.symbols[0].from]).points == std::vector<Point>{{95, 20}, {105, 20}});
    CHECK(cut.words() == "inside\n");
    REQUIRE(cut.hotspots.size() == 1);
    CHECK(cut.hotspots[0].right == 100);
    for (Point p : endsOf(cut, Layer::Power)) CHECK(p.x <= 105); // the curve ends at the edge; the symbol is whole
}

TEST_CASE("a floor too large for its scale goes on behind match lines: every metre of wall once, every home run once") {
    Demo d("saltmarket-hall");
    const LevelId ground{1};
    const auto whole = planSheets(d.in, ground, "E-201", PlanSystem::Power);
    REQUIRE(whole.size() == 1);
    const double denominator = 16; // three quarters of an inch to the foot: three times as large
    Project p = d.p;
    p.basis.planScale = denominator;
    p.basis.north = 90;
    const SheetInput in{p, d.book, d.r};
    const auto parts = planSheets(in, ground, "E-201", PlanSystem::Power);
    REQUIRE(parts.size() > 3);
    CHECK(parts.size() == planPages(in, ground, PlanSystem::Power).count());
    double walls = 0;
    std::map<std::string, int> said;
    for (std::size_t i = 0; i < parts.size(); ++i) {
        const Drawing& s = parts[i];
        CHECK(s.number == (i == 0 ? "E-201" : "E-201." + std::to_string(i + 1)));
        walls += lengthOf(s, Layer::Building);
        for (const auto& [text, n] : textsOf({s})) said[text] += n;
        CHECK(textsOf({s}).count("1:16") > 0);
        CHECK(textsOf({s}).count("N") > 0);
        CHECK(textsOf({s}).count("Key plan") > 0);
        // Each match line names a sheet that there is.
        for (const auto& [text, n] : textsOf({s}))
            if (text.rfind("Match line", 0) == 0) {
                const std::string to = text.substr(text.rfind(' ') + 1);
                CHECK(std::any_of(parts.begin(), parts.end(), [&](const Drawing& o) { return o.number == to; }));
            }
    }
    // At 1:48 of the usual sheet the same walls are a third as long.
    CHECK(walls == Approx(lengthOf(whole[0], Layer::Building) * 48 / denominator).epsilon(0.002));
    // A home run's words stand on one part, as they stand on the whole floor.
    for (const auto& [text, n] : textsOf(whole))
        if (text.rfind("LP-1-", 0) == 0) {
            INFO(text);
            CHECK(said[text] == n);
        }
    // The set lists the parts; without a scale of its own each floor is one sheet.
    std::size_t listed = 0;
    for (const SheetEntry& e : sheetSet(in)) listed += e.kind == SheetKind::Power && e.about == Ref(ground);
    CHECK(listed == parts.size());
    p.basis.planScale = 0;
    CHECK(planPages(in, ground, PlanSystem::Power).count() == 1);
}

TEST_CASE("an enlarged room shows what is in it and no more, and the plan keeps its own sheet") {
    const Demo d("saltmarket-hall");
    Project p = d.p;
    const BoardId lp1 = d.board("LP-1");
    const RoomId room = roomAt(p, p.boards[lp1].level, p.boards[lp1].at);
    REQUIRE(room);
    Point from{1e9, 1e9}, to{-1e9, -1e9};
    for (Point c : p.rooms[room].outline) {
        from = {std::min(from.x, c.x), std::min(from.y, c.y)};
        to = {std::max(to.x, c.x), std::max(to.y, c.y)};
    }
    const ComposedSheetId sheet = addComposedSheet(p);
    const ShownThing plan{SheetKind::Power, p.rooms[room].level, {}};
    placePart(p, sheet, plan, from, to, "Electrical room, enlarged");
    placePart(p, sheet, plan, from, to, "The same again"); // a part may stand twice
    CHECK(p.placedViews.size() == 2);
    const SheetInput in{p, d.book, d.r};
    const auto set = sheetSet(in);
    CHECK(find(set, SheetKind::Power, plan.about));
    const SheetEntry* e = find(set, SheetKind::Composed, sheet);
    REQUIRE(e);
    CHECK(e->trouble == "");
    const Drawing s = e->draw();
    bool has = false;
    for (const Hotspot& h : s.hotspots) {
        has = has || h.thing == Ref(lp1);
        if (const Device* x = p.devices.find(h.thing.as<Device>())) CHECK(roomAt(p, x->level, x->at) == room);
    }
    CHECK(has);
    CHECK(textsOf({s}).count("Electrical room, enlarged") == 1);
}

TEST_CASE("moved by hand: the others on the sheet stay where they are") {
    const Demo d("saltmarket-hall");
    Project p = d.p;
    const ComposedSheetId sheet = addComposedSheet(p);
    std::vector<PlacedViewId> views;
    for (const char* name : {"LP-1", "LP-2", "LP-4", "HM-1", "HL-1"})
        views.push_back(placeView(p, sheet, {SheetKind::Schedule, d.board(name), {}}));
    const SheetInput in{p, d.book, d.r};
    const auto spots = [&] {
        std::map<PlacedViewId, Point> all;
        for (const ViewSpot& s : composedPages(in, sheet, "").spots) all[s.view] = {s.left, s.top};
        return all;
    };
    const auto before = spots();
    const Project was = p;
    moveByHand({was, d.book, d.r}, p, views[1], {300, 320});
    const auto after = spots();
    CHECK(after.at(views[1]) == Point{300, 320});
    for (PlacedViewId id : views)
        if (id != views[1]) {
            CHECK(after.at(id).x == Approx(before.at(id).x));
            CHECK(after.at(id).y == Approx(before.at(id).y));
        }
    // The same for one that comes to stand there as it is placed.
    arrangeAnew(p, sheet);
    const Project arranged = p;
    const PlacedViewId fresh = placeView(p, sheet, {SheetKind::Schedule, d.board("LP-3"), {}});
    moveByHand({arranged, d.book, d.r}, p, fresh, {600, 320});
    CHECK(spots().at(fresh) == Point{600, 320});
    for (PlacedViewId id : views) CHECK(spots().at(id).y == Approx(before.at(id).y));
    takeOff(p, fresh);
    arrangeAnew(p, sheet);
    CHECK(spots() == before);
}

TEST_CASE("moved by hand on the second page, or onto it: the others keep their places, and it keeps its page") {
    const Demo d("saltmarket-hall");
    Project p = d.p;
    const ComposedSheetId sheet = addComposedSheet(p, SheetPaper::Tabloid);
    std::vector<PlacedViewId> views;
    for (const char* name : {"LP-1", "LP-2", "LP-4", "HM-1", "HL-1"})
        views.push_back(placeView(p, sheet, {SheetKind::Schedule, d.board(name), {}}));
    const auto spots = [&] {
        std::map<PlacedViewId, ViewSpot> all;
        for (const ViewSpot& s : composedPages({p, d.book, d.r}, sheet, "").spots)
            if (s.part == 0) all[s.view] = s;
        return all;
    };
    const auto before = spots();
    const auto second =
        std::find_if(views.begin(), views.end(), [&](PlacedViewId v) { return before.at(v).page == 1; });
    REQUIRE(second != views.end());
    Project was = p;
    moveByHand({was, d.book, d.r}, p, *second, {33, 44}, 1);
    CHECK(p.placedViews[*second].page == 2);
    CHECK(spots().at(*second).page == 1);
    CHECK(spots().at(*second).left == Approx(33));
    for (PlacedViewId v : views) {
        CHECK(spots().at(v).page == before.at(v).page);
        if (v == *second) continue;
        CHECK(spots().at(v).left == Approx(before.at(v).left));
        CHECK(spots().at(v).top == Approx(before.at(v).top));
    }
    // The first view goes over to the second page; it stays in the file and comes back whole.
    was = p;
    moveByHand({was, d.book, d.r}, p, views[0], {150, 50}, 1);
    CHECK(spots().at(views[0]).page == 1);
    CHECK_FALSE(validate(p));
    CHECK(*readProject(writeProject(p), "x") == p);
    p.placedViews.change(views[0])->page = 0;
    REQUIRE(validate(p));
    CHECK(validate(p)->where.find("page") != std::string::npos);
    arrangeAnew(p, sheet);
    for (PlacedViewId v : views) CHECK(spots().at(v).page == before.at(v).page);
}

TEST_CASE("a form says how large letters are, what lines there are, how spares are called, and what stands below") {
    OneBoard w(VoltageSystem::Y208, 12);
    w.circuit(600);
    const CircuitId spare = w.circuit(0);
    w.p.circuits.change(spare)->use = CircuitUse::Spare;
    ScheduleForm f = formOf(w.p, nec(), w.p.boards[w.board]);
    f.usual = true;
    f.name = "Ours";
    f.letters = 3;
    f.spare = "SPARE BREAKER";
    f.space = "(free)";
    f.withoutTally = true;
    f.balance = 10;
    f.rules = FormRules::None;
    const auto drawn = [&] {
        const Results r = solve(w.p, nec());
        return panelSchedule({w.p, nec(), r}, w.board);
    };
    const Drawing usual = drawn();
    w.p.forms.add(f);
    const Drawing ours = drawn();
    CHECK(textsOf({usual}).count("Load tally") == 1);
    CHECK(textsOf({ours}).count("Load tally") == 0);
    CHECK(textsOf({ours}).count("Phases") == 1);
    CHECK(textsOf({ours})["SPARE BREAKER"] == 1);
    CHECK(textsOf({ours}).count("Spare") == 1); // what the foot counts
    CHECK(textsOf({usual})["Space"] == 10);
    CHECK(textsOf({ours})["(free)"] == 10);
    CHECK(textsOf({ours}).count("Balance") == 1);
    CHECK(textsOf({ours}).count("over 10 %") == 1); // one load on one line
    const auto sizeOf = [](const Drawing& d, const std::string& text) {
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m); t && t->text == text) return t->size;
        return 0.0;
    };
    CHECK(sizeOf(usual, "600") == 2.5);
    CHECK(sizeOf(ours, "600") == 3);
    CHECK(textsOnTexts(ours) == std::vector<std::string>{});
}

TEST_CASE("the set tells the paper of each sheet as it is drawn, of the riser too") {
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        const Project p = *loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel"));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const Results r = solve(p, book);
        for (const SheetEntry& e : issueSet({p, book, r})) {
            INFO(e.number << " " << e.title);
            CHECK_FALSE(e.paper.empty());
            CHECK(e.draw().paper == e.paper);
        }
    }
}
