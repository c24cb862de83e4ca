#include "app/boards/BoardsStage.h"

#include "app/boards/BoardCards.h"
#include "app/boards/BoardPicker.h"
#include "app/boards/CircuitsPage.h"
#include "app/boards/GroupCard.h"
#include "app/boards/ImportPage.h"
#include "app/boards/LevelCard.h"
#include "app/frame/Counted.h"
#include "app/frame/DrawingView.h"
#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/exchange/LoadList.h"
#include "core/figures/Words.h"
#include "core/plan/CircuitMissing.h"
#include "core/solve/BoardLoad.h"

#include <QBoxLayout>
#include <QComboBox>
#include <QDrag>
#include <QDropEvent>
#include <QFileDialog>
#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>
#include <QPushButton>
#include <QScrollArea>
#include <QSplitter>
#include <QStackedWidget>
#include <QStyledItemDelegate>
#include <QTreeWidget>

namespace lintel {

/// Load kinds with connected and demand, the phases with their bars, and the demand of the board.
class Tally : public QWidget {
public:
    explicit Tally(Session& s, QWidget* parent) : QWidget(parent), session(s) { setFixedHeight(104); }
    BoardId board;

protected:
    void paintEvent(QPaintEvent*) override {
        const Solution& s = session.solution();
        const Board* b = s.project.boards.find(board);
        if (!b || board.value >= s.results.boards.size()) return;
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        const BoardResult& r = s.results.of(board);
        drawLine(p, QRectF(0, 6, 84, 18), QObject::tr("LOAD TALLY"), Qt::AlignLeft, t.quiet, uiFont(0.8, true));
        std::vector<std::size_t> kinds;
        for (std::size_t i = 0; i < loadKinds; ++i)
            if (r.kinds[i].va() > 0) kinds.push_back(i);
        std::sort(kinds.begin(), kinds.end(),
                  [&](std::size_t a, std::size_t c) { return r.kinds[a].va() > r.kinds[c].va(); });
        const std::size_t shown = std::min<std::size_t>(kinds.size(), 5);
        const double left = 88, w = shown ? std::min(170.0, (width() - left) / double(shown)) : 100;
        for (std::size_t k = 0; k < shown; ++k) {
            const std::size_t i = kinds[k];
            const double x = left + k * w;
            drawLine(p, QRectF(x, 5, w - 12, 18), q(kindTitle(LoadKind(i), *s.book)), Qt::AlignLeft, t.ink,
                     uiFont(0.92, true));
            const QString figure = QString("%1 → %2").arg(q(kilo(r.kinds[i].va())), q(kilo(r.demandByKind[i])));
            drawLine(p, QRectF(x, 24, w - 12, 17),
                     figure + QString("   %1 %").arg(std::lround(r.demandByKind[i] / r.kinds[i].va() * 100)),
                     Qt::AlignLeft, t.quiet, uiFont(0.88));
        }
        if (kinds.size() > shown)
            setToolTip(QObject::tr("and %1 more kinds: see the schedule").arg(kinds.size() - shown));
        drawLine(p, QRectF(0, 54, 84, 18), QObject::tr("Phase"), Qt::AlignLeft, t.quiet, uiFont(0.9));
        const int lines = factsOf(b->system).lines;
        const double most = std::max(1.0, *std::max_element(r.phaseVa.begin(), r.phaseVa.end()));
        const double pw = std::min(176.0, (width() - left - 190) / 3.0);
        for (int i = 0; i < lines; ++i) {
            const double x = left + i * pw;
            drawLine(p, QRectF(x, 54, 22, 18), q(lineName(i, *b)), Qt::AlignLeft,
                     t.phase(phaseInk(s.project.basis, b->system, i)), uiFont(0.92, true));
            const double room = pw - 22 - 84;
            p.fillRect(QRectF(x + 20, 58, std::max(1.0, room * r.phaseVa[std::size_t(i)] / most), 10),
                       t.phase(phaseInk(s.project.basis, b->system, i)));
            drawLine(p, QRectF(x + pw - 82, 54, 70, 18), q(kilo(r.phaseVa[std::size_t(i)])) + " kVA", Qt::AlignRight,
                     t.ink, uiFont(0.9));
            drawLine(p, QRectF(x + pw - 82, 72, 70, 16), q(number(r.phaseAmps[std::size_t(i)])) + " A", Qt::AlignRight,
                     t.quiet, uiFont(0.85));
        }
        // Where there is little room the figures come before the word.
        const double room = width() - left - 3 * pw - 8;
        const QString amounts = QString("%1 kVA · %2").arg(q(kilo(r.demand)), q(demandWords(r, *b)));
        const QString whole = QObject::tr("Demand %1").arg(amounts);
        const QFont bold = uiFont(0.95, true);
        const bool fits = QFontMetricsF(bold).horizontalAdvance(whole) <= room;
        drawLine(p, QRectF(left + 3 * pw + 6, 54, room, 18), fits ? whole : amounts, Qt::AlignLeft, t.ink, bold);
        drawLine(p, QRectF(left + 3 * pw + 6, 72, width() - left - 3 * pw - 8, 16),
                 QObject::tr("of %1 A · connected %2 kVA").arg(q(number(mostAmps(*b))), q(kilo(r.connected))),
                 Qt::AlignLeft, t.quiet, uiFont(0.85));
    }

private:
    Session& session;
};

/// Boards and transformers as they are fed. Dragging one onto another feeds it from there.
class BoardTree : public QTreeWidget {
public:
    explicit BoardTree(Session& s, QWidget* parent) : QTreeWidget(parent), session(s) {
        setHeaderHidden(true);
        setColumnCount(2);
        setRootIsDecorated(false);
        setIndentation(12);
        setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        header()->setStretchLastSection(false);
        header()->setMinimumSectionSize(20);
        setDragDropMode(QAbstractItemView::DragDrop);
        setObjectName("boardTree");
    }
    static Ref thing(const QTreeWidgetItem* item) {
        return item ? refFrom(item->data(0, Qt::UserRole).toString().toStdString()) : Ref();
    }
    /// Feeds `what` from `from`, or says why not and changes nothing.
    void feed(Ref what, Ref from) {
        if (!(what.is<Board>() || what.is<Transformer>()) || what == from) return;
        if (auto bad = refuseFeed(session.project(), what, from)) {
            session.say(q(bad->what + ". " + bad->help), true);
            return;
        }
        session.edit(
            QObject::tr("Feed %1 from %2").arg(q(nameOf(session.project(), what)), q(nameOf(session.project(), from))),
            [&](Project& p) { feedFrom(p, what, from); });
    }

protected:
    void dropEvent(QDropEvent* e) override {
        const Ref on = thing(itemAt(e->position().toPoint())), what = thing(currentItem());
        e->setDropAction(Qt::IgnoreAction);
        e->accept();
        if (on && what) feed(what, on);
    }

private:
    Session& session;
};

namespace {

/// A row of the tray: name, then what it needs.
class TrayDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {100, 44}; }
    void paint(QPainter* p, const QStyleOptionViewItem& o, const QModelIndex& i) const override {
        p->save();
        p->setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        const QRectF box = QRectF(o.rect).adjusted(1, 2, -1, -2);
        p->setPen(o.state & QStyle::State_Selected ? t.accent : t.rule);
        p->setBrush(t.surface);
        p->drawRoundedRect(box, 4, 4);
        drawLine(*p, QRectF(box.left() + 9, box.top() + 3, box.width() - 16, 18), i.data().toString(), Qt::AlignLeft,
                 t.ink, uiFont(0.95));
        drawLine(*p, QRectF(box.left() + 9, box.top() + 20, box.width() - 16, 16), i.data(Qt::UserRole + 1).toString(),
                 Qt::AlignLeft, t.quiet, uiFont(0.84));
        p->restore();
    }
};

/// A chosen board keeps the colour of its worst snag.
class InkDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;

protected:
    void initStyleOption(QStyleOptionViewItem* o, const QModelIndex& i) const override {
        QStyledItemDelegate::initStyleOption(o, i);
        if (const QVariant ink = i.data(Qt::ForegroundRole); ink.isValid())
            o->palette.setBrush(QPalette::HighlightedText, ink.value<QBrush>());
    }
};

class TrayList : public QListWidget {
public:
    using QListWidget::QListWidget;

protected:
    void startDrag(Qt::DropActions) override {
        if (!currentItem()) return;
        auto* mime = new QMimeData;
        mime->setData(BoardView::mimeType, currentItem()->data(Qt::UserRole).toByteArray());
        auto* drag = new QDrag(this);
        drag->setMimeData(mime);
        drag->exec(Qt::CopyAction);
    }
};

QLabel* heading(const QString& text) {
    auto* l = new QLabel(text);
    l->setProperty("heading", true);
    return l;
}

/// What only passes on has nothing to level, to size or to put on a schedule; says so.
bool hasNoCircuits(Session& s, BoardId id) {
    const Board* b = s.project().boards.find(id);
    if (!b || !passesOn(b->use)) return false;
    s.say(QObject::tr("%1 has no circuits of its own").arg(q(b->name)), true);
    return true;
}
} // namespace

BoardsStage::BoardsStage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), unfed(new TrayList(this)), boards(new BoardTree(s, this)), title(new QLabel(this)),
      about(new QLabel(this)), unfedCount(heading("")), head(new QWidget(this)), besidePane(new QWidget(this)),
      pages(new QStackedWidget(this)), besidePages(new QStackedWidget(besidePane)),
      split(new QSplitter(Qt::Horizontal, this)), besideBoard(new QComboBox(this)), view(new BoardView(s, this)),
      second(new BoardView(s, this)), inHand(view), schedule(new DrawingView(s, this)), tally(new Tally(s, this)),
      levelCard(new LevelCard(s, this)), groupCard(new GroupCard(s, this)), sizeCard(new SizeCard(s, this)),
      namesCard(new NamesCard(s, this)), reportCard(new ReportCard(s, this)), circuitsPage(new CircuitsPage(s, this)),
      importPage(new ImportPage(s, this)), picker(new BoardPicker(s, this)),
      besideButton(new QPushButton(tr("Beside"), this)) {
    auto* across = new QHBoxLayout(this);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(0);
    leftSide = new QWidget(this);
    leftSide->setFixedWidth(180);
    auto* left = new QVBoxLayout(leftSide);
    left->setContentsMargins(10, 12, 8, 8);
    left->setSpacing(4);
    auto* trayHead = new QHBoxLayout;
    trayHead->addWidget(heading(tr("UNFED")));
    trayHead->addStretch(1);
    trayHead->addWidget(unfedCount);
    left->addLayout(trayHead);
    unfed->setItemDelegate(new TrayDelegate(unfed));
    boards->setItemDelegate(new InkDelegate(boards));
    unfed->setObjectName("tray");
    unfed->setDragEnabled(true);
    unfed->setToolTip(tr("Drag to a space of the board; double-click for the first free one"));
    left->addWidget(unfed, 2);
    left->addSpacing(8);
    left->addWidget(heading(tr("BOARDS")));
    left->addWidget(boards, 3);
    boards->setToolTip(tr("Drag a board onto another, a transformer or a source to feed it from there"));
    across->addWidget(leftSide);

    auto* middle = new QVBoxLayout;
    middle->setContentsMargins(12, 8, 12, 0);
    middle->setSpacing(4);
    auto* headColumn = new QVBoxLayout(head);
    headColumn->setContentsMargins(0, 0, 0, 0);
    headColumn->setSpacing(1);
    auto* headRow = new QHBoxLayout;
    headRow->setSpacing(6);
    title->setTextFormat(Qt::RichText);
    title->setMinimumWidth(60);
    about->setProperty("quiet", true);
    about->setMinimumWidth(60);
    headRow->addWidget(title, 1);
    headColumn->addLayout(headRow);
    headColumn->addWidget(about);
    const auto button = [&](const QString& text, const char* object, const QString& tip) {
        auto* b = new QPushButton(text);
        b->setObjectName(object);
        b->setToolTip(tip);
        headRow->addWidget(b, 0, Qt::AlignVCenter);
        return b;
    };
    connect(button(tr("Level"), "level", tr("The best arrangement for every number of moves   Ctrl+L")),
            &QPushButton::clicked, this, &BoardsStage::openLevel);
    connect(button(tr("Size"), "size", tr("More or fewer places, and what does not fit")), &QPushButton::clicked, this,
            &BoardsStage::openSize);
    connect(button(tr("Names"), "nameFromRooms", tr("Descriptions from rooms and devices, by pattern")),
            &QPushButton::clicked, this, &BoardsStage::openNames);
    connect(button(tr("Circuits"), "allCircuits", tr("Find and change circuits across the building   Ctrl+Shift+F")),
            &QPushButton::clicked, this, &BoardsStage::openCircuits);
    besideButton->setObjectName("beside");
    besideButton->setToolTip(tr("Another board or the schedule beside this one   F9"));
    auto* besideMenu = new QMenu(besideButton);
    besideMenu->addAction(tr("Another board"), this, [this] { setBeside(Beside::Board); });
    besideMenu->addAction(tr("Its schedule"), this, [this] { setBeside(Beside::Schedule); });
    besideMenu->addAction(tr("Nothing"), this, [this] { setBeside(Beside::Nothing); });
    besideButton->setMenu(besideMenu);
    headRow->addWidget(besideButton, 0, Qt::AlignVCenter);
    connect(button(tr("Schedule"), "schedule", tr("The sheet, in Issue")), &QPushButton::clicked, this, [this] {
        if (!hasNoCircuits(session, current)) Q_EMIT scheduleWanted(current);
    });
    middle->addWidget(head);

    auto* boardPage = new QWidget(this);
    auto* boardColumn = new QVBoxLayout(boardPage);
    boardColumn->setContentsMargins(0, 0, 0, 0);
    boardColumn->setSpacing(4);
    const auto scrolled = [&](BoardView* v) {
        auto* scroll = new QScrollArea(this);
        scroll->setWidget(v);
        scroll->setWidgetResizable(true);
        scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        scroll->setMinimumWidth(v->minimumSizeHint().width() + 14);
        return scroll;
    };
    split->addWidget(scrolled(view));
    auto* pane = new QVBoxLayout(besidePane);
    pane->setContentsMargins(6, 0, 0, 0);
    pane->setSpacing(2);
    besideBoard->setObjectName("besideBoard");
    pane->addWidget(besideBoard);
    besidePages->addWidget(scrolled(second));
    schedule->setObjectName("schedulePreview");
    besidePages->addWidget(schedule);
    pane->addWidget(besidePages, 1);
    split->addWidget(besidePane);
    split->setChildrenCollapsible(false);
    besidePane->hide();
    second->setObjectName("secondBoard");
    view->setPeer(second);
    second->setPeer(view);
    boardColumn->addWidget(split, 1);
    boardColumn->addWidget(tally);
    boardColumn->addWidget(levelCard);
    boardColumn->addWidget(sizeCard);
    boardColumn->addWidget(namesCard);
    boardColumn->addWidget(reportCard);
    pages->addWidget(boardPage);
    pages->addWidget(circuitsPage);
    pages->addWidget(importPage);
    middle->addWidget(pages, 1);
    middle->addWidget(groupCard); // below the board and below the list of circuits alike
    across->addLayout(middle, 1);

    for (BoardView* v : {view, second}) {
        connect(v, &BoardView::entered, this, [this, v] { inHand = v; });
        connect(v, &BoardView::groupEditWanted, this, &BoardsStage::openGroup);
        connect(v, &BoardView::refeedWanted, this, [this, v] {
            const auto list = v->chosen();
            if (list.empty()) return session.say(tr("Choose the circuits to feed from another board"), true);
            picker->open(list.size() == 1 ? tr("Feed %1 from…").arg(q(nameOf(session.project(), list.front())))
                                          : tr("Feed %1 circuits from…").arg(list.size()),
                         list, v->board(), [v](BoardId to) {
                             v->setFocus();
                             v->refeed(to);
                         });
        });
    }
    connect(levelCard, &LevelCard::proposed, view, &BoardView::propose);
    for (BoardCard* card : std::initializer_list<BoardCard*>{levelCard, sizeCard, namesCard, reportCard, groupCard})
        connect(card, &BoardCard::closed, this, [this] { showCard(nullptr); });
    connect(reportCard, &ReportCard::circuitsWanted, this, &BoardsStage::circuitMissingLoads);
    connect(circuitsPage, &CircuitsPage::closed, this, &BoardsStage::toBoardPage);
    connect(circuitsPage, &CircuitsPage::groupEditWanted, this, &BoardsStage::openGroup);
    connect(importPage, &ImportPage::closed, this, &BoardsStage::toBoardPage);
    connect(importPage, &ImportPage::modelTaken, this, &BoardsStage::modelTaken);
    connect(besideBoard, &QComboBox::activated, this, [this] {
        secondBoard = {besideBoard->currentData().toUInt()};
        second->show(secondBoard);
    });
    connect(&session, &Session::solved, this, &BoardsStage::rebuild);
    connect(&session, &Session::opened, this, [this] {
        current = {};
        levelCard->hide();
        toBoardPage();
        setBeside(Beside::Nothing);
        rebuild();
    });
    connect(&session, &Session::selectionChanged, this, &BoardsStage::followSelection);
    connect(boards, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
        if (const Ref r = BoardTree::thing(item)) session.select(r);
    });
    connect(unfed, &QListWidget::itemClicked, this,
            [this](QListWidgetItem* i) { session.select(refFrom(i->data(Qt::UserRole).toString().toStdString())); });
    connect(unfed, &QListWidget::itemDoubleClicked, this,
            [this](QListWidgetItem* i) { feedFirstFree(refFrom(i->data(Qt::UserRole).toString().toStdString())); });
    rebuild();
}

QTreeWidget* BoardsStage::tree() { return boards; }

void BoardsStage::feedFirstFree(Ref thing) {
    if (!current) return;
    int poles = 1;
    if (auto* l = session.project().loads.find(thing.as<Load>())) poles = l->poles;
    if (auto* d = session.project().devices.find(thing.as<Device>()))
        poles = session.project().deviceTypes[d->type].poles;
    const Board& b = session.project().boards[current];
    if (poles > factsOf(b.system).lines) return session.say(tr("%1 has no %2 lines").arg(q(b.name)).arg(poles), true);
    if (!firstFreeSlot(session.project(), current, poles))
        return session.say(tr("%1 has no place for %2").arg(q(b.name), counted(poles, tr("pole"), tr("poles"))), true);
    CircuitId made;
    session.edit(tr("Feed %1").arg(q(nameOf(session.project(), thing))), [&](Project& p) {
        made = thing.is<Load>() ? circuitLoad(p, thing.as<Load>(), current)
                                : circuitToBoard(p, {thing.as<Device>()}, current);
    });
    session.select(made);
}

void BoardsStage::followSelection() {
    const BoardId b = session.boardOfSelection();
    // What is chosen on the board beside stays there.
    if (b && b != current && !(besideNow == Beside::Board && b == secondBoard && second->hasFocus())) {
        current = b;
        showBoard();
        if (levelCard->isVisible()) levelCard->open(current);
        if (sizeCard->isVisible()) sizeCard->open(current);
    }
    QSignalBlocker quiet(boards);
    Ref r = session.selection();
    if (b) r = b;
    if (const auto it = treeItems.find(r); it != treeItems.end() && boards->currentItem() != it->second)
        boards->setCurrentItem(it->second);
}

void BoardsStage::rebuild() {
    const Solution& s = session.solution();
    const Theme& t = theme();
    if (!s.project.boards.has(current)) {
        current = {};
        for (const Board& b : s.project.boards)
            if (!passesOn(b.use) && (!current || b.use == BoardUse::Panelboard)) {
                current = b.id;
                if (b.use == BoardUse::Panelboard && s.results.of(b.id).slotsUsed > 12) break;
            }
    }
    {
        std::vector<TrayRow> rows;
        const auto add = [&](Ref r, const std::string& name, const QString& words) {
            rows.push_back({q(r.text()), q(name), words});
        };
        if (s.results.present.has(Results::Trait::NoCircuit))
            for (const Load& l : s.project.loads)
                if (!l.circuit)
                    add(l.id, l.name,
                        QString("%1 %2 · %3P%4")
                            .arg(l.amount)
                            .arg(wordOf(l.unit))
                            .arg(l.poles)
                            .arg(l.where.empty() ? QString() : " · " + q(l.where)));
        for (CircuitId id : s.results.on(current))
            if (const Circuit& c = s.project.circuits[id]; c.slot <= 0)
                add(id, nameOf(s.project, id),
                    tr("%1P · no place · %2").arg(c.poles).arg(q(servesWords(s.project, s.results, id))));
        for (const Device& d : s.project.devices) {
            const DeviceType& y = s.project.deviceTypes[d.type];
            if (d.circuit || d.load.value_or(y.load) <= 0) continue;
            const RoomId room = roomAt(s.project, d.level, d.at);
            add(d.id, d.tag.empty() ? y.name : y.name + " " + d.tag,
                QString("%1 %2 · %3P · %4")
                    .arg(d.load.value_or(y.load))
                    .arg(wordOf(y.unit))
                    .arg(y.poles)
                    .arg(room ? q(nameOf(s.project, Ref(room))) : tr("on plan")));
        }
        if (rows != trayRows) { // most edits leave the tray as it is
            QSignalBlocker quiet(unfed);
            trayRows = rows;
            unfed->clear();
            for (const TrayRow& r : rows) {
                auto* i = new QListWidgetItem(r.name, unfed);
                i->setData(Qt::UserRole, r.ref);
                i->setData(Qt::UserRole + 1, r.words);
            }
            unfedCount->setText(QString::number(unfed->count()));
        }
    }
    {
        QSignalBlocker quiet(boards);
        std::map<BoardId, Severity> snags;
        for (const Snag& g : s.snags) {
            BoardId b = g.about.as<Board>();
            if (const Circuit* c = s.project.circuits.find(g.about.as<Circuit>())) b = c->board;
            if (b && (!snags.count(b) || g.severity < snags[b])) snags[b] = g.severity;
        }
        // The tree is built anew only where its shape or a name changes; else its figures are.
        std::vector<std::tuple<Ref, Ref, QString>> shape;
        for (Ref r : s.results.order) {
            const NodeResult& n = *s.results.node(r);
            QString name = q(nameOf(s.project, r));
            if (auto* x = s.project.transformers.find(r.as<Transformer>())) name += QString(" %1 kVA").arg(x->kva);
            // What only passes on stands before what it feeds, not above it: the tree is as deep as there are boards.
            Ref above = n.looped ? Ref() : n.parent;
            for (const Board* b = s.project.boards.find(above.as<Board>()); b && passesOn(b->use);
                 b = s.project.boards.find(above.as<Board>()))
                above = s.results.of(b->id).looped ? Ref() : s.results.of(b->id).parent;
            shape.push_back({r, above, name});
        }
        const bool fresh = shape != treeShape;
        if (fresh) {
            treeShape = shape;
            treeItems.clear();
            boards->clear();
            for (const auto& [r, parent, name] : shape) {
                const auto above = treeItems.find(parent);
                auto* i = above == treeItems.end() ? new QTreeWidgetItem(boards) : new QTreeWidgetItem;
                if (above != treeItems.end()) {
                    const auto before = treeItems.find(s.results.node(r)->parent); // right after what passes on to it
                    const int at = before == treeItems.end() ? -1 : above->second->indexOfChild(before->second);
                    above->second->insertChild(at < 0 ? above->second->childCount() : at + 1, i);
                }
                i->setText(0, name);
                i->setData(0, Qt::UserRole, q(r.text()));
                i->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
                treeItems[r] = i;
            }
            bold = nullptr;
        }
        for (const auto& [r, i] : treeItems) {
            double use = 0;
            if (r.is<Transformer>()) use = s.results.of(r.as<Transformer>()).use;
            if (r.is<Board>()) use = s.results.of(r.as<Board>()).use;
            QString text = r.is<Source>() ? "" : QString("%1 %").arg(std::lround(use * 100));
            QColor colour = use > 1 ? t.stop : t.quiet;
            if (const auto snag = r.is<Board>() ? snags.find(r.as<Board>()) : snags.end();
                snag != snags.end() && snag->second != Severity::Note) {
                text = "● " + text;
                colour = snag->second == Severity::Stop ? t.stop : t.check;
            }
            if (i->text(1) != text) i->setText(1, text);
            if (i->foreground(1).color() != colour || fresh) i->setForeground(1, colour);
        }
        if (fresh) {
            boards->expandAll();
            boards->header()->setSectionResizeMode(0, QHeaderView::Stretch);
            boards->header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
        }
        if (const auto it = treeItems.find(Ref(current)); it != treeItems.end() && boards->currentItem() != it->second)
            boards->setCurrentItem(it->second);
    }
    showBoard();
}

void BoardsStage::showBoard() {
    const Solution& s = session.solution();
    const Theme& t = theme();
    if (const auto it = treeItems.find(Ref(current)); bold != (it == treeItems.end() ? nullptr : it->second)) {
        if (bold) bold->setFont(0, uiFont(1));
        bold = it == treeItems.end() ? nullptr : it->second;
        if (bold) bold->setFont(0, uiFont(1, true));
    }
    if (const Board* b = s.project.boards.find(current)) {
        title->setText(
            QString(
                "<span style='font-size:19px;font-weight:600'>%1</span>&nbsp;&nbsp;<span style='color:%2'>%3</span>")
                .arg(q(b->name).toHtmlEscaped(), t.quiet.name(), q(b->description).toHtmlEscaped()));
        const BoardResult& r = s.results.of(current);
        const QString here = r.fault.known ? tr(", %1 here").arg(q(faultWords(r.fault))) : QString();
        if (passesOn(b->use))
            about->setText(
                QString("%1 V · %2 · %3 kA").arg(q(wordOf(b->system)), q(equipmentWords(*b))).arg(b->ratingKA) + here);
        else
            about->setText(
                QString("%1 V · %2 A bus · %3 · %4 · %5 kA")
                    .arg(q(wordOf(b->system)))
                    .arg(b->bus)
                    .arg(b->main > 0 ? tr("%1 A main").arg(b->main) : tr("lugs only"))
                    .arg(b->form == BoardForm::Ways ? tr("%1 ways").arg(b->slots / 3) : tr("%1 slots").arg(b->slots))
                    .arg(b->ratingKA) +
                here);
    } else {
        title->setText(tr("No board yet"));
        about->setText(tr("Project ▸ Add board"));
    }
    view->show(current);
    tally->board = current;
    tally->update();
    if (besideNow == Beside::Board) {
        QSignalBlocker quiet(besideBoard);
        besideBoard->clear();
        for (const Board& b : s.project.boards)
            if (b.id != current && !passesOn(b.use)) {
                besideBoard->addItem(q(b.name) + "   " +
                                         tr("%1 of %2 taken").arg(s.results.of(b.id).slotsUsed).arg(b.slots),
                                     b.id.value);
                if (b.id == secondBoard) besideBoard->setCurrentIndex(besideBoard->count() - 1);
            }
        if (besideBoard->count()) secondBoard = {besideBoard->currentData().toUInt()};
        second->show(secondBoard);
    }
    showSchedule();
}

// ---- cards and pages ----

void BoardsStage::toBoardPage() {
    pages->setCurrentIndex(0);
    head->show();
    leftSide->show();
    Q_EMIT besideChanged();
    focusBoard();
}
void BoardsStage::focusBoard() {
    if (pages->currentIndex() == 1)
        circuitsPage->begin();
    else
        inHand->setFocus();
}

/// One card at a time; the tally gives way to those of the board.
void BoardsStage::showCard(QWidget* card) {
    for (QWidget* w : std::initializer_list<QWidget*>{levelCard, sizeCard, namesCard, reportCard, groupCard})
        if (w != card && w->isVisible()) {
            if (w == levelCard) view->propose({});
            w->hide();
        }
    tally->setVisible(!card);
    if (!card) focusBoard();
}

void BoardsStage::openLevel() {
    if (!current || hasNoCircuits(session, current)) return;
    toBoardPage();
    showCard(levelCard);
    levelCard->open(current);
}
void BoardsStage::openSize() {
    if (!current || hasNoCircuits(session, current)) return;
    toBoardPage();
    showCard(sizeCard);
    sizeCard->open(current);
}
void BoardsStage::openNames() {
    if (!current) return;
    toBoardPage();
    showCard(namesCard);
    namesCard->open(current);
}
void BoardsStage::openReport() {
    if (pages->currentIndex() != 0) toBoardPage();
    showCard(reportCard);
    reportCard->open();
}
void BoardsStage::openGroup() {
    std::vector<CircuitId> list;
    for (Ref r : session.selectionList())
        if (session.project().circuits.has(r.as<Circuit>()) && r.is<Circuit>()) list.push_back(r.as<Circuit>());
    if (list.empty() && pages->currentIndex() == 0) list = inHand->chosen();
    if (list.empty())
        return session.say(tr("Choose the circuits to change first: Shift and Ctrl with arrows or mouse"), true);
    showCard(groupCard);
    groupCard->open(list, pages->currentIndex() == 0 ? inHand->fact() : "breaker");
}
void BoardsStage::openCircuits() {
    pages->setCurrentIndex(1);
    head->hide();
    showCard(nullptr);
    circuitsPage->begin();
}
void BoardsStage::openImport(const QString& file) {
    takeIn(file, tr("Take in a list of loads"), lists(), &ImportPage::open);
}
void BoardsStage::openFeeders(const QString& file) {
    takeIn(file, tr("Take in a schedule of feeders"), lists(), &ImportPage::openFeeders);
}
void BoardsStage::openModel(const QString& file) {
    takeIn(file, tr("Take in a building model"), tr("Building models (*.ifc *.xml *.gbxml);;All files (*)"),
           &ImportPage::openModel);
}
QString BoardsStage::lists() { return tr("Lists (*.csv *.tsv *.txt *.xlsx);;All files (*)"); }
void BoardsStage::takeIn(const QString& file, const QString& heading, const QString& sorts,
                         void (ImportPage::*open)(const QString&)) {
    const QString name = file.isEmpty() ? QFileDialog::getOpenFileName(this, heading, {}, sorts) : file;
    if (name.isEmpty()) return;
    showImport();
    (importPage->*open)(name);
}
void BoardsStage::showImport() {
    showCard(nullptr);
    pages->setCurrentIndex(2);
    head->hide();
    leftSide->hide();
    Q_EMIT besideChanged();
    importPage->setFocus();
}

bool BoardsStage::wantsRoom() const { return besideNow != Beside::Nothing || pages->currentIndex() == 2; }

void BoardsStage::setBeside(Beside what, BoardId which) {
    besideNow = what;
    besidePane->setVisible(what != Beside::Nothing);
    if (what == Beside::Board) {
        if (which) secondBoard = which;
        if (!session.solution().project.boards.has(secondBoard) ||
            secondBoard == current) // the next one that is like it
            for (const Board& b : session.solution().project.boards)
                if (b.id != current && !passesOn(b.use) &&
                    (!session.solution().project.boards.has(secondBoard) || secondBoard == current ||
                     (b.system == session.solution().project.boards[current].system && b.id > current &&
                      !(secondBoard > current))))
                    secondBoard = b.id;
        besidePages->setCurrentIndex(0);
    } else if (what == Beside::Schedule) {
        besidePages->setCurrentIndex(1);
    } else
        inHand = view;
    besideBoard->setVisible(what == Beside::Board);
    Q_EMIT besideChanged();
    showBoard();
    if (what == Beside::Board) split->setSizes({split->width() / 2, split->width() / 2});
    if (what == Beside::Schedule) split->setSizes({540, std::max(300, split->width() - 540)});
}

void BoardsStage::showSchedule() {
    const Solution& s = session.solution();
    if (besideNow != Beside::Schedule || !isVisible() || !s.project.boards.has(current)) return;
    const SheetInput in = session.sheetInput(s);
    schedule->show(panelSchedule(in, current), true);
}

void BoardsStage::circuitMissingLoads() {
    Project next = session.project();
    const Circuited c = circuitMissing(next, *session.solution().book);
    if (c.loads == 0)
        return session.say(c.left.empty() ? tr("Every listed load has a circuit") : q(c.left.front()), !c.left.empty());
    session.edit(tr("Give %1 a circuit").arg(counted(c.loads, tr("load"), tr("loads"))), [&](Project& p) { p = next; });
    QString words = tr("%1 on %2")
                        .arg(counted(c.loads, tr("load"), tr("loads")),
                             counted(c.circuits.size(), tr("new circuit"), tr("new circuits")));
    if (!c.left.empty()) words += tr("; %1 still without: %2").arg(c.left.size()).arg(q(c.left.front()));
    session.say(words, !c.left.empty());
}

} // namespace lintel
