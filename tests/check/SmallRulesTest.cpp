// What a snag and its remedies say at the edge: each figure is worked out by hand in the comment beside it.

#include "core/base/Format.h"
#include "core/check/Assumptions.h"
#include "core/check/CircuitFilter.h"
#include "core/check/Compare.h"
#include "core/project/AddBelow.h"
#include "core/sheets/Sheets.h"
#include "tests/BoardBelow.h"
#include "tests/Found.h"

using namespace lintel;

namespace {

std::vector<std::string> labelsOf(const std::vector<Remedy>& remedies) {
    std::vector<std::string> out;
    for (const Remedy& m : remedies) out.push_back(m.label);
    return out;
}

bool offers(const std::vector<std::string>& labels, const std::string& part) {
    return std::any_of(labels.begin(), labels.end(),
                       [&](const std::string& l) { return l.find(part) != std::string::npos; });
}

CircuitId loaded(Project& p, BoardId board, int poles, double amount, LoadUnit unit,
                 LoadKind kind = LoadKind::Equipment, double metres = 1) {
    const CircuitId c = addCircuit(p, board, poles, "load");
    Load l;
    l.circuit = c, l.amount = amount, l.unit = unit, l.poles = poles, l.kind = kind;
    p.loads.add(l);
    Run& run = runOf(p, c);
    run.lengthBy = LengthBy::Entered;
    run.length = metres;
    return c;
}

/// A bedroom of a dwelling with this outline and a receptacle at each of these points.
Project bedroom(OneBoard& w, const std::vector<Point>& outline, const std::vector<Point>& receptacles) {
    Project& p = w.p;
    p.basis.occupancy = Occupancy::Dwelling;
    const LevelId level = p.levels.begin()->id;
    p.rooms.add({{}, level, "1", "Room", "bedroom", outline, {}, 0, 0, {}, {}});
    DeviceType t;
    t.name = "Receptacle";
    const DeviceTypeId type = p.deviceTypes.add(t);
    for (Point at : receptacles) {
        Device d;
        d.type = type, d.level = level, d.at = at;
        p.devices.add(d);
    }
    return p;
}

/// T-1, 480 V to 208 V, fed from the board of this world.
TransformerId transformerOn(OneBoard& w, double kva) {
    Transformer t;
    t.name = "T-1", t.kva = kva, t.primary = VoltageSystem::Y480, t.secondary = VoltageSystem::Y208;
    const TransformerId id = w.p.transformers.add(t);
    feedFrom(w.p, id, w.board);
    runOfNode(w.p, id).lengthBy = LengthBy::Entered;
    return id;
}

} // namespace

TEST_CASE("drop: it is judged on its load only where that keeps within its own limit and within the total") {
    // 16 A of the breaker's rating of 20 A count on the basis, 4 A is the load: a quarter of the drop.
    OneBoard w;
    w.p.basis.branchDropBasis = DropBasis::Share;
    w.p.basis.upsizingCeiling = 0;
    const CircuitId c = w.circuit(4, LoadUnit::A, 1, 200);
    const Found own(w.p);
    REQUIRE(own.of("drop"));
    const double lost = own.r.of(c).run.dropOwn / 4;
    REQUIRE(lost < 3);
    CHECK(offers(own.remedies("drop"), "Judge it on its load"));
    // Where the way to its board already loses nearly all that is allowed, that is no remedy.
    Project q = w.p;
    q.basis.totalDropLimit = lost; // and a feeder that loses something
    Run& feeder = *q.runs.change(q.boards[w.board].run);
    feeder.length = 100;
    loaded(q, w.board, 3, 100, LoadUnit::A);
    const Found all(q);
    REQUIRE(all.of("drop", "load"));
    REQUIRE(all.r.of(c).run.need.totalBefore > 0.1);
    for (const Snag& s : all.all)
        if (std::string(s.rule->id) == "drop" && s.about == Ref(c))
            for (const Remedy& m : remediesFor({all.p, all.book, all.r}, s))
                CHECK(m.label.find("Judge it on its load") == std::string::npos);
}

TEST_CASE("a filter finds the first of what is tied") {
    OneBoard w;
    const CircuitId a = w.circuit(100), b = w.circuit(100);
    w.circuit(100);
    w.p.circuits.change(a)->tie = w.p.circuits.change(b)->tie = 1;
    const Results r = w.solved();
    const auto filter = CircuitFilter::from("tied");
    REQUIRE(filter);
    int found = 0;
    for (const Circuit& c : w.p.circuits) found += filter->matches({w.p, nec(), r}, c);
    CHECK(found == 2);
}

TEST_CASE("busway: bars of 750 A may stand behind 800 A, the next rating above, and not behind 1 000 A") {
    OneBoard w(VoltageSystem::Y480);
    Board& b = *w.p.boards.change(w.board);
    b.use = BoardUse::Busway, b.form = BoardForm::Ways, b.bus = 750, b.main = 800;
    CHECK_FALSE(Found(w.p).of("busway-device"));
    w.p.boards.change(w.board)->main = 1000;
    REQUIRE(Found(w.p).of("busway-device"));
    CHECK_THAT(Found(w.p).of("busway-device")->text, Catch::Contains("rated 750 A behind " + number(1000) + " A"));
    // 900 A: the next rating is 1 000 A, and beyond 800 A none above its own is allowed.
    w.p.boards.change(w.board)->bus = 900;
    CHECK(Found(w.p).of("busway-device"));
    w.p.boards.change(w.board)->main = 900;
    CHECK_FALSE(Found(w.p).of("busway-device"));
}

TEST_CASE("an assumption hides something only where less is held than is needed") {
    OneBoard w;
    const CircuitId c = w.circuit(18, LoadUnit::A); // 20 A
    const auto hides = [&] {
        for (const Assumption& a : assumptionsOf({w.p, nec(), w.solved()}))
            if (a.about == Ref(c) && a.kind == AssumptionKind::Held) return a.hides;
        FAIL("it is not listed");
        return false;
    };
    w.p.circuits.change(c)->heldBreaker = 20;
    CHECK_FALSE(hides());
    w.p.circuits.change(c)->heldBreaker = 25;
    CHECK_FALSE(hides());
    w.p.circuits.change(c)->heldBreaker = 15;
    CHECK(hides());
}

TEST_CASE("radials of a household: a three-phase circuit and a ring are not judged as one") {
    MetricBoard w;
    w.p.basis.occupancy = Occupancy::Dwelling;
    const LevelId level = w.p.levels.begin()->id;
    w.p.rooms.add({{}, level, "1", "Room", "living room", {{0, 0}, {12, 0}, {12, 10}, {0, 10}}, {}, 0, 0, {}, {}});
    DeviceType t;
    t.name = "Socket", t.load = 100, t.kind = LoadKind::Receptacle;
    const DeviceTypeId type = w.p.deviceTypes.add(t);
    const auto told = [&](int poles, bool ring) {
        MetricBoard v = w;
        const CircuitId c = addCircuit(v.p, v.board, poles, "Sockets");
        v.p.circuits.change(c)->ring = ring;
        v.p.circuits.change(c)->residual = 30;
        Device d;
        d.type = type, d.level = level, d.at = {1, 1}, d.circuit = c;
        v.p.devices.add(d);
        return Found(v.p).of("ring", "is usual for a radial") != nullptr;
    };
    CHECK(told(1, false)); // 120 m² behind 20 A at most: 50 m² is usual
    CHECK_FALSE(told(3, false));
    CHECK_FALSE(told(1, true));
}

TEST_CASE("transformers: what protects the secondary, of nine amperes and more and of less (Table 450.3(B))") {
    const auto stops = [](double kva, double secondaryMain, double primaryDevice) {
        OneBoard w(VoltageSystem::Y480);
        const TransformerId id = transformerOn(w, kva);
        boardBelow(w.p, id, "LP-2", VoltageSystem::Y208, secondaryMain);
        w.p.circuits.change(w.p.transformers[id].feed.as<Circuit>())->heldBreaker = primaryDevice;
        return Found(w.p).of("transformer-device") != nullptr;
    };
    // 45 kVA: 54.1 A and 124.9 A. Primary alone 125 %: 67.7, so 70 A; with a secondary of at most 125 % (156, next 175
    // A) up to 250 %: 135 A.
    CHECK_FALSE(stops(45, 175, 125));
    CHECK(stops(45, 200, 125));
    CHECK(stops(45, 175, 150));
    // 3 kVA: 3.6 A and 8.33 A, below nine: 167 % is 13.9 A and nothing above it.
    CHECK(stops(3, 15, 8));
}

TEST_CASE("a circuit that carries nothing is not asked for a residual-current device") {
    MetricBoard w;
    const CircuitId c = addCircuit(w.p, w.board, 1, "Sockets to come");
    Load l;
    l.circuit = c, l.amount = 0, l.kind = LoadKind::Receptacle;
    const LoadId id = w.p.loads.add(l);
    CHECK_FALSE(Found(w.p).of("residual"));
    w.p.loads.change(id)->amount = 500;
    CHECK(Found(w.p).of("residual"));
}

TEST_CASE("a residual-current device of more than 30 mA is none for socket outlets, whatever the earthing") {
    // 411.3.3 asks for additional protection by a device of 30 mA at most; 100 mA in front of them is against fire.
    for (const Earthing earthing : {Earthing::TNS, Earthing::TNCS, Earthing::TT}) {
        INFO(wordOf(earthing));
        MetricBoard w(0.3);
        w.p.sources.change(w.source)->earthing = earthing;
        const CircuitId sockets = w.run(2, 10, 1, LoadKind::Receptacle), fixed = w.run(2, 10);
        w.p.circuits.change(fixed)->residual = 300;
        const auto snags = [&](double mA) {
            w.p.circuits.change(sockets)->residual = mA;
            const Found f(w.p);
            return std::count_if(f.all.begin(), f.all.end(),
                                 [](const Snag& s) { return s.rule->id == std::string("residual"); });
        };
        CHECK(snags(10) == 0);
        CHECK(snags(30) == 0);
        CHECK(snags(100) == 1);
        CHECK(Found(w.p).of("residual", "of 100 mA where 30 mA is the most: socket outlets on 10 A"));
        CHECK(Found(w.p).after("residual") == 0);
        Section s;
        s.board = w.board, s.name = "Sockets", s.from = 1, s.to = 3, s.residual = 30;
        const SectionId section = w.p.sections.add(s);
        CHECK(snags(100) == 0); // what opens first counts
        w.p.sections.remove(section);
        w.p.circuits.change(fixed)->residual = 0;
        CHECK(snags(30) == (earthing == Earthing::TT ? 1 : 0)); // everything behind an electrode is watched
    }
}

TEST_CASE("wall without a receptacle: places along walls that lie askew, short walls, and a corner drawn twice") {
    // A room of 3 m × 4 m turned by 36.87°: walls along (4, 3)/5 and (−3, 4)/5. Receptacles in the middle of the four
    // walls: from the middle of a wall of 4 m to that of one of 3 m are 2 + 1.5 = 3.5 m, 11.5 ft. Within 12 ft.
    const auto at = [](double u, double v) { return Point{0.8 * u - 0.6 * v, 0.6 * u + 0.8 * v}; };
    const std::vector<Point> outline{at(0, 0), at(4, 0), at(4, 3), at(0, 3)};
    {
        OneBoard w;
        CHECK_FALSE(Found(bedroom(w, outline, {at(2, 0), at(4, 1.5), at(2, 3), at(0, 1.5)})).of("outlet-spacing"));
    }
    {
        // Nine feet square, 36 ft around: from the one 12 ft along to that in the corner 24 ft are left, twice the
        // most.
        OneBoard w;
        const double foot = 0.3048;
        const Found t(
            bedroom(w, {{0, 0}, {9 * foot, 0}, {9 * foot, 9 * foot}, {0, 9 * foot}}, {{0, 0}, {9 * foot, 3 * foot}}));
        REQUIRE(t.of("outlet-spacing"));
        CHECK(t.remedies("outlet-spacing").front() == "Place a receptacle in the middle of it");
    }
    {
        // Without the one on the second wall: 2 + 3 + 2 = 7 m, 23.0 ft.
        OneBoard w;
        const Found t(bedroom(w, outline, {at(2, 0), at(2, 3), at(0, 1.5)}));
        REQUIRE(t.of("outlet-spacing"));
        CHECK_THAT(t.of("outlet-spacing")->text, Catch::Contains("23.0 ft of wall"));
        CHECK(t.remedies("outlet-spacing").front() == "Place a receptacle in the middle of it");
        Project q = t.p;
        remediesFor({t.p, t.book, t.r}, *t.of("outlet-spacing")).front().apply(q);
        for (const Device& d : q.devices)
            if (d.id.value == 4) {
                CHECK(d.at.x == Approx(at(4, 1.5).x));
                CHECK(d.at.y == Approx(at(4, 1.5).y));
            }
    }
    {
        // The same with a corner drawn twice.
        OneBoard w;
        const std::vector<Point> twice{at(0, 0), at(4, 0), at(4, 0), at(4, 3), at(0, 3)};
        CHECK_FALSE(Found(bedroom(w, twice, {at(2, 0), at(4, 1.5), at(2, 3), at(0, 1.5)})).of("outlet-spacing"));
    }
    {
        // A wall of 0.8 m in the middle of the stretch takes the receptacle: 10 m × 0.8 m, receptacles at the long
        // walls 3 m from the short one: 3 + 0.8 + 3 = 6.8 m.
        OneBoard w;
        const std::vector<Point> narrow{{0, 0}, {6, 0}, {6, 0.8}, {0, 0.8}};
        const Found t(bedroom(w, narrow, {{3, 0}, {3, 0.8}, {0, 0.4}}));
        REQUIRE(t.of("outlet-spacing"));
        CHECK_THAT(t.of("outlet-spacing")->text, Catch::Contains("22.3 ft of wall"));
        Project q = t.p;
        remediesFor({t.p, t.book, t.r}, *t.of("outlet-spacing")).front().apply(q);
        Point last;
        for (const Device& d : q.devices) last = d.at;
        CHECK(last.x == Approx(6));
        CHECK(last.y == Approx(0.4));
    }
}

TEST_CASE("a feeder of motors and of other loads: what both allow (430.62, 430.63)") {
    // A motor of 50 hp, 65 A: 175 A at most; 30 A at 277 V on one pole are 10 A of each line: 175 + 10.
    OneBoard w(VoltageSystem::Y480);
    w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 400;
    const BoardId two = boardBelow(w.p, w.board, "MC-1", VoltageSystem::Y480);
    loaded(w.p, two, 3, 50, LoadUnit::hp, LoadKind::Motor);
    loaded(w.p, two, 1, 30, LoadUnit::A);
    w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = 200;
    runOfNode(w.p, two).heldSize = "3", runOfNode(w.p, two).heldSets = 1;
    const Found t(w.p);
    REQUIRE(t.of("motor-feeder"));
    CHECK_THAT(t.of("motor-feeder")->text, Catch::Contains("feeds motors that allow 185 A"));
}

TEST_CASE("sheets that nobody may build from say what is open, and only that") {
    const auto words = [](const Project& p) {
        const Results r = solve(p, nec());
        std::string all;
        const SheetInput in{p, nec(), r};
        for (const SheetEntry& e : issueSet(in))
            for (const Mark& m : e.draw().marks)
                if (const auto* t = std::get_if<TextMark>(&m);
                    t && t->text.find("Not for construction") != std::string::npos)
                    return t->text;
        return all;
    };
    OneBoard w;
    w.circuit(1000, LoadUnit::VA, 1, 20);
    CHECK(words(w.p).empty());
    Project stop = w.p;
    stop.boards.change(w.board)->ratingKA = 10; // 20 kA are available
    CHECK_THAT(words(stop), Catch::Contains("1 stop is open") && !Catch::Contains("length"));
    Project length = w.p;
    length.runs.change(length.boards[w.board].run)->lengthBy = LengthBy::Reach;
    CHECK_THAT(words(length), Catch::Contains("1 length is not known") && !Catch::Contains("stop"));
}

TEST_CASE("lighting by area is entered where a single place is left") {
    OneBoard w(VoltageSystem::Y208, 12);
    for (int i = 0; i < 11; ++i) w.circuit(100, LoadUnit::VA, 1, 10);
    w.p.basis.lightingAreaOf = "office";
    const LevelId level = w.p.levels.begin()->id;
    w.p.boards.change(w.board)->level = level;
    w.p.rooms.add({{}, level, "1", "Office", "office", {{0, 0}, {10, 0}, {10, 10}, {0, 10}}, {}, 0, 0, {}, {}});
    const Found t(w.p);
    REQUIRE(t.of("lighting-floor"));
    CHECK(offers(t.remedies("lighting-floor"), "as an allowance on LP-1"));
}

TEST_CASE("a UPS of 1 kVA has its kVA, and one that charges nothing says nothing of it") {
    OneBoard w(VoltageSystem::Y480);
    w.circuit(0.5, LoadUnit::kVA, 3);
    const BoardId ups = insertInFeed(w.p, w.board, BoardUse::Ups);
    w.p.boards.change(ups)->kva = 1;
    w.p.boards.change(ups)->efficiency = 0.9;
    const Found t(w.p);
    CHECK_FALSE(t.of("ups", "not entered"));
    CHECK_THAT(explain(t.p, t.book, t.r, ups).text(), !Catch::Contains("charged") && Catch::Contains("Takes beside"));
    w.p.boards.change(ups)->kva = 0;
    CHECK(Found(w.p).of("ups", "not entered"));
}

TEST_CASE("assumptions tell taps where they are set, bars of a busway whose maker says them, and held sizes that hide "
          "nothing") {
    OneBoard w(VoltageSystem::Y480);
    Transformer t;
    t.name = "T-1", t.primary = VoltageSystem::Y480, t.secondary = VoltageSystem::Y208, t.kva = 45;
    const TransformerId tap = w.p.transformers.add(t), plain = w.p.transformers.add(t);
    feedFrom(w.p, tap, w.board), feedFrom(w.p, plain, w.board);
    w.p.transformers.change(tap)->boost = 2.5;
    for (TransformerId id : {tap, plain}) w.p.transformers.change(id)->restartsDrop = false;
    const BoardId bars = insertInFeed(w.p, w.board, BoardUse::Busway);
    const CircuitId held = w.circuit(16, LoadUnit::A, 1, 20);
    const auto told = [&](const std::string& what, Ref about) -> std::optional<Assumption> {
        const Found f(w.p);
        for (const Assumption& a : assumptionsOf({f.p, f.book, f.r}))
            if (a.what == what && a.about == about) return a;
        return {};
    };
    CHECK(told("Taps raise the voltage by", tap));
    CHECK_FALSE(told("Taps raise the voltage by", plain));
    CHECK_FALSE(told("Bars of the busway", bars)); // nothing is known of them
    w.p.boards.change(w.board)->barR = 0.1;        // left from when it was one
    CHECK_FALSE(told("Bars of the busway", w.board));
    w.p.boards.change(bars)->barR = 0.1;
    CHECK(told("Bars of the busway", bars));
    // #12 is what 16 A take: held, it hides nothing. #14 does.
    runOf(w.p, held).heldSize = "12";
    REQUIRE(told("Conductors", held));
    CHECK_FALSE(told("Conductors", held)->hides);
    runOf(w.p, held).heldSize = "14";
    CHECK(told("Conductors", held)->hides);
}

TEST_CASE("a handle that is tied to none is untied; there is nothing to bring together") {
    OneBoard w;
    w.p.circuits.change(w.circuit(1200))->tie = 3;
    const Found f(w.p);
    const Snag* alone = nullptr;
    for (const Snag& s : f.all)
        if (s.text.find("its handle is tied to none") != std::string::npos) alone = &s;
    REQUIRE(alone);
    CHECK(labelsOf(remediesFor({f.p, f.book, f.r}, *alone)) == std::vector<std::string>{"Untie them"});
}

TEST_CASE("a remedy for one snag alone is called as it is, for more by their number") {
    OneBoard w;
    w.p.circuits.change(w.circuit(1200))->tie = 3;
    const auto label = [&] {
        const Found f(w.p);
        const Snag* one = nullptr;
        for (const Snag& s : f.all)
            if (s.text.find("its handle is tied to none") != std::string::npos) one = &s;
        return groupFix({f.p, f.book, f.r}, f.all, *one, remediesFor({f.p, f.book, f.r}, *one).front()).remedy.label;
    };
    CHECK(label() == "Untie them");
    w.p.circuits.change(w.circuit(1200))->tie = 4;
    CHECK(label() == "Untie them, all 2");
}

TEST_CASE("a UPS that carries its load and not a start is offered no fewer kVA") {
    // 12 kVA of a motor on 20 kVA: started direct it asks for six times as much.
    OneBoard w(VoltageSystem::Y480);
    w.circuit(12, LoadUnit::kVA, 3, 20, LoadKind::Motor);
    const BoardId ups = insertInFeed(w.p, w.board, BoardUse::Ups);
    w.p.boards.change(ups)->kva = 20;
    const Found t(w.p);
    REQUIRE(t.of("ups", "while the largest motor behind it starts"));
    CHECK(t.remedies("ups").empty());
}

TEST_CASE("a transformer's working: its primary device from the share of the table") {
    OneBoard w(VoltageSystem::Y480);
    Transformer t;
    t.name = "T-1", t.kva = 45, t.primary = VoltageSystem::Y480, t.secondary = VoltageSystem::Y208;
    const TransformerId id = w.p.transformers.add(t);
    feedFrom(w.p, id, w.board);
    // 45 kVA / (√3 · 480 V) = 54.1 A; 125 % of it 67.7 A.
    CHECK_THAT(explain(w.p, nec(), w.solved(), id).text(), Catch::Contains("54.1 A × 125 % = 67.7 A"));
}

TEST_CASE("receptacles of 150 V to ground and up to 50 A, on three poles up to 100 A (210.8(B))") {
    const auto asked = [](VoltageSystem system, int poles, double amps) {
        OneBoard w(system);
        Project& p = w.p;
        const LevelId level = p.levels.begin()->id;
        p.rooms.add({{}, level, "1", "Room", "Kitchen", {{0, 0}, {4, 0}, {4, 5}, {0, 5}}, {}, 0, 0, {}, {}});
        DeviceType t;
        t.name = "Receptacle", t.load = amps, t.unit = LoadUnit::A, t.poles = poles;
        Device d;
        d.type = p.deviceTypes.add(t);
        d.level = level;
        d.at = {2, 0.05};
        d.circuit = addCircuit(p, w.board, poles, "Counter");
        p.devices.add(d);
        return Found(p).of("ground-fault") != nullptr;
    };
    CHECK(asked(VoltageSystem::Y208, 1, 16));
    CHECK(asked(VoltageSystem::Y208, 1, 49)); // 50 A
    CHECK_FALSE(asked(VoltageSystem::Y208, 1, 51));
    CHECK(asked(VoltageSystem::Y208, 3, 51)); // 60 A on three poles
    CHECK(asked(VoltageSystem::Y208, 3, 99));
    CHECK_FALSE(asked(VoltageSystem::Y208, 3, 101));
    CHECK_FALSE(asked(VoltageSystem::Y480, 1, 16)); // 277 V
    CHECK_FALSE(asked(VoltageSystem::D480, 3, 16)); // no neutral
}

TEST_CASE("a note of surge protection is asked for at the origin, and only there") {
    MetricBoard w;
    const BoardId two = boardBelow(w.p, w.board, "DB-2", VoltageSystem::Y400);
    const auto about = [&] {
        std::vector<BoardId> out;
        for (const Snag& s : Found(w.p).all)
            if (std::string(s.rule->id) == "surge") out.push_back(s.about.as<Board>());
        return out;
    };
    CHECK(about() == std::vector<BoardId>{w.board});
    w.p.boards.change(w.board)->surge = "type 2";
    CHECK(about().empty());
    w.p.boards.change(two)->surge = "type 2";
    CHECK(about().empty());
}

TEST_CASE("a filter finds circuits by their size, the smallest of the book too") {
    OneBoard w;
    w.p.basis.smallestBranch = "14";
    w.p.basis.smallestBreaker = 15;
    w.circuit(10, LoadUnit::A, 1, 5); // #14 behind 15 A
    w.circuit(16, LoadUnit::A, 1, 5); // #12 behind 20 A
    const Results r = w.solved();
    const auto found = [&](const char* text) {
        const auto filter = CircuitFilter::from(text);
        REQUIRE(filter);
        int n = 0;
        for (const Circuit& c : w.p.circuits) n += filter->matches({w.p, nec(), r}, c);
        return n;
    };
    CHECK(found("size:14") == 1);
    CHECK(found("size:12") == 1);
    CHECK(found("size:10") == 0);
}

TEST_CASE("a value of one's own stands in the list with what it is in place of") {
    OneBoard w;
    w.p.basis.ownValues["continuous/factor"] = 1.1;
    const auto book = loadRuleBook("nec-2023", w.p.basis.ownValues);
    REQUIRE(book);
    const Results r = solve(w.p, *book);
    bool listed = false;
    for (const Assumption& a : assumptionsOf({w.p, *book, r}))
        if (a.kind == AssumptionKind::Own && a.what == "continuous/factor") {
            CHECK(a.entered == "1.1 instead of 1.25");
            listed = true;
        }
    CHECK(listed);
}

TEST_CASE("half a foot more than a receptacle reaches is told") {
    // 12 ft are 3.6576 m. A room of 3.8 m × 3.5 m with a receptacle in each of its corners: 12.5 ft and 11.5 ft.
    OneBoard w;
    const std::vector<Point> outline{{0, 0}, {3.8, 0}, {3.8, 3.5}, {0, 3.5}};
    const Found t(bedroom(w, outline, outline));
    REQUIRE(t.of("outlet-spacing"));
    CHECK_THAT(t.of("outlet-spacing")->text, Catch::Contains("12.5 ft of wall"));
    OneBoard v;
    const std::vector<Point> within{{0, 0}, {3.65, 0}, {3.65, 3.5}, {0, 3.5}};
    CHECK_FALSE(Found(bedroom(v, within, within)).of("outlet-spacing"));
}

TEST_CASE("drop judged on the load: the assumption says what it would be on the breaker's share") {
    // 4 A on a breaker of 20 A: 80 % of it are 16 A, four times as much.
    OneBoard w;
    w.p.basis.branchDropBasis = DropBasis::Share;
    const CircuitId c = w.circuit(4, LoadUnit::A, 1, 100);
    runOf(w.p, c).dropBasis = DropBasis::Load;
    const Results r = w.solved();
    const double own = r.of(c).run.dropOwn; // 2·4·2.0·0.1/120 = 1.33 % with #12
    CHECK(own == Approx(1.33).margin(0.01));
    bool listed = false;
    for (const Assumption& a : assumptionsOf({w.p, nec(), r}))
        if (a.what == "Drop judged on the load") {
            CHECK(a.entered == percent(own));
            CHECK(a.otherwise == percent(4 * own) + " on 80.0 % of its breaker's rating");
            CHECK(a.hides); // 5.3 % are more than 3 %
            listed = true;
        }
    CHECK(listed);
}

TEST_CASE("a filter finds what is empty, what has so many points, and leaves out by a single letter") {
    OneBoard w;
    const CircuitId kitchen = w.circuit(100), pump = w.circuit(200);
    w.p.circuits.change(kitchen)->name = "Kitchen";
    w.p.circuits.change(pump)->name = "Pump";
    addCircuit(w.p, w.board, 1, "To come"); // carries nothing yet
    const LevelId level = w.p.levels.begin()->id;
    DeviceType t;
    t.name = "Receptacle", t.load = 180;
    const DeviceTypeId type = w.p.deviceTypes.add(t);
    for (int i = 0; i < 3; ++i) {
        Device d;
        d.type = type, d.level = level, d.at = {double(i), 0}, d.circuit = kitchen;
        w.p.devices.add(d);
    }
    const Results r = w.solved();
    const auto found = [&](const char* text) {
        const auto filter = CircuitFilter::from(text);
        REQUIRE(filter);
        std::string names;
        for (const Circuit& c : w.p.circuits)
            if (filter->matches({w.p, nec(), r}, c)) names += (names.empty() ? "" : ", ") + c.name;
        return names;
    };
    CHECK(found("empty") == "To come");
    CHECK(found("-empty") == "Kitchen, Pump");
    CHECK(found("-k") == "Pump, To come");
    CHECK(found("points>2") == "Kitchen");
}

TEST_CASE("remedies of one kind are put right together, whatever sizes they name") {
    // #12 held for 30 A and for 50 A: "Hold #10" and "Hold #6" are the same kind of remedy.
    OneBoard w;
    const CircuitId a = w.circuit(30, LoadUnit::A, 2, 10), b = w.circuit(50, LoadUnit::A, 2, 10);
    for (CircuitId c : {a, b}) runOf(w.p, c).heldSize = "12";
    const Found t(w.p);
    const CheckInput in{t.p, t.book, t.r};
    REQUIRE(t.of("held-size"));
    const auto remedies = remediesFor(in, *t.of("held-size"));
    REQUIRE(remedies.size() >= 2);
    CHECK_THAT(remedies.front().label, Catch::StartsWith("Hold "));
    CHECK(groupFix(in, t.all, *t.of("held-size"), remedies.front()).count == 2);
}

TEST_CASE("a receptacle on the other side of a wall serves the room in which it stands, and no other") {
    // Two bedrooms of 3 m × 3 m share the wall x = 3. Each has receptacles in the middle of its other three walls: from
    // the middle of a wall to that of the next are 3 m; on the far side, over the shared wall, 6 m, 19.7 ft.
    const auto gaps = [](const std::vector<Point>& more) {
        OneBoard w;
        const std::vector<Point> left{{0, 0}, {3, 0}, {3, 3}, {0, 3}}, right{{3, 0}, {6, 0}, {6, 3}, {3, 3}};
        std::vector<Point> at{{1.5, 0.05}, {0.05, 1.5}, {1.5, 2.95}, {4.5, 0.05}, {5.95, 1.5}, {4.5, 2.95}};
        at.insert(at.end(), more.begin(), more.end());
        Project p = bedroom(w, left, at);
        Room second = *p.rooms.begin();
        second.id = {}, second.number = "2", second.outline = right;
        p.rooms.add(second);
        std::vector<std::string> rooms;
        for (const Snag& s : Found(p).all)
            if (std::string(s.rule->id) == "outlet-spacing") rooms.push_back(s.text.substr(5, s.text.find(':') - 5));
        return rooms;
    };
    using Rooms = std::vector<std::string>;
    CHECK(gaps({}) == Rooms{"1", "2"});
    CHECK(gaps({{2.92, 1.5}}) == Rooms{"2"});      // in the left one, 8 cm from the shared wall
    CHECK(gaps({{3.3, 1.5}}) == Rooms{"1"});       // in the right one
    CHECK(gaps({{3, 1.5}}).empty());               // drawn on the line between them
    CHECK(gaps({{2.48, 1.5}}) == Rooms{"1", "2"}); // half a metre and more from the wall it stands at none
    CHECK(gaps({{2.51, 1.5}}) == Rooms{"2"});
}

TEST_CASE("a receptacle drawn within the thickness of a wall stands at it, one outside the house does not") {
    // A bedroom of 3 m × 3 m alone: with receptacles in the middle of three walls 6 m, 19.7 ft, are left.
    const auto told = [](Point last) {
        OneBoard w;
        return Found(bedroom(w, {{0, 0}, {3, 0}, {3, 3}, {0, 3}}, {{1.5, 0}, {0, 1.5}, {1.5, 3}, last}))
                   .of("outlet-spacing") != nullptr;
    };
    CHECK_FALSE(told({3.08, 1.5}));
    CHECK(told({3.3, 1.5}));
}

TEST_CASE("a transformer's secondary is protected in each board below it, by the largest main that may be there") {
    const auto found = [](double kva, double device, std::vector<double> mains) {
        OneBoard w(VoltageSystem::Y480);
        const TransformerId id = transformerOn(w, kva);
        for (double main : mains) {
            const BoardId b = boardBelow(w.p, id, "LP-" + std::to_string(int(main)), VoltageSystem::Y208);
            w.p.boards.change(b)->main = main;
        }
        w.p.circuits.change(w.p.transformers[id].feed.as<Circuit>())->heldBreaker = device;
        return Found(w.p);
    };
    // 45 kVA: 124.9 A × 125 % = 156 A, next rating 175 A, with up to 54.1 × 250 % = 135 A before it.
    const Found two = found(45, 125, {200, 0, 175});
    REQUIRE(two.of("transformer-device"));
    CHECK(offers(two.remedies("transformer-device"), "Protect the secondary: a 175 A main in each of 2 boards"));
    const Found one = found(45, 125, {200, 150});
    CHECK(offers(one.remedies("transformer-device"), "Protect the secondary: a 175 A main in LP-200"));
    CHECK_FALSE(found(45, 125, {175, 150}).of("transformer-device"));
    // 3 kVA: 8.33 A × 167 % = 13.9 A, and no breaker is so small: nothing protects it.
    const Found small = found(3, 8, {15});
    REQUIRE(small.of("transformer-device"));
    CHECK_FALSE(offers(small.remedies("transformer-device"), "Protect the secondary"));
    for (std::size_t i = 0; i < two.remedies("transformer-device").size(); ++i)
        CHECK(two.after("transformer-device", i) == 0);
    // 5 kVA: 13.9 A, nine and more: 125 % is 17.3 A, and the next rating above is allowed.
    CHECK_FALSE(found(5, 15, {20}).of("transformer-device"));
    CHECK(found(5, 15, {25}).of("transformer-device"));
}

TEST_CASE("a circuit far from its board and near another is offered to that one, with what it would lose there") {
    // 16 A at 120 V on 12 AWG over some 90 m; LP-2 stands 5 m away, LP-3 ten.
    OneBoard w;
    w.p.basis.upsizingCeiling = 0;
    const LevelId level = w.p.levels.begin()->id;
    const auto stand = [&](BoardId id, Point at) {
        Board& b = *w.p.boards.change(id);
        b.level = level, b.at = at, b.onPlan = true;
    };
    const BoardId three = boardBelow(w.p, w.source, "LP-3", VoltageSystem::Y208),
                  two = boardBelow(w.p, w.source, "LP-2", VoltageSystem::Y208),
                  other = boardBelow(w.p, w.source, "HP-1", VoltageSystem::Y480),
                  unfed = boardBelow(w.p, w.source, "LP-4", VoltageSystem::Y208);
    w.p.boards.change(unfed)->feed = {};
    const BoardId fourth = boardBelow(w.p, w.source, "LP-5", VoltageSystem::Y208); // a third would be too many
    stand(w.board, {0, 0}), stand(two, {95, 0}), stand(three, {100, 0}), stand(other, {90, 1}), stand(unfed, {90, 2});
    stand(fourth, {100.5, 0});
    const CircuitId c = w.circuit(16, LoadUnit::A);
    DeviceType t;
    t.name = "Heater";
    Device d;
    d.type = w.p.deviceTypes.add(t), d.level = level, d.at = {90, 0}, d.circuit = c;
    w.p.devices.add(d);
    const Found f(w.p);
    REQUIRE(f.of("drop"));
    const auto labels = f.remedies("drop");
    REQUIRE(labels.size() >= 2);
    CHECK_THAT(labels[0], Catch::StartsWith("Feed it from LP-2: "));
    CHECK_THAT(labels[1], Catch::StartsWith("Feed it from LP-3: "));
    for (const std::string& l : labels) {
        INFO(l);
        CHECK(l.find("HP-1") == std::string::npos);
        CHECK(l.find("LP-4") == std::string::npos);
        CHECK(l.find("LP-5") == std::string::npos);
    }
    Project q = f.p;
    remediesFor({f.p, f.book, f.r}, *f.of("drop")).front().apply(q);
    CHECK(q.circuits[c].board == two);
    CHECK_FALSE(Found(q).of("drop"));
}

TEST_CASE("a motor that the table does not have on two lines is offered its three, and the other way round") {
    const auto found = [](double hp, int poles, VoltageSystem system) {
        OneBoard w(system);
        w.circuit(hp, LoadUnit::hp, poles, 10, LoadKind::Motor);
        return Found(w.p);
    };
    // Table 430.248 ends at 10 hp; Table 430.250 has 15 hp at 208 V.
    const Found single = found(15, 2, VoltageSystem::Y208);
    REQUIRE(single.of("horsepower"));
    CHECK_THAT(single.of("horsepower")->text, Catch::Contains("15 hp at 208 V single-phase is not in the table"));
    CHECK(offers(single.remedies("horsepower"), "Make it a 3-pole motor"));
    CHECK(single.after("horsepower") == 0);
    // Table 430.250 ends at 200 hp for 208 V, and no other table has more.
    const Found three = found(250, 3, VoltageSystem::Y208);
    REQUIRE(three.of("horsepower"));
    CHECK_THAT(three.of("horsepower")->text, Catch::Contains("250 hp at 208 V three-phase is not in the table"));
    CHECK(three.remedies("horsepower") ==
          std::vector<std::string>{"Enter it as 186.43 kW, its shaft power without losses"});
    // On two lines there is no third pole to offer.
    const Found two = found(15, 2, VoltageSystem::S240);
    REQUIRE(two.of("horsepower"));
    CHECK_FALSE(offers(two.remedies("horsepower"), "3-pole"));
    CHECK(offers(two.remedies("horsepower"), "Enter it as 11.19 kW")); // 15 × 0.7457
}

TEST_CASE("a motor on the plan that is not in the table says so with its volts and phases") {
    for (int poles : {2, 3}) {
        OneBoard w;
        DeviceType t;
        t.name = "Fan", t.load = poles == 3 ? 250 : 15, t.unit = LoadUnit::hp, t.poles = poles,
        t.kind = LoadKind::Motor;
        Device d;
        d.type = w.p.deviceTypes.add(t), d.level = w.p.levels.begin()->id;
        d.circuit = addCircuit(w.p, w.board, poles, "Fan");
        w.p.devices.add(d);
        const Found f(w.p);
        REQUIRE(f.of("horsepower"));
        CHECK_THAT(f.of("horsepower")->text,
                   Catch::Contains(poles == 3 ? "250 hp at 208 V three-phase" : "15 hp at 208 V single-phase"));
    }
}

TEST_CASE("a load in the name with its poles is taken with them") {
    OneBoard w;
    const CircuitId c = addCircuit(w.p, w.board, 1, "RTU-1 7.5 hp 3P");
    const Found f(w.p);
    REQUIRE(f.of("no-load"));
    CHECK(f.remedies("no-load") == std::vector<std::string>{"Take 7.5 hp, 3-pole from its name as its load"});
    Project q = f.p;
    remediesFor({f.p, f.book, f.r}, *f.of("no-load")).front().apply(q);
    CHECK(q.circuits[c].poles == 3);
    REQUIRE(q.loads.size() == 1);
    CHECK(q.loads.begin()->amount == Approx(7.5));
    CHECK(q.loads.begin()->poles == 3);
    // On a board of two lines it cannot be three-pole, and nothing is offered.
    OneBoard two(VoltageSystem::S240);
    addCircuit(two.p, two.board, 1, "RTU-1 7.5 hp 3P");
    const Found g(two.p);
    REQUIRE(g.of("no-load"));
    CHECK(g.remedies("no-load").empty());
    // With the poles that it has already, only the load is taken.
    OneBoard same;
    const CircuitId three = addCircuit(same.p, same.board, 3, "RTU-1 7.5 hp 3P");
    const Found h(same.p);
    REQUIRE(h.remedies("no-load").size() == 1);
    Project r = h.p;
    remediesFor({h.p, h.book, h.r}, *h.of("no-load")).front().apply(r);
    CHECK(r.circuits[three].poles == 3);
    CHECK(r.loads.size() == 1);
}

TEST_CASE("a board that is full is offered the next number of slots that boards are made with") {
    const std::pair<int, int> next[] = {{12, 18}, {18, 24}, {24, 30}, {30, 42}, {42, 54},
                                        {54, 60}, {60, 66}, {66, 72}, {72, 84}};
    for (const auto& [slots, more] : next) {
        INFO(slots);
        OneBoard w(VoltageSystem::Y208, slots);
        for (int i = 0; i < slots; ++i) addCircuit(w.p, w.board, 1, "load");
        Circuit c;
        c.board = w.board, c.poles = 1, c.name = "one more";
        w.p.circuits.add(c);
        const Found f(w.p);
        REQUIRE(f.of("overfull"));
        CHECK(f.remedies("overfull") ==
              std::vector<std::string>{std::to_string(more) + " slots for " + w.p.boards[w.board].name});
    }
}

TEST_CASE("a filter finds breakers that are held and that are worked out, and lengths in the units of the project") {
    OneBoard w;
    const CircuitId held = w.circuit(1500, LoadUnit::VA, 1, 100), free = w.circuit(1500, LoadUnit::VA, 1, 100);
    w.p.circuits.change(held)->heldBreaker = 20;
    const auto finds = [&](CircuitId id, const std::string& text) {
        const Results r = w.solved();
        const auto filter = CircuitFilter::from(text);
        REQUIRE(filter);
        return filter->matches({w.p, nec(), r}, w.p.circuits[id]);
    };
    CHECK(finds(held, "breaker:held"));
    CHECK_FALSE(finds(free, "breaker:held"));
    CHECK_FALSE(finds(held, "breaker:auto"));
    CHECK(finds(free, "breaker:auto"));
    CHECK_FALSE(finds(held, "va:held")); // nothing but a breaker is held or worked out here
    CHECK_FALSE(finds(free, "va:auto"));
    // Exactly as much is neither more nor less.
    CHECK_FALSE(finds(free, "poles>1"));
    CHECK_FALSE(finds(free, "poles<1"));
    CHECK(finds(free, "poles:1"));
    // 100 ft are 30.5 m.
    CHECK(finds(free, "length>99"));
    CHECK_FALSE(finds(free, "length>101"));
    w.p.basis.units = UnitSystem::Metric;
    CHECK(finds(free, "length>30.4"));
    CHECK_FALSE(finds(free, "length>30.6"));
}

TEST_CASE("a tested pair hides nothing where the fault is no more than its own rating") {
    const auto hides = [](double kA) {
        OneBoard w;
        Board& b = *w.p.boards.change(w.board);
        b.ratingKA = 10, b.seriesKA = 22, b.givenKA = kA;
        const Results r = w.solved();
        for (const Assumption& a : assumptionsOf({w.p, nec(), r}))
            if (a.what == "Tested series pair") return a.hides;
        FAIL("the pair is not in the list");
        return false;
    };
    CHECK_FALSE(hides(10));
    CHECK(hides(10.5));
}

TEST_CASE("a length is not held against a measured one where only one end stands on the plan") {
    OneBoard w;
    Board& b = *w.p.boards.change(w.board);
    b.level = w.p.levels.begin()->id, b.onPlan = true, b.at = {10, 10};
    runOf(w.p, w.board).length = 20;
    const auto listed = [&] {
        const Results r = w.solved();
        const auto all = assumptionsOf({w.p, nec(), r});
        return std::any_of(all.begin(), all.end(), [](const Assumption& a) { return a.what == "Length entered"; });
    };
    CHECK_FALSE(listed()); // the source stands nowhere
    Source& s = *w.p.sources.change(w.source);
    s.level = b.level, s.onPlan = true, s.at = {0, 10};
    CHECK(listed());
    w.p.boards.change(w.board)->onPlan = false;
    CHECK_FALSE(listed());
}

TEST_CASE("what was seen of an assumption without a day is kept with its value") {
    OneBoard w;
    w.p.boards.change(w.board)->givenKA = 10;
    const Results r = w.solved();
    const auto given = [&] {
        for (const Assumption& a : assumptionsOf({w.p, nec(), r}))
            if (a.what == "Fault level") return a;
        return Assumption{};
    };
    w.p.basis.seen[given().key] = "AB\n\n" + given().entered;
    CHECK(given().seenBy == "AB");
    CHECK(given().seenOn.empty());
    CHECK(given().seenValue == given().entered);
    CHECK(given().seen());
    w.p.basis.seen[given().key] = "AB\n10 kA"; // not as it is written
    CHECK_FALSE(given().seen());
}

TEST_CASE("a comparison counts the copper of feeders, of boards and of transformers") {
    // 100 ft of three lines and a neutral of 4/0 AWG in place of 2/0 AWG.
    OneBoard a(VoltageSystem::Y480);
    const BoardId below = boardBelow(a.p, a.board, "LP-2", VoltageSystem::Y480, 100);
    runOfNode(a.p, below).length = feet(100).v;
    runOfNode(a.p, below).heldSize = "2/0", runOfNode(a.p, below).heldGround = "6";
    OneBoard b = a;
    runOfNode(b.p, below).heldSize = "4/0";
    const Results x = a.solved(), y = b.solved();
    const Comparison more = compare({a.p, nec(), x}, {b.p, nec(), y});
    const auto mm2 = [](const char* name) {
        for (const ConductorSize& s : nec().sizes())
            if (s.name == name) return s.mm2;
        return 0.0;
    };
    const int conductors = y.of(below).run.need.conductors + (y.of(below).run.need.neutral ? 1 : 0);
    REQUIRE(conductors == 4);
    // 8 960 kg/m³ of copper: mm² × m × 0.00896 kg.
    CHECK(more.kg == Approx(4 * (mm2("4/0") - mm2("2/0")) * feet(100).v * 0.00896).epsilon(0.01));
    CHECK(compare({b.p, nec(), y}, {a.p, nec(), x}).kg == Approx(-more.kg));
}

namespace {
/// A bedroom of 12 ft × 9 ft on walls through its outline, with doors in its southern wall: by how far to their
/// middles.
Found bedroomWithDoors(const std::vector<double>& doors, const std::vector<Point>& receptaclesInFeet,
                       OpeningKind kind = OpeningKind::Door) {
    OneBoard w;
    const double foot = 0.3048;
    std::vector<Point> at;
    for (Point p : receptaclesInFeet) at.push_back(p * foot);
    Project p = bedroom(w, {{0, 0}, {12 * foot, 0}, {12 * foot, 9 * foot}, {0, 9 * foot}}, at);
    Wall south;
    south.level = p.levels.begin()->id;
    south.a = {0, 9 * foot}, south.b = {12 * foot, 9 * foot};
    const WallId wall = p.walls.add(south);
    for (double middle : doors) {
        Opening o;
        o.wall = wall, o.kind = kind, o.along = middle * foot, o.width = 3 * foot;
        p.openings.add(o);
    }
    return Found(p);
}
} // namespace

TEST_CASE("a door parts the wall of a room: from it no more than a reach to the next receptacle (210.52(A)(1))") {
    // 42 ft around. Receptacles in the middle of the north wall and of both sides: along the wall 6 + 4.5 = 10.5 ft
    // between them, and from the sides' 4.5 + 12 + 4.5 = 21 ft over the south wall.
    const std::vector<Point> three{{6, 0}, {12, 4.5}, {0, 4.5}};
    const Found none = bedroomWithDoors({}, three);
    REQUIRE(none.of("outlet-spacing"));
    CHECK_THAT(none.of("outlet-spacing")->text,
               Catch::Contains("21.0 ft of wall without a receptacle, 12 ft is the most"));
    // A door of 3 ft in the middle of it leaves 4.5 + 4.5 = 9 ft on either side, more than the 6 ft of the reach.
    const Found middle = bedroomWithDoors({6}, three);
    REQUIRE(middle.of("outlet-spacing"));
    CHECK_THAT(middle.of("outlet-spacing")->text,
               Catch::Contains("9.0 ft of wall from a receptacle to a door, 6 ft is the most"));
    CHECK(middle.remedies("outlet-spacing").front() == "Place a receptacle in the middle of it");
    // Two remedies, one for each side, and the room is as it should be.
    Project once = middle.p;
    remediesFor({middle.p, middle.book, middle.r}, *middle.of("outlet-spacing")).front().apply(once);
    const Found left(once);
    REQUIRE(left.of("outlet-spacing"));
    CHECK(left.after("outlet-spacing") == 0);
    // With receptacles 1.5 ft nearer to the corners 3 + 3 = 6 ft are left: exactly a reach.
    CHECK_FALSE(bedroomWithDoors({6}, {{6, 0}, {12, 7.5}, {0, 7.5}, {12, 1}, {0, 1}}).of("outlet-spacing"));
    // A window does not part the wall: 1.5 + 12 + 1.5 = 15 ft.
    const Found window = bedroomWithDoors({6}, {{6, 0}, {12, 7.5}, {0, 7.5}, {12, 1}, {0, 1}}, OpeningKind::Window);
    REQUIRE(window.of("outlet-spacing"));
    CHECK_THAT(window.of("outlet-spacing")->text, Catch::Contains("15.0 ft of wall without a receptacle"));
}

TEST_CASE("a wall of two feet and more between two doors has a receptacle of its own (210.52(A)(2))") {
    // Doors of 3 ft at 1.5 ft and at 6.7 ft: 6.7 − 1.5 − 3 = 2.2 ft between them.
    const std::vector<Point> around{{6, 0}, {12, 4.5}, {0, 4.5}, {12, 8.9}, {0, 8.5}, {9.5, 8.95}};
    const Found wide = bedroomWithDoors({1.5, 6.7}, around);
    REQUIRE(wide.of("outlet-spacing"));
    CHECK_THAT(wide.of("outlet-spacing")->text,
               Catch::Contains("2.2 ft of wall without any receptacle; each wall of 2 ft and more has one"));
    CHECK(wide.after("outlet-spacing") == 0);
    CHECK_FALSE(bedroomWithDoors({1.5, 6.4}, around).of("outlet-spacing")); // 1.9 ft
}

TEST_CASE("a room without any receptacle is offered as many as reach all of its wall") {
    // 42 ft around: 42 / 12, so four.
    const Found bare = bedroomWithDoors({}, {});
    // The type is there, though none of it is placed.
    REQUIRE(bare.of("outlet-spacing"));
    CHECK_THAT(bare.of("outlet-spacing")->text, Catch::Contains("42.0 ft of wall without any receptacle"));
    CHECK(bare.remedies("outlet-spacing").front() == "Place 4 receptacles along it");
    CHECK(bare.after("outlet-spacing") == 0);
    // With a door 39 ft are left: four again, and each within the reach of its end.
    const Found door = bedroomWithDoors({6}, {});
    CHECK(door.remedies("outlet-spacing").front() == "Place 4 receptacles along it");
    CHECK(door.after("outlet-spacing") == 0);
}

TEST_CASE("a receptacle above 5 1/2 ft, or one for an appliance, does not count for the wall (210.52)") {
    const auto told = [](double height, Symbol symbol) {
        OneBoard w;
        Project p = bedroom(w, {{0, 0}, {1.8, 0}, {1.8, 1.8}, {0, 1.8}}, {{0.9, 0}, {0.9, 1.8}});
        DeviceType& t = *p.deviceTypes.change(p.deviceTypes.begin()->id);
        t.height = height, t.symbol = symbol;
        return Found(p).of("outlet-spacing") != nullptr;
    };
    CHECK_FALSE(told(0.45, Symbol::Receptacle));
    CHECK_FALSE(told(1.67, Symbol::Receptacle)); // 5.5 ft are 1.676 m
    CHECK(told(1.68, Symbol::Receptacle));
    CHECK_FALSE(told(0.45, Symbol::Quad));
    CHECK(told(0.45, Symbol::Special));
}

TEST_CASE("receptacles of a wall are of a type that counts there, and a room of three walls has walls, too") {
    OneBoard w;
    const double foot = 0.3048;
    // 9 ft, 12 ft and 15 ft around: 36 ft of wall, 12 ft for each of three.
    Project p = bedroom(w, {{0, 0}, {12 * foot, 0}, {0, 9 * foot}}, {});
    DeviceType& high = *p.deviceTypes.change(p.deviceTypes.begin()->id);
    high.name = "Receptacle for a clock";
    high.height = 2.1; // m, above 5 1/2 ft
    DeviceType appliance = high;
    appliance.name = "Dryer outlet";
    appliance.height = 0.9;
    appliance.symbol = Symbol::Special;
    p.deviceTypes.add(appliance);
    CHECK(Found(p).remedies("outlet-spacing").empty()); // none of both would count
    DeviceType low = high;
    low.name = "Duplex receptacle";
    low.height = 5.5 * foot; // the highest that counts
    const DeviceTypeId counts = p.deviceTypes.add(low);
    const Found room(p);
    REQUIRE(room.of("outlet-spacing"));
    CHECK_THAT(room.of("outlet-spacing")->text, Catch::Contains("36.0 ft of wall without any receptacle"));
    CHECK(room.remedies("outlet-spacing").front() == "Place 3 receptacles along it");
    remediesFor({room.p, room.book, room.r}, *room.of("outlet-spacing")).front().apply(p);
    for (const Device& d : p.devices) CHECK(d.type == counts);
    CHECK_FALSE(Found(p).of("outlet-spacing"));
}

TEST_CASE(
    "a feeder by which too much is lost: the largest conductors are offered where none is enough, with its sets") {
    OneBoard w;
    Project& p = w.p;
    const BoardId far = boardBelow(p, w.board, "LP-2", VoltageSystem::Y208, 225);
    loaded(p, far, 3, 100, LoadUnit::A);
    Run& feeder = runOfNode(p, far);
    feeder.length = 20000 * 0.3048; // more than any conductor carries it within the limit
    p.basis.upsizingCeiling = 0;
    const Found f(p);
    const Snag* s = f.of("drop", "LP-2-1");
    REQUIRE(s);
    const auto remedies = remediesFor({f.p, f.book, f.r}, *s);
    const auto largest = std::find_if(remedies.begin(), remedies.end(), [](const Remedy& m) {
        return m.label.find("Hold 1000 kcmil on the feeder of LP-2") == 0;
    });
    std::string labels = s->text;
    for (const Remedy& m : remedies) labels += " | " + m.label;
    INFO(labels);
    REQUIRE(largest != remedies.end());
    // Two sets stay two, one stays one that nobody holds.
    Project once = p;
    largest->apply(once);
    CHECK(runOfNode(once, far).heldSize == "1000"); // the largest of Table 9
    CHECK(runOfNode(once, far).heldSets == 0);
    runOfNode(p, far).heldSize = "1/0";
    runOfNode(p, far).heldSets = 2;
    runOfNode(p, far).length = 3000 * 0.3048; // two sets of less than the largest are enough
    const Found two(p);
    const Snag* again = two.of("drop", "LP-2-1");
    REQUIRE(again);
    bool offered = false;
    for (const Remedy& m : remediesFor({two.p, two.book, two.r}, *again)) {
        if (m.label.find(" on the feeder of LP-2") == std::string::npos) continue;
        offered = true;
        Project q = p;
        m.apply(q);
        CHECK(runOfNode(q, far).heldSets == 2);
    }
    CHECK(offered);
}

TEST_CASE("a board on another voltage is offered the transformer that carries its demand") {
    // 70 kVA at 208Y/120 V on 480Y/277 V: 75 kVA is the next of the series. Taken for less, it would be 45 or 30.
    OneBoard w(VoltageSystem::Y480);
    Project& p = w.p;
    const BoardId board = boardBelow(p, w.board, "LP-2", VoltageSystem::Y480, 400);
    p.boards.change(board)->system = VoltageSystem::Y208;
    const CircuitId c = addCircuit(p, board, 3, "load");
    Load l;
    l.circuit = c, l.amount = 78, l.unit = LoadUnit::kVA, l.poles = 3;
    p.loads.add(l);
    const Found f(p);
    REQUIRE(f.of("feed-voltage"));
    // 78 kVA is more than 75: 112.5 is the next (78 / 1.1 would be 71).
    CHECK(offers(f.remedies("feed-voltage"), "Put a transformer of 112.5 kVA before it"));
}

TEST_CASE("a ring that serves too much floor is divided over two to eight circuits, and over no more") {
    // A socket outlet in each of so many rooms of 100 m², what one ring serves: one room for each circuit.
    const auto divided = [](int rooms) {
        MetricBoard w;
        Project& p = w.p;
        p.basis.occupancy = Occupancy::Dwelling;
        const LevelId level = p.levels.begin()->id;
        p.boards.change(w.board)->level = level;
        const CircuitId c = addCircuit(p, w.board, 1, "Sockets");
        p.circuits.change(c)->heldBreaker = 32;
        p.circuits.change(c)->ring = true;
        DeviceType t;
        t.name = "Socket outlet";
        const DeviceTypeId type = p.deviceTypes.add(t);
        for (int i = 0; i < rooms; ++i) {
            const double x = i * 10.0;
            Room room;
            room.level = level;
            room.outline = {{x, 0}, {x + 10, 0}, {x + 10, 10}, {x, 10}};
            p.rooms.add(room);
            Device d;
            d.type = type, d.level = level, d.at = {x + 5, 5}, d.circuit = c;
            p.devices.add(d);
        }
        const Found f(p);
        REQUIRE(f.of("ring", "100 m² is usual"));
        for (const std::string& label : f.remedies("ring"))
            if (label.find("Divide its outlets") == 0) return label;
        return std::string();
    };
    CHECK(divided(2) == "Divide its outlets over 2 circuits");
    CHECK(divided(8) == "Divide its outlets over 8 circuits");
    CHECK(divided(9).empty());
}

TEST_CASE("a device that opens late on the alternate supply only is helped at its circuit, not by another generator") {
    Project p = *loadProject(dataFolder() / "demos" / "brindle-pier.lintel");
    // As a ring its device opens in time on the network, and not on the generator.
    CircuitId fan;
    for (const Circuit& c : p.circuits)
        if (c.name == "Smoke extract fan 2") fan = c.id;
    REQUIRE(fan);
    p.circuits.change(fan)->ring = true;
    const Found f(p);
    const Snag* late = f.of("alternate", "do not open in time");
    REQUIRE(late);
    CHECK(late->text == "DB-6: on G-1 the devices of 1 circuit do not open in time");
    const auto remedies = remediesFor({f.p, f.book, f.r}, *late);
    REQUIRE(remedies.size() == 1);
    CHECK(remedies[0].label == "A residual-current device of 30 mA on " + nameOfRun(f.p, fan));
    Project q = p;
    remedies[0].apply(q);
    CHECK(q.circuits[fan].residual == 30);
    CHECK_FALSE(Found(q).of("alternate", "do not open in time"));
}

TEST_CASE("an earth fault on a feeder without a device of its own is helped at the device that opens it") {
    Project p = *loadProject(dataFolder() / "demos" / "brindle-pier.lintel");
    // DB-6 hangs on ATS-1 straight: the 50 A of ATS-1's circuit open its faults, and 238 m are too many for them.
    BoardId board;
    CircuitId circuit;
    for (const Board& b : p.boards)
        if (b.name == "DB-6") board = b.id;
    const Results before = solve(p, bs());
    REQUIRE_FALSE(before.of(board).via);
    circuit = before.of(before.of(board).parent.as<Board>()).via;
    REQUIRE(circuit);
    CHECK(before.of(board).run.need.cable->opener == circuit);
    Run& run = runOf(p, before.of(board).parent);
    run.lengthBy = LengthBy::Entered;
    run.length = 238;
    const Found f(p);
    const Snag* late = f.of("loop", "Feeder of DB-6");
    REQUIRE(late);
    const auto remedies = remediesFor({f.p, f.book, f.r}, *late);
    REQUIRE_FALSE(remedies.empty());
    for (const Remedy& m : remedies) {
        INFO(m.label);
        Project q = p;
        m.apply(q);
        CHECK_FALSE(Found(q).of("loop", late->text));
    }
    Project q = p;
    remedies.back().apply(q);
    CHECK(q.circuits[circuit].residual == 300); // mA: it feeds a board
}

TEST_CASE("a held feeder is only offered to be sized where its circuits then lose less of what is too much") {
    Project p = *loadProject(dataFolder() / "demos" / "brindle-pier.lintel");
    CircuitId lighting;
    for (const Circuit& c : p.circuits)
        if (c.name == "Café lighting") lighting = c.id;
    REQUIRE(lighting);
    const BoardId board = p.circuits[lighting].board;
    runOf(p, board).lengthBy = LengthBy::Entered;
    runOf(p, board).length = 261;
    const auto labels = [&] {
        const Found f(p);
        const Snag* snag = f.of("drop", "Café lighting");
        REQUIRE(snag);
        std::vector<std::string> out;
        for (const Remedy& m : remediesFor({f.p, f.book, f.r}, *snag)) out.push_back(m.label);
        return out;
    };
    // Held at what it would be sized to: letting it be sized changes nothing. A size less is another matter.
    const SizeIndex sized = Found(p).r.of(board).run.size;
    runOf(p, board).heldSize = bs().sizes()[std::size_t(sized)].name;
    CHECK_FALSE(offers(labels(), "Let the feeder of"));
    runOf(p, board).heldSize = bs().sizes()[std::size_t(sized - 1)].name;
    CHECK(offers(labels(), "Let the feeder of DB-3 be sized"));
}

TEST_CASE("a held circuit below a feeder that loses too much: the size that does its own part is offered first") {
    OneBoard w;
    // 24 A at 120 V over 150 ft in #12 (some 2.0 Ω for 1000 ft): 2 · 24 · 0.15 · 2.0 = 14.4 V, 12 % of 3 %.
    const CircuitId c = w.circuit(2880, LoadUnit::VA, 1, 150);
    runOf(w.p, c).heldSize = "12";
    // The feeder in #8 over 600 ft, some 0.8 Ω for 1000 ft: over 8 % with 24 A on one line, all that may be lost is 5
    // %.
    Run& feeder = runOf(w.p, w.board);
    feeder.length = feet(600).v;
    feeder.heldSize = "8";
    const Found f(w.p);
    const Snag* own = nullptr;
    for (const Snag& s : f.all)
        if (s.about == Ref(c) && s.text.find("lost, limit") != std::string::npos) own = &s;
    REQUIRE(own);
    const auto remedies = remediesFor({f.p, f.book, f.r}, *own);
    const auto hold = std::find_if(remedies.begin(), remedies.end(),
                                   [](const Remedy& m) { return m.label.find("in all") != std::string::npos; });
    REQUIRE(hold != remedies.end());
    CHECK(hold->label.rfind("Hold #", 0) == 0);
    Project q = w.p;
    hold->apply(q);
    const Found then(q);
    const Snag* total = nullptr;
    for (const Snag& s : then.all)
        if (s.about == Ref(c)) total = &s;
    REQUIRE(total); // what is left is lost before it: the feeder is helped next
    CHECK(total->text.find("lost from the source") != std::string::npos);
    const auto next = remediesFor({then.p, then.book, then.r}, *total);
    CHECK(offers(labelsOf(next), "feeder of LP-1"));
}

TEST_CASE("a bus is a slip only where a smaller one would do, of those that the book's boards are made with") {
    OneBoard w(VoltageSystem::Y400);
    w.p.basis.units = UnitSystem::Metric;
    w.p.basis.ruleBook = "bs-7671";
    w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 400;
    Board sub;
    sub.system = VoltageSystem::Y400, sub.name = "DB-2", sub.bus = 250, sub.form = BoardForm::Ways;
    const BoardId two = addBoard(w.p, sub);
    feedFrom(w.p, two, w.board);
    w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = 32;
    {
        const Found f(w.p);
        REQUIRE(f.of("out-of-proportion", "DB-2"));
        CHECK(offers(f.remedies("out-of-proportion"), "A bus of 63 A"));
    }
    // 130 kW over 400 V: 188 A. The bus of 250 A is the smallest that carries that: the feed is what is too small.
    Load l;
    l.circuit = addCircuit(w.p, two, 3, "load"), l.amount = 130, l.unit = LoadUnit::kW, l.poles = 3;
    w.p.loads.add(l);
    const Found f(w.p);
    CHECK_FALSE(f.of("out-of-proportion", "DB-2"));
    CHECK(f.of("held-breaker"));
    // As small as they are made: 16 A before 63 A is no slip either.
    w.p.boards.change(two)->bus = 63;
    w.p.loads.remove(LoadId{1});
    w.p.circuits.change(w.p.boards[two].feed.as<Circuit>())->heldBreaker = 16;
    CHECK_FALSE(Found(w.p).of("out-of-proportion", "DB-2"));
}

TEST_CASE("a transformer's device takes the next rating in the last band of its table: from 9 A on, and always where "
          "the book has one share") {
    CHECK_FALSE(nextRatingAllowed(nec().tables.transformerPrimaryOnly, 8.99));
    CHECK(nextRatingAllowed(nec().tables.transformerPrimaryOnly, 9));
    CHECK_FALSE(nextRatingAllowed(nec().tables.transformerSecondaryDevice, 8.99));
    CHECK(nextRatingAllowed(nec().tables.transformerSecondaryDevice, 9));
    CHECK(nextRatingAllowed(bs().tables.transformerPrimaryOnly, 0.5));
}

TEST_CASE("a held circuit that no size can serve says so: there may be nothing to click") {
    OneBoard w;
    // 16 A at 120 V over 20 000 ft: the largest size has some 0.05 Ω for 1 000 ft: 16 · 40 · 0.05 = 32 V of 3.6 V.
    const CircuitId far = w.circuit(1920, LoadUnit::VA, 1, 20'000);
    runOf(w.p, far).heldSize = "12";
    const Found f(w.p);
    REQUIRE(f.of("drop"));
    CHECK(f.of("drop")->text.find("no size keeps the limit: feed it from nearer") != std::string::npos);
    runOf(w.p, far).length = feet(150).v; // #6 keeps it, as in the list of raised runs
    const Found near(w.p);
    REQUIRE(near.of("drop"));
    CHECK(near.of("drop")->text.find("no size") == std::string::npos);
    CHECK(offers(near.remedies("drop"), "Hold #"));
}

TEST_CASE("between two receptacles of a wall that a door parts no more than twice the reach") {
    // At 7.5 ft of the sides, 6 ft from the door of 3 ft on either side; the way round between them is 7.5 + 12 + 7.5.
    const Found two = bedroomWithDoors({6}, {{12, 7.5}, {0, 7.5}});
    REQUIRE(two.of("outlet-spacing"));
    CHECK_THAT(two.of("outlet-spacing")->text,
               Catch::Contains("27.0 ft of wall without a receptacle, 12 ft is the most"));
}

TEST_CASE("doors of walls that only pass near a room do not part its wall") {
    const std::vector<Point> three{{6, 0}, {12, 4.5}, {0, 4.5}};
    const Found room = bedroomWithDoors({}, three);
    const double foot = 0.3048, south = 9 * foot;
    const auto withDoor = [&](Point a, Point b, double thickness, double middle) {
        Project p = room.p;
        Wall other;
        other.level = p.levels.begin()->id;
        other.a = a, other.b = b, other.thickness = thickness;
        Opening o;
        o.wall = p.walls.add(other), o.kind = OpeningKind::Door, o.along = middle, o.width = 3 * foot;
        p.openings.add(o);
        return Found(p).of("outlet-spacing")->text;
    };
    const auto asBefore = Catch::Contains("21.0 ft of wall without a receptacle, 12 ft is the most");
    // Of 200 mm, 350 mm south of it: its face is 250 mm away.
    CHECK_THAT(withDoor({0, south + 0.35}, {12 * foot, south + 0.35}, 0.2, 6 * foot), asBefore);
    // One that leaves it askew: one side of its door stands at the room, the other 0.65 m out.
    CHECK_THAT(withDoor({6 * foot, south}, {6 * foot + 3, south + 3}, 0.1, 1.6 * foot), asBefore);
    // On its own wall it does.
    CHECK_THAT(withDoor({0, south}, {12 * foot, south}, 0.1, 6 * foot),
               Catch::Contains("9.0 ft of wall from a receptacle to a door"));
}

TEST_CASE("behind a UPS is what it feeds: what stands beside or before it, or carries nothing, is not told") {
    MetricBoard w;
    Board b;
    b.name = "DB-2", b.system = w.p.boards[w.board].system, b.form = BoardForm::Ways, b.slots = 24, b.bus = 100;
    const auto below = [&](const char* name) {
        Board at = b;
        at.name = name;
        const BoardId id = addBoard(w.p, at);
        feedFrom(w.p, id, w.board);
        Run& run = runOfNode(w.p, id);
        run.lengthBy = LengthBy::Entered, run.length = 5;
        Circuit& c = *w.p.circuits.change(w.p.boards[id].feed.as<Circuit>());
        c.device = DeviceKind::TypeD, c.heldBreaker = 63; // opens at 1 260 A
        return id;
    };
    const auto typeD = [&](BoardId board, double kW) {
        const CircuitId c = loaded(w.p, board, 1, kW, LoadUnit::kW, LoadKind::Equipment, 10);
        w.p.circuits.change(c)->device = DeviceKind::TypeD;
        w.p.circuits.change(c)->heldBreaker = 16; // opens at 320 A
        return c;
    };
    const BoardId protectedBoard = below("DB-2");
    const BoardId ups = insertInFeed(w.p, protectedBoard, BoardUse::Ups);
    w.p.circuits.change(w.p.boards[ups].feed.as<Circuit>())->device = DeviceKind::TypeB;
    w.p.boards.change(ups)->kva = 40;
    w.p.boards.change(ups)->inverterA = 319;
    below("DB-3");
    typeD(w.board, 2);
    const CircuitId empty = typeD(protectedBoard, 2);
    for (const Load& l : w.p.loads)
        if (l.circuit == empty) {
            w.p.loads.remove(l.id);
            break;
        }
    CHECK_FALSE(Found(w.p).of("ups-fault"));
    typeD(protectedBoard, 2);
    const Found told(w.p);
    REQUIRE(told.of("ups-fault"));
    CHECK_THAT(told.of("ups-fault")->text, Catch::Contains("319 A into a fault from its battery"));
    CHECK_THAT(told.of("ups-fault")->text, !Catch::Contains("more"));
}

TEST_CASE("a feed is out of proportion by its conductors too, where its device is not") {
    OneBoard w;
    const BoardId below = boardBelow(w.p, w.board, "LP-2", VoltageSystem::Y208);
    w.p.circuits.change(w.p.boards[below].feed.as<Circuit>())->heldBreaker = 70; // 0.31 of the bus of 225 A
    runOfNode(w.p, below).heldSize = "8";                                        // 50 A, 0.22 of it
    const Found f(w.p);
    REQUIRE(f.of("out-of-proportion"));
    CHECK(f.of("out-of-proportion")->text == "LP-2: conductors for 50.0 A on a 225 A bus");
    CHECK(f.after("out-of-proportion") == 0);
}

TEST_CASE("a larger conductor for an earth fault keeps its two sets") {
    MetricBoard w(0.1);
    const CircuitId c = w.run(60, 150, 3);
    lintel::Run& run = runOf(w.p, c);
    run.heldSize = "25", run.heldSets = 2;
    w.p.circuits.change(c)->device = DeviceKind::TypeC; // opens at 1 000 A: 0.2185 Ω
    w.p.circuits.change(c)->heldBreaker = 100;
    const Found f(w.p);
    REQUIRE(f.of("loop"));
    const auto offered = remediesFor({f.p, f.book, f.r}, *f.of("loop"));
    const auto hold =
        std::find_if(offered.begin(), offered.end(), [](const Remedy& m) { return m.label.rfind("Hold ", 0) == 0; });
    REQUIRE(hold != offered.end());
    Project q = f.p;
    hold->apply(q);
    CHECK(runOf(q, c).heldSets == 2);
    CHECK_FALSE(Found(q).of("loop"));
}

TEST_CASE("a feeder that is judged by a share of its device is not offered to be judged on its load") {
    OneBoard w;
    w.p.basis.feederDropBasis = DropBasis::Share;
    w.p.basis.upsizingCeiling = 0;
    const BoardId below = boardBelow(w.p, w.board, "LP-2", VoltageSystem::Y208);
    loaded(w.p, below, 3, 10, LoadUnit::A);
    w.p.circuits.change(w.p.boards[below].feed.as<Circuit>())->heldBreaker = 100;
    runOfNode(w.p, below).length = feet(400).v;
    const Found f(w.p);
    bool told = false;
    for (const Snag& s : f.all) {
        if (std::string(s.rule->id) != "drop" || s.about != Ref(below)) continue;
        told = true;
        CHECK_FALSE(offers(labelsOf(remediesFor({f.p, f.book, f.r}, s)), "Judge it on its load"));
    }
    CHECK(told);
}

TEST_CASE("a listed voltage is put right by what the load's own poles give, not its circuit's") {
    OneBoard w;
    const CircuitId c = w.circuit(1000, LoadUnit::VA, 2);
    for (const Load& l : w.p.loads)
        if (l.circuit == c) {
            Load& load = *w.p.loads.change(l.id);
            load.volts = 277, load.poles = 1;
            break;
        }
    const Found f(w.p);
    REQUIRE(f.of("load-volts"));
    CHECK(offers(f.remedies("load-volts"), "It is for 120 V"));
}

TEST_CASE("of a transformer that nothing feeds no held conductor is assumed") {
    OneBoard w;
    Transformer t;
    t.name = "T-1", t.primary = VoltageSystem::Y208, t.secondary = VoltageSystem::Y208, t.run = w.p.runs.add({});
    const TransformerId id = w.p.transformers.add(t);
    w.p.runs.change(t.run)->heldSize = "8";
    const auto told = [&] {
        const auto all = assumptionsOf({w.p, nec(), w.solved()});
        return std::any_of(all.begin(), all.end(), [&](const Assumption& a) { return a.about == Ref(id); });
    };
    CHECK_FALSE(told());
    feedFrom(w.p, id, w.board);
    CHECK(told());
}

TEST_CASE("receptacles of two and of special outlets are receptacles for ground-fault protection") {
    for (Symbol symbol : {Symbol::Receptacle, Symbol::Quad, Symbol::Special, Symbol::Luminaire}) {
        OneBoard w;
        Project p = bedroom(w, {{0, 0}, {4, 0}, {4, 3}, {0, 3}}, {{2, 0.1}});
        for (const Room& r : p.rooms) {
            p.rooms.change(r.id)->kind = "bathroom";
            break;
        }
        for (const DeviceType& y : p.deviceTypes) {
            p.deviceTypes.change(y.id)->symbol = symbol;
            break;
        }
        const CircuitId c = addCircuit(p, w.board, 1, "outlet");
        for (const Device& d : p.devices) {
            p.devices.change(d.id)->circuit = c;
            break;
        }
        INFO(int(symbol));
        CHECK(bool(Found(p).of("ground-fault")) == (symbol != Symbol::Luminaire));
    }
}

TEST_CASE("what motors take at their start behind a generator is assumed until it is entered") {
    OneBoard w(VoltageSystem::Y480);
    const CircuitId fan = w.circuit(10, LoadUnit::hp, 3, 20), pump = w.circuit(5, LoadUnit::hp, 3, 20);
    w.circuit(2000, LoadUnit::VA, 3, 20);
    const auto told = [&]() -> std::string {
        for (const Assumption& a : assumptionsOf({w.p, nec(), w.solved()}))
            if (a.what == "Current of motors while they start") return a.where + ": " + a.entered;
        return "";
    };
    CHECK(told().empty()); // it starts nothing: a utility does
    const BoardId ats = insertInFeed(w.p, w.board, BoardUse::TransferSwitch);
    addGenerator(w.p, ats, 100);
    CHECK(told() == "2 circuits behind a generator: 6 × their current, a third of that by star–delta");
    w.p.circuits.change(fan)->startTimes = 4;
    CHECK_THAT(told(), Catch::StartsWith("1 circuit behind a generator"));
    w.p.circuits.change(pump)->startTimes = 2.5;
    CHECK(told().empty());
}

TEST_CASE("conductors from what takes over are offered to be sized only where they are what is too small") {
    OneBoard w(VoltageSystem::Y480);
    Source second;
    second.name = "Utility 2", second.system = VoltageSystem::Y480, second.faultKA = 10, second.xOverR = 4;
    alternateFrom(w.p, w.board, w.p.sources.add(second));
    w.p.boards.change(w.board)->bus = w.p.boards.change(w.board)->main = 40;
    w.p.basis.feederDropLimit = 10;
    w.circuit(30, LoadUnit::kVA, 3, 1);
    // #8 carries 36 A and loses 5.07 % over 500 ft, within the 10 % of a feeder; the circuit is over 5 % in all.
    Run& run = alternateRunOf(w.p, w.board);
    run.lengthBy = LengthBy::Entered, run.length = feet(500).v, run.heldSize = "8";
    const Found enough(w.p);
    REQUIRE(enough.of("alternate"));
    CHECK_FALSE(enough.r.of(w.board).alternateRun->tooSmall);
    CHECK_FALSE(offers(enough.remedies("alternate"), "Let its conductors be sized"));
    alternateRunOf(w.p, w.board).heldSize = "12";
    const Found small(w.p);
    REQUIRE(small.of("alternate"));
    CHECK(offers(small.remedies("alternate"), "Let its conductors be sized"));
}
