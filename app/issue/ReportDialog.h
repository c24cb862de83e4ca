#pragma once
// Which calculations go into a report: of what, and how deep.

#include "app/frame/Session.h"
#include "core/report/CalculationReport.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QLabel;

namespace lintel {

class ReportDialog : public QDialog {
    Q_OBJECT
public:
    explicit ReportDialog(const Session& session, QWidget* parent = nullptr);
    ReportOrder order() const;

private:
    const Session& session;
    QComboBox *of, *depth;
    QCheckBox* path;
    QLabel* about;
    void look();
};

} // namespace lintel
