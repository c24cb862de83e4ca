#pragma once
// What every fuzz target does with a project that came of its input: all that a person could have done with it.

#include "core/project/Project.h"

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <string>

namespace lintel::fuzz {

/// Solution, snags, remedies, levelling, workings, all sheets, and out and in again. Ends the program with a message
/// where something does not hold: a project that does not open again, a result that is not a number, a remedy that
/// breaks the project.
void goOn(const Project& project);

/// The input as text.
inline std::string textOf(const std::uint8_t* data, std::size_t size) {
    return {reinterpret_cast<const char*>(data), size};
}
/// The input in a file with this ending, in memory where there is such a folder. The same file each time.
std::filesystem::path fileOf(const std::uint8_t* data, std::size_t size, const char* ending);
/// Ends the program: what should hold does not.
[[noreturn]] void broken(const std::string& what);

} // namespace lintel::fuzz
