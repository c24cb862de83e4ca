// What a designer's hands do to boards: moving, pushing, inserting, tying, copying, pasting, filling, sizing, naming; a
// thousand of them at random leave no overlap, keep the project valid, and undo to the byte.

#include "core/check/CircuitFilter.h"
#include "core/check/GroupEdit.h"
#include "core/copy/CircuitBlock.h"
#include "core/level/Level.h"
#include "core/project/BoardSize.h"
#include "core/project/Catalogue.h"
#include "core/project/CircuitFacts.h"
#include "core/project/Document.h"
#include "core/project/NamePattern.h"
#include "core/project/ProjectFile.h"
#include "core/project/Slots.h"
#include "core/project/Validation.h"
#include "tests/Building.h"
#include "tests/World.h"

#include <set>

using namespace lintel;

namespace {

/// Slots that two circuits of a board both claim, or that lie past its end.
int overlaps(const Project& p) {
    int n = 0;
    for (const Board& b : p.boards) {
        std::vector<char> taken(std::size_t(b.slots) + 1, 0);
        for (const Circuit& c : p.circuits) {
            if (c.board != b.id || c.slot <= 0) continue;
            const auto at = slotsTaken(b, c.slot, c.poles);
            n += at.empty();
            for (int s : at) n += taken[std::size_t(s)]++ > 0;
        }
    }
    return n;
}

std::vector<std::string> slotsOf(const Project& p, BoardId b) {
    std::vector<std::string> out;
    for (const Circuit& c : p.circuits)
        if (c.board == b) out.push_back(std::to_string(c.slot) + " " + c.name);
    std::sort(out.begin(), out.end());
    return out;
}

struct Row : OneBoard { // circuits a, b, c … down the left column
    std::vector<CircuitId> c;
    explicit Row(int n, int slots = 24) : OneBoard(VoltageSystem::Y208, slots) {
        for (int i = 0; i < n; ++i) {
            c.push_back(circuit(100 * (i + 1)));
            Circuit& x = *p.circuits.change(c.back());
            x.slot = 2 * i + 1, x.name = std::string(1, char('a' + i));
        }
    }
};

} // namespace

TEST_CASE("what stands in the way makes room, as few as can be and as little as can be; units stay whole") {
    Row w(6);                                                // 1 3 5 7 9 11
    const CircuitId three = w.circuit(900, LoadUnit::VA, 3); // 2-4-6
    MovePlan m = planMove(w.p, three, 3);                    // over b, c, d: they swap with its place
    REQUIRE(m.possible);
    CHECK(m.swap);
    CHECK(m.places.size() == 4);
    // From another board nothing was left behind: b, c, d go to the nearest free places, and nothing moves for them.
    Board other = w.p.boards[w.board];
    other.id = {}, other.name = "LP-2", other.feed = {}, other.run = {};
    const BoardId two = addBoard(w.p, other);
    const CircuitId guest = addCircuit(w.p, two, 3, "guest");
    m = planMove(w.p, std::vector{guest}, w.board, 3);
    REQUIRE(m.possible);
    CHECK_FALSE(m.swap);
    CHECK(m.pushed == 3);
    for (const auto& [c, slot] : m.places)
        if (c != guest) CHECK(((c == w.c[1] || c == w.c[2] || c == w.c[3]) && slot > 6));
    Project p = w.p;
    applyMove(p, m);
    CHECK(p.circuits[guest].board == w.board);
    CHECK(overlaps(p) == 0);
    // A pinned one, a reserved place and too many poles are refused with the reason.
    w.p.circuits.change(w.c[1])->pinned = true;
    CHECK(planMove(w.p, std::vector{guest}, w.board, 3).reason == "LP-1-3 is pinned");
    w.p.circuits.change(w.c[1])->pinned = false;
    w.p.circuits.change(w.c[1])->use = CircuitUse::Reserved;
    CHECK(planMove(w.p, std::vector{guest}, w.board, 3).reason == "slot 3 is reserved");
    Board single = other;
    single.id = {}, single.name = "LP-3", single.system = VoltageSystem::S240;
    const BoardId small = addBoard(w.p, single);
    CHECK(planMove(w.p, std::vector{guest}, small, 1).reason.find("LP-3 has 2 lines") == 0);
    Board high = other;
    high.id = {}, high.name = "HP-1", high.system = VoltageSystem::Y480;
    CHECK(planMove(w.p, std::vector{w.c[0]}, addBoard(w.p, high), 1).reason ==
          "LP-1-1 takes 120 V; HP-1 gives it 277 V");
}

TEST_CASE("tied breakers move as one, are pushed as one, and are brought together when they are tied") {
    Row w(5);
    Project p = w.p;
    REQUIRE_FALSE(tieCircuits(p, {w.c[0], w.c[2]})); // a and c: b is between
    CHECK(p.circuits[w.c[0]].slot == 1);
    CHECK(p.circuits[w.c[2]].slot == 3);
    CHECK(p.circuits[w.c[1]].slot == 5);
    CHECK(p.circuits[w.c[0]].tie == p.circuits[w.c[2]].tie);
    MovePlan m = planMove(p, w.c[2], 15); // the second of them is grabbed: both go
    REQUIRE(m.possible);
    CHECK(m.places.size() == 2);
    applyMove(p, m);
    CHECK(p.circuits[w.c[0]].slot == 15);
    CHECK(p.circuits[w.c[2]].slot == 17);
    m = planMove(p, w.c[4], 17); // e onto the second of the pair: the pair swaps or makes room whole
    REQUIRE(m.possible);
    applyMove(p, m);
    CHECK(p.circuits[w.c[2]].slot - p.circuits[w.c[0]].slot == 2);
    CHECK(overlaps(p) == 0);
    REQUIRE_FALSE(tieCircuits(p, {w.c[0], w.c[2]})); // once more: untied
    CHECK(p.circuits[w.c[0]].tie == 0);
    CHECK(tieCircuits(p, {w.c[0]})->what.find("two breakers") != std::string::npos);
}

TEST_CASE("a row is inserted: what stands below goes down to the first gap, and no further") {
    Row w(4);
    w.p.circuits.change(w.c[3])->slot = 11; // a b c at 1 3 5, gap at 7, d at 11
    const MovePlan m = planInsert(w.p, w.board, 3);
    REQUIRE(m.possible);
    applyMove(w.p, m);
    CHECK(slotsOf(w.p, w.board) == std::vector<std::string>{"1 a", "11 d", "5 b", "7 c"});
    w.p.circuits.change(w.c[2])->pinned = true;
    CHECK(planInsert(w.p, w.board, 5).reason == "LP-1-7 is pinned");
    CHECK_FALSE(planInsert(w.p, w.board, 3).possible); // free already
    Row full(12);
    CHECK(planInsert(full.p, full.board, 1).reason.find("no free row") != std::string::npos);
}

TEST_CASE("facts are entered as they are typed, and refused in words") {
    Row w(2);
    const auto enter = [&](const char* fact, const std::string& text) {
        return circuitFact(fact)->write(w.p, w.c[0], text);
    };
    const auto read = [&](const char* fact) { return circuitFact(fact)->read(w.p, w.p.circuits[w.c[0]]); };
    CHECK_FALSE(enter("load", "1.5 kVA"));
    CHECK(read("load") == "1.5 kVA");
    CHECK_FALSE(enter("breaker", "30/2"));
    CHECK(w.p.circuits[w.c[0]].poles == 2); // b, below it, made room
    CHECK(overlaps(w.p) == 0);
    CHECK(read("breaker") == "30");
    CHECK_FALSE(enter("breaker", "auto"));
    CHECK(read("breaker").empty());
    CHECK_FALSE(enter("length", "120 ft"));
    CHECK(w.p.runs[w.p.circuits[w.c[0]].run].length == Approx(36.576));
    CHECK(enter("load", "lots")->help.find("10 hp") != std::string::npos);
    CHECK(enter("breaker", "9999"));
    CHECK(enter("poles", "4"));
    CHECK(enter("kind", "wibble")->help.find("lighting") != std::string::npos);
    CHECK(enter("serves", "spare")->what.find("carries a load") != std::string::npos);
    CHECK_FALSE(enter("load", ""));
    CHECK_FALSE(enter("serves", "Reserved: chiller"));
    CHECK(w.p.circuits[w.c[0]].use == CircuitUse::Reserved);
    CHECK(read("serves") == "Reserved: chiller");
    CHECK_FALSE(enter("serves", "Kiosk"));
    CHECK(w.p.circuits[w.c[0]].use == CircuitUse::Load);
    CHECK_FALSE(validate(w.p));
    // Columns of one's own: what is named is set, what is not stays; what is not a heading changes nothing.
    CHECK_FALSE(enter("own columns", "Tag: K-4; Panel: left"));
    CHECK_FALSE(enter("own columns", "Tag: K-5"));
    CHECK(read("own columns") == "Panel: left; Tag: K-5");
    CHECK_FALSE(enter("own columns", "Panel:"));
    CHECK(read("own columns") == "Tag: K-5");
    for (const char* bad : {"K-4", ": x", "Tag: 1; Tag: 2", "{size}: x"}) CHECK(enter("own columns", bad));
    CHECK(read("own columns") == "Tag: K-5");
    // Every fact that can be read can be entered again as it was read, and changes nothing.
    for (const CircuitFact& f : circuitFacts()) {
        Project before = w.p;
        INFO(f.key);
        if (const std::string now = f.read(w.p, w.p.circuits[w.c[1]]); !now.empty()) {
            CHECK_FALSE(f.write(w.p, w.c[1], now));
            CHECK(w.p == before);
        }
    }
}

TEST_CASE(
    "circuits go to another board or project and keep all that belongs to them; names of cables and tags stay behind") {
    Row w(3);
    w.p.runs.change(w.p.circuits[w.c[0]].run)->heldSize = "8";
    w.p.circuits.change(w.c[0])->tie = 4, w.p.circuits.change(w.c[1])->tie = 4;
    const auto taken = readCircuits(writeCircuits(takeCircuits(w.p, w.c)));
    REQUIRE(taken);
    REQUIRE(taken->size() == 3);
    OneBoard other;
    other.circuit(50);
    const PutPlan put = planPut(other.p, other.board, 2, *taken);
    CHECK(put.slots == std::vector<int>{2, 4, 6});
    const auto made = putCircuits(other.p, other.board, *taken, put.slots);
    CHECK(other.p.runs[other.p.circuits[made[0]].run].heldSize == "8");
    CHECK(other.p.circuits[made[0]].tie == other.p.circuits[made[1]].tie);
    CHECK(other.solved().of(made[2]).va == Approx(300));
    CHECK_FALSE(validate(other.p));
    CHECK(readCircuits("{\"lintel\": 1, \"circuits\": [{\"id\":\"C1\"}]}").error().where.find("clipboard") == 0);
    OneBoard full(VoltageSystem::Y208, 2);
    CHECK(planPut(full.p, full.board, 1, *taken).without == 1);
}

TEST_CASE("a block goes to a spreadsheet and comes back; one from a spreadsheet fills rows from the cursor down") {
    Row w(3);
    const std::string block = blockText(w.p, w.c);
    CHECK(block.find("Circuit\tServes\tLoad\tBreaker") == 0);
    CHECK(block.find("LP-1-1\ta\t100 VA") != std::string::npos);
    Project p = w.p;
    CHECK(pasteBlock(p, w.board, 1, "serves", block).problems.empty());
    CHECK(writeProject(p) == writeProject(w.p)); // the same again changes nothing
    const BlockPaste added =
        pasteBlock(p, w.board, 2, "serves",
                   "Kiosk\t1.2 kVA\t20\nOven, \"large\"\t5 kW\t40/2\n\nSpare\n\"two\nlines\"\tnonsense\n");
    CHECK(added.rows == 4);
    CHECK(added.added == 4);
    REQUIRE(added.problems.size() == 1);
    CHECK(added.problems[0].find("row 5, Load: “nonsense” is not a load") == 0);
    const auto map = slotMap(p, w.board);
    CHECK(p.circuits[map[2]].name == "Kiosk");
    CHECK(p.circuits[map[4]].poles == 2);
    CHECK(map[4] == map[6]);
    CHECK_FALSE(map[8]); // the empty row
    CHECK(p.circuits[map[10]].use == CircuitUse::Spare);
    CHECK(p.circuits[map[12]].name == "two\nlines");
    // One column goes to the fact at the cursor.
    pasteBlock(p, w.board, 1, "breaker", "25\n30\n35");
    CHECK(p.circuits[w.c[2]].heldBreaker == 35.0);
    CHECK(fillDown(p, w.c, "breaker").empty());
    CHECK(p.circuits[w.c[2]].heldBreaker == 25.0);
    CHECK(overlaps(p) == 0);
}

TEST_CASE("a board of another size keeps what fits and lists what does not; the smallest that holds it") {
    OneBoard w(VoltageSystem::Y208, 42);
    std::vector<CircuitId> c;
    for (int i = 0; i < 10; ++i) c.push_back(w.circuit(100));
    c.push_back(w.circuit(600, LoadUnit::VA, 3));
    w.p.circuits.change(c[9])->slot = 42;
    w.p.circuits.change(c[10])->slot = 37;   // 37-39-41
    CHECK(smallestSize(w.p, w.board) == 18); // 13 places; 12 are too few
    w.p.boards.change(w.board)->reservedShare = 0.3;
    CHECK(smallestSize(w.p, w.board) == 20); // 18 − 6 = 12 < 13; 20 − 6 = 14
    Resize r = planResize(w.p, w.board, 18);
    CHECK(r.left.empty());
    CHECK(r.moved.size() == 2);
    r = planResize(w.p, w.board, 12);
    REQUIRE(r.left.size() == 1); // the three poles have room; of the single ones one is left over
    Project p = w.p;
    applyResize(p, w.board, r);
    CHECK(overlaps(p) == 0);
    CHECK(p.circuits[r.left[0]].slot == 0);
    CHECK(p.loads.size() == w.p.loads.size()); // nothing is lost
    // To ways and back: three poles take a whole way.
    r = planResize(w.p, w.board, 24, BoardForm::Ways);
    CHECK(r.left.empty());
    applyResize(w.p, w.board, r);
    CHECK(overlaps(w.p) == 0);
    CHECK((w.p.circuits[c[10]].slot - 1) % 3 == 0);
}

TEST_CASE("sections of a switchboard with the space left in each") {
    OneBoard w(VoltageSystem::Y480, 24);
    w.p.boards.change(w.board)->form = BoardForm::SingleColumn;
    w.p.sections.add({{}, w.board, "Section 1", 1, 12, 0, 0, ResidualType::A, false, {}});
    for (int i = 0; i < 3; ++i) w.circuit(1000, LoadUnit::VA, 3); // 1 to 9
    const auto s = spaceBySection(w.p, w.board);
    REQUIRE(s.size() == 2);
    CHECK(s[0].left() == 3);
    CHECK(s[0].largestGap == 3);
    CHECK(s[1].left() == 12);
    w.circuit(100);
    CHECK(spaceBySection(w.p, w.board)[0].largestGap == 2);
}

TEST_CASE("names by pattern follow rooms and loads and leave what was typed") {
    OneBoard w;
    const LevelId level = w.p.levels.begin()->id;
    const auto room = [&](const char* number, const char* name, double x) {
        Room r;
        r.level = level, r.number = number, r.name = name, r.outline = {{x, 0}, {x + 4, 0}, {x + 4, 4}, {x, 4}};
        return w.p.rooms.add(r);
    };
    room("101", "Office", 0), room("102", "Office", 4), room("103", "Office", 8), room("110", "Store", 12);
    DeviceType y;
    y.name = "Duplex";
    const DeviceTypeId type = w.p.deviceTypes.add(y);
    const CircuitId c = addCircuit(w.p, w.board, 1, ""), typed = addCircuit(w.p, w.board, 1, "Reception, by the door");
    for (double x : {1.0, 5.0, 9.0, 13.0, 14.0}) {
        Device d;
        d.type = type, d.level = level, d.at = {x, 2}, d.circuit = c;
        w.p.devices.add(d);
    }
    Device d;
    d.type = type, d.level = level, d.at = {2, 2}, d.circuit = typed;
    w.p.devices.add(d);
    Naming n = planNaming(w.p, w.board);
    REQUIRE(n.changes.size() == 1);
    CHECK(n.kept == 1);
    CHECK(n.changes[0].second == "Receptacles, Store 110, Office 101, Office 102 and 1 more");
    w.p.basis.namePattern = "{load}: {numbers}";
    n = planNaming(w.p);
    CHECK(n.changes[0].second == "Receptacles: 101–103, 110");
    applyNaming(w.p, n);
    CHECK(planNaming(w.p).changes.empty());
    // The rooms change: the made name follows, the typed one stays. Typed over, the made one stays too.
    w.p.basis.namePatternByUse["receptacle"] = "{count} outlets, {board}";
    applyNaming(w.p, planNaming(w.p));
    CHECK(w.p.circuits[c].name == "5 outlets, LP-1");
    w.p.circuits.change(c)->name = "By hand";
    CHECK(planNaming(w.p).changes.empty());
    CHECK(planNaming(w.p).kept == 2);
    CHECK(w.p.circuits[typed].name == "Reception, by the door");
    CHECK(roomRuns({"12", "2", "3", "4", "A1", "A2", "A3", "7"}) == "2–4, 7, 12, A1–A3");
}

TEST_CASE("circuits are found by what is typed, and many are changed at once with what it does told first") {
    Row w(6);
    w.p.circuits.change(w.c[0])->name = "Kitchen hood";
    w.p.circuits.change(w.c[1])->pinned = true;
    w.p.circuits.change(w.c[2])->tie = 1;
    w.p.circuits.change(w.c[3])->tie = 1;
    w.p.circuits.change(w.c[3])->multiwire = 2;
    w.p.circuits.change(w.c[5])->name.clear();
    const Results r = w.solved();
    const auto count = [&](const char* text) {
        const auto f = CircuitFilter::from(text);
        REQUIRE(f);
        return std::count_if(w.p.circuits.begin(), w.p.circuits.end(), [&](const Circuit& c) {
            return f->matches({w.p, nec(), r}, c);
        });
    };
    CHECK(count("") == 6);
    CHECK(count("kitchen") == 1);
    CHECK(count("board:lp-1 va>250") == 4);
    CHECK(count("va>250 va<450") == 2);
    CHECK(count("-pinned poles=1") == 5);
    CHECK(count("kind:equipment pinned") == 1);
    CHECK(count("\"kitchen hood\"") == 1);
    CHECK(count("tied") == 2);
    CHECK(count("-tied") == 4);
    CHECK(count("multiwire") == 1);
    CHECK(count("unnamed") == 1);
    CHECK(count("empty") == 0);
    CHECK(count("spare") == 0);
    CHECK(count("reserved") == 0);
    CHECK(count("feeder") == 0);
    CHECK(count("held") == 0);
    CHECK(count("raised") == 0);
    CHECK(count("unplaced") == 0);
    CHECK(CircuitFilter::from("colour:red").error().what.find("no fact") != std::string::npos);
    CHECK(CircuitFilter::from("va>many").error().what.find("not a number") != std::string::npos);
    const GroupEdit g = planGroupEdit({w.p, nec(), r}, w.c, "breaker", "30");
    CHECK(g.changing == 6);
    CHECK(g.effect.devices == 6);
    CHECK(g.effect.sizes == 6);                    // 30 A wants 10 AWG
    CHECK_FALSE(w.p.circuits[w.c[0]].heldBreaker); // nothing was done
    const GroupEdit poles = planGroupEdit({w.p, nec(), r}, w.c, "poles", "9");
    CHECK(poles.changing == 0);
    CHECK(poles.rows[0].refused.find("not a number of poles") != std::string::npos);
}

TEST_CASE("a thousand of a designer's edits at random leave no overlap, and undone they leave the same bytes") {
    Document d(randomBuilding(5, 6));
    REQUIRE(overlaps(d.project()) == 0);
    const std::string start = writeProject(d.project());
    Random r(77);
    const char* words[] = {"20",     "30/2", "auto", "1.5 kVA",  "2 kW", "spare", "reserved", "lighting",
                           "120 ft", "yes",  "",     "nonsense", "3",    "Kiosk", "8",        "15/3"};
    int done = 0;
    for (int i = 0; i < 1000; ++i) {
        const auto any = [&](const auto& table) {
            return std::decay_t<decltype(table.begin()->id)>{1 + std::uint32_t(r(int(table.highest()) + 1))};
        };
        done += d.edit("work " + std::to_string(i), [&](Project& p) {
            const BoardId b = any(p.boards);
            const CircuitId c = any(p.circuits), o = any(p.circuits);
            if (!p.boards.has(b) || !p.circuits.has(c)) return;
            const Board& board = p.boards[b];
            switch (r(14)) {
            case 0:
                if (const MovePlan m = planMove(p, c, 1 + r(board.slots)); m.possible) applyMove(p, m);
                break;
            case 1:
                if (const MovePlan m = planMove(p, std::vector{c}, b, 1 + r(board.slots)); m.possible) applyMove(p, m);
                break;
            case 2:
                if (p.circuits.has(o) && p.circuits[o].board == p.circuits[c].board)
                    if (const MovePlan m = planMove(p, std::vector{c, o}, b, 1 + r(board.slots)); m.possible)
                        applyMove(p, m);
                break;
            case 3:
                if (const MovePlan m = planInsert(p, b, 1 + r(board.slots)); m.possible) applyMove(p, m);
                break;
            case 4:
                if (p.circuits.has(o) && c != o) {
                    Project q = p;
                    if (!tieCircuits(q, {c, o})) p = q;
                }
                break;
            case 5:
            case 6: {
                Project q = p;
                if (!circuitFacts()[std::size_t(r(int(circuitFacts().size())))].write(q, c,
                                                                                      words[r(int(std::size(words)))]))
                    p = q;
                break;
            }
            case 7: {
                const auto taken = takeCircuits(p, {c});
                const PutPlan put = planPut(p, b, r(board.slots), taken);
                if (!put.error) putCircuits(p, b, taken, put.slots);
                break;
            }
            case 8:
                pasteBlock(p, b, 1 + r(board.slots), "serves", "Fan\t1 kVA\t20\nPump\t2 hp\t30/2\n");
                break;
            case 9: {
                const auto& sizes = boardSizes(board.form);
                applyResize(p, b, planResize(p, b, sizes[std::size_t(r(int(sizes.size())))]));
                break;
            }
            case 10:
                applyNaming(p, planNaming(p, b));
                break;
            case 11:
                fillDown(p, {c, o == c || !p.circuits.has(o) ? c : o}, "breaker");
                break;
            case 12:
                if (r(3) == 0) removeCircuit(p, c);
                break;
            case 13: {
                const Results solved = solve(p, nec());
                applyArrangement(p, levelBoard(p, solved, b, 3000).best());
                break;
            }
            }
        });
        if (i % 25 == 0) {
            INFO("edit " << i << ": " << d.undoLabel());
            const auto bad = validate(d.project());
            if (bad) FAIL(bad->text());
            REQUIRE(overlaps(d.project()) == 0);
        }
    }
    CHECK(done > 300);
    CHECK(overlaps(d.project()) == 0);
    checkWhole(d.project(), solve(d.project(), nec()));
    d.undoAll();
    CHECK(writeProject(d.project()) == start);
}

TEST_CASE("a catalogue gives its types by name; a load is entered by the name of one") {
    for (const ShippedProject& c : shippedProjects("catalogues")) {
        INFO(c.file);
        const auto p = loadProject(c.file);
        REQUIRE(p);
        CHECK(p->deviceTypes.size() > 20);
        CHECK(p->boards.empty());
    }
    CHECK(shippedProjects("catalogues").size() == 2);
    const auto shipped = *loadProject(dataFolder() / "catalogues" / "general-us.lintel");
    Row w(1);
    DeviceType own;
    own.name = "Oven, 12 kW", own.load = 9, own.unit = LoadUnit::kW;
    const DeviceTypeId id = w.p.deviceTypes.add(own);
    const TakenTypes t = takeTypes(w.p, shipped);
    CHECK(t.changed == 1); // the company's figure takes the place of the project's
    CHECK(t.added + 1 == int(shipped.deviceTypes.size()));
    CHECK(w.p.deviceTypes[id].load == 12);
    CHECK(takeTypes(w.p, shipped).same == int(shipped.deviceTypes.size()));
    // What a catalogue says nothing of stays as the project has it.
    w.p.deviceTypes.change(id)->mark = "K1";
    w.p.deviceTypes.change(id)->picture = "oven.png";
    CHECK(takeTypes(w.p, shipped).changed == 0);
    CHECK(w.p.deviceTypes[id].mark == "K1");
    CHECK_FALSE(validate(w.p));
    const Project catalogue = catalogueOf(w.p);
    CHECK(catalogue.boards.empty());
    CHECK(*readProject(writeProject(catalogue), "catalogue") == catalogue);
    CHECK_FALSE(circuitFact("load")->write(w.p, w.c[0], "oven, 12 kw"));
    CHECK(w.p.circuits[w.c[0]].poles == 3);
    CHECK(circuitFact("load")->read(w.p, w.p.circuits[w.c[0]]) == "12 kW");
    CHECK(circuitFact("kind")->read(w.p, w.p.circuits[w.c[0]]) == "kitchen");
}
