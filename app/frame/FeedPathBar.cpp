#include "app/frame/FeedPathBar.h"

#include "app/frame/PaintKit.h"
#include "core/base/Format.h"
#include "core/figures/Words.h"

#include <QMouseEvent>

namespace lintel {

FeedPathBar::FeedPathBar(Session& s, QWidget* parent) : QWidget(parent), session(s) {
    setFixedHeight(56);
    setMouseTracking(true);
    setObjectName("feedPath");
    for (auto signal : {&Session::solved, &Session::selectionChanged, &Session::opened})
        connect(&session, signal, this, &FeedPathBar::rebuild);
}

void FeedPathBar::rebuild() {
    path.clear();
    const Solution& s = session.solution();
    Ref at = session.selection();
    if (const Device* d = s.project.devices.find(at.as<Device>())) at = d->circuit ? Ref(d->circuit) : Ref();
    if (const Load* l = s.project.loads.find(at.as<Load>())) at = l->circuit ? Ref(l->circuit) : Ref();
    if (const PlacedView* v = s.project.placedViews.find(at.as<PlacedView>())) at = v->about;
    if (at && !s.results.knows(at)) at = {};
    if (!at) // nothing chosen: the supply
        for (const Source& x : s.project.sources) {
            at = x.id;
            break;
        }
    const Theme& t = theme();
    const Basis& b = s.project.basis;
    for (Ref r : at ? s.results.feedPath(at, s.project) : std::vector<Ref>{}) {
        Step step{r, q(nameOf(s.project, r)), {}, {}, t.quiet, {}};
        const NodeResult* node = s.results.node(r);
        double drop = 0, limit = node && node->parent ? node->run.need.totalLimit : b.totalDropLimit;
        bool known = true;
        if (auto* x = s.project.sources.find(r.as<Source>())) {
            step.name += " " + q(wordOf(x->system));
            step.middle = q(figures(s.results.of(x->id).fault.worst())) + " kA";
        } else if (auto* d = s.project.boards.find(r.as<Board>())) {
            const BoardResult& n = s.results.of(d->id);
            drop = n.dropTotal, known = n.dropKnown;
            step.middle = QString("%1 A · %2 kA").arg(q(number(d->bus)), n.fault.known ? q(faultWords(n.fault)) : "–");
        } else if (auto* x2 = s.project.transformers.find(r.as<Transformer>())) {
            const TransformerResult& n = s.results.of(x2->id);
            drop = n.dropTotal, known = n.dropKnown;
            step.name += QString(" %1 kVA").arg(q(rating(x2->kva)));
            step.middle = QString("%1 – %2").arg(q(wordOf(x2->primary)).section('Y', 0, 0), q(wordOf(x2->secondary)));
        } else if (auto* c = s.project.circuits.find(r.as<Circuit>())) {
            const CircuitResult& n = s.results.of(c->id);
            const RunResult& run = *s.results.run(c->id);
            drop = n.feeder ? s.results.node(n.feeds)->dropTotal : run.dropTotal;
            known = n.feeder ? s.results.node(n.feeds)->dropKnown : run.need.beforeKnown;
            limit = n.feeder ? s.results.node(n.feeds)->run.need.totalLimit : run.need.totalLimit;
            step.middle = QString("%1 A %2P").arg(q(number(n.device))).arg(c->poles);
            if (n.faultEnd > 0) step.middle += QString(" · %1 kA").arg(q(figures(n.faultEnd)));
            if (!run.need.lengthKnown && !n.feeder) {
                step.drop = c->use == CircuitUse::Spare ? "spare" : "no length";
            }
        }
        if (step.drop.isEmpty())
            step.drop = r == at && !r.is<Source>() ? QString("%1 of %2").arg(q(dropWords(drop, known))).arg(limit)
                                                   : q(dropWords(drop, known));
        if (drop > limit)
            step.dropColour = t.stop;
        else if (drop > 0.75 * limit)
            step.dropColour = t.check;
        path.push_back(step);
    }
    double x = 12;
    for (Step& s2 : path) {
        const double w = std::max({QFontMetricsF(uiFont(0.95, true)).horizontalAdvance(s2.name),
                                   QFontMetricsF(uiFont(0.85)).horizontalAdvance(s2.middle), 76.0}) +
                         20;
        s2.box = QRectF(x, 3, w, 50);
        x += w + 22;
    }
    update();
}

QStringList FeedPathBar::steps() const {
    QStringList list;
    for (const Step& s : path) list << s.name + " | " + s.middle + " | " + s.drop;
    return list;
}

/// Where the path is too long for the window its beginning slides out, never the selection.
double FeedPathBar::slid() const { return path.empty() ? 0 : std::max(0.0, path.back().box.right() + 12 - width()); }

QRectF FeedPathBar::box(int step) const { return path.at(std::size_t(step)).box.translated(-slid(), 0); }

void FeedPathBar::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    p.fillRect(rect(), t.surface);
    p.setPen(t.rule);
    p.drawLine(0, height() - 1, width(), height() - 1);
    if (path.empty()) {
        drawLine(p, QRectF(22, 0, width() - 40, height()),
                 session.isOpen() ? tr("Not fed: no source stands at the top of its feed path") : QString(),
                 Qt::AlignLeft, t.quiet, uiFont(0.95));
        return;
    }
    p.translate(-slid(), 0);
    for (std::size_t i = 0; i < path.size(); ++i) {
        const Step& s = path[i];
        const bool last = i + 1 == path.size();
        if (last || int(i) == hovered) {
            p.setPen(Qt::NoPen);
            p.setBrush(last ? t.accentWash : t.paper);
            p.drawRoundedRect(s.box, 4, 4);
        }
        const QRectF in = s.box.adjusted(10, 3, -4, 0);
        drawLine(p, QRectF(in.left(), in.top(), in.width(), 17), s.name, Qt::AlignLeft, last ? t.accent : t.ink,
                 uiFont(0.95, true));
        drawLine(p, QRectF(in.left(), in.top() + 16, in.width(), 15), s.middle, Qt::AlignLeft, t.quiet, uiFont(0.85));
        drawLine(p, QRectF(in.left(), in.top() + 30, in.width(), 15), s.drop, Qt::AlignLeft, s.dropColour,
                 uiFont(0.85));
        if (!last) {
            p.setPen(QPen(t.rule, 1.4));
            const double x = s.box.right() + 7, y = height() / 2.0;
            p.drawPolyline(QPolygonF{{x, y - 10}, {x + 7, y}, {x, y + 10}});
        }
    }
}

void FeedPathBar::mousePressEvent(QMouseEvent* e) {
    for (const Step& s : path)
        if (s.box.contains(e->position() + QPointF(slid(), 0))) {
            session.select(s.thing);
            return;
        }
}
void FeedPathBar::mouseMoveEvent(QMouseEvent* e) {
    int at = -1;
    for (std::size_t i = 0; i < path.size(); ++i)
        if (path[i].box.contains(e->position() + QPointF(slid(), 0))) at = int(i);
    if (at != hovered) hovered = at, update();
    setCursor(at >= 0 ? Qt::PointingHandCursor : Qt::ArrowCursor);
}
void FeedPathBar::leaveEvent(QEvent*) {
    hovered = -1;
    update();
}

} // namespace lintel
