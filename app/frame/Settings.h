#pragma once
// What the program keeps for a person beside any project: one file in the state folder.

#include <QSettings>

namespace lintel {

QSettings settings();

} // namespace lintel
