#pragma once
// Riser: the distribution laid out from the model, by floors or as a one-line, at a scale where it can be read. Drag a
// board onto another to feed it from there; PDF and SVG of its sheets.

#include "app/frame/DrawingView.h"
#include "core/sheets/Sheets.h"

class QPushButton;

namespace lintel {

class RiserStage : public QWidget {
    Q_OBJECT
public:
    explicit RiserStage(Session& session, QWidget* parent = nullptr);
    DrawingView& drawing() { return *view; }

protected:
    void resizeEvent(QResizeEvent*) override;
    void showEvent(QShowEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    void rebuild();
    void exportTo(bool svg);
    /// What a thing that is dragged may hang on, and what would then be.
    void dragging(Ref what, Ref over);
    Session& session;
    RiserLayout layout() const;
    DrawingView* view;
    QPushButton* byFloor = nullptr;
    QPushButton* oneLine = nullptr;
};

} // namespace lintel
