// Two states of a project side by side, and two people's work put together: what was entered, no more and no less; what
// follows and why; nothing lost that does not conflict.

#include "core/compare/Merge.h"
#include "core/compare/MergeDecision.h"
#include "core/compare/ProjectComparison.h"
#include "core/compare/SheetMarks.h"
#include "core/project/Document.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "core/sheets/Sheets.h"
#include "tests/Building.h"

#include <set>

using namespace lintel;

namespace {

Project hall() { return *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel"); }

ProjectComparison compared(const Project& a, const Project& b) {
    const Results x = solve(a, nec()), y = solve(b, nec());
    return compareProjects({a, nec(), x}, {b, nec(), y});
}
bool anyHas(const auto& list, const std::string& text) {
    return std::any_of(list.begin(), list.end(),
                       [&](const auto& e) { return e.text().find(text) != std::string::npos; });
}
CircuitId circuitNamed(const Project& p, const std::string& name) {
    for (const Circuit& c : p.circuits)
        if (nameOf(p, c.id) == name) return c.id;
    throw std::runtime_error("no circuit " + name);
}

/// One small edit of something that is there, told by its kind and id and field.
using Touched = std::pair<Ref, std::string>;
Touched touch(Project& p, Random& r, const std::string& mark) {
    const auto pick = [&](auto& table) {
        auto it = table.begin();
        for (int n = r(int(table.size())); n > 0; --n) ++it;
        return it->id;
    };
    switch (r(5)) {
    case 0: {
        const auto id = pick(p.loads);
        p.loads.change(id)->amount += 1 + r(900);
        return {id, "amount"};
    }
    case 1: {
        const auto id = pick(p.circuits);
        p.circuits.change(id)->note = mark + std::to_string(r(1000000));
        return {id, "note"};
    }
    case 2: {
        const auto id = pick(p.boards);
        p.boards.change(id)->description = mark + std::to_string(r(1000000));
        return {id, "description"};
    }
    case 3: {
        const auto id = pick(p.runs);
        p.runs.change(id)->ambient = 31 + r(15) + r(1000) / 1000.0;
        return {id, "ambient"};
    }
    default: {
        const auto id = pick(p.circuits);
        p.circuits.change(id)->name = mark + std::to_string(r(1000000));
        return {id, "name"};
    }
    }
}

} // namespace

TEST_CASE(
    "comparison: a load that grew, told as entered, and its breaker and conductors as following, with the reason") {
    const Project a = hall();
    Project b = a;
    const CircuitId fryer = circuitNamed(a, "LP-2-7");
    for (const Load& l : a.loads)
        if (l.circuit == fryer) b.loads.change(l.id)->amount = 9;
    const ProjectComparison c = compared(a, b);
    REQUIRE(c.entered.size() == 1);
    CHECK(c.entered[0].group == "LP-2");
    CHECK(c.entered[0].text() == "Fryer 1: load 7 kVA → 9 kVA");
    const auto run =
        std::find_if(c.follows.begin(), c.follows.end(), [&](const auto& f) { return f.thing == Ref(fryer); });
    REQUIRE(run != c.follows.end());
    CHECK(run->weight == FollowedChange::Weight::Device);
    CHECK(run->before.find("35 A, ") == 0);
    CHECK(run->after.find("45 A, ") == 0); // 9 000 / 208 = 43.3 A
    CHECK(run->because == "the load rose from 33.7 to 43.3 A");
    CHECK(anyHas(c.follows, "LP-2, demand: "));
    CHECK_FALSE(anyHas(c.follows, "HM-1, demand: ")); // another branch of the tree
    CHECK(c.summary().find("1 change entered · ") == 0);
}

TEST_CASE("comparison: files that do not come from one another are told so") {
    const Project pier = *loadProject(dataFolder() / "demos" / "brindle-pier.lintel");
    const Project a = hall();
    const Results x = solve(pier, bs()), y = solve(a, nec());
    CHECK(compareProjects({pier, bs(), x}, {a, nec(), y}).summary().find("may not be two states of one project") !=
          std::string::npos);
    const Project twin = *loadProject(dataFolder() / "demos" / "saltmarket-hall-corrected.lintel");
    CHECK(compared(a, twin).summary().find("may not be") == std::string::npos);
}

TEST_CASE("comparison: a limit of the basis is entered once, and what it alters says so") {
    const Project a = hall();
    Project b = a;
    b.basis.branchDropLimit = 2;
    const ProjectComparison c = compared(a, b);
    REQUIRE(c.entered.size() == 1);
    CHECK(c.entered[0].text() == "Basis: drop limit of branch circuits 3 % → 2 %");
    REQUIRE_FALSE(c.follows.empty());
    for (const FollowedChange& f : c.follows)
        if (f.weight == FollowedChange::Weight::Size) CHECK(f.because == "the limit of drop is another");
    CHECK(compared(a, a).nothing());
    CHECK(compared(a, a).summary() == "nothing differs");
}

TEST_CASE("comparison: what is added and removed has its name; ids are told by the names of what they point at") {
    const Project a = hall();
    Project b = a;
    const CircuitId mixer = circuitNamed(a, "LP-2-18");
    removeCircuit(b, mixer);
    Board made;
    made.name = "LP-9";
    const BoardId added = b.boards.add(made);
    BoardId ev;
    for (const Board& x : b.boards)
        if (x.name == "EV-1") ev = x.id;
    b.boards.change(ev)->alternate = added;
    const ProjectComparison c = compared(a, b);
    CHECK(anyHas(c.entered, "LP-2-18 Mixer: removed"));
    CHECK(anyHas(c.entered, "LP-9: added"));
    CHECK(anyHas(c.entered, "EV-1: taken over by none → LP-9"));
}

TEST_CASE("comparison lists exactly the edits made: each one, and nothing else, over random edits") {
    for (std::uint32_t seed = 1; seed <= 60; ++seed) {
        const Project a = randomBuilding(seed, 3 + int(seed % 9));
        if (a.loads.empty()) continue;
        Project b = a;
        Random r(seed * 77);
        std::set<Touched> made;
        for (int n = 1 + r(12); n > 0; --n) made.insert(touch(b, r, "x"));
        std::set<Touched> told;
        for (const EnteredChange& e : enteredChanges(a, b)) {
            CHECK(e.what == EnteredChange::What::Changed);
            for (const FieldChange& f : e.fields) told.insert({e.thing, f.field});
        }
        INFO(seed);
        CHECK(told == made);
        CHECK(enteredChanges(b, a).size() == enteredChanges(a, b).size());
    }
}

TEST_CASE("merge: different fields of one circuit, different circuits, both are taken; the same field is a conflict") {
    const Project base = hall();
    Project ours = base, theirs = base;
    const CircuitId fryer = circuitNamed(base, "LP-2-7"), mixer = circuitNamed(base, "LP-2-18");
    ours.circuits.change(fryer)->name = "Fryer, north";
    theirs.circuits.change(fryer)->note = "verify the nameplate";
    theirs.circuits.change(mixer)->heldBreaker = 25;
    ours.basis.client = "Saltmarket Trust";
    theirs.basis.branchDropLimit = 2.5;
    ours.basis.ownValues["roof/adder"] = 17;
    theirs.basis.ownValues["continuous/factor"] = 1.2;
    theirs.basis.revisions.push_back({"3", "2026-12-01", "Kitchen", "RA"});
    ours.basis.revisions.push_back({"3", "2026-12-02", "Yard", "TO"});
    Merged m = mergeProjects(base, ours, theirs);
    CHECK(m.conflicts.empty());
    CHECK(m.project.circuits[fryer].name == "Fryer, north");
    CHECK(m.project.circuits[fryer].note == "verify the nameplate");
    CHECK(m.project.circuits[mixer].heldBreaker == 25);
    CHECK(m.project.basis.client == "Saltmarket Trust");
    CHECK(m.project.basis.branchDropLimit == 2.5);
    CHECK(m.project.basis.ownValues.size() == base.basis.ownValues.size() + 2);
    CHECK(m.project.basis.revisions.size() == base.basis.revisions.size() + 2);
    ours.circuits.change(mixer)->heldBreaker = 30;
    m = mergeProjects(base, ours, theirs);
    REQUIRE(m.conflicts.size() == 1);
    CHECK(m.conflicts[0].thing == Ref(mixer));
    CHECK(m.conflicts[0].text() == "LP-2-18, held breaker: 30 A here, 25 A there (as usual before); ours is kept");
    CHECK(m.project.circuits[mixer].heldBreaker == 30);
}

TEST_CASE("merge: both add a circuit with the same id and place; both stay, theirs with a new id and another place") {
    const Project base = hall();
    BoardId lp2;
    for (const Board& b : base.boards)
        if (b.name == "LP-2") lp2 = b.id;
    const auto with = [&](const char* name, double va) {
        Project p = base;
        const CircuitId c = addCircuit(p, lp2, 1, name);
        Load l;
        l.circuit = c, l.amount = va, l.name = name;
        p.loads.add(l);
        return std::pair{p, c};
    };
    const auto [ours, mine] = with("Toaster", 1200);
    const auto [theirs, other] = with("Juicer", 900);
    REQUIRE(mine == other);
    REQUIRE(ours.circuits[mine].slot == theirs.circuits[other].slot);
    const Merged m = mergeProjects(base, ours, theirs);
    CHECK(m.project.circuits.size() == base.circuits.size() + 2);
    CHECK(m.project.loads.size() == base.loads.size() + 2);
    CHECK(m.project.circuits[mine].name == "Toaster");
    CircuitId juicer;
    for (const Circuit& c : m.project.circuits)
        if (c.name == "Juicer") juicer = c.id;
    REQUIRE(juicer);
    CHECK(m.project.circuits[juicer].slot != m.project.circuits[mine].slot);
    CHECK(m.project.circuits[juicer].slot > 0);
    int onJuicer = 0; // its load went along with the new id
    for (const Load& l : m.project.loads) onJuicer += l.circuit == juicer && l.name == "Juicer";
    CHECK(onJuicer == 1);
    CHECK_FALSE(m.project.circuits[juicer].run == m.project.circuits[mine].run);
    REQUIRE(m.conflicts.size() == 1);
    CHECK(m.conflicts[0].text().find("ours stands there; it now stands at LP-2-") != std::string::npos);
    CHECK_FALSE(validate(m.project));
}

TEST_CASE("merge: circuits that one has set on one another stay as they are, and are no conflict of the two") {
    Project base = hall();
    const CircuitId first = addCircuit(base, base.boards.begin()->id, 1, "First");
    const CircuitId second = addCircuit(base, base.boards.begin()->id, 1, "Second");
    Project theirs = base;
    theirs.circuits.change(second)->slot = theirs.circuits[first].slot;
    CHECK(mergeProjects(base, base, theirs).project == theirs);
    CHECK(mergeProjects(base, theirs, base).project == theirs);
    Project ours = base;
    ours.basis.title = "Another";
    const Merged merged = mergeProjects(base, ours, theirs);
    CHECK(merged.conflicts.empty());
    CHECK(merged.project.circuits[second].slot == base.circuits[first].slot);
}

TEST_CASE("merge: what one removed and the other changed or still uses stays, and is told") {
    const Project base = hall();
    const CircuitId mixer = circuitNamed(base, "LP-2-18");
    Project ours = base, theirs = base;
    removeCircuit(ours, mixer);
    CHECK(mergeProjects(base, ours, theirs).conflicts.empty());
    CHECK_FALSE(mergeProjects(base, ours, theirs).project.circuits.has(mixer));
    theirs.circuits.change(mixer)->heldBreaker = 25;
    Merged m = mergeProjects(base, ours, theirs);
    CHECK(m.project.circuits.has(mixer));
    CHECK(anyHas(m.conflicts, "ours removed it, theirs changed it; it stays"));
    CHECK_FALSE(validate(m.project));
    // A type that ours removed as nothing used it, and theirs has set down since.
    Project b2 = base;
    DeviceType t;
    t.name = "Clock";
    const DeviceTypeId type = b2.deviceTypes.add(t);
    ours = theirs = b2;
    ours.deviceTypes.remove(type);
    Device d;
    d.type = type, d.level = b2.levels.begin()->id;
    theirs.devices.add(d);
    m = mergeProjects(b2, ours, theirs);
    CHECK(m.project.deviceTypes.has(type));
    CHECK_FALSE(m.conflicts.empty());
    CHECK_FALSE(validate(m.project));
}

TEST_CASE("merge: each conflict is decided for one side or the other, and only what was chosen changes") {
    const Project base = hall();
    const CircuitId fryer = circuitNamed(base, "LP-2-7"), mixer = circuitNamed(base, "LP-2-18");
    Project ours = base, theirs = base;
    ours.circuits.change(mixer)->heldBreaker = 30;
    theirs.circuits.change(mixer)->heldBreaker = 25;
    ours.basis.ownValues["roof/adder"] = 17;
    theirs.basis.ownValues["roof/adder"] = 22;
    removeCircuit(ours, fryer);
    theirs.circuits.change(fryer)->name = "Fryer, north";
    const Merged m = mergeProjects(base, ours, theirs);
    const auto about = [&](Ref thing, const std::string& field) -> const MergeConflict& {
        for (const MergeConflict& c : m.conflicts)
            if (c.thing == thing && c.field == field) return c;
        FAIL("no conflict about " + field);
        return m.conflicts.front();
    };
    // A field: theirs, what it was, and ours again.
    const MergeConflict& held = about(mixer, "heldBreaker");
    CHECK(sideOf(m.project, held) == MergeSide::Ours);
    const auto taken = decided(m.project, held, MergeSide::Theirs);
    REQUIRE(taken);
    CHECK(taken->circuits[mixer].heldBreaker == 25);
    CHECK(sideOf(*taken, held) == MergeSide::Theirs);
    CHECK(enteredChanges(m.project, *taken).size() == 1);
    const auto before = decided(*taken, held, MergeSide::Base);
    REQUIRE(before);
    CHECK(before->circuits[mixer].heldBreaker == base.circuits[mixer].heldBreaker);
    CHECK(sideOf(*before, held) == MergeSide::Base);
    CHECK(*decided(*before, held, MergeSide::Ours) == m.project);
    // A value within a field of the basis, which did not have it before.
    const MergeConflict& roof = about(Ref(), "ownValues/roof/adder");
    CHECK(decided(m.project, roof, MergeSide::Theirs)->basis.ownValues.at("roof/adder") == 22);
    CHECK(decided(m.project, roof, MergeSide::Base)->basis.ownValues.count("roof/adder") ==
          base.basis.ownValues.count("roof/adder"));
    // A thing that one removed: it stays as theirs has it until somebody says that it goes.
    const MergeConflict& gone = about(fryer, "");
    CHECK(sideOf(m.project, gone) == MergeSide::Theirs);
    CHECK(m.project.circuits[fryer].name == "Fryer, north");
    const auto without = decided(m.project, gone, MergeSide::Ours);
    REQUIRE(without);
    CHECK_FALSE(without->circuits.has(fryer));
    CHECK_FALSE(validate(*without));
    CHECK(sideOf(*without, gone) == MergeSide::Ours);
    CHECK(decided(m.project, gone, MergeSide::Base)->circuits[fryer].name == base.circuits[fryer].name);
    // What is there no more, and what nobody can choose, is refused in words.
    Project later = m.project;
    removeCircuit(later, mixer);
    CHECK(decided(later, held, MergeSide::Theirs).error().what == "it is there no more");
    CHECK_FALSE(sideOf(later, held) == MergeSide::Ours);
    MergeConflict moved = held;
    moved.open = false;
    CHECK_FALSE(decided(m.project, moved, MergeSide::Theirs));
    // Another value by now is no side's.
    later = m.project;
    later.circuits.change(mixer)->heldBreaker = 40;
    CHECK_FALSE(sideOf(later, held));
}

TEST_CASE("merge over random concurrent edits: valid, always the same, and each edit that no other meets is in it") {
    for (std::uint32_t seed = 1; seed <= 60; ++seed) {
        const Project base = randomBuilding(seed, 3 + int(seed % 7));
        if (base.loads.empty()) continue;
        Project ours = base, theirs = base;
        Random r(seed * 131);
        std::set<Touched> mine, other;
        for (int n = 1 + r(10); n > 0; --n) mine.insert(touch(ours, r, "ours "));
        for (int n = 1 + r(10); n > 0; --n) other.insert(touch(theirs, r, "theirs "));
        const Merged m = mergeProjects(base, ours, theirs);
        INFO(seed);
        CHECK_FALSE(validate(m.project));
        CHECK(mergeProjects(base, ours, theirs).project == m.project);
        // What the merge changed against base is what either did; against ours, what theirs alone did.
        std::set<Touched> both = mine;
        both.insert(other.begin(), other.end());
        std::set<Touched> told;
        for (const EnteredChange& e : enteredChanges(base, m.project))
            for (const FieldChange& f : e.fields) told.insert({e.thing, f.field});
        CHECK(told == both);
        std::set<Touched> onlyTheirs, gained;
        for (const Touched& t : other)
            if (!mine.count(t)) onlyTheirs.insert(t);
        for (const EnteredChange& e : enteredChanges(ours, m.project))
            for (const FieldChange& f : e.fields) gained.insert({e.thing, f.field});
        CHECK(gained == onlyTheirs);
        CHECK(m.conflicts.size() == other.size() - onlyTheirs.size()); // fields that both changed
    }
}

TEST_CASE("merge with nothing on one side is the other side, to the byte") {
    const Project base = hall();
    Project theirs = base;
    Random r(5);
    for (int n = 0; n < 20; ++n) touch(theirs, r, "t");
    CHECK(writeProject(mergeProjects(base, base, theirs).project) == writeProject(theirs));
    CHECK(writeProject(mergeProjects(base, theirs, base).project) == writeProject(theirs));
    CHECK(writeProject(mergeProjects(base, theirs, theirs).project) == writeProject(theirs));
    CHECK(mergeProjects(base, theirs, theirs).conflicts.empty());
}

TEST_CASE("clouds: a schedule is marked where a breaker, a wire and a load have changed, and nowhere else") {
    const Project a = hall();
    Project b = a;
    const CircuitId fryer = circuitNamed(a, "LP-2-7");
    for (const Load& l : a.loads)
        if (l.circuit == fryer) b.loads.change(l.id)->amount = 9;
    const Results x = solve(a, nec()), y = solve(b, nec());
    const BoardId lp2 = a.circuits[fryer].board;
    const Drawing before = panelSchedule({a, nec(), x}, lp2, "E-606"),
                  after = panelSchedule({b, nec(), y}, lp2, "E-606");
    CHECK(cloudsOf(before, before).empty());
    const auto clouds = cloudsOf(before, after);
    REQUIRE_FALSE(clouds.empty());
    const auto in = [&](const Cloud& c, Point p) {
        return p.x >= c.left && p.x <= c.right && p.y >= c.top && p.y <= c.bottom;
    };
    // Every text that is new lies in a cloud; a text that stood there before, outside them, is none of theirs.
    int fresh = 0;
    for (const Mark& m : after.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) {
            const bool was = std::any_of(before.marks.begin(), before.marks.end(), [&](const Mark& k) {
                const auto* o = std::get_if<TextMark>(&k);
                return o && *o == *t;
            });
            const bool clouded =
                std::any_of(clouds.begin(), clouds.end(), [&](const Cloud& c) { return in(c, t->at); });
            if (!was && t->at.y < after.height - 16) {
                ++fresh;
                INFO(t->text);
                CHECK(clouded);
            }
            if (t->text == "Combi oven") CHECK_FALSE(clouded);
        }
    CHECK(fresh >= 4); // the breaker, the wire, two lines' load, the tally
    Drawing marked = after;
    drawClouds(marked, clouds, "3");
    CHECK(marked.marks.size() > after.marks.size() + 4 * clouds.size());
    CHECK(marked.words().find("\n3\n") != std::string::npos);
}

TEST_CASE("comparison: boards whose devices differ come first, and in a board what differs most") {
    // LP-10 loses a size only; LP-9 gets other breakers: 20 → 25 A by a quarter, 20 → 40 A to the double.
    OneBoard w;
    w.p.boards.change(w.board)->name = "LP-9";
    const CircuitId little = w.circuit(15, LoadUnit::A, 1, 10), much = w.circuit(15, LoadUnit::A, 1, 10);
    w.p.circuits.change(little)->heldBreaker = 20, w.p.circuits.change(much)->heldBreaker = 20;
    Board second = w.p.boards[w.board];
    second.id = {}, second.name = "LP-10", second.run = {}, second.feed = w.source;
    const BoardId ten = addBoard(w.p, second);
    const CircuitId other = addCircuit(w.p, ten, 1, "load");
    Load l;
    l.circuit = other, l.amount = 10, l.unit = LoadUnit::A;
    w.p.loads.add(l);
    Project after = w.p;
    after.circuits.change(little)->heldBreaker = 25, after.circuits.change(much)->heldBreaker = 40;
    runOf(after, other).heldSize = "8";
    const ProjectComparison c = compared(w.p, after);
    std::vector<std::pair<std::string, Ref>> order;
    for (const FollowedChange& f : c.follows)
        if (f.weight != FollowedChange::Weight::Figure) order.push_back({f.group, f.thing});
    REQUIRE(order.size() == 3);
    CHECK(order[0] == std::pair{std::string("LP-9"), Ref(much)});
    CHECK(order[1] == std::pair{std::string("LP-9"), Ref(little)});
    CHECK(order[2] == std::pair{std::string("LP-10"), Ref(other)});
    CHECK(c.follows[0].share == Approx(1));
    CHECK(c.follows[1].share == Approx(0.25));
}

TEST_CASE("comparison: a load that was entered otherwise is told with its unit, also where that is another") {
    OneBoard w;
    w.circuit(28, LoadUnit::kVA, 3, 10);
    Project after = w.p;
    Load& l = *after.loads.change(after.loads.begin()->id);
    l.amount = 33;
    CHECK(anyHas(compared(w.p, after).entered, "load 28 kVA → 33 kVA"));
    l.unit = LoadUnit::kW;
    CHECK(anyHas(compared(w.p, after).entered, "load 28 kVA → 33 kW"));
}

TEST_CASE("comparison: a snag that tells other figures is there still, and neither new nor gone") {
    // 16 A over 300 ft on 12 AWG lose far more than 3 %, over 310 ft a little more; over 10 ft less.
    OneBoard w;
    w.p.basis.upsizingCeiling = 0;
    const CircuitId c = w.circuit(16, LoadUnit::A, 1, 300);
    const auto longer = [&](double length) {
        Project p = w.p;
        runOf(p, c).length = feet(length).v;
        return compared(w.p, p);
    };
    const ProjectComparison more = longer(310);
    CHECK(more.newSnags.empty());
    CHECK(more.gone.empty());
    REQUIRE(more.otherwise.size() == 1);
    CHECK_THAT(more.otherwise[0], Catch::Contains("lost, limit 3.00 %"));
    CHECK_THAT(more.text(), Catch::Contains("SNAGS WITH OTHER FIGURES"));
    const ProjectComparison less = longer(10);
    CHECK(less.gone.size() == 1);
    CHECK(less.otherwise.empty());
}
