#pragma once
// Two small tables over the plan: what a room recipe gives, and which loads each board of a catchment takes. Every
// change of a cell is one edit, at once.

#include "app/frame/Session.h"

#include <QFrame>

class QHBoxLayout;
class QLabel;
class QTableWidget;

namespace lintel {

/// A card at the lower edge of the plan with a title, a table and a row of buttons.
class TableCard : public QFrame {
    Q_OBJECT
public:
    TableCard(Session& session, QWidget* parent, const char* name);
    QTableWidget* table() { return grid; }

protected:
    void keyPressEvent(QKeyEvent*) override; ///< Escape closes it
    void place();
    Session& session;
    QLabel* heading;
    QTableWidget* grid;
    QHBoxLayout* buttons;
    bool filling = false;
};

class RecipeCard : public TableCard {
    Q_OBJECT
public:
    RecipeCard(Session& session, QWidget* parent);
    /// Shows the recipe of a kind of room; a kind without one begins an empty recipe with the first part that is added.
    void show(const std::string& kind);
    const std::string& kind() const { return roomKind; }

private:
    void fill();
    void addPart();
    void removePart();
    const Recipe* recipe() const;
    void change(const QString& label, const std::function<void(Recipe&)>& what);
    std::string roomKind;
};

class MatrixCard : public TableCard {
    Q_OBJECT
public:
    MatrixCard(Session& session, QWidget* parent);
    void show(CatchmentId catchment);

private:
    void fill();
    CatchmentId id;
    std::vector<BoardId> boards;
    std::vector<LoadKind> kinds;
};

} // namespace lintel
