#pragma once
// How many places a board has: the sizes there are, changing it, and the smallest that holds what is in it.

#include "core/project/Project.h"

namespace lintel {

/// Usual numbers of slots, or of slots in whole ways of three, from smallest to largest. (Catalogue practice, not a
/// standard's.)
const std::vector<int>& boardSizes(BoardForm form);

/// A board of twelve ways of three lines each, as metric practice and busways begin.
void takeUsualWays(Board& board);

struct Resize {
    int slots = 0;
    BoardForm form = BoardForm::TwoColumn;
    std::vector<std::pair<CircuitId, int>> moved; ///< that no longer fit where they stood, and their new slots
    std::vector<CircuitId> left;                  ///< for which there is no place
};
/// What fits keeps its place; what does not goes to the first free place. Units stay whole.
Resize planResize(const Project& project, BoardId board, int slots, BoardForm form);
Resize planResize(const Project& project, BoardId board, int slots);
/// Circuits that are left over lose their slot and keep all else.
void applyResize(Project& project, BoardId board, const Resize& resize);

/// The smallest usual size that holds all its circuits with its reserved share free; 0: none does.
int smallestSize(const Project& project, BoardId board);
/// Places that circuits take, and that are to stay free by the reserved share of `slots`.
int placesTaken(const Project& project, BoardId board);
int placesReserved(const Board& board, int slots);

/// How full each section of a board is; the whole of it as one where it has none.
struct SectionSpace {
    SectionId section; ///< none: the whole board, or what lies in no section
    std::string name;
    int from = 1, to = 1;
    int taken = 0, largestGap = 0; ///< largestGap: the most poles that still fit beside one another
    int places() const { return to - from + 1; }
    int left() const { return places() - taken; }
};
std::vector<SectionSpace> spaceBySection(const Project& project, BoardId board);

} // namespace lintel
