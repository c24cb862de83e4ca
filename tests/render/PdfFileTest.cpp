// PDF files as others read them: bookmarks, numbers of sheets, links, facts, and the same bytes each time.

#include "render/PdfFile.h"
#include "app/frame/PaintKit.h"
#include "core/check/Assumptions.h"
#include "core/project/ProjectFile.h"
#include "core/report/CalculationReport.h"
#include "tests/Building.h"
#include "tests/app/AppTest.h"

#include <QImage>
#include <QXmlStreamReader>
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

TEST_CASE(
    "PDF: it can be kept (PDF/A-2b): profile of colours, the same facts in XMP, every font inside, no hidden link") {
    QTemporaryDir folder;
    std::vector<Drawing> set{sheet("E-001", "Index & notes"), sheet("E-501", "Riser")};
    set[0].text({20, 40}, "E-501", 4);
    set[0].text({20, 50}, "bold words, ½ in, 3φ, #6 → 30 Ω", 4, Align::Left, true);
    QImage dots(8, 8, QImage::Format_ARGB32); // with places that can be looked through
    dots.fill(QColor(200, 30, 30, 120));
    const QString logo = folder.filePath("logo.png");
    REQUIRE(dots.save(logo));
    set[1].marks.push_back(PictureMark{logo.toStdString(), {20, 20}, 0, 0, 0, {20, 20}, {60, 40}});
    const QString file = folder.filePath("kept.pdf");
    REQUIRE_FALSE(writePdf(set, file, {"Hall <A> & B", "AB, Office", "Job 7", "2026-11-30"}));
    const auto objects = read(file, "qpdf")["qpdf"][1];
    // 6.2.3: red, green and blue are what the profile says.
    const auto at = [&](const std::string& reference) { return objects["obj:" + reference]; };
    const auto root = at(objects["trailer"]["value"]["/Root"].get<std::string>())["value"];
    const auto intent = at(root["/OutputIntents"][0].get<std::string>())["value"];
    CHECK(intent["/S"] == "/GTS_PDFA1");
    const QString profile =
        said("qpdf", {"--show-object=" + q(intent["/DestOutputProfile"].get<std::string>()).split(' ')[0],
                      "--filtered-stream-data", file});
    CHECK(profile.contains("acsp")); // the mark of an ICC profile
    CHECK(profile.contains("RGB XYZ"));
    // 6.6.2 and 6.6.4: XMP says what the file conforms to, and nothing else than its dictionary of facts.
    const QString metadata = said("qpdf", {"--show-object=" + q(root["/Metadata"].get<std::string>()).split(' ')[0],
                                           "--filtered-stream-data", file});
    for (const char* words : {"<pdfaid:part>2</pdfaid:part>", "<pdfaid:conformance>B</pdfaid:conformance>",
                              "Hall &lt;A&gt; &amp; B", "AB, Office", "Job 7", "2026-11-30"})
        CHECK(metadata.contains(words));
    QXmlStreamReader xml(metadata);
    while (!xml.atEnd()) xml.readNext();
    CHECK_FALSE(xml.hasError());
    const auto info = at(objects["trailer"]["value"]["/Info"].get<std::string>())["value"];
    CHECK(info["/Title"] == "u:Hall <A> & B");
    CHECK(objects["trailer"]["value"].contains("/ID")); // 6.1.3
    CHECK_FALSE(objects["trailer"]["value"].contains("/Encrypt"));
    // 6.2.11.4: every font is in the file. 6.3.2: links print. 6.2.8: no picture asks to be smoothed. 6.5: no actions.
    int fonts = 0, links = 0, pictures = 0;
    for (const auto& [name, object] : objects.items()) {
        const auto value =
            object.contains("stream") ? object["stream"]["dict"] : object.value("value", nlohmann::json());
        if (!value.is_object()) continue;
        CHECK_FALSE(value.contains("/JavaScript"));
        CHECK_FALSE(value.contains("/AA"));
        CHECK_FALSE(value.contains("/EmbeddedFiles"));
        const std::string type = value.value("/Type", nlohmann::json("")).get<std::string>(),
                          kind = value.value("/Subtype", nlohmann::json("")).get<std::string>();
        if (type == "/FontDescriptor") {
            ++fonts;
            CHECK((value.contains("/FontFile2") || value.contains("/FontFile3") || value.contains("/FontFile")));
        }
        if (kind == "/Link") {
            ++links;
            CHECK(value["/F"] == 4);
        }
        if (kind == "/Image") {
            ++pictures;
            CHECK_FALSE(value.value("/Interpolate", false));
        }
    }
    CHECK(fonts >= 2);
    CHECK(links >= 1);
    CHECK(pictures >= 1);
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

TEST_CASE("where the typeface of the sheets is missing that is said, and no sheet is written in another") {
    QTemporaryDir folder;
    QFile fonts(folder.filePath("fonts.conf"));
    REQUIRE(fonts.open(QIODevice::WriteOnly));
    fonts.write("<?xml version=\"1.0\"?><!DOCTYPE fontconfig SYSTEM \"fonts.dtd\"><fontconfig></fontconfig>");
    fonts.close();
    const QString demo = q((dataFolder() / "demos" / "brindle-pier.lintel").string());
    QProcess p;
    QProcessEnvironment with = QProcessEnvironment::systemEnvironment();
    with.insert("FONTCONFIG_FILE", folder.filePath("fonts.conf"));
    p.setProcessEnvironment(with);
    p.start(LINTEL_CLI, {"issue", demo, "--out", folder.filePath("out")});
    REQUIRE(p.waitForFinished(60000));
    CHECK(p.exitCode() != 0);
    CHECK(p.readAllStandardError().contains("Open Sans: the typeface of the sheets is not installed"));
    CHECK(QDir(folder.filePath("out")).entryList({"*.pdf"}).isEmpty());
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
