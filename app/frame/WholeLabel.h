#pragma once
// A hint for which there may be no room: it shows its words whole, or not at all (then they are its tip).

#include <QLabel>
#include <QPainter>

namespace lintel {

class WholeLabel : public QLabel {
public:
    explicit WholeLabel(QWidget* parent = nullptr) : QLabel(parent) {
        setTextFormat(Qt::PlainText);
        setMinimumWidth(0);
        setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    }
    bool isWhole() const { return fontMetrics().horizontalAdvance(text()) <= contentsRect().width(); }

protected:
    void paintEvent(QPaintEvent* e) override {
        if (isWhole()) QLabel::paintEvent(e);
    }
};

} // namespace lintel
