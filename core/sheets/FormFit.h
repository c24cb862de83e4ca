#pragma once
// A form on the sheet of a board: its paper, the width of its table, and how its texts fit.

#include "core/figures/ScheduleForms.h"

namespace lintel {

/// The sheets of a schedule: those of its table, the tally with the last of them, and then those of notes alone.
struct ScheduleSheets {
    std::size_t table = 1, all = 1;
};
ScheduleSheets scheduleSheets(const SheetInput& in, BoardId board);
ScheduleSheets wayScheduleSheets(const SheetInput& in, BoardId board); ///< of one that is written in rows

/// "Letter" or "A4"; "Legal" or "A3" for a board with more rows than that holds with its tally and notes.
const std::string& schedulePaper(const SheetInput& in, const Board& board);
/// mm over which the columns of a form stand on the schedule of a board: half of the sheet on a board of two columns.
double formWidth(const SheetInput& in, const Board& board);

/// How the texts of one column fit, over all boards that are drawn by a form.
struct FormFit {
    std::size_t cells = 0;  ///< that say something
    std::size_t narrow = 0; ///< of them, those too wide for the column even in two lines
    double widest = 0;      ///< mm that the widest asks for on one line
    double has = 0;         ///< mm that the narrowest of the columns gives
    CircuitId worst;        ///< whose text is the widest
};
FormFit fitOf(const SheetInput& in, const ScheduleForm& form, std::size_t column);

} // namespace lintel
