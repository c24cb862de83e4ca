// The take-off: conductors by size and metal, cables, conduit by type and size, devices of the plan by floor, breakers
// and boards. Lengths are those of the runs; what has no length is counted beside, not guessed.

#include "core/base/Counted.h"
#include "core/lists/RunCells.h"
#include "core/project/Equipment.h"
#include "core/project/Raceway.h"

#include <fmt/format.h>

#include <map>
#include <set>

namespace lintel {
namespace {

struct TakeOff {
    explicit TakeOff(const SheetInput& input) : in(input), p(input.project) {}
    const SheetInput& in;
    const Project& p;
    std::map<std::tuple<int, SizeIndex>, double> conductors;                ///< metal, size → m
    std::map<std::pair<std::string, std::string>, double> cables, conduits; ///< type and size → m
    /// What is in already for several circuits together, m: by board and group the raceway with its protective
    /// conductor, and the one neutral.
    std::map<std::pair<BoardId, int>, double> raceways, neutrals;
    int unknown = 0, outside = 0;

    void conductor(Material m, SizeIndex size, double metres) {
        if (size >= 0 && metres > 0) conductors[{int(m), size}] += metres;
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
        const double metres = r.need.length.v * std::max(1, r.sets);
        const RunParts parts = partsOf(p, in.book, in.results, thing);
        if (in.book.metric() && r.need.cable->type >= 0) {
            const CableType& type = in.book.cables.types[std::size_t(r.need.cable->type)];
            if (!type.single) {
                cables[{type.name, conductorsOfOne(r)}] += metres;
                return;
            }
        }
        conductor(r.need.material, r.size, metres * parts.lines);
        const BoardId board = circuit ? circuit->board : BoardId{};
        const int oneNeutral = circuit ? neutralGroup(*circuit) : 0, oneRaceway = circuit ? racewayGroup(*circuit) : 0;
        conductor(r.need.material, parts.neutral, added(neutrals, board, oneNeutral, metres) * parts.neutrals);
        // In one raceway there is one protective conductor, and one conduit.
        const double own = added(raceways, board, oneRaceway, metres);
        conductor(r.need.material, parts.ground, own);
        conductor(r.need.material, parts.isolated, metres);
        if (parts.conduit.size && own > 0) conduits[{parts.conduitType, parts.conduit.size->name}] += own;
    }
    std::string conductorsOfOne(const RunResult& r) const {
        RunResult one = r;
        one.sets = 1;
        return conductorWords(one, in.book);
    }
};

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
    TakeOff t(in);
    for (Ref thing : in.results.order)
        if (const NodeResult& n = *in.results.node(thing); n.parent) t.run(thing, n.run);
    for (const Circuit& c : p.circuits)
        if (const CircuitResult& r = in.results.of(c.id); !r.feeder && c.use == CircuitUse::Load && r.va > 0)
            t.run(c.id, r.run, &c);
    if (!t.conductors.empty()) {
        list.group("Conductors");
        for (const auto& [what, metres] : t.conductors)
            list.add({}, {{wordOf(Material(std::get<0>(what)))},
                          {sizeWords(in.book, std::get<1>(what))},
                          length(metres),
                          {lengthUnit(units)}});
    }
    const auto lengths = [&](const char* heading, const auto& amounts) {
        if (!amounts.empty()) list.group(heading);
        for (const auto& [what, metres] : amounts)
            list.add({}, {{what.first}, {what.second}, length(metres), {lengthUnit(units)}});
    };
    lengths("Cables", t.cables);
    lengths("Conduit", t.conduits);
    std::map<std::tuple<double, int, std::string>, int> devices;
    for (const Circuit& c : p.circuits) {
        const CircuitResult& r = in.results.of(c.id);
        if (c.use != CircuitUse::Reserved && r.device > 0)
            ++devices[{r.device, c.poles,
                       fmt::format("{}{}", deviceWords(r, c.poles, in.book),
                                   c.groundFault && c.arcFault ? ", ground and arc fault"
                                   : c.groundFault             ? ", ground fault"
                                   : c.arcFault                ? ", arc fault"
                                   : c.residual > 0            ? fmt::format(", {} mA", number(c.residual))
                                                               : "")}];
    }
    if (!devices.empty()) {
        list.group(in.book.word(TradeWord::DevicesInBoards));
        for (const auto& [what, n] : devices)
            list.add({}, {{fmt::format("{}-pole", std::get<1>(what))}, {std::get<2>(what)}, numberCell(n), {"pieces"}});
    }
    if (p.boards.size() + p.transformers.size() > 0) list.group("Boards and equipment");
    for (const Board& b : p.boards)
        list.add(b.id, {{fmt::format("{}, {}", b.name, wordOf(b.use))},
                        {fmt::format("{} A, {} V, {} kA{}", rating(b.bus), wordOf(b.system), rating(b.ratingKA),
                                     passesOn(b.use) ? "" : ", " + counted(b.slots, "place"))},
                        numberCell(1),
                        {"piece"}});
    for (const Transformer& x : p.transformers)
        list.add(x.id, {{x.name + ", transformer"},
                        {fmt::format("{} kVA, {} – {} V", rating(x.kva), wordOf(x.primary), wordOf(x.secondary))},
                        numberCell(1),
                        {"piece"}});
    std::map<DeviceTypeId, std::map<LevelId, int>> drawn;
    for (const Device& d : p.devices) ++drawn[d.type][d.level];
    if (!drawn.empty()) {
        list.group("Devices on plan");
        for (const auto& [type, levels] : drawn) {
            int all = 0;
            for (const auto& [level, n] : levels) all += n;
            const DeviceType& y = p.deviceTypes[type];
            std::vector<ListCell> cells{{y.name}, {kindTitle(y.kind, in.book)}, numberCell(all), {"pieces"}};
            for (const Level& l : p.levels) {
                const auto at = levels.find(l.id);
                cells.push_back(at == levels.end() ? ListCell{"–"} : numberCell(at->second));
            }
            list.add({}, std::move(cells));
        }
    }
    if (list.rows.empty()) return list;
    list.notes.push_back(fmt::format("Lengths as the runs are measured or entered, with the slack of the basis{}. "
                                     "Home runs of a bundle share one conduit and one protective conductor.",
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
