#pragma once
// Things that can each hang on the lines in a few ways, and the ways that leave the lines most even, for every number
// of moves. Circuits of a board, boards below a feeder and single-phase items of a maximum demand are all levelled by
// this.

#include <array>
#include <functional>
#include <vector>

namespace lintel {

/// Whole VA (or any other unit, whole) on each line.
using OnLines = std::array<long, 3>;

struct EvenItem {
    std::vector<OnLines> ways;              ///< what it puts on each line, in each way it may hang
    std::vector<std::array<int, 3>> places; ///< places it takes on each line, by way; empty: none
    int now = 0;                            ///< the way it hangs now
    int moves = 1;                          ///< what changing it counts for
    bool toNeutral = false;                 ///< its load is between lines and neutral
};

struct EvenTask {
    int lines = 3;                   ///< 2 or 3
    OnLines fixed{}, fixedNeutral{}; ///< of what stays; the part of it between line and neutral
    std::array<int, 3>
        room{}; ///< places on each line for the items, those they take now included; unused where items take none
    std::vector<EvenItem> items;
    /// Moves that these ways really take, or −1 where they cannot be placed; not set: the sum of the items' moves.
    std::function<int(const std::vector<int>& ways)> place;
    int slots = 0;           ///< that `place` looks through: a large board's placing counts as many positions
    long effort = 3'000'000; ///< positions that may be looked at: a count, so that the same input gives the same answer
    std::function<bool()> cancelled; ///< asked now and then
};

struct EvenChoice {
    std::vector<int> ways;
    long spread = 0; ///< max − min
    int moves = 0;
    double neutral = 0;  ///< of three lines, the size of the phasor of what is between line and neutral
    bool proven = false; ///< nothing has a smaller spread with so many moves allowed
};

struct EvenResult {
    /// [k]: the best with at most k moves, from 0 up to the fewest moves of the best there is. Never empty.
    std::vector<EvenChoice> byMoves;
    long bound = 0; ///< no choice whatever has a smaller spread
    bool cancelled = false;
    const EvenChoice& best() const { return byMoves.back(); }
};

/// Least spread first, then fewest moves, then least neutral. Exact search by depth and bound for few moves, the rest
/// found by improving from what was best so far and from a fresh start; `proven` says which are certain.
EvenResult evenOut(const EvenTask& task);

long spreadOf(const OnLines& sums, int lines);

} // namespace lintel
