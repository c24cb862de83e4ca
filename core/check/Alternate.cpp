// What takes over from a feed: a transfer switch without a second one, another voltage, and what is within its limits
// on the normal supply and is not on the alternate one.

#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/project/Operations.h"
#include "core/solve/States.h"

#include <fmt/format.h>

namespace lintel {
namespace {

bool fails(const RunResult& run) {
    return run.size >= 0 && run.need.lengthKnown && run.dropTotal > run.need.totalLimit + 1e-9;
}
bool opensLate(const RunResult& run) { return run.earth && run.earth->known && run.size >= 0 && !run.earth->inTime; }

/// Circuits of a board that keep a limit on the normal supply and not in a state.
struct Worse {
    int lossy = 0, late = 0;
    double lost = 0, limit = 0;
};
Worse worseOn(const CheckInput& in, const StateSolution& state, BoardId board) {
    Worse w;
    for (CircuitId id : in.results.on(board)) {
        const CircuitResult &normal = in.results.of(id), &on = state.results.of(id);
        if (normal.feeder || normal.va <= 0) continue;
        if (fails(on.run) && !fails(normal.run)) {
            ++w.lossy;
            w.lost = std::max(w.lost, on.run.dropTotal);
            w.limit = on.run.need.totalLimit;
        }
        w.late += opensLate(on.run) && !opensLate(normal.run);
    }
    return w;
}

void findStates(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const auto& state : in.results.states) {
        const std::string on = nameOf(in.project, state->source);
        for (Ref node : state->below) {
            const Board* b = in.project.boards.find(node.as<Board>());
            if (!b) continue;
            const Worse w = worseOn(in, *state, b->id);
            if (w.late > 0)
                into.push_back({&self, Severity::Stop, b->id,
                                fmt::format("{}: on {} the devices of {} circuit{} do not open in time", b->name, on,
                                            w.late, w.late == 1 ? "" : "s"),
                                in.book.cite("loop")});
            if (w.lossy > 0)
                into.push_back(
                    {&self, Severity::Check, b->id,
                     fmt::format("{}: on {} {} circuit{} over {} %, the worst loses {}", b->name, on, w.lossy,
                                 w.lossy == 1 ? " goes" : "s go", figures(w.limit), percent(w.lost)),
                     in.book.cite("dropBranch")});
        }
    }
}

void find(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        if (b.use == BoardUse::TransferSwitch && !b.alternate)
            into.push_back({&self, Severity::Check, b.id, b.name + ": nothing takes over when its feed fails", ""});
        if (!b.alternate) continue;
        const std::string from = nameOf(in.project, b.alternate);
        const SourceId source = sourceOf(in.project, b.alternate);
        if (const VoltageSystem given = systemGiven(in.project, b.alternate); !systemsAgree(given, b.system))
            into.push_back({&self, Severity::Stop, b.id,
                            fmt::format("{} is for {} V and would be taken over at {} V by {}", b.name,
                                        wordOf(b.system), wordOf(given), from),
                            ""});
        else if (!source)
            into.push_back({&self, Severity::Check, b.id,
                            fmt::format("{}: {}, which takes over, is not fed from anywhere", b.name, from), ""});
    }
    findStates(in, self, into);
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const BoardId id = s.about.as<Board>();
    const Board& b = in.project.boards[id];
    std::vector<Remedy> out;
    if (b.alternate) out.push_back({"Let nothing take it over", [=](Project& p) { alternateFrom(p, id, {}); }});
    for (const Source& g : in.project.sources)
        if (out.size() < 3 && b.alternate != Ref(g.id) && sourceOf(in.project, id) != g.id &&
            !refuseAlternate(in.project, id, g.id))
            out.push_back(
                {"Let " + g.name + " take it over", [=, source = g.id](Project& p) { alternateFrom(p, id, source); }});
    if (!b.alternate)
        out.push_back(
            {"Make it a disconnect switch", [=](Project& p) { p.boards.change(id)->use = BoardUse::Disconnect; }});
    return out;
}

/// Equipment that passes on, in its own terms.
void findUps(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const Board& b : in.project.boards) {
        if (b.use != BoardUse::Ups) continue;
        const BoardResult& r = in.results.of(b.id);
        if (b.kva <= 0)
            into.push_back({&self, Severity::Check, b.id, b.name + ": its kVA are not entered", ""});
        else if (r.demand > b.kva * 1000 * 1.0005)
            into.push_back({&self, Severity::Stop, b.id,
                            fmt::format("{}: {} kVA of demand on {} kVA", b.name, kilo(r.demand), rating(b.kva)), ""});
    }
}
std::vector<Remedy> upsRemedies(const CheckInput& in, const Snag& s) {
    const BoardId id = s.about.as<Board>();
    const double demand = in.results.of(id).demand / 1000;
    const auto& series = in.book.tables.generatorKva;
    const auto next = std::find_if(series.begin(), series.end(), [&](double kva) { return kva >= demand; });
    if (demand <= 0 || next == series.end()) return {};
    return {{fmt::format("{} kVA, the next above its demand", rating(*next)),
             [=, kva = *next](Project& p) { p.boards.change(id)->kva = kva; }}};
}

} // namespace

extern const CheckRule alternateRule, upsRule;
const CheckRule alternateRule{.id = "alternate", .remedies = remedies, .find = find};
const CheckRule upsRule{.id = "ups", .remedies = upsRemedies, .find = findUps};

} // namespace lintel
