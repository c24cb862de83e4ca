#include "app/runs/RunsStage.h"

#include "app/frame/PaintKit.h"
#include "app/frame/WhenShown.h"

#include <QBoxLayout>
#include <QButtonGroup>
#include <QComboBox>
#include <QHeaderView>
#include <QLineEdit>
#include <QPushButton>
#include <QShortcut>
#include <QSplitter>
#include <QTableView>

namespace lintel {

RunsStage::RunsStage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), runs(new RunsModel(s, this)), view(new QTableView(this)),
      profiles(new RunProfile(s)) {
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
    text->setFixedWidth(110);
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
    view->setModel(runs);
    view->setObjectName("runs");
    view->setShowGrid(false);
    view->verticalHeader()->hide();
    view->verticalHeader()->setDefaultSectionSize(25);
    view->setSelectionBehavior(QAbstractItemView::SelectRows);
    view->setSelectionMode(QAbstractItemView::SingleSelection);
    view->setSortingEnabled(true);
    view->horizontalHeader()->setSortIndicatorShown(false);
    connect(view->horizontalHeader(), &QHeaderView::sectionClicked, this,
            [this] { view->horizontalHeader()->setSortIndicatorShown(true); });
    view->sortByColumn(-1, Qt::AscendingOrder);
    view->horizontalHeader()->setHighlightSections(false);
    view->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                          QAbstractItemView::AnyKeyPressed);
    view->setAlternatingRowColors(false);
    view->setToolTip(tr("Chosen and Length can be typed: 8, 1/0, 2×250 or auto; 120 ft, or nothing to measure"));
    const int widths[] = {84, 0, 58, 58, 72, 64, 68, 128, 68, 58, 60, 88, 78};
    for (int i = 0; i < RunsModel::columns; ++i)
        if (widths[i]) view->setColumnWidth(i, widths[i]);
    const auto hide = [this] {
        view->setColumnHidden(RunsModel::Loop, !session.solution().book->metric());
        view->setColumnHidden(RunsModel::Before,
                              session.solution().book->metric()); // its place is wanted, and Needs says the size
    };

    hide();
    view->horizontalHeader()->setSectionResizeMode(RunsModel::Serves, QHeaderView::Stretch);
    view->horizontalHeader()->setMinimumSectionSize(40);
    auto* split = new QSplitter(Qt::Vertical, this);
    split->addWidget(view);
    split->addWidget(profiles);
    split->setStretchFactor(0, 3);
    split->setStretchFactor(1, 2);
    column->addWidget(split, 1);
    connect(view->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this](const QModelIndex& i) {
        if (const Ref r = runs->thingAt(i.row()); r && !following) session.select(r);
    });
    const auto follow = [this] {
        Ref r = session.selection();
        if (const Device* d = session.project().devices.find(r.as<Device>())) r = d->circuit;
        if (const Circuit* c = session.solution().project.circuits.find(r.as<Circuit>()))
            if (session.solution().results.knows(r) && session.solution().results.of(c->id).feeder)
                r = session.solution().results.of(c->id).feeds;
        const int row = runs->rowOf(r);
        if (row >= 0 && row != view->currentIndex().row()) {
            following = true; // the table follows the selection, it does not make it
            view->setCurrentIndex(runs->index(row, 0));
            view->scrollTo(runs->index(row, 0));
            following = false;
        }
    };
    connect(&session, &Session::selectionChanged, this, follow);
    connect(&session, &Session::solved,
            new WhenShown(this,
                          [this, hide, follow] {
                              hide();
                              runs->rebuild();
                              recount();
                              follow();
                          }),
            &WhenShown::poke);
    connect(runs, &QAbstractItemModel::modelReset, this, &RunsStage::recount);
    recount();
}

void RunsStage::recount() {
    static const char* names[] = {"All", "Feeders", "Raised for drop", "Held", "Near a limit", "Too long", "Fails"};
    for (auto& [f, b] : chips) b->setText(QString("%1  %2").arg(tr(names[int(f)])).arg(runs->count(f)));
}

} // namespace lintel
