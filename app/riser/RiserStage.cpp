#include "app/riser/RiserStage.h"

#include "app/frame/PaintKit.h"
#include "core/project/Operations.h"
#include "core/sheets/Sheets.h"

#include <QBoxLayout>
#include <QFileDialog>
#include <QLabel>
#include <QPushButton>

namespace lintel {

RiserStage::RiserStage(Session& s, QWidget* parent) : QWidget(parent), session(s), view(new DrawingView(s, this)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* bar = new QHBoxLayout;
    bar->setContentsMargins(16, 8, 16, 8);
    auto* hint = new QLabel(tr("By floor. Drag a board onto another to feed it from there; wheel zooms, double-click fits."));
    hint->setProperty("quiet", true);
    bar->addWidget(hint, 1);
    auto* pdf = new QPushButton(tr("PDF…"));
    auto* svg = new QPushButton(tr("SVG…"));
    bar->addWidget(pdf);
    bar->addWidget(svg);
    column->addLayout(bar);
    column->addWidget(view, 1);
    connect(pdf, &QPushButton::clicked, this, [this] { exportTo(false); });
    connect(svg, &QPushButton::clicked, this, [this] { exportTo(true); });
    connect(&session, &Session::solved, this, &RiserStage::rebuild);
    connect(&session, &Session::opened, this, &RiserStage::rebuild);
    connect(view, &DrawingView::dropped, this, [this](Ref what, Ref on) {
        if (!(what.is<Board>() || what.is<Transformer>())) return;
        if (auto bad = refuseFeed(session.project(), what, on)) return session.say(q(bad->what + ". " + bad->help), true);
        session.edit(tr("Feed %1 from %2").arg(q(nameOf(session.project(), what)), q(nameOf(session.project(), on))), [&](Project& p) { feedFrom(p, what, on); });
    });
    rebuild();
}

void RiserStage::rebuild() {
    if (!isVisible()) return; // drawn when it is looked at
    const Solution& s = session.solution();
    view->show(riserBare({s.project, *s.book, s.results}, double(std::max(200, view->width())) / std::max(150, view->height())), false);
}

void RiserStage::resizeEvent(QResizeEvent*) { rebuild(); }
void RiserStage::showEvent(QShowEvent*) { rebuild(); }

void RiserStage::exportTo(bool svg) {
    const QString file = QFileDialog::getSaveFileName(this, svg ? tr("Riser as SVG") : tr("Riser as PDF"), svg ? "riser.svg" : "riser.pdf", svg ? tr("SVG (*.svg)") : tr("PDF (*.pdf)"));
    if (file.isEmpty()) return;
    session.waitSolved();
    const Solution& s = session.solution();
    const Drawing sheet = riserDiagram({s.project, *s.book, s.results}, "E-501");
    const auto bad = svg ? writeSvg(sheet, file) : writePdf({sheet}, file, tr("Riser diagram"));
    session.say(bad ? q(bad->text()) : tr("Written: %1").arg(file), bad.has_value());
}

} // namespace lintel
