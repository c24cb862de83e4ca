#pragma once
// Which part of a project a report tells of.

#include "core/report/CalculationReport.h"

#include <set>

namespace lintel {

struct ReportScope {
    std::vector<Ref> nodes;          ///< boards, transformers and sources, each after what feeds it
    std::vector<CircuitId> circuits; ///< with a load on them and feeding no board, board after board
    std::set<Ref> chosen;            ///< all of them, and circuits that feed one of the nodes
    bool whole = true;
    std::string words; ///< "The whole project", "LP-1 and what it feeds, with the way to it"

    bool has(Ref thing) const { return whole || chosen.count(thing) > 0; }
};
Outcome<ReportScope> reportScope(const Project& project, const Results& results, const ReportOrder& order);

} // namespace lintel
