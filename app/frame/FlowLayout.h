#pragma once
// Widgets beside one another, and on as many lines as they need: nothing scrolls sideways.

#include <QLayout>
#include <QList>
#include <QWidget>

namespace lintel {

class FlowLayout : public QLayout {
public:
    explicit FlowLayout(int spacing = 6) { setContentsMargins(0, 0, 0, 0), setSpacing(spacing); }
    ~FlowLayout() override { qDeleteAll(items); }
    void addItem(QLayoutItem* item) override { items.append(item); }
    int count() const override { return int(items.size()); }
    QLayoutItem* itemAt(int i) const override { return items.value(i); }
    QLayoutItem* takeAt(int i) override { return i >= 0 && i < items.size() ? items.takeAt(i) : nullptr; }
    Qt::Orientations expandingDirections() const override { return {}; }
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override { return place(QRect(0, 0, width, 0), false); }
    void setGeometry(const QRect& r) override { QLayout::setGeometry(r), place(r, true); }
    QSize sizeHint() const override { return minimumSize(); }
    QSize minimumSize() const override {
        QSize size;
        for (const QLayoutItem* i : items) size = size.expandedTo(i->minimumSize());
        return size;
    }

private:
    /// Line by line; returns the height that it takes.
    int place(const QRect& r, bool move) const {
        int x = r.x(), y = r.y(), line = 0;
        for (QLayoutItem* i : items) {
            const QSize size = i->sizeHint().boundedTo(QSize(std::max(40, r.width()), 10000));
            if (x > r.x() && x + size.width() > r.right() + 1) x = r.x(), y += line + spacing(), line = 0;
            if (move) i->setGeometry(QRect(QPoint(x, y), size));
            x += size.width() + spacing();
            line = std::max(line, size.height());
        }
        return y + line - r.y();
    }
    QList<QLayoutItem*> items;
};

} // namespace lintel
