#pragma once
// What a sheet says of a board at its head: on its schedule and on its diagram alike.

#include "core/sheets/Sheets.h"

namespace lintel {

struct HeadFact {
    std::string label, value;
};
/// Voltage, bus and main, rating and fault level, what feeds it, its feeder, where it stands: six, in this order.
std::vector<HeadFact> boardHead(const SheetInput& in, const Board& board);

} // namespace lintel
