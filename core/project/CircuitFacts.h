#pragma once
// What can be entered of a circuit, each fact as a text that can be read and typed: one list for editing in the row,
// filling down, changing many at once, copying to a spreadsheet and back, and finding.

#include "core/base/Error.h"
#include "core/project/Project.h"

#include <functional>

namespace lintel {

struct CircuitFact {
    const char* key;                                     ///< a plain word: "breaker"
    const char* title;                                   ///< as a heading: "Breaker"
    const char* hint;                                    ///< what may be typed
    std::string (*read)(const Project&, const Circuit&); ///< empty: not entered
    /// Enters it; an error says why it cannot be, and nothing has changed.
    std::optional<Error> (*write)(Project&, CircuitId, const std::string& text);
};

/// In the order of a row: serves, load, breaker, poles, … The first few are columns of a block for a spreadsheet.
const std::vector<CircuitFact>& circuitFacts();
/// By key or title, whatever the case; null: there is none.
const CircuitFact* circuitFact(const std::string& word);

/// Gives a load this amount, in its unit or another. Given in horsepower it becomes a motor: of its kind, with the
/// power factor of one and on the lines of its board that a motor of it takes, unless others were chosen. An error says
/// why its circuit cannot, and nothing has changed.
std::optional<Error> enterAmount(Project& project, LoadId load, double amount, std::optional<LoadUnit> unit);

/// "2 / 1 / 1": how a load divides between the lines of its circuit, a share for each of its poles; nothing or "auto":
/// evenly.
std::optional<Error> enterSplit(Project& project, LoadId load, const std::string& text);
/// The same as text; empty: evenly.
std::string splitText(const Load& load);

/// Gives a circuit so many poles where it stands, others making room by the rule of planMove; else in the first free
/// place. The only load listed on it goes along where it has as many poles as the circuit had.
std::optional<Error> setPoles(Project& project, CircuitId circuit, int poles);

/// The next number of a tie, multiwire group, kept pair or bundle that no circuit of the board has.
int freeGroup(const Project& project, BoardId board, int Circuit::*group);
/// Ties the handles of these circuits and brings them together below the first; ones that are tied already are let
/// loose.
std::optional<Error> tieCircuits(Project& project, const std::vector<CircuitId>& circuits);

/// The loads that are listed on a circuit, and whether devices on plan hang on it too.
struct CircuitLoads {
    std::vector<LoadId> listed;
    int devices = 0;
};
CircuitLoads loadsOf(const Project& project, CircuitId circuit);

} // namespace lintel
