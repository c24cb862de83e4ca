// Whatever somebody enters is on what is issued, or changes something there; what is not has its reason here.

#include "core/compose/CutSheets.h"
#include "core/compose/SheetSet.h"
#include "core/lists/List.h"
#include "core/project/AddBelow.h"
#include "core/project/Fields.h"
#include "core/project/ProjectFile.h"
#include "core/project/Validation.h"
#include "tests/Building.h"

#include <map>
#include <set>
#include <span>

using namespace lintel;

namespace {

/// What is not on what is issued, and why.
const std::map<std::string, std::string>& notIssued() {
    static const char* circuiting = "how circuits are made by themselves";
    static const char* made = "what is made by a command says it itself";
    static const char* origin = "where it came from";
    static const char* layout = "where things are put by themselves";
    static const char* checked = "a figure of somebody's list that ours is held against";
    static const char* calculation = "goes into what is worked out where that comes to matter: the workings tell it";
    static const std::map<std::string, std::string> reasons{
        {"basis ruleBook", "chooses the book, which says itself on every sheet"},
        {"basis designer", "whoever drew it, where nobody else is named"},
        {"basis powerFactor", calculation},
        {"basis lightingAreaOf", calculation},
        {"basis insulation", calculation},
        {"basis insulationType", calculation},
        {"basis classShare", calculation},
        {"basis unknownLength", calculation},
        {"basis branchCable", "the kind of cable stands with each run"},
        {"basis feederCable", "the kind of cable stands with each run"},
        {"basis branchMethod", calculation},
        {"basis feederMethod", calculation},
        {"basis circuitShare", circuiting},
        {"basis circuitPoints", circuiting},
        {"basis ownCircuitFrom", circuiting},
        {"basis panelboardUpTo", circuiting},
        {"basis lightUtilisation", layout},
        {"basis lightMaintenance", layout},
        {"basis runPattern", made},
        {"basis sheetsTogether", "what the set proposes"},
        {"basis calculationSheets", "which sheets the set has"},
        {"basis namePattern", made},
        {"basis modelOrigin", origin},
        {"levels modelId", origin},
        {"walls modelId", origin},
        {"rooms modelId", origin},
        {"openings modelId", origin},
        {"devices modelId", origin},
        {"rooms kind", layout},
        {"rooms ceiling", layout},
        {"rooms gridX", layout},
        {"rooms gridY", layout},
        {"rooms gridFrom", layout},
        {"devices placed", layout},
        {"deviceTypes poles", "a snag where its circuit has others"},
        {"deviceTypes lifeSafety", circuiting},
        {"sources utilityKV", "the working of the impedance tells it"},
        {"sources peakShare", "a snag where its generator cannot start a motor"},
        {"sources ownSubstation", calculation},
        {"boards givenXR", calculation},
        {"boards efficiency", calculation},
        {"boards inverterA", "among the assumptions, where there is such a figure"},
        {"boards barR20", calculation},
        {"boards barLoopR20", calculation},
        {"boards barLoopX", calculation},
        {"boards reservedShare", "a snag where it is not kept"},
        {"circuits madeName", made},
        {"circuits kept", layout},
        {"circuits pinned", layout},
        {"circuits automatic", made},
        {"circuits letThroughEnergy", calculation},
        {"circuits letThroughData", "among the assumptions, where there is such a figure"},
        {"circuits startTimes", "a snag where its generator cannot start it"},
        {"runs nonlinear", calculation},
        {"runs thirdHarmonic", calculation},
        {"runs route", "how its length is measured, which stands with it"},
        {"runs method", "a choice of the book, told with the run"},
        {"devices spur", calculation},
        {"runs reference", "goes out with the schedule of feeders"},
        {"runs listedConduit", checked},
        {"runs listedKA", checked},
        {"runs listedVA", checked},
        {"loads volts", checked},
        {"loads poles", "a snag where its circuit has others"}};
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
    for (const Drawing& d : cutSheets(in, 851)) out.sheets.emplace_back(d.title, d.marks);
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
            if (k++ % step == 0 && changes<T>(field, [&](Project& q) { return (q.*table).change(thing.id); }))
                return true;
        return false;
    }
};

/// Everything that can stand in a feed, small, with each fact where it counts.
Project withEquipment() {
    Project p = randomBuilding(5, 5);
    std::vector<BoardId> boards;
    for (const Board& b : p.boards) boards.push_back(b.id);
    Board& ups = *p.boards.change(insertInFeed(p, boards[1], BoardUse::Ups));
    ups.kva = 200, ups.kw = 180, ups.efficiency = 0.94, ups.rechargeKW = 5, ups.inverterA = 900;
    Board& bars = *p.boards.change(insertInFeed(p, boards[2], BoardUse::Busway));
    bars.barLength = 40, bars.barR20 = 0.08, bars.barR = 0.1, bars.barX = 0.04, bars.barLoopR20 = 0.2,
    bars.barLoopX = 0.08;
    const BoardId transfer = insertInFeed(p, boards[3], BoardUse::TransferSwitch);
    Source g;
    g.name = "G-1", g.kind = SourceKind::Generator, g.kva = 300, g.system = p.boards[transfer].system;
    alternateFrom(p, transfer, p.sources.add(g));
    // A supply by an existing board, and one by the utility's transformer with what lies before it.
    for (SourceKind kind : {SourceKind::ExistingBoard, SourceKind::UtilityTransformer}) {
        Source s;
        s.name = kind == SourceKind::ExistingBoard ? "Existing" : "Utility 2", s.kind = kind,
        s.system = VoltageSystem::Y208;
        s.faultLN = 9, s.utilityMVA = 200, s.utilityXR = 8;
        Board b;
        b.name = "Of " + s.name, b.system = s.system;
        const BoardId id = addBoard(p, b);
        feedFrom(p, id, p.sources.add(s));
        for (int i = 0; i < 2; ++i) {
            const CircuitId c = addCircuit(p, id, 1, "Outlets");
            Load l;
            l.circuit = c, l.amount = 900;
            p.loads.add(l);
            Run& run = runOf(p, c);
            run.lengthBy = LengthBy::Entered, run.length = 20;
            p.circuits.change(c)->tie = p.circuits.change(c)->bundle = 1;
        }
        Board& changed = *p.boards.change(id);
        changed.seriesKA = 42, changed.seriesDevices = "main A with branch B";
        Transformer t;
        t.name = "T of " + s.name, t.primary = VoltageSystem::Y208, t.secondary = VoltageSystem::Y480;
        t.restartsDrop = false, t.boost = 2.5;
        const TransformerId transformer = p.transformers.add(t);
        if (!refuseFeed(p, transformer, id)) feedFrom(p, transformer, id);
    }
    return p;
}

/// A metric board behind an IT supply, with a section, and a circuit of each kind of run.
Project metricBoard() {
    MetricBoard w;
    Source& s = *w.p.sources.change(w.source);
    s.earthing = Earthing::IT, s.insulationMonitor = "IM-1";
    for (int i = 0; i < 4; ++i) {
        const CircuitId c = w.circuit(2000, LoadUnit::W, i == 3 ? 3 : 1, 60);
        runOf(w.p, c).lying = i == 0 ? Lying::Ladder : Lying::Auto;
        runOf(w.p, c).grouped = 2;
        w.p.circuits.change(c)->residual = 30;
        if (i < 2) continue;
        runOf(w.p, c).cable = "armoured 90 °C", runOf(w.p, c).method = "D";
        runOf(w.p, c).heldSize = "25", runOf(w.p, c).heldSets = 2;
    }
    Section section;
    section.board = w.board, section.name = "Left", section.from = 1, section.to = 2, section.residual = 100;
    w.p.sections.add(section);
    return w.p;
}

} // namespace

TEST_CASE("issued: every fact that can be entered is on a sheet or in a list, or has its reason why not") {
    const auto demo = [](const char* name) { return *loadProject(dataFolder() / "demos" / name); };
    const Context small[] = {{withEquipment(), 1000}, {metricBoard(), 1000}, {demo("saltmarket-hall.lintel"), 2}};
    const Context drawn[] = {{demo("brindle-pier.lintel"), 3}, {demo("saltmarket-hall.lintel"), 3}};
    const std::set<std::string> onPlans{"levels", "walls", "rooms", "deviceTypes", "devices", "openings", "trays"};
    const std::set<std::string> inFeeds{"basis",    "sources",  "transformers", "boards",
                                        "sections", "circuits", "runs",         "loads"};
    const auto look = [&](const std::string& kind, std::size_t fieldCount, const std::vector<std::string>& names,
                          const auto& changes) {
        // What shapes the drawings (forms, composed sheets, notes on plans, underlays, …) has tests of its own.
        if (!onPlans.count(kind) && !inFeeds.count(kind)) return;
        const std::span<const Context> contexts =
            onPlans.count(kind) ? std::span<const Context>(drawn) : std::span<const Context>(small);
        for (std::size_t i = 0; i < fieldCount; ++i) {
            const std::string field = kind + " " + names[i];
            if (names[i] == "id" || notIssued().count(field)) continue;
            INFO(field);
            CHECK(std::any_of(contexts.begin(), contexts.end(), [&](const Context& c) { return changes(c, i); }));
        }
    };
    Names basis;
    Basis b;
    fields(basis, b);
    look("basis", basis.all.size(), basis.all,
         [](const Context& c, std::size_t i) { return c.changes<Basis>(i, [](Project& q) { return &q.basis; }); });
    Project::eachTable([&]<class T>(const char* name, Table<T> Project::*table) {
        Names names;
        T thing{};
        fields(names, thing);
        look(name, names.all.size(), names.all, [&](const Context& c, std::size_t i) { return c.changes(i, table); });
    });
}
