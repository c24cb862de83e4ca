// lintel-cli lists: what an office issues beside schedules and drawings, as text, CSV, XLSX or JSON.

#include "cli/Commands.h"
#include "core/formats/Grid.h"
#include "core/lists/ListForms.h"
#include "core/lists/Workbook.h"

#include <fmt/format.h>
#include <iostream>
#include <nlohmann/json.hpp>

namespace lintel {
namespace {

nlohmann::ordered_json jsonOf(const List& list) {
    nlohmann::ordered_json rows = nlohmann::ordered_json::array();
    std::string group;
    for (const ListEntry& r : list.rows) {
        if (r.kind == ListEntry::Kind::Group) {
            group = r.cells.front().text;
            continue;
        }
        nlohmann::ordered_json row;
        if (r.about) row["id"] = r.about.text();
        if (!group.empty()) row["group"] = group;
        if (r.kind == ListEntry::Kind::Total) row["total"] = true;
        for (std::size_t c = 0; c < r.cells.size() && c < list.columns.size(); ++c) {
            const std::string key = list.columns[c].head();
            if (r.cells[c].value)
                row[key] = *r.cells[c].value;
            else
                row[key] = r.cells[c].text;
        }
        rows.push_back(std::move(row));
    }
    return {{"key", list.key}, {"title", list.title}, {"rows", rows}, {"notes", list.notes}};
}

std::string kindsKnown() {
    std::string all;
    for (const ListKind& k : listKinds()) all += (all.empty() ? "" : ", ") + std::string(k.key);
    return all;
}

void print(const List& list) {
    std::cout << list.title << "\n";
    for (const auto& row : gridOf(list)) {
        for (std::size_t i = 0; i < row.size(); ++i) std::cout << (i ? "\t" : "") << row[i];
        std::cout << "\n";
    }
    std::cout << "\n";
}

} // namespace

int runLists(const ListsOrder& o) {
    std::vector<const ListKind*> kinds;
    for (const std::string& key : o.keys) {
        const ListKind* kind = listKind(key);
        if (!kind) return fail({key, "there is no such list", "The lists are: " + kindsKnown()});
        kinds.push_back(kind);
    }
    if (kinds.empty())
        for (const ListKind& k : listKinds()) kinds.push_back(&k);
    const std::filesystem::path out = o.out;
    const std::string ending = out.extension().string();
    if (ending == ".csv" && kinds.size() != 1)
        return fail({o.out, "a CSV file holds one list", "Name one of: " + kindsKnown() + "; or write an .xlsx."});
    auto s = openSolved(o.file);
    if (!s) return fail(s.error());
    const SheetInput in{(*s)->project, (*s)->book, (*s)->results};
    std::vector<List> lists;
    for (const ListKind* k : kinds) {
        List list = o.json ? k->make(in) : formedList(in, *k); // programs read what no form changes
        if (!list.rows.empty() || !o.keys.empty()) lists.push_back(std::move(list));
    }
    if (o.out.empty()) {
        if (o.json) {
            nlohmann::ordered_json all = nlohmann::ordered_json::array();
            for (const List& l : lists) all.push_back(jsonOf(l));
            std::cout << all.dump(1) << "\n";
        } else {
            for (const List& l : lists) print(l);
        }
        return 0;
    }
    if (ending == ".csv") {
        if (auto bad = writeGrid(gridOf(lists.front()), out, lists.front().title)) return fail(*bad);
    } else if (ending == ".xlsx") {
        std::vector<NamedGrid> grids;
        if (o.keys.empty())
            grids = workbookOf(in);
        else
            for (const List& l : lists) grids.push_back(sheetOf(l, in.project.basis.title));
        if (grids.empty()) return fail({o.out, "the project has nothing to list", ""});
        if (auto bad = writeGrids(grids, out)) return fail(*bad);
        std::cout << fmt::format("{}: {} {}\n", o.out, grids.size(), grids.size() == 1 ? "sheet" : "sheets");
        return 0;
    } else {
        std::error_code ec;
        std::filesystem::create_directories(out, ec);
        if (ec) return fail({o.out, "the folder cannot be made: " + ec.message(), "Choose another."});
        for (const List& l : lists)
            if (auto bad = writeGrid(gridOf(l), out / (l.key + ".csv"), l.title)) return fail(*bad);
    }
    std::cout << fmt::format("{}: {} {}\n", o.out, lists.size(), lists.size() == 1 ? "list" : "lists");
    return 0;
}

} // namespace lintel
