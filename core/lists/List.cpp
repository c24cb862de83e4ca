#include "core/lists/List.h"

#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/figures/Words.h"
#include "core/lists/CalculationTables.h"
#include "core/lists/ListForms.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace lintel {

List feederList(const SheetInput& in);
List conductorList(const SheetInput& in);
List transformerList(const SheetInput& in);
List motorList(const SheetInput& in);
List heaterList(const SheetInput& in);
List kitchenList(const SheetInput& in);
List luminaireList(const SheetInput& in);
List protectionList(const SheetInput& in);
List bondingList(const SheetInput& in);
List sectionList(const SheetInput& in);
List demandList(const SheetInput& in);
List densityList(const SheetInput& in);
List raisedList(const SheetInput& in);
List unfedList(const SheetInput& in);
List circuitList(const SheetInput& in);
List takeOffList(const SheetInput& in);

namespace {
template <List (*table)(const SheetInput&, const ListScope&)> List ofWhole(const SheetInput& in) {
    return table(in, wholeProject(in.project, in.results));
}
} // namespace

const std::vector<ListKind>& listKinds() {
    static const std::vector<ListKind> kinds{{"feeders", feederList},
                                             {"transformers", transformerList},
                                             {"protection", protectionList},
                                             {"sections", sectionList},
                                             {"bonding", bondingList},
                                             {"demand", demandList},
                                             {"motors", motorList},
                                             {"heaters", heaterList},
                                             {"kitchen", kitchenList},
                                             {"luminaires", luminaireList},
                                             {"density", densityList},
                                             {"raised", raisedList},
                                             {"unfed", unfedList},
                                             {"take-off", takeOffList},
                                             {"conductors", conductorList, ListKind::Of::Files},
                                             {"circuits", circuitList, ListKind::Of::Files},
                                             {"supplies", ofWhole<supplyTable>, ListKind::Of::Calculations},
                                             {"loads", ofWhole<loadTable>, ListKind::Of::Calculations},
                                             {"sizes", ofWhole<feederTable>, ListKind::Of::Calculations},
                                             {"drop", ofWhole<dropTable>, ListKind::Of::Calculations},
                                             {"faults", ofWhole<faultTable>, ListKind::Of::Calculations},
                                             {"loop", ofWhole<loopTable>, ListKind::Of::Calculations},
                                             {"runs", ofWhole<runTable>, ListKind::Of::Calculations}};
    return kinds;
}

const ListKind* listKind(const std::string& key) {
    for (const ListKind& k : listKinds())
        if (key == k.key) return &k;
    return nullptr;
}

std::vector<List> listsOf(const SheetInput& in, bool forSheets) {
    std::vector<List> lists;
    for (const ListKind& k : listKinds()) {
        const ListForm* form = listForm(in.project, k.key);
        if (forSheets && (k.of != ListKind::Of::Lists || (form && form->offSheets))) continue;
        if (List list = formedList(in, k); !list.rows.empty()) lists.push_back(std::move(list));
    }
    return lists;
}

ListCell figureCell(double value) { return {figures(value), value}; }
ListCell numberCell(double value, int decimals) { return {number(value, decimals), value}; }
ListCell ratingCell(double value) { return {rating(value), value}; }
ListCell percentCell(double value) { return {number(value, std::abs(value) < 9.95 ? 1 : 0), value}; }

std::string pageTitle(const std::string& title, std::size_t page) {
    return page == 0 ? title : fmt::format("{}, sheet {}", title, page + 1);
}

const char* lengthUnit(UnitSystem units) { return units == UnitSystem::Imperial ? "ft" : "m"; }

ListCell lengthCell(const RunNeed& need, UnitSystem units) {
    if (!need.lengthKnown || need.lengthAssumed) return {lengthOf(need, units), {}, Ink::Check};
    const double v = units == UnitSystem::Imperial ? inFeet(need.length) : need.length.v;
    return {number(v, units == UnitSystem::Imperial ? 0 : 1), v};
}

std::vector<std::vector<std::string>> gridOf(const List& list) {
    std::vector<std::vector<std::string>> grid;
    std::vector<std::string> head;
    for (const ListColumn& c : list.columns) head.push_back(c.head());
    grid.push_back(head);
    for (const ListEntry& r : list.rows) {
        std::vector<std::string> row;
        for (const ListCell& c : r.cells)
            row.push_back(c.value ? fmt::format("{}", std::round(*c.value * 1000) / 1000) : c.text);
        grid.push_back(row);
    }
    for (const std::string& note : list.notes) grid.push_back({note});
    return grid;
}

} // namespace lintel
