#pragma once
// The file of an underlay, read: a DXF drawing, or the size of a picture.

#include "core/plan/Underlay.h"

#include <memory>

namespace lintel {

Outcome<std::shared_ptr<const UnderlayContent>> readUnderlay(const std::filesystem::path& file,
                                                             const KeepReading& keep = {});

} // namespace lintel
