#include "core/plan/Measure.h"

namespace lintel {

Place placeOf(const Board& b) { return {b.level, b.at, b.height}; }
Place placeOf(const Transformer& t) { return {t.level, t.at, 0.5}; }
Place placeOf(const Source& s) { return {s.level, s.at, 0}; }
Place placeOf(const Project& p, const Device& d) {
    const DeviceType* y = p.deviceTypes.find(d.type);
    return {d.level, d.at, d.height.value_or(y ? y->height : 0)};
}
std::optional<Place> placeOf(const Project& p, Ref r) {
    std::optional<Place> place;
    if (auto* b = p.boards.find(r.as<Board>())) place = placeOf(*b);
    else if (auto* t = p.transformers.find(r.as<Transformer>())) place = placeOf(*t);
    else if (auto* s = p.sources.find(r.as<Source>())) place = placeOf(*s);
    if (place && !place->level) place.reset();
    return place;
}

std::optional<Measured> measure(const Project& p, const Place& from, const Place& to) {
    const Level *a = p.levels.find(from.level), *b = p.levels.find(to.level);
    if (!a || !b) return std::nullopt;
    // The route lies below the ceiling of the level where the run ends; a riser between levels is walked once.
    const double route = b->elevation + b->height - p.basis.routeBelowCeiling;
    Measured m;
    m.up = Metres{std::abs(route - (a->elevation + from.height))};
    m.across = Metres{orthogonal(from.at, to.at)};
    m.down = Metres{std::abs(route - (b->elevation + to.height))};
    m.total = (m.up + m.across + m.down) * (1 + p.basis.slack);
    return m;
}

std::vector<std::size_t> chainOrder(Point from, const Device* const* devices, std::size_t count) {
    std::vector<std::size_t> order, left(count);
    for (std::size_t i = 0; i < count; ++i) left[i] = i;
    while (!left.empty()) {
        auto next = std::min_element(left.begin(), left.end(), [&](std::size_t x, std::size_t y) {
            return orthogonal(from, devices[x]->at) < orthogonal(from, devices[y]->at);
        });
        from = devices[*next]->at;
        order.push_back(*next);
        left.erase(next);
    }
    return order;
}

std::optional<Measured> measureCircuit(const Project& p, const Board& board, LengthBy by, const Device* const* devices, std::size_t count) {
    if (count == 0 || !board.level) return std::nullopt;
    std::optional<Measured> longest;
    if (by == LengthBy::Reach || count == 1) {
        for (std::size_t i = 0; i < count; ++i)
            if (auto m = measure(p, placeOf(board), placeOf(p, *devices[i])); m && (!longest || m->total > longest->total)) longest = m;
        return longest;
    }
    const auto order = chainOrder(board.at, devices, count);
    longest = measure(p, placeOf(board), placeOf(p, *devices[order.front()]));
    for (std::size_t i = 1; longest && i < count; ++i) {
        const Place a = placeOf(p, *devices[order[i - 1]]), b = placeOf(p, *devices[order[i]]);
        const double across = orthogonal(a.at, b.at), rise = std::abs(a.height - b.height);
        longest->across += Metres{across};
        longest->down += Metres{rise};
        longest->total += Metres{(across + rise) * (1 + p.basis.slack)};
    }
    return longest;
}

std::optional<Measured> measureRing(const Project& p, const Board& board, const Device* const* devices, std::size_t count) {
    auto out = measureCircuit(p, board, LengthBy::Chain, devices, count);
    if (!out) return out;
    const auto back = measure(p, placeOf(p, *devices[chainOrder(board.at, devices, count).back()]), placeOf(board));
    if (!back) return std::nullopt;
    out->up += back->up, out->across += back->across, out->down += back->down, out->total += back->total;
    return out;
}

} // namespace lintel
