#include "core/solve/Topology.h"

#include "core/base/Parallel.h"

#include <set>

namespace lintel {
namespace {

template <class T> const T* at(const T& thing) { return &thing; }
template <class T> const T* at(const T* thing) { return thing; }

/// Sorts things by the id they belong to: counted, then put in place.
template <class T, class Things, class Owner>
void group(const Things& things, std::uint32_t highest, Owner owner, std::vector<const T*>& out,
           std::vector<std::uint32_t>& starts) {
    starts.assign(highest + 2, 0);
    std::vector<std::pair<std::uint32_t, const T*>> owned; // a thing is large, and each is looked at once
    owned.reserve(things.size());
    for (const auto& t : things) {
        owned.emplace_back(owner(*at(t)), at(t));
        ++starts[owned.back().first + 1];
    }
    for (std::size_t i = 1; i < starts.size(); ++i) starts[i] += starts[i - 1];
    out.resize(owned.size());
    std::vector<std::uint32_t> next(starts.begin(), starts.end() - 1);
    for (const auto& [id, t] : owned) out[next[id]++] = t;
}

} // namespace

Topology findTopology(const Project& p, Results& r) {
    Topology t;
    atOnce(
        p.circuits.size() >= manyCircuits,
        [&] {
            group<Circuit>(
                p.circuits, p.boards.highest(), [](const Circuit& c) { return c.board.value; }, t.circuits,
                t.circuitsOfBoard);
        },
        [&] {
            group<Load>(
                p.loads, p.circuits.highest(), [](const Load& l) { return l.circuit.value; }, t.loads,
                t.loadsOfCircuit);
            group<Device>(
                p.devices, p.circuits.highest(), [](const Device& d) { return d.circuit.value; }, t.devices,
                t.devicesOfCircuit);
        });
    t.circuitFeeds.assign(p.circuits.highest() + 1, {});

    // Parent of each node: the board a feeding circuit stands in, or the transformer or source itself.
    std::vector<std::pair<Ref, Ref>> below; // (parent, node)
    const auto note = [&](Ref node, Ref feed) {
        NodeResult& n = *r.node(node);
        if (const Circuit* c = p.circuits.find(feed.as<Circuit>())) {
            n.via = c->id;
            n.parent = c->board;
            t.circuitFeeds[c->id.value] = node;
        } else {
            n.parent = feed;
        }
        if (n.parent) below.push_back({n.parent, node});
    };
    for (const Transformer& x : p.transformers) note(x.id, x.feed);
    for (const Board& b : p.boards) note(b.id, b.feed);
    for (const Board& b : p.boards) // on standby: it feeds the board only when that has changed over
        if (const Circuit* c = p.circuits.find(b.alternate.as<Circuit>()); c && !t.circuitFeeds[c->id.value])
            t.circuitFeeds[c->id.value] = b.id;
    std::sort(below.begin(), below.end());
    std::vector<const Circuit*> feeding;
    for (std::uint32_t id = 0; id < t.circuitFeeds.size(); ++id)
        if (t.circuitFeeds[id]) feeding.push_back(p.circuits.find(CircuitId{id}));
    group<Circuit>(
        feeding, p.boards.highest(), [](const Circuit& c) { return c.board.value; }, t.feeders, t.feedersOfBoard);

    const auto walk = [&](Ref root, bool fed) {
        std::size_t from = t.order.size();
        t.order.push_back(root);
        r.node(root)->fed = fed;
        r.node(root)->depth = 0;
        for (; from < t.order.size(); ++from) {
            const Ref at = t.order[from];
            for (auto it = std::lower_bound(below.begin(), below.end(), std::pair{at, Ref()});
                 it != below.end() && it->first == at; ++it) {
                NodeResult& n = *r.node(it->second);
                if (n.depth >= 0) continue; // met again: part of a loop that was cut open
                n.depth = r.node(at)->depth + 1;
                n.fed = fed;
                t.order.push_back(it->second);
            }
        }
    };
    for (const Transformer& x : p.transformers) r.node(x.id)->depth = -1;
    for (const Board& b : p.boards) r.node(b.id)->depth = -1;
    for (const Source& s : p.sources) walk(s.id, true);
    for (const Transformer& x : p.transformers)
        if (!r.node(x.id)->parent) walk(x.id, false);
    for (const Board& b : p.boards)
        if (!r.node(b.id)->parent) walk(b.id, false);
    // What is left stands in a loop or hangs below one: cut each loop open at its first member.
    const auto cut = [&](Ref at) {
        if (r.node(at)->depth >= 0) return;
        Ref slow = at; // walk up until a node comes again: it is in the loop
        std::set<Ref> seen;
        while (seen.insert(slow).second) slow = r.node(slow)->parent;
        for (Ref x = slow;;) {
            r.node(x)->looped = true;
            x = r.node(x)->parent;
            if (x == slow) break;
        }
        walk(slow, false);
    };
    for (const Board& b : p.boards) cut(b.id);
    for (const Transformer& x : p.transformers) cut(x.id);
    for (Ref node : t.order)
        if (const Board* b = p.boards.find(node.as<Board>())) t.boards.push_back(b);
    r.order = t.order;
    return t;
}

} // namespace lintel
