#include "app/frame/FactsPanel.h"

#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/level/Level.h"

#include <QAbstractItemView>
#include <QClipboard>
#include <QComboBox>
#include <QContextMenuEvent>
#include <QCoreApplication>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMenu>
#include <QMouseEvent>
#include <QVBoxLayout>

namespace lintel {

namespace {
constexpr double pad = 14, rowHeight = 20, labelWidth = 102;
}

FactsView::FactsView(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setMouseTracking(true);
    setObjectName("facts");
}

void FactsView::rebuild() {
    const Solution& s = session.solution();
    const Ref at = session.selection();
    // What is being typed stays while the same thing is shown, whatever is worked out meanwhile.
    const bool keep = editor && editor->isVisible() && at == editedThing && session.selectionList().size() < 2;
    if (editor && !keep) editor->deleteLater();
    shown = session.isOpen() ? factsFor(session, at) : Facts{};
    const auto seldom = std::count_if(shown.rows.begin(), shown.rows.end(), [](const FactRow& r) { return r.seldom; });
    if (!more) std::erase_if(shown.rows, [](const FactRow& r) { return r.seldom; });
    toggle = seldom > 0 ? (more ? tr("fewer facts") : tr("%1 more facts").arg(int(seldom))) : QString();
    why = {};
    Ref about = at;
    if (const Device* d = s.project.devices.find(at.as<Device>())) about = d->circuit;
    if (const Load* l = s.project.loads.find(at.as<Load>())) about = l->circuit;
    if (session.selectionList().size() < 2 && about && s.results.knows(about))
        why = explain(s.project, *s.book, s.results, about);
    layOut();
    if (keep) {
        const int i = rowOf(editedLabel);
        if (i >= 0)
            editor->setGeometry(editBox(i));
        else
            editor->deleteLater();
    }
    update();
}

int FactsView::rowOf(const QString& label) const {
    for (std::size_t i = 0; i < shown.rows.size(); ++i)
        if (shown.rows[i].label == label && shown.rows[i].entry) return int(i);
    return -1;
}
QRect FactsView::editBox(int i) const {
    const QRectF b = rowBoxes[std::size_t(i)];
    return QRectF(b.left() + labelWidth - 8, b.top() - 3, b.width() - labelWidth + 12, b.height() + 6).toRect();
}

void FactsView::layOut() {
    rowBoxes.clear();
    stepBoxes.clear();
    double y = shown.title.isEmpty() ? 10 : 46;
    for (std::size_t i = 0; i < shown.rows.size(); ++i, y += rowHeight)
        rowBoxes.push_back(QRectF(pad, y, width() - 2 * pad, rowHeight));
    toggleBox = toggle.isEmpty() ? QRectF() : QRectF(pad + labelWidth, y, width() - 2 * pad - labelWidth, rowHeight);
    if (!toggle.isEmpty()) y += rowHeight;
    workingsTop = y + 10;
    y = workingsTop + 26;
    const QFontMetricsF m(uiFont(0.9));
    for (const WorkingStep& w : why.steps) {
        const double wrapped =
            m.boundingRect(QRectF(0, 0, std::max(60.0, width() - 2 * pad - 10), 1000), Qt::TextWordWrap, q(w.formula))
                .height();
        const double h = 22 + wrapped + 7;
        stepBoxes.push_back(QRectF(4, y, width() - 8, h));
        y += h;
    }
    total = y + 12;
    setMinimumHeight(int(total));
    updateGeometry();
}

QSize FactsView::sizeHint() const { return {272, int(total)}; }
void FactsView::resizeEvent(QResizeEvent*) { layOut(); }

void FactsView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    if (shown.title.isEmpty()) {
        drawLine(p, QRectF(pad, 10, width() - 2 * pad, 20), session.isOpen() ? tr("Nothing is selected") : QString(),
                 Qt::AlignLeft, t.quiet, uiFont(0.95));
        return;
    }
    const QFont big = uiFont(1.15, true);
    const double tw = std::min(QFontMetricsF(big).horizontalAdvance(shown.title), width() - 2 * pad);
    drawLine(p, QRectF(pad, 10, width() - 2 * pad, 24), shown.title, Qt::AlignLeft, t.ink, big);
    drawLine(p, QRectF(pad + tw + 10, 11, width() - 2 * pad - tw - 10, 24), shown.about, Qt::AlignRight, t.quiet,
             uiFont(0.88));
    for (std::size_t i = 0; i < shown.rows.size(); ++i) {
        const FactRow& r = shown.rows[i];
        const QRectF b = rowBoxes[i];
        drawLine(p, QRectF(b.left(), b.top(), labelWidth - 6, b.height()), r.label, Qt::AlignLeft, t.quiet,
                 uiFont(0.9));
        const QRectF v(b.left() + labelWidth, b.top(), b.width() - labelWidth, b.height());
        if (int(i) == hovered && r.entry) {
            p.setPen(Qt::NoPen);
            p.setBrush(t.accentWash);
            p.drawRoundedRect(v.adjusted(-5, 0, 4, 0), 3, 3);
        }
        drawLine(p, v, r.value.isEmpty() && r.entry ? QStringLiteral("…") : r.value, Qt::AlignLeft,
                 r.colour.isValid() ? r.colour
                 : r.entry          ? t.ink
                                    : t.ink,
                 uiFont(0.92));
        if (r.entry) { // a quiet mark: this one was entered, and can be changed here
            p.setPen(QPen(t.rule, 1));
            const double w = std::min(
                v.width(),
                QFontMetricsF(uiFont(0.92)).horizontalAdvance(r.value.isEmpty() ? QStringLiteral("…") : r.value));
            p.drawLine(QPointF(v.left(), v.bottom() - 2.5), QPointF(v.left() + w, v.bottom() - 2.5));
        }
    }
    if (!toggle.isEmpty()) drawLine(p, toggleBox, toggle, Qt::AlignLeft, t.accent, uiFont(0.9));
    if (why.steps.empty()) return;
    p.setPen(t.rule);
    p.drawLine(QPointF(pad, workingsTop), QPointF(width() - pad, workingsTop));
    drawLine(p, QRectF(pad, workingsTop + 5, width() - 2 * pad, 18), tr("WORKINGS"), Qt::AlignLeft, t.quiet,
             uiFont(0.82, true));
    for (std::size_t i = 0; i < why.steps.size(); ++i) {
        const WorkingStep& w = why.steps[i];
        const QRectF b = stepBoxes[i];
        if (w.governs) {
            p.fillRect(b.adjusted(0, 0, 0, -3), t.accentWash);
            p.fillRect(QRectF(b.left(), b.top(), 3, b.height() - 3), t.accent);
        }
        const QRectF line(pad, b.top() + 3, b.width() - 2 * pad + 8, 17);
        const QFont head = uiFont(0.9, true), small = uiFont(0.82);
        // The value first: of a long one the rule gives way, never the figures.
        const QString right = w.value.empty() ? q(w.cited) : q(w.value);
        const double rw = std::min(line.width() * 0.62, QFontMetricsF(small).horizontalAdvance(right) + 2);
        drawLine(p, QRectF(line.left(), line.top(), line.width() - rw - 6, 17), q(w.what), Qt::AlignLeft, t.ink, head);
        drawLine(p, QRectF(line.right() - rw, line.top(), rw, 17), right, Qt::AlignRight, t.quiet, small);
        p.setFont(uiFont(0.9));
        p.setPen(t.quiet);
        p.drawText(QRectF(pad, b.top() + 20, b.width() - 2 * pad - 2, b.height() - 22),
                   Qt::TextWordWrap | Qt::AlignLeft, q(w.formula));
    }
}

void FactsView::mousePressEvent(QMouseEvent* e) {
    if (toggleBox.contains(e->position())) {
        more = !more;
        rebuild();
        return;
    }
    for (std::size_t i = 0; i < rowBoxes.size(); ++i)
        if (rowBoxes[i].contains(e->position())) startEdit(int(i));
}
void FactsView::mouseMoveEvent(QMouseEvent* e) {
    int at = -1;
    for (std::size_t i = 0; i < rowBoxes.size(); ++i)
        if (rowBoxes[i].contains(e->position()) && shown.rows[i].entry) at = int(i);
    QString tip;
    for (std::size_t i = 0; i < rowBoxes.size(); ++i) // what has no room stands whole in its tip
        if (const QString& value = shown.rows[i].value;
            rowBoxes[i].contains(e->position()) &&
            QFontMetricsF(uiFont(0.92)).horizontalAdvance(value) > rowBoxes[i].width() - labelWidth)
            tip = plainTip(value);
    for (std::size_t i = 0; i < stepBoxes.size(); ++i)
        if (stepBoxes[i].contains(e->position()))
            tip = q(why.steps[i].what + ": " + why.steps[i].value +
                    (why.steps[i].cited.empty() ? "" : "   [" + why.steps[i].cited + "]"));
    setToolTip(tip);
    if (at != hovered) hovered = at, update();
    setCursor(at >= 0 ? Qt::IBeamCursor : toggleBox.contains(e->position()) ? Qt::PointingHandCursor : Qt::ArrowCursor);
}
void FactsView::leaveEvent(QEvent*) {
    hovered = -1;
    update();
}
void FactsView::contextMenuEvent(QContextMenuEvent* e) {
    if (why.steps.empty()) return;
    QMenu menu(this);
    menu.addAction(tr("Copy workings"), this, [this] { QGuiApplication::clipboard()->setText(q(why.text())); });
    menu.exec(e->globalPos());
}

bool FactsView::editRow(const QString& label) {
    for (std::size_t i = 0; i < shown.rows.size(); ++i)
        if (shown.rows[i].label == label && shown.rows[i].entry) {
            startEdit(int(i));
            return true;
        }
    if (more) return false;
    more = true; // it may be among those that are not shown
    rebuild();
    return editRow(label);
}

namespace {
/// A choice is made by choosing: letters typed into it look for one in the open list, and change nothing by themselves.
class ChoiceBox : public QComboBox {
public:
    using QComboBox::QComboBox;

protected:
    void keyPressEvent(QKeyEvent* e) override {
        const bool looks =
            (!e->text().isEmpty() && e->text().at(0).isPrint()) || e->key() == Qt::Key_Up || e->key() == Qt::Key_Down;
        if (!looks) return QComboBox::keyPressEvent(e);
        showPopup();
        if (e->key() != Qt::Key_Space) QCoreApplication::sendEvent(view(), e);
    }
    void wheelEvent(QWheelEvent* e) override { e->ignore(); }
};
} // namespace

void FactsView::startEdit(int i) {
    const FactRow row = shown.rows[std::size_t(i)];
    if (!row.entry) return;
    if (editor && editor->isVisible() && isRefused(editor)) { // its text is not thrown away by a click elsewhere
        editor->setFocus();
        return session.say(
            tr("%1: put what was typed right first, or press Esc to leave it as it was").arg(editedLabel), true);
    }
    if (editor) putAway(editor, this);
    editedThing = session.selection(), editedLabel = row.label;
    if (!row.entry->choices.isEmpty()) {
        auto* box = new ChoiceBox(this);
        box->addItems(row.entry->choices);
        box->setCurrentText(row.entry->initial);
        box->setGeometry(editBox(i));
        box->setObjectName("factEditor");
        connect(box, &QComboBox::textActivated, this,
                [this, row, i, box = QPointer<QComboBox>(box)](const QString& text) {
                    if (!row.entry->other.isEmpty() && text == row.entry->other) return typeInstead(row, i);
                    const QString refused = row.entry->take(text);
                    if (!refused.isEmpty()) session.say(refused, true);
                    if (box) box->deleteLater();
                    setFocus();
                });
        box->installEventFilter(this);
        editor = box;
        editor->show();
        editor->setFocus();
    } else {
        typeInstead(row, i);
    }
}

/// A line to type the fact of a row in.
void FactsView::typeInstead(const FactRow& row, int i) {
    if (editor) putAway(editor, this);
    auto* line = new QLineEdit(row.entry->initial, this);
    line->setGeometry(editBox(i));
    line->setObjectName("factEditor");
    line->setPlaceholderText(row.entry->hint);
    line->setToolTip(row.entry->hint);
    closeOnEscape(line);
    line->selectAll();
    line->installEventFilter(this);
    editor = line;
    editor->show();
    editor->setFocus();
}

/// Takes what stands in the editor; false where it is refused: then it stays, to be put right.
bool FactsView::takeEdit() {
    const QPointer<QLineEdit> line = qobject_cast<QLineEdit*>(editor);
    if (!line) return true;
    const int i = rowOf(editedLabel);
    if (isRefused(line) && !line->isModified()) return false; // as it was
    if (line->isModified() && i >= 0) {
        const QString text = line->text();
        line->setModified(false);
        const FactRow row = shown.rows[std::size_t(i)]; // of its own: what it does makes the rows anew
        const QString refused = row.entry->take(text);
        if (!refused.isEmpty()) {
            session.say(refused, true);
            if (!line) return false;
            markRefused(line, refused);
            return false;
        }
    }
    if (line) putAway(line, this);
    return true;
}

void FactsView::keyPressEvent(QKeyEvent* e) {
    const int k = e->key();
    const bool goes = k == Qt::Key_Up || k == Qt::Key_Down || k == Qt::Key_Left || k == Qt::Key_Right ||
                      k == Qt::Key_Escape || (!e->text().isEmpty() && e->text().at(0).isPrint());
    if (goes && !(e->modifiers() & (Qt::ControlModifier | Qt::AltModifier)))
        Q_EMIT keyForStage(e);
    else
        QWidget::keyPressEvent(e);
}

bool FactsView::eventFilter(QObject* o, QEvent* e) {
    if (o != editor) return QWidget::eventFilter(o, e);
    auto* line = qobject_cast<QLineEdit*>(editor);
    if (e->type() == QEvent::KeyPress) {
        const int k = static_cast<QKeyEvent*>(e)->key();
        const bool tab = k == Qt::Key_Tab || k == Qt::Key_Backtab;
        if (line && (k == Qt::Key_Return || k == Qt::Key_Enter)) {
            if (takeEdit()) setFocus();
            return true;
        }
        if (tab) { // taken, and on to the next fact that can be edited
            const QString label = editedLabel;
            if (line && !takeEdit()) return true;
            if (!line && editor) editor->deleteLater(), editor = nullptr;
            setFocus();
            const int step = k == Qt::Key_Tab ? 1 : -1;
            for (int i = rowOf(label) + step; i >= 0 && i < int(shown.rows.size()); i += step)
                if (shown.rows[std::size_t(i)].entry) {
                    startEdit(i);
                    break;
                }
            return true;
        }
    }
    if (line && e->type() == QEvent::FocusOut && static_cast<QFocusEvent*>(e)->reason() != Qt::PopupFocusReason &&
        static_cast<QFocusEvent*>(e)->reason() != Qt::ActiveWindowFocusReason)
        takeEdit();
    return QWidget::eventFilter(o, e);
}

LevelGauge::Reading gaugeReading(const Solution& s, BoardId id, bool withHint) {
    LevelGauge::Reading g;
    const Board* b = s.project.boards.find(id);
    if (!b || id.value >= s.results.boards.size()) return g;
    const BoardResult& r = s.results.of(id);
    g.lines = factsOf(b->system).lines;
    g.letters.clear();
    g.colours.clear();
    std::size_t heavy = 0;
    for (int i = 0; i < g.lines; ++i) {
        g.letters << q(lineName(i, *b)), g.colours << phaseInk(s.project.basis, b->system, i);
        if (r.phaseVa[std::size_t(i)] > r.phaseVa[heavy]) heavy = std::size_t(i);
    }
    g.heavy = g.letters.value(int(heavy));
    g.lean = r.lean;
    g.imbalance = r.imbalance;
    g.neutralAmps = r.neutralAmps;
    g.valid = r.connected > 0 && g.lines > 1;
    if (withHint && g.valid) {
        const Arrangement one = levelByOneStep(s.project, s.results, id);
        g.hint = one.places.empty() ? QObject::tr("no one move helps")
                                    : QObject::tr("1 move → %1").arg(q(percent(one.imbalance)));
    }
    return g;
}

FactsPanel::FactsPanel(Session& s, QWidget* parent)
    : QWidget(parent), session(s), level(new LevelGauge(this)), facts(new FactsView(s, this)),
      scroll(new QScrollArea(this)) {
    setFixedWidth(266);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(1, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(level);
    scroll->setWidget(facts);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->viewport()->setAutoFillBackground(false);
    facts->setAutoFillBackground(false);
    column->addWidget(scroll);
    for (auto signal : {&Session::solved, &Session::selectionChanged, &Session::opened})
        connect(&session, signal, this, &FactsPanel::rebuild);
    rebuild();
}

void FactsPanel::rebuild() {
    const BoardId b = session.boardOfSelection();
    level->setVisible(bool(b));
    if (b) level->show(gaugeReading(session.solution(), b, true));
    facts->rebuild();
}

} // namespace lintel
