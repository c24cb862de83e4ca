#pragma once
// The level gauge: a bull's-eye spirit level whose bubble is the imbalance phasor. Centred is level; it leans to the
// heavy phase; the rings are at 5, 10 and 20 %. The figures stand beside it, always.

#include "app/frame/Theme.h"

#include <QWidget>

#include <array>
#include <complex>

class QVariantAnimation;

namespace lintel {

class LevelGauge : public QWidget {
    Q_OBJECT
public:
    struct Reading {
        std::complex<double> lean; ///< S_a + a·S_b + a²·S_c over the total
        double imbalance = 0;      ///< %
        double neutralAmps = 0;
        int lines = 3;
        QStringList letters{"A", "B", "C"};
        QList<Ink> colours; ///< of the phases, one a letter
        QString heavy;      ///< letter of the heavy phase
        QString hint;       ///< "1 move → 2.1 %"
        bool valid = false;
        bool figures = true; ///< the words beside it
    };
    explicit LevelGauge(QWidget* parent = nullptr);
    void show(const Reading& reading);
    const Reading& reading() const { return now; }
    QSize sizeHint() const override { return {250, 132}; }

protected:
    void paintEvent(QPaintEvent*) override;

private:
    Reading now;
    QPointF bubble;
    QVariantAnimation* motion;
};

} // namespace lintel
