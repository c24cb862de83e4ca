// Lists on sheets with a title block, in three columns; a wide list takes two or all of them. One that does not fit
// goes on in the next column or on the next sheet with its headings repeated; texts are wrapped, never cut and never
// squeezed.

#include "core/lists/List.h"
#include "core/sheets/TextWidth.h"
#include "core/sheets/TitleBlock.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <numeric>

namespace lintel {
namespace {

constexpr double textSize = 3.4, headSize = 2.8, titleSize = 4.6, noteSize = 3.3;
constexpr double rowHeight = 6.6, lineStep = 4.4, padX = 1.6, headLine = 3.8, noteStep = 4.6;
constexpr double belowList = 12, gutter = 12, afterNumbers = 1.8;
constexpr double tablePen = 0.13, headPen = 0.35, titlePen = 0.5;
constexpr double leastColumn = 7;

/// A list set in widths: each cell in its lines. Columns in which nothing stands are left out.
struct Set {
    const List& list;
    std::vector<std::size_t> shown{}; ///< columns of the list
    std::vector<double> widths{};
    std::vector<std::vector<std::vector<std::string>>> cells{}; ///< row, column shown, line
    std::vector<std::vector<std::string>> heads{};
    std::vector<double> heights{}; ///< of the rows
    double width = 0, headHeight = 0;
};

double naturalWidth(const std::string& text, double size, bool bold) {
    return textWidth(text, size, bold) + 2 * padX + 0.6;
}

/// The widest word: what a column cannot be narrower than.
double widestWord(const std::string& text, double size) {
    double widest = 0;
    std::size_t from = 0;
    while (from < text.size()) {
        const std::size_t to = std::min(text.find(' ', from), text.size());
        widest = std::max(widest, naturalWidth(text.substr(from, to - from), size, false));
        from = to + 1;
    }
    return widest;
}

bool anythingIn(const List& list, std::size_t column) {
    return std::any_of(list.rows.begin(), list.rows.end(), [&](const ListEntry& r) {
        return r.kind != ListEntry::Kind::Group && column < r.cells.size() && !r.cells[column].text.empty();
    });
}

/// What a column wants, and what it cannot do without.
struct Wish {
    double least = leastColumn, wanted = leastColumn;
};
Wish wishOf(const List& list, std::size_t column) {
    const ListColumn& c = list.columns[column];
    const std::string head = c.head();
    Wish w;
    w.least = std::max(leastColumn, widestWord(head, headSize));
    w.wanted = std::max(w.least, naturalWidth(head, headSize, false) * 0.55); // in two lines
    for (const ListEntry& r : list.rows) {
        if (r.kind == ListEntry::Kind::Group || column >= r.cells.size()) continue;
        const ListCell& cell = r.cells[column];
        const double natural = naturalWidth(cell.text, textSize, r.kind == ListEntry::Kind::Total);
        w.wanted = std::max(w.wanted, std::min(c.widest, natural));
        constexpr std::size_t shortText = 12; // bytes; such a text stays in one line
        if (cell.value || cell.text.size() <= shortText) w.least = std::max(w.least, natural);
        constexpr double longWord = 26; // mm; a longer one is broken between its letters
        w.least = std::max(w.least, std::min({c.widest, longWord, widestWord(cell.text, textSize)}));
    }
    w.wanted = std::max(w.wanted, w.least);
    return w;
}

void setRows(Set& s) {
    for (const ListEntry& r : s.list.rows) {
        std::vector<std::vector<std::string>> row;
        std::size_t lines = 1;
        const bool group = r.kind == ListEntry::Kind::Group, bold = r.kind != ListEntry::Kind::Figures;
        for (std::size_t i = 0; i < (group ? 1 : s.shown.size()); ++i) {
            const std::size_t c = group ? 0 : s.shown[i];
            const double room = (group ? s.width : s.widths[i]) - 2 * padX;
            row.push_back(c < r.cells.size() ? wrapText(r.cells[c].text, room, textSize, bold)
                                             : std::vector<std::string>{});
            lines = std::max(lines, row.back().size());
        }
        s.cells.push_back(std::move(row));
        s.heights.push_back(rowHeight + lineStep * double(lines - 1));
    }
}

/// The columns of a list in which something stands, with their wishes.
struct Columns {
    std::vector<std::size_t> shown;
    std::vector<Wish> wishes;
    double least() const {
        return std::accumulate(wishes.begin(), wishes.end(), 0.0,
                               [](double sum, const Wish& w) { return sum + w.least; });
    }
    double wanted() const {
        return std::accumulate(wishes.begin(), wishes.end(), 0.0,
                               [](double sum, const Wish& w) { return sum + w.wanted; });
    }
};
Columns columnsOf(const List& list) {
    Columns c;
    for (std::size_t i = 0; i < list.columns.size(); ++i) {
        if (!anythingIn(list, i)) continue;
        const bool apart = !c.shown.empty() && list.columns[c.shown.back()].align == Align::Right &&
                           list.columns[i].align == Align::Left;
        if (apart) {
            c.wishes.back().least += afterNumbers;
            c.wishes.back().wanted += afterNumbers;
        }
        c.shown.push_back(i);
        c.wishes.push_back(wishOf(list, i));
    }
    return c;
}

Set setIn(const List& list, const Columns& columns, double most) {
    Set s{list, columns.shown};
    const double slack = columns.wanted() - columns.least();
    // Where it is too wide, all give of what they have above their least.
    const double over = columns.wanted() - most, share = over > 0 && slack > 0 ? std::min(1.0, over / slack) : 0;
    for (const Wish& w : columns.wishes) {
        s.widths.push_back(w.wanted - share * (w.wanted - w.least));
        s.width += s.widths.back();
    }
    std::size_t headLines = 1;
    for (std::size_t i = 0; i < s.shown.size(); ++i) {
        s.heads.push_back(wrapText(list.columns[s.shown[i]].head(), s.widths[i] - 2 * padX, headSize));
        headLines = std::max(headLines, s.heads.back().size());
    }
    s.headHeight = 2.6 + headLine * double(headLines);
    setRows(s);
    return s;
}

/// Filled column by column, from the left; a list that is wider than a column takes two, or all.
struct Sheets {
    static constexpr int columns = 3;

    const SheetInput& in;
    int next;
    std::string paper;
    std::vector<Drawing> all{};
    SheetFrame frame{};
    double filled[columns] = {0, 0, 0};                       ///< to where
    int column = 0;                                           ///< where the next list begins
    std::map<std::size_t, std::vector<std::string>> titles{}; ///< of the lists, by sheet

    Drawing& sheet() { return all.back(); }
    double left() const { return frame.left + 10; }
    double right() const { return frame.right - 10; }
    double top() const { return frame.top + 12; }
    double bottom() const { return frame.bottom - 12; }
    double width(int span) const {
        const double one = (right() - left() - (columns - 1) * gutter) / columns;
        return span * one + (span - 1) * gutter;
    }
    double at(int c) const { return left() + c * (width(1) + gutter); }

    void begin() {
        Drawing d;
        d.number = fmt::format("E-{:03}", next++);
        d.paper = paper;
        const PaperSize size = paperSize(d.paper);
        d.width = size.width, d.height = size.height;
        frame = sheetFrame(d, in);
        all.push_back(std::move(d));
        std::fill(std::begin(filled), std::end(filled), top());
        column = 0;
    }
    /// From where on that many columns are free.
    double freeFrom(int span) const {
        return *std::max_element(filled + column, filled + std::min(column + span, columns));
    }
    /// Goes on until there is so much room in `span` columns, or at the top of a new sheet.
    void seek(int span, double height) {
        while (column + span > columns || freeFrom(span) + height > bottom()) {
            if (column + span >= columns) {
                const bool untouched = column == 0 && freeFrom(span) <= top();
                if (untouched) return; // higher than a sheet: it is begun all the same
                begin();
            } else {
                ++column;
            }
        }
    }
    /// Columns that a list takes: as few as hold it without much wrapping.
    int spanOf(const Columns& c) const {
        constexpr double bearable = 1.2; // of the column, that a list may want to be wider
        for (int span = 1; span < columns; ++span)
            if (c.wanted() <= width(span) * bearable && c.least() <= width(span)) return span;
        return columns;
    }
    /// Where a list fits whole in a column further on, and not here, it begins there.
    void keepTogether(const Set& s, int span) {
        const double whole = titleSize * 1.6 + s.headHeight + std::accumulate(s.heights.begin(), s.heights.end(), 0.0) +
                             noteStep * 2 * double(s.list.notes.size());
        const int now = column;
        for (; column + span <= columns; ++column)
            if (freeFrom(span) + whole <= bottom()) return;
        column = now;
    }
    void put(const List& list) {
        if (all.empty()) begin();
        const Columns wishes = columnsOf(list);
        const int span = spanOf(wishes);
        const Set s = setIn(list, wishes, width(span));
        keepTogether(s, span);
        std::size_t row = 0;
        bool again = false;
        do {
            const double heading = titleSize * 1.6 + s.headHeight;
            double least = heading; // with a row or two, so that no heading stands alone
            for (std::size_t i = row; i < std::min(row + 2, s.heights.size()); ++i) least += s.heights[i];
            seek(span, least);
            const double x = at(column);
            double y = freeFrom(span);
            title(s, x, y, again);
            y += heading;
            while (row < s.heights.size() && y + s.heights[row] <= bottom()) {
                // A group's heading never stands alone at the foot.
                if (list.rows[row].kind == ListEntry::Kind::Group && row + 1 < s.heights.size() &&
                    y + s.heights[row] + s.heights[row + 1] > bottom())
                    break;
                drawRow(s, row, x, y);
                y += s.heights[row++];
            }
            sheet().line({x, y}, {x + s.width, y}, headPen);
            fill(span, y + belowList);
            again = true;
        } while (row < s.heights.size());
        notes(list, s, span);
    }
    void fill(int span, double to) { std::fill(filled + column, filled + std::min(column + span, columns), to); }
    void title(const Set& s, double x, double y, bool again) {
        Drawing& d = sheet();
        d.text({x, y + titleSize}, s.list.title + (again ? ", continued" : ""), titleSize, Align::Left, true);
        auto& here = titles[all.size() - 1];
        if (here.empty() || here.back() != s.list.title) here.push_back(s.list.title);
        y += titleSize * 1.6;
        d.line({x, y}, {x + s.width, y}, titlePen);
        d.fill(x, y, s.width, s.headHeight, Ink::Band);
        double from = x;
        for (std::size_t i = 0; i < s.heads.size(); ++i) {
            double base = y + s.headHeight - 1.9 - headLine * double(s.heads[i].size() - 1);
            for (const std::string& line : s.heads[i]) {
                cell(line, from, roomOf(s, i), base, s.list.columns[s.shown[i]].align, headSize, false, Ink::Ink);
                base += headLine;
            }
            from += s.widths[i];
        }
        d.line({x, y + s.headHeight}, {x + s.width, y + s.headHeight}, headPen);
    }
    /// Width of a column for its texts: numbers keep off the words that follow them.
    static double roomOf(const Set& s, std::size_t i) {
        const bool apart = i + 1 < s.shown.size() && s.list.columns[s.shown[i]].align == Align::Right &&
                           s.list.columns[s.shown[i + 1]].align == Align::Left;
        return s.widths[i] - (apart ? afterNumbers : 0);
    }
    void cell(const std::string& text, double x, double width_, double base, Align align, double size, bool bold,
              Ink ink) {
        const double to = align == Align::Right    ? x + width_ - padX
                          : align == Align::Centre ? x + width_ / 2
                                                   : x + padX;
        sheet().text({to, base}, text, size, align, bold, ink);
    }
    void drawRow(const Set& s, std::size_t row, double x, double y) {
        const ListEntry& r = s.list.rows[row];
        Drawing& d = sheet();
        const bool bold = r.kind != ListEntry::Kind::Figures, group = r.kind == ListEntry::Kind::Group;
        if (r.kind == ListEntry::Kind::Total) d.line({x, y}, {x + s.width, y}, headPen);
        double from = x;
        for (std::size_t i = 0; i < s.cells[row].size(); ++i) {
            const std::size_t c = group ? 0 : s.shown[i];
            double base = y + 4.7;
            for (const std::string& line : s.cells[row][i]) {
                cell(line, from, group ? s.width : roomOf(s, i), base, group ? Align::Left : s.list.columns[c].align,
                     textSize, bold, r.cells[c].ink);
                base += lineStep;
            }
            from += s.widths[i];
        }
        if (r.about) d.hotspots.push_back({r.about, x, y, x + s.width, y + s.heights[row]});
        d.line({x, y + s.heights[row]}, {x + s.width, y + s.heights[row]}, tablePen, Ink::Rule);
    }
    /// Below the rows; one for which there is no room stands at the head of the next column.
    void notes(const List& list, const Set& s, int span) {
        double y = freeFrom(span) - belowList + 1.5;
        for (const std::string& note : list.notes) {
            const auto lines = wrapText(note, std::max(s.width, std::min(110.0, width(span))) - 2 * padX, noteSize);
            const double height = noteStep * double(lines.size());
            if (y + height > bottom()) {
                fill(span, bottom());
                seek(span, height);
                y = freeFrom(span);
            }
            for (const std::string& line : lines) {
                y += noteStep;
                sheet().text({at(column) + padX, y}, line, noteSize, Align::Left, false, Ink::Quiet);
            }
            fill(span, y + belowList);
        }
    }
};

/// "Feeder schedule and 4 more lists"
std::string titleOf(const std::vector<std::string>& titles) {
    if (titles.size() == 1) return titles.front();
    return fmt::format("{} and {}", titles.front(),
                       titles.size() == 2 ? std::string("one more list")
                                          : fmt::format("{} more lists", titles.size() - 1));
}

} // namespace

std::vector<Drawing> listSheets(const SheetInput& in, const std::vector<List>& lists, int first,
                                const std::string& title, const std::string& paper) {
    Sheets sheets{in, first, !paper.empty() ? paper : in.book.metric() ? "A1" : "ARCH D"};
    for (const List& list : lists)
        if (!list.rows.empty()) sheets.put(list);
    for (std::size_t i = 0; i < sheets.all.size(); ++i) {
        Drawing& d = sheets.all[i];
        d.title = title.empty() ? titleOf(sheets.titles[i]) : pageTitle(title, i);
        titleBlock(d, in, "None");
    }
    return std::move(sheets.all);
}

} // namespace lintel
