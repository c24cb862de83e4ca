// A board or transformer that nothing feeds.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards)
        if (!b.feed) into.push_back({&self, Severity::Check, b.id, b.name + " is not fed from anywhere", ""});
    for (const Transformer& t : in.project.transformers)
        if (!t.feed) into.push_back({&self, Severity::Check, t.id, t.name + " is not fed from anywhere", ""});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    std::vector<Remedy> out;
    const Ref node = s.about;
    const auto offer = [&](Ref from, const std::string& name) {
        if (out.size() < 3 && !refuseFeed(in.project, node, from))
            out.push_back({"Feed it from " + name, [=](Project& p) { feedFrom(p, node, from); }});
    };
    for (const Transformer& t : in.project.transformers) offer(t.id, t.name);
    for (const Board& b : in.project.boards) offer(b.id, b.name);
    for (const Source& x : in.project.sources) offer(x.id, x.name);
    return out;
}

} // namespace

extern const CheckRule boardUnfedRule;
const CheckRule boardUnfedRule{.id = "board-unfed", .remedies = remedies, .find = find};

} // namespace lintel
