#include "app/basis/BasisStage.h"

#include "app/basis/AssumptionsPage.h"
#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "app/frame/WhenShown.h"
#include "core/base/Typed.h"
#include "core/check/Compare.h"
#include "core/compare/Merge.h"
#include "core/figures/Words.h"
#include "core/lists/TakeOffRules.h"
#include "core/rules/DataFolder.h"
#include "core/sheets/Sheets.h"

#include <QBoxLayout>
#include <QComboBox>
#include <QFormLayout>
#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QStackedWidget>

namespace lintel {

namespace {
/// Labels of one width, so that the fields of all groups stand in one line.
QLabel* fieldLabel(const QString& text) {
    auto* l = new QLabel(text);
    l->setWordWrap(true); // never cut
    l->setFixedWidth(136);
    return l;
}
} // namespace

BasisStage::BasisStage(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->setSpacing(0);
    preview = new QFrame(this);
    preview->setProperty("card", true);
    preview->setObjectName("basisPreview");
    auto* row = new QHBoxLayout(preview);
    row->setContentsMargins(14, 8, 10, 8);
    previewLabel = new QLabel(preview);
    previewLabel->setWordWrap(true);
    row->addWidget(previewLabel, 1);
    auto* take = new QPushButton(tr("Take it"));
    take->setProperty("strong", true);
    take->setObjectName("basisAccept");
    auto* leave = new QPushButton(tr("Cancel"));
    leave->setObjectName("basisCancel");
    row->addWidget(leave);
    row->addWidget(take);
    connect(take, &QPushButton::clicked, this, &BasisStage::accept);
    connect(leave, &QPushButton::clicked, this, &BasisStage::drop);
    auto* which = new QHBoxLayout;
    which->setContentsMargins(14, 8, 14, 4);
    which->setSpacing(0);
    showRules = new QPushButton(tr("Ground rules"));
    showList = new QPushButton(tr("Assumptions"));
    showRules->setObjectName("basisRules");
    showList->setObjectName("basisAssumptions");
    for (QPushButton* b : {showRules, showList}) {
        b->setCheckable(true);
        b->setAutoExclusive(true);
        which->addWidget(b);
    }
    showRules->setChecked(true);
    which->addStretch(1);
    outer->addLayout(which);
    pages = new QStackedWidget(this);
    scroll = new QScrollArea(pages);
    scroll->setWidgetResizable(true);
    pages->addWidget(scroll);
    pages->addWidget(new AssumptionsPage(session, pages));
    outer->addWidget(pages, 1);
    connect(showList, &QPushButton::toggled, this, [this](bool on) { pages->setCurrentIndex(on); });
    auto* foot = new QHBoxLayout;
    foot->setContentsMargins(16, 0, 16, 10);
    foot->addWidget(preview);
    outer->addLayout(foot);
    connect(&session, &Session::opened, this, &BasisStage::reload);
    connect(&session, &Session::solved,
            new WhenShown(this,
                          [this] {
                              if (builtFor != session.solution().book->id && !pending()) reload();
                          }),
            &WhenShown::poke);
    auto* fresh = new WhenShown(this, [this] { follow(); });
    connect(&session, &Session::edited, this, [this, fresh] {
        if (!loading) fresh->poke();
    });
    reload();
}

void BasisStage::showAssumptions(bool show) { (show ? showList : showRules)->setChecked(true); }

QFormLayout* BasisStage::group(const QString& title, int column) {
    auto* l = new QLabel(title);
    l->setProperty("heading", true);
    l->setContentsMargins(0, 8, 0, 2);
    columns[std::size_t(column)]->addWidget(l);
    auto* f = new QFormLayout;
    f->setLabelAlignment(Qt::AlignLeft);
    f->setHorizontalSpacing(16);
    f->setVerticalSpacing(5);
    f->setFieldGrowthPolicy(QFormLayout::FieldsStayAtSizeHint);
    columns[std::size_t(column)]->addLayout(f);
    return f;
}

template <class Get, class Set>
void BasisStage::text(QFormLayout* f, const QString& label, const char* object, Get get, Set set) {
    auto* e = new QLineEdit;
    e->setObjectName(object);
    e->setFixedWidth(190);
    f->addRow(fieldLabel(label), e);
    connect(e, &QLineEdit::textEdited, this, [this, set](const QString& t) {
        set(draft, t.toStdString());
        changed();
    });
    loaders.push_back([this, e, get] {
        if (e->hasFocus() && e->text() == q(get(draft))) return;
        e->setText(q(get(draft)));
        if (!e->hasFocus()) e->setCursorPosition(0); // a long text is read from its beginning
    });
}

namespace {
/// The unit with which the words beside a field begin: "A" of "A a device"; empty: it is a number without one.
std::string unitAtFront(const QString& words) {
    const std::string first = words.section(' ', 0, 0).remove(',').toStdString();
    for (const char* unit : {"A", "%", "m", "°C", "K·m/W", "V", "kVA"})
        if (first == unit) return first;
    return {};
}
} // namespace

void BasisStage::numberField(QFormLayout* f, const QString& label, const char* object, const QString& unit, double lo,
                             double hi, int, std::function<double(const Basis&)> get,
                             std::function<void(Basis&, double)> set) {
    auto* e = new QLineEdit;
    e->setObjectName(object);
    e->setFixedWidth(84);
    e->setAlignment(Qt::AlignRight);
    auto* row = new QHBoxLayout;
    row->setSpacing(7);
    row->addWidget(e);
    // What stands beside it may go on after the unit ("A a device"). Lengths are shown as the project has them.
    const bool feet = unit == "m" && session.project().basis.units == UnitSystem::Imperial;
    const std::string kept = unitAtFront(unit), shown = feet ? "ft" : kept;
    const double perShown = feet ? metresPerFoot : 1;
    auto* u = new QLabel(feet ? q("ft") : unit);
    u->setProperty("quiet", true);
    row->addWidget(u);
    row->addStretch(1);
    f->addRow(fieldLabel(label), row);
    const auto take = [this, e, lo, hi, set, label, get, shown, perShown, feet] {
        if (!e->isModified()) return;
        e->setModified(false);
        const auto typed = readTyped(e->text().toStdString(), shown);
        if (!typed || *typed * perShown < lo || *typed * perShown > hi) { // the text stays, to be put right
            session.say(typed ? tr("%1: “%2” is not from %3 to %4 %5")
                                    .arg(label, e->text(), QString::number(lo / perShown, 'g', 4),
                                         QString::number(hi / perShown, 'g', 4), q(shown))
                                    .trimmed()
                              : label + ": " + q(typed.error().what + ". " + typed.error().help),
                        true);
            return;
        }
        set(draft, *typed * perShown);
        e->setText(QString::number(get(draft) / perShown, 'g', feet ? 3 : 6));
        changed();
    };
    connect(e, &QLineEdit::editingFinished, this, take);
    loaders.push_back(
        [this, e, get, perShown, feet] { e->setText(QString::number(get(draft) / perShown, 'g', feet ? 3 : 6)); });
}

void BasisStage::choiceField(QFormLayout* f, const QString& label, const char* object, QStringList words,
                             QStringList titles, std::function<QString(const Basis&)> get,
                             std::function<void(Basis&, const QString&)> set) {
    auto* c = new QComboBox;
    c->setObjectName(object);
    for (int i = 0; i < words.size(); ++i) c->addItem(i < titles.size() ? titles[i] : words[i], words[i]);
    c->setFixedWidth(190);
    f->addRow(fieldLabel(label), c);
    connect(c, &QComboBox::activated, this, [this, c, set] {
        set(draft, c->currentData().toString());
        changed();
    });
    loaders.push_back([this, c, get] { c->setCurrentIndex(c->findData(get(draft))); });
}

/// Values of the project's own in place of the rule book's: "continuous/factor = 1.2; roof/adder = 17".
void BasisStage::ownValuesField(QFormLayout* f) {
    auto* e = new QLineEdit;
    e->setObjectName("ownValues");
    e->setFixedWidth(190);
    e->setPlaceholderText(tr("none"));
    e->setToolTip(tr("In place of the rule book's, by their place in it: continuous/factor = 1.2; roof/adder = 17"));
    f->addRow(fieldLabel(tr("Own values")), e);
    const auto words = [](const Basis& b) {
        QStringList all;
        for (const auto& [place, value] : b.ownValues) all << QString("%1 = %2").arg(q(place)).arg(value);
        return all.join("; ");
    };
    connect(e, &QLineEdit::editingFinished, this, [this, e, words] {
        if (!e->isModified()) return;
        e->setModified(false);
        std::map<std::string, double> values;
        QString bad;
        for (const QString& part : e->text().split(';', Qt::SkipEmptyParts)) {
            const auto v = typedNumber(part.section('=', 1).toStdString());
            if (!v) bad = tr("“%1” is not a place and a number; write continuous/factor = 1.2").arg(part.trimmed());
            values[part.section('=', 0, 0).trimmed().toStdString()] = v.value_or(0);
        }
        if (bad.isEmpty())
            if (auto book = loadRuleBook(draft.ruleBook, values); !book) bad = q(book.error().text());
        if (!bad.isEmpty()) {
            session.say(bad, true);
            e->setText(words(draft));
            return;
        }
        draft.ownValues = values;
        changed();
    });
    loaders.push_back([this, e, words] { e->setText(words(draft)); });
}

/// A list that is typed a line each. What is not understood stays as it was typed, framed in red, and is told.
void BasisStage::linesField(QFormLayout* f, const LinesField& field) {
    auto* e = new QPlainTextEdit;
    e->setObjectName(field.object);
    e->setFixedSize(field.size);
    e->setTabChangesFocus(true);
    e->setLineWrapMode(QPlainTextEdit::NoWrap);
    e->setPlaceholderText(field.hint);
    e->setToolTip(field.tip);
    f->addRow(fieldLabel(field.label), e);
    connect(e, &QPlainTextEdit::textChanged, this, [this, e, take = field.take] {
        Basis next = draft;
        const QString refused = take(next, e->toPlainText());
        e->setProperty("refused", !refused.isEmpty());
        e->setStyleSheet(refused.isEmpty() ? "" : "border: 1px solid " + theme().stop.name());
        if (!refused.isEmpty()) return session.say(refused, true);
        if (next == draft) return;
        draft = next;
        changed();
    });
    loaders.push_back([this, e, words = field.words] {
        if (e->hasFocus() || e->property("refused").toBool() || e->toPlainText() == words(draft)) return;
        QSignalBlocker quiet(e);
        e->setPlainText(words(draft));
    });
}

/// Rows of the revision table: "2 | 2026-11-23 | Issued for tender | RA".
void BasisStage::revisionsField(QFormLayout* f) {
    linesField(f, {tr("Revisions"), "revisions", QSize(190, 66), tr("mark | date | text | by"),
                   tr("A line each, the earliest first: mark | date | text | by, for instance\n"
                      "1 | 2026-11-23 | Issued for tender | RA"),
                   [](const Basis& b) {
                       QStringList lines;
                       for (const Revision& r : b.revisions)
                           lines << QStringList{q(r.mark), q(r.date), q(r.text), q(r.by)}.join(" | ");
                       return lines.join('\n');
                   },
                   [](Basis& b, const QString& text) {
                       b.revisions.clear();
                       for (const QString& line : text.split('\n', Qt::SkipEmptyParts)) {
                           const QStringList parts = line.split('|');
                           if (parts.size() != 4)
                               return tr("“%1” is not a revision: write mark | date | text | by").arg(line.trimmed());
                           const auto part = [&](int i) { return parts[i].trimmed().toStdString(); };
                           b.revisions.push_back({part(0), part(1), part(2), part(3)});
                       }
                       return QString();
                   }});
}

/// What the take-off counts beside what is drawn, a rule a line.
void BasisStage::takeOffField(QFormLayout* f) {
    const bool imperial = session.project().basis.units == UnitSystem::Imperial;
    linesField(f,
               {tr("Boxes and fittings"), "takeOffRules", QSize(228, 100), tr("what | 1 each device | of which | why"),
                tr("What the take-off counts beside what is drawn, a rule a line: what | how many | of which | why.\n"
                   "Box | 1 each device | receptacle\n"
                   "Connector | 1 each end | %1\n"
                   "Coupling | 1 every %2 | %1")
                    .arg(imperial ? "EMT" : "conduit", imperial ? "10 ft" : "3 m"),
                [](const Basis& b) { return q(linesOf(b.takeOffRules, b.units)); },
                [](Basis& b, const QString& text) {
                    const auto rules = takeOffRulesFrom(text.toStdString(), b.units);
                    if (!rules) return q(rules.error().text());
                    b.takeOffRules = *rules;
                    return QString();
                }});
}

namespace {
template <WordedEnum E> QStringList words() {
    QStringList l;
    for (const auto& [value, word] : EnumText<E>::words) l << word;
    return l;
}
template <WordedEnum E, class Member> auto getWord(Member m) {
    return [m](const Basis& b) { return QString(wordOf(b.*m)); };
}
template <WordedEnum E, class Member> auto setWord(Member m) {
    return [m](Basis& b, const QString& t) { b.*m = *fromWord<E>(t.toStdString()); };
}
} // namespace

void BasisStage::build() {
    // What can be chosen follows from the rule book: another book makes another form.
    builtFor = session.solution().book->id;
    loaders.clear();
    columns.clear();
    auto* inner = new QWidget;
    auto* across = new QHBoxLayout(inner);
    across->setContentsMargins(24, 16, 24, 16);
    across->setSpacing(28);
    for (int i = 0; i < 3; ++i) {
        auto* c = new QVBoxLayout;
        c->setSpacing(4);
        columns.push_back(c);
        across->addLayout(c, 1);
    }
    fillForm();
    for (auto* c : columns) c->addStretch(1);
    const int at = scroll->verticalScrollBar()->value();
    scroll->setWidget(inner);
    scroll->verticalScrollBar()->setValue(at);
}

void BasisStage::fillForm() {
    const RuleBook& book = *session.solution().book;
    const bool metric = book.metric();
    QFormLayout* f = group(tr("PROJECT"), 0);
    const auto str = [&](const QString& label, const char* object, std::string Basis::*m) {
        text(
            f, label, object, [m](const Basis& b) { return b.*m; }, [m](Basis& b, const std::string& t) { b.*m = t; });
    };
    str(tr("Title"), "title", &Basis::title);
    str(tr("Job number"), "jobNumber", &Basis::jobNumber);
    str(tr("Company"), "company", &Basis::company);
    str(tr("Designer"), "designer", &Basis::designer);
    str(tr("Issue"), "issue", &Basis::issue);
    str(tr("Date on sheets"), "issueDate", &Basis::issueDate);

    f = group(tr("TITLE BLOCK"), 0);
    str(tr("Company's address"), "companyAddress", &Basis::companyAddress);
    str(tr("Company's logo, a file"), "logo", &Basis::logo);
    str(tr("Site"), "site", &Basis::site);
    str(tr("Client"), "client", &Basis::client);
    str(tr("Drawn"), "drawn", &Basis::drawn);
    str(tr("Checked"), "checked", &Basis::checked);
    str(tr("Approved"), "approved", &Basis::approved);
    str(tr("Status"), "status", &Basis::status);
    revisionsField(f);

    f = group(tr("CODE"), 0);
    QStringList ids, titles;
    std::error_code ec;
    for (const auto& e : std::filesystem::directory_iterator(dataFolder() / "rulebooks", ec))
        if (auto b = RuleBook::load(e.path()); b && (b->metric() == metric || session.project().circuits.empty()))
            ids << q(b->id), titles << q(b->title); // of its kind: sizes and cables of another would not be found
    choiceField(
        f, tr("Rule book"), "ruleBook", ids, titles, [](const Basis& b) { return q(b.ruleBook); },
        [](Basis& b, const QString& t) { b.ruleBook = t.toStdString(); });
    auto* doubt = new QLabel;
    doubt->setProperty("quiet", true);
    doubt->setObjectName("unverified");
    f->addRow(QString(), doubt);
    loaders.push_back([this, doubt] {
        const auto& list = session.solution().book->unverified();
        QStringList lines;
        for (const std::string& u : list) lines << "• " + q(u);
        doubt->setVisible(!list.empty());
        doubt->setText(counted(list.size(), tr("point not yet verified"), tr("points not yet verified")));
        doubt->setToolTip(lines.join("\n"));
    });
    choiceField(f, tr("Occupancy"), "occupancy", words<Occupancy>(), {}, getWord<Occupancy>(&Basis::occupancy),
                setWord<Occupancy>(&Basis::occupancy));
    choiceField(f, tr("Units"), "units", words<UnitSystem>(), {}, getWord<UnitSystem>(&Basis::units),
                setWord<UnitSystem>(&Basis::units));
    auto* service = new QComboBox;
    service->setObjectName("service");
    service->setFixedWidth(190);
    service->setEditable(true);
    service->setInsertPolicy(QComboBox::NoInsert);
    service->setToolTip(tr("Choose one, or type another. %1").arg(q(systemHelp)));
    for (const VoltageSystem& x : usualSystems()) service->addItem(q(systemWords(x)));
    for (const VoltageSystem& x : usualMediumVoltages()) service->addItem(q(systemWords(x)));
    f->addRow(fieldLabel(tr("Service voltage")), service);
    const auto take = [this, service] {
        const auto v = systemFrom(service->currentText().toStdString());
        service->setProperty("refused", !v);
        service->setStyleSheet(v ? "" : "border: 1px solid " + theme().stop.name());
        if (!v)
            return session.say(tr("“%1” is not a voltage system. %2").arg(service->currentText(), q(systemHelp)), true);
        for (const Source& s : session.project().sources) {
            if (s.system != *v)
                session.edit(tr("Service voltage"), [&](Project& p) { p.sources.change(s.id)->system = *v; });
            break;
        }
    };
    connect(service, &QComboBox::activated, this, take);
    connect(service->lineEdit(), &QLineEdit::editingFinished, this, take);
    loaders.push_back([this, service] {
        service->setEnabled(!session.project().sources.empty());
        if (service->property("refused").toBool()) return; // what was typed stays until it is put right
        for (const Source& s : session.project().sources) {
            service->setCurrentText(q(systemWords(s.system)));
            break;
        }
    });

    f = group(tr("DEMAND, WHERE THE PROJECT HAS ITS OWN"), 2);
    for (const auto& [kind, word] : EnumText<LoadKind>::words) {
        if (kind == LoadKind::DwellingGeneral || kind == LoadKind::Range || kind == LoadKind::Dryer) continue;
        auto* e = new QLineEdit;
        e->setObjectName(QString("demand:%1").arg(word));
        e->setFixedWidth(84);
        e->setAlignment(Qt::AlignRight);
        auto* row = new QHBoxLayout;
        row->setSpacing(7);
        row->addWidget(e);
        auto* rule = new QLabel;
        rule->setProperty("quiet", true);
        row->addWidget(rule);
        row->addStretch(1);
        f->addRow(fieldLabel(q(kindTitle(kind, book))), row);
        connect(e, &QLineEdit::editingFinished, this, [this, e, w = std::string(word)] {
            if (!e->isModified()) return;
            e->setModified(false);
            const auto v = readTyped(e->text().toStdString(), "%");
            if (e->text().trimmed().isEmpty())
                draft.demandFactors.erase(w);
            else if (v && *v >= 0 && *v <= 1000)
                draft.demandFactors[w] = *v / 100;
            else
                return session.say(
                    tr("“%1” is not a percentage; leave it empty for the rule book's own rule").arg(e->text()), true);
            changed();
        });
        loaders.push_back([this, e, rule, k = kind, w = std::string(word)] {
            const auto it = draft.demandFactors.find(w);
            e->setText(it == draft.demandFactors.end() ? QString() : QString::number(it->second * 100));
            e->setPlaceholderText(tr("rule book"));
            const std::string& table = session.solution().book->demand(k, draft.occupancy).table;
            rule->setText(it == draft.demandFactors.end()
                              ? (table.empty() ? tr("100 %") : q(table))
                              : tr("%, instead of %1").arg(table.empty() ? "100 %" : q(table)));
        });
    }

    f = group(tr("CONDUCTORS"), 1);
    const auto num = [&](const QString& label, const char* object, const QString& unit, double lo, double hi,
                         double Basis::*m, double k = 1) {
        numberField(
            f, label, object, unit, lo, hi, 1, [m, k](const Basis& b) { return b.*m * k; },
            [m, k](Basis& b, double v) { b.*m = v / k; });
    };
    if (metric) {
        cableFields(f);
    } else {
        choiceField(f, tr("Branch circuits"), "branchMaterial", words<Material>(), {},
                    getWord<Material>(&Basis::branchMaterial), setWord<Material>(&Basis::branchMaterial));
        choiceField(f, tr("Feeders"), "feederMaterial", words<Material>(), {},
                    getWord<Material>(&Basis::feederMaterial), setWord<Material>(&Basis::feederMaterial));
        choiceField(
            f, tr("Insulation"), "insulation", {"60", "75", "90"}, {"60 °C", "75 °C", "90 °C"},
            [](const Basis& b) { return QString::number(b.insulation); },
            [](Basis& b, const QString& t) { b.insulation = t.toInt(); });
        choiceField(
            f, tr("Terminals to 100 A"), "terminals", {"75", "60"}, {tr("marked for 75 °C"), tr("60 °C")},
            [](const Basis& b) { return b.terminals75 ? "75" : "60"; },
            [](Basis& b, const QString& t) { b.terminals75 = t == "75"; });
        choiceField(f, tr("Raceway"), "raceway", words<Raceway>(), {}, getWord<Raceway>(&Basis::raceway),
                    setWord<Raceway>(&Basis::raceway));
        QStringList conduits{QString()}, conduitTitles{tr("usual for it")};
        for (const ConduitType& c : session.solution().book->tables.conduits)
            conduits << q(c.name), conduitTitles << q(c.name);
        choiceField(
            f, tr("Conduit"), "conduit", conduits, conduitTitles, [](const Basis& b) { return q(b.conduit); },
            [](Basis& b, const QString& t) { b.conduit = t.toStdString(); });
        QStringList coverings{QString()}, coveringTitles{tr("usual for it")};
        for (const Insulation& c : session.solution().book->tables.insulations)
            coverings << q(c.name), coveringTitles << q(c.name);
        choiceField(
            f, tr("Covering"), "insulationType", coverings, coveringTitles,
            [](const Basis& b) { return q(b.insulationType); },
            [](Basis& b, const QString& t) { b.insulationType = t.toStdString(); });
        choiceField(f, tr("Laid in"), "wiring", words<Wiring>().mid(1), {}, getWord<Wiring>(&Basis::wiring),
                    setWord<Wiring>(&Basis::wiring));
    }
    num(tr("Ambient"), "ambient", "°C", -40, 85, &Basis::ambient);
    QStringList sizes;
    for (const ConductorSize& c : session.solution().book->sizes()) sizes << q(c.name);
    choiceField(
        f, tr("Smallest conductor"), "smallestBranch", sizes.mid(0, 6), {},
        [](const Basis& b) { return q(b.smallestBranch); },
        [](Basis& b, const QString& t) { b.smallestBranch = t.toStdString(); });
    choiceField(
        f, tr("Largest before sets"), "largestPreferred", sizes.mid(6), {},
        [](const Basis& b) { return q(b.largestPreferred); },
        [](Basis& b, const QString& t) { b.largestPreferred = t.toStdString(); });
    byKindFields(f);
    num(tr("Smallest breaker"), "smallestBreaker", "A", 1, 6000, &Basis::smallestBreaker);

    f = group(tr("VOLTAGE DROP"), 1);
    num(tr("Feeder limit"), "feederDropLimit", "%", 0.1, 50, &Basis::feederDropLimit);
    num(tr("Branch limit"), "branchDropLimit", "%", 0.1, 50, &Basis::branchDropLimit);
    num(tr("Total limit"), "totalDropLimit", "%", 0.1, 50, &Basis::totalDropLimit);
    if (metric)
        num(tr("Lighting, total"), "lightingDropLimit", tr("%, 0: as others"), 0, 50, &Basis::lightingDropLimit);
    choiceField(f, tr("Branches judged on"), "branchDropBasis", {"load", "share of rating"},
                {tr("their load"), tr("a share of the breaker's rating")}, getWord<DropBasis>(&Basis::branchDropBasis),
                setWord<DropBasis>(&Basis::branchDropBasis));
    choiceField(f, tr("Feeders judged on"), "feederDropBasis", {"load", "connected", "share of rating"},
                {tr("their demand"), tr("all that is connected"), tr("a share of the device's rating")},
                getWord<DropBasis>(&Basis::feederDropBasis), setWord<DropBasis>(&Basis::feederDropBasis));
    num(tr("Share of rating"), "ratingShare", "%", 1, 100, &Basis::ratingShare, 100);
    numberField(
        f, tr("Upsizing ceiling"), "upsizingCeiling", tr("sizes"), 0, 20, 0,
        [](const Basis& b) { return b.upsizingCeiling; }, [](Basis& b, double v) { b.upsizingCeiling = int(v); });

    if (metric)
        choiceField(
            f, tr("Drop at"), "dropWhenWarm", {"no", "yes"}, {tr("highest temperature"), tr("temperature under load")},
            [](const Basis& b) { return b.dropWhenWarm ? "yes" : "no"; },
            [](Basis& b, const QString& t) { b.dropWhenWarm = t == "yes"; });

    f = group(tr("SERVICE AND FAULTS"), 0);
    QStringList areas{QString(), "dwelling"}, areaTitles{tr("not by area"), tr("dwelling")};
    for (const auto& [name, va] : session.solution().book->tables.areaLighting)
        areas << q(name),
            areaTitles
                << (metric ? QString("%1, %2 W/m²").arg(q(name)).arg(va / (metresPerFoot * metresPerFoot), 0, 'g', 4)
                           : QString("%1, %2 VA/ft²").arg(q(name)).arg(va));
    choiceField(
        f, tr("Lighting at least"), "lightingAreaOf", areas, areaTitles,
        [](const Basis& b) { return q(b.lightingAreaOf); },
        [](Basis& b, const QString& t) { b.lightingAreaOf = t.toStdString(); });
    choiceField(
        f, tr("Motors feed faults"), "motorsFeedFaults", {"no", "yes"}, {tr("no"), tr("yes, 4 × their current")},
        [](const Basis& b) { return b.motorsFeedFaults ? "yes" : "no"; },
        [](Basis& b, const QString& t) { b.motorsFeedFaults = t == "yes"; });
    if (metric) num(tr("Breakers let through"), "classShare", tr("% of their class"), 1, 100, &Basis::classShare, 100);
    num(tr("Conductors in a fault"), "faultCelsius", "°C", -40, 250, &Basis::faultCelsius);
    if (!metric)
        choiceField(f, tr("Electrode and jumper"), "electrodeMaterial", words<Material>(), {},
                    getWord<Material>(&Basis::electrodeMaterial), setWord<Material>(&Basis::electrodeMaterial));
    ownValuesField(f);

    f = group(tr("FEEDERS AND LENGTHS"), 0);
    choiceField(f, tr("Phases"), "phaseColours", words<PhaseColours>(), {}, getWord<PhaseColours>(&Basis::phaseColours),
                setWord<PhaseColours>(&Basis::phaseColours));
    str(tr("Circuits named"), "circuitPattern", &Basis::circuitPattern);
    num(tr("Growth on feeders"), "growth", "%", 0, 500, &Basis::growth, 100);
    num(tr("Slack on runs"), "slack", "%", 0, 200, &Basis::slack, 100);
    numberField(
        f, tr("Unknown lengths"), "unknownLength", "m", 0, 5000, 1, [](const Basis& b) { return b.unknownLength; },
        [](Basis& b, double v) { b.unknownLength = v; });
    numberField(
        f, tr("Runs below ceiling"), "routeBelowCeiling", "m", -5, 5, 2,
        [](const Basis& b) { return b.routeBelowCeiling; }, [](Basis& b, double v) { b.routeBelowCeiling = v; });

    f = group(tr("PLAN"), 2);
    num(tr("Circuits filled to"), "circuitShare", tr("% of the breaker"), 5, 100, &Basis::circuitShare, 100);
    numberField(
        f, tr("Points at most"), "circuitPoints", tr("0: any number"), 0, 1000, 0,
        [](const Basis& b) { return b.circuitPoints; }, [](Basis& b, double v) { b.circuitPoints = int(v); });
    num(tr("Own circuit above"), "ownCircuitFrom", "A", 0, 1000, &Basis::ownCircuitFrom);
    num(tr("Panelboards up to"), "panelboardUpTo", tr("A a device"), 0, 10000, &Basis::panelboardUpTo);
    num(tr("Light that arrives"), "lightUtilisation", "%", 5, 150, &Basis::lightUtilisation, 100);
    num(tr("Light kept"), "lightMaintenance", "%", 5, 100, &Basis::lightMaintenance, 100);
    choiceField(f, tr("Wiring drawn"), "wiringShape", words<WiringShape>(), {},
                getWord<WiringShape>(&Basis::wiringShape), setWord<WiringShape>(&Basis::wiringShape));
    sheetFields(f);
    num(tr("Waste in take-off"), "waste", "%", 0, 100, &Basis::waste, 100);
    takeOffField(f);
}

/// How plans stand on their sheets, scale and north, and what stands together on others.
void BasisStage::sheetFields(QFormLayout* f) {
    const Basis& now = session.project().basis;
    QStringList names{"0"}, titles{tr("largest that fits")};
    for (const PlanScale& s : planScales(now.units)) {
        names << QString::number(s.denominator);
        titles << s.words;
    }
    const QString scale = QString::number(now.planScale);
    if (!names.contains(scale)) {
        names << scale;
        titles << q(scaleWords(now.planScale, now.units));
    }
    choiceField(
        f, tr("Plans drawn at"), "planScale", names, titles,
        [](const Basis& b) { return QString::number(b.planScale); },
        [](Basis& b, const QString& t) { b.planScale = t.toDouble(); });
    const QStringList ways{tr("up"),   tr("up right"),  tr("right"), tr("down right"),
                           tr("down"), tr("down left"), tr("left"),  tr("up left")};
    names = QStringList{QString()};
    titles = QStringList{tr("not shown")};
    for (int i = 0; i < ways.size(); ++i) {
        names << QString::number(i * 45);
        titles << ways[i];
    }
    const QString north = now.north ? QString::number(*now.north) : QString();
    if (!names.contains(north)) {
        names << north;
        titles << tr("%1° clockwise").arg(north);
    }
    choiceField(
        f, tr("North on plans"), "north", names, titles,
        [](const Basis& b) { return b.north ? QString::number(*b.north) : QString(); },
        [](Basis& b, const QString& t) {
            b.north.reset();
            if (!t.isEmpty()) b.north = t.toDouble();
        });
    choiceField(f, tr("Together on sheets"), "sheetsTogether", words<SheetsTogether>(), {},
                getWord<SheetsTogether>(&Basis::sheetsTogether), setWord<SheetsTogether>(&Basis::sheetsTogether));
    choiceField(f, tr("Calculations on sheets"), "calculationSheets", words<CalculationSheets>(), {},
                getWord<CalculationSheets>(&Basis::calculationSheets),
                setWord<CalculationSheets>(&Basis::calculationSheets));
}

/// Cables of branch circuits and feeders and how they are laid, by the names of a metric book.
void BasisStage::cableFields(QFormLayout* f) {
    const CableRules& rules = session.solution().book->cables;
    const auto pick = [&](const QString& label, const char* object, const std::string& usual, std::string Basis::*m) {
        QStringList names{QString()}, titles{tr("usual: %1").arg(q(usual))};
        for (const CableType& t : rules.types) names << q(t.name), titles << q(t.name);
        choiceField(
            f, label, object, names, titles, [m](const Basis& b) { return q(b.*m); },
            [m](Basis& b, const QString& t) { b.*m = t.toStdString(); });
    };
    const auto method = [&](const QString& label, const char* object, std::string Basis::*m) {
        QStringList names{QString()}, titles{tr("the cable's first")};
        for (const CableType& t : rules.types)
            for (const CableMethod& x : t.methods)
                if (!names.contains(q(x.name)))
                    names << q(x.name), titles << QString("%1: %2").arg(q(x.name), q(x.words));
        choiceField(
            f, label, object, names, titles, [m](const Basis& b) { return q(b.*m); },
            [m](Basis& b, const QString& t) { b.*m = t.toStdString(); });
    };
    pick(tr("Branch cable"), "branchCable", rules.usualBranch, &Basis::branchCable);
    method(tr("Laid by method"), "branchMethod", &Basis::branchMethod);
    pick(tr("Feeder cable"), "feederCable", rules.usualFeeder, &Basis::feederCable);
    method(tr("Laid by method"), "feederMethod", &Basis::feederMethod);
    numberField(
        f, tr("Ground"), "groundTemperature", "°C", -20, 60, 1, [](const Basis& b) { return b.groundTemperature; },
        [](Basis& b, double v) { b.groundTemperature = v; });
    numberField(
        f, tr("Soil"), "soil", "K·m/W", 0.1, 10, 2, [](const Basis& b) { return b.soil; },
        [](Basis& b, double v) { b.soil = v; });
}

/// A text for some kinds of load, apart from all others: "lighting 1.5; receptacle 2.5".
void BasisStage::byKindField(QFormLayout* f, const QString& label, const char* object, const QString& placeholder,
                             const QString& tip, const QString& joiner,
                             std::map<std::string, std::string> Basis::*member,
                             std::function<bool(const std::string&)> known,
                             std::function<QString(const QString&)> refusal) {
    auto* e = new QLineEdit;
    e->setObjectName(object);
    e->setFixedWidth(190);
    e->setPlaceholderText(placeholder);
    e->setToolTip(tip);
    f->addRow(fieldLabel(label), e);
    const auto words = [member, joiner](const Basis& b) {
        QStringList all;
        for (const auto& [kind, value] : b.*member) all << q(kind) + joiner + q(value);
        return all.join("; ");
    };
    connect(e, &QLineEdit::editingFinished, this,
            [this, e, words, member, known, refusal, mark = joiner.contains('=') ? QChar('=') : QChar(' ')] {
                if (!e->isModified()) return;
                e->setModified(false);
                std::map<std::string, std::string> values;
                for (const QString& raw : e->text().split(';', Qt::SkipEmptyParts)) {
                    const QString part = raw.trimmed();
                    const auto at = part.lastIndexOf(mark);
                    const std::string kind = part.left(std::max<qsizetype>(0, at)).trimmed().toStdString(),
                                      value = part.mid(at + 1).trimmed().toStdString();
                    if (!fromWord<LoadKind>(kind) || !known(value)) {
                        session.say(refusal(part), true);
                        e->setText(words(draft));
                        return;
                    }
                    values[kind] = value;
                }
                draft.*member = values;
                changed();
            });
    loaders.push_back([this, e, words] { e->setText(words(draft)); });
}

void BasisStage::byKindFields(QFormLayout* f) {
    byKindField(
        f, tr("By use"), "smallestByUse", tr("none apart from it"),
        tr("Smallest conductor by the kind of load: lighting 14; receptacle 12"), " ", &Basis::smallestByUse,
        [this](const std::string& size) { return session.solution().book->find(size) >= 0; },
        [this](const QString& part) {
            return tr("“%1” is not a load kind and a size; write lighting %2; receptacle %2")
                .arg(part, q(session.solution().book->sizes()[1].name));
        });
    const bool metric = session.solution().book->metric();
    byKindField(
        f, tr("Laid by use"), "wiringByUse", tr("all alike"),
        metric ? tr("Type of cable by the kind of load: motor = name of the cable; lighting = …")
               : tr("How it is laid by the kind of load: lighting = MC cable; motor = conduit"),
        " = ", &Basis::wiringByUse,
        [this, metric](const std::string& how) {
            return metric ? session.solution().book->cables.type(how) != nullptr : fromWord<Wiring>(how).has_value();
        },
        [this, metric](const QString& part) {
            QStringList all = metric ? QStringList() : words<Wiring>();
            if (metric)
                for (const CableType& t : session.solution().book->cables.types) all << q(t.name);
            return tr("“%1”: write a load kind, = and one of: %2").arg(part, all.join(", "));
        });
}

void BasisStage::reload() {
    draft = from;
    follow();
}

void BasisStage::follow() {
    if (builtFor != session.solution().book->id) build();
    const Basis& now = session.project().basis;
    if (pending()) {
        Project base, pendingHere, elsewhere;
        base.basis = from;
        pendingHere.basis = draft;
        elsewhere.basis = now;
        draft = mergeProjects(base, pendingHere, elsewhere).project.basis;
    } else
        draft = now;
    from = now;
    loading = true;
    for (const auto& load : loaders) load();
    loading = false;
    changed();
}

void BasisStage::hideEvent(QHideEvent* e) {
    QWidget::hideEvent(e);
    if (session.isOpen() && pending() && !e->spontaneous())
        session.say(tr("What was entered in the basis is not taken yet: “Take it” there, or save."), true);
}

QString BasisStage::previewText() const {
    const Solution& s = session.solution();
    Project p = session.project();
    p.basis = draft;
    auto book = s.book;
    if (draft.ruleBook != session.project().basis.ruleBook || draft.ownValues != session.project().basis.ownValues)
        if (auto b = loadRuleBook(draft.ruleBook, draft.ownValues)) book = std::make_shared<RuleBook>(*b);
    const Results r = solve(p, *book);
    const Comparison c = compare(s.input(), {p, *book, r});
    if (c.nothing()) return tr("No size, device or snag changes.");
    QString text = q(c.text());
    for (const std::string& line : c.list(7)) text += "\n   " + q(line);
    return text;
}

void BasisStage::changed() {
    if (loading) return;
    if (!pending()) {
        preview->hide();
        return;
    }
    previewLabel->setText(previewText());
    preview->show();
}

void BasisStage::accept() {
    if (!pending()) return;
    follow();
    const Basis wanted = draft;
    loading = true;
    const bool taken = session.edit(tr("Change the basis"), [&](Project& p) { p.basis = wanted; });
    loading = false;
    if (taken) reload(); // refused it waits as it was typed; the session says why
}
void BasisStage::drop() { reload(); }

} // namespace lintel
