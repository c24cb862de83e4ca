#pragma once
// Asks for a file, writes it, and says what became of it.

#include "app/frame/Session.h"

#include <functional>
#include <optional>

class QWidget;

namespace lintel {

/// `suggested`: a name, with its ending. `write` gets the file that was chosen; nothing happens where none is.
void askAndWrite(Session& session, QWidget* parent, const QString& title, const QString& suggested,
                 const QString& filter, const std::function<std::optional<Error>(const QString&)>& write);

} // namespace lintel
