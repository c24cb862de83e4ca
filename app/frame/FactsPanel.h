#pragma once
// The right side of the window: the level gauge of the board at hand, the facts of what is selected, and its workings.

#include "app/frame/Facts.h"
#include "app/frame/LevelGauge.h"

#include <QPointer>
#include <QScrollArea>
#include <QWidget>

class QLabel;

namespace lintel {

/// The rows of facts and the steps of the workings, painted; a click on an entered value edits it in place.
class FactsView : public QWidget {
    Q_OBJECT
public:
    explicit FactsView(Session& session, QWidget* parent = nullptr);
    const Facts& facts() const { return shown; }
    const Working& working() const { return why; }
    /// Begins editing a row, as a click does; false when it was not entered by a person.
    bool editRow(const QString& label);
    QSize sizeHint() const override;
    void rebuild();

Q_SIGNALS:
    /// A key that means nothing to facts while none is edited: a tool of the plan, the next circuit of a board.
    void keyForStage(QKeyEvent* key);

protected:
    void keyPressEvent(QKeyEvent*) override;
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void contextMenuEvent(QContextMenuEvent*) override;
    bool eventFilter(QObject*, QEvent*) override;

private:
    void layOut();
    void startEdit(int row);
    void typeInstead(const FactRow& row, int at);
    bool takeEdit();
    int rowOf(const QString& label) const;
    QRect editBox(int row) const;
    Session& session;
    Facts shown;
    Working why;
    bool more = false; ///< all facts, also those that say only what is usual
    QString toggle;
    QRectF toggleBox;
    std::vector<QRectF> rowBoxes;
    std::vector<QRectF> stepBoxes;
    double workingsTop = 0, total = 100;
    int hovered = -1;
    QPointer<QWidget> editor;
    Ref editedThing; ///< what is being edited, and which of its facts
    QString editedLabel;
};

class FactsPanel : public QWidget {
    Q_OBJECT
public:
    explicit FactsPanel(Session& session, QWidget* parent = nullptr);
    FactsView& view() { return *facts; }
    LevelGauge& gauge() { return *level; }

private:
    void rebuild();
    Session& session;
    LevelGauge* level;
    FactsView* facts;
    QScrollArea* scroll;
};

/// The gauge's reading of a board, with the hint of what one move would do.
LevelGauge::Reading gaugeReading(const Solution& solution, BoardId board, bool withHint);

} // namespace lintel
