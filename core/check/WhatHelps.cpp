#include "core/check/WhatHelps.h"

#include "core/solve/Procedure.h"

#include <algorithm>

namespace lintel {

std::optional<double> residualThatOpens(const RunResult& run, const SizingRules& rules, const RuleBook& book) {
    if (!run.need.cable || run.need.cable->residual > 0) return {};
    RunNeed need = run.need;
    const double mA = need.cable->final ? book.cables.residualMA : 300;
    need.cable.make().residual = float(mA);
    if (!procedureOf(book).earthFault(need, {run.size, run.sets}, rules, book).ok) return {};
    return mA;
}

std::optional<EarthFault> faultBehind(const RunResult& run, DeviceKind kind, const SizingRules& rules,
                                      const RuleBook& book) {
    const auto band = book.cables.trips.find(kind);
    if (kind == run.need.cable->device || band == book.cables.trips.end() || run.need.device > band->second.upTo ||
        run.need.device < band->second.from)
        return {};
    RunNeed need = run.need;
    need.cable.make().device = kind;
    return procedureOf(book).earthFault(need, {run.size, run.sets}, rules, book);
}

RunResult freelySized(const RunResult& run, const SizingRules& rules, const RuleBook& book) {
    RunResult free;
    free.need = run.need;
    free.need.held = -1;
    free.need.heldSets = 0;
    sizeRun(free, rules, book);
    return free;
}

namespace {
/// The smallest size from that of a run on whose loss, as a share of the voltage, is good enough.
template <class Enough>
std::optional<SizeIndex> sizeThatLoses(const RunResult& run, const RuleBook& book, const Enough& enough) {
    for (SizeIndex i = std::max(0, run.size); i < SizeIndex(book.sizes().size()); ++i)
        if (canUse(run.need, i, book) && enough(ownDrop(run.need, i, std::max(1, run.sets), book))) return i;
    return {};
}
} // namespace

std::optional<SizeIndex> sizeWithinDrop(const RunResult& run, const RuleBook& book) {
    return sizeThatLoses(run, book, [&](double own) {
        return own <= run.need.ownLimit && own + run.need.totalBefore <= run.need.totalLimit;
    });
}

std::optional<SizeIndex> sizeWithinOwnDrop(const RunResult& run, const RuleBook& book) {
    return sizeThatLoses(run, book, [&](double own) { return own <= run.need.ownLimit; });
}

bool someSizeKeepsOwnDrop(const RunResult& run, const RuleBook& book) {
    for (SizeIndex i = SizeIndex(book.sizes().size()) - 1; i >= 0; --i)
        if (canUse(run.need, i, book)) return ownDrop(run.need, i, std::max(1, run.sets), book) <= run.need.ownLimit;
    return false;
}

} // namespace lintel
