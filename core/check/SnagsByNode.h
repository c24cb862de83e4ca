#pragma once
// How many snags there are at each board, transformer and source: about it, or about what is in it.

#include "core/check/Check.h"
#include "core/sheets/RiserOverlay.h"

namespace lintel {

/// The board, transformer or source that a thing is, or stands in; nothing: it belongs to none.
Ref nodeOf(const Project& project, Ref about);
/// By node; under no thing, those that belong to none of them (rooms, types, the basis).
std::map<Ref, SnagCount> countSnags(const Project& project, const std::vector<Snag>& snags);

} // namespace lintel
