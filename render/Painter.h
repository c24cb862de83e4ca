#pragma once
// The one painter of a Drawing: screen, PDF (see PdfFile.h) and PNG. SVG has a writer of its own (SvgFile.h).

#include "core/base/Error.h"
#include "core/drawing/Drawing.h"

#include <QColor>
#include <QPainter>

#include <functional>
#include <optional>

namespace lintel {

/// The colour of each ink. On paper always dark on white; on the screen as the theme has it.
using Palette = std::function<QColor(Ink)>;
Palette paperPalette();

/// The face of all sheets. Chosen because text set in it comes back whole from a PDF.
QString sheetFace();

/// That face is not on this machine; nothing: it is. Set in another one, texts would run out of their cells.
std::optional<Error> noSheetFace();

/// Paints in the drawing's millimetres: the caller has scaled the painter (so many device units a millimetre).
void paint(QPainter& painter, const Drawing& drawing, const Palette& palette);

/// A text as a sheet can hold it: control characters make an SVG invalid, and mean nothing on paper. A line's end is a
/// blank there.
QString shownText(const std::string& text);
/// How a text is set in the face of sheets: mm that it takes, and how much narrower than usual (1: not at all).
struct SetText {
    double width = 0, squeeze = 1;
};
SetText setText(const TextMark& text);

} // namespace lintel
