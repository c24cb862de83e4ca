#include "app/frame/DrawingView.h"

#include "app/frame/PaintKit.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>

#include <map>

namespace lintel {

DrawingView::DrawingView(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    connect(&session, &Session::selectionChanged, this, [this] {
        const auto chosen = session.selectionList();
        if (!chosen.empty()) reveal(chosen.front());
        update();
    });
}

void DrawingView::show(const Drawing& d, bool asPrinted) {
    const bool other = d.title != shown.title || d.width != shown.width || d.height != shown.height;
    shown = d;
    printed = asPrinted;
    if (other || fitted) {
        fit();
        const auto chosen = session.selectionList();
        if (leastScale > 0 && !chosen.empty()) reveal(chosen.front());
    }
    update();
}

void DrawingView::reveal(Ref thing) {
    for (auto h = shown.hotspots.rbegin(); h != shown.hotspots.rend(); ++h) {
        if (h->thing != thing) continue;
        const QRectF at(toScreen({h->left, h->top}), toScreen({h->right, h->bottom}));
        const QRectF seen = QRectF(rect()).adjusted(24, 24, -24, -24);
        if (!at.isValid() || seen.contains(at) || seen.width() < at.width() || seen.height() < at.height()) return;
        if (at.left() < seen.left() || at.right() > seen.right()) offset.rx() += seen.center().x() - at.center().x();
        if (at.top() < seen.top() || at.bottom() > seen.bottom()) offset.ry() += seen.center().y() - at.center().y();
        update();
        return;
    }
}

void DrawingView::keyPressEvent(QKeyEvent* e) {
    const double page = height() * 0.8, line = 60;
    const std::map<int, QPointF> steps{{Qt::Key_PageDown, {0, -page}}, {Qt::Key_PageUp, {0, page}}, {Qt::Key_Down, {0, -line}}, {Qt::Key_Up, {0, line}}, {Qt::Key_Left, {line, 0}}, {Qt::Key_Right, {-line, 0}}};
    const auto step = steps.find(e->key());
    if (step == steps.end() || e->modifiers() != Qt::NoModifier) return QWidget::keyPressEvent(e);
    // Never further than where the last of the drawing is still seen.
    const double right = shown.width * scale, bottom = shown.height * scale, edge = 60;
    offset += step->second;
    offset.rx() = std::clamp(offset.x(), std::min(edge, edge - right), width() - edge);
    offset.ry() = std::clamp(offset.y(), std::min(edge, edge - bottom), height() - edge);
    update();
}

void DrawingView::fit() {
    const double m = printed ? 18 : 4;
    const double whole = std::min((width() - 2 * m) / shown.width, (height() - 2 * m) / shown.height);
    scale = std::max({0.05, whole, leastScale});
    offset = QPointF(std::max(m, (width() - shown.width * scale) / 2), std::max(m, (height() - shown.height * scale) / 2));
    if (leastScale <= 0) offset = QPointF((width() - shown.width * scale) / 2, (height() - shown.height * scale) / 2);
    fitted = true;
    update();
}

QPointF DrawingView::toScreen(Point mm) const { return QPointF(mm.x, mm.y) * scale + offset; }
void DrawingView::resizeEvent(QResizeEvent*) {
    if (fitted) fit();
}

void DrawingView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Theme& t = theme();
    p.fillRect(rect(), printed ? t.sunk : t.surface);
    p.save();
    p.translate(offset);
    p.scale(scale, scale);
    if (printed) {
        p.fillRect(QRectF(0.8, 0.8, shown.width, shown.height), QColor(0, 0, 0, 28));
        p.fillRect(QRectF(0, 0, shown.width, shown.height), Qt::white);
    }
    const auto around = [&](Ref thing, const QColor& colour) {
        QColor wash = colour;
        wash.setAlpha(46);
        for (const Hotspot& h : shown.hotspots)
            if (h.thing == thing) p.fillRect(QRectF(h.left - 0.8, h.top - 0.8, h.right - h.left + 1.6, h.bottom - h.top + 1.6), wash);
    };
    paint(p, shown, printed ? paperPalette() : t.palette());
    for (Ref r : session.selectionList()) { // over the drawing: what it fills would hide it
        around(r, t.accent);
        for (auto h = shown.hotspots.rbegin(); h != shown.hotspots.rend(); ++h) {
            if (h->thing != r) continue;
            QPen outline(t.accent, 2);
            outline.setCosmetic(true);
            p.setPen(outline);
            p.setBrush(Qt::NoBrush);
            p.drawRect(QRectF(h->left - 0.8, h->top - 0.8, h->right - h->left + 1.6, h->bottom - h->top + 1.6));
            break;
        }
    }
    if (grabbed && moved) {
        around(grabbed, t.accent);
        if (over && over != grabbed) around(over, t.check);
    }
    p.restore();
    if (grabbed && moved) {
        p.setPen(QPen(t.accent, 1.6, Qt::DashLine));
        p.drawLine(pressed, last);
    }
}

Ref DrawingView::thingAt(QPointF at) const {
    const QPointF mm = (at - offset) / scale;
    Ref found;
    double least = 1e18;
    for (const Hotspot& h : shown.hotspots) {
        const double area = (h.right - h.left) * (h.bottom - h.top);
        if (mm.x() >= h.left && mm.x() <= h.right && mm.y() >= h.top && mm.y() <= h.bottom && area < least) found = h.thing, least = area;
    }
    return found;
}

void DrawingView::wheelEvent(QWheelEvent* e) {
    const double k = std::pow(1.0015, e->angleDelta().y());
    const double next = std::clamp(scale * k, 0.2, 60.0);
    offset = e->position() - (e->position() - offset) * (next / scale);
    scale = next;
    fitted = false;
    update();
}

void DrawingView::mousePressEvent(QMouseEvent* e) {
    pressed = last = e->position();
    moved = false;
    grabbed = e->button() == Qt::LeftButton ? thingAt(e->position()) : Ref();
    panning = !grabbed;
    if (e->button() == Qt::LeftButton) session.select(grabbed);
}
void DrawingView::mouseMoveEvent(QMouseEvent* e) {
    if (!(e->buttons() & (Qt::LeftButton | Qt::MiddleButton))) {
        setCursor(thingAt(e->position()) ? Qt::PointingHandCursor : Qt::ArrowCursor);
        return;
    }
    if ((e->position() - pressed).manhattanLength() > 5) moved = true;
    if (panning) {
        offset += e->position() - last;
        fitted = false;
    } else {
        over = thingAt(e->position());
    }
    last = e->position();
    update();
}
void DrawingView::mouseReleaseEvent(QMouseEvent* e) {
    if (grabbed && moved) {
        const Ref on = thingAt(e->position());
        if (on && on != grabbed) Q_EMIT dropped(grabbed, on);
    }
    grabbed = over = {};
    moved = panning = false;
    update();
}
void DrawingView::mouseDoubleClickEvent(QMouseEvent*) { fit(); }

} // namespace lintel
