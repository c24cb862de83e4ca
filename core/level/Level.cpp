#include "core/level/Level.h"

#include "core/project/Operations.h"
#include "core/solve/PhaseLoads.h"

#include <numeric>

namespace lintel {
namespace {

struct Unit {
    CircuitId id;
    int poles, slot, current; ///< current: line of the first pole
    long va;                  ///< on each of its lines, whole VA
};

long spreadOf(const std::array<long, 3>& s, int lines) {
    long most = s[0], least = s[0];
    for (int i = 1; i < lines; ++i) most = std::max(most, s[std::size_t(i)]), least = std::min(least, s[std::size_t(i)]);
    return most - least;
}

struct Search {
    const Board& board;
    int lines;
    long effort;
    const std::function<bool()>& cancelled;
    std::vector<Unit> units;           ///< that may move, heaviest first
    std::array<long, 3> sums{};        ///< of what stays, then of what is assigned
    std::array<int, 3> room{};         ///< free places on each line
    std::vector<char> fixedSlot;       ///< taken by what stays
    long total = 0, remaining = 0, bound = 0;
    long best = -1;
    int bestMoves = 0;
    std::vector<int> choice, bestChoice;
    std::vector<std::pair<CircuitId, int>> bestPlaces;
    bool complete = true;

    int choices(const Unit& u) const { return lines == 2 && u.poles == 2 ? 1 : lines; }
    int other(int line) const { return (line + 1) % lines; }

    /// No finished assignment from here has a smaller spread.
    long least() const {
        long most = sums[0], fewest = sums[0];
        for (int i = 1; i < lines; ++i) most = std::max(most, sums[std::size_t(i)]), fewest = std::min(fewest, sums[std::size_t(i)]);
        // The heaviest stays at least as heavy; the others share the rest at best evenly, rounded up.
        const long rest = total - most;
        return std::max({bound, most - rest / (lines - 1), (most - fewest) - remaining});
    }

    void run(std::size_t i, int moves) {
        if (effort-- <= 0) { complete = false; return; }
        if ((effort & 4095) == 0 && cancelled && cancelled()) { effort = 0; complete = false; return; }
        if (best >= 0 && (least() > best || (least() == best && moves >= bestMoves))) return;
        if (i == units.size()) return finish(moves);
        const Unit& u = units[i];
        // Where it stands first, then the lightest line first.
        std::array<int, 3> order{0, 1, 2};
        const auto weight = [&](int line) { return sums[std::size_t(line)] + (u.poles == 2 && lines == 3 ? sums[std::size_t(other(line))] : 0); };
        const auto before = [&](int a, int b) { return weight(a) != weight(b) ? weight(a) < weight(b) : a == u.current && b != u.current; };
        for (std::size_t a = 1; a < std::size_t(choices(u)); ++a)
            for (std::size_t b = a; b > 0 && before(order[b], order[b - 1]); --b) std::swap(order[b], order[b - 1]);
        // Equal loads in rising order of line: their permutations are one arrangement.
        const bool twin = i > 0 && units[i - 1].va == u.va && units[i - 1].poles == u.poles && units[i - 1].current == u.current;
        for (int k = 0; k < choices(u); ++k) {
            const int line = order[std::size_t(k)];
            if (twin && rank(choice[i - 1], u.current) > rank(line, u.current)) continue;
            const int second = u.poles == 2 ? other(line) : -1;
            if (room[std::size_t(line)] == 0 || (second >= 0 && room[std::size_t(second)] == 0)) continue;
            sums[std::size_t(line)] += u.va, --room[std::size_t(line)];
            if (second >= 0) sums[std::size_t(second)] += u.va, --room[std::size_t(second)];
            remaining -= u.va * u.poles;
            choice[i] = line;
            run(i + 1, moves + (line != u.current));
            remaining += u.va * u.poles;
            sums[std::size_t(line)] -= u.va, ++room[std::size_t(line)];
            if (second >= 0) sums[std::size_t(second)] -= u.va, ++room[std::size_t(second)];
            if (best >= 0 && best <= bound && bestMoves == 0) return;
        }
    }
    /// The present line counts first, so that of equal circuits as many as can stay.
    static int rank(int line, int current) { return line == current ? -1 : line; }

    void finish(int moves) {
        const long s = spreadOf(sums, lines);
        if (best >= 0 && (s > best || (s == best && moves >= bestMoves))) return;
        std::vector<std::pair<CircuitId, int>> places;
        if (!place(places)) return;
        if (best >= 0 && s == best && int(places.size()) >= bestMoves) return;
        best = s;
        bestMoves = int(places.size());
        bestChoice = choice;
        bestPlaces = std::move(places);
    }

    /// Slots for the assignment: two-pole devices first, over places that one-pole circuits of the right line can leave.
    bool place(std::vector<std::pair<CircuitId, int>>& places) const {
        std::vector<int> owner(fixedSlot.size(), -1); // unit in each slot
        for (std::size_t s = 0; s < fixedSlot.size(); ++s)
            if (fixedSlot[s]) owner[s] = 1000;
        std::vector<int> at(units.size(), 0);
        for (int poles : {2, 1})
            for (std::size_t i = 0; i < units.size(); ++i)
                if (units[i].poles == poles && choice[i] == units[i].current && units[i].slot > 0) {
                    bool free = true;
                    for (int k = 0; k < poles; ++k) free = free && owner[std::size_t(slotOfPole(board, units[i].slot, k, poles))] < 0;
                    if (!free) continue;
                    for (int k = 0; k < poles; ++k) owner[std::size_t(slotOfPole(board, units[i].slot, k, poles))] = int(i);
                    at[i] = units[i].slot;
                }
        for (std::size_t i = 0; i < units.size(); ++i) {
            if (units[i].poles != 2 || at[i]) continue;
            int found = 0, cost = 9;
            for (int s = 1; s <= board.slots; ++s) {
                const int t = slotOfPole(board, s, 1, 2);
                if (!t || (lines == 3 && lineOfSlot(board, s) != choice[i])) continue;
                int c = 0;
                for (int x : {s, t})
                    if (const int o = owner[std::size_t(x)]; o >= 0) c += o == 1000 || units[std::size_t(o)].poles != 1 ? 9 : 1;
                if (c < cost) cost = c, found = s;
            }
            if (!found) return false;
            for (int x : {found, slotOfPole(board, found, 1, 2)}) {
                if (owner[std::size_t(x)] >= 0) at[std::size_t(owner[std::size_t(x)])] = 0;
                owner[std::size_t(x)] = int(i);
            }
            at[i] = found;
        }
        for (std::size_t i = 0; i < units.size(); ++i) {
            if (units[i].poles != 1 || at[i]) continue;
            for (int s = 1; s <= board.slots && !at[i]; ++s)
                if (owner[std::size_t(s)] < 0 && lineOfSlot(board, s) == choice[i]) owner[std::size_t(s)] = int(i), at[i] = s;
            if (!at[i]) return false;
        }
        for (std::size_t i = 0; i < units.size(); ++i)
            if (at[i] != units[i].slot) places.push_back({units[i].id, at[i]});
        return true;
    }
};

} // namespace

Arrangement arrangementOf(const Project& p, const Results& r, BoardId id, std::vector<std::pair<CircuitId, int>> places) {
    Arrangement a;
    const Board& b = p.boards[id];
    std::array<double, 3> va = r.of(id).phaseVa;
    for (const auto& [c, slot] : places) {
        const Circuit& k = p.circuits[c];
        const CircuitResult& cr = r.of(c);
        for (std::size_t i = 0; i < 3; ++i) va[i] -= cr.phaseVa[i];
        const double each = cr.va / k.poles;
        for (int i = 0; i < k.poles; ++i) va[std::size_t(lineOfSlot(b, slotOfPole(b, slot, i, k.poles)))] += each;
    }
    const int lines = factsOf(b.system).lines;
    a.places = std::move(places);
    for (double& x : va) x = std::max(0.0, x);
    a.phaseVa = va;
    a.imbalance = imbalanceOf(va, lines);
    a.spread = *std::max_element(va.begin(), va.begin() + lines) - *std::min_element(va.begin(), va.begin() + lines);
    return a;
}


Arrangement asItStands(const Project& p, const Results& r, BoardId id) { return arrangementOf(p, r, id, {}); }

Arrangement levelBoard(const Project& p, const Results& r, BoardId id, long effort, const std::function<bool()>& cancelled) {
    const Board& b = p.boards[id];
    const int lines = factsOf(b.system).lines;
    Arrangement now = asItStands(p, r, id);
    if (lines < 2) {
        now.proven = true;
        return now;
    }
    Search s{b, lines, effort, cancelled, {}, {}, {}, {}, 0, 0, 0, -1, 0, {}, {}, {}, true};
    s.fixedSlot.assign(std::size_t(b.slots) + 1, 0);
    s.fixedSlot[0] = 1;
    std::array<double, 3> stays = r.of(id).phaseVa;
    for (const Circuit& c : p.circuits) {
        if (c.board != id || !r.of(c.id).placed) continue;
        const CircuitResult& cr = r.of(c.id);
        if (!c.pinned && c.poles < 3 && !cr.clash) {
            s.units.push_back({c.id, c.poles, c.slot, cr.lines[0], std::lround(cr.va / c.poles)});
            for (std::size_t i = 0; i < 3; ++i) stays[i] -= cr.phaseVa[i];
        } else {
            for (int k : slotsTaken(b, c.slot, c.poles)) s.fixedSlot[std::size_t(k)] = 1;
        }
    }
    for (std::size_t i = 0; i < 3; ++i) s.sums[i] = std::lround(stays[i]);
    for (int slot = 1; slot <= b.slots; ++slot)
        if (!s.fixedSlot[std::size_t(slot)]) ++s.room[std::size_t(lineOfSlot(b, slot))];
    std::stable_sort(s.units.begin(), s.units.end(), [](const Unit& x, const Unit& y) {
        return std::tuple(y.va * y.poles, y.poles, x.current, x.slot) < std::tuple(x.va * x.poles, x.poles, y.current, y.slot);
    });
    s.choice.assign(s.units.size(), 0);
    for (const Unit& u : s.units) s.remaining += u.va * u.poles;
    s.total = s.sums[0] + s.sums[1] + (lines == 3 ? s.sums[2] : 0) + s.remaining;
    // Loads are multiples of their greatest common divisor, so an uneven total cannot come out level.
    long divisor = 0;
    for (const Unit& u : s.units) divisor = std::gcd(divisor, u.va);
    for (int i = 1; i < lines; ++i) divisor = std::gcd(divisor, std::abs(s.sums[std::size_t(i)] - s.sums[0]));
    if (divisor > 0) {
        const long shared = (s.total - lines * s.sums[0]) / divisor;
        if (shared % lines != 0) s.bound = divisor;
    }
    s.run(0, 0);
    Arrangement found = s.best >= 0 ? arrangementOf(p, r, id, s.bestPlaces) : now;
    if (found.spread > now.spread - 0.5) found = now; // nothing gained: nothing moves
    found.bound = double(s.bound);
    found.proven = s.complete || found.spread <= double(s.bound) + 1.5;
    return found;
}

Arrangement levelByOneMove(const Project& p, const Results& r, BoardId id) {
    const Board& b = p.boards[id];
    Arrangement best = asItStands(p, r, id);
    std::vector<const Circuit*> movable;
    for (const Circuit& c : p.circuits)
        if (c.board == id && r.of(c.id).placed && !r.of(c.id).clash && !c.pinned && c.poles < 3) movable.push_back(&c);
    const auto map = slotMap(p, id);
    const auto consider = [&](std::vector<std::pair<CircuitId, int>> places) {
        Arrangement a = arrangementOf(p, r, id, std::move(places));
        if (a.spread < best.spread - 0.5) best = std::move(a);
    };
    for (std::size_t i = 0; i < movable.size(); ++i) {
        const Circuit& c = *movable[i];
        for (int slot = 1; slot <= b.slots; ++slot) {
            const auto taken = slotsTaken(b, slot, c.poles);
            if (!taken.empty() && std::all_of(taken.begin(), taken.end(), [&](int s) { return !map[std::size_t(s)] || map[std::size_t(s)] == c.id; }) && lineOfSlot(b, slot) != lineOfSlot(b, c.slot))
                consider({{c.id, slot}});
        }
        for (std::size_t j = i + 1; j < movable.size(); ++j)
            if (movable[j]->poles == c.poles && lineOfSlot(b, movable[j]->slot) != lineOfSlot(b, c.slot)) consider({{c.id, movable[j]->slot}, {movable[j]->id, c.slot}});
    }
    return best;
}

void applyArrangement(Project& p, const Arrangement& a) {
    for (const auto& [c, slot] : a.places) p.circuits.change(c)->slot = slot;
}

} // namespace lintel
