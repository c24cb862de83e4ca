#pragma once
// A capacitor bank for a board: what power factor is wanted, and what that comes to.

#include "app/frame/Session.h"

#include <QDialog>

class QLabel;
class QLineEdit;
class QPushButton;

namespace lintel {

class CapacitorDialog : public QDialog {
    Q_OBJECT
public:
    CapacitorDialog(Session& session, BoardId board, QWidget* parent = nullptr);

private:
    void look();
    void add();
    Session& session;
    const BoardId board;
    double bank = 0; ///< kvar; 0: none can be added
    QLineEdit* wanted;
    QLabel *labels, *values, *caution;
    QPushButton* go;
};

} // namespace lintel
