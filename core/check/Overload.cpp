// More demand than a board or a transformer is rated for.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        const BoardResult& r = in.results.of(b.id);
        if (r.use > 1.0005)
            into.push_back({&self, Severity::Stop, b.id, fmt::format("{}: {} A of demand on {} A", b.name, figures(std::max(r.demandAmps.v, r.heaviestAmps.v)), figures(b.main > 0 ? std::min(b.main, b.bus) : b.bus)), in.book.cite("continuousFeederDevice")});
    }
    for (const Transformer& t : in.project.transformers)
        if (const TransformerResult& r = in.results.of(t.id); r.use > 1.0005)
            into.push_back({&self, Severity::Check, t.id, fmt::format("{}: {} kVA of demand on {} kVA", t.name, kilo(r.demand), rating(t.kva)), in.book.cite("transformer")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    if (const Board* b = in.project.boards.find(s.about.as<Board>())) {
        const BoardResult& r = in.results.of(b->id);
        const double amps = std::max(r.demandAmps.v, r.heaviestAmps.v), next = in.book.ratingAtOrAbove(amps);
        const BoardId id = b->id;
        if (next > 0)
            out.push_back({fmt::format("{} A bus{}", rating(next), b->main > 0 ? " and main" : ""), [=](Project& p) {
                               Board& k = *p.boards.change(id);
                               k.bus = std::max(k.bus, next);
                               if (k.main > 0) k.main = std::max(k.main, next);
                           }});
    }
    if (const Transformer* t = in.project.transformers.find(s.about.as<Transformer>())) {
        const TransformerId id = t->id;
        const double kva = in.results.of(id).demand / 1000;
        for (double size : factsOf(t->secondary).phases == 3 ? in.book.tables.threePhaseKva : in.book.tables.singlePhaseKva)
            if (size >= kva) {
                out.push_back({fmt::format("{} kVA", rating(size)), [=](Project& p) { p.transformers.change(id)->kva = size; }});
                break;
            }
    }
    return out;
}

} // namespace

extern const CheckRule overloadRule;
const CheckRule overloadRule{"overload", find, remedies};

} // namespace lintel
