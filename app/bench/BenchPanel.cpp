#include "app/bench/BenchPanel.h"

#include "app/frame/AskAndWrite.h"
#include "app/frame/PaintKit.h"
#include "core/base/TextFile.h"
#include "core/bench/BenchSheet.h"
#include "core/sheets/WorkingSheet.h"
#include "render/PdfFile.h"

#include <QBoxLayout>
#include <QComboBox>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QTextBrowser>
#include <QToolButton>

namespace lintel {

namespace {
/// Whether this sum ends in a circuit.
bool makes(const BenchKind* kind) {
    return kind && (std::string(kind->name) == "conductor" || std::string(kind->name) == "motor");
}
} // namespace

BenchPanel::BenchPanel(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setObjectName("benchPanel");
    setFixedWidth(404);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    auto* head = new QHBoxLayout;
    auto* title = new QLabel(tr("BENCH"));
    title->setProperty("heading", true);
    head->addWidget(title);
    kinds = new QComboBox(this);
    kinds->setObjectName("benchKind");
    head->addWidget(kinds, 1);
    auto* close = new QToolButton(this);
    close->setText("×");
    close->setAutoRaise(true);
    close->setToolTip(tr("Close the bench  Ctrl+B"));
    connect(close, &QToolButton::clicked, this, &BenchPanel::closed);
    head->addWidget(close);
    column->addLayout(head);
    about = new QLabel(this);
    about->setWordWrap(true);
    about->setProperty("quiet", true);
    column->addWidget(about);
    scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(scroll, 5);
    result = new QTextBrowser(this);
    result->setObjectName("benchResult");
    result->setOpenLinks(false);
    result->setFrameShape(QFrame::NoFrame);
    result->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(result, 6);
    auto* foot = new QHBoxLayout;
    makeButton = new QPushButton(tr("Make it a circuit"), this);
    makeButton->setObjectName("benchMake");
    makeButton->setProperty("strong", true);
    connect(makeButton, &QPushButton::clicked, this, &BenchPanel::makeIt);
    foot->addWidget(makeButton);
    foot->addStretch(1);
    printButton = new QPushButton(tr("Print to PDF…"), this);
    printButton->setObjectName("benchPrint");
    connect(printButton, &QPushButton::clicked, this, [this] {
        askAndWrite(session, this, tr("Print the working"),
                    q(safeFileName(newest ? newest->working.title : std::string(), ".pdf")), tr("PDF (*.pdf)"),
                    [this](const QString& file) { return print(file); });
    });
    foot->addWidget(printButton);
    column->addLayout(foot);
    connect(kinds, &QComboBox::activated, this, [this] { choose(kinds->currentData().toString().toStdString()); });
    connect(&session, &Session::opened, this, [this] {
        for (auto& [sum, values] : remembered) values.erase("units"); // those of the project that is open now
        offeredFor.clear();                                           // the form is made anew, once
        offerKinds();
    });
    connect(&session, &Session::solved, this, [this] { offerKinds(); });
    connect(&session, &Session::selectionChanged, this, [this] {
        if (!isVisible()) return;
        if (auto* box = qobject_cast<QComboBox*>(editors.count("system") ? editors["system"] : nullptr);
            box && !entered().count("system") && !systemOfBoard().empty())
            box->setCurrentText(q(systemOfBoard()));
        work();
    });
    offerKinds();
}

/// Only the sums that the rule book in force is for; another book may bring others.
void BenchPanel::offerKinds() {
    const RuleBook& book = *session.solution().book;
    if (offeredFor == book.id && kind) return;
    offeredFor = book.id;
    kinds->clear();
    const BenchKind* first = nullptr;
    for (const BenchKind* k : benchKinds()) {
        if (!k->suits(book)) continue;
        kinds->addItem(tr(k->title), QString(k->name));
        if (!first) first = k;
    }
    choose(kind && kind->suits(book) ? kind->name : first->name);
}

void BenchPanel::choose(const std::string& name) {
    kind = benchKind(name);
    kinds->setCurrentIndex(kinds->findData(q(name)));
    about->setText(tr(kind->about));
    more = false;
    rebuild();
}

void BenchPanel::begin() {
    rebuild();
    if (!editors.empty())
        for (const BenchField& f : fields)
            if (auto it = editors.find(f.key); it != editors.end() && f.type != BenchField::Type::Text) {
                it->second->setFocus();
                if (auto* line = qobject_cast<QLineEdit*>(it->second)) line->selectAll();
                break;
            }
}

std::map<std::string, std::string>& BenchPanel::entered() {
    return remembered[session.solution().book->id + " " + kind->name];
}

bool BenchPanel::wanted(const BenchField& f) {
    if (f.seldom && !more) return false;
    if (f.only.empty()) return true;
    const auto& values = entered();
    const auto it = values.find(fields.front().key);
    const std::string chosen = it == values.end() ? fields.front().value : it->second;
    return std::find(f.only.begin(), f.only.end(), chosen) != f.only.end();
}

/// The form: three fields a row, each under its label; lists take the whole width.
void BenchPanel::rebuild() {
    building = true;
    fields = kind->fields(*session.solution().book);
    auto& values = entered();
    if (!values.count("units") && session.isOpen())
        for (const BenchField& f : fields)
            if (f.key == "units") values["units"] = wordOf(session.project().basis.units);
    editors.clear();
    form = new QWidget;
    auto* grid = new QGridLayout(form);
    grid->setContentsMargins(0, 0, 8, 0);
    grid->setHorizontalSpacing(10);
    grid->setVerticalSpacing(5);
    for (int i = 0; i < 3; ++i) grid->setColumnStretch(i, 1);
    int row = 0, at = 0;
    bool seldom = false;
    for (const BenchField& f : fields) {
        seldom = seldom || f.seldom;
        if (!wanted(f)) continue;
        const auto known = values.find(f.key);
        const std::string usual = f.key == "system" && !systemOfBoard().empty() ? systemOfBoard() : f.value;
        const QString value = q(known == values.end() ? usual : known->second);
        const std::string key = f.key;
        const auto changed = [this, key](const QString& text) {
            if (building) return;
            entered()[key] = text.toStdString();
            work();
        };
        QWidget* editor = nullptr;
        int wide = 1;
        if (f.type == BenchField::Type::Choice || f.type == BenchField::Type::Flag) {
            auto* box = new QComboBox;
            for (const std::string& c :
                 f.type == BenchField::Type::Flag ? std::vector<std::string>{"no", "yes"} : f.choices)
                box->addItem(q(c));
            box->setCurrentText(value);
            if (f.open) { // anything else of its kind may be typed
                box->setEditable(true);
                box->setInsertPolicy(QComboBox::NoInsert);
                box->setCurrentText(value);
                connect(box->lineEdit(), &QLineEdit::textEdited, this, changed);
            }
            box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
            box->setMinimumContentsLength(4);
            const bool decides = &f == &fields.front(); // other fields depend on it
            connect(box, &QComboBox::activated, this, [this, box, changed, decides] {
                changed(box->currentText());
                if (decides)
                    QMetaObject::invokeMethod(
                        this, [this] { rebuild(); }, Qt::QueuedConnection);
            });
            if (decides && f.choices.size() > 4) wide = 3;
            const auto longest =
                std::max_element(f.choices.begin(), f.choices.end(),
                                 [](const std::string& a, const std::string& b) { return q(a).size() < q(b).size(); });
            if (longest != f.choices.end() && q(*longest).size() > 12) wide = std::max(wide, 2);
            editor = box;
        } else if (f.type == BenchField::Type::Lines) {
            auto* text = new QPlainTextEdit(value);
            text->setFixedHeight(f.value.find('\n') == std::string::npos ? 44 : 62);
            text->setTabChangesFocus(true);
            connect(text, &QPlainTextEdit::textChanged, this, [text, changed] { changed(text->toPlainText()); });
            editor = text;
            wide = 3;
        } else {
            auto* line = new QLineEdit(value);
            connect(line, &QLineEdit::textEdited, this, changed);
            editor = line;
        }
        editor->setMinimumWidth(40);
        editor->setSizePolicy(QSizePolicy::Ignored, editor->sizePolicy().verticalPolicy());
        editor->setObjectName("bench:" + q(f.key));
        editor->setToolTip(q(f.help));
        QString label = q(f.label);
        if (!f.unit.empty() && (f.type == BenchField::Type::Number || f.type == BenchField::Type::Choice) &&
            f.unit != "V")
            label += ", " + q(f.unit);
        if (label.size() > 18) wide = std::max(wide, 2); // never cut
        if (at + wide > 3) ++row, at = 0;
        auto* name = new QLabel(label);
        name->setMinimumWidth(40);
        name->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        name->setToolTip(label);
        name->setProperty("quiet", true);
        name->setBuddy(editor);
        grid->addWidget(name, row * 2, at, 1, wide);
        grid->addWidget(editor, row * 2 + 1, at, 1, wide);
        editors[f.key] = editor;
        at += wide;
    }
    if (seldom) {
        auto* toggle = new QPushButton(more ? tr("Fewer conditions") : tr("More conditions…"));
        toggle->setObjectName("benchMore");
        toggle->setProperty("flat", true);
        toggle->setFlat(true);
        connect(toggle, &QPushButton::clicked, this, [this] {
            more = !more;
            QMetaObject::invokeMethod(
                this, [this] { rebuild(); }, Qt::QueuedConnection);
        });
        grid->addWidget(toggle, row * 2 + 2, 0, 1, 3, Qt::AlignLeft);
    }
    grid->setRowStretch(row * 2 + 3, 1);
    form->setAutoFillBackground(false);
    scroll->setWidget(form);
    scroll->viewport()->setAutoFillBackground(false);
    building = false;
    work();
}

/// The system of the board that a circuit would go on; the sum begins with it until another one is chosen.
std::string BenchPanel::systemOfBoard() const {
    const Board* b =
        session.isOpen() && makes(kind) ? session.project().boards.find(session.boardOfSelection()) : nullptr;
    return b ? wordOf(b->system) : "";
}

void BenchPanel::work() {
    nlohmann::json asked = nlohmann::json::object();
    for (const auto& [key, value] : entered()) asked[key] = value;
    if (!asked.contains("system") && !systemOfBoard().empty() &&
        std::any_of(fields.begin(), fields.end(), [](const BenchField& f) { return f.key == "system"; }))
        asked["system"] = systemOfBoard();
    show(bench(*kind, asked, *session.solution().book));
}

namespace {
QString safe(const std::string& s) { return q(s).toHtmlEscaped(); }
/// A figure with its unit, or a heading: never broken over two lines.
QString unbroken(const std::string& s) { return safe(s).replace(' ', QChar(0xa0)); }
} // namespace

void BenchPanel::show(const Outcome<BenchAnswer>& outcome) {
    const Theme& t = theme();
    for (auto& [key, editor] : editors) editor->setStyleSheet("");
    makeButton->setEnabled(false);
    printButton->setEnabled(bool(outcome));
    if (!outcome) {
        newest.reset();
        const Error& e = outcome.error();
        const std::string key = e.where.substr(e.where.find('.') + 1);
        if (auto it = editors.find(key); it != editors.end())
            it->second->setStyleSheet(QString("border: 1px solid %1").arg(t.stop.name()));
        result->setHtml(QString("<p style='color:%1'>%2</p><p style='color:%3'>%4</p>")
                            .arg(t.stop.name(), safe(e.what), t.quiet.name(), safe(e.help)));
        return;
    }
    newest = *outcome;
    const BenchAnswer& a = *newest;
    const bool onBoard = session.isOpen() && a.circuit;
    makeButton->setVisible(onBoard);
    const Board* board = session.isOpen() ? session.project().boards.find(session.boardOfSelection()) : nullptr;
    makeButton->setEnabled(onBoard && board);
    makeButton->setText(board ? plainButton(tr("Make it a circuit of %1").arg(q(board->name)))
                              : tr("Make it a circuit"));
    QString html =
        QString(
            "<style>td{padding:1px 10px 1px 0} .k{color:%1;font-size:12px} .r{color:%1} .g{font-weight:600;color:%2} "
            "th{text-align:left;font-weight:400;color:%1;padding-right:10px}</style><table width='100%'>")
            .arg(t.quiet.name(), t.accent.name());
    std::vector<const BenchFigure*> shown;
    for (const BenchFigure& f : a.figures)
        if (!f.label.empty()) shown.push_back(&f);
    // Two a row where both are short; a longer one has a row to itself, so that no figure is parted from its unit.
    const auto isShort = [](const BenchFigure* f) { return q(f->text).size() <= 10 && q(f->label).size() <= 11; };
    for (std::size_t i = 0; i < shown.size(); ++i) {
        html += "<tr>";
        if (isShort(shown[i]) && i + 1 < shown.size() && isShort(shown[i + 1])) {
            for (const BenchFigure* f : {shown[i], shown[i + 1]})
                html += QString("<td class='k' width='25%'>%1</td><td width='25%'><b>%2</b></td>")
                            .arg(unbroken(f->label), unbroken(f->text));
            ++i;
        } else {
            html += QString("<td class='k' colspan='2'>%1</td><td colspan='2'><b>%2</b></td>")
                        .arg(safe(shown[i]->label),
                             q(shown[i]->text).size() <= 26 ? unbroken(shown[i]->text) : safe(shown[i]->text));
        }
        html += "</tr>";
    }
    html += "</table>";
    for (const std::string& c : a.cautions)
        html += QString("<p style='color:%1;margin:4px 0'>%2</p>").arg(t.stop.name(), safe(c));
    if (!a.rows.empty()) {
        html += "<table width='100%' style='margin-top:6px'><tr>";
        for (std::size_t i = 0; i < a.columns.size(); ++i)
            html += QString("<th align='%2'>%1</th>").arg(unbroken(a.columns[i]), i ? "right" : "left");
        html += "</tr>";
        for (const auto& row : a.rows) {
            html += "<tr>";
            for (std::size_t i = 0; i < row.size(); ++i)
                html +=
                    QString("<td align='%2'>%1</td>").arg(i ? unbroken(row[i]) : safe(row[i]), i ? "right" : "left");
            html += "</tr>";
        }
        html += "</table>";
    }
    html += QString("<p style='color:%1;margin:10px 0 2px 0;font-weight:600'>%2</p><table width='100%'>")
                .arg(t.quiet.name(), tr("WORKINGS"));
    for (const WorkingStep& s : a.working.steps)
        html +=
            QString(
                "<tr><td class='%5' width='70%' style='padding-top:5px'>%1</td><td align='right' "
                "style='padding-top:5px'><b>%3</b></td></tr><tr><td>%2</td><td align='right' class='r'>%4</td></tr>")
                .arg(safe(s.what), safe(s.formula), unbroken(s.value), safe(s.cited), s.governs ? "g" : "k");
    html += "</table>";
    result->setHtml(html);
}

QString BenchPanel::shownText() const { return result->toPlainText(); }

void BenchPanel::makeIt() {
    const BoardId board = session.boardOfSelection();
    if (!newest || !newest->circuit || !board) return;
    std::optional<Error> bad;
    CircuitId made;
    session.edit(tr("Circuit from the bench"), [&](Project& p) {
        const auto id = makeCircuit(p, board, *newest->circuit);
        if (id)
            made = *id;
        else
            bad = id.error();
    });
    if (bad) {
        session.say(q(bad->text()), true);
        return;
    }
    session.select(made);
    session.say(tr("%1 made. Undo takes it back.").arg(q(nameOf(session.project(), made))));
}

std::optional<Error> BenchPanel::print(const QString& file) const {
    if (!newest) return Error{"bench", "there is no answer to print", "Mend what is marked first."};
    const RuleBook& book = *session.solution().book;
    const SheetHead head = session.isOpen() ? sheetHead(session.project(), book) : sheetHead("", "", book);
    return writePdf(workingSheets(*newest, head), file, PdfAbout{newest->working.title, head.company, head.job});
}

void BenchPanel::restyle() {
    if (kind) rebuild();
}

void BenchPanel::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Escape) return Q_EMIT closed();
    QWidget::keyPressEvent(e);
}

void BenchPanel::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), theme().surface);
    p.setPen(theme().rule);
    p.drawLine(0, 0, 0, height());
}

} // namespace lintel
