#include "core/project/Document.h"
#include "core/project/Fields.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/World.h"

#include <fstream>
#include <nlohmann/json.hpp>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

/// Sets every field to a value of its own.
struct Filler {
    int n = 1;
    void operator()(const char*, std::string& s) { s = "text " + std::to_string(n++); }
    void operator()(const char*, double& d) { d = 0.5 + 0.001 * n++; }
    void operator()(const char*, int& i) { i = 1 + n++ % 2; }
    void operator()(const char*, bool& b) { b = !b; }
    void operator()(const char*, Point& p) { p = {double(n), double(n) + 0.25}, ++n; }
    void operator()(const char*, std::vector<Point>& ps) { ps = {{0, 0}, {1, 0}, {1, double(n++)}}; }
    void operator()(const char*, std::vector<std::string>& v) { v = {"lighting", "lift"}; }
    template <class T> void operator()(const char*, std::vector<T>& v) {
        v.resize(2);
        for (T& x : v) {
            fields(*this, x);
            if constexpr (requires { x.type; }) x.type = {1};
            if constexpr (requires { x.board; }) x.board = {70};
        }
    }
    void operator()(const char*, std::map<std::string, double>& m) { m = {{"lighting", 0.5}}; }
    void operator()(const char*, std::map<std::string, std::string>& m) {
        m = {{"lighting", "text " + std::to_string(n++)}};
    }
    void operator()(const char*, Ref&) {}
    template <class T> void operator()(const char*, Id<T>&) {}
    template <class T> void operator()(const char* key, std::optional<T>& o) {
        T t{};
        (*this)(key, t), o = t;
    }
    void operator()(const char*, VoltageSystem& s) { s = *systemFrom("690/" + std::to_string(393 + n++ % 10)); }
    template <WordedEnum E> void operator()(const char*, E& e) { e = std::end(EnumText<E>::words)[-1].first; }
};

Project everyFieldDifferent() {
    Project p;
    Filler f;
    fields(f, p.basis);
    p.basis.insulation = 75;
    p.basis.smallestBreaker = 17;
    p.basis.ruleBook = "nec-2023";
    std::uint32_t run = 100; // each thing has one of its own
    Project::eachTable([&](const char*, auto member) {
        using T = std::decay_t<decltype(*(p.*member).begin())>;
        for (std::uint32_t i : {1u, 70u}) { // a hole between them
            T t{};
            fields(f, t);
            t.id = {i};
            if constexpr (requires { t.level; }) t.level = {70};
            if constexpr (requires { t.board; }) t.board = {70};
            if constexpr (requires { t.circuit; }) t.circuit = {70};
            if constexpr (requires { t.run; }) t.run = {++run};
            if constexpr (requires { t.wall; }) t.wall = {70};
            if constexpr (requires { t.room; }) t.room = {70};
            if constexpr (requires { t.recipe; }) t.recipe = {70};
            if constexpr (requires { t.crop; }) t.crop = {{0, 0}, {4, 4}};
            if constexpr (requires { t.type; }) t.type = {1};
            if constexpr (requires { t.height; }) {
                if constexpr (std::is_same_v<T, Level>) t.height = 3.25;
            }
            if constexpr (std::is_same_v<T, Board>) {
                t.bus = 63.5;
                t.use = BoardUse::MotorControl; // it holds circuits
                t.alternate = SourceId{1};
                t.alternateRun = {++run};
            }
            if constexpr (std::is_same_v<T, Section>) t.to = t.from + 1;
            if constexpr (std::is_same_v<T, ScheduleForm>) t.letters = 2.25;
            if constexpr (std::is_same_v<T, SheetNumber>) {
                t.of = SheetKind::Diagram;
                t.about = BoardId{i};
            }
            if constexpr (std::is_same_v<T, RiserPlace>) t.about = t.after = BoardId{i};
            if constexpr (std::is_same_v<T, PlacedView>) {
                t.sheet = {70};
                t.shows = SheetKind::Diagram;
                t.about = BoardId{i};
            }
            if constexpr (requires { t.feed; }) t.feed = SourceId{70};
            t.extra.keep("fromTheFuture", {1, 2, "three"});
            (p.*member).put(t);
        }
    });
    for (std::uint32_t id = 101; id <= run; ++id) {
        Run own = p.runs[{70}];
        own.id = {id};
        p.runs.put(own);
    }
    p.extra.keep("notes", "kept");
    return p;
}

struct TempFolder {
    fs::path path =
        fs::temp_directory_path() / ("lintel-test-" + std::to_string(::getpid()) + "-" + std::to_string(next++));
    static inline int next = 0;
    TempFolder() { fs::create_directories(path); }
    ~TempFolder() {
        std::error_code ec;
        fs::remove_all(path, ec);
    }
};

void edit(Document& d, int i) {
    d.edit("edit " + std::to_string(i), [&](Project& p) {
        switch (i % 6) {
        case 0:
            p.levels.add({{}, "L" + std::to_string(i), double(i), 3, {}});
            break;
        case 1:
            if (!p.levels.empty())
                p.levels.change({1 + std::uint32_t(i) % p.levels.highest()})
                    ? (void)(p.levels.change({1 + std::uint32_t(i) % p.levels.highest()})->name += "x")
                    : void();
            break;
        case 2:
            p.levels.remove({1 + std::uint32_t(i * 7) % (p.levels.highest() + 1)});
            break;
        case 3:
            p.basis.title = "T" + std::to_string(i);
            break;
        case 4: {
            Board b;
            b.name = "B" + std::to_string(i);
            addBoard(p, b);
            break;
        }
        case 5:
            if (!p.boards.empty()) addCircuit(p, {p.boards.highest()}, 1 + i % 3, "c");
            break;
        }
    });
}

} // namespace

TEST_CASE("every field survives the file, with unknown ones") {
    const Project p = everyFieldDifferent();
    const auto bad = validate(p);
    INFO((bad ? bad->text() : ""));
    REQUIRE_FALSE(bad);
    const std::string text = writeProject(p);
    const auto back = readProject(text, "all.lintel");
    REQUIRE(back);
    CHECK(*back == p);
    CHECK(writeProject(*back) == text);
    CHECK(text.find("fromTheFuture") != std::string::npos);
}

TEST_CASE("an empty project and the shipped ones are stable in the file") {
    CHECK(writeProject(*readProject(writeProject({}), "x")) == writeProject({}));
    for (const char* folder : {"demos", "starters"})
        for (const ShippedProject& s : shippedProjects(folder)) {
            INFO(s.file);
            const auto p = loadProject(s.file);
            REQUIRE(p);
            CHECK(*readProject(writeProject(*p), "again") == *p);
            checkWhole(*p, solve(*p, nec()));
        }
    CHECK(shippedProjects("demos").size() >= 1);
    CHECK(shippedProjects("starters").size() >= 2);
}

TEST_CASE("bad files: the message names the line or the field") {
    const std::string good = writeProject(everyFieldDifferent());
    struct Bad {
        std::string text;
        const char* says;
    };
    const Bad bad[] = {
        {good.substr(0, good.size() / 2), "cut short"},
        {"{\n\"lintel\": 1,\n\"boards\": [ oops ]\n}", "line 3"},
        {"{\"lintel\": 1, \"boards\": [{\"id\":\"B1\",\"slots\":\"forty\"}]}",
         "boards[0].slots: expected a whole number, found \"forty\""},
        {"{\"lintel\": 1, \"boards\": [{\"id\":\"B1\",\"system\":\"77Y/9\"}]}", "there is no voltage system \"77Y/9\""},
        {"{\"lintel\": 1, \"boards\": [{\"id\":\"B1\"},{\"id\":\"B1\"}]}", "two things with the id B1"},
        {"{\"lintel\": 1, \"boards\": [{\"id\":\"C1\"}]}", "begins with B"},
        {"{\"lintel\": 1, \"circuits\": [{\"id\":\"C1\",\"board\":\"B9\"}]}", "there is no B9"},
        {"{\"lintel\": 1, \"boards\": [{\"id\":\"B1\",\"slots\":-4}]}", "outside"},
        {"{\"lintel\": 1, \"boards\": {}}", "expected a list"},
        {"{\"lintel\": 2}", "newer Lintel"},
        {"{\"lintel\": \"one\"}", "whole number"},
        {"[1, 2]", "not a Lintel project"},
        {"", "cut short"}};
    for (const Bad& b : bad) {
        INFO(b.says);
        const auto p = readProject(b.text, "bad.lintel");
        REQUIRE_FALSE(p);
        INFO(p.error().text());
        CHECK(p.error().text().find(b.says) != std::string::npos);
        CHECK(p.error().where.find("bad.lintel") == 0);
    }
    CHECK_FALSE(loadProject("/nowhere/at/all.lintel"));
    CHECK_FALSE(loadProject("/tmp"));
}

TEST_CASE("undo brings back an equal project, redo the other, whatever the edits") {
    Document d;
    const Project start = d.project();
    for (int i = 0; i < 300; ++i) edit(d, i * 13 % 97);
    const Project end = d.project();
    d.undoAll();
    CHECK(d.project() == start);
    CHECK(writeProject(d.project()) == writeProject(start));
    while (d.canRedo()) d.redo();
    CHECK(d.project() == end);
}

TEST_CASE("an edit that changes nothing is not recorded; merged edits undo in one") {
    Document d;
    CHECK_FALSE(d.edit("nothing", [](Project&) {}));
    CHECK_FALSE(d.canUndo());
    for (const char* t : {"a", "ab", "abc"})
        d.edit(
            "Title", [&](Project& p) { p.basis.title = t; }, "title");
    CHECK(d.undoLabel() == "Title");
    d.undo();
    CHECK(d.project().basis.title == "Untitled");
    CHECK_FALSE(d.canUndo());
}

TEST_CASE("a table is a value: copies do not see each other's changes") {
    Table<Level> a;
    for (int i = 0; i < 200; ++i) a.add({{}, "L", double(i), 3, {}});
    Table<Level> b = a;
    b.change({100})->name = "changed";
    b.remove({7});
    CHECK(a[{100}].name == "L");
    CHECK(a.has({7}));
    CHECK(a.size() == 200);
    CHECK(b.size() == 199);
    int differences = 0;
    Table<Level>::eachDifference(a, b, [&](const Level*, const Level*) { ++differences; });
    CHECK(differences == 2);
    std::uint32_t last = 0, count = 0;
    for (const Level& l : b) {
        CHECK(l.id.value > last);
        last = l.id.value;
        ++count;
    }
    CHECK(count == 199);
}

TEST_CASE("saving is whole or not at all") {
    TempFolder t;
    const fs::path file = t.path / "a.lintel";
    Project p;
    p.basis.title = "One";
    REQUIRE_FALSE(saveProject(p, file));
    p.basis.title = "Two";
    REQUIRE_FALSE(saveProject(p, file));
    CHECK(loadProject(file)->basis.title == "Two");
    CHECK(std::distance(fs::directory_iterator(t.path), fs::directory_iterator()) == 1); // no temporary left
    const auto bad = saveProject(p, t.path / "no" / "such" / "folder" / "b.lintel");
    REQUIRE(bad);
    CHECK(bad->what.find("cannot be written") != std::string::npos);
}

TEST_CASE("the journal brings back every edit after a sudden end, and nothing of a half-written one") {
    TempFolder t;
    const fs::path file = t.path / "a.lintel", journal = journalBeside(file);
    Project p;
    p.basis.title = "Start";
    REQUIRE_FALSE(saveProject(p, file));
    Document d(p);
    d.journalTo(JournalWriter::begin({file, {}}, p));
    const fs::path copied = t.path / "as-after-a-crash"; // the journal itself is held by this program
    const auto readCopy = [&] {
        fs::copy_file(journal, copied, fs::copy_options::overwrite_existing);
        return readJournal(copied);
    };
    CHECK_FALSE(readCopy()->has_value()); // no edits yet
    for (int i = 0; i < 40; ++i) edit(d, i);
    d.undo();
    d.undo();
    d.redo();
    std::ofstream(journal, std::ios::app) << "{\"label\":\"half an ed"; // the edit in the making
    auto r = readCopy();
    REQUIRE(r);
    REQUIRE(r->has_value());
    CHECK((*r)->recovered == d.project());
    CHECK((*r)->project == file);
    // The project file was changed by somebody since: its edits do not fit.
    p.basis.title = "Changed elsewhere";
    REQUIRE_FALSE(saveProject(p, file));
    const auto copy = readCopy();
    REQUIRE(copy);
    REQUIRE(copy->has_value());
    CHECK_FALSE((*copy)->fits); // offered all the same, as a copy
    CHECK((*copy)->recovered == d.project());
    d.journalWriter()->discard();
    CHECK_FALSE(fs::exists(journal));
}

TEST_CASE("a journal of a project never saved carries its beginning") {
    TempFolder t;
    const fs::path journal = t.path / "untitled";
    Document d(everyFieldDifferent());
    d.journalTo(JournalWriter::begin({{}, t.path}, d.project()));
    d.edit("Title", [](Project& p) { p.basis.title = "Mine"; });
    const auto written = d.journalWriter()->path();
    CHECK_FALSE(*readJournal(written)); // this program is writing it
    fs::copy_file(written, journal);
    auto r = readJournal(journal);
    REQUIRE(r);
    REQUIRE(r->has_value());
    CHECK((*r)->recovered == d.project());
    CHECK((*r)->lastLabel == "Title");
    std::ofstream(journal) << "rubbish\n";
    CHECK_FALSE(readJournal(journal));
}

TEST_CASE("a run belongs to one thing: a file or an edit that gives it to two is refused, and says to whom") {
    OneBoard w;
    const CircuitId one = w.circuit(500), two = w.circuit(500);
    REQUIRE_FALSE(validate(w.p));
    Document d(w.p);
    d.edit("Share a run", [&](Project& p) { p.circuits.change(two)->run = p.circuits[one].run; });
    REQUIRE(d.refusal());
    CHECK(d.refusal()->text().find("is the run of something else already") != std::string::npos);
    CHECK(d.project() == w.p);
    Project shared = w.p;
    shared.circuits.change(two)->run = shared.boards[w.board].run;
    REQUIRE(validate(shared));
    CHECK(validate(shared)->where == "circuits " + textOf(two) + ".run");
    CHECK_FALSE(readProject(writeProject(shared), "shared"));
}
