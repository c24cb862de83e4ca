#pragma once
// A rebuild that waits while nobody can see what it rebuilds, and is then done once when the widget is shown again.

#include <QEvent>
#include <QWidget>

#include <functional>

namespace lintel {

class WhenShown : public QObject {
public:
    WhenShown(QWidget* w, std::function<void()> what) : QObject(w), widget(w), rebuild(std::move(what)) {
        w->installEventFilter(this);
    }
    void poke() {
        due = !widget->isVisible();
        if (!due) rebuild();
    }

protected:
    bool eventFilter(QObject*, QEvent* e) override {
        if (e->type() == QEvent::Show && due) {
            due = false;
            rebuild();
        }
        return false;
    }

private:
    QWidget* widget;
    std::function<void()> rebuild;
    bool due = false;
};

} // namespace lintel
