#pragma once
// Small things that the painted widgets share.

#include "app/frame/Theme.h"

#include <QPainter>
#include <QTextDocument>

class QLabel;
class QLineEdit;

namespace lintel {

inline QString q(const std::string& s) { return QString::fromStdString(s); }

// What a person typed stands everywhere as typed: "R&D" and "<h1>" mean nothing to us.
/// As the text of a button or a menu's entry, where "&" would underline a letter.
inline QString plainButton(QString text) { return text.replace('&', "&&"); }
/// As a tip, where "<" would begin a tag.
inline constexpr const char* plainTipStart = "<p style='white-space:pre-wrap'>";
inline QString plainTip(const QString& text) {
    return Qt::mightBeRichText(text) ? plainTipStart + text.toHtmlEscaped() + "</p>" : text;
}
/// A label that holds tags of ours; whatever else stands in it is escaped.
void asRich(QLabel* label);

/// Text in a box on one line, cut with … where it does not fit.
void drawLine(QPainter& p, const QRectF& box, const QString& text, Qt::Alignment align, const QColor& colour,
              const QFont& font);
/// The icons of the rail and of the stages, drawn on a 24 × 24 grid; ours.
QIcon railIcon(const QString& name, const QColor& colour);

/// Marks an editor whose text was refused: it stays, with its reason, and is asked about again. `isRefused` tells
/// whether one is.
void markRefused(QLineEdit* editor, const QString& reason = {});
bool isRefused(const QWidget* editor);
/// Its text was taken, or replaced: no longer marked.
void markTaken(QLineEdit* editor);
/// Escape closes an editor that stands in a view, and nothing of what was typed is taken.
void closeOnEscape(QLineEdit* editor);
/// Takes an editor away, and gives its keys to what it stood in before: what is hidden with the keys hands them on, and
/// a scroll area follows them.
void putAway(QWidget* editor, QWidget* view);

} // namespace lintel
