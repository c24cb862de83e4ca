#include "core/compare/Merge.h"
#include "tests/app/AppTest.h"

#include <QDialog>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QTreeWidget>

#include <csignal>
#include <filesystem>
#include <sys/wait.h>
#include <unistd.h>

using namespace lintel;

TEST_CASE("a truncated, a mistyped and a newer file: a clear message, and the open project is untouched") {
    Driven d;
    d.openDemo();
    const Project before = d.s.project();
    const std::string good = *readText(d.path("demo.lintel").toStdString());
    struct Bad {
        QString name;
        std::string text;
        QString says;
    };
    std::string mistyped = good, newer = good;
    mistyped.replace(mistyped.find("\"slots\":54"), 10, "\"slots\":\"x\"");
    newer.replace(newer.find("\"lintel\": 1"), 11, "\"lintel\": 9");
    for (const Bad& b :
         {Bad{"cut.lintel", good.substr(0, 4000), "cut short"}, Bad{"mistyped.lintel", mistyped, "boards[0].slots"},
          Bad{"newer.lintel", newer, "version 9"}}) {
        REQUIRE_FALSE(writeTextAtomically(b.text, d.path(b.name).toStdString()));
        QString shown;
        QTimer::singleShot(0, [&] {
            if (auto* box = d.window.findChild<QMessageBox*>("openFailed")) {
                shown = box->text() + box->informativeText();
                box->done(0);
            }
        });
        CHECK_FALSE(d.window.openFile(d.path(b.name)));
        INFO(shown.toStdString());
        CHECK(shown.contains(b.says));
        CHECK(shown.contains(b.name));
        CHECK(d.s.project() == before);
        CHECK(d.s.file().filename() == "demo.lintel");
    }
}

TEST_CASE("kill -9 while editing: started again, the edits are offered, and nothing is lost") {
    QTemporaryDir folder;
    const QString file = folder.filePath("job.lintel");
    QFile::copy(QString::fromStdString((dataFolder() / "demos" / "saltmarket-hall.lintel").string()), file);
    QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner);
    // A process of its own that edits and is killed: this test program, with the hidden test below.
    QProcess p;
    QProcessEnvironment env = QProcessEnvironment::systemEnvironment();
    env.insert("LINTEL_KILL_FILE", file);
    p.setProcessEnvironment(env);
    p.start(QCoreApplication::applicationFilePath(), {"[.killed]"});
    REQUIRE(p.waitForStarted());
    REQUIRE(p.waitForFinished(60000));
    CHECK(p.exitStatus() == QProcess::CrashExit);

    Driven d; // the same state folder, so the recent file and its journal are known
    const auto left = Session::leftBehind();
    REQUIRE(left.size() == 1);
    auto* offer = d.window.findChild<QPushButton*>("choice:Recover job.lintel");
    REQUIRE(offer);
    offer->click();
    d.pump();
    REQUIRE(d.s.isOpen());
    CHECK(d.s.project().basis.title == "Edited before the end");
    CHECK(d.s.project().circuits[d.at("LP-1", 1)].name == "Last words");
    CHECK(d.s.changed());
    CHECK(d.s.file().string() == file.toStdString());
    REQUIRE(d.s.save());
    CHECK(loadProject(file.toStdString())->basis.title == "Edited before the end");
    CHECK(Session::leftBehind().empty());
}

TEST_CASE("a journal that a running Lintel writes is not offered") {
    QTemporaryDir folder;
    const std::string file = folder.filePath("a.lintel").toStdString();
    REQUIRE_FALSE(saveProject({}, file));
    const auto journal = journalBeside(file);
    int ready[2];
    REQUIRE(::pipe(ready) == 0);
    const pid_t child = ::fork();
    if (child == 0) { // another process: writes, holds on, and is killed
        Document d;
        d.journalTo(JournalWriter::begin({file, {}}, {}));
        d.edit("Title", [](Project& p) { p.basis.title = "Held"; });
        (void)!::write(ready[1], "x", 1);
        ::pause();
        ::_exit(0);
    }
    char c;
    REQUIRE(::read(ready[0], &c, 1) == 1);
    CHECK_FALSE(readJournal(journal)->has_value());
    ::kill(child, SIGKILL);
    // Dead, and not yet reaped: it holds the journal no more.
    for (int i = 0; i < 200 && !readJournal(journal)->has_value(); ++i) ::usleep(10000);
    CHECK(readJournal(journal)->has_value());
    int status = 0;
    ::waitpid(child, &status, 0);
    ::close(ready[0]);
    ::close(ready[1]);
}

TEST_CASE("the process that is killed", "[.killed]") {
    const QString file = qEnvironmentVariable("LINTEL_KILL_FILE");
    REQUIRE_FALSE(file.isEmpty());
    MainWindow w;
    REQUIRE(w.openFile(file));
    Session& s = w.session();
    s.edit("Title", [](Project& p) { p.basis.title = "Edited before the end"; });
    BoardId lp1;
    for (const Board& b : s.project().boards)
        if (b.name == "LP-1") lp1 = b.id;
    const CircuitId c = slotMap(s.project(), lp1)[1];
    s.edit("Describe circuit", [&](Project& p) { p.circuits.change(c)->name = "Last words"; });
    std::raise(SIGKILL);
}

TEST_CASE("an unsaved project is recovered too, and a saved one leaves no journal") {
    std::filesystem::path journal;
    {
        Driven d;
        REQUIRE_FALSE(d.s.beginFrom(dataFolder() / "starters" / "us-208.lintel"));
        d.s.edit("Title", [](Project& p) { p.basis.title = "Never saved"; });
        CHECK(Session::leftBehind().empty()); // this window is writing it
        REQUIRE(d.s.saveAs(d.path("x.lintel").toStdString()));
        CHECK(Session::leftBehind().empty());
    }
    CHECK(Session::leftBehind().empty());
}

TEST_CASE("what is not to be recovered is put away, and kept") {
    Driven d;
    const auto folder = Session::stateFolder() / "recovery";
    std::filesystem::path journal;
    {
        Driven other;
        REQUIRE_FALSE(other.s.beginFrom(dataFolder() / "starters" / "us-208.lintel"));
        other.s.edit("Title", [](Project& p) { p.basis.title = "Never saved"; });
        for (const auto& e : std::filesystem::directory_iterator(folder))
            if (e.is_regular_file()) journal = e.path();
        REQUIRE_FALSE(journal.empty());
        std::filesystem::copy_file(journal, folder / "left-by-another-run");
    }
    REQUIRE(Session::leftBehind().size() == 1);
    d.window.showStart();
    d.pump();
    auto* button = d.window.findChild<QPushButton*>("putAway");
    REQUIRE(button);
    QTest::mouseClick(button, Qt::LeftButton);
    d.pump();
    CHECK(Session::leftBehind().empty());
    CHECK_FALSE(d.window.findChild<QPushButton*>("putAway"));
    int kept = 0;
    for (const auto& e : std::filesystem::directory_iterator(folder / "put-away")) kept += e.is_regular_file();
    CHECK(kept == 1);
}

TEST_CASE("saving where one cannot says so and keeps the project") {
    Driven d;
    d.openDemo();
    const auto bad = d.s.saveAs("/proc/nowhere/job.lintel");
    REQUIRE_FALSE(bad);
    CHECK(bad.error.text().find("cannot be written") != std::string::npos);
    CHECK(d.s.isOpen());
    CHECK(d.s.file().filename() == "demo.lintel");
}

namespace {
/// Clicks a button of the message box that comes up next; gives what the box said.
QString answerBox(const char* box, const char* button, const std::function<void()>& cause) {
    QString said;
    QTimer waiter;
    QObject::connect(&waiter, &QTimer::timeout, [&] {
        auto* shown = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        if (!shown || shown->objectName() != box) return;
        said = shown->text() + "\n" + shown->informativeText();
        if (auto* b = shown->findChild<QAbstractButton*>(button))
            QTest::mouseClick(b, Qt::LeftButton);
        else
            shown->done(0);
    });
    waiter.start(20);
    cause();
    return said;
}
} // namespace

TEST_CASE("a file changed outside is merged: both people's work is there, what both changed is told, and it is saved") {
    Driven d;
    d.openDemo();
    const std::filesystem::path file = d.s.file();
    const BoardId board = d.board("LP-1"), other = d.board("LP-2");
    // Theirs, saved by somebody else meanwhile.
    Project theirs = d.s.project();
    theirs.boards.change(other)->description = "Theirs: behind the screen";
    theirs.boards.change(board)->description = "Theirs";
    REQUIRE_FALSE(saveProject(theirs, file));
    // Ours.
    d.s.edit("Ours", [&](Project& p) {
        p.boards.change(board)->description = "Ours";
        p.basis.client = "Ours: R&D <Ltd>";
    });
    const Project before = d.s.project();
    const QString said = answerBox("saveRefused", "saveMerge", [&] { d.window.action("save")->trigger(); });
    CHECK(said.contains("changed by someone else"));
    d.pump();
    CHECK(d.s.project().boards[other].description == "Theirs: behind the screen");
    CHECK(d.s.project().basis.client == "Ours: R&D <Ltd>");
    CHECK(d.s.project().boards[board].description == "Ours");
    auto* report = d.window.findChild<QDialog*>("mergeReport");
    REQUIRE(report);
    auto* list = report->findChild<QTreeWidget*>("mergeConflicts");
    REQUIRE(list->topLevelItemCount() == 1);
    CHECK(list->topLevelItem(0)->text(0) == "LP-1");
    CHECK(list->topLevelItem(0)->text(3) == "Ours");
    CHECK(list->topLevelItem(0)->text(4) == "Theirs");
    list->setCurrentItem(list->topLevelItem(0));
    CHECK(d.s.selection() == Ref(board));
    // Decided by a click on the value, by the keys and for all at once; each is one step that undoes.
    QTreeWidgetItem* row = list->topLevelItem(0);
    const auto clickOn = [&](int column) {
        d.click(*list->viewport(), list->visualItemRect(row)
                                       .intersected(QRect(list->header()->sectionViewportPosition(column), 0,
                                                          list->header()->sectionSize(column), 10000))
                                       .center());
    };
    CHECK(row->text(5) == "yours");
    clickOn(4);
    CHECK(d.s.project().boards[board].description == "Theirs");
    CHECK(row->text(5) == "theirs");
    CHECK(d.s.undoLabel() == "Choose of LP-1");
    clickOn(1); // no value
    CHECK(d.s.project().boards[board].description == "Theirs");
    list->setCurrentItem(row, 2);
    QTest::keyClick(list, Qt::Key_Space);
    CHECK(d.s.project().boards[board].description ==
          loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel")->boards[board].description);
    CHECK(row->text(5) == "as before");
    QTest::mouseClick(report->findChild<QPushButton*>("mergeAllTheirs"), Qt::LeftButton);
    CHECK(d.s.project().boards[board].description == "Theirs");
    d.s.edit("Another", [&](Project& p) { p.boards.change(board)->description = "Behind the stalls"; });
    CHECK(row->text(5) == "changed since");
    for (int i = 0; i < 4; ++i) d.s.undo();
    CHECK(row->text(5) == "yours");
    CHECK(d.s.project().boards[board].description == "Ours");
    CHECK(report->findChild<QLabel*>("mergeRefusal")->isHidden());
    report->close();
    // Taken back, theirs is no part of it: saving asks again, and a merge begins where the first one did.
    d.s.undo();
    CHECK(d.s.project() == before);
    answerBox("saveRefused", "none", [&] { d.window.action("save")->trigger(); });
    CHECK(loadProject(file)->boards[other].description == "Theirs: behind the screen"); // nothing was overwritten
    d.s.setReviewing(true);
    CHECK_FALSE(d.s.mergeWithFile());
    d.s.setReviewing(false);
    const QString again = answerBox("saveRefused", "saveMerge", [&] { d.window.action("save")->trigger(); });
    CHECK(again.contains("changed by someone else"));
    d.pump();
    CHECK(d.s.project().boards[other].description == "Theirs: behind the screen");
    CHECK(d.s.project().boards[board].description == "Ours");
    // Theirs is part of it by now: saving asks nothing more, and the whole merge is one step.
    CHECK(d.s.save());
    CHECK(loadProject(file)->boards[other].description == "Theirs: behind the screen");
    d.s.undo();
    CHECK(d.s.project() == before);
}

TEST_CASE("what was typed and not entered is in the file that is saved, and is asked about before one leaves") {
    Driven d;
    d.openDemo();
    const std::filesystem::path file = d.s.file();
    const auto field = [&](const char* name) {
        auto* e = d.window.basis().findChild<QLineEdit*>(name);
        REQUIRE(e);
        return e;
    };
    d.window.go(Stage::Basis);
    d.window.activateWindow(); // what is typed has the focus, as in a running application
    REQUIRE(QTest::qWaitForWindowActive(&d.window));
    d.pump();
    // Typed, with the cursor still in the field; another is pending and not taken.
    field("client")->setFocus();
    field("client")->selectAll();
    QTest::keyClicks(field("client"), "Saltmarket Trust");
    QTest::keyClick(field("client"), Qt::Key_Return);
    CHECK(d.window.basis().pending());
    field("drawn")->setFocus();
    field("drawn")->selectAll();
    QTest::keyClicks(field("drawn"), "A. Lindqvist");
    // An edit from elsewhere meanwhile takes nothing of it away.
    d.s.edit("Elsewhere", [](Project& p) { p.basis.site = "1 Saltmarket Square"; });
    d.pump();
    CHECK(d.window.basis().pending());
    CHECK(field("client")->text() == "Saltmarket Trust");
    CHECK(field("drawn")->text() == "A. Lindqvist");
    CHECK(field("site")->text() == "1 Saltmarket Square");
    d.window.action("save")->trigger();
    d.pump();
    const auto saved = loadProject(file);
    REQUIRE(saved);
    CHECK(saved->basis.client == "Saltmarket Trust");
    CHECK(saved->basis.drawn == "A. Lindqvist");
    CHECK(saved->basis.site == "1 Saltmarket Square");
    CHECK_FALSE(d.window.basis().pending());
    // Leaving with something typed asks; going to another stage says that it is not taken.
    field("drawn")->setFocus();
    field("drawn")->selectAll();
    QTest::keyClicks(field("drawn"), "L. Hesse");
    QTest::keyClick(field("drawn"), Qt::Key_Return);
    QString said;
    QObject::connect(&d.s, &Session::said, &d.window, [&](const QString& message, bool) { said = message; });
    d.window.go(Stage::Boards);
    d.pump();
    CHECK(said.contains("not taken yet"));
    bool asked = false;
    QTimer::singleShot(0, &d.window, [&] {
        auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
        REQUIRE(box);
        asked = true;
        QTest::mouseClick(box->button(QMessageBox::Cancel), Qt::LeftButton);
    });
    d.window.close();
    CHECK(asked);
    CHECK(d.s.project().basis.drawn == "L. Hesse");
}

TEST_CASE("the same file in two windows: the second is asked, reads, and changes nothing") {
    Driven first;
    first.openDemo();
    first.s.edit("Title", [](Project& p) { p.basis.title = "First window"; });
    const QString file = first.path("demo.lintel");
    Driven second;
    QString said = answerBox("openElsewhere", "openForReading", [&] { CHECK(second.window.openFile(file)); });
    CHECK(said.contains("demo.lintel is open in another window"));
    second.pump();
    CHECK(second.s.reading());
    CHECK(second.window.windowTitle().contains("reading"));
    const Project before = second.s.project();
    QString message;
    QObject::connect(&second.s, &Session::said, [&](const QString& m, bool) { message = m; });
    CHECK_FALSE(second.s.edit("Title", [](Project& p) { p.basis.title = "Second window"; }));
    CHECK(message.contains("open for reading"));
    CHECK(second.s.project() == before);
    CHECK(first.s.save());
    CHECK(loadProject(file.toStdString())->basis.title == "First window");
    // As a copy it has no file, and everything can be changed.
    Driven third;
    answerBox("openElsewhere", "openACopy", [&] { CHECK(third.window.openFile(file)); });
    third.pump();
    CHECK_FALSE(third.s.reading());
    CHECK(third.s.file().empty());
    CHECK(third.s.edit("Title", [](Project& p) { p.basis.title = "A copy"; }));
    CHECK(third.s.saveAs(third.path("copy.lintel").toStdString()));
    CHECK(loadProject(file.toStdString())->basis.title == "First window");
    CHECK(Session::leftBehind().empty());
}

TEST_CASE("a file changed outside: saving asks, and replacing, reloading and leaving it all lose nothing") {
    Driven d;
    d.openDemo();
    const auto file = d.s.file();
    Project theirs = d.s.project();
    theirs.basis.title = "Theirs";
    theirs.boards.change(theirs.boards.begin()->id)->description = "changed by another";
    REQUIRE_FALSE(saveProject(theirs, file));
    d.s.edit("Title", [](Project& p) { p.basis.title = "Mine"; });
    QString said = answerBox("saveRefused", "none", [&] { d.window.action("save")->trigger(); });
    CHECK(said.contains("changed by someone else"));
    CHECK(said.contains("1 board, the basis") != said.contains("the basis, 1 board")); // what differs is told
    const Edit differs = difference(theirs, d.s.project(), "");
    const auto lines = differs.lines(theirs, d.s.project(), 10);
    REQUIRE(lines.size() == 2);
    CHECK(lines[0] == "basis: changed");
    CHECK(lines[1] == "boards " + theirs.boards.begin()->name + ": changed");
    CHECK(loadProject(file)->basis.title == "Theirs");
    CHECK(d.s.project().basis.title == "Mine");
    answerBox("saveRefused", "saveReload", [&] { d.window.action("save")->trigger(); });
    d.pump();
    CHECK(d.s.project().basis.title == "Theirs");
    const auto left = Session::leftBehind(); // what was here and is in no file
    REQUIRE(left.size() == 1);
    REQUIRE_FALSE(d.s.recover(left[0]));
    CHECK(d.s.project().basis.title == "Mine");
    CHECK(d.s.file().empty()); // a copy: the file has gone another way
    CHECK(d.s.copyName().filename() == "demo (recovered).lintel");
    REQUIRE(d.s.saveAs(d.s.copyName()));
    CHECK(Session::leftBehind().empty());
    // Replacing is done when it is asked for.
    REQUIRE_FALSE(d.s.open(file));
    d.s.edit("Title", [](Project& p) { p.basis.title = "Mine again"; });
    theirs.basis.title = "Theirs again";
    REQUIRE_FALSE(saveProject(theirs, file));
    answerBox("saveRefused", "saveReplace", [&] { d.window.action("save")->trigger(); });
    CHECK(loadProject(file)->basis.title == "Mine again");
    CHECK_FALSE(d.s.changed());
}

TEST_CASE("earlier versions are kept where the menu says so") {
    Driven d;
    d.openDemo();
    auto* keep = d.window.findChild<QAction*>("oldVersions3");
    REQUIRE(keep);
    keep->trigger();
    for (int i = 0; i < 5; ++i) {
        d.s.edit("Title", [&](Project& p) { p.basis.title = "Version " + std::to_string(i); });
        REQUIRE(d.s.save());
    }
    CHECK(QDir(d.folder.path()).entryList({"demo.old-*.lintel"}).size() == 3);
    d.window.findChild<QAction*>("oldVersions0")->trigger();
    CHECK(Session::oldVersions() == 0);
}

TEST_CASE("the window that is killed at random", "[.killed at random]") {
    // Edits as fast as it can, and tells each one in a file that outlives it.
    const QString file = qEnvironmentVariable("LINTEL_KILL_FILE"), told = qEnvironmentVariable("LINTEL_KILL_TOLD");
    REQUIRE_FALSE(file.isEmpty());
    MainWindow w;
    w.show();
    Session& s = w.session();
    const auto left = Session::leftBehind();
    if (!left.empty()) {
        REQUIRE_FALSE(s.recover(left.back()));
        if (s.file().empty()) REQUIRE(s.saveAs(file.toStdString()));
    } else {
        REQUIRE(w.openFile(file));
    }
    QFile out(told);
    REQUIRE(out.open(QIODevice::WriteOnly | QIODevice::Append | QIODevice::Unbuffered));
    for (long n = QString::fromStdString(s.project().basis.jobNumber).toLong() + 1;; ++n) {
        s.edit("Edit", [&](Project& p) { p.basis.jobNumber = std::to_string(n); });
        out.write(QByteArray::number(qlonglong(n)) + "\n");
        if (n % 5 == 0) REQUIRE(s.save());
        QCoreApplication::processEvents();
    }
}

TEST_CASE("the real window, killed at random moments, loses at most the edit in the making") {
    // LINTEL_WINDOW_KILLS says how often; by itself four times.
    const int times =
        qEnvironmentVariableIsSet("LINTEL_WINDOW_KILLS") ? qEnvironmentVariableIntValue("LINTEL_WINDOW_KILLS") : 4;
    QTemporaryDir folder;
    const QString file = folder.filePath("job.lintel"), told = folder.filePath("told");
    Project start = *loadProject(dataFolder() / "starters" / "us-shop.lintel");
    start.basis.jobNumber = "0";
    REQUIRE_FALSE(saveProject(start, file.toStdString()));
    QProcessEnvironment env = QProcessEnvironment::systemEnvironment();
    env.insert("LINTEL_KILL_FILE", file);
    env.insert("LINTEL_KILL_TOLD", told);
    env.insert("LINTEL_STATE", folder.filePath("state"));
    std::srand(7);
    long before = 0;
    int went = 0;
    for (int i = 0; i < times; ++i) {
        QProcess p;
        p.setProcessEnvironment(env);
        p.start(QCoreApplication::applicationFilePath(), {"[.killed at random]"});
        REQUIRE(p.waitForStarted());
        const qint64 size = QFileInfo(told).size();
        QElapsedTimer clock;
        clock.start();
        while (QFileInfo(told).size() == size && clock.elapsed() < 20000 && p.state() == QProcess::Running)
            QThread::msleep(5); // it is at work
        QThread::msleep(std::uint32_t(std::rand() % 300));
        INFO(p.readAllStandardOutput().toStdString());
        REQUIRE(p.state() == QProcess::Running); // nothing was refused on the way
        p.kill();
        REQUIRE(p.waitForFinished(10000));
        QFile out(told);
        REQUIRE(out.open(QIODevice::ReadOnly));
        const QList<QByteArray> lines = out.readAll().split('\n');
        const long last = lines.size() > 1 ? lines[lines.size() - 2].toLong() : 0;
        went += last > before;
        before = last;
        Document none;
        const Keeper keeper(none, folder.filePath("state").toStdString());
        long back = std::stol(loadProject(file.toStdString())->basis.jobNumber);
        for (const auto& journal : keeper.leftBehind(file.toStdString()))
            if (const auto r = readJournal(journal); r && *r)
                back = std::max(back, std::stol((*r)->recovered.basis.jobNumber));
        CHECK(back >= last);
        CHECK(back <= last + 1);
    }
    CHECK(went >= times - 1);
}
