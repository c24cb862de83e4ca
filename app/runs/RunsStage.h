#pragma once
// Runs: every feeder and branch run to compare, filtered, with the drop and fault profiles below.

#include "app/runs/RunProfile.h"
#include "app/runs/RunsModel.h"

class QMenu;
class QTableView;
class QPushButton;

namespace lintel {

class RunsStage : public QWidget {
    Q_OBJECT
public:
    explicit RunsStage(Session& session, QWidget* parent = nullptr);
    RunsModel& model() { return *runs; }
    QTableView& table() { return *view; }
    RunProfile& profile() { return *profiles; }

    /// Writes the rows that are shown, in the columns that are, as CSV or XLSX.
    std::optional<Error> exportTo(const QString& file) const;
    /// Names of runs by a pattern.
    void askNames();

private:
    void makeTable();
    void makeMenus();
    void recount();
    void follow();
    void takeSelection();
    std::vector<RunRow> chosen() const;
    std::vector<int> chosenRows() const;
    std::vector<int> shownColumns() const;
    /// As the person wants them; else those that go with the rule book.
    void showColumns();
    void askColumns(QPoint at);
    void askRow(QPoint at);
    void addRemedies(QMenu& menu, Ref thing);
    void copy();
    void paste();
    void askExport();
    Session& session;
    RunsModel* runs;
    QTableView* view;
    RunProfile* profiles;
    bool following = false;
    std::vector<std::pair<RunFilter, QPushButton*>> chips;
};

} // namespace lintel
