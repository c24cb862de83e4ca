#pragma once
// Where the data that ships with Lintel is: rule books, starters, demos, catalogues, words.

#include <filesystem>

namespace lintel {

/// $LINTEL_DATA, else share/lintel beside the program's folder, else the source tree it was built from.
std::filesystem::path dataFolder();

} // namespace lintel
