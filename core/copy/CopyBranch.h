#pragma once
// A part of the distribution again, with all that hangs on it.

#include "core/base/Error.h"
#include "core/project/Project.h"

namespace lintel {

/// A board or transformer and everything that is fed from it, again, under the next free names, fed from `under` (a
/// board, transformer or source). Circuits, listed loads, runs, held sizes and devices come along as copyBoard takes
/// them; feeders within the copy feed the copies. What takes over from outside takes over the copies too, where it can.
/// An error where `under` cannot feed it; the project is as it was then.
Outcome<Ref> copyBranch(Project& project, Ref node, Ref under);

/// How many boards and transformers a copy of it makes.
int branchSize(const Project& project, Ref node);

} // namespace lintel
