// Every circuit, and every run with its conductors and conduit: long lists, for files.

#include "core/lists/RunCells.h"

#include <fmt/format.h>

namespace lintel {
namespace {

/// Board by board in the order of their names, each circuit in the order of its place.
template <class F> void eachCircuit(const SheetInput& in, F f) {
    std::vector<const Board*> boards;
    for (const Board& b : in.project.boards) boards.push_back(&b);
    std::stable_sort(boards.begin(), boards.end(), [](const Board* a, const Board* b) { return a->name < b->name; });
    for (const Board* b : boards) {
        const auto on = in.results.on(b->id);
        std::vector<const Circuit*> circuits;
        for (CircuitId id : on) circuits.push_back(&in.project.circuits[id]);
        std::stable_sort(circuits.begin(), circuits.end(),
                         [](const Circuit* x, const Circuit* y) { return x->slot < y->slot; });
        for (const Circuit* c : circuits) f(*b, *c);
    }
}

} // namespace

List circuitList(const SheetInput& in) {
    const Project& p = in.project;
    List list{"circuits",
              "Circuits",
              {{"Circuit"},
               {"Board"},
               {"Place"},
               {"Serves"},
               {"Kind"},
               {"Poles", "", Align::Right},
               {in.book.word(TradeWord::Device)},
               {"Load", "VA", Align::Right},
               {"Load", "A", Align::Right},
               {"Conductors"},
               {racewayHeading(in)},
               {"Length", lengthUnit(p.basis.units), Align::Right},
               {"Drop own", "%", Align::Right},
               {"Drop total", "%", Align::Right},
               {"Fault at end", "kA", Align::Right},
               {"Note"}},
              {},
              {}};
    eachCircuit(in, [&](const Board& b, const Circuit& c) {
        const CircuitResult& r = in.results.of(c.id);
        std::vector<ListCell> cells{{nameOf(p, c.id)},
                                    {b.name},
                                    {placeWords(b, c)},
                                    {servesWords(p, in.results, c.id)},
                                    {r.feeder                    ? "feeder"
                                     : c.use != CircuitUse::Load ? std::string(wordOf(c.use))
                                     : r.nothingHangsOn()        ? "–"
                                                                 : kindTitle(r.kind, in.book)},
                                    numberCell(c.poles),
                                    {deviceWords(r, c.poles, in.book)}};
        const RunResult* run = in.results.run(c.id);
        if (c.use != CircuitUse::Load || !run) {
            while (cells.size() + 1 < list.columns.size()) cells.push_back({"–"});
        } else {
            const double va = r.feeder && r.feeds ? in.results.node(r.feeds)->connected : r.va;
            const bool none = r.nothingHangsOn(); // nobody entered a load
            cells.insert(cells.end(), {none ? ListCell{"–"} : numberCell(va),
                                       none ? ListCell{"–"} : figureCell(r.load.v),
                                       conductorCell(in, *run),
                                       {racewayWords(in, *run, partsOf(p, in.book, in.results, c.id))},
                                       lengthCell(run->need, p.basis.units),
                                       dropCell(run->dropOwn, run->need.ownLimit, run->need.lengthKnown),
                                       dropCell(run->dropTotal, run->need.totalLimit,
                                                run->need.lengthKnown && run->need.beforeKnown),
                                       r.feeder && r.feeds ? faultCell(in.results.node(r.feeds)->fault)
                                       : r.faultEnd > 0    ? figureCell(r.faultEnd)
                                                           : ListCell{"–"}});
        }
        cells.push_back({c.note});
        list.add(c.id, std::move(cells));
    });
    return list;
}

List conductorList(const SheetInput& in) {
    const Project& p = in.project;
    List list{"conductors",
              in.book.word(TradeWord::ConductorSchedule),
              {{"Run"},
               {"From"},
               {"To"},
               {"Sets", "", Align::Right},
               {"Lines"},
               {"Neutral"},
               {in.book.word(TradeWord::Protective)},
               {racewayHeading(in)},
               {"Length", lengthUnit(p.basis.units), Align::Right},
               {"Volts", "V", Align::Right},
               {"Poles", "", Align::Right},
               {"Device", "A", Align::Right},
               {"What decided the size"}},
              {},
              {}};
    const auto add = [&](Ref thing, const std::string& name, const std::string& from, const std::string& to,
                         const RunResult& run) {
        const RunParts parts = partsOf(p, in.book, in.results, thing);
        const bool sized = run.size >= 0;
        list.add(thing, {{name},
                         {from},
                         {to},
                         sized ? numberCell(run.sets) : ListCell{"–"},
                         sized ? ListCell{fmt::format("{} × {}", parts.lines, sizeWords(in.book, run.size))}
                               : conductorCell(in, run),
                         {parts.neutral >= 0 ? (parts.neutrals > 1 ? fmt::format("{} × ", parts.neutrals) : "") +
                                                   sizeWords(in.book, parts.neutral)
                                             : "–"},
                         {run.need.cable->type >= 0 && run.earth->armour ? "armour"
                          : parts.ground >= 0                            ? sizeWords(in.book, parts.ground)
                                                                         : "–"},
                         {racewayWords(in, run, parts)},
                         lengthCell(run.need, p.basis.units),
                         numberCell(voltsAcross(run.need.system, run.need.poles).v),
                         numberCell(run.need.poles),
                         run.need.device > 0 ? numberCell(run.need.device) : ListCell{"–"},
                         {whyWords(run)}});
    };
    for (Ref thing : in.results.order)
        if (const NodeResult& n = *in.results.node(thing); n.parent) {
            const Board* b = p.boards.find(thing.as<Board>());
            const Run* run = p.runs.find(b ? b->run : p.transformers[thing.as<Transformer>()].run);
            add(thing, run && !run->name.empty() ? run->name : "feeder", fedFrom(p, n), nameOf(p, thing), n.run);
        }
    eachCircuit(in, [&](const Board& b, const Circuit& c) {
        const CircuitResult& r = in.results.of(c.id);
        if (!r.feeder && c.use == CircuitUse::Load)
            add(c.id, nameOf(p, c.id), b.name, servesWords(p, in.results, c.id), r.run);
    });
    return list;
}

} // namespace lintel
