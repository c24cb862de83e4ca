#include "app/runs/RunNamesDialog.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"

#include <QBoxLayout>
#include <QCheckBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace lintel {

RunNamesDialog::RunNamesDialog(Session& s, QWidget* parent)
    : QDialog(parent), session(s), pattern(new QLineEdit(this)), feeders(new QCheckBox(tr("Feeders"), this)),
      branches(new QCheckBox(tr("Branch circuits"), this)),
      named(new QCheckBox(tr("Also those that have a name"), this)), preview(new QLabel(this)),
      go(new QPushButton(this)) {
    setWindowTitle(tr("Names of runs"));
    setMinimumWidth(520);
    auto* column = new QVBoxLayout(this);
    column->setSpacing(10);
    const std::string now = session.project().basis.runPattern;
    pattern->setText(q(now.empty() ? std::string(usualRunPattern) : now));
    pattern->setObjectName("runPattern");
    feeders->setObjectName("runFeeders");
    branches->setObjectName("runBranches");
    named->setObjectName("runNamed");
    go->setObjectName("runNamesApply");
    feeders->setChecked(true);
    branches->setChecked(true);
    auto* places = new QLabel(this);
    for (QLabel* label : {places, preview}) {
        label->setTextFormat(Qt::PlainText);
        label->setWordWrap(true);
    }
    preview->setMinimumHeight(150);
    preview->setAlignment(Qt::AlignTop);
    places->setText(tr("{from} where it begins · {slot} its place there · {to} what it feeds · {circuit} its circuit · "
                       "{number} a running number · {kind} F or C"));
    places->setProperty("quiet", true);
    preview->setObjectName("runNamesPreview");
    column->addWidget(pattern);
    column->addWidget(places);
    auto* which = new QHBoxLayout;
    which->setSpacing(16);
    for (QCheckBox* box : {feeders, branches, named}) {
        which->addWidget(box);
        connect(box, &QCheckBox::toggled, this, &RunNamesDialog::look);
    }
    which->addStretch(1);
    column->addLayout(which);
    column->addWidget(preview, 1);
    auto* foot = new QHBoxLayout;
    foot->addStretch(1);
    auto* no = new QPushButton(tr("Cancel"), this);
    foot->addWidget(no);
    foot->addWidget(go);
    go->setProperty("strong", true);
    go->setDefault(true);
    column->addLayout(foot);
    connect(pattern, &QLineEdit::textChanged, this, &RunNamesDialog::look);
    connect(no, &QPushButton::clicked, this, &QDialog::reject);
    connect(go, &QPushButton::clicked, this, &RunNamesDialog::apply);
    look();
}

RunNamingWanted RunNamesDialog::wanted() const {
    return {pattern->text().toStdString(), feeders->isChecked(), branches->isChecked(), named->isChecked()};
}

void RunNamesDialog::look() {
    const auto plan = planRunNames(session.project(), wanted());
    go->setEnabled(plan && !plan->changes.empty());
    if (!plan) {
        go->setText(tr("Name"));
        return preview->setText(q(plan.error().what + ". " + plan.error().help));
    }
    QStringList lines;
    for (const RunNaming::Change& c : plan->changes) {
        if (lines.size() == 6) break;
        lines << (c.from.empty() ? q(c.to) : QString("%1 → %2").arg(q(c.from), q(c.to)));
    }
    if (int(plan->changes.size()) > lines.size())
        lines << tr("and %1 more").arg(int(plan->changes.size()) - lines.size());
    if (lines.isEmpty()) lines << tr("No run gets another name.");
    if (plan->kept) lines << counted(plan->kept, tr("has a name and keeps it."), tr("have a name and keep it."));
    if (plan->unnamed) lines << tr("Of %1 the pattern says nothing: they stay without a name.").arg(plan->unnamed);
    preview->setText(lines.join("\n"));
    go->setText(plan->changes.empty() ? tr("Name") : tr("Name %1").arg(plan->changes.size()));
}

void RunNamesDialog::apply() {
    const auto plan = planRunNames(session.project(), wanted());
    if (!plan) return session.say(q(plan.error().what), true);
    session.edit(tr("Name %1").arg(counted(plan->changes.size(), tr("run"), tr("runs"))), [&](Project& p) {
        p.basis.runPattern = wanted().pattern;
        applyRunNames(p, *plan);
    });
    session.say(counted(plan->changes.size(), tr("run named"), tr("runs named")));
    accept();
}

} // namespace lintel
