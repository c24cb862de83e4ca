#include "app/frame/MainWindow.h"

#include "app/basis/BasisStage.h"
#include "app/bench/BenchPanel.h"
#include "app/boards/BoardsStage.h"
#include "app/frame/Application.h"
#include "app/frame/AskAndWrite.h"
#include "app/frame/Counted.h"
#include "app/frame/FactsPanel.h"
#include "app/frame/FeedPathBar.h"
#include "app/frame/FindBox.h"
#include "app/frame/MergeReport.h"
#include "app/frame/PaintKit.h"
#include "app/frame/SnagStrip.h"
#include "app/frame/StartPage.h"
#include "app/issue/IssueStage.h"
#include "app/plan/PlanStage.h"
#include "app/review/ReviewPanel.h"
#include "app/riser/RiserMenu.h"
#include "app/riser/RiserStage.h"
#include "app/runs/RunsStage.h"
#include "core/base/TextFile.h"
#include "core/copy/CopyBoard.h"
#include "core/exchange/FeederList.h"
#include "core/exchange/LoadList.h"
#include "core/project/Catalogue.h"
#include "core/project/FreshId.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"
#include "core/sheets/WorkingSheet.h"
#include "render/PdfFile.h"

#include <QAbstractButton>
#include <QActionGroup>
#include <QApplication>
#include <QBoxLayout>
#include <QCloseEvent>
#include <QFileDialog>
#include <QLabel>
#include <QMenuBar>
#include <QMessageBox>
#include <QPointer>
#include <QStackedWidget>
#include <QToolButton>

namespace lintel {

MainWindow::MainWindow() : state(new Session(this)) {
    if (auto* app = qobject_cast<Application*>(qApp))
        connect(app, &Application::failed, this, [this](const QString& what) {
            state->say(tr("This could not be done: %1. The project is as it was; please report it.").arg(what), true);
        });
    setObjectName("main");
    resize(1280, 800);
    setMinimumSize(960, 600);
    auto* centre = new QWidget(this);
    auto* beside = new QHBoxLayout(centre);
    beside->setContentsMargins(0, 0, 0, 0);
    beside->setSpacing(0);
    whole = new QStackedWidget(centre);
    beside->addWidget(whole, 1);
    benchPanel = new BenchPanel(*state, centre);
    beside->addWidget(benchPanel);
    benchPanel->hide();
    connect(benchPanel, &BenchPanel::closed, this, [this] { showBench(false); });
    setCentralWidget(centre);
    start = new StartPage(*state, whole);
    whole->addWidget(start);
    work = new QWidget(whole);
    whole->addWidget(work);

    auto* across = new QHBoxLayout(work);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(0);
    auto* railBox = new QWidget(work);
    railBox->setFixedWidth(64);
    railBox->setObjectName("rail");
    auto* railColumn = new QVBoxLayout(railBox);
    railColumn->setContentsMargins(0, 6, 0, 0);
    railColumn->setSpacing(2);
    const auto railButton = [&](const char* name, const QString& tip) {
        auto* b = new QToolButton(railBox);
        b->setText(tr(name));
        b->setObjectName(QString("rail:%1").arg(name));
        b->setCheckable(true);
        b->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
        b->setIconSize(QSize(24, 24));
        b->setFixedSize(64, 58);
        b->setToolTip(tip);
        railColumn->addWidget(b);
        return b;
    };
    static const char* names[] = {"Basis", "Plan", "Boards", "Riser", "Runs", "Issue"};
    for (int i = 0; i < 6; ++i) {
        QToolButton* b = railButton(names[i], tr("%1  Ctrl+%2").arg(tr(names[i])).arg(i + 1));
        b->setAutoExclusive(true);
        connect(b, &QToolButton::clicked, this, [this, i] { go(Stage(i)); });
        rail.push_back(b);
    }
    railColumn->addStretch(1);
    reviewButton = railButton("Review", tr("Check the design figure by figure, with ticks and remarks  Ctrl+7"));
    connect(reviewButton, &QToolButton::clicked, this, [this](bool on) { showReview(on); });
    across->addWidget(railBox);

    auto* column = new QVBoxLayout;
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    across->addLayout(column, 1);
    path = new FeedPathBar(*state, work);
    column->addWidget(path);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    stages = new QStackedWidget(work);
    basisStage = new BasisStage(*state, stages);
    planStage = new PlanStage(*state, stages);
    boardsStage = new BoardsStage(*state, stages);
    riserStage = new RiserStage(*state, stages);
    runsStage = new RunsStage(*state, stages);
    issueStage = new IssueStage(*state, stages);
    for (QWidget* w :
         std::initializer_list<QWidget*>{basisStage, planStage, boardsStage, riserStage, runsStage, issueStage})
        stages->addWidget(w);
    reviewPanel = new ReviewPanel(*state, work);
    reviewPanel->hide();
    connect(reviewPanel, &ReviewPanel::closed, this, [this] { showReview(false); });
    connect(issueStage, &IssueStage::remarkWanted, reviewPanel, &ReviewPanel::remarkOnSheet);
    connect(reviewPanel, &ReviewPanel::sheetWanted, this, [this](const Remark& remark) {
        go(Stage::Issue);
        issueStage->showSheetOf(remark);
    });
    middle->addWidget(reviewPanel);
    middle->addWidget(stages, 1);
    factsPanel = new FactsPanel(*state, work);
    factsPanel->setObjectName("factsPanel");
    factsPanel->setAttribute(Qt::WA_StyledBackground);
    middle->addWidget(factsPanel);
    column->addLayout(middle, 1);
    snagStrip = new SnagStrip(*state, work);
    column->addWidget(snagStrip);

    // Qt hands the keys of what is hidden or disabled to the next in order. Where that is a button, a blank typed
    // meanwhile would press it unseen: they go to the stage.
    connect(qApp, &QApplication::focusChanged, this, [this](QWidget* old, QWidget* now) {
        const bool gone = old && old->window() == this && !(old->isVisible() && old->isEnabled());
        if (gone && now && now->window() == this && qobject_cast<QAbstractButton*>(now)) focusStage();
    });
    connect(&factsPanel->view(), &FactsView::keyForStage, this, [this](QKeyEvent* e) {
        focusStage();
        if (QWidget* at = focusWidget(); at && stages->isAncestorOf(at)) QCoreApplication::sendEvent(at, e);
    });
    buildMenus();
    connect(start, &StartPage::openWanted, this, &MainWindow::openInteractively);
    connect(start, &StartPage::benchWanted, this, [this] { showBench(true); });
    connect(start, &StartPage::failed, this,
            [this](const QString& why) { QMessageBox::warning(this, tr("Lintel"), why); });
    connect(boardsStage, &BoardsStage::scheduleWanted, this, [this](BoardId b) {
        go(Stage::Issue);
        issueStage->showSchedule(b);
    });
    connect(boardsStage, &BoardsStage::modelTaken, this, [this] { go(Stage::Plan); });
    connect(boardsStage, &BoardsStage::besideChanged, this, [this] { factsPanel->setVisible(wantsFacts()); });
    connect(state, &Session::opened, this, [this] {
        showReview(false);
        whole->setCurrentWidget(work);
        // Begin where the work stands: on the fullest board, or on an empty plan.
        BoardId fullest;
        for (const Board& b : state->solution().project.boards)
            if (!fullest ||
                state->solution().results.of(b.id).slotsUsed > state->solution().results.of(fullest).slotsUsed)
                fullest = b.id;
        state->select(fullest);
        go(state->project().walls.empty() ? Stage::Plan : Stage::Boards);
        retitle();
    });
    connect(state, &Session::edited, this, &MainWindow::retitle);
    setTheme(false);
    go(Stage::Boards);
    whole->setCurrentWidget(start);
    start->setFocus();
    retitle();
}

MainWindow::~MainWindow() = default;

/// The board that is selected, or that the selected circuit stands in, once more. One with stop snags says so first:
/// the same command again copies it all the same.
void MainWindow::copySelectedBoard() {
    Ref at = state->selection();
    if (const Circuit* c = state->project().circuits.find(at.as<Circuit>())) at = c->board;
    const Board* b = state->project().boards.find(at.as<Board>());
    if (!b) return state->say(tr("Choose a board to copy"), true);
    int stops = 0;
    for (const Snag& s : state->solution().snags) {
        const Circuit* c = state->solution().project.circuits.find(s.about.as<Circuit>());
        stops += s.severity == Severity::Stop && (s.about == Ref(b->id) || (c && c->board == b->id));
    }
    if (stops > 0 && copyWarned != b->id) {
        copyWarned = b->id;
        return state->say(tr("%1 has %2: an error copied is two errors. Copy again to copy it all the same")
                              .arg(q(b->name), counted(stops, tr("stop snag"), tr("stop snags"))),
                          true);
    }
    copyWarned = {};
    Project trial = state->project();
    const std::string name = freeBoardName(trial, b->name);
    const BoardId from = b->id;
    const auto made = copyBoard(trial, from, name);
    if (!made) return state->say(q(made.error().what + ". " + made.error().help), true);
    state->edit(tr("Copy %1 as %2").arg(q(b->name), q(name)), [&](Project& p) { (void)copyBoard(p, from, name); });
    state->select(*made);
    go(Stage::Boards);
    state->say(tr("%1 is a copy of %2: its circuits, runs and loads, fed as it is")
                   .arg(q(name), q(state->project().boards[from].name)));
}

void MainWindow::writeFeeders() {
    askAndWrite(*state, this, tr("Write the schedule of feeders"),
                q(safeFileName(state->project().basis.title + " feeders", ".xlsx")), tr("Lists (*.xlsx *.csv)"),
                [this](const QString& name) -> std::optional<Error> {
                    if (auto old = state->refuseOld()) return old;
                    const Solution& s = state->solution();
                    return writeGrid(feedersOf(s.project, *s.book, s.results), name.toStdString(), "Feeders");
                });
}

void MainWindow::takeOutOfFeed() {
    const Board* b = state->project().boards.find(state->selection().as<Board>());
    if (!b || !passesOn(b->use))
        return state->say(tr("Choose what stands in the feed first: a disconnect, meter, transfer switch or UPS"),
                          true);
    removeThing(*state, b->id);
}

void MainWindow::showBench(bool shown) {
    benchPanel->setVisible(shown);
    factsPanel->setVisible(wantsFacts());
    if (shown)
        benchPanel->begin();
    else
        focusStage();
}

void MainWindow::showReview(bool shown) {
    reviewButton->setChecked(shown);
    state->setReviewing(shown);
    reviewPanel->setVisible(shown);
    restyleRail();
    if (shown) {
        reviewPanel->restyle();
        reviewPanel->begin();
    } else {
        focusStage();
    }
}

void MainWindow::restyleRail() {
    const Theme& t = theme();
    for (QToolButton* b : rail) b->setIcon(railIcon(b->text(), b->isChecked() ? t.accent : t.ink));
    reviewButton->setIcon(railIcon("Review", reviewButton->isChecked() ? t.accent : t.ink));
}

void MainWindow::setTheme(bool dark) {
    setDark(dark);
    benchPanel->restyle();
    const Theme& t = theme();
    work->findChild<QWidget*>("rail")->setStyleSheet(
        QString("#rail { background: %1; } QToolButton { border: none; border-left: 3px solid transparent; background: "
                "transparent; color: %2; font-size: 12px; padding-top: 6px; } "
                "QToolButton:hover { background: %3; } QToolButton:checked { background: %4; border-left: 3px solid "
                "%5; color: %5; font-weight: 600; }")
            .arg(t.sunk.name(), t.ink.name(), t.paper.name(), t.surface.name(), t.accent.name()));
    QPalette p = palette();
    p.setColor(QPalette::Window, t.surface);
    factsPanel->setPalette(p);
    factsPanel->setStyleSheet(
        QString("#factsPanel { border-left: 1px solid %1; background: %2; }").arg(t.rule.name(), t.surface.name()));
    restyleRail();
    reviewPanel->restyle();
    if (state->isOpen()) Q_EMIT state->solved();
    start->rebuild();
    update();
}

QAction* MainWindow::action(const char* name) const {
    // Once looked for it is known: the whole window would be searched each time.
    static QHash<const MainWindow*, QHash<QByteArray, QPointer<QAction>>> known;
    auto& mine = known[this];
    auto& a = mine[name];
    if (!a) a = findChild<QAction*>(name);
    return a;
}

void MainWindow::go(Stage s) {
    stages->setCurrentIndex(int(s));
    rail[std::size_t(s)]->setChecked(true);
    restyleRail();
    factsPanel->setVisible(wantsFacts());
    if (s == Stage::Plan || s == Stage::Boards)
        focusStage();
    else if (s == Stage::Issue)
        issueStage->showSchedule(state->boardOfSelection());
}
/// What the stage at hand is worked in gets the keys.
void MainWindow::focusStage() {
    if (stage() == Stage::Boards)
        boardsStage->focusBoard();
    else if (QWidget* at = stages->currentWidget())
        at->setFocus();
}
/// What stands beside a board needs the place that the facts have on a small screen.
bool MainWindow::wantsFacts() const {
    if (benchPanel->isVisible() || stage() == Stage::Basis || stage() == Stage::Issue) return false;
    return stage() != Stage::Boards || !boardsStage->wantsRoom() || width() >= 1500;
}
/// Chooses a thing; from a stage that shows nothing of it, on one that does.
void MainWindow::showThing(Ref thing) {
    const bool ofBoards = thing.is<Board>() || thing.is<Circuit>() || thing.is<Load>();
    if (stage() == Stage::Basis || (stage() == Stage::Issue && !ofBoards))
        go(ofBoards ? Stage::Boards : thing.is<Source>() || thing.is<Transformer>() ? Stage::Riser : Stage::Plan);
    state->select(thing);
}
Stage MainWindow::stage() const { return Stage(stages->currentIndex()); }

void MainWindow::showStart() {
    state->close();
    start->rebuild();
    whole->setCurrentWidget(start);
    start->setFocus();
    retitle();
}

void MainWindow::retitle() {
    setWindowTitle(state->isOpen() ? state->title() + " – Lintel" : "Lintel");
    undoAction->setEnabled(state->canUndo());
    redoAction->setEnabled(state->canRedo());
    undoAction->setText(state->canUndo() ? plainButton(tr("Undo %1").arg(state->undoLabel())) : tr("Undo"));
    redoAction->setText(state->canRedo() ? plainButton(tr("Redo %1").arg(state->redoLabel())) : tr("Redo"));
    const bool open = state->isOpen();
    for (const char* name :
         {"save",           "saveAs",          "export",        "printWorkings", "pin",           "addBoard",
          "addTransformer", "addSource",       "addLevel",      "removeLevel",   "keyedNote",     "addLoad",
          "removeBoard",    "levelBoard",      "sizeBoard",     "nameCircuits",  "allCircuits",   "besideNext",
          "importLoads",    "exportLoads",     "importFeeders", "importModel",   "exportFeeders", "nameRuns",
          "loadReport",     "circuitMissing",  "takeTypes",     "writeTypes",    "circuitInsert", "circuitDuplicate",
          "circuitSwap",    "circuitFillDown", "circuitGroup",  "circuitTie",    "circuitSpare",  "circuitReserve",
          "circuitRefeed",  "circuitRemove",   "selectNothing", "allSnags",      "goBasis",       "goPlan",
          "goBoards",       "goRiser",         "goRuns",        "goIssue"})
        action(name)->setEnabled(open);
}

bool MainWindow::openFile(const std::filesystem::path& file) {
    Session::As as = Session::As::Work;
    if (state->openElsewhere(file)) {
        QMessageBox box(QMessageBox::Question, tr("Lintel"),
                        tr("%1 is open in another window.").arg(q(textOfPath(file.filename()))), QMessageBox::Cancel,
                        this);
        box.setTextFormat(Qt::PlainText);
        box.setInformativeText(tr(
            "Two windows cannot save to one file. It can be opened for reading, or as a copy with a file of its own."));
        box.setObjectName("openElsewhere");
        QAbstractButton* read = box.addButton(tr("Open for &reading"), QMessageBox::AcceptRole);
        QAbstractButton* copy = box.addButton(tr("Open a &copy"), QMessageBox::AcceptRole);
        read->setObjectName("openForReading");
        copy->setObjectName("openACopy");
        box.exec();
        if (box.clickedButton() != read && box.clickedButton() != copy) return false;
        as = box.clickedButton() == read ? Session::As::Reading : Session::As::Copy;
    }
    const auto bad = state->open(file, as);
    if (!bad) return true;
    QMessageBox box(QMessageBox::Warning, tr("Lintel"), q(bad->where + ":\n" + bad->what), QMessageBox::Ok, this);
    box.setTextFormat(Qt::PlainText);
    box.setInformativeText(q(bad->help));
    box.setObjectName("openFailed");
    box.exec();
    return false;
}

void MainWindow::openInteractively() {
    if (!mayLeave()) return;
    const QString file = QFileDialog::getOpenFileName(this, tr("Open a project"), {}, tr("Lintel project (*.lintel)"));
    if (!file.isEmpty()) openFile(file);
}

/// What was typed and not entered yet is entered now, as when one goes on to another field; what is pending in the
/// basis is taken. What is on the screen is what is saved.
void MainWindow::enterWhatIsTyped() {
    if (QPointer<QWidget> field = QApplication::focusWidget(); field && window()->isAncestorOf(field)) {
        field->clearFocus();
        if (field) field->setFocus();
    }
    if (state->isOpen() && basisStage->pending() && !state->reading() && !state->reviewing()) basisStage->accept();
}

bool MainWindow::saveInteractively(bool as, SaveOptions options) {
    if (!state->isOpen()) return true;
    enterWhatIsTyped();
    std::filesystem::path to = state->file();
    if (as || to.empty() || state->reading()) {
        const std::filesystem::path beside = state->copyName();
        const QString suggested =
            beside.empty() ? q(safeFileName(state->project().basis.title, ".lintel")) : q(textOfPath(beside));
        QString file =
            QFileDialog::getSaveFileName(this, tr("Save the project"), suggested, tr("Lintel project (*.lintel)"));
        if (file.isEmpty()) return false;
        if (!file.endsWith(".lintel")) file += ".lintel";
        to = QFile::encodeName(file).toStdString();
    }
    const SaveAnswer answer = state->saveAs(to, options);
    if (answer) return true;
    QMessageBox box(QMessageBox::Warning, tr("Lintel"), q(answer.error.where + ":\n" + answer.error.what),
                    QMessageBox::Cancel, this);
    box.setTextFormat(Qt::PlainText);
    box.setObjectName("saveRefused");
    QAbstractButton *beside = nullptr, *replace = nullptr, *reload = nullptr, *merge = nullptr;
    QString help = q(answer.error.help);
    if (answer.trouble != SaveTrouble::None) beside = box.addButton(tr("Save &beside it…"), QMessageBox::AcceptRole);
    if (answer.trouble == SaveTrouble::ChangedOutside) {
        const auto onDisk = loadProject(to);
        const Edit edit = onDisk ? difference(*onDisk, state->project(), "") : Edit{};
        const std::string differs = edit.words();
        QStringList list; // from what is in the file to what is here
        if (onDisk)
            for (const std::string& line : edit.lines(*onDisk, state->project(), 200)) list << q(line);
        if (!list.isEmpty()) box.setDetailedText(tr("From the file to what is here:\n") + list.join('\n'));
        help = !onDisk           ? tr("What is in the file now cannot be read as a project.")
               : differs.empty() ? tr("What is in it now is the same project as here.")
                                 : tr("What is in it now differs from what is here in %1.").arg(q(differs));
        if (onDisk && to == state->file() && !differs.empty()) {
            merge = box.addButton(tr("&Merge"), QMessageBox::AcceptRole);
            merge->setToolTip(tr("Puts their work and yours together, thing by thing; what both changed is told, and "
                                 "yours is kept. It undoes in one step."));
        }
        if (onDisk) reload = box.addButton(tr("&Reload it"), QMessageBox::DestructiveRole);
        replace = box.addButton(tr("Re&place it"), QMessageBox::DestructiveRole);
        if (reload)
            reload->setToolTip(tr("What is not saved here is kept as a journal, and offered on the start page"));
    }
    for (auto [button, name] : {std::pair{beside, "saveBeside"}, std::pair{reload, "saveReload"},
                                std::pair{replace, "saveReplace"}, std::pair{merge, "saveMerge"}})
        if (button) button->setObjectName(name);
    box.setInformativeText(help);
    box.exec();
    const QAbstractButton* chosen = box.clickedButton();
    if (!chosen) return false;
    if (chosen == beside) return saveInteractively(true);
    if (chosen == replace) {
        options.overwriteOutside = true;
        return saveInteractively(as, options);
    }
    if (chosen == merge) mergeWithFile();
    if (chosen == reload) reloadFromDisk();
    return false;
}

/// What was taken in is not saved yet: whoever merges looks at it first.
void MainWindow::mergeWithFile() {
    const auto merged = state->mergeWithFile();
    if (!merged) {
        state->say(q(merged.error().text()), true);
        return;
    }
    auto* report = new MergeReport(*state, *merged, this);
    report->setAttribute(Qt::WA_DeleteOnClose);
    report->show();
}

void MainWindow::reloadFromDisk() {
    const std::filesystem::path file = state->file();
    state->leaveJournal(); // what is here and nowhere else stays on offer
    openFile(file);
}

bool MainWindow::mayLeave() {
    if (!state->isOpen()) return true;
    enterWhatIsTyped();
    if (!state->changed()) return true;
    QMessageBox box(QMessageBox::Question, tr("Lintel"),
                    tr("%1 has changes that are not saved.").arg(q(state->project().basis.title)),
                    QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
    box.setTextFormat(Qt::PlainText);
    switch (box.exec()) {
    case QMessageBox::Save:
        return saveInteractively(false);
    case QMessageBox::Discard:
        return true;
    default:
        return false;
    }
}

void MainWindow::closeEvent(QCloseEvent* e) {
    if (!mayLeave()) return e->ignore();
    state->close();
    e->accept();
}

} // namespace lintel
