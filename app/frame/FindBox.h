#pragma once
// Find or do: one box for every object, every command, by its name or by what people call it, and every chapter of the
// guide (Ctrl+K). What it does not show it counts, and where it finds nothing it says so.

#include "app/frame/Session.h"

#include <QLineEdit>
#include <QListWidget>

class QAction;

namespace lintel {

class FindBox : public QLineEdit {
    Q_OBJECT
public:
    explicit FindBox(Session& session, QWidget* parent = nullptr);
    /// Commands offered beside the objects of the project.
    void offer(const QList<QAction*>& actions) { commands = actions; }
    /// Headings of the guide, asked for when something is first sought; one that is taken is told by `guideWanted`.
    void offerGuide(std::function<QStringList()> headings) { guideOf = std::move(headings); }
    QListWidget* results() { return list; }

Q_SIGNALS:
    void guideWanted(const QString& heading);
    void thingWanted(lintel::Ref thing);

protected:
    void keyPressEvent(QKeyEvent*) override;
    void focusOutEvent(QFocusEvent*) override;
    void focusInEvent(QFocusEvent*) override;
    void paintEvent(QPaintEvent*) override;

private:
    void search();
    void take(QListWidgetItem* item);
    struct Match {
        QString text, about;
        Ref thing;
        QAction* action;
        QString heading; ///< of the guide
    };
    /// Something of the project that can be found.
    struct Thing {
        QString name, about;
        QString folded; ///< what it answers to, in one case
        Ref ref;
        bool byAbout = true; ///< it is found by `about` too
    };
    /// What the solution shown holds, listed once for each: not at every letter.
    void listThings();
    void showList(const QString& want, int more);
    Session& session;
    QList<QAction*> commands;
    std::function<QStringList()> guideOf;
    std::optional<QStringList> guide;
    QListWidget* list;
    std::vector<Match> matches;
    std::vector<Thing> things;
    std::weak_ptr<const Solution> listed; ///< the solution that `things` are of
};

} // namespace lintel
