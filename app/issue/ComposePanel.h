#pragma once
// What can be put on a composed sheet, beside it: schedules, diagrams, plans, lists, notes, each with the sheet on
// which it stands now; the sheet's paper; the notes of the chosen view.

#include "app/frame/Session.h"
#include "core/compose/ComposedSheet.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QMenu;
class QPlainTextEdit;
class QPushButton;
class QTreeWidget;
class QTreeWidgetItem;

namespace lintel {

class FactsView;

class ComposePanel : public QWidget {
    Q_OBJECT
public:
    explicit ComposePanel(Session& session, QWidget* parent = nullptr);
    /// Shows what can be put on this sheet; `set`: all sheets of the newest solution.
    void show(ComposedSheetId sheet, const std::vector<SheetEntry>& set);
    ComposedSheetId sheetShown() const { return sheet; }
    /// Puts what is chosen in the tray on the sheet: at a point of a page of it (mm; from 0), or in the first free
    /// place.
    void placeChosen(std::optional<Point> at = {}, std::size_t page = 0);
    void takeOffChosen();
    void arrange();
    /// What is written for the chosen notes is entered.
    void commitNotes();
    QTreeWidget& tray() { return *things; }
    FactsView& viewFacts() { return *facts; }

Q_SIGNALS:
    void closed();
    /// Another composed sheet is to be shown.
    void sheetChosen(ComposedSheetId sheet);

private:
    void fillTray(const std::vector<SheetEntry>& set);
    void filter();
    void fillChosen();
    void addNotes();
    PlacedViewId chosenView() const;
    /// What an item of the tray puts on the sheet.
    struct Item {
        ShownThing thing;
        RoomId room{}; ///< a part of the plan, around this room
        bool operator==(const Item&) const = default;
    };
    std::optional<Item> chosenItem() const;
    void addPicture();
    /// The notes that the office keeps, to be put into those at hand; and what is done with them.
    void fillLibrary();

    Session& session;
    ComposedSheetId sheet;
    std::vector<Item> shown; ///< of the tray, by the number that its items keep
    PlacedViewId notesOf;
    QString notesWere;
    bool filling = false;
    QComboBox *sheets, *paper;
    QLineEdit* search;
    QTreeWidget* things;
    QLabel *trouble, *notesHead;
    FactsView* facts; ///< of the chosen view
    QPlainTextEdit* notes;
    QPushButton *place, *takeOff, *library;
    QMenu* kept;
};

} // namespace lintel
