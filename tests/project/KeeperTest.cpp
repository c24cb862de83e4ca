// Work that cannot be lost: what is told here happened to somebody, or nearly.

#include "core/project/Keeper.h"
#include "core/base/TextFile.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/Building.h"

#include <csignal>
#include <fmt/format.h>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sys/resource.h>
#include <sys/stat.h>
#include <unistd.h>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

struct Folder {
    fs::path path;
    explicit Folder(const fs::path& in = fs::temp_directory_path()) {
        static int n = 0;
        path = in / ("lintel-keeper-" + std::to_string(::getpid()) + "-" + std::to_string(++n));
        fs::create_directories(path);
    }
    ~Folder() {
        std::error_code ec;
        fs::remove_all(path, ec);
    }
    fs::path operator/(const std::string& name) const { return path / name; }
};

Project titled(const std::string& title) {
    Project p;
    p.basis.title = title;
    return p;
}

/// A window: a document with its file and journal.
struct Window {
    Document doc;
    Keeper keeper;
    explicit Window(const fs::path& state) : keeper(doc, state) {}
    void open(const fs::path& file) {
        const auto text = readText(file);
        REQUIRE(text);
        auto p = readProject(*text, file.filename().string());
        REQUIRE(p);
        keeper.begin(*p, file, *text);
    }
    void title(const std::string& to) {
        REQUIRE(doc.edit("Title " + to, [&](Project& p) { p.basis.title = to; }));
    }
    /// Ends as a program that is killed: the journal stays and nobody holds it.
    void die() { keeper.leaveJournal(); }
};

/// While one lives, no file of this process grows beyond so many bytes: a disk that is full.
struct FullDisk {
    rlimit before{};
    explicit FullDisk(rlim_t bytes) {
        std::signal(SIGXFSZ, SIG_IGN);
        ::getrlimit(RLIMIT_FSIZE, &before);
        rlimit now = before;
        now.rlim_cur = bytes;
        REQUIRE(::setrlimit(RLIMIT_FSIZE, &now) == 0);
    }
    ~FullDisk() { ::setrlimit(RLIMIT_FSIZE, &before); }
};

} // namespace

TEST_CASE("after a crash, opening the file, editing and saving it leaves the lost edits on offer") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("Start"), file));
    {
        Window first(state.path);
        first.open(file);
        first.title("Lost");
        first.die();
    }
    Window second(state.path);
    second.open(file);
    CHECK(second.keeper.leftBehind(file).size() == 1);
    second.title("Another way");
    REQUIRE(second.keeper.save(file));
    const auto left = second.keeper.leftBehind(file);
    REQUIRE(left.size() == 1);
    const auto r = readJournal(left[0]);
    REQUIRE(r);
    REQUIRE(r->has_value());
    CHECK((*r)->recovered.basis.title == "Lost");
    CHECK_FALSE((*r)->fits); // the file has gone on: it comes back as a copy
    REQUIRE_FALSE(second.keeper.recover(left[0]));
    CHECK(second.doc.project().basis.title == "Lost");
    CHECK(second.keeper.file().empty());
    CHECK(second.keeper.copyName() == folder / "job (recovered).lintel");
    CHECK(loadProject(file)->basis.title == "Another way");
    CHECK(second.keeper.leftBehind(file).empty());
}

TEST_CASE("a journal comes back onto its file, and goes only when the new one holds it") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("Start"), file));
    {
        Window first(state.path);
        first.open(file);
        first.title("One");
        first.title("Two");
        first.die();
    }
    Window second(state.path);
    const auto left = second.keeper.leftBehind(file);
    REQUIRE(left.size() == 1);
    REQUIRE_FALSE(second.keeper.recover(left[0]));
    CHECK(second.doc.project().basis.title == "Two");
    CHECK(second.keeper.file() == file);
    CHECK(second.keeper.changed());
    CHECK_FALSE(fs::exists(left[0]));
    // Killed at once, before anything was saved: it is all there again.
    second.die();
    Window third(state.path);
    const auto again = third.keeper.leftBehind(file);
    REQUIRE(again.size() == 1);
    CHECK((*readJournal(again[0]))->recovered.basis.title == "Two");
    REQUIRE_FALSE(third.keeper.recover(again[0]));
    REQUIRE(third.keeper.save(file));
    CHECK(loadProject(file)->basis.title == "Two");
    CHECK(third.keeper.leftBehind(file).empty());
}

TEST_CASE("the same file in two windows: the second reads, and neither journal is touched") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("Start"), file));
    Window first(state.path), second(state.path);
    first.open(file);
    first.title("First");
    CHECK(second.keeper.openElsewhere(file));
    CHECK_FALSE(first.keeper.openElsewhere(file)); // not by itself
    second.open(file);
    CHECK(second.keeper.reading());
    const SaveAnswer refused = second.keeper.save(file);
    CHECK(refused.trouble == SaveTrouble::OpenElsewhere);
    CHECK(refused.error.text().find("another window") != std::string::npos);
    CHECK(second.keeper.save(folder / "copy.lintel"));
    CHECK_FALSE(second.keeper.reading());
    REQUIRE(first.keeper.save(file)); // a reader does not stand in its way
    CHECK(loadProject(file)->basis.title == "First");
    // By another name for the same file, too.
    fs::create_symlink(file, folder / "link.lintel");
    CHECK(second.keeper.save(folder / "link.lintel").trouble == SaveTrouble::OpenElsewhere);
}

TEST_CASE("a file is open nowhere else once its journal is left, however long a slow disk takes to write it") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("Start"), file));
    Window w(state.path);
    w.open(file);
    w.title("Mine");
    const int synced = ::dup(w.keeper.journalDescriptor()); // as a thread does that syncs it meanwhile
    REQUIRE(synced >= 0);
    w.die();
    CHECK_FALSE(w.keeper.openElsewhere(file));
    ::close(synced);
}

TEST_CASE("a file that was changed meanwhile is not overwritten without asking") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("Start"), file));
    Window w(state.path);
    w.open(file);
    w.title("Mine");
    CHECK_FALSE(w.keeper.changedOutside());
    REQUIRE_FALSE(saveProject(titled("Theirs"), file));
    const SaveAnswer refused = w.keeper.save(file);
    CHECK(refused.trouble == SaveTrouble::ChangedOutside);
    CHECK(loadProject(file)->basis.title == "Theirs");
    CHECK(w.keeper.changed());
    SaveOptions replace;
    replace.overwriteOutside = true;
    REQUIRE(w.keeper.save(file, replace));
    CHECK(loadProject(file)->basis.title == "Mine");
    // Written anew with the same bytes is no change.
    const std::string same = *readText(file);
    REQUIRE_FALSE(writeTextAtomically(same, file));
    w.title("Mine too");
    CHECK(w.keeper.save(file));
    // Gone is no reason not to save: there is nothing to lose.
    fs::remove(file);
    w.title("Back");
    CHECK(w.keeper.save(file));
    CHECK(loadProject(file)->basis.title == "Back");
}

TEST_CASE("a full disk cuts a line of the journal: the next one says it all") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("Start"), file));
    Window w(state.path);
    w.open(file);
    w.title("Before");
    CHECK(w.keeper.journalHealthy());
    const auto room = fs::file_size(w.doc.journalWriter()->path());
    {
        const FullDisk full(room + 10); // ten bytes of the next line go in
        w.title("While it was full");
        CHECK_FALSE(w.keeper.journalHealthy());
        w.title("And again");
        CHECK(fs::file_size(w.doc.journalWriter()->path()) == room); // the piece was cut off
    }
    w.title("After");
    CHECK(w.keeper.journalHealthy());
    w.die();
    const auto left = w.keeper.leftBehind(file);
    REQUIRE(left.size() == 1);
    const auto r = readJournal(left[0]);
    REQUIRE(*r);
    CHECK((*r)->recovered.basis.title == "After");
    CHECK((*r)->unread == 0);
}

TEST_CASE("a journal that could not be begun is begun at a later edit, with all that was done") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("Start"), file));
    Window w(state.path);
    {
        const FullDisk full(0);
        w.open(file);
        CHECK_FALSE(w.keeper.journalHealthy());
        w.title("Unwritten");
    }
    w.title("Written");
    CHECK(w.keeper.journalHealthy());
    w.die();
    const auto left = w.keeper.leftBehind(file);
    REQUIRE(left.size() == 1);
    CHECK((*readJournal(left[0]))->recovered.basis.title == "Written");
}

TEST_CASE("where a folder cannot be written, the journal stands in the state folder, and is found") {
    Folder state;
    const fs::path file = "/proc/job.lintel"; // no user may write there
    Window w(state.path);
    w.keeper.begin(titled("Start"), file, {});
    REQUIRE(w.keeper.journalHealthy());
    CHECK(w.doc.journalWriter()->path().parent_path() == state / "recovery");
    w.title("Kept");
    w.die();
    Window next(state.path);
    const auto left = next.keeper.leftBehind({});
    REQUIRE(left.size() == 1);
    CHECK((*readJournal(left[0]))->recovered.basis.title == "Kept");
    CHECK(next.keeper.leftBehind(file).size() == 1);
}

TEST_CASE("a state folder on another disk: what is put away arrives whole, or stays where it is") {
    Folder here;
    std::error_code ec;
    Folder there(fs::is_directory("/dev/shm", ec) ? fs::path("/dev/shm") : fs::temp_directory_path());
    const std::string text(300'000, 'x');
    std::ofstream(here / "journal") << text;
    REQUIRE_FALSE(moveFile(here / "journal", there / "journal"));
    CHECK_FALSE(fs::exists(here / "journal"));
    CHECK(*readText(there / "journal") == text);
    {
        const FullDisk full(1000);
        const auto bad = moveFile(there / "journal", here / "journal");
        REQUIRE(bad);
        CHECK(bad->help.find("still where it was") != std::string::npos);
    }
    CHECK(*readText(there / "journal") == text);
    CHECK_FALSE(fs::exists(here / "journal"));
    std::ofstream(here / "journal") << "mine";
    CHECK(moveFile(there / "journal", here / "journal")); // never over another
    CHECK(*readText(here / "journal") == "mine");
}

TEST_CASE("saving on a full disk changes nothing, and the journal goes on") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("Start"), file));
    const std::string before = *readText(file);
    Window w(state.path);
    w.open(file);
    w.title("Mine");
    {
        const FullDisk full(20);
        const SaveAnswer answer = w.keeper.save(file);
        CHECK(answer.trouble == SaveTrouble::Failed);
        CHECK(answer.error.help.find("Nothing was lost") != std::string::npos);
    }
    CHECK(*readText(file) == before);
    CHECK(w.keeper.changed());
    w.die();
    CHECK((*readJournal(w.keeper.leftBehind(file).at(0)))->recovered.basis.title == "Mine");
    CHECK(std::distance(fs::directory_iterator(folder.path), {}) ==
          2); // the file and the journal: no half file is left
}

TEST_CASE("damage in a journal: what stands before it comes back, the rest is counted, and the journal is kept") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("Start"), file));
    Window w(state.path);
    w.open(file);
    w.title("One");
    w.title("Two");
    w.die();
    const fs::path journal = w.keeper.leftBehind(file).at(0);
    std::string text = *readText(journal);
    const auto second = text.find("Title Two");
    text[text.rfind('{', second)] = '?';
    text += "{\"label\":\"Three\",\"changes\":[{\"in\":\"basis\",\"before\":null,\"after\":null}]}\n";
    text += "{\"label\":\"Four\",\"changes\":[{\"in\":\"circuits\",\"before\":null,\"after\":{\"id\":\"C9\",\"board\":"
            "\"B77\"}}]}\n";
    std::ofstream(journal) << text;
    const auto r = readJournal(journal);
    REQUIRE(r);
    REQUIRE(r->has_value());
    CHECK((*r)->recovered.basis.title == "One");
    CHECK((*r)->unread == 3);
    Window next(state.path);
    REQUIRE_FALSE(next.keeper.recover(journal));
    CHECK(next.doc.project().basis.title == "One");
    CHECK(fs::exists(journal));
}

TEST_CASE("a line of a journal that tells of another state than there was is held against what is there") {
    // C1 and C2 have runs of their own. The line says that C2 had the run of C1 all along, and merely its name changed.
    Folder folder;
    Project p = titled("Start");
    Board b;
    b.name = "LP-1";
    const BoardId board = addBoard(p, b);
    const CircuitId one = addCircuit(p, board, 1, "One"), two = addCircuit(p, board, 1, "Two");
    REQUIRE(p.circuits[one].run != p.circuits[two].run);
    Project before = p, after = p;
    before.circuits.change(two)->run = after.circuits.change(two)->run = p.circuits[one].run;
    after.circuits.change(two)->name = "Desks";
    const fs::path journal = folder.path / "x-journal";
    std::ofstream(journal) << "{\"lintelJournal\":2,\"project\":\"\",\"fingerprint\":\"0\"}\n"
                           << nlohmann::json(writeProject(p)).dump() << "\n"
                           << writeEdit(difference(before, after, "Describe circuit")) << "\n";
    const auto r = readJournal(journal);
    REQUIRE(r);
    REQUIRE(r->has_value());
    CHECK((*r)->unread == 1);
    CHECK((*r)->recovered.circuits[two].name == "Two");
    CHECK_FALSE(validate((*r)->recovered));
}

TEST_CASE("a journal with a null basis or an id that points to nothing brings back what held before") {
    Folder folder;
    const std::string base = writeProject(titled("Start"));
    const std::string head =
        "{\"lintelJournal\":2,\"project\":\"\",\"fingerprint\":\"0\"}\n" + nlohmann::json(base).dump() + "\n";
    const std::string good = writeEdit(difference(titled("Start"), titled("Good"), "Title")) + "\n";
    for (const char* bad :
         {"{\"label\":\"x\",\"changes\":[{\"in\":\"basis\",\"before\":{},\"after\":null}]}",
          "{\"label\":\"x\",\"changes\":[{\"in\":\"circuits\",\"after\":{\"id\":\"C1\",\"board\":\"B9\"}}]}",
          "{\"label\":\"x\",\"changes\":[{\"in\":\"basis\",\"after\":{\"ambient\":1e9}}]}",
          "{\"label\":\"x\",\"changes\":[{\"in\":\"boards\",\"before\":{\"id\":\"B1\"},\"after\":{\"id\":\"B2\"}}]}",
          "{\"label\":\"x\",\"changes\":[{\"in\":\"boards\",\"after\":{\"id\":\"B9999999\"}}]}", "[[[[",
          "\xED\xA0\x80"}) {
        INFO(bad);
        std::ofstream(folder / "journal", std::ios::binary) << head << good << bad << "\n";
        const auto r = readJournal(folder / "journal");
        REQUIRE(r);
        REQUIRE(r->has_value());
        CHECK((*r)->recovered.basis.title == "Good");
        CHECK((*r)->unread == 1);
    }
}

TEST_CASE("a journal of the first version still comes back") {
    Folder folder;
    const std::string base = writeProject(titled("Start"));
    const nlohmann::json head{{"lintelJournal", 1},
                              {"pid", 1},
                              {"project", ""},
                              {"fingerprint", fmt::format("{:016x}", fingerprintOf(base))},
                              {"base", base}};
    std::ofstream(folder / "journal") << head.dump() << "\n"
                                      << writeEdit(difference(titled("Start"), titled("Old"), "Title")) << "\n";
    const auto r = readJournal(folder / "journal");
    REQUIRE(r);
    REQUIRE(r->has_value());
    CHECK((*r)->recovered.basis.title == "Old");
}

TEST_CASE("saving follows symbolic links, keeps mode and owner, and parts no hard link from its file") {
    Folder folder;
    const fs::path file = folder / "real.lintel", link = folder / "link.lintel", twin = folder / "twin.lintel";
    REQUIRE_FALSE(saveProject(titled("One"), file));
    ::chmod(file.c_str(), 0640);
    fs::create_symlink("real.lintel", link);
    REQUIRE_FALSE(saveProject(titled("Two"), link));
    CHECK(fs::is_symlink(link));
    CHECK(loadProject(file)->basis.title == "Two");
    struct stat s {};
    ::stat(file.c_str(), &s);
    CHECK((s.st_mode & 07777) == 0640);
    if (::geteuid() == 0) { // only root may give a file away
        REQUIRE(::chown(file.c_str(), 1234, 4321) == 0);
        REQUIRE_FALSE(saveProject(titled("Three"), file));
        ::stat(file.c_str(), &s);
        CHECK(s.st_uid == 1234);
        CHECK(s.st_gid == 4321);
        CHECK((s.st_mode & 07777) == 0640);
    }
    fs::create_hard_link(file, twin);
    REQUIRE_FALSE(saveProject(titled("Four, and a longer text than before it"), file));
    CHECK(loadProject(twin)->basis.title == "Four, and a longer text than before it");
    REQUIRE_FALSE(saveProject(titled("5"), twin)); // and a shorter one
    CHECK(loadProject(file)->basis.title == "5");
    // A link that points to nothing yet makes what it points to.
    fs::create_symlink("new.lintel", folder / "to-new.lintel");
    REQUIRE_FALSE(saveProject(titled("New"), folder / "to-new.lintel"));
    CHECK(loadProject(folder / "new.lintel")->basis.title == "New");
    CHECK(std::distance(fs::directory_iterator(folder.path), {}) == 5);
}

TEST_CASE("names of 255 bytes and names that are not UTF-8 are saved, journalled and recovered") {
    for (const std::string& name : {std::string(248, 'a') + ".lintel",
                                    std::string("K\xFC"
                                                "che.lintel"),
                                    std::string("100 % {x} Küche.lintel"), std::string("bytes:x.lintel")}) {
        INFO(name);
        Folder folder, state;
        const fs::path file = folder / name;
        REQUIRE_FALSE(saveProject(titled("Start"), file));
        Window w(state.path);
        w.open(file);
        REQUIRE(w.keeper.journalHealthy());
        w.title("Edited");
        REQUIRE(w.keeper.save(file));
        w.title("Not saved");
        w.die();
        Window next(state.path);
        const auto left = next.keeper.leftBehind(file);
        REQUIRE(left.size() == 1);
        CHECK((*readJournal(left[0]))->project == file);
        REQUIRE_FALSE(next.keeper.recover(left[0]));
        CHECK(next.doc.project().basis.title == "Not saved");
        REQUIRE(next.keeper.save(file));
        CHECK(loadProject(file)->basis.title == "Not saved");
    }
}

TEST_CASE("paths come back from their text, whatever bytes they hold") {
    for (const std::string& raw : {std::string("/plain/path"), std::string("/k\xFC%41/\xC3\xA9"),
                                   std::string("bytes:odd"), std::string("/100%")}) {
        INFO(raw);
        CHECK(pathFromText(textOfPath(raw)).native() == raw);
        CHECK_NOTHROW(nlohmann::json(textOfPath(raw)).dump());
    }
}

TEST_CASE("earlier versions are kept beside the file, numbered, and no more than asked for") {
    Folder folder, state;
    const fs::path file = folder / "job.lintel";
    REQUIRE_FALSE(saveProject(titled("0"), file));
    Window w(state.path);
    w.open(file);
    SaveOptions three;
    three.oldVersions = 3;
    for (int i = 1; i <= 6; ++i) {
        w.title(std::to_string(i));
        REQUIRE(w.keeper.save(file, three));
    }
    CHECK(loadProject(file)->basis.title == "6");
    CHECK(loadProject(folder / "job.old-6.lintel")->basis.title == "5");
    CHECK(loadProject(folder / "job.old-5.lintel")->basis.title == "4");
    CHECK(loadProject(folder / "job.old-4.lintel")->basis.title == "3");
    CHECK_FALSE(fs::exists(folder / "job.old-3.lintel"));
    w.title("7");
    REQUIRE(w.keeper.save(file)); // not asked for: none is made, none goes
    CHECK(fs::exists(folder / "job.old-4.lintel"));
    CHECK_FALSE(fs::exists(folder / "job.old-7.lintel"));
}

TEST_CASE("an edit that could not be opened again is refused, and says why") {
    Document d(randomBuilding(3, 4));
    const Project before = d.project();
    const double nan = std::nan(""), inf = HUGE_VAL;
    const CircuitId c = d.project().circuits.begin()->id;
    const BoardId b = d.project().boards.begin()->id;
    const std::pair<const char*, std::function<void(Project&)>> refused[] = {
        {"ambient", [&](Project& p) { p.basis.ambient = nan; }},
        {"ownValues", [&](Project& p) { p.basis.ownValues["continuous/factor"] = inf; }},
        {"title", [&](Project& p) { p.basis.title = "\xFF\xFE"; }},
        {"title", [&](Project& p) { p.basis.title = std::string(40'000, 'x'); }},
        {"title", [&](Project& p) { p.basis.title = std::string("a\0b", 3); }},
        {"poles", [&](Project& p) { p.circuits.change(c)->poles = 7; }},
        {"factor", [&](Project& p) { p.circuits.change(c)->factor = nan; }},
        {"heldBreaker", [&](Project& p) { p.circuits.change(c)->heldBreaker = nan; }},
        {"board", [&](Project& p) { p.circuits.change(c)->board = {77}; }},
        {"at",
         [&](Project& p) {
             p.boards.change(b)->at = {nan, 0};
         }},
        {"at",
         [&](Project& p) {
             p.boards.change(b)->at = {1e300, 0};
         }},
        {"feed", [&](Project& p) { p.boards.change(b)->feed = CircuitId{9999}; }},
        {"board", [&](Project& p) { p.boards.remove(b); }}, // its circuits would hang in the air
        {"id",
         [&](Project& p) {
             Board x;
             x.id = {60'000};
             p.boards.put(x);
         }},
    };
    for (const auto& [field, change] : refused) {
        INFO(field);
        CHECK_FALSE(d.edit("Nonsense", change));
        REQUIRE(d.refusal());
        CHECK(d.refusal()->where.find(field) != std::string::npos);
        CHECK(d.project() == before);
        CHECK_FALSE(d.canUndo());
    }
    CHECK_FALSE(d.edit("Throws", [](Project&) { throw std::runtime_error("no such thing"); }));
    REQUIRE(d.refusal());
    CHECK(d.refusal()->what == "no such thing");
    CHECK(d.edit("Sense", [](Project& p) { p.basis.ambient = 40; }));
    CHECK_FALSE(d.refusal());
}

TEST_CASE("a project that could not be opened again is not saved over one that can") {
    Folder folder;
    REQUIRE_FALSE(saveProject(titled("Good"), folder / "job.lintel"));
    Project bad = titled("Bad");
    bad.basis.ambient = std::nan("");
    const auto error = saveProject(bad, folder / "job.lintel");
    REQUIRE(error);
    CHECK(error->text().find("ambient") != std::string::npos);
    CHECK(loadProject(folder / "job.lintel")->basis.title == "Good");
}
