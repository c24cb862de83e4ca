// What stands in boards and above them: fault levels against ratings, grounding and bonding, demand from the service
// down, load by area.

#include "core/lists/RunCells.h"
#include "core/plan/LoadDensity.h"
#include "core/project/Equipment.h"
#include "core/project/FaultRating.h"
#include "core/project/FreePlaces.h"
#include "core/sheets/BoardPlace.h"
#include "core/solve/BoardLoad.h"
#include "core/solve/States.h"

#include <fmt/format.h>

#include <map>

namespace lintel {
namespace {

/// "20/1 × 23, 30/2 × 4": the devices of a board by rating and poles.
std::string devicesOf(const SheetInput& in, const Board& b) {
    std::map<std::tuple<double, int, std::string>, int> count;
    for (CircuitId id : in.results.on(b.id)) {
        const Circuit& c = in.project.circuits[id];
        const CircuitResult& r = in.results.of(id);
        if (c.use != CircuitUse::Reserved && r.device > 0)
            ++count[{r.device, c.poles, deviceWithPoles(in, r, c.poles)}];
    }
    std::string all;
    for (const auto& [what, n] : count)
        all += fmt::format("{}{}{}", all.empty() ? "" : ", ", std::get<2>(what), n > 1 ? fmt::format(" × {}", n) : "");
    return all.empty() ? "–" : all;
}

} // namespace

List protectionList(const SheetInput& in) {
    const Project& p = in.project;
    List list{"protection",
              "Protective devices, fault available against rating",
              {{"Board"},
               {"Where"},
               {"Fault, largest", "kA", Align::Right},
               {"In the state"},
               {"Rated", "kA", Align::Right},
               {"Tested series pair", "kA", Align::Right},
               {"Used", "%", Align::Right},
               {"Main", "A", Align::Right},
               {"Devices", "", Align::Left, 150}},
              {},
              {}};
    for (const Board& b : p.boards) {
        const BoardResult& n = in.results.of(b.id);
        const LargestFault fault = largestFault(p, in.results, b.id);
        const double holds = holdsKA(b);
        const bool known = n.fault.known;
        const std::string where = boardPlace(p, b);
        ListCell used = known && holds > 0 ? percentCell(fault.kA / holds * 100) : ListCell{"–"};
        if (known && faultExceeds(fault.kA, holds)) used.ink = Ink::Stop;
        list.add(b.id, {{b.name},
                        {where.empty() ? "–" : where},
                        !known                ? ListCell{"not known", {}, Ink::Check}
                        : n.fault.runsUnknown ? ListCell{"≤ " + figures(fault.kA), {}, Ink::Check}
                                              : figureCell(fault.kA),
                        {fault.source ? "on " + nameOf(p, fault.source) : "normal"},
                        ratingCell(b.ratingKA),
                        b.seriesKA > 0 ? ratingCell(b.seriesKA) : ListCell{"–"},
                        used,
                        b.main > 0 ? numberCell(b.main) : ListCell{passesOn(b.use) ? "–" : "lugs"},
                        {devicesOf(in, b)}});
        for (CircuitId id : in.results.on(b.id)) {
            const Circuit& c = p.circuits[id];
            if (!c.heldKA) continue;
            ListCell own = percentCell(fault.kA / holdsKA(b, c) * 100);
            if (known && faultExceeds(fault.kA, holdsKA(b, c))) own.ink = Ink::Stop;
            list.add(id, {{nameOf(p, id)},
                          {"a device with a rating of its own"},
                          known ? figureCell(fault.kA) : ListCell{"not known", {}, Ink::Check},
                          {fault.source ? "on " + nameOf(p, fault.source) : "normal"},
                          ratingCell(*c.heldKA),
                          {"–"},
                          known ? own : ListCell{"–"},
                          {"–"},
                          {deviceWords(in.results.of(id), c.poles, in.book)}});
        }
    }
    if (!list.rows.empty())
        list.notes.push_back(
            fmt::format("Conductors at {} °C. Motors {}.", rating(p.basis.faultCelsius),
                        p.basis.motorsFeedFaults ? "feed faults with four times their current" : "are left out"));
    return list;
}

List bondingList(const SheetInput& in) {
    const Project& p = in.project;
    List list{"bonding",
              in.book.word(TradeWord::Grounding),
              {{"Where the system begins"},
               {"Supplied by"},
               {"Line conductors"},
               {in.book.word(TradeWord::ElectrodeConductor)},
               {in.book.word(TradeWord::Bonding)},
               {"Metal"},
               {"Rule"}},
              {},
              {}};
    for (const Board& b : p.boards) {
        const BoardResult& n = in.results.of(b.id);
        if (!n.supply || n.run.size < 0 || (passesOn(b.use) && b.main <= 0)) continue;
        if (n.supply.is<Source>() && !separatelyDerived(p, n.supply.as<Source>())) continue;
        Working w;
        const Bonding bond = bondingOf(n.run, p.basis.electrodeMaterial, in.book, &w);
        std::string rules;
        for (const auto& step : w.steps)
            if (!step.cited.empty() && rules.find(step.cited) == std::string::npos)
                rules += (rules.empty() ? "" : ", ") + step.cited;
        list.add(b.id, {{b.name},
                        {nameOf(p, n.supply)},
                        {conductorWords(n.run, in.book)},
                        {bond.electrode >= 0 ? (bond.electrodes > 1 ? fmt::format("{} × ", bond.electrodes) : "") +
                                                   sizeWords(in.book, bond.electrode)
                                             : "–"},
                        {bond.jumper >= 0 ? sizeWords(in.book, bond.jumper) : "–"},
                        {wordOf(p.basis.electrodeMaterial)},
                        {rules}});
    }
    return list;
}

List demandList(const SheetInput& in) {
    const Project& p = in.project;
    List list{"demand",
              "Demand from the service to the boards",
              {{"Of"},
               {"Fed from; rule"},
               {"Connected", "kVA", Align::Right},
               {"Demand", "kVA", Align::Right},
               {"Demand", "A", Align::Right},
               {"Rated", "A", Align::Right},
               {"Used", "%", Align::Right},
               {in.book.word(TradeWord::LineA), "kVA", Align::Right},
               {in.book.word(TradeWord::LineB), "kVA", Align::Right},
               {in.book.word(TradeWord::LineC), "kVA", Align::Right},
               {"Imbalance", "%", Align::Right}},
              {},
              {}};
    bool heavier = false;
    for (Ref thing : in.results.order) {
        const NodeResult& n = *in.results.node(thing);
        if (n.connected <= 0) continue;
        heavier = heavier || (!thing.is<Transformer>() && heavierThanBalanced(n));
        const Board* b = p.boards.find(thing.as<Board>());
        const Transformer* t = p.transformers.find(thing.as<Transformer>());
        const double rated = b ? mostAmps(*b) : t ? in.results.of(t->id).primaryAmps.v : 0;
        const double use = b ? in.results.of(b->id).use : t ? in.results.of(t->id).use : 0;
        ListCell used = rated > 0 ? percentCell(use * 100) : ListCell{"–"};
        if (use > 1) used.ink = Ink::Stop;
        std::vector<ListCell> cells{{nameOf(p, thing)},
                                    {fedFrom(p, n)},
                                    numberCell(n.connected / 1000, 1),
                                    numberCell(n.demand / 1000, 1),
                                    figureCell(demandBesideRating(thing, n)),
                                    rated > 0 ? (b ? ratingCell(rated) : figureCell(rated)) : ListCell{"–"},
                                    used};
        const int lines = factsOf(b ? b->system : t ? t->secondary : p.sources[thing.as<Source>()].system).lines;
        for (int i = 0; i < 3; ++i)
            cells.push_back(i < lines ? numberCell(n.phaseVa[std::size_t(i)] / 1000, 1) : ListCell{"–"});
        cells.push_back(lines > 1 ? numberCell(n.imbalance, 1) : ListCell{"–"});
        list.add(thing, std::move(cells));
    }
    if (heavier)
        list.notes.push_back("Demand in A is that of the heaviest line, where that is more than it would be balanced.");
    for (const Source& s : p.sources) {
        const SourceResult& n = in.results.of(s.id);
        if (n.connected <= 0) continue;
        list.group("Of " + s.name + ", by kind of load");
        for (const auto& [kind, word] : EnumText<LoadKind>::words) {
            const std::size_t k = std::size_t(kind);
            if (n.kinds[k].va() <= 0) continue;
            const std::string& table = in.book.demand(kind, p.basis.occupancy).table;
            const bool own = p.basis.demandFactors.count(word) > 0;
            list.rows.push_back({ListEntry::Kind::Figures,
                                 s.id,
                                 {{kindTitle(kind, in.book)},
                                  {own             ? "the project's own factor"
                                   : table.empty() ? "in full"
                                                   : table},
                                  numberCell(n.kinds[k].va() / 1000, 1),
                                  numberCell(n.demandByKind[k] / 1000, 1)}});
        }
        list.rows.push_back({ListEntry::Kind::Total,
                             s.id,
                             {{"Together"},
                              {"real and reactive power added apart"},
                              numberCell(n.connected / 1000, 1),
                              numberCell(n.demand / 1000, 1)}});
    }
    return list;
}

List densityList(const SheetInput& in) {
    const Project& p = in.project;
    const bool imperial = p.basis.units == UnitSystem::Imperial;
    const double square = imperial ? metresPerFoot * metresPerFoot : 1;
    const char *area = imperial ? "ft²" : "m²", *per = imperial ? "VA/ft²" : "VA/m²";
    List list{"density",
              "Load density",
              {{"Room"},
               {"Name"},
               {"Area", area, Align::Right},
               {"Devices", "", Align::Right},
               {"Lighting", "VA", Align::Right},
               {"All", "VA", Align::Right},
               {"Lighting", per, Align::Right},
               {"All", per, Align::Right}},
              {},
              {}};
    LoadDensity whole;
    const auto cells = [&](const std::string& number_, const std::string& name, const LoadDensity& d) {
        const double units = d.squareMetres / square;
        return std::vector<ListCell>{{number_},
                                     {name},
                                     numberCell(units),
                                     numberCell(d.devices),
                                     numberCell(d.lightingVa),
                                     numberCell(d.va),
                                     units > 0 ? numberCell(d.lightingVa / units, 2) : ListCell{"–"},
                                     units > 0 ? numberCell(d.va / units, 2) : ListCell{"–"}};
    };
    for (const Level& l : p.levels) {
        const LevelDensity d = densityOf(p, in.results, l.id);
        if (d.rooms.empty()) continue;
        list.group(l.name);
        for (const auto& [id, room] : d.rooms) list.add(id, cells(p.rooms[id].number, p.rooms[id].name, room));
        list.total(cells("", l.name + ", all", d.level));
        whole.va += d.level.va, whole.lightingVa += d.level.lightingVa;
        whole.squareMetres += d.level.squareMetres, whole.devices += d.level.devices;
    }
    if (list.rows.empty()) return list;
    list.total(cells("", "All floors", whole));
    list.notes.push_back("Loads that stand on the plan. What is listed and not drawn has no place.");
    for (const Source& s : p.sources)
        if (const double least = in.results.of(s.id).lightingFloor; least > 0)
            list.notes.push_back(fmt::format("{}: the demand of lighting is not below {} VA by area ({}).", s.name,
                                             number(least), in.book.cite("areaLighting")));
    return list;
}

List sectionList(const SheetInput& in) {
    const Project& p = in.project;
    List list{"sections",
              "Sections of boards",
              {{"Board"},
               {"Section"},
               {"Places"},
               {"Switch", "A", Align::Right},
               {"Residual current", "mA", Align::Right},
               {"Type"},
               {"Metered"},
               {"Circuits", "", Align::Right},
               {"Connected", "kVA", Align::Right},
               {"Free places", "", Align::Right}},
              {},
              {}};
    for (const Board& b : p.boards)
        for (const Section& s : p.sections) {
            if (s.board != b.id) continue;
            const bool ways = b.form == BoardForm::Ways;
            const auto place = [&](int slot) { return ways ? (slot - 1) / 3 + 1 : slot; };
            int circuits = 0;
            double va = 0;
            for (CircuitId id : in.results.on(b.id)) {
                const Circuit& c = p.circuits[id];
                if (!s.holds(c) || c.use != CircuitUse::Load) continue;
                ++circuits;
                va += in.results.of(id).va;
            }
            const int free = freePlaces(p, b, in.results.on(b.id), s.from, s.to);
            list.add(b.id, {{b.name},
                            {s.name},
                            {fmt::format("{}–{}", place(s.from), place(s.to))},
                            s.rating > 0 ? ratingCell(s.rating) : ListCell{"–"},
                            s.residual > 0 ? ratingCell(s.residual) : ListCell{"–"},
                            {s.residual > 0 ? wordOf(s.residualType) : "–"},
                            {s.metered ? "yes" : "–"},
                            numberCell(circuits),
                            figureCell(va / 1000),
                            numberCell(free)});
        }
    if (!list.rows.empty()) list.notes.push_back("Connected load of the circuits in each section, without diversity.");
    return list;
}

} // namespace lintel
