#include "app/boards/BoardView.h"

#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/Slots.h"

#include <QLineEdit>
#include <QScrollArea>

namespace lintel {

namespace {
constexpr double busWidth = 11, edge = 4, leastRow = 19;
}

BoardView::BoardView(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAcceptDrops(true);
    setObjectName("boardView");
    connect(&session, &Session::solved, this, [this] { show(shown); });
    connect(&session, &Session::selectionChanged, this, [this] {
        if (const Circuit* c = session.project().circuits.find(session.selection().as<Circuit>());
            c && c->board == shown && c->slot > 0 && session.selectionList().size() == 1)
            cursor = anchor = c->slot, revealCursor();
        update();
    });
}

void BoardView::revealCursor() {
    const QRectF box = slotBox(cursor);
    if (box.isEmpty()) return;
    for (QWidget* w = parentWidget(); w; w = w->parentWidget())
        if (auto* area = qobject_cast<QScrollArea*>(w))
            return area->ensureVisible(int(box.center().x()), int(box.center().y()), 0, int(box.height() * 1.5));
}

const Board* BoardView::data() const { return session.solution().project.boards.find(shown); }

void BoardView::show(BoardId b) {
    if (b != shown && editor) editor->deleteLater();
    if (b != shown) cursor = anchor = 0, factIndex = 0;
    shown = b;
    const Solution& s = session.solution();
    const auto own = s.results.on(b);
    const Board* board = s.project.boards.find(b);
    map = board ? slotMap(s.project, *board, own) : std::vector<CircuitId>(1);
    here.assign(own.begin(), own.end());
    if (cursor >= int(map.size())) cursor = anchor = 0;
    updateGeometry();
    update();
}

int BoardView::rows() const {
    const Board* b = data();
    return !b ? 0 : b->form == BoardForm::TwoColumn ? (b->slots + 1) / 2 : b->slots;
}
double BoardView::rowHeight() const {
    const int n = std::max(1, rows());
    return std::clamp((height() - 2 * edge) / double(n), leastRow, 25.0);
}
QSize BoardView::minimumSizeHint() const { return {430, int(std::max(1, rows()) * leastRow + 2 * edge)}; }
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
    const bool narrow = r.width() < 300; // two boards beside one another: the description comes first
    const double bar = narrow ? 20 : std::clamp(r.width() * 0.125, 34.0, 62.0);
    Columns c;
    double x = left ? r.left() : r.right();
    const auto take = [&](double w, double gap = 0) {
        const QRectF box(left ? x : x - w, r.top(), w, r.height());
        x += (left ? 1 : -1) * (w + gap);
        return box;
    };
    c.number = take(narrow ? 17 : 21, narrow ? 3 : 5);
    c.breaker = take(31, narrow ? 5 : 7);
    const bool wide = data()->form != BoardForm::TwoColumn; // one below another: room for the cable and the loop
    const double size = wide ? (r.width() > 560 ? 118 : 96) : narrow ? 0 : 36, loop = wide ? 86 : 0, va = 42;
    const double taken = c.number.width() + (narrow ? 3 : 5) + c.breaker.width() + (narrow ? 5 : 7);
    const double rest = 13 + 4 + bar + 4 + va + size + loop + (wide ? 22 : 7);
    c.name = take(std::max(40.0, r.width() - taken - rest - (narrow ? 4 : 0)), narrow ? 8 : 4);
    c.va = take(va, wide ? 10 : 5);
    c.size = take(size, narrow ? 0 : wide ? 6 : 2);
    c.loop = take(loop, 0);
    c.letter = take(13, 4);
    c.bar = take(bar, 0);
    return c;
}

QRectF BoardView::factBox(int slot, const char* key) const {
    const Columns c = columns(slot);
    const std::string_view k = key;
    return k == "load"      ? c.va
           : k == "breaker" ? c.breaker
           : k == "size"    ? c.size
           : k == "length"  ? (c.loop.width() > 0 ? c.loop : c.bar)
                            : c.name;
}

CircuitId BoardView::circuitAt(int slot) const {
    return slot > 0 && slot < int(map.size()) ? map[std::size_t(slot)] : CircuitId{};
}

void BoardView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.setPen(t.rule);
    p.setBrush(t.surface);
    const Board* b = data();
    if (!b) {
        drawLine(p, QRectF(rect()).adjusted(20, 0, -20, 0), tr("No board yet: Project ▸ Add board"), Qt::AlignHCenter,
                 t.quiet, uiFont(1));
        return;
    }
    if (passesOn(b->use)) {
        drawLine(p, QRectF(rect()).adjusted(20, 0, -20, 0),
                 tr("%1 has no circuits of its own: it passes on what it is fed").arg(q(b->name)), Qt::AlignHCenter,
                 t.quiet, uiFont(1));
        return;
    }
    const double h = rowHeight(), bottom = edge + rows() * h;
    p.drawRoundedRect(QRectF(0.5, 0.5, width() - 1, bottom + edge - 1), 4, 4);
    const bool two = b->form == BoardForm::TwoColumn;
    const Results& r = session.solution().results;
    const auto colour = [&](int line) { return t.phase(phaseInk(session.solution().project.basis, b->system, line)); };
    double mostVa = 1;
    for (CircuitId c : here)
        if (!r.of(c).feeder)
            for (double va : r.of(c).phaseVa) mostVa = std::max(mostVa, va);
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
            p.drawLine(QPointF(b->form == BoardForm::Ways && !way ? col.breaker.left() - 4 : box.left(), box.top()),
                       box.topRight());
        }
        for (const Section& s : session.solution().project.sections)
            if (s.board == shown && s.from == slot && slot > 1) {
                p.setPen(QPen(t.quiet, 1.6));
                p.drawLine(box.topLeft(), box.topRight());
            }
        drawLine(p, col.letter, q(lineName(line, *b)), Qt::AlignHCenter, colour(line), uiFont(0.8, true));
        if (!c) {
            const bool current = slot == cursor && hasFocus();
            if (slot == cursor) {
                p.setPen(QPen(t.accent, 1, current ? Qt::SolidLine : Qt::DotLine));
                p.setBrush(Qt::NoBrush);
                p.drawRoundedRect(box.adjusted(1, 1, -1, -1), 3, 3);
            }
            QFont f = uiFont(0.92);
            f.setItalic(true);
            if (b->form != BoardForm::Ways)
                drawLine(p, col.number, QString::number(slot), two && slot % 2 == 0 ? Qt::AlignLeft : Qt::AlignRight,
                         t.quiet, uiFont(0.88));
            drawLine(p, col.name, tr("Space"), two && slot % 2 == 0 ? Qt::AlignRight : Qt::AlignLeft, t.quiet, f);
        }
    }
    for (CircuitId id : here)
        if (const Circuit& c = session.solution().project.circuits[id]; c.slot > 0 && circuitAt(c.slot) == id)
            paintCircuit(p, c, mostVa);
    for (int slot = 1; b->form == BoardForm::Ways && slot <= b->slots; slot += 3) { // over the wash of what is chosen
        const QRectF number = columns(slot).number;
        drawLine(
            p, QRectF(number.left(), number.top(), number.width(), number.height() * std::min(3, b->slots - slot + 1)),
            QString::number((slot - 1) / 3 + 1), Qt::AlignRight, t.ink, uiFont(0.95, true));
    }
    paintGroups(p);
    if (cursor > 0 && hasFocus() && !dragging) { // the fact that typing edits
        QRectF box = factBox(cursor, fact());
        if (const Circuit* c = session.solution().project.circuits.find(
                circuitAt(cursor))) // below the whole of it, not through its middle
            for (int s : slotsTaken(*b, c->slot, c->poles)) box.setBottom(std::max(box.bottom(), slotBox(s).bottom()));
        p.setPen(QPen(t.accent, 1.6));
        p.drawLine(QPointF(box.left(), box.bottom() - 1.5), QPointF(box.right(), box.bottom() - 1.5));
    }
    if (target > 0)
        paintPlan(p);
    else
        for (const auto& [id, slot] : proposed) paintGhost(p, id, slot, false);
}

void BoardView::propose(std::vector<std::pair<CircuitId, int>> places) {
    proposed = std::move(places);
    update();
}

/// A circuit where it would come to stand, with where it comes from.
QRectF BoardView::paintGhost(QPainter& p, CircuitId id, int slot, bool mine) {
    const Theme& t = theme();
    const Board& b = *data();
    const Solution& s = session.solution();
    const Circuit* c = s.project.circuits.find(id);
    const auto taken = c ? slotsTaken(b, slot, c->poles) : std::vector<int>{};
    if (taken.empty()) return {};
    QRectF box = slotBox(taken.front());
    for (int x : taken) box = box.united(slotBox(x));
    p.setPen(QPen(t.accent, mine ? 2 : 1.2, mine ? Qt::SolidLine : Qt::DashLine));
    p.setBrush(mine ? t.accentWash : t.surface);
    p.drawRoundedRect(box.adjusted(1, 1, -1, -1), 3, 3);
    const QString from = c->board == shown ? tr("%1 ← %2").arg(slot).arg(c->slot)
                                           : tr("%1 ← %2").arg(slot).arg(q(nameOf(s.project, id)));
    drawLine(p, box.adjusted(8, 0, -8, 0), from + "   " + q(servesWords(s.project, s.results, id)),
             b.form != BoardForm::TwoColumn || slot % 2 == 1 ? Qt::AlignLeft : Qt::AlignRight, t.accent,
             uiFont(0.9, mine));
    return box;
}

/// Breakers whose handles are tied or that share a neutral, and circuits kept together: a bracket beside their numbers.
void BoardView::paintGroups(QPainter& p) {
    const Theme& t = theme();
    const Solution& s = session.solution();
    const Board& b = *data();
    struct Sort {
        int Circuit::*number;
        Qt::PenStyle pen;
        double width;
    };
    for (const Sort& sort : {Sort{&Circuit::tie, Qt::SolidLine, 2.2},
                             {&Circuit::multiwire, Qt::DashLine, 1.4},
                             {&Circuit::kept, Qt::DotLine, 1.6}}) {
        std::map<int, std::vector<int>> groups;
        for (CircuitId id : here)
            if (const Circuit& c = s.project.circuits[id]; c.*sort.number && c.slot > 0)
                groups[c.*sort.number].push_back(c.slot);
        for (auto& [number, group] : groups) {
            std::sort(group.begin(), group.end());
            p.setPen(QPen(t.accent, sort.width, sort.pen));
            for (std::size_t i = 1; i < group.size(); ++i) {
                const bool oneColumn = b.form != BoardForm::TwoColumn || group[i] % 2 == group[i - 1] % 2;
                if (!oneColumn) continue;
                const QRectF from = columns(group[i - 1]).breaker, to = columns(group[i]).breaker;
                const double x =
                    from.left() + (b.form != BoardForm::TwoColumn || group[i] % 2 == 1 ? 5 : from.width() - 5);
                p.drawLine(QPointF(x, from.center().y() + 7), QPointF(x, to.center().y() - 7));
            }
        }
    }
}

/// Where everything would come to stand, and what that does to the phases.
void BoardView::paintPlan(QPainter& p) {
    const Theme& t = theme();
    QRectF area = slotBox(target);
    if (plan.possible)
        for (const auto& [id, slot] : plan.places) {
            const bool mine = std::find(dragged.begin(), dragged.end(), id) != dragged.end();
            const QRectF box = paintGhost(p, id, slot, mine);
            if (mine && slot == target) area = box;
        }
    else {
        p.setPen(QPen(t.stop, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(area.adjusted(1, 1, -1, -1), 3, 3);
    }
    const QFont f = uiFont(0.92, true);
    const double w = std::min(QFontMetricsF(f).horizontalAdvance(effect) + 20, width() - 8.0);
    QRectF tip(std::clamp(area.center().x() - w / 2, 4.0, width() - w - 4),
               area.top() > 40 ? area.top() - 30 : area.bottom() + 6, w, 24);
    p.setPen(plan.possible ? t.accent : t.stop);
    p.setBrush(t.surface);
    p.drawRoundedRect(tip, 4, 4);
    drawLine(p, tip, effect, Qt::AlignHCenter, plan.possible ? t.accent : t.stop, f);
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
    const bool selected = isChosen(c.id);
    if (selected) {
        p.setPen(QPen(t.accent, 1.2));
        p.setBrush(t.accentWash);
        p.drawRoundedRect(area.adjusted(1, 0.5, -1, -0.5), 3, 3);
        for (int s : slotsTaken(b, c.slot, c.poles))
            drawLine(p, columns(s).letter, q(lineName(lineOfSlot(b, s), b)), Qt::AlignHCenter,
                     t.phase(phaseInk(sol.project.basis, b.system, lineOfSlot(b, s))), uiFont(0.8, true));
    }
    const bool faded = std::find(dragged.begin(), dragged.end(), c.id) != dragged.end() ||
                       std::any_of(proposed.begin(), proposed.end(), [&](const auto& x) { return x.first == c.id; });
    p.setOpacity(faded ? 0.4 : 1);
    Columns col = columns(c.slot);
    const auto tall = [&](QRectF box) { return QRectF(box.left(), area.top(), box.width(), area.height()); };
    const bool spare = c.use != CircuitUse::Load, reserved = c.use == CircuitUse::Reserved;
    if (b.form != BoardForm::Ways)
        drawLine(p, tall(col.number), QString::number(c.slot), left ? Qt::AlignRight : Qt::AlignLeft, t.quiet,
                 uiFont(0.88));
    // The breaker: a box with its rating; a pin mark where it must not move.
    QRectF br = QRectF(col.breaker.left(), area.center().y() - 8.5, col.breaker.width(), 17);
    const bool low = r.deviceHeld && r.device < r.required.v;
    p.setPen(QPen(low                       ? t.stop
                  : c.heldBreaker && !spare ? t.quiet
                                            : t.rule,
                  low ? 1.4 : 1, reserved ? Qt::DotLine : Qt::SolidLine));
    p.setBrush(spare ? t.surface : t.paper);
    p.drawRoundedRect(br, 3, 3);
    if (!reserved)
        drawLine(p, br, q(deviceWords(r, c.poles, *sol.book)), Qt::AlignHCenter, low ? t.stop : t.ink,
                 uiFont(0.86, true));
    if (c.pinned) {
        p.setPen(Qt::NoPen);
        p.setBrush(t.accent);
        const double px = left ? br.left() : br.right();
        p.drawEllipse(QPointF(px, br.top()), 3, 3);
    }
    QFont nf = uiFont(0.92);
    nf.setItalic(spare);
    const QString name = q(servesWords(sol.project, sol.results, c.id));
    if (area.width() < 300) nf = uiFont(0.86), nf.setItalic(spare);
    drawLine(p, tall(col.name), name.isEmpty() ? tr("not described") : name, left ? Qt::AlignLeft : Qt::AlignRight,
             spare || name.isEmpty() ? t.quiet : t.ink, nf);
    if (!spare) {
        drawLine(p, tall(col.va), r.nothingHangsOn() ? tr("–") : q(number(r.va)), Qt::AlignRight, t.ink, uiFont(0.9));
        const bool wide = b.form != BoardForm::TwoColumn;
        QString size = q(wide ? conductorWords(run, *sol.book) : sizeOf(run, *sol.book));
        size.remove(" kcmil");
        size.remove(" mm²");
        const bool bad = run.tooSmall || run.state == Sizing::PastCeiling || run.state == Sizing::NoneFits;
        const QColor colour = bad ? t.stop : run.why == Governing::VoltageDrop ? t.check : t.quiet;
        if (wide && run.earth->known && run.earth->limit > 0) // the loop and what it may be
            drawLine(p, tall(col.loop),
                     QString("%1 of %2 Ω")
                         .arg(double(run.earth->zs), 0, 'f', 2)
                         .arg(double(run.earth->limit), 0, 'f', run.earth->limit > 100 ? 0 : 2),
                     Qt::AlignLeft, run.earth->inTime ? t.quiet : t.stop, uiFont(0.85, !run.earth->inTime));
        if (col.size.width() > 1)
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
        p.drawRect(
            QRectF(left && b.form == BoardForm::TwoColumn ? bar.right() - w : bar.left(), bar.center().y() - 4, w, 8));
    }
    p.setOpacity(1);
}

} // namespace lintel
