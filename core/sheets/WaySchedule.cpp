// The schedule of a board of ways: one row a device, with what metric practice wants to see beside it.

#include "core/base/Format.h"
#include "core/project/Operations.h"
#include "core/sheets/ScheduleWriter.h"
#include "core/sheets/Words.h"
#include "core/solve/PhaseLoads.h"
#include "core/solve/TesterReadings.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// One row of the table: the heading of a section, a device, or a place without one.
struct Row {
    const Section* section = nullptr;
    const Circuit* circuit = nullptr;
    int slot = 0;
    bool wholeWay = false, beginsWay = true;
};

std::vector<Row> rowsOf(const Project& p, const Board& b) {
    std::vector<Row> rows;
    const auto map = slotMap(p, b.id);
    const bool ways = b.form == BoardForm::Ways;
    const auto heading = [&](int slot) {
        for (const Section& s : p.sections)
            if (s.board == b.id && s.from == slot) rows.push_back({&s, nullptr, slot, false, true});
    };
    for (int slot = 1; slot <= b.slots; ++slot) {
        heading(slot);
        const Circuit* c = p.circuits.find(map[std::size_t(slot)]);
        if (c && c->slot != slot) continue; // a further pole of it
        const bool first = !ways || (slot - 1) % 3 == 0;
        const bool emptyWay = ways && first && slot + 2 <= b.slots && !map[std::size_t(slot)] &&
                              !map[std::size_t(slot) + 1] && !map[std::size_t(slot) + 2];
        rows.push_back({nullptr, c, slot, emptyWay || (c && c->poles == 3), first});
        if (emptyWay) slot += 2;
    }
    return rows;
}

struct Column {
    const char* title;
    double width; ///< mm; 0: what is left
    Align align;
};
constexpr Column columns[] = {
    {"Way", 8, Align::Centre},    {"φ", 7.5, Align::Centre},         {"Serves", 0, Align::Left},
    {"Pts", 6.5, Align::Right},   {"Device", 11.5, Align::Centre},   {"kA", 6, Align::Right},
    {"RCD mA", 12, Align::Right}, {"Cable, mm²", 25.5, Align::Left}, {"Method", 11, Align::Centre},
    {"m", 8.5, Align::Right},     {"Ib A", 9, Align::Right},         {"Drop %", 10, Align::Right},
    {"Zs Ω", 9, Align::Right},    {"Limit Ω", 9.5, Align::Right},    {"R1+R2", 9.5, Align::Right},
    {"80 %", 8.5, Align::Right},
};
constexpr std::size_t methodColumn = 8;

struct Writer : ScheduleWriter {
    using ScheduleWriter::ScheduleWriter;

    std::vector<std::string> cells(const Row& row) const {
        const Circuit* c = row.circuit;
        const bool ways = b.form == BoardForm::Ways;
        std::vector<std::string> t(std::size(columns));
        t[0] = row.beginsWay ? std::to_string(ways ? (row.slot - 1) / 3 + 1 : row.slot) : "";
        t[1] = row.wholeWay ? "L1–3" : lineName(lineOfSlot(b, row.slot), b);
        if (!c) {
            t[2] = "Space";
            return t;
        }
        const CircuitResult& cr = in.results.of(c->id);
        if (c->poles == 2) t[1] += "–" + lineName(cr.lines[1], b);
        t[2] = servesWords(in.project, in.results, c->id);
        if (c->ring && c->name.find("ring") == std::string::npos) t[2] += " (ring)";
        if (c->use == CircuitUse::Reserved) return t;
        t[4] = deviceWords(cr, c->poles, in.book);
        t[5] = number(c->heldKA.value_or(b.ratingKA), c->heldKA.value_or(b.ratingKA) < 10 ? 1 : 0);
        if (c->use != CircuitUse::Load) return t;
        if (cr.points > 0) t[3] = std::to_string(cr.points);
        const RunResult* run = in.results.run(c->id);
        t[10] = figures(cr.load.v);
        if (!run || run->size < 0) return t;
        if (run->need.cable->residual > 0)
            t[6] = fmt::format("{} {}",
                               run->need.cable->residualType == ResidualType::AWithDirect
                                   ? "A+"
                                   : std::string(wordOf(run->need.cable->residualType)).substr(5),
                               number(double(run->need.cable->residual))); // "type B": its letter
        t[7] = conductorWords(*run, in.book);
        if (const auto unit = t[7].find(" mm²"); unit != std::string::npos)
            t[7].erase(unit, std::string(" mm²").size()); // the heading says it
        if (run->need.cable->type >= 0)
            t[8] = in.book.cables.types[std::size_t(run->need.cable->type)]
                       .methods[std::size_t(run->need.cable->method)]
                       .name;
        if (run->need.lengthKnown) {
            t[9] =
                number(in.project.basis.units == UnitSystem::Imperial ? inFeet(run->need.length) : run->need.length.v,
                       run->need.length.v < 10 ? 1 : 0);
            if (run->need.lengthAssumed) t[9] = "~" + t[9];
            t[11] = fmt::format("{}{:.1f}", run->need.beforeKnown ? "" : "≥ ", run->dropTotal);
        }
        if (run->earth->known) {
            t[12] = fmt::format("{:.2f}", run->earth->zs);
            const TesterReadings cold = testerReadings(*run, in.book);
            if (cold.known) t[14] = fmt::format("{:.2f}", cold.together);
            if (cold.zsMost > 0) t[15] = fmt::format("{:.2f}", cold.zsMost);
            if (run->earth->limit > 0)
                t[13] = run->earth->limit >= 100 ? number(double(run->earth->limit))
                                                 : fmt::format("{:.2f}", run->earth->limit);
        }
        return t;
    }

    std::string sectionWords(const Section& s) const {
        const auto map = slotMap(in.project, b, in.results.on(b.id));
        int left = 0;
        for (int slot = s.from; slot <= std::min(s.to, b.slots); ++slot) left += !map[std::size_t(slot)];
        std::string text = s.name;
        if (s.rating > 0) text += fmt::format(" · {} A switch", number(s.rating));
        if (s.residual > 0)
            text += fmt::format(" · {} mA residual-current device, {}", number(s.residual), wordOf(s.residualType));
        if (s.metered) text += " · metered";
        return text + (b.form == BoardForm::Ways
                           ? fmt::format(" · space left: {} of {} ways", left / 3, (s.to - s.from + 1) / 3)
                           : fmt::format(" · space left: {}", left));
    }

    void table() {
        const std::vector<Row> rows = rowsOf(in.project, b);
        const double head = 5.8, left = margin, right = d.width - margin;
        const double h =
            std::clamp((d.height - y - below() - head) / double(std::max<std::size_t>(rows.size(), 1)), 3.3, 5.4);
        std::vector<std::vector<std::string>> texts;
        std::size_t longest = 0; // some books name ways of laying by a letter, others by words
        for (const Row& row : rows) {
            texts.push_back(row.section ? std::vector<std::string>{} : cells(row));
            if (!row.section) longest = std::max(longest, texts.back()[methodColumn].size());
        }
        const auto widthOf = [&](std::size_t i) {
            return i == methodColumn ? std::clamp(2.4 + 1.2 * double(longest), columns[i].width, 20.0)
                                     : columns[i].width;
        };
        double taken = 0;
        for (std::size_t i = 0; i < std::size(columns); ++i) taken += widthOf(i);
        std::vector<double> x{left};
        for (std::size_t i = 0; i < std::size(columns); ++i)
            x.push_back(x.back() + (columns[i].width > 0 ? widthOf(i) : right - left - taken));
        const auto cell = [&](std::size_t i, double base, const std::string& text, bool bold, Ink ink,
                              double size = 2.4) {
            if (text.empty()) return;
            const double px = columns[i].align == Align::Left    ? x[i] + 1.2
                              : columns[i].align == Align::Right ? x[i + 1] - 1.2
                                                                 : (x[i] + x[i + 1]) / 2;
            d.text({px, base}, text, size, columns[i].align, bold, ink, x[i + 1] - x[i] - 1.6);
        };
        const double top = y + head, bottom = top + double(rows.size()) * h;
        d.fill(left, y, right - left, head, Ink::Band);
        for (std::size_t i = 0; i < std::size(columns); ++i)
            cell(i, y + head * 0.66, columns[i].title, true, Ink::Ink, 2.2);
        double at = top;
        double ruled = y; // from where the upright rules have still to be drawn: a section's heading breaks them
        const auto rules = [&](double to) {
            for (std::size_t i = 1; i < std::size(columns); ++i) d.line({x[i], ruled}, {x[i], to}, 0.12, Ink::Rule);
        };
        for (std::size_t n = 0; n < rows.size(); ++n) {
            const Row& row = rows[n];
            if (row.section) {
                rules(at);
                d.fill(left, at, right - left, h, Ink::Band);
                d.text({left + 1.2, at + h / 2 + 0.9}, sectionWords(*row.section), 2.4, Align::Left, true);
                at += h;
                ruled = at;
                continue;
            }
            d.line({row.beginsWay ? left : x[1], at}, {right, at}, row.beginsWay ? 0.22 : 0.1,
                   row.beginsWay ? Ink::Rule : Ink::Faint);
            const bool quiet = !row.circuit || row.circuit->use != CircuitUse::Load;
            const std::vector<std::string>& text = texts[n];
            for (std::size_t i = 0; i < text.size(); ++i) {
                const bool over =
                    row.circuit && (i == 12 || i == 13) && !in.results.run(row.circuit->id)->earth->inTime;
                const Ink ink = over ? Ink::Stop : quiet ? Ink::Quiet : Ink::Ink;
                if (i != 2) {
                    cell(i, at + h / 2 + 0.9, text[i], i == 0 || i == 4, ink);
                    continue;
                }
                serves({x[2] + 1.2, at + h / 2 + 0.9}, text[2], {x[3] - x[2] - 1.6, h, 2.4}, Align::Left, quiet);
            }
            if (row.circuit) d.hotspots.push_back({row.circuit->id, left, at, right, at + h});
            at += h;
        }
        rules(at);
        d.box(left, y, right - left, bottom - y, 0.5);
        d.line({left, top}, {right, top}, 0.35);
        y = bottom;
    }
};

} // namespace

int wayScheduleRows(const Project& p, const Board& b) { return int(rowsOf(p, b).size()); }

Drawing waySchedule(const SheetInput& in, BoardId id, const std::string& number, std::size_t page) {
    return writeSchedule<Writer>(in, id, number, page);
}

} // namespace lintel
