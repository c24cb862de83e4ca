// The numbers of sheets: by their order until a set goes out, and the same for ever after.

#include "core/project/SheetNumbers.h"
#include "core/base/NaturalOrder.h"
#include "core/check/Assumptions.h"
#include "core/compare/Merge.h"
#include "core/compare/SheetMarks.h"
#include "core/compose/SheetSet.h"
#include "core/drawing/TextWidth.h"
#include "core/issue/Issues.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "core/review/Review.h"
#include "tests/World.h"

#include <fmt/format.h>

using namespace lintel;

namespace {

/// Boards of these names, each with a circuit and a load, fed from one service.
struct Boards {
    Project p;
    BoardId add(const std::string& name) {
        Board b;
        b.name = name;
        b.level = p.levels.begin()->id;
        const BoardId id = addBoard(p, b);
        Load l;
        l.circuit = addCircuit(p, id, 1, "Outlets");
        l.amount = 900;
        p.loads.add(l);
        return id;
    }
    explicit Boards(const std::vector<std::string>& names) {
        p.levels.add({{}, "Ground", 0, 3, {}});
        for (const std::string& name : names) add(name);
    }
    std::vector<SheetEntry> set() const {
        results = solve(p, nec());
        input.emplace(SheetInput{p, nec(), results});
        return issueSet(*input);
    }
    /// "E-601 Panel schedule LP-1", of the schedules.
    std::vector<std::string> schedules() const {
        std::vector<std::string> all;
        for (const SheetEntry& e : set())
            if (e.kind == SheetKind::Schedule) all.push_back(e.number + " " + e.title.substr(15));
        return all;
    }
    void issue(const std::string& mark) {
        IssueDraft d;
        d.mark = mark;
        d.date = "2026-11-30";
        d.by = "RA";
        for (const SheetEntry& e : set()) d.sheets.push_back(e.key);
        const CheckInput in{p, nec(), results};
        for (const GateItem& item : issueGate(in)) d.taken.push_back({item.what, "R. Amadi"});
        const auto next = issued({in.project, in.book, in.results}, d);
        REQUIRE(next);
        p = *next;
    }
    std::optional<Error> number(const std::string& from, const std::string& to) {
        const auto all = set();
        const auto sheet = std::find_if(all.begin(), all.end(), [&](const SheetEntry& e) { return e.number == from; });
        REQUIRE(sheet != all.end());
        return renumber(p, all, *sheet, to);
    }

private:
    mutable Results results;
    mutable std::optional<SheetInput> input;
};

using Words = std::vector<std::string>;

} // namespace

TEST_CASE("sheets that went out keep their numbers, whatever is added before them or removed") {
    Boards b({"LP-2", "LP-3"});
    CHECK(b.schedules() == Words{"E-601 LP-2", "E-602 LP-3"});
    b.add("LP-1"); // nothing has gone out: they follow the order
    CHECK(b.schedules() == Words{"E-601 LP-1", "E-602 LP-2", "E-603 LP-3"});
    b.issue("T1");
    const BoardId first = b.add("AA");
    CHECK(b.schedules() == Words{"E-601 LP-1", "E-602 LP-2", "E-603 LP-3", "E-604 AA"});
    const auto riser = b.set();
    for (const SheetEntry& e : riser)
        if (e.kind == SheetKind::Riser) CHECK(e.number == "E-501");
    b.issue("T2");
    removeBoard(b.p, first);
    CHECK(b.add("BB") != first); // what is told of the one that is gone is not told of it
    CHECK(b.schedules() == Words{"E-601 LP-1", "E-602 LP-2", "E-603 LP-3", "E-605 BB"});
    for (const Board& board : b.p.boards)
        if (board.name == "LP-2") b.p.boards.change(board.id)->name = "ZZ";
    CHECK(b.schedules() == Words{"E-601 LP-1", "E-602 ZZ", "E-603 LP-3", "E-605 BB"});
    // The sheets say the same as the list of them.
    for (const SheetEntry& e : b.set()) CHECK(e.draw().number == e.number);
    b.p.sheetNumbers = {};
    CHECK(b.schedules() == Words{"E-601 BB", "E-602 LP-1", "E-603 LP-3", "E-604 ZZ"});
}

TEST_CASE("a number is typed as the office has it; no two sheets have one; others go round it") {
    Boards b({"LP-1", "LP-2", "LP-3"});
    REQUIRE_FALSE(b.number("E-602", "E-601")); // LP-1 has it only until something else does
    CHECK(b.schedules() == Words{"E-601 LP-2", "E-602 LP-1", "E-603 LP-3"});
    REQUIRE_FALSE(b.number("E-603", "PWR-07/3"));
    CHECK(b.schedules() == Words{"E-601 LP-2", "E-602 LP-1", "PWR-07/3 LP-3"});
    for (const SheetEntry& e : b.set()) {
        CHECK(e.file.find('/') == std::string::npos);
        if (e.number == "PWR-07/3") CHECK(e.file == "PWR-07_3_LP-3");
    }
    const auto refusal = [&](const std::string& from, const std::string& to) {
        const auto bad = b.number(from, to);
        return bad ? bad->what : std::string();
    };
    CHECK(refusal("E-602", "PWR-07/3") == "PWR-07/3 is the number of \"Panel schedule LP-3\"");
    CHECK(refusal("E-602", "E-001") == "E-001 is the number of \"Drawing index\"");
    CHECK(refusal("E-001", "E-002") == "its number follows from that of another");
    CHECK(refusal("E-602", " E-610") != "");
    CHECK(refusal("E-602", "E\n610") != "");
    CHECK(refusal("E-602", std::string(33, '9')) != "");
    REQUIRE_FALSE(b.number("PWR-07/3", "")); // let go again
    CHECK(b.schedules() == Words{"E-601 LP-2", "E-602 LP-1", "E-603 LP-3"});
    // What is typed is in the file, and a file with a number that cannot be is refused.
    const std::string text = writeProject(b.p);
    REQUIRE(readProject(text, "file"));
    CHECK(*readProject(text, "file") == b.p);
    std::string wrong = text;
    wrong.replace(wrong.find("\"E-601\""), 7, "\"\"");
    CHECK_FALSE(readProject(wrong, "file"));
    wrong = text;
    wrong.replace(wrong.find("\"about\":\"B2\""), 12, "\"about\":\"V1\"");
    CHECK_FALSE(readProject(wrong, "file"));
}

TEST_CASE("a long number is set smaller in the title block, not squeezed; a short one as large as ever") {
    Boards b({"LP-1"});
    REQUIRE_FALSE(b.number("E-502", "SH-204-ELE-ZZ-XX-DR-E-0000502-B"));
    const auto sizes = [&] {
        std::map<std::string, std::pair<double, double>> all; // by number: size, and width over what there is room for
        for (const SheetEntry& e : b.set()) {
            const Drawing d = e.draw();
            if (d.titleBlock == TitlePlace::None) continue;
            for (const Mark& m : d.marks)
                if (const auto* text = std::get_if<TextMark>(&m); text && text->text == e.number && text->bold)
                    all[e.number] = {text->size, textWidth(text->text, text->size, true) / text->within};
        }
        return all;
    }();
    REQUIRE(sizes.count("E-501"));
    REQUIRE(sizes.count("SH-204-ELE-ZZ-XX-DR-E-0000502-B"));
    CHECK(sizes.at("E-501").first == Approx(19));
    const auto [size, needs] = sizes.at("SH-204-ELE-ZZ-XX-DR-E-0000502-B");
    CHECK(size < 10);
    CHECK(needs <= 1 / 0.85 + 1e-9);
}

TEST_CASE("a floor that comes in between takes the next place, the same for lighting and power") {
    Boards b({});
    DeviceType lamp;
    lamp.name = "Lamp";
    lamp.kind = LoadKind::Lighting;
    DeviceType outlet;
    outlet.name = "Outlet";
    const DeviceTypeId lit = b.p.deviceTypes.add(lamp);
    const DeviceTypeId fed = b.p.deviceTypes.add(outlet);
    const auto put = [&](LevelId level, DeviceTypeId type) {
        Device d;
        d.type = type;
        d.level = level;
        b.p.devices.add(d);
    };
    const LevelId ground = b.p.levels.begin()->id;
    const LevelId between = b.p.levels.add({{}, "Between", 4, 3, {}});
    const LevelId upper = b.p.levels.add({{}, "Upper", 8, 3, {}});
    for (LevelId level : {ground, upper}) {
        put(level, lit);
        put(level, fed);
    }
    const auto plans = [&] {
        Words all;
        for (const SheetEntry& e : b.set())
            if (e.kind == SheetKind::Lighting || e.kind == SheetKind::Power) all.push_back(e.number + " " + e.title);
        return all;
    };
    CHECK(plans() == Words{"E-101 Ground lighting", "E-102 Upper lighting", "E-201 Ground power", "E-202 Upper power"});
    b.issue("T1");
    put(between, fed);
    put(between, lit);
    CHECK(plans() == Words{"E-101 Ground lighting", "E-102 Upper lighting", "E-103 Between lighting",
                           "E-201 Ground power", "E-202 Upper power", "E-203 Between power"});
}

TEST_CASE("past ninety-nine boards new sheets have four figures, and those that went out keep three") {
    std::vector<std::string> names;
    for (int i = 1; i <= 99; ++i) names.push_back(fmt::format("P-{:03}", i));
    Boards b(names);
    CHECK(b.schedules().back() == "E-699 P-099");
    b.issue("T1");
    b.add("A");
    b.add("B");
    const Words all = b.schedules();
    CHECK(all[98] == "E-699 P-099");
    CHECK(all[99] == "E-6001 A");
    CHECK(all[100] == "E-6002 B");
}

TEST_CASE("a series that is used up does not run into the next one") {
    Boards b({"LP-1"});
    REQUIRE_FALSE(b.number("E-601", "E-698"));
    b.add("LP-2");
    b.add("LP-3");
    b.add("LP-4");
    CHECK(b.schedules() == Words{"E-698 LP-1", "E-699 LP-2", "E-6001 LP-3", "E-6002 LP-4"});
}

TEST_CASE("numbers of sheets are in order as people read them") {
    const Words order{"A-1", "E-99", "E-101", "E-605", "E-605.2", "E-605.10", "E-606", "EL-1"};
    for (std::size_t i = 0; i < order.size(); ++i)
        for (std::size_t k = 0; k < order.size(); ++k) CHECK(numberBefore(order[i], order[k]) == (i < k));
}

TEST_CASE("merge: what was ticked, remarked on or numbered does not hold what the other removed") {
    Boards b({"LP-1", "LP-2"});
    b.issue("T1");
    const BoardId second = std::next(b.p.boards.begin())->id;
    const Results r = solve(b.p, nec());
    for (const ReviewFigure& f : reviewFigures({b.p, nec(), r}))
        if (f.about == Ref(second)) {
            setTick(b.p, f, "RA", "2026-11-30");
            addRemark(b.p, f, "Why here?", "RA", "2026-11-30");
        }
    REQUIRE(b.p.ticks.size() > 0);
    const Project base = b.p;
    Project ours = base;
    removeBoard(ours, second);
    Project theirs = base;
    theirs.basis.title = "Another";
    const Merged merged = mergeProjects(base, ours, theirs);
    CHECK(merged.conflicts.empty());
    CHECK_FALSE(merged.project.boards.has(second));
    CHECK(merged.project.basis.title == "Another");
    CHECK(merged.project.ticks.size() == base.ticks.size());
    CHECK(mergeProjects(base, ours, base).project == ours);
    CHECK(mergeProjects(base, base, ours).project == ours);
}

TEST_CASE("a sheet is compared with itself, though what it shows is called otherwise by now") {
    Boards before({"LP-1", "LP-2"});
    before.issue("T1");
    Boards after = before;
    after.p.boards.change(after.p.boards.begin()->id)->name = "KP-1";
    const auto then = before.set();
    const auto now = after.set();
    for (const SheetEntry& e : now)
        if (e.title == "Panel schedule KP-1") {
            const auto& was = *lastIssue(after.p);
            REQUIRE(sheetOf(was, e));
            CHECK(sheetOf(was, e)->title == "Panel schedule LP-1");
            const Drawing plain = e.draw();
            const Drawing marked = markedSince(then, e, after.p.basis);
            CHECK(marked.marks.size() > plain.marks.size()); // its name is clouded,
            const Drawing all = markedSince({}, e, after.p.basis);
            CHECK(marked.marks.size() < all.marks.size()); // and not all of it
        }
}

TEST_CASE("a sheet's title is typed, a sheet is left out for good, and both come back as they were") {
    Boards b({"LP-1", "LP-2", "LP-3"});
    const auto sheet = [&](const std::string& title) {
        for (const SheetEntry& e : b.set())
            if (e.title == title) return SheetKey{*e.kind, e.about};
        FAIL("no sheet of that title");
        return SheetKey{};
    };
    const Project start = b.p;
    REQUIRE_FALSE(titleSheet(b.p, sheet("Panel schedule LP-2"), "Kitchen and bar"));
    CHECK_FALSE(validate(b.p));
    bool drawn = false;
    for (const SheetEntry& e : b.set())
        if (e.title == "Kitchen and bar") {
            CHECK(e.number == "E-602"); // a title moves no number
            CHECK_FALSE(e.kept);
            CHECK(e.draw().words().find("Kitchen and bar") != std::string::npos);
            drawn = true;
        }
    CHECK(drawn);
    CHECK(titleSheet(b.p, sheet("Kitchen and bar"), "two\nlines"));
    CHECK(titleSheet(b.p, sheet("Kitchen and bar"), std::string(200, 'x')));
    // Riser and plans too: the title block says it.
    REQUIRE_FALSE(titleSheet(b.p, sheet("Riser diagram"), "Power distribution"));
    for (const SheetEntry& e : b.set())
        if (e.kind == SheetKind::Riser) {
            CHECK(e.title == "Power distribution");
            CHECK(e.draw().words().find("Power distribution") != std::string::npos);
        }

    // Left out: the others follow, nothing of it is listed, and it is told as left out.
    const SheetKey kitchen = sheet("Kitchen and bar");
    leaveOut(b.p, kitchen, true);
    CHECK_FALSE(validate(b.p));
    const auto all = b.set();
    CHECK(std::none_of(all.begin(), all.end(), [](const SheetEntry& e) { return e.title == "Kitchen and bar"; }));
    CHECK(b.schedules() == Words{"E-601 LP-1", "E-602 LP-3"});
    const Results r = solve(b.p, nec());
    const auto left = sheetsLeftOut({b.p, nec(), r});
    REQUIRE(left.size() == 1);
    CHECK(left[0].title == "Kitchen and bar");
    CHECK(left[0].about == kitchen.second);

    // What went out with a number and is left out later keeps number and title for when it comes back.
    leaveOut(b.p, kitchen, false);
    b.issue("T1");
    leaveOut(b.p, kitchen, true);
    CHECK(b.schedules() == Words{"E-601 LP-1", "E-603 LP-3"});
    leaveOut(b.p, kitchen, false);
    for (const SheetEntry& e : b.set())
        if (e.about == kitchen.second && e.kind == SheetKind::Schedule)
            CHECK(e.number + e.title == "E-602Kitchen and bar");

    // Numbered anew, titles stay; given up one by one, nothing is left of it in the file.
    numberAnew(b.p);
    CHECK(b.p.sheetNumbers.size() == 2);
    REQUIRE_FALSE(titleSheet(b.p, kitchen, ""));
    REQUIRE_FALSE(titleSheet(b.p, {SheetKind::Riser, {}}, ""));
    CHECK(b.p.sheetNumbers.size() == 0);
    CHECK(b.p.boards == start.boards);
}
