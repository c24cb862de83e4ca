#pragma once
// Where things stand on the riser and the one-line among those that hang on the same: by their places on the board, or
// where somebody put them. Feeders stay true whatever is moved: an order and a gap go into the layout, never a place.

#include "core/project/Project.h"
#include "core/solve/Results.h"

namespace lintel {

/// Puts what was moved by hand where it belongs among those beside it.
void sortByPlaces(const Project& project, std::vector<Ref>& beside);
/// What somebody gave it; one that says nothing where nobody did.
RiserPlace placeByHand(const Project& project, Ref thing);

/// Those drawn below the same thing as `thing`, itself among them, in the order in which they are drawn; sources stand
/// beside sources. Empty: it is not drawn.
std::vector<Ref> drawnBeside(const Project& project, const Results& results, Ref thing);

/// One step to the left (−1) or right (1) among those beside it; false: it is the last there.
bool moveBeside(Project& project, const Results& results, Ref thing, int step);
/// Behind another that stands beside it; before all with nothing.
void placeBehind(Project& project, Ref thing, Ref after);
/// Between 0 and limits::riserGap.
void setGapBefore(Project& project, Ref thing, double mm);
/// Its feeder's level stretches so many steps lower than by themselves, and its feeder's words so many mm further from
/// it. Between 0 and limits::riserSteps and limits::riserLift.
void setLineLower(Project& project, Ref thing, int steps);
void setWordsLift(Project& project, Ref thing, double mm);
/// It stands where it would by itself; false: it did.
bool letPlaceGo(Project& project, Ref thing);

} // namespace lintel
