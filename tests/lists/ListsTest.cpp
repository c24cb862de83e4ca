// The lists an office issues: their figures are those of the results, nothing is cut, and their sheets hold every text.

#include "core/base/Format.h"
#include "core/check/Assumptions.h"
#include "core/drawing/TextWidth.h"
#include "core/lists/ListForms.h"
#include "core/lists/TakeOffRules.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "core/sheets/TitleBlock.h"
#include "core/solve/ConductorSizing.h"
#include "tests/Building.h"
#include "tests/Demo.h"
#include "tests/TextsApart.h"

#include <fmt/format.h>
#include <map>
#include <numeric>
#include <set>

using namespace lintel;

namespace {

struct Listed : Demo {
    using Demo::Demo;
    List list(const char* key) const { return listKind(key)->make(in); }
};

const ListEntry& rowOf(const List& list, const std::string& first, std::size_t column = 0) {
    for (const ListEntry& r : list.rows)
        if (column < r.cells.size() && r.cells[column].text == first) return r;
    throw std::runtime_error("no row " + first);
}
std::size_t columnOf(const List& list, const std::string& heading) {
    for (std::size_t i = 0; i < list.columns.size(); ++i)
        if (list.columns[i].heading == heading) return i;
    throw std::runtime_error("no column " + heading);
}
const ListCell& cellOf(const List& list, const std::string& row, const std::string& heading, std::size_t by = 0) {
    return rowOf(list, row, by).cells[columnOf(list, heading)];
}

} // namespace

TEST_CASE("feeder schedule: HM-2 of Saltmarket Hall as worked by hand, the alternate run beside the normal one") {
    const Listed d("saltmarket-hall");
    const List l = d.list("feeders");
    // 97.6 kVA of demand: 117.4 A; 125 A; #1 carries 130 A at 75 °C; 129 ft.
    CHECK(cellOf(l, "HM-2", "From", 2).text == "MDS-26");
    CHECK(cellOf(l, "HM-2", "Device", 2).text == "125/3");
    CHECK(*cellOf(l, "HM-2", "Load", 2).value == Approx(97594 / 480.0 / std::sqrt(3.0)).epsilon(0.001));
    CHECK(*cellOf(l, "HM-2", "Carries", 2).value == 130);
    CHECK(*cellOf(l, "HM-2", "Used", 2).value == Approx(117.387 / 1.3).epsilon(0.001));
    CHECK(cellOf(l, "HM-2", "Conductors of each set, ground", 2).text == "4 #1, #6 gnd");
    // √3 · 117.4 A · 129.2 ft of #1 in steel (0.16 Ω/kft at 0.9) of 480 V: about 0.9 %.
    CHECK(*cellOf(l, "HM-2", "Drop own", 2).value == Approx(0.9).margin(0.1));
    CHECK(cellOf(l, "ATS-1, alternate", "From", 2).text == "GD-1");
    // Every thing that is fed has a row, and no other.
    std::size_t fed = 0;
    for (Ref thing : d.r.order) fed += bool(d.r.node(thing)->parent);
    CHECK(l.rows.size() == fed + 1);
}

TEST_CASE("protective devices: the largest fault of any state against the rating, too low a rating in red") {
    const Listed d("saltmarket-hall");
    const List l = d.list("protection");
    CHECK(cellOf(l, "HM-1", "Used").ink == Ink::Stop); // 15 kA on 14
    CHECK(*cellOf(l, "HM-1", "Used").value == Approx(15.043 / 14 * 100).epsilon(0.001));
    CHECK(cellOf(l, "MDS", "Used").ink == Ink::Ink);
    CHECK(cellOf(l, "LP-3", "Devices").text.find("20 × 24") != std::string::npos);
    CHECK(l.rows.size() == d.p.boards.size());
}

TEST_CASE("demand from the service down: kinds add up to what is connected, boards of one phase have one line") {
    const Listed d("brindle-pier");
    const List l = d.list("demand");
    CHECK(cellOf(l, "DB-8", "L2").text == "–");
    double apart = 0;
    bool kinds = false;
    for (const ListEntry& r : l.rows) {
        if (r.kind == ListEntry::Kind::Group) kinds = true;
        if (kinds && r.kind == ListEntry::Kind::Figures) apart += *r.cells[2].value;
    }
    // Apparent powers of kinds with different power factors add up to no less than the whole.
    CHECK(apart >= *cellOf(l, "Together", "Connected").value);
    CHECK(*cellOf(l, "Together", "Connected").value == Approx(*cellOf(l, "Substation", "Connected").value));
}

namespace {
/// Feet of conductors of a size, by what they are; to the foot.
using Conductors = std::map<std::string, double>;
Conductors conductors(const List& list, const std::string& size) {
    Conductors out;
    for (const ListEntry& r : list.rows)
        if (r.cells.size() > 2 && r.cells[1].text == size && r.cells[0].text.find(", ") != std::string::npos)
            out[r.cells[0].text] = std::round(r.cells[2].value.value_or(-1));
    return out;
}
} // namespace

TEST_CASE("take-off: conductors and conduit of a small project counted by hand, unknown lengths told and left out") {
    OneBoard w;
    w.p.basis.slack = 0;
    const CircuitId a = w.circuit(600, LoadUnit::VA, 1, 100), b = w.circuit(700, LoadUnit::VA, 1, 50);
    w.circuit(900);
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    const List l = listKind("take-off")->make(in);
    // Each of the two: a line and a neutral of #12, and a ground of #12: 150 ft of each. Both begin on line A: places 1
    // and 2 of a board of two columns. The feeder is a millimetre long.
    CHECK(nec().sizes()[std::size_t(r.of(a).run.size)].name == "12");
    CHECK(nec().sizes()[std::size_t(r.of(b).run.size)].name == "12");
    CHECK(conductors(l, "#12") == Conductors{{"copper, black", 150}, {"copper, green", 150}, {"copper, white", 150}});
    CHECK(*cellOf(l, "1/2", "Amount", 1).value == Approx(150).margin(0.1));
    CHECK(*cellOf(l, "20", "Amount", 1).value == 3);
    bool told = false;
    for (const std::string& n : l.notes) told = told || n.find("1 run has no known length") == 0;
    CHECK(told);
    // In one raceway the conduit and the ground are there once, as far as the longer of the two goes.
    w.p.circuits.change(a)->bundle = w.p.circuits.change(b)->bundle = 1;
    const Results together = w.solved();
    const SheetInput again{w.p, nec(), together};
    const List shared = listKind("take-off")->make(again);
    double conduit = 0;
    for (const ListEntry& row : shared.rows)
        if (row.cells[0].text == "EMT") conduit += *row.cells[2].value;
    CHECK(conduit == Approx(100).margin(0.1));
    CHECK(conductors(shared, "#12") ==
          Conductors{{"copper, black", 150}, {"copper, green", 100}, {"copper, white", 150}});
    // Three of a multiwire group, 100 ft each: three lines, one neutral, one ground and one conduit.
    OneBoard m;
    m.p.basis.slack = 0;
    for (int i = 0; i < 3; ++i) {
        Circuit& c = *m.p.circuits.change(m.circuit(600, LoadUnit::VA, 1, 100));
        c.slot = 1 + 2 * i, c.multiwire = 1;
    }
    const Results of = m.solved();
    const List group = listKind("take-off")->make({m.p, nec(), of});
    CHECK(conductors(group, "#12") == Conductors{{"copper, black", 100},
                                                 {"copper, blue", 100},
                                                 {"copper, green", 100},
                                                 {"copper, red", 100},
                                                 {"copper, white", 100}});
    CHECK(*cellOf(group, "1/2", "Amount", 1).value == Approx(100).margin(0.1));
}

TEST_CASE("take-off: boxes and fittings by the rules of the office, counted by hand and told below the list") {
    OneBoard w;
    w.p.basis.slack = 0;
    w.p.basis.waste = 0.1; // of lengths; pieces are as the rules say
    const CircuitId a = w.circuit(600, LoadUnit::VA, 1, 100), b = w.circuit(700, LoadUnit::VA, 1, 50);
    w.circuit(900); // nobody knows how long
    DeviceType outlet;
    outlet.name = "Duplex receptacle";
    const DeviceTypeId type = w.p.deviceTypes.add(outlet);
    const LevelId level = w.p.levels.begin()->id;
    for (int i = 0; i < 3; ++i) {
        Device d;
        d.type = type;
        d.level = level;
        w.p.devices.add(d);
    }
    w.p.basis.takeOffRules = *takeOffRulesFrom("Box | 1 each device | RECEPTACLE\n"
                                               "Cover | 2 each device | luminaire\n"
                                               "Connector | each end | emt\n"
                                               "Coupling | 1 every 10 ft | EMT | lengths of 10 ft\n"
                                               "Strap | 1.5 every 8 ft",
                                               UnitSystem::Imperial);
    const Results r = w.solved();
    const List l = listKind("take-off")->make({w.p, nec(), r});
    CHECK(*cellOf(l, "Box, RECEPTACLE", "Amount").value == 3);
    CHECK(*cellOf(l, "Box, RECEPTACLE", w.p.levels.begin()->name).value == 3);
    // Two conduits of 1/2 and that of the feeder, a millimetre long.
    const auto pieces = [](const List& list, const std::string& item, const std::string& size) {
        for (const ListEntry& row : list.rows)
            if (row.cells[0].text == item && row.cells[1].text == size) return *row.cells[2].value;
        return 0.0;
    };
    CHECK(pieces(l, "Connector, EMT", "1/2") == 4);
    // Nothing of these circuits is drawn: they end where their board stands.
    w.p.boards.change(w.board)->level = level;
    const Results placed = w.solved();
    const List byFloor = listKind("take-off")->make({w.p, nec(), placed});
    const std::string floor = w.p.levels.begin()->name;
    CHECK(*cellOf(byFloor, "1/2", floor, 1).value == *cellOf(byFloor, "1/2", "Amount", 1).value);
    CHECK(*cellOf(byFloor, "20", floor, 1).value == 3);
    CHECK(pieces(l, "Coupling, EMT", "1/2") == 15); // 10 and 5
    CHECK(pieces(l, "Strap, EMT", "1/2") == 30);    // (13 + 7) · 1.5: 12.5 and 6.25 lengths are begun
    const std::string notes = std::accumulate(l.notes.begin(), l.notes.end(), std::string());
    CHECK(notes.find("Cover: 2 for each device, of \"luminaire\". There is none.") != std::string::npos);
    CHECK(notes.find("Coupling: 1 for every 10 ft of a run that is begun, of \"EMT\" (lengths of 10 ft).") !=
          std::string::npos);
    // In one raceway two circuits have two ends together, and its length is that of the longer.
    w.p.circuits.change(a)->bundle = w.p.circuits.change(b)->bundle = 1;
    const Results together = w.solved();
    const List shared = listKind("take-off")->make({w.p, nec(), together});
    CHECK(pieces(shared, "Connector, EMT", "1/2") == 2);
    CHECK(pieces(shared, "Coupling, EMT", "1/2") == 10);
}

TEST_CASE("rules of the take-off: typed, written and read again as they were; what cannot be read is said") {
    const std::string lines = "Box | 1 each device | receptacle\n"
                              "Gland | 2 each end\n"
                              "Strap | 1.5 every 10 ft | EMT | 358.30(A)\n"
                              "Tie | 1 every 2.5 ft |  | custom";
    const auto rules = takeOffRulesFrom(lines, UnitSystem::Imperial);
    REQUIRE(rules);
    CHECK((*rules)[2].every == Approx(3.048));
    CHECK(linesOf(*rules, UnitSystem::Imperial) == lines);
    CHECK(*takeOffRulesFrom(linesOf(*rules, UnitSystem::Metric), UnitSystem::Metric) == *rules);
    CHECK(takeOffRuleFrom("Strap|every 3", UnitSystem::Metric)->every == 3);
    CHECK(takeOffRuleFrom("Strap | every 3", UnitSystem::Imperial)->every == Approx(0.9144));
    for (const char* bad : {"Box", "Box | each room", "| 1 each device", "Box | 0 each device", "Box | -1 each end",
                            "Box | two each end", "Box | 1 every", "Box | 1 every 1.2kVA", "Box | 1 every 0 m",
                            "Box | 1 every 99999 m", "a | 1 each end | b | c | d"}) {
        INFO(bad);
        const auto rule = takeOffRuleFrom(bad, UnitSystem::Metric);
        CHECK_FALSE(rule);
        if (!rule) CHECK(rule.error().text().find(bad) != std::string::npos);
    }
    Project p;
    p.basis.takeOffRules = *rules;
    CHECK_FALSE(validate(p));
    CHECK(readProject(writeProject(p), "p")->basis.takeOffRules == *rules);
    p.basis.takeOffRules[0].of = "a | b"; // could not be read from its line again
    CHECK(validate(p));
}

TEST_CASE("luminaires by their marks, with symbol, lamp and description; those without a mark last") {
    OneBoard w;
    const auto type = [&](const char* name, const char* mark) {
        DeviceType t;
        t.name = name;
        t.kind = LoadKind::Lighting;
        t.symbol = Symbol::Downlight;
        t.load = 12;
        t.mark = mark;
        const DeviceTypeId id = w.p.deviceTypes.add(t);
        Device d;
        d.type = id;
        d.level = w.p.levels.begin()->id;
        w.p.devices.add(d);
        return id;
    };
    type("Strip", "");
    const DeviceTypeId b10 = type("Cove", "B10");
    type("Downlight", "B2");
    w.p.deviceTypes.change(b10)->lamp = "LED 3000 K";
    w.p.deviceTypes.change(b10)->description = "In the cove\nof the hall";
    const Results r = w.solved();
    const List l = listKind("luminaires")->make({w.p, nec(), r});
    REQUIRE(l.rows.size() == 4);
    CHECK(l.rows[0].cells[0].text == "B2");
    CHECK(l.rows[1].cells[0].text == "B10");
    CHECK(l.rows[2].cells[columnOf(l, "Type")].text == "Strip");
    CHECK(cellOf(l, "B10", "Lamp").text == "LED 3000 K");
    CHECK(cellOf(l, "B10", "Description").text == "In the cove of the hall");
    CHECK(cellOf(l, "B10", "Symbol").symbol == Symbol::Downlight);
    // On the sheet the symbol is drawn; in a spreadsheet its word stands there.
    const SheetInput in{w.p, nec(), r};
    const auto sheets = listSheets(in, {l}, 801);
    REQUIRE(sheets.size() == 1);
    CHECK(sheets[0].symbols.size() == 3);
    CHECK(sheets[0].words().find("downlight") == std::string::npos);
    CHECK(gridOf(l)[1][1] == "downlight");
}

TEST_CASE("runs raised above ampacity: sizes, drop before and after, kilograms by hand") {
    OneBoard w;
    w.circuit(1920, LoadUnit::VA, 1, 150); // 16 A over 150 ft: #12 loses 8 %, #8 3.1 %, #6 2 %
    const Results r = w.solved();
    const List l = listKind("raised")->make({w.p, nec(), r});
    REQUIRE(l.rows.size() == 2);
    CHECK(l.rows[0].cells[columnOf(l, "Size for ampacity")].text == "#12");
    CHECK(l.rows[0].cells[columnOf(l, "Size chosen")].text == "#6");
    CHECK(*l.rows[0].cells[columnOf(l, "Drop before")].value == Approx(8.0).margin(0.05));
    CHECK(*l.rows[0].cells[columnOf(l, "Drop after")].value == Approx(2.0).margin(0.05));
    // (26.24 − 6.53) kcmil · 0.5067 mm² · 45.72 m · 2 · 8 890 kg/m³
    CHECK(*l.rows[0].cells[columnOf(l, "More conductor")].value == Approx(8.12).epsilon(0.01));
}

TEST_CASE("motors and luminaires: as they were entered, with the current of the table; counts by floor add up") {
    const Listed d("saltmarket-hall");
    const List motors = d.list("motors");
    CHECK(cellOf(motors, "Supply fan SF-1", "Each", 1).text == "15 hp");
    CHECK(*cellOf(motors, "Supply fan SF-1", "Current, each", 1).value == Approx(21)); // Table 430.250
    CHECK(cellOf(motors, "Condensate pump", "Current, each", 1).ink == Ink::Stop);
    const List lights = d.list("luminaires");
    int devices = 0;
    for (const Device& x : d.p.devices)
        devices += d.p.deviceTypes[x.type].kind == LoadKind::Lighting && d.p.deviceTypes[x.type].load > 0;
    CHECK(*cellOf(lights, "Total", "All", 2).value == devices);
    for (const ListEntry& r : lights.rows) {
        double sum = 0;
        for (std::size_t c = columnOf(lights, "Connection") + 1; c + 1 < r.cells.size(); ++c)
            sum += r.cells[c].value.value_or(0);
        CHECK(sum == *r.cells.back().value);
    }
}

TEST_CASE("every list: rows as wide as their headings, numbers in the table as in the list, keys of their own") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        const Listed d(name);
        std::set<std::string> keys, titles;
        for (const ListKind& k : listKinds()) {
            const List l = k.make(d.in);
            INFO(name << " " << k.key);
            CHECK(l.key == k.key);
            CHECK(keys.insert(l.key).second);
            CHECK(titles.insert(l.title).second);
            for (const ListEntry& r : l.rows) CHECK(r.cells.size() <= l.columns.size());
            const auto grid = gridOf(l);
            REQUIRE(grid.size() == 1 + l.rows.size() + l.notes.size());
            CHECK(grid[0].size() == l.columns.size());
        }
        CHECK_FALSE(d.list("circuits").rows.empty());
        CHECK(d.list("circuits").rows.size() == d.p.circuits.size());
    }
}

namespace {
/// Whether a text of a list stands whole on its sheets: its words in order, each somewhere.
bool stands(const std::string& words, const std::string& text) {
    std::size_t from = 0;
    while (from < text.size()) {
        const std::size_t to = std::min(text.find(' ', from), text.size());
        if (to > from && words.find(text.substr(from, std::min<std::size_t>(to - from, 12))) == std::string::npos)
            return false;
        from = to + 1;
    }
    return true;
}
} // namespace

TEST_CASE("lists on sheets: every text is there, none is squeezed, none leaves the frame or touches its neighbour") {
    const auto look = [](const SheetInput& in) {
        std::vector<List> lists;
        for (const ListKind& k : listKinds()) lists.push_back(k.make(in));
        const auto sheets = listSheets(in, lists, 801);
        REQUIRE_FALSE(sheets.empty());
        std::string words;
        for (const Drawing& d : sheets) {
            words += d.words();
            const SheetFrame f = sheetFrame(d, in);
            const auto inFrame = [&](const TextMark& t) {             // the strip has its own test
                const bool basis = t.within > 0 && t.at.y > f.bottom; // below the border
                return boxOf(t).left <= f.right && !basis;
            };
            for (const Mark& m : d.marks)
                if (const auto* t = std::get_if<TextMark>(&m); t && inFrame(*t)) {
                    const TextBox box = boxOf(*t);
                    INFO(t->text);
                    CHECK(t->within == 0);
                    CHECK(box.left >= f.left);
                    CHECK(box.right <= f.right + 0.01);
                    CHECK(t->at.y <= f.bottom);
                }
            for (const std::string& both : textsOnTexts(d, inFrame)) FAIL_CHECK(both);
        }
        for (const List& l : lists) {
            for (const ListEntry& r : l.rows)
                for (const ListCell& c : r.cells)
                    if (!c.symbol && !stands(words, c.text)) FAIL_CHECK(l.key << ": " << c.text);
            for (const std::string& n : l.notes)
                if (!l.rows.empty() && !stands(words, n)) FAIL_CHECK(l.key << ": " << n);
        }
    };
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) look(Demo(name).in);
    // Forty boards with long names, floors with longer ones.
    Project big = randomBuilding(7, 40);
    int n = 0;
    for (const Board& b : big.boards)
        big.boards.change(b.id)->name = "Distribution board of the north-western market hall " + std::to_string(n++);
    for (const Level& l : big.levels) big.levels.change(l.id)->name = "Mezzanine above the covered fish market hall";
    const Results r = solve(big, nec());
    look({big, nec(), r});
}

TEST_CASE("an empty project has no lists, and no sheets of them") {
    const Project p;
    const Results r = solve(p, nec());
    const SheetInput in{p, nec(), r};
    std::vector<List> lists;
    for (const ListKind& k : listKinds()) lists.push_back(k.make(in));
    for (const List& l : lists) {
        INFO(l.key);
        CHECK(l.rows.empty());
    }
    CHECK(listSheets(in, lists, 801).empty());
}

TEST_CASE("drawing index: every sheet of the set once, itself among them, and what the design rests on") {
    for (const char* name : {"saltmarket-hall", "brindle-pier"}) {
        const Listed d(name);
        const auto set = issueSet(d.in);
        REQUIRE(set.front().number == "E-001");
        const std::string words = "\n" + set.front().draw().words();
        for (const SheetEntry& e : set) {
            INFO(e.number);
            CHECK(words.find("\n" + e.number + "\n" + e.title + "\n") != std::string::npos);
        }
        CHECK(words.find("\n" + d.book.title + "\n") != std::string::npos);
        CHECK(words.find("feeders " + rating(d.p.basis.feederDropLimit) + " %, branch circuits ") != std::string::npos);
    }
    // Five hundred schedules take more than one index sheet, and all stand in it.
    Project big;
    for (int i = 0; i < 500; ++i) {
        Board b;
        b.name = fmt::format("LP-{}", i + 1);
        big.boards.add(b);
    }
    const Results r = solve(big, nec());
    const SheetInput in{big, nec(), r};
    const auto set = issueSet(in);
    std::string words;
    std::size_t own = 0;
    for (const SheetEntry& e : set)
        if (e.number[2] == '0') {
            words += e.draw().words();
            ++own;
        }
    CHECK(own >= 2);
    std::set<std::string> numbers;
    for (const SheetEntry& e : set) {
        INFO(e.number << " " << e.title);
        CHECK(words.find(e.number + "\n" + e.title + "\n") != std::string::npos);
        CHECK(numbers.insert(e.number).second); // no two sheets have the same
    }
}

TEST_CASE("a note of a list for which there is no room goes on on a sheet that is called after the list") {
    const Demo demo("saltmarket-hall");
    // However the rows end: the sheet on which the note stands has a name.
    for (int rows = 300; rows < 460; rows += 7) {
        List list{"feeders", "Feeder schedule", {{"Feeder"}, {"What it is"}}, {}, {}};
        for (int i = 0; i < rows; ++i) list.add({}, {{"F-" + std::to_string(i)}, {"a feeder"}});
        for (int i = 0; i < 4; ++i) list.notes.push_back(std::string(160, 'n') + " note " + std::to_string(i));
        const auto sheets = listSheets(demo.in, {list}, 801);
        std::size_t notes = 0;
        for (const Drawing& d : sheets) {
            INFO(rows << " rows, " << d.number);
            CHECK(d.title == "Feeder schedule");
            for (const Mark& m : d.marks)
                if (const auto* t = std::get_if<TextMark>(&m)) notes += t->text.find("note ") != std::string::npos;
        }
        CHECK(notes == 4);
    }
}

TEST_CASE("a row of a list that is higher than a sheet ends, and loses none of the rows after it") {
    const Demo demo("saltmarket-hall");
    List list{"feeders", "Feeder schedule", {{"Feeder"}, {"What it is"}}, {}, {}};
    std::string long_;
    for (int i = 0; i < 3000; ++i) long_ += "word ";
    for (int i = 0; i < 3; ++i) list.add({}, {{"F-" + std::to_string(i)}, {i == 1 ? long_ : "a feeder"}});
    std::set<std::string> seen;
    for (const Drawing& d : listSheets(demo.in, {list}, 801))
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m)) seen.insert(t->text);
    for (const char* name : {"F-0", "F-1", "F-2"}) CHECK(seen.count(name));
}

TEST_CASE("a list by a form of the office: order, headings, hidden columns and title; figures and totals stay") {
    Demo d("saltmarket-hall");
    const ListKind& kind = *listKind("feeders");
    const List usual = kind.make(d.in);
    const auto& at = columnOf;
    ListForm form;
    form.title = "Conductor schedule";
    form.columns = columnsOf(usual, nullptr);
    const std::size_t from = at(usual, "From"), to = at(usual, "To"), length = at(usual, "Length");
    std::swap(form.columns[from], form.columns[to]);
    form.columns[length].heading = "Run";
    form.columns[at(usual, "Conduit")].hidden = true;
    Project p = d.p;
    shapeList(p, usual, form);
    REQUIRE(p.listForms.size() == 1);
    const SheetInput in{p, d.book, d.r};
    const List ours = formedList(in, kind);
    CHECK(ours.title == "Conductor schedule");
    CHECK(ours.columns.size() == usual.columns.size() - 1);
    CHECK(at(ours, "To") < at(ours, "From"));
    REQUIRE(ours.rows.size() == usual.rows.size());
    for (std::size_t i = 0; i < usual.rows.size(); ++i) {
        if (usual.rows[i].kind != ListEntry::Kind::Figures) continue;
        CHECK(ours.rows[i].cells[at(ours, "To")].text == usual.rows[i].cells[to].text);
        CHECK(ours.rows[i].cells[at(ours, "Run")].text == usual.rows[i].cells[length].text);
        CHECK(ours.rows[i].about == usual.rows[i].about);
    }
    CHECK(gridOf(ours).front()[at(ours, "Run")].rfind("Run", 0) == 0); // the unit stays in the heading
    // It is on the sheets so, and off them where somebody says so.
    const auto onSheets = [&] {
        std::string words;
        for (const Drawing& s : listSheets(in, listsOf(in, true), 801)) words += s.words();
        return words;
    };
    CHECK(onSheets().find("Conductor schedule\n") != std::string::npos);
    form.offSheets = true;
    shapeList(p, usual, form);
    CHECK(p.listForms.size() == 1);
    CHECK(onSheets().find("Conductor schedule\n") == std::string::npos);
    CHECK(listsOf(in, false).size() == listsOf(d.in, false).size()); // in the workbook it stays
    // A form that says nothing goes.
    ListForm nothing;
    nothing.columns = columnsOf(usual, nullptr);
    shapeList(p, usual, nothing);
    CHECK(p.listForms.empty());
    // All columns hidden: the list is as it comes, rather than nothing.
    for (ListFormColumn& c : form.columns) c.hidden = true;
    CHECK(formed(usual, &form).columns.size() == usual.columns.size());
}

TEST_CASE("rows of a list in the order of a column, and together by one, with their sums") {
    List list;
    list.key = "made";
    list.columns = {{"Name"}, {"Kind"}, {"kVA", "", Align::Right}};
    const auto row = [&](const char* name, const char* kind, double kva) {
        list.add({}, {{name}, {kind}, numberCell(kva)});
    };
    row("LP-10", "Lighting", 4);
    row("LP-2", "Power", 30);
    list.add({}, {{""}, {"Power"}, numberCell(1)}); // goes on from LP-2
    row("LP-1", "", 7);
    row("LP-3", "Lighting", 12);
    list.total({{"Total"}, {}, numberCell(54)});
    const auto names = [](const List& l) {
        std::string all;
        for (const ListEntry& r : l.rows) all += (r.cells[0].text.empty() ? "+" : r.cells[0].text) + " ";
        return all;
    };
    ListForm form;
    form.sortBy = "Name";
    CHECK(names(formed(list, &form)) == "LP-1 LP-2 + LP-3 LP-10 Total ");
    form.sortBy = "kVA";
    CHECK(names(formed(list, &form)) == "LP-10 LP-1 LP-3 LP-2 + Total ");
    form.backwards = true;
    CHECK(names(formed(list, &form)) == "LP-2 + LP-3 LP-1 LP-10 Total ");
    // What says nothing under a column stands last, whichever way.
    form.sortBy = "Kind";
    CHECK(names(formed(list, &form)) == "LP-2 + LP-10 LP-3 LP-1 Total ");
    form.backwards = false;
    CHECK(names(formed(list, &form)) == "LP-10 LP-3 LP-2 + LP-1 Total ");
    // Together by kind: 4 + 12, 30 + 1, 7.
    form.sortBy = "Name";
    form.groupBy = "Kind";
    const List grouped = formed(list, &form);
    CHECK(names(grouped) == "Kind: Lighting LP-3 LP-10 Lighting, together Kind: Power LP-2 + Power, together "
                            "Kind: Not said LP-1 Not said, together Total ");
    CHECK(grouped.rows[3].cells[2].value == 16.0);
    CHECK(grouped.rows[7].cells[2].value == 31.0);
    CHECK(grouped.rows[0].kind == ListEntry::Kind::Group);
    CHECK(grouped.rows[3].kind == ListEntry::Kind::Total);
    // The column by which they stand together can be left out; a heading that the list has not changes nothing.
    form.columns = {{"Kind", "", true}};
    CHECK(formed(list, &form).columns.size() == 2);
    CHECK(names(formed(list, &form)) == names(grouped));
    form = {};
    form.sortBy = "Colour";
    CHECK(names(formed(list, &form)) == names(list));
    // A list with groups of its own keeps them.
    list.rows.insert(list.rows.begin(), {ListEntry::Kind::Group, {}, {{"Ground floor"}}});
    CHECK_FALSE(canGroup(list));
    form = {};
    form.groupBy = "Kind";
    CHECK(names(formed(list, &form)) == names(list));
}

TEST_CASE("what a total is called stays beside it, whatever column is hidden") {
    List list;
    list.key = "feeders";
    list.columns = {{"What"}, {"Where"}, {"Load", "kVA", Align::Right}};
    list.add({}, {{"a"}, {"north"}, numberCell(2)});
    list.total({{"Together"}, {""}, numberCell(2)});
    ListForm form;
    form.columns = {{"Where", "", false}, {"Load", "", false}, {"What", "", true}};
    const List ours = formed(list, &form);
    REQUIRE(ours.rows[1].cells.size() == 2);
    CHECK(ours.rows[1].cells[0].text == "Together");
    CHECK(ours.rows[1].cells[1].text == "2");
    CHECK(ours.rows[0].cells[0].text == "north");
}

TEST_CASE("sections of a board: what stands in each, what it carries and what is free, by ways on a board of ways") {
    OneBoard w(VoltageSystem::Y208, 12);
    w.p.boards.change(w.board)->form = BoardForm::Ways;
    w.circuit(600);
    w.circuit(900);
    const CircuitId third = w.circuit(3000, LoadUnit::VA, 3);
    REQUIRE(w.p.circuits[third].slot == 4);
    w.p.circuits.change(w.circuit(100))->slot = 12;
    Section a;
    a.board = w.board;
    a.name = "Essential";
    a.to = 6;
    a.rating = 63;
    a.residual = 30;
    w.p.sections.add(a);
    Section z = a;
    z.name = "Others";
    z.from = 7;
    z.to = 12;
    z.rating = z.residual = 0;
    z.metered = true;
    w.p.sections.add(z);
    const Results r = w.solved();
    const List l = listKind("sections")->make({w.p, nec(), r});
    REQUIRE(l.rows.size() == 2);
    CHECK(cellOf(l, "Essential", "Places", 1).text == "1–2");
    CHECK(*cellOf(l, "Essential", "Switch", 1).value == 63);
    CHECK(*cellOf(l, "Essential", "Circuits", 1).value == 3);
    CHECK(*cellOf(l, "Essential", "Connected", 1).value == Approx(4.5)); // 600 + 900 + 3000 VA
    CHECK(*cellOf(l, "Essential", "Free places", 1).value == 1);         // slot 3
    CHECK(cellOf(l, "Others", "Places", 1).text == "3–4");
    CHECK(cellOf(l, "Others", "Switch", 1).text == "–");
    CHECK(cellOf(l, "Others", "Metered", 1).text == "yes");
    CHECK(*cellOf(l, "Others", "Free places", 1).value == 5);
}
