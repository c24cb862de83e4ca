#pragma once
// One kind of list, or model, that can be taken in: what its columns mean, what becomes of each row, and how it enters.
// The page that shows it (ImportPage) is the same for all.

#include "core/exchange/BuildingModel.h"
#include "core/exchange/ReadList.h"
#include "core/rules/RuleBook.h"

#include <QString>
#include <QStringList>

#include <memory>
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
    /// A file as it was read: its cells, and the model that they tell of, where it is one.
    struct Read {
        Grid grid;
        std::shared_ptr<const BuildingModel> model;
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
    /// Reads the file, on another thread: nothing of this may change. `options`: for lists.
    virtual Outcome<Read> read(const std::filesystem::path& file, const GridOptions& options, UnitSystem units) const;
    /// Takes over what was read, before it is judged.
    virtual void hold(const Read&) {}
    virtual QString wordOf(int field) const = 0;
    /// What columns can mean; 0: each means what its heading says, and the file is read in one way only.
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
