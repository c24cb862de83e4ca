#include "core/sheets/FormFit.h"

#include "core/drawing/Paper.h"
#include "core/drawing/TextWidth.h"
#include "core/sheets/Sheets.h"

namespace lintel {

namespace {
constexpr double phaseColumn = 9; // mm
} // namespace

const std::string& schedulePaper(const SheetInput& in, const Board& b) {
    const bool isLong = scheduleRows(in, b) > (in.book.metric() ? 44 : 32);
    return isLong ? in.book.trade.papers.longSchedule : in.book.trade.papers.schedule;
}

double formWidth(const SheetInput& in, const Board& b) {
    const double all = paperSize(schedulePaper(in, b)).width - 2 * scheduleMargin;
    if (writtenInRows(in, b)) return all;
    return b.form == BoardForm::TwoColumn ? (all - phaseColumn) / 2 : all - phaseColumn;
}

FormFit fitOf(const SheetInput& in, const ScheduleForm& form, std::size_t column) {
    FormFit fit;
    for (const Board& b : in.project.boards) {
        if (passesOn(b.use) || &formOf(in, b) != &form) continue;
        const bool rows = writtenInRows(in, b);
        for (const LaidColumn& c : layColumns(form, b, formWidth(in, b))) {
            if (c.of != column) continue;
            const double room = c.width() - cellGap;
            fit.has = fit.has > 0 ? std::min(fit.has, room) : room;
            for (CircuitId id : in.results.on(b.id)) {
                const CircuitFacts facts(in, id);
                if (!facts.load()) continue;
                std::string text = c.line >= 0 ? "" : rows ? c.wording.of(facts) : c.wording.ofPole(facts, 0);
                if (c.line >= 0)
                    if (const auto va = lineVa(facts, c.line)) text = poleFigure("pole VA", facts, 0);
                if (text.empty()) continue;
                ++fit.cells;
                const double w = textWidth(text, form.letters > 0 ? form.letters : cellSize);
                if (w > fit.widest) fit.widest = w, fit.worst = id;
                fit.narrow += w * leastSqueeze > room && wrapText(text, room, cellSizeInTwo).size() > 2;
            }
        }
    }
    return fit;
}

} // namespace lintel
