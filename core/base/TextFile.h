#pragma once
// Whole files, read and replaced. A file is never half written: a crash or a full disk leaves the old one or the new
// one.

#include "core/base/Error.h"

#include <cstdint>
#include <filesystem>
#include <functional>
#include <optional>
#include <string>

namespace lintel {

/// Reads a whole file, or says why not.
Outcome<std::string> readText(const std::filesystem::path& file);

/// Writes `text` in place of what `file` holds. Symbolic links are followed; mode, owner and group of the old file are
/// kept, and other names (hard links) of it go on naming it. What comes back as an Error has changed nothing.
std::optional<Error> writeTextAtomically(const std::string& text, const std::filesystem::path& file);

/// Lets `write` make a new file at the path it is given, then puts that in place of `file` as writeTextAtomically does.
/// `write` tells what went wrong, or nothing.
std::optional<Error> replaceFile(const std::filesystem::path& file,
                                 const std::function<std::optional<Error>(const std::filesystem::path&)>& write);

/// Moves a file, to another disk too. The old one goes only when the new one is safe on its disk; an Error leaves it as
/// it was.
std::optional<Error> moveFile(const std::filesystem::path& from, const std::filesystem::path& to);

/// Keeps what `file` holds beside it under the next free number ("job.old-7.lintel"), and removes all but the newest
/// `most`.
std::optional<Error> keepOldVersion(const std::filesystem::path& file, int most);

/// `name` as the name of a file in a folder: at most 255 bytes, whatever is added to it. What is cut is told apart by a
/// number made from the whole.
std::string fileNameWithin(const std::string& name, const std::string& ending);

/// A title as the name of a file: no signs that a file system or another system's cannot have, not too long, never
/// empty.
std::string safeFileName(const std::string& title, const std::string& ending);

/// A path as text that JSON and settings can hold, and back: names need not be UTF-8.
std::string textOfPath(const std::filesystem::path& path);
std::filesystem::path pathFromText(const std::string& text);

/// Tells one text from another; not a secret.
std::uint64_t fingerprintOf(const std::string& text);

} // namespace lintel
