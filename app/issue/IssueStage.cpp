#include "app/issue/IssueStage.h"

#include "app/frame/AskAndWrite.h"
#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "app/frame/UnderlayShelf.h"
#include "app/frame/WhenShown.h"
#include "app/issue/ComposePanel.h"
#include "app/issue/FilesDialog.h"
#include "app/issue/IssueDialog.h"
#include "app/issue/PrintSheets.h"
#include "app/issue/ReportDialog.h"
#include "app/issue/SendByMail.h"
#include "core/base/Parse.h"
#include "core/base/TextFile.h"
#include "core/check/Assumptions.h"
#include "core/compare/ComparisonSheet.h"
#include "core/compare/SheetMarks.h"
#include "core/compose/SheetSet.h"
#include "core/exchange/DxfPlan.h"
#include "core/lists/Workbook.h"
#include "core/project/CircuitFacts.h"
#include "core/project/OwnTexts.h"
#include "core/project/ProjectFile.h"
#include "core/project/SheetNumbers.h"
#include "core/rules/DataFolder.h"
#include "core/sheets/DoorCard.h"
#include "core/solve/Solve.h"
#include "render/PdfFile.h"

#include <QAction>
#include <QBoxLayout>
#include <QCompleter>
#include <QElapsedTimer>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QMessageBox>
#include <QProgressDialog>
#include <QPushButton>
#include <QTimer>

namespace lintel {
namespace {
constexpr int shapingWidth = 320; // of what stands beside the sheet
}

IssueStage::IssueStage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), list(new QListWidget(this)), view(new SheetView(s, this)), stops(new QLabel(this)),
      proposal(new QLabel(this)), went(new QLabel(this)), paper(new QLabel(this)) {
    asRich(stops);
    asRich(proposal);
    auto* across = new QHBoxLayout(this);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(0);
    side = new QWidget(this);
    side->setFixedWidth(usualSideWidth);
    auto* outer = new QVBoxLayout(side);
    outer->setContentsMargins(12, 12, 10, 12);
    sheetSide = new QWidget(side);
    differences = new CompareList(session, side);
    differences->hide();
    outer->addWidget(sheetSide);
    outer->addWidget(differences);
    formPanel = new FormPanel(session, side);
    formPanel->hide();
    outer->addWidget(formPanel);
    setUpComposing();
    connect(formPanel, &FormPanel::closed, this, &IssueStage::endForm);
    connect(formPanel, &FormPanel::columnChosen, view, &SheetView::setColumn);
    connect(view, &SheetView::columnChosen, this, [this](BoardId board, int column) { shapeForm(column, board); });
    connect(view, &SheetView::columnWidened, this,
            [this](BoardId, int column, double by) { formPanel->widen(column, by); });
    connect(view, &SheetView::columnMoved, this, [this](BoardId, int column, int to) { formPanel->move(column, to); });
    connect(view, &SheetView::cellWanted, this, &IssueStage::editCell);
    connect(view, &SheetView::menuWanted, this, [this](Ref thing, QPoint at) {
        if (view->composing() && thing.is<PlacedView>()) return askView(thing.as<PlacedView>(), at);
        askRemark(at);
    });
    connect(differences, &CompareList::closed, this, &IssueStage::endComparison);
    connect(differences, &CompareList::chosen, this, &IssueStage::showThing);
    auto* left = new QVBoxLayout(sheetSide);
    left->setContentsMargins(0, 0, 0, 0);
    auto* headLine = new QHBoxLayout;
    auto* head = new QLabel(tr("SHEETS"));
    head->setProperty("heading", true);
    headLine->addWidget(head, 1);
    auto* fresh = new QPushButton(tr("New sheet"));
    fresh->setObjectName("newSheet");
    fresh->setToolTip(tr("A sheet put together from schedules, diagrams, plans, lists and notes"));
    auto* newMenu = new QMenu(fresh);
    newMenu->setObjectName("newSheetMenu");
    fillNewMenu(*newMenu);
    fresh->setMenu(newMenu);
    headLine->addWidget(fresh);
    left->addLayout(headLine);
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list->setObjectName("sheets");
    left->addWidget(list, 1);
    stops->setWordWrap(true);
    stops->setObjectName("issueStops");
    left->addWidget(stops);
    proposal->setWordWrap(true);
    proposal->setObjectName("togetherProposal");
    left->addWidget(proposal);
    connect(proposal, &QLabel::linkActivated, this, [this] { composeProposed(); });
    went->setWordWrap(true);
    went->setObjectName("issuesMade");
    went->setProperty("quiet", true);
    left->addWidget(went);
    auto* make = new QPushButton(tr("Issue the set…"));
    make->setObjectName("makeIssue");
    make->setToolTip(tr("What stands in the way, who issues it and what for; the project is kept as it is then"));
    left->addWidget(make);
    connect(make, &QPushButton::clicked, this, &IssueStage::askIssue);
    auto* pdf = new QPushButton(tr("Export PDF…"));
    pdf->setProperty("strong", true);
    pdf->setObjectName("exportPdf");
    left->addWidget(pdf);
    auto* lists = new QPushButton(tr("Lists…"));
    lists->setObjectName("exportLists");
    lists->setToolTip(
        tr("A workbook of feeders, transformers, protective devices, motors, luminaires, take-off, every "
           "run and every circuit, and the schedule of each board: a sheet for each. Sums are formulas."));
    auto* more = new QGridLayout;
    more->setSpacing(6);
    left->addLayout(more);
    more->addWidget(lists, 0, 0);
    connect(lists, &QPushButton::clicked, this, [this] {
        writeTo(tr("Write the lists"), " lists.xlsx", tr("Workbook (*.xlsx)"),
                [this](const QString& file) { return exportLists(file); });
    });
    auto* cards = new QPushButton(tr("Door cards…"));
    cards->setObjectName("exportCards");
    cards->setToolTip(tr("A card for the door of each board: what every place serves"));
    more->addWidget(cards, 0, 1);
    connect(cards, &QPushButton::clicked, this, [this] {
        writeTo(tr("Write the door cards"), " door cards.pdf", tr("PDF (*.pdf)"),
                [this](const QString& file) { return exportCards(file); });
    });
    auto* compareButton = new QPushButton(tr("Compare…"));
    compareButton->setObjectName("compareFile");
    compareButton->setToolTip(
        tr("What was entered and what follows since an issue or an earlier file, in words and as clouds"));
    more->addWidget(compareButton, 1, 0);
    auto* dxf = new QPushButton(tr("DXF…"));
    dxf->setObjectName("exportDxf");
    dxf->setToolTip(tr("The ticked sheets as drawings with layers, and each floor in the units of the building"));
    more->addWidget(dxf, 1, 1);
    connect(dxf, &QPushButton::clicked, this, [this] {
        const QString folder = QFileDialog::getExistingDirectory(this, tr("Write the drawings into a folder"));
        if (folder.isEmpty()) return;
        const auto written = exportDxf(folder);
        session.say(written ? *written : q(written.error().text()), !written);
    });
    auto* reportButton = new QPushButton(tr("Report…"));
    reportButton->setObjectName("exportReport");
    reportButton->setToolTip(
        tr("The calculation report: basis, method, rules applied, results and workings of the project or of a part, "
           "as a PDF to hand in"));
    more->addWidget(reportButton, 2, 1);
    auto* printButton = new QPushButton(tr("Print…"));
    printButton->setObjectName("printSheets");
    printButton->setToolTip(tr("The ticked sheets as they will be on paper, then to a printer: at their own size where "
                               "the paper is that large, else reduced"));
    more->addWidget(printButton, 2, 0);
    auto* filesButton = new QPushButton(tr("All files…"));
    filesButton->setObjectName("exportFiles");
    filesButton->setToolTip(tr("PDF, DXF, workbook, report and project in one go, into a folder or one archive, under "
                               "names that follow a pattern"));
    more->addWidget(filesButton, 3, 0, 1, 2);
    connect(filesButton, &QPushButton::clicked, this, &IssueStage::askFiles);
    connect(printButton, &QPushButton::clicked, this, [this] {
        if (const auto old = session.refuseOld()) return session.say(q(old->text()), true);
        const std::vector<Drawing> sheets = tickedSheets();
        if (sheets.empty()) return session.say(tr("No sheet is ticked. Tick the sheets to print."), true);
        previewPrint(this, sheets, q(session.project().basis.title));
    });
    connect(reportButton, &QPushButton::clicked, this, &IssueStage::askReport);
    connect(compareButton, &QPushButton::clicked, this, [this, compareButton] {
        if (!session.project().issues.empty()) {
            QMenu menu;
            fillCompareMenu(menu);
            const QAction* chosen = menu.exec(compareButton->mapToGlobal(QPoint(0, -menu.sizeHint().height())));
            if (!chosen) return;
            if (const auto id = chosen->data().toUInt()) {
                if (const auto bad = compareWithIssue({id})) session.say(q(bad->text()), true);
                return;
            }
        }
        const QString file = QFileDialog::getOpenFileName(this, tr("Compare with an earlier file"), {},
                                                          tr("Lintel projects (*.lintel)"));
        if (file.isEmpty()) return;
        if (const auto bad = compareWith(file)) session.say(q(bad->text()), true);
    });
    across->addWidget(side);
    auto* right = new QVBoxLayout;
    right->setSpacing(0);
    paper->setProperty("quiet", true);
    paper->setContentsMargins(16, 8, 16, 8);
    auto* above = new QHBoxLayout;
    above->addWidget(paper, 1);
    formButton = new QPushButton(tr("Form…"));
    formButton->setObjectName("shapeForm");
    formButton->setToolTip(
        tr("The columns of this schedule and how they are worded. A click on a heading does the same."));
    asBefore = new QPushButton(tr("As it was"));
    asBefore->setObjectName("compareBefore");
    asBefore->setCheckable(true);
    asBefore->setShortcut(Qt::Key_F5);
    asBefore->setToolTip(tr("Shows the sheet of the state that is compared with, and this one again, in the same place "
                            "(F5): what changes is what the eye sees move."));
    asBefore->hide();
    connect(asBefore, &QPushButton::toggled, this, &IssueStage::showCurrent);
    above->addWidget(asBefore);
    composeButton = new QPushButton(tr("Compose…"));
    composeButton->setObjectName("composeButton");
    composeButton->setToolTip(tr("Put views on this sheet, move them and take them off"));
    connect(composeButton, &QPushButton::clicked, this, &IssueStage::compose);
    above->addWidget(composeButton);
    above->addSpacing(8);
    above->addWidget(formButton);
    above->addSpacing(16);
    right->addLayout(above);
    connect(formButton, &QPushButton::clicked, this, [this] {
        const Circuit* c = session.project().circuits.find(session.selection().as<Circuit>());
        shapeForm(0, c ? c->board : BoardId{});
    });
    right->addWidget(view, 1);
    across->addLayout(right, 1);
    connect(list, &QListWidget::currentRowChanged, this, &IssueStage::showCurrent);
    list->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(list, &QListWidget::customContextMenuRequested, this, &IssueStage::askNumbers);
    auto* number = new QAction(tr("Number the sheet"), list);
    number->setShortcut(Qt::Key_F2);
    number->setShortcutContext(Qt::WidgetShortcut);
    list->addAction(number);
    connect(number, &QAction::triggered, this, &IssueStage::numberCurrent);
    auto* title = new QAction(this);
    title->setShortcut(Qt::SHIFT | Qt::Key_F2);
    title->setShortcutContext(Qt::WidgetShortcut);
    list->addAction(title);
    connect(title, &QAction::triggered, this, &IssueStage::titleCurrent);
    connect(list, &QListWidget::itemChanged, this, [this](QListWidgetItem* i) {
        const QString id = i->data(Qt::UserRole).toString();
        unticked.erase(std::remove(unticked.begin(), unticked.end(), id), unticked.end());
        if (i->checkState() == Qt::Unchecked) unticked.push_back(id);
    });
    connect(differences, &CompareList::pdfWanted, pdf, &QPushButton::click);
    connect(differences, &CompareList::listWanted, this, [this] {
        writeTo(tr("Write what has changed"), " changes.pdf", tr("PDF (*.pdf)"),
                [this](const QString& to) -> std::optional<Error> {
                    if (auto old = session.refuseOld()) return old;
                    const Solution& now = session.solution();
                    return writePdf(comparisonSheets(differences->shown(),
                                                     "Between " + earlierName.toStdString() + " and today",
                                                     sheetHead(now.project, *now.book)),
                                    to, pdfAbout(now.project, "What has changed"));
                });
    });
    connect(pdf, &QPushButton::clicked, this, [this] {
        writeTo(tr("Export sheets"), ".pdf", tr("PDF (*.pdf)"),
                [this](const QString& file) { return exportPdf(file); });
    });
    // The set of a very large building takes longer than a frame: it then waits until nothing is edited for a moment.
    comparing = new QTimer(this);
    connect(comparing, &QTimer::timeout, this, &IssueStage::compareNext);
    connect(&session.underlays(), &UnderlayShelf::changed, this, [this] {
        if (isVisible() && session.isOpen() && !session.underlays().reading()) later->start(0);
    });
    later = new QTimer(this);
    later->setSingleShot(true);
    connect(later, &QTimer::timeout, this, &IssueStage::rebuild);
    connect(&session, &Session::solved,
            new WhenShown(this,
                          [this] {
                              if (lastMs <= 30) return rebuild();
                              later->start(300);
                              redrawShaped();
                          }),
            &WhenShown::poke);
    connect(&session, &Session::opened, this, [this] {
        unticked.clear();
        wanted.clear();
        endComparison();
        endForm();
        endComposing();
        endListForm();
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
        const bool someKept =
            std::any_of(set().sheets.begin(), set().sheets.end(), [](const SheetEntry& e) { return e.kept; });
        for (const SheetEntry& e : set().sheets) {
            auto* i = new QListWidgetItem(q(e.number) + "   " + q(e.title), list);
            i->setData(Qt::UserRole, q(e.key));
            i->setToolTip(tipOf(e));
            i->setFlags(i->flags() | Qt::ItemIsUserCheckable);
            i->setCheckState(isTicked(e) ? Qt::Checked : Qt::Unchecked);
            QFont font = list->font();
            font.setItalic(someKept && e.kind && !e.kept); // may become another yet
            i->setFont(font);
            if (!e.trouble.empty()) i->setForeground(theme().check);
            if (q(e.key) == wanted) row = list->count() - 1;
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
    tellProposal();
    tellIssues();
    if (earlier && compared != set().solution) showDifferences();
    if (isVisible()) showCurrent();
}

namespace {
QString sheetsCounted(std::size_t n) { return counted(n, QObject::tr("sheet"), QObject::tr("sheets")); }
} // namespace

void IssueStage::tellIssues() {
    const Issue* last = lastIssue(session.project());
    QStringList lines, whole; // a line each is all there is room for
    for (const Issue& i : session.project().issues) {
        lines.prepend(tr("%1 · %2 · %3").arg(q(i.mark), q(i.date), tr(wordOf(i.state))));
        whole.prepend(tr("%1: %2").arg(lines.front(), sheetsCounted(i.sheets.size())));
    }
    const Solution& now = *set().solution;
    const std::size_t left = sheetsLeftOut({now.project, *now.book, now.results}).size();
    constexpr int shown = 3;
    const int all = int(lines.size());
    if (all > shown) lines = lines.mid(0, shown) << tr("and %1 before").arg(all - shown);
    issuesTold = last ? lines.join("\n") : tr("Nothing was issued yet.");
    if (left > 0) issuesTold += "\n" + tr("Left out of the set: %1.").arg(sheetsCounted(left));
    went->setText(issuesTold);
    went->setToolTip(plainTip(whole.join("\n")));
    // Sheets are drawn one a turn to be compared with what went out.
    nextToCompare = last ? 0 : -1;
    sheetsChanged = 0;
    if (last) comparing->start(0);
}

void IssueStage::compareNext() {
    if (session.underlays().reading()) return comparing->setInterval(30); // plans are not drawn whole yet
    comparing->setInterval(0);
    const Issue* last = lastIssue(session.project());
    const auto& sheets = set().sheets;
    if (last && nextToCompare == int(sheets.size()))
        went->setText(issuesTold + "\n" +
                      (sheetsChanged ? tr("%1 changed since %2: △").arg(sheetsCounted(sheetsChanged), q(last->mark))
                                     : tr("No sheet has changed since %1.").arg(q(last->mark))));
    if (!isVisible() || !last || nextToCompare < 0 || nextToCompare >= int(sheets.size()) ||
        list->count() != int(sheets.size()))
        return comparing->stop();
    const int row = nextToCompare++;
    const SheetEntry& e = sheets[std::size_t(row)];
    const IssuedSheet* then = sheetOf(*last, e);
    QString mark;
    if (!then)
        mark = tr("not in %1").arg(q(last->mark));
    else if (then->print != printOf(e.draw()))
        mark = tr("changed since %1").arg(q(last->mark));
    const QString words = q(e.number) + "   " + q(e.title);
    const QSignalBlocker quiet(list);
    if (mark.isEmpty()) return;
    ++sheetsChanged;
    list->item(row)->setText("△ " + words);
    list->item(row)->setToolTip(plainTip(words + ": " + mark));
}

QString IssueStage::tipOf(const SheetEntry& e) const {
    QString words = q(e.number) + "   " + q(e.title);
    if (!e.trouble.empty()) words += "\n" + q(e.trouble);
    if (e.kind && e.page == 0)
        words += "\n" + (e.kept ? tr("It keeps this number. F2: give it another.")
                                : tr("Numbered by the order of the sheets until the set goes out. F2: give it one."));
    return plainTip(words);
}

const SheetEntry* IssueStage::currentEntry() {
    const auto& sheets = set().sheets;
    const int row = list->currentRow();
    return row >= 0 && row < int(sheets.size()) && int(sheets.size()) == list->count() ? &sheets[std::size_t(row)]
                                                                                       : nullptr;
}

void IssueStage::numberCurrent() {
    session.waitSolved();
    if (!isCurrent()) rebuild();
    const SheetEntry* e = currentEntry();
    if (!e || earlier) return;
    Project copy = session.project();
    if (const auto bad = renumber(copy, set().sheets, *e, e->number)) return session.say(q(bad->text()), true);
    const QRect item = list->visualItemRect(list->currentItem());
    const int box = 24; // the tick before it
    const QRect field(item.left() + box, item.top(), 120, item.height());
    typeOver(list->viewport(), field, q(e->number), "sheetNumber",
             [this, key = e->key](const std::string& text) -> std::optional<Error> {
                 const auto& sheets = set().sheets;
                 const auto it =
                     std::find_if(sheets.begin(), sheets.end(), [&](const SheetEntry& s) { return s.key == key; });
                 if (it == sheets.end()) return std::nullopt;
                 const std::string number = trimmed(text);
                 Project trial = session.project();
                 if (const auto bad = renumber(trial, sheets, *it, number)) return bad;
                 const SheetEntry sheet = *it;
                 session.edit(number.empty() ? tr("Let go of the number of %1").arg(q(sheet.title))
                                             : tr("Number %1 for %2").arg(q(number), q(sheet.title)),
                              [&](Project& p) {
                                  (void)numberSheet(p, {*sheet.kind, sheet.about}, number);
                              });
                 return std::nullopt;
             });
}

void IssueStage::titleCurrent() {
    session.waitSolved();
    if (!isCurrent()) rebuild();
    const SheetEntry* e = currentEntry();
    if (!e || earlier) return;
    if (!e->kind || e->page > 0) return session.say(tr("%1 is titled by what it holds").arg(q(e->title)), true);
    const QRect item = list->visualItemRect(list->currentItem());
    const int box = 24; // the tick before it
    const QRect field(item.left() + box, item.top(), item.width() - box, item.height());
    typeOver(
        list->viewport(), field, q(e->title), "sheetTitle",
        [this, key = SheetKey{*e->kind, e->about}, was = e->title](const std::string& text) -> std::optional<Error> {
            const std::string title = trimmed(text);
            if (title == was) return std::nullopt;
            Project trial = session.project();
            if (const auto bad = titleSheet(trial, key, title)) return bad;
            session.edit(title.empty() ? tr("Usual title for %1").arg(q(was))
                                       : tr("Title %1 for %2").arg(q(title), q(was)),
                         [&](Project& p) { (void)titleSheet(p, key, title); });
            return std::nullopt;
        });
}

void IssueStage::askNumbers(QPoint at) {
    session.waitSolved();
    if (!isCurrent()) rebuild();
    if (earlier) return;
    // The list may be made anew while the menu is open. Where all sheets are left out, there is none.
    const SheetEntry entry = currentEntry() ? *currentEntry() : SheetEntry{};
    const bool own = entry.kind && entry.page == 0;
    QMenu menu;
    menu.setObjectName("numberMenu");
    auto* number = menu.addAction(tr("Number…\tF2"));
    number->setEnabled(own);
    auto* letGo = menu.addAction(tr("Number it by the order again"));
    letGo->setEnabled(own && entry.kept);
    auto* title = menu.addAction(tr("Title…\tShift+F2"));
    title->setEnabled(own);
    auto* leave = menu.addAction(tr("Leave it out of the set"));
    leave->setEnabled(own);
    fillComposeMenu(menu, entry);
    std::vector<std::pair<QAction*, SheetLeftOut>> back;
    const Solution& now = *set().solution;
    const auto left = sheetsLeftOut({now.project, *now.book, now.results});
    if (!left.empty()) {
        QMenu* gone = menu.addMenu(tr("Take back into the set"));
        for (const SheetLeftOut& sheet : left) back.push_back({gone->addAction(plainButton(q(sheet.title))), sheet});
    }
    menu.addSeparator();
    auto* keep = menu.addAction(tr("Keep all numbers as they are"));
    keep->setEnabled(
        std::any_of(set().sheets.begin(), set().sheets.end(), [](const SheetEntry& s) { return s.kind && !s.kept; }));
    auto* anew = menu.addAction(tr("Number all by the order again"));
    const auto& said = session.project().sheetNumbers;
    anew->setEnabled(std::any_of(said.begin(), said.end(), [](const SheetNumber& s) { return !s.number.empty(); }));
    const QAction* chosen = menu.exec(list->viewport()->mapToGlobal(at));
    if (chosen == number) numberCurrent();
    if (chosen == title) titleCurrent();
    if (chosen == leave) {
        session.edit(tr("Leave %1 out of the set").arg(q(entry.title)), [&](Project& p) {
            leaveOut(p, {*entry.kind, entry.about}, true);
        });
        session.say(tr("%1 is left out of the set; the menu of any sheet takes it back").arg(q(entry.title)));
    }
    for (const auto& [action, sheet] : back)
        if (chosen == action)
            session.edit(tr("Take %1 back into the set").arg(q(sheet.title)), [&, of = sheet](Project& p) {
                leaveOut(p, {of.kind, of.about}, false);
            });
    if (chosen == letGo)
        session.edit(tr("Let go of the number of %1").arg(q(entry.title)), [&](Project& p) {
            (void)numberSheet(p, {*entry.kind, entry.about}, "");
        });
    if (chosen == keep) {
        session.waitSolved();
        session.edit(tr("Keep sheet numbers"), [&](Project& p) { keepNumbers(p, set().sheets); });
    }
    if (chosen == anew) session.edit(tr("Number sheets anew"), [](Project& p) { numberAnew(p); });
}

void IssueStage::fillCompareMenu(QMenu& menu) const {
    for (const Issue& i : session.project().issues)
        menu.addAction(plainButton(tr("Issue %1, %2").arg(q(i.mark), q(i.date))))->setData(i.id.value);
    menu.addSeparator();
    menu.addAction(tr("A file…"))->setData(0);
}

void IssueStage::askIssue() {
    session.waitSolved();
    std::vector<std::string> sheets;
    for (const SheetEntry& e : set().sheets)
        if (isTicked(e)) sheets.push_back(e.key);
    IssueDialog dialog(session, sheets, this);
    if (dialog.exec() != QDialog::Accepted) return;
    if (const auto bad = makeIssue(dialog.draft())) session.say(q(bad->text()), true);
}

std::optional<Error> IssueStage::makeIssue(const IssueDraft& draft) {
    if (const auto old = session.refuseOld()) return *old;
    session.underlays().settle();
    QProgressDialog progress(tr("Drawing the sheets…"), tr("Cancel"), 0, int(draft.sheets.size()), this);
    progress.setWindowModality(Qt::WindowModal);
    progress.setMinimumDuration(400);
    const auto now = session.sharedSolution();
    const auto next = issued(session.sheetInput(*now), draft, [&](std::size_t done, std::size_t) {
        progress.setValue(int(done));
        return !progress.wasCanceled();
    });
    progress.setValue(int(draft.sheets.size()));
    if (!next) return next.error();
    session.edit(tr("Issue %1").arg(q(draft.mark)), [&](Project& p) { p = *next; });
    session.say(tr("Issued: %1. Export PDF… and DXF… write its files.").arg(q(draft.mark)));
    return std::nullopt;
}

std::optional<Error> IssueStage::compareWithIssue(IssueId id) {
    auto was = projectOf(session.project(), id);
    if (!was) return was.error();
    return compareWithState(std::move(*was), tr("issue %1").arg(q(session.project().issues[id].mark)));
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
    const SheetEntry& sheet = sheets[std::size_t(row)];
    asBefore->setVisible(bool(earlier));
    if (earlier && asBefore->isChecked()) return showAsBefore(sheet);
    Drawing d = drawn(sheet);
    pinRemarks(d, sheet);
    view->show(d, true);
    formButton->setVisible(!d.headings.empty() && !composePanel->isVisibleTo(this));
    formButton->setEnabled(true);
    followComposing(sheet);
    if (formPanel->isVisibleTo(this)) {
        const bool here = std::any_of(d.headings.begin(), d.headings.end(),
                                      [&](const HeadingSpot& h) { return h.board == formPanel->boardShown(); });
        if (d.headings.empty())
            endForm();
        else if (here)
            formPanel->refresh();
        else
            formPanel->show(d.headings.front().board, formPanel->column());
        view->setBoard(formPanel->boardShown());
    }
    paper->setText(tr("%1 · %2 · %3 × %4 mm").arg(q(d.number), q(d.paper)).arg(d.width).arg(d.height));
}

void IssueStage::showAsBefore(const SheetEntry& sheet) {
    const auto then = std::find_if(earlier->sheets.begin(), earlier->sheets.end(),
                                   [&](const SheetEntry& e) { return e.key == sheet.key; });
    formButton->setEnabled(false); // it stays where it is, and so does the one beside it
    if (then == earlier->sheets.end()) {
        view->show({}, true);
        return paper->setText(tr("%1 was not in %2").arg(q(sheet.title), earlierName));
    }
    const Drawing d = then->draw();
    view->show(d, true);
    paper->setText(tr("%1 as it was in %2 · %3").arg(q(d.number), earlierName, q(d.paper)));
}

void IssueStage::showSchedule(BoardId b) {
    showWhere([b](const SheetEntry& e) { return e.shows(SheetKind::Schedule, b); });
}

void IssueStage::showSheet(const QString& title) {
    showWhere([title = title.toStdString()](const SheetEntry& e) { return e.title == title; });
}

namespace {

/// Whether a remark points at it. One of an older file knows its sheet by the title only: a composed sheet is called
/// after what it shows, which changes, and its further pages are told apart by their titles.
bool pointsAt(const Remark& r, const SheetEntry& entry) {
    if (!r.sheetKey.empty()) return r.sheetKey == entry.key;
    return r.sheet == entry.title || (entry.kind == SheetKind::Composed && entry.page == 0 && r.about == entry.about &&
                                      r.sheet.find(", sheet ") == std::string::npos);
}

} // namespace

void IssueStage::showSheetOf(const Remark& remark) {
    showWhere([&](const SheetEntry& e) { return pointsAt(remark, e); });
}

void IssueStage::showWhere(const std::function<bool(const SheetEntry&)>& is) {
    const auto& sheets = set().sheets;
    const auto it = std::find_if(sheets.begin(), sheets.end(), is);
    wanted = it == sheets.end() ? QString() : q(it->key);
    rebuild();
    showCurrent();
}

void IssueStage::pinRemarks(Drawing& sheet, const SheetEntry& entry) const {
    const double radius = sheet.width * 0.011; // the same on the screen, whatever the paper
    for (const Remark& r : session.project().remarks) {
        if (r.closed || !pointsAt(r, entry)) continue;
        sheet.marks.push_back(CircleMark{r.at, radius, 0, Ink::Accent, true});
        sheet.text({r.at.x, r.at.y + radius * 0.42}, std::to_string(r.id.value), radius * 1.2, Align::Centre, true,
                   Ink::Paper);
    }
}

void IssueStage::askRemark(QPoint onScreen) {
    const int row = list->currentRow();
    if (!session.reviewing() || row < 0) return;
    const QPointF at = view->mapFromGlobal(onScreen), origin = view->toScreen({0, 0});
    const double pixels = view->toScreen({1, 0}).x() - origin.x(); // of a millimetre
    if (pixels <= 0) return;
    QMenu menu;
    menu.setObjectName("sheetMenu");
    menu.addAction(tr("Remark here…"));
    if (!menu.exec(onScreen)) return;
    const SheetEntry* sheet = currentEntry();
    if (!sheet) return;
    Q_EMIT remarkWanted(q(sheet->title), q(sheet->key),
                        Point{(at.x() - origin.x()) / pixels, (at.y() - origin.y()) / pixels},
                        sheet->kind == SheetKind::Composed ? sheet->about : Ref());
}

bool IssueStage::isCurrent() const {
    return !later->isActive() && current && current->solution == session.sharedSolution();
}

bool IssueStage::hasCompared() const { return isCurrent() && !comparing->isActive(); }

void IssueStage::redrawShaped() {
    if (!formPanel->isVisibleTo(this) || earlier) return;
    const auto now = session.sharedSolution();
    const BoardId board = formPanel->boardShown();
    // What is shown, by the set as it is listed: making all sheets anew comes after this one.
    const std::size_t row = std::size_t(list->currentRow());
    const bool schedule = current && row < current->sheets.size() && current->sheets[row].kind == SheetKind::Schedule;
    if (!now->project.boards.has(board) || !schedule) return;
    view->show(panelSchedule(session.sheetInput(*now), board, view->drawing().number), true);
    formPanel->refresh();
}

void IssueStage::shapeForm(int column, BoardId of) {
    const auto& headings = view->drawing().headings;
    if (headings.empty() || earlier) return;
    endComposing();
    endListForm();
    const bool here =
        std::any_of(headings.begin(), headings.end(), [&](const HeadingSpot& h) { return h.board == of; });
    const BoardId board = here ? of : headings.front().board;
    sheetSide->hide();
    formPanel->show(board, column);
    view->setBoard(board);
    if (!formPanel->isVisibleTo(this)) {
        side->setFixedWidth(shapingWidth);
        formPanel->setVisible(true);
        layout()->activate();
        view->fitWidth(); // what is shaped has to be read
    }
    view->setColumn(column);
}

void IssueStage::endForm() {
    if (formPanel->isVisibleTo(this)) {
        side->setFixedWidth(usualSideWidth);
        layout()->activate();
        view->fit();
    }
    formPanel->hide();
    sheetSide->setVisible(!earlier);
    view->setColumn(-1);
}

namespace {
/// The words of a circuit that a column shows, and how they are entered; nothing: all of it is worked out.
struct CellWords {
    std::string text;
    std::function<std::optional<Error>(Project&, const std::string&)> enter;
    std::vector<std::string> earlier = {}; ///< what others say there, to be offered
};
std::optional<CellWords> wordsOf(const Project& p, CircuitId id, const FormColumn& column) {
    const auto wording = Wording::from(column.wording);
    if (!wording) return std::nullopt;
    const Circuit& c = p.circuits[id];
    for (const std::string& key : wording->figures()) {
        if (key == "serves" && fedBy(p, id)) continue; // the name of what it feeds
        if (key == "serves" || key == "note")
            return CellWords{circuitFact(key)->read(p, c), [id, key](Project& changed, const std::string& text) {
                                 return circuitFact(key)->write(changed, id, text);
                             }};
        if (!key.starts_with("own ")) continue;
        const std::string heading = key.substr(4);
        const auto own = c.texts.find(heading);
        return CellWords{own == c.texts.end() ? "" : own->second,
                         [id, heading](Project& changed, const std::string& text) -> std::optional<Error> {
                             auto& texts = changed.circuits.change(id)->texts;
                             if (text.empty())
                                 texts.erase(heading);
                             else
                                 texts[heading] = text;
                             return std::nullopt;
                         },
                         ownEntries(p, heading)};
    }
    return std::nullopt;
}
} // namespace

void IssueStage::editCell(CircuitId circuit, int column, QRect at) {
    const Project& p = session.project();
    const Circuit* c = p.circuits.find(circuit);
    if (!c || earlier) return;
    const ScheduleForm& form = formOf(p, *session.solution().book, p.boards[c->board]);
    if (column < 0 || column >= int(form.columns.size())) return;
    session.select(circuit);
    const auto words = wordsOf(p, circuit, form.columns[std::size_t(column)]);
    if (!words) return session.say(tr("This is worked out. Words, notes and columns of your own are typed here."));
    QLineEdit* line = typeOver(view, at, q(words->text), "cellEditor",
                               [this, circuit, enter = words->enter](const std::string& text) -> std::optional<Error> {
                                   Project trial = session.project();
                                   if (const auto bad = enter(trial, text)) return bad;
                                   session.edit(tr("Words of %1").arg(q(nameOf(session.project(), Ref(circuit)))),
                                                [&](Project& project) { enter(project, text); });
                                   return std::nullopt;
                               });
    if (words->earlier.empty()) return;
    QStringList offered;
    for (const std::string& text : words->earlier) offered << q(text);
    auto* complete = new QCompleter(offered, line);
    complete->setCaseSensitivity(Qt::CaseInsensitive);
    complete->setFilterMode(Qt::MatchContains);
    line->setCompleter(complete);
}

QLineEdit* IssueStage::typeOver(QWidget* over, QRect at, const QString& text, const char* name,
                                std::function<std::optional<Error>(const std::string&)> take) {
    auto* line = new QLineEdit(text, over);
    line->setObjectName(name);
    closeOnEscape(line);
    line->setGeometry(
        at.adjusted(-2, 0, 2, 0).united(QRect(at.left() - 2, at.center().y() - 13, std::max(at.width(), 120), 26)));
    line->selectAll();
    line->show();
    line->setFocus();
    QWidget* back = over == list->viewport() ? list : static_cast<QWidget*>(view);
    connect(line, &QLineEdit::editingFinished, this, [this, line, back, take = std::move(take)] {
        if (line->isHidden()) return;
        if (line->isModified()) {
            line->setModified(false);
            if (const auto bad = take(line->text().toStdString())) {
                markRefused(line, q(bad->what + ". " + bad->help));
                return session.say(q(bad->what + ". " + bad->help), true);
            }
        } else if (isRefused(line)) {
            return;
        }
        putAway(line, back);
        back->setFocus();
    });
    return line;
}

std::optional<Error> IssueStage::compareWith(const QString& file) {
    auto p = loadProject(file.toStdString());
    if (!p) return p.error();
    return compareWithState(std::move(*p), QFileInfo(file).fileName());
}

std::optional<Error> IssueStage::compareWithState(Project state, const QString& name) {
    auto book = loadRuleBook(state.basis.ruleBook, state.basis.ownValues);
    if (!book) return book.error();
    auto s = std::make_shared<Solution>();
    s->project = std::move(state);
    s->book = std::make_shared<const RuleBook>(std::move(*book));
    s->results = solve(s->project, *s->book);
    auto read = std::make_unique<SetOf>(SetOf{s, session.sheetInput(*s), {}});
    read->sheets = issueSet(read->in);
    earlier = std::move(read);
    compared.reset();
    earlierName = name;
    session.waitSolved();
    endForm();
    endComposing();
    endListForm();
    sheetSide->hide();
    differences->setVisible(true);
    rebuild();
    return std::nullopt;
}

void IssueStage::endComparison() {
    if (!earlier) return;
    earlier.reset();
    compared.reset();
    asBefore->setChecked(false);
    differences->hide();
    sheetSide->show();
    showCurrent();
}

void IssueStage::showDifferences() {
    compared = set().solution;
    differences->show(earlierName, compareProjects(earlier->solution->input(), compared->input()));
}

/// The schedule of the thing's board; what is on none is on the riser.
void IssueStage::showThing(Ref thing) {
    session.select(thing);
    const Project& p = session.project();
    BoardId board = thing.as<Board>();
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) board = c->board;
    if (const Load* l = p.loads.find(thing.as<Load>()))
        if (const Circuit* c = p.circuits.find(l->circuit)) board = c->board;
    if (board) return showSchedule(board);
    wanted = "Riser diagram";
    rebuild();
}

void IssueStage::writeTo(const QString& title, const char* ending, const QString& filter,
                         const std::function<std::optional<Error>(const QString&)>& write) {
    const std::string name = session.project().basis.title, words = ending;
    const std::size_t dot = words.rfind('.');
    askAndWrite(session, this, title, q(safeFileName(name + words.substr(0, dot), words.substr(dot))), filter, write);
}

std::optional<Error> IssueStage::exportLists(const QString& file) {
    if (const auto old = session.refuseOld()) return *old;
    const std::vector<NamedGrid> grids = workbookOf(set().in);
    if (grids.empty()) return Error{"lists", "the project has nothing to list", ""};
    return writeGrids(grids, file.toStdString());
}

std::optional<Error> IssueStage::exportCards(const QString& file) {
    if (const auto old = session.refuseOld()) return *old;
    const std::vector<Drawing> cards = allDoorCards(set().in);
    if (cards.empty()) return Error{"door cards", "the project has no board with circuits", ""};
    return writePdf(cards, file, pdfAbout(session.project(), "Door cards"));
}

Outcome<QString> IssueStage::exportDxf(const QString& folder) {
    if (const auto old = session.refuseOld()) return *old;
    const SetOf& now = set();
    const std::filesystem::path into = folder.toStdString();
    int files = 0, pictures = 0;
    const auto told = [&](const Outcome<DxfLeftOut>& done) -> std::optional<Error> {
        if (!done) return done.error();
        ++files;
        pictures += done->pictures;
        return std::nullopt;
    };
    for (const SheetEntry& e : now.sheets) {
        if (!isTicked(e)) continue;
        const Drawing d = drawn(e);
        if (const auto bad = told(writeDxf(d, into / (e.file + ".dxf"), sheetDxf(now.in)))) return *bad;
    }
    if (files == 0) return Error{"sheets", "no sheet is ticked", "Tick the sheets to write."};
    for (const auto& [level, name] : planFiles(now.solution->project))
        if (const auto bad = told(writePlanDxf(now.in, level, into / (name + ".dxf")))) return *bad;
    return tr("%1 written into %2").arg(files == 1 ? tr("1 drawing") : tr("%1 drawings").arg(files), folder) +
           (pictures ? tr(". Pictures and logos are left out: %1").arg(pictures) : QString());
}

bool IssueStage::isTicked(const SheetEntry& e) const {
    return std::find(unticked.begin(), unticked.end(), q(e.key)) == unticked.end();
}

Drawing IssueStage::drawn(const SheetEntry& sheet) const {
    return earlier ? markedSince(earlier->sheets, sheet, session.project().basis) : sheet.draw();
}

std::vector<Drawing> IssueStage::tickedSheets() {
    std::vector<Drawing> all;
    for (const SheetEntry& e : set().sheets)
        if (isTicked(e)) all.push_back(drawn(e));
    return all;
}

std::optional<Error> IssueStage::withProgress(
    std::size_t pages,
    const std::function<std::optional<Error>(const std::function<bool(std::size_t, std::size_t)>&)>& write) {
    QProgressDialog progress(tr("Writing the PDF…"), tr("Cancel"), 0, int(pages), this);
    progress.setWindowModality(Qt::WindowModal);
    return write([&](std::size_t page, std::size_t) {
        progress.setValue(int(page));
        return !progress.wasCanceled();
    });
}

std::optional<Error> IssueStage::exportPdf(const QString& file) {
    if (const auto old = session.refuseOld()) return *old;
    const std::vector<Drawing> all = tickedSheets();
    if (all.empty()) return Error{"sheets", "no sheet is ticked", "Tick the sheets to write."};
    PdfAbout about = pdfAbout(session.project(), session.project().basis.title);
    return withProgress(all.size(), [&](const auto& keepOn) {
        about.keepOn = keepOn;
        return writePdf(all, file, about);
    });
}

std::vector<SheetEntry> IssueStage::tickedEntries() {
    std::vector<SheetEntry> ticked;
    for (const SheetEntry& e : set().sheets) {
        if (!isTicked(e)) continue;
        SheetEntry entry = e;
        entry.draw = [this, e] { return drawn(e); };
        ticked.push_back(std::move(entry));
    }
    return ticked;
}

void IssueStage::askFiles() {
    session.waitSolved();
    const std::vector<SheetEntry> ticked = tickedEntries();
    FilesDialog dialog(set().in, ticked, this);
    if (dialog.exec() != QDialog::Accepted) return;
    const QString folder = QFileDialog::getExistingDirectory(this, tr("Write the files into a folder"));
    if (folder.isEmpty()) return;
    IssueFilesOrder order = dialog.order();
    if (const auto names = issueFileNames(set().in, ticked, order))
        for (const std::string& name : *names) {
            if (!QFileInfo::exists(QDir(folder).filePath(q(name)))) continue;
            QMessageBox box(QMessageBox::Question, tr("Files of the set"),
                            tr("%1 is there already, and perhaps others. Replace what has the same name?").arg(q(name)),
                            QMessageBox::Cancel, this);
            box.setObjectName("filesReplace");
            box.setTextFormat(Qt::PlainText);
            const auto* replace = box.addButton(tr("Replace"), QMessageBox::AcceptRole);
            box.exec();
            if (box.clickedButton() != replace) return;
            order.replace = true;
            break;
        }
    QStringList files;
    const auto written = exportFiles(folder, order, &files);
    session.say(written ? *written : q(written.error().text()), !written);
    if (!written || !dialog.byMail()) return;
    const Basis& b = session.project().basis;
    const std::string subject = b.issue.empty() ? b.title : b.title + ", " + b.issue;
    if (!sendByMail(q(subject), files)) session.say(tr("%1. The mail program does not start").arg(*written), true);
}

Outcome<QString> IssueStage::exportFiles(const QString& folder, IssueFilesOrder order, QStringList* files) {
    if (const auto old = session.refuseOld()) return *old;
    QProgressDialog progress(tr("Writing the files…"), tr("Cancel"), 0, 100, this);
    progress.setWindowModality(Qt::WindowModal);
    order.keepOn = [&](std::size_t done, std::size_t all) {
        progress.setValue(int(done * 100 / std::max<std::size_t>(1, all)));
        return !progress.wasCanceled();
    };
    const auto written = writeIssueFiles(set().in, tickedEntries(), folder.toStdString(), order);
    progress.setValue(100);
    if (!written) return written.error();
    for (const auto& file : written->files)
        if (files) *files << q(textOfPath(file));
    return (written->files.size() == 1 ? tr("Written: %1").arg(q(textOfPath(written->files.front())))
                                       : tr("%1 files written into %2").arg(written->files.size()).arg(folder)) +
           (written->picturesLeftOut ? tr(". Pictures and logos are left out of DXF: %1").arg(written->picturesLeftOut)
                                     : QString());
}

void IssueStage::askReport() {
    session.waitSolved();
    ReportDialog dialog(session, this);
    if (dialog.exec() != QDialog::Accepted) return;
    writeTo(tr("Write the calculation report"), " calculations.pdf", tr("PDF (*.pdf)"),
            [this, order = dialog.order()](const QString& file) { return exportReport(file, order); });
}

std::optional<Error> IssueStage::exportReport(const QString& file, const ReportOrder& order) {
    if (const auto old = session.refuseOld()) return *old;
    const auto now = session.sharedSolution();
    QProgressDialog progress(tr("Working out the report…"), tr("Cancel"), 0, 100, this);
    progress.setWindowModality(Qt::WindowModal);
    const auto made = calculationReport(session.sheetInput(*now), order, [&](std::size_t done, std::size_t all) {
        progress.setValue(int(done * 100 / std::max<std::size_t>(1, all)));
        return !progress.wasCanceled();
    });
    progress.setValue(100);
    if (!made) return made.error();
    return withProgress(made->pages.size(),
                        [&](const auto& keepOn) { return writeReport(*made, now->project, file, keepOn); });
}

} // namespace lintel
