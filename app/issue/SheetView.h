#pragma once
// A sheet on which the columns of a schedule can be taken hold of: a click on a heading chooses its column, dragging
// its edge makes it wider, dragging it onto another heading moves it there.

#include "app/frame/DrawingView.h"

namespace lintel {

class SheetView : public DrawingView {
    Q_OBJECT
public:
    using DrawingView::DrawingView;
    /// The column whose headings are marked; -1: none.
    void setColumn(int column);
    int column() const { return chosen; }

Q_SIGNALS:
    void columnChosen(BoardId board, int column);
    /// Its edge was dragged so far outwards, mm.
    void columnWidened(BoardId board, int column, double by);
    void columnMoved(BoardId board, int column, int to);
    /// A cell was clicked twice; where it is on the view.
    void cellWanted(CircuitId circuit, int column, QRect at);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;

private:
    /// A heading below the pointer, or whose free edge is there.
    struct Grip {
        const HeadingSpot* heading = nullptr;
        bool edge = false;
    };
    Grip gripAt(QPointF at) const;
    const HeadingSpot* headingAt(Point mm) const;
    double dragged() const; ///< mm that the edge in hand was dragged outwards
    int chosen = -1;
    std::optional<HeadingSpot> held;
    bool edge = false, moving = false;
    QPointF from, now;
};

} // namespace lintel
