#include "core/project/Operations.h"

#include "core/project/BoardSize.h"
#include "core/project/FreshId.h"
#include "core/project/Slots.h"
#include "core/project/TakeLoadsOff.h"

#include <fmt/format.h>
#include <map>
#include <set>
#include <utility>

namespace lintel {

namespace {
void putOn(const Board& b, const Circuit& c, std::vector<CircuitId>& map) {
    for (int i = 0; i < c.poles; ++i)
        if (!slotOfPole(b, c.slot, i, c.poles)) return;
    for (int i = 0; i < c.poles; ++i)
        if (CircuitId& there = map[std::size_t(slotOfPole(b, c.slot, i, c.poles))]; !there) there = c.id;
}
} // namespace

std::vector<CircuitId> slotMap(const Project& p, BoardId id, CircuitId except) {
    const Board* b = p.boards.find(id);
    std::vector<CircuitId> map(b ? std::size_t(b->slots) + 1 : 1);
    if (b)
        for (const Circuit& c : p.circuits)
            if (c.board == id && c.id != except) putOn(*b, c, map);
    return map;
}

std::vector<CircuitId> slotMap(const Project& p, const Board& b, std::span<const CircuitId> circuits) {
    std::vector<CircuitId> map(std::size_t(b.slots) + 1);
    for (CircuitId c : circuits) putOn(b, p.circuits[c], map);
    return map;
}

namespace {
bool fits(const Board& b, const std::vector<CircuitId>& map, int slot, int poles) {
    const auto taken = slotsTaken(b, slot, poles);
    return !taken.empty() && std::none_of(taken.begin(), taken.end(), [&](int s) { return bool(map[std::size_t(s)]); });
}
} // namespace

int firstFreeSlot(const Project& p, BoardId id, int poles, CircuitId except) {
    const Board* b = p.boards.find(id);
    if (!b) return 0;
    const auto map = slotMap(p, id, except);
    for (int s = 1; s <= b->slots; ++s)
        if (fits(*b, map, s, poles)) return s;
    return 0;
}

int freeSlots(const Project& p, BoardId id) {
    const auto map = slotMap(p, id);
    return int(std::count(map.begin() + 1, map.end(), CircuitId{}));
}

CircuitId addCircuit(Project& p, BoardId board, int poles, const std::string& name, CircuitUse use) {
    Circuit c;
    c.board = board;
    c.poles = poles;
    c.name = name;
    c.use = use;
    c.slot = firstFreeSlot(p, board, poles);
    if (use == CircuitUse::Load) c.run = p.runs.add({});
    return addFresh(p, &Project::circuits, std::move(c));
}

namespace {
/// What was put somewhere on the riser, and is gone.
void forgetPlace(Project& p, Ref gone) {
    std::vector<RiserPlaceId> places;
    for (const RiserPlace& place : p.riserPlaces)
        if (place.about == gone) places.push_back(place.id);
    for (RiserPlaceId id : places) p.riserPlaces.remove(id);
}
} // namespace

void removeCircuit(Project& p, CircuitId id) {
    const Circuit* c = p.circuits.find(id);
    if (!c) return;
    takeLoadsOff(p, id);
    if (const Ref fed = fedBy(p, id)) {
        if (!fed.is<Board>())
            p.transformers.change(fed.as<Transformer>())->feed = {};
        else if (Board& b = *p.boards.change(fed.as<Board>()); b.feed == Ref(id))
            b.feed = {};
        else {
            b.alternate = {};
            p.runs.remove(b.alternateRun);
            b.alternateRun = {};
        }
    }
    forgetPlace(p, id);
    p.runs.remove(c->run);
    p.circuits.remove(id);
}

std::string nameForDevices(const Project& p, const std::vector<DeviceId>& devices) {
    std::map<std::string, int> kinds, rooms;
    for (DeviceId id : devices) {
        const Device* d = p.devices.find(id);
        if (!d) continue;
        const DeviceType* y = p.deviceTypes.find(d->type);
        if (!d->tag.empty())
            ++kinds[d->tag];
        else if (y)
            ++kinds[y->kind == LoadKind::Receptacle ? "Receptacles"
                    : y->kind == LoadKind::Lighting ? "Lighting"
                                                    : y->name];
        if (const RoomId room = roomAt(p, d->level, d->at)) ++rooms[nameOf(p, room)];
    }
    const auto most = [](const std::map<std::string, int>& m) {
        return m.empty() ? std::string() : std::max_element(m.begin(), m.end(), [](const auto& a, const auto& b) {
                                               return a.second < b.second;
                                           })->first;
    };
    const std::string what = most(kinds), where = most(rooms);
    return what.empty() ? where : where.empty() ? what : what + ", " + where;
}

void circuitDevices(Project& p, const std::vector<DeviceId>& devices, CircuitId id) {
    for (DeviceId d : devices)
        if (p.devices.has(d)) p.devices.change(d)->circuit = id;
    Circuit* c = p.circuits.change(id);
    if (c && c->name.empty()) c->name = c->madeName = nameForDevices(p, devices);
    if (c && !c->run) c->run = p.runs.add({});
}

CircuitId circuitToBoard(Project& p, const std::vector<DeviceId>& devices, BoardId board) {
    int poles = 1;
    for (DeviceId d : devices)
        if (const Device* x = p.devices.find(d))
            if (const DeviceType* y = p.deviceTypes.find(x->type)) poles = std::max(poles, y->poles);
    if (const Board* b = p.boards.find(board)) poles = std::min(poles, factsOf(b->system).lines);
    const CircuitId c = addCircuit(p, board, poles, "");
    circuitDevices(p, devices, c);
    return c;
}

CircuitId circuitLoad(Project& p, LoadId load, BoardId board, int slot) {
    const Load& l = p.loads[load];
    const CircuitId c = addCircuit(p, board, std::min(l.poles, factsOf(p.boards[board].system).lines), l.name);
    if (slot > 0) {
        Project trial = p;
        trial.circuits.change(c)->slot = 0;
        if (const MovePlan plan = planMove(trial, c, slot); plan.possible) p.circuits.change(c)->slot = slot;
    }
    p.loads.change(load)->circuit = c;
    return c;
}

Run& runOf(Project& p, CircuitId id) {
    Circuit& c = *p.circuits.change(id);
    if (const Ref fed = fedBy(p, id)) {
        const Board* b = p.boards.find(fed.as<Board>());
        return b && b->feed != Ref(id) ? alternateRunOf(p, b->id) : runOfNode(p, fed);
    }
    if (!p.runs.has(c.run)) c.run = p.runs.add({});
    return *p.runs.change(c.run);
}

Run& runOf(Project& p, Ref thing) { return thing.is<Circuit>() ? runOf(p, thing.as<Circuit>()) : runOfNode(p, thing); }

const Run* enteredRun(const Project& p, Ref thing) {
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) return p.runs.find(c->run);
    if (const Board* b = p.boards.find(thing.as<Board>())) return p.runs.find(b->run);
    if (const Transformer* t = p.transformers.find(thing.as<Transformer>())) return p.runs.find(t->run);
    return nullptr;
}

Run& runOfNode(Project& p, Ref node) {
    RunId* id = nullptr;
    if (node.is<Board>())
        id = &p.boards.change(node.as<Board>())->run;
    else
        id = &p.transformers.change(node.as<Transformer>())->run;
    if (!p.runs.has(*id)) *id = p.runs.add({});
    return *p.runs.change(*id);
}

std::string freeFeederName(const Project& p) {
    std::map<std::string, int> stems;
    std::set<std::string> taken;
    const auto look = [&](RunId id) {
        const Run* r = p.runs.find(id);
        if (!r || r->name.empty()) return;
        taken.insert(r->name);
        const std::size_t digits = r->name.find_last_not_of("0123456789") + 1;
        if (digits > 0 && digits < r->name.size()) ++stems[r->name.substr(0, digits)];
    };
    for (const Board& b : p.boards) {
        look(b.run);
        look(b.alternateRun);
    }
    for (const Transformer& t : p.transformers) look(t.run);
    if (stems.empty()) return "";
    const std::string stem = std::max_element(stems.begin(), stems.end(), [](const auto& a, const auto& b) {
                                 return a.second < b.second;
                             })->first;
    for (std::size_t n = taken.size();; ++n) // after those that there are, so that a gap means that one has gone
        if (const std::string name = stem + std::to_string(n + 1); !taken.count(name)) return name;
}

VoltageSystem systemTaken(const Project& p, Ref node) {
    if (auto* t = p.transformers.find(node.as<Transformer>())) return t->primary;
    if (auto* b = p.boards.find(node.as<Board>())) return b->system;
    return VoltageSystem::Y480;
}
VoltageSystem systemGiven(const Project& p, Ref from) {
    if (auto* c = p.circuits.find(from.as<Circuit>())) from = c->board;
    if (auto* s = p.sources.find(from.as<Source>())) return s->system;
    if (auto* t = p.transformers.find(from.as<Transformer>())) return t->secondary;
    if (auto* b = p.boards.find(from.as<Board>())) return b->system;
    return VoltageSystem::Y480;
}
namespace {
/// Whether `node` and, where it passes on, all that hangs on it can be fed at this system.
bool takesSystem(const Project& p, Ref node, VoltageSystem given, int deep = 0) {
    const Board* b = p.boards.find(node.as<Board>());
    if (!b || !passesOn(b->use) || deep > 64) return systemsAgree(given, systemTaken(p, node));
    const auto below = fedStraight(p, node);
    return std::all_of(below.begin(), below.end(), [&](Ref r) { return takesSystem(p, r, given, deep + 1); });
}
/// What passes on has the system it is fed.
void passSystem(Project& p, Ref node, VoltageSystem given, int deep = 0) {
    const Board* b = p.boards.find(node.as<Board>());
    if (!b || !passesOn(b->use) || deep > 64) return;
    if (b->system != given) p.boards.change(b->id)->system = given;
    for (Ref r : fedStraight(p, node)) passSystem(p, r, given, deep + 1);
}
/// Why `node` would feed itself if `from` fed it.
std::optional<Error> refuseLoop(const Project& p, Ref node, Ref from) {
    const std::string n = nameOf(p, node), f = nameOf(p, from);
    if (node == from) return Error{n, n + " cannot feed itself", "Drop it on another board."};
    Ref above = from;
    for (std::size_t guard = 0; above && guard < p.boards.size() + p.transformers.size() + 2; ++guard) {
        if (const Circuit* c = p.circuits.find(above.as<Circuit>())) above = c->board;
        if (above == node)
            return Error{n, f + " is itself fed from " + n + ": that would be a loop",
                         "Feed " + f + " from somewhere else first."};
        above = feedOf(p, above);
    }
    return std::nullopt;
}
/// Whether a feeder from there needs a breaker of its own, with a place for it.
bool needsPlace(const Project& p, Ref from) {
    const Board* b = p.boards.find(from.as<Board>());
    return b && !passesOn(b->use);
}
std::optional<Error> refuseSystem(const Project& p, Ref node, Ref from) {
    if (takesSystem(p, node, systemGiven(p, from))) return std::nullopt;
    return Error{nameOf(p, node),
                 fmt::format("{} takes {} V; {} gives {} V", nameOf(p, node), wordOf(systemTaken(p, node)),
                             nameOf(p, from), wordOf(systemGiven(p, from))),
                 "Put a transformer between them."};
}
std::optional<Error> refusePlace(const Project& p, Ref node, Ref from) {
    if (!needsPlace(p, from)) return std::nullopt;
    const int poles = std::min(3, factsOf(systemTaken(p, node)).lines);
    if (firstFreeSlot(p, from.as<Board>(), poles)) return std::nullopt;
    return Error{nameOf(p, node), fmt::format("{} has no place for a {}-pole feeder breaker", nameOf(p, from), poles),
                 "Free some slots, or give it more."};
}
} // namespace

Ref feedOf(const Project& p, Ref node) {
    if (auto* b = p.boards.find(node.as<Board>())) return b->feed;
    if (auto* t = p.transformers.find(node.as<Transformer>())) return t->feed;
    return {};
}

std::vector<Ref> fedStraight(const Project& p, Ref from) {
    std::vector<Ref> out;
    for (const Board& b : p.boards)
        if (b.feed == from) out.push_back(b.id);
    for (const Transformer& t : p.transformers)
        if (t.feed == from) out.push_back(t.id);
    return out;
}

bool systemsAgree(VoltageSystem given, VoltageSystem taken) {
    if (given == taken) return true;
    const SystemFacts g = factsOf(given), t = factsOf(taken);
    if (taken.shape() == VoltageSystem::Shape::Delta) // a delta primary needs no neutral
        return g.phases == 3 && g.lineLine == t.lineLine;
    if (t.lines == 1)
        return g.lineNeutral.v > 0 &&
               std::abs(g.lineNeutral.v - t.lineNeutral.v) < 0.05 * t.lineNeutral.v; // one line and the neutral
    // Single-phase from two lines of the same voltage (a high-leg delta gives 120/240 between A and C).
    return t.phases == 1 && g.highLeg && t.lineLine == g.lineLine;
}

std::optional<Error> refuseFeed(const Project& p, Ref node, Ref from) {
    if (auto bad = refuseLoop(p, node, from)) return bad;
    if (auto bad = refuseSystem(p, node, from)) return bad;
    if (from.is<Transformer>() && node.is<Transformer>())
        return Error{nameOf(p, node), "a transformer is fed from a board or a source", ""};
    return refusePlace(p, node, from);
}

namespace {
void setFeed(Project& p, Ref node, Ref feed) {
    if (node.is<Board>())
        p.boards.change(node.as<Board>())->feed = feed;
    else
        p.transformers.change(node.as<Transformer>())->feed = feed;
}
/// A feeder circuit of a board for `node`. Its run belongs to what is fed.
CircuitId addFeeder(Project& p, BoardId from, Ref node, const std::string& name) {
    const CircuitId c = addCircuit(p, from, std::min(3, factsOf(systemTaken(p, node)).lines), name);
    Circuit& k = *p.circuits.change(c);
    p.runs.remove(k.run);
    k.run = {};
    return c;
}
} // namespace

void clearFeed(Project& p, Ref node) {
    const CircuitId old = feedOf(p, node).as<Circuit>();
    setFeed(p, node, {});
    if (old) removeCircuit(p, old);
}

void feedFrom(Project& p, Ref node, Ref from) {
    std::optional<double> held;
    bool pinned = false;
    std::string name = nameOf(p, node);
    if (auto* c = p.circuits.find(feedOf(p, node).as<Circuit>()))
        held = c->heldBreaker, name = c->name, pinned = c->pinned;
    clearFeed(p, node);
    passSystem(p, node, systemGiven(p, from));
    Ref feed = from;
    if (needsPlace(p, from)) {
        const CircuitId c = addFeeder(p, from.as<Board>(), node, name);
        Circuit& k = *p.circuits.change(c);
        k.heldBreaker = held;
        k.pinned = pinned;
        feed = c;
    }
    (void)runOfNode(p, node);
    setFeed(p, node, feed);
}

std::optional<Error> refuseLugs(const Project& p, BoardId board, BoardId from) {
    const Board &b = p.boards[board], &f = p.boards[from];
    if (auto bad = refuseLoop(p, board, from)) return bad;
    if (auto bad = refuseSystem(p, board, from)) return bad;
    if (f.lugs == Lugs::None)
        return Error{b.name, f.name + " has no lugs to feed on from", "Give it feed-through or sub-feed lugs first."};
    if (b.system != f.system)
        return Error{
            b.name,
            fmt::format("lugs of {} give {} V; {} takes {} V", f.name, wordOf(f.system), b.name, wordOf(b.system)),
            "Feed it from a breaker or a transformer."};
    return std::nullopt;
}

void feedByLugs(Project& p, BoardId board, BoardId from) {
    clearFeed(p, board);
    (void)runOfNode(p, board);
    p.boards.change(board)->feed = from;
}

namespace {
/// What a piece of equipment is called until somebody names it.
const char* usualName(BoardUse use) {
    switch (use) {
    case BoardUse::ServiceDisconnect:
        return "SD-1";
    case BoardUse::Meter:
        return "M-1";
    case BoardUse::CtCabinet:
        return "CT-1";
    case BoardUse::Disconnect:
        return "DS-1";
    case BoardUse::TransferSwitch:
        return "ATS-1";
    case BoardUse::Ups:
        return "UPS-1";
    case BoardUse::Busway:
        return "BW-1";
    default:
        return "LP-1";
    }
}
} // namespace

BoardId insertInFeed(Project& p, Ref node, BoardUse use) {
    constexpr double beside = 0.8; // m
    Board e;
    e.use = use;
    e.name = freeBoardName(p, usualName(use));
    e.slots = 0;
    if (!passesOn(use)) takeUsualWays(e); // a busway: what it stands in front of becomes its first tap-off
    e.feed = feedOf(p, node);
    e.system = e.feed ? systemGiven(p, e.feed) : systemTaken(p, node);
    Run& run = runOfNode(p, node);
    e.run = run.id;
    if (const Board* b = p.boards.find(node.as<Board>())) {
        e.bus = b->bus;
        e.ratingKA = b->ratingKA;
        e.level = b->level;
        e.onPlan = b->onPlan;
        e.at = b->at + Point{-beside, 0};
        e.turn = b->turn;
    } else {
        const Transformer& t = p.transformers[node.as<Transformer>()];
        e.level = t.level;
        e.onPlan = t.onPlan;
        e.at = t.at + Point{-beside, 0};
    }
    if (Board* b = p.boards.change(node.as<Board>()); b && use == BoardUse::TransferSwitch) { // it is what changes over
        e.alternate = std::exchange(b->alternate, {});
        e.alternateRun = std::exchange(b->alternateRun, {});
    }
    const BoardId id = addFresh(p, &Project::boards, std::move(e));
    Run between;
    between.name = freeFeederName(p);
    const RunId own = p.runs.add(between);
    if (node.is<Board>())
        p.boards.change(node.as<Board>())->run = own;
    else
        p.transformers.change(node.as<Transformer>())->run = own;
    setFeed(p, node, passesOn(use) ? Ref(id) : Ref());
    if (!passesOn(use)) feedFrom(p, node, id);
    return id;
}

std::optional<Error> refuseAlternate(const Project& p, BoardId board, Ref from) {
    const Board& b = p.boards[board];
    const Circuit* c = p.circuits.find(b.feed.as<Circuit>());
    if (from == b.feed || (c && from == Ref(c->board)))
        return Error{b.name, b.name + " is fed from " + nameOf(p, from) + " already", ""};
    if (auto bad = refuseLoop(p, board, from)) return bad;
    if (auto bad = refuseSystem(p, board, from)) return bad;
    return refusePlace(p, board, from);
}

void alternateFrom(Project& p, BoardId board, Ref from) {
    if (const CircuitId old = p.boards[board].alternate.as<Circuit>()) removeCircuit(p, old);
    Ref alternate = from;
    if (needsPlace(p, from)) alternate = addFeeder(p, from.as<Board>(), board, p.boards[board].name + ", alternate");
    p.boards.change(board)->alternate = alternate;
    if (alternate) {
        if (Run& run = alternateRunOf(p, board); run.name.empty()) run.name = freeFeederName(p);
        return;
    }
    p.runs.remove(p.boards[board].alternateRun);
    p.boards.change(board)->alternateRun = {};
}

Run& alternateRunOf(Project& p, BoardId board) {
    RunId& id = p.boards.change(board)->alternateRun;
    if (!p.runs.has(id)) id = p.runs.add({});
    return *p.runs.change(id);
}

BoardId addBoard(Project& p, Board b) {
    if (!p.runs.has(b.run)) b.run = p.runs.add({});
    return addFresh(p, &Project::boards, std::move(b));
}

namespace {
/// Nothing is fed from `gone` any more, or taken over by it.
void letGo(Project& p, Ref gone) {
    for (Ref r : fedStraight(p, gone)) setFeed(p, r, {});
    std::vector<BoardId> takers;
    for (const Board& b : p.boards)
        if (b.alternate == gone) takers.push_back(b.id);
    for (BoardId b : takers) alternateFrom(p, b, {});
}
/// The run that `from` took over when it was put in front of `thing`, in place of the one that lies between them.
void giveRunBack(Project& p, BoardId from, Ref thing) {
    RunId& run = thing.is<Board>() ? p.boards.change(thing.as<Board>())->run
                                   : p.transformers.change(thing.as<Transformer>())->run;
    p.runs.remove(run);
    run = std::exchange(p.boards.change(from)->run, {});
}
/// Gives what hangs on it back to its own feed: with a circuit, which feeds one thing, only where one hangs on it.
void bridge(Project& p, BoardId id) {
    const Ref feed = p.boards[id].feed;
    const auto below = fedStraight(p, id);
    std::vector<BoardId> takers;
    for (const Board& b : p.boards)
        if (b.alternate == Ref(id)) takers.push_back(b.id);
    if (feed && !feed.is<Circuit>()) // what takes over from it takes over from its feed
        for (BoardId b : takers) p.boards.change(b)->alternate = feed;
    if (!feed || (feed.is<Circuit>() && below.size() != 1)) return;
    for (Ref r : below) setFeed(p, r, feed);
    if (below.size() == 1) giveRunBack(p, id, below.front());
    p.boards.change(id)->feed = {};
}
/// A busway with one tap-off alone gives what hangs on it back to its own feed, as what passes on does.
void bridgeBusway(Project& p, BoardId id) {
    std::vector<Ref> fed;
    for (const Circuit& c : p.circuits) {
        if (c.board != id || c.use != CircuitUse::Load) continue;
        const Ref thing = fedBy(p, c.id);
        if (!thing || feedOf(p, thing) != Ref(c.id)) return; // a load, or something on standby
        fed.push_back(thing);
    }
    const Ref feed = p.boards[id].feed;
    if (fed.size() != 1 || !feed) return;
    clearFeed(p, fed.front());
    p.boards.change(id)->feed = {};
    setFeed(p, fed.front(), feed);
    giveRunBack(p, id, fed.front());
}
} // namespace

void removeBoard(Project& p, BoardId id) {
    if (!p.boards.has(id)) return;
    if (passesOn(p.boards[id].use)) bridge(p, id);
    if (p.boards[id].use == BoardUse::Busway) bridgeBusway(p, id);
    clearFeed(p, id);
    alternateFrom(p, id, {});
    letGo(p, id);
    std::vector<CircuitId> circuits;
    for (const Circuit& c : p.circuits)
        if (c.board == id) circuits.push_back(c.id);
    for (CircuitId c : circuits) removeCircuit(p, c);
    p.runs.remove(p.boards[id].run);
    std::vector<SectionId> sections;
    for (const Section& s : p.sections)
        if (s.board == id) sections.push_back(s.id);
    for (SectionId s : sections) p.sections.remove(s);
    p.boards.remove(id);
    forgetPlace(p, id);
    std::vector<LoadId> listed;
    for (const Load& l : p.loads)
        if (l.board == id) listed.push_back(l.id);
    for (LoadId l : listed) p.loads.change(l)->board = {};
    std::vector<CatchmentId> catchments;
    for (const Catchment& k : p.catchments)
        if (std::any_of(k.boards.begin(), k.boards.end(), [&](const Serving& s) { return s.board == id; }))
            catchments.push_back(k.id);
    for (CatchmentId k : catchments)
        std::erase_if(p.catchments.change(k)->boards, [&](const Serving& s) { return s.board == id; });
}

void removeTransformer(Project& p, TransformerId id) {
    if (!p.transformers.has(id)) return;
    clearFeed(p, id);
    letGo(p, id);
    p.runs.remove(p.transformers[id].run);
    p.transformers.remove(id);
    forgetPlace(p, id);
}

void removeSource(Project& p, SourceId id) {
    if (!p.sources.has(id)) return;
    letGo(p, id);
    p.sources.remove(id);
    forgetPlace(p, id);
}

void removeWall(Project& p, WallId id) {
    std::vector<OpeningId> openings;
    for (const Opening& o : p.openings)
        if (o.wall == id) openings.push_back(o.id);
    for (OpeningId o : openings) p.openings.remove(o);
    p.walls.remove(id);
}

void removeRoom(Project& p, RoomId id) {
    std::vector<DeviceId> devices;
    for (const Device& d : p.devices)
        if (d.room == id) devices.push_back(d.id);
    for (DeviceId d : devices) p.devices.change(d)->room = {}, p.devices.change(d)->recipe = {};
    p.rooms.remove(id);
}

void removeRecipe(Project& p, RecipeId id) {
    std::vector<DeviceId> devices;
    for (const Device& d : p.devices)
        if (d.recipe == id) devices.push_back(d.id);
    for (DeviceId d : devices) p.devices.change(d)->recipe = {};
    p.recipes.remove(id);
}

namespace {
template <class T> std::vector<Id<T>> onLevel(const Table<T>& table, LevelId level) {
    std::vector<Id<T>> out;
    for (const T& x : table)
        if (x.level == level) out.push_back(x.id);
    return out;
}
template <class T> void leaveLevel(Table<T>& table, LevelId level) {
    for (Id<T> x : onLevel(table, level)) table.change(x)->level = {};
}
template <class T> void removeOnLevel(Table<T>& table, LevelId level) {
    for (Id<T> x : onLevel(table, level)) table.remove(x);
}
} // namespace

void removeLevel(Project& p, LevelId id) {
    for (WallId w : onLevel(p.walls, id)) removeWall(p, w);
    for (RoomId r : onLevel(p.rooms, id)) removeRoom(p, r);
    removeOnLevel(p.devices, id);
    removeOnLevel(p.underlays, id);
    removeOnLevel(p.furnishings, id);
    removeOnLevel(p.catchments, id);
    removeOnLevel(p.trays, id);
    removeOnLevel(p.keyedNotes, id);
    std::vector<TrayId> risers;
    for (const Tray& t : p.trays)
        if (t.riseTo == id) risers.push_back(t.id);
    for (TrayId t : risers) p.trays.remove(t); // it rises to nothing
    leaveLevel(p.boards, id);
    leaveLevel(p.transformers, id);
    leaveLevel(p.sources, id);
    p.levels.remove(id);
}

bool removeFromPlan(Project& p, Ref r) {
    if (r.is<Board>() && p.boards.has(r.as<Board>())) return removeBoard(p, r.as<Board>()), true;
    if (r.is<Transformer>() && p.transformers.has(r.as<Transformer>()))
        return removeTransformer(p, r.as<Transformer>()), true;
    if (r.is<Source>() && p.sources.has(r.as<Source>())) return removeSource(p, r.as<Source>()), true;
    if (r.is<Wall>() && p.walls.has(r.as<Wall>())) return removeWall(p, r.as<Wall>()), true;
    if (r.is<Room>() && p.rooms.has(r.as<Room>())) return removeRoom(p, r.as<Room>()), true;
    return p.devices.remove(r.as<Device>()) || p.underlays.remove(r.as<Underlay>()) ||
           p.openings.remove(r.as<Opening>()) || p.furnishings.remove(r.as<Furnishing>()) ||
           p.catchments.remove(r.as<Catchment>()) || p.trays.remove(r.as<Tray>()) ||
           p.keyedNotes.remove(r.as<KeyedNote>());
}

std::string freeBoardName(const Project& p, const std::string& like) {
    std::set<std::string> taken;
    for (const Board& b : p.boards) taken.insert(b.name);
    for (const Transformer& t : p.transformers) taken.insert(t.name);
    const std::size_t digits = like.find_last_not_of("0123456789") + 1;
    const std::string stem = like.substr(0, digits);
    int n = digits < like.size() && like.size() - digits < 7 ? std::stoi(like.substr(digits)) : 1;
    while (taken.count(stem + std::to_string(n))) ++n;
    return stem + std::to_string(n);
}

} // namespace lintel
