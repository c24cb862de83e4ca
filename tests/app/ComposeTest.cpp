// Sheets composed of views, with real clicks, drags and keys.

#include "AppTest.h"
#include "app/frame/PaintKit.h"
#include "app/issue/ComposePanel.h"
#include "app/issue/ListFormPanel.h"
#include "core/compose/ComposedSheet.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTreeWidget>

using namespace lintel;

namespace {

struct Composing : Driven {
    IssueStage& stage = window.issue();
    ComposePanel& panel = stage.composing();
    Composing() {
        openDemo();
        window.go(Stage::Issue);
        pump();
    }
    /// The button's menu, by its keys: so many steps down.
    void newSheet(int steps) {
        QTimer::singleShot(0, &window, [steps] {
            QWidget* open = QApplication::activePopupWidget();
            REQUIRE(open);
            for (int i = 0; i < steps; ++i) QTest::keyClick(open, Qt::Key_Down);
            QTest::keyClick(open, Qt::Key_Return);
        });
        QTest::mouseClick(stage.findChild<QPushButton*>("newSheet"), Qt::LeftButton);
        pump();
    }
    QTreeWidgetItem* item(const QString& begins) {
        for (int i = 0; i < panel.tray().topLevelItemCount(); ++i)
            for (int k = 0; k < panel.tray().topLevelItem(i)->childCount(); ++k)
                if (QTreeWidgetItem* x = panel.tray().topLevelItem(i)->child(k); x->text(0).startsWith(begins))
                    return x;
        return nullptr;
    }
    /// Found by typing, and put on the sheet with Enter.
    void place(const QString& words) {
        auto* search = panel.findChild<QLineEdit*>("composeSearch");
        search->setFocus();
        search->selectAll();
        type(*search, words);
        key(*search, Qt::Key_Return);
    }
    const Hotspot* spotOf(const std::string& boardName) {
        for (const PlacedView& v : s.project().placedViews)
            if (v.about == Ref(board(boardName)))
                for (const Hotspot& h : stage.sheet().drawing().hotspots)
                    if (h.thing == Ref(v.id)) return &h;
        return nullptr;
    }
    QPointF middle(const std::string& boardName) {
        const Hotspot* h = spotOf(boardName);
        REQUIRE(h);
        return stage.sheet().toScreen({(h->left + h->right) / 2, (h->top + h->bottom) / 2});
    }
    /// When each has been held against what went out: what has changed is marked.
    QStringList numbers() {
        REQUIRE(QTest::qWaitFor([this] { return stage.hasCompared(); }, 60000));
        QStringList all;
        for (int i = 0; i < stage.sheets().count(); ++i) all << stage.sheets().item(i)->text().section("   ", 0, 0);
        return all;
    }
    /// Edits an entered fact of the chosen view.
    void viewFact(const QString& label, const QString& value) {
        FactsView& f = panel.viewFacts();
        REQUIRE(f.editRow(label));
        auto* line = f.findChild<QLineEdit*>("factEditor", Qt::FindDirectChildrenOnly);
        REQUIRE(line);
        line->selectAll();
        type(*line, value);
        key(*line, Qt::Key_Return);
    }
};

} // namespace

TEST_CASE("four schedules on a sheet by typing their names, one dragged, the title block edited; the PDF agrees") {
    Composing d;
    const Project start = d.s.project();
    d.newSheet(1);
    REQUIRE(d.panel.isVisible());
    REQUIRE(d.s.project().composedSheets.size() == 1);
    // The keys go where one types what to place, and not to the remedy at the foot of the window.
    CHECK(d.window.focusWidget() == d.panel.findChild<QLineEdit*>("composeSearch"));
    CHECK_FALSE(d.window.findChild<QLabel*>("firstEffect")->isVisible());
    for (const char* name : {"LP-1", "LP-2", "LP-4", "HM-1"}) d.place(name);
    CHECK(d.s.project().placedViews.size() == 4);
    CHECK(d.item("LP-2")->text(1) == "here");
    CHECK(d.item("LP-3")->text(1).startsWith("E-6"));
    for (const char* name : {"LP-1", "LP-2", "LP-4", "HM-1"}) CHECK(d.spotOf(name));

    // Dragged down: it stays where it was let go, and the others where they were.
    const Hotspot before = *d.spotOf("LP-2"), other = *d.spotOf("HM-1");
    const QPointF from = d.middle("LP-2");
    d.drag(d.stage.sheet(), from, from + QPointF(4, 90));
    const Hotspot after = *d.spotOf("LP-2");
    CHECK(after.top > before.top + 40);
    CHECK(std::abs(after.left - before.left) < 8);
    CHECK(d.spotOf("HM-1")->left == Approx(other.left));
    CHECK(d.spotOf("HM-1")->top == Approx(other.top));

    // The keys move it by five millimetres, its facts put it somewhere in inches.
    d.click(d.stage.sheet(), d.middle("LP-2"));
    const double at = d.spotOf("LP-2")->top;
    d.key(d.stage.sheet(), Qt::Key_Down);
    CHECK(d.spotOf("LP-2")->top == Approx(at + 5));
    d.viewFact("From left", "10 in");
    CHECK(d.spotOf("LP-2")->left == Approx(12 + 254)); // from the border
    d.viewFact("From left", "25 cm");
    CHECK(d.spotOf("LP-2")->left == Approx(12 + 250));

    // Words of the title block.
    d.s.edit("Company", [](Project& p) { p.basis.company = "Hall & Daughters"; });
    d.pump();
    const QString number = q(d.stage.sheet().drawing().number);
    REQUIRE_FALSE(d.stage.exportPdf(d.path("set.pdf")));
    QProcess text;
    text.start("pdftotext", {"-layout", d.path("set.pdf"), "-"});
    REQUIRE(text.waitForFinished());
    const QStringList pages = QString::fromUtf8(text.readAllStandardOutput()).split('\f');
    const auto page = std::find_if(pages.begin(), pages.end(), [&](const QString& p) {
        return p.contains("Panel schedule LP-1") && p.contains("Panel schedule HM-1");
    });
    REQUIRE(page != pages.end());
    CHECK(page->contains(number));
    CHECK(page->contains("Hall & Daughters"));
    CHECK(page->contains("Café espresso machine")); // a circuit of LP-1
    CHECK(page->contains("RTU-1"));                 // one of HM-1

    // The menu is that of the view, also over a row of its schedule; the view goes to another sheet and back.
    const auto rowOf = [&](const std::string& boardName) {
        for (const Hotspot& h : d.stage.sheet().drawing().hotspots)
            if (const Circuit* c = d.s.project().circuits.find(h.thing.as<Circuit>()))
                if (c->board == d.board(boardName))
                    return d.stage.sheet().toScreen({(h.left + h.right) / 2, (h.top + h.bottom) / 2}).toPoint();
        return QPoint();
    };
    d.menu(d.stage.sheet(), rowOf("LP-1"), "A new sheet");
    CHECK(d.s.project().composedSheets.size() == 2);
    CHECK_FALSE(d.spotOf("LP-1"));
    d.act("undo");
    CHECK(d.spotOf("LP-1"));

    // Off again: its own sheet is back.
    d.click(d.stage.sheet(), d.middle("LP-4"));
    d.key(d.stage.sheet(), Qt::Key_Delete);
    CHECK(d.s.project().placedViews.size() == 3);
    CHECK(d.item("LP-4")->text(1).startsWith("E-6"));
    while (d.s.project() != start && d.window.action("undo")->isEnabled()) d.act("undo");
    CHECK(d.s.project() == start);
}

TEST_CASE("on a further page of a sheet a view is dragged, nudged and put on the first, as on the first page") {
    Composing d;
    d.newSheet(2); // all schedules, on as many pages as they take
    ComposedSheetId sheet;
    for (const ComposedSheet& s : d.s.project().composedSheets) sheet = s.id;
    REQUIRE(sheet);
    d.s.edit("Paper", [&](Project& p) { p.composedSheets.change(sheet)->paper = SheetPaper::Tabloid; });
    d.pump();
    const Hotspot* view = nullptr; // the first that begins on a further page
    int page = 1;
    for (int i = 0; i < d.stage.sheets().count() && !view; ++i) {
        if (!d.stage.sheets().item(i)->text().contains(", sheet ")) continue;
        ++page;
        d.stage.sheets().setCurrentRow(i);
        d.pump();
        for (const Hotspot& h : d.stage.sheet().drawing().hotspots)
            if (h.thing.is<PlacedView>() && h.part == 0) view = &h;
    }
    REQUIRE(view);
    const PlacedViewId id = view->thing.as<PlacedView>();
    const auto spot = [&]() -> const Hotspot* {
        for (const Hotspot& h : d.stage.sheet().drawing().hotspots)
            if (h.thing == Ref(id) && h.part == 0) return &h;
        return nullptr;
    };
    const double left = view->left;
    const QPointF from = d.stage.sheet().toScreen({(view->left + view->right) / 2, view->top + 5});
    d.drag(d.stage.sheet(), from, from + QPointF(60, 0));
    REQUIRE(spot());
    CHECK(spot()->left > left + 15);
    CHECK(d.s.project().placedViews[id].page == page);
    const double moved = spot()->left;
    d.key(d.stage.sheet(), Qt::Key_Left);
    CHECK(spot()->left == Approx(moved - 5));

    // By its facts it goes to the first page, and by one undo back.
    REQUIRE(d.panel.viewFacts().editRow("Page"));
    auto* box = d.panel.viewFacts().findChild<QComboBox*>("factEditor", Qt::FindDirectChildrenOnly);
    REQUIRE(box);
    CHECK(box->currentText() == QString::number(page));
    d.key(*box, Qt::Key_Home); // what is gone to is taken
    CHECK(d.s.project().placedViews[id].page == 1);
    d.act("undo");
    CHECK(d.s.project().placedViews[id].page == page);
}

TEST_CASE("all schedules together by one menu, undone in one step; the schedule of a board is found on its sheet") {
    Composing d;
    const Project start = d.s.project();
    const QStringList before = d.numbers();
    d.newSheet(2);
    CHECK(d.s.project().composedSheets.size() == 2);
    d.click(*d.panel.findChild<QPushButton*>("composeBack"), {5, 5});
    CHECK(d.numbers().size() < before.size() - 8);
    d.stage.showSchedule(d.board("LP-4"));
    d.pump();
    CHECK(d.stage.sheet().drawing().words().find("Panel schedule LP-4") != std::string::npos);
    // A heading there shapes the form of that board.
    for (const HeadingSpot& h : d.stage.sheet().drawing().headings)
        if (h.board == d.board("LP-4") && h.column == 1 && !h.mirrored) {
            d.click(d.stage.sheet(), d.stage.sheet().toScreen({(h.left + h.right) / 2, (h.top + h.bottom) / 2}));
            break;
        }
    CHECK(d.stage.form().isVisible());
    CHECK(d.stage.form().boardShown() == d.board("LP-4"));
    d.act("undo");
    CHECK(d.s.project() == start);
    CHECK(d.numbers() == before);
}

TEST_CASE("what the basis wants together stands below the sheets and is put there by one click, and undone by one") {
    Composing d;
    auto& told = *d.stage.findChild<QLabel*>("togetherProposal");
    CHECK_FALSE(told.isVisible());
    d.s.edit("Together", [](Project& p) { p.basis.sheetsTogether = SheetsTogether::Schedules; });
    d.pump();
    REQUIRE(told.isVisible());
    CHECK(told.text().contains("13 schedules"));
    CHECK_FALSE(told.text().contains("diagram"));
    const Project start = d.s.project();
    Q_EMIT told.linkActivated("put");
    d.pump();
    CHECK(d.s.project().composedSheets.size() == 2);
    CHECK_FALSE(told.isVisible());
    d.act("undo");
    d.pump();
    CHECK(d.s.project() == start);
    CHECK(told.isVisible());
}

TEST_CASE("notes are written beside the sheet and stand on it; what is being written is not lost by another sheet") {
    Composing d;
    d.newSheet(1);
    d.click(*d.panel.findChild<QPushButton*>("composeAddNotes"), {5, 5});
    auto* notes = d.panel.findChild<QPlainTextEdit*>("composeNotes");
    REQUIRE(notes->isVisible());
    QTest::keyClicks(notes, "Verify nameplates.");
    QTest::keyClick(notes, Qt::Key_Return);
    QTest::keyClicks(notes, "Paint per owner's R&D.");
    d.click(*d.panel.findChild<QPushButton*>("composeBack"), {5, 5});
    REQUIRE(d.s.project().placedViews.size() == 1);
    CHECK(d.s.project().placedViews.begin()->text == "Verify nameplates.\nPaint per owner's R&D.");
    const std::string words = d.stage.sheet().drawing().words();
    CHECK(words.find("Verify nameplates.") != std::string::npos);
    CHECK(words.find("Paint per owner's R&D.") != std::string::npos);
}

TEST_CASE("a sheet is put on a composed one by its menu, and the composed one taken apart by its own") {
    Composing d;
    const QStringList before = d.numbers();
    const auto row = [&](const QString& title) {
        QListWidget& list = d.stage.sheets();
        for (int i = 0; i < list.count(); ++i)
            if (list.item(i)->text().contains(title)) {
                list.setCurrentRow(i);
                list.scrollToItem(list.currentItem());
                d.pump();
                return list.visualItemRect(list.currentItem()).center();
            }
        FAIL("no such sheet");
        return QPoint();
    };
    d.menu(*d.stage.sheets().viewport(), row("Riser diagram"), "A new sheet");
    CHECK(d.panel.isVisible());
    CHECK(d.s.project().placedViews.size() == 1);
    CHECK(d.s.project().placedViews.begin()->shows == SheetKind::Riser);
    d.click(*d.panel.findChild<QPushButton*>("composeBack"), {5, 5});
    CHECK(d.numbers().size() == before.size());
    d.menu(*d.stage.sheets().viewport(), row("Riser diagram"), "Take the sheet apart");
    CHECK(d.s.project().composedSheets.empty());
    CHECK(d.numbers() == before);
}

TEST_CASE("rows of a form: letters, words of spares and the foot, typed in any unit; nonsense is refused and stays") {
    Composing d;
    d.stage.showSchedule(d.board("LP-1"));
    d.pump();
    d.stage.shapeForm(0);
    d.pump();
    FormPanel& form = d.stage.form();
    QTest::mouseClick(form.findChild<QPushButton*>("formRowsPage"), Qt::LeftButton);
    d.pump();
    const auto fill = [&](const char* name, const QString& text) {
        auto* line = form.findChild<QLineEdit*>(name);
        REQUIRE(line);
        REQUIRE(line->isVisible());
        line->setFocus();
        line->selectAll();
        QTest::keyClicks(line, text);
        QTest::keyClick(line, Qt::Key_Tab);
        REQUIRE(QTest::qWaitFor([&] { return d.stage.isCurrent(); }, 10000));
        d.pump();
        return line;
    };
    const auto now = [&] {
        const Project& p = d.s.project();
        return formOf(p, *d.s.solution().book, p.boards[d.board("LP-1")]);
    };
    fill("formLetters", "0.11 in");
    CHECK(now().letters == Approx(2.794));
    fill("formSpare", "SPARE");
    CHECK(now().spare == "SPARE");
    fill("formBalance", "10 %");
    CHECK(now().balance == 10);
    CHECK(d.stage.sheet().drawing().words().find("Balance") != std::string::npos);
    QLineEdit* letters = fill("formLetters", "big");
    CHECK(letters->text() == "big");
    CHECK(now().letters == Approx(2.794));
    letters = fill("formLetters", "40 mm");
    CHECK(now().letters == Approx(2.794));
    QTest::mouseClick(form.findChild<QCheckBox*>("formTally"), Qt::LeftButton, {}, {8, 8});
    REQUIRE(QTest::qWaitFor([&] { return d.stage.isCurrent(); }, 10000));
    d.pump();
    CHECK(now().withoutTally);
    CHECK(d.stage.sheet().drawing().words().find("Load tally") == std::string::npos);
}

TEST_CASE("a list is shaped beside its sheet: a click on its headings, ticks, another heading, another order") {
    Composing d;
    QListWidget& list = d.stage.sheets();
    for (int i = 0; i < list.count(); ++i)
        if (list.item(i)->text().startsWith("E-801")) list.setCurrentRow(i);
    d.pump();
    const Project start = d.s.project();
    const auto spot = [&] {
        const auto& all = d.stage.sheet().drawing().lists;
        const auto it = std::find_if(all.begin(), all.end(), [](const ListSpot& l) { return l.list == "feeders"; });
        REQUIRE(it != all.end());
        return d.stage.sheet().toScreen({(it->left + it->right) / 2, (it->top + it->bottom) / 2});
    };
    d.click(d.stage.sheet(), spot());
    ListFormPanel& panel = d.stage.listForms();
    REQUIRE(panel.isVisible());
    CHECK(panel.listShown() == "feeders");
    const auto row = [&](const QString& heading) {
        for (int i = 0; i < panel.columns().count(); ++i)
            if (panel.columns().item(i)->text() == heading) return i;
        return -1;
    };
    const auto settle = [&] {
        REQUIRE(QTest::qWaitFor([&] { return d.stage.isCurrent(); }, 10000));
        d.pump();
    };
    panel.columns().item(row("Conduit"))->setCheckState(Qt::Unchecked);
    settle();
    CHECK(d.stage.sheet().drawing().words().find("Feeder schedule") != std::string::npos);
    // Another heading, typed over it.
    panel.columns().setCurrentRow(row("From"));
    panel.columns().setFocus();
    QTest::keyClick(&panel.columns(), Qt::Key_F2);
    auto* line = panel.columns().findChild<QLineEdit*>();
    REQUIRE(line);
    line->selectAll();
    QTest::keyClicks(line, "Fed from");
    QTest::keyClick(line, Qt::Key_Return);
    settle();
    CHECK(row("Fed from") >= 0);
    CHECK(d.stage.sheet().drawing().words().find("\nFed from\n") != std::string::npos);
    auto* title = panel.findChild<QLineEdit*>("listTitle");
    title->setFocus();
    QTest::keyClicks(title, "Conductor schedule");
    QTest::keyClick(title, Qt::Key_Tab);
    settle();
    CHECK(d.stage.sheet().drawing().words().find("Conductor schedule\n") != std::string::npos);
    REQUIRE(d.s.project().listForms.size() == 1);
    CHECK(d.s.project().listForms.begin()->title == "Conductor schedule");
    // Rows in the order of a column, the last first; and together by another.
    const auto choose = [&](const char* box, const QString& heading) {
        auto* choices = panel.findChild<QComboBox*>(box);
        REQUIRE(choices);
        choices->setFocus();
        choices->setCurrentIndex(choices->findText(heading));
        Q_EMIT choices->activated(choices->currentIndex());
        settle();
    };
    auto* backwards = panel.findChild<QCheckBox*>("listBackwards");
    CHECK_FALSE(backwards->isEnabled());
    choose("listSortBy", "To");
    CHECK(d.s.project().listForms.begin()->sortBy == "To");
    REQUIRE(backwards->isEnabled());
    d.click(*backwards, QPoint(8, backwards->height() / 2));
    settle();
    CHECK(d.s.project().listForms.begin()->backwards);
    choose("listGroupBy", "What decided the size");
    CHECK(d.stage.sheet().drawing().words().find("What decided the size: load\n") != std::string::npos);
    for (int i = 0; i < 6; ++i) d.act("undo");
    CHECK(d.s.project() == start);
    CHECK(row("From") >= 0);
    CHECK(panel.columns().item(row("Conduit"))->checkState() == Qt::Checked);
}

TEST_CASE("notes that are kept come into another project from the library, and can be forgotten") {
    {
        Composing d;
        d.newSheet(1);
        d.click(*d.panel.findChild<QPushButton*>("composeAddNotes"), {5, 5});
        auto* notes = d.panel.findChild<QPlainTextEdit*>("composeNotes");
        QTest::keyClicks(notes, "Seal all penetrations & label them.");
        auto* menu = d.panel.findChild<QMenu*>("notesLibraryMenu");
        Q_EMIT menu->aboutToShow();
        for (QAction* a : menu->actions())
            if (a->text().startsWith("Keep each")) a->trigger();
    }
    Composing d;
    d.newSheet(1);
    d.click(*d.panel.findChild<QPushButton*>("composeAddNotes"), {5, 5});
    auto* menu = d.panel.findChild<QMenu*>("notesLibraryMenu");
    Q_EMIT menu->aboutToShow();
    QAction* kept = menu->actions().front();
    CHECK(kept->text() == "Seal all penetrations && label them.");
    kept->trigger();
    d.click(*d.panel.findChild<QPushButton*>("composeBack"), {5, 5});
    CHECK(d.stage.sheet().drawing().words().find("Seal all penetrations & label them.") != std::string::npos);
    Q_EMIT menu->aboutToShow();
    auto* forget = menu->findChild<QMenu*>();
    REQUIRE(forget);
    forget->actions().front()->trigger();
    Q_EMIT menu->aboutToShow();
    CHECK(menu->actions().front()->text() == "Nothing is kept yet");
}

TEST_CASE("what has the keys and is hidden gives them to the stage, never to a button that a blank would press") {
    Composing d;
    d.window.activateWindow();
    REQUIRE(QTest::qWaitForWindowActive(&d.window));
    d.s.edit("A sheet", [](Project& p) { (void)addComposedSheet(p); });
    d.pump();
    d.stage.showSheet("Composed sheet");
    d.pump();
    const Project before = d.s.project();
    auto* compose = d.stage.findChild<QPushButton*>("composeButton");
    REQUIRE(compose);
    REQUIRE(compose->isVisible());
    compose->setFocus();
    REQUIRE(QApplication::focusWidget() == compose);
    d.key(*compose, Qt::Key_Space); // opens the sheet, and hides itself
    d.pump();
    REQUIRE(d.panel.isVisible());
    CHECK(QApplication::focusWidget() == d.panel.findChild<QLineEdit*>("composeSearch"));
    CHECK_FALSE(d.window.findChild<QLabel*>("firstEffect")->isVisible());
    // And back: the button is gone with its panel.
    QPushButton* back = nullptr;
    for (QPushButton* b : d.panel.findChildren<QPushButton*>())
        if (b->text() == "Back") back = b;
    REQUIRE(back);
    back->setFocus();
    d.key(*back, Qt::Key_Space);
    d.pump();
    REQUIRE_FALSE(d.panel.isVisible());
    QWidget* now = QApplication::focusWidget();
    REQUIRE(now);
    INFO(now->metaObject()->className() << " " << now->objectName().toStdString());
    REQUIRE_FALSE(qobject_cast<QAbstractButton*>(now));
    d.key(*now, Qt::Key_Space);
    d.pump();
    CHECK(d.s.project() == before);
    CHECK_FALSE(d.window.findChild<QLabel*>("firstEffect")->isVisible());
}

TEST_CASE("a cut sheet is placed from the library, stands there alone, and goes back when it is taken off") {
    Composing d;
    const auto cutSheetWords = [&] {
        const Solution& now = d.s.solution();
        std::string words;
        for (const SheetEntry& e : issueSet(d.s.sheetInput(now)))
            if (e.title.rfind("Cut sheets", 0) == 0) words += e.draw().words();
        return words;
    };
    CHECK(cutSheetWords().find("Pendant luminaire") != std::string::npos);
    d.newSheet(1);
    d.place("Pendant luminaire");
    REQUIRE(d.s.project().placedViews.size() == 1);
    const PlacedView view = *d.s.project().placedViews.begin();
    CHECK(view.shows == SheetKind::CutSheet);
    CHECK(d.item("Pendant luminaire")->text(1) == "here");
    CHECK(d.stage.sheet().drawing().words().find("Pendant luminaire") != std::string::npos);
    CHECK(cutSheetWords().find("Pendant luminaire") == std::string::npos);
    d.s.undo();
    d.pump();
    CHECK(d.s.project().placedViews.empty());
    CHECK(cutSheetWords().find("Pendant luminaire") != std::string::npos);
}
