#include "core/project/BoardSize.h"

#include "core/project/Operations.h"
#include "core/project/Slots.h"

#include <cmath>
#include <set>

namespace lintel {

const std::vector<int>& boardSizes(BoardForm form) {
    static const std::vector<int> slots{12, 18, 20, 24, 30, 36, 42, 48, 54, 60, 66, 72, 84};
    static const std::vector<int> ways{12, 18, 24, 30, 36, 42, 48, 54, 60, 72}; // 4 … 24 ways
    return form == BoardForm::Ways ? ways : slots;
}

void takeUsualWays(Board& b) {
    b.form = BoardForm::Ways;
    b.slots = 36;
}

Resize planResize(const Project& p, BoardId id, int slots) { return planResize(p, id, slots, p.boards[id].form); }

Resize planResize(const Project& p, BoardId id, int slots, BoardForm form) {
    Resize out;
    out.slots = slots, out.form = form;
    Project trial = p;
    Board& b = *trial.boards.change(id);
    b.slots = slots, b.form = form;
    std::vector<const Circuit*> here;
    for (const Circuit& c : p.circuits)
        if (c.board == id) here.push_back(&c);
    std::sort(here.begin(), here.end(),
              [](const Circuit* x, const Circuit* y) { return std::pair(x->slot, x->id) < std::pair(y->slot, y->id); });
    std::vector<char> taken(std::size_t(slots) + 1, 0);
    std::set<CircuitId> done;
    std::vector<std::vector<CircuitId>> homeless;
    const auto place = [&](const std::vector<std::pair<CircuitId, int>>& at, bool really) {
        for (const auto& [c, slot] : at)
            for (int s : slotsTaken(b, slot, p.circuits[c].poles))
                if (taken[std::size_t(s)]) return false;
        if (really)
            for (const auto& [c, slot] : at)
                for (int s : slotsTaken(b, slot, p.circuits[c].poles)) taken[std::size_t(s)] = 1;
        return true;
    };
    const bool sameForm = form == p.boards[id].form;
    for (const Circuit* c : here) {
        if (done.count(c->id)) continue;
        const auto unit = unitOf(p, c->id);
        done.insert(unit.begin(), unit.end());
        std::vector<std::pair<CircuitId, int>> now;
        bool fits = sameForm;
        for (CircuitId u : unit) {
            fits = fits && p.circuits[u].slot > 0 && !slotsTaken(b, p.circuits[u].slot, p.circuits[u].poles).empty();
            now.push_back({u, p.circuits[u].slot});
        }
        if (fits && place(now, true)) continue;
        homeless.push_back(unit);
    }
    // The widest first: they have the fewest places to go.
    std::stable_sort(homeless.begin(), homeless.end(), [&](const auto& x, const auto& y) {
        const auto poles = [&](const auto& u) {
            int n = 0;
            for (CircuitId c : u) n += p.circuits[c].poles;
            return n;
        };
        return poles(x) > poles(y);
    });
    for (const auto& unit : homeless) {
        bool placed = false;
        for (int s = 1; s <= slots && !placed; ++s) {
            const auto at = placeUnit(trial, b, unit, s);
            if (at.empty() || !place(at, true)) continue;
            placed = true;
            for (const auto& [c, slot] : at)
                if (p.circuits[c].slot != slot) out.moved.push_back({c, slot});
        }
        if (!placed) out.left.insert(out.left.end(), unit.begin(), unit.end());
    }
    return out;
}

void applyResize(Project& p, BoardId id, const Resize& r) {
    Board& b = *p.boards.change(id);
    b.slots = r.slots, b.form = r.form;
    for (const auto& [c, slot] : r.moved) p.circuits.change(c)->slot = slot;
    for (CircuitId c : r.left) p.circuits.change(c)->slot = 0;
    std::vector<SectionId> sections;
    for (const Section& s : p.sections)
        if (s.board == id && s.to > r.slots) sections.push_back(s.id);
    for (SectionId s : sections)
        if (p.sections[s].from > r.slots)
            p.sections.remove(s);
        else
            p.sections.change(s)->to = r.slots;
}

int placesTaken(const Project& p, BoardId id) {
    int taken = 0;
    for (const Circuit& c : p.circuits)
        if (c.board == id) taken += c.poles;
    return taken;
}
int placesReserved(const Board& b, int slots) { return int(std::ceil(b.reservedShare * slots - 1e-9)); }

int smallestSize(const Project& p, BoardId id) {
    const Board& b = p.boards[id];
    const int taken = placesTaken(p, id);
    for (int slots : boardSizes(b.form))
        if (slots - placesReserved(b, slots) >= taken && planResize(p, id, slots).left.empty()) return slots;
    return 0;
}

std::vector<SectionSpace> spaceBySection(const Project& p, BoardId id) {
    const Board& b = p.boards[id];
    std::vector<SectionSpace> out;
    std::vector<const Section*> sections;
    for (const Section& s : p.sections)
        if (s.board == id) sections.push_back(&s);
    std::sort(sections.begin(), sections.end(), [](const Section* x, const Section* y) { return x->from < y->from; });
    int next = 1;
    for (const Section* s : sections) {
        if (s->from > next) out.push_back({{}, "", next, s->from - 1});
        out.push_back({s->id, s->name, s->from, std::min(s->to, b.slots)});
        next = s->to + 1;
    }
    if (next <= b.slots) out.push_back({{}, "", next, b.slots});
    const auto map = slotMap(p, id);
    for (SectionSpace& s : out)
        for (int slot = s.from; slot <= s.to; ++slot) {
            s.taken += bool(map[std::size_t(slot)]);
            for (int poles = 3; poles > s.largestGap; --poles) {
                const auto at = slotsTaken(b, slot, poles);
                if (!at.empty() && at.back() <= s.to &&
                    std::none_of(at.begin(), at.end(), [&](int x) { return bool(map[std::size_t(x)]); }))
                    s.largestGap = poles;
            }
        }
    return out;
}

} // namespace lintel
