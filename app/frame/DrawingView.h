#pragma once
// Shows a Drawing as it is: zoom with the wheel, pan with the middle button or by dragging the paper, a click chooses.

#include "app/frame/Session.h"
#include "core/drawing/Drawing.h"

#include <QBasicTimer>
#include <QWidget>

namespace lintel {

class DrawingView : public QWidget {
    Q_OBJECT
public:
    explicit DrawingView(Session& session, QWidget* parent = nullptr);
    /// `asPrinted`: a white sheet with a shadow, else drawn straight on the stage in the theme's colours.
    void show(const Drawing& drawing, bool asPrinted);
    /// As large as the view, but not smaller than the least scale: what is larger then begins at its upper left corner.
    void fit();
    /// As wide as the view, from its top.
    void fitWidth();
    /// Pixels for a millimetre, below which a drawing is not fitted as a whole; 0: none.
    void setLeastScale(double pixels) { leastScale = pixels; }
    /// Moves the drawing so far that the thing is seen, where it is on it at all.
    void reveal(Ref thing);
    const Drawing& drawing() const { return shown; }
    /// What the thing in hand may be dropped on, and what not; and what the pointer says. Until it is let go.
    void setTargets(std::vector<Ref> allowed, std::vector<Ref> refused);
    void setPointerWords(const QString& words, bool refused);
    const QString& pointerText() const { return pointerWords; }
    /// Keys that were held when the mouse was last moved, pressed or let go.
    Qt::KeyboardModifiers keysHeld() const { return held; }
    /// Where a point of the drawing (mm) is on the widget.
    QPointF toScreen(Point mm) const;

protected:
    Point toPaper(QPointF at) const; ///< mm of the drawing
    Session& session() { return itsSession; }
    void noteKeys(Qt::KeyboardModifiers keys) { held = keys; }
    void paintEvent(QPaintEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void timerEvent(QTimerEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void contextMenuEvent(QContextMenuEvent*) override;

Q_SIGNALS:
    /// A menu is asked for at a thing, or at an empty place; where on the screen.
    void menuWanted(Ref thing, QPoint at);
    /// Something was dragged from one hotspot to another.
    void dropped(Ref what, Ref on);
    /// While it is dragged: when it begins (`over` is nothing), and each time the pointer comes to another thing.
    void dragging(Ref what, Ref over);
    /// It is dragged over an empty place, or dropped there.
    void draggingBeside(Ref what, Point mm);
    void droppedBeside(Ref what, Point mm);
    /// A grip is moved, so far down from where it was, or let go there.
    void gripMoving(const lintel::GripSpot& grip, double mm);
    void gripMoved(const lintel::GripSpot& grip, double mm);

private:
    /// Fitted, with what is chosen in sight where it is not seen as a whole.
    void fitInSight();
    Ref thingAt(QPointF at) const;
    /// Words before lines; null: there is none.
    const GripSpot* gripAt(QPointF at) const;
    void paintPointerWords(QPainter& p);
    double gripTravel() const { return (last.y() - pressed.y()) / scale; } ///< mm down
    /// How far the drawing moves each time while something is held at the edge of the view.
    QPointF pull() const;
    QBasicTimer pulling;
    Session& itsSession;
    Drawing shown;
    bool printed = false, fitted = true;
    double scale = 1, leastScale = 0;
    QPointF offset, pressed, last;
    Ref grabbed, over;
    std::optional<GripSpot> gripInHand;
    bool panning = false, moved = false;
    std::vector<Ref> mayTake, mayNot;
    QString pointerWords;
    bool pointerRefuses = false;
    Qt::KeyboardModifiers held;
};

} // namespace lintel
