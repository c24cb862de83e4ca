#include "core/lists/ListForms.h"

#include "core/base/NaturalOrder.h"

#include <algorithm>
#include <cmath>
#include <unordered_map>

namespace lintel {

const ListForm* listForm(const Project& p, const std::string& key) {
    for (const ListForm& f : p.listForms)
        if (f.list == key) return &f;
    return nullptr;
}

namespace {

/// A column of a list, by its place, as a form has it.
struct Formed {
    std::size_t of;
    ListFormColumn as;
};
/// All columns: those that the form names in its order, then the others.
std::vector<Formed> inOrder(const List& list, const ListForm* form) {
    std::vector<Formed> all;
    std::vector<bool> taken(list.columns.size());
    const auto take = [&](const ListFormColumn& column) {
        for (std::size_t i = 0; i < list.columns.size(); ++i) {
            if (taken[i] || list.columns[i].heading != column.of) continue;
            taken[i] = true;
            all.push_back({i, column});
            return;
        }
    };
    if (form)
        for (const ListFormColumn& c : form->columns) take(c);
    for (const ListColumn& c : list.columns) take({c.heading, "", false});
    return all;
}

std::optional<std::size_t> columnNamed(const List& list, const std::string& heading) {
    for (std::size_t i = 0; i < list.columns.size() && !heading.empty(); ++i)
        if (list.columns[i].heading == heading) return i;
    return std::nullopt;
}

const ListCell& cellOf(const ListEntry& row, std::size_t column) {
    static const ListCell none{};
    return column < row.cells.size() ? row.cells[column] : none;
}

/// A row with those that go on from it.
using Block = std::vector<ListEntry>;

bool saysNothing(const ListCell& c) { return c.text.empty() || c.text == "–"; }

/// Numbers by their value, texts as people count ("LP-2" before "LP-10"); what says nothing is last either way.
bool before(const ListCell& a, const ListCell& b, bool backwards) {
    if (saysNothing(a) || saysNothing(b)) return !saysNothing(a) && saysNothing(b);
    if (bool(a.value) != bool(b.value)) return bool(a.value) != backwards;
    if (a.value) return backwards ? *a.value > *b.value : *a.value < *b.value;
    return backwards ? numberBefore(b.text, a.text) : numberBefore(a.text, b.text);
}

/// Hands each stretch of rows between two headings or totals to `change`, in blocks, and puts it back.
template <class F> void eachStretch(List& list, F change) {
    std::vector<ListEntry> all;
    std::vector<Block> stretch;
    const auto end = [&] {
        change(stretch);
        for (Block& block : stretch)
            for (ListEntry& row : block) all.push_back(std::move(row));
        stretch.clear();
    };
    for (ListEntry& row : list.rows) {
        if (row.kind != ListEntry::Kind::Figures) {
            end();
            all.push_back(std::move(row));
        } else if (!stretch.empty() && cellOf(row, 0).text.empty()) {
            stretch.back().push_back(std::move(row));
        } else {
            stretch.push_back({std::move(row)});
        }
    }
    end();
    list.rows = std::move(all);
}

void sortRows(List& list, std::size_t column, bool backwards) {
    eachStretch(list, [&](std::vector<Block>& stretch) {
        std::stable_sort(stretch.begin(), stretch.end(), [&](const Block& a, const Block& b) {
            return before(cellOf(a.front(), column), cellOf(b.front(), column), backwards);
        });
    });
}

/// The columns that are added up at the foot: those whose figure there is the sum of what stands above it.
std::vector<std::size_t> addedUp(const List& list) {
    std::vector<std::size_t> columns;
    if (list.rows.empty() || list.rows.back().kind != ListEntry::Kind::Total) return columns;
    for (std::size_t i = 0; i < list.columns.size(); ++i) {
        const auto& whole = cellOf(list.rows.back(), i).value;
        double sum = 0;
        for (const ListEntry& row : list.rows)
            if (row.kind == ListEntry::Kind::Figures) sum += cellOf(row, i).value.value_or(0);
        if (whole && std::abs(sum - *whole) <= 1e-6 * std::max(1.0, std::abs(sum))) columns.push_back(i);
    }
    return columns;
}

void groupRows(List& list, std::size_t column) {
    const std::vector<std::size_t> sums = addedUp(list);
    eachStretch(list, [&](std::vector<Block>& stretch) {
        if (stretch.empty()) return;
        std::vector<std::pair<ListCell, std::vector<Block>>> groups; // in the order in which they are met
        std::unordered_map<std::string, std::size_t> placeOf;
        for (Block& block : stretch) {
            const ListCell& by = cellOf(block.front(), column);
            const auto [it, fresh] = placeOf.try_emplace(by.text, groups.size());
            if (fresh) groups.push_back({by, {}});
            groups[it->second].second.push_back(std::move(block));
        }
        std::stable_sort(groups.begin(), groups.end(),
                         [](const auto& a, const auto& b) { return before(a.first, b.first, false); });
        stretch.clear();
        for (auto& [by, blocks] : groups) {
            const std::string name = saysNothing(by) ? "Not said" : by.text;
            Block rows{{ListEntry::Kind::Group, {}, {{list.columns[column].head() + ": " + name}}}};
            ListEntry total{ListEntry::Kind::Total, {}, std::vector<ListCell>(list.columns.size())};
            total.cells.front().text = name + ", together";
            for (std::size_t i : sums) {
                double sum = 0;
                for (const Block& block : blocks)
                    for (const ListEntry& row : block) sum += cellOf(row, i).value.value_or(0);
                total.cells[i] = figureCell(sum);
            }
            for (Block& block : blocks)
                for (ListEntry& row : block) rows.push_back(std::move(row));
            if (!sums.empty()) rows.push_back(std::move(total));
            stretch.push_back(std::move(rows));
        }
    });
}

} // namespace

bool canGroup(const List& list) {
    for (std::size_t i = 0; i < list.rows.size(); ++i) {
        if (list.rows[i].kind == ListEntry::Kind::Group) return false;
        if (list.rows[i].kind == ListEntry::Kind::Total && i + 1 < list.rows.size()) return false;
    }
    return true;
}

std::vector<ListFormColumn> columnsOf(const List& list, const ListForm* form) {
    std::vector<ListFormColumn> all;
    for (const Formed& c : inOrder(list, form)) all.push_back(c.as);
    return all;
}

List formed(List list, const ListForm* form) {
    if (!form) return list;
    if (const auto by = columnNamed(list, form->sortBy)) sortRows(list, *by, form->backwards);
    if (const auto by = columnNamed(list, form->groupBy); by && canGroup(list)) groupRows(list, *by);
    std::vector<std::size_t> order; // of the columns that are shown
    std::vector<ListColumn> columns;
    for (const Formed& c : inOrder(list, form)) {
        if (c.as.hidden) continue;
        order.push_back(c.of);
        columns.push_back(list.columns[c.of]);
        if (!c.as.heading.empty()) columns.back().heading = c.as.heading;
    }
    if (!form->title.empty()) list.title = form->title;
    if (order.empty()) return list; // nothing would be left of it
    for (ListEntry& row : list.rows) {
        if (row.kind == ListEntry::Kind::Group) continue; // a heading over the whole width
        std::vector<ListCell> cells;
        for (std::size_t i : order) cells.push_back(i < row.cells.size() ? row.cells[i] : ListCell{});
        const bool total = row.kind == ListEntry::Kind::Total && !row.cells.empty();
        if (total && !row.cells.front().value && std::find(order.begin(), order.end(), 0u) == order.end() &&
            cells.front().text.empty())
            cells.front() = row.cells.front();
        row.cells = std::move(cells);
    }
    list.columns = std::move(columns);
    return list;
}

List formedList(const SheetInput& in, const ListKind& kind) {
    return formed(kind.make(in), listForm(in.project, kind.key));
}

void shapeList(Project& p, const List& list, ListForm form) {
    const bool same = form.title.empty() && !form.offSheets && form.sortBy.empty() && form.groupBy.empty() &&
                      form.columns == columnsOf(list, nullptr);
    form.list = list.key;
    std::vector<ListFormId> before;
    for (const ListForm& f : p.listForms)
        if (f.list == list.key) before.push_back(f.id);
    if (same) {
        for (ListFormId id : before) p.listForms.remove(id);
        return;
    }
    if (before.empty()) {
        form.id = {};
        p.listForms.add(std::move(form));
        return;
    }
    form.id = before.front();
    form.extra = p.listForms[form.id].extra;
    *p.listForms.change(form.id) = std::move(form);
    for (std::size_t i = 1; i < before.size(); ++i) p.listForms.remove(before[i]);
}

} // namespace lintel
