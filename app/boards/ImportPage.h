#pragma once
// A list of loads or feeders, or a building model, before it enters: how the file is read, what each column means (by
// drag or from the heading), every row with its problems, what it adds, changes and no longer has. Rows can be mended
// in place or left out; nothing enters until accepted.

#include "app/boards/FeedersImport.h"
#include "app/boards/LoadsImport.h"
#include "app/boards/ModelImport.h"
#include "app/frame/Background.h"
#include "app/frame/Session.h"

#include <QAbstractTableModel>
#include <QHeaderView>

#include <QWidget>

#include <set>

class QCheckBox;
class QComboBox;
class QLabel;
class QProgressBar;
class QPushButton;
class QSpinBox;
class QTableView;

namespace lintel {

/// The rows of the list: a tick whether it enters, what becomes of it, then the cells as they stand in the file.
class ListModel : public QAbstractTableModel {
    Q_OBJECT
public:
    static constexpr int firstCell = 2;
    using QAbstractTableModel::QAbstractTableModel;
    void show(std::shared_ptr<Grid> grid, const ImportKind* kind, ImportKind::Settings settings,
              std::vector<ImportKind::Row> judged, bool problemsOnly);
    int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(rows.size()); }
    int columnCount(const QModelIndex& parent = {}) const override {
        return parent.isValid() || !grid ? 0 : firstCell + int(grid->columns());
    }
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;
    const ImportKind::Row& row(int r) const { return all[rows[std::size_t(r)]]; }

Q_SIGNALS:
    void mended(int gridRow, int column, const QString& text);
    void leftOut(int gridRow, bool out);

private:
    std::shared_ptr<Grid> grid;
    const ImportKind* kind = nullptr;
    ImportKind::Settings settings;
    std::vector<ImportKind::Row> all;
    std::vector<std::size_t> rows; ///< those that are shown
};

/// The headings: a field dropped on one, or chosen from its menu, is what the column means.
class ListHeader : public QHeaderView {
    Q_OBJECT
public:
    explicit ListHeader(QWidget* parent = nullptr);
    static constexpr const char* mimeType = "application/x-lintel-field";
    void setKind(const ImportKind* of) { kind = of; }

Q_SIGNALS:
    void meant(int column, int field); ///< of the grid

protected:
    void mousePressEvent(QMouseEvent*) override;
    void dragEnterEvent(QDragEnterEvent*) override;
    void dragMoveEvent(QDragMoveEvent*) override;
    void dropEvent(QDropEvent*) override;

private:
    const ImportKind* kind = nullptr;
};

class ImportPage : public QWidget {
    Q_OBJECT
public:
    explicit ImportPage(Session& session, QWidget* parent = nullptr);
    /// Begins to read a list of loads, with progress; what it is shows when it is read.
    void open(const QString& file);
    /// The same with a schedule of feeders.
    void openFeeders(const QString& file);
    /// The same with a building model.
    void openModel(const QString& file);
    bool ready() const { return !work->busy(); }
    void accept();
    void drop();
    /// Of ListField or FeederField, by what is read.
    void setMeaning(int column, int field);
    const LoadsImport& loads() const { return loadsKind; }
    const FeedersImport& feeders() const { return feedersKind; }
    const ImportKind::Settings& settings() const { return how; }
    QString summary() const;
    ListModel& model() { return *rows; }
    QTableView* table() { return view; }

Q_SIGNALS:
    void closed();
    void modelTaken(); ///< after closed()

protected:
    void keyPressEvent(QKeyEvent*) override;

private:
    void begin(const QString& file);
    void read();
    /// What the row below the pointer can be said to feed.
    void rowMenu(QPoint at);
    /// All that there is to say of the row at the hand.
    void tellRow();
    void take(Outcome<ImportKind::Read> read);
    /// Shows what is to be set of a file of this sort, and hides the rest.
    void showSettings();
    void judge();
    Session& session;
    Background* work;
    QString file;
    std::shared_ptr<Grid> grid;
    LoadsImport loadsKind;
    FeedersImport feedersKind;
    ModelImport modelKind;
    ImportKind* kind = &loadsKind;
    ImportKind::Settings how;
    std::vector<QWidget*> strips; ///< of the fields of each kind
    ListHeader* heads = nullptr;
    std::set<int> out; ///< rows of the grid that are left out by hand
    bool filling = false;
    QLabel *title, *notes, *sums, *rowWords;
    QProgressBar* progress;
    QComboBox *delimiter, *encoding, *sheet, *decimal, *unit;
    QSpinBox* header;
    QCheckBox *problemsOnly, *removeGone, *circuits;
    QPushButton *go, *no;
    QTableView* view;
    ListModel* rows;
};

} // namespace lintel
