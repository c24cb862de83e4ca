#include "tests/app/AppTest.h"

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
    struct Bad { QString name; std::string text; QString says; };
    std::string mistyped = good, newer = good;
    mistyped.replace(mistyped.find("\"slots\":54"), 10, "\"slots\":\"x\"");
    newer.replace(newer.find("\"lintel\": 1"), 11, "\"lintel\": 9");
    for (const Bad& b : {Bad{"cut.lintel", good.substr(0, 4000), "cut short"}, Bad{"mistyped.lintel", mistyped, "boards[0].slots"}, Bad{"newer.lintel", newer, "version 9"}}) {
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
