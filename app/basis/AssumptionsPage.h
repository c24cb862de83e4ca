#pragma once
// What the results rest on, in one list for who checks: assumed, given, held and own values, what each would be
// otherwise, and which of them hide something worse. A click leads to the thing.

#include "app/frame/Session.h"

#include <QWidget>

class QLineEdit;
class QListWidget;
class QPushButton;

namespace lintel {

class AssumptionsPage : public QWidget {
    Q_OBJECT
public:
    explicit AssumptionsPage(Session& session, QWidget* parent = nullptr);
    QListWidget* rows() { return list; }
    /// The list as a PDF.
    std::optional<Error> print(const QString& file);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void rebuild();
    void mark(bool seen);
    QStringList chosenMarks() const; ///< "A1", "H3": of the lines that are selected

    Session& session;
    QListWidget* list;
    QPushButton *all, *worse;
    QLineEdit *filter, *initials = nullptr;
};

} // namespace lintel
