#pragma once
// A board as a line diagram with all its circuits, and beneath each what the schedule says of it: the sheet by which a
// board is built, wired and tested.

#include "core/sheets/Sheets.h"

namespace lintel {

/// On A3 or Tabloid on its side; a board with more circuits than one holds goes on on further sheets, "E-301.2". Spaces
/// are counted, not drawn. Nothing for what passes on, and for a board without circuits.
std::vector<Drawing> boardDiagram(const SheetInput& in, BoardId board, const std::string& number = "");
/// The same without sheets around it, for the screen: rows no wider than `width` mm, one below the other. Empty where
/// there is none.
Drawing boardDiagramBare(const SheetInput& in, BoardId board, double width);
/// Whether there is anything to draw of it.
bool hasBoardDiagram(const SheetInput& in, BoardId board);
/// How many sheets that makes.
std::size_t boardDiagramPages(const SheetInput& in, BoardId board);
/// Whether the set has a diagram of such a board: in metric practice of each, in North America of the large ones, which
/// others have their schedule for.
bool issuesDiagram(const RuleBook& book, const Board& board);
/// "A3 landscape" or "Tabloid".
const std::string& boardDiagramPaper(const RuleBook& book);

} // namespace lintel
