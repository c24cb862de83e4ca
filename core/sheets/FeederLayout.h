#pragma once
// Places boxes in rows and draws the feeders between them at right angles.
//
// What it promises, and what its test walks for a thousand random trees: every feeder is a line of its own from its own
// port to its own port; no two share a stretch or a corner; none runs through a box, or through the room that is kept
// for the words beside a port; where two cross, the level one hops. It knows nothing of electricity: widths, heights
// and floors come in, places go out. All lengths in mm, y down.

#include "core/base/Geometry.h"

#include <cstddef>
#include <vector>

namespace lintel {

/// What is to be placed.
struct FeederPlan {
    struct Box {
        double width = 30, height = 18; ///< the least; a box grows in width with its ports
        int floor = 0;                  ///< 0 is the highest; all 0 where floors do not matter
        double before = 0;              ///< kept free to its left, beside what there is by itself
    };
    /// Words have room at both ends: those of the device where it leaves, those of the run where it arrives.
    struct Feed {
        std::size_t from = 0, to = 0;
        double deviceWidth = 0, deviceHeight = 0;
        double labelWidth = 0, labelHeight = 0;
        bool second = false; ///< another way in, which does not say where `to` stands
        int lower = 0;       ///< tracks by which its level stretches stand lower than they would
    };
    std::vector<Box> boxes;
    std::vector<Feed> feeds; ///< what leaves a box leaves it in this order, as far as that costs no crossings
    /// How the boxes of one floor follow one another: a row for each step down; or what alone hangs on another stands
    /// beside it, joined by a level line at `sideHeight` below their tops; or that, and everything else in one row too.
    enum class Steps { Rows, Chains, OneRow };
    Steps steps = Steps::Rows;
    double sideHeight = 7;
    double widest = 1e9; ///< rows that are wider are split, where that helps
    /// Where no split makes it nearly as narrow: the rows with the least width and height together, not the narrowest.
    bool compact = false;
    double air = 0;       ///< added between two rows
    double gap = 8;       ///< between two boxes, at least
    double stretch = 1e9; ///< a box may grow so many times its own width, to stand over what it feeds
};

/// Where it all stands. Boxes and feeds are in the order of the plan.
struct FeederLayout {
    struct Box {
        double left = 0, top = 0, width = 0, height = 0;
        std::size_t row = 0;
    };
    struct Feed {
        std::vector<Point> line; ///< from port to port, level and upright stretches in turn
        std::vector<Point> hops; ///< on its level stretches: an upright one of another feeder passes here
        bool leavesUpward = false, arrivesFromBelow = false;
        bool sideways = false; ///< from the right edge of its box to the left edge of the next
        double labelRoom = 0;  ///< mm beside its end that no other line enters
    };
    /// Boxes side by side, with the lines above and below them.
    struct Row {
        int floor = 0;
        double top = 0, bottom = 0; ///< of the strip; the next row's begins where this ends
    };
    std::vector<Box> boxes;
    std::vector<Feed> feeds;
    std::vector<Row> rows;
    double width = 0, height = 0;
};

inline constexpr double feederTrack = 3.2; ///< mm between two level lines

/// Feeds whose ends are no boxes, or one and the same, have an empty line. Linear in boxes and rows crossed, but for
/// the lines that meet between two rows, which are compared with one another.
FeederLayout layOutFeeders(const FeederPlan& plan);
/// How wide it would be, told by a part of the work. What is more than twice as wide as wanted is told roughly.
double feederWidth(const FeederPlan& plan);

} // namespace lintel
