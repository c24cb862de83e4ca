#include "app/frame/AskAndWrite.h"

#include "app/frame/PaintKit.h"

#include <QFileDialog>

namespace lintel {

void askAndWrite(Session& session, QWidget* parent, const QString& title, const QString& suggested,
                 const QString& filter, const std::function<std::optional<Error>(const QString&)>& write) {
    const QString file = QFileDialog::getSaveFileName(parent, title, suggested, filter);
    if (file.isEmpty()) return;
    const auto bad = write(file);
    session.say(bad ? q(bad->text()) : QObject::tr("Written: %1").arg(file), bad.has_value());
}

} // namespace lintel
