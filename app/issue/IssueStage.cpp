#include "app/issue/IssueStage.h"

#include "app/frame/PaintKit.h"
#include "app/frame/WhenShown.h"
#include "core/base/TextFile.h"
#include "core/check/Assumptions.h"
#include "core/exchange/Grid.h"
#include "core/lists/List.h"

#include <QBoxLayout>
#include <QElapsedTimer>
#include <QFileDialog>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QTimer>

namespace lintel {

IssueStage::IssueStage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), list(new QListWidget(this)), view(new DrawingView(s, this)), stops(new QLabel(this)),
      paper(new QLabel(this)) {
    asRich(stops);
    auto* across = new QHBoxLayout(this);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(0);
    auto* side = new QWidget(this);
    side->setFixedWidth(252);
    auto* left = new QVBoxLayout(side);
    left->setContentsMargins(12, 12, 10, 12);
    auto* head = new QLabel(tr("SHEETS"));
    head->setProperty("heading", true);
    left->addWidget(head);
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list->setObjectName("sheets");
    left->addWidget(list, 1);
    stops->setWordWrap(true);
    stops->setObjectName("issueStops");
    left->addWidget(stops);
    auto* pdf = new QPushButton(tr("Export PDF…"));
    pdf->setProperty("strong", true);
    pdf->setObjectName("exportPdf");
    left->addWidget(pdf);
    auto* lists = new QPushButton(tr("Lists as a workbook…"));
    lists->setObjectName("exportLists");
    lists->setToolTip(tr("Feeders, transformers, protective devices, motors, luminaires, take-off, every run and every "
                         "circuit: a sheet for each"));
    left->addWidget(lists);
    connect(lists, &QPushButton::clicked, this, &IssueStage::writeLists);
    across->addWidget(side);
    auto* right = new QVBoxLayout;
    right->setSpacing(0);
    paper->setProperty("quiet", true);
    paper->setContentsMargins(16, 8, 16, 8);
    right->addWidget(paper);
    right->addWidget(view, 1);
    across->addLayout(right, 1);
    connect(list, &QListWidget::currentRowChanged, this, &IssueStage::showCurrent);
    connect(list, &QListWidget::itemChanged, this, [this](QListWidgetItem* i) {
        const QString id = i->data(Qt::UserRole).toString();
        unticked.erase(std::remove(unticked.begin(), unticked.end(), id), unticked.end());
        if (i->checkState() == Qt::Unchecked) unticked.push_back(id);
    });
    connect(pdf, &QPushButton::clicked, this, [this] {
        const QString file = QFileDialog::getSaveFileName(
            this, tr("Export sheets"), q(safeFileName(session.project().basis.title, ".pdf")), tr("PDF (*.pdf)"));
        if (file.isEmpty()) return;
        const auto bad = exportPdf(file);
        session.say(bad ? q(bad->text()) : tr("Written: %1").arg(file), bad.has_value());
    });
    // The set of a very large building takes longer than a frame: it then waits until nothing is edited for a moment.
    later = new QTimer(this);
    later->setSingleShot(true);
    connect(later, &QTimer::timeout, this, &IssueStage::rebuild);
    connect(&session, &Session::solved,
            new WhenShown(this,
                          [this] {
                              if (lastMs > 30)
                                  later->start(300);
                              else
                                  rebuild();
                          }),
            &WhenShown::poke);
    connect(&session, &Session::opened, this, [this] {
        unticked.clear();
        wanted.clear();
        rebuild();
    });
    rebuild();
}

void IssueStage::rebuild() {
    const Solution& s = session.solution();
    {
        QSignalBlocker quiet(list);
        list->clear();
        int row = 0;
        for (const SheetEntry& e : set().sheets) {
            auto* i = new QListWidgetItem(q(e.number) + "   " + q(e.title), list);
            i->setData(Qt::UserRole, q(e.title));
            i->setToolTip(plainTip(q(e.number) + "   " + q(e.title)));
            i->setFlags(i->flags() | Qt::ItemIsUserCheckable);
            i->setCheckState(std::find(unticked.begin(), unticked.end(), q(e.title)) == unticked.end() ? Qt::Checked
                                                                                                       : Qt::Unchecked);
            if (q(e.title) == wanted) row = list->count() - 1;
        }
        list->setCurrentRow(list->count() ? row : -1);
    }
    int n = 0;
    for (const Snag& g : s.snags) n += g.severity == Severity::Stop;
    stops->setText(n ? tr("<span style='color:%1'>●</span> %2 stop snags stand in the way of an issue. The sheets can "
                          "be written for a look.")
                           .arg(theme().stop.name())
                           .arg(n)
                     : tr("<span style='color:%1'>●</span> No stop snags.").arg(theme().accent.name()));
    if (isVisible()) showCurrent();
}

const IssueStage::SetOf& IssueStage::set() {
    auto now = session.sharedSolution();
    if (!current || current->solution != now) {
        QElapsedTimer clock;
        clock.start();
        auto fresh = std::make_unique<SetOf>(SetOf{now, session.sheetInput(*now), {}});
        fresh->sheets = issueSet(fresh->in);
        current = std::move(fresh);
        lastMs = clock.elapsed();
    }
    return *current;
}

void IssueStage::showCurrent() {
    const auto& sheets = set().sheets;
    const int row = list->currentRow();
    if (row < 0 || row >= int(sheets.size())) return;
    wanted = list->item(row)->data(Qt::UserRole).toString();
    const Drawing d = sheets[std::size_t(row)].draw();
    view->show(d, true);
    paper->setText(tr("%1 · %2 · %3 × %4 mm").arg(q(d.number), q(d.paper)).arg(d.width).arg(d.height));
}

void IssueStage::showSchedule(BoardId b) {
    wanted =
        (session.solution().book->metric() ? "Schedule " : "Panel schedule ") + q(nameOf(session.project(), Ref(b)));
    rebuild();
    showCurrent();
}

void IssueStage::writeLists() {
    const QString file = QFileDialog::getSaveFileName(
        this, tr("Write the lists"), q(safeFileName(session.project().basis.title + " lists", ".xlsx")),
        tr("Workbook (*.xlsx)"));
    if (file.isEmpty()) return;
    const auto bad = exportLists(file);
    session.say(bad ? q(bad->text()) : tr("Written: %1").arg(file), bad.has_value());
}

std::optional<Error> IssueStage::exportLists(const QString& file) {
    session.waitSolved();
    const SheetInput& in = set().in;
    std::vector<NamedGrid> grids;
    for (const ListKind& kind : listKinds())
        if (const List made = kind.make(in); !made.rows.empty()) grids.push_back({made.title, gridOf(made)});
    if (grids.empty()) return Error{"lists", "the project has nothing to list", ""};
    return writeGrids(grids, file.toStdString());
}

std::optional<Error> IssueStage::exportPdf(const QString& file) {
    session.waitSolved();
    const SetOf& now = set();
    std::vector<Drawing> all;
    for (const SheetEntry& e : now.sheets)
        if (std::find(unticked.begin(), unticked.end(), q(e.title)) == unticked.end()) all.push_back(e.draw());
    if (all.empty()) return Error{"sheets", "no sheet is ticked", "Tick the sheets to write."};
    return writePdf(all, file, q(now.solution->project.basis.title));
}

} // namespace lintel
