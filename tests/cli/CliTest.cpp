// The command line, run as a person runs it.

#include "core/bench/Bench.h"
#include "tests/app/AppTest.h"

#include <nlohmann/json.hpp>

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
    return {p.exitStatus() == QProcess::NormalExit ? p.exitCode() : -1, QString::fromUtf8(p.readAllStandardOutput()), QString::fromUtf8(p.readAllStandardError())};
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
    CHECK(j["boards"].size() == 13);
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
    for (const char* name : {"E-501_riser.pdf", "E-501_riser.svg", "E-101_Ground_floor.pdf", "E-603_HM-1.pdf", "E-605_LP-1.pdf", "all_sheets.pdf"}) CHECK(QFileInfo(folder.filePath(QString("sheets/") + name)).size() > 4000);
    // Text comes back whole: hyphens, fractions, phase signs.
    const QString schedule = pdfText(folder.filePath("sheets/E-605_LP-1.pdf"));
    for (const char* words : {"LP-1", "208Y/120 V, 3φ 4W", "Café espresso machine", "Stalls 1–4 receptacles", "400 A / 350 A breaker"}) CHECK(schedule.contains(QString::fromUtf8(words)));
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
    const Ran text = cli({"bench", "motor", file, "--with", "device=fuse", "--text", "--pdf", folder.filePath("motor.pdf"), "--job", "Mill", "--company", "Office"});
    CHECK(text.out.contains("110 A fuse"));
    const QString page = pdfText(folder.filePath("motor.pdf"));
    for (const char* words : {"Mill", "Office", "430.250", "Full-load current", "Checked by"}) CHECK(page.contains(words));
    CHECK(cli({"bench", "conductor", R"({"lod": 3})"}).err.contains("conductor.lod"));
    CHECK(cli({"bench", "conductor", "{"}).err.contains("not well-formed"));
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
