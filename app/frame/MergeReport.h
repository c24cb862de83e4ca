#pragma once
// What came of a merge: each thing that two people changed in different ways, with what it was, theirs and ours, so
// that somebody decides. Choosing a line shows the thing.

#include "app/frame/Session.h"

#include <QDialog>

namespace lintel {

class MergeReport : public QDialog {
    Q_OBJECT
public:
    MergeReport(Session& session, const Merged& merged, QWidget* parent = nullptr);
};

} // namespace lintel
