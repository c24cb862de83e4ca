#pragma once
// The floor as the designer's sheet of paper: walls and rooms drawn with snapping, devices placed and turned to the wall,
// moved, lassoed and circuited. What lies on the sheet is the core's plan drawing; only what is in the hand is drawn here.

#include "app/frame/Session.h"
#include "core/plan/Snap.h"
#include "core/sheets/Sheets.h"

#include <QPointer>
#include <QWidget>

class QComboBox;
class QFrame;
class QLabel;
class QPushButton;

namespace lintel {

enum class PlanMode { Select, Walls, Rooms, Place, Circuit, Measure };

/// What Place sets down: a device type, a board or a transformer.
struct Placing {
    enum What { Device, Board, Transformer } what = Device;
    DeviceTypeId type;
};

class PlanView : public QWidget {
    Q_OBJECT
public:
    explicit PlanView(Session& session, QWidget* parent = nullptr);

    void setLevel(LevelId level);
    LevelId level() const { return floor; }
    void setMode(PlanMode mode);
    PlanMode mode() const { return doing; }
    void setPlacing(Placing placing);
    const Placing& inHand() const { return placing; }
    void setStyle(const PlanStyle& style);
    const PlanStyle& style() const { return look; }
    void fit();

    QPointF toScreen(Point metres) const;
    Point toPlan(QPointF screen) const;
    /// The devices lassoed for a circuit, and the card that circuits them.
    const std::vector<DeviceId>& lassoed() const { return caught; }
    QFrame* circuitCard() { return card; }
    /// Circuits what is lassoed as the card says.
    void acceptCircuit();

Q_SIGNALS:
    void modeChanged(PlanMode mode);

protected:
    void paintEvent(QPaintEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    void redraw();
    Ref thingAt(QPointF at) const;
    SnapResult snapped(QPointF screen, bool toWall) const;
    void finishWalls();
    void finishRoom();
    void placeOne();
    void moveSelection(Point by, bool turn);
    void showCard();
    void previewCard();
    void deleteSelection();
    QString lengthText(double metres) const;

    Session& session;
    LevelId floor;
    PlanMode doing = PlanMode::Select;
    Placing placing;
    PlanStyle look;
    Drawing drawn;
    double scale = 30; ///< pixels a metre
    QPointF offset{40, 40}, last, pressed;
    bool fitted = true, panning = false, lasso = false, moving = false;
    Point grabbedAt, moveBy;
    SnapResult hover;
    std::vector<Point> corners;
    std::vector<DeviceId> caught;
    QFrame* card;
    QComboBox *cardBoard, *cardCircuit;
    QLabel *cardWhat, *cardEffect;
    QPushButton* cardGo;
};

} // namespace lintel
