#pragma once
// The cable of a metric bench sum: fields that the kinds share, and how they become what sizing needs.

#include "core/bench/BenchInputs.h"
#include "core/solve/Procedure.h"

namespace lintel {

/// Cable, method, where it lies, length, drop limits.
std::vector<BenchField> cableFields(const RuleBook& book);
/// Device, Ze, earthing, residual current.
std::vector<BenchField> earthFields(const RuleBook& book);
/// Fills the need from both lists of fields. Poles, system, load and device are there already.
void takeCable(const BenchInputs& in, RunNeed& need, const RuleBook& book);
void takeEarth(const BenchInputs& in, RunNeed& need, const RuleBook& book);
/// What the protective conductor has to withstand at the end of the run and where it begins, against what it is.
void adiabaticFigures(const EarthFault& fault, BenchAnswer& answer);
/// Sizes the run and adds its figures: size, capacity, drop, temperature, withstand, loop, longest length and why.
/// Refuses where nothing carries it.
void cableFigures(const BenchInputs& in, RunResult& run, BenchAnswer& answer, const RuleBook& book);
/// The largest preferred size, ceiling and units of the inputs.
SizingRules cableRules(const BenchInputs& in, const RuleBook& book);
/// The types of cable and their methods as a project's run has them.
Run cableOfProject(const BenchInputs& in, const RuleBook& book);

} // namespace lintel
