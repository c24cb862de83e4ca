#pragma once
// Find or do: one box for every object and every command (Ctrl+K).

#include "app/frame/Session.h"

#include <QLineEdit>
#include <QListWidget>

class QAction;

namespace lintel {

class FindBox : public QLineEdit {
    Q_OBJECT
public:
    explicit FindBox(Session& session, QWidget* parent = nullptr);
    /// Commands offered beside the objects of the project.
    void offer(const QList<QAction*>& actions) { commands = actions; }
    QListWidget* results() { return list; }

protected:
    void keyPressEvent(QKeyEvent*) override;
    void focusOutEvent(QFocusEvent*) override;
    void focusInEvent(QFocusEvent*) override;
    void paintEvent(QPaintEvent*) override;

private:
    void search();
    void take(QListWidgetItem* item);
    struct Match {
        int rank;
        QString text, about;
        Ref thing;
        QAction* action;
    };
    Session& session;
    QList<QAction*> commands;
    QListWidget* list;
    std::vector<Match> matches;
};

} // namespace lintel
