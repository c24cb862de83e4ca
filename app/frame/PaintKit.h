#pragma once
// Small things that the painted widgets share.

#include "app/frame/Theme.h"

#include <QPainter>

class QLineEdit;

namespace lintel {

inline QString q(const std::string& s) { return QString::fromStdString(s); }

/// Text in a box on one line, cut with … where it does not fit.
void drawLine(QPainter& p, const QRectF& box, const QString& text, Qt::Alignment align, const QColor& colour, const QFont& font);
/// The icons of the rail and of the stages, drawn on a 24 × 24 grid; ours.
QIcon railIcon(const QString& name, const QColor& colour);

/// Escape closes an editor that stands in a view, and nothing of what was typed is taken.
void closeOnEscape(QLineEdit* editor);

} // namespace lintel
