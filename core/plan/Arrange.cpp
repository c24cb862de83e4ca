#include "core/plan/Arrange.h"

#include "core/project/Slots.h"
#include "core/route/Measure.h"

#include <numbers>

namespace lintel {
namespace {
template <class F> void eachPlaced(Project& p, const std::vector<Ref>& things, F f) {
    for (Ref r : things) {
        if (Device* d = p.devices.change(r.as<Device>()))
            f(d->at, d->turn);
        else if (Furnishing* x = p.furnishings.change(r.as<Furnishing>()))
            f(x->at, x->turn);
        else if (Board* b = p.boards.change(r.as<Board>()))
            f(b->at, b->turn);
        else if (Transformer* t = p.transformers.change(r.as<Transformer>())) {
            double turn = 0;
            f(t->at, turn);
        }
    }
}
} // namespace

Point middleOf(const Project& p, const std::vector<Ref>& things) {
    Point least{1e18, 1e18}, most{-1e18, -1e18};
    for (Ref r : things) {
        Point at;
        if (const Device* d = p.devices.find(r.as<Device>()))
            at = d->at;
        else if (const Furnishing* f = p.furnishings.find(r.as<Furnishing>()))
            at = f->at;
        else if (const Board* b = p.boards.find(r.as<Board>()); b && b->onPlan)
            at = b->at;
        else if (const Transformer* t = p.transformers.find(r.as<Transformer>()); t && t->onPlan)
            at = t->at;
        else
            continue;
        least = {std::min(least.x, at.x), std::min(least.y, at.y)},
        most = {std::max(most.x, at.x), std::max(most.y, at.y)};
    }
    return least.x > most.x ? Point{} : (least + most) * 0.5;
}

std::vector<Ref> copyOnPlan(Project& p, const std::vector<Ref>& things, Point by, LevelId level) {
    std::vector<Ref> made;
    for (Ref r : things) {
        if (const Device* d = p.devices.find(r.as<Device>())) {
            Device x = *d;
            x.id = {}, x.circuit = {}, x.tag.clear(), x.modelId.clear(), x.recipe = {}, x.room = {}, x.placed = {};
            x.at = x.at + by;
            if (level) x.level = level;
            made.push_back(p.devices.add(x));
        } else if (const Furnishing* f = p.furnishings.find(r.as<Furnishing>())) {
            Furnishing x = *f;
            x.id = {};
            x.at = x.at + by;
            if (level) x.level = level;
            made.push_back(p.furnishings.add(x));
        }
    }
    return made;
}

void mirrorOnPlan(Project& p, const std::vector<Ref>& things, bool upright) {
    const Point c = middleOf(p, things);
    eachPlaced(p, things, [&](Point& at, double& turn) {
        if (upright)
            at.x = 2 * c.x - at.x, turn = std::fmod(360 - turn, 360.0);
        else
            at.y = 2 * c.y - at.y, turn = std::fmod(540 - turn, 360.0);
    });
}

void turnOnPlan(Project& p, const std::vector<Ref>& things, double degrees) {
    const Point c = middleOf(p, things);
    const double a = degrees * std::numbers::pi / 180;
    eachPlaced(p, things, [&](Point& at, double& turn) {
        const Point d = at - c;
        at = c + Point{d.x * std::cos(a) - d.y * std::sin(a), d.x * std::sin(a) + d.y * std::cos(a)};
        turn = std::fmod(turn + degrees + 720, 360.0);
    });
}

std::vector<Ref> arrayOnPlan(Project& p, const std::vector<Ref>& things, int columns, int rows, double stepX,
                             double stepY) {
    std::vector<Ref> made;
    for (int y = 0; y < rows; ++y)
        for (int x = 0; x < columns; ++x)
            if (x || y)
                for (Ref r : copyOnPlan(p, things, {x * stepX, y * stepY})) made.push_back(r);
    return made;
}

int bundleHomeRuns(Project& p, BoardId board, double reach, int most, bool shareNeutrals) {
    const Board* b = p.boards.find(board);
    if (!b) return 0;
    struct Start {
        CircuitId id;
        Point at;
        LevelId level;
        int slot;
    };
    std::map<CircuitId, std::vector<const Device*>> devices;
    for (const Device& d : p.devices)
        if (const Circuit* c = p.circuits.find(d.circuit);
            c && c->board == board && !c->bundle && c->use == CircuitUse::Load)
            devices[c->id].push_back(&d);
    std::vector<Start> starts;
    int last = 0, group = 0;
    for (const Circuit& c : p.circuits)
        if (c.board == board) last = std::max(last, c.bundle), group = std::max(group, c.multiwire);
    for (const auto& [id, list] : devices) {
        const Device* near = *std::min_element(list.begin(), list.end(), [&](auto* x, auto* y) {
            return orthogonal(b->at, x->at) < orthogonal(b->at, y->at);
        });
        starts.push_back({id, near->at, near->level, p.circuits[id].slot});
    }
    std::sort(starts.begin(), starts.end(), [](const Start& x, const Start& y) {
        return std::pair{x.slot, x.id.value} < std::pair{y.slot, y.id.value};
    });
    std::vector<char> taken(starts.size(), 0);
    int made = 0;
    for (std::size_t i = 0; i < starts.size(); ++i) {
        if (taken[i]) continue;
        std::vector<std::size_t> with{i};
        std::vector<std::pair<double, std::size_t>> near;
        for (std::size_t k = i + 1; k < starts.size(); ++k)
            if (!taken[k] && starts[k].level == starts[i].level && distance(starts[k].at, starts[i].at) <= reach)
                near.push_back({distance(starts[k].at, starts[i].at), k});
        std::sort(near.begin(), near.end());
        for (const auto& [d, k] : near)
            if (int(with.size()) < most) with.push_back(k);
        if (with.size() < 2) continue;
        ++last, ++made;
        for (std::size_t k : with) taken[k] = 1, p.circuits.change(starts[k].id)->bundle = last;
        if (!shareNeutrals) continue;
        std::map<int, CircuitId> onLine; // one on each line
        for (std::size_t k : with) {
            const Circuit& c = p.circuits[starts[k].id];
            if (c.poles == 1 && c.slot > 0 && !c.multiwire && !c.groundFault && !c.arcFault && c.residual <= 0)
                onLine.emplace(lineOfSlot(*b, c.slot), c.id);
        }
        if (onLine.size() < 2) continue;
        ++group;
        for (const auto& [line, c] : onLine) p.circuits.change(c)->multiwire = group;
    }
    return made;
}

} // namespace lintel
