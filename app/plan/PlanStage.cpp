#include "app/plan/PlanStage.h"

#include "app/frame/PaintKit.h"

#include <QBoxLayout>
#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QRadioButton>
#include <QScrollArea>
#include <QStyledItemDelegate>

namespace lintel {
namespace {

/// A mode with its key at the right.
class ModeDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {100, 26}; }
    void paint(QPainter* p, const QStyleOptionViewItem& o, const QModelIndex& i) const override {
        const Theme& t = theme();
        const bool on = o.state & QStyle::State_Selected;
        if (on) {
            p->fillRect(o.rect, t.accentWash);
            p->fillRect(QRect(o.rect.left(), o.rect.top(), 3, o.rect.height()), t.accent);
        } else if (o.state & QStyle::State_MouseOver) {
            p->fillRect(o.rect, t.sunk);
        }
        drawLine(*p, QRectF(o.rect).adjusted(14, 0, i.data(Qt::UserRole).toString().isEmpty() ? -6 : -30, 0), i.data().toString(), Qt::AlignLeft, on ? t.accent : t.ink, uiFont(0.95, on));
        drawLine(*p, QRectF(o.rect).adjusted(0, 0, -14, 0), i.data(Qt::UserRole).toString(), Qt::AlignRight, t.quiet, uiFont(0.88));
    }
};

QLabel* heading(const QString& text) {
    auto* l = new QLabel(text);
    l->setProperty("heading", true);
    l->setContentsMargins(14, 8, 0, 2);
    return l;
}

} // namespace

PlanStage::PlanStage(Session& s, QWidget* parent) : QWidget(parent), session(s), view(new PlanView(s, this)), levels(new QComboBox(this)), modes(new QListWidget(this)), things(new QListWidget(this)), colours(new QWidget(this)) {
    auto* across = new QHBoxLayout(this);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(0);
    auto* side = new QWidget(this);
    side->setFixedWidth(168);
    auto* left = new QVBoxLayout(side);
    left->setContentsMargins(0, 8, 0, 8);
    left->setSpacing(2);
    auto* floorRow = new QHBoxLayout;
    floorRow->setContentsMargins(10, 0, 10, 4);
    floorRow->addWidget(levels);
    left->addLayout(floorRow);
    levels->setObjectName("levels");
    modes->setItemDelegate(new ModeDelegate(modes));
    modes->setObjectName("planModes");
    modes->setMouseTracking(true);
    for (const auto& [name, key] : {std::pair{"Select", "V"}, {"Walls", "W"}, {"Rooms", "R"}, {"Place", "P"}, {"Circuit", "C"}, {"Measure", "M"}}) {
        auto* i = new QListWidgetItem(tr(name), modes);
        i->setData(Qt::UserRole, key);
    }
    modes->setFixedHeight(6 * 26 + 2);
    modes->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    left->addWidget(modes);
    left->addWidget(heading(tr("PLACE")));
    things->setObjectName("palette");
    things->setItemDelegate(new ModeDelegate(things));
    things->setMouseTracking(true);
    left->addWidget(things, 1);
    left->addWidget(heading(tr("COLOUR BY")));
    auto* group = new QButtonGroup(this);
    for (const auto& [name, colour] : {std::pair{"Circuit", PlanColour::Circuit}, {"Board", PlanColour::Board}, {"Phase", PlanColour::Phase}, {"Drop", PlanColour::Drop}}) {
        auto* r = new QRadioButton(tr(name));
        r->setStyleSheet("margin-left: 14px");
        r->setChecked(colour == PlanColour::Circuit);
        group->addButton(r);
        left->addWidget(r);
        connect(r, &QRadioButton::toggled, this, [this, colour = colour](bool on) {
            if (!on) return;
            PlanStyle style = view->style();
            style.colour = colour;
            view->setStyle(style);
        });
    }
    left->addWidget(heading(tr("SHOW")));
    for (const auto& [name, member] : {std::pair{"Lighting", &PlanStyle::lighting}, {"Power", &PlanStyle::power}, {"Wiring", &PlanStyle::wiring}, {"Tags", &PlanStyle::tags}, {"Room names", &PlanStyle::roomNames}}) {
        auto* c = new QCheckBox(tr(name));
        c->setStyleSheet("margin-left: 14px");
        c->setChecked(true);
        left->addWidget(c);
        connect(c, &QCheckBox::toggled, this, [this, member = member](bool on) {
            PlanStyle style = view->style();
            style.*member = on;
            view->setStyle(style);
        });
    }
    across->addWidget(side);
    across->addWidget(view, 1);
    connect(modes, &QListWidget::currentRowChanged, this, [this](int row) {
        if (row >= 0 && row != int(view->mode())) view->setMode(PlanMode(row));
        view->setFocus();
    });
    connect(view, &PlanView::modeChanged, this, [this](PlanMode m) {
        QSignalBlocker quiet(modes);
        modes->setCurrentRow(int(m));
        if (m == PlanMode::Place) { // the palette shows what is in the hand; with nothing there yet, the first of the list is taken
            const Placing& hand = view->inHand();
            int row = -1;
            for (int i = 0; i < things->count(); ++i) {
                const Ref r = refFrom(things->item(i)->data(Qt::UserRole + 1).toString().toStdString());
                const int code = things->item(i)->data(Qt::UserRole + 2).toInt();
                if (hand.what == Placing::Device ? r && r.as<DeviceType>() == hand.type : !r && code == (hand.what == Placing::Board ? 1 : 2)) row = i;
            }
            if (row >= 0) {
                QSignalBlocker q2(things);
                things->setCurrentRow(row);
            } else if (things->count()) {
                things->setCurrentRow(0);
            }
        }
        if (m != PlanMode::Place) {
            QSignalBlocker q2(things);
            things->setCurrentRow(-1);
        }
    });
    connect(things, &QListWidget::currentRowChanged, this, [this](int row) {
        if (row < 0) return;
        const Ref r = refFrom(things->item(row)->data(Qt::UserRole + 1).toString().toStdString());
        Placing p;
        p.type = r.as<DeviceType>();
        p.what = r ? Placing::Device : things->item(row)->data(Qt::UserRole + 2).toInt() == 1 ? Placing::Board : Placing::Transformer;
        view->setPlacing(p);
        view->setFocus();
    });
    connect(things, &QListWidget::itemClicked, this, [this](QListWidgetItem* i) { // the same again
        if (view->mode() != PlanMode::Place) Q_EMIT things->currentRowChanged(things->row(i));
    });
    connect(levels, &QComboBox::activated, this, [this] { view->setLevel(LevelId{levels->currentData().toUInt()}); });
    connect(&session, &Session::opened, this, &PlanStage::rebuild);
    connect(&session, &Session::solved, this, &PlanStage::rebuild);
    modes->setCurrentRow(0);
}

void PlanStage::rebuild() {
    const Project& p = session.solution().project;
    QSignalBlocker a(levels), b(things);
    levels->clear();
    std::vector<const Level*> list;
    for (const Level& l : p.levels) list.push_back(&l);
    std::sort(list.begin(), list.end(), [](const Level* x, const Level* y) { return x->elevation > y->elevation; });
    for (const Level* l : list) levels->addItem(q(l->name), l->id.value);
    levels->setCurrentIndex(levels->findData(view->level().value));
    const int keep = things->currentRow();
    things->clear();
    for (const DeviceType& y : p.deviceTypes) {
        auto* i = new QListWidgetItem(q(y.name), things);
        i->setToolTip(QString("%1 %2, %3-pole").arg(y.load).arg(wordOf(y.unit)).arg(y.poles));
        i->setData(Qt::UserRole + 1, q(textOf(y.id)));
    }
    for (const auto& [name, code] : {std::pair{"Board", 1}, {"Transformer", 2}}) {
        auto* i = new QListWidgetItem(tr(name), things);
        i->setData(Qt::UserRole + 2, code);
    }
    things->setCurrentRow(view->mode() == PlanMode::Place ? keep : -1);
}

} // namespace lintel
