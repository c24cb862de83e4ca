#include "render/PngFile.h"

#include "render/Painter.h"

#include <QImage>
#include <QPainter>
#include <QSaveFile>

#include <cmath>

namespace lintel {

std::optional<Error> writePng(const Drawing& d, const QString& file, int dpi) {
    if (auto none = noSheetFace()) return none;
    constexpr double mmPerInch = 25.4, most = 30000; // pixels across, at most: a roll of paper is longer
    const double scale = dpi / mmPerInch;
    const double wide = std::round(d.width * scale), high = std::round(d.height * scale);
    if (wide < 1 || high < 1 || wide > most || high > most)
        return Error{file.toStdString(), "the sheet is too large for a picture", "Write it as PDF or SVG."};
    QImage image(int(wide), int(high), QImage::Format_RGB32);
    if (image.isNull()) return Error{file.toStdString(), "there is no room for the picture", "Write it as PDF or SVG."};
    image.fill(Qt::white);
    image.setDotsPerMeterX(int(std::lround(scale * 1000)));
    image.setDotsPerMeterY(int(std::lround(scale * 1000)));
    QPainter painter(&image);
    painter.scale(scale, scale);
    paint(painter, d, paperPalette());
    painter.end();
    QSaveFile out(file);
    if (!out.open(QIODevice::WriteOnly) || !image.save(&out, "PNG") || !out.commit())
        return Error{file.toStdString(), "the picture cannot be written: " + out.errorString().toStdString(),
                     "Choose another folder."};
    return std::nullopt;
}

} // namespace lintel
