#pragma once
// What the window shows while no project is open: begin from a starter, open, recent files, demos, and what a run that
// ended badly left to recover.

#include "app/frame/Session.h"

#include <QWidget>

class QVBoxLayout;

namespace lintel {

class StartPage : public QWidget {
    Q_OBJECT
public:
    explicit StartPage(Session& session, QWidget* parent = nullptr);
    void rebuild();

Q_SIGNALS:
    void openWanted();
    void benchWanted();
    void failed(const QString& why);

private:
    Session& session;
    QWidget* body = nullptr;
};

} // namespace lintel
