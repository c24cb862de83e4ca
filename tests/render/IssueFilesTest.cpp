// All files of a set in one go: complete under their names, or none at all; as one archive the same each time.

#include "render/IssueFiles.h"
#include "core/compare/EnteredChanges.h"
#include "core/project/ProjectFile.h"
#include "render/UnderlayFile.h"
#include "tests/app/AppTest.h"

#include <nlohmann/json.hpp>

using namespace lintel;
namespace fs = std::filesystem;

namespace {

/// The hall with its drawings below the plans, solved.
struct Hall {
    const fs::path file = dataFolder() / "demos" / "saltmarket-hall.lintel";
    Project project = *loadProject(file);
    RuleBook book = *loadRuleBook(project.basis.ruleBook, project.basis.ownValues);
    Results results = solve(project, book);
    SheetInput in{project, book, results,
                  [this](const Underlay& u) -> std::shared_ptr<const UnderlayContent> {
                      const auto content = readUnderlay(underlayFile(u, file));
                      return content ? *content : nullptr;
                  },
                  file};
    std::vector<SheetEntry> sheets = issueSet(in);
    IssueFilesOrder order;
    Hall() { order.pattern = "{job}-{issue} {what}"; }
};

QStringList within(const QTemporaryDir& folder) {
    return QDir(folder.path()).entryList(QDir::AllEntries | QDir::Hidden | QDir::NoDotAndDotDot, QDir::Name);
}
QByteArray bytesOf(const QString& file) {
    QFile f(file);
    REQUIRE(f.open(QIODevice::ReadOnly));
    return f.readAll();
}

} // namespace

TEST_CASE("files of a set: every kind is there under its name and opens again") {
    Hall hall;
    QTemporaryDir folder;
    for (const auto& [kind, word] : EnumText<IssueFile>::words)
        if (!std::set{IssueFile::Apart, IssueFile::Drawings, IssueFile::Svg, IssueFile::Png}.count(kind))
            hall.order.kinds.insert(kind);
    const auto written = writeIssueFiles(hall.in, hall.sheets, folder.path().toStdString(), hall.order);
    REQUIRE(written);
    const QStringList names = within(folder);
    CHECK(std::size_t(names.size()) == written->files.size());
    const std::string at = "SH-204-" + hall.project.basis.issue + " ";
    for (const char* name :
         {"sheets.pdf", "lists.xlsx", "door cards.pdf", "calculations.pdf", "results.json", "project.lintel"})
        CHECK(names.contains(QString::fromStdString(at + name)));
    CHECK(pdfText(folder.filePath(QString::fromStdString(at + "sheets.pdf"))).contains("Saltmarket Hall"));
    const auto results =
        nlohmann::json::parse(bytesOf(folder.filePath(QString::fromStdString(at + "results.json"))).toStdString());
    CHECK(results.is_object());
    // The copy of the project is the project, and finds its drawings beside it.
    const fs::path copy = fs::path(folder.path().toStdString()) / (at + "project.lintel");
    const auto again = loadProject(copy);
    REQUIRE(again);
    REQUIRE(again->underlays.size() == hall.project.underlays.size());
    for (const Underlay& u : again->underlays) {
        const fs::path drawing = underlayFile(u, copy);
        CHECK(drawing.parent_path() == copy.parent_path());
        CHECK(readUnderlay(drawing));
    }
    for (const EnteredChange& c : enteredChanges(hall.project, *again)) CHECK(c.thing.is<Underlay>());
    // A second time nothing is replaced unless somebody says so.
    const QByteArray before = bytesOf(folder.filePath(QString::fromStdString(at + "lists.xlsx")));
    const auto refused = writeIssueFiles(hall.in, hall.sheets, folder.path().toStdString(), hall.order);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().what == "there is a file of that name already");
    CHECK(bytesOf(folder.filePath(QString::fromStdString(at + "lists.xlsx"))) == before);
    CHECK(within(folder) == names);
    hall.order.replace = true;
    CHECK(writeIssueFiles(hall.in, hall.sheets, folder.path().toStdString(), hall.order));
    CHECK(within(folder) == names);
}

TEST_CASE("files of a set: a PDF, DXF, SVG and picture for each sheet, and each floor; some sheets only") {
    Hall hall;
    QTemporaryDir folder;
    hall.order.kinds = {IssueFile::Apart, IssueFile::Drawings, IssueFile::Svg, IssueFile::Png};
    hall.order.pattern = "{what}";
    std::vector<SheetEntry> some;
    for (const SheetEntry& e : hall.sheets)
        if (e.number == "E-501" || e.number == "E-101") some.push_back(e);
    REQUIRE(some.size() == 2);
    REQUIRE(writeIssueFiles(hall.in, some, folder.path().toStdString(), hall.order));
    CHECK(QDir(folder.path()).entryList({"E-*.pdf"}).size() == 2);
    CHECK(QDir(folder.path()).entryList({"E-*.dxf"}).size() == 2);
    CHECK(QDir(folder.path()).entryList({"plan_*.dxf"}).size() > 1);
    const QStringList pictures = QDir(folder.path()).entryList({"E-501*.png"}),
                      svg = QDir(folder.path()).entryList({"*.svg"});
    REQUIRE(pictures.size() == 1);
    CHECK(svg.size() == 2);
    // ARCH D is 36 × 24 in, at 150 dots an inch; white paper with something on it.
    const QImage picture(folder.filePath(pictures.front()));
    CHECK(picture.size() == QSize(5400, 3600));
    CHECK(std::lround(picture.dotsPerMeterX() * 0.0254) == 150);
    CHECK(picture.pixelColor(20, 20) == QColor(Qt::white));
    // A thing of the plan has its id in the SVG: every device that is drawn there.
    const QString plan = QString::fromUtf8(bytesOf(folder.filePath(svg.filter("E-101").front())));
    int devices = 0;
    for (const Device& d : hall.project.devices)
        devices += plan.contains(QString::fromStdString("id=\"" + Ref(d.id).text() + "\""));
    CHECK(devices > 20);
    CHECK(QFile::exists(folder.filePath(QString::fromStdString("E-501 " + some.back().title + ".pdf"))));
}

TEST_CASE("files of a set: an archive holds them all, is the same each time, and is whole or not there") {
    Hall hall;
    QTemporaryDir one, two;
    hall.order.kinds = {IssueFile::Sheets, IssueFile::Project};
    hall.order.archive = true;
    REQUIRE(writeIssueFiles(hall.in, hall.sheets, one.path().toStdString(), hall.order));
    REQUIRE(writeIssueFiles(hall.in, hall.sheets, two.path().toStdString(), hall.order));
    REQUIRE(within(one).size() == 1);
    const QString name = within(one).front();
    CHECK(name.endsWith(" files.zip"));
    CHECK(bytesOf(one.filePath(name)) == bytesOf(two.filePath(name)));
    QProcess lister;
    lister.start("python3", {"-m", "zipfile", "-l", one.filePath(name)});
    lister.waitForFinished(20000);
    const QString listed = QString::fromUtf8(lister.readAllStandardOutput());
    CHECK(listed.contains("sheets.pdf"));
    CHECK(listed.contains("project.lintel"));
    CHECK(listed.contains("saltmarket-hall-ground.dxf"));
    // Cancelled: nothing is left, not even a folder of ours.
    QTemporaryDir none;
    hall.order.keepOn = [](std::size_t done, std::size_t) { return done < 2; };
    const auto cancelled = writeIssueFiles(hall.in, hall.sheets, none.path().toStdString(), hall.order);
    REQUIRE_FALSE(cancelled);
    CHECK(cancelled.error().what == "it was cancelled; nothing was written");
    CHECK(within(none).isEmpty());
    // Asked for nothing, by no pattern, and where nobody can write.
    hall.order.keepOn = {};
    hall.order.kinds.clear();
    CHECK(issueFileNames(hall.in, hall.sheets, hall.order).error().help == "Say which files.");
    hall.order.kinds = {IssueFile::Sheets};
    CHECK(issueFileNames(hall.in, {}, hall.order).error().what == "there is nothing to write");
    hall.order.pattern = "{number}";
    CHECK(issueFileNames(hall.in, hall.sheets, hall.order).error().what == "there is no place {number}");
    hall.order.pattern = "{what}";
    QFile blocked(none.filePath("file"));
    REQUIRE(blocked.open(QIODevice::WriteOnly));
    CHECK_FALSE(writeIssueFiles(hall.in, hall.sheets, none.filePath("file/below").toStdString(), hall.order));
}
