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
    /// What the load tally and the first notes take below the table, mm.
    double below() const;
    void tally();
    void notes();

private:
    void fact(double x, double top, const std::string& label, const std::string& value, double within);
    std::vector<std::string> noteList() const;
};

/// The whole sheet, by a writer that has a table of its own kind of board.
template <class Writer> Drawing writeSchedule(const SheetInput& in, BoardId board, const std::string& number) {
    Writer w(in, board, number);
    w.titleStrip();
    w.table();
    w.tally();
    w.notes();
    footStrip(w.d, in, ScheduleWriter::margin);
    return std::move(w.d);
}

} // namespace lintel
