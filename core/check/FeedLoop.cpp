// A feed path that comes back to itself. The windows refuse to make one; a file can still hold one.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards)
        if (in.results.of(b.id).looped)
            into.push_back({&self, Severity::Stop, b.id, b.name + " is fed, at the end, from itself", ""});
    for (const Transformer& t : in.project.transformers)
        if (in.results.of(t.id).looped)
            into.push_back({&self, Severity::Stop, t.id, t.name + " is fed, at the end, from itself", ""});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const Ref node = s.about;
    return {{"Take away the feed of " + nameOf(in.project, node), [node](Project& p) { clearFeed(p, node); }}};
}

} // namespace

extern const CheckRule feedLoopRule;
const CheckRule feedLoopRule{.id = "feed-loop", .remedies = remedies, .find = find};

} // namespace lintel
