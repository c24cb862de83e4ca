#pragma once
// The gate through which a set goes out: who issues what for which purpose, and what stands in the way, each of which
// is mended first or taken on by somebody by name.

#include "app/frame/Session.h"
#include "core/issue/Issues.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace lintel {

class IssueDialog : public QDialog {
    Q_OBJECT
public:
    /// `sheets`: the keys of those that are ticked.
    IssueDialog(const Session& session, std::vector<std::string> sheets, QWidget* parent = nullptr);
    IssueDraft draft() const;

private:
    void look();
    const Session& session;
    std::vector<std::string> sheets;
    std::vector<GateItem> gate;
    std::vector<QLineEdit*> takers; ///< one for each item of the gate
    QLineEdit *mark, *date, *reason, *by, *checked;
    QComboBox* state;
    QLabel* refusal;
    QPushButton* go;
};

} // namespace lintel
