#include "core/level/Level.h"
#include "core/level/BareBoard.h"
#include "core/level/EvenOut.h"
#include "tests/Building.h"

#include <random>

using namespace lintel;

namespace {

struct Dice {
    std::uint32_t seed;
    int operator()(int n) { return int((seed = seed * 1664525u + 1013904223u) >> 16) % n; }
};

/// Every way to put circuits of one and two poles, and pairs, into the slots of a small two-column board, tried out:
/// the least spread for each number of circuits that end in another slot. Knows nothing of the search: only slots and
/// rows.
struct Brute {
    struct Thing {
        std::vector<double> va;
        int poles = 1, slot = 0;
    }; ///< va: of each of its members, one below another
    std::vector<Thing> things;
    int slots = 12, lines = 3;
    std::vector<char> taken = std::vector<char>(64, 0); ///< by what stays
    std::array<double, 3> fixed{};
    std::vector<double> best = std::vector<double>(16, 1e18);

    void tryAll(std::size_t i, std::array<double, 3> sums, int moves) {
        if (i == things.size()) {
            double most = sums[0], least = sums[0];
            for (int k = 1; k < lines; ++k)
                most = std::max(most, sums[std::size_t(k)]), least = std::min(least, sums[std::size_t(k)]);
            for (std::size_t k = std::size_t(moves); k < best.size(); ++k) best[k] = std::min(best[k], most - least);
            return;
        }
        const Thing& t = things[i];
        const int rows = int(t.va.size()) * t.poles;
        for (int s = 1; s <= slots; ++s) {
            if (s + 2 * (rows - 1) > slots) continue;
            bool free = true;
            for (int r = 0; r < rows; ++r) free = free && !taken[std::size_t(s + 2 * r)];
            if (!free) continue;
            auto after = sums;
            for (int r = 0; r < rows; ++r) {
                taken[std::size_t(s + 2 * r)] = 1;
                after[std::size_t(((s + 1) / 2 - 1 + r) % lines)] += t.va[std::size_t(r / t.poles)] / t.poles;
            }
            tryAll(i + 1, after, moves + (s != t.slot ? int(t.va.size()) : 0));
            for (int r = 0; r < rows; ++r) taken[std::size_t(s + 2 * r)] = 0;
        }
    }
};

} // namespace

TEST_CASE("levelling finds for every number of moves what trying everything finds") {
    Dice dice{3};
    for (int trial = 0; trial < 24; ++trial) {
        OneBoard w(trial % 4 == 3 ? VoltageSystem::S240 : VoltageSystem::Y208, 12);
        Brute brute;
        brute.lines = trial % 4 == 3 ? 2 : 3;
        for (int i = 0; i < 5; ++i) {
            const int poles = brute.lines == 3 && dice(4) == 0 ? 2 : 1;
            const double va = poles * (100.0 + 20 * dice(90));
            const CircuitId c = w.circuit(va, LoadUnit::VA, poles);
            brute.things.push_back({{va}, poles, w.p.circuits[c].slot});
        }
        if (trial % 3 == 1 && firstFreeSlot(w.p, w.board, 1)) { // one that must stay
            const CircuitId c = w.circuit(900);
            w.p.circuits.change(c)->pinned = true;
            const int slot = w.p.circuits[c].slot;
            brute.taken[std::size_t(slot)] = 1;
            brute.fixed[std::size_t(((slot + 1) / 2 - 1) % brute.lines)] += 900;
        }
        if (trial % 3 == 2) { // a reserved place
            const CircuitId c = addCircuit(w.p, w.board, 1, "", CircuitUse::Reserved);
            brute.taken[std::size_t(w.p.circuits[c].slot)] = 1;
        }
        brute.tryAll(0, brute.fixed, 0);
        const Results r = w.solved();
        const LevelChoices found = levelBoard(w.p, r, w.board);
        for (std::size_t k = 0; k < 6; ++k) {
            INFO("trial " << trial << ", " << k << " moves");
            const Arrangement& a = found.byMoves[std::min(k, found.byMoves.size() - 1)];
            CHECK(a.places.size() <= k);
            CHECK(a.spread == Approx(brute.best[k]).margin(2.1)); // loads are levelled as whole VA
            if (k + 1 >= found.byMoves.size() && found.byMoves.back().spread < found.byMoves.front().spread)
                CHECK(a.proven); // with fewer, two-pole circuits may leave it open
            Project p = w.p;
            applyArrangement(p, a);
            const Results after = solve(p, nec());
            CHECK(after.of(w.board).imbalance == Approx(a.imbalance).margin(1e-6));
            for (const Circuit& c : p.circuits) CHECK((after.of(c.id).placed && !after.of(c.id).clash));
        }
    }
}

TEST_CASE("tied pairs move as one, as trying everything says") {
    Dice dice{11};
    for (int trial = 0; trial < 8; ++trial) {
        OneBoard w(VoltageSystem::Y208, 12);
        Brute brute;
        for (int pair = 0; pair < 2; ++pair) {
            const int slot = firstFreeSlot(w.p, w.board, 2);
            Brute::Thing t{{}, 1, slot};
            for (int k = 0; k < 2; ++k) {
                const double va = 100.0 + 20 * dice(90);
                const CircuitId c = w.circuit(va);
                Circuit& x = *w.p.circuits.change(c);
                x.slot = slot + 2 * k;
                (pair == 0 ? x.tie : trial % 2 ? x.multiwire : x.kept) = 7;
                t.va.push_back(va);
            }
            brute.things.push_back(t);
        }
        for (int i = 0; i < 3; ++i) {
            const double va = 100.0 + 20 * dice(90);
            const CircuitId c = w.circuit(va);
            brute.things.push_back({{va}, 1, w.p.circuits[c].slot});
        }
        brute.tryAll(0, {}, 0);
        const LevelChoices found = levelBoard(w.p, w.solved(), w.board);
        INFO("trial " << trial);
        CHECK(found.best().spread == Approx(brute.best[7]).margin(2.1));
        Project p = w.p;
        applyArrangement(p, found.best());
        for (const Circuit& c : p.circuits)
            for (const Circuit& o : p.circuits)
                if (c.id < o.id && ((c.tie && c.tie == o.tie) || (c.kept && c.kept == o.kept) ||
                                    (c.multiwire && c.multiwire == o.multiwire)))
                    CHECK(o.slot == c.slot + 2);
    }
}

TEST_CASE("a full 42-slot board with two- and three-pole circuits, pins kept") {
    OneBoard w;
    Dice dice{5};
    std::vector<CircuitId> pinned;
    for (int i = 0; i < 3; ++i) w.circuit(3000 + 500 * i, LoadUnit::VA, 3);
    for (int i = 0; i < 5; ++i) w.circuit(1000 + 100 * dice(40), LoadUnit::VA, 2);
    for (int i = 0; i < 20; ++i) {
        const CircuitId c = w.circuit(180 * (1 + dice(8)));
        if (i % 6 == 0) w.p.circuits.change(c)->pinned = true, pinned.push_back(c);
    }
    const Results r = w.solved();
    const LevelChoices found = levelBoard(w.p, r, w.board);
    const Arrangement step = levelByOneStep(w.p, r, w.board), &best = found.best();
    CHECK(found.byMoves.front().places.empty());
    CHECK(step.places.size() <= 2);
    REQUIRE(found.byMoves.size() > 2);
    CHECK(found.byMoves[2].spread <= step.spread + 1);
    for (std::size_t k = 1; k < found.byMoves.size(); ++k)
        CHECK(found.byMoves[k].spread <= found.byMoves[k - 1].spread);
    CHECK(best.spread >= found.bound - 1);
    CHECK(found.gap() < 0.5);
    Project p = w.p;
    applyArrangement(p, best);
    const Results after = solve(p, nec());
    for (const Circuit& c : p.circuits) CHECK((after.of(c.id).placed && !after.of(c.id).clash));
    for (CircuitId c : pinned) CHECK(p.circuits[c].slot == w.p.circuits[c].slot);
    const auto& va = after.of(w.board).phaseVa;
    CHECK(*std::max_element(va.begin(), va.end()) - *std::min_element(va.begin(), va.end()) ==
          Approx(best.spread).margin(1));
    // The same input gives the same answer, and levelled once there is nothing to move.
    CHECK(levelBoard(w.p, r, w.board).best().places == best.places);
    CHECK(levelBoard(p, after, w.board).best().places.empty());
    // Stopped at once, it gives back what stands.
    CHECK(levelBoard(w.p, r, w.board, levelEffort, [] { return true; }).cancelled);
}

TEST_CASE("lighting that belongs to the left stays there") {
    OneBoard w(VoltageSystem::Y208, 24);
    Dice dice{9};
    for (int i = 0; i < 8; ++i) {
        const CircuitId c = w.circuit(300 + 20 * dice(60), LoadUnit::VA, 1, -1, LoadKind::Lighting);
        w.p.circuits.change(c)->slot = 2 * i + 1;
    }
    for (int i = 0; i < 6; ++i) {
        const CircuitId c = w.circuit(180 * (1 + dice(9)), LoadUnit::VA, 1, -1, LoadKind::Receptacle);
        w.p.circuits.change(c)->slot = 2 * i + 2;
    }
    w.p.boards.change(w.board)->leftKinds = {"lighting"};
    const Results r = w.solved();
    const LevelChoices found = levelBoard(w.p, r, w.board);
    CHECK(found.best().spread < found.byMoves.front().spread);
    for (const auto& [c, slot] : found.best().places)
        if (r.of(c).kind == LoadKind::Lighting) CHECK(slot % 2 == 1);
}

TEST_CASE("lighting on the right is brought to the left, and the phases stay as they are") {
    OneBoard w(VoltageSystem::Y208, 24);
    const auto at = [&](int slot, int poles, LoadKind kind, double va) {
        const CircuitId c = w.circuit(va, LoadUnit::VA, poles, -1, kind);
        w.p.circuits.change(c)->slot = slot;
        return c;
    };
    const CircuitId lamps = at(4, 1, LoadKind::Lighting, 900),
                    shop = at(3, 1, LoadKind::Receptacle, 540); // opposite: swapped
    const CircuitId sign = at(8, 1, LoadKind::Lighting, 600),
                    mast = at(7, 1, LoadKind::Lighting, 300); // its opposite is lighting: slot 1, same line, is free
    const CircuitId yard = at(14, 2, LoadKind::Lighting, 2400),
                    oven = at(13, 2, LoadKind::Kitchen, 3000); // two-pole against two-pole
    const CircuitId exit = at(6, 1, LoadKind::Lighting, 200);
    const CircuitId tower = at(20, 3, LoadKind::Lighting, 6000); // three poles stay, though 19 to 23 are free
    w.p.circuits.change(exit)->pinned = true;
    w.p.boards.change(w.board)->leftKinds = {"lighting"};
    const Results before = w.solved();
    const Arrangement a = levelSides(w.p, before, w.board);
    applyArrangement(w.p, a);
    const auto slot = [&](CircuitId c) { return w.p.circuits[c].slot; };
    CHECK(slot(lamps) == 3);
    CHECK(slot(shop) == 4);
    CHECK(slot(sign) == 1);
    CHECK(slot(mast) == 7);
    CHECK(slot(yard) == 13);
    CHECK(slot(oven) == 14);
    CHECK(slot(exit) == 6);
    CHECK(slot(tower) == 20);
    const Results after = w.solved();
    for (std::size_t i = 0; i < 3; ++i) CHECK(after.of(w.board).phaseVa[i] == Approx(before.of(w.board).phaseVa[i]));
    for (const Circuit& c : w.p.circuits) CHECK_FALSE(after.of(c.id).clash);
    CHECK(levelSides(w.p, after, w.board).places.empty());
}

TEST_CASE("a level board stays as it is; a single-phase board is levelled on two lines; one line cannot be levelled") {
    OneBoard w;
    for (int i = 0; i < 6; ++i) w.circuit(500); // 1 … 6: two on each line
    CHECK(levelBoard(w.p, w.solved(), w.board).best().places.empty());
    CHECK(levelBoard(w.p, w.solved(), w.board).best().proven);
    OneBoard s(VoltageSystem::S240);
    for (double va : {900.0, 100.0, 100.0, 300.0, 500.0, 100.0}) s.circuit(va);
    const Arrangement a = levelBoard(s.p, s.solved(), s.board).best();
    CHECK(a.proven);
    CHECK(a.spread == Approx(0).margin(0.1)); // 1 000 and 1 000
    OneBoard one(VoltageSystem::S230);
    one.circuit(700);
    CHECK(levelBoard(one.p, one.solved(), one.board).byMoves.size() == 1);
}

TEST_CASE("boards under one feeder are levelled by the phases that they hang on, and the solution agrees") {
    // Three boards, each heavy on its own first line by 3 000, 2 000 and 1 000 VA: turned apart they come to 3 000 / 2
    // 000 / 1 000 on three lines, which nothing beats; standing alike they come to 6 000 / 0 / 0.
    OneBoard w(VoltageSystem::Y208, 42);
    std::vector<BoardId> below;
    for (double va : {3000.0, 2000.0, 1000.0}) {
        Board b = w.p.boards[w.board];
        b.id = {}, b.feed = {}, b.run = {}, b.name = freeBoardName(w.p, "LP-1"), b.main = 0;
        const BoardId id = addBoard(w.p, b);
        feedFrom(w.p, id, w.board);
        const CircuitId c = addCircuit(w.p, id, 1, "load"); // slot 1: line A
        Load l;
        l.circuit = c, l.amount = va;
        w.p.loads.add(l);
        below.push_back(id);
    }
    const Results r = w.solved();
    CHECK(r.of(w.board).phaseVa[0] == Approx(6000));
    const TurningChoices found = levelByTurning(w.p, r, w.board);
    CHECK(found.boards == 3);
    REQUIRE(found.byBoards.size() == 3);             // two boards turned are enough
    CHECK(found.byBoards[1].spread == Approx(3000)); // 3 000, 3 000 and 0
    CHECK(found.byBoards[2].spread == Approx(2000));
    CHECK(found.byBoards[2].proven);
    Project p = w.p;
    applyTurning(p, found.byBoards[2]);
    const Results after = solve(p, nec());
    auto va = after.of(w.board).phaseVa;
    std::sort(va.begin(), va.end());
    for (std::size_t i = 0; i < 3; ++i) CHECK(va[i] == Approx(1000.0 * double(i + 1)));
    // Currents follow: 3 000 VA on one line of 120 V is 25 A; the neutral of 25, 16.7 and 8.3 A is 14.4 A.
    const auto amps = after.of(w.board).phaseAmps;
    CHECK(*std::max_element(amps.begin(), amps.end()) == Approx(3000 / (208 / std::sqrt(3.0))).epsilon(1e-3));
    CHECK(after.of(w.board).neutralAmps == Approx(std::sqrt(3.0) * 1000 / (208 / std::sqrt(3.0))).epsilon(1e-3));
    // The boards themselves are as they were.
    for (BoardId b : below) CHECK(after.of(b).phaseVa == r.of(b).phaseVa);
}

TEST_CASE("a board behind a transformer turns with it only where it is alone there, and on three phases") {
    const auto boards = [](int behind, VoltageSystem secondary) {
        OneBoard w(VoltageSystem::Y480, 42);
        Transformer t;
        t.name = "T-1", t.primary = VoltageSystem::Y480, t.secondary = secondary, t.run = w.p.runs.add({});
        const TransformerId id = w.p.transformers.add(t);
        feedFrom(w.p, id, w.board);
        for (int i = 0; i < behind; ++i) {
            Board b;
            b.name = freeBoardName(w.p, "LP-2"), b.system = secondary, b.bus = 225;
            const BoardId low = addBoard(w.p, b);
            feedFrom(w.p, low, id);
            Load l;
            l.circuit = addCircuit(w.p, low, 1, "load"), l.amount = 1000;
            w.p.loads.add(l);
        }
        return levelByTurning(w.p, w.solved(), w.board).boards;
    };
    CHECK(boards(1, VoltageSystem::Y208) == 1);
    CHECK(boards(2, VoltageSystem::Y208) == 0);
    CHECK(boards(1, VoltageSystem::S240) == 0);
}

TEST_CASE("loads of any sort are evened out: single-phase items of a maximum demand") {
    // Items of 32, 20, 16, 10, 6 and 6 A, 90 A in all. 32 A is more than a third, so a line has at least that, and the
    // others at most 29 A on average: 30 = 20 + 10 and 28 = 16 + 6 + 6, as 29 is odd.
    EvenTask t;
    for (long amps : {32, 20, 16, 10, 6, 6})
        t.items.push_back({{{amps, 0, 0}, {0, amps, 0}, {0, 0, amps}}, {}, 0, 1, true});
    const EvenResult r = evenOut(t);
    CHECK(r.best().proven);
    CHECK(r.byMoves.front().spread == 90);
    CHECK(r.best().spread == 4);
    // Each choice says how many items it moves, and moves no more than it may: as it is, none.
    for (std::size_t k = 0; k < r.byMoves.size(); ++k) {
        const EvenChoice& c = r.byMoves[k];
        CHECK(c.moves == std::count_if(c.ways.begin(), c.ways.end(), [](int way) { return way != 0; }));
        CHECK(c.moves <= int(k));
    }
}

TEST_CASE("a circuit that has to move goes to the nearest place on its new line") {
    // A carries 1 and 37, C carries 5; 1 and 5 are pinned. Of the places on B (3, 4, 9, 10 … 33, 34, 39, 40) the one
    // nearest to 37 is 39.
    OneBoard w(VoltageSystem::Y208, 42);
    CircuitId far;
    for (int slot : {1, 5, 37}) {
        Circuit c;
        c.board = w.board, c.slot = slot, c.pinned = slot != 37;
        Load l;
        l.circuit = w.p.circuits.add(c), l.amount = 1000;
        w.p.loads.add(l);
        far = l.circuit;
    }
    applyArrangement(w.p, levelBoard(w.p, w.solved(), w.board).best());
    CHECK(w.p.circuits[far].slot == 39);
}

TEST_CASE("boards of 760 and 1 200 slots are levelled, and the answer holds") {
    for (int slots : {760, 1200}) {
        OneBoard w(VoltageSystem::Y208, slots);
        Random r(5);
        for (int i = 1; i <= slots; ++i) {
            Circuit c;
            c.board = w.board;
            c.slot = i;
            Load l;
            l.circuit = w.p.circuits.add(c);
            l.amount = 100 + r(2300);
            w.p.loads.add(l);
        }
        const Results before = solve(w.p, nec());
        const LevelChoices choices = levelBoard(w.p, before, w.board);
        CHECK(choices.byMoves.size() >= 2);
        CHECK(choices.best().spread < choices.byMoves.front().spread / 10);
        Project level = w.p;
        applyArrangement(level, choices.best());
        const Results after = solve(level, nec());
        for (int i = 0; i < 3; ++i)
            CHECK(after.of(w.board).phaseVa[std::size_t(i)] == Approx(choices.best().phaseVa[std::size_t(i)]));
        for (const Circuit& c : level.circuits) REQUIRE_FALSE(after.of(c.id).clash);
    }
}

TEST_CASE("what is called proven with little effort is the least there is") {
    // Boards of random loads, each levelled with a few hundred positions and then with as many as it takes.
    std::mt19937 random(11);
    int claimed = 0, open = 0;
    for (int board = 0; board < 60; ++board) {
        EvenTask t;
        const int items = 8 + int(random() % 7);
        for (int i = 0; i < items; ++i) {
            const long va = 100 + long(random() % 40) * 37;
            t.items.push_back({{{va, 0, 0}, {0, va, 0}, {0, 0, va}}, {}, int(random() % 3), 1, true});
        }
        const EvenResult whole = evenOut(t);
        REQUIRE(whole.best().proven);
        for (long effort : {20, 100, 500, 3000}) {
            t.effort = effort;
            const EvenResult quick = evenOut(t);
            CHECK(quick.best().spread >= whole.best().spread);
            CHECK(quick.bound <= whole.best().spread); // of no choice whatever
            quick.bound == quick.best().spread ? ++claimed : ++open;
            for (std::size_t k = 0; k < quick.byMoves.size(); ++k) {
                const EvenChoice& same = whole.byMoves[std::min(k, whole.byMoves.size() - 1)];
                if (quick.byMoves[k].proven) CHECK(quick.byMoves[k].spread <= same.spread);
            }
        }
    }
    CHECK(claimed > 2);
    CHECK(open > 10);
}

TEST_CASE("levelling in words: as it stands, then the best for each number of moves") {
    // 3 000 VA on A, 1 000 on B, nothing on C, in three circuits: one move evens them out.
    OneBoard w;
    for (const auto& [slot, va] : {std::pair{1, 1500.0}, {7, 1500.0}, {3, 1500.0}}) {
        const CircuitId c = w.circuit(va);
        w.p.circuits.change(c)->slot = slot;
    }
    const LevelChoices choices = levelBoard(w.p, w.solved(), w.board);
    const std::string told = levelText(w.p, w.board, choices, {});
    CHECK_THAT(told, Catch::StartsWith("LP-1: 100 % as it stands\n"));
    CHECK_THAT(told, Catch::Contains("1 move ") && Catch::Contains("spread 0 VA  proven"));
    CHECK_THAT(told, !Catch::Contains("2 moves"));
}

TEST_CASE("the neutral of what stays: of three lines the phasor of what hangs between line and neutral, of two what "
          "they differ by") {
    EvenTask t;
    t.fixed = {100, 60, 30};
    t.fixedNeutral = {100, 60, 30};
    t.effort = 1000;
    // |100 + 60∠−120° + 30∠120°|² = 100² + 60² + 30² − 100·60 − 60·30 − 30·100 = 3 700
    CHECK(evenOut(t).best().neutral == Approx(std::sqrt(3700.0)));
    CHECK(evenOut(t).best().spread == 70);
    t.fixedNeutral = {100, 100, 0}; // 10 000
    CHECK(evenOut(t).best().neutral == Approx(100));
    t.fixedNeutral = {0, 50, 50};
    CHECK(evenOut(t).best().neutral == Approx(50));
    t.fixedNeutral = {80, 0, 80};
    CHECK(evenOut(t).best().neutral == Approx(80));
    t.fixedNeutral = {70, 70, 70};
    CHECK(evenOut(t).best().neutral == Approx(0).margin(1e-9));
    t.lines = 2;
    t.fixedNeutral = {100, 60, 0};
    CHECK(evenOut(t).best().neutral == Approx(40));
    // One of two equal loads goes over, whichever: it is the one that leaves the neutral less.
    EvenTask two;
    two.effort = 1000;
    two.fixed = {0, 40, 40};
    two.fixedNeutral = {0, 40, 0};
    EvenItem toNeutral, between;
    toNeutral.ways = {{40, 0, 0}, {0, 40, 0}, {0, 0, 40}};
    toNeutral.toNeutral = true;
    two.items = {toNeutral};
    CHECK(evenOut(two).best().spread == 0);           // it stays on A: 40 on each line
    CHECK(evenOut(two).best().neutral == Approx(40)); // A and B to the neutral, C not: |40 + 40∠−120°| = 40
}

TEST_CASE("of two moves that level as well that is taken which loads the neutral less, with what stays counted") {
    // Pinned: 500 VA on A to the neutral, 1 000 VA between A and B, 2 000 VA between B and C. Loose: 1 000 VA on B.
    // A = 500 + 500, B = 500 + 1 000 + 1 000, C = 1 000. Moved to A or to C it leaves 2 000, 1 500 and 1 000 VA either
    // way. The neutral then carries 1 500 VA of A alone, or 500 of A and 1 000 of C: √(0.25 + 1 − 0.5) = 866 VA.
    for (const bool mirrored : {false, true}) { // and with A and C the other way round
        OneBoard w(VoltageSystem::Y208, 12);
        const auto put = [&](double va, int poles, int slot, bool pinned) {
            const CircuitId c = w.circuit(va, LoadUnit::VA, poles);
            w.p.circuits.change(c)->slot = slot;
            w.p.circuits.change(c)->pinned = pinned;
            return c;
        };
        put(500, 1, mirrored ? 6 : 2, true); // slots 1, 2, 7, 8: A; 3, 4, 9, 10: B; 5, 6, 11, 12: C
        put(mirrored ? 2000 : 1000, 2, 1, true);
        put(mirrored ? 1000 : 2000, 2, 9, true);
        const CircuitId loose = put(1000, 1, 4, false);
        const Results r = w.solved();
        REQUIRE(r.of(w.board).phases.total().real() == Approx(4500));
        const LevelChoices l = levelBoard(w.p, r, w.board);
        REQUIRE(l.best().places.size() == 1);
        CHECK(l.best().places[0].first == loose);
        CHECK(l.best().spread == Approx(1000));
        const int line = (l.best().places[0].second + 1) / 2 % 3; // 1: A, 2: B, 0: C
        CHECK(line == (mirrored ? 1 : 0));
    }
}

TEST_CASE("one step looks at the last place of a board, too") {
    // Six places, two a line. A has 2000, B 1000, C 500 and the last place free: with one of A's there 1000 each but
    // for C's 1500, which leaves 500. A swap of one of A's against one of B's, or of C's, leaves 1000.
    const auto p = bareBoard(R"({"slots": 6, "circuits": [{"slot": 1, "va": 1000}, {"slot": 2, "va": 1000},
                                 {"slot": 3, "va": 500}, {"slot": 4, "va": 500}, {"slot": 5, "va": 500}]})");
    REQUIRE(p);
    const BoardId board = p->boards.begin()->id;
    const Arrangement a = levelByOneStep(*p, solve(*p, nec()), board);
    CHECK(a.spread == Approx(500));
    REQUIRE(a.places.size() == 1);
    CHECK(a.places[0].second == 6);
}

TEST_CASE("a bare board may have a single place") {
    const auto p = bareBoard(R"({"slots": 1, "circuits": [{"slot": 1, "va": 100}]})");
    REQUIRE(p);
    CHECK(p->boards.begin()->slots == 1);
    CHECK_FALSE(bareBoard(R"({"slots": 0, "circuits": []})"));
}
