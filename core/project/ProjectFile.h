#pragma once
// The .lintel file: one JSON text, versioned, one thing a line so that a diff reads well. See docs/file-format.md.

#include "core/base/TextFile.h"
#include "core/project/Project.h"

#include <filesystem>

namespace lintel {

inline constexpr int fileVersion = 1;

/// The whole project as the text of a file: the same project always gives the same bytes.
std::string writeProject(const Project& project);
/// Reads a file's text. An Error names the line (broken JSON) or the field (a wrong value); `name` begins its `where`.
Outcome<Project> readProject(const std::string& text, const std::string& name);

/// One thing as JSON and back, as the file and the journal hold it. Fields equal to a new thing's are left out.
template <class T> nlohmann::ordered_json toJson(const T& thing);
/// With the fields that are as a new thing has them, too.
template <class T> nlohmann::ordered_json wholeJson(const T& thing);
template <class T> Outcome<T> fromJson(const nlohmann::json& json, const std::string& where);

Outcome<Project> loadProject(const std::filesystem::path& file);
/// What a file of the project would hold, or why it could not be opened again.
Outcome<std::string> textToSave(const Project& project);
/// A crash leaves the old file or the new one, whole (writeTextAtomically). A project that could not be opened again is
/// refused.
std::optional<Error> saveProject(const Project& project, const std::filesystem::path& file);

} // namespace lintel
