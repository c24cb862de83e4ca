#include "app/plan/PlanCards.h"

#include "app/frame/Facts.h"
#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/figures/Words.h"
#include "core/project/TypedLoads.h"

#include <set>

#include <QBoxLayout>
#include <QComboBox>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace lintel {

namespace {
/// Enters what a cell says of how many of a part a room gets; tells what it should have been where it is not that.
std::string enterHowMany(RecipePart& part, const std::string& text, UnitSystem units) {
    const bool imperial = units == UnitSystem::Imperial;
    switch (part.by) {
    case RecipeBy::GridCount: {
        const auto sign = text.find_first_of("xX") != std::string::npos ? text.find_first_of("xX") : text.find("×");
        const auto rows = sign == std::string::npos ? std::nullopt : typedNumber(text.substr(0, sign));
        const auto columns = sign == std::string::npos
                                 ? std::nullopt
                                 : typedNumber(text.substr(
                                       sign + (text[sign] == 'x' || text[sign] == 'X' ? 1 : std::string("×").size())));
        const auto whole = [](const std::optional<double>& v) {
            return v && *v == std::floor(*v) && *v >= 1 && *v <= 200;
        };
        if (!whole(rows) || !whole(columns)) return "rows and columns, from 1 × 1 to 200 × 200";
        part.rows = int(*rows), part.columns = int(*columns);
        return {};
    }
    case RecipeBy::GridSpacing:
    case RecipeBy::Walls: {
        const auto m = metresFrom(text, units);
        if (!m || *m < 0.1 || *m > 100)
            return imperial ? "a spacing from 4 in to 328 ft" : "a spacing from 0.1 to 100 m";
        part.value = *m;
        return {};
    }
    case RecipeBy::GridLux: {
        const auto lux = readTyped(text, "lx");
        if (!lux || *lux <= 0 || *lux > 100'000) return "a light level: type 300 lux or 30 fc";
        part.value = *lux;
        return {};
    }
    case RecipeBy::GridLoad: {
        const auto load = readTyped(text, imperial ? "VA/ft²" : "W/m²");
        if (!load || *load <= 0 || *load > 10'000) return "a load by area: type 8 W/m² or 0.75 VA/ft²";
        part.value = imperial ? *load / (metresPerFoot * metresPerFoot) : *load;
        return {};
    }
    case RecipeBy::Furnishing: {
        const auto kind = fromWord<FurnishingKind>(lowered(text));
        if (!kind) return "a kind of furniture";
        part.furnishing = *kind;
        return {};
    }
    case RecipeBy::Doors:
    case RecipeBy::Middle:
        return "asked for here";
    }
    return {};
}
} // namespace

TableCard::TableCard(Session& s, QWidget* parent, const char* name)
    : QFrame(parent), session(s), heading(new QLabel(this)), grid(new QTableWidget(this)), buttons(new QHBoxLayout) {
    asRich(heading);
    setProperty("card", true);
    setObjectName(name);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 12, 8);
    column->addWidget(heading);
    column->addWidget(grid, 1);
    column->addLayout(buttons);
    grid->verticalHeader()->setVisible(false);
    grid->setSelectionBehavior(QAbstractItemView::SelectRows);
    grid->setShowGrid(false);
    hide();
}
void TableCard::keyPressEvent(QKeyEvent* e) {
    if (e->key() != Qt::Key_Escape) return QFrame::keyPressEvent(e);
    hide();
    parentWidget()->setFocus();
}
void TableCard::place() {
    const QWidget* p = parentWidget();
    int wide = 40, high = 84 + grid->horizontalHeader()->height();
    for (int c = 0; c < grid->columnCount(); ++c) wide += grid->columnWidth(c);
    for (int r = 0; r < grid->rowCount(); ++r) high += grid->rowHeight(r);
    resize(std::clamp(wide, 420, std::max(420, p->width() - 24)),
           std::clamp(high, 170, std::max(170, p->height() - 60)));
    move(12, p->height() - height() - 36);
    setVisible(true);
    raise();
}

// ---- recipe ----

RecipeCard::RecipeCard(Session& s, QWidget* parent) : TableCard(s, parent, "recipeCard") {
    auto* add = new QPushButton(tr("Add"), this);
    add->setObjectName("recipeAdd");
    auto* remove = new QPushButton(tr("Remove"), this);
    auto* close = new QPushButton(tr("Close"), this);
    connect(add, &QPushButton::clicked, this, &RecipeCard::addPart);
    connect(remove, &QPushButton::clicked, this, &RecipeCard::removePart);
    connect(close, &QPushButton::clicked, this, [this] { hide(), parentWidget()->setFocus(); });
    buttons->addWidget(add);
    buttons->addWidget(remove);
    buttons->addStretch(1);
    buttons->addWidget(close);
    connect(&session, &Session::solved, this, [this] {
        if (isVisible()) fill();
    });
    connect(&session, &Session::opened, this, &QWidget::hide);
    connect(grid, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* i) {
        if (filling) return;
        const std::size_t row = std::size_t(i->row());
        const QString t = i->text().trimmed();
        const UnitSystem units = session.project().basis.units;
        change(tr("Change recipe"), [&](Recipe& r) {
            if (row >= r.parts.size()) return;
            RecipePart& part = r.parts[row];
            if (i->column() == 3)
                part.leg = t.toStdString();
            else if (i->column() == 2) {
                const std::string why = enterHowMany(part, t.toStdString(), units);
                if (!why.empty()) session.say(tr("“%1” is not %2").arg(t, q(why)), true);
            }
        });
        fill();
    });
}

const Recipe* RecipeCard::recipe() const {
    for (const Recipe& r : session.project().recipes)
        if (r.roomKind == roomKind) return &r;
    return nullptr;
}

void RecipeCard::change(const QString& label, const std::function<void(Recipe&)>& what) {
    session.edit(label, [&](Project& p) {
        RecipeId id;
        for (const Recipe& r : p.recipes)
            if (r.roomKind == roomKind) id = r.id;
        if (!id) {
            Recipe r;
            r.roomKind = roomKind;
            id = p.recipes.add(r);
        }
        what(*p.recipes.change(id));
    });
}

void RecipeCard::addPart() {
    const auto& types = session.project().deviceTypes;
    if (types.empty()) return session.say(tr("The project has no types of devices yet"), true);
    change(tr("Add to recipe"), [&](Recipe& r) {
        RecipePart part;
        part.type = types.begin()->id;
        part.by = types.begin()->onWall ? RecipeBy::Walls : RecipeBy::GridSpacing;
        part.value = session.project().basis.units == UnitSystem::Imperial ? 12 * metresPerFoot : 3.5;
        r.parts.push_back(part);
    });
    fill();
}
void RecipeCard::removePart() {
    const int row = grid->currentRow();
    if (row < 0) return session.say(tr("Choose the row to remove"), true);
    change(tr("Remove from recipe"), [&](Recipe& r) {
        if (row < int(r.parts.size())) r.parts.erase(r.parts.begin() + row);
    });
    fill();
}

void RecipeCard::show(const std::string& kind) {
    roomKind = kind;
    fill();
    place();
}

void RecipeCard::fill() {
    filling = true;
    const Project& p = session.project();
    const UnitSystem units = p.basis.units;
    heading->setText(tr("<b>Recipe</b> · every %1 gets").arg(q(roomKind).toHtmlEscaped()));
    const Recipe* r = recipe();
    const int rows = r ? int(r->parts.size()) : 0;
    grid->setColumnCount(4);
    grid->setHorizontalHeaderLabels({tr("What"), tr("Placed"),
                                     units == UnitSystem::Imperial ? tr("ft · lux · VA/ft²") : tr("m · lux · W/m²"),
                                     tr("Leg")});
    grid->setRowCount(rows);
    for (int i = 0; i < rows; ++i) {
        const RecipePart& part = r->parts[std::size_t(i)];
        auto* type = new QComboBox;
        for (const DeviceType& y : p.deviceTypes) type->addItem(q(y.name), y.id.value);
        type->setCurrentIndex(type->findData(part.type.value));
        connect(type, &QComboBox::activated, this, [this, i, type] {
            change(tr("Change recipe"),
                   [&](Recipe& x) { x.parts[std::size_t(i)].type = DeviceTypeId{type->currentData().toUInt()}; });
        });
        grid->setCellWidget(i, 0, type);
        auto* by = new QComboBox;
        for (const auto& [value, word] : EnumText<RecipeBy>::words) by->addItem(tr(word), int(value));
        by->setCurrentIndex(by->findData(int(part.by)));
        connect(by, &QComboBox::activated, this, [this, i, by] {
            change(tr("Change recipe"), [&](Recipe& x) {
                RecipePart& q_ = x.parts[std::size_t(i)];
                q_.by = RecipeBy(by->currentData().toInt());
                q_.value = q_.by == RecipeBy::GridLux ? 300 : q_.by == RecipeBy::GridLoad ? 8 : 3.6576;
            });
        });
        grid->setCellWidget(i, 1, by);
        QString value;
        switch (part.by) {
        case RecipeBy::GridCount:
            value = QString("%1 × %2").arg(part.rows).arg(part.columns);
            break;
        case RecipeBy::GridSpacing:
        case RecipeBy::Walls:
            value = q(heightWords(part.value, units));
            break;
        case RecipeBy::GridLux:
            value = QString("%1 lux").arg(part.value);
            break;
        case RecipeBy::GridLoad:
            value = units == UnitSystem::Imperial
                        ? QString("%1 VA/ft²").arg(part.value * metresPerFoot * metresPerFoot, 0, 'f', 2)
                        : QString("%1 W/m²").arg(part.value);
            break;
        case RecipeBy::Furnishing:
            value = wordOf(part.furnishing);
            break;
        case RecipeBy::Doors:
        case RecipeBy::Middle:
            break;
        }
        auto* cell = new QTableWidgetItem(value);
        if (part.by == RecipeBy::Doors || part.by == RecipeBy::Middle)
            cell->setFlags(cell->flags() & ~Qt::ItemIsEditable);
        grid->setItem(i, 2, cell);
        grid->setItem(i, 3, new QTableWidgetItem(q(part.leg)));
        grid->setRowHeight(i, 28);
    }
    grid->setColumnWidth(0, 190), grid->setColumnWidth(1, 150), grid->setColumnWidth(2, 120),
        grid->setColumnWidth(3, 50);
    filling = false;
}

// ---- catchment ----

MatrixCard::MatrixCard(Session& s, QWidget* parent) : TableCard(s, parent, "matrixCard") {
    auto* close = new QPushButton(tr("Close"), this);
    connect(close, &QPushButton::clicked, this, [this] { hide(), parentWidget()->setFocus(); });
    buttons->addStretch(1);
    buttons->addWidget(close);
    connect(&session, &Session::solved, this, [this] {
        if (isVisible()) fill();
    });
    connect(&session, &Session::opened, this, &QWidget::hide);
    connect(grid, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* i) {
        if (filling || i->row() >= int(boards.size()) || i->column() == 0) return;
        const BoardId b = boards[std::size_t(i->row())];
        const bool on = i->checkState() == Qt::Checked;
        const int column = i->column();
        session.edit(tr("Change catchment"), [&](Project& p) {
            Catchment& k = *p.catchments.change(id);
            auto it = std::find_if(k.boards.begin(), k.boards.end(), [&](const Serving& x) { return x.board == b; });
            if (it == k.boards.end()) {
                if (!on) return;
                it = k.boards.insert(k.boards.end(), Serving{b, {}, false});
                if (column > 2) it->kinds = {wordOf(kinds[std::size_t(column - 3)])};
                it->lifeSafety = column == 2;
                return;
            }
            if (column == 1) { // all loads
                it->kinds.clear();
                if (!on) k.boards.erase(it);
            } else if (column == 2) {
                it->lifeSafety = on;
            } else {
                const std::string kind = wordOf(kinds[std::size_t(column - 3)]);
                if (it->kinds.empty() && !on) // from all, all but this one
                    for (LoadKind x : kinds) it->kinds.push_back(wordOf(x));
                std::erase(it->kinds, kind);
                if (on) it->kinds.push_back(kind);
                if (it->kinds.empty()) k.boards.erase(it);
            }
        });
        fill();
    });
}

void MatrixCard::show(CatchmentId catchment) {
    id = catchment;
    if (!session.project().catchments.has(id)) return;
    fill();
    place();
}

void MatrixCard::fill() {
    const Project& p = session.project();
    const Catchment* k = p.catchments.find(id);
    if (!k) return hide();
    filling = true;
    heading->setText(tr("<b>%1</b> · which loads each board takes").arg(q(nameOf(p, Ref(id))).toHtmlEscaped()));
    boards.clear();
    kinds.clear();
    std::set<LoadKind> seen;
    for (const DeviceType& y : p.deviceTypes) seen.insert(y.kind);
    kinds.assign(seen.begin(), seen.end());
    for (const Board& b : p.boards)
        if ((b.level == k->level && !passesOn(b.use)) ||
            std::any_of(k->boards.begin(), k->boards.end(), [&](const Serving& s) { return s.board == b.id; }))
            boards.push_back(b.id);
    QStringList heads{tr("Board"), tr("All"), tr("Life safety")};
    for (LoadKind x : kinds) heads << tr(wordOf(x));
    grid->setColumnCount(int(heads.size()));
    grid->setHorizontalHeaderLabels(heads);
    grid->setRowCount(int(boards.size()));
    for (int i = 0; i < int(boards.size()); ++i) {
        const auto it = std::find_if(k->boards.begin(), k->boards.end(),
                                     [&](const Serving& s) { return s.board == boards[std::size_t(i)]; });
        const bool serves = it != k->boards.end();
        auto* name = new QTableWidgetItem(q(p.boards[boards[std::size_t(i)]].name));
        name->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
        grid->setItem(i, 0, name);
        const auto tick = [&](int column, bool on) {
            auto* c = new QTableWidgetItem;
            c->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable);
            c->setCheckState(on ? Qt::Checked : Qt::Unchecked);
            grid->setItem(i, column, c);
        };
        tick(1, serves && it->kinds.empty() && !it->lifeSafety);
        tick(2, serves && it->lifeSafety);
        for (int c = 0; c < int(kinds.size()); ++c)
            tick(3 + c, serves && !it->lifeSafety &&
                            (it->kinds.empty() || std::find(it->kinds.begin(), it->kinds.end(),
                                                            wordOf(kinds[std::size_t(c)])) != it->kinds.end()));
        grid->setRowHeight(i, 24);
    }
    grid->resizeColumnsToContents();
    filling = false;
}

} // namespace lintel
