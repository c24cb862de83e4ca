// A board or transformer fed from a source of another voltage or phase count.

#include "core/base/Article.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/AddBelow.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/EquipmentSize.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    const auto look = [&](Ref node, Ref feed) {
        if (!feed) return;
        const VoltageSystem given = systemGiven(in.project, feed), taken = systemTaken(in.project, node);
        if (!systemsAgree(given, taken))
            into.push_back({&self, Severity::Stop, node,
                            fmt::format("{} is for {} V and is fed at {} V", nameOf(in.project, node), wordOf(taken),
                                        wordOf(given)),
                            ""});
    };
    for (const Board& b : in.project.boards) look(b.id, b.feed);
    for (const Transformer& t : in.project.transformers) look(t.id, t.feed);
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const Ref node = s.about;
    const Project& p = in.project;
    const VoltageSystem given = systemGiven(p, feedOf(p, node)), taken = systemTaken(p, node);
    // The nearest board that gives what it takes and has a place for it; where there is none, a transformer.
    const auto placeOfNode = [&](Ref r) {
        return r.is<Board>()
                   ? std::pair{p.boards[r.as<Board>()].level, p.boards[r.as<Board>()].at}
                   : std::pair{p.transformers[r.as<Transformer>()].level, p.transformers[r.as<Transformer>()].at};
    };
    const auto [level, at] = placeOfNode(node);
    const Board* nearest = nullptr;
    const auto away = [&, l = level, a = at](const Board& b) {
        return (b.onPlan ? distance(b.at, a) : 500) + (b.level == l ? 0 : 1000);
    };
    for (const Board& b : p.boards)
        if (b.system == taken && !refuseFeed(p, node, b.id) && firstFreeSlot(p, b.id, factsOf(taken).lines) &&
            (!nearest || away(b) < away(*nearest)))
            nearest = &b;
    if (nearest)
        out.push_back({fmt::format("Feed it from {} ({} V)", nearest->name, wordOf(taken)),
                       [node, id = nearest->id](Project& q) { feedFrom(q, node, id); }});
    if (!nearest)
        for (const Transformer& t : p.transformers)
            if (node.is<Board>() && t.secondary == taken && !refuseFeed(p, node, t.id)) {
                const TransformerId id = t.id;
                out.push_back({fmt::format("Feed it from {} ({} V)", t.name, wordOf(taken)),
                               [node, id](Project& q) { feedFrom(q, node, id); }});
                break;
            }
    if (const BoardId board = node.as<Board>(); board && !refuseTransformerBefore(p, board)) {
        const double wanted = std::max(isMediumVoltage(given) ? 75.0 : 0.0, in.results.node(node)->demand / 1000);
        const double next = nextOf(transformerSeries(in.book, taken), wanted);
        const double kva = next > 0 ? next : std::ceil(wanted);
        out.push_back(
            {fmt::format("Put a transformer of {} kVA before it, {} – {} V", rating(kva), wordOf(given), wordOf(taken)),
             [=](Project& q) { (void)insertTransformer(q, board, kva); }});
        if (isMediumVoltage(given)) return out; // a board with circuits is not for that
    }
    out.push_back({fmt::format("Make {} {} V {}", nameOf(p, node), withArticle(wordOf(given)),
                               node.is<Board>() ? "board" : "primary"),
                   [node, given](Project& q) {
                       if (node.is<Board>())
                           q.boards.change(node.as<Board>())->system = given;
                       else
                           q.transformers.change(node.as<Transformer>())->primary = given;
                   }});
    return out;
}

} // namespace

extern const CheckRule feedVoltageRule;
const CheckRule feedVoltageRule{.id = "feed-voltage", .remedies = remedies, .find = find};

} // namespace lintel
