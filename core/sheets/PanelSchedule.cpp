#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/Operations.h"
#include "core/project/Slots.h"
#include "core/sheets/FormFit.h"
#include "core/sheets/ScheduleWriter.h"

#include <fmt/format.h>
#include <span>

namespace lintel {
namespace {

/// A side of the table. Its columns begin at the edge of the sheet and end beside the letters of the lines: on the
/// right in the reverse order. Text reads from the left on both.
struct Side {
    bool mirrored;
    double outer, inner; ///< mm from the left of the sheet
    std::vector<LaidColumn> columns;
    double left(const LaidColumn& c) const { return mirrored ? outer - c.to : outer + c.from; }
    double right(const LaidColumn& c) const { return mirrored ? outer - c.from : outer + c.to; }
};

struct Writer : ScheduleWriter {
    using ScheduleWriter::ScheduleWriter;

    Side side(bool mirrored) const {
        const double width = formWidth(in, b), outer = mirrored ? d.width - margin : margin;
        Side s{mirrored, outer, mirrored ? outer - width : outer + width, layColumns(form, b, width)};
        if (mirrored) keepLinesInOrder(s.columns);
        return s;
    }
    /// Columns for each line stand from A to C on both sides.
    static void keepLinesInOrder(std::vector<LaidColumn>& columns) {
        for (std::size_t i = 0; i < columns.size(); ++i) {
            if (columns[i].line != 0) continue;
            std::size_t n = 1;
            while (i + n < columns.size() && columns[i + n].line > 0) ++n;
            for (std::size_t k = 0; k < n / 2; ++k) {
                LaidColumn &a = columns[i + k], &z = columns[i + n - 1 - k];
                std::swap(a.line, z.line);
                std::swap(a.heading, z.heading);
            }
            i += n - 1;
        }
    }

    void heading(const Side& s, double h) {
        for (const LaidColumn& c : s.columns) {
            cell({.left = s.left(c),
                  .right = s.right(c),
                  .top = y,
                  .height = h,
                  .align = c.align,
                  .size = 2.4,
                  .bold = true},
                 c.heading);
            d.headings.push_back({b.id, c.of, s.mirrored, s.left(c), y, s.right(c), y + h});
        }
    }

    /// `rules`: the tops of its rows, and the foot of the last; `firstPole`: of those, where the others stand on the
    /// page before.
    void circuit(const Side& s, std::span<const double> rules, const Circuit& c, std::size_t firstPole) {
        const double top = rules.front(), foot = rules.back();
        const std::size_t rows = rules.size() - 1;
        const CircuitFacts facts(in, c.id, notesOf(c.id));
        const bool quiet = c.use != CircuitUse::Load;
        for (const LaidColumn& column : s.columns) {
            Cell place{.left = s.left(column),
                       .right = s.right(column),
                       .top = top,
                       .height = foot - top,
                       .align = column.align,
                       .bold = heavy(column.wording)};
            if (column.line >= 0 || column.wording.byPole()) { // a row for each pole
                if (quiet && !column.wording.byPole()) place.ink = Ink::Quiet;
                for (std::size_t row = 0; row < rows; ++row) {
                    const std::size_t pole = firstPole + row;
                    place.top = rules[row];
                    place.height = rules[row + 1] - rules[row];
                    if (column.line < 0)
                        cell(place, column.wording.ofPole(facts, int(pole)));
                    else if (facts.r.lines[pole] == column.line)
                        cell(place, poleFigure("pole VA", facts, int(pole)));
                }
                continue;
            }
            const CircuitFigure* figure = column.wording.alone();
            const bool names = figure && figure->key == std::string("serves");
            place.ink = quiet && names ? Ink::Quiet : Ink::Ink;
            place.italic = quiet && names;
            cell(place, wordsOf(column.wording, facts));
        }
        d.hotspots.push_back({c.id, std::min(s.outer, s.inner), top, std::max(s.outer, s.inner), foot});
    }

    void space(const Side& s, double top, double h, int slot) {
        const std::string line = lineName(lineOfSlot(b, slot), b);
        for (const LaidColumn& c : s.columns)
            if (c.line < 0) {
                const std::string text = spaceWords(c.wording, slot, line);
                cell({.left = s.left(c),
                      .right = s.right(c),
                      .top = top,
                      .height = h,
                      .align = c.align,
                      .italic = !c.wording.figures().empty() && c.wording.figures().front() == "serves",
                      .ink = Ink::Quiet},
                     text);
            }
    }

    /// Those whose rows stand on a side.
    std::vector<CircuitId> circuitsOf(const Side& s, bool two) const {
        std::vector<CircuitId> out;
        for (CircuitId id : in.results.on(b.id)) {
            const Circuit& c = in.project.circuits[id];
            if (c.slot > 0 && in.results.of(id).placed && (!two || (c.slot % 2 == 0) == s.mirrored)) out.push_back(id);
        }
        return out;
    }

    /// The rule above a row; where a circuit goes on, only in the columns that have a row for each of its poles.
    void ruleAbove(const Side& s, double top, bool goesOn) {
        if (!goesOn) return rowRule({s.outer, top}, {s.inner, top}, true);
        for (const LaidColumn& c : s.columns)
            if (c.line >= 0 || c.wording.byPole()) rowRule({s.left(c), top}, {s.right(c), top}, false);
    }

    std::vector<TableRow> tableRows() const override {
        const bool two = b.form == BoardForm::TwoColumn;
        const std::vector<Side> sides = bothSides();
        std::vector<TableRow> rows(std::size_t(two ? (b.slots + 1) / 2 : b.slots));
        for (CircuitId id : in.results.on(b.id)) {
            const CircuitFacts facts(in, id, notesOf(id));
            if (facts.c.slot < 1 || !facts.r.placed) continue;
            const std::size_t side = two ? std::size_t((facts.c.slot - 1) % 2) : 0,
                              row = std::size_t(two ? (facts.c.slot - 1) / 2 : facts.c.slot - 1),
                              end = std::min(row + std::size_t(facts.c.poles), rows.size());
            double most = 0;
            for (const LaidColumn& column : sides[side].columns)
                if (column.line < 0 && !column.wording.byPole())
                    most =
                        std::max(most, heightOf(wordsOf(column.wording, facts), column.width(), heavy(column.wording)));
            for (std::size_t i = row; i < end; ++i) {
                rows[i].asked = std::max(rows[i].asked, most / double(end - row));
                rows[i].mayBegin = rows[i].mayBegin && i == row;
            }
        }
        return rows;
    }
    std::vector<Side> bothSides() const {
        return b.form == BoardForm::TwoColumn ? std::vector{side(false), side(true)} : std::vector{side(false)};
    }

    /// Where the rows of a page begin, and where the last ends: higher where a text of a circuit takes several lines.
    std::vector<double> rowTops(std::size_t page, double top) const {
        std::vector<double> tops{top};
        for (double h : rowHeights(askedOn(page), rowRoom(page), 3.1 * lettersScale(), 5.6 * lettersScale()))
            tops.push_back(tops.back() + h);
        return tops;
    }

    void table(std::size_t page) {
        const bool two = b.form == BoardForm::TwoColumn;
        const int from = int(stretches[page].from), to = int(stretches[page].to);
        const double head = 5.6;
        const std::vector<Side> sides = bothSides();
        const double left = margin, right = d.width - margin, top = y + head;
        const std::vector<double> tops = rowTops(page, top);
        const double rowsEnd = tops.back(), bottom = rowsEnd + (isLast(page) ? sumsHeight() : 0);
        d.fill(left, y, right - left, head, Ink::Band);
        const double c1 = sides[0].inner, c2 = two ? sides[1].inner : right;
        for (const Side& s : sides) heading(s, head);
        d.text({(c1 + c2) / 2, y + head * 0.66}, "φ", 2.4, Align::Centre, true);
        for (const Side& s : sides)
            for (const LaidColumn& c : s.columns) {
                if (c.from <= 0) continue; // the edge of the table
                const double x = s.mirrored ? s.right(c) : s.left(c);
                d.line({x, y}, {x, bottom}, 0.12, c.line > 0 ? Ink::Faint : Ink::Rule);
            }
        const auto map = slotMap(in.project, b, in.results.on(b.id));
        for (int row = from; row < to; ++row) {
            const double ry = tops[std::size_t(row - from)], h = tops[std::size_t(row - from) + 1] - ry;
            const int slotLeft = two ? 2 * row + 1 : row + 1;
            d.text({(c1 + c2) / 2, ry + h / 2 + 0.9}, lineName(lineOfSlot(b, slotLeft), b), 2.4, Align::Centre, true,
                   Ink::Quiet);
            for (std::size_t k = 0; k < sides.size(); ++k) {
                const Side& s = sides[k];
                const int slot = slotLeft + int(k);
                if (slot > b.slots) continue;
                const Circuit* c = in.project.circuits.find(map[std::size_t(slot)]);
                ruleAbove(s, ry, c && slot > c->slot && row > from);
                if (!c) {
                    space(s, ry, h, slot);
                    continue;
                }
                if (c->slot != slot && row > from) continue; // drawn with its first row here
                const int pole = (slot - c->slot) / (two ? 2 : 1), poles = std::min(c->poles - pole, to - row);
                circuit(s, std::span(tops).subspan(std::size_t(row - from), std::size_t(poles) + 1), *c,
                        std::size_t(pole));
            }
        }
        if (isLast(page) && sumsHeight() > 0) {
            d.line({left, rowsEnd}, {right, rowsEnd}, 0.35);
            for (const Side& s : sides)
                sumRow(
                    s.columns, circuitsOf(s, two),
                    [&](const LaidColumn& c) { return std::pair(s.left(c), s.right(c)); }, rowsEnd);
        }
        d.box(left, y, right - left, bottom - y, 0.5);
        d.line({left, top}, {right, top}, 0.35);
        d.line({c1, y}, {c1, bottom}, 0.35);
        if (two) d.line({c2, y}, {c2, bottom}, 0.35);
        y = bottom;
    }
};

} // namespace

Drawing panelSchedule(const SheetInput& in, BoardId id, const std::string& number, std::size_t page) {
    const Board& board = in.project.boards[id];
    if (writtenInRows(in, board)) return waySchedule(in, id, number, page);
    return writeSchedule<Writer>(in, id, number, page);
}

std::vector<Drawing> panelScheduleParts(const SheetInput& in, BoardId id, double height) {
    const Board& board = in.project.boards[id];
    if (writtenInRows(in, board)) return wayScheduleParts(in, id, height);
    return writeScheduleParts<Writer>(in, id, height);
}

int scheduleRows(const SheetInput& in, const Board& b) {
    if (writtenInRows(in, b)) return wayScheduleRows(in, b);
    return b.form == BoardForm::TwoColumn ? (b.slots + 1) / 2 : b.slots;
}

ScheduleSheets scheduleSheets(const SheetInput& in, BoardId id) {
    if (writtenInRows(in, in.project.boards[id])) return wayScheduleSheets(in, id);
    return sheetsOfSchedule<Writer>(in, id);
}
std::size_t schedulePages(const SheetInput& in, BoardId id) { return scheduleSheets(in, id).all; }

} // namespace lintel
