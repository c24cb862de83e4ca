// Schedules whose rows stand in an order or in groups of the form, and what their title strip says: nothing is lost,
// and sums are those of the circuits.

#include "core/base/Format.h"
#include "core/figures/ScheduleForms.h"
#include "core/sheets/BoardHead.h"
#include "core/sheets/DoorCard.h"
#include "core/sheets/FormFit.h"
#include "core/sheets/Sheets.h"
#include "tests/World.h"

using namespace lintel;

namespace {

/// The text marks of a drawing from the top down and from the left to the right.
std::vector<std::string> readDown(const Drawing& d) {
    std::vector<const TextMark*> texts;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) texts.push_back(t);
    std::stable_sort(texts.begin(), texts.end(), [](const TextMark* a, const TextMark* b) {
        return std::abs(a->at.y - b->at.y) > 0.3 ? a->at.y < b->at.y : a->at.x < b->at.x;
    });
    std::vector<std::string> words;
    for (const TextMark* t : texts) words.push_back(t->text);
    return words;
}
/// Those of the words that are among `of`, in their order.
std::vector<std::string> only(const std::vector<std::string>& words, const std::vector<std::string>& of) {
    std::vector<std::string> out;
    for (const std::string& w : words)
        if (std::find(of.begin(), of.end(), w) != of.end()) out.push_back(w);
    return out;
}
bool says(const std::vector<std::string>& words, const std::string& text) {
    return std::find(words.begin(), words.end(), text) != words.end();
}

/// A switchboard in a single column with circuits of two kinds, out of order.
struct Single : OneBoard {
    CircuitId pump, lights, hoods, fans;
    Single() : OneBoard(VoltageSystem::Y208, 12) {
        p.boards.change(board)->form = BoardForm::SingleColumn;
        pump = circuit(3000, LoadUnit::VA, 3, -1, LoadKind::Motor);
        lights = circuit(900, LoadUnit::VA, 1, -1, LoadKind::Lighting);
        hoods = circuit(1200, LoadUnit::VA, 1, -1, LoadKind::Motor);
        fans = circuit(500, LoadUnit::VA, 1, -1, LoadKind::Motor);
        name(pump, "Pump"), name(lights, "Lights"), name(hoods, "Hoods"), name(fans, "Fans");
    }
    void name(CircuitId c, const std::string& words) { p.circuits.change(c)->name = words; }
    ScheduleForm& form(const std::vector<FormColumn>& columns) {
        ScheduleForm f;
        f.name = "Ours";
        f.of = BoardForm::SingleColumn;
        f.usual = true;
        f.columns = columns;
        return *p.forms.change(p.forms.add(f));
    }
    std::vector<std::string> drawn() const {
        const Results r = solved();
        return readDown(panelSchedule({p, nec(), r}, board, "E-601"));
    }
};

const std::vector<std::string> names{"Pump", "Lights", "Hoods", "Fans"};

} // namespace

TEST_CASE("a single column in the order of a figure: numbers by value, free places last, every pole still named") {
    Single w;
    ScheduleForm& form = w.form({{"Ckt", "{pole}", 20, {}}, {"Serves", "{serves}", 0, {}}, {"VA", "{VA}", 20, {}}});
    CHECK(only(w.drawn(), names) == std::vector<std::string>{"Pump", "Lights", "Hoods", "Fans"});
    form.sortBy = "VA"; // 500, 900, 1 200, 3 000: not by their first figure
    std::vector<std::string> words = w.drawn();
    CHECK(only(words, names) == std::vector<std::string>{"Fans", "Lights", "Hoods", "Pump"});
    CHECK(says(words, "1,2,3")); // its poles, on one row
    CHECK(std::count(words.begin(), words.end(), "Space") == 6);
    CHECK(only(words, {"Pump", "Space"}).front() == "Pump");
    form.backwards = true;
    words = w.drawn();
    CHECK(only(words, names) == std::vector<std::string>{"Pump", "Hoods", "Lights", "Fans"});
    CHECK(only(words, {"Fans", "Space"}).front() == "Fans");
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    CHECK(writtenInRows(in, w.p.boards[w.board]));
    CHECK(scheduleRows(in, w.p.boards[w.board]) == 10); // four circuits, six free places
}

TEST_CASE("circuits that stand together by a figure have a heading that counts them and adds them up") {
    Single w;
    ScheduleForm& form = w.form({{"Ckt", "{place}", 20, {}}, {"Serves", "{serves}", 0, {}}});
    form.groupBy = "kind";
    form.sortBy = "serves";
    const std::vector<std::string> words = w.drawn();
    // 3 000 + 1 200 + 500 VA
    CHECK(says(words, "Motors · 3 circuits · 4.7 kVA connected"));
    CHECK(says(words, "Lighting · 1 circuit · 0.9 kVA connected"));
    CHECK(says(words, "Free places"));
    CHECK_FALSE(says(words, "Not said · 1 circuit"));
    w.p.circuits.change(addCircuit(w.p, w.board, 1, ""))->use = CircuitUse::Spare;
    CHECK(says(w.drawn(), "Spare · 1 circuit"));
    CHECK(only(words, names) == std::vector<std::string>{"Lights", "Fans", "Hoods", "Pump"});
}

TEST_CASE("a board of ways keeps its sections apart, with what stands in front of them") {
    MetricBoard w;
    std::vector<std::string> serves{"Zeta", "Alpha", "Mid", "Beta"};
    for (const std::string& name : serves) {
        const CircuitId c = w.circuit(500, LoadUnit::VA);
        w.p.circuits.change(c)->name = name;
    }
    Section s;
    s.board = w.board;
    s.name = "Essential";
    s.from = 1, s.to = 3;
    s.rating = 63;
    w.p.sections.add(s);
    std::map<int, std::string> bySlot;
    for (const Circuit& c : w.p.circuits) bySlot[c.slot] = c.name;
    REQUIRE(bySlot.rbegin()->first > 3); // one at least is outside of it
    ScheduleForm form = formOf(w.p, bs(), w.p.boards[w.board]);
    form.id = {};
    form.name = "Ours";
    form.usual = true;
    form.sortBy = "serves";
    w.p.forms.add(form);
    const Results r = solve(w.p, bs());
    const auto words = readDown(panelSchedule({w.p, bs(), r}, w.board, "E-601"));
    std::vector<std::string> inside, outside;
    for (const auto& [slot, name] : bySlot) (slot <= 3 ? inside : outside).push_back(name);
    std::sort(inside.begin(), inside.end());
    std::sort(outside.begin(), outside.end());
    std::vector<std::string> wanted = inside;
    wanted.insert(wanted.end(), outside.begin(), outside.end());
    CHECK(only(words, serves) == wanted);
    CHECK(std::any_of(words.begin(), words.end(),
                      [](const std::string& t) { return t.starts_with("Essential · 63 A switch"); }));
}

TEST_CASE("loads by kind in columns of their own: of a circuit with several kinds, and of the board that one feeds") {
    Single w;
    Load more;
    more.circuit = w.lights;
    more.kind = LoadKind::Receptacle;
    more.amount = 360;
    more.name = "outlet";
    w.p.loads.add(more);
    Board below;
    below.name = "LP-2";
    below.system = VoltageSystem::Y208;
    below.slots = 12;
    below.bus = 100;
    const CircuitId feeder = addCircuit(w.p, w.board, 3, "LP-2");
    below.feed = feeder;
    const BoardId under = w.p.boards.add(below);
    const CircuitId far = addCircuit(w.p, under, 1, "Sign");
    Load sign;
    sign.circuit = far;
    sign.kind = LoadKind::Lighting;
    sign.amount = 1200;
    sign.name = "sign";
    w.p.loads.add(sign);
    const Results r = w.solved();
    const SheetInput in{w.p, nec(), r};
    const auto said = [&](CircuitId c, const std::string& kind) {
        return Wording::from("{VA " + kind + "}")->of(CircuitFacts(in, c));
    };
    CHECK(said(w.lights, "lighting") == "900");
    CHECK(said(w.lights, "receptacle") == "360");
    CHECK(said(w.lights, "motor") == "");
    CHECK(said(w.hoods, "motor") == "1\u00a0200");
    CHECK(said(feeder, "lighting") == "1\u00a0200");
    CHECK(said(feeder, "receptacle") == "");
    for (const auto& [kind, word] : EnumText<LoadKind>::words) {
        INFO(word);
        CHECK(circuitFigure(std::string("VA ") + word));
        CHECK(kindOfFigure(std::string("VA ") + word) == kind);
    }
}

TEST_CASE("columns for kinds and lines of load are added up below the rows, each by itself; others are not") {
    Single w;
    ScheduleForm& form = w.form({{"Serves", "{serves}", 0, {}}, {"VA", "{VA}", 20, {}}});
    const auto sums = [&] {
        const std::vector<std::string> words = w.drawn();
        const auto at = std::find(words.begin(), words.end(), "Sum");
        // The row below the circuits, up to the headings of the tally.
        return at == words.end() ? std::vector<std::string>()
                                 : std::vector<std::string>(at + 1, std::find(at, words.end(), "Load tally"));
    };
    CHECK(sums().empty()); // the tally says what is connected
    form.columns.push_back({"Motors", "{VA motor}", 20, {}});
    form.columns.push_back({"Lights", "{VA lighting}", 20, {}});
    form.columns.push_back({"Heat", "{VA heating}", 20, {}});
    form.columns.push_back({"Run", "{length}", 20, {}});
    // 3 000 + 900 + 1 200 + 500; 4 700 of motors, 900 of lighting, none of heating.
    CHECK(sums() == std::vector<std::string>{number(5600), number(4700), number(900)});
    form.columns = {{"Serves", "{serves}", 0, {}}, {"", "{phase VA}", 45, {}}, {"kVA", "{kVA}", 20, {}}};
    // The pump gives 1 000 to each line, and takes places 1 to 3; the others follow on A, B and C.
    CHECK(sums() == std::vector<std::string>{number(1900), number(2200), number(1500), "5.60"});
    // A spare and a circuit without a load add nothing.
    w.p.circuits.change(addCircuit(w.p, w.board, 1, ""))->use = CircuitUse::Spare;
    addCircuit(w.p, w.board, 1, "Nobody knows");
    CHECK(sums().back() == "5.60");
}

TEST_CASE("on two columns each side is added up by itself") {
    OneBoard w;
    for (double va : {600.0, 500.0, 400.0, 300.0, 200.0}) w.circuit(va); // places 1 to 5
    ScheduleForm form;
    form.name = "Ours";
    form.usual = true;
    form.columns = {{"Serves", "{serves}", 0, {}}, {"", "{phase VA}", 36, {}}};
    w.p.forms.add(form);
    const Results r = w.solved();
    const auto words = readDown(panelSchedule({w.p, nec(), r}, w.board, "E-601"));
    CHECK(std::count(words.begin(), words.end(), "Sum") == 2);
    const auto at = std::find(words.begin(), words.end(), "Sum");
    // On the left 600 on A, 400 on B, 200 on C; on the right 500 on A and 300 on B.
    const std::vector<std::string> row(at, std::find(at, words.end(), "Load tally"));
    CHECK(row == std::vector<std::string>{"Sum", "600", "400", "200", "500", "300", "Sum"});
}

TEST_CASE("a title strip says what the form asks for, under its own words, and the door card calls places the same") {
    Single w;
    ScheduleForm& form = w.form({{"Ckt", "{place}", 20, {}}, {"Serves", "{serves}", 0, {}}});
    form.head = {{"fed from", "Supplied by"}, {"connected", ""}, {}, {"own Tag", ""}, {"space", ""}};
    form.space = "Blank";
    w.p.boards.change(w.board)->texts["Tag"] = "K-4";
    const std::vector<std::string> words = w.drawn();
    for (const char* told : {"Supplied by", "Utility", "Connected", "5.6 kVA", "Tag", "K-4", "6 of 12 places"}) {
        INFO(told);
        CHECK(says(words, told));
    }
    CHECK_FALSE(says(words, "Voltage"));
    CHECK_FALSE(says(words, "Bus / main"));
    const Results r = w.solved();
    const auto cards = doorCards({w.p, nec(), r}, w.board);
    REQUIRE(cards.size() == 1);
    const auto card = readDown(cards.front());
    CHECK(std::count(card.begin(), card.end(), "Blank") == 6);
    CHECK_FALSE(says(card, "Space"));
    const std::string label(90, 'x'); // does not run into the fact beside it
    form.head.front().label = label;
    const Results again = w.solved();
    const Drawing sheet = panelSchedule({w.p, nec(), again}, w.board, "E-601");
    for (const Mark& m : sheet.marks)
        if (const auto* t = std::get_if<TextMark>(&m); t && t->text == label) CHECK((t->within > 0 && t->within < 50));
    CHECK(says(readDown(sheet), label));
    form.head.clear();
    CHECK(says(w.drawn(), "Bus / main"));
}
