#pragma once
// Runs: every feeder and branch run to compare, filtered, with the drop profile below.

#include "app/runs/DropProfile.h"
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

private:
    void recount();
    Session& session;
    RunsModel* runs;
    QTableView* view;
    bool following = false;
    std::vector<std::pair<RunFilter, QPushButton*>> chips;
};

} // namespace lintel
