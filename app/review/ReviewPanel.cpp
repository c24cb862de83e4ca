#include "app/review/ReviewPanel.h"

#include "app/frame/PaintKit.h"
#include "app/frame/Settings.h"
#include "app/frame/Theme.h"
#include "app/frame/WhenShown.h"

#include <QBoxLayout>
#include <QComboBox>
#include <QDate>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QShortcut>
#include <QTabWidget>
#include <QTimer>
#include <QToolButton>
#include <QTreeWidget>

#include <map>
#include <numeric>
#include <set>
#include <utility>

namespace lintel {
namespace {

constexpr int panelWidth = 330, labelWidth = 140, markWidth = 24;
constexpr int indexRole = Qt::UserRole, nodeRole = Qt::UserRole + 1; ///< of a figure among the items; of a group

std::string today() { return QDate::currentDate().toString(Qt::ISODate).toStdString(); }
std::string keyOf(const ReviewFigure& f) { return f.about.text() + "/" + f.figure; }
/// "LP-1, demand"; a circuit is named alone.
QString titleOf(const ReviewFigure& f) { return f.figure == "circuit" ? q(f.thing) : q(f.thing) + ", " + q(f.figure); }

/// Whether the rows of two states of a figure look alike.
bool saysTheSame(const ReviewItem& x, const ReviewItem& y) {
    return x.state == y.state && x.value == y.value && x.by == y.by && x.date == y.date && x.was == y.was &&
           x.nearness == y.nearness;
}

QLabel* quiet(QWidget* parent) {
    auto* label = new QLabel(parent);
    label->setProperty("quiet", true);
    label->setWordWrap(true);
    label->setTextFormat(Qt::PlainText);
    return label;
}

} // namespace

ReviewPanel::ReviewPanel(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setObjectName("reviewPanel");
    setFixedWidth(panelWidth);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 10, 12, 10);
    column->setSpacing(6);
    auto* head = new QHBoxLayout;
    auto* reviewing = new QLabel(tr("REVIEW"));
    reviewing->setProperty("heading", true);
    head->addWidget(reviewing);
    head->addStretch(1);
    auto* end = new QPushButton(tr("End"));
    end->setObjectName("reviewEnd");
    end->setToolTip(tr("Back to work: the design can be edited again. Ticks and remarks stay in the project."));
    head->addWidget(end);
    column->addLayout(head);
    connect(end, &QPushButton::clicked, this, &ReviewPanel::closed);
    auto* who = new QHBoxLayout;
    who->addWidget(new QLabel(tr("Reviewing as")));
    name = new QLineEdit(settings().value("reviewer").toString());
    name->setObjectName("reviewer");
    name->setPlaceholderText(tr("Your name or initials"));
    who->addWidget(name, 1);
    column->addLayout(who);
    connect(name, &QLineEdit::editingFinished, this,
            [this] { settings().setValue("reviewer", name->text().trimmed()); });
    pages = new QTabWidget;
    pages->setDocumentMode(true);
    pages->setObjectName("reviewPages");
    pages->addTab(figuresPage(), tr("Figures"));
    pages->addTab(remarksPage(), tr("Remarks"));
    column->addWidget(pages, 1);
    counted = quiet(this);
    counted->setObjectName("reviewCount");
    column->addWidget(counted);
    const auto key = [this](const char* keys, auto what) {
        auto* shortcut = new QShortcut(QKeySequence(keys), this, nullptr, nullptr, Qt::WidgetWithChildrenShortcut);
        connect(shortcut, &QShortcut::activated, this, what);
    };
    key("T", [this] { tick(); });
    key("Shift+T", [this] { tickGroup(); });
    key("R", [this] { words->setFocus(); });
    key("N", [this] { step(1); });
    key("B", [this] { step(-1); });
    connect(&session, &Session::solved, new WhenShown(this, [this] { rebuild(); }), &WhenShown::poke);
}

QWidget* ReviewPanel::figuresPage() {
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 8, 0, 0);
    column->setSpacing(6);
    walk = new QComboBox;
    walk->setObjectName("reviewWalk");
    walk->addItems({tr("From the supply down"), tr("What is nearest to its limit first")});
    column->addWidget(walk);
    connect(walk, &QComboBox::currentIndexChanged, this, [this] { fillFigures(); });
    auto* chips = new QHBoxLayout;
    chips->setSpacing(4);
    const auto chip = [&](QToolButton*& b, Show which, const char* object) {
        b = new QToolButton;
        b->setObjectName(object);
        b->setCheckable(true);
        b->setAutoExclusive(true);
        b->setChecked(which == Show::All);
        chips->addWidget(b);
        connect(b, &QToolButton::clicked, this, [this, which] {
            shown = which;
            fillFigures();
        });
    };
    chip(all, Show::All, "reviewAll");
    chip(notYet, Show::NotYet, "reviewNotYet");
    chip(fellOff, Show::FellOff, "reviewFellOff");
    chips->addStretch(1);
    column->addLayout(chips);
    tree = new QTreeWidget;
    tree->setObjectName("reviewFigures");
    tree->setColumnCount(3);
    tree->setHeaderHidden(true);
    tree->setUniformRowHeights(true);
    tree->setIndentation(12);
    tree->header()->setStretchLastSection(false);
    tree->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    tree->header()->setMinimumSectionSize(markWidth);
    tree->header()->setSectionResizeMode(0, QHeaderView::Fixed);
    tree->header()->setSectionResizeMode(1, QHeaderView::Stretch);
    tree->header()->setSectionResizeMode(2, QHeaderView::Fixed);
    tree->header()->resizeSection(0, labelWidth);
    tree->header()->resizeSection(2, markWidth);
    column->addWidget(tree, 1);
    connect(tree, &QTreeWidget::currentItemChanged, this, [this] {
        pin.reset(); // whoever chooses a figure speaks of that
        showItem();
    });
    title = new QLabel;
    title->setTextFormat(Qt::PlainText);
    title->setWordWrap(true);
    QFont bold = title->font();
    bold.setBold(true);
    title->setFont(bold);
    title->setObjectName("reviewTitle");
    value = new QLabel;
    value->setTextFormat(Qt::PlainText);
    value->setWordWrap(true);
    value->setObjectName("reviewValue");
    was = quiet(this);
    was->setObjectName("reviewWas");
    for (QWidget* w : std::initializer_list<QWidget*>{title, value, was}) column->addWidget(w);
    auto* buttons = new QHBoxLayout;
    tickButton = new QPushButton;
    tickButton->setObjectName("reviewTick");
    tickButton->setProperty("strong", true);
    tickButton->setToolTip(tr("T; Shift+T ticks all that is left of the board"));
    buttons->addWidget(tickButton);
    buttons->addStretch(1);
    auto* back = new QPushButton(tr("Back"));
    back->setObjectName("reviewBack");
    back->setToolTip(tr("B"));
    auto* next = new QPushButton(tr("Next"));
    next->setObjectName("reviewNext");
    next->setToolTip(tr("N"));
    buttons->addWidget(back);
    buttons->addWidget(next);
    column->addLayout(buttons);
    auto* remark = new QHBoxLayout;
    words = new QLineEdit;
    words->setObjectName("reviewWords");
    remark->addWidget(words, 1);
    remarkButton = new QPushButton(tr("Remark"));
    remarkButton->setObjectName("reviewRemark");
    remarkButton->setToolTip(tr("R"));
    remark->addWidget(remarkButton);
    column->addLayout(remark);
    connect(tickButton, &QPushButton::clicked, this, &ReviewPanel::tick);
    connect(back, &QPushButton::clicked, this, [this] { step(-1); });
    connect(next, &QPushButton::clicked, this, [this] { step(1); });
    connect(remarkButton, &QPushButton::clicked, this, &ReviewPanel::say);
    connect(words, &QLineEdit::returnPressed, this, &ReviewPanel::say);
    return page;
}

QWidget* ReviewPanel::remarksPage() {
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 8, 0, 0);
    column->setSpacing(6);
    remarks = new QListWidget;
    remarks->setObjectName("reviewRemarks");
    remarks->setWordWrap(true);
    remarks->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    remarks->setResizeMode(QListView::Adjust);
    remarks->setTextElideMode(Qt::ElideNone);
    column->addWidget(remarks, 1);
    connect(remarks, &QListWidget::currentRowChanged, this, [this] {
        showRemark();
        // By whoever chooses it only, not when the list is filled again.
        const auto id = currentRemark();
        const Remark* r = id ? session.project().remarks.find(*id) : nullptr;
        if (r && r->about && session.solution().results.knows(r->about)) session.select(r->about);
        if (r && !r->sheet.empty()) Q_EMIT sheetWanted(Remark(*r));
    });
    answerText = new QPlainTextEdit;
    answerText->setObjectName("reviewAnswer");
    answerText->setPlaceholderText(tr("Answer"));
    answerText->setTabChangesFocus(true);
    answerText->setFixedHeight(64);
    column->addWidget(answerText);
    auto* buttons = new QHBoxLayout;
    answerButton = new QPushButton(tr("Answer"));
    answerButton->setObjectName("reviewAnswerGo");
    closeButton = new QPushButton(tr("Close"));
    closeButton->setObjectName("reviewClose");
    closeButton->setToolTip(tr("Settled, with the answer where one is typed; or open again"));
    removeButton = new QPushButton(tr("Remove"));
    removeButton->setObjectName("reviewRemove");
    buttons->addWidget(answerButton);
    buttons->addWidget(closeButton);
    buttons->addStretch(1);
    buttons->addWidget(removeButton);
    column->addLayout(buttons);
    connect(answerButton, &QPushButton::clicked, this, [this] { answer(false); });
    connect(closeButton, &QPushButton::clicked, this, [this] { answer(true); });
    connect(removeButton, &QPushButton::clicked, this, [this] {
        const auto id = currentRemark();
        if (id) session.reviewEdit(tr("Remove remark %1").arg(id->value), [&](Project& p) { p.remarks.remove(*id); });
    });
    return page;
}

std::string ReviewPanel::reviewer() const { return name->text().trimmed().toStdString(); }

void ReviewPanel::begin() {
    lookAgain();
    // It begins at what is selected in the window.
    const Ref chosen = session.selection();
    const auto first =
        std::find_if(items.begin(), items.end(), [&](const ReviewItem& i) { return chosen && i.about == chosen; });
    wanted = first == items.end() ? std::string() : keyOf(*first);
    fillFigures();
    fillRemarks();
    QTimer::singleShot(0, this, [this] { tree->scrollToItem(tree->currentItem(), QTreeWidget::PositionAtCenter); });
    tree->setFocus();
    if (reviewer().empty()) name->setFocus();
}

void ReviewPanel::remarkOnSheet(const QString& sheetTitle, const QString& key, Point at, Ref composed) {
    pin = Pin{sheetTitle, key, at, composed};
    pages->setCurrentIndex(0);
    words->setEnabled(true);
    remarkButton->setEnabled(true);
    words->setPlaceholderText(tr("About %1, there…").arg(sheetTitle));
    words->setFocus();
}

void ReviewPanel::restyle() {
    const Theme& t = theme();
    QPalette p = palette();
    p.setColor(QPalette::Window, t.surface);
    setPalette(p);
    setAutoFillBackground(true);
    setStyleSheet(
        QString("#reviewPanel { border-right: 1px solid %1; background: %2; }").arg(t.rule.name(), t.surface.name()));
    if (!isVisible()) return;
    lookAgain();
    fillFigures(); // each row has colours of its own
    fillRemarks();
}

void ReviewPanel::lookAgain() {
    if (solved != session.sharedSolution()) {
        solved = session.sharedSolution();
        figures = reviewFigures(solved->input());
    }
    items = withTicks(figures, session.project()); // ticks are there before they are solved
}

void ReviewPanel::rebuild() {
    const std::vector<ReviewItem> before = std::exchange(items, {});
    lookAgain();
    const bool same = shown == Show::All && tree->topLevelItemCount() > 0 &&
                      std::equal(items.begin(), items.end(), before.begin(), before.end(),
                                 [](const ReviewItem& x, const ReviewItem& y) {
                                     return x.about == y.about && x.figure == y.figure && x.thing == y.thing &&
                                            x.nearness == y.nearness;
                                 });
    if (same)
        markAll(&before);
    else
        fillFigures();
    fillRemarks();
}

const ReviewItem* ReviewPanel::current() const {
    const QTreeWidgetItem* row = tree->currentItem();
    if (!row || !row->data(0, indexRole).isValid()) return nullptr;
    const auto at = row->data(0, indexRole).toULongLong();
    return at < items.size() ? &items[at] : nullptr;
}

/// ✓ where it was seen as it is, ✗ where it has changed since, ○ where nobody has looked.
void ReviewPanel::mark(QTreeWidgetItem* row, const ReviewItem& item) const {
    const Theme& t = theme();
    const bool ticked = item.state == TickState::Ticked, off = item.state == TickState::FellOff;
    row->setText(1, q(item.value));
    row->setText(2, ticked ? "✓" : off ? "✗" : "○");
    row->setForeground(2, ticked ? t.accent : off ? t.stop : t.quiet);
    row->setForeground(1, item.nearness > 1 + 1e-9 ? t.stop : ticked ? t.quiet : t.ink);
    row->setToolTip(0, plainTip(row->text(0)));
    row->setToolTip(1, plainTip(q(item.value)));
    if (!off && !ticked) row->setToolTip(2, {});
    if (off)
        row->setToolTip(2, plainTip(tr("It was %1 when %2 ticked it, %3").arg(q(item.was), q(item.by), q(item.date))));
    if (ticked) row->setToolTip(2, plainTip(tr("%1, %2").arg(q(item.by), q(item.date))));
}

/// What each row says of its figure, and each group of all its figures, those that are not shown too; and how far it
/// is. Rows whose figure says what it said in `before` stay as they are.
void ReviewPanel::markAll(const std::vector<ReviewItem>* before) {
    std::map<Ref, std::pair<int, int>> counts; // by node: ticked, all
    for (const ReviewItem& item : items) {
        auto& [ticked, every] = counts[item.node];
        ticked += item.state == TickState::Ticked;
        ++every;
    }
    for (QTreeWidgetItemIterator at(tree); *at; ++at) {
        const QVariant index = (*at)->data(0, indexRole);
        if (index.isValid()) {
            const auto i = std::size_t(index.toULongLong());
            if (!before || !saysTheSame((*before)[i], items[i])) mark(*at, items[i]);
        } else {
            const auto& [ticked, every] = counts[refFrom((*at)->data(0, nodeRole).toString().toStdString())];
            (*at)->setText(1, tr("%1 / %2").arg(ticked).arg(every));
        }
    }
    const ReviewCount n = reviewCount(items, session.project());
    all->setText(tr("All %1").arg(n.all));
    notYet->setText(tr("Not yet %1").arg(n.all - n.ticked - n.fellOff));
    fellOff->setText(tr("Fell off %1").arg(n.fellOff));
    counted->setText(tr("%1 of %2 ticked, %3 fell off. While you review, nothing of the design can be edited.")
                         .arg(n.ticked)
                         .arg(n.all)
                         .arg(n.fellOff));
    pages->setTabText(1, n.remarks ? tr("Remarks %1 open of %2").arg(n.open).arg(n.remarks) : tr("Remarks"));
    showItem();
}

void ReviewPanel::fillFigures() {
    const QSignalBlocker quietly(tree);
    const bool byFeed = walk->currentIndex() == 0;
    std::set<QString> open;
    for (int i = 0; i < tree->topLevelItemCount(); ++i)
        if (tree->topLevelItem(i)->isExpanded()) open.insert(tree->topLevelItem(i)->text(0));
    tree->clear();
    const auto shows = [&](const ReviewItem& i) {
        return shown == Show::All || (shown == Show::NotYet && i.state == TickState::NotYet) ||
               (shown == Show::FellOff && i.state == TickState::FellOff);
    };
    std::vector<std::size_t> order(items.size());
    std::iota(order.begin(), order.end(), std::size_t(0));
    if (!byFeed) order = worstFirst(items);
    std::map<Ref, QTreeWidgetItem*> groups; // made with the first figure that is shown
    const auto groupOf = [&](Ref node) {
        QTreeWidgetItem*& group = groups[node];
        if (group) return group;
        group = new QTreeWidgetItem(tree, {node ? q(nameOf(solved->project, node)) : tr("Basis")});
        group->setData(0, nodeRole, q(node.text()));
        QFont bold = tree->font();
        bold.setBold(true);
        group->setFont(0, bold);
        group->setForeground(1, theme().quiet);
        return group;
    };
    QTreeWidgetItem *again = nullptr, *first = nullptr;
    for (std::size_t at : order) {
        const ReviewItem& item = items[at];
        if (!shows(item)) continue;
        const bool own = item.about == item.node; // else a circuit of the board
        const QString label = byFeed ? (own ? q(item.figure) : q(item.thing)) : titleOf(item);
        auto* row = byFeed ? new QTreeWidgetItem(groupOf(item.node), {label}) : new QTreeWidgetItem(tree, {label});
        row->setData(0, indexRole, qulonglong(at));
        if (!first) first = row;
        if (keyOf(item) == wanted) again = row;
    }
    for (const auto& [node, group] : groups) group->setExpanded(open.count(group->text(0)) > 0);
    if (QTreeWidgetItem* row = again ? again : first) {
        if (row->parent()) row->parent()->setExpanded(true);
        tree->setCurrentItem(row);
        tree->scrollToItem(row);
    }
    markAll();
}

void ReviewPanel::showItem() {
    const ReviewItem* item = current();
    const auto left = groupLeft();
    tickButton->setEnabled(item || !left.empty());
    remarkButton->setEnabled(item || pin);
    words->setEnabled(item || pin);
    if (!item) {
        const QTreeWidgetItem* row = tree->currentItem();
        title->setText(row ? row->text(0) : QString());
        value->setText(row ? tr("%1 ticked").arg(row->text(1)) : QString());
        was->setText({});
        if (!pin) words->setPlaceholderText(tr("Choose a figure to remark on"));
        tickButton->setText(left.empty() ? tr("Tick") : tr("Tick the other %1").arg(left.size()));
        if (const Ref node = left.empty() ? Ref() : items[left.front()].node) session.select(node);
        return;
    }
    wanted = keyOf(*item);
    const QString what = titleOf(*item);
    title->setText(what);
    value->setText(q(item->value));
    was->setText(
        item->state == TickState::FellOff
            ? tr("The tick fell off: it was %1 when %2 ticked it, %3.").arg(q(item->was), q(item->by), q(item->date))
        : item->state == TickState::Ticked ? tr("Ticked by %1, %2.").arg(q(item->by), q(item->date))
                                           : QString());
    tickButton->setText(item->state == TickState::Ticked    ? tr("Take the tick away")
                        : item->state == TickState::FellOff ? tr("Tick again")
                                                            : tr("Tick"));
    if (!pin) words->setPlaceholderText(tr("About %1…").arg(what));
    if (item->about) session.select(item->about);
}

/// Of the group that the current row heads or stands in: what is not ticked as it is now.
std::vector<std::size_t> ReviewPanel::groupLeft() const {
    std::vector<std::size_t> left;
    const QTreeWidgetItem* row = tree->currentItem();
    const QTreeWidgetItem* group = row && row->parent() ? row->parent() : row;
    for (int i = 0; group && i < group->childCount(); ++i) {
        const auto at = group->child(i)->data(0, indexRole).toULongLong();
        if (items[at].state != TickState::Ticked) left.push_back(at);
    }
    return left;
}

/// All that is left of a board, transformer or supply in one step.
void ReviewPanel::tickGroup() {
    const auto left = groupLeft();
    if (left.empty() || pages->currentIndex() != 0 || !named()) return;
    const Ref node = items[left.front()].node;
    const QString of = node ? q(nameOf(session.project(), node)) : tr("Basis");
    session.reviewEdit(tr("Tick %1").arg(of), [&](Project& p) {
        for (std::size_t at : left) setTick(p, items[at], reviewer(), today());
    });
    rebuild();
}

/// Whether somebody has said who reviews; else it is asked for.
bool ReviewPanel::named() {
    if (!reviewer().empty()) return true;
    name->setFocus();
    session.say(tr("Say who reviews first: ticks, remarks and answers bear a name."), true);
    return false;
}

void ReviewPanel::tick() {
    const ReviewItem* item = current();
    if (!item) return tickGroup();
    if (!item || pages->currentIndex() != 0) return;
    const ReviewFigure figure = *item;
    const QString what = titleOf(figure);
    if (item->state == TickState::Ticked) {
        session.reviewEdit(tr("Take the tick off %1").arg(what), [&](Project& p) { removeTicks(p, figure); });
    } else {
        if (!named()) return;
        session.reviewEdit(tr("Tick %1").arg(what), [&](Project& p) { setTick(p, figure, reviewer(), today()); });
        step(1);
    }
    rebuild();
}

void ReviewPanel::step(int by) {
    QTreeWidgetItem* row = tree->currentItem();
    if (!row) return;
    do {
        row = by > 0 ? tree->itemBelow(row) : tree->itemAbove(row);
        // What is folded up is opened on the way.
        if (row && row->childCount() > 0 && !row->isExpanded()) {
            row->setExpanded(true);
            if (by < 0) row = row->child(row->childCount() - 1);
        }
    } while (row && !row->data(0, indexRole).isValid());
    if (row) tree->setCurrentItem(row);
}

void ReviewPanel::say() {
    const ReviewItem* item = current();
    const std::string text = words->text().trimmed().toStdString();
    if ((!item && !pin) || text.empty()) return;
    if (!named()) return;
    const ReviewFigure figure = pin ? ReviewFigure{} : ReviewFigure(*item);
    const bool did = session.reviewEdit(tr("Remark on %1").arg(pin ? pin->sheet : q(figure.thing)), [&](Project& p) {
        const RemarkId id = addRemark(p, figure, text, reviewer(), today());
        if (!pin) return;
        Remark& remark = *p.remarks.change(id);
        remark.about = pin->composed;
        remark.sheet = pin->sheet.toStdString();
        remark.sheetKey = pin->key.toStdString();
        remark.at = pin->at;
    });
    if (!did) return;
    pin.reset();
    words->clear();
    tree->setFocus();
    rebuild();
}

void ReviewPanel::fillRemarks() {
    const auto before = currentRemark();
    const QString typed = answerText->toPlainText();
    const QSignalBlocker quietly(remarks);
    remarks->clear();
    const Project& p = session.project();
    QListWidgetItem* again = nullptr;
    for (const bool closed : {false, true})
        for (const Remark& r : p.remarks) {
            if (r.closed != closed) continue;
            QString text =
                tr("%1  %2\n%3\n%4, %5").arg(r.id.value).arg(q(aboutWords(p, r)), q(r.text), q(r.by), q(r.date));
            if (!r.answer.empty()) text += "\n" + tr("▏%1 (%2, %3)").arg(q(r.answer), q(r.answeredBy), q(r.answeredOn));
            if (r.closed) text += "\n" + tr("closed");
            auto* row = new QListWidgetItem(text, remarks);
            row->setData(indexRole, r.id.value);
            row->setForeground(r.closed ? theme().quiet : theme().ink);
            if (before && *before == r.id) again = row;
        }
    if (again) remarks->setCurrentItem(again);
    showRemark();
    if (again && !typed.isEmpty()) answerText->setPlainText(typed); // what was typed and not given yet stays
}

std::optional<RemarkId> ReviewPanel::currentRemark() const {
    const QListWidgetItem* row = remarks->currentItem();
    if (!row) return std::nullopt;
    return RemarkId{row->data(indexRole).toUInt()};
}

void ReviewPanel::showRemark() {
    const auto id = currentRemark();
    const Remark* r = id ? session.project().remarks.find(*id) : nullptr;
    for (QWidget* w : std::initializer_list<QWidget*>{answerText, answerButton, closeButton, removeButton})
        w->setEnabled(r);
    answerText->setPlainText(r ? q(r->answer) : QString());
    closeButton->setText(r && r->closed ? tr("Open again") : tr("Close"));
}

void ReviewPanel::answer(bool close) {
    const auto id = currentRemark();
    const Remark* r = id ? session.project().remarks.find(*id) : nullptr;
    if (!r) return;
    if (!named()) return;
    const std::string text = answerText->toPlainText().trimmed().toStdString();
    if (!close && text.empty()) return session.say(tr("Type the answer first."), true);
    session.reviewEdit(close ? tr("Settle remark %1").arg(id->value) : tr("Answer remark %1").arg(id->value),
                       [&](Project& p) {
                           Remark& changed = *p.remarks.change(*id);
                           if (changed.answer != text) {
                               changed.answer = text;
                               changed.answeredBy = text.empty() ? "" : reviewer();
                               changed.answeredOn = text.empty() ? "" : today();
                           }
                           if (close) changed.closed = !changed.closed;
                       });
    answerText->clear(); // given
    rebuild();
}

} // namespace lintel
