#pragma once
// What a kind of load is called in the country of a rule book.

#include "core/rules/RuleBook.h"

namespace lintel {

/// As a heading, in the words of the book's practice: "Receptacles" or "Socket outlets".
inline std::string kindTitle(LoadKind kind, const RuleBook& book) {
    if (kind == LoadKind::Receptacle) return book.word(TradeWord::Receptacles);
    if (kind == LoadKind::Range) return book.word(TradeWord::Ranges);
    return titleOf(kind);
}

} // namespace lintel
