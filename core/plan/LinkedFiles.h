#pragma once
// The files that a project shows and does not hold: drawings below its plans, the company's logo, pictures on sheets
// and of device types. They are named by their path from the project's file.

#include "core/project/Project.h"

#include <filesystem>
#include <functional>

namespace lintel {

struct LinkedFile {
    std::string name;                         ///< as the project has it
    std::function<std::string&(Project&)> in; ///< where it has it
    bool relative() const;                    ///< to the project's file
};
std::vector<LinkedFile> linkedFiles(const Project& project);

/// Names them anew for a project that moves from one file to another: they stay where they are. `to` empty: it has no
/// file yet.
void relinkFiles(Project& project, const std::filesystem::path& from, const std::filesystem::path& to);

} // namespace lintel
