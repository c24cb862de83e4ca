#pragma once
// Which files of a set are written, how they are called, and whether loose or as one archive. What is chosen is
// remembered.

#include "app/frame/Session.h"
#include "render/IssueFiles.h"

#include <QDialog>

#include <map>

class QCheckBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace lintel {

class FilesDialog : public QDialog {
    Q_OBJECT
public:
    /// `sheets`: those that are ticked. Both must outlive the dialog.
    FilesDialog(const SheetInput& in, const std::vector<SheetEntry>& sheets, QWidget* parent = nullptr);
    IssueFilesOrder order() const;
    /// Whether the files are to go to the mail program.
    bool byMail() const;

private:
    const SheetInput& in;
    const std::vector<SheetEntry>& sheets;
    std::map<IssueFile, QCheckBox*> kinds;
    QLineEdit* pattern;
    QCheckBox *archive, *mail;
    QLabel* about;
    QPushButton* go;
    void look();
    void remember();
};

} // namespace lintel
