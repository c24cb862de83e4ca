// Issuing a set in the window: the gate, what is kept, what has changed since, and the comparison with it.

#include "app/issue/FilesDialog.h"
#include "app/issue/IssueDialog.h"
#include "app/issue/PrintSheets.h"
#include "app/issue/ReportDialog.h"
#include "app/issue/SendByMail.h"
#include "core/project/Operations.h"
#include "core/solve/Solve.h"
#include "tests/app/AppTest.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDir>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QPrintPreviewDialog>
#include <QPrinter>
#include <QProcess>
#include <QPushButton>

using namespace lintel;

namespace {

struct OnIssue : Driven {
    OnIssue() {
        Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
        p.issues = {}; // from before its first issue
        p.sheetNumbers = {};
        REQUIRE_FALSE(s.begin(p));
        window.go(Stage::Issue);
        pump();
    }
    /// Opens the gate by its button and works on it while it is open.
    void gate(const std::function<void(IssueDialog&)>& work) {
        bool met = false;
        QTimer::singleShot(0, &window, [&] {
            auto* dialog = qobject_cast<IssueDialog*>(QApplication::activeModalWidget());
            REQUIRE(dialog);
            met = true;
            work(*dialog);
        });
        QTest::mouseClick(window.issue().findChild<QPushButton*>("makeIssue"), Qt::LeftButton);
        pump();
        CHECK(met);
    }
    static void typeInto(QWidget& dialog, const char* name, const QString& text) {
        auto* e = dialog.findChild<QLineEdit*>(name);
        REQUIRE(e);
        e->setFocus();
        e->selectAll();
        QTest::keyClicks(e, text);
    }
    /// The sheets' rows with what is said of them, when all have been looked at.
    QStringList rows() {
        REQUIRE(QTest::qWaitFor([this] { return window.issue().hasCompared(); }, 60000));
        QStringList out;
        for (int i = 0; i < window.issue().sheets().count(); ++i)
            out << window.issue().sheets().item(i)->toolTip() + window.issue().sheets().item(i)->text().left(1);
        return out;
    }
};

} // namespace

TEST_CASE("issue: the gate names what stands in the way, and nothing goes out until somebody takes it on") {
    OnIssue d;
    auto* made = d.window.issue().findChild<QLabel*>("issuesMade");
    REQUIRE(made);
    CHECK(made->text() == "Nothing was issued yet.");
    // Cancelled: nothing has changed.
    d.gate([](IssueDialog& dialog) {
        CHECK_FALSE(dialog.findChild<QPushButton*>("issueGo")->isEnabled());
        CHECK(dialog.findChild<QLabel*>("issueRefusal")->text().contains("14 stops are open"));
        QTest::keyClick(&dialog, Qt::Key_Escape);
    });
    CHECK(d.s.project().issues.empty());
    CHECK(d.s.undoLabel().isEmpty());
    d.gate([](IssueDialog& dialog) {
        OnIssue::typeInto(dialog, "issueMark", "T1");
        OnIssue::typeInto(dialog, "issueReason", "Issued for tender, R&D <floor>");
        for (QLineEdit* taker : dialog.findChildren<QLineEdit*>("issueTaker")) {
            CHECK_FALSE(dialog.findChild<QPushButton*>("issueGo")->isEnabled());
            QTest::keyClicks(taker, "R. Amadi");
        }
        auto* go = dialog.findChild<QPushButton*>("issueGo");
        CHECK(go->isEnabled());
        OnIssue::typeInto(dialog, "issueMark", " ");
        CHECK_FALSE(go->isEnabled());
        OnIssue::typeInto(dialog, "issueMark", "T1");
        QTest::mouseClick(go, Qt::LeftButton);
    });
    REQUIRE(d.s.project().issues.size() == 1);
    const Issue issue = d.s.project().issues[{1}];
    CHECK(issue.mark == "T1");
    CHECK(issue.sheets.size() == std::size_t(d.window.issue().sheets().count()));
    CHECK(issue.taken.front().by == "R. Amadi");
    CHECK(made->text().startsWith("T1 · "));
    CHECK(d.s.project().basis.revisions.back().text == "Issued for tender, R&D <floor>");
    CHECK(d.s.undoLabel() == "Issue T1");
    CHECK(d.rows().filter("changed").isEmpty());
    CHECK(made->text().contains("No sheet has changed since T1."));

    // What is changed afterwards is marked, sheet by sheet, and the comparison names it.
    CircuitId circuit;
    for (const Circuit& c : d.s.project().circuits)
        if (nameOf(d.s.project(), c.id) == "LP-1-1") circuit = c.id;
    REQUIRE(circuit);
    d.s.edit("Rename", [&](Project& p) { p.circuits.change(circuit)->name = "Stalls 1 to 4, till"; });
    d.pump();
    const QStringList changed = d.rows().filter("changed since T1");
    CHECK(changed.filter("LP-1").size() == 1);
    CHECK(changed.filter("△").size() == changed.size());
    CHECK(made->text().contains("changed since T1: △"));
    CHECK(changed.filter("LP-2").isEmpty());
    REQUIRE_FALSE(d.window.issue().compareWithIssue({1}));
    d.pump();
    QString told;
    for (const QLabel* label : d.window.issue().changes().findChildren<QLabel*>()) told += label->text() + "\n";
    for (const auto* list : d.window.issue().changes().findChildren<QListWidget*>())
        for (int i = 0; i < list->count(); ++i) told += list->item(i)->text() + "\n";
    CHECK(told.contains("issue T1"));
    d.window.issue().endComparison();

    // It undoes in one step, and comes again.
    d.s.undo();
    d.s.undo();
    d.pump();
    CHECK(d.s.project().issues.empty());
    CHECK(made->text() == "Nothing was issued yet.");
    d.s.redo();
    d.pump();
    CHECK(d.s.project().issues[{1}] == issue);
}

TEST_CASE("what cannot be worked out is said, and nothing from before it is written or printed") {
    Driven d;
    d.openDemo();
    d.window.go(Stage::Issue);
    d.pump();
    QStringList said;
    QObject::connect(&d.s, &Session::said, &d.window, [&](const QString& text, bool) { said << text; });
    const Ref board = d.s.project().boards.begin()->id;
    const auto rename = [&](const char* name) {
        d.s.edit("Rename", [&](Project& p) { p.boards.change(board.as<Board>())->name = name; });
    };
    rename("Later");
    const auto early = d.s.refuseOld(0); // no time to work it out
    REQUIRE(early);
    CHECK(early->text().find("nothing was written") != std::string::npos);
    CHECK_FALSE(d.s.refuseOld());

    d.s.solveWith([](const Project&, const RuleBook&) -> Results { throw std::runtime_error("no memory is left"); });
    rename("Worse");
    CHECK_FALSE(d.s.waitSolved());
    CHECK(said.join("\n").contains("no memory is left"));
    IssueStage& issue = d.window.issue();
    const QString file = d.path("set.pdf"), book = d.path("lists.xlsx");
    const auto refused = issue.exportPdf(file);
    REQUIRE(refused);
    CHECK(refused->text().find("Undo it") != std::string::npos);
    CHECK(issue.exportLists(book));
    CHECK(issue.exportCards(d.path("cards.pdf")));
    CHECK_FALSE(issue.exportDxf(d.folder.path()));
    CHECK(issue.makeIssue({}));
    CHECK(QDir(d.folder.path()).entryList({"*.pdf", "*.xlsx", "*.dxf"}).isEmpty());

    d.s.solveWith([](const Project& p, const RuleBook& b) { return solve(p, b); });
    d.s.undo();
    CHECK(d.s.waitSolved());
    d.pump();
    CHECK_FALSE(issue.exportLists(book));
    CHECK(QFile::exists(book));
}

TEST_CASE("issue: a sheet's number is typed where it stands, and those that went out stay as they are") {
    OnIssue d;
    auto& list = d.window.issue().sheets();
    const auto rowOf = [&](const QString& title) {
        for (int i = 0; i < list.count(); ++i)
            if (list.item(i)->text().endsWith(title)) return i;
        return -1;
    };
    const auto number = [&](const QString& title) { return list.item(rowOf(title))->text().section(' ', 0, 0); };
    const auto type = [&](const QString& title, const QString& text, Qt::Key with) {
        REQUIRE(rowOf(title) >= 0);
        list.setCurrentRow(rowOf(title));
        list.setFocus();
        QTest::keyClick(&list, Qt::Key_F2);
        auto* line = list.findChild<QLineEdit*>("sheetNumber");
        REQUIRE(line);
        QTest::keyClicks(line, text);
        QTest::keyClick(line, with);
        d.pump();
        return line;
    };
    REQUIRE(number("Panel schedule LP-1") == "E-605");
    const QString was = number("Panel schedule LP-2");
    type("Panel schedule LP-1", "E-650", Qt::Key_Tab); // not lost by going elsewhere
    CHECK(number("Panel schedule LP-1") == "E-650");
    CHECK(d.s.undoLabel() == "Number E-650 for Panel schedule LP-1");
    CHECK(list.item(rowOf("Panel schedule LP-1"))->toolTip().contains("It keeps this number"));
    CHECK(d.window.issue().sheet().drawing().number == "E-650");
    type("Panel schedule LP-2", "E-660", Qt::Key_Escape);
    CHECK(number("Panel schedule LP-2") != "E-660");
    auto* refused = type("Panel schedule LP-2", "E-650", Qt::Key_Return);
    CHECK(refused->isVisible()); // it stays, to be put right
    CHECK(d.s.undoLabel() == "Number E-650 for Panel schedule LP-1");
    QTest::keyClick(refused, Qt::Key_Escape);
    d.pump();
    type("Panel schedule LP-1", " ", Qt::Key_Return); // let go
    CHECK(number("Panel schedule LP-1") == "E-605");
    CHECK(number("Panel schedule LP-2") == was);
    list.setCurrentRow(rowOf("Drawing index"));
    QTest::keyClick(&list, Qt::Key_F2);
    CHECK_FALSE(list.findChild<QLineEdit*>("sheetNumber"));
    // All as they are, by the menu: a board that comes before them changes none.
    QTimer::singleShot(0, &d.window, [] {
        auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        REQUIRE(menu);
        for (QAction* a : menu->actions())
            if (a->text() == "Keep all numbers as they are") menu->setActiveAction(a);
        QTest::keyClick(menu, Qt::Key_Return);
    });
    const QPoint at = list.visualItemRect(list.currentItem()).center();
    QContextMenuEvent press(QContextMenuEvent::Mouse, at, list.viewport()->mapToGlobal(at));
    QApplication::sendEvent(list.viewport(), &press);
    d.pump();
    CHECK(d.s.undoLabel() == "Keep sheet numbers");
    d.s.edit("Add", [](Project& p) {
        Board b;
        b.name = "AA-1";
        b.level = p.levels.begin()->id;
        addBoard(p, b);
    });
    d.pump();
    CHECK(number("Panel schedule LP-1") == "E-605");
    CHECK(list.item(rowOf("Panel schedule AA-1"))->font().italic());
    CHECK_FALSE(list.item(rowOf("Panel schedule LP-1"))->font().italic());
}

TEST_CASE("calculation report in the window: what it is of, how deep, and the file that is written") {
    OnIssue d;
    const CircuitId store = d.at("LP-1", 27);
    d.s.select(store);
    ReportOrder order;
    bool met = false;
    QTimer::singleShot(0, &d.window, [&] {
        auto* dialog = qobject_cast<ReportDialog*>(QApplication::activeModalWidget());
        REQUIRE(dialog);
        met = true;
        auto* of = dialog->findChild<QComboBox*>("reportOf");
        auto* path = dialog->findChild<QCheckBox*>("reportPath");
        const auto* about = dialog->findChild<QLabel*>("reportAbout");
        CHECK_FALSE(path->isEnabled()); // of the whole there is no way
        CHECK(about->text().startsWith("The whole project: "));
        of->setCurrentIndex(of->findText("LP-3"));
        CHECK(path->isEnabled());
        CHECK(about->text().startsWith("LP-3 with all it feeds, and the way to it: 8 boards"));
        QTest::mouseClick(path, Qt::LeftButton, {}, QPoint(8, path->height() / 2));
        CHECK(about->text().startsWith("The way from the supply to LP-3: 5 boards"));
        // The circuit that is selected in the window stands in the list as well.
        of->setCurrentIndex(of->findText("LP-1-27"));
        CHECK(about->text().contains("1 branch circuit."));
        dialog->findChild<QComboBox*>("reportDepth")->setCurrentIndex(2);
        order = dialog->order();
        QTest::keyClick(dialog, Qt::Key_Escape);
    });
    QTest::mouseClick(d.window.issue().findChild<QPushButton*>("exportReport"), Qt::LeftButton);
    REQUIRE(met);
    CHECK(order.of == Ref(store));
    CHECK(order.depth == ReportDepth::Everything);
    QTemporaryDir folder;
    const QString file = folder.filePath("calculations.pdf");
    REQUIRE_FALSE(d.window.issue().exportReport(file, order));
    const QString words = pdfText(file);
    CHECK(words.contains("The way from the supply to LP-1-27"));
    CHECK(words.contains("25.5 %")); // its drop
    CHECK(words.contains("310.16"));
    CHECK_FALSE(words.contains("LP-1-26"));
}

TEST_CASE("printing: sheets at their own size where the paper is that large, else reduced to it; pages by choice") {
    QTemporaryDir folder;
    Drawing letter, large;
    letter.text({20, 30}, "A schedule", 4);
    large.width = 914.4, large.height = 609.6;
    large.text({20, 580}, "A plan", 12);
    CHECK(printScale(letter, 215.9, 279.4) == 1);
    CHECK(printScale(large, 431.8, 279.4) == Approx(279.4 / 609.6)); // on Tabloid: by its height
    const auto printed = [&](QPageSize::PageSizeId paper, int from, int to) {
        const QString file = folder.filePath("out.pdf");
        QPrinter printer(QPrinter::HighResolution);
        printer.setOutputFormat(QPrinter::PdfFormat);
        printer.setOutputFileName(file);
        printer.setPageSize(QPageSize(paper));
        if (from > 0) {
            printer.setPrintRange(QPrinter::PageRange);
            printer.setFromTo(from, to);
        }
        printSheets(printer, {letter, large, letter});
        return file;
    };
    const QString all = pdfText(printed(QPageSize::Letter, 0, 0));
    CHECK(all.count("A schedule") == 2);
    CHECK(all.contains("A plan")); // reduced, and still on the paper
    CHECK(all.count('\f') == 3);
    const QString second = pdfText(printed(QPageSize::Letter, 2, 2));
    CHECK(second.count('\f') == 1);
    CHECK(second.contains("A plan"));
    // The plan lies on its side.
    QProcess info;
    info.start("pdfinfo", {"-f", "1", "-l", "1", folder.filePath("out.pdf")});
    info.waitForFinished(20000);
    CHECK(QString::fromUtf8(info.readAllStandardOutput()).contains("792 x 612"));
}

TEST_CASE("printing from the window: the ticked sheets are shown, none ticked is told") {
    OnIssue d;
    QString said;
    QObject::connect(&d.s, &Session::said, &d.window, [&](const QString& words, bool) { said = words; });
    bool met = false;
    QTimer::singleShot(0, &d.window, [&] {
        auto* dialog = qobject_cast<QPrintPreviewDialog*>(QApplication::activeModalWidget());
        REQUIRE(dialog);
        met = true;
        dialog->reject();
    });
    QTest::mouseClick(d.window.issue().findChild<QPushButton*>("printSheets"), Qt::LeftButton);
    CHECK(met);
    for (int i = 0; i < d.window.issue().sheets().count(); ++i)
        d.window.issue().sheets().item(i)->setCheckState(Qt::Unchecked);
    QTest::mouseClick(d.window.issue().findChild<QPushButton*>("printSheets"), Qt::LeftButton);
    CHECK(said.contains("No sheet is ticked"));
}

TEST_CASE("all files of the set: chosen, named, seen before they are written, and remembered for the next time") {
    {
        OnIssue d;
        bool met = false;
        QTimer::singleShot(0, &d.window, [&] {
            auto* dialog = qobject_cast<FilesDialog*>(QApplication::activeModalWidget());
            REQUIRE(dialog);
            met = true;
            auto* about = dialog->findChild<QLabel*>("filesAbout");
            auto* go = dialog->findChild<QPushButton*>("filesGo");
            CHECK(about->text().startsWith("SH-204-"));
            CHECK(about->text().contains("sheets.pdf"));
            OnIssue::typeInto(*dialog, "filesPattern", "{jobb} {what}");
            CHECK_FALSE(go->isEnabled());
            CHECK(about->text().contains("there is no place {jobb}"));
            OnIssue::typeInto(*dialog, "filesPattern", "R&D {what}");
            CHECK(go->isEnabled());
            CHECK(about->text().contains("R&D sheets.pdf"));
            for (auto* box : dialog->findChildren<QCheckBox*>())
                if (box->objectName().startsWith("files-")) box->setChecked(false);
            CHECK_FALSE(go->isEnabled());
            CHECK(about->text().contains("Say which files."));
            QTest::mouseClick(dialog->findChild<QCheckBox*>("files-lists"), Qt::LeftButton, {}, QPoint(8, 8));
            QTest::mouseClick(dialog->findChild<QCheckBox*>("files-results"), Qt::LeftButton, {}, QPoint(8, 8));
            CHECK(about->text() == "R&D lists.xlsx\nR&D results.json");
            // What is chosen is taken over; the folder is asked for afterwards, which a test does itself.
            const IssueFilesOrder order = dialog->order();
            QTest::mouseClick(dialog->findChild<QCheckBox*>("filesArchive"), Qt::LeftButton, {}, QPoint(8, 8));
            CHECK(about->text() == "R&D files.zip");
            QTest::mouseClick(dialog->findChild<QCheckBox*>("filesArchive"), Qt::LeftButton, {}, QPoint(8, 8));
            QTemporaryDir folder;
            const auto written = d.window.issue().exportFiles(folder.path(), order);
            REQUIRE(written);
            CHECK(written->contains("2 files written into"));
            CHECK(QDir(folder.path()).entryList(QDir::Files, QDir::Name) ==
                  QStringList{"R&D lists.xlsx", "R&D results.json"});
            CHECK_FALSE(d.window.issue().exportFiles(folder.path(), order)); // they are there already
            QTimer::singleShot(0, &d.window, [] {                            // the folder: none
                if (auto* asks = QApplication::activeModalWidget()) QTest::keyClick(asks, Qt::Key_Escape);
            });
            QTest::mouseClick(go, Qt::LeftButton);
        });
        QTest::mouseClick(d.window.issue().findChild<QPushButton*>("exportFiles"), Qt::LeftButton);
        d.pump();
        CHECK(met);
    }
    OnIssue again;
    const std::vector<SheetEntry> none;
    const auto solution = again.s.sharedSolution();
    const SheetInput in = again.s.sheetInput(*solution);
    FilesDialog dialog(in, none);
    CHECK(dialog.order().pattern == "R&D {what}");
    CHECK(dialog.order().kinds == std::set<IssueFile>{IssueFile::Lists, IssueFile::Results});
}

TEST_CASE("a sheet's title is typed over it in the list; a sheet is left out of the set, told, and taken back") {
    OnIssue d;
    QListWidget& list = d.window.issue().sheets();
    const Project start = d.s.project();
    const auto rowOf = [&](const QString& title) {
        for (int i = 0; i < list.count(); ++i)
            if (list.item(i)->text().section("   ", 1).remove("△ ") == title) return i;
        return -1;
    };
    const auto at = [&](const QString& title) {
        REQUIRE(rowOf(title) >= 0);
        list.setCurrentRow(rowOf(title));
        list.scrollToItem(list.currentItem());
        d.pump();
        return list.visualItemRect(list.currentItem()).center();
    };
    (void)at("Panel schedule LP-2");
    list.setFocus();
    QTest::keyClick(&list, Qt::Key_F2, Qt::ShiftModifier);
    auto* line = list.findChild<QLineEdit*>("sheetTitle");
    REQUIRE(line);
    CHECK(line->text() == "Panel schedule LP-2");
    line->selectAll();
    QTest::keyClicks(line, "Kitchen and bar");
    QTest::keyClick(line, Qt::Key_Return);
    d.pump();
    CHECK(rowOf("Kitchen and bar") >= 0);
    CHECK(d.window.issue().sheet().drawing().words().find("Kitchen and bar") != std::string::npos);
    CHECK_FALSE(list.item(rowOf("Kitchen and bar"))->font().italic()); // a title keeps no number

    const int before = list.count();
    d.menu(*list.viewport(), at("Kitchen and bar"), "Leave it out of the set");
    CHECK(list.count() == before - 1);
    CHECK(rowOf("Kitchen and bar") < 0);
    CHECK(d.window.issue().findChild<QLabel*>("issuesMade")->text().contains("Left out of the set: 1 sheet."));
    d.menu(*list.viewport(), at("Riser diagram"), "Kitchen and bar"); // of those that can be taken back
    CHECK(list.count() == before);
    CHECK(rowOf("Kitchen and bar") >= 0);
    for (int i = 0; i < 3; ++i) d.s.undo();
    d.pump();
    CHECK(d.s.project() == start);

    // Lists follow what there is: they have no title of their own.
    (void)at("Drawing index");
    QTest::keyClick(&list, Qt::Key_F2, Qt::ShiftModifier);
    CHECK_FALSE(list.findChild<QLineEdit*>("sheetTitle"));
}

TEST_CASE("what went out with an architect's drawing below it has not changed while that has not") {
    for (const bool again : {false, true}) { // as the demo was issued, and issued again here
        INFO(again);
        Driven d;
        for (const char* name : {"saltmarket-hall.lintel", "saltmarket-hall-ground.dxf", "saltmarket-hall-upper.dxf",
                                 "saltmarket-hall-roof.dxf"})
            REQUIRE(QFile::copy(QString::fromStdString((dataFolder() / "demos" / name).string()), d.path(name)));
        REQUIRE(d.window.openFile(d.path("saltmarket-hall.lintel").toStdString()));
        d.window.go(Stage::Issue);
        d.pump();
        const auto settled = [&] { return d.window.issue().hasCompared(); };
        REQUIRE(QTest::qWaitFor(settled, 60000));
        if (again) {
            const Results& r = d.s.solution().results;
            IssueDraft draft;
            draft.mark = "4", draft.date = "2026-12-07", draft.reason = "Addendum", draft.by = "RA";
            const CheckInput in{d.s.project(), *d.s.solution().book, r};
            for (const SheetEntry& e : issueSet({in.project, in.book, in.results})) draft.sheets.push_back(e.key);
            for (const GateItem& item : issueGate(in)) draft.taken.push_back({item.what, "L. Hesse"});
            REQUIRE_FALSE(d.window.issue().makeIssue(draft));
            d.pump();
            REQUIRE(QTest::qWaitFor(settled, 60000));
        }
        auto* made = d.window.issue().findChild<QLabel*>("issuesMade");
        REQUIRE(made);
        INFO(made->text().toStdString());
        CHECK(made->text().contains(again ? "No sheet has changed since 4" : "No sheet has changed since 3"));
    }
}

TEST_CASE("files of a set go to the mail program, attached to a letter, where the desktop has one") {
    QTemporaryDir tools;
    const QByteArray before = qgetenv("PATH");
    qputenv("PATH", tools.path().toLocal8Bit()); // no program at all
    CHECK_FALSE(canSendByMail());
    CHECK_FALSE(sendByMail("Saltmarket Hall, 3", {"/tmp/a.pdf"}));
    const QString program = tools.filePath("xdg-email"), told = tools.filePath("told");
    {
        QFile script(program);
        REQUIRE(script.open(QIODevice::WriteOnly));
        script.write("#!/bin/sh\nfor word in \"$@\"; do echo \"$word\"; done > '" + told.toUtf8() +
                     ".part'\n/bin/mv '" + told.toUtf8() + ".part' '" + told.toUtf8() + "'\n");
        script.setPermissions(QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner);
    }
    CHECK(canSendByMail());
    OnIssue d;
    const std::vector<SheetEntry> none;
    const auto solution = d.s.sharedSolution();
    const SheetInput in = d.s.sheetInput(*solution);
    FilesDialog dialog(in, none);
    CHECK_FALSE(dialog.byMail()); // only where somebody asks
    dialog.show();
    d.pump();
    QTest::mouseClick(dialog.findChild<QCheckBox*>("filesMail"), Qt::LeftButton, {}, QPoint(8, 8));
    CHECK(dialog.byMail());
    CHECK(sendByMail("R&D hall, 3", {"/tmp/a b.pdf", "/tmp/c.zip"}));
    REQUIRE(QTest::qWaitFor([&] { return QFile::exists(told); }, 20000));
    QFile words(told);
    REQUIRE(words.open(QIODevice::ReadOnly));
    CHECK(QString::fromUtf8(words.readAll()).split('\n', Qt::SkipEmptyParts) ==
          QStringList{"--utf8", "--subject", "R&D hall, 3", "--attach", "/tmp/a b.pdf", "--attach", "/tmp/c.zip"});
    qputenv("PATH", before);
}
