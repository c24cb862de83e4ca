#include "core/sheets/Sheets.h"

#include "core/sheets/TitleBlock.h"

#include <map>

namespace lintel {

void footStrip(Drawing& d, const SheetInput& in, double m) {
    const double y = d.height - m - 4;
    d.line({m, y}, {d.width - m, y}, 0.35);
    d.text({m, y + 3.6}, basisWords(in), 2.3, Align::Left, false, Ink::Quiet, (d.width - 2 * m) * 0.68);
    d.text({d.width - m, y + 3.6}, (d.number.empty() ? "" : "Sheet " + d.number + " · ") + d.title, 2.3, Align::Right,
           false, Ink::Quiet);
}

bool SheetEntry::shows(SheetKind what, Ref of) const {
    return (kind == what && about == of) || std::any_of(views.begin(), views.end(), [&](const ShownThing& v) {
               return v.kind == what && v.about == of;
           });
}

} // namespace lintel
