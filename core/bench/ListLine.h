#pragma once
// One line of a list of the bench, read by the one reader of quantities: "2 × water heater 4,500 W", "1 × 7-1/2 hp
// wound", "4 × 250 kcmil", "4 3/0 AWG THHN".

#include "core/bench/BenchInputs.h"

namespace lintel {

struct LoadLine {
    double count = 1;
    std::string name; ///< what stands before the amount; empty: nothing does
    BenchLoad load;
    std::string after; ///< what stands behind it, "wound", "continuous", "on L2"
};
/// Nothing where no amount with a unit of load stands in it, or the count is no whole number from 1 to 999 999.
std::optional<LoadLine> readLoadLine(const std::string& line);

struct ConductorLine {
    int count = 0;
    std::string size;       ///< as the rule book names it, without # and unit: "12", "3/0", "250"
    std::string insulation; ///< empty: not said
};
/// Nothing where it is no number of conductors and a size.
std::optional<ConductorLine> readConductorLine(const std::string& line);

} // namespace lintel
