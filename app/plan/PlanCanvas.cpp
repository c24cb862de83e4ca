#include "app/plan/PlanCanvas.h"

#include <QCoreApplication>
#include <QElapsedTimer>
#include <QPainter>

namespace lintel {
namespace {
constexpr double margin = 0.25; ///< of the view, painted around it, so that a pan finds something there
}

PlanStyle styleAt(PlanStyle s, double scale) {
    s.symbolScale = std::clamp(38 / scale, 0.7, 2.2);
    s.textScale = std::clamp(45 / scale, 0.7, 2.6);
    return s;
}

namespace {

/// Hair lines straight into the picture: fifty thousand of them are one frame's work this way, and twenty through a
/// painter.
void hairLine(QImage& image, const QLineF& l, QRgb colour) {
    const auto cut = cutToBox({l.x1(), l.y1()}, {l.x2(), l.y2()}, {0, 0}, {image.width() - 1.0, image.height() - 1.0});
    if (!cut) return;
    const auto [a, b] = *cut;
    const int steps = int(std::max(std::abs(b.x - a.x), std::abs(b.y - a.y))) + 1;
    const double dx = (b.x - a.x) / steps, dy = (b.y - a.y) / steps;
    auto* bits = reinterpret_cast<QRgb*>(image.bits());
    const auto stride = image.bytesPerLine() / qsizetype(sizeof(QRgb));
    double x = a.x + 0.5, y = a.y + 0.5;
    for (int i = 0; i <= steps; ++i, x += dx, y += dy)
        bits[std::min(int(y), image.height() - 1) * stride + std::min(int(x), image.width() - 1)] = colour;
}

} // namespace

void paintUnderlays(QImage& image, const PlanScene& scene, const PlanSight& sight) {
    if (!scene.underlays || !scene.style.underlay) return;
    const QRectF view(-2, -2, sight.size.width() + 4, sight.size.height() + 4);
    QPainter p(&image);
    const QTransform toScreen(sight.scale, 0, 0, sight.scale, sight.offset.x(), sight.offset.y());
    for (const PlanScene::Layer& u : *scene.underlays) {
        if (!u.picture.isNull()) {
            p.save();
            p.setTransform(toScreen, true);
            if (u.crop) p.setClipRect(*u.crop);
            p.setOpacity(1 - u.fade);
            p.translate(u.at.origin.x, u.at.origin.y);
            p.setTransform(QTransform(u.at.cosine, u.at.sine, -u.at.sine, u.at.cosine, 0, 0), true);
            p.scale(u.at.scale, u.at.scale);
            p.setRenderHint(QPainter::SmoothPixmapTransform);
            p.drawImage(0, 0, u.picture);
            p.restore();
            continue;
        }
        p.end();
        for (std::size_t i = 0; i < u.lines.size(); ++i) {
            const QLineF l(u.lines[i].p1() * sight.scale + sight.offset, u.lines[i].p2() * sight.scale + sight.offset);
            if (std::max(l.x1(), l.x2()) < view.left() || std::min(l.x1(), l.x2()) > view.right() ||
                std::max(l.y1(), l.y2()) < view.top() || std::min(l.y1(), l.y2()) > view.bottom())
                continue;
            if (std::abs(l.dx()) + std::abs(l.dy()) < 0.4) continue;
            hairLine(image, l, u.colours[i]);
        }
        p.begin(&image);
        for (const auto& [lines, ink] : {std::pair{&u.added, scene.accent}, {&u.gone, scene.stop}}) {
            p.setPen(QPen(ink, 2));
            for (const QLineF& l : *lines)
                p.drawLine(QLineF(l.p1() * sight.scale + sight.offset, l.p2() * sight.scale + sight.offset));
        }
        QFont font(sheetFace());
        for (const DxfDrawing::Text& t : u.texts) {
            const double size = t.height * sight.scale;
            const QPointF at = QPointF(t.at.x, t.at.y) * sight.scale + sight.offset;
            if (size < 4 || size > 400 || !view.adjusted(-400, -400, 400, 400).contains(at)) continue;
            p.save();
            p.translate(at);
            p.rotate(t.turn);
            font.setPixelSize(std::max(1, int(size)));
            p.setFont(font);
            QColor ink = scene.ink;
            ink.setAlphaF(float(0.8 * (1 - u.fade)));
            p.setPen(ink);
            const QString words = QString::fromStdString(t.words);
            const double width = QFontMetricsF(font).horizontalAdvance(words);
            p.drawText(QPointF(t.align == 0 ? 0 : t.align == 1 ? -width / 2 : -width, 0), words);
            p.restore();
        }
    }
}

QImage paintScene(const PlanScene& scene, const PlanSight& sight, Drawing& drawn) {
    QImage image(sight.size, QImage::Format_RGB32);
    image.fill(scene.paper);
    paintUnderlays(image, scene, sight);
    QPainter p(&image);
    drawn = planDrawing({scene.solution->project, *scene.solution->book, scene.solution->results}, scene.level,
                        styleAt(scene.style, sight.scale));
    p.translate(sight.offset);
    p.scale(sight.scale / 10, sight.scale / 10);
    lintel::paint(p, drawn, scene.palette);
    return image;
}

PlanCanvas::PlanCanvas(QObject* parent) : QObject(parent) { pool.setMaxThreadCount(1); }
PlanCanvas::~PlanCanvas() { pool.waitForDone(); }

void PlanCanvas::setScene(PlanScene s) {
    scene = std::move(s);
    wanted = Job{scene, sight};
    start();
}

void PlanCanvas::look(const PlanSight& s) {
    if (s == sight) return;
    sight = s;
    // A pan within the margin needs no new picture yet; but ask, so that the margin is renewed.
    if (!scene.solution) return;
    wanted = Job{scene, sight};
    start();
}

void PlanCanvas::start() {
    if (busy || !wanted || !wanted->scene.solution || wanted->sight.size.isEmpty()) {
        if (wanted && (!wanted->scene.solution || wanted->sight.size.isEmpty())) wanted.reset();
        return;
    }
    busy = true;
    Job job = std::move(*wanted);
    wanted.reset();
    const double mx = std::ceil(job.sight.size.width() * margin), my = std::ceil(job.sight.size.height() * margin);
    job.sight.offset += QPointF(mx, my);
    job.sight.size += QSize(int(2 * mx), int(2 * my));
    pool.start([this, job = std::move(job)] {
        auto drawn = std::make_shared<Drawing>();
        QImage image = paintScene(job.scene, job.sight, *drawn);
        QMetaObject::invokeMethod(
            this,
            [this, image = std::move(image), sightOf = job.sight, drawn] {
                busy = false;
                picture = image;
                pictureSight = sightOf;
                shown = drawn;
                start();
                Q_EMIT painted();
            },
            Qt::QueuedConnection);
    });
}

void PlanCanvas::paint(QPainter& p, const PlanSight& s) const {
    if (picture.isNull()) return;
    // A point of the picture at x lies on the floor at (x − its offset) / its scale.
    const double k = s.scale / pictureSight.scale;
    const QPointF corner = s.offset - pictureSight.offset * k;
    if (std::abs(k - 1) < 1e-12) {
        p.drawImage(QPointF(std::round(corner.x()), std::round(corner.y())), picture);
        return;
    }
    p.save();
    p.translate(corner);
    p.scale(k, k);
    p.drawImage(0, 0, picture);
    p.restore();
}

void PlanCanvas::settle(int milliseconds) {
    QElapsedTimer t;
    t.start();
    while (!settled() && t.elapsed() < milliseconds) {
        pool.waitForDone(milliseconds);
        QCoreApplication::sendPostedEvents(this, QEvent::MetaCall);
    }
}

} // namespace lintel
