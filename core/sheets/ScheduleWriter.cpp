#include "core/sheets/ScheduleWriter.h"

#include "core/base/Format.h"
#include "core/base/Limits.h"
#include "core/drawing/Paper.h"
#include "core/drawing/PlaceDrawing.h"
#include "core/drawing/TextWidth.h"
#include "core/figures/ScheduleForms.h"
#include "core/figures/Words.h"
#include "core/project/FreePlaces.h"
#include "core/project/Operations.h"
#include "core/project/SheetNumbers.h"
#include "core/sheets/BoardHead.h"
#include "core/sheets/BoardNotes.h"
#include "core/sheets/FitWords.h"
#include "core/sheets/FormFit.h"
#include "core/sheets/PageNumber.h"

#include <fmt/format.h>

namespace lintel {

namespace {
constexpr double viewTop = 16.5; ///< mm of a page above the line over its title strip
}

ScheduleWriter::ScheduleWriter(const SheetInput& input, BoardId board, const std::string& sheetNumber, double height)
    : in(input), b(input.project.boards[board]), r(input.results.of(board)), lines(factsOf(b.system).lines),
      onOther(height > 0), form(formOf(in, b)), firstNumber(sheetNumber) {
    d.title = sheetTitle(in.project, {SheetKind::Schedule, board}, b.name);
    d.number = sheetNumber;
    d.paper = schedulePaper(in, b);
    const PaperSize size = paperSize(d.paper);
    d.width = size.width;
    d.height = onOther ? height + viewTop : size.height;
    const double wide = d.width - 2 * margin - noteIndent;
    const std::vector<BoardNote> notes = boardNotes(in, b);
    for (const BoardNote& note : notes) noteLines.push_back(wrapText(note.text, wide, noteSize));
    noteNumbers = numbersOfNotes(notes);
}

namespace {
constexpr double tableTop = 39, tableHead = 5.8; ///< mm: of a page above its table, and of the table's headings
/// mm below a table that goes on: that is said there, above the foot of a sheet of its own.
double goesOnRoom(bool onOther) { return onOther ? 14 : 28; }
} // namespace

std::vector<double> ScheduleWriter::askedOn(std::size_t page) const {
    std::vector<double> asked;
    for (std::size_t i = stretches[page].from; i < stretches[page].to; ++i) asked.push_back(planned[i].asked);
    return asked;
}

double ScheduleWriter::rowRoom(std::size_t page) const {
    return d.height - y - (isLast(page) ? sumsHeight() + below() : goesOnRoom(onOther));
}

/// The end of the rows that stand on a page beginning with `from`: all that are left where they have room above the
/// tally, else as many as a page without one holds.
std::size_t ScheduleWriter::stretchFrom(const std::vector<TableRow>& rows, std::size_t from) const {
    constexpr std::size_t leastOnLast = 4;
    const double larger = std::max(1.0, form.letters / cellSize), comfortable = 4.4 * larger, tight = 3.7 * larger;
    const double page = d.height - tableTop - tableHead, above = page - sumsHeight() - withoutNotes();
    double all = 0;
    for (std::size_t i = from; i < rows.size(); ++i) all += std::max(rows[i].asked, tight);
    if (all <= above) return rows.size();
    std::size_t end = from;
    for (double used = 0; end < rows.size(); ++end) {
        used += std::max(rows[end].asked, comfortable);
        if (used > page - goesOnRoom(onOther) && end > from) break;
    }
    if (end + leastOnLast > rows.size()) end = std::max(from + 1, rows.size() - std::min(rows.size(), leastOnLast));
    // Back to where a circuit or a way begins, unless a third of the page would stay empty.
    const std::size_t furthest = (end - from) / 3;
    for (std::size_t back = 0; back <= furthest && end > from + back + 1; ++back)
        if (rows[end - back].mayBegin) return end - back;
    return end;
}

void ScheduleWriter::plan() {
    planned = tableRows();
    stretches.clear();
    do {
        const std::size_t from = stretches.empty() ? 0 : stretches.back().to;
        stretches.push_back({from, stretchFrom(planned, from)});
    } while (stretches.back().to < planned.size());
    // Rows give way to notes down to a comfortable height, and to the last of them a little further.
    const double larger = std::max(1.0, form.letters / cellSize), comfortable = 4.4 * larger, tight = 3.7 * larger;
    const double rows = double(stretches.back().to - stretches.back().from);
    const double left = d.height - tableTop - tableHead - sumsHeight() - withoutNotes();
    double all = 0;
    for (const auto& note : noteLines) all += noteStep * double(note.size());
    notesHere = 0;
    if (all <= left - rows * tight) {
        notesHere = noteLines.size();
        return;
    }
    double used = noteStep; // of the line that says where they go on
    while (notesHere < noteLines.size()) {
        used += noteStep * double(noteLines[notesHere].size());
        if (used > left - rows * comfortable) break;
        ++notesHere;
    }
}

void ScheduleWriter::fact(double x, double top, const std::string& label, const std::string& value, double within) {
    d.text({x, top}, label, sizeWithin(label, within, 2.3), Align::Left, false, Ink::Quiet, within);
    if (standsInOneLine(value, within, 2.9))
        return d.text({x, top + 4.1}, value, 2.9, Align::Left, false, Ink::Ink, within);
    putLines(d, {x, top + 3.6}, fitWords(value, within, 2, 2.6, 1.8), 2.9, within);
}

/// The board's name, large; a long one smaller and in more lines above one another. What it is beneath it.
void ScheduleWriter::nameAndDescription() {
    constexpr double room = 34, size = 8.4, least = 5.6, lowest = 29.8;
    if (const double one = sizeWithin(b.name, room, size, true); one >= least) {
        d.text({margin, 27}, b.name, one, Align::Left, true, Ink::Ink, room);
    } else {
        FittedWords words = fitWords(b.name, room, 2, 5.4, 4.2, true);
        if (!words.whole) words = fitWords(b.name, room, 3, 3.8, 3.0, true);
        if (!words.whole) words = fitWords(b.name, room, 4, 2.9, 1.8, true);
        const double step = words.size * 1.12;
        putLines(d, {margin, lowest - step * double(words.lines.size() - 1)}, words, step, room, true);
    }
    if (standsInOneLine(b.description, room, 2.5))
        return d.text({margin, 34}, b.description, 2.5, Align::Left, false, Ink::Quiet, room);
    putLines(d, {margin, 33.6}, fitWords(b.description, room, 2, 2.3, 1.6), 2.7, room, false, Ink::Quiet);
}

void ScheduleWriter::heading() {
    if (onOther) return d.line({margin, viewTop}, {d.width - margin, viewTop}, 0.5);
    const Basis& basis = in.project.basis;
    const std::string left = sheetTitle(in.project, {SheetKind::Schedule, b.id},
                                        b.use == BoardUse::Switchboard ? "SWITCHBOARD SCHEDULE"
                                        : b.use == BoardUse::Busway    ? "BUSWAY SCHEDULE"
                                                                       : in.book.word(TradeWord::ScheduleHeading));
    d.text({margin, 14}, left, 3.2, Align::Left, true);
    std::string right = basis.company.empty() ? basis.title : basis.company + " · " + basis.title;
    if (!basis.jobNumber.empty()) right += " · " + basis.jobNumber;
    right += " · issue " + basis.issue;
    if (!basis.issueDate.empty()) right += " · " + basis.issueDate;
    // What is too long for the line goes on above it.
    const auto told = wrapText(right, d.width - 2 * margin - textWidth(left, 3.2, true) - 6, 2.7);
    for (std::size_t i = 0; i < told.size(); ++i)
        d.text({d.width - margin, 14 - 3.6 * double(told.size() - 1 - i)}, told[i], 2.7, Align::Right);
    d.line({margin, 16.5}, {d.width - margin, 16.5}, 0.5);
}

void ScheduleWriter::titleStrip() {
    heading();
    nameAndDescription();
    const double x1 = margin + 38, x2 = x1 + 50, x3 = x2 + 52, last = d.width - margin - x3;
    const std::vector<HeadFact> facts = scheduleHead(in, b, form);
    const std::array<double, 3> columns{x1, x2, x3}, widths{46, 48, last};
    for (std::size_t i = 0; i < facts.size() && i < limits::formFacts; ++i)
        fact(columns[i % 3], i < 3 ? 21 : 30, facts[i].label, facts[i].value, widths[i % 3]);
    y = 39;
}

void ScheduleWriter::cell(const Cell& c, const std::string& text) {
    if (text.empty()) return;
    constexpr double edge = 1.2;
    const double size = c.size > 0 ? c.size : letters();
    const double scale = c.size > 0 ? 1 : lettersScale(), small = cellSizeInTwo * scale;
    const double twoLines = 4.6 * std::max(1.0, scale);
    const double room = c.right - c.left - cellGap, middle = c.top + c.height / 2;
    const auto write = [&](double base, const std::string& line, double mm) {
        const double x = c.align == ColumnAlign::Left    ? c.left + edge
                         : c.align == ColumnAlign::Right ? c.right - edge
                                                         : (c.left + c.right) / 2;
        d.text({x, base}, line, mm,
               c.align == ColumnAlign::Left    ? Align::Left
               : c.align == ColumnAlign::Right ? Align::Right
                                               : Align::Centre,
               c.bold, c.ink, room);
        if (c.italic) d.lastText()->italic = true;
    };
    if (textWidth(text, size, c.bold) * leastSqueeze <= room || c.height < twoLines)
        return write(middle + 0.95 * std::max(1.0, scale), text, size);
    const double step = small * 1.15;
    const std::size_t most = std::max<std::size_t>(2, std::size_t(c.height / step));
    const auto parts = linesAtMost(wrapText(text, room, small, c.bold), most);
    double base = middle + 0.75 * std::max(1.0, scale) - step * double(parts.size() - 1) / 2;
    for (const std::string& part : parts) {
        write(base, part, small);
        base += step;
    }
}

double ScheduleWriter::heightOf(const std::string& text, double width, bool bold) const {
    const double room = width - cellGap, size = letters(), small = cellSizeInTwo * lettersScale();
    if (text.empty() || textWidth(text, size, bold) * leastSqueeze <= room) return 0;
    return double(wrapText(text, room, small, bold).size()) * small * 1.15 + 0.6;
}

void ScheduleWriter::rowRule(Point from, Point to, bool begins, double lightPen) {
    switch (form.rules) {
    case FormRules::Light:
        return d.line(from, to, begins ? lightPen : 0.1, begins ? Ink::Rule : Ink::Faint);
    case FormRules::Strong:
        return d.line(from, to, begins ? 0.25 : 0.13, begins ? Ink::Ink : Ink::Quiet);
    case FormRules::None:
        return;
    }
}

std::vector<double> ScheduleWriter::rowHeights(const std::vector<double>& asked, double room, double least,
                                               double most) {
    // The height of rows that ask for nothing: the others take theirs, as long as it is above it.
    double usual = asked.empty() ? most : std::clamp(room / double(asked.size()), least, most);
    for (int pass = 0; pass < 8; ++pass) {
        double taken = 0;
        std::size_t others = 0;
        for (double a : asked) a > usual ? taken += a : ++others;
        const double next = others ? std::clamp((room - taken) / double(others), least, usual) : usual;
        if (std::abs(next - usual) < 1e-6) break;
        usual = next;
    }
    std::vector<double> heights;
    double all = 0;
    for (double a : asked) {
        heights.push_back(std::max(a, usual));
        all += heights.back();
    }
    const double holds = std::max(room, double(asked.size()) * least);
    if (all > holds)
        for (double& h : heights) h = std::max(least, h * holds / all);
    return heights;
}

std::string ScheduleWriter::sumOf(const LaidColumn& column, const std::vector<CircuitId>& circuits) const {
    const CircuitFigure* figure = column.wording.alone();
    if (column.line < 0 && !figure) return "";
    const std::string key = figure ? figure->key : "";
    double sum = 0;
    bool any = false;
    for (CircuitId id : circuits) {
        const CircuitFacts facts(in, id);
        const auto part = column.line >= 0 ? lineVa(facts, column.line) : addend(key, facts);
        if (part.value_or(0) == 0) continue;
        sum += *part;
        any = true;
    }
    if (!any) return "";
    return key == "kVA" ? number(sum, 2) : number(sum);
}

void ScheduleWriter::sumRow(const std::vector<LaidColumn>& columns, const std::vector<CircuitId>& circuits,
                            const std::function<std::pair<double, double>(const LaidColumn&)>& edges, double top) {
    for (const LaidColumn& c : columns) {
        const auto [from, to] = edges(c);
        const CircuitFigure* figure = c.wording.alone();
        const bool names = figure && figure->key == std::string("serves");
        cell({.left = from, .right = to, .top = top, .height = sumsHeight(), .align = c.align, .bold = true},
             names ? "Sum" : sumOf(c, circuits));
    }
}

std::string ScheduleWriter::notesOf(CircuitId circuit) const {
    const auto at = noteNumbers.find(circuit);
    return at == noteNumbers.end() ? "" : at->second;
}

bool ScheduleWriter::heavy(const Wording& wording) {
    const CircuitFigure* figure = wording.alone();
    return figure && (figure->key == std::string("device") || figure->key == std::string("way"));
}

std::string ScheduleWriter::spaceWords(const Wording& wording, int slot, const std::string& line) const {
    const std::vector<std::string> keys = wording.figures();
    if (keys.empty()) return "";
    const std::string& key = keys.front();
    if (key == "pole" || key == "place") return std::to_string(slot);
    if (key == "way") return std::to_string(b.form == BoardForm::Ways ? (slot - 1) / 3 + 1 : slot);
    if (key == "line") return line;
    if (key != "serves") return "";
    return freePlaceWords(form);
}

std::string ScheduleWriter::wordsOf(const Wording& wording, const CircuitFacts& facts) const {
    const CircuitFigure* figure = wording.alone();
    const bool names = figure && figure->key == std::string("serves");
    return names && facts.c.use == CircuitUse::Spare ? servesByForm(form, in, facts.c.id) : wording.of(facts);
}

double ScheduleWriter::withoutNotes() const {
    const auto kinds =
        std::count_if(r.kinds.begin(), r.kinds.end(), [](const KindSum& k) { return k.p != 0 || k.q != 0; });
    const double left = form.withoutTally ? 0 : double(kinds) * 4.4;
    const double right = form.withoutPhases ? 0 : 7 + lines * 4.6 + (form.balance > 0 ? 5 : 4) * 4.4 - 14;
    if (form.withoutTally && form.withoutPhases) return 24;
    return 60 + std::max(left, right);
}

double ScheduleWriter::below() const {
    std::size_t n = notesHere < noteLines.size();
    for (std::size_t i = 0; i < notesHere; ++i) n += noteLines[i].size();
    return withoutNotes() + double(n) * noteStep;
}

namespace {
constexpr double tallyWidth = 118;
}

void ScheduleWriter::tally() {
    if (form.withoutTally && form.withoutPhases) return;
    y += 8;
    double end = y;
    if (!form.withoutTally) end = std::max(end, loadTally());
    if (!form.withoutPhases) end = std::max(end, phases());
    y = end;
}

double ScheduleWriter::loadTally() {
    const double x = margin, w = tallyWidth;
    double ty = y;
    d.text({x, ty}, "Load tally", 3, Align::Left, true);
    d.line({x, ty + 2}, {x + w, ty + 2}, 0.35);
    ty += 6;
    const double c1 = x + 52, c2 = x + 70, c3 = x + 90;
    d.text({x, ty}, "Kind", 2.3, Align::Left, true, Ink::Quiet);
    d.text({c1, ty}, "Connected kVA", 2.3, Align::Right, true, Ink::Quiet);
    d.text({c2, ty}, "Demand", 2.3, Align::Right, true, Ink::Quiet);
    d.text({c3, ty}, "Demand kVA", 2.3, Align::Right, true, Ink::Quiet);
    d.text({c3 + 4, ty}, "Rule", 2.3, Align::Left, true, Ink::Quiet);
    for (std::size_t i = 0; i < loadKinds; ++i) {
        const KindSum& k = r.kinds[i];
        if (k.p == 0 && k.q == 0) continue;
        ty += 4.4;
        d.text({x, ty}, kindTitle(LoadKind(i), in.book), 2.5);
        d.text({c1, ty}, kilo(k.va()), 2.5, Align::Right);
        d.text({c2, ty}, number(k.va() > 0 ? r.demandByKind[i] / k.va() * 100 : 0) + " %", 2.5, Align::Right);
        d.text({c3, ty}, kilo(r.demandByKind[i]), 2.5, Align::Right);
        const bool own = in.project.basis.demandFactors.count(wordOf(LoadKind(i))) > 0;
        d.text({c3 + 4, ty}, own ? "project" : in.book.demand(LoadKind(i), in.project.basis.occupancy).table, 2.3,
               Align::Left, false, Ink::Quiet, w - 94);
        d.line({x, ty + 1.4}, {x + w, ty + 1.4}, 0.1, Ink::Faint);
    }
    ty += 4.6;
    d.line({x, ty - 3.2}, {x + w, ty - 3.2}, 0.3);
    d.text({x, ty}, "Total", 2.5, Align::Left, true);
    d.text({c1, ty}, kilo(r.connected), 2.5, Align::Right, true);
    d.text({c3, ty}, kilo(r.demand), 2.5, Align::Right, true);
    d.line({x, ty + 1.6}, {x + w, ty + 1.6}, 0.3);
    double kinds = 0;
    for (double v : r.demandByKind) kinds += v;
    if (kinds > r.demand * 1.002) { // a checker who adds the column up should not have to wonder
        ty += 4.6;
        d.text({x, ty}, "Totals add real and reactive power apart: less than the sum of the kVA.", 2.2, Align::Left,
               false, Ink::Quiet);
    }
    return ty;
}

double ScheduleWriter::phases() {
    const double px = form.withoutTally ? margin : margin + tallyWidth + 11;
    const double pr = form.withoutTally ? margin + tallyWidth : d.width - margin;
    double ty = y;
    d.text({px, ty}, "Phases", 3, Align::Left, true);
    d.line({px, ty + 2}, {pr, ty + 2}, 0.35);
    ty += 7;
    const double most = std::max(1.0, *std::max_element(r.phaseVa.begin(), r.phaseVa.end()));
    for (int i = 0; i < lines; ++i) {
        const std::size_t k = std::size_t(i);
        d.text({px, ty}, lineName(i, b), 2.6, Align::Left, true);
        d.fill(px + 5, ty - 2, (pr - px - 40) * r.phaseVa[k] / most, 2.2, phaseInk(in.project.basis, b.system, i));
        d.text({pr, ty}, fmt::format("{} kVA · {} A", kilo(r.phaseVa[k]), number(r.phaseAmps[k])), 2.5, Align::Right);
        ty += 4.6;
    }
    ty += 1.5;
    const auto row = [&](const char* label, const std::string& value) {
        d.text({px, ty}, label, 2.4, Align::Left, false, Ink::Quiet);
        d.text({pr, ty}, value, 2.5, Align::Right);
        ty += 4.4;
    };
    row("Demand", fmt::format("{} kVA · {}", kilo(r.demand), demandWords(r, b)));
    std::size_t heavy = 0;
    for (std::size_t i = 1; i < std::size_t(lines); ++i)
        if (r.phaseVa[i] > r.phaseVa[heavy]) heavy = i;
    if (lines > 1)
        row("Imbalance", percent(r.imbalance) + (r.imbalance >= 0.05 ? ", heavy on " + lineName(int(heavy), b) : ""));
    if (form.balance > 0 && lines > 1)
        row("Balance", fmt::format("{} {} %", r.imbalance <= form.balance ? "within" : "over", number(form.balance)));
    if (factsOf(b.system).lineNeutral.v > 0) row("Neutral", figures(r.neutralAmps) + " A");
    const auto here = in.results.on(b.id);
    const auto spares = std::count_if(here.begin(), here.end(),
                                      [&](CircuitId c) { return in.project.circuits[c].use == CircuitUse::Spare; });
    const int spaces = freePlaces(in.project, b, here);
    row("Spare", fmt::format("{} {}, {} {}", spares, spares == 1 ? "breaker" : "breakers", spaces,
                             spaces == 1 ? "space" : "spaces"));
    return ty - 4.4;
}

void ScheduleWriter::writeNote(std::size_t note) {
    d.text({margin, y}, std::to_string(note + 1), noteSize);
    for (const std::string& line : noteLines[note]) {
        d.text({margin + noteIndent, y}, line, noteSize);
        y += noteStep;
    }
}

void ScheduleWriter::notes() {
    if (noteLines.empty()) return;
    y += 8;
    d.text({margin, y}, "Notes", 3, Align::Left, true);
    d.line({margin, y + 2}, {d.width - margin, y + 2}, 0.35);
    y += 6;
    for (std::size_t i = 0; i < notesHere; ++i) writeNote(i);
    if (notesHere == noteLines.size()) return;
    d.text({margin, y},
           fmt::format("Notes {} to {} stand on {}.", notesHere + 1, noteLines.size(), nextWords(stretches.size() - 1)),
           noteSize, Align::Left, true);
    y += noteStep;
}

namespace {
constexpr double notesTop = 44, notesFoot = 12; ///< mm of a further sheet above and below its notes
}

std::string ScheduleWriter::nextWords(std::size_t page) const {
    return onOther               ? "the view that continues this schedule"
           : firstNumber.empty() ? "the next sheet"
                                 : "sheet " + pageNumber(firstNumber, page + 1);
}

std::size_t ScheduleWriter::firstOn(std::size_t notesSheet) const {
    std::size_t note = notesHere;
    for (std::size_t p = 1; p < notesSheet; ++p) {
        double at = notesTop;
        const std::size_t first = note;
        while (note < noteLines.size()) {
            at += noteStep * double(noteLines[note].size());
            if (at > d.height - margin - notesFoot && note > first) break;
            ++note;
        }
    }
    return note;
}

std::size_t ScheduleWriter::pages() const {
    std::size_t notesSheets = 0;
    while (firstOn(notesSheets + 1) < noteLines.size()) ++notesSheets;
    return stretches.size() + notesSheets;
}

void ScheduleWriter::continuedStrip(std::size_t page) {
    heading();
    d.number = firstNumber.empty() ? "" : pageNumber(firstNumber, page);
    d.text({margin, 27}, b.name, sizeWithin(b.name, d.width - 2 * margin, 8.4, true), Align::Left, true, Ink::Ink,
           d.width - 2 * margin);
    const std::string over = headingOver(stretches[page].from);
    d.text({margin, 34}, "Circuits, continued" + (over.empty() ? "" : ": " + over), 3, Align::Left, true, Ink::Ink,
           d.width - 2 * margin);
    y = tableTop;
}

void ScheduleWriter::goesOn(std::size_t page) {
    y += 5;
    d.text({margin, y}, fmt::format("This schedule goes on: see {}.", nextWords(page)), noteSize, Align::Left, true);
}

void ScheduleWriter::notesPage(std::size_t page) {
    const std::size_t sheet = page + 1 - stretches.size();
    heading();
    d.number = pageNumber(d.number, page);
    d.text({margin, 27}, b.name, sizeWithin(b.name, d.width - 2 * margin, 8.4, true), Align::Left, true, Ink::Ink,
           d.width - 2 * margin);
    d.text({margin, 34}, "Notes, continued", 3, Align::Left, true);
    d.line({margin, 36}, {d.width - margin, 36}, 0.35);
    y = notesTop;
    const std::size_t end = std::min(firstOn(sheet + 1), noteLines.size());
    for (std::size_t i = firstOn(sheet); i < end; ++i) writeNote(i);
}

Drawing ScheduleWriter::cut() const {
    constexpr double penAbove = 0.3, below = 2;
    Drawing view;
    view.title = d.title;
    view.width = d.width - 2 * margin;
    view.height = y - viewTop + penAbove + below;
    placeDrawing(view, d, 1, {-margin, penAbove - viewTop});
    return view;
}

} // namespace lintel
