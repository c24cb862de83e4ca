// Moving circuits on boards: shift, swap, or let what stands there make room.
#include "core/base/Counted.h"
#include "core/project/Operations.h"
#include "core/project/Slots.h"

#include <fmt/format.h>
#include <set>

namespace lintel {
namespace {

using Unit = std::vector<CircuitId>;
using Places = std::vector<std::pair<CircuitId, int>>;

bool bySlot(const Project& p, CircuitId a, CircuitId b) {
    return std::pair(p.circuits[a].slot, a) < std::pair(p.circuits[b].slot, b);
}

/// Finds places for units that have to give way, pushing on others where that takes fewer moves.
struct Finder {
    const Project& p;
    const Board& b;
    std::vector<CircuitId> map; ///< what stands where, by slot
    std::set<CircuitId> fixed;  ///< what may not be pushed: pinned, or placed already
    int nodes = 0;
    Places best{};
    int bestDistance = -1;

    void put(const Places& places, CircuitId (*as)(CircuitId)) {
        for (const auto& [c, slot] : places)
            for (int s : slotsTaken(b, slot, p.circuits[c].poles)) map[std::size_t(s)] = as(c);
    }
    int distance(CircuitId c, int slot) const {
        const int old = p.circuits[c].slot;
        if (b.form != BoardForm::TwoColumn) return std::abs(slot - old);
        return std::abs((slot + 1) / 2 - (old + 1) / 2) +
               2 * ((slot + old) % 2); // the other column is further than the next row
    }
    /// `pushes`: how many circuits more may be moved.
    void place(std::vector<Unit> waiting, Places done, int pushes, int far) {
        if (++nodes > 4000 || (bestDistance >= 0 && far >= bestDistance)) return;
        if (waiting.empty()) {
            best = done, bestDistance = far;
            return;
        }
        const Unit unit = waiting.back();
        waiting.pop_back();
        struct Try {
            int far, hits, slot;
        };
        std::vector<Try> tries;
        for (int slot = 1; slot <= b.slots; ++slot) {
            const Places at = placeUnit(p, b, unit, slot);
            if (at.empty()) continue;
            std::set<CircuitId> hit;
            bool blocked = false;
            int d = 0;
            for (const auto& [c, s0] : at) {
                d += distance(c, s0);
                for (int s : slotsTaken(b, s0, p.circuits[c].poles))
                    if (const CircuitId o = map[std::size_t(s)])
                        for (CircuitId mate : unitOf(p, o))
                            blocked = blocked || fixed.count(mate) || p.circuits[mate].pinned, hit.insert(mate);
            }
            if (!blocked && int(hit.size()) <= pushes) tries.push_back({d, int(hit.size()), slot});
        }
        std::sort(tries.begin(), tries.end(), [](const Try& x, const Try& y) {
            return std::tuple(x.hits, x.far, x.slot) < std::tuple(y.hits, y.far, y.slot);
        });
        if (tries.size() > 8) tries.resize(8);
        for (const Try& t : tries) {
            const auto before = map;
            const auto fixedBefore = fixed;
            const Places at = placeUnit(p, b, unit, t.slot);
            std::vector<Unit> next = waiting;
            for (const auto& [c, s0] : at)
                for (int s : slotsTaken(b, s0, p.circuits[c].poles))
                    if (const CircuitId o = map[std::size_t(s)]) {
                        const Unit pushed = unitOf(p, o);
                        for (auto& x : map)
                            if (std::find(pushed.begin(), pushed.end(), x) != pushed.end()) x = {};
                        next.push_back(pushed);
                    }
            put(at, [](CircuitId c) { return c; });
            for (CircuitId c : unit) fixed.insert(c);
            Places all = done;
            all.insert(all.end(), at.begin(), at.end());
            place(std::move(next), std::move(all), pushes - t.hits, far + t.far);
            map = before;
            fixed = fixedBefore;
        }
    }
};

} // namespace

std::vector<CircuitId> unitOf(const Project& p, CircuitId id) {
    const Circuit* c = p.circuits.find(id);
    std::vector<CircuitId> unit{id};
    if (!c || (!c->tie && !c->multiwire)) return unit;
    for (const Circuit& o : p.circuits)
        if (o.board == c->board && o.id != id &&
            ((c->tie && o.tie == c->tie) || (c->multiwire && o.multiwire == c->multiwire)))
            unit.push_back(o.id);
    std::sort(unit.begin(), unit.end(), [&](CircuitId a, CircuitId b) { return bySlot(p, a, b); });
    return unit;
}

std::vector<std::pair<CircuitId, int>> placeUnit(const Project& p, const Board& b, const std::vector<CircuitId>& unit,
                                                 int slot) {
    Places places;
    int at = slot;
    for (CircuitId c : unit) {
        const int poles = p.circuits[c].poles;
        const auto taken = slotsTaken(b, at, poles);
        if (taken.empty()) return {};
        places.push_back({c, at});
        at = taken.back() + (b.form == BoardForm::TwoColumn ? 2 : 1);
    }
    return places;
}

MovePlan planMove(const Project& p, CircuitId id, int slot) {
    const Circuit* c = p.circuits.find(id);
    return planMove(p, std::vector{id}, c ? c->board : BoardId{}, slot);
}

namespace {
/// Why these circuits cannot come to stand on a board at all, wherever on it; empty: they can.
std::string refuseBoard(const Project& p, const std::set<CircuitId>& movers, const Board& b) {
    const int lines = factsOf(b.system).lines;
    for (CircuitId c : movers) {
        const Circuit& k = p.circuits[c];
        if (k.pinned) return nameOf(p, c) + " is pinned";
        if (k.poles > lines)
            return fmt::format("{} has {}; {} takes {}", b.name, counted(lines, "line"), nameOf(p, c), k.poles);
        if (k.board == b.id) continue;
        if (const Ref fed = fedBy(p, c)) {
            if (const auto bad = refuseFeed(p, fed, b.id); bad && bad->what.find("has no place") == std::string::npos)
                return bad->what;
        } else if (const Board& from = p.boards[k.board];
                   voltsAcross(from.system, k.poles).v != voltsAcross(b.system, k.poles).v &&
                   k.use == CircuitUse::Load) {
            return fmt::format("{} takes {} V; {} gives it {} V", nameOf(p, c),
                               std::lround(voltsAcross(from.system, k.poles).v), b.name,
                               std::lround(voltsAcross(b.system, k.poles).v));
        }
    }
    return "";
}
} // namespace

MovePlan planMoveTo(const Project& p, const std::vector<CircuitId>& circuits, BoardId board) {
    MovePlan none;
    none.board = board;
    const Board* b = p.boards.find(board);
    if (!b || circuits.empty() || !p.circuits.has(circuits.front()))
        return none.reason = "there is no such circuit", none;
    std::set<CircuitId> movers;
    for (CircuitId c : circuits)
        for (CircuitId mate : unitOf(p, c)) movers.insert(mate);
    none.reason = refuseBoard(p, movers, *b);
    if (!none.reason.empty()) return none;
    const auto map = slotMap(p, board);
    for (int slot = 1; slot <= b->slots; ++slot) {
        if (map[std::size_t(slot)]) continue;
        if (const MovePlan plan = planMove(p, circuits, board, slot); plan.possible && plan.pushed == 0) return plan;
    }
    none.reason = b->name + " has no place for it";
    return none;
}

MovePlan planMove(const Project& p, const std::vector<CircuitId>& circuits, BoardId board, int slot) {
    MovePlan plan;
    plan.board = board;
    const auto refuse = [&](std::string why) {
        return plan.possible = false, plan.places.clear(), plan.reason = std::move(why), plan;
    };
    const Board* b = p.boards.find(board);
    if (!b || circuits.empty() || !p.circuits.has(circuits.front())) return refuse("there is no such circuit");
    const Circuit& first = p.circuits[circuits.front()];
    std::set<CircuitId> movers;
    for (CircuitId c : circuits)
        for (CircuitId mate : unitOf(p, c)) movers.insert(mate);
    if (const std::string why = refuseBoard(p, movers, *b); !why.empty()) return refuse(why);
    if (movers.size() == 1 && first.board == board && slot == first.slot) return refuse("it stands there already");

    // Where the movers land: as they lie to one another, or where that does not go one below another.
    const Unit anchor = unitOf(p, circuits.front());
    Unit order(movers.begin(), movers.end());
    std::sort(order.begin(), order.end(), [&](CircuitId x, CircuitId y) {
        return std::tuple(p.circuits[x].board, p.circuits[x].slot, x) <
               std::tuple(p.circuits[y].board, p.circuits[y].slot, y);
    });
    const auto landing = [&](bool keepShape) -> Places {
        if (!keepShape) return placeUnit(p, *b, order, slot);
        const int by = slot - p.circuits[anchor.front()].slot;
        if (b->form == BoardForm::TwoColumn && by % 2 != 0 && order.size() > 1)
            return {}; // across the bus left and right would change places
        Places at;
        std::set<int> used;
        for (CircuitId c : order) {
            const auto taken = p.circuits[c].slot > 0 ? slotsTaken(*b, p.circuits[c].slot + by, p.circuits[c].poles)
                                                      : std::vector<int>{};
            if (taken.empty() || p.circuits[c].board != first.board) return {};
            for (int s : taken)
                if (!used.insert(s).second) return {};
            at.push_back({c, taken.front()});
        }
        return at;
    };
    Places land = order.size() > anchor.size() ? landing(true) : Places{};
    if (land.empty()) land = landing(false);
    if (land.empty())
        return refuse(order.size() > 1 ? fmt::format("{} circuits do not fit from slot {}", order.size(), slot)
                                       : fmt::format("a {}-pole breaker does not fit from slot {}", first.poles, slot));

    Finder f{p, *b, slotMap(p, board), {}};
    for (auto& x : f.map)
        if (movers.count(x)) x = {};
    Places vacated;
    for (CircuitId c : order)
        if (p.circuits[c].board == board && p.circuits[c].slot > 0) vacated.push_back({c, p.circuits[c].slot});
    std::vector<Unit> displaced;
    std::set<CircuitId> seen;
    for (const auto& [c, at] : land)
        for (int s : slotsTaken(*b, at, p.circuits[c].poles))
            if (const CircuitId o = f.map[std::size_t(s)]; o && !seen.count(o)) {
                const Unit unit = unitOf(p, o);
                for (CircuitId mate : unit) {
                    if (p.circuits[mate].pinned) return refuse(nameOf(p, mate) + " is pinned");
                    if (p.circuits[mate].use == CircuitUse::Reserved)
                        return refuse(fmt::format("slot {} is reserved", p.circuits[mate].slot));
                    seen.insert(mate);
                }
                displaced.push_back(unit);
            }
    for (auto& x : f.map)
        if (seen.count(x)) x = {};
    f.put(land, [](CircuitId c) { return c; });
    for (CircuitId c : order) f.fixed.insert(c);
    const auto finish = [&](const Places& others, bool swap) {
        for (const auto& [c, at] : land)
            if (p.circuits[c].board != board || p.circuits[c].slot != at) plan.places.push_back({c, at});
        for (const auto& [c, at] : others)
            if (p.circuits[c].slot != at) plan.places.push_back({c, at}), ++plan.pushed;
        plan.possible = !plan.places.empty();
        plan.swap = swap;
        if (plan.places.empty()) plan.reason = "it stands there already";
        return plan;
    };
    if (displaced.empty()) return finish({}, false);

    // A swap: what stood there goes to the place left behind, in its order.
    if (!vacated.empty()) {
        std::sort(displaced.begin(), displaced.end(),
                  [&](const Unit& x, const Unit& y) { return bySlot(p, x.front(), y.front()); });
        auto map = f.map;
        Places others;
        bool fits = true;
        for (const Unit& unit : displaced) {
            Places found;
            for (const auto& [c, from] : vacated)
                for (int s : slotsTaken(*b, from, p.circuits[c].poles)) {
                    if (!found.empty()) break;
                    const Places at = placeUnit(p, *b, unit, s);
                    const bool free = !at.empty() && std::all_of(at.begin(), at.end(), [&](const auto& x) {
                        const auto taken = slotsTaken(*b, x.second, p.circuits[x.first].poles);
                        return std::none_of(taken.begin(), taken.end(),
                                            [&](int t) { return bool(map[std::size_t(t)]); });
                    });
                    if (free) found = at;
                }
            fits = fits && !found.empty();
            for (const auto& [c, at] : found)
                for (int s : slotsTaken(*b, at, p.circuits[c].poles)) map[std::size_t(s)] = c;
            others.insert(others.end(), found.begin(), found.end());
        }
        if (fits) return finish(others, true);
    }
    // Else they make room, larger ones first, pushing on as few others as can be.
    std::sort(displaced.begin(), displaced.end(), [&](const Unit& x, const Unit& y) {
        const auto rows = [&](const Unit& u) {
            int n = 0;
            for (CircuitId c : u) n += p.circuits[c].poles;
            return n;
        };
        return std::tuple(rows(x), p.circuits[x.front()].slot) < std::tuple(rows(y), p.circuits[y.front()].slot);
    });
    for (int pushes = 0; pushes <= 6; ++pushes) {
        f.nodes = 0;
        f.place(displaced, {}, pushes, 0);
        if (f.bestDistance >= 0) return finish(f.best, false);
    }
    return refuse(fmt::format("{} has no room for what stands there", b->name));
}

void applyMove(Project& p, const MovePlan& plan) {
    // Groups are numbered by board: what goes to another one takes a number that is free there.
    struct Group {
        int Circuit::*number;
        std::map<std::pair<BoardId, int>, int> given;
        int last = 0;
    };
    Group groups[] = {{&Circuit::tie, {}, 0}, {&Circuit::multiwire, {}, 0}, {&Circuit::kept, {}, 0}};
    for (const Circuit& o : p.circuits)
        for (Group& g : groups)
            if (o.board == plan.board) g.last = std::max(g.last, o.*g.number);
    for (const auto& [id, slot] : plan.places) {
        Circuit& c = *p.circuits.change(id);
        if (plan.board && c.board != plan.board) {
            for (Group& g : groups)
                if (const int old = c.*g.number) {
                    const auto [it, fresh] = g.given.emplace(std::pair{c.board, old}, g.last + 1);
                    if (fresh) ++g.last;
                    c.*g.number = it->second;
                }
            c.board = plan.board;
            c.bundle = 0;    // another raceway
            c.along.reset(); // another busway, if it is one
        }
        c.slot = slot;
    }
    // What is left alone of a group that was split is no group.
    for (Group& g : groups)
        for (const auto& [from, number] : g.given)
            for (const auto& [board, group] : {from, std::pair{plan.board, number}}) {
                std::vector<CircuitId> members;
                for (const Circuit& o : p.circuits)
                    if (o.board == board && o.*g.number == group) members.push_back(o.id);
                if (members.size() == 1) p.circuits.change(members.front())->*g.number = 0;
            }
}

MovePlan planInsert(const Project& p, BoardId board, int slot) {
    MovePlan plan;
    plan.board = board;
    const Board* b = p.boards.find(board);
    if (!b || slot < 1 || slot > b->slots) return plan.reason = "there is no such slot", plan;
    const int step = b->form == BoardForm::TwoColumn ? 2 : 1;
    const auto map = slotMap(p, board);
    // A unit is pushed whole; what it lands on is pushed in turn.
    const CircuitId here = map[std::size_t(slot)];
    if (!here) return plan.reason = fmt::format("slot {} is free already", slot), plan;
    std::set<int> wanted{p.circuits[here].slot};
    std::set<CircuitId> moved;
    for (int s = p.circuits[here].slot; s <= b->slots; s += step) {
        if (!wanted.count(s)) continue;
        const CircuitId c = map[std::size_t(s)];
        if (!c || moved.count(c)) continue;
        const Circuit& k = p.circuits[c];
        if (k.pinned) return plan.places.clear(), plan.reason = nameOf(p, c) + " is pinned", plan;
        const auto taken = slotsTaken(*b, k.slot + step, k.poles);
        if (taken.empty())
            return plan.places.clear(), plan.reason = fmt::format("{} has no free row below slot {}", b->name, slot),
                                        plan;
        moved.insert(c);
        plan.places.push_back({c, k.slot + step});
        for (int t : taken) wanted.insert(t);
    }
    plan.pushed = int(plan.places.size());
    plan.possible = true;
    return plan;
}

} // namespace lintel
