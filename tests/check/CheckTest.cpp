#include "core/base/Format.h"
#include "core/check/Assumptions.h"
#include "core/check/Compare.h"
#include "core/exchange/ResultsText.h"
#include "core/lists/List.h"
#include "core/project/AddBelow.h"
#include "core/project/Document.h"
#include "core/project/LoadWords.h"
#include "core/project/ProjectFile.h"
#include "tests/Approve.h"
#include "tests/BoardBelow.h"
#include "tests/Building.h"
#include "tests/Found.h"

#include <set>

using namespace lintel;

namespace {

std::set<std::string>& covered();

} // namespace

TEST_CASE("drop: a run is told by how much it is too long, also where less than a metre of it would do") {
    OneBoard w;
    const CircuitId c = w.circuit(600, LoadUnit::VA, 1, 100);
    const Results r = w.solved();
    const CheckRule* drop = nullptr;
    for (const CheckRule* rule : checkRules())
        if (std::string(rule->id) == "drop") drop = rule;
    REQUIRE(drop);
    RunResult run = r.of(c).run;
    run.state = Sizing::Held;
    run.dropOwn = 6;
    run.dropTotal = 7;
    run.need.ownLimit = 3;
    run.need.length = Metres{3.2};
    const auto told = [&](double longest) {
        run.longest = Metres{longest};
        std::vector<Snag> into;
        drop->run({w.p, nec(), r}, *drop, c, run, into);
        return into.front().text;
    };
    CHECK(told(0.5).find("8.9 ft too long") != std::string::npos); // 2.7 m
    CHECK(told(0).find("too long") == std::string::npos);          // no length would do
}

namespace {

std::set<std::string>& covered() {
    static std::set<std::string> ids;
    return ids;
}

/// Where the cases of a test are told; nothing: nowhere.
std::string*& told() {
    static std::string* text = nullptr;
    return text;
}

/// The rule finds its snag, says `text`, and each of its remedies puts it right.
void expect(const Project& p, const std::string& rule, Severity severity, const std::string& text) {
    INFO(rule);
    covered().insert(rule);
    const Found f(p);
    REQUIRE(f.of(rule));
    if (told()) *told() += "== " + rule + "\n" + remediesText({f.p, f.book, f.r}) + resultsText({f.p, f.book, f.r});
    INFO(f.of(rule)->text);
    CHECK(f.of(rule)->severity == severity);
    CHECK(f.of(rule)->text.find(text) != std::string::npos);
    const auto remedies = remediesFor({f.p, f.book, f.r}, *f.of(rule));
    CHECK(remedies.size() >= 1);
    const int before =
        int(std::count_if(f.all.begin(), f.all.end(), [&](const Snag& s) { return s.rule->id == rule; }));
    for (std::size_t i = 0; i < remedies.size(); ++i) {
        INFO(remedies[i].label);
        CHECK(f.after(rule, i) < before);
    }
}

} // namespace

namespace {
/// A room of 4 m × 5 m with one receptacle on its north wall, on circuit 1 of the board.
Project plainRoom(OneBoard& w, const std::string& kind, Occupancy occupancy) {
    Project& p = w.p;
    p.basis.occupancy = occupancy;
    const LevelId level = p.levels.begin()->id;
    p.boards.change(w.board)->level = level;
    p.rooms.add({{}, level, "1", "Room", kind, {{0, 0}, {4, 0}, {4, 5}, {0, 5}}, {}, 0, 0, {}, {}});
    DeviceType t;
    t.name = "Receptacle";
    Device d;
    d.type = p.deviceTypes.add(t);
    d.level = level;
    d.at = {2, 0.05};
    d.circuit = addCircuit(p, w.board, 1, "Counter");
    p.devices.add(d);
    return p;
}
} // namespace

TEST_CASE("each rule finds its mistake, in words with the numbers, and its remedies put it right, as approved") {
    static std::string everyCase; // also there where a REQUIRE has ended this test
    everyCase.clear();
    told() = &everyCase;
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
        expect(w.p, "drop", Severity::Stop,
               "32.0 % lost, limit 3.00 %, and 4 sizes up is the ceiling: feed it from nearer"); // 2·16·2.0·0.6/120
    }
    {
        OneBoard w;
        const CircuitId c = w.circuit(40, LoadUnit::A, 2, 20);
        runOf(w.p, c).heldSize = "10";
        expect(w.p, "held-size", Severity::Stop, "held at #10, #8 is needed");
        for (const char* size : {"13", "700"}) { // not a size; and one whose drop could not be told
            runOf(w.p, c).heldSize = size;
            expect(w.p, "held-size", Severity::Stop,
                   std::string("held at “") + size + "”, which NEC 2023 does not give for copper");
            CHECK(solve(w.p, nec()).of(c).run.state == Sizing::Sized);
        }
    }
    { // a slip: 60 A before a bus of 225 A, and a transformer that feeds nothing
        OneBoard w;
        Board sub = w.p.boards[w.board];
        sub.id = {}, sub.name = "LP-2", sub.run = {}, sub.bus = 225, sub.main = 225;
        const BoardId two = addBoard(w.p, sub);
        feedFrom(w.p, two, w.board);
        w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = 60;
        expect(w.p, "out-of-proportion", Severity::Note, "LP-2: a 60 A feed of a 225 A board");
        OneBoard v;
        Transformer t;
        t.name = "T-9", t.primary = VoltageSystem::Y208, t.kva = 30;
        v.p.transformers.add(t);
        expect(v.p, "out-of-proportion", Severity::Note, "T-9: 30 kVA, and nothing hangs on it");
    }
    { // what is held and is not in the book is not passed over
        OneBoard w;
        const CircuitId c = w.circuit(1000, LoadUnit::VA, 1, 20);
        runOf(w.p, c).conduit = "Pipe";
        expect(w.p, "unknown-name", Severity::Stop,
               "its conduit “Pipe” is not in NEC 2023, and is not used; there are EMT");
        OneBoard v;
        v.p.basis.insulationType = "RUBBER";
        expect(v.p, "unknown-name", Severity::Stop, "Basis: the covering “RUBBER” is not in NEC 2023");
        MetricBoard m;
        const CircuitId light = m.run(1, 10);
        runOf(m.p, light).cable = "tinned";
        expect(m.p, "unknown-name", Severity::Stop, "its cable “tinned” is not in BS 7671");
        runOf(m.p, light).cable.clear(), runOf(m.p, light).method = "Z9";
        expect(m.p, "unknown-name", Severity::Stop, "its method “Z9” is not in BS 7671");
        runOf(m.p, light).method.clear(), runOf(m.p, light).heldGround = "3";
        expect(m.p, "unknown-name", Severity::Stop, "its protective conductor “3” is not in BS 7671");
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
        OneBoard w(VoltageSystem::Y480);
        w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 400;
        Transformer t;
        t.name = "T-1", t.kva = 45;
        const TransformerId id = w.p.transformers.add(t);
        feedFrom(w.p, id, w.board);
        runOfNode(w.p, id).lengthBy = LengthBy::Entered;
        Board sub;
        sub.name = "LP-2", sub.bus = sub.main = 225;
        const BoardId two = addBoard(w.p, sub);
        feedFrom(w.p, two, id);
        runOfNode(w.p, two).lengthBy = LengthBy::Entered;
        const CircuitId c = addCircuit(w.p, two, 3, "Kiln");
        Load l;
        l.circuit = c, l.amount = 65, l.unit = LoadUnit::kVA, l.poles = 3;
        w.p.loads.add(l);
        runOf(w.p, c).lengthBy = LengthBy::Entered;
        expect(w.p, "overload", Severity::Check,
               "T-1: 65.0 kVA of demand on 45 kVA"); // 75 kVA next, 112.5 with a quarter left
    }
    {
        OneBoard w;
        const CircuitId c = w.circuit(22, LoadUnit::A, 1, 10);
        w.p.circuits.change(c)->heldBreaker = 20;
        expect(w.p, "held-breaker", Severity::Stop, "breaker held at 20 A, 22.0 A is needed");
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
        covered().insert("length");
        const auto told = [&] { return Found(w.p).of("length")->text; };
        CHECK(told() == "LP-1-1: no length is known, so its drop is not checked");
        w.circuit(200);
        CHECK(told() == "LP-1, 2 runs: no length is known, so their drop is not checked");
        // Nothing is invented: the remedy makes the basis say what such runs count as, and it goes on being told.
        const Found f(w.p);
        const auto remedies = remediesFor({f.p, f.book, f.r}, *f.of("length"));
        REQUIRE(remedies.size() == 1);
        remedies[0].apply(w.p);
        CHECK(told() == "LP-1, 2 runs: no length is known; the basis counts each as 100 ft");
        CHECK(std::none_of(w.p.circuits.begin(), w.p.circuits.end(),
                           [&](const Circuit& c) { return w.p.runs[c.run].lengthBy == LengthBy::Entered; }));
    }
    {
        OneBoard w(VoltageSystem::D240H);
        w.p.circuits.change(w.circuit(1000, LoadUnit::VA, 1, 20))->slot = 3;
        expect(w.p, "high-leg", Severity::Stop, "the high leg");
        // Of a board of two the other slot stands on A; of six, filled but for the last, that stands on C.
        OneBoard six(VoltageSystem::D240H, 6);
        for (int slot : {1, 2, 3, 4, 5}) six.p.circuits.change(six.circuit(1000, LoadUnit::VA, 1, 20))->slot = slot;
        CHECK(Found(six.p).remedies("high-leg") == std::vector<std::string>{"Move it to slot 6, on C"});
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
    {
        OneBoard w(VoltageSystem::Y480);
        w.circuit(10, LoadUnit::hp, 1, 20, LoadKind::Motor); // 277 V: no such column
        expect(w.p, "horsepower", Severity::Stop,
               "10 hp at 277 V single-phase is not in the table and counts as nothing");
        // The same by a device of the plan, whose own horsepower goes over into kW with those of its type: · 0.7457.
        OneBoard plan(VoltageSystem::Y480);
        DeviceType t;
        t.name = "Fan", t.load = 20, t.unit = LoadUnit::hp;
        Device d;
        d.type = plan.p.deviceTypes.add(t), d.level = plan.p.levels.begin()->id, d.load = 10;
        d.circuit = addCircuit(plan.p, plan.board, 1, "Fan");
        const DeviceId device = plan.p.devices.add(d);
        const Found f(plan.p);
        REQUIRE(f.of("horsepower"));
        CHECK(f.of("horsepower")->text.find("10 hp at 277 V single-phase") != std::string::npos);
        remediesFor({f.p, f.book, f.r}, *f.of("horsepower"))[1].apply(plan.p);
        CHECK(plan.p.deviceTypes[d.type].load == Approx(20 * 0.7457));
        CHECK(plan.p.deviceTypes[d.type].unit == LoadUnit::kW);
        CHECK(*plan.p.devices[device].load == Approx(7.457));
    }
    {
        OneBoard w;
        w.circuit(5000, LoadUnit::kVA, 3, 20);
        expect(w.p, "no-device", Severity::Stop, "no standard device is rated");
    }
    {
        OneBoard w;
        w.p.boards.change(w.board)->givenKA = 12;
        Board sub;
        sub.name = "LP-2", sub.bus = 100, sub.main = 100, sub.givenKA = 9;
        const BoardId two = addBoard(w.p, sub);
        feedFrom(w.p, two, w.board);
        runOfNode(w.p, two).lengthBy = LengthBy::Entered;
        expect(w.p, "given-fault", Severity::Check, "LP-2: 9.00 kA is given here and 12.0 kA at LP-1 above it");
    }
    {
        OneBoard w;
        const CircuitId a = w.circuit(10, LoadUnit::A, 1, 20), b = w.circuit(12, LoadUnit::A, 1, 20);
        w.p.circuits.change(a)->multiwire = w.p.circuits.change(b)->multiwire = 1;
        w.p.circuits.change(b)->slot = 7; // row 4: A again
        expect(w.p, "multiwire", Severity::Stop,
               "LP-1-1 and LP-1-7 share a neutral on the same line: it carries 22.0 A of both");
    }
    {
        OneBoard w(VoltageSystem::Y480);
        w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 800;
        Transformer t;
        t.name = "T-1", t.kva = 75;
        const TransformerId id = w.p.transformers.add(t);
        feedFrom(w.p, id, w.board);
        runOfNode(w.p, id).lengthBy = LengthBy::Entered;
        Board sub;
        sub.name = "LP-2", sub.bus = 400;
        feedFrom(w.p, addBoard(w.p, sub), id);
        for (const Board& x : w.p.boards)
            if (x.name == "LP-2") runOfNode(w.p, x.id).lengthBy = LengthBy::Entered;
        w.p.circuits.change(w.p.transformers[id].feed.as<Circuit>())->heldBreaker =
            200; // 90.2 A: 125 A alone, 225 A with a secondary device
        expect(w.p, "transformer-device", Severity::Stop,
               "T-1: a 200 A primary device; 125 A is the most without a secondary device");
    }
    {
        OneBoard w(VoltageSystem::Y480);
        Source g;
        g.name = "G-1", g.kind = SourceKind::Generator, g.kva = 50, g.system = VoltageSystem::Y480;
        const SourceId id = w.p.sources.add(g);
        w.p.boards.change(w.board)->alternate = id;
        w.circuit(60, LoadUnit::kVA, 3, 20);
        expect(w.p, "standby", Severity::Stop, "G-1: takes over 60.0 kVA and gives 50");
        w.p.sources.change(id)->kva = 80;
        w.circuit(10, LoadUnit::hp, 3, 20, LoadKind::Motor); // 14 A · 480 · √3 = 11.64 kVA
        w.p.sources.change(id)->peakShare = 1.2;
        // 60 + 1.25 · 11.64 = 74.55 kVA of demand; less 11.64 and six times that: 132.7 kVA against 96.
        expect(w.p, "standby", Severity::Check,
               "G-1: 132.7 kVA for the moment of its largest start, 96.0 kVA is what it gives then");
        // Star–delta takes a third while it starts: 74.55 − 11.64 + 23.28 = 86.2 kVA, which it gives; a soft starter
        // set to 3.5 times takes 40.7, and 103.6 in all. Of a drive without a setting nothing is known: it counts as
        // direct.
        CircuitId motor;
        for (const Circuit& c : w.p.circuits) motor = c.id;
        w.p.circuits.change(motor)->starter = StarterKind::StarDelta;
        CHECK_FALSE(Found(w.p).of("standby"));
        CHECK(Found(w.p).r.of(id).peak == Approx(86190).epsilon(0.001));
        w.p.circuits.change(motor)->starter = StarterKind::Soft;
        w.p.circuits.change(motor)->startTimes = 3.5;
        expect(w.p, "standby", Severity::Check,
               "G-1: 103.6 kVA for the moment of its largest start, 96.0 kVA is what it gives then");
        w.p.circuits.change(motor)->starter = StarterKind::Drive;
        w.p.circuits.change(motor)->startTimes = 0;
        expect(w.p, "standby", Severity::Check,
               "G-1: 132.7 kVA for the moment of its largest start, 96.0 kVA is what it gives then");
        w.p.sources.change(id)->system = VoltageSystem::Y208;
        expect(w.p, "alternate", Severity::Stop, "LP-1 is for 480Y/277 V and would be taken over at 208Y/120 V by G-1");
    }
    {
        OneBoard w(VoltageSystem::Y480);
        const BoardId ats = insertInFeed(w.p, w.board, BoardUse::TransferSwitch);
        expect(w.p, "alternate", Severity::Check, "ATS-1: nothing takes over when its feed fails");
        Source second;
        second.name = "Utility 2", second.system = VoltageSystem::Y480, second.faultKA = 30, second.xOverR = 4;
        const SourceId other = w.p.sources.add(second);
        alternateFrom(w.p, ats, other);
        for (RunId run : {w.p.boards[ats].run, w.p.boards[ats].alternateRun, w.p.boards[w.board].run})
            w.p.runs.change(run)->lengthBy = LengthBy::Entered, w.p.runs.change(run)->length = 0.001;
        // 20 kA is within the 22 kA of both, 30 kA from the other utility is not.
        expect(w.p, "fault-level", Severity::Stop, "LP-1: rated 22.0 kA where 30.0 kA is available on Utility 2");
        w.p.boards.change(ats)->bus = 40; // what protects the conductors from there
        w.p.basis.feederDropLimit = 10;   // so that what is said is said of the circuits
        // 480 V, 36 A, #8 (0.78 Ω and 0.065 Ω for 1 000 ft), 500 ft: √3 · 36 · 0.78 · 0.5 / 480 = 5.07 %.
        w.circuit(30, LoadUnit::kVA, 3, 1);
        Run& run = *w.p.runs.change(w.p.boards[ats].alternateRun);
        run.length = feet(500).v;
        run.heldSize = "8";
        expect(w.p, "alternate", Severity::Check,
               "LP-1: on Utility 2 1 circuit goes over 5.00 %, the worst loses 5.1 %");
    }
    {
        OneBoard w(VoltageSystem::Y480);
        w.circuit(30, LoadUnit::kVA, 3, 20);
        {
            // 30 kVA on 480 V: 36.1 A, a 40 A breaker and #8; behind the generator's 100 A switch nothing protects #8.
            OneBoard x(VoltageSystem::Y480);
            Board b;
            b.name = "LS-1", b.system = VoltageSystem::Y480, b.bus = 100;
            const BoardId ls = addBoard(x.p, b);
            feedFrom(x.p, ls, x.board);
            const CircuitId c = addCircuit(x.p, ls, 3, "Pump");
            Load l;
            l.circuit = c, l.amount = 30, l.unit = LoadUnit::kVA, l.poles = 3;
            x.p.loads.add(l);
            const BoardId ats = insertInFeed(x.p, ls, BoardUse::TransferSwitch);
            addGenerator(x.p, ats, 50);
            expect(x.p, "alternate", Severity::Stop, "LS-1: on G-1 its conductors carry 50.0 A behind 100 A");
            // 60.1 A of the generator, × 1.15 = 69.2 A: #12 carries 25 A.
            alternateRunOf(x.p, ats).heldSize = "12";
            expect(x.p, "alternate", Severity::Stop,
                   "ATS-1: the conductors from G-1: #12 is held and carries 25.0 A, for 69.2 A behind 100 A");
        }
        const BoardId ups = insertInFeed(w.p, w.board, BoardUse::Ups);
        expect(w.p, "ups", Severity::Check, "UPS-1: its kVA are not entered");
        w.p.boards.change(ups)->kva = 20;
        expect(w.p, "ups", Severity::Stop, "UPS-1: 30.0 kVA of demand on 20 kVA");
        w.p.boards.change(ups)->kva = 40;
        w.p.boards.change(ups)->kw = 25;
        expect(w.p, "ups", Severity::Stop, "UPS-1: 30.0 kW of demand on 25 kW");
        w.p.boards.change(ups)->kw = 29;
        CHECK(Found(w.p).of("ups"));
        w.p.boards.change(ups)->kw = 30;
        CHECK_FALSE(Found(w.p).of("ups"));
        w.p.boards.change(ups)->kva = 29; // 30 kVA behind it
        CHECK(Found(w.p).of("ups"));
    }
    {
        OneBoard w(VoltageSystem::Y480);
        const CircuitId tap = w.circuit(30, LoadUnit::kVA, 3);
        Board& b = *w.p.boards.change(w.board);
        b.name = "BW-1";
        b.use = BoardUse::Busway;
        // Two things that nobody can enter with a click: there is no remedy for them.
        const auto told = [&](const std::string& text) {
            const Found f(w.p);
            REQUIRE(f.of("busway"));
            CHECK(f.of("busway")->severity == Severity::Check);
            CHECK(f.of("busway")->text.find(text) == 0);
            CHECK(remediesFor({f.p, f.book, f.r}, *f.of("busway")).empty());
        };
        told("BW-1: not entered: its length, resistance at 20 °C, resistance at its rated current, reactance, the "
             "loop with its protective path; drop and faults along it are not known");
        b.barLength = 30;
        b.barR20 = 0.1;
        b.barR = 0.05;
        b.barX = b.barLoopX = 0.05;
        b.barLoopR20 = 0.2;
        told("BW-1: " + figures(0.05) + " mΩ/m at its rated current, less than " + figures(0.1) + " at 20 °C");
        b.barR = 0.125;
        told("BW-1-1: where it stands on BW-1 is not entered");
        w.p.circuits.change(tap)->along = 40;
        expect(w.p, "busway", Severity::Stop, "BW-1-1 stands at");
        // 400 A in front of 225 A of bars; with 400 A of bars 400 A may stand, and 450 not.
        w.p.circuits.change(tap)->along = 20;
        b.main = 400;
        expect(w.p, "busway-device", Severity::Stop, "BW-1: rated 225 A behind 400 A");
        b.main = 250; // the next rating above 225 is 225 itself
        expect(w.p, "busway-device", Severity::Stop, "BW-1: rated 225 A behind 250 A");
        b.bus = 240; // 250 is the next above 240
        CHECK_FALSE(Found(w.p).of("busway-device"));
        b.main = 0; // straight from the source, and nothing protects it
        expect(w.p, "busway-device", Severity::Stop, "BW-1: no device before it protects its bars");
        // On the plan the saw stands 25 m along and 3 m across from the fed end; the bars go 20 m of that.
        CHECK_FALSE(Found(w.p).of("tap-length"));
        const LevelId level = w.p.levels.begin()->id;
        b.level = level, b.onPlan = true, b.at = {0, 0}, b.height = 0;
        Device saw;
        saw.level = level, saw.circuit = tap, saw.at = {25, 3}, saw.height = 0;
        saw.type = w.p.deviceTypes.add({});
        w.p.devices.add(saw);
        const double measured = w.solved().of(tap).run.need.length.v;
        REQUIRE(measured > 28);
        expect(w.p, "tap-length", Severity::Check, "BW-1-1: its conductors are measured from the fed end of BW-1, ");
        const Found f(w.p);
        const auto remedies = remediesFor({f.p, f.book, f.r}, *f.of("tap-length"));
        REQUIRE(remedies.size() == 1);
        Project q = w.p;
        remedies[0].apply(q);
        CHECK(solve(q, nec()).of(tap).run.need.length.v == Approx(measured - 20));
        CHECK_FALSE(Found(q).of("tap-length"));
        runOf(w.p, tap).lengthBy = LengthBy::Traced; // drawn by hand from where it is tapped
        CHECK_FALSE(Found(w.p).of("tap-length"));
    }
    {
        OneBoard w(*systemFrom("4160Y/2400"));
        expect(w.p, "medium-voltage", Severity::Stop,
               "LP-1 is for 4160Y/2400 V: boards with circuits are worked out up to " + number(1000) + " V only");
        // A board fed at medium voltage gets a transformer; that makes no new stop.
        OneBoard fed(VoltageSystem::Y480);
        fed.p.sources.change(fed.source)->system = *systemFrom("12.47 kV");
        expect(fed.p, "feed-voltage", Severity::Stop, "LP-1 is for 480Y/277 V and is fed at 12470Y/7200 V");
        const Found wrong(fed.p);
        remediesFor({wrong.p, wrong.book, wrong.r}, *wrong.of("feed-voltage")).front().apply(fed.p);
        const Found right(fed.p);
        CHECK_FALSE(right.of("feed-voltage"));
        REQUIRE(right.of("medium-voltage")); // its primary conductors are told as not sized
        CHECK(right.of("medium-voltage")->severity == Severity::Note);
        CHECK(fed.p.transformers.begin()->secondary == VoltageSystem::Y480);
        w.p.boards.change(w.board)->use = BoardUse::Disconnect;
        const Found told(w.p);
        REQUIRE(told.of("medium-voltage"));
        CHECK(told.of("medium-voltage")->severity == Severity::Note);
        CHECK(told.of("medium-voltage")->text.find("Conductors to LP-1 at " + number(4160) + " V") == 0);
    }
    {
        OneBoard w;
        const Project home = plainRoom(w, "Kitchen", Occupancy::Other);
        expect(home, "ground-fault", Severity::Stop,
               "LP-1-1 Counter: receptacles in Room 1 without ground-fault protection");
        CHECK_FALSE(Found(home).of("arc-fault"));
    }
    {
        OneBoard w;
        const Project home = plainRoom(w, "bedroom", Occupancy::Dwelling);
        expect(home, "arc-fault", Severity::Stop, "LP-1-1 Counter: outlets in Room 1 without arc-fault protection");
        CHECK_FALSE(Found(home).of("ground-fault")); // not asked for in a bedroom
        // 4 m × 5 m: 18 m of wall with one receptacle: 59 ft, 12 ft is the most.
        expect(home, "outlet-spacing", Severity::Check, "59.1 ft of wall without a receptacle, 12 ft is the most");
        // Another half a metre from the corner where the outline begins: from the first one on, 16.5 m are left.
        Project two = home;
        Device corner = *two.devices.begin();
        corner.at = {0.5, 0.05};
        two.devices.add(corner);
        expect(two, "outlet-spacing", Severity::Check, "54.1 ft of wall without a receptacle, 12 ft is the most");
    }
    {
        OneBoard w;
        Project p = plainRoom(w, "hall", Occupancy::Other);
        p.basis.lightingAreaOf = "office"; // 20 m² = 215.3 ft² · 1.3 VA = 280 VA
        expect(p, "lighting-floor", Severity::Note, "0.0 kVA of lighting connected, 0.3 kVA by area (office)");
        const double receptacle = 180, floor = 20 / (0.3048 * 0.3048) * 1.3;
        CHECK(solve(p, nec()).of(w.source).demand == Approx(receptacle + floor));
    }
    {
        // Both have issued, apart from one another: LP-2 and the one-line have come to one number.
        OneBoard w;
        w.p.sheetNumbers.add({{}, SheetKind::Schedule, w.board, "E-601", "", false, {}});
        w.p.sheetNumbers.add({{}, SheetKind::OneLine, {}, "E-601", "", false, {}});
        w.p.sheetNumbers.add(
            {{}, SheetKind::Schedule, w.board, "E-601", "", false, {}}); // said twice: nothing to decide
        expect(w.p, "sheet-number", Severity::Check,
               "Sheet numbers that were given twice: E-601 (one-line). The first that was given counts");
    }
    {
        OneBoard w;
        const auto type = [&](const char* name, const char* mark) {
            DeviceType t;
            t.name = name;
            t.mark = mark;
            return w.p.deviceTypes.add(t);
        };
        type("Downlight", "A1");
        type("Strip", "A2");
        type("Switch", ""); // without a mark there is nothing to mistake
        type("Outlet", "");
        const DeviceTypeId second = type("Pendant", "a1");
        expect(w.p, "mark-twice", Severity::Check, "Pendant has the mark a1, which is that of Downlight");
        const Found f(w.p);
        Project q = w.p;
        remediesFor({f.p, f.book, f.r}, *f.of("mark-twice")).front().apply(q);
        CHECK(q.deviceTypes[second].mark == "a3"); // 1 and 2 are taken
    }
    {
        // A bus is protected by its main, or by what feeds the board: 408.36.
        OneBoard w;
        w.p.boards.change(w.board)->main = 400;
        expect(w.p, "main-missing", Severity::Stop, "LP-1: a main of 400 A on a bus of 225 A");
        CHECK(Found(w.p).after("main-missing", 0) == 0);
        CHECK(Found(w.p).after("main-missing", 1) == 0);
        Board sub;
        sub.name = "LP-2";
        sub.bus = 100;
        sub.main = 150;
        w.p.boards.change(w.board)->main = 225;
        const BoardId two = addBoard(w.p, sub);
        feedFrom(w.p, two, w.board);
        w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = 100; // protects it all the same
        CHECK_FALSE(Found(w.p).of("main-missing"));
        w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = 150;
        expect(w.p, "main-missing", Severity::Stop, "LP-2: a main of 150 A on a bus of 100 A");
    }
    {
        // 250.122: a 100 A device asks for 8 AWG. 6 may be held, 10 may not.
        OneBoard w;
        const CircuitId c = w.circuit(75, LoadUnit::A, 3, 30);
        w.p.circuits.change(c)->heldBreaker = 100;
        runOf(w.p, c).heldGround = "6";
        CHECK_FALSE(Found(w.p).of("held-size"));
        CHECK(Found(w.p).r.of(c).run.ground == nec().find("6"));
        runOf(w.p, c).heldGround = "10";
        expect(w.p, "held-size", Severity::Stop, "LP-1-1 load: its ground is held at #10, #8 is needed");
        CHECK(Found(w.p).after("held-size", 0) == 0);
        CHECK(Found(w.p).after("held-size", 1) == 0);
    }
    {
        // A 12 A load where the list of feeders said 9 kVA, and no conduit of this size.
        OneBoard w;
        const CircuitId c = w.circuit(12, LoadUnit::A, 1, 100);
        runOf(w.p, c).listedVA = 9000;
        runOf(w.p, c).name = "F-7";
        expect(w.p, "listed-figures", Severity::Check, "F-7: 1.4 kVA, listed 9.0");
        // 12 A at 120 V are 1 440 VA; so much as a twentieth apart is the same, of the fault at its end too.
        for (const auto& [va, told] :
             {std::pair{1440.0, false}, {1380.0, false}, {1505.0, false}, {1360.0, true}, {1520.0, true}}) {
            INFO(va);
            runOf(w.p, c).listedVA = va;
            CHECK(bool(Found(w.p).of("listed-figures")) == told);
        }
        runOf(w.p, c).listedVA = 0;
        const double kA = w.solved().of(c).faultEnd;
        for (const auto& [share, told] : {std::pair{1.0, false},
                                          {0.96, false},
                                          {0.951, false},
                                          {1.04, false},
                                          {1.052, false},
                                          {0.94, true},
                                          {1.06, true}}) {
            INFO(share);
            runOf(w.p, c).listedKA = kA * share;
            CHECK(bool(Found(w.p).of("listed-figures")) == told);
        }
    }
    {
        OneBoard w;
        const CircuitId listed = w.circuit(9, LoadUnit::kVA, 3, 1);
        w.p.loads.change(w.p.loads.begin()->id)->name = listedLoadName;
        w.circuit(500, LoadUnit::VA, 1, 1);
        w.circuit(500, LoadUnit::VA, 1, 1);
        (void)listed;
        expect(w.p, "listed-load-twice", Severity::Check,
               "LP-1: the load of its list counts beside 2 circuits of its own");
    }
    {
        // Only the first was given nothing: a load of 0 VA was entered as nothing, and a spare carries none.
        OneBoard w;
        const CircuitId named = addCircuit(w.p, w.board, 1, "Copier 1.5 kW");
        w.circuit(0, LoadUnit::VA, 1, 20);
        const CircuitId spare = addCircuit(w.p, w.board, 1, "");
        w.p.circuits.change(spare)->use = CircuitUse::Spare;
        expect(w.p, "no-load", Severity::Check, "LP-1-1 Copier 1.5 kW: no load is entered, it counts as nothing");
        CHECK(Found(w.p).after("no-load", 0) == 0);
        const Found f(w.p);
        remediesFor({f.p, f.book, f.r}, *f.of("no-load")).front().apply(w.p);
        CHECK(w.p.circuits[named].name == "Copier");
        CHECK(w.solved().of(named).va == Approx(1500));
    }
    {
        // MCA 31, MOCP 45, and a breaker of 50 A fitted all the same.
        OneBoard w(VoltageSystem::Y480);
        const CircuitId unit = w.circuit(26, LoadUnit::A, 3, 50, LoadKind::Cooling);
        Load& plate = *w.p.loads.change(w.p.loads.begin()->id);
        plate.nameplate.ampacity = 31, plate.nameplate.device = 45;
        CHECK_FALSE(Found(w.p).of("nameplate"));
        w.p.circuits.change(unit)->heldBreaker = 50;
        expect(w.p, "nameplate", Severity::Stop, "breaker held at 50 A, its nameplate allows 45.0 A");
        CHECK(Found(w.p).after("nameplate", 0) == 0);
        w.p.circuits.change(unit)->heldBreaker.reset();
        w.p.loads.change(plate.id)->nameplate.device = 34; // no rating from 31 to 34
        expect(w.p, "nameplate", Severity::Stop,
               "it needs 31.0 A, its nameplate allows 34.0 A, and no standard rating lies between");
        w.p.loads.change(plate.id)->nameplate.device = 31; // and typed the wrong way round
        w.p.loads.change(plate.id)->nameplate.ampacity = 45;
        expect(w.p, "nameplate", Severity::Stop, "asks for 45.0 A in the conductors and allows a device of 31.0 A");
        CHECK(Found(w.p).after("nameplate", 0) == 0);
        w.p.loads.change(plate.id)->nameplate.ampacity = 20;
        w.p.loads.change(plate.id)->nameplate.device = 45;
        expect(w.p, "nameplate", Severity::Check, "its load of 26.0 A is more than the 20.0 A marked");
        w.p.loads.change(plate.id)->nameplate = {31, 45}; // 20 A of another load beside it: 51 A
        Load other;
        other.circuit = unit, other.amount = 20, other.unit = LoadUnit::A, other.poles = 3;
        w.p.loads.add(other);
        expect(w.p, "nameplate", Severity::Stop, "it needs 51.0 A, its nameplate allows 45.0 A");
    }
    {
        OneBoard w;
        w.p.basis.ownValues["roof/adder"] = 17;
        expect(w.p, "own-value", Severity::Note, "Own value in place of the rule book's: roof/adder: 17 instead of 33");
    }
    {
        // A motor control board: one 50 hp motor (65 A) on 175 A, and the feeder's device held to its own load.
        OneBoard w(VoltageSystem::Y480);
        w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 400;
        Board sub;
        sub.name = "MC-1", sub.bus = 225, sub.system = VoltageSystem::Y480;
        const BoardId two = addBoard(w.p, sub);
        feedFrom(w.p, two, w.board);
        runOfNode(w.p, two).lengthBy = LengthBy::Entered;
        for (const double hp : {50.0, 5.0}) {
            const CircuitId c = addCircuit(w.p, two, 3, hp > 10 ? "Compressor" : "Fan");
            runOf(w.p, c).lengthBy = LengthBy::Entered;
            Load l;
            l.circuit = c, l.kind = LoadKind::Motor, l.amount = hp, l.unit = LoadUnit::hp, l.poles = 3;
            w.p.loads.add(l);
        }
        // Demand 1.25 · 65 + 7.6 = 88.9 A: 90 A. The motor's own device: 2.5 · 65 = 162.5, next 175 A.
        expect(w.p, "motor-feeder", Severity::Check,
               "MC-1: its feeder's 90 A device is smaller than the 175 A of MC-1-1 Compressor");
        // 430.62(A): 175 + 7.6 = 182.6 A is the most.
        w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = 200;
        runOfNode(w.p, two).heldSize = "3", runOfNode(w.p, two).heldSets = 1;
        expect(w.p, "motor-feeder", Severity::Check,
               "MC-1: a 200 A device feeds motors that allow 183 A, and its conductors carry 100 A");
        // What hangs on a board below counts too: 10 hp, 14 A, and 6 A of heating: 182.6 + 14 + 6 = 202.6 A.
        const BoardId three = boardBelow(w.p, two, "MC-2", VoltageSystem::Y480, 100);
        w.board = three;
        w.circuit(10, LoadUnit::hp, 3, 1, LoadKind::Motor);
        w.circuit(6, LoadUnit::A, 3, 1, LoadKind::Heating);
        w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = 250;
        expect(w.p, "motor-feeder", Severity::Check,
               "MC-1: a 250 A device feeds motors that allow 203 A, and its conductors carry 100 A");
    }
    {
        MetricBoard w;
        const CircuitId c = w.run(3, 40);
        runOf(w.p, c).heldSize = "1.5";
        w.p.basis.classShare = 0.6; // by its class alone 1.0 mm² would not stand 15 000 A²s at the board: 1.07 mm²
        // 0.35 + (12.1 + 18.1)·1.2·40/1000 = 1.80 Ω on B16: 2.73 is allowed; on D16 0.68.
        CHECK_FALSE(Found(w.p).of("loop"));
        w.p.circuits.change(c)->device = DeviceKind::TypeD;
        expect(w.p, "loop", Severity::Stop,
               "LP-1/1/L1 load: Zs 1.80 Ω, 0.683 Ω is the most for type D 16 A in 0.400 s, 30.8 m too long");
        const Found f(w.p);
        const auto remedies = remediesFor({f.p, f.book, f.r}, *f.of("loop"));
        CHECK(remedies.size() >= 3); // larger line or let it be sized, another curve, residual current
    }
    { // a UPS on its battery: B16 opens at 5 × 16 = 80 A, D16 at 20 × 16 = 320 A, whatever its supply gives
        MetricBoard w;
        const BoardId ups = insertInFeed(w.p, w.board, BoardUse::Ups);
        w.p.boards.change(ups)->kva = 40;
        const CircuitId c = w.run(3, 40);
        CHECK_FALSE(Found(w.p).of("ups-fault")); // nothing is known of it
        w.p.boards.change(ups)->inverterA = 80;
        CHECK_FALSE(Found(w.p).of("ups-fault"));
        w.p.boards.change(ups)->inverterA = 79;
        expect(w.p, "ups-fault", Severity::Check,
               "UPS-1: 79.0 A into a fault from its battery; LP-1/1/L1 load needs 80.0 A to open in 0.400 s");
        CHECK(Found(w.p).remedies("ups-fault") ==
              std::vector<std::string>{"Residual-current device of 30 mA at 1 circuit"});
        w.p.boards.change(ups)->inverterA = 300;
        CHECK_FALSE(Found(w.p).of("ups-fault"));
        w.p.circuits.change(c)->device = DeviceKind::TypeD;
        w.p.circuits.change(w.run(3, 40))->device = DeviceKind::TypeD;
        expect(w.p, "ups-fault", Severity::Check,
               "UPS-1: 300 A into a fault from its battery; LP-1/1/L1 load needs 320 A to open in 0.400 s, and 1 more "
               "needs more than it gives");
        CHECK(Found(w.p).remedies("ups-fault") ==
              std::vector<std::string>{"type B at 2 circuits", "Residual-current device of 30 mA at 2 circuits"});
        CHECK(Found(w.p).after("ups-fault", 0) == 0);
        CHECK(Found(w.p).after("ups-fault", 1) == 0);
    }
    {
        MetricBoard w;
        const CircuitId c = w.run(2, 10, 1, LoadKind::Receptacle);
        expect(w.p, "residual", Severity::Stop,
               "LP-1/1/L1 load: no residual-current device, and socket outlets on 10 A");
        Section s;
        s.board = w.board, s.name = "Left half", s.from = 1, s.to = 6, s.residual = 30;
        w.p.sections.add(s);
        CHECK_FALSE(Found(w.p).of("residual")); // watched by its section
        w.p.circuits.change(c)->slot = 7;
        CHECK(Found(w.p).of("residual"));
        // A device in front of a section is offered where the circuit stands in one that has none.
        const auto offers = [&] {
            const auto all = Found(w.p).remedies("residual");
            return std::count(all.begin(), all.end(), "30 mA in front of Left half");
        };
        CHECK(offers() == 0);
        w.p.circuits.change(c)->slot = 2;
        w.p.sections.change(w.p.sections.begin()->id)->residual = 0;
        CHECK(offers() == 1);
        w.p.circuits.change(c)->slot = 7;
        CHECK(offers() == 0);
    }
    {
        MetricBoard w;
        const CircuitId c = w.run(4, 40, 1, LoadKind::Receptacle);
        w.p.circuits.change(c)->ring = true;
        w.p.circuits.change(c)->residual = 30;
        CHECK_FALSE(Found(w.p).of("ring"));
        w.p.circuits.change(c)->heldBreaker = 40;
        expect(w.p, "ring", Severity::Stop, "LP-1/1/L1 load: a ring behind 40 A, 32 A is the most");
        w.p.basis.ruleBook = "nec-2023";
        w.p.circuits.change(c)->heldBreaker = 20;
        expect(w.p, "ring", Severity::Stop, "a ring, which NEC 2023 does not know");
    }
    { // sockets in two rooms of 60 m²: too much floor for a radial behind 20 A, and more on spurs than a ring has
      // points of its own
        MetricBoard w;
        Project& p = w.p;
        p.basis.occupancy = Occupancy::Dwelling;
        const LevelId level = p.levels.begin()->id;
        p.boards.change(w.board)->level = level;
        const CircuitId c = addCircuit(p, w.board, 1, "Sockets");
        p.circuits.change(c)->heldBreaker = 20;
        p.circuits.change(c)->residual = 30;
        DeviceType t;
        t.name = "Socket outlet", t.load = 100;
        const DeviceTypeId type = p.deviceTypes.add(t);
        for (int room = 0; room < 2; ++room) {
            const double x = room * 10.0;
            p.rooms.add({{},
                         level,
                         std::to_string(room + 1),
                         "Room",
                         "",
                         {{x, 0}, {x + 10, 0}, {x + 10, 6}, {x, 6}},
                         {},
                         0,
                         0,
                         {},
                         {}});
            for (int i = 0; i < 3; ++i) {
                Device d;
                d.type = type, d.level = level, d.at = {x + 2 + 2 * i, 3}, d.circuit = c;
                p.devices.add(d);
            }
        }
        expect(p, "ring", Severity::Check, "serves 120 m², 50 m² is usual for a radial behind 20 A");
        p.circuits.change(c)->heldBreaker = 32;
        p.circuits.change(c)->ring = true;
        CHECK(Found(p).of("ring")->text.find("100 m² is usual for one ring") != std::string::npos);
        p.rooms.remove(RoomId{2});
        CHECK_FALSE(Found(p).of("ring"));
        std::vector<DeviceId> all;
        for (const Device& d : p.devices) all.push_back(d.id);
        const double whole = Found(p).r.of(c).run.need.length.v;
        for (std::size_t i = 2; i < 6; ++i) p.devices.change(all[i])->spur = true;
        expect(p, "ring", Severity::Check, "4 points on unfused spurs, 2 on the ring itself");
        CHECK(Found(p).r.of(c).run.need.length.v < whole - 10); // what hangs on spurs does not lengthen the ring
    }
    {
        MetricBoard w;
        const CircuitId c = w.run(7, 20, 1, LoadKind::Vehicle);
        Section s;
        s.board = w.board, s.name = "Yard", s.from = 1, s.to = 6, s.residual = 30;
        const SectionId section = w.p.sections.add(s);
        expect(w.p, "residual-type", Severity::Stop, "charges vehicles behind a residual-current device of type A");
        w.p.sections.change(section)->residualType = ResidualType::B;
        CHECK_FALSE(Found(w.p).of("residual-type"));
        w.p.circuits.change(c)->residual = 30; // its own stands in front of it
        CHECK(Found(w.p).of("residual-type"));
        w.p.circuits.change(c)->residualType = ResidualType::AWithDirect;
        CHECK_FALSE(Found(w.p).of("residual-type"));
        const CircuitId lamps = w.run(1, 10, 1, LoadKind::Lighting), tank = w.run(3, 10, 1, LoadKind::Heating);
        for (CircuitId x : {lamps, tank})
            w.p.circuits.change(x)->residual = 30, w.p.circuits.change(x)->residualType = ResidualType::AC;
        expect(w.p, "residual-type", Severity::Check, "type AC is for loads known to have no direct current");
        CHECK(Found(w.p).of("residual-type")->about == Ref(lamps));
        w.p.circuits.change(lamps)->residualType = ResidualType::F;
        CHECK_FALSE(Found(w.p).of("residual-type"));
    }
    {
        MetricBoard w;
        const CircuitId c = w.run(2, 10);
        runOf(w.p, c).fireRated = true;
        CHECK_FALSE(Found(w.p).of("fire-rated")); // the book's fire-rated cable is laid by itself
        runOf(w.p, c).cable = "multicore 70 °C";
        expect(w.p, "fire-rated", Severity::Stop,
               "LP-1/1/L1 load: has to work in a fire, and its cable is multicore 70 °C");
        expect(w.p, "surge", Severity::Note, "LP-1: nothing is said of surge protection at the origin");
    }
    {
        MetricBoard w;
        w.run(2, 10);
        CHECK_FALSE(Found(w.p).of("insulation-monitor"));
        w.p.sources.change(w.source)->earthing = Earthing::IT;
        expect(w.p, "insulation-monitor", Severity::Stop, "Utility: an IT supply, and nothing tells of a first fault");
    }
    {
        OneBoard w(VoltageSystem::Y208, 12);
        for (int i = 0; i < 10; ++i) w.circuit(100);
        w.p.boards.change(w.board)->reservedShare = 0.25; // 3 of 12, and 2 are left
        expect(w.p, "reserve", Severity::Check, "LP-1 has 2 places left; 3 are to stay free");
    }
    {
        OneBoard w;
        Board sub = w.p.boards[w.board];
        sub.id = {}, sub.name = "LP-2", sub.run = {}, sub.main = 0;
        const BoardId two = addBoard(w.p, sub);
        w.p.boards.change(w.board)->lugs = Lugs::SubFeed;
        feedByLugs(w.p, two, w.board);
        CHECK_FALSE(Found(w.p).of("lugs"));
        // The bus of both is behind one device, and what hangs on the second comes to the first.
        const CircuitId c = addCircuit(w.p, two, 1, "load");
        Load l;
        l.circuit = c, l.amount = 1200;
        w.p.loads.add(l);
        const Results r = w.solved();
        CHECK(r.of(w.board).connected == Approx(1200));
        CHECK(r.of(two).run.need.device == 225);
        CHECK(r.of(two).fault.known);
        w.p.boards.change(w.board)->lugs = Lugs::None;
        expect(w.p, "lugs", Severity::Stop, "LP-2 is fed from lugs that LP-1 has not");
    }
    {
        OneBoard w;
        const CircuitId a = w.circuit(100), b = w.circuit(200);
        w.p.circuits.change(a)->tie = 1, w.p.circuits.change(b)->tie = 1; // slots 1 and 2: across the bus
        expect(w.p, "tied-apart", Severity::Check, "LP-1-1 and LP-1-2: tied handles do not stand beside one another");
    }
    {
        OneBoard w;
        const CircuitId c = w.circuit(100);
        for (const Load& l : w.p.loads)
            if (l.circuit == c) w.p.loads.change(l.id)->volts = 277;
        expect(w.p, "load-volts", Severity::Check, "its list says 277 V, LP-1-1 gives 120 V");
    }
    {
        OneBoard w;
        w.p.boards.change(w.board)->seriesKA = 42;
        expect(w.p, "unsupported-fault", Severity::Check, "LP-1: a series pair of 42");
    }
    {
        OneBoard w;
        ScheduleForm form;
        form.name = "Ours";
        form.usual = true;
        form.columns = {{"Serves", "{serves}", 0, {}}, {"Hue", "{colour}", 9, {}}};
        w.p.forms.add(form);
        expect(w.p, "form-wording", Severity::Check, "column “Hue” is worded “{colour}”: there is no figure {colour}");
    }
    {
        OneBoard w;
        ScheduleForm form;
        form.name = "By hue";
        form.usual = true;
        form.columns = {{"Serves", "{serves}", 0, {}}};
        form.sortBy = "colour";
        const FormId id = w.p.forms.add(form);
        expect(w.p, "form-wording", Severity::Check, "By hue: its rows go by “colour”, and there is no such figure");
        w.p.forms.change(id)->sortBy = "kind";
        w.p.forms.change(id)->head = {{"voltage", ""}, {"mood", "Mood"}};
        expect(w.p, "form-wording", Severity::Check, "its title strip asks for “mood”, and there is no such fact");
        // Its columns can be read: they stay.
        w.p.forms.change(id)->columns.push_back({"Again", "{serves}", 12, {}});
        for (const std::string& l : Found(w.p).remedies("form-wording")) CHECK(l.find("columns") == std::string::npos);
    }
    for (const CheckRule* rule : checkRules()) {
        INFO("no test covers the rule " << rule->id);
        CHECK(covered().count(rule->id) == 1);
    }
    told() = nullptr;
    approve("snags", {{"each-rule.txt", everyCase}});
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
    // 2 · 40 A · 1.2 Ω/kft · 100 ft = 9.6 V of 208: over the limit with what was held.
    CHECK(e.change.list(5) ==
          std::vector<std::string>{"LP-1-1: 40 A, #10 → 40 A, #8", "Gone: LP-1-1 load: held at #10, #8 is needed",
                                   "Gone: LP-1-1 load: 4.6 % lost, limit 3.00 %, 35.0 ft too long"});
    CHECK(e.text() == "1 run changes · 2 snags gone · +1.7 kg of conductor");
    // 10 → 8 AWG: (16.51 − 10.38) kcmil · 0.5067 mm² · 30.48 m · 8 890 kg/m³ · 2 lines = 1.68 kg
    CHECK(e.change.kg == Approx(1.683).epsilon(0.01));
}

TEST_CASE("the demo holds its mistakes on purpose, and applying first remedies leaves no stop") {
    Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    Found f(p);
    std::set<std::string> rules;
    for (const Snag& s : f.all) rules.insert(s.rule->id);
    for (const char* r :
         {"poles", "drop", "held-size", "fault-level", "load-unfed", "feed-voltage", "held-breaker", "overload",
          "main-missing", "horsepower", "ground-fault", "multiwire", "transformer-device", "standby"})
        CHECK(rules.count(r) == 1);
    for (int i = 0; i < 60; ++i) {
        const Found now(p);
        if (now.all.empty() || now.all.front().severity != Severity::Stop) break;
        const auto remedies = remediesFor({now.p, nec(), now.r}, now.all.front());
        REQUIRE_FALSE(remedies.empty());
        remedies.front().apply(p);
    }
    const Found end(p);
    CHECK((end.all.empty() || end.all.front().severity != Severity::Stop));
}

TEST_CASE("equal snags are put right together, as one change") {
    OneBoard w;
    for (int i = 0; i < 4; ++i) runOf(w.p, w.circuit(40, LoadUnit::A, 2, 20)).heldSize = "10";
    runOf(w.p, w.circuit(40, LoadUnit::A, 2, 20)).heldSize = "8"; // large enough
    const Found f(w.p);
    const CheckInput in{f.p, f.book, f.r};
    const auto remedies = remediesFor(in, *f.of("held-size"));
    const GroupFix g = groupFix(in, f.all, *f.of("held-size"), remedies.front());
    CHECK(g.count == 4);
    CHECK_THAT(g.remedy.label, Catch::Contains("all 4"));
    const RemedyEffect e = effectOf(in, g.remedy);
    CHECK(e.change.sizes == 4);
    CHECK(e.change.stopsAfter == 0);
    Project q = w.p;
    g.remedy.apply(q);
    CHECK_FALSE(Found(q).of("held-size"));
    // One alone is not a group.
    OneBoard one;
    runOf(one.p, one.circuit(40, LoadUnit::A, 2, 20)).heldSize = "10";
    const Found single(one.p);
    const CheckInput only{single.p, single.book, single.r};
    CHECK(
        groupFix(only, single.all, *single.of("held-size"), remediesFor(only, *single.of("held-size")).front()).count ==
        1);
}

TEST_CASE("a board that is much larger than its feed: the bus offered is the smallest made that the feed's device is "
          "within") {
    for (const auto& [device, bus] : {std::pair{50, 60},
                                      {60, 60},
                                      {70, 100},
                                      {110, 125},
                                      {150, 200},
                                      {175, 200},
                                      {225, 225},
                                      {250, 250},
                                      {300, 400},
                                      {400, 400},
                                      {450, 600},
                                      {600, 600},
                                      {700, 800},
                                      {900, 1000}}) {
        INFO(device);
        OneBoard w;
        w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 4000;
        Board sub;
        sub.name = "LP-2", sub.bus = 4000;
        const BoardId two = addBoard(w.p, sub);
        feedFrom(w.p, two, w.board);
        w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = device;
        const Found f(w.p);
        REQUIRE(f.of("out-of-proportion", "LP-2"));
        const auto offered = remediesFor({f.p, f.book, f.r}, *f.of("out-of-proportion", "LP-2"));
        REQUIRE(offered.size() == 1);
        CHECK(offered.front().label == fmt::format("A bus of {} A", rating(bus)));
    }
}

TEST_CASE("a twentieth over is over: boards, transformers, generators and what they give at a start") {
    const auto told = [](const Project& p, const char* rule) { return Found(p).of(rule) != nullptr; };
    for (const auto& [share, over] : {std::pair{0.99, false}, {1.0, false}, {1.04, true}}) {
        INFO(share);
        {
            OneBoard w(VoltageSystem::Y480);
            w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 100;
            w.circuit(100 * share, LoadUnit::A, 3, 1);
            CHECK(told(w.p, "overload") == over);
        }
        {
            OneBoard w(VoltageSystem::Y480);
            Transformer t;
            t.name = "T-1", t.kva = 45;
            const TransformerId id = w.p.transformers.add(t);
            feedFrom(w.p, id, w.board);
            w.board = boardBelow(w.p, id, "LP-2", VoltageSystem::Y208);
            w.circuit(45 * share, LoadUnit::kVA, 3, 1);
            CHECK(told(w.p, "overload") == over);
        }
        {
            OneBoard w(VoltageSystem::Y480);
            Source g;
            g.name = "G-1", g.kind = SourceKind::Generator, g.kva = 50, g.system = VoltageSystem::Y480;
            const SourceId id = w.p.sources.add(g);
            w.p.boards.change(w.board)->alternate = id;
            w.circuit(50 * share, LoadUnit::kVA, 3, 1);
            CHECK(told(w.p, "standby") == over);
            // 10 hp across the line: 1.25 · 11.64 kVA of demand, less 11.64 and six times that: 72.7 kVA.
            for (const Load& l : Project(w.p).loads) w.p.loads.remove(l.id);
            const CircuitId motor = w.circuit(10, LoadUnit::hp, 3, 1, LoadKind::Motor);
            w.p.circuits.change(motor)->starter = StarterKind::Direct;
            const double peak = w.solved().of(id).peak / 1000;
            CHECK(peak == Approx(72.75).epsilon(0.001));
            w.p.sources.change(id)->peakShare = peak / share / 50;
            CHECK(told(w.p, "standby") == over);
        }
    }
}

TEST_CASE("the conductor that a change takes counts at transformers too") {
    OneBoard w(VoltageSystem::Y480);
    Transformer t;
    t.name = "T-1", t.kva = 45;
    const TransformerId id = w.p.transformers.add(t);
    feedFrom(w.p, id, w.board);
    Run& run = runOfNode(w.p, id);
    run.lengthBy = LengthBy::Entered, run.length = 20, run.heldSize = "6";
    Project after = w.p;
    runOfNode(after, id).heldSize = "4";
    const Results x = w.solved(), y = solve(after, nec());
    // (41.74 − 26.24) kcmil · 0.5067 mm² · 20 m · 8 890 kg/m³ · 3 lines
    CHECK(compare({w.p, nec(), x}, {after, nec(), y}).kg == Approx(4.19).epsilon(0.01));
    CHECK(compare({after, nec(), y}, {w.p, nec(), x}).kg == Approx(-4.19).epsilon(0.01));
}

TEST_CASE("remedies for several snags at once keep what is the same in all of them, and only leave out what differs") {
    const auto group = [](const Project& p, const char* rule) {
        const Found f(p);
        const CheckInput in{f.p, f.book, f.r};
        return groupFix(in, f.all, *f.of(rule), remediesFor(in, *f.of(rule)).front()).remedy.label;
    };
    OneBoard w;
    Board sub;
    sub.name = "LP-2", sub.bus = 100, sub.main = 100, sub.ratingKA = 10;
    w.p.boards.change(w.board)->ratingKA = 10;
    const BoardId two = addBoard(w.p, sub);
    feedFrom(w.p, two, w.board);
    CHECK(group(w.p, "fault-level") == "Rate … at 22 kA, all 2");
    w.circuit(100);
    CHECK(group(w.p, "length") == "Count unknown lengths as 100 ft, all 2"); // its circuits, and the feeder of LP-2
    for (const char* name : {"Copier 1.5 kW", "Kiln 8 kW"}) addCircuit(w.p, w.board, 1, name);
    CHECK(group(w.p, "no-load") == "Take the load from its name, all 2");
}

TEST_CASE("a series pair or a let-through stands where the board alone may not") {
    OneBoard w(VoltageSystem::Y480);
    w.p.boards.change(w.board)->ratingKA = 65;
    Board sub;
    sub.name = "LP-2", sub.bus = 100, sub.main = 100, sub.ratingKA = 14, sub.system = VoltageSystem::Y480;
    const BoardId two = addBoard(w.p, sub);
    feedFrom(w.p, two, w.board);
    runOfNode(w.p, two).lengthBy = LengthBy::Entered;
    REQUIRE(Found(w.p).of("fault-level"));
    CHECK(remediesFor({w.p, nec(), Found(w.p).r}, *Found(w.p).of("fault-level")).size() == 3);
    // Red wherever it is shown, or nowhere: snag, riser, list of protective devices.
    const auto red = [&] {
        const Results r = solve(w.p, nec());
        const SheetInput in{w.p, nec(), r};
        int marks = 0;
        for (const Drawing& d : riserDiagram(in, RiserLayout::OneLine))
            for (const Mark& m : d.marks)
                if (const auto* t = std::get_if<TextMark>(&m))
                    marks += t->ink == Ink::Stop && t->text.find("kA") != std::string::npos;
        for (const ListEntry& e : listKind("protection")->make(in).rows)
            if (e.about == Ref(two))
                for (const ListCell& c : e.cells) marks += c.ink == Ink::Stop;
        return marks;
    };
    CHECK(red() == 2);
    w.p.boards.change(two)->seriesKA = 22;
    CHECK_FALSE(Found(w.p).of("fault-level"));
    CHECK(red() == 0);
    {
        const Results r = solve(w.p, nec());
        CHECK(panelSchedule({w.p, nec(), r}, two).words().find("14.0 kA (22.0 in series)") != std::string::npos);
    }
    w.p.boards.change(two)->seriesKA = 0;
    w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->letThroughKA = 10;
    const Found limited(w.p);
    CHECK_FALSE(limited.of("fault-level"));
    CHECK(limited.r.of(two).fault.threePhase == Approx(10).epsilon(1e-6));
    CHECK(limited.r.of(two).fault.limited);
}

TEST_CASE("a series pair or a let-through without its devices is a check, until they are named") {
    OneBoard w(VoltageSystem::Y480);
    Board sub;
    sub.name = "LP-2", sub.bus = 100, sub.main = 100, sub.ratingKA = 14, sub.system = VoltageSystem::Y480;
    const BoardId two = addBoard(w.p, sub);
    feedFrom(w.p, two, w.board);
    runOfNode(w.p, two).lengthBy = LengthBy::Entered;
    CHECK_FALSE(Found(w.p).of("unsupported-fault"));
    w.p.boards.change(two)->seriesKA = 22;
    REQUIRE(Found(w.p).of("unsupported-fault"));
    CHECK(Found(w.p).of("unsupported-fault")->severity == Severity::Check);
    w.p.boards.change(two)->seriesDevices = "200 A main 65 kA with 20 A branch 14 kA, table 7";
    CHECK_FALSE(Found(w.p).of("unsupported-fault"));
    const CircuitId via = w.p.boards[two].feed.as<Circuit>();
    w.p.circuits.change(via)->letThroughKA = 10;
    REQUIRE(Found(w.p).of("unsupported-fault"));
    w.p.circuits.change(via)->letThroughData = "fuse of 200 A, curve 12";
    const Found named(w.p);
    CHECK_FALSE(named.of("unsupported-fault"));
    const auto list = assumptionsOf({w.p, nec(), named.r});
    CHECK(std::any_of(list.begin(), list.end(), [](const Assumption& a) {
        return a.what == "Current let through" && a.why == "fuse of 200 A, curve 12";
    }));
}

TEST_CASE("assumptions carry who set them and who saw them; a change after that is told") {
    OneBoard w;
    const CircuitId c = w.circuit(1000);
    w.p.circuits.change(c)->heldBreaker = 30;
    const auto listed = [&] { return assumptionsOf({w.p, nec(), Found(w.p).r}); };
    const auto device = [&] {
        for (const Assumption& a : listed())
            if (a.what == "Device") return a;
        FAIL("it is not listed");
        return Assumption{};
    };
    CHECK_FALSE(device().seen());
    setAssumptionsBy(w.p, {device()}, "AB");
    seeAssumptions(w.p, {device()}, "CD", "2026-11-29");
    CHECK(device().setBy == "AB");
    CHECK(device().seen());
    CHECK(seenWords(device()) == "seen by CD, 2026-11-29");
    // Another thing that comes before it in the list changes its mark, not who saw it.
    w.p.circuits.change(w.circuit(500))->heldBreaker = 25;
    CHECK(device().seen());
    w.p.circuits.change(c)->heldBreaker = 35;
    CHECK_FALSE(device().seen());
    CHECK(seenWords(device()) == "changed since CD saw 30 A, 2026-11-29");
    CHECK(readProject(writeProject(w.p), "again")->basis.seen == w.p.basis.seen);
    seeAssumptions(w.p, {device()}, "", "");
    CHECK(seenWords(device()).empty());
}

TEST_CASE("a change of basis as the difference of two results") {
    OneBoard w;
    w.p.basis.smallestBranch = "12";
    const CircuitId near = w.circuit(16, LoadUnit::A, 1, 40),
                    far = w.circuit(16, LoadUnit::A, 1, 70); // 2.13 % and 3.73 % on 12 AWG, 2.24 % on 10
    Project q = w.p;
    q.basis.branchDropLimit = 2;
    const Found a(w.p), b(q);
    CHECK(nec().sizes()[std::size_t(a.r.of(near).run.size)].name == "12");
    CHECK(nec().sizes()[std::size_t(a.r.of(far).run.size)].name == "10");
    const Comparison c = compare({a.p, a.book, a.r}, {b.p, b.book, b.r});
    CHECK(c.sizes == 2);
    CHECK(c.devices == 0);
    CHECK(c.list(9) == std::vector<std::string>{"LP-1-1: 20 A, #12 → 20 A, #10", "LP-1-2: 20 A, #10 → 20 A, #8"});
    CHECK(c.kg > 0);
    CHECK(compare({a.p, a.book, a.r}, {a.p, a.book, a.r}).nothing());
}

TEST_CASE("the corrected twin of the demo shows nothing that stops an issue") {
    const Found f(*loadProject(dataFolder() / "demos" / "saltmarket-hall-corrected.lintel"));
    CHECK(f.p.boards.size() == 16);
    for (const Snag& s : f.all) {
        INFO(s.text);
        CHECK(s.severity != Severity::Stop);
    }
}

TEST_CASE("no remedy makes a project that could not be opened again") {
    // Found by fuzzing: a load of a few VA with no length, and "enter the longest that the drop allows, 882 759 ft".
    const auto all = [](const Project& p, const RuleBook& book) {
        const Results r = solve(p, book);
        const CheckInput in{p, book, r};
        int tried = 0;
        for (const Snag& s : findSnags(p, book, r))
            for (const Remedy& m : remediesFor(in, s)) {
                Document d(p);
                INFO(s.text << ": " << m.label);
                d.edit(m.label, m.apply);
                if (d.refusal()) FAIL_CHECK(d.refusal()->text());
                d.undoAll();
                CHECK(d.project() == p);
                ++tried;
            }
        return tried;
    };
    OneBoard w;
    w.circuit(0.1, LoadUnit::VA, 1);
    CHECK(all(w.p, nec()) > 0);
    int tried = 0;
    for (std::uint32_t seed = 1; seed <= 6; ++seed) tried += all(randomBuilding(seed, 5), nec());
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        const Project p = *loadProject(dataFolder() / "demos" / (std::string(demo) + ".lintel"));
        tried += all(p, bookOf(p.basis.ruleBook));
    }
    CHECK(tried > 50);
}

namespace {
/// A random building with mistakes planted in it: held sizes and breakers that are too small, pins, pairs, ties, wrong
/// systems, no mains.
Project withMistakes(std::uint32_t seed) {
    Random r(seed + 500);
    Project p = randomBuilding(seed, 6);
    std::vector<CircuitId> circuits;
    for (const Circuit& c : p.circuits)
        if (c.use == CircuitUse::Load) circuits.push_back(c.id);
    for (CircuitId c : circuits) {
        switch (r(9)) {
        case 0:
            runOf(p, c).heldSize = "14";
            break;
        case 1:
            p.circuits.change(c)->heldBreaker = 15 + 5 * r(3);
            break;
        case 2:
            p.circuits.change(c)->pinned = true;
            break;
        case 3:
            runOf(p, c).lengthBy = LengthBy::Entered, runOf(p, c).length = 40 + r(200);
            break;
        case 4:
            p.circuits.change(c)->heldKA = 5;
            break;
        case 5:
            p.circuits.change(c)->multiwire = 1 + r(2);
            break;
        case 6:
            p.circuits.change(c)->tie = 1 + r(2);
            break;
        default:
            break;
        }
    }
    std::vector<BoardId> boards;
    for (const Board& b : p.boards) boards.push_back(b.id);
    for (BoardId b : boards) {
        if (r(3) == 0) p.boards.change(b)->main = 0;
        if (r(4) == 0) p.boards.change(b)->bus = 60;
        if (r(5) == 0) p.boards.change(b)->ratingKA = 5;
        if (r(6) == 0) p.boards.change(b)->slots = 12;
    }
    return p;
}
} // namespace

TEST_CASE("no remedy leaves more stops than there were") {
    int tried = 0;
    for (std::uint32_t seed = 1; seed <= 40; ++seed) {
        const Project p = withMistakes(seed);
        const Results r = solve(p, nec());
        const CheckInput in{p, nec(), r};
        const auto stops = [](const std::vector<Snag>& all) {
            return std::count_if(all.begin(), all.end(), [](const Snag& s) { return s.severity == Severity::Stop; });
        };
        const auto snags = findSnags(p, nec(), r);
        const auto before = stops(snags);
        for (const Snag& s : snags)
            for (const Remedy& m : remediesFor(in, s)) {
                Project q = p;
                m.apply(q);
                const auto after = findSnags(q, nec(), solve(q, nec()));
                INFO("seed " << seed << ": " << s.text << " → " << m.label);
                std::string added;
                for (const Snag& x : after)
                    if (x.severity == Severity::Stop &&
                        std::none_of(snags.begin(), snags.end(), [&](const Snag& o) { return o.text == x.text; }))
                        added += x.text + "; ";
                INFO(added);
                CHECK(stops(after) <= before);
                // Pins hold, and what belongs together stays on one board.
                for (const Circuit& c : p.circuits)
                    if (const Circuit* now = q.circuits.find(c.id); now && c.pinned)
                        CHECK((now->slot == c.slot && now->board == c.board));
                for (const Circuit& c : p.circuits)
                    for (CircuitId mate : unitOf(p, c.id))
                        if (q.circuits.has(c.id) && q.circuits.has(mate) && q.circuits[c.id].multiwire &&
                            q.circuits[mate].multiwire && c.multiwire == p.circuits[mate].multiwire)
                            CHECK(q.circuits[c.id].board == q.circuits[mate].board);
                ++tried;
            }
    }
    CHECK(tried > 300);
}

TEST_CASE("a move to another board: groups take numbers that are free there, and pins hold") {
    OneBoard w;
    const CircuitId a = w.circuit(500), b = w.circuit(500), tied = w.circuit(500);
    for (CircuitId c : {a, b}) w.p.circuits.change(c)->multiwire = 1;
    Board other = w.p.boards[w.board];
    other.id = {}, other.name = "LP-2", other.run = {};
    const BoardId two = addBoard(w.p, other);
    const CircuitId x = addCircuit(w.p, two, 1, "x"), y = addCircuit(w.p, two, 1, "y");
    for (CircuitId c : {x, y}) w.p.circuits.change(c)->multiwire = 1, w.p.circuits.change(c)->tie = 1;
    w.p.circuits.change(tied)->kept = 4;
    const MovePlan plan = planMoveTo(w.p, {a}, two);
    REQUIRE(plan.possible);
    CHECK(plan.places.size() == 2); // with the one that shares its neutral
    applyMove(w.p, plan);
    CHECK(w.p.circuits[a].board == two);
    CHECK(w.p.circuits[b].board == two);
    CHECK(w.p.circuits[a].multiwire == w.p.circuits[b].multiwire);
    CHECK(w.p.circuits[a].multiwire != w.p.circuits[x].multiwire);
    CHECK(w.p.circuits[x].multiwire == 1);
    applyMove(w.p, planMoveTo(w.p, {tied}, two));
    CHECK(w.p.circuits[tied].board == two);
    CHECK(w.p.circuits[tied].kept == 0); // alone it is no group
    w.p.circuits.change(a)->pinned = true;
    CHECK(planMoveTo(w.p, {b}, w.board).reason == "LP-2-" + std::to_string(w.p.circuits[a].slot) + " is pinned");
}

TEST_CASE("what hides something worse is listed, with what it would be") {
    OneBoard w;
    const CircuitId c = w.circuit(40, LoadUnit::A, 2, 20);
    runOf(w.p, c).heldSize = "10";
    w.p.circuits.change(c)->heldBreaker = 30;
    w.p.circuits.change(c)->note = "client's wish";
    w.p.boards.change(w.board)->givenKA = 5; // 20 kA at the source, over a short run
    w.p.circuits.change(c)->factor = 0.5;
    w.p.basis.ownValues["continuous/factor"] = 1;
    const Found f(w.p);
    const auto list = assumptionsOf({f.p, f.book, f.r});
    const auto of = [&](const std::string& what) -> const Assumption& {
        for (const Assumption& a : list)
            if (a.what.find(what) != std::string::npos) return a;
        FAIL("not listed: " << what);
        return list.front();
    };
    CHECK(of("Conductors").kind == AssumptionKind::Assumed); // in the largest fault: 20 °C
    const Assumption& device = of("Device");
    CHECK(device.kind == AssumptionKind::Held);
    CHECK(device.entered == "30 A");
    CHECK(device.otherwise == "40 A");
    CHECK(device.why == "client's wish");
    CHECK(device.hides);
    CHECK(of("Demand factor of a circuit").hides);
    const Assumption& given = of("Fault level");
    CHECK(given.entered == "5.00 kA");
    CHECK(given.hides);
    CHECK(of("continuous/factor").kind == AssumptionKind::Own);
    CHECK(of("continuous/factor").hides); // no reason is recorded
    CHECK(std::any_of(list.begin(), list.end(), [](const Assumption& a) {
        return a.what == "Conductors" && a.kind == AssumptionKind::Held && a.entered == "#10" && a.otherwise == "#8" &&
               a.hides;
    }));
    // A given level lower than what is worked out is a check, too.
    REQUIRE(f.of("given-fault"));
    CHECK(f.of("given-fault")->text.find("LP-1: 5.00 kA is given where ") == 0);
    // On sheets: every line of it, and nothing is cut off.
    const auto sheets = assumptionSheets({f.p, f.book, f.r});
    REQUIRE(sheets.size() == 1);
    const std::string words = sheets[0].words();
    for (const Assumption& a : list) {
        CHECK(words.find(a.mark) != std::string::npos);
        CHECK(words.find(a.what) != std::string::npos);
    }
    // What somebody has seen bears a tick, whose strokes lie in the box of its line.
    Project looked = f.p;
    seeAssumptions(looked, {list.front()}, "AB", "2026-11-30");
    const auto strokes = [](const Drawing& d) {
        std::vector<LineMark> found;
        for (const auto& mark : d.marks)
            if (const auto* line = std::get_if<LineMark>(&mark); line && line->width == 0.4) found.push_back(*line);
        return found;
    };
    CHECK(strokes(sheets[0]).empty());
    const auto ticked = assumptionSheets({looked, f.book, f.r});
    REQUIRE(strokes(ticked[0]).size() == 2);
    double top = 1e9, foot = 0, left = 1e9, right = 0;
    for (const LineMark& stroke : strokes(ticked[0]))
        for (Point at : stroke.points) {
            top = std::min(top, at.y), foot = std::max(foot, at.y);
            left = std::min(left, at.x), right = std::max(right, at.x);
        }
    CHECK(foot - top < 4);
    CHECK(right - left < 4);
    CHECK(strokes(ticked[0])[0].points.back() == strokes(ticked[0])[1].points.front());
}

TEST_CASE("a fault level worked out beside a given one is the one that the solution has without it") {
    for (VoltageSystem system :
         {VoltageSystem::Y400, VoltageSystem::S230}) { // one phase of three sees no three-phase fault
        MetricBoard w;
        Board sub = w.p.boards[w.board];
        sub.id = {}, sub.name = "DB-2", sub.run = {}, sub.system = system;
        const BoardId two = addBoard(w.p, sub);
        feedFrom(w.p, two, w.board);
        runOfNode(w.p, two).lengthBy = LengthBy::Entered, runOfNode(w.p, two).length = 20;
        const double solved = Found(w.p).r.of(two).fault.worst();
        REQUIRE(solved > 0);
        w.p.boards.change(two)->givenKA = 1;
        const Found f(w.p);
        CHECK(*workedOutKA({f.p, f.book, f.r}, f.p.boards[two]) == Approx(solved));
    }
}

TEST_CASE("every sheet of a project with stops says that nobody may build from it; without any it says nothing") {
    for (const char* demo : {"saltmarket-hall.lintel", "saltmarket-hall-corrected.lintel"}) {
        INFO(demo);
        const Project p = *loadProject(dataFolder() / "demos" / demo);
        const Results r = solve(p, nec());
        int stops = 0;
        for (const Snag& s : findSnags(p, nec(), r)) stops += s.severity == Severity::Stop;
        const SheetInput in{p, nec(), r};
        for (const SheetEntry& e : issueSet(in)) {
            INFO(e.number);
            const std::string words = e.draw().words();
            if (stops > 0)
                CHECK(words.find("Not for construction: " + std::to_string(stops) + " stops are open.") !=
                      std::string::npos);
            else
                CHECK(words.find("Not for construction") == std::string::npos);
        }
        CHECK((stops > 0) == (demo == std::string("saltmarket-hall.lintel")));
    }
    OneBoard w; // a load on a run whose length nobody knows
    w.circuit(600);
    w.circuit(600, LoadUnit::VA, 1, 50);
    const Results r = w.solved();
    const int feeder =
        !r.of(w.board).run.need.lengthKnown; // a helper of these tests says or does not say how long its feeder is
    CHECK(unknownLengths({w.p, nec(), r}) == 1 + feeder);
    Project without = w.p; // nobody knows how long its feeder is either
    without.runs.change(without.boards[w.board].run)->lengthBy = LengthBy::Reach;
    without.runs.change(without.boards[w.board].run)->length = {};
    const Results more = solve(without, nec());
    CHECK(unknownLengths({without, nec(), more}) == 2);
    const SheetInput in{w.p, nec(), r};
    CHECK(issueSet(in).front().draw().words().find(feeder ? "2 lengths are not known" : "1 length is not known") !=
          std::string::npos);
}
