#pragma once
// The look: warm paper, graphite ink, thin rules, one accent; light and dark. All widgets take colours and type from
// here.

#include "render/Painter.h"

#include <QColor>
#include <QFont>
#include <QString>

namespace lintel {

struct Theme {
    QColor paper, surface, rule, ink, quiet, accent, accentWash, stop, check, note, sunk;
    bool dark = false;
    /// A conductor's colour, as phaseInk() names it, on the screen.
    QColor phase(Ink conductor) const;
    /// Colours of a Drawing on the screen in this theme; sheets that show as they print use paperPalette().
    Palette palette() const;
    QString styleSheet() const;
};

const Theme& theme();
void setDark(bool dark);
/// Inter with tabular figures; `scale` 1 is the base size of the interface (10 pt).
QFont uiFont(double scale = 1, bool bold = false);

} // namespace lintel
