#include "tests/SourceTree.h"

namespace lintel {
std::filesystem::path sourceTree() { return std::filesystem::path(LINTEL_SOURCE_DATA).parent_path(); }
} // namespace lintel
