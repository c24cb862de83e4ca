#pragma once
// A card below the board: a step that is seen before it is done. All open in the same place, end by Drop or Esc, and
// have one button that does it.

#include "app/frame/Session.h"

#include <QFrame>

class QHBoxLayout;
class QPushButton;

namespace lintel {

class BoardCard : public QFrame {
    Q_OBJECT
public:
    /// `name`: of the card and, with "Apply" and "Cancel", of its buttons.
    BoardCard(Session& session, const QString& name, const QString& does, const QString& leaves, QWidget* parent);
    /// Does what it shows.
    virtual void apply() {}
    /// Closes it with nothing done.
    void drop();

Q_SIGNALS:
    void closed();

protected:
    void keyPressEvent(QKeyEvent*) override;
    void showEvent(QShowEvent*) override;
    /// Ends what it works out, as it is dropped.
    virtual void stop() {}
    /// The two buttons side by side, at the left.
    QHBoxLayout* buttons();

    Session& session;
    QHBoxLayout* across; ///< its layout: what one chooses, and what it comes to
    QPushButton *go, *no;
    bool enterApplies = false;
};

} // namespace lintel
