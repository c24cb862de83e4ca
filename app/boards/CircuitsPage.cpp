#include "app/boards/CircuitsPage.h"

#include "app/frame/LineDelegate.h"
#include "app/frame/PaintKit.h"
#include "app/frame/WhenShown.h"
#include "core/base/Format.h"
#include "core/copy/CircuitBlock.h"
#include "core/figures/Words.h"
#include "core/project/CircuitFacts.h"

#include <QApplication>
#include <QBoxLayout>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>

namespace lintel {

CircuitsModel::CircuitsModel(Session& s, QObject* parent)
    : QAbstractTableModel(parent), session(s), filter(*CircuitFilter::from("")) {
    rebuild();
}

std::optional<Error> CircuitsModel::setFilter(const std::string& text) {
    auto f = CircuitFilter::from(text);
    if (!f) return f.error();
    filter = *f;
    beginResetModel();
    rows = arranged();
    endResetModel();
    return {};
}

void CircuitsModel::rebuild() {
    from = session.sharedSolution();
    std::vector<CircuitId> list = arranged();
    if (list == rows) { // the same circuits in the same order: what is chosen and where it is scrolled to stay
        if (!rows.empty()) Q_EMIT dataChanged(index(0, 0), index(int(rows.size()) - 1, columnCount() - 1));
        return;
    }
    beginResetModel();
    rows = std::move(list);
    endResetModel();
}

std::vector<CircuitId> CircuitsModel::arranged() const {
    std::vector<CircuitId> list;
    if (!from || !from->book) return list;
    const CheckInput in = from->input();
    const bool each = sortColumn >= 0;
    std::vector<std::tuple<BoardId, int, CircuitId>> places;
    for (const Circuit& c : in.project.circuits)
        if (filter.empty() || filter.matches(in, c)) {
            if (each)
                list.push_back(c.id);
            else
                places.push_back({c.board, c.slot, c.id});
        }
    if (!each) { // board after board, as they stand
        std::sort(places.begin(), places.end());
        for (const auto& x : places) list.push_back(std::get<2>(x));
        return list;
    }
    const auto number = [&](CircuitId c) {
        const CircuitResult& r = in.results.of(c);
        switch (sortColumn) {
        case Va:
            return r.va;
        case Amps:
            return r.load.v;
        case Breaker:
            return r.device;
        case Size:
            return double(in.results.run(c)->size);
        case Length:
            return in.results.run(c)->need.length.v;
        case Drop:
            return in.results.run(c)->dropOwn;
        default:
            return 0.0;
        }
    };
    std::vector<std::tuple<double, QString, CircuitId>> keys;
    for (CircuitId c : list) keys.push_back({number(c), QString(), c});
    if (sortColumn <= Kind || sortColumn == Note)
        for (auto& [n, text, c] : keys) {
            const Circuit& x = in.project.circuits[c];
            text = sortColumn == Name     ? q(nameOf(in.project, c))
                   : sortColumn == Serves ? q(servesWords(in.project, in.results, c)).toLower()
                   : sortColumn == Note   ? q(x.note)
                                          : q(wordOf(in.results.of(c).kind));
        }
    std::stable_sort(keys.begin(), keys.end(), [&](const auto& a, const auto& b) {
        const auto less = [](const auto& x, const auto& y) {
            return std::tie(std::get<0>(x), std::get<1>(x)) < std::tie(std::get<0>(y), std::get<1>(y));
        };
        return sortOrder == Qt::AscendingOrder ? less(a, b) : less(b, a);
    });
    list.clear();
    for (const auto& k : keys) list.push_back(std::get<2>(k));
    return list;
}

int CircuitsModel::rowOf(CircuitId c) const {
    const auto it = std::find(rows.begin(), rows.end(), c);
    return it == rows.end() ? -1 : int(it - rows.begin());
}

const char* CircuitsModel::factOf(int column) {
    switch (column) {
    case Serves:
        return "serves";
    case Kind:
        return "kind";
    case Va:
        return "load";
    case Breaker:
        return "breaker";
    case Size:
        return "size";
    case Length:
        return "length";
    case Note:
        return "note";
    default:
        return nullptr;
    }
}

QVariant CircuitsModel::data(const QModelIndex& i, int role) const {
    const CircuitId id = at(i.row());
    const Circuit* c = from ? from->project.circuits.find(id) : nullptr;
    if (!c) return {};
    const Project& p = from->project;
    const CircuitResult& r = from->results.of(id);
    const RunResult& run = *from->results.run(id);
    const bool load = c->use == CircuitUse::Load;
    if (role == Qt::TextAlignmentRole)
        return int((i.column() == Va || i.column() == Amps || i.column() == Length || i.column() == Drop
                        ? Qt::AlignRight
                        : Qt::AlignLeft) |
                   Qt::AlignVCenter);
    if (role == Qt::ForegroundRole) {
        if (i.column() == Breaker && r.deviceHeld && r.device < r.required.v) return theme().stop;
        if (i.column() == Drop && run.need.lengthKnown &&
            (run.dropOwn > run.need.ownLimit || run.dropTotal > run.need.totalLimit))
            return theme().stop;
        if (i.column() == Size && run.tooSmall) return theme().stop;
        return load ? theme().ink : theme().quiet;
    }
    if (role == Qt::EditRole) {
        const char* key = factOf(i.column());
        return key ? q(circuitFact(key)->read(session.project(),
                                              session.project().circuits.has(id) ? session.project().circuits[id] : *c))
                   : QVariant();
    }
    if (role != Qt::DisplayRole) return {};
    // A dash where nobody entered a load, not a nought that nobody typed.
    const auto loaded = [&](const QString& words) { return !load ? QString() : r.nothingHangsOn() ? tr("–") : words; };
    switch (i.column()) {
    case Name:
        return q(nameOf(p, id)) + (c->pinned ? " •" : "");
    case Serves:
        return q(servesWords(p, from->results, id));
    case Kind:
        return r.feeder ? tr("feeder") : loaded(q(wordOf(r.kind)));
    case Va:
        return loaded(q(number(r.va)));
    case Amps:
        return loaded(q(figures(r.load.v)));
    case Breaker:
        return c->use == CircuitUse::Reserved
                   ? QString()
                   : q(deviceWords(r, c->poles, *from->book)) + (r.deviceHeld ? tr(" held") : QString());
    case Size:
        return load ? q(sizeOf(run, *from->book)) : QString();
    case Length:
        return load && run.need.lengthKnown
                   ? (run.need.lengthAssumed ? "~" : "") + q(lengthWords(run.need.length, p.basis.units))
                   : QString();
    case Drop:
        return load && run.need.lengthKnown ? q(percent(run.dropOwn)) : QString();
    case Note:
        return q(c->note);
    }
    return {};
}

QVariant CircuitsModel::headerData(int section, Qt::Orientation o, int role) const {
    if (o == Qt::Horizontal && role == Qt::TextAlignmentRole)
        return int((section == Va || section == Amps || section == Length || section == Drop ? Qt::AlignRight
                                                                                             : Qt::AlignLeft) |
                   Qt::AlignVCenter);
    if (o != Qt::Horizontal || role != Qt::DisplayRole) return {};
    static const char* titles[] = {"Circuit", "Serves", "Load kind", "VA",   "A",
                                   "Breaker", "Size",   "Length",    "Drop", "Note"};
    return tr(titles[section]);
}

Qt::ItemFlags CircuitsModel::flags(const QModelIndex& i) const {
    Qt::ItemFlags f = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    if (factOf(i.column())) f |= Qt::ItemIsEditable;
    return f;
}

bool CircuitsModel::setData(const QModelIndex& i, const QVariant& value, int role) {
    const char* key = factOf(i.column());
    const CircuitId id = at(i.row());
    if (role != Qt::EditRole || !key || !session.project().circuits.has(id)) return false;
    const CircuitFact* f = circuitFact(key);
    const std::string text = value.toString().trimmed().toStdString();
    if (text == f->read(session.project(), session.project().circuits[id])) return false;
    Project next = session.project();
    if (const auto bad = f->write(next, id, text))
        return session.say(q(bad->what + (bad->help.empty() ? "" : ". " + bad->help)), true), false;
    return session.edit(tr("%1 of %2").arg(tr(f->title), q(nameOf(session.project(), id))),
                        [&](Project& p) { p = next; });
}

void CircuitsModel::sort(int column, Qt::SortOrder order) {
    sortColumn = column, sortOrder = order;
    beginResetModel();
    rows = arranged();
    endResetModel();
}

CircuitsPage::CircuitsPage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), circuits(new CircuitsModel(s, this)), text(new QLineEdit(this)),
      count(new QLabel(this)), view(new QTableView(this)) {
    asRich(count);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 2, 0, 0);
    column->setSpacing(6);
    auto* bar = new QHBoxLayout;
    bar->setSpacing(8);
    text->setObjectName("circuitFilter");
    text->setPlaceholderText(q(CircuitFilter::help()));
    text->setClearButtonEnabled(true);
    text->installEventFilter(this);
    bar->addWidget(text, 1);
    count->setProperty("quiet", true);
    count->setMinimumWidth(110);
    bar->addWidget(count);
    auto* many = new QPushButton(tr("Change many…"));
    many->setObjectName("changeMany");
    many->setToolTip(tr("One fact of all that are chosen, seen first   Ctrl+Return"));
    bar->addWidget(many);
    auto* close_ = new QPushButton(tr("Close"));
    bar->addWidget(close_);
    column->addLayout(bar);
    view->setModel(circuits);
    view->setObjectName("circuitTable");
    view->setShowGrid(false);
    view->verticalHeader()->hide();
    view->verticalHeader()->setDefaultSectionSize(24);
    view->setItemDelegate(new LineDelegate(view));
    view->setSelectionBehavior(QAbstractItemView::SelectRows);
    view->setSelectionMode(QAbstractItemView::ExtendedSelection);
    view->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                          QAbstractItemView::AnyKeyPressed);
    view->horizontalHeader()->setHighlightSections(false);
    view->horizontalHeader()->setSortIndicatorShown(false);
    view->horizontalHeader()->setMinimumSectionSize(36);
    view->setSortingEnabled(true);
    view->sortByColumn(-1, Qt::AscendingOrder);
    connect(view->horizontalHeader(), &QHeaderView::sectionClicked, this,
            [this] { view->horizontalHeader()->setSortIndicatorShown(true); });
    const int widths[] = {78, 0, 80, 72, 52, 88, 76, 62, 54, 42};
    for (int i = 0; i < CircuitsModel::columns; ++i)
        if (widths[i]) view->setColumnWidth(i, widths[i]);
    view->horizontalHeader()->setSectionResizeMode(CircuitsModel::Serves, QHeaderView::Stretch);
    view->installEventFilter(this);
    column->addWidget(view, 1);
    connect(text, &QLineEdit::textEdited, this, [this](const QString& t) {
        if (const auto bad = circuits->setFilter(t.toStdString()))
            count->setText("<span style='color:" + theme().stop.name() + "'>" + q(bad->what).toHtmlEscaped() +
                           "</span>");
        else
            recount();
    });
    connect(many, &QPushButton::clicked, this, &CircuitsPage::groupEditWanted);
    connect(close_, &QPushButton::clicked, this, &CircuitsPage::closed);
    connect(circuits, &QAbstractItemModel::modelReset, this, [this] {
        recount();
        // The same circuits stay chosen in the new rows.
        following = true;
        QItemSelection keep;
        for (Ref r : session.selectionList())
            if (const int row = circuits->rowOf(r.as<Circuit>()); row >= 0 && r.is<Circuit>())
                keep.select(circuits->index(row, 0), circuits->index(row, CircuitsModel::columns - 1));
        view->selectionModel()->select(keep, QItemSelectionModel::ClearAndSelect);
        following = false;
    });
    connect(view->selectionModel(), &QItemSelectionModel::selectionChanged, this, [this] {
        recount();
        if (following) return;
        std::vector<Ref> refs;
        for (CircuitId c : chosen()) refs.push_back(c);
        if (!refs.empty()) session.select(refs);
    });
    connect(circuits, &QAbstractItemModel::dataChanged, this, &CircuitsPage::recount);
    auto* fresh = new WhenShown(this, [this] { circuits->rebuild(); });
    connect(&session, &Session::solved, fresh, &WhenShown::poke);
    connect(&session, &Session::opened, fresh, &WhenShown::poke);
    recount();
}

void CircuitsPage::begin() {
    text->setFocus();
    text->selectAll();
}

std::vector<CircuitId> CircuitsPage::chosen() const {
    std::vector<CircuitId> list;
    for (const QModelIndex& i : view->selectionModel()->selectedRows()) list.push_back(circuits->at(i.row()));
    return list;
}

void CircuitsPage::recount() {
    const int chosen_ = int(view->selectionModel()->selectedRows().size());
    count->setText(tr("%1 of %2%3")
                       .arg(circuits->rowCount())
                       .arg(circuits->total())
                       .arg(chosen_ > 1 ? tr(", %1 chosen").arg(chosen_) : QString()));
}

bool CircuitsPage::eventFilter(QObject* o, QEvent* e) {
    if (e->type() == QEvent::KeyPress) {
        auto* k = static_cast<QKeyEvent*>(e);
        if (o == text && k->key() == Qt::Key_Down && circuits->rowCount()) {
            view->setFocus();
            view->setCurrentIndex(circuits->index(0, CircuitsModel::Serves));
            return true;
        }
        if ((k->key() == Qt::Key_Return || k->key() == Qt::Key_Enter) && k->modifiers() & Qt::ControlModifier)
            return Q_EMIT groupEditWanted(), true;
        if (o == view && k->matches(QKeySequence::Copy)) {
            QApplication::clipboard()->setText(q(blockText(session.project(), chosen())));
            return true;
        }
    }
    return QWidget::eventFilter(o, e);
}

void CircuitsPage::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Escape)
        Q_EMIT closed();
    else
        QWidget::keyPressEvent(e);
}

} // namespace lintel
