#pragma once
// Boards: the tray of unfed loads and the tree of boards on the left, the board in the middle with what stands beside
// it (another board, or its schedule as it will print), its load tally below. Cards for levelling, sizes, names and
// changes of many take the tally's place; the list of all circuits and a list of loads that comes in take the board's.

#include "app/boards/BoardView.h"

class QComboBox;
class QLabel;
class QListWidget;
class QPushButton;
class QSplitter;
class QStackedWidget;
class QTreeWidget;
class QTreeWidgetItem;

namespace lintel {

class BoardPicker;
class BoardTree;
class CircuitsPage;
class DrawingView;
class GroupCard;
class ImportPage;
class LevelCard;
class NamesCard;
class ReportCard;
class SizeCard;
class Tally;

class BoardsStage : public QWidget {
    Q_OBJECT
public:
    enum class Beside { Nothing, Board, Schedule };
    explicit BoardsStage(Session& session, QWidget* parent = nullptr);
    BoardView& board() { return *view; }
    BoardView& other() { return *second; }
    /// The one of the two that the keyboard is in.
    BoardView& active() { return *inHand; }
    QTreeWidget* tree();
    QListWidget* tray() { return unfed; }
    LevelCard& level() { return *levelCard; }
    GroupCard& group() { return *groupCard; }
    SizeCard& size() { return *sizeCard; }
    NamesCard& names() { return *namesCard; }
    ReportCard& report() { return *reportCard; }
    CircuitsPage& circuits() { return *circuitsPage; }
    ImportPage& import() { return *importPage; }

    void openLevel();
    void openSize();
    void openNames();
    /// Loads with no circuit, circuits with no cable, boards that do not suit.
    void openReport();
    /// One fact of all chosen circuits, on whatever boards.
    void openGroup();
    void openCircuits();
    /// A list of loads; an empty file asks for one.
    void openImport(const QString& file);
    /// The same with a schedule of feeders.
    void openFeeders(const QString& file);
    void openModel(const QString& file);
    void setBeside(Beside what, BoardId which = {});
    Beside beside() const { return besideNow; }
    /// Whether it needs the place that the facts have on a small screen.
    bool wantsRoom() const;
    /// Circuits for all listed loads that have none.
    void circuitMissingLoads();
    void focusBoard();

Q_SIGNALS:
    void scheduleWanted(BoardId board);
    /// A building model was taken in: its plans are what one looks at next.
    void modelTaken();
    /// The place beside the board is taken, or free again.
    void besideChanged();

private:
    /// Takes in a file, or asks for one of these sorts where none is named.
    void takeIn(const QString& file, const QString& title, const QString& sorts,
                void (ImportPage::*open)(const QString&));
    static QString lists();
    /// The page of a list that is taken in, in place of the board.
    void showImport();
    void rebuild();
    /// The board in the middle; the lists at the left stay, so that a press on one of them can become a drag.
    void showBoard();
    void showSchedule();
    void followSelection();
    void feedFirstFree(Ref thing);
    void toBoardPage();
    void showCard(QWidget* card);
    Session& session;
    QListWidget* unfed;
    BoardTree* boards;
    QLabel *title, *about, *unfedCount;
    QWidget *leftSide = nullptr, *head, *besidePane;
    QStackedWidget *pages, *besidePages;
    QSplitter* split;
    QComboBox* besideBoard;
    BoardView *view, *second, *inHand;
    DrawingView* schedule;
    Tally* tally;
    LevelCard* levelCard;
    GroupCard* groupCard;
    SizeCard* sizeCard;
    NamesCard* namesCard;
    ReportCard* reportCard;
    CircuitsPage* circuitsPage;
    ImportPage* importPage;
    BoardPicker* picker;
    QPushButton* besideButton;
    struct TrayRow {
        QString ref, name, words;
        bool operator==(const TrayRow&) const = default;
    };
    std::vector<TrayRow> trayRows;
    std::vector<std::tuple<Ref, Ref, QString>> treeShape; ///< what the tree was built from: thing, above, name
    std::map<Ref, QTreeWidgetItem*> treeItems;
    QTreeWidgetItem* bold = nullptr;
    BoardId current, secondBoard;
    Beside besideNow = Beside::Nothing;
};

} // namespace lintel
