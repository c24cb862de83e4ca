// Checking a design: every figure once, ticks that hold what was seen and fall off, remarks that travel with the file.

#include "core/review/Review.h"
#include "core/compare/Merge.h"
#include "core/project/ProjectFile.h"
#include "core/review/ReviewLists.h"
#include "tests/Building.h"

#include <set>

using namespace lintel;

namespace {

struct Checked {
    Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const RuleBook& book = bookOf(p.basis.ruleBook);
    std::vector<ReviewItem> items() const { return reviewItems({p, book, results}); }
    Results results = solve(p, book);
    void again() { results = solve(p, book); }
    ReviewItem item(const std::string& thing, const std::string& figure) const {
        for (const ReviewItem& i : items())
            if (i.thing == thing && i.figure == figure) return i;
        throw std::runtime_error("no " + figure + " of " + thing);
    }
    CircuitId circuit(const std::string& name) const {
        for (const Circuit& c : p.circuits)
            if (nameOf(p, c.id) == name) return c.id;
        throw std::runtime_error("no circuit " + name);
    }
};

} // namespace

TEST_CASE("review: each figure once, all boards and loaded circuits among them, the values those of the results") {
    const Checked c;
    std::set<std::pair<Ref, std::string>> seen;
    std::set<Ref> things;
    for (const ReviewItem& i : c.items()) {
        INFO(i.thing << " " << i.figure);
        CHECK(seen.insert({i.about, i.figure}).second);
        CHECK_FALSE(i.value.empty());
        CHECK(i.state == TickState::NotYet);
        things.insert(i.about);
    }
    for (const Board& b : c.p.boards) CHECK(things.count(b.id));
    for (const Circuit& x : c.p.circuits)
        CHECK(things.count(x.id) == (x.use == CircuitUse::Load && !c.results.of(x.id).feeder));
    CHECK(c.item("LP-4", "demand").value == "124 A of 100");
    CHECK(c.item("LP-4", "demand").nearness == Approx(1.24).epsilon(0.01));
    CHECK(c.item("HM-1", "fault level").value == "15.0 kA of 14");
    CHECK(c.item("LP-1", "feeder").value.find("4 × 500 kcmil") == 0);
    // The bicycle store loses five times what it may: nothing is worse.
    const auto items = c.items();
    const auto worst = worstFirst(items);
    CHECK(worst.size() == items.size());
    CHECK(items[worst.front()].thing == "LP-1-27");
    for (std::size_t i = 1; i < worst.size(); ++i) CHECK(items[worst[i]].nearness <= items[worst[i - 1]].nearness);
}

TEST_CASE("review: a tick holds the value that was seen, falls off when that changes, and comes back when it does") {
    Checked c;
    setTick(c.p, c.item("LP-1", "demand"), "AL", "2026-11-30");
    setTick(c.p, c.item("HM-1", "fault level"), "AL", "2026-11-30");
    CHECK(c.item("LP-1", "demand").state == TickState::Ticked);
    CHECK(c.item("LP-1", "demand").by == "AL");
    const std::string was = c.item("LP-1", "demand").value;
    const CircuitId changed = c.circuit("LP-1-27");
    const Project before = c.p;
    for (const Load& l : c.p.loads)
        if (l.circuit == changed) c.p.loads.change(l.id)->amount *= 10;
    c.again();
    const ReviewItem off = c.item("LP-1", "demand");
    CHECK(off.state == TickState::FellOff);
    CHECK(off.was == was);
    CHECK(off.value != was);
    CHECK(c.item("HM-1", "fault level").state == TickState::Ticked); // nothing of it has changed
    c.p = before;
    c.again();
    CHECK(c.item("LP-1", "demand").state == TickState::Ticked);
    // Ticked by two, it stands once for each; by one again, once.
    setTick(c.p, c.item("LP-1", "demand"), "AL", "2026-12-01");
    setTick(c.p, c.item("LP-1", "demand"), "RM", "2026-12-02");
    CHECK(c.p.ticks.size() == 3);
    CHECK(c.item("LP-1", "demand").by == "RM");
    removeTicks(c.p, c.item("LP-1", "demand"));
    CHECK(c.item("LP-1", "demand").state == TickState::NotYet);
    CHECK(c.p.ticks.size() == 1);
}

TEST_CASE("review: a tick of what is gone does not go over to what gets its number") {
    Checked c;
    CircuitId last;
    for (const Circuit& x : c.p.circuits) last = x.id;
    Circuit fresh = c.p.circuits[c.circuit("LP-1-27")];
    fresh.slot = 2;
    const ReviewItem seen = c.item(nameOf(c.p, last), "circuit");
    setTick(c.p, seen, "AL", "2026-11-30");
    c.p.circuits.remove(last);
    fresh.id = last;
    c.p.circuits.put(fresh);
    c.again();
    for (const ReviewItem& i : c.items())
        if (i.about == Ref(last)) {
            CHECK(i.state == TickState::FellOff);
            CHECK(i.was.find(seen.thing) == 0);
        }
}

TEST_CASE("review: remarks and ticks travel with the file, are told with their answers, and merge") {
    Checked c;
    const Project base = c.p;
    const RemarkId id =
        addRemark(c.p, c.item("Utility", "fault level"), "By letter? <infinite> & assumed", "AL", "2026-11-30");
    setTick(c.p, c.item("MDS", "main"), "AL", "2026-11-30");
    const auto read = readProject(writeProject(c.p), "review");
    REQUIRE(read);
    CHECK(*read == c.p);
    Remark& r = *c.p.remarks.change(id);
    r.answer = "Asked, due Friday";
    r.answeredBy = "TO";
    r.closed = true;
    const SheetInput in{c.p, c.book, c.results};
    const List remarks = remarkList(in);
    REQUIRE(remarks.rows.size() == 1);
    CHECK(remarks.rows[0].cells[1].text == "Utility, fault level");
    CHECK(remarks.rows[0].cells[5].text == "Asked, due Friday");
    CHECK(remarks.rows[0].cells[7].text == "closed");
    CHECK(tickList(in).rows.size() == 1);
    // What it was about may go: it is called what it was called then.
    Remark about;
    about.about = BoardId{77};
    about.thing = "LP-77";
    about.figure = "demand";
    CHECK(aboutWords(c.p, about) == "LP-77 (gone), demand");
    // It may have another name by now, or something else its number: both names are told.
    about.about = c.p.boards.begin()->id;
    CHECK(aboutWords(c.p, about) == c.p.boards.begin()->name + " (then LP-77), demand");
    // Two who check at once: both their ticks and remarks are there.
    Project other = base;
    const Results same = solve(other, c.book);
    for (const ReviewItem& i : reviewItems({other, c.book, same}))
        if (i.thing == "LP-2" && i.figure == "demand") {
            setTick(other, i, "RM", "2026-11-30");
            addRemark(other, i, "Spare for the second stage?", "RM", "2026-11-30");
        }
    const auto merged = mergeProjects(base, c.p, other);
    CHECK(merged.project.ticks.size() == 2);
    CHECK(merged.project.remarks.size() == 2);
    std::set<std::string> by;
    for (const Remark& x : merged.project.remarks) by.insert(x.by);
    CHECK(by == std::set<std::string>{"AL", "RM"});
}
