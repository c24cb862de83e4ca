#include "core/check/Compare.h"
#include "core/project/ProjectFile.h"
#include "tests/World.h"

#include <set>

using namespace lintel;

namespace {

struct Found {
    Project p;
    Results r;
    std::vector<Snag> all;
    explicit Found(const Project& project) : p(project), r(solve(p, nec())), all(findSnags(p, nec(), r)) {}
    const Snag* of(const std::string& rule) const {
        for (const Snag& s : all)
            if (s.rule->id == rule) return &s;
        return nullptr;
    }
    /// What is left of the rule's snags after remedy n of the first.
    int after(const std::string& rule, std::size_t n = 0) const {
        const auto remedies = remediesFor({p, nec(), r}, *of(rule));
        REQUIRE(remedies.size() > n);
        Project q = p;
        remedies[n].apply(q);
        const Found f(q);
        return int(std::count_if(f.all.begin(), f.all.end(), [&](const Snag& s) { return s.rule->id == rule; }));
    }
};

std::set<std::string>& covered() {
    static std::set<std::string> ids;
    return ids;
}

/// The rule finds its snag, says `text`, and each of its remedies puts it right.
void expect(const Project& p, const std::string& rule, Severity severity, const std::string& text) {
    INFO(rule);
    covered().insert(rule);
    const Found f(p);
    REQUIRE(f.of(rule));
    INFO(f.of(rule)->text);
    CHECK(f.of(rule)->severity == severity);
    CHECK(f.of(rule)->text.find(text) != std::string::npos);
    const auto remedies = remediesFor({f.p, nec(), f.r}, *f.of(rule));
    CHECK(remedies.size() >= 1);
    const int before = int(std::count_if(f.all.begin(), f.all.end(), [&](const Snag& s) { return s.rule->id == rule; }));
    for (std::size_t i = 0; i < remedies.size(); ++i) {
        INFO(remedies[i].label);
        CHECK(f.after(rule, i) < before);
    }
}

} // namespace

TEST_CASE("each rule finds its mistake, in words with the numbers, and its remedies put it right") {
    CHECK(Found(OneBoard().p).all.empty());
    {
        OneBoard w;
        const CircuitId c = w.circuit(4200, LoadUnit::VA, 1, 20);
        for (const Load& l : w.p.loads) w.p.loads.change(l.id)->poles = 3;
        w.p.circuits.change(c)->name = "Blast chiller";
        expect(w.p, "poles", Severity::Stop, "LP-1-1 Blast chiller: a 3-pole load stands on a 1-pole breaker");
    }
    {
        OneBoard w;
        w.circuit(16, LoadUnit::A, 1, 600);
        expect(w.p, "drop", Severity::Stop, "32.0 % lost, limit 3.00 %, and 4 sizes up is the ceiling: feed it from nearer"); // 2·16·2.0·0.6/120
    }
    {
        OneBoard w;
        const CircuitId c = w.circuit(40, LoadUnit::A, 2, 20);
        runOf(w.p, c).heldSize = "10";
        expect(w.p, "held-size", Severity::Stop, "held at #10, #8 is needed");
        for (const char* size : {"13", "700"}) { // not a size; and one whose drop could not be told
            runOf(w.p, c).heldSize = size;
            expect(w.p, "held-size", Severity::Stop, std::string("held at “") + size + "”, which NEC 2023 does not give for copper");
            CHECK(solve(w.p, nec()).of(c).run.state == Sizing::Sized);
        }
    }
    {
        OneBoard w;
        w.p.boards.change(w.board)->ratingKA = 10;
        expect(w.p, "fault-level", Severity::Stop, "LP-1: rated 10.0 kA where 20.0 kA is available");
        OneBoard v;
        const CircuitId c = v.circuit(1000, LoadUnit::VA, 1, 20);
        v.p.circuits.change(c)->heldKA = 10;
        expect(v.p, "fault-level", Severity::Stop, "breaker 10.0 kA below 20.0 kA at the bus");
    }
    {
        OneBoard w;
        Load l;
        l.name = "Sign", l.where = "West door", l.amount = 500;
        w.p.loads.add(l);
        expect(w.p, "load-unfed", Severity::Check, "West door: Sign: has no circuit");
    }
    {
        OneBoard w;
        w.p.boards.change(w.board)->system = VoltageSystem::Y480;
        expect(w.p, "feed-voltage", Severity::Stop, "LP-1 is for 480Y/277 V and is fed at 208Y/120 V");
    }
    {
        OneBoard w(VoltageSystem::Y208, 2);
        for (int i = 0; i < 3; ++i) w.circuit(100, LoadUnit::VA, 1, 20);
        expect(w.p, "overfull", Severity::Stop, "LP-1 has no place for it");
    }
    {
        OneBoard w;
        w.circuit(90, LoadUnit::kVA, 3, 20);
        w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 225;
        expect(w.p, "overload", Severity::Stop, "250 A of demand on 225 A");
    }
    {
        OneBoard w;
        const CircuitId c = w.circuit(22, LoadUnit::A, 1, 10);
        w.p.circuits.change(c)->heldBreaker = 20;
        expect(w.p, "held-breaker", Severity::Stop, "breaker held at 20.0 A, 22.0 A is needed");
    }
    {
        OneBoard w;
        w.p.boards.change(w.board)->bus = 400;
        Board sub;
        sub.name = "LP-2", sub.bus = 100;
        const BoardId two = addBoard(w.p, sub);
        feedFrom(w.p, two, w.board);
        runOfNode(w.p, two).lengthBy = LengthBy::Entered;
        w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = 200;
        expect(w.p, "main-missing", Severity::Stop, "LP-2: a 100 A bus without a main behind 200 A");
    }
    {
        OneBoard w;
        w.p.boards.change(w.board)->feed = {};
        expect(w.p, "board-unfed", Severity::Check, "LP-1 is not fed from anywhere");
    }
    {
        OneBoard w;
        w.circuit(100);
        expect(w.p, "length", Severity::Note, "LP-1-1: no length is known");
    }
    {
        OneBoard w(VoltageSystem::D240H);
        w.p.circuits.change(w.circuit(1000, LoadUnit::VA, 1, 20))->slot = 3;
        expect(w.p, "high-leg", Severity::Stop, "the high leg");
    }
    {
        OneBoard w;
        Board sub;
        sub.name = "LP-2";
        const BoardId two = addBoard(w.p, sub);
        feedFrom(w.p, two, w.board);
        w.p.boards.change(w.board)->feed = addCircuit(w.p, two, 3, "LP-1");
        expect(w.p, "feed-loop", Severity::Stop, "is fed, at the end, from itself");
    }
    for (const CheckRule* rule : checkRules()) {
        INFO("no test covers the rule " << rule->id);
        CHECK(covered().count(rule->id) == 1);
    }
}

TEST_CASE("a remedy says what it changes elsewhere before it is applied") {
    OneBoard w;
    const CircuitId c = w.circuit(40, LoadUnit::A, 2, 100);
    runOf(w.p, c).heldSize = "10";
    const Found f(w.p);
    const CheckInput in{f.p, nec(), f.r};
    const RemedyEffect e = effectOf(in, remediesFor(in, *f.of("held-size")).front());
    CHECK(e.change.stopsBefore - e.change.stopsAfter == 1);
    CHECK(e.change.sizes == 1);
    CHECK(e.change.gone.size() == 1);
    CHECK(e.change.list(5) == std::vector<std::string>{"LP-1-1: 40 A, #10 → 40 A, #8", "Gone: LP-1-1 load: held at #10, #8 is needed"});
    // 10 → 8 AWG: (16.51 − 10.38) kcmil · 0.5067 mm² · 30.48 m · 8 890 kg/m³ · 3 conductors = 2.52 kg
    CHECK(e.change.kg == Approx(2.525).epsilon(0.01));
}

TEST_CASE("the demo holds its mistakes on purpose, and applying first remedies leaves no stop") {
    Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    Found f(p);
    std::set<std::string> rules;
    for (const Snag& s : f.all) rules.insert(s.rule->id);
    for (const char* r : {"poles", "drop", "held-size", "fault-level", "load-unfed"}) CHECK(rules.count(r) == 1);
    for (int i = 0; i < 30; ++i) {
        const Found now(p);
        if (now.all.empty() || now.all.front().severity != Severity::Stop) break;
        const auto remedies = remediesFor({now.p, nec(), now.r}, now.all.front());
        REQUIRE_FALSE(remedies.empty());
        remedies.front().apply(p);
    }
    const Found end(p);
    CHECK((end.all.empty() || end.all.front().severity != Severity::Stop));
}
