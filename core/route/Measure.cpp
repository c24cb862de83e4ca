#include "core/route/Trays.h"

namespace lintel {

Place placeOf(const Board& b) { return {b.level, b.at, b.height}; }
Place placeOf(const Transformer& t) { return {t.level, t.at, 0.5}; }
Place placeOf(const Source& s) { return {s.level, s.at, 0}; }
Place placeOf(const Project& p, const Device& d) {
    const DeviceType* y = p.deviceTypes.find(d.type);
    return {d.level, d.at, d.height.value_or(y ? y->height : 0)};
}
std::optional<Place> placeOf(const Project& p, Ref r) {
    const auto where = [](const auto* x) -> std::optional<Place> {
        if (!x || !x->level || !x->onPlan) return std::nullopt;
        return placeOf(*x);
    };
    if (const auto board = where(p.boards.find(r.as<Board>()))) return board;
    if (const auto transformer = where(p.transformers.find(r.as<Transformer>()))) return transformer;
    return where(p.sources.find(r.as<Source>()));
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

namespace {
/// From one device of a chain to another on its floor: across along the walls, and from one height to the other.
std::pair<double, double> pointToPoint(const Project& p, const Device& from, const Device& to) {
    const Place a = placeOf(p, from), b = placeOf(p, to);
    return {orthogonal(a.at, b.at), std::abs(a.height - b.height)};
}

/// From the board to the nearest device and on to the next nearest: calls at(device, measured up to there) for each.
template <class F>
void walkChain(const Project& p, const Board& board, const MeasureBy& by, const Device* const* devices,
               std::size_t count, F at) {
    const Device* before = nullptr;
    std::optional<Measured> so;
    for (std::size_t i : chainOrder(board.at, devices, count)) {
        if (!before) so = measure(p, placeOf(board), placeOf(p, *devices[i]), by.trays, by.route);
        if (!so) return;
        if (before) {
            const auto [across, rise] = pointToPoint(p, *before, *devices[i]);
            so->across += Metres{across};
            so->down += Metres{rise};
            so->total += Metres{(across + rise) * (1 + p.basis.slack)};
        }
        before = devices[i];
        at(*before, *so);
    }
}
} // namespace

MeasureBy measureBy(const Run* run, const TrayGraph* trays) {
    if (!run) return {LengthBy::Reach, RouteBy::Auto, nullptr, trays};
    return {run->lengthBy, run->route, &run->trace, trays};
}

std::optional<Measured> measureBetween(const Project& p, const Place& from, const Place& to, const MeasureBy& by) {
    if (by.by != LengthBy::Traced || !by.trace || by.trace->size() < 2) return measure(p, from, to, by.trays, by.route);
    auto m = measure(p, from, to);
    if (!m) return m;
    m->across = Metres{0};
    for (std::size_t i = 1; i < by.trace->size(); ++i)
        m->across += Metres{distance((*by.trace)[i - 1], (*by.trace)[i])};
    m->total = (m->up + m->across + m->down) * (1 + p.basis.slack);
    return m;
}

std::optional<Measured> measureFeeder(const Project& p, const Place& from, const Place& to, const MeasureBy& by) {
    const double across = orthogonal(from.at, to.at);
    if (from.level != to.level || across > besideEachOther || by.by == LengthBy::Traced)
        return measureBetween(p, from, to, by);
    Measured m;
    (to.height > from.height ? m.up : m.down) = Metres{std::abs(to.height - from.height)};
    m.across = Metres{across};
    m.total = (m.up + m.across + m.down) * (1 + p.basis.slack);
    return m;
}

std::optional<Measured> measureCircuit(const Project& p, const Board& board, const MeasureBy& by,
                                       const Device* const* devices, std::size_t count) {
    if (count == 0 || !board.level || !board.onPlan) return std::nullopt;
    std::optional<Measured> longest;
    if (by.by == LengthBy::Traced && by.trace && by.trace->size() > 1) {
        const Point end = by.trace->back();
        const Device* last = *std::min_element(devices, devices + count, [&](const Device* x, const Device* y) {
            return distance(x->at, end) < distance(y->at, end);
        });
        return measureBetween(p, placeOf(board), placeOf(p, *last), by);
    }
    if (by.by != LengthBy::Chain || count == 1) {
        for (std::size_t i = 0; i < count; ++i)
            if (auto m = measureBetween(p, placeOf(board), placeOf(p, *devices[i]),
                                        {LengthBy::Reach, by.route, nullptr, by.trays});
                m && (!longest || m->total > longest->total))
                longest = m;
        return longest;
    }
    walkChain(p, board, by, devices, count, [&](const Device&, const Measured& m) { longest = m; });
    return longest;
}

std::vector<std::pair<const Device*, Metres>> alongChain(const Project& p, const Board& board, const MeasureBy& by,
                                                         const Device* const* devices, std::size_t count) {
    std::vector<std::pair<const Device*, Metres>> stops;
    if (board.level && board.onPlan)
        walkChain(p, board, by, devices, count, [&](const Device& d, const Measured& m) {
            stops.push_back({&d, m.total});
        });
    return stops;
}

Metres spurLength(const Project& p, const Device& d, const Device* const* devices, std::size_t count) {
    double least = -1;
    for (std::size_t i = 0; i < count; ++i) {
        if (devices[i]->spur || devices[i]->level != d.level) continue;
        const auto [across, rise] = pointToPoint(p, *devices[i], d);
        if (least < 0 || across + rise < least) least = across + rise;
    }
    return Metres{std::max(0.0, least) * (1 + p.basis.slack)};
}

std::optional<Measured> measureRing(const Project& p, const Board& board, const Device* const* devices,
                                    std::size_t count, const TrayGraph* trays) {
    std::vector<const Device*> ring; // what hangs on spurs does not lengthen it
    std::copy_if(devices, devices + count, std::back_inserter(ring), [](const Device* d) { return !d->spur; });
    if (ring.empty()) ring.assign(devices, devices + count);
    auto out = measureCircuit(p, board, {LengthBy::Chain, RouteBy::Auto, nullptr, trays}, ring.data(), ring.size());
    if (!out) return out;
    const auto back = measure(p, placeOf(p, *ring[chainOrder(board.at, ring.data(), ring.size()).back()]),
                              placeOf(board), trays, RouteBy::Auto);
    if (!back) return std::nullopt;
    out->up += back->up, out->across += back->across, out->down += back->down, out->total += back->total;
    return out;
}

} // namespace lintel
