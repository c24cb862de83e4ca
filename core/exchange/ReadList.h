#pragma once
// What reading a list of anything has in common: what its headings mean, which rows are none, and what is wrong with a
// row.

#include "core/formats/Grid.h"
#include "core/project/Project.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <span>

namespace lintel {

struct ListProblem {
    int column = -1; ///< of the grid; −1: of the whole row
    std::string text;
    bool stops = true; ///< the row cannot enter; otherwise worth a look
};
/// A row of a list that is read in, whatever it lists.
struct ListedRow {
    int gridRow = 0, line = 0; ///< in Grid::rows; as the file counts
    std::vector<ListProblem> problems;
    bool leftOut = false; ///< by hand
    bool stops() const {
        return std::any_of(problems.begin(), problems.end(), [](const ListProblem& p) { return p.stops; });
    }
    bool enters() const { return !leftOut && !stops(); }
    void problem(int column, std::string text, bool halts = true) {
        problems.push_back({column, std::move(text), halts});
    }
};

/// Words of headings as the trade writes them, what a column below them seems to mean, and how sure each makes us.
struct HeadingWord {
    const char* phrase; ///< one word or several, in small letters
    int field;
    int weight;
};
/// Words of a heading: letters and digits, what stands in brackets among them; in small letters.
std::vector<std::string> headingWords(const std::string& heading);
/// By field: the surest word of the heading for it; 0: it has none.
std::vector<int> weighHeading(const std::string& heading, std::span<const HeadingWord> words, int fields);

struct ColumnGuess {
    int headerRow = -1;       ///< in Grid::rows; −1: there is none, and rows begin at once
    char decimal = '.';       ///< what a number that could be read both ways means
    std::vector<int> columns; ///< fields; 0: passed over
};
/// By the headings, and by what stands below them. Field 0 means nothing.
ColumnGuess guessColumns(const Grid& grid, const std::function<std::vector<int>(const std::string&)>& weigh);

/// The column that has this meaning; −1: none has.
template <class Field> int columnOf(const std::vector<Field>& columns, Field meaning) {
    const auto it = std::find(columns.begin(), columns.end(), meaning);
    return it == columns.end() ? -1 : int(it - columns.begin());
}
/// The text of a cell without blanks at its ends; empty beyond the end of its row.
std::string cellAt(const Grid& grid, std::size_t row, std::size_t column);
/// "-", "–", "n/a": a cell by which people say that there is nothing.
bool isBlankMark(const std::string& cell);
bool isEmptyRow(const std::vector<std::string>& cells);
/// Whether a row begins with "Total", "Subtotal" or "Grand total".
bool isTotalRow(const std::vector<std::string>& cells);
/// "#REF!" and its kin.
bool isSpreadsheetError(const std::string& cell);
/// A problem of rows that hold more than their headings; nothing where they do not.
bool longerThanHeading(const std::vector<std::string>& cells, std::size_t headings);

} // namespace lintel
