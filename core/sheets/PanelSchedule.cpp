#include "core/base/Format.h"
#include "core/project/Operations.h"
#include "core/sheets/ScheduleWriter.h"
#include "core/sheets/Words.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// A side of the table: where its columns begin. On the right everything is mirrored.
struct Side {
    bool mirrored;
    double outer;                          ///< the edge of the table
    double ckt, breaker, serves, wire, va; ///< distances of the columns' outer edges from it
    double inner;                          ///< distance of the column of phase letters
    double phase;                          ///< width of one phase column
    double x(double distance) const { return mirrored ? outer - distance : outer + distance; }
};

struct Writer : ScheduleWriter {
    using ScheduleWriter::ScheduleWriter;

    Side side(bool mirrored, bool alone) const {
        const double half = (d.width - 2 * margin) / (alone ? 1 : 2), centre = alone ? 9 : 4.5;
        Side s{mirrored, mirrored ? d.width - margin : margin, 0, 8.5, 17.5, 0, 0, half - centre, alone ? 15.0 : 10.4};
        s.va = s.inner - lines * s.phase;
        s.wire = s.va - 11;
        s.serves = 17.5;
        return s;
    }

    void heading(const Side& s, double h) {
        const double base = y + h * 0.66;
        const auto mid = [&](double a, double c) { return (s.x(a) + s.x(c)) / 2; };
        d.text({mid(0, s.breaker), base}, "Ckt", 2.4, Align::Centre, true);
        d.text({mid(s.breaker, s.serves), base}, "Brkr", 2.4, Align::Centre, true);
        d.text({s.x(s.serves + 1.4), base}, "Serves", 2.4, s.mirrored ? Align::Right : Align::Left, true);
        d.text({mid(s.wire, s.va), base}, "Wire", 2.4, Align::Centre, true);
        for (int i = 0; i < lines; ++i) d.text({vaRight(s, i), base}, lineName(i, b), 2.4, Align::Right, true);
    }
    /// Right edge of the figures of a phase: A to C from left to right on both sides.
    double vaRight(const Side& s, int line) const {
        const double left = s.mirrored ? s.x(s.inner) : s.x(s.va);
        return left + (line + 1) * s.phase - 1.3;
    }

    void circuit(const Side& s, double top, double h, int rows, const Circuit& c) {
        const CircuitResult& cr = in.results.of(c.id);
        const bool spare = c.use != CircuitUse::Load;
        const double base = top + rows * h / 2 + 0.95;
        const auto mid = [&](double a, double z) { return (s.x(a) + s.x(z)) / 2; };
        const int step = b.form == BoardForm::TwoColumn ? 2 : 1;
        for (int row = 0; row < rows; ++row) // each pole has its own number
            d.text({mid(0, s.breaker), top + (row + 0.5) * h + 0.95}, std::to_string(c.slot + row * step), 2.5,
                   Align::Centre);
        if (c.use != CircuitUse::Reserved)
            d.text({mid(s.breaker, s.serves), base}, breakerWords(cr.device, c.poles), 2.5, Align::Centre, true);
        serves({s.x(s.serves + 1.4), base}, servesWords(in.project, in.results, c.id),
               {s.wire - s.serves - 2.4, rows * h, 2.5}, s.mirrored ? Align::Right : Align::Left, spare);
        if (!spare) {
            const RunResult* run = in.results.run(c.id);
            if (run && run->size >= 0)
                d.text({mid(s.wire, s.va), base}, sizeShort(*run), 2.4, Align::Centre, false, Ink::Ink,
                       s.va - s.wire - 1);
        }
        for (int i = 0; i < c.poles; ++i) {
            const int line = cr.lines[std::size_t(i)];
            if (line < 0 || c.use == CircuitUse::Reserved) continue;
            const double va = cr.feeder || !cr.placed ? cr.phaseVa[std::size_t(line)] : cr.va / c.poles;
            d.text({vaRight(s, line), top + (i + 0.5) * h + 0.95}, number(va), 2.5, Align::Right, false,
                   spare ? Ink::Quiet : Ink::Ink, s.phase - 1.6);
        }
        d.hotspots.push_back(
            {c.id, std::min(s.x(0), s.x(s.inner)), top, std::max(s.x(0), s.x(s.inner)), top + rows * h});
    }
    std::string sizeShort(const RunResult& run) const {
        std::string w = sizeOf(run, in.book);
        if (const auto k = w.find(" kcmil"); k != std::string::npos) w.erase(k);
        return w;
    }

    void table() {
        const bool two = b.form == BoardForm::TwoColumn;
        const int rows = two ? (b.slots + 1) / 2 : b.slots;
        const double head = 5.6, h = std::clamp((d.height - y - below()) / std::max(rows, 1), 3.1, 5.6);
        const std::vector<Side> sides =
            two ? std::vector{side(false, false), side(true, false)} : std::vector{side(false, true)};
        const double left = margin, right = d.width - margin, top = y + head, bottom = top + rows * h;
        d.fill(left, y, right - left, head, Ink::Band);
        const double c1 = sides[0].x(sides[0].inner), c2 = two ? sides[1].x(sides[1].inner) : right;
        for (const Side& s : sides) heading(s, head);
        d.text({(c1 + c2) / 2, y + head * 0.66}, "φ", 2.4, Align::Centre, true);
        const auto map = slotMap(in.project, b, in.results.on(b.id));
        for (const Side& s : sides) {
            for (double x : {s.breaker, s.serves, s.wire, s.va}) d.line({s.x(x), y}, {s.x(x), bottom}, 0.12, Ink::Rule);
            for (int i = 1; i < lines; ++i) {
                const double x = (s.mirrored ? s.x(s.inner) : s.x(s.va)) + i * s.phase;
                d.line({x, y}, {x, bottom}, 0.12, Ink::Faint);
            }
        }
        for (int row = 0; row < rows; ++row) {
            const double ry = top + row * h;
            const int slotLeft = two ? 2 * row + 1 : row + 1;
            d.text({(c1 + c2) / 2, ry + h / 2 + 0.9}, lineName(lineOfSlot(b, slotLeft), b), 2.4, Align::Centre, true,
                   Ink::Quiet);
            for (std::size_t k = 0; k < sides.size(); ++k) {
                const Side& s = sides[k];
                const int slot = slotLeft + int(k);
                if (slot > b.slots) continue;
                const Circuit* c = in.project.circuits.find(map[std::size_t(slot)]);
                const bool goesOn = c && slot > c->slot;
                if (!goesOn)
                    d.line({s.x(0), ry}, {s.x(s.inner), ry}, 0.18, Ink::Rule);
                else
                    d.line({s.x(s.va), ry}, {s.x(s.inner), ry}, 0.1, Ink::Faint);
                if (!c) {
                    d.text({(s.x(0) + s.x(s.breaker)) / 2, ry + h / 2 + 0.95}, std::to_string(slot), 2.5, Align::Centre,
                           false, Ink::Quiet);
                    d.text({s.x(s.serves + 1.4), ry + h / 2 + 0.95}, "Space", 2.5,
                           s.mirrored ? Align::Right : Align::Left, false, Ink::Quiet);
                    d.lastText()->italic = true;
                } else if (c->slot == slot) {
                    circuit(s, ry, h, std::min(c->poles, rows - row), *c);
                }
            }
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
    if (board.form == BoardForm::Ways || (in.book.metric() && board.form == BoardForm::SingleColumn))
        return waySchedule(in, id, number, page);
    return writeSchedule<Writer>(in, id, number, page);
}

std::size_t schedulePages(const SheetInput& in, BoardId id) { return ScheduleWriter(in, id, "").pages(); }

} // namespace lintel
