#pragma once
// Choosing a board by typing a part of its name: where circuits could go, nearest fit first, with the places each has
// left.

#include "app/frame/Session.h"

#include <QFrame>

class QLineEdit;
class QListWidget;

namespace lintel {

class BoardPicker : public QFrame {
    Q_OBJECT
public:
    BoardPicker(Session& session, QWidget* parent);
    /// `then` is called with the board that is chosen; boards that cannot take `circuits` are shown with the reason.
    void open(const QString& title, const std::vector<CircuitId>& circuits, BoardId without,
              std::function<void(BoardId)> then);

protected:
    void keyPressEvent(QKeyEvent*) override;
    bool eventFilter(QObject*, QEvent*) override;

private:
    void fill();
    void take();
    Session& session;
    QLineEdit* text;
    QListWidget* list;
    std::vector<CircuitId> circuits;
    BoardId without;
    std::function<void(BoardId)> then;
};

} // namespace lintel
