#pragma once
// Bolted fault currents from complex impedances, source to point. Maximum values: conductors cold (20 °C, or as the
// basis asks), as a fault finds them at its worst; resistance is scaled from the tables' 75 °C by the material's
// temperature constant.

#include "core/solve/Results.h"

namespace lintel {

/// At the terminals of a supply. A utility transformer's primary is taken as infinite where the utility's fault level
/// is not given. `factor`: the code's voltage factor c for the largest currents.
FaultPoint atSource(const Source& source, double factor = 1);
/// At the far end of a run of `cold` ohms (one line conductor, at 20 °C). `coldGround`: of the way back through its
/// protective conductor; `hotLoop`: what the run adds to the earth-fault loop under load.
FaultPoint afterRun(const FaultPoint& from, Complex cold, Complex coldGround, Complex hotLoop, VoltageSystem system);
/// The fault where the run that feeds a node begins: at the terminals of what feeds it, on the secondary side of a
/// transformer.
const FaultPoint& beforeFeeder(const Results& results, const NodeResult& node);
/// What is left of that at the node: limited by the device that feeds it, less what its run takes. `system`: of the
/// run, or of the node where that has fewer lines (`faultSystem`).
FaultPoint afterFeeder(const FaultPoint& before, VoltageSystem above, VoltageSystem system, const NodeResult& node,
                       const Project& project, const RuleBook& book);
/// A board of one phase fed from a system of three sees what its own lines and neutral carry, and no three-phase fault.
VoltageSystem faultSystem(const Board& board, VoltageSystem above);
/// A fault level that is known from elsewhere: three-phase (or line-line) kA with its X/R.
FaultPoint given(double kA, double xOverR, VoltageSystem system, double factor = 1);
/// Lowers a point to what a current-limiting device lets through, kA symmetrical; nothing changes where less is there
/// already.
void limitTo(FaultPoint& point, double kA, VoltageSystem system);
/// Adds the share of the motors of a system: four times their full-load current, undiminished by any run below (a
/// maximum, easily followed by hand).
void addMotors(FaultPoint& point, double motorVa, VoltageSystem system);
/// kA at the far end of a branch run, between as many lines as it has poles: three-phase, line-line or line-neutral.
double atBranchEnd(const FaultPoint& board, Complex cold, VoltageSystem system, int poles);
/// At the secondary terminals. Three-phase: delta–wye, so line-neutral faults see only its own zero sequence.
/// Single-phase: line-neutral current at the terminals is 1.5 times line-line by convention.
FaultPoint afterTransformer(const FaultPoint& primary, const Transformer& transformer);
/// Ohms of a transformer's winding at its secondary voltage, from %Z and X/R.
Complex transformerOhms(const Transformer& transformer);

/// Resistance at `celsius` over that at 75 °C: (τ + celsius)/(τ + 75), τ = 234.5 for copper, 228 for aluminium.
double coldFactor(Material material, double celsius = 20);
/// Ohms of a run, given at the temperature of its results (75 °C, or the highest of its cable), at `celsius`.
Complex coldOhms(Complex ohms, const RunNeed& need, const RuleBook& book, double celsius = 20);

} // namespace lintel
