#include "tests/app/AppTest.h"

using namespace lintel;

TEST_CASE("the newest edit is solved last, however fast they come") {
    Driven d;
    d.openDemo();
    const CircuitId c = d.at("LP-1", 16);
    LoadId load;
    for (const Load& l : d.s.project().loads)
        if (l.circuit == c) load = l.id;
    int solved = 0;
    QObject::connect(&d.s, &Session::solved, &d.window, [&] { ++solved; });
    for (int i = 1; i <= 200; ++i) d.s.edit("load", [&](Project& p) { p.loads.change(load)->amount = i * 0.01; });
    const auto wait = [&] { // a slow machine may need more than one patience
        for (int i = 0; i < 30; ++i)
            if (d.s.waitSolved()) return true;
        return false;
    };
    REQUIRE(wait());
    CHECK(d.s.solution().results.of(c).va == Approx(2000));
    CHECK(d.s.solution().project == d.s.project());
    CHECK(solved < 200); // what was overtaken is not worked out
    for (int i = 0; i < 200; ++i) d.s.undo();
    REQUIRE(wait());
    CHECK(d.s.solution().results.of(c).va == Approx(5200));
}

TEST_CASE("what is gone is no longer selected") {
    Driven d;
    d.openDemo();
    const CircuitId c = d.at("LP-1", 16);
    d.s.select({Ref(c), Ref(d.board("LP-1"))});
    d.s.edit("remove", [&](Project& p) { removeCircuit(p, c); });
    CHECK(d.s.selectionList() == std::vector<Ref>{d.board("LP-1")});
    d.s.undo();
    CHECK(d.s.project().circuits.has(c));
    CHECK(d.s.boardOfSelection() == d.board("LP-1"));
}

TEST_CASE("recent files: newest first, each once; a file that is gone is not offered") {
    Driven d;
    d.openDemo();
    REQUIRE(d.s.saveAs(d.path("b.lintel").toStdString()));
    REQUIRE(d.s.saveAs(d.path("demo.lintel").toStdString()));
    const QStringList recent = Session::recentFiles();
    CHECK(recent[0].endsWith("demo.lintel"));
    CHECK(recent[1].endsWith("b.lintel"));
    CHECK(recent.count(recent[0]) == 1);
    QFile::remove(d.path("b.lintel"));
    d.window.showStart();
    CHECK(d.window.findChild<QPushButton*>("choice:demo"));
    CHECK_FALSE(d.s.isOpen());
}

TEST_CASE("facts: entering again what they show changes nothing") {
    Driven d;
    d.openDemo();
    std::vector<Ref> things{SourceId{1}, TransformerId{1}, LoadId{1}, RoomId{1}, DeviceId{1}, WallId{1}};
    for (const Board& b : d.s.project().boards) things.push_back(b.id);
    for (const Circuit& c : d.s.project().circuits) things.push_back(c.id);
    for (Ref thing : things) {
        d.s.select(thing);
        const Facts f = factsFor(d.s, thing);
        INFO(f.title.toStdString());
        CHECK_FALSE(f.title.isEmpty());
        CHECK(f.rows.size() >= 2);
        for (const FactRow& row : f.rows) {
            CHECK_FALSE(row.label.isEmpty());
            // A measured length entered again becomes an entered one: that is a change, and meant as one.
            if (!row.entry || row.label == "Run" || row.label == "Height" || row.label == "Thickness") continue;
            if (!row.entry->choices.isEmpty()) {
                INFO(row.label.toStdString() << " shows " << row.entry->initial.toStdString());
                CHECK(row.entry->choices.contains(row.entry->initial));
            }
            const Project before = d.s.project();
            const QString why = row.entry->take(row.entry->initial);
            INFO(row.label.toStdString() << ": " << row.entry->initial.toStdString() << " " << why.toStdString());
            CHECK(why.isEmpty());
            CHECK(d.s.project() == before);
        }
    }
}

TEST_CASE("every command of the menus can be given, and undone to where it began") {
    Driven d;
    d.openDemo();
    const Project before = d.s.project();
    for (const char* name :
         {"addBoard", "addTransformer", "addSource", "addLevel", "addLoad", "pin", "removeBoard", "selectNothing",
          "goBasis", "goPlan", "goBoards", "goRiser", "goRuns", "goIssue", "allSnags", "allSnags"}) {
        INFO(name);
        if (std::string(name) == "pin") d.s.select(d.at("LP-1", 1));
        if (std::string(name) == "removeBoard") d.s.select(d.board("LP-2"));
        d.act(name);
    }
    CHECK_FALSE(d.board("LP-2"));
    CHECK(d.s.project().sources.size() == 3);
    while (d.s.canUndo()) d.act("undo");
    CHECK(d.s.project() == before);
}

TEST_CASE("the feed path tells amperes, fault level and drop on the way, and a click chooses") {
    Driven d;
    d.openDemo();
    d.s.select(d.at("LP-1", 28));
    d.pump();
    const QStringList steps = d.window.feedPath().steps();
    REQUIRE(steps.size() == 6);
    CHECK(steps[0].startsWith("Utility 480Y/277 | 20.9 kA"));
    CHECK(steps[1].startsWith("M-1"));
    CHECK(steps[2].startsWith("MDS | 800 A"));
    CHECK(steps[3].startsWith("T-1 112.5 kVA"));
    CHECK(steps[4].startsWith("LP-1 | 400 A"));
    CHECK(steps[5].contains("20 A 1P"));
    CHECK(steps[5].contains("of 5"));
    d.click(d.window.feedPath(), d.window.feedPath().box(2).center());
    CHECK(d.s.selection() == Ref(d.board("MDS")));
}

TEST_CASE("the level gauge leans to the heavy phase and says what one move would do") {
    Driven d;
    d.openDemo();
    const LevelGauge::Reading g = gaugeReading(d.s.solution(), d.board("LP-1"), true);
    CHECK(g.valid);
    CHECK(g.heavy == "B");
    CHECK(g.imbalance == Approx(d.s.solution().results.of(d.board("LP-1")).imbalance));
    CHECK(g.hint.startsWith("1 move → "));
    // B stands at a third of a turn: the lean points there more than anywhere else.
    CHECK(std::abs(std::arg(g.lean) - 2 * 3.14159265 / 3) < 3.14159265 / 3);
    CHECK_FALSE(gaugeReading(d.s.solution(), BoardId{}, true).valid);
}
