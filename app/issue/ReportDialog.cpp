#include "app/issue/ReportDialog.h"

#include "app/frame/Counted.h"
#include "app/frame/PaintKit.h"

#include <QBoxLayout>
#include <QCheckBox>
#include <QComboBox>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QLabel>
#include <QPushButton>

namespace lintel {

ReportDialog::ReportDialog(const Session& s, QWidget* parent)
    : QDialog(parent), session(s), of(new QComboBox), depth(new QComboBox),
      path(new QCheckBox(tr("Only the way from the supply to it"))), about(new QLabel) {
    setWindowTitle(tr("Calculation report"));
    const Solution& now = session.solution();
    of->setObjectName("reportOf");
    of->addItem(tr("The whole project"), QString());
    for (Ref node : now.results.order) of->addItem(q(nameOf(now.project, node)), q(node.text()));
    // What is chosen in the window can be reported by itself; a circuit stands in the list only then.
    const Ref chosen = session.selection();
    if (chosen.is<Circuit>() && now.results.knows(chosen))
        of->addItem(q(nameOf(now.project, chosen)), q(chosen.text()));
    depth->setObjectName("reportDepth");
    depth->addItem(tr("Summary: supplies, boards, feeders, drop, faults"), int(ReportDepth::Summary));
    depth->addItem(tr("Runs: each branch circuit in a row beside"), int(ReportDepth::Runs));
    depth->addItem(tr("Everything: each with its workings, step by step"), int(ReportDepth::Everything));
    path->setObjectName("reportPath");
    about->setObjectName("reportAbout");
    about->setWordWrap(true);
    about->setProperty("quiet", true);
    auto* form = new QFormLayout;
    form->addRow(tr("Of"), of);
    form->addRow(QString(), path);
    form->addRow(tr("How deep"), depth);
    auto* column = new QVBoxLayout(this);
    column->addLayout(form);
    column->addWidget(about);
    column->addStretch(1);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
    auto* go = buttons->addButton(tr("Write PDF…"), QDialogButtonBox::AcceptRole);
    go->setObjectName("reportGo");
    go->setProperty("strong", true);
    column->addWidget(buttons);
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    for (QComboBox* box : {of, depth}) connect(box, &QComboBox::currentIndexChanged, this, &ReportDialog::look);
    connect(path, &QCheckBox::toggled, this, &ReportDialog::look);
    resize(520, 240);
    look();
}

ReportOrder ReportDialog::order() const {
    ReportOrder order;
    order.of = refFrom(of->currentData().toString().toStdString());
    order.path = bool(order.of) && path->isChecked();
    order.depth = ReportDepth(depth->currentData().toInt());
    return order;
}

void ReportDialog::look() {
    const ReportOrder wanted = order();
    path->setEnabled(bool(wanted.of) && !wanted.of.is<Circuit>()); // of a circuit there is nothing else
    const Solution& now = session.solution();
    const auto scope = reportScope(now.project, now.results, wanted);
    auto* go = findChild<QPushButton*>("reportGo");
    if (go) go->setEnabled(bool(scope));
    if (!scope) return about->setText(q(scope.error().what + ". " + scope.error().help));
    about->setText(tr("%1: %2, %3.")
                       .arg(q(scope->words),
                            counted(scope->nodes.size(), tr("board, transformer or supply"),
                                    tr("boards, transformers and supplies")),
                            counted(scope->circuits.size(), tr("branch circuit"), tr("branch circuits"))));
}

} // namespace lintel
