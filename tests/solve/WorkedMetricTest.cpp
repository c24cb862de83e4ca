// Whole runs by IEC 60364 and AS/NZS 3000, worked by hand from the tables with every figure on the way.

#include "core/check/Check.h"
#include "tests/World.h"

using namespace lintel;

namespace {

struct Worked : MetricBoard {
    explicit Worked(const char* book, double ze = 0.1) : MetricBoard(ze) { p.basis.ruleBook = book; }
    const RuleBook& book() const { return bookOf(p.basis.ruleBook); }
    Results answer() const { return solve(p, book()); }
    double mm2(SizeIndex s) const { return s < 0 ? 0 : book().sizes()[std::size_t(s)].mm2; }
    lintel::Run& laid(CircuitId c, const char* cable, const char* method) {
        lintel::Run& r = runOf(p, c);
        r.cable = cable, r.method = method;
        return r;
    }
};

} // namespace

TEST_CASE("IEC: a pump house on armoured cable direct in the ground beside another, soil of 1.5 K·m/W at 25 °C") {
    Worked w("iec-60364");
    w.p.basis.groundTemperature = 25;
    const CircuitId c = w.run(60, 120, 3);
    lintel::Run& run = w.laid(c, "armoured 90 °C", "D2");
    run.grouped = 1, run.soil = 1.5, run.heldSize = "35";
    w.p.circuits.change(c)->device = DeviceKind::FuseGG;
    const Results results = w.answer();
    const CircuitResult& r = results.of(c);
    CHECK(r.load.v == Approx(86.60).margin(0.01)); // 60 000 / (√3 · 400)
    CHECK(r.device == 100);
    // 100 / (0.96 · 0.75 · 1.28) = 108.5 A: 35 mm² carries 129, 25 mm² 107.
    CHECK(w.mm2(r.run.sizeForAmpacity) == 35);
    CHECK(r.run.ampacity == Approx(129 * 0.96 * 0.75 * 1.28).margin(0.01)); // 118.9 A
    // Lines at 90 °C: 0.524 · 1.28 = 0.6707 mΩ/m; √3 · 86.60 · 0.6707 · 0.120 = 12.07 V = 3.02 %.
    CHECK(r.run.dropOwn == Approx(3.018).margin(0.01));
    // Armour of a three-core 35 mm²: 2.3 mΩ/m at 20 °C, 2.714 at 60 °C. R1 + R2 = (0.6707 + 2.714) · 120 = 406.2 mΩ.
    CHECK(r.run.earth->armour);
    CHECK(double(r.run.earth->zs) == Approx(0.506).margin(0.002));
    // gG 100 A opens within 5 s at 580 A (IEC 60269-1, Table 3): 230 · 0.95 / 580 = 0.377 Ω. The loop is too long: a
    // conductor beside the armour does.
    CHECK(double(r.run.earth->limit) == Approx(0.377).margin(0.001));
    CHECK_FALSE(r.run.earth->inTime);
    run.protectiveBy = ProtectiveBy::ArmourAndSeparate;
    const Results beside = w.answer();
    CHECK(beside.of(c).run.earth->inTime);
    CHECK(double(beside.of(c).run.earth->zs) < 0.377);
    // Temperature under load: 25 + (86.60 / 118.9)² · 65 = 59.5 °C.
    CHECK(double(r.run.running) == Approx(59.5).margin(0.2));
    // By itself it would be raised instead: armour of 50 mm² 2.0 mΩ/m: (0.495 + 2.36) · 0.12 + 0.1 = 0.443 Ω; of 70
    // mm² 1.8: 0.396 Ω; of 95 mm² 1.3: (0.193 · 1.28 + 1.3 · 1.18) · 0.12 + 0.1 = 0.314 Ω.
    run.protectiveBy = ProtectiveBy::Auto, run.heldSize.clear();
    const Results raised = w.answer();
    CHECK(w.mm2(raised.of(c).run.size) == 95);
    CHECK(raised.of(c).run.why == Governing::LoopImpedance);
    CHECK(double(raised.of(c).run.earth->zs) == Approx(0.314).margin(0.002));
    // In ducts, D1: 100 / (0.96 · 0.85 · 1.10) = 111.4 A: 35 mm² carries 115.
    run.method = "D1", run.heldSize = "35";
    const Results ducts = w.answer();
    CHECK_FALSE(ducts.of(c).run.tooSmall);
    CHECK(ducts.of(c).run.ampacity == Approx(115 * 0.96 * 0.85 * 1.10).margin(0.01));
}

TEST_CASE("IEC: the same load on aluminium, on a tray with two others at 40 °C") {
    Worked w("iec-60364");
    const CircuitId c = w.run(60, 40, 3);
    lintel::Run& run = w.laid(c, "multicore 90 °C aluminium", "E");
    run.grouped = 2, run.ambient = 40;
    const Results results = w.answer();
    const CircuitResult& r = results.of(c);
    CHECK(r.device == 100);
    // 100 / (0.91 · 0.82) = 134.0 A: 50 mm² carries 146, 35 mm² 120.
    CHECK(w.mm2(r.run.size) == 50);
    CHECK(r.run.ampacity == Approx(146 * 0.91 * 0.82).margin(0.01));
    CHECK(r.run.need.material == Material::Aluminium);
    // 0.641 · 1.28 = 0.8205 mΩ/m: √3 · 86.60 · 0.8205 · 0.040 = 4.923 V = 1.23 %.
    CHECK(r.run.dropOwn == Approx(1.231).margin(0.005));
    CHECK(double(r.run.earth->needed) > 0);
}

TEST_CASE("AS/NZS: a shop's power circuit on flat twin and earth: load, loop of Table 8.1, volts lost under load, all "
          "by hand") {
    Worked w("as-nzs-3000", 0.3);
    const CircuitId c = w.run(4.0, 22, 1, LoadKind::Receptacle);
    w.laid(c, "flat twin and earth", "unenclosed").ambient = 40;
    const Results results = w.answer();
    const CircuitResult& r = results.of(c);
    CHECK(r.load.v == Approx(17.39).margin(0.01));
    CHECK(r.device == 20);
    CHECK(r.kindOfDevice == DeviceKind::TypeC);
    CHECK(w.mm2(r.run.size) == 2.5);   // 25.3 A
    CHECK(w.mm2(r.run.ground) == 2.5); // Table 5.1
    // Under load 40 + (17.39 / 25.3)² · 35 = 56.5 °C, the column of 60 °C: 7.41 · 1.16 = 8.596 mΩ/m: 2 · 17.39 · 8.596
    // · 0.022 = 6.577 V = 2.86 % (3.01 % at 75 °C).
    CHECK(r.run.dropOwn == Approx(2.860).margin(0.005));
    CHECK(double(r.run.earth->zs) == Approx(0.698).margin(0.003));    // 0.3 + 2 · 9.040 · 0.022
    CHECK(double(r.run.earth->limit) == Approx(1.533).margin(0.002)); // Table 8.1: 230 / (7.5 · 20)
    CHECK(double(r.run.earth->allowed) == Approx(0.4));
    CHECK(r.run.earth->ok);
    // In insulation it carries 17.3 A: the next size, 23.4 A.
    runOf(w.p, c).method = "in insulation";
    const Results packed = w.answer();
    CHECK(w.mm2(packed.of(c).run.size) == 4);
    CHECK(w.mm2(packed.of(c).run.ground) == 2.5);
}

TEST_CASE("AS/NZS: a submain of aluminium direct in the ground, and what the same soil does to it") {
    Worked w("as-nzs-3000", 0.05);
    w.p.basis.soil = 1.2, w.p.basis.groundTemperature = 25;
    const CircuitId c = w.run(110, 60, 3);
    w.laid(c, "armoured 90 °C aluminium", "buried direct").heldSize = "70"; // for the loop it would be larger
    const Results results = w.answer();
    const CircuitResult& r = results.of(c);
    CHECK(r.load.v == Approx(158.8).margin(0.1));
    CHECK(r.device == 160);
    // Of IEC D2, 70 mm² aluminium: 144 A at 20 °C and 2.5 K·m/W; · √(65/70) · 1.412 = 195.9 A. 50 mm²: 117 → 159.2 A,
    // below 160.
    CHECK(w.mm2(r.run.sizeForAmpacity) == 70);
    CHECK(r.run.ampacity == Approx(195).margin(1));
    w.p.basis.soil = 2.5; // dry: 0.708 of it, 138 A; the next that carries 160 A is 95 mm²: 172 → 234 · 0.708 = 165
    const Results dry = w.answer();
    CHECK(w.mm2(dry.of(c).run.sizeForAmpacity) == 95);
    CHECK(dry.of(c).run.tooSmall);
}

TEST_CASE("a supply by earth electrodes: the loop has to keep 50 V off, and a snag says where nothing watches") {
    for (const char* book : {"bs-7671", "iec-60364", "as-nzs-3000"}) {
        INFO(book);
        Worked w(book, 80);
        w.p.sources.change(w.source)->earthing = Earthing::TT;
        const CircuitId c = w.run(3, 15);
        const auto snags = findSnags(w.p, w.book(), w.answer());
        CHECK(std::any_of(snags.begin(), snags.end(),
                          [](const Snag& s) { return std::string(s.rule->id) == "residual"; }));
        w.p.circuits.change(c)->residual = 300;
        const Results results = w.answer();
        const EarthFault& e = *results.of(c).run.earth;
        CHECK(double(e.limit) == Approx(50 / 0.3)); // 166.7 Ω
        CHECK(e.byResidual);
        CHECK(e.ok);
        CHECK(double(e.zs) == Approx(80.3).margin(0.3));
        CHECK(double(e.allowed) ==
              Approx(w.book().cables.finalUpTo > 0 ? 0.2 : 1)); // where what is fixed has the longer time
        w.p.sources.change(w.source)->ze = 200;
        const Results poor = w.answer();
        CHECK_FALSE(poor.of(c).run.earth->inTime);
        w.p.circuits.change(c)->residual = 100; // 50 / 0.1 = 500 Ω
        CHECK(w.answer().of(c).run.earth->ok);
    }
}
