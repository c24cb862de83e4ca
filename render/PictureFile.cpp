#include "render/PictureFile.h"

#include <QFileInfo>
#include <QPainter>
#include <QSvgRenderer>

#include <algorithm>

namespace lintel {
namespace {

QRectF boxOfMark(const PictureMark& m) { return {QPointF(m.least.x, m.least.y), QPointF(m.most.x, m.most.y)}; }
QString fileOf(const PictureMark& m) { return QString::fromStdString(m.file); }
bool isSvg(const PictureMark& m) { return fileOf(m).endsWith(".svg", Qt::CaseInsensitive); }

/// As large as the box holds it, at its upper left corner.
QRectF fitted(QSizeF size, const QRectF& box) {
    if (size.isEmpty()) return {};
    return {box.topLeft(), size * std::min(box.width() / size.width(), box.height() / size.height())};
}

} // namespace

void paintFitted(QPainter& painter, const PictureMark& mark) {
    const QRectF box = boxOfMark(mark);
    painter.save();
    if (isSvg(mark)) {
        QSvgRenderer svg(fileOf(mark));
        const QRectF at = svg.isValid() ? fitted(svg.defaultSize(), box) : QRectF();
        if (!at.isEmpty()) {
            svg.render(&painter, at);
            painter.restore();
            return;
        }
    } else if (const QImage image(fileOf(mark)); !image.isNull()) {
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        painter.drawImage(fitted(image.size(), box), image);
        painter.restore();
        return;
    }
    constexpr double letters = 2.8; // mm
    painter.setPen(QPen(QColor(0xb3, 0x36, 0x1e), 0.25));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(box);
    QFont font = painter.font();
    font.setFamily("Open Sans");
    font.setPixelSize(100); // and scaled: fonts have no fractions of a pixel
    painter.setFont(font);
    painter.translate(box.topLeft());
    painter.scale(letters / 100, letters / 100);
    const QRectF room(0, 0, box.width() * 100 / letters, box.height() * 100 / letters);
    painter.drawText(room.adjusted(30, 30, -30, -30), Qt::AlignLeft | Qt::AlignTop | Qt::TextWrapAnywhere,
                     QObject::tr("Picture not found: %1").arg(QFileInfo(fileOf(mark)).fileName()));
    painter.restore();
}

QImage fittedImage(const PictureMark& mark, QRectF& where) {
    constexpr double pixels = 12; // of a millimetre: 300 to the inch
    const QRectF box = boxOfMark(mark);
    if (!isSvg(mark)) {
        const QImage image(fileOf(mark));
        where = fitted(image.size(), box);
        return image;
    }
    QSvgRenderer svg(fileOf(mark));
    where = svg.isValid() ? fitted(svg.defaultSize(), box) : QRectF();
    const QSize size(int(where.width() * pixels), int(where.height() * pixels));
    if (size.isEmpty()) return {};
    QImage image(size, QImage::Format_ARGB32);
    image.fill(Qt::transparent);
    QPainter painter(&image);
    svg.render(&painter, QRectF(QPointF(), QSizeF(size)));
    return image;
}

} // namespace lintel
