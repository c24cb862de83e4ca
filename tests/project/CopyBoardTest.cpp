#include "core/copy/CopyBoard.h"
#include "core/copy/CopyBranch.h"
#include "core/project/Document.h"
#include "core/project/ProjectFile.h"
#include "core/project/Sections.h"
#include "core/project/Validation.h"
#include "tests/Building.h"

#include <set>

using namespace lintel;

TEST_CASE("a board copied: feeder, circuits, runs and loads follow, under the new name") {
    Document d(*loadProject(dataFolder() / "demos" / "brindle-pier.lintel"));
    const Project before = d.project();
    BoardId from, made;
    for (const Board& b : before.boards)
        if (b.name == "DB-3") from = b.id;
    d.edit("Copy", [&](Project& p) {
        const auto copy = copyBoard(p, from, "DB-9");
        REQUIRE(copy);
        made = *copy;
    });
    const Project& p = d.project();
    REQUIRE_FALSE(validate(p));
    const auto count = [&](const Project& q, BoardId b) {
        return std::count_if(q.circuits.begin(), q.circuits.end(), [&](const Circuit& c) { return c.board == b; });
    };
    CHECK(count(p, made) == count(before, from));
    const Results was = solve(before, bs()), now = solve(p, bs());
    // The same load hangs on it, and the same sizes; no name of the old board is left in it.
    CHECK(now.of(made).connected == Approx(was.of(from).connected));
    CHECK(now.of(from).connected == Approx(was.of(from).connected));
    CHECK(now.of(made).parent == now.of(from).parent);
    CHECK(now.of(made).run.size == now.of(from).run.size);
    std::map<std::string, int> names;
    for (const Run& r : p.runs)
        if (!r.name.empty()) ++names[r.name];
    for (const auto& [name, n] : names) {
        INFO(name);
        CHECK(n == 1); // a cable's name stands for one cable
    }
    for (const Circuit& c : p.circuits)
        if (c.board == made) CHECK(nameOf(p, c.id).rfind("DB-9/", 0) == 0);
    CHECK(p.devices.size() == before.devices.size()); // what is drawn stays where it is
    for (const Circuit& c : p.circuits)               // and what is not drawn keeps the length of what was
        if (c.board == made && c.use == CircuitUse::Load)
            for (const Circuit& o : before.circuits)
                if (o.board == from && o.slot == c.slot) {
                    INFO(c.name);
                    CHECK(now.of(c.id).run.need.length.v == Approx(was.of(o.id).run.need.length.v));
                }
    d.undo();
    CHECK(d.project() == before);
    Project q = before;
    CHECK_FALSE(copyBoard(q, from, "DB-4")); // taken
    CHECK_FALSE(copyBoard(q, from, ""));
    CHECK(q == before);
}

TEST_CASE("sections of a board in words and back") {
    Project p = *loadProject(dataFolder() / "demos" / "brindle-pier.lintel");
    for (const Board& b : p.boards) {
        const std::string words = sectionsText(p, b.id);
        if (b.name == "DB-8") CHECK(words == "Section A 1–6 63 A 30 mA; Section B 7–12 63 A 30 mA");
        if (b.name == "MSB") CHECK(words == "Incomer and essential 1–9; Quay and mechanical 10–18"); // by ways
        Project q = p;
        REQUIRE_FALSE(setSections(q, b.id, words));
        CHECK(sectionsText(q, b.id) == words);
    }
    const BoardId eight = [&] {
        for (const Board& b : p.boards)
            if (b.name == "DB-8") return b.id;
        return BoardId{};
    }();
    const Project before = p;
    for (const char* bad : {"Left", "Left 5-3", "Left 1-99", "Left 1-4; Right 4-8", "1-4", "Left 1-4 32 kg"}) {
        INFO(bad);
        const auto e = setSections(p, eight, bad);
        REQUIRE(e);
        CHECK_FALSE(e->help.empty());
        CHECK(p == before);
    }
    CHECK_FALSE(setSections(p, eight, "Tenant 1-14 metered"));
    CHECK(sectionsText(p, eight) == "Tenant 1–14 metered");
    CHECK_FALSE(setSections(p, eight, ""));
    CHECK(sectionsText(p, eight).empty());
}

TEST_CASE("circuits are named by the basis' own pattern") {
    MetricBoard w;
    const CircuitId one = w.run(1, 5), three = w.run(9, 5, 3);
    CHECK(nameOf(w.p, one) == "LP-1/1/L1");
    CHECK(nameOf(w.p, three) == "LP-1/2");
    w.p.basis.circuitPattern = "{board}.{way}{line}";
    CHECK(nameOf(w.p, one) == "LP-1.1L1");
    CHECK(nameOf(w.p, three) == "LP-1.2");
    w.p.basis.circuitPattern = "{slot} of {board}, {what}";
    CHECK(nameOf(w.p, three) == "4 of LP-1, {what}");
    w.p.basis.circuitPattern = "{board";
    CHECK(nameOf(w.p, three) == "{board");
}

namespace {

Ref named(const Project& p, const std::string& name) {
    for (const Board& b : p.boards)
        if (b.name == name) return b.id;
    for (const Transformer& t : p.transformers)
        if (t.name == name) return t.id;
    return {};
}

} // namespace

TEST_CASE("a part of the distribution copied: everything below comes along and is fed as the first is") {
    // MSB – T-1 – RP-1 (two circuits, one of them to RP-2), and a panel beside.
    OneBoard w(VoltageSystem::Y480);
    Project& p = w.p;
    p.boards.change(w.board)->name = "MSB";
    Transformer t;
    t.name = "T-1";
    t.kva = 75;
    const TransformerId one = p.transformers.add(t);
    feedFrom(p, one, w.board);
    runOfNode(p, one).name = "F-1";
    p.circuits.change(p.transformers[one].feed.as<Circuit>())->heldBreaker = 125;
    Board b;
    b.name = "RP-1";
    const BoardId first = addBoard(p, b);
    feedFrom(p, first, one);
    b.name = "RP-2";
    const BoardId second = addBoard(p, b);
    feedFrom(p, second, first);
    runOfNode(p, second).name = "F-2";
    p.circuits.change(p.boards[second].feed.as<Circuit>())->heldBreaker = 60;
    for (BoardId id : {first, second}) {
        const CircuitId c = addCircuit(p, id, 1, "Lighting");
        Load l;
        l.circuit = c;
        l.amount = 1500;
        p.loads.add(l);
    }
    const Project before = p;
    CHECK(branchSize(p, one) == 3);
    CHECK(branchSize(p, second) == 1);
    const auto made = copyBranch(p, one, w.board);
    REQUIRE(made);
    REQUIRE_FALSE(validate(p));
    CHECK(*made == named(p, "T-2"));
    const BoardId third = named(p, "RP-3").as<Board>(), fourth = named(p, "RP-4").as<Board>();
    REQUIRE(third);
    REQUIRE(fourth);
    const Results r = solve(p, nec()), was = solve(before, nec());
    CHECK(r.node(*made)->parent == Ref(w.board));
    CHECK(r.of(third).parent == *made);
    CHECK(r.of(fourth).parent == Ref(third));
    CHECK(r.of(third).connected == Approx(3000));
    CHECK(r.of(fourth).connected == Approx(1500));
    CHECK(r.of(w.board).connected == Approx(2 * was.of(w.board).connected));
    CHECK(*p.circuits[p.boards[fourth].feed.as<Circuit>()].heldBreaker == 60);
    CHECK(*p.circuits[p.transformers[made->as<Transformer>()].feed.as<Circuit>()].heldBreaker == 125);
    // The feeder stands where the first one does, and each run has a name of its own.
    CHECK(p.circuits[p.boards[fourth].feed.as<Circuit>()].slot == p.circuits[p.boards[second].feed.as<Circuit>()].slot);
    std::set<std::string> names;
    for (const Run& run : p.runs)
        if (!run.name.empty()) CHECK(names.insert(run.name).second);
    CHECK(p.runs[p.transformers[made->as<Transformer>()].run].name == "F-3"); // the next that is free
    CHECK(p.runs[p.boards[fourth].run].name == "F-4");
    checkWhole(p, r);
    // What was there is as it was.
    for (const Board& old : before.boards) CHECK(p.boards[old.id] == old);
    // Refused whole: a board of 208 V does not hang on 480 V.
    Project q = before;
    const auto bad = copyBranch(q, first, w.board);
    CHECK_FALSE(bad);
    CHECK(bad.error().text().find("480") != std::string::npos);
    CHECK(q == before);
    CHECK_FALSE(copyBranch(q, w.source, w.board));
}

TEST_CASE("a part of the distribution copied: what takes over within it and from outside takes over the copy") {
    Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const Ref ats = named(p, "ATS-1");
    REQUIRE(ats);
    const Ref from = p.circuits.has(feedOf(p, ats).as<Circuit>()) ? Ref(p.circuits[feedOf(p, ats).as<Circuit>()].board)
                                                                  : feedOf(p, ats);
    const auto made = copyBranch(p, ats, from);
    REQUIRE(made);
    REQUIRE_FALSE(validate(p));
    const Board &old = p.boards[ats.as<Board>()], &copy = p.boards[made->as<Board>()];
    CHECK(copy.name == "ATS-2");
    CHECK(copy.alternate == old.alternate);
    CHECK(copy.alternateRun != old.alternateRun);
    const Results r = solve(p, nec());
    CHECK(r.of(copy.id).connected == Approx(r.of(old.id).connected));
}

TEST_CASE("any part of thirty buildings copied: it holds, it carries the same, and everything else is as it was") {
    for (std::uint32_t seed = 1; seed <= 30; ++seed) {
        Project p = randomBuilding(seed, 3 + int(seed) % 9);
        if (seed % 2) equip(p, seed);
        const Results was = solve(p, nec());
        Random random(seed);
        const Ref node = was.order[std::size_t(random(int(was.order.size())))];
        const Ref parent = was.node(node)->parent;
        if (!parent || was.node(node)->looped) continue;
        INFO("seed " << seed << ", " << nameOf(p, node));
        Project q = p;
        const auto made = copyBranch(q, node, parent);
        if (!made) { // its board is full
            CHECK(q == p);
            continue;
        }
        REQUIRE_FALSE(validate(q));
        const Results r = solve(q, nec());
        CHECK(r.node(*made)->connected == Approx(was.node(node)->connected));
        CHECK(r.node(*made)->parent == parent);
        CHECK(branchSize(q, *made) == branchSize(p, node));
        for (const Board& b : p.boards) CHECK(q.boards[b.id] == b);
        for (const Circuit& c : p.circuits) CHECK(q.circuits[c.id] == c);
    }
}
