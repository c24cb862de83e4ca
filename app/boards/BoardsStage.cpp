#include "app/boards/BoardsStage.h"

#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/sheets/Words.h"
#include "core/solve/PhaseLoads.h"

#include <QBoxLayout>
#include <QDrag>
#include <QHeaderView>
#include <QDropEvent>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QMimeData>
#include <QPushButton>
#include <QScrollArea>
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
        std::sort(kinds.begin(), kinds.end(), [&](std::size_t a, std::size_t c) { return r.kinds[a].va() > r.kinds[c].va(); });
        const std::size_t shown = std::min<std::size_t>(kinds.size(), 5);
        const double left = 88, w = shown ? std::min(170.0, (width() - left) / double(shown)) : 100;
        for (std::size_t k = 0; k < shown; ++k) {
            const std::size_t i = kinds[k];
            const double x = left + k * w;
            drawLine(p, QRectF(x, 5, w - 12, 18), q(kindTitle(LoadKind(i), *s.book)), Qt::AlignLeft, t.ink, uiFont(0.92, true));
            const QString figure = QString("%1 → %2").arg(q(kilo(r.kinds[i].va())), q(kilo(r.demandByKind[i])));
            drawLine(p, QRectF(x, 24, w - 12, 17), figure + QString("   %1 %").arg(std::lround(r.demandByKind[i] / r.kinds[i].va() * 100)), Qt::AlignLeft, t.quiet, uiFont(0.88));
        }
        if (kinds.size() > shown) setToolTip(QObject::tr("and %1 more kinds: see the schedule").arg(kinds.size() - shown));
        drawLine(p, QRectF(0, 54, 84, 18), QObject::tr("Phase"), Qt::AlignLeft, t.quiet, uiFont(0.9));
        const int lines = factsOf(b->system).lines;
        const double most = std::max(1.0, *std::max_element(r.phaseVa.begin(), r.phaseVa.end()));
        const double pw = std::min(176.0, (width() - left - 190) / 3.0);
        for (int i = 0; i < lines; ++i) {
            const double x = left + i * pw;
            drawLine(p, QRectF(x, 54, 22, 18), q(lineName(i, *b)), Qt::AlignLeft, t.phase(phaseInk(s.project.basis, b->system, i)), uiFont(0.92, true));
            const double room = pw - 22 - 84;
            p.fillRect(QRectF(x + 20, 58, std::max(1.0, room * r.phaseVa[std::size_t(i)] / most), 10), t.phase(phaseInk(s.project.basis, b->system, i)));
            drawLine(p, QRectF(x + pw - 82, 54, 70, 18), q(kilo(r.phaseVa[std::size_t(i)])) + " kVA", Qt::AlignRight, t.ink, uiFont(0.9));
            drawLine(p, QRectF(x + pw - 82, 72, 70, 16), q(number(r.phaseAmps[std::size_t(i)])) + " A", Qt::AlignRight, t.quiet, uiFont(0.85));
        }
        drawLine(p, QRectF(left + 3 * pw + 6, 54, width() - left - 3 * pw - 8, 18), QObject::tr("Demand %1 kVA · %2 A").arg(q(kilo(r.demand)), q(number(r.demandAmps.v))), Qt::AlignLeft, t.ink, uiFont(0.95, true));
        drawLine(p, QRectF(left + 3 * pw + 6, 72, width() - left - 3 * pw - 8, 16), QObject::tr("of %1 A · connected %2 kVA").arg(q(number(b->main > 0 ? std::min(b->main, b->bus) : b->bus)), q(kilo(r.connected))), Qt::AlignLeft, t.quiet, uiFont(0.85));
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
    static Ref thing(const QTreeWidgetItem* item) { return item ? refFrom(item->data(0, Qt::UserRole).toString().toStdString()) : Ref(); }
    QTreeWidgetItem* find(Ref r) {
        for (QTreeWidgetItemIterator it(this); *it; ++it)
            if (thing(*it) == r) return *it;
        return nullptr;
    }
    /// Feeds `what` from `from`, or says why not and changes nothing.
    void feed(Ref what, Ref from) {
        if (!(what.is<Board>() || what.is<Transformer>()) || what == from) return;
        if (auto bad = refuseFeed(session.project(), what, from)) {
            session.say(q(bad->what + ". " + bad->help), true);
            return;
        }
        session.edit(QObject::tr("Feed %1 from %2").arg(q(nameOf(session.project(), what)), q(nameOf(session.project(), from))), [&](Project& p) { feedFrom(p, what, from); });
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
        drawLine(*p, QRectF(box.left() + 9, box.top() + 3, box.width() - 16, 18), i.data().toString(), Qt::AlignLeft, t.ink, uiFont(0.95));
        drawLine(*p, QRectF(box.left() + 9, box.top() + 20, box.width() - 16, 16), i.data(Qt::UserRole + 1).toString(), Qt::AlignLeft, t.quiet, uiFont(0.84));
        p->restore();
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

} // namespace

BoardsStage::BoardsStage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), unfed(new TrayList(this)), boards(new BoardTree(s, this)), title(new QLabel(this)), about(new QLabel(this)), unfedCount(heading("")), view(new BoardView(s, this)),
      tally(new Tally(s, this)) {
    auto* across = new QHBoxLayout(this);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(0);
    auto* leftSide = new QWidget(this);
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
    auto* head = new QHBoxLayout;
    auto* names = new QVBoxLayout;
    names->setSpacing(0);
    title->setTextFormat(Qt::RichText);
    about->setProperty("quiet", true);
    names->addWidget(title);
    names->addWidget(about);
    head->addLayout(names, 1);
    const auto button = [&](const QString& text, const char* object) {
        auto* b = new QPushButton(text);
        b->setObjectName(object);
        head->addWidget(b, 0, Qt::AlignVCenter);
        return b;
    };
    connect(button(tr("Level…"), "level"), &QPushButton::clicked, this, &BoardsStage::openLevelMenu);
    connect(button(tr("Name from rooms"), "nameFromRooms"), &QPushButton::clicked, this, [this] {
        session.edit(tr("Name circuits from rooms"), [this](Project& p) {
            std::map<CircuitId, std::vector<DeviceId>> devices;
            for (const Device& d : p.devices)
                if (const Circuit* c = p.circuits.find(d.circuit); c && c->board == current) devices[c->id].push_back(d.id);
            for (const auto& [c, list] : devices) p.circuits.change(c)->name = nameForDevices(p, list);
        });
    });
    connect(button(tr("Schedule"), "schedule"), &QPushButton::clicked, this, [this] { Q_EMIT scheduleWanted(current); });
    middle->addLayout(head);
    auto* scroll = new QScrollArea(this);
    scroll->setWidget(view);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    middle->addWidget(scroll, 1);
    middle->addWidget(tally);
    across->addLayout(middle, 1);
    connect(&session, &Session::solved, this, &BoardsStage::rebuild);
    connect(&session, &Session::opened, this, [this] {
        current = {};
        rebuild();
    });
    connect(&session, &Session::selectionChanged, this, &BoardsStage::followSelection);
    connect(boards, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
        if (const Ref r = BoardTree::thing(item)) session.select(r);
    });
    connect(unfed, &QListWidget::itemClicked, this, [this](QListWidgetItem* i) { session.select(refFrom(i->data(Qt::UserRole).toString().toStdString())); });
    connect(unfed, &QListWidget::itemDoubleClicked, this, [this](QListWidgetItem* i) { feedFirstFree(refFrom(i->data(Qt::UserRole).toString().toStdString())); });
    rebuild();
}

QTreeWidget* BoardsStage::tree() { return boards; }

void BoardsStage::feedFirstFree(Ref thing) {
    if (!current) return;
    int poles = 1;
    if (auto* l = session.project().loads.find(thing.as<Load>())) poles = l->poles;
    if (auto* d = session.project().devices.find(thing.as<Device>())) poles = session.project().deviceTypes[d->type].poles;
    const Board& b = session.project().boards[current];
    if (poles > factsOf(b.system).lines) return session.say(tr("%1 has no %2 lines").arg(q(b.name)).arg(poles), true);
    if (!firstFreeSlot(session.project(), current, poles)) return session.say(tr("%1 has no place for %2 poles").arg(q(b.name)).arg(poles), true);
    CircuitId made;
    session.edit(tr("Feed %1").arg(q(nameOf(session.project(), thing))), [&](Project& p) { made = thing.is<Load>() ? circuitLoad(p, thing.as<Load>(), current) : circuitToBoard(p, {thing.as<Device>()}, current); });
    session.select(made);
}

void BoardsStage::followSelection() {
    const BoardId b = session.boardOfSelection();
    if (b && b != current) {
        current = b;
        showBoard();
    }
    QSignalBlocker quiet(boards);
    Ref r = session.selection();
    if (b) r = b;
    if (auto* item = boards->find(r)) boards->setCurrentItem(item);
}

void BoardsStage::rebuild() {
    const Solution& s = session.solution();
    const Theme& t = theme();
    if (!s.project.boards.has(current)) {
        current = {};
        for (const Board& b : s.project.boards)
            if (!current || b.use == BoardUse::Panelboard) {
                current = b.id;
                if (b.use == BoardUse::Panelboard && s.results.of(b.id).slotsUsed > 12) break;
            }
    }
    {
        QSignalBlocker quiet(unfed);
        unfed->clear();
        const auto add = [&](Ref r, const std::string& name, const QString& words) {
            auto* i = new QListWidgetItem(q(name), unfed);
            i->setData(Qt::UserRole, q(r.text()));
            i->setData(Qt::UserRole + 1, words);
        };
        for (const Load& l : s.project.loads)
            if (!l.circuit) add(l.id, l.name, QString("%1 %2 · %3P%4").arg(l.amount).arg(wordOf(l.unit)).arg(l.poles).arg(l.where.empty() ? QString() : " · " + q(l.where)));
        for (const Device& d : s.project.devices) {
            const DeviceType& y = s.project.deviceTypes[d.type];
            if (d.circuit || d.load.value_or(y.load) <= 0) continue;
            const RoomId room = roomAt(s.project, d.level, d.at);
            add(d.id, d.tag.empty() ? y.name : y.name + " " + d.tag, QString("%1 %2 · %3P · %4").arg(d.load.value_or(y.load)).arg(wordOf(y.unit)).arg(y.poles).arg(room ? q(nameOf(s.project, Ref(room))) : tr("on plan")));
        }
        unfedCount->setText(QString::number(unfed->count()));
    }
    {
        QSignalBlocker quiet(boards);
        boards->clear();
        std::map<Ref, QTreeWidgetItem*> items;
        std::map<BoardId, Severity> snags;
        for (const Snag& g : s.snags) {
            BoardId b = g.about.as<Board>();
            if (const Circuit* c = s.project.circuits.find(g.about.as<Circuit>())) b = c->board;
            if (b && (!snags.count(b) || g.severity < snags[b])) snags[b] = g.severity;
        }
        for (Ref r : s.results.order) {
            const NodeResult& n = *s.results.node(r);
            auto* parent = items.count(n.parent) && !n.looped ? items[n.parent] : nullptr;
            QString name = q(nameOf(s.project, r));
            double use = 0;
            if (auto* x = s.project.transformers.find(r.as<Transformer>())) name += QString(" %1 kVA").arg(x->kva), use = s.results.of(x->id).use;
            if (r.is<Board>()) use = s.results.of(r.as<Board>()).use;
            const QStringList text{name, r.is<Source>() ? "" : QString("%1 %").arg(std::lround(use * 100))};
            auto* i = parent ? new QTreeWidgetItem(parent, text) : new QTreeWidgetItem(boards, text);
            i->setData(0, Qt::UserRole, q(r.text()));
            i->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
            i->setForeground(1, use > 1 ? t.stop : t.quiet);
            if (r.is<Board>() && snags.count(r.as<Board>()) && snags[r.as<Board>()] != Severity::Note) {
                i->setText(1, "● " + i->text(1));
                i->setForeground(1, snags[r.as<Board>()] == Severity::Stop ? t.stop : t.check);
            }
            items[r] = i;
        }
        boards->expandAll();
        boards->header()->setSectionResizeMode(0, QHeaderView::Stretch);
        boards->header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
        if (auto* item = boards->find(current)) boards->setCurrentItem(item);
    }
    showBoard();
}

void BoardsStage::showBoard() {
    const Solution& s = session.solution();
    const Theme& t = theme();
    for (QTreeWidgetItemIterator it(boards); *it; ++it) (*it)->setFont(0, uiFont(1, BoardTree::thing(*it) == Ref(current)));
    if (const Board* b = s.project.boards.find(current)) {
        title->setText(QString("<span style='font-size:19px;font-weight:600'>%1</span>&nbsp;&nbsp;<span style='color:%2'>%3</span>").arg(q(b->name).toHtmlEscaped(), t.quiet.name(), q(b->description).toHtmlEscaped()));
        const BoardResult& r = s.results.of(current);
        about->setText(QString("%1 V · %2 A bus · %3 · %4 · %5 kA").arg(wordOf(b->system)).arg(b->bus).arg(b->main > 0 ? tr("%1 A main").arg(b->main) : tr("lugs only")).arg(b->form == BoardForm::Ways ? tr("%1 ways").arg(b->slots / 3) : tr("%1 slots").arg(b->slots)).arg(b->ratingKA) +
                       (r.fault.known ? tr(", %1 here").arg(q(figures(r.fault.worst()))) : QString()));
    } else {
        title->setText(tr("No board yet"));
        about->setText(tr("Project ▸ Add board"));
    }
    view->show(current);
    tally->board = current;
    tally->update();
}

void BoardsStage::openLevelMenu() {
    if (!current) return;
    const Solution& s = session.solution();
    const LevelChoices choices = levelBoard(s.project, s.results, current);
    const Arrangement &now = choices.byMoves.front(), &best = choices.best();
    auto* menu = new QMenu(this);
    menu->setObjectName("levelMenu");
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->addAction(tr("As it stands: %1").arg(q(percent(now.imbalance))))->setEnabled(false);
    if (!best.places.empty())
        menu->addAction(tr("%1 moves: %2").arg(best.places.size()).arg(q(percent(best.imbalance))), this, [this, best] {
            session.edit(tr("Level %1").arg(q(nameOf(session.project(), Ref(current)))), [&](Project& p) { applyArrangement(p, best); });
        })->setObjectName("levelBest");
    auto* b = findChild<QPushButton*>("level");
    menu->popup(b->mapToGlobal(QPoint(0, b->height() + 2)));
}

} // namespace lintel
