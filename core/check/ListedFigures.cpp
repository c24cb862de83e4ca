// What a list of feeders said of one, against what is worked out: its load, the fault at its end, its conduit.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/figures/Words.h"
#include "core/project/Operations.h"
#include "core/solve/RunParts.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// A list is made with figures of its own time: so much apart is the same.
constexpr double near = 0.05;

bool apart(double listed, double now) { return std::abs(now - listed) > near * std::max(listed, now); }

/// What differs, in words; empty: nothing, or nothing is listed.
std::string differs(const CheckInput& in, const Run& run, Ref thing) {
    std::vector<std::string> words;
    const NodeResult* node = thing.is<Circuit>() ? nullptr : in.results.node(thing);
    if (run.listedKA > 0) {
        double now = 0;
        if (node && node->fault.known && !node->fault.runsUnknown) now = node->fault.worst();
        if (!node) now = in.results.of(thing.as<Circuit>()).faultEnd;
        if (now > 0 && apart(run.listedKA, now))
            words.push_back(fmt::format("{} kA at its end, listed {}", figures(now), figures(run.listedKA)));
    }
    if (run.listedVA > 0 && !thing.is<Transformer>()) { // of a transformer it is its rating
        const double most = node ? node->connected : in.results.of(thing.as<Circuit>()).va;
        const double least = node ? std::min(node->demand, most) : most;
        const bool within = run.listedVA > least * (1 - near) && run.listedVA < most * (1 + near);
        if (most > 0 && !within)
            words.push_back(node ? fmt::format("{} kVA demand, listed {}", kilo(node->demand), kilo(run.listedVA))
                                 : fmt::format("{} kVA, listed {}", kilo(most), kilo(run.listedVA)));
    }
    if (const Transformer* t = in.project.transformers.find(thing.as<Transformer>()))
        if (run.listedVA > 0 && apart(run.listedVA, t->kva * 1000))
            words.push_back(fmt::format("rated {} kVA, listed {}", rating(t->kva), kilo(run.listedVA)));
    if (!run.listedConduit.empty()) {
        const RunParts parts = partsOf(in.project, in.book, in.results, thing);
        if (parts.conduit.size && parts.conduit.size->name != run.listedConduit)
            words.push_back(fmt::format("conduit {}, listed {}", parts.conduit.size->name, run.listedConduit));
    }
    std::string all;
    for (const std::string& w : words) all += (all.empty() ? "" : "; ") + w;
    return all;
}

void find(const CheckInput& in, const CheckRule& self, Ref about, const RunResult&, std::vector<Snag>& into) {
    const Run* run = enteredRun(in.project, about);
    if (!run || (run->listedKA <= 0 && run->listedVA <= 0 && run->listedConduit.empty())) return;
    if (!about.is<Circuit>() && !in.results.node(about)->parent) return;
    if (const std::string what = differs(in, *run, about); !what.empty())
        into.push_back({&self, Severity::Check, about,
                        fmt::format("{}: {}", run->name.empty() ? nameOf(in.project, about) : run->name, what), ""});
}

std::vector<Remedy> remedies(const CheckInput&, const Snag& s) {
    return {{"Put the listed figures aside", [about = s.about](Project& p) {
                 Run& run = runOf(p, about);
                 run.listedKA = run.listedVA = 0;
                 run.listedConduit.clear();
             }}};
}

} // namespace

extern const CheckRule listedFiguresRule;
const CheckRule listedFiguresRule{
    .id = "listed-figures", .remedies = remedies, .run = find, .worthLooking = [](const CheckInput& in) {
        return in.results.present.has(Results::Trait::ListedRun);
    }};

} // namespace lintel
