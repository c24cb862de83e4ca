#pragma once
// The card that hangs in the door of a board: what each place serves, to be read at arm's length.

#include "core/sheets/Sheets.h"

namespace lintel {

/// On Letter or A5, upright; more cards where one does not hold all places. None for what has no circuits.
std::vector<Drawing> doorCards(const SheetInput& in, BoardId board);
/// The cards of all boards, by name.
std::vector<Drawing> allDoorCards(const SheetInput& in);

} // namespace lintel
