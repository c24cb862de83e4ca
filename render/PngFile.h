#pragma once
// A drawing as a picture, as the screen and the printer show it.

#include "core/base/Error.h"
#include "core/drawing/Drawing.h"

#include <QString>

#include <optional>

namespace lintel {

inline constexpr int pngDpi = 150; ///< fine enough for words of 2 mm on a screen

/// On white paper. An error where the sheet is too large for a picture, or the file cannot be written; what stood there
/// before is then as it was.
std::optional<Error> writePng(const Drawing& drawing, const QString& file, int dpi = pngDpi);

} // namespace lintel
