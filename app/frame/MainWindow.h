#pragma once
// The frame: menu, rail, feed path, stage, facts, snags. One selection and one session for all of them.

#include "app/frame/Session.h"

#include <QFile>
#include <QMainWindow>

class QStackedWidget;
class QToolButton;

namespace lintel {

class BasisStage;
class BenchPanel;
class BoardsStage;
class FactsPanel;
class FeedPathBar;
class FindBox;
class GuideWindow;
class IssueStage;
class PlanStage;
class ReviewPanel;
class RiserStage;
class RunsStage;
class SnagStrip;
class StartPage;

enum class Stage { Basis, Plan, Boards, Riser, Runs, Issue };

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    MainWindow();
    ~MainWindow() override;
    Session& session() { return *state; }
    void go(Stage stage);
    void focusStage();
    Stage stage() const;
    void showStart();
    /// Opens a file; a message says why not.
    bool openFile(const std::filesystem::path& file);
    bool openFile(const QString& file) {
        return openFile(std::filesystem::path(QFile::encodeName(file).toStdString()));
    }

    BasisStage& basis() { return *basisStage; }
    PlanStage& plan() { return *planStage; }
    BoardsStage& boards() { return *boardsStage; }
    RiserStage& riser() { return *riserStage; }
    RunsStage& runs() { return *runsStage; }
    IssueStage& issue() { return *issueStage; }
    FactsPanel& facts() { return *factsPanel; }
    SnagStrip& snags() { return *snagStrip; }
    BenchPanel& bench() { return *benchPanel; }
    ReviewPanel& review() { return *reviewPanel; }
    /// Opens or ends a review: beside any stage, with nothing to be edited.
    void showReview(bool shown);
    FindBox& find() { return *findBox; }
    /// The user guide, at a heading of it; empty: where it was left.
    GuideWindow& showGuide(const QString& heading = {});
    FeedPathBar& feedPath() { return *path; }
    QAction* action(const char* name) const;

protected:
    void closeEvent(QCloseEvent*) override;

private:
    // ---- MainMenus.cpp ----
    void buildMenus();
    /// An entry, by a name that is its own.
    QAction* add(QMenu* menu, const QString& text, const char* name, const QKeySequence& key,
                 std::function<void()> what);
    void fileMenu();
    void editMenu();
    void viewMenu();
    void projectMenu();
    void levelEntries(QMenu* project);
    void catalogueEntries(QMenu* project);
    void circuitMenu();
    void listEntries(QMenu* circuit);
    void helpMenu();
    /// The guide, with the keys of the menus at its end.
    GuideWindow& guide();
    QString keysOfMenus() const;
    /// The find box, beside the menus.
    void findCorner();

    void retitle();
    bool mayLeave();
    bool saveInteractively(bool as, SaveOptions options = {});
    void reloadFromDisk();
    void mergeWithFile();
    void enterWhatIsTyped();
    void showThing(Ref thing);
    void openInteractively();
    void setTheme(bool dark);
    void restyleRail();
    /// The bench stands beside whatever is shown; the facts make room for it.
    void showBench(bool shown);
    bool wantsFacts() const;
    void copySelectedBoard();
    void takeOutOfFeed();
    void writeFeeders();

    Session* state;
    QStackedWidget *whole, *stages;
    QWidget* work;
    StartPage* start;
    BasisStage* basisStage;
    PlanStage* planStage;
    BoardsStage* boardsStage;
    RiserStage* riserStage;
    RunsStage* runsStage;
    IssueStage* issueStage;
    FactsPanel* factsPanel;
    SnagStrip* snagStrip;
    FindBox* findBox;
    FeedPathBar* path;
    BenchPanel* benchPanel;
    ReviewPanel* reviewPanel;
    GuideWindow* guideWindow = nullptr; ///< made when it is first wanted
    QToolButton* reviewButton;
    BoardId copyWarned; ///< a copy of it was asked for once, and it has stop snags
    std::vector<QToolButton*> rail;
    QAction *undoAction = nullptr, *redoAction = nullptr;
};

} // namespace lintel
