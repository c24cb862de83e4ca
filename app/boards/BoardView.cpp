#include "app/boards/BoardView.h"

#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/sheets/Words.h"
#include "core/solve/PhaseLoads.h"

#include <QContextMenuEvent>
#include <QDragEnterEvent>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMenu>
#include <QMimeData>
#include <QMouseEvent>

namespace lintel {

namespace {
constexpr double busWidth = 11, edge = 4;
}

BoardView::BoardView(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAcceptDrops(true);
    setObjectName("boardView");
    connect(&session, &Session::solved, this, [this] { show(shown); });
    connect(&session, &Session::selectionChanged, this, [this] {
        if (const Circuit* c = session.project().circuits.find(session.selection().as<Circuit>()); c && c->board == shown && c->slot > 0) cursor = c->slot;
        update();
    });
}

const Board* BoardView::data() const { return session.solution().project.boards.find(shown); }

void BoardView::show(BoardId b) {
    if (b != shown && editor) editor->deleteLater();
    if (b != shown) cursor = 0;
    shown = b;
    map = slotMap(session.solution().project, b);
    updateGeometry();
    update();
}

int BoardView::rows() const {
    const Board* b = data();
    return !b ? 0 : b->form == BoardForm::TwoColumn ? (b->slots + 1) / 2 : b->slots;
}
double BoardView::rowHeight() const {
    const int n = std::max(1, rows());
    return std::clamp((height() - 2 * edge) / double(n), 19.0, 25.0);
}
QSize BoardView::sizeHint() const { return {720, int(std::max(1, rows()) * 24 + 2 * edge)}; }

QRectF BoardView::slotBox(int slot) const {
    const Board* b = data();
    if (!b || slot < 1) return {};
    const double h = rowHeight();
    if (b->form != BoardForm::TwoColumn) return {edge, edge + (slot - 1) * h, width() - 2 * edge, h};
    const double half = (width() - 2 * edge - busWidth) / 2;
    const bool left = slot % 2 == 1;
    return {left ? edge : edge + half + busWidth, edge + ((slot + 1) / 2 - 1) * h, half, h};
}

int BoardView::slotAt(QPointF at) const {
    const Board* b = data();
    for (int s = 1; b && s <= b->slots; ++s)
        if (slotBox(s).contains(at)) return s;
    return 0;
}

BoardView::Columns BoardView::columns(int slot) const {
    const QRectF r = slotBox(slot);
    const bool left = data()->form != BoardForm::TwoColumn || slot % 2 == 1;
    const double bar = std::clamp(r.width() * 0.125, 34.0, 62.0);
    Columns c;
    double x = left ? r.left() : r.right();
    const auto take = [&](double w, double gap = 0) {
        const QRectF box(left ? x : x - w, r.top(), w, r.height());
        x += (left ? 1 : -1) * (w + gap);
        return box;
    };
    c.number = take(21, 5);
    c.breaker = take(31, 7);
    const bool wide = data()->form != BoardForm::TwoColumn; // one below another: room for the cable and the loop
    const double size = wide ? 96 : 36, loop = wide ? 86 : 0;
    const double rest = 13 + 4 + bar + 4 + 42 + size + loop + (wide ? 18 : 7);
    c.name = take(std::max(40.0, r.width() - 21 - 5 - 31 - 7 - rest), 4);
    c.va = take(42, wide ? 10 : 5);
    c.size = take(size, 2);
    c.loop = take(loop, 0);
    c.letter = take(13, 4);
    c.bar = take(bar, 0);
    return c;
}

CircuitId BoardView::circuitAt(int slot) const { return slot > 0 && slot < int(map.size()) ? map[std::size_t(slot)] : CircuitId{}; }

void BoardView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.setPen(t.rule);
    p.setBrush(t.surface);
    const Board* b = data();
    if (!b) {
        drawLine(p, QRectF(rect()).adjusted(20, 0, -20, 0), tr("No board yet: Project ▸ Add board"), Qt::AlignHCenter, t.quiet, uiFont(1));
        return;
    }
    const double h = rowHeight(), bottom = edge + rows() * h;
    p.drawRoundedRect(QRectF(0.5, 0.5, width() - 1, bottom + edge - 1), 4, 4);
    const bool two = b->form == BoardForm::TwoColumn;
    const Results& r = session.solution().results;
    const auto colour = [&](int line) { return t.phase(phaseInk(session.solution().project.basis, b->system, line)); };
    double mostVa = 1;
    for (const Circuit& c : session.solution().project.circuits)
        if (c.board == shown && !r.of(c.id).feeder)
            for (double va : r.of(c.id).phaseVa) mostVa = std::max(mostVa, va);
    if (two) {
        const double half = (width() - 2 * edge - busWidth) / 2;
        p.fillRect(QRectF(edge + half, edge, busWidth, bottom - edge), t.sunk);
    }
    for (int slot = 1; slot <= b->slots; ++slot) {
        const QRectF box = slotBox(slot);
        const CircuitId id = circuitAt(slot);
        const Circuit* c = session.solution().project.circuits.find(id);
        const Columns col = columns(slot);
        const int line = lineOfSlot(*b, slot);
        const bool top = !c || c->slot == slot;
        const bool way = b->form == BoardForm::Ways && (slot - 1) % 3 == 0;
        if (top && box.top() > edge + 1) {
            p.setPen(QPen(t.rule, way ? 1.8 : 1));
            p.drawLine(QPointF(b->form == BoardForm::Ways && !way ? col.breaker.left() - 4 : box.left(), box.top()), box.topRight());
        }
        if (way) drawLine(p, QRectF(col.number.left(), box.top(), col.number.width(), box.height() * std::min(3, b->slots - slot + 1)), QString::number((slot - 1) / 3 + 1), Qt::AlignRight, t.ink, uiFont(0.95, true));
        for (const Section& s : session.solution().project.sections)
            if (s.board == shown && s.from == slot && slot > 1) {
                p.setPen(QPen(t.quiet, 1.6));
                p.drawLine(box.topLeft(), box.topRight());
            }
        drawLine(p, col.letter, q(lineName(line, *b)), Qt::AlignHCenter, colour(line), uiFont(0.8, true));
        if (!c) {
            const bool here = slot == cursor && hasFocus();
            if (slot == cursor) {
                p.setPen(QPen(t.accent, 1, here ? Qt::SolidLine : Qt::DotLine));
                p.setBrush(Qt::NoBrush);
                p.drawRoundedRect(box.adjusted(1, 1, -1, -1), 3, 3);
            }
            QFont f = uiFont(0.92);
            f.setItalic(true);
            if (b->form != BoardForm::Ways) drawLine(p, col.number, QString::number(slot), two && slot % 2 == 0 ? Qt::AlignLeft : Qt::AlignRight, t.quiet, uiFont(0.88));
            drawLine(p, col.name, tr("Space"), two && slot % 2 == 0 ? Qt::AlignRight : Qt::AlignLeft, t.quiet, f);
        }
    }
    for (const Circuit& c : session.solution().project.circuits)
        if (c.board == shown && c.slot > 0 && circuitAt(c.slot) == c.id) paintCircuit(p, c, mostVa);
    if (dragging && target > 0) {
        p.setPen(QPen(plan.possible ? t.accent : t.stop, 2));
        p.setBrush(Qt::NoBrush);
        const Circuit* c = session.solution().project.circuits.find(grabbed);
        QRectF area = slotBox(target);
        for (int s : slotsTaken(*b, target, c ? c->poles : 1)) area = area.united(slotBox(s));
        p.drawRoundedRect(area.adjusted(1, 1, -1, -1), 3, 3);
        const QFont f = uiFont(0.92, true);
        const double w = std::min(QFontMetricsF(f).horizontalAdvance(effect) + 20, width() - 8.0);
        QRectF tip(std::clamp(area.center().x() - w / 2, 4.0, width() - w - 4), area.top() > 40 ? area.top() - 30 : area.bottom() + 6, w, 24);
        p.setPen(plan.possible ? t.accent : t.stop);
        p.setBrush(t.surface);
        p.drawRoundedRect(tip, 4, 4);
        drawLine(p, tip, effect, Qt::AlignHCenter, plan.possible ? t.accent : t.stop, f);
    }
}

void BoardView::paintCircuit(QPainter& p, const Circuit& c, double mostVa) {
    const Theme& t = theme();
    const Board& b = *data();
    const Solution& sol = session.solution();
    const CircuitResult& r = sol.results.of(c.id);
    const RunResult& run = *sol.results.run(c.id);
    QRectF area;
    for (int s : slotsTaken(b, c.slot, c.poles)) area = area.united(slotBox(s));
    const bool left = b.form != BoardForm::TwoColumn || c.slot % 2 == 1;
    const bool selected = std::find(session.selectionList().begin(), session.selectionList().end(), Ref(c.id)) != session.selectionList().end();
    if (selected) {
        p.setPen(QPen(t.accent, 1.2));
        p.setBrush(t.accentWash);
        p.drawRoundedRect(area.adjusted(1, 0.5, -1, -0.5), 3, 3);
        for (int s : slotsTaken(b, c.slot, c.poles)) drawLine(p, columns(s).letter, q(lineName(lineOfSlot(b, s), b)), Qt::AlignHCenter, t.phase(phaseInk(sol.project.basis, b.system, lineOfSlot(b, s))), uiFont(0.8, true));
    }
    const bool faded = dragging && c.id == grabbed;
    p.setOpacity(faded ? 0.4 : 1);
    Columns col = columns(c.slot);
    const auto tall = [&](QRectF box) { return QRectF(box.left(), area.top(), box.width(), area.height()); };
    const bool spare = c.use == CircuitUse::Spare;
    if (b.form != BoardForm::Ways) drawLine(p, tall(col.number), QString::number(c.slot), left ? Qt::AlignRight : Qt::AlignLeft, t.quiet, uiFont(0.88));
    // The breaker: a box with its rating; a pin mark where it must not move.
    QRectF br = QRectF(col.breaker.left(), area.center().y() - 8.5, col.breaker.width(), 17);
    const bool low = r.deviceHeld && r.device < r.required.v;
    p.setPen(QPen(low ? t.stop : c.heldBreaker && !spare ? t.quiet : t.rule, low ? 1.4 : 1));
    p.setBrush(spare ? t.surface : t.paper);
    p.drawRoundedRect(br, 3, 3);
    drawLine(p, br, q(deviceWords(r, c.poles, *sol.book)), Qt::AlignHCenter, low ? t.stop : t.ink, uiFont(0.86, true));
    if (c.pinned) {
        p.setPen(Qt::NoPen);
        p.setBrush(t.accent);
        const double px = left ? br.left() : br.right();
        p.drawEllipse(QPointF(px, br.top()), 3, 3);
    }
    QFont nf = uiFont(0.92);
    nf.setItalic(spare);
    const QString name = q(servesWords(sol.project, sol.results, c.id));
    drawLine(p, tall(col.name), name.isEmpty() ? tr("not described") : name, left ? Qt::AlignLeft : Qt::AlignRight, spare || name.isEmpty() ? t.quiet : t.ink, nf);
    if (!spare) {
        drawLine(p, tall(col.va), q(number(r.va)), Qt::AlignRight, t.ink, uiFont(0.9));
        const bool wide = b.form != BoardForm::TwoColumn;
        QString size = q(wide ? conductorWords(run, *sol.book) : sizeOf(run, *sol.book));
        size.remove(" kcmil");
        size.remove(" mm²");
        const bool bad = run.tooSmall || run.state == Sizing::PastCeiling || run.state == Sizing::NoneFits;
        const QColor colour = bad ? t.stop : run.why == Governing::VoltageDrop ? t.check : t.quiet;
        if (wide && run.earth->known && run.earth->limit > 0) // the loop and what it may be
            drawLine(p, tall(col.loop), QString("%1 of %2 Ω").arg(double(run.earth->zs), 0, 'f', 2).arg(double(run.earth->limit), 0, 'f', run.earth->limit > 100 ? 0 : 2), Qt::AlignLeft, run.earth->inTime ? t.quiet : t.stop, uiFont(0.85, !run.earth->inTime));
        drawLine(p, tall(col.size), size, left ? Qt::AlignLeft : Qt::AlignRight, colour, uiFont(0.85, bad));
    }
    for (int i = 0; i < c.poles; ++i) {
        const int s = slotOfPole(b, c.slot, i, c.poles), line = r.lines[std::size_t(i)];
        if (!s || line < 0) continue;
        const QRectF bar = columns(s).bar;
        const double va = r.feeder ? r.phaseVa[std::size_t(line)] : r.va / c.poles;
        const double w = std::min(1.0, va / mostVa) * bar.width();
        if (w < 0.5) continue;
        p.setPen(Qt::NoPen);
        p.setBrush(t.phase(phaseInk(sol.project.basis, b.system, line)));
        // Bars grow from the bus outwards.
        p.drawRect(QRectF(left && b.form == BoardForm::TwoColumn ? bar.right() - w : bar.left(), bar.center().y() - 4, w, 8));
    }
    p.setOpacity(1);
}

void BoardView::mousePressEvent(QMouseEvent* e) {
    setFocus();
    const int slot = slotAt(e->position());
    if (!slot) return;
    cursor = slot;
    pressed = e->position();
    const CircuitId c = circuitAt(slot);
    if (c) cursor = session.solution().project.circuits[c].slot;
    session.select(c ? Ref(c) : Ref(shown));
    grabbed = e->button() == Qt::LeftButton ? c : CircuitId{};
    dragging = false;
    update();
}

void BoardView::planDrop(int slot) {
    target = slot;
    const Solution& s = session.solution();
    const Circuit* c = s.project.circuits.find(grabbed);
    if (!c || slot <= 0) return;
    plan = planMove(s.project, grabbed, slot);
    if (!plan.possible) {
        effect = q(plan.reason);
        return;
    }
    const Arrangement now = asItStands(s.project, s.results, shown), then = arrangementOf(s.project, s.results, shown, plan.places);
    effect = tr("%1 to %2 · imbalance %3 → %4").arg(plan.swap ? tr("swap") : tr("shift")).arg(slot).arg(q(percent(now.imbalance)), q(percent(then.imbalance)));
}

void BoardView::mouseMoveEvent(QMouseEvent* e) {
    if (grabbed && (e->buttons() & Qt::LeftButton)) {
        if (!dragging && (e->position() - pressed).manhattanLength() > 6) dragging = true;
        if (dragging) {
            const int slot = slotAt(e->position());
            if (slot != target) planDrop(slot);
            setCursor(Qt::ClosedHandCursor);
            update();
        }
        return;
    }
    setCursor(circuitAt(slotAt(e->position())) ? Qt::OpenHandCursor : Qt::ArrowCursor);
}

void BoardView::mouseReleaseEvent(QMouseEvent* e) {
    if (dragging && target > 0) {
        const int slot = slotAt(e->position());
        planDrop(slot);
        if (slot > 0 && plan.possible) {
            const MovePlan doing = plan;
            const QString name = q(nameOf(session.project(), grabbed));
            cursor = slot;
            session.edit(plan.swap ? tr("Swap %1").arg(name) : tr("Move %1 to slot %2").arg(name).arg(slot), [&](Project& p) { applyMove(p, doing); });
        } else if (slot > 0 && !plan.reason.empty() && session.project().circuits[grabbed].slot != slot) {
            session.say(q(plan.reason), true);
        }
    }
    grabbed = {};
    dragging = false;
    target = 0;
    effect.clear();
    setCursor(Qt::ArrowCursor);
    update();
}

void BoardView::mouseDoubleClickEvent(QMouseEvent* e) {
    const int slot = slotAt(e->position());
    if (!slot) return;
    const CircuitId c = circuitAt(slot);
    cursor = c ? session.solution().project.circuits[c].slot : slot;
    if (c && columns(cursor).breaker.adjusted(-3, -200, 3, 200).contains(e->position())) startBreakerEdit();
    else startNameEdit();
}

CircuitId BoardView::ensureCircuit(Project& p, int slot) const {
    if (const CircuitId c = slotMap(p, shown)[std::size_t(slot)]) return c;
    const CircuitId c = addCircuit(p, shown, 1, "");
    p.circuits.change(c)->slot = slot;
    return c;
}

void BoardView::startNameEdit(const QString& begin) {
    if (!data() || cursor < 1) return;
    if (editor) editor->deleteLater();
    const CircuitId id = circuitAt(cursor);
    const Circuit* c = session.solution().project.circuits.find(id);
    if (c && session.solution().results.of(id).feeder) {
        session.say(tr("A feeder is called after what it feeds; rename the board."));
        return;
    }
    auto* line = new QLineEdit(begin.isEmpty() && c ? q(c->name) : begin, this);
    editor = line;
    line->setObjectName("nameEditor");
    closeOnEscape(line);
    QRectF box = columns(cursor).name.adjusted(-6, -1, 6, 1);
    line->setGeometry(box.toRect());
    line->setAlignment(data()->form == BoardForm::TwoColumn && cursor % 2 == 0 ? Qt::AlignRight : Qt::AlignLeft);
    if (begin.isEmpty()) line->selectAll();
    const int slot = cursor;
    connect(line, &QLineEdit::returnPressed, this, [this, line, slot] {
        commitName(line->text(), slot);
        line->deleteLater();
        setFocus();
        moveCursor(1, 0);
    });
    connect(line, &QLineEdit::editingFinished, line, [this, line, slot] {
        if (!line->hasFocus() && line->isModified() && editor == line) commitName(line->text(), slot);
        line->deleteLater();
    });
    line->show();
    line->setFocus();
}

void BoardView::commitName(const QString& text, int slot) {
    const QString name = text.trimmed();
    const CircuitId id = circuitAt(slot);
    if (!id && name.isEmpty()) return;
    if (name.compare("spare", Qt::CaseInsensitive) == 0) {
        session.edit(tr("Spare at slot %1").arg(slot), [&](Project& p) {
            Circuit& c = *p.circuits.change(ensureCircuit(p, slot));
            c.use = CircuitUse::Spare;
            c.name.clear();
        });
        return;
    }
    session.edit(id ? tr("Describe circuit") : tr("Add circuit"), [&](Project& p) {
        Circuit& c = *p.circuits.change(ensureCircuit(p, slot));
        c.name = name.toStdString();
        if (c.use == CircuitUse::Spare) c.use = CircuitUse::Load;
        if (!c.run) c.run = p.runs.add({});
    });
}

void BoardView::startBreakerEdit() {
    const CircuitId id = circuitAt(cursor);
    const Circuit* c = session.solution().project.circuits.find(id);
    if (!c) return;
    if (editor) editor->deleteLater();
    auto* line = new QLineEdit(q(breakerWords(session.solution().results.of(id).device, c->poles)), this);
    editor = line;
    line->setObjectName("breakerEditor");
    closeOnEscape(line);
    const QRectF box = columns(cursor).breaker;
    line->setGeometry(QRectF(box.left() - 4, box.center().y() - 13, box.width() + 26, 26).toRect());
    line->setToolTip(tr("20, 30/2 for two poles, or auto"));
    line->selectAll();
    connect(line, &QLineEdit::returnPressed, this, [this, line, id] {
        const QString text = line->text().trimmed();
        line->deleteLater();
        setFocus();
        const bool automatic = text.isEmpty() || text.toLower() == "auto";
        bool ok = false;
        const double amps = text.section('/', 0, 0).toDouble(&ok);
        const Circuit& k = session.project().circuits[id];
        const int poles = text.contains('/') ? text.section('/', 1).toInt() : k.poles;
        if (!automatic && (!ok || amps < 1 || amps > 6000 || poles < 1 || poles > 3)) return session.say(tr("“%1” is not a breaker: type 20, 30/2 or auto").arg(text), true);
        if (poles > factsOf(session.project().boards[k.board].system).lines) return session.say(tr("the board has no %1 lines").arg(poles), true);
        Project trial = session.project();
        trial.circuits.change(id)->poles = poles;
        trial.circuits.change(id)->slot = 0;
        const int slot = poles == k.poles || planMove(trial, id, k.slot).possible ? k.slot : firstFreeSlot(trial, k.board, poles, id);
        if (!slot) return session.say(tr("there is no place for %1 poles").arg(poles), true);
        session.edit(tr("Breaker of %1").arg(q(nameOf(session.project(), id))), [&](Project& p) {
            Circuit& x = *p.circuits.change(id);
            if (automatic) x.heldBreaker.reset();
            else x.heldBreaker = amps;
            x.poles = poles;
            x.slot = slot;
        });
    });
    connect(line, &QLineEdit::editingFinished, line, &QObject::deleteLater);
    line->show();
    line->setFocus();
}

void BoardView::moveCursor(int down, int sideways) {
    const Board* b = data();
    if (!b) return;
    const int step = b->form == BoardForm::TwoColumn ? 2 : 1;
    int to = std::max(1, cursor);
    const CircuitId here = circuitAt(to);
    if (down) {
        to += down * step;
        while (to >= 1 && to <= b->slots && here && circuitAt(to) == here) to += (down > 0 ? step : -step);
    }
    if (sideways && step == 2) to += to % 2 == 1 ? (sideways > 0 ? 1 : 0) : (sideways < 0 ? -1 : 0);
    if (to < 1 || to > b->slots) return;
    const CircuitId c = circuitAt(to);
    cursor = c ? session.solution().project.circuits[c].slot : to;
    session.select(c ? Ref(c) : Ref(shown));
    update();
}

bool BoardView::event(QEvent* e) {
    // Letters typed here describe a circuit; they are not the stages' or the plan's shortcuts.
    if (e->type() == QEvent::ShortcutOverride) {
        auto* k = static_cast<QKeyEvent*>(e);
        if (!k->text().isEmpty() && k->text().at(0).isPrint() && !(k->modifiers() & (Qt::ControlModifier | Qt::AltModifier))) {
            e->accept();
            return true;
        }
    }
    return QWidget::event(e);
}

void BoardView::keyPressEvent(QKeyEvent* e) {
    const CircuitId id = circuitAt(cursor);
    if (e->key() == Qt::Key_Escape && dragging) {
        grabbed = {};
        dragging = false;
        target = 0;
        update();
    } else if (e->key() == Qt::Key_Up) moveCursor(-1, 0);
    else if (e->key() == Qt::Key_Down) moveCursor(1, 0);
    else if (e->key() == Qt::Key_Left) moveCursor(0, -1);
    else if (e->key() == Qt::Key_Right) moveCursor(0, 1);
    else if (e->key() == Qt::Key_F2 || e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) startNameEdit();
    else if (e->key() == Qt::Key_F3) startBreakerEdit();
    else if (e->key() == Qt::Key_Delete && id) session.edit(tr("Remove circuit"), [&](Project& p) { removeCircuit(p, id); });
    else if (!e->text().isEmpty() && e->text().at(0).isPrint() && !(e->modifiers() & (Qt::ControlModifier | Qt::AltModifier))) startNameEdit(e->text());
    else QWidget::keyPressEvent(e);
}

void BoardView::contextMenuEvent(QContextMenuEvent* e) {
    const int slot = slotAt(e->pos());
    if (!slot) return;
    const CircuitId id = circuitAt(slot);
    cursor = id ? session.solution().project.circuits[id].slot : slot;
    QMenu menu(this);
    if (id) {
        const Circuit& c = session.project().circuits[id];
        menu.addAction(tr("Describe\tF2"), this, [this] { startNameEdit(); });
        menu.addAction(tr("Rate the breaker\tF3"), this, [this] { startBreakerEdit(); });
        menu.addAction(c.pinned ? tr("Unpin") : tr("Pin"), this, [=, this] { session.edit(c.pinned ? tr("Unpin") : tr("Pin"), [&](Project& p) { p.circuits.change(id)->pinned = !p.circuits[id].pinned; }); });
        if (c.use == CircuitUse::Load && session.solution().results.of(id).va == 0)
            menu.addAction(tr("Make it a spare"), this, [=, this] { session.edit(tr("Make spare"), [&](Project& p) { p.circuits.change(id)->use = CircuitUse::Spare; }); });
        menu.addAction(tr("Remove: leave a space\tDel"), this, [=, this] { session.edit(tr("Remove circuit"), [&](Project& p) { removeCircuit(p, id); }); });
    } else {
        for (int poles : {1, 2, 3})
            if (poles <= factsOf(data()->system).lines && !slotsTaken(*data(), slot, poles).empty())
                menu.addAction(tr("Add a %1-pole circuit").arg(poles), this, [=, this] {
                    session.edit(tr("Add circuit"), [&](Project& p) {
                        const CircuitId c = addCircuit(p, shown, poles, "");
                        Project trial = p;
                        trial.circuits.change(c)->slot = 0;
                        if (planMove(trial, c, slot).possible) p.circuits.change(c)->slot = slot;
                    });
                });
        menu.addAction(tr("Spare breaker"), this, [=, this] { commitName("spare", slot); });
    }
    menu.exec(e->globalPos());
}

// ---- loads dropped from the tray ----

void BoardView::dragEnterEvent(QDragEnterEvent* e) {
    if (e->mimeData()->hasFormat(mimeType)) e->acceptProposedAction();
}
void BoardView::dragMoveEvent(QDragMoveEvent* e) {
    const int slot = slotAt(e->position());
    if (slot && !circuitAt(slot)) e->acceptProposedAction();
    else e->ignore();
    cursor = slot;
    update();
}
void BoardView::dragLeaveEvent(QDragLeaveEvent*) { update(); }
void BoardView::dropEvent(QDropEvent* e) {
    const int slot = slotAt(e->position());
    const Ref thing = refFrom(e->mimeData()->data(mimeType).toStdString());
    if (!slot || !thing) return;
    session.edit(tr("Feed %1").arg(q(nameOf(session.project(), thing))), [&](Project& p) {
        CircuitId c;
        if (const LoadId l = thing.as<Load>()) {
            c = circuitLoad(p, l, shown, slot);
        } else if (const DeviceId d = thing.as<Device>()) {
            c = circuitToBoard(p, {d}, shown);
            Project trial = p;
            trial.circuits.change(c)->slot = 0;
            if (planMove(trial, c, slot).possible) p.circuits.change(c)->slot = slot;
        }
    });
    e->acceptProposedAction();
}

} // namespace lintel
