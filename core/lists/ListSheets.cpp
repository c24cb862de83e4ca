// Lists on sheets with a title block, in three columns; a wide list takes two or all of them. One that does not fit
// goes on in the next column or on the next sheet with its headings repeated; texts are wrapped, never cut and never
// squeezed.

#include "core/drawing/Paper.h"
#include "core/drawing/TextWidth.h"
#include "core/lists/ListTable.h"
#include "core/sheets/TitleBlock.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace lintel {
namespace {

constexpr double belowList = 12, gutter = 12;
const ListType type{};

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
                const bool untouched =
                    std::all_of(std::begin(filled), std::end(filled), [&](double y) { return y <= top(); });
                if (untouched) { // higher than a sheet: it is begun all the same
                    column = 0;
                    return;
                }
                begin();
            } else {
                ++column;
            }
        }
    }
    /// Columns that a list takes: as few as hold it without much wrapping.
    int spanOf(const ListTable& t) const {
        constexpr double bearable = 1.2; // of the column, that a list may want to be wider
        for (int span = 1; span < columns; ++span)
            if (t.wanted() <= width(span) * bearable && t.least() <= width(span)) return span;
        return columns;
    }
    /// Where a list fits whole in a column further on, and not here, it begins there.
    void keepTogether(const ListTable& t, int span) {
        const int now = column;
        for (; column + span <= columns; ++column)
            if (freeFrom(span) + t.wholeHeight() <= bottom()) return;
        column = now;
    }
    void put(const List& list) {
        if (all.empty()) begin();
        ListTable t(list);
        const int span = spanOf(t);
        t.set(width(span));
        keepTogether(t, span);
        std::size_t row = 0;
        bool again = false;
        do {
            double least = t.headHeight(); // with a row or two, so that no heading stands alone
            for (std::size_t i = row; i < std::min(row + 2, t.rows()); ++i) least += t.height(i);
            seek(span, least);
            const double x = at(column);
            double y = freeFrom(span);
            t.drawHead(sheet(), x, y, again);
            name(list);
            y += t.headHeight();
            while (row < t.rows() && y + t.height(row) <= bottom()) {
                // A group's heading never stands alone at the foot.
                if (t.entry(row).kind == ListEntry::Kind::Group && row + 1 < t.rows() &&
                    y + t.height(row) + t.height(row + 1) > bottom())
                    break;
                t.drawRow(sheet(), row, x, y);
                y += t.height(row++);
            }
            t.drawEnd(sheet(), x, y);
            fill(span, y + belowList);
            again = true;
        } while (row < t.rows());
        notes(t, span);
    }
    /// The sheet is called after it, among others.
    void name(const List& list) {
        auto& here = titles[all.size() - 1];
        if (here.empty() || here.back() != list.title) here.push_back(list.title);
    }
    void fill(int span, double to) { std::fill(filled + column, filled + std::min(column + span, columns), to); }
    /// Below the rows; one for which there is no room stands at the head of the next column.
    void notes(const ListTable& t, int span) {
        double y = freeFrom(span) - belowList + 1.5;
        for (const std::string& note : t.list().notes) {
            const auto lines =
                wrapText(note, std::max(t.width(), std::min(110.0, width(span))) - 2 * type.padding, type.note);
            const double height = type.noteStep * double(lines.size());
            if (y + height > bottom()) {
                fill(span, bottom());
                seek(span, height);
                y = freeFrom(span);
                name(t.list());
            }
            for (const std::string& line : lines) {
                y += type.noteStep;
                sheet().text({at(column) + type.padding, y}, line, type.note, Align::Left, false, Ink::Quiet);
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
    Sheets sheets{in, first, !paper.empty() ? paper : in.book.trade.papers.drawing};
    for (const List& list : lists)
        if (!list.rows.empty()) sheets.put(list);
    for (std::size_t i = 0; i < sheets.all.size(); ++i) {
        Drawing& d = sheets.all[i];
        d.title = title.empty() ? titleOf(sheets.titles[i]) : pageTitle(title, i);
        titleBlock(d, in, "None");
    }
    return std::move(sheets.all);
}

std::vector<Drawing> listParts(const List& list, double width, double height) {
    ListTable t(list);
    t.set(std::min(width, std::max(t.wanted(), t.least())));
    constexpr double notesWidth = 110;
    double wide = std::max(t.width(), textWidth(list.title + ", continued", type.title, true) + 2);
    if (!list.notes.empty()) wide = std::max(wide, std::min(notesWidth, width));
    std::vector<Drawing> parts;
    double y = 0;
    const auto begin = [&] {
        Drawing d;
        d.title = list.title;
        d.width = wide;
        t.drawHead(d, 0, 0, !parts.empty());
        y = t.headHeight();
        parts.push_back(std::move(d));
    };
    const auto end = [&](double foot) { parts.back().height = foot + 1; };
    begin();
    for (std::size_t row = 0; row < t.rows(); ++row) {
        const bool group = t.entry(row).kind == ListEntry::Kind::Group && row + 1 < t.rows();
        const double needs = t.height(row) + (group ? t.height(row + 1) : 0); // a heading never stands alone
        if (y + needs > height && y > t.headHeight()) {
            t.drawEnd(parts.back(), 0, y);
            end(y);
            begin();
        }
        t.drawRow(parts.back(), row, 0, y);
        y += t.height(row);
    }
    t.drawEnd(parts.back(), 0, y);
    y += 1.5;
    for (const std::string& note : list.notes)
        for (const std::string& line : wrapText(note, wide - 2 * type.padding, type.note)) {
            if (y + type.noteStep > height) {
                end(y);
                begin();
                y += 1.5;
            }
            y += type.noteStep;
            parts.back().text({type.padding, y}, line, type.note, Align::Left, false, Ink::Quiet);
        }
    end(y);
    return parts;
}

} // namespace lintel
