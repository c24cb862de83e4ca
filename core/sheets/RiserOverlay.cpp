#include "core/sheets/RiserOverlay.h"

#include "core/base/Format.h"
#include "core/figures/Words.h"
#include "core/project/BoardSize.h"
#include "core/project/Equipment.h"
#include "core/project/FaultRating.h"
#include "core/project/FreePlaces.h"
#include "core/sheets/Sheets.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/States.h"

#include <fmt/format.h>

#include <algorithm>

namespace lintel {
namespace {

/// Where the shades change: shares of what is allowed, and % of imbalance.
constexpr double half = 0.5, most = 0.8, level = 10, uneven = 20;

std::string counted(int n, const char* one, const char* many) { return fmt::format("{} {}", n, n == 1 ? one : many); }

void say(OverlayWords& to, const std::string& words) {
    if (!words.empty()) to.words.push_back(words);
}

OverlayWords useOf(const SheetInput& in, Ref thing) {
    OverlayWords w;
    const NodeResult& n = *in.results.node(thing);
    if (auto* b = in.project.boards.find(thing.as<Board>())) {
        w.share = in.results.of(b->id).use;
        const double amps = demandOf(n);
        const double limit = mostAmps(*b);
        say(w, fmt::format("{} A of {}", figures(amps), number(limit)));
    } else if (auto* t = in.project.transformers.find(thing.as<Transformer>())) {
        w.share = in.results.of(t->id).use;
        say(w, fmt::format("{} kVA of {}", kilo(n.demand, 1), rating(t->kva)));
    } else {
        say(w, kilo(n.demand, 1) + " kVA");
        return w;
    }
    w.over = w.share > 1;
    say(w, percent(w.share * 100) + (w.over ? " used, over" : " used"));
    return w;
}

OverlayWords phasesOf(const SheetInput& in, Ref thing) {
    OverlayWords w;
    const NodeResult& n = *in.results.node(thing);
    say(w, fmt::format("{} kVA, demand {}", kilo(n.connected, 1), kilo(n.demand, 1)));
    const double all = n.phaseVa[0] + n.phaseVa[1] + n.phaseVa[2];
    const Board* b = in.project.boards.find(thing.as<Board>());
    const int lines = b ? factsOf(b->system).lines : 3;
    if (all <= 0 || lines < 2) return w;
    std::string shares;
    for (int line = 0; line < lines; ++line)
        shares += fmt::format("{}{:.1f}", line ? " · " : "", n.phaseVa[std::size_t(line)] / all * 100);
    say(w, shares + " %");
    say(w, percent(n.imbalance) + " imbalance");
    w.share = n.imbalance < level ? 0 : n.imbalance < uneven ? half : most;
    return w;
}

OverlayWords dropOf(const SheetInput& in, Ref thing) {
    OverlayWords w;
    const NodeResult& n = *in.results.node(thing);
    const double limit = n.parent ? n.run.need.totalLimit : in.project.basis.totalDropLimit;
    say(w, fmt::format("{} of {:g} %", dropWords(n.dropTotal, n.dropKnown), limit));
    if (limit > 0) w.share = n.dropTotal / limit;
    w.over = w.share > 1;
    return w;
}

OverlayWords faultOf(const SheetInput& in, Ref thing) {
    OverlayWords w;
    FaultPoint fault = in.results.node(thing)->fault;
    if (thing.is<Transformer>()) fault = in.results.of(thing.as<Transformer>()).secondary;
    if (!fault.known) return {{"not known"}, -1, false, false};
    if (auto* b = in.project.boards.find(thing.as<Board>())) {
        const LargestFault largest = largestFault(in.project, in.results, b->id);
        const double holds = holdsKA(*b);
        w.over = faultExceeds(largest.kA, holds);
        if (holds > 0) w.share = largest.kA / holds;
        const std::string words = largest.source ? figures(largest.kA) : faultWords(fault);
        say(w, fmt::format("{} kA of {}{}", words, figures(holds), w.over ? ", over" : ""));
        if (largest.source) say(w, "on " + nameOf(in.project, largest.source));
    } else {
        say(w, faultWords(fault) + " kA");
    }
    if (fault.lineGround > 0) say(w, figures(fault.lineGround) + " kA line to " + in.book.word(TradeWord::Earth));
    say(w, figures(fault.peak()) + " kA peak");
    return w;
}

OverlayWords spaceOf(const SheetInput& in, Ref thing) {
    OverlayWords w;
    const Board* b = in.project.boards.find(thing.as<Board>());
    if (!b || passesOn(b->use) || b->slots < 1) return w;
    const int free = freePlaces(in.project, *b, in.results.on(b->id));
    w.share = 1 - double(free) / b->slots;
    say(w, fmt::format("{} of {} places free", free, b->slots));
    if (b->reservedShare > 0) {
        const int kept = placesReserved(*b, b->slots);
        say(w, fmt::format("{} to stay free", kept));
        w.over = free < kept;
    }
    return w;
}

OverlayWords snagsOf(Ref thing, const RiserShow& show) {
    OverlayWords w;
    const auto at = show.snags.find(thing);
    const SnagCount n = at == show.snags.end() ? SnagCount{} : at->second;
    if (n.stops > 0) say(w, counted(n.stops, "stop", "stops"));
    if (n.checks > 0) say(w, counted(n.checks, "check", "checks"));
    if (w.words.empty()) say(w, "no snags");
    w.over = n.stops > 0;
    w.share = n.stops > 0 ? 2 : n.checks > 0 ? most : 0;
    return w;
}

OverlayWords changesOf(Ref thing, const RiserShow& show) {
    OverlayWords w;
    const auto at = show.changes.find(thing);
    const ChangeCount n = at == show.changes.end() ? ChangeCount{} : at->second;
    if (n.added) say(w, "new");
    if (n.entered > n.added) say(w, counted(n.entered - n.added, "value entered", "values entered"));
    if (n.follows > 0) say(w, counted(n.follows, "result differs", "results differ"));
    if (w.words.empty()) say(w, "as it was");
    w.share = n.entered > 0 ? most : n.follows > 0 ? half : 0;
    return w;
}

/// What is known of a load that is drawn as a thing of its own.
OverlayWords loadWords(const SheetInput& in, CircuitId id, const RiserShow& show) {
    if (show.overlay == RiserOverlay::Changes) return changesOf(id, show);
    const CircuitResult& r = in.results.of(id);
    const RunResult& run = r.run;
    OverlayWords w;
    const auto compare = [&](double value, double limit) {
        if (limit > 0) w.share = value / limit;
        w.over = w.share > 1;
    };
    switch (show.overlay) {
    case RiserOverlay::Use:
        say(w, fmt::format("{} A of {}", figures(r.load.v), rating(r.device)));
        compare(r.load.v, r.device);
        break;
    case RiserOverlay::Phases:
        say(w, kilo(r.va) + " kVA");
        break;
    case RiserOverlay::Drop:
        say(w, fmt::format("{} of {:g} %", dropWords(run.dropTotal, run.need.lengthKnown && run.need.beforeKnown),
                           run.need.totalLimit));
        compare(run.dropTotal, run.need.totalLimit);
        break;
    case RiserOverlay::Fault:
        say(w, r.faultEnd > 0 ? figures(r.faultEnd) + " kA" : std::string("not known"));
        break;
    default:
        break;
    }
    return w;
}

const StateSolution* stateOf(const SheetInput& in, SourceId source) {
    for (const auto& state : in.results.states)
        if (state->source == source) return state.get();
    return nullptr;
}

OverlayWords supplyOf(const SheetInput& in, Ref thing, const RiserShow& show) {
    const StateSolution* state = stateOf(in, show.supply);
    const Project& p = state ? state->project : in.project;
    const Results& r = state ? state->results : in.results;
    OverlayWords w;
    const NodeResult* n = r.knows(thing) ? r.node(thing) : nullptr;
    const auto isBelow = [&] {
        return thing == Ref(state->source) ||
               std::find(state->below.begin(), state->below.end(), thing) != state->below.end();
    };
    w.off = !n || (state ? !isBelow() : !n->fed && !thing.is<Source>());
    if (w.off) return {{"off"}, -1, false, true};
    const auto* b = p.boards.find(thing.as<Board>());
    if (n->parent)
        say(w, fmt::format("{} kVA, {} A", kilo(n->demand, 1), figures(demandOf(*n))));
    else if (auto* s = p.sources.find(thing.as<Source>()))
        say(w, hasRating(s->kind) ? fmt::format("{} kVA of {}", kilo(n->demand, 1), rating(s->kva))
                                  : kilo(n->demand, 1) + " kVA");
    const FaultPoint& fault = thing.is<Transformer>() ? r.of(thing.as<Transformer>()).secondary : n->fault;
    if (fault.known) say(w, faultWords(fault) + " kA");
    if (n->parent) say(w, dropWords(n->dropTotal, n->dropKnown) + " drop");
    w.share = b ? r.of(b->id).use : thing.is<Transformer>() ? r.of(thing.as<Transformer>()).use : 0;
    w.over = w.share > 1;
    return w;
}

} // namespace

const char* titleOf(RiserOverlay o) {
    constexpr const char* titles[] = {"Sizes",      "Used",  "Load and phases",     "Drop",   "Fault levels",
                                      "Space left", "Snags", "State of the supply", "Changes"};
    return titles[int(o)];
}

OverlayWords overlayWords(const SheetInput& in, Ref thing, const RiserShow& show) {
    if (thing.is<Circuit>()) {
        const CircuitId id = thing.as<Circuit>();
        if (show.overlay != RiserOverlay::Supply) return loadWords(in, id, show);
        // It is live where its board is.
        OverlayWords board = supplyOf(in, in.project.circuits[id].board, show);
        if (board.off) return board;
        return {{fmt::format("{} A", figures(in.results.of(id).load.v))}, -1, false, false};
    }
    switch (show.overlay) {
    case RiserOverlay::None:
        return {};
    case RiserOverlay::Use:
        return useOf(in, thing);
    case RiserOverlay::Phases:
        return phasesOf(in, thing);
    case RiserOverlay::Drop:
        return dropOf(in, thing);
    case RiserOverlay::Fault:
        return faultOf(in, thing);
    case RiserOverlay::Space:
        return spaceOf(in, thing);
    case RiserOverlay::Snags:
        return snagsOf(thing, show);
    case RiserOverlay::Supply:
        return supplyOf(in, thing, show);
    case RiserOverlay::Changes:
        return changesOf(thing, show);
    }
    return {};
}

std::vector<std::string> overlayFeeder(const SheetInput& in, Ref thing, const RiserShow& show) {
    const NodeResult* n = in.results.node(thing);
    if (!thing.is<Circuit>() && (!n || !n->parent)) return {};
    const RunResult& run = *in.results.run(thing);
    if (show.overlay == RiserOverlay::Use && run.size >= 0) {
        const double amps = n ? demandOf(*n) : in.results.of(thing.as<Circuit>()).load.v;
        return {fmt::format("{} A of {}", figures(amps), figures(run.ampacity))};
    }
    if (show.overlay == RiserOverlay::Drop) {
        if (!run.need.lengthKnown) return {"length not known"};
        return {fmt::format("{} of {:g} %", percent(run.dropOwn), run.need.ownLimit),
                lengthOf(run.need, in.project.basis.units)};
    }
    return {};
}

std::vector<ShadeStep> shadesOf(RiserOverlay o) {
    switch (o) {
    case RiserOverlay::None:
        return {};
    case RiserOverlay::Phases:
        return {{Ink::Shade1, "imbalance below 10 %"}, {Ink::Shade2, "10 to 20 %"}, {Ink::Shade3, "20 % and more"}};
    case RiserOverlay::Snags:
        return {{Ink::Shade1, "no snags"}, {Ink::Shade3, "checks"}, {Ink::Shade4, "stops"}};
    case RiserOverlay::Changes:
        return {{Ink::Shade1, "as it was"}, {Ink::Shade2, "results differ"}, {Ink::Shade3, "entered otherwise"}};
    case RiserOverlay::Space:
        return {{Ink::Shade1, "half free"},
                {Ink::Shade2, "a fifth free"},
                {Ink::Shade3, "less"},
                {Ink::Shade4, "less than is to stay free"}};
    case RiserOverlay::Supply:
        return {{Ink::Shade1, "below 50 % used"},
                {Ink::Shade2, "50 to 80 %"},
                {Ink::Shade3, "80 to 100 %"},
                {Ink::Shade4, "over"}};
    default:
        return {{Ink::Shade1, "below 50 %"},
                {Ink::Shade2, "50 to 80 %"},
                {Ink::Shade3, "80 to 100 %"},
                {Ink::Shade4, "over"}};
    }
}

Ink shadeOf(const OverlayWords& w) {
    if (w.over) return Ink::Shade4;
    if (w.share < 0) return Ink::Paper;
    return w.share < half ? Ink::Shade1 : w.share < most ? Ink::Shade2 : Ink::Shade3;
}

} // namespace lintel
