#include "app/frame/StartPage.h"

#include "app/frame/PaintKit.h"
#include "core/base/TextFile.h"
#include "core/project/Journal.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"

#include <QBoxLayout>
#include <QDateTime>
#include <QFileInfo>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>

namespace lintel {
namespace {

/// Where a journal that nobody wants to recover is kept: nothing is lost by putting it away.
std::filesystem::path putAway(const std::filesystem::path& journal) {
    return Session::stateFolder() / "recovery" / "put-away" /
           fileNameWithin(journal.filename().string(),
                          "-" + QString::number(QDateTime::currentMSecsSinceEpoch()).toStdString());
}

/// A wide button of two lines: what it is, and a word about it.
class Choice : public QPushButton {
public:
    Choice(const QString& title, const QString& about, const QString& mark = {})
        : heading(title), words(about), sign(mark) {
        setFixedHeight(58);
        setMinimumWidth(340);
        setCursor(Qt::PointingHandCursor);
        setAccessibleName(title);
        setObjectName("choice:" + title);
    }

    QSize sizeHint() const override { return {460, 58}; } // less where the bench stands beside it

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        p.setPen(QPen(underMouse() || hasFocus() ? t.accent : t.rule, 1));
        p.setBrush(t.surface);
        p.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 5, 5);
        drawLine(p, QRectF(16, 9, width() - 32, 20), heading, Qt::AlignLeft, sign == "!" ? t.stop : t.ink,
                 uiFont(1, true));
        drawLine(p, QRectF(16, 30, width() - 32, 18), words, Qt::AlignLeft, t.quiet, uiFont(0.88));
    }

private:
    QString heading, words, sign;
};

} // namespace

StartPage::StartPage(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setFocusPolicy(Qt::StrongFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    rebuild();
}

void StartPage::rebuild() {
    if (body) body->deleteLater();
    auto* scroll = new QScrollArea(this); // on a low screen, or with much to recover
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    auto* page = new QWidget;
    scroll->setWidget(page);
    body = scroll;
    layout()->addWidget(body);
    auto* outer = new QVBoxLayout(page);
    outer->addStretch(2);
    auto* name = new QLabel("Lintel");
    QFont big = uiFont(2.6, true);
    name->setFont(big);
    name->setStyleSheet(QString("font-size: 34px; font-weight: 600; color: %1").arg(theme().ink.name()));
    auto* about =
        new QLabel(tr("Circuits, boards and feeders of a building. It carries load, and it has to be level."));
    about->setProperty("quiet", true);
    auto* head = new QVBoxLayout;
    head->addWidget(name);
    head->addWidget(about);
    auto* grid = new QHBoxLayout;
    grid->addStretch(1);
    auto* wide = new QVBoxLayout;
    wide->addLayout(head);
    wide->addSpacing(18);
    auto* columns = new QHBoxLayout;
    columns->setSpacing(28);
    auto* left = new QVBoxLayout;
    auto* right = new QVBoxLayout;
    left->setSpacing(8);
    right->setSpacing(8);
    columns->addLayout(left);
    columns->addLayout(right);
    wide->addLayout(columns);
    grid->addLayout(wide);
    grid->addStretch(1);
    outer->addLayout(grid);
    outer->addStretch(3);

    const auto heading = [](QVBoxLayout* in, const QString& text) {
        auto* l = new QLabel(text);
        l->setProperty("heading", true);
        in->addSpacing(6);
        in->addWidget(l);
    };
    const auto report = [this](const std::optional<Error>& bad) {
        if (bad) Q_EMIT failed(q(bad->text()));
    };
    const auto left_ = Session::leftBehind();
    if (!left_.empty()) {
        heading(left, tr("RECOVER"));
        for (const auto& journal : left_) {
            auto r = readJournal(journal);
            if (!r) {
                auto* damaged =
                    new QLabel(tr("A journal that cannot be read is kept in %1").arg(q(textOfPath(journal))));
                damaged->setTextFormat(Qt::PlainText);
                damaged->setWordWrap(true);
                damaged->setToolTip(plainTip(q(r.error().text())));
                left->addWidget(damaged);
                continue;
            }
            if (!*r) continue;
            const QString what =
                (*r)->project.empty() ? q((*r)->recovered.basis.title) : q(textOfPath((*r)->project.filename()));
            auto* b = new Choice(tr("Recover %1").arg(what),
                                 ((*r)->edits == 1 ? tr("One edit not saved: %1")
                                                   : tr("%1 edits not saved, the last: %2").arg((*r)->edits))
                                         .arg(q((*r)->lastLabel)) +
                                     ((*r)->fits ? QString() : tr("; the file was changed since: a copy")),
                                 "!");
            auto* away = new QPushButton(tr("Put away"));
            away->setObjectName("putAway");
            away->setToolTip(tr("Offered no more; kept in %1").arg(q(putAway(journal).parent_path().string())));
            auto* both = new QHBoxLayout;
            both->setSpacing(8);
            both->addWidget(b, 1);
            both->addWidget(away);
            left->addLayout(both);
            connect(b, &QPushButton::clicked, this, [this, journal, report] { report(session.recover(journal)); });
            connect(away, &QPushButton::clicked, this, [this, journal, report] {
                const auto to = putAway(journal);
                std::error_code ec;
                std::filesystem::create_directories(to.parent_path(), ec);
                report(moveFile(journal, to)); // from another disk, too; what cannot be moved stays on offer
                // The page goes with its buttons: after this click.
                QMetaObject::invokeMethod(this, &StartPage::rebuild, Qt::QueuedConnection);
            });
        }
    }
    heading(left, tr("BEGIN"));
    for (const ShippedProject& s : shippedProjects("starters")) {
        const QString about_ = q(s.about);
        auto* b = new Choice(about_.section(':', 0, 0), about_.section(": ", 1));
        left->addWidget(b);
        connect(b, &QPushButton::clicked, this, [this, file = s.file, report] { report(session.beginFrom(file)); });
    }
    left->addStretch(1);
    heading(right, tr("OPEN"));
    auto* open = new Choice(tr("Open a project…"), tr("A .lintel file"));
    right->addWidget(open);
    connect(open, &QPushButton::clicked, this, &StartPage::openWanted);
    auto* bench = new Choice(tr("One-off sums…"), tr("A cable, a motor, a house: the bench, without a project"));
    right->addWidget(bench);
    connect(bench, &QPushButton::clicked, this, &StartPage::benchWanted);
    heading(right, tr("DEMOS"));
    for (const ShippedProject& s : shippedProjects("demos")) {
        auto* b = new Choice(q(s.name), q(s.about));
        right->addWidget(b);
        connect(b, &QPushButton::clicked, this, [this, file = s.file, report] { report(session.beginFrom(file)); });
    }
    heading(right, tr("RECENT"));
    int n = 0;
    for (const QString& f : Session::recentFiles()) {
        if (!QFileInfo::exists(f) || ++n > 4) continue;
        auto* b = new Choice(QFileInfo(f).completeBaseName(), f);
        right->addWidget(b);
        connect(b, &QPushButton::clicked, this,
                [this, f, report] { report(session.open(pathFromText(f.toStdString()))); });
    }
    if (!n) {
        auto* none = new QLabel(tr("Projects that you open or save come here."));
        none->setProperty("quiet", true);
        none->setMinimumWidth(300);
        right->addWidget(none);
    }
    right->addStretch(1);
}

} // namespace lintel
