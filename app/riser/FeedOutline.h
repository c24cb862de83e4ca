#pragma once
// The outline beside the drawing of the riser: what is fed from what as a tree, how much of each is used and whether
// something is wrong with it, and below it what can be added to the thing that is chosen. The same keys, the same menu
// and the same dragging as in the drawing.

#include "app/frame/Session.h"
#include "core/sheets/RiserOverlay.h"

#include <QTreeWidget>
#include <QWidget>

#include <set>

class QLabel;

namespace lintel {

/// The tree itself: rows that hang on one another are dragged onto what is to feed them.
class FeedTree : public QTreeWidget {
    Q_OBJECT
public:
    explicit FeedTree(Session& session, QWidget* parent);
    static Ref thingOf(const QTreeWidgetItem* row);

Q_SIGNALS:
    void dropped(Ref what, Ref on, bool copy);
    /// A key that is not one of the tree's own.
    void pressed(QKeyEvent* key);

protected:
    void dragMoveEvent(QDragMoveEvent*) override;
    void dropEvent(QDropEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    Session& session;
};

class FeedOutline : public QWidget {
    Q_OBJECT
public:
    explicit FeedOutline(Session& session, QWidget* parent = nullptr);
    FeedTree& tree() { return *rows; }
    QTreeWidget& commands() { return *adding; }

protected:
    void showEvent(QShowEvent*) override;

private:
    void rebuild();
    /// Each thing with what it hangs on.
    void makeRows(std::vector<std::pair<Ref, Ref>>&& wanted);
    void fillRow(QTreeWidgetItem& row, Ref thing, SnagCount found) const;
    void follow();
    void fillCommands();
    QTreeWidgetItem* rowOf(Ref thing) const;
    Session& session;
    FeedTree* rows;
    QTreeWidget* adding;
    std::vector<std::pair<Ref, Ref>> shape; ///< what the rows were made for
    std::map<Ref, QTreeWidgetItem*> byThing;
    std::set<Ref> closed; ///< rows that somebody has closed
    bool following = false;
};

} // namespace lintel
