#pragma once
// The floor as the designer's sheet of paper: the building drawn with snapping, things placed and turned to the wall,
// moved, lassoed and circuited, trays and catchments drawn, underlays laid right. What lies on the sheet is the canvas'
// picture of the core's plan drawing; only what is in the hand is drawn here.

#include "app/plan/PlanCanvas.h"
#include "core/plan/FindRooms.h"
#include "core/plan/Snap.h"

#include <QPointer>
#include <QWidget>

class QComboBox;
class QFrame;
class QLabel;
class QPushButton;

namespace lintel {

class PreviewCard;

enum class PlanMode { Select, Walls, Rooms, Place, Circuit, Trays, Catchments, Trace, Underlay, Measure };
inline constexpr int planModes = 10;
/// What the circuit card stands for when devices are to be taken off their circuits.
inline constexpr CircuitId offCircuit{0xFFFFFFFFu};

/// What Place sets down.
struct Placing {
    enum What { Device, Board, Transformer, Opening, Furnishing, Note } what = Device;
    DeviceTypeId type;
    OpeningKind opening = OpeningKind::Door;
    FurnishingKind furnishing = FurnishingKind::Desk;
    Ref standing{};     ///< a board or transformer that is there already and stands on no plan yet; nothing: a new one
    std::string note{}; ///< what a keyed note says
    bool operator==(const Placing&) const = default;
};
/// How devices are set down: one, in a row between two points, along a wall, or as a grid in a room.
enum class PlaceHow { Single, Row, Wall, Grid, GridSpacing, GridLux, GridLoad };
/// What two clicks do to the underlay.
enum class UnderlayHand { None, Move, Scale, Square, Crop };

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
    /// What a keyed note says that is set down next.
    void setNote(std::string text) { placing.note = std::move(text); }
    void setHow(PlaceHow how) { placeHow = how, corners.clear(), update(); }
    PlaceHow how() const { return placeHow; }
    double spacing = 3;  ///< m, of rows, along walls and of grids
    double target = 300; ///< lux, or W/m², of grids to a target
    int gridRows = 2, gridColumns = 2;
    void setUnderlayHand(UnderlayHand hand, UnderlayId underlay);
    UnderlayHand underlayHand() const { return hand; }
    void setStyle(const PlanStyle& style);
    const PlanStyle& style() const { return look; }
    void fit();
    void wantFit();
    /// Moves the floor until one of these places is in sight; one that is already moves nothing.
    void bringIntoView(const std::vector<Point>& places);

    QPointF toScreen(Point metres) const;
    Point toPlan(QPointF screen) const;
    /// Waits for the picture of what is there now.
    void settle() { canvas->settle(); }
    /// The devices lassoed for a circuit, and the card that circuits them.
    const std::vector<DeviceId>& lassoed() const { return caught; }
    QFrame* circuitCard() { return card; }
    PreviewCard* preview() { return previewing; }
    /// Circuits what is lassoed as the card says.
    void acceptCircuit();

    // ---- larger steps, each shown first ----
    void previewRooms();
    void previewRoomsFrom(UnderlayId underlay, const std::string& layer);
    void previewRecipes(const std::string& kind);
    void previewCircuiting(bool proposeBoards);
    void previewBundles(BoardId board, bool shareNeutrals);
    void copySelection();
    void pasteAtHand();
    void mirrorSelection(bool upright);
    void turnSelection(double degrees);
    void arraySelection(int columns, int rows, double stepX, double stepY);

Q_SIGNALS:
    void modeChanged(PlanMode mode);
    void underlayHandChanged();

protected:
    void paintEvent(QPaintEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void showEvent(QShowEvent*) override; ///< paints what has changed while another stage was shown

private:
    PlanSight sight() const { return {scale, offset, size()}; }
    void redraw();
    /// Paints a project that is not there yet, until the preview is closed.
    void showTrial(Project trial);
    void offerRooms(const FoundRooms& found, const QString& title, const QString& none);
    void rebuildUnderlays();
    void paintHand(QPainter& painter);
    Ref thingAt(QPointF at) const;
    SnapResult snapped(QPointF screen, bool toWall);
    bool drawsPath() const;
    void paintScaleBar(QPainter& p) const;
    void paintBeginning(QPainter& p) const;
    void finishPath();
    void finishWalls();
    void finishRoom();
    void finishTray();
    void finishCatchment();
    void finishTrace();
    void takeUnderlayPoint();
    void typeLength(QKeyEvent* e);
    bool takeTyped();
    void placeOne();
    void placeDevices(const std::vector<SnapResult>& spots);
    void moveSelection(Point by, bool turn);
    void moveWallEnd(Point from, Point to);
    void showCard();
    void previewCard();
    void deleteSelection();
    QString lengthText(double metres) const;
    static QString hintOf(PlanMode mode);

    Session& session;
    PlanCanvas* canvas;
    LevelId floor;
    PlanMode doing = PlanMode::Select;
    Placing placing;
    PlaceHow placeHow = PlaceHow::Single;
    UnderlayHand hand = UnderlayHand::None;
    UnderlayId handUnderlay;
    PlanStyle look;
    std::shared_ptr<const std::vector<PlanScene::Layer>> layers;
    std::vector<std::pair<Point, Point>> underlayLines; ///< to snap to
    /// What `layers` were made from: they are made anew only when one of these has changed.
    struct LayersFrom {
        std::vector<std::pair<Underlay, std::shared_ptr<const UnderlayContent>>> from;
        std::size_t differences = 0;
        QRgb paper = 0;
        bool operator==(const LayersFrom&) const = default;
    } layersMade;
    double scale = 30; ///< pixels a metre
    QPointF offset{40, 40}, last, pressed;
    bool refit = true; ///< the whole floor is to be brought in sight when it is drawn next
    bool fitted = true, panning = false, lasso = false, moving = false;
    Point grabbedAt, moveBy;
    std::optional<Point> wallEnd; ///< the end of a wall in the hand
    SnapResult hover;
    Alignment aligned;
    std::vector<Point> corners;
    QString typed; ///< a length typed while drawing
    std::vector<Ref> clipboard;
    std::vector<DeviceId> caught;
    QFrame* card;
    PreviewCard* previewing;
    QComboBox *cardBoard, *cardCircuit;
    QLabel *cardWhat, *cardEffect;
    QPushButton* cardGo;
};

} // namespace lintel

Q_DECLARE_METATYPE(lintel::Placing)
