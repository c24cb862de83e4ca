#pragma once
// Small worlds for tests: a project in a line or two, and what must hold in every one.

#include "core/project/Operations.h"
#include "core/rules/DataFolder.h"
#include "core/solve/Solve.h"

#include <catch2/catch.hpp>

namespace lintel {

inline const RuleBook& nec() {
    static const RuleBook book = [] {
        auto b = loadRuleBook("nec-2023");
        if (!b) throw std::runtime_error(b.error().text());
        return *b;
    }();
    return book;
}

/// A board fed straight from a stiff source.
struct OneBoard {
    Project p;
    SourceId source;
    BoardId board;
    explicit OneBoard(VoltageSystem system = VoltageSystem::Y208, int slots = 42) {
        p.levels.add({{}, "Ground", 0, 3, {}});
        Source s;
        s.name = "Utility";
        s.system = system;
        s.faultKA = 20;
        s.xOverR = 4;
        source = p.sources.add(s);
        Board b;
        b.name = "LP-1";
        b.system = system;
        b.main = b.bus = 225;
        b.ratingKA = 22;
        b.slots = slots;
        b.feed = source;
        Run r;
        r.lengthBy = LengthBy::Entered;
        r.length = 0.001;
        b.run = p.runs.add(r);
        board = p.boards.add(b);
    }
    /// A circuit with one load; `feetLong` < 0: no length.
    CircuitId circuit(double amount, LoadUnit unit = LoadUnit::VA, int poles = 1, double feetLong = -1, LoadKind kind = LoadKind::Equipment, bool continuous = false, double pf = 1) {
        const CircuitId c = addCircuit(p, board, poles, "load");
        Load l;
        l.circuit = c, l.amount = amount, l.unit = unit, l.poles = poles, l.kind = kind, l.continuous = continuous, l.powerFactor = pf;
        p.loads.add(l);
        if (feetLong >= 0) {
            Run& r = runOf(p, c);
            r.lengthBy = LengthBy::Entered;
            r.length = feet(feetLong).v;
        }
        return c;
    }
    Results solved() const { return solve(p, nec()); }
};

/// Every phase load of every node adds up to its total, and to what its circuits carry.
inline void checkWhole(const Project& p, const Results& r) {
    for (const Board& b : p.boards) {
        const BoardResult& n = r.of(b.id);
        const Complex total = n.phases.total();
        CHECK(std::abs(total) == Approx(n.connected).margin(0.01));
        Complex circuits;
        for (const Circuit& c : p.circuits)
            if (c.board == b.id) circuits += r.of(c.id).power;
        CHECK(std::abs(circuits - total) < 0.01 + 1e-9 * std::abs(total));
    }
}

} // namespace lintel
