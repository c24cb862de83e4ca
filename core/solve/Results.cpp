#include "core/solve/Results.h"

#include <algorithm>

namespace lintel {

Results::Results() = default;
Results::Results(const Results&) = default;
Results::Results(Results&&) noexcept = default;
Results& Results::operator=(const Results&) = default;
Results& Results::operator=(Results&&) noexcept = default;
Results::~Results() = default;

bool Results::knows(Ref x) const {
    if (x.is<Circuit>()) return x.value < circuits.size();
    return node(x) != nullptr;
}

const NodeResult* Results::node(Ref x) const {
    if (x.is<Board>() && x.value < boards.size()) return &boards[x.value];
    if (x.is<Transformer>() && x.value < transformers.size()) return &transformers[x.value];
    if (x.is<Source>() && x.value < sources.size()) return &sources[x.value];
    return nullptr;
}

const RunResult* Results::run(Ref x) const {
    if (x.is<Circuit>() && x.value < circuits.size()) {
        const CircuitResult& c = circuits[x.value];
        if (!c.feeder || !node(c.feeds)) return &c.run;
        return c.standby && c.feeds.is<Board>() ? &*boards[c.feeds.value].alternateRun : &node(c.feeds)->run;
    }
    return x.is<Source>() ? nullptr : node(x) ? &node(x)->run : nullptr;
}

std::vector<Ref> Results::feedPath(Ref thing, const Project& p) const {
    std::vector<Ref> path;
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) {
        path.push_back(thing);
        thing = c->board;
    }
    for (std::size_t guard = 0; thing && node(thing) && guard <= order.size(); ++guard) {
        if (node(thing)->looped) return {};
        path.push_back(thing);
        thing = node(thing)->parent;
    }
    std::reverse(path.begin(), path.end());
    return path;
}

} // namespace lintel
