// More demand than a board or a transformer is rated for.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/EquipmentSize.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        const BoardResult& r = in.results.of(b.id);
        if (r.use > 1.0005)
            into.push_back(
                {&self, Severity::Stop, b.id,
                 fmt::format("{}: {} A of demand on {} A", b.name, figures(demandOf(r)), figures(mostAmps(b))),
                 in.book.cite("continuousFeederDevice")});
    }
    for (const Transformer& t : in.project.transformers)
        if (const TransformerResult& r = in.results.of(t.id); r.use > 1.0005)
            into.push_back({&self, Severity::Check, t.id,
                            fmt::format("{}: {} kVA of demand on {} kVA", t.name, kilo(r.demand), rating(t.kva)),
                            in.book.cite("transformer")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    if (const Board* b = in.project.boards.find(s.about.as<Board>())) {
        const BoardResult& r = in.results.of(b->id);
        const double amps = demandOf(r), next = in.book.ratingAtOrAbove(amps);
        const BoardId id = b->id;
        if (next > 0)
            out.push_back({fmt::format("{} A bus{}", rating(next), b->main > 0 ? " and main" : ""), [=](Project& p) {
                               Board& k = *p.boards.change(id);
                               k.bus = std::max(k.bus, next);
                               if (k.main > 0) k.main = std::max(k.main, next);
                           }});
        // The lightest of its circuits that would do, to another board of the system with a place and the capacity for
        // it.
        const double over = amps - mostAmps(*b);
        const Circuit* move = nullptr;
        for (const Circuit& c : in.project.circuits)
            if (const CircuitResult& cr = in.results.of(c.id);
                c.board == id && !cr.feeder && c.use == CircuitUse::Load && !c.pinned && cr.load.v >= over * 1.2 &&
                (!move || cr.load < in.results.of(move->id).load))
                move = &c;
        // The nearest board with the capacity for all that goes along, where it has a place.
        const Board* to = nullptr;
        MovePlan plan;
        if (move)
            for (const Board& o : in.project.boards) {
                const BoardResult& other = in.results.of(o.id);
                if (o.id == id || o.system != b->system || !other.fed || other.parent == Ref(id)) continue;
                if (to &&
                    !(o.onPlan && b->onPlan && (!to->onPlan || orthogonal(o.at, b->at) < orthogonal(to->at, b->at))))
                    continue;
                const double room = mostAmps(o) - demandOf(other);
                double goes = 0;
                for (CircuitId c : unitOf(in.project, move->id)) goes += in.results.of(c).load.v;
                if (room <= goes) continue;
                if (const MovePlan there = planMoveTo(in.project, {move->id}, o.id); there.possible)
                    to = &o, plan = there;
            }
        if (to)
            out.push_back(
                {fmt::format(
                     "Move {}{} to {}", nameOf(in.project, move->id),
                     plan.places.size() > 1 ? fmt::format(" with {} more that go with it", plan.places.size() - 1) : "",
                     to->name),
                 [circuit = move->id, board = to->id](Project& p) { applyMove(p, planMoveTo(p, {circuit}, board)); }});
    }
    if (const Transformer* t = in.project.transformers.find(s.about.as<Transformer>())) {
        const TransformerId id = t->id;
        const double kva = in.results.of(id).demand / 1000;
        for (double size : transformerSeries(in.book, t->secondary))
            if (size >= kva) { // the next, and the one that leaves a quarter for what is to come
                const bool roomy = size >= kva * 1.25;
                if (out.empty() || roomy)
                    out.push_back({rating(size) + (roomy ? " kVA, a quarter left" : " kVA"),
                                   [=](Project& p) { p.transformers.change(id)->kva = size; }});
                if (roomy) break;
            }
    }
    return out;
}

} // namespace

extern const CheckRule overloadRule;
const CheckRule overloadRule{.id = "overload", .remedies = remedies, .find = find};

} // namespace lintel
