#pragma once
// A drawing as a DXF file (R2000) for offices that go on in another drawing program: true text, layers by what a mark
// belongs to, pens, and a block with attributes for each symbol. Written by dxflib.

#include "core/base/Error.h"
#include "core/drawing/Drawing.h"

#include <filesystem>
#include <functional>

namespace lintel {

struct DxfOptions {
    double unit = 1;     ///< units of the file for a millimetre of the drawing
    bool inches = false; ///< the file's unit is an inch, else a millimetre
    /// What the attributes of a symbol's block say of the thing that it stands for: names in capitals, and values.
    std::function<std::vector<std::pair<std::string, std::string>>(Ref)> says{};
};

/// What has no place in a DXF file and was left out.
struct DxfLeftOut {
    int pictures = 0;
};

/// The whole drawing, its lower left corner at the origin, y upwards. White areas that only cover what lies beneath
/// them are left out: lines go on below symbols. Half a file is never left behind.
Outcome<DxfLeftOut> writeDxf(const Drawing& drawing, const std::filesystem::path& file, const DxfOptions& options = {});

/// "E-WIRING": as a layer of the file is called.
const char* dxfLayer(Layer layer);

} // namespace lintel
