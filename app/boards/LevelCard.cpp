#include "app/boards/LevelCard.h"

#include "app/frame/FactsPanel.h"
#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/Slots.h"
#include "core/solve/PhaseLoads.h"

#include <QBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSlider>

namespace lintel {

/// The imbalance over the number of moves: a step a move, the chosen one marked, proven ones filled.
class LevelCurve : public QWidget {
public:
    using QWidget::QWidget;
    struct Point {
        double imbalance;
        bool proven;
    };
    std::vector<Point> points;
    int chosen = 0;
    std::function<void(int)> pick;

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        const QRectF box(34, 8, width() - 44, height() - 14);
        p.setPen(QPen(t.rule, 1));
        p.drawLine(box.bottomLeft(), box.bottomRight());
        if (points.empty()) return;
        const double most = std::max(1.0, points.front().imbalance);
        drawLine(p, QRectF(0, box.top() - 8, 30, 16), q(percent(points.front().imbalance)), Qt::AlignRight, t.quiet,
                 uiFont(0.78));
        drawLine(p, QRectF(0, box.bottom() - 8, 30, 16), "0 %", Qt::AlignRight, t.quiet, uiFont(0.78));
        const auto at = [&](std::size_t k) {
            return QPointF(x(k), box.bottom() - box.height() * points[k].imbalance / most);
        };
        p.setPen(QPen(t.quiet, 1.4));
        for (std::size_t k = 1; k < points.size(); ++k) {
            p.drawLine(at(k - 1), QPointF(at(k).x(), at(k - 1).y()));
            p.drawLine(QPointF(at(k).x(), at(k - 1).y()), at(k));
        }
        for (std::size_t k = 0; k < points.size(); ++k) {
            const bool here = int(k) == chosen;
            p.setPen(QPen(here ? t.accent : t.quiet, 1.4));
            p.setBrush(here ? t.accent : points[k].proven ? t.quiet : t.surface);
            p.drawEllipse(at(k), here ? 4.5 : 2.8, here ? 4.5 : 2.8);
        }
    }
    void mousePressEvent(QMouseEvent* e) override {
        std::size_t best = 0;
        for (std::size_t k = 1; k < points.size(); ++k)
            if (std::abs(x(k) - e->position().x()) < std::abs(x(best) - e->position().x())) best = k;
        if (pick && !points.empty()) pick(int(best));
    }

private:
    double x(std::size_t k) const {
        return 40 + (width() - 56) * (points.size() > 1 ? double(k) / double(points.size() - 1) : 0);
    }
};

LevelCard::LevelCard(Session& s, QWidget* parent)
    : BoardCard(s, "level", tr("Level"), tr("Cancel"), parent), work(new Background(this)), curve(new LevelCurve(this)),
      slider(new QSlider(Qt::Horizontal, this)), heading(new QLabel(this)), figures(new QLabel(this)),
      proof(new QLabel(this)), list(new QListWidget(this)), gauge(new LevelGauge(this)),
      one(new QPushButton(tr("This board"), this)), all(new QPushButton(tr("Boards below, as one"), this)),
      sides(new QPushButton(this)) {
    enterApplies = true;
    across->setContentsMargins(12, 8, 12, 8);
    auto* left = new QVBoxLayout;
    left->setSpacing(4);
    auto* tabs = new QHBoxLayout;
    tabs->setSpacing(6);
    for (auto* b : {one, all}) {
        b->setCheckable(true);
        b->setAutoExclusive(true);
        tabs->addWidget(b);
    }
    one->setObjectName("levelOne");
    all->setObjectName("levelTogether");
    tabs->addStretch(1);
    sides->setObjectName("levelSides");
    sides->setToolTip(tr("Swapped across the bus on their own lines: the phases stay as they are"));
    tabs->addWidget(sides);
    left->addLayout(tabs);
    left->addWidget(heading);
    left->addWidget(curve, 1);
    slider->setObjectName("levelMoves");
    slider->setPageStep(1);
    slider->setTickPosition(QSlider::TicksBelow);
    slider->setContentsMargins(34, 0, 0, 0);
    auto* inset = new QHBoxLayout;
    inset->setContentsMargins(30, 0, 2, 0);
    inset->addWidget(slider);
    left->addLayout(inset);
    proof->setProperty("quiet", true);
    left->addWidget(proof);
    across->addLayout(left, 5);
    auto* middle = new QVBoxLayout;
    middle->setSpacing(4);
    figures->setTextFormat(Qt::RichText);
    middle->addWidget(figures);
    list->setObjectName("levelList");
    list->setFocusPolicy(Qt::NoFocus);
    list->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    middle->addWidget(list, 1);
    across->addLayout(middle, 5);
    auto* right = new QVBoxLayout;
    right->setSpacing(6);
    gauge->setFixedSize(132, 130);
    right->addWidget(gauge);
    right->addStretch(1);
    right->addLayout(buttons());
    across->addLayout(right, 3);
    curve->pick = [this](int k) { slider->setValue(k); };
    connect(slider, &QSlider::valueChanged, this, &LevelCard::refresh);
    connect(sides, &QPushButton::clicked, this, [this] {
        if (session.askedFor() != serial) return; // the project has gone on: the choices follow
        session.edit(tr("Sides of %1").arg(q(session.project().boards[board].name)),
                     [this](Project& p) { applyArrangement(p, sided); });
    });
    connect(one, &QPushButton::clicked, this, [this] { showTogether(false); });
    connect(all, &QPushButton::clicked, this, [this] { showTogether(true); });
    // An edit made meanwhile changes what the choices come to.
    connect(&session, &Session::solved, this, [this] {
        if (isVisible() && session.solution().serial != serial) open(board);
    });
    one->setChecked(true);
}

void LevelCard::open(BoardId id) {
    if (!session.solution().project.boards.has(id)) return drop();
    board = id;
    serial = session.solution().serial;
    setVisible(true);
    heading->setText(tr("Levelling…"));
    list->clear();
    go->setEnabled(false);
    work->start([this, solution = session.sharedSolution(), id](const Background::Stop& stop) -> std::function<void()> {
        LevelChoices found =
            levelBoard(solution->project, solution->results, id, levelEffort, [stop] { return stop->load(); });
        TurningChoices turned = levelByTurning(solution->project, solution->results, id);
        return [this, found = std::move(found), turned = std::move(turned)] {
            level = found, turning = turned;
            // Where no circuit helps, the boards below may.
            together = level.best().places.empty() && turning.boards > 1 && turning.byBoards.size() > 1;
            fill();
        };
    });
}

void LevelCard::showTogether(bool t) {
    together = t && turning.boards > 1;
    one->setChecked(!together);
    all->setChecked(together);
    fill();
}

void LevelCard::fill() {
    sided = levelSides(session.solution().project, session.solution().results, board);
    int astray = 0;
    for (const auto& [c, slot] : sided.places) astray += slot % 2;
    sides->setVisible(astray > 0);
    sides->setText(tr("%1 to the left").arg(astray));
    one->setVisible(turning.boards > 1);
    all->setVisible(turning.boards > 1);
    if (turning.boards <= 1) together = false;
    one->setChecked(!together);
    all->setChecked(together);
    curve->points.clear();
    if (together)
        for (const Turning& t : turning.byBoards) curve->points.push_back({t.imbalance, t.proven});
    else
        for (const Arrangement& a : level.byMoves) curve->points.push_back({a.imbalance, a.proven});
    const int last = int(curve->points.size()) - 1;
    // It begins where more moves bring next to nothing: nobody rewires a board for the last hundredth of a percent.
    int begin = last;
    while (begin > 0 &&
           curve->points[std::size_t(begin - 1)].imbalance - curve->points[std::size_t(last)].imbalance < 0.15)
        --begin;
    {
        QSignalBlocker quiet(slider);
        slider->setRange(0, std::max(0, last));
        slider->setTickInterval(1);
        slider->setValue(begin);
        slider->setEnabled(last > 0);
    }
    refresh();
    slider->setFocus();
}

void LevelCard::choose(int moves) { slider->setValue(moves); }
QString LevelCard::proofText() const { return proof->text(); }

void LevelCard::refresh() {
    const Solution& s = session.solution();
    const Board* b = s.project.boards.find(board);
    if (!b || curve->points.empty()) return;
    const auto k = std::size_t(slider->value());
    curve->chosen = int(k);
    curve->update();
    list->clear();
    LevelGauge::Reading reading = gaugeReading(s, board, false);
    std::array<double, 3> now{}, then{};
    double from = 0, to = 0;
    const bool last = k + 1 == curve->points.size();
    if (together) {
        const Turning& t = turning.byBoards[k];
        now = turning.byBoards.front().phaseVa, then = t.phaseVa, from = turning.byBoards.front().imbalance,
        to = t.imbalance;
        heading->setText(tr("Boards turned: up to %1").arg(k));
        for (const auto& [id, turn] : t.turns) {
            const Board& x = s.project.boards[id];
            list->addItem(tr("%1: its %2 from %3 to %4")
                              .arg(q(x.name), q(lineName(0, x)), q(lineName(x.turned, *b)), q(lineName(turn, *b))));
        }
        proof->setText(t.proven ? last ? tr("proven: the best there is") : tr("proven best for so many boards")
                                : tr("the best that was found"));
        go->setEnabled(!t.turns.empty());
        go->setText(t.turns.empty() ? tr("Nothing to turn") : tr("Turn %1").arg(t.turns.size()));
        Q_EMIT proposed({});
    } else {
        const Arrangement& a = level.byMoves[k];
        now = level.byMoves.front().phaseVa, then = a.phaseVa, from = level.byMoves.front().imbalance, to = a.imbalance;
        heading->setText(tr("Moves allowed: %1").arg(k));
        for (const auto& [c, slot] : a.places) {
            const Circuit& x = s.project.circuits[c];
            list->addItem(tr("%1 → %2   %3 → %4   %5")
                              .arg(q(placeWords(*b, x)))
                              .arg(slot)
                              .arg(q(lineName(lineOfSlot(*b, x.slot), *b)), q(lineName(lineOfSlot(*b, slot), *b)),
                                   q(servesWords(s.project, s.results, c))));
        }
        proof->setText(
            a.places.empty() && last ? (a.proven ? tr("as level as it can be: proven") : tr("nothing better was found"))
            : a.proven               ? last ? tr("proven: the best there is") : tr("proven best for so many moves")
            : last ? tr("spread %1 VA; nothing can come below %2 VA").arg(q(number(a.spread)), q(number(level.bound)))
                   : tr("the best that was found"));
        go->setEnabled(!a.places.empty());
        go->setText(a.places.empty()       ? tr("Nothing to move")
                    : a.places.size() == 1 ? tr("Make 1 move")
                                           : tr("Make %1 moves").arg(a.places.size()));
        Q_EMIT proposed(a.places);
    }
    const int lines = factsOf(b->system).lines;
    QString table = "<table cellspacing='0'><tr><td></td>";
    for (int i = 0; i < lines; ++i)
        table += QString("<td align='right' style='padding-left:9px'><b>%1</b></td>").arg(q(lineName(i, *b)));
    table += "<td></td></tr>";
    for (const auto& [name, va, imbalance] : {std::tuple{tr("Now"), now, from}, {tr("Then"), then, to}}) {
        table += QString("<tr><td>%1</td>").arg(name);
        for (int i = 0; i < lines; ++i)
            table += QString("<td align='right' style='padding-left:9px'>%1</td>").arg(q(kilo(va[std::size_t(i)], 2)));
        table += QString("<td style='padding-left:9px'>kVA, <b>%1</b></td></tr>").arg(q(percent(imbalance)));
    }
    figures->setText(table + "</table>");
    reading.lean = leanOf(then, lines);
    reading.imbalance = to;
    std::size_t heavy = 0;
    for (std::size_t i = 1; i < std::size_t(lines); ++i)
        if (then[i] > then[heavy]) heavy = i;
    reading.heavy = reading.letters.value(int(heavy));
    reading.figures = false;
    gauge->show(reading);
}

void LevelCard::apply() {
    if (!go->isEnabled() || session.askedFor() != serial) return;
    const auto k = std::size_t(slider->value());
    const QString name = q(nameOf(session.project(), Ref(board)));
    Q_EMIT proposed({});
    setVisible(false);
    if (together) {
        const Turning t = turning.byBoards[k];
        session.edit(tr("Level the boards below %1").arg(name), [&](Project& p) { applyTurning(p, t); });
    } else {
        const Arrangement a = level.byMoves[k];
        session.edit(tr("Level %1").arg(name), [&](Project& p) { applyArrangement(p, a); });
    }
    Q_EMIT closed();
}

void LevelCard::stop() {
    work->cancel();
    Q_EMIT proposed({});
}

} // namespace lintel
