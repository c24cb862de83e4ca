#pragma once
// What would bring a run within its limits, worked out at the run alone.

#include "core/solve/ConductorSizing.h"
#include "core/solve/Results.h"

#include <optional>

namespace lintel {

/// The rated residual current of a device with which the supply of a run is cut off in time [mA]: that of final
/// circuits of the book, else 300. Nothing: the run has such a device already, or that does not help either.
std::optional<double> residualThatOpens(const RunResult& run, const SizingRules& rules, const RuleBook& book);

/// The earth fault at the end of a run behind another kind of device of its rating; nothing: it has that kind, or none
/// is made of that rating.
std::optional<EarthFault> faultBehind(const RunResult& run, DeviceKind kind, const SizingRules& rules,
                                      const RuleBook& book);

/// A run as the program would size it, whatever size is held.
RunResult freelySized(const RunResult& run, const SizingRules& rules, const RuleBook& book);

/// The smallest size from that of a run on, of as many sets, with which it keeps its limits of voltage drop; nothing:
/// none of the book's.
std::optional<SizeIndex> sizeWithinDrop(const RunResult& run, const RuleBook& book);

/// The smallest size with which a run keeps the limit of what it itself loses, whatever is lost before it.
std::optional<SizeIndex> sizeWithinOwnDrop(const RunResult& run, const RuleBook& book);

/// Whether some size of the book's keeps the limit of what a run itself loses, as long as it is.
bool someSizeKeepsOwnDrop(const RunResult& run, const RuleBook& book);

} // namespace lintel
