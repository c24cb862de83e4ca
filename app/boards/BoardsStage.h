#pragma once
// Boards: the tray of unfed loads and the tree of boards on the left, the board in the middle, its load tally below.

#include "app/boards/BoardView.h"

class QLabel;
class QListWidget;
class QTreeWidget;
class QPushButton;

namespace lintel {

class Tally;
class BoardTree;

class BoardsStage : public QWidget {
    Q_OBJECT
public:
    explicit BoardsStage(Session& session, QWidget* parent = nullptr);
    BoardView& board() { return *view; }
    QTreeWidget* tree();
    QListWidget* tray() { return unfed; }
    /// The choices of levelling for the board shown, as the menu offers them.
    void openLevelMenu();

Q_SIGNALS:
    void scheduleWanted(BoardId board);

private:
    void rebuild();
    /// The board in the middle; the lists at the left stay, so that a press on one of them can become a drag.
    void showBoard();
    void followSelection();
    void feedFirstFree(Ref thing);
    Session& session;
    QListWidget* unfed;
    BoardTree* boards;
    QLabel *title, *about, *unfedCount;
    BoardView* view;
    Tally* tally;
    BoardId current;
};

} // namespace lintel
