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
/// Puts equipment in front of a board or transformer, or of what a circuit feeds; says so where it is neither.
void insertInFront(Session& session, Ref thing, BoardUse use);
/// Removes a board, transformer or source, and names what hangs free then.
void removeThing(Session& session, Ref thing);
/// Shows them at a place of the screen.
void showRiserMenu(Session& session, Ref thing, QPoint at, QWidget* parent);
/// Runs the command of a key; false where none has it.
bool runRiserKey(Session& session, Ref thing, QChar key);

} // namespace lintel
