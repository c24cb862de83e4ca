// The take-off: conductors by size, metal and colour, cables, conduit by type and size, devices of the plan by floor,
// breakers and boards, and boxes and fittings by the rules of the office. Lengths are those of the runs; what has no
// length is counted beside, not guessed.

#include "core/base/Counted.h"
#include "core/base/Parse.h"
#include "core/lists/RunCells.h"
#include "core/lists/TakeOffRules.h"
#include "core/project/Equipment.h"
#include "core/project/LevelOf.h"
#include "core/project/Raceway.h"

#include <fmt/format.h>

#include <map>
#include <set>

namespace lintel {
namespace {

/// So much of something, and of that on each floor; what stands on none is in the whole only.
struct Amount {
    double all = 0;
    std::map<LevelId, double> on{};
    void add(LevelId level, double more) {
        all += more;
        if (level) on[level] += more;
    }
};

struct TakeOff {
    explicit TakeOff(const SheetInput& input) : in(input), p(input.project) {
        for (const Device& d : p.devices)
            if (d.circuit) floorOf.emplace(d.circuit, d.level);
    }
    const SheetInput& in;
    const Project& p;
    std::map<CircuitId, LevelId> floorOf; ///< of the first device that is drawn of a circuit
    std::map<std::tuple<int, SizeIndex, std::string>, Amount> conductors; ///< metal, size, colour → m
    /// A cable or conduit; sizes in the order of what they hold, not of their names.
    struct Laid {
        std::string type;
        double order = 0;
        std::string size;
        auto operator<=>(const Laid&) const = default;
    };
    std::map<Laid, Amount> cables, conduits; ///< m
    /// What is in already for several circuits together, m: by board and group the raceway with its protective
    /// conductor, and the one neutral.
    std::map<std::pair<BoardId, int>, double> raceways, neutrals;
    int unknown = 0, outside = 0;

    /// What is laid from end to end: a conduit or a cable, `parallel` of them.
    struct Way {
        Laid what;
        double metres = 0;
        int parallel = 1;
        LevelId level{};
    };
    std::vector<Way> ways;
    std::map<std::pair<BoardId, int>, std::size_t> sharedWays; ///< of circuits that share one

    /// The floor on which a run ends: that of its devices, or of its board where none is drawn.
    LevelId floorOfRun(Ref thing, const Circuit* circuit) const {
        if (!circuit) return levelOf(p, thing);
        const auto drawn = floorOf.find(circuit->id);
        return drawn != floorOf.end() ? drawn->second : levelOf(p, circuit->board);
    }
    void conductor(LevelId level, Material m, SizeIndex size, const std::string& colour, double metres) {
        if (size >= 0 && metres > 0) conductors[{int(m), size, colour}].add(level, metres);
    }
    /// Circuits of one raceway lie in it together, as long as the longest of them.
    void way(BoardId board, int group, Way w) {
        if (group > 0) {
            const auto [at, isNew] = sharedWays.emplace(std::pair{board, group}, ways.size());
            if (!isNew) {
                double& metres = ways[at->second].metres;
                metres = std::max(metres, w.metres);
                return;
            }
        }
        ways.push_back(std::move(w));
    }
    /// The lines of a board's system that a run takes.
    std::vector<int> linesOf(Ref thing, VoltageSystem system, int count) const {
        std::vector<int> out;
        const CircuitId via = thing.is<Circuit>() ? thing.as<Circuit>() : in.results.node(thing)->via;
        if (via)
            for (int line : in.results.of(via).lines)
                if (line >= 0) out.push_back(line);
        if (out.empty())
            for (int line = 0; line < factsOf(system).lines; ++line) out.push_back(line);
        const std::size_t known = out.size();
        while (int(out.size()) < count) out.push_back(out[out.size() - known]);
        out.resize(std::size_t(count));
        return out;
    }
    /// What a run adds of something that several share: all of it, or what it is longer than the longest before it.
    static double added(std::map<std::pair<BoardId, int>, double>& shared, BoardId board, int group, double metres) {
        if (group == 0) return metres;
        double& there = shared[{board, group}];
        const double more = std::max(0.0, metres - there);
        there = std::max(there, metres);
        return more;
    }
    void run(Ref thing, const RunResult& r, const Circuit* circuit = nullptr) {
        if (r.state == Sizing::OutsideTables) {
            ++outside;
            return;
        }
        if (r.size < 0) return;
        if (!r.need.lengthKnown || r.need.lengthAssumed) {
            ++unknown;
            return;
        }
        const int sets = std::max(1, r.sets);
        const double metres = r.need.length.v * sets;
        const VoltageSystem system = r.need.system;
        const LevelId level = floorOfRun(thing, circuit);
        const RunParts parts = partsOf(p, in.book, in.results, thing);
        if (in.book.metric() && r.need.cable->type >= 0) {
            const CableType& type = in.book.cables.types[std::size_t(r.need.cable->type)];
            if (!type.single) {
                const Laid cable{type.name, double(r.size), conductorsOfOne(r)};
                cables[cable].add(level, metres);
                way({}, 0, {cable, r.need.length.v, sets, level});
                return;
            }
        }
        for (int line : linesOf(thing, system, parts.lines))
            conductor(level, r.need.material, r.size, lineColour(p.basis, system, line), metres);
        const BoardId board = circuit ? circuit->board : BoardId{};
        const int oneNeutral = circuit ? neutralGroup(*circuit) : 0, oneRaceway = circuit ? racewayGroup(*circuit) : 0;
        conductor(level, r.need.material, parts.neutral, neutralColour(p.basis, system),
                  added(neutrals, board, oneNeutral, metres) * parts.neutrals);
        // In one raceway there is one protective conductor, and one conduit.
        const double own = added(raceways, board, oneRaceway, metres);
        const std::string protective = protectiveColour(system);
        conductor(level, r.need.material, parts.ground, protective, own);
        conductor(level, r.need.material, parts.isolated, protective + ", isolated", metres);
        if (!parts.conduit.size) return;
        const Laid conduit{parts.conduitType, parts.conduit.size->area, parts.conduit.size->name};
        if (own > 0) conduits[conduit].add(level, own);
        way(board, oneRaceway, {conduit, r.need.length.v, sets, level});
    }
    std::string conductorsOfOne(const RunResult& r) const {
        RunResult one = r;
        one.sets = 1;
        return conductorWords(one, in.book);
    }
};

/// Whether a rule says this name among others, whatever the case.
bool isOf(const TakeOffRule& rule, const std::string& name) {
    return rule.of.empty() || lowered(name).find(lowered(rule.of)) != std::string::npos;
}

/// The cells of the floors behind the others of a row.
template <class Cell> void onFloors(std::vector<ListCell>& cells, const Project& p, const Amount& amount, Cell cell) {
    for (const Level& l : p.levels) {
        const auto at = amount.on.find(l.id);
        cells.push_back(at == amount.on.end() ? ListCell{"–"} : cell(at->second));
    }
}
ListCell piecesCell(double n) { return numberCell(std::ceil(n - 1e-9)); }

/// What the rules count: devices by their type and floor, what is laid by type and size.
void byRules(List& list, const SheetInput& in, const TakeOff& t, const std::map<DeviceTypeId, Amount>& drawn) {
    const Project& p = in.project;
    if (p.basis.takeOffRules.empty()) return;
    list.group("Boxes and fittings, by rule");
    for (const TakeOffRule& rule : p.basis.takeOffRules) {
        bool any = false;
        const auto row = [&](const std::string& of, const std::string& size, const Amount& pieces) {
            if (pieces.all <= 0) return;
            any = true;
            std::vector<ListCell> cells{
                {rule.item + (of.empty() ? "" : ", " + of)}, {size}, piecesCell(pieces.all), {"pieces"}};
            onFloors(cells, p, pieces, piecesCell);
            list.add({}, std::move(cells));
        };
        if (rule.per == TakeOffPer::Device) {
            Amount pieces;
            for (const auto& [type, there] : drawn)
                if (isOf(rule, p.deviceTypes[type].name))
                    for (const auto& [level, n] : there.on) pieces.add(level, n * rule.amount);
            row(rule.of, "", pieces);
        } else {
            std::map<TakeOff::Laid, Amount> pieces;
            for (const TakeOff::Way& w : t.ways)
                if (isOf(rule, w.what.type))
                    pieces[w.what].add(w.level,
                                       rule.amount * w.parallel *
                                           (rule.per == TakeOffPer::End ? 2 : std::ceil(w.metres / rule.every - 1e-9)));
            for (const auto& [of, n] : pieces) row(of.type, of.size, n);
        }
        list.notes.push_back(ruleWords(rule, p.basis.units) + (any ? "" : " There is none."));
    }
}

} // namespace

List takeOffList(const SheetInput& in) {
    const Project& p = in.project;
    const UnitSystem units = p.basis.units;
    const auto length = [&](double metres) {
        const double ordered = metres * (1 + p.basis.waste);
        return numberCell(units == UnitSystem::Imperial ? inFeet(Metres{ordered}) : ordered);
    };
    List list{"take-off", "Take-off", {{"What"}, {"Size or rating"}, {"Amount", "", Align::Right}, {"Unit"}}, {}, {}};
    for (const Level& l : p.levels) list.columns.push_back({l.name, "", Align::Right});
    const auto row = [&](Ref about, const std::string& what, const std::string& size, const Amount& amount,
                         const char* unit, const auto& cell) {
        std::vector<ListCell> cells{{what}, {size}, cell(amount.all), {unit}};
        onFloors(cells, p, amount, cell);
        list.add(about, std::move(cells));
    };
    TakeOff t(in);
    for (Ref thing : in.results.order)
        if (const NodeResult& n = *in.results.node(thing); n.parent) t.run(thing, n.run);
    for (const Circuit& c : p.circuits)
        if (const CircuitResult& r = in.results.of(c.id); !r.feeder && c.use == CircuitUse::Load && r.va > 0)
            t.run(c.id, r.run, &c);
    if (!t.conductors.empty()) {
        list.group("Conductors");
        for (const auto& [what, metres] : t.conductors)
            row({}, fmt::format("{}, {}", wordOf(Material(std::get<0>(what))), std::get<2>(what)),
                sizeWords(in.book, std::get<1>(what)), metres, lengthUnit(units), length);
    }
    const auto lengths = [&](const char* heading, const std::map<TakeOff::Laid, Amount>& amounts) {
        if (!amounts.empty()) list.group(heading);
        for (const auto& [what, metres] : amounts) row({}, what.type, what.size, metres, lengthUnit(units), length);
    };
    lengths("Cables", t.cables);
    lengths("Conduit", t.conduits);
    std::map<std::tuple<double, int, std::string>, Amount> devices;
    for (const Circuit& c : p.circuits) {
        const CircuitResult& r = in.results.of(c.id);
        if (c.use != CircuitUse::Reserved && r.device > 0)
            devices[{r.device, c.poles,
                     fmt::format("{}{}", deviceWords(r, c.poles, in.book),
                                 c.groundFault && c.arcFault ? ", ground and arc fault"
                                 : c.groundFault             ? ", ground fault"
                                 : c.arcFault                ? ", arc fault"
                                 : c.residual > 0            ? fmt::format(", {} mA", number(c.residual))
                                                             : "")}]
                .add(levelOf(p, c.board), 1);
    }
    if (!devices.empty()) {
        list.group(in.book.word(TradeWord::DevicesInBoards));
        for (const auto& [what, n] : devices)
            row({}, fmt::format("{}-pole", std::get<1>(what)), std::get<2>(what), n, "pieces", piecesCell);
    }
    if (p.boards.size() + p.transformers.size() > 0) list.group("Boards and equipment");
    const auto one = [&](Ref thing, const std::string& what, const std::string& size) {
        Amount amount;
        amount.add(levelOf(p, thing), 1);
        row(thing, what, size, amount, "piece", piecesCell);
    };
    for (const Board& b : p.boards)
        one(b.id, fmt::format("{}, {}", b.name, wordOf(b.use)),
            fmt::format("{} A, {} V, {} kA{}", rating(b.bus), wordOf(b.system), rating(b.ratingKA),
                        passesOn(b.use) ? "" : ", " + counted(b.slots, "place")));
    for (const Transformer& x : p.transformers)
        one(x.id, x.name + ", transformer",
            fmt::format("{} kVA, {} – {} V", rating(x.kva), wordOf(x.primary), wordOf(x.secondary)));
    std::map<DeviceTypeId, Amount> drawn;
    for (const Device& d : p.devices) drawn[d.type].add(d.level, 1);
    if (!drawn.empty()) {
        list.group("Devices on plan");
        for (const auto& [type, n] : drawn) {
            const DeviceType& y = p.deviceTypes[type];
            row({}, y.name, kindTitle(y.kind, in.book), n, "pieces", piecesCell);
        }
    }
    byRules(list, in, t, drawn);
    if (list.rows.empty()) return list;
    list.notes.push_back(fmt::format("Lengths as the runs are measured or entered, with the slack of the basis{}. "
                                     "Home runs of a bundle share one conduit and one protective conductor. A run "
                                     "counts on the floor where it ends.",
                                     p.basis.waste > 0 ? fmt::format(" and {} waste", percent(p.basis.waste * 100))
                                                       : "; no waste is added"));
    if (t.unknown > 0)
        list.notes.push_back(fmt::format("{} {} no known length and {} not in it.", t.unknown,
                                         t.unknown == 1 ? "run has" : "runs have", t.unknown == 1 ? "is" : "are"));
    if (t.outside > 0)
        list.notes.push_back(fmt::format("{} of medium voltage {} not in it.",
                                         t.outside == 1 ? "One run" : fmt::format("{} runs", t.outside),
                                         t.outside == 1 ? "is" : "are"));
    return list;
}

} // namespace lintel
