#include "core/sheets/Sheets.h"

#include "core/sheets/TitleBlock.h"

#include <map>

namespace lintel {

PaperSize paperSize(const std::string& name) {
    static const std::map<std::string, PaperSize> sizes{
        {"Letter", {215.9, 279.4}},   {"Legal", {215.9, 355.6}},  {"Tabloid", {431.8, 279.4}},
        {"ARCH C", {609.6, 457.2}},   {"ARCH D", {914.4, 609.6}}, {"ARCH E1", {1066.8, 762}},
        {"A5", {148, 210}},           {"A4", {210, 297}},         {"A3", {297, 420}},
        {"A3 landscape", {420, 297}}, {"A2", {594, 420}},         {"A1", {841, 594}},
        {"A0", {1189, 841}}};
    const auto it = sizes.find(name);
    return it == sizes.end() ? sizes.at("Letter") : it->second;
}

const char* schedulePaper(const SheetInput& in, const Board& b) {
    if (in.book.metric()) return wayScheduleRows(in, b) > 44 ? "A3" : "A4";
    return (b.form == BoardForm::TwoColumn ? (b.slots + 1) / 2 : b.slots) > 32 ? "Legal" : "Letter";
}

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
