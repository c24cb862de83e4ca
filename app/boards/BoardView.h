#pragma once
// A board as an object: the bus in the middle, breakers to its left and right with number, rating, description, load,
// size and a bar of the load in its phase's place. Arrows go through the slots, Tab through the facts of a row, typing
// edits; drag to shift, swap or push, on this board or onto the one beside it, with the effect shown before letting go.

#include "app/frame/Session.h"
#include "core/level/Level.h"
#include "core/project/CircuitFacts.h"
#include "core/project/Operations.h"

#include <QPointer>
#include <QWidget>

class QLineEdit;
class QMenu;

namespace lintel {

class BoardView : public QWidget {
    Q_OBJECT
public:
    explicit BoardView(Session& session, QWidget* parent = nullptr);
    void show(BoardId board);
    BoardId board() const { return shown; }
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override;
    /// Where levelling would put circuits: shown until it is empty again.
    void propose(std::vector<std::pair<CircuitId, int>> places);
    const std::vector<std::pair<CircuitId, int>>& proposal() const { return proposed; }
    /// The view beside this one: circuits can be dragged onto it.
    void setPeer(BoardView* other) { peer = other; }

    /// The box of a slot on the widget: for tests and for dropping.
    QRectF slotBox(int slot) const;
    int slotAt(QPointF at) const;
    int selectedSlot() const { return cursor; }
    /// The fact of the row that typing edits, by its key.
    const char* fact() const;
    /// Goes to a slot, and to a fact of it.
    void goTo(int slot, const char* factKey = nullptr);
    /// The chosen circuits of this board by slot; the one at the cursor where none is chosen.
    std::vector<CircuitId> chosen() const;
    /// What letting go now would do, as shown; empty while nothing is dragged.
    QString effectText() const { return effect; }
    /// The kind of data that the tray drags in: the text of a Ref.
    static constexpr const char* mimeType = "application/x-lintel-thing";
    static constexpr const char* circuitsMime = "application/x-lintel-circuits";

    /// Opens the editor of a fact at the cursor; `begin`: what it holds at first, else what is entered now.
    void startEdit(const char* factKey, const QString& begin = {});

    // ---- commands, from keys and menus alike ----
    void insertRow();
    void duplicate();
    void nudge(int rows, int sideways); ///< shifts the chosen circuits, others making room
    void swapTwo();
    void pin();
    void tie();
    void makeSpare();
    void reserve();
    void removeChosen();
    void copyChosen();
    void cutChosen();
    void paste();
    void fillDownChosen();
    void selectAll();
    /// Moves the chosen circuits to the first free places of another board; feeders take what they feed along.
    void refeed(BoardId to);
    /// The commands with their keys, for the menu bar and the context menu.
    struct Command {
        const char* name;
        QString text;
        QKeySequence key;
        void (BoardView::*what)();
    };
    static const std::vector<Command>& commands();

Q_SIGNALS:
    /// A chooser of a board is wanted for the chosen circuits.
    void refeedWanted();
    void groupEditWanted();
    /// This view has the focus now.
    void entered();

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void focusInEvent(QFocusEvent*) override;
    void contextMenuEvent(QContextMenuEvent*) override;
    void dragEnterEvent(QDragEnterEvent*) override;
    void dragMoveEvent(QDragMoveEvent*) override;
    void dragLeaveEvent(QDragLeaveEvent*) override;
    void dropEvent(QDropEvent*) override;
    bool event(QEvent*) override;
    bool eventFilter(QObject*, QEvent*) override;

private:
    struct Columns {
        QRectF number, breaker, name, va, size, loop, letter, bar;
    };
    const Board* data() const;
    int rows() const;
    double rowHeight() const;
    Columns columns(int slot) const;
    QRectF factBox(int slot, const char* factKey) const;
    CircuitId circuitAt(int slot) const;
    bool isChosen(CircuitId c) const;
    void paintCircuit(QPainter& p, const Circuit& c, double mostVa);
    void paintGroups(QPainter& p);
    void paintPlan(QPainter& p);
    QRectF paintGhost(QPainter& p, CircuitId circuit, int slot, bool mine);
    void moveCursor(int rowsDown, int sideways, bool extend);
    void select(int slot, bool extend, bool toggle);
    void moveFact(int by);
    /// Scrolls as far as it takes to see the row at the cursor, and the one beside it.
    void revealCursor();
    /// Plans letting go at a slot of this board, of circuits that may come from the other one.
    void planDrop(const std::vector<CircuitId>& circuits, int slot);
    void endDrag();
    bool enter(const char* factKey, int slot, const QString& text);
    CircuitId ensureCircuit(Project& p, int slot) const;
    bool move(const QString& label, const MovePlan& plan);
    void become(const char* word, const QString& label);

    Session& session;
    BoardId shown;
    int cursor = 0, anchor = 0;
    std::size_t factIndex = 0;
    /// The fact from which one came through a row by Tab: Enter goes on from it in the next row.
    struct Began {
        int slot;
        std::size_t fact;
    };
    std::optional<Began> began;
    std::vector<CircuitId> map, here; ///< by slot; all circuits of the board
    QPointF pressed;
    CircuitId grabbed;
    bool dragging = false;
    int target = 0;
    std::vector<CircuitId> dragged;
    MovePlan plan;
    std::vector<std::pair<CircuitId, int>> proposed;
    QString effect;
    BoardView* peer = nullptr;
    QPointer<QLineEdit> editor;
};

} // namespace lintel
