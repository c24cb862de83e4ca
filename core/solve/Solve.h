#pragma once
// The whole building, worked out. Pure steps on a snapshot, in this order:
//   topology → phase loads → demand → devices → conductors and drop → fault
// Checks (core/check) read the results. The world is handed in: no globals, no clock, no files.

#include "core/solve/Results.h"
#include "core/solve/Working.h"

namespace lintel {

Results solve(const Project& entered, const RuleBook& book);

/// How the numbers of one thing came about, by the same code that computed them.
/// For a circuit, board or transformer: load, demand, device, conductors, drop, protective conductor, fault level.
Working explain(const Project& entered, const RuleBook& book, const Results& results, Ref thing);

} // namespace lintel
