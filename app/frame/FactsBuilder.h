#pragma once
// Puts rows of facts together; `s` is the session whose edits the rows make.

#include "app/frame/Facts.h"
#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/sheets/Words.h"

#include <QRegularExpression>

namespace lintel {

struct FactsBuilder {
    Session& s;
    const Solution& sol;
    Facts f;

    FactRow& row(const QString& label, const QString& value) {
        f.rows.push_back({label, value, {}, {}});
        return f.rows.back();
    }
    FactRow& text(const QString& label, const QString& value, const QString& editLabel, std::function<void(Project&, const std::string&)> set) {
        FactRow& r = row(label, value);
        r.entry = FactRow::Entry{value, {}, [this_ = &s, editLabel, set, value](const QString& t) {
                                     if (t == value) return QString(); // also where several differ and nothing was typed
                                     this_->edit(editLabel, [&](Project& p) { set(p, t.trimmed().toStdString()); });
                                     return QString();
                                 }};
        return r;
    }
    /// `unit` is taken off what is typed; an empty text calls `clear` where there is one.
    FactRow& number(const QString& label, const QString& value, const QString& initial, const QString& editLabel, double lo, double hi, std::function<void(Project&, double)> set,
                    std::function<void(Project&)> clear = {}) {
        FactRow& r = row(label, value);
        r.entry = FactRow::Entry{initial, {}, [this_ = &s, editLabel, lo, hi, set, clear](const QString& t) -> QString {
                                     if (clear && (t.trimmed().isEmpty() || t.trimmed().toLower() == "auto")) {
                                         this_->edit(editLabel, clear);
                                         return {};
                                     }
                                     bool ok = false;
                                     QString digits = t;
                                     digits.remove(QRegularExpression("[^0-9.,\\-].*$")).replace(',', '.');
                                     const double v = digits.toDouble(&ok);
                                     if (!ok || v < lo || v > hi) return QObject::tr("“%1” is not a number from %2 to %3").arg(t).arg(lo).arg(hi);
                                     this_->edit(editLabel, [&](Project& p) { set(p, v); });
                                     return {};
                                 }};
        return r;
    }
    FactRow& choice(const QString& label, const QString& value, const QStringList& choices, const QString& editLabel, std::function<QString(Project&, const QString&)> set) {
        FactRow& r = row(label, value);
        r.entry = FactRow::Entry{value, choices, [this_ = &s, editLabel, set](const QString& t) {
                                     QString why;
                                     this_->edit(editLabel, [&](Project& p) { why = set(p, t); });
                                     return why;
                                 }};
        return r;
    }
    template <WordedEnum E> static QStringList words() {
        QStringList l;
        for (const auto& [value, word] : EnumText<E>::words) l << word;
        return l;
    }

    /// A length typed with or without its unit, from `lo` to `hi` metres.
    FactRow& length(const QString& label, double metres, const QString& editLabel, double lo, double hi, std::function<void(Project&, double)> set) {
        const UnitSystem units = sol.project.basis.units;
        FactRow& r = row(label, q(metres < 2 ? heightWords(metres, units) : lengthWords(Metres{metres}, units)));
        r.entry = FactRow::Entry{r.value, {}, [this_ = &s, editLabel, lo, hi, set, units, shown = r.value](const QString& t) -> QString {
                                     if (t == shown) return {}; // what is shown is rounded: entered again it says nothing new
                                     const auto m = metresFrom(t, units);
                                     if (!m || *m < lo || *m > hi) return QObject::tr("“%1” is not a length from %2 to %3").arg(t, q(lengthWords(Metres{lo}, units)), q(lengthWords(Metres{hi}, units)));
                                     this_->edit(editLabel, [&](Project& p) { set(p, *m); });
                                     return {};
                                 }};
        return r;
    }
    /// The newest row is not shown at first while it says only what is usual.
    void rare(bool usual) { f.rows.back().seldom = usual; }
    FactRow& yesNo(const QString& label, bool value, const QString& editLabel, std::function<void(Project&, bool)> set) {
        return choice(label, value ? QObject::tr("yes") : QObject::tr("no"), {QObject::tr("no"), QObject::tr("yes")}, editLabel, [set](Project& p, const QString& t) {
            set(p, t == QObject::tr("yes"));
            return QString();
        });
    }
};

QStringList deviceTypeNames(const Project& project);
/// Rows that change all chosen devices at once.
void deviceGroup(FactsBuilder& builder);
/// Of what only the plan has: walls, rooms, openings, furniture, underlays, catchments, trays; false for anything else.
bool planFacts(FactsBuilder& builder, Ref thing);

} // namespace lintel
