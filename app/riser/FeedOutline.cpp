#include "app/riser/FeedOutline.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "app/riser/RiserMenu.h"
#include "core/base/Format.h"
#include "core/check/SnagsByNode.h"
#include "core/project/Operations.h"

#include <QBoxLayout>
#include <QDropEvent>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QToolTip>

namespace lintel {
namespace {

constexpr int thingRole = Qt::UserRole;

/// How much of it is used, as a share; nothing where it has no rating.
std::optional<double> useOf(const Solution& s, Ref thing) {
    if (const BoardId b = thing.as<Board>()) return s.results.of(b).use;
    if (const TransformerId t = thing.as<Transformer>()) return s.results.of(t).use;
    if (const Source* x = s.project.sources.find(thing.as<Source>()); x && x->kind == SourceKind::Generator)
        return s.results.of(x->id).used;
    return std::nullopt;
}

void prepare(QTreeWidget& tree, const QStringList& headings) {
    tree.setColumnCount(int(headings.size()));
    tree.setHeaderLabels(headings);
    tree.header()->setStretchLastSection(false);
    tree.header()->setSectionsClickable(false);
    tree.header()->setMinimumSectionSize(20);
    tree.header()->setSectionResizeMode(0, QHeaderView::Stretch);
    tree.header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
    tree.headerItem()->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
    tree.setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    tree.setTextElideMode(Qt::ElideMiddle);
    tree.setUniformRowHeights(true);
    tree.setFrameShape(QFrame::NoFrame);
}

} // namespace

FeedTree::FeedTree(Session& s, QWidget* parent) : QTreeWidget(parent), session(s) {
    setDragDropMode(QAbstractItemView::DragDrop);
    setDefaultDropAction(Qt::MoveAction);
    setDropIndicatorShown(false);
    setAutoScroll(true);
    setIndentation(9);
}

Ref FeedTree::thingOf(const QTreeWidgetItem* row) {
    return row ? refFrom(row->data(0, thingRole).toString().toStdString()) : Ref();
}

void FeedTree::dragMoveEvent(QDragMoveEvent* e) {
    const Ref what = thingOf(currentItem()), on = thingOf(itemAt(e->position().toPoint()));
    const bool copy = e->modifiers() & Qt::ControlModifier;
    e->ignore();
    if (e->source() != this || !on || what == on || !(what.is<Board>() || what.is<Transformer>()))
        return QToolTip::hideText();
    const auto bad = copy ? std::nullopt : refuseFeed(session.project(), what, on);
    const QString name = q(nameOf(session.project(), what)), from = q(nameOf(session.project(), on));
    const QString words = bad    ? q(bad->what + (bad->help.empty() ? "." : ". " + bad->help))
                          : copy ? tr("Feed a copy of %1 from %2").arg(name, from)
                                 : tr("Feed %1 from %2").arg(name, from);
    QToolTip::showText(viewport()->mapToGlobal(e->position().toPoint()), plainTip(words), this);
    if (!bad) e->accept();
}

void FeedTree::dropEvent(QDropEvent* e) {
    const Ref what = thingOf(currentItem()), on = thingOf(itemAt(e->position().toPoint()));
    const bool copy = e->modifiers() & Qt::ControlModifier;
    QToolTip::hideText();
    e->setDropAction(Qt::IgnoreAction); // the tree is made anew from the project; nothing moves in it by itself
    e->accept();
    if (what && on && what != on) Q_EMIT dropped(what, on, copy);
}

void FeedTree::keyPressEvent(QKeyEvent* e) {
    const bool own = e->text().isEmpty() || (!e->text().front().isPrint() && e->key() != Qt::Key_Delete);
    if (own && !e->matches(QKeySequence::Copy) && !e->matches(QKeySequence::Paste) && e->modifiers() == Qt::NoModifier)
        return QTreeWidget::keyPressEvent(e);
    Q_EMIT pressed(e);
}

FeedOutline::FeedOutline(Session& s, QWidget* parent)
    : QWidget(parent), session(s), rows(new FeedTree(s, this)), adding(new QTreeWidget(this)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(10, 6, 4, 6);
    column->setSpacing(6);
    rows->setObjectName("feedOutline");
    adding->setObjectName("feedAdding");
    prepare(*rows, {tr("FED FROM"), tr("used")});
    prepare(*adding, {tr("ADD"), tr("key")});
    rows->setContextMenuPolicy(Qt::CustomContextMenu);
    adding->setRootIsDecorated(false);
    adding->setIndentation(0);
    adding->setSelectionMode(QAbstractItemView::NoSelection);
    adding->setFocusPolicy(Qt::NoFocus);
    column->addWidget(rows, 3);
    column->addWidget(adding, 2);
    connect(rows, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* row) {
        if (following || !row) return;
        following = true;
        session.select(FeedTree::thingOf(row)); // what can be added to it follows from the selection
        following = false;
    });
    connect(rows, &QTreeWidget::itemCollapsed, this, [this](QTreeWidgetItem* row) {
        if (!following) closed.insert(FeedTree::thingOf(row));
    });
    connect(rows, &QTreeWidget::itemExpanded, this, [this](QTreeWidgetItem* row) {
        if (!following) closed.erase(FeedTree::thingOf(row));
    });
    connect(rows, &QWidget::customContextMenuRequested, this, [this](QPoint at) {
        showRiserMenu(session, FeedTree::thingOf(rows->itemAt(at)), rows->viewport()->mapToGlobal(at), this);
    });
    connect(adding, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* row) {
        const QString key = row->data(0, thingRole).toString();
        if (!key.isEmpty()) (void)runRiserKey(session, session.selection(), key.front());
    });
    connect(&session, &Session::solved, this, [this] {
        if (isVisible()) rebuild();
    });
    connect(&session, &Session::opened, this, [this] {
        closed.clear();
        shape.clear();
        byThing.clear();
        rows->clear();
        if (isVisible()) rebuild();
    });
    connect(&session, &Session::selectionChanged, this, [this] {
        if (!isVisible()) return;
        follow();
        fillCommands();
    });
}

void FeedOutline::showEvent(QShowEvent*) { rebuild(); }

void FeedOutline::rebuild() {
    const Solution& s = session.solution();
    following = true;
    rows->setUpdatesEnabled(false);
    // Most edits change figures alone: the rows stay, and are made anew where something hangs elsewhere.
    std::vector<std::pair<Ref, Ref>> now;
    for (Ref thing : s.results.order) {
        const NodeResult& n = *s.results.node(thing);
        now.emplace_back(thing, n.looped ? Ref() : n.parent);
    }
    if (now != shape) makeRows(std::move(now));
    const auto snags = countSnags(s.project, s.snags);
    for (const auto& [thing, row] : byThing) {
        const auto found = snags.find(thing);
        fillRow(*row, thing, found == snags.end() ? SnagCount{} : found->second);
    }
    rows->setUpdatesEnabled(true);
    following = false;
    follow();
    fillCommands();
}

void FeedOutline::makeRows(std::vector<std::pair<Ref, Ref>>&& wanted) {
    shape = std::move(wanted);
    rows->clear();
    byThing.clear();
    QTreeWidgetItem* unfed = nullptr;
    for (const auto& [thing, parent] : shape) {
        QTreeWidgetItem* row = nullptr;
        if (const auto above = byThing.find(parent); above != byThing.end()) {
            row = new QTreeWidgetItem(above->second);
        } else if (thing.is<Source>()) {
            row = new QTreeWidgetItem(rows);
        } else {
            if (!unfed) {
                unfed = new QTreeWidgetItem(rows, {tr("Not fed")});
                unfed->setFlags(Qt::ItemIsEnabled);
                unfed->setForeground(0, theme().stop);
            }
            row = new QTreeWidgetItem(unfed);
        }
        byThing[thing] = row;
        row->setData(0, thingRole, q(thing.text()));
        row->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
        row->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsDropEnabled |
                      (thing.is<Source>() ? Qt::NoItemFlags : Qt::ItemIsDragEnabled));
    }
    rows->expandAll();
    for (Ref thing : closed)
        if (QTreeWidgetItem* row = rowOf(thing)) row->setExpanded(false);
}

void FeedOutline::fillRow(QTreeWidgetItem& row, Ref thing, SnagCount found) const {
    const Solution& s = session.solution();
    const Board* b = s.project.boards.find(thing.as<Board>());
    const bool taken = b && b->alternate;
    row.setText(0, q(nameOf(s.project, thing)) + (taken ? " ⇄" : ""));
    row.setToolTip(0, taken ? plainTip(tr("%1 takes over").arg(q(nameOf(s.project, b->alternate)))) : QString());
    const auto use = useOf(s, thing);
    const QString figure = use ? q(number(*use * 100)) + " %" : QString();
    row.setText(1, found.stops > 0 ? "● " + figure : figure);
    row.setForeground(1, found.stops > 0 || use.value_or(0) > 1 ? QBrush(theme().stop) : QBrush());
    row.setToolTip(1, found.stops + found.checks > 0 ? counted(found.stops, tr("stop"), tr("stops")) + ", " +
                                                           counted(found.checks, tr("check"), tr("checks"))
                                                     : QString());
}

QTreeWidgetItem* FeedOutline::rowOf(Ref thing) const {
    const auto at = byThing.find(thing);
    return at == byThing.end() ? nullptr : at->second;
}

/// The tree follows the selection: of a circuit what it feeds, else its board.
void FeedOutline::follow() {
    if (following) return;
    Ref thing = session.selection();
    if (const Circuit* c = session.project().circuits.find(thing.as<Circuit>())) {
        const Ref fed = fedBy(session.project(), c->id);
        thing = fed ? fed : Ref(c->board);
    }
    QTreeWidgetItem* row = rowOf(thing);
    following = true;
    rows->setCurrentItem(row);
    if (row) rows->scrollToItem(row);
    following = false;
}

void FeedOutline::fillCommands() {
    adding->clear();
    QString group;
    for (const RiserCommand& c : riserCommands(session, session.selection(), true)) {
        if (c.key.isNull()) continue;
        if (c.group != group && !c.group.isEmpty()) {
            auto* heading = new QTreeWidgetItem(adding, {c.group});
            heading->setFlags(Qt::NoItemFlags);
            heading->setForeground(0, theme().quiet);
        }
        group = c.group;
        const bool removes = c.key == QChar(0x7f);
        auto* row = new QTreeWidgetItem(adding, {c.text, removes ? tr("Del") : QString(c.key)});
        row->setData(0, thingRole, QString(c.key));
        row->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
        row->setForeground(1, theme().quiet);
        row->setToolTip(0, plainTip(c.refused.isEmpty() ? c.text : c.text + ": " + c.refused));
        if (!c.refused.isEmpty()) row->setFlags(Qt::NoItemFlags);
    }
}

} // namespace lintel
