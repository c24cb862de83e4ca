// The command line, run as a person runs it.

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
    CHECK(j["boards"].size() == 4);
    CHECK(j["circuits"].size() == 68);
    for (const auto& c : j["circuits"])
        if (c["name"] == "LP-1-28") {
            CHECK(c["run"]["size"] == "6");
            CHECK(c["run"]["governing"] == "voltage drop");
            CHECK(c["run"]["drop_current_A"] == 16);
            CHECK(c["workings"]["steps"].size() > 5);
        }
    const Ran issued = cli({"issue", file, "--out", folder.filePath("sheets")});
    CHECK(issued.code == 0);
    CHECK(issued.err.contains("4 stop snags remain"));
    for (const char* name : {"E-501_riser.pdf", "E-501_riser.svg", "E-101_Ground_floor.pdf", "E-601_HM-1.pdf", "E-602_LP-1.pdf", "all_sheets.pdf"}) CHECK(QFileInfo(folder.filePath(QString("sheets/") + name)).size() > 4000);
    // Text comes back whole: hyphens, fractions, phase signs.
    const QString schedule = pdfText(folder.filePath("sheets/E-602_LP-1.pdf"));
    for (const char* words : {"LP-1", "208Y/120 V, 3φ 4W", "Café espresso machine", "Stalls 1–4 receptacles", "400 A / 350 A breaker"}) CHECK(schedule.contains(QString::fromUtf8(words)));
    const QString riser = pdfText(folder.filePath("sheets/E-501_riser.pdf"));
    for (const char* words : {"MDS", "HM-1", "F-2", "112.5 kVA", "Ground floor"}) {
        INFO(words);
        CHECK(riser.contains(words));
    }
    const QString mine = folder.filePath("mine.lintel");
    CHECK(cli({"new", mine, "--starter", "us-208"}).code == 0);
    CHECK(loadProject(mine.toStdString())->boards.size() == 1);
    CHECK(cli({"new", folder.filePath("z.lintel"), "--starter", "moon"}).err.contains("us-480"));
    CHECK(cli({"solve", folder.filePath("absent.lintel")}).code == 1);
    CHECK(cli({}).code != 0);
}
