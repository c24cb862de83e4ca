#pragma once
// The picture of a floor, painted away from the interface: panning and zooming show the last picture moved and
// stretched at once, and a sharp one follows. So a frame costs the same however much is on the floor.

#include "app/frame/Session.h"
#include "core/sheets/Sheets.h"
#include "render/Painter.h"

#include <QImage>
#include <QObject>
#include <QThreadPool>

namespace lintel {

/// What a floor is painted from: all of it may be read from another thread.
struct PlanScene {
    std::shared_ptr<const Solution> solution;
    LevelId level;
    PlanStyle style;
    struct Layer {                 ///< an underlay, ready to paint
        std::vector<QLineF> lines; ///< m
        std::vector<QRgb> colours; ///< one for each line
        std::vector<DxfDrawing::Text> texts;
        QImage picture;
        UnderlayPlacing at;
        std::optional<QRectF> crop;
        double fade = 0;
        std::vector<QLineF> added, gone; ///< what changed in its file since it was linked
    };
    std::shared_ptr<const std::vector<Layer>> underlays;
    Palette palette;
    QColor paper, ink, accent, stop;
};

/// Where the view stands: pixels a metre, and where zero lies.
struct PlanSight {
    double scale = 30;
    QPointF offset;
    QSize size;
    bool operator==(const PlanSight&) const = default;
};

/// Marks and letters keep a size that can be read, whatever the zoom.
PlanStyle styleAt(PlanStyle style, double scale);
/// Paints the underlays below a drawing. Lines outside the picture, or too short to be seen, are left out.
void paintUnderlays(QImage& image, const PlanScene& scene, const PlanSight& sight);
/// The whole picture of a scene, and the drawing that it shows.
QImage paintScene(const PlanScene& scene, const PlanSight& sight, Drawing& drawn);

class PlanCanvas : public QObject {
    Q_OBJECT
public:
    explicit PlanCanvas(QObject* parent);
    ~PlanCanvas() override;
    void setScene(PlanScene scene);
    /// Asks for a picture of this view when the newest is not of it.
    void look(const PlanSight& sight);
    /// The newest picture, moved and stretched to the sight.
    void paint(QPainter& painter, const PlanSight& sight) const;
    /// What the newest picture shows, with its hotspots.
    const Drawing& drawing() const { return *shown; }
    bool settled() const { return !busy && !wanted; }
    /// Waits for the newest picture: before a click is looked up, and in tests.
    void settle(int milliseconds = 3000);

Q_SIGNALS:
    void painted();

private:
    void start();
    struct Job {
        PlanScene scene;
        PlanSight sight;
    };
    PlanScene scene;
    PlanSight sight;
    std::optional<Job> wanted;
    bool busy = false;
    QImage picture;
    PlanSight pictureSight;
    std::shared_ptr<const Drawing> shown = std::make_shared<Drawing>();
    QThreadPool pool;
};

} // namespace lintel
