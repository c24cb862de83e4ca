#pragma once
// One kind of list that can be taken in: what its columns mean, what becomes of each row, and how it enters. The page
// that shows it (ImportPage) is the same for all.

#include "core/exchange/ReadList.h"
#include "core/rules/RuleBook.h"

#include <QString>
#include <QStringList>

#include <set>

namespace lintel {

class ImportKind {
public:
    /// How the file is read: what somebody can set, and what is guessed first.
    struct Settings {
        int headerRow = 0;            ///< in Grid::rows; −1: there is none
        char decimal = '.';           ///< what a number that could be read both ways means
        LoadUnit unit = LoadUnit::kW; ///< of loads that do not say theirs
        std::vector<int> columns;     ///< fields; 0: passed over
        std::map<int, int> takenAs;   ///< by row of the grid: one of choices()
        bool operator==(const Settings&) const = default;
    };
    /// A row as the page shows it.
    struct Row : ListedRow {
        QString what;       ///< what it changes; empty: nothing
        bool fresh = false; ///< `what` says no more than that it is new: problems tell more
    };
    struct Judged {
        std::vector<Row> rows;
        QStringList notes; ///< of the file
        QStringList sums;  ///< what it comes to
        std::size_t entering = 0;
        std::size_t gone = 0; ///< things of the project that the list no longer names
    };
    /// What became of it, in words, and whether they are worth a second look.
    struct Taken {
        QString words;
        bool look = false;
    };

    virtual ~ImportKind() = default;
    virtual QString wordOf(int field) const = 0;
    virtual int fields() const = 0;
    /// Whether the field stands ready to be dragged onto a column.
    virtual bool offered(int field) const = 0;
    /// What a row can be said to be; empty: it is what it is.
    virtual QStringList choices() const { return {}; }
    virtual bool canRemoveGone() const { return false; }
    virtual bool canCircuit() const { return false; }
    virtual Settings guess(const Grid& grid, const Project& project) const = 0;
    /// A unit that the heading of a column of loads names.
    virtual std::optional<LoadUnit> unitOf(int field, const std::string& heading) const = 0;
    virtual Judged judge(const Grid& grid, const Settings& how, const Project& project, const RuleBook& book,
                         const std::set<int>& leftOut) = 0;
    /// Puts what was judged last into a project.
    virtual Taken take(Project& project, const RuleBook& book, bool removeGone, bool circuits) = 0;
};

/// "LP-1, LP-2, …": as many names as can be read in a line.
QString someNames(const std::vector<std::string>& names, int most);

} // namespace lintel
