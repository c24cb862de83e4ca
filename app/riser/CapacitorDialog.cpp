#include "app/riser/CapacitorDialog.h"

#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/base/Typed.h"
#include "core/solve/CapacitorBank.h"

#include <QBoxLayout>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace lintel {

CapacitorDialog::CapacitorDialog(Session& s, BoardId b, QWidget* parent)
    : QDialog(parent), session(s), board(b), wanted(new QLineEdit("0.95", this)), labels(new QLabel(this)),
      values(new QLabel(this)), caution(new QLabel(this)), go(new QPushButton(this)) {
    const QString name = q(session.project().boards[board].name);
    setWindowTitle(tr("Capacitor bank for %1").arg(name));
    setMinimumWidth(440);
    auto* column = new QVBoxLayout(this);
    column->setSpacing(10);
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(18);
    auto* ask = new QLabel(tr("Power factor wanted"), this);
    ask->setProperty("quiet", true);
    labels->setProperty("quiet", true);
    for (QLabel* label : {labels, values, caution}) label->setTextFormat(Qt::PlainText);
    wanted->setObjectName("capacitorWanted");
    wanted->setMaximumWidth(90);
    values->setObjectName("capacitorValues");
    caution->setObjectName("capacitorCaution");
    caution->setWordWrap(true);
    go->setObjectName("capacitorAdd");
    grid->addWidget(ask, 0, 0);
    grid->addWidget(wanted, 0, 1);
    grid->addWidget(labels, 1, 0);
    grid->addWidget(values, 1, 1);
    grid->setColumnStretch(1, 1);
    column->addLayout(grid);
    column->addWidget(caution);
    column->addStretch(1);
    auto* foot = new QHBoxLayout;
    foot->addStretch(1);
    auto* no = new QPushButton(tr("Cancel"), this);
    foot->addWidget(no);
    foot->addWidget(go);
    go->setProperty("strong", true);
    go->setDefault(true);
    column->addLayout(foot);
    connect(wanted, &QLineEdit::textChanged, this, &CapacitorDialog::look);
    connect(no, &QPushButton::clicked, this, &QDialog::reject);
    connect(go, &QPushButton::clicked, this, &CapacitorDialog::add);
    look();
}

void CapacitorDialog::look() {
    bank = 0;
    QStringList words, figures;
    const auto say = [&](const QString& label, const QString& value) {
        words << label;
        figures << value;
    };
    QString bad;
    const auto share = readShare(wanted->text().toStdString(), "a power factor");
    if (!share || *share < 0.5 || *share > 1) {
        bad = tr("“%1” is not a power factor from 0.5 to 1.").arg(wanted->text());
    } else {
        const Solution& s = session.solution();
        const auto plan = capacitorBankFor(s.project, *s.book, s.results, board, *share);
        if (!plan) {
            bad = q(plan.error().text());
        } else {
            const CapacitorBank& c = *plan;
            bank = c.bank;
            say(tr("Now"),
                tr("%1 kW, %2 kvar: %3").arg(q(number(c.kW, 1)), q(number(c.kvar, 1))).arg(c.powerFactor, 0, 'f', 3));
            say(tr("Needed"), tr("%1 kvar").arg(q(lintel::figures(c.needed))));
            say(tr("Bank"), tr("%1 kvar, the next usual step").arg(q(rating(c.bank))));
            say(tr("Power factor then"), QString::number(c.after, 'f', 3) + (c.leading ? tr(", leading") : QString()));
            say(tr("Current of the board"), tr("%1 → %2 A, %3 A released")
                                                .arg(q(lintel::figures(c.ampsBefore)), q(lintel::figures(c.ampsAfter)),
                                                     q(lintel::figures(c.ampsBefore - c.ampsAfter))));
            say(tr("Its own current"), tr("%1 A, conductors for %2 A")
                                           .arg(q(lintel::figures(c.ampsOfBank)), q(lintel::figures(c.conductorAmps))));
            say(tr("Resonance"),
                c.order > 0 ? tr("at harmonic %1").arg(c.order, 0, 'f', 1) : tr("the fault level is not known"));
            if (c.nearHarmonic)
                bad = tr("Near harmonic %1: detune the bank, or choose another step.").arg(c.nearHarmonic);
            else if (c.leading)
                bad = tr("The step is more than the board takes: switch it in parts.");
        }
    }
    labels->setText(words.join("\n"));
    values->setText(figures.join("\n"));
    caution->setText(bad);
    QPalette colours = caution->palette();
    colours.setColor(QPalette::WindowText, bank > 0 ? theme().check : theme().stop);
    caution->setPalette(colours);
    go->setEnabled(bank > 0);
    go->setText(bank > 0 ? tr("Add %1 kvar").arg(q(rating(bank))) : tr("Add"));
}

void CapacitorDialog::add() {
    if (bank <= 0) return;
    Project trial = session.project();
    const auto made = addCapacitorBank(trial, board, bank);
    if (!made) return caution->setText(q(made.error().text()));
    session.edit(tr("Add a capacitor bank of %1 kvar").arg(q(rating(bank))), [&](Project& p) { p = trial; });
    session.select(Ref(*made));
    accept();
}

} // namespace lintel
