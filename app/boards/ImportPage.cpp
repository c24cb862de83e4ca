#include "app/boards/ImportPage.h"

#include "app/frame/FlowLayout.h"
#include "app/frame/PaintKit.h"
#include "core/base/Parse.h"

#include <QBoxLayout>
#include <QCheckBox>
#include <QComboBox>
#include <QDrag>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QKeyEvent>
#include <QLabel>
#include <QMenu>
#include <QMimeData>
#include <QMouseEvent>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollBar>
#include <QSpinBox>
#include <QTableView>

namespace lintel {

// ---- the rows ----

void ListModel::show(std::shared_ptr<Grid> g, const ImportKind* k, ImportKind::Settings s,
                     std::vector<ImportKind::Row> judged, bool problemsOnly) {
    beginResetModel();
    grid = std::move(g);
    kind = k;
    settings = std::move(s);
    all = std::move(judged);
    rows.clear();
    for (std::size_t i = 0; i < all.size(); ++i)
        if (!problemsOnly || !all[i].problems.empty()) rows.push_back(i);
    endResetModel();
}

QVariant ListModel::data(const QModelIndex& i, int role) const {
    if (i.row() < 0 || i.row() >= int(rows.size())) return {};
    const ImportKind::Row& r = row(i.row());
    const Theme& t = theme();
    if (i.column() == 0) {
        if (role == Qt::CheckStateRole) return r.leftOut || r.stops() ? Qt::Unchecked : Qt::Checked;
        if (role == Qt::DisplayRole) return r.line;
        if (role == Qt::ForegroundRole) return t.quiet;
        return {};
    }
    if (i.column() == 1) {
        if (role == Qt::DisplayRole) {
            for (bool stops : {true, false})
                for (const ListProblem& p : r.problems)
                    if (p.stops == stops && (stops || r.what.isEmpty() || r.fresh)) return q(p.text);
            if (r.leftOut) return tr("left out");
            return r.what.isEmpty() ? tr("the same") : r.what;
        }
        if (role == Qt::ToolTipRole) {
            QStringList words;
            for (const ListProblem& p : r.problems) words << q(p.text);
            if (!r.fresh && !r.what.isEmpty()) words << r.what;
            return plainTip(words.join("\n"));
        }
        if (role == Qt::ForegroundRole)
            return r.stops()                       ? t.stop
                   : !r.problems.empty()           ? t.check
                   : r.leftOut || r.what.isEmpty() ? t.quiet
                                                   : t.accent;
        return {};
    }
    const int column = i.column() - firstCell;
    const auto& cells = grid->rows[std::size_t(r.gridRow)];
    if (role == Qt::DisplayRole || role == Qt::EditRole)
        return column < int(cells.size()) ? q(cells[std::size_t(column)]) : QString();
    const bool meant = column < int(settings.columns.size()) && settings.columns[std::size_t(column)] != 0;
    for (const ListProblem& p : r.problems)
        if (p.column == column) {
            if (role == Qt::ForegroundRole) return p.stops ? t.stop : t.check;
            if (role == Qt::FontRole) return uiFont(1, true);
            if (role == Qt::ToolTipRole) return plainTip(q(p.text));
        }
    if (role == Qt::ForegroundRole) return meant && !r.leftOut ? t.ink : t.quiet;
    if (role == Qt::TextAlignmentRole && kind->fields() > 0 && column < int(cells.size()))
        return int((numberFrom(cells[std::size_t(column)], settings.decimal) ? Qt::AlignRight : Qt::AlignLeft) |
                   Qt::AlignVCenter);
    return {};
}

QVariant ListModel::headerData(int section, Qt::Orientation o, int role) const {
    if (o != Qt::Horizontal || role != Qt::DisplayRole) return {};
    if (section == 0) return tr("Line");
    if (section == 1) return tr("What becomes of it");
    const auto c = std::size_t(section - firstCell);
    const int f = c < settings.columns.size() ? settings.columns[c] : 0;
    const QString heading = settings.headerRow >= 0 && c < grid->rows[std::size_t(settings.headerRow)].size()
                                ? q(grid->rows[std::size_t(settings.headerRow)][c]).trimmed()
                                : tr("column %1").arg(section - firstCell + 1);
    if (kind->fields() == 0) return heading;
    return (f == 0 ? QString("–") : kind->wordOf(f)) + "\n" + heading;
}

Qt::ItemFlags ListModel::flags(const QModelIndex& i) const {
    Qt::ItemFlags f = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    if (i.column() == 0) f |= Qt::ItemIsUserCheckable;
    if (i.column() >= firstCell) f |= Qt::ItemIsEditable;
    return f;
}

bool ListModel::setData(const QModelIndex& i, const QVariant& value, int role) {
    const ImportKind::Row& r = row(i.row());
    if (i.column() == 0 && role == Qt::CheckStateRole)
        return Q_EMIT leftOut(r.gridRow, value.toInt() != Qt::Checked), true;
    if (i.column() < firstCell || role != Qt::EditRole) return false;
    Q_EMIT mended(r.gridRow, i.column() - firstCell, value.toString());
    return true;
}

// ---- the headings ----

ListHeader::ListHeader(QWidget* parent) : QHeaderView(Qt::Horizontal, parent) {
    setAcceptDrops(true);
    setSectionsClickable(true);
    setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    setFixedHeight(42);
}
void ListHeader::mousePressEvent(QMouseEvent* e) {
    const int section = logicalIndexAt(e->pos());
    const bool edge = cursor().shape() == Qt::SplitHCursor;
    if (e->button() != Qt::LeftButton || section < ListModel::firstCell || edge || !kind || kind->fields() == 0)
        return QHeaderView::mousePressEvent(e);
    QMenu menu(this);
    for (int f = 0; f < kind->fields(); ++f)
        menu.addAction(f == 0 ? tr("pass it over") : kind->wordOf(f), this,
                       [this, section, f] { Q_EMIT meant(section - ListModel::firstCell, f); });
    menu.exec(mapToGlobal(QPoint(sectionViewportPosition(section), height())));
}
void ListHeader::dragEnterEvent(QDragEnterEvent* e) {
    if (e->mimeData()->hasFormat(mimeType)) e->acceptProposedAction();
}
void ListHeader::dragMoveEvent(QDragMoveEvent* e) {
    if (logicalIndexAt(e->position().toPoint()) >= ListModel::firstCell)
        e->acceptProposedAction();
    else
        e->ignore();
}
void ListHeader::dropEvent(QDropEvent* e) {
    const int section = logicalIndexAt(e->position().toPoint());
    if (section < ListModel::firstCell) return;
    Q_EMIT meant(section - ListModel::firstCell, e->mimeData()->data(mimeType).toInt());
    e->acceptProposedAction();
}

namespace {

/// A field that can be dragged onto a column.
class Chip : public QLabel {
public:
    Chip(int f, const QString& word, QWidget* parent) : QLabel(word, parent), field(f) {
        setCursor(Qt::OpenHandCursor);
        setObjectName("chip:" + word);
        setStyleSheet(QString("QLabel { border: 1px solid %1; border-radius: 4px; padding: 2px 7px; background: %2; }")
                          .arg(theme().rule.name(), theme().surface.name()));
    }

protected:
    void mousePressEvent(QMouseEvent* e) override { at = e->pos(); }
    void mouseMoveEvent(QMouseEvent* e) override {
        if (!(e->buttons() & Qt::LeftButton) || (e->pos() - at).manhattanLength() < 6) return;
        auto* mime = new QMimeData;
        mime->setData(ListHeader::mimeType, QByteArray::number(field));
        auto* drag = new QDrag(this);
        drag->setMimeData(mime);
        drag->setPixmap(grab());
        drag->exec(Qt::CopyAction);
    }

private:
    int field;
    QPoint at;
};

} // namespace

// ---- the page ----

ImportPage::ImportPage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), work(new Background(this)), title(new QLabel(this)), notes(new QLabel(this)),
      sums(new QLabel(this)), rowWords(new QLabel(this)), progress(new QProgressBar(this)),
      delimiter(new QComboBox(this)), encoding(new QComboBox(this)), sheet(new QComboBox(this)),
      decimal(new QComboBox(this)), unit(new QComboBox(this)), header(new QSpinBox(this)),
      problemsOnly(new QCheckBox(tr("Only rows with problems"), this)),
      removeGone(new QCheckBox(tr("Remove what the list no longer has"), this)),
      circuits(new QCheckBox(tr("Give the missing ones a circuit"), this)), go(new QPushButton(tr("Take in"), this)),
      no(new QPushButton(tr("Cancel"), this)), view(new QTableView(this)), rows(new ListModel(this)) {
    asRich(notes);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 2, 0, 6);
    column->setSpacing(6);
    title->setTextFormat(Qt::RichText);
    column->addWidget(title);
    auto* bar = new QHBoxLayout;
    bar->setSpacing(5);
    const auto labelled = [&](const QString& text, QWidget* w) {
        auto* l = new QLabel(text);
        l->setProperty("quiet", true);
        l->setBuddy(w);
        bar->addWidget(l);
        bar->addWidget(w);
        w->setProperty("label", QVariant::fromValue<QWidget*>(l));
    };
    for (const auto& [name, sign] :
         {std::pair{tr("comma"), ','}, {tr("semicolon"), ';'}, {tr("tab"), '\t'}, {tr("bar"), '|'}})
        delimiter->addItem(name, QChar(sign));
    for (const char* e : {"UTF-8", "Windows-1252", "ISO-8859-15", "UTF-16LE", "UTF-16BE", "Windows-1250", "Shift_JIS"})
        encoding->addItem(e);
    decimal->addItem(tr("1.5 point"), QChar('.'));
    decimal->addItem(tr("1,5 comma"), QChar(','));
    for (LoadUnit u : {LoadUnit::VA, LoadUnit::kVA, LoadUnit::W, LoadUnit::kW, LoadUnit::A, LoadUnit::hp})
        unit->addItem(wordOf(u), int(u));
    delimiter->setObjectName("listDelimiter");
    encoding->setObjectName("listEncoding");
    decimal->setObjectName("listDecimal");
    unit->setObjectName("listUnit");
    header->setObjectName("listHeader");
    header->setRange(0, 40);
    header->setButtonSymbols(QAbstractSpinBox::NoButtons);
    header->setSpecialValueText(tr("none"));
    labelled(tr("Sheet"), sheet);
    labelled(tr("Parted by"), delimiter);
    labelled(tr("Letters"), encoding);
    labelled(tr("Headings in row"), header);
    labelled(tr("Decimals"), decimal);
    labelled(tr("Loads in"), unit);
    bar->addStretch(1);
    column->addLayout(bar);
    for (ImportKind* one : {static_cast<ImportKind*>(&loadsKind), static_cast<ImportKind*>(&feedersKind)}) {
        auto* strip = new QWidget(this);
        auto* chips = new FlowLayout(5);
        strip->setLayout(chips);
        auto* hint = new QLabel(tr("Drag onto a column:"), strip);
        hint->setProperty("quiet", true);
        chips->addWidget(hint);
        for (int f = 1; f < one->fields(); ++f)
            if (one->offered(f)) chips->addWidget(new Chip(f, one->wordOf(f), strip));
        column->addWidget(strip);
        strips.push_back(strip);
    }
    notes->setWordWrap(true);
    notes->setProperty("quiet", true);
    column->addWidget(notes);
    progress->setRange(0, 100);
    progress->hide();
    column->addWidget(progress);
    heads = new ListHeader(view);
    view->setHorizontalHeader(heads);
    view->setModel(rows);
    view->setObjectName("listTable");
    view->verticalHeader()->hide();
    view->verticalHeader()->setDefaultSectionSize(24);
    view->setSelectionMode(QAbstractItemView::SingleSelection);
    view->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                          QAbstractItemView::AnyKeyPressed);
    heads->setMinimumSectionSize(40);
    column->addWidget(view, 1);
    rowWords->setObjectName("listRowWords");
    rowWords->setTextFormat(Qt::PlainText);
    rowWords->setWordWrap(true);
    column->addWidget(rowWords);
    sums->setObjectName("listSummary");
    sums->setWordWrap(true);
    column->addWidget(sums);
    auto* foot = new QHBoxLayout;
    foot->setSpacing(14);
    problemsOnly->setObjectName("listProblemsOnly");
    removeGone->setObjectName("listRemoveGone");
    circuits->setObjectName("listCircuits");
    foot->addWidget(problemsOnly);
    foot->addWidget(removeGone);
    foot->addWidget(circuits);
    foot->addStretch(1);
    foot->addWidget(no);
    foot->addWidget(go);
    go->setProperty("strong", true);
    go->setObjectName("listAccept");
    no->setObjectName("listCancel");
    column->addLayout(foot);
    for (QComboBox* box : {delimiter, encoding, sheet})
        connect(box, &QComboBox::activated, this, [this, box] {
            if (filling) return;
            box->setProperty("byHand", true);
            read();
        });
    connect(decimal, &QComboBox::activated, this,
            [this] { how.decimal = decimal->currentData().toChar().toLatin1(), judge(); });
    connect(unit, &QComboBox::activated, this, [this] { how.unit = LoadUnit(unit->currentData().toInt()), judge(); });
    connect(header, &QSpinBox::valueChanged, this, [this](int row) {
        if (filling || !grid) return;
        how.headerRow = std::min(row, int(grid->rows.size())) - 1;
        if (how.headerRow >= 0) { // headings further down mean something else
            Grid part = *grid;
            part.rows.erase(part.rows.begin(), part.rows.begin() + how.headerRow);
            const ImportKind::Settings guess = kind->guess(part, session.project());
            if (guess.headerRow == 0) how.columns = guess.columns;
        }
        judge();
    });
    connect(heads, &ListHeader::meant, this, &ImportPage::setMeaning);
    connect(rows, &ListModel::mended, this, [this](int r, int c, const QString& text) {
        grid->put(std::size_t(r), std::size_t(c), text.toStdString());
        judge();
    });
    connect(rows, &ListModel::leftOut, this, [this](int r, bool left) {
        left ? (void)out.insert(r) : (void)out.erase(r);
        judge();
    });
    view->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(view, &QTableView::customContextMenuRequested, this, &ImportPage::rowMenu);
    connect(view->selectionModel(), &QItemSelectionModel::currentChanged, this, &ImportPage::tellRow);
    connect(problemsOnly, &QCheckBox::toggled, this, &ImportPage::judge);
    connect(removeGone, &QCheckBox::toggled, this, &ImportPage::judge);
    connect(go, &QPushButton::clicked, this, &ImportPage::accept);
    connect(no, &QPushButton::clicked, this, &ImportPage::drop);
}

void ImportPage::open(const QString& path) {
    kind = &loadsKind;
    begin(path);
}

void ImportPage::openFeeders(const QString& path) {
    kind = &feedersKind;
    begin(path);
}

void ImportPage::openModel(const QString& path) {
    kind = &modelKind;
    begin(path);
}

void ImportPage::begin(const QString& path) {
    file = path;
    heads->setKind(kind);
    strips[0]->setVisible(kind == &loadsKind);
    strips[1]->setVisible(kind == &feedersKind);
    removeGone->setVisible(kind->canRemoveGone());
    removeGone->setText(kind == &modelKind ? tr("Remove what the model no longer has")
                                           : tr("Remove what the list no longer has"));
    circuits->setVisible(kind->canCircuit());
    for (QComboBox* box : {delimiter, encoding, sheet}) box->setProperty("byHand", false);
    out.clear();
    grid.reset();
    circuits->setChecked(false);
    removeGone->setChecked(false);
    problemsOnly->setChecked(false);
    showSettings();
    title->setText(QString("<span style='font-size:17px;font-weight:600'>%1</span>")
                       .arg(QFileInfo(path).fileName().toHtmlEscaped()));
    read();
}

void ImportPage::showSettings() {
    const bool list = kind->fields() > 0, csv = list && (!grid || grid->sheets.empty());
    const auto show = [](QWidget* w, bool on) {
        w->setVisible(on);
        w->property("label").value<QWidget*>()->setVisible(on);
    };
    show(delimiter, csv);
    show(encoding, csv);
    show(sheet, list && !csv);
    show(header, list);
    show(decimal, list);
    show(unit, list);
}

void ImportPage::read() {
    GridOptions o;
    if (delimiter->property("byHand").toBool()) o.delimiter = delimiter->currentData().toChar().toLatin1();
    if (encoding->property("byHand").toBool()) o.encoding = encoding->currentText().toStdString();
    if (sheet->property("byHand").toBool()) o.sheet = sheet->currentText().toStdString();
    progress->setValue(0);
    progress->show();
    go->setEnabled(false);
    notes->setText(tr("Reading… Esc stops it."));
    QPointer<QProgressBar> bar = progress;
    work->start([this, o, path = file.toStdString(), bar, reader = kind,
                 units = session.project().basis.units](const Background::Stop& stop) mutable -> std::function<void()> {
        o.progress = [stop, bar](double done) {
            if (bar)
                QMetaObject::invokeMethod(
                    bar,
                    [bar, done] {
                        if (bar) bar->setValue(int(done * 100));
                    },
                    Qt::QueuedConnection);
            return !stop->load();
        };
        auto g = std::make_shared<Outcome<ImportKind::Read>>(reader->read(path, o, units));
        return [this, g] { take(std::move(*g)); };
    });
}

void ImportPage::take(Outcome<ImportKind::Read> g) {
    progress->hide();
    if (!g) {
        notes->setText("<span style='color:" + theme().stop.name() + "'>" + q(g.error().text()).toHtmlEscaped() +
                       "</span>");
        session.say(q(g.error().text()), true);
        grid.reset();
        rows->show(nullptr, kind, {}, {}, false);
        sums->clear();
        return;
    }
    kind->hold(*g);
    grid = std::make_shared<Grid>(std::move(g->grid));
    how = kind->guess(*grid, session.project());
    filling = true;
    showSettings();
    if (grid->sheets.empty()) {
        delimiter->setCurrentIndex(delimiter->findData(QChar(grid->delimiter)));
        if (encoding->findText(q(grid->encoding)) < 0) encoding->addItem(q(grid->encoding));
        encoding->setCurrentText(q(grid->encoding));
        sheet->clear();
    } else {
        sheet->clear();
        for (const std::string& name : grid->sheets) sheet->addItem(q(name));
        sheet->setCurrentText(q(grid->sheet));
    }
    header->setValue(how.headerRow + 1);
    decimal->setCurrentIndex(decimal->findData(QChar(how.decimal)));
    unit->setCurrentIndex(unit->findData(int(how.unit)));
    filling = false;
    judge();
    view->resizeColumnsToContents();
    for (int i = ListModel::firstCell; i < rows->columnCount(); ++i)
        view->setColumnWidth(i, std::clamp(view->columnWidth(i), 60, 190));
    view->setColumnWidth(0, 62);
    view->setColumnWidth(1, kind == &loadsKind ? 290 : 430);
}

void ImportPage::setMeaning(int column, int field) {
    if (!grid) return;
    how.columns.resize(grid->columns(), 0);
    if (field != 0) std::replace(how.columns.begin(), how.columns.end(), field, 0); // it belongs to one column
    how.columns[std::size_t(column)] = field;
    if (how.headerRow >= 0 && column < int(grid->rows[std::size_t(how.headerRow)].size()))
        if (const auto u = kind->unitOf(field, grid->rows[std::size_t(how.headerRow)][std::size_t(column)])) {
            how.unit = *u;
            unit->setCurrentIndex(unit->findData(int(*u)));
        }
    judge();
}

void ImportPage::tellRow() {
    const QModelIndex i = view->currentIndex();
    rowWords->setVisible(i.isValid());
    if (!i.isValid()) return;
    const ImportKind::Row& row = rows->row(i.row());
    QStringList words;
    for (const ListProblem& p : row.problems) words << q(p.text);
    if (!row.what.isEmpty() && !row.stops()) words << row.what;
    if (row.leftOut) words << tr("left out");
    rowWords->setText(tr("Line %1: %2").arg(row.line).arg(words.isEmpty() ? tr("the same") : words.join("; ")));
}

void ImportPage::rowMenu(QPoint at) {
    const QModelIndex i = view->indexAt(at);
    const QStringList choices = kind->choices();
    if (!i.isValid() || choices.isEmpty()) return;
    const int gridRow = rows->row(i.row()).gridRow;
    const auto said = how.takenAs.find(gridRow);
    QMenu menu(this);
    menu.addSection(tr("It feeds a"));
    for (int c = 0; c < int(choices.size()); ++c) {
        QAction* a = menu.addAction(choices[c], this, [this, gridRow, c] {
            how.takenAs[gridRow] = c;
            judge();
        });
        a->setCheckable(true);
        a->setChecked(c == (said == how.takenAs.end() ? 0 : said->second));
    }
    menu.exec(view->viewport()->mapToGlobal(at));
}

void ImportPage::judge() {
    if (!grid) return;
    ImportKind::Judged judged = kind->judge(*grid, how, session.project(), *session.solution().book, out);
    const int scroll = view->verticalScrollBar() ? view->verticalScrollBar()->value() : 0;
    rows->show(grid, kind, how, std::move(judged.rows), problemsOnly->isChecked());
    if (view->verticalScrollBar()) view->verticalScrollBar()->setValue(scroll);
    tellRow();
    notes->setText(judged.notes.join(" · ").toHtmlEscaped());
    notes->setVisible(!judged.notes.isEmpty());
    sums->setText(judged.sums.join(" · "));
    removeGone->setEnabled(judged.gone > 0);
    const std::size_t enters = judged.entering + (removeGone->isChecked() ? judged.gone : 0);
    go->setEnabled(enters > 0);
    go->setText(enters ? tr("Take in %1").arg(enters) : tr("Nothing to take in"));
}

QString ImportPage::summary() const { return sums->text(); }

void ImportPage::accept() {
    if (!grid || !go->isEnabled()) return;
    Project next = session.project();
    const ImportKind::Taken taken =
        kind->take(next, *session.solution().book, removeGone->isChecked(), circuits->isChecked());
    session.edit(tr("Take in %1").arg(QFileInfo(file).fileName()), [&](Project& p) { p = next; });
    session.say(taken.words, taken.look);
    grid.reset();
    Q_EMIT closed();
    if (kind == &modelKind) Q_EMIT modelTaken();
}

void ImportPage::drop() {
    work->cancel();
    progress->hide();
    grid.reset();
    Q_EMIT closed();
}

void ImportPage::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Escape)
        drop();
    else
        QWidget::keyPressEvent(e);
}

} // namespace lintel
