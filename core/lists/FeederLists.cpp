// Feeders, transformers, and the runs that were raised for drop.

#include "core/lists/RunCells.h"
#include "core/project/Operations.h"
#include "core/solve/ConductorSizing.h"
#include "core/solve/States.h"

#include <fmt/format.h>

namespace lintel {
namespace {

void addFeeder(List& list, const SheetInput& in, const Project& p, const Results& r, Ref thing, bool alternate) {
    const NodeResult& n = *r.node(thing);
    const RunResult& run = n.run;
    const RunParts parts = partsOf(p, in.book, r, thing);
    std::string to = nameOf(in.project, thing);
    if (alternate) to += ", alternate";
    const bool sized = run.size >= 0;
    const Run* entered = enteredRun(p, thing);
    list.add(thing, {{entered ? entered->name : std::string()},
                     {fedFrom(p, n)},
                     {to},
                     {deviceCell(in, n)},
                     conductorCell(in, run),
                     {racewayWords(in, run, parts)},
                     lengthCell(run.need, in.project.basis.units),
                     figureCell(run.need.load.v),
                     sized ? figureCell(run.ampacity) : ListCell{"–"},
                     sized && run.ampacity > 0 ? percentCell(run.need.load.v / run.ampacity * 100) : ListCell{"–"},
                     dropCell(run.dropOwn, run.need.ownLimit, run.need.lengthKnown),
                     dropCell(n.dropTotal, run.need.totalLimit, n.dropKnown),
                     faultCell(n.fault),
                     {whyWords(run)}});
    for (const std::string& words : installationWords(p, r, thing)) list.notes.push_back(to + ": " + words + ".");
}

} // namespace

List feederList(const SheetInput& in) {
    List list{"feeders",
              "Feeder schedule",
              {{"Feeder"},
               {"From"},
               {"To"},
               {"Device", "A/poles"},
               {in.book.word(TradeWord::ConductorsOfSet)},
               {racewayHeading(in)},
               {"Length", lengthUnit(in.project.basis.units), Align::Right},
               {"Load", "A", Align::Right},
               {"Carries", "A", Align::Right},
               {"Used", "%", Align::Right},
               {"Drop own", "%", Align::Right},
               {"Drop total", "%", Align::Right},
               {"Fault at end", "kA", Align::Right},
               {"What decided the size"}},
              {},
              {}};
    if (in.book.metric()) list.columns[3].unit = "A";
    for (Ref thing : in.results.order)
        if (in.results.node(thing)->parent) addFeeder(list, in, in.project, in.results, thing, false);
    for (const auto& state : in.results.states)
        for (BoardId taker : state->takers) addFeeder(list, in, state->project, state->results, taker, true);
    return list;
}

List transformerList(const SheetInput& in) {
    List list{"transformers",
              "Transformers",
              {{"Name"},
               {"Rated", "kVA", Align::Right},
               {"Primary", "V"},
               {"Secondary", "V"},
               {"Impedance", "%", Align::Right},
               {"X/R", "", Align::Right},
               {"Fed from"},
               {"Primary device"},
               {"Primary conductors"},
               {"Primary current", "A", Align::Right},
               {"Secondary current", "A", Align::Right},
               {"Demand", "kVA", Align::Right},
               {"Used", "%", Align::Right},
               {"Fault, secondary", "kA", Align::Right},
               {"Regulation", "%", Align::Right}},
              {},
              {}};
    for (const Transformer& t : in.project.transformers) {
        const TransformerResult& n = in.results.of(t.id);
        ListCell used = percentCell(n.use * 100);
        if (n.use > 1) used.ink = Ink::Stop;
        list.add(t.id, {{t.name},
                        ratingCell(t.kva),
                        {wordOf(t.primary)},
                        {wordOf(t.secondary)},
                        ratingCell(t.percentZ),
                        ratingCell(t.xOverR),
                        {fedFrom(in.project, n)},
                        {deviceCell(in, n)},
                        n.parent ? conductorCell(in, n.run) : ListCell{"–"},
                        figureCell(n.primaryAmps.v),
                        figureCell(n.secondaryAmps.v),
                        numberCell(n.demand / 1000, 1),
                        used,
                        faultCell(n.secondary),
                        numberCell(n.regulation, 1)});
        if (!t.restartsDrop && t.boost != 0) list.notes.push_back(t.name + ", " + tapWords(t) + ".");
    }
    return list;
}

List raisedList(const SheetInput& in) {
    const UnitSystem units = in.project.basis.units;
    List list{"raised",
              "Runs raised above what ampacity needs",
              {{"Run"},
               {"Serves"},
               {"Load", "A", Align::Right},
               {"Length", lengthUnit(units), Align::Right},
               {"Size for ampacity"},
               {"Size chosen"},
               {"Drop before", "%", Align::Right},
               {"Drop after", "%", Align::Right},
               {"More conductor", "kg", Align::Right},
               {"What decided the size"}},
              {},
              {}};
    double more = 0;
    const auto add = [&](Ref thing, const RunResult& run, const std::string& serves) {
        if (run.steps <= 0 || run.size < 0 || run.sizeForAmpacity < 0 || !run.need.lengthKnown) return;
        const double kg = conductorMass(run.need, run.size, run.sets, in.book) -
                          conductorMass(run.need, run.sizeForAmpacity, run.setsForAmpacity, in.book);
        more += kg;
        const auto size = [&](SizeIndex s, int sets) {
            return (sets > 1 ? fmt::format("{} × ", sets) : "") + sizeWords(in.book, s);
        };
        list.add(thing, {{nameOf(in.project, thing)},
                         {serves},
                         figureCell(run.need.dropAmps.v),
                         lengthCell(run.need, units),
                         {size(run.sizeForAmpacity, run.setsForAmpacity)},
                         {size(run.size, run.sets)},
                         numberCell(run.dropBefore, 1),
                         numberCell(run.dropOwn, 1),
                         figureCell(kg),
                         {whyWords(run)}});
    };
    for (Ref thing : in.results.order)
        if (const NodeResult& n = *in.results.node(thing); n.parent) add(thing, n.run, "feeder");
    for (const Circuit& c : in.project.circuits)
        if (const CircuitResult& r = in.results.of(c.id); !r.feeder && c.use == CircuitUse::Load)
            add(c.id, r.run, servesWords(in.project, in.results, c.id));
    if (!list.rows.empty()) list.total({{"Total"}, {}, {}, {}, {}, {}, {}, {}, figureCell(more)});
    return list;
}

} // namespace lintel
