#include "render/PictureFile.h"

#include <QDateTime>
#include <QFileInfo>
#include <QHash>
#include <QPainter>
#include <QSvgRenderer>

#include <algorithm>
#include <memory>

namespace lintel {
namespace {

QRectF boxOfMark(const PictureMark& m) { return {QPointF(m.least.x, m.least.y), QPointF(m.most.x, m.most.y)}; }
QString fileOf(const PictureMark& m) { return QString::fromStdString(m.file); }
bool isSvg(const PictureMark& m) { return fileOf(m).endsWith(".svg", Qt::CaseInsensitive); }

/// A picture as it was read: a sheet is painted again and again, its files are read once as long as they stay the same.
struct Picture {
    QDateTime changed;
    qint64 bytes = -1;
    QImage image;                      ///< null where it is an SVG file, or cannot be read
    std::shared_ptr<QSvgRenderer> svg; ///< null where it is none, or cannot be read
    QSizeF size() const { return svg ? QSizeF(svg->defaultSize()) : QSizeF(image.size()); }
};

/// Each thread has its own: a renderer of SVG serves one at a time.
const Picture& pictureOf(const PictureMark& mark) {
    constexpr int mostKept = 64;
    thread_local QHash<QString, Picture> kept;
    const QString file = fileOf(mark);
    const QFileInfo now(file);
    if (const auto it = kept.constFind(file);
        it != kept.constEnd() && it->changed == now.lastModified() && it->bytes == now.size())
        return *it;
    if (kept.size() >= mostKept) kept.clear();
    Picture& fresh = kept[file];
    fresh = {now.lastModified(), now.size(), {}, {}};
    if (!now.isFile()) return fresh;
    if (!isSvg(mark))
        fresh.image = QImage(file);
    else if (auto svg = std::make_shared<QSvgRenderer>(file); svg->isValid())
        fresh.svg = std::move(svg);
    return fresh;
}

/// As large as the box holds it, at its upper left corner.
QRectF fitted(QSizeF size, const QRectF& box) {
    if (size.isEmpty()) return {};
    return {box.topLeft(), size * std::min(box.width() / size.width(), box.height() / size.height())};
}

} // namespace

void paintFitted(QPainter& painter, const PictureMark& mark) {
    const QRectF box = boxOfMark(mark);
    painter.save();
    const Picture& picture = pictureOf(mark);
    if (const QRectF at = fitted(picture.size(), box); !at.isEmpty()) {
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        if (picture.svg)
            picture.svg->render(&painter, at);
        else
            painter.drawImage(at, picture.image);
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
    const Picture& picture = pictureOf(mark);
    where = fitted(picture.size(), boxOfMark(mark));
    if (!picture.svg) return picture.image;
    const QSize size(int(where.width() * pixels), int(where.height() * pixels));
    if (size.isEmpty()) return {};
    QImage image(size, QImage::Format_ARGB32);
    image.fill(Qt::transparent);
    QPainter painter(&image);
    picture.svg->render(&painter, QRectF(QPointF(), QSizeF(size)));
    return image;
}

} // namespace lintel
