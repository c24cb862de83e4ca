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

inline const RuleBook& bookOf(const std::string& id) {
    static std::map<std::string, RuleBook> books;
    if (const auto it = books.find(id); it != books.end()) return it->second;
    auto b = loadRuleBook(id);
    if (!b) throw std::runtime_error(b.error().text());
    return books.emplace(id, *b).first->second;
}
inline const RuleBook& bs() { return bookOf("bs-7671"); }

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
    CircuitId circuit(double amount, LoadUnit unit = LoadUnit::VA, int poles = 1, double feetLong = -1,
                      LoadKind kind = LoadKind::Equipment, bool continuous = false, double pf = 1) {
        const CircuitId c = addCircuit(p, board, poles, "load");
        Load l;
        l.circuit = c, l.amount = amount, l.unit = unit, l.poles = poles, l.kind = kind, l.continuous = continuous,
        l.powerFactor = pf;
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

/// A 400/230 V way board whose earth-fault loop begins with a given Ze, and circuits on it.
struct MetricBoard : OneBoard {
    explicit MetricBoard(double ze = 0.35, VoltageSystem system = VoltageSystem::Y400) : OneBoard(system, 36) {
        p.basis.ruleBook = "bs-7671";
        p.basis.units = UnitSystem::Metric;
        p.basis.smallestBranch = "1";
        p.basis.largestPreferred = "300";
        p.basis.smallestBreaker = 6;
        p.basis.branchDropLimit = 5;
        p.sources.change(source)->ze = ze;
        p.sources.change(source)->faultKA = 6;
        p.boards.change(board)->form = BoardForm::Ways;
    }
    CircuitId run(double kW, double metres, int poles = 1, LoadKind kind = LoadKind::Equipment) {
        const CircuitId c = circuit(kW, LoadUnit::kW, poles, -1, kind);
        lintel::Run& r = runOf(p, c);
        r.lengthBy = LengthBy::Entered;
        r.length = metres;
        return c;
    }
    Results results() const { return solve(p, bs()); }
    std::string size(CircuitId c) const { return bs().sizes()[std::size_t(results().of(c).run.size)].name; }
    double mm2(SizeIndex s) const { return s < 0 ? 0 : bs().sizes()[std::size_t(s)].mm2; }
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
        for (Ref straight : fedStraight(p, b.id)) circuits += r.node(straight)->phases.total();
        circuits += n.ups->losses;
        CHECK(std::abs(circuits - total) < 0.01 + 1e-9 * std::abs(total));
    }
}

} // namespace lintel
