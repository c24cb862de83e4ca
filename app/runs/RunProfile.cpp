#include "app/runs/RunProfile.h"

#include "app/frame/PaintKit.h"
#include "app/frame/WhenShown.h"
#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/FaultRating.h"
#include "core/solve/Busway.h"
#include "core/solve/States.h"

#include <QBoxLayout>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>

namespace lintel {

RunProfile::RunProfile(Session& s, QWidget* parent)
    : QWidget(parent), session(s), dropButton(new QPushButton(tr("Drop"), this)),
      faultButton(new QPushButton(tr("Fault"), this)), useButton(new QPushButton(tr("Use"), this)),
      pathButton(new QPushButton(tr("Path"), this)) {
    setMinimumHeight(210);
    setMouseTracking(true);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 4, 12, 0);
    auto* bar = new QHBoxLayout;
    bar->setSpacing(4);
    for (auto [button, what, object] : {std::tuple{dropButton, Of::Drop, "profileDrop"},
                                        {faultButton, Of::Fault, "profileFault"},
                                        {useButton, Of::Use, "profileUse"}}) {
        button->setCheckable(true);
        button->setObjectName(object);
        bar->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, w = what] { show(w); });
    }
    dropButton->setChecked(true);
    bar->addSpacing(8);
    pathButton->setCheckable(true);
    pathButton->setObjectName("profilePath");
    pathButton->setToolTip(tr("As large as the path to what is chosen allows"));
    bar->addWidget(pathButton);
    connect(pathButton, &QPushButton::clicked, this, &RunProfile::rebuild);
    bar->addStretch(1);
    column->addLayout(bar);
    column->addStretch(1);
    connect(&session, &Session::solved, new WhenShown(this, [this] { rebuild(); }), &WhenShown::poke);
    connect(&session, &Session::selectionChanged, this, [this] {
        if (pathButton->isChecked()) return rebuild();
        update();
    });
    rebuild();
}

void RunProfile::show(Of what) {
    of = what;
    dropButton->setChecked(of == Of::Drop);
    faultButton->setChecked(of == Of::Fault);
    useButton->setChecked(of == Of::Use);
    rebuild();
}

void RunProfile::rebuild() {
    stretches.clear();
    places.clear();
    under = nullptr;
    farthest = 30;
    if (of == Of::Drop)
        rebuildDrop();
    else if (of == Of::Fault)
        rebuildFault();
    else
        rebuildUse();
    if (pathButton->isChecked()) fitPath();
    update();
}

void RunProfile::fitPath() {
    path = session.solution().results.feedPath(session.selection(), session.solution().project);
    double metres = 0, value = 0;
    for (const Stretch& s : stretches) {
        if (!onPath(s.to)) continue;
        metres = std::max(metres, s.b.metres);
        value = std::max({value, s.a.value, s.b.value});
    }
    if (metres > 0) farthest = metres * 1.06;
    if (value > 0) most = value * 1.15;
}

QString RunProfile::valueWords(double value) const {
    return of == Of::Fault ? q(figures(value)) + " kA" : q(percent(value));
}

RunProfile::Place& RunProfile::placeAfter(Ref from, Ref to, Place a, const RunResult& run, double value, bool over,
                                          double rated) {
    const bool known = run.need.lengthKnown;
    const Place b{a.metres + (known ? run.need.length.v : 0), value};
    if (known || of != Of::Drop) stretches.push_back({from, to, a, b, over, rated});
    farthest = std::max(farthest, b.metres * 1.06);
    return places[to] = b;
}

RunProfile::Place RunProfile::begin(CircuitId id, Place board) {
    const Solution& s = session.solution();
    if (!id || !s.results.of(id).tap || of == Of::Use) return board;
    const Circuit& c = s.project.circuits[id];
    const TapPoint& tap = *s.results.of(id).tap;
    const Place here{board.metres + placeAlong(s.project.boards[c.board], c),
                     of == Of::Drop ? tap.dropTotal : tap.fault.worst()};
    stretches.push_back({c.board, c.board, board, here, false, 0});
    return here;
}

void RunProfile::rebuildDrop() {
    const Solution& s = session.solution();
    allowed = s.project.basis.totalDropLimit;
    for (Ref r : s.results.order)
        if (const NodeResult& n = *s.results.node(r); n.parent) allowed = std::max(allowed, n.run.need.totalLimit);
    most = allowed * 1.25;
    const auto grow = [&](double lost) { most = std::max(most, std::min(lost * 1.08, 2 * allowed)); };
    for (Ref r : s.results.order) {
        const NodeResult& n = *s.results.node(r);
        if (!n.parent || !n.fed) {
            places[r] = {};
            continue;
        }
        Place a = places[n.parent];
        if (n.parent.is<Transformer>()) a.value = s.results.of(n.parent.as<Transformer>()).dropBelow;
        a = begin(n.via, a);
        placeAfter(n.parent, r, a, n.run, n.dropTotal, n.dropTotal > n.run.need.totalLimit + 1e-9);
        grow(n.dropTotal);
    }
    for (const Circuit& c : s.project.circuits) {
        const CircuitResult& r = s.results.of(c.id);
        if (r.feeder || !r.run.need.lengthKnown || r.va <= 0 || !s.results.of(c.board).fed) continue;
        placeAfter(c.board, c.id, begin(c.id, places[c.board]), r.run, r.run.dropTotal,
                   r.run.dropTotal > r.run.need.totalLimit + 1e-9);
        grow(r.run.dropTotal);
    }
}

void RunProfile::rebuildFault() {
    const Solution& s = session.solution();
    most = 1;
    for (Ref r : s.results.order) {
        const NodeResult& n = *s.results.node(r);
        if (!n.parent || !n.fed || !n.fault.known) {
            places[r] = {0, n.fault.known ? n.fault.worst() : 0};
            most = std::max(most, places[r].value * 1.1);
            continue;
        }
        Place a = places[n.parent];
        if (n.parent.is<Transformer>()) a.value = s.results.of(n.parent.as<Transformer>()).secondary.worst();
        a = begin(n.via, a);
        const Board* b = s.project.boards.find(r.as<Board>());
        const double rated = b ? holdsKA(*b) : 0;
        const bool over = b && faultExceeds(largestFault(s.project, s.results, b->id).kA, rated);
        placeAfter(n.parent, r, a, n.run, n.fault.worst(), over, rated);
        most = std::max({most, a.value * 1.1, n.fault.worst() * 1.1});
    }
    for (const Circuit& c : s.project.circuits) {
        const CircuitResult& r = s.results.of(c.id);
        if (!r.feeder && r.run.need.lengthKnown && r.faultEnd > 0)
            placeAfter(c.board, c.id, begin(c.id, places[c.board]), r.run, r.faultEnd, false);
    }
}

/// Level all along a run: what it carries, of what its conductors may.
void RunProfile::rebuildUse() {
    const Solution& s = session.solution();
    most = 110;
    const auto look = [&](Ref from, Ref to, const RunResult& run) {
        if (run.ampacity <= 0) {
            places[to] = places[from];
            return;
        }
        const double value = run.need.load.v / run.ampacity * 100;
        placeAfter(from, to, {places[from].metres, value}, run, value, value > 100.05);
        most = std::max(most, std::min(value * 1.08, 200.0));
    };
    for (Ref r : s.results.order) {
        const NodeResult& n = *s.results.node(r);
        if (n.parent && n.fed)
            look(n.parent, r, n.run);
        else
            places[r] = {};
    }
    for (const Circuit& c : s.project.circuits) {
        const CircuitResult& r = s.results.of(c.id);
        if (!r.feeder && r.va > 0 && s.results.of(c.board).fed) look(c.board, c.id, r.run);
    }
}

QRectF RunProfile::field() const { return {QPointF(44, 46), QPointF(width() - 24.0, height() - 34.0)}; }

QPointF RunProfile::at(const Place& p) const {
    const QRectF f = field();
    const double share = p.value / most;
    return {f.left() + f.width() * p.metres / farthest,
            of == Of::Drop ? f.top() + f.height() * share : f.bottom() - f.height() * share};
}

std::optional<QPointF> RunProfile::endOf(Ref thing) const {
    for (const Stretch& s : stretches)
        if (s.to == thing) return at(s.b);
    return std::nullopt;
}
std::optional<double> RunProfile::valueAt(Ref thing) const {
    for (const Stretch& s : stretches)
        if (s.to == thing) return s.b.value;
    return std::nullopt;
}

bool RunProfile::onPath(Ref thing) const { return std::find(path.begin(), path.end(), thing) != path.end(); }

void RunProfile::paintGrid(QPainter& p, const QRectF& box) const {
    const Theme& t = theme();
    const bool feetShown = session.solution().project.basis.units == UnitSystem::Imperial;
    const double unit = feetShown ? metresPerFoot : 1;
    double step = 10;
    for (double s : {5.0, 10.0, 20.0, 25.0, 50.0, 100.0, 200.0, 500.0, 1000.0, 2000.0})
        if (farthest / unit / s <= 9) {
            step = s;
            break;
        }
    for (double x = 0; x * unit <= farthest; x += step) {
        const double where = at({x * unit, 0}).x();
        p.setPen(QPen(t.rule, 1));
        p.drawLine(QPointF(where, box.top()), QPointF(where, box.bottom()));
        drawLine(p, QRectF(where - 30, box.bottom() + 3, 60, 15), QString::number(x), Qt::AlignHCenter, t.quiet,
                 uiFont(0.82));
    }
    double up = 1;
    for (double s : {0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0})
        if (most / s <= 8) {
            up = s;
            break;
        }
    for (double y = 0; y <= most; y += up) {
        const double where = at({0, y}).y();
        p.setPen(QPen(t.rule, 1));
        p.drawLine(QPointF(box.left(), where), QPointF(box.right(), where));
        drawLine(p, QRectF(8, where - 8, 28, 16), QString::number(y), Qt::AlignRight, t.quiet, uiFont(0.82));
    }
    drawLine(p, QRectF(box.right() - 170, box.bottom() + 16, 170, 15),
             feetShown ? tr("feet from the source") : tr("metres from the source"), Qt::AlignRight, t.quiet,
             uiFont(0.82));
}

void RunProfile::paintLimit(QPainter& p, const QRectF& box) const {
    const Theme& t = theme();
    const double bound = of == Of::Use ? 100 : allowed;
    if (bound > most) return; // out of the field while a path fills it
    const QPointF limit = at({0, bound});
    p.setPen(QPen(t.stop, 1.3, Qt::DashLine));
    p.drawLine(limit, QPointF(box.right(), limit.y()));
    drawLine(p, QRectF(box.right() - 90, limit.y() - 17, 86, 15),
             of == Of::Use ? tr("100 %") : tr("total %1 %").arg(allowed), Qt::AlignRight, t.stop, uiFont(0.82));
}

/// What the boards on the chosen path, and those over it, are rated for: a step above or below their fault level, with
/// its figure beside it where nothing else is drawn.
void RunProfile::paintRatings(QPainter& p) const {
    const Theme& t = theme();
    constexpr double half = 16; // of a step
    struct Step {
        const Stretch* of;
        QPointF at;
    };
    std::vector<Step> steps;
    std::vector<QRectF> taken;
    for (const Stretch& s : stretches) {
        if (s.rated <= 0 || (!s.over && !onPath(s.to))) continue;
        const QPointF end = at(s.b);
        const double y = std::max(field().top() + 1, at({0, s.rated}).y());
        p.setPen(QPen(s.over ? t.stop : t.accent, 2));
        p.drawLine(QPointF(end.x() - half, y), QPointF(end.x() + half, y));
        p.setPen(QPen(s.over ? t.stop : t.accent, 1, Qt::DotLine));
        p.drawLine(QPointF(end.x(), y), end);
        steps.push_back({&s, {end.x(), y}});
        taken.push_back(QRectF(end.x() - half, y - 2, 2 * half, 4));
    }
    for (const Step& step : steps) {
        const QString words = tr("rated %1 kA").arg(q(rating(step.of->rated))) + (step.of->rated > most ? " ↑" : "");
        const double width = QFontMetricsF(uiFont(0.82)).horizontalAdvance(words) + 2;
        const QRectF right(step.at.x() + half + 4, step.at.y() - 8, width, 15);
        for (const QRectF& text : {right, right.translated(-2 * half - 8 - width, 0)}) {
            const bool free =
                std::none_of(taken.begin(), taken.end(), [&](const QRectF& other) { return other.intersects(text); });
            if (!free || text.left() < field().left()) continue;
            taken.push_back(text);
            drawLine(p, text, words, Qt::AlignLeft, step.of->over ? t.stop : t.quiet, uiFont(0.82));
            break;
        }
    }
}

void RunProfile::paintNames(QPainter& p, const QRectF& box) const {
    const Theme& t = theme();
    std::vector<QRectF> written;
    for (const Stretch& s : stretches) {
        const bool chosen = onPath(s.to), pointed = &s == under;
        if (!chosen && !s.over && !pointed) continue;
        // One that leaves the field is named where it leaves.
        const bool leaves = s.b.value > most;
        const double rise = s.b.value - s.a.value;
        const double share = leaves && rise > 0 ? std::clamp((most - s.a.value) / rise, 0.0, 1.0) : 1;
        const QPointF end = at({s.a.metres + (s.b.metres - s.a.metres) * share, leaves ? most : s.b.value}) -
                            QPointF(0, leaves ? 4 : 0);
        const QColor colour = s.over ? t.stop : t.accent;
        if (!leaves && (chosen || pointed)) {
            p.setPen(QPen(colour, 1.8));
            p.setBrush(t.surface);
            p.drawEllipse(end, 4, 4);
        }
        QString name = q(nameOf(session.solution().project, s.to));
        if (leaves || pointed) name += " " + valueWords(s.b.value);
        const bool room = end.x() < box.right() - 110;
        // Lines fall to the right: above the end on its right side, and below it on its left, there is none of its own.
        const double width = QFontMetricsF(uiFont(0.85, true)).horizontalAdvance(name);
        const bool below = !room && end.y() + 20 < box.bottom();
        QRectF place(room ? end.x() + 8 : end.x() - 138, below ? end.y() + 4 : end.y() - 17, 130, 15);
        if (!room && !below) { // above the line where the name begins
            const QPointF start = at(s.a);
            const double fall = end.x() > start.x() ? (end.y() - start.y()) / (end.x() - start.x()) : 0;
            place.translate(0, -std::clamp(fall * (width + 8), 0.0, 60.0));
        }
        const auto taken = [&](const QRectF& r) {
            return std::any_of(written.begin(), written.end(), [&](const QRectF& w) { return w.intersects(r); });
        };
        const auto text = [&] {
            return room ? QRectF(place.left(), place.top(), width, 15)
                        : QRectF(place.right() - width, place.top(), width, 15);
        };
        if (taken(text())) place.translate(0, below ? -21 : 19); // on the other side of the line instead
        if (taken(text()) && !pointed) continue;                 // it is named under the pointer
        written.push_back(text());
        drawLine(p, place, name, room ? Qt::AlignLeft : Qt::AlignRight, colour, uiFont(0.85, true));
    }
}

void RunProfile::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    const double left = pathButton->geometry().right() + 14;
    drawLine(p, QRectF(left, 10, width() - left - 20, 18),
             of == Of::Drop
                 ? tr("% of system voltage lost, against distance from the source; it starts again below a transformer")
             : of == Of::Fault ? tr("kA available, against distance from the source, and what each board is rated for")
                               : tr("% of what its conductors carry, along each run, against distance from the source"),
             Qt::AlignLeft, t.quiet, uiFont(0.86));
    const QRectF box = field();
    p.setPen(Qt::NoPen);
    p.setBrush(t.surface);
    p.drawRect(box);
    paintGrid(p, box);
    if (of != Of::Fault) paintLimit(p, box);
    path = session.solution().results.feedPath(session.selection(), session.solution().project);
    p.setClipRect(box.adjusted(-4, -4, 4, 4));
    QColor line = t.quiet;
    line.setAlpha(150);
    for (int pass = 0; pass < 3; ++pass)
        for (const Stretch& s : stretches) {
            const bool chosen = onPath(s.to);
            if ((pass == 2) != chosen || (!chosen && (pass == 1) != s.over)) continue;
            p.setPen(QPen(chosen ? t.accent : s.over ? t.stop : line, chosen ? 2.4 : s.over ? 1.6 : 1.1));
            p.drawLine(at(s.a), at(s.b));
        }
    p.setClipping(false);
    if (of == Of::Fault) paintRatings(p);
    paintNames(p, box);
}

const RunProfile::Stretch* RunProfile::nearest(QPointF to) const {
    const Stretch* found = nullptr;
    double least = 14;
    for (const Stretch& s : stretches)
        if (const double d = QLineF(at(s.b), to).length(); d < least) {
            least = d;
            found = &s;
        }
    return found;
}

void RunProfile::mousePressEvent(QMouseEvent* e) {
    if (const Stretch* s = nearest(e->position())) session.select(s->to);
}

void RunProfile::mouseMoveEvent(QMouseEvent* e) {
    const Stretch* now = nearest(e->position());
    if (now == under) return;
    under = now;
    update();
}

void RunProfile::leaveEvent(QEvent*) {
    under = nullptr;
    update();
}

} // namespace lintel
