#pragma once
// The size that a thing of the distribution needs by its load: a transformer, generator or UPS of its series, the rated
// current of a board or of what stands in a feed.
//
// Transformer: its demand with growth. Generator: the demand that it takes over, and the largest start over the share
// of its kVA that it gives for that moment, by its maker. UPS: what is behind it with growth, in kVA and, where its kW
// are entered, in kW. Board: its demand with growth and the code's addition for continuous loads; without a
// device of its own at least the device before it.

#include "core/project/Project.h"
#include "core/rules/RuleBook.h"
#include "core/solve/Results.h"
#include "core/solve/Working.h"

#include <optional>

namespace lintel {

/// kVA of transformers with this secondary.
const std::vector<double>& transformerSeries(const RuleBook& book, VoltageSystem secondary);
/// The first of a series that is enough; 0: the series ends below.
double nextOf(const std::vector<double>& series, double needed);

struct EquipmentSize {
    const char* unit = "kVA"; ///< or "A"
    double now = 0;           ///< as entered; 0: not entered
    double needed = 0;
    double size = 0; ///< the next of the series; 0: the series ends below
};
/// Nothing: the thing has no size of its own, nothing hangs on it, or it is fed in a circle. `working` takes the steps.
std::optional<EquipmentSize> equipmentSize(const Project& project, const RuleBook& book, const Results& results,
                                           Ref thing, Working* working = nullptr);
/// Gives it this size: of a board the main where it has one, and the bus where that would be smaller.
void enterEquipmentSize(Project& project, Ref thing, double size);

} // namespace lintel
