#include "core/lists/Workbook.h"

#include "core/base/Parse.h"
#include "core/figures/ScheduleForms.h"

#include <algorithm>
#include <cmath>

namespace lintel {
namespace {

/// Digits behind the decimal sign of a number as it is shown.
int decimalsOf(const std::string& shown) {
    const std::size_t dot = shown.rfind('.');
    return dot == std::string::npos ? 0 : int(shown.size() - dot - 1);
}

/// The number that a text is, with its gaps between thousands; nothing: it is more than a number.
std::optional<double> shownNumber(std::string text) {
    const std::string gap = "\u202f";
    for (std::size_t at = text.find(gap); at != std::string::npos; at = text.find(gap)) text.erase(at, gap.size());
    return plainNumber(text);
}

double valueAt(const List& list, std::size_t row, std::size_t column) {
    const auto& cells = list.rows[row].cells;
    return column < cells.size() ? cells[column].value.value_or(0) : 0;
}

/// The rows whose figures come to the total of a column, as ranges of the sheet (its heading is row 0); empty: it is
/// something else, such as a share.
std::vector<std::pair<std::size_t, std::size_t>> summedRows(const List& list, std::size_t total, std::size_t column) {
    const double wanted = *list.rows[total].cells[column].value;
    std::size_t group = total; // first row behind the last heading of a group or total before it
    while (group > 0 && list.rows[group - 1].kind == ListEntry::Kind::Figures) --group;
    for (std::size_t first : {group, std::size_t(0)}) {
        double sum = 0;
        std::vector<std::pair<std::size_t, std::size_t>> ranges;
        for (std::size_t i = first; i < total; ++i) {
            if (list.rows[i].kind != ListEntry::Kind::Figures) continue;
            sum += valueAt(list, i, column);
            if (!ranges.empty() && ranges.back().second == i) // rows are one further down, below the heading
                ranges.back().second = i + 1;
            else
                ranges.emplace_back(i + 1, i + 1);
        }
        constexpr double rounding = 1e-9;
        if (!ranges.empty() && std::abs(sum - wanted) <= rounding * std::max(1.0, std::abs(wanted))) return ranges;
    }
    return {};
}

} // namespace

NamedGrid sheetOf(const List& list, const std::string& job) {
    NamedGrid grid;
    grid.title = list.title;
    grid.job = job;
    std::vector<GridCell> head;
    for (const ListColumn& c : list.columns) head.push_back({c.head()});
    grid.rows.push_back(std::move(head));
    for (std::size_t r = 0; r < list.rows.size(); ++r) {
        const ListEntry& entry = list.rows[r];
        std::vector<GridCell> cells;
        for (std::size_t c = 0; c < entry.cells.size(); ++c) {
            GridCell cell{entry.cells[c].text, entry.cells[c].value};
            cell.strong = entry.kind != ListEntry::Kind::Figures;
            if (cell.number) cell.decimals = decimalsOf(cell.text);
            if (cell.number && entry.kind == ListEntry::Kind::Total) cell.sumOf = summedRows(list, r, c);
            cells.push_back(std::move(cell));
        }
        grid.rows.push_back(std::move(cells));
    }
    for (const std::string& note : list.notes) grid.rows.push_back({{note}});
    return grid;
}

List scheduleList(const SheetInput& in, BoardId id) {
    const Board& b = in.project.boards[id];
    List list{"schedule", b.name, {{"Place"}}, {}, {}};
    constexpr double anyWidth = 400; // it decides nothing here
    const std::vector<LaidColumn> columns = layColumns(formOf(in, b), b, anyWidth);
    for (const LaidColumn& c : columns)
        list.columns.push_back({c.heading, "", c.align == ColumnAlign::Right ? Align::Right : Align::Left});
    std::vector<CircuitId> circuits(in.results.on(id).begin(), in.results.on(id).end());
    std::stable_sort(circuits.begin(), circuits.end(), [&](CircuitId x, CircuitId y) {
        return in.project.circuits[x].slot < in.project.circuits[y].slot;
    });
    std::vector<double> sums(columns.size(), 0);
    for (CircuitId circuit : circuits) {
        const CircuitFacts facts(in, circuit);
        std::vector<ListCell> cells{{placesWords(b, in.project.circuits[circuit])}};
        for (std::size_t c = 0; c < columns.size(); ++c) {
            if (columns[c].line >= 0) {
                const auto va = lineVa(facts, columns[c].line);
                cells.push_back(va ? numberCell(*va) : ListCell{lineVaWords(facts, columns[c].line)});
                sums[c] += va.value_or(0);
                continue;
            }
            ListCell cell{columns[c].wording.of(facts)};
            cell.value = shownNumber(cell.text);
            cells.push_back(std::move(cell));
        }
        list.add(circuit, std::move(cells));
    }
    const bool byLine = std::any_of(columns.begin(), columns.end(), [](const LaidColumn& c) { return c.line >= 0; });
    if (byLine && !list.rows.empty()) {
        std::vector<ListCell> total{{"Total"}};
        for (std::size_t c = 0; c < columns.size(); ++c)
            total.push_back(columns[c].line >= 0 ? numberCell(sums[c]) : ListCell{});
        list.total(std::move(total));
    }
    return list;
}

bool hasWorkbook(const SheetInput& in) {
    return std::any_of(in.project.boards.begin(), in.project.boards.end(),
                       [&](const Board& b) { return !in.results.on(b.id).empty(); }) ||
           std::any_of(listKinds().begin(), listKinds().end(),
                       [&](const ListKind& k) { return !k.make(in).rows.empty(); });
}

std::vector<NamedGrid> workbookOf(const SheetInput& in) {
    const std::string& job = in.project.basis.title;
    std::vector<NamedGrid> grids;
    for (const List& list : listsOf(in, false)) grids.push_back(sheetOf(list, job));
    std::vector<const Board*> boards;
    for (const Board& b : in.project.boards)
        if (!in.results.on(b.id).empty()) boards.push_back(&b);
    std::stable_sort(boards.begin(), boards.end(), [](const Board* x, const Board* y) { return x->name < y->name; });
    for (const Board* b : boards) grids.push_back(sheetOf(scheduleList(in, b->id), job));
    return grids;
}

} // namespace lintel
