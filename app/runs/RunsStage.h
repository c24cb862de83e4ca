#pragma once
// Runs: every feeder and branch run to compare, filtered, with the drop and fault profiles below.

#include "app/runs/RunProfile.h"
#include "app/runs/RunsModel.h"

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

private:
    void recount();
    Session& session;
    RunsModel* runs;
    QTableView* view;
    RunProfile* profiles;
    bool following = false;
    std::vector<std::pair<RunFilter, QPushButton*>> chips;
};

} // namespace lintel
