#pragma once
// Several things of a plan at once: copied, mirrored, set in rows.

#include "core/project/Project.h"

namespace lintel {

/// Devices and furniture once more, moved by `by`; devices without their circuits, tags and recipes. Gives the new
/// things.
std::vector<Ref> copyOnPlan(Project& project, const std::vector<Ref>& things, Point by, LevelId level = {});
/// Over an upright line (or a level one) through the middle of them all.
void mirrorOnPlan(Project& project, const std::vector<Ref>& things, bool upright);
/// Turned clockwise around the middle of them all.
void turnOnPlan(Project& project, const std::vector<Ref>& things, double degrees);
/// So many columns and rows, the given ones the first; steps in m. Gives the new things.
std::vector<Ref> arrayOnPlan(Project& project, const std::vector<Ref>& things, int columns, int rows, double stepX,
                             double stepY);
/// The middle of the box around them.
Point middleOf(const Project& project, const std::vector<Ref>& things);

/// Home runs of a board that begin within `reach` of one another go into one raceway: `most` circuits at most in each.
/// Circuits that are pinned to a bundle by hand keep it. With `shareNeutrals` the one-pole circuits of a bundle that
/// stand on different lines get one neutral between them (a multiwire group), those with ground-fault, arc-fault or
/// residual-current protection not. Gives the number of bundles made.
int bundleHomeRuns(Project& project, BoardId board, double reach = 3, int most = 3, bool shareNeutrals = false);

} // namespace lintel
