#pragma once
// What feeds what. The first step: everything after it walks these lists and never searches.

#include "core/solve/Results.h"

namespace lintel {

struct Topology {
    /// Boards, transformers and sources, each after what feeds it; what nothing feeds begins a tree of its own.
    std::vector<Ref> order;
    std::vector<const Board*> boards;           ///< in that order
    std::vector<Ref> circuitFeeds;              ///< by circuit id: the board or transformer it feeds, or would
    std::vector<const Circuit*> circuits;       ///< of all boards, board after board
    std::vector<std::uint32_t> circuitsOfBoard; ///< by board id: where its circuits begin; one more at the end
    std::vector<const Circuit*> feeders;        ///< those of them that feed a board or transformer
    std::vector<std::uint32_t> feedersOfBoard;
    std::vector<const Load*> loads;
    std::vector<std::uint32_t> loadsOfCircuit;
    std::vector<const Device*> devices;
    std::vector<std::uint32_t> devicesOfCircuit;

    template <class T> struct Range {
        T const* b;
        T const* e;
        T const* begin() const { return b; }
        T const* end() const { return e; }
        std::size_t size() const { return std::size_t(e - b); }
        bool empty() const { return b == e; }
    };
    Range<const Circuit*> of(BoardId b) const { return range(circuits, circuitsOfBoard, b.value); }
    Range<const Circuit*> feedersOf(BoardId b) const { return range(feeders, feedersOfBoard, b.value); }
    Range<const Load*> loadsOf(CircuitId c) const { return range(loads, loadsOfCircuit, c.value); }
    Range<const Device*> devicesOf(CircuitId c) const { return range(devices, devicesOfCircuit, c.value); }

private:
    template <class T>
    static Range<T> range(const std::vector<T>& v, const std::vector<std::uint32_t>& starts, std::uint32_t i) {
        if (i + 1 >= starts.size()) return {v.data(), v.data()};
        return {v.data() + starts[i], v.data() + starts[i + 1]};
    }
};

/// Fills the lists, and in `results` for each node: parent, via, depth, fed, looped.
Topology findTopology(const Project& project, Results& results);

} // namespace lintel
