#include "app/issue/SheetView.h"

#include "app/frame/Theme.h"

#include <QDragEnterEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

namespace lintel {

void SheetView::setColumn(int column) {
    chosen = column;
    update();
}

void SheetView::setBoard(BoardId of) {
    board = of;
    update();
}

void SheetView::setComposing(std::optional<ViewField> within, std::size_t page) {
    field = within;
    shownPage = page;
    inHand.reset();
    setAcceptDrops(bool(within));
    unsetCursor();
    update();
}

std::vector<ViewSpot> SheetView::spots() const {
    std::vector<ViewSpot> out;
    for (const Hotspot& h : drawing().hotspots)
        if (h.thing.is<PlacedView>())
            out.push_back(
                {h.thing.as<PlacedView>(), std::size_t(h.part), 0, h.left, h.top, h.right - h.left, h.bottom - h.top});
    return out;
}

std::optional<ViewSpot> SheetView::spotAt(Point mm) const {
    std::optional<ViewSpot> found;
    for (const ViewSpot& s : spots()) // the last stands on top
        if (mm.x >= s.left && mm.x <= s.right() && mm.y >= s.top && mm.y <= s.bottom()) found = s;
    return found;
}

void SheetView::contextMenuEvent(QContextMenuEvent* e) {
    const auto under = field && e->reason() != QContextMenuEvent::Keyboard ? spotAt(toPaper(e->pos())) : std::nullopt;
    if (!under) return DrawingView::contextMenuEvent(e);
    session().select(under->view); // the view, not the row of it that lies there
    Q_EMIT menuWanted(under->view, e->globalPos());
}

const ViewSpot* SheetView::spotOf(const std::vector<ViewSpot>& all, PlacedViewId view) const {
    const auto it = std::find_if(all.begin(), all.end(), [&](const ViewSpot& s) { return s.view == view; });
    return it == all.end() ? nullptr : &*it;
}

SnappedView SheetView::dropPlace() const {
    ViewSpot spot = *inHand;
    const Point by = toPaper(now) - toPaper(from);
    spot.left += by.x;
    spot.top += by.y;
    const double pixel = toPaper({1, 0}).x - toPaper({0, 0}).x;
    const bool freely = keysHeld() & Qt::AltModifier;
    if (freely) return {{spot.left, spot.top}, {}};
    return snapView(spot, spots(), *field, 8 * pixel);
}

const HeadingSpot* SheetView::headingAt(Point mm) const {
    for (const HeadingSpot& h : drawing().headings)
        if (mm.x >= h.left && mm.x <= h.right && mm.y >= h.top && mm.y <= h.bottom) return &h;
    return nullptr;
}

const ListSpot* SheetView::listAt(Point mm) const {
    for (const ListSpot& l : drawing().lists)
        if (mm.x >= l.left && mm.x <= l.right && mm.y >= l.top && mm.y <= l.bottom) return &l;
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
    if (field && e->button() == Qt::LeftButton) {
        setFocus();
        if (const auto under = spotAt(toPaper(e->position()))) {
            session().select(under->view);
            inHand = under;
            moving = false;
            from = now = e->position();
            return;
        }
    }
    const Grip grip = e->button() == Qt::LeftButton ? gripAt(e->position()) : Grip{};
    if (const ListSpot* list = e->button() == Qt::LeftButton && !field ? listAt(toPaper(e->position())) : nullptr) {
        Q_EMIT listChosen(QString::fromStdString(list->list));
        return;
    }
    if (!grip.heading) return DrawingView::mousePressEvent(e);
    held = *grip.heading;
    edge = grip.edge;
    moving = false;
    from = now = e->position();
}

void SheetView::mouseMoveEvent(QMouseEvent* e) {
    if (inHand) {
        noteKeys(e->modifiers());
        now = e->position();
        if (!moving && (now - from).manhattanLength() > 5) {
            moving = true;
            if (inHand->part > 0) {
                inHand.reset();
                moving = false;
                Q_EMIT moveRefused(follows());
                return;
            }
            setCursor(Qt::ClosedHandCursor);
        }
        update();
        return;
    }
    if (!held) {
        const Grip grip = e->buttons() ? Grip{} : gripAt(e->position());
        if (!e->buttons() && !field && listAt(toPaper(e->position()))) return setCursor(Qt::PointingHandCursor);
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
    if (inHand) {
        noteKeys(e->modifiers());
        now = e->position();
        const PlacedViewId view = inHand->view;
        const Point at = dropPlace().at;
        const bool was = moving;
        inHand.reset();
        moving = false;
        unsetCursor();
        update();
        if (was) Q_EMIT viewMoved(view, at, shownPage);
        return;
    }
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

void SheetView::keyPressEvent(QKeyEvent* e) {
    const bool chosenOne = field && spotOf(spots(), session().selection().as<PlacedView>());
    if (!chosenOne) return DrawingView::keyPressEvent(e);
    const double step = e->modifiers() & Qt::ShiftModifier ? 1 : 5; // mm
    switch (e->key()) {
    case Qt::Key_Left:
        return nudge({-step, 0});
    case Qt::Key_Right:
        return nudge({step, 0});
    case Qt::Key_Up:
        return nudge({0, -step});
    case Qt::Key_Down:
        return nudge({0, step});
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
        Q_EMIT takeOffWanted();
        return;
    case Qt::Key_Escape:
        if (!inHand) break;
        inHand.reset();
        moving = false;
        unsetCursor();
        update();
        return;
    default:
        break;
    }
    DrawingView::keyPressEvent(e);
}

QString SheetView::follows() { return tr("This goes on from the first part of the view, and follows it."); }

void SheetView::nudge(Point by) {
    const auto all = spots();
    const ViewSpot* s = spotOf(all, session().selection().as<PlacedView>());
    if (s->part > 0)
        Q_EMIT moveRefused(follows());
    else
        Q_EMIT viewMoved(s->view, Point{s->left, s->top} + by, shownPage);
}

void SheetView::dragEnterEvent(QDragEnterEvent* e) {
    if (field && e->source()) e->acceptProposedAction();
}
void SheetView::dragMoveEvent(QDragMoveEvent* e) {
    if (field && e->source()) e->acceptProposedAction();
}
void SheetView::dropEvent(QDropEvent* e) {
    if (!field || !e->source()) return;
    e->acceptProposedAction();
    Q_EMIT thingDropped(toPaper(e->position()), shownPage);
}

void SheetView::mouseDoubleClickEvent(QMouseEvent* e) {
    if (field) return; // the zoom stays while views are taken hold of
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
        if (int(h.column) == chosen && (!board || h.board == board)) {
            p.fillRect(box(h), wash);
            p.setPen(QPen(t.accent, 1.6));
            p.drawRect(box(h));
        }
    if (inHand && moving) {
        const SnappedView to = dropPlace();
        p.setPen(QPen(t.accent, 1, Qt::DashLine));
        for (const SnapLine& l : to.lines) {
            const QPointF at = toScreen({l.at, l.at});
            l.upright ? p.drawLine(QPointF(at.x(), 0), QPointF(at.x(), height()))
                      : p.drawLine(QPointF(0, at.y()), QPointF(width(), at.y()));
        }
        const QRectF ghost(toScreen(to.at), toScreen(to.at + Point{inHand->width, inHand->height}));
        p.fillRect(ghost, wash);
        p.setPen(QPen(t.accent, 2));
        p.drawRect(ghost);
        return;
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
