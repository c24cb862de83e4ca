#pragma once
// Issue: the set of sheets, as they will print; what still stops an issue; export.

#include "app/frame/DrawingView.h"
#include "core/sheets/Sheets.h"

class QLabel;
class QListWidget;

namespace lintel {

class IssueStage : public QWidget {
    Q_OBJECT
public:
    explicit IssueStage(Session& session, QWidget* parent = nullptr);
    QListWidget& sheets() { return *list; }
    DrawingView& sheet() { return *view; }
    /// Shows the schedule of a board.
    void showSchedule(BoardId board);
    /// Writes the ticked sheets into one PDF.
    std::optional<Error> exportPdf(const QString& file);

private:
    void rebuild();
    void showCurrent();
    void showSheet(const std::vector<SheetEntry>& set); ///< of the set, the one that is chosen
    Session& session;
    QListWidget* list;
    DrawingView* view;
    QLabel *stops, *paper;
    QString wanted;
    std::vector<QString> unticked;
};

} // namespace lintel
