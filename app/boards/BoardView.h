#pragma once
// A board as an object: the bus in the middle, breakers to its left and right with number, rating, description, load, size
// and a bar of the load in its phase's place. Drag to shift or swap, with the effect shown before letting go; type to
// describe; double-click a breaker to rate it.

#include "app/frame/Session.h"
#include "core/level/Level.h"
#include "core/project/Operations.h"

#include <QPointer>
#include <QWidget>

class QLineEdit;

namespace lintel {

class BoardView : public QWidget {
    Q_OBJECT
public:
    explicit BoardView(Session& session, QWidget* parent = nullptr);
    void show(BoardId board);
    BoardId board() const { return shown; }
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {540, 200}; }

    /// The box of a slot on the widget: for tests and for dropping.
    QRectF slotBox(int slot) const;
    int slotAt(QPointF at) const;
    int selectedSlot() const { return cursor; }
    /// What letting go now would do, as shown; empty while nothing is dragged.
    QString effectText() const { return effect; }
    /// The kind of data that the tray drags in: the text of a Ref.
    static constexpr const char* mimeType = "application/x-lintel-thing";

    void startNameEdit(const QString& begin = {});
    void startBreakerEdit();

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void contextMenuEvent(QContextMenuEvent*) override;
    void dragEnterEvent(QDragEnterEvent*) override;
    void dragMoveEvent(QDragMoveEvent*) override;
    void dragLeaveEvent(QDragLeaveEvent*) override;
    void dropEvent(QDropEvent*) override;
    bool event(QEvent*) override;

private:
    struct Columns { QRectF number, breaker, name, va, size, loop, letter, bar; };
    const Board* data() const;
    int rows() const;
    double rowHeight() const;
    Columns columns(int slot) const;
    CircuitId circuitAt(int slot) const;
    void paintCircuit(QPainter& p, const Circuit& c, double mostVa);
    void moveCursor(int rowsDown, int sideways);
    void planDrop(int slot);
    void commitName(const QString& text, int slot);
    CircuitId ensureCircuit(Project& p, int slot) const;

    Session& session;
    BoardId shown;
    int cursor = 0;
    std::vector<CircuitId> map;
    QPointF pressed;
    CircuitId grabbed;
    bool dragging = false;
    int target = 0;
    MovePlan plan;
    QString effect;
    QPointer<QLineEdit> editor;
};

} // namespace lintel
