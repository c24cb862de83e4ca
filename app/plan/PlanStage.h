#pragma once
// Plan: the modes, what can be placed, how wiring is coloured and what is shown, beside the floor.

#include "app/plan/PlanView.h"

class QComboBox;
class QListWidget;

namespace lintel {

class PlanStage : public QWidget {
    Q_OBJECT
public:
    explicit PlanStage(Session& session, QWidget* parent = nullptr);
    PlanView& plan() { return *view; }
    QListWidget* palette_() { return things; }

private:
    void rebuild();
    Session& session;
    PlanView* view;
    QComboBox* levels;
    QListWidget *modes, *things;
    QWidget* colours;
};

} // namespace lintel
