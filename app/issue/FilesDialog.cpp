#include "app/issue/FilesDialog.h"

#include "app/frame/PaintKit.h"
#include "app/frame/Settings.h"
#include "app/issue/SendByMail.h"
#include "core/issue/FileNames.h"

#include <QBoxLayout>
#include <QCheckBox>
#include <QDialogButtonBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace lintel {
namespace {
const char* const patternKey = "files/pattern";
const char* const kindsKey = "files/kinds";
const char* const archiveKey = "files/archive";
} // namespace

FilesDialog::FilesDialog(const SheetInput& input, const std::vector<SheetEntry>& ticked, QWidget* parent)
    : QDialog(parent), in(input), sheets(ticked), pattern(new QLineEdit),
      archive(new QCheckBox(tr("One archive (zip) instead of loose files"))),
      mail(new QCheckBox(tr("Then open a mail with them"))), about(new QLabel) {
    setWindowTitle(tr("Files of the set"));
    const std::pair<IssueFile, QString> words[] = {
        {IssueFile::Sheets, tr("The ticked sheets as one PDF")},
        {IssueFile::Apart, tr("Each ticked sheet as a PDF of its own")},
        {IssueFile::Drawings, tr("DXF: each ticked sheet, and each floor in the units of the building")},
        {IssueFile::Svg, tr("SVG of each ticked sheet, with ids")},
        {IssueFile::Png, tr("Pictures of the ticked sheets (PNG)")},
        {IssueFile::Lists, tr("The lists and schedules as a workbook")},
        {IssueFile::Cards, tr("Door cards")},
        {IssueFile::Report, tr("The calculation report, each circuit in a row")},
        {IssueFile::Results, tr("Results for other programs (JSON)")},
        {IssueFile::Project, tr("The project, with the drawings below its plans")},
    };
    const QVariant kept = settings().value(kindsKey);
    const auto isChosen = [&](IssueFile kind) {
        return kept.isValid() ? kept.toStringList().contains(wordOf(kind)) : usualIssueFiles.count(kind) > 0;
    };
    auto* column = new QVBoxLayout(this);
    for (const auto& [kind, text] : words) {
        auto* box = new QCheckBox(text);
        box->setObjectName(QString("files-%1").arg(wordOf(kind)));
        box->setChecked(isChosen(kind));
        connect(box, &QCheckBox::toggled, this, &FilesDialog::look);
        kinds[kind] = box;
        column->addWidget(box);
    }
    column->addSpacing(8);
    column->addWidget(archive);
    archive->setObjectName("filesArchive");
    archive->setChecked(settings().value(archiveKey, false).toBool());
    column->addWidget(mail);
    mail->setObjectName("filesMail");
    mail->setEnabled(canSendByMail());
    if (!mail->isEnabled()) mail->setToolTip(plainTip(tr("This desktop has no xdg-email, which opens a mail program")));
    column->addSpacing(8);
    auto* named = new QHBoxLayout;
    auto* label = new QLabel(tr("Names of files"));
    label->setBuddy(pattern);
    named->addWidget(label);
    named->addWidget(pattern, 1);
    column->addLayout(named);
    pattern->setObjectName("filesPattern");
    pattern->setText(settings().value(patternKey, usualFilePattern).toString());
    QStringList places;
    for (const std::string& place : filePlaces()) places << "{" + q(place) + "}";
    pattern->setToolTip(plainTip(tr("Places that are filled: %1").arg(places.join(", "))));
    about->setObjectName("filesAbout");
    about->setTextFormat(Qt::PlainText);
    about->setWordWrap(true);
    about->setProperty("quiet", true);
    about->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    about->setMinimumHeight(fontMetrics().lineSpacing() * 6);
    column->addWidget(about, 1);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
    go = buttons->addButton(tr("Write…"), QDialogButtonBox::AcceptRole);
    go->setObjectName("filesGo");
    go->setProperty("strong", true);
    column->addWidget(buttons);
    connect(buttons, &QDialogButtonBox::accepted, this, [this] {
        remember();
        accept();
    });
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    connect(pattern, &QLineEdit::textChanged, this, &FilesDialog::look);
    connect(archive, &QCheckBox::toggled, this, &FilesDialog::look);
    resize(540, 430);
    look();
}

IssueFilesOrder FilesDialog::order() const {
    IssueFilesOrder order;
    order.kinds.clear();
    for (const auto& [kind, box] : kinds)
        if (box->isChecked()) order.kinds.insert(kind);
    order.pattern = pattern->text().trimmed().toStdString();
    order.archive = archive->isChecked();
    return order;
}

bool FilesDialog::byMail() const { return mail->isEnabled() && mail->isChecked(); }

void FilesDialog::remember() {
    QStringList chosen;
    for (const auto& [kind, box] : kinds)
        if (box->isChecked()) chosen << wordOf(kind);
    QSettings s = settings();
    s.setValue(kindsKey, chosen);
    s.setValue(patternKey, pattern->text().trimmed());
    s.setValue(archiveKey, archive->isChecked());
}

void FilesDialog::look() {
    const auto names = issueFileNames(in, sheets, order());
    go->setEnabled(bool(names));
    if (!names) return about->setText(q(names.error().what + ". " + names.error().help));
    constexpr std::size_t most = 5;
    QStringList lines;
    for (std::size_t i = 0; i < std::min(names->size(), most); ++i) lines << q((*names)[i]);
    if (names->size() > most) lines << tr("and %1 more").arg(names->size() - most);
    about->setText(lines.join("\n"));
}

} // namespace lintel
