#include "core/report/ReportScope.h"

#include <fmt/format.h>

#include <algorithm>

namespace lintel {
namespace {

bool isReported(const Project& p, const Results& r, CircuitId id) {
    return p.circuits[id].use == CircuitUse::Load && !r.of(id).feeder;
}

/// The circuits of a board with a load of their own, by their place.
void addCircuits(ReportScope& scope, const Project& p, const Results& r, BoardId board) {
    std::vector<CircuitId> here;
    for (CircuitId id : r.on(board))
        if (isReported(p, r, id)) here.push_back(id);
    std::stable_sort(here.begin(), here.end(),
                     [&](CircuitId a, CircuitId b) { return p.circuits[a].slot < p.circuits[b].slot; });
    scope.circuits.insert(scope.circuits.end(), here.begin(), here.end());
}

} // namespace

Outcome<ReportScope> reportScope(const Project& p, const Results& r, const ReportOrder& order) {
    ReportScope scope;
    if (!order.of) {
        scope.words = "The whole project";
        scope.nodes = r.order;
        for (Ref node : r.order)
            if (node.is<Board>()) addCircuits(scope, p, r, node.as<Board>());
        return scope;
    }
    if (!r.knows(order.of) || (!r.node(order.of) && !order.of.is<Circuit>()))
        return Error{order.of.text(), "there is no such board, transformer, source or circuit",
                     "Choose one that is there."};
    scope.whole = false;
    const std::string name = nameOf(p, order.of);
    const std::vector<Ref> way = r.feedPath(order.of, p);
    const bool fed = !way.empty() && way.front().is<Source>();
    if (order.path && !fed)
        return Error{name, "nothing feeds it, so that there is no way from the supply to it",
                     "Feed it first, or leave out the path."};
    scope.chosen.insert(way.begin(), way.end());
    scope.chosen.insert(order.of);
    const bool below = !order.path && !order.of.is<Circuit>();
    if (below)
        for (Ref node : r.order) // each after what feeds it
            if (node == order.of || (scope.chosen.count(r.node(node)->parent) &&
                                     (r.node(node)->parent == order.of ||
                                      std::find(way.begin(), way.end(), r.node(node)->parent) == way.end())))
                scope.chosen.insert(node);
    for (Ref node : r.order) {
        if (!scope.chosen.count(node)) continue;
        scope.nodes.push_back(node);
        if (CircuitId via = r.node(node)->via) scope.chosen.insert(via);
        const bool wayOnly = node != order.of && std::find(way.begin(), way.end(), node) != way.end();
        if (below && !wayOnly && node.is<Board>()) addCircuits(scope, p, r, node.as<Board>());
    }
    if (const CircuitId c = order.of.as<Circuit>(); c && isReported(p, r, c)) scope.circuits.push_back(c);
    for (CircuitId c : scope.circuits) scope.chosen.insert(c);
    scope.words = order.path || order.of.is<Circuit>() ? fmt::format("The way from the supply to {}", name)
                  : way.size() > 1                     ? fmt::format("{} with all it feeds, and the way to it", name)
                                                       : fmt::format("{} with all it feeds", name);
    return scope;
}

} // namespace lintel
