#include "app/frame/DrawingView.h"

#include "app/frame/PaintKit.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>

#include <map>
#include <set>

namespace lintel {

DrawingView::DrawingView(Session& s, QWidget* parent) : QWidget(parent), itsSession(s) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    connect(&itsSession, &Session::selectionChanged, this, [this] {
        const auto chosen = itsSession.selectionList();
        if (!chosen.empty()) reveal(chosen.front());
        update();
    });
}

void DrawingView::show(const Drawing& d, bool asPrinted) {
    const bool otherSheet = d.number.empty() ? d.title != shown.title : d.number != shown.number;
    const bool other = otherSheet || d.width != shown.width || d.height != shown.height;
    shown = d;
    printed = asPrinted;
    if (other || fitted) fitInSight();
    update();
}

void DrawingView::fitInSight() {
    fit();
    const auto chosen = itsSession.selectionList();
    if (leastScale > 0 && !chosen.empty()) reveal(chosen.front());
}

void DrawingView::reveal(Ref thing) {
    const auto h = std::find_if(shown.hotspots.rbegin(), shown.hotspots.rend(),
                                [&](const Hotspot& x) { return x.thing == thing; });
    if (h == shown.hotspots.rend()) return;
    const QRectF at(toScreen({h->left, h->top}), toScreen({h->right, h->bottom}));
    const QRectF seen = QRectF(rect()).adjusted(24, 24, -24, -24);
    if (!at.isValid() || seen.contains(at)) return;
    const auto into = [](double low, double high, double least, double most) {
        if (high - low > most - least) return low > most || high < least ? least - low : 0.0; // its beginning
        return low < least ? least - low : high > most ? most - high : 0.0;
    };
    offset += QPointF(into(at.left(), at.right(), seen.left(), seen.right()),
                      into(at.top(), at.bottom(), seen.top(), seen.bottom()));
    update();
}

void DrawingView::keyPressEvent(QKeyEvent* e) {
    const double page = height() * 0.8, line = 60;
    const std::map<int, QPointF> steps{{Qt::Key_PageDown, {0, -page}}, {Qt::Key_PageUp, {0, page}},
                                       {Qt::Key_Down, {0, -line}},     {Qt::Key_Up, {0, line}},
                                       {Qt::Key_Left, {line, 0}},      {Qt::Key_Right, {-line, 0}}};
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
    offset = QPointF((width() - shown.width * scale) / 2, (height() - shown.height * scale) / 2);
    if (leastScale > 0) offset = QPointF(std::max(m, offset.x()), std::max(m, offset.y()));
    fitted = true;
    update();
}

void DrawingView::fitWidth() {
    const double m = printed ? 18 : 4;
    scale = std::max(0.05, (width() - 2 * m) / shown.width);
    offset = QPointF(m, m);
    fitted = false;
    update();
}

QPointF DrawingView::toScreen(Point mm) const { return QPointF(mm.x, mm.y) * scale + offset; }
Point DrawingView::toPaper(QPointF at) const {
    const QPointF mm = (at - offset) / scale;
    return {mm.x(), mm.y()};
}
void DrawingView::resizeEvent(QResizeEvent*) {
    if (fitted) fitInSight();
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
            if (h.thing == thing)
                p.fillRect(QRectF(h.left - 0.8, h.top - 0.8, h.right - h.left + 1.6, h.bottom - h.top + 1.6), wash);
    };
    paint(p, shown, printed ? paperPalette() : t.palette());
    // Round the things' own places, which come last among their hotspots.
    const auto outline = [&](const std::vector<Ref>& things, const QColor& colour, Qt::PenStyle style, double width,
                             double away) {
        QPen pen(colour, width, style);
        pen.setCosmetic(true);
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        std::set<Ref> wanted(things.begin(), things.end());
        for (auto h = shown.hotspots.rbegin(); h != shown.hotspots.rend(); ++h)
            if (wanted.erase(h->thing))
                p.drawRect(QRectF(h->left - away, h->top - away, h->right - h->left + 2 * away,
                                  h->bottom - h->top + 2 * away));
    };
    const auto chosen = itsSession.selectionList();
    for (Ref r : chosen)                              // over the drawing: what it fills would hide it
        if (!r.is<PlacedView>()) around(r, t.accent); // a view may be half of the sheet
    outline({chosen.begin(), chosen.end()}, t.accent, Qt::SolidLine, 2, 0.8);
    if (grabbed && moved) {
        around(grabbed, t.accent);
        // What can take it in a full line, what cannot in a broken one: the colours only help.
        outline(mayNot, t.quiet, Qt::DashLine, 1, 1);
        outline(mayTake, t.accent, Qt::SolidLine, 2, 1);
        if (over && over != grabbed) around(over, pointerRefuses ? t.stop : t.accent);
    }
    if (gripInHand && moved) { // where it would be, and from where it comes
        QPen pen(t.accent, 1.4);
        pen.setCosmetic(true);
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        p.drawRect(QRectF(gripInHand->left, gripInHand->top + gripTravel(), gripInHand->right - gripInHand->left,
                          gripInHand->bottom - gripInHand->top));
    }
    p.restore();
    if (gripInHand && moved) paintPointerWords(p);
    if (grabbed && moved) {
        p.setPen(QPen(t.accent, 1.6, Qt::DashLine));
        p.drawLine(pressed, last);
        paintPointerWords(p);
    }
}

void DrawingView::setTargets(std::vector<Ref> allowed, std::vector<Ref> refused) {
    mayTake = std::move(allowed);
    mayNot = std::move(refused);
    update();
}
void DrawingView::setPointerWords(const QString& words, bool refused) {
    pointerWords = words;
    pointerRefuses = refused;
    update();
}

void DrawingView::paintPointerWords(QPainter& p) {
    if (pointerWords.isEmpty()) return;
    const Theme& t = theme();
    const QRectF room(0, 0, std::min(360.0, width() - 40.0), 400);
    QRectF box = p.boundingRect(room, Qt::TextWordWrap, pointerWords).adjusted(-10, -8, 10, 8);
    box.moveTopLeft(last + QPointF(18, 18));
    if (box.right() > width() - 8) box.moveRight(last.x() - 12);
    if (box.bottom() > height() - 8) box.moveBottom(last.y() - 12);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(pointerRefuses ? t.stop : t.accent, 1.2));
    p.setBrush(t.surface);
    p.drawRoundedRect(box, 6, 6);
    p.setPen(pointerRefuses ? t.stop : t.ink);
    p.drawText(box.adjusted(10, 8, -10, -8), Qt::TextWordWrap, pointerWords);
}

Ref DrawingView::thingAt(QPointF at) const {
    const QPointF mm = (at - offset) / scale;
    Ref found;
    double least = 1e18;
    for (const Hotspot& h : shown.hotspots) {
        const double area = (h.right - h.left) * (h.bottom - h.top);
        if (mm.x() >= h.left && mm.x() <= h.right && mm.y() >= h.top && mm.y() <= h.bottom && area < least)
            found = h.thing, least = area;
    }
    return found;
}

const GripSpot* DrawingView::gripAt(QPointF at) const {
    const Point mm = toPaper(at);
    const GripSpot* found = nullptr;
    for (const GripSpot& g : shown.grips)
        if (mm.x >= g.left && mm.x <= g.right && mm.y >= g.top && mm.y <= g.bottom && (!found || g.part < found->part))
            found = &g;
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

void DrawingView::contextMenuEvent(QContextMenuEvent* e) {
    const bool byKey = e->reason() == QContextMenuEvent::Keyboard;
    const Ref thing = byKey ? itsSession.selection() : thingAt(e->pos());
    if (!byKey) itsSession.select(thing);
    Q_EMIT menuWanted(thing, e->globalPos());
}

void DrawingView::mousePressEvent(QMouseEvent* e) {
    held = e->modifiers();
    pressed = last = e->position();
    moved = false;
    grabbed = e->button() == Qt::LeftButton ? thingAt(e->position()) : Ref();
    gripInHand.reset();
    if (const GripSpot* g = e->button() == Qt::LeftButton ? gripAt(e->position()) : nullptr) {
        gripInHand = *g;
        grabbed = {};
        panning = false;
        itsSession.select(gripInHand->thing);
        return;
    }
    panning = !grabbed;
    if (e->button() == Qt::LeftButton) itsSession.select(grabbed);
}
void DrawingView::mouseMoveEvent(QMouseEvent* e) {
    held = e->modifiers();
    if (!(e->buttons() & (Qt::LeftButton | Qt::MiddleButton))) {
        setCursor(gripAt(e->position())    ? Qt::SizeVerCursor
                  : thingAt(e->position()) ? Qt::PointingHandCursor
                                           : Qt::ArrowCursor);
        return;
    }
    const bool begins = !moved && (e->position() - pressed).manhattanLength() > 5;
    if (begins) moved = true;
    if (gripInHand) {
        last = e->position();
        if (moved) Q_EMIT gripMoving(*gripInHand, gripTravel());
        return update();
    }
    if (begins && grabbed) Q_EMIT dragging(grabbed, {});
    if (panning) {
        offset += e->position() - last;
        fitted = false;
    } else {
        const Ref now = thingAt(e->position());
        const bool other = now != over;
        over = now;
        if (other && moved) Q_EMIT dragging(grabbed, over);
        if (grabbed && moved && !over) Q_EMIT draggingBeside(grabbed, toPaper(e->position()));
    }
    last = e->position();
    if (grabbed && moved && !pulling.isActive() && !pull().isNull()) pulling.start(30, this);
    update();
}
QPointF DrawingView::pull() const {
    constexpr double edge = 28, step = 14;
    QPointF by;
    if (last.x() < edge && offset.x() < edge) by.rx() = step;
    if (last.x() > width() - edge && offset.x() + shown.width * scale > width() - edge) by.rx() = -step;
    if (last.y() < edge && offset.y() < edge) by.ry() = step;
    if (last.y() > height() - edge && offset.y() + shown.height * scale > height() - edge) by.ry() = -step;
    return by;
}
void DrawingView::timerEvent(QTimerEvent*) {
    const QPointF by = pull();
    if (!grabbed || !moved || by.isNull()) return pulling.stop();
    offset += by;
    pressed += by; // the line goes on from the thing
    update();
}

void DrawingView::mouseReleaseEvent(QMouseEvent* e) {
    pulling.stop();
    held = e->modifiers();
    if (gripInHand) {
        const GripSpot let = *gripInHand;
        const bool far = moved;
        const double mm = gripTravel();
        gripInHand.reset();
        moved = false;
        pointerWords.clear();
        update();
        if (far) Q_EMIT gripMoved(let, mm);
        return;
    }
    const Ref what = grabbed, on = grabbed && moved ? thingAt(e->position()) : Ref();
    const bool beside = grabbed && moved && !on;
    grabbed = over = {};
    mayTake.clear();
    mayNot.clear();
    pointerWords.clear();
    if (on && on != what) Q_EMIT dropped(what, on);
    if (beside) Q_EMIT droppedBeside(what, toPaper(e->position()));
    moved = panning = false;
    update();
}
void DrawingView::mouseDoubleClickEvent(QMouseEvent*) { fit(); }

} // namespace lintel
