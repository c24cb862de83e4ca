#pragma once
// Two people's work on one project put together: three states, by thing and field. What only one of them changed is
// taken; what both changed in different ways is a conflict, told by name and left for a person.

#include "core/project/Project.h"

#include <string>
#include <vector>

namespace lintel {

/// Whose value: what it was before both changed it, ours, or theirs.
enum class MergeSide { Base, Ours, Theirs };

struct MergeConflict {
    Ref thing;                      ///< nothing: the basis
    std::string name;               ///< by which a person knows it
    std::string field;              ///< as the file names it; empty: the thing as a whole
    std::string base, ours, theirs; ///< in words; empty: as a new thing has it
    std::string what;               ///< what was done about it: "ours is kept"
    bool open = false;              ///< somebody can choose a side (core/compare/MergeDecision.h)
    /// What each side has, as the file writes it; empty: as a new thing has it, or not there at all. Where `open`.
    std::string baseValue{}, ourValue{}, theirValue{};
    /// The keys that lead to the field, as a key may hold a "/" itself.
    std::vector<std::string> path{};
    const std::string& valueOf(MergeSide side) const {
        return side == MergeSide::Base ? baseValue : side == MergeSide::Ours ? ourValue : theirValue;
    }

    /// "LP-1-17, held breaker: 25 here, 30 there (20 before); ours is kept"
    std::string text() const;
};

struct Merged {
    Project project; ///< valid, with ours where there is a conflict
    std::vector<MergeConflict> conflicts;
    std::vector<std::string> notes; ///< what was done that nobody need decide: "6 things of theirs have new ids"
};

/// Never loses a change that does not conflict; the same three always give the same. Things that both added under the
/// same id are two things: theirs gets a new id. What one removed and the other changed or still uses stays, as a
/// conflict. Circuits that come to stand in the same place of a board: theirs goes to the next free place.
Merged mergeProjects(const Project& base, const Project& ours, const Project& theirs);

} // namespace lintel
