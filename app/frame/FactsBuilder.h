#pragma once
// Puts rows of facts together; `s` is the session whose edits the rows make.

#include "app/frame/Facts.h"
#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/base/Parse.h"
#include "core/base/Typed.h"
#include "core/figures/Words.h"
#include "core/project/CircuitFacts.h"
#include "core/project/TypedLoads.h"

namespace lintel {

struct FactsBuilder {
    Session& s;
    const Solution& sol;
    Facts f;

    /// What was refused and what may be typed instead; empty: nothing was.
    static QString refusal(const std::optional<Error>& bad) {
        return bad ? q(bad->what + (bad->help.empty() ? "" : ". " + bad->help)) : QString();
    }
    /// An edit that may be refused; the refusal in words.
    static QString tried(Session& session, const QString& label,
                         const std::function<std::optional<Error>(Project&)>& enter) {
        std::optional<Error> bad;
        session.edit(label, [&](Project& p) { bad = enter(p); });
        return refusal(bad);
    }
    FactRow& row(const QString& label, const QString& value) {
        f.rows.push_back({label, value, {}, {}});
        return f.rows.back();
    }
    FactRow& text(const QString& label, const QString& value, const QString& editLabel,
                  std::function<void(Project&, const std::string&)> set) {
        FactRow& r = row(label, value);
        r.entry = FactRow::Entry{value, {}, [this_ = &s, editLabel, set, value](const QString& t) {
                                     if (t == value)
                                         return QString(); // also where several differ and nothing was typed
                                     this_->edit(editLabel, [&](Project& p) { set(p, t.trimmed().toStdString()); });
                                     return QString();
                                 }};
        return r;
    }
    /// Kept in `unit` ("A", "kVA", "%"; empty: none), which may be typed or another of its kind; what is not understood
    /// is refused. An empty text calls `clear` where there is one.
    FactRow& number(const char* unit, const QString& label, const QString& value, const QString& initial,
                    const QString& editLabel, double lo, double hi, std::function<void(Project&, double)> set,
                    std::function<void(Project&)> clear = {}) {
        FactRow& r = row(label, value);
        r.entry = FactRow::Entry{
            initial,
            {},
            [this_ = &s, unit = std::string(unit), editLabel, lo, hi, set, clear](const QString& t) -> QString {
                if (clear && (t.trimmed().isEmpty() || t.trimmed().toLower() == "auto")) {
                    this_->edit(editLabel, clear);
                    return {};
                }
                const auto typed = readTyped(t.toStdString(), unit);
                if (!typed) return q(typed.error().what + ". " + typed.error().help);
                const double v = *typed;
                if (v < lo || v > hi)
                    return QObject::tr("“%1” is not from %2 to %3 %4")
                        .arg(t, QString::number(lo), QString::number(hi), q(unit))
                        .trimmed();
                this_->edit(editLabel, [&](Project& p) { set(p, v); });
                return {};
            }};
        return r;
    }
    /// A whole number from `lo` to `hi`.
    FactRow& whole(const QString& label, const QString& value, const QString& initial, const QString& editLabel, int lo,
                   int hi, std::function<void(Project&, int)> set) {
        FactRow& r = row(label, value);
        r.entry = FactRow::Entry{
            initial, {}, [this_ = &s, editLabel, lo, hi, set](const QString& t) -> QString {
                const auto typed = typedNumber(t.toStdString());
                if (!typed || *typed < lo || *typed > hi || *typed != std::floor(*typed))
                    return QObject::tr("“%1” is not a whole number from %2 to %3").arg(t).arg(lo).arg(hi);
                this_->edit(editLabel, [&](Project& p) { set(p, int(*typed)); });
                return {};
            }};
        return r;
    }
    /// A load: an amount with its unit, or an amount alone for the unit there is ("1.2 kVA", "7-1/2 hp", "900").
    FactRow& amount(const QString& label, const QString& value, const QString& initial, const QString& editLabel,
                    std::function<std::optional<Error>(Project&, double, std::optional<LoadUnit>)> set) {
        FactRow& r = row(label, value);
        r.entry = FactRow::Entry{
            initial, {}, [this_ = &s, editLabel, set](const QString& t) -> QString {
                const auto typed = loadFrom(t.toStdString());
                if (!typed)
                    return QObject::tr("“%1” is not a load. Type 1500 VA, 1.5 kVA, 900 W, 2 kW, 16 A or 7-1/2 hp.")
                        .arg(t);
                return tried(*this_, editLabel, [&](Project& p) { return set(p, typed->amount, typed->unit); });
            }};
        return r;
    }
    /// A fact of a circuit, with the one meaning that it has in rows, tables and lists too.
    FactRow& fact(const char* key, const QString& label, const QString& value, const QString& initial,
                  const QString& editLabel, CircuitId id) {
        FactRow& r = row(label, value);
        r.entry = FactRow::Entry{
            initial, {}, [this_ = &s, editLabel, id, f = circuitFact(key)](const QString& t) -> QString {
                return tried(*this_, editLabel, [&](Project& p) { return f->write(p, id, t.toStdString()); });
            }};
        return r;
    }
    FactRow& choice(const QString& label, const QString& value, const QStringList& choices, const QString& editLabel,
                    std::function<QString(Project&, const QString&)> set) {
        FactRow& r = row(label, value);
        r.entry = FactRow::Entry{value, choices, [this_ = &s, editLabel, set](const QString& t) {
                                     QString why;
                                     this_->edit(editLabel, [&](Project& p) { why = set(p, t); });
                                     return why;
                                 }};
        return r;
    }
    /// The usual systems to choose from, or any other, typed.
    FactRow& system(const QString& label, VoltageSystem now, const QString& editLabel,
                    std::function<void(Project&, VoltageSystem)> set, bool mediumToo) {
        QStringList words;
        for (const VoltageSystem& x : usualSystems()) words << q(wordOf(x));
        if (mediumToo)
            for (const VoltageSystem& x : usualMediumVoltages()) words << q(wordOf(x));
        if (!words.contains(q(wordOf(now)))) words << q(wordOf(now));
        const QString other = QObject::tr("another …");
        FactRow& r = choice(label, q(wordOf(now)), words << other, editLabel, [set](Project& p, const QString& t) {
            const auto read = systemFrom(t.toStdString());
            if (!read) return QObject::tr("“%1” is not a voltage system. %2").arg(t, q(systemHelp));
            set(p, *read);
            return QString();
        });
        r.entry->other = other;
        r.entry->hint = q(systemHelp);
        return r;
    }
    template <WordedEnum E> static QStringList words() {
        QStringList l;
        for (const auto& [value, word] : EnumText<E>::words) l << word;
        return l;
    }

    /// A length typed with or without its unit, from `lo` to `hi` metres.
    FactRow& length(const QString& label, double metres, const QString& editLabel, double lo, double hi,
                    std::function<void(Project&, double)> set) {
        const UnitSystem units = sol.project.basis.units;
        FactRow& r = row(label, q(metres < 2 ? heightWords(metres, units) : lengthWords(Metres{metres}, units)));
        r.entry = FactRow::Entry{
            r.value, {}, [this_ = &s, editLabel, lo, hi, set, units, shown = r.value](const QString& t) -> QString {
                if (t == shown) return {}; // what is shown is rounded: entered again it says nothing new
                const auto m = metresFrom(t, units);
                if (!m || *m < lo || *m > hi)
                    return QObject::tr("“%1” is not a length from %2 to %3")
                        .arg(t, q(lengthWords(Metres{lo}, units)), q(lengthWords(Metres{hi}, units)));
                this_->edit(editLabel, [&](Project& p) { set(p, *m); });
                return {};
            }};
        return r;
    }
    /// The newest row is not shown at first while it says only what is usual.
    void rare(bool usual) { f.rows.back().seldom = usual; }
    /// What is marked on equipment; `at` finds it in the project that is changed.
    void markedRows(const Nameplate& now, std::function<Nameplate&(Project&)> at) {
        const auto marked = [&](const QString& label, double Nameplate::*field, const QString& edit) {
            const double amps = now.*field;
            number(
                "A", label, amps > 0 ? q(lintel::rating(amps)) + " A" : QObject::tr("no"),
                amps > 0 ? QString::number(amps) : QString(), edit, 0, 6000,
                [at, field](Project& p, double v) { at(p).*field = v; }, [at, field](Project& p) { at(p).*field = 0; });
            rare(amps == 0);
        };
        marked(QObject::tr("MCA, marked"), &Nameplate::ampacity, QObject::tr("Minimum circuit ampacity"));
        marked(QObject::tr("MOCP, marked"), &Nameplate::device, QObject::tr("Largest device of the nameplate"));
    }
    FactRow& yesNo(const QString& label, bool value, const QString& editLabel,
                   std::function<void(Project&, bool)> set) {
        return choice(label, value ? QObject::tr("yes") : QObject::tr("no"), {QObject::tr("no"), QObject::tr("yes")},
                      editLabel, [set](Project& p, const QString& t) {
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
/// Of a view on a composed sheet; false where there is none.
bool viewFacts(FactsBuilder& builder, PlacedViewId view);

} // namespace lintel
