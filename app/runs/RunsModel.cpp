#include "app/runs/RunsModel.h"

#include "app/frame/Facts.h"
#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/project/FaultRating.h"
#include "core/project/Operations.h"
#include "core/project/RunFacts.h"
#include "core/sheets/Words.h"
#include "core/solve/States.h"

namespace lintel {
namespace {
/// The shorter of what drop and the loop allow.
Metres longestOf(const RunResult& r) {
    return r.earth->known && !r.earth->byResidual && r.earth->limit > 0 && r.earth->longest > 0 &&
                   (r.longest.v <= 0 || double(r.earth->longest) < r.longest.v)
               ? Metres{double(r.earth->longest)}
               : r.longest;
}
} // namespace

RunsModel::RunsModel(Session& s, QObject* parent) : QAbstractTableModel(parent), session(s), from(s.sharedSolution()) {
    rebuild();
}

bool RunsModel::passes(const RunResult& r, bool feeder, RunFilter f) {
    const bool over =
        r.need.lengthKnown && (r.dropOwn > r.need.ownLimit + 1e-9 || r.dropTotal > r.need.totalLimit + 1e-9);
    switch (f) {
    case RunFilter::All:
        return true;
    case RunFilter::Feeders:
        return feeder;
    case RunFilter::Raised:
        return r.why == Governing::VoltageDrop;
    case RunFilter::Held:
        return r.state == Sizing::Held;
    case RunFilter::NearLimit:
        return !over && r.need.lengthKnown &&
               (r.dropOwn > 0.85 * r.need.ownLimit || r.dropTotal > 0.85 * r.need.totalLimit);
    case RunFilter::TooLong:
        return over;
    case RunFilter::Fails:
        return r.tooSmall || r.state == Sizing::NoneFits || r.state == Sizing::PastCeiling;
    }
    return true;
}

int RunsModel::count(RunFilter f) const {
    return int(std::count_if(all.begin(), all.end(),
                             [&](Ref r) { return passes(*from->results.run(r), !r.is<Circuit>(), f); }));
}

void RunsModel::rebuild() {
    std::vector<Ref> list;
    const auto solution = session.sharedSolution();
    const Results& r = solution->results;
    for (Ref node : r.order)
        if (r.node(node)->parent) list.push_back(node);
    for (Ref node : r.order) {
        if (!node.is<Board>()) continue;
        std::vector<const Circuit*> here;
        for (const Circuit& c : solution->project.circuits)
            if (c.board == node.as<Board>() && c.use == CircuitUse::Load && !r.of(c.id).feeder) here.push_back(&c);
        std::sort(here.begin(), here.end(), [](const Circuit* a, const Circuit* b) { return a->slot < b->slot; });
        for (const Circuit* c : here) list.push_back(c->id);
    }
    std::vector<Ref> kept;
    for (Ref x : list)
        if (passes(*r.run(x), !x.is<Circuit>(), shown) && (wanted.isEmpty() || holdsWords(*solution, x)))
            kept.push_back(x);
    if (worst != WorstBy::None) {
        std::vector<std::pair<double, Ref>> ranked;
        for (Ref x : kept) ranked.push_back({badness(*solution, x, worst), x});
        std::stable_sort(ranked.begin(), ranked.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
        constexpr std::size_t ten = 10;
        kept.clear();
        for (const auto& [how, x] : ranked)
            if (kept.size() < ten && how > 0) kept.push_back(x);
    }
    const bool same = kept == rows && sortColumn < 0;
    if (!same) beginResetModel();
    from = solution;
    all = std::move(list);
    rows = std::move(kept);
    if (!same) {
        endResetModel();
        if (sortColumn >= 0) sort(sortColumn, sortOrder);
    } else if (!rows.empty()) {
        Q_EMIT dataChanged(index(0, 0), index(int(rows.size()) - 1, columns - 1));
    }
}

bool RunsModel::holdsWords(const Solution& s, Ref thing) const {
    const RunResult& r = *s.results.run(thing);
    QString told = q(nameOf(s.project, thing)) + " " + q(conductorWords(r, *s.book)) + " " + q(whyWords(r)) + " " +
                   q(number(r.need.device)) + " A";
    if (const Circuit* c = s.project.circuits.find(thing.as<Circuit>()))
        told += " " + q(c->name);
    else if (const NodeResult* n = s.results.node(thing))
        told += " " + q(nameOf(s.project, n->parent));
    return std::all_of(wanted.begin(), wanted.end(),
                       [&](const QString& word) { return told.contains(word, Qt::CaseInsensitive); });
}

void RunsModel::setText(const QString& words) {
    const QStringList now = words.split(' ', Qt::SkipEmptyParts);
    if (now == wanted) return;
    wanted = now;
    rebuild();
}

/// 1 is the limit; more is over it, 0 that there is none.
double RunsModel::badness(const Solution& s, Ref thing, WorstBy by) {
    const RunResult& r = *s.results.run(thing);
    switch (by) {
    case WorstBy::Drop:
        return r.need.lengthKnown && r.need.totalLimit > 0 ? r.dropTotal / r.need.totalLimit : 0;
    case WorstBy::Use:
        return r.ampacity > 0 ? r.need.load.v / r.ampacity : 0;
    case WorstBy::Fault: {
        const Circuit* c = s.project.circuits.find(thing.as<Circuit>());
        if (c && !c->heldKA) return 0; // it is its board that is rated
        const Board* b = s.project.boards.find(c ? c->board : thing.as<Board>());
        if (!b || !s.results.of(b->id).fault.known) return 0;
        const double holds = c ? holdsKA(*b, *c) : holdsKA(*b);
        return holds > 0 ? largestFault(s.project, s.results, b->id).kA / holds : 0;
    }
    case WorstBy::Length: {
        const Metres most = longestOf(r);
        return r.need.lengthKnown && most.v > 0 ? r.need.length.v / most.v : 0;
    }
    case WorstBy::None:
        break;
    }
    return 0;
}

void RunsModel::setWorst(WorstBy by) {
    worst = by;
    rebuild();
}

void RunsModel::setFilter(RunFilter f) {
    shown = f;
    rebuild();
}

int RunsModel::rowOf(Ref thing) const {
    const auto it = std::find(rows.begin(), rows.end(), thing);
    return it == rows.end() ? -1 : int(it - rows.begin());
}

QVariant RunsModel::headerData(int s, Qt::Orientation o, int role) const {
    if (o != Qt::Horizontal) return {};
    const bool ft = session.project().basis.units == UnitSystem::Imperial;
    if (role == Qt::DisplayRole) {
        const QString length = ft ? tr("Length ft") : tr("Length m"), longest = ft ? tr("Longest ft") : tr("Longest m");
        const QString names[columns] = {tr("Run"),     tr("Serves"),  tr("Load A"), tr("Device"),   length,
                                        tr("Needs"),   tr("Chosen"),  tr("Why"),    tr("Before %"), tr("Own %"),
                                        tr("Total %"), tr("Zs of Ω"), longest};
        return names[s];
    }
    if (role == Qt::TextAlignmentRole)
        return int(
            (s == Name || s == Serves || s == Why || s == Needs || s == Chosen ? Qt::AlignLeft : Qt::AlignRight) |
            Qt::AlignVCenter);
    return {};
}

namespace {
/// In a column of sizes the unit of the large ones is known.
QString shortSize(QString size) { return size.remove(" kcmil").remove(" mm²"); }
} // namespace

QVariant RunsModel::data(const QModelIndex& i, int role) const {
    const Ref thing = thingAt(i.row());
    if (!thing || !i.isValid()) return {};
    const RunResult& r = *from->results.run(thing);
    const Basis& b = from->project.basis;
    const bool ft = b.units == UnitSystem::Imperial;
    const auto length = [&](Metres m) { return ft ? inFeet(m) : m.v; };
    const auto drop = [&](double v) { return r.need.lengthKnown ? QVariant(q(number(v, 1))) : QVariant("–"); };
    if (role == Qt::DisplayRole || role == Qt::EditRole) {
        switch (i.column()) {
        case Name: {
            RunId run;
            if (auto* bd = from->project.boards.find(thing.as<Board>())) run = bd->run;
            if (auto* t = from->project.transformers.find(thing.as<Transformer>())) run = t->run;
            const Run* named = from->project.runs.find(run);
            return thing.is<Circuit>()             ? q(nameOf(from->project, thing))
                   : named && !named->name.empty() ? q(named->name)
                                                   : q(textOf(run));
        }
        case Serves:
            if (thing.is<Circuit>()) return q(from->project.circuits[thing.as<Circuit>()].name);
            return QString("%1 → %2").arg(q(nameOf(from->project, from->results.node(thing)->parent)),
                                          q(nameOf(from->project, thing)));
        case Load:
            return q(figures(r.need.load.v));
        case Device: {
            const CircuitId via = thing.is<Circuit>() ? thing.as<Circuit>() : from->results.node(thing)->via;
            return via && from->book->metric() ? q(deviceWords(from->results.of(via), 1, *from->book))
                                               : q(number(r.need.device));
        }
        case Length:
            if (r.need.lengthKnown && !r.need.lengthAssumed) return q(number(length(r.need.length)));
            return role == Qt::EditRole   ? QString()
                   : r.need.lengthAssumed ? "~" + q(number(length(r.need.length)))
                                          : QString("–");
        case Needs:
            return r.sizeForAmpacity >= 0
                       ? shortSize(q((r.setsForAmpacity > 1 ? std::to_string(r.setsForAmpacity) + "×" : "") +
                                     sizeWords(*from->book, r.sizeForAmpacity)))
                       : "–";
        case Chosen:
            return role == Qt::EditRole
                       ? (r.state == Sizing::Held ? q(from->book->sizes()[std::size_t(r.size)].name) : "auto")
                       : shortSize(q(sizeOf(r, *from->book)));
        case Why:
            return q(whyWords(r));
        case Before:
            return drop(r.dropBefore);
        case Own:
            return drop(r.dropOwn);
        case Total:
            return !r.need.lengthKnown ? QVariant("–")
                                       : QVariant((r.need.beforeKnown ? "" : "≥ ") + q(number(r.dropTotal, 1)));
        case Loop:
            return r.earth->known
                       ? QString("%1 of %2")
                             .arg(double(r.earth->zs), 0, 'f', 2)
                             .arg(r.earth->limit > 0
                                      ? QString::number(double(r.earth->limit), 'f', r.earth->limit >= 100 ? 0 : 2)
                                      : "–")
                       : "–";
        case Longest:
            return longestOf(r).v > 0 ? q(number(length(longestOf(r)))) : "–";
        }
    }
    const Theme& t = theme();
    if (role == Qt::TextAlignmentRole) return headerData(i.column(), Qt::Horizontal, role);
    if (role == Qt::ForegroundRole) {
        const bool bad = r.tooSmall || r.state == Sizing::NoneFits || r.state == Sizing::PastCeiling;
        if (i.column() == Needs || i.column() == Before) return t.quiet;
        if ((i.column() == Chosen || i.column() == Why) && bad) return t.stop;
        if (i.column() == Own && r.need.lengthKnown && r.dropOwn > r.need.ownLimit + 1e-9) return t.stop;
        if (i.column() == Total && r.need.lengthKnown && r.dropTotal > r.need.totalLimit + 1e-9) return t.stop;
        if (i.column() == Loop && !r.earth->ok) return t.stop;
        if (i.column() == Longest && r.need.lengthKnown && r.need.length > longestOf(r)) return t.stop;
        if (i.column() == Chosen && (r.why == Governing::VoltageDrop || r.why == Governing::LoopImpedance ||
                                     r.why == Governing::FaultWithstand))
            return t.check;
        return t.ink;
    }
    if (role == Qt::FontRole) return uiFont(0.95, i.column() == Name || i.column() == Chosen);
    return {};
}

Qt::ItemFlags RunsModel::flags(const QModelIndex& i) const {
    Qt::ItemFlags f = QAbstractTableModel::flags(i);
    if (i.column() == Chosen || i.column() == Length) f |= Qt::ItemIsEditable;
    return f;
}

bool RunsModel::setData(const QModelIndex& i, const QVariant& value, int role) {
    const Ref thing = thingAt(i.row());
    if (role != Qt::EditRole || !thing) return false;
    const std::string text = value.toString().toStdString();
    Run trial;
    const auto refused = [&](const Error& e) {
        session.say(q(e.what + ". " + e.help), true);
        return false;
    };
    if (i.column() == Length) {
        const UnitSystem units = session.project().basis.units;
        if (const auto bad = enterRunLength(trial, text, units)) return refused(*bad);
        const bool measured = trial.lengthBy != LengthBy::Entered;
        return session.edit(measured ? tr("Measure run") : tr("Run length"),
                            [&](Project& p) { (void)enterRunLength(runOf(p, thing), text, units); });
    }
    if (const auto bad = enterRunSize(trial, text)) return refused(*bad);
    const QString name = q(nameOf(session.project(), thing));
    const auto enter = [&](Project& p) { (void)enterRunSize(runOf(p, thing), text); };
    if (trial.heldSize.empty()) return session.edit(tr("Let %1 be sized").arg(name), enter);
    const SizeIndex size = from->book->find(trial.heldSize);
    if (size < 0 || !from->book->choosable(size, from->results.run(thing)->need.material))
        return refused({"", fmt::format("There is no size “{}” in {}", trial.heldSize, from->book->title),
                        "Type one such as 8, 1/0, 250 or 2 × 250; auto lets it be sized."});
    return session.edit(tr("Hold %1 for %2").arg(q(sizeWords(*from->book, size)), name), enter);
}

void RunsModel::sort(int column, Qt::SortOrder order) {
    sortColumn = column;
    sortOrder = order;
    if (column < 0) return rebuild();
    beginResetModel();
    const auto key = [&](Ref x) -> std::pair<double, QString> {
        const RunResult& r = *from->results.run(x);
        switch (column) {
        case Load:
            return {r.need.load.v, {}};
        case Device:
            return {r.need.device, {}};
        case Length:
            return {r.need.lengthKnown ? r.need.length.v : -1, {}};
        case Needs:
            return {r.sizeForAmpacity + 100.0 * r.setsForAmpacity, {}};
        case Chosen:
            return {r.size + 100.0 * r.sets, {}};
        case Before:
            return {r.dropBefore, {}};
        case Own:
            return {r.dropOwn, {}};
        case Total:
            return {r.dropTotal, {}};
        case Loop:
            return {r.earth->limit > 0 ? double(r.earth->zs / r.earth->limit) : 0, {}};
        case Longest:
            return {longestOf(r).v, {}};
        default:
            return {0, data(index(int(std::find(rows.begin(), rows.end(), x) - rows.begin()), column), Qt::DisplayRole)
                           .toString()};
        }
    };
    std::vector<std::pair<std::pair<double, QString>, Ref>> keyed;
    for (Ref x : rows) keyed.push_back({key(x), x});
    std::stable_sort(keyed.begin(), keyed.end(), [&](const auto& a, const auto& b) {
        return order == Qt::AscendingOrder ? a.first < b.first : b.first < a.first;
    });
    for (std::size_t i = 0; i < rows.size(); ++i) rows[i] = keyed[i].second;
    endResetModel();
}

} // namespace lintel
