#pragma once
// A picture on a sheet, as large as a box holds it.

#include "core/base/TextFile.h"
#include "core/plan/Underlay.h"
#include "core/sheets/Sheets.h"

namespace lintel {

/// `file`: by its path from the project's; `at`: the upper left corner of the box, mm.
inline PictureMark pictureIn(const SheetInput& in, const std::string& file, Point at, double width, double height) {
    PictureMark m;
    m.file = textOfPath(besideProject(file, in.projectFile));
    m.perPixel = 0;
    m.at = m.least = at;
    m.most = at + Point{width, height};
    return m;
}

} // namespace lintel
