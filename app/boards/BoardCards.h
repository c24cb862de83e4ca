#pragma once
// Steps on a board that are seen before they are done: another size, names by pattern; and the report of what is left
// open.

#include "app/boards/BoardCard.h"
#include "core/project/BoardSize.h"
#include "core/project/NamePattern.h"

class QCheckBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QTreeWidget;

namespace lintel {

/// The sizes there are, what each would leave without a place, and the smallest that holds what is in the board.
class SizeCard : public BoardCard {
    Q_OBJECT
public:
    explicit SizeCard(Session& session, QWidget* parent = nullptr);
    void open(BoardId board);
    void choose(int slots);
    void apply() override;
    QListWidget* sizes() { return list; }
    QListWidget* details() { return what; }

private:
    void refresh();
    BoardId board;
    std::vector<Resize> plans;
    QLabel* heading;
    QListWidget *list, *what;
};

/// What is left open: loads with no circuit, circuits with no cable, boards too small or too large. A click goes there.
class ReportCard : public BoardCard {
    Q_OBJECT
public:
    explicit ReportCard(Session& session, QWidget* parent = nullptr);
    void open();
    void apply() override { Q_EMIT circuitsWanted(); }
    QTreeWidget* lines() { return list; }

Q_SIGNALS:
    void circuitsWanted(); ///< for the loads that have none

private:
    void fill();
    QLabel* heading;
    QTreeWidget* list;
};

/// Descriptions by the naming pattern: which change, and how many that were typed stay.
class NamesCard : public BoardCard {
    Q_OBJECT
public:
    explicit NamesCard(Session& session, QWidget* parent = nullptr);
    void open(BoardId board);
    void apply() override;
    QLineEdit* pattern() { return text; }

private:
    void refresh();
    Project withPattern() const;
    BoardId board;
    Naming naming;
    QLabel *heading, *count;
    QLineEdit* text;
    QCheckBox* everywhere;
    QTreeWidget* list;
};

} // namespace lintel
