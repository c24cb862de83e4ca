// The board under mouse and keyboard: going through it, dragging, editing in the row, and the commands on what is
// chosen.
#include "app/boards/BoardView.h"
#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/copy/CircuitBlock.h"
#include "core/figures/Words.h"
#include "core/project/Slots.h"

#include <QApplication>
#include <QClipboard>
#include <QContextMenuEvent>
#include <QDragEnterEvent>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMenu>
#include <QMimeData>
#include <QMouseEvent>

#include <set>

namespace lintel {

namespace {
/// The facts that Tab goes through, in the order of the row.
constexpr const char* rowFacts[] = {"serves", "load", "breaker", "size", "length"};
} // namespace

const char* BoardView::fact() const { return rowFacts[factIndex]; }

const std::vector<BoardView::Command>& BoardView::commands() {
    static const std::vector<Command> list{
        {"circuitInsert", tr("Insert a free row"), QKeySequence("Ins"), &BoardView::insertRow},
        {"circuitDuplicate", tr("Duplicate"), QKeySequence("Ctrl+Ins"), &BoardView::duplicate},
        {"circuitSwap", tr("Swap two"), QKeySequence("F6"), &BoardView::swapTwo},
        {"circuitFillDown", tr("Fill down from the first"), QKeySequence("F4"), &BoardView::fillDownChosen},
        {"circuitGroup", tr("Change many…"), QKeySequence("Ctrl+Return"), &BoardView::groupEditWanted},
        {"circuitTie", tr("Tie or untie handles"), QKeySequence("Ctrl+T"), &BoardView::tie},
        {"circuitSpare", tr("Make it a spare"), QKeySequence("F7"), &BoardView::makeSpare},
        {"circuitReserve", tr("Reserve the place"), QKeySequence("F8"), &BoardView::reserve},
        {"circuitRefeed", tr("Feed from another board…"), QKeySequence("Ctrl+M"), &BoardView::refeedWanted},
        {"circuitRemove", tr("Remove: leave a space"), QKeySequence("Del"), &BoardView::removeChosen}};
    return list;
}

// ---- going through it ----

bool BoardView::isChosen(CircuitId c) const {
    return std::find(session.selectionList().begin(), session.selectionList().end(), Ref(c)) !=
           session.selectionList().end();
}

std::vector<CircuitId> BoardView::chosen() const {
    std::vector<CircuitId> list;
    const Project& p = session.project();
    for (Ref r : session.selectionList())
        if (const Circuit* c = p.circuits.find(r.as<Circuit>()); c && c->board == shown) list.push_back(c->id);
    if (list.empty())
        if (const CircuitId c = circuitAt(cursor); c && p.circuits.has(c)) list.push_back(c);
    std::sort(list.begin(), list.end(), [&](CircuitId a, CircuitId b) {
        const auto key =
            [&](CircuitId c) { // down the left column, then down the right one, as one reads a column to fill it
                const int slot = p.circuits[c].slot;
                const Board* board = p.boards.find(shown);
                return board && board->form == BoardForm::TwoColumn ? std::pair(1 - slot % 2, slot)
                                                                    : std::pair(0, slot);
            };
        return key(a) < key(b);
    });
    return list;
}

void BoardView::goTo(int slot, const char* factKey) {
    const Board* b = data();
    if (!b || slot < 1 || slot > b->slots) return;
    for (std::size_t i = 0; i < std::size(rowFacts); ++i)
        if (factKey && std::string_view(rowFacts[i]) == factKey) factIndex = i;
    select(slot, false, false);
}

/// `extend`: everything from the anchor to here, in the columns between; `toggle`: this one more or less.
void BoardView::select(int slot, bool extend, bool toggle) {
    const Board* b = data();
    if (!b) return;
    const CircuitId at = circuitAt(slot);
    cursor = at ? session.solution().project.circuits[at].slot : slot;
    if (extend && anchor > 0) {
        std::vector<Ref> refs;
        const auto row = [&](int s) { return b->form == BoardForm::TwoColumn ? (s + 1) / 2 : s; };
        const int top = std::min(row(anchor), row(slot)), bottom = std::max(row(anchor), row(slot));
        const bool both = b->form == BoardForm::TwoColumn && anchor % 2 != slot % 2;
        for (int s = 1; s <= b->slots; ++s) {
            if (row(s) < top || row(s) > bottom || (!both && b->form == BoardForm::TwoColumn && s % 2 != anchor % 2))
                continue;
            if (const CircuitId c = circuitAt(s); c && std::find(refs.begin(), refs.end(), Ref(c)) == refs.end())
                refs.push_back(c);
        }
        if (at) { // the one at the cursor stands for all
            refs.erase(std::remove(refs.begin(), refs.end(), Ref(at)), refs.end());
            refs.insert(refs.begin(), at);
        }
        session.select(refs.empty() ? std::vector<Ref>{Ref(shown)} : refs);
    } else if (toggle) {
        anchor = cursor;
        if (!at) return;
        std::vector<Ref> refs;
        for (Ref r : session.selectionList())
            if (r.is<Circuit>() && r != Ref(at)) refs.push_back(r);
        if (!isChosen(at)) refs.insert(refs.begin(), at);
        session.select(refs.empty() ? std::vector<Ref>{Ref(shown)} : refs);
    } else {
        anchor = cursor;
        session.select(at ? Ref(at) : Ref(shown));
    }
    revealCursor();
    update();
}

void BoardView::selectAll() {
    std::vector<Ref> refs;
    for (CircuitId c : here)
        if (session.solution().project.circuits[c].slot > 0) refs.push_back(c);
    if (!refs.empty()) session.select(refs);
}

void BoardView::moveCursor(int down, int sideways, bool extend) {
    const Board* b = data();
    if (!b) return;
    const int step = b->form == BoardForm::TwoColumn ? 2 : 1;
    int to = std::max(1, cursor);
    if (cursor == 0) return select(1, false, false);
    const CircuitId at = circuitAt(to);
    if (down) {
        to += down * step;
        while (to >= 1 && to <= b->slots && at && circuitAt(to) == at) to += (down > 0 ? step : -step);
    }
    if (sideways && step == 2)
        to += to % 2 == 1 ? (sideways > 0 ? 1 : 0) : (sideways < 0 ? -1 : 0);
    else if (sideways)
        return moveFact(sideways);
    if (to < 1 || to > b->slots) return;
    select(to, extend, false);
}

/// The next fact of the row; past the last one, the first of the next row.
void BoardView::moveFact(int by) {
    const int to = int(factIndex) + by;
    if (to >= 0 && to < int(std::size(rowFacts))) {
        factIndex = std::size_t(to);
        update();
        return;
    }
    factIndex = to < 0 ? std::size(rowFacts) - 1 : 0;
    moveCursor(to < 0 ? -1 : 1, 0, false);
    update();
}

void BoardView::focusInEvent(QFocusEvent* e) {
    QWidget::focusInEvent(e);
    Q_EMIT entered();
    update();
}

// ---- mouse ----

void BoardView::mousePressEvent(QMouseEvent* e) {
    setFocus();
    began.reset();
    const int slot = slotAt(e->position());
    if (!slot) return;
    pressed = e->position();
    const CircuitId c = circuitAt(slot);
    const bool extend = e->modifiers() & Qt::ShiftModifier, toggle = e->modifiers() & Qt::ControlModifier;
    for (std::size_t i = 0; i < std::size(rowFacts); ++i)
        if (factBox(slot, rowFacts[i]).adjusted(-2, -200, 2, 200).contains(e->position())) factIndex = i;
    // A press on one of several that are chosen may begin to drag them all.
    if (!(c && isChosen(c) && session.selectionList().size() > 1 && !extend && !toggle))
        select(slot, extend, toggle);
    else
        cursor = session.solution().project.circuits[c].slot;
    grabbed = e->button() == Qt::LeftButton && !extend && !toggle ? c : CircuitId{};
    dragging = false;
    update();
}

void BoardView::planDrop(const std::vector<CircuitId>& circuits, int slot) {
    target = slot;
    dragged = circuits;
    effect.clear();
    const Solution& s = session.solution();
    if (slot <= 0 || circuits.empty()) return;
    plan = planMove(s.project, circuits, shown, slot);
    if (!plan.possible) {
        effect = q(plan.reason);
        return;
    }
    const Arrangement now = asItStands(s.project, s.results, shown),
                      then = arrangementOf(s.project, s.results, shown, plan.places);
    effect = plan.swap ? tr("swap to %1").arg(slot) : tr("shift to %1").arg(slot);
    if (plan.pushed && !plan.swap) effect += tr(" · %1 make room").arg(plan.pushed);
    effect += tr(" · imbalance %1 → %2").arg(q(percent(now.imbalance)), q(percent(then.imbalance)));
    const Circuit& first = s.project.circuits[circuits.front()];
    if (first.board != shown) {
        std::vector<std::pair<CircuitId, int>> leaving;
        for (const auto& [c, to] : plan.places)
            if (s.project.circuits[c].board == first.board) leaving.push_back({c, 0});
        effect += tr(" · %1 %2 → %3")
                      .arg(q(s.project.boards[first.board].name),
                           q(percent(asItStands(s.project, s.results, first.board).imbalance)),
                           q(percent(arrangementOf(s.project, s.results, first.board, leaving).imbalance)));
    }
}

void BoardView::endDrag() {
    for (BoardView* v : {this, peer}) {
        if (!v) continue;
        v->grabbed = {};
        v->dragging = false;
        v->target = 0;
        v->dragged.clear();
        v->effect.clear();
        v->setCursor(Qt::ArrowCursor);
        v->update();
    }
}

void BoardView::mouseMoveEvent(QMouseEvent* e) {
    if (!grabbed || !(e->buttons() & Qt::LeftButton)) {
        setCursor(circuitAt(slotAt(e->position())) ? Qt::OpenHandCursor : Qt::ArrowCursor);
        return;
    }
    if (!dragging && (e->position() - pressed).manhattanLength() > 6) dragging = true;
    if (!dragging) return;
    std::vector<CircuitId> moving{grabbed};
    if (isChosen(grabbed))
        for (CircuitId c : chosen())
            if (c != grabbed) moving.push_back(c);
    const int slot = slotAt(e->position());
    const auto over = [&](BoardView* v, int at) {
        if (at != v->target || v->dragged.empty()) v->planDrop(moving, at);
        v->update();
    };
    const int there = peer && peer->isVisible() ? peer->slotAt(peer->mapFromGlobal(e->globalPosition())) : 0;
    if (there && peer->visibleRegion().contains(peer->mapFromGlobal(e->globalPosition()).toPoint())) {
        target = 0, effect.clear(), dragged = moving;
        over(peer, there);
        effect = peer->effect;
    } else {
        if (peer) peer->target = 0, peer->dragged.clear(), peer->effect.clear(), peer->update();
        over(this, slot);
    }
    setCursor(Qt::ClosedHandCursor);
    update();
}

bool BoardView::move(const QString& label, const MovePlan& doing) {
    if (!doing.possible) {
        session.say(q(doing.reason), true);
        return false;
    }
    return session.edit(label, [&](Project& p) { applyMove(p, doing); });
}

void BoardView::mouseReleaseEvent(QMouseEvent* e) {
    if (!dragging) {
        // A plain click on one of several chosen chooses it alone.
        if (grabbed && isChosen(grabbed) && session.selectionList().size() > 1 && slotAt(e->position()))
            select(slotAt(e->position()), false, false);
        grabbed = {};
        return;
    }
    BoardView* on = peer && peer->target > 0 ? peer : this;
    const int slot = on->target;
    const CircuitId first = grabbed;
    const bool over = on == this ? slotAt(e->position()) > 0 : true;
    const MovePlan doing = on->plan;
    const std::size_t count = on->dragged.size();
    endDrag();
    if (!slot || !over) return;
    const Circuit& c = session.project().circuits[first];
    if (on == this && c.slot == slot) return;
    const QString name = count > 1 ? tr("%1 circuits").arg(count) : q(nameOf(session.project(), first));
    if (move(doing.swap   ? tr("Swap %1").arg(name)
             : on == this ? tr("Move %1 to slot %2").arg(name).arg(slot)
                          : tr("Move %1 to %2").arg(name, q(session.project().boards[on->shown].name)),
             doing))
        on->cursor = on->anchor = slot;
}

void BoardView::mouseDoubleClickEvent(QMouseEvent* e) {
    const int slot = slotAt(e->position());
    if (!slot) return;
    const CircuitId c = circuitAt(slot);
    cursor = c ? session.solution().project.circuits[c].slot : slot;
    const char* key = "serves";
    if (c)
        for (const char* k : rowFacts)
            if (factBox(cursor, k).adjusted(-3, -200, 3, 200).contains(e->position())) key = k;
    startEdit(key);
}

// ---- editing in the row ----

CircuitId BoardView::ensureCircuit(Project& p, int slot) const {
    if (const CircuitId c = slotMap(p, shown)[std::size_t(slot)]) return c;
    const CircuitId c = addCircuit(p, shown, 1, "");
    p.circuits.change(c)->slot = slot;
    return c;
}

/// Enters a fact; says why not, and nothing changes.
bool BoardView::enter(const char* key, int slot, const QString& typed) {
    const CircuitFact* f = circuitFact(key);
    const std::string text = typed.trimmed().toStdString();
    Project next = session.project();
    const bool fresh = !slotMap(next, shown)[std::size_t(slot)];
    if (fresh && text.empty()) return true;
    const CircuitId id = ensureCircuit(next, slot);
    if (const auto bad = f->write(next, id, text)) {
        session.say(q(bad->what + (bad->help.empty() ? "" : ". " + bad->help)), true);
        return false;
    }
    session.edit(fresh                               ? tr("Add circuit")
                 : std::string_view(key) == "serves" ? tr("Describe circuit")
                                                     : tr("%1 of circuit").arg(f->title),
                 [&](Project& p) { p = next; });
    return true;
}

void BoardView::startEdit(const char* key, const QString& begin) {
    if (!data() || cursor < 1) return;
    if (editor) editor->deleteLater();
    for (std::size_t i = 0; i < std::size(rowFacts); ++i)
        if (std::string_view(rowFacts[i]) == key) factIndex = i;
    revealCursor();
    const CircuitFact* f = circuitFact(key);
    const CircuitId id = circuitAt(cursor);
    const Circuit* c = session.project().circuits.find(id);
    QString now = c ? q(f->read(session.project(), *c)) : QString();
    if (c && now.isEmpty() && std::string_view(key) == "breaker")
        now = q(breakerWords(session.solution().results.of(id).device, c->poles));
    auto* line = new QLineEdit(begin.isEmpty() ? now : begin, this);
    editor = line;
    line->setObjectName(std::string_view(key) == "serves" ? "nameEditor" : QString("%1Editor").arg(key));
    line->setToolTip(tr(f->hint));
    closeOnEscape(line);
    QRectF box = factBox(cursor, key);
    const bool rightSide = data()->form == BoardForm::TwoColumn && cursor % 2 == 0;
    if (box.width() < 92)
        box = rightSide ? QRectF(box.right() - 92, box.top(), 92, box.height())
                        : QRectF(box.left(), box.top(), 92, box.height());
    box = box.adjusted(-6, -1, 6, 1);
    box.moveLeft(std::clamp(box.left(), 2.0, std::max(2.0, width() - box.width() - 2)));
    line->setGeometry(box.toRect());
    line->setAlignment(rightSide && std::string_view(key) == "serves" ? Qt::AlignRight : Qt::AlignLeft);
    if (begin.isEmpty()) line->selectAll();
    line->setModified(
        !begin
             .isEmpty()); // what is only looked at is not entered: a breaker shown as it was sized is not held by Enter
    const int slot = cursor;
    // A breaker that is sized by itself is another one when what was typed before it has been worked out.
    if (std::string_view(key) == "breaker" && begin.isEmpty())
        connect(&session, &Session::solved, line, [this, line, slot] {
            const Circuit* sized = session.project().circuits.find(slot == cursor ? circuitAt(slot) : CircuitId{});
            if (!sized || sized->heldBreaker || line->isModified() || isRefused(line)) return;
            if (!session.solution().results.knows(sized->id)) return;
            line->setText(q(breakerWords(session.solution().results.of(sized->id).device, sized->poles)));
            line->selectAll();
        });
    line->installEventFilter(this);
    connect(line, &QLineEdit::editingFinished, line, [this, line, slot, key] {
        if (!line->hasFocus() && line->isModified() && editor == line) {
            line->setModified(false);              // once
            if (!enter(key, slot, line->text())) { // refused in place; typed anew it is taken
                markRefused(line);
                return;
            }
        }
        line->deleteLater();
    });
    line->show();
    line->setFocus();
}

bool BoardView::event(QEvent* e) {
    // Letters typed here describe a circuit; they are not the stages' or the plan's shortcuts.
    if (e->type() == QEvent::ShortcutOverride) {
        auto* k = static_cast<QKeyEvent*>(e);
        const bool plain = !(k->modifiers() & (Qt::ControlModifier | Qt::AltModifier));
        if (plain && ((!k->text().isEmpty() && k->text().at(0).isPrint()) || k->key() == Qt::Key_Delete ||
                      k->key() == Qt::Key_Insert || k->key() == Qt::Key_Tab || k->key() == Qt::Key_Backtab)) {
            e->accept();
            return true;
        }
    }
    if (e->type() == QEvent::KeyPress) { // Tab stays in the board
        auto* k = static_cast<QKeyEvent*>(e);
        if ((k->key() == Qt::Key_Tab || k->key() == Qt::Key_Backtab) && cursor > 0 &&
            !(k->modifiers() & Qt::ControlModifier)) {
            moveFact(k->key() == Qt::Key_Tab ? 1 : -1);
            return true;
        }
    }
    return QWidget::event(e);
}

bool BoardView::eventFilter(QObject* o, QEvent* e) {
    // Tab in the editor takes what was typed and goes on to the next fact, editing; Enter and the arrows go to another
    // row. The key ends here: the line would hand Enter on to the board, which would open the next editor.
    if (e->type() == QEvent::KeyPress &&
        o == editor) { // in this order: other events come while the line is being taken apart
        const int k = static_cast<QKeyEvent*>(e)->key();
        const bool tab = k == Qt::Key_Tab || k == Qt::Key_Backtab, up = k == Qt::Key_Up,
                   enter_ = k == Qt::Key_Return || k == Qt::Key_Enter;
        if (tab || up || enter_ || k == Qt::Key_Down) {
            const QPointer<QLineEdit> line = editor.data();
            const QString text = line->text();
            const bool typed = line->isModified() || isRefused(line);
            const int slot = cursor;
            const char* key = fact();
            if (typed && !enter(key, slot, text)) { // it stays, to be put right; Esc drops it
                if (line) markRefused(line);
                return true;
            }
            editor = nullptr;
            if (line) putAway(line, this);
            setFocus();
            if (tab) {
                if (!began || began->slot != slot) began = Began{slot, factIndex};
                moveFact(k == Qt::Key_Tab ? 1 : -1);
                if (cursor != slot) began = Began{cursor, factIndex};
                startEdit(fact());
            } else {
                if (enter_ && began && began->slot == slot) factIndex = began->fact;
                began.reset();
                moveCursor(up ? -1 : 1, 0, false);
            }
            return true;
        }
    }
    return QWidget::eventFilter(o, e);
}

void BoardView::keyPressEvent(QKeyEvent* e) {
    const bool extend = e->modifiers() & Qt::ShiftModifier, alt = e->modifiers() & Qt::AltModifier,
               control = e->modifiers() & Qt::ControlModifier;
    const auto arrow = [&](int down, int sideways) {
        alt ? nudge(down, sideways) : moveCursor(down, sideways, extend);
    };
    const Board* b = data();
    if (e->matches(QKeySequence::Copy))
        copyChosen();
    else if (e->matches(QKeySequence::Cut))
        cutChosen();
    else if (e->matches(QKeySequence::Paste))
        paste();
    else if (e->matches(QKeySequence::SelectAll))
        selectAll();
    else if (e->key() == Qt::Key_Escape && dragging)
        endDrag();
    else if (e->key() == Qt::Key_Escape)
        session.select(circuitAt(cursor) ? Ref(circuitAt(cursor)) : Ref(shown));
    else if (e->key() == Qt::Key_Up)
        arrow(-1, 0);
    else if (e->key() == Qt::Key_Down)
        arrow(1, 0);
    else if (e->key() == Qt::Key_Left)
        arrow(0, -1);
    else if (e->key() == Qt::Key_Right)
        arrow(0, 1);
    else if (b && e->key() == Qt::Key_Home)
        select(1, extend, false);
    else if (b && e->key() == Qt::Key_End)
        select(b->slots, extend, false);
    else if (e->key() == Qt::Key_F2 || ((e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) && !control))
        startEdit(fact());
    else if (e->key() == Qt::Key_F3)
        startEdit("breaker");
    else if (e->key() == Qt::Key_Delete)
        removeChosen();
    else if (e->key() == Qt::Key_Insert && !control)
        insertRow();
    else if (!e->text().isEmpty() && e->text().at(0).isPrint() && !control && !alt)
        startEdit(fact(), e->text());
    else
        QWidget::keyPressEvent(e);
}

// ---- commands ----

void BoardView::insertRow() {
    if (!data() || cursor < 1) return;
    const MovePlan doing = planInsert(session.project(), shown, cursor);
    const int slot = cursor;
    if (move(tr("Insert a row at slot %1").arg(slot), doing))
        cursor = anchor = slot, session.select(Ref(shown)), update();
}

void BoardView::duplicate() {
    const auto list = chosen();
    if (list.empty()) return session.say(tr("Choose the circuits to duplicate"), true);
    const auto taken = takeCircuits(session.project(), list);
    const Circuit& last = session.project().circuits[list.back()];
    const PutPlan put = planPut(session.project(), shown, last.slot, taken);
    if (put.error || put.without)
        return session.say(put.error ? q(put.error->what)
                                     : tr("%1 has no place for %2 of them: give it more slots first")
                                           .arg(q(session.project().boards[shown].name))
                                           .arg(put.without),
                           true);
    std::vector<CircuitId> made;
    session.edit(list.size() == 1 ? tr("Duplicate %1").arg(q(nameOf(session.project(), list.front())))
                                  : tr("Duplicate %1 circuits").arg(list.size()),
                 [&](Project& p) { made = putCircuits(p, shown, taken, put.slots); });
    session.select(std::vector<Ref>(made.begin(), made.end()));
}

void BoardView::nudge(int rows_, int sideways) {
    const auto list = chosen();
    const Board* b = session.project().boards.find(shown);
    if (list.empty() || !b) return;
    const Circuit& first = session.project().circuits[list.front()];
    const int step = b->form == BoardForm::TwoColumn ? 2 : 1;
    int to = first.slot + rows_ * step * (b->form == BoardForm::Ways && first.poles == 3 ? 3 : 1);
    if (sideways && step == 2) to += first.slot % 2 == 1 ? (sideways > 0 ? 1 : 0) : (sideways < 0 ? -1 : 0);
    if (to < 1 || to > b->slots || to == first.slot) return;
    if (move(tr("Shift %1")
                 .arg(list.size() == 1 ? q(nameOf(session.project(), first.id)) : tr("%1 circuits").arg(list.size())),
             planMove(session.project(), list, shown, to))) {
        const CircuitId id = list.front();
        cursor = anchor = session.project().circuits[id].slot;
        update();
    }
}

void BoardView::swapTwo() {
    const auto list = chosen();
    if (list.size() != 2)
        return session.say(tr("Choose the two circuits to swap, with Ctrl and the mouse or with Shift"), true);
    const Project& p = session.project();
    const int to = p.circuits[list[1]].slot;
    const MovePlan doing = planMove(p, std::vector{list[0]}, shown, to);
    if (doing.possible && !doing.swap)
        return session.say(tr("They do not fit into each other's places: drag one and the others make room"), true);
    move(tr("Swap %1 and %2").arg(q(nameOf(p, list[0])), q(nameOf(p, list[1]))), doing);
}

void BoardView::pin() {
    const auto list = chosen();
    if (list.empty()) return session.say(tr("Choose the circuits to pin"), true);
    const bool all =
        std::all_of(list.begin(), list.end(), [&](CircuitId c) { return session.project().circuits[c].pinned; });
    session.edit(all ? tr("Unpin") : tr("Pin"), [&](Project& p) {
        for (CircuitId c : list)
            if (p.circuits[c].pinned == all) p.circuits.change(c)->pinned = !all;
    });
}

void BoardView::tie() {
    const auto list = chosen();
    if (list.empty()) return session.say(tr("Choose the breakers to tie"), true);
    Project next = session.project();
    const bool loose = next.circuits[list.front()].tie > 0;
    if (const auto bad = tieCircuits(next, list))
        return session.say(q(bad->what + (bad->help.empty() ? "" : ". " + bad->help)), true);
    session.edit(loose ? tr("Untie") : tr("Tie %1 breakers").arg(list.size()), [&](Project& p) { p = next; });
}

void BoardView::makeSpare() { become("spare", tr("Make spare")); }
void BoardView::reserve() { become("reserved", tr("Reserve place")); }

/// What is chosen, or the free place at the cursor, is described by this word, which makes it what the word says.
void BoardView::become(const char* word, const QString& label) {
    const auto list = chosen();
    if (list.empty() && cursor > 0) return void(enter("serves", cursor, word));
    Project next = session.project();
    for (CircuitId c : list)
        if (const auto bad = circuitFact("serves")->write(next, c, word))
            return session.say(q(bad->where + ": " + bad->what + ". " + bad->help), true);
    session.edit(label, [&](Project& p) { p = next; });
}

void BoardView::removeChosen() {
    const auto list = chosen();
    if (list.empty()) return;
    int feeders = 0;
    for (CircuitId c : list) feeders += bool(fedBy(session.project(), c));
    session.edit(list.size() == 1 ? tr("Remove circuit") : tr("Remove %1 circuits").arg(list.size()), [&](Project& p) {
        for (CircuitId c : list) removeCircuit(p, c);
    });
    if (feeders)
        session.say(tr("%1 of them fed a board or transformer, which is unfed now; Undo brings it back").arg(feeders));
    session.select(Ref(shown));
}

void BoardView::copyChosen() {
    const auto list = chosen();
    if (list.empty()) return session.say(tr("Choose the circuits to copy"), true);
    auto* mime = new QMimeData;
    mime->setData(circuitsMime, QByteArray::fromStdString(writeCircuits(takeCircuits(session.project(), list))));
    mime->setText(q(blockText(session.project(), list)));
    QApplication::clipboard()->setMimeData(mime);
    session.say(
        list.size() == 1
            ? tr("%1 is on the clipboard: paste it here, on another board or project, or in a spreadsheet")
                  .arg(q(nameOf(session.project(), list.front())))
            : tr("%1 circuits are on the clipboard: paste them here, on another board or project, or in a spreadsheet")
                  .arg(list.size()));
}

void BoardView::cutChosen() {
    if (chosen().empty()) return;
    copyChosen();
    removeChosen();
}

void BoardView::paste() {
    const Board* b = session.project().boards.find(shown);
    const QMimeData* mime = QApplication::clipboard()->mimeData();
    if (!b || !mime) return;
    if (mime->hasFormat(circuitsMime)) {
        const auto taken = readCircuits(mime->data(circuitsMime).toStdString());
        if (!taken) return session.say(q(taken.error().text()), true);
        const PutPlan put = planPut(session.project(), shown, std::max(1, cursor), *taken);
        if (put.error) return session.say(q(put.error->where + ": " + put.error->what + ". " + put.error->help), true);
        if (put.without)
            return session.say(tr("%1 has no place for %2 of the %3 circuits: give it more slots, or paste fewer")
                                   .arg(q(b->name))
                                   .arg(put.without)
                                   .arg(taken->size()),
                               true);
        std::vector<CircuitId> made;
        session.edit(taken->size() == 1 ? tr("Paste circuit") : tr("Paste %1 circuits").arg(taken->size()),
                     [&](Project& p) { made = putCircuits(p, shown, *taken, put.slots); });
        session.select(std::vector<Ref>(made.begin(), made.end()));
        return;
    }
    if (!mime->hasText() || mime->text().trimmed().isEmpty())
        return session.say(tr("The clipboard holds neither circuits nor text"), true);
    Project next = session.project();
    const BlockPaste done = pasteBlock(next, shown, std::max(1, cursor), fact(), mime->text().toStdString());
    if (done.circuits == 0)
        return session.say(done.problems.empty() ? tr("The clipboard holds no rows") : q(done.problems.front()), true);
    session.edit(tr("Paste %1").arg(counted(done.rows, tr("row"), tr("rows"))), [&](Project& p) { p = next; });
    session.select(std::vector<Ref>(done.touched.begin(), done.touched.end()));
    if (!done.problems.empty())
        session.say(tr("%1 pasted; %2 left out: %3")
                        .arg(counted(done.rows, tr("row"), tr("rows")),
                             counted(done.problems.size(), tr("cell"), tr("cells")), q(done.problems.front())),
                    true);
    else
        session.say(tr("%1 pasted, %2")
                        .arg(counted(done.rows, tr("row"), tr("rows")),
                             counted(done.added, tr("new circuit"), tr("new circuits"))));
}

void BoardView::fillDownChosen() {
    const auto list = chosen();
    if (list.size() < 2)
        return session.say(
            tr("Choose two circuits or more: the first one's %1 goes to the others").arg(circuitFact(fact())->title),
            true);
    Project next = session.project();
    const auto problems = fillDown(next, list, fact());
    session.edit(tr("Fill down %1").arg(circuitFact(fact())->title), [&](Project& p) { p = next; });
    if (!problems.empty())
        session.say(tr("%1 of them refuse it: %2").arg(problems.size()).arg(q(problems.front())), true);
}

void BoardView::refeed(BoardId to) {
    const auto list = chosen();
    const Project& p = session.project();
    if (list.empty() || !p.boards.has(to) || to == shown) return;
    Project next = p;
    int moved = 0;
    QStringList refused;
    std::vector<Ref> after;
    std::set<CircuitId> done;
    for (CircuitId c : list) {
        if (done.count(c) || !next.circuits.has(c)) continue;
        if (const Ref fed = fedBy(next, c)) {
            if (const auto bad = refuseFeed(next, fed, to)) {
                refused << q(bad->what);
                continue;
            }
            feedFrom(next, fed, to);
            after.push_back(fed);
            ++moved;
            continue;
        }
        const auto unit = unitOf(next, c);
        done.insert(unit.begin(), unit.end());
        MovePlan best;
        for (int slot = 1; slot <= next.boards[to].slots && !best.possible; ++slot) {
            const MovePlan there = planMove(next, std::vector{c}, to, slot);
            if (there.possible && there.pushed == 0)
                best = there;
            else if (best.reason.empty())
                best.reason = there.reason;
        }
        if (!best.possible) {
            refused << (best.reason.empty() ? tr("%1 has no place").arg(q(next.boards[to].name)) : q(best.reason));
            continue;
        }
        applyMove(next, best);
        for (CircuitId u : unit) after.push_back(u);
        moved += int(unit.size());
    }
    if (moved) {
        session.edit(
            tr("Feed %1 from %2")
                .arg(moved == 1 ? q(nameOf(p, list.front())) : tr("%1 circuits").arg(moved), q(p.boards[to].name)),
            [&](Project& x) { x = next; });
        session.select(after);
    }
    if (!refused.isEmpty())
        session.say(moved ? tr("%1 moved; %2 stay: %3").arg(moved).arg(refused.size()).arg(refused.front())
                          : refused.front(),
                    true);
}

void BoardView::contextMenuEvent(QContextMenuEvent* e) {
    const int slot = e->reason() == QContextMenuEvent::Keyboard ? cursor : slotAt(e->pos());
    if (!slot) return;
    const CircuitId id = circuitAt(slot);
    if (!(id && isChosen(id))) select(slot, false, false);
    QMenu menu(this);
    if (id) {
        menu.addAction(tr("Describe\tF2"), this, [this] { startEdit("serves"); });
        menu.addAction(tr("Rate the breaker\tF3"), this, [this] { startEdit("breaker"); });
        const bool pinned = session.project().circuits[id].pinned;
        menu.addAction((pinned ? tr("Unpin") : tr("Pin")) + "\tCtrl+Shift+P", this, &BoardView::pin);
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
    }
    menu.addSeparator();
    for (const Command& c : commands()) {
        const std::string_view name = c.name;
        if (!id && name != "circuitSpare" && name != "circuitReserve") continue;
        menu.addAction(c.text + "\t" + c.key.toString(QKeySequence::NativeText), this,
                       [this, &c] { (this->*c.what)(); });
    }
    menu.addSeparator();
    if (id) menu.addAction(tr("Copy\tCtrl+C"), this, &BoardView::copyChosen);
    menu.addAction(tr("Paste\tCtrl+V"), this, &BoardView::paste);
    menu.exec(e->globalPos());
}

// ---- loads dropped from the tray ----

void BoardView::dragEnterEvent(QDragEnterEvent* e) {
    if (e->mimeData()->hasFormat(mimeType)) e->acceptProposedAction();
}
void BoardView::dragMoveEvent(QDragMoveEvent* e) {
    const int slot = slotAt(e->position());
    const bool circuit = refFrom(e->mimeData()->data(mimeType).toStdString()).is<Circuit>();
    if (slot && (circuit || !circuitAt(slot)))
        e->acceptProposedAction();
    else
        e->ignore();
    cursor = slot;
    update();
}
void BoardView::dragLeaveEvent(QDragLeaveEvent*) { update(); }
void BoardView::dropEvent(QDropEvent* e) {
    const int slot = slotAt(e->position());
    const Ref thing = refFrom(e->mimeData()->data(mimeType).toStdString());
    if (!slot || !thing) return;
    if (const CircuitId c = thing.as<Circuit>()) { // one that had no place
        move(tr("Place %1").arg(q(nameOf(session.project(), c))),
             planMove(session.project(), std::vector{c}, shown, slot));
        e->acceptProposedAction();
        return;
    }
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
