#include "app/issue/IssueStage.h"

#include "app/frame/PaintKit.h"
#include "app/frame/WhenShown.h"
#include "core/base/TextFile.h"
#include "core/check/Assumptions.h"

#include <QBoxLayout>
#include <QFileDialog>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

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
    connect(&session, &Session::solved, new WhenShown(this, [this] { rebuild(); }), &WhenShown::poke);
    connect(&session, &Session::opened, this, [this] {
        unticked.clear();
        wanted.clear();
        rebuild();
    });
    rebuild();
}

void IssueStage::rebuild() {
    const Solution& s = session.solution();
    const SheetInput in = session.sheetInput(s);
    const auto set = issueSet(in);
    {
        QSignalBlocker quiet(list);
        list->clear();
        int row = 0;
        for (const SheetEntry& e : set) {
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
    if (isVisible()) showSheet(set);
}

void IssueStage::showCurrent() {
    const SheetInput in = session.sheetInput(session.solution());
    showSheet(issueSet(in));
}

void IssueStage::showSheet(const std::vector<SheetEntry>& set) {
    const int row = list->currentRow();
    if (row < 0 || row >= int(set.size())) return;
    wanted = list->item(row)->data(Qt::UserRole).toString();
    const Drawing d = set[std::size_t(row)].draw();
    view->show(d, true);
    paper->setText(tr("%1 · %2 · %3 × %4 mm").arg(q(d.number), q(d.paper)).arg(d.width).arg(d.height));
}

void IssueStage::showSchedule(BoardId b) {
    wanted =
        (session.solution().book->metric() ? "Schedule " : "Panel schedule ") + q(nameOf(session.project(), Ref(b)));
    rebuild();
    showCurrent();
}

std::optional<Error> IssueStage::exportPdf(const QString& file) {
    session.waitSolved();
    const auto s = session.sharedSolution();
    const SheetInput in = session.sheetInput(*s);
    std::vector<Drawing> all;
    for (const SheetEntry& e : issueSet(in))
        if (std::find(unticked.begin(), unticked.end(), q(e.title)) == unticked.end()) all.push_back(e.draw());
    if (all.empty()) return Error{"sheets", "no sheet is ticked", "Tick the sheets to write."};
    return writePdf(all, file, q(s->project.basis.title));
}

} // namespace lintel
