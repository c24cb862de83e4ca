#include "app/issue/SheetView.h"

#include "app/frame/Theme.h"

#include <QMouseEvent>
#include <QPainter>

namespace lintel {

void SheetView::setColumn(int column) {
    chosen = column;
    update();
}

const HeadingSpot* SheetView::headingAt(Point mm) const {
    for (const HeadingSpot& h : drawing().headings)
        if (mm.x >= h.left && mm.x <= h.right && mm.y >= h.top && mm.y <= h.bottom) return &h;
    return nullptr;
}

SheetView::Grip SheetView::gripAt(QPointF at) const {
    constexpr double reach = 4; // pixels
    const Point mm = toPaper(at);
    // The edge away from where the table begins belongs to the column, as its width is counted from there.
    for (const HeadingSpot& h : drawing().headings) {
        const QPointF free = toScreen({h.mirrored ? h.left : h.right, h.top});
        if (std::abs(at.x() - free.x()) <= reach && mm.y >= h.top && mm.y <= h.bottom) return {&h, true};
    }
    return {headingAt(mm), false};
}

double SheetView::dragged() const {
    const double mm = toPaper(now).x - toPaper(from).x;
    return held && held->mirrored ? -mm : mm;
}

void SheetView::mousePressEvent(QMouseEvent* e) {
    const Grip grip = e->button() == Qt::LeftButton ? gripAt(e->position()) : Grip{};
    if (!grip.heading) return DrawingView::mousePressEvent(e);
    held = *grip.heading;
    edge = grip.edge;
    moving = false;
    from = now = e->position();
}

void SheetView::mouseMoveEvent(QMouseEvent* e) {
    if (!held) {
        const Grip grip = e->buttons() ? Grip{} : gripAt(e->position());
        if (!grip.heading) return DrawingView::mouseMoveEvent(e);
        setCursor(grip.edge ? Qt::SplitHCursor : Qt::PointingHandCursor);
        return;
    }
    now = e->position();
    moving = moving || (now - from).manhattanLength() > 4;
    if (moving && !edge) setCursor(Qt::ClosedHandCursor);
    update();
}

void SheetView::mouseReleaseEvent(QMouseEvent* e) {
    if (!held) return DrawingView::mouseReleaseEvent(e);
    now = e->position();
    const HeadingSpot heading = *held;
    const double by = dragged();
    const HeadingSpot* onto = moving && !edge ? headingAt(toPaper(now)) : nullptr;
    const int to = onto ? int(onto->column) : -1;
    const bool wasEdge = edge, wasMoving = moving;
    held.reset();
    moving = false;
    unsetCursor();
    setColumn(int(heading.column));
    Q_EMIT columnChosen(heading.board, chosen);
    if (wasMoving && wasEdge) Q_EMIT columnWidened(heading.board, int(heading.column), by);
    if (to >= 0 && to != int(heading.column)) Q_EMIT columnMoved(heading.board, int(heading.column), to);
}

void SheetView::mouseDoubleClickEvent(QMouseEvent* e) {
    if (gripAt(e->position()).heading) return;
    const Point mm = toPaper(e->position());
    for (const HeadingSpot& h : drawing().headings) {
        if (mm.x < h.left || mm.x > h.right || mm.y < h.bottom) continue;
        for (const Hotspot& row : drawing().hotspots)
            if (row.thing.is<Circuit>() && mm.x >= row.left && mm.x <= row.right && mm.y >= row.top &&
                mm.y <= row.bottom) {
                const QRectF at(toScreen({h.left, row.top}), toScreen({h.right, row.bottom}));
                Q_EMIT cellWanted(row.thing.as<Circuit>(), int(h.column), at.toRect());
                return;
            }
    }
    DrawingView::mouseDoubleClickEvent(e);
}

void SheetView::paintEvent(QPaintEvent* e) {
    DrawingView::paintEvent(e);
    QPainter p(this);
    const Theme& t = theme();
    QColor wash = t.accent;
    wash.setAlpha(40);
    const auto box = [&](const HeadingSpot& h) {
        return QRectF(toScreen({h.left, h.top}), toScreen({h.right, h.bottom}));
    };
    for (const HeadingSpot& h : drawing().headings)
        if (int(h.column) == chosen) {
            p.fillRect(box(h), wash);
            p.setPen(QPen(t.accent, 1.6));
            p.drawRect(box(h));
        }
    if (!held || !moving) return;
    p.setPen(QPen(t.accent, 1.6, Qt::DashLine));
    if (edge) {
        p.drawLine(QPointF(now.x(), 0), QPointF(now.x(), height()));
        const double width = held->right - held->left + dragged();
        p.drawText(now + QPointF(8, -8), tr("%1 mm").arg(std::max(0.0, width), 0, 'f', 1));
    } else if (const HeadingSpot* onto = headingAt(toPaper(now)); onto && onto->column != held->column) {
        p.drawRect(box(*onto).adjusted(-2, -2, 2, 2));
        p.drawText(now + QPointF(12, -8), tr("put it here"));
    }
}

} // namespace lintel
