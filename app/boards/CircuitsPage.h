#pragma once
// Every circuit of the building in one table: found by typing, edited in place, chosen by the dozen for a change of
// many.

#include "app/frame/Session.h"
#include "core/check/CircuitFilter.h"

#include <QAbstractTableModel>
#include <QWidget>

class QLabel;
class QLineEdit;
class QTableView;

namespace lintel {

class CircuitsModel : public QAbstractTableModel {
    Q_OBJECT
public:
    enum Column { Name, Serves, Kind, Va, Amps, Breaker, Size, Length, Drop, Note, columns };
    explicit CircuitsModel(Session& session, QObject* parent = nullptr);
    /// Shows what matches; a filter that means nothing changes nothing and says why.
    std::optional<Error> setFilter(const std::string& text);
    CircuitId at(int row) const { return row >= 0 && row < int(rows.size()) ? rows[std::size_t(row)] : CircuitId{}; }
    int rowOf(CircuitId c) const;
    int total() const { return from ? int(from->project.circuits.size()) : 0; }

    int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(rows.size()); }
    int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : columns; }
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;
    void sort(int column, Qt::SortOrder order) override;
    /// The fact that a column holds; null: it is worked out.
    static const char* factOf(int column);

    /// From the newest solution; whoever shows the table calls it.
    void rebuild();

private:
    /// What the filter lets through, in the order chosen.
    std::vector<CircuitId> arranged() const;
    Session& session;
    std::shared_ptr<const Solution> from;
    CircuitFilter filter;
    std::vector<CircuitId> rows;
    int sortColumn = -1;
    Qt::SortOrder sortOrder = Qt::AscendingOrder;
};

class CircuitsPage : public QWidget {
    Q_OBJECT
public:
    explicit CircuitsPage(Session& session, QWidget* parent = nullptr);
    void begin(); ///< the cursor in the filter
    QLineEdit* filter() { return text; }
    QTableView* table() { return view; }
    CircuitsModel& model() { return *circuits; }
    std::vector<CircuitId> chosen() const;

Q_SIGNALS:
    void closed();
    void groupEditWanted();

protected:
    void keyPressEvent(QKeyEvent*) override;
    bool eventFilter(QObject*, QEvent*) override;

private:
    void recount();
    Session& session;
    CircuitsModel* circuits;
    QLineEdit* text;
    QLabel* count;
    QTableView* view;
    bool following = false;
};

} // namespace lintel
