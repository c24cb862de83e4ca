#pragma once
// What a typed length or size of a run does: said once, for the facts, the board's rows, the table of runs, the
// clipboard and lists.

#include "core/base/Error.h"
#include "core/project/Project.h"

#include <optional>
#include <string>

namespace lintel {

/// Nothing, "auto" or "automatic": the program chooses, measures or sizes.
bool isAutomatic(const std::string& text);

/// "120 ft", "36 m", "40" in the units of the project: the run has this length. Automatic: it is measured on the plan.
/// An error says what may be typed, and the run is as it was.
std::optional<Error> enterRunLength(Run& run, const std::string& text, UnitSystem units);

/// "12", "#3/0 AWG", "2 × 250 kcmil", "2.5 mm²": the run is held at this size, and at so many sets where they are said.
/// Automatic: it is sized. Whether the rule book has the size is judged with all the rest.
std::optional<Error> enterRunSize(Run& run, const std::string& text);

/// The held size as it is typed: "2 × 250"; empty: none is held.
std::string heldSizeText(const Run& run);

} // namespace lintel
