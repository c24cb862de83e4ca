// The schedule of a board with one row for each device: of ways, as metric practice wants it, and of single columns
// whose rows stand in an order of their own.

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/base/NaturalOrder.h"
#include "core/figures/Words.h"
#include "core/project/FreePlaces.h"
#include "core/project/Operations.h"
#include "core/project/Slots.h"
#include "core/sheets/ScheduleWriter.h"
#include "core/solve/TesterReadings.h"

#include <fmt/format.h>
#include <map>
#include <numeric>

namespace lintel {
namespace {

/// One row of the table: the heading of a section or of rows that stand together, a device, or a place without one.
struct Row {
    const Section* section = nullptr;
    const Circuit* circuit = nullptr;
    int slot = 0;
    bool wholeWay = false, beginsWay = true;
    std::string together; ///< of a heading of rows: what is said of them
};

/// What a figure of a form says of circuits, to put their rows in order by it.
class RowKey {
public:
    RowKey(const SheetInput& input, const std::string& figure) : in(input) {
        if (figure.empty()) return;
        if (auto wording = Wording::from("{" + figure + "}")) words = *wording;
    }
    explicit operator bool() const { return words.has_value(); }
    /// Empty where there is nothing to say, and of a place without a circuit.
    std::string of(const Row& row) const {
        if (!row.circuit) return "";
        const std::string text = words->of(CircuitFacts(in, row.circuit->id));
        return text == "–" ? "" : text;
    }
    /// Numbers by their value, texts as people count; what says nothing comes last either way.
    static bool before(const std::string& a, const std::string& b, bool backwards) {
        if (a.empty() || b.empty()) return !a.empty() && b.empty();
        return backwards ? numberBefore(plain(b), plain(a)) : numberBefore(plain(a), plain(b));
    }

private:
    const SheetInput& in;
    std::optional<Wording> words;

    /// Without what parts the thousands, and without the sign of what is assumed.
    static std::string plain(std::string text) {
        for (const std::string sign : {"\u00a0", "~"})
            for (auto at = text.find(sign); at != std::string::npos; at = text.find(sign)) text.erase(at, sign.size());
        return text;
    }
};

/// Where rows of which a figure says nothing stand together, behind those of which it says something.
enum class Group { Named, Feeders, NotSaid, Spares, Reserved, Free };
Group groupOf(const SheetInput& in, const Row& row, const std::string& name) {
    if (!row.circuit) return Group::Free;
    if (!name.empty()) return Group::Named;
    if (row.circuit->use == CircuitUse::Spare) return Group::Spares;
    if (row.circuit->use == CircuitUse::Reserved) return Group::Reserved;
    return in.results.of(row.circuit->id).feeder ? Group::Feeders : Group::NotSaid;
}
std::string titleOf(Group group, const std::string& name, const ScheduleForm& form) {
    switch (group) {
    case Group::Named:
        return name;
    case Group::Feeders:
        return "Feeders";
    case Group::NotSaid:
        return "Not said";
    case Group::Spares:
        return form.spare.empty() ? "Spare" : form.spare;
    case Group::Reserved:
        return "Reserved";
    case Group::Free:
        return form.space.empty() ? "Free places" : form.space;
    }
    return name;
}

std::string togetherWords(const SheetInput& in, std::string words, const std::vector<Row>& rows) {
    std::size_t circuits = 0;
    double va = 0;
    bool known = false;
    for (const Row& row : rows) {
        if (!row.circuit) continue;
        ++circuits;
        const CircuitFacts facts(in, row.circuit->id);
        if (!facts.load() || facts.noLoad()) continue;
        va += connectedVa(facts);
        known = true;
    }
    if (circuits) words += " · " + counted(circuits, "circuit");
    if (known) words += fmt::format(" · {} kVA connected", kilo(va));
    return words;
}

/// Rows between two headings in the order of a form, and under headings of its own.
std::vector<Row> ordered(const SheetInput& in, const ScheduleForm& form, std::vector<Row> rows) {
    for (Row& row : rows) row.beginsWay = true; // each says its way, wherever it comes to stand
    if (const RowKey key(in, form.sortBy); key) {
        std::vector<std::pair<std::string, Row>> keyed;
        for (Row& row : rows) keyed.emplace_back(key.of(row), std::move(row));
        std::stable_sort(keyed.begin(), keyed.end(), [&](const auto& a, const auto& b) {
            return RowKey::before(a.first, b.first, form.backwards);
        });
        rows.clear();
        for (auto& [text, row] : keyed) rows.push_back(std::move(row));
    }
    const RowKey key(in, form.groupBy);
    if (!key) return rows;
    std::map<std::pair<Group, std::string>, std::vector<Row>> groups;
    for (Row& row : rows) {
        const std::string name = key.of(row);
        groups[{groupOf(in, row, name), name}].push_back(std::move(row));
    }
    std::vector<std::pair<std::pair<Group, std::string>, std::vector<Row>>> all(groups.begin(), groups.end());
    std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) {
        if (a.first.first != b.first.first) return a.first.first < b.first.first;
        return RowKey::before(a.first.second, b.first.second, false);
    });
    rows.clear();
    for (auto& [of, group] : all) {
        Row heading;
        heading.together = togetherWords(in, titleOf(of.first, of.second, form), group);
        rows.push_back(std::move(heading));
        for (Row& row : group) rows.push_back(std::move(row));
    }
    return rows;
}

/// Rows as their places are numbered into the order of the form, those of each section apart.
std::vector<Row> inOrderOf(const SheetInput& in, const ScheduleForm& form, const Board& b, std::vector<Row> rows) {
    if (inOrderOfPlaces(form, b)) return rows;
    std::vector<Row> all, stretch;
    const auto end = [&] {
        for (Row& row : ordered(in, form, std::move(stretch))) all.push_back(std::move(row));
        stretch.clear();
    };
    int until = 0; // the last place of the section in which we are; 0: in none
    for (Row& row : rows) {
        if (row.section || (until && row.slot > until)) {
            end();
            until = row.section ? row.section->to : 0;
        }
        (row.section ? all : stretch).push_back(std::move(row));
    }
    end();
    return all;
}

std::vector<Row> rowsOf(const SheetInput& in, const Board& b) {
    const Project& p = in.project;
    std::vector<Row> rows;
    const auto map = slotMap(p, b, in.results.on(b.id));
    const bool ways = b.form == BoardForm::Ways;
    const auto heading = [&](int slot) {
        for (const Section& s : p.sections)
            if (s.board == b.id && s.from == slot) rows.push_back({&s, nullptr, slot, false, true, {}});
    };
    for (int slot = 1; slot <= b.slots; ++slot) {
        heading(slot);
        const Circuit* c = p.circuits.find(map[std::size_t(slot)]);
        if (c && c->slot != slot) continue; // a further pole of it
        const bool first = !ways || (slot - 1) % 3 == 0;
        const bool emptyWay = ways && first && slot + 2 <= b.slots && !map[std::size_t(slot)] &&
                              !map[std::size_t(slot) + 1] && !map[std::size_t(slot) + 2];
        rows.push_back({nullptr, c, slot, emptyWay || (c && c->poles == 3), first, {}});
        if (emptyWay) slot += 2;
    }
    return inOrderOf(in, formOf(in, b), b, std::move(rows));
}

struct Writer : ScheduleWriter {
    Writer(const SheetInput& input, BoardId board, const std::string& number, double height = 0)
        : ScheduleWriter(input, board, number, height) {
        usualLetters = 2.4;
    }

    std::string sectionWords(const Section& s) const {
        const int left = freePlaces(in.project, b, in.results.on(b.id), s.from, s.to);
        std::string text = s.name;
        if (s.rating > 0) text += fmt::format(" · {} A switch", number(s.rating));
        if (s.residual > 0)
            text += fmt::format(" · {} mA residual-current device, {}", number(s.residual), wordOf(s.residualType));
        if (s.metered) text += " · metered";
        return text + (b.form == BoardForm::Ways
                           ? fmt::format(" · space left: {} of {} ways", left / 3, (s.to - s.from + 1) / 3)
                           : fmt::format(" · space left: {}", left));
    }

    /// What a column says of a row; a way is named on the first of its rows.
    std::string textOf(const LaidColumn& c, const Row& row, const CircuitFacts* facts) const {
        const CircuitFigure* figure = c.wording.alone();
        if (figure && figure->key == std::string("way") && !row.beginsWay) return "";
        if (!facts)
            return c.line >= 0
                       ? ""
                       : spaceWords(c.wording, row.slot, row.wholeWay ? "L1–3" : lineName(lineOfSlot(b, row.slot), b));
        if (c.line < 0) return wordsOf(c.wording, *facts);
        return lineVaWords(*facts, c.line);
    }

    std::vector<TableRow> tableRows() const override {
        const std::vector<LaidColumn> columns = layColumns(form, b, d.width - 2 * margin);
        const std::vector<Row> rows = rowsOf(in, b);
        const auto isHeading = [&](std::size_t i) { return rows[i].section || !rows[i].together.empty(); };
        std::vector<TableRow> asked;
        for (std::size_t i = 0; i < rows.size(); ++i) {
            const Row& line = rows[i];
            double most = 0;
            if (line.circuit) {
                const CircuitFacts facts(in, line.circuit->id, notesOf(line.circuit->id));
                for (const LaidColumn& c : columns)
                    most = std::max(most, heightOf(textOf(c, line, &facts), c.width(), heavy(c.wording)));
            }
            // Ways stay together, and headings with what follows them.
            asked.push_back({most, (line.beginsWay || isHeading(i)) && !(i > 0 && isHeading(i - 1))});
        }
        return asked;
    }
    std::string headingOver(std::size_t row) const override {
        const std::vector<Row> rows = rowsOf(in, b);
        for (std::size_t i = row; i-- > 0;) {
            if (const Section* s = rows[i].section) return rows[row].slot <= s->to ? s->name : "";
            if (!rows[i].together.empty()) return rows[i].together.substr(0, rows[i].together.find(" · "));
        }
        return "";
    }
    std::vector<double> heightsOf(std::size_t page) const {
        return rowHeights(askedOn(page), rowRoom(page) - 5.8, 3.3 * lettersScale(), 5.4 * lettersScale());
    }

    void row(const Row& row, const std::vector<LaidColumn>& columns, double top, double h) {
        const bool quiet = !row.circuit || row.circuit->use != CircuitUse::Load;
        std::optional<CircuitFacts> facts;
        if (row.circuit) facts.emplace(in, row.circuit->id, notesOf(row.circuit->id));
        const RunResult* run = row.circuit ? in.results.run(row.circuit->id) : nullptr;
        for (const LaidColumn& c : columns) {
            const CircuitFigure* figure = c.wording.alone();
            const std::string key = figure ? figure->key : "";
            const bool over = run && (key == "Zs" || key == "Zs limit") && !run->earth->inTime;
            const std::vector<std::string> keys = c.wording.figures();
            cell({.left = margin + c.from,
                  .right = margin + c.to,
                  .top = top,
                  .height = h,
                  .align = c.align,
                  .bold = heavy(c.wording),
                  .italic = quiet && !keys.empty() && keys.front() == "serves",
                  .ink = over    ? Ink::Stop
                         : quiet ? Ink::Quiet
                                 : Ink::Ink},
                 textOf(c, row, facts ? &*facts : nullptr));
        }
        if (row.circuit) d.hotspots.push_back({row.circuit->id, margin, top, d.width - margin, top + h});
    }

    void table(std::size_t page) {
        const std::vector<Row> rows = rowsOf(in, b);
        const double head = 5.8, left = margin, right = d.width - margin;
        const std::vector<LaidColumn> columns = layColumns(form, b, right - left);
        const double top = y + head;
        const std::vector<double> heights = heightsOf(page);
        const double rowsEnd = std::accumulate(heights.begin(), heights.end(), top),
                     bottom = rowsEnd + (isLast(page) ? sumsHeight() : 0);
        d.fill(left, y, right - left, head, Ink::Band);
        for (const LaidColumn& c : columns) {
            cell({.left = left + c.from,
                  .right = left + c.to,
                  .top = y,
                  .height = head,
                  .align = c.align,
                  .size = 2.2,
                  .bold = true},
                 c.heading);
            d.headings.push_back({b.id, c.of, false, left + c.from, y, left + c.to, y + head});
        }
        double at = top;
        double ruled = y; // from where the upright rules have still to be drawn: a section's heading breaks them
        const auto rules = [&](double to) {
            for (const LaidColumn& c : columns)
                if (c.from > 0) d.line({left + c.from, ruled}, {left + c.from, to}, 0.12, Ink::Rule);
        };
        for (std::size_t n = stretches[page].from; n < stretches[page].to; ++n) {
            const Row& next = rows[n];
            const double h = heights[n - stretches[page].from];
            if (next.section || !next.together.empty()) {
                rules(at);
                d.fill(left, at, right - left, h, Ink::Band);
                d.text({left + 1.2, at + h / 2 + 0.9}, next.section ? sectionWords(*next.section) : next.together, 2.4,
                       Align::Left, true, Ink::Ink, right - left - 2.4);
                at += h;
                ruled = at;
                continue;
            }
            const double from = next.beginsWay || columns.empty() ? left : left + columns.front().to;
            rowRule({from, at}, {right, at}, next.beginsWay, 0.22);
            row(next, columns, at, h);
            at += h;
        }
        if (isLast(page) && sumsHeight() > 0) {
            std::vector<CircuitId> circuits;
            for (const Row& line : rows)
                if (line.circuit) circuits.push_back(line.circuit->id);
            d.line({left, rowsEnd}, {right, rowsEnd}, 0.35);
            sumRow(
                columns, circuits, [&](const LaidColumn& c) { return std::pair(left + c.from, left + c.to); }, at);
        }
        rules(bottom);
        d.box(left, y, right - left, bottom - y, 0.5);
        d.line({left, top}, {right, top}, 0.35);
        y = bottom;
    }
};

} // namespace

ScheduleSheets wayScheduleSheets(const SheetInput& in, BoardId id) { return sheetsOfSchedule<Writer>(in, id); }

int wayScheduleRows(const SheetInput& in, const Board& b) { return int(rowsOf(in, b).size()); }

Drawing waySchedule(const SheetInput& in, BoardId id, const std::string& number, std::size_t page) {
    return writeSchedule<Writer>(in, id, number, page);
}

std::vector<Drawing> wayScheduleParts(const SheetInput& in, BoardId id, double height) {
    return writeScheduleParts<Writer>(in, id, height);
}

} // namespace lintel
