#pragma once
// The form of the schedule on the sheet, beside it: which form, for which boards, its columns, the wording of the
// chosen one with what it comes to for real circuits, and the figures that it can be made of.

#include "app/frame/Session.h"
#include "core/figures/FormEdits.h"

#include <QWidget>

class QButtonGroup;
class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QTimer;
class QToolButton;

namespace lintel {

class FormPanel : public QWidget {
    Q_OBJECT
public:
    explicit FormPanel(Session& session, QWidget* parent = nullptr);
    /// Shows the form of a board with one of its columns, −1: none.
    void show(BoardId board, int column);
    /// After every edit: what is shown may have changed.
    void refresh();
    BoardId boardShown() const { return board; }
    int column() const { return chosen; }

    void widen(int column, double byMm);
    void move(int column, int to);
    void add(const std::string& figure);
    void remove();

Q_SIGNALS:
    void columnChosen(int column);
    void closed();

private:
    const ScheduleForm* form() const;
    SheetInput input() const;
    void fillColumns();
    void fillFigures();
    void fillColumn();
    void fillReads();
    void fillFit();
    void commit(QLineEdit* editor);
    /// One edit of the form, which is first copied into the project where it is a shipped one or for this board alone.
    void change(const QString& label, const std::function<void(ScheduleForm&)>& f);
    void changeColumn(const QString& label, const std::function<void(FormColumn&)>& f);
    void pickForm(const QString& name);
    void rename();
    void takeFile();
    void writeFile();
    void insertFigure();
    QWidget* rowsPage();
    QWidget* titlePage();
    void fillTitle();
    /// A place of the title strip, as it is chosen or typed.
    void commitFact(int place, const std::function<void(FormFact&)>& f);
    void fillRows();
    void commitRows(QLineEdit* editor);
    void fillOrder(const ScheduleForm& form);

    Session& session;
    BoardId board;
    int chosen = -1, shownColumn = -1;
    bool filling = false;
    std::vector<std::string> ownColumns; ///< their headings in the project, as of the last refresh
    QString samples;                     ///< what the wording comes to for circuits of the board
    QTimer* later;
    QComboBox *forms, *scope;
    QToolButton* more;
    QListWidget *columns, *figures;
    QLineEdit *heading, *wording, *width, *search;
    QButtonGroup* align;
    QWidget* editor;
    QLabel* reads;
    QPushButton *widenButton, *removeButton;
    // Of the title strip, a fact a place.
    std::vector<QComboBox*> factBoxes;
    std::vector<QLineEdit*> labelLines;
    // Of the rows, and what stands below them.
    QLineEdit *letters, *spare, *space, *balance;
    QComboBox *rules, *sortBy, *groupBy;
    QCheckBox *backwards, *tally, *phases;
};

} // namespace lintel
