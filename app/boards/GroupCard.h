#pragma once
// One fact of the chosen circuits, whatever board they are on: what each would come to, and what that does to the building,
// before it is done.

#include "app/frame/Background.h"
#include "app/frame/Session.h"
#include "core/check/GroupEdit.h"

#include <QFrame>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTimer;
class QTreeWidget;

namespace lintel {

class GroupCard : public QFrame {
    Q_OBJECT
public:
    explicit GroupCard(Session& session, QWidget* parent = nullptr);
    /// For these circuits; begins with this fact.
    void open(const std::vector<CircuitId>& circuits, const QString& fact = {});
    void apply();
    void drop();
    bool ready() const;
    QString effectText() const;

Q_SIGNALS:
    void closed();

protected:
    void keyPressEvent(QKeyEvent*) override;

private:
    void chooseFact();
    void preview();
    void fill();
    Session& session;
    Background* work;
    QTimer* wait;
    std::vector<CircuitId> circuits;
    std::shared_ptr<GroupEdit> plan;
    std::uint64_t serial = 0;
    QLabel *heading, *effect;
    QComboBox* fact;
    QLineEdit* value;
    QTreeWidget* list;
    QPushButton *go, *no;
};

} // namespace lintel
