// What takes over from a feed: a transfer switch without a second one, another voltage, and what is within its limits
// on the normal supply and is not on the alternate one.

#include "core/base/Counted.h"
#include "core/base/Format.h"
#include "core/check/Check.h"
#include "core/check/WhatHelps.h"
#include "core/project/AddBelow.h"
#include "core/project/Operations.h"
#include "core/solve/Solve.h"
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
    std::vector<CircuitId> lossy, late;
    double lost = 0, limit = 0;
    bool none() const { return lossy.empty() && late.empty(); }
};
Worse worseOn(const CheckInput& in, const StateSolution& state, BoardId board) {
    Worse w;
    for (CircuitId id : in.results.on(board)) {
        const CircuitResult &normal = in.results.of(id), &on = state.results.of(id);
        if (normal.feeder || normal.va <= 0) continue;
        if (fails(on.run) && !fails(normal.run)) {
            w.lossy.push_back(id);
            w.lost = std::max(w.lost, on.run.dropTotal);
            w.limit = on.run.need.totalLimit;
        }
        if (opensLate(on.run) && !opensLate(normal.run)) w.late.push_back(id);
    }
    return w;
}

/// Conductors that are in use in both states, and are protected in the normal one only.
bool unprotected(const CheckInput& in, const StateSolution& state, Ref node) {
    const NodeResult &normal = *in.results.node(node), &on = *state.results.node(node);
    return !state.takesOver(node.as<Board>()) && on.run.size >= 0 && on.run.tooSmall && !normal.run.tooSmall;
}

void findStates(const CheckInput& in, const CheckRule& self, std::vector<Snag>& into) {
    for (const auto& state : in.results.states) {
        const std::string on = nameOf(in.project, state->source);
        for (BoardId taker : state->takers) {
            const RunResult& run = *in.results.of(taker).alternateRun;
            const std::string name = fmt::format("{}: the conductors from {}", in.project.boards[taker].name,
                                                 nameOf(in.project, in.project.boards[taker].alternate));
            if (run.size < 0 && run.need.required.v > 0)
                into.push_back({&self, Severity::Stop, taker,
                                fmt::format("{}: nothing carries {} A", name, figures(run.need.required.v)),
                                in.book.cite("rating")});
            else if (run.tooSmall)
                into.push_back({&self, Severity::Stop, taker,
                                fmt::format("{}: {} is held and carries {} A, for {} A behind {} A", name,
                                            sizeWords(in.book, run.size), figures(run.ampacity),
                                            figures(run.need.required.v), figures(run.need.device)),
                                in.book.cite("rating")});
            else if (run.need.lengthKnown && run.dropOwn > run.need.ownLimit + 1e-9)
                into.push_back(
                    {&self, Severity::Check, taker,
                     fmt::format("{}: {} lost, limit {} %", name, percent(run.dropOwn), figures(run.need.ownLimit)),
                     in.book.cite("dropFeeder")});
        }
        for (Ref node : state->below) {
            if (unprotected(in, *state, node)) {
                const RunResult& run = state->results.node(node)->run;
                into.push_back({&self, Severity::Stop, node,
                                fmt::format("{}: on {} its conductors carry {} A behind {} A", nameOf(in.project, node),
                                            on, figures(run.ampacity), figures(run.need.device)),
                                in.book.cite("rating")});
            }
            const Board* b = in.project.boards.find(node.as<Board>());
            if (!b) continue;
            const Worse w = worseOn(in, *state, b->id);
            if (!w.late.empty())
                into.push_back({&self, Severity::Stop, b->id,
                                fmt::format("{}: on {} the devices of {} do not open in time", b->name, on,
                                            counted(w.late.size(), "circuit")),
                                in.book.cite("loop")});
            if (!w.lossy.empty())
                into.push_back({&self, Severity::Check, b->id,
                                fmt::format("{}: on {} {} over {} %, the worst loses {}", b->name, on,
                                            counted(w.lossy.size(), "circuit goes", "circuits go"), figures(w.limit),
                                            percent(w.lost)),
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

/// The board at or above this one that changes over in a state; nothing where none does.
BoardId takerAbove(const CheckInput& in, const StateSolution& state, Ref at) {
    for (std::size_t guard = 0; at && guard <= in.results.order.size(); ++guard) {
        if (const BoardId b = at.as<Board>(); state.takesOver(b)) return b;
        at = in.results.node(at)->parent;
    }
    return {};
}

/// The smallest conductors from what takes over with which nothing below is worse than on the normal supply; empty:
/// none.
std::string sizeThatHelps(const CheckInput& in, BoardId taker, BoardId board, SourceId source) {
    const RunResult& now = *in.results.of(taker).alternateRun;
    for (SizeIndex size = now.size + 1; size < SizeIndex(in.book.sizes().size()); ++size) {
        if (now.size < 0 || !in.book.choosable(size, now.need.material)) continue;
        const std::string name = in.book.sizes()[std::size_t(size)].name;
        Project p = in.project;
        alternateRunOf(p, taker).heldSize = name;
        const Results r = solve(p, in.book);
        const CheckInput then{p, in.book, r};
        for (const auto& state : r.states) {
            if (state->source != source) continue;
            if (worseOn(then, *state, board).none()) return name;
        }
    }
    return "";
}

/// What helps the circuits of a board that are worse in a state, at each by itself: residual-current devices where they
/// open late, larger conductors where too much is lost. Only what helps all of them.
void circuitRemedies(const CheckInput& in, const StateSolution& state, const Worse& w, bool late,
                     std::vector<Remedy>& out) {
    const auto& worse = late ? w.late : w.lossy;
    const std::string of = worse.size() == 1 ? nameOfRun(in.project, worse.front()) : counted(worse.size(), "circuit");
    const SizingRules rules = sizingRules(in.project.basis, in.book);
    std::vector<double> mA;
    std::vector<std::pair<std::string, int>> sizes; // and sets
    for (CircuitId id : worse) {
        const RunResult& run = state.results.of(id).run;
        if (const auto residual = late ? residualThatOpens(run, rules, in.book) : std::nullopt)
            mA.push_back(*residual);
        else if (const auto size = late ? std::nullopt : sizeWithinDrop(run, in.book))
            sizes.emplace_back(in.book.sizes()[std::size_t(*size)].name, run.sets > 1 ? run.sets : 0);
        else
            return;
    }
    if (late && !worse.empty())
        out.push_back({fmt::format("{} of {} mA on {}",
                                   worse.size() == 1 ? "A residual-current device" : "Residual-current devices",
                                   number(*std::max_element(mA.begin(), mA.end())), of),
                       [=](Project& p) {
                           for (std::size_t i = 0; i < worse.size(); ++i) p.circuits.change(worse[i])->residual = mA[i];
                       }});
    else if (!worse.empty())
        out.push_back({fmt::format("Hold larger conductors on {}", of), [=](Project& p) {
                           for (std::size_t i = 0; i < worse.size(); ++i) {
                               Run& run = runOf(p, worse[i]);
                               run.heldSize = sizes[i].first;
                               run.heldSets = sizes[i].second;
                           }
                       }});
}

/// A device at the head of the alternate conductors, as large as the one on the normal supply.
void protectRemedies(const CheckInput& in, Ref about, std::vector<Remedy>& out) {
    for (const StateSolution* state : statesOf(in.project, in.results, about)) {
        const BoardId taker = takerAbove(in, *state, about);
        const double amps = in.results.node(about)->run.need.device;
        if (!taker || !unprotected(in, *state, about) || amps <= 0) continue;
        out.push_back({fmt::format("{} A device at {}, before {}", rating(amps), nameOf(in.project, state->source),
                                   in.project.boards[taker].name),
                       [=](Project& p) { protectAlternate(p, taker, amps); }});
    }
}

std::vector<Remedy> remedies(const CheckInput& in, const Snag& s) {
    const BoardId id = s.about.as<Board>();
    std::vector<Remedy> out;
    protectRemedies(in, s.about, out);
    if (!out.empty() || !id) return out;
    if (const auto& run = in.results.of(id).alternateRun;
        run && run->state == Sizing::Held && (run->tooSmall || run->dropOwn > run->need.ownLimit + 1e-9))
        out.push_back({"Let its conductors be sized", [=](Project& p) {
                           alternateRunOf(p, id).heldSize.clear();
                           alternateRunOf(p, id).heldSets = 0;
                       }});
    if (!out.empty()) return out;
    bool worse = false;
    for (const StateSolution* state : statesOf(in.project, in.results, id)) {
        const Worse w = worseOn(in, *state, id);
        const BoardId taker = takerAbove(in, *state, id);
        if (!taker || w.none()) continue;
        worse = true;
        const std::string from = nameOf(in.project, state->source), name = in.project.boards[taker].name;
        if (const std::string size = sizeThatHelps(in, taker, id, state->source); !size.empty())
            out.push_back({fmt::format("Hold the conductors from {} to {} at {}", from, name, size),
                           [=](Project& p) { alternateRunOf(p, taker).heldSize = size; }});
        circuitRemedies(in, *state, w, s.severity == Severity::Stop, out);
        if (in.project.boards[taker].use != BoardUse::TransferSwitch)
            out.push_back(
                {fmt::format("Let nothing take {} over", name), [=](Project& p) { alternateFrom(p, taker, {}); }});
    }
    // What takes over is not amiss then, and another source would not mend it.
    if (worse) return out;
    const Board& b = in.project.boards[id];
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

} // namespace

extern const CheckRule alternateRule;
const CheckRule alternateRule{.id = "alternate", .remedies = remedies, .find = find};

} // namespace lintel
