#include "app/runs/RunsModel.h"

#include "app/frame/Facts.h"
#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/base/NaturalOrder.h"
#include "core/figures/Words.h"
#include "core/project/FaultRating.h"
#include "core/project/Operations.h"
#include "core/project/RunFacts.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/States.h"

#include <fmt/format.h>

namespace lintel {
namespace {
/// The shorter of what drop and the loop allow.
Metres longestOf(const RunResult& r) {
    return r.earth->known && !r.earth->byResidual && r.earth->limit > 0 && r.earth->longest > 0 &&
                   (r.longest.v <= 0 || double(r.earth->longest) < r.longest.v)
               ? Metres{double(r.earth->longest)}
               : r.longest;
}

const RunResult& runOfRow(const Solution& s, RunRow row) {
    return row.alternate ? *s.results.of(row.thing.as<Board>()).alternateRun : *s.results.run(row.thing);
}
const Run* enteredOf(const Project& p, RunRow row) {
    return row.alternate ? p.runs.find(p.boards[row.thing.as<Board>()].alternateRun) : enteredRun(p, row.thing);
}
Run& changedRun(Project& p, RunRow row) {
    return row.alternate ? alternateRunOf(p, row.thing.as<Board>()) : runOf(p, row.thing);
}
/// What feeds it, or takes over.
Ref fromOf(const Solution& s, RunRow row) {
    if (!row.alternate) return s.results.node(row.thing)->parent;
    const Ref from = s.project.boards[row.thing.as<Board>()].alternate;
    const Circuit* c = s.project.circuits.find(from.as<Circuit>());
    return c ? Ref(c->board) : from;
}
CircuitId deviceOf(const Solution& s, RunRow row) {
    if (row.alternate) return s.project.boards[row.thing.as<Board>()].alternate.as<Circuit>();
    return row.thing.is<Circuit>() ? row.thing.as<Circuit>() : s.results.node(row.thing)->via;
}
} // namespace

RunsModel::RunsModel(Session& s, QObject* parent) : QAbstractTableModel(parent), session(s) { rebuild(); }

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
    return int(std::count_if(list.all.begin(), list.all.end(),
                             [&](RunRow r) { return passes(runOfRow(*list.from, r), !r.thing.is<Circuit>(), f); }));
}

RunsModel::Listed RunsModel::listed(std::shared_ptr<const Solution> solution) {
    std::vector<RunRow> all;
    const Results& r = solution->results;
    const Project& p = solution->project;
    for (Ref node : r.order) {
        if (r.node(node)->parent) all.push_back({node});
        if (node.is<Board>() && r.of(node.as<Board>()).alternateRun) all.push_back({node, true});
    }
    for (Ref node : r.order) {
        if (!node.is<Board>()) continue;
        std::vector<const Circuit*> here;
        for (CircuitId id : r.on(node.as<Board>()))
            if (p.circuits[id].use == CircuitUse::Load && !r.of(id).feeder) here.push_back(&p.circuits[id]);
        std::stable_sort(here.begin(), here.end(),
                         [](const Circuit* a, const Circuit* b) { return a->slot < b->slot; });
        for (const Circuit* c : here) all.push_back({c->id});
    }
    return {std::move(solution), std::move(all)};
}

std::vector<RunRow> RunsModel::filtered(Listed& of) const {
    const Solution& s = *of.from;
    if (of.words.empty() && !wanted.isEmpty())
        for (const RunRow& x : of.all) of.words.push_back(wordsOf(s, x));
    const auto holdsWords = [&](std::size_t i) {
        return std::all_of(wanted.begin(), wanted.end(),
                           [&](const QString& word) { return of.words[i].contains(word); });
    };
    std::vector<RunRow> kept;
    for (std::size_t i = 0; i < of.all.size(); ++i)
        if (passes(runOfRow(s, of.all[i]), !of.all[i].thing.is<Circuit>(), shown) && holdsWords(i))
            kept.push_back(of.all[i]);
    if (worst == WorstBy::None) return kept;
    std::vector<std::pair<double, RunRow>> ranked;
    for (const RunRow& x : kept) ranked.push_back({badness(s, x, worst), x});
    std::stable_sort(ranked.begin(), ranked.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    constexpr std::size_t ten = 10;
    kept.clear();
    for (const auto& [how, x] : ranked)
        if (kept.size() < ten && how > 0) kept.push_back(x);
    return kept;
}

void RunsModel::rebuild() { show(listed(session.sharedSolution())); }

void RunsModel::refilter() { show(Listed(list)); }

void RunsModel::show(Listed&& fresh) {
    std::vector<RunRow> kept = filtered(fresh);
    const bool same = kept == rows && sortColumn < 0;
    if (!same) beginResetModel(); // before anything changes: a view may still ask for what it shows
    list = std::move(fresh);
    rows = std::move(kept);
    if (!same) {
        endResetModel();
        if (sortColumn >= 0) sort(sortColumn, sortOrder);
    } else if (!rows.empty()) {
        Q_EMIT dataChanged(index(0, 0), index(int(rows.size()) - 1, columns - 1));
    }
}

QString RunsModel::nameOfRow(RunRow row) const {
    const QString name = q(nameOf(session.project(), row.thing));
    return row.alternate ? tr("%1, alternate").arg(name) : name;
}

QString RunsModel::wordsOf(const Solution& s, RunRow row) {
    const RunResult& r = runOfRow(s, row);
    const Ref thing = row.thing;
    QString words = q(nameOf(s.project, thing)) + " " + q(conductorWords(r, *s.book)) + " " + q(whyWords(r)) + " " +
                    q(number(r.need.device)) + " A";
    if (const Circuit* c = s.project.circuits.find(thing.as<Circuit>()))
        words += " " + q(c->name);
    else
        words += " " + q(nameOf(s.project, fromOf(s, row))) + (row.alternate ? " " + tr("alternate") : QString());
    return words.toLower();
}

void RunsModel::setText(const QString& words) {
    const QStringList now = words.toLower().split(' ', Qt::SkipEmptyParts);
    if (now == wanted) return;
    wanted = now;
    refilter();
}

/// 1 is the limit; more is over it, 0 that there is none.
double RunsModel::badness(const Solution& s, RunRow row, WorstBy by) {
    const RunResult& r = runOfRow(s, row);
    const Ref thing = row.thing;
    switch (by) {
    case WorstBy::Drop:
        return r.need.lengthKnown && r.need.totalLimit > 0 ? r.dropTotal / r.need.totalLimit : 0;
    case WorstBy::Use:
        return r.ampacity > 0 ? r.need.load.v / r.ampacity : 0;
    case WorstBy::Fault: {
        const Circuit* c = s.project.circuits.find(thing.as<Circuit>());
        if ((c && !c->heldKA) || row.alternate) return 0; // it is its board that is rated, told once
        const Board* b = s.project.boards.find(c ? c->board : thing.as<Board>());
        if (!b || !s.results.of(b->id).fault.known) return 0;
        const double holds = c ? holdsKA(*b, *c) : holdsKA(*b);
        const LargestFault most =
            c ? largestFault(s.project, s.results, *c) : largestFault(s.project, s.results, b->id);
        return holds > 0 ? most.kA / holds : 0;
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
    refilter();
}

void RunsModel::setFilter(RunFilter f) {
    shown = f;
    refilter();
}

int RunsModel::rowOf(Ref thing) const {
    const auto it = std::find(rows.begin(), rows.end(), RunRow{thing});
    return it == rows.end() ? -1 : int(it - rows.begin());
}

QVariant RunsModel::headerData(int s, Qt::Orientation o, int role) const {
    if (o != Qt::Horizontal) return {};
    const bool ft = session.project().basis.units == UnitSystem::Imperial;
    if (role == Qt::DisplayRole) {
        const QString length = ft ? tr("Length ft") : tr("Length m"), longest = ft ? tr("Longest ft") : tr("Longest m");
        const QString names[columns] = {tr("Run"),      tr("Serves"), tr("Load A"),  tr("Judged A"), tr("Device"),
                                        length,         tr("Needs"),  tr("Chosen"),  tr("kg"),       tr("Why"),
                                        tr("Before %"), tr("Own %"),  tr("Total %"), tr("Zs of Ω"),  longest};
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
    const RunRow row = rowAt(i.row());
    const Ref thing = row.thing;
    if (!thing || !i.isValid()) return {};
    const RunResult& r = runOfRow(*list.from, row);
    const Basis& b = list.from->project.basis;
    const bool ft = b.units == UnitSystem::Imperial;
    const auto length = [&](Metres m) { return ft ? inFeet(m) : m.v; };
    const auto drop = [&](double v) { return r.need.lengthKnown ? QVariant(q(number(v, 1))) : QVariant("–"); };
    const auto loadOf = [&](const QString& amps) { // a dash where nobody entered one
        return thing.is<Circuit>() && list.from->results.of(thing.as<Circuit>()).nothingHangsOn() ? QString("–") : amps;
    };
    if (role == Qt::DisplayRole || role == Qt::EditRole) {
        switch (i.column()) {
        case Name: {
            if (thing.is<Circuit>()) return q(nameOf(list.from->project, thing));
            const Run* named = enteredOf(list.from->project, row);
            return !named ? QString("–") : named->name.empty() ? q(textOf(named->id)) : q(named->name);
        }
        case Serves:
            if (thing.is<Circuit>()) return q(list.from->project.circuits[thing.as<Circuit>()].name);
            return QString("%1 → %2").arg(q(nameOf(list.from->project, fromOf(*list.from, row))),
                                          q(nameOf(list.from->project, thing))) +
                   (row.alternate ? tr(", alt.") : QString());
        case Load:
            return loadOf(q(figures(r.need.load.v)));
        case Judged: // a share of its device's rating needs no load
            return r.need.dropByShare ? q(figures(r.need.dropAmps.v)) : loadOf(q(figures(r.need.dropAmps.v)));
        case Device: {
            const CircuitId via = deviceOf(*list.from, row);
            return via && list.from->book->metric() ? q(deviceWords(list.from->results.of(via), 1, *list.from->book))
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
                                     sizeWords(*list.from->book, r.sizeForAmpacity)))
                       : "–";
        case Chosen:
            if (role == Qt::EditRole) {
                const Run* run = enteredOf(list.from->project, row);
                return run && !run->heldSize.empty() ? q(heldSizeText(*run)) : "auto";
            }
            return shortSize(q(sizeOf(r, *list.from->book)));
        case Mass: {
            if (!r.need.lengthKnown || r.size < 0) return "–";
            const double now = conductorMass(r.need, r.size, r.sets, *list.from->book);
            const double more = now - conductorMass(r.need, r.sizeForAmpacity, r.setsForAmpacity, *list.from->book);
            return q(number(now, 1) + (more > 0.05 ? " (+" + number(more, 1) + ")" : ""));
        }
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
    if (role == Qt::ToolTipRole && row.alternate) return plainTip(tr("%1: what takes over").arg(nameOfRow(row)));
    if (role == Qt::TextAlignmentRole) return headerData(i.column(), Qt::Horizontal, role);
    if (role == Qt::ForegroundRole) {
        const bool bad = r.tooSmall || r.state == Sizing::NoneFits || r.state == Sizing::PastCeiling;
        if (i.column() == Needs || i.column() == Before) return t.quiet;
        if ((i.column() == Chosen || i.column() == Why) && bad) return t.stop;
        if (i.column() == Own && r.need.lengthKnown && r.dropOwn > r.need.ownLimit + 1e-9) return t.stop;
        if (i.column() == Total && r.need.lengthKnown && r.dropTotal > r.need.totalLimit + 1e-9) return t.stop;
        if (i.column() == Loop && !r.earth->ok) return t.stop;
        if (i.column() == Longest && r.need.lengthKnown && longestOf(r).v > 0 && r.need.length > longestOf(r))
            return t.stop;
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

std::optional<Error> RunsModel::refuse(const Typed& cell) const {
    const std::string name = nameOfRow(cell.row).toStdString();
    Run trial;
    if (cell.column == Length) {
        auto bad = enterRunLength(trial, cell.text, session.project().basis.units);
        if (bad) bad->where = name;
        return bad;
    }
    if (auto bad = enterRunSize(trial, cell.text)) {
        bad->where = name;
        return bad;
    }
    if (trial.heldSize.empty()) return std::nullopt;
    const SizeIndex size = list.from->book->find(trial.heldSize);
    const RunResult* run = list.from->results.knows(cell.row.thing) ? &runOfRow(*list.from, cell.row) : nullptr;
    if (size < 0 || !run || !list.from->book->choosable(size, run->need.material))
        return Error{name, fmt::format("there is no size “{}” in {}", trial.heldSize, list.from->book->title),
                     "Type one such as 8, 1/0, 250 or 2 × 250; auto lets it be sized."};
    return std::nullopt;
}

bool RunsModel::enter(const std::vector<Typed>& cells, const QString& label) {
    for (const Typed& cell : cells)
        if (const auto bad = refuse(cell)) {
            session.say(q(bad->text()), true);
            return false;
        }
    return session.edit(label, [&](Project& p) {
        for (const Typed& cell : cells) {
            Run& run = changedRun(p, cell.row);
            if (cell.column == Length)
                (void)enterRunLength(run, cell.text, p.basis.units);
            else
                (void)enterRunSize(run, cell.text);
        }
    });
}

bool RunsModel::hold(const std::vector<RunRow>& which) {
    std::vector<Typed> cells;
    for (const RunRow& row : which) {
        const RunResult& r = runOfRow(*list.from, row);
        if (r.size < 0) continue;
        const std::string size = list.from->book->sizes()[std::size_t(r.size)].name;
        cells.push_back({row, Chosen, r.sets > 1 ? fmt::format("{} × {}", r.sets, size) : size});
    }
    const std::size_t without = which.size() - cells.size();
    if (cells.empty()) {
        session.say(tr("Nothing is held: the book gives no size for what is chosen"), true);
        return false;
    }
    const QString label = cells.size() == 1 ? tr("Hold %1 as it is sized").arg(nameOfRow(cells[0].row))
                                            : tr("Hold %1 runs as they are sized").arg(cells.size());
    const bool done = enter(cells, label);
    if (done && without > 0) session.say(tr("%1 held; for %2 the book gives no size").arg(cells.size()).arg(without));
    return done;
}

std::vector<std::vector<std::string>> RunsModel::cellsAt(const std::vector<int>& which,
                                                         const std::vector<int>& shownColumns) const {
    std::vector<std::vector<std::string>> out(1);
    for (int column : shownColumns)
        out.back().push_back(headerData(column, Qt::Horizontal, Qt::DisplayRole).toString().toStdString());
    for (int row : which) {
        out.emplace_back();
        for (int column : shownColumns)
            out.back().push_back(data(index(row, column), Qt::DisplayRole).toString().toStdString());
    }
    return out;
}

bool RunsModel::setData(const QModelIndex& i, const QVariant& value, int role) {
    const RunRow row = rowAt(i.row());
    if (role != Qt::EditRole || !row.thing || (i.column() != Length && i.column() != Chosen)) return false;
    const std::string text = value.toString().toStdString();
    std::vector<RunRow> things{row};
    if (std::find(chosen.begin(), chosen.end(), row) != chosen.end()) things = chosen;
    std::vector<Typed> cells;
    for (const RunRow& x : things) cells.push_back({x, Column(i.column()), text});
    const QString of = things.size() == 1 ? nameOfRow(row) : tr("%1 runs").arg(things.size());
    Run trial;
    if (i.column() == Length) {
        const bool entered =
            !enterRunLength(trial, text, session.project().basis.units) && trial.lengthBy == LengthBy::Entered;
        return enter(cells, entered ? tr("Length of %1").arg(of) : tr("Measure %1").arg(of));
    }
    const bool held = !enterRunSize(trial, text) && !trial.heldSize.empty();
    return enter(cells, held ? tr("Hold %1 for %2").arg(q(heldSizeText(trial)), of) : tr("Let %1 be sized").arg(of));
}

void RunsModel::sort(int column, Qt::SortOrder order) {
    sortColumn = column;
    sortOrder = order;
    if (column < 0) return rebuild();
    beginResetModel();
    const auto key = [&](int row) -> std::pair<double, std::string> {
        const RunResult& r = runOfRow(*list.from, rowAt(row));
        switch (column) {
        case Load:
            return {r.need.load.v, {}};
        case Judged:
            return {r.need.dropAmps.v, {}};
        case Mass:
            return {r.need.lengthKnown && r.size >= 0 ? conductorMass(r.need, r.size, r.sets, *list.from->book) : -1,
                    {}};
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
            return {0, data(index(row, column), Qt::DisplayRole).toString().toStdString()};
        }
    };
    std::vector<std::pair<std::pair<double, std::string>, RunRow>> keyed;
    for (int row = 0; row < int(rows.size()); ++row) keyed.push_back({key(row), rowAt(row)});
    const auto before = [](const auto& a, const auto& b) { // LP-1-2 before LP-1-10
        return a.first != b.first ? a.first < b.first : numberBefore(a.second, b.second);
    };
    std::stable_sort(keyed.begin(), keyed.end(), [&](const auto& a, const auto& b) {
        return order == Qt::AscendingOrder ? before(a.first, b.first) : before(b.first, a.first);
    });
    for (std::size_t i = 0; i < rows.size(); ++i) rows[i] = keyed[i].second;
    endResetModel();
}

} // namespace lintel
