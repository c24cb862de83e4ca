#pragma once
// What a kind of load is called in the country of a rule book.

#include "core/rules/RuleBook.h"

namespace lintel {

/// As a heading, in the words of the book's practice: "Receptacles" or "Socket outlets".
inline std::string kindTitle(LoadKind kind, const RuleBook& book) {
    if (book.metric() && kind == LoadKind::Receptacle) return "Socket outlets";
    if (book.metric() && kind == LoadKind::Range) return "Cooking";
    return titleOf(kind);
}

} // namespace lintel
