#pragma once
// Which form the schedule of a board has, and where its columns stand. Forms are things of the project; where it has
// none for a kind of board, the set that ships for the practice of its rule book serves (data/forms).

#include "core/figures/Wording.h"

namespace lintel {

/// The forms that ship for the practice of a book, one usual for each kind of board and some more; without ids.
const std::vector<ScheduleForm>& shippedForms(const RuleBook& book);
/// The form of a board: its own, the usual one of the project for its kind, or the shipped one.
const ScheduleForm& formOf(const SheetInput& in, const Board& board);
/// Of a project alone.
const ScheduleForm& formOf(const Project& project, const RuleBook& book, const Board& board);
/// All that a board can choose from: those of the project for its kind, and the shipped ones whose name none has taken.
std::vector<const ScheduleForm*> formsFor(const Project& project, const RuleBook& book, BoardForm kind);

/// A column as it stands in a table: one of the form, or one of its parts where it has a part for each line.
struct LaidColumn {
    std::size_t of = 0; ///< column of the form
    Wording wording;
    std::string heading;
    ColumnAlign align = ColumnAlign::Left;
    int line = -1;           ///< of "{phase VA}": 0 … 2
    double from = 0, to = 0; ///< mm from the edge where the table begins
    double width() const { return to - from; }
};

/// The columns of a form on a board, over so many mm. Columns without a width share what the others leave, 12 mm each
/// at least; where it is not enough all are narrowed alike. A wording that cannot be read shows as "?".
std::vector<LaidColumn> layColumns(const ScheduleForm& form, const Board& board, double width);

/// What schedules of this form, and the card in the board's door, say of a free place and of what a circuit serves.
std::string freePlaceWords(const ScheduleForm& form);
std::string servesByForm(const ScheduleForm& form, const SheetInput& in, CircuitId circuit);
/// Whether the columns of a form are added up below its rows: where it has some for each line or kind of load.
bool addsUp(const ScheduleForm& form);
/// Whether the rows of a board's schedule stand as its places are numbered: not where its form has another order.
bool inOrderOfPlaces(const ScheduleForm& form, const Board& board);
/// Whether a schedule is written with one row for each circuit over the whole sheet, as that of a board of ways: so is,
/// in metric practice, a single column, and any whose form has an order of its own.
bool writtenInRows(const SheetInput& in, const Board& board);
inline constexpr double scheduleMargin = 11; ///< mm, at the edges of a schedule
/// Cells leave so much free at their left and right together, mm.
inline constexpr double cellGap = 1.6;
inline constexpr double cellSize = 2.5; ///< mm, of their letters
/// Letters of cells whose text goes on in a second line, mm.
inline constexpr double cellSizeInTwo = 2.1;
/// A text is not set narrower than this before it takes a second line.
inline constexpr double leastSqueeze = 0.85;

} // namespace lintel
