#include "app/frame/MergeReport.h"

#include "app/frame/PaintKit.h"
#include "core/compare/EnteredChanges.h"

#include <QBoxLayout>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QTreeWidget>

namespace lintel {

MergeReport::MergeReport(Session& session, const Merged& merged, QWidget* parent) : QDialog(parent) {
    setWindowTitle(tr("Merged"));
    setObjectName("mergeReport");
    auto* column = new QVBoxLayout(this);
    const std::size_t n = merged.conflicts.size();
    resize(n == 0 ? 520 : 860, n == 0 ? 130 : 420);
    auto* about = new QLabel(
        n == 0
            ? tr("Their work and yours are together. Nothing was changed by both in different ways. Look at it, then "
                 "save.")
            : tr("Their work and yours are together, but for what both changed in different ways: there yours is kept. "
                 "Decide on each, then save. Undo takes the whole merge back."));
    about->setObjectName("mergeAbout");
    about->setTextFormat(Qt::PlainText);
    about->setWordWrap(true);
    column->addWidget(about);
    auto* list = new QTreeWidget;
    list->setObjectName("mergeConflicts");
    list->setRootIsDecorated(false);
    list->setHeaderLabels({tr("Of"), tr("What"), tr("Before"), tr("Yours"), tr("Theirs"), tr("Done")});
    const auto words = [](const std::string& value) { return value.empty() ? tr("as usual") : q(value); };
    for (const MergeConflict& c : merged.conflicts) {
        auto* row =
            new QTreeWidgetItem(list, {q(c.name), c.field.empty() ? tr("the thing as a whole") : q(fieldWords(c.field)),
                                       words(c.base), words(c.ours), words(c.theirs), q(c.what)});
        row->setData(0, Qt::UserRole, q(c.thing.text()));
        for (int i = 0; i < list->columnCount(); ++i) row->setToolTip(i, plainTip(row->text(i)));
    }
    for (int i = 0; i < list->columnCount(); ++i) list->resizeColumnToContents(i);
    list->setVisible(n > 0);
    column->addWidget(list, 1);
    connect(list, &QTreeWidget::currentItemChanged, this, [&session](QTreeWidgetItem* row) {
        if (!row) return;
        const Ref thing = refFrom(row->data(0, Qt::UserRole).toString().toStdString());
        if (session.solution().results.knows(thing)) session.select(thing);
    });
    for (const std::string& note : merged.notes) {
        auto* label = new QLabel(q(note));
        label->setTextFormat(Qt::PlainText);
        label->setProperty("quiet", true);
        label->setWordWrap(true);
        column->addWidget(label);
    }
    if (n == 0) column->addStretch(1);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    column->addWidget(buttons);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::close);
}

} // namespace lintel
