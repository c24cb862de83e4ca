#pragma once
// Steps on a board that are seen before they are done: another size, names by pattern; and the report of what is left open.

#include "app/frame/Session.h"
#include "core/project/BoardSize.h"
#include "core/project/NamePattern.h"

#include <QFrame>

class QCheckBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QTreeWidget;

namespace lintel {

/// The sizes there are, what each would leave without a place, and the smallest that holds what is in the board.
class SizeCard : public QFrame {
    Q_OBJECT
public:
    explicit SizeCard(Session& session, QWidget* parent = nullptr);
    void open(BoardId board);
    void choose(int slots);
    void apply();
    void drop();
    QListWidget* sizes() { return list; }
    QListWidget* details() { return what; }

Q_SIGNALS:
    void closed();

protected:
    void keyPressEvent(QKeyEvent*) override;

private:
    void refresh();
    Session& session;
    BoardId board;
    std::vector<Resize> plans;
    QLabel* heading;
    QListWidget *list, *what;
    QPushButton *go, *no;
};

/// What is left open: loads with no circuit, circuits with no cable, boards too small or too large. A click goes there.
class ReportCard : public QFrame {
    Q_OBJECT
public:
    explicit ReportCard(Session& session, QWidget* parent = nullptr);
    void open();
    void drop();
    QTreeWidget* lines() { return list; }

Q_SIGNALS:
    void closed();
    void circuitsWanted(); ///< for the loads that have none

protected:
    void keyPressEvent(QKeyEvent*) override;

private:
    void fill();
    Session& session;
    QLabel* heading;
    QTreeWidget* list;
    QPushButton *give, *no;
};

/// Descriptions by the naming pattern: which change, and how many that were typed stay.
class NamesCard : public QFrame {
    Q_OBJECT
public:
    explicit NamesCard(Session& session, QWidget* parent = nullptr);
    void open(BoardId board);
    void apply();
    void drop();
    QLineEdit* pattern() { return text; }

Q_SIGNALS:
    void closed();

protected:
    void keyPressEvent(QKeyEvent*) override;

private:
    void refresh();
    Project withPattern() const;
    Session& session;
    BoardId board;
    Naming naming;
    QLabel *heading, *count;
    QLineEdit* text;
    QCheckBox* everywhere;
    QTreeWidget* list;
    QPushButton *go, *no;
};

} // namespace lintel
