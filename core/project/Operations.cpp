#include "core/project/Operations.h"

#include "core/solve/PhaseLoads.h"

#include <fmt/format.h>
#include <set>

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
    return p.circuits.add(std::move(c));
}

void removeCircuit(Project& p, CircuitId id) {
    const Circuit* c = p.circuits.find(id);
    if (!c) return;
    std::vector<DeviceId> devices;
    for (const Device& d : p.devices)
        if (d.circuit == id) devices.push_back(d.id);
    for (DeviceId d : devices) p.devices.change(d)->circuit = {};
    std::vector<LoadId> loads;
    for (const Load& l : p.loads)
        if (l.circuit == id) loads.push_back(l.id);
    for (LoadId l : loads) p.loads.change(l)->circuit = {};
    if (const Ref fed = fedBy(p, id)) {
        if (fed.is<Board>())
            p.boards.change(fed.as<Board>())->feed = {};
        else
            p.transformers.change(fed.as<Transformer>())->feed = {};
    }
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
    if (const Ref fed = fedBy(p, id)) return runOfNode(p, fed);
    if (!p.runs.has(c.run)) c.run = p.runs.add({});
    return *p.runs.change(c.run);
}

Run& runOf(Project& p, Ref thing) { return thing.is<Circuit>() ? runOf(p, thing.as<Circuit>()) : runOfNode(p, thing); }

Run& runOfNode(Project& p, Ref node) {
    RunId* id = nullptr;
    if (node.is<Board>())
        id = &p.boards.change(node.as<Board>())->run;
    else
        id = &p.transformers.change(node.as<Transformer>())->run;
    if (!p.runs.has(*id)) *id = p.runs.add({});
    return *p.runs.change(*id);
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
bool systemsAgree(VoltageSystem given, VoltageSystem taken) {
    if (given == taken) return true;
    const SystemFacts g = factsOf(given), t = factsOf(taken);
    if (taken == VoltageSystem::D480) return given == VoltageSystem::Y480; // a delta primary needs no neutral
    if (t.lines == 1)
        return g.lineNeutral.v > 0 &&
               std::abs(g.lineNeutral.v - t.lineNeutral.v) < 0.05 * t.lineNeutral.v; // one line and the neutral
    // Single-phase from two lines of the same voltage (a high-leg delta gives 120/240 between A and C).
    return t.phases == 1 && g.highLeg && t.lineLine == g.lineLine;
}

std::optional<Error> refuseFeed(const Project& p, Ref node, Ref from) {
    const std::string n = nameOf(p, node), f = nameOf(p, from);
    if (node == from) return Error{n, n + " cannot feed itself", "Drop it on another board."};
    Ref above = from;
    for (std::size_t guard = 0; above && guard < p.boards.size() + p.transformers.size() + 2; ++guard) {
        if (above == node)
            return Error{n, f + " is itself fed from " + n + ": that would be a loop",
                         "Feed " + f + " from somewhere else first."};
        Ref feed;
        if (auto* b = p.boards.find(above.as<Board>()))
            feed = b->feed;
        else if (auto* t = p.transformers.find(above.as<Transformer>()))
            feed = t->feed;
        if (auto* c = p.circuits.find(feed.as<Circuit>())) feed = c->board;
        above = feed;
    }
    if (!systemsAgree(systemGiven(p, from), systemTaken(p, node)))
        return Error{n,
                     fmt::format("{} takes {} V; {} gives {} V", n, wordOf(systemTaken(p, node)), f,
                                 wordOf(systemGiven(p, from))),
                     "Put a transformer between them."};
    if (from.is<Transformer>() && node.is<Transformer>())
        return Error{n, "a transformer is fed from a board or a source", ""};
    if (from.is<Board>()) {
        const int poles = std::min(3, factsOf(systemTaken(p, node)).lines);
        if (!firstFreeSlot(p, from.as<Board>(), poles))
            return Error{n, fmt::format("{} has no place for a {}-pole feeder breaker", f, poles),
                         "Free some slots, or give it more."};
    }
    return std::nullopt;
}

void clearFeed(Project& p, Ref node) {
    Ref* feed = nullptr;
    if (node.is<Board>())
        feed = &p.boards.change(node.as<Board>())->feed;
    else
        feed = &p.transformers.change(node.as<Transformer>())->feed;
    const CircuitId old = feed->as<Circuit>();
    *feed = {};
    if (old) removeCircuit(p, old);
}

void feedFrom(Project& p, Ref node, Ref from) {
    std::optional<double> held;
    bool pinned = false;
    std::string name = nameOf(p, node);
    Ref old = node.is<Board>() ? p.boards[node.as<Board>()].feed : p.transformers[node.as<Transformer>()].feed;
    if (auto* c = p.circuits.find(old.as<Circuit>())) held = c->heldBreaker, name = c->name, pinned = c->pinned;
    clearFeed(p, node);
    Ref feed = from;
    if (from.is<Board>()) {
        const CircuitId c = addCircuit(p, from.as<Board>(), std::min(3, factsOf(systemTaken(p, node)).lines), name);
        Circuit& k = *p.circuits.change(c);
        p.runs.remove(k.run); // the run belongs to what is fed
        k.run = {};
        k.heldBreaker = held;
        k.pinned = pinned;
        feed = c;
    }
    (void)runOfNode(p, node);
    if (node.is<Board>())
        p.boards.change(node.as<Board>())->feed = feed;
    else
        p.transformers.change(node.as<Transformer>())->feed = feed;
}

std::optional<Error> refuseLugs(const Project& p, BoardId board, BoardId from) {
    const Board &b = p.boards[board], &f = p.boards[from];
    if (const auto loop = refuseFeed(p, board, from); loop && loop->what.find("has no place") == std::string::npos)
        return loop;
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

BoardId addBoard(Project& p, Board b) {
    if (!p.runs.has(b.run)) b.run = p.runs.add({});
    return p.boards.add(std::move(b));
}

void removeBoard(Project& p, BoardId id) {
    if (!p.boards.has(id)) return;
    clearFeed(p, id);
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
    std::vector<BoardId> byLugs;
    for (const Board& b : p.boards)
        if (b.feed == Ref(id)) byLugs.push_back(b.id);
    for (BoardId b : byLugs) p.boards.change(b)->feed = {};
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
    std::vector<BoardId> below;
    for (const Board& b : p.boards)
        if (b.feed == Ref(id)) below.push_back(b.id);
    for (BoardId b : below) p.boards.change(b)->feed = {};
    p.runs.remove(p.transformers[id].run);
    p.transformers.remove(id);
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
    if (r.is<Wall>() && p.walls.has(r.as<Wall>())) return removeWall(p, r.as<Wall>()), true;
    if (r.is<Room>() && p.rooms.has(r.as<Room>())) return removeRoom(p, r.as<Room>()), true;
    return p.devices.remove(r.as<Device>()) || p.underlays.remove(r.as<Underlay>()) ||
           p.openings.remove(r.as<Opening>()) || p.furnishings.remove(r.as<Furnishing>()) ||
           p.catchments.remove(r.as<Catchment>()) || p.trays.remove(r.as<Tray>());
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
