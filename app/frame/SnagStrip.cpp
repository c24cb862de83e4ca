#include "app/frame/SnagStrip.h"

#include "app/frame/PaintKit.h"

#include <QBoxLayout>
#include <QLabel>
#include <QMouseEvent>
#include <QPushButton>
#include <QScrollArea>
#include <QTimer>

namespace lintel {

namespace {
QColor colourOf(Severity s) { return s == Severity::Stop ? theme().stop : s == Severity::Check ? theme().check : theme().note; }
}

void SnagStrip::apply(Session& session, const Snag& snag, const Remedy& remedy) {
    const Ref about = snag.about;
    session.edit(q(remedy.label), remedy.apply);
    session.say(QObject::tr("%1. Undo brings it back.").arg(q(remedy.label)));
    session.select(about);
}

SnagList::SnagList(Session& s, QWidget* parent) : QFrame(parent), session(s) {
    setProperty("card", true);
    setObjectName("snagList");
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* scroll = new QScrollArea(this);
    auto* inner = new QWidget;
    rows = new QVBoxLayout(inner);
    rows->setContentsMargins(14, 10, 14, 10);
    rows->setSpacing(9);
    scroll->setWidget(inner);
    scroll->setWidgetResizable(true);
    column->addWidget(scroll);
    hide();
}

void SnagList::rebuild() {
    while (QLayoutItem* item = rows->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        delete item;
    }
    const auto solution = session.sharedSolution();
    int shown = 0;
    for (const Snag& snag : solution->snags) {
        if (++shown > 60) {
            rows->addWidget(new QLabel(tr("and %1 more").arg(int(solution->snags.size()) - 60)));
            break;
        }
        auto* row = new QWidget;
        auto* line = new QHBoxLayout(row);
        line->setContentsMargins(0, 0, 0, 0);
        line->setSpacing(8);
        auto* dot = new QLabel("●");
        dot->setStyleSheet("color: " + colourOf(snag.severity).name());
        line->addWidget(dot);
        auto* text = new QPushButton(q(snag.text) + (snag.cited.empty() ? "" : "   " + q(snag.cited)));
        text->setFlat(true);
        text->setProperty("flat", true);
        text->setStyleSheet("text-align: left; color: " + theme().ink.name());
        text->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        const Ref about = snag.about;
        connect(text, &QPushButton::clicked, this, [this, about] { session.select(about); });
        line->addWidget(text, 1);
        for (const Remedy& r : remediesFor(solution->input(), snag)) {
            auto* button = new QPushButton(q(r.label));
            button->setProperty("strong", true);
            // What it does elsewhere is worked out when the pointer rests on it.
            button->setAttribute(Qt::WA_Hover);
            button->setToolTip(solution->project.circuits.size() < 3000 ? q(effectOf(solution->input(), r).text()) : QString());
            connect(button, &QPushButton::clicked, this, [this, snag, r] { SnagStrip::apply(session, snag, r); });
            line->addWidget(button);
        }
        rows->addWidget(row);
    }
    if (!shown) rows->addWidget(new QLabel(tr("No snags.")));
    rows->addStretch(1);
}

SnagStrip::SnagStrip(Session& s, QWidget* parent) : QWidget(parent), session(s), remedy(new QPushButton(this)), all(new SnagList(s, parent)) {
    setFixedHeight(34);
    setObjectName("snags");
    remedy->setObjectName("firstRemedy");
    remedy->setProperty("strong", true);
    remedy->setCursor(Qt::PointingHandCursor);
    connect(remedy, &QPushButton::clicked, this, [this] {
        const auto solution = session.sharedSolution();
        if (solution->snags.empty()) return;
        const auto remedies = remediesFor(solution->input(), solution->snags.front());
        if (!remedies.empty()) apply(session, solution->snags.front(), remedies.front());
    });
    connect(&session, &Session::solved, this, &SnagStrip::rebuild);
    connect(&session, &Session::opened, this, &SnagStrip::rebuild);
    connect(&session, &Session::said, this, [this](const QString& text, bool isError) {
        message = text;
        messageIsError = isError;
        update();
        const QString mine = text;
        QTimer::singleShot(isError ? 9000 : 4500, this, [this, mine] {
            if (message == mine) message.clear(), update();
        });
    });
}

void SnagStrip::rebuild() {
    const auto solution = session.sharedSolution();
    counts[0] = counts[1] = counts[2] = 0;
    for (const Snag& s : solution->snags) ++counts[int(s.severity)];
    worst.clear();
    remedy->hide();
    if (!solution->snags.empty()) {
        const Snag& s = solution->snags.front();
        worst = q(s.text);
        worstSeverity = s.severity;
        const auto remedies = remediesFor(solution->input(), s);
        if (!remedies.empty()) {
            remedy->setText(q(remedies.front().label));
            remedy->adjustSize();
            remedy->show();
        }
    }
    if (all->isVisible()) all->rebuild();
    placeList();
    update();
}

void SnagStrip::placeList() {
    remedy->move(width() - remedy->width() - 16, (height() - remedy->height()) / 2);
    if (!parentWidget()) return;
    const int h = std::min(300, parentWidget()->height() / 2);
    all->setGeometry(x() + 8, y() - h - 4, width() - 16, h);
    all->raise();
}

void SnagStrip::toggleList() {
    if (!all->isVisible()) all->rebuild();
    all->setVisible(!all->isVisible());
    placeList();
}

void SnagStrip::resizeEvent(QResizeEvent*) { placeList(); }
void SnagStrip::mousePressEvent(QMouseEvent* e) {
    if (e->position().x() < countsEnd) return toggleList();
    const auto solution = session.sharedSolution();
    if (message.isEmpty() && !solution->snags.empty()) session.select(solution->snags.front().about);
}

void SnagStrip::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.fillRect(rect(), t.paper);
    p.setPen(t.rule);
    p.drawLine(0, 0, width(), 0);
    drawLine(p, QRectF(16, 0, 50, height()), tr("SNAGS"), Qt::AlignLeft, t.quiet, uiFont(0.82, true));
    double x = 70;
    const QFont f = uiFont(0.95);
    for (int i = 0; i < 3; ++i) {
        const QString text = QString("%1 %2").arg(counts[i]).arg(wordOf(Severity(i)));
        p.setPen(Qt::NoPen);
        p.setBrush(counts[i] ? colourOf(Severity(i)) : t.rule);
        p.drawEllipse(QPointF(x + 4, height() / 2.0), 4.5, 4.5);
        const double w = QFontMetricsF(f).horizontalAdvance(text);
        drawLine(p, QRectF(x + 14, 0, w + 4, height()), text, Qt::AlignLeft, counts[i] ? t.ink : t.quiet, f);
        x += w + 30;
    }
    countsEnd = x;
    p.setPen(t.rule);
    p.drawLine(QPointF(x, 8), QPointF(x, height() - 8));
    const double right = remedy->isVisible() ? remedy->x() - 12 : width() - 12;
    if (!message.isEmpty()) drawLine(p, QRectF(x + 14, 0, right - x - 14, height()), message, Qt::AlignLeft, messageIsError ? t.stop : t.accent, uiFont(0.95, messageIsError));
    else drawLine(p, QRectF(x + 14, 0, right - x - 14, height()), worst.isEmpty() && session.isOpen() ? tr("Nothing stands in the way of an issue.") : worst, Qt::AlignLeft, t.ink, f);
}

} // namespace lintel
