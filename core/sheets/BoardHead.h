#pragma once
// What a sheet says of a board at its head: on its schedule, where the form chooses, and on its diagram.

#include "core/sheets/Sheets.h"

#include <span>

namespace lintel {

struct HeadFact {
    std::string label, value;
};
/// Voltage, bus and main, rating and fault level, what feeds it, its feeder, where it stands: six, in this order.
std::vector<HeadFact> boardHead(const SheetInput& in, const Board& board);
/// The facts of the title strip of its schedule as the form has them, three in a row; one without a label and a value
/// leaves its place free. A key that there is not shows as "?".
std::vector<HeadFact> scheduleHead(const SheetInput& in, const Board& board, const ScheduleForm& form);

/// A fact that a title strip can show, under its key; "own Tag" is the designer's own column "Tag" of the board.
struct BoardFigure {
    const char* key;
    const char* about;
    std::string (*label)(const RuleBook&);
    std::string (*text)(const SheetInput&, const Board&);
};
/// All of them; the first six are the usual ones.
std::span<const BoardFigure> boardFigures();
/// Null: there is none of that key.
const BoardFigure* boardFigure(const std::string& key);
/// Whether a title strip can show it.
bool knownBoardFact(const std::string& key);

} // namespace lintel
