// What must hold for any load, length, ambient and building, searched by RapidCheck.

#include "core/check/Check.h"
#include "core/project/ProjectFile.h"
#include "core/solve/ConductorSizing.h"
#include "tests/Building.h"

#include <rapidcheck.h>

using namespace lintel;

namespace {

/// A run of any kind that the engine sizes.
struct AnyRun {
    double amps, feetLong, ambient;
    int poles, conductors;
    Material material;
    Raceway raceway;
};
AnyRun anyRun() {
    return {*rc::gen::inRange(1, 9000) / 10.0,
            double(*rc::gen::inRange(1, 600)),
            double(*rc::gen::inRange(-10, 66)),
            *rc::gen::inRange(1, 4),
            *rc::gen::inRange(3, 30),
            *rc::gen::element(Material::Copper, Material::Aluminium),
            *rc::gen::element(Raceway::Steel, Raceway::Pvc)};
}
RunResult sized(const AnyRun& a) {
    Basis b;
    b.ambient = a.ambient;
    RunResult r;
    RunNeed& n = r.need;
    n.system = VoltageSystem::Y208;
    n.poles = a.poles, n.material = a.material, n.raceway = a.raceway, n.ambient = a.ambient,
    n.conductors = a.conductors;
    n.load = n.required = n.dropAmps = Amps{a.amps};
    n.device = std::max(15.0, nec().ratingAtOrAbove(a.amps));
    n.lengthKnown = true, n.length = feet(a.feetLong);
    n.smallest = nec().find("14");
    sizeRun(r, sizingRules(b, nec()), nec());
    return r;
}
double area(const RunResult& r) { return r.size < 0 ? 1e9 : nec().sizes()[std::size_t(r.size)].kcmil * r.sets; }
double areaForAmpacity(const RunResult& r) {
    return r.sizeForAmpacity < 0 ? 1e9 : nec().sizes()[std::size_t(r.sizeForAmpacity)].kcmil * r.setsForAmpacity;
}

} // namespace

TEST_CASE("property: sets times ampacity carry the load, and the device is a standard one above it") {
    CHECK(rc::check([] {
        const AnyRun a = anyRun();
        const RunResult r = sized(a);
        if (r.size < 0) return;
        RC_ASSERT(r.ampacity + 1e-6 >= a.amps);
        RC_ASSERT(r.need.device + 1e-6 >= a.amps);
        RC_ASSERT(r.sets == 1 || r.size >= nec().smallestParallel());
        RC_ASSERT(r.ground < 0 || r.ground <= r.size);
    }));
}

TEST_CASE("property: more load never gives a smaller device or a smaller conductor for ampacity") {
    CHECK(rc::check([] {
        AnyRun a = anyRun();
        const RunResult less = sized(a);
        a.amps += *rc::gen::inRange(1, 500) / 10.0;
        const RunResult more = sized(a);
        RC_ASSERT(more.need.device >= less.need.device);
        // Fewest sets come first, so that in area a second set may be the smaller; what it may carry is not.
        RC_ASSERT(more.size < 0 || less.size < 0 || more.setsForAmpacity > less.setsForAmpacity ||
                  areaForAmpacity(more) >= areaForAmpacity(less));
    }));
}

TEST_CASE("property: longer never loses less, and never takes a smaller conductor below the ceiling") {
    CHECK(rc::check([] {
        AnyRun a = anyRun();
        const RunResult near = sized(a);
        a.feetLong += *rc::gen::inRange(1, 200);
        const RunResult far = sized(a);
        RC_ASSERT((near.size < 0) == (far.size < 0));
        if (near.size < 0) return;
        RC_ASSERT(far.dropBefore >= near.dropBefore - 1e-9);
        if (near.state == Sizing::Sized && far.state == Sizing::Sized) RC_ASSERT(area(far) >= area(near) - 1e-9);
        if (near.state == Sizing::PastCeiling) RC_ASSERT(far.state == Sizing::PastCeiling);
    }));
}

TEST_CASE("property: hotter or fuller never carries more") {
    CHECK(rc::check([] {
        AnyRun a = anyRun();
        RunNeed n;
        n.material = a.material, n.device = 100, n.conductors = a.conductors, n.ambient = a.ambient;
        const SizingRules rules = sizingRules(Basis{}, nec());
        const SizeIndex size = *rc::gen::inRange(2, 18);
        const double before = ampacityOf(n, size, rules, nec()).value();
        n.ambient += *rc::gen::inRange(0, 30);
        n.conductors += *rc::gen::inRange(0, 20);
        RC_ASSERT(ampacityOf(n, size, rules, nec()).value() <= before + 1e-9);
    }));
}

TEST_CASE("property: in any building loads add up to the source, faults fall along a path, and a remedy removes its "
          "snag or says why not") {
    CHECK(rc::check([] {
        const Project p = randomBuilding(std::uint32_t(*rc::gen::inRange(1, 100000)), *rc::gen::inRange(2, 9));
        const Results r = solve(p, nec());
        Complex leaves;
        for (const Circuit& c : p.circuits)
            if (!r.of(c.id).feeder) leaves += r.of(c.id).power;
        RC_ASSERT(std::abs(leaves - r.of(p.sources.begin()->id).phases.total()) <= 1e-6 * (1 + std::abs(leaves)));
        for (const Board& b : p.boards)
            if (const BoardResult& n = r.of(b.id); n.parent.is<Board>())
                RC_ASSERT(n.fault.worst() <= r.of(n.parent.as<Board>()).fault.worst() + 1e-9);
        const auto snags = findSnags(p, nec(), r);
        if (snags.empty()) return;
        const Snag& s = snags[std::size_t(*rc::gen::inRange(0, int(snags.size())))];
        for (const Remedy& m : remediesFor({p, nec(), r}, s)) {
            Project q = p;
            m.apply(q);
            const Results after = solve(q, nec());
            const auto left = findSnags(q, nec(), after);
            // Gone, or still there with other numbers: the text then says what is still missing.
            RC_ASSERT(std::none_of(left.begin(), left.end(), [&](const Snag& x) {
                return x.rule == s.rule && x.about == s.about && x.text == s.text;
            }));
        }
    }));
}

namespace {
/// A metric run of any kind of cable, laid in any of its ways.
struct AnyCable {
    RunNeed need;
    SizingRules rules;
};
AnyCable anyCable() {
    const RuleBook& book = bs();
    AnyCable a;
    RunNeed& n = a.need;
    n.system = VoltageSystem::Y400;
    n.poles = *rc::gen::element(1, 3);
    n.cable.make().type = *rc::gen::inRange(0, int(book.cables.types.size()));
    const CableType& t = book.cables.types[std::size_t(n.cable->type)];
    n.cable.make().method = *rc::gen::inRange(0, int(t.methods.size()));
    n.material = t.material;
    n.ambient = *rc::gen::inRange(10, 60);
    n.cable.make().circuits = *rc::gen::inRange(1, 15);
    n.load = n.required = n.dropAmps = Amps{*rc::gen::inRange(5, 2000) / 10.0};
    n.device = book.ratingAtOrAbove(n.load.v);
    n.cable.make().device = *rc::gen::element(DeviceKind::TypeB, DeviceKind::TypeC, DeviceKind::Moulded);
    n.cable.make().loopBefore = *rc::gen::inRange(1, 800) / 1000.0;
    n.lengthKnown = true;
    n.length = Metres{*rc::gen::inRange(1, 2000) / 10.0};
    Basis b;
    b.units = UnitSystem::Metric;
    b.largestPreferred = "300";
    a.rules = sizingRules(b, book);
    return a;
}
RunResult sized(const AnyCable& a) {
    RunResult r;
    r.need = a.need;
    sizeRun(r, a.rules, bs());
    return r;
}
} // namespace

TEST_CASE(
    "property, metric: Ib ≤ In ≤ Iz; what is called in time is; longer never loses less nor has the smaller loop") {
    CHECK(rc::check([] {
        AnyCable a = anyCable();
        const RunResult near = sized(a);
        if (near.size < 0) return;
        RC_ASSERT(near.ampacity + 1e-6 >= near.need.device);
        RC_ASSERT(near.need.device + 1e-6 >= near.need.load.v);
        RC_ASSERT(near.running <= bs().cables.types[std::size_t(a.need.cable->type)].celsius + 1e-3);
        if (near.earth->known) {
            RC_ASSERT(near.earth->inTime == (near.earth->zs <= near.earth->limit * (1 + 1e-6f)));
            RC_ASSERT(double(near.earth->zs) + 1e-6 >= magnitude(a.need.cable->loopBefore));
            if (near.earth->ok && near.state == Sizing::Sized && near.earth->longest > 0)
                RC_ASSERT(double(near.earth->longest) + 0.01 >= near.need.length.v);
        }
        a.need.held = near.size, a.need.heldSets = near.sets; // the same conductor, longer
        a.need.length = Metres{a.need.length.v + *rc::gen::inRange(1, 500) / 10.0};
        const RunResult far = sized(a);
        RC_ASSERT(far.dropOwn >= near.dropOwn - 1e-9);
        RC_ASSERT(!near.earth->known || double(far.earth->zs) + 1e-6 >= double(near.earth->zs) ||
                  far.earth->ground != near.earth->ground);
    }));
}

TEST_CASE("property, metric: hotter, fuller, or more load never takes a smaller cable for its capacity") {
    CHECK(rc::check([] {
        AnyCable a = anyCable();
        const RunResult before = sized(a);
        a.need.ambient += *rc::gen::inRange(0, 10);
        a.need.cable.make().circuits += *rc::gen::inRange(0, 6);
        const double more = a.need.load.v + *rc::gen::inRange(0, 300) / 10.0;
        a.need.load = a.need.required = a.need.dropAmps = Amps{more};
        a.need.device = bs().ratingAtOrAbove(more);
        const RunResult after = sized(a);
        if (before.size < 0) {
            RC_ASSERT(after.size < 0);
            return;
        }
        if (after.size >= 0)
            RC_ASSERT(after.setsForAmpacity > before.setsForAmpacity ||
                      after.sizeForAmpacity >= before.sizeForAmpacity);
    }));
}

TEST_CASE(
    "property, metric: a remedy of the pier's snags, or of a pier spoilt at random, removes its snag or says why not") {
    const Project pier = *loadProject(dataFolder() / "demos" / "brindle-pier.lintel");
    CHECK(rc::check([&] {
        Project p = pier;
        for (int i = *rc::gen::inRange(0, 6); i > 0; --i) {
            const CircuitId c{std::uint32_t(*rc::gen::inRange(1, int(p.circuits.highest()) + 1))};
            if (!p.circuits.has(c) || p.circuits[c].use == CircuitUse::Spare) continue;
            switch (*rc::gen::inRange(0, 5)) {
            case 0:
                runOf(p, c).lengthBy = LengthBy::Entered, runOf(p, c).length = *rc::gen::inRange(1, 400);
                break;
            case 1:
                runOf(p, c).heldSize = *rc::gen::element(std::string("1.5"), std::string("4"), std::string("16"));
                break;
            case 2:
                p.circuits.change(c)->device =
                    *rc::gen::element(DeviceKind::TypeB, DeviceKind::TypeC, DeviceKind::TypeD, DeviceKind::FuseGG);
                break;
            case 3:
                p.circuits.change(c)->residual = 0;
                break;
            case 4:
                p.circuits.change(c)->ring = !p.circuits[c].ring;
                break;
            }
        }
        const Results r = solve(p, bs());
        const auto snags = findSnags(p, bs(), r);
        if (snags.empty()) return;
        const Snag& s = snags[std::size_t(*rc::gen::inRange(0, int(snags.size())))];
        const auto remedies = remediesFor({p, bs(), r}, s);
        RC_LOG() << s.rule->id << ": " << s.text << "\n";
        // Where no size and no board near it does, its words say so: there is nothing to click.
        RC_ASSERT(!remedies.empty() || s.text.find("feed it from nearer") != std::string::npos);
        for (const Remedy& m : remedies) {
            Project q = p;
            m.apply(q);
            const auto left = findSnags(q, bs(), solve(q, bs()));
            RC_LOG() << s.text << " / " << m.label << "\n";
            RC_ASSERT(std::none_of(left.begin(), left.end(), [&](const Snag& x) {
                return x.rule == s.rule && x.about == s.about && x.text == s.text;
            }));
        }
    }));
}

TEST_CASE("ten thousand boards in a chain of lugs, and in a ring of them, are worked out in one walk") {
    const auto chain = [](int n, bool ring) {
        Project p;
        Source s;
        s.system = VoltageSystem::Y208;
        const SourceId source = p.sources.add(s);
        Ref above = source;
        for (int i = 0; i < n; ++i) {
            Board b;
            b.name = "P" + std::to_string(i);
            b.lugs = Lugs::FeedThrough;
            b.bus = 225;
            if (i == 0) b.main = 200;
            b.feed = above;
            above = p.boards.add(b);
        }
        if (ring) p.boards.change({1})->feed = above;
        return p;
    };
    // The first has a main of 200 A: that is what stands before the conductors of every one below.
    const Project p = chain(10'000, false);
    const Results r = solve(p, nec());
    CHECK(r.of(BoardId{10'000}).run.need.device == 200);
    CHECK(r.of(BoardId{10'000}).depth == 10'000);
    CHECK(r.of(BoardId{10'000}).fed);
    const Results looped = solve(chain(10'000, true), nec());
    CHECK(looped.of(BoardId{5'000}).looped);
}
