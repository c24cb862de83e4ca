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

/// What a motor's device of this kind may be.
MotorDevice motorDeviceOf(const RuleBook& book, DeviceKind kind);
/// The rating of a transformer's primary device by its rated primary current, where there is no secondary device.
double transformerPrimaryRating(double amps, const RuleBook& book);
/// The value of the first band whose end lies above `v`.
double bandOf(const std::vector<Band>& bands, double v);
/// Whether the next standard rating may be taken where a transformer's device comes out between two: in the last band
/// of its table (450.3(B), note 1).
bool nextRatingAllowed(const std::vector<Band>& bands, double amps);

} // namespace lintel
