#pragma once
// A drawing as SVG that other programs can work with: millimetres, white paper behind, a group for each layer, and in
// it a group for each thing that is drawn, whose id is the thing's in the project file ("B12"; the line that feeds it
// is "B12-feeder", what takes over "B12-alternate"). Texts are texts; each says how long it is, so that another face
// takes the same room.

#include "core/base/Error.h"
#include "core/drawing/Drawing.h"

#include <QString>

#include <optional>

namespace lintel {

/// An error where the file cannot be written; what stood there before is then as it was.
std::optional<Error> writeSvg(const Drawing& drawing, const QString& file);

} // namespace lintel
