#pragma once
// Levelling a board: the arrangement of its circuits that spreads its load most evenly over the phases, for every
// number of moves. A move is a circuit that ends in another slot; a swap is two. Pinned circuits, reserved places and
// three-pole devices stay; tied breakers, multiwire circuits and kept pairs stay beside one another; load kinds that
// belong to the left stay there.

#include "core/solve/Results.h"

#include <functional>

namespace lintel {

struct Arrangement {
    std::vector<std::pair<CircuitId, int>> places; ///< circuits that move, and their new slots
    std::array<double, 3> phaseVa{};               ///< as it will be
    double spread = 0;                             ///< max − min, VA
    double imbalance = 0;                          ///< %
    bool proven = false;                           ///< nothing better exists with as many moves
};

struct LevelChoices {
    /// [k]: the best with at most k moves; the first is as it stands, the last the best there is with the fewest moves.
    std::vector<Arrangement> byMoves;
    double bound = 0; ///< VA; no arrangement whatever has a smaller spread
    bool cancelled = false;
    const Arrangement& best() const { return byMoves.back(); }
    /// How far the best is from the bound, % of the load of one phase.
    double gap() const;
};

/// `effort`: how many positions may be looked at, so that the same input always gives the same answer. `cancelled` is
/// asked now and then; what was found until then comes back.
inline constexpr long levelEffort = 140'000;
LevelChoices levelBoard(const Project& project, const Results& results, BoardId board, long effort = levelEffort,
                        const std::function<bool()>& cancelled = {});

/// The best that a shift or a swap of two does, quickly; no places when none helps.
Arrangement levelByOneStep(const Project& project, const Results& results, BoardId board);

/// Brings circuits of the kinds that belong to the left, and stand on the right, to the left, each against another
/// circuit or a free place on its own lines: the phases stay as they are. Pinned, tied, shared and kept ones stay; no
/// places where none moves.
Arrangement levelSides(const Project& project, const Results& results, BoardId board);

/// What these places come to: for showing the effect of a move before it is made. Circuits that come from another board
/// count.
Arrangement arrangementOf(const Project& project, const Results& results, BoardId board,
                          std::vector<std::pair<CircuitId, int>> places);
/// As it stands, with no places.
Arrangement asItStands(const Project& project, const Results& results, BoardId board);

void applyArrangement(Project& project, const Arrangement& arrangement);

/// Boards under one feeder, levelled as one by turning the phases that each of them hangs on; their circuits stay.
struct Turning {
    std::vector<std::pair<BoardId, int>> turns; ///< boards that change, and their new Board::turned
    std::array<double, 3> phaseVa{};
    double spread = 0, imbalance = 0;
    bool proven = false;
};
struct TurningChoices {
    std::vector<Turning> byBoards; ///< [k]: the best with at most k boards turned
    int boards = 0;                ///< that could be turned
    double bound = 0;
};
/// `node`: a board, transformer or source. Boards fed by it through three poles, or through a transformer that feeds
/// them alone, are turned.
TurningChoices levelByTurning(const Project& project, const Results& results, Ref node);
void applyTurning(Project& project, const Turning& turning);

} // namespace lintel
