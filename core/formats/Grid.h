#pragma once
// A table of texts, from CSV or XLSX: what a list is read from before anybody says what its columns mean.

#include "core/base/Error.h"

#include <filesystem>
#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace lintel {

struct Grid {
    std::vector<std::vector<std::string>> rows; ///< as long as what was written in each
    std::vector<int> lines;                     ///< by row: its line in the file, from 1
    std::vector<std::string> notes;  ///< what a reader should know: "3 merged cells: their text stands in each"
    std::vector<std::string> sheets; ///< of an XLSX: the names of its sheets
    std::string sheet;               ///< the one that was read
    char delimiter = 0;              ///< of a CSV: as found
    std::string encoding;            ///< of a CSV: as found, "UTF-8", "Windows-1252", "UTF-16LE" …
    std::size_t columns() const;
    /// Of an XLSX: by row, the columns whose cells hold a number. Such a cell is written with a decimal point, whatever
    /// sign the texts beside it use.
    std::vector<std::vector<bool>> numbers;
    bool isNumber(std::size_t row, std::size_t column) const {
        return row < numbers.size() && column < numbers[row].size() && numbers[row][column];
    }
    /// Puts a text that somebody typed into a cell.
    void put(std::size_t row, std::size_t column, std::string text);
};

/// What a list may be at most; beyond that it is no list.
inline constexpr std::size_t mostListRows = 200'000, mostListColumns = 500, mostCellBytes = 32'767,
                             mostLineBytes = 1'000'000;

struct GridOptions {
    char delimiter = 0;                        ///< 0: found by looking
    std::string encoding;                      ///< empty: found by looking
    std::string sheet;                         ///< empty: the first that is not empty
    std::function<bool(double done)> progress; ///< 0 … 1; false stops reading
};

/// By the content of the file: a zip is an XLSX, anything else is text. An error says where and what to do; `stopped`
/// below.
Outcome<Grid> readGrid(const std::filesystem::path& file, const GridOptions& options = {});
Outcome<Grid> readCsv(const std::filesystem::path& file, const GridOptions& options = {});
Outcome<Grid> readXlsx(const std::filesystem::path& file, const GridOptions& options = {});

/// Whether a spreadsheet would take the text of a CSV cell for a formula: it begins with = + - @ and is no number.
bool looksLikeFormula(const std::string& text);
/// Stands before such a text in our CSV files.
inline constexpr char textSign = '\'';

/// What an error of a reading that was stopped by `progress` says.
inline constexpr const char* readingStopped = "reading was stopped";

/// A cell of a workbook: a text, a number as it is shown, or the sum of others in its column.
struct GridCell {
    std::string text;
    std::optional<double> number{};
    int decimals = -1;   ///< that are shown of the number; -1: as many as it has
    bool strong = false; ///< in bold type
    /// The number is the sum of the numbers in these rows of its column, both ends among them, from 0; nothing: it is
    /// none. A spreadsheet works it out again.
    std::vector<std::pair<std::size_t, std::size_t>> sumOf{};
};
/// A sheet of an XLSX under its title. The first row is its heading: it stays in sight, and stands on every printed
/// page.
struct NamedGrid {
    std::string title;
    std::vector<std::vector<GridCell>> rows;
    std::string job{};    ///< above each printed page
    std::string hidden{}; ///< the heading of a column that is not shown
};
/// Texts stay texts, also those that look like a formula.
std::optional<Error> writeGrids(const std::vector<NamedGrid>& grids, const std::filesystem::path& file);

/// Writes a table, numbers as numbers in an XLSX; by the ending of the file, `.csv` or `.xlsx`. `hidden`: the heading
/// of a column that an XLSX does not show. In a CSV a text that a spreadsheet would run as a formula has an apostrophe
/// before it (textSign), which readCsv takes off again; control characters are left out.
std::optional<Error> writeGrid(const std::vector<std::vector<std::string>>& rows, const std::filesystem::path& file,
                               const std::string& title, char delimiter = ',', const std::string& hidden = {});

} // namespace lintel
