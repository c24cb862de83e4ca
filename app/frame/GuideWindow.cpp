#include "app/frame/GuideWindow.h"

#include "app/frame/PaintKit.h"
#include "core/base/DataPath.h"
#include "core/base/TextFile.h"

#include <QBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QScrollBar>
#include <QTextBlock>
#include <QTextBrowser>
#include <QTextTable>

namespace lintel {
namespace {

/// Room around cells and between paragraphs: Markdown says nothing of it.
void spread(QTextDocument& document) {
    document.setDocumentMargin(28);
    for (QTextFrame* frame : document.rootFrame()->childFrames())
        if (auto* table = qobject_cast<QTextTable*>(frame)) {
            QTextTableFormat format = table->format();
            format.setBorder(1);
            format.setBorderStyle(QTextFrameFormat::BorderStyle_Solid);
            format.setBorderBrush(theme().rule);
            format.setBorderCollapse(true);
            format.setCellPadding(4);
            format.setCellSpacing(0);
            format.setBottomMargin(12);
            table->setFormat(format);
        }
    for (QTextBlock b = document.begin(); b.isValid(); b = b.next()) {
        QTextCursor at(b);
        QTextBlockFormat format = b.blockFormat();
        format.setLineHeight(125, QTextBlockFormat::ProportionalHeight);
        if (format.headingLevel() > 0) format.setTopMargin(format.headingLevel() > 1 ? 18 : 0);
        format.setBottomMargin(format.headingLevel() > 0 || b.textList() ? 5 : 9);
        at.setBlockFormat(format);
    }
}

/// The words in bold that a point of a list begins with; empty: it begins with none.
QString termOf(const QTextBlock& block) {
    if (!block.textList()) return {};
    const auto first = block.begin();
    if (first.atEnd() || first.fragment().charFormat().fontWeight() < QFont::DemiBold) return {};
    return first.fragment().text().trimmed();
}

} // namespace

GuideWindow::GuideWindow(const QString& text, QWidget* parent)
    : QWidget(parent, Qt::Window), chapters(new QListWidget(this)), browser(new QTextBrowser(this)),
      wanted(new QLineEdit(this)), said(new QLabel(this)) {
    setWindowTitle(tr("User guide"));
    setObjectName("guideWindow");
    setAttribute(Qt::WA_StyledBackground);
    resize(980, 720);
    chapters->setObjectName("guideChapters");
    chapters->setFixedWidth(240);
    browser->setObjectName("guideText");
    browser->setFrameShape(QFrame::NoFrame);
    browser->setOpenLinks(false);
    wanted->setObjectName("guideFind");
    wanted->setPlaceholderText(tr("Find in the guide"));
    said->setWordWrap(true);
    said->setProperty("quiet", true);
    browser->setMarkdown(text);
    spread(*browser->document());
    findPlaces();

    auto* left = new QVBoxLayout;
    left->setContentsMargins(12, 12, 0, 12);
    left->setSpacing(8);
    left->addWidget(wanted);
    left->addWidget(said);
    left->addWidget(chapters, 1);
    auto* across = new QHBoxLayout(this);
    across->setContentsMargins(0, 0, 0, 0);
    across->addLayout(left);
    across->addWidget(browser, 1);
    said->hide();
    const auto show = [this](QListWidgetItem* item) { showAt(item->data(Qt::UserRole).toString()); };
    connect(chapters, &QListWidget::itemClicked, this, show);
    connect(chapters, &QListWidget::itemActivated, this, show);
    connect(wanted, &QLineEdit::returnPressed, this, &GuideWindow::findNext);
    connect(wanted, &QLineEdit::textEdited, this, [this] { said->hide(); });
}

QString GuideWindow::shipped() {
    const auto beside = dataFolder().parent_path();
    for (const auto& file : {dataFolder() / "user-guide.md", beside / "docs" / "user-guide.md",
                             beside / "doc" / "lintel" / "user-guide.md"})
        if (const auto text = readText(file)) return q(*text);
    return {};
}

void GuideWindow::findPlaces() {
    for (QTextBlock b = browser->document()->begin(); b.isValid(); b = b.next()) {
        const int level = b.blockFormat().headingLevel();
        const QString heading = level > 0 ? b.text().trimmed() : termOf(b);
        if (heading.isEmpty()) continue;
        places.push_back({heading, b.position(), level > 0});
        if (level <= 0) continue;
        auto* item = new QListWidgetItem(QString(level > 2 ? "    " : "") + heading, chapters);
        item->setData(Qt::UserRole, heading);
    }
}

QStringList GuideWindow::headings() const {
    QStringList all;
    for (const Place& p : places) all << p.heading;
    return all;
}

void GuideWindow::goTo(int position) {
    QTextCursor at(browser->document());
    at.setPosition(position);
    browser->setTextCursor(at);
    // What was sought stands at the top, not at the foot, where a cursor that comes into sight would be.
    browser->verticalScrollBar()->setValue(browser->verticalScrollBar()->value() + browser->cursorRect().top() - 12);
}

bool GuideWindow::showAt(const QString& heading) {
    for (const Place& p : places) {
        if (p.heading != heading) continue;
        goTo(p.position);
        for (int i = 0; i < chapters->count(); ++i)
            if (chapters->item(i)->data(Qt::UserRole).toString() == heading) chapters->setCurrentRow(i);
        return true;
    }
    return false;
}

void GuideWindow::findNext() {
    const QString text = wanted->text().trimmed();
    if (text.isEmpty()) return;
    bool found = browser->find(text);
    if (!found) { // from the top again
        QTextCursor top(browser->document());
        browser->setTextCursor(top);
        found = browser->find(text);
    }
    said->setText(found ? QString() : tr("“%1” is not in the guide.").arg(text));
    said->setVisible(!found);
}

void GuideWindow::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Escape)
        close();
    else if (e->matches(QKeySequence::Find))
        wanted->setFocus();
    else
        QWidget::keyPressEvent(e);
}

} // namespace lintel
