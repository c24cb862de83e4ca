// Medium voltage: what the book's tables do not reach is told, and boards with circuits are not for it.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Equipment.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards)
        if (isMediumVoltage(b.system) && !passesOn(b.use))
            into.push_back({&self, Severity::Stop, b.id,
                            fmt::format("{} is for {} V: boards with circuits are worked out up to {} V only", b.name,
                                        wordOf(b.system), number(lowVoltageUpTo.v)),
                            ""});
    for (const Transformer& t : in.project.transformers)
        if (isMediumVoltage(t.secondary))
            into.push_back({&self, Severity::Stop, t.id,
                            fmt::format("{} gives {} V: what it feeds is worked out up to {} V only", t.name,
                                        wordOf(t.secondary), number(lowVoltageUpTo.v)),
                            ""});
    for (Ref thing : in.results.order) {
        const NodeResult& n = *in.results.node(thing);
        if (n.parent && n.run.state == Sizing::OutsideTables)
            into.push_back({&self, Severity::Note, thing,
                            fmt::format("Conductors to {} at {} V: the tables of the book end at {} V, so they are not "
                                        "sized, and take nothing from the fault level",
                                        nameOf(in.project, thing), number(factsOf(n.run.need.system).lineLine.v),
                                        number(lowVoltageUpTo.v)),
                            ""});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    if (s.severity != Severity::Stop) return {};
    const bool board = s.about.is<Board>();
    const VoltageSystem now = board ? in.project.boards[s.about.as<Board>()].system
                                    : in.project.transformers[s.about.as<Transformer>()].secondary,
                        low = isMetric(now) ? VoltageSystem::Y400 : VoltageSystem::Y480;
    return {
        {fmt::format("Make {} {} V", board ? "it" : "its secondary", wordOf(low)), [=, about = s.about](Project& p) {
             if (board)
                 p.boards.change(about.as<Board>())->system = low;
             else
                 p.transformers.change(about.as<Transformer>())->secondary = low;
         }}};
}

} // namespace

extern const CheckRule mediumVoltageRule;
const CheckRule mediumVoltageRule{.id = "medium-voltage", .remedies = remedies, .find = find};

} // namespace lintel
