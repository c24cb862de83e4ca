#include "core/lists/ListForms.h"

#include <algorithm>

namespace lintel {

const ListForm* listForm(const Project& p, const std::string& key) {
    for (const ListForm& f : p.listForms)
        if (f.list == key) return &f;
    return nullptr;
}

std::vector<ListFormColumn> columnsOf(const List& list, const ListForm* form) {
    std::vector<ListFormColumn> all;
    std::vector<bool> taken(list.columns.size());
    const auto take = [&](const ListFormColumn& column) {
        for (std::size_t i = 0; i < list.columns.size(); ++i) {
            if (taken[i] || list.columns[i].heading != column.of) continue;
            taken[i] = true;
            all.push_back(column);
            return;
        }
    };
    if (form)
        for (const ListFormColumn& c : form->columns) take(c);
    for (const ListColumn& c : list.columns) take({c.heading, "", false});
    return all;
}

List formed(List list, const ListForm* form) {
    if (!form) return list;
    std::vector<std::size_t> order; // of the columns that are shown
    std::vector<ListColumn> columns;
    std::vector<bool> taken(list.columns.size());
    for (const ListFormColumn& c : columnsOf(list, form))
        for (std::size_t i = 0; i < list.columns.size(); ++i) {
            if (taken[i] || list.columns[i].heading != c.of) continue;
            taken[i] = true;
            if (c.hidden) break;
            order.push_back(i);
            columns.push_back(list.columns[i]);
            if (!c.heading.empty()) columns.back().heading = c.heading;
            break;
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
