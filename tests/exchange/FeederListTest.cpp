#include "core/exchange/FeederList.h"
#include "core/check/Check.h"
#include "core/exchange/ListedConductors.h"
#include "core/project/Document.h"
#include "core/project/LoadWords.h"
#include "core/project/Validation.h"
#include "tests/Building.h"
#include "tests/Demo.h"

#include <fstream>
#include <unistd.h>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

Grid gridOf(const std::string& csv) {
    const fs::path file = fs::temp_directory_path() / ("lintel-feeders-" + std::to_string(::getpid()) + ".csv");
    std::ofstream(file, std::ios::binary) << csv;
    auto grid = readGrid(file);
    fs::remove(file);
    if (!grid) FAIL(grid.error().text());
    return *grid;
}
FeederList listOf(const std::string& csv, const Project& p) {
    const Grid grid = gridOf(csv);
    return readFeeders(grid, guessFeederSettings(grid, p.basis.units), bookOf(p.basis.ruleBook));
}
/// One utility and nothing else.
Project supply() {
    Project p;
    p.levels.add({{}, "Ground", 0, 3, {}});
    Source s;
    s.name = "Utility";
    s.faultKA = 42;
    p.sources.add(s);
    return p;
}
BoardId boardNamed(const Project& p, const std::string& name) {
    for (const Board& b : p.boards)
        if (b.name == name) return b.id;
    return {};
}
const Run& runOfBoard(const Project& p, const std::string& name) { return p.runs[p.boards[boardNamed(p, name)].run]; }
bool says(const std::vector<std::string>& all, const std::string& words) {
    return std::any_of(all.begin(), all.end(),
                       [&](const std::string& s) { return s.find(words) != std::string::npos; });
}
bool says(const FeederRow& r, const std::string& words) {
    return std::any_of(r.problems.begin(), r.problems.end(),
                       [&](const ListProblem& p) { return p.text.find(words) != std::string::npos; });
}

/// A schedule as an office keeps it.
const std::string office = "Feeder,From,To,Load (kVA),Volts,Ph,Breaker,Conductors,Conduit,Length (ft),Dwg,Isc (kA)\n"
                           "F-1,Utility,MSB,410,480,3,1200,\"(4) 4#350, #3/0G\",\"3\"\"C\",25,E-501,36.5\n"
                           "F-2,MSB,LP-1,62,480Y/277,3,100A/3P,\"4#1, #8G\",\"1-1/2\"\" EMT\",120,E-502,14.2\n"
                           "F-3,MSB,T-1,75,480,3,125,\"3#1, #6G\",\"1-1/4\",60,E-502,\n"
                           "F-4,T-1,RP-1,48,208Y/120,3,225,\"4#4/0, #2G\",2-1/2,15,E-502,\n"
                           "F-5,MSB,ATS-1,40,480,3,70,\"4#4, #8G\",1-1/4,80,,\n"
                           "F-6,ATS-1,EP-1,40,480,3,70,\"4#4, #8G\",1-1/4,20,,\n"
                           "F-7,MSB,Chilled water pump,25 hp,480,3,70,\"3#8, #10G\",3/4,140,M-401,\n"
                           ",,Total,,,,,,,,,\n";

} // namespace

TEST_CASE("conductors as offices write them, taken apart") {
    struct Case {
        const char* text;
        int sets, conductors;
        const char *size, *ground, *conduit, *type;
    };
    const Case good[] = {{"(2) 4#500, #2G, 3\"C", 2, 4, "500", "2", "3", ""},
                         {"4#1/0, #6 GND", 0, 4, "1/0", "6", "", ""},
                         {"3-#12, #12G, 3/4\"C", 0, 3, "12", "12", "3/4", ""},
                         {"2 sets of 4#350 kcmil, 1#1/0G, 2-1/2\" EMT", 2, 4, "350", "1/0", "2-1/2", "EMT"},
                         {"3 runs 4#600 AL, #1/0G", 3, 4, "600", "1/0", "", ""},
                         {"2 × 250", 2, 0, "250", "", "", ""},
                         {"4 x 25 mm²", 0, 4, "25", "", "", ""},
                         {"4c × 2,5 mm² + 2,5 mm² E", 0, 4, "2.5", "2.5", "", ""},
                         {"#2", 0, 0, "2", "", "", ""},
                         {"500 kcmil", 0, 0, "500", "", "", ""},
                         {"4#3/0, #6G, 2\"C PVC 40", 0, 4, "3/0", "6", "2", "PVC 40"}};
    for (const Case& c : good) {
        INFO(c.text);
        const auto read = readConductors(c.text);
        REQUIRE(read);
        CHECK(read->sets == c.sets);
        CHECK(read->conductors == c.conductors);
        CHECK(read->size == c.size);
        CHECK(read->ground == c.ground);
        CHECK(read->conduit == c.conduit);
        CHECK(read->conduitType == c.type);
    }
    CHECK(readConductors("3 runs 4#600 AL, #1/0G")->material == Material::Aluminium);
    CHECK(readConductors("4 x 25 mm²")->guessed);
    CHECK_FALSE(readConductors("4#1/0")->guessed);
    for (const char* bad : {"", "big", "4#", "#2N", "4#500, #2N, 3\"C", "3#12,12G", "4#500, 2", "9#500", "(2 4#500",
                            "4#500, #2G, #3G", "4#500, see note", "50 sets of 4#1", "4#500 and more"}) {
        INFO(bad);
        CHECK_FALSE(readConductors(bad));
    }
    for (const auto& [text, size, type] : {std::tuple{"2-1/2", "2-1/2", ""},
                                           {"3\"C", "3", ""},
                                           {"2 in EMT", "2", "EMT"},
                                           {"EMT 1 1/4\"", "1-1/4", "EMT"},
                                           {"¾\"C", "3/4", ""},
                                           {"rigid 4", "4", "RMC"},
                                           {"0.75", "3/4", ""},
                                           {"53 mm", "53 mm", ""}}) {
        INFO(text);
        const auto read = readConduit(text);
        REQUIRE(read);
        CHECK(read->size == size);
        CHECK(read->type == type);
    }
    for (const char* bad : {"", "wide", "2.3", "-2", "2-1/2 x 3"}) {
        INFO(bad);
        CHECK_FALSE(readConduit(bad));
    }
}

TEST_CASE("a schedule of feeders comes in: boards, a transformer, a transfer switch and a motor arise, and what is "
          "written is held") {
    Document d(supply());
    const Project before = d.project();
    const FeederList list = listOf(office, before);
    REQUIRE(list.rows.size() == 7);
    CHECK(says(list.notes, "1 row of totals passed over"));
    for (const FeederRow& r : list.rows) {
        INFO(r.to << (r.problems.empty() ? "" : ": " + r.problems.front().text));
        CHECK(r.enters());
    }
    FeedersApplied a;
    d.edit("Take in", [&](Project& p) { a = applyFeeders(p, nec(), list); });
    const Project& p = d.project();
    REQUIRE_FALSE(validate(p));
    CHECK(a.added == 7);
    CHECK(a.refused == 0);
    CHECK(a.made == std::vector<std::string>{"MSB", "LP-1", "T-1", "RP-1", "ATS-1", "EP-1", "Chilled water pump"});
    // What stands where.
    CHECK(p.boards[boardNamed(p, "MSB")].use == BoardUse::Switchboard);
    CHECK(p.boards[boardNamed(p, "MSB")].main == 1200); // fed straight: the device is its own
    CHECK(p.boards[boardNamed(p, "ATS-1")].use == BoardUse::TransferSwitch);
    CHECK(p.boards[boardNamed(p, "RP-1")].system == VoltageSystem::Y208);
    CHECK(p.boards[boardNamed(p, "LP-1")].system == VoltageSystem::Y480);
    CHECK(p.boards[boardNamed(p, "LP-1")].bus == 100);
    REQUIRE(p.transformers.size() == 1);
    const Transformer& t = *p.transformers.begin();
    CHECK(t.kva == 75);
    CHECK(t.primary == VoltageSystem::Y480);
    CHECK(t.secondary == VoltageSystem::Y208);
    const Results r = solve(p, nec());
    const auto parent = [&](const std::string& name) { return nameOf(p, r.of(boardNamed(p, name)).parent); };
    CHECK(parent("MSB") == "Utility");
    CHECK(parent("LP-1") == "MSB");
    CHECK(parent("RP-1") == "T-1");
    CHECK(parent("ATS-1") == "MSB");
    CHECK(parent("EP-1") == "ATS-1");
    // What is written is held.
    const Run& main = runOfBoard(p, "MSB");
    CHECK(main.name == "F-1");
    CHECK(main.heldSize == "350");
    CHECK(main.heldSets == 4);
    // Service conductors have a bonding jumper in place of a ground by the device: said, and not held.
    CHECK(main.heldGround.empty());
    CHECK(says(a.rows[0].look, "its ground 3/0 is not held"));
    CHECK(runOfBoard(p, "LP-1").heldGround == "8");
    CHECK(r.of(boardNamed(p, "LP-1")).run.ground == nec().find("8"));
    CHECK(main.length == Approx(25 * 0.3048));
    CHECK(main.listedConduit == "3");
    CHECK(main.listedKA == 36.5);
    CHECK(main.listedVA == 410e3);
    CHECK(main.reference == "E-501");
    CHECK(runOfBoard(p, "LP-1").conduit == "EMT");
    CHECK(*p.circuits[p.boards[boardNamed(p, "LP-1")].feed.as<Circuit>()].heldBreaker == 100);
    CHECK(r.of(boardNamed(p, "MSB")).run.size == nec().find("350"));
    CHECK(r.of(boardNamed(p, "MSB")).run.sets == 4);
    // The loads: of boards that feed nothing, and of the motor; those above follow from them.
    CHECK(r.of(boardNamed(p, "LP-1")).demand == Approx(62e3));
    CHECK(r.of(boardNamed(p, "RP-1")).demand == Approx(48e3));
    CHECK(r.of(boardNamed(p, "EP-1")).demand == Approx(40e3));
    const double motor = std::sqrt(3.0) * 480 * 34; // 430.250: 25 hp at 460 V takes 34 A
    double pump = 0;
    for (const Circuit& c : p.circuits)
        if (c.name == "Chilled water pump") pump = r.of(c.id).va;
    CHECK(pump == Approx(motor).epsilon(0.001));
    for (const Load& l : p.loads)
        if (l.name != "Chilled water pump") CHECK(l.name == listedLoadName);
    // The same list again changes nothing.
    Project again = p;
    const FeedersApplied b = applyFeeders(again, nec(), listOf(office, p));
    CHECK(b.same == 7);
    CHECK(b.changed + b.added + b.refused == 0);
    CHECK(again == p);
    d.undo();
    CHECK(d.project() == before);
}

TEST_CASE("a later schedule of feeders: what changed is told by feeder, a board keeps its own circuits") {
    Project p = supply();
    (void)applyFeeders(p, nec(), listOf(office, p));
    const std::string later = "Feeder,From,To,Load (kVA),Volts,Ph,Breaker,Conductors,Length (ft)\n"
                              "F-2,MSB,LP-1,70,480Y/277,3,125,\"4#1/0, #6G\",95\n"
                              "F-4,T-1,RP-1A,48,208Y/120,3,225,\"4#4/0, #2G\",15\n"
                              "F-6,MSB,EP-1,40,480,3,70,\"4#4, #8G\",20\n"
                              "F-9,MSB,LP-2,30,480,3,60,\"4#6, #10G\",200\n";
    const FeedersApplied a = applyFeeders(p, nec(), listOf(later, p));
    REQUIRE(a.rows.size() == 4);
    CHECK(says(a.rows[0].what, "length 120 ft → 95 ft"));
    CHECK(says(a.rows[0].what, "conductors held at 1 × 1 → 1 × 1/0"));
    CHECK(says(a.rows[0].what, "device held at 100 A → 125 A"));
    CHECK(says(a.rows[0].what, "load 62 kVA → 70 kVA"));
    CHECK(says(a.rows[1].what, "name RP-1 → RP-1A")); // known by its feeder
    CHECK(says(a.rows[2].what, "fed from ATS-1 → MSB"));
    CHECK(says(a.rows[3].what, "panelboard LP-2 made"));
    CHECK(a.added == 1);
    CHECK(a.changed == 3);
    CHECK(a.gone == std::vector<std::string>{"F-1", "F-5", "F-3"}); // told, and kept
    CHECK(boardNamed(p, "MSB"));
    // What somebody entered on a board is not touched, and counts beside the load of the list: that is told.
    const CircuitId own = addCircuit(p, boardNamed(p, "LP-1"), 1, "Lighting");
    Load l;
    l.circuit = own;
    l.amount = 2000;
    p.loads.add(l);
    (void)applyFeeders(p, nec(), listOf(later, p));
    CHECK(p.circuits.has(own));
    const Results r = solve(p, nec());
    int twice = 0;
    for (const Snag& s : findSnags(p, nec(), r)) {
        if (std::string(s.rule->id) != "listed-load-twice") continue;
        ++twice;
        CHECK(s.text == "LP-1: the load of its list counts beside a circuit of its own");
        Project q = p;
        remediesFor({p, nec(), r}, s).front().apply(q);
        CHECK(solve(q, nec()).of(boardNamed(q, "LP-1")).connected == Approx(2000));
    }
    CHECK(twice == 1);
}

TEST_CASE("a schedule of feeders: what the project calls so already is not mistaken for it") {
    // F-2 feeds DB-9 here; the list gives its F-2 to a transfer switch.
    Project p = supply();
    Board b;
    b.name = "DB-9";
    b.system = VoltageSystem::Y480;
    const BoardId other = addBoard(p, b);
    feedFrom(p, other, p.sources.begin()->id);
    runOfNode(p, other).name = "F-2";
    const FeedersApplied a = applyFeeders(
        p, nec(), listOf("Feeder,From,To,Volts,Ph,Breaker\nF-1,Utility,MSB,480,3,400\nF-2,MSB,ATS-1,480,3,100\n", p));
    CHECK(nameOf(p, other) == "DB-9");
    CHECK(p.boards[boardNamed(p, "ATS-1")].use == BoardUse::TransferSwitch);
    CHECK(says(a.rows[1].look, "F-2 is the feeder of DB-9 too"));
    // Fed from the same, of its kind, and not listed by its own name: it is called otherwise now.
    Project q = supply();
    (void)applyFeeders(q, nec(), listOf("Feeder,From,To,Volts,Ph,Breaker\nF-1,Utility,MSB,480,3,400\n", q));
    const BoardId msb = boardNamed(q, "MSB");
    const FeedersApplied c = applyFeeders(
        q, nec(), listOf("Feeder,From,To,Volts,Ph,Breaker\nF-1,Utility,MDS,480,3,400\nF-2,MDS,LP-1,480,3,100\n", q));
    CHECK(nameOf(q, msb) == "MDS");
    CHECK(q.boards.size() == 2);
    CHECK(says(c.rows[0].what, "name MSB → MDS"));
    CHECK(nameOf(q, q.circuits[q.boards[boardNamed(q, "LP-1")].feed.as<Circuit>()].board) == "MDS");
}

TEST_CASE("a schedule of feeders has a word for every kind of board and equipment") {
    for (const auto& [use, word] : EnumText<BoardUse>::words) {
        INFO(word);
        CHECK(fromWord<FedKind>(word));
    }
}

TEST_CASE("a schedule of feeders without a source: none is made up, and what hangs free is said") {
    Project p;
    p.levels.add({{}, "Ground", 0, 3, {}});
    const FeedersApplied a = applyFeeders(
        p, nec(),
        listOf("From,To,Volts,Ph,Breaker\nUtility,MSB,480,3,400\nMSB,LP-1,480,3,100\nGEN-1,EP-1,480,3,100\n", p));
    REQUIRE_FALSE(validate(p));
    CHECK(p.sources.empty());
    CHECK(p.boards.size() == 3); // no board is called Utility or GEN-1
    CHECK(says(a.rows[0].look, "there is no source Utility"));
    CHECK(says(a.rows[2].look, "there is no source GEN-1"));
    CHECK_FALSE(p.boards[boardNamed(p, "MSB")].feed);
    CHECK(p.circuits.has(p.boards[boardNamed(p, "LP-1")].feed.as<Circuit>()));
}

TEST_CASE("a schedule of feeders: two ways in are a supply and what takes over") {
    Project p = supply();
    Source g;
    g.name = "G-1";
    g.kind = SourceKind::Generator;
    g.kva = 150;
    p.sources.add(g);
    const std::string csv = "From,To,Volts,Phases,Breaker,Size\nUtility,MSB,480,3,400,500\nMSB,ATS-1,480,3,100,1\n"
                            "G-1,ATS-1,480,3,,1\nATS-1,EP-1,480,3,100,1\n";
    const FeedersApplied a = applyFeeders(p, nec(), listOf(csv, p));
    REQUIRE_FALSE(validate(p));
    for (const auto& row : a.rows) CHECK_FALSE(row.refused);
    const Board& ats = p.boards[boardNamed(p, "ATS-1")];
    CHECK(nameOf(p, p.circuits[ats.feed.as<Circuit>()].board) == "MSB");
    CHECK(nameOf(p, ats.alternate) == "G-1");
    CHECK(p.runs[ats.alternateRun].heldSize == "1");
    CHECK(says(a.rows[2].what, "taken over from G-1"));
}

TEST_CASE("a schedule of feeders: what cannot be read is said in its cell, and enters nothing") {
    const Project p = supply();
    const FeederList list =
        listOf("Feeder,From,To,Load,Unit,Volts,Ph,Breaker,Sets,Conductors,Ground,Conduit,Length,Isc\n"
               "A,Utility,B-1,many,kVA,480,3,100,1,1,8,1,10,10\n"
               "B,Utility,B-2,5,furlongs,480,3,100,1,1,8,1,10,10\n"
               "C,Utility,B-3,5,kVA,lots,3,100,1,1,8,1,10,10\n"
               "D,Utility,B-4,5,kVA,480,7,100,1,1,8,1,10,10\n"
               "E,Utility,B-5,5,kVA,480,3,about 100,1,1,8,1,10,10\n"
               "F,Utility,B-6,5,kVA,480,3,100,0.5,1,8,1,10,10\n"
               "G,Utility,B-7,5,kVA,480,3,100,1,#2N,8,1,10,10\n"
               "H,Utility,B-8,5,kVA,480,3,100,1,1,eight,1,10,10\n"
               "I,Utility,B-9,5,kVA,480,3,100,1,1,8,fat,10,10\n"
               "J,Utility,B-10,5,kVA,480,3,100,1,1,8,1,10 kg,10\n"
               "K,Utility,B-11,5,kVA,480,3,100,1,1,8,1,10,-10\n"
               "L,Utility,,5,kVA,480,3,100,1,1,8,1,10,10\n"
               "M,B-13,B-13,5,kVA,480,3,100,1,1,8,1,10,10\n"
               "N,Utility,B-14,5,kVA,480,3,100,1,7,8,1,10,10\n"
               "A,Utility,B-15,5,kVA,480,3,100,1,1,8,1,10,10\n"
               "P,Utility,B-16,#REF!,kVA,480,3,100,1,1,8,1,10,10\n"
               "Q,Utility,B-17,-5,kVA,480,3,100,1,1,8,1,10,10\n",
               p);
    const char* words[] = {"“many” is not a load",
                           "there is no unit “furlongs”",
                           "“lots” is not a voltage",
                           "“7” is not a number of phases",
                           "“about 100” is not the rating of a device",
                           "“0.5” is not a number of sets",
                           "“#2N” is not a size of conductors",
                           "“eight” is not a size of a protective conductor",
                           "“fat” is not a conduit",
                           "“10 kg” is not a length",
                           "“-10” is not a fault current",
                           "it does not say what it feeds",
                           "B-13 would feed itself",
                           "the rule book has no size 7",
                           "the feeder A stands in line 2 already",
                           "an error of the spreadsheet",
                           "a load of -5 is below nothing"};
    REQUIRE(list.rows.size() == std::size(words));
    for (std::size_t i = 0; i < std::size(words); ++i) {
        INFO(words[i]);
        CHECK(says(list.rows[i], words[i]));
        CHECK(list.rows[i].stops());
    }
    Project q = p;
    (void)applyFeeders(q, nec(), list);
    CHECK(q.boards.empty());
    CHECK(q == p);
}

TEST_CASE("a schedule of cables in metric practice: types of cable are those of the book") {
    Project p = supply();
    p.basis.ruleBook = "bs-7671";
    p.basis.units = UnitSystem::Metric;
    p.basis.smallestBranch = "1";
    p.basis.largestPreferred = "300";
    p.sources.change(p.sources.begin()->id)->system = VoltageSystem::Y400;
    const std::string csv = "Cable no,From,To,kW,Volts,Ph,MCB,Cable type,Cable size,Length (m)\n"
                            "C-1,Substation,MSB,200,400,3,400,Armoured 90 °C,4c × 240,12\n"
                            "C-2,MSB,DB-1,40,400,3,80,armoured 90 °C,\"4c × 25 mm²\",\"35,5\"\n"
                            "C-3,MSB,DB-2,40,400,3,80,knitted,16,20\n";
    const FeederList list = listOf(csv, p);
    REQUIRE(list.rows.size() == 3);
    CHECK(list.rows[0].enters());
    CHECK(list.rows[1].size == "25");
    CHECK(*list.rows[1].length == Approx(35.5));
    CHECK(list.rows[1].unit == LoadUnit::kW);
    CHECK(says(list.rows[2], "the rule book has no cable “knitted”"));
    const FeedersApplied a = applyFeeders(p, bs(), list);
    REQUIRE_FALSE(validate(p));
    CHECK(a.added == 2);
    CHECK(p.runs[p.boards[boardNamed(p, "DB-1")].run].cable == "armoured 90 °C");
    const Results r = solve(p, bs());
    CHECK(r.of(boardNamed(p, "DB-1")).run.size == bs().find("25"));
    CHECK(r.of(boardNamed(p, "DB-1")).demandPower.real() == Approx(40e3)); // kW stay kW
    for (const Snag& s : findSnags(p, bs(), r)) CHECK(std::string(s.rule->id) != "unknown-name");
}

TEST_CASE("a schedule of feeders: other people's habits, and what is taken for something is said") {
    Project p = supply();
    const FeederList list = listOf("FEEDER SCHEDULE,,,,,,\nTag,Fed from,Serves,kW,Voltage,OCPD,Wire,Distance,Isc\n"
                                   "1,Utility Co,\"Panel MDP\",1.2kW,480/277,1200AF,4 x 500,1'6\",\"65,000\"\n"
                                   "2,MDP,LP-1,\"1,200\",480,100,4#1,36 m,22 kA\n"
                                   "3,MDP,Exhaust fan EF-1,7-1/2 hp,480,20,3#12,40,n/a\n",
                                   p);
    REQUIRE(list.rows.size() == 3);
    CHECK(says(list.rows[0], "“1200AF” is not the rating of a device"));
    CHECK(says(list.rows[0], "“4 x 500” is taken as 4 conductors of 500, not as 4 sets"));
    CHECK(says(list.rows[0], "“65,000” is taken as 65.0 kA"));
    CHECK(*list.rows[0].length == Approx(1.5 * 0.3048));
    CHECK(*list.rows[1].load == 1200);
    CHECK(list.rows[1].unit == LoadUnit::kW);
    CHECK(*list.rows[1].length == Approx(36));
    CHECK(*list.rows[2].load == 7.5);
    CHECK(list.rows[2].unit == LoadUnit::hp);
    CHECK(*list.rows[2].length == Approx(40 * 0.3048));
    CHECK_FALSE(list.rows[2].faultKA);
    const FeedersApplied a = applyFeeders(p, nec(), list);
    // The first row stays out, so nothing is known to feed MDP; that is said, and the rest stands.
    CHECK(says(a.notes, "MDP is made as a switchboard; the list does not say what feeds it"));
    CHECK(boardNamed(p, "LP-1"));
    CHECK(says(a.rows[2].what, "load Exhaust fan EF-1 made on MDP-"));
}

TEST_CASE("the feeders of the demos, written and read: every row enters, and a second time nothing changes") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        INFO(name);
        const Demo demo(name);
        std::string csv;
        for (const auto& row : feedersOf(demo.p, demo.book, demo.r)) {
            for (const std::string& cell : row) csv += (&cell == &row.front() ? "\"" : ",\"") + cell + "\"";
            csv += "\n";
        }
        Project p = demo.p;
        const FeederList list = listOf(csv, p);
        for (const FeederRow& r : list.rows) {
            INFO(r.from << " – " << r.to << (r.problems.empty() ? "" : ": " + r.problems.front().text));
            CHECK(r.problems.empty());
        }
        const FeedersApplied a = applyFeeders(p, demo.book, list);
        REQUIRE_FALSE(validate(p));
        for (std::size_t i = 0; i < a.rows.size(); ++i) {
            INFO(list.rows[i].to << (a.rows[i].look.empty() ? "" : ": " + a.rows[i].look.front()));
            CHECK_FALSE(a.rows[i].refused);
            CHECK_FALSE(a.rows[i].fresh); // all of it is there
        }
        // Held as it was sized, everything comes out as before.
        const Results r = solve(p, demo.book);
        for (Ref thing : demo.r.order) {
            INFO(nameOf(p, thing));
            CHECK(r.node(thing)->parent == demo.r.node(thing)->parent);
            CHECK(r.node(thing)->connected == Approx(demo.r.node(thing)->connected));
            CHECK(r.node(thing)->run.size == demo.r.node(thing)->run.size);
            CHECK(r.node(thing)->run.sets == demo.r.node(thing)->run.sets);
        }
        Project twice = p;
        const FeedersApplied b = applyFeeders(twice, demo.book, list);
        CHECK(b.changed == 0);
        CHECK(twice == p);
    }
}

TEST_CASE("what a list of feeders said is held against what is worked out") {
    Project p = supply();
    (void)applyFeeders(p, nec(), listOf(office, p));
    const Results r = solve(p, nec());
    std::string text;
    for (const Snag& s : findSnags(p, nec(), r))
        if (std::string(s.rule->id) == "listed-figures") text += s.text + "\n";
    // F-2: 42 kA behind the service, 25 ft of 4 × 350 kcmil and 120 ft of 1 AWG are far from 14.2 kA at its end.
    CHECK(text.find("F-2: ") != std::string::npos);
    CHECK(text.find("kA at its end, listed 14.2") != std::string::npos);
    // The service carries 62 + 48 + 40 kVA and a motor of 28, where the list has 410.
    CHECK(text.find("kVA demand, listed 410.0") != std::string::npos);
    CHECK(text.find("F-6") == std::string::npos); // 40 kVA and nothing else is said of it
}

TEST_CASE("a schedule of feeders: a chain of any length, a circle, and one load twice") {
    Project p = supply();
    std::string chain = "From,To,Volts,Phases,Breaker\nUtility,B-0,480,3,100\n";
    constexpr int boards = 1500;
    for (int i = boards; i > 0; --i) // told from the far end
        chain += "B-" + std::to_string(i - 1) + ",B-" + std::to_string(i) + ",480,3,100\n";
    const FeedersApplied a = applyFeeders(p, nec(), listOf(chain, p));
    CHECK(a.added == boards + 1);
    CHECK(a.refused == 0);
    REQUIRE_FALSE(validate(p));
    Project q = supply();
    const FeedersApplied circle =
        applyFeeders(q, nec(), listOf("From,To,Volts,Phases,Breaker\nB-1,B-2,480,3,100\nB-2,B-1,480,3,100\n", q));
    REQUIRE_FALSE(validate(q));
    CHECK(circle.refused == 1); // one of the two cannot feed the other
    CHECK(says(circle.rows[1].look, "B-1"));
    Project twice = supply();
    const FeedersApplied b = applyFeeders(
        twice, nec(),
        listOf(
            "From,To,Volts,Phases,Breaker,Load\nUtility,MSB,480,3,400,\nMSB,Lift,480,3,60,20\nMSB-2,Lift,480,3,60,20\n",
            twice));
    REQUIRE_FALSE(validate(twice));
    CHECK(std::count_if(twice.circuits.begin(), twice.circuits.end(),
                        [](const Circuit& c) { return c.name == "Lift"; }) == 1);
    CHECK(b.rows[2].refused);
}

TEST_CASE(
    "the feeders of thirty buildings, written and read: nothing is refused, nothing is made, and the loads stay") {
    for (std::uint32_t seed = 1; seed <= 30; ++seed) {
        INFO("seed " << seed);
        Project p = randomBuilding(seed, 3 + int(seed) % 15);
        if (seed % 2) equip(p, seed);
        const Results was = solve(p, nec());
        Grid grid;
        grid.rows = feedersOf(p, nec(), was);
        const FeederList list = readFeeders(grid, guessFeederSettings(grid, p.basis.units), nec());
        Project q = p;
        const FeedersApplied a = applyFeeders(q, nec(), list);
        REQUIRE_FALSE(validate(q));
        for (std::size_t i = 0; i < a.rows.size(); ++i) {
            INFO(list.rows[i].from << " – " << list.rows[i].to
                                   << (a.rows[i].look.empty() ? "" : ": " + a.rows[i].look.front()));
            for (const ListProblem& problem : list.rows[i].problems) UNSCOPED_INFO(problem.text);
            CHECK_FALSE(list.rows[i].stops());
            CHECK_FALSE(a.rows[i].refused);
            CHECK_FALSE(a.rows[i].fresh);
        }
        const Results r = solve(q, nec());
        for (Ref thing : was.order) {
            INFO(nameOf(p, thing));
            CHECK(r.node(thing)->parent == was.node(thing)->parent);
            CHECK(r.node(thing)->connected == Approx(was.node(thing)->connected));
        }
        Project twice = q;
        CHECK(applyFeeders(twice, nec(), list).changed == 0);
        CHECK(twice == q);
    }
}
