#pragma once
// Fields of the file as people call them, and their values with their units: where two states of a project are told
// apart, and where two people's work meets. What a number is stands here once, by the kind of thing and its field.

#include "core/project/Project.h"

#include <nlohmann/json_fwd.hpp>

#include <string>

namespace lintel {

class RuleBook;

/// In whose words a value is told: things by their names there, lengths in its units, sizes as its book writes them.
struct ValueTeller {
    const Project& project;
    const RuleBook* book = nullptr; ///< null: sizes as the file has them

    /// A value of a field of `of` (nothing: the basis): "25 A", "120 ft", "LP-1", "yes"; empty where there is none. The
    /// unit of a load is the one that `of` has in this project; else only the kind of `of` counts. A field within a
    /// field ("smallestByUse/lighting") is told as the field is.
    std::string words(Ref of, const std::string& field, const nlohmann::ordered_json& value) const;
};

/// "heldBreaker" of a circuit is "breaker held"; one that nobody named is told by its parts, "ownThing" as "own thing".
std::string fieldWords(Ref of, const std::string& field);
/// Whether the table says what this field is; every field that holds a number has to be there.
bool fieldIsNamed(Ref of, const std::string& field);

} // namespace lintel
