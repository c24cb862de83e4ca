#include "app/plan/PlanView.h"

#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/plan/Measure.h"
#include "core/project/Operations.h"
#include "core/sheets/Words.h"
#include "core/solve/PhaseLoads.h"

#include <QBoxLayout>
#include <QComboBox>
#include <QFrame>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPushButton>

namespace lintel {

PlanView::PlanView(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setObjectName("planView");
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    card = new QFrame(this);
    card->setProperty("card", true);
    card->setObjectName("circuitCard");
    auto* column = new QVBoxLayout(card);
    column->setContentsMargins(12, 8, 12, 8);
    column->setSpacing(5);
    cardWhat = new QLabel(card);
    cardEffect = new QLabel(card);
    cardEffect->setProperty("quiet", true);
    cardEffect->setObjectName("circuitEffect");
    cardBoard = new QComboBox(card);
    cardBoard->setObjectName("circuitBoard");
    cardCircuit = new QComboBox(card);
    cardCircuit->setObjectName("circuitChoice");
    cardGo = new QPushButton(tr("Circuit  ↵"), card);
    cardGo->setObjectName("circuitGo");
    cardGo->setProperty("strong", true);
    auto* row = new QHBoxLayout;
    row->addWidget(cardBoard);
    row->addWidget(cardCircuit, 1);
    row->addWidget(cardGo);
    column->addWidget(cardWhat);
    column->addLayout(row);
    column->addWidget(cardEffect);
    card->hide();
    connect(cardBoard, &QComboBox::currentIndexChanged, this, [this] {
        const BoardId b{cardBoard->currentData().toUInt()};
        QSignalBlocker quiet(cardCircuit);
        cardCircuit->clear();
        cardCircuit->addItem(tr("new circuit"), 0u);
        std::vector<const Circuit*> list;
        for (const Circuit& c : session.project().circuits)
            if (c.board == b && c.use == CircuitUse::Load && !fedBy(session.project(), c.id)) list.push_back(&c);
        std::sort(list.begin(), list.end(), [](const Circuit* x, const Circuit* y) { return x->slot < y->slot; });
        for (const Circuit* c : list) cardCircuit->addItem(QString("%1  %2").arg(q(nameOf(session.project(), c->id)), q(c->name)), c->id.value);
        previewCard();
    });
    connect(cardCircuit, &QComboBox::currentIndexChanged, this, &PlanView::previewCard);
    connect(cardGo, &QPushButton::clicked, this, &PlanView::acceptCircuit);
    connect(&session, &Session::solved, this, &PlanView::redraw);
    connect(&session, &Session::selectionChanged, this, [this] { update(); });
    connect(&session, &Session::opened, this, [this] {
        floor = {};
        corners.clear();
        caught.clear();
        card->hide();
        for (const Level& l : session.project().levels) {
            const auto here = [&](const auto& table) { return std::any_of(table.begin(), table.end(), [&](const auto& x) { return x.level == l.id; }); };
            if (!floor || (here(session.project().walls) && !std::any_of(session.project().walls.begin(), session.project().walls.end(), [&](const Wall& w) { return w.level == floor; }))) floor = l.id;
        }
        fitted = true;
        redraw();
    });
}

void PlanView::setLevel(LevelId l) {
    floor = l;
    corners.clear();
    fitted = true;
    redraw();
}
void PlanView::setMode(PlanMode m) {
    doing = m;
    corners.clear();
    caught.clear();
    lasso = moving = false;
    card->hide();
    setCursor(m == PlanMode::Select ? Qt::ArrowCursor : Qt::CrossCursor);
    update();
    Q_EMIT modeChanged(m);
}
void PlanView::setPlacing(Placing p) {
    placing = p;
    setMode(PlanMode::Place);
}
void PlanView::setStyle(const PlanStyle& s) {
    look = s;
    redraw();
}

void PlanView::redraw() {
    const Solution& s = session.solution();
    if (!s.project.levels.has(floor)) floor = s.project.levels.empty() ? LevelId{} : s.project.levels.begin()->id;
    if (fitted) fit();
    // Marks and letters keep a size that can be read, whatever the zoom.
    PlanStyle style = look;
    style.symbolScale = std::clamp(38 / scale, 0.7, 2.2);
    style.textScale = std::clamp(45 / scale, 0.7, 2.6);
    drawn = planDrawing({s.project, *s.book, s.results}, floor, style);
    if (card->isVisible()) previewCard();
    update();
}

void PlanView::fit() {
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    const auto grow = [&](Point p) { left = std::min(left, p.x), right = std::max(right, p.x), top = std::min(top, p.y), bottom = std::max(bottom, p.y); };
    const Project& p = session.solution().project;
    for (const Wall& w : p.walls)
        if (w.level == floor) grow(w.a), grow(w.b);
    for (const Device& d : p.devices)
        if (d.level == floor) grow(d.at);
    for (const Board& b : p.boards)
        if (b.level == floor) grow(b.at);
    if (right < left) left = top = 0, right = 20, bottom = 14;
    right = std::max(right, left + 12), bottom = std::max(bottom, top + 8);
    const double m = 1.2;
    scale = std::max(2.0, std::min(width() / (right - left + 2 * m), height() / (bottom - top + 2 * m)));
    offset = QPointF(width() / 2.0 - (left + right) / 2 * scale, height() / 2.0 - (top + bottom) / 2 * scale);
    fitted = true;
    update();
}
void PlanView::resizeEvent(QResizeEvent*) {
    if (fitted) redraw();
}

QPointF PlanView::toScreen(Point m) const { return QPointF(m.x, m.y) * scale + offset; }
Point PlanView::toPlan(QPointF s) const {
    const QPointF m = (s - offset) / scale;
    return {m.x(), m.y()};
}
QString PlanView::lengthText(double m) const { return q(lengthWords(Metres{m}, session.project().basis.units)); }

Ref PlanView::thingAt(QPointF at) const {
    const Point m = toPlan(at) * 10;
    Ref found;
    double least = 1e18;
    for (const Hotspot& h : drawn.hotspots) {
        const double cx = (h.left + h.right) / 2, cy = (h.top + h.bottom) / 2, grow = 30 / scale;
        if (m.x < h.left - grow || m.x > h.right + grow || m.y < h.top - grow || m.y > h.bottom + grow) continue;
        if (const double d = std::hypot(m.x - cx, m.y - cy); d < least) least = d, found = h.thing;
    }
    if (!found)
        for (const Room& r : session.solution().project.rooms)
            if (r.level == floor && distance(centreOf(r.outline), toPlan(at)) < 22 / scale) found = r.id;
    if (!found)
        for (const Wall& w : session.solution().project.walls)
            if (w.level == floor && distance(nearestOnSegment(toPlan(at), w.a, w.b), toPlan(at)) < w.thickness / 2 + 3 / scale) found = w.id;
    return found;
}

SnapResult PlanView::snapped(QPointF screen, bool toWall) const {
    const Point at = toPlan(screen);
    if (toWall) return snapToWall(session.project(), floor, at, 0.9);
    const Point* from = corners.empty() ? nullptr : &corners.back();
    return snapPoint(session.project(), floor, at, 9 / scale, from);
}

void PlanView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.fillRect(rect(), t.surface);
    p.save();
    p.translate(offset);
    p.scale(scale / 10, scale / 10);
    // What is chosen, washed under the drawing; a circuit shows on all its devices.
    const auto marked = [&](Ref thing) {
        for (Ref r : session.selectionList()) {
            if (r == thing) return true;
            if (r.is<Circuit>())
                if (const Device* d = session.solution().project.devices.find(thing.as<Device>()); d && d->circuit == r.as<Circuit>()) return true;
        }
        return std::any_of(caught.begin(), caught.end(), [&](DeviceId d) { return Ref(d) == thing; });
    };
    for (Ref r : session.selectionList())
        if (const Room* m = session.solution().project.rooms.find(r.as<Room>()); m && m->level == floor) {
            QPolygonF poly;
            for (Point c : m->outline) poly << QPointF(c.x, c.y) * 10;
            p.setPen(Qt::NoPen);
            p.setBrush(t.accentWash);
            p.drawPolygon(poly);
        }
    for (const Hotspot& h : drawn.hotspots)
        if (marked(h.thing)) {
            p.setPen(QPen(t.accent, 0.35));
            p.setBrush(t.accentWash);
            const double shiftX = moving ? moveBy.x * 10 : 0, shiftY = moving ? moveBy.y * 10 : 0;
            p.drawRoundedRect(QRectF(h.left - 0.9 + shiftX, h.top - 0.9 + shiftY, h.right - h.left + 1.8, h.bottom - h.top + 1.8), 0.8, 0.8);
        }
    paint(p, drawn, t.palette());
    for (Ref r : session.selectionList())
        if (const Wall* w = session.solution().project.walls.find(r.as<Wall>()); w && w->level == floor) {
            p.setPen(QPen(t.accent, std::max(1.0, w->thickness * 10), Qt::SolidLine, Qt::SquareCap));
            p.drawLine(QPointF(w->a.x, w->a.y) * 10, QPointF(w->b.x, w->b.y) * 10);
        }
    p.restore();

    // Scale bar.
    const bool feet_ = session.project().basis.units == UnitSystem::Imperial;
    const double bar = feet_ ? 20 * metresPerFoot : 5;
    if (session.isOpen()) {
        const QPointF a(18, height() - 16);
        p.setPen(QPen(t.ink, 1.2));
        p.drawLine(a, a + QPointF(bar * scale, 0));
        for (double x : {0.0, bar * scale}) p.drawLine(a + QPointF(x, -4), a + QPointF(x, 4));
        drawLine(p, QRectF(a.x(), a.y() - 20, bar * scale, 16), feet_ ? "20 ft" : "5 m", Qt::AlignHCenter, t.quiet, uiFont(0.85));
    }
    const QPen hand(t.accent, 1.4, Qt::DashLine);
    if ((doing == PlanMode::Walls || doing == PlanMode::Rooms || doing == PlanMode::Measure) && underMouse()) {
        p.setPen(QPen(t.accent, 1));
        const QPointF at = toScreen(hover.at);
        p.setBrush(hover.onEnd ? t.accent : t.surface);
        p.drawEllipse(at, 4, 4);
        if (!corners.empty()) {
            p.setPen(hand);
            QPolygonF line;
            for (Point c : corners) line << toScreen(c);
            line << at;
            p.drawPolyline(line);
            if (doing == PlanMode::Rooms && corners.size() > 1) p.drawLine(at, toScreen(corners.front()));
            double along = distance(corners.back(), hover.at);
            if (doing == PlanMode::Measure) {
                along = 0;
                for (std::size_t i = 1; i < corners.size(); ++i) along += distance(corners[i - 1], corners[i]);
                along += distance(corners.back(), hover.at);
            }
            drawLine(p, QRectF(at.x() + 10, at.y() - 22, 120, 18), lengthText(along), Qt::AlignLeft, t.accent, uiFont(0.92, true));
        }
    }
    if (doing == PlanMode::Place && underMouse()) {
        Drawing ghost;
        const Project& pr = session.project();
        const DeviceType* y = pr.deviceTypes.find(placing.type);
        p.save();
        p.translate(offset);
        p.scale(scale / 10, scale / 10);
        if (placing.what == Placing::Device && y) drawSymbol(ghost, y->symbol, hover.at * 10, hover.turn, Ink::Accent, 4.2 * std::clamp(38 / scale, 0.7, 2.2));
        else ghost.box(hover.at.x * 10 - 3.6, hover.at.y * 10 - 1.6, 7.2, 3.2, 0.35, Ink::Accent);
        paint(p, ghost, t.palette());
        p.restore();
    }
    if (lasso) {
        p.setPen(hand);
        QColor wash = t.accent;
        wash.setAlpha(20);
        p.setBrush(wash);
        p.drawRect(QRectF(pressed, last).normalized());
    }
    if (session.isOpen() && session.solution().project.walls.empty() && corners.empty() && doing == PlanMode::Select)
        drawLine(p, QRectF(0, height() / 2.0 - 20, width(), 24), tr("An empty floor. W draws walls, R rooms, P places devices and boards."), Qt::AlignHCenter, t.quiet, uiFont(1));
    static const char* hints[] = {"", "Click corner after corner; Enter ends the wall", "Click the corners of the room; Enter closes it", "Click to place; Esc when done", "Drag around devices to circuit them; click a board to choose it", "Click from point to point"};
    drawLine(p, QRectF(12, 8, width() - 24, 18), tr(hints[int(doing)]), Qt::AlignLeft, t.quiet, uiFont(0.88));
}

void PlanView::wheelEvent(QWheelEvent* e) {
    const double next = std::clamp(scale * std::pow(1.0015, e->angleDelta().y()), 2.0, 400.0);
    offset = e->position() - (e->position() - offset) * (next / scale);
    scale = next;
    fitted = false;
    redraw();
}

void PlanView::mousePressEvent(QMouseEvent* e) {
    setFocus();
    last = pressed = e->position();
    if (e->button() == Qt::MiddleButton) {
        panning = true;
        return;
    }
    if (e->button() == Qt::RightButton) {
        if (doing == PlanMode::Walls) finishWalls();
        else if (doing == PlanMode::Rooms) finishRoom();
        else setMode(PlanMode::Select);
        return;
    }
    if (!session.isOpen() || !floor) return;
    switch (doing) {
    case PlanMode::Walls:
    case PlanMode::Measure: corners.push_back(snapped(e->position(), false).at); break;
    case PlanMode::Rooms: {
        const Point at = snapped(e->position(), false).at;
        if (corners.size() > 2 && distance(at, corners.front()) < 10 / scale) finishRoom();
        else corners.push_back(at);
        break;
    }
    case PlanMode::Place:
        mouseMoveEvent(e);
        placeOne();
        break;
    case PlanMode::Circuit: {
        if (card->isVisible())
            if (const Ref r = thingAt(e->position()); r.is<Board>()) { // a click on a board chooses it
                cardBoard->setCurrentIndex(cardBoard->findData(r.value));
                return;
            }
        lasso = true;
        break;
    }
    case PlanMode::Select: {
        const Ref r = thingAt(e->position());
        if (!r || r.is<Room>() || r.is<Wall>()) {
            lasso = true;
            if (!(e->modifiers() & Qt::ShiftModifier)) session.select(r);
            break;
        }
        auto list = session.selectionList();
        const auto it = std::find(list.begin(), list.end(), r);
        if (e->modifiers() & Qt::ShiftModifier) {
            if (it == list.end()) list.push_back(r);
            else list.erase(it);
            session.select(list);
        } else if (it == list.end()) {
            session.select(r);
        }
        moving = true;
        moveBy = {};
        grabbedAt = toPlan(e->position());
        break;
    }
    }
    update();
}

void PlanView::mouseMoveEvent(QMouseEvent* e) {
    if (panning) {
        offset += e->position() - last;
        last = e->position();
        fitted = false;
        update();
        return;
    }
    last = e->position();
    if (doing == PlanMode::Place) {
        const DeviceType* y = session.project().deviceTypes.find(placing.type);
        const bool wall = placing.what == Placing::Board || (placing.what == Placing::Device && y && y->onWall);
        hover = snapped(e->position(), wall);
        if (!hover.onWall) hover.at = {std::round(hover.at.x / 0.1) * 0.1, std::round(hover.at.y / 0.1) * 0.1};
    } else {
        hover = snapped(e->position(), false);
    }
    if (moving && (e->position() - pressed).manhattanLength() > 4) {
        const Point to = toPlan(e->position());
        moveBy = {std::round((to.x - grabbedAt.x) / 0.05) * 0.05, std::round((to.y - grabbedAt.y) / 0.05) * 0.05};
    }
    update();
}

void PlanView::mouseReleaseEvent(QMouseEvent* e) {
    if (panning) {
        panning = false;
        return;
    }
    if (moving) {
        moving = false;
        if (moveBy.x != 0 || moveBy.y != 0) moveSelection(moveBy, true);
        moveBy = {};
    }
    if (lasso) {
        lasso = false;
        const QRectF box = QRectF(pressed, e->position()).normalized();
        const bool click = box.width() < 4 && box.height() < 4;
        std::vector<Ref> found;
        caught.clear();
        for (const Device& d : session.solution().project.devices)
            if (d.level == floor && box.contains(toScreen(d.at))) found.push_back(d.id), caught.push_back(d.id);
        if (click && doing == PlanMode::Circuit) {
            if (const Ref r = thingAt(e->position()); r.is<Device>()) found = {r}, caught = {r.as<Device>()};
        }
        if (doing == PlanMode::Circuit) {
            session.select(found);
            showCard();
        } else {
            caught.clear();
            if (!found.empty()) session.select(found);
        }
    }
    update();
}

void PlanView::mouseDoubleClickEvent(QMouseEvent* e) {
    if (doing == PlanMode::Walls) finishWalls();
    else if (doing == PlanMode::Rooms) finishRoom();
    else if (doing == PlanMode::Select && !thingAt(e->position())) fitted = true, redraw();
}

void PlanView::finishWalls() {
    const std::vector<Point> line = corners;
    corners.clear();
    if (line.size() > 1)
        session.edit(line.size() > 2 ? tr("Draw %1 walls").arg(line.size() - 1) : tr("Draw wall"), [&](Project& p) {
            for (std::size_t i = 1; i < line.size(); ++i)
                if (distance(line[i - 1], line[i]) > 0.05) {
                    Wall w;
                    w.level = floor, w.a = line[i - 1], w.b = line[i];
                    p.walls.add(w);
                }
        });
    update();
}

void PlanView::finishRoom() {
    const std::vector<Point> outline = corners;
    corners.clear();
    update();
    if (outline.size() < 3 || areaOf(outline) < 0.2) {
        if (!outline.empty()) session.say(tr("A room needs three corners or more"), true);
        return;
    }
    RoomId made;
    session.edit(tr("Draw room"), [&](Project& p) {
        Room r;
        r.level = floor;
        r.outline = outline;
        r.name = "Room";
        int n = 1;
        const auto taken = [&](const std::string& number) { return std::any_of(p.rooms.begin(), p.rooms.end(), [&](const Room& x) { return x.number == number; }); };
        const auto text = [](int i) { return QString("%1").arg(i, 3, 10, QChar('0')).toStdString(); };
        while (taken(text(n))) ++n;
        r.number = text(n);
        made = p.rooms.add(r);
    });
    session.select(made);
}

void PlanView::placeOne() {
    Ref made;
    const Project& now = session.project();
    if (placing.what == Placing::Device) {
        const DeviceType* y = now.deviceTypes.find(placing.type);
        if (!y) return session.say(tr("Choose what to place from the list on the left"), true);
        session.edit(tr("Place %1").arg(q(y->name).toLower()), [&](Project& p) {
            Device d;
            d.type = placing.type, d.level = floor, d.at = hover.at, d.turn = hover.turn;
            made = p.devices.add(d);
        });
    } else if (placing.what == Placing::Board) {
        session.edit(tr("Place board"), [&](Project& p) {
            Board b;
            b.name = freeBoardName(p, "LP-1");
            b.level = floor, b.at = hover.at, b.turn = hover.turn;
            for (const Board& o : p.boards)
                if (o.use == BoardUse::Panelboard) b.system = o.system;
            made = addBoard(p, b);
        });
    } else {
        session.edit(tr("Place transformer"), [&](Project& p) {
            Transformer t;
            t.name = freeBoardName(p, "T-1");
            t.level = floor, t.at = hover.at;
            t.run = p.runs.add({});
            made = p.transformers.add(t);
        });
    }
    session.select(made);
}

void PlanView::moveSelection(Point by, bool turn) {
    const auto list = session.selectionList();
    std::size_t n = 0;
    for (Ref r : list) n += r.is<Device>() || r.is<Board>() || r.is<Transformer>();
    if (!n) return;
    session.edit(n > 1 ? tr("Move %1 things").arg(n) : tr("Move %1").arg(q(nameOf(session.project(), list.front()))), [&](Project& p) {
        for (Ref r : list) {
            if (Device* d = p.devices.change(r.as<Device>())) {
                d->at = d->at + by;
                // One thing alone turns to the wall it comes to.
                if (turn && n == 1 && p.deviceTypes[d->type].onWall)
                    if (const SnapResult s = snapToWall(p, d->level, d->at, 0.6); s.onWall) d->at = s.at, d->turn = s.turn;
            }
            if (Board* b = p.boards.change(r.as<Board>())) {
                b->at = b->at + by;
                if (turn && n == 1)
                    if (const SnapResult s = snapToWall(p, b->level, b->at, 0.6); s.onWall) b->at = s.at, b->turn = s.turn;
            }
            if (Transformer* t = p.transformers.change(r.as<Transformer>())) t->at = t->at + by;
        }
    });
}

void PlanView::deleteSelection() {
    const auto list = session.selectionList();
    if (list.empty()) return;
    std::size_t devices = 0;
    for (Ref r : list) devices += r.is<Device>();
    const QString what = devices > 1 ? tr("Delete %1 devices").arg(devices) : tr("Delete %1").arg(q(nameOf(session.project(), list.front())));
    session.edit(what, [&](Project& p) {
        for (Ref r : list) {
            p.devices.remove(r.as<Device>());
            p.rooms.remove(r.as<Room>());
            p.walls.remove(r.as<Wall>());
            if (r.is<Board>()) removeBoard(p, r.as<Board>());
            if (r.is<Transformer>()) removeTransformer(p, r.as<Transformer>());
        }
    });
}

void PlanView::showCard() {
    if (caught.empty()) {
        card->hide();
        return;
    }
    const Project& p = session.project();
    int poles = 1;
    Point mid;
    for (DeviceId d : caught) {
        poles = std::max(poles, p.deviceTypes[p.devices[d].type].poles);
        mid = mid + p.devices[d].at * (1.0 / double(caught.size()));
    }
    // The nearest board that can take them; light loads of one pole to the lower voltage first.
    std::vector<const Board*> boards;
    for (const Board& b : p.boards)
        if (factsOf(b.system).lines >= poles) boards.push_back(&b);
    const auto cost = [&](const Board* b) {
        return (b->level == floor ? 0 : 500) + (b->use == BoardUse::Switchboard ? 200 : 0) + (poles == 1 && voltsAcross(b->system, 1).v > 250 ? 150 : 0) + orthogonal(b->at, mid);
    };
    std::stable_sort(boards.begin(), boards.end(), [&](const Board* x, const Board* y) { return cost(x) < cost(y); });
    {
        QSignalBlocker quiet(cardBoard);
        cardBoard->clear();
        for (const Board* b : boards) cardBoard->addItem(q(b->name), b->id.value);
    }
    if (boards.empty()) {
        session.say(tr("There is no board that takes %1 poles").arg(poles), true);
        card->hide();
        return;
    }
    Q_EMIT cardBoard->currentIndexChanged(0);
    card->adjustSize();
    QPointF at(last.x() - card->width() / 2.0, last.y() + 14);
    double bottom = 0, left = 1e9, right = 0;
    for (DeviceId d : caught) {
        const QPointF s = toScreen(p.devices[d].at);
        bottom = std::max(bottom, s.y()), left = std::min(left, s.x()), right = std::max(right, s.x());
    }
    at = QPointF((left + right) / 2 - card->width() / 2.0, bottom + 26);
    at.setX(std::clamp(at.x(), 8.0, std::max(8.0, width() - card->width() - 8.0)));
    at.setY(std::clamp(at.y(), 8.0, std::max(8.0, height() - card->height() - 8.0)));
    card->move(at.toPoint());
    card->show();
    card->raise();
    setFocus();
}

void PlanView::previewCard() {
    if (caught.empty()) return;
    const Solution& s = session.solution();
    Project trial = session.project();
    const BoardId board{cardBoard->currentData().toUInt()};
    const CircuitId existing{cardCircuit->currentData().toUInt()};
    int leaving = 0;
    double va = 0;
    std::map<std::string, int> kinds;
    for (DeviceId d : caught) {
        const Device* x = trial.devices.find(d);
        if (!x) return card->hide();
        const DeviceType& y = trial.deviceTypes[x->type];
        if (x->circuit && x->circuit != existing) ++leaving;
        va += std::abs(powerOf(x->load.value_or(y.load), y.unit, y.powerFactor, trial.boards[board].system, y.poles, *session.solution().book));
        ++kinds[y.name];
    }
    QStringList what;
    for (const auto& [name, n] : kinds) what << QString("%1 %2").arg(n).arg(n > 1 && name == "Receptacle" ? "receptacles" : q(name).toLower());
    cardWhat->setText(QString("<b>%1</b> · %2 VA%3").arg(what.join(", "), q(number(va)), leaving ? tr(" · <span style='color:%1'>%2 leave another circuit</span>").arg(theme().check.name()).arg(leaving) : QString()));
    CircuitId c = existing;
    if (existing) circuitDevices(trial, caught, existing);
    else c = circuitToBoard(trial, caught, board);
    const Results r = solve(trial, *s.book);
    const CircuitResult& cr = r.of(c);
    const RunResult& run = cr.run;
    QString text = tr("to %1 · %2 A · %3").arg(q(nameOf(trial, c)), q(number(cr.device)), q(conductorWords(run, *s.book)));
    if (run.need.lengthKnown) text += tr(" · run %1 · %2 own, %3 total").arg(q(lengthWords(run.need.length, trial.basis.units)), q(percent(run.dropOwn)), q(percent(run.dropTotal)));
    if (trial.circuits[c].slot == 0) text = tr("%1 has no free slot for it").arg(q(trial.boards[board].name));
    cardEffect->setText(text);
    card->adjustSize();
}

void PlanView::acceptCircuit() {
    if (caught.empty()) return;
    const BoardId board{cardBoard->currentData().toUInt()};
    CircuitId c{cardCircuit->currentData().toUInt()};
    const auto devices = caught;
    int left = 0;
    for (DeviceId d : devices) left += bool(session.project().devices[d].circuit) && session.project().devices[d].circuit != c;
    session.edit(devices.size() > 1 ? tr("Circuit %1 devices").arg(devices.size()) : tr("Circuit %1").arg(q(nameOf(session.project(), Ref(devices.front())))), [&](Project& p) {
        if (c) circuitDevices(p, devices, c);
        else c = circuitToBoard(p, devices, board);
    });
    caught.clear();
    card->hide();
    session.say(left ? tr("Circuited to %1; %2 left the circuit they were on").arg(q(nameOf(session.project(), c))).arg(left) : tr("Circuited to %1").arg(q(nameOf(session.project(), c))));
    session.select(c);
    setFocus();
}

void PlanView::keyPressEvent(QKeyEvent* e) {
    const auto key = e->key();
    const bool enter = key == Qt::Key_Return || key == Qt::Key_Enter;
    if (enter && doing == PlanMode::Walls) finishWalls();
    else if (enter && doing == PlanMode::Rooms) finishRoom();
    else if (enter && card->isVisible()) acceptCircuit();
    else if (key == Qt::Key_Escape) {
        if (!corners.empty()) {
            if (doing == PlanMode::Walls) finishWalls();
            corners.clear();
        } else if (card->isVisible()) {
            card->hide();
            caught.clear();
        } else if (doing != PlanMode::Select) {
            setMode(PlanMode::Select);
        } else {
            session.select(Ref());
        }
        update();
    } else if (key == Qt::Key_Delete || key == Qt::Key_Backspace) {
        if (!corners.empty()) corners.pop_back(), update();
        else deleteSelection();
    } else if (key == Qt::Key_Left || key == Qt::Key_Right || key == Qt::Key_Up || key == Qt::Key_Down) {
        const double step = e->modifiers() & Qt::ShiftModifier ? 0.5 : 0.1;
        moveSelection({key == Qt::Key_Left ? -step : key == Qt::Key_Right ? step : 0, key == Qt::Key_Up ? -step : key == Qt::Key_Down ? step : 0}, false);
    } else if (!(e->modifiers() & (Qt::ControlModifier | Qt::AltModifier))) {
        switch (key) {
        case Qt::Key_V: return setMode(PlanMode::Select);
        case Qt::Key_W: return setMode(PlanMode::Walls);
        case Qt::Key_R: return setMode(PlanMode::Rooms);
        case Qt::Key_P: return setMode(PlanMode::Place);
        case Qt::Key_C: {
            // With devices already chosen, C goes straight to the card.
            std::vector<DeviceId> chosen;
            for (Ref r : session.selectionList())
                if (r.is<Device>()) chosen.push_back(r.as<Device>());
            setMode(PlanMode::Circuit);
            caught = chosen;
            if (!caught.empty()) showCard();
            return;
        }
        case Qt::Key_M: return setMode(PlanMode::Measure);
        case Qt::Key_F:
            fitted = true;
            return redraw();
        default: QWidget::keyPressEvent(e);
        }
    } else {
        QWidget::keyPressEvent(e);
    }
}

} // namespace lintel
