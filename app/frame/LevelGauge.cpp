#include "app/frame/LevelGauge.h"

#include "app/frame/PaintKit.h"
#include "core/base/Format.h"

#include <QVariantAnimation>
#include <numbers>

namespace lintel {

LevelGauge::LevelGauge(QWidget* parent) : QWidget(parent), motion(new QVariantAnimation(this)) {
    setFixedHeight(132);
    motion->setDuration(180);
    motion->setEasingCurve(QEasingCurve::OutCubic);
    connect(motion, &QVariantAnimation::valueChanged, this, [this](const QVariant& v) {
        bubble = v.toPointF();
        update();
    });
}

void LevelGauge::show(const Reading& r) {
    now = r;
    // The rings are not evenly spaced: 5 % already shows, 20 % is near the rim. |lean| of a board is about half its
    // imbalance.
    const double mag = std::abs(r.lean) * 100, radius = std::min(1.0, std::sqrt(mag / 25));
    const double angle = std::arg(r.lean);
    const QPointF to = mag < 1e-6 ? QPointF() : QPointF(std::sin(angle), -std::cos(angle)) * radius;
    motion->stop();
    motion->setStartValue(bubble);
    motion->setEndValue(to);
    motion->start();
    update();
}

void LevelGauge::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    const QPointF c(64, 70);
    const double rim = 46;
    p.setPen(QPen(t.ink, 1.4));
    p.setBrush(t.surface);
    p.drawEllipse(c, rim, rim);
    p.setBrush(Qt::NoBrush);
    for (double ring : {5.0, 10.0, 20.0}) {
        p.setPen(QPen(t.rule, 1));
        const double r = std::sqrt(ring / 25) * rim * 0.86;
        p.drawEllipse(c, r, r);
    }
    p.setPen(QPen(t.quiet, 1));
    p.drawLine(c - QPointF(5, 0), c + QPointF(5, 0));
    p.drawLine(c - QPointF(0, 5), c + QPointF(0, 5));
    for (int i = 0; i < now.lines; ++i) {
        const double a = 2 * std::numbers::pi * i / now.lines;
        const QPointF d(std::sin(a), -std::cos(a));
        p.setPen(QPen(t.phase(now.colours.value(i, Ink::Ink)), 3));
        p.drawLine(c + d * (rim - 4), c + d * (rim + 1));
        drawLine(p, QRectF(c + d * (rim + 11) - QPointF(10, 8), QSizeF(20, 16)), now.letters.value(i), Qt::AlignHCenter,
                 t.phase(now.colours.value(i, Ink::Ink)), uiFont(0.92, true));
    }
    if (!now.valid) return;
    const QColor lean = now.imbalance <= 5 ? t.accent : now.imbalance <= 20 ? t.check : t.stop;
    QColor wash = lean;
    wash.setAlpha(70);
    p.setPen(QPen(lean, 1.8));
    p.setBrush(wash);
    p.drawEllipse(c + bubble * rim * 0.86, 9, 9);
    if (!now.figures) return;
    const double x = 140, w = width() - x - 4;
    drawLine(p, QRectF(x, 18, w, 16), tr("Imbalance"), Qt::AlignLeft, t.quiet, uiFont(0.88));
    drawLine(p, QRectF(x, 34, w, 26), q(percent(now.imbalance)), Qt::AlignLeft, t.ink, uiFont(1.5, true));
    drawLine(p, QRectF(x, 60, w, 16), now.imbalance < 0.05 ? tr("level") : tr("heavy on %1").arg(now.heavy),
             Qt::AlignLeft, t.quiet, uiFont(0.88));
    drawLine(p, QRectF(x, 79, w, 16), tr("Neutral %1 A").arg(q(figures(now.neutralAmps))), Qt::AlignLeft, t.quiet,
             uiFont(0.88));
    drawLine(p, QRectF(x, 97, w, 16), now.hint, Qt::AlignLeft, t.accent, uiFont(0.88));
}

} // namespace lintel
