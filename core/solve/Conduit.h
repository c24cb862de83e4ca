#pragma once
// Conduit by fill: the areas of the insulated conductors in it, of whatever sizes, against the share of its inside area
// that their number allows (one, two, more).

#include "core/rules/RuleBook.h"
#include "core/solve/Working.h"

namespace lintel {

/// So many conductors of one size and insulation.
struct ConduitConductor {
    SizeIndex size = -1;
    int count = 1;
    const Insulation* insulation = nullptr;
};

struct ConduitFill {
    const ConduitSize* size = nullptr; ///< the smallest trade size that holds them; null: none does
    int conductors = 0;
    double area = 0;      ///< mm² of conductors
    double allowed = 0;   ///< share of the inside area
    double used = 0;      ///< share of it taken
    bool unknown = false; ///< the insulation's table has no area for one of the sizes
};
/// The share that so many conductors may fill.
double allowedFill(int conductors, const RuleBook& book, bool nipple = false);
/// Trade sizes below 1/2 are not proposed.
ConduitFill conduitFor(const ConduitType& type, const std::vector<ConduitConductor>& conductors, const RuleBook& book,
                       Working* working = nullptr, bool nipple = false);

} // namespace lintel
