#include "app/boards/BoardCard.h"

#include <QBoxLayout>
#include <QKeyEvent>
#include <QPushButton>

namespace lintel {

BoardCard::BoardCard(Session& s, const QString& name, const QString& does, const QString& leaves, QWidget* parent)
    : QFrame(parent), session(s), across(new QHBoxLayout(this)), go(new QPushButton(does, this)),
      no(new QPushButton(leaves, this)) {
    setObjectName(name + "Card");
    setProperty("card", true);
    setFixedHeight(212);
    across->setContentsMargins(12, 10, 12, 10);
    across->setSpacing(14);
    go->setProperty("strong", true);
    go->setObjectName(name + "Apply");
    no->setObjectName(name + "Cancel");
    connect(go, &QPushButton::clicked, this, &BoardCard::apply);
    connect(no, &QPushButton::clicked, this, &BoardCard::drop);
    hide();
}

QHBoxLayout* BoardCard::buttons() {
    auto* row = new QHBoxLayout;
    row->addWidget(go);
    row->addWidget(no);
    row->addStretch(1);
    return row;
}

void BoardCard::drop() {
    stop();
    setVisible(false);
    Q_EMIT closed();
}

void BoardCard::showEvent(QShowEvent* e) {
    // They are made first, and come last by Tab.
    QWidget* before = nullptr;
    for (QWidget* w : findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly))
        if (w != go && w != no && w->focusPolicy() & Qt::TabFocus) before = w;
    if (before) setTabOrder(before, go), setTabOrder(go, no);
    QFrame::showEvent(e);
}

void BoardCard::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Escape)
        drop();
    else if (enterApplies && (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter))
        apply();
    else
        QFrame::keyPressEvent(e);
}

} // namespace lintel
