#pragma once
// Keyed notes of plans: a number in a hexagon where something is to be said, its text beside the plan. A note keeps its
// number when others come and go; what is said at several places has one number, and stands beside the plan once.

#include "core/base/Error.h"
#include "core/project/Project.h"

namespace lintel {

/// A note with all places of a floor that it points at.
struct NumberedNote {
    int number;
    std::string text;
    std::vector<KeyedNoteId> at;
};
/// Those of a floor by number, on the plan of one system, or on all (`NoteOn::All`).
std::vector<NumberedNote> keyedNotes(const Project& project, LevelId level, NoteOn plan = NoteOn::All);
/// Whether it stands on that plan of its floor.
bool standsOn(const KeyedNote& note, NoteOn plan);

/// Sets one down: with the number of those of its floor that say the same, or the next one. Refused without a text.
Outcome<KeyedNoteId> addKeyedNote(Project& project, KeyedNote note);
/// It says this from now on, and so do all of its floor that bear its number. What another number says already is that
/// number's then. Refused without a text.
std::optional<Error> setNoteText(Project& project, KeyedNoteId note, const std::string& text);
/// All of its floor that bear its number bear this one. Refused where something else has it, or it cannot be one.
std::optional<Error> setNoteNumber(Project& project, KeyedNoteId note, int number);

} // namespace lintel
