#include "app/frame/PreviewCard.h"

#include "app/frame/PaintKit.h"

#include <QBoxLayout>
#include <QLabel>
#include <QPushButton>

namespace lintel {

PreviewCard::PreviewCard(QWidget* parent)
    : QFrame(parent), heading(new QLabel(this)), text(new QLabel(this)), go(new QPushButton(this)),
      no(new QPushButton(tr("Cancel"), this)) {
    setProperty("card", true);
    setObjectName("previewCard");
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(6);
    text->setWordWrap(true);
    text->setMinimumWidth(340);
    text->setObjectName("previewWords");
    go->setProperty("strong", true);
    go->setObjectName("previewAccept");
    no->setObjectName("previewCancel");
    asRich(heading);
    asRich(text);
    column->addWidget(heading);
    column->addWidget(text);
    auto* row = new QHBoxLayout;
    row->addStretch(1);
    row->addWidget(no);
    row->addWidget(go);
    column->addLayout(row);
    connect(go, &QPushButton::clicked, this, &PreviewCard::accept);
    connect(no, &QPushButton::clicked, this, &PreviewCard::drop);
    hide();
}

void PreviewCard::show(const QString& title, const QString& words, const QString& button, std::function<void()> then) {
    heading->setText("<b>" + title.toHtmlEscaped() + "</b>");
    text->setText(words);
    go->setText(button);
    go->setVisible(bool(then));
    no->setText(then ? tr("Cancel") : tr("Close"));
    doIt = std::move(then);
    setVisible(true);
    place();
    raise();
}
void PreviewCard::place() {
    adjustSize();
    const QWidget* p = parentWidget();
    move(std::max(8, (p->width() - width()) / 2), std::max(8, p->height() - height() - 36));
}
void PreviewCard::accept() {
    hide();
    const auto then = std::move(doIt);
    doIt = {};
    if (then) then();
    Q_EMIT closed();
    parentWidget()->setFocus();
}
void PreviewCard::drop() {
    doIt = {};
    hide();
    Q_EMIT closed();
    parentWidget()->setFocus();
}
QString PreviewCard::words() const { return text->text(); }

} // namespace lintel
