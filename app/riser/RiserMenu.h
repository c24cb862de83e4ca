#pragma once
// What can be done to a thing of the distribution where it is drawn: hang something below it, put something in front of
// it, let something take it over, take it out. One list for the menu and for the keys.

#include "app/frame/Session.h"

#include <QPoint>

class QWidget;

namespace lintel {

/// One thing that can be done. `refused`: why not here; empty: it can be done.
struct RiserCommand {
    QString text, group, refused;
    QChar key; ///< null: none
    std::function<void(Session&)> run;
};

/// All commands for a thing; with nothing, those for an empty place. `keysOnly`: those that have a key are enough.
std::vector<RiserCommand> riserCommands(const Session& session, Ref thing, bool keysOnly = false);
/// Whether a line of its own comes to it on the riser.
bool hasFeeder(const Session& session, Ref thing);
/// Puts equipment in front of a board or transformer, or of what a circuit feeds; says so where it is neither.
void insertInFront(Session& session, Ref thing, BoardUse use);
/// Removes a board, transformer or source, and names what hangs free then.
void removeThing(Session& session, Ref thing);
/// Keeps a board or transformer with all below it for pasteBranch; of this window only.
void copyBranchOf(Session& session, Ref thing);
/// Makes a copy of what was kept, fed from `under`.
void pasteBranch(Session& session, Ref under);
/// Copies `thing` with all below it, fed from `under`.
void copyBranchUnder(Session& session, Ref thing, Ref under);
/// One step along those beside it (−1 to the left), or so many mm more before it.
void moveOnRiser(Session& session, Ref thing, int step);
void widenOnRiser(Session& session, Ref thing, double mm);
inline constexpr double gapStep = 10; ///< mm, at a time
/// The bend of its feeder so many steps lower, or the words of its feeder so many mm further from it.
void lowerLine(Session& session, Ref thing, int steps);
void liftWords(Session& session, Ref thing, double mm);
inline constexpr double liftStep = 4; ///< mm, at a time
/// Behind another that stands beside it; before all with nothing.
void placeOnRiser(Session& session, Ref thing, Ref behind);

/// Shows them at a place of the screen.
void showRiserMenu(Session& session, Ref thing, QPoint at, QWidget* parent);
/// Runs the command of a key; false where none has it.
bool runRiserKey(Session& session, Ref thing, QChar key);

} // namespace lintel
