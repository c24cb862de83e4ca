#include "render/Painter.h"
#include "tests/app/AppTest.h"

#include <QSvgRenderer>

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
