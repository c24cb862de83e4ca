#include "core/plan/CircuitMissing.h"

#include "core/base/Format.h"
#include "core/plan/AutoCircuit.h"
#include "core/project/BoardSize.h"
#include "core/project/FreshId.h"
#include "core/project/LoadWords.h"
#include "core/project/Operations.h"
#include "core/project/Slots.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>

namespace lintel {
namespace {

struct Placer {
    Project& p;
    std::map<BoardId, std::vector<char>> taken{};

    explicit Placer(Project& project) : p(project) {
        for (const Board& b : p.boards) taken[b.id].assign(std::size_t(b.slots) + 1, 0);
        for (const Circuit& c : p.circuits)
            for (int s : slotsTaken(p.boards[c.board], c.slot, c.poles)) taken[c.board][std::size_t(s)] = 1;
    }
    /// The first free place, and it is taken from then on; 0: none.
    int take(BoardId id, int poles) {
        const Board& b = p.boards[id];
        auto& map = taken[id];
        for (int s = 1; s <= b.slots; ++s) {
            if (map[std::size_t(s)]) continue;
            const auto at = slotsTaken(b, s, poles);
            if (at.empty() || std::any_of(at.begin(), at.end(), [&](int x) { return map[std::size_t(x)]; })) continue;
            for (int x : at) map[std::size_t(x)] = 1;
            return s;
        }
        return 0;
    }
};

} // namespace

Circuited circuitMissing(Project& p, const RuleBook& book, std::vector<LoadId> wanted) {
    Circuited out;
    if (wanted.empty())
        for (const Load& l : p.loads)
            if (!l.circuit) wanted.push_back(l.id);
    Placer places(p);
    std::map<BoardId, double> va; // connected so far, to spread what names no board
    for (const Load& l : p.loads)
        if (const Circuit* c = p.circuits.find(l.circuit))
            va[c->board] +=
                std::abs(powerOf(l.amount, l.unit, l.powerFactor, p.boards[c->board].system, l.poles, book)) *
                l.quantity;
    const auto ampsOn = [&](const Load& l, BoardId b) {
        const VoltageSystem system = p.boards[b].system;
        return ampsOf(std::abs(powerOf(l.amount, l.unit, l.powerFactor, system, l.poles, book)) * l.quantity, system,
                      l.poles)
            .v;
    };
    const auto suits = [&](const Load& l, const Board& b) {
        return !passesOn(b.use) && l.poles <= factsOf(b.system).lines && voltsAcross(b.system, l.poles).v > 0 &&
               (l.volts <= 0 || sameVolts(l.volts, voltsAcross(b.system, l.poles).v));
    };
    struct Open {
        CircuitId circuit;
        double amps = 0, held = 0;
        int points = 0;
    };
    std::map<std::tuple<BoardId, LoadKind, std::string>, Open> open; // small ones of one kind and place together
    for (LoadId id : wanted) {
        const Load* l = p.loads.find(id);
        if (!l || p.circuits.has(l->circuit)) continue;
        // The board it names; else one that suits: panelboards first, the least loaded of them.
        std::vector<BoardId> boards;
        if (p.boards.has(l->board)) {
            if (!suits(*l, p.boards[l->board])) {
                out.left.push_back(fmt::format(
                    "{}: {} gives {} V, {} lines", l->tag.empty() ? l->name : l->tag, p.boards[l->board].name,
                    std::lround(voltsAcross(p.boards[l->board].system,
                                            std::min(l->poles, factsOf(p.boards[l->board].system).lines))
                                    .v),
                    factsOf(p.boards[l->board].system).lines));
                continue;
            }
            boards.push_back(l->board);
        } else {
            for (const Board& b : p.boards)
                if (suits(*l, b)) boards.push_back(b.id);
            const bool large = !boards.empty() && ampsOn(*l, boards.front()) > p.basis.panelboardUpTo;
            const auto rank = [&](BoardId b) {
                const BoardUse use = p.boards[b].use;
                const bool motor = l->kind == LoadKind::Motor || l->unit == LoadUnit::hp;
                const double usual =
                    voltsAcross(p.boards[b].system, 1).v; // a load that says no volts goes where people plug in
                return std::tuple(large ? (motor ? use != BoardUse::MotorControl : use != BoardUse::Switchboard)
                                        : use != BoardUse::Panelboard,
                                  l->volts <= 0 && l->poles == 1 && usual > 250, va[b] / std::max(1.0, p.boards[b].bus),
                                  b);
            };
            std::sort(boards.begin(), boards.end(), [&](BoardId x, BoardId y) { return rank(x) < rank(y); });
        }
        bool done = false;
        for (BoardId b : boards) {
            const double amps = ampsOn(*l, b), breaker = smallestBreakerFor(p.basis, l->kind);
            const bool alone =
                l->poles > 1 || amps > p.basis.ownCircuitFrom + 1e-9 || LoadWords::shipped().standsAlone(l->name);
            const auto key = std::tuple(b, l->kind, l->where);
            if (!alone) {
                const auto it = open.find(key);
                const double held = amps * (l->continuous ? book.continuousFactor : 1);
                if (it != open.end() && it->second.amps + amps <= breaker * p.basis.circuitShare + 1e-9 &&
                    it->second.held + held <= breaker + 1e-9 &&
                    (p.basis.circuitPoints <= 0 || it->second.points + l->quantity <= p.basis.circuitPoints)) {
                    it->second.amps += amps, it->second.held += held, it->second.points += int(std::ceil(l->quantity));
                    p.loads.change(id)->circuit = it->second.circuit;
                    Circuit& c = *p.circuits.change(it->second.circuit);
                    if (!l->where.empty())
                        c.name = c.madeName = fmt::format("{}, {}", titleOf(l->kind), l->where);
                    else if (c.name.find(" and others") == std::string::npos)
                        c.madeName = c.name += " and others";
                    done = true;
                }
            }
            if (!done) {
                const int slot = places.take(b, l->poles);
                if (!slot) continue;
                Circuit c;
                c.board = b, c.slot = slot, c.poles = l->poles;
                c.name = c.madeName = l->name;
                c.run = p.runs.add({});
                const CircuitId made = addFresh(p, &Project::circuits, std::move(c));
                p.loads.change(id)->circuit = made;
                out.circuits.push_back(made);
                if (!alone)
                    open[key] = {made, amps, amps * (l->continuous ? book.continuousFactor : 1),
                                 int(std::ceil(l->quantity))};
                done = true;
            }
            va[b] += amps * voltsAcross(p.boards[b].system, l->poles).v;
            break;
        }
        if (done) {
            ++out.loads;
            continue;
        }
        const Load& x = p.loads[id];
        const std::string name = x.tag.empty() ? x.name : x.tag;
        if (boards.empty())
            out.left.push_back(fmt::format("{}: no board gives {}{} {}", name,
                                           x.volts > 0 ? fmt::format("{} V, ", std::lround(x.volts)) : "", x.poles,
                                           x.poles == 1 ? "pole" : "poles"));
        else
            out.left.push_back(
                fmt::format("{}: {} no place for {} {}", name,
                            boards.size() == 1 ? p.boards[boards.front()].name + " has" : "no board that suits has a",
                            x.poles, x.poles == 1 ? "pole" : "poles"));
    }
    return out;
}

std::string misfitOf(const Project& p, const Results& r, BoardId id) {
    const Board& b = p.boards[id];
    const int taken = placesTaken(p, id), reserved = placesReserved(b, b.slots);
    const char* places = b.form == BoardForm::Ways ? "places" : "slots";
    int unplaced = 0;
    for (const Circuit& c : p.circuits) unplaced += c.board == id && (c.slot <= 0 || r.of(c.id).clash);
    const int fits = smallestSize(p, id);
    const std::string better = fits && fits != b.slots ? fmt::format("; {} would hold it", fits) : "";
    if (unplaced)
        return fmt::format("too small: {} of its circuits {} no place{}", unplaced, unplaced == 1 ? "has" : "have",
                           better);
    if (taken + reserved > b.slots)
        return fmt::format("too small: {} of {} {} taken, and {} are to stay free{}", taken, b.slots, places, reserved,
                           better);
    const BoardResult& n = r.of(id);
    if (n.use > 1) return fmt::format("too small: {} A of demand on {} A", figures(demandOf(n)), rating(mostAmps(b)));
    if (taken > 0 && fits && fits * 2 <= b.slots)
        return fmt::format("too large: {} of {} {} taken; {} would hold it", taken, b.slots, places, fits);
    return "";
}

LoadReport reportLoads(const Project& p, const Results& r) {
    LoadReport out;
    for (const Load& l : p.loads)
        if (!p.circuits.has(l.circuit)) out.unfed.push_back(l.id);
    for (const Device& d : p.devices)
        if (!p.circuits.has(d.circuit) && d.load.value_or(p.deviceTypes[d.type].load) > 0)
            out.unfedDevices.push_back(d.id);
    for (const Circuit& c : p.circuits) {
        const CircuitResult& cr = r.of(c.id);
        if (c.use == CircuitUse::Load && !cr.feeder && cr.va > 0 && (cr.run.size < 0 || !cr.run.need.lengthKnown))
            out.noCable.push_back(c.id);
    }
    for (const Board& b : p.boards)
        if (std::string why = misfitOf(p, r, b.id); !why.empty()) out.boards.push_back({b.id, std::move(why)});
    return out;
}

std::string reportText(const Project& p, const LoadReport& report) {
    std::string out;
    const auto heading = [&](const char* what, std::size_t n) {
        out += fmt::format("{}{}: {}\n", out.empty() ? "" : "\n", what, n);
    };
    heading("Loads with no circuit", report.unfed.size() + report.unfedDevices.size());
    for (LoadId l : report.unfed) {
        const Load& x = p.loads[l];
        out += fmt::format("  {}{}{}, {} {}, {}P{}\n", x.tag.empty() ? "" : x.tag + "  ", x.name,
                           x.where.empty() ? "" : ", " + x.where, fmt::format("{:.10g}", x.amount), wordOf(x.unit),
                           x.poles, p.boards.has(x.board) ? ", for " + p.boards[x.board].name : "");
    }
    for (DeviceId d : report.unfedDevices) out += fmt::format("  {}\n", nameOf(p, Ref(d)));
    heading("Circuits with no cable", report.noCable.size());
    for (CircuitId c : report.noCable) out += fmt::format("  {}  {}\n", nameOf(p, c), p.circuits[c].name);
    heading("Boards too small or too large", report.boards.size());
    for (const auto& [b, why] : report.boards) out += fmt::format("  {}  {}\n", p.boards[b].name, why);
    return out;
}

} // namespace lintel
