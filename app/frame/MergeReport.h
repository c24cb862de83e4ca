#pragma once
// What came of a merge: each thing that two people changed in different ways, with what it was, theirs and ours, so
// that somebody decides. Choosing a value takes it, in one step that undoes; choosing a line shows the thing.

#include "app/frame/Session.h"
#include "core/compare/MergeDecision.h"

#include <QDialog>

class QLabel;
class QTreeWidget;
class QTreeWidgetItem;

namespace lintel {

class MergeReport : public QDialog {
    Q_OBJECT
public:
    MergeReport(Session& session, const Merged& merged, QWidget* parent = nullptr);

private:
    bool eventFilter(QObject* watched, QEvent* event) override; ///< the space bar takes the value it stands at
    /// Takes the value of a column; nothing for a column that is none, and where there is nothing to choose.
    void take(QTreeWidgetItem* row, int column);
    void takeAll(MergeSide side);
    /// Which side the project has by now: also after an undo, or an edit elsewhere.
    void refresh();

    Session& session;
    std::vector<MergeConflict> conflicts;
    QTreeWidget* list;
    QLabel* refusal;
};

} // namespace lintel
