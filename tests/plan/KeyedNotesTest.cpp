// Keyed notes: numbers that stay, one number for what is said at several places, and sheets on which nothing is cut.

#include "core/plan/KeyedNotes.h"
#include "core/drawing/TextBox.h"
#include "core/project/AddBelow.h"
#include "core/project/ProjectFile.h"
#include "core/sheets/PlanLegend.h"
#include "core/sheets/TitleBlock.h"
#include "tests/World.h"

#include <set>

using namespace lintel;

namespace {

struct Floor {
    Project p;
    LevelId level;
    Floor() {
        level = p.levels.add({{}, "Ground floor", 0, 3, {}});
        p.walls.add({{}, level, {0, 0}, {12, 0}, 0.2, 0, {}});
        p.walls.add({{}, level, {12, 0}, {12, 8}, 0.2, 0, {}});
        DeviceType outlet;
        outlet.name = "Duplex receptacle";
        Device d;
        d.type = p.deviceTypes.add(outlet);
        d.level = level;
        d.at = {2, 2};
        p.devices.add(d);
        DeviceType lamp;
        lamp.name = "Downlight";
        lamp.kind = LoadKind::Lighting;
        lamp.symbol = Symbol::Downlight;
        d.type = p.deviceTypes.add(lamp);
        d.at = {6, 4};
        p.devices.add(d);
    }
    KeyedNoteId add(const std::string& text, NoteOn on = NoteOn::All, Point at = {4, 4}) {
        KeyedNote n;
        n.level = level;
        n.at = at;
        n.text = text;
        n.on = on;
        return *addKeyedNote(p, n);
    }
    int number(KeyedNoteId id) const { return p.keyedNotes[id].number; }
};

std::string wordsOf(const Drawing& d) {
    std::string all;
    for (const Mark& m : d.marks)
        if (const auto* t = std::get_if<TextMark>(&m)) all += t->text + " ";
    return all;
}

} // namespace

TEST_CASE("keyed notes keep their numbers; what is said twice has one, and a removed number is not filled") {
    Floor f;
    const KeyedNoteId one = f.add("Mount at 48 in above the counter."), two = f.add("Coordinate with the hood."),
                      again = f.add("  Mount at 48 in above the counter. ");
    CHECK(f.number(one) == 1);
    CHECK(f.number(two) == 2);
    CHECK(f.number(again) == 1);
    const auto all = keyedNotes(f.p, f.level);
    REQUIRE(all.size() == 2);
    CHECK(all[0].at.size() == 2);
    // What one says, all with its number say; another's text gives its number.
    CHECK_FALSE(setNoteText(f.p, again, "Mount at 42 in above the counter."));
    CHECK(f.p.keyedNotes[one].text == "Mount at 42 in above the counter.");
    CHECK(f.number(one) == 1);
    f.p.keyedNotes.remove(one);
    f.p.keyedNotes.remove(again);
    CHECK(f.number(two) == 2);
    const KeyedNoteId three = f.add("By others.");
    CHECK(f.number(three) == 3);
    CHECK_FALSE(setNoteText(f.p, three, "Coordinate with the hood."));
    CHECK(f.number(three) == 2);
    // Numbers can be chosen, never one that says something else; a note says something.
    const KeyedNoteId four = f.add("Roof.");
    CHECK(setNoteNumber(f.p, four, 2)->what == "note 2 of this floor says: Coordinate with the hood.");
    CHECK_FALSE(setNoteNumber(f.p, four, 12));
    CHECK(f.number(four) == 12);
    CHECK(setNoteNumber(f.p, four, 0));
    CHECK(setNoteText(f.p, four, "  "));
    CHECK_FALSE(addKeyedNote(f.p, KeyedNote{}));
    CHECK(f.p.keyedNotes[four].text == "Roof.");
    const auto read = readProject(writeProject(f.p), "x");
    REQUIRE(read);
    CHECK(*read == f.p);
    removeLevel(f.p, f.level);
    CHECK(f.p.keyedNotes.empty());
}

TEST_CASE("keyed notes stand on the plans for which they are meant, number and text beside one another") {
    Floor f;
    f.add("For the electrician of the lights.", NoteOn::Lighting, {6, 3});
    f.add("For the electrician of the sockets.", NoteOn::Power, {3, 3});
    f.add("For both of them.", NoteOn::All, {9, 3});
    const Results r = solve(f.p, nec());
    const SheetInput in{f.p, nec(), r};
    const std::string lighting = wordsOf(planSheets(in, f.level, "E-101", PlanSystem::Lighting).front()),
                      power = wordsOf(planSheets(in, f.level, "E-201", PlanSystem::Power).front());
    CHECK(lighting.find("the lights.") != std::string::npos);
    CHECK(lighting.find("the sockets.") == std::string::npos);
    CHECK(power.find("the sockets.") != std::string::npos);
    CHECK(power.find("the lights.") == std::string::npos);
    for (const std::string& words : {lighting, power}) CHECK(words.find("both of them.") != std::string::npos);
    // The hexagon stands where it points: 1:100, a metre is 10 mm.
    PlanStyle style;
    style.power = false;
    const Drawing floor = planDrawing(in, f.level, style);
    std::set<double> at;
    for (const Hotspot& h : floor.hotspots)
        if (h.thing.is<KeyedNote>()) at.insert(std::round((h.left + h.right) / 2));
    CHECK(at == std::set<double>{60, 90});
}

TEST_CASE("beside a plan nothing is cut: fifty notes and forty boards go on on further sheets, each told by the set") {
    Floor f;
    for (int i = 1; i <= 50; ++i)
        f.add("Note " + std::to_string(i) + " of the floor says what has to be done at this place before the ceiling " +
              "is closed, by whom it is done, and whom to ask: end " + std::to_string(i) + ".");
    for (int i = 0; i < 40; ++i) {
        Board b = newPanelboard(f.p, VoltageSystem::Y208);
        b.level = f.level;
        b.at = {1.0 + i % 8, 1.0 + i / 8};
        const BoardId id = addBoard(f.p, b);
        addCircuit(f.p, id, 1, "Not on a plan");
    }
    const Results r = solve(f.p, nec());
    const SheetInput in{f.p, nec(), r};
    const PlanPages pages = planPages(in, f.level, PlanSystem::Power);
    const std::vector<Drawing> sheets = planSheets(in, f.level, "E-201", PlanSystem::Power);
    CHECK(pages.parts == 1);
    CHECK(pages.beside >= 1);
    REQUIRE(sheets.size() == pages.count());
    CHECK(sheets[1].number == "E-201.2");
    CHECK(sheets[1].title == pages.title("Ground floor power", 1));
    std::string all;
    for (const Drawing& d : sheets) {
        all += wordsOf(d);
        const SheetFrame frame = sheetFrame(d, in);
        for (const Mark& m : d.marks)
            if (const auto* t = std::get_if<TextMark>(&m); t && t->text.find("end ") != std::string::npos) {
                const TextBox box = boxOf(*t);
                const bool inStrip = box.left >= frame.textLeft - 1;
                CHECK(box.right <= (inStrip ? frame.textRight : frame.right));
                CHECK(box.bottom <= (inStrip ? frame.freeBottom : frame.bottom));
            }
    }
    for (int i = 1; i <= 50; ++i) CHECK(all.find("end " + std::to_string(i) + ".") != std::string::npos);
    for (const Board& b : f.p.boards) CHECK(all.find(b.name + ": ") != std::string::npos);
    // A heading stands above what it heads.
    const auto pieces = legendPieces(in, {f.level, PlanSystem::Power}, 84);
    for (double height = 20; height < 400; height += 7)
        for (std::size_t from = 0; from < pieces.size();) {
            const std::size_t next = legendFits(pieces, from, height);
            REQUIRE(next > from);
            CHECK_FALSE((next < pieces.size() && next - from > 1 && pieces[next - 1].heading));
            from = next;
        }
}
