#include "app/runs/DropProfile.h"

#include "app/frame/PaintKit.h"
#include "app/frame/WhenShown.h"
#include "core/base/Format.h"

#include <QMouseEvent>

namespace lintel {

DropProfile::DropProfile(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setMinimumHeight(210);
    connect(&session, &Session::solved, new WhenShown(this, [this] { rebuild(); }), &WhenShown::poke);
    connect(&session, &Session::selectionChanged, this, [this] { update(); });
    rebuild();
}

void DropProfile::rebuild() {
    stretches.clear();
    farthest = 30;
    const Solution& s = session.solution();
    allowed = s.project.basis.totalDropLimit;
    for (Ref r : s.results.order)
        if (const NodeResult& n = *s.results.node(r); n.parent) allowed = std::max(allowed, n.run.need.totalLimit);
    deepest = allowed * 1.25;
    std::map<Ref, Place> places;
    const auto add = [&](Ref from, Ref to, Place a, double length, double drop, double limit) {
        const Place b{a.metres + length, drop};
        stretches.push_back({from, to, a, b, drop > limit + 1e-9});
        farthest = std::max(farthest, b.metres * 1.06);
        deepest = std::max(deepest, std::min(b.drop * 1.08, 2 * allowed));
        return b;
    };
    for (Ref r : s.results.order) {
        const NodeResult& n = *s.results.node(r);
        if (!n.parent || !n.fed) {
            places[r] = {};
            continue;
        }
        Place a = places[n.parent];
        if (n.parent.is<Transformer>()) a.drop = s.results.of(n.parent.as<Transformer>()).dropBelow;
        places[r] = n.run.need.lengthKnown
                        ? add(n.parent, r, a, n.run.need.length.v, n.dropTotal, n.run.need.totalLimit)
                        : Place{a.metres, n.dropTotal};
    }
    for (const Circuit& c : s.project.circuits) {
        const CircuitResult& r = s.results.of(c.id);
        if (!r.feeder && r.run.need.lengthKnown && r.va > 0 && s.results.of(c.board).fed)
            add(c.board, c.id, places[c.board], r.run.need.length.v, r.run.dropTotal, r.run.need.totalLimit);
    }
    update();
}

QPointF DropProfile::at(const Place& p) const {
    const double left = 44, right = width() - 24.0, top = 42, bottom = height() - 34.0;
    return {left + (right - left) * p.metres / farthest, top + (bottom - top) * p.drop / deepest};
}

void DropProfile::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    const Basis& b = session.solution().project.basis;
    const bool ft = b.units == UnitSystem::Imperial;
    drawLine(p, QRectF(16, 4, 130, 18), tr("DROP PROFILE"), Qt::AlignLeft, t.quiet, uiFont(0.82, true));
    drawLine(p, QRectF(130, 4, width() - 150, 18),
             tr("% of system voltage lost, against distance from the source; it starts again below a transformer"),
             Qt::AlignLeft, t.quiet, uiFont(0.86));
    const QPointF o = at({0, 0});
    const QRectF field(o, at({farthest, deepest}));
    p.setPen(Qt::NoPen);
    p.setBrush(t.surface);
    p.drawRect(field);
    const double unit = ft ? metresPerFoot : 1;
    double step = 10;
    for (double s : {5.0, 10.0, 20.0, 25.0, 50.0, 100.0, 200.0, 500.0, 1000.0, 2000.0})
        if (farthest / unit / s <= 9) {
            step = s;
            break;
        }
    p.setPen(QPen(t.rule, 1));
    for (double x = 0; x * unit <= farthest; x += step) {
        const QPointF a = at({x * unit, 0});
        p.setPen(QPen(t.rule, 1));
        p.drawLine(QPointF(a.x(), field.top()), QPointF(a.x(), field.bottom()));
        drawLine(p, QRectF(a.x() - 30, field.bottom() + 3, 60, 15), QString::number(x), Qt::AlignHCenter, t.quiet,
                 uiFont(0.82));
    }
    const double dy = deepest > 14 ? 5 : deepest > 7 ? 2 : 1;
    for (double y = 0; y <= deepest; y += dy) {
        const QPointF a = at({0, y});
        p.setPen(QPen(t.rule, 1));
        p.drawLine(QPointF(field.left(), a.y()), QPointF(field.right(), a.y()));
        drawLine(p, QRectF(8, a.y() - 8, 28, 16), QString::number(y), Qt::AlignRight, t.quiet, uiFont(0.82));
    }
    drawLine(p, QRectF(field.right() - 170, field.bottom() + 16, 170, 15),
             ft ? tr("feet from the source") : tr("metres from the source"), Qt::AlignRight, t.quiet, uiFont(0.82));
    const QPointF limit = at({0, allowed});
    p.setPen(QPen(t.stop, 1.3, Qt::DashLine));
    p.drawLine(limit, QPointF(field.right(), limit.y()));
    drawLine(p, QRectF(field.right() - 90, limit.y() - 17, 86, 15), tr("total %1 %").arg(allowed), Qt::AlignRight,
             t.stop, uiFont(0.82));
    const auto path = session.solution().results.feedPath(session.selection(), session.solution().project);
    const auto onPath = [&](Ref r) { return std::find(path.begin(), path.end(), r) != path.end(); };
    p.setClipRect(field.adjusted(-4, -4, 4, 4));
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
    for (const Stretch& s : stretches) {
        if (!onPath(s.to) && !s.over) continue;
        // One that leaves the field is named where it leaves.
        const bool leaves = s.b.drop > deepest;
        const double share = leaves ? (deepest - s.a.drop) / (s.b.drop - s.a.drop) : 1;
        const QPointF a = at({s.a.metres + (s.b.metres - s.a.metres) * share, leaves ? deepest : s.b.drop}) -
                          QPointF(0, leaves ? 4 : 0);
        if (!leaves && onPath(s.to)) {
            p.setPen(QPen(s.over ? t.stop : t.accent, 1.8));
            p.setBrush(t.surface);
            p.drawEllipse(a, 4, 4);
        }
        const QString name =
            q(nameOf(session.solution().project, s.to)) + (leaves ? " " + q(percent(s.b.drop)) : QString());
        const bool room = a.x() < field.right() - 80;
        drawLine(p, QRectF(room ? a.x() + 8 : a.x() - 108, a.y() - 17, 100, 15), name,
                 room ? Qt::AlignLeft : Qt::AlignRight, s.over ? t.stop : t.accent, uiFont(0.85, true));
    }
}

void DropProfile::mousePressEvent(QMouseEvent* e) {
    Ref nearest;
    double least = 14;
    for (const Stretch& s : stretches)
        if (const double d = QLineF(at(s.b), e->position()).length(); d < least) least = d, nearest = s.to;
    if (nearest) session.select(nearest);
}

} // namespace lintel
