#include "render/Painter.h"

#include "core/base/Utf8.h"
#include "render/PictureFile.h"

#include <QFontDatabase>
#include <QFontMetricsF>
#include <QGuiApplication>
#include <QPainterPath>

#include <algorithm>

namespace lintel {

Palette paperPalette() {
    return [](Ink ink) -> QColor {
        switch (ink) {
        case Ink::Ink:
            return {0x1b, 0x23, 0x2b};
        case Ink::Quiet:
            return {0x5b, 0x64, 0x70};
        case Ink::Faint:
            return {0xb9, 0xb4, 0xa8};
        case Ink::Rule:
            return {0xb0, 0xac, 0xa2};
        case Ink::Accent:
            return {0x0f, 0x6b, 0x66};
        case Ink::Stop:
            return {0xb3, 0x36, 0x1e};
        case Ink::Check:
            return {0xb7, 0x79, 0x1f};
        case Ink::Band:
            return {0xef, 0xec, 0xe4};
        case Ink::Wash:
            return {0xf7, 0xf5, 0xf0};
        case Ink::Paper:
            return Qt::white;
        case Ink::PhaseBlack:
            return {0x2f, 0x2f, 0x2f};
        case Ink::PhaseRed:
            return {0xb3, 0x2d, 0x2d};
        case Ink::PhaseBlue:
            return {0x2a, 0x56, 0xa6};
        case Ink::PhaseBrown:
            return {0x7a, 0x4a, 0x1e};
        case Ink::PhaseGrey:
            return {0x86, 0x8b, 0x90};
        case Ink::PhaseOrange:
            return {0xc9, 0x6a, 0x12};
        case Ink::PhaseYellow:
            return {0xc2, 0x9b, 0x10};
        case Ink::Wire1:
            return {0x0f, 0x6b, 0x66};
        case Ink::Wire2:
            return {0xa8, 0x6a, 0x10};
        case Ink::Wire3:
            return {0x7b, 0x3f, 0x98};
        case Ink::Wire4:
            return {0x2a, 0x56, 0xa6};
        case Ink::Wire5:
            return {0xa1, 0x3b, 0x3b};
        case Ink::Wire6:
            return {0x4d, 0x6b, 0x1f};
        case Ink::Shade1:
            return {0xe6, 0xf1, 0xee};
        case Ink::Shade2:
            return {0xc3, 0xdf, 0xd8};
        case Ink::Shade3:
            return {0x96, 0xc6, 0xbb};
        case Ink::Shade4:
            return {0xe9, 0xc0, 0x84};
        }
        return Qt::black;
    };
}

QString sheetFace() { return QStringLiteral("Open Sans"); }

std::optional<Error> noSheetFace() {
    if (QFontDatabase::hasFamily(sheetFace())) return std::nullopt;
    return Error{sheetFace().toStdString(), "the typeface of the sheets is not installed; nothing was written",
                 "Install it (Debian's package fonts-open-sans), and start Lintel again."};
}

QString shownText(const std::string& text) {
    const auto odd = [](char c) { return (c >= 0 && c < ' ') || c == '\x7F'; };
    if (std::none_of(text.begin(), text.end(), odd)) return QString::fromStdString(text);
    std::string plain = printable(text);
    std::replace_if(plain.begin(), plain.end(), odd, ' ');
    return QString::fromStdString(plain);
}

namespace {

/// Type is measured large and scaled down: millimetres are too coarse for hinted metrics.
constexpr double big = 100;

QFont faceOf(const TextMark& t) {
    QFont font(sheetFace());
    font.setPixelSize(int(big));
    font.setBold(t.bold);
    font.setItalic(t.italic);
    font.setHintingPreference(QFont::PreferNoHinting);
    font.setStyleStrategy(QFont::ForceOutline);
    font.setLetterSpacing(QFont::AbsoluteSpacing,
                          0.05); // any spacing keeps ligatures out: “floor” must come back from a PDF as it was written
    return font;
}

SetText setIn(const QFont& font, const TextMark& t, const QString& text) {
    const double natural = QFontMetricsF(font).horizontalAdvance(text) * t.size / big;
    const double squeeze = t.within > 0 && natural > t.within ? t.within / natural : 1.0;
    return {natural * squeeze, squeeze};
}

void paintText(QPainter& painter, const TextMark& t, const Palette& palette) {
    const QString text = shownText(t.text);
    const QFont font = faceOf(t);
    const auto [width, squeeze] = setIn(font, t, text);
    const double k = t.size / big;
    const double left = t.align == Align::Left ? 0 : t.align == Align::Centre ? -width / 2 : -width;
    painter.save();
    painter.translate(t.at.x, t.at.y);
    if (t.turn != 0) painter.rotate(t.turn);
    if (t.halo) {
        QColor paper = palette(Ink::Paper);
        paper.setAlpha(215);
        painter.fillRect(QRectF(left - 0.4, -t.size * 0.86, width + 0.8, t.size * 1.1), paper);
    }
    painter.translate(left, 0);
    painter.scale(k * squeeze, k);
    painter.setFont(font);
    painter.setPen(palette(t.ink));
    painter.drawText(QPointF(0, 0), text);
    painter.restore();
}

} // namespace

SetText setText(const TextMark& t) { return setIn(faceOf(t), t, shownText(t.text)); }

void paint(QPainter& painter, const Drawing& drawing, const Palette& palette) {
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setRenderHint(QPainter::TextAntialiasing);
    const auto polygon = [](const std::vector<Point>& ps) {
        QPolygonF p;
        for (Point q : ps) p << QPointF(q.x, q.y);
        return p;
    };
    const auto pen = [&](Ink ink, double width, bool dashed = false) {
        QPen p(palette(ink), width, Qt::SolidLine, Qt::FlatCap, Qt::MiterJoin);
        if (dashed) p.setDashPattern({6, 4});
        return p;
    };
    for (const Mark& m : drawing.marks) {
        if (const auto* l = std::get_if<LineMark>(&m)) {
            painter.setPen(pen(l->ink, l->width, l->dashed));
            painter.setBrush(Qt::NoBrush);
            if (l->closed)
                painter.drawPolygon(polygon(l->points));
            else
                painter.drawPolyline(polygon(l->points));
        } else if (const auto* f = std::get_if<FillMark>(&m)) {
            painter.setPen(Qt::NoPen);
            painter.setBrush(palette(f->ink));
            painter.drawPolygon(polygon(f->points));
        } else if (const auto* c = std::get_if<CircleMark>(&m)) {
            painter.setPen(c->width > 0 ? pen(c->ink, c->width) : QPen(Qt::NoPen));
            painter.setBrush(c->filled ? QBrush(palette(c->ink)) : QBrush(Qt::NoBrush));
            painter.drawEllipse(QPointF(c->centre.x, c->centre.y), c->radius, c->radius);
        } else if (const auto* q = std::get_if<CurveMark>(&m)) {
            QPainterPath path(QPointF(q->a.x, q->a.y));
            path.quadTo(q->b.x, q->b.y, q->c.x, q->c.y);
            painter.setPen(pen(q->ink, q->width));
            painter.setBrush(Qt::NoBrush);
            painter.drawPath(path);
        } else if (const auto* t = std::get_if<TextMark>(&m)) {
            paintText(painter, *t, palette);
        } else if (const auto* s = std::get_if<LinesMark>(&m)) {
            painter.setPen(pen(s->ink, s->width));
            std::vector<QLineF> lines;
            lines.reserve(s->ends.size() / 2);
            for (std::size_t i = 1; i < s->ends.size(); i += 2)
                lines.emplace_back(s->ends[i - 1].x, s->ends[i - 1].y, s->ends[i].x, s->ends[i].y);
            painter.drawLines(lines.data(), int(lines.size()));
        } else if (const auto* pic = std::get_if<PictureMark>(&m)) {
            if (pic->perPixel == 0) {
                paintFitted(painter, *pic);
                continue;
            }
            const QImage image(QString::fromStdString(pic->file));
            painter.save();
            if (pic->most.x > pic->least.x)
                painter.setClipRect(QRectF(QPointF(pic->least.x, pic->least.y), QPointF(pic->most.x, pic->most.y)),
                                    Qt::IntersectClip);
            painter.setOpacity(1 - pic->fade);
            painter.translate(pic->at.x, pic->at.y);
            painter.rotate(pic->turn);
            painter.scale(pic->perPixel, pic->perPixel);
            painter.drawImage(0, 0, image);
            painter.restore();
        }
    }
}

} // namespace lintel
