#include "core/lists/ListScope.h"

#include <fmt/format.h>

#include <algorithm>

namespace lintel {
namespace {

bool isReported(const Project& p, const Results& r, CircuitId id) {
    return p.circuits[id].use == CircuitUse::Load && !r.of(id).feeder;
}

/// The circuits of a board with a load of their own, by their place.
void addCircuits(ListScope& scope, const Project& p, const Results& r, BoardId board) {
    std::vector<CircuitId> here;
    for (CircuitId id : r.on(board))
        if (isReported(p, r, id)) here.push_back(id);
    std::stable_sort(here.begin(), here.end(),
                     [&](CircuitId a, CircuitId b) { return p.circuits[a].slot < p.circuits[b].slot; });
    scope.circuits.insert(scope.circuits.end(), here.begin(), here.end());
}

} // namespace

ListScope wholeProject(const Project& p, const Results& r) {
    ListScope scope;
    scope.words = "The whole project";
    scope.nodes = r.order;
    for (Ref node : r.order)
        if (node.is<Board>()) addCircuits(scope, p, r, node.as<Board>());
    return scope;
}

Outcome<ListScope> scopeOf(const Project& p, const Results& r, Ref of, bool path) {
    ListScope scope;
    if (!r.knows(of) || (!r.node(of) && !of.is<Circuit>()))
        return Error{of.text(), "there is no such board, transformer, source or circuit", "Choose one that is there."};
    scope.whole = false;
    const std::string name = nameOf(p, of);
    const std::vector<Ref> way = r.feedPath(of, p);
    const bool fed = !way.empty() && way.front().is<Source>();
    if (path && !fed)
        return Error{name, "nothing feeds it, so that there is no way from the supply to it",
                     "Feed it first, or leave out the path."};
    scope.chosen.insert(way.begin(), way.end());
    scope.chosen.insert(of);
    const bool below = !path && !of.is<Circuit>();
    if (below)
        for (Ref node : r.order) // each after what feeds it
            if (node == of ||
                (scope.chosen.count(r.node(node)->parent) &&
                 (r.node(node)->parent == of || std::find(way.begin(), way.end(), r.node(node)->parent) == way.end())))
                scope.chosen.insert(node);
    for (Ref node : r.order) {
        if (!scope.chosen.count(node)) continue;
        scope.nodes.push_back(node);
        if (CircuitId via = r.node(node)->via) scope.chosen.insert(via);
        const bool wayOnly = node != of && std::find(way.begin(), way.end(), node) != way.end();
        if (below && !wayOnly && node.is<Board>()) addCircuits(scope, p, r, node.as<Board>());
    }
    if (const CircuitId c = of.as<Circuit>(); c && isReported(p, r, c)) scope.circuits.push_back(c);
    for (CircuitId c : scope.circuits) scope.chosen.insert(c);
    scope.words = path || of.is<Circuit>() ? fmt::format("The way from the supply to {}", name)
                  : way.size() > 1         ? fmt::format("{} with all it feeds, and the way to it", name)
                                           : fmt::format("{} with all it feeds", name);
    return scope;
}

} // namespace lintel
