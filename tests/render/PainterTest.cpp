#include "render/Painter.h"
#include "render/SvgFile.h"
#include "tests/app/AppTest.h"

#include <QRegularExpression>
#include <QSvgRenderer>
#include <QXmlStreamReader>

using namespace lintel;

TEST_CASE("the painter draws every kind of mark, narrows text to its place, and the SVG shows the same") {
    QTemporaryDir folder;
    Drawing d;
    d.width = 60, d.height = 40;
    d.fill(5, 5, 10, 10, Ink::Stop);
    d.marks.push_back(CircleMark{{30, 10}, 5, 0.5, Ink::Accent, true});
    d.line({2, 30}, {58, 30}, 1);
    d.marks.push_back(CurveMark{{2, 38}, {30, 30}, {58, 38}, 0.5, Ink::Wire3});
    d.text({5, 25}, "a very long text that has to be set narrow", 4, Align::Left, false, Ink::Ink, 20);
    QImage direct(600, 400, QImage::Format_RGB32);
    direct.fill(Qt::white);
    {
        QPainter p(&direct);
        p.scale(10, 10);
        paint(p, d, paperPalette());
    }
    CHECK(direct.pixelColor(100, 100) == paperPalette()(Ink::Stop));
    CHECK(direct.pixelColor(300, 100) == paperPalette()(Ink::Accent));
    CHECK(direct.pixelColor(300, 300) == paperPalette()(Ink::Ink));
    for (int x = 255; x < 600; ++x) // the text ends within its 20 mm
        for (int y = 205; y < 258; y += 2) CHECK(direct.pixelColor(x, y) == QColor(Qt::white));
    const QString svg = folder.filePath("d.svg");
    REQUIRE_FALSE(writeSvg(d, svg));
    QSvgRenderer r(svg);
    REQUIRE(r.isValid());
    QImage fromSvg(600, 400, QImage::Format_RGB32);
    fromSvg.fill(Qt::white);
    {
        QPainter p(&fromSvg);
        r.render(&p);
    }
    for (QPoint at : {QPoint(100, 100), QPoint(300, 100), QPoint(300, 300), QPoint(500, 200)})
        CHECK(fromSvg.pixelColor(at) == direct.pixelColor(at));
}

namespace {

/// What another program finds in an SVG: each element with an id, its kind, the layer it is in, and its ways.
struct SvgThing {
    QString layer;
    std::vector<Point> ends; ///< first and last point of each path in it
};
std::map<QString, SvgThing> thingsIn(const QString& file) {
    QFile in(file);
    REQUIRE(in.open(QIODevice::ReadOnly));
    QXmlStreamReader xml(&in);
    std::map<QString, SvgThing> found;
    QStringList open; // ids of the groups around it
    while (!xml.atEnd()) {
        xml.readNext();
        if (xml.isStartElement()) {
            const QString id = xml.attributes().value("id").toString();
            if (xml.name() == QString("g")) {
                if (!id.isEmpty()) {
                    CHECK_FALSE(found.count(id)); // one of each
                    found[id].layer = open.value(0);
                }
                open << id;
            }
            if (xml.name() == QString("path") && !open.isEmpty() && !open.last().isEmpty()) {
                const QString way = xml.attributes().value("d").toString();
                static const QRegularExpression point("(-?[0-9.]+) (-?[0-9.]+)");
                std::vector<Point> points;
                for (auto m = point.globalMatch(way); m.hasNext();) {
                    const auto one = m.next();
                    points.push_back({one.captured(1).toDouble(), one.captured(2).toDouble()});
                }
                REQUIRE(!points.empty());
                found[open.last()].ends.push_back(points.front());
                found[open.last()].ends.push_back(points.back());
            }
        }
        if (xml.isEndElement() && xml.name() == QString("g")) open.removeLast();
    }
    CHECK_FALSE(xml.hasError());
    return found;
}

bool touches(const Hotspot& h, Point p) {
    return p.x > h.left - 0.01 && p.x < h.right + 0.01 && p.y > h.top - 0.01 && p.y < h.bottom + 0.01;
}

} // namespace

TEST_CASE(
    "the SVG of a riser, read by another reader: a line for every feeder, from box to box, in the layer of feeders") {
    QTemporaryDir folder;
    const Project p = *loadProject(dataFolder() / "demos" / "saltmarket-hall.lintel");
    const RuleBook book = *loadRuleBook(p.basis.ruleBook);
    const Results r = solve(p, book);
    for (RiserLayout layout : {RiserLayout::ByFloor, RiserLayout::OneLine}) {
        const auto sheets = riserDiagram({p, book, r}, layout, "E-501");
        REQUIRE(sheets.size() == 1);
        const QString file = folder.filePath("riser.svg");
        REQUIRE_FALSE(writeSvg(sheets.front(), file));
        CHECK(QSvgRenderer(file).isValid());
        const auto things = thingsIn(file);
        std::map<Ref, Hotspot> boxes; // of several that of the box comes last
        for (const Hotspot& h : sheets.front().hotspots) boxes[h.thing] = h;
        int feeders = 0;
        for (Ref node : r.order) {
            const QString id = QString::fromStdString(node.text());
            INFO(nameOf(p, node));
            REQUIRE(things.count(id));
            CHECK(things.at(id).layer == "boards");
            const NodeResult& n = *r.node(node);
            if (!n.parent) continue;
            REQUIRE(things.count(id + "-feeder"));
            const SvgThing& line = things.at(id + "-feeder");
            CHECK(line.layer == "feeders");
            REQUIRE(line.ends.size() == 2);
            CHECK(touches(boxes.at(n.parent), line.ends[0]));
            CHECK(touches(boxes.at(node), line.ends[1]));
            ++feeders;
        }
        CHECK(feeders > 15);
        for (const Board& b : p.boards)
            if (b.alternate) CHECK(things.count(QString::fromStdString(Ref(b.id).text()) + "-alternate"));
    }
}

TEST_CASE("an SVG holds any text whole, pictures, crops and turned words, and is refused in words where it cannot be "
          "written") {
    QTemporaryDir folder;
    Drawing d;
    d.width = d.height = 50;
    d.title = "R&D <1>";
    d.text({5, 10}, "a < b & \"c\" \x01 é Ω", 3);
    d.text({40, 40}, "upwards", 3, Align::Right);
    d.lastText()->turn = -90;
    d.lastText()->halo = true;
    QImage dot(4, 4, QImage::Format_RGB32);
    dot.fill(Qt::red);
    REQUIRE(dot.save(folder.filePath("dot.png")));
    d.marks.push_back(PictureMark{folder.filePath("dot.png").toStdString(), {20, 20}, 2.5, 0, 0, {20, 20}, {25, 30}});
    const QString file = folder.filePath("odd.svg");
    REQUIRE_FALSE(writeSvg(d, file));
    QFile in(file);
    REQUIRE(in.open(QIODevice::ReadOnly));
    QXmlStreamReader xml(&in);
    QStringList texts;
    QString title;
    while (!xml.atEnd()) {
        xml.readNext();
        if (!xml.isStartElement()) continue;
        if (xml.name() == QString("title"))
            title = xml.readElementText();
        else if (xml.name() == QString("text"))
            texts << xml.readElementText();
    }
    INFO(xml.errorString().toStdString());
    CHECK_FALSE(xml.hasError());
    CHECK(title == "R&D <1>");
    REQUIRE(texts.size() == 2);
    CHECK(texts[0].startsWith("a < b & \"c\" "));
    CHECK(texts[0].endsWith("é Ω"));
    QSvgRenderer shown(file);
    REQUIRE(shown.isValid());
    QImage image(500, 500, QImage::Format_RGB32);
    image.fill(Qt::blue);
    QPainter painter(&image);
    shown.render(&painter);
    painter.end();
    CHECK(image.pixelColor(480, 20) == QColor(Qt::white)); // its paper is white
    CHECK(image.pixelColor(220, 250) == QColor(Qt::red));
    const auto bad = writeSvg(d, folder.filePath("no/such/folder/x.svg"));
    REQUIRE(bad);
    CHECK(bad->what.find("cannot be written") != std::string::npos);
}

TEST_CASE("a picture is as large as its box holds it, from PNG and SVG alike; one that is missing is told of there") {
    QTemporaryDir folder;
    QImage wide(200, 100, QImage::Format_RGB32);
    wide.fill(Qt::red);
    REQUIRE(wide.save(folder.filePath("logo.png")));
    QFile svgFile(folder.filePath("logo.svg"));
    REQUIRE(svgFile.open(QIODevice::WriteOnly));
    svgFile.write("<svg xmlns='http://www.w3.org/2000/svg' width='200' height='100'>"
                  "<rect width='200' height='100' fill='#ff0000'/></svg>");
    svgFile.close();
    for (const char* name : {"logo.png", "logo.svg", "none.png"}) {
        INFO(name);
        Drawing d;
        d.width = 60, d.height = 60;
        PictureMark m;
        m.file = folder.filePath(name).toStdString();
        m.perPixel = 0;
        m.at = m.least = {10, 10};
        m.most = {50, 50};
        d.marks.push_back(m);
        const auto check = [&](const QImage& image) {
            const bool there = std::string(name) != "none.png";
            const QColor red(Qt::red), white(Qt::white);
            CHECK((image.pixelColor(300, 200) == red) == there); // in the upper half of the box: 40 × 20 mm
            CHECK(image.pixelColor(300, 400) == white);          // below it, and still in the box
            CHECK(image.pixelColor(50, 50) == white);
            bool any = false;
            for (int x = 100; x < 500; ++x)
                for (int y = 100; y < 500; ++y) any = any || image.pixelColor(x, y) != white;
            CHECK(any); // also where it is missing
        };
        const auto blank = [] {
            QImage image(600, 600, QImage::Format_RGB32);
            image.fill(Qt::white);
            return image;
        };
        QImage direct = blank();
        {
            QPainter p(&direct);
            p.scale(10, 10);
            paint(p, d, paperPalette());
        }
        check(direct);
        const QString svg = folder.filePath("sheet.svg");
        REQUIRE_FALSE(writeSvg(d, svg));
        QSvgRenderer r(svg);
        REQUIRE(r.isValid());
        QImage fromSvg = blank();
        {
            QPainter p(&fromSvg);
            r.render(&p);
        }
        check(fromSvg);
    }
}
