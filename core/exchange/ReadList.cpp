#include "core/exchange/ReadList.h"

#include "core/base/Parse.h"

#include <set>

namespace lintel {

std::vector<std::string> headingWords(const std::string& heading) {
    std::vector<std::string> words{""};
    for (const char c : lowered(heading))
        if (isLetter(c) || isDigit(c) || (c & 0x80))
            words.back() += c;
        else if (!words.back().empty())
            words.push_back("");
    if (words.back().empty()) words.pop_back();
    return words;
}

std::vector<int> weighHeading(const std::string& heading, std::span<const HeadingWord> known, int fields) {
    std::vector<int> weights(std::size_t(fields), 0);
    std::string all = " ";
    for (const std::string& word : headingWords(heading)) all += word + " ";
    for (const HeadingWord& w : known)
        if (all.find(" " + std::string(w.phrase) + " ") != std::string::npos)
            weights[std::size_t(w.field)] = std::max(weights[std::size_t(w.field)], w.weight);
    return weights;
}

std::string cellAt(const Grid& g, std::size_t row, std::size_t column) {
    return row < g.rows.size() && column < g.rows[row].size() ? trimmed(g.rows[row][column]) : "";
}

bool isEmptyRow(const std::vector<std::string>& cells) {
    return std::all_of(cells.begin(), cells.end(), [](const std::string& c) { return trimmed(c).empty(); });
}

bool isBlankMark(const std::string& cell) {
    const std::string text = lowered(cell);
    for (const char* mark : {"-", "--", "---", "–", "—", "n/a", "na", "n.a.", "nil"})
        if (text == mark) return true;
    return false;
}

bool isTotalRow(const std::vector<std::string>& cells) {
    const auto first =
        std::find_if(cells.begin(), cells.end(), [](const std::string& c) { return !trimmed(c).empty(); });
    if (first == cells.end()) return false;
    const std::string text = lowered(trimmed(*first));
    for (const char* word : {"total", "subtotal", "sub-total", "grand total"})
        if (text.rfind(word, 0) == 0) return true;
    return false;
}

bool isSpreadsheetError(const std::string& cell) {
    for (const char* error : {"#REF!", "#N/A", "#VALUE!", "#DIV/0!", "#NAME?"})
        if (cell == error) return true;
    return false;
}

bool longerThanHeading(const std::vector<std::string>& cells, std::size_t headings) {
    return headings > 0 && cells.size() > headings &&
           std::any_of(cells.begin() + std::ptrdiff_t(headings), cells.end(),
                       [](const std::string& c) { return !trimmed(c).empty(); });
}

namespace {

using Weigh = std::function<std::vector<int>(const std::string&)>;

int numbersIn(const Grid& grid, std::size_t row) {
    int n = 0;
    for (std::size_t c = 0; c < grid.columns(); ++c) n += numberFrom(cellAt(grid, row, c)).has_value();
    return n;
}

/// The row with the most headings that mean something; titles and dates may stand above it.
int findHeader(const Grid& grid, const Weigh& weigh) {
    int header = -1, most = 1;
    for (std::size_t r = 0; r < std::min<std::size_t>(grid.rows.size(), 20); ++r) {
        int known = 0;
        for (std::size_t c = 0; c < grid.rows[r].size(); ++c) {
            const auto weights = weigh(cellAt(grid, r, c));
            known += std::any_of(weights.begin(), weights.end(), [](int w) { return w > 0; });
        }
        const int sure = known - 2 * numbersIn(grid, r);
        if (sure > most) {
            most = sure;
            header = int(r);
        }
    }
    // A first row without a number above rows with some is a heading in words unknown to us.
    if (header < 0 && grid.rows.size() > 1 && numbersIn(grid, 0) == 0 && numbersIn(grid, 1) > 0) return 0;
    return header;
}

/// The surest first, each meaning once.
std::vector<int> columnsBelow(const Grid& grid, int header, const Weigh& weigh) {
    struct Sure {
        int weight;
        std::size_t column;
        int field;
    };
    std::vector<int> columns(grid.columns(), 0);
    std::vector<Sure> list;
    for (std::size_t c = 0; c < columns.size(); ++c) {
        const auto weights = weigh(cellAt(grid, std::size_t(header), c));
        for (std::size_t f = 1; f < weights.size(); ++f)
            if (weights[f] > 0) list.push_back({weights[f], c, int(f)});
    }
    std::stable_sort(list.begin(), list.end(), [](const Sure& a, const Sure& b) { return a.weight > b.weight; });
    std::set<int> used;
    for (const Sure& s : list)
        if (columns[s.column] == 0 && used.insert(s.field).second) columns[s.column] = s.field;
    return columns;
}

/// "7,5" can only be a decimal comma; "1,250" can be both.
char decimalSign(const Grid& grid, int header) {
    int point = 0, comma = 0;
    for (std::size_t r = std::size_t(header + 1); r < std::min<std::size_t>(grid.rows.size(), 2000); ++r)
        for (std::size_t c = 0; c < grid.rows[r].size(); ++c) {
            if (grid.isNumber(r, c)) continue; // its point says nothing of the texts
            const std::string& raw = grid.rows[r][c];
            const auto sign = raw.find_last_of(".,");
            if (sign == std::string::npos || !numberFrom(raw) ||
                raw.find_first_not_of("0123456789.,- ") != std::string::npos)
                continue;
            const bool both = raw.find('.') != std::string::npos && raw.find(',') != std::string::npos;
            if (both || raw.size() - sign - 1 != 3 || raw[0] == '0') (raw[sign] == ',' ? comma : point) += 1;
        }
    return comma > point ? ',' : '.';
}

} // namespace

ColumnGuess guessColumns(const Grid& grid, const Weigh& weigh) {
    ColumnGuess guess;
    guess.columns.assign(grid.columns(), 0);
    guess.headerRow = findHeader(grid, weigh);
    if (guess.headerRow >= 0) guess.columns = columnsBelow(grid, guess.headerRow, weigh);
    guess.decimal = decimalSign(grid, guess.headerRow);
    return guess;
}

} // namespace lintel
