#include "app/runs/RunsStage.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "app/frame/Settings.h"
#include "app/frame/SnagStrip.h"
#include "app/frame/WhenShown.h"
#include "app/runs/RunNamesDialog.h"
#include "core/base/Parse.h"
#include "core/copy/CircuitBlock.h"
#include "core/formats/Grid.h"

#include <QApplication>
#include <QBoxLayout>
#include <QButtonGroup>
#include <QClipboard>
#include <QComboBox>
#include <QFileDialog>
#include <QHeaderView>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QShortcut>
#include <QSplitter>
#include <QTableView>

#include <map>
#include <numeric>
#include <set>
#include <utility>

namespace lintel {

RunsStage::RunsStage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), runs(new RunsModel(s, this)), view(new QTableView(this)),
      profiles(new RunProfile(s)) {
    setFocusProxy(view);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* bar = new QHBoxLayout;
    bar->setContentsMargins(14, 8, 14, 8);
    bar->setSpacing(6);
    auto* group = new QButtonGroup(this);
    for (RunFilter f : {RunFilter::All, RunFilter::Feeders, RunFilter::Raised, RunFilter::Held, RunFilter::NearLimit,
                        RunFilter::TooLong, RunFilter::Fails}) {
        auto* b = new QPushButton;
        b->setCheckable(true);
        b->setChecked(f == RunFilter::All);
        if (f == RunFilter::Raised) b->setToolTip(tr("Larger than ampacity needs, for the sake of the drop"));
        group->addButton(b);
        bar->addWidget(b);
        chips.push_back({f, b});
        connect(b, &QPushButton::clicked, this, [this, f] { runs->setFilter(f); });
    }
    bar->addStretch(1);
    auto* text = new QLineEdit;
    text->setObjectName("runsText");
    text->setPlaceholderText(tr("Filter"));
    text->setToolTip(tr("Words of the run, its load, board, size or reason: LP-2 drop"));
    text->setClearButtonEnabled(true);
    text->setMinimumWidth(90);
    text->setMaximumWidth(110);
    connect(text, &QLineEdit::textChanged, runs, &RunsModel::setText);
    bar->addWidget(text);
    auto* worst = new QComboBox;
    worst->setObjectName("runsWorst");
    const std::pair<QString, const char*> kinds[] = {{tr("All rows"), "Alt+A"},
                                                     {tr("Worst by drop"), "Alt+D"},
                                                     {tr("Worst by use"), "Alt+U"},
                                                     {tr("Worst by fault"), "Alt+K"},
                                                     {tr("Worst by length"), "Alt+L"}};
    for (const auto& [words, key] : kinds) {
        const int i = worst->count();
        worst->addItem(words);
        worst->setItemData(i, QString(key), Qt::ToolTipRole);
        auto* shortcut = new QShortcut(QKeySequence(key), this, nullptr, nullptr, Qt::WidgetWithChildrenShortcut);
        connect(shortcut, &QShortcut::activated, worst, [worst, i] { worst->setCurrentIndex(i); });
    }
    worst->setToolTip(tr("The ten that come nearest to their limit, or are farthest over it: Alt with D, U, K (kA) "
                         "or L; A for all"));
    connect(worst, &QComboBox::currentIndexChanged, this, [this](int i) { runs->setWorst(WorstBy(i)); });
    bar->addWidget(worst);
    column->addLayout(bar);
    auto* out = new QPushButton(tr("Export…"));
    out->setObjectName("runsExport");
    out->setToolTip(tr("The rows and columns that are shown, as CSV or XLSX"));
    connect(out, &QPushButton::clicked, this, &RunsStage::askExport);
    bar->addWidget(out);
    makeTable();
    makeMenus();
    auto* split = new QSplitter(Qt::Vertical, this);
    split->addWidget(view);
    split->addWidget(profiles);
    split->setStretchFactor(0, 3);
    split->setStretchFactor(1, 2);
    column->addWidget(split, 1);
    connect(view->selectionModel(), &QItemSelectionModel::selectionChanged, this, &RunsStage::takeSelection);
    connect(&session, &Session::selectionChanged, this, &RunsStage::follow);
    connect(&session, &Session::solved,
            new WhenShown(this,
                          [this] {
                              showColumns();
                              runs->rebuild();
                              recount();
                              follow();
                          }),
            &WhenShown::poke);
    connect(runs, &QAbstractItemModel::modelReset, this, &RunsStage::takeSelection); // there is none any more
    recount();
}

void RunsStage::makeTable() {
    view->setModel(runs);
    view->setObjectName("runs");
    view->setShowGrid(false);
    view->verticalHeader()->hide();
    view->verticalHeader()->setDefaultSectionSize(25);
    view->setSelectionBehavior(QAbstractItemView::SelectRows);
    view->setSelectionMode(QAbstractItemView::ExtendedSelection);
    view->setSortingEnabled(true);
    view->horizontalHeader()->setSortIndicatorShown(false);
    connect(view->horizontalHeader(), &QHeaderView::sectionClicked, this,
            [this] { view->horizontalHeader()->setSortIndicatorShown(true); });
    view->sortByColumn(-1, Qt::AscendingOrder);
    view->horizontalHeader()->setHighlightSections(false);
    view->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                          QAbstractItemView::AnyKeyPressed);
    view->setAlternatingRowColors(false);
    view->setToolTip(tr("Chosen and Length can be typed, for all rows that are chosen: 8, 1/0, 2×250 or auto; 120 ft, "
                        "or nothing to measure"));
    const int widths[] = {84, 0, 58, 68, 58, 72, 64, 68, 84, 128, 68, 58, 60, 88, 78};
    static_assert(std::size(widths) == RunsModel::columns);
    for (int i = 0; i < RunsModel::columns; ++i)
        if (widths[i]) view->setColumnWidth(i, widths[i]);
    view->horizontalHeader()->setSectionResizeMode(RunsModel::Serves, QHeaderView::Stretch);
    view->horizontalHeader()->setMinimumSectionSize(40);
    showColumns();
}

void RunsStage::makeMenus() {
    view->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(view, &QTableView::customContextMenuRequested, this, &RunsStage::askRow);
    view->horizontalHeader()->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(view->horizontalHeader(), &QWidget::customContextMenuRequested, this, &RunsStage::askColumns);
    const auto key = [this](QKeySequence::StandardKey keys, void (RunsStage::*does)()) {
        auto* shortcut = new QShortcut(keys, view, nullptr, nullptr, Qt::WidgetShortcut);
        connect(shortcut, &QShortcut::activated, this, does);
    };
    key(QKeySequence::Copy, &RunsStage::copy);
    key(QKeySequence::Paste, &RunsStage::paste);
}

std::vector<int> RunsStage::chosenRows() const {
    std::vector<int> rows;
    for (const QModelIndex& i : view->selectionModel()->selectedRows()) rows.push_back(i.row());
    std::sort(rows.begin(), rows.end());
    return rows;
}

std::vector<RunRow> RunsStage::chosen() const {
    std::vector<RunRow> of;
    for (int row : chosenRows()) of.push_back(runs->rowAt(row));
    return of;
}

void RunsStage::takeSelection() {
    const std::vector<RunRow> things = chosen();
    runs->setChosen(things);
    recount();
    if (things.empty() || following) return;
    // The one at the hand comes first: its facts are shown. A board and what takes it over are one thing.
    const RunRow atHand = runs->rowAt(view->currentIndex().row());
    std::vector<Ref> all;
    std::set<Ref> seen;
    if (std::find(things.begin(), things.end(), atHand) != things.end()) all.push_back(atHand.thing);
    seen.insert(all.begin(), all.end());
    for (const RunRow& row : things)
        if (seen.insert(row.thing).second) all.push_back(row.thing);
    const bool was = std::exchange(following, true);
    session.select(all);
    following = was;
}

/// The table follows the selection, it does not make it.
void RunsStage::follow() {
    if (following) return;
    Ref r = session.selection();
    if (const Device* d = session.project().devices.find(r.as<Device>())) r = d->circuit;
    if (const Circuit* c = session.solution().project.circuits.find(r.as<Circuit>()))
        if (session.solution().results.knows(r) && session.solution().results.of(c->id).feeder)
            r = session.solution().results.of(c->id).feeds;
    const int row = runs->rowOf(r);
    if (runs->thingAt(view->currentIndex().row()) == r &&
        view->selectionModel()->isRowSelected(view->currentIndex().row()))
        return; // what takes over is chosen as well as what feeds it
    if (row < 0 || (row == view->currentIndex().row() && view->selectionModel()->isRowSelected(row))) return;
    following = true;
    view->setCurrentIndex(runs->index(row, 0));
    view->scrollTo(runs->index(row, 0));
    following = false;
}

// ---- columns ----

namespace {
QString columnKey(int column) {
    const char* names[] = {"name", "serves", "load",   "judged", "device", "length", "needs",  "chosen",
                           "kg",   "why",    "before", "own",    "total",  "loop",   "longest"};
    static_assert(std::size(names) == RunsModel::columns);
    return QString("runs/") + names[column];
}
/// Whether the book has anything for it.
bool hasColumn(int column, const RuleBook& book) { return column != RunsModel::Loop || book.metric(); }
bool usuallyShown(int column, const RuleBook& book) {
    if (column == RunsModel::Judged || column == RunsModel::Mass) return false;
    return column != RunsModel::Before || !book.metric(); // the place is wanted for the loop, and Needs says the size
}
} // namespace

void RunsStage::showColumns() {
    const RuleBook& book = *session.solution().book;
    const QSettings kept = settings();
    for (int i = 0; i < RunsModel::columns; ++i)
        view->setColumnHidden(i, !hasColumn(i, book) || !kept.value(columnKey(i), usuallyShown(i, book)).toBool());
}

std::vector<int> RunsStage::shownColumns() const {
    std::vector<int> all;
    for (int i = 0; i < RunsModel::columns; ++i)
        if (!view->isColumnHidden(i)) all.push_back(i);
    return all;
}

void RunsStage::askColumns(QPoint at) {
    QMenu menu;
    menu.setObjectName("runsColumns");
    for (int i = 0; i < RunsModel::columns; ++i) {
        if (!hasColumn(i, *session.solution().book)) continue;
        auto* action = menu.addAction(runs->headerData(i, Qt::Horizontal, Qt::DisplayRole).toString());
        action->setCheckable(true);
        action->setChecked(!view->isColumnHidden(i));
        action->setEnabled(i != RunsModel::Name); // a row without its name says nothing
        action->setData(i);
    }
    menu.addSeparator();
    auto* usual = menu.addAction(tr("The usual ones"));
    const QAction* picked = menu.exec(view->horizontalHeader()->mapToGlobal(at));
    if (!picked) return;
    QSettings kept = settings();
    if (picked == usual)
        for (int i = 0; i < RunsModel::columns; ++i) kept.remove(columnKey(i));
    else
        kept.setValue(columnKey(picked->data().toInt()), picked->isChecked());
    kept.sync();
    showColumns();
}

// ---- what is done with rows ----

/// What mends the snags of the run, as the strip of snags has it.
void RunsStage::addRemedies(QMenu& menu, Ref thing) {
    const auto solution = session.sharedSolution();
    for (const Snag& s : solution->snags) {
        if (s.about != thing) continue;
        for (const Remedy& r : remediesFor(solution->input(), s)) {
            QAction* action = menu.addAction(plainButton(q(r.label)), this,
                                             [this, solution, s, r] { SnagStrip::apply(session, s, r); });
            action->setToolTip(plainTip(q(s.text)));
        }
    }
    menu.setToolTipsVisible(true);
    if (!menu.isEmpty()) menu.addSeparator();
}

void RunsStage::askRow(QPoint at) {
    const std::vector<RunRow> things = chosen();
    if (things.empty()) return;
    const auto cells = [&](RunsModel::Column column) {
        std::vector<RunsModel::Typed> all;
        for (const RunRow& row : things) all.push_back({row, column, "auto"});
        return all;
    };
    const QString of = things.size() == 1 ? runs->nameOfRow(things.front()) : tr("%1 runs").arg(things.size());
    QMenu menu;
    menu.setObjectName("runsMenu");
    const bool one = things.size() == 1;
    if (one) addRemedies(menu, things.front().thing);
    menu.addAction(one ? tr("Hold the size that it has") : tr("Hold the sizes that they have"), this,
                   [&] { runs->hold(things); });
    menu.addAction(one ? tr("Let it be sized") : tr("Let them be sized"), this,
                   [&] { runs->enter(cells(RunsModel::Chosen), tr("Let %1 be sized").arg(of)); });
    menu.addAction(one ? tr("Measure its length on the plan") : tr("Measure their lengths on the plan"), this,
                   [&] { runs->enter(cells(RunsModel::Length), tr("Measure %1").arg(of)); });
    menu.addSeparator();
    menu.addAction(tr("Copy\tCtrl+C"), this, &RunsStage::copy);
    menu.addAction(tr("Paste sizes and lengths\tCtrl+V"), this, &RunsStage::paste);
    menu.addSeparator();
    menu.addAction(tr("Names of runs by a pattern…"), this, &RunsStage::askNames);
    menu.exec(view->viewport()->mapToGlobal(at));
}

void RunsStage::askNames() { RunNamesDialog(session, this).exec(); }

void RunsStage::copy() {
    const auto cells = runs->cellsAt(chosenRows(), shownColumns());
    if (cells.size() < 2) return session.say(tr("Choose the rows to copy"), true);
    QApplication::clipboard()->setText(q(cellsText(cells)));
    session.say(counted(cells.size() - 1, tr("row copied, with its headings"), tr("rows copied, with their headings")));
}

namespace {
/// Where the cells of a pasted block go: columns of the table, -1 for what it does not have, and rows.
struct PastedBlock {
    std::vector<std::vector<std::string>> rows;
    std::vector<int> columns;
    std::vector<int> goesTo; ///< rows of the table, by row of the block
};
} // namespace

/// With headings above them cells go to the columns of those names, and to the runs that the block names; else to the
/// rows from the current one down and the columns from the current one on.
void RunsStage::paste() {
    PastedBlock block{cellsOf(QApplication::clipboard()->text().toStdString()), {}, {}};
    auto& rows = block.rows;
    while (!rows.empty() &&
           std::all_of(rows.back().begin(), rows.back().end(), [](const auto& c) { return c.empty(); }))
        rows.pop_back();
    const QModelIndex current = view->currentIndex();
    if (rows.empty() || !current.isValid())
        return session.say(tr("There is nothing to paste, or no row is chosen"), true);
    const auto shownIn = [&](int row, int column) { return runs->index(row, column).data().toString().toStdString(); };
    const auto headed = [&](const std::string& heading) {
        for (int i = 0; i < RunsModel::columns; ++i)
            if (sameWord(runs->headerData(i, Qt::Horizontal, Qt::DisplayRole).toString().toStdString(), heading))
                return i;
        return -1;
    };
    const bool headings = std::all_of(rows[0].begin(), rows[0].end(), [&](const auto& c) { return headed(c) >= 0; });
    const std::vector<int> columns = shownColumns();
    const auto first = std::find(columns.begin(), columns.end(), current.column());
    for (std::size_t i = 0; i < rows[0].size(); ++i)
        block.columns.push_back(headings                                 ? headed(rows[0][i])
                                : i < std::size_t(columns.end() - first) ? *(first + std::ptrdiff_t(i))
                                                                         : -1);
    if (headings) rows.erase(rows.begin());
    const auto name = std::find(block.columns.begin(), block.columns.end(), int(RunsModel::Name));
    std::map<std::string, int> byName;
    if (headings && name != block.columns.end())
        for (int row = runs->rowCount() - 1; row >= 0; --row) byName[shownIn(row, RunsModel::Name)] = row;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        int row = current.row() + int(r);
        if (!byName.empty()) {
            const auto at = std::size_t(name - block.columns.begin());
            const auto found = byName.find(at < rows[r].size() ? rows[r][at] : std::string());
            if (found == byName.end())
                return session.say(tr("Row %1 of it is of no run that is shown here. Nothing was entered.").arg(r + 1),
                                   true);
            row = found->second;
        }
        if (row >= runs->rowCount())
            return session.say(tr("Row %1 of it would come below the last one. Nothing was entered.").arg(r + 1), true);
        block.goesTo.push_back(row);
    }
    std::vector<RunsModel::Typed> cells;
    std::set<int> entered;
    for (std::size_t r = 0; r < rows.size(); ++r)
        for (std::size_t c = 0; c < rows[r].size() && c < block.columns.size(); ++c) {
            const int column = block.columns[c];
            // What the table shows and nobody has entered is not entered by coming back.
            if ((column != RunsModel::Chosen && column != RunsModel::Length) ||
                rows[r][c] == shownIn(block.goesTo[r], column))
                continue;
            cells.push_back({runs->rowAt(block.goesTo[r]), RunsModel::Column(column), rows[r][c]});
            entered.insert(block.goesTo[r]);
        }
    if (cells.empty())
        return session.say(tr("Nothing of it is a size or a length that differs: choose a cell of Length or Chosen, or "
                              "copy the headings too"),
                           true);
    if (runs->enter(cells, tr("Paste for %1").arg(counted(entered.size(), tr("run"), tr("runs")))))
        session.say(tr("%1 entered for %2")
                        .arg(counted(cells.size(), tr("size or length"), tr("sizes and lengths")),
                             counted(entered.size(), tr("run"), tr("runs"))));
}

std::optional<Error> RunsStage::exportTo(const QString& file) const {
    if (auto old = session.refuseOld()) return old;
    std::vector<int> rows(std::size_t(runs->rowCount()));
    std::iota(rows.begin(), rows.end(), 0);
    if (rows.empty()) return Error{"runs", "no row is shown", "Choose another filter."};
    return writeGrid(runs->cellsAt(rows, shownColumns()), file.toStdString(), "Runs");
}

void RunsStage::askExport() {
    const QString file =
        QFileDialog::getSaveFileName(this, tr("Write the runs"), "runs.xlsx", tr("Workbook (*.xlsx);;CSV (*.csv)"));
    if (file.isEmpty()) return;
    const auto bad = exportTo(file);
    session.say(bad ? q(bad->text())
                    : tr("%1 written to %2").arg(counted(runs->rowCount(), tr("run"), tr("runs")), file),
                bool(bad));
}

void RunsStage::recount() {
    static const char* names[] = {"All", "Feeders", "Raised", "Held", "Near a limit", "Too long", "Fails"};
    for (auto& [f, b] : chips) {
        b->setText(QString("%1  %2").arg(tr(names[int(f)])).arg(runs->count(f)));
        b->setMinimumWidth(b->sizeHint().width()); // its figure is not cut where the bar is narrow
    }
}

} // namespace lintel
