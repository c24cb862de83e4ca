#include "app/frame/Application.h"

#include "app/frame/PaintKit.h"

#include <QComboBox>
#include <QLabel>

#include <new>

namespace lintel {

namespace {
/// A label shows what it is given as it was typed; one that holds our own tags says so itself (asRich). A tip does,
/// too.
void showAsTyped(QObject* receiver, QEvent* event) {
    if (event->type() == QEvent::Polish) {
        if (auto* label = qobject_cast<QLabel*>(receiver);
            label && label->textFormat() == Qt::AutoText && label->objectName() != "qtooltip_label")
            label->setTextFormat(Qt::PlainText);
    } else if (event->type() == QEvent::ToolTip) {
        if (auto* w = qobject_cast<QWidget*>(receiver);
            w && Qt::mightBeRichText(w->toolTip()) && !w->toolTip().startsWith(plainTipStart))
            w->setToolTip(plainTip(w->toolTip()));
    }
}
} // namespace

Application::Application(int& argc, char** argv) : QApplication(argc, argv) { installEventFilter(this); }

bool Application::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::Wheel || !qobject_cast<QComboBox*>(watched)) return false;
    event->ignore(); // goes on to what it stands in
    return true;
}

bool Application::notify(QObject* receiver, QEvent* event) {
    try {
        showAsTyped(receiver, event);
        return QApplication::notify(receiver, event);
    } catch (const std::bad_alloc&) {
        Q_EMIT failed(tr("there is not enough memory for it"));
    } catch (const std::exception& e) {
        Q_EMIT failed(QString::fromUtf8(e.what()));
    }
    return true;
}

} // namespace lintel
