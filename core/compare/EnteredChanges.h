#pragma once
// What somebody entered between two states of a project, thing by thing and field by field, as values and in words.

#include "core/project/Project.h"

#include <string>
#include <vector>

namespace lintel {

class RuleBook;

struct FieldChange {
    std::string field;         ///< as the file names it: "heldBreaker"
    std::string before, after; ///< in words, with the unit; empty: there was, or is, none
};

struct EnteredChange {
    enum class What { Added, Removed, Changed };
    What what = What::Changed;
    Ref thing;         ///< nothing: the basis
    std::string name;  ///< by which a person knows it, after the change where it is still there
    std::string group; ///< the board, or "Basis", "Plan", "Loads without a circuit", under which it is told
    std::vector<FieldChange> fields; ///< of a changed thing

    /// "LP-1-17: held breaker 20 → 25", "LP-1-19 Sump pump: added".
    std::string text() const;
};

/// Every thing that differs, once: things are the same by their ids. In the order of the groups: the basis, boards by
/// name, the plan. Sizes are told as the books write them, where books are given.
std::vector<EnteredChange> enteredChanges(const Project& before, const Project& after,
                                          const RuleBook* bookBefore = nullptr, const RuleBook* bookAfter = nullptr);
} // namespace lintel
