#include "app/frame/Application.h"

#include <new>

namespace lintel {

bool Application::notify(QObject* receiver, QEvent* event) {
    try {
        return QApplication::notify(receiver, event);
    } catch (const std::bad_alloc&) {
        Q_EMIT failed(tr("there is not enough memory for it"));
    } catch (const std::exception& e) {
        Q_EMIT failed(QString::fromUtf8(e.what()));
    }
    return true;
}

} // namespace lintel
