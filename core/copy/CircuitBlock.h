#pragma once
// Circuits taken out of a project with all that goes with them, to be put into the same or another one: copying,
// duplicating, copies of boards. And the same as a block of tab-separated text, which spreadsheets take and give.

#include "core/base/Error.h"
#include "core/project/Project.h"

namespace lintel {

/// A circuit by itself: its run, and its loads with what stands on the plan folded into listed loads, as a device
/// stands in one place only. A run that is measured on the plan is given the length it has there.
struct TakenCircuit {
    Circuit circuit;
    std::optional<Run> run;
    std::vector<Load> loads;
    bool feeder = false; ///< fed a board or transformer, which the copy does not
};
std::vector<TakenCircuit> takeCircuits(const Project& project, const std::vector<CircuitId>& circuits);

/// Where the copies stand. Groups (ties, multiwire, kept, bundles) get numbers of their own on the board.
struct PutPlan {
    std::vector<int> slots;     ///< by taken circuit; 0: there is no place for it
    int without = 0;            ///< how many have none
    std::optional<Error> error; ///< it cannot be done at all: more poles than the board has lines
};
/// From `slot` on, one below another in its column, over free places only; then anywhere that is free.
PutPlan planPut(const Project& project, BoardId board, int slot, const std::vector<TakenCircuit>& taken);
/// Former feeders become spares. Gives the new circuits.
std::vector<CircuitId> putCircuits(Project& project, BoardId board, const std::vector<TakenCircuit>& taken,
                                   const std::vector<int>& slots);

/// For the clipboard: as JSON that another window of the program reads, and back.
std::string writeCircuits(const std::vector<TakenCircuit>& taken);
Outcome<std::vector<TakenCircuit>> readCircuits(const std::string& text);

/// For spreadsheets: a heading, then a line a circuit: its place and the facts that go into a block.
std::string blockText(const Project& project, const std::vector<CircuitId>& circuits);

/// What pasting a block of text comes to. With a heading of facts its columns are those; otherwise the first column
/// goes to the fact `from`, the next to the one after it, and so on. Rows go to circuits from `slot` down; free places
/// get new circuits.
struct BlockPaste {
    int rows = 0, circuits = 0, added = 0;
    std::vector<std::string> problems; ///< cells that could not be entered, by row and column; they are left out
    std::vector<CircuitId> touched;
};
BlockPaste pasteBlock(Project& project, BoardId board, int slot, const std::string& from, const std::string& text);

/// A fact of the first circuit entered in all the others; problems name those that refuse.
std::vector<std::string> fillDown(Project& project, const std::vector<CircuitId>& circuits, const std::string& fact);

/// Cells of tab-separated text, quotes as spreadsheets write them.
std::vector<std::vector<std::string>> cellsOf(const std::string& text);
/// The other way round.
std::string cellsText(const std::vector<std::vector<std::string>>& rows);

} // namespace lintel
