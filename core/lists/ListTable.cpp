#include "core/lists/ListTable.h"

#include "core/drawing/TextWidth.h"
#include "core/sheets/Symbols.h"

#include <algorithm>
#include <numeric>

namespace lintel {
namespace {

/// Lines of a row that are kept together: what has more goes on, on the next page too.
constexpr std::size_t mostLines = 24;
constexpr double tablePen = 0.13, headPen = 0.35, titlePen = 0.5;

bool anythingIn(const List& list, std::size_t column) {
    return std::any_of(list.rows.begin(), list.rows.end(), [&](const ListEntry& r) {
        return r.kind != ListEntry::Kind::Group && column < r.cells.size() && !r.cells[column].text.empty();
    });
}

} // namespace

ListType ListType::scaled(double k) const {
    ListType t = *this;
    for (double* mm : {&t.text, &t.head, &t.title, &t.note, &t.row, &t.rowStep, &t.headStep, &t.headPadding,
                       &t.noteStep, &t.base, &t.padding, &t.apart, &t.leastColumn, &t.longWord, &t.columnScale})
        *mm *= k;
    return t;
}

double ListTable::naturalWidth(const std::string& text, double size, bool bold) const {
    return textWidth(text, size, bold) + 2 * type.padding + 0.6;
}

double ListTable::widestWord(const std::string& text, double size) const {
    double widest = 0;
    std::size_t from = 0;
    while (from < text.size()) {
        const std::size_t to = std::min(text.find(' ', from), text.size());
        widest = std::max(widest, naturalWidth(text.substr(from, to - from), size, false));
        from = to + 1;
    }
    return widest;
}

ListTable::Wish ListTable::wishOf(std::size_t column) const {
    const ListColumn& c = of.columns[column];
    const std::string head = c.head();
    const double widest = c.widest * type.columnScale;
    Wish w{std::max(type.leastColumn, widestWord(head, type.head)), type.leastColumn};
    w.wanted = std::max(w.least, naturalWidth(head, type.head, false) * 0.55); // in two lines
    for (const ListEntry& r : of.rows) {
        if (r.kind == ListEntry::Kind::Group || column >= r.cells.size()) continue;
        const ListCell& cell = r.cells[column];
        if (cell.symbol) {
            w.least = std::max(w.least, type.row + 2 * type.padding);
            continue;
        }
        const double natural = naturalWidth(cell.text, type.text, r.kind == ListEntry::Kind::Total);
        w.wanted = std::max(w.wanted, std::min(widest, natural));
        constexpr std::size_t shortText = 12; // bytes; such a text stays in one line
        if (cell.value || cell.text.size() <= shortText) w.least = std::max(w.least, natural);
        w.least = std::max(w.least, std::min({widest, type.longWord, widestWord(cell.text, type.text)}));
    }
    w.wanted = std::max(w.wanted, w.least);
    return w;
}

ListTable::ListTable(const List& list, const ListType& type_) : of(list), type(type_) {
    for (std::size_t i = 0; i < of.columns.size(); ++i) {
        if (!anythingIn(of, i)) continue;
        const bool apart =
            !shown.empty() && of.columns[shown.back()].align == Align::Right && of.columns[i].align == Align::Left;
        if (apart) {
            wishes.back().least += type.apart;
            wishes.back().wanted += type.apart;
        }
        shown.push_back(i);
        wishes.push_back(wishOf(i));
    }
}

double ListTable::wanted() const {
    return std::accumulate(wishes.begin(), wishes.end(), 0.0, [](double sum, const Wish& w) { return sum + w.wanted; });
}
double ListTable::least() const {
    return std::accumulate(wishes.begin(), wishes.end(), 0.0, [](double sum, const Wish& w) { return sum + w.least; });
}

void ListTable::set(double most) {
    const double slack = wanted() - least();
    // Where it is too wide, all give of what they have above their least.
    const double over = wanted() - most, share = over > 0 && slack > 0 ? std::min(1.0, over / slack) : 0;
    widths.clear();
    wide = 0;
    for (const Wish& w : wishes) {
        widths.push_back(w.wanted - share * (w.wanted - w.least));
        wide += widths.back();
    }
    heads.clear();
    std::size_t headLines = 1;
    for (std::size_t i = 0; i < shown.size(); ++i) {
        heads.push_back(wrapText(of.columns[shown[i]].head(), widths[i] - 2 * type.padding, type.head));
        headLines = std::max(headLines, heads.back().size());
    }
    headings = type.headStep * double(headLines) + type.headPadding;
    setRows();
}

void ListTable::setRows() {
    entries.clear();
    cells.clear();
    heights.clear();
    for (std::size_t entry = 0; entry < of.rows.size(); ++entry) {
        const ListEntry& r = of.rows[entry];
        std::vector<std::vector<std::string>> row;
        const bool group = r.kind == ListEntry::Kind::Group, bold = r.kind != ListEntry::Kind::Figures;
        for (std::size_t i = 0; i < (group ? 1 : shown.size()); ++i) {
            const std::size_t c = group ? 0 : shown[i];
            const double room = (group ? wide : widths[i]) - 2 * type.padding;
            row.push_back(c < r.cells.size() && !r.cells[c].symbol ? wrapText(r.cells[c].text, room, type.text, bold)
                                                                   : std::vector<std::string>{});
        }
        addRow(entry, std::move(row));
    }
}

void ListTable::addRow(std::size_t entry, std::vector<std::vector<std::string>> lines) {
    std::size_t most = 1;
    for (const auto& cell : lines) most = std::max(most, cell.size());
    for (std::size_t from = 0; from < most; from += mostLines) {
        std::vector<std::vector<std::string>> part;
        for (const auto& cell : lines) {
            const auto first = cell.begin() + std::ptrdiff_t(std::min(from, cell.size()));
            const auto last = cell.begin() + std::ptrdiff_t(std::min(from + mostLines, cell.size()));
            part.emplace_back(first, last);
        }
        entries.push_back(entry);
        cells.push_back(std::move(part));
        heights.push_back(type.row + type.rowStep * double(std::min(most - from, mostLines) - 1));
    }
}

double ListTable::wholeHeight() const {
    return headHeight() + std::accumulate(heights.begin(), heights.end(), 0.0) +
           type.noteStep * 2 * double(of.notes.size());
}

/// Width of a column for its texts: numbers keep off the words that follow them.
double ListTable::roomOf(std::size_t i) const {
    const bool apart = i + 1 < shown.size() && of.columns[shown[i]].align == Align::Right &&
                       of.columns[shown[i + 1]].align == Align::Left;
    return widths[i] - (apart ? type.apart : 0);
}

void ListTable::cell(Drawing& d, const std::string& text, double x, double room, double base, Align align, double size,
                     bool bold, Ink ink) const {
    const double to = align == Align::Right    ? x + room - type.padding
                      : align == Align::Centre ? x + room / 2
                                               : x + type.padding;
    d.text({to, base}, text, size, align, bold, ink);
}

void ListTable::drawHead(Drawing& d, double x, double y, bool again) const {
    d.text({x, y + type.title}, of.title + (again ? ", continued" : ""), type.title, Align::Left, true);
    y += type.title * 1.6;
    d.line({x, y}, {x + wide, y}, titlePen);
    d.fill(x, y, wide, headings, Ink::Band);
    double from = x;
    for (std::size_t i = 0; i < heads.size(); ++i) {
        double base = y + headings - type.headStep * (double(heads[i].size()) - 0.5);
        for (const std::string& line : heads[i]) {
            cell(d, line, from, roomOf(i), base, of.columns[shown[i]].align, type.head, false, Ink::Ink);
            base += type.headStep;
        }
        from += widths[i];
    }
    d.line({x, y + headings}, {x + wide, y + headings}, headPen);
    if (!of.key.empty()) d.lists.push_back({of.key, x, y - type.title * 1.6, x + wide, y + headings});
}

void ListTable::drawRow(Drawing& d, std::size_t row, double x, double y) const {
    const ListEntry& r = entry(row);
    const bool bold = r.kind != ListEntry::Kind::Figures, group = r.kind == ListEntry::Kind::Group;
    if (r.kind == ListEntry::Kind::Total) d.line({x, y}, {x + wide, y}, headPen);
    double from = x;
    for (std::size_t i = 0; i < cells[row].size(); ++i) {
        const std::size_t c = group ? 0 : shown[i];
        double base = y + type.base;
        if (c < r.cells.size() && r.cells[c].symbol)
            drawSymbol(d, *r.cells[c].symbol, {from + roomOf(i) / 2, y + type.row / 2}, 0, Ink::Ink, type.text * 1.2);
        for (const std::string& line : cells[row][i]) {
            cell(d, line, from, group ? wide : roomOf(i), base, group ? Align::Left : of.columns[c].align, type.text,
                 bold, r.cells[c].ink);
            base += type.rowStep;
        }
        from += widths[i];
    }
    if (r.about) d.hotspots.push_back({r.about, x, y, x + wide, y + heights[row]});
    d.line({x, y + heights[row]}, {x + wide, y + heights[row]}, tablePen, Ink::Rule);
}

void ListTable::drawEnd(Drawing& d, double x, double y) const { d.line({x, y}, {x + wide, y}, headPen); }

} // namespace lintel
