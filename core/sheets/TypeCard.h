#pragma once
// The cut sheet of a device type: its mark and symbol, its picture, what is known of it, and how many there are.

#include "core/sheets/Sheets.h"

namespace lintel {

inline constexpr double typeCardWidth = 120; ///< mm, usual

/// `width` in mm, 80 at least; as high as it comes. The type has to be there.
Drawing typeCard(const SheetInput& in, DeviceTypeId type, double width = typeCardWidth);

/// Types in the order of their marks, those without a mark last.
bool markBefore(const DeviceType& a, const DeviceType& b);
/// The types that have a picture or a description, by their marks, then by their names.
std::vector<DeviceTypeId> typesWithCutSheet(const Project& project);

} // namespace lintel
