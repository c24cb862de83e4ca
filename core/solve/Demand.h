#pragma once
// Demand at a node from everything connected below it: the rule of each load kind applied to the node's own total,
// never a product of rules down the tree.

#include "core/solve/Results.h"
#include "core/solve/Working.h"

namespace lintel {

/// Fills demandByKind, demand, demandPower, continuous and connected of the node from its kinds.
void findDemand(const KindSums& kinds, const Basis& basis, const RuleBook& book, NodeResult& into,
                Working* working = nullptr);
/// The same rules for one kind alone: VA of demand.
double demandOf(LoadKind kind, const KindSums& kinds, const Basis& basis, const RuleBook& book,
                Working* working = nullptr);

} // namespace lintel
