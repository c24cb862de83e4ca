// Lists on sheets with a title block: narrow ones beside each other in two columns, wide ones across both. A list that
// does not fit goes on in the next column or on the next sheet with its headings repeated; texts are wrapped, never cut
// and never squeezed.

#include "core/lists/List.h"
#include "core/sheets/TextWidth.h"
#include "core/sheets/TitleBlock.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace lintel {
namespace {

constexpr double textSize = 3.4, headSize = 2.8, titleSize = 4.6, noteSize = 3.3;
constexpr double rowHeight = 6.6, lineStep = 4.4, padX = 1.6, headLine = 3.8, noteStep = 4.6;
constexpr double gap = 12, belowList = 12, gutter = 14;
constexpr double tablePen = 0.13, headPen = 0.35, titlePen = 0.5;
constexpr double leastColumn = 7;

/// A list set in widths: each cell in its lines.
struct Set {
    const List& list;
    std::vector<double> widths;
    std::vector<std::vector<std::vector<std::string>>> cells; ///< row, column, line
    std::vector<std::vector<std::string>> heads;
    std::vector<double> heights; ///< of the rows
    double width = 0, headHeight = 0;
};

double naturalWidth(const std::string& text, double size, bool bold) {
    return textWidth(text, size, bold) + 2 * padX + 0.6;
}

std::string headOf(const ListColumn& c) { return c.unit.empty() ? c.heading : c.heading + ", " + c.unit; }

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

Set setIn(const List& list, double most) {
    Set s{list, {}, {}, {}, {}};
    const std::size_t n = list.columns.size();
    std::vector<double> least(n, leastColumn), wanted(n, leastColumn);
    for (std::size_t c = 0; c < n; ++c) {
        const ListColumn& column = list.columns[c];
        const std::string head = headOf(column);
        least[c] = std::max(least[c], widestWord(head, headSize));
        wanted[c] = least[c];
        for (const ListEntry& r : list.rows) {
            if (r.kind == ListEntry::Kind::Group || c >= r.cells.size()) continue;
            const bool bold = r.kind == ListEntry::Kind::Total;
            wanted[c] = std::max(wanted[c], std::min(column.widest, naturalWidth(r.cells[c].text, textSize, bold)));
            if (r.cells[c].value) least[c] = std::max(least[c], naturalWidth(r.cells[c].text, textSize, bold));
            least[c] = std::max(least[c], std::min({column.widest, 26.0, widestWord(r.cells[c].text, textSize)}));
        }
        wanted[c] = std::max(wanted[c], least[c]);
    }
    double sum = 0, slack = 0;
    for (std::size_t c = 0; c < n; ++c) sum += wanted[c], slack += wanted[c] - least[c];
    // Where it is too wide, all give of what they have above their least.
    const double over = sum - most, share = over > 0 && slack > 0 ? std::min(1.0, over / slack) : 0;
    for (std::size_t c = 0; c < n; ++c) s.widths.push_back(wanted[c] - share * (wanted[c] - least[c]));
    for (double w : s.widths) s.width += w;
    std::size_t headLines = 1;
    for (std::size_t c = 0; c < n; ++c) {
        s.heads.push_back(wrapText(headOf(list.columns[c]), s.widths[c] - 2 * padX, headSize));
        headLines = std::max(headLines, s.heads.back().size());
    }
    s.headHeight = 2.6 + headLine * double(headLines);
    for (const ListEntry& r : list.rows) {
        std::vector<std::vector<std::string>> row;
        std::size_t lines = 1;
        for (std::size_t c = 0; c < r.cells.size(); ++c) {
            const double room = r.kind == ListEntry::Kind::Group ? s.width : s.widths[std::min(c, n - 1)];
            row.push_back(wrapText(r.cells[c].text, room - 2 * padX, textSize, r.kind != ListEntry::Kind::Figures));
            lines = std::max(lines, row.back().size());
        }
        s.cells.push_back(std::move(row));
        s.heights.push_back(rowHeight + lineStep * double(lines - 1));
    }
    return s;
}

struct Sheets {
    const SheetInput& in;
    int next;
    std::vector<Drawing> all{};
    SheetFrame frame{};
    double columns[2] = {0, 0};                               ///< where each is filled to
    std::map<std::size_t, std::vector<std::string>> titles{}; ///< of the lists, by sheet

    Drawing& sheet() { return all.back(); }
    double half() const { return (right() - left() - gutter) / 2; }
    double left() const { return frame.left + 10; }
    double right() const { return frame.right - 10; }
    double top() const { return frame.top + 12; }
    double bottom() const { return frame.bottom - 12; }

    void begin() {
        Drawing d;
        d.title = "Lists";
        d.number = fmt::format("E-{}", next++);
        d.paper = in.book.metric() ? "A1" : "ARCH D";
        const PaperSize size = paperSize(d.paper);
        d.width = size.width, d.height = size.height;
        frame = sheetFrame(d, in);
        all.push_back(std::move(d));
        columns[0] = columns[1] = top();
    }
    /// A column with so much room, or the next sheet; a wide list needs both.
    int columnFor(bool wide, double height) {
        if (all.empty()) begin();
        if (wide) {
            if (std::max(columns[0], columns[1]) + height > bottom()) begin();
            columns[0] = columns[1] = std::max(columns[0], columns[1]);
            return 0;
        }
        const int shorter = columns[0] <= columns[1] ? 0 : 1;
        if (columns[shorter] + height <= bottom()) return shorter;
        begin();
        return 0;
    }
    void put(const List& list) {
        if (all.empty()) begin();
        const bool wide = setIn(list, half()).width > half() + 0.01;
        const Set s = setIn(list, wide ? right() - left() : half());
        std::size_t row = 0;
        bool again = false;
        do {
            const double heading = titleSize * 1.6 + s.headHeight;
            const double least = heading + (row < s.heights.size() ? s.heights[row] : 0) +
                                 (row + 1 < s.heights.size() ? s.heights[row + 1] : 0);
            int column = columnFor(wide, least);
            const double x = left() + (column == 1 ? half() + gutter : 0);
            double y = columns[column];
            title(list, s, x, y, again);
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
            columns[column] = y;
            if (row == s.heights.size()) y = notes(list, s, x, y, column);
            columns[column] = y + belowList;
            if (wide) columns[0] = columns[1] = columns[column];
            again = true;
        } while (row < s.heights.size());
    }
    void title(const List& list, const Set& s, double x, double y, bool again) {
        Drawing& d = sheet();
        d.text({x, y + titleSize}, list.title + (again ? ", continued" : ""), titleSize, Align::Left, true);
        titles[all.size() - 1].push_back(list.title);
        y += titleSize * 1.6;
        d.line({x, y}, {x + s.width, y}, titlePen);
        d.fill(x, y, s.width, s.headHeight, Ink::Band);
        double at = x;
        for (std::size_t c = 0; c < s.heads.size(); ++c) {
            double base = y + s.headHeight - 1.9 - headLine * double(s.heads[c].size() - 1);
            for (const std::string& line : s.heads[c]) {
                cell(line, at, s.widths[c], base, list.columns[c].align, headSize, false, Ink::Ink);
                base += headLine;
            }
            at += s.widths[c];
        }
        d.line({x, y + s.headHeight}, {x + s.width, y + s.headHeight}, headPen);
    }
    void cell(const std::string& text, double x, double width, double base, Align align, double size, bool bold,
              Ink ink) {
        const double at = align == Align::Right ? x + width - padX : align == Align::Centre ? x + width / 2 : x + padX;
        sheet().text({at, base}, text, size, align, bold, ink);
    }
    void drawRow(const Set& s, std::size_t row, double x, double y) {
        const ListEntry& r = s.list.rows[row];
        Drawing& d = sheet();
        const bool bold = r.kind != ListEntry::Kind::Figures;
        if (r.kind == ListEntry::Kind::Total) d.line({x, y}, {x + s.width, y}, headPen);
        double at = x;
        for (std::size_t c = 0; c < r.cells.size(); ++c) {
            const double width = r.kind == ListEntry::Kind::Group ? s.width : s.widths[c];
            const Align align = r.kind == ListEntry::Kind::Group ? Align::Left : s.list.columns[c].align;
            double base = y + 4.7;
            for (const std::string& line : s.cells[row][c]) {
                cell(line, at, width, base, align, textSize, bold, r.cells[c].ink);
                base += lineStep;
            }
            at += width;
        }
        if (r.about) d.hotspots.push_back({r.about, x, y, x + s.width, y + s.heights[row]});
        d.line({x, y + s.heights[row]}, {x + s.width, y + s.heights[row]}, tablePen, Ink::Rule);
    }
    /// Below the rows; a note for which there is no room stands at the head of the next column.
    double notes(const List& list, const Set& s, double x, double y, int& column) {
        y += 1.5;
        for (const std::string& note : list.notes) {
            const auto lines = wrapText(note, std::max(s.width, 110.0), noteSize);
            if (y + noteStep * double(lines.size()) > bottom()) {
                columns[column] = bottom();
                column = columnFor(s.width > half() + 0.01, noteStep * double(lines.size()));
                x = left() + (column == 1 ? half() + gutter : 0);
                y = columns[column];
            }
            for (const std::string& line : lines) {
                y += noteStep;
                sheet().text({x + padX, y}, line, noteSize, Align::Left, false, Ink::Quiet);
            }
        }
        return y;
    }
};

} // namespace

std::vector<Drawing> listSheets(const SheetInput& in, const std::vector<List>& lists, int first) {
    Sheets sheets{in, first};
    for (const List& list : lists)
        if (!list.rows.empty()) sheets.put(list);
    for (std::size_t i = 0; i < sheets.all.size(); ++i) {
        Drawing& d = sheets.all[i];
        const auto& titles = sheets.titles[i];
        d.title = titles.size() == 1 ? titles.front()
                                     : titles.front() + (titles.size() == 2 ? " and " + titles.back() : " and others");
        titleBlock(d, in, "None");
    }
    return std::move(sheets.all);
}

} // namespace lintel
