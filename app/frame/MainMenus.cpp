// The menus of the window: every command that has no place of its own in a stage, each with the name by which the find
// box and tests know it.

#include "app/frame/Counted.h"
#include "app/frame/MainWindow.h"

#include "app/basis/BasisStage.h"
#include "app/bench/BenchPanel.h"
#include "app/boards/BoardsStage.h"
#include "app/frame/AskAndWrite.h"
#include "app/frame/FindBox.h"
#include "app/frame/GuideWindow.h"
#include "app/frame/PaintKit.h"
#include "app/frame/SnagStrip.h"
#include "app/issue/IssueStage.h"
#include "app/plan/PlanStage.h"
#include "app/review/ReviewPanel.h"
#include "app/riser/RiserMenu.h"
#include "app/runs/RunsStage.h"
#include "core/base/TextFile.h"
#include "core/exchange/LoadList.h"
#include "core/plan/LinkedFiles.h"
#include "core/project/AddBelow.h"
#include "core/project/Catalogue.h"
#include "core/project/FreshId.h"
#include "core/project/Operations.h"
#include "core/project/ProjectFile.h"
#include "core/rules/DataFolder.h"
#include "core/sheets/WorkingSheet.h"
#include "render/PdfFile.h"

#include <QActionGroup>
#include <QBoxLayout>
#include <QFileDialog>
#include <QMenuBar>
#include <QMessageBox>
#include <QStackedWidget>

namespace lintel {
namespace {

constexpr const char* keysHeading = "Keys of the menus";

} // namespace

QAction* MainWindow::add(QMenu* menu, const QString& text, const char* name, const QKeySequence& key,
                         std::function<void()> what) {
    QAction* a = menu->addAction(text);
    a->setObjectName(name);
    a->setShortcut(key);
    connect(a, &QAction::triggered, this, std::move(what));
    return a;
}

void MainWindow::buildMenus() {
    fileMenu();
    editMenu();
    viewMenu();
    projectMenu();
    circuitMenu();
    helpMenu();
    findCorner();
}

void MainWindow::fileMenu() {
    QMenu* file = menuBar()->addMenu(tr("&File"));
    add(file, tr("&Start page"), "startPage", {}, [this] {
        if (mayLeave()) showStart();
    });
    add(file, tr("&Open…"), "open", QKeySequence::Open, [this] { openInteractively(); });
    file->addSeparator();
    add(file, tr("&Save"), "save", QKeySequence::Save, [this] { saveInteractively(false); });
    add(file, tr("Save &as…"), "saveAs", QKeySequence::SaveAs, [this] { saveInteractively(true); });
    QMenu* versions = file->addMenu(tr("Keep earlier &versions"));
    auto* choice = new QActionGroup(versions);
    for (int n : {0, 3, 10, 30}) {
        QAction* a = versions->addAction(n ? tr("The last %1, beside the file").arg(n) : tr("None"),
                                         [n] { Session::keepOldVersions(n); });
        a->setObjectName(QString("oldVersions%1").arg(n));
        a->setCheckable(true);
        a->setChecked(n == Session::oldVersions());
        choice->addAction(a);
    }
    file->addSeparator();
    add(file, tr("&Export sheets…"), "export", QKeySequence("Ctrl+E"), [this] {
        go(Stage::Issue);
        issueStage->findChild<QPushButton*>("exportPdf")->click();
    });
    add(file, tr("&Print sheets…"), "print", QKeySequence(QKeySequence::Print), [this] {
        go(Stage::Issue);
        issueStage->findChild<QPushButton*>("printSheets")->click();
    });
    add(file, tr("Compare with an earlier file…"), "compare", {}, [this] {
        go(Stage::Issue);
        issueStage->findChild<QPushButton*>("compareFile")->click();
    });
    add(file, tr("Lists as a workbook…"), "exportLists", {}, [this] {
        go(Stage::Issue);
        issueStage->findChild<QPushButton*>("exportLists")->click();
    });
    add(file, tr("&Workings of the selection as PDF…"), "printWorkings", QKeySequence("Ctrl+Shift+E"), [this] {
        if (const auto old = state->refuseOld()) return state->say(q(old->text()), true);
        const auto now = state->sharedSolution(); // it outlives the dialog, whatever is solved meanwhile
        const Solution& s = *now;
        const Ref thing = state->selection();
        if (!s.results.knows(thing))
            return state->say(tr("Choose a board, transformer, source or circuit first: its workings are printed."),
                              true);
        const Working w = explain(s.project, *s.book, s.results, thing);
        askAndWrite(*state, this, tr("Print the workings"), q(safeFileName(w.title, ".pdf")), tr("PDF (*.pdf)"),
                    [&](const QString& name) {
                        return writePdf(workingSheets(w, sheetHead(s.project, *s.book)), name,
                                        pdfAbout(s.project, w.title));
                    });
    });
    file->addSeparator();
    add(file, tr("&Quit"), "quit", QKeySequence::Quit, [this] { close(); });
}

void MainWindow::editMenu() {
    QMenu* edit = menuBar()->addMenu(tr("&Edit"));
    undoAction = add(edit, tr("Undo"), "undo", QKeySequence::Undo, [this] { state->undo(); });
    redoAction = add(edit, tr("Redo"), "redo", QKeySequence("Ctrl+Shift+Z"), [this] { state->redo(); });
    // Find ranks these two by their own names, not by those of the edits that they would take back or do again.
    undoAction->setProperty("ownName", tr("Undo"));
    redoAction->setProperty("ownName", tr("Redo"));
    edit->addSeparator();
    add(edit, tr("Pin or unpin circuit"), "pin", QKeySequence("Ctrl+Shift+P"), [this] { boardsStage->active().pin(); });
    add(edit, tr("Select nothing"), "selectNothing", QKeySequence("Ctrl+Shift+A"), [this] { state->select(Ref()); });
}

void MainWindow::viewMenu() {
    QMenu* view = menuBar()->addMenu(tr("&View"));
    static const char* names[] = {"Basis", "Plan", "Boards", "Riser", "Runs", "Issue"};
    for (int i = 0; i < 6; ++i)
        add(view, tr(names[i]), (std::string("go") + names[i]).c_str(), QKeySequence(QString("Ctrl+%1").arg(i + 1)),
            [this, i] { go(Stage(i)); });
    view->addSeparator();
    add(view, tr("Assumptions"), "assumptions", QKeySequence("Ctrl+Shift+J"), [this] {
        go(Stage::Basis);
        basisStage->showAssumptions(true);
    });
    QAction* dark = add(view, tr("Dark"), "dark", {}, [this] { setTheme(action("dark")->isChecked()); });
    dark->setCheckable(true);
    add(view, tr("Bench"), "bench", QKeySequence("Ctrl+B"), [this] { showBench(!benchPanel->isVisible()); });
    add(view, tr("Review"), "review", QKeySequence("Ctrl+7"), [this] { showReview(!reviewPanel->isVisible()); });
    add(view, tr("All snags"), "allSnags", QKeySequence("Ctrl+J"), [this] { snagStrip->toggleList(); });
}

void MainWindow::projectMenu() {
    QMenu* project = menuBar()->addMenu(tr("&Project"));
    add(project, tr("Add board"), "addBoard", {}, [this] {
        BoardId made;
        state->edit(tr("Add board"), [&](Project& p) {
            Board b = newPanelboard(p, state->solution().book->trade.board.system);
            b.level = planStage->plan().level();
            b.onPlan = false; // until it is set down there
            made = addBoard(p, b);
        });
        state->select(made);
        go(Stage::Boards);
    });
    add(project, tr("Copy board"), "copyBoard", QKeySequence("Ctrl+Shift+D"), [this] { copySelectedBoard(); });
    add(project, tr("Add transformer"), "addTransformer", {}, [this] {
        TransformerId made;
        state->edit(tr("Add transformer"), [&](Project& p) {
            Transformer t;
            t.name = freeBoardName(p, "T-1");
            t.level = planStage->plan().level();
            t.onPlan = false; // until it is set down there
            t.run = p.runs.add({});
            made = addFresh(p, &Project::transformers, t);
        });
        state->select(made);
    });
    add(project, tr("Add source"), "addSource", {}, [this] {
        SourceId made;
        state->edit(tr("Add source"), [&](Project& p) {
            Source s;
            s.name = "Utility";
            s.level = planStage->plan().level();
            s.onPlan = false; // until it is set down there
            made = addFresh(p, &Project::sources, s);
        });
        state->select(made);
    });
    QMenu* inFeed = project->addMenu(tr("Insert in the &feed"));
    for (const auto& [use, word] : EnumText<BoardUse>::words) {
        if (!passesOn(use) && use != BoardUse::Busway) continue;
        QString name = tr(word);
        if (use != BoardUse::Ups) name[0] = name[0].toUpper();
        add(inFeed, name, ("insert" + std::to_string(int(use))).c_str(), {},
            [this, use = use] { insertInFront(*state, state->selection(), use); });
    }
    add(project, tr("Take out of the feed"), "takeOut", {}, [this] { takeOutOfFeed(); });
    levelEntries(project);
    add(project, tr("Add unfed load"), "addLoad", {}, [this] {
        LoadId made;
        state->edit(tr("Add load"), [&](Project& p) {
            Load l;
            l.name = "New load";
            l.amount = 1;
            l.unit = LoadUnit::kVA;
            made = p.loads.add(l);
        });
        state->select(made);
        go(Stage::Boards);
    });
    catalogueEntries(project);
    project->addSeparator();
    add(project, tr("Remove board or transformer"), "removeBoard", {}, [this] {
        const Ref r = state->selection();
        if (r.is<Board>())
            state->edit(tr("Remove %1").arg(q(nameOf(state->project(), r))),
                        [&](Project& p) { removeBoard(p, r.as<Board>()); });
        else if (r.is<Transformer>())
            state->edit(tr("Remove %1").arg(q(nameOf(state->project(), r))),
                        [&](Project& p) { removeTransformer(p, r.as<Transformer>()); });
        else
            state->say(tr("Choose a board or transformer first"), true);
    });
    add(project, tr("Level the board"), "levelBoard", QKeySequence("Ctrl+L"), [this] {
        go(Stage::Boards);
        boardsStage->openLevel();
    });
    add(project, tr("Size of the board…"), "sizeBoard", {}, [this] {
        go(Stage::Boards);
        boardsStage->openSize();
    });
    add(project, tr("Names from rooms and devices…"), "nameCircuits", {}, [this] {
        go(Stage::Boards);
        boardsStage->openNames();
    });
}

void MainWindow::levelEntries(QMenu* project) {
    add(project, tr("Add level"), "addLevel", {}, [this] {
        state->edit(tr("Add level"), [](Project& p) {
            Level l;
            for (const Level& o : p.levels) l.elevation = std::max(l.elevation, o.elevation + o.height);
            l.name = "Level " + std::to_string(p.levels.size() + 1);
            addFresh(p, &Project::levels, l);
        });
    });
    add(project, tr("Place a keyed note"), "keyedNote", {}, [this] {
        go(Stage::Plan);
        planStage->beginKeyedNote();
    });
    add(project, tr("Remove the level shown"), "removeLevel", {}, [this] {
        const LevelId level = planStage->plan().level();
        const Project& p = state->project();
        if (!p.levels.has(level)) return state->say(tr("There is no level to remove"), true);
        const QString name = q(p.levels[level].name);
        const auto here = [&](const auto& table) {
            return std::count_if(table.begin(), table.end(), [&](const auto& x) { return x.level == level; });
        };
        const auto drawn = here(p.walls) + here(p.rooms) + here(p.furnishings) + here(p.trays),
                   devices = here(p.devices), boards = here(p.boards) + here(p.transformers) + here(p.sources);
        state->edit(tr("Remove %1").arg(name), [&](Project& x) { removeLevel(x, level); });
        QStringList gone;
        if (drawn) gone << counted(drawn, tr("thing drawn"), tr("things drawn"));
        if (devices) gone << counted(devices, tr("device"), tr("devices"));
        QString words = tr("%1 removed").arg(name);
        if (!gone.empty()) words += tr(", and with it %1").arg(gone.join(tr(" and ")));
        if (boards)
            words += "; " + counted(boards, tr("board or source stands on no level now"),
                                    tr("boards and sources stand on no level now"));
        state->say(words + tr(". Ctrl+Z brings it back."));
    });
}

void MainWindow::catalogueEntries(QMenu* project) {
    project->addSeparator();
    add(project, tr("Take in a building model…"), "importModel", {}, [this] {
        go(Stage::Boards);
        boardsStage->openModel({});
    });
    add(project, tr("Take types from a catalogue…"), "takeTypes", {}, [this] {
        const QString name =
            QFileDialog::getOpenFileName(this, tr("A catalogue, or any project"),
                                         q((dataFolder() / "catalogues").string()), tr("Lintel files (*.lintel)"));
        if (name.isEmpty()) return;
        auto from = loadProject(name.toStdString());
        if (!from) return state->say(q(from.error().text()), true);
        relinkFiles(*from, name.toStdString(), state->file());
        TakenTypes t;
        Project next = state->project();
        t = takeTypes(next, *from);
        state->edit(tr("Take types from %1").arg(QFileInfo(name).fileName()), [&](Project& p) { p = next; });
        state->say(tr("%1 added, %2 changed, %3 the same; %4")
                       .arg(counted(t.added, tr("type"), tr("types")))
                       .arg(t.changed)
                       .arg(t.same)
                       .arg(counted(t.recipes, tr("recipe"), tr("recipes"))));
    });
    add(project, tr("Write the types as a catalogue…"), "writeTypes", {}, [this] {
        askAndWrite(*state, this, tr("Write the types as a catalogue"), tr("catalogue.lintel"),
                    tr("Lintel files (*.lintel)"), [&](const QString& name) {
                        Project catalogue = catalogueOf(state->project());
                        relinkFiles(catalogue, state->file(), name.toStdString());
                        return saveProject(catalogue, name.toStdString());
                    });
    });
}

void MainWindow::circuitMenu() {
    QMenu* circuit = menuBar()->addMenu(tr("&Circuit"));
    for (const BoardView::Command& c : BoardView::commands())
        // Del and Ins belong to whatever has the focus: the board takes them itself.
        add(circuit,
            c.key == QKeySequence("Del") || c.key == QKeySequence("Ins") ? c.text + "\t" + c.key.toString() : c.text,
            c.name, c.key == QKeySequence("Del") || c.key == QKeySequence("Ins") ? QKeySequence() : c.key,
            [this, what = c.what] {
                go(Stage::Boards);
                (boardsStage->active().*what)();
            });
    circuit->addSeparator();
    add(circuit, tr("All circuits: find and change…"), "allCircuits", QKeySequence("Ctrl+Shift+F"), [this] {
        go(Stage::Boards);
        boardsStage->openCircuits();
    });
    add(circuit, tr("Beside: another board, its schedule, nothing"), "besideNext", QKeySequence("F9"), [this] {
        go(Stage::Boards);
        const auto now = boardsStage->beside();
        boardsStage->setBeside(now == BoardsStage::Beside::Nothing ? BoardsStage::Beside::Board
                               : now == BoardsStage::Beside::Board ? BoardsStage::Beside::Schedule
                                                                   : BoardsStage::Beside::Nothing);
    });
    listEntries(circuit);
}

void MainWindow::listEntries(QMenu* circuit) {
    circuit->addSeparator();
    add(circuit, tr("Take in a list of loads…"), "importLoads", QKeySequence("Ctrl+I"), [this] {
        go(Stage::Boards);
        boardsStage->openImport({});
    });
    add(circuit, tr("Write the list of loads…"), "exportLoads", {}, [this] {
        askAndWrite(*state, this, tr("Write the list of loads"),
                    q(safeFileName(state->project().basis.title + " loads", ".xlsx")), tr("Lists (*.xlsx *.csv)"),
                    [&](const QString& name) {
                        return writeGrid(listOf(state->project()), name.toStdString(), "Loads", ',', identityHeading);
                    });
    });
    add(circuit, tr("Take in a schedule of feeders…"), "importFeeders", {}, [this] {
        go(Stage::Boards);
        boardsStage->openFeeders({});
    });
    add(circuit, tr("Write the schedule of feeders…"), "exportFeeders", {}, [this] { writeFeeders(); });
    add(circuit, tr("Names of runs by a pattern…"), "nameRuns", {}, [this] {
        go(Stage::Runs);
        runsStage->askNames();
    });
    add(circuit, tr("What is left open: loads, cables, boards…"), "loadReport", {}, [this] {
        go(Stage::Boards);
        boardsStage->openReport();
    });
    add(circuit, tr("Give loads without a circuit one"), "circuitMissing", {}, [this] {
        go(Stage::Boards);
        boardsStage->circuitMissingLoads();
    });
}

void MainWindow::helpMenu() {
    QMenu* help = menuBar()->addMenu(tr("&Help"));
    add(help, tr("User &guide"), "guide", QKeySequence(Qt::Key_F1), [this] {
        static const char* chapters[] = {"1 Basis", "2 Plan", "3 Boards", "4 Riser", "5 Runs", "6 Issue"};
        const bool working = whole->currentWidget() == work;
        showGuide(benchPanel->isVisible() ? "Bench" : working ? chapters[int(stage())] : "Begin");
    });
    add(help, tr("&Keys"), "keys", {}, [this] { showGuide(keysHeading); });
    help->addSeparator();
    add(help, tr("About Lintel"), "about", {}, [this] {
        QMessageBox box(QMessageBox::Information, tr("About Lintel"), {}, QMessageBox::Ok, this);
        box.setTextFormat(Qt::RichText);
        box.setText(tr("<b>Lintel %1</b><br>Circuits, boards and feeders of a building.<br>GPL-3.0-or-later. The "
                       "figures rest on the rule book named on Basis; the engineer of record answers for the design.")
                        .arg(LINTEL_VERSION));
        box.exec();
    });
}

QString MainWindow::keysOfMenus() const {
    QString table =
        QString("\n\n## %1\n\nThe keys of stages stand in their chapters.\n\n| menu | command | key |\n|---|---|---|\n")
            .arg(keysHeading);
    for (QAction* top : menuBar()->actions())
        for (QAction* a : top->menu() ? top->menu()->actions() : QList<QAction*>()) {
            const QString key =
                a->shortcut().isEmpty() ? a->text().section('\t', 1) : a->shortcut().toString(QKeySequence::NativeText);
            if (key.isEmpty()) continue;
            QString menu = top->text(), name = a->text().section('\t', 0, 0);
            table += QString("| %1 | %2 | %3 |\n").arg(menu.remove('&'), name.remove('&'), key);
        }
    return table;
}

GuideWindow& MainWindow::guide() {
    if (!guideWindow) {
        QString text = GuideWindow::shipped();
        if (text.isEmpty()) text = tr("# User guide\n\nThe guide is not there: docs/user-guide.md did not come along.");
        guideWindow = new GuideWindow(text + keysOfMenus(), this);
    }
    return *guideWindow;
}

GuideWindow& MainWindow::showGuide(const QString& heading) {
    GuideWindow& g = guide();
    g.show();
    g.raise();
    g.activateWindow();
    if (!heading.isEmpty() && !g.showAt(heading)) state->say(tr("The guide has no chapter “%1”").arg(heading), true);
    return g;
}

void MainWindow::findCorner() {
    findBox = new FindBox(*state, this);
    auto* corner = new QWidget(this);
    auto* row = new QHBoxLayout(corner);
    row->setContentsMargins(0, 2, 12, 2);
    row->addWidget(findBox);
    menuBar()->setCornerWidget(corner);
    auto* focus = new QAction(this);
    focus->setShortcut(QKeySequence("Ctrl+K"));
    connect(focus, &QAction::triggered, this, [this] {
        findBox->setFocus(Qt::ShortcutFocusReason);
        findBox->selectAll();
    });
    addAction(focus);
    QList<QAction*> commands;
    for (QAction* a : findChildren<QAction*>())
        if (!a->objectName().isEmpty() && !a->menu()) commands << a;
    findBox->offer(commands);
    connect(findBox, &FindBox::thingWanted, this, &MainWindow::showThing);
    connect(findBox, &FindBox::guideWanted, this, [this](const QString& heading) { showGuide(heading); });
    findBox->offerGuide([this] { return guide().headings(); });
}

} // namespace lintel
