#pragma once
// The one painter of a Drawing: screen, PDF (see PdfFile.h), SVG and PNG.

#include "core/base/Error.h"
#include "core/sheets/Drawing.h"

#include <QColor>
#include <QPainter>

#include <functional>

namespace lintel {

/// The colour of each ink. On paper always dark on white; on the screen as the theme has it.
using Palette = std::function<QColor(Ink)>;
Palette paperPalette();

/// The face of all sheets. Chosen because text set in it comes back whole from a PDF.
QString sheetFace();

/// Paints in the drawing's millimetres: the caller has scaled the painter (so many device units a millimetre).
void paint(QPainter& painter, const Drawing& drawing, const Palette& palette);

std::optional<Error> writeSvg(const Drawing& drawing, const QString& file);

} // namespace lintel
