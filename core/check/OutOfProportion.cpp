// Parts of the distribution that do not go together: a small feed of a large board, and a transformer that feeds
// nothing. None is forbidden; each is mostly a slip.

#include "core/base/Article.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/BoardLoad.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr double share = 0.3; ///< of the bus, below which a feed looks like a slip

double smallestBusFor(const CheckInput& in, double device) {
    for (double size : {60.0, 100.0, 125.0, 160.0, 200.0, 225.0, 250.0, 400.0, 600.0, 630.0, 800.0})
        if (size >= device && in.book.ratingAtOrAbove(size) > 0) return size;
    return 0;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        const BoardResult& r = in.results.of(b.id);
        if (!r.via || r.looped) continue;
        const double device = in.results.of(r.via).device;
        if (device > 0 && device < share * b.bus)
            into.push_back({&self, Severity::Note, b.id,
                            fmt::format("{}: {} A feed of {} A board", b.name, withArticle(rating(device)),
                                        withArticle(rating(b.bus))),
                            ""});
        else if (r.run.size >= 0 && r.run.ampacity > 0 && r.run.ampacity < share * b.bus)
            into.push_back({&self, Severity::Note, b.id,
                            fmt::format("{}: conductors for {} A on {} A bus", b.name, figures(r.run.ampacity),
                                        withArticle(rating(b.bus))),
                            ""});
    }
    for (const Transformer& t : in.project.transformers)
        if (const TransformerResult& r = in.results.of(t.id); r.connected <= 0)
            into.push_back({&self, Severity::Note, t.id,
                            fmt::format("{}: {} kVA, and nothing hangs on it", t.name, rating(t.kva)), ""});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    if (const TransformerId t = s.about.as<Transformer>())
        return {{"Remove it", [t](Project& p) { removeTransformer(p, t); }}};
    const BoardId id = s.about.as<Board>();
    const BoardResult& r = in.results.of(id);
    std::vector<Remedy> out;
    const double bus = smallestBusFor(in, std::max(in.results.of(r.via).device, demandOf(r)));
    if (bus > 0 && bus < in.project.boards[id].bus && in.results.of(r.via).device >= share * bus &&
        r.run.ampacity >= share * bus)
        out.push_back({fmt::format("A bus of {} A", rating(bus)), [id, bus](Project& p) {
                           Board& b = *p.boards.change(id);
                           b.bus = bus;
                           b.main = std::min(b.main, bus);
                       }});
    return out; // a larger device before it would bring larger conductors, and with them larger faults: that is for a
                // person to weigh
}

} // namespace

extern const CheckRule outOfProportionRule;
const CheckRule outOfProportionRule{.id = "out-of-proportion", .remedies = remedies, .find = find};

} // namespace lintel
