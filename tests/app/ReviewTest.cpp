// A review in the window: ticks, what falls off, remarks and answers, and nothing of the design that can be edited.

#include "app/issue/IssueStage.h"
#include "app/review/ReviewPanel.h"
#include "core/project/Operations.h"
#include "tests/app/AppTest.h"

#include <QComboBox>
#include <QContextMenuEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTabWidget>
#include <QToolButton>
#include <QTreeWidget>

using namespace lintel;

namespace {

struct Reviewing : Driven {
    QString said;
    Reviewing() {
        REQUIRE_FALSE(s.begin(*loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel")));
        QObject::connect(&s, &Session::said, &window, [this](const QString& words, bool) { said = words; });
        click("rail:Review");
        pump();
    }
    template <class W> W& the(const char* name) {
        W* w = window.findChild<W*>(name);
        REQUIRE(w);
        return *w;
    }
    void click(const char* button) { QTest::mouseClick(&the<QAbstractButton>(button), Qt::LeftButton); }
    QTreeWidget& tree() { return the<QTreeWidget>("reviewFigures"); }
    QTreeWidgetItem* row(const QString& thing, const QString& figure) {
        for (int i = 0; i < tree().topLevelItemCount(); ++i)
            if (tree().topLevelItem(i)->text(0) == thing)
                for (int k = 0; k < tree().topLevelItem(i)->childCount(); ++k)
                    if (tree().topLevelItem(i)->child(k)->text(0) == figure) return tree().topLevelItem(i)->child(k);
        return nullptr;
    }
    void choose(const QString& thing, const QString& figure) {
        REQUIRE(row(thing, figure));
        tree().setCurrentItem(row(thing, figure));
        pump();
    }
    void name(const char* who) {
        QLineEdit& e = the<QLineEdit>("reviewer");
        e.clear();
        QTest::keyClicks(&e, who);
        tree().setFocus();
    }
};

} // namespace

TEST_CASE("review in the window: the name of who reviews is there again the next time") {
    {
        Reviewing d;
        d.name("A. Lindqvist");
        QTest::keyClick(&d.the<QLineEdit>("reviewer"), Qt::Key_Return);
    }
    Reviewing again;
    CHECK(again.the<QLineEdit>("reviewer").text() == "A. Lindqvist");
    again.the<QLineEdit>("reviewer").clear();
    again.tree().setFocus();
}

TEST_CASE("review in the window: figures are ticked under a name, walked with keys, and counted") {
    Reviewing d;
    d.the<QLineEdit>("reviewer").clear();
    d.choose("LP-1", "demand");
    CHECK(d.s.selection() == Ref(d.board("LP-1"))); // the facts show its workings
    QTest::keyClick(&d.tree(), Qt::Key_T);
    CHECK(d.said.contains("Say who reviews first"));
    CHECK(d.s.project().ticks.empty());
    d.name("AL");
    QTest::keyClick(&d.tree(), Qt::Key_T);
    d.pump();
    REQUIRE(d.s.project().ticks.size() == 1);
    CHECK(d.s.project().ticks.begin()->by == "AL");
    CHECK(d.s.project().ticks.begin()->thing == "LP-1");
    CHECK(d.row("LP-1", "demand")->text(2) == "✓");
    CHECK(d.tree().currentItem()->text(0) == "feeder"); // and on to the next
    QTest::keyClick(&d.tree(), Qt::Key_B);
    CHECK(d.tree().currentItem()->text(0) == "demand");
    CHECK(d.the<QLabel>("reviewCount").text().startsWith("1 of "));
    // All that is left of a board in one step, and undone in one.
    QTest::keyClick(&d.tree(), Qt::Key_T, Qt::ShiftModifier);
    d.pump();
    const auto all = d.s.project().ticks.size();
    CHECK(all == std::size_t(d.row("LP-1", "demand")->parent()->childCount()));
    CHECK(d.row("LP-1", "demand")->parent()->text(1) == QString("%1 / %1").arg(all));
    d.s.undo();
    d.pump();
    CHECK(d.s.project().ticks.size() == 1);
    CHECK(d.row("LP-1", "demand")->parent()->text(1) == QString("1 / %1").arg(all));
    d.tree().setCurrentItem(d.row("LP-1", "demand")->parent());
    CHECK(d.the<QPushButton>("reviewTick").text() == QString("Tick the other %1").arg(all - 1));
    d.choose("LP-1", "demand");
    // The worst first: the circuit that loses most.
    d.the<QComboBox>("reviewWalk").setCurrentIndex(1);
    CHECK(d.tree().topLevelItem(0)->text(0) == "LP-1-27");
}

TEST_CASE("review in the window: the design cannot be edited, the review's own steps undo, and it ends") {
    Reviewing d;
    d.name("AL");
    const Project before = d.s.project();
    CHECK_FALSE(d.s.edit("Rename", [](Project& p) { p.boards.change(p.boards.begin()->id)->name = "X"; }));
    CHECK(d.said.contains("This is a review"));
    CHECK(d.s.project() == before);
    d.choose("MDS", "main");
    d.click("reviewTick");
    d.pump();
    CHECK(d.s.project().ticks.size() == 1);
    d.s.undo();
    d.pump();
    CHECK(d.s.project().ticks.empty());
    CHECK(d.row("MDS", "main")->text(2) == "○");
    d.s.redo();
    d.pump();
    CHECK(d.s.project().ticks.size() == 1);
    d.s.undo();
    d.s.undo(); // nothing of the review is left to undo
    CHECK(d.said.contains("only its own ticks"));
    CHECK(d.s.project() == before);
    d.click("reviewEnd");
    CHECK_FALSE(d.s.reviewing());
    CHECK_FALSE(d.window.review().isVisible());
    CHECK(d.s.edit("Rename", [](Project& p) { p.boards.change(p.boards.begin()->id)->name = "X"; }));
}

TEST_CASE("review in the window: a tick falls off when the figure changes, and says what it was") {
    Reviewing d;
    d.name("AL");
    d.choose("LP-1", "demand");
    const QString was = d.row("LP-1", "demand")->text(1);
    d.click("reviewTick");
    d.click("reviewEnd");
    d.s.edit("More load", [&](Project& p) {
        for (const Load& l : d.s.project().loads)
            if (l.circuit == d.at("LP-1", 27)) p.loads.change(l.id)->amount *= 20;
    });
    REQUIRE(d.s.waitSolved());
    d.click("rail:Review");
    d.pump();
    CHECK(d.row("LP-1", "demand")->text(2) == "✗");
    d.choose("LP-1", "demand");
    CHECK(d.the<QLabel>("reviewWas").text().contains("it was " + was + " when AL ticked it"));
    d.click("reviewFellOff");
    int rows = 0;
    for (int i = 0; i < d.tree().topLevelItemCount(); ++i) rows += d.tree().topLevelItem(i)->childCount();
    CHECK(rows == 1);
    CHECK(d.the<QPushButton>("reviewTick").text() == "Tick again");
    d.click("reviewTick");
    d.pump();
    CHECK(d.the<QToolButton>("reviewFellOff").text() == "Fell off 0");
}

TEST_CASE("review in the window: remarks are typed, answered, closed and opened again, and nothing typed is lost") {
    Reviewing d;
    d.name("AL");
    d.choose("Utility", "fault level");
    QLineEdit& words = d.the<QLineEdit>("reviewWords");
    QTest::keyClick(&d.tree(), Qt::Key_R);
    QTest::keyClicks(&words, "By letter? R&D <asks>, tests, bolts");
    QTest::keyClick(&words, Qt::Key_Return);
    d.pump();
    REQUIRE(d.s.project().remarks.size() == 1);
    const Remark made = *d.s.project().remarks.begin();
    CHECK(made.text == "By letter? R&D <asks>, tests, bolts"); // T, R, N and B are letters while one types
    CHECK(made.figure == "fault level");
    CHECK(d.s.project().ticks.empty());
    d.the<QTabWidget>("reviewPages").setCurrentIndex(1);
    auto& list = d.the<QListWidget>("reviewRemarks");
    REQUIRE(list.count() == 1);
    CHECK(list.item(0)->text().contains("R&D <asks>"));
    list.setCurrentRow(0);
    auto& answer = d.the<QPlainTextEdit>("reviewAnswer");
    d.name("TO");
    answer.setFocus();
    QTest::keyClicks(&answer, "They answer on Friday");
    Q_EMIT d.s.solved(); // a solution comes while one types
    d.pump();
    CHECK(answer.toPlainText() == "They answer on Friday");
    d.click("reviewAnswerGo");
    d.pump();
    CHECK(d.s.project().remarks.begin()->answer == "They answer on Friday");
    CHECK(d.s.project().remarks.begin()->answeredBy == "TO");
    CHECK_FALSE(d.s.project().remarks.begin()->closed);
    list.setCurrentRow(0);
    d.click("reviewClose");
    d.pump();
    CHECK(d.s.project().remarks.begin()->closed);
    CHECK(d.s.project().remarks.begin()->answer == "They answer on Friday");
    CHECK(d.the<QTabWidget>("reviewPages").tabText(1) == "Remarks 0 open of 1");
    list.setCurrentRow(0);
    d.click("reviewClose");
    d.pump();
    CHECK_FALSE(d.s.project().remarks.begin()->closed);
    list.setCurrentRow(0);
    d.click("reviewRemove");
    d.pump();
    CHECK(d.s.project().remarks.empty());
    d.s.undo();
    d.pump();
    CHECK(d.s.project().remarks.size() == 1);
}

TEST_CASE("review in the window: a remark points at a place of a sheet, is pinned there, and leads back to it") {
    Reviewing d;
    d.name("AL");
    d.window.go(Stage::Issue);
    d.pump();
    IssueStage& issue = d.window.issue();
    issue.showSchedule(d.board("LP-1"));
    d.pump();
    const QString title = "Panel schedule LP-1";
    const Point at{60, 120};
    // By the menu at that point of the sheet.
    QTimer::singleShot(200, &d.window, [&] {
        auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        REQUIRE(menu);
        menu->setActiveAction(menu->actions().front());
        QTest::keyClick(menu, Qt::Key_Return);
    });
    const QPoint where = issue.sheet().toScreen(at).toPoint();
    QContextMenuEvent menu(QContextMenuEvent::Mouse, where, issue.sheet().mapToGlobal(where));
    QApplication::sendEvent(&issue.sheet(), &menu);
    d.pump();
    QLineEdit& words = d.the<QLineEdit>("reviewWords");
    CHECK(words.placeholderText().contains(title));
    QTest::keyClicks(&words, "Note 3 repeats note 2");
    QTest::keyClick(&words, Qt::Key_Return);
    d.pump();
    REQUIRE(d.s.project().remarks.size() == 1);
    const Remark made = *d.s.project().remarks.begin();
    CHECK(made.sheet == title.toStdString());
    CHECK_FALSE(made.about);
    CHECK(made.at.x == Approx(at.x).margin(1));
    CHECK(made.at.y == Approx(at.y).margin(1));
    // On the screen it has a pin; the sheet that is issued has none.
    const auto pins = [&](const Drawing& sheet) {
        return std::count_if(sheet.marks.begin(), sheet.marks.end(), [&](const Mark& m) {
            const auto* c = std::get_if<CircleMark>(&m);
            return c && c->filled && c->centre == made.at;
        });
    };
    REQUIRE(d.s.waitSolved());
    issue.showSheet(title);
    CHECK(pins(issue.sheet().drawing()) == 1);
    const QString file = d.path("set.pdf");
    REQUIRE_FALSE(issue.exportPdf(file));
    CHECK_FALSE(pdfText(file).contains("Note 3 repeats"));
    d.window.go(Stage::Boards);
    d.the<QTabWidget>("reviewPages").setCurrentIndex(1);
    d.the<QListWidget>("reviewRemarks").setCurrentRow(0);
    d.pump();
    CHECK(d.window.stage() == Stage::Issue);
    CHECK(issue.sheet().drawing().title.find("LP-1") != std::string::npos);
    // The board gets another name, and so its sheet another title: the remark is on it still, and leads there.
    d.click("rail:Review"); // nothing is edited beside it
    d.s.edit("Rename", [&](Project& p) { p.boards.change(d.board("LP-1"))->name = "LX-7"; });
    REQUIRE(d.s.waitSolved());
    d.window.go(Stage::Boards);
    d.click("rail:Review");
    d.pump();
    d.the<QTabWidget>("reviewPages").setCurrentIndex(1);
    d.the<QListWidget>("reviewRemarks").setCurrentRow(-1);
    d.the<QListWidget>("reviewRemarks").setCurrentRow(0);
    d.pump();
    CHECK(d.window.stage() == Stage::Issue);
    CHECK(issue.sheet().drawing().title == "LX-7");
    CHECK(pins(issue.sheet().drawing()) == 1);
}
