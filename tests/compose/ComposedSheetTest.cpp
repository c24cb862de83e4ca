// Sheets that somebody put together from views: where the views stand, that nothing on them is lost, and what becomes
// of the sheets that they had before.

#include "core/compose/ComposedSheet.h"
#include "core/check/Assumptions.h"
#include "core/compare/Merge.h"
#include "core/compose/SheetSet.h"
#include "core/compose/SnapViews.h"
#include "core/compose/Together.h"
#include "core/issue/Issues.h"
#include "core/lists/List.h"
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
        const auto spots = layOutViews(sizes, field);
        REQUIRE(spots.size() == sizes.size());
        std::size_t page = 0;
        for (std::size_t i = 0; i < spots.size(); ++i) {
            INFO("round " << round << ", view " << i);
            CHECK(spots[i].view == sizes[i].view);
            if (sizes[i].at) {
                CHECK(spots[i].left == sizes[i].at->x);
                CHECK(spots[i].top == sizes[i].at->y);
                CHECK(spots[i].page == 0);
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

TEST_CASE("a view larger than the sheet is shown all the same, and told of") {
    const ViewField field{10, 10, 110, 110};
    const auto spots = layOutViews({{{1}, 0, 50, 50, {}}, {{2}, 0, 300, 40, {}}, {{3}, 0, 50, 50, {}}}, field);
    CHECK(spots[0].page == 0);
    CHECK(spots[1].page == 1);
    CHECK(spots[1].left == 10);
    CHECK(spots[2].page >= 1);
    CHECK_FALSE(touch(spots[1], spots[2], 0, 0));
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

TEST_CASE("composed sheets of every kind of view: no text on another, none off the paper") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        const Demo d(name);
        Project p = d.p;
        for (SheetKind kind : {SheetKind::Schedule, SheetKind::Diagram, SheetKind::List})
            composeTogether(d.in, p, thingsToCompose(d.in, kind));
        const ComposedSheetId notes = addComposedSheet(p);
        placeNotes(p, notes, "Verify nameplates before rough-in.\n\nThe owner's phone closet is locked.");
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
        for (const SheetEntry& e : issueSet({p, d.book, d.r})) n += textsOf({e.draw()}).count(title) > 0 && !e.views.size();
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
        const FloorView v = planOnSheet(in, level, PlanSystem::All, scale, 700, 500);
        double least = 1e9, most = -1e9;
        for (const Mark& m : v.drawing.marks)
            if (const auto* l = std::get_if<LineMark>(&m); l && v.drawing.layerAt(std::size_t(&m - v.drawing.marks.data())) == Layer::Building)
                for (Point x : l->points) least = std::min(least, x.x), most = std::max(most, x.x);
        return most - least;
    };
    CHECK(widest(100) == Approx(100).margin(3)); // and the thickness of the wall
    CHECK(widest(50) == Approx(200).margin(6));
    CHECK(planOnSheet(in, level, PlanSystem::All, 0, 700, 500).scale == "1:20");
    CHECK(planOnSheet(in, level, PlanSystem::All, 75, 700, 500).scale == "1:75");
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
