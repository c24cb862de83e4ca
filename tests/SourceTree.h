#pragma once
// Where the sources stand, for tests that read them or run a script that lies beside them. Never by __FILE__: it is
// relative.

#include <filesystem>

namespace lintel {
std::filesystem::path sourceTree();
}
