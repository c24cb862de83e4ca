#include "app/frame/SnagStrip.h"

#include "app/frame/FlowLayout.h"
#include "app/frame/PaintKit.h"
#include "core/check/Compare.h"

#include <QBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPushButton>
#include <QScrollArea>
#include <QTimer>

#include <set>

namespace lintel {

namespace {
/// What is wrong, on as many lines as it takes; a click or Enter leads to the thing.
class SnagWords : public QLabel {
public:
    SnagWords(const QString& text, std::function<void()> lead) : QLabel(text), go(std::move(lead)) {
        setTextFormat(Qt::PlainText);
        setWordWrap(true);
        setCursor(Qt::PointingHandCursor);
        setFocusPolicy(Qt::TabFocus);
        setObjectName("snagWords");
    }

protected:
    void mouseReleaseEvent(QMouseEvent* e) override {
        if (rect().contains(e->pos())) go();
    }
    void keyPressEvent(QKeyEvent* e) override {
        if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter)
            go();
        else
            QLabel::keyPressEvent(e);
    }

private:
    std::function<void()> go;
};

QColor colourOf(Severity s) {
    return s == Severity::Stop ? theme().stop : s == Severity::Check ? theme().check : theme().note;
}
} // namespace

void SnagStrip::apply(Session& session, const Snag& snag, const Remedy& remedy) {
    session.edit(q(remedy.label), remedy.apply);
    session.say(
        QObject::tr("%1: %2. Undo brings it back.").arg(q(nameOf(session.project(), snag.about)), q(remedy.label)));
}

RemedyButton::RemedyButton(Session& s, QWidget* parent) : QPushButton(parent), session(s) {
    setProperty("strong", true);
    setFocusPolicy(
        Qt::TabFocus); // a click leaves the keys where the person works: no Enter applies a second one unseen
}

void RemedyButton::offer(const Remedy& r) {
    remedy = r;
    effect.clear();
    setText(plainButton(q(r.label)));
}

bool RemedyButton::event(QEvent* e) {
    if ((e->type() == QEvent::Enter || e->type() == QEvent::FocusIn || e->type() == QEvent::ToolTip) && remedy.apply) {
        if (effect.isEmpty())
            effect = q(effectOf(session.sharedSolution()->input(), remedy).text()); // worked out before it is applied
        setToolTip(plainTip(effect));
        Q_EMIT pointed(effect);
    }
    if (e->type() == QEvent::Leave || e->type() == QEvent::FocusOut || e->type() == QEvent::Hide) Q_EMIT pointed({});
    return QPushButton::event(e);
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
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(scroll);
    foot = new QLabel(this);
    foot->setObjectName("remedyEffect");
    foot->setContentsMargins(14, 4, 14, 6);
    foot->setText(tr("Point at a remedy to see what it does elsewhere."));
    column->addWidget(foot);
    hide();
}

void SnagList::rebuild() {
    while (QLayoutItem* item = rows->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        if (QLayout* inner = item->layout())
            while (QLayoutItem* part = inner->takeAt(0)) {
                if (part->widget()) part->widget()->deleteLater();
                delete part;
            }
        delete item;
    }
    const auto solution = session.sharedSolution();
    int shown = 0;
    std::set<std::pair<const CheckRule*, Severity>> grouped;
    const auto button = [this](const Snag& snag, const Remedy& r) {
        auto* b = new RemedyButton(session);
        b->offer(r);
        connect(b, &QPushButton::clicked, this, [this, snag, r] { SnagStrip::apply(session, snag, r); });
        connect(b, &RemedyButton::pointed, this, [this, label = q(r.label)](const QString& effect) {
            foot->setText(effect.isEmpty() ? tr("Point at a remedy to see what it does elsewhere.")
                                           : label + ": " + effect);
        });
        return b;
    };
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
        line->addWidget(dot, 0, Qt::AlignTop);
        // The words first and whole; below them what puts it right, on as many lines as that takes.
        auto* words = new QVBoxLayout;
        words->setSpacing(4);
        line->addLayout(words, 1);
        const Ref about = snag.about;
        words->addWidget(new SnagWords(q(snag.text) + (snag.cited.empty() ? "" : "   " + q(snag.cited)),
                                       [this, about] { session.select(about); }));
        const auto remedies = remediesFor(solution->input(), snag);
        if (!remedies.empty()) {
            auto* flow = new FlowLayout;
            for (const Remedy& r : remedies) flow->addWidget(button(snag, r));
            words->addLayout(flow);
        }
        rows->addWidget(row);
        // Above the first of several equal ones: all of them at once.
        if (remedies.empty() || !grouped.insert({snag.rule, snag.severity}).second) continue;
        const auto equal = std::count_if(solution->snags.begin(), solution->snags.end(), [&](const Snag& s) {
            return s.rule == snag.rule && s.severity == snag.severity;
        });
        if (equal < 2) continue;
        auto* together = new FlowLayout;
        auto* label = new QLabel(tr("%1 snags like this one:").arg(int(equal)));
        label->setStyleSheet("color: " + theme().quiet.name());
        together->addWidget(label);
        bool any = false;
        for (const Remedy& r : remedies)
            if (const GroupFix g = groupFix(solution->input(), solution->snags, snag, r); g.count > 1) {
                auto* b = button(snag, g.remedy);
                b->setObjectName("groupFix");
                together->addWidget(b);
                any = true;
            }
        if (any)
            rows->insertLayout(rows->count() - 1, together);
        else {
            delete label;
            delete together;
        }
    }
    if (!shown) rows->addWidget(new QLabel(tr("No snags.")));
    rows->addStretch(1);
}

namespace {
/// What happened and what to do, which stand on two lines elsewhere: as two sentences.
QString onOneLine(const QString& text) {
    QString line;
    for (const QString& part : text.split('\n', Qt::SkipEmptyParts)) {
        if (!line.isEmpty()) line += line.back().isPunct() ? " " : ". ";
        line += part.trimmed();
    }
    return line;
}
} // namespace

SnagStrip::SnagStrip(Session& s, QWidget* parent)
    : QWidget(parent), session(s), remedy(new RemedyButton(s, this)), all(new SnagList(s, parent)),
      effect(new QLabel(parent)) {
    setFixedHeight(34);
    setObjectName("snags");
    remedy->setObjectName("firstRemedy");
    // What the remedy does elsewhere stands above the strip, not in place of the words that it belongs to.
    effect->setObjectName("firstEffect");
    effect->setProperty("card", true);
    effect->setTextFormat(Qt::PlainText);
    effect->setContentsMargins(12, 5, 12, 5);
    effect->hide();
    connect(remedy, &RemedyButton::pointed, this, [this](const QString& text) {
        effect->setText(text);
        effect->setVisible(!text.isEmpty() && !all->isVisible());
        placeList();
    });
    remedy->setCursor(Qt::PointingHandCursor);
    connect(remedy, &QPushButton::clicked, this, [this] {
        const auto solution = session.sharedSolution();
        if (solution->snags.empty()) return;
        const auto remedies = remediesFor(solution->input(), solution->snags.front());
        if (!remedies.empty()) apply(session, solution->snags.front(), remedies.front());
    });
    connect(&session, &Session::solved, this, &SnagStrip::rebuild);
    connect(&session, &Session::opened, this, &SnagStrip::rebuild);
    connect(&session, &Session::edited, this, [this] { message.clear(), update(); }); // what it said is over
    connect(&session, &Session::said, this, [this](const QString& text, bool isError) {
        message = onOneLine(text);
        messageIsError = isError;
        update();
        const QString mine = message;
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
    effect->hide();
    remedy->hide();
    if (!solution->snags.empty()) {
        const Snag& s = solution->snags.front();
        worst = q(s.text);
        worstSeverity = s.severity;
        const auto remedies = remediesFor(solution->input(), s);
        if (!remedies.empty()) {
            remedy->offer(remedies.front());
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
    const int h = std::min(380, parentWidget()->height() / 2);
    all->setGeometry(x() + 8, y() - h - 4, width() - 16, h);
    all->raise();
    effect->adjustSize();
    effect->move(x() + width() - effect->width() - 16, y() - effect->height() - 4);
    effect->raise();
}

void SnagStrip::toggleList() {
    if (!all->isVisible()) all->rebuild();
    all->setVisible(!all->isVisible());
    effect->hide();
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
    if (!message.isEmpty())
        drawLine(p, QRectF(x + 14, 0, right - x - 14, height()), message, Qt::AlignLeft,
                 messageIsError ? t.stop : t.accent, uiFont(0.95, messageIsError));
    else
        drawLine(p, QRectF(x + 14, 0, right - x - 14, height()),
                 worst.isEmpty() && session.isOpen() ? tr("Nothing stands in the way of an issue.") : worst,
                 Qt::AlignLeft, t.ink, f);
}

} // namespace lintel
