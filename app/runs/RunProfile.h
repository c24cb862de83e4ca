#pragma once
// The profiles below the table of runs: distance from the source across, one line a path. The drop profile has the
// share of the voltage lost downwards, with the limit; the fault profile the fault level upwards, with what each board
// is rated for; the profile of use how far each run's conductors are loaded. All of them for the whole building, or as
// large as the chosen path allows.

#include "app/frame/Session.h"

#include <QWidget>

class QPushButton;

namespace lintel {

class RunProfile : public QWidget {
    Q_OBJECT
public:
    enum class Of { Drop, Fault, Use };
    explicit RunProfile(Session& session, QWidget* parent = nullptr);
    void show(Of what);
    Of shown() const { return of; }
    /// Where the end of the run to a thing is drawn; nothing: it is not.
    std::optional<QPointF> endOf(Ref thing) const;
    /// What the run to a thing comes to: % or kA.
    std::optional<double> valueAt(Ref thing) const;

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;

private:
    struct Place {
        double metres = 0, value = 0; ///< value: % or kA
    };
    /// One stretch from a node to what it feeds.
    struct Stretch {
        Ref from, to;
        Place a, b;
        bool over = false;
        double rated = 0; ///< kA of the board at its end; 0: not a board
    };
    void rebuild();
    void rebuildDrop();
    void rebuildFault();
    void rebuildUse();
    /// Scales both ways to what is on the chosen path.
    void fitPath();
    QString valueWords(double value) const;
    /// Where what hangs on a circuit begins: at its board, or of a busway where it is tapped; the bars are drawn too.
    Place begin(CircuitId circuit, Place board);
    Place& placeAfter(Ref from, Ref to, Place a, const RunResult& run, double value, bool over, double rated = 0);
    QRectF field() const;
    QPointF at(const Place& p) const;
    void paintGrid(QPainter& p, const QRectF& box) const;
    void paintLimit(QPainter& p, const QRectF& box) const;
    void paintRatings(QPainter& p) const;
    void paintNames(QPainter& p, const QRectF& box) const;
    const Stretch* nearest(QPointF to) const;
    bool onPath(Ref thing) const;
    Session& session;
    QPushButton *dropButton, *faultButton, *useButton, *pathButton;
    Of of = Of::Drop;
    std::vector<Stretch> stretches;
    std::map<Ref, Place> places;
    std::vector<Ref> path; ///< from the source to what is selected, as painted
    double farthest = 1, allowed = 5, most = 5;
    const Stretch* under = nullptr; ///< the pointer
};

} // namespace lintel
