#pragma once
// Which part of a project a list or a report tells of.

#include "core/base/Error.h"
#include "core/project/Project.h"
#include "core/solve/Results.h"

#include <set>
#include <string>
#include <vector>

namespace lintel {

struct ListScope {
    std::vector<Ref> nodes;          ///< boards, transformers and sources, each after what feeds it
    std::vector<CircuitId> circuits; ///< with a load on them and feeding no board, board after board
    std::set<Ref> chosen;            ///< all of them, and circuits that feed one of the nodes
    bool whole = true;
    std::string words; ///< "The whole project", "LP-1 and what it feeds, with the way to it"

    bool has(Ref thing) const { return whole || chosen.count(thing) > 0; }
};

ListScope wholeProject(const Project& project, const Results& results);
/// A board, transformer or source with all it feeds and the way to it; `path`: only the way from the supply to `of`,
/// which may be a circuit. Errors: `of` is not in the project, or a path is asked for what nothing feeds.
Outcome<ListScope> scopeOf(const Project& project, const Results& results, Ref of, bool path);

} // namespace lintel
