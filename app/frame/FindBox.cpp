#include "app/frame/FindBox.h"

#include "app/frame/CommandWords.h"
#include "app/frame/PaintKit.h"
#include "core/figures/Words.h"

#include <QAction>
#include <QKeyEvent>

#include <array>

namespace lintel {

FindBox::FindBox(Session& s, QWidget* parent) : QLineEdit(parent), session(s), list(new QListWidget(nullptr)) {
    setObjectName("find");
    setPlaceholderText(tr("Find or do…"));
    setFixedWidth(252);
    list->setObjectName("findResults");
    list->setProperty("card", true);
    list->setFocusPolicy(Qt::NoFocus);
    list->hide();
    connect(this, &QLineEdit::textEdited, this, &FindBox::search);
    connect(list, &QListWidget::itemClicked, this, &FindBox::take);
}

void FindBox::focusInEvent(QFocusEvent* e) {
    QLineEdit::focusInEvent(e);
    // Only when a person asked for it, not when a window happens to hand the focus here.
    if (e->reason() == Qt::ShortcutFocusReason || e->reason() == Qt::MouseFocusReason) search();
}
void FindBox::focusOutEvent(QFocusEvent* e) {
    QLineEdit::focusOutEvent(e);
    list->hide();
}

void FindBox::paintEvent(QPaintEvent* e) {
    QLineEdit::paintEvent(e);
    if (!text().isEmpty() || hasFocus()) return;
    QPainter p(this);
    drawLine(p, QRectF(0, 0, width() - 10, height()), "Ctrl+K", Qt::AlignRight, theme().quiet, uiFont(0.82));
}

namespace {

constexpr int mostShown = 12;

/// How well a name answers what was typed: 0 it begins with it, 1 words of it begin with all that was typed, 2 it
/// stands somewhere inside, 3 only other words of it do; −1 not at all.
class Wanted {
public:
    explicit Wanted(const QString& typed)
        : whole(typed), words(typed.split(' ', Qt::SkipEmptyParts)), first(words.value(0).toCaseFolded()) {}
    bool empty() const { return words.isEmpty(); }
    /// False where a text, folded, cannot answer whatever stands around it: quicker than a rank.
    bool mayAnswer(const QString& folded) const { return folded.contains(first); }
    int rank(const QString& name, const QString& others = {}) const {
        if (name.startsWith(whole, Qt::CaseInsensitive)) return 0;
        if (all([&](const QString& w) { return begins(name, w); })) return 1;
        if (name.contains(whole, Qt::CaseInsensitive)) return 2;
        if (!others.isEmpty() && all([&](const QString& w) { return begins(name, w) || begins(others, w); })) return 3;
        return -1;
    }

private:
    template <class Test> bool all(Test test) const { return std::all_of(words.begin(), words.end(), test); }
    static bool begins(const QString& text, const QString& word) {
        for (qsizetype at = text.indexOf(word, 0, Qt::CaseInsensitive); at >= 0;
             at = text.indexOf(word, at + 1, Qt::CaseInsensitive))
            if (at == 0 || !text[at - 1].isLetterOrNumber()) return true;
        return false;
    }
    QString whole;
    QStringList words;
    QString first; ///< of the words, folded
};

} // namespace

void FindBox::search() {
    const Wanted wanted(text().trimmed());
    std::array<std::vector<Match>, 5> byRank; // the last: chapters of the guide
    int met = 0;
    const auto add = [&](int rank, Match match) {
        if (rank < 0) return;
        ++met;
        auto& of = byRank[std::size_t(rank)];
        if (of.size() < mostShown) of.push_back(std::move(match));
    };
    for (QAction* a : commands) {
        QString name = a->text().section('\t', 0, 0);
        name.remove('&');
        if (!a->isEnabled() || !a->isVisible() || name.isEmpty()) continue;
        const QVariant own = a->property("ownName");
        add(wanted.empty() ? 3 : wanted.rank(own.isValid() ? own.toString() : name, otherWordsOf(a->objectName())),
            {name, a->shortcut().toString(QKeySequence::NativeText), {}, a, {}});
    }
    if (session.isOpen() && !wanted.empty()) {
        listThings();
        for (const Thing& t : things)
            if (wanted.mayAnswer(t.folded))
                add(wanted.rank(t.name, t.byAbout ? t.about : QString()), {t.name, t.about, t.ref, nullptr, {}});
    }
    if (!guide && guideOf) guide = guideOf();
    if (!wanted.empty())
        for (const QString& heading : guide.value_or(QStringList()))
            if (wanted.rank(heading) >= 0) add(4, {heading, tr("in the guide"), {}, nullptr, heading});
    matches.clear();
    for (auto& of : byRank)
        for (Match& m : of)
            if (matches.size() < mostShown) matches.push_back(std::move(m));
    showList(text().trimmed(), met - int(matches.size()));
}

void FindBox::listThings() {
    const std::shared_ptr<const Solution> solution = session.sharedSolution();
    if (listed.lock() == solution) return;
    listed = solution;
    things.clear();
    const Project& p = solution->project;
    const auto put = [&](Ref ref, const QString& name, const QString& about, bool byAbout = true) {
        things.push_back({name, about, (byAbout ? name + '\n' + about : name).toCaseFolded(), ref, byAbout});
    };
    const auto thing = [&](Ref ref, const QString& about) { put(ref, q(nameOf(p, ref)), about); };
    for (const Board& b : p.boards) thing(b.id, q(b.description));
    for (const Transformer& t : p.transformers) thing(t.id, tr("transformer"));
    for (const Source& x : p.sources) thing(x.id, tr("source"));
    for (const Room& m : p.rooms) thing(m.id, tr("room"));
    for (const Circuit& c : p.circuits) thing(c.id, q(c.name));
    for (const Load& l : p.loads) {
        if (!l.circuit)
            thing(l.id, q(l.tag.empty() ? std::string() : l.tag + ", ") + tr("unfed load"));
        else if (!l.tag.empty()) // by its tag one comes to its circuit
            put(l.circuit, q(l.tag), tr("%1 on %2").arg(q(l.name), q(nameOf(p, l.circuit))), false);
    }
    for (const Device& d : p.devices)
        if (!d.tag.empty()) thing(d.id, tr("device"));
    for (const DeviceType& y : p.deviceTypes)
        put(y.id, q((y.mark.empty() ? "" : y.mark + ", ") + y.name), tr("type of device"));
    for (const KeyedNote& n : p.keyedNotes) thing(n.id, q(n.text));
}

void FindBox::showList(const QString& want, int more) {
    list->clear();
    for (const Match& m : matches) list->addItem(m.text + (m.about.isEmpty() ? "" : "    " + m.about));
    if (!matches.empty()) list->setCurrentRow(0);
    QString words;
    if (matches.empty())
        words = tr("Nothing is called “%1”: no command, nothing in the project, no chapter of the guide.").arg(want);
    else if (more > 0)
        words = tr("%1 more: type more of the name.").arg(more);
    if (!words.isEmpty()) {
        auto* said = new QListWidgetItem(words, list);
        said->setFlags(Qt::NoItemFlags);
    }
    QWidget* w = window();
    if (list->parentWidget() != w) list->setParent(w);
    const QPoint at = mapTo(w, QPoint(0, height() + 2));
    const int extra = 220;
    list->setWordWrap(true);
    list->setGeometry(at.x() - extra, at.y(), width() + extra, 6);
    int height = 6;
    for (int i = 0; i < list->count(); ++i) height += std::max(20, list->sizeHintForRow(i));
    if (matches.empty()) height += 20; // it may take two lines
    list->resize(width() + extra, height);
    list->setStyleSheet(QString("QListWidget { background: %1; border: 1px solid %2; }")
                            .arg(theme().surface.name(), theme().rule.name()));
    list->setVisible(hasFocus());
    list->raise();
}

void FindBox::take(QListWidgetItem* item) {
    const int i = list->row(item);
    if (i < 0 || i >= int(matches.size())) return;
    const Match m = matches[std::size_t(i)];
    clear();
    list->hide();
    clearFocus();
    if (m.action)
        m.action->trigger();
    else if (!m.heading.isEmpty())
        Q_EMIT guideWanted(m.heading);
    else
        Q_EMIT thingWanted(m.thing);
}

void FindBox::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Down || e->key() == Qt::Key_Up) {
        const int n = int(matches.size());
        if (n) list->setCurrentRow((list->currentRow() + (e->key() == Qt::Key_Down ? 1 : n - 1)) % n);
    } else if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) {
        if (list->currentItem()) take(list->currentItem());
    } else if (e->key() == Qt::Key_Escape) {
        clear();
        list->hide();
        clearFocus();
    } else {
        QLineEdit::keyPressEvent(e);
    }
}

} // namespace lintel
