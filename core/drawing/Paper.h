#pragma once
// Sheets of paper by their trade names.

#include <string>

namespace lintel {

/// A sheet by its trade name, upright for schedules and on its side for plans; mm.
struct PaperSize {
    double width, height;
};
bool isPaper(const std::string& name);
/// Letter where there is none of that name.
PaperSize paperSize(const std::string& name);

} // namespace lintel
