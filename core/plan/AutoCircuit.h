#pragma once
// Automatic circuiting: devices that have no circuit are put on the boards of their catchment, near ones together,
// within limits.

#include "core/project/Project.h"
#include "core/rules/RuleBook.h"

namespace lintel {

struct CircuitingReport {
    int devices = 0, circuits = 0; ///< put on circuits; circuits made
    int remade = 0;                ///< automatic circuits that were taken apart first, since they are not pinned
    std::vector<BoardId> boards;   ///< proposed where no catchment gives one
    struct Left {
        DeviceId device;
        std::string why;
    };
    std::vector<Left> left; ///< without a circuit still
    struct Share {
        BoardId board;
        int circuits = 0, devices = 0;
        double va = 0;
    };
    std::vector<Share> shares; ///< what each board got
};

/// The catchment that a point lies in: the smallest outline around it, else one that takes the whole level; nothing:
/// none.
CatchmentId catchmentAt(const Project& project, LevelId level, Point at);

/// Circuits what has none on the levels. Rules, in this order: the boards of the device's catchment that take its kind
/// of load (life safety only to those for it); a device above the basis' own-circuit current, or with more than one
/// pole, gets a circuit alone, and above the panelboard limit a switchboard, a motor a motor control centre first; so
/// does what shares a circuit with nothing else, a fire alarm; others are gathered by board and kind from the farthest
/// on to the next nearest, room by room, the luminaires of a switch leg together where a circuit takes them, up to the
/// share of the breaker and the number of points; one that is a third full ends before a step of more than 10 m. A full
/// board passes on to the next nearest. On a level without any catchment its panelboards take everything. With
/// `propose`, boards are put where a level has devices in no catchment, or no panelboard. The same project always gives
/// the same circuits. Automatic circuits of those levels that are not pinned are made anew; pinned ones, and all that a
/// hand has made, are not touched.
CircuitingReport circuitAutomatically(Project& project, const RuleBook& book, const std::vector<LevelId>& levels,
                                      bool propose = false);

/// A: the smallest breaker of a circuit of that kind, by use where the basis says one.
double smallestBreakerFor(const Basis& basis, LoadKind kind);

} // namespace lintel
