#include "core/level/Level.h"
#include "tests/World.h"

using namespace lintel;

namespace {
/// Every assignment of one-pole circuits to three lines, tried out: the least spread there is.
double bruteForce(const std::vector<double>& va) {
    double best = 1e18;
    int n = 1;
    for (std::size_t i = 0; i < va.size(); ++i) n *= 3;
    for (int code = 0; code < n; ++code) {
        double s[3]{};
        int c = code;
        for (double v : va) s[c % 3] += v, c /= 3;
        best = std::min(best, std::max({s[0], s[1], s[2]}) - std::min({s[0], s[1], s[2]}));
    }
    return best;
}
} // namespace

TEST_CASE("levelling finds what trying everything finds") {
    std::uint32_t seed = 3;
    const auto random = [&](int n) { return int((seed = seed * 1664525u + 1013904223u) >> 16) % n; };
    for (int trial = 0; trial < 25; ++trial) {
        OneBoard w;
        std::vector<double> va;
        for (int i = 0; i < 9; ++i) va.push_back(100 + 20 * random(90)), w.circuit(va.back());
        const Results r = w.solved();
        const Arrangement best = levelBoard(w.p, r, w.board);
        INFO("trial " << trial);
        CHECK(best.proven);
        CHECK(best.spread == Approx(bruteForce(va)).margin(0.6));
        Project p = w.p;
        applyArrangement(p, best);
        const Results after = solve(p, nec());
        CHECK(after.of(w.board).imbalance == Approx(best.imbalance).margin(1e-6));
        for (const Circuit& c : p.circuits) CHECK_FALSE(after.of(c.id).clash);
    }
}

TEST_CASE("a full 42-slot board with two- and three-pole circuits, pins kept") {
    OneBoard w;
    std::uint32_t seed = 5;
    const auto random = [&](int n) { return int((seed = seed * 1664525u + 1013904223u) >> 16) % n; };
    std::vector<CircuitId> pinned;
    for (int i = 0; i < 3; ++i) w.circuit(3000 + 500 * i, LoadUnit::VA, 3);
    for (int i = 0; i < 5; ++i) w.circuit(1000 + 100 * random(40), LoadUnit::VA, 2);
    for (int i = 0; i < 20; ++i) {
        const CircuitId c = w.circuit(180 * (1 + random(8)));
        if (i % 6 == 0) w.p.circuits.change(c)->pinned = true, pinned.push_back(c);
    }
    const Results r = w.solved();
    const Arrangement now = asItStands(w.p, r, w.board), one = levelByOneMove(w.p, r, w.board), best = levelBoard(w.p, r, w.board);
    CHECK(one.spread <= now.spread);
    CHECK(one.places.size() <= 2);
    CHECK(best.spread <= one.spread);
    CHECK(best.spread >= best.bound);
    Project p = w.p;
    applyArrangement(p, best);
    const Results after = solve(p, nec());
    for (const Circuit& c : p.circuits) CHECK((after.of(c.id).placed && !after.of(c.id).clash));
    for (CircuitId c : pinned) CHECK(p.circuits[c].slot == w.p.circuits[c].slot);
    const auto& va = after.of(w.board).phaseVa;
    CHECK(*std::max_element(va.begin(), va.end()) - *std::min_element(va.begin(), va.end()) == Approx(best.spread).margin(1));
    // The same input gives the same answer.
    CHECK(levelBoard(w.p, r, w.board).places == best.places);
    // Levelled once, there is nothing to move.
    CHECK(levelBoard(p, after, w.board).places.empty());
}

TEST_CASE("a level board stays as it is; a single-phase board is levelled on two lines") {
    OneBoard w;
    for (int i = 0; i < 6; ++i) w.circuit(500); // 1 … 6: two on each line
    CHECK(levelBoard(w.p, w.solved(), w.board).places.empty());
    CHECK(levelBoard(w.p, w.solved(), w.board).proven);
    OneBoard s(VoltageSystem::S240);
    for (double va : {900.0, 100.0, 100.0, 300.0, 500.0, 100.0}) s.circuit(va);
    const Arrangement a = levelBoard(s.p, s.solved(), s.board);
    CHECK(a.proven);
    CHECK(a.spread == Approx(0).margin(0.1)); // 1 000 and 1 000
}
