#pragma once
// Issue: the set of sheets, as they will print; what still stops an issue; export.

#include "app/issue/CompareList.h"
#include "app/issue/FormPanel.h"
#include "app/issue/SheetView.h"
#include "core/issue/Issues.h"
#include "core/report/CalculationReport.h"
#include "core/sheets/Sheets.h"
#include "render/IssueFiles.h"

class QLabel;
class QLineEdit;
class QMenu;
class QListWidget;
class QPushButton;
class QTimer;

namespace lintel {

class ComposePanel;
class ListFormPanel;

class IssueStage : public QWidget {
    Q_OBJECT
Q_SIGNALS:
    /// A remark is to be made at a point of a sheet, mm.
    void remarkWanted(const QString& sheetTitle, const QString& sheetKey, Point at, Ref composed);

public:
    explicit IssueStage(Session& session, QWidget* parent = nullptr);
    QListWidget& sheets() { return *list; }
    SheetView& sheet() { return *view; }
    /// The form of the schedule that is shown, beside it; nothing happens where no schedule is.
    void shapeForm(int column = -1, BoardId of = {});
    FormPanel& form() { return *formPanel; }
    /// What can be put on the composed sheet that is shown, beside it; nothing happens where another is.
    void compose();
    ComposePanel& composing();
    /// The form of a list, beside the sheets.
    void shapeListForm(const std::string& list);
    ListFormPanel& listForms();
    /// Puts all things of a kind together on new sheets, in one step that undoes.
    void composeAll(SheetKind kind);
    /// Puts together what the basis wants together, in one step that undoes.
    void composeProposed();
    /// Whether what is shown belongs to the newest solution: in a very large building it follows after a moment.
    bool isCurrent() const;
    /// Whether, besides, each sheet has been compared with the last issue: they are drawn one a turn.
    bool hasCompared() const;
    /// Shows the schedule of a board.
    void showSchedule(BoardId board);
    /// Shows the sheet of this title, where there is one.
    void showSheet(const QString& title);
    /// The sheet that a remark points at.
    void showSheetOf(const Remark& remark);
    /// Writes the ticked sheets into one PDF.
    std::optional<Error> exportPdf(const QString& file);
    /// The ticked sheets, and each floor in the units of the building, as files of a folder; what was written, in
    /// words.
    Outcome<QString> exportDxf(const QString& folder);
    /// Writes a card for the door of each board into one PDF.
    std::optional<Error> exportCards(const QString& file);
    /// Writes all lists that have something to tell as the sheets of one workbook.
    std::optional<Error> exportLists(const QString& file);
    /// Shows beside the sheets what differs from a file of the project, with clouds on the sheets; an Error leaves all
    /// as it was.
    std::optional<Error> compareWith(const QString& file);
    /// The same with an issue of the project.
    std::optional<Error> compareWithIssue(IssueId id);
    /// Makes an issue of the project as it is, in one step that undoes.
    std::optional<Error> makeIssue(const IssueDraft& draft);
    /// The calculations as one PDF.
    std::optional<Error> exportReport(const QString& file, const ReportOrder& order);
    /// All files of the ticked sheets in one go: what was written, in words.
    /// `files`: those that were written, where somebody asks.
    Outcome<QString> exportFiles(const QString& folder, IssueFilesOrder order, QStringList* files = nullptr);
    void endComparison();
    CompareList& changes() { return *differences; }

private:
    void askReport();
    void askFiles();
    /// The sheets that are ticked, with clouds where they are compared with something.
    std::vector<SheetEntry> tickedEntries();
    /// Tells of each page as it is written, and stops where it is cancelled.
    std::optional<Error> withProgress(
        std::size_t pages,
        const std::function<std::optional<Error>(const std::function<bool(std::size_t, std::size_t)>&)>& write);
    void askIssue();
    void fillCompareMenu(QMenu& menu) const;
    /// While somebody reviews: a remark at that point.
    void askRemark(QPoint onScreen);
    /// Open remarks that point at the sheet, as pins with their numbers. They are not printed.
    void pinRemarks(Drawing& sheet, const SheetEntry& entry) const;
    std::optional<Error> compareWithState(Project state, const QString& name);
    /// The issues that there are, and which sheets have changed since the last.
    void tellIssues();
    /// What the basis wants together on sheets and what stands by itself yet.
    void tellProposal();
    void compareNext();
    QTimer* comparing;
    int nextToCompare = -1; ///< row of the list
    std::size_t sheetsChanged = 0;
    QString issuesTold;
    bool isTicked(const SheetEntry& e) const;
    QString tipOf(const SheetEntry& e) const;
    /// The sheet that is chosen; null: none, or the set is not listed yet.
    const SheetEntry* currentEntry();
    /// The number of the chosen sheet is typed where it stands.
    void numberCurrent();
    void titleCurrent();
    void askNumbers(QPoint at);
    void showWhere(const std::function<bool(const SheetEntry&)>& is);
    /// A field over a text; what is typed is taken with Enter or by going elsewhere, and stays marked where it cannot
    /// be.
    QLineEdit* typeOver(QWidget* over, QRect at, const QString& text, const char* name,
                        std::function<std::optional<Error>(const std::string&)> take);
    /// A sheet with clouds where it is compared with something.
    Drawing drawn(const SheetEntry& sheet) const;
    std::vector<Drawing> tickedSheets();
    void rebuild();
    void showCurrent();
    /// The same sheet of the state that is compared with.
    void showAsBefore(const SheetEntry& sheet);
    /// The set of a solution, listed once for it: its entries refer to the solution.
    struct SetOf {
        std::shared_ptr<const Solution> solution;
        SheetInput in;
        std::vector<SheetEntry> sheets;
    };
    const SetOf& set();
    /// What is compared with, as it was read, and its sheets.
    std::unique_ptr<SetOf> earlier;
    QString earlierName;
    std::shared_ptr<const Solution> compared; ///< the newer state whose differences are listed
    CompareList* differences;
    QWidget *side, *sheetSide;
    void showDifferences();
    void showThing(Ref thing);
    /// Asks for a file, named after the project with `ending` behind it, and writes to it.
    void writeTo(const QString& title, const char* ending, const QString& filter,
                 const std::function<std::optional<Error>(const QString&)>& write);
    std::unique_ptr<SetOf> current;
    QTimer* later;
    qint64 lastMs = 0; ///< that the set took to list
    Session& session;
    QListWidget* list;
    SheetView* view;
    FormPanel* formPanel;
    QPushButton* formButton;
    QPushButton* asBefore; ///< while it is compared with something
    void endForm();
    static constexpr int usualSideWidth = 252; ///< of what stands beside the sheet
    void setUpComposing();
    void endComposing();
    /// After another sheet is shown, or the same one has changed.
    void followComposing(const SheetEntry& sheet);
    /// An edit that makes a composed sheet or puts something on one, which is then shown.
    void openComposed(const QString& label, const std::function<ComposedSheetId(Project&)>& make);
    void fillNewMenu(QMenu& menu);
    void fillComposeMenu(QMenu& menu, const SheetEntry& entry);
    void askView(PlacedViewId view, QPoint at);
    void endListForm();
    ListFormPanel* listPanel;
    ComposePanel* composePanel;
    QPushButton* composeButton;
    /// The schedule whose form is shaped, at once, where the whole set waits until nothing is edited for a moment.
    void redrawShaped();
    /// Words of a circuit are typed where they stand on its schedule; what is worked out is not.
    void editCell(CircuitId circuit, int column, QRect at);
    QLabel *stops, *proposal, *went, *paper;
    QString wanted;
    std::vector<QString> unticked;
};

} // namespace lintel
