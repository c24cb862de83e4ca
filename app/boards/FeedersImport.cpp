#include "app/boards/FeedersImport.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"

#include <QObject>

namespace lintel {

QString FeedersImport::wordOf(int field) const { return QObject::tr(lintel::wordOf(FeederField(field))); }

QStringList FeedersImport::choices() const {
    QStringList all;
    for (const auto& [kind, word] : EnumText<FedKind>::words) all << QObject::tr(word);
    return all;
}

ImportKind::Settings FeedersImport::guess(const Grid& grid, const Project& p) const {
    const FeederSettings s = guessFeederSettings(grid, p.basis.units);
    Settings how;
    how.headerRow = s.headerRow;
    how.decimal = s.decimal;
    how.unit = s.unit;
    for (FeederField f : s.columns) how.columns.push_back(int(f));
    return how;
}

std::optional<LoadUnit> FeedersImport::unitOf(int field, const std::string& heading) const {
    return FeederField(field) == FeederField::Load ? loadUnitInHeading(heading) : std::nullopt;
}

ImportKind::Judged FeedersImport::judge(const Grid& grid, const Settings& how, const Project& p, const RuleBook& book,
                                        const std::set<int>& leftOut) {
    FeederSettings s = guessFeederSettings(grid, p.basis.units); // the unit of lengths, by the headings
    s.headerRow = how.headerRow;
    s.decimal = how.decimal;
    s.unit = how.unit;
    s.columns.clear();
    for (int f : how.columns) s.columns.push_back(FeederField(f));
    for (const auto& [row, choice] : how.takenAs) s.takenAs[row] = FedKind(choice);
    feeders = readFeeders(grid, s, book);
    for (FeederRow& r : feeders.rows) r.leftOut = leftOut.count(r.gridRow) > 0;
    Project trial = p;
    const FeedersApplied a = applyFeeders(trial, book, feeders);
    Judged out;
    for (std::size_t i = 0; i < feeders.rows.size(); ++i) {
        Row row;
        static_cast<ListedRow&>(row) = feeders.rows[i];
        for (const std::string& words : a.rows[i].look) row.problem(-1, words, a.rows[i].refused);
        QStringList what;
        for (const std::string& words : a.rows[i].what) what << q(words);
        row.what = what.join(", ");
        out.rows.push_back(std::move(row));
    }
    for (const std::string& n : feeders.notes) out.notes << q(n);
    for (const std::string& n : a.notes) out.notes << q(n);
    if (a.added) out.sums << QObject::tr("%1 new").arg(a.added);
    if (a.changed) out.sums << QObject::tr("%1 changed").arg(a.changed);
    if (a.same) out.sums << QObject::tr("%1 the same").arg(a.same);
    if (const int n = feeders.stopped() + a.refused) out.sums << QObject::tr("%1 with problems stay out").arg(n);
    if (!leftOut.empty()) out.sums << QObject::tr("%1 left out by hand").arg(leftOut.size());
    if (!a.gone.empty())
        out.sums << QObject::tr("%1 not in the list, which stay (%2)").arg(a.gone.size()).arg(someNames(a.gone, 6));
    if (!a.made.empty()) out.sums << QObject::tr("made: %1").arg(someNames(a.made, 10));
    out.entering = std::size_t(a.added + a.changed);
    return out;
}

ImportKind::Taken FeedersImport::take(Project& p, const RuleBook& book, bool, bool) {
    const FeedersApplied a = applyFeeders(p, book, feeders);
    Taken out;
    out.words = QObject::tr("%1 added, %2 changed, %3 the same")
                    .arg(counted(a.added, QObject::tr("feeder"), QObject::tr("feeders")))
                    .arg(a.changed)
                    .arg(a.same);
    const int stayed = feeders.stopped() + a.refused;
    if (stayed) out.words += QObject::tr("; %1 stayed out").arg(stayed);
    out.look = stayed > 0;
    return out;
}

} // namespace lintel
