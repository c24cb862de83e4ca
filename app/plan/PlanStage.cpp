#include "app/plan/PlanStage.h"

#include "app/frame/Counted.h"
#include "app/frame/Facts.h"
#include "app/frame/PaintKit.h"
#include "app/frame/UnderlayShelf.h"
#include "app/frame/WhenShown.h"
#include "app/plan/PlanCards.h"
#include "core/base/Typed.h"
#include "core/figures/Words.h"
#include "core/plan/KeyedNotes.h"
#include "core/plan/LoadDensity.h"
#include "core/plan/PlacesOf.h"

#include <QBoxLayout>
#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QRadioButton>
#include <QScrollArea>
#include <QSlider>
#include <QSpinBox>
#include <QStackedWidget>
#include <QStyledItemDelegate>

namespace lintel {
namespace {

/// A mode with its key at the right; a heading where the row has no data.
class ModeDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {100, 24}; }
    void paint(QPainter* p, const QStyleOptionViewItem& o, const QModelIndex& i) const override {
        const Theme& t = theme();
        if (!(i.flags() & Qt::ItemIsSelectable))
            return drawLine(*p, QRectF(o.rect).adjusted(14, 4, 0, 0), i.data().toString(), Qt::AlignLeft, t.quiet,
                            uiFont(0.78, true));
        const bool on = o.state & QStyle::State_Selected;
        if (on) {
            p->fillRect(o.rect, t.accentWash);
            p->fillRect(QRect(o.rect.left(), o.rect.top(), 3, o.rect.height()), t.accent);
        } else if (o.state & QStyle::State_MouseOver) {
            p->fillRect(o.rect, t.sunk);
        }
        drawLine(*p, QRectF(o.rect).adjusted(14, 0, i.data(Qt::UserRole).toString().isEmpty() ? -6 : -30, 0),
                 i.data().toString(), Qt::AlignLeft, on ? t.accent : t.ink, uiFont(0.95, on));
        drawLine(*p, QRectF(o.rect).adjusted(0, 0, -14, 0), i.data(Qt::UserRole).toString(), Qt::AlignRight, t.quiet,
                 uiFont(0.88));
    }
};

QLabel* heading(const QString& text) {
    auto* l = new QLabel(text);
    l->setProperty("heading", true);
    l->setContentsMargins(14, 8, 0, 2);
    return l;
}
QWidget* inset(QWidget* w) {
    auto* box = new QWidget;
    auto* row = new QHBoxLayout(box);
    row->setContentsMargins(12, 1, 12, 1);
    row->addWidget(w);
    return box;
}
QVBoxLayout* pageLayout(QWidget* page) {
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(3);
    return column;
}
QPushButton* button(const QString& text, const char* name, const QString& tip = {}) {
    auto* b = new QPushButton(text);
    b->setObjectName(name);
    b->setToolTip(tip);
    b->setFocusPolicy(Qt::NoFocus);
    return b;
}

} // namespace

PlanStage::PlanStage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), view(new PlanView(s, this)), levels(new QComboBox(this)),
      modes(new QListWidget(this)), things(new QListWidget(this)), pages(new QStackedWidget(this)),
      recipes(new RecipeCard(s, view)), matrix(new MatrixCard(s, view)) {
    setFocusProxy(view);
    auto* across = new QHBoxLayout(this);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(0);
    auto* side = new QWidget(this);
    side->setFixedWidth(184);
    auto* left = new QVBoxLayout(side);
    left->setContentsMargins(0, 8, 0, 8);
    left->setSpacing(2);
    left->addWidget(inset(levels));
    levels->setObjectName("levels");
    modes->setItemDelegate(new ModeDelegate(modes));
    modes->setObjectName("planModes");
    modes->setMouseTracking(true);
    for (const auto& [name, key] : {std::pair{"Select", "V"},
                                    {"Walls", "W"},
                                    {"Rooms", "R"},
                                    {"Place", "P"},
                                    {"Circuit", "C"},
                                    {"Trays", "T"},
                                    {"Catchments", "K"},
                                    {"Trace", "G"},
                                    {"Underlay", "U"},
                                    {"Measure", "M"}}) {
        auto* i = new QListWidgetItem(tr(name), modes);
        i->setData(Qt::UserRole, key);
    }
    modes->setFixedHeight(planModes * 24 + 2);
    modes->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    left->addWidget(modes);
    for (QWidget* page : {lookPage(), placePage(), roomsPage(), circuitPage(), catchmentPage(), underlayPage()}) {
        auto* scroll = new QScrollArea;
        scroll->setWidget(page);
        scroll->setWidgetResizable(true);
        scroll->setFrameShape(QFrame::NoFrame);
        scroll->setFocusPolicy(Qt::NoFocus);
        scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        pages->addWidget(scroll);
    }
    left->addWidget(pages, 1);
    across->addWidget(side);
    across->addWidget(view, 1);
    connect(modes, &QListWidget::currentRowChanged, this, [this](int row) {
        if (row >= 0 && row != int(view->mode())) view->setMode(PlanMode(row));
        view->setFocus();
    });
    connect(view, &PlanView::modeChanged, this, [this](PlanMode m) {
        static constexpr int pageOf[planModes] = {0, 0, 2, 1, 3, 0, 4, 0, 5, 0};
        pages->setCurrentIndex(pageOf[int(m)]);
        QSignalBlocker quiet(modes);
        modes->setCurrentRow(int(m));
        if (m != PlanMode::Rooms) recipes->hide();
        if (m != PlanMode::Catchments) matrix->hide();
        if (m != PlanMode::Place) return;
        // The palette shows what is in the hand; with nothing there yet, the first of the list is taken.
        for (int i = 0; i < things->count(); ++i)
            if (things->item(i)->data(Qt::UserRole + 1).value<Placing>() == view->inHand() &&
                things->item(i)->flags() & Qt::ItemIsSelectable) {
                QSignalBlocker q2(things);
                return things->setCurrentRow(i);
            }
        for (int i = 0; i < things->count(); ++i)
            if (things->item(i)->flags() & Qt::ItemIsSelectable) return things->setCurrentRow(i);
    });
    connect(levels, &QComboBox::activated, this, [this] {
        view->setLevel(LevelId{levels->currentData().toUInt()});
        session.select(view->level()); // its facts: name, height, elevation
        rebuild();
    });
    connect(&session, &Session::opened, this, &PlanStage::rebuild);
    connect(&session, &Session::solved, new WhenShown(this, [this] { rebuild(); }), &WhenShown::poke);
    connect(&session.underlays(), &UnderlayShelf::changed, this, &PlanStage::rebuildUnderlays);
    // Not what a project begins with: nobody has chosen that yet.
    auto* follow = new WhenShown(this, [this] { followSelection(); });
    connect(&session, &Session::opened, this, [this] { begins = true; });
    connect(&session, &Session::selectionChanged, this, [this, follow] {
        if (std::exchange(begins, false)) begunWith = session.selectionList();
        if (session.selectionList() == begunWith) return;
        begunWith.clear();
        follow->poke();
    });
    for (QListWidget* list : {modes, things, kinds, catchments, underlays, layers})
        list->setFocusPolicy(Qt::NoFocus); // keys stay with the floor
    modes->setCurrentRow(0);
}

QWidget* PlanStage::lookPage() {
    auto* page = new QWidget;
    auto* column = pageLayout(page);
    column->addWidget(heading(tr("COLOUR BY")));
    auto* group = new QButtonGroup(this);
    for (const auto& [name, colour] : {std::pair{"Circuit", PlanColour::Circuit},
                                       {"Board", PlanColour::Board},
                                       {"Phase", PlanColour::Phase},
                                       {"Drop", PlanColour::Drop}}) {
        auto* r = new QRadioButton(tr(name));
        r->setObjectName(QString("colour:%1").arg(name));
        r->setStyleSheet("margin-left: 14px");
        r->setChecked(colour == PlanColour::Circuit);
        group->addButton(r);
        column->addWidget(r);
        connect(r, &QRadioButton::toggled, this, [this, colour = colour](bool on) {
            if (!on) return;
            PlanStyle style = view->style();
            style.colour = colour;
            view->setStyle(style);
        });
    }
    column->addWidget(heading(tr("SHOW")));
    for (const auto& [name, member] : {std::pair{"Underlay", &PlanStyle::underlay},
                                       {"Furniture", &PlanStyle::furniture},
                                       {"Lighting", &PlanStyle::lighting},
                                       {"Power", &PlanStyle::power},
                                       {"Wiring", &PlanStyle::wiring},
                                       {"Tags", &PlanStyle::tags},
                                       {"Trays", &PlanStyle::trays},
                                       {"Room names", &PlanStyle::roomNames},
                                       {"Catchments", &PlanStyle::catchments},
                                       {"Load density", &PlanStyle::density}}) {
        auto* c = new QCheckBox(tr(name));
        c->setObjectName(QString("show:%1").arg(name));
        c->setStyleSheet("margin-left: 14px");
        c->setChecked(view->style().*member);
        column->addWidget(c);
        shows.push_back(c);
        connect(c, &QCheckBox::toggled, this, [this, member = member](bool on) {
            PlanStyle style = view->style();
            style.*member = on;
            view->setStyle(style);
            rebuild();
        });
    }
    density = new QLabel;
    asRich(density);
    density->setObjectName("floorDensity");
    density->setContentsMargins(14, 2, 4, 2);
    density->setFont(uiFont(0.8));
    column->addWidget(density);
    column->addWidget(heading(tr("ARRAY OF WHAT IS CHOSEN")));
    auto* array = new QLineEdit;
    array->setObjectName("arrayOf");
    arrayOf = array;
    array->setToolTip(tr("Columns × rows, and the steps between them; Enter"));
    column->addWidget(inset(array));
    connect(array, &QLineEdit::returnPressed, this, [this, array] {
        static const QRegularExpression form(R"(^\s*(\d+)\s*[x×]\s*(\d+)\s*(?:at)?\s+(.+?)\s*[x×]\s*(.+)$)");
        const auto m = form.match(array->text());
        const UnitSystem units = session.project().basis.units;
        const auto dx = metresFrom(m.captured(3), units), dy = metresFrom(m.captured(4), units);
        if (!m.hasMatch() || !dx || !dy)
            return session.say(tr("“%1” is not an array; type 3 × 2 at 2.4 m × 3 m").arg(array->text()), true);
        view->arraySelection(m.captured(1).toInt(), m.captured(2).toInt(), *dx, *dy);
        view->setFocus();
    });
    column->addStretch(1);
    return page;
}

QWidget* PlanStage::placePage() {
    auto* page = new QWidget;
    auto* column = pageLayout(page);
    things->setObjectName("palette");
    things->setItemDelegate(new ModeDelegate(things));
    things->setMouseTracking(true);
    column->addWidget(things, 1);
    typeButtons = new QWidget;
    auto* two = new QHBoxLayout(typeButtons);
    two->setContentsMargins(12, 0, 12, 0);
    two->setSpacing(3);
    auto* facts = button(tr("Type"), "typeFacts", tr("The facts of the chosen type: every device of it follows"));
    auto* fresh = button(tr("New type"), "typeNew", tr("A type like the chosen one"));
    two->addWidget(facts);
    two->addWidget(fresh);
    column->addWidget(typeButtons);
    connect(facts, &QPushButton::clicked, this, [this] {
        if (view->inHand().what == Placing::Device && session.project().deviceTypes.has(view->inHand().type))
            session.select(view->inHand().type);
        else
            session.say(tr("Choose a type of device in the list"), true);
    });
    connect(fresh, &QPushButton::clicked, this, [this] {
        DeviceTypeId made;
        session.edit(tr("Add type of device"), [&](Project& p) {
            DeviceType y;
            if (view->inHand().what == Placing::Device && p.deviceTypes.has(view->inHand().type))
                y = p.deviceTypes[view->inHand().type];
            y.id = {};
            y.mark.clear(); // one mark names one type
            std::string name = y.name.empty() ? "New type" : y.name;
            while (std::any_of(p.deviceTypes.begin(), p.deviceTypes.end(),
                               [&](const DeviceType& o) { return o.name == name; }))
                name += " (new)";
            y.name = name;
            made = p.deviceTypes.add(y);
        });
        Placing x;
        x.type = made;
        view->setPlacing(x);
        session.select(made);
    });
    note = new QPlainTextEdit;
    note->setObjectName("noteText");
    note->setPlaceholderText(tr("What the note says; then click where it points"));
    note->setToolTip(tr("What is said already on this floor keeps its number"));
    note->setTabChangesFocus(true);
    note->setFixedHeight(84);
    note->hide();
    column->addWidget(inset(note));
    connect(note, &QPlainTextEdit::textChanged, this,
            [this] { view->setNote(note->toPlainText().simplified().toStdString()); });
    how = new QComboBox;
    how->setObjectName("placeHow");
    how->addItems({tr("one by one"), tr("in a row"), tr("along a wall"), tr("grid by count"), tr("grid by spacing"),
                   tr("grid to lux"), tr("grid to load")});
    how->setFocusPolicy(Qt::NoFocus);
    column->addWidget(inset(how));
    auto* numbers = new QWidget;
    auto* row = new QHBoxLayout(numbers);
    row->setContentsMargins(12, 1, 12, 1);
    spacing = new QLineEdit;
    spacing->setObjectName("placeSpacing");
    spacing->setToolTip(tr("Spacing of a row or along a wall: 12 ft, 3.5 m"));
    rows = new QSpinBox, columns = new QSpinBox;
    rows->setObjectName("placeRows"), columns->setObjectName("placeColumns");
    for (QSpinBox* b : {rows, columns}) b->setRange(1, 100), b->setValue(2);
    target = new QLineEdit;
    target->setObjectName("placeTarget");
    target->setToolTip(tr("What the grid is to reach in each room: lux, or W/m² (VA/ft²)"));
    row->addWidget(spacing, 1);
    row->addWidget(target, 1);
    row->addWidget(rows);
    row->addWidget(columns);
    column->addWidget(numbers);
    showPlaceFields();
    connect(how, &QComboBox::currentIndexChanged, this, [this](int i) {
        view->setHow(PlaceHow(i));
        showPlaceFields();
        if (i > 4) {
            view->target = i == 5 ? 300 : 8;
            target->setText(i == 5 ? "300 lux"
                            : session.project().basis.units == UnitSystem::Imperial
                                ? QString("%1 VA/ft²").arg(8 * metresPerFoot * metresPerFoot, 0, 'f', 2)
                                : "8 W/m²");
        }
        view->setFocus();
    });
    connect(spacing, &QLineEdit::editingFinished, this, [this] {
        if (const auto m = metresFrom(spacing->text(), session.project().basis.units); m && *m >= 0.1)
            view->spacing = *m;
        else
            session.say(tr("“%1” is not a spacing; type 12 ft or 3.5 m").arg(spacing->text()), true);
        spacing->setText(q(lengthWords(Metres{view->spacing}, session.project().basis.units)));
    });
    connect(target, &QLineEdit::editingFinished, this, [this] {
        const bool byLoad = how->currentIndex() == 6, imperial = session.project().basis.units == UnitSystem::Imperial;
        const auto v = readTyped(target->text().toStdString(), !byLoad ? "lx" : imperial ? "VA/ft²" : "W/m²");
        if (!v || *v <= 0 || *v > 100000)
            return session.say(
                tr("“%1” is not a target; type 300 lux, 30 fc, 8 W/m² or 0.75 VA/ft²").arg(target->text()), true);
        view->target = byLoad && imperial ? *v / (metresPerFoot * metresPerFoot) : *v;
    });
    connect(rows, &QSpinBox::valueChanged, this, [this](int v) { view->gridRows = v; });
    connect(columns, &QSpinBox::valueChanged, this, [this](int v) { view->gridColumns = v; });
    connect(things, &QListWidget::currentRowChanged, this, [this](int i) {
        if (i < 0 || !(things->item(i)->flags() & Qt::ItemIsSelectable)) return;
        const auto chosen = things->item(i)->data(Qt::UserRole + 1).value<Placing>();
        view->setPlacing(chosen);
        showPlaceFields();
        if (chosen.what == Placing::Note) {
            QSignalBlocker still(note);
            note->setPlainText(q(chosen.note));
        }
        if (chosen.what == Placing::Note && chosen.note.empty())
            note->setFocus(); // a new one: what it says comes first
        else
            view->setFocus();
    });
    connect(things, &QListWidget::itemClicked, this, [this](QListWidgetItem* i) { // the same again
        if (view->mode() != PlanMode::Place) Q_EMIT things->currentRowChanged(things->row(i));
    });
    return page;
}

/// What is chosen anywhere is on the floor that is shown, and in sight.
void PlanStage::followSelection() {
    if (!session.isOpen()) return;
    std::vector<PlaceOnPlan> places;
    for (Ref r : session.selectionList())
        for (const PlaceOnPlan& place : placesOf(session.project(), r)) places.push_back(place);
    if (places.empty()) return;
    std::vector<Point> here;
    for (const PlaceOnPlan& place : places)
        if (place.level == view->level()) here.push_back(place.at);
    if (!here.empty()) return view->bringIntoView(here);
    view->setLevel(places.front().level);
    rebuild();
}

void PlanStage::beginKeyedNote() {
    view->setMode(PlanMode::Place);
    for (int i = 0; i < things->count(); ++i) {
        const auto x = things->item(i)->data(Qt::UserRole + 1).value<Placing>();
        if (x.what != Placing::Note || !x.note.empty() || !(things->item(i)->flags() & Qt::ItemIsSelectable)) continue;
        things->setCurrentRow(i);
        things->scrollToItem(things->item(i));
        return;
    }
}

/// Those that count for what is in the hand.
void PlanStage::showPlaceFields() {
    const int i = how->currentIndex();
    const bool noting = view->inHand().what == Placing::Note;
    note->setVisible(noting);
    typeButtons->setVisible(!noting);
    how->setVisible(!noting);
    spacing->setVisible(!noting && (i == 1 || i == 2 || i == 4));
    target->setVisible(!noting && i > 4);
    rows->setVisible(!noting && i == 3);
    columns->setVisible(!noting && i == 3);
}

QWidget* PlanStage::roomsPage() {
    auto* page = new QWidget;
    auto* column = pageLayout(page);
    column->addWidget(heading(tr("FIND ROOMS")));
    auto* find = button(tr("From walls"), "roomsFromWalls", tr("Every area that walls enclose becomes a room"));
    column->addWidget(inset(find));
    roomLayers = new QComboBox;
    roomLayers->setObjectName("roomLayers");
    roomLayers->setToolTip(tr("Layer of the drawing with closed outlines of rooms"));
    column->addWidget(inset(roomLayers));
    auto* take = button(tr("From this layer"), "roomsFromLayer");
    column->addWidget(inset(take));
    column->addWidget(heading(tr("RECIPES")));
    kinds = new QListWidget;
    kinds->setObjectName("roomKinds");
    kinds->setItemDelegate(new ModeDelegate(kinds));
    kinds->setMouseTracking(true);
    column->addWidget(kinds, 1);
    auto* edit = button(tr("Edit recipe"), "recipeEdit");
    auto* apply = button(tr("Apply to its rooms"), "recipeApply");
    auto* all = button(tr("Apply all recipes"), "recipeApplyAll");
    for (QPushButton* b : {edit, apply, all}) column->addWidget(inset(b));
    connect(find, &QPushButton::clicked, view, &PlanView::previewRooms);
    connect(take, &QPushButton::clicked, this, [this] {
        const QStringList parts = roomLayers->currentData().toStringList();
        if (parts.size() == 2)
            view->previewRoomsFrom(UnderlayId{parts[0].toUInt()}, parts[1].toStdString());
        else
            session.say(tr("Link a drawing with closed outlines first (U)"), true);
    });
    connect(edit, &QPushButton::clicked, this, [this] {
        if (kindChosen().empty())
            session.say(tr("Choose a kind of room; kinds are given on the facts of a room"), true);
        else
            recipes->show(kindChosen());
    });
    connect(kinds, &QListWidget::itemDoubleClicked, edit, &QPushButton::click);
    connect(apply, &QPushButton::clicked, this, [this] {
        if (kindChosen().empty())
            session.say(tr("Choose a kind of room"), true);
        else
            recipes->hide(), view->previewRecipes(kindChosen());
    });
    connect(all, &QPushButton::clicked, this, [this] { recipes->hide(), view->previewRecipes({}); });
    return page;
}

QWidget* PlanStage::circuitPage() {
    auto* page = new QWidget;
    auto* column = pageLayout(page);
    column->addWidget(heading(tr("AUTOMATICALLY")));
    auto* go = button(tr("Circuit this level"), "circuitLevel",
                      tr("Puts what has no circuit on the boards of its catchment; shown first"));
    column->addWidget(inset(go));
    propose = new QCheckBox(tr("propose boards"));
    propose->setObjectName("circuitPropose");
    propose->setToolTip(tr("Where a device lies in no catchment"));
    column->addWidget(inset(propose));
    column->addWidget(heading(tr("HOME RUNS")));
    auto* bundle = button(tr("Bundle near ones"), "bundleHomeRuns",
                          tr("Home runs of the chosen board that begin near one another share a raceway"));
    column->addWidget(inset(bundle));
    neutrals = new QCheckBox(tr("share neutrals"));
    neutrals->setObjectName("bundleNeutrals");
    neutrals->setToolTip(
        tr("Circuits of a bundle on different lines get one neutral between them; they are opened together then"));
    column->addWidget(inset(neutrals));
    auto* shape = button(tr("Curved or square"), "wiringShape",
                         tr("How branch wiring is drawn, on the screen and on the sheets"));
    column->addWidget(inset(shape));
    column->addStretch(1);
    connect(go, &QPushButton::clicked, this, [this] { view->previewCircuiting(propose->isChecked()); });
    connect(bundle, &QPushButton::clicked, this,
            [this] { view->previewBundles(session.boardOfSelection(), neutrals->isChecked()); });
    connect(shape, &QPushButton::clicked, this, [this] {
        session.edit(tr("Shape of wiring"), [](Project& p) {
            p.basis.wiringShape =
                p.basis.wiringShape == WiringShape::Curved ? WiringShape::Square : WiringShape::Curved;
        });
    });
    return page;
}

QWidget* PlanStage::catchmentPage() {
    auto* page = new QWidget;
    auto* column = pageLayout(page);
    column->addWidget(heading(tr("CATCHMENTS")));
    catchments = new QListWidget;
    catchments->setObjectName("catchments");
    catchments->setItemDelegate(new ModeDelegate(catchments));
    catchments->setMouseTracking(true);
    column->addWidget(catchments, 1);
    auto* whole = button(tr("Add the whole level"), "catchmentWhole");
    auto* edit = button(tr("Boards and loads"), "catchmentMatrix");
    column->addWidget(inset(whole));
    column->addWidget(inset(edit));
    const auto chosen = [this] {
        return CatchmentId{catchments->currentItem() ? catchments->currentItem()->data(Qt::UserRole + 1).toUInt() : 0u};
    };
    connect(whole, &QPushButton::clicked, this, [this] {
        CatchmentId made;
        session.edit(tr("Add catchment"), [&](Project& p) {
            Catchment k;
            k.level = view->level();
            k.name = p.levels[k.level].name;
            for (const Board& b : p.boards)
                if (b.level == k.level && !passesOn(b.use)) k.boards.push_back({b.id, {}, false});
            made = p.catchments.add(k);
        });
        session.select(made);
        matrix->show(made);
    });
    connect(edit, &QPushButton::clicked, this, [this, chosen] {
        if (!chosen())
            session.say(tr("Choose a catchment, or draw one: click its corners on the plan"), true);
        else
            matrix->show(chosen());
    });
    connect(catchments, &QListWidget::itemDoubleClicked, edit, &QPushButton::click);
    connect(catchments, &QListWidget::currentRowChanged, this, [this, chosen] {
        if (chosen()) session.select(chosen());
    });
    return page;
}

QWidget* PlanStage::underlayPage() {
    auto* page = new QWidget;
    auto* column = pageLayout(page);
    column->addWidget(heading(tr("DRAWINGS BELOW")));
    underlays = new QListWidget;
    underlays->setObjectName("underlays");
    underlays->setItemDelegate(new ModeDelegate(underlays));
    underlays->setFixedHeight(52);
    column->addWidget(underlays);
    auto* link = button(tr("Link DXF or picture…"), "underlayLink");
    column->addWidget(inset(link));
    auto* hands = new QWidget;
    auto* four = new QGridLayout(hands);
    four->setContentsMargins(12, 0, 12, 0);
    four->setSpacing(3);
    int n = 0;
    for (const auto& [text, name, hand] : {std::tuple{"Scale", "underlayScale", UnderlayHand::Scale},
                                           {"Move", "underlayMove", UnderlayHand::Move},
                                           {"Square", "underlaySquare", UnderlayHand::Square},
                                           {"Crop", "underlayCrop", UnderlayHand::Crop}}) {
        auto* b = button(tr(text), name);
        four->addWidget(b, n / 2, n % 2);
        ++n;
        connect(b, &QPushButton::clicked, this, [this, hand = hand] {
            const UnderlayId id = underlayChosen();
            if (!id) return session.say(tr("Link a drawing first"), true);
            if (hand == UnderlayHand::Crop && !session.project().underlays[id].crop.empty()) // again: all of it
                return void(session.edit(tr("Show all of the underlay"),
                                         [id](Project& p) { p.underlays.change(id)->crop.clear(); }));
            view->setUnderlayHand(hand, id);
            view->setFocus();
        });
    }
    column->addWidget(hands);
    fade = new QSlider(Qt::Horizontal);
    fade->setObjectName("underlayFade");
    fade->setRange(0, 95);
    fade->setToolTip(tr("Fade"));
    fade->setFocusPolicy(Qt::NoFocus);
    column->addWidget(inset(fade));
    connect(fade, &QSlider::valueChanged, this, [this](int v) {
        if (const UnderlayId id = underlayChosen())
            session.edit(
                tr("Fade underlay"), [id, v](Project& p) { p.underlays.change(id)->fade = v / 100.0; }, "fade");
    });
    underlayState = new QLabel;
    asRich(underlayState);
    underlayState->setObjectName("underlayState");
    underlayState->setWordWrap(true);
    underlayState->setContentsMargins(14, 2, 8, 2);
    column->addWidget(underlayState);
    auto* again = button(tr("Link anew"), "underlayAgain", tr("Takes the file as it is now; marks of what changed go"));
    column->addWidget(inset(again));
    column->addWidget(heading(tr("LAYERS")));
    layers = new QListWidget;
    layers->setObjectName("underlayLayers");
    layers->setMinimumHeight(150);
    column->addWidget(layers, 1);
    connect(link, &QPushButton::clicked, this, [this] {
        const QString file = QFileDialog::getOpenFileName(this, tr("Link a drawing"), {},
                                                          tr("Drawings and pictures (*.dxf *.DXF *.png *.jpg *.jpeg)"));
        if (!file.isEmpty()) linkUnderlay(file);
    });
    connect(again, &QPushButton::clicked, this, [this] {
        if (const UnderlayId id = underlayChosen()) session.underlays().accept(id);
    });
    connect(underlays, &QListWidget::currentRowChanged, this, [this] {
        if (const UnderlayId id = underlayChosen()) session.select(id);
        rebuildUnderlays();
    });
    connect(layers, &QListWidget::itemChanged, this, [this](QListWidgetItem* i) {
        const UnderlayId id = underlayChosen();
        if (!id) return;
        const std::string name = i->data(Qt::UserRole).toString().toStdString();
        const bool on = i->checkState() == Qt::Checked;
        session.edit(on ? tr("Show layer %1").arg(i->text()) : tr("Hide layer %1").arg(i->text()), [&](Project& p) {
            auto& hidden = p.underlays.change(id)->hiddenLayers;
            std::erase(hidden, name);
            if (!on) hidden.push_back(name);
        });
    });
    return page;
}

void PlanStage::linkUnderlay(const QString& file) {
    if (!view->level()) return session.say(tr("Add a level first: Project › Add level"), true);
    const UnderlayId id = session.underlays().link(file, view->level());
    session.select(id);
    view->setMode(PlanMode::Underlay);
    rebuild();
    for (int i = 0; i < underlays->count(); ++i)
        if (underlays->item(i)->data(Qt::UserRole + 1).toUInt() == id.value) underlays->setCurrentRow(i);
}

UnderlayId PlanStage::underlayChosen() const {
    const QListWidgetItem* i = underlays->currentItem();
    const UnderlayId id{i ? i->data(Qt::UserRole + 1).toUInt() : 0u};
    return session.project().underlays.has(id) ? id : UnderlayId{};
}
std::string PlanStage::kindChosen() const {
    return kinds->currentItem() ? kinds->currentItem()->data(Qt::UserRole + 1).toString().toStdString() : std::string();
}

void PlanStage::rebuildPalette() {
    QSignalBlocker quiet(things);
    const Project& p = session.solution().project;
    const QListWidgetItem* current = things->currentItem();
    const QString keep = current ? current->text() : QString();
    things->clear();
    const auto title = [&](const QString& text) { (new QListWidgetItem(text, things))->setFlags(Qt::ItemIsEnabled); };
    const auto add = [&](const QString& text, const Placing& what, const QString& tip = {}) {
        auto* i = new QListWidgetItem(text, things);
        i->setToolTip(tip);
        i->setData(Qt::UserRole + 1, QVariant::fromValue(what));
    };
    // What is there already and stands on no plan yet comes first.
    if (std::any_of(p.boards.begin(), p.boards.end(), [](const Board& b) { return !b.onPlan; }) ||
        std::any_of(p.transformers.begin(), p.transformers.end(), [](const Transformer& t) { return !t.onPlan; }))
        title(tr("NOT ON A PLAN YET"));
    Placing x;
    x.what = Placing::Board;
    for (const Board& b : p.boards)
        if (!b.onPlan)
            x.standing = b.id,
            add(q(b.name), x, tr("It is fed and sized already; its runs are measured once it stands on a plan"));
    x.what = Placing::Transformer;
    for (const Transformer& t : p.transformers)
        if (!t.onPlan) x.standing = t.id, add(q(t.name), x, tr("Its runs are measured once it stands on a plan"));
    if (things->count() > 0) title(tr("DEVICES"));
    for (const DeviceType& y : p.deviceTypes) {
        Placing type;
        type.type = y.id;
        add(q(y.name), type,
            QString("%1 %2, %3-pole%4")
                .arg(y.load)
                .arg(wordOf(y.unit))
                .arg(y.poles)
                .arg(y.protection.empty() ? QString() : ", " + q(y.protection)));
    }
    title(tr("BOARDS"));
    x.standing = {};
    x.what = Placing::Board;
    add(tr("New board"), x);
    x.what = Placing::Transformer;
    add(tr("New transformer"), x);
    title(tr("KEYED NOTES"));
    x = {};
    x.what = Placing::Note;
    add(tr("New keyed note"), x, tr("A number in a hexagon at a place, its text beside the plan"));
    for (const NumberedNote& n : keyedNotes(p, view->level())) {
        x.note = n.text;
        add(QString("%1  %2").arg(n.number).arg(q(n.text)), x, tr("Points at another place too"));
    }
    title(tr("IN WALLS"));
    x = {};
    x.what = Placing::Opening;
    for (const auto& [value, word] : EnumText<OpeningKind>::words) {
        x.opening = value;
        QString name = tr(word);
        name[0] = name[0].toUpper();
        add(name, x);
    }
    title(tr("FURNITURE"));
    x = {};
    x.what = Placing::Furnishing;
    for (const auto& [value, word] : EnumText<FurnishingKind>::words) {
        x.furnishing = value;
        QString name = tr(word);
        name[0] = name[0].toUpper();
        add(name, x);
    }
    if (view->mode() != PlanMode::Place) return;
    for (int i = 0; i < things->count(); ++i)
        if (things->item(i)->text() == keep && things->item(i)->flags() & Qt::ItemIsSelectable)
            return things->setCurrentRow(i);
}

void PlanStage::rebuildRooms() {
    const Project& p = session.solution().project;
    const std::string keep = kindChosen();
    QSignalBlocker quiet(kinds), b(catchments);
    kinds->clear();
    std::map<std::string, int> count;
    for (const Recipe& r : p.recipes) count[r.roomKind];
    for (const Room& r : p.rooms)
        if (!r.kind.empty()) ++count[r.kind];
    for (const auto& [kind, n] : count) {
        const bool has = std::any_of(p.recipes.begin(), p.recipes.end(),
                                     [&](const Recipe& r) { return r.roomKind == kind && !r.parts.empty(); });
        auto* i = new QListWidgetItem(q(kind), kinds);
        i->setData(Qt::UserRole, (has ? QString::fromUtf8("• ") : QString()) + QString::number(n));
        i->setData(Qt::UserRole + 1, q(kind));
        i->setToolTip(counted(n, tr("room"), tr("rooms")) + (has ? tr("; has a recipe") : tr("; no recipe yet")));
        if (kind == keep) kinds->setCurrentItem(i);
    }
    const CatchmentId chosen = session.selection().as<Catchment>();
    catchments->clear();
    for (const Catchment& k : p.catchments) {
        if (k.level != view->level()) continue;
        auto* i = new QListWidgetItem(q(nameOf(p, Ref(k.id))), catchments);
        i->setData(Qt::UserRole, QString::number(k.boards.size()));
        i->setData(Qt::UserRole + 1, k.id.value);
        if (k.id == chosen) catchments->setCurrentItem(i);
    }
    const QVariant layer = roomLayers->currentData();
    roomLayers->clear();
    for (const Underlay& u : p.underlays) {
        const auto content = u.level == view->level() ? session.underlays().content(u) : nullptr;
        if (!content) continue;
        // The layer that most likely holds the rooms comes first: the one with the most area in outlines of a room's
        // size.
        std::map<std::string, std::pair<double, int>> outlines;
        const double k = metresPerUnit(u, *content);
        for (const auto& o : content->drawing.outlines) {
            auto& [area, n] = outlines[content->drawing.layers[o.layer].name];
            ++n;
            if (const double a = areaOf(o.corners) * k * k; a > 1.5 && a < 2000) area += a;
        }
        std::vector<std::pair<std::string, std::pair<double, int>>> order(outlines.begin(), outlines.end());
        std::stable_sort(order.begin(), order.end(),
                         [](const auto& x, const auto& y) { return x.second.first > y.second.first; });
        for (const auto& [name, x] : order)
            roomLayers->addItem(QString("%1 (%2)").arg(q(name)).arg(x.second),
                                QStringList{QString::number(u.id.value), q(name)});
    }
    if (layer.isValid()) roomLayers->setCurrentIndex(std::max(0, roomLayers->findData(layer)));
}

void PlanStage::rebuildUnderlays() {
    const Project& p = session.project();
    const UnderlayId keep = underlayChosen();
    {
        QSignalBlocker quiet(underlays);
        underlays->clear();
        for (const Underlay& u : p.underlays) {
            if (u.level != view->level()) continue;
            auto* i = new QListWidgetItem(q(nameOf(p, Ref(u.id))), underlays);
            i->setToolTip(q(u.file));
            i->setData(Qt::UserRole + 1, u.id.value);
            if (u.id == keep) underlays->setCurrentItem(i);
        }
        if (!underlays->currentItem() && underlays->count()) underlays->setCurrentRow(underlays->count() - 1);
    }
    const UnderlayId id = underlayChosen();
    QSignalBlocker a(layers), b(fade);
    layers->clear();
    underlayState->clear();
    fade->setEnabled(bool(id));
    rebuildRooms(); // its layers to take rooms from
    if (!id) return;
    const Underlay& u = p.underlays[id];
    fade->setValue(int(std::lround(u.fade * 100)));
    const UnderlayShelf::Entry* e = session.underlays().entry(u);
    QStringList words;
    if (e && e->reading) words << tr("reading, %1 %").arg(int(e->share * 100));
    if (e && !e->failure.isEmpty())
        words << QString("<span style='color:%1'>%2</span>").arg(theme().stop.name(), e->failure.toHtmlEscaped());
    if (e && e->content) {
        if (session.underlays().changedSinceLinked(u) || !e->difference.added.empty() || !e->difference.gone.empty())
            words << QString("<span style='color:%1'>%2</span>")
                         .arg(theme().check.name(),
                              e->difference.added.empty() && e->difference.gone.empty()
                                  ? tr("changed since it was linked")
                                  : tr("changed: %1, %2 gone")
                                        .arg(counted(e->difference.added.size(), tr("line new"), tr("lines new")))
                                        .arg(e->difference.gone.size()));
        if (scaleIsGuess(u, *e->content))
            words << tr("no unit in it: scale it by two points");
        else if (u.scale <= 0)
            words << tr("scale by its header");
        if (!e->content->picture) words << tr("%L1 lines").arg(e->content->drawing.pieces.size());
        for (const std::string& n : e->content->drawing.notes) words << q(n).toHtmlEscaped();
        for (const auto& l : e->content->drawing.layers) {
            auto* i = new QListWidgetItem(q(l.name), layers);
            i->setData(Qt::UserRole, q(l.name));
            i->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable);
            i->setCheckState(layerShown(u, l) ? Qt::Checked : Qt::Unchecked);
        }
    }
    underlayState->setText(words.join("<br>"));
}

void PlanStage::rebuild() {
    const Project& p = session.solution().project;
    {
        QSignalBlocker a(levels);
        levels->clear();
        std::vector<const Level*> list;
        for (const Level& l : p.levels) list.push_back(&l);
        std::sort(list.begin(), list.end(), [](const Level* x, const Level* y) { return x->elevation > y->elevation; });
        for (const Level* l : list) levels->addItem(q(l->name), l->id.value);
        levels->setCurrentIndex(levels->findData(view->level().value));
    }
    if (!spacing->hasFocus()) spacing->setText(q(lengthWords(Metres{view->spacing}, p.basis.units)));
    arrayOf->setPlaceholderText(session.project().basis.units == UnitSystem::Imperial ? tr("3 × 2 at 8 ft × 10 ft")
                                                                                      : tr("3 × 2 at 2.4 m × 3 m"));
    rebuildPalette();
    rebuildUnderlays();
    for (std::size_t i = 0; i < shows.size(); ++i) { // what the view has switched on itself
        QSignalBlocker quiet(shows[i]);
        if (shows[i]->objectName() == "show:Catchments") shows[i]->setChecked(view->style().catchments);
    }
    density->setVisible(view->style().density);
    if (view->style().density && session.isOpen() && p.levels.has(view->level())) {
        const LevelDensity d = densityOf(p, session.solution().results, view->level());
        QString table = "<table cellspacing=0 cellpadding=1>";
        const auto row = [&](const QString& name, const LoadDensity& x, bool bold) {
            const QString b0 = bold ? "<b>" : "", b1 = bold ? "</b>" : "";
            table += QString("<tr><td>%1%2%3&nbsp;</td><td align=right>%1%4%3</td></tr>")
                         .arg(b0, name.toHtmlEscaped(), b1, q(densityWords(x, p.basis.units)));
        };
        for (const auto& [room, x] : d.rooms) row(q(p.rooms[room].name.substr(0, 18)), x, false);
        row(tr("Floor"), d.level, true);
        density->setText(table + "</table>");
    }
}

} // namespace lintel
