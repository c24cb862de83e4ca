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
/// One by its key; without a label and a value for no key. A key that there is not shows as "?".
HeadFact headFact(const SheetInput& in, const Board& board, const std::string& key);
/// The facts of the title strip of its schedule as the form has them, three in a row; no key leaves its place free.
std::vector<HeadFact> scheduleHead(const SheetInput& in, const Board& board, const ScheduleForm& form);

/// A fact that a title strip can show, under its key; "own Tag" is the designer's own column "Tag" of the board.
struct BoardFigure {
    const char* key;
    const char* about;
    const char* label;
    std::string (*text)(const SheetInput&, const Board&);
    const char* metricLabel = nullptr; ///< where metric practice shows more under it
};
/// What stands over it by itself.
std::string labelOf(const BoardFigure& figure, const RuleBook& book);
/// All of them; the first six are the usual ones.
std::span<const BoardFigure> boardFigures();
/// Null: there is none of that key.
const BoardFigure* boardFigure(const std::string& key);
/// Whether a title strip can show it.
bool knownBoardFact(const std::string& key);

} // namespace lintel
