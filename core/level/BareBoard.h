#pragma once
// A board by itself, as JSON: slots, poles, VA, pins. For levelling what another program holds, without a project.

#include "core/base/Error.h"
#include "core/level/Level.h"

namespace lintel {

/// {"slots": 42, "system": "208Y/120", "form": "two columns", "reserved": [41], "leftKinds": ["lighting"], "circuits":
/// [{"slot": 1, "poles": 1, "va": 1200, "name": "…", "kind": "lighting", "pinned": true, "tie": 1, "multiwire": 2,
/// "kept": 3}]}; everything but `circuits` may be left out, and of a circuit everything but `slot` and `va`. The board
/// is the only one of the project that comes back. An error names the field.
Outcome<Project> bareBoard(const std::string& json);

/// The choices as JSON: as it stands, one entry for each number of moves, the bound. `moves`: that one choice alone.
nlohmann::ordered_json levelJson(const Project& project, BoardId board, const LevelChoices& choices,
                                 std::optional<int> moves = {});
std::string levelText(const Project& project, BoardId board, const LevelChoices& choices,
                      std::optional<int> moves = {});
/// The choice for so many moves, or the best where it is not said.
const Arrangement& choiceFor(const LevelChoices& choices, std::optional<int> moves);

} // namespace lintel
