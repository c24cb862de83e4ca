// Parts of the distribution that do not go together: a small feed of a large board, and a transformer that feeds
// nothing. None is forbidden; each is mostly a slip.

#include "core/base/Article.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/BoardLoad.h"

#include <fmt/format.h>

#include <optional>

namespace lintel {
namespace {

constexpr double share = 0.3; ///< of the bus, below which a feed looks like a slip

/// The smallest bus that is made for what a board's feed passes and for what the board takes, if it is smaller than
/// its own. Where there is none the bus is no slip: a feed that is too small for it is told by other rules.
std::optional<double> smallerBus(const CheckInput& in, const Board& b) {
    const BoardResult& r = in.results.of(b.id);
    const auto bus = in.book.trade.board.busFor(std::max(in.results.of(r.via).device, demandOf(r)));
    return bus && *bus < b.bus - 1e-6 ? bus : std::nullopt;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        const BoardResult& r = in.results.of(b.id);
        if (!r.via || r.looped || !smallerBus(in, b)) continue;
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
    const auto bus = smallerBus(in, in.project.boards[id]);
    if (!bus) return {};
    // A larger device before it would bring larger conductors, and with them larger faults: that is for a person to
    // weigh.
    return {{fmt::format("A bus of {} A", rating(*bus)), [id, amps = *bus](Project& p) {
                 Board& b = *p.boards.change(id);
                 b.bus = amps;
                 b.main = std::min(b.main, amps);
             }}};
}

} // namespace

extern const CheckRule outOfProportionRule;
const CheckRule outOfProportionRule{.id = "out-of-proportion", .remedies = remedies, .find = find};

} // namespace lintel
