#pragma once
// What a result rests on beside the rule book and what is drawn: values that nobody gave and the program took, values
// given in place of what would be worked out, what a hand holds, and the project's own values in place of the book's.
// One list for who checks.

#include "core/check/Check.h"
#include "core/sheets/Sheets.h"

namespace lintel {

/// Assumed: nobody said; a usual value was taken. Given: stands in place of a calculation. Held: set by hand, never
/// changes by itself. Own: in place of the rule book's.
enum class AssumptionKind { Assumed, Given, Held, Own };
template <> struct EnumText<AssumptionKind> {
    static constexpr std::pair<AssumptionKind, const char*> words[] = {{AssumptionKind::Assumed, "assumed"},
                                                                       {AssumptionKind::Given, "given"},
                                                                       {AssumptionKind::Held, "held"},
                                                                       {AssumptionKind::Own, "own value"}};
};
/// As a heading.
constexpr const char* titleOf(AssumptionKind k) {
    constexpr const char* titles[] = {"Assumed", "Given", "Held", "Own value"};
    return titles[int(k)];
}
/// "Nobody said; the program took a usual value".
const char* meaningOf(AssumptionKind kind);

struct Assumption {
    AssumptionKind kind = AssumptionKind::Assumed;
    std::string mark;                      ///< "A1", "H3": within this list
    Ref about;                             ///< nothing: the whole project
    std::string what, where;               ///< "Breaker", "LP-3-2 SP-2"
    std::string why;                       ///< as recorded; empty: no reason is given
    std::string entered;                   ///< the value that counts
    std::string otherwise;                 ///< what it would be without it, where that can be told
    std::string key;                       ///< the same for as long as it is about the same thing
    std::string setBy;                     ///< who set it, as recorded; empty: nobody says
    std::string seenBy, seenOn, seenValue; ///< who looked at it, when, and what it then counted as; empty: nobody did
    bool seen() const { return !seenBy.empty() && seenValue == entered; } ///< and it is as it was
    bool hides = false; ///< without it the result would be worse, or a rule would be broken
};

/// All of them, by kind and then in the order of the project.
std::vector<Assumption> assumptionsOf(const CheckInput& in);

/// "seen by AB, 2026-11-29", or that it has changed since; empty: nobody has seen it.
std::string seenWords(const Assumption& assumption);
/// Records who set assumptions, or takes that back with an empty name.
void setAssumptionsBy(Project& project, const std::vector<Assumption>& which, const std::string& who);
/// Records that somebody has seen them on a day, as they are; with an empty name that nobody has.
void seeAssumptions(Project& project, const std::vector<Assumption>& which, const std::string& who,
                    const std::string& day);

/// kA at a board as worked out from what feeds it, whatever is given there; nothing where nothing feeds it.
std::optional<double> workedOutKA(const CheckInput& in, const Board& board);

/// Runs with a load, and feeders, whose length nobody entered or measured, whatever the basis counts it as.
int unknownLengths(const CheckInput& in);

/// The list as sheets, each with a box to tick, from this number on.
std::vector<Drawing> assumptionSheets(const SheetInput& in, int first = 701);
/// All that is issued: the sheets of the project, and the list of assumptions after them. While stops are open or
/// lengths not known, each sheet says in its lower margin that nobody may build from it. What `in` refers to must
/// outlive it.
std::vector<SheetEntry> issueSet(const SheetInput& in);
/// The list for a terminal, and as JSON.
std::string assumptionsText(const CheckInput& in);
nlohmann::ordered_json assumptionsJson(const CheckInput& in);

} // namespace lintel
