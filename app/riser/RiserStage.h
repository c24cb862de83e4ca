#pragma once
// Riser: the diagram laid out from the model by floors, on the screen as the sheet has it. Drag a board onto another to
// feed it from there; PDF and SVG of it.

#include "app/frame/DrawingView.h"

namespace lintel {

class RiserStage : public QWidget {
    Q_OBJECT
public:
    explicit RiserStage(Session& session, QWidget* parent = nullptr);
    DrawingView& drawing() { return *view; }

protected:
    void resizeEvent(QResizeEvent*) override;
    void showEvent(QShowEvent*) override;

private:
    void rebuild();
    void exportTo(bool svg);
    Session& session;
    DrawingView* view;
};

} // namespace lintel
