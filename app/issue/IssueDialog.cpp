#include "app/issue/IssueDialog.h"

#include "app/frame/PaintKit.h"
#include "app/frame/Theme.h"

#include <QBoxLayout>
#include <QComboBox>
#include <QDate>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>

namespace lintel {

namespace {
constexpr int shownDetails = 4; // of an item of the gate; all of them are in its tip

QLabel* heading(const QString& words) {
    auto* label = new QLabel(words);
    label->setProperty("heading", true);
    return label;
}
} // namespace

IssueDialog::IssueDialog(const Session& s, std::vector<std::string> keys, QWidget* parent)
    : QDialog(parent), session(s), sheets(std::move(keys)), gate(issueGate(s.solution().input())) {
    setWindowTitle(tr("Issue the set"));
    resize(860, 560);
    const Basis& basis = session.project().basis;
    auto* column = new QVBoxLayout(this);
    auto* across = new QHBoxLayout;
    across->setSpacing(24);
    column->addLayout(across, 1);

    auto* left = new QVBoxLayout;
    left->addWidget(heading(tr("ISSUE")));
    auto* form = new QFormLayout;
    const auto field = [&](const QString& label, const char* name, const QString& text) {
        auto* e = new QLineEdit(text);
        e->setObjectName(name);
        form->addRow(label, e);
        connect(e, &QLineEdit::textChanged, this, &IssueDialog::look);
        return e;
    };
    mark = field(tr("Mark"), "issueMark", q(nextMark(session.project())));
    date = field(tr("Date"), "issueDate", QDate::currentDate().toString(Qt::ISODate));
    state = new QComboBox;
    state->setObjectName("issueState");
    for (const auto& [value, words] : EnumText<IssueState>::words) state->addItem(tr(words), int(value));
    const Issue* last = lastIssue(session.project());
    state->setCurrentIndex(state->findData(int(last ? last->state : IssueState::Comment)));
    form->addRow(tr("It is"), state);
    reason = field(tr("What is new"), "issueReason", {});
    by = field(tr("Issued by"), "issueBy", q(basis.drawn.empty() ? basis.designer : basis.drawn));
    checked = field(tr("Checked by"), "issueChecked", q(basis.checked));
    left->addLayout(form);
    auto* about =
        new QLabel((sheets.size() == 1 ? tr("1 sheet goes out.") : tr("%1 sheets go out.").arg(sheets.size())) +
                   tr(" The project is kept as it is now, and can be compared with later. Mark, date and "
                      "status come on every sheet, and the revision into the title block."));
    about->setWordWrap(true);
    about->setProperty("quiet", true);
    left->addWidget(about);
    left->addStretch(1);
    across->addLayout(left, 2);

    auto* right = new QVBoxLayout;
    right->addWidget(heading(tr("WHAT STANDS IN THE WAY")));
    auto* area = new QScrollArea;
    area->setWidgetResizable(true);
    area->setFrameShape(QFrame::NoFrame);
    auto* inside = new QWidget;
    auto* items = new QVBoxLayout(inside);
    items->setContentsMargins(0, 0, 8, 0);
    for (const GateItem& item : gate) {
        auto* what = new QLabel(q(item.what));
        QFont bold = what->font();
        bold.setBold(true);
        what->setFont(bold);
        items->addWidget(what);
        QStringList some, all;
        for (const std::string& d : item.details) {
            all << q(d);
            if (some.size() < shownDetails) some << "· " + q(d);
        }
        if (all.size() > some.size()) some << tr("and %1 more").arg(all.size() - some.size());
        if (!some.isEmpty()) {
            auto* details = new QLabel(some.join("\n"));
            details->setWordWrap(true);
            details->setProperty("quiet", true);
            details->setToolTip(plainTip(all.join("\n")));
            items->addWidget(details);
        }
        auto* taker = new QLineEdit;
        taker->setPlaceholderText(tr("Who takes this on, by name"));
        taker->setObjectName("issueTaker");
        connect(taker, &QLineEdit::textChanged, this, &IssueDialog::look);
        takers.push_back(taker);
        items->addWidget(taker);
        items->addSpacing(10);
    }
    if (gate.empty()) items->addWidget(new QLabel(tr("Nothing: no stop, no check, every length is known.")));
    items->addStretch(1);
    area->setWidget(inside);
    right->addWidget(area, 1);
    across->addLayout(right, 3);

    auto* foot = new QHBoxLayout;
    refusal = new QLabel;
    refusal->setWordWrap(true);
    refusal->setObjectName("issueRefusal");
    foot->addWidget(refusal, 1);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
    go = buttons->addButton(tr("Issue"), QDialogButtonBox::AcceptRole);
    go->setObjectName("issueGo");
    go->setProperty("strong", true);
    foot->addWidget(buttons);
    column->addLayout(foot);
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    look();
}

IssueDraft IssueDialog::draft() const {
    const auto text = [](const QLineEdit* e) { return e->text().trimmed().toStdString(); };
    IssueDraft d;
    d.mark = text(mark);
    d.date = text(date);
    d.reason = text(reason);
    d.by = text(by);
    d.checked = text(checked);
    d.state = IssueState(state->currentData().toInt());
    d.sheets = sheets;
    for (std::size_t i = 0; i < gate.size(); ++i) d.taken.push_back({gate[i].what, text(takers[i])});
    return d;
}

void IssueDialog::look() {
    const auto bad = refuseIssue(session.solution().input(), draft(), gate);
    go->setEnabled(!bad);
    refusal->setText(bad ? q(bad->what + ". " + bad->help) : QString());
}

} // namespace lintel
