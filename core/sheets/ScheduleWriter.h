#pragma once
// What schedules of every kind of board share: title strip, load tally, phases and notes around a table of circuits,
// whose columns are those of the board's form.

#include "core/figures/ScheduleForms.h"
#include "core/sheets/FormFit.h"
#include "core/sheets/Sheets.h"

#include <functional>

namespace lintel {

struct ScheduleWriter {
    static constexpr double margin = scheduleMargin; ///< mm

    /// `height`: mm of a view on another sheet, without a heading and foot of its own; 0: a sheet of its own. `plan()`
    /// comes next.
    ScheduleWriter(const SheetInput& input, BoardId board, const std::string& number, double height = 0);
    virtual ~ScheduleWriter() = default;

    /// A row of the table: what its texts ask for, mm (0: they fit in one line), and whether a page may begin with it.
    struct TableRow {
        double asked = 0;
        bool mayBegin = true;
    };
    virtual std::vector<TableRow> tableRows() const = 0;
    /// The heading under which a row stands, where another page begins with it; empty: none.
    virtual std::string headingOver(std::size_t) const { return ""; }
    /// Shares the rows and the notes out over the pages.
    void plan();
    /// Rows from … to before which they stand on a page.
    struct Stretch {
        std::size_t from = 0, to = 0;
    };
    std::vector<Stretch> stretches; ///< one for each page of the table
    /// What the rows of a page ask for, mm.
    std::vector<double> askedOn(std::size_t page) const;
    bool isLast(std::size_t page) const { return page + 1 == stretches.size(); }
    /// mm for the rows of a page, where its table begins at `y`.
    double rowRoom(std::size_t page) const;

    const SheetInput& in;
    const Board& b;
    const BoardResult& r;
    Drawing d;
    int lines;
    bool onOther; ///< it is a view on another sheet
    const ScheduleForm& form;
    double y = 0; ///< where the next part begins

    void titleStrip();
    /// In its place on a page on which the table goes on, and what says there that it does.
    void continuedStrip(std::size_t page);
    void goesOn(std::size_t page);
    /// What the load tally and the notes that stand on this sheet take below the table, mm.
    double below() const;
    /// A cell of the table: where it is, and how its text stands in it.
    struct Cell {
        double left, right, top, height;
        ColumnAlign align = ColumnAlign::Left;
        double size = 0; ///< of the letters in one line; 0: those of the rows
        bool bold = false, italic = false;
        Ink ink = Ink::Ink;
    };
    /// In two lines of smaller letters where one would have to be set much narrower, and the row is high enough.
    void cell(const Cell& cell, const std::string& text);
    /// mm that a text asks for in a column so wide: for one line, or for as many smaller ones as it takes.
    double heightOf(const std::string& text, double width, bool bold = false) const;
    /// mm of the letters of rows, as the form has it or the usual; and their share of the usual.
    double letters() const { return form.letters > 0 ? form.letters : usualLetters; }
    double lettersScale() const { return letters() / usualLetters; }
    double usualLetters = cellSize;
    /// A line between rows, stronger where a circuit or way begins; none where the form has none.
    void rowRule(Point from, Point to, bool begins, double lightPen = 0.18);
    /// Rows of a table in so much room: as high as `most` where that is enough, but never below what each asks for.
    /// Where there is not enough room, rows that ask for nothing are down to `least`, and then all are lowered alike.
    static std::vector<double> rowHeights(const std::vector<double>& asked, double room, double least, double most);
    /// mm of the row below the others in which columns are added up; 0: the form has none.
    double sumsHeight() const { return addsUp(form) ? 5.2 * lettersScale() : 0; }
    /// What stands there in a column, of the circuits of these rows: VA of each line and kind, of all, and points.
    std::string sumOf(const LaidColumn& column, const std::vector<CircuitId>& circuits) const;
    /// The row of sums from `top` down; `edges`: left and right of a column on the sheet.
    void sumRow(const std::vector<LaidColumn>& columns, const std::vector<CircuitId>& circuits,
                const std::function<std::pair<double, double>(const LaidColumn&)>& edges, double top);
    /// Numbers of the notes that speak of a circuit: "1,3".
    std::string notesOf(CircuitId circuit) const;
    /// Whether a column is set in heavy letters: places of ways, and devices.
    static bool heavy(const Wording& wording);
    /// What a column says of a place without a circuit; `line`: 0 … 2, the lines of its poles.
    std::string spaceWords(const Wording& wording, int slot, const std::string& line) const;
    /// What a column says of a circuit.
    std::string wordsOf(const Wording& wording, const CircuitFacts& facts) const;
    /// Load tally and phases, as far as the form has them.
    void tally();
    /// Those that this sheet has room for; the others go on, none is left out.
    void notes();
    /// Sheets that the schedule takes: its table and tally are on the first, notes that find no room there on further
    /// ones.
    std::size_t pages() const;
    /// A sheet behind those of the table, with its notes.
    void notesPage(std::size_t page);
    /// As a view: without the margins around it, and no higher than what has been written.
    Drawing cut() const;

private:
    static constexpr double noteSize = 2.5, noteStep = 4.2, noteIndent = 6;
    std::vector<std::vector<std::string>> noteLines; ///< of each note, as wide as the sheet
    std::map<CircuitId, std::string> noteNumbers;
    std::size_t notesHere = 0; ///< notes on the first sheet

    void nameAndDescription();
    void fact(double x, double top, const std::string& label, const std::string& value, double within);
    void writeNote(std::size_t note);
    double withoutNotes() const;
    /// Each from `y` down: its lower edge.
    double loadTally();
    double phases();
    void heading();
    /// The first note of a sheet of notes, from 1.
    std::size_t firstOn(std::size_t notesSheet) const;
    std::size_t stretchFrom(const std::vector<TableRow>& rows, std::size_t from) const;
    /// "sheet E-605.2", whatever comes behind this one.
    std::string nextWords(std::size_t page) const;
    std::string firstNumber; ///< of the first sheet
    std::vector<TableRow> planned;
};

/// The first page or a further one, by a writer that has a table of its own kind of board.
template <class Writer> void writePage(Writer& w, std::size_t page) {
    if (page >= w.stretches.size()) return w.notesPage(page);
    if (page == 0)
        w.titleStrip();
    else
        w.continuedStrip(page);
    w.table(page);
    if (!w.isLast(page)) return w.goesOn(page);
    w.tally();
    w.notes();
}
template <class Writer> ScheduleSheets sheetsOfSchedule(const SheetInput& in, BoardId board) {
    Writer w(in, board, "");
    w.plan();
    return {w.stretches.size(), w.pages()};
}
/// A whole sheet.
template <class Writer>
Drawing writeSchedule(const SheetInput& in, BoardId board, const std::string& number, std::size_t page) {
    Writer w(in, board, number);
    w.plan();
    writePage(w, page);
    footStrip(w.d, in, ScheduleWriter::margin);
    return std::move(w.d);
}
/// The same as views, each cut to what stands on it.
template <class Writer> std::vector<Drawing> writeScheduleParts(const SheetInput& in, BoardId board, double height) {
    std::vector<Drawing> parts;
    std::size_t pages = 1;
    for (std::size_t page = 0; page < pages; ++page) {
        Writer w(in, board, "", height);
        w.plan();
        pages = w.pages();
        writePage(w, page);
        parts.push_back(w.cut());
    }
    return parts;
}

} // namespace lintel
