#pragma once
// What people call the commands of the window beside the names that they have: the find box knows both.

#include <QString>

namespace lintel {

/// Other words for the command of that name, by blanks; empty: it has none.
QString otherWordsOf(const QString& command);
/// The names of the commands that have such words.
QStringList commandsWithOtherWords();

} // namespace lintel
