#include "app/frame/FindBox.h"

#include "app/frame/PaintKit.h"
#include "core/figures/Words.h"

#include <QAction>
#include <QKeyEvent>

namespace lintel {

FindBox::FindBox(Session& s, QWidget* parent) : QLineEdit(parent), session(s), list(new QListWidget(nullptr)) {
    setObjectName("find");
    setPlaceholderText(tr("Find or do…"));
    setFixedWidth(252);
    list->setObjectName("findResults");
    list->setProperty("card", true);
    list->setFocusPolicy(Qt::NoFocus);
    list->hide();
    connect(this, &QLineEdit::textEdited, this, &FindBox::search);
    connect(list, &QListWidget::itemClicked, this, &FindBox::take);
}

void FindBox::focusInEvent(QFocusEvent* e) {
    QLineEdit::focusInEvent(e);
    // Only when a person asked for it, not when a window happens to hand the focus here.
    if (e->reason() == Qt::ShortcutFocusReason || e->reason() == Qt::MouseFocusReason) search();
}
void FindBox::focusOutEvent(QFocusEvent* e) {
    QLineEdit::focusOutEvent(e);
    list->hide();
}

void FindBox::paintEvent(QPaintEvent* e) {
    QLineEdit::paintEvent(e);
    if (!text().isEmpty() || hasFocus()) return;
    QPainter p(this);
    drawLine(p, QRectF(0, 0, width() - 10, height()), "Ctrl+K", Qt::AlignRight, theme().quiet, uiFont(0.82));
}

void FindBox::search() {
    matches.clear();
    const QString want = text().trimmed();
    const auto rank = [&](const QString& s) {
        if (want.isEmpty()) return 3;
        if (s.startsWith(want, Qt::CaseInsensitive)) return 0;
        if (s.contains(" " + want, Qt::CaseInsensitive)) return 1;
        return s.contains(want, Qt::CaseInsensitive) ? 2 : -1;
    };
    for (QAction* a : commands) {
        QString name = a->text();
        name.remove('&');
        if (a->isEnabled() && a->isVisible() && !name.isEmpty())
            if (const int r = rank(name); r >= 0)
                matches.push_back({r, name, a->shortcut().toString(QKeySequence::NativeText), {}, a});
    }
    if (session.isOpen() && !want.isEmpty()) {
        const Solution& s = session.solution();
        const auto thing = [&](Ref ref, const QString& about) {
            const QString name = q(nameOf(s.project, ref));
            int r = rank(name);
            if (r < 0 && about.contains(want, Qt::CaseInsensitive)) r = 2;
            if (r >= 0) matches.push_back({r, name, about, ref, nullptr});
        };
        for (const Board& b : s.project.boards) thing(b.id, q(b.description));
        for (const Transformer& t : s.project.transformers) thing(t.id, tr("transformer"));
        for (const Source& x : s.project.sources) thing(x.id, tr("source"));
        for (const Room& m : s.project.rooms) thing(m.id, tr("room"));
        for (const Circuit& c : s.project.circuits) {
            if (matches.size() > 400) break;
            thing(c.id, q(c.name));
        }
        for (const Load& l : s.project.loads)
            if (!l.circuit) thing(l.id, tr("unfed load"));
        for (const Device& d : s.project.devices)
            if (!d.tag.empty()) thing(d.id, tr("device"));
    }
    std::stable_sort(matches.begin(), matches.end(), [](const Match& a, const Match& b) { return a.rank < b.rank; });
    if (matches.size() > 12) matches.resize(12);
    list->clear();
    for (const Match& m : matches) list->addItem(m.text + (m.about.isEmpty() ? "" : "    " + m.about));
    if (!matches.empty()) list->setCurrentRow(0);
    QWidget* w = window();
    if (list->parentWidget() != w) list->setParent(w);
    const QPoint at = mapTo(w, QPoint(0, height() + 2));
    const int extra = 130;
    list->setGeometry(at.x() - extra, at.y(), width() + extra,
                      6 + std::max(20, list->sizeHintForRow(0)) * std::max<int>(1, int(matches.size())));
    list->setStyleSheet(QString("QListWidget { background: %1; border: 1px solid %2; }")
                            .arg(theme().surface.name(), theme().rule.name()));
    list->setVisible(hasFocus() && !matches.empty());
    list->raise();
}

void FindBox::take(QListWidgetItem* item) {
    const int i = list->row(item);
    if (i < 0 || i >= int(matches.size())) return;
    const Match m = matches[std::size_t(i)];
    clear();
    list->hide();
    clearFocus();
    if (m.action)
        m.action->trigger();
    else
        session.select(m.thing);
}

void FindBox::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Down || e->key() == Qt::Key_Up) {
        const int n = list->count();
        if (n) list->setCurrentRow((list->currentRow() + (e->key() == Qt::Key_Down ? 1 : n - 1)) % n);
    } else if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) {
        if (list->currentItem()) take(list->currentItem());
    } else if (e->key() == Qt::Key_Escape) {
        clear();
        list->hide();
        clearFocus();
    } else {
        QLineEdit::keyPressEvent(e);
    }
}

} // namespace lintel
