#pragma once
// A picture that is as large as a box holds it: a logo, a picture on a composed sheet.

#include "core/drawing/Drawing.h"

#include <QImage>
#include <QRectF>

class QPainter;

namespace lintel {

/// Paints it at the upper left of its box, an SVG file as lines; where it cannot be read, the box says so.
void paintFitted(QPainter& painter, const PictureMark& mark);
/// The same as pixels, and where they stand in mm; a null image where it cannot be read.
QImage fittedImage(const PictureMark& mark, QRectF& where);

} // namespace lintel
