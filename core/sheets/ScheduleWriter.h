#pragma once
// What schedules of every kind of board share: title strip, load tally, phases and notes around a table of circuits.

#include "core/sheets/Sheets.h"

namespace lintel {

struct ScheduleWriter {
    static constexpr double margin = 11; ///< mm

    ScheduleWriter(const SheetInput& input, BoardId board, const std::string& number);

    const SheetInput& in;
    const Board& b;
    const BoardResult& r;
    Drawing d;
    int lines;
    double y = 0; ///< where the next part begins

    void titleStrip();
    /// What the load tally and the notes that stand on this sheet take below the table, mm.
    double below() const;
    /// Room of a name in a row, mm, and the size of its letters in one line.
    struct NameRoom {
        double width, height, size;
    };
    /// What a circuit serves; in two lines of smaller letters where one would have to be set much narrower. `quiet`: no
    /// load.
    void serves(Point at, const std::string& text, NameRoom room, Align align, bool quiet);
    void tally();
    /// Those that this sheet has room for; the others go on, none is left out.
    void notes();
    /// Sheets that the schedule takes: its table and tally are on the first, notes that find no room there on further
    /// ones.
    std::size_t pages() const;
    /// A further sheet, from 1, with its notes.
    void notesPage(std::size_t page);

private:
    static constexpr double noteSize = 2.5, noteStep = 4.2, noteIndent = 6;
    std::vector<std::vector<std::string>> noteLines; ///< of each note, as wide as the sheet
    std::size_t notesHere = 0;                       ///< notes on the first sheet

    void fact(double x, double top, const std::string& label, const std::string& value, double within);
    std::vector<std::string> noteList() const;
    void writeNote(std::size_t note);
    double withoutNotes() const;
    void heading();
    /// The first note of a further sheet.
    std::size_t firstOn(std::size_t page) const;
};

/// A whole sheet, by a writer that has a table of its own kind of board.
template <class Writer>
Drawing writeSchedule(const SheetInput& in, BoardId board, const std::string& number, std::size_t page) {
    Writer w(in, board, number);
    if (page > 0) {
        w.notesPage(page);
        footStrip(w.d, in, ScheduleWriter::margin);
        return std::move(w.d);
    }
    w.titleStrip();
    w.table();
    w.tally();
    w.notes();
    footStrip(w.d, in, ScheduleWriter::margin);
    return std::move(w.d);
}

} // namespace lintel
