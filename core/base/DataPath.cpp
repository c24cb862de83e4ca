#include "core/base/DataPath.h"

#include <cstdlib>

namespace lintel {

namespace fs = std::filesystem;

fs::path dataFolder() {
    if (const char* given = std::getenv("LINTEL_DATA")) return given;
    std::error_code ec;
    const fs::path self = fs::read_symlink("/proc/self/exe", ec);
    if (!ec)
        if (const fs::path beside = self.parent_path().parent_path() / "share" / "lintel";
            fs::exists(beside / "rulebooks", ec))
            return beside;
    return LINTEL_SOURCE_DATA;
}

} // namespace lintel
