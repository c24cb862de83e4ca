#pragma once
// A sheet on which the columns of a schedule can be taken hold of: a click on a heading chooses its column, dragging
// its edge makes it wider, dragging it onto another heading moves it there. While a sheet is composed, its views are
// taken hold of instead.

#include "app/frame/DrawingView.h"
#include "core/compose/SnapViews.h"

namespace lintel {

class SheetView : public DrawingView {
    Q_OBJECT
public:
    using DrawingView::DrawingView;
    /// The column whose headings are marked; -1: none.
    void setColumn(int column);
    int column() const { return chosen; }
    /// Of whose schedule they are, where several stand on the sheet.
    void setBoard(BoardId of);
    /// Views are chosen, moved and taken off from now on; `field`: where they may stand. Nothing: columns are again.
    /// `page`: which of the sheet is shown, from 0.
    void setComposing(std::optional<ViewField> field, std::size_t page = 0);
    bool composing() const { return field.has_value(); }

Q_SIGNALS:
    void columnChosen(BoardId board, int column);
    /// Its edge was dragged so far outwards, mm.
    void columnWidened(BoardId board, int column, double by);
    void columnMoved(BoardId board, int column, int to);
    /// The headings of a list were clicked.
    void listChosen(const QString& list);
    /// A cell was clicked twice; where it is on the view.
    void cellWanted(CircuitId circuit, int column, QRect at);
    /// It is to stand there, mm on that page of the sheet.
    void viewMoved(PlacedViewId view, Point at, std::size_t page);
    void takeOffWanted();
    /// Something from beside the sheet was dropped there, mm on that page of the sheet.
    void thingDropped(Point at, std::size_t page);
    /// A view cannot be moved, and why.
    void moveRefused(const QString& why);

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
    void dropEvent(QDropEvent*) override;

private:
    std::vector<ViewSpot> spots() const;            ///< of the views on the sheet
    std::optional<ViewSpot> spotAt(Point mm) const; ///< the one on top
    const ViewSpot* spotOf(const std::vector<ViewSpot>& all, PlacedViewId view) const;
    SnappedView dropPlace() const; ///< of the view in hand
    void nudge(Point by);
    static QString follows(); ///< why a further part of a view is not moved
    std::optional<ViewField> field;
    std::size_t shownPage = 0;
    std::optional<ViewSpot> inHand;
    /// A heading below the pointer, or whose free edge is there.
    struct Grip {
        const HeadingSpot* heading = nullptr;
        bool edge = false;
    };
    Grip gripAt(QPointF at) const;
    const HeadingSpot* headingAt(Point mm) const;
    const ListSpot* listAt(Point mm) const;
    double dragged() const; ///< mm that the edge in hand was dragged outwards
    int chosen = -1;
    BoardId board; ///< nothing: of any
    std::optional<HeadingSpot> held;
    bool edge = false, moving = false;
    QPointF from, now;
};

} // namespace lintel
