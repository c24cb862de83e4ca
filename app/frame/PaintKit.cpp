#include "app/frame/PaintKit.h"

#include <QCache>
#include <QIcon>
#include <QLabel>
#include <QLineEdit>
#include <QPainterPath>
#include <QShortcut>
#include <QStaticText>

namespace lintel {

void drawLine(QPainter& p, const QRectF& box, const QString& text, Qt::Alignment align, const QColor& colour,
              const QFont& font) {
    if (text.isEmpty() || box.width() <= 0) return;
    // Shaping and cutting a text costs far more than drawing it, and nearly all of a picture is the same as in the last
    // one.
    struct Laid {
        QStaticText text;
        QSizeF size;
    };
    static QCache<QString, Laid> laid(6000);
    const QString key = QString::number(font.pixelSize()) + QChar(font.weight() >= QFont::DemiBold ? 'b' : 'n') +
                        QChar(font.italic() ? 'i' : 'u') + QString::number(int(box.width() * 2)) + QChar('|') + text;
    Laid* it = laid.object(key);
    if (!it) {
        const QFontMetricsF m(font);
        it = new Laid;
        it->text = QStaticText(
            m.horizontalAdvance(text) > box.width() + 0.5 ? m.elidedText(text, Qt::ElideRight, box.width()) : text);
        it->text.setTextFormat(Qt::PlainText);
        it->text.setPerformanceHint(QStaticText::AggressiveCaching);
        it->text.prepare(QTransform(), font);
        it->size = QSizeF(m.horizontalAdvance(it->text.text()), m.height());
        laid.insert(key, it);
    }
    p.setFont(font);
    p.setPen(colour);
    const double x = align & Qt::AlignRight     ? box.right() - it->size.width()
                     : align & Qt::AlignHCenter ? box.center().x() - it->size.width() / 2
                                                : box.left();
    p.drawStaticText(QPointF(x, box.center().y() - it->size.height() / 2), it->text);
}

void markRefused(QLineEdit* editor, const QString& reason) {
    editor->setProperty("refused", true);
    editor->setStyleSheet("border: 1px solid " + theme().stop.name());
    if (!reason.isEmpty()) editor->setToolTip(plainTip(reason));
}
void markTaken(QLineEdit* editor) {
    if (!isRefused(editor)) return;
    editor->setProperty("refused", false);
    editor->setStyleSheet({});
}
bool isRefused(const QWidget* editor) { return editor->property("refused").toBool(); }

void putAway(QWidget* editor, QWidget* view) {
    if (view && editor->hasFocus()) view->setFocus();
    editor->hide();
    editor->deleteLater();
}

void closeOnEscape(QLineEdit* editor) {
    auto* escape = new QShortcut(QKeySequence(Qt::Key_Escape), editor, nullptr, nullptr, Qt::WidgetShortcut);
    QObject::connect(escape, &QShortcut::activated, editor, [editor] {
        editor->setModified(false);
        putAway(editor, editor->parentWidget());
    });
}

QIcon railIcon(const QString& name, const QColor& colour) {
    QPixmap pix(96, 96);
    pix.fill(Qt::transparent);
    QPainter p(&pix);
    p.setRenderHint(QPainter::Antialiasing);
    p.scale(4, 4);
    QPen pen(colour, 1.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin);
    p.setPen(pen);
    const auto line = [&](double a, double b, double c, double d) { p.drawLine(QPointF(a, b), QPointF(c, d)); };
    if (name == "Basis") {
        p.drawRoundedRect(QRectF(3, 3, 18, 18), 2, 2);
        for (double y : {8.0, 12.0, 16.0}) line(7, y, y == 16 ? 13 : 17, y);
    } else if (name == "Plan") {
        p.drawPolyline(QPolygonF{{14, 21}, {3, 21}, {3, 3}, {21, 3}, {21, 21}, {18, 21}});
        p.drawPolyline(QPolygonF{{3, 12}, {9, 12}});
        p.drawPolyline(QPolygonF{{13, 3}, {13, 12}, {16, 12}});
    } else if (name == "Boards") {
        pen.setWidthF(1.9);
        p.setPen(pen);
        line(12, 2.5, 12, 21.5);
        pen.setWidthF(1.5);
        p.setPen(pen);
        for (double y : {3.5, 9.5, 15.5})
            for (double x : {2.5, 14.5}) p.drawRoundedRect(QRectF(x, y, 7, 4.4), 1, 1);
    } else if (name == "Riser") {
        p.setBrush(colour);
        p.drawRect(QRectF(4.5, 3, 5, 5));
        p.drawRect(QRectF(14, 8, 5, 5));
        p.setBrush(Qt::NoBrush);
        line(7, 8, 7, 21);
        line(16.5, 13, 16.5, 21);
        line(3, 21, 21, 21);
        pen.setStyle(Qt::DotLine);
        p.setPen(pen);
        line(2, 15, 22, 15);
    } else if (name == "Runs") {
        p.drawPolyline(QPolygonF{{3, 3}, {3, 21}, {21, 21}});
        QPainterPath path({3, 5});
        path.cubicTo(10, 6, 9, 12, 13, 13);
        path.lineTo(21, 17.5);
        p.drawPath(path);
    } else if (name == "Issue") {
        p.drawPolyline(QPolygonF{{15, 3}, {4, 3}, {4, 21}, {20, 21}, {20, 8}, {15, 3}});
        p.drawPolyline(QPolygonF{{15, 3}, {15, 8}, {20, 8}});
        for (double y : {11.0, 14.5}) line(8, y, 16, y);
        line(8, 18, 12, 18);
    } else if (name == "Review") {
        p.drawEllipse(QPointF(10.5, 10.5), 7.5, 7.5);
        line(16, 16, 21.5, 21.5);
        p.drawPolyline(QPolygonF{{7, 10.5}, {9.5, 13}, {14, 8}});
    }
    return QIcon(pix);
}

void asRich(QLabel* label) { label->setTextFormat(Qt::RichText); }

} // namespace lintel
