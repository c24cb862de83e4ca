// The feeders of a project as the schedule that FeederList reads.

#include "core/check/Check.h"
#include "core/exchange/FeederList.h"
#include "core/sheets/RiserEquipment.h"
#include "core/solve/RunParts.h"
#include "core/solve/States.h"

#include <algorithm>
#include <fmt/format.h>

namespace lintel {
namespace {

std::string plain(double v) { return fmt::format("{:.6g}", v); }

FedKind kindOf(const Project& p, Ref thing) {
    if (thing.is<Transformer>()) return FedKind::Transformer;
    const Board* b = p.boards.find(thing.as<Board>());
    if (!b) return FedKind::Load;
    return fromWord<FedKind>(wordOf(b->use)).value_or(FedKind::Panelboard);
}

class Writer {
public:
    Writer(const RuleBook& b, std::vector<std::vector<std::string>>& out) : book(b), rows(out) {}

    /// A feeder as it is in one solution; `other`: the way in of what takes over.
    void add(const Project& p, const Results& r, Ref thing, bool other) {
        const RunResult& run = *r.run(thing);
        const Run* entered = runOf(p, thing, other);
        const CircuitId head = thing.is<Circuit>() ? thing.as<Circuit>() : r.node(thing)->via;
        const Ref from = thing.is<Circuit>() ? Ref(p.circuits[head].board) : r.node(thing)->parent;
        const std::size_t at = rows.size();
        rows.push_back({entered ? entered->name : "", nameOf(p, from), nameIn(p, thing), wordOf(kindOf(p, thing))});
        std::vector<std::string>& row = rows[at];
        load(row, p, r, thing);
        const VoltageSystem system = systemOf(p, thing);
        const int lines = thing.is<Circuit>() ? p.circuits[head].poles : factsOf(system).lines;
        row.push_back(plain(thing.is<Circuit>() ? voltsAcross(system, lines).v : factsOf(system).lineLine.v));
        row.push_back(lines == 3 ? "3" : "1");
        row.push_back(device(p, r, thing, head, other));
        const bool sized = run.size >= 0 && run.state != Sizing::OutsideTables;
        row.push_back(sized ? std::to_string(run.sets) : "");
        row.push_back(sized ? book.sizes()[std::size_t(run.size)].name : "");
        if (book.metric())
            row.push_back(sized && run.need.cable->type >= 0 ? book.cables.types[std::size_t(run.need.cable->type)].name
                                                             : "");
        const RunParts parts = partsOf(p, book, r, thing);
        row.push_back(sized && parts.ground >= 0 ? book.sizes()[std::size_t(parts.ground)].name : "");
        row.push_back(parts.conduit.size ? parts.conduitType + " " + parts.conduit.size->name : "");
        const bool metric = p.basis.units == UnitSystem::Metric;
        row.push_back(run.need.lengthKnown ? fmt::format("{:.4g}", metric ? run.need.length.v : inFeet(run.need.length))
                                           : "");
        row.push_back(entered ? entered->reference : "");
        row.push_back(fault(r, thing));
    }

private:
    const RuleBook& book;
    std::vector<std::vector<std::string>>& rows;

    static const Run* runOf(const Project& p, Ref thing, bool other) {
        return other ? p.runs.find(p.boards[thing.as<Board>()].alternateRun) : enteredRun(p, thing);
    }
    static std::string nameIn(const Project& p, Ref thing) {
        const Circuit* c = p.circuits.find(thing.as<Circuit>());
        return c && !c->name.empty() ? c->name : nameOf(p, thing);
    }
    static VoltageSystem systemOf(const Project& p, Ref thing) {
        if (const Board* b = p.boards.find(thing.as<Board>())) return b->system;
        if (const Transformer* t = p.transformers.find(thing.as<Transformer>())) return t->primary;
        return p.boards[p.circuits[thing.as<Circuit>()].board].system;
    }
    /// Of a transformer its rating, by which a list knows it.
    static void load(std::vector<std::string>& row, const Project& p, const Results& r, Ref thing) {
        double kva = 0;
        if (const Transformer* t = p.transformers.find(thing.as<Transformer>()))
            kva = t->kva;
        else
            kva = (thing.is<Circuit>() ? r.of(thing.as<Circuit>()).va : r.node(thing)->demand) / 1000;
        row.push_back(kva > 0 ? fmt::format("{:.4g}", kva) : "");
        row.push_back(kva > 0 ? "kVA" : "");
    }
    static std::string device(const Project& p, const Results& r, Ref thing, CircuitId head, bool other) {
        if (p.circuits.has(head)) return r.of(head).device > 0 ? plain(r.of(head).device) : "";
        const Board* b = p.boards.find(thing.as<Board>());
        return b && b->main > 0 && !other ? plain(b->main) : "";
    }
    static std::string fault(const Results& r, Ref thing) {
        double kA = 0;
        if (thing.is<Circuit>())
            kA = r.of(thing.as<Circuit>()).faultEnd;
        else if (const FaultPoint& at = r.node(thing)->fault; at.known && !at.runsUnknown)
            kA = at.worst();
        return kA > 0 ? fmt::format("{:.3g}", kA) : "";
    }
};

} // namespace

std::vector<std::vector<std::string>> feedersOf(const Project& p, const RuleBook& book, const Results& results) {
    const bool metric = p.basis.units == UnitSystem::Metric;
    std::vector<std::vector<std::string>> rows{{"Feeder", "From", "To", "What it feeds", "Load", "Unit", "Volts",
                                                "Phases", "Device, A", "Sets", "Conductors", "Ground", "Conduit",
                                                metric ? "Length, m" : "Length, ft", "Drawing", "Fault at end, kA"}};
    if (book.metric()) {
        std::vector<std::string>& heads = rows.front();
        heads.insert(std::find(heads.begin(), heads.end(), "Ground"), "Cable");
    }
    Writer writer(book, rows);
    for (Ref thing : results.order)
        if (const NodeResult& n = *results.node(thing); n.parent && !n.looped) writer.add(p, results, thing, false);
    for (CircuitId c : riserEquipment(p, results)) writer.add(p, results, c, false);
    for (const auto& state : results.states)
        for (BoardId taker : state->takers) writer.add(state->project, state->results, taker, true);
    return rows;
}

} // namespace lintel
