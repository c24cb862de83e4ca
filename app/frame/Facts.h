#pragma once
// What is known of the selected thing, as rows of label and value. Rows that were entered can be edited where they
// stand.

#include "app/frame/Session.h"

#include <QString>

namespace lintel {

struct FactRow {
    QString label, value;
    /// How an edit begins and what it does; unset: worked out, not entered.
    struct Entry {
        QString initial;
        QStringList choices;                         ///< a list to choose from, else free text
        std::function<QString(const QString&)> take; ///< does the edit; gives the reason why not, else empty
        QString other{}; ///< the choice after which it is typed, with what may be typed as a hint; empty: none
        QString hint{};
    };
    std::optional<Entry> entry;
    QColor colour;       ///< invalid: as usual
    bool seldom = false; ///< at its default and seldom wanted: shown with all facts only
};

struct Facts {
    QString title, about;
    std::vector<FactRow> rows;
};

Facts factsFor(Session& session, Ref thing);

/// A length typed with or without its unit ("172 ft", "52 m", "30", "1' 6\""): metres. Nothing when it cannot be read.
std::optional<double> metresFrom(const QString& text, UnitSystem units);

} // namespace lintel
