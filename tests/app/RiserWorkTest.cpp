// The distribution built on the riser itself, by keys and mouse.

#include "core/project/Operations.h"
#include "core/project/Validation.h"
#include "tests/app/AppTest.h"

#include <QComboBox>
#include <QPushButton>

using namespace lintel;

namespace {

struct OnRiser : Driven {
    int keys = 0;
    void begin(const Project& p) {
        REQUIRE_FALSE(s.begin(p));
        window.go(Stage::Riser);
        pump();
        window.riser().drawing().setFocus();
    }
    void press(const char* letters) {
        for (const char* c = letters; *c; ++c) {
            QTest::keyClick(&window.riser().drawing(), *c);
            ++keys;
            pump();
        }
    }
    /// A click on a thing where it is drawn.
    void choose(const std::string& name) {
        window.riser().drawing().reveal(ref(name));
        pump();
        QPointF at;
        for (const Hotspot& h : window.riser().drawing().drawing().hotspots)
            if (h.thing == ref(name))
                at = window.riser().drawing().toScreen({(h.left + h.right) / 2, (h.top + h.bottom) / 2});
        click(window.riser().drawing(), at);
        ++keys;
        INFO(name);
        REQUIRE(s.selection() == ref(name));
    }
    Ref ref(const std::string& name) const {
        for (const Board& b : s.project().boards)
            if (b.name == name) return b.id;
        for (const Transformer& t : s.project().transformers)
            if (t.name == name) return t.id;
        for (const Source& x : s.project().sources)
            if (x.name == name) return x.id;
        return {};
    }
    std::string path(const std::string& name) const {
        std::string out;
        for (Ref r : s.solution().results.feedPath(ref(name), s.project()))
            out += (out.empty() ? "" : " > ") + nameOf(s.project(), r);
        return out;
    }
};

} // namespace

TEST_CASE("riser: from an empty project to a whole distribution, without leaving it") {
    OnRiser d;
    Project empty;
    empty.levels.add({{}, "Ground", 0, 3, {}});
    d.begin(empty);
    d.press("N"); // a utility
    d.press("S"); // a switchboard below it
    d.press("T"); // a transformer below that
    d.press("B"); // and a board
    d.choose("T-1");
    d.press("B");
    d.choose("MDS-1");
    d.press("M"); // a motor control centre
    d.choose("MDS-1");
    d.press("B"); // a board for what must go on
    d.press("X"); // a transfer switch in front of it
    CHECK(d.s.selection() == d.ref("ATS-1"));
    d.press("G"); // a generator that takes over
    d.choose("MDS-1");
    d.press("E"); // the utility's meter
    CHECK(d.path("LP-1") == "Utility > M-1 > MDS-1 > T-1 > LP-1");
    CHECK(d.path("LP-2") == "Utility > M-1 > MDS-1 > T-1 > LP-2");
    CHECK(d.path("MCC-1") == "Utility > M-1 > MDS-1 > MCC-1");
    CHECK(d.path("LP-3") == "Utility > M-1 > MDS-1 > ATS-1 > LP-3");
    CHECK(d.s.project().boards[d.ref("ATS-1").as<Board>()].alternate == d.ref("G-1"));
    CHECK_FALSE(validate(d.s.project()));
    REQUIRE(d.s.solution().results.states.size() == 1);
    CHECK(d.keys == 14); // keys and clicks
    // Every step undoes, and comes again.
    const Project built = d.s.project();
    int steps = 0;
    while (!d.s.undoLabel().isEmpty() && steps < 40) {
        d.s.undo();
        ++steps;
    }
    CHECK(steps == 10);
    CHECK(d.s.project() == empty);
    while (steps-- > 0) d.s.redo();
    CHECK(d.s.project() == built);
}

TEST_CASE("riser: what cannot be is refused in words, and what hangs free is named") {
    OnRiser d;
    d.openDemo();
    d.window.go(Stage::Riser);
    d.pump();
    QString said;
    QObject::connect(&d.s, &Session::said, [&](const QString& t, bool) { said = t; });
    d.s.select(d.ref("LP-1"));
    const Project before = d.s.project();
    d.press("Q"); // no command
    CHECK(d.s.project() == before);
    d.press("D");
    CHECK(d.path("LP-1") == "Utility > M-1 > MDS > T-1 > DS-1 > LP-1");
    QTest::keyClick(&d.window.riser().drawing(), Qt::Key_Delete);
    d.pump();
    CHECK(d.path("LP-1") == "Utility > M-1 > MDS > T-1 > LP-1");
    CHECK(said.contains("DS-1 is removed"));
    d.s.select(d.ref("T-1"));
    QTest::keyClick(&d.window.riser().drawing(), Qt::Key_Delete);
    d.pump();
    CHECK(said.contains("not fed now: LP-1"));
    d.s.undo();
    d.s.undo();
    d.s.undo();
    d.pump();
    CHECK(d.s.project() == before);
}

TEST_CASE("facts of a transfer switch: what takes over, its conductors and its neutral, each undone in one step") {
    OnRiser d;
    d.openDemo();
    d.s.select(d.ref("ATS-1"));
    d.pump();
    const BoardId ats = d.ref("ATS-1").as<Board>();
    CHECK(d.factValue("On G-1").startsWith("0.311 kA"));
    const Project before = d.s.project();
    d.fact("Neutral", "changes over too");
    CHECK(d.s.project().boards[ats].switchesNeutral);
    d.fact("Rated", "60 A");
    CHECK(d.s.project().boards[ats].bus == 60);
    d.fact("Taken over by", "nothing");
    CHECK_FALSE(d.s.project().boards[ats].alternate);
    CHECK_FALSE(d.s.project().boards[ats].alternateRun);
    d.fact("Taken over by", "G-1");
    CHECK(d.s.project().boards[ats].alternate == d.ref("G-1"));
    CHECK(d.s.project().boards[ats].alternateRun);
    for (int i = 0; i < 4; ++i) d.s.undo();
    d.pump();
    CHECK(d.s.project() == before);
    d.fact("Kind", "disconnect switch");
    CHECK(d.s.project().boards[ats].use == BoardUse::Disconnect);
}

TEST_CASE("boards: what passes on has no circuits to level, to size or to type, and says so") {
    OnRiser d;
    d.openDemo();
    QString said;
    QObject::connect(&d.s, &Session::said, [&](const QString& t, bool) { said = t; });
    d.window.go(Stage::Boards);
    d.s.select(d.ref("M-1"));
    d.pump();
    const Project before = d.s.project();
    BoardView& v = d.window.boards().active();
    v.setFocus();
    for (Qt::Key k : {Qt::Key_Down, Qt::Key_Return, Qt::Key_A, Qt::Key_Insert, Qt::Key_Delete, Qt::Key_Tab})
        QTest::keyClick(&v, k);
    d.pump();
    for (const char* button : {"level", "size", "schedule"}) {
        INFO(button);
        said.clear();
        auto* b = d.window.boards().findChild<QPushButton*>(button);
        REQUIRE(b);
        d.click(*b, b->rect().center());
        CHECK(said == "M-1 has no circuits of its own");
    }
    CHECK(d.window.stage() == Stage::Boards);
    CHECK(d.s.project() == before);
}

TEST_CASE("riser: a board as a diagram with all its circuits, and overlays that say one thing of all") {
    OnRiser d;
    d.begin(*loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel"));
    d.choose("LP-4");
    auto* board = d.window.findChild<QPushButton*>("riserBoard");
    auto* overlay = d.window.findChild<QComboBox*>("riserOverlay");
    REQUIRE((board && overlay));
    const auto words = [&] { return d.window.riser().drawing().drawing().words(); };
    const auto choose = [&](const char* text) {
        overlay->setFocus();
        const int wanted = overlay->findText(text);
        REQUIRE(wanted >= 0);
        QTest::keyClick(overlay, Qt::Key_Home);
        for (int i = 0; i < wanted; ++i) QTest::keyClick(overlay, Qt::Key_Down);
        d.pump();
        CHECK(overlay->currentText() == text);
    };
    CHECK(words().find("main 100 A") != std::string::npos);
    choose("Used");
    CHECK(words().find("used, over") != std::string::npos);
    CHECK(words().find("main 100 A") == std::string::npos);
    choose("On G-1");
    CHECK(words().find("State of the supply: on G-1") != std::string::npos);
    CHECK(words().find("\noff\n") != std::string::npos);
    // The generator goes: its state cannot be shown any longer, and the usual words come back.
    d.s.select(d.ref("G-1"));
    d.window.riser().drawing().setFocus();
    QTest::keyClick(&d.window.riser().drawing(), Qt::Key_Delete);
    d.s.waitSolved();
    d.pump();
    CHECK(overlay->findText("On G-1") < 0);
    CHECK(overlay->currentText() == "Sizes");
    d.s.undo();
    d.s.waitSolved();
    d.pump();
    CHECK(overlay->findText("On G-1") >= 0);
    // The diagram follows what is chosen, and a click on it chooses a circuit.
    d.choose("LP-3");
    d.click(*board, {10, 10});
    d.pump();
    CHECK_FALSE(overlay->isVisible());
    CHECK(words().rfind("LP-3\n", 0) == 0);
    const std::vector<Hotspot> spots = d.window.riser().drawing().drawing().hotspots;
    const auto circuit =
        std::find_if(spots.begin(), spots.end(), [](const Hotspot& h) { return h.thing.is<Circuit>(); });
    REQUIRE(circuit != spots.end());
    d.click(d.window.riser().drawing(),
            d.window.riser().drawing().toScreen({(circuit->left + circuit->right) / 2, circuit->top + 10}));
    CHECK(d.s.selection() == circuit->thing);
    d.s.select(d.ref("SP-1"));
    d.pump();
    CHECK(words().rfind("SP-1\n", 0) == 0);
    const QString folder = QDir::temp().filePath(QString("lintel-riser-%1").arg(QCoreApplication::applicationPid()));
    REQUIRE(QDir().mkpath(folder));
    for (const auto& [format, name] : {std::pair{RiserStage::Format::Pdf, "a.pdf"},
                                       {RiserStage::Format::Svg, "a.svg"},
                                       {RiserStage::Format::Dxf, "a.dxf"}}) {
        const auto written = d.window.riser().exportTo(format, folder + "/" + name);
        REQUIRE(written);
        CHECK(QFileInfo(folder + "/" + name).size() > 1000);
        if (format != RiserStage::Format::Pdf) CHECK(written->size() >= 2); // sixty places take two sheets
        CHECK_FALSE(d.window.riser().exportTo(format, folder + "/none/" + name));
    }
    QDir(folder).removeRecursively();
    d.s.select(d.ref("M-1")); // has no circuits: what was drawn stays
    d.pump();
    CHECK(words().rfind("SP-1\n", 0) == 0);
}
