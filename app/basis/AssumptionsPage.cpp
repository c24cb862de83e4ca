#include "app/basis/AssumptionsPage.h"

#include "app/frame/AskAndWrite.h"
#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "app/frame/WhenShown.h"
#include "core/base/TextFile.h"
#include "core/check/Assumptions.h"
#include "render/PdfFile.h"

#include <QBoxLayout>
#include <QDate>
#include <QItemSelectionModel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollBar>
#include <QSettings>
#include <QStyledItemDelegate>

namespace lintel {
namespace {

enum Role {
    Kind = Qt::UserRole,
    Seen,
    SeenNow,
    MarkText,
    What,
    Where,
    Entered,
    Otherwise,
    Worse,
    Thing,
    Heading,
    Count
};

/// Where the columns begin and end.
struct Columns {
    QRectF mark, what, entered, otherwise, seen;
    explicit Columns(const QRectF& r) {
        const double left = r.left() + 14, width = r.width() - 28, whatWidth = (width - 54) * 0.38,
                     enteredWidth = (width - 54) * 0.17, seenWidth = (width - 54) * 0.19;
        mark = QRectF(left, r.top(), 44, r.height());
        what = QRectF(left + 54, r.top(), whatWidth - 14, r.height());
        entered = QRectF(left + 54 + whatWidth, r.top(), enteredWidth - 12, r.height());
        otherwise = QRectF(left + 54 + whatWidth + enteredWidth, r.top(),
                           width - 54 - whatWidth - enteredWidth - seenWidth - 12, r.height());
        seen = QRectF(r.right() - 14 - seenWidth, r.top(), seenWidth, r.height());
    }
};

QColor colourOf(int kind) {
    const Theme& t = theme();
    return kind == 0 ? t.check : kind == 3 ? t.ink : t.accent;
}

/// Words over as many lines as they need in this width.
qreal heightOf(const QString& words, const QFont& font, qreal width) {
    if (words.isEmpty()) return 0;
    return QFontMetricsF(font).boundingRect(QRectF(0, 0, std::max(20.0, width), 1e5), Qt::TextWordWrap, words).height();
}
void drawWrapped(QPainter& p, const QRectF& r, const QString& words, const QColor& colour, const QFont& font) {
    p.setFont(font);
    p.setPen(colour);
    p.drawText(r, Qt::TextWordWrap, words);
}

class RowDelegate : public QStyledItemDelegate {
public:
    explicit RowDelegate(QListWidget* shownIn) : QStyledItemDelegate(shownIn), list(shownIn) {}

    /// The cells of a row, each an upper text in ink and a lower one, quieter.
    struct Cell {
        QRectF box;
        QString upper, lower;
        QColor upperColour, lowerColour;
        bool bold = true;
        qreal height() const {
            return heightOf(upper, uiFont(1, bold), box.width()) + heightOf(lower, uiFont(0.9), box.width());
        }
    };
    static std::array<Cell, 4> cells(const Columns& c, const QModelIndex& i) {
        const Theme& t = theme();
        const QStringList seen = i.data(Seen).toStringList();
        const QString worse = i.data(Worse).toBool() ? tr("without it the result would be worse") : QString();
        return {Cell{c.what, i.data(What).toString(), i.data(Where).toString(), t.ink, t.quiet},
                Cell{c.entered, i.data(Entered).toString(), {}, t.ink, t.quiet},
                Cell{c.otherwise, i.data(Otherwise).toString(), worse, t.quiet, t.check, false},
                Cell{c.seen, seen.value(0), seen.value(1), i.data(SeenNow).toBool() ? t.ink : t.check, t.quiet, false}};
    }
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& i) const override {
        if (i.data(Heading).toBool()) return {200, 28};
        qreal most = 0;
        for (const Cell& cell : cells(Columns(QRectF(0, 0, list->viewport()->width(), 10)), i))
            most = std::max(most, cell.height());
        return {200, std::max(42, int(std::ceil(most)) + 9)};
    }
    void paint(QPainter* p, const QStyleOptionViewItem& o, const QModelIndex& i) const override {
        const Theme& t = theme();
        const QRectF r(o.rect);
        p->save();
        p->setRenderHint(QPainter::Antialiasing);
        const QColor colour = colourOf(i.data(Kind).toInt());
        if (i.data(Heading).toBool()) {
            p->fillRect(r, t.sunk);
            drawLine(*p, r.adjusted(14, 0, -60, 0), i.data(What).toString(), Qt::AlignLeft | Qt::AlignVCenter, colour,
                     uiFont(1, true));
            drawLine(*p, r.adjusted(110, 0, -60, 0), i.data(Where).toString(), Qt::AlignLeft | Qt::AlignVCenter,
                     t.quiet, uiFont(0.9));
            drawLine(*p, r.adjusted(0, 0, -14, 0), i.data(Count).toString(), Qt::AlignRight | Qt::AlignVCenter, t.quiet,
                     uiFont(0.9));
            p->restore();
            return;
        }
        if (o.state & QStyle::State_Selected) p->fillRect(r, t.accentWash);
        const Columns c(r);
        const QRectF pill(c.mark.left(), r.top() + 5, c.mark.width() - 4, 16);
        p->setPen(QPen(colour, 1));
        p->setBrush(Qt::NoBrush);
        p->drawRoundedRect(pill, 8, 8);
        drawLine(*p, pill, i.data(MarkText).toString(), Qt::AlignCenter, colour, uiFont(0.82, true));
        for (const Cell& cell : cells(c, i)) {
            const QFont font = uiFont(1, cell.bold);
            const qreal upper = heightOf(cell.upper, font, cell.box.width());
            drawWrapped(*p, QRectF(cell.box.left(), r.top() + 4, cell.box.width(), upper), cell.upper, cell.upperColour,
                        font);
            drawWrapped(*p, QRectF(cell.box.left(), r.top() + 4 + upper, cell.box.width(), r.height()), cell.lower,
                        cell.lowerColour, uiFont(0.9));
        }
        p->setPen(QPen(t.rule, 1));
        p->drawLine(r.bottomLeft(), r.bottomRight());
        p->restore();
    }

private:
    QListWidget* list;
};

/// The headings above the columns, which are narrower beside a scroll bar.
class Headings : public QWidget {
public:
    Headings(const QListWidget* below, QWidget* parent) : QWidget(parent), list(below) {
        connect(list->verticalScrollBar(), &QScrollBar::rangeChanged, this, [this] { update(); });
    }
    QSize sizeHint() const override { return {200, 26}; }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        const Columns c(QRectF(0, 0, list->viewport()->width(), height()));
        const QFont font = uiFont(0.85, true);
        for (const auto& [box, words] : {std::pair{c.what, AssumptionsPage::tr("What, where, why")},
                                         {c.entered, AssumptionsPage::tr("It counts as")},
                                         {c.otherwise, AssumptionsPage::tr("It would be")},
                                         {c.seen, AssumptionsPage::tr("Set by, seen by")}})
            drawLine(p, box, words, Qt::AlignLeft | Qt::AlignVCenter, theme().quiet, font);
    }

private:
    const QListWidget* list;
};

} // namespace

AssumptionsPage::AssumptionsPage(Session& s, QWidget* parent)
    : QWidget(parent), session(s), list(new QListWidget(this)), all(new QPushButton(this)),
      worse(new QPushButton(this)), filter(new QLineEdit(this)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* row = new QHBoxLayout;
    row->setContentsMargins(14, 4, 14, 6);
    row->setSpacing(6);
    all->setObjectName("assumptionsAll");
    worse->setObjectName("assumptionsWorse");
    worse->setToolTip(tr("Those without which a result would be worse, or a rule broken"));
    for (QPushButton* b : {all, worse}) {
        b->setCheckable(true);
        b->setAutoExclusive(true);
        row->addWidget(b);
        connect(b, &QPushButton::toggled, this, [this](bool on) {
            if (on) rebuild();
        });
    }
    all->setChecked(true);
    filter->setObjectName("assumptionsFilter");
    filter->setPlaceholderText(tr("Filter"));
    filter->setClearButtonEnabled(true);
    filter->setMinimumWidth(70);
    filter->setMaximumWidth(200);
    row->addWidget(filter);
    row->addStretch(1);
    initials = new QLineEdit(this);
    initials->setObjectName("assumptionsBy");
    initials->setPlaceholderText(tr("Your initials"));
    initials->setText(QSettings().value("initials").toString());
    initials->setFixedWidth(96);
    connect(initials, &QLineEdit::editingFinished, this,
            [this] { QSettings().setValue("initials", initials->text().trimmed()); });
    row->addWidget(initials);
    for (const auto& [words, name, tip] :
         {std::tuple{tr("Set by me"), "assumptionsSetBy",
                     tr("Records your initials as of who set the chosen ones; again takes it back")},
          {tr("Seen"), "assumptionsSeen",
           tr("Records that you have seen the chosen ones as they are; again takes it back")}}) {
        auto* b = new QPushButton(words);
        b->setObjectName(name);
        b->setToolTip(tip);
        row->addWidget(b);
        connect(b, &QPushButton::clicked, this, [this, seen = QByteArray(name) == "assumptionsSeen"] { mark(seen); });
    }
    auto* printing = new QPushButton(tr("Print list…"));
    printing->setObjectName("assumptionsPrint");
    row->addWidget(printing);
    column->addLayout(row);
    auto* headings = new Headings(list, this);
    headings->setFixedHeight(26);
    column->addWidget(headings);
    list->setObjectName("assumptions");
    list->setItemDelegate(new RowDelegate(list));
    list->setSelectionMode(QAbstractItemView::ExtendedSelection);
    list->setFrameShape(QFrame::NoFrame);
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list->viewport()->installEventFilter(this);
    list->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    column->addWidget(list, 1);
    connect(filter, &QLineEdit::textChanged, this, &AssumptionsPage::rebuild);
    connect(list, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* i) {
        if (!i) return;
        if (const Ref thing = refFrom(i->data(Thing).toString().toStdString())) session.select(thing);
    });
    connect(printing, &QPushButton::clicked, this, [this] {
        askAndWrite(session, this, tr("Print the assumptions"),
                    q(safeFileName(session.project().basis.title + " assumptions", ".pdf")), tr("PDF (*.pdf)"),
                    [this](const QString& file) { return print(file); });
    });
    connect(&session, &Session::solved, new WhenShown(this, [this] { rebuild(); }), &WhenShown::poke);
    rebuild();
}

QStringList AssumptionsPage::chosenMarks() const {
    QStringList marks;
    for (const QListWidgetItem* i : list->selectedItems()) marks << i->data(MarkText).toString();
    return marks;
}

/// Records the initials at the chosen assumptions, as of who set or who saw them; where they stand at all of them,
/// takes them off.
void AssumptionsPage::mark(bool seen) {
    const std::string who = initials->text().trimmed().toStdString();
    if (who.empty()) {
        initials->setFocus();
        return session.say(tr("Type your initials first"), true);
    }
    session.waitSolved();
    const auto s = session.sharedSolution();
    const auto found = assumptionsOf({s->project, *s->book, s->results});
    const QStringList marks = chosenMarks();
    std::vector<Assumption> chosen;
    for (const Assumption& a : found)
        if (marks.contains(q(a.mark))) chosen.push_back(a);
    if (chosen.empty())
        return session.say(tr("Choose the assumptions first: Shift or Ctrl with a click for several"), true);
    const bool off = std::all_of(chosen.begin(), chosen.end(), [&](const Assumption& a) {
        return seen ? a.seen() && a.seenBy == who : a.setBy == who;
    });
    const std::string name = off ? std::string() : who, day = QDate::currentDate().toString(Qt::ISODate).toStdString();
    session.edit(seen ? counted(chosen.size(), tr("assumption seen"), tr("assumptions seen"))
                      : tr("Who set %1").arg(counted(chosen.size(), tr("assumption"), tr("assumptions"))),
                 [&](Project& p) {
                     if (seen)
                         seeAssumptions(p, chosen, name, day);
                     else
                         setAssumptionsBy(p, chosen, name);
                 });
}

/// At another width the words break anew, and the rows are as high as they need.
bool AssumptionsPage::eventFilter(QObject* watched, QEvent* e) {
    if (e->type() == QEvent::Resize)
        QMetaObject::invokeMethod(
            list, [this] { list->doItemsLayout(); }, Qt::QueuedConnection);
    return QWidget::eventFilter(watched, e);
}

std::optional<Error> AssumptionsPage::print(const QString& file) {
    if (auto old = session.refuseOld()) return old;
    const auto s = session.sharedSolution();
    const auto sheets = assumptionSheets(session.sheetInput(*s));
    if (sheets.empty()) return Error{"assumptions", "there are none", ""};
    return writePdf(sheets, file, pdfAbout(session.project(), "Assumptions"));
}

void AssumptionsPage::rebuild() {
    const Solution& s = session.solution();
    const auto found = assumptionsOf({s.project, *s.book, s.results});
    const auto worst = std::count_if(found.begin(), found.end(), [](const Assumption& a) { return a.hides; });
    all->setText(tr("All  %1").arg(found.size()));
    worse->setText(tr("Hiding what is worse  %1").arg(worst));
    QSignalBlocker quiet(list);
    const QString keep = list->currentItem() ? list->currentItem()->data(MarkText).toString() : QString();
    const int at = list->verticalScrollBar()->value();
    const QStringList chosen = chosenMarks();
    list->clear();
    const QString wanted = filter->text().trimmed();
    QListWidgetItem* heading = nullptr;
    int count = 0;
    for (const Assumption& a : found) {
        if (worse->isChecked() && !a.hides) continue;
        QString where = q(a.where);
        if (!a.why.empty()) where += " · " + q(a.why);
        const QString words =
            QStringList{q(a.mark),      q(a.what),      where,
                        q(a.entered),   q(a.otherwise), a.setBy.empty() ? QString() : tr("set by %1").arg(q(a.setBy)),
                        q(seenWords(a))}
                .join(", ");
        if (!wanted.isEmpty() && !words.contains(wanted, Qt::CaseInsensitive)) continue;
        if (!heading || heading->data(Kind).toInt() != int(a.kind)) {
            heading = new QListWidgetItem(list);
            heading->setFlags(Qt::ItemIsEnabled);
            heading->setData(Heading, true);
            heading->setData(Kind, int(a.kind));
            heading->setData(What, q(titleOf(a.kind)));
            heading->setData(Where, q(meaningOf(a.kind)));
            count = 0;
        }
        heading->setData(Count, QString::number(++count));
        auto* i = new QListWidgetItem(list);
        i->setData(Kind, int(a.kind));
        i->setData(MarkText, q(a.mark));
        i->setData(What, q(a.what));
        i->setData(Where, where);
        i->setData(Entered, q(a.entered));
        i->setData(Otherwise, q(a.otherwise));
        i->setData(Worse, a.hides);
        QStringList people;
        if (!a.seenBy.empty())
            people << (a.seen() ? tr("%1, %2").arg(q(a.seenBy), q(a.seenOn)) : tr("changed since %1").arg(q(a.seenBy)));
        else if (!a.setBy.empty())
            people << QString("–");
        if (!a.setBy.empty()) people << tr("set by %1").arg(q(a.setBy));
        i->setData(Seen, people);
        i->setData(SeenNow, a.seen() || a.seenBy.empty());
        i->setData(Thing, q(a.about.text()));
        i->setData(Qt::AccessibleTextRole, words);
        i->setToolTip(plainTip(words));
        if (q(a.mark) == keep) list->setCurrentItem(i, QItemSelectionModel::NoUpdate);
        i->setSelected(chosen.contains(q(a.mark)));
    }
    list->verticalScrollBar()->setValue(at);
}

} // namespace lintel
