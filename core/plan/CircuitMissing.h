#pragma once
// Circuits for listed loads that have none, and the report of what a list leaves open.

#include "core/solve/Results.h"

namespace lintel {

/// Gives listed loads without a circuit one on the board that they name, else where there is room for their poles and
/// volts: a circuit each, but small ones of one kind, place and board together, up to the basis' share of a breaker and
/// number of points.
struct Circuited {
    std::vector<CircuitId> circuits;
    int loads = 0;
    std::vector<std::string> left; ///< why some still have none
};
Circuited circuitMissing(Project& project, const RuleBook& book, std::vector<LoadId> loads = {});

/// Loads with no circuit, circuits with no cable or length, boards too small or far too large for what is in them.
struct LoadReport {
    std::vector<LoadId> unfed;
    std::vector<DeviceId> unfedDevices;
    std::vector<CircuitId> noCable; ///< carry a load, and no conductor can be given: no length, or none fits
    std::vector<std::pair<BoardId, std::string>> boards; ///< and why
    bool clean() const { return unfed.empty() && unfedDevices.empty() && noCable.empty() && boards.empty(); }
};
LoadReport reportLoads(const Project& project, const Results& results);
std::string reportText(const Project& project, const LoadReport& report);
/// Why a board is too small or too large for what is in it; empty: it suits.
std::string misfitOf(const Project& project, const Results& results, BoardId board);

} // namespace lintel
