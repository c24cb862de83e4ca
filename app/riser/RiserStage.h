#pragma once
// Riser: the distribution laid out from the model, by floors or as a one-line, at a scale where it can be read; one
// board as a diagram with all its circuits; and overlays that say one thing of all. Drag a board onto another to feed
// it from there; PDF and SVG of what is shown.

#include "app/frame/Background.h"
#include "app/frame/DrawingView.h"
#include "app/riser/FeedOutline.h"
#include "core/sheets/Sheets.h"

class QComboBox;
class QLabel;
class QPushButton;

namespace lintel {

class RiserStage : public QWidget {
    Q_OBJECT
public:
    explicit RiserStage(Session& session, QWidget* parent = nullptr);
    DrawingView& drawing() { return *view; }
    /// Whether what is shown is of the newest solution: a very large distribution follows after a moment.
    bool isCurrent() const { return !work->busy(); }
    FeedOutline& outline() { return *tree; }
    enum class Format { Pdf, Svg, Dxf };
    /// What is shown, on its sheets; the names of the files that were written.
    Outcome<QStringList> exportTo(Format format, const QString& file);

protected:
    bool eventFilter(QObject* of, QEvent* e) override;
    void showEvent(QShowEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    void rebuild();
    /// Riser or one-line: at once, or beside the window where there is much of it, and the last one stays until then.
    void drawRiser(double width);
    void askExport(Format format);
    /// What a thing that is dragged may hang on, and what would then be.
    void dragging(Ref what, Ref over);
    void draggingBeside(Ref what, Point mm);
    /// Feeds it from there, or a copy of it.
    void drop(Ref what, Ref on, bool copy);
    /// Behind which of those beside it a thing would stand that is dropped there: nothing, before all; none, the place
    /// is beside none of them.
    std::optional<Ref> behindAt(Ref what, Point mm) const;
    /// Whether what is dragged is to be copied.
    bool copying() const;
    bool moveByKey(QKeyEvent* e);
    /// Steps or mm that a grip comes to where it is moved so far down.
    int stepsOf(const GripSpot& grip, double mm) const;
    double liftOf(const GripSpot& grip, double mm) const;
    void gripMoving(const GripSpot& grip, double mm);
    void gripMoved(const GripSpot& grip, double mm);
    /// Whether the words of its feeder stand beside an upright line, where they can be moved along it.
    bool wordsMove(Ref thing) const;
    Session& session;
    RiserLayout layout() const;
    /// The board whose diagram is shown: the one that is chosen, or of the circuit that is; nothing: there is none.
    BoardId boardShown() const;
    QString takesNothing(Ref circuit) const;
    void fillOverlays();
    RiserShow shown();
    /// What has changed since an issue, for the overlay.
    void addChanges(RiserShow& show, IssueId issue);
    std::unique_ptr<Solution> issued; ///< of that issue, while it is compared with
    IssueId issuedAs;
    BoardId drawn; ///< the board whose diagram was drawn last
    /// How the rows of the drawing follow one another; nothing: by floor and one-line not drawn yet.
    std::optional<std::size_t> rows[2];
    Background* work;
    DrawingView* view;
    FeedOutline* tree;
    QPushButton* byFloor = nullptr;
    QPushButton* oneLine = nullptr;
    QPushButton* oneBoard = nullptr;
    QComboBox* overlays = nullptr;
    QLabel* hint = nullptr;
};

} // namespace lintel
