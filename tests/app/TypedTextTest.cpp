// What a person typed stands everywhere as typed: in lists, buttons, tips, menus and messages.

#include "app/frame/Application.h"
#include "app/frame/PaintKit.h"
#include "tests/app/AppTest.h"

#include <QLabel>
using namespace lintel;

namespace {

const QString odd = "R&D <h1>x</h1> %2";

/// The demo with such a name for everything that has one.
void nameOddly(Session& s) {
    s.edit("Name oddly", [](Project& p) {
        const std::string name = odd.toStdString();
        p.basis.title = p.basis.company = p.basis.designer = name;
        for (const BoardId id : [&] {
                 std::vector<BoardId> all;
                 for (const Board& b : p.boards) all.push_back(b.id);
                 return all;
             }())
            p.boards.change(id)->name = name + std::to_string(id.value), p.boards.change(id)->description = name;
        for (const CircuitId id : [&] {
                 std::vector<CircuitId> all;
                 for (const Circuit& c : p.circuits) all.push_back(c.id);
                 return all;
             }())
            p.circuits.change(id)->name = name;
        for (const RoomId id : [&] {
                 std::vector<RoomId> all;
                 for (const Room& r : p.rooms) all.push_back(r.id);
                 return all;
             }())
            p.rooms.change(id)->name = name;
        for (const LevelId id : [&] {
                 std::vector<LevelId> all;
                 for (const Level& l : p.levels) all.push_back(l.id);
                 return all;
             }())
            p.levels.change(id)->name = name;
        for (const LoadId id : [&] {
                 std::vector<LoadId> all;
                 for (const Load& l : p.loads) all.push_back(l.id);
                 return all;
             }())
            p.loads.change(id)->name = name;
        for (const DeviceTypeId id : [&] {
                 std::vector<DeviceTypeId> all;
                 for (const DeviceType& t : p.deviceTypes) all.push_back(t.id);
                 return all;
             }())
            p.deviceTypes.change(id)->name = name;
        for (const SourceId id : [&] {
                 std::vector<SourceId> all;
                 for (const Source& x : p.sources) all.push_back(x.id);
                 return all;
             }())
            p.sources.change(id)->name = name;
        for (const TransformerId id : [&] {
                 std::vector<TransformerId> all;
                 for (const Transformer& t : p.transformers) all.push_back(t.id);
                 return all;
             }())
            p.transformers.change(id)->name = name;
    });
}

/// Every text of the window that would not be shown as typed.
int lookThrough(QWidget& window) {
    int seen = 0;
    for (QWidget* w : window.findChildren<QWidget*>()) {
        const auto where = [&] {
            return (QString(w->metaObject()->className()) + " " + w->objectName()).toStdString();
        };
        if (auto* label = qobject_cast<QLabel*>(w); label && label->text().contains("R&")) {
            ++seen;
            const bool rich = label->textFormat() == Qt::RichText ||
                              (label->textFormat() == Qt::AutoText && Qt::mightBeRichText(label->text()));
            INFO("label " << where() << ": " << label->text().toStdString());
            if (rich)
                CHECK_FALSE(label->text().contains("<h1>"));
            else
                CHECK(label->text().contains("<h1>"));
            CHECK(label->text().contains("%2"));
        }
        if (auto* button = qobject_cast<QAbstractButton*>(w); button && button->text().contains("R&")) {
            ++seen;
            INFO("button " << where() << ": " << button->text().toStdString());
            const bool painted = button->objectName().startsWith("choice:"); // draws its own text
            if (!painted) CHECK(button->text().contains("R&&D"));
            CHECK(button->text().contains("%2"));
        }
        if (w->toolTip().contains("h1")) { // as it would be shown
            ++seen;
            QHelpEvent asked(QEvent::ToolTip, {2, 2}, w->mapToGlobal(QPoint(2, 2)));
            QApplication::sendEvent(w, &asked);
            INFO("tip of " << where() << ": " << w->toolTip().toStdString());
            CHECK_FALSE((Qt::mightBeRichText(w->toolTip()) && w->toolTip().contains("<h1>")));
        }
        for (QAction* a : w->actions())
            if (a->text().contains("R&")) {
                ++seen;
                INFO("menu entry " << a->objectName().toStdString() << ": " << a->text().toStdString());
                CHECK(a->text().contains("R&&D"));
            }
    }
    return seen;
}

} // namespace

TEST_CASE("R&D, <h1> and %2 stand as typed in every stage, list, button, tip and message") {
    Driven d;
    d.openDemo();
    nameOddly(d.s);
    d.pump();
    int seen = 0;
    const BoardId board = d.s.project().boards.begin()->id;
    for (Stage stage : {Stage::Basis, Stage::Plan, Stage::Boards, Stage::Riser, Stage::Runs, Stage::Issue}) {
        INFO("stage " << int(stage));
        d.window.go(stage);
        for (Ref thing : {Ref(board), Ref(d.s.project().circuits.begin()->id),
                          Ref(d.s.project().transformers.begin()->id), Ref(d.s.project().sources.begin()->id),
                          Ref(d.s.project().rooms.begin()->id), Ref(d.s.project().devices.begin()->id)}) {
            d.s.select(thing);
            d.pump();
            seen += lookThrough(d.window);
        }
    }
    d.window.action("allSnags")->trigger();
    d.pump();
    seen += lookThrough(d.window);
    for (const char* name : {"sizeBoard", "levelBoard", "nameCircuits", "loadReport", "circuitGroup", "allCircuits"}) {
        INFO(name);
        d.window.go(Stage::Boards);
        d.s.select(d.s.project().circuits.begin()->id);
        d.pump();
        d.window.action(name)->trigger();
        d.pump();
        seen += lookThrough(d.window);
        QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : &d.window, Qt::Key_Escape);
        d.pump();
    }
    CHECK(seen > 100);
}

TEST_CASE("what throws in an event handler becomes a message, and the window goes on") {
    Driven d;
    d.openDemo();
    const Project before = d.s.project();
    QString said;
    QObject::connect(&d.s, &Session::said, [&](const QString& message, bool error) {
        if (error) said += message + "\n";
    }); // its drawings are missed here, and that is said too
    QPushButton bad(&d.window);
    QObject::connect(&bad, &QPushButton::clicked, [] { throw std::runtime_error("a lamp fell down"); });
    bad.setGeometry(400, 400, 80, 24);
    bad.raise();
    bad.show();
    d.pump();
    QTest::mouseClick(&bad, Qt::LeftButton);
    d.pump();
    CHECK(said.contains("a lamp fell down"));
    CHECK(d.s.project() == before);
    said.clear();
    CHECK_FALSE(d.s.edit("Ambient of nothing", [](Project& p) { p.basis.ambient = std::nan(""); }));
    CHECK(said.contains("ambient"));
    CHECK(d.s.project() == before);
    CHECK(d.s.edit("Still there", [](Project& p) { p.basis.title = "Still there"; }));
}

namespace {
/// Types into a fact of what is selected and presses Enter; gives what the panel says to it (empty: it was taken).
QString enterFact(Driven& d, const QString& label, const QString& text) {
    Facts f = factsFor(d.s, d.s.selection());
    for (FactRow& r : f.rows)
        if (r.label == label && r.entry) {
            const QString said = r.entry->take(text);
            d.pump();
            return said;
        }
    FAIL("there is no fact " << label.toStdString());
    return {};
}
} // namespace

TEST_CASE("a fact takes a quantity with its unit, or refuses it in words: nothing is dropped") {
    Driven d;
    d.openDemo();
    const CircuitId c = d.at("LP-1", 1);
    d.s.edit("Give it a load", [&](Project& p) {
        Load l;
        l.circuit = c;
        l.name = "Typed load";
        l.amount = 100;
        p.loads.add(l);
    });
    d.pump();
    LoadId load;
    for (const Load& l : d.s.project().loads)
        if (l.name == "Typed load") load = l.id;
    const auto now = [&] { return d.s.project().loads[load]; };
    struct Entry {
        const char* text;
        double amount;
        LoadUnit unit;
    };
    d.s.select(load);
    for (const Entry& e : {Entry{"1.2 kVA", 1.2, LoadUnit::kVA},
                           {"10 A", 10, LoadUnit::A},
                           {"1.5 hp", 1.5, LoadUnit::hp},
                           {"7-1/2 hp", 7.5, LoadUnit::hp},
                           {"1/2 hp", 0.5, LoadUnit::hp},
                           {"600 VA", 600, LoadUnit::VA},
                           {"1,200", 1200, LoadUnit::VA},
                           {"1 200", 1200, LoadUnit::VA}}) {
        INFO(e.text);
        CHECK(enterFact(d, "Amount", e.text).isEmpty());
        CHECK(now().amount == Approx(e.amount));
        CHECK(now().unit == e.unit);
    }
    for (const char* bad : {"1.2 parsec", "abc", "12 A 3", "1.2.3", "30/2"}) {
        INFO(bad);
        const Load before = now();
        CHECK_FALSE(enterFact(d, "Amount", bad).isEmpty());
        CHECK(now() == before);
    }
    d.s.select(c);
    // A breaker of two poles is two poles here as in the row; its rating is an amperage and nothing else.
    CHECK(enterFact(d, "Breaker", "30 A").isEmpty());
    CHECK(d.s.project().circuits[c].heldBreaker == 30);
    CHECK_FALSE(enterFact(d, "Breaker", "30 kVA").isEmpty());
    CHECK(d.s.project().circuits[c].heldBreaker == 30);
    const BoardId board = d.s.project().circuits[c].board;
    d.s.select(board);
    CHECK(enterFact(d, "Rating", "22000 A").isEmpty());
    CHECK(d.s.project().boards[board].ratingKA == Approx(22));
    CHECK(enterFact(d, "Bus", "0.4 kA").isEmpty());
    CHECK(d.s.project().boards[board].bus == Approx(400));
    CHECK(enterFact(d, "Bus", "400 VA").contains("is not a current"));
    CHECK(d.s.project().boards[board].bus == Approx(400));
    CHECK(enterFact(d, "Bus", "1e9").contains("is not from 1"));
}

TEST_CASE("no number of the facts panel takes a text of another kind, and none drops a part of one") {
    // Every fact that is a number, of every kind of thing in both demos, is given the same entries.
    int tried = 0;
    for (const char* demo : {"saltmarket-hall", "brindle-pier"}) {
        Driven d;
        REQUIRE_FALSE(d.s.beginFrom(dataFolder() / "demos" / (std::string(demo) + ".lintel")));
        d.pump();
        const Project& p = d.s.project();
        std::vector<Ref> things{p.sources.begin()->id,
                                p.transformers.empty() ? Ref() : Ref(p.transformers.begin()->id),
                                p.boards.begin()->id,
                                p.circuits.begin()->id,
                                p.loads.empty() ? Ref() : Ref(p.loads.begin()->id),
                                p.devices.begin()->id,
                                p.deviceTypes.begin()->id};
        for (Ref thing : things) {
            if (!thing) continue;
            d.s.select(thing);
            d.pump();
            for (const FactRow& r : factsFor(d.s, thing).rows) {
                if (!r.entry || !r.entry->choices.isEmpty()) continue;
                bool isNumber = false;
                r.entry->initial.section(' ', 0, 0).toDouble(&isNumber);
                if (!isNumber && r.entry->initial != "auto") continue;
                for (const char* nonsense : {"12 parsec", "3 x 4", "5 5 5", "1.2.3.4", "7 lightyears", "--2"}) {
                    const Project before = d.s.project();
                    INFO(demo << ", " << thing.text() << ", " << r.label.toStdString() << ": " << nonsense);
                    const QString said = r.entry->take(nonsense);
                    ++tried;
                    if (d.s.project() == before) {
                        CHECK_FALSE(said.isEmpty());
                    } else {
                        // Only a text may take it, and then all of it.
                        CHECK(writeProject(d.s.project()).find(nonsense) != std::string::npos);
                        d.s.undo();
                    }
                }
            }
        }
    }
    CHECK(tried > 200);
}
