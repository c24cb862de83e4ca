// IEC 60364 and AS/NZS 3000: values typed again by size, and what physics and the trade's round figures give.

#include "core/check/Check.h"
#include "core/check/Compare.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/World.h"

using namespace lintel;

namespace {
double amps(const RuleBook& b, const char* type, const char* method, const char* size, bool three) { return b.cables.type(type)->method(method)->ampacity[three][std::size_t(b.find(size))]; }
} // namespace

TEST_CASE("IEC 60364-5-52: Tables B.52.2 to B.52.5 typed again, by row") {
    const RuleBook& b = bookOf("iec-60364");
    // Two loaded, copper, 70 °C: A1 (single), A2, B1 (single), B2, C, D1.
    struct Row { const char* size; double a1, a2, b1, b2, c, d1; };
    for (const Row& r : {Row{"1.5", 14.5, 14, 17.5, 16.5, 19.5, 22}, {"2.5", 19.5, 18.5, 24, 23, 27, 29}, {"4", 26, 25, 32, 30, 36, 37}, {"6", 34, 32, 41, 38, 46, 46}, {"10", 46, 43, 57, 52, 63, 60}, {"16", 61, 57, 76, 69, 85, 78}, {"25", 80, 75, 101, 90, 112, 99},
                         {"35", 99, 92, 125, 111, 138, 119}, {"50", 119, 110, 151, 133, 168, 140}, {"70", 151, 139, 192, 168, 213, 173}, {"95", 182, 167, 232, 201, 258, 204}, {"120", 210, 192, 269, 232, 299, 231}, {"150", 240, 219, 300, 258, 344, 261}, {"185", 273, 248, 341, 294, 392, 292},
                         {"240", 321, 291, 400, 344, 461, 336}, {"300", 367, 334, 458, 394, 530, 379}}) {
        INFO(r.size);
        CHECK(amps(b, "single-core 70 °C", "A1", r.size, false) == r.a1);
        CHECK(amps(b, "multicore 70 °C", "A2", r.size, false) == r.a2);
        CHECK(amps(b, "single-core 70 °C", "B1", r.size, false) == r.b1);
        CHECK(amps(b, "multicore 70 °C", "B2", r.size, false) == r.b2);
        CHECK(amps(b, "multicore 70 °C", "C", r.size, false) == r.c);
        CHECK(amps(b, "multicore 70 °C", "D1", r.size, false) == r.d1);
    }
    // Three loaded, 90 °C, copper and aluminium: C.
    struct Pair { const char* size; double copper, aluminium; };
    for (const Pair& r : {Pair{"10", 71, 57}, {"16", 96, 76}, {"25", 119, 90}, {"35", 147, 112}, {"50", 179, 136}, {"70", 229, 174}, {"95", 278, 211}, {"120", 322, 245}, {"150", 371, 283}, {"185", 424, 323}, {"240", 500, 382}, {"300", 576, 440}}) {
        CHECK(amps(b, "multicore 90 °C", "C", r.size, true) == r.copper);
        CHECK(amps(b, "multicore 90 °C aluminium", "C", r.size, true) == r.aluminium);
        CHECK(r.aluminium / r.copper == Approx(std::sqrt(0.0181 / 0.0303)).margin(0.035)); // heat for heat
    }
    for (const CableType& t : b.cables.types) // a hotter cable carries more, everywhere
        if (t.celsius == 70)
            if (const CableType* hot = b.cables.type(t.name.substr(0, t.name.find("70")) + "90" + t.name.substr(t.name.find("70") + 2)))
                for (const CableMethod& m : t.methods)
                    for (std::size_t s = 0; s < b.sizes().size(); ++s)
                        for (std::size_t k = 0; k < 2; ++k)
                            if (m.ampacity[k][s] > 0 && hot->method(m.name)) CHECK(hot->method(m.name)->ampacity[k][s] > m.ampacity[k][s]);
}

TEST_CASE("AS/NZS 3000: loops of Table 8.1, protective conductors of Table 5.1, and what is not verified is said") {
    const RuleBook& b = bookOf("as-nzs-3000");
    const auto limit = [&](DeviceKind k, double rating) { return 230 * b.cables.cMin / (b.cables.trips.at(k).trips * rating); };
    CHECK(limit(DeviceKind::TypeC, 16) == Approx(1.91).margin(0.01));
    CHECK(limit(DeviceKind::TypeC, 20) == Approx(1.53).margin(0.01));
    CHECK(limit(DeviceKind::TypeC, 32) == Approx(0.96).margin(0.01));
    CHECK(limit(DeviceKind::TypeB, 20) == Approx(2.88).margin(0.01));
    CHECK(limit(DeviceKind::TypeD, 20) == Approx(0.92).margin(0.01));
    const std::pair<const char*, const char*> ground[] = {{"2.5", "2.5"}, {"4", "2.5"}, {"6", "2.5"}, {"10", "4"}, {"16", "6"}, {"25", "6"}, {"35", "10"}, {"50", "16"}, {"70", "25"}, {"95", "25"}, {"120", "35"}, {"150", "50"}, {"185", "70"}, {"240", "95"}};
    for (const auto& [line, earth] : ground) {
        CHECK(b.cables.groundOfLine.at(b.find(line)) == b.find(earth));
        CHECK(b.cables.type("multicore 75 °C")->ownGround.at(b.find(line)) == b.find(earth));
    }
    for (const CableType& t : b.cables.types)
        for (const CableMethod& m : t.methods) CHECK(m.unverified);
    CHECK(b.unverified().size() >= 5);
    // 27 A at 30 °C for a conductor of 70 °C is 27·√(35/40) = 25.3 A at 40 °C for one of 75 °C.
    CHECK(amps(b, "multicore 75 °C", "unenclosed", "2.5", false) == Approx(25.3).margin(0.05));
}

TEST_CASE("every metric starter opens, solves without a stop, and takes a circuit") {
    for (const char* name : {"uk-400", "iec-400", "au-400"}) {
        INFO(name);
        auto loaded = loadProject(dataFolder() / "starters" / (std::string(name) + ".lintel"));
        REQUIRE(loaded);
        Project p = *loaded;
        REQUIRE_FALSE(validate(p));
        const RuleBook& book = bookOf(p.basis.ruleBook);
        const BoardId board = p.boards.begin()->id;
        const CircuitId c = addCircuit(p, board, 1, "Kettle");
        Load l;
        l.circuit = c, l.amount = 2.4, l.unit = LoadUnit::kW;
        p.loads.add(l);
        runOf(p, c).lengthBy = LengthBy::Entered, runOf(p, c).length = 12;
        const Results r = solve(p, book);
        for (const Snag& s : findSnags(p, book, r)) {
            INFO(s.text);
            CHECK(s.severity != Severity::Stop);
        }
        CHECK(r.of(c).run.size >= 0);
        CHECK(r.of(c).run.earth->known);
        CHECK(nameOf(p, c) == "DB-1/1/L1");
    }
}

TEST_CASE("Brindle Pier solves with each metric book, and a change of book is told as a difference") {
    const Project pier = *loadProject(dataFolder() / "demos" / "brindle-pier.lintel");
    REQUIRE_FALSE(validate(pier));
    CHECK(pier.boards.size() == 9);
    CHECK(pier.circuits.size() >= 120);
    const Results r = solve(pier, bs());
    const auto snags = findSnags(pier, bs(), r);
    std::map<std::string, int> rules;
    for (const Snag& s : snags) ++rules[s.rule->id];
    CHECK(rules == std::map<std::string, int>{{"residual", 2}, {"ring", 2}, {"drop", 1}}); // on purpose
    int known = 0;
    for (const Circuit& c : pier.circuits) known += c.use == CircuitUse::Load && r.run(c.id)->earth->known;
    CHECK(known > 110);
    Project other = pier;
    other.basis.ruleBook = "iec-60364";
    const Results moved = solve(other, bookOf("iec-60364"));
    const Comparison c = compare({pier, bs(), r}, {other, bookOf("iec-60364"), moved});
    CHECK_FALSE(c.nothing());
    CHECK(c.sizes + c.devices > 0);
}
