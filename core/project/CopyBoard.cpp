#include "core/project/CopyBoard.h"

#include "core/plan/Trays.h"
#include "core/project/Operations.h"

#include <fmt/format.h>
#include <map>

namespace lintel {
namespace {

std::string renamed(std::string text, const std::string& from, const std::string& to) {
    if (from.empty()) return text;
    for (std::size_t at = 0; (at = text.find(from, at)) != std::string::npos; at += to.size()) {
        // DB-1 is not to be found in DB-12.
        const bool more = at + from.size() < text.size() && std::isalnum(static_cast<unsigned char>(text[at + from.size()]));
        if (!more) text.replace(at, from.size(), to);
    }
    return text;
}

bool taken(const Project& p, const std::string& name) {
    return std::any_of(p.boards.begin(), p.boards.end(), [&](const Board& b) { return b.name == name; });
}

} // namespace

Outcome<BoardId> copyBoard(Project& p, BoardId id, const std::string& name) {
    const Board old = p.boards[id];
    if (name.empty() || taken(p, name)) return Error{old.name, name.empty() ? "a board needs a name" : "there is a board called " + name, "Give the copy a name of its own."};
    const auto follow = [&](const std::string& text) { return renamed(text, old.name, name); };
    const auto copyRun = [&](RunId run) -> RunId {
        const Run* r = p.runs.find(run);
        if (!r) return {};
        Run again = *r;
        again.id = {};
        again.name = follow(r->name);
        if (!again.name.empty() && again.name == r->name) again.name = r->name + " (" + name + ")"; // a cable's name stands for one cable
        return p.runs.add(again);
    };
    const TrayGraph trays(p);
    Board copy = old;
    copy.id = {};
    copy.name = name;
    copy.description = follow(old.description);
    copy.feed = {};
    copy.run = copyRun(old.run);
    copy.at = old.at + Point{0.6, 0};
    const BoardId made = addBoard(p, copy);
    std::vector<Circuit> circuits;
    for (const Circuit& c : p.circuits)
        if (c.board == id) circuits.push_back(c);
    for (Circuit c : circuits) {
        const CircuitId from = c.id;
        const bool feeder = bool(fedBy(p, from));
        c.id = {};
        c.board = made;
        c.name = feeder ? "" : follow(c.name);
        c.note = follow(c.note);
        c.run = feeder ? RunId{} : copyRun(c.run);
        if (!feeder && !c.run) c.run = p.runs.add({});
        if (feeder) c.use = CircuitUse::Spare;
        const CircuitId to = p.circuits.add(c);
        if (feeder) continue;
        std::vector<Load> loads;
        for (const Load& l : p.loads)
            if (l.circuit == from) loads.push_back(l);
        std::map<DeviceTypeId, int> drawn;
        std::vector<const Device*> devices;
        for (const Device& d : p.devices)
            if (d.circuit == from) ++drawn[d.type], devices.push_back(&d);
        // The copy is not drawn, so its run cannot be measured: it begins with the length of the first one.
        if (Run* r = p.runs.change(c.run); r && r->lengthBy != LengthBy::Entered && !devices.empty())
            if (const auto m = c.ring ? measureRing(p, old, devices.data(), devices.size(), &trays) : measureCircuit(p, old, measureBy(r, &trays), devices.data(), devices.size())) r->length = m->total.v, r->lengthBy = LengthBy::Entered;
        for (Load l : loads) {
            l.id = {};
            l.circuit = to;
            l.name = follow(l.name);
            p.loads.add(l);
        }
        for (const auto& [type, n] : drawn) {
            const DeviceType& t = p.deviceTypes[type];
            Load l;
            l.circuit = to, l.name = t.name, l.kind = t.kind, l.amount = t.load, l.unit = t.unit, l.powerFactor = t.powerFactor, l.poles = t.poles, l.continuous = t.continuous;
            l.quantity = n;
            p.loads.add(l);
        }
    }
    std::vector<Section> sections;
    for (const Section& s : p.sections)
        if (s.board == id) sections.push_back(s);
    for (Section s : sections) {
        s.id = {};
        s.board = made;
        p.sections.add(s);
    }
    // Fed as the first one is.
    Ref from = old.feed;
    const Circuit* feeder = p.circuits.find(from.as<Circuit>());
    if (feeder) {
        const Circuit like = *feeder;
        if (const auto bad = refuseFeed(p, made, like.board)) return *bad;
        feedFrom(p, made, like.board);
        if (Circuit* c = p.circuits.change(p.boards[made].feed.as<Circuit>())) {
            c->name = follow(like.name) == like.name ? name : follow(like.name);
            c->heldBreaker = like.heldBreaker, c->heldKA = like.heldKA, c->device = like.device, c->residual = like.residual, c->letThroughKA = like.letThroughKA, c->factor = like.factor, c->fullRated = like.fullRated;
        }
    } else if (from) {
        p.boards.change(made)->feed = from;
    }
    return made;
}

} // namespace lintel
