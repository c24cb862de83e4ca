// What is typed into a row of a board: understood whole, or refused with the row as it was; and the same whatever comes
// first.

#include "core/project/CircuitFacts.h"
#include "core/project/RunFacts.h"
#include "tests/World.h"

using namespace lintel;

namespace {

/// The fact as it reads after this was typed; what is refused, and must have changed nothing, as "refused".
std::string after(OneBoard& w, CircuitId c, const char* key, const std::string& text) {
    const CircuitFact& f = *circuitFact(key);
    const Project before = w.p;
    const auto bad = f.write(w.p, c, text);
    if (!bad) return f.read(w.p, w.p.circuits[c]);
    CHECK(bad->what.find(text.substr(0, 10)) != std::string::npos);
    CHECK(w.p.circuits == before.circuits);
    CHECK(w.p.loads == before.loads);
    return "refused";
}

const Load& onlyLoad(const OneBoard& w, CircuitId c) { return w.p.loads[loadsOf(w.p, c).listed.at(0)]; }

} // namespace

TEST_CASE("a breaker as metric practice says it: its type with its rating") {
    struct Entry {
        const char* text;
        double amps; ///< 0: refused
        DeviceKind kind;
        int poles;
    };
    for (const Entry& e : {Entry{"B6", 6, DeviceKind::TypeB, 1},
                           {"b16", 16, DeviceKind::TypeB, 1},
                           {"C32/3", 32, DeviceKind::TypeC, 3},
                           {"C20 3P", 20, DeviceKind::TypeC, 3},
                           {"D 10", 10, DeviceKind::TypeD, 1},
                           {"D10 A", 10, DeviceKind::TypeD, 1},
                           {"gG 63", 63, DeviceKind::FuseGG, 1},
                           {"63 A gG", 63, DeviceKind::FuseGG, 1},
                           {"16", 16, DeviceKind::Moulded, 1}, // as it was
                           {"E16", 0, DeviceKind::Moulded, 1},
                           {"B", 0, DeviceKind::Moulded, 1},
                           {"B16 kVA", 0, DeviceKind::Moulded, 1}}) {
        INFO(e.text);
        MetricBoard w;
        const CircuitId c = addCircuit(w.p, w.board, 1, "Sockets");
        w.p.circuits.change(c)->device = DeviceKind::Moulded;
        const auto bad = circuitFact("breaker")->write(w.p, c, e.text);
        CHECK(bool(bad) == (e.amps == 0));
        CHECK(w.p.circuits[c].heldBreaker.value_or(0) == e.amps);
        CHECK(w.p.circuits[c].device == e.kind);
        CHECK(w.p.circuits[c].poles == e.poles);
        if (bad) CHECK(bad->help.find("B16") != std::string::npos);
    }
    OneBoard w; // North America knows no such letters
    const CircuitId c = addCircuit(w.p, w.board, 1, "Receptacles");
    CHECK(circuitFact("breaker")->write(w.p, c, "B20"));
    CHECK(w.p.circuits[c].device == DeviceKind::Breaker);
}

TEST_CASE("values with their units, and other people's habits, in every number of a row") {
    struct Entry {
        const char *key, *text, *reads;
    };
    const Entry entries[] = {{"breaker", "30", "30"},
                             {"breaker", "30 A", "30"},
                             {"breaker", "30A", "30"},
                             {"breaker", "30 amps", "30"},
                             {"breaker", "0.03 kA", "30"},
                             {"breaker", "1,200", "1200"},
                             {"breaker", "auto", ""},
                             {"breaker", "30 VA", "refused"},
                             {"breaker", "30 ft", "refused"},
                             {"breaker", "thirty", "refused"},
                             {"breaker", "-20", "refused"},
                             {"breaker", "30/4", "refused"},
                             {"breaker", "30/2/1", "refused"},
                             {"breaker", "20 2", "refused"},
                             {"breaker", "100AF/80AT", "refused"},
                             {"size", "#10", "10"},
                             {"size", "10 AWG", "10"},
                             {"size", "3/0", "3/0"},
                             {"size", "2 × 250 kcmil", "2 × 250"},
                             {"size", "2x250", "2 × 250"},
                             {"size", "4 * 3/0 AWG", "4 × 3/0"},
                             {"size", "2,5 mm²", "2.5"},
                             {"size", "10mm2", "10"},
                             {"size", "auto", ""},
                             {"size", "5/0", "refused"},
                             {"size", "two x 250", "refused"},
                             {"size", "a×250", "refused"},
                             {"size", "0 x 250", "refused"},
                             {"size", "99 x 250", "refused"},
                             {"size", "250 kW", "refused"},
                             {"size", "large", "refused"},
                             {"length", "120 ft", "120 ft"},
                             {"length", "120", "120 ft"},
                             {"length", "120 feet", "120 ft"},
                             {"length", "12' 6\"", "12.5 ft"},
                             {"length", "3.048 m", "10 ft"},
                             {"length", "3048 mm", "10 ft"},
                             {"length", "304.8 cm", "10 ft"},
                             {"length", "30 inches", "2.5 ft"},
                             {"length", "120 A", "refused"},
                             {"length", "12 ft 3 A", "refused"},
                             {"length", "-5", "refused"},
                             {"length", "far", "refused"},
                             {"powerFactor", "0.9", "0.9"},
                             {"powerFactor", "90 %", "0.9"},
                             {"powerFactor", "0,9", "0.9"},
                             {"powerFactor", "9", "refused"},
                             {"powerFactor", "0.9 kW", "refused"},
                             {"powerFactor", "0", "refused"},
                             {"factor", "0.8", "0.8"},
                             {"factor", "80%", "0.8"},
                             {"factor", "1.2", "1.2"},
                             {"factor", "", ""},
                             {"factor", "11", "refused"},
                             {"factor", "0.8 A", "refused"},
                             {"residual", "30", "30"},
                             {"residual", "30 mA", "30"},
                             {"residual", "0.3 A", "300"},
                             {"residual", "", ""},
                             {"residual", "30 VA", "refused"},
                             {"residual", "-30", "refused"},
                             {"poles", "2", "2"},
                             {"poles", "2P", "2"},
                             {"poles", "3 ph", "3"},
                             {"poles", "1", "1"},
                             {"poles", "4", "refused"},
                             {"poles", "1.5", "refused"},
                             {"poles", "2 kVA", "refused"},
                             {"load", "1.2 kVA", "1.2 kVA"},
                             {"load", "1.2kVA", "1.2 kVA"},
                             {"load", "1,200", "1200 kVA"},
                             {"load", "600 VA", "600 VA"},
                             {"load", "10 A", "10 A"},
                             {"load", "0.01 MW", "10 kW"},
                             {"load", "1.5 hp 3", "refused"},
                             {"load", "12 ft", "refused"},
                             {"load", "1.2.3 kVA", "refused"},
                             {"tie", "2", "2"},
                             {"tie", "2.5", "refused"},
                             {"tie", "2 A", "refused"},
                             {"kept", "-1", "refused"},
                             {"multiwire", "1/2", "refused"}};
    OneBoard w;
    const CircuitId c = w.circuit(500);
    for (const Entry& e : entries) {
        INFO(e.key << " ← " << e.text);
        CHECK(after(w, c, e.key, e.text) == e.reads);
    }
}

TEST_CASE("a breaker takes its poles along: 30/2, 30 A 2P, 2P 30 A, auto/3") {
    for (const auto& [text, amps, poles] : {std::tuple{"30/2", 30.0, 2},
                                            {"30 A/2P", 30.0, 2},
                                            {"30 A 2P", 30.0, 2},
                                            {"2P 30 A", 30.0, 2},
                                            {"3 pole 60", 60.0, 3},
                                            {"auto/3", 0.0, 3},
                                            {"20A 1-pole", 20.0, 1}}) {
        INFO(text);
        OneBoard w;
        const CircuitId c = w.circuit(500);
        REQUIRE_FALSE(circuitFact("breaker")->write(w.p, c, text));
        CHECK(w.p.circuits[c].heldBreaker.value_or(0) == amps);
        CHECK(w.p.circuits[c].poles == poles);
    }
}

TEST_CASE("a motor is three-phase with the power factor of one, whatever is typed first") {
    // 7.5 hp at 208 V three-phase: 24.2 A by Table 430.250. At 120 V one line would carry 80 A.
    const auto enter = [](const std::vector<std::pair<const char*, const char*>>& order) {
        OneBoard w;
        const CircuitId c = addCircuit(w.p, w.board, 1, "");
        for (const auto& [key, text] : order) REQUIRE_FALSE(circuitFact(key)->write(w.p, c, text));
        const Load& l = onlyLoad(w, c);
        CHECK(l.kind == LoadKind::Motor);
        CHECK(l.powerFactor == Approx(0.85));
        CHECK(l.poles == 3);
        const Results r = solve(w.p, nec());
        CHECK(r.of(c).load.v == Approx(24.2).epsilon(0.001));
        return std::tuple(w.p.circuits[c].poles, w.p.circuits[c].slot, l.poles, l.amount, l.unit);
    };
    const auto one = enter({{"load", "7-1/2 hp"}});
    CHECK(enter({{"load", "7.5 hp"}, {"poles", "3"}}) == one);
    CHECK(enter({{"poles", "3"}, {"load", "7.5 hp"}}) == one);
    CHECK(enter({{"load", "7.5"}, {"load", "7.5 hp"}}) == one);
    CHECK(enter({{"poles", "2"}, {"poles", "3"}, {"load", "7.5 hp"}}) == one);
}

TEST_CASE("small motors take one line where it drives them, and what was chosen stays") {
    OneBoard w;
    const CircuitId small = addCircuit(w.p, w.board, 1, "Exhaust fan");
    REQUIRE_FALSE(circuitFact("load")->write(w.p, small, "1/4 hp"));
    CHECK(w.p.circuits[small].poles == 1);
    CHECK(solve(w.p, nec()).of(small).load.v == Approx(5.8)); // Table 430.248, 115 V
    const CircuitId two = addCircuit(w.p, w.board, 2, "Pump");
    REQUIRE_FALSE(circuitFact("load")->write(w.p, two, "2 hp"));
    CHECK(w.p.circuits[two].poles == 2);
    CHECK(onlyLoad(w, two).poles == 2);
    CHECK(solve(w.p, nec()).of(two).load.v == Approx(13.2)); // 208 V, one phase
    OneBoard high(VoltageSystem::Y480);
    const CircuitId fan = addCircuit(high.p, high.board, 1, "Fan"); // 277 V has no single-phase motors
    REQUIRE_FALSE(circuitFact("load")->write(high.p, fan, "1/4 hp"));
    CHECK(high.p.circuits[fan].poles == 3);
}

TEST_CASE("a motor that finds no place for its poles is refused, and nothing is left of it") {
    OneBoard w(VoltageSystem::Y208, 3);
    const CircuitId c = addCircuit(w.p, w.board, 1, "Pump");
    addCircuit(w.p, w.board, 1, "Lights");
    const Project before = w.p;
    const auto bad = circuitFact("load")->write(w.p, c, "7.5 hp");
    REQUIRE(bad);
    CHECK(bad->what.find("7.5 hp takes 3 poles") != std::string::npos);
    CHECK(w.p == before);
}

TEST_CASE("the load of a row goes with the poles of its circuit; one that was given fewer stays") {
    OneBoard w;
    const CircuitId c = w.circuit(10, LoadUnit::A);
    REQUIRE_FALSE(circuitFact("poles")->write(w.p, c, "3"));
    CHECK(onlyLoad(w, c).poles == 3);
    CHECK(solve(w.p, nec()).of(c).va == Approx(10 * 208 * std::sqrt(3.0)));
    REQUIRE_FALSE(circuitFact("poles")->write(w.p, c, "2"));
    CHECK(onlyLoad(w, c).poles == 2);
    const CircuitId mixed = w.circuit(10, LoadUnit::A, 2);
    w.p.loads.change(loadsOf(w.p, mixed).listed.at(0))->poles = 1; // between line and neutral, on a two-pole device
    REQUIRE_FALSE(circuitFact("poles")->write(w.p, mixed, "3"));
    CHECK(onlyLoad(w, mixed).poles == 1);
}

TEST_CASE("a split is a share for each pole, by the letters of the lines wherever the circuit stands") {
    OneBoard w;
    const CircuitId first = w.circuit(12000, LoadUnit::VA, 3); // slots 1, 3, 5: A, B, C
    const CircuitId lower = w.circuit(500);                    // slot 2 …
    const CircuitId other = w.circuit(12000, LoadUnit::VA, 3);
    (void)lower;
    w.p.circuits.change(other)->slot = 9; // its first pole stands on line B
    for (const CircuitId c : {first, other}) {
        const LoadId l = loadsOf(w.p, c).listed.at(0);
        REQUIRE_FALSE(enterSplit(w.p, l, "2 / 1 / 1"));
        CHECK(splitText(w.p.loads[l]) == "2 / 1 / 1");
    }
    const Results r = solve(w.p, nec());
    for (const CircuitId c : {first, other}) {
        const CircuitResult& x = r.of(c);
        for (int pole = 0; pole < 3; ++pole) {
            INFO("pole " << pole << " on line " << x.lines[std::size_t(pole)]);
            CHECK(magnitude((*x.split)[std::size_t(pole)]) == Approx(x.lines[std::size_t(pole)] == 0 ? 6000 : 3000));
        }
    }
    CHECK(r.of(other).lines[0] == 1);
    const LoadId l = loadsOf(w.p, first).listed.at(0);
    for (const char* bad : {"2 / 1", "2/1/1/1", "a/b/c", "0/0/0", "2 kW/1/1", "-1/1/1"}) {
        INFO(bad);
        CHECK(enterSplit(w.p, l, bad));
        CHECK(splitText(w.p.loads[l]) == "2 / 1 / 1");
    }
    REQUIRE_FALSE(enterSplit(w.p, l, "0,5 / 0,25 / 0,25"));
    CHECK(w.p.loads[l].splitA == Approx(0.5));
    REQUIRE_FALSE(enterSplit(w.p, l, "auto"));
    CHECK(splitText(w.p.loads[l]).empty());
}
