#include "core/lists/CalculationTables.h"

#include "core/lists/ListForms.h"
#include "core/lists/RunCells.h"
#include "core/project/FaultRating.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/States.h"

#include <fmt/format.h>

namespace lintel {
namespace {

constexpr const char* runsKey = "runs";

/// A word in red where something is not as it should be, and nothing where it is.
ListCell verdict(bool good) { return good ? ListCell{"within"} : ListCell{"over", {}, Ink::Stop}; }

double ratedAmps(const Project& p, const Results& r, Ref thing) {
    if (const Board* b = p.boards.find(thing.as<Board>())) return mostAmps(*b);
    if (const Transformer* t = p.transformers.find(thing.as<Transformer>())) return r.of(t->id).primaryAmps.v;
    return 0;
}

/// Of the circuits of a board that are told of, the one with the largest share; `shareOf` gives none for those that do
/// not count.
template <class F> CircuitId worstOn(const SheetInput& in, const ListScope& scope, BoardId board, F shareOf) {
    CircuitId worst;
    double most = -1;
    for (CircuitId id : in.results.on(board)) {
        if (in.results.of(id).feeder || !scope.has(id)) continue;
        const std::optional<double> share = shareOf(id);
        if (!share || *share <= most) continue;
        most = *share;
        worst = id;
    }
    return worst;
}
/// "LP-1-27 Bicycle store outlet"
ListCell circuitCell(const SheetInput& in, CircuitId id) {
    return {nameOf(in.project, id) + " " + servesWords(in.project, in.results, id)};
}

} // namespace

List methodTable(const SheetInput& in) {
    const Basis& b = in.project.basis;
    const bool metric = in.book.metric();
    std::vector<std::string> text{
        "Loads. Each load is put on the lines on which its circuit stands, with its real and reactive power apart. "
        "Currents are phasor sums. Schedules count a load between two lines half to each.",
        "Demand. At each board, transformer and supply it follows from all that is connected below, by kind of load. "
        "It is not added up from the demands of the boards below.",
        metric
            ? "Devices. The next standard rating at or above the design current; motors by their starting."
            : "Devices. The next standard rating above the load with what the code adds for continuous loads. Motors, "
              "compressors and transformers follow their own articles.",
        metric ? "Cables. The smallest size whose tabulated capacity for the way it is laid, after all corrections, is "
                 "not below what its device asks."
               : "Conductors. The smallest size whose ampacity, after ambient and bundling and at the temperature of "
                 "the terminals, carries the load and is protected by its device. A feeder is held to its heaviest "
                 "phase where that is more than the balanced current.",
        fmt::format("Voltage drop. Along each run, with its length one way, resistance and reactance of the tables and "
                    "the power factor of its load. Sizes are raised by at most {} until the drop is within the limits.",
                    b.upsizingCeiling),
        fmt::format("Fault levels. Complex impedances from the supply down, conductors at {} °C. A run whose length is "
                    "not known counts as none there, so that what is shown is the most there can be.",
                    rating(b.faultCelsius))};
    if (metric)
        text.push_back("Earth faults. The loop impedance with conductors at their highest temperature in service, "
                       "against what opens the device in the time allowed; protective conductors by the adiabatic rule "
                       "or the table of the book.");
    text.push_back("All of it is worked out anew from what was entered; no result is kept or carried over.");
    constexpr double widest = 150;
    List list{"method", "How it is worked out", {{"Of what, and how", "", Align::Left, widest}}, {}, {}};
    for (const std::string& paragraph : text) list.add({}, {{paragraph}});
    return list;
}

List supplyTable(const SheetInput& in, const ListScope& scope) {
    List list{"supplies",
              "Supplies",
              {{"Supply"},
               {"System"},
               {"Kind"},
               {"Connected", "kVA", Align::Right},
               {"Demand", "kVA", Align::Right},
               {"Three-phase", "kA", Align::Right},
               {"To " + in.book.word(TradeWord::Earth), "kA", Align::Right},
               {"X/R", "", Align::Right}},
              {},
              {}};
    for (const Source& s : in.project.sources) {
        if (!scope.has(s.id)) continue;
        const SourceResult& n = in.results.of(s.id);
        const FaultPoint& f = n.fault;
        const auto kA = [&](double value) { return f.known && value > 0 ? figureCell(value) : ListCell{"–"}; };
        list.add(s.id, {{s.name},
                        {systemWords(s.system)},
                        {wordOf(s.kind)},
                        numberCell(n.connected / 1000, 1),
                        numberCell(n.demand / 1000, 1),
                        kA(f.threePhase),
                        kA(f.lineGround),
                        f.known ? figureCell(f.xOverR()) : ListCell{"–"}});
    }
    return list;
}

List loadTable(const SheetInput& in, const ListScope& scope) {
    List list{"loads",
              "Load and demand",
              {{"Of"},
               {"Fed from"},
               {"Connected", "kVA", Align::Right},
               {"Demand", "kVA", Align::Right},
               {"Balanced", "A", Align::Right},
               {"Heaviest phase", "A", Align::Right},
               {"Rated", "A", Align::Right},
               {"Used", "%", Align::Right},
               {"Verdict"}},
              {},
              {}};
    const auto add = [&](const Project& p, const Results& r, Ref thing) {
        const NodeResult& n = *r.node(thing);
        const Transformer* t = p.transformers.find(thing.as<Transformer>());
        const double rated = ratedAmps(p, r, thing);
        const double use = t ? r.of(t->id).use : rated > 0 ? demandOf(n) / rated : 0;
        list.add(thing, {{nameOf(p, thing)},
                         {fedFrom(p, n)},
                         numberCell(n.connected / 1000, 1),
                         numberCell(n.demand / 1000, 1),
                         figureCell(n.demandAmps.v),
                         figureCell(n.heaviestAmps.v),
                         rated > 0 ? figureCell(rated) : ListCell{"–"},
                         rated > 0 ? percentCell(use * 100) : ListCell{"–"},
                         rated > 0 ? verdict(use <= 1) : ListCell{"–"}});
    };
    for (Ref thing : scope.nodes)
        if (!thing.is<Source>()) add(in.project, in.results, thing);
    for (const auto& state : in.results.states) {
        std::set<Ref> fed{state->source};
        bool told = false;
        for (Ref thing : state->results.order) { // each after what feeds it
            if (!fed.count(state->results.node(thing)->parent)) continue;
            fed.insert(thing);
            if (!scope.has(thing)) continue;
            if (!told) list.group("While " + nameOf(in.project, state->source) + " feeds");
            told = true;
            add(state->project, state->results, thing);
        }
    }
    list.notes.push_back("Real and reactive power are added apart. The heaviest phase is the phasor current of the "
                         "connected load, in the proportion of demand to connected load.");
    return list;
}

List feederTable(const SheetInput& in, const ListScope& scope) {
    List list{"sizes",
              "Feeders as sized",
              {{"To"},
               {"From"},
               {"Device"},
               {"Judged by", "A", Align::Right},
               {in.book.word(TradeWord::ConductorsOfSet)},
               {"Carries", "A", Align::Right},
               {"Length", lengthUnit(in.project.basis.units), Align::Right},
               {"Drop own", "%", Align::Right},
               {"Drop total", "%", Align::Right},
               {"What decided"}},
              {},
              {}};
    const auto add = [&](const Project& p, const Results& r, Ref thing, bool alternate) {
        const NodeResult& n = *r.node(thing);
        const RunResult& run = n.run;
        list.add(thing, {{nameOf(p, thing) + (alternate ? ", alternate" : "")},
                         {fedFrom(p, n)},
                         {deviceCell({p, in.book, r}, n)},
                         figureCell(run.need.load.v),
                         conductorCell(in, run),
                         run.size >= 0 ? figureCell(run.ampacity) : ListCell{"–"},
                         lengthCell(run.need, p.basis.units),
                         dropCell(run.dropOwn, run.need.ownLimit, run.need.lengthKnown),
                         dropCell(n.dropTotal, run.need.totalLimit, n.dropKnown),
                         {whyWords(run)}});
    };
    for (Ref thing : scope.nodes)
        if (in.results.node(thing)->parent) add(in.project, in.results, thing, false);
    for (const auto& state : in.results.states)
        for (BoardId taker : state->takers)
            if (scope.has(taker)) add(state->project, state->results, taker, true);
    return list;
}

List dropTable(const SheetInput& in, const ListScope& scope) {
    List list{"drop",
              "Voltage drop",
              {{"Board"},
               {"At the board", "%", Align::Right},
               {"Circuit that loses most"},
               {"On its run", "%", Align::Right},
               {"In all", "%", Align::Right},
               {"Allowed", "%", Align::Right},
               {"Verdict"},
               {"Not known", "runs", Align::Right}},
              {},
              {}};
    for (Ref node : scope.nodes) {
        const BoardId board = node.as<Board>();
        if (!board) continue;
        const BoardResult& n = in.results.of(board);
        int unknown = 0;
        const CircuitId worst = worstOn(in, scope, board, [&](CircuitId id) -> std::optional<double> {
            const CircuitResult& r = in.results.of(id);
            if (in.project.circuits[id].use != CircuitUse::Load || r.va <= 0) return std::nullopt;
            if (!r.run.need.lengthKnown || !r.run.need.beforeKnown) {
                ++unknown;
                return std::nullopt;
            }
            return r.run.need.totalLimit > 0 ? r.run.dropTotal / r.run.need.totalLimit : 0;
        });
        const RunResult* run = worst ? &in.results.of(worst).run : nullptr;
        list.add(board, {{in.project.boards[board].name},
                         dropCell(n.dropTotal, n.run.need.totalLimit, n.dropKnown),
                         run ? circuitCell(in, worst) : ListCell{"–"},
                         run ? dropCell(run->dropOwn, run->need.ownLimit, true) : ListCell{"–"},
                         run ? dropCell(run->dropTotal, run->need.totalLimit, true) : ListCell{"–"},
                         run ? numberCell(run->need.totalLimit, 1) : ListCell{"–"},
                         run ? verdict(run->dropTotal <= run->need.totalLimit + 1e-9 &&
                                       run->dropOwn <= run->need.ownLimit + 1e-9)
                             : ListCell{"–"},
                         unknown ? ListCell{std::to_string(unknown), double(unknown), Ink::Check} : ListCell{"–"}});
    }
    list.notes.push_back("Of the supply's voltage, at the end of each run. A board whose circuits have no known length "
                         "shows how many there are.");
    return list;
}

List faultTable(const SheetInput& in, const ListScope& scope) {
    List list{"faults",
              "Fault levels",
              {{"At"},
               {"Three-phase", "kA", Align::Right},
               {"Line–line", "kA", Align::Right},
               {"Line–" + in.book.word(TradeWord::Earth), "kA", Align::Right},
               {"X/R", "", Align::Right},
               {"Peak", "kA", Align::Right},
               {"Largest of all states", "kA", Align::Right},
               {"State"},
               {"Holds", "kA", Align::Right},
               {"Verdict"}},
              {},
              {}};
    for (Ref node : scope.nodes) {
        const BoardId board = node.as<Board>();
        if (!board) continue;
        const Board& b = in.project.boards[board];
        const FaultPoint& f = in.results.of(board).fault;
        const auto kA = [&](double value) { return f.known && value > 0 ? figureCell(value) : ListCell{"–"}; };
        const LargestFault most = largestFault(in.project, in.results, board);
        const double holds = holdsKA(b);
        ListCell largest = !f.known ? ListCell{"not known", {}, Ink::Check} : figureCell(most.kA);
        if (f.known && f.runsUnknown) largest = {"≤ " + figures(most.kA), {}, Ink::Check};
        list.add(board, {{b.name},
                         kA(f.threePhase),
                         kA(f.lineLine),
                         kA(f.lineGround),
                         f.known ? figureCell(f.xOverR()) : ListCell{"–"},
                         kA(f.peak()),
                         largest,
                         {most.source ? "on " + nameOf(in.project, most.source) : "normal"},
                         holds > 0 ? ratingCell(holds) : ListCell{"–"},
                         f.known && holds > 0 ? verdict(!faultExceeds(most.kA, holds)) : ListCell{"–"}});
    }
    list.notes.push_back(
        fmt::format("Conductors at {} °C. Motors {}. Peak: √2·κ of the largest, IEC 60909-0.",
                    rating(in.project.basis.faultCelsius),
                    in.project.basis.motorsFeedFaults ? "feed faults with four times their current" : "are left out"));
    return list;
}

List loopTable(const SheetInput& in, const ListScope& scope) {
    List list{"loop",
              "Earth-fault loop",
              {{"Board"},
               {"Circuit nearest to its limit"},
               {"Device"},
               {"Zs", "Ω", Align::Right},
               {"Limit", "Ω", Align::Right},
               {"Opens within", "s", Align::Right},
               {"By"},
               {"Verdict"}},
              {},
              {}};
    if (!in.book.metric()) return list;
    for (Ref node : scope.nodes) {
        const BoardId board = node.as<Board>();
        if (!board) continue;
        const CircuitId worst = worstOn(in, scope, board, [&](CircuitId id) -> std::optional<double> {
            const EarthFault& e = *in.results.of(id).run.earth;
            if (!e.known || e.limit <= 0) return std::nullopt;
            return e.byResidual ? e.zs / e.limit * 1e-6 : e.zs / e.limit; // a watched one comes last
        });
        if (!worst) continue;
        const CircuitResult& r = in.results.of(worst);
        const EarthFault& e = *r.run.earth;
        list.add(board, {{in.project.boards[board].name},
                         circuitCell(in, worst),
                         {deviceWords(r, in.project.circuits[worst].poles, in.book)},
                         numberCell(e.zs, 2),
                         numberCell(e.limit, 2),
                         figureCell(e.allowed),
                         {e.byResidual ? "residual current" : "overcurrent"},
                         verdict(e.ok)});
    }
    list.notes.push_back("With conductors at their highest temperature in service.");
    return list;
}

List runTable(const SheetInput& in, const ListScope& scope) {
    List list{runsKey,
              "Branch circuits",
              {{"Circuit"},
               {"Serves"},
               {"Load", "A", Align::Right},
               {"Device"},
               {"Conductors"},
               {"Carries", "A", Align::Right},
               {"Length", lengthUnit(in.project.basis.units), Align::Right},
               {"Drop own", "%", Align::Right},
               {"Drop total", "%", Align::Right},
               {"What decided"}},
              {},
              {}};
    BoardId before;
    for (CircuitId id : scope.circuits) {
        const Circuit& c = in.project.circuits[id];
        const CircuitResult& r = in.results.of(id);
        if (c.board != before) list.group(in.project.boards[c.board].name);
        before = c.board;
        list.add(id,
                 {{nameOf(in.project, id)},
                  {servesWords(in.project, in.results, id)},
                  r.nothingHangsOn() ? ListCell{"–"} : figureCell(r.load.v),
                  {deviceWords(r, c.poles, in.book)},
                  conductorCell(in, r.run),
                  r.run.size >= 0 ? figureCell(r.run.ampacity) : ListCell{"–"},
                  lengthCell(r.run.need, in.project.basis.units),
                  dropCell(r.run.dropOwn, r.run.need.ownLimit, r.run.need.lengthKnown),
                  dropCell(r.run.dropTotal, r.run.need.totalLimit, r.run.need.lengthKnown && r.run.need.beforeKnown),
                  {whyWords(r.run)}});
    }
    return list;
}

std::vector<List> calculationLists(const SheetInput& in) {
    const CalculationSheets wanted = in.project.basis.calculationSheets;
    std::vector<List> lists;
    if (wanted == CalculationSheets::Nothing) return lists;
    lists.push_back(methodTable(in));
    for (const ListKind& kind : listKinds()) {
        if (kind.of != ListKind::Of::Calculations) continue;
        const ListForm* form = listForm(in.project, kind.key);
        const bool circuits = kind.key == std::string(runsKey);
        if ((form && form->offSheets) || (circuits && wanted != CalculationSheets::Circuits)) continue;
        if (List list = formedList(in, kind); !list.rows.empty()) lists.push_back(std::move(list));
    }
    return lists;
}

} // namespace lintel
