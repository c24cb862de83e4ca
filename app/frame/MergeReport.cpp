#include "app/frame/MergeReport.h"

#include "app/frame/PaintKit.h"
#include "core/compare/FieldWords.h"

#include <QBoxLayout>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>

#include <algorithm>

namespace lintel {
namespace {

enum Column { Of, What, Before, Yours, Theirs, Now };

std::optional<MergeSide> sideAt(int column) {
    if (column == Before) return MergeSide::Base;
    if (column == Yours) return MergeSide::Ours;
    if (column == Theirs) return MergeSide::Theirs;
    return std::nullopt;
}
int columnOf(MergeSide side) { return side == MergeSide::Base ? Before : side == MergeSide::Ours ? Yours : Theirs; }

/// A value that can be taken: a ring, filled where it is the one that the project has.
QIcon choiceMark(bool taken) {
    constexpr int size = 14;
    QPixmap mark(size * 2, size * 2);
    mark.setDevicePixelRatio(2);
    mark.fill(Qt::transparent);
    QPainter painter(&mark);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(taken ? theme().accent : theme().quiet, 1.5));
    painter.drawEllipse(QRectF(2, 2, size - 4, size - 4));
    if (taken) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme().accent);
        painter.drawEllipse(QRectF(4.5, 4.5, size - 9, size - 9));
    }
    return QIcon(mark);
}

} // namespace

MergeReport::MergeReport(Session& s, const Merged& merged, QWidget* parent)
    : QDialog(parent), session(s), conflicts(merged.conflicts) {
    setWindowTitle(tr("Merged"));
    setObjectName("mergeReport");
    auto* column = new QVBoxLayout(this);
    const bool any = !conflicts.empty();
    resize(any ? 980 : 520, any ? std::clamp(190 + 26 * int(conflicts.size()), 260, 620) : 130);
    auto* about =
        new QLabel(any ? tr("Their work and yours are together, but for what both changed in different ways: there "
                            "yours is kept. Click the value to take, then save. Undo takes a choice back, and at last "
                            "the whole merge.")
                       : tr("Their work and yours are together. Nothing was changed by both in different ways. Look at "
                            "it, then save."));
    about->setObjectName("mergeAbout");
    about->setTextFormat(Qt::PlainText);
    about->setWordWrap(true);
    column->addWidget(about);
    list = new QTreeWidget;
    list->setObjectName("mergeConflicts");
    list->setRootIsDecorated(false);
    list->setAllColumnsShowFocus(false);
    list->setSelectionBehavior(QAbstractItemView::SelectItems);
    list->setHeaderLabels({tr("Of"), tr("What"), tr("Before"), tr("Yours"), tr("Theirs"), tr("Now")});
    for (const MergeConflict& c : conflicts) {
        // Whole things are told as they are; a field without a value is as a new thing has it.
        const auto words = [&c](const std::string& value) {
            return value.empty() && !c.field.empty() ? tr("as usual") : q(value);
        };
        auto* row = new QTreeWidgetItem(
            list, {q(c.name), c.field.empty() ? tr("the thing as a whole") : q(fieldWords(c.thing, c.field)),
                   words(c.base), words(c.ours), words(c.theirs)});
        row->setData(0, Qt::UserRole, q(c.thing.text()));
    }
    list->setVisible(any);
    list->installEventFilter(this);
    column->addWidget(list, 1);
    connect(list, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* row) {
        if (!row) return;
        const Ref thing = refFrom(row->data(0, Qt::UserRole).toString().toStdString());
        if (session.solution().results.knows(thing)) session.select(thing);
    });
    connect(list, &QTreeWidget::itemClicked, this, &MergeReport::take);
    refusal = new QLabel;
    refusal->setObjectName("mergeRefusal");
    refusal->setTextFormat(Qt::PlainText);
    refusal->setWordWrap(true);
    refusal->hide();
    column->addWidget(refusal);
    for (const std::string& note : merged.notes) {
        auto* label = new QLabel(q(note));
        label->setTextFormat(Qt::PlainText);
        label->setProperty("quiet", true);
        label->setWordWrap(true);
        column->addWidget(label);
    }
    if (!any) column->addStretch(1);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    const auto all = [&](const QString& text, const char* name, MergeSide side) {
        if (!any) return;
        auto* button = buttons->addButton(text, QDialogButtonBox::ActionRole);
        button->setObjectName(name);
        connect(button, &QPushButton::clicked, this, [this, side] { takeAll(side); });
    };
    all(tr("Yours for all"), "mergeAllOurs", MergeSide::Ours);
    all(tr("Theirs for all"), "mergeAllTheirs", MergeSide::Theirs);
    column->addWidget(buttons);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::close);
    connect(&session, &Session::edited, this, &MergeReport::refresh);
    connect(&session, &Session::opened, this, &QDialog::close);
    refresh();
    for (int i = 0; i < list->columnCount(); ++i) list->resizeColumnToContents(i);
}

bool MergeReport::eventFilter(QObject* watched, QEvent* event) {
    if (watched == list && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Space || key == Qt::Key_Return || key == Qt::Key_Enter) {
            if (auto* row = list->currentItem()) take(row, list->currentColumn());
            return true;
        }
    }
    return QDialog::eventFilter(watched, event);
}

void MergeReport::take(QTreeWidgetItem* row, int column) {
    const MergeConflict& c = conflicts[std::size_t(list->indexOfTopLevelItem(row))];
    const auto side = sideAt(column);
    if (!side || !c.open) return;
    const auto next = decided(session.project(), c, *side);
    refusal->setVisible(!next);
    if (!next) return refusal->setText(q(next.error().text()));
    session.edit(tr("Choose of %1").arg(q(c.name)), [&](Project& p) { p = *next; });
    refresh();
    // What no project may hold is refused: it then has what it had.
    const bool done = sideOf(session.project(), c) == side;
    refusal->setVisible(!done);
    if (!done)
        refusal->setText(tr("%1 cannot be taken: %2 would not go with the rest. It stays as it is.")
                             .arg(row->text(column), q(c.name)));
}

void MergeReport::takeAll(MergeSide side) {
    Project next = session.project();
    QStringList left;
    for (const MergeConflict& c : conflicts) {
        if (!c.open) continue;
        if (auto with = decided(next, c, side))
            next = std::move(*with);
        else
            left << q(with.error().text());
    }
    session.edit(side == MergeSide::Ours ? tr("Choose yours for all") : tr("Choose theirs for all"),
                 [&](Project& p) { p = next; });
    refresh();
    for (const MergeConflict& c : conflicts)
        if (c.open && left.isEmpty() && sideOf(session.project(), c) != side)
            left << tr("Not all go together: choose them one by one.");
    refusal->setVisible(!left.isEmpty());
    refusal->setText(left.join("\n"));
}

void MergeReport::refresh() {
    if (!session.isOpen()) return;
    for (int i = 0; i < list->topLevelItemCount(); ++i) {
        const MergeConflict& c = conflicts[std::size_t(i)];
        QTreeWidgetItem* row = list->topLevelItem(i);
        const auto side = sideOf(session.project(), c);
        row->setText(Now, !c.open                     ? q(c.what)
                          : side == MergeSide::Base   ? tr("as before")
                          : side == MergeSide::Ours   ? tr("yours")
                          : side == MergeSide::Theirs ? tr("theirs")
                                                      : tr("changed since"));
        for (int at : {Before, Yours, Theirs})
            if (c.open) row->setIcon(at, choiceMark(side && columnOf(*side) == at));
        for (int at = 0; at < list->columnCount(); ++at) row->setToolTip(at, plainTip(row->text(at)));
    }
}

} // namespace lintel
