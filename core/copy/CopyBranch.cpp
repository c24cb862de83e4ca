#include "core/copy/CopyBranch.h"

#include "core/copy/CopyBoard.h"
#include "core/project/FreshId.h"
#include "core/project/Operations.h"

#include <functional>

namespace lintel {
namespace {

/// Calls f for the node and everything fed from it, each after what feeds it; in a circle nothing is met twice.
void eachOfBranch(const Project& p, Ref top, const std::function<void(Ref node, CircuitId via)>& f) {
    std::map<Ref, std::vector<std::pair<Ref, CircuitId>>> below;
    const auto note = [&](Ref node, Ref feed) {
        const Circuit* c = p.circuits.find(feed.as<Circuit>());
        below[c ? Ref(c->board) : feed].push_back({node, c ? c->id : CircuitId{}});
    };
    for (const Board& b : p.boards)
        if (b.feed) note(b.id, b.feed);
    for (const Transformer& t : p.transformers)
        if (t.feed) note(t.id, t.feed);
    std::vector<std::pair<Ref, CircuitId>> todo{{top, {}}};
    std::map<Ref, bool> met{{top, true}};
    for (std::size_t i = 0; i < todo.size(); ++i) {
        const auto [node, via] = todo[i];
        f(node, via);
        for (const auto& next : below[node])
            if (met.try_emplace(next.first, true).second) todo.push_back(next);
    }
}

class Copier {
public:
    explicit Copier(Project& project) : p(project) {}

    Ref copy(Ref top) {
        std::vector<std::pair<Ref, CircuitId>> nodes;
        eachOfBranch(p, top, [&](Ref node, CircuitId via) { nodes.push_back({node, via}); });
        for (const auto& [node, via] : nodes) copyNode(node);
        for (const auto& [node, via] : nodes)
            if (node != top) feedAgain(node, via);
        for (const auto& [node, via] : nodes) takeOverAgain(node.as<Board>());
        return copies[top];
    }

private:
    Project& p;
    std::map<Ref, Ref> copies;
    std::map<CircuitId, CircuitId> circuits;

    void copyNode(Ref node) {
        if (const Board* b = p.boards.find(node.as<Board>())) {
            const std::string before = nameOfRun(b->run);
            const BoardCopy made = copyUnfed(p, b->id, freeBoardName(p, b->name));
            copies[node] = made.board;
            nameRun(p.boards[made.board].run, before);
            circuits.insert(made.circuits.begin(), made.circuits.end());
            return;
        }
        Transformer t = p.transformers[node.as<Transformer>()];
        const std::string old = t.name;
        t.id = {};
        t.name = freeBoardName(p, old);
        t.feed = {};
        t.onPlan = false;
        Run run;
        if (const Run* r = p.runs.find(t.run)) run = *r;
        run.id = {};
        run.name = nameOfCopy(run.name, old, t.name);
        t.run = p.runs.add(run);
        copies[node] = addFresh(p, &Project::transformers, t);
        nameRun(t.run, nameOfRun(p.transformers[node.as<Transformer>()].run));
    }
    std::string nameOfRun(RunId id) const {
        const Run* r = p.runs.find(id);
        return r ? r->name : std::string();
    }
    /// Where feeders have names with numbers, the next one that is free; else its name with that of the board behind
    /// it, as copyUnfed has made it.
    void nameRun(RunId copy, const std::string& before) {
        const std::string now = nameOfRun(copy);
        const bool follows = now.rfind(before + " (", 0) != 0; // it speaks of the board, and has followed it
        if (before.empty() || follows) return;
        p.runs.change(copy)->name.clear(); // not in its own way
        const std::string next = freeFeederName(p);
        p.runs.change(copy)->name = next.empty() ? now : next;
    }
    void setFeed(Ref node, Ref feed) {
        if (Board* b = p.boards.change(node.as<Board>())) b->feed = feed;
        if (Transformer* t = p.transformers.change(node.as<Transformer>())) t->feed = feed;
    }
    void feedAgain(Ref node, CircuitId via) {
        const Ref copy = copies[node];
        if (!via) {
            setFeed(copy, copies[feedOf(p, node)]);
            return;
        }
        const Circuit like = p.circuits[via];
        Circuit& c = *p.circuits.change(circuits[via]); // a spare so far
        c.use = CircuitUse::Load;
        c.name = nameOf(p, copy);
        takeDevice(c, like);
        setFeed(copy, c.id);
    }
    void takeOverAgain(BoardId id) {
        const Board* old = p.boards.find(id);
        if (!old || !old->alternate) return;
        const Board was = *old;
        const BoardId copy = copies[id].as<Board>();
        Run run;
        if (const Run* r = p.runs.find(was.alternateRun)) run = *r;
        const auto takeRun = [&] {
            Run& own = alternateRunOf(p, copy);
            run.id = own.id;
            run.name = nameOfCopy(run.name, was.name, p.boards[copy].name);
            own = run;
        };
        if (const auto within = circuits.find(was.alternate.as<Circuit>()); within != circuits.end()) {
            Circuit& c = *p.circuits.change(within->second);
            c.use = CircuitUse::Load;
            c.name = p.boards[copy].name + ", alternate";
            p.boards.change(copy)->alternate = c.id;
            return takeRun();
        }
        if (const auto within = copies.find(was.alternate); within != copies.end()) {
            p.boards.change(copy)->alternate = within->second;
            return takeRun();
        }
        Ref from = was.alternate;
        if (const Circuit* c = p.circuits.find(from.as<Circuit>())) from = c->board;
        if (refuseAlternate(p, copy, from)) return;
        alternateFrom(p, copy, from);
        takeRun();
    }
};

} // namespace

int branchSize(const Project& p, Ref node) {
    int n = 0;
    eachOfBranch(p, node, [&](Ref, CircuitId) { ++n; });
    return n;
}

Outcome<Ref> copyBranch(Project& p, Ref node, Ref under) {
    const bool can = p.boards.has(node.as<Board>()) || p.transformers.has(node.as<Transformer>());
    if (!can) return Error{nameOf(p, node), "only a board or transformer can be copied", "Choose one of these."};
    Project trial = p;
    const Ref made = Copier(trial).copy(node);
    if (const auto bad = refuseFeed(trial, made, under)) return *bad;
    feedFrom(trial, made, under);
    if (const Circuit* like = p.circuits.find(feedOf(p, node).as<Circuit>()))
        if (Circuit* c = trial.circuits.change(feedOf(trial, made).as<Circuit>())) takeDevice(*c, *like);
    p = std::move(trial);
    return made;
}

} // namespace lintel
