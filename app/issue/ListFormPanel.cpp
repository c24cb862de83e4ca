#include "app/issue/ListFormPanel.h"

#include "app/frame/PaintKit.h"
#include "core/base/Parse.h"

#include <QBoxLayout>
#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

namespace lintel {

ListFormPanel::ListFormPanel(Session& s, QWidget* parent)
    : QWidget(parent), session(s), name(new QLabel(this)), title(new QLineEdit(this)), items(new QListWidget(this)),
      onSheets(new QCheckBox(tr("On sheets, among the lists"), this)), sortBy(new QComboBox(this)),
      groupBy(new QComboBox(this)), backwards(new QCheckBox(this)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    const auto heading = [&](const QString& words) {
        auto* label = new QLabel(words);
        label->setProperty("heading", true);
        column->addWidget(label);
    };
    heading(tr("LIST FORM"));
    name->setTextFormat(Qt::PlainText);
    name->setProperty("quiet", true);
    column->addWidget(name);
    title->setObjectName("listTitle");
    title->setToolTip(tr("The title of the list; empty: the usual one"));
    column->addWidget(title);
    column->addWidget(onSheets);
    onSheets->setObjectName("listOnSheets");
    heading(tr("COLUMNS"));
    items->setObjectName("listColumns");
    items->setDragDropMode(QAbstractItemView::InternalMove);
    items->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed);
    items->setToolTip(tr("Tick what is shown. Drag for another order. Two clicks or F2: another heading; an empty one "
                         "is the usual again."));
    column->addWidget(items, 1);
    heading(tr("ROWS"));
    auto* rows = new QFormLayout;
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(6);
    rows->addRow(tr("In order of"), sortBy);
    rows->addRow(QString(), backwards);
    rows->addRow(tr("Together by"), groupBy);
    for (QComboBox* box : {sortBy, groupBy}) box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    column->addLayout(rows);
    sortBy->setObjectName("listSortBy");
    sortBy->setToolTip(tr("Rows stand in the order of what they say in this column"));
    backwards->setObjectName("listBackwards");
    backwards->setText(tr("Reversed"));
    backwards->setToolTip(tr("The largest, or the last, first"));
    groupBy->setObjectName("listGroupBy");
    auto* usual = new QPushButton(tr("As it comes"));
    usual->setObjectName("listUsual");
    usual->setToolTip(tr("All columns in their order, under their own headings"));
    column->addWidget(usual);
    auto* back = new QPushButton(tr("Back to the sheets"));
    back->setObjectName("listBack");
    column->addWidget(back);
    connect(back, &QPushButton::clicked, this, &ListFormPanel::closed);
    connect(title, &QLineEdit::editingFinished, this, [this] {
        if (!title->isModified()) return;
        title->setModified(false);
        enter(tr("Title of a list"));
    });
    connect(onSheets, &QCheckBox::clicked, this, [this] { enter(tr("List on sheets")); });
    connect(sortBy, &QComboBox::activated, this, [this] { enter(tr("Order of rows")); });
    connect(backwards, &QCheckBox::clicked, this, [this] { enter(tr("Order of rows")); });
    connect(groupBy, &QComboBox::activated, this, [this] { enter(tr("Rows together")); });
    connect(items, &QListWidget::itemChanged, this, [this] {
        if (!filling) enter(tr("Columns of a list"));
    });
    connect(items->model(), &QAbstractItemModel::rowsMoved, this, [this] {
        if (!filling)
            QMetaObject::invokeMethod(
                this, [this] { enter(tr("Order of columns")); }, Qt::QueuedConnection);
    });
    connect(usual, &QPushButton::clicked, this, [this] {
        const ListKind* kind = listKind(key);
        if (!kind) return;
        const List list = kind->make(session.sheetInput(session.solution()));
        session.edit(tr("List as it comes"), [&](Project& p) {
            ListForm form;
            form.columns = columnsOf(list, nullptr);
            shapeList(p, list, std::move(form));
        });
        refresh();
    });
}

void ListFormPanel::show(const std::string& list) {
    key = list;
    title->setModified(false);
    refresh();
}

void ListFormPanel::refresh() {
    const ListKind* kind = listKind(key);
    if (!kind || items->isPersistentEditorOpen(items->currentItem())) return;
    const List list = kind->make(session.sheetInput(session.solution()));
    const ListForm* form = listForm(session.project(), key);
    filling = true;
    const int row = items->currentRow();
    items->clear();
    name->setText(q(list.title));
    if (!title->isModified()) title->setText(form ? q(form->title) : QString());
    title->setPlaceholderText(q(list.title));
    const bool ofSheets = kind->of != ListKind::Of::Files;
    onSheets->setText(kind->of == ListKind::Of::Calculations ? tr("On sheets of calculations")
                                                             : tr("On sheets, among the lists"));
    onSheets->setChecked(ofSheets && !(form && form->offSheets));
    onSheets->setEnabled(ofSheets);
    for (const ListFormColumn& c : columnsOf(list, form)) {
        auto* item = new QListWidgetItem(c.heading.empty() ? q(c.of) : q(c.heading), items);
        item->setData(Qt::UserRole, q(c.of));
        item->setFlags(item->flags() | Qt::ItemIsUserCheckable | Qt::ItemIsEditable);
        item->setCheckState(c.hidden ? Qt::Unchecked : Qt::Checked);
        if (!c.heading.empty()) item->setToolTip(plainTip(q(c.of)));
    }
    items->setCurrentRow(row);
    const auto choose = [&](QComboBox* box, const std::string& heading) {
        box->clear();
        box->addItem(tr("as it comes"), QString());
        for (const ListColumn& c : list.columns) box->addItem(q(c.heading), q(c.heading));
        if (!heading.empty() && box->findData(q(heading)) < 0) box->addItem(q(heading), q(heading)); // it stays
        box->setCurrentIndex(heading.empty() ? 0 : box->findData(q(heading)));
    };
    choose(sortBy, form ? form->sortBy : "");
    choose(groupBy, form ? form->groupBy : "");
    backwards->setChecked(form && form->backwards);
    backwards->setEnabled(sortBy->currentIndex() > 0);
    groupBy->setEnabled(canGroup(list));
    groupBy->setToolTip(groupBy->isEnabled()
                            ? tr("Rows that say the same in this column stand under a heading of their "
                                 "own, with their sums")
                            : tr("This list has groups of its own"));
    filling = false;
}

ListForm ListFormPanel::written() const {
    ListForm form;
    form.title = trimmed(title->text().toStdString());
    form.offSheets = onSheets->isEnabled() && !onSheets->isChecked();
    form.sortBy = sortBy->currentData().toString().toStdString();
    form.groupBy = groupBy->currentData().toString().toStdString();
    form.backwards = !form.sortBy.empty() && backwards->isChecked();
    for (int i = 0; i < items->count(); ++i) {
        const std::string of = items->item(i)->data(Qt::UserRole).toString().toStdString();
        const std::string heading = trimmed(items->item(i)->text().toStdString());
        form.columns.push_back({of, heading == of ? "" : heading, items->item(i)->checkState() == Qt::Unchecked});
    }
    return form;
}

void ListFormPanel::enter(const QString& label) {
    const ListKind* kind = listKind(key);
    if (!kind) return;
    ListForm form = written();
    const bool none = std::all_of(form.columns.begin(), form.columns.end(), [](const auto& c) { return c.hidden; });
    if (none) {
        session.say(tr("One column at least is shown. Take the list off the sheets instead."), true);
        return refresh();
    }
    const List list = kind->make(session.sheetInput(session.solution()));
    session.edit(label, [&](Project& p) { shapeList(p, list, std::move(form)); });
    refresh();
}

} // namespace lintel
