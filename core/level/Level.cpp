#include "core/level/Level.h"

#include "core/level/EvenOut.h"
#include "core/project/Operations.h"
#include "core/project/Slots.h"
#include "core/solve/PhaseLoads.h"

#include <map>
#include <numeric>
#include <set>

namespace lintel {
namespace {

/// Circuits that move together, one below another.
struct Unit {
    std::vector<CircuitId> members;
    std::vector<int> slots; ///< first slots of the members, now
    std::vector<int> poles;
    bool left = false; ///< belongs into the left column
    int rows() const { return std::accumulate(poles.begin(), poles.end(), 0); }
};

/// First slots of a unit's members when it stands from `slot` on; empty: it does not fit.
std::vector<int> standing(const Board& b, const Unit& u, int slot) {
    std::vector<int> at;
    for (int poles : u.poles) {
        const auto taken = slotsTaken(b, slot, poles);
        if (taken.empty()) return {};
        at.push_back(slot);
        slot = taken.back() + (b.form == BoardForm::TwoColumn ? 2 : 1);
    }
    return at;
}

/// Slots for units whose lines were chosen: those that keep their lines stay where that goes.
class Placer {
public:
    Placer(const Board& board, const std::vector<Unit>& list, std::vector<char> fixedSlots)
        : b(board), units(list), fixed(std::move(fixedSlots)) {
        std::map<std::pair<std::vector<int>, bool>, std::size_t> known;
        for (const Unit& u : units) {
            rows.push_back(u.rows());
            const auto [it, fresh] = known.try_emplace({u.poles, u.left}, shapes.size());
            if (fresh) shapes.push_back(shapeOf(u));
            shapeOfUnit.push_back(it->second);
        }
    }

    std::vector<std::vector<int>> at{}; ///< slots of the members of each unit

    /// `ways`: the line of the first pole of each unit, `now`: as they are. Gives the moves, or −1.
    int place(const std::vector<int>& ways, const std::vector<int>& now) {
        owner.assign(fixed.size(), none);
        at.assign(units.size(), {});
        for (std::size_t s = 0; s < fixed.size(); ++s)
            if (fixed[s]) owner[s] = blocked;
        std::vector<int> todo;
        for (std::size_t i = 0; i < units.size(); ++i)
            if (ways[i] == now[i])
                takePresent(int(i));
            else
                todo.push_back(int(i));
        const auto rowsOf = [&](int u) { return rows[std::size_t(u)]; };
        std::stable_sort(todo.begin(), todo.end(), [&](int x, int y) { return rowsOf(x) > rowsOf(y); });
        const std::size_t guard = std::max<std::size_t>(400, 2 * todo.size());
        for (std::size_t next = 0, rounds = 0; next < todo.size(); ++rounds) {
            if (rounds > guard) return -1;
            const int u = todo[next++];
            const Standing* found = bestStanding(u, ways, now);
            if (!found) return -1;
            std::vector<int> hit;
            for (int s : found->taken)
                if (const int o = owner[std::size_t(s)]; o >= 0 && std::find(hit.begin(), hit.end(), o) == hit.end())
                    hit.push_back(o);
            std::sort(hit.begin(), hit.end());
            for (int o : hit) {
                leave(o);
                todo.insert(std::find_if(todo.begin() + std::ptrdiff_t(next), todo.end(),
                                         [&](int x) { return rowsOf(x) < rowsOf(o); }),
                            o);
            }
            at[std::size_t(u)] = found->first;
            for (int s : found->taken) owner[std::size_t(s)] = u;
        }
        int moves = 0;
        for (std::size_t i = 0; i < units.size(); ++i)
            for (std::size_t m = 0; m < at[i].size(); ++m) moves += at[i][m] != units[i].slots[m];
        return moves;
    }

private:
    static constexpr int none = -1, blocked = -2;
    /// Where a unit may stand: the first slot of each member, and all slots that takes.
    struct Standing {
        std::vector<int> first, taken;
    };
    /// Units of the same poles may stand in the same places: by the line that they begin on, in the order of slots.
    using Shape = std::array<std::vector<Standing>, 3>;

    Shape shapeOf(const Unit& u) const {
        Shape shape;
        for (int slot = 1; slot <= b.slots; ++slot) {
            if (u.left && b.form == BoardForm::TwoColumn && slot % 2 == 0) continue;
            Standing s{standing(b, u, slot), {}};
            if (s.first.empty()) continue;
            for (std::size_t m = 0; m < s.first.size(); ++m)
                for (int t : slotsTaken(b, s.first[m], u.poles[m])) s.taken.push_back(t);
            shape[std::size_t(lineOfSlot(b, slot))].push_back(std::move(s));
        }
        return shape;
    }
    /// The place that puts the fewest others out; of those the nearest. Null: there is none.
    const Standing* bestStanding(int u, const std::vector<int>& ways, const std::vector<int>& now) const {
        const Unit& unit = units[std::size_t(u)];
        const Standing* found = nullptr;
        std::tuple<int, int, int> cost{1000, 0, 0};
        for (const Standing& s : shapes[shapeOfUnit[std::size_t(u)]][std::size_t(ways[std::size_t(u)])]) {
            std::array<int, 12> hit{};
            std::size_t hits = 0;
            bool bad = false;
            int out = 0;
            for (int slot : s.taken) {
                const int o = owner[std::size_t(slot)];
                if (o == none) continue;
                bad = o == blocked ||
                      rows[std::size_t(o)] >= rows[std::size_t(u)]; // only smaller ones give way, so that it ends
                if (!bad && std::find(hit.begin(), hit.begin() + hits, o) == hit.begin() + hits) {
                    if (hits < hit.size()) hit[hits++] = o;
                    out += ways[std::size_t(o)] == now[std::size_t(o)] ? int(units[std::size_t(o)].members.size()) : 0;
                }
                if (bad) break;
            }
            if (bad) continue;
            const std::tuple c{out, int(hits), std::abs(s.first.front() - unit.slots.front())};
            if (c < cost) cost = c, found = &s;
        }
        return found;
    }
    void takePresent(int u) {
        const Unit& unit = units[std::size_t(u)];
        at[std::size_t(u)] = unit.slots;
        for (std::size_t m = 0; m < unit.slots.size(); ++m)
            for (int s : slotsTaken(b, unit.slots[m], unit.poles[m])) owner[std::size_t(s)] = u;
    }
    void leave(int u) {
        for (int& o : owner)
            if (o == u) o = none;
        at[std::size_t(u)].clear();
    }

    const Board& b;
    const std::vector<Unit>& units;
    std::vector<char> fixed;
    std::vector<int> rows, owner; ///< of units; of slots
    std::vector<Shape> shapes;
    std::vector<std::size_t> shapeOfUnit;
};

/// It is of a kind that its board keeps in the left column.
bool belongsLeft(const Results& r, const Board& b, const Circuit& c) {
    return b.form == BoardForm::TwoColumn && c.use == CircuitUse::Load &&
           std::find(b.leftKinds.begin(), b.leftKinds.end(), wordOf(r.of(c.id).kind)) != b.leftKinds.end();
}
/// A circuit that stands alone and may be moved.
bool isLoose(const Results& r, const Circuit& c) {
    return r.of(c.id).placed && !r.of(c.id).clash && !c.pinned && c.poles < 3 && !c.tie && !c.multiwire && !c.kept &&
           c.use == CircuitUse::Load;
}

/// A board as a task for evenOut, and the way back from its ways to slots.
struct BoardTask {
    const Project& p;
    const Results& r;
    const Board& b;
    int lines;
    std::vector<Unit> units{};
    std::vector<std::vector<int>> wayLines{}; ///< by unit: the first line of each of its ways
    EvenTask task{};
    std::optional<Placer> placer{};

    BoardTask(const Project& project, const Results& results, BoardId id)
        : p(project), r(results), b(p.boards[id]), lines(factsOf(b.system).lines) {
        std::map<CircuitId, int> unitIndex;
        std::map<std::pair<int, int>, int> groups; // (sort, number) → unit
        std::vector<const Circuit*> here;
        for (CircuitId c : r.on(id))
            if (r.of(c).placed) here.push_back(&p.circuits[c]);
        std::sort(here.begin(), here.end(), [](const Circuit* x, const Circuit* y) {
            return std::pair(x->slot, x->id) < std::pair(y->slot, y->id);
        });
        std::vector<char> fixedSlot(std::size_t(b.slots) + 1, 0);
        fixedSlot[0] = 1;
        std::array<double, 3> stays = r.of(id).phaseVa;
        const auto leftKind = [&](const Circuit& c) { return c.slot % 2 == 1 && belongsLeft(r, b, c); };
        // Groups first: what is linked by a tie, a shared neutral or being kept together is one unit.
        std::map<CircuitId, CircuitId> leader;
        std::map<std::pair<int, int>, CircuitId> seen;
        const std::function<CircuitId(CircuitId)> top = [&](CircuitId c) {
            return leader[c] == c ? c : leader[c] = top(leader[c]);
        };
        for (const Circuit* c : here) leader[c->id] = c->id;
        for (const Circuit* c : here)
            for (const auto& [sort, number] : {std::pair{0, c->tie}, {1, c->multiwire}, {2, c->kept}})
                if (number) {
                    const auto [it, fresh] = seen.try_emplace({sort, number}, c->id);
                    if (!fresh) leader[top(c->id)] = top(it->second);
                }
        std::map<CircuitId, Unit> byLeader;
        for (const Circuit* c : here) {
            Unit& u = byLeader[top(c->id)];
            u.members.push_back(c->id), u.slots.push_back(c->slot), u.poles.push_back(c->poles);
            u.left = u.left || leftKind(*c);
        }
        for (const Circuit* first : here) { // in the order of slots, so that the same board gives the same answer
            const auto it = byLeader.find(first->id);
            if (top(first->id) != first->id || it == byLeader.end()) continue;
            const Unit& u = it->second;
            bool fixed = standing(b, u, u.slots.front()) != u.slots;
            for (CircuitId c : u.members) {
                const Circuit& k = p.circuits[c];
                fixed = fixed || k.pinned || k.poles >= 3 || k.use == CircuitUse::Reserved || r.of(c).clash ||
                        r.of(c).split;
            }
            std::vector<int> begins; // lines on which it can begin, somewhere on the board
            for (int slot = 1; slot <= b.slots && !fixed; ++slot)
                if (!standing(b, u, slot).empty() &&
                    std::find(begins.begin(), begins.end(), lineOfSlot(b, slot)) == begins.end())
                    begins.push_back(lineOfSlot(b, slot));
            std::sort(begins.begin(), begins.end());
            if (fixed || begins.size() < 2) {
                for (std::size_t m = 0; m < u.members.size(); ++m)
                    for (int s : slotsTaken(b, u.slots[m], u.poles[m])) fixedSlot[std::size_t(s)] = 1;
                for (CircuitId c : u.members)
                    if (p.circuits[c].poles == 1 && !r.of(c).feeder)
                        for (std::size_t l = 0; l < 3; ++l) task.fixedNeutral[l] += std::lround(r.of(c).phaseVa[l]);
                continue;
            }
            EvenItem item;
            item.moves = int(u.members.size());
            item.toNeutral = std::all_of(u.poles.begin(), u.poles.end(), [](int n) { return n == 1; });
            for (int begin : begins) {
                OnLines va{};
                std::array<int, 3> places{};
                int line = begin;
                for (std::size_t m = 0; m < u.members.size(); ++m) {
                    const long each = std::lround(r.of(u.members[m]).va / u.poles[m]);
                    for (int k = 0; k < u.poles[m]; ++k, line = (line + 1) % lines)
                        va[std::size_t(line)] += each, ++places[std::size_t(line)];
                }
                if (begin == lineOfSlot(b, u.slots.front())) item.now = int(item.ways.size());
                item.ways.push_back(va);
                item.places.push_back(places);
            }
            for (CircuitId c : u.members)
                for (std::size_t l = 0; l < 3; ++l) stays[l] -= r.of(c).phaseVa[l];
            task.items.push_back(std::move(item));
            wayLines.push_back(begins);
            units.push_back(u);
        }
        task.lines = std::max(2, lines);
        for (std::size_t l = 0; l < 3; ++l) task.fixed[l] = std::lround(stays[l]);
        for (int slot = 1; slot <= b.slots; ++slot)
            if (!fixedSlot[std::size_t(slot)]) ++task.room[std::size_t(lineOfSlot(b, slot))];
        placer.emplace(b, units, std::move(fixedSlot));
        task.slots = b.slots;
        task.place = [this](const std::vector<int>& ways) { return placer->place(begin(ways), begin({})); };
    }
    BoardTask(const BoardTask&) = delete;

    /// Lines of the first poles; of the present ways where the list is empty.
    std::vector<int> begin(const std::vector<int>& ways) const {
        std::vector<int> lineOf(units.size());
        for (std::size_t i = 0; i < units.size(); ++i)
            lineOf[i] = wayLines[i][std::size_t(ways.empty() ? task.items[i].now : ways[i])];
        return lineOf;
    }
    std::vector<std::pair<CircuitId, int>> places(const std::vector<int>& ways) {
        std::vector<std::pair<CircuitId, int>> out;
        if (placer->place(begin(ways), begin({})) < 0) return out;
        for (std::size_t i = 0; i < units.size(); ++i)
            for (std::size_t m = 0; m < units[i].members.size(); ++m)
                if (placer->at[i][m] != units[i].slots[m]) out.push_back({units[i].members[m], placer->at[i][m]});
        return out;
    }
};

void finish(std::array<double, 3>& va, int lines, double& spread, double& imbalance) {
    for (double& x : va) x = std::max(0.0, x);
    imbalance = imbalanceOf(va, lines);
    spread = *std::max_element(va.begin(), va.begin() + lines) - *std::min_element(va.begin(), va.begin() + lines);
}

} // namespace

double LevelChoices::gap() const {
    const auto& va = best().phaseVa;
    const double total = va[0] + va[1] + va[2];
    return total > 0 ? std::max(0.0, best().spread - bound) / (total / (va[2] > 0 ? 3 : 2)) * 100 : 0;
}

Arrangement arrangementOf(const Project& p, const Results& r, BoardId id,
                          std::vector<std::pair<CircuitId, int>> places) {
    Arrangement a;
    const Board& b = p.boards[id];
    std::array<double, 3> va = r.of(id).phaseVa;
    for (const auto& [c, slot] : places) {
        const Circuit& k = p.circuits[c];
        const CircuitResult& cr = r.of(c);
        if (k.board == id)
            for (std::size_t i = 0; i < 3; ++i) va[i] -= cr.phaseVa[i];
        if (slot <= 0) continue;         // it leaves the board
        if (cr.feeder && k.poles == 3) { // passes its lines through, wherever it stands
            for (std::size_t i = 0; i < 3; ++i) va[i] += cr.phaseVa[i];
            continue;
        }
        const double each = cr.va / k.poles;
        for (int i = 0; i < k.poles; ++i)
            if (const int s = slotOfPole(b, slot, i, k.poles)) va[std::size_t(lineOfSlot(b, s))] += each;
    }
    a.places = std::move(places);
    a.phaseVa = va;
    finish(a.phaseVa, factsOf(b.system).lines, a.spread, a.imbalance);
    return a;
}

Arrangement asItStands(const Project& p, const Results& r, BoardId id) { return arrangementOf(p, r, id, {}); }

LevelChoices levelBoard(const Project& p, const Results& r, BoardId id, long effort,
                        const std::function<bool()>& cancelled) {
    LevelChoices out;
    const Board& b = p.boards[id];
    if (factsOf(b.system).lines < 2) {
        out.byMoves = {asItStands(p, r, id)};
        out.byMoves.front().proven = true;
        return out;
    }
    BoardTask t(p, r, id);
    t.task.effort = effort;
    t.task.cancelled = cancelled;
    const EvenResult found = evenOut(t.task);
    out.bound = double(found.bound);
    out.cancelled = found.cancelled;
    for (const EvenChoice& c : found.byMoves) {
        if (!out.byMoves.empty() && c.moves == int(out.byMoves.back().places.size())) { // one move more brings nothing
            out.byMoves.push_back(out.byMoves.back());
            out.byMoves.back().proven = c.proven;
            continue;
        }
        out.byMoves.push_back(arrangementOf(p, r, id, t.places(c.ways)));
        out.byMoves.back().proven = c.proven;
    }
    return out;
}

Arrangement levelByOneStep(const Project& p, const Results& r, BoardId id) {
    const Board& b = p.boards[id];
    Arrangement best = asItStands(p, r, id);
    if (factsOf(b.system).lines < 2) return best;
    std::vector<const Circuit*> movable;
    for (CircuitId c : r.on(id))
        if (isLoose(r, p.circuits[c])) movable.push_back(&p.circuits[c]);
    const auto map = slotMap(p, b, r.on(id));
    const auto consider = [&](std::vector<std::pair<CircuitId, int>> places) {
        Arrangement a = arrangementOf(p, r, id, std::move(places));
        if (a.spread < best.spread - 0.5) best = std::move(a);
    };
    for (std::size_t i = 0; i < movable.size(); ++i) {
        const Circuit& c = *movable[i];
        for (int slot = 1; slot <= b.slots; ++slot) {
            const auto taken = slotsTaken(b, slot, c.poles);
            if (!taken.empty() &&
                std::all_of(taken.begin(), taken.end(),
                            [&](int s) { return !map[std::size_t(s)] || map[std::size_t(s)] == c.id; }) &&
                lineOfSlot(b, slot) != lineOfSlot(b, c.slot))
                consider({{c.id, slot}});
        }
        for (std::size_t j = i + 1; j < movable.size(); ++j)
            if (movable[j]->poles == c.poles && lineOfSlot(b, movable[j]->slot) != lineOfSlot(b, c.slot))
                consider({{c.id, movable[j]->slot}, {movable[j]->id, c.slot}});
    }
    return best;
}

Arrangement levelSides(const Project& p, const Results& r, BoardId id) {
    const Board& b = p.boards[id];
    auto map = slotMap(p, b, r.on(id));
    std::vector<std::pair<CircuitId, int>> places;
    std::vector<const Circuit*> astray;
    for (CircuitId id_ : r.on(id))
        if (const Circuit& c = p.circuits[id_]; c.slot % 2 == 0 && isLoose(r, c) && belongsLeft(r, b, c))
            astray.push_back(&c);
    std::sort(astray.begin(), astray.end(), [](const Circuit* x, const Circuit* y) { return x->slot < y->slot; });
    for (const Circuit* c : astray) {
        const auto from = slotsTaken(b, c->slot, c->poles);
        int best = 0, cost = 0;
        for (int slot = 1; slot <= b.slots; slot += 2) {
            const auto to = slotsTaken(b, slot, c->poles);
            if (to.empty() || lineOfSlot(b, slot) != lineOfSlot(b, c->slot)) continue;
            // All free, or one circuit that may as well stand on the right.
            const CircuitId there = map[std::size_t(slot)];
            if (!std::all_of(to.begin(), to.end(), [&](int s) { return map[std::size_t(s)] == there; })) continue;
            if (const Circuit* o = p.circuits.find(there);
                o && (!isLoose(r, *o) || o->poles != c->poles || belongsLeft(r, b, *o)))
                continue;
            if (const int far = std::abs(slot + 1 - c->slot) + (there ? 1 : 0); !best || far < cost)
                best = slot, cost = far; // the nearest, a free one first
        }
        if (!best) continue;
        const CircuitId other = map[std::size_t(best)];
        places.push_back({c->id, best});
        if (other) places.push_back({other, c->slot});
        for (int s : slotsTaken(b, best, c->poles)) map[std::size_t(s)] = c->id;
        for (int s : from) map[std::size_t(s)] = other;
    }
    return arrangementOf(p, r, id, std::move(places));
}

void applyArrangement(Project& p, const Arrangement& a) {
    for (const auto& [c, slot] : a.places) p.circuits.change(c)->slot = slot;
}

// ---- several boards as one ----

TurningChoices levelByTurning(const Project& p, const Results& r, Ref node) {
    TurningChoices out;
    const NodeResult& top = *r.node(node);
    std::vector<BoardId> boards;
    for (const Board& b : p.boards) {
        if (factsOf(b.system).lines != 3 || r.of(b.id).looped) continue;
        // Straight below, through three poles; or behind a transformer that has no other board.
        if (passesOn(b.use)) continue;
        const NodeResult* n = &r.of(b.id);
        for (const Board* up = p.boards.find(n->parent.as<Board>()); // what passes on keeps the lines as they are
             up && Ref(up->id) != node && passesOn(up->use) && !r.of(up->id).looped;
             up = p.boards.find(n->parent.as<Board>()))
            n = &r.of(up->id);
        if (const TransformerId x = n->parent.as<Transformer>(); x && Ref(x) != node) {
            int fed = 0;
            for (const Board& o : p.boards) fed += r.of(o.id).parent == Ref(x);
            if (fed > 1 || factsOf(p.transformers[x].secondary).phases != 3) continue;
            n = &r.of(x);
        }
        if (n->parent != node || (n->via && p.circuits[n->via].poles != 3)) continue;
        boards.push_back(b.id);
    }
    out.boards = int(boards.size());
    EvenTask task;
    for (std::size_t i = 0; i < 3; ++i) task.fixed[i] = std::lround(top.phaseVa[i]);
    for (BoardId id : boards) {
        EvenItem item;
        item.now = p.boards[id].turned;
        const auto& va = r.of(id).phaseVa;
        for (int turn = 0; turn < 3; ++turn) {
            OnLines w{};
            for (int i = 0; i < 3; ++i) w[std::size_t((i + turn) % 3)] = std::lround(va[std::size_t(i)]);
            item.ways.push_back(w);
        }
        for (std::size_t i = 0; i < 3; ++i) task.fixed[i] -= item.ways[std::size_t(item.now)][i];
        task.items.push_back(std::move(item));
    }
    const EvenResult found = evenOut(task);
    out.bound = double(found.bound);
    for (const EvenChoice& c : found.byMoves) {
        Turning t;
        for (std::size_t i = 0; i < 3; ++i) t.phaseVa[i] = double(task.fixed[i]);
        for (std::size_t k = 0; k < boards.size(); ++k) {
            for (std::size_t i = 0; i < 3; ++i) t.phaseVa[i] += double(task.items[k].ways[std::size_t(c.ways[k])][i]);
            if (c.ways[k] != task.items[k].now) t.turns.push_back({boards[k], c.ways[k]});
        }
        finish(t.phaseVa, 3, t.spread, t.imbalance);
        t.proven = c.proven;
        out.byBoards.push_back(std::move(t));
    }
    return out;
}

void applyTurning(Project& p, const Turning& t) {
    for (const auto& [b, turn] : t.turns) p.boards.change(b)->turned = turn;
}

} // namespace lintel
