#pragma once
// One fact of the chosen circuits, whatever board they are on: what each would come to, and what that does to the
// building, before it is done.

#include "app/boards/BoardCard.h"
#include "app/frame/Background.h"
#include "core/check/GroupEdit.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QTimer;
class QTreeWidget;

namespace lintel {

class GroupCard : public BoardCard {
    Q_OBJECT
public:
    explicit GroupCard(Session& session, QWidget* parent = nullptr);
    /// For these circuits; begins with this fact.
    void open(const std::vector<CircuitId>& circuits, const QString& fact = {});
    void apply() override;
    bool ready() const;
    QString effectText() const;

protected:
    void stop() override;

private:
    void chooseFact();
    void preview();
    void fill();
    Background* work;
    QTimer* wait;
    std::vector<CircuitId> circuits;
    std::shared_ptr<GroupEdit> plan;
    std::uint64_t serial = 0;
    QLabel *heading, *effect;
    QComboBox* fact;
    QLineEdit* value;
    QTreeWidget* list;
};

} // namespace lintel
