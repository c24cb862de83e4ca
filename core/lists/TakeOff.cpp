// The take-off: conductors by size, metal and colour, cables, conduit by type and size, devices of the plan by floor,
// breakers and boards, and boxes and fittings by the rules of the office. Lengths are those of the runs; what has no
// length is counted beside, not guessed.

#include "core/base/Counted.h"
#include "core/base/Parse.h"
#include "core/lists/RunCells.h"
#include "core/lists/TakeOffRules.h"
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
    std::map<std::tuple<int, SizeIndex, std::string>, double> conductors; ///< metal, size, colour → m
    /// A cable or conduit; sizes in the order of what they hold, not of their names.
    struct Laid {
        std::string type;
        double order = 0;
        std::string size;
        auto operator<=>(const Laid&) const = default;
    };
    std::map<Laid, double> cables, conduits; ///< m
    /// What is in already for several circuits together, m: by board and group the raceway with its protective
    /// conductor, and the one neutral.
    std::map<std::pair<BoardId, int>, double> raceways, neutrals;
    int unknown = 0, outside = 0;

    /// What is laid from end to end: a conduit or a cable, `parallel` of them.
    struct Way {
        Laid what;
        double metres = 0;
        int parallel = 1;
    };
    std::vector<Way> ways;
    std::map<std::pair<BoardId, int>, std::size_t> sharedWays; ///< of circuits that share one

    void conductor(Material m, SizeIndex size, const std::string& colour, double metres) {
        if (size >= 0 && metres > 0) conductors[{int(m), size, colour}] += metres;
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
        const RunParts parts = partsOf(p, in.book, in.results, thing);
        if (in.book.metric() && r.need.cable->type >= 0) {
            const CableType& type = in.book.cables.types[std::size_t(r.need.cable->type)];
            if (!type.single) {
                const Laid cable{type.name, double(r.size), conductorsOfOne(r)};
                cables[cable] += metres;
                way({}, 0, {cable, r.need.length.v, sets});
                return;
            }
        }
        for (int line : linesOf(thing, system, parts.lines))
            conductor(r.need.material, r.size, lineColour(p.basis, system, line), metres);
        const BoardId board = circuit ? circuit->board : BoardId{};
        const int oneNeutral = circuit ? neutralGroup(*circuit) : 0, oneRaceway = circuit ? racewayGroup(*circuit) : 0;
        conductor(r.need.material, parts.neutral, neutralColour(p.basis, system),
                  added(neutrals, board, oneNeutral, metres) * parts.neutrals);
        // In one raceway there is one protective conductor, and one conduit.
        const double own = added(raceways, board, oneRaceway, metres);
        const std::string protective = protectiveColour(system);
        conductor(r.need.material, parts.ground, protective, own);
        conductor(r.need.material, parts.isolated, protective + ", isolated", metres);
        if (!parts.conduit.size) return;
        const Laid conduit{parts.conduitType, parts.conduit.size->area, parts.conduit.size->name};
        if (own > 0) conduits[conduit] += own;
        way(board, oneRaceway, {conduit, r.need.length.v, sets});
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

/// What the rules count: devices by their type and floor, what is laid by type and size.
void byRules(List& list, const SheetInput& in, const TakeOff& t,
             const std::map<DeviceTypeId, std::map<LevelId, int>>& drawn) {
    const Project& p = in.project;
    if (p.basis.takeOffRules.empty()) return;
    list.group("Boxes and fittings, by rule");
    for (const TakeOffRule& rule : p.basis.takeOffRules) {
        bool any = false;
        const auto row = [&](const std::string& of, const std::string& size, double pieces,
                             const std::map<LevelId, double>& levels) {
            if (pieces <= 0) return;
            any = true;
            std::vector<ListCell> cells{
                {rule.item + (of.empty() ? "" : ", " + of)}, {size}, numberCell(std::ceil(pieces - 1e-9)), {"pieces"}};
            if (!levels.empty())
                for (const Level& l : p.levels) {
                    const auto at = levels.find(l.id);
                    cells.push_back(at == levels.end() ? ListCell{"–"} : numberCell(std::ceil(at->second - 1e-9)));
                }
            list.add({}, std::move(cells));
        };
        if (rule.per == TakeOffPer::Device) {
            double all = 0;
            std::map<LevelId, double> levels;
            for (const auto& [type, there] : drawn) {
                if (!isOf(rule, p.deviceTypes[type].name)) continue;
                for (const auto& [level, n] : there) {
                    levels[level] += n * rule.amount;
                    all += n * rule.amount;
                }
            }
            row(rule.of, "", all, levels);
        } else {
            std::map<TakeOff::Laid, double> pieces;
            for (const TakeOff::Way& w : t.ways)
                if (isOf(rule, w.what.type))
                    pieces[w.what] += rule.amount * w.parallel *
                                      (rule.per == TakeOffPer::End ? 2 : std::ceil(w.metres / rule.every - 1e-9));
            for (const auto& [of, n] : pieces) row(of.type, of.size, n, {});
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
    TakeOff t(in);
    for (Ref thing : in.results.order)
        if (const NodeResult& n = *in.results.node(thing); n.parent) t.run(thing, n.run);
    for (const Circuit& c : p.circuits)
        if (const CircuitResult& r = in.results.of(c.id); !r.feeder && c.use == CircuitUse::Load && r.va > 0)
            t.run(c.id, r.run, &c);
    if (!t.conductors.empty()) {
        list.group("Conductors");
        for (const auto& [what, metres] : t.conductors)
            list.add({}, {{fmt::format("{}, {}", wordOf(Material(std::get<0>(what))), std::get<2>(what))},
                          {sizeWords(in.book, std::get<1>(what))},
                          length(metres),
                          {lengthUnit(units)}});
    }
    const auto lengths = [&](const char* heading, const auto& amounts) {
        if (!amounts.empty()) list.group(heading);
        for (const auto& [what, metres] : amounts)
            list.add({}, {{what.type}, {what.size}, length(metres), {lengthUnit(units)}});
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
    byRules(list, in, t, drawn);
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
