#pragma once
// Names runs by a pattern: what it can say, what comes out, and for which runs.

#include "app/frame/Session.h"
#include "core/project/RunNames.h"

#include <QDialog>

class QCheckBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace lintel {

class RunNamesDialog : public QDialog {
    Q_OBJECT
public:
    explicit RunNamesDialog(Session& session, QWidget* parent = nullptr);

private:
    void look();
    void apply();
    RunNamingWanted wanted() const;
    Session& session;
    QLineEdit* pattern;
    QCheckBox *feeders, *branches, *named;
    QLabel* preview;
    QPushButton* go;
};

} // namespace lintel
