// A run that has to go on working in a fire, on a cable that does not.

#include "core/check/Check.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void find(const CheckInput& in, const CheckRule& self, Ref about, const RunResult& r, std::vector<Snag>& into) {
    const Run* run = enteredRun(in.project, about);
    if (!run || !run->fireRated || r.need.cable->type < 0) return;
    const CableType& type = in.book.cables.types[std::size_t(r.need.cable->type)];
    if (!type.fireRated)
        into.push_back(
            {&self, Severity::Stop, about,
             fmt::format("{}: has to work in a fire, and its cable is {}", nameOfRun(in.project, about), type.name),
             in.book.title});
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const Ref about = s.about;
    std::vector<Remedy> out;
    for (const CableType& t : in.book.cables.types)
        if (t.fireRated)
            out.push_back(
                {fmt::format("Lay {}", t.name), [about, name = t.name, method = t.methods.front().name](Project& p) {
                     Run& r = runOf(p, about);
                     r.cable = name, r.method = method;
                 }});
    out.push_back({"It need not work in a fire", [about](Project& p) { runOf(p, about).fireRated = false; }});
    return out;
}

} // namespace

extern const CheckRule fireRatedRule;
const CheckRule fireRatedRule{
    .id = "fire-rated", .remedies = remedies, .run = find, .worthLooking = [](const CheckInput& in) {
        return in.book.metric() && in.results.present.has(Results::Trait::FireRated);
    }};

} // namespace lintel
