#include "core/project/AddBelow.h"

#include "core/base/Counted.h"
#include "core/project/BoardSize.h"
#include "core/project/FreshId.h"
#include "core/project/LevelOf.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

#include <set>

namespace lintel {
namespace {

/// A board like those of its kind that there are: their form, their places and how they are called.
Board likeOthers(const Project& p, BoardUse use, VoltageSystem system) {
    const Board* like = nullptr;
    for (const Board& b : p.boards)
        if (b.use == use && (!like || b.system == system || like->system != system)) like = &b;
    Board made;
    made.use = use;
    made.system = system;
    const char* usual = use == BoardUse::Panelboard     ? isMetric(system) ? "DB-1" : "LP-1"
                        : use == BoardUse::MotorControl ? "MCC-1"
                        : use == BoardUse::Busway       ? "BW-1"
                                                        : "MDS-1";
    made.name = freeBoardName(p, like ? like->name : usual);
    const bool ways =
        like ? like->form == BoardForm::Ways : isMetric(system) || use == BoardUse::Busway; // a way for each tap-off
    if (like) made.form = like->form;
    if (ways) takeUsualWays(made);
    return made;
}

/// The low voltage that goes with a high one; what the transformers of the project make of it comes first.
VoltageSystem secondaryFor(const Project& p, VoltageSystem primary) {
    for (const Transformer& t : p.transformers)
        if (t.primary == primary) return t.secondary;
    if (isMediumVoltage(primary)) return isMetric(primary) ? VoltageSystem::Y400 : VoltageSystem::Y480;
    if (factsOf(primary).phases == 1) return isMetric(primary) ? VoltageSystem::S230 : VoltageSystem::S240;
    return isMetric(primary) ? VoltageSystem::Y400 : VoltageSystem::Y208;
}

/// It is made, fed from nothing yet.
Ref make(Project& p, Ref from, NewBelow what) {
    const VoltageSystem given = systemGiven(p, from);
    if (what == NewBelow::Transformer) {
        Transformer t;
        t.name = freeBoardName(p, "T-1");
        t.primary = given;
        t.secondary = secondaryFor(p, t.primary);
        t.level = levelOf(p, from);
        t.onPlan = false;
        t.run = p.runs.add({});
        return addFresh(p, &Project::transformers, t);
    }
    const BoardUse use = what == NewBelow::Board         ? BoardUse::Panelboard
                         : what == NewBelow::Switchboard ? BoardUse::Switchboard
                         : what == NewBelow::Busway      ? BoardUse::Busway
                                                         : BoardUse::MotorControl;
    Board b = likeOthers(p, use, given);
    b.level = levelOf(p, from);
    b.onPlan = false;
    return addBoard(p, b);
}

} // namespace

Board newPanelboard(const Project& p, VoltageSystem usual) {
    VoltageSystem system = usual;
    for (const Board& b : p.boards)
        if (b.use == BoardUse::Panelboard) system = b.system;
    return likeOthers(p, BoardUse::Panelboard, system);
}

std::optional<Error> refuseBelow(const Project& p, Ref from, NewBelow what) {
    if (!from.is<Board>() && !from.is<Transformer>() && !from.is<Source>())
        return Error{nameOf(p, from), "it feeds nothing", "Choose a board, transformer or source."};
    Project trial = p;
    return refuseFeed(trial, make(trial, from, what), from);
}

Ref addBelow(Project& p, Ref from, NewBelow what) {
    const std::string name = freeFeederName(p);
    const Ref made = make(p, from, what);
    runOfNode(p, made).name = name;
    feedFrom(p, made, from);
    return made;
}

std::optional<Error> refuseTransformerBefore(const Project& p, BoardId board) {
    const Board& b = p.boards[board];
    if (!b.feed) return Error{b.name, b.name + " is fed from nothing", "Feed it first."};
    if (b.feed.is<Transformer>())
        return Error{b.name, nameOf(p, b.feed) + " feeds it: a transformer is fed from a board or a source", ""};
    const SystemFacts given = factsOf(systemGiven(p, b.feed)), taken = factsOf(b.system);
    if (taken.phases > given.phases)
        return Error{b.name, "no transformer makes three phases of one", "Feed it from three phases."};
    const Circuit* c = p.circuits.find(b.feed.as<Circuit>());
    if (c && c->poles != std::min(3, given.lines))
        return Error{b.name,
                     fmt::format("{} has {}, and its primary needs {}", nameOf(p, b.feed), counted(c->poles, "pole"),
                                 std::min(3, given.lines)),
                     "Give the breaker its poles first."};
    return std::nullopt;
}

TransformerId insertTransformer(Project& p, BoardId board, double kva) {
    const std::string name = freeFeederName(p);
    Board& b = *p.boards.change(board);
    Transformer t;
    t.name = freeBoardName(p, "T-1");
    t.kva = kva;
    t.primary = systemGiven(p, b.feed);
    t.secondary = b.system;
    t.feed = b.feed;
    t.run = runOfNode(p, board).id;
    t.level = b.level;
    t.onPlan = false;
    Run between;
    between.name = name;
    b.run = p.runs.add(between);
    const TransformerId made = addFresh(p, &Project::transformers, t);
    p.boards.change(board)->feed = made;
    return made;
}

SourceId addGenerator(Project& p, BoardId board, double kva) {
    std::set<std::string> taken;
    for (const Source& s : p.sources) taken.insert(s.name);
    Source g;
    int n = 1;
    while (taken.count("G-" + std::to_string(n))) ++n;
    g.name = "G-" + std::to_string(n);
    g.kind = SourceKind::Generator;
    g.kva = kva;
    g.system = p.boards[board].system;
    g.level = p.boards[board].level;
    g.onPlan = false;
    const SourceId id = addFresh(p, &Project::sources, g);
    alternateFrom(p, board, id);
    return id;
}

BoardId protectAlternate(Project& p, BoardId taker, double amps) {
    const Board& b = p.boards[taker];
    Board e;
    e.use = BoardUse::ServiceDisconnect;
    e.name = freeBoardName(p, "GD-1");
    e.slots = 0;
    e.system = systemGiven(p, b.alternate);
    e.bus = e.main = amps;
    e.ratingKA = b.ratingKA;
    e.feed = b.alternate;
    const Ref from =
        p.circuits.has(b.alternate.as<Circuit>()) ? Ref(p.circuits[b.alternate.as<Circuit>()].board) : b.alternate;
    e.level = levelOf(p, from);
    e.onPlan = false;
    Run between;
    between.name = freeFeederName(p);
    e.run = p.runs.add(between);
    const BoardId made = addFresh(p, &Project::boards, e);
    p.boards.change(taker)->alternate = made;
    return made;
}

} // namespace lintel
