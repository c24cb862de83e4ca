#pragma once
// Descriptions of circuits made from what hangs on them, by a pattern. A description that was typed is never
// overwritten.
//
// Places of a pattern: {what} the kind of thing ("Lighting", "Receptacles", a tag or the name of a load), {rooms} the
// rooms by number and name, {numbers} their numbers alone with runs drawn together ("101–104, 107"), {tags}, {count} of
// the things, {load} the load kind, {board}. A place that has nothing to say takes the sign before it along.

#include "core/project/Project.h"

namespace lintel {

inline constexpr const char* usualNamePattern = "{what}, {rooms}";

/// What the pattern of the basis makes of these devices and listed loads; empty: nothing hangs there.
std::string patternName(const Project& project, const std::vector<const Device*>& devices,
                        const std::vector<const Load*>& loads, BoardId board);

struct Naming {
    std::vector<std::pair<CircuitId, std::string>> changes; ///< circuits that get another name, and which
    int kept = 0;                                           ///< whose name was typed and stays
};
/// For the circuits of a board, or of all of them.
Naming planNaming(const Project& project, BoardId board = {});
void applyNaming(Project& project, const Naming& naming);

/// "101–104, 107" of numbers of rooms; those that do not end in digits stand as they are.
std::string roomRuns(std::vector<std::string> numbers);

} // namespace lintel
