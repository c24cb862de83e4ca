#include "core/lists/ListForms.h"

#include <algorithm>

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

} // namespace

std::vector<ListFormColumn> columnsOf(const List& list, const ListForm* form) {
    std::vector<ListFormColumn> all;
    for (const Formed& c : inOrder(list, form)) all.push_back(c.as);
    return all;
}

List formed(List list, const ListForm* form) {
    if (!form) return list;
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
    const bool same = form.title.empty() && !form.offSheets && form.columns == columnsOf(list, nullptr);
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
