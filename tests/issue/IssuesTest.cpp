// Issues: what stands in the way, what is kept, and that it comes back as it was.

#include "core/issue/Issues.h"
#include "core/base/Packed.h"
#include "core/base/TextDelta.h"
#include "core/check/Assumptions.h"
#include "core/compare/ProjectComparison.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/World.h"

#include <fmt/format.h>

#include <random>

using namespace lintel;

namespace {

struct Demo {
    Project p;
    const RuleBook& book;
    explicit Demo(const std::string& name)
        : p(*loadProject(dataFolder() / "demos" / (name + ".lintel"))), book(bookOf(p.basis.ruleBook)) {
        p.issues = {}; // from before its first issue
    }
    /// All sheets, with everything in the way taken on.
    IssueDraft draft(const std::string& mark) const {
        const Results r = solve(p, book);
        IssueDraft d;
        d.mark = mark;
        d.date = "2026-11-30";
        d.reason = "Issue " + mark;
        d.by = "RA";
        for (const SheetEntry& e : issueSet({p, book, r})) d.sheets.push_back(e.key);
        for (const GateItem& item : issueGate({p, book, r})) d.taken.push_back({item.what, "R. Amadi"});
        return d;
    }
    void issue(const std::string& mark) {
        const Results r = solve(p, book);
        const auto next = issued({p, book, r}, draft(mark));
        REQUIRE(next);
        p = *next;
    }
};

} // namespace

TEST_CASE("a text told by another comes back to the letter, and is small where most is the same") {
    std::mt19937 random(7);
    for (int round = 0; round < 300; ++round) {
        std::string from, to;
        const int lines = int(random() % 60);
        for (int i = 0; i < lines; ++i) from += "line " + std::to_string(random() % 20) + "\n";
        to = from;
        for (int change = 0; change < int(random() % 6); ++change) {
            const std::size_t at = to.empty() ? 0 : random() % to.size();
            if (random() % 2)
                to.insert(at, random() % 3 ? "new\n" : "x");
            else
                to.erase(at, random() % 20);
        }
        if (random() % 4 == 0 && !to.empty()) to.pop_back(); // without an end of line
        const std::string delta = deltaOf(from, to);
        REQUIRE(applyDelta(from, delta) == to);
        REQUIRE(unpacked(packed(delta)) == delta);
    }
    std::string book;
    for (int i = 0; i < 5000; ++i) book += fmt::format("circuit {} of the building\n", i);
    std::string changed = book;
    changed.replace(changed.find("circuit 2500"), 12, "CIRCUIT 2500");
    CHECK(deltaOf(book, changed).size() < 100);
    for (const char* bad : {"x", "= 1", "= 9 9\n", "+ 3\na\n", "= 0 18446744073709551615\n", "? 1 1\n"})
        CHECK_FALSE(applyDelta("a\nb\n", bad));
    CHECK_FALSE(unpacked({"AAAA"}));
    CHECK_FALSE(unpacked({"not base 64!"}));
    CHECK(unpacked(packed("")) == "");
}

TEST_CASE("an issue is refused until it has a mark, a date and sheets, and somebody takes on what stands in its way") {
    Demo d("saltmarket-hall");
    const Results r = solve(d.p, d.book);
    const CheckInput in{d.p, d.book, r};
    const auto gate = issueGate(in);
    const auto has = [&](const std::string& what) {
        return std::any_of(gate.begin(), gate.end(), [&](const GateItem& g) { return g.what == what; });
    };
    CHECK(has("14 stops are open"));
    CHECK(has("6 checks are open"));
    for (const GateItem& g : gate)
        if (g.what == "14 stops are open") CHECK(g.details.size() == 14);
    const IssueDraft whole = d.draft("T1");
    REQUIRE_FALSE(refuseIssue(in, whole, gate));
    const auto refusal = [&](const auto& change) {
        IssueDraft draft = whole;
        change(draft);
        const auto next = issued({in.project, in.book, in.results}, draft);
        CHECK_FALSE(next);
        return next ? std::string() : next.error().text();
    };
    CHECK(refusal([](IssueDraft& x) { x.mark.clear(); }).find("mark") != std::string::npos);
    CHECK(refusal([](IssueDraft& x) { x.date.clear(); }).find("date") != std::string::npos);
    CHECK(refusal([](IssueDraft& x) { x.sheets.clear(); }).find("no sheet is ticked") != std::string::npos);
    CHECK(refusal([](IssueDraft& x) { x.taken[0].by.clear(); }).find("who goes on") != std::string::npos);
    int told = 0;
    CHECK_FALSE(issued({in.project, in.book, in.results}, whole,
                       [&](std::size_t, std::size_t) { return ++told < 3; })); // cancelled
    CHECK(told == 3);
    d.issue("T1");
    const Results again = solve(d.p, d.book);
    CHECK_FALSE(issued({d.p, d.book, again}, d.draft("T1"))); // the mark is taken
    CHECK(nextMark(d.p) == "T2");
    CHECK(d.p.basis.status == "For tender");
    CHECK(d.p.basis.issue == "T1");
    CHECK(d.p.basis.revisions.back().text == "Issue T1");
    CHECK(d.p.issues[{1}].taken.size() == gate.size());
}

TEST_CASE("the project comes back as it was at each issue, and ten issues take little room") {
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        Demo d(demo);
        const std::size_t before = writeProject(d.p).size();
        std::vector<std::string> states;
        std::vector<std::string> names;
        for (int i = 1; i <= 10; ++i) {
            // What changes between two issues: some loads, a name, a circuit more.
            int at = 0;
            std::vector<CircuitId> some;
            for (const Circuit& c : d.p.circuits)
                if (++at % 17 == i) some.push_back(c.id);
            for (CircuitId c : some) d.p.circuits.change(c)->note = fmt::format("Changed for issue {}", i);
            d.issue("T" + std::to_string(i));
            Project bare = d.p;
            bare.issues = {};
            states.push_back(writeProject(bare));
        }
        for (int i = 1; i <= 10; ++i) {
            const auto was = projectOf(d.p, {std::uint32_t(i)});
            REQUIRE(was);
            CHECK(was->issues.size() == std::size_t(i)); // with those before it
            Project bare = *was;
            bare.issues = {};
            CHECK(writeProject(bare) == states[std::size_t(i - 1)]);
        }
        // What they take beside the project itself, with the lists of their sheets.
        std::size_t kept = 0;
        for (const Issue& i : d.p.issues)
            for (const std::string& piece : i.packed) kept += piece.size();
        INFO(demo << ": " << kept << " of " << before);
        CHECK(double(kept) <= 0.35 * double(before)); // the first in full, nine by what differs
        // Through the file, and it can be opened again.
        const auto text = textToSave(d.p);
        REQUIRE(text);
        const auto read = readProject(*text, "again");
        REQUIRE(read);
        CHECK(*read == d.p);
    }
}

TEST_CASE("sheets that say something else than when they went out are found, and no others") {
    Demo d("saltmarket-hall");
    d.issue("T1");
    const auto changed = [&] {
        const Results r = solve(d.p, d.book);
        const SheetInput in{d.p, d.book, r};
        std::vector<std::string> titles;
        for (const SheetEntry& e : issueSet(in))
            for (const IssuedSheet& s : lastIssue(d.p)->sheets)
                if (s.title == e.title && s.print != printOf(e.draw())) titles.push_back(e.title);
        return titles;
    };
    CHECK(changed().empty());
    for (const Circuit& c : d.p.circuits)
        if (nameOf(d.p, c.id) == "LP-1-1") {
            d.p.circuits.change(c.id)->name = "Stalls 1 to 4";
            break;
        }
    const auto now = changed();
    CHECK(std::count(now.begin(), now.end(), "Panel schedule LP-1") == 1);
    CHECK(std::count(now.begin(), now.end(), "Panel schedule LP-2") == 0);
    CHECK(std::count(now.begin(), now.end(), "One-line diagram") == 0);
}

TEST_CASE(
    "the demos carry three issues: each opens, tells what has changed since the one before, and the last is today") {
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        INFO(demo);
        const Project today = *loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel"));
        const RuleBook& book = bookOf(today.basis.ruleBook);
        REQUIRE(today.issues.size() == 3);
        std::string date;
        std::optional<Project> before;
        for (const Issue& i : today.issues) {
            INFO(i.mark);
            CHECK(date < i.date);
            date = i.date;
            CHECK(i.sheets.size() > 20);
            const auto was = projectOf(today, i.id);
            REQUIRE(was);
            CHECK(was->basis.issue == i.mark);
            REQUIRE_FALSE(validate(*was));
            if (before) {
                const Results x = solve(*before, book), y = solve(*was, book);
                const ProjectComparison c = compareProjects({*before, book, x}, {*was, book, y});
                CHECK(c.entered.size() > 4);
                CHECK_FALSE(c.follows.empty());
                CHECK_FALSE(c.strangers);
            }
            before = *was;
        }
        before->issues = today.issues;
        CHECK(*before == today);
        CHECK(today.basis.revisions.size() == 3);
        // Nothing that went out has changed since.
        const Results r = solve(today, book);
        for (const SheetEntry& e : issueSet({today, book, r})) {
            const IssuedSheet* sheet = sheetOf(*lastIssue(today), e);
            INFO(e.number << " " << e.title);
            REQUIRE(sheet);
            const bool below = std::any_of(today.underlays.begin(), today.underlays.end(),
                                           [&](const Underlay& u) { return e.about == Ref(u.level); });
            if (!below) CHECK(sheet->print == printOf(e.draw())); // with the drawings below, the window's tests do
        }
    }
}

TEST_CASE("the comparison of an issue with today names the edit between them, and not the issue's letters") {
    Demo d("brindle-pier");
    d.issue("T1");
    const auto was = projectOf(d.p, {1});
    REQUIRE(was);
    for (const Board& b : d.p.boards)
        if (b.name == "DB-3") d.p.boards.change(b.id)->description = "Kitchen and café";
    const Results before = solve(*was, d.book), after = solve(d.p, d.book);
    const std::string text = compareProjects({*was, d.book, before}, {d.p, d.book, after}).text();
    INFO(text);
    CHECK(text.find("Kitchen and café") != std::string::npos);
    CHECK(text.size() < 2000);                         // what is packed is not told
    CHECK(text.find("issue T1") == std::string::npos); // it was there then
}

TEST_CASE("an issue whose kept state is damaged, or told by one that is not there, is refused in words") {
    Demo d("brindle-pier");
    d.issue("T1");
    d.issue("T2");
    REQUIRE(d.p.issues[{2}].basedOn == IssueId{1});
    Project bad = d.p;
    bad.issues.change({1})->packed[0].replace(100, 4, "####");
    for (std::uint32_t id : {1u, 2u}) {
        const auto was = projectOf(bad, {id});
        REQUIRE_FALSE(was);
        CHECK(was.error().text().find("damaged") != std::string::npos);
    }
    bad = d.p;
    bad.issues.remove({1});
    CHECK_FALSE(textToSave(bad)); // never written, so never to be refused later
    bad = d.p;
    bad.issues.change({1})->basedOn = {2}; // in a circle
    CHECK_FALSE(textToSave(bad));
    CHECK_FALSE(projectOf(bad, {2}));
    CHECK_FALSE(projectOf(d.p, {9}));
}

TEST_CASE("the next mark goes on as the office counts") {
    const auto next = [](const std::string& mark) {
        Project p;
        Issue i;
        i.mark = mark;
        p.issues.add(i);
        return nextMark(p);
    };
    CHECK(nextMark(Project{}) == "P1");
    CHECK(next("P1") == "P2");
    CHECK(next("T09") == "T10");
    CHECK(next("B") == "C");
    CHECK(next("9") == "10");
    CHECK(next("Z") == "Z1");
    CHECK(next("99999999999999999999") != "");
}
