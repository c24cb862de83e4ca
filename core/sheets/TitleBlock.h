#pragma once
// Border and title block of a large sheet: a strip at its right that says, from its foot upwards, the sheet's number
// and place in the set, people and dates, the sheet, the client, the project, its status and revisions; above them what
// the sheet itself puts there (legend, notes), and at the top the company. A sheet as wide as its table has the strip
// along its foot: company, revisions, project and client, the sheet, people, number and status. All lengths in mm.

#include "core/sheets/Sheets.h"

namespace lintel {

struct SheetFrame {
    double left, top, right, bottom;           ///< what belongs to the drawing
    double textLeft, textRight;                ///< of the strip
    double freeTop, freeBottom;                ///< part of the strip that belongs to the sheet
    double statusLeft, statusRight, statusTop; ///< of what tells why nobody may build from the sheet yet
    Point count;                               ///< left end of the base line of "Sheet 3 of 22"
};

/// Where everything stands on a sheet of this size. Nothing is drawn.
SheetFrame sheetFrame(const Drawing& sheet, const SheetInput& in);
/// Draws border and strip around what is there. `scale`: "1/8″ = 1′ 0″", "None".
SheetFrame titleBlock(Drawing& sheet, const SheetInput& in, const std::string& scale);
/// The same for a strip along the foot of the sheet; nothing in it belongs to the sheet.
SheetFrame footFrame(const Drawing& sheet);
SheetFrame footBlock(Drawing& sheet, const SheetInput& in, const std::string& scale);
/// The company's logo, as large as so much room holds it.
PictureMark logoMark(const SheetInput& in, Point at, double width, double height);
/// A view's name below it, at the left: "1  One-line diagram", with what is to be said of it beneath.
void viewTitle(Drawing& sheet, const SheetFrame& frame, const std::string& title, const std::string& about);
/// In the status box, in red: why nobody may build from the sheet yet.
void tellStatus(Drawing& sheet, const SheetInput& in, const std::string& words);
/// "Sheet 3 of 22": in the strip where there is one, else at the foot.
void tellCount(Drawing& sheet, const SheetInput& in, std::size_t place, std::size_t all);
/// What the sizes on a sheet rest on: "NEC 2023 · branch copper, feeders copper, 90 °C insulation, 30 °C ambient".
std::string basisWords(const SheetInput& in);

} // namespace lintel
