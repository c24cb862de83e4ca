#include "core/copy/CopyBoard.h"
#include "core/base/Parse.h"

#include "core/copy/CircuitBlock.h"
#include "core/project/Operations.h"

#include <fmt/format.h>

namespace lintel {
namespace {

std::string renamed(std::string text, const std::string& from, const std::string& to) {
    if (from.empty()) return text;
    for (std::size_t at = 0; (at = text.find(from, at)) != std::string::npos; at += to.size()) {
        // DB-1 is not to be found in DB-12.
        const bool more =
            at + from.size() < text.size() && (isLetter(text[at + from.size()]) || isDigit(text[at + from.size()]));
        if (!more) text.replace(at, from.size(), to);
    }
    return text;
}

bool taken(const Project& p, const std::string& name) {
    return std::any_of(p.boards.begin(), p.boards.end(), [&](const Board& b) { return b.name == name; });
}

} // namespace

std::string nameOfCopy(const std::string& text, const std::string& from, const std::string& to) {
    const std::string again = renamed(text, from, to); // a cable's name stands for one cable
    return again.empty() || again != text ? again : text + " (" + to + ")";
}

BoardCopy copyUnfed(Project& p, BoardId id, const std::string& name) {
    const Board old = p.boards[id];
    const auto follow = [&](const std::string& text) { return renamed(text, old.name, name); };
    Board copy = old;
    copy.id = {};
    copy.name = name;
    copy.description = follow(old.description);
    copy.feed = {};
    copy.run = {};
    copy.alternate = {};
    copy.alternateRun = {};
    if (const Run* r = p.runs.find(old.run)) {
        Run again = *r;
        again.id = {};
        again.name = nameOfCopy(r->name, old.name, name);
        copy.run = p.runs.add(again);
    }
    copy.onPlan = false; // where the copy stands, nobody has said yet
    BoardCopy out;
    out.board = addBoard(p, copy);
    std::vector<CircuitId> circuits;
    std::vector<int> slots;
    for (const Circuit& c : p.circuits) {
        if (c.board != id) continue;
        circuits.push_back(c.id);
        slots.push_back(c.slot);
    }
    auto taken = takeCircuits(p, circuits); // the copy is not drawn: its runs begin with the lengths of the first ones
    for (TakenCircuit& t : taken) {
        t.circuit.name = follow(t.circuit.name);
        t.circuit.note = follow(t.circuit.note);
        if (t.run) t.run->name = nameOfCopy(t.run->name, old.name, name);
        for (Load& l : t.loads) l.name = follow(l.name);
    }
    const auto put = putCircuits(p, out.board, taken, slots);
    for (std::size_t i = 0; i < put.size(); ++i) {
        p.circuits.change(put[i])->pinned = taken[i].circuit.pinned;
        out.circuits[circuits[i]] = put[i];
    }
    std::vector<Section> sections;
    for (const Section& s : p.sections)
        if (s.board == id) sections.push_back(s);
    for (Section s : sections) {
        s.id = {};
        s.board = out.board;
        p.sections.add(s);
    }
    return out;
}

void takeDevice(Circuit& to, const Circuit& from) {
    to.heldBreaker = from.heldBreaker;
    to.heldKA = from.heldKA;
    to.device = from.device;
    to.residual = from.residual;
    to.residualType = from.residualType;
    to.letThroughKA = from.letThroughKA;
    to.factor = from.factor;
    to.fullRated = from.fullRated;
}

Outcome<BoardId> copyBoard(Project& p, BoardId id, const std::string& name) {
    const Board old = p.boards[id];
    if (name.empty() || taken(p, name))
        return Error{old.name, name.empty() ? "a board needs a name" : "there is a board called " + name,
                     "Give the copy a name of its own."};
    const BoardId made = copyUnfed(p, id, name).board;
    // Fed as the first one is.
    const Ref from = old.feed;
    if (const Circuit* feeder = p.circuits.find(from.as<Circuit>())) {
        const Circuit like = *feeder;
        if (const auto bad = refuseFeed(p, made, like.board)) return *bad;
        feedFrom(p, made, like.board);
        if (Circuit* c = p.circuits.change(p.boards[made].feed.as<Circuit>())) {
            const std::string again = renamed(like.name, old.name, name);
            c->name = again == like.name ? name : again;
            takeDevice(*c, like);
        }
    } else if (from) {
        p.boards.change(made)->feed = from;
    }
    // Taken over as the first one is: by a circuit of its own on standby, where one does that.
    Ref alternate = old.alternate;
    if (const Circuit* c = p.circuits.find(alternate.as<Circuit>())) alternate = c->board;
    if (!alternate) return made;
    if (const auto bad = refuseAlternate(p, made, alternate)) return *bad;
    alternateFrom(p, made, alternate);
    if (const Run* r = p.runs.find(old.alternateRun)) {
        Run again = *r;
        Run& run = alternateRunOf(p, made);
        again.id = run.id;
        again.name = nameOfCopy(r->name, old.name, name);
        run = again;
    }
    return made;
}

} // namespace lintel
