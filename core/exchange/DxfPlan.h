#pragma once
// A floor as a DXF file in the units of the building, to be laid over the architect's; and what blocks say on it.

#include "core/exchange/DxfWriter.h"
#include "core/sheets/Sheets.h"

namespace lintel {

/// For sheets, in mm of the paper: a device's block tells its type, circuit, room, tag and load.
DxfOptions sheetDxf(const SheetInput& in);
/// In inches for an imperial project, else in mm, one to one; the lower left corner of the drawing at the origin.
Outcome<DxfLeftOut> writePlanDxf(const SheetInput& in, LevelId level, const std::filesystem::path& file);
/// Floors on which something is drawn, each with a safe name for its file, without an ending.
std::vector<std::pair<LevelId, std::string>> planFiles(const Project& project);

} // namespace lintel
