// The command line, run as a person runs it.

#include "core/bench/Bench.h"
#include "tests/app/AppTest.h"

#include <QXmlStreamReader>

#include <nlohmann/json.hpp>

#include <fstream>

using namespace lintel;

namespace {
struct Ran {
    int code;
    QString out, err;
};
Ran cli(const QStringList& arguments) {
    QProcess p;
    p.start(LINTEL_CLI, arguments);
    p.waitForFinished(120000);
    return {p.exitStatus() == QProcess::NormalExit ? p.exitCode() : -1, QString::fromUtf8(p.readAllStandardOutput()),
            QString::fromUtf8(p.readAllStandardError())};
}
} // namespace

TEST_CASE("lintel-cli plan: rooms, recipes, circuits and density are told as JSON, and written only where it is said") {
    QTemporaryDir folder;
    const QString file = folder.filePath("hall.lintel"), out = folder.filePath("laid-out.lintel");
    REQUIRE(cli({"demo", file}).code == 0);
    CHECK(QFileInfo(folder.filePath("saltmarket-hall-ground.dxf")).size() > 10000); // the drawings go along
    const Ran ran = cli({"plan", file, "--rooms", "--recipes", "--circuit", "--density", "--json", "--out", out});
    REQUIRE(ran.code == 0);
    const auto j = nlohmann::json::parse(ran.out.toStdString());
    CHECK(j["rooms"]["known"].get<int>() >= 15); // all rooms stand already, except what the walls enclose besides
    CHECK(j["recipes"]["kept"].get<int>() > 20);
    CHECK(j["circuiting"]["devices"].get<int>() > 0);
    for (const auto& l : j["circuiting"]["left"]) CHECK_FALSE(l["why"].get<std::string>().empty());
    // Prep is 9 by 8 m with eight receptacles' worth of 180 and 360 VA and its lights.
    bool found = false;
    for (const auto& level : j["density"])
        for (const auto& r : level["rooms"])
            if (r["room"] == "Prep 011") {
                found = true;
                CHECK(r["squareMetres"] == Approx(72));
                CHECK(r["vaPerSquareMetre"].get<double>() == Approx(r["va"].get<double>() / 72));
            }
    CHECK(found);
    const auto before = loadProject(file.toStdString()), after = loadProject(out.toStdString());
    REQUIRE((before && after));
    CHECK(after->circuits.size() == before->circuits.size() + j["circuiting"]["circuits"].get<std::size_t>());
    CHECK(after->devices.size() == before->devices.size() + j["recipes"]["placed"].get<std::size_t>());
    // Once more there is nothing left to place.
    const auto again = nlohmann::json::parse(cli({"plan", out, "--recipes", "--json"}).out.toStdString());
    CHECK(again["recipes"]["placed"] == 0);
    CHECK(again["recipes"]["removed"] == 0);
    CHECK(cli({"plan", folder.filePath("none.lintel"), "--rooms"}).code == 1);
}

TEST_CASE("lintel-cli: demo, solve, issue, new") {
    QTemporaryDir folder;
    const QString file = folder.filePath("hall.lintel");
    CHECK(cli({"demo", file}).code == 0);
    const Ran again = cli({"demo", file});
    CHECK(again.code == 1);
    CHECK(again.err.contains("--force"));
    const Ran text = cli({"solve", file});
    CHECK(text.code == 0);
    CHECK(text.out.contains("LP-1-28"));
    CHECK(text.out.contains("Blast chiller: a 3-pole load stands on a 1-pole breaker"));
    const Ran json = cli({"solve", file, "--json", "--workings"});
    REQUIRE(json.code == 0);
    const auto j = nlohmann::json::parse(json.out.toStdString());
    CHECK(j["boards"].size() == 16);
    CHECK(j["circuits"].size() == 274);
    for (const auto& c : j["circuits"])
        if (c["name"] == "LP-1-28") {
            CHECK(c["run"]["size"] == "8");
            CHECK(c["run"]["governing"] == "held by hand");
            CHECK(c["run"]["drop_current_A"] == 16);
            CHECK(c["workings"]["steps"].size() > 5);
        }
    const Ran issued = cli({"issue", file, "--out", folder.filePath("sheets")});
    CHECK(issued.code == 0);
    CHECK(issued.err.contains("14 stop snags remain"));
    for (const char* name : {"E-501_riser.pdf", "E-501_riser.svg", "E-101_Ground_floor_lighting.pdf",
                             "E-201_Ground_floor_power.pdf", "E-603_HM-1.pdf", "E-605_LP-1.pdf", "all_sheets.pdf"})
        CHECK(QFileInfo(folder.filePath(QString("sheets/") + name)).size() > 4000);
    // Text comes back whole: hyphens, fractions, phase signs.
    const QString schedule = pdfText(folder.filePath("sheets/E-605_LP-1.pdf"));
    for (const char* words :
         {"LP-1", "208Y/120 V, 3φ 4W", "Café espresso machine", "Stalls 1–4 receptacles", "400 A / 350 A breaker"})
        CHECK(schedule.contains(QString::fromUtf8(words)));
    const QString riser = pdfText(folder.filePath("sheets/E-501_riser.pdf"));
    for (const char* words : {"MDS", "HM-1", "F-2", "112.5 kVA", "Ground floor"}) {
        INFO(words);
        CHECK(riser.contains(words));
    }
    const Ran why = cli({"explain", file, "LP-1-28", "--pdf", folder.filePath("why.pdf")});
    CHECK(why.code == 0);
    CHECK(pdfText(folder.filePath("why.pdf")).contains("Held by hand"));
    CHECK(cli({"explain", file, "T-2"}).out.contains("450.3(B)"));
    CHECK(cli({"explain", file, "LP-9"}).err.contains("no board"));
    const QString mine = folder.filePath("mine.lintel");
    CHECK(cli({"new", mine, "--starter", "us-208"}).code == 0);
    CHECK(loadProject(mine.toStdString())->boards.size() == 1);
    CHECK(cli({"new", folder.filePath("z.lintel"), "--starter", "moon"}).err.contains("us-480"));
    CHECK(cli({"solve", folder.filePath("absent.lintel")}).code == 1);
    CHECK(cli({}).code != 0);
}

TEST_CASE("lintel-cli bench: JSON in, JSON out, a page, and errors that name the field") {
    QTemporaryDir folder;
    const Ran list = cli({"bench"});
    for (const BenchKind* k : benchKinds()) CHECK(list.out.contains(k->name));
    const Ran a = cli({"bench", "conductor", R"({"load": "16 A", "length": "150 ft"})"});
    REQUIRE(a.code == 0);
    const auto j = nlohmann::json::parse(a.out.toStdString());
    CHECK(j["size"] == "6");
    CHECK(j["drop_percent"].get<double>() == Approx(1.96));
    CHECK(j["working"]["steps"].size() > 8);
    CHECK(cli({"bench", "conductor", "--fields"}).out.contains("powerFactor"));
    const QString file = folder.filePath("in.json");
    REQUIRE_FALSE(writeTextAtomically(R"({"hp": 25})", file.toStdString()));
    const Ran text = cli({"bench", "motor", file, "--with", "device=fuse", "--text", "--pdf",
                          folder.filePath("motor.pdf"), "--job", "Mill", "--company", "Office"});
    CHECK(text.out.contains("110 A fuse"));
    const QString page = pdfText(folder.filePath("motor.pdf"));
    for (const char* words : {"Mill", "Office", "430.250", "Full-load current", "Checked by"})
        CHECK(page.contains(words));
    CHECK(cli({"bench", "conductor", R"({"lod": 3})"}).err.contains("conductor.lod"));
    CHECK(cli({"bench", "conductor", "{"}).err.contains("cut short"));
    CHECK(cli({"bench", "teapot"}).err.contains("conductor"));
    CHECK(cli({"bench", "conductor", "--with", "load"}).err.contains("key=value"));
    CHECK(cli({"bench", "conductor", "--book", "moon"}).code == 1);
    // Each example of the command-line guide runs.
    QFile guide(QString::fromStdString((dataFolder().parent_path() / "docs" / "command-line.md").string()));
    REQUIRE(guide.open(QIODevice::ReadOnly));
    int examples = 0;
    for (const QString& line : QString::fromUtf8(guide.readAll()).split('\n')) {
        static const QRegularExpression example(R"(^lintel-cli bench (\S+) '(\{.*\})'$)");
        if (const auto m = example.match(line); m.hasMatch()) {
            INFO(line.toStdString());
            CHECK(cli({"bench", m.captured(1), m.captured(2)}).code == 0);
            ++examples;
        }
    }
    CHECK(examples >= int(benchKinds().size()));
}

TEST_CASE("lintel-cli level: a board of a project and a bare one, for any number of moves, together by phases") {
    QTemporaryDir folder;
    const QString file = folder.filePath("hall.lintel"), out = folder.filePath("level.lintel"),
                  bare = folder.filePath("board.json");
    REQUIRE(cli({"demo", file}).code == 0);
    const Ran ran = cli({"level", file, "--board", "SP-1", "--json"});
    REQUIRE(ran.code == 0);
    const auto j = nlohmann::json::parse(ran.out.toStdString());
    CHECK(j["choices"][0]["imbalance_percent"].get<double>() == Approx(19.75).margin(0.1));
    CHECK(j["choices"].back()["imbalance_percent"].get<double>() < 0.5);
    REQUIRE(cli({"level", file, "--board", "SP-1", "--moves", "2", "--out", out}).code == 0);
    const auto before = loadProject(file.toStdString()), after = loadProject(out.toStdString());
    REQUIRE((before && after));
    int moved = 0;
    for (const Circuit& c : after->circuits) moved += before->circuits[c.id].slot != c.slot;
    CHECK((moved == 1 || moved == 2));
    // Six loads on twelve slots, all that is heavy on one line: 900, 600 and 300 VA, and three of 100. Two circuits
    // moved, one is pinned.
    std::ofstream(bare.toStdString())
        << R"({"slots": 12, "system": "208Y/120", "circuits": [{"slot": 1, "va": 900, "pinned": true}, {"slot": 2, "va": 600}, {"slot": 7, "va": 300}, {"slot": 3, "va": 100}, {"slot": 5, "va": 100}, {"slot": 6, "va": 100}]})";
    const auto b = nlohmann::json::parse(cli({"level", bare, "--moves", "2", "--json"}).out.toStdString());
    // Now 1 800 on A, 100 on B, 200 on C. Best with two: 600 and 300 leave A: 900, and 700 / 500 on the others: spread
    // 400.
    CHECK(b["now"]["spread_va"] == 1700);
    CHECK(b["choice"]["spread_va"] == 400);
    CHECK(b["choice"]["proven"] == true);
    CHECK(b["choice"]["moves"] == 2);
    const Ran together = cli({"level", file, "--together", "MDS"});
    CHECK(together.out.contains("boards turned, proven best"));
    CHECK(cli({"level", file}).err.contains("say which board to level"));
    CHECK(cli({"level", file, "--board", "XX"}).err.contains("There is: MDS"));
    std::ofstream(bare.toStdString()) << R"({"slots": 12, "circuits": [{"slot": 40, "va": 1}]})";
    const Ran bad = cli({"level", bare});
    CHECK(bad.code == 1);
    CHECK(bad.err.contains("board.circuits[0].slot: expected a number from 1 to 12"));
}

TEST_CASE("lintel-cli loads and types: a list in, again, out, and what it leaves open; a catalogue") {
    QTemporaryDir folder;
    const QString file = folder.filePath("new.lintel"), list = folder.filePath("list.csv"),
                  back = folder.filePath("back.xlsx");
    REQUIRE(cli({"new", file, "--starter", "us-208"}).code == 0);
    std::ofstream(list.toStdString()) << "Tag,Description,kW,Volts,Phases,Panel\nEF-1,Fan,0.75,120,1,LP-1\nEF-2,Fan,-2,"
                                         "120,1,LP-1\nP-1,Pump,3,208,3,LP-1\n";
    Ran ran = cli({"loads", "import", file, list, "--dry-run"});
    CHECK(ran.code == 0);
    CHECK(ran.out.contains("line 3, column 3: a load of -2 is below nothing; left out"));
    CHECK(loadProject(file.toStdString())->loads.size() == 0);
    ran = cli({"loads", "import", file, list, "--circuit", "--json"});
    REQUIRE(ran.code == 0);
    const auto j = nlohmann::json::parse(ran.out.toStdString());
    CHECK(j["added"] == 2);
    CHECK(j["circuits"] == 2);
    CHECK(loadProject(file.toStdString())->circuits.size() == 2);
    CHECK(cli({"loads", "import", file, list}).out.contains("0 added, 0 changed, 2 the same"));
    REQUIRE(cli({"loads", "export", file, back}).code == 0);
    CHECK(cli({"loads", "import", file, back}).out.contains("0 added, 0 changed, 2 the same"));
    CHECK(cli({"loads", "check", file}).out.contains("Circuits with no cable: 2"));
    CHECK(cli({"loads", "import", file, folder.filePath("none.csv")}).err.contains("cannot be opened"));
    CHECK(cli({"loads", "import", file, list, "--columns", "tag,wibble"}).err.contains("a column cannot mean"));
    REQUIRE(cli({"types", "write", file, folder.filePath("own.lintel")}).code == 0);
    CHECK(cli({"types", "take", file, folder.filePath("own.lintel")})
              .out.contains("0 types added, 0 changed, 15 the same"));
}

TEST_CASE("lintel-cli new works with the name of a file alone, and demo with its own default") {
    QTemporaryDir folder;
    const QString file = folder.filePath("job.lintel"), demo = folder.filePath("demo.lintel");
    REQUIRE(cli({"new", file}).code == 0);
    CHECK(loadProject(file.toStdString())->basis.ruleBook == "nec-2023");
    REQUIRE(cli({"demo", demo}).code == 0);
    CHECK(loadProject(demo.toStdString())->boards.size() > 5);
    CHECK(cli({"new", folder.filePath("uk.lintel"), "--starter", "uk-400"}).code == 0);
    CHECK(cli({"new", folder.filePath("x.lintel"), "--starter", "nowhere"}).err.contains("us-480"));
}

TEST_CASE("lintel-cli bench: every sum lists its fields with every rule book, or says that it does not go by it") {
    int listed = 0, unsuited = 0;
    for (const BenchKind* kind : benchKinds())
        for (const char* book : {"nec-2023", "bs-7671", "iec-60364", "as-nzs-3000"}) {
            INFO(kind->name << " by " << book);
            const Ran ran = cli({"bench", kind->name, "--fields", "--book", book});
            if (ran.code == 0) {
                ++listed;
                CHECK_FALSE(ran.out.isEmpty());
            } else {
                ++unsuited;
                CHECK(ran.code == 1);
                CHECK(ran.err.contains("does not go by"));
            }
        }
    CHECK(listed > 25);
    CHECK(unsuited > 5);
}

TEST_CASE("lintel-cli: files that end other programs are refused in words") {
    QTemporaryDir folder;
    const auto write = [&](const char* name, const std::string& bytes) {
        const QString file = folder.filePath(name);
        std::ofstream(file.toStdString(), std::ios::binary) << bytes;
        return file;
    };
    const std::pair<const char*, std::string> files[] = {
        {"huge.lintel", "{\"lintel\":1,\"basis\":{\"ambient\":1e999}}"},
        {"deep.lintel", "{\"lintel\":1,\"x\":" + std::string(200'000, '[') + std::string(200'000, ']') + "}"},
        {"ids.lintel", "{\"lintel\":1,\"boards\":[{\"id\":\"B10000000\",\"name\":\"X\"}]}"},
        {"version.lintel", "{\"lintel\":99999999999}"},
        {"bytes.lintel", std::string("{\"lintel\":1,\"basis\":{\"title\":\"\xED\xA0\x80\"}}")},
        {"empty.lintel", ""}};
    for (const auto& [name, bytes] : files) {
        INFO(name);
        const QString file = write(name, bytes);
        for (const QStringList& command : {QStringList{"solve", file},
                                           {"issue", file, "--out", folder.filePath("out")},
                                           {"explain", file, "LP-1"},
                                           {"level", file, "--board", "X"},
                                           {"plan", file, "--rooms"},
                                           {"loads", "check", file},
                                           {"types", "write", file, folder.filePath("t.lintel")}}) {
            INFO(command.join(' ').toStdString());
            const Ran ran = cli(command);
            CHECK(ran.code == 1); // it comes back
            CHECK(ran.err.startsWith("lintel-cli: "));
            CHECK(ran.err.contains(name));
        }
    }
}

TEST_CASE("lintel-cli issue: names of 300 letters, control characters and tags stop no sheet and spoil none") {
    QTemporaryDir folder;
    const QString file = folder.filePath("odd.lintel"), out = folder.filePath("sheets");
    REQUIRE(cli({"demo", file}).code == 0);
    Project p = *loadProject(file.toStdString());
    std::vector<BoardId> boards;
    for (const Board& b : p.boards) boards.push_back(b.id);
    std::string all;
    for (int c = 1; c < 32; ++c) all += char(c);
    for (std::size_t i = 0; i < boards.size(); ++i)
        p.boards.change(boards[i])->name = i < 2    ? std::string(300, 'x')
                                           : i == 2 ? "a" + all + "b"
                                                    : "../<R&D>/" + std::to_string(i);
    p.basis.title = "T" + all + "<&>";
    REQUIRE_FALSE(saveProject(p, file.toStdString()));
    const Ran ran = cli({"issue", file, "--out", out});
    INFO(ran.err.toStdString());
    REQUIRE(ran.code == 0);
    const QStringList written = QDir(out).entryList({"*.pdf", "*.svg"});
    CHECK(written.size() == ran.out.count('\n')); // one file each: none has taken another's place
    CHECK(written.size() > int(boards.size()) + 2);
    for (const QString& svg : QDir(out).entryList({"*.svg"})) {
        QFile f(QDir(out).filePath(svg));
        REQUIRE(f.open(QIODevice::ReadOnly));
        QXmlStreamReader xml(&f);
        while (!xml.atEnd()) xml.readNext();
        INFO(xml.errorString().toStdString());
        CHECK_FALSE(xml.hasError());
    }
    CHECK(cli({"loads", "export", file, folder.filePath("l.xlsx")}).code == 0);
    CHECK(cli({"solve", file, "--json"}).code == 0);
}

namespace {
/// A repository of one folder, with Lintel as its diff and merge driver as the guide says.
struct Repository {
    QTemporaryDir folder;
    QString path(const char* name) const { return folder.filePath(name); }
    Ran git(const QStringList& arguments) const {
        QProcess p;
        p.setWorkingDirectory(folder.path());
        QProcessEnvironment env = QProcessEnvironment::systemEnvironment();
        env.insert("GIT_CONFIG_GLOBAL", "/dev/null");
        env.insert("GIT_CONFIG_SYSTEM", "/dev/null");
        p.setProcessEnvironment(env);
        p.start("git", arguments);
        p.waitForFinished(60000);
        return {p.exitStatus() == QProcess::NormalExit ? p.exitCode() : -1,
                QString::fromUtf8(p.readAllStandardOutput()), QString::fromUtf8(p.readAllStandardError())};
    }
    Repository() {
        git({"init", "-q", "-b", "main"});
        git({"config", "user.name", "R. Amadi"});
        git({"config", "user.email", "r.amadi@example.org"});
        git({"config", "merge.lintel.driver", QString("\"%1\" merge %O %A %B --out %A").arg(LINTEL_CLI)});
        git({"config", "diff.lintel.command", QString("\"%1\" compare").arg(LINTEL_CLI)});
        std::ofstream(path(".gitattributes").toStdString()) << "*.lintel merge=lintel diff=lintel\n";
    }
    void commit(const char* message) const {
        git({"add", "-A"});
        REQUIRE(git({"commit", "-q", "-m", message}).code == 0);
    }
    template <class F> void edit(F change) const {
        Project p = *loadProject(path("hall.lintel").toStdString());
        change(p);
        REQUIRE_FALSE(saveProject(p, path("hall.lintel").toStdString()));
    }
    Project project() const { return *loadProject(path("hall.lintel").toStdString()); }
};
CircuitId named(const Project& p, const char* name) {
    for (const Circuit& c : p.circuits)
        if (nameOf(p, c.id) == name) return c.id;
    return {};
}
} // namespace

TEST_CASE(
    "two designers on one building, with git itself: branches merge by thing and field, a diff is told in words") {
    Repository repo;
    REQUIRE(cli({"demo", repo.path("hall.lintel")}).code == 0);
    repo.commit("as it was");
    REQUIRE(repo.git({"checkout", "-q", "-b", "kitchen"}).code == 0);
    repo.edit([](Project& p) {
        p.circuits.change(named(p, "LP-2-7"))->heldBreaker = 45;
        p.circuits.change(named(p, "LP-2-18"))->name = "Mixer, large";
    });
    const Ran told = repo.git({"diff"});
    CHECK(told.out.contains("LP-2-7 Fryer 1: held breaker none → 45 A"));
    // The same as pages, which others read.
    QTemporaryDir beside;
    const QString before = beside.filePath("before.lintel"), pages = beside.filePath("changes.pdf");
    REQUIRE(cli({"demo", before}).code == 0);
    CHECK(cli({"compare", before, repo.path("hall.lintel"), "--pdf", pages}).code == 0);
    CHECK(pdfText(pages).contains("LP-2-7 Fryer 1: held breaker none → 45 A"));
    CHECK(cli({"compare", before, repo.path("hall.lintel"), "--text"}).out.contains("held breaker none → 45 A"));
    CHECK(cli({"compare", before, repo.path("hall.lintel"), "--pdf", pages, "--json"}).code != 0);
    CHECK(told.out.contains("LP-2-7 Fryer 1: 35 A, 2 #8, #10 gnd → 45 A"));
    repo.commit("kitchen");
    REQUIRE(repo.git({"checkout", "-q", "main"}).code == 0);
    repo.edit([](Project& p) {
        p.circuits.change(named(p, "LP-2-7"))->note = "verify the nameplate"; // the same line of the file
        p.basis.client = "Saltmarket Trust";
    });
    repo.commit("yard");
    const Ran merged = repo.git({"merge", "-q", "kitchen", "-m", "together"});
    INFO(merged.out.toStdString() << merged.err.toStdString());
    REQUIRE(merged.code == 0);
    Project p = repo.project();
    CHECK(p.circuits[named(p, "LP-2-7")].heldBreaker == 45);
    CHECK(p.circuits[named(p, "LP-2-7")].note == "verify the nameplate");
    CHECK(p.circuits[named(p, "LP-2-18")].name == "Mixer, large");
    CHECK(p.basis.client == "Saltmarket Trust");
    // Both hold the same breaker differently: git says so, the file opens, with ours.
    REQUIRE(repo.git({"checkout", "-q", "-b", "other"}).code == 0);
    repo.edit([](Project& q) { q.circuits.change(named(q, "LP-2-7"))->heldBreaker = 50; });
    repo.commit("50 A");
    REQUIRE(repo.git({"checkout", "-q", "main"}).code == 0);
    repo.edit([](Project& q) { q.circuits.change(named(q, "LP-2-7"))->heldBreaker = 40; });
    repo.commit("40 A");
    const Ran clash = repo.git({"merge", "other", "-m", "again"});
    CHECK(clash.code != 0);
    CHECK((clash.out + clash.err).contains("conflict: LP-2-7, held breaker: 40 A here, 50 A there (45 A before)"));
    p = repo.project();
    CHECK(p.circuits[named(p, "LP-2-7")].heldBreaker == 40);
}

TEST_CASE("lintel-cli compare and merge: JSON for programs, and what is wrong is said") {
    QTemporaryDir folder;
    const QString a = folder.filePath("a.lintel"), b = folder.filePath("b.lintel"), out = folder.filePath("out.lintel");
    REQUIRE(cli({"demo", a}).code == 0);
    REQUIRE(cli({"demo", b, "--name", "saltmarket-hall-corrected"}).code == 0);
    const auto j = nlohmann::json::parse(cli({"compare", a, b, "--json"}).out.toStdString());
    CHECK(j["entered"].size() > 40);
    CHECK(j["snags_gone"].size() >= 14);
    CHECK(j["new_snags"].empty());
    CHECK(cli({"compare", a, a}).out == "nothing differs\n");
    CHECK(cli({"compare", a}).code != 0);
    CHECK(cli({"compare", a, a, a}).err.contains("two files are wanted"));
    CHECK(cli({"compare", a, folder.filePath("none.lintel")}).code == 1);
    const Ran merged = cli({"merge", a, a, b, "--out", out, "--json"});
    CHECK(merged.code == 0);
    CHECK(nlohmann::json::parse(merged.out.toStdString())["conflicts"].empty());
    CHECK(*readText(out.toStdString()) == *readText(b.toStdString()));
    CHECK(cli({"merge", a, folder.filePath("none.lintel"), b}).code == 1);
}

TEST_CASE("the command line tells forms, takes a company's, and draws boards by them") {
    QTemporaryDir folder;
    const QString file = folder.filePath("hall.lintel"), forms = folder.filePath("forms.lintel");
    REQUIRE(cli({"demo", file}).code == 0);
    CHECK(cli({"forms", "--figures"}).out.contains("conduit kind"));
    CHECK(cli({"forms", file}).out.contains("Two columns   two columns, as it ships   MDS"));
    REQUIRE(cli({"forms", file, "--write", forms}).code == 0);
    CHECK(cli({"forms", file, "--use", "Two columns, by phase", "--board", "LP-1"}).code == 0);
    CHECK(cli({"forms", file}).out.contains("Two columns, by phase   two columns   LP-1"));
    CHECK(cli({"forms", file, "--take", forms}).out.contains("forms taken"));
    for (const QStringList& bad : {QStringList{"--use", "No such form", "--board", "LP-1"},
                                   {"--use", "Two columns"},
                                   {"--use", "Two columns", "--board", "LP-99"},
                                   {"--take", file + "x"}}) {
        const Ran r = cli(QStringList{"forms", file} + bad);
        CHECK(r.code == 1);
        CHECK(r.err.contains("lintel-cli: "));
    }
}

namespace {
/// The demo as it was before its first issue.
void neverIssued(const QString& file) {
    Project p = *loadProject(file.toStdString());
    p.issues = {};
    p.sheetNumbers = {};
    REQUIRE_FALSE(saveProject(p, file.toStdString()));
}
} // namespace

TEST_CASE("issues from the command line: refused, taken on, shown, compared with") {
    QTemporaryDir folder;
    const QString file = folder.filePath("hall.lintel"), then = folder.filePath("then.lintel");
    REQUIRE(cli({"demo", file}).code == 0);
    neverIssued(file);
    CHECK(cli({"issues", file}).out.contains("nothing was issued yet"));
    const QStringList make{"issues",     file,       "--make",     "T1",   "--date",
                           "2026-11-30", "--reason", "For prices", "--by", "RA"};
    const Ran refused = cli(make);
    CHECK(refused.code == 1);
    CHECK(refused.err.contains("14 stops are open"));
    CHECK(cli({"issues", file}).out.contains("nothing was issued yet"));
    CHECK(cli(make + QStringList{"--accept", "R. Amadi", "--for", "for fun"}).code == 1);
    REQUIRE(cli(make + QStringList{"--accept", "R. Amadi"}).code == 0);
    CHECK(cli(make + QStringList{"--accept", "R. Amadi"}).code == 1); // there is one of that mark
    const Ran listed = cli({"issues", file});
    CHECK(listed.out.contains("For prices (RA)"));
    CHECK(listed.out.contains("14 stops are open: taken on by R. Amadi"));
    const auto json = nlohmann::json::parse(cli({"issues", file, "--json"}).out.toStdString());
    REQUIRE(json.size() == 1);
    CHECK(json[0]["mark"] == "T1");
    CHECK(json[0]["sheets"].size() >= 20);
    CHECK(cli({"issues", file, "--show", "T9", "--out", then}).code == 1);
    CHECK(cli({"issues", file, "--show", "T1"}).code == 1);
    REQUIRE(cli({"issues", file, "--show", "T1", "--out", then}).code == 0);
    CHECK(cli({"compare", then, file + "@T1"}).out.contains("nothing differs"));
    CHECK(cli({"solve", file + "@T1"}).out == cli({"solve", file}).out);
    CHECK(cli({"compare", file + "@T9", file}).code == 1);
    REQUIRE(cli({"issues", file, "--make", "next", "--date", "2026-12-01", "--accept", "R. Amadi"}).code == 0);
    CHECK(cli({"issues", file}).out.contains("T2"));
}

TEST_CASE(
    "lintel-cli sheets: numbers are listed, given, kept and let go of; what cannot be is said and nothing written") {
    QTemporaryDir folder;
    const QString file = folder.filePath("hall.lintel");
    const QString then = folder.filePath("then.lintel");
    REQUIRE(cli({"demo", file}).code == 0);
    neverIssued(file);
    const Project whole = *loadProject(file.toStdString());
    CHECK(cli({"sheets", file}).out.contains("E-605             Letter     Panel schedule LP-1"));
    CHECK(*loadProject(file.toStdString()) == whole);
    CHECK(cli({"sheets", file, "--number", "E-605"}).err.contains("OLD=NEW"));
    CHECK(cli({"sheets", file, "--number", "E-999=E-1"}).err.contains("there is no sheet E-999"));
    CHECK(cli({"sheets", file, "--number", "E-605=E-650", "--number", "E-606=E-650"}).code == 1);
    CHECK(*loadProject(file.toStdString()) == whole);
    REQUIRE(cli({"sheets", file, "--number", "E-605=E-650", "--out", then}).code == 0);
    CHECK(cli({"sheets", then}).out.contains("E-650        kept Letter     Panel schedule LP-1"));
    REQUIRE(cli({"sheets", then, "--keep"}).code == 0);
    const auto json = nlohmann::json::parse(cli({"sheets", then, "--json"}).out.toStdString());
    CHECK(std::count_if(json.begin(), json.end(), [](const auto& s) { return s["kept"].template get<bool>(); }) >= 15);
    REQUIRE(cli({"sheets", then, "--anew"}).code == 0);
    CHECK(*loadProject(then.toStdString()) == whole);
    // An issue keeps them; as it was issued, it is not written over.
    REQUIRE(cli({"issues", file, "--make", "T1", "--date", "2026-11-30", "--accept", "R. Amadi"}).code == 0);
    CHECK(cli({"sheets", file}).out.contains("E-605        kept"));
    CHECK(cli({"sheets", file + "@T1", "--anew"}).code == 1);
    // Titles, and sheets that are left out.
    const QString titled = folder.filePath("titled.lintel");
    REQUIRE(cli({"sheets", file, "--title", "E-605=Kitchen", "--leave", "E-606", "--out", titled}).code == 0);
    const QString listed = cli({"sheets", titled}).out;
    CHECK(listed.contains("Kitchen"));
    CHECK(listed.contains("left out"));
    CHECK_FALSE(listed.contains("\nE-606"));
    CHECK(cli({"sheets", titled, "--title", "E-605"}).err.contains("NUMBER=TITLE"));
    CHECK(cli({"sheets", titled, "--leave", "E-001"}).err.contains("always in the set"));
    CHECK(cli({"sheets", titled, "--back", "Nothing"}).code == 1);
    REQUIRE(cli({"sheets", titled, "--back", "all"}).code == 0);
    CHECK(cli({"sheets", titled}).out.contains("\nE-606"));
    CHECK(cli({"issues", file + "@T1", "--make", "T2", "--date", "2026-12-01", "--accept", "R. Amadi"}).code == 1);
    CHECK_FALSE(QFileInfo::exists(file + "@T1"));
}

TEST_CASE("issue --dxf writes a drawing beside each sheet and one of each floor") {
    QTemporaryDir folder;
    const QString file = folder.filePath("pier.lintel");
    REQUIRE(cli({"demo", file, "--name", "brindle-pier"}).code == 0);
    REQUIRE(cli({"issue", file, "--dxf", "--out", folder.filePath("out")}).code == 0);
    const QDir out(folder.filePath("out"));
    CHECK(out.entryList({"E-*.dxf"}).size() == out.entryList({"E-*.pdf"}).size());
    CHECK(out.entryList({"plan_*.dxf"}).size() == 2);
}

TEST_CASE("lintel-cli export: all files in one go by a pattern, as it was issued too, and what cannot be is said") {
    QTemporaryDir folder;
    const QString file = folder.filePath("pier.lintel"), out = folder.filePath("out");
    REQUIRE(cli({"demo", file, "--name", "brindle-pier"}).code == 0);
    const auto told = cli({"export", file, "--out", out, "--files", "sheets,lists", "--name", "{what} of {title}"});
    REQUIRE(told.code == 0);
    CHECK(QDir(out).entryList(QDir::Files, QDir::Name) ==
          QStringList{"lists of Brindle Pier.xlsx", "sheets of Brindle Pier.pdf"});
    CHECK(told.out.contains("sheets of Brindle Pier.pdf"));
    const auto again = cli({"export", file, "--out", out, "--files", "sheets", "--name", "{what} of {title}"});
    CHECK(again.code == 1);
    CHECK(again.err.contains("there is a file of that name already"));
    CHECK(cli({"export", file, "--out", out, "--files", "sheet"}).err.contains("there are no such files"));
    CHECK(cli({"export", file, "--out", out, "--sheets", "E-999"}).err.contains("no sheet of that number"));
    CHECK(cli({"export", file, "--out", out, "--name", "{jobb}"}).err.contains("there is no place {jobb}"));
    REQUIRE(cli({"issues", file, "--make", "T1", "--date", "2026-11-30", "--accept", "R. Amadi"}).code == 0);
    REQUIRE(
        cli({"export", file + "@T1", "--out", folder.filePath("then"), "--files", "sheets,project", "--zip"}).code ==
        0);
    CHECK(QDir(folder.filePath("then")).entryList(QDir::AllEntries | QDir::Hidden | QDir::NoDotAndDotDot).size() == 1);
}
