#pragma once
// What a circuit begins with: the fault level and the drop at its board, and of a busway's tap-off at its place along
// the bars.
//
// Drop along the bars, with what hangs on each tap-off taking its share of the busway's demand current, of the heaviest
// line: u(x) = Σ I_i · min(x, x_i) · (R·cos φ + X·sin φ), times √3 of three lines, R at the rated current: each metre
// of bar carries what hangs beyond it. A tap-off on one line counts twice that, as if all of it came back by the
// neutral; on two of three lines 2/√3 times. Faults: the bars up to the tap-off in series, R at 20 °C scaled to the
// temperature that the basis asks for.

#include "core/solve/Results.h"

namespace lintel {

struct CircuitStart {
    const FaultPoint& fault;
    double drop = 0; ///< % from the source
    bool dropKnown = true;
};
CircuitStart startOf(const Results& results, BoardId board);
CircuitStart startOf(const Results& results, const Circuit& circuit);

/// Whether the maker's figures of its bars are entered, all that drop and three-phase faults need.
constexpr bool barsKnown(const Board& b) { return b.barR20 > 0 && b.barR > 0 && b.barX > 0; }
/// m from its fed end at which a tap-off counts for drop: where it stands, else the far end.
inline double placeAlong(const Board& busway, const Circuit& tap) { return tap.along.value_or(busway.barLength); }
/// Ω of `metres` of one line: as cold as the largest fault finds it, and at its rated current.
Complex barOhmsCold(const Board& busway, double metres, double celsius);
Complex barOhmsWarm(const Board& busway, double metres);

} // namespace lintel
