// Voltage systems as people write them, and what is refused.

#include "core/base/Format.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/World.h"

using namespace lintel;

namespace {
std::string read(const char* text) {
    const auto s = systemFrom(text);
    return s ? wordOf(*s) : "refused";
}
} // namespace

TEST_CASE("voltage systems: as drawings, lists and people write them") {
    for (const auto& [typed, word] : std::vector<std::pair<const char*, const char*>>{
             {"480Y/277", "480Y/277"},
             {"480/277", "480Y/277"},
             {"277/480V", "480Y/277"},
             {"480Y/277 V, 3φ 4W", "480Y/277"},
             {"208Y/120V,3PH,4W", "208Y/120"},
             {"120/208", "208Y/120"},
             {"208 Y / 120", "208Y/120"},
             {"480Y", "480Y/277"},
             {"4160Y", "4160Y/2400"},
             {"120/240 V, 1-phase, 3-wire", "120/240"},
             {"240D/120", "240D/120"},
             {"240Δ/120", "240D/120"},
             {"480Δ", "480D"},
             {"480V 3ph 3W", "refused"}, // a wye's three lines or a delta: nobody can tell
             {"400/230", "400/230"},
             {"400 V / 230 V", "400/230"},
             {"230/400", "400/230"},
             {"440/254", "440/254"},
             {"400/231", "400/231"},
             {"690/400", "690/400"},
             {"220", "220"},
             {"240 V", "240"},
             {"12.47 kV", "12470Y/7200"},
             {"12.47/7.2 kV", "12470Y/7200"},
             {"12.47kV/7.2kV", "12470Y/7200"},
             {"13,800Y/7970", "13800Y/7970"},
             {"11kV", "11000D"},
             {"11 kV", "11000D"},
             {"11/6.35 kV", "11000/6350"},
             {"240/120", "refused"}, // one phase with its middle, or a high leg
             {"480/120", "refused"},
             {"480Y/277x", "refused"},
             {"480Y/277 V 1ph", "refused"},
             {"400D/230", "refused"},
             {"12", "refused"},
             {"60 kV", "refused"},
             {"1.2kVA", "refused"},
             {"nonsense", "refused"},
             {"", "refused"},
             {"/", "refused"},
             {"480Y/", "refused"},
             {"-480", "refused"}}) {
        CAPTURE(typed);
        CHECK(read(typed) == word);
    }
}

TEST_CASE("voltage systems: what is written is read back as the same, and the file keeps any of them") {
    for (auto list : {usualSystems(), usualMediumVoltages()})
        for (const VoltageSystem& s : list) {
            CAPTURE(wordOf(s));
            CHECK(systemFrom(wordOf(s)) == s);
            const SystemFacts f = factsOf(s);
            if (s.shape() == VoltageSystem::Shape::Wye)
                CHECK(f.lineLine.v / f.lineNeutral.v == Approx(std::sqrt(3.0)).epsilon(0.005));
        }
    OneBoard w(*systemFrom("440/254"));
    const auto back = readProject(writeProject(w.p), "back");
    REQUIRE(back);
    CHECK(*back == w.p);
    CHECK(factsOf(back->boards[w.board].system).lineNeutral.v == 254);
    std::string text = writeProject(w.p);
    text.replace(text.find("440/254"), 7, "440/100");
    const auto bad = readProject(text, "bad");
    REQUIRE_FALSE(bad);
    CHECK(bad.error().text().find("440/100") != std::string::npos);
    w.p.boards.change(w.board)->system = VoltageSystem{VoltageSystem::Shape::Wye, 400, 100};
    CHECK(validate(w.p));
}

TEST_CASE("any volts to neutral: current, drop and loop limit follow from what is entered") {
    MetricBoard w(0.35, *systemFrom("440/254"));
    const CircuitId c = w.run(2.54, 20);
    const Results results = w.results();
    const CircuitResult& r = results.of(c);
    CHECK(r.load.v == Approx(10).margin(0.001)); // 2 540 / 254
    // 18 mV of 2.5 mm² or 29 of 1.5 mm² per A and m, 10 A, 20 m, of 254 V.
    CHECK(r.run.dropOwn == Approx((w.size(c) == "1.5"   ? 29.0
                                   : w.size(c) == "2.5" ? 18.0
                                                        : 44.0) *
                                  10 * 20 / 1000 / 2.54)
                               .epsilon(0.01));
    CHECK(r.run.earth->limit == Approx(254 * 0.95 / (5 * r.device)).epsilon(0.002));
}

TEST_CASE("medium voltage: a source by its fault level and the transformer behind it, by hand") {
    Project p;
    p.levels.add({{}, "Ground", 0, 3, {}});
    Source s;
    s.name = "Utility", s.system = *systemFrom("12.47 kV"), s.faultKA = 8, s.xOverR = 6;
    const SourceId source = p.sources.add(s);
    Transformer t;
    t.name = "T-1", t.kva = 1000, t.percentZ = 5.75, t.xOverR = 6;
    t.primary = s.system, t.secondary = VoltageSystem::Y480;
    t.feed = source;
    t.run = p.runs.add({});
    const TransformerId transformer = p.transformers.add(t);
    Board b;
    b.name = "MDS", b.system = VoltageSystem::Y480, b.main = b.bus = 1200, b.ratingKA = 42, b.feed = transformer;
    Run r;
    r.lengthBy = LengthBy::Entered, r.length = 0.001;
    b.run = p.runs.add(r);
    const BoardId board = p.boards.add(b);
    const Results results = solve(p, nec());
    // √3 · 12.47 kV · 8 kA = 172.8 MVA: 480²/172.8 M = 1.3334 mΩ; 480²/1 M · 5.75 % = 13.248 mΩ; 277.13 V / 14.581 mΩ.
    CHECK(results.of(transformer).secondary.threePhase == Approx(19.006).epsilon(0.001));
    CHECK(results.of(board).fault.threePhase == Approx(19.0).epsilon(0.005));
    CHECK(results.of(transformer).primaryAmps.v == Approx(1000 / (12.47 * std::sqrt(3.0))).epsilon(0.001));
    // Its primary conductors are of a voltage that no table of the book reaches.
    CHECK(results.of(transformer).run.state == Sizing::OutsideTables);
    CHECK(results.of(transformer).run.size < 0);
    CHECK(results.of(transformer).secondary.runsUnknown);
    const Working w = explain(p, nec(), results, transformer);
    CHECK(w.text().find("tables of the book end at " + number(1000) + " V") != std::string::npos);
    // Below, all goes on as ever.
    CHECK(results.of(board).run.size >= 0);
    CHECK(results.of(board).dropKnown);
}
