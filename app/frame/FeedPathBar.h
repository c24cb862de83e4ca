#pragma once
// The feed path: from the source to whatever is selected, with amperes, fault level and volts lost on the way.

#include "app/frame/Session.h"

#include <QWidget>

namespace lintel {

class FeedPathBar : public QWidget {
    Q_OBJECT
public:
    explicit FeedPathBar(Session& session, QWidget* parent = nullptr);
    /// Each step as its three lines, as shown.
    QStringList steps() const;
    /// Where a step is on the widget.
    QRectF box(int step) const;

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;

private:
    struct Step {
        Ref thing;
        QString name, middle, drop;
        QColor dropColour;
        QRectF box;
    };
    void rebuild();
    double slid() const;
    Session& session;
    std::vector<Step> path;
    int hovered = -1;
};

} // namespace lintel
