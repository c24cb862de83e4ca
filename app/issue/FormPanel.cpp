#include "app/issue/FormPanel.h"

#include "app/frame/AskAndWrite.h"
#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "core/base/Limits.h"
#include "core/base/Parse.h"
#include "core/base/TextFile.h"
#include "core/base/Typed.h"
#include "core/drawing/TextWidth.h"
#include "core/project/OwnTexts.h"
#include "core/project/ProjectFile.h"
#include "core/sheets/BoardHead.h"
#include "core/sheets/FormFit.h"

#include <QBoxLayout>
#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QGridLayout>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QShortcut>
#include <QStackedWidget>
#include <QTimer>
#include <QToolButton>

#include <fmt/format.h>

namespace lintel {

namespace {
/// Escape in a field drops what was typed.
void onEscape(QLineEdit* line, std::function<void()> drop) {
    auto* key = new QShortcut(QKeySequence(Qt::Key_Escape), line, nullptr, nullptr, Qt::WidgetShortcut);
    QObject::connect(key, &QShortcut::activated, line, std::move(drop));
}
} // namespace

FormPanel::FormPanel(Session& s, QWidget* parent)
    : QWidget(parent), session(s), forms(new QComboBox(this)), scope(new QComboBox(this)), more(new QToolButton(this)),
      columns(new QListWidget(this)), figures(new QListWidget(this)), heading(new QLineEdit(this)),
      wording(new QLineEdit(this)), width(new QLineEdit(this)), search(new QLineEdit(this)),
      align(new QButtonGroup(this)), editor(new QWidget(this)), reads(new QLabel(this)),
      widenButton(new QPushButton(tr("Widen"), this)), removeButton(new QPushButton(tr("Remove"), this)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    const auto title = [&](const QString& words) {
        auto* label = new QLabel(words);
        label->setProperty("heading", true);
        column->addWidget(label);
    };
    title(tr("SCHEDULE FORM"));
    auto* top = new QHBoxLayout;
    forms->setObjectName("formChoice");
    forms->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    top->addWidget(forms, 1);
    more->setObjectName("formMore");
    more->setText("…");
    more->setToolTip(tr("Rename, files of the company's forms"));
    more->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(more);
    menu->addAction(tr("Rename…"), this, &FormPanel::rename);
    menu->addAction(tr("Take forms from a file…"), this, &FormPanel::takeFile);
    menu->addAction(tr("Write all forms to a file…"), this, &FormPanel::writeFile);
    more->setMenu(menu);
    top->addWidget(more);
    column->addLayout(top);
    scope->setObjectName("formScope");
    scope->setToolTip(tr("Whom a change is for"));
    column->addWidget(scope);
    auto* outer = column;
    auto* which = new QHBoxLayout;
    auto* pages = new QStackedWidget(this);
    auto* buttons = new QButtonGroup(this);
    for (const auto& [words, name] : {std::pair{tr("Columns"), "formColumnsPage"},
                                      {tr("Rows"), "formRowsPage"},
                                      {tr("Title strip"), "formTitlePage"}}) {
        auto* b = new QPushButton(words);
        b->setObjectName(name);
        b->setCheckable(true);
        buttons->addButton(b, int(buttons->buttons().size()));
        which->addWidget(b);
    }
    buttons->button(0)->setChecked(true);
    connect(buttons, &QButtonGroup::idClicked, pages, &QStackedWidget::setCurrentIndex);
    outer->addLayout(which);
    outer->addWidget(pages, 1);
    auto* columnsPage = new QWidget(pages);
    pages->addWidget(columnsPage);
    pages->addWidget(rowsPage());
    pages->addWidget(titlePage());
    column = new QVBoxLayout(columnsPage);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);

    title(tr("COLUMNS"));
    columns->setObjectName("formColumns");
    columns->setDragDropMode(QAbstractItemView::InternalMove);
    columns->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    columns->setToolTip(tr("Drag to put them in another order"));
    column->addWidget(columns, 4);

    auto* fields = new QFormLayout(editor);
    fields->setContentsMargins(0, 0, 0, 0);
    fields->setVerticalSpacing(4);
    heading->setObjectName("columnHeading");
    wording->setObjectName("columnWording");
    wording->setToolTip(tr("Figures in braces, words between them: {count}#{size}. [In brackets]: left out where a "
                           "figure in it is empty. [sets > 1: ({sets}) ]: only where that holds."));
    width->setObjectName("columnWidth");
    width->setFixedWidth(76);
    fields->addRow(tr("Heading"), heading);
    fields->addRow(tr("Wording"), wording);
    auto* across = new QHBoxLayout;
    across->setSpacing(3);
    across->addWidget(width);
    for (const auto& [value, word] : EnumText<ColumnAlign>::words) {
        auto* b = new QToolButton;
        b->setObjectName(QString("align-") + word);
        b->setText(value == ColumnAlign::Left ? tr("Left") : value == ColumnAlign::Right ? tr("Right") : tr("Middle"));
        b->setCheckable(true);
        align->addButton(b, int(value));
        across->addWidget(b);
    }
    across->addStretch(1);
    fields->addRow(tr("Width"), across);
    column->addWidget(editor);
    reads->setObjectName("columnReads");
    reads->setTextFormat(Qt::PlainText);
    reads->setWordWrap(true);
    reads->setProperty("quiet", true);
    column->addWidget(reads);
    auto* tools = new QHBoxLayout;
    widenButton->setObjectName("columnWiden");
    removeButton->setObjectName("columnRemove");
    tools->addWidget(removeButton);
    tools->addWidget(widenButton);
    tools->addStretch(1);
    column->addLayout(tools);

    title(tr("FIGURES"));
    search->setObjectName("figureSearch");
    search->setPlaceholderText(tr("Find a figure"));
    search->setClearButtonEnabled(true);
    column->addWidget(search);
    figures->setObjectName("figures");
    figures->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(figures, 5);
    auto* give = new QHBoxLayout;
    auto* addButton = new QPushButton(tr("New column"));
    addButton->setObjectName("columnAdd");
    addButton->setToolTip(tr("A column of this figure, behind the chosen one"));
    auto* insertButton = new QPushButton(tr("Into the wording"));
    insertButton->setObjectName("figureInsert");
    give->addWidget(addButton);
    give->addWidget(insertButton);
    column->addLayout(give);
    auto* back = new QPushButton(tr("Back to the sheets"));
    back->setObjectName("formBack");
    outer->addWidget(back);

    later = new QTimer(this);
    later->setSingleShot(true);
    later->setInterval(250);
    connect(later, &QTimer::timeout, this, &FormPanel::fillFit);
    connect(back, &QPushButton::clicked, this, &FormPanel::closed);
    connect(forms, &QComboBox::activated, this, [this](int i) { pickForm(forms->itemText(i)); });
    connect(columns, &QListWidget::currentRowChanged, this, [this](int row) {
        if (filling || row < 0) return;
        chosen = row;
        fillColumn();
        fillReads();
        Q_EMIT columnChosen(row);
    });
    connect(columns->model(), &QAbstractItemModel::rowsMoved, this,
            [this](const QModelIndex&, int from, int, const QModelIndex&, int to) {
                if (!filling)
                    QMetaObject::invokeMethod(
                        this, [this, from, to] { move(from, to > from ? to - 1 : to); }, Qt::QueuedConnection);
            });
    for (QLineEdit* line : {heading, wording, width})
        connect(line, &QLineEdit::editingFinished, this, [this, line] { commit(line); });
    for (QLineEdit* line : {heading, wording, width})
        onEscape(line, [this, line] {
            markTaken(line);
            fillColumn();
            fillReads();
        });
    connect(wording, &QLineEdit::textEdited, this, &FormPanel::fillReads);
    connect(align, &QButtonGroup::idClicked, this, [this](int id) {
        changeColumn(tr("Alignment of a column"), [&](FormColumn& c) { c.align = ColumnAlign(id); });
    });
    connect(widenButton, &QPushButton::clicked, this, [this] {
        const ScheduleForm* f = form();
        if (!f || chosen < 0 || chosen >= int(f->columns.size())) return;
        const double wanted = fitOf(input(), *f, std::size_t(chosen)).widest + cellGap + 0.4;
        changeColumn(tr("Width of a column"), [&](FormColumn& c) { c.width = wanted; });
    });
    connect(removeButton, &QPushButton::clicked, this, &FormPanel::remove);
    connect(addButton, &QPushButton::clicked, this, [this] {
        if (auto* i = figures->currentItem()) add(i->data(Qt::UserRole).toString().toStdString());
    });
    connect(insertButton, &QPushButton::clicked, this, &FormPanel::insertFigure);
    connect(figures, &QListWidget::itemActivated, this, &FormPanel::insertFigure);
    connect(search, &QLineEdit::textChanged, this, &FormPanel::fillFigures);
}

QWidget* FormPanel::rowsPage() {
    auto* page = new QWidget(this);
    auto* fields = new QFormLayout(page);
    fields->setContentsMargins(0, 6, 0, 0);
    fields->setVerticalSpacing(6);
    const auto line = [&](const QString& label, const char* name, const QString& hint, const QString& tip) {
        auto* e = new QLineEdit(page);
        e->setObjectName(name);
        e->setPlaceholderText(hint);
        e->setToolTip(tip);
        fields->addRow(label, e);
        connect(e, &QLineEdit::editingFinished, this, [this, e] { commitRows(e); });
        onEscape(e, [this, e] {
            markTaken(e);
            e->setModified(false);
            fillRows();
        });
        return e;
    };
    letters = line(tr("Letters"), "formLetters", tr("as usual"), tr("Height of the letters of the rows, mm"));
    spare = line(tr("Spare breakers"), "formSpare", tr("Spare"), tr("What their rows say"));
    space = line(tr("Free places"), "formSpace", tr("Space"), tr("What their rows say"));
    rules = new QComboBox(page);
    rules->setObjectName("formRules");
    for (const auto& [value, word] : EnumText<FormRules>::words) rules->addItem(tr(word));
    fields->addRow(tr("Lines"), rules);
    connect(rules, &QComboBox::activated, this, [this](int i) {
        change(tr("Lines of a form"),
               [&](ScheduleForm& f) { f.rules = EnumText<FormRules>::words[std::size_t(i)].first; });
    });
    const auto order = [&](const QString& label, const char* name, std::string ScheduleForm::*by) {
        auto* box = new QComboBox(page);
        box->setObjectName(name);
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        fields->addRow(label, box);
        connect(box, &QComboBox::activated, this, [this, box, by](int i) {
            const std::string key = box->itemData(i).toString().toStdString();
            change(tr("Order of the rows of a form"), [&](ScheduleForm& f) {
                f.*by = key;
                f.backwards = f.backwards && !f.sortBy.empty();
            });
        });
        return box;
    };
    sortBy = order(tr("In order of"), "formSortBy", &ScheduleForm::sortBy);
    backwards = new QCheckBox(tr("Reversed"), page);
    backwards->setObjectName("formBackwards");
    backwards->setToolTip(tr("The largest, or the last, first"));
    fields->addRow(QString(), backwards);
    connect(backwards, &QCheckBox::clicked, this,
            [this](bool on) { change(tr("Order of the rows of a form"), [&](ScheduleForm& f) { f.backwards = on; }); });
    groupBy = order(tr("Together by"), "formGroupBy", &ScheduleForm::groupBy);
    const auto tick = [&](const QString& words, const char* name, bool ScheduleForm::*without) {
        auto* box = new QCheckBox(words, page);
        box->setObjectName(name);
        fields->addRow(box);
        connect(box, &QCheckBox::clicked, this,
                [this, without](bool on) { change(tr("Foot of a form"), [&](ScheduleForm& f) { f.*without = !on; }); });
        return box;
    };
    tally = tick(tr("Load tally below the rows"), "formTally", &ScheduleForm::withoutTally);
    phases = tick(tr("Phases below the rows"), "formPhases", &ScheduleForm::withoutPhases);
    balance = line(tr("Balanced up to"), "formBalance", tr("nothing is said"),
                   tr("% of imbalance up to which the schedule says that the board is balanced"));
    return page;
}

void FormPanel::fillRows() {
    const ScheduleForm* f = form();
    if (!f) return;
    const auto set = [](QLineEdit* e, const QString& text) {
        if (isRefused(e) || e->isModified()) return; // what was refused or is being typed stays
        if (e->text() != text) e->setText(text);
        markTaken(e);
    };
    set(letters, f->letters > 0 ? QString::number(f->letters) + " mm" : QString());
    set(spare, q(f->spare));
    set(space, q(f->space));
    set(balance, f->balance > 0 ? QString::number(f->balance) + " %" : QString());
    rules->setCurrentIndex(int(f->rules));
    fillOrder(*f);
    tally->setChecked(!f->withoutTally);
    phases->setChecked(!f->withoutPhases);
}

QWidget* FormPanel::titlePage() {
    auto* page = new QWidget(this);
    auto* grid = new QGridLayout(page);
    grid->setContentsMargins(0, 6, 0, 0);
    grid->setVerticalSpacing(6);
    auto* about = new QLabel(tr("Facts of the board at the head of its schedule, three in a row, and what stands over "
                                "each."),
                             page);
    about->setWordWrap(true);
    about->setProperty("quiet", true);
    grid->addWidget(about, 0, 0, 1, 2);
    for (int place = 0; place < int(limits::formFacts); ++place) {
        auto* box = new QComboBox(page);
        box->setObjectName(QString("formFact%1").arg(place + 1));
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        auto* label = new QLineEdit(page);
        label->setObjectName(QString("formLabel%1").arg(place + 1));
        grid->addWidget(box, place + 1, 0);
        grid->addWidget(label, place + 1, 1);
        connect(box, &QComboBox::activated, this, [this, place, box](int i) {
            const std::string key = box->itemData(i).toString().toStdString();
            commitFact(place, [&](FormFact& f) { f = {key, ""}; });
        });
        connect(label, &QLineEdit::editingFinished, this, [this, place, label] {
            if (!label->isModified()) return;
            label->setModified(false);
            commitFact(place, [&](FormFact& f) { f.label = trimmed(label->text().toStdString()); });
        });
        onEscape(label, [this, label] {
            label->setModified(false);
            fillTitle();
        });
        factBoxes.push_back(box);
        labelLines.push_back(label);
    }
    grid->setColumnStretch(0, 1);
    grid->setColumnStretch(1, 1);
    grid->setRowStretch(int(limits::formFacts) + 1, 1);
    return page;
}

namespace {
/// Fills a box with the figures of a registry and the own columns of the project, and chooses one by its key; none:
/// `without`.
template <class Figures>
void offerKeys(QComboBox* box, const Figures& figures, const std::vector<std::string>& ownColumns,
               const QString& without, const QString& key) {
    const QSignalBlocker quiet(box);
    box->clear();
    box->addItem(without, QString());
    for (const auto& figure : figures) {
        box->addItem(q(figure.key), q(figure.key));
        box->setItemData(box->count() - 1, plainTip(q(figure.about)), Qt::ToolTipRole);
    }
    for (const std::string& own : ownColumns) box->addItem(q("own " + own), q("own " + own));
    if (!key.isEmpty() && box->findData(key) < 0) box->addItem(key, key); // it stays
    box->setCurrentIndex(key.isEmpty() ? 0 : box->findData(key));
}

/// What stands at each place: of a form that says nothing, the usual facts.
std::vector<FormFact> placesOf(const ScheduleForm& form) {
    std::vector<FormFact> places = form.head;
    if (places.empty())
        for (std::size_t i = 0; i < limits::formFacts; ++i) places.push_back({boardFigures()[i].key, ""});
    places.resize(limits::formFacts);
    return places;
}
} // namespace

void FormPanel::fillTitle() {
    const ScheduleForm* f = form();
    if (!f) return;
    const RuleBook& book = *session.solution().book;
    const std::vector<FormFact> places = placesOf(*f);
    for (std::size_t i = 0; i < factBoxes.size(); ++i) {
        const QString key = q(places[i].fact);
        offerKeys(factBoxes[i], boardFigures(), ownColumns, tr("nothing"), key);
        const BoardFigure* figure = boardFigure(places[i].fact);
        labelLines[i]->setPlaceholderText(figure ? q(labelOf(*figure, book)) : key.mid(4));
        labelLines[i]->setEnabled(!key.isEmpty());
        if (!labelLines[i]->isModified()) labelLines[i]->setText(q(places[i].label));
    }
}

void FormPanel::commitFact(int place, const std::function<void(FormFact&)>& entered) {
    const ScheduleForm* f = form();
    if (!f) return;
    std::vector<FormFact> places = placesOf(*f);
    entered(places[std::size_t(place)]);
    if (places == placesOf({})) places.clear();
    change(tr("Title strip of a form"), [&](ScheduleForm& form) { form.head = places; });
    fillTitle();
}

void FormPanel::fillOrder(const ScheduleForm& f) {
    const bool two = f.of == BoardForm::TwoColumn;
    offerKeys(sortBy, circuitFigures(), ownColumns, tr("place"), q(f.sortBy));
    offerKeys(groupBy, circuitFigures(), ownColumns, tr("nothing"), q(f.groupBy));
    sortBy->setEnabled(!two);
    groupBy->setEnabled(!two);
    backwards->setChecked(f.backwards);
    backwards->setEnabled(!two && !f.sortBy.empty());
    const QString why = tr("On a board of two columns the rows stand as its poles do");
    sortBy->setToolTip(two ? why : tr("Rows stand in the order of what this figure says"));
    groupBy->setToolTip(two ? why
                            : tr("Circuits of which this figure says the same stand under a heading of their own, "
                                 "with their load"));
}

void FormPanel::commitRows(QLineEdit* e) {
    if (!e->isModified()) return;
    e->setModified(false);
    const std::string text = trimmed(e->text().toStdString());
    const auto refuse = [&](const Error& bad) {
        markRefused(e, q(bad.what + ". " + bad.help));
        session.say(q(bad.what + ". " + bad.help), true);
    };
    const auto number = [&](const char* unit, double least, double most) -> std::optional<double> {
        if (text.empty()) return 0;
        const auto typed = readTyped(text, unit);
        if (!typed) {
            refuse(typed.error());
            return std::nullopt;
        }
        if (*typed >= least && *typed <= most) return *typed;
        refuse({"form", "\"" + text + "\" is out of range",
                fmt::format("Type {:g} to {:g} {}, or nothing.", least, most, unit)});
        return std::nullopt;
    };
    if (e == letters || e == balance) {
        const bool size = e == letters;
        const auto value = size ? number("mm", limits::leastLetters, limits::mostLetters) : number("%", 0, 100);
        if (!value) return;
        markTaken(e);
        change(size ? tr("Letters of a form") : tr("Balance on a form"),
               [&](ScheduleForm& f) { (size ? f.letters : f.balance) = *value; });
    } else {
        markTaken(e);
        change(tr("Words of a form"), [&](ScheduleForm& f) { (e == spare ? f.spare : f.space) = text; });
    }
    fillRows();
}

SheetInput FormPanel::input() const { return session.sheetInput(session.solution()); }

const ScheduleForm* FormPanel::form() const {
    const Project& p = session.project();
    const Board* b = p.boards.find(board);
    return b ? &formOf(p, *session.solution().book, *b) : nullptr;
}

void FormPanel::show(BoardId which, int column) {
    board = which;
    chosen = column;
    refresh();
}

void FormPanel::refresh() {
    const ScheduleForm* f = form();
    if (!f) return;
    filling = true;
    const Project& p = session.project();
    const RuleBook& book = *session.solution().book;
    const Board& b = p.boards[board];
    {
        const QSignalBlocker quiet(forms);
        forms->clear();
        for (const ScheduleForm* x : formsFor(p, book, b.form)) forms->addItem(q(x->name));
        forms->setCurrentText(q(f->name));
    }
    const int users = int(boardsOfForm(p, book, board).size());
    {
        const QSignalBlocker quiet(scope);
        const bool only = scope->currentIndex() == 1 && users > 1;
        scope->clear();
        scope->addItem(users == 1 ? tr("For %1, the only board of this form").arg(q(b.name))
                                  : tr("For all %1 boards of this form").arg(users));
        if (users > 1) scope->addItem(tr("For %1 only").arg(q(b.name)));
        scope->setCurrentIndex(only);
    }
    chosen = std::min(chosen, int(f->columns.size()) - 1);
    ownColumns = ownHeadings(p);
    fillColumns();
    filling = false;
    fillColumn();
    fillRows();
    fillTitle();
    fillFigures();
    fillReads();
}

void FormPanel::fillColumns() {
    const QSignalBlocker quiet(columns);
    const QSignalBlocker quietModel(columns->model());
    columns->clear();
    const ScheduleForm* f = form();
    for (const FormColumn& c : f->columns)
        columns->addItem((c.heading.empty() ? tr("(each line)") : q(c.heading)) + "   " + q(c.wording));
    columns->reset();
    columns->setCurrentRow(chosen);
}

void FormPanel::fillColumn() {
    const ScheduleForm* f = form();
    const bool has = f && chosen >= 0 && chosen < int(f->columns.size());
    editor->setEnabled(has);
    removeButton->setEnabled(has && f->columns.size() > 1);
    const FormColumn c = has ? f->columns[std::size_t(chosen)] : FormColumn{};
    const auto set = [&](QLineEdit* line, const QString& text) {
        if (isRefused(line) && shownColumn == chosen) return; // what was refused stays as it was typed
        if (line->text() != text) {
            line->setText(text);
            line->setCursorPosition(0); // seen from its beginning
        }
        markTaken(line);
    };
    set(heading, q(c.heading));
    set(wording, q(c.wording));
    set(width, has ? q(columnWidthText(c, session.project().basis.units)) : QString());
    shownColumn = chosen;
    for (QAbstractButton* b : align->buttons()) b->setChecked(has && align->id(b) == int(c.align));
}

void FormPanel::fillFigures() {
    const QString wanted = search->text().trimmed();
    const auto* before = figures->currentItem();
    const QString key = before ? before->data(Qt::UserRole).toString() : QString();
    figures->clear();
    // With what they come to for a circuit of the board: the one that is selected, else its first with a load.
    const Solution& s = session.solution();
    const SheetInput in = input();
    CircuitId sample = session.selection().as<Circuit>();
    const Circuit* c = s.project.circuits.find(sample);
    if (!c || c->board != board) {
        sample = {};
        for (CircuitId id : s.results.on(board))
            if (!sample && s.project.circuits[id].use == CircuitUse::Load) sample = id;
    }
    const char* group = "";
    for (const CircuitFigure& f : circuitFigures()) {
        const QString about = q(f.about);
        if (!wanted.isEmpty() && !q(f.key).contains(wanted, Qt::CaseInsensitive) &&
            !about.contains(wanted, Qt::CaseInsensitive))
            continue;
        if (group != std::string(f.group)) {
            group = f.group;
            auto* head = new QListWidgetItem(q(f.group), figures);
            head->setFlags(Qt::NoItemFlags);
        }
        const QString value = sample ? q(f.text(CircuitFacts(in, sample))) : QString();
        auto* i = new QListWidgetItem(q(f.key) + (value.isEmpty() ? "" : "   " + value), figures);
        i->setData(Qt::UserRole, q(f.key));
        i->setToolTip(plainTip(about));
        if (q(f.key) == key) figures->setCurrentItem(i);
    }
    bool headed = false;
    for (const std::string& own : ownColumns) {
        const QString name = q("own " + own);
        if (!wanted.isEmpty() && !name.contains(wanted, Qt::CaseInsensitive)) continue;
        if (!headed) (new QListWidgetItem(tr("Own columns"), figures))->setFlags(Qt::NoItemFlags);
        headed = true;
        auto* i = new QListWidgetItem(name, figures);
        i->setData(Qt::UserRole, name);
        if (name == key) figures->setCurrentItem(i);
    }
}

void FormPanel::fillReads() {
    const ScheduleForm* f = form();
    widenButton->setVisible(false);
    later->stop();
    if (!f || chosen < 0 || chosen >= int(f->columns.size())) return reads->clear();
    const auto read = Wording::from(wording->text().toStdString());
    if (!read) return reads->setText(q(read.error().what + ". " + read.error().help).left(160));
    const SheetInput in = input();
    QString text;
    int shown = 0;
    std::string last;
    for (CircuitId id : in.results.on(board)) {
        const CircuitFacts facts(in, id);
        const std::string words = read->byLine() ? "" : read->ofPole(facts, 0);
        if (words.empty() || words == last || shown >= 3) continue;
        last = words;
        ++shown;
        text += q(nameOf(in.project, id)) + ":  " + q(words) + "\n";
    }
    samples = text.trimmed();
    reads->setText(samples);
    later->start(); // how all boards fit takes longer than a frame in a large building
}

void FormPanel::fillFit() {
    const ScheduleForm* f = form();
    if (!isVisible() || !f || chosen < 0 || chosen >= int(f->columns.size())) return;
    const FormFit fit = fitOf(input(), *f, std::size_t(chosen));
    QString text = samples;
    if (fit.cells > 0)
        text += "\n" + (fit.narrow > 0 ? tr("%1 of %2 cells are set narrower than they should be; %3 mm would do")
                                             .arg(fit.narrow)
                                             .arg(fit.cells)
                                             .arg(fit.widest + cellGap + 0.4, 0, 'f', 1)
                                       : tr("all %1 cells fit").arg(fit.cells));
    reads->setText(text.trimmed());
    widenButton->setVisible(fit.narrow > 0);
}

void FormPanel::change(const QString& label, const std::function<void(ScheduleForm&)>& f) {
    if (!form()) return;
    const RuleBook& book = *session.solution().book;
    const bool only = scope->currentIndex() == 1;
    session.edit(label, [&](Project& p) {
        const FormId id = formToChange(p, book, board, only);
        f(*p.forms.change(id));
    });
}

void FormPanel::changeColumn(const QString& label, const std::function<void(FormColumn&)>& f) {
    const std::size_t i = std::size_t(chosen);
    change(label, [&](ScheduleForm& form) {
        if (i < form.columns.size()) f(form.columns[i]);
    });
}

void FormPanel::commit(QLineEdit* line) {
    const ScheduleForm* f = form();
    if (filling || !f || chosen < 0 || chosen >= int(f->columns.size())) return;
    FormColumn c = f->columns[std::size_t(chosen)];
    const std::string text = line->text().toStdString();
    std::optional<Error> bad;
    if (line == heading)
        c.heading = text;
    else if (line == wording)
        bad = setColumnWording(c, text);
    else if (text != columnWidthText(c, session.project().basis.units)) // read back it would be rounded
        bad = setColumnWidth(c, text, session.project().basis.units);
    if (bad) {
        markRefused(line, q(bad->what + ". " + bad->help));
        session.say(q(bad->what + ". " + bad->help), true);
        return;
    }
    markTaken(line);
    if (c == f->columns[std::size_t(chosen)]) return;
    changeColumn(line == heading   ? tr("Heading of a column")
                 : line == wording ? tr("Wording of a column")
                                   : tr("Width of a column"),
                 [&](FormColumn& column) { column = c; });
}

void FormPanel::widen(int column, double by) {
    const ScheduleForm* f = form();
    if (!f || column < 0 || column >= int(f->columns.size())) return;
    const SheetInput in = input();
    const Board& b = in.project.boards[board];
    double has = 0;
    for (const LaidColumn& c : layColumns(*f, b, formWidth(in, b)))
        if (int(c.of) == column) has = c.width();
    chosen = column;
    changeColumn(tr("Width of a column"), [&](FormColumn& c) { c.width = std::clamp(has + by, 3.0, 400.0); });
}

void FormPanel::move(int column, int to) {
    const ScheduleForm* f = form();
    if (!f || column == to || column < 0 || to < 0 || column >= int(f->columns.size()) || to >= int(f->columns.size()))
        return refresh();
    chosen = to;
    change(tr("Order of columns"), [&](ScheduleForm& form) {
        const FormColumn moved = form.columns[std::size_t(column)];
        form.columns.erase(form.columns.begin() + column);
        form.columns.insert(form.columns.begin() + to, moved);
    });
    Q_EMIT columnChosen(to);
}

void FormPanel::add(const std::string& key) {
    const CircuitFigure* figure = circuitFigure(key);
    const bool own = key.starts_with("own ");
    const ScheduleForm* f = form();
    if ((!figure && !own) || !f) return;
    const std::size_t at = chosen < 0 ? f->columns.size() : std::size_t(chosen) + 1;
    chosen = int(at);
    change(tr("Column added"), [&](ScheduleForm& form) {
        if (figure)
            addColumn(form, at, *figure);
        else
            addOwnColumn(form, at, key.substr(4));
    });
    Q_EMIT columnChosen(chosen);
}

void FormPanel::remove() {
    const ScheduleForm* f = form();
    if (!f || chosen < 0 || f->columns.size() < 2) return;
    const int column = chosen;
    chosen = std::max(0, chosen - 1);
    change(tr("Column removed"), [&](ScheduleForm& form) { form.columns.erase(form.columns.begin() + column); });
    Q_EMIT columnChosen(chosen);
}

void FormPanel::insertFigure() {
    const auto* i = figures->currentItem();
    if (!i || chosen < 0) return;
    wording->insert("{" + i->data(Qt::UserRole).toString() + "}");
    wording->setFocus();
    fillReads();
}

void FormPanel::pickForm(const QString& name) {
    const RuleBook& book = *session.solution().book;
    const bool all = scope->currentIndex() == 0;
    chosen = -1;
    session.edit(tr("Form of schedules"), [&](Project& p) { chooseForm(p, book, board, name.toStdString(), all); });
}

void FormPanel::rename() {
    const ScheduleForm* f = form();
    if (!f) return;
    bool ok = false;
    const QString name =
        QInputDialog::getText(this, tr("Rename the form"), tr("Its name"), QLineEdit::Normal, q(f->name), &ok)
            .trimmed();
    if (!ok || name.isEmpty() || name == q(f->name)) return;
    const std::string given = freeFormName(session.project(), *session.solution().book,
                                           name.toStdString()); // two of one name cannot be told apart
    change(tr("Name of a form"), [&](ScheduleForm& form) { form.name = given; });
}

void FormPanel::takeFile() {
    const QString file =
        QFileDialog::getOpenFileName(this, tr("Take forms from a file"), {}, tr("Forms or projects (*.lintel)"));
    if (file.isEmpty()) return;
    const auto read = loadProject(file.toStdString());
    if (!read) return session.say(q(read.error().text()), true);
    if (read->forms.empty() && read->listForms.empty()) return session.say(tr("%1 holds no forms").arg(file), true);
    int n = 0;
    session.edit(tr("Forms taken from a file"), [&](Project& p) { n = takeForms(p, *read); });
    session.say(counted(n, tr("form taken"), tr("forms taken")));
}

void FormPanel::writeFile() {
    askAndWrite(session, this, tr("Write all forms to a file"), "forms.lintel", tr("Forms (*.lintel)"),
                [this](const QString& file) {
                    const Project all = formsFile(session.project(), *session.solution().book);
                    return writeTextAtomically(writeProject(all), file.toStdString());
                });
}

} // namespace lintel
