// Two fault levels given on one feed path: only one of them can be the start. And one that is given lower than what is
// worked out.

#include "core/base/Format.h"
#include "core/check/Assumptions.h"

#include <fmt/format.h>

namespace lintel {
namespace {

const Board* givenAbove(const CheckInput& in, const Board& b) {
    Ref at = in.results.of(b.id).parent;
    for (std::size_t guard = 0; at && guard < in.results.order.size(); ++guard) {
        if (const Board* above = in.project.boards.find(at.as<Board>()); above && above->givenKA) return above;
        if (const Transformer* t = in.project.transformers.find(at.as<Transformer>()); !t && !at.is<Board>())
            return nullptr;
        at = in.results.node(at)->parent;
    }
    return nullptr;
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards)
        if (b.givenKA)
            if (const Board* above = givenAbove(in, b))
                into.push_back(
                    {&self, Severity::Check, b.id,
                     fmt::format("{}: {} kA is given here and {} kA at {} above it; only one can be the start", b.name,
                                 figures(*b.givenKA), figures(*above->givenKA), above->name),
                     ""});
    // One that is lower than what is worked out hides it.
    for (const Board& b : in.project.boards)
        if (b.givenKA && !givenAbove(in, b))
            if (const auto worked = workedOutKA(in, b); worked && *worked > *b.givenKA * 1.005)
                into.push_back({&self, Severity::Check, b.id,
                                fmt::format("{}: {} kA is given where {} kA is worked out from what feeds it", b.name,
                                            figures(*b.givenKA), figures(*worked)),
                                in.book.cite("faultDevice")});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const BoardId id = s.about.as<Board>();
    std::vector<Remedy> out{{"Work it out from above", [=](Project& p) { p.boards.change(id)->givenKA.reset(); }}};
    if (const Board* above = givenAbove(in, in.project.boards[id]))
        out.push_back({"Work out " + above->name + " instead",
                       [other = above->id](Project& p) { p.boards.change(other)->givenKA.reset(); }});
    return out;
}

} // namespace

extern const CheckRule givenFaultRule;
const CheckRule givenFaultRule{.id = "given-fault", .remedies = remedies, .find = find};

} // namespace lintel
