#pragma once
// The sections of a board as one line of words, for typing and reading.

#include "core/base/Error.h"
#include "core/project/Project.h"

namespace lintel {

/// "Section A 1–6 63 A 30 mA; Section B 7–12 metered": from and to are ways on a board of ways, slots elsewhere. Empty:
/// none.
std::string sectionsText(const Project& project, BoardId board);
/// The reverse: replaces the board's sections. An error says which part cannot be read, and nothing changes.
std::optional<Error> setSections(Project& project, BoardId board, const std::string& text);

} // namespace lintel
