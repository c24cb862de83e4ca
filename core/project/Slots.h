#pragma once
// Which phase a slot is on, and which slots a device takes.

#include "core/project/Project.h"

namespace lintel {

/// The line (0 A, 1 B, 2 C) that a slot of this board is on. Two columns: slot n is in row ceil(n/2); rows go A, B, C,
/// A, … (A, B, A, B on a single-phase board); odd left, even right. Ways: each way has L1, L2, L3.
int lineOfSlot(const Board& board, int slot);
/// The slots that a device of so many poles takes from its first slot on; empty when it does not fit on the board.
/// Two columns: every other slot, so that poles stand under one another. A three-pole device takes a whole way.
std::vector<int> slotsTaken(const Board& board, int slot, int poles);
/// The same without a list: the nth pole's slot, or 0.
int slotOfPole(const Board& board, int slot, int pole, int poles);

} // namespace lintel
