#include "core/solve/States.h"

#include "core/project/Operations.h"
#include "core/solve/Busway.h"
#include "core/solve/Solve.h"

#include <map>
#include <set>

namespace lintel {

SourceId sourceOf(const Project& p, Ref feed) {
    for (std::size_t guard = 0; feed && guard < p.boards.size() + p.transformers.size() + 3; ++guard) {
        if (const Circuit* c = p.circuits.find(feed.as<Circuit>())) feed = c->board;
        if (feed.is<Source>()) return p.sources.has(feed.as<Source>()) ? feed.as<Source>() : SourceId{};
        feed = feedOf(p, feed);
    }
    return {};
}

namespace {

/// The conductors of a run as the normal state has them.
void holdRun(Run& run, const RunResult& normal, const RuleBook& book) {
    if (normal.size < 0) return;
    run.heldSize = book.sizes()[std::size_t(normal.size)].name;
    run.heldSets = normal.sets;
    if (normal.earth && normal.earth->ground >= 0)
        run.heldGround = book.sizes()[std::size_t(normal.earth->ground)].name;
}

void holdCircuit(Project& q, CircuitId id, const CircuitResult& normal) {
    if (normal.device > 0) q.circuits.change(id)->heldBreaker = normal.device;
}

/// What is in use in the normal state keeps its conductors and devices in the other one.
void holdBoard(Project& q, const RuleBook& book, const Results& normal, BoardId id) {
    for (CircuitId c : normal.on(id)) {
        const CircuitResult& r = normal.of(c);
        if (r.feeder) continue;
        holdCircuit(q, c, r);
        if (r.run.size < 0) continue;
        RunId run = q.circuits[c].run;
        if (!q.runs.has(run)) run = q.circuits.change(c)->run = q.runs.add({});
        holdRun(*q.runs.change(run), r.run, book);
    }
    q.boards.change(id)->givenKA.reset(); // that was known of the normal supply
}

/// Boards whose alternate feed comes from each source.
std::map<SourceId, std::vector<BoardId>> takersOf(const Project& p) {
    std::map<SourceId, std::vector<BoardId>> takers;
    for (const Board& b : p.boards)
        if (b.alternate)
            if (const SourceId s = sourceOf(p, b.alternate)) takers[s].push_back(b.id);
    return takers;
}

/// The project with the feeds of a state; fills `below`.
Project inState(const Project& p, const RuleBook& book, const Results& normal, StateSolution& state) {
    Project q = p;
    const std::set<BoardId> takers(state.takers.begin(), state.takers.end());
    for (const Board& b : p.boards) {
        if (!b.alternate) continue;
        Board& x = *q.boards.change(b.id);
        if (takers.count(b.id)) {
            x.feed = b.alternate;
            x.run = b.alternateRun;
        }
        x.alternate = {};
        x.alternateRun = {};
    }
    std::set<Ref> changed;
    for (Ref node : normal.order) { // each after what feeds it
        const NodeResult& n = *normal.node(node);
        const bool taker = node.is<Board>() && takers.count(node.as<Board>());
        if (!taker && (!changed.count(n.parent) || n.looped)) continue;
        changed.insert(node);
        state.below.push_back(node);
        if (!taker) {
            holdRun(runOfNode(q, node), n.run, book);
            if (n.via) holdCircuit(q, n.via, normal.of(n.via));
        }
        if (node.is<Board>()) holdBoard(q, book, normal, node.as<Board>());
    }
    for (const Source& s : p.sources)
        if (s.id != state.source)
            for (Ref fed : fedStraight(q, s.id)) {
                if (fed.is<Board>())
                    q.boards.change(fed.as<Board>())->feed = {};
                else
                    q.transformers.change(fed.as<Transformer>())->feed = {};
            }
    return q;
}

/// What a generator carries and starts when the motor that adds most starts last.
void carry(SourceResult& out, const Source& s, const NodeResult& loaded) {
    out.standby = loaded.demand;
    out.largestMotorVa = loaded.largestMotorVa;
    out.startVa = loaded.startVa;
    out.startRunningVa = loaded.startRunningVa;
    out.peak = std::max(0.0, loaded.demand - loaded.startRunningVa) + loaded.startVa;
    out.used = loaded.demand / (s.kva * 1000);
}

/// Conductors, device and what follows from them, of a circuit that is loaded in the state.
void takeCircuit(CircuitResult& into, const CircuitResult& from) {
    into.load = from.load;
    into.required = from.required;
    into.device = from.device;
    into.deviceNeeded = from.deviceNeeded;
    into.deviceHeld = from.deviceHeld;
    into.kindOfDevice = from.kindOfDevice;
    into.tap = from.tap;
    if (into.feeder) return;
    into.run = from.run;
    into.faultEnd = from.faultEnd;
}

/// What the source feeds in the normal state too carries the most in this one: its conductors and devices are those.
void takeOver(const Project& p, Results& r, const StateSolution& state) {
    const std::set<Ref> below(state.below.begin(), state.below.end());
    std::set<Ref> own{Ref(state.source)};
    for (Ref node : r.order) {
        NodeResult& n = *r.node(node);
        if (!own.count(n.parent) || n.looped || below.count(node)) continue;
        own.insert(node);
        const NodeResult& in = *state.results.node(node);
        n.run = in.run;
        n.fault = in.fault;
        n.dropTotal = in.dropTotal;
        n.dropKnown = in.dropKnown;
        if (n.via) takeCircuit(r.circuits[n.via.value], state.results.of(n.via));
        if (const TransformerId t = node.as<Transformer>()) {
            TransformerResult& x = r.transformers[t.value];
            const TransformerResult& y = state.results.of(t);
            x.use = y.use;
            x.regulation = y.regulation;
            x.secondary = y.secondary;
            x.dropBelow = y.dropBelow;
        }
        if (const BoardId b = node.as<Board>()) {
            r.boards[b.value].use = state.results.of(b).use;
            for (CircuitId c : r.on(b))
                if (!r.of(c).feeder) takeCircuit(r.circuits[c.value], state.results.of(c));
        }
    }
    for (BoardId b : state.takers) {
        r.boards[b.value].alternateRun.make() = state.results.of(b).run;
        if (const CircuitId c = p.boards[b].alternate.as<Circuit>())
            takeCircuit(r.circuits[c.value], state.results.of(c));
    }
}

} // namespace

void solveStates(const Project& p, const RuleBook& book, Results& r) {
    for (auto& [source, takers] : takersOf(p)) {
        auto state = std::make_shared<StateSolution>();
        state->source = source;
        state->takers = takers;
        state->project = inState(p, book, r, *state);
        state->results = solve(state->project, book);
        takeOver(p, r, *state);
        r.states.push_back(std::move(state));
    }
    for (const Source& s : p.sources) {
        if (s.kind != SourceKind::Generator) continue;
        SourceResult& out = r.sources[s.id.value];
        const auto it =
            std::find_if(r.states.begin(), r.states.end(), [&](const auto& x) { return x->source == s.id; });
        carry(out, s, it == r.states.end() ? out : (*it)->results.of(s.id));
    }
}

std::vector<const StateSolution*> statesOf(const Project& p, const Results& r, Ref thing) {
    std::vector<const StateSolution*> out;
    if (const Circuit* c = p.circuits.find(thing.as<Circuit>())) thing = c->board;
    for (const auto& state : r.states)
        if (std::find(state->below.begin(), state->below.end(), thing) != state->below.end())
            out.push_back(state.get());
    return out;
}

bool separatelyDerived(const Project& p, SourceId source) {
    bool takesOver = false;
    for (const Board& b : p.boards) {
        if (!b.alternate || sourceOf(p, b.alternate) != source) continue;
        if (b.switchesNeutral) return true;
        takesOver = true;
    }
    return !takesOver;
}

LargestFault largestFault(const Project& p, const Results& r, const Circuit& c) {
    const auto at = [&](const Results& in) {
        const FaultPoint& f = startOf(in, c).fault;
        return f.known ? f.worst() : 0.0;
    };
    LargestFault most{at(r), {}};
    for (const StateSolution* s : statesOf(p, r, c.board))
        if (const double kA = at(s->results); kA > most.kA) most = {kA, s->source};
    return most;
}

LargestFault largestFault(const Project& p, const Results& r, BoardId board) {
    LargestFault most{r.of(board).fault.known ? r.of(board).fault.worst() : 0, {}};
    for (const StateSolution* s : statesOf(p, r, board))
        if (const FaultPoint& f = s->results.of(board).fault; f.known && f.worst() > most.kA)
            most = {f.worst(), s->source};
    return most;
}

} // namespace lintel
