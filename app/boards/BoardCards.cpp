#include "app/boards/BoardCards.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "core/exchange/LoadList.h"
#include "core/figures/Words.h"
#include "core/plan/CircuitMissing.h"

#include <QBoxLayout>
#include <QCheckBox>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTreeWidget>

namespace lintel {

// ---- size ----

SizeCard::SizeCard(Session& s, QWidget* parent)
    : BoardCard(s, "size", tr("Change"), tr("Cancel"), parent), heading(new QLabel(this)), list(new QListWidget(this)),
      what(new QListWidget(this)) {
    asRich(heading);
    enterApplies = true;
    auto* left = new QVBoxLayout;
    left->addWidget(heading);
    list->setObjectName("sizeList");
    left->addWidget(list, 1);
    left->addLayout(buttons());
    across->addLayout(left, 2);
    what->setObjectName("sizeDetails");
    what->setFocusPolicy(Qt::NoFocus);
    what->setWordWrap(true);
    across->addWidget(what, 3);
    connect(list, &QListWidget::currentRowChanged, this, &SizeCard::refresh);
    connect(list, &QListWidget::itemDoubleClicked, this, &SizeCard::apply);
    connect(&session, &Session::solved, this, [this] {
        if (isVisible()) open(board);
    });
}

void SizeCard::open(BoardId id) {
    const Project& p = session.project();
    const Board* b = p.boards.find(id);
    if (!b) return drop();
    board = id;
    heading->setText(tr("<b>Size of %1</b>").arg(q(b->name).toHtmlEscaped()));
    plans.clear();
    const int smallest = smallestSize(p, id);
    QSignalBlocker quiet(list);
    list->clear();
    int row = 0;
    for (int slots : boardSizes(b->form)) {
        plans.push_back(planResize(p, id, slots));
        const Resize& r = plans.back();
        QString words = b->form == BoardForm::Ways ? tr("%1 ways").arg(slots / 3) : tr("%1 slots").arg(slots);
        if (slots == b->slots) words += tr("  ·  as it is");
        if (slots == smallest) words += tr("  ·  smallest that holds this");
        if (!r.left.empty()) words += tr("  ·  %1 do not fit").arg(r.left.size());
        auto* i = new QListWidgetItem(words, list);
        if (!r.left.empty()) i->setForeground(theme().quiet);
        if (slots == b->slots) row = list->count() - 1;
    }
    list->setCurrentRow(row);
    setVisible(true);
    list->setFocus();
    refresh();
}

void SizeCard::choose(int slots) {
    for (std::size_t i = 0; i < plans.size(); ++i)
        if (plans[i].slots == slots) list->setCurrentRow(int(i));
}

void SizeCard::refresh() {
    const int row = list->currentRow();
    what->clear();
    const Board* b = session.project().boards.find(board);
    if (!b || row < 0 || row >= int(plans.size())) return;
    const Resize& r = plans[std::size_t(row)];
    const Project& p = session.project();
    const int taken = placesTaken(p, board), reserved = placesReserved(*b, r.slots);
    what->addItem(tr("%1 of %2 places taken, %3 left%4")
                      .arg(taken)
                      .arg(r.slots)
                      .arg(std::max(0, r.slots - taken))
                      .arg(reserved ? tr("; %1 are to stay free").arg(reserved) : QString()));
    for (CircuitId c : r.left) {
        auto* i = new QListWidgetItem(
            tr("%1 %2: no place; it stays in the tray")
                .arg(q(nameOf(p, c)), q(servesWords(session.solution().project, session.solution().results, c))),
            what);
        i->setForeground(theme().stop);
    }
    for (const auto& [c, slot] : r.moved)
        what->addItem(
            tr("%1 %2: to slot %3")
                .arg(q(nameOf(p, c)), q(servesWords(session.solution().project, session.solution().results, c)))
                .arg(slot));
    if (r.left.empty() && r.moved.empty() && r.slots != b->slots) what->addItem(tr("Everything keeps its place."));
    go->setEnabled(r.slots != b->slots);
    go->setText(r.left.empty() ? tr("Change") : tr("Change all the same"));
}

void SizeCard::apply() {
    const int row = list->currentRow();
    if (!go->isEnabled() || row < 0) return;
    const Resize r = plans[std::size_t(row)];
    const QString name = q(nameOf(session.project(), Ref(board)));
    const bool ways = r.form == BoardForm::Ways;
    setVisible(false);
    session.edit(ways ? tr("%1 ways for %2").arg(r.slots / 3).arg(name) : tr("%1 slots for %2").arg(r.slots).arg(name),
                 [&](Project& p) { applyResize(p, board, r); });
    Q_EMIT closed();
}

// ---- what is left open ----

ReportCard::ReportCard(Session& s, QWidget* parent)
    : BoardCard(s, "report", tr("Give the missing ones a circuit"), tr("Close"), parent), heading(new QLabel(this)),
      list(new QTreeWidget(this)) {
    asRich(heading);
    auto* column = new QVBoxLayout;
    auto* top = new QHBoxLayout;
    top->addWidget(heading, 1);
    top->addWidget(go);
    top->addWidget(no);
    column->addLayout(top);
    list->setObjectName("reportList");
    list->setColumnCount(2);
    list->setHeaderHidden(true);
    list->setRootIsDecorated(false);
    list->setColumnWidth(0, 210);
    column->addWidget(list, 1);
    across->addLayout(column);
    go->setProperty("strong", false);
    connect(list, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* i) {
        if (const Ref r = refFrom(i->data(0, Qt::UserRole).toString().toStdString())) session.select(r);
    });
    connect(&session, &Session::solved, this, [this] {
        if (isVisible()) fill();
    });
}

void ReportCard::open() {
    setVisible(true);
    fill();
    list->setFocus();
}

void ReportCard::fill() {
    const Solution& s = session.solution();
    const LoadReport r = reportLoads(s.project, s.results);
    list->clear();
    const auto line = [&](Ref about, const QString& what, const QString& words) {
        auto* i = new QTreeWidgetItem(list, {what, words});
        i->setData(0, Qt::UserRole, q(about.text()));
    };
    for (LoadId l : r.unfed) {
        const Load& x = s.project.loads[l];
        line(l, q(x.tag.empty() ? x.name : x.tag + "  " + x.name),
             tr("no circuit%1")
                 .arg(s.project.boards.has(x.board) ? tr(", for %1").arg(q(s.project.boards[x.board].name))
                                                    : QString()));
    }
    for (DeviceId d : r.unfedDevices) line(d, q(nameOf(s.project, Ref(d))), tr("no circuit"));
    for (CircuitId c : r.noCable)
        line(c, q(nameOf(s.project, c) + "  " + s.project.circuits[c].name),
             s.results.of(c).run.size < 0 ? tr("no cable carries it") : tr("no cable yet: its length is not known"));
    for (const auto& [b, why] : r.boards) line(b, q(s.project.boards[b].name), q(why));
    heading->setText(
        r.clean() ? tr("<b>Nothing is left open.</b>")
                  : tr("<b>Left open</b>: %1 without a circuit, %2 without a cable, %3")
                        .arg(r.unfed.size() + r.unfedDevices.size())
                        .arg(counted(r.noCable.size(), tr("circuit"), tr("circuits")),
                             counted(r.boards.size(), tr("board that does not suit"), tr("boards that do not suit"))));
    go->setEnabled(!r.unfed.empty());
}

// ---- names ----

NamesCard::NamesCard(Session& s, QWidget* parent)
    : BoardCard(s, "names", tr("Name"), tr("Cancel"), parent), heading(new QLabel(this)), count(new QLabel(this)),
      text(new QLineEdit(this)), everywhere(new QCheckBox(tr("All boards of the building"), this)),
      list(new QTreeWidget(this)) {
    asRich(heading);
    auto* left = new QVBoxLayout;
    left->addWidget(heading);
    text->setObjectName("namePattern");
    text->setPlaceholderText(usualNamePattern);
    text->setToolTip(tr("{what} {rooms} {numbers} {tags} {count} {load} {board}"));
    left->addWidget(text);
    auto* hint = new QLabel("{what} {rooms} {numbers} {tags} {count} {load} {board}");
    hint->setProperty("quiet", true);
    hint->setWordWrap(true);
    left->addWidget(hint);
    everywhere->setObjectName("namesEverywhere");
    left->addWidget(everywhere);
    count->setWordWrap(true);
    left->addWidget(count, 1);
    left->addLayout(buttons());
    across->addLayout(left, 2);
    list->setObjectName("namesList");
    list->setColumnCount(3);
    list->setHeaderLabels({tr("Circuit"), tr("Now"), tr("Then")});
    list->setRootIsDecorated(false);
    list->setColumnWidth(0, 86);
    list->setColumnWidth(1, 200);
    list->setFocusPolicy(Qt::NoFocus);
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    across->addWidget(list, 3);
    connect(text, &QLineEdit::textEdited, this, &NamesCard::refresh);
    connect(text, &QLineEdit::returnPressed, this, &NamesCard::apply);
    connect(everywhere, &QCheckBox::toggled, this, &NamesCard::refresh);
}

void NamesCard::open(BoardId id) {
    board = id;
    heading->setText(tr("<b>Names from rooms and devices</b>"));
    text->setText(q(session.project().basis.namePattern));
    setVisible(true);
    refresh();
    text->setFocus();
}

Project NamesCard::withPattern() const {
    Project p = session.project();
    p.basis.namePattern = text->text().trimmed().toStdString();
    return p;
}

void NamesCard::refresh() {
    const Project p = withPattern();
    naming = planNaming(p, everywhere->isChecked() ? BoardId{} : board);
    list->clear();
    int shown = 0, changing = 0;
    for (const auto& [c, name] : naming.changes) {
        if (p.circuits[c].name == name) continue; // as it is; only marked as made by the pattern
        ++changing;
        if (shown++ < 1000) new QTreeWidgetItem(list, {q(nameOf(p, c)), q(p.circuits[c].name), q(name)});
    }
    count->setText((changing == 1 ? tr("1 name changes") : tr("%1 names change").arg(changing)) +
                   (naming.kept ? tr("; %1 that were typed stay").arg(naming.kept) : QString()));
    go->setEnabled(changing > 0 || p.basis.namePattern != session.project().basis.namePattern);
    go->setText(changing ? tr("Name %1").arg(changing) : tr("Keep the pattern"));
}

void NamesCard::apply() {
    if (!go->isEnabled()) return;
    Project next = withPattern();
    applyNaming(next, planNaming(next, everywhere->isChecked() ? BoardId{} : board));
    setVisible(false);
    session.edit(tr("Name circuits from rooms"), [&](Project& p) { p = next; });
    Q_EMIT closed();
}

} // namespace lintel
