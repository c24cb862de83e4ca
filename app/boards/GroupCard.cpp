#include "app/boards/GroupCard.h"

#include "app/frame/PaintKit.h"
#include "core/project/CircuitFacts.h"

#include <QBoxLayout>
#include <QComboBox>
#include <QCompleter>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTimer>
#include <QTreeWidget>

#include <set>

namespace lintel {

GroupCard::GroupCard(Session& s, QWidget* parent)
    : BoardCard(s, "group", tr("Change"), tr("Cancel"), parent), work(new Background(this)), wait(new QTimer(this)),
      heading(new QLabel(this)), effect(new QLabel(this)), fact(new QComboBox(this)), value(new QLineEdit(this)),
      list(new QTreeWidget(this)) {
    asRich(heading);
    auto* left = new QVBoxLayout;
    left->setSpacing(6);
    left->addWidget(heading);
    fact->setObjectName("groupFact");
    fact->setMaxVisibleItems(20);
    for (const CircuitFact& f : circuitFacts()) fact->addItem(tr(f.title), QString(f.key));
    value->setObjectName("groupValue");
    left->addWidget(fact);
    left->addWidget(value);
    effect->setWordWrap(true);
    effect->setObjectName("groupEffect");
    left->addWidget(effect, 1);
    left->addLayout(buttons());
    across->addLayout(left, 2);
    list->setObjectName("groupList");
    list->setColumnCount(4);
    list->setHeaderLabels({tr("Circuit"), tr("Serves"), tr("Now"), tr("Then")});
    list->setRootIsDecorated(false);
    list->setUniformRowHeights(true);
    list->header()->setStretchLastSection(true);
    list->setColumnWidth(0, 86);
    list->setColumnWidth(1, 190);
    list->setColumnWidth(2, 90);
    list->setFocusPolicy(Qt::NoFocus);
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    across->addWidget(list, 3);
    wait->setSingleShot(true);
    wait->setInterval(60);
    connect(wait, &QTimer::timeout, this, &GroupCard::preview);
    connect(fact, &QComboBox::currentIndexChanged, this, &GroupCard::chooseFact);
    connect(value, &QLineEdit::textEdited, this, [this] { go->setEnabled(false), wait->start(); });
    connect(value, &QLineEdit::returnPressed, this, &GroupCard::apply);
    connect(&session, &Session::solved, this, [this] {
        if (isVisible()) preview();
    });
}

void GroupCard::open(const std::vector<CircuitId>& list_, const QString& key) {
    circuits = list_;
    std::set<BoardId> boards;
    for (CircuitId c : circuits)
        if (const Circuit* x = session.project().circuits.find(c)) boards.insert(x->board);
    heading->setText(boards.size() > 1
                         ? tr("<b>Change %1 circuits</b> on %2 boards").arg(circuits.size()).arg(boards.size())
                         : tr("<b>Change %1 circuits</b>").arg(circuits.size()));
    setVisible(true);
    if (const int i = fact->findData(key); i >= 0) fact->setCurrentIndex(i);
    chooseFact();
    value->setFocus();
    value->selectAll();
}

/// What all of them have now is where the edit begins.
void GroupCard::chooseFact() {
    const CircuitFact* f = circuitFact(fact->currentData().toString().toStdString());
    if (!f) return;
    std::set<std::string> now;
    for (CircuitId c : circuits)
        if (const Circuit* x = session.project().circuits.find(c)) now.insert(f->read(session.project(), *x));
    value->setText(now.size() == 1 ? q(*now.begin()) : QString());
    value->setPlaceholderText(now.size() > 1 ? tr("differ; %1").arg(tr(f->hint)) : tr(f->hint));
    plan.reset();
    fill();
}

void GroupCard::preview() {
    if (!value->isModified()) return fill();
    serial = session.solution().serial;
    work->start([this, solution = session.sharedSolution(), list_ = circuits,
                 key = fact->currentData().toString().toStdString(),
                 text = value->text().toStdString()](const Background::Stop& stop) -> std::function<void()> {
        auto g = std::make_shared<GroupEdit>(
            planGroupEdit(solution->input(), list_, key, text, [stop] { return stop->load(); }));
        return [this, g] {
            plan = g;
            fill();
        };
    });
}

bool GroupCard::ready() const { return !wait->isActive() && !work->busy(); }
QString GroupCard::effectText() const { return effect->text(); }

void GroupCard::fill() {
    const Solution& s = session.solution();
    const CircuitFact* f = circuitFact(fact->currentData().toString().toStdString());
    list->clear();
    int refused = 0;
    const auto row = [&](CircuitId c, const std::string& now, const std::string& then, const std::string& no_) {
        if (!s.project.circuits.has(c) || list->topLevelItemCount() >= 2000) return;
        const QString nothing =
            f && std::string_view(f->hint).find("auto") != std::string_view::npos ? tr("auto") : QString("–");
        auto* i = new QTreeWidgetItem(list, {q(nameOf(s.project, c)), q(s.project.circuits[c].name),
                                             now.empty() ? nothing : q(now),
                                             no_.empty() ? (then.empty() ? nothing : q(then)) : q(no_)});
        if (!no_.empty())
            i->setForeground(3, theme().stop), i->setToolTip(3, q(no_));
        else if (now != then)
            i->setForeground(3, theme().accent);
    };
    if (plan)
        for (const auto& r : plan->rows) row(r.circuit, r.now, r.then, r.refused), refused += !r.refused.empty();
    else if (f)
        for (CircuitId c : circuits)
            if (const Circuit* x = s.project.circuits.find(c)) {
                const std::string now = f->read(s.project, *x);
                row(c, now, now, "");
            }
    if (!plan)
        effect->setText(tr("Type what it is to be: what it does is shown before it is done."));
    else if (plan->changing == 0)
        effect->setText(refused ? tr("All of them refuse it.") : tr("Nothing changes."));
    else {
        QString text = plan->changing == 1 ? tr("1 circuit changes.") : tr("%1 circuits change.").arg(plan->changing);
        if (refused) text += " " + (refused == 1 ? tr("1 refuses.") : tr("%1 refuse.").arg(refused));
        text += " " + (plan->effect.nothing() ? tr("No size, device or snag changes.") : q(plan->effect.text()) + ".");
        effect->setText(text);
    }
    go->setEnabled(plan && plan->changing > 0);
    go->setText(plan && plan->changing ? tr("Change %1").arg(plan->changing) : tr("Change"));
}

void GroupCard::apply() {
    if (!plan || plan->changing == 0 || !ready() || session.solution().serial != serial) return;
    const Project after = plan->after;
    const QString label = tr("%1 of %2 circuits").arg(fact->currentText()).arg(plan->changing);
    setVisible(false);
    plan.reset();
    session.edit(label, [&](Project& p) { p = after; });
    Q_EMIT closed();
}

void GroupCard::stop() {
    work->cancel();
    wait->stop();
    plan.reset();
}

} // namespace lintel
