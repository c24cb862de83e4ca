#pragma once
// Feeders and branch runs as rows of a table, from the newest solution.

#include "app/frame/Session.h"

#include <QAbstractTableModel>

namespace lintel {

enum class RunFilter { All, Feeders, Raised, Held, NearLimit, TooLong, Fails };
/// What the worst ten are the worst by: drop in all against its limit, load against what the conductors carry, the
/// fault level against the rating of the board, length against the longest allowed.
enum class WorstBy { None, Drop, Use, Fault, Length };

/// A row: what feeds a thing or hangs on a circuit; of a board also what takes over.
struct RunRow {
    Ref thing;
    bool alternate = false;
    bool operator==(const RunRow&) const = default;
};

class RunsModel : public QAbstractTableModel {
    Q_OBJECT
public:
    enum Column {
        Name,
        Serves,
        Load,
        Judged, ///< the current that its drop is judged at
        Device,
        Length,
        Needs,
        Chosen,
        Mass, ///< of lines and neutral, and what raising adds
        Why,
        Before,
        Own,
        Total,
        Loop,
        Longest,
        columns
    }; ///< Loop only with metric books
    /// A text for one cell of the table.
    struct Typed {
        RunRow row;
        Column column;
        std::string text;
    };
    explicit RunsModel(Session& session, QObject* parent = nullptr);
    void setFilter(RunFilter filter);
    RunFilter filter() const { return shown; }
    /// Only rows in whose name, load, device, size or reason all these words stand.
    void setText(const QString& words);
    /// The ten that are worst, the worst first; None: all.
    void setWorst(WorstBy by);
    int count(RunFilter filter) const;
    /// The circuit, board or transformer whose run the row is.
    Ref thingAt(int row) const { return rowAt(row).thing; }
    RunRow rowAt(int row) const { return row >= 0 && row < int(rows.size()) ? rows[std::size_t(row)] : RunRow(); }
    /// "DP-1-4", "ATS-1, alternate".
    QString nameOfRow(RunRow row) const;
    /// Of its normal feed.
    int rowOf(Ref thing) const;
    /// What is typed for one of these is entered for all of them.
    void setChosen(std::vector<RunRow> of) { chosen = std::move(of); }
    /// Sizes to hold and lengths, all of them in one step or, where one cannot be, none; says which.
    bool enter(const std::vector<Typed>& cells, const QString& label);
    /// Each of these is held at the size that it has.
    bool hold(const std::vector<RunRow>& which);
    /// The cells of these rows and columns as they are shown, below a line of headings.
    std::vector<std::vector<std::string>> cellsAt(const std::vector<int>& rows, const std::vector<int>& columns) const;

    int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(rows.size()); }
    int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : columns; }
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    /// A size to hold ("8", "auto") or a length ("120 ft").
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;
    void sort(int column, Qt::SortOrder order) override;

    /// From the newest solution; whoever shows the table calls it.
    void rebuild();

private:
    static bool passes(const RunResult& run, bool feeder, RunFilter filter);
    static double badness(const Solution& s, RunRow row, WorstBy by);
    /// All that words are looked for in.
    static QString wordsOf(const Solution& s, RunRow row);
    std::optional<Error> refuse(const Typed& cell) const;
    /// Feeders, what takes over behind what it takes over, then branch runs board by board, of a solution.
    struct Listed {
        std::shared_ptr<const Solution> from;
        std::vector<RunRow> all;
        std::vector<QString> words{}; ///< of all, made when somebody first looks for some
    };
    static Listed listed(std::shared_ptr<const Solution> solution);
    std::vector<RunRow> filtered(Listed& of) const;
    void show(Listed&& fresh);
    void refilter();
    QStringList wanted;
    std::vector<RunRow> chosen;
    WorstBy worst = WorstBy::None;
    Session& session;
    Listed list;
    std::vector<RunRow> rows;
    RunFilter shown = RunFilter::All;
    int sortColumn = -1;
    Qt::SortOrder sortOrder = Qt::AscendingOrder;
};

} // namespace lintel
