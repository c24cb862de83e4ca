#include "app/issue/ComposePanel.h"

#include "app/frame/FactsPanel.h"
#include "app/frame/PaintKit.h"
#include "app/frame/Settings.h"
#include "core/base/NaturalOrder.h"
#include "core/base/TextFile.h"
#include "core/lists/ListForms.h"
#include "core/plan/Underlay.h"
#include "core/project/Equipment.h"
#include "core/sheets/BoardDiagram.h"
#include "core/sheets/TypeCard.h"

#include <QBoxLayout>
#include <QComboBox>
#include <QFileDialog>
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QShortcut>
#include <QTreeWidget>

namespace lintel {
namespace {

/// A field of notes that enters what is written when it is left.
class NotesField : public QPlainTextEdit {
public:
    NotesField(QWidget* parent, std::function<void()> whenLeft) : QPlainTextEdit(parent), left(std::move(whenLeft)) {
        setTabChangesFocus(true);
    }

protected:
    void focusOutEvent(QFocusEvent* e) override {
        QPlainTextEdit::focusOutEvent(e);
        left();
    }

private:
    std::function<void()> left;
};

constexpr int thingRole = Qt::UserRole; ///< place of an item's thing in the list; a group has none

/// Whether it can stand on one sheet only.
bool standsAlone(const ShownThing& thing, RoomId room) { return !room && thing.kind != SheetKind::Legend; }

/// The plan around a room, with its walls.
PlacedViewId placeRoom(Project& p, ComposedSheetId sheet, const ShownThing& plan, const Room& room) {
    constexpr double around = 0.6; // m
    Point from{1e9, 1e9}, to{-1e9, -1e9};
    for (Point c : room.outline) {
        from = {std::min(from.x, c.x - around), std::min(from.y, c.y - around)};
        to = {std::max(to.x, c.x + around), std::max(to.y, c.y + around)};
    }
    const PlacedViewId id = placePart(p, sheet, plan, from, to, nameOf(p, room.id) + ", enlarged");
    p.placedViews.change(id)->width = 200; // mm: it is a part, and others stand beside it
    return id;
}

} // namespace

ComposePanel::ComposePanel(Session& s, QWidget* parent)
    : QWidget(parent), session(s), sheets(new QComboBox(this)), paper(new QComboBox(this)), search(new QLineEdit(this)),
      things(new QTreeWidget(this)), trouble(new QLabel(this)), notesHead(new QLabel(tr("NOTES"), this)),
      facts(new FactsView(session, this)), notes(new NotesField(this, [this] { commitNotes(); })),
      place(new QPushButton(tr("Place"), this)), takeOff(new QPushButton(tr("Take off"), this)),
      library(new QPushButton(tr("Library"), this)), kept(new QMenu(library)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    const auto title = [&](QLabel* label) {
        label->setProperty("heading", true);
        column->addWidget(label);
    };
    title(new QLabel(tr("COMPOSED SHEET")));
    sheets->setObjectName("composeSheet");
    sheets->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    column->addWidget(sheets);
    auto* size = new QHBoxLayout;
    size->addWidget(new QLabel(tr("Paper")));
    paper->setObjectName("composePaper");
    for (const auto& [value, word] : EnumText<SheetPaper>::words) paper->addItem(tr(word));
    size->addWidget(paper, 1);
    column->addLayout(size);
    trouble->setObjectName("composeTrouble");
    trouble->setWordWrap(true);
    trouble->setTextFormat(Qt::PlainText);
    column->addWidget(trouble);

    title(new QLabel(tr("TO PLACE")));
    search->setObjectName("composeSearch");
    setFocusProxy(search); // who opens a sheet places something on it
    search->setPlaceholderText(tr("Find a schedule, plan or list"));
    search->setClearButtonEnabled(true);
    column->addWidget(search);
    things->setObjectName("composeTray");
    things->setHeaderHidden(true);
    things->setColumnCount(2);
    things->setRootIsDecorated(false);
    things->setIndentation(10);
    things->setDragEnabled(true);
    things->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    things->header()->setStretchLastSection(false);
    things->header()->setSectionResizeMode(0, QHeaderView::Stretch);
    things->header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
    things->setToolTip(tr("Enter or two clicks: put it on the sheet. Or drag it there. What stands on a composed sheet "
                          "has no sheet of its own."));
    column->addWidget(things, 1);

    facts->setObjectName("composeFacts");
    column->addWidget(facts);
    auto* notesLine = new QHBoxLayout;
    notesHead->setProperty("heading", true);
    notesLine->addWidget(notesHead, 1);
    library->setObjectName("notesLibrary");
    library->setToolTip(tr("Notes that your office keeps for every project: put them in, or keep these"));
    kept->setObjectName("notesLibraryMenu");
    library->setMenu(kept);
    connect(kept, &QMenu::aboutToShow, this, &ComposePanel::fillLibrary);
    notesLine->addWidget(library);
    column->addLayout(notesLine);
    notes->setObjectName("composeNotes");
    notes->setPlaceholderText(tr("A note a line"));
    notes->setFixedHeight(110);
    column->addWidget(notes);

    auto* tools = new QGridLayout;
    tools->setSpacing(6);
    const auto button = [&](QPushButton* b, const char* name, const QString& tip, int row, int col) {
        b->setObjectName(name);
        b->setToolTip(tip);
        tools->addWidget(b, row, col);
    };
    button(place, "composePlace", tr("Puts it in the first free place (Enter)"), 0, 0);
    button(takeOff, "composeTakeOff",
           tr("Takes the chosen view off; what it showed has a sheet of its own again (Delete)"), 0, 1);
    auto* addNote = new QPushButton(tr("Notes"));
    button(addNote, "composeAddNotes", tr("A view of notes, to be written below"), 1, 0);
    auto* addPictureButton = new QPushButton(tr("Picture…"));
    button(addPictureButton, "composeAddPicture", tr("A picture from a file"), 1, 1);
    connect(addPictureButton, &QPushButton::clicked, this, &ComposePanel::addPicture);
    auto* tidy = new QPushButton(tr("Arrange"));
    tidy->setObjectName("composeArrange");
    tidy->setToolTip(tr("All views in the first free places, in their order"));
    tools->addWidget(tidy, 2, 0);
    column->addLayout(tools);
    auto* back = new QPushButton(tr("Back"));
    back->setObjectName("composeBack");
    back->setToolTip(tr("Back to the sheets"));
    tools->addWidget(back, 2, 1);

    connect(back, &QPushButton::clicked, this, &ComposePanel::closed);
    connect(sheets, &QComboBox::activated, this, [this](int i) {
        commitNotes();
        Q_EMIT sheetChosen({sheets->itemData(i).toUInt()});
    });
    connect(paper, &QComboBox::activated, this, [this](int i) {
        const SheetPaper chosen = EnumText<SheetPaper>::words[std::size_t(i)].first;
        session.edit(tr("Paper of a sheet"), [&](Project& p) {
            if (p.composedSheets.has(sheet)) p.composedSheets.change(sheet)->paper = chosen;
        });
    });
    connect(search, &QLineEdit::textChanged, this, &ComposePanel::filter);
    connect(search, &QLineEdit::returnPressed, this, [this] { placeChosen(); });
    connect(things, &QTreeWidget::itemActivated, this, [this] { placeChosen(); });
    connect(things, &QTreeWidget::currentItemChanged, this, &ComposePanel::fillChosen);
    connect(place, &QPushButton::clicked, this, [this] { placeChosen(); });
    connect(takeOff, &QPushButton::clicked, this, &ComposePanel::takeOffChosen);
    connect(addNote, &QPushButton::clicked, this, &ComposePanel::addNotes);
    connect(tidy, &QPushButton::clicked, this, &ComposePanel::arrange);
    connect(&session, &Session::selectionChanged, this, [this] {
        if (isVisible()) fillChosen();
    });
}

void ComposePanel::show(ComposedSheetId now, const std::vector<SheetEntry>& set) {
    if (now != sheet) commitNotes();
    sheet = now;
    const ComposedSheet* s = session.project().composedSheets.find(sheet);
    if (!s) return;
    filling = true;
    sheets->clear();
    std::string troubles;
    for (const SheetEntry& e : set) {
        if (e.kind != SheetKind::Composed || e.page > 0) continue;
        sheets->addItem(q(e.number + "   " + e.title), e.about.value);
        if (e.about != Ref(sheet)) continue;
        sheets->setCurrentIndex(sheets->count() - 1);
        troubles = e.trouble;
    }
    trouble->setText(q(troubles));
    trouble->setVisible(!troubles.empty());
    trouble->setStyleSheet(QString("color: %1").arg(theme().check.name()));
    paper->setCurrentIndex(int(s->paper));
    fillTray(set);
    filling = false;
    fillChosen();
}

void ComposePanel::fillTray(const std::vector<SheetEntry>& set) {
    const Solution& now = session.solution();
    const Project& p = now.project;
    const SheetInput in = session.sheetInput(now);
    const std::optional<Item> before = chosenItem();
    const QSignalBlocker quiet(things);
    things->clear();
    shown.clear();
    const auto whereIs = [&](const ShownThing& thing) -> QString {
        const bool byView = thing.kind >= SheetKind::List; // it has no sheet of its own
        for (const SheetEntry& e : set) {
            const bool on = byView ? std::find(e.views.begin(), e.views.end(), thing) != e.views.end()
                                   : e.shows(thing.kind, thing.about);
            if (on) return e.about == Ref(sheet) ? tr("here") : q(e.number);
        }
        return byView ? QString() : tr("no sheet");
    };
    const auto group = [&](const QString& name) {
        auto* item = new QTreeWidgetItem(things, {name});
        item->setFlags(Qt::ItemIsEnabled);
        item->setForeground(0, theme().quiet);
        QFont font = things->font();
        font.setBold(true);
        item->setFont(0, font);
        item->setFirstColumnSpanned(true);
        return item;
    };
    const auto put = [&](QTreeWidgetItem* under, const ShownThing& thing, const QString& name, RoomId room = {}) {
        const QString where = standsAlone(thing, room) ? whereIs(thing) : QString();
        auto* item = new QTreeWidgetItem(under, {name, where});
        item->setData(0, thingRole, int(shown.size()));
        item->setToolTip(0, plainTip(name));
        item->setForeground(1, where == tr("here") ? theme().accent : theme().quiet);
        shown.push_back({thing, room});
        if (before == shown.back()) things->setCurrentItem(item);
    };
    std::vector<const Board*> boards;
    for (const Board& b : p.boards)
        if (!passesOn(b.use)) boards.push_back(&b);
    std::stable_sort(boards.begin(), boards.end(),
                     [](const Board* x, const Board* y) { return numberBefore(x->name, y->name); });
    auto* schedules = group(tr("Schedules"));
    for (const Board* b : boards)
        put(schedules, {SheetKind::Schedule, b->id, {}},
            q(b->name) + (b->description.empty() ? QString() : "   " + q(b->description)));
    auto* drawings = group(tr("Distribution"));
    put(drawings, {SheetKind::OneLine, {}, {}}, tr("One-line diagram"));
    put(drawings, {SheetKind::Riser, {}, {}}, tr("Riser diagram"));
    auto* diagrams = group(tr("Diagrams of boards"));
    for (const Board* b : boards)
        if (hasBoardDiagram(in, b->id)) put(diagrams, {SheetKind::Diagram, b->id, {}}, q(b->name));
    auto* plans = group(tr("Plans"));
    for (const Level& l : p.levels)
        for (PlanSystem system : planSystems(p, l.id))
            put(plans, {sheetKindOf(system), l.id, {}}, q(planTitle(p, l.id, system)));
    auto* enlarged = group(tr("Rooms of boards, enlarged"));
    for (const Room& m : p.rooms)
        if (std::any_of(p.boards.begin(), p.boards.end(),
                        [&](const Board& b) { return b.standsOn(m.level) && roomAt(p, m.level, b.at) == m.id; }))
            put(enlarged, {SheetKind::Power, m.level, {}}, q(nameOf(p, m.id)), m.id);
    auto* lists = group(tr("Lists"));
    auto* calculations = group(tr("Calculations"));
    put(lists, {SheetKind::Legend, {}, {}}, tr("Legend of symbols"));
    for (const ListKind& kind : listKinds()) {
        const List list = formedList(in, kind);
        if (list.rows.empty()) continue;
        put(kind.of == ListKind::Of::Calculations ? calculations : lists, {SheetKind::List, {}, list.key},
            q(list.title));
    }
    auto* cards = group(tr("Cut sheets"));
    for (DeviceTypeId type : typesWithCutSheet(p)) put(cards, {SheetKind::CutSheet, type, {}}, q(nameOf(p, type)));
    for (int i = things->topLevelItemCount() - 1; i >= 0; --i)
        if (things->topLevelItem(i)->childCount() == 0) delete things->takeTopLevelItem(i);
    things->expandAll();
    filter();
}

void ComposePanel::filter() {
    const QString wanted = search->text().trimmed();
    QTreeWidgetItem* first = nullptr;
    for (int i = 0; i < things->topLevelItemCount(); ++i) {
        QTreeWidgetItem* group = things->topLevelItem(i);
        bool any = false;
        for (int k = 0; k < group->childCount(); ++k) {
            QTreeWidgetItem* item = group->child(k);
            const bool fits = (group->text(0) + " " + item->text(0)).contains(wanted, Qt::CaseInsensitive);
            item->setHidden(!fits);
            any = any || fits;
            if (fits && !first) first = item;
        }
        group->setHidden(!any);
    }
    const QTreeWidgetItem* now = things->currentItem();
    if (!wanted.isEmpty() && first && (!now || now->isHidden())) things->setCurrentItem(first);
}

PlacedViewId ComposePanel::chosenView() const {
    const PlacedViewId id = session.selection().as<PlacedView>();
    const PlacedView* v = session.project().placedViews.find(id);
    return v && v->sheet == sheet ? id : PlacedViewId{};
}

std::optional<ComposePanel::Item> ComposePanel::chosenItem() const {
    const QTreeWidgetItem* item = things->currentItem();
    const int at = item && item->data(0, thingRole).isValid() ? item->data(0, thingRole).toInt() : -1;
    return at >= 0 && at < int(shown.size()) ? std::optional(shown[std::size_t(at)]) : std::nullopt;
}

void ComposePanel::fillChosen() {
    place->setEnabled(chosenItem().has_value());
    const PlacedViewId id = chosenView();
    takeOff->setEnabled(bool(id));
    facts->setVisible(bool(id));
    if (id) {
        facts->rebuild();
        facts->setFixedHeight(facts->sizeHint().height());
    }
    const PlacedView* v = session.project().placedViews.find(id);
    const bool isNotes = v && v->shows == SheetKind::Notes;
    if (notesOf && (!isNotes || notesOf != id)) commitNotes();
    notesHead->setVisible(isNotes);
    notes->setVisible(isNotes);
    library->setVisible(isNotes);
    if (!isNotes) {
        notesOf = {};
        return;
    }
    if (notesOf == id && notes->document()->isModified()) return; // being written
    notesOf = id;
    notesWere = q(v->text);
    if (notes->toPlainText() != notesWere) notes->setPlainText(notesWere);
    notes->document()->setModified(false);
}

void ComposePanel::commitNotes() {
    if (!notesOf || !notes->document()->isModified()) return;
    const QString text = notes->toPlainText();
    notes->document()->setModified(false);
    if (text == notesWere || !session.project().placedViews.has(notesOf)) return;
    notesWere = text;
    session.edit(tr("Notes on a sheet"), [&](Project& p) { p.placedViews.change(notesOf)->text = text.toStdString(); });
}

void ComposePanel::fillLibrary() {
    constexpr int shownSigns = 48;
    const char* const key = "notes/library";
    kept->clear();
    const QStringList all = settings().value(key).toStringList();
    const auto brief = [&](const QString& text) {
        return plainButton(text.size() > shownSigns ? text.left(shownSigns) + "…" : text);
    };
    for (const QString& note : all)
        kept->addAction(brief(note), this, [this, note] {
            const QString now = notes->toPlainText();
            QTextCursor at(notes->document()); // as it is typed: undone by the field, entered when it is left
            at.movePosition(QTextCursor::End);
            at.insertText((now.isEmpty() || now.endsWith('\n') ? "" : "\n") + note);
            notes->setFocus();
        });
    if (all.isEmpty()) kept->addAction(tr("Nothing is kept yet"))->setEnabled(false);
    kept->addSeparator();
    kept->addAction(tr("Keep each of these notes"), this, [this, key] {
        QStringList now = settings().value(key).toStringList();
        int fresh = 0;
        for (const QString& line : notes->toPlainText().split('\n', Qt::SkipEmptyParts))
            if (const QString note = line.trimmed(); !note.isEmpty() && !now.contains(note)) {
                now << note;
                ++fresh;
            }
        settings().setValue(key, now);
        session.say(fresh == 1 ? tr("1 note is kept for other projects.")
                               : tr("%1 notes are kept for other projects.").arg(fresh));
    });
    if (all.isEmpty()) return;
    QMenu* forget = kept->addMenu(tr("Forget"));
    for (const QString& note : all)
        forget->addAction(brief(note), this, [key, note] {
            QStringList now = settings().value(key).toStringList();
            now.removeAll(note);
            settings().setValue(key, now);
        });
}

void ComposePanel::placeChosen(std::optional<Point> at, std::size_t page) {
    const auto item = chosenItem();
    if (!item || !session.project().composedSheets.has(sheet)) return;
    commitNotes();
    session.waitSolved();
    const SheetInput in = session.sheetInput(session.solution());
    const PlacedThings there(session.project());
    const PlacedView* now = standsAlone(item->thing, item->room) ? there.find(item->thing) : nullptr;
    if (now && now->sheet == sheet && !at) {
        session.select(now->id); // it is here already
        return;
    }
    PlacedViewId placed;
    const Room* room = in.project.rooms.find(item->room);
    const QString name = room ? q(nameOf(in.project, room->id)) : q(usualViewTitle(in, item->thing));
    session.edit(tr("Place %1").arg(name), [&](Project& p) {
        placed = room ? placeRoom(p, sheet, item->thing, *room) : placeView(p, sheet, item->thing);
        if (at) moveByHand(in, p, placed, *at, page);
    });
    session.select(placed);
}

void ComposePanel::addPicture() {
    const QString file = QFileDialog::getOpenFileName(this, tr("A picture for the sheet"), {},
                                                      tr("Pictures (*.png *.jpg *.jpeg *.svg)"));
    if (file.isEmpty()) return;
    commitNotes();
    PlacedViewId placed;
    const std::string name =
        underlayName(pathFromText(file.toStdString()), session.sheetInput(session.solution()).projectFile);
    session.edit(tr("Picture on a sheet"), [&](Project& p) {
        placed = placeView(p, sheet, {SheetKind::Picture, {}, name});
    });
    session.select(placed);
}

void ComposePanel::addNotes() {
    commitNotes();
    PlacedViewId placed;
    session.edit(tr("Notes on a sheet"), [&](Project& p) { placed = placeView(p, sheet, {SheetKind::Notes, {}, {}}); });
    session.select(placed);
    notes->setFocus();
}

void ComposePanel::takeOffChosen() {
    const PlacedViewId id = chosenView();
    if (!id) return session.say(tr("Click a view on the sheet first."));
    const QString name = q(nameOf(session.project(), id));
    session.select(Ref());
    session.edit(tr("Take %1 off").arg(name), [&](Project& p) { lintel::takeOff(p, id); });
}

void ComposePanel::arrange() {
    session.edit(tr("Arrange views"), [&](Project& p) { arrangeAnew(p, sheet); });
}

} // namespace lintel
