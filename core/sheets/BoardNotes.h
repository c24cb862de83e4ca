#pragma once
// What a builder has to know of a board beyond the figures of its circuits. The schedule and the diagram of a board
// give the same notes under the same numbers.

#include "core/figures/SheetInput.h"

#include <map>
#include <string>
#include <vector>

namespace lintel {

/// A note, and the circuits that it speaks of; none: it is about the whole board.
struct BoardNote {
    std::string text;
    std::vector<CircuitId> of;
};
/// Those of a board, in the order of their numbers, from 1.
std::vector<BoardNote> boardNotes(const SheetInput& in, const Board& board);
/// "1,3": the numbers of the notes that speak of a circuit.
std::map<CircuitId, std::string> numbersOfNotes(const std::vector<BoardNote>& notes);

} // namespace lintel
