#pragma once
// The drop profile: distance from the source across, volts lost down, one line a path, the limit drawn.

#include "app/frame/Session.h"

#include <QWidget>

namespace lintel {

class DropProfile : public QWidget {
    Q_OBJECT
public:
    explicit DropProfile(Session& session, QWidget* parent = nullptr);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;

private:
    struct Place {
        double metres = 0, drop = 0;
    };
    /// One stretch from a node to what it feeds.
    struct Stretch {
        Ref from, to;
        Place a, b;
        bool over = false;
    };
    void rebuild();
    QPointF at(const Place& p) const;
    Session& session;
    std::vector<Stretch> stretches;
    double farthest = 1, allowed = 5, deepest = 5;
};

} // namespace lintel
