#include "app/boards/BoardPicker.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "core/project/Operations.h"

#include <QBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>

namespace lintel {

BoardPicker::BoardPicker(Session& s, QWidget* parent)
    : QFrame(parent), session(s), text(new QLineEdit(this)), list(new QListWidget(this)) {
    setObjectName("boardPicker");
    setProperty("card", true);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(10, 10, 10, 10);
    column->addWidget(text);
    column->addWidget(list);
    text->setObjectName("boardPickerText");
    list->setObjectName("boardPickerList");
    list->setFocusPolicy(Qt::NoFocus);
    text->installEventFilter(this);
    setFixedSize(340, 280);
    connect(text, &QLineEdit::textEdited, this, &BoardPicker::fill);
    connect(text, &QLineEdit::returnPressed, this, &BoardPicker::take);
    connect(list, &QListWidget::itemClicked, this, &BoardPicker::take);
    hide();
}

void BoardPicker::open(const QString& title, const std::vector<CircuitId>& c, BoardId not_,
                       std::function<void(BoardId)> what) {
    circuits = c, without = not_, then = std::move(what);
    text->clear();
    text->setPlaceholderText(title);
    fill();
    move(std::max(8, (parentWidget()->width() - width()) / 2), 70);
    show();
    raise();
    text->setFocus();
}

void BoardPicker::fill() {
    const Solution& s = session.solution();
    list->clear();
    struct Row {
        bool fits;
        QString name, about;
        BoardId id;
    };
    std::vector<Row> rows;
    int poles = 0;
    for (CircuitId c : circuits)
        if (const Circuit* x = s.project.circuits.find(c)) poles += x->poles;
    for (const Board& b : s.project.boards) {
        if (b.id == without || passesOn(b.use) ||
            (!text->text().isEmpty() && !q(b.name + " " + b.description).contains(text->text(), Qt::CaseInsensitive)))
            continue;
        QString why;
        for (CircuitId c : circuits) {
            const Circuit* x = s.project.circuits.find(c);
            if (!x || !why.isEmpty()) continue;
            const Board& from = s.project.boards[x->board];
            if (x->poles > factsOf(b.system).lines)
                why = counted(factsOf(b.system).lines, tr("line"), tr("lines"));
            else if (!s.results.of(c).feeder && x->use == CircuitUse::Load &&
                     voltsAcross(from.system, x->poles).v != voltsAcross(b.system, x->poles).v)
                why = tr("%1 V").arg(voltsAcross(b.system, x->poles).v);
        }
        const int free = b.slots - s.results.of(b.id).slotsUsed;
        if (why.isEmpty() && free < poles) why = counted(free, tr("place free"), tr("places free"));
        rows.push_back({why.isEmpty(), q(b.name),
                        why.isEmpty() ? tr("%1 · %2 %")
                                            .arg(counted(free, tr("place free"), tr("places free")))
                                            .arg(std::lround(s.results.of(b.id).use * 100))
                                      : why,
                        b.id});
    }
    std::stable_sort(rows.begin(), rows.end(), [](const Row& a, const Row& b) { return a.fits > b.fits; });
    for (const Row& r : rows) {
        auto* i = new QListWidgetItem(r.name + "    " + r.about, list);
        i->setData(Qt::UserRole, r.id.value);
        if (!r.fits) i->setForeground(theme().quiet);
    }
    if (list->count()) list->setCurrentRow(0);
}

void BoardPicker::take() {
    auto* i = list->currentItem();
    if (!i) return;
    const BoardId id{i->data(Qt::UserRole).toUInt()};
    hide();
    parentWidget()->setFocus();
    if (then) then(id);
}

bool BoardPicker::eventFilter(QObject* o, QEvent* e) {
    if (e->type() == QEvent::FocusOut && isVisible()) hide();
    if (e->type() == QEvent::KeyPress) {
        auto* k = static_cast<QKeyEvent*>(e);
        const int n = list->count();
        if (n && (k->key() == Qt::Key_Down || k->key() == Qt::Key_Up)) {
            list->setCurrentRow((list->currentRow() + (k->key() == Qt::Key_Down ? 1 : n - 1)) % n);
            return true;
        }
    }
    return QFrame::eventFilter(o, e);
}

void BoardPicker::keyPressEvent(QKeyEvent* e) {
    if (e->key() != Qt::Key_Escape) return QFrame::keyPressEvent(e);
    hide();
    parentWidget()->setFocus();
}

} // namespace lintel
