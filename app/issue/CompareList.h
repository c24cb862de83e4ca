#pragma once
// What differs from an earlier file of the project, beside the sheets: what was entered, what follows from it, and what
// became of the snags, board by board. Choosing a line selects its thing.

#include "app/frame/Session.h"
#include "core/compare/ProjectComparison.h"

#include <QWidget>

class QLabel;
class QListWidget;
class QToolButton;

namespace lintel {

class CompareList : public QWidget {
    Q_OBJECT
public:
    explicit CompareList(Session& session, QWidget* parent = nullptr);
    void show(const QString& file, const ProjectComparison& comparison);
    QListWidget& rows() { return *list; }
    const ProjectComparison& shown() const { return comparison; }

Q_SIGNALS:
    void chosen(Ref thing);
    void closed();
    void pdfWanted();  ///< of the sheets with their clouds
    void listWanted(); ///< of what is listed, as a PDF

private:
    void fill();
    void heading(const QString& words);
    void row(const QString& words, Ref thing, bool entered);
    QToolButton* kind(const char* object);
    Session& session;
    ProjectComparison comparison;
    QLabel *file, *summary;
    QToolButton *entered, *follows, *snags;
    QListWidget* list;
};

} // namespace lintel
