#include "app/plan/PlanView.h"

#include "app/frame/PaintKit.h"
#include "app/frame/PreviewCard.h"
#include "app/frame/UnderlayShelf.h"
#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/Operations.h"
#include "core/route/Measure.h"
#include "core/solve/Solve.h"

#include <set>

#include <QBoxLayout>
#include <QComboBox>
#include <QFrame>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPushButton>

namespace lintel {

PlanView::PlanView(Session& s, QWidget* parent)
    : QWidget(parent), session(s), canvas(new PlanCanvas(this)), previewing(new PreviewCard(this)) {
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
    asRich(cardWhat);
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
        cardCircuit->addItem(tr("off their circuits"), offCircuit.value);
        for (const Circuit* c : list)
            cardCircuit->addItem(QString("%1  %2").arg(q(nameOf(session.project(), c->id)), q(c->name)), c->id.value);
        previewCard();
    });
    connect(cardCircuit, &QComboBox::currentIndexChanged, this, &PlanView::previewCard);
    connect(cardGo, &QPushButton::clicked, this, &PlanView::acceptCircuit);
    connect(previewing, &PreviewCard::closed, this, [this] {
        if (session.isOpen()) redraw();
    });
    connect(canvas, &PlanCanvas::painted, this, qOverload<>(&QWidget::update));
    connect(&session, &Session::solved, this, &PlanView::redraw);
    connect(&session.underlays(), &UnderlayShelf::changed, this, &PlanView::redraw);
    connect(&session, &Session::selectionChanged, this, [this] { update(); });
    connect(&session, &Session::opened, this, [this] {
        floor = {};
        corners.clear();
        caught.clear();
        clipboard.clear();
        card->hide();
        previewing->drop();
        setUnderlayHand(UnderlayHand::None, {});
        for (const Level& l : session.project().levels) {
            const auto here = [&](const auto& table) {
                return std::any_of(table.begin(), table.end(), [&](const auto& x) { return x.level == l.id; });
            };
            if (!floor || (here(session.project().walls) &&
                           !std::any_of(session.project().walls.begin(), session.project().walls.end(),
                                        [&](const Wall& w) { return w.level == floor; })))
                floor = l.id;
        }
        wantFit();
    });
}

void PlanView::setLevel(LevelId l) {
    floor = l;
    corners.clear();
    wantFit();
}
void PlanView::setMode(PlanMode m) {
    const bool repaint = m != doing && (m == PlanMode::Catchments || doing == PlanMode::Catchments);
    doing = m;
    corners.clear();
    typed.clear();
    caught.clear();
    lasso = moving = false;
    wallEnd.reset();
    aligned = {};
    card->hide();
    if (m != PlanMode::Underlay) hand = UnderlayHand::None;
    setCursor(m == PlanMode::Select ? Qt::ArrowCursor : Qt::CrossCursor);
    if (repaint && session.isOpen()) redraw();
    update();
    Q_EMIT modeChanged(m);
}
void PlanView::setPlacing(Placing p) {
    placing = p;
    setMode(PlanMode::Place);
}
void PlanView::setStyle(const PlanStyle& s) {
    look = s;
    // What is hidden is chosen no more, so that no key changes or deletes what nobody sees.
    const Project& p = session.project();
    const auto hidden = [&](Ref r) {
        if (const Device* d = p.devices.find(r.as<Device>())) return !look.shows(p.deviceTypes[d->type]);
        if (const KeyedNote* n = p.keyedNotes.find(r.as<KeyedNote>())) return !look.shows(*n);
        return (r.is<Furnishing>() && !look.furniture) || (r.is<Tray>() && !look.trays);
    };
    auto chosen = session.selectionList();
    if (std::erase_if(chosen, hidden) > 0) session.select(chosen);
    std::erase_if(caught, [&](DeviceId d) { return hidden(d); });
    redraw();
}
void PlanView::setUnderlayHand(UnderlayHand h, UnderlayId u) {
    hand = h;
    handUnderlay = u;
    corners.clear();
    typed.clear();
    Q_EMIT underlayHandChanged();
    update();
}

void PlanView::rebuildUnderlays() {
    LayersFrom now;
    now.paper = theme().surface.rgb();
    for (const Underlay& u : session.solution().project.underlays) {
        if (u.level != floor) continue;
        now.from.push_back({u, session.underlays().content(u)});
        if (const auto* e = session.underlays().entry(u))
            now.differences += e->difference.added.size() + e->difference.gone.size();
    }
    if (layers && now == layersMade) return;
    layersMade = std::move(now);
    refit |= fitted; // an underlay that is new, or placed otherwise
    auto out = std::make_shared<std::vector<PlanScene::Layer>>();
    underlayLines.clear();
    const Theme& t = theme();
    for (const Underlay& u : session.solution().project.underlays) {
        if (u.level != floor || u.hidden) continue;
        const UnderlayShelf::Entry* e = session.underlays().entry(u);
        if (!e || !e->content) continue;
        PlanScene::Layer l;
        l.at = placingOf(u, *e->content);
        l.fade = u.fade;
        if (u.crop.size() == 2)
            l.crop = QRectF(QPointF(u.crop[0].x, u.crop[0].y), QPointF(u.crop[1].x, u.crop[1].y)).normalized();
        if (e->content->picture) {
            l.picture = QImage(q(underlayFile(u, session.file()).string()));
        } else {
            for (const UnderlayLine& x : linesOf(u, *e->content)) {
                const auto rgb = rgbOfIndex(x.colour);
                const QColor own = x.colour == 7 || x.colour == 0 ? t.ink : QColor(rgb[0], rgb[1], rgb[2]);
                const auto mix = [&](int a, int b) { return int(a * (1 - u.fade) + b * u.fade); };
                l.lines.emplace_back(x.a.x, x.a.y, x.b.x, x.b.y);
                l.colours.push_back(qRgb(mix(own.red(), t.surface.red()), mix(own.green(), t.surface.green()),
                                         mix(own.blue(), t.surface.blue())));
                underlayLines.push_back({x.a, x.b});
            }
            l.texts = textsOf(u, *e->content);
            const auto piece = [&](const DxfDrawing::Piece& x) {
                const Point a = l.at(x.a), b = l.at(x.b);
                return QLineF(a.x, a.y, b.x, b.y);
            };
            for (const auto& x : e->difference.added) l.added.push_back(piece(x));
            for (const auto& x : e->difference.gone) l.gone.push_back(piece(x));
        }
        out->push_back(std::move(l));
    }
    layers = out;
}

void PlanView::showTrial(Project trial) {
    auto s = std::make_shared<Solution>();
    s->project = std::move(trial);
    s->book = session.solution().book;
    s->results = solve(s->project, *s->book);
    const Theme& t = theme();
    canvas->setScene({s, floor, look, layers, t.palette(), t.surface, t.ink, t.accent, t.stop});
    canvas->look(sight());
}

void PlanView::redraw() {
    const Solution& s = session.solution();
    if (!s.project.levels.has(floor)) floor = s.project.levels.empty() ? LevelId{} : s.project.levels.begin()->id;
    if (!isVisible()) return; // another stage is shown: no thread paints what nobody sees
    rebuildUnderlays();
    if (std::exchange(refit, false)) fit();
    const Theme& t = theme();
    PlanStyle style = look;
    style.catchments |= doing == PlanMode::Catchments; // one draws them seeing those that are there
    canvas->setScene({session.sharedSolution(), floor, style, layers, t.palette(), t.surface, t.ink, t.accent, t.stop});
    canvas->look(sight());
    if (card->isVisible()) previewCard();
    update();
}

/// The whole floor, from now on also where the window changes its size. What is drawn does not move it.
void PlanView::wantFit() {
    fitted = refit = true;
    redraw();
}
void PlanView::bringIntoView(const std::vector<Point>& places) {
    constexpr int edge = 12; // px
    if (refit || places.empty()) return;
    const QRectF seen = QRectF(rect()).adjusted(edge, edge, -edge, -edge);
    if (std::any_of(places.begin(), places.end(), [&](Point at) { return seen.contains(toScreen(at)); })) return;
    offset += seen.center() - toScreen(places.front());
    fitted = false;
    canvas->look(sight());
    update();
}
void PlanView::fit() {
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    const auto grow = [&](Point p) {
        left = std::min(left, p.x), right = std::max(right, p.x), top = std::min(top, p.y),
        bottom = std::max(bottom, p.y);
    };
    const Project& p = session.solution().project;
    for (const Wall& w : p.walls)
        if (w.level == floor) grow(w.a), grow(w.b);
    for (const Device& d : p.devices)
        if (d.level == floor) grow(d.at);
    for (const Board& b : p.boards)
        if (b.standsOn(floor)) grow(b.at);
    if (layers)
        for (const PlanScene::Layer& l : *layers) {
            if (l.crop) grow({l.crop->left(), l.crop->top()}), grow({l.crop->right(), l.crop->bottom()});
            for (const QLineF& x : l.lines) grow({x.x1(), x.y1()}), grow({x.x2(), x.y2()});
            if (!l.picture.isNull() && !l.crop)
                grow(l.at({0, 0})), grow(l.at({double(l.picture.width()), double(l.picture.height())}));
        }
    if (right < left) left = top = 0, right = 20, bottom = 14;
    right = std::max(right, left + 12), bottom = std::max(bottom, top + 8);
    const double m = 1.2;
    scale = std::max(2.0, std::min(width() / (right - left + 2 * m), height() / (bottom - top + 2 * m)));
    offset = QPointF(width() / 2.0 - (left + right) / 2 * scale, height() / 2.0 - (top + bottom) / 2 * scale);
    fitted = true;
    update();
}
void PlanView::showEvent(QShowEvent*) {
    if (session.isOpen()) redraw();
}
void PlanView::resizeEvent(QResizeEvent*) {
    if (fitted)
        wantFit();
    else
        canvas->look(sight());
}

QPointF PlanView::toScreen(Point m) const { return QPointF(m.x, m.y) * scale + offset; }
Point PlanView::toPlan(QPointF s) const {
    const QPointF m = (s - offset) / scale;
    return {m.x(), m.y()};
}
QString PlanView::lengthText(double m) const { return q(lengthWords(Metres{m}, session.project().basis.units)); }

Ref PlanView::thingAt(QPointF at) const {
    canvas->settle();
    const Point m = toPlan(at) * 10;
    const Project& p = session.solution().project;
    Ref found;
    double least = 1e18;
    for (const Hotspot& h : canvas->drawing().hotspots) {
        const double cx = (h.left + h.right) / 2, cy = (h.top + h.bottom) / 2, grow = 30 / scale;
        if (m.x < h.left - grow || m.x > h.right + grow || m.y < h.top - grow || m.y > h.bottom + grow) continue;
        // What is electrical comes before what stands around it.
        const bool built =
            h.thing.is<Tray>() || h.thing.is<Opening>() || h.thing.is<Furnishing>() || h.thing.is<Catchment>();
        if (const double d = std::hypot(m.x - cx, m.y - cy) + (built ? 200 : 0); d < least) least = d, found = h.thing;
    }
    if (!found)
        for (const Room& r : p.rooms)
            if (r.level == floor && distance(centreOf(r.outline), toPlan(at)) < 22 / scale) found = r.id;
    if (!found)
        for (const Wall& w : p.walls)
            if (w.level == floor &&
                distance(nearestOnSegment(toPlan(at), w.a, w.b), toPlan(at)) < w.thickness / 2 + 3 / scale)
                found = w.id;
    return found;
}

SnapResult PlanView::snapped(QPointF screen, bool toWall) {
    const Point at = toPlan(screen);
    aligned = {};
    if (toWall) {
        const SnapResult wall = snapToWall(session.project(), floor, at, 0.9);
        return wall.onWall || placing.what == Placing::Opening
                   ? wall
                   : snapToFaces(underlayLines, at, 0.5); // walls of the drawing serve where none are drawn
    }
    const Point* from = corners.empty() ? nullptr : &corners.back();
    SnapResult s = snapPoint(session.project(), floor, at, 9 / scale, from);
    if (!s.onEnd && !s.onWall && doing != PlanMode::Place)
        if (const auto on = snapToLines(underlayLines, at, 7 / scale, s.square))
            s.at = *on,
            s.onEnd = true; // ends and lines of the drawing below; what lies square leaves it for an end only
    return s;
}

bool PlanView::drawsPath() const {
    return doing == PlanMode::Walls || doing == PlanMode::Rooms || doing == PlanMode::Measure ||
           doing == PlanMode::Trays || doing == PlanMode::Catchments || doing == PlanMode::Trace;
}

/// Of a round length that is some eighty pixels long, with it.
void PlanView::paintScaleBar(QPainter& p) const {
    const Theme& t = theme();
    const bool feet_ = session.project().basis.units == UnitSystem::Imperial;
    double length = 1; // of 1, 2, 5, 10, 20 …
    for (int step = 0; step < 24 && length * (feet_ ? metresPerFoot : 1) * scale < 60; ++step)
        length *= step % 3 == 1 ? 2.5 : 2;
    const double bar = length * (feet_ ? metresPerFoot : 1) * scale;
    const QPointF a(18, height() - 16);
    p.setPen(QPen(t.ink, 1.2));
    p.drawLine(a, a + QPointF(bar, 0));
    for (double x : {0.0, bar}) p.drawLine(a + QPointF(x, -4), a + QPointF(x, 4));
    drawLine(p, QRectF(a.x() - 14, a.y() - 20, bar + 28, 16), QString::number(length) + (feet_ ? " ft" : " m"),
             Qt::AlignHCenter, t.quiet, uiFont(0.85));
}

/// What to begin with, on a floor that nobody has drawn yet: in the middle where nothing stands on it, else out of the
/// way of what does.
void PlanView::paintBeginning(QPainter& p) const {
    const Project& pr = session.project();
    const auto here = [this](const auto& things) {
        return std::any_of(things.begin(), things.end(), [this](const auto& x) { return x.level == floor; });
    };
    if (here(pr.walls) || here(pr.rooms) || here(pr.underlays) || here(pr.devices)) return;
    const bool empty = !here(pr.boards) && !here(pr.transformers) && !here(pr.sources) && !here(pr.trays) &&
                       !here(pr.catchments) && !here(pr.furnishings) && !here(pr.keyedNotes);
    const QString how = tr("U links the architect's drawing, W draws walls, R rooms, P places devices and boards.");
    drawLine(p, QRectF(0, empty ? height() / 2.0 - 20 : 10, width(), 24),
             (empty ? tr("An empty floor.") : tr("No walls here yet.")) + " " + how, Qt::AlignHCenter, theme().quiet,
             uiFont(1));
}

QString PlanView::hintOf(PlanMode m) {
    static const char* hints[planModes] = {
        "",
        QT_TR_NOOP("Click corner after corner, or type a length and Enter; Enter ends the wall"),
        QT_TR_NOOP("Click the corners of the room; Enter closes it"),
        QT_TR_NOOP("Click to place; Esc when done"),
        QT_TR_NOOP("Drag around devices to circuit them; click a board to choose it"),
        QT_TR_NOOP("Click along the tray, Enter ends it; Shift+click sets a riser to the level above"),
        QT_TR_NOOP("Click the corners of the area; Enter closes it"),
        QT_TR_NOOP("Choose a circuit first; click its way from the board on, Enter ends it"),
        QT_TR_NOOP("Choose on the left what to do with the drawing"),
        QT_TR_NOOP("Click from point to point")};
    return tr(hints[int(m)]);
}

void PlanView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Theme& t = theme();
    p.fillRect(rect(), t.surface);
    canvas->paint(p, sight());
    p.setRenderHint(QPainter::Antialiasing);
    p.save();
    p.translate(offset);
    p.scale(scale / 10, scale / 10);
    // What is chosen, marked over the drawing; a circuit shows on all its devices.
    std::set<Ref> chosen(session.selectionList().begin(), session.selectionList().end());
    for (DeviceId d : caught) chosen.insert(d);
    const Project& pr = session.solution().project;
    const QColor wash(t.accent.red(), t.accent.green(), t.accent.blue(), 38);
    for (Ref r : session.selectionList()) {
        const std::vector<Point>* outline = nullptr;
        if (const Room* m = pr.rooms.find(r.as<Room>()); m && m->level == floor) outline = &m->outline;
        if (const Catchment* k = pr.catchments.find(r.as<Catchment>()); k && k->level == floor) outline = &k->outline;
        if (!outline) continue;
        QPolygonF poly;
        for (Point c : *outline) poly << QPointF(c.x, c.y) * 10;
        p.setPen(Qt::NoPen);
        p.setBrush(wash);
        p.drawPolygon(poly);
    }
    if (!chosen.empty()) {
        const double shiftX = moving ? moveBy.x * 10 : 0, shiftY = moving ? moveBy.y * 10 : 0;
        p.setPen(QPen(t.accent, 0.35));
        p.setBrush(wash);
        for (const Hotspot& h : canvas->drawing().hotspots) {
            bool marked = chosen.count(h.thing);
            if (!marked && h.thing.is<Device>())
                if (const Device* d = pr.devices.find(h.thing.as<Device>()); d && d->circuit)
                    marked = chosen.count(Ref(d->circuit));
            if (marked)
                p.drawRoundedRect(
                    QRectF(h.left - 0.9 + shiftX, h.top - 0.9 + shiftY, h.right - h.left + 1.8, h.bottom - h.top + 1.8),
                    0.8, 0.8);
        }
    }
    for (Ref r : session.selectionList())
        if (const Wall* w = pr.walls.find(r.as<Wall>()); w && w->level == floor) {
            p.setPen(QPen(QColor(t.accent.red(), t.accent.green(), t.accent.blue(), 150),
                          std::max(1.0, w->thickness * 10), Qt::SolidLine, Qt::FlatCap));
            p.drawLine(QPointF(w->a.x, w->a.y) * 10, QPointF(w->b.x, w->b.y) * 10);
            p.setPen(QPen(t.accent, 0.4));
            p.setBrush(t.surface);
            for (Point e : {w->a, w->b})
                p.drawEllipse(QPointF(e.x, e.y) * 10, 40 / scale, 40 / scale); // its ends can be dragged
        }
    p.restore();
    paintHand(p);

    if (session.isOpen()) paintScaleBar(p);
    if (session.isOpen() && corners.empty() && doing == PlanMode::Select) paintBeginning(p);
    QString hint = hintOf(doing);
    if (doing == PlanMode::Underlay && hand == UnderlayHand::Scale)
        hint = corners.size() < 2 ? tr("Click two points whose distance is known")
                                  : tr("Type their true distance, then Enter");
    if (doing == PlanMode::Underlay && hand == UnderlayHand::Move)
        hint = tr("Click a point of the drawing, then where it belongs");
    if (doing == PlanMode::Underlay && hand == UnderlayHand::Square)
        hint = tr("Click two points of a line that should lie level or upright");
    if (doing == PlanMode::Underlay && hand == UnderlayHand::Crop)
        hint = tr("Click two corners: only what lies between is shown");
    if (doing == PlanMode::Place && placing.what == Placing::Device && placeHow != PlaceHow::Single)
        hint = placeHow == PlaceHow::Row    ? tr("Click where the row begins and where it ends")
               : placeHow == PlaceHow::Wall ? tr("Click a wall: it is filled at the spacing")
                                            : tr("Click in a room: it gets the grid");
    if (session.underlays().reading()) hint = session.underlays().progressText() + tr("  ·  Esc stops it");
    if (!hint.isEmpty()) {
        const QRectF box(12, 8, std::min(width() - 24.0, QFontMetricsF(uiFont(0.88)).horizontalAdvance(hint) + 12), 20);
        QColor paper = t.surface;
        paper.setAlpha(225);
        p.fillRect(box.adjusted(-6, -2, 0, 2), paper);
        drawLine(p, box, hint, Qt::AlignLeft, t.quiet, uiFont(0.88));
    }
}

void PlanView::paintHand(QPainter& p) {
    const Theme& t = theme();
    const QPen dashed(t.accent, 1.4, Qt::DashLine);
    const bool underlayPoints = doing == PlanMode::Underlay && hand != UnderlayHand::None;
    if ((drawsPath() || underlayPoints || (doing == PlanMode::Place && placeHow == PlaceHow::Row)) &&
        (underMouse() || !corners.empty())) {
        p.setPen(QPen(t.accent, 1));
        const QPointF at = toScreen(hover.at);
        p.setBrush(hover.onEnd ? t.accent : t.surface);
        p.drawEllipse(at, 4, 4);
        if (!corners.empty()) {
            const bool closing = doing == PlanMode::Rooms || doing == PlanMode::Catchments;
            const bool scaled = hand == UnderlayHand::Scale && corners.size() > 1;
            p.setPen(dashed);
            p.setBrush(Qt::NoBrush);
            if (hand == UnderlayHand::Crop && underlayPoints) {
                p.drawRect(QRectF(toScreen(corners.front()), at).normalized());
            } else {
                QPolygonF line;
                for (Point c : corners) line << toScreen(c);
                if (!scaled) line << at;
                p.drawPolyline(line);
                if (closing && corners.size() > 1) p.drawLine(at, toScreen(corners.front()));
            }
            double along = scaled ? distance(corners[0], corners[1]) : distance(corners.back(), hover.at);
            if (doing == PlanMode::Measure || doing == PlanMode::Trace || doing == PlanMode::Trays)
                for (std::size_t i = 1; i < corners.size(); ++i) along += distance(corners[i - 1], corners[i]);
            const QString words = typed.isEmpty() ? lengthText(along) : typed + "|";
            const QPointF where = (scaled ? toScreen(corners[1]) : at) + QPointF(10, -22);
            const QRectF box(where, QSizeF(QFontMetricsF(uiFont(0.92, true)).horizontalAdvance(words) + 10, 18));
            p.fillRect(box, typed.isEmpty() ? t.surface : t.accentWash);
            drawLine(p, box.adjusted(4, 0, 0, 0), words, Qt::AlignLeft, t.accent, uiFont(0.92, true));
        }
    }
    if (doing == PlanMode::Place && underMouse()) {
        p.setPen(QPen(t.accent, 0.8, Qt::DotLine));
        if (aligned.upright) p.drawLine(toScreen(hover.at), toScreen(*aligned.upright));
        if (aligned.level) p.drawLine(toScreen(hover.at), toScreen(*aligned.level));
        Drawing ghost;
        const Project& pr = session.project();
        const DeviceType* y = pr.deviceTypes.find(placing.type);
        p.save();
        p.translate(offset);
        p.scale(scale / 10, scale / 10);
        if (placing.what == Placing::Device && y) {
            drawSymbol(ghost, y->symbol, hover.at * 10, hover.turn, Ink::Accent,
                       4.2 * std::clamp(38 / scale, 0.7, 2.2));
        } else if (placing.what == Placing::Furnishing) {
            Furnishing f;
            f.kind = placing.furnishing, f.at = hover.at, f.turn = hover.turn;
            drawFurnishing(ghost, f, 10, Ink::Accent);
        } else if (placing.what == Placing::Note) {
            const double r = 2.5 * std::clamp(38 / scale, 0.7, 2.2);
            ghost.marks.push_back(CircleMark{hover.at * 10, r, 0.3, Ink::Accent, false});
        } else if (placing.what == Placing::Opening) {
            if (const Wall* w = pr.walls.find(hover.wall)) {
                Opening o;
                o.kind = placing.opening, o.wall = w->id,
                o.along = distance(w->a, nearestOnSegment(hover.at, w->a, w->b)),
                o.width = placing.opening == OpeningKind::DoubleDoor ? 1.8
                          : placing.opening == OpeningKind::Window   ? 1.2
                                                                     : 0.9;
                o.otherSide = dot(hover.at - w->a, Point{-(w->b.y - w->a.y), w->b.x - w->a.x}) < 0;
                drawOpening(ghost, o, *w, 10, Ink::Accent);
            }
        } else {
            ghost.box(hover.at.x * 10 - 3.6, hover.at.y * 10 - 1.6, 7.2, 3.2, 0.35, Ink::Accent);
        }
        paint(p, ghost, t.palette());
        p.restore();
    }
    if (wallEnd && moving) {
        p.setPen(dashed);
        for (const Wall& w : session.project().walls)
            if (w.level == floor)
                for (const auto& [end, other] : {std::pair{w.a, w.b}, {w.b, w.a}})
                    if (distance(end, *wallEnd) < 0.01) p.drawLine(toScreen(other), toScreen(hover.at));
    }
    if (lasso) {
        p.setPen(dashed);
        QColor wash = t.accent;
        wash.setAlpha(20);
        p.setBrush(wash);
        p.drawRect(QRectF(pressed, last).normalized());
    }
}

void PlanView::wheelEvent(QWheelEvent* e) {
    const double next = std::clamp(scale * std::pow(1.0015, e->angleDelta().y()), 2.0, 400.0);
    offset = e->position() - (e->position() - offset) * (next / scale);
    scale = next;
    fitted = false;
    canvas->look(sight());
    update();
}

void PlanView::mousePressEvent(QMouseEvent* e) {
    setFocus();
    last = pressed = e->position();
    if (e->button() == Qt::MiddleButton) {
        panning = true;
        return;
    }
    if (e->button() == Qt::RightButton) {
        if (drawsPath() && !corners.empty())
            finishPath();
        else
            setMode(PlanMode::Select);
        return;
    }
    if (!session.isOpen() || !floor) return;
    if (previewing->isVisible()) return session.say(tr("This is a preview: Enter accepts it, Esc cancels it"));
    switch (doing) {
    case PlanMode::Walls:
    case PlanMode::Measure:
    case PlanMode::Trace:
        corners.push_back(snapped(e->position(), false).at);
        break;
    case PlanMode::Trays:
        if (e->modifiers() & Qt::ShiftModifier) {
            corners = {snapped(e->position(), false).at};
            finishTray();
        } else {
            corners.push_back(snapped(e->position(), false).at);
        }
        break;
    case PlanMode::Catchments:
    case PlanMode::Rooms: {
        const Point at = snapped(e->position(), false).at;
        if (corners.size() > 2 && distance(at, corners.front()) < 10 / scale)
            finishPath();
        else
            corners.push_back(at);
        break;
    }
    case PlanMode::Underlay:
        if (hand != UnderlayHand::None && !(hand == UnderlayHand::Scale && corners.size() > 1)) {
            corners.push_back(snapped(e->position(), false).at);
            takeUnderlayPoint();
        }
        break;
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
        // An end of a chosen wall, before anything that lies there.
        if (const Wall* w = session.project().walls.find(session.selection().as<Wall>()); w && w->level == floor)
            for (Point end : {w->a, w->b})
                if (QLineF(toScreen(end), e->position()).length() < 8) {
                    wallEnd = end;
                    moving = true;
                    hover.at = end;
                    return;
                }
        const Ref r = thingAt(e->position());
        if (!r || r.is<Room>() || r.is<Wall>()) {
            lasso = true;
            if (!(e->modifiers() & Qt::ShiftModifier)) session.select(r);
            break;
        }
        auto list = session.selectionList();
        const auto it = std::find(list.begin(), list.end(), r);
        if (e->modifiers() & Qt::ShiftModifier) {
            if (it == list.end())
                list.push_back(r);
            else
                list.erase(it);
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
        canvas->look(sight());
        update();
        return;
    }
    last = e->position();
    if (doing == PlanMode::Place) {
        const Project& p = session.project();
        const DeviceType* y = p.deviceTypes.find(placing.type);
        const bool device = placing.what == Placing::Device && y;
        const bool row = device && placeHow == PlaceHow::Row;
        const bool wall = placing.what == Placing::Board || placing.what == Placing::Opening ||
                          (device && (y->onWall || placeHow == PlaceHow::Wall));
        hover = snapped(e->position(), wall);
        if (!hover.onWall) {
            hover.at = {std::round(hover.at.x / 0.1) * 0.1, std::round(hover.at.y / 0.1) * 0.1};
            if (placing.what == Placing::Furnishing) { // its back to a wall that is near
                const FurnishingSize size = usualSize(placing.furnishing);
                if (const SnapResult s = snapToWall(p, floor, toPlan(e->position()), 0.5, size.depth / 2 + 0.02);
                    s.onWall)
                    hover = s;
            } else if (device) {
                const Point at = toPlan(e->position());
                const RoomId room = roomAt(p, floor, at);
                if (room && p.rooms[room].gridX > 0 && !y->onWall)
                    hover.at = snapToCeiling(p.rooms[room], at);
                else
                    aligned = alignToPeers(p, floor, at, 7 / scale),
                    hover.at = aligned.upright || aligned.level ? Point{aligned.upright ? aligned.at.x : hover.at.x,
                                                                        aligned.level ? aligned.at.y : hover.at.y}
                                                                : hover.at;
            }
        }
        if (row && !corners.empty()) { // rows lie square where they nearly do
            if (std::abs(hover.at.x - corners[0].x) < 9 / scale) hover.at.x = corners[0].x;
            if (std::abs(hover.at.y - corners[0].y) < 9 / scale) hover.at.y = corners[0].y;
        }
    } else {
        hover = snapped(e->position(), false);
    }
    if (moving && !wallEnd && (e->position() - pressed).manhattanLength() > 4) {
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
    if (wallEnd) {
        const Point from = *wallEnd;
        wallEnd.reset();
        moving = false;
        if ((e->position() - pressed).manhattanLength() > 4) moveWallEnd(from, snapped(e->position(), false).at);
        update();
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
        const Project& p = session.solution().project;
        for (const Device& d : p.devices)
            if (d.level == floor && look.shows(p.deviceTypes[d.type]) && box.contains(toScreen(d.at)))
                found.push_back(d.id), caught.push_back(d.id);
        if (doing == PlanMode::Select && !click && look.furniture)
            for (const Furnishing& f : p.furnishings)
                if (f.level == floor && box.contains(toScreen(f.at))) found.push_back(f.id);
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
    if (drawsPath())
        finishPath();
    else if (doing == PlanMode::Select && !thingAt(e->position()))
        wantFit();
}

void PlanView::typeLength(QKeyEvent* e) {
    if (e->key() == Qt::Key_Backspace)
        typed.chop(1);
    else
        typed += e->text();
    update();
}

void PlanView::keyPressEvent(QKeyEvent* e) {
    const auto key = e->key();
    const bool enter = key == Qt::Key_Return || key == Qt::Key_Enter;
    const bool drawing = !corners.empty() && (drawsPath() || doing == PlanMode::Underlay);
    if (drawing && !(e->modifiers() & (Qt::ControlModifier | Qt::AltModifier)) && !e->text().isEmpty() &&
        (e->text()[0].isDigit() ||
         (QString(".,'\" ftmin").contains(e->text()[0]) && (!typed.isEmpty() || e->text() == "."))))
        return typeLength(e);
    if (!typed.isEmpty() && key == Qt::Key_Backspace) return typeLength(e);
    if (enter && !typed.isEmpty()) {
        takeTyped();
    } else if (enter && previewing->isVisible()) {
        previewing->accept();
    } else if (enter && drawsPath()) {
        finishPath();
    } else if (enter && card->isVisible()) {
        acceptCircuit();
    } else if (key == Qt::Key_Escape) {
        if (session.underlays().reading()) {
            session.underlays().cancel();
        } else if (!typed.isEmpty()) {
            typed.clear();
        } else if (previewing->isVisible()) {
            previewing->drop();
        } else if (!corners.empty()) {
            if (doing == PlanMode::Walls) finishWalls();
            corners.clear();
        } else if (card->isVisible()) {
            card->hide();
            caught.clear();
        } else if (hand != UnderlayHand::None) {
            setUnderlayHand(UnderlayHand::None, {});
        } else if (doing != PlanMode::Select) {
            setMode(PlanMode::Select);
        } else {
            session.select(Ref());
        }
        update();
    } else if (key == Qt::Key_Delete || key == Qt::Key_Backspace) {
        if (!corners.empty())
            corners.pop_back(), update();
        else
            deleteSelection();
    } else if (key == Qt::Key_Left || key == Qt::Key_Right || key == Qt::Key_Up || key == Qt::Key_Down) {
        const double step = e->modifiers() & Qt::ShiftModifier ? 0.5 : 0.1;
        moveSelection({key == Qt::Key_Left    ? -step
                       : key == Qt::Key_Right ? step
                                              : 0,
                       key == Qt::Key_Up     ? -step
                       : key == Qt::Key_Down ? step
                                             : 0},
                      false);
    } else if (e->matches(QKeySequence::Copy)) {
        copySelection();
    } else if (e->matches(QKeySequence::Paste)) {
        pasteAtHand();
    } else if (!(e->modifiers() & (Qt::ControlModifier | Qt::AltModifier))) {
        switch (key) {
        case Qt::Key_V:
            return setMode(PlanMode::Select);
        case Qt::Key_W:
            return setMode(PlanMode::Walls);
        case Qt::Key_R:
            return setMode(PlanMode::Rooms);
        case Qt::Key_P:
            return setMode(PlanMode::Place);
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
        case Qt::Key_T:
            return setMode(PlanMode::Trays);
        case Qt::Key_K:
            return setMode(PlanMode::Catchments);
        case Qt::Key_G:
            return setMode(PlanMode::Trace);
        case Qt::Key_U:
            return setMode(PlanMode::Underlay);
        case Qt::Key_M:
            return setMode(PlanMode::Measure);
        case Qt::Key_X:
            return mirrorSelection(!(e->modifiers() & Qt::ShiftModifier));
        case Qt::Key_Q:
            return turnSelection(e->modifiers() & Qt::ShiftModifier ? -90 : 90);
        case Qt::Key_F:
            return wantFit();
        default:
            QWidget::keyPressEvent(e);
        }
    } else {
        QWidget::keyPressEvent(e);
    }
}

} // namespace lintel
