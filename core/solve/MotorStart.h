#pragma once
// What a motor takes while it starts.

#include "core/project/Project.h"
#include "core/rules/RuleBook.h"
#include "core/solve/Results.h"

namespace lintel {

/// Times its full-load current. As the starter is set, where that is entered. Else as the book assumes when it starts
/// direct, and a third of that by star–delta: each winding has 1/√3 of the volts, and its current is 1/√3 of the
/// line's, so that the line carries a third. A soft starter and a drive without a setting count as direct: what they
/// hold it to is theirs to say.
inline double startTimesOf(const Circuit& circuit, const RuleBook& book) {
    if (circuit.startTimes > 0) return circuit.startTimes;
    return circuit.starter == StarterKind::StarDelta ? book.motorStart / 3 : book.motorStart;
}

/// Puts the motor that adds more by its start in place of the one that is known so far.
inline void noteStart(NodeResult& node, double running, double starting) {
    if (starting - running <= node.startVa - node.startRunningVa) return;
    node.startRunningVa = running;
    node.startVa = starting;
}

} // namespace lintel
