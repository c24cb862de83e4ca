#pragma once
// What a tester reads at the end of a metric run: resistances of cold conductors, and how large the loop may then be.

#include "core/solve/Results.h"

namespace lintel {

/// The share of a tabulated limit of Zs that a reading with cold conductors may reach, so that it holds when they are
/// warm: the usual rule of thumb (BS 7671, Appendix 3).
inline constexpr double testerShare = 0.8;

struct TesterReadings {
    bool known = false;
    double r1 = 0,
           r2 = 0; ///< Ω/m of one line and of the protective conductor at 20 °C, all sets together; armour counts in r2
    double together = 0; ///< Ω, R1 + R2 at the far end at 20 °C; on a ring a quarter of what both loops have
    double zsMost = 0;   ///< Ω, the most that Zs may read; 0: a residual-current device opens it, or nothing is said
};

/// Nothing is known of a run without length, size or protective conductor.
TesterReadings testerReadings(const RunResult& run, const RuleBook& book);

} // namespace lintel
