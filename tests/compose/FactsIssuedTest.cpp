// Whatever somebody enters is on what is issued, or changes something there; what is not has its reason here.

#include "core/compose/SheetSet.h"
#include "core/lists/List.h"
#include "core/project/AddBelow.h"
#include "core/project/Fields.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/Building.h"

#include <map>
#include <set>

using namespace lintel;

namespace {

/// What is not on what is issued, and why.
const std::map<std::string, std::string>& notIssued() {
    static const std::map<std::string, std::string> reasons{};
    return reasons;
}

/// Sheets with all that is drawn on them, and lists.
struct Issued {
    std::vector<std::pair<std::string, std::vector<Mark>>> sheets;
    std::vector<std::string> cells;
    bool operator==(const Issued&) const = default;
};
Issued issued(const Project& p, const RuleBook& book) {
    const Results r = solve(p, book);
    const SheetInput in{p, book, r};
    Issued out;
    for (const SheetEntry& e : sheetSet(in)) out.sheets.emplace_back(e.title, e.draw().marks);
    for (const List& l : listsOf(in, false)) {
        for (const ListEntry& row : l.rows)
            for (const ListCell& cell : row.cells) out.cells.push_back(cell.text);
        out.cells.insert(out.cells.end(), l.notes.begin(), l.notes.end());
    }
    return out;
}

/// Enters one field of a thing otherwise, in the first of several ways, the second, …
struct Enter {
    std::size_t field, way;
    std::size_t at = 0;
    std::string key{};
    bool entered = false, kind = true; ///< kind: it is one that is entered this way

    template <class T> void operator()(const char* name, T& value) {
        if (at++ != field) return;
        key = name;
        enter(value);
    }
    template <class T> void take(T& value, std::initializer_list<T> ways) {
        if (way >= ways.size()) return;
        entered = !(value == *(ways.begin() + way));
        value = *(ways.begin() + way);
    }
    void enter(bool& v) { take<bool>(v, {!v}); }
    void enter(int& v) { take<int>(v, {v + 1, v + 2, v - 1, 3}); }
    void enter(double& v) { take<double>(v, {v * 1.5 + 0.25, v * 0.8, 40, 0.3}); }
    void enter(std::optional<double>& v) { take<std::optional<double>>(v, {7.5, 40, 200, 0.5}); }
    void enter(std::string& v) { take<std::string>(v, {"Zq 7", "1/0", "50", "RMC", "{number} Zq"}); }
    void enter(Point& v) { take<Point>(v, {v + Point{1.5, 0.75}}); }
    template <class E>
        requires std::is_enum_v<E>
    void enter(E& v) {
        if (way >= std::size(EnumText<E>::words)) return;
        entered = v != EnumText<E>::words[way].first;
        v = EnumText<E>::words[way].first;
    }
    template <class T> void enter(T&) { kind = false; } // ids, lists, maps
};
struct Names {
    std::vector<std::string> all;
    template <class T> void operator()(const char* name, T&) { all.push_back(name); }
};

/// A project to enter things in.
struct Context {
    Project p;
    const RuleBook& book;
    Issued usual;
    std::size_t most; ///< things of a kind that are tried
    Context(Project project, std::size_t mostTried)
        : p(std::move(project)), book(bookOf(p.basis.ruleBook)), usual(issued(p, book)), most(mostTried) {}

    template <class T, class Get> bool changes(std::size_t field, Get get) const {
        constexpr std::size_t mostWays = 12;
        for (std::size_t way = 0; way < mostWays; ++way) {
            Project q = p;
            Enter enter{field, way};
            fields(enter, *get(q));
            if (!enter.kind) return true; // told elsewhere: what is fed from where, lists of parts
            if (enter.entered && !validate(q) && !(issued(q, book) == usual)) return true;
        }
        return false;
    }
    template <class T> bool changes(std::size_t field, Table<T> Project::*table) const {
        const std::size_t step = std::max<std::size_t>(1, (p.*table).size() / most);
        std::size_t k = 0;
        for (const T& thing : p.*table)
            if (k++ % step == 0 &&
                changes<T>(field, [&](Project& q) { return (q.*table).change(thing.id); }))
                return true;
        return false;
    }
};

/// Everything that can stand in a feed, small.
Project withEquipment() {
    Project p = randomBuilding(5, 5);
    std::vector<BoardId> boards;
    for (const Board& b : p.boards) boards.push_back(b.id);
    Board& ups = *p.boards.change(insertInFeed(p, boards[1], BoardUse::Ups));
    ups.kva = 200, ups.kw = 180, ups.efficiency = 0.94, ups.rechargeKW = 5;
    Board& bars = *p.boards.change(insertInFeed(p, boards[2], BoardUse::Busway));
    bars.barLength = 40, bars.barR20 = 0.08, bars.barR = 0.1, bars.barX = 0.04, bars.barLoopR20 = 0.2,
    bars.barLoopX = 0.08;
    const BoardId transfer = insertInFeed(p, boards[3], BoardUse::TransferSwitch);
    Source g;
    g.name = "G-1", g.kind = SourceKind::Generator, g.kva = 300, g.system = p.boards[transfer].system;
    alternateFrom(p, transfer, p.sources.add(g));
    return p;
}

} // namespace

TEST_CASE("issued: every fact that can be entered is on a sheet or in a list, or has its reason why not") {
    const auto demo = [](const char* name) { return *loadProject(dataFolder() / "demos" / name); };
    const Context contexts[] = {{withEquipment(), 1000}, {demo("brindle-pier.lintel"), 6}, {demo("saltmarket-hall.lintel"), 6}};
    const auto look = [&](const std::string& kind, std::size_t fieldCount, const std::vector<std::string>& names,
                          const auto& changes) {
        for (std::size_t i = 0; i < fieldCount; ++i) {
            const std::string field = kind + " " + names[i];
            if (names[i] == "id" || notIssued().count(field)) continue;
            INFO(field);
            CHECK(std::any_of(std::begin(contexts), std::end(contexts),
                              [&](const Context& c) { return changes(c, i); }));
        }
    };
    Names basis;
    Basis b;
    fields(basis, b);
    look("basis", basis.all.size(), basis.all, [](const Context& c, std::size_t i) {
        return c.changes<Basis>(i, [](Project& q) { return &q.basis; });
    });
    Project::eachTable([&]<class T>(const char* name, Table<T> Project::*table) {
        Names names;
        T thing{};
        fields(names, thing);
        look(name, names.all.size(), names.all,
             [&](const Context& c, std::size_t i) { return c.changes(i, table); });
    });
}
