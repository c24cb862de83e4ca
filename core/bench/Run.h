#pragma once
// The run of a bench sum: fields that conductor, motor and transformer share, and how they become what sizing needs.

#include "core/bench/BenchInputs.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/RunParts.h"

namespace lintel {

BenchField insulationField(const RuleBook& book);
BenchField terminalsField();
std::vector<BenchField> runFields(const RuleBook& book);
/// Amperes of a load on so many poles of a system. Refuses horsepower that is not in the table.
Amps benchAmps(const BenchInputs& in, const BenchLoad& load, double powerFactor, VoltageSystem system, int poles,
               const RuleBook& book, Working* working);
/// `result.need` has load, required, device, poles and system; the rest is taken from the run's fields. Sizes it, adds
/// its parts and figures to the answer. Refuses where no conductor of the book carries it.
void benchRun(const BenchInputs& in, RunResult& result, BenchAnswer& answer, const RuleBook& book);
/// The run as it goes into a project.
Run projectRun(const BenchInputs& in, const RuleBook& book);

} // namespace lintel
