#pragma once
// The program itself. No exception leaves an event handler: it becomes a message, the project stays as it was before
// the edit, and what was done until then is in the journal.

#include <QApplication>

namespace lintel {

class Application : public QApplication {
    Q_OBJECT
public:
    Application(int& argc, char** argv);
    bool notify(QObject* receiver, QEvent* event) override;
    /// The wheel scrolls the page, whatever stands under the pointer: it chooses nothing in a closed list of choices.
    bool eventFilter(QObject* watched, QEvent* event) override;

Q_SIGNALS:
    /// Something threw while an event was dealt with; `what` says it in words.
    void failed(const QString& what);
};

} // namespace lintel
