// PDF files as others read them: bookmarks, numbers of sheets, links, facts, and the same bytes each time.

#include "render/PdfFile.h"
#include "app/frame/PaintKit.h"
#include "core/check/Assumptions.h"
#include "core/project/ProjectFile.h"
#include "core/report/CalculationReport.h"
#include "tests/Building.h"
#include "tests/app/AppTest.h"

#include <nlohmann/json.hpp>

#include <set>

using namespace lintel;

namespace {

QByteArray bytesOf(const QString& file) {
    QFile f(file);
    REQUIRE(f.open(QIODevice::ReadOnly));
    return f.readAll();
}
QString said(const QString& program, const QStringList& words, int* code = nullptr) {
    QProcess p;
    p.start(program, words);
    p.waitForFinished(30000);
    if (code) *code = p.exitCode();
    return QString::fromUtf8(p.readAllStandardOutput());
}
nlohmann::json read(const QString& file, const char* key) {
    return nlohmann::json::parse(said("qpdf", {"--json", QString("--json-key=%1").arg(key), file}).toStdString());
}

Drawing sheet(const std::string& number, const std::string& title) {
    Drawing d;
    d.number = number;
    d.title = title;
    d.text({20, 20}, title, 4);
    return d;
}

} // namespace

TEST_CASE("PDF: bookmarks and page labels by the sheets, links where a sheet names another, nothing by mistake") {
    QTemporaryDir folder;
    std::vector<Drawing> set{sheet("E-001", "Drawing index"), sheet("E-501", "Riser R&D <1>"),
                             sheet("E-501.2", "Riser, sheet 2"), sheet("", "Loose")};
    set[0].text({20, 40}, "E-501", 4);
    set[0].text({60, 40}, "goes on on E-501.2", 4);
    set[0].text({20, 60}, "panel E-501 of the tenant", 4); // no word that points to a sheet
    set[0].text({20, 70}, "E-5012", 4);                    // another number
    set[2].text({20, 40}, "E-501.2", 4);                   // itself
    const auto links = linksByNumber(set);
    REQUIRE(links.size() == 2);
    CHECK(links[0].to == 1);
    CHECK(links[0].left == Approx(20));
    CHECK(links[1].to == 2);
    CHECK(links[1].left > 75); // the number, not the words before it
    const QString file = folder.filePath("set.pdf");
    PdfAbout about{"Set", "AB, Office", "Job 7", "2026-11-30"};
    REQUIRE_FALSE(writePdf(set, file, about));
    int code = -1;
    said("qpdf", {"--check", file}, &code);
    CHECK(code == 0);
    const auto outlines = read(file, "outlines")["outlines"];
    REQUIRE(outlines.size() == 4);
    CHECK(outlines[1]["title"] == "E-501 Riser R&D <1>");
    CHECK(outlines[1]["destpageposfrom1"] == 2);
    CHECK(outlines[3]["title"] == "Loose");
    const auto labels = read(file, "pagelabels")["pagelabels"];
    REQUIRE(labels.size() == 4);
    CHECK(labels[2]["label"]["/P"] == "u:E-501.2");
    CHECK(labels[3]["label"]["/P"] == "u:4");
    const QString info = said("pdfinfo", {file});
    CHECK(info.contains("AB, Office"));
    CHECK(info.contains("Job 7"));
    CHECK(info.contains("2026"));
    CHECK(pdfText(file).contains("Riser R&D <1>"));
    // The same drawings make the same file; what stood there stands there still where one is cancelled.
    const QByteArray first = bytesOf(file);
    for (int i = 0; i < 5; ++i) {
        REQUIRE_FALSE(writePdf(set, file, about));
        CHECK(bytesOf(file) == first);
    }
    about.keepOn = [](std::size_t page, std::size_t pages) { return page + 1 < pages; };
    REQUIRE(writePdf(set, file, about));
    CHECK(bytesOf(file) == first);
    CHECK(QDir(folder.path()).entryList(QDir::Files).size() == 1);
    CHECK(writePdf(set, "/proc/none/x.pdf", PdfAbout{"x", "", ""}));
    CHECK(writePdf({}, folder.filePath("none.pdf"), PdfAbout{"x", "", ""}));
    CHECK_FALSE(QFile::exists(folder.filePath("none.pdf")));
}

TEST_CASE("PDF: the set of a demo links its index to every sheet, and the command writes the same bytes twice") {
    QTemporaryDir folder;
    const Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const RuleBook& book = bookOf(p.basis.ruleBook);
    const Results r = solve(p, book);
    const SheetInput in{p, book, r};
    std::vector<Drawing> set;
    for (const SheetEntry& e : issueSet(in)) set.push_back(e.draw());
    std::set<std::size_t> reached;
    for (const PageLink& l : linksByNumber(set))
        if (l.page == 0) reached.insert(l.to);
    CHECK(reached.size() == set.size() - 1);
    // In two processes: the order in which a program meets its fonts differs from one to the next.
    const QString demo = q((dataFolder() / "demos" / "saltmarket-hall.lintel").string());
    QByteArray before;
    for (int i = 0; i < 4; ++i) {
        const QString out = folder.filePath(QString("report%1.pdf").arg(i));
        int code = -1;
        said(LINTEL_CLI, {"report", demo, "--depth", "runs", "--out", out}, &code);
        REQUIRE(code == 0);
        const QByteArray now = bytesOf(out);
        if (i > 0) CHECK(now == before);
        before = now;
    }
}

TEST_CASE("report on the command line: scope, depth, and what cannot be") {
    QTemporaryDir folder;
    const QString demo = q((dataFolder() / "demos" / "brindle-pier.lintel").string()), out = folder.filePath("r.pdf");
    const auto report = [&](const QStringList& words, int expected) {
        int code = -1;
        said(LINTEL_CLI, QStringList{"report", demo, "--out", out} + words, &code);
        INFO(words.join(" ").toStdString());
        CHECK(code == expected);
    };
    report({"--of", "DB-3", "--depth", "everything"}, 0);
    const auto outlines = read(out, "outlines")["outlines"];
    bool workings = false;
    for (const auto& o : outlines)
        if (o["title"].get<std::string>().find("Workings") != std::string::npos) workings = !o["kids"].empty();
    CHECK(workings);
    const QString words = pdfText(out);
    CHECK(words.contains("DB-3 with all it feeds"));
    CHECK_FALSE(words.contains("DB-5-")); // no circuit of another board
    report({"--of", "nobody"}, 1);
    report({"--depth", "deeper"}, 1);
    report({"--path"}, 1);
}
