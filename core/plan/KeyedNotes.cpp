#include "core/plan/KeyedNotes.h"

#include "core/base/Limits.h"
#include "core/base/Parse.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace lintel {
namespace {

Error noText() { return {"keyed note", "a keyed note says something", "Type its text, or remove it."}; }

int nextNumber(const Project& p, LevelId level) {
    int highest = 0;
    for (const KeyedNote& n : p.keyedNotes)
        if (n.level == level) highest = std::max(highest, n.number);
    return highest + 1;
}
/// The number under which a floor says this; 0: it does not.
int numberOf(const Project& p, LevelId level, const std::string& text) {
    for (const KeyedNote& n : p.keyedNotes)
        if (n.level == level && n.text == text) return n.number;
    return 0;
}
/// The places of a floor with this number.
std::vector<KeyedNoteId> withNumber(const Project& p, LevelId level, int number) {
    std::vector<KeyedNoteId> all;
    for (const KeyedNote& n : p.keyedNotes)
        if (n.level == level && n.number == number) all.push_back(n.id);
    return all;
}

} // namespace

bool standsOn(const KeyedNote& note, NoteOn plan) {
    return plan == NoteOn::All || note.on == NoteOn::All || note.on == plan;
}

std::vector<NumberedNote> keyedNotes(const Project& p, LevelId level, NoteOn plan) {
    // By number and text: in a file that was written by hand, one number may say two things. Neither is dropped.
    std::map<std::pair<int, std::string>, std::vector<KeyedNoteId>> found;
    for (const KeyedNote& n : p.keyedNotes)
        if (n.level == level && standsOn(n, plan)) found[{n.number, n.text}].push_back(n.id);
    std::vector<NumberedNote> all;
    for (auto& [key, at] : found) all.push_back({key.first, key.second, std::move(at)});
    return all;
}

Outcome<KeyedNoteId> addKeyedNote(Project& p, KeyedNote note) {
    note.text = trimmed(note.text);
    if (note.text.empty()) return noText();
    const int same = numberOf(p, note.level, note.text);
    note.number = same ? same : nextNumber(p, note.level);
    return p.keyedNotes.add(std::move(note));
}

std::optional<Error> setNoteText(Project& p, KeyedNoteId id, const std::string& typed) {
    const KeyedNote* note = p.keyedNotes.find(id);
    const std::string text = trimmed(typed);
    if (!note) return std::nullopt;
    if (text.empty()) return noText();
    if (text == note->text) return std::nullopt;
    const int other = numberOf(p, note->level, text);
    for (KeyedNoteId each : withNumber(p, note->level, note->number)) {
        KeyedNote* n = p.keyedNotes.change(each);
        n->text = text;
        if (other) n->number = other;
    }
    return std::nullopt;
}

std::optional<Error> setNoteNumber(Project& p, KeyedNoteId id, int number) {
    const KeyedNote* note = p.keyedNotes.find(id);
    if (!note || note->number == number) return std::nullopt;
    if (number < 1 || number > limits::noteNumber)
        return Error{"keyed note", fmt::format("{} is no number of a keyed note", number),
                     fmt::format("Type 1 to {}.", limits::noteNumber)};
    if (const auto there = withNumber(p, note->level, number); !there.empty())
        return Error{"keyed note",
                     fmt::format("note {} of this floor says: {}", number, p.keyedNotes[there.front()].text),
                     "Give that one another number first."};
    for (KeyedNoteId each : withNumber(p, note->level, note->number)) p.keyedNotes.change(each)->number = number;
    return std::nullopt;
}

} // namespace lintel
