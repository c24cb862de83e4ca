#include "app/boards/LoadsImport.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"
#include "core/plan/CircuitMissing.h"

#include <QObject>

namespace lintel {

QString someNames(const std::vector<std::string>& names, int most) {
    QStringList some;
    for (const std::string& name : names)
        if (some.size() < most) some << q(name);
    return some.join(", ") + (int(names.size()) > some.size() ? ", …" : "");
}

QString LoadsImport::wordOf(int field) const { return QObject::tr(lintel::wordOf(ListField(field))); }

bool LoadsImport::offered(int field) const {
    const ListField f = ListField(field);
    return f != ListField::Duty && f != ListField::Circuit && f != ListField::Efficiency && f != ListField::Identity;
}

Outcome<ImportKind::Read> ImportKind::read(const std::filesystem::path& file, const GridOptions& options,
                                           UnitSystem) const {
    auto grid = readGrid(file, options);
    if (!grid) return grid.error();
    return Read{std::move(*grid), nullptr};
}

ImportKind::Settings LoadsImport::guess(const Grid& grid, const Project& p) const {
    const ListSettings s = guessSettings(grid, p.basis.units == UnitSystem::Metric ? LoadUnit::kW : LoadUnit::kVA);
    Settings how;
    how.headerRow = s.headerRow;
    how.decimal = s.decimal;
    how.unit = s.unit;
    for (ListField f : s.columns) how.columns.push_back(int(f));
    return how;
}

std::optional<LoadUnit> LoadsImport::unitOf(int field, const std::string& heading) const {
    return ListField(field) == ListField::Amount ? guessField(heading).second : std::nullopt;
}

ImportKind::Judged LoadsImport::judge(const Grid& grid, const Settings& how, const Project& p, const RuleBook&,
                                      const std::set<int>& leftOut) {
    ListSettings s;
    s.headerRow = how.headerRow;
    s.decimal = how.decimal;
    s.unit = how.unit;
    for (int f : how.columns) s.columns.push_back(ListField(f));
    loads = readLoads(grid, s, p);
    Judged out;
    for (ListRow& r : loads.rows) {
        r.leftOut = leftOut.count(r.gridRow) > 0;
        Row row;
        static_cast<ListedRow&>(row) = r;
        out.rows.push_back(std::move(row));
    }
    const ListDifference d = compareList(p, loads);
    for (std::size_t i : d.added) {
        out.rows[i].what = QObject::tr("new");
        out.rows[i].fresh = true;
    }
    for (const auto& c : d.changed) {
        QStringList words;
        for (const std::string& w : c.what) words << q(w);
        out.rows[c.row].what = words.join(", ");
    }
    for (const std::string& n : loads.notes) out.notes << q(n);
    if (!d.added.empty()) out.sums << QObject::tr("%1 new").arg(d.added.size());
    if (!d.changed.empty()) out.sums << QObject::tr("%1 changed").arg(d.changed.size());
    if (d.same) out.sums << QObject::tr("%1 the same").arg(d.same);
    if (const int n = loads.stopped()) out.sums << QObject::tr("%1 with problems stay out").arg(n);
    if (!leftOut.empty()) out.sums << QObject::tr("%1 left out by hand").arg(leftOut.size());
    if (!d.gone.empty()) {
        std::vector<std::string> tags;
        for (LoadId l : d.gone) tags.push_back(p.loads[l].tag);
        out.sums << QObject::tr("%1 no longer in the list (%2)").arg(d.gone.size()).arg(someNames(tags, 6));
    }
    if (!loads.newBoards.empty()) out.sums << QObject::tr("boards made: %1").arg(someNames(loads.newBoards, 8));
    out.entering = d.added.size() + d.changed.size();
    out.gone = d.gone.size();
    return out;
}

ImportKind::Taken LoadsImport::take(Project& p, const RuleBook& book, bool removeGone, bool circuits) {
    const Applied a = applyList(p, loads, {removeGone, true});
    Circuited c;
    if (circuits) c = circuitMissing(p, book);
    Taken out;
    out.words = QObject::tr("%1 added, %2 changed, %3 removed, %4 made")
                    .arg(counted(a.added, QObject::tr("load"), QObject::tr("loads")))
                    .arg(a.changed)
                    .arg(a.removed)
                    .arg(counted(a.boards, QObject::tr("board"), QObject::tr("boards")));
    if (circuits)
        out.words += QObject::tr("; %1 on %2")
                         .arg(counted(c.loads, QObject::tr("load"), QObject::tr("loads")),
                              counted(c.circuits.size(), QObject::tr("new circuit"), QObject::tr("new circuits")));
    if (!c.left.empty()) out.words += QObject::tr("; %1 still without: %2").arg(c.left.size()).arg(q(c.left.front()));
    for (std::size_t i = 0; i < a.notes.size() && i < 3; ++i) out.words += "; " + q(a.notes[i]);
    if (a.notes.size() > 3)
        out.words += "; " + QObject::tr("and %1").arg(
                                counted(a.notes.size() - 3, QObject::tr("more circuit"), QObject::tr("more circuits")));
    out.look = !c.left.empty() || !a.notes.empty();
    return out;
}

} // namespace lintel
