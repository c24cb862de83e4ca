#include "app/issue/CompareList.h"

#include "app/frame/PaintKit.h"
#include "app/frame/WrapDelegate.h"

#include <QBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QToolButton>

namespace lintel {

CompareList::CompareList(Session& s, QWidget* parent)
    : QWidget(parent), session(s), file(new QLabel(this)), summary(new QLabel(this)), list(new QListWidget(this)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto* head = new QLabel(tr("SINCE"));
    head->setProperty("heading", true);
    column->addWidget(head);
    file->setWordWrap(true);
    file->setTextFormat(Qt::PlainText);
    column->addWidget(file);
    summary->setWordWrap(true);
    summary->setProperty("quiet", true);
    summary->setTextFormat(Qt::PlainText);
    summary->setObjectName("compareSummary");
    column->addWidget(summary);
    auto* kinds = new QHBoxLayout;
    kinds->setSpacing(4);
    for (auto [button, object] :
         {std::pair{&entered, "compareEntered"}, {&follows, "compareFollows"}, {&snags, "compareSnags"}}) {
        *button = kind(object);
        kinds->addWidget(*button);
    }
    kinds->addStretch(1);
    column->addLayout(kinds);
    list->setObjectName("compareRows");
    list->setWordWrap(true);
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOn); // lines are broken for the width that is left beside it
    list->setResizeMode(QListView::Adjust);
    list->setTextElideMode(Qt::ElideNone);
    list->setItemDelegate(new WrapDelegate(list));
    column->addWidget(list, 1);
    auto* pdf = new QPushButton(tr("Clouds PDF…"));
    pdf->setObjectName("comparePdf");
    auto* words = new QPushButton(tr("List PDF…"));
    words->setObjectName("compareListPdf");
    auto* files = new QHBoxLayout;
    files->setSpacing(4);
    files->addWidget(words);
    files->addWidget(pdf);
    column->addLayout(files);
    connect(pdf, &QPushButton::clicked, this, &CompareList::pdfWanted);
    connect(words, &QPushButton::clicked, this, &CompareList::listWanted);
    auto* back = new QPushButton(tr("Back to the sheets"));
    back->setObjectName("compareBack");
    column->addWidget(back);
    connect(back, &QPushButton::clicked, this, &CompareList::closed);
    connect(list, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* i) {
        if (!i) return;
        const Ref thing = refFrom(i->data(Qt::UserRole).toString().toStdString());
        if (thing) Q_EMIT chosen(thing);
    });
}

QToolButton* CompareList::kind(const char* object) {
    auto* b = new QToolButton;
    b->setObjectName(object);
    b->setCheckable(true);
    b->setChecked(true);
    connect(b, &QToolButton::toggled, this, &CompareList::fill);
    return b;
}

void CompareList::show(const QString& name, const ProjectComparison& c) {
    comparison = c;
    file->setText(name);
    summary->setText(q(c.summary()));
    entered->setText(tr("Entered %1").arg(c.entered.size()));
    follows->setText(tr("Follows %1").arg(c.follows.size()));
    snags->setText(tr("Snags %1").arg(c.newSnags.size() + c.gone.size() + c.otherwise.size()));
    fill();
}

void CompareList::heading(const QString& words) {
    auto* i = new QListWidgetItem(words, list);
    QFont f = list->font();
    f.setBold(true);
    i->setFont(f);
    i->setBackground(theme().sunk);
    i->setFlags(Qt::ItemIsEnabled);
}

void CompareList::row(const QString& words, Ref thing, bool byHand) {
    auto* i = new QListWidgetItem(words, list);
    i->setForeground(byHand ? theme().ink : theme().quiet);
    i->setData(Qt::UserRole, q(thing.text()));
    i->setToolTip(plainTip(words));
}

/// Group by group, the weightiest first: what was entered there, then what follows there.
void CompareList::fill() {
    QSignalBlocker quiet(list);
    list->clear();
    for (const ChangeGroup& group : comparison.grouped()) {
        const bool byHand = entered->isChecked() && !group.entered.empty(),
                   after = follows->isChecked() && !group.follows.empty();
        if (!byHand && !after) continue;
        heading(q(group.name));
        if (byHand)
            for (const EnteredChange* e : group.entered)
                row(q(e->text()), e->what == EnteredChange::What::Removed ? Ref() : e->thing, true);
        if (after)
            for (const FollowedChange* f : group.follows) row(q(f->text()), f->thing, false);
    }
    if (snags->isChecked()) {
        if (!comparison.newSnags.empty()) heading(tr("New snags"));
        for (const std::string& s : comparison.newSnags) row(q(s), Ref(), true);
        if (!comparison.gone.empty()) heading(tr("Snags gone"));
        for (const std::string& s : comparison.gone) row(q(s), Ref(), false);
        if (!comparison.otherwise.empty()) heading(tr("Snags with other figures"));
        for (const std::string& s : comparison.otherwise) row(q(s), Ref(), false);
    }
}

} // namespace lintel
