#pragma once
// The set of sheets of a project, each as a Drawing, in the order they are bound.

#include "core/sheets/Drawing.h"
#include "core/solve/Results.h"

#include <functional>

namespace lintel {

struct SheetInput {
    const Project& project;
    const RuleBook& book;
    const Results& results;
};

/// "Letter"; "Legal" for a board with more rows than Letter holds with its tally and notes.
const char* schedulePaper(const Board& board);
/// A panel schedule: title strip, circuit rows as they stand in the board, load tally, phases, notes strip.
Drawing panelSchedule(const SheetInput& in, BoardId board, const std::string& number = "");

/// The riser by floors, laid out from the model: floors as bands, everything on its own, feeders at right angles in a
/// column of their own, so that no line runs through a box. Tabloid where that is wide enough, else ARCH D.
Drawing riserDiagram(const SheetInput& in, const std::string& number = "");
/// The same without a sheet around it, for the screen: as large as it needs, in the proportion width : height given.
Drawing riserBare(const SheetInput& in, double proportion);

/// How wiring is coloured on plan.
enum class PlanColour { Circuit, Board, Phase, Drop };
struct PlanStyle {
    PlanColour colour = PlanColour::Circuit;
    bool wiring = true, tags = true, lighting = true, power = true, roomNames = true;
    double symbolScale = 1, textScale = 1; ///< of the marks, whatever the scale of the building
};
/// A floor, 1:100 in millimetres (a metre is 10 mm), not on a sheet yet: what the Plan stage shows.
Drawing planDrawing(const SheetInput& in, LevelId level, const PlanStyle& style = {});
/// The same on ARCH D with a title strip, at the largest usual scale that fits.
Drawing planSheet(const SheetInput& in, LevelId level, const std::string& number = "");

/// The symbol of a device at a place on a drawing, `size` mm across.
void drawSymbol(Drawing& d, Symbol symbol, Point at, double turnDegrees, Ink ink, double size = 4.2);

struct SheetEntry {
    std::string number, title, paper, file; ///< file: a safe name for writing it alone, without an ending
    std::function<Drawing()> draw;
};
/// Riser, plans, then a schedule for each board. The drawings are made on demand; `in` must outlive the list.
std::vector<SheetEntry> sheetSet(const SheetInput& in);

/// The strip that every sheet carries below: project, rule book, what the sizes rest on, sheet number.
void footStrip(Drawing& d, const SheetInput& in, double margin);

} // namespace lintel
